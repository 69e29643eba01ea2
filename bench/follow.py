"""What follows a finger: of the bench only what differs from the page on which the piece was taken hold of."""

import re
from typing import NamedTuple

from django.http import HttpResponse
from django.template.loader import render_to_string

from bench.desk import Desk
from bench.drawing import elevation
from trade import say
from trade.check import Check, PieceVerdict
from trade.plan import Plan


class Row(NamedTuple):
    """One row of the list of checks: a limit state or a check, or its number on the page where it is there already."""

    standing: say.Standing | None = None
    check: Check | None = None
    kept: int | None = None


def follow(desk: Desk, plan: Plan) -> HttpResponse:
    """The wall as it would be with the chosen piece where the finger is; nothing is kept.

    The page says which other pieces it was last told to draw anew (`touched`): these are drawn again, for they may be as before.
    """
    key, was, judged = desk.chosen.key, desk.verdict, desk.judged()
    desk.show(plan)
    now = zip(was.pieces, desk.verdict.pieces, strict=True)
    others = {
        each.key for old, each in now
        if each is not old and each.key != key and elevation.shown(old) != elevation.shown(each)
    }  # fmt: skip
    touched = others | set(desk.request.POST.get("touched", "").split())
    context = desk.judged()
    context |= {
        "cut_kept": all(judged[part] == context[part] for part in ("seat", "seat_mark", "section")),
        "drawing": elevation.moved(plan, desk.verdict, key, desk.stage, desk.marks, touched),
        "touched": " ".join(sorted(others)),
    }
    if desk.stage == "fix" and not desk.look:
        before = _rows(was.piece(key))
        context["rows"] = [_told(row, before) for row in _rows(desk.verdict.piece(key))]
    markup = render_to_string("bench/_live.html", context, desk.request)
    return HttpResponse(re.sub(r"\s*\n\s*", "\n", markup))  # indents are for who reads templates


def _rows(verdict: PieceVerdict) -> list[Row]:
    found = []
    for standing in say.standings(verdict):
        if standing.checks:
            found += [Row(standing=standing._replace(checks=())), *(Row(check=check) for check in standing.checks)]
    return found


def _told(row: Row, before: list[Row]) -> Row:
    """A row that the page has is told by its number there."""
    return Row(kept=before.index(row)) if row in before else row
