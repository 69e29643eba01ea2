"""What may hang at each place along a piece: one thing alone, as far out as its hooks reach."""

from typing import NamedTuple

import numpy as np
from msgspec.structs import replace

from trade import data
from trade.assess import agreed_and_shared, assess_piece
from trade.check import strained
from trade.plan.model import AnyPiece, Plan, Thing

_MOST_KG = 400.0
_TRIES = 9
_CLOSE_KG = 0.1  # what is found is this near


class Place(NamedTuple):
    """A place from the left end, mm, and the heaviest single thing it carries, kg."""

    at_mm: float
    kg: float


def along(piece: AnyPiece, plan: Plan, count: int = 25) -> tuple[Place, ...]:
    """Return what one thing may weigh at each of some places, those of the supports among them.

    Nothing else on the piece.

    Args:
        piece: with two supports or more.
        plan: the wall that it hangs on, and what else hangs there.
        count: places, evenly from end to end.
    """
    even = np.linspace(0.0, piece.length_mm, count).tolist()
    places = sorted({*even, *piece.supports_mm})
    found: list[Place] = []
    guess = 10.0
    for at in places:
        guess = carries(piece, plan, at, guess)
        found.append(Place(at, guess))
    return tuple(found)


def carries(piece: AnyPiece, plan: Plan, at_mm: float, guess_kg: float) -> float:
    """Return the greatest mass at one place with which everything fits and holds, kg.

    By false position.
    """
    limit = data.house("close_from")

    def used(kg: float) -> float:
        thing = Thing(name="One thing", mass_kg=kg, at_mm=at_mm, out_mm=piece.depth_mm)
        loaded = replace(piece, things=(thing,))
        own = assess_piece(loaded, plan.wall).checks
        return strained([*own, *agreed_and_shared(loaded, plan)])

    low, at_low = 0.0, used(0.0)
    if at_low > limit:
        return 0.0
    high = max(guess_kg * 1.3, 2.0)
    at_high = used(high)
    while at_high <= limit:
        low, at_low = high, at_high
        if high >= _MOST_KG:
            return _MOST_KG
        high = min(high * 2, _MOST_KG)
        at_high = used(high)
    for _ in range(_TRIES):
        if high - low <= _CLOSE_KG:
            break
        share = (limit - at_low) / (at_high - at_low)
        kg = low + (high - low) * min(max(share, 0.05), 0.95)
        at_kg = used(kg)
        low, at_low, high, at_high = (
            (kg, at_kg, high, at_high) if at_kg <= limit else (low, at_low, kg, at_kg)
        )
    return low
