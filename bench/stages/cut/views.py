"""Cut.

What to saw for the whole wall, out of what is at hand and what is sold; what is done to each part.
"""

import json

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.formats import date_format
from django.utils.timezone import localdate
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.downloads import sent
from bench.long_work import long_running
from bench.printing import true_size
from bench.printing.labels import labels_sheet
from bench.printing.saw import saw_sheet, sheet_drawing
from bench.stages.cut.cutting import cutting_of
from bench.stages.cut.forms import MeasuredForm, SawForm
from bench.workbench.changes import change
from bench.workbench.context import opened, workbench
from trade.plan.model import Plan, Policy


@long_running
@require_safe
def stage(request: HttpRequest, wall: int) -> HttpResponse:
    """Show the stage, which computes the cut list."""
    return opened(request, wall, "cut")


@long_running
@require_safe
def working(request: HttpRequest, wall: int) -> HttpResponse:
    """Work on a large plan a little further.

    How far it is, and that it goes on; when all of it is done, the stage itself.
    """
    bench = workbench(request, wall, "cut", request.GET.get("piece"))
    cutting = cutting_of(bench)
    cutting.go_on()
    if cutting.progress.ready:
        answer = HttpResponse()
        answer["HX-Location"] = json.dumps(
            {"path": bench.address(), "target": "#bench", "swap": "outerHTML"}
        )
        return answer
    context = {"progress": cutting.progress, "going_on": request.get_full_path()}
    return render(request, "cut/_progress.html", context)


@require_POST
def saw(request: HttpRequest, wall: int) -> HttpResponse:
    """Another saw."""
    bench = workbench(request, wall, "cut", request.POST.get("piece"))
    form = SawForm(bench, request.POST)

    def changed(plan: Plan) -> Plan:
        policy: Policy = form.cleaned_data["policy"]
        return replace(plan, policy=policy)

    return change(bench, form, changed, _("The saw"))


@long_running
@require_POST
def measured(request: HttpRequest, wall: int) -> HttpResponse:
    """Keep what was measured at the wood and at what stands."""
    bench = workbench(request, wall, "cut", request.POST.get("piece"))
    form = MeasuredForm(bench, request.POST)
    return change(bench, form, form.changed, _("Measure parts"))


@long_running
@require_safe
def saw_pdf(request: HttpRequest, wall: int) -> HttpResponse:
    """Cut list (PDF), to print."""
    bench = workbench(request, wall, "cut")
    content = saw_sheet(
        bench.plan.name,
        cutting_of(bench).plan,
        bench.units,
        bench.wall.job.name,
        date_format(localdate(), "j F Y"),
        cutting_of(bench).bodies,
    )
    return sent(content, bench.plan.name, "saw.pdf")


@long_running
@require_safe
def labels_pdf(request: HttpRequest, wall: int) -> HttpResponse:
    """Labels for the parts, to print, cut up and stick on."""
    bench = workbench(request, wall, "cut")
    return sent(
        labels_sheet(bench.plan.name, cutting_of(bench).plan.parts, bench.units),
        bench.plan.name,
        "labels.pdf",
    )


@long_running
@require_safe
def sheet_file(request: HttpRequest, wall: int, job: int, n: int, kind: str) -> HttpResponse:
    """One sheet's cutting diagram at true size, as DXF or SVG."""
    bench = workbench(request, wall, "cut")
    jobs = cutting_of(bench).plan.sheets
    if kind not in ("dxf", "svg") or job >= len(jobs) or n >= len(jobs[job].plan.sheets):
        raise Http404(_("There is no such sheet."))
    drawing = sheet_drawing(jobs[job], n, bench.units)
    content = true_size.dxf(drawing) if kind == "dxf" else true_size.svg(drawing).encode()
    return sent(content, bench.plan.name, f"sheet-{job + 1}-{n + 1}.{kind}", kind == "dxf")
