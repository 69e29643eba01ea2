"""The log.

Every piece that hangs anywhere, searched and sifted; what it took; what held and what came loose.
"""

from collections.abc import Sequence
from typing import Any, NamedTuple

from django.db.models import Count, Q, QuerySet, Sum
from django.http import HttpRequest, HttpResponse, QueryDict
from django.shortcuts import redirect, render
from django.utils.http import urlencode
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.access import own_walls, wall_or_404, walls
from bench.long_work import long_running
from bench.models import LogEntry, StaleError
from bench.once import once
from bench.words import lazy, say, worded
from bench.workbench.changes import refused
from bench.workbench.context import workbench
from trade import data, wording
from trade.choose import placement
from trade.errors import PlanError
from trade.mounts import KINDS, mount_of
from trade.plan.model import AnyPiece, Plan
from trade.plan.place import each_piece

_ON_A_PAGE, _MOST_PAGES, _MOST_WORDS, _TARGETS = 40, 100, 6, 200
_HELD = {
    "firm": "firm",
    "loose": lazy("came loose"),
    "off": lazy("came off"),
    "none": lazy("not inspected"),
}


class LogFilter(NamedTuple):
    """One thing to sift by.

    Its name in the address, what it is called, its choices, what was chosen.
    """

    name: str
    label: str
    choices: Sequence[tuple[str, str]]
    chosen: str


def _fixings() -> dict[str, str]:
    return {key: say(row.name) for key, row in data.fixings().items()}


def _sieves(asked: QueryDict) -> list[LogFilter]:
    structures = [(key, say(row.name)) for key, row in data.structures().items()]
    choices: tuple[tuple[str, str, Sequence[tuple[str, str]]], ...] = (
        ("structure", _("Wall"), structures),
        ("kind", _("Kind"), [(key, say(mount.name)) for key, mount in KINDS.items()]),
        ("fixing", _("Held by"), list(_fixings().items())),
        ("outcome", _("Verdict"), [(key, say(word)) for key, word in wording.WORDS.items()]),
        ("held", _("Condition"), list(_HELD.items())),
    )
    return [
        LogFilter(
            name, label, rows, asked.get(name, "") if asked.get(name, "") in dict(rows) else ""
        )
        for name, label, rows in choices
    ]


def _found(request: HttpRequest, words: str, filters: list[LogFilter]) -> QuerySet[LogEntry]:
    """Lines of one's own walls that every word and every sieve lets through."""
    found = LogEntry.objects.filter(own_walls(request, "wall__"))
    for sifted in filters:
        if sifted.chosen:
            found = found.filter(**{sifted.name: "" if sifted.chosen == "none" else sifted.chosen})
    for word in words.lower().split()[:_MOST_WORDS]:
        found = found.filter(words__contains=word)
    return found


@require_safe
def log(request: HttpRequest) -> HttpResponse:
    """Show the page."""
    words, filters = request.GET.get("q", "")[:200], _sieves(request.GET)
    found = _found(request, words, filters)
    asked = request.GET.get("page", "1")
    page = min(max(int(asked), 1), _MOST_PAGES) if asked.isdecimal() and len(asked) < 6 else 1
    start = (page - 1) * _ON_A_PAGE
    lines = list(
        found.select_related("wall", "wall__job").defer("words")[start : start + _ON_A_PAGE + 1]
    )
    here = {"q": words} | {sifted.name: sifted.chosen for sifted in filters if sifted.chosen}
    context = {
        "lines": lines[:_ON_A_PAGE],
        "q": words,
        "filters": filters,
        "page": page,
        "here": urlencode(here),
        "names": {
            "kind": {key: say(mount.name) for key, mount in KINDS.items()},
            "fixing": _fixings(),
            "held": _HELD,
        },
        "before": urlencode(here | {"page": page - 1}) if page > 1 else "",
        "behind": urlencode(here | {"page": page + 1})
        if len(lines) > _ON_A_PAGE and page < _MOST_PAGES
        else "",
    }
    return render(request, "bench/log.html", context)


@long_running
@require_safe
def charts(request: HttpRequest) -> HttpResponse:
    """Show what held and what it took, of the same lines.

    Asked for after the page is there, for it goes through them all.
    """
    bars, took = _charts(_found(request, request.GET.get("q", "")[:200], _sieves(request.GET)))
    return render(request, "bench/_charts.html", {"bars": bars, "took": took})


