"""Cutting as a stage of the workbench."""

from functools import cached_property

from django import forms
from django.utils.translation import gettext as _

from bench.access import walls
from bench.models import Offcut
from bench.stages.cut.buy import Drawer, PriceForm, drawers, untold
from bench.stages.cut.cutting import cutting_of
from bench.stages.cut.days import DaysForm, FinishOfForm, own_finishes
from bench.stages.cut.forms import MeasuredForm, SawForm
from bench.stages.cut.stock import HandForm, OwnForm, woods
from bench.words import lazy
from bench.workbench.context import Note, Stage, Tab, WorkbenchContext
from trade.cutting.parts import count_parts
from trade.language import counted

_FORMS: dict[str, type[SawForm | MeasuredForm | HandForm | PriceForm | DaysForm]] = {
    "": SawForm,
    "parts": MeasuredForm,
    "stock": HandForm,
    "buy": PriceForm,
    "days": DaysForm,
}


class CutContext:
    """What to saw, to buy, and when."""

    def __init__(self, bench: WorkbenchContext) -> None:
        """Of the whole wall; the form is that of the open tab, and waits for a long cutting."""
        self._bench = bench
        self.cutting = cutting_of(bench)

    @cached_property
    def form(self) -> forms.Form | None:
        """The form of the open tab; none while the cutting is still being worked out."""
        kind = _FORMS[self._bench.tab]
        if posted := self._bench.posted(kind):
            return posted
        return kind(self._bench) if self.cutting.progress.ready else None

    @property
    def drawers(self) -> list[Drawer]:
        """What is in the drawer at the person's other walls."""
        return drawers(self._bench)

    @property
    def untold(self) -> list[Drawer]:
        """Return the drawers at other walls that don't say what this one does."""
        return untold(self._bench)

    @property
    def rack(self) -> list[Offcut]:
        """What lies on the rack of the visitor's other walls, of woods that this one uses."""
        boards = {part.board for part in self.cutting.plan.parts}
        there = walls(self._bench.request)
        found = Offcut.objects.filter(taken=None, board__in=boards, wall__in=there).exclude(
            wall=self._bench.wall.pk
        )
        return list(found.select_related("wall")[:40])

    @property
    def of_a_job(self) -> bool:
        """Whether the job has other walls, which are cut and bought for together."""
        return self._bench.wall.job.walls.filter(deleted=None).count() > 1

    @property
    def hanging_already(self) -> int:
        """How many pieces are up: nothing is made for them any more."""
        return len(self._bench.plan.pieces) - len(self._bench.plan.waiting)

    @property
    def refused_part(self) -> OwnForm | None:
        """The form for a further part, if it was refused."""
        return self._bench.posted(OwnForm)

    @property
    def own_part_form(self) -> OwnForm:
        """The form for a further part of the person's own."""
        return self.refused_part or OwnForm(self._bench)

    @property
    def refused_finish(self) -> FinishOfForm | None:
        """The form for a finish of one part's own, if it was refused."""
        return self._bench.posted(FinishOfForm)

    @property
    def own_finish_form(self) -> FinishOfForm:
        """The form for a finish of one part's own."""
        return self.refused_finish or FinishOfForm(self._bench)

    @property
    def own_finishes(self) -> list[tuple[str, str]]:
        """Return which parts have a finish of their own, and which, in words."""
        return own_finishes(self._bench)

    @property
    def woods(self) -> list[tuple[str, str, float]]:
        """Woods that the parts of a drawing may be of."""
        return woods(self._bench)


def _note(bench: WorkbenchContext) -> Note:
    if not bench.plan.pieces:
        return Note("waiting", _("nothing yet"))
    ready = bench.piece_verdict is not None and not bench.piece_verdict.fails
    parts = count_parts(bench.plan)
    return Note(
        "done" if ready else "waiting", counted(parts, "{n} part", "{n} parts") if parts else "none"
    )


STAGE = Stage(
    "cut",
    lazy("Cut"),
    note=_note,
    context=CutContext,
    tabs=(
        Tab("", lazy("Cuts"), lazy("Every board and sheet with its cuts")),
        Tab("parts", lazy("Parts"), lazy("Work on each part, and what to measure first")),
        Tab("stock", lazy("Stock"), lazy("What you have, what is left over, what else to cut")),
        Tab("buy", lazy("Shopping"), lazy("What to buy, and what it costs")),
        Tab("days", lazy("Schedule"), lazy("The finish, and when it can be hung and loaded")),
    ),
    below=lambda _: "cut/_diagrams.html",
)
