"""Where the names of pieces stand on a drawing, and how much room they take."""

from bench.drawing.scale import WIDTH, Scale
from trade.mounts import mount_of
from trade.plan.model import AnyPiece

LETTER_PX = 12.0  # as a phone shows them
_NAME_PX = 14.0  # a name fits on what is higher


def name_at(piece: AnyPiece, scale: Scale) -> tuple[float, float]:
    """Return where the middle of a piece's name stands: on its face or below it, off the tapes."""
    top, thick = scale.y(piece.top_mm), max(scale.length(piece.high_mm), 3.0)
    below = top + thick / 2 + 4 if on_face(piece, scale) else top + thick + 13
    middle, half = scale.x(piece.left_mm + piece.length_mm / 2), half_px(piece)
    return max(min(middle, WIDTH - half), scale.x(0) + half), below


def on_face(piece: AnyPiece, scale: Scale) -> bool:
    """Whether its name stands on its face."""
    return mount_of(piece).carries == "under" and scale.length(piece.high_mm) > _NAME_PX


def half_px(piece: AnyPiece) -> float:
    """Return half the width of its name."""
    return len(piece.name) * LETTER_PX / 2
