"""Drawings at true size, in mm, on layers.

A piece's drilling template, and the story sticks to copy onto a lath.

Nothing here knows paper or file formats: those who print and export replay what was drawn. x to the
right, y up.
"""

from itertools import pairwise
from typing import Literal, NamedTuple

from trade.fixings.support import Support
from trade.language import compose, joined, word
from trade.marking.marks import Mark, piece_marks
from trade.marking.reading import read, say_across, say_up, zero
from trade.measure import Units, say_bit, say_length
from trade.mounts import mount_of
from trade.mounts.existing_holes import as_mounted
from trade.plan.datum import Datum
from trade.plan.facing import Neighbour, beside
from trade.plan.flatness import Side
from trade.plan.model import AnyPiece, Plan
from trade.wall.scribing import fitted

Layer = Literal["HOLES", "CENTRES", "PIECE", "STUDS", "AVOID", "LEVEL", "WORDS", "FRAME"]
LAYERS: tuple[Layer, ...] = (
    "HOLES",
    "CENTRES",
    "PIECE",
    "STUDS",
    "AVOID",
    "LEVEL",
    "WORDS",
    "FRAME",
)
_CROSS_MM, _MARGIN_MM, _WORDS_MM = 6.0, 12.0, 3.2
_AROUND_MM = 45.0
_NEAR_MM = 150.0
_STICK_MM, _TICK_MM = 52.0, 8.0


class Line(NamedTuple):
    """A straight line."""

    layer: Layer
    x1: float
    y1: float
    x2: float
    y2: float


class Circle(NamedTuple):
    """A circle by its middle and its diameter."""

    layer: Layer
    x: float
    y: float
    diameter: float


class Text(NamedTuple):
    """Words that begin at a place; `high`: of their letters; `turn`: degrees, against the clock."""

    layer: Layer
    x: float
    y: float
    high: float
    words: str
    turn: float = 0.0


class Drawing(NamedTuple):
    """A named drawing within a rectangle from (left, bottom) to (right, top), mm."""

    name: str
    left: float
    bottom: float
    right: float
    top: float
    lines: tuple[Line, ...]
    circles: tuple[Circle, ...]
    texts: tuple[Text, ...]

    @property
    def wide(self) -> float:
        """From left to right."""
        return self.right - self.left

    @property
    def high(self) -> float:
        """From bottom to top."""
        return self.top - self.bottom


def template(piece: AnyPiece, plan: Plan, units: Units) -> Drawing:
    """Return the wall's holes for a piece at true size, with outline, studs and a level line."""
    wall, piece = plan.wall, fitted(piece, plan.wall)
    box = mount_of(piece).box(piece)
    holes = [
        mark
        for mark in piece_marks(piece, wall, units, plan.policy.lead_holes)
        if mark.where == "wall"
    ]
    left = min([box.left_mm, *(mark.x_mm for mark in holes)]) - _MARGIN_MM
    right = max([box.right_mm, *(mark.x_mm for mark in holes)]) + _MARGIN_MM
    bottom = min([box.bottom_mm, *(mark.y_mm for mark in holes)]) - _MARGIN_MM
    top = max([box.top_mm, *(mark.y_mm for mark in holes)]) + _MARGIN_MM
    lines: list[Line] = []
    texts: list[Text] = []
    for shape in mount_of(piece).front(piece):
        ring = [*shape.points, shape.points[0]]
        lines += [Line("PIECE", *a, *b) for a, b in pairwise(ring)]
    for stud in wall.uprights:
        if left <= stud.centre_mm <= right:
            lines.append(Line("STUDS", stud.centre_mm, bottom, stud.centre_mm, top))
            words = compose("stud, centre at {centre}", centre=say_length(stud.centre_mm, units))
            texts.append(Text("WORDS", stud.centre_mm + 5.5, bottom + 2, _WORDS_MM, words, 90.0))
    lines.append(Line("LEVEL", left, piece.top_mm, right, piece.top_mm))
    texts.append(
        Text(
            "WORDS",
            left + 2,
            piece.top_mm + 1.5,
            _WORDS_MM,
            compose("level: top, {top} up", top=say_length(piece.top_mm, units)),
        )
    )
    circles = [Circle("HOLES", mark.x_mm, mark.y_mm, mark.bit_mm or 2.0) for mark in holes]
    for mark in holes:
        lines += _cross(mark.x_mm, mark.y_mm)
        texts.append(
            Text(
                "WORDS", mark.x_mm + _CROSS_MM, mark.y_mm + 1.5, _WORDS_MM, _hole_words(mark, units)
            )
        )
    return Drawing(piece.name, left, bottom, right, top, tuple(lines), tuple(circles), tuple(texts))


