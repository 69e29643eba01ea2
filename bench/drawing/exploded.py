"""A body taken apart: every board drawn away from the middle, with the label of its part.

One looks from the front, from the right and from above.
"""

from collections.abc import Callable, Iterator, Sequence
from math import cos, radians, sin
from typing import NamedTuple

from django.utils.safestring import SafeString

from bench.drawing.svg import Pen, outline, svg_element
from trade.cutting.parts import Labelled
from trade.language import compose, joined
from trade.workshop.panels import ALONG, OUT, UP, Axis, Block, Panel, Point

_TURN, _TILT = radians(28.0), radians(22.0)
_APART = (0.42, 0.5, 0.9)  # of its distance from the middle, along, up and out
_WIDE_PX, _HIGH_PX = 338.0, 400.0  # as wide as the panel
_LETTER_PX, _LINE_PX = 7.4, 14.0
_SAME_MM = 1e-6
Place = tuple[float, float]
_Room = tuple[float, float, float, float]
# which corners bound the three faces that are seen: the axis of each, and its way round
_FACES: tuple[tuple[Axis, str], ...] = ((UP, "top"), (ALONG, "side"), (OUT, "front"))


class _Moved(NamedTuple):
    """A board where it is drawn: how far it was moved from its place."""

    label: str
    panel: Panel
    by: Point

    def low(self, axis: Axis) -> float:
        return self.panel.body.low[axis] + self.by[axis]

    def high(self, axis: Axis) -> float:
        return self.panel.body.high[axis] + self.by[axis]


class Face(NamedTuple):
    """A face that is seen: of which side, or what is cut into it; its outline on the sheet."""

    of: str
    points: list[Place]


class TakenApart(NamedTuple):
    """A drawing of a body taken apart: its size, what is furthest behind first, and its words."""

    wide: float
    high: float
    faces: list[Face]
    labels: list[tuple[float, float, str]]


def taken_apart(
    boards: Sequence[Labelled], wide: float, high: float, letter: float, line: float
) -> TakenApart:
    """Return a body taken apart, as large as it can be on a sheet.

    Args:
        boards: each with the label of its part on the cut list.
        wide: of the sheet, in its own units.
        high: of the sheet.
        letter: width of a letter of the labels.
        line: height of a label.
    """
    moved = _in_order(_apart(boards))
    places = [_seen(_at(each, corner)) for each in moved for corner in each.panel.corners()]
    across, down = zip(*places, strict=True)
    spread, depth = max(across) - min(across), max(down) - min(down)
    px = min((wide - 2 * line) / spread, (high - 2 * line) / depth)

    def on_sheet(place: Point) -> Place:
        x, y = _seen(place)
        return (x - min(across)) * px + line, (y - min(down)) * px + line

    faces = [face for each in moved for face in _faces(each, on_sheet)]
    labels, taken = list[tuple[float, float, str]](), list[_Room]()
    for each in reversed(moved):  # the nearest first: it keeps its place
        x, y = _free(on_sheet(_middle(each)), len(each.label) * letter, line, taken)
        labels.append((x, y, each.label))
    return TakenApart(spread * px + 2 * line, depth * px + 2 * line, faces, labels)


def exploded(name: str, boards: Sequence[Labelled]) -> SafeString:
    """Draw a body taken apart.

    Args:
        name: of the piece.
        boards: each with the label of its part on the cut list.
    """
    pen, drawn = Pen(), taken_apart(boards, _WIDE_PX, _HIGH_PX, _LETTER_PX, _LINE_PX)
    for face in drawn.faces:
        pen.path(outline(face.points), f"exploded-{face.of}")
    for x, y, label in drawn.labels:
        pen.text(x, y + _LINE_PX / 3, label, "exploded-label", "middle")
    title = compose(
        "{name} taken apart: {parts}",
        name=name,
        parts=joined(
            [compose("{label} {part}", label=label, part=panel.name) for label, panel in boards]
        ),
    )
    return svg_element(pen, drawn.wide, drawn.high, "exploded", title)


