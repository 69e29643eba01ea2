"""Who must lift it: the revised NIOSH lifting equation (Waters et al.

1993; NIOSH 94-110), metric form.
"""

from math import ceil
from typing import NamedTuple

from trade import data

LOAD_CONSTANT_KG = 23.0
_HANDS_LOW_MM = data.house("lift_low_mm")
_ONCE = data.house("lift_once")
_BODY_MM = (
    250.0  # H = 25 cm + half the depth, where nothing else is known (NIOSH 94-110, section 1.3)
)
_LEAST_MM, _FURTHEST_MM = 250.0, 630.0


def recommended_kg(
    out_mm: float, height_mm: float, travel_mm: float, coupling: float = 0.95
) -> float:
    """Recommended weight limit of one person for a single lift straight ahead.

    LC × HM × VM × DM × CM: 23 × (25/H) × (1 - 0.003 |V - 75|) × (0.82 + 4.5/D) × CM, in cm; nought
    beyond reach.

    Args:
        out_mm: hands from the ankles, level.
        height_mm: hands above the floor, where the lift is hardest.
        travel_mm: how far up it goes.
        coupling: 1.0 with good handles, 0.95 fair, 0.90 poor.
    """
    h, v, d = max(out_mm, _LEAST_MM) / 10, height_mm / 10, max(travel_mm, 250.0) / 10
    if h > _FURTHEST_MM / 10 or v > 175:
        return 0.0
    return (
        LOAD_CONSTANT_KG
        * (25 / h)
        * (1 - 0.003 * abs(v - 75))
        * min(0.82 + 4.5 / d, 1.0)
        * coupling
    )


class Lift(NamedTuple):
    """How many must lift a piece, and what the equation recommends for one, kg.

    4 stands for four or a hoist.
    """

    people: int
    limit_kg: float


def lift(mass_kg: float, depth_mm: float, top_mm: float) -> Lift:
    """Who must lift a piece from the floor to its place, each with an even part.

    The limit is the lower of those at the floor and at its place; beyond 175 cm from a step, as at
    175 cm. It is meant for lifting all day: for one lift each may take twice of it (house rule;
    beyond three times nobody should).
    """
    out, up = _BODY_MM + depth_mm / 2, min(max(top_mm - 100.0, _HANDS_LOW_MM), 1750.0)
    travel = up - _HANDS_LOW_MM
    limit = min(recommended_kg(out, _HANDS_LOW_MM, travel), recommended_kg(out, up, travel))
    return Lift(min(max(ceil(mass_kg / (_ONCE * limit) - 1e-9), 1), 4) if limit > 0 else 4, limit)
