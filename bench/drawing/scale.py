"""Where the wall lies on the sheet: one scale for everything on it."""

from typing import NamedTuple

from trade.plan.model import Wall

WIDTH, HEIGHT = 800.0, 500.0
TAPE = 20.0
_LEFT, _TOP, _RIGHT, _BOTTOM = TAPE + 14.0, TAPE + 12.0, 10.0, 8.0


class Scale(NamedTuple):
    """From the wall (mm, from left corner and floor) to the sheet (px, from its top left)."""

    px_per_mm: float
    left: float
    floor: float

    def x(self, mm: float) -> float:
        """Across."""
        return self.left + mm * self.px_per_mm

    def y(self, mm: float) -> float:
        """Up from the floor."""
        return self.floor - mm * self.px_per_mm

    def length(self, mm: float) -> float:
        """Return a size."""
        return mm * self.px_per_mm


def of_wall(wall: Wall) -> Scale:
    """Return the largest scale at which the whole wall fits the sheet.

    The wall in the middle of it.
    """
    width, height = WIDTH - _LEFT - _RIGHT, HEIGHT - _TOP - _BOTTOM
    px = min(width / wall.width_mm, height / wall.height_mm)
    left = _LEFT + (width - wall.width_mm * px) / 2
    return Scale(px, left, _TOP + wall.height_mm * px)
