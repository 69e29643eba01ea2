"""What really happened, at the wall and before.

Steps, holes and what the bit met, how a piece hangs, how it was tried, proved, and how it held.
"""

import math
from datetime import date, datetime
from math import hypot
from typing import Annotated, Literal

from msgspec import Meta

from trade import data
from trade.errors import PlanError
from trade.language import compose
from trade.measure import ABSURD_MM
from trade.plan.item import Key, PlanItem, between, known

Met = Literal["good", "no_wood", "hard", "metal", "crumbles"]
Gave = Literal["nothing", "came_out", "split", "crushed", "bent", "broke"]
RowKey = Annotated[str, Meta(max_length=40)]
Who = Annotated[str, Meta(max_length=80)]
Note = Annotated[str, Meta(max_length=400)]
_MOST = 4_000


class Drilled(PlanItem, frozen=True, kw_only=True):
    """A hole that is in the wall.

    Where, for which piece, what the bit met, and at what depth from the room.
    """

    piece: Key
    x_mm: float
    y_mm: float
    met: Met = "good"
    depth_mm: float | None = None
    at: datetime | None = None
    by: Who = ""

    def __post_init__(self) -> None:
        """Refuse holes that are nowhere."""
        for name, value in (("x_mm", self.x_mm), ("y_mm", self.y_mm), ("depth_mm", self.depth_mm)):
            between(value, 0, ABSURD_MM, name, "Where a hole is")

    def is_at(self, x_mm: float, y_mm: float) -> bool:
        """Whether a mark at this place is this hole."""
        return hypot(self.x_mm - x_mm, self.y_mm - y_mm) <= data.house("made_mm")


class Done(PlanItem, frozen=True, kw_only=True):
    """A step of hanging a piece that was done."""

    piece: Key
    step: Key
    at: datetime | None = None
    by: Who = ""


class Mounted(PlanItem, frozen=True, kw_only=True):
    """Where what carries a piece really is, measured once it was up.

    From where the piece's left end goes, left to right, mm.
    """

    piece: Key
    places_mm: tuple[float, ...]

    def __post_init__(self) -> None:
        """Refuse places that nobody could have measured."""
        for place in self.places_mm:
            between(place, 0, ABSURD_MM, "places_mm", "Where it is")
        if list(self.places_mm) != sorted(set(self.places_mm)):
            raise PlanError("Measure them from left to right, each at its own place.", "places_mm")


class Hung(PlanItem, frozen=True, kw_only=True):
    """A piece as it hangs now: what went in instead of what was planned (null.

    As planned), and by how much it hangs elsewhere.

    `up_mm`, `right_mm`: higher and further right than planned; `minutes`, `cost`: what it took,
    null: nobody said.
    """

    piece: Key
    on: date
    by: Who = ""
    screw: str | None = None
    screw_length_mm: float | None = None
    anchor: str | None = None
    up_mm: float = 0.0
    right_mm: float = 0.0
    minutes: float | None = None
    cost: float | None = None
    note: Note = ""

    def __post_init__(self) -> None:
        """Refuse screws that nobody knows, and absurd numbers."""
        if self.screw is not None:
            known(data.screws(), self.screw, "screw", "screw")
        between(self.screw_length_mm, 5, 500, "screw_length_mm", "A screw's length")
        between(self.up_mm, -2000, 2000, "up_mm", "How much higher it hangs")
        between(self.right_mm, -5000, 5000, "right_mm", "How much further right it hangs")
        for name, value, most in (
            ("minutes", self.minutes, 100_000.0),
            ("cost", self.cost, 1_000_000.0),
        ):
            if value is not None and not 0 <= value <= most:
                raise PlanError("That must be between 0 and 30 m.", name)


class Proof(PlanItem, frozen=True, kw_only=True):
    """A proof load, and its front edge before, under and after it, mm downwards.

    `level_mm_per_m`: how much it runs off level, null: not read; `stirred`: something was seen or
    heard to move at the wall.
    """

    piece: Key
    on: date
    kg: float
    minutes: float
    before_mm: float
    loaded_mm: float
    after_mm: float
    level_mm_per_m: float | None = None
    stirred: bool = False
    by: Who = ""

    def __post_init__(self) -> None:
        """Refuse what nobody read."""
        if not (math.isfinite(self.kg) and 0 <= self.kg <= 5_000):
            raise PlanError("A load must be between 0 and 5 000 kg.", "kg")
        if not 0 <= self.minutes <= 100_000:
            raise PlanError("The time under load must be 0 minutes or more.", "minutes")
        for name in ("before_mm", "loaded_mm", "after_mm"):
            between(getattr(self, name), -500, 500, name, "A reading")
        between(self.level_mm_per_m, -200, 200, "level_mm_per_m", "How much it runs off level")


