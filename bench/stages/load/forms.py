"""The form that asks what a piece carries."""

from typing import Any

from django import forms
from django.http import QueryDict
from django.utils.translation import gettext as _

from bench.forms import BenchForm, MeasureField
from bench.words import lazy, say
from bench.workbench.amounts import add_amount, amount_in
from bench.workbench.context import WorkbenchContext
from trade import data
from trade.errors import MeasureError, PlanError
from trade.load import contents
from trade.plan.model import AnyPiece, Thing

ALL_ALONG, MIDDLE = lazy("all along"), lazy("middle")


class LoadForm(BenchForm):
    """The things on a piece, a row each, with one empty row below."""

    def __init__(
        self, bench: WorkbenchContext, piece: AnyPiece, posted: QueryDict | None = None
    ) -> None:
        """One row per thing; a posted form says itself how many rows it has."""
        super().__init__(posted)
        self.bench, self.piece = bench, piece
        self.fields["use"] = forms.ChoiceField(
            choices=[(key, say(row.name)) for key, row in data.uses().items()],
            label=_("How it will be used"),
            initial=piece.use,
        )
        rows = (
            len(piece.things) + 1
            if posted is None
            else max(1, min(sum(key.endswith("-name") for key in posted), 60))
        )
        for n in range(rows):
            self._row(n, piece.things[n] if n < len(piece.things) else None)
        self.count = rows
        listed = sorted(data.contents().items(), key=lambda item: item[1].name)
        self.fields["pick"] = forms.ChoiceField(
            choices=[
                ("", _("of something from the list")),
                *((key, say(row.name)) for key, row in listed),
            ],
            label=_("Of what"),
            required=False,
        )
        add_amount(self, "pick", bench.units, label=_("How much"))
        for field in ("amount", "pick"):
            self.fields[field].widget.attrs["data-hold"] = (
                "1"  # saved by its own button, not by every change
            )

    def _row(self, n: int, thing: Thing | None) -> None:
        units = self.bench.units
        self.fields[f"thing-{n}-name"] = forms.CharField(
            label=_("What"), max_length=80, required=False, initial=thing.name if thing else ""
        )
        self.fields[f"thing-{n}-weight"] = MeasureField(
            units,
            thing.mass_kg if thing else None,
            noun="weight",
            label=_("Weighs"),
            required=False,
        )
        self.fields[f"thing-{n}-at"] = MeasureField(
            units, thing.at_mm if thing else None, label=_("From the left end"), required=False
        )
        self.fields[f"thing-{n}-out"] = MeasureField(
            units, thing.out_mm if thing else None, label=_("Out from the wall"), required=False
        )
        self.fields[f"thing-{n}-at"].widget.attrs["placeholder"] = ALL_ALONG
        self.fields[f"thing-{n}-out"].widget.attrs["placeholder"] = MIDDLE

    def rows(self) -> list[dict[str, Any]]:
        """Bound fields row by row."""
        return [
            {part: self[f"thing-{n}-{part}"] for part in ("name", "weight", "at", "out")}
            for n in range(self.count)
        ]

    def clean(self) -> dict[str, Any]:
        """Build the things; a row without a name and a weight is no thing."""
        got = super().clean() or {}
        things = []
        for n in range(self.count):
            name, kg, at, out = (
                got.get(f"thing-{n}-{part}") for part in ("name", "weight", "at", "out")
            )
            if not name and kg is None and at is None and out is None:
                continue
            try:
                if at is not None and at > self.piece.length_mm:
                    raise PlanError(_("That is beyond the end of the shelf."), "at_mm")
                if out is not None and out > self.piece.depth_mm:
                    raise PlanError(_("That is further out than the shelf is deep."), "out_mm")
                before = self.piece.things[n] if n < len(self.piece.things) else None
                same = before if before and before.name == name else None
                kept = (same.high_mm, same.wide_mm, same.of) if same else (None, None, None)
                high, wide, row = kept
                things.append(
                    Thing(
                        name=name or _("Something"),
                        mass_kg=kg,
                        at_mm=at,
                        out_mm=out,
                        high_mm=high,
                        wide_mm=wide,
                        of=row,
                    )
                )
            except PlanError as error:
                field = {"at_mm": "at", "out_mm": "out"}.get(error.where, "weight")
                self.add_error(f"thing-{n}-{field}", str(error))
        if got.get("pick") or got.get("amount"):
            try:
                things.append(self._picked(got.get("pick") or "", got.get("amount") or ""))
            except (MeasureError, PlanError) as error:
                self.add_error("amount", str(error))
        got["things"] = tuple(things)
        return got

    def _picked(self, key: str, amount: str) -> Thing:
        """So much of something from the list.

        Raises:
            MeasureError: the amount is no length where one is wanted.
            PlanError: it is no number, or absurd.
        """
        if not key:
            raise PlanError(_("Choose what it is as well."))
        if not amount:
            raise PlanError(_("How much: a number, a length along the shelf, or litres?"))
        return contents.thing(key, amount_in(self, key, amount, self.bench.units), self.bench.units)
