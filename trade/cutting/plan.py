"""What to saw for a wall.

Every part, out of what is at hand and what is sold, with the cuts of each board and sheet.
"""

from collections import Counter
from collections.abc import Sequence
from time import monotonic
from typing import NamedTuple

from trade.cutting.glue_up import made_up
from trade.cutting.order import Order, order_of
from trade.cutting.parts import CutPart
from trade.cutting.sheets import Cut
from trade.cutting.stock import (
    BoardJob,
    Group,
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
from trade.mounts.work import Bored, GluedUp, Row
from trade.plan.model import Plan
from trade.plan.shop import OnHand

__all__ = [
    "BoardJob",
    "CutPlan",
    "Progress",
    "SheetJob",
    "Source",
    "cut_order",
    "cut_plan",
    "progress",
    "source_words",
]


class CutPlan(NamedTuple):
    """All of it.

    `bought`: what is bought ready, one of each, with how many; `no_stock`: parts of no size that
    there is; `made_up`: parts that are glued up or planed down of what there is.
    """

    boards: tuple[BoardJob, ...]
    sheets: tuple[SheetJob, ...]
    bought: tuple[tuple[Part, int], ...]
    no_stock: tuple[CutPart, ...]
    made_up: tuple[CutPart, ...] = ()

    @property
    def cost(self) -> float:
        """What boards and sheets cost, roughly."""
        return sum(job.plan.cost for job in self.boards) + sum(job.plan.cost for job in self.sheets)

    @property
    def parts(self) -> list[CutPart]:
        """Every part, by its label; the boards that one is made up of are in that."""
        found = [part for job in self.boards for part in job.parts] + [
            p for job in self.sheets for p in job.parts.values()
        ]
        found = [part for part in found if not part.of]
        return sorted(
            [*found, *self.made_up, *self.no_stock], key=lambda part: (len(part.label), part.label)
        )

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
    def glue_lines(self) -> int:
        """How many lines of glue its parts are glued up with."""
        works = (work for part in self.made_up for work in part.detail.works)
        return sum(work.lines for work in works if isinstance(work, GluedUp))

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
    return cut_order(order_of(plan))


def cut_order(order: Order) -> CutPlan:
    """Return how to cut all that is cut together, stock at hand first."""
    parts, yard = order.parts, _yard(order)
    groups, none, made = _groups(yard, parts.cut)
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
    return CutPlan(tuple(boards), tuple(sheets), tuple(parts.bought.items()), tuple(none), made)


def progress(order: Order, seconds: float, least: int = 1) -> Progress:
    """Work on the cutting for a while.

    What was worked out is remembered, so that asking again goes on from there.

    Args:
        order: what is cut together.
        seconds: how long; a group that was begun is finished.
        least: so many groups are worked out however long they take.
    """
    until, yard = monotonic() + seconds, _yard(order)
    groups, _, _ = _groups(yard, order.parts.cut)
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


def _groups(
    yard: StockAllocation, parts: Sequence[CutPart]
) -> tuple[list[Group], list[CutPart], tuple[CutPart, ...]]:
    """Return parts by what they are cut from, those of no size, and those that are made up."""
    groups, none = yard.groups(parts)
    usual, rest = yard.sold[: yard.usual], yard.sold[yard.usual :]
    tried = (made_up(part, usual) or made_up(part, rest) for part in none)
    made = [each for each in tried if each is not None]
    if not made:
        return groups, none, ()
    left = {part.label for part in none}
    strips = [strip for each in made for strip in each.strips]
    groups, none = yard.groups([*(part for part in parts if part.label not in left), *strips])
    done = {each.part.label for each in made} - {strip.of for strip in none}
    lost = [part for part in parts if part.label in left - done]
    groups = [group._replace(parts=_kept(group, done)) for group in groups]
    whole = tuple(each.part for each in made if each.part.label in done)
    return [group for group in groups if group.parts], lost, whole


def _kept(group: Group, done: set[str]) -> tuple[CutPart, ...]:
    """Return the parts of a group but for boards of what can't be made up after all."""
    return tuple(part for part in group.parts if not part.of or part.of in done)


def _yard(order: Order) -> StockAllocation:
    return StockAllocation(order.shop, order.units, order.kerf_mm, order.trim_mm)


def cut_line(cut: Cut, units: Units) -> str:
    """One cut of a sheet, as it is set at the saw."""
    return compose(
        "rip at {setting} from that piece's lower edge"
        if cut.way == "rip"
        else "crosscut at {setting} from that piece's left edge",
        setting=say_length(cut.setting_mm, units),
    )
