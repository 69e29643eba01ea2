"""Things out of the library: what so much of something weighs."""

from typing import Literal

from trade import data
from trade.measure import Units, say_length
from trade.plan.model import Thing

AMOUNTS: dict[Literal["each", "metre", "litre"], str] = {
    "each": "how many",
    "metre": "how long",
    "litre": "how many litres",
}


def thing(key: str, amount: float, units: Units, at_mm: float | None = None) -> Thing:
    """So much of something as a thing on a shelf.

    Args:
        key: a row of the contents table.
        amount: how many; how long along the shelf, mm; or how many litres.
        units: in which its name says how long.
        at_mm: where, from the left end; None for all along.

    Raises:
        UnknownRowError: no such row.
        PlanError: an absurd weight.
    """
    row = data.row(data.contents(), key, "thing")
    much = (
        say_length(amount, units)
        if row.per == "metre"
        else f"{amount:.6g}{' l' if row.per == 'litre' else ''}"
    )
    kg = row.kg * (amount / 1000 if row.per == "metre" else amount)
    return Thing(
        name=f"{row.name[0].upper()}{row.name[1:]}, {much}",
        mass_kg=round(kg, 2),
        at_mm=at_mm,
        high_mm=row.high_mm,
        wide_mm=row.wide_mm or None,
        of=key,
    )
