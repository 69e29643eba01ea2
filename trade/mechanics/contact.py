"""Fasteners that hold a rigid plate to a face it can only press on: the compression block.

The plate presses with the bearing stress that the face may take, over a block from its pressed edge
as deep as needed; the fasteners stretch in proportion to their distance from the block's resultant.
A soft face makes a deep block and a short lever.
"""

from math import sqrt
from typing import NamedTuple

from trade.memo import memoized


class PlateReaction(NamedTuple):
    """How a plate is held against a moment.

    `tension_n`: in the fastener pulled hardest; `tensions_n`: in each, in the order given;
    `block_mm`: depth of the pressed block; `lever_mm`: from the block's resultant to the fastener
    pulled hardest; `limit_nmm`: the moment at which the face gives way.
    """

    tension_n: float
    tensions_n: tuple[float, ...]
    block_mm: float
    lever_mm: float
    limit_nmm: float


@memoized(limit=4_096)
def solve_contact(
    moment_nmm: float, heights_mm: tuple[float, ...], face_n_per_mm: float, pull_n: float = 0.0
) -> PlateReaction | None:
    """Return the pulls that hold a moment and a pull straight out.

    Any set of pulls that is in equilibrium and over no limit is safe (lower bound theorem), so a
    fastener near the pressed edge is left out of the pull where counting it would only pull the
    others harder.

    Args:
        moment_nmm: overturning about the pressed edge, positive; pulls the fasteners far from that
          edge.
        heights_mm: of each fastener above the pressed edge, any order.
        face_n_per_mm: allowable bearing stress times pressed width.
        pull_n: net pull away from the face, which the moment already counts.

    Returns:
        The holding with the least greatest pull; None when the face gives way first, or nothing is
          there to pull.
    """
    if not heights_mm or face_n_per_mm <= 0:
        return None
    order = sorted(range(len(heights_mm)), key=heights_mm.__getitem__, reverse=True)
    ranked = [heights_mm[i] for i in order]
    limit = limit_moment(ranked[0], face_n_per_mm, pull_n)
    if moment_nmm <= 0:
        return PlateReaction(0.0, (0.0,) * len(ranked), 0.0, ranked[0], limit)
    if (free := _no_contact(moment_nmm, ranked, pull_n)) is not None:
        tensions = [0.0] * len(ranked)
        for i, tension in zip(order, free, strict=True):
            tensions[i] = tension
        return PlateReaction(max(free), tuple(tensions), 0.0, ranked[0], limit)
    best: tuple[float, int, float] | None = None
    for count in range(len(ranked), 0, -1):
        middle = _block_middle(moment_nmm, ranked[:count], face_n_per_mm, pull_n)
        if middle is None:
            continue
        squares = sum((y - middle) ** 2 for y in ranked[:count])
        most = (moment_nmm - pull_n * middle) * (ranked[0] - middle) / squares
        if best is not None and most >= best[0]:
            break  # leaving out more only makes it worse
        best = (most, count, middle)
        # the lowest one's own share outweighs what a shallower block could give: leaving it out
        # cannot help
        if ranked[count - 1] - middle > 2 * moment_nmm / (face_n_per_mm * (ranked[0] - middle)):
            break
    if best is None:
        return None
    most, count, middle = best
    lever = ranked[0] - middle
    tensions = [0.0] * len(ranked)
    for i in order[:count]:
        tensions[i] = most * (heights_mm[i] - middle) / lever
    return PlateReaction(most, tuple(tensions), 2 * middle, lever, limit)


def limit_moment(highest_mm: float, face_n_per_mm: float, pull_n: float = 0.0) -> float:
    """Return the greatest moment that can be answered, N mm.

    The block as deep as the highest fastener, and the pull at its height.
    """
    return face_n_per_mm * highest_mm**2 / 2 + pull_n * highest_mm


def _no_contact(moment: float, ranked: list[float], pull: float) -> list[float] | None:
    """Return pulls when the plate lifts off everywhere: about the fasteners' own middle.

    None when one of them would have to push.
    """
    if pull <= 0:
        return None
    n = len(ranked)
    mean = sum(ranked) / n
    squares = sum((y - mean) ** 2 for y in ranked)
    turning = moment - pull * mean
    if squares == 0:
        return [pull / n] * n if abs(turning) <= 1e-9 * max(moment, 1.0) else None
    found = [pull / n + turning * (y - mean) / squares for y in ranked]
    return found if min(found) >= 0 else None


def _block_middle(
    moment: float, heights: list[float], face: float, pull: float = 0.0
) -> float | None:
    """Return the height of the block's resultant, the smallest root of a cubic.

    (M - P c) (S1 - n c) = (2 f c + P) (S2 - 2 c S1 + n c^2).

    Newton from zero. None when the block would reach past the lowest of these fasteners, or the
    root is not real.
    """
    n, s1, s2 = len(heights), sum(heights), sum(y * y for y in heights)
    lowest = heights[-1]
    c = 0.0
    if moment > face * heights[0] ** 2 / 2 + pull * heights[0]:
        return None
    if n == 1:  # in closed form, so that there is an answer right up to the limit
        rest = moment - pull * s1
        return (s1 - sqrt(max(s1 * s1 - 2 * rest / face, 0.0))) / 2 if rest >= 0 else None
    for _ in range(40):
        value = (2 * face * c + pull) * (s2 - 2 * c * s1 + n * c * c) - (moment - pull * c) * (
            s1 - n * c
        )
        slope = (
            2 * face * (s2 - 4 * c * s1 + 3 * n * c * c)
            + pull * (n * c - s1)
            + (moment - pull * c) * n
        )
        if slope <= 0:
            return None
        step = value / slope
        c -= step
        if c < 0 or c >= lowest:
            return None
        if abs(step) < 1e-5 * (1 + c):  # what is left is of the order of its square
            return c
    return None


def rotation_stiffness(
    heights_mm: tuple[float, ...], screw_n_per_mm: float, face_n_per_mm2: float
) -> float:
    """Return the turning stiffness of the same plate while everything is still elastic.

    N mm per radian.

    The face is a bed of springs that only press, the fasteners springs that only pull: half f x^2 =
    k sum(y - x).

    Args:
        heights_mm: fasteners above the pressed edge.
        screw_n_per_mm: pull stiffness k of one fastener.
        face_n_per_mm2: bed stiffness times pressed width, f.
    """
    ranked = sorted(heights_mm, reverse=True)
    k, f = screw_n_per_mm, face_n_per_mm2
    if not ranked or k <= 0 or f <= 0:
        return 0.0
    x = 0.0
    for count in range(len(ranked), 0, -1):
        pulling = ranked[:count]
        x = (-count * k + ((count * k) ** 2 + 2 * f * k * sum(pulling)) ** 0.5) / f
        if x < pulling[-1] or count == 1:
            break
    return k * sum((y - x) ** 2 for y in ranked if y > x) + f * x**3 / 3
