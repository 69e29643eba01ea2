"""Survey: how big the wall is, what it is made of, where the studs are."""

import re
from typing import Any

from django import forms
from django.http import HttpRequest, HttpResponse
from django.views.decorators.http import require_POST
from msgspec.structs import replace

from bench.desk import Desk, apply, change, desk_or_404, refused
from bench.forms import BenchForm, MeasureField
from trade import data, notes
from trade.errors import MeasureError, PlanError
from trade.evidence import Reading
from trade.measure import Units, read_length, type_length
from trade.plan import Layer, Plan, Stud, Wall
from trade.wall.infer import as_studs, infer

UNKNOWN, BARE = "unknown", "bare"
_MOST_STUDS = 200
_EVERY = re.compile(r"^(?P<first>.+?)\s+every\s+(?P<step>.+)$", re.IGNORECASE)


def lining_choices() -> list[tuple[str, str]]:
    """Linings to choose from; not knowing is one of them."""
    return [(UNKNOWN, "Don't know yet"), *((key, row.name) for key, row in data.linings().items()), (BARE, "None: bare studs")]


def timber_choices() -> list[tuple[str, str]]:
    """Stud timbers to choose from."""
    return [(UNKNOWN, "Don't know: take the softest"), *((key, row.name) for key, row in data.framing().items())]


