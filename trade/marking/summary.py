"""What holds a piece, in a line."""

from collections.abc import Sequence

from trade.marking.marks import Mark
from trade.measure import Units, many
from trade.mounts import mount_of
from trade.plan.model import AnyPiece
from trade.plan.wall import Wall


def support_words(piece: AnyPiece, marks: Sequence[Mark]) -> str:
    """Return how many supports a piece has, and how many screws if it has any."""
    supports = many(len(piece.supports_mm), mount_of(piece).support_noun)
    if not any(mark.screw or mark.anchor for mark in marks):
        return supports
    return f"{supports}, {many(sum(mark.where == 'wall' for mark in marks), 'screw')}"


def screw_words(piece: AnyPiece, wall: Wall, units: Units) -> str:
    """Return each kind of screw or anchor that goes into a piece's holes, once."""
    supports = mount_of(piece).supports(piece, wall)
    return "; ".join(dict.fromkeys(support.words(units) for support in supports))
