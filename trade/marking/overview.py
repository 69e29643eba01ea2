"""The wall drawn to scale for paper.

All of it with every piece by its number, and each piece close up with its holes measured.

As in `template`, in mm of the wall; `per` is the scale that it will be printed at, so that letters
come out at one size on paper.
"""

from itertools import pairwise

from trade.language import compose
from trade.marking.marks import Mark, marks_from_beside, piece_marks
from trade.marking.reading import read, say_across, say_up, zero
from trade.marking.spread import spread
from trade.marking.template import Circle, Drawing, Layer, Line, Text
from trade.measure import Units, say_length
from trade.mounts import mount_of
from trade.mounts.existing_holes import as_hung
from trade.plan.model import AnyPiece, Plan
from trade.wall.zones import zones

SCALES = (
    1,
    2,
    4,
    5,
    8,
    10,
    12,
    15,
    20,
    25,
    30,
    35,
    40,
    50,
    60,
    75,
    100,
    150,
    200,
    250,
    300,
    400,
    500,
    1000,
    2000,
    5000,
    10_000,
)
LETTERS_MM = 3.9  # on paper: 11 points, to be read at arm's length
_CROSS_MM, _LETTER_SHARE, _GAP_MM = 2.4, 0.62, 2.0
_DIMENSIONS_MM = 16.0  # on paper, below a piece and beside it
_BESIDE_MM = 34.0


def scale_for(wide_mm: float, high_mm: float, room: tuple[float, float]) -> int:
    """Return the largest usual scale at which so much goes into a room on paper; n of 1 : n."""
    return next(
        (n for n in SCALES if wide_mm / n <= room[0] and high_mm / n <= room[1]), SCALES[-1]
    )


def overview(plan: Plan, units: Units, per: float) -> Drawing:
    """Return the whole wall.

    Its studs, what must not be drilled, every piece with its number, a cross at every hole.
    """
    wall = plan.wall
    wide, high = wall.width_mm, wall.height_mm
    lines = _box("FRAME", 0.0, 0.0, wide, high)
    texts: list[Text] = []
    letters = LETTERS_MM * per
    for stud in wall.uprights:
        lines.append(Line("STUDS", stud.centre_mm, 0.0, stud.centre_mm, high))
    for feature in wall.features:
        lines += _box("AVOID", feature.left_mm, feature.bottom_mm, feature.right_mm, feature.top_mm)
    for zone in zones(wall):
        if zone.bars == "drilling" and zone.level == "keep_out":
            left = max(zone.left_mm, 0.0)
            right = min(zone.right_mm, wide)
            low = max(zone.bottom_mm, 0.0)
            top = min(zone.top_mm, high)
            lines += [Line("AVOID", left, low, right, top), Line("AVOID", left, top, right, low)]
    for number, planned in enumerate(plan.pieces, start=1):
        piece = as_hung(
            planned, plan.as_built
        )  # what hangs is drawn where it hangs, with the holes that it has
        lines += _outlines(piece)
        for mark in _holes(piece, plan, units):
            lines += _cross(mark.x_mm, mark.y_mm, per)
        texts.append(
            Text("WORDS", piece.left_mm + 1.0 * per, piece.top_mm + 1.2 * per, letters, str(number))
        )
    for mark in marks_from_beside(plan):
        lines += _cross(mark.x_mm, mark.y_mm, per)
    return Drawing(plan.faced_name, 0.0, 0.0, wide, high, tuple(lines), (), tuple(texts))


