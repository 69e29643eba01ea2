"""Bending of solid steel sections."""

from typing import Literal

from trade.calculation import Formula

OMEGA = 1.67  # AISC 360 F1, allowable strength design
# M_n / S over 1.67, with the shape's Z / S and the most that counts: AISC 360-22 F11-1, from memory
BENDING = {
    "round": Formula("min(32 / 6 π, 1.6) F_y / Ω"),  # d³/6 over π d³/32
    "rectangle": Formula("min(6 / 4, 1.5) F_y / Ω"),  # b h²/4 over b h²/6
}


def solid_bending_mpa(yield_mpa: float, shape: Literal["round", "rectangle"]) -> float:
    """Return what the elastic bending stress M / S of a compact solid bar may be.

    M_n = F_y Z, but at most 1.6 F_y S for rounds and 1.5 F_y S for rectangles, over 1.67 (AISC 360
    F11, from memory).

    Args:
        yield_mpa: yield strength of the steel.
        shape: of the bar.
    """
    return BENDING[shape].of({"F_y": yield_mpa, "Ω": OMEGA})
