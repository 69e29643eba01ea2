"""Options to hang something: what to hang, the options compared, best spots, more load."""

from typing import Any, NamedTuple

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.drawing import small
from bench.drawing import spots as spots_drawing
from bench.forms import number_in
from bench.long_work import long_running
from bench.words import said, worded
from bench.workbench.changes import apply, refused
from bench.workbench.context import WorkbenchContext, workbench
from bench.workbench.put_up import HangForm
from trade import data
from trade.assess import judge_piece
from trade.check import Message
from trade.choose import candidates, placement
from trade.choose.arrange import arrange
from trade.choose.capacity_map import best as best_spots
from trade.choose.capacity_map import map_capacity, nearest_height, settled
from trade.choose.criteria import NAMES
from trade.choose.cures import most
from trade.choose.held_with import holders
from trade.choose.loosened import loosened, sentence
from trade.choose.options import as_it_hangs, find_options
from trade.choose.order import deeper, heavier, order, order_deeper
from trade.choose.request import HangRequest, wish_of
from trade.choose.search import Option
from trade.choose.stud_layouts import StudLayout
from trade.errors import PlanError
from trade.memo import memoized
from trade.mounts import KINDS
from trade.mounts.base import Mount
from trade.plan.model import AnyPiece, Plan

_SIDE_BY_SIDE = 4
_MOST_TIMES = 8.0
_MOST_PERCENT, _FALLS = 400.0, 6
found_options = memoized(limit=32)(find_options)
found_spots = memoized(limit=8)(map_capacity)


def hang(bench: WorkbenchContext, request: HttpRequest) -> HttpResponse:
    """Put something up by what it is.

    The best way to hang it there, or, when none holds, the plainest with what is wrong.
    """
    form = HangForm(bench.units, request.POST)
    if not form.is_valid():
        bench.keep(form)
        return bench.fragment(422)
    try:
        hang_request = form.hang_request(
            bench.plan, number_in(request, "x_mm"), number_in(request, "top_mm")
        )
        plan, key, words = hung(bench.plan, hang_request, form.cleaned_data["many"])
    except PlanError as error:
        form.refuse(error)
        bench.keep(form)
        return bench.fragment(422)
    bench.key, bench.tab = key, "ways"
    return apply(bench, lambda _: plan, worded("Hang {name}", name=hang_request.name), words)


def hung(plan: Plan, hang_request: HangRequest, many: int) -> tuple[Plan, str, str]:
    """Return the plan with a wish hung on it, the key of its first piece, and where they went.

    The best way there; where none holds, the nearest place that does; and where none does either,
    the plainest way there, with what is wrong with it.
    """
    found = found_options(plan, hang_request)
    if many == 1 and found.found:
        best = found.found[0]
        words = " ".join(said(each, plan.units) for each in best.changed)
        return plan.with_piece(best.piece), hang_request.key, words
    taken = {piece.key for piece in plan.pieces}
    keys = [
        hang_request.key,
        *(
            key
            for n in range(2, many + len(taken) + 2)
            if (key := f"{hang_request.key}-{n}") not in taken
        ),
    ]
    wishes = tuple(
        replace(
            hang_request,
            key=key,
            name=hang_request.name if n == 1 else f"{hang_request.name[:74]} ({n})",
        )
        for n, key in enumerate(keys[:many], start=1)
    )
    done = arrange(plan, wishes)
    if not done.placed:
        piece = plainest(plan, hang_request)
        return plan.with_piece(piece), piece.key, ""
    short = (
        worded(" For {left_over} there was no room.", left_over=len(done.left_over))
        if done.left_over
        else ""
    )
    if many == 1:
        return (
            done.plan,
            done.placed[0].key,
            _("It would not hold there, so it is at the nearest place where it does."),
        )
    return (
        done.plan,
        done.placed[0].key,
        worded(
            "{placed} placed, each as near as there was room.{short}",
            placed=len(done.placed),
            short=short,
        ),
    )


