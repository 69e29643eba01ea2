"""A wall with those that meet it at its corners."""

import math

from trade import data
from trade.errors import PlanError
from trade.language import Figure, compose
from trade.measure import ABSURD_MM
from trade.plan.flatness import SQUARE_WITHIN_DEG, Corner, Side
from trade.plan.item import Name, PlanItem, between
from trade.plan.wall import Wall

_SHARPEST_DEG = data.house("corner_sharpest")
SQUARE_DEG = 90.0
SIDES: tuple[Side, Side] = ("left", "right")


class RoomCorner(PlanItem, frozen=True, kw_only=True):
    """Where a wall of a place meets the next one to its right.

    `angle_deg`: between their faces, in the room: 90 in a square room, 270 around what stands out.
    """

    angle_deg: float = SQUARE_DEG

    def __post_init__(self) -> None:
        """Refuse walls that lie on each other."""
        if not (
            math.isfinite(self.angle_deg) and _SHARPEST_DEG <= self.angle_deg <= 360 - _SHARPEST_DEG
        ):
            raise PlanError(
                compose(
                    "Two walls can't meet at {angle}°: 90 is an inside corner, 270 an outside one; "
                    "30 to 330 is possible.",
                    angle=Figure(f"{self.angle_deg:.6g}"),
                ),
                "angle_deg",
            )


class Opening(PlanItem, frozen=True, kw_only=True):
    """The way into a place: its clear width and height, and how far it is from the widest wall."""

    width_mm: float
    height_mm: float
    away_mm: float

    def __post_init__(self) -> None:
        """Refuse what nobody gets through."""
        between(self.width_mm, 200, ABSURD_MM, "opening.width_mm", "The way in")
        between(self.height_mm, 200, ABSURD_MM, "opening.height_mm", "The way in")
        between(self.away_mm, 100, ABSURD_MM, "opening.away_mm", "The way in")


class Neighbour(PlanItem, frozen=True, kw_only=True, cache_hash=True):
    """A wall that meets this one, and the angle between them in the room."""

    name: Name
    wall: Wall
    angle_deg: float

    def along_mm(self, side: Side, from_corner_mm: float) -> float:
        """Return a place of that wall from its own left corner.

        Args:
            side: of this wall, at which the other stands.
            from_corner_mm: how far the place is from the corner where they meet.
        """
        return self.wall.width_mm - from_corner_mm if side == "left" else from_corner_mm


class Facing(Wall, frozen=True, kw_only=True, cache_hash=True):
    """A wall that others meet; what goes round a corner is judged on both.

    `left`, `right`: null where none is known.
    """

    left: Neighbour | None = None
    right: Neighbour | None = None


def beside(wall: Wall, side: Side) -> Neighbour | None:
    """Return the wall that meets this one at an inside corner; None where none is known."""
    if not isinstance(wall, Facing):
        return None
    found = wall.left if side == "left" else wall.right
    return found if found is not None and found.angle_deg < 180 else None


def goes_round(wall: Wall, side: Side) -> bool:
    """Whether the next wall at an end goes away from the room: nothing there can hold an end."""
    if not isinstance(wall, Facing):
        return False
    found = wall.left if side == "left" else wall.right
    return found is not None and beside(wall, side) is None


def angle_deg(wall: Wall, side: Side) -> float:
    """Return the angle at an end of a wall as it was measured; square where nobody measured."""
    return next(
        (corner.angle_deg for corner in wall.flatness.corners if corner.side == side), SQUARE_DEG
    )


def measurable(degrees: float) -> bool:
    """Whether a corner's angle can be told as how far an end is off square."""
    return abs(degrees - SQUARE_DEG) <= SQUARE_WITHIN_DEG


def corners_of(left: float | None, right: float | None) -> tuple[Corner, ...]:
    """Return the corners of a wall by their angles, as its flatness has them."""
    return tuple(
        Corner(side=side, angle_deg=degrees)
        for side, degrees in zip(SIDES, (left, right), strict=True)
        if degrees is not None and measurable(degrees)
    )
