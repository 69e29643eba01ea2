"""The merits of a way to hang something, on one visible scale.

What it leaves to spare, and what it costs in every sense.
"""

from typing import NamedTuple

from trade import data
from trade.fixings.support import Support
from trade.memo import memoized
from trade.mounts import holes, mount_of
from trade.mounts.prices import hole_minutes, part_price, screw_price
from trade.plan.model import AnyPiece, Policy, Wall

NAMES = {
    "margin": "to spare",
    "holes": "few holes",
    "cost": "little money",
    "time": "quick",
    "tools": "usual tools",
    "off": "comes off",
    "seen": "hidden",
}
"""Merits in the order in which they are shown."""

_HALF = {  # so much of it is worth half a merit
    "holes": data.house("half_holes"),
    "cost": data.house("half_cost"),
    "time": data.house("half_minutes"),
    "tools": data.house("half_tools"),
}
_SPARE = data.house("spare_share")
_WEIGHT = {
    "margin": data.house("weight_margin"),
    "holes": data.house("weight_holes"),
    "cost": data.house("weight_cost"),
    "time": data.house("weight_time"),
    "tools": data.house("weight_tools"),
    "off": data.house("weight_off"),
    "seen": data.house("weight_seen"),
    "place": data.house("weight_place"),
}
_MATTERS = data.house("matters_times")
_PLACE_HALF_MM = data.house("place_half_mm")
_LET_IN_MINUTES = data.house("let_in_minutes")


class Effort(NamedTuple):
    """What a way takes, whatever it holds; `cost`: of what goes into it, not of what is bought.

    `tools`: those that not everybody has; `off`, `seen`: as in the table of kinds.
    """

    holes: int
    cost: float
    minutes: float
    tools: tuple[str, ...]
    off: int
    seen: int


def holes_of(piece: AnyPiece, wall: Wall) -> int:
    """How many holes a piece takes in the wall."""
    return len(holes(mount_of(piece).supports(piece, wall)))


@memoized(limit=1_000)
def effort(piece: AnyPiece, wall: Wall, policy: Policy) -> Effort:
    """Return what it takes to hang a piece.

    Holes in the wall, money, minutes, tools; whether it comes off, and what shows.
    """
    supports = mount_of(piece).supports(piece, wall)
    count = len(holes(supports))
    return sized(
        piece,
        wall,
        policy,
        count,
        sum(_fastener(support) * len(support.holes) for support in supports),
    )


def sized(piece: AnyPiece, wall: Wall, policy: Policy, count: int, fasteners: float) -> Effort:
    """Return the same when the holes and what goes into them are already counted.

    Args:
        piece: what hangs.
        wall: where.
        policy: whose school it follows.
        count: holes in the wall.
        fasteners: what all of them cost.
    """
    mount = mount_of(piece)
    row, parts = data.mounting_kinds()[mount.kind], mount.parts(piece, wall)
    let_in = mount.let_in(piece)
    tools = [tool for tool in row.tools if not data.tools()[tool].usual]
    tools += ["hammer_drill"] * (wall.build == "mass") + ["chisel"] * let_in
    minutes = row.minutes + row.each * len(piece.supports_mm) + count * hole_minutes(wall)
    minutes += _LET_IN_MINUTES * len(piece.supports_mm) * let_in + data.house("cut_minutes") * sum(
        part.many for part in parts
    )
    glued = policy.stays == "glued" and row.seen == 0
    return Effort(
        count,
        sum(part_price(part) * part.many for part in parts) + fasteners,
        minutes,
        tuple(tools),
        0 if let_in or glued else row.off,
        row.seen,
    )


def marks(effort: Effort, used: float, trouble_mm: float = 0.0) -> dict[str, float]:
    """Each merit from 0 to 1, 1 the best: half as good at the sizes of the house; `place`.

    How near it is to what was wished.
    """
    taken = {
        "holes": effort.holes,
        "cost": effort.cost,
        "time": effort.minutes,
        "tools": len(effort.tools),
    }
    found = {name: half / (half + taken[name]) for name, half in _HALF.items()}
    return found | {
        "margin": max(min((1 - used) / _SPARE, 1.0), 0.0),
        "off": effort.off / 2,
        "seen": 1 - effort.seen / 2,
        "place": _PLACE_HALF_MM / (_PLACE_HALF_MM + trouble_mm),
    }


def at_price(marks: dict[str, float], cost: float) -> dict[str, float]:
    """Return the same merits for what it costs in the shop."""
    return marks | {"cost": _HALF["cost"] / (_HALF["cost"] + cost)}


def demerit(marks: dict[str, float], matters: str) -> float:
    """Return what a way lacks in all.

    The weighted sum of what each merit is short of 1; the less the better.
    """
    weights = {
        name: weight * (_MATTERS if name == matters else 1.0) for name, weight in _WEIGHT.items()
    }
    return sum(weight * (1 - marks[name]) for name, weight in weights.items())


def _fastener(support: object) -> float:
    if not isinstance(support, Support):
        return 0.0  # a pin is a part
    if support.capacity is not None:
        return support.capacity.anchor.price if support.capacity.anchor else 0.0
    return screw_price(support.screw, support.screw_mm)
