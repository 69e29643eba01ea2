"""A board with clips, hangers or holders that spans two studs."""

from typing import Any, ClassVar

from trade.check import Message
from trade.mounts import jointed
from trade.mounts.rail import Railed
from trade.plan.model import HolderBoard, Wall


class _HolderBoard(Railed[HolderBoard]):
    kind = "holder_board"
    name = "Holder board over two studs"
    piece_noun = "holder board"
    hook_noun = "clip or holder"
    make = HolderBoard
    fresh: ClassVar[dict[str, Any]] = {
        "board": "plywood",
        "thickness_mm": 18.0,
        "height_mm": 200.0,
        "depth_mm": 100.0,
        "length_mm": 600.0,
    }

    def cautions(self, piece: HolderBoard, wall: Wall) -> list[Message]:
        """Return what people get wrong with holder boards."""
        return [
            Message(
                "Fix the holders from behind or between the studs' screws; build it larger than "
                "today's need."
            ),
            *jointed.cautions(piece),
        ]


KIND = _HolderBoard()