class Bar(NamedTuple):
    """How pieces of one fixing class held: how many of each, and how long that is drawn, of 100."""

    name: str
    firm: int
    loose: int
    unseen: int
    firm_x: float
    loose_x: float
    unseen_x: float


class Took(NamedTuple):
    """What pieces took on average against what was thought, of so many of which somebody said."""

    n: int
    took: float
    thought: float


def _charts(found: QuerySet[LogEntry]) -> tuple[list[Bar], dict[str, Took]]:
    """Return what held and what came loose by what holds it, of all that hangs; what it took.

    The lines are gone through once.
    """
    hangs, loose, firm = Q(hung__isnull=False), Q(held__in=("loose", "off")), Q(held="firm")
    sums: dict[str, Any] = {
        "all": Count("pk", filter=hangs),
        "firm": Count("pk", filter=hangs & firm),
        "loose": Count("pk", filter=hangs & loose),
    }
    for what in ("minutes", "cost"):
        told = Q(**{f"{what}__isnull": False})
        sums |= {
            f"{what}_n": Count(what),
            f"{what}_took": Sum(what),
            f"{what}_thought": Sum(f"thought_{what}", filter=told),
        }
    rows: list[dict[str, Any]] = [
        dict(row) for row in found.order_by().values("fixing").annotate(**sums)
    ]
    most = max((row["all"] for row in rows), default=1) or 1
    bars = [
        _bar(row, 100 / most) for row in sorted(rows, key=lambda each: -each["all"]) if row["all"]
    ]
    took = {}
    for what in ("minutes", "cost"):
        n, *both = (
            sum(row[f"{what}_{part}"] or 0 for row in rows) for part in ("n", "took", "thought")
        )
        took[what] = Took(n, *(each / n if n else 0.0 for each in both))
    return bars, took


def _bar(row: dict[str, Any], per: float) -> Bar:
    unseen = row["all"] - row["firm"] - row["loose"]
    name = _fixings().get(row["fixing"], row["fixing"])
    return Bar(
        name, row["firm"], row["loose"], unseen, row["firm"] * per, row["loose"] * per, unseen * per
    )


@require_safe
def targets(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Walls onto which a piece may be copied."""
    bench = workbench(request, wall, "record", key)
    return render(
        request,
        "bench/copy.html",
        {
            "bench": bench,
            "piece": bench.chosen,
            "walls": walls(request).select_related("job")[:_TARGETS],
        },
    )


@require_POST
@once
def copy(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Copy a piece onto another wall, where it lands on the studs and is judged anew."""
    bench = workbench(request, wall, "record", key)
    to = request.POST.get("to", "")
    other = wall_or_404(request, int(to) if to.isdecimal() and len(to) < 12 else 0)
    plan = other.plan()
    try:
        landed = landing(bench.chosen, plan)
        other.record(
            plan.with_piece(landed),
            worded("Copy {name} from {wall}", name=landed.name, wall=bench.plan.name),
            other.seen,
        )
    except (PlanError, StaleError) as error:
        return refused(
            bench,
            worded("It can't be copied onto {name}: {error}", name=other.name, error=error.args[0]),
        )
    return redirect(f"{other.get_absolute_url()}fix/?piece={landed.key}")


def landing(piece: AnyPiece, plan: Plan) -> AnyPiece:
    """Return a piece as it lands on another wall.

    At its height, in the middle, on the studs; what was built of it stays behind.

    Raises:
        PlanError: it does not go there at all.
    """
    taken, n = {each.key for each, _ in each_piece(plan)}, 2
    key = piece.key
    while key in taken:
        key, n = f"{piece.key[:34]}-{n}", n + 1
    if piece.length_mm > plan.wall.width_mm:
        raise PlanError(_("it is longer than that wall is wide."))
    left, top = (plan.wall.width_mm - piece.length_mm) / 2, min(piece.top_mm, plan.wall.height_mm)
    anchor = piece.anchor if piece.anchor in data.anchors() else None
    moved: AnyPiece = replace(piece, key=key, left_mm=left, top_mm=top, anchor=anchor)
    moved = placement.on_studs(moved, plan.wall)
    return mount_of(moved).landed(moved, plan.wall)
