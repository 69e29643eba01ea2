"""Where people measure from.

A corner, a named stud or the middle of the piece; the floor, or one level line.
"""

from typing import Literal

from trade.errors import PlanError
from trade.plan.item import PlanItem, between

Across = Literal["left", "right", "stud", "middle"]


class Datum(PlanItem, frozen=True, kw_only=True):
    """What marks are measured from.

    `across`: a corner of the wall, the stud whose centre is at `stud_mm`, or the middle of the
    piece; `line_mm`: height of the level line above the floor; null: from the floor, which runs
    off.
    """

    across: Across = "left"
    stud_mm: float | None = None
    line_mm: float | None = None

    def __post_init__(self) -> None:
        """Refuse a stud that is not named."""
        between(self.stud_mm, 0, 50_000, "stud_mm", "A stud's centre")
        between(self.line_mm, 1, 10_000, "line_mm", "A level line's height")
        if (self.across == "stud") != (self.stud_mm is not None):
            raise PlanError("Measure from which stud?", "stud_mm")
