"""Mark.

Where to drill, read from a datum of one's own; story sticks and templates at true size, on paper
and as files.
"""

from typing import Any

from django import forms
from django.http import Http404, HttpRequest, HttpResponse
from django.utils.formats import date_format
from django.utils.timezone import localdate
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.changes import change
from bench.desk import Desk, desk_or_404
from bench.forms import BenchForm, MeasureField
from bench.long_work import long_running
from bench.printing import true_size
from bench.printing.wall_sheet import wall_sheet
from bench.stages.sent import sent
from trade import wording
from trade.errors import PlanError
from trade.marking.overview import overview
from trade.marking.template import Drawing, by_support, edge, sticks, template
from trade.measure import say_length
from trade.plan.datum import Datum
from trade.plan.model import Plan

_CORNERS = [
    ("left", "the left corner"),
    ("right", "the right corner"),
    ("middle", "the middle of the piece"),
]
_KINDS = ("pdf", "svg", "dxf")
_ON_A_SCREEN = 15.0  # letters of a drawing at true size, so many times those on paper


class DatumForm(BenchForm):
    """What marks are measured from."""

    def __init__(self, desk: Desk, posted: Any = None) -> None:
        """Corners, the middle, every stud; a level line, or the floor."""
        super().__init__(posted)
        datum, units = desk.plan.datum, desk.units
        studs = [
            (f"stud-{stud.centre_mm!r}", f"the stud at {say_length(stud.centre_mm, units)}")
            for stud in desk.plan.wall.uprights
        ]
        now = f"stud-{datum.stud_mm!r}" if datum.across == "stud" else datum.across
        if now not in {key for key, _ in studs} and datum.across == "stud":
            studs.append((now, f"{say_length(datum.stud_mm or 0.0, units)}, where a stud was"))
        self.fields["across"] = forms.ChoiceField(
            choices=[*_CORNERS, *studs], label="Across, from", initial=now
        )
        self.fields["line"] = MeasureField(
            units, datum.line_mm, label="Up, from a level line at", required=False
        )
        self.fields["line"].widget.attrs["placeholder"] = "the floor"

    def clean(self) -> dict[str, Any]:
        """Build the datum; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        across, _, stud = got["across"].partition("-")
        try:
            got["datum"] = Datum(
                across=across, stud_mm=float(stud) if stud else None, line_mm=got["line"]
            )
        except PlanError as error:
            self.add_error("line" if error.where == "line_mm" else "across", str(error))
        return got


def form_for(desk: Desk, posted: Any = None) -> DatumForm:
    """The form of this stage."""
    return DatumForm(desk, posted)


@require_POST
def datum(request: HttpRequest, wall: int) -> HttpResponse:
    """Measure from somewhere else."""
    desk = desk_or_404(request, wall, "mark", request.POST.get("piece"))
    form = DatumForm(desk, request.POST)

    def changed(plan: Plan) -> Plan:
        return replace(plan, datum=form.cleaned_data["datum"])

    return change(desk, form, changed, "Measure from elsewhere")


@long_running
@require_safe
def drawn(request: HttpRequest, wall: int, key: str, what: str, kind: str) -> HttpResponse:
    """A piece's template or its story sticks at true size, as PDF, SVG or DXF."""
    desk = desk_or_404(request, wall, "mark", key)
    if (
        kind not in _KINDS
        or what not in ("template", "across", "up", "sticks", "back")
        or (what == "sticks" and kind != "pdf")
    ):
        raise Http404("There is no such drawing.")
    found = [_warned(drawing, desk) for drawing in _drawings(desk, what, kind)]
    if kind == "pdf":
        content: bytes = true_size.pdf(found, desk.units)
    else:
        content = true_size.svg(found[0]).encode() if kind == "svg" else true_size.dxf(found[0])
    return sent(content, desk.chosen.name, f"{what}.{kind}", kind == "dxf")


@long_running
@require_safe
def whole(request: HttpRequest, wall: int, kind: str) -> HttpResponse:
    """The whole wall: the sheet to take to it (PDF), or its drawing at true size (SVG, DXF)."""
    desk = desk_or_404(request, wall, "mark")
    if kind not in _KINDS:
        raise Http404("There is no such drawing.")
    if kind == "pdf":
        day = date_format(localdate(), "j F Y")
        return sent(
            wall_sheet(desk.plan, desk.verdict, desk.units, desk.wall.job.name, day),
            desk.plan.name,
            "wall.pdf",
        )
    drawing = overview(desk.plan, desk.units, _ON_A_SCREEN)
    content = true_size.svg(drawing).encode() if kind == "svg" else true_size.dxf(drawing)
    return sent(content, desk.plan.name, f"wall.{kind}", kind == "dxf")


def _warned(drawing: Drawing, desk: Desk) -> Drawing:
    """Return the drawing with "do not drill" in its name if its piece does not hold."""
    verdict = desk.verdict.piece(desk.chosen.key)
    return (
        drawing._replace(name=f"{wording.outcome(verdict)}, don't drill yet: {drawing.name}")
        if verdict.fails
        else drawing
    )


def _drawings(desk: Desk, what: str, kind: str) -> list[Drawing]:
    if what == "template":
        cut_up = by_support(desk.chosen, desk.plan, desk.units) if kind == "pdf" else []
        return cut_up or [template(desk.chosen, desk.plan, desk.units)]
    if what == "back":
        back = edge(desk.chosen, desk.plan, desk.units)
        if back is None:
            raise Http404("It has no holes of its own.")
        return [back]
    both = sticks(desk.chosen, desk.plan, desk.units)
    return list(both) if what == "sticks" else [both[what == "up"]]