def _apart(boards: Sequence[Labelled]) -> list[_Moved]:
    blocks = [each.panel.body for each in boards]
    middle = [
        (min(b.low[axis] for b in blocks) + max(b.high[axis] for b in blocks)) / 2
        for axis in (ALONG, UP, OUT)
    ]
    found = []
    for each in boards:
        body = each.panel.body
        by = [
            _APART[axis] * ((body.low[axis] + body.high[axis]) / 2 - middle[axis])
            for axis in (ALONG, UP, OUT)
        ]
        found.append(_Moved(each.label, each.panel, (by[0], by[1], by[2])))
    return found


def _in_order(boards: list[_Moved]) -> list[_Moved]:
    """Return what hides nothing of the others first."""
    left, found = list(boards), list[_Moved]()
    while left:
        free = [
            one for one in left if not any(_hides(one, other) for other in left if other is not one)
        ]
        found += free or left[:1]
        left = [each for each in left if each not in found]
    return found


def _hides(one: _Moved, other: _Moved) -> bool:
    """Whether one may hide a part of the other: in no direction it is wholly behind it."""
    axes: tuple[Axis, ...] = (ALONG, UP, OUT)
    return not any(one.high(axis) <= other.low(axis) + _SAME_MM for axis in axes)


def _seen(place: Point) -> Place:
    """Return where a place is on the sheet, mm across and down."""
    x, y, z = place
    near = z * cos(_TURN) + x * sin(_TURN)
    return x * cos(_TURN) - z * sin(_TURN), near * sin(_TILT) - y * cos(_TILT)


def _at(board: _Moved, place: Point) -> Point:
    x, y, z = (place[axis] + board.by[axis] for axis in (ALONG, UP, OUT))
    return x, y, z


def _middle(board: _Moved) -> Point:
    """Return the middle of its largest visible face."""
    body = board.panel.body
    low, high = list(body.low), body.high
    low[board.panel.thin] = high[board.panel.thin]
    x, y, z = ((low[axis] + high[axis]) / 2 for axis in (ALONG, UP, OUT))
    return _at(board, (x, y, z))


def _faces(board: _Moved, on_sheet: Callable[[Point], Place]) -> Iterator[Face]:
    corners = board.panel.corners()
    for axis, name in _FACES:
        one, other = (each for each in (ALONG, UP, OUT) if each != axis)
        ring = [1 << axis | a << one | b << other for a, b in ((0, 0), (1, 0), (1, 1), (0, 1))]
        yield Face(name, [on_sheet(_at(board, corners[n])) for n in ring])
        for each in board.panel.taken:
            if abs(each.high[axis] - board.panel.body.high[axis]) < _SAME_MM:
                yield Face("cut", [on_sheet(_at(board, place)) for place in _face(each, axis)])


def _face(taken: Block, axis: Axis) -> list[Point]:
    """Return the mouth of what is taken out of a face."""
    one, other = (each for each in (ALONG, UP, OUT) if each != axis)
    found = []
    for a, b in ((0, 0), (1, 0), (1, 1), (0, 1)):
        at = list(taken.high)
        at[one], at[other] = (taken.low, taken.high)[a][one], (taken.low, taken.high)[b][other]
        found.append((at[0], at[1], at[2]))
    return found


def _free(place: Place, wide: float, line: float, taken: list[_Room]) -> Place:
    """Return the nearest place, up or down, where no other label is; and keep it."""
    x, y = place
    for step in (0, 1, -1, 2, -2, 3, -3):
        low = y + (step - 0.5) * line
        here = (x - wide / 2, low, x + wide / 2, low + line)
        if not any(
            here[0] < b[2] and b[0] < here[2] and here[1] < b[3] and b[1] < here[3] for b in taken
        ):
            taken.append(here)
            return x, y + step * line
    return place
