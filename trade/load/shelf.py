"""A shelf's board: how it is bent and how it sags, under each part of its load where that hurts."""

from functools import cached_property
from typing import NamedTuple

import numpy as np

from trade import data
from trade.load.line import LineLoad
from trade.load.stiffener import stiffener
from trade.load.ways import ELASTIC, Sharing
from trade.measure import G_N_PER_KG
from trade.mechanics import beam, composite
from trade.mechanics.beam import Array
from trade.plan.model import Shelf


class Sag(NamedTuple):
    """The sag that is greatest for its span."""

    sag_mm: float
    span_mm: float
    place_mm: float


class ShelfLoad(LineLoad):
    """A shelf's loads on its supports and in its board."""

    piece: Shelf

    def __init__(
        self, piece: Shelf, hardware_n: float, hardware_out_mm: float, sharing: Sharing = ELASTIC
    ) -> None:
        """As for any piece, with the board's own weight and stiffness.

        Args:
            piece: with two supports or more.
            hardware_n: own weight of what holds it, at each support.
            hardware_out_mm: how far from the wall that weight hangs.
            sharing: how its supports share.
        """
        self.board = data.boards()[piece.board]
        self.piece = piece
        self.parts = bending_parts(piece)
        self.bent = [part for _, _, part in self.parts]
        ei = composite.ei_nmm2(self.bent)
        twist = torsion_form_mm3(piece.depth_mm, piece.thickness_mm) * self.board.shearing_mpa(1.0)
        hardware = (hardware_n, hardware_out_mm)
        super().__init__(
            piece,
            board_n(piece),
            piece.depth_mm / 2,
            *hardware,
            ei,
            along=True,
            sharing=sharing,
            torsion_nmm=twist,
        )
        self._ei = ei

    @cached_property
    def _sags(self) -> tuple[Array, Array, Array, Array]:
        """Return places, their spans, and the sag there from own weight and from contents, mm.

        It sags between all its supports, however they are taken to share.
        """
        rests = self.beam
        if self.stiff or self._left_out:
            rests = beam.solve(
                self.piece.length_mm,
                self.piece.supports_mm,
                self._ei,
                self._loads,
                along=True,
                sagging=self._sagging,
            )
        own, parts, _ = self._parts(rests.sags_mm)
        return (
            rests.places_mm,
            np.maximum(rests.spans_mm, 1e-9),
            own,
            np.maximum(parts, 0).sum(axis=1),
        )

    def sag(self, creep: float, contents_share: float = 1.0) -> Sag:
        """Return the sag greatest for its span, under own weight and contents without use factors.

        Args:
            creep: how much of their creep the parts have done: 0 on the first day, 1 over the
              years.
            contents_share: how much of that the contents bring about, for they are not always
              there.
        """
        places, spans, own, contents = self._sags
        sags = own * self._grown(creep) + contents * self._grown(creep * contents_share)
        i = int((sags / spans).argmax())
        return Sag(max(float(sags[i]), 0.0), float(spans[i]), float(places[i]))

    def _grown(self, creep: float) -> float:
        return self._ei / composite.ei_nmm2(self.bent, creep) if creep else 1.0


def bending_parts(piece: Shelf) -> tuple[tuple[str, str, composite.Component], ...]:
    """Return the parts that bend together along a shelf.

    Its board and its stiffener, each with name and row of the boards table.
    """
    row = data.boards()[piece.board]
    found = [
        (
            "board",
            piece.board,
            composite.Component(row.e_mpa, piece.depth_mm, piece.thickness_mm, row.k_def),
        )
    ]
    if (under := stiffener(piece)) is not None:
        found.append((under.name, under.board, under.part))
    return tuple(found)


def torsion_form_mm3(wide_mm: float, thick_mm: float) -> float:
    """Torsion over the greatest shear stress of a solid rectangle.

    Long short^2 (1 - 0.63 short / long) / 3.
    """
    short, long = sorted((wide_mm, thick_mm))
    return (1 - 0.63 * short / long) / 3 * long * short**2


def board_n(piece: Shelf) -> float:
    """Weight of a shelf's board, with what stiffens its front edge."""
    under = stiffener(piece)
    volume_m3 = piece.length_mm * piece.depth_mm * piece.thickness_mm / 1e9
    own = volume_m3 * data.boards()[piece.board].density_kg_m3 * G_N_PER_KG
    return own + (under.weight_n_per_mm * piece.length_mm if under else 0.0)