class Trial(PlanItem, frozen=True, kw_only=True):
    """One fixing of a piece tried on scrap, before the wall: what hung on it, and what came of it.

    `kind`, `screw`, `screw_length_mm`, `anchor`: what was tried. `kg`: the most that hung as far
    out as the piece's front edge; `gave`: how it gave way under that; `hours`: how long what it
    takes in the plan hung; `sag_mm`: how far the front edge sank meanwhile, null: not read.
    """

    piece: Key
    on: date
    kind: RowKey
    screw: RowKey
    screw_length_mm: float
    anchor: RowKey | None = None
    kg: float
    gave: Gave = "nothing"
    hours: float = 0.0
    sag_mm: float | None = None
    note: Note = ""
    by: Who = ""

    def __post_init__(self) -> None:
        """Refuse absurd loads, times and readings."""
        if not (math.isfinite(self.kg) and 0 < self.kg <= 2_000):
            raise PlanError("The load must be more than 0 kg and at most 2 000 kg.", "kg")
        if not 0 <= self.hours <= 10_000:
            raise PlanError("The time under load must be 0 hours or more.", "hours")
        between(self.sag_mm, -50, 500, "sag_mm", "How far it sank")

    @property
    def of(self) -> tuple[str, str, float, str | None]:
        """Kind, screw, its length in mm and anchor: trials of the same fixing have the same."""
        return self.kind, self.screw, round(self.screw_length_mm), self.anchor


class Look(PlanItem, frozen=True, kw_only=True):
    """Somebody looked again: whether it was firm."""

    piece: Key
    on: date
    held: Literal["firm", "loose", "off"]
    note: Note = ""
    by: Who = ""


class AsBuilt(PlanItem, frozen=True, kw_only=True):
    """All of it, in the order in which it happened."""

    drilled: tuple[Drilled, ...] = ()
    done: tuple[Done, ...] = ()
    mounted: tuple[Mounted, ...] = ()
    hung: tuple[Hung, ...] = ()
    proofs: tuple[Proof, ...] = ()
    looks: tuple[Look, ...] = ()
    trials: tuple[Trial, ...] = ()

    def __post_init__(self) -> None:
        """Refuse too much of anything."""
        for where in ("drilled", "done", "mounted", "hung", "proofs", "looks", "trials"):
            if len(getattr(self, where)) > _MOST:
                raise PlanError(compose("More than {most} of them on one wall.", most=_MOST), where)

    def steps(self, piece: str) -> frozenset[str]:
        """Return steps of a piece that are done."""
        return frozenset(each.step for each in self.done if each.piece == piece)

    def existing_holes(self, piece: str) -> tuple[Drilled, ...]:
        """Holes of a piece that are as they should be."""
        return tuple(hole for hole in self.drilled if hole.piece == piece and hole.met == "good")

    def as_hung(self, piece: str) -> Hung | None:
        """Return what was last said of how a piece hangs."""
        return next((each for each in reversed(self.hung) if each.piece == piece), None)

    def hangs(self, piece: str) -> bool:
        """Whether a piece is recorded as hung and has not come off since."""
        hung = self.as_hung(piece)
        return hung is not None and not any(
            look.piece == piece and look.held == "off" and look.on >= hung.on for look in self.looks
        )

    def places_mm(self, piece: str) -> tuple[float, ...] | None:
        """Where what carries a piece was measured to be; None where nobody did."""
        return next(
            (each.places_mm for each in reversed(self.mounted) if each.piece == piece), None
        )

    def spoiled(self) -> tuple[Drilled, ...]:
        """Holes that nothing can be screwed into."""
        return tuple(hole for hole in self.drilled if hole.met != "good")


def nearest_mm(hole: Drilled, places: list[tuple[float, float]]) -> float:
    """From a hole to the nearest of some places; infinite when there is none."""
    return min((hypot(hole.x_mm - x, hole.y_mm - y) for x, y in places), default=math.inf)