def round_corners(piece: AnyPiece, plan: Plan, units: Units) -> list[Drawing]:
    """Return a template for each wall beside that a piece is screwed to, laid into the corner.

    The corner is its edge: at the right of the wall to the left, at the left of the wall to the
    right. Empty where nothing of it goes round a corner.
    """
    piece = fitted(piece, plan.wall)
    marks = piece_marks(piece, plan.wall, units, plan.policy.lead_holes)
    found = []
    for side, seats in mount_of(piece).beside(piece, plan.wall).items():
        there = beside(plan.wall, side)
        own = [mark for mark in marks if mark.side == side and mark.corner_mm is not None]
        if there is not None and own:
            found.append(_round_corner(piece, side, there, seats, own, units))
    return found


def _round_corner(
    piece: AnyPiece,
    side: Side,
    there: Neighbour,
    seats: list[Support],
    marks: list[Mark],
    units: Units,
) -> Drawing:
    turned = -1.0 if side == "left" else 1.0
    low, top = seats[0].foot_mm, seats[0].foot_mm + seats[0].height_mm
    reach = turned * piece.depth_mm
    ring = ((0.0, low), (reach, low), (reach, top), (0.0, top), (0.0, low))
    lines = [Line("PIECE", *a, *b) for a, b in pairwise(ring)]
    left, right = min(0.0, reach) - _MARGIN_MM, max(0.0, reach) + _MARGIN_MM
    bottom, high = low - _MARGIN_MM, top + _MARGIN_MM
    lines.append(Line("FRAME", 0.0, bottom, 0.0, high))
    lines.append(Line("LEVEL", left, top, right, top))
    said = compose("level: {top} up; the corner is at the thick edge", top=say_length(top, units))
    texts = [Text("WORDS", left + 2, top + 1.5, _WORDS_MM, said)]
    for stud in there.wall.uprights:
        place = turned * there.along_mm(side, stud.centre_mm)
        if left <= place <= right:
            lines.append(Line("STUDS", place, bottom, place, high))
    circles = []
    for mark in marks:
        x = turned * (mark.corner_mm or 0.0)
        circles.append(Circle("HOLES", x, mark.y_mm, mark.bit_mm or 2.0))
        lines += _cross(x, mark.y_mm)
        words = _hole_words(mark, units)
        texts.append(Text("WORDS", x + _CROSS_MM, mark.y_mm + 1.5, _WORDS_MM, words))
    name = compose("{piece}, on “{wall}”", piece=piece.name, wall=there.name)
    return Drawing(name, left, bottom, right, high, tuple(lines), tuple(circles), tuple(texts))


def by_support(piece: AnyPiece, plan: Plan, units: Units) -> list[Drawing]:
    """Return the template cut up.

    What is around each support's holes, to be laid on the wall one by one by its level line.
    """
    whole = template(piece, plan, units)
    holes = [
        mark
        for mark in piece_marks(piece, plan.wall, units, plan.policy.lead_holes)
        if mark.where == "wall"
    ]
    found: list[Drawing] = []
    for support in dict.fromkeys(mark.support for mark in holes):
        own = [mark for mark in holes if mark.support == support]
        left = min(mark.x_mm for mark in own) - _AROUND_MM
        right = max(mark.x_mm for mark in own) + _AROUND_MM
        bottom = min(mark.y_mm for mark in own) - _AROUND_MM
        top = max(mark.y_mm for mark in own) + _AROUND_MM
        lines, texts = whole.lines, whole.texts
        if bottom <= piece.top_mm <= top + _NEAR_MM:
            top = max(top, piece.top_mm + _MARGIN_MM)
        else:
            level = max(mark.y_mm for mark in own)
            lines += (Line("LEVEL", left, level, right, level),)
            texts += (
                Text(
                    "WORDS",
                    left + 2,
                    level + 1.5,
                    _WORDS_MM,
                    compose("level: {level} up", level=say_length(level, units)),
                ),
            )
        words = [
            text
            for text in texts
            if left <= text.x <= right and bottom <= text.y <= top and not text.turn
        ]
        words += [
            text._replace(y=bottom + 2) for text in texts if text.turn and left <= text.x <= right
        ]
        if (
            any(line.layer == "LEVEL" and line.y1 == piece.top_mm for line in lines)
            and bottom <= piece.top_mm <= top
        ):
            words.append(
                Text(
                    "WORDS",
                    left + 2,
                    piece.top_mm + 1.5,
                    _WORDS_MM,
                    compose("level: top, {top} up", top=say_length(piece.top_mm, units)),
                )
            )
        name = joined((piece.name, own[0].part))
        found.append(Drawing(name, left, bottom, right, top, lines, whole.circles, tuple(words)))
    return found


