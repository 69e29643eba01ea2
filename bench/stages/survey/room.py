"""The walls of a place: added, taken away, named, and the angles at which they meet."""

from typing import Any

from django import forms
from django.forms import BoundField
from django.http import HttpRequest, HttpResponse
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST
from msgspec.structs import replace

from bench.drawing import elevation, room
from bench.drawing.elevation import Sheet
from bench.drawing.scale import HEIGHT, of_wall
from bench.forms import BenchForm, MeasureField
from bench.words import lazy, worded
from bench.workbench.changes import apply, change
from bench.workbench.context import WallLink, WorkbenchContext, workbench
from trade.assess import assess
from trade.check import Message, PieceVerdict, Verdict
from trade.errors import PlanError
from trade.language import counted
from trade.measure import Units
from trade.plan.facing import SQUARE_DEG, Opening, RoomCorner
from trade.plan.flatness import Side
from trade.plan.ground import doubts
from trade.plan.model import Plan, Wall, WallPlan
from trade.plan.place import Place, faced, with_wall, without_wall

ROOM = "room"
_WAY_IN = ("in-width", "in-height", "in-away")
_BESIDE_PX = 40.0  # the tape's room


class _AngleField(forms.Field):
    """An angle between two walls, in degrees."""

    def __init__(self, **kwargs: Any) -> None:
        super().__init__(
            widget=forms.TextInput({"inputmode": "decimal", "autocomplete": "off"}), **kwargs
        )

    def to_python(self, value: Any) -> float | None:
        typed = str(value or "").replace("°", "").replace(",", ".").strip()
        if not typed:
            return None
        try:
            return RoomCorner(angle_deg=float(typed)).angle_deg
        except PlanError as error:
            raise forms.ValidationError(str(error)) from None
        except ValueError:
            raise forms.ValidationError(
                worded("“{typed}” is no angle. Give degrees, such as 90.", typed=typed[:20])
            ) from None


class NamesForm(BenchForm):
    """What the place and its walls are called, and the angle of every corner."""

    def __init__(self, units: Units, plan: Plan, *args: Any, **kwargs: Any) -> None:
        """Fields wall by wall from the left, a corner after each but the last; the way in."""
        super().__init__(*args, **kwargs)
        self.place = Place.of(plan)
        self.fields["name"] = forms.CharField(
            max_length=80, label=_("Name of the place"), initial=plan.name
        )
        for n, each in enumerate(self.place.walls):
            self.fields[f"wall-{n}"] = forms.CharField(
                max_length=80, label=worded("Wall {n}", n=n + 1), initial=each.name or plan.name
            )
        for n, corner in enumerate(self.place.corners):
            self.fields[f"angle-{n}"] = _AngleField(
                label=_("Corner to the next, degrees"), initial=f"{corner.angle_deg:g}"
            )

        way = plan.opening
        for name, label, value in (
            ("in-width", _("The way in, wide"), way.width_mm if way else None),
            ("in-height", _("high"), way.height_mm if way else None),
            ("in-away", _("from the widest wall"), way.away_mm if way else None),
        ):
            self.fields[name] = MeasureField(units, value, label=label, required=False)

    @property
    def way_in(self) -> list[BoundField]:
        """Return the fields of the way in."""
        return [self[name] for name in _WAY_IN]

    def clean(self) -> dict[str, Any]:
        """Ask for all three sizes of the way in, or none."""
        got = super().clean() or {}
        said = [got.get(name) for name in _WAY_IN]
        if any(said) and not all(said) and not self.errors:
            missing = _WAY_IN[said.index(None)]
            self.add_error(missing, _("The way in has a width, a height and a distance."))
        return got

    def of_wall(self, n: int) -> tuple[BoundField, BoundField | None]:
        """Return the field of a wall's name, and of the corner after it."""
        return self[f"wall-{n}"], self[f"angle-{n}"] if n < len(self.place.corners) else None

    def changed(self, plan: Plan) -> Plan:
        """Return the place as the form has it."""
        said, place = self.cleaned_data, Place.of(plan)
        walls = place.walls
        if len(walls) > 1:  # a wall that is alone is called as the place
            walls = tuple(replace(each, name=said[f"wall-{n}"]) for n, each in enumerate(walls))
        corners = tuple(RoomCorner(angle_deg=said[f"angle-{n}"]) for n in range(len(walls) - 1))
        wide, high, away = (said[name] for name in _WAY_IN)
        opening = Opening(width_mm=wide, height_mm=high, away_mm=away) if wide else None
        made = replace(place, name=said["name"], walls=walls, corners=corners, opening=opening)
        return made.plan(plan.at)


