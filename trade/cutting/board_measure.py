"""Hardwood by the measure in which sawmills sell it: board feet of a thickness, or cubic metres."""

from collections.abc import Iterable
from typing import NamedTuple

from trade import data
from trade.cutting.parts import CutPart
from trade.data.rows import Rough
from trade.measure import IN_MM, Units

_BOARD_FOOT_MM3 = 144 * IN_MM**3  # 12 in wide, 1 ft long, 1 in thick


class BoardMeasure(NamedTuple):
    """What parts of one hardwood come to in one thickness as sawn.

    `net`: the parts themselves; `ask`: with what ends, knots and edges cost. Board feet or cubic
    metres, as `row` is sold.
    """

    board: str
    row: Rough
    net: float
    ask: float

    @property
    def name(self) -> str:
        """What the wood is called."""
        return data.boards()[self.board].name


def board_measures(parts: Iterable[CutPart], units: Units) -> tuple[BoardMeasure, ...]:
    """Return what to ask a sawmill for, by wood and thickness.

    Args:
        parts: of any material; what is no hardwood, and dowels, are looked past. Of a part that is
          glued up, and its boards, the boards count only where it is sawn in no such thickness.
        units: in whose thicknesses it is sold.
    """
    found: dict[tuple[str, str], float] = {}
    sawn = {key: row for key, row in data.rough().items() if row.system == units}
    every = [part for part in parts if data.boards()[part.board].hardwood and not part.round]
    keys = {
        part.label: next((k for k, row in sawn.items() if row.planes_to_mm >= part.thick_mm), None)
        for part in every
    }
    for part in every:
        key = keys[part.label]
        if key is not None and keys.get(part.of) is None:
            length, width = part.rough_mm
            face_mm2 = found.get((part.board, key), 0.0) + length * width
            found[part.board, key] = face_mm2
    more = 1 + data.house("hardwood_waste")
    return tuple(
        BoardMeasure(board, sawn[key], net, net * more)
        for (board, key), face_mm2 in found.items()
        for net in (_measure(face_mm2, sawn[key]),)
    )


def _measure(face_mm2: float, row: Rough) -> float:
    volume = face_mm2 * row.thick_mm
    return volume / (_BOARD_FOOT_MM3 if row.system == "imperial" else 1e9)
