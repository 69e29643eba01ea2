"""Survey: what was measured and typed, what the readings amount to, what is on the wall."""

from collections.abc import Callable

from django.core.files.uploadedfile import UploadedFile
from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from django.utils.text import slugify
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.devices import devices_for
from bench.forms import moved_place, number_in
from bench.stages.survey.forms import WallForm
from bench.words import worded
from bench.workbench.changes import apply, change, refused
from bench.workbench.context import WorkbenchContext, workbench
from trade.errors import MeasureError, PlanError
from trade.measure import INCH_MM, read_length, say_length
from trade.parse import spreadsheet
from trade.plan.features import usual
from trade.plan.flatness import Plumb, RunOut
from trade.plan.model import Plan, Stud, Wall
from trade.plan.readings import ByHand, Reading
from trade.wall.framing import into_framing
from trade.wall.infer import as_studs

_SAME_STUD_MM = 30.0
STUD = "stud"


@require_POST
def save(request: HttpRequest, wall: int) -> HttpResponse:
    """Keep what was surveyed."""
    bench = workbench(request, wall, "survey")
    form = WallForm(bench.units, bench.plan.wall, bench.plan.faced_name, request.POST)

    def changed(plan: Plan) -> Plan:
        said = form.cleaned_data
        if plan.corners:
            return replace(plan, faced=said["name"], wall=said["wall"])
        return replace(plan, name=said["name"], wall=said["wall"])

    return change(bench, form, changed, _("Survey the wall"))


def _on_the_wall(
    bench: WorkbenchContext, changed: Callable[[Wall], Wall], label: str
) -> HttpResponse:
    return apply(bench, lambda plan: replace(plan, wall=changed(plan.wall)), label)


@require_POST
def take(request: HttpRequest, wall: int) -> HttpResponse:
    """Count on what the readings say.

    The studs that they make likely take the place of those typed before.
    """
    bench = workbench(request, wall, "survey")
    survey = bench.known.survey
    if not survey or not (studs := as_studs(survey.inference)):
        return refused(bench, _("The readings do not make any stud likely yet. Take more."))
    studs = tuple(
        replace(stud, centre_mm=min(stud.centre_mm, bench.plan.wall.width_mm)) for stud in studs
    )
    return _on_the_wall(
        bench, lambda now: replace(now, studs=studs), _("Take the studs from the readings")
    )


@require_POST
def by_hand(request: HttpRequest, wall: int) -> HttpResponse:
    """Pin a stud, strike it out, or let go of what was pinned or struck before."""
    bench = workbench(request, wall, "survey")
    word = next((word for word in ("pinned", "struck", "free") if word in request.POST), "")
    try:
        at = number_in(request, word)
        said = ByHand(at_mm=at, word="pinned" if word == "pinned" else "struck")
    except PlanError as error:
        return refused(bench, str(error))

    def changed(now: Wall) -> Wall:
        others = tuple(
            r
            for r in now.readings
            if not (isinstance(r, ByHand) and abs(r.at_mm - at) < _SAME_STUD_MM)
        )
        return replace(now, readings=others if word == "free" else (*others, said))

    labels = {"pinned": _("Confirm a stud"), "struck": _("Reject a stud")}
    label = labels.get(word, _("Leave a stud to the readings"))
    return _on_the_wall(bench, changed, label)


@require_POST
def place(request: HttpRequest, wall: int) -> HttpResponse:
    """Put a stud, an outlet, a door … where the person pointed.

    It is of the usual size, and can be moved and typed over.
    """
    bench = workbench(request, wall, "survey")
    kind, now = request.POST.get("kind", ""), bench.plan.wall
    try:
        x, y = number_in(request, "x_mm"), number_in(request, "top_mm")
        if kind == STUD:
            step = float(INCH_MM) / 16 if bench.units == "imperial" else 1.0
            studs = (
                *now.studs,
                Stud(centre_mm=round(min(max(x, 0.0), now.width_mm) / step) * step),
            )
            changed = replace(now, studs=tuple(sorted(studs, key=lambda stud: stud.centre_mm)))
        else:
            thing = usual(kind, x, y, (now.width_mm, now.height_mm))
            changed = replace(now, features=(*now.features, into_framing(thing, now)))
    except PlanError as error:
        return refused(bench, str(error))
    return _on_the_wall(bench, lambda _: changed, worded("Put a {kind} on the wall", kind=kind))


