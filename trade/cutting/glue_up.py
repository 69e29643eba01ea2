"""Parts that are sold in no such size, made of what is: glued up of boards, or planed down.

Boards are glued edge to edge into a layer, layers face to face; then it is planed to its thickness
and sawn to its width and length. Sheets are glued face to face only, and are not planed.
"""

from collections.abc import Iterator, Sequence
from math import ceil
from typing import NamedTuple

from trade import data
from trade.cutting.parts import CutPart
from trade.cutting.stock import Source
from trade.language import compose
from trade.mounts.work import GluedUp

_JOINTED_MM = data.house("glue_edge_mm")
_ENDS_MM = data.house("glue_ends_mm")
_MOST = int(data.house("glue_most"))
_PLANED_MM = data.house("planed_off_mm")
_SHEETS_NEAR_MM = data.house("glue_sheets_near_mm")
_LINE_SHARE = data.house("glue_line_share")
_EXACT = 1e-6


class MadeUp(NamedTuple):
    """A part that is made up: itself with how that is done, and what is sawn for it."""

    part: CutPart
    strips: tuple[CutPart, ...]


def made_up(part: CutPart, sold: Sequence[Source]) -> MadeUp | None:
    """Return how a part is made of what is sold, with the least wood and glue.

    None where nothing does.

    Args:
        part: that is sold in no such size.
        sold: what shops have, in any order.
    """
    if part.round:
        return None
    ways = [(_trouble(way), n, way) for n, way in enumerate(_ways(part, sold))]
    if not ways:
        return None
    _, _, (layers, across, wide, source) = min(ways, key=lambda each: each[:2])
    count = layers * across
    labels = tuple(f"{part.label}{n}" for n in range(1, count + 1))
    glued = GluedUp(layers, across, wide, source.thickness_mm, part.thick_mm, labels)
    long = part.rough_mm[0] + _ENDS_MM
    strips = tuple(
        CutPart(
            label,
            part.piece,
            compose("board {n} of {count} for {label}", n=n, count=count, label=part.label),
            part.board,
            long,
            wide,
            source.thickness_mm,
            part.key,
            turns=False,
            planned_mm=long,
            of=part.label,
            wall=part.wall,
        )
        for n, label in enumerate(labels, start=1)
    )
    works = (glued, *part.detail.works)
    return MadeUp(part._replace(detail=part.detail._replace(works=works)), strips)


_Way = tuple[int, int, float, Source]
"""Layers, boards side by side in each, how wide those are, mm, and what they are sawn from."""


def _ways(part: CutPart, sold: Sequence[Source]) -> Iterator[_Way]:
    length, wide = part.rough_mm
    for source in sold:
        if source.board != part.board or source.round:
            continue
        if source.length_mm < length + _ENDS_MM:
            continue
        layers = ceil(part.thick_mm / source.thickness_mm - _EXACT)
        over = layers * source.thickness_mm - part.thick_mm
        if source.kind == "sheet":
            layers = round(part.thick_mm / source.thickness_mm)
            near = abs(layers * source.thickness_mm - part.thick_mm) <= _SHEETS_NEAR_MM
            if near and 1 < layers <= _MOST and wide + _JOINTED_MM <= source.width_mm:
                yield layers, 1, wide + _JOINTED_MM, source
            continue
        fits = part.width_mm <= source.width_mm + _EXACT  # without spare, rather than a joint
        across = 1 if fits else ceil(wide / (source.width_mm - _JOINTED_MM) - _EXACT)
        if layers * across <= _MOST and over <= _PLANED_MM * layers:
            each = wide / across + _JOINTED_MM
            yield layers, across, min(each, source.width_mm), source


def _trouble(way: _Way) -> float:
    """Return how much wood it takes, as the area of its end, and more for each line of glue.

    A narrow rip off a board counts all of that; sheets count by what is sawn out of them.
    """
    layers, across, wide, source = way
    width = wide if source.kind == "sheet" else source.width_mm
    wood_mm2 = layers * across * width * source.thickness_mm
    return wood_mm2 * (1 + _LINE_SHARE * (layers * across - 1))