def edge(piece: AnyPiece, plan: Plan, units: Units) -> Drawing | None:
    """Return the piece's back with its holes for rods, pins or dowels, as the drill sees it.

    From its left end and its underside; None where it has no holes. What is on the left at the wall
    is on the right here: the sheet is laid on the back, so its own left end is at the right.
    """
    bores = mount_of(piece).bores(as_mounted(fitted(piece, plan.wall), plan.as_built), plan.wall)
    if not bores:
        return None
    long, high = fitted(piece, plan.wall).length_mm, piece.high_mm
    corners = [(0.0, 0.0), (long, 0.0), (long, high), (0.0, high), (0.0, 0.0)]
    lines = [Line("PIECE", *a, *b) for a, b in pairwise(corners)]
    lines.append(Line("LEVEL", 0.0, bores[0].y_mm, long, bores[0].y_mm))
    texts = [Text("WORDS", 2.0, high + 2, _WORDS_MM, "its right end, seen from the wall; top up")]
    circles = []
    for n, bore in enumerate(bores, start=1):
        x, wide = long - bore.x_mm, bore.bit_mm(units)
        circles.append(Circle("HOLES", x, bore.y_mm, wide))
        lines += _cross(x, bore.y_mm)
        said = compose(
            "{n}: {wide}, stop at {depth}",
            n=n,
            wide=say_bit(wide, units),
            depth=say_length(bore.depth_mm, units),
        )
        texts.append(Text("WORDS", x + _CROSS_MM, bore.y_mm + 1.5, _WORDS_MM, said))
    return Drawing(
        compose("{piece}, its back", piece=piece.name),
        -_MARGIN_MM,
        -_MARGIN_MM,
        long + _MARGIN_MM,
        high + _MARGIN_MM,
        tuple(lines),
        tuple(circles),
        tuple(texts),
    )


def _cross(x: float, y: float) -> list[Line]:
    half = _CROSS_MM / 2
    return [Line("CENTRES", x - half, y, x + half, y), Line("CENTRES", x, y - half, x, y + half)]


def _hole_words(mark: Mark, units: Units) -> str:
    bit = (
        compose(
            "{bit}, {depth} deep",
            bit=say_bit(mark.bit_mm, units),
            depth=say_length(mark.depth_mm, units),
        )
        if mark.bit_mm
        else "no pilot hole"
    )
    return _tick(str(mark.number), bit)


def sticks(
    piece: AnyPiece, plan: Plan, units: Units, datum: Datum | None = None
) -> tuple[Drawing, Drawing]:
    """Two laths to lay along the wall.

    Across and up, with a tick at every place that matters, read from the datum.

    The first runs from the datum, or the piece's left end if that is further left, to its right
    end; the second up likewise.
    """
    datum = datum or plan.datum
    wall, mount, piece = plan.wall, mount_of(piece), fitted(piece, plan.wall)
    holes = [mark for mark in piece_marks(piece, wall, units) if mark.where == "wall"]
    x0, y0 = zero(datum, piece, wall)
    right_mm = piece.left_mm + piece.length_mm
    across = {piece.left_mm: "left end", right_mm: "right end", x0: word("datum")}
    across |= {
        mark.x_mm: compose("holes {numbers}", numbers=_numbers(holes, lambda m: m.x_mm, mark.x_mm))
        for mark in holes
    }
    up = {piece.top_mm: word("top"), piece.top_mm - piece.high_mm: word("underside"), y0: "datum"}
    up |= {
        mark.y_mm: compose("holes {numbers}", numbers=_numbers(holes, lambda m: m.y_mm, mark.y_mm))
        for mark in holes
    }
    first = [
        (x, _tick(what, say_across(read(datum, piece, wall, x, 0.0), datum, units)))
        for x, what in sorted(across.items())
    ]
    second = [
        (y, _tick(what, say_up(read(datum, piece, wall, 0.0, y), datum, units)))
        for y, what in sorted(up.items())
    ]
    noun = mount.piece_noun
    return _stick(compose("{piece}: along the {noun}", piece=piece.name, noun=noun), first), _stick(
        compose("{piece}: up the wall", piece=piece.name), second
    )


def _tick(what: str, place: str) -> str:
    return compose("{what}: {place}", what=what, place=place)


def _numbers(holes: list[Mark], place: object, at: float) -> str:
    same = [mark.number for mark in holes if abs(place(mark) - at) < 0.05]  # type: ignore[operator]
    return ", ".join(map(str, same[:6])) + (" …" if len(same) > 6 else "")


def _stick(name: str, ticks: list[tuple[float, str]]) -> Drawing:
    """Return a lath lying down.

    Its ticks on the lower edge, their words standing on them, close ones moved up in turns.
    """
    start, end = ticks[0][0], ticks[-1][0]
    lines = [Line("FRAME", start, 0.0, end, 0.0), Line("FRAME", start, _STICK_MM, end, _STICK_MM)]
    lines += [Line("FRAME", x, 0.0, x, _STICK_MM) for x in (start, end)]
    texts: list[Text] = []
    for at, words in ticks:
        lines.append(Line("CENTRES", at, 0.0, at, _TICK_MM))
        texts.append(Text("WORDS", at + 4.4, _TICK_MM + 1.0, _WORDS_MM, words, 90.0))
    return Drawing(
        name, start - _MARGIN_MM, 0.0, end + _MARGIN_MM, _STICK_MM, tuple(lines), (), tuple(texts)
    )
