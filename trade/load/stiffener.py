"""What stiffens a board's front edge.

A strip, a fold, a tube, a second board; each bends about its own middle.
"""

from typing import NamedTuple

from trade import data
from trade.measure import G_N_PER_KG
from trade.mechanics.composite import Component
from trade.plan.model import Shelf

_SOFT = "pine_white"  # house rule: a strip of wood under metal is taken as the softest of the shop


class Stiffener(NamedTuple):
    """A stiffener under a front edge: its name, its row of the boards table, its section."""

    name: str
    board: str
    part: Component

    @property
    def weight_n_per_mm(self) -> float:
        """Its weight along the board."""
        return self.part.area_mm2 / 1e9 * data.boards()[self.board].density_kg_m3 * G_N_PER_KG


def stiffener(piece: Shelf) -> Stiffener | None:
    """Return what stiffens a shelf's front; None where nothing does."""
    front = piece.front_edge
    if front is None or not front.height_mm:
        return None
    board, row = data.boards()[piece.board], data.stiffeners()[front.stiffener]
    of, wide, name = row.of, row.wide_mm, row.name
    if of == "own":
        of = piece.board if board.wooden else front.wood or _SOFT
        name = "strip under its front edge"
        if front.stiffener == "usual" and not board.wooden and front.wood is None:
            of, wide, name = piece.board, piece.thickness_mm, "fold of its front edge"
    if of == "board":
        of, wide = piece.board, piece.depth_mm if row.whole else wide or piece.thickness_mm
    made = data.boards()[of]
    return Stiffener(
        name, of, Component(made.e_mpa, wide, front.height_mm, made.k_def, row.wall_mm)
    )
