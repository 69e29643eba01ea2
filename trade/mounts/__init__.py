"""The kinds of mounting, one module each. Every kind answers the same questions; `KINDS` is the list of them all."""

from typing import Any

from trade.fixings.seat import Seat
from trade.mounts import (
    bookcase,
    bracket_shelf,
    cleat_cabinet,
    holder_board,
    ledger_bench,
    ledger_shelf,
    pin_shelf,
    rail,
    rod_beam,
    rod_shelf,
)
from trade.mounts.base import AnySeat, Ask, Hole, Mount, Shape, holes
from trade.plan import AnyPiece

ALL: tuple[Mount[Any], ...] = (
    bracket_shelf.KIND, rod_shelf.KIND, pin_shelf.KIND, rod_beam.KIND, cleat_cabinet.KIND, ledger_shelf.KIND, ledger_bench.KIND,
    rail.KIND, holder_board.KIND, bookcase.KIND,
)  # fmt: skip
KINDS: dict[str, Mount[Any]] = {mount.kind: mount for mount in ALL}
_BY_PIECE: dict[type, Mount[Any]] = {mount.make: mount for mount in ALL}

__all__ = ["ALL", "KINDS", "AnySeat", "Ask", "Hole", "Mount", "Seat", "Shape", "holes", "mount_of"]


def mount_of(piece: AnyPiece) -> Mount[Any]:
    """The kind of a piece."""
    return _BY_PIECE[type(piece)]
