"""What to make of how a wall lies.

Scribe and shims of a shelf, how crooked it will look, how long it is in a niche.
"""

from collections.abc import Sequence
from math import radians, tan
from typing import NamedTuple, TypeVar

import numpy as np
from msgspec.structs import replace

from trade import data
from trade.language import word
from trade.plan.flatness import Flatness, Line, NicheWidth, Point
from trade.plan.model import Piece, Wall

P = TypeVar("P", bound=Piece)
_FAR_MM = data.house("straightedge_far_mm")
_LINES: tuple[Line, ...] = (word("ceiling"), word("floor"))
NEAR_END_MM = data.house("scribe_end_mm")


class Scribe(NamedTuple):
    """The back edge of a shelf against the wall.

    `points_mm`: (from its left end, gap behind its straight back edge); `cut_mm`: the same places,
    how much to take off there so that it follows the wall; `widest_mm`: the widest gap.
    """

    points_mm: tuple[Point, ...]
    cut_mm: tuple[Point, ...]
    widest_mm: float


class End(NamedTuple):
    """A shelf's end against the next wall: how much more it needs at the front edge (less.

    Must be taken off).
    """

    side: str
    front_mm: float

    @property
    def less_mm(self) -> float:
        """What must be taken off."""
        return max(-self.front_mm, 0.0)


class Shim(NamedTuple):
    """What to put behind a support, and how much more at its foot (less.

    At its head) to make the shelf level front to back.
    """

    support: int
    behind_mm: float
    foot_mm: float


class Crooked(NamedTuple):
    """A level shelf against a line that is not.

    `left_mm`, `right_mm`: from the shelf's top to the ceiling at its ends (or from its underside to
    the floor); `eye`: whether people will see it; `split_mm`: raise the end that is further off by
    this, to be as far from level as from the line.
    """

    line: Line
    left_mm: float
    right_mm: float
    eye: bool
    split_mm: float

    @property
    def off_mm(self) -> float:
        """By how much the two ends differ."""
        return abs(self.right_mm - self.left_mm)


class Niche(NamedTuple):
    """A niche's width at a shelf's height, back and front, and the shelf's length, mm."""

    back_mm: float
    front_mm: float
    cut_back_mm: float
    cut_front_mm: float


class Scribing(NamedTuple):
    """All that the wall's lie asks of one shelf; None and empty where nothing was measured."""

    scribe: Scribe | None
    ends: tuple[End, ...]
    shims: tuple[Shim, ...]
    tilt_mm: float | None
    crooked: tuple[Crooked, ...]
    niche: Niche | None

    @property
    def any(self) -> bool:
        """Whether anything was measured here."""
        return bool(
            self.scribe
            or self.ends
            or self.shims
            or self.tilt_mm is not None
            or self.crooked
            or self.niche
        )


def scribing(piece: Piece, wall: Wall, leg_mm: float) -> Scribing:
    """Return what the wall's lie asks of a shelf.

    `leg_mm`: height of what each support presses against the wall with.
    """
    flatness, left = wall.flatness, piece.left_mm
    slope = lean(flatness)
    supports = [left + x for x in piece.supports_mm]
    return Scribing(
        scribe=scribe_of(piece, wall),
        ends=tuple(ends_of(piece, wall)),
        shims=_shims(flatness, supports, piece.top_mm, slope, leg_mm),
        tilt_mm=None if slope is None else -slope * piece.depth_mm,
        crooked=tuple(found for line in _LINES if (found := _crooked(piece, wall, line))),
        niche=niche_of(piece, wall),
    )


def scribe_of(piece: Piece, wall: Wall) -> Scribe | None:
    """Return the back edge of a shelf against the wall; None where nothing was measured."""
    return _scribe(wall.flatness, piece.left_mm, piece.left_mm + piece.length_mm, piece.top_mm)


