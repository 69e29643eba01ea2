"""What readings amount to: the results of the survey."""

from typing import NamedTuple

from trade import data
from trade.language import word

STUDS = (word("single"), word("double"))
OTHERS = (word("pipe"), word("cable"), word("patch"))


class Found(NamedTuple):
    """Something that may stand there.

    Where its centre is, with the interval that holds it with 95 %, and how likely.

    `kind`: single or double (studs), pipe, cable, patch. `by_opening`: beside a door or a window.
    `reasons`: in words.
    """

    kind: str
    centre_mm: float
    low_mm: float
    high_mm: float
    width_mm: float
    probability: float
    by_opening: bool = False
    reasons: tuple[str, ...] = ()

    @property
    def reach_mm(self) -> float:
        """Half the interval."""
        return (self.high_mm - self.low_mm) / 2

    @property
    def confidence(self) -> str:
        """certain, likely or doubtful."""
        narrow = self.high_mm - self.low_mm <= data.house("certain_within_mm")
        if self.probability >= data.house("certain_from") and narrow:
            return word("certain")
        likely = self.probability >= data.house("likely_from")
        return word("likely") if likely else word("doubtful")


class Grid(NamedTuple):
    """The likeliest grid.

    Spacing, its first line from the corner, and how likely that spacing is among all.
    """

    spacing_mm: float
    first_mm: float
    probability: float


class Inference(NamedTuple):
    """What the readings amount to.

    `studs` from left to right; `others`: pipes, cables, patches; `rejected`: readings that no
    accepted object explains, by index, with the reason; `ask_mm`: the place where a probe would
    help most, None when it would not help.
    """

    studs: tuple[Found, ...] = ()
    others: tuple[Found, ...] = ()
    grid: Grid | None = None
    rejected: tuple[tuple[int, str], ...] = ()
    ask_mm: float | None = None
