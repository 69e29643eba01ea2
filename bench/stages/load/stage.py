"""The load as a stage of the workbench."""

from django.utils.translation import gettext as _

from bench.stages.load.forms import LoadForm
from bench.words import lazy, worded
from bench.workbench.context import Note, Stage, WorkbenchContext
from trade.plan.model import AnyPiece


class LoadContext:
    """What a piece carries."""

    def __init__(self, bench: WorkbenchContext, piece: AnyPiece) -> None:
        """Of the piece that is worked on."""
        self.form = bench.posted(LoadForm) or LoadForm(bench, piece)
        self._things = piece.things

    @property
    def unweighed(self) -> str:
        """The first thing that nobody has weighed; empty if there is none."""
        return next((thing.name for thing in self._things if thing.mass_kg is None), "")

    @property
    def all_kg(self) -> float:
        """The mass of all that has been weighed."""
        return sum(thing.mass_kg or 0.0 for thing in self._things)


def _context(bench: WorkbenchContext) -> LoadContext | None:
    return LoadContext(bench, bench.piece) if bench.piece else None


def _note(bench: WorkbenchContext) -> Note:
    pieces = bench.plan.pieces
    if not pieces:
        return Note("waiting", _("nothing yet"))
    unloaded = sum(
        not piece.things or any(thing.mass_kg is None for thing in piece.things) for piece in pieces
    )
    return (
        Note("waiting", worded("{unloaded} to weigh", unloaded=unloaded))
        if unloaded
        else Note("done", _("done"))
    )


STAGE = Stage("load", lazy("Load"), note=_note, context=_context)
