"""What one request shows of the saw, the shop and the days.

Worked out once, and only as far as it is looked at.
"""

from functools import cached_property
from typing import Any, NamedTuple

from django.utils.safestring import SafeString
from django.utils.timezone import localtime

from bench.access import walls
from bench.drawing import cutting
from bench.drawing.exploded import exploded
from bench.models import Offcut
from bench.words import say, worded
from bench.workbench.context import WorkbenchContext
from trade import data
from trade.cutting.parts import CutPart, Labelled, count_parts, labelled
from trade.cutting.plan import (
    BoardJob,
    CutPlan,
    Progress,
    SheetJob,
    cut_plan,
    progress,
    source_words,
)
from trade.cutting.shopping import Shopping, shopping
from trade.job.days import Schedule, schedule
from trade.language import counted
from trade.measure import Units
from trade.plan.model import Plan
from trade.plan.place import each_waiting

_MANY, _ALL = 60, 1000  # parts that are cut while one waits; any number of groups
_MOMENT_S = 0.4


class Boards(NamedTuple):
    """Boards of one width: what they are called, and each drawn."""

    job: BoardJob
    name: str
    drawings: list[tuple[str, SafeString]]


class Sheets(NamedTuple):
    """Sheets of one kind, each drawn."""

    job: SheetJob
    name: str
    drawings: list[tuple[str, SafeString]]


class Cutting:
    """The saw's plan of a wall and what follows from it."""

    def __init__(self, wall: int, plan: Plan, units: Units, walls: Any) -> None:
        """Work nothing out yet. `walls`: whose offcuts may be taken."""
        self._wall, self._plan, self._units, self._walls = wall, plan, units, walls

    @cached_property
    def progress(self) -> Progress:
        """How far it is worked out: all the way, but for plans that are large and new."""
        return progress(self._plan, 0.0, 0 if count_parts(self._plan) > _MANY else _ALL)

    def go_on(self) -> None:
        """Work on it for a moment."""
        progress(self._plan, _MOMENT_S)

    @cached_property
    def plan(self) -> CutPlan:
        """What is cut out of what."""
        return cut_plan(self._plan)

    @cached_property
    def shopping(self) -> Shopping:
        """What to buy."""
        return shopping(self._plan, self.plan, self._units)

    @cached_property
    def schedule(self) -> Schedule:
        """When it is done."""
        return schedule(self._plan, self.plan, localtime().replace(tzinfo=None))

    @cached_property
    def boards(self) -> list[Boards]:
        """Boards, drawn."""
        return [
            Boards(
                job,
                data.boards()[job.parts[0].board].name,
                [
                    (
                        say(source_words(job.stock[stock], self._units)),
                        cutting.board(job, n, self._units),
                    )
                    for n, (stock, _) in enumerate(job.layout)
                ],
            )
            for job in self.plan.boards
        ]

    @cached_property
    def sheets(self) -> list[Sheets]:
        """Sheets, drawn."""
        found = []
        for job in self.plan.sheets:
            part = next(iter(job.parts.values()))
            names = [source_words(job.stock[sheet.blank], self._units) for sheet in job.plan.sheets]
            drawings = [
                (
                    worded("{name}: sheet {n}", name=name, n=n + 1),
                    cutting.sheet(job, n, self._units),
                )
                for n, name in enumerate(names)
            ]
            found.append(Sheets(job, data.boards()[part.board].name, drawings))
        return found

    @cached_property
    def by_piece(self) -> list[tuple[str, list[list[CutPart]], SafeString | str]]:
        """Parts piece by piece, alike ones together, and its body taken apart where it is made."""
        found: dict[str, dict[tuple[object, ...], list[CutPart]]] = {}
        for part in self.plan.parts:
            alike = (part.name, part.length_mm, part.width_mm, part.thick_mm, part.detail)
            found.setdefault(part.piece, {}).setdefault(alike, []).append(part)
        return [
            (piece, list(alike.values()), self._drawn.get(piece, ""))
            for piece, alike in found.items()
        ]

    @cached_property
    def bodies(self) -> list[tuple[str, list[Labelled]]]:
        """Bodies that are made: the name of each piece, and its boards by their labels."""
        found = ((p.name, labelled(self.plan.parts, p)) for p, _ in each_waiting(self._plan))
        return [(name, boards) for name, boards in found if boards]

    @cached_property
    def _drawn(self) -> dict[str, SafeString]:
        return {name: exploded(name, boards) for name, boards in self.bodies}

    @cached_property
    def waiting(self) -> list[str]:
        """Labels of the parts that are measured before they are cut."""
        return [part.label for part in self.plan.parts if part.waits]

    @cached_property
    def hours(self) -> str:
        """What all of it takes, hands on."""
        minutes = self.schedule.minutes
        return (
            counted(round(minutes / 60), "{n} hour", "{n} hours")
            if minutes >= 90
            else counted(round(minutes), "{n} minute", "{n} minutes")
        )

    @cached_property
    def holes(self) -> int:
        """How many holes are bored in the parts."""
        return sum(work.holes for work in self.plan.bores)

    @cached_property
    def thicknesses(self) -> list[tuple[str, float]]:
        """Each wood that parts are of, by its row and the thickness that the plan has."""
        return list(
            dict.fromkeys((part.board, part.thick_mm) for part in self.plan.parts if part.key)
        )

    @cached_property
    def rack(self) -> list[Offcut]:
        """What lies on the rack of other walls, of woods that this one uses."""
        boards = {part.board for part in self.plan.parts}
        found = Offcut.objects.filter(taken=None, board__in=boards, wall__in=self._walls).exclude(
            wall=self._wall
        )
        return list(found.select_related("wall")[:40])


def cutting_of(bench: WorkbenchContext) -> Cutting:
    """Return the cutting plan of the wall, with offcuts of the visitor's other walls."""
    return bench.once(_made)


def _made(bench: WorkbenchContext) -> Cutting:
    return Cutting(bench.wall.pk, bench.plan, bench.units, walls(bench.request))
