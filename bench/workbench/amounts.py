"""How much of something: a field whose unit is that of the thing chosen beside it."""

from typing import Any

from django import forms
from django.http import HttpRequest, HttpResponse
from django.urls import reverse
from django.views.decorators.http import require_safe

from bench.forms import MeasureInput
from trade.choose.request import amount_of, counted_in
from trade.measure import UNIT_SIGNS, Units


class AmountInput(MeasureInput):
    """Show the unit of what is chosen, and post that it did."""

    def show(self, what: str, units: Units) -> None:
        """Show the unit in which so much of something is said; of nothing chosen, none."""
        self.shown = counted_in(what) if what else ""
        self.unit = UNIT_SIGNS[self.shown][units] if what else ""


def add_amount(form: forms.Form, chooser: str, units: Units, **kwargs: Any) -> None:
    """Add the field `amount` to a form, which shows the unit of what is chosen beside it.

    Args:
        form: has the choice already.
        chooser: the name of the choice, of rows of the contents and the wants tables.
        units: of the person.
        kwargs: as of any field.
    """
    shows = AmountInput()
    chosen = form.data.get(form.add_prefix(chooser), "")
    shows.show(chosen if isinstance(chosen, str) else "", units)
    form.fields["amount"] = forms.CharField(required=False, max_length=40, widget=shows, **kwargs)
    form.fields[chooser].widget.attrs |= {
        "hx-get": reverse("amount-unit", args=[units, form.add_prefix("amount")]),
        "hx-target": f"#id_{form.add_prefix('amount')}-unit",
        "hx-swap": "outerHTML",
        "hx-sync": "this:replace",
    }


def amount_in(form: forms.Form, what: str, typed: str, units: Units) -> float:
    """Return how much was typed, read in the unit that the field showed.

    Raises:
        MeasureError: no unit was typed where none of that sort was shown.
        PlanError: it is no number, or absurd.
    """
    shown = form.data.get(f"{form.add_prefix('amount')}_in", "")
    return amount_of(what, typed, units, shown if isinstance(shown, str) else "")


@require_safe
def unit(request: HttpRequest, units: str, field: str) -> HttpResponse:
    """Show the unit of what was chosen, the one value asked with, beside a field of that name."""
    system: Units = "imperial" if units == "imperial" else "metric"
    shows = AmountInput()
    shows.show(str(next(iter(request.GET.values()), "")), system)
    return HttpResponse(shows.sign(field))
