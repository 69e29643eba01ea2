"""An index of readings by place, to find those near a point without looking at all of them."""

from bisect import bisect_left, bisect_right
from collections.abc import Sequence

from trade.plan.readings import AtPlace, Reading, Sweep


class ReadingIndex:
    """Readings sorted by place. Sweeps are left out: they have no single place."""

    def __init__(self, readings: Sequence[Reading]) -> None:
        """Sort the readings; results refer to them by their number in `readings`."""
        found = sorted(
            ((r.at_mm, i, r) for i, r in enumerate(readings) if not isinstance(r, Sweep)),
            key=lambda each: each[:2],
        )
        self._places = [at for at, _, _ in found]
        self._numbered = [(i, r) for _, i, r in found]

    def near(self, at_mm: float, reach_mm: float) -> list[tuple[int, AtPlace]]:
        """Return (number, reading) of those within `reach_mm` of a place, from left to right."""
        return self.between(at_mm - reach_mm, at_mm + reach_mm)

    def between(self, left_mm: float, right_mm: float) -> list[tuple[int, AtPlace]]:
        """Return (number, reading) of those between two places, both included, in order."""
        return self._numbered[
            bisect_left(self._places, left_mm) : bisect_right(self._places, right_mm)
        ]
