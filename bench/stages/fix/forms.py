"""The form of a piece's place, size and hardware."""

from typing import Any

from django import forms
from django.http import QueryDict
from django.utils.translation import gettext as _
from msgspec.structs import replace

from bench.forms import BenchForm, MeasureField, MeasureInput, Noun, PlacesField, read_places
from bench.words import lazy, name_in, say, worded
from bench.workbench.context import WorkbenchContext
from trade import data
from trade.choose import placement
from trade.errors import MeasureError, PlanError
from trade.fixings import driving
from trade.measure import UNIT_SIGNS, Units, say_length, type_length
from trade.mounts import Ask, mount_of
from trade.plan.model import AnyPiece, Wall

_OWN = "own"  # of hardware: what is there is kept


class FixForm(BenchForm):
    """Place, size and hardware of a piece."""

    name = forms.CharField(max_length=80, label=lazy("Name"))

    def __init__(
        self, bench: WorkbenchContext, piece: AnyPiece, posted: QueryDict | None = None
    ) -> None:
        """Fields from the piece."""
        super().__init__(posted)
        units = bench.units
        self.bench, self.piece = bench, piece
        self.fields["name"].initial = piece.name
        self.fields["left"] = MeasureField(units, piece.left_mm, label=_("From the left corner"))
        self.fields["top"] = MeasureField(units, piece.top_mm, label=_("Top above the floor"))
        self.asks = mount_of(piece).asks
        for ask in self.asks:
            self.fields[ask.short] = self._field(ask)
        choices = anchor_choices(bench.plan.wall, piece.anchor, bench.units)
        if len(choices) > 1:
            label = (
                _("Fixing where there is no stud")
                if bench.plan.wall.build == "timber"
                else _("What holds it")
            )
            self.fields["anchor"] = forms.ChoiceField(
                choices=choices, label=label, required=False, initial=piece.anchor or ""
            )
        self.fields["screw"] = forms.ChoiceField(
            choices=[
                (key, say(row.called(units)))
                for key, row in data.screws().items()
                if row.system == units or key == piece.screw
            ],
            label=_("Screws"),
            initial=piece.screw,
        )
        self.fields["screw_length"] = MeasureField(
            units, piece.screw_length_mm, label=_("Screw length")
        )
        self.fields["supports"] = forms.CharField(
            label=_("Supports at, from the left corner"),
            max_length=1000,
            widget=MeasureInput(UNIT_SIGNS["length"][units]),
            initial=", ".join(type_length(piece.left_mm + x, units) for x in piece.supports_mm),
        )
        sold = ", ".join(
            say_length(mm, units) for mm in driving.lengths_mm(data.screws()[piece.screw])
        )
        self.fields["screw_length"].help_text = worded("Sold as {sold}.", sold=sold)

    def _field(self, ask: Ask) -> forms.Field:
        """One of the kind's own inputs."""
        value = getattr(self.piece, ask.field)
        noun: Noun = "weight" if ask.how == "weight" else "length"
        if ask.how == "choice" and ask.table is not None:
            choices = [
                (key, name_in(row.name, self.bench.units)) for key, row in ask.table().items()
            ]
            if own := ask.own and getattr(self.piece, ask.own):
                choices, value = [(_OWN, own.name), *choices], _OWN
            if ask.none:
                return forms.TypedChoiceField(
                    choices=[("", say(ask.none)), *choices],
                    label=say(ask.label),
                    initial=value or "",
                    required=False,
                    empty_value=None,
                )
            return forms.ChoiceField(choices=choices, label=say(ask.label), initial=value)
        if ask.how == "piece":
            return forms.TypedChoiceField(
                choices=[("", say(ask.none)), *self._pieces_beside(value)],
                label=say(ask.label),
                initial=value or "",
                required=False,
                empty_value=None,
            )
        if ask.how == "places":
            return PlacesField(
                self.bench.units, value, label=say(ask.label), help_text=say(ask.help)
            )
        if ask.how == "flag":
            return forms.BooleanField(
                label=say(ask.label), required=False, initial=value, help_text=say(ask.help)
            )
        if ask.how in ("count", "angle"):
            return forms.IntegerField(
                label=say(ask.label),
                initial=round(value),
                help_text=say(ask.help),
                min_value=0,
                max_value=90,
            )
        return MeasureField(
            self.bench.units,
            value,
            noun=noun,
            label=say(ask.label),
            required=not ask.optional,
            help_text=say(ask.help),
        )

    def _pieces_beside(self, now: str | None) -> list[tuple[str, str]]:
        """Return what hangs on the walls beside, and what is chosen now even where that is gone."""
        plan = self.bench.plan
        walls = (*plan.before[-1:], *plan.after[:1])
        found = [(piece.key, piece.name) for wall in walls for piece in wall.pieces]
        gone = now is not None and now not in dict(found)
        return [*found, *([(now, _("what is no longer there"))] if gone and now else [])]

    def clean(self) -> dict[str, Any]:
        """Build the piece; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        try:
            got["piece"] = self._piece(got)
            self.bench.plan.with_piece(got["piece"])
        except PlanError as error:
            self.refuse(error)
        return got

    def _piece(self, got: dict[str, Any]) -> AnyPiece:
        piece = self.piece
        said: dict[str, Any] = {}
        for ask in self.asks:
            if got[ask.short] != _OWN:
                said[ask.field] = got[ask.short]
                said |= {ask.own: None} if ask.own else {}
        said |= {
            "name": got["name"],
            "screw": got["screw"],
            "screw_length_mm": got["screw_length"],
            "top_mm": got["top"],
        }
        if "anchor" in self.fields:
            said["anchor"] = got["anchor"] or None
        length = got.get("length", piece.length_mm)
        if "supports" in self.changed_data:
            moved = replace(
                piece,
                left_mm=got["left"],
                supports_mm=self._supports(got["supports"], got["left"], length),
            )
        else:
            moved = replace(
                placement.resized(piece, self.bench.plan.wall, length), left_mm=got["left"]
            )
        return mount_of(piece).landed(replace(moved, **said), self.bench.plan.wall)

    def _supports(self, typed: str, left: float, length: float) -> tuple[float, ...]:
        try:
            read = read_places(typed, self.bench.units)
        except MeasureError as error:
            raise PlanError(error.said, "supports_mm") from None
        for n, (part, place) in enumerate(read, start=1):
            if not 0 <= place - left <= length:
                said = worded("Number {n}, {place}, is not within it.", n=n, place=part)
                raise PlanError(said, "supports_mm")
        return tuple(sorted({place - left for _part, place in read}))


def anchor_choices(wall: Wall, now: str | None, units: Units) -> list[tuple[str, str]]:
    """Anchors that suit a wall, what is chosen now among them, and none at all."""
    bases: set[str | None] = {wall.structure}
    if wall.build != "mass":
        bases |= {layer.kind for layer in wall.layers or ()}
    rows = data.anchors() | {packet.key: packet.anchor for packet in wall.packets}
    fitting = [
        (key, name_in(row.name, units))
        for key, row in rows.items()
        if key == now or bases & set(row.holds_n)
    ]
    return [
        ("", _("None: screws in studs only") if wall.build != "mass" else _("Nothing yet")),
        *fitting,
    ]
