"""What to saw for a wall.

Every part, out of what is at hand and what is sold, with the cuts of each board and sheet.
"""

from collections import Counter
from time import monotonic
from typing import NamedTuple

from trade.cutting.parts import CutPart, parts_of
from trade.cutting.sheets import Cut
from trade.cutting.stock import (
    BoardJob,
    SheetJob,
    Source,
    StockAllocation,
    ends,
    left_of,
    source_words,
    used,
)
from trade.errors import PlanError
from trade.language import compose
from trade.measure import Units, say_length
from trade.mounts.base import Part
from trade.mounts.work import Bored, Row
from trade.plan.model import Plan
from trade.plan.shop import OnHand

__all__ = [
    "BoardJob",
    "CutPlan",
    "Progress",
    "SheetJob",
    "Source",
    "cut_plan",
    "progress",
    "source_words",
]


class CutPlan(NamedTuple):
    """All of it.

    `bought`: what is bought ready, one of each, with how many; `no_stock`: parts of no size that
    there is.
    """

    boards: tuple[BoardJob, ...]
    sheets: tuple[SheetJob, ...]
    bought: tuple[tuple[Part, int], ...]
    no_stock: tuple[CutPart, ...]

    @property
    def cost(self) -> float:
        """What boards and sheets cost, roughly."""
        return sum(job.plan.cost for job in self.boards) + sum(job.plan.cost for job in self.sheets)

    @property
    def parts(self) -> list[CutPart]:
        """Every part that is cut, by its label."""
        found = [part for job in self.boards for part in job.parts] + [
            p for job in self.sheets for p in job.parts.values()
        ]
        return sorted([*found, *self.no_stock], key=lambda part: (len(part.label), part.label))

    @property
    def cuts(self) -> int:
        """How many cuts the saw makes."""
        return sum(len(row) for job in self.boards for _, row in job.layout) + sum(
            len(sheet.cuts) for job in self.sheets for sheet in job.plan.sheets
        )

    @property
    def bores(self) -> list[Bored | Row]:
        """All that is bored in its parts; once, what is bored once in a body for several."""
        found: dict[object, Bored | Row] = {}
        for part in self.parts:
            for work in part.detail.works:
                if isinstance(work, Bored | Row):
                    once = isinstance(work, Row) and work.once
                    found[(part.key, work) if once else (part.label, work)] = work
        return list(found.values())

    @property
    def at_hand(self) -> Counter[int]:
        """How many of each board at hand are used, by its number."""
        found = Counter[int]()
        for job in self.boards:
            found.update(used(job.stock, (n for n, _ in job.layout)))
        for sheets in self.sheets:
            found.update(used(sheets.stock, (sheet.blank for sheet in sheets.plan.sheets)))
        return found

    @property
    def offcuts(self) -> tuple[OnHand, ...]:
        """What is left over and good for something, the largest first."""
        found = [end for job in self.boards for end in ends(job)]
        for job in self.sheets:
            for sheet in job.plan.sheets:
                source = job.stock[sheet.blank]
                found += [
                    left_of(source, "sheet", offcut.wide_mm, offcut.high_mm)
                    for offcut in sheet.offcuts
                    if offcut.worth_keeping
                ]
        return tuple(sorted(found, key=lambda each: -each.length_mm * each.width_mm))


class Progress(NamedTuple):
    """How many groups of parts are cut, of how many."""

    done: int
    of: int

    @property
    def ready(self) -> bool:
        """Whether nothing is left to be worked out."""
        return self.done == self.of


def cut_plan(plan: Plan) -> CutPlan:
    """Return how to cut all a wall needs, stock at hand first.

    Kerf and trim come from the job's policy.
    """
    parts, yard = parts_of(plan), _yard(plan)
    groups, none = yard.groups(parts.cut)
    boards: list[BoardJob] = []
    sheets: list[SheetJob] = []
    for group in groups:
        try:
            job = yard.solve(group)
        except PlanError:  # of what is only at hand there is too little
            none += group.parts
            continue
        if isinstance(job, SheetJob):
            sheets.append(job)
        elif job is not None:
            boards.append(job)
    return CutPlan(tuple(boards), tuple(sheets), tuple(parts.bought.items()), tuple(none))


def progress(plan: Plan, seconds: float, least: int = 1) -> Progress:
    """Work on a plan for a while.

    What was worked out is remembered, so that asking again goes on from there.

    Args:
        plan: the wall.
        seconds: how long; a group that was begun is finished.
        least: so many groups are worked out however long they take.
    """
    until, yard = monotonic() + seconds, _yard(plan)
    groups, _ = yard.groups(parts_of(plan).cut)
    for n, group in enumerate(groups):
        try:
            if yard.solve(group, patient=False) is None:
                if least <= 0 and monotonic() >= until:
                    return Progress(n, len(groups))
                yard.solve(group)
                least -= 1
        except PlanError:
            continue
    return Progress(len(groups), len(groups))


def _yard(plan: Plan) -> StockAllocation:
    return StockAllocation(plan.shop, plan.units, plan.policy.kerf_mm, plan.policy.trim_mm)


def cut_line(cut: Cut, units: Units) -> str:
    """One cut of a sheet, as it is set at the saw."""
    return compose(
        "rip at {setting} from that piece's lower edge"
        if cut.way == "rip"
        else "crosscut at {setting} from that piece's left edge",
        setting=say_length(cut.setting_mm, units),
    )
