"""What each device is asked.

A driver for a real one implements the same, and is named in the application's settings.
"""

from typing import Protocol

from trade.plan.readings import Knock, Probe, Reading


class Scanner(Protocol):
    """Finds edges behind a lining."""

    def sweep(self, from_mm: float, to_mm: float, height_mm: float) -> list[Reading]:
        """Draw it along; the sweep itself is the first reading."""


class Magnet(Protocol):
    """Finds the lining's screws."""

    def search(self, around_mm: float, height_mm: float) -> list[Reading]:
        """Move it about a place, a hand's width to either side."""


class Prober(Protocol):
    """A thin nail, and a knuckle."""

    def probe(self, at_mm: float, height_mm: float) -> Probe:
        """Push it in."""

    def knock(self, at_mm: float, height_mm: float) -> Knock:
        """Listen."""


class DistanceMeter(Protocol):
    """A laser distance meter, held against one side."""

    def across_mm(self, height_mm: float, out_mm: float) -> float:
        """From side wall to side wall, at a height, so far out from the wall."""

    def up_mm(self, at_mm: float) -> float:
        """From floor to ceiling."""


class CrossLine(Protocol):
    """A cross-line level on its stand: one level line, one plumb line."""

    def to_ceiling_mm(self, at_mm: float) -> float:
        """From the level line up to the ceiling."""

    def to_floor_mm(self, at_mm: float) -> float:
        """From the level line down to the floor."""

    def lean_mm(self, at_mm: float, low_mm: float, high_mm: float) -> float:
        """Return how much further out the wall's high place stands than the low one."""


class Scale(Protocol):
    """A luggage scale: what hangs on its hook."""

    def weigh(self, name: str) -> float | None:
        """Hang something on it, kg; None when it is too heavy for it.

        `name`: what a stand-in should make believe it is.
        """


class Devices(Scanner, Magnet, Prober, DistanceMeter, CrossLine, Scale, Protocol):
    """All that one wall is surveyed with."""


class Dial(Protocol):
    """A dial gauge on a stand, its foot on the floor, its tip under a front edge."""

    def read_mm(self, kg: float) -> float:
        """Return how far down the edge has moved since the dial was set up, under a load."""
