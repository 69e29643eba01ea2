"""A continuous beam on rigid supports, with overhangs, under many loads at once.

Euler-Bernoulli by Macaulay's brackets: E I v = sum of load terms less the reactions' R <x - s>^3 / 6, plus C1 x + C2. The
unknowns (reactions, C1, C2) follow from no sag at the supports and from equilibrium. Places are fractions of the length.
"""

from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from trade.errors import TradeError

Array = NDArray[np.float64]
_SAMPLES = np.linspace(0.0, 1.0, 17)
_NOWHERE: Array = np.empty(0)
_POINT = 1e-6  # a load spread over less than this share of the length acts at a point


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


def solve(
    length_mm: float, supports_mm: tuple[float, ...], ei_nmm2: float, loads: list[Load], along: bool = True, stiff: bool = False
) -> Beam:
    """Reactions, moments and sags of a beam of constant stiffness.

    Args:
        length_mm: end to end.
        supports_mm: at least two, from left to right, between the ends.
        ei_nmm2: bending stiffness.
        loads: each solved alone, so that cases can be added up afterwards.
        along: moments and sags are wanted too, not only reactions.
        stiff: the beam is stiff and its supports give alike: they share as a group of screws does, by its centre and its spread.
            Sags are then not known.

    Raises:
        TradeError: fewer than two supports; the beam would turn.
    """
    count = len(supports_mm)
    if count < 2:
        raise TradeError("A beam needs two supports or more.")
    supports = np.array(supports_mm) / length_mm
    total, start, end = np.array(loads).T
    start, end = start / length_mm, end / length_mm
    points = {x for load in loads if load.start_mm == load.end_mm for x in load[1:2]}
    places, spans = _places(length_mm, supports_mm, points) if along else (_NOWHERE, _NOWHERE)

    where = np.concatenate([supports, places])[:, None]
    bent, turned = _load_terms(where, total, start, end)
    above = np.maximum(where - supports, 0)
    cubes = above * above * above / 6  # products, for numpy's powers are slow

    if stiff:
        reactions = _as_group(supports, total, (start + end) / 2)
        moments = above[count:] @ reactions - turned[count:]
        return Beam(reactions, places * length_mm, moments * length_mm, np.zeros_like(moments), spans)
    unknowns = np.ones((count + 2, count + 2))
    unknowns[:count, :count] = -cubes[:count]
    unknowns[:count, count] = unknowns[count + 1, :count] = supports
    unknowns[count:, count:] = 0
    found = np.linalg.solve(unknowns, np.vstack([-bent[:count], total, total * (start + end) / 2]))

    reactions, slope, offset = found[:count], found[count], found[count + 1]
    sags = bent[count:] - cubes[count:] @ reactions + where[count:] * slope + offset
    moments = above[count:] @ reactions - turned[count:]
    return Beam(reactions, places * length_mm, moments * length_mm, sags * (length_mm**3 / ei_nmm2), spans)


def _as_group(supports: Array, total: Array, middles: Array) -> Array:
    """Reactions (supports, loads) of a stiff beam whose supports give alike: P (1/n + e x / sum x^2)."""
    off = supports - supports.mean()
    return total * (1 / len(supports) + np.outer(off, middles - supports.mean()) / (off * off).sum())


def widest_mm(length_mm: float, supports_mm: tuple[float, ...]) -> float:
    """The span that governs an evenly loaded beam: its widest gap, or twice its longer overhang."""
    gaps = [b - a for a, b in pairwise(supports_mm)]
    return max([*gaps, 2 * supports_mm[0], 2 * (length_mm - supports_mm[-1])])


def widest_is_overhang(length_mm: float, supports_mm: tuple[float, ...]) -> bool:
    """Whether it is an overhang that governs an evenly loaded beam, and not a gap between supports."""
    gaps = [b - a for a, b in pairwise(supports_mm)]
    return max([2 * supports_mm[0], 2 * (length_mm - supports_mm[-1])]) > max([*gaps, 0.0])


def _places(length: float, supports: tuple[float, ...], points: set[float]) -> tuple[Array, Array]:
    """Where to look: along every gap and overhang, and under every point load; with the span each belongs to."""
    edges = np.array([0.0, *supports, length])
    gaps = edges[1:] - edges[:-1]
    along = (edges[:-1, None] + gaps[:, None] * _SAMPLES).ravel()
    places = np.concatenate([along, np.array(sorted(points))]) if points else along
    spans = gaps * np.array([2.0] + [1.0] * (len(gaps) - 2) + [2.0])
    return places / length, spans[np.searchsorted(edges[1:-1], places)]


def _load_terms(x: Array, total: Array, start: Array, end: Array) -> tuple[Array, Array]:
    """Load terms (places, loads) of E I v / L^3 and of E I v'' / L.

    A point: P <x-a>^3 / 6 and P <x-a>; a spread load: w (<x-a>^4 - <x-b>^4) / 24 and w (<x-a>^2 - <x-b>^2) / 2.
    """
    point = end - start < _POINT
    spread = np.where(point, 1.0, end - start)
    past, beyond = np.maximum(x - start, 0), np.maximum(x - end, 0)
    near, far = past * past, beyond * beyond
    bent = np.where(point, near * past / 6, (near * near - far * far) / (24 * spread))
    turned = np.where(point, past, (near - far) / (2 * spread))
    return total * bent, total * turned
