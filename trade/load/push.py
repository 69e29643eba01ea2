"""Whose push: the accidental force on a piece, by its use and by what somebody can do there."""

from typing import NamedTuple

from trade import data
from trade.data.rows import PushClass
from trade.measure import G_N_PER_KG
from trade.plan.model import Piece

_BODIES = ("sitting", "climbable")


class Push(NamedTuple):
    """The accidental force, N, and the class of it."""

    n: float
    row: PushClass


def push_of(piece: Piece) -> Push:
    """Return the accidental force on a piece, at the worst place of its front edge."""
    most, rows = data.uses()[piece.use].push_n, data.pushes()
    if piece.use in _BODIES:
        return Push(most, rows["body"])
    if piece.tugged:
        tug = rows["tug"]
        return Push(min(max(tug.share * heaviest_n(piece), tug.least_n), most), tug)
    beyond = piece.top_mm - piece.high_mm > data.house("reach_mm") or piece.depth_mm < data.house(
        "lean_depth_mm"
    )
    row = rows["finger" if beyond else "lean"]
    return Push(most * row.share, row)


def heaviest_n(piece: Piece) -> float:
    """Return the heaviest thing on one hook.

    Of things that hang side by side, what hangs within one hand's reach.
    """
    near = min(data.house("hand_wide_mm") / piece.length_mm, 1.0)
    return G_N_PER_KG * max(
        ((thing.mass_kg or 0.0) * (near if thing.at_mm is None else 1.0) for thing in piece.things),
        default=0.0,
    )