class AddWallForm(BenchForm):
    """One more wall, at the left or the right of this one."""

    side = forms.ChoiceField(
        choices=[("left", lazy("to the left of this one")), ("right", lazy("to the right of it"))],
        label=lazy("Where"),
    )
    wall_name = forms.CharField(max_length=80, label=lazy("Its name"))

    def __init__(self, units: Units, plan: Plan, *args: Any, **kwargs: Any) -> None:
        """Ask for what nobody can know; it is as high as this one, and meets it square."""
        super().__init__(*args, **kwargs)
        count = len(plan.before) + len(plan.after) + 2
        self.fields["side"].initial = "right" if plan.before and not plan.after else "left"
        self.fields["wall_name"].initial = worded("Wall {count}", count=count)
        self.fields["wall_width"] = MeasureField(units, None, label=_("Width"))
        self.fields["wall_height"] = MeasureField(units, plan.wall.height_mm, label=_("Height"))
        self.fields["wall_angle"] = _AngleField(
            label=_("Corner, degrees"),
            initial=f"{SQUARE_DEG:g}",
            help_text=_("90: one looks into it. 270: it goes round what stands out."),
        )

    def made(self, plan: Plan) -> Plan:
        """Return the place with it, in front of it: built like this wall, its studs not known.

        Raises:
            PlanError: it can't be.
        """
        said, like = self.cleaned_data, plan.wall
        side: Side = "left" if said["side"] == "left" else "right"
        wall = Wall(
            width_mm=said["wall_width"],
            height_mm=said["wall_height"],
            layers=like.layers,
            structure=like.structure,
            timber=like.timber,
            design_code=like.design_code,
        )
        named = plan if plan.faced else replace(plan, faced=_("First wall"))
        new = WallPlan(name=said["wall_name"], wall=wall)
        return with_wall(named, side, new, said["wall_angle"])


class WallRow:
    """One wall of the place, in the list of them."""

    def __init__(
        self,
        plan: Plan,
        link: WallLink | None,
        fields: tuple[BoundField, BoundField | None],
        verdicts: tuple[PieceVerdict, ...],
    ) -> None:
        """Hold a wall's plan, drawn as one sees it when facing it."""
        self.plan, self.link, self.verdicts = plan, link, verdicts
        self.name, self.corner = fields

    @property
    def sheet(self) -> Sheet:
        """The wall from the front; on a phone one swipes from wall to wall."""
        return elevation.draw(self.plan, Verdict(pieces=self.verdicts), None, "list", ())

    @property
    def box(self) -> str:
        """What of that sheet has the wall on it, as SVG has it."""
        scale, width = of_wall(self.plan.wall), self.plan.wall.width_mm
        left = scale.left - _BESIDE_PX
        return f"{left:.0f} 0 {scale.length(width) + 2 * _BESIDE_PX:.0f} {HEIGHT:.0f}"

    @property
    def found(self) -> str:
        """What is known to stand behind it."""
        wall = self.plan.wall
        if wall.build == "mass":
            return _("masonry")
        if not wall.uprights:
            return _("no stud known yet")
        return counted(len(wall.uprights), "{n} stud", "{n} studs")


class RoomContext:
    """All walls of a place."""

    def __init__(self, bench: WorkbenchContext) -> None:
        """Show the place of this workbench, with what was typed."""
        self._bench = bench
        self.names = bench.posted(NamesForm) or NamesForm(bench.units, bench.plan)
        self.add = bench.posted(AddWallForm) or AddWallForm(bench.units, bench.plan)

    @property
    def rows(self) -> list[WallRow]:
        """Every wall of the place, from the leftmost on."""
        every = faced(self._bench.plan)
        links: list[WallLink | None] = [*self._bench.walls] or [None]
        return [
            WallRow(plan, link, self.names.of_wall(n), assess(plan).pieces)
            for n, (plan, link) in enumerate(zip(every, links, strict=True))
        ]

    @property
    def doubts(self) -> list[Message]:
        """What can't be right."""
        return doubts(self._bench.plan)


def sheet(bench: WorkbenchContext) -> Sheet | None:
    """Draw all walls, when that is what is looked at."""
    if bench.tab != ROOM:
        return None
    outcomes = {
        each.key: each.outcome for plan in faced(bench.plan) for each in assess(plan).pieces
    }
    return room.draw(bench.plan, outcomes, bench.units, bench.wall.pk)


def _opened(request: HttpRequest, wall: int) -> WorkbenchContext:
    bench = workbench(request, wall, "survey")
    bench.tab = ROOM
    return bench


@require_POST
def save(request: HttpRequest, wall: int) -> HttpResponse:
    """Keep the walls' names and the angles between them."""
    bench = _opened(request, wall)
    form = NamesForm(bench.units, bench.plan, request.POST)
    return change(bench, form, form.changed, _("Name the walls"))


@require_POST
def add(request: HttpRequest, wall: int) -> HttpResponse:
    """Put one more wall beside this one."""
    bench = _opened(request, wall)
    form = AddWallForm(bench.units, bench.plan, request.POST)
    return change(bench, form, form.made, _("Add a wall"))


@require_POST
def remove(request: HttpRequest, wall: int) -> HttpResponse:
    """Take this wall away, with what hangs on it; undo brings both back."""
    bench = _opened(request, wall)
    name = bench.plan.faced_name
    return apply(bench, without_wall, worded("Remove the wall {name}", name=name))
