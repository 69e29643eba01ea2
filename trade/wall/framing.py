"""The framing that a door or a window implies.

Doubled uprights beside it, a header above, a sill and cripples below.
"""

from collections.abc import Iterable
from typing import Literal, NamedTuple

from trade import data
from trade.language import word
from trade.plan.features import Feature

STUD_MM = data.house("stud_mm")
SHIM_MM = data.house("shim_mm")
HEADER_MM = data.house("header_mm")
OFF_MM = data.house("uprights_off_mm")


class Member(NamedTuple):
    """A piece of framing to be expected: where, and what carpenters call it."""

    kind: Literal["king", "jack", "header", "sill"]
    left_mm: float
    right_mm: float
    bottom_mm: float
    top_mm: float


def jambs_mm(openings: Iterable[Feature]) -> tuple[float, ...]:
    """Centres of the doubled uprights (jack and king together) at both sides of each opening."""
    out = SHIM_MM + STUD_MM
    return tuple(x for o in openings for x in (o.left_mm - out, o.right_mm + out))


def members(openings: Iterable[Feature], width_mm: float, height_mm: float) -> tuple[Member, ...]:
    """Return what to expect about each opening.

    Cripples, short studs above and below, go on with the grid and are not named here.
    """
    found: list[Member] = []
    for o in openings:
        left = o.left_mm - SHIM_MM
        right = o.right_mm + SHIM_MM
        head = min(o.top_mm + SHIM_MM, height_mm)
        for jack, king in ((left - STUD_MM, left - 2 * STUD_MM), (right, right + STUD_MM)):
            found.append(Member(word("jack"), jack, jack + STUD_MM, 0.0, head))
            found.append(Member(word("king"), king, king + STUD_MM, 0.0, height_mm))
        found.append(
            Member(
                word("header"),
                left - STUD_MM,
                right + STUD_MM,
                head,
                min(head + HEADER_MM, height_mm),
            )
        )
        if o.bottom_mm > SHIM_MM + STUD_MM:
            found.append(
                Member(
                    word("sill"),
                    left,
                    right,
                    o.bottom_mm - SHIM_MM - STUD_MM,
                    o.bottom_mm - SHIM_MM,
                )
            )
    return tuple(m for m in found if m.right_mm > 0 and m.left_mm < width_mm)
