"""Hardware of one's own: by its sizes, or by what its packet states."""

from math import pi
from typing import Literal

from trade import data
from trade.errors import PlanError
from trade.language import compose
from trade.measure import G_N_PER_KG
from trade.plan.item import Name, PlanItem, between

_STEEL_KG_MM3 = 7.85e-6  # 7 850 kg/m³ (EN 1991-1-1 Table A.4)
_BAR = data.brackets()["bar"]  # what a plain bar of mild steel may be bent with
_RATED_DROOP = data.house("rated_droop_share")


class Stated(PlanItem, frozen=True, kw_only=True):
    """What a packet states that it carries, spread over its arm, N.

    `states`: whether that is the load at which it fails or the one that it may carry; `per`: of one
    or of a pair; `found`: where that was read.
    """

    load_n: float
    states: Literal["ultimate", "allowable"]
    per: Literal["each", "pair"]
    found: Name

    def __post_init__(self) -> None:
        """Refuse absurd loads."""
        if not 1 <= self.load_n <= 50_000:
            raise PlanError("What a packet states must lie between 0.1 and 5 000 kg.", "load_n")

    @property
    def each_n(self) -> float:
        """Return what one may carry: a quarter of what it fails at, as of an anchor."""
        share = 1 / data.house("packet_safety") if self.states == "ultimate" else 1.0
        return self.load_n * share / (2 if self.per == "pair" else 1)


class OwnBracket(PlanItem, frozen=True, kw_only=True):
    """A steel bracket of one's own.

    `arm_mm` out under the shelf, `leg_mm` down the wall, a bar `width_mm` wide and `thick_mm`
    thick; `holes_mm`: of its screws, down from the shelf's underside; `braced`: a strut, a gusset
    or a second leg stiffens it, and what it carries must be stated. `stated`: null where its sizes
    decide.
    """

    name: Name
    arm_mm: float
    leg_mm: float
    width_mm: float
    thick_mm: float
    holes_mm: tuple[float, ...]
    braced: bool = False
    stated: Stated | None = None

    def __post_init__(self) -> None:
        """Refuse what no bracket is."""
        between(self.arm_mm, 30, 1000, "arm_mm", "A bracket's arm")
        between(self.leg_mm, 30, 1500, "leg_mm", "A bracket's leg")
        between(self.width_mm, 8, 200, "width_mm", "A bracket's width")
        between(self.thick_mm, 0.8, 30, "thick_mm", "A bracket's thickness")
        if not self.holes_mm or list(self.holes_mm) != sorted(set(self.holes_mm)):
            raise PlanError("Give its holes from the top down, each at its own place.", "holes_mm")
        for hole in self.holes_mm:
            between(hole, 0, self.leg_mm, "holes_mm", "A hole of its leg")
        if self.braced and self.stated is None:
            raise PlanError(
                "A braced bracket can't be judged by its bar alone: enter what its packet states.",
                "stated",
            )

    @property
    def row(self) -> data.Bracket:
        """The same as a row of the brackets table: as a plain bar, or by what is stated."""
        bar_mm4 = self.width_mm * self.thick_mm**3 / 12
        inertia_mm4 = bar_mm4
        if self.braced and self.stated is not None:
            # at what it may carry it droops by a small part of its arm: W a³ / 8 E I
            droop_mm = _RATED_DROOP * self.arm_mm
            rated_mm4 = self.stated.each_n * self.arm_mm**3 / (8 * _BAR.e_mpa * droop_mm)
            inertia_mm4 = max(bar_mm4, rated_mm4)
        steel_mm3 = (self.arm_mm + self.leg_mm) * self.width_mm * self.thick_mm
        return data.Bracket(
            source=compose("one's own: {name}", name=self.name),
            name=self.name,
            price=0.0,
            material="steel",
            leg_mm=self.leg_mm,
            arm_mm=self.arm_mm,
            width_mm=self.width_mm,
            side_mm=self.thick_mm,
            holes_mm=self.holes_mm,
            section_mm3=self.width_mm * self.thick_mm**2 / 6,
            inertia_mm4=inertia_mm4,
            e_mpa=_BAR.e_mpa,
            allowable_mpa=_BAR.allowable_mpa,
            mass_kg=steel_mm3 * _STEEL_KG_MM3 * (1.5 if self.braced else 1.0),
        )


