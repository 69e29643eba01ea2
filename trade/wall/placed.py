"""Readings in the order of their places, so that those near a place are found without going through all."""

from bisect import bisect_left, bisect_right
from collections.abc import Sequence

from trade.evidence import AtPlace, Reading, Sweep


class Placed:
    """Readings that have a place: all but sweeps."""

    def __init__(self, readings: Sequence[Reading]) -> None:
        """Put them in order."""
        found = sorted(((r.at_mm, i, r) for i, r in enumerate(readings) if not isinstance(r, Sweep)), key=lambda each: each[:2])
        self._at = [at for at, _, _ in found]
        self._found = [(i, r) for _, i, r in found]

    def near(self, at_mm: float, reach_mm: float) -> list[tuple[int, AtPlace]]:
        """Those no further away than that, from left to right, each with its number among all."""
        return self.between(at_mm - reach_mm, at_mm + reach_mm)

    def between(self, left_mm: float, right_mm: float) -> list[tuple[int, AtPlace]]:
        """Those between two places, these included."""
        return self._found[bisect_left(self._at, left_mm) : bisect_right(self._at, right_mm)]
