"""A drawer in its opening: a front, a box behind it, and its bottom in a groove all round.

Wood on wood: the box runs on what is below it, with play at both sides and above. The front sits in
the opening, flush with the case, and is screwed on from inside.
"""

from collections.abc import Iterator

from trade import data
from trade.language import word
from trade.workshop.panels import ALONG, OUT, UP, Block, Panel, block

PLAY_MM = data.house("drawer_play_mm")
GAP_MM = data.house("drawer_gap_mm")
GROOVE_UP_MM = data.house("drawer_groove_up_mm")
_ABOVE_MM = data.house("drawer_above_mm")
_BEHIND_MM = data.house("drawer_behind_mm")
BOTTOM_BOARD = "plywood"


def groove_mm(board_mm: float) -> float:
    """Return the depth of the groove for the bottom, in a board of this thickness, mm."""
    return board_mm / 3


def drawer(opening: Block, board: str, board_mm: float, bottom_mm: float) -> Iterator[Panel]:
    """Yield the boards of a drawer.

    Args:
        opening: what is free for it, from the back of its case to the front edge.
        board: a row of the boards table, for all but its bottom.
        board_mm: their thickness.
        bottom_mm: of its bottom.
    """
    t, (left, low, back), (right, high, out) = board_mm, opening.low, opening.high
    front = (left + GAP_MM, right - GAP_MM), (low + GAP_MM, high - GAP_MM)
    yield Panel(word("drawer front"), board, block(*front, (out - t, out)), OUT, ALONG)
    first, last = left + PLAY_MM, right - PLAY_MM
    up = (low, high - _ABOVE_MM)
    near, far = back + _BEHIND_MM, out - t
    deep = groove_mm(t)
    slot = (low + GROOVE_UP_MM, low + GROOVE_UP_MM + bottom_mm)
    for edge, inner in (((first, first + t), 1), ((last - t, last), -1)):
        face = (edge[1] - deep, edge[1]) if inner > 0 else (edge[0], edge[0] + deep)
        taken = (block(face, slot, (near, far)),)
        yield Panel(word("drawer side"), board, block(edge, up, (near, far)), ALONG, OUT, (), taken)
    between = (first + t, last - t)
    for edge, inner in (((near, near + t), 1), ((far - t, far), -1)):
        face = (edge[1] - deep, edge[1]) if inner > 0 else (edge[0], edge[0] + deep)
        taken = (block(between, slot, face),)
        yield Panel(word("drawer end"), board, block(between, up, edge), OUT, ALONG, (), taken)
    whole = block((between[0] - deep, between[1] + deep), slot, (near + t - deep, far - t + deep))
    yield Panel(word("drawer bottom"), BOTTOM_BOARD, whole, UP, ALONG)
