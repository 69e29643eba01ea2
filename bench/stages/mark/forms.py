"""The form that asks what the marks are measured from."""

from typing import Any

from django import forms
from django.http import QueryDict
from django.utils.translation import gettext as _

from bench.forms import BenchForm, MeasureField
from bench.words import lazy, worded
from bench.workbench.context import WorkbenchContext
from trade.errors import PlanError
from trade.measure import say_length
from trade.plan.datum import Datum

_CORNERS = [
    ("left", lazy("the left corner")),
    ("right", lazy("the right corner")),
    ("middle", lazy("its own middle")),
]


class DatumForm(BenchForm):
    """What marks are measured from."""

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """Corners, the middle, every stud; a level line, or the floor."""
        super().__init__(posted)
        datum, units = bench.plan.datum, bench.units
        studs = [
            (
                f"stud-{stud.centre_mm!r}",
                worded("the stud at {centre_mm}", centre_mm=say_length(stud.centre_mm, units)),
            )
            for stud in bench.plan.wall.uprights
        ]
        now = f"stud-{datum.stud_mm!r}" if datum.across == "stud" else datum.across
        if now not in {key for key, _ in studs} and datum.across == "stud":
            studs.append(
                (
                    now,
                    worded(
                        "{place}, where a stud was", place=say_length(datum.stud_mm or 0.0, units)
                    ),
                )
            )
        self.fields["across"] = forms.ChoiceField(
            choices=[*_CORNERS, *studs], label=_("Across, from"), initial=now
        )
        self.fields["line"] = MeasureField(
            units, datum.line_mm, label=_("Up, from a level line at"), required=False
        )
        self.fields["line"].widget.attrs["placeholder"] = _("the floor")

    def clean(self) -> dict[str, Any]:
        """Build the datum; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        across, _sep, stud = got["across"].partition("-")
        try:
            got["datum"] = Datum(
                across=across, stud_mm=float(stud) if stud else None, line_mm=got["line"]
            )
        except PlanError as error:
            self.add_error("line" if error.where == "line_mm" else "across", str(error))
        return got
