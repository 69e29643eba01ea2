"""The answer to one tick of a drag.

Only the parts of the workbench that differ from the page on which the drag began.
"""

import re
from typing import NamedTuple

from django.http import HttpResponse
from django.template.loader import render_to_string

from bench.drawing import elevation
from bench.workbench.context import WorkbenchContext
from trade import wording
from trade.check import Check, PieceVerdict
from trade.plan.model import Plan


class Row(NamedTuple):
    """One row of the check list.

    The heading of a limit state, a check, or the number of an unchanged row on the page.
    """

    standing: wording.Standing | None = None
    check: Check | None = None
    kept: int | None = None


def drag_update(bench: WorkbenchContext, plan: Plan) -> HttpResponse:
    """Render the chosen piece where the pointer is now, without saving anything.

    The page sends the keys of the neighbours it redrew last (`touched`): they are drawn again, as
    they may be back to normal.

    Args:
        bench: the workbench with the saved plan.
        plan: the same plan with the piece moved.
    """
    key, saved, section = bench.chosen.key, bench.verdict, bench.judged()
    bench.show(plan)
    pairs = zip(saved.pieces, bench.verdict.pieces, strict=True)
    changed = {
        now.key
        for before, now in pairs
        if now is not before
        and now.key != key
        and elevation.verdict_view(before) != elevation.verdict_view(now)
    }
    touched = changed | set(bench.request.POST.get("touched", "").split())
    context = bench.judged()
    context |= {
        "section_unchanged": all(
            section[part] == context[part] for part in ("support", "support_mark", "section")
        ),
        "drawing": elevation.draw_moved(
            plan, bench.verdict, key, bench.stage.name, bench.marks, touched
        ),
        "touched": " ".join(sorted(changed)),
    }
    if bench.stage.name == "fix" and not bench.tab:
        before = _rows(saved.piece(key))
        context["rows"] = [_by_number(row, before) for row in _rows(bench.verdict.piece(key))]
    markup = render_to_string("bench/_live.html", context, bench.request)
    return HttpResponse(
        re.sub(r"\s*\n\s*", "\n", markup)
    )  # indentation only helps readers of the templates


def _rows(verdict: PieceVerdict) -> list[Row]:
    """Rows of the check list, in the order of the page."""
    found = []
    for standing in wording.standings(verdict):
        if standing.checks:
            found += [
                Row(standing=standing._replace(checks=())),
                *(Row(check=check) for check in standing.checks),
            ]
    return found


def _by_number(row: Row, before: list[Row]) -> Row:
    """Replace a row that the page already has by its number there."""
    return Row(kept=before.index(row)) if row in before else row
