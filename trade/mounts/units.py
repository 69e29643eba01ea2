"""Pieces that are joined to each other, side to side."""

from itertools import takewhile

from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Piece, Plan


def units_joined(piece: AnyPiece, plan: Plan) -> list[Piece]:
    """Return those that a piece is joined to and that come before it on its wall."""
    before = takewhile(lambda each: each.key != piece.key, plan.pieces)
    return mount_of(piece).joins(piece, list(before))
