"""A place: walls in a row that meet at corners, as a plan file keeps them.

Work is done in front of one wall at a time: `plan` turns to it, `of` goes back to all of them.
"""

from typing import Any, Literal

from msgspec.structs import replace

from trade.errors import PlanError
from trade.measure import Units
from trade.plan.facing import (
    Facing,
    Neighbour,
    Opening,
    RoomCorner,
    angle_deg,
    corners_of,
    measurable,
)
from trade.plan.features import Feature
from trade.plan.flatness import Side
from trade.plan.item import Name, PlanItem
from trade.plan.model import AnyPiece, Plan, WallPlan
from trade.plan.policy import Policy
from trade.plan.shop import Shop
from trade.plan.wall import Wall

_UNSAID_DEG = 1e-9


class Place(PlanItem, frozen=True, kw_only=True):
    """Walls from left to right as one sees them from the room, and where each meets the next.

    `opening`: the way into it; null: nobody said.
    """

    format: Literal["gancho-plan"] = "gancho-plan"
    version: Literal[2] = 2
    name: Name
    units: Units
    walls: tuple[WallPlan, ...]
    corners: tuple[RoomCorner, ...] = ()
    opening: Opening | None = None
    policy: Policy = Policy()
    shop: Shop = Shop()

    def __post_init__(self) -> None:
        """Refuse what no plan can be made of, wall by wall."""
        if not self.walls:
            raise PlanError("A place needs a wall.", "walls")
        for i, each in enumerate(self.walls):
            try:
                self.plan(each.key)
            except PlanError as error:
                raise PlanError(str(error), _where(error.where, i)) from None

    @classmethod
    def of(cls, plan: Plan) -> "Place":
        """Return all walls of a plan; a corner that was measured on this one is the place's."""
        at = len(plan.before)
        corners = list(plan.corners)
        if at > 0:
            corners[at - 1] = _measured(corners[at - 1], plan.wall, "left")
        if plan.after:
            corners[at] = _measured(corners[at], plan.wall, "right")
        own = WallPlan(
            key=plan.at,
            name=plan.faced,
            wall=_alone(plan.wall, left=at > 0, right=bool(plan.after)),
            pieces=plan.pieces,
            datum=plan.datum,
            as_built=plan.as_built,
        )
        return cls(
            name=plan.name,
            units=plan.units,
            walls=(*plan.before, own, *plan.after),
            corners=tuple(corners),
            opening=plan.opening,
            policy=plan.policy,
            shop=plan.shop,
        )

    def index(self, key: str) -> int:
        """Return which wall that is, from the left; the widest where there is none of that key."""
        widest = max(range(len(self.walls)), key=lambda i: self.walls[i].wall.width_mm)
        return next((i for i, each in enumerate(self.walls) if each.key == key), widest)

    def plan(self, key: str = "") -> Plan:
        """Return the place as one works on one of its walls, the widest if there is no such key.

        Raises:
            PlanError: something does not fit.
        """
        at = self.index(key)
        own = self.walls[at]
        return Plan(
            name=self.name,
            units=self.units,
            wall=self._facing(at),
            pieces=own.pieces,
            policy=self.policy,
            datum=own.datum,
            shop=self.shop,
            as_built=own.as_built,
            at=own.key,
            faced=own.name,
            before=self.walls[:at],
            after=self.walls[at + 1 :],
            corners=self.corners,
            opening=self.opening,
        )

    def _facing(self, at: int) -> Wall:
        """Return a wall with those beside it; as it is where it is alone."""
        wall = self.walls[at].wall
        left = self._neighbour(at - 1, at - 1) if at > 0 else None
        right = self._neighbour(at + 1, at) if at + 1 < len(self.walls) else None
        if left is None and right is None:
            return wall
        own = {corner.side: corner.angle_deg for corner in wall.flatness.corners}
        angles = (
            left.angle_deg if left is not None else own.get("left"),
            right.angle_deg if right is not None else own.get("right"),
        )
        flatness = replace(wall.flatness, corners=corners_of(*angles))
        return Facing(**{**_fields(wall), "flatness": flatness}, left=left, right=right)

    def _neighbour(self, index: int, corner: int) -> Neighbour | None:
        if corner >= len(self.corners):
            return None  # the plan says so
        other = self.walls[index]
        return Neighbour(
            name=other.name or self.name,
            wall=other.wall,
            angle_deg=self.corners[corner].angle_deg,
        )


def faced(plan: Plan) -> tuple[Plan, ...]:
    """Return a place in front of each of its walls, from the left; this plan is one of them."""
    if not plan.corners:
        return (plan,)
    place = Place.of(plan)
    return tuple(plan if each.key == plan.at else place.plan(each.key) for each in place.walls)


