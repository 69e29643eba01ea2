"""What one request shows of the saw, the shop and the days.

Worked out once, and only as far as it is looked at.
"""

from functools import cached_property
from typing import NamedTuple

from django.utils.safestring import SafeString
from django.utils.timezone import localtime

from bench.drawing import cutting
from bench.drawing.exploded import exploded
from bench.words import say, worded
from bench.workbench.context import WorkbenchContext
from trade import data
from trade.cutting.board_measure import BoardMeasure, board_measures
from trade.cutting.order import Order, order_of
from trade.cutting.parts import CutPart, Labelled, labelled
from trade.cutting.plan import (
    BoardJob,
    CutPlan,
    Progress,
    SheetJob,
    cut_order,
    progress,
    source_words,
)
from trade.cutting.shopping import Shopping, shopping_of
from trade.job.days import Schedule, schedule_of
from trade.language import counted
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


class OfPiece(NamedTuple):
    """Parts of one piece, alike ones together; its body taken apart, where it is made.

    `wall`: the name of its wall, where there are several.
    """

    name: str
    wall: str
    kinds: list[list[CutPart]]
    body: SafeString | str


class Cutting:
    """The saw's plan of a wall, or of all walls of a job, and what follows from it."""

    def __init__(self, order: Order) -> None:
        """Work nothing out yet."""
        self.order, self._units = order, order.units

    @cached_property
    def progress(self) -> Progress:
        """How far it is worked out: all the way, but for plans that are large and new."""
        return progress(self.order, 0.0, 0 if self.order.many > _MANY else _ALL)

    def go_on(self) -> None:
        """Work on it for a moment."""
        progress(self.order, _MOMENT_S)

    @cached_property
    def plan(self) -> CutPlan:
        """What is cut out of what."""
        return cut_order(self.order)

    @cached_property
    def shopping(self) -> Shopping:
        """What to buy."""
        return shopping_of(self.order, self.plan)

    @cached_property
    def schedule(self) -> Schedule:
        """When it is done."""
        return schedule_of(self.order, self.plan, localtime().replace(tzinfo=None))

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

    @property
    def by_measure(self) -> tuple[BoardMeasure, ...]:
        """What to ask a sawmill for."""
        sawn = [part for job in self.plan.boards for part in job.parts]
        return board_measures([*sawn, *self.plan.made_up, *self.plan.no_stock], self._units)

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
    def by_piece(self) -> list[OfPiece]:
        """Parts piece by piece."""
        found: dict[tuple[int, str, str], dict[tuple[object, ...], list[CutPart]]] = {}
        for part in self.plan.parts:
            alike = (part.name, part.length_mm, part.width_mm, part.thick_mm, part.detail)
            whose = (part.wall, part.key, part.piece)
            found.setdefault(whose, {}).setdefault(alike, []).append(part)
        drawn = {(n, key): exploded(name, boards) for n, key, name, boards in self._made}
        return [
            OfPiece(name, self._wall(wall), list(alike.values()), drawn.get((wall, key), ""))
            for (wall, key, name), alike in found.items()
        ]

    def _wall(self, n: int) -> str:
        return self.order.walls[n - 1].name if n else ""

    @cached_property
    def bodies(self) -> list[tuple[str, list[Labelled]]]:
        """Bodies that are made: the name of each piece, and its boards by their labels."""
        return [(name, boards) for *_, name, boards in self._made]

    @cached_property
    def _made(self) -> list[tuple[int, str, str, list[Labelled]]]:
        """The same, each with its wall's number and its piece's key."""
        several = len(self.order.walls) > 1
        found = (
            (n, piece.key, piece.name, labelled(self.plan.parts, piece, n))
            for n, plan in enumerate(self.order.walls, start=1 if several else 0)
            for piece, _ in each_waiting(plan)
        )
        return [each for each in found if each[-1]]

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


def cutting_of(bench: WorkbenchContext) -> Cutting:
    """Return the cutting plan of the wall."""
    return bench.once(_worked_out)


def _worked_out(bench: WorkbenchContext) -> Cutting:
    return Cutting(order_of(bench.plan)._replace(units=bench.units))