def close_up(piece: AnyPiece, plan: Plan, units: Units, per: float) -> Drawing:
    """One piece with its holes by their numbers, measured from the datum.

    Across below it, up beside it.
    """
    wall, holes = plan.wall, _holes(piece, plan, units)
    box = mount_of(piece).box(piece)
    left = min([box.left_mm, *(mark.x_mm for mark in holes)])
    right = max([box.right_mm, *(mark.x_mm for mark in holes)])
    bottom = min([box.bottom_mm, *(mark.y_mm for mark in holes)])
    top = max([box.top_mm, *(mark.y_mm for mark in holes)])
    end, below = right + _BESIDE_MM * per, bottom - _DIMENSIONS_MM * per
    lines, letters = _outlines(piece), LETTERS_MM * per
    for stud in wall.uprights:
        if left <= stud.centre_mm <= right:
            lines.append(
                Line("STUDS", stud.centre_mm, bottom - 4 * per, stud.centre_mm, top + 3 * per)
            )
    circles, texts = [], []
    for mark in holes:
        circles.append(Circle("HOLES", mark.x_mm, mark.y_mm, mark.bit_mm or 2.0))
        lines += _cross(mark.x_mm, mark.y_mm, per)
    texts += _numbers(holes, letters, per)
    datum = plan.datum
    columns = sorted({round(mark.x_mm, 2) for mark in holes})
    rows = sorted({round(mark.y_mm, 2) for mark in holes})
    y = bottom - 5 * per
    said = [say_across(read(datum, piece, wall, x, 0.0), datum, units) for x in columns]
    wides = [len(words) * letters * _LETTER_SHARE + _GAP_MM * per for words in said]
    for x, words, at, size in zip(
        columns, said, spread(columns, wides, left, end), wides, strict=True
    ):
        lines += [
            Line("LEVEL", x, y + 1.5 * per, x, y - 1.5 * per),
            Line("CENTRES", x, y - 1.5 * per, at, y - 4 * per),
        ]
        texts.append(
            Text("WORDS", at - size / 2 + _GAP_MM / 2 * per, y - 8.5 * per, letters, words)
        )
    if columns:
        lines.append(Line("LEVEL", columns[0], y, columns[-1], y))
    x = right + 4 * per
    said = [say_up(read(datum, piece, wall, 0.0, row), datum, units) for row in rows]
    for row, words, at in zip(
        rows,
        said,
        spread(rows, [letters * 1.35] * len(rows), bottom, max(top, bottom + 8 * per)),
        strict=True,
    ):
        lines += [
            Line("LEVEL", x - 1.5 * per, row, x + 1.5 * per, row),
            Line("CENTRES", x + 1.5 * per, row, x + 4 * per, at),
        ]
        texts.append(Text("WORDS", x + 5 * per, at - letters * 0.36, letters, words))
    if rows:
        lines.append(Line("LEVEL", x, rows[0], x, rows[-1]))
    zero_x, zero_y = zero(datum, piece, wall)
    name = compose(
        "{piece}, from {zero_x} across and {zero_y} up",
        piece=piece.name,
        zero_x=say_length(zero_x, units),
        zero_y=say_length(zero_y, units),
    )
    return Drawing(
        name, left - 2 * per, below, end, top + 7 * per, tuple(lines), tuple(circles), tuple(texts)
    )


def room_for(piece: AnyPiece, plan: Plan, units: Units, room: tuple[float, float]) -> int:
    """Return the scale of a close-up in a room on paper."""
    for n in SCALES:
        drawing = close_up(piece, plan, units, n)
        if drawing.wide / n <= room[0] and drawing.high / n <= room[1]:
            return n
    return SCALES[-1]


def _numbers(holes: list[Mark], letters: float, per: float) -> list[Text]:
    """Numbers beside the holes; of holes that stand close, the first and the last."""
    texts, near = [], letters * 1.1
    for mark in holes:
        crowd = [
            each for each in holes if each.x_mm == mark.x_mm and abs(each.y_mm - mark.y_mm) < near
        ]
        if len(crowd) == 1 or mark is crowd[0]:
            said = str(mark.number) if len(crowd) == 1 else f"{crowd[0].number}–{crowd[-1].number}"
            texts.append(Text("WORDS", mark.x_mm + 1.8 * per, mark.y_mm + 0.8 * per, letters, said))
    return texts


def _holes(piece: AnyPiece, plan: Plan, units: Units) -> list[Mark]:
    return [
        mark
        for mark in piece_marks(piece, plan.wall, units, plan.policy.lead_holes)
        if mark.where == "wall"
    ]


def _outlines(piece: AnyPiece) -> list[Line]:
    found = []
    for shape in mount_of(piece).front(piece):
        if shape.role not in ("shade", "hidden"):
            found += [Line("PIECE", *a, *b) for a, b in pairwise([*shape.points, shape.points[0]])]
    return found


def _box(layer: Layer, left: float, bottom: float, right: float, top: float) -> list[Line]:
    corners = [(left, bottom), (right, bottom), (right, top), (left, top), (left, bottom)]
    return [Line(layer, *a, *b) for a, b in pairwise(corners)]


def _cross(x: float, y: float, per: float) -> list[Line]:
    half = _CROSS_MM / 2 * per
    return [Line("CENTRES", x - half, y, x + half, y), Line("CENTRES", x, y - half, x, y + half)]
