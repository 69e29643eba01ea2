"""Hanging as a stage of the workbench: the steps of a piece and where it stands."""

from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from functools import cached_property

from django.utils import timezone
from django.utils.translation import gettext as _

from bench.drawing import elevation
from bench.drawing.scale import Scale
from bench.words import lazy, worded
from bench.workbench.context import Note, Stage, WorkbenchContext
from bench.workbench.offers import offered_cures
from trade.choose.cures import Cure
from trade.choose.findings import Finding, findings
from trade.job.step import Step
from trade.job.steps import steps
from trade.mounts import mount_of
from trade.mounts.existing_holes import as_mounted

WIDE_PX, HIGH_PX = 390.0, 280.0  # of the drawing at the wall
_AROUND_PX = 48.0
_MOST_PX = 0.6


class AtWall:
    """A piece on its way up: its steps, where one is, and what is in the way."""

    def __init__(
        self,
        bench: WorkbenchContext,
        asked: str = "",
        after: str = "",
        typed: Mapping[str, str] | None = None,
    ) -> None:
        """Make the step that was asked for.

        Else the first that is not done, behind the one that was just told if there is any. What was
        typed there and refused stays in its fields.
        """
        self.bench, self.piece, self.typed = bench, bench.chosen, typed or {}
        self.steps = steps(bench.plan, self.piece.key, bench.units)
        self._asked, self._after = asked, after

    @property
    def seen(self) -> int:
        """Return the key of the revision that the page shows."""
        return self.bench.wall.seen

    @cached_property
    def at(self) -> int:
        """The number of the step that is shown."""
        keys = [step.key for step in self.steps]
        if self._asked in keys:
            return keys.index(self._asked)
        behind = keys.index(self._after) + 1 if self._after in keys else 0
        waiting = [n for n, step in enumerate(self.steps) if not step.done]
        return next(
            (n for n in waiting if n >= behind), waiting[0] if waiting else len(self.steps) - 1
        )

    @property
    def step(self) -> Step:
        """The one that is shown."""
        return self.steps[self.at]

    @property
    def done(self) -> int:
        """How many are done."""
        return sum(step.done for step in self.steps)

    @property
    def finished(self) -> bool:
        """Whether it hangs."""
        return self.done == len(self.steps)

    @property
    def places_mm(self) -> tuple[float, ...]:
        """Where what carries the piece is: as measured, else as planned."""
        return as_mounted(self.piece, self.bench.plan.as_built).supports_mm

    @property
    def fails(self) -> bool:
        """Whether one must not go on drilling."""
        verdict = self.bench.piece_verdict
        return verdict is not None and verdict.fails

    @cached_property
    def cures(self) -> Sequence[tuple[str, Cure]]:
        """What would mend it, with what is drilled already."""
        return offered_cures(self.bench.plan, self.piece.key) if self.fails else ()

    @cached_property
    def findings(self) -> Sequence[Finding]:
        """What to find out first."""
        return findings(self.bench.plan, self.piece.key) if self.fails else ()

    def until(self, step: Step) -> datetime | None:
        """When what a step waits for is over; None where it does not wait, or was not done yet."""
        when = next(
            (
                d.at
                for d in self.bench.plan.as_built.done
                if (d.piece, d.step) == (self.piece.key, step.key)
            ),
            None,
        )
        return (
            when + timedelta(hours=step.wait_hours)
            if when is not None and step.wait_hours
            else None
        )

    @property
    def waits(self) -> list[tuple[Step, datetime]]:
        """Steps that are done and must set or dry yet."""
        found = [(step, until) for step in self.steps if (until := self.until(step)) is not None]
        return [(step, until) for step, until in found if until > timezone.now()]

    @cached_property
    def sheet(self) -> elevation.Sheet:
        """The piece with some wall around it, as large as it goes."""
        bench, box = self.bench, mount_of(self.piece).box(self.piece)
        px = min(
            (WIDE_PX - 2 * _AROUND_PX) / (box.right_mm - box.left_mm),
            (HIGH_PX - 2 * _AROUND_PX) / (box.top_mm - box.bottom_mm),
            _MOST_PX,
        )
        left = WIDE_PX / 2 - (box.left_mm + box.right_mm) / 2 * px
        floor = HIGH_PX / 2 + (box.bottom_mm + box.top_mm) / 2 * px
        return elevation.draw(
            bench.plan, bench.verdict, self.piece.key, "hang", bench.marks, Scale(px, left, floor)
        )


def _context(bench: WorkbenchContext) -> AtWall | None:
    bench.key = bench.piece.key if bench.piece else None
    return AtWall(bench) if bench.piece else None


def _note(bench: WorkbenchContext) -> Note:
    plan = bench.plan
    if not plan.pieces:
        return Note("waiting", _("nothing yet"))
    closed = {each.piece for each in plan.as_built.done if each.step == "close"}
    up = sum(piece.key in closed for piece in plan.pieces)
    if up == len(plan.pieces):
        return Note("done", _("all up"))
    begun = up or plan.as_built.done or plan.as_built.drilled
    return Note(
        "waiting", worded("{n} of {all} up", n=up, all=len(plan.pieces)) if begun else _("not yet")
    )


STAGE = Stage("hang", lazy("Hang"), note=_note, context=_context, for_helpers=True)
