"""Cut.

What to saw for the whole wall, out of what is at hand and what is sold; what is done to each part.
"""

import json
from typing import Any

from django import forms
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.formats import date_format
from django.utils.timezone import localdate
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.changes import change
from bench.desk import Desk, desk_or_404
from bench.forms import BenchForm, MeasureField
from bench.long_work import long_running
from bench.printing import true_size
from bench.printing.labels import labels_sheet
from bench.printing.saw import saw_sheet, sheet_drawing
from bench.stages.buy import PriceForm
from bench.stages.days import DaysForm
from bench.stages.sent import sent
from bench.stages.yard import HandForm
from trade import data
from trade.cutting.actual import with_thickness
from trade.errors import PlanError
from trade.measure import say_fine_length
from trade.plan.model import Plan, Policy
from trade.plan.shop import Measured


class SawForm(BenchForm):
    """What the saw takes, and what is trimmed off first."""

    def __init__(self, desk: Desk, posted: Any = None) -> None:
        """As the job's policy has it."""
        super().__init__(posted)
        self.desk, policy = desk, desk.plan.policy
        self.fields["kerf"] = MeasureField(desk.units, policy.kerf_mm, label="The saw takes (kerf)")
        self.fields["trim"] = MeasureField(
            desk.units, policy.trim_mm, label="Trimmed off every edge"
        )

    def clean(self) -> dict[str, Any]:
        """Build the policy; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        try:
            got["policy"] = replace(self.desk.plan.policy, kerf_mm=got["kerf"], trim_mm=got["trim"])
        except PlanError as error:
            self.add_error(error.where.removesuffix("_mm"), str(error))
        return got


class MeasuredForm(BenchForm):
    """What was measured.

    Woods that are not what they are called, and parts that are cut to what stands.
    """

    def __init__(self, desk: Desk, posted: Any = None) -> None:
        """A field for each wood in its thickness, and for each part that waits."""
        super().__init__(posted)
        self.desk = desk
        self.woods: dict[str, tuple[str, float]] = {}
        self.parts: dict[str, tuple[str, str]] = {}
        for n, (board, thick_mm) in enumerate(desk.cutting.thicknesses):
            self.woods[f"wood-{n}"] = (board, thick_mm)
            name = data.boards()[board].name
            label = f"{name[:1].upper()}{name[1:]}, planned {say_fine_length(thick_mm, desk.units)}"
            self.fields[f"wood-{n}"] = MeasureField(desk.units, thick_mm, label=label)
        known = {(each.piece, each.part): each.length_mm for each in desk.plan.shop.measured}
        for part in desk.cutting.plan.parts:
            name = f"{part.key}--{part.name}"
            if part.detail.late and name not in self.parts:
                self.parts[name] = (part.key, part.name)
                value = known.get((part.key, part.name))
                self.fields[name] = MeasureField(
                    desk.units, value, required=False, label=f"Measured {part.detail.late}"
                )

    def wood_fields(self) -> list[Any]:
        """The fields of woods."""
        return [self[name] for name in self.woods]

    def changed(self, plan: Plan) -> Plan:
        """The plan with what was measured.

        Raises:
            PlanError: it can't be so; `where` names the field.
        """
        got = self.cleaned_data
        measured = []
        for name, (piece, part) in self.parts.items():
            if got[name] is not None:
                measured.append(
                    _at(
                        name,
                        lambda p=piece, q=part, n=name: Measured(piece=p, part=q, length_mm=got[n]),
                    )
                )
        plan = replace(plan, shop=replace(plan.shop, measured=tuple(measured)))
        for name, (board, thick_mm) in self.woods.items():
            if abs(got[name] - thick_mm) > 1e-6:
                before = plan
                plan = _at(
                    name,
                    lambda p=before, b=board, t=thick_mm, n=name: with_thickness(p, b, t, got[n]),
                )
        return plan

    def refuse(self, error: PlanError) -> None:
        """Beside the field that is named."""
        self.add_error(error.where if error.where in self.fields else None, str(error))


def _at(name: str, made: Any) -> Any:
    """Make something; what it refuses is said of a field."""
    try:
        return made()
    except PlanError as error:
        raise PlanError(str(error), name) from None


def form_for(desk: Desk, posted: Any = None) -> forms.Form | None:
    """The form of what is looked at."""
    if posted is None and not desk.cutting.progress.ready:
        return None
    made: dict[str, Any] = {
        "": SawForm,
        "parts": MeasuredForm,
        "stock": HandForm,
        "buy": PriceForm,
        "days": DaysForm,
    }
    form: forms.Form = made[desk.look](desk, posted)
    return form


@long_running
@require_safe
def working(request: HttpRequest, wall: int) -> HttpResponse:
    """Work on a large plan a little further.

    How far it is, and that it goes on; when all of it is done, the stage itself.
    """
    desk = desk_or_404(request, wall, "cut", request.GET.get("piece"))
    desk.cutting.go_on()
    if desk.cutting.progress.ready:
        answer = HttpResponse()
        answer["HX-Location"] = json.dumps(
            {"path": desk.address(), "target": "#bench", "swap": "outerHTML"}
        )
        return answer
    return render(request, "bench/cut/_progress.html", {"desk": desk})


@require_POST
def saw(request: HttpRequest, wall: int) -> HttpResponse:
    """Another saw."""
    desk = desk_or_404(request, wall, "cut", request.POST.get("piece"))
    form = SawForm(desk, request.POST)

    def changed(plan: Plan) -> Plan:
        policy: Policy = form.cleaned_data["policy"]
        return replace(plan, policy=policy)

    return change(desk, form, changed, "The saw")


@long_running
@require_POST
def measured(request: HttpRequest, wall: int) -> HttpResponse:
    """What was measured at the wood and at what stands."""
    desk = desk_or_404(request, wall, "cut", request.POST.get("piece"))
    form = MeasuredForm(desk, request.POST)
    return change(desk, form, form.changed, "Measure parts")


@long_running
@require_safe
def saw_pdf(request: HttpRequest, wall: int) -> HttpResponse:
    """The sheet for the saw, to print."""
    desk = desk_or_404(request, wall, "cut")
    content = saw_sheet(
        desk.plan.name,
        desk.cutting.plan,
        desk.units,
        desk.wall.job.name,
        date_format(localdate(), "j F Y"),
    )
    return sent(content, desk.plan.name, "saw.pdf")


@long_running
@require_safe
def labels_pdf(request: HttpRequest, wall: int) -> HttpResponse:
    """Labels for the parts, to print, cut up and stick on."""
    desk = desk_or_404(request, wall, "cut")
    return sent(
        labels_sheet(desk.plan.name, desk.cutting.plan.parts, desk.units),
        desk.plan.name,
        "labels.pdf",
    )


@long_running
@require_safe
def sheet_file(request: HttpRequest, wall: int, job: int, n: int, kind: str) -> HttpResponse:
    """One sheet's cutting diagram at true size, as DXF or SVG."""
    desk = desk_or_404(request, wall, "cut")
    jobs = desk.cutting.plan.sheets
    if kind not in ("dxf", "svg") or job >= len(jobs) or n >= len(jobs[job].plan.sheets):
        raise Http404("There is no such sheet.")
    drawing = sheet_drawing(jobs[job], n, desk.units)
    content = true_size.dxf(drawing) if kind == "dxf" else true_size.svg(drawing).encode()
    return sent(content, desk.plan.name, f"sheet-{job + 1}-{n + 1}.{kind}", kind == "dxf")