@require_POST
def move(request: HttpRequest, wall: int, index: int) -> HttpResponse:
    """Move a thing that is on the wall; with `live`, only show it there."""
    bench = workbench(request, wall, "survey")
    now = bench.plan.wall
    try:
        thing = now.features[index]
        left, top = moved_place(request, bench.units, thing.left_mm, thing.top_mm)
    except IndexError:
        return refused(bench, _("That thing is no longer on the wall."))
    except PlanError as error:
        return refused(bench, str(error))
    wide, high = thing.right_mm - thing.left_mm, thing.top_mm - thing.bottom_mm
    left = min(max(left, 0.0), max(now.width_mm - wide, 0.0))
    top = min(max(top, high), now.height_mm)
    moved = replace(thing, left_mm=left, right_mm=left + wide, bottom_mm=top - high, top_mm=top)
    changed = replace(now, features=(*now.features[:index], moved, *now.features[index + 1 :]))
    if request.POST.get("live"):
        bench.show(replace(bench.plan, wall=changed))
        return bench.fragment()
    return _on_the_wall(bench, lambda _: changed, worded("Move the {name}", name=thing.row.name))


@require_POST
def remove(request: HttpRequest, wall: int, index: int) -> HttpResponse:
    """Take a thing off the wall; undo puts it back."""
    bench = workbench(request, wall, "survey")
    features = bench.plan.wall.features
    if index >= len(features):
        return refused(bench, _("That thing is no longer on the wall."))
    kept = (*features[:index], *features[index + 1 :])
    return _on_the_wall(
        bench,
        lambda now: replace(now, features=kept),
        worded("Take away the {name}", name=features[index].row.name),
    )


@require_POST
def sweep(request: HttpRequest, wall: int) -> HttpResponse:
    """Sweep the whole wall with the finder that the settings name, at a height."""
    bench = workbench(request, wall, "survey")
    now = bench.plan.wall
    devices = devices_for(
        bench.wall.pk, now.width_mm, sum(not isinstance(r, ByHand) for r in now.readings)
    )
    if devices is None:
        return refused(bench, _("No stud finder is connected. Type its readings instead."))
    try:
        height = read_length(request.POST.get("height", ""), bench.units)
        readings = tuple(devices.sweep(0.0, now.width_mm, height))
    except (MeasureError, PlanError) as error:
        return refused(bench, str(error))
    said = worded("Sweep at {height}", height=say_length(height, bench.units))
    return _on_the_wall(
        bench, lambda before: replace(before, readings=(*before.readings, *readings)), said
    )


@require_POST
def measure(request: HttpRequest, wall: int) -> HttpResponse:
    """Take ceiling, floor and plumb with the level that the settings name.

    What was typed of them before is replaced.
    """
    bench = workbench(request, wall, "survey")
    now = bench.plan.wall
    devices = devices_for(bench.wall.pk, now.width_mm, len(now.readings))
    if devices is None:
        return refused(bench, _("No level is connected. Type its readings instead."))
    places = (0.0, now.width_mm / 2, now.width_mm)
    low = now.height_mm * 0.15
    high = now.height_mm * 0.85
    flatness = replace(
        now.flatness,
        run_outs=(
            RunOut(line="ceiling", points_mm=tuple((x, devices.to_ceiling_mm(x)) for x in places)),
            RunOut(line="floor", points_mm=tuple((x, devices.to_floor_mm(x)) for x in places)),
        ),
        plumbs=(
            Plumb(
                at_mm=places[1],
                low_mm=low,
                high_mm=high,
                out_mm=devices.lean_mm(places[1], low, high),
            ),
        ),
    )
    return _on_the_wall(
        bench, lambda before: replace(before, flatness=flatness), _("Measure level and plumb")
    )


@require_safe
def readings_out(request: HttpRequest, wall: int) -> HttpResponse:
    """All readings as a table."""
    bench = workbench(request, wall, "survey")
    answer = HttpResponse(
        spreadsheet.write(bench.plan.wall.readings), content_type="text/csv; charset=utf-8"
    )
    name = f"{slugify(bench.plan.name) or 'wall'}.readings.csv"
    answer["Content-Disposition"] = content_disposition_header(True, name) or ""
    return answer


@require_POST
def readings_in(request: HttpRequest, wall: int) -> HttpResponse:
    """Add a table of readings to those there are: all of it, or nothing."""
    bench = workbench(request, wall, "survey")
    file = request.FILES.get("table")
    if not isinstance(file, UploadedFile):
        return refused(bench, _("Choose a table (CSV) first."))
    try:
        readings: tuple[Reading, ...] = spreadsheet.read(
            file.read(spreadsheet.MAX_BYTES + 1), bench.plan.wall.width_mm
        )
    except spreadsheet.RefusedSheetError as error:
        bench.refused_rows = error.rows
        return refused(bench, str(error))
    return _on_the_wall(
        bench, lambda now: replace(now, readings=(*now.readings, *readings)), _("Bring in readings")
    )