def lean(flatness: Flatness) -> float | None:
    """How far the wall leans into the room, mm per mm of height, over all plumb readings.

    None when there are none.
    """
    height = sum(plumb.high_mm - plumb.low_mm for plumb in flatness.plumbs)
    return sum(plumb.out_mm for plumb in flatness.plumbs) / height if height else None


def gap_mm(flatness: Flatness, x_mm: float, height_mm: float) -> float | None:
    """Gap under the straightedges at a place: between two heights in proportion.

    None further off than a foot.
    """
    at = [(s.height_mm, _between(s.gaps_mm, x_mm)) for s in flatness.straightedges]
    known = sorted((height, gap) for height, gap in at if gap is not None)
    if not known or not known[0][0] - _FAR_MM <= height_mm <= known[-1][0] + _FAR_MM:
        return None
    return _on(known, height_mm)


def ceiling_mm(wall: Wall, x_mm: float) -> float:
    """Height of the ceiling over a place.

    The wall's height where it is highest, less where it falls.
    """
    points = next((run.points_mm for run in wall.flatness.run_outs if run.line == "ceiling"), None)
    if points is None:
        return wall.height_mm
    return wall.height_mm - max(y for _, y in points) + _on(points, x_mm)


def lowest_ceiling_mm(wall: Wall, left_mm: float, right_mm: float) -> float:
    """Return the least height of the ceiling over a stretch."""
    bends = [
        x
        for run in wall.flatness.run_outs
        if run.line == "ceiling"
        for x, _ in run.points_mm
        if left_mm < x < right_mm
    ]
    return min(ceiling_mm(wall, x) for x in (left_mm, right_mm, *bends))


def _on(points: Sequence[Point], x: float) -> float:
    """Return the value at a place.

    In proportion between two points, as at the last one beyond them.
    """
    return float(np.interp(x, [place for place, _ in points], [value for _, value in points]))


def _between(points: Sequence[Point], x: float) -> float | None:
    if not points[0][0] - 1e-6 <= x <= points[-1][0] + 1e-6:
        return None
    return _on(points, x)


def _touching(points: Sequence[Point]) -> list[Point]:
    """Return the gaps behind a straight edge turned so that the widest gap is smallest.

    Such a line runs along two of the points, or parallel to such a line (linear programming in two
    unknowns): all are tried.
    """
    xs, gaps = np.array([x for x, _ in points]), np.array([gap for _, gap in points])
    i, j = np.triu_indices(len(points), k=1)
    turned = gaps - np.outer((gaps[j] - gaps[i]) / (xs[j] - xs[i]), xs)
    behind = turned - turned.min(axis=1, keepdims=True)
    best = behind[behind.max(axis=1).argmin()]
    return [(x, float(gap)) for (x, _), gap in zip(points, best, strict=True)]


def _scribe(flatness: Flatness, left: float, right: float, height: float) -> Scribe | None:
    places = sorted(
        {
            left,
            right,
            *(x for s in flatness.straightedges for x, _ in s.gaps_mm if left < x < right),
        }
    )
    gaps = [(x - left, gap) for x in places if (gap := gap_mm(flatness, x, height)) is not None]
    if len(gaps) < 2:
        return None
    behind = _touching(gaps)
    widest = max(gap for _, gap in behind)
    return Scribe(tuple(behind), tuple((x, widest - gap) for x, gap in behind), widest)


def _near(piece: Piece, wall: Wall) -> dict[str, bool]:
    """Whether each of its ends meets the wall on that side."""
    return {
        "left": piece.left_mm <= NEAR_END_MM,
        "right": wall.width_mm - piece.left_mm - piece.length_mm <= NEAR_END_MM,
    }


