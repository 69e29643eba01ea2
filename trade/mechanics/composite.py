"""Parts that bend together side by side, each about its own middle: they share the bending moment as their stiffnesses."""

from collections.abc import Sequence
from typing import NamedTuple


class Part(NamedTuple):
    """A rectangle that bends: modulus of elasticity, MPa; width and height, mm; creep factor (EN 1995-1-1 Table 3.2)."""

    e_mpa: float
    wide_mm: float
    high_mm: float
    k_def: float = 0.0

    @property
    def inertia_mm4(self) -> float:
        """Second moment of area about its own middle, b h³ / 12."""
        return self.wide_mm * self.high_mm**3 / 12

    @property
    def ei_nmm2(self) -> float:
        """Bending stiffness on the first day."""
        return self.e_mpa * self.inertia_mm4


def ei_nmm2(parts: Sequence[Part], creep: bool = False) -> float:
    """Bending stiffness of all; after the years each part's is divided by 1 + k_def (EN 1995-1-1 2.3.2.2)."""
    return sum(part.ei_nmm2 / (1 + part.k_def if creep else 1.0) for part in parts)


def stress_mpa(moment_nmm: float, part: Part, parts: Sequence[Part]) -> float:
    """Bending stress at the edge of one part under a moment on all: its share of the moment over its section modulus."""
    return moment_nmm * part.e_mpa / ei_nmm2(parts) * part.high_mm / 2
