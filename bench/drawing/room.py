"""A place as a whole: its walls unfolded side by side, in depth, and from above.

All three are made of the same shapes: the bodies of the pieces where they stand in the room.
"""

from collections.abc import Iterable, Sequence
from itertools import pairwise
from math import cos, radians, sin
from typing import NamedTuple

from django.urls import reverse
from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from bench.drawing.elevation import Sheet, beside_outline
from bench.drawing.scale import HEIGHT, WIDTH, Scale
from bench.drawing.svg import Pen, outline
from bench.wall_address import WallAddress
from bench.words import worded
from trade.check import Outcome
from trade.language import Figure
from trade.measure import Units, say_length
from trade.mounts import mount_of
from trade.mounts.in_room import Body, Standing, against, furniture, standing
from trade.plan.ground import Point, Polygon, Stand, stands
from trade.plan.model import Plan
from trade.plan.place import faced

_TURN_DEG, _TILT_DEG = 24.0, 24.0
_EDGE, _GAP = 14.0, 30.0  # px: round it all, and between walls side by side
_NAMES_PX, _ANGLES_PX = 34.0, 20.0  # under the walls, and over the corners
_HIGH = 640.0  # px: the sheet
_NARROW = 1.7  # widths of all walls over their height
_STUD_MM = 89.0
_JAMB_MM = 40.0
_LABEL_PX = 44.0  # a wall that is shorter from above bears no width
_SIDEWAYS = 0.5  # of a wall's outside: more to the side than up
Box = tuple[float, float, float, float]


class Eye(NamedTuple):
    """From where a room is seen in depth: turned to one side, tilted from above."""

    turn_deg: float = _TURN_DEG
    tilt_deg: float = _TILT_DEG

    def seen(self, x: float, y: float, z: float) -> Point:
        """Return where a place in the room is on the sheet, mm across and down."""
        turn, tilt = radians(self.turn_deg), radians(self.tilt_deg)
        return (
            x * cos(turn) + y * sin(turn),
            self.near(x, y) * sin(tilt) - z * cos(tilt),
        )

    def near(self, x: float, y: float) -> float:
        """How far a place is towards the eye."""
        turn = radians(self.turn_deg)
        return y * cos(turn) - x * sin(turn)

    def faces(self, stand: Stand) -> bool:
        """Whether one sees the side of a wall that is in the room."""
        (x0, y0), (x1, y1) = stand.at(0.0, 0.0), stand.at(0.0, 1.0)
        return self.near(x1 - x0, y1 - y0) > 0


