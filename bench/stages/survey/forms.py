"""The form of the survey: all that a person knows of a wall, typed.

Built from a plan's wall; gives a wall back.
"""

from collections.abc import Iterator
from typing import Any

from django import forms
from django.forms import BoundField
from django.utils.translation import gettext as _
from msgspec.structs import replace

from bench.forms import BenchForm, MeasureField
from bench.words import lazy, name_in, say
from trade import data
from trade.errors import PlanError
from trade.measure import Units, type_length
from trade.parse import notes, sketch
from trade.plan import flatness
from trade.plan.flatness import Flatness
from trade.plan.model import Covering, Layer, Stud, Wall
from trade.plan.readings import Reading

UNKNOWN, BARE = "unknown", "bare"
_DEPTHS = ("", "_2", "_3")  # layers that can be named, from the room inwards


def lining_choices(units: Units) -> list[tuple[str, str]]:
    """Linings to choose from; not knowing is one of them."""
    return [
        (UNKNOWN, _("Don't know yet")),
        *((key, name_in(row.name, units)) for key, row in data.linings().items()),
        (BARE, _("None: bare")),
    ]


def structure_choices() -> list[tuple[str, str]]:
    """Return what may stand behind them."""
    return [
        (UNKNOWN, _("Don't know yet")),
        *((key, say(row.name)) for key, row in data.structures().items()),
    ]


def timber_choices() -> list[tuple[str, str]]:
    """Stud timbers to choose from."""
    return [
        (UNKNOWN, _("Don't know: assume the softest")),
        *((key, say(row.name)) for key, row in data.framing().items()),
    ]


