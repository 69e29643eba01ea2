"""Pieces of a place where they stand in the room, and whether they run into each other there."""

from typing import NamedTuple

from trade import data
from trade.calculation import Quantity
from trade.check import Check, make
from trade.memo import memoized
from trade.mounts import mount_of
from trade.mounts.base import Role
from trade.plan.facing import RoomCorner
from trade.plan.ground import Polygon, Stand, overlap_mm, stands
from trade.plan.model import AnyPiece, Plan, Wall, WallPlan
from trade.plan.place import faced

_TOUCHING_MM = data.house("clash_slack_mm")
_NEAR_MM = data.house("thin_part_mm")  # what is nearer to a wall's face touches it
_FAR_MM = 1_500.0  # no piece is deeper


class Body(NamedTuple):
    """A part of a piece in the room: its outline from above, its lower and its upper edge."""

    role: Role
    outline: Polygon
    bottom_mm: float
    top_mm: float


class Room(NamedTuple):
    """The least upright box, along x, y and z, that holds something."""

    low: tuple[float, float, float]
    high: tuple[float, float, float]

    def meets(self, other: "Room") -> bool:
        """Whether two of them share more than a touch."""
        return all(
            min(self.high[n], other.high[n]) - max(self.low[n], other.low[n]) > _TOUCHING_MM
            for n in range(3)
        )


class Standing(NamedTuple):
    """A piece where it stands: its wall's key and name, what it is made of, and what holds that."""

    piece: AnyPiece
    wall: str
    wall_name: str
    bodies: tuple[Body, ...]
    room: Room


def bodies(piece: AnyPiece, wall: Wall, stand: Stand) -> tuple[Body, ...]:
    """Return a piece as it stands in the room."""
    return tuple(
        Body(
            solid.role,
            tuple(stand.at(along, out) for along, out in solid.outline),
            solid.bottom_mm,
            solid.top_mm,
        )
        for solid in mount_of(piece).solids(piece, wall)
    )


def _room(bodies: tuple[Body, ...]) -> Room:
    x, y = zip(*(place for body in bodies for place in body.outline), strict=True)
    low, high = min(b.bottom_mm for b in bodies), max(b.top_mm for b in bodies)
    return Room((min(x), min(y), low), (max(x), max(y), high))


def standing(plan: Plan) -> tuple[Standing, ...]:
    """Return every piece of a place where it stands, wall by wall from the left."""
    return tuple(
        Standing(piece, each.at, each.faced_name, made, _room(made))
        for each, stand in zip(faced(plan), stands(plan), strict=True)
        for piece in each.pieces
        if (made := bodies(piece, each.wall, stand))
    )


def furniture(plan: Plan) -> tuple[Body, ...]:
    """Return what stands before the walls of a place, as far out as such things usually are."""
    return tuple(
        Body(
            "shade",
            tuple(
                stand.at(along, out)
                for along, out in (
                    (f.left_mm, 0.0),
                    (f.right_mm, 0.0),
                    (f.right_mm, f.row.out_mm),
                    (f.left_mm, f.row.out_mm),
                )
            ),
            f.bottom_mm,
            f.top_mm,
        )
        for each, stand in zip(faced(plan), stands(plan), strict=True)
        for f in each.wall.features
        if f.row.out_mm
    )


class Against(NamedTuple):
    """What of a piece at another wall lies against this one, along it and up."""

    piece: AnyPiece
    left_mm: float
    right_mm: float
    bottom_mm: float
    top_mm: float


def against(every: tuple[Standing, ...], wall: Stand) -> list[Against]:
    """Return what of pieces at other walls lies against a wall."""
    found = []
    for each in every:
        if each.wall == wall.key:
            continue
        for body in each.bodies:
            places = [wall.of(x, y) for x, y in body.outline]
            along, out = [x for x, _ in places], [y for _, y in places]
            left, right = max(min(along), 0.0), min(max(along), wall.width_mm)
            if abs(min(out)) < _NEAR_MM and right - left > _TOUCHING_MM:
                found.append(Against(each.piece, left, right, body.bottom_mm, body.top_mm))
    return found


@memoized(limit=64)
def _others(
    before: tuple[WallPlan, ...],
    after: tuple[WallPlan, ...],
    corners: tuple[RoomCorner, ...],
    name: str,
    width_mm: float,
    height_mm: float,
) -> tuple[Standing, ...]:
    """Return what stands at the other walls, whatever this one is like besides its size."""
    bare = Plan(
        name=name,
        units="metric",
        wall=Wall(width_mm=width_mm, height_mm=height_mm),
        at="faced-now",
        before=before,
        after=after,
        corners=corners,
    )
    return tuple(each for each in standing(bare) if each.wall != bare.at)


def clash(piece: AnyPiece, plan: Plan) -> Check | None:
    """Return the refusal of a piece that runs into one at another wall; None when it is clear."""
    wall = plan.wall
    near = (
        piece.left_mm < _FAR_MM and bool(plan.before),
        piece.left_mm + piece.length_mm > wall.width_mm - _FAR_MM and bool(plan.after),
    )
    if not any(near):
        return None
    others = _others(
        plan.before, plan.after, plan.corners, plan.name, wall.width_mm, wall.height_mm
    )
    if not others:
        return None
    own = bodies(piece, wall, Stand(plan.at, "", 0.0, 0.0, 0.0, wall.width_mm, wall.height_mm))
    room = _room(own)
    for other in (each for each in others if each.room.meets(room)):
        deep = max(
            (
                overlap_mm(one.outline, two.outline)
                for one in own
                for two in other.bodies
                if min(one.top_mm, two.top_mm) - max(one.bottom_mm, two.bottom_mm) > _TOUCHING_MM
            ),
            default=0.0,
        )
        if deep > _TOUCHING_MM:
            return make(
                "piece.corner_clash",
                part="shelf",
                case="any",
                demand=Quantity(deep, "length"),
                capacity=Quantity(_TOUCHING_MM, "length"),
                template="Round the corner it runs into “{other}” on “{wall}”, by {demand}.",
                parts={"other": other.piece.name, "wall": other.wall_name},
            )
    return None
