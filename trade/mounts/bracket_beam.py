"""A solid beam or mantel on heavy brackets."""

from typing import Any, ClassVar

from trade.check import Message
from trade.mounts.bracket_shelf import Bracketed
from trade.plan.model import BracketBeam, Wall


class _BracketBeam(Bracketed[BracketBeam]):
    kind = "bracket_beam"
    name = "Beam on heavy brackets"
    piece_noun = "beam"
    make = BracketBeam
    fresh: ClassVar[dict[str, Any]] = {
        "board": "oak_white",
        "thickness_mm": 140.0,
        "depth_mm": 190.0,
        "length_mm": 1500.0,
        "use": "display",
        "screw": "lag_1_4",
        "bracket": "braced",
    }

    def cautions(self, piece: BracketBeam, wall: Wall) -> list[Message]:
        """Return what people get wrong with beams."""
        return [
            Message("Screw it to its brackets from below, so that it cannot be slid off."),
            Message("Over a stove or beside a flue local rules say how far wood must stay away."),
        ]


KIND = _BracketBeam()
