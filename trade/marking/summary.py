"""What holds a piece, in a line."""

from collections.abc import Sequence

from trade.language import counted, joined, numbered
from trade.marking.marks import Mark
from trade.measure import Units
from trade.mounts import mount_of
from trade.plan.model import AnyPiece
from trade.plan.wall import Wall


def support_words(piece: AnyPiece, marks: Sequence[Mark]) -> str:
    """Return how many supports a piece has, and how many screws if it has any."""
    noun = mount_of(piece).noun_of(piece)
    supports = numbered(len(piece.supports_mm), noun)
    if not any(mark.screw or mark.anchor for mark in marks):
        return supports
    screws = sum(mark.where == "wall" for mark in marks)
    return joined((supports, counted(screws, "{n} screw", "{n} screws")))


def screw_words(piece: AnyPiece, wall: Wall, units: Units) -> str:
    """Return each kind of screw or anchor that goes into a piece's holes, once."""
    supports = mount_of(piece).supports(piece, wall)
    return joined(dict.fromkeys(support.words(units) for support in supports), "; ")
