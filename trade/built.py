"""What really happened at the wall: steps that were done, holes that were drilled and what the bit met."""

import math
from datetime import datetime
from math import hypot
from typing import Annotated, Literal

from msgspec import Meta

from trade import data
from trade.errors import PlanError
from trade.measure import ABSURD_MM
from trade.part import Key, Part, between

Met = Literal["good", "no_wood", "hard", "metal", "crumbles"]
Who = Annotated[str, Meta(max_length=80)]
_MOST = 4_000


class Drilled(Part, frozen=True, kw_only=True):
    """A hole that is in the wall: where, for which piece, what the bit met, and at what depth from the room."""

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


class Done(Part, frozen=True, kw_only=True):
    """A step of hanging a piece that was done."""

    piece: Key
    step: Key
    at: datetime | None = None
    by: Who = ""


class Built(Part, frozen=True, kw_only=True):
    """All of it, in the order in which it happened."""

    drilled: tuple[Drilled, ...] = ()
    done: tuple[Done, ...] = ()

    def __post_init__(self) -> None:
        """Refuse too much of anything."""
        for where in ("drilled", "done"):
            if len(getattr(self, where)) > _MOST:
                raise PlanError(f"More than {_MOST} of them on one wall.", where)

    def steps(self, piece: str) -> frozenset[str]:
        """Steps of a piece that are done."""
        return frozenset(each.step for each in self.done if each.piece == piece)

    def made(self, piece: str) -> tuple[Drilled, ...]:
        """Holes of a piece that are as they should be."""
        return tuple(hole for hole in self.drilled if hole.piece == piece and hole.met == "good")

    def spoiled(self) -> tuple[Drilled, ...]:
        """Holes that nothing can be screwed into."""
        return tuple(hole for hole in self.drilled if hole.met != "good")


def nearest_mm(hole: Drilled, places: list[tuple[float, float]]) -> float:
    """From a hole to the nearest of some places; infinite when there is none."""
    return min((hypot(hole.x_mm - x, hole.y_mm - y) for x, y in places), default=math.inf)