def draw(plan: Plan, outcomes: dict[str, Outcome], units: Units, pk: int) -> Sheet:
    """Draw a place on one sheet: its walls unfolded, beside or under them in depth and from above.

    Args:
        plan: the place.
        outcomes: the word on each piece, by its key.
        units: of the person.
        pk: number of the wall's record: every wall is a link to it.
    """
    pen, every = Pen(), faced(plan)
    seen = every[len(every) // 2]  # one looks at the middle wall, whichever one works on
    walls, bodies = stands(seen), standing(seen)
    rooms = _rooms(walls)
    scale = _unfolded(pen, plan, outcomes, units, pk, rooms.unfolded)
    _axonometric(pen, _in_depth(seen, walls, bodies, outcomes), rooms.depth)
    _from_above(pen, seen, walls, bodies, units, rooms.above)
    return Sheet(pen.markup(), scale, _HIGH)


def small(plan: Plan, outcomes: dict[str, Outcome], units: Units) -> SafeString:
    """Draw the walls of a place side by side, to tell it from other walls."""
    pen = Pen()
    _unfolded(pen, plan, outcomes, units, None, (_EDGE, 0.0, WIDTH - _EDGE, HEIGHT))
    return pen.markup()


class _Rooms(NamedTuple):
    """Where each view is on the sheet."""

    unfolded: Box
    depth: Box
    above: Box


def _rooms(walls: Sequence[Stand]) -> _Rooms:
    """Return the views beside each other for a narrow place, under each other for a wide one."""
    shape = sum(wall.width_mm for wall in walls) / max(wall.height_mm for wall in walls)
    if shape < _NARROW:
        split, half = WIDTH * 0.56, _HIGH * 0.62
        return _Rooms(
            (_EDGE, 0.0, split - _EDGE, _HIGH),
            (split, _EDGE, WIDTH - _EDGE, half),
            (split, half, WIDTH, _HIGH),
        )
    split, half = WIDTH * 0.5, _HIGH * 0.5
    return _Rooms(
        (_EDGE, 0.0, WIDTH - _EDGE, half),
        (_EDGE, half, split, _HIGH - _EDGE),
        (split, half, WIDTH, _HIGH),
    )


def unfolded_at(plan: Plan, room: Box) -> dict[str, Scale]:
    """Return where each wall is on the sheet, side by side, by its key."""
    walls, (left, top, right, bottom) = stands(plan), room
    wide, gaps = sum(wall.width_mm for wall in walls), _GAP * (len(walls) - 1)
    tall = max(wall.height_mm for wall in walls)
    px = min((right - left - gaps) / wide, (bottom - top - _NAMES_PX - _ANGLES_PX) / tall)
    x = (left + right - wide * px - gaps) / 2
    found = {}
    for wall in walls:
        found[wall.key] = Scale(px, x, top + _ANGLES_PX + tall * px)
        x += wall.width_mm * px + _GAP
    return found


def _unfolded(
    pen: Pen, plan: Plan, outcomes: dict[str, Outcome], units: Units, pk: int | None, room: Box
) -> Scale:
    every, where = faced(plan), unfolded_at(plan, room)
    bodies, walls = standing(plan), {stand.key: stand for stand in stands(plan)}
    for each in every:
        scale, here = where[each.at], each.at == plan.at
        wall = each.wall
        left, top = scale.x(0), scale.y(wall.height_mm)
        wide, high = scale.length(wall.width_mm), scale.length(wall.height_mm)
        css = "room-wall" + (" room-here" if here else "")
        leads = None if pk is None else reverse("stage", args=[WallAddress(pk, each.at), "survey"])
        with pen.group(css) if leads is None else pen.link(leads, css):
            pen.title(worded("{wall}: work on this wall", wall=each.faced_name))
            kind = "mass" if wall.build == "mass" else "lined"
            pen.rect(left, top, wide, high, f"wall wall-{kind}")
            for stud in wall.uprights:
                at = scale.x(stud.centre_mm - stud.width_mm / 2)
                pen.rect(at, top, scale.length(stud.width_mm), high, "room-stud")
            for feature in wall.features:
                pen.rect(
                    scale.x(feature.left_mm),
                    scale.y(feature.top_mm),
                    scale.length(feature.right_mm - feature.left_mm),
                    scale.length(feature.top_mm - feature.bottom_mm),
                    "room-feature room-off" if feature.row.keep == "off" else "room-feature",
                )
            for piece in each.pieces:
                with pen.group(f"piece-{outcomes[piece.key]}"):
                    for shape in mount_of(piece).front(piece):
                        if shape.every_mm:
                            continue  # too small to be seen from so far
                        places = [(scale.x(x), scale.y(y)) for x, y in shape.points]
                        pen.path(outline(places), f"shape-{shape.role}")
            for box in against(bodies, walls[each.at]):
                beside_outline(pen, box, scale)
            foot = scale.y(0)
            pen.text(left + wide / 2, foot + 15, each.faced_name, "room-name", "middle")
            said = say_length(wall.width_mm, units)
            pen.text(left + wide / 2, foot + 30, said, "quiet", "middle")
    high = _ANGLES_PX + room[1]
    for (one, other), corner in zip(pairwise(every), plan.corners, strict=True):
        end = where[one.at].x(one.wall.width_mm)
        x = (end + where[other.at].x(0)) / 2
        floor = where[one.at].floor
        pen.line(x, high, x, floor, "room-corner")
        said = worded("{angle}°", angle=Figure(f"{corner.angle_deg:.4g}"))
        pen.text(x, high - 6, said, "room-angle", "middle")
    return where[plan.at]


class _Face(NamedTuple):
    """A face of a body or a wall: how near it is, its outline on the sheet, its class.

    `role`: of a body: what it is made of; else `side`, `stud` or `floor`.
    """

    near: float
    points: Polygon
    css: str
    role: str


class InDepth(NamedTuple):
    """A place seen in depth: faces in the order in which they are drawn, and edges to be dashed."""

    faces: list[_Face]
    edges: list[Polygon]

    def fit(self, room: Box) -> "_Fit":
        """Return where it is on a sheet, as large as it can be in a room."""
        every = (*(face.points for face in self.faces), *self.edges)
        return _fit([place for points in every for place in points], room)


def in_depth(plan: Plan, outcomes: dict[str, Outcome]) -> InDepth:
    """Return a place in depth, seen towards its middle wall.

    Args:
        plan: the place.
        outcomes: the word on each piece, by its key.
    """
    every = faced(plan)
    seen = every[len(every) // 2]
    return _in_depth(seen, stands(seen), standing(seen), outcomes)


def _in_depth(
    plan: Plan,
    walls: Sequence[Stand],
    bodies: Sequence[Standing],
    outcomes: dict[str, Outcome],
) -> InDepth:
    """Return what is far first; walls between the eye and the room only by their edges."""
    eye = Eye()

    def sheet_of(wall: Stand) -> Polygon:
        return _upright(eye, *wall.ends, (0.0, wall.height_mm))

    faces: list[_Face] = []
    for each, wall in zip(faced(plan), walls, strict=True):
        if eye.faces(wall):
            faces.append(_Face(0.0, sheet_of(wall), "room-side", "side"))
            for stud in each.wall.uprights:
                ends = (stud.centre_mm - stud.width_mm / 2, stud.centre_mm + stud.width_mm / 2)
                strip = _upright(eye, wall.at(ends[0]), wall.at(ends[1]), (0.0, wall.height_mm))
                faces.append(_Face(0.0, strip, "room-faint-stud", "stud"))
    floor = tuple(place for wall in walls for place in wall.ends)
    ground = _Face(0.0, tuple(eye.seen(x, y, 0.0) for x, y in floor), "room-floor", "floor")
    middles = {wall.key: eye.near(*wall.at(wall.width_mm / 2)) for wall in walls}
    made: list[_Face] = []
    for hung in sorted(bodies, key=lambda one: (middles[one.wall], _foot(one))):
        for body in sorted(hung.bodies, key=lambda one: (one.bottom_mm, _far(eye, one))):
            if body.role != "shade":
                made += _prism(eye, body, f"piece-{outcomes[hung.piece.key]}")
    for body in furniture(plan):
        made += _prism(eye, body, "room-furniture")
    edges = [sheet_of(wall) for wall in walls if not eye.faces(wall)]
    return InDepth([ground, *faces, *made], edges)


def _axonometric(pen: Pen, seen: InDepth, room: Box) -> None:
    """Draw a place in depth."""
    fit = seen.fit(room)
    for face in seen.faces:
        pen.path(outline(fit(*p) for p in face.points), face.css)
    for edge in seen.edges:
        pen.path(outline(fit(*p) for p in edge), "room-hidden")


def _foot(hung: Standing) -> float:
    return min(body.bottom_mm for body in hung.bodies)


def _far(eye: Eye, body: Body) -> float:
    return min(eye.near(x, y) for x, y in body.outline)


def _upright(eye: Eye, one: Point, other: Point, span: tuple[float, float]) -> Polygon:
    low, high = span
    return (
        eye.seen(*one, low),
        eye.seen(*other, low),
        eye.seen(*other, high),
        eye.seen(*one, high),
    )


def _prism(eye: Eye, body: Body, css: str) -> list[_Face]:
    """Return the sides of a body that one sees, the far ones first, and its top."""
    found, ring = [], body.outline
    turned = sum(x0 * y1 - x1 * y0 for (x0, y0), (x1, y1) in pairwise((*ring, ring[0])))
    for (x0, y0), (x1, y1) in pairwise((*ring, ring[0])):
        out = (y1 - y0, x0 - x1) if turned > 0 else (y0 - y1, x1 - x0)
        if eye.near(*out) > 0:
            near = eye.near((x0 + x1) / 2, (y0 + y1) / 2)
            points = _upright(eye, (x0, y0), (x1, y1), (body.bottom_mm, body.top_mm))
            found.append(_Face(near, points, f"room-body room-{body.role} {css}", body.role))
    found.sort(key=lambda face: face.near)
    top = tuple(eye.seen(x, y, body.top_mm) for x, y in ring)
    return [*found, _Face(0.0, top, f"room-body room-top room-{body.role} {css}", body.role)]


def _fit(points: Iterable[Point], room: Box) -> "_Fit":
    across, down = zip(*points, strict=True)
    left, top, right, bottom = room
    px = min(
        (right - left) / max(max(across) - min(across), 1.0),
        (bottom - top) / max(max(down) - min(down), 1.0),
    )
    return _Fit(
        px,
        (left + right - (min(across) + max(across)) * px) / 2,
        (top + bottom - (min(down) + max(down)) * px) / 2,
    )


class _Fit(NamedTuple):
    """From mm to the sheet, in the middle of its room."""

    px: float
    left: float
    top: float

    def __call__(self, x: float, y: float) -> Point:
        return self.left + x * self.px, self.top + y * self.px


def _from_above(
    pen: Pen,
    plan: Plan,
    walls: Sequence[Stand],
    bodies: Sequence[Standing],
    units: Units,
    room: Box,
) -> None:
    """Draw it from above: walls with their studs, and every board where it stands."""
    left, top, right, bottom = room
    thick = {each.at: (each.wall.lining_mm or 0.0, _STUD_MM) for each in faced(plan)}
    every = [wall.at(x, y) for wall in walls for x in (0.0, wall.width_mm) for y in (0.0, -120.0)]
    every += [place for each in bodies for body in each.bodies for place in body.outline]
    every += [place for body in furniture(plan) for place in body.outline]
    if plan.opening is not None:
        widest = max(walls, key=lambda one: one.width_mm)
        every.append(widest.at(0.0, plan.opening.away_mm + _JAMB_MM))
    fit = _fit(every, (left + 54, top + 34, right - 54, bottom - 24))
    pen.text(left + 14, top + 12, _("From above"), "room-name")
    for each, wall in zip(faced(plan), walls, strict=True):
        lining, deep = thick[each.at]
        if each.wall.build == "mass":
            deep, lining = deep + lining, 0.0
            _flat(pen, fit, wall, (0, wall.width_mm), (-deep, 0.0), "room-mass")
            continue
        for stud in each.wall.uprights:
            ends = stud.centre_mm - stud.width_mm / 2, stud.centre_mm + stud.width_mm / 2
            _flat(pen, fit, wall, ends, (-lining - deep, -lining), "room-stud")
        _flat(pen, fit, wall, (0, wall.width_mm), (-max(lining, 12.0), 0.0), "room-lining")
    _way_in(pen, fit, plan, walls, units)
    for hung in sorted(bodies, key=lambda one: one.piece.top_mm):
        for body in hung.bodies:
            if body.role in ("board", "face"):
                pen.path(outline(fit(*place) for place in body.outline), "room-flat")
    for body in furniture(plan):
        pen.path(outline(fit(*place) for place in body.outline), "room-furniture")
    for wall in walls:
        if wall.width_mm * fit.px < _LABEL_PX:
            continue  # it stands in the list
        (x, y), (over, down) = fit(*wall.at(wall.width_mm / 2, -_STUD_MM)), wall.at(0.0, -1.0)
        across = over - wall.x_mm
        anchor = "middle" if abs(across) < _SIDEWAYS else "end" if across < 0 else "start"
        y += 5 if abs(across) >= _SIDEWAYS else -8 if down < wall.y_mm else 16
        pen.text(x + 6 * across, y, say_length(wall.width_mm, units), "quiet", anchor)


def _way_in(pen: Pen, fit: _Fit, plan: Plan, walls: Sequence[Stand], units: Units) -> None:
    """Draw the way in: what is closed beside it, and how wide it is."""
    if plan.opening is None:
        return
    wall, away = max(walls, key=lambda one: one.width_mm), plan.opening.away_mm
    beside = max(wall.width_mm - plan.opening.width_mm, 0.0) / 2
    for start, end in ((0.0, beside), (wall.width_mm - beside, wall.width_mm)):
        _flat(pen, fit, wall, (start, end), (away, away + _JAMB_MM), "room-lining")
    x, y = fit(*wall.at(wall.width_mm / 2, away))
    said = worded("way in {width}", width=say_length(plan.opening.width_mm, units))
    pen.text(x, y + 5, said, "room-angle", "middle")


def _flat(
    pen: Pen, fit: _Fit, wall: Stand, along: tuple[float, float], out: tuple[float, float], css: str
) -> None:
    (left, right), (back, front) = along, out
    corners = ((left, back), (right, back), (right, front), (left, front))
    pen.path(outline(fit(*wall.at(*corner)) for corner in corners), css)