class WallForm(BenchForm):
    """What the person knows about the wall. Built from a plan's wall; gives a wall back."""

    name = forms.CharField(max_length=80, label="Name of the wall")

    def __init__(self, units: Units, wall: Wall | None = None, name: str = "", *args: Any, **kwargs: Any) -> None:
        """Fields in the order in which people measure."""
        super().__init__(*args, **kwargs)
        self.units, self.wall = units, wall
        stud = wall.studs[0] if wall and wall.studs else Stud(centre_mm=0)
        self.fields["name"].initial = name
        self.fields["width"] = MeasureField(units, wall.width_mm if wall else None, label="Width")
        self.fields["height"] = MeasureField(units, wall.height_mm if wall else None, label="Height")
        self.fields["lining"] = forms.ChoiceField(choices=lining_choices(), label="Lining", initial=_lining_key(wall))
        self.fields["under"] = forms.ChoiceField(
            choices=[("", "The studs"), *((key, row.name) for key, row in data.linings().items())], label="And behind that",
            required=False, initial=wall.layers[1].kind if wall and wall.layers and len(wall.layers) > 1 else "",
        )  # fmt: skip
        self.fields["studs"] = forms.CharField(
            label="Studs, to their centres from the left corner", required=False, max_length=2000,
            widget=forms.Textarea({"rows": 3}),
            initial=", ".join(type_length(s.centre_mm, units) for s in wall.studs) if wall else "",
            help_text="One after the other: 16 3/8, 32, 48 1/4. Or: 16 every 16. Nothing, while you don't know.",
        )  # fmt: skip
        self.fields["give"] = MeasureField(
            units, stud.uncertainty_mm, label="Sure to within", required=False, help_text="Empty: not sure at all."
        )
        self.fields["readings"] = forms.CharField(
            label="Readings, as you jot them down", required=False, max_length=60_000, strip=False,
            widget=forms.Textarea({"rows": 4, "spellcheck": "false"}), initial=notes.write(wall.readings, units) if wall else "",
            help_text="A line a pass. 48 up: swept 0 to 144, 15 1/4 left, 16 3/4 right, 32 magnet, 40 air, 48 wood.",
        )  # fmt: skip
        self.fields["timber"] = forms.ChoiceField(
            choices=timber_choices(), label="Stud timber", initial=wall.timber or UNKNOWN if wall else UNKNOWN
        )
        self.fields["stud_width"] = MeasureField(units, stud.width_mm, label="Stud width")
        self.fields["stud_depth"] = MeasureField(units, stud.depth_mm, label="Stud depth")

    def clean(self) -> dict[str, Any]:
        """Build the wall; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        try:
            got["wall"] = Wall(
                width_mm=got["width"], height_mm=got["height"], layers=_layers(got["lining"], got["under"], self.wall),
                timber=None if got["timber"] == UNKNOWN else got["timber"], studs=self._studs(got), readings=self._readings(got),
            )  # fmt: skip
        except PlanError as error:
            self.refuse(error)
        return got

    def _readings(self, got: dict[str, Any]) -> tuple[Reading, ...]:
        if self.wall and "readings" not in self.changed_data:
            return self.wall.readings
        return notes.read(got["readings"], self.units, got["width"])

    def _studs(self, got: dict[str, Any]) -> tuple[Stud, ...]:
        """Studs as typed; one that stood there before keeps its own width and doubt, unless that field was changed."""
        shown = {"give": "uncertainty_mm", "stud_width": "width_mm", "stud_depth": "depth_mm"}
        changed = {name: got[field] for field, name in shown.items() if field in self.changed_data}
        fresh = {name: got[field] for field, name in shown.items()}
        known = {stud.centre_mm: stud for stud in self.wall.studs} if self.wall else {}
        if self.wall and "studs" not in self.changed_data:
            centres = list(known)
        else:
            before = {type_length(x, self.units): x for x in known}
            centres = read_studs(got["studs"], self.units, got["width"], before)
        return tuple(replace(known[x], **changed) if x in known else Stud(centre_mm=x, **fresh) for x in centres)


def read_studs(text: str, units: Units, width_mm: float, before: dict[str, float]) -> list[float]:
    """Centres from a typed list; `16 every 16` goes on to the end of the wall.

    Args:
        text: lengths between commas, semicolons or new lines.
        units: of bare numbers.
        width_mm: of the wall.
        before: exact values of what was shown, so that what was not changed stays exact.

    Raises:
        PlanError: one cannot be read, or lies outside the wall; the sentence says which.
    """
    centres: list[float] = []
    for n, part in enumerate((part.strip() for part in re.split(r"[,;\n]", text)), start=1):
        if not part:
            continue
        try:
            if every := _EVERY.match(part):
                at, step = read_length(every["first"], units), read_length(every["step"], units)
                if step < 50:
                    raise PlanError("Studs closer than 50 mm (2 in) are no studs.", "studs")
                count = min(int((width_mm - at) / step + 1e-6) + 1, _MOST_STUDS)
                centres += [min(at + n * step, width_mm) for n in range(max(count, 0))]
            else:
                centres.append(before.get(part) or read_length(part, units))
        except MeasureError as error:
            raise PlanError(f"Stud {n}: {error}", "studs") from None
    for x in centres:
        if x > width_mm:
            said, wide = type_length(x, units), type_length(width_mm, units)
            raise PlanError(f"A stud at {said} would stand outside the wall, which is {wide} wide.", "studs")
    return sorted(set(centres))


def _lining_key(wall: Wall | None) -> str:
    if wall is None or wall.layers is None:
        return UNKNOWN
    return wall.layers[0].kind if wall.layers else BARE


def _layers(outer: str, under: str, before: Wall | None) -> tuple[Layer, ...] | None:
    """The layers that two answers mean; a layer that was there before keeps its measured thickness, and those behind it stay."""
    if outer == UNKNOWN:
        return None
    if outer == BARE:
        return ()
    known = (before.layers if before else None) or ()
    measured = {layer.kind: layer for layer in known}
    chosen = [key for key in (outer, under) if key]
    layers = tuple(measured.get(key) or Layer(kind=key, thickness_mm=data.linings()[key].thickness_mm) for key in chosen)
    return layers + known[2:] if under else layers


def form_for(desk: Desk, posted: Any = None) -> WallForm:
    """The form of this stage, filled from the plan."""
    return WallForm(desk.units, desk.plan.wall, desk.plan.name, posted)


@require_POST
def save(request: HttpRequest, wall: int) -> HttpResponse:
    """Keep what was surveyed."""
    desk = desk_or_404(request, wall, "survey")
    form = form_for(desk, request.POST)

    def changed(plan: Plan) -> Plan:
        return replace(plan, name=form.cleaned_data["name"], wall=form.cleaned_data["wall"])

    return change(desk, form, changed, "Survey the wall")


@require_POST
def take(request: HttpRequest, wall: int) -> HttpResponse:
    """Count on what the readings say: the studs that they make likely take the place of those typed before."""
    desk = desk_or_404(request, wall, "survey")
    known = infer(desk.plan.wall.width_mm, desk.plan.wall.readings)
    studs = tuple(replace(stud, centre_mm=min(stud.centre_mm, desk.plan.wall.width_mm)) for stud in as_studs(known))
    if not studs:
        return refused(desk, "The readings make no stud likely yet. Take some more.")
    return apply(desk, lambda plan: replace(plan, wall=replace(plan.wall, studs=studs)), "Take the studs from the readings")
