"""Where an anchor sits."""

from typing import NamedTuple

from trade import data

FAR_MM = 1e6
CORE_SHARE = data.house("core_share")


class Substrate(NamedTuple):
    """Where an anchor sits: what holds it there and what is near.

    `base`: key of a lining or a structure; `hollow`: in a lining with a cavity behind; `gap_mm`:
    soft layers before what holds; `apart_mm`: to the next screw of the same hardware below and
    above; `beside_mm`: to the same piece's next support to the left and to the right; `edge_mm`: to
    the nearest opening; `spoiled_mm`: to the nearest old hole.
    """

    base: str
    hollow: bool
    gap_mm: float
    apart_mm: tuple[float, float]
    edge_mm: float
    spoiled_mm: float = FAR_MM
    beside_mm: tuple[float, float] = (FAR_MM, FAR_MM)
