"""The kinds of mounting, one module each. Every kind answers the same questions; `KINDS` is the list of them all."""

from trade.fixings.seat import Seat
from trade.mounts import bracket_shelf, rod_shelf
from trade.mounts.base import Hole, Mount, holes
from trade.plan import AnyPiece, BracketShelf, RodShelf

KINDS: dict[type, Mount] = {BracketShelf: bracket_shelf.KIND, RodShelf: rod_shelf.KIND}

__all__ = ["KINDS", "Hole", "Mount", "Seat", "holes", "mount_of"]


def mount_of(piece: AnyPiece) -> Mount:
    """The kind of a piece."""
    return KINDS[type(piece)]
