"""What parts and fasteners cost, and how long holes take, roughly.

Only to compare ways with one another, and to know what to take along to the shop.
"""

from functools import cache

from trade import data
from trade.mounts.base import Part
from trade.plan.model import Wall

_LITRE_MM3 = 1e6


@cache
def _each() -> dict[str, float]:
    """Return what bought things cost each, and stock a litre, by what parts call them."""
    found: dict[str, float] = {}
    for table in (data.boards(), data.brackets(), data.plates(), data.pins()):
        found |= {row.name: row.price for row in table.values()}
    for row in data.screws().values():
        found |= {row.name_metric: row.price, row.name_imperial: row.price}
    return found


@cache
def _rods() -> frozenset[str]:
    return frozenset(row.name_metric for row in data.screws().values())


def hole_minutes(wall: Wall) -> float:
    """How long each hole in a wall takes, screw included, min."""
    return data.house(
        {
            "timber": "hole_minutes_timber",
            "steel": "hole_minutes_steel",
            "mass": "hole_minutes_mass",
        }.get(wall.build, "hole_minutes_unknown")
    )


def part_price(part: Part) -> float:
    """Return what one of a part costs.

    Its wood by the litre, what is bought ready by its table, the rest by a number of ours.
    """
    if part.own:
        return 0.0
    if part.price is not None:
        return part.price
    each = _each().get(part.of)
    if each is None:
        bought = (("strap", "strap_price"), ("pin", "pin_price"), ("bumper", "bumper_price"))
        return data.house(next((key for kind, key in bought if kind in part.of), "hook_price"))
    if part.sizes_mm is None or part.of in _rods():
        return each
    return _by_litre(each, *part.sizes_mm)


def wood_price(row: data.Board, long_mm: float, wide_mm: float, thick_mm: float) -> float:
    """Return what so much of a board is worth by its volume."""
    return _by_litre(row.price, long_mm, wide_mm, thick_mm)


def _by_litre(each: float, long_mm: float, wide_mm: float, thick_mm: float) -> float:
    return each * long_mm * wide_mm * thick_mm / _LITRE_MM3


def screw_key(screw: str, length_mm: float) -> str:
    """Return what a screw of some length is called on the shopping list and in a drawer."""
    return f"screw:{screw}:{length_mm:.0f}"


def anchor_key(anchor: str | None) -> str:
    """Return what an anchor is called there."""
    return f"anchor:{anchor}"


def screw_price(row: data.Screw, length_mm: float) -> float:
    """Return what a screw of some length costs: its price is for one of 64 mm."""
    return row.price * length_mm / 64
