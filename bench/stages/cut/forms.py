"""The forms that ask about the saw and about what was measured."""

from typing import Any

from django.forms import BoundField
from django.http import QueryDict
from django.utils.translation import gettext as _
from msgspec.structs import replace

from bench.forms import BenchForm, MeasureField
from bench.stages.cut.cutting import cutting_of
from bench.words import worded
from bench.workbench.context import WorkbenchContext
from trade import data
from trade.cutting.actual import with_thickness
from trade.errors import PlanError
from trade.measure import say_fine_length
from trade.plan.model import Plan
from trade.plan.shop import Measured


class SawForm(BenchForm):
    """What the saw takes, and what is trimmed off first."""

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """As the job's policy has it."""
        super().__init__(posted)
        self.bench, policy = bench, bench.plan.policy
        self.fields["kerf"] = MeasureField(bench.units, policy.kerf_mm, label=_("Saw kerf"))
        self.fields["trim"] = MeasureField(
            bench.units, policy.trim_mm, label=_("Trim on every edge")
        )

    def clean(self) -> dict[str, Any]:
        """Build the policy; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        try:
            got["policy"] = replace(
                self.bench.plan.policy, kerf_mm=got["kerf"], trim_mm=got["trim"]
            )
        except PlanError as error:
            self.add_error(error.where.removesuffix("_mm"), str(error))
        return got


class MeasuredForm(BenchForm):
    """What was measured.

    Woods that are not what they are called, and parts that are cut to what stands.
    """

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """Make a field for each wood in its thickness, and for each part that waits."""
        super().__init__(posted)
        self.bench = bench
        self.woods: dict[str, tuple[str, float]] = {}
        self.parts: dict[str, tuple[str, str]] = {}
        for n, (board, thick_mm) in enumerate(cutting_of(bench).thicknesses):
            self.woods[f"wood-{n}"] = (board, thick_mm)
            label = worded(
                "{wood!c}, planned {thick}",
                wood=data.boards()[board].name,
                thick=say_fine_length(thick_mm, bench.units),
            )
            self.fields[f"wood-{n}"] = MeasureField(bench.units, thick_mm, label=label)
        known = {(each.piece, each.part): each.length_mm for each in bench.plan.shop.measured}
        for part in cutting_of(bench).plan.parts:
            name = f"{part.key}--{part.name}"
            if part.detail.late and name not in self.parts:
                self.parts[name] = (part.key, part.name)
                value = known.get((part.key, part.name))
                self.fields[name] = MeasureField(
                    bench.units,
                    value,
                    required=False,
                    label=worded("Measured {late}", late=part.detail.late),
                )

    def wood_fields(self) -> list[BoundField]:
        """Return the fields of woods."""
        return [self[name] for name in self.woods]

    def changed(self, plan: Plan) -> Plan:
        """Return the plan with what was measured.

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
