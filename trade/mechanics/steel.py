"""Bending of solid steel sections."""

from math import pi
from typing import Literal

OMEGA = 1.67  # AISC 360 F1, allowable strength design
_MOST = {"round": 1.6, "rectangle": 1.5}  # of F_y S, AISC 360-22 F11-1, from memory
_PLASTIC = {
    "round": 32 / (6 * pi),
    "rectangle": 1.5,
}  # Z / S: d³/6 over π d³/32; b h²/4 over b h²/6


def solid_bending_mpa(yield_mpa: float, shape: Literal["round", "rectangle"]) -> float:
    """Return what the elastic bending stress M / S of a compact solid bar may be.

    M_n = F_y Z, but at most 1.6 F_y S for rounds and 1.5 F_y S for rectangles, over 1.67 (AISC 360
    F11, from memory).

    Args:
        yield_mpa: yield strength of the steel.
        shape: of the bar.
    """
    return yield_mpa * min(_PLASTIC[shape], _MOST[shape]) / OMEGA
