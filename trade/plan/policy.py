"""A job's policy: where people disagree, which school is followed, and what is at hand.

Every question is a row of its table.
"""

from typing import Literal

from trade import data
from trade.errors import PlanError
from trade.measure import IN_MM, Units
from trade.plan.item import PlanItem, between, known

_MOST_MONEY = 100_000.0


def trusts(policy: "Policy", kind: str) -> bool:
    """Whether a policy trusts a class of anchor in a lining: a row's `kind`, or "packet"."""
    if policy.hollow == "toggles":
        return kind in ("toggle", "channel", "packet")
    return policy.hollow == "any" or kind != "plug"


class Policy(PlanItem, frozen=True, kw_only=True, cache_hash=True):
    """How a job is done. Fields named like a row of the policies table hold one of its schools.

    `hidden`: nothing may show of what holds; `comes_off`: it must leave no more than screw holes;
    `most_holes`, `budget` (in the prices' money): for one piece, null for any; `lacks`: tools that
    are not at hand; `shift_mm`, `grow_mm`: how far a piece may be moved along the wall, and how
    much longer or shorter it may become, to meet the studs; `kerf_mm`: what the saw takes,
    `trim_mm`: what is cut off the edges of boards and sheets first.
    """

    anchors: Literal["studs_only", "studs_first", "anchors_light"] = "studs_first"
    hollow: Literal["any", "no_plugs", "toggles"] = "no_plugs"
    plates: Literal["let_in", "over"] = "let_in"
    stays: Literal["friction", "locked", "glued"] = "locked"
    made: Literal["either", "bought", "shop"] = "either"
    lead_holes: Literal["every", "needed"] = "every"
    level: Literal["bubble", "eye"] = "bubble"
    minds: Literal["little", "usual", "much"] = "usual"
    matters: Literal["balanced", "margin", "holes", "cost", "time", "off", "seen"] = "balanced"
    hidden: bool = False
    comes_off: bool = False
    most_holes: int | None = None
    budget: float | None = None
    lacks: tuple[str, ...] = ()
    shift_mm: float = 210.0  # half way from stud to stud at 16 in
    grow_mm: float = 210.0
    kerf_mm: float = 3.2
    trim_mm: float = 6.0

    def __post_init__(self) -> None:
        """Refuse tools that nobody knows, and nonsense in numbers."""
        for tool in self.lacks:
            known(data.tools(), tool, "tool", "lacks")
        between(self.shift_mm, 0, 5000, "shift_mm", "How far it may be moved")
        between(self.grow_mm, 0, 5000, "grow_mm", "How much longer it may become")
        if not 0 < self.kerf_mm <= 20:
            raise PlanError("The saw kerf must be more than 0 and at most 20 mm.", "kerf_mm")
        between(self.trim_mm, 0, 100, "trim_mm", "What is trimmed off")
        if self.most_holes is not None and not 0 <= self.most_holes <= 1000:
            raise PlanError("Holes must be between 0 and 1 000.", "most_holes")
        if self.budget is not None and not 0 <= self.budget <= _MOST_MONEY:
            raise PlanError("The budget must be between 0 and 100 000.", "budget")


def usual(units: Units) -> Policy:
    """Return how a job is done where nobody said otherwise, in sizes that people read there."""
    return Policy(kerf_mm=IN_MM / 8, trim_mm=IN_MM / 4) if units == "imperial" else Policy()
