"""A shelf's board: how it is bent and how it sags, under each part of its load where that hurts."""

from functools import cached_property
from typing import NamedTuple

import numpy as np

from trade import data
from trade.load.line import LineLoad, solved
from trade.load.ways import ELASTIC, Sharing
from trade.measure import G_N_PER_KG
from trade.mechanics.beam import Array
from trade.plan import BracketShelf, Shelf

STRIP_MM = 19.0  # house rule: thickness of a strip under a front edge


class Sag(NamedTuple):
    """The sag that is greatest for its span."""

    sag_mm: float
    span_mm: float
    place_mm: float


class ShelfLoad(LineLoad):
    """A shelf's loads on its supports and in its board."""

    piece: Shelf

    def __init__(self, piece: Shelf, hardware_n: float, hardware_out_mm: float, sharing: Sharing = ELASTIC) -> None:
        """As for any piece, with the board's own weight and stiffness.

        Args:
            piece: with two supports or more.
            hardware_n: own weight of what holds it, at each support.
            hardware_out_mm: how far from the wall that weight hangs.
            sharing: how its supports share.
        """
        self.board = data.boards()[piece.board]
        self.piece = piece
        ei = self.board.e_mpa * self.inertia_mm4
        twist = torsion_form_mm3(piece.depth_mm, piece.thickness_mm) * self.board.shearing_mpa(1.0)
        hardware = (hardware_n, hardware_out_mm)
        super().__init__(piece, board_n(piece), piece.depth_mm / 2, *hardware, ei, along=True, sharing=sharing, torsion_nmm=twist)
        self._ei = ei

    @cached_property
    def _sags(self) -> tuple[Array, Array, Array, Array]:
        """Places, the span that each belongs to, and there the sag of the own weight and of all contents that add to it.

        It sags between all its supports, however they are taken to share.
        """
        rests = self.beam
        if self.stiff or self._left_out:
            rests = solved(self.piece.length_mm, self.piece.supports_mm, self._ei, self._loads, along=True)
        own, parts, _ = self._parts(rests.sags_mm)
        return rests.places_mm, np.maximum(rests.spans_mm, 1e-9), own, np.maximum(parts, 0).sum(axis=1)

    @property
    def inertia_mm4(self) -> float:
        """Second moment of area: of the board, b t^3 / 12, and of a strip under its front edge, each about its own middle."""
        strip = strip_mm(self.piece)
        return self.piece.depth_mm * self.piece.thickness_mm**3 / 12 + strip[0] * strip[1] ** 3 / 12

    @property
    def section_mm3(self) -> float:
        """Section modulus, of the higher of board and strip."""
        return self.inertia_mm4 / (max(self.piece.thickness_mm, strip_mm(self.piece)[1]) / 2)

    def sag(self, own_creep: float, contents_creep: float) -> Sag:
        """The sag greatest for its span, under own weight and contents without use factors.

        Args:
            own_creep: 1, or 1 + k_def for the long run.
            contents_creep: 1, or 1 + psi_2 k_def.
        """
        places, spans, own, contents = self._sags
        sags = own * own_creep + contents * contents_creep
        i = int((sags / spans).argmax())
        return Sag(max(float(sags[i]), 0.0), float(spans[i]), float(places[i]))


def torsion_form_mm3(wide_mm: float, thick_mm: float) -> float:
    """Torsion over the greatest shear stress of a solid rectangle: long short^2 (1 - 0.63 short / long) / 3."""
    short, long = sorted((wide_mm, thick_mm))
    return (1 - 0.63 * short / long) / 3 * long * short**2


def strip_mm(piece: Shelf) -> tuple[float, float]:
    """Thickness and height of the strip under a shelf's front edge: 19 mm of wood, or the sheet's own fold; noughts for none."""
    high = piece.stiffener_mm if isinstance(piece, BracketShelf) else 0.0
    return (STRIP_MM if data.boards()[piece.board].wooden else piece.thickness_mm, high) if high else (0.0, 0.0)


def board_n(piece: Shelf) -> float:
    """Weight of a shelf's board, with the strip under its front edge."""
    thick, high = strip_mm(piece)
    volume_m3 = piece.length_mm * (piece.depth_mm * piece.thickness_mm + thick * high) / 1e9
    return volume_m3 * data.boards()[piece.board].density_kg_m3 * G_N_PER_KG
