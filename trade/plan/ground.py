"""Where the walls of a place stand, seen from above.

x to the right and y towards the room, mm, from the left corner of the wall that one faces: that
wall runs along x, and the room lies before it.
"""

from collections.abc import Iterable
from itertools import pairwise
from math import cos, hypot, radians, sin
from typing import NamedTuple

from trade import data
from trade.calculation import Quantity
from trade.check import Message
from trade.plan.model import Plan, WallPlan

Point = tuple[float, float]
Polygon = tuple[Point, ...]
_FULL_DEG = 360.0
_NEARLY_ROUND_DEG = data.house("nearly_round")
_STRAIGHT_DEG = 180.0


class Stand(NamedTuple):
    """How a wall stands: its left corner, the way it runs (degrees, clockwise), its two sizes."""

    key: str
    name: str
    x_mm: float
    y_mm: float
    turned_deg: float
    width_mm: float
    height_mm: float

    def at(self, along_mm: float, out_mm: float = 0.0) -> Point:
        """Return a place so far from its left corner and so far out from its face."""
        way = radians(self.turned_deg)
        return (
            self.x_mm + along_mm * cos(way) - out_mm * sin(way),
            self.y_mm + along_mm * sin(way) + out_mm * cos(way),
        )

    def of(self, x_mm: float, y_mm: float) -> Point:
        """Return how far a place is along it from its left corner, and out from its face."""
        way, x, y = radians(self.turned_deg), x_mm - self.x_mm, y_mm - self.y_mm
        return x * cos(way) + y * sin(way), y * cos(way) - x * sin(way)

    @property
    def ends(self) -> tuple[Point, Point]:
        """Its two corners, from the left."""
        return self.at(0.0), self.at(self.width_mm)


def stands(plan: Plan) -> tuple[Stand, ...]:
    """Return every wall of a place where it stands, from the left."""
    walls = (*plan.before, _own(plan), *plan.after)
    here = len(plan.before)
    turned = [0.0] * len(walls)
    for i in range(here + 1, len(walls)):
        turned[i] = turned[i - 1] + _STRAIGHT_DEG - plan.corners[i - 1].angle_deg
    for i in range(here - 1, -1, -1):
        turned[i] = turned[i + 1] - _STRAIGHT_DEG + plan.corners[i].angle_deg
    made: list[Stand] = []
    x = y = 0.0
    for each, way in zip(walls, turned, strict=True):
        size = each.wall.width_mm, each.wall.height_mm
        made.append(Stand(each.key, each.name or plan.name, x, y, way, *size))
        x, y = made[-1].ends[1]
    from_x, from_y = made[here].x_mm, made[here].y_mm
    return tuple(s._replace(x_mm=s.x_mm - from_x, y_mm=s.y_mm - from_y) for s in made)


def _own(plan: Plan) -> WallPlan:
    return WallPlan(key=plan.at, name=plan.faced, wall=plan.wall)


def doubts(plan: Plan) -> list[Message]:
    """Return what can't be right about how the walls of a place stand.

    Walls that run through each other; walls that go all the way round and don't close.
    """
    walls, found = stands(plan), []
    for i, one in enumerate(walls):
        for other in walls[i + 2 :]:
            round_and_back = one is walls[0] and other is walls[-1] and _goes_round(plan)
            if not round_and_back and _cross(one.ends, other.ends):
                said = "“{one}” and “{other}” run through each other: measure their corners again."
                found.append(Message(said, {"one": one.name, "other": other.name}))
    if _goes_round(plan):
        start, end = walls[0].ends[0], walls[-1].ends[1]
        gap = hypot(end[0] - start[0], end[1] - start[1])
        if gap > data.house("room_closes_mm"):
            said = "The walls go all the way round and miss each other by {gap}: measure again."
            found.append(Message(said, {"gap": Quantity(gap, "length")}))
    return found


def _goes_round(plan: Plan) -> bool:
    """Whether the walls go round a room: with the corner that closes it they turn once."""
    turns = sum(_STRAIGHT_DEG - corner.angle_deg for corner in plan.corners)
    return len(plan.corners) > 2 and turns > _FULL_DEG - _STRAIGHT_DEG + _NEARLY_ROUND_DEG


def _cross(a: tuple[Point, Point], b: tuple[Point, Point]) -> bool:
    """Whether two lines cross within both."""

    def side(line: tuple[Point, Point], p: Point) -> float:
        (x0, y0), (x1, y1) = line
        return (x1 - x0) * (p[1] - y0) - (y1 - y0) * (p[0] - x0)

    return side(a, b[0]) * side(a, b[1]) < 0 and side(b, a[0]) * side(b, a[1]) < 0


def overlap_mm(a: Polygon, b: Polygon) -> float:
    """How far one of two convex outlines would have to move to come clear of the other.

    0 where they are clear. By separating axes: the least overlap along any normal of their edges.
    """
    least = float("inf")
    for outline in (a, b):
        for (x0, y0), (x1, y1) in pairwise((*outline, outline[0])):
            long = hypot(x1 - x0, y1 - y0)
            if long == 0:
                continue
            normal = (y0 - y1) / long, (x1 - x0) / long
            (a_low, a_high), (b_low, b_high) = _span(a, normal), _span(b, normal)
            least = min(least, a_high - b_low, b_high - a_low)
    return max(least, 0.0)


def _span(points: Iterable[Point], way: Point) -> tuple[float, float]:
    along = [x * way[0] + y * way[1] for x, y in points]
    return min(along), max(along)