def beside_plan(plan: Plan, side: Side) -> Plan | None:
    """Return a place in front of the wall beside this one; None where there is none."""
    there = wall_beside(plan, side)
    return None if there is None else turned(plan, there.key)


def wall_beside(plan: Plan, side: Side) -> WallPlan | None:
    """Return the wall beside this one with what hangs on it; None where there is none."""
    others = plan.before[-1:] if side == "left" else plan.after[:1]
    return others[0] if others else None


def refaced(plan: Plan) -> Plan:
    """Return a place that was changed, its walls knowing each other as they are now."""
    return Place.of(plan).plan(plan.at) if plan.corners else plan


def each_piece(plan: Plan) -> list[tuple[AnyPiece, Plan]]:
    """Return every piece of a place, each with the place in front of its own wall."""
    return [(piece, each) for each in faced(plan) for piece in each.pieces]


def each_waiting(plan: Plan) -> list[tuple[AnyPiece, Plan]]:
    """Return the same of those that do not hang yet."""
    return [(piece, each) for each in faced(plan) for piece in each.waiting]


def wood_to_fit(plan: Plan) -> list[tuple[Feature, Plan]]:
    """Return blocking and boards that are still to be put in, each with its wall's plan."""
    return [(wood, each) for each in faced(plan) for wood in each.wood_to_fit]


def turned(plan: Plan, key: str) -> Plan:
    """Return the same place in front of another of its walls."""
    return plan if key == plan.at else Place.of(plan).plan(key)


def with_wall(plan: Plan, side: Side, new: WallPlan, degrees: float) -> Plan:
    """Return a place with one more wall at the left or the right of this one, and turn to it.

    What met this one there meets the new one now, as it met this one.

    Raises:
        PlanError: there are too many walls, or no such corner.
    """
    place, corner = Place.of(plan), RoomCorner(angle_deg=degrees)
    at = place.index(plan.at) + (side == "right")
    taken = {each.key for each in place.walls}
    key = next(key for n in range(len(taken) + 1) if (key := f"wall-{n + 2}") not in taken)
    made = replace(
        place,
        walls=(*place.walls[:at], replace(new, key=key), *place.walls[at:]),
        corners=_with_corner(place.corners, at, side, corner),
    )
    return made.plan(key)


def _with_corner(
    corners: tuple[RoomCorner, ...], at: int, side: Side, new: RoomCorner
) -> tuple[RoomCorner, ...]:
    where = at - 1 if side == "right" else at
    return (*corners[:where], new, *corners[where:])


def without_wall(plan: Plan) -> Plan:
    """Return a place without this wall and what hangs on it, in front of the one beside it.

    Raises:
        PlanError: it is the only one.
    """
    place = Place.of(plan)
    if len(place.walls) == 1:
        raise PlanError("A place needs a wall.", "walls")
    at = place.index(plan.at)
    gone = min(at, len(place.corners) - 1)
    walls = place.walls[:at] + place.walls[at + 1 :]
    made = replace(place, walls=walls, corners=place.corners[:gone] + place.corners[gone + 1 :])
    return made.plan(walls[max(at - 1, 0)].key)


def _measured(corner: RoomCorner, wall: Wall, side: Side) -> RoomCorner:
    """Return a corner with the angle that was measured on one of its walls."""
    if not measurable(corner.angle_deg):
        return corner  # nobody measures that from one wall
    found = angle_deg(wall, side)
    same = abs(found - corner.angle_deg) < _UNSAID_DEG
    return corner if same else RoomCorner(angle_deg=found)


def _alone(wall: Wall, left: bool, right: bool) -> Wall:
    """Return a wall without those beside it; corners that are the place's are left to it."""
    kept = tuple(
        corner for corner in wall.flatness.corners if not (left if corner.side == "left" else right)
    )
    plain = wall if type(wall) is Wall else Wall(**_fields(wall))
    if kept == wall.flatness.corners:
        return plain
    return replace(plain, flatness=replace(wall.flatness, corners=kept))


def _fields(wall: Wall) -> dict[str, Any]:
    """Return what a wall is made of, those beside it apart."""
    return {name: getattr(wall, name) for name in Wall.__struct_fields__}


def _where(where: str, wall: int) -> str:
    """Return where in a file something of one wall stands."""
    shared = ("policy", "opening", "shop", "walls", "corners", "units", "name")
    return where if not where or where.startswith(shared) else f"walls[{wall}].{where}"
