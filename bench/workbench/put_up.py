"""The form that asks what to hang; it stands under the drawing of every stage."""

from typing import Any

from django import forms
from django.http import QueryDict
from django.utils.translation import gettext as _

from bench.forms import BenchForm, MeasureField
from bench.words import lazy, say
from bench.workbench.amounts import add_amount, amount_in
from trade import data
from trade.choose.request import HangRequest, wish_for
from trade.errors import MeasureError, PlanError
from trade.measure import Units
from trade.plan.model import Plan

_MOST_AT_ONCE = 6
_GROUPS = (("stand", lazy("Stands on it")), ("hang", lazy("Hangs from it")))


class HangForm(BenchForm):
    """What shall hang: a thing out of the lists, how much of it, and how large it may be."""

    def __init__(self, units: Units, posted: QueryDict | None = None) -> None:
        """Things out of both lists; a bare number typed is read in these units."""
        super().__init__(posted, prefix="hang")
        self.units = units
        wants = [(key, say(row.name)) for key, row in data.wants().items()]
        groups = [(_("A piece of its own"), wants)]
        for goes, title in _GROUPS:
            rows = sorted(
                (say(row.name), key) for key, row in data.contents().items() if row.goes == goes
            )
            groups.append((title, [(key, name) for name, key in rows]))
        self.fields["what"] = forms.ChoiceField(
            choices=[("", _("choose…")), *groups], label=_("What do you want to hang?")
        )
        add_amount(
            self,
            "what",
            units,
            label=_("How much of it"),
            help_text=_(
                "3 ft of books, 12 plates, 5 litres; of a shelf or a cabinet, the weight it must "
                "carry."
            ),
        )
        self.fields["length"] = MeasureField(units, label=_("How long"), required=False)
        self.fields["depth"] = MeasureField(units, label=_("How deep"), required=False)
        self.fields["many"] = forms.IntegerField(
            label=_("How many"), initial=1, min_value=1, max_value=_MOST_AT_ONCE
        )
        for name in ("length", "depth"):
            self.fields[name].widget.attrs["placeholder"] = _("automatic")
        self.fields["what"].error_messages["required"] = _("Choose what to hang.")

    def clean(self) -> dict[str, Any]:
        """Read the amount as the thing wants it."""
        got = super().clean() or {}
        if got.get("what") and got.get("amount"):
            try:
                got["much"] = amount_in(self, got["what"], got["amount"], self.units)
            except (MeasureError, PlanError) as error:
                self.add_error("amount", str(error))
        return got

    def hang_request(self, plan: Plan, x_mm: float, top_mm: float) -> HangRequest:
        """Return the wish for it, with its middle and its top there.

        Raises:
            PlanError: an absurd weight or size.
        """
        got = self.cleaned_data
        return wish_for(
            plan, got["what"], got.get("much"), x_mm, top_mm, got.get("length"), got.get("depth")
        )
