"""The marks as a stage of the workbench."""

from django.utils.translation import gettext as _

from bench.stages.mark.forms import DatumForm
from bench.words import lazy
from bench.workbench.context import Note, Stage, WorkbenchContext
from trade.check import Message
from trade.job.minding import what_to_mind
from trade.language import counted
from trade.marking.marks import Mark
from trade.marking.reading import say_datum
from trade.marking.summary import screw_words
from trade.mounts import mount_of
from trade.mounts.base import Part
from trade.plan.facing import SIDES, beside
from trade.plan.model import AnyPiece


class MarkContext:
    """Where to drill for a piece."""

    def __init__(self, bench: WorkbenchContext, piece: AnyPiece) -> None:
        """Of the piece that is worked on."""
        self.form = bench.posted(DatumForm) or DatumForm(bench)
        self._bench, self._piece, self._wall = bench, piece, bench.plan.wall

    @property
    def bores(self) -> list[Mark]:
        """Holes in the piece itself."""
        return [mark for mark in self._bench.marks if mark.where == "shelf"]

    @property
    def beside(self) -> list[tuple[str, list[Mark]]]:
        """Holes round its corners: what that wall is called, and its holes."""
        found = ((beside(self._wall, side), side) for side in SIDES)
        return [
            (there.name, marks)
            for there, side in found
            if there is not None
            and (marks := [mark for mark in self._bench.marks if mark.side == side])
        ]

    @property
    def first_mark(self) -> Mark | None:
        """The first hole in the wall."""
        return next((mark for mark in self._bench.marks if mark.where == "wall"), None)

    @property
    def underside_mm(self) -> float:
        """Height of its underside above the floor."""
        return self._piece.top_mm - self._piece.high_mm

    @property
    def screws(self) -> str:
        """Each kind of screw or anchor in its holes, once."""
        return screw_words(self._piece, self._wall, self._bench.units)

    @property
    def datum(self) -> str:
        """What the marks are measured from."""
        return say_datum(self._bench.plan.datum, self._bench.units)

    @property
    def parts(self) -> list[Part]:
        """What it is made of."""
        return mount_of(self._piece).parts(self._piece, self._wall)

    @property
    def mind(self) -> list[Message]:
        """What to mind with this kind of mounting here, and who must lift it."""
        return what_to_mind(self._piece, self._bench.plan)


def _context(bench: WorkbenchContext) -> MarkContext | None:
    return MarkContext(bench, bench.piece) if bench.piece else None


def _note(bench: WorkbenchContext) -> Note:
    if not bench.plan.pieces:
        return Note("waiting", _("nothing yet"))
    if bench.piece_verdict is None or bench.piece_verdict.fails:
        return Note("waiting", _("not yet"))
    return Note("done", counted(bench.wall_holes, "{n} hole", "{n} holes"))


STAGE = Stage("mark", lazy("Mark"), note=_note, context=_context, for_helpers=True)