@long_running
@require_safe
def ways(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Show the ways to hang a piece.

    Asked for after the page is there, because it tries many things.
    """
    bench = workbench(request, wall, "fix", key)
    asked = held_only(bench, request.GET.get("with", ""))
    found = found_options(bench.plan, asked)
    shown = [_shown(way, bench) for way in found.found]
    now = (
        None
        if any(each.now for each in shown)
        else _shown(as_it_hangs(bench.plan, bench.chosen), bench)
    )
    context: dict[str, Any] = {
        "bench": bench,
        "units": bench.units,
        "found": found,
        "shown": shown,
        "now": now if not asked.held_with else None,
        "only": asked.held_with,
    }
    context |= {"beside": shown[:_SIDE_BY_SIDE], "merits": _merits(found.found[:_SIDE_BY_SIDE])}
    context["refused"] = [_Refused(KINDS[no.kind], no.reason) for no in found.refused]
    context["gives"] = [sentence(each) for each in loosened(bench.plan, found)]
    return _in_parts(request, "fix/_ways.html", "fix/_strip.html", context)


def held_only(bench: WorkbenchContext, key: str) -> HangRequest:
    """Return the wish for the chosen piece, held with one thing alone where that is asked."""
    wish = wish_of(bench.chosen)
    if not any(each.key == key for each in holders(bench.plan)):
        return wish  # anything may hold it; what nobody knows is asked for by no page
    return replace(wish, held_with=key)


def _in_parts(
    request: HttpRequest, panel: str, other: str, context: dict[str, Any]
) -> HttpResponse:
    """Show the panel's words.

    The part that belongs beside the wall asks for itself once they are there.
    """
    if request.GET.get("part"):
        return render(request, other, context)
    answer = render(request, panel, context)
    answer["HX-Trigger-After-Swap"] = "worked-out"
    return answer


@long_running
@require_POST
def adopt(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Hang a piece another way."""
    bench = workbench(request, wall, "fix", key)
    bench.tab = "ways"
    code, asked = request.POST.get("way", ""), held_only(bench, request.POST.get("with", ""))
    found = found_options(bench.plan, asked).found
    way = next((way for way in found if code_of(way) == code), None)
    if way is None:
        return refused(bench, _("That option is no longer valid: the wall has changed since."))
    return apply(
        bench,
        lambda plan: plan.with_piece(way.piece),
        f"{KINDS[way.kind].name} for {bench.chosen.name}",
    )


def code_of(way: Option) -> str:
    """Return what the button of a way sends."""
    return f"{way.kind}-{way.hold}"


def plainest(plan: Plan, hang_request: HangRequest) -> AnyPiece:
    """Return what is put up when no way holds.

    The first kind that serves it, where it was wished, so that it can be mended.
    """
    left = min(
        max(hang_request.x_mm - hang_request.length_mm / 2, 0.0),
        max(plan.wall.width_mm - hang_request.length_mm, 0.0),
    )
    length = min(hang_request.length_mm, plan.wall.width_mm)
    slot = StudLayout(left, length, placement.supports_on_studs(plan.wall, left, length))
    for kind, row in data.mounting_kinds().items():
        if hang_request.goes in row.serves and not row.ends:
            piece = candidates.base(hang_request, kind, slot, plan)
            if piece is not None:
                return replace(piece, anchor=placement.usual_anchor(plan.wall))
    raise PlanError(_("The wall is too small for it."), "length_mm")


class _Shown(NamedTuple):
    """A way as its column shows it; `now`: it hangs so already."""

    code: str
    way: Option
    mount: Mount[Any]
    drawing: str
    now: bool
    tools: str
    off: str
    seen: str


def _shown(way: Option, bench: WorkbenchContext) -> _Shown:
    return _Shown(
        code=code_of(way),
        way=way,
        mount=KINDS[way.kind],
        drawing=small.side(way.piece, bench.plan),
        now=way.piece == bench.chosen,
        tools=", ".join(data.tools()[tool].name for tool in way.effort.tools) or _("usual tools"),
        off=("leaves a patch", "removable", _("lifts off"))[way.effort.off],
        seen=("hidden", _("visible edge"), _("visible fixings"))[way.effort.seen],
    )


def _merits(found: tuple[Option, ...]) -> list[tuple[str, list[float]]]:
    """Each merit with its mark for each way, side by side."""
    return [(words, [way.marks[name] for way in found]) for name, words in NAMES.items()]


class _Refused(NamedTuple):
    """A kind that does not do, and why not."""

    mount: Mount[Any]
    reason: Message


@long_running
@require_safe
def where(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Show the wall shaded by what a piece would carry there, and the best places.

    Asked for after the page is there.
    """
    bench = workbench(request, wall, "fix", key)
    piece, plan = bench.chosen, bench.plan
    columns = found_spots(piece, plan)
    carried = sum(thing.mass_kg or 0.0 for thing in piece.things)
    here = min(columns, key=lambda column: abs(column.left_mm - piece.left_mm))
    context = {
        "bench": bench,
        "units": bench.units,
        "carried": carried,
        "here": here,
        "may": carried * most(piece, plan, _MOST_TIMES),
        "unlike": settled(piece, plan.wall) != piece,
        "places": [
            (each, each.left_mm + piece.length_mm / 2, nearest_height(each, piece.top_mm))
            for each in best_spots(columns)
        ],
        "drawing": spots_drawing.draw(piece, columns, carried or here.kg, plan),
    }
    return _in_parts(request, "fix/_spots.html", "fix/_shade.html", context)


@long_running
@require_POST
def settle(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Hang a piece at another place along the wall, its supports on the studs there."""
    bench = workbench(request, wall, "fix", key)
    bench.tab = "where"
    piece, plan = bench.chosen, bench.plan
    try:
        room = max(plan.wall.width_mm - piece.length_mm, 0.0)
        moved = replace(
            piece,
            left_mm=min(max(number_in(request, "left_mm"), 0.0), room),
            top_mm=number_in(request, "top_mm"),
        )
        placed = settled(moved, plan.wall)
        plan.with_piece(placed)
    except PlanError as error:
        return refused(bench, str(error))
    return apply(bench, lambda now: now.with_piece(placed), worded("Move {name}", name=piece.name))


@long_running
@require_safe
def what_if(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Show what a piece would do under so much more load, or further out.

    And what gives way first.
    """
    bench = workbench(request, wall, "fix", key)
    piece, plan = bench.chosen, bench.plan
    load, out = (
        min(max(percent_in(request, name), low), _MOST_PERCENT)
        for name, low in (("load", 0), ("out", 50))
    )
    trouble = ""
    try:
        tried = deeper(heavier(piece, load / 100), out / 100)
    except PlanError as error:
        tried, trouble = heavier(piece, load / 100), str(error)
    verdict = judge_piece(tried, plan.with_piece(tried))
    kg = sum(thing.mass_kg or 0.0 for thing in piece.things)
    falls = [
        (
            title,
            [(each, each.factor * size, each.factor * 100 <= at) for each in found],
            kind,
        )
        for title, found, size, at, kind in (
            (_("With more load"), order(piece, plan, _FALLS), kg, load, "mass"),
            (
                _("With more reach"),
                order_deeper(piece, plan, _FALLS),
                piece.depth_mm,
                out,
                "length",
            ),
        )
    ]
    context = {
        "bench": bench,
        "units": bench.units,
        "load": load,
        "out": out,
        "verdict": verdict,
        "kg": kg * load / 100,
        "depth": tried.depth_mm,
        "falls": falls,
        "trouble": trouble,
        "kept": round(100 * (1 - data.house("close_from"))),
    }
    return render(request, "fix/_falls.html", context)


def percent_in(request: HttpRequest, name: str) -> float:
    """Return a percentage that a slider sent; 100 when it did not arrive."""
    said = request.GET.get(name, "")
    return float(said) if said.isdecimal() and len(said) < 6 else 100.0