class OwnTrack(PlanItem, frozen=True, kw_only=True):
    """Slotted uprights of one's own with the arms that clip into them.

    `width_mm`, `deep_mm`, `thick_mm`: of the upright's channel, its flanges on the wall;
    `first_mm`, `every_mm`: its screw holes, down from its upper end; `hook_mm`: from the upper to
    the lower hook of an arm; `arm_mm`: out under the shelf; `stated`: what its packet says that an
    arm, or a pair of them, carries.
    """

    name: Name
    width_mm: float
    deep_mm: float
    thick_mm: float
    first_mm: float
    every_mm: float
    hook_mm: float
    arm_mm: float
    stated: Stated

    def __post_init__(self) -> None:
        """Refuse what no such upright is."""
        between(self.width_mm, 8, 100, "width_mm", "An upright's width")
        between(self.deep_mm, 4, 80, "deep_mm", "An upright's depth")
        between(self.thick_mm, 0.6, 6, "thick_mm", "Its metal")
        between(self.first_mm, 5, 300, "first_mm", "Its first hole")
        between(self.every_mm, 40, 800, "every_mm", "The distance of its holes")
        between(self.hook_mm, 15, 300, "hook_mm", "The distance of an arm's hooks")
        between(self.arm_mm, 30, 1000, "arm_mm", "An arm's reach")

    @property
    def row(self) -> data.Track:
        """The same as a row of the tracks table, an arm carrying what is stated."""
        around_mm = self.width_mm + 2 * self.deep_mm
        arm_mm3 = self.arm_mm * self.hook_mm / 2 * self.thick_mm
        return data.Track(
            source=compose("one's own: {name}", name=self.name),
            name=self.name,
            upright=self.name,
            arm=self.name,
            price=0.0,
            arm_price=0.0,
            width_mm=self.width_mm,
            deep_mm=self.deep_mm,
            thick_mm=self.thick_mm,
            first_mm=self.first_mm,
            every_mm=self.every_mm,
            hook_mm=self.hook_mm,
            arm_mm=self.arm_mm,
            pair_kg=2 * self.stated.each_n / G_N_PER_KG,
            mass_kg=arm_mm3 * _STEEL_KG_MM3,
            metre_kg=1000 * around_mm * self.thick_mm * _STEEL_KG_MM3,
        )


class OwnCleat(PlanItem, frozen=True, kw_only=True):
    """A flush metal cleat of one's own: two halves of one profile whose lips hook into each other.

    One pair at each place. `width_mm`, `high_mm`, `thick_mm`: of a half; `off_mm`: how far the pair
    holds the piece off the wall; `hook_mm`: how far the piece is lifted to come off; `hole_mm`: the
    row of holes above its lower edge; `holes`: in that row, of which a stud takes one; `stated`:
    what its packet says that a pair of halves, or two such pairs, carry.
    """

    name: Name
    width_mm: float
    high_mm: float
    thick_mm: float
    off_mm: float
    hook_mm: float
    hole_mm: float
    holes: int
    stated: Stated

    def __post_init__(self) -> None:
        """Refuse what no such cleat is."""
        between(self.width_mm, 20, 3000, "width_mm", "A half's width")
        between(self.high_mm, 10, 150, "high_mm", "A half's height")
        between(self.thick_mm, 0.8, 6, "thick_mm", "Its metal")
        between(self.off_mm, 2, 40, "off_mm", "What it holds the piece off the wall")
        between(self.hook_mm, 2, 40, "hook_mm", "The height of its hook")
        between(self.hole_mm, 2, self.high_mm, "hole_mm", "The row of its holes")
        if not 1 <= self.holes <= 60:
            raise PlanError("A half has between 1 and 60 holes.", "holes")


class OwnPlate(PlanItem, frozen=True, kw_only=True):
    """A rod of one's own, welded to a plate of mild steel.

    `rod_mm` thick, `rod_length_mm` out of the plate; `rows_mm`: of the plate's screws, up from the
    rod's axis (below it less than 0). `adjusts_mm`: how far its rod can still be shifted when the
    plate hangs; `set_screw`: one from below holds the shelf on its rod.
    """

    name: Name
    rod_mm: float
    rod_length_mm: float
    width_mm: float
    height_mm: float
    thick_mm: float
    rows_mm: tuple[float, ...]
    adjusts_mm: float = 0.0
    set_screw: bool = False

    def __post_init__(self) -> None:
        """Refuse what no plate is."""
        between(self.adjusts_mm, 0, 30, "adjusts_mm", "What its rod can be shifted by")
        between(self.rod_mm, 5, 40, "rod_mm", "A rod's thickness")
        between(self.rod_length_mm, 40, 600, "rod_length_mm", "A rod's length")
        between(self.width_mm, 15, 200, "width_mm", "A plate's width")
        between(self.height_mm, 30, 400, "height_mm", "A plate's height")
        between(self.thick_mm, 1.5, 20, "thick_mm", "A plate's thickness")
        if len(self.rows_mm) < 2 or list(self.rows_mm) != sorted(set(self.rows_mm)):
            raise PlanError(
                "Give two rows of screws or more, from the bottom up, each at its own height.",
                "rows_mm",
            )
        for row in self.rows_mm:
            between(row, -self.height_mm / 2, self.height_mm / 2, "rows_mm", "A row of screws")

    @property
    def row(self) -> data.Plate:
        """The same as a row of the plates table."""
        rod_mm3 = pi / 4 * self.rod_mm**2 * self.rod_length_mm
        plate_mm3 = self.width_mm * self.height_mm * self.thick_mm
        return data.Plate(
            source=compose("one's own: {name}", name=self.name),
            name=self.name,
            price=0.0,
            width_mm=self.width_mm,
            height_mm=self.height_mm,
            side_mm=self.thick_mm,
            rows_mm=self.rows_mm,
            rod_mm=self.rod_mm,
            rod_length_mm=self.rod_length_mm,
            yield_mpa=min(row.yield_mpa for row in data.plates().values()),
            mass_kg=(rod_mm3 + plate_mm3) * _STEEL_KG_MM3,
        )
