"""Parts that bend together side by side, each about its own middle.

They share the bending moment as their stiffnesses.
"""

from collections.abc import Sequence
from typing import NamedTuple


class Component(NamedTuple):
    """A rectangle that bends.

    Modulus of elasticity, MPa; width and height, mm; creep factor (EN 1995-1-1 Table 3.2).

    `wall_mm`: of a tube; 0 where it is solid.
    """

    e_mpa: float
    wide_mm: float
    high_mm: float
    k_def: float = 0.0
    wall_mm: float = 0.0

    @property
    def _hole(self) -> tuple[float, float]:
        if not self.wall_mm:
            return 0.0, 0.0
        return max(self.wide_mm - 2 * self.wall_mm, 0.0), max(self.high_mm - 2 * self.wall_mm, 0.0)

    @property
    def area_mm2(self) -> float:
        """Its section."""
        wide, high = self._hole
        return self.wide_mm * self.high_mm - wide * high

    @property
    def inertia_mm4(self) -> float:
        """Second moment of area about its own middle, mm4: b h³ / 12, less the hollow's."""
        wide, high = self._hole
        return (self.wide_mm * self.high_mm**3 - wide * high**3) / 12

    @property
    def ei_nmm2(self) -> float:
        """Bending stiffness on the first day."""
        return self.e_mpa * self.inertia_mm4


def ei_nmm2(parts: Sequence[Component], creep: float = 0.0) -> float:
    """Bending stiffness of all.

    With so much of its creep each part's is divided by 1 + creep k_def (EN 1995-1-1 2.3.2.2).
    """
    return sum(part.ei_nmm2 / (1 + creep * part.k_def) for part in parts)


def stress_mpa(moment_nmm: float, part: Component, parts: Sequence[Component]) -> float:
    """Bending stress at the edge of one part under a moment on all.

    Its share of the moment over its section modulus.
    """
    return moment_nmm * part.e_mpa / ei_nmm2(parts) * part.high_mm / 2
