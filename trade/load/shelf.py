"""A shelf's board: how it is bent and how it sags, under each part of its load where that hurts."""

from typing import NamedTuple

import numpy as np

from trade import data
from trade.load.line import LineLoad
from trade.measure import G_N_PER_KG
from trade.plan import Shelf


class Sag(NamedTuple):
    """The sag that is greatest for its span."""

    sag_mm: float
    span_mm: float
    place_mm: float


class ShelfLoad(LineLoad):
    """A shelf's loads on its supports and in its board."""

    piece: Shelf

    def __init__(self, piece: Shelf, hardware_n: float, hardware_out_mm: float) -> None:
        """As for any piece, with the board's own weight and stiffness.

        Args:
            piece: with two supports or more.
            hardware_n: own weight of what holds it, at each support.
            hardware_out_mm: how far from the wall that weight hangs.
        """
        self.board = data.boards()[piece.board]
        ei = self.board.e_mpa * piece.depth_mm * piece.thickness_mm**3 / 12
        super().__init__(piece, board_n(piece), piece.depth_mm / 2, hardware_n, hardware_out_mm, ei, along=True)
        self._spans = np.maximum(self.beam.spans_mm, 1e-9)
        own, parts, _ = self._parts(self.beam.sags_mm)
        self._worst_sags = (own, np.maximum(parts, 0).sum(axis=1))

    @property
    def inertia_mm4(self) -> float:
        """Second moment of area of the board, b t^3 / 12."""
        return self.piece.depth_mm * self.piece.thickness_mm**3 / 12

    @property
    def section_mm3(self) -> float:
        """Section modulus of the board, b t^2 / 6."""
        return self.piece.depth_mm * self.piece.thickness_mm**2 / 6

    def sag(self, own_creep: float, contents_creep: float) -> Sag:
        """The sag greatest for its span, under own weight and contents without use factors.

        Args:
            own_creep: 1, or 1 + k_def for the long run.
            contents_creep: 1, or 1 + psi_2 k_def.
        """
        own, contents = self._worst_sags
        sags = own * own_creep + contents * contents_creep
        i = int((sags / self._spans).argmax())
        return Sag(max(float(sags[i]), 0.0), float(self._spans[i]), float(self.beam.places_mm[i]))


def board_n(piece: Shelf) -> float:
    """Weight of a shelf's board."""
    volume_m3 = piece.length_mm * piece.depth_mm * piece.thickness_mm / 1e9
    return volume_m3 * data.boards()[piece.board].density_kg_m3 * G_N_PER_KG
