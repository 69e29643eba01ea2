"""The wall shaded by what a piece would carry with its middle there.

Laid over the elevation, at the same scale.
"""

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from bench.drawing.scale import HEIGHT, WIDTH, of_wall
from bench.drawing.svg import Pen, svg_element
from trade.choose.capacity_map import Column
from trade.measure import say_weight
from trade.plan.model import AnyPiece, Plan

_PLENTY = 1.5  # times what it carries: drawn as more than enough
_HATCH_PX = 9.0
_LABELS, _APART_PX = 4, 70.0


class _Run(NamedTuple):
    """Neighbouring places that are shaded alike.

    From and to along the wall, one stretch of height.
    """

    left_mm: float
    right_mm: float
    low_mm: float
    high_mm: float
    shade: str


def draw(piece: AnyPiece, columns: Sequence[Column], carried_kg: float, plan: Plan) -> SafeString:
    """Shade where it holds, hatch where it holds too little, leave bare where it can't hang.

    Mark the place where it carries the most.

    Mark the place where it carries the most.
    """
    pen, scale = Pen(), of_wall(plan.wall)
    for run in _runs(piece, columns, carried_kg):
        x, y = scale.x(run.left_mm), scale.y(run.high_mm)
        wide = scale.length(run.right_mm - run.left_mm)
        high = max(scale.length(run.high_mm - run.low_mm), 3.0)
        if run.shade == "less":
            pen.hatch(x, y, wide, high, _HATCH_PX, "spot-hatch")
        else:
            pen.rect(x, y, wide, high, f"spot spot-{run.shade}")
    said: list[float] = []
    for column in sorted(columns, key=lambda each: -each.kg):
        x = scale.x(column.left_mm + piece.length_mm / 2)
        if (
            column.kg > 0
            and column.heights_mm
            and all(abs(x - other) > _APART_PX for other in said)
            and len(said) < _LABELS
        ):
            said.append(x)
            top = max(high for _, high in column.heights_mm)
            pen.text(
                x, scale.y(top) + 16, say_weight(column.kg, plan.units), "spot-words", "middle"
            )
    return svg_element(
        pen, WIDTH, HEIGHT, "spots", _("Where it could hang, shaded by what it would carry there")
    )


def shade_of(kg: float, carried_kg: float) -> str:
    """How a place is shaded: more than enough, enough, less than it carries, nothing."""
    if kg <= 0:
        return "none"
    return "plenty" if kg >= _PLENTY * carried_kg else "enough" if kg >= carried_kg else "less"


def _runs(piece: AnyPiece, columns: Sequence[Column], carried_kg: float) -> Iterator[_Run]:
    """Columns drawn together while they are shaded alike at the same heights."""
    half = piece.length_mm / 2
    step = columns[1].left_mm - columns[0].left_mm if len(columns) > 1 else 25.0
    start = 0
    for n in range(1, len(columns) + 1):
        first = columns[start]
        shade = shade_of(first.kg, carried_kg)
        same = n < len(columns) and (
            shade_of(columns[n].kg, carried_kg),
            columns[n].heights_mm,
        ) == (shade, first.heights_mm)
        if same:
            continue
        if shade != "none":
            for low, high in first.heights_mm:
                left = first.left_mm + half - step / 2
                right = columns[n - 1].left_mm + half + step / 2
                yield _Run(left, right, low, high, shade)
        start = n
