"""Mark.

Where to drill, read from a datum of one's own; story sticks and templates at true size, on paper
and as files.
"""

from django.http import Http404, HttpRequest, HttpResponse
from django.utils.formats import date_format
from django.utils.timezone import localdate
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.downloads import sent
from bench.long_work import long_running
from bench.printing import true_size
from bench.printing.wall_sheet import wall_sheet
from bench.stages.mark.forms import DatumForm
from bench.words import worded
from bench.workbench.changes import change
from bench.workbench.context import WorkbenchContext, workbench
from trade import wording
from trade.marking.overview import overview
from trade.marking.template import Drawing, by_support, edge, round_corners, sticks, template
from trade.plan.model import Plan

_KINDS = ("pdf", "svg", "dxf")
_ON_A_SCREEN = 15.0  # letters of a drawing at true size, so many times those on paper


@require_POST
def datum(request: HttpRequest, wall: int) -> HttpResponse:
    """Measure from somewhere else."""
    bench = workbench(request, wall, "mark", request.POST.get("piece"))
    form = DatumForm(bench, request.POST)

    def changed(plan: Plan) -> Plan:
        return replace(plan, datum=form.cleaned_data["datum"])

    return change(bench, form, changed, _("Measure from elsewhere"))


@long_running
@require_safe
def drawn(request: HttpRequest, wall: int, key: str, what: str, kind: str) -> HttpResponse:
    """Send a piece's template or its story sticks at true size, as PDF, SVG or DXF."""
    bench = workbench(request, wall, "mark", key)
    if (
        kind not in _KINDS
        or what not in ("template", "across", "up", "sticks", "back")
        or (what == "sticks" and kind != "pdf")
    ):
        raise Http404(_("There is no such drawing."))
    found = [_warned(drawing, bench) for drawing in _drawings(bench, what, kind)]
    if kind == "pdf":
        content: bytes = true_size.pdf(found, bench.units)
    else:
        content = true_size.svg(found[0]).encode() if kind == "svg" else true_size.dxf(found[0])
    return sent(content, bench.chosen.name, f"{what}.{kind}", kind == "dxf")


@long_running
@require_safe
def whole(request: HttpRequest, wall: int, kind: str) -> HttpResponse:
    """Send the whole wall: the sheet to take to it (PDF), or its drawing at true size (SVG.

    DXF).
    """
    bench = workbench(request, wall, "mark")
    if kind not in _KINDS:
        raise Http404(_("There is no such drawing."))
    if kind == "pdf":
        day = date_format(localdate(), "j F Y")
        return sent(
            wall_sheet(bench.plan, bench.verdict, bench.units, bench.wall.job.name, day),
            bench.plan.name,
            "wall.pdf",
        )
    drawing = overview(bench.plan, bench.units, _ON_A_SCREEN)
    content = true_size.svg(drawing).encode() if kind == "svg" else true_size.dxf(drawing)
    return sent(content, bench.plan.name, f"wall.{kind}", kind == "dxf")


def _warned(drawing: Drawing, bench: WorkbenchContext) -> Drawing:
    """Return the drawing with "do not drill" in its name if its piece does not hold."""
    verdict = bench.verdict.piece(bench.chosen.key)
    return (
        drawing._replace(
            name=worded(
                "{outcome}, don't drill yet: {name}",
                outcome=wording.outcome(verdict),
                name=drawing.name,
            )
        )
        if verdict.fails
        else drawing
    )


def _drawings(bench: WorkbenchContext, what: str, kind: str) -> list[Drawing]:
    if what == "template":
        piece, plan, units = bench.chosen, bench.plan, bench.units
        if kind != "pdf":
            return [template(piece, plan, units)]
        here = by_support(piece, plan, units) or [template(piece, plan, units)]
        return [*here, *round_corners(piece, plan, units)]
    if what == "back":
        back = edge(bench.chosen, bench.plan, bench.units)
        if back is None:
            raise Http404(_("It has no holes of its own."))
        return [back]
    both = sticks(bench.chosen, bench.plan, bench.units)
    return list(both) if what == "sticks" else [both[what == "up"]]
