"""Load: what a piece must carry, and how it will be used."""

from typing import Any

from django import forms
from django.http import HttpRequest, HttpResponse
from django.views.decorators.http import require_POST
from msgspec.structs import replace

from bench.changes import apply, change, refused
from bench.desk import Desk, desk_or_404
from bench.devices import devices_for
from bench.forms import BenchForm, MeasureField
from trade import data
from trade.choose.request import amount_of
from trade.errors import MeasureError, PlanError
from trade.load import contents
from trade.plan.model import AnyPiece, Plan, Thing

ALL_ALONG, MIDDLE = "all along", "middle"


class LoadForm(BenchForm):
    """The things on a piece, a row each, with one empty row below."""

    def __init__(self, desk: Desk, piece: AnyPiece, posted: Any = None) -> None:
        """One row per thing; a posted form says itself how many rows it has."""
        super().__init__(posted)
        self.desk, self.piece = desk, piece
        self.fields["use"] = forms.ChoiceField(
            choices=[(key, row.name) for key, row in data.uses().items()],
            label="How it will be used",
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
        self.fields["amount"] = forms.CharField(label="How much", max_length=40, required=False)
        self.fields["pick"] = forms.ChoiceField(
            choices=[("", "of something from the list"), *((key, row.name) for key, row in listed)],
            label="Of what",
            required=False,
        )
        for field in ("amount", "pick"):
            self.fields[field].widget.attrs["data-hold"] = (
                "1"  # saved by its own button, not by every change
            )

    def _row(self, n: int, thing: Thing | None) -> None:
        units = self.desk.units
        self.fields[f"thing-{n}-name"] = forms.CharField(
            label="What", max_length=80, required=False, initial=thing.name if thing else ""
        )
        self.fields[f"thing-{n}-weight"] = MeasureField(
            units, thing.mass_kg if thing else None, noun="weight", label="Weighs", required=False
        )
        self.fields[f"thing-{n}-at"] = MeasureField(
            units, thing.at_mm if thing else None, label="From the left end", required=False
        )
        self.fields[f"thing-{n}-out"] = MeasureField(
            units, thing.out_mm if thing else None, label="Out from the wall", required=False
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
                    raise PlanError("That is beyond the end of the shelf.", "at_mm")
                if out is not None and out > self.piece.depth_mm:
                    raise PlanError("That is further out than the shelf is deep.", "out_mm")
                before = self.piece.things[n] if n < len(self.piece.things) else None
                high = before.high_mm if before and before.name == name else None
                things.append(
                    Thing(name=name or "Something", mass_kg=kg, at_mm=at, out_mm=out, high_mm=high)
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
            raise PlanError("Choose what it is, too.")
        if not amount:
            raise PlanError(
                "How much of it: how many, how long along the shelf, or how many litres?"
            )
        return contents.thing(key, amount_of(key, amount, self.desk.units), self.desk.units)


@require_POST
def weigh(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Put the first thing that nobody has weighed on the scale that the settings name."""
    desk = desk_or_404(request, wall, "load", key)
    piece, kept = desk.chosen, desk.plan.wall
    devices = devices_for(wall, kept.width_mm, len(piece.things))
    index = next((n for n, thing in enumerate(piece.things) if thing.mass_kg is None), None)
    if devices is None or index is None:
        return refused(desk, "There is no scale, or nothing left to weigh.")
    thing = piece.things[index]
    kg = devices.weigh(thing.name)
    if kg is None:
        return refused(desk, f"“{thing.name}” is too heavy for this scale. Weigh it in parts.")
    things = (*piece.things[:index], replace(thing, mass_kg=kg), *piece.things[index + 1 :])
    return apply(
        desk, lambda plan: plan.with_piece(replace(piece, things=things)), f"Weigh {thing.name}"
    )


def form_for(desk: Desk, posted: Any = None) -> LoadForm | None:
    """The form of this stage for the piece that is worked on."""
    return LoadForm(desk, desk.piece, posted) if desk.piece else None


@require_POST
def save(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Keep what a piece must carry."""
    desk = desk_or_404(request, wall, "load", key)
    piece = desk.chosen
    form = LoadForm(desk, piece, request.POST)

    def changed(plan: Plan) -> Plan:
        return plan.with_piece(
            replace(piece, use=form.cleaned_data["use"], things=form.cleaned_data["things"])
        )

    return change(desk, form, changed, f"What {piece.name} carries")
