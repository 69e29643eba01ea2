"""Shelves that rest on each other round a corner, as in a pantry of two depths."""

from msgspec.structs import replace

from trade import data
from trade.calculation import Quantity
from trade.check import Check, make
from trade.measure import G_N_PER_KG
from trade.mounts import mount_of
from trade.plan.facing import SIDES
from trade.plan.flatness import Side
from trade.plan.model import AnyPiece, Plan, Thing
from trade.plan.pieces.base import MOST_THINGS
from trade.plan.place import wall_beside


def loaded(piece: AnyPiece, plan: Plan) -> AnyPiece:
    """Return a piece with what shelves at the walls beside lay on its front, as things on it.

    As it is where its list has no room for them; `checks` says so.
    """
    found = _laid_on(piece, plan)
    if not found or len(piece.things) + len(found) > MOST_THINGS:
        return piece
    return replace(piece, things=(*piece.things, *found))


def _laid_on(piece: AnyPiece, plan: Plan) -> list[Thing]:
    found: list[Thing] = []
    for side in SIDES:
        there = wall_beside(plan, side)
        for other in () if there is None else there.pieces:
            rest = mount_of(other).rests(other).get("right" if side == "left" else "left")
            if rest is None or rest.on != piece.key:
                continue
            middle = rest.depth_mm / 2
            place = middle if side == "left" else plan.wall.width_mm - middle
            found.append(
                Thing(
                    name=other.name,
                    mass_kg=rest.force_n / G_N_PER_KG,
                    at_mm=min(max(place - piece.left_mm, 0.0), piece.length_mm),
                    out_mm=piece.depth_mm,
                )
            )
    return found


def checks(piece: AnyPiece, plan: Plan) -> list[Check]:
    """Whether each end that rests on another shelf finds it there, and what rests on it is counted.

    Args:
        piece: as it is in the plan, without what rests on it.
        plan: in front of its wall.
    """
    found = [
        _found(piece, plan, side, rest.on) for side, rest in mount_of(piece).rests(piece).items()
    ]
    many = len(piece.things) + len(_laid_on(piece, plan))
    if many > MOST_THINGS:
        found.append(
            make(
                "ledger.rests",
                part="board",
                case="any",
                demand=Quantity(many, "count"),
                capacity=Quantity(MOST_THINGS, "count"),
                template="{demand} things are on it with what rests on its front; {capacity} can "
                "be counted. Enter equal things together.",
            )
        )
    return found


def _found(piece: AnyPiece, plan: Plan, side: Side, key: str) -> Check:
    there = wall_beside(plan, side)
    other = next((each for each in there.pieces if each.key == key), None) if there else None
    if other is None:
        return make(
            "ledger.rests",
            part="board",
            case="any",
            demand=Quantity(1, "count"),
            capacity=Quantity(0.5, "count"),
            template="Its {side} end rests on a shelf that is not at the wall there.",
            parts={"side": side},
        )
    end = piece.left_mm if side == "left" else plan.wall.width_mm - piece.left_mm - piece.length_mm
    apart, step = abs(end - other.depth_mm), abs(piece.top_mm - other.top_mm)
    level = data.house("joint_level_mm")
    worse = max(apart, step * data.house("joint_mm") / level)
    said = "Its {side} end is {demand} off the front of “{other}”; the strip bears {capacity}."
    if step > level:
        said = "Its {side} end and “{other}” are not level: hang both at one height."
    return make(
        "ledger.rests",
        part="board",
        case="any",
        demand=Quantity(worse, "length"),
        capacity=Quantity(data.house("joint_mm"), "length"),
        template=said,
        parts={"side": side, "other": other.name},
    )