def ends_of(piece: Piece, wall: Wall) -> list[End]:
    """Return ends of a piece that meet a wall whose corner was measured.

    How much longer it is at its front edge there.

    In a niche whose front was measured, what the corners do not account for is shared by the ends
    of which no corner is known.
    """
    near, niche = _near(piece, wall), niche_of(piece, wall)
    found = [
        End(c.side, piece.depth_mm * tan(radians(c.angle_deg - 90)))
        for c in wall.flatness.corners
        if near[c.side]
    ]
    rest = [side for side in near if side not in {end.side for end in found}]
    if niche is not None and rest:
        more = (niche.cut_front_mm - niche.cut_back_mm - sum(end.front_mm for end in found)) / len(
            rest
        )
        found += (
            [End(side, more) for side in rest]
            if any(width.out_mm for width in wall.flatness.widths)
            else []
        )
    return found


def niche_of(piece: Piece, wall: Wall) -> Niche | None:
    """Return the niche that a piece fills.

    None where it does not go from wall to wall, or no width was measured.
    """
    return (
        _niche(wall.flatness, piece.top_mm, piece.depth_mm)
        if all(_near(piece, wall).values())
        else None
    )


def fitted(piece: P, wall: Wall) -> P:
    """Return the piece as it is made.

    No longer than the niche that it fills was measured; its supports stay where they are.
    """
    niche = niche_of(piece, wall)
    if niche is None or piece.length_mm <= niche.cut_back_mm:
        return piece
    long, off = niche.cut_back_mm, (piece.length_mm - niche.cut_back_mm) / 2

    def within(place: float) -> float:
        return min(max(place - off, 0.0), long)

    things = tuple(
        replace(thing, at_mm=None if thing.at_mm is None else within(thing.at_mm))
        for thing in piece.things
    )
    supports = tuple(within(x) for x in piece.supports_mm)
    return replace(
        piece, left_mm=piece.left_mm + off, length_mm=long, supports_mm=supports, things=things
    )


def _shims(
    flatness: Flatness, supports: Sequence[float], height: float, slope: float | None, leg: float
) -> tuple[Shim, ...]:
    gaps = [gap_mm(flatness, x, height) for x in supports]
    if len(supports) < 2 or (slope is None and any(gap is None for gap in gaps)):
        return ()
    known = all(gap is not None for gap in gaps)
    behind = (
        _touching([(x, gap or 0.0) for x, gap in zip(supports, gaps, strict=True)])
        if known
        else [(x, 0.0) for x in supports]
    )
    return tuple(Shim(i, gap, (slope or 0.0) * leg) for i, (_, gap) in enumerate(behind))


def _crooked(piece: Piece, wall: Wall, line: Line) -> Crooked | None:
    points = next((run.points_mm for run in wall.flatness.run_outs if run.line == line), None)
    if points is None:
        return None
    left, right = (_on(points, x) for x in (piece.left_mm, piece.left_mm + piece.length_mm))
    ys = [y for _, y in points]
    clear = (
        wall.height_mm - max(ys) - piece.top_mm
        if line == "ceiling"
        else piece.top_mm - piece.high_mm - min(ys)
    )
    left, right = left + clear, right + clear
    near = min(left, right) <= data.house("eye_near_mm")
    eye = near and abs(right - left) / piece.length_mm > data.house("eye_slope")
    return Crooked(line, left, right, eye, abs(right - left) / 2)


def _niche(flatness: Flatness, height: float, depth: float) -> Niche | None:
    back = [w for w in flatness.widths if not w.out_mm]
    if not back:
        return None
    front = [w for w in flatness.widths if w.out_mm]
    at_back, spare = _at(back, height), data.house("niche_spare_mm")
    at_front = at_back
    if front:  # straight side walls between the back and where the front was measured
        out = sum(w.out_mm for w in front) / len(front)
        at_front = at_back + (_at(front, height) - at_back) * depth / out
    return Niche(at_back, at_front, at_back - spare, at_front - spare)


def _at(widths: Sequence[NicheWidth], height: float) -> float:
    return _on(sorted((w.height_mm, w.width_mm) for w in widths), height)
