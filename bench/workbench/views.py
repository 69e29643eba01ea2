"""The workbench at any stage: open, undo and redo, units; the plan and its sums as files."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect
from django.utils.formats import date_format
from django.utils.http import content_disposition_header
from django.utils.text import slugify
from django.utils.timezone import localdate
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe

from bench.access import helps_only, wall_or_404
from bench.long_work import long_running
from bench.models import StaleError
from bench.models.walls import UNITS
from bench.printing.sums import sums_sheet
from bench.workbench.changes import after, base_of, refused, stale
from bench.workbench.context import opened, stage_named, workbench
from trade.plan import plan_file


@long_running
@require_safe
def sums(request: HttpRequest, wall: int) -> HttpResponse:
    """Every sum of a wall as a PDF, to print."""
    bench = workbench(request, wall, "fix")
    day = date_format(localdate(), "j F Y")
    answer = HttpResponse(
        sums_sheet(bench.plan, bench.verdict, bench.units, bench.wall.job.name, day),
        "application/pdf",
    )
    name = f"{slugify(bench.plan.name) or 'wall'}-sums.pdf"
    answer["Content-Disposition"] = content_disposition_header(False, name) or "inline"
    return answer


@require_safe
def wall(request: HttpRequest, wall: int) -> HttpResponse:
    """Show a wall: on to the stage that waits."""
    found = wall_or_404(request, wall, "hang")
    return redirect("stage", found.address, "hang" if helps_only(request, found) else "fix")


@require_safe
def stage(request: HttpRequest, wall: int, stage: str) -> HttpResponse:
    """Show the workbench at a stage."""
    return opened(request, wall, stage)


@require_POST
def step(request: HttpRequest, wall: int, by: int) -> HttpResponse:
    """Undo or redo."""
    asked = request.POST.get("stage", "fix")
    bench = workbench(
        request, wall, asked if stage_named(asked) else "fix", request.POST.get("piece")
    )
    try:
        if not bench.wall.step(by, base_of(bench)):
            return refused(
                bench,
                _("There is nothing to undo.") if by < 0 else _("There is nothing to redo."),
            )
    except StaleError:
        return stale(bench)
    bench.show(bench.wall.plan())
    return after(bench)


def undo(request: HttpRequest, wall: int) -> HttpResponse:
    """One step back."""
    return step(request, wall, -1)


def redo(request: HttpRequest, wall: int) -> HttpResponse:
    """One step on again."""
    return step(request, wall, 1)


@require_POST
def units(request: HttpRequest, wall: int) -> HttpResponse:
    """Say everything in the other units; nothing of the plan changes."""
    asked = request.POST.get("stage", "fix")
    bench = workbench(
        request, wall, asked if stage_named(asked) else "fix", request.POST.get("piece")
    )
    if request.POST.get("units") in dict(UNITS):
        bench.wall.units = request.POST["units"]
        bench.wall.save(update_fields=["units"])
    bench.show(bench.wall.plan())
    return after(bench)


@require_safe
def export_plan(request: HttpRequest, wall: int) -> HttpResponse:
    """Send the wall as an open plan file."""
    found = wall_or_404(request, wall)
    answer = HttpResponse(plan_file.dump(found.plan()), content_type="application/json")
    answer["Content-Disposition"] = (
        content_disposition_header(True, f"{slugify(found.name) or 'wall'}.plan.json") or ""
    )
    return answer
