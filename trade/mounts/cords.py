"""An opening for a cord: away from edges and from what holds the board, and what is left of it."""

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, Message, make
from trade.plan.pieces.base import Corded, Piece

_BENT = ("board.bending", "front.bending")
_NEVER_WIRED = Message(
    "A cord through a board is no wiring: plug it into an outlet within its reach, never through "
    "or inside a wall. One more outlet is licensed work."
)


_LAMP = Message(
    "A lamp under it: a plug-in one of low voltage, near the front edge so that it lights what is "
    "below and not the wall; its lead along the back edge in clips, its driver where air gets to "
    "it. A lamp wired to the mains is licensed work."
)


def to_mind(piece: Piece) -> list[Message]:
    """Return what to mind where a cord passes through a board."""
    if not isinstance(piece, Corded) or piece.cord is None:
        return []
    return [_NEVER_WIRED, _LAMP] if data.cords()[piece.cord].lamp else [_NEVER_WIRED]


def checks(piece: Piece, found: list[Check]) -> list[Check]:
    """Return what an opening asks of a board.

    Args:
        piece: whatever hangs; nothing is asked where it has no opening.
        found: its checks so far: what bends it most.
    """
    hole = piece.cord_hole if isinstance(piece, Corded) else None
    if hole is None:
        return []
    at, back, wide = hole
    off = data.house("cord_edge_mm")
    to_front = piece.depth_mm - back - wide / 2
    to_end = min(at, piece.length_mm - at) - wide / 2
    to_held = min((abs(x - at) for x in piece.supports_mm), default=piece.length_mm) - wide / 2
    nearest = min(to_front, to_end, to_held)
    made = [
        make(
            "board.cord",
            part="board",
            case="any",
            demand=Quantity(off, "length"),
            capacity=Quantity(max(nearest, 1e-3), "length"),
            template="Its opening for a cord has {capacity} to the nearest edge or support; "
            "{demand} must stay.",
        )
    ]
    bent = max((c for c in found if c.code in _BENT), key=lambda c: c.utilisation, default=None)
    if bent is not None and wide < piece.depth_mm:
        sums = Calculation()
        sums.given("u", bent.utilisation, "ratio", "of its bending strength it uses whole")
        sums.given("d", piece.depth_mm, "length", "depth of the board")
        sums.given("D", wide, "length", "the opening, as if where it is bent most")
        sums.then("u'", "u d / (d − D)", "ratio", "of what is left beside it")
        made.append(
            make(
                "board.cord_bending",
                part="board",
                case=bent.case,
                unknown=bent.unknown,
                demand=sums.quantity("u'"),
                capacity=Quantity(1.0, "ratio"),
                template="Beside its opening for a cord the board uses {used} of its bending "
                "strength.",
                equations=sums.equations,
            )
        )
    return made
