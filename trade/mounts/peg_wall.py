"""A perforated board or plywood peg wall: a panel whose things hang on pegs in short holes.

A peg is a cantilever in a socket no deeper than the sheet is thick: it bends at the sheet's face, and pries in its hole.
"""

from math import pi
from typing import Any, ClassVar

from trade import data
from trade.check import Check, Phrase, Quantity, Step, make
from trade.fixings import wood
from trade.load.line import contents_of, unweighed
from trade.mounts.base import Ask, Part, Shape, block, cut
from trade.mounts.panel import Panelled
from trade.plan import PegWall, Wall

_TUG = "a tug of half the push on one peg"
_QUARTER_MM, _REDUCED = 6.35, 4.0  # NDS 2018: F_e from 1/4 in on (Table 12.3.3), R_d of mode I (Table 12.3.1B)
_GRID_MM = 100.0  # house rule: how far apart its holes are drawn


class _PegWall(Panelled[PegWall]):
    kind = "peg_wall"
    name = "Peg wall"
    piece_noun = "peg wall"
    make = PegWall
    asks = (*Panelled.asks, Ask("peg", "Pegs of", "choice", data.woods, cure="peg"), Ask("peg_mm", "Pegs thick", "length"))
    fresh: ClassVar[dict[str, Any]] = {
        "board": "plywood", "length_mm": 1000.0, "height_mm": 800.0, "thickness_mm": 18.0, "depth_mm": 90.0, "batten_mm": 19.0,
        "panel_screw_mm": 35.0, "use": "display", "peg_mm": 16.0,
    }  # fmt: skip

    def checks(self, piece: PegWall, wall: Wall) -> list[Check]:
        """Those of a panel, and a peg in its hole."""
        return [*super().checks(piece, wall), *_peg(piece)]

    def parts(self, piece: PegWall, wall: Wall) -> list[Part]:
        """Those of a panel, and a peg for each thing."""
        out = piece.depth_mm + piece.thickness_mm
        pegs = max(len(piece.things), 1)
        return [*super().parts(piece, wall), cut("peg", piece.peg, pegs, out, piece.peg_mm, piece.peg_mm)]

    def front(self, piece: PegWall) -> list[Shape]:
        """The sheet with its holes."""
        low, half = piece.top_mm - piece.height_mm, piece.peg_mm / 2
        across, up = int(piece.length_mm // _GRID_MM), int(piece.height_mm // _GRID_MM)
        start, foot = (piece.length_mm - (across - 1) * _GRID_MM) / 2, (piece.height_mm - (up - 1) * _GRID_MM) / 2
        places = [(piece.left_mm + start + i * _GRID_MM, low + foot + j * _GRID_MM) for i in range(across) for j in range(up)]
        return [*super().front(piece), *(block("door", x - half, y - half, x + half, y + half) for x, y in places)]

    def cautions(self, piece: PegWall, wall: Wall) -> list[Phrase]:
        """What people get wrong with peg walls."""
        return [*super().cautions(piece, wall), Phrase("Try every peg in a scrap hole before drilling hundreds.")]


KIND = _PegWall()


def _peg(piece: PegWall) -> list[Check]:
    """One peg with the heaviest single thing on it, or a push; things all along hang on a peg every grid step."""
    peg, sheet, use = data.boards()[piece.peg], data.boards()[piece.board], data.uses()[piece.use]
    loads, outs = contents_of(piece)
    each = [
        (load.total_n * (min(_GRID_MM / spread, 1.0) if (spread := load.end_mm - load.start_mm) > 0 else 1.0), out)
        for load, out in zip(loads, outs, strict=True)
    ]
    lasting = max((force * use.factor * out for force, out in each), default=0.0)
    weight = max((force * use.factor for force, _ in each), default=0.0)
    years, minutes = data.house("duration_years"), data.house("duration_minutes")
    moment, force, duration, case = max(
        (
            (lasting, weight, years, "loaded, for years"),
            (max(lasting, use.push_n / 2 * piece.depth_mm), max(weight, use.push_n / 2), minutes, _TUG),
        ),
        key=lambda c: c[0] / c[2],
    )  # fmt: skip
    allowed = wood.bearing_strength_mpa(sheet.g, max(piece.peg_mm, _QUARTER_MM), across_grain=True) / _REDUCED
    section, t = pi * piece.peg_mm**3 / 32, piece.thickness_mm
    pried = (6 * (moment + force * t / 2) / t**2 + force / t) / piece.peg_mm
    unknown = unweighed(piece)
    return [
        make(
            "peg.bending",
            part="peg",
            case=case,
            unknown=unknown,
            demand=Quantity(moment / section, "stress"),
            capacity=Quantity(peg.bending_mpa(duration), "stress"),
            template="At the sheet's face a peg is bent to {used} of what {wood} may take.",
            parts={"wood": peg.name},
            steps=(
                Step("M", f"weight × how far out it hangs, {case}", Quantity(moment, "moment")),
                Step("S", "π d³ / 32, mm³", Quantity(section, "ratio")),
                Step("σ", "M / S", Quantity(moment / section, "stress")),
            ),
        ),
        make(
            "peg.socket",
            part="peg",
            case=case,
            unknown=unknown,
            demand=Quantity(pried, "stress"),
            capacity=Quantity(allowed * duration, "stress"),
            template="In its hole a peg presses on the sheet with {used} of what {wood} may take.",
            parts={"wood": sheet.name},
            steps=(
                Step("M", f"about the sheet's face, {case}", Quantity(moment, "moment")),
                Step("V", "weight on the peg", Quantity(force, "force")),
                Step("t", "depth of its hole", Quantity(t, "fine")),
                Step("F_e / 4", "dowel bearing across the grain, reduced", Quantity(allowed, "stress")),
                Step("p", "(6 (M + V t/2) / t² + V / t) / d", Quantity(pried, "stress")),
            ),
        ),
    ]
