"""Whether a long thing goes through an opening level, turned from side to side as it goes.

The place is a rectangle from above: the widest wall along the back, and in front of it a wall with
the opening in its middle. Where the thing may be, and how turned, is tried on a grid of places; a
way in is a row of neighbours on it that are all free.
"""

from collections.abc import Iterator
from math import ceil, hypot
from typing import Any, NamedTuple, TypeAlias

import numpy as np

from trade import data
from trade.mechanics.beam import Array
from trade.memo import memoized

Flags: TypeAlias = np.ndarray[Any, np.dtype[np.bool_]]
Counts: TypeAlias = np.ndarray[Any, np.dtype[np.int32]]
_CLEAR_MM = data.house("way_in_clear_mm")
_SLACK_MM = data.house("way_in_slack_mm")
_ACROSS = 61
_STEP_MM = 20.0
_TURNS = 90  # half a turn, for the other half is the same
_DEG = 180.0 / _TURNS


class Pose(NamedTuple):
    """Where its middle is, along the back wall and out from it, and how far it is turned."""

    x_mm: float
    y_mm: float
    deg: float


class Floor(NamedTuple):
    """A place from above: how wide and deep it is, and how wide its opening."""

    wide_mm: float
    deep_mm: float
    opening_mm: float


def free(floor: Floor, long_mm: float, broad_mm: float, places: Array) -> Flags:
    """Return whether a rectangle touches nothing at each of some places; (…, 3) to (…).

    What lies before the back wall is between the side walls; where it crosses the front wall it is
    within the opening; what is beyond that is free.
    """
    x, y, turn = places[..., 0], places[..., 1], np.radians(places[..., 2])
    cos, sin = np.cos(turn), np.sin(turn)
    corners = [
        (x + a * cos - b * sin, y + a * sin + b * cos)
        for a, b in (
            (-long_mm / 2, -broad_mm / 2),
            (long_mm / 2, -broad_mm / 2),
            (long_mm / 2, broad_mm / 2),
            (-long_mm / 2, broad_mm / 2),
        )
    ]
    low, high = -_SLACK_MM / 2, floor.wide_mm + _SLACK_MM / 2
    gap = (floor.wide_mm - floor.opening_mm) / 2
    found: Flags = np.ones(x.shape, dtype=bool)
    for n, (cx, cy) in enumerate(corners):
        inside = cy < floor.deep_mm
        found &= (cy >= -1e-6) & (~inside | ((cx >= low) & (cx <= high)))
        nx, ny = corners[(n + 1) % 4]
        crosses = inside != (ny < floor.deep_mm)
        share = (floor.deep_mm - cy) / np.where(np.abs(ny - cy) < 1e-9, 1.0, ny - cy)
        at = cx + share * (nx - cx)
        found &= ~crosses | ((at >= gap + _CLEAR_MM) & (at <= floor.wide_mm - gap - _CLEAR_MM))
    return found


@memoized(limit=64)
def way(floor: Floor, long_mm: float, broad_mm: float) -> tuple[Pose, ...]:
    """Return a row of places from outside to where it lies along the back wall; empty if none.

    Each is free, and a step on the grid from the one before.
    """
    if long_mm > floor.wide_mm + _SLACK_MM or not _may(floor, long_mm, broad_mm):
        return ()
    far = floor.deep_mm + hypot(long_mm, broad_mm) / 2 + _STEP_MM
    xs = np.linspace(0.0, floor.wide_mm, _ACROSS)
    ys = broad_mm / 2 + _STEP_MM * np.arange(max(ceil((far - broad_mm / 2) / _STEP_MM), 2))
    turns = _DEG * np.arange(_TURNS)
    grid = np.stack(np.meshgrid(xs, ys, turns, indexing="ij"), axis=-1)
    may = free(floor, long_mm, broad_mm, grid)
    steps = np.full(may.shape, -1, dtype=np.int32)
    start = (_ACROSS // 2, 0, 0)
    if not may[start]:
        return ()
    steps[start] = 0
    front = np.zeros(may.shape, dtype=bool)
    front[start] = True
    reach = np.abs(np.sin(np.radians(turns))) * long_mm / 2
    reach += np.abs(np.cos(np.radians(turns))) * broad_mm / 2
    out = np.broadcast_to(ys[None, :, None] - reach[None, None, :] >= floor.deep_mm, may.shape)
    count = 0
    while front.any() and not (front & out).any():
        count += 1
        front = _around(front) & may & (steps < 0)
        steps[front] = count
    ends = np.argwhere(front & out)
    if not len(ends):
        return ()
    return tuple(_back(steps, tuple(int(n) for n in ends[0]), grid))


def _may(floor: Floor, long_mm: float, broad_mm: float) -> bool:
    """Return whether its last corner can pass the opening at any turn; if not, there is no way.

    Then all of it is inside, and that corner is its length across from the one furthest aside.
    """
    turn = np.radians(np.arange(0.0, 90.5, 0.5))
    across, deep = long_mm * np.cos(turn), long_mm * np.sin(turn) + broad_mm * np.cos(turn)
    gap = (floor.wide_mm - floor.opening_mm) / 2
    room = floor.wide_mm - gap - _CLEAR_MM + _SLACK_MM / 2
    return bool(((across <= room) & (deep <= floor.deep_mm + 1.0)).any())


def _around(front: Flags) -> Flags:
    """Return a grid's neighbours of some of its places; turns go round."""
    found: Flags = np.roll(front, 1, axis=2) | np.roll(front, -1, axis=2)
    for axis in (0, 1):
        ahead, behind = np.roll(front, 1, axis=axis), np.roll(front, -1, axis=axis)
        first = [slice(None)] * 3
        last = [slice(None)] * 3
        first[axis], last[axis] = slice(0, 1), slice(-1, None)
        ahead[tuple(first)] = False
        behind[tuple(last)] = False
        found |= ahead | behind
    return found


def _back(steps: Counts, end: tuple[int, ...], grid: Array) -> Iterator[Pose]:
    """Yield the places of a row from its end, whose step is the highest, to its start."""
    at = end
    while True:
        yield Pose(*(float(value) for value in grid[at]))
        if steps[at] == 0:
            return
        at = next(near for near in _near(at, steps.shape) if steps[near] == steps[at] - 1)


def _near(at: tuple[int, ...], shape: tuple[int, ...]) -> Iterator[tuple[int, ...]]:
    for axis in range(3):
        for by in (1, -1):
            moved = [*at]
            moved[axis] += by
            if axis == 2:
                moved[axis] %= shape[axis]
            if 0 <= moved[axis] < shape[axis]:
                yield tuple(moved)


def steepest_deg(row: tuple[Pose, ...]) -> float:
    """Return how far it is turned at most on its way, from lying along the back wall."""
    return max((min(place.deg, 180.0 - place.deg) for place in row), default=0.0)
