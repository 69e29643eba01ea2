"""Fix: put pieces up, move them, choose what holds them, apply a cure, take them down."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.drawing import along as along_drawing
from bench.forms import moved_place, number_in
from bench.long_work import long_running
from bench.stages.fix import options
from bench.stages.fix.drag import drag_update
from bench.stages.fix.forms import FixForm
from bench.words import worded
from bench.workbench.changes import apply, change, refused
from bench.workbench.context import workbench
from bench.workbench.offers import looked_for, offered, offered_cures
from trade.choose import placement
from trade.choose.along import along as places_along
from trade.choose.findings import findings
from trade.errors import PlanError
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan


@require_POST
def save(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Keep place, size and hardware."""
    bench = workbench(request, wall, "fix", key)
    form = FixForm(bench, bench.chosen, request.POST)
    return change(
        bench,
        form,
        lambda plan: plan.with_piece(form.cleaned_data["piece"]),
        worded("Change {name}", name=bench.chosen.name),
    )


@require_POST
def put_up(request: HttpRequest, wall: int) -> HttpResponse:
    """Put a new piece up where the person pointed."""
    bench = workbench(request, wall, "fix", request.POST.get("piece"))
    if request.POST.get("kind") == "thing":
        return options.hang(bench, request)
    try:
        piece = placement.put_up(
            bench.plan,
            request.POST.get("kind", ""),
            number_in(request, "x_mm"),
            number_in(request, "top_mm"),
        )
    except PlanError as error:
        return refused(bench, str(error))
    bench.key, bench.tab = piece.key, ""
    return apply(
        bench, lambda plan: plan.with_piece(piece), worded("Put up {name}", name=piece.name)
    )


@require_POST
def move(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Move a piece; with `live`, only judge it there: nothing is kept until the finger lifts."""
    bench = workbench(request, wall, request.POST.get("stage", "fix"), key)
    piece = bench.chosen
    try:
        left, top = moved_place(request, bench.units, piece.left_mm, piece.top_mm)
        room = bench.plan.wall.width_mm - piece.length_mm
        moved = replace(
            piece,
            left_mm=min(max(left, 0.0), max(room, 0.0)),
            top_mm=_clamped_top(bench.plan, piece, top),
        )
        moved = mount_of(moved).landed(moved, bench.plan.wall)
        if request.POST.get("catch"):
            moved = placement.kept_on_studs(piece, moved, bench.plan.wall)
        plan = bench.plan.with_piece(moved)
    except PlanError as error:
        return refused(bench, str(error))
    if request.POST.get("live"):
        if request.POST.get("seen") == key and bench.stage.name != "survey":
            return drag_update(bench, plan)
        bench.show(plan)
        return bench.fragment()
    return apply(bench, lambda _: plan, worded("Move {name}", name=piece.name))


@require_POST
def support(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """One more support, or all of them set on the studs."""
    bench = workbench(request, wall, "fix", key)
    piece, wall_now = bench.chosen, bench.plan.wall
    try:
        if request.POST.get("how") == "more":
            changed = placement.add_support(piece, wall_now)
        else:
            changed = placement.on_studs(piece, wall_now)
    except PlanError as error:
        return refused(bench, str(error))
    return apply(
        bench,
        lambda plan: plan.with_piece(changed),
        worded("Supports of {name}", name=piece.name),
    )


@require_POST
def remove(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Take a piece down; undo puts it back."""
    bench = workbench(request, wall, request.POST.get("stage", "fix"), key)
    name, bench.key = bench.chosen.name, None
    return apply(bench, lambda plan: plan.without_piece(key), worded("Take down {name}", name=name))


@long_running
@require_safe
def cures(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Show what would cure a piece.

    Asked for after the page is there, because it tries many things.
    """
    bench = workbench(request, wall, "fix", key)
    found = findings(bench.plan, bench.chosen.key)
    return render(
        request,
        "fix/_cures.html",
        {
            "bench": bench,
            "cures": offered_cures(bench.plan, bench.chosen.key),
            "search": looked_for(bench.plan, bench.chosen.key),
            "findings": found,
        },
    )


@long_running
@require_safe
def along(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Show what may hang at each place along a piece.

    Asked for after the page is there, because it tries many weights.
    """
    bench = workbench(request, wall, "fix", key)
    piece, drawn = bench.chosen, ""
    if len(piece.supports_mm) > 1:
        drawn = along_drawing.draw(piece, places_along(piece, bench.plan), bench.units)
    return render(request, "fix/_along.html", {"drawing": drawn})


@long_running
@require_POST
def cure(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Apply a cure that was offered."""
    bench = workbench(request, wall, "fix", key)
    found = offered(bench.plan, bench.chosen.key, request.POST.get("code", ""))
    if found is None:
        return refused(bench, _("That fix is no longer valid: the wall has changed since."))
    return apply(
        bench,
        found.on,
        worded("Cure {name}", name=bench.chosen.name),
    )


def _clamped_top(plan: Plan, piece: AnyPiece, top: float) -> float:
    return min(max(top, piece.high_mm), plan.wall.height_mm)
