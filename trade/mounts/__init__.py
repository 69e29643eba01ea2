"""The kinds of mounting, one module each.

Every kind answers the same questions; `KINDS` is the list of them all.
"""

from typing import Any

from trade.fixings.support import Support
from trade.mounts import (
    bookcase,
    box_shelf,
    bracket_beam,
    bracket_shelf,
    cleat_cabinet,
    cleat_wall,
    corner_shelf,
    dowel_shelf,
    grid_panel,
    holder_board,
    ledger_bench,
    ledger_shelf,
    panel,
    peg_wall,
    pin_shelf,
    rail,
    rod_beam,
    rod_shelf,
    track_shelf,
)
from trade.mounts.base import AnySupport, Ask, Hole, Mount, Shape, holes
from trade.mounts.hanging import Act, Do, Hanging
from trade.plan.model import AnyPiece

ALL: tuple[Mount[Any], ...] = (
    bracket_shelf.KIND,
    rod_shelf.KIND,
    pin_shelf.KIND,
    dowel_shelf.KIND,
    box_shelf.KIND,
    cleat_cabinet.KIND,
    bracket_beam.KIND,
    rod_beam.KIND,
    ledger_shelf.KIND,
    corner_shelf.KIND,
    rail.KIND,
    panel.KIND,
    peg_wall.KIND,
    grid_panel.KIND,
    holder_board.KIND,
    bookcase.KIND,
    ledger_bench.KIND,
    cleat_wall.KIND,
    track_shelf.KIND,
)
KINDS: dict[str, Mount[Any]] = {mount.kind: mount for mount in ALL}
_BY_PIECE: dict[type, Mount[Any]] = {mount.make: mount for mount in ALL}

__all__ = [
    "Act",
    "AnySupport",
    "Ask",
    "Do",
    "Hanging",
    "Hole",
    "Mount",
    "Shape",
    "Support",
    "holes",
    "mount_of",
]


def mount_of(piece: AnyPiece) -> Mount[Any]:
    """Return the kind of a piece."""
    return _BY_PIECE[type(piece)]