class WallForm(BenchForm):
    """What the person knows about the wall."""

    name = forms.CharField(max_length=80, label=lazy("Name of the wall"))

    def __init__(
        self, units: Units, wall: Wall | None = None, name: str = "", *args: Any, **kwargs: Any
    ) -> None:
        """Fields in the order in which people measure."""
        super().__init__(*args, **kwargs)
        self.units, self.wall = units, wall
        self.fields["name"].initial = name
        self.fields["width"] = MeasureField(
            units, wall.width_mm if wall else None, label=_("Width")
        )
        self.fields["height"] = MeasureField(
            units, wall.height_mm if wall else None, label=_("Height")
        )
        self._add_layers(wall)
        cover = wall.coming[0] if wall and wall.coming else None
        self.fields["cover"] = forms.ChoiceField(
            choices=[
                ("", _("nothing")),
                *((key, name_in(row.name, units)) for key, row in data.linings().items()),
            ],
            label=_("Later it gets"),
            initial=cover.kind if cover else "",
            required=False,
        )
        self.fields["cover_thick"] = MeasureField(
            units, cover.thickness_mm if cover else None, label=_("Thick"), required=False
        )
        self.fields["cover_on"] = forms.DateField(
            label=_("On"),
            initial=cover.on if cover else None,
            required=False,
            widget=forms.DateInput({"type": "date"}, format="%Y-%m-%d"),
        )
        self.fields["structure"] = forms.ChoiceField(
            choices=structure_choices(),
            label=_("And then"),
            initial=(wall.structure or UNKNOWN) if wall else "timber",
            required=False,
        )
        self.fields["timber"] = forms.ChoiceField(
            choices=timber_choices(),
            label=_("Stud timber"),
            initial=(wall.timber or UNKNOWN) if wall else UNKNOWN,
            required=False,
        )
        self.fields["school"] = forms.ChoiceField(
            choices=[
                ("american", _("American: allowable stress (NDS)")),
                ("european", _("European: partial factors (EN 1995)")),
            ],
            label=_("Design code for screws in timber"),
            initial=wall.design_code if wall else "american",
            required=False,
        )
        self.fields["climate"] = forms.TypedChoiceField(
            choices=[
                ("", _("a heated room")),
                *((key, say(row.name)) for key, row in data.climates().items()),
            ],
            label=_("It is in"),
            initial=(wall.climate or "") if wall else "",
            required=False,
            empty_value=None,
        )
        stud = wall.studs[0] if wall and wall.studs else Stud(centre_mm=0)
        self.fields["studs"] = forms.CharField(
            label=_("Along the tape, from the left corner"),
            required=False,
            max_length=8000,
            widget=forms.Textarea({"rows": 4, "spellcheck": "false"}),
            initial=self._tape() if wall else "",
            help_text=_(
                "Studs by their centres: 16 3/8, 32. Or 16 every 16. And the rest: 40 "
                "outlet 12 high, 60 to 92 door."
            ),
        )
        self.fields["give"] = MeasureField(
            units,
            stud.uncertainty_mm,
            label=_("Stud positions certain to within"),
            required=False,
            help_text=_("Leave empty if not certain."),
        )
        self.fields["stud_width"] = MeasureField(units, stud.width_mm, label=_("Stud width"))
        self.fields["stud_depth"] = MeasureField(units, stud.depth_mm, label=_("Stud depth"))
        self.fields["readings"] = forms.CharField(
            label=_("Readings, one line per pass"),
            required=False,
            max_length=60_000,
            strip=False,
            widget=forms.Textarea({"rows": 4, "spellcheck": "false"}),
            initial=notes.write(wall.readings, units) if wall else "",
            help_text=_(
                "For example: 48 up: swept 0 to 144, 15 1/4 left, 16 3/4 right, 32 "
                "magnet, 40 air, 48 wood at 1/2."
            ),
        )
        self.fields["lie"] = forms.CharField(
            label=_("One line per measurement"),
            required=False,
            max_length=20_000,
            strip=False,
            widget=forms.Textarea({"rows": 4, "spellcheck": "false"}),
            initial=flatness.write(wall.flatness, units) if wall else "",
        )
        for key, row in data.clues().items():
            self.fields[f"clue_{key}"] = forms.BooleanField(
                label=say(row.name),
                required=False,
                help_text=say(row.how),
                initial=bool(wall and key in wall.clues),
            )

    def _add_layers(self, wall: Wall | None) -> None:
        layers = (wall.layers if wall else None) or ()
        for i, suffix in enumerate(_DEPTHS):
            known = layers[i] if i < len(layers) else None
            if i == 0:
                choices, label, initial = lining_choices(self.units), _("Lining"), _first_key(wall)
            else:
                choices = [
                    ("", _("nothing more")),
                    *((key, name_in(row.name, self.units)) for key, row in data.linings().items()),
                ]
                label, initial = _("Behind it"), known.kind if known else ""
            self.fields[f"lining{suffix}"] = forms.ChoiceField(
                choices=choices, label=label, initial=initial, required=i == 0
            )
            self.fields[f"thick{suffix}"] = MeasureField(
                self.units, known.thickness_mm if known else None, label=_("Thick"), required=False
            )

    @property
    def layers(self) -> Iterator[tuple[BoundField, BoundField]]:
        """Each layer's fields; one more than are known, so that the next can be named."""
        known = len((self.wall.layers if self.wall else None) or ())
        for i, suffix in enumerate(_DEPTHS):
            if i <= known or self[f"lining{suffix}"].errors:
                yield self[f"lining{suffix}"], self[f"thick{suffix}"]

    @property
    def clues(self) -> Iterator[BoundField]:
        """What there is to notice."""
        for key in data.clues():
            yield self[f"clue_{key}"]

    def _tape(self) -> str:
        assert self.wall is not None
        size = (self.wall.width_mm, self.wall.height_mm)
        studs = ", ".join(type_length(s.centre_mm, self.units) for s in self.wall.studs)
        return "\n".join(
            part for part in (studs, sketch.write(self.wall.features, self.units, size)) if part
        )

    def clean(self) -> dict[str, Any]:
        """Build the wall; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        try:
            studs, features = self._along_the_tape(got)
            got["wall"] = Wall(
                width_mm=got["width"],
                height_mm=got["height"],
                layers=self._layers(got),
                structure=None if got["structure"] == UNKNOWN else got["structure"] or "timber",
                design_code=got.get("school") or "american",
                packets=self.wall.packets if self.wall else (),
                timber=None if got["timber"] in (UNKNOWN, "") else got["timber"],
                clues=tuple(key for key in data.clues() if got[f"clue_{key}"]),
                studs=studs,
                features=features,
                readings=self._readings(got),
                flatness=self._lie(got),
                coming=self._coming(got),
                climate=got.get("climate"),
            )
        except PlanError as error:
            self.refuse(error)
        return got

    def _layers(self, got: dict[str, Any]) -> tuple[Layer, ...] | None:
        """Return the layers that the answers mean.

        One whose thickness was not typed anew has its usual one, or the measured one.
        """
        if got["lining"] == UNKNOWN:
            return None
        if got["lining"] == BARE:
            return ()
        before = (self.wall.layers if self.wall else None) or ()
        measured = {layer.kind: layer.thickness_mm for layer in before}
        layers = []
        for suffix in _DEPTHS:
            kind = got[f"lining{suffix}"]
            if not kind:
                break
            usual = measured.get(kind, data.linings()[kind].thickness_mm)
            typed = got[f"thick{suffix}"] if f"thick{suffix}" in self.changed_data else None
            layers.append(Layer(kind=kind, thickness_mm=usual if typed is None else typed))
        return tuple(layers) + (before[len(_DEPTHS) :] if len(layers) == len(_DEPTHS) else ())

    def _coming(self, got: dict[str, Any]) -> tuple[Covering, ...]:
        """Return what goes on later; the others that a plan file has stay as they are."""
        before = self.wall.coming if self.wall else ()
        if not (kind := got.get("cover")):
            return before[1:]
        thick = got["cover_thick"] or data.linings()[kind].thickness_mm
        return (Covering(kind=kind, thickness_mm=thick, on=got["cover_on"]), *before[1:])

    def _readings(self, got: dict[str, Any]) -> tuple[Reading, ...]:
        if self.wall and "readings" not in self.changed_data:
            return self.wall.readings
        return notes.read(got["readings"], self.units, got["width"])

    def _lie(self, got: dict[str, Any]) -> Flatness:
        if self.wall and "lie" not in self.changed_data:
            return self.wall.flatness
        return flatness.read(got["lie"], self.units)

    def _along_the_tape(self, got: dict[str, Any]) -> tuple[tuple[Stud, ...], tuple[Any, ...]]:
        """Studs and things as typed.

        One that stood there before keeps what was known of it, unless that field was changed.
        """
        names = {"give": "uncertainty_mm", "stud_width": "width_mm", "stud_depth": "depth_mm"}
        changed = {name: got[field] for field, name in names.items() if field in self.changed_data}
        fresh = {name: got[field] for field, name in names.items()}
        known = {stud.centre_mm: stud for stud in self.wall.studs} if self.wall else {}
        features = self.wall.features if self.wall else ()
        if self.wall and "studs" not in self.changed_data:
            centres: tuple[float, ...] = tuple(known)
        else:
            size = (
                (self.wall.width_mm, self.wall.height_mm)
                if self.wall
                else (got["width"], got["height"])
            )
            shown: sketch.Shown = {type_length(x, self.units): x for x in known}
            shown |= {sketch.word_of(feature, self.units, size): feature for feature in features}
            centres, features = sketch.read(
                got["studs"], self.units, (got["width"], got["height"]), shown
            )
        studs = tuple(
            replace(known[x], **changed) if x in known else Stud(centre_mm=x, **fresh)
            for x in centres
        )
        return studs, features


def _first_key(wall: Wall | None) -> str:
    if wall is None or wall.layers is None:
        return UNKNOWN
    return wall.layers[0].kind if wall.layers else BARE
