"""A continuous beam on rigid supports, with overhangs, under many loads at once (direct stiffness, Euler-Bernoulli)."""

from bisect import bisect_left
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from trade.errors import TradeError

Array = NDArray[np.float64]
_SAMPLES = np.linspace(0.0, 1.0, 17)
_SAME_PLACE_MM = 0.5
_X = _SAMPLES
# Hermite shapes over an element of unit length, their second derivatives, and the same of a fixed-ended line load
_SHAPE = np.stack([1 - 3 * _X**2 + 2 * _X**3, _X - 2 * _X**2 + _X**3, 3 * _X**2 - 2 * _X**3, _X**3 - _X**2], axis=1)
_CURVATURE = np.stack([-6 + 12 * _X, -4 + 6 * _X, 6 - 12 * _X, -2 + 6 * _X], axis=1)
_FIXED = ((_X * (1 - _X)) ** 2)[:, None]
_FIXED_CURVATURE = (2 - 12 * _X + 12 * _X**2)[:, None]
_STIFFNESS = np.array([[12.0, 6, -12, 6], [6, 4, -6, 2], [-12, -6, 12, -6], [6, 2, -6, 4]])
_POWERS = np.array([[3, 2, 3, 2], [2, 1, 2, 1], [3, 2, 3, 2], [2, 1, 2, 1]])


class Load(NamedTuple):
    """A load, positive downwards: `total_n` spread evenly from `start_mm` to `end_mm`; at a point when they are equal."""

    total_n: float
    start_mm: float
    end_mm: float


class Beam(NamedTuple):
    """What each load does alone; columns are loads in the order given.

    `reactions_n` (supports, loads), positive upwards. At `places_mm` (points): `moments_nmm` (points, loads), sagging
    positive, and `sags_mm` (points, loads), downwards positive. `spans_mm` (points): the span a sag is measured
    against, twice the overhang beyond the outer supports.
    """

    reactions_n: Array
    places_mm: Array
    moments_nmm: Array
    sags_mm: Array
    spans_mm: Array


def solve(length_mm: float, supports_mm: tuple[float, ...], ei_nmm2: float, loads: list[Load]) -> Beam:
    """Reactions, moments and sags of a beam of constant stiffness.

    Args:
        length_mm: end to end.
        supports_mm: at least two, from left to right, between the ends.
        ei_nmm2: bending stiffness.
        loads: each solved alone, so that cases can be added up afterwards.

    Raises:
        TradeError: fewer than two supports; the beam would turn.
    """
    if len(supports_mm) < 2:
        raise TradeError("A beam needs two supports or more.")
    nodes, loads = _nodes(length_mm, supports_mm, loads)
    lengths = nodes[1:] - nodes[:-1]
    line = _line_loads(nodes, loads)  # (elements, loads), N/mm
    stiffness = _stiffness(lengths, ei_nmm2)
    forces = _equivalent_forces(nodes, lengths, line, loads)  # (dofs, loads), downwards positive

    known = nodes.tolist()
    held = [2 * bisect_left(known, support - 1e-6) for support in supports_mm]
    free = np.array([dof for dof in range(len(forces)) if dof not in held])
    moved = np.zeros_like(forces)
    moved[free] = np.linalg.solve(stiffness[free[:, None], free], forces[free])
    reactions = forces[held] - stiffness[held] @ moved
    places, moments, sags = _along(nodes, lengths, line, moved, ei_nmm2)
    return Beam(reactions, places, moments, sags, _spans(places, length_mm, supports_mm))


def _nodes(length: float, supports: tuple[float, ...], loads: list[Load]) -> tuple[Array, list[Load]]:
    """Places where something happens; what happens within half a millimetre of another place is moved there.

    Elements much shorter than that would cost all precision.
    """
    kept = list(supports)

    def placed(x: float) -> float:
        near = min(kept, key=lambda k: abs(k - x))
        if abs(near - x) < _SAME_PLACE_MM:
            return near
        kept.append(x)
        return x

    for end in (0.0, length):
        placed(end)
    moved = [Load(load.total_n, placed(load.start_mm), placed(load.end_mm)) for load in loads]
    return np.array(sorted(kept)), moved


def _line_loads(nodes: Array, loads: list[Load]) -> Array:
    totals, starts, ends = np.array(loads).T
    spread = ends - starts
    per_mm = totals / np.where(spread > 0, spread, 1.0)
    middles = (nodes[:-1] + nodes[1:])[:, None] / 2
    return ((middles > starts) & (middles < ends)) * per_mm


def _stiffness(lengths: Array, ei: float) -> Array:
    n = len(lengths)
    blocks = ei * _STIFFNESS / lengths[:, None, None] ** _POWERS
    whole = np.zeros((2 * n + 2, 2 * n + 2))
    for i in range(n):
        whole[2 * i : 2 * i + 4, 2 * i : 2 * i + 4] += blocks[i]
    return whole


def _equivalent_forces(nodes: Array, lengths: Array, line: Array, loads: list[Load]) -> Array:
    forces = np.zeros((2 * len(nodes), len(loads)))
    half, twelfth = line * lengths[:, None] / 2, line * lengths[:, None] ** 2 / 12
    forces[0:-2:2] += half
    forces[2::2] += half
    forces[1:-2:2] += twelfth
    forces[3::2] -= twelfth
    known = nodes.tolist()
    for column, load in enumerate(loads):
        if load.end_mm <= load.start_mm:
            forces[2 * bisect_left(known, load.start_mm - 1e-6), column] += load.total_n
    return forces


def _along(nodes: Array, lengths: Array, line: Array, moved: Array, ei: float) -> tuple[Array, Array, Array]:
    """Hermite shape of each element plus the fixed-ended curve of its own line load."""
    ends = np.stack([moved[k : len(moved) - 2 + k : 2] for k in range(4)], axis=1)  # (elements, 4, loads)
    ends[:, 1::2] *= lengths[:, None, None]
    load = (line * (lengths**2)[:, None])[:, None, :] / (24 * ei)
    squares = (lengths**2)[:, None, None]
    sags = _SHAPE @ ends + load * squares * _FIXED
    moments = (_CURVATURE @ ends / squares + load * _FIXED_CURVATURE) * -ei
    places = nodes[:-1, None] + lengths[:, None] * _SAMPLES
    columns = line.shape[1]
    return places.ravel(), moments.reshape(-1, columns), sags.reshape(-1, columns)


def _spans(places: Array, length: float, supports: tuple[float, ...]) -> Array:
    gaps = [b - a for a, b in zip((0.0, *supports), (*supports, length), strict=True)]
    spans = np.array([2 * gaps[0], *gaps[1:-1], 2 * gaps[-1]])
    return spans[np.searchsorted(supports, places)]
