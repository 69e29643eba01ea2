"""Dimension lines on the elevation.

From the datum to every column and row of holes, their words never one on another.
"""

from collections.abc import Sequence

from bench.drawing.names import half_px, name_at, on_face
from bench.drawing.scale import Scale
from bench.drawing.svg import Pen
from trade.marking.marks import Mark
from trade.marking.reading import read, say_across, say_up, zero
from trade.marking.spread import spread
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan

_LETTER_PX, _GAP_PX, _LINE_PX = 12.0, 8.0, 25.0  # as a phone shows them
_ALONG_PX, _UP_PX = 24.0, 18.0  # how far below the piece, and to its right, the lines run
_NAME_PX = 23.0  # below its name
_TICK_PX = 4.0


def draw(pen: Pen, plan: Plan, piece: AnyPiece, marks: Sequence[Mark], scale: Scale) -> None:
    """Draw a line below the piece and one beside it, marked at each column and row of holes."""
    holes = [mark for mark in marks if mark.where == "wall"]
    if not holes:
        return
    datum, wall, units = plan.datum, plan.wall, plan.units
    x0, y0 = zero(datum, piece, wall)
    box = mount_of(piece).box(piece)
    columns = sorted({round(mark.x_mm, 2) for mark in holes})
    rows = sorted({round(mark.y_mm, 2) for mark in holes})

    below = 0.0 if on_face(piece, scale) else name_at(piece, scale)[1] + _NAME_PX
    y = min(max(scale.y(box.bottom_mm) + _ALONG_PX, below), scale.floor - 22)
    words = [say_across(read(datum, piece, wall, x, 0.0), datum, units) for x in columns]
    sizes = [len(word) * _LETTER_PX + _GAP_PX for word in words]
    pen.line(scale.x(min(x0, columns[0])), y, scale.x(max(x0, columns[-1])), y, "chalk")
    for x in (x0, *columns):
        pen.line(scale.x(x), y - _TICK_PX, scale.x(x), y + _TICK_PX, "chalk")
    edges = (scale.x(0), scale.x(wall.width_mm))
    for x, word, at in zip(
        columns, words, spread([scale.x(x) for x in columns], sizes, *edges), strict=True
    ):
        pen.line(scale.x(x), y + _TICK_PX, at, y + 8, "chalk-thin")
        pen.text(at, y + 19, word, "chalk-words", "middle")

    name = 0.0 if on_face(piece, scale) else name_at(piece, scale)[0] + half_px(piece)
    right = max(scale.x(box.right_mm) + _UP_PX, name)
    side = 1 if right < scale.x(wall.width_mm) - 90 else -1
    x = right if side > 0 else scale.x(box.left_mm) - _UP_PX
    words = [say_up(read(datum, piece, wall, 0.0, row), datum, units) for row in rows]
    pen.line(x, scale.y(y0), x, scale.y(rows[-1]), "chalk")
    for row in (y0, *rows):
        pen.line(x - _TICK_PX, scale.y(row), x + _TICK_PX, scale.y(row), "chalk")
    heights = [_LINE_PX] * len(rows)
    downwards = [scale.y(row) for row in reversed(rows)]
    tops = spread(downwards, heights, scale.y(wall.height_mm), scale.floor)
    for row, word, at in zip(reversed(rows), reversed(words), tops, strict=True):
        pen.line(x + side * _TICK_PX, scale.y(row), x + side * 9, at, "chalk-thin")
        pen.text(x + side * 12, at + 4, word, "chalk-words", "start" if side > 0 else "end")
