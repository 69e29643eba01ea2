"""A continuous beam on rigid supports, with overhangs, under many loads at once.

Euler-Bernoulli by Macaulay's brackets: E I v = sum of load terms less the reactions' R <x - s>^3 /
6, plus C1 x + C2. The unknowns (reactions, C1, C2) follow from no sag at the supports and from
equilibrium. Places are fractions of the length.
"""

from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from trade.errors import TradeError
from trade.memo import memoized

Array = NDArray[np.float64]
_SAMPLES = np.linspace(0.0, 1.0, 17)
_NOWHERE: Array = np.empty(0)
_POINT = 1e-6  # a load spread over less than this share of the length acts at a point


class Load(NamedTuple):
    """A load, positive downwards.

    `total_n` spread evenly from `start_mm` to `end_mm`; at a point when they are equal.
    """

    total_n: float
    start_mm: float
    end_mm: float


class Beam(NamedTuple):
    """What each load does alone; columns are loads in the order given.

    `reactions_n` (supports, loads), positive upwards. At `places_mm` (points): `moments_nmm`
    (points, loads), sagging positive, and `sags_mm` (points, loads whose sag is wanted), downwards
    positive. `spans_mm` (points): the span a sag is measured against, twice the overhang beyond the
    outer supports.
    """

    reactions_n: Array
    places_mm: Array
    moments_nmm: Array
    sags_mm: Array
    spans_mm: Array


def solve(
    length_mm: float,
    supports_mm: tuple[float, ...],
    ei_nmm2: float,
    loads: list[Load],
    along: bool = True,
    stiff: bool = False,
    sagging: int | None = None,
) -> Beam:
    """Reactions, moments and sags of a beam of constant stiffness.

    Args:
        length_mm: end to end.
        supports_mm: at least two, from left to right, between the ends.
        ei_nmm2: bending stiffness.
        loads: each solved alone, so that cases can be added up afterwards.
        along: moments and sags are wanted too, not only reactions.
        stiff: the beam is stiff and its supports give alike: they share as a group of screws does,
          by its centre and its spread.
            Sags are then not known.
        sagging: the sags of so many of the first loads are wanted; all when none.

    Raises:
        TradeError: fewer than two supports; the beam would turn.
    """
    sagging = len(loads) if sagging is None else sagging
    one = unit(
        length_mm,
        supports_mm,
        tuple((load.start_mm, load.end_mm) for load in loads),
        along,
        stiff,
        sagging,
    )
    total = np.array([load.total_n for load in loads])
    if not along:
        return Beam(one.reactions_n * total, *one[1:])
    sags = one.sags_mm * (total[:sagging] / ei_nmm2)
    return Beam(one.reactions_n * total, one.places_mm, one.moments_nmm * total, sags, one.spans_mm)


@memoized(limit=1_024)
def unit(
    length_mm: float,
    supports_mm: tuple[float, ...],
    spread_mm: tuple[tuple[float, float], ...],
    along: bool,
    stiff: bool,
    sagging: int = 0,
) -> Beam:
    """Return the same under 1 N each and of unit stiffness.

    Worked out once, however many weights and screws are then tried.

    `spread_mm`: from where to where each is spread; the rest as of `solve`.
    """
    count = len(supports_mm)
    if count < 2:
        raise TradeError("A beam needs two supports or more.")
    start, end = (np.array(spread_mm) / length_mm).T
    bare = bare_beam(length_mm, supports_mm, along)
    where, spans, above, cubes = bare.where, bare.spans_mm, bare.above, bare.cubes
    if along and (points := sorted({a for a, b in spread_mm if a == b} - bare.seen_mm)):
        at = np.array(points) / length_mm
        where, spans = (
            np.concatenate([where, at]),
            np.concatenate([spans, _span_at(length_mm, supports_mm, points)]),
        )
        above = np.vstack([above, np.maximum(at[:, None] - where[:count], 0)])
        cubes = above * above * above / 6
    middles = (start + end) / 2
    if stiff:
        reactions = 1 / count + bare.leaning[:, None] * (middles - bare.middle)
    else:
        found = bare.inverse @ np.vstack(
            [-_load_terms(where[:count, None], start, end)[0], np.ones_like(middles), middles]
        )
        reactions, slope, offset = found[:count], found[count, :sagging], found[count + 1, :sagging]
    if not along:
        return Beam(reactions, _NOWHERE, _NOWHERE, _NOWHERE, _NOWHERE)
    at = where[count:, None]
    places = where[count:] * length_mm
    bent, turned = _load_terms(at, start[:sagging], end[:sagging])
    moments = above[count:] @ reactions
    moments[:, :sagging] -= turned
    moments[:, sagging:] -= _turned(at, start[sagging:], end[sagging:])
    moments *= length_mm
    if stiff:
        return Beam(reactions, places, moments, np.zeros((len(places), sagging)), spans)
    sags = bent - cubes[count:] @ reactions[:, :sagging] + at * slope + offset
    return Beam(reactions, places, moments, sags * length_mm**3, spans)


class Bare(NamedTuple):
    """What a beam is before it is loaded.

    Its supports and then where to look, as fractions of its length.

    `above`: how far each is to the right of each support, else nought; `cubes`: its third powers
    over 6; `inverse`: reactions, slope and offset from the load terms at the supports, the load and
    its moment; `middle`, `leaning`: of the supports as a group the centre x, and x / sum x^2 of
    each, for P (1/n + e x / sum x^2); `seen_mm`: the places themselves.
    """

    where: Array
    spans_mm: Array
    above: Array
    cubes: Array
    inverse: Array
    middle: float
    leaning: Array
    seen_mm: frozenset[float]


@memoized(limit=256)
def bare_beam(length_mm: float, supports_mm: tuple[float, ...], along: bool) -> Bare:
    """Return a beam before it is loaded; worked out once for all that is then put on it.

    Args:
        length_mm: end to end.
        supports_mm: at least two, from left to right.
        along: places between the supports are wanted too.
    """
    count, supports = len(supports_mm), np.array(supports_mm) / length_mm
    places_mm = _places(length_mm, supports_mm) if along else _NOWHERE
    where = np.concatenate([supports, places_mm / length_mm])
    above = np.maximum(where[:, None] - supports, 0)
    cubes = above * above * above / 6  # products, for numpy's powers are slow
    unknowns = np.ones((count + 2, count + 2))
    unknowns[:count, :count] = -cubes[:count]
    unknowns[:count, count] = unknowns[count + 1, :count] = supports
    unknowns[count:, count:] = 0
    seen, middle = places_mm.tolist(), float(supports.mean())
    off = supports - middle
    spans = _span_at(length_mm, supports_mm, seen)
    inverse = np.asarray(np.linalg.inv(unknowns), dtype=np.float64)
    return Bare(
        where, spans, above, cubes, inverse, middle, off / (off * off).sum(), frozenset(seen)
    )


def widest_mm(length_mm: float, supports_mm: tuple[float, ...]) -> float:
    """Return the span that governs an evenly loaded beam.

    Its widest gap, or twice its longer overhang.
    """
    gaps = [b - a for a, b in pairwise(supports_mm)]
    return max([*gaps, 2 * supports_mm[0], 2 * (length_mm - supports_mm[-1])])


def widest_is_overhang(length_mm: float, supports_mm: tuple[float, ...]) -> bool:
    """Return whether an overhang, not a gap between supports, governs an evenly loaded beam."""
    gaps = [b - a for a, b in pairwise(supports_mm)]
    return max([2 * supports_mm[0], 2 * (length_mm - supports_mm[-1])]) > max([*gaps, 0.0])


def _places(length: float, supports: tuple[float, ...]) -> Array:
    """Where to look in any case: along every gap and overhang."""
    edges = np.array([0.0, *supports, length])
    return (edges[:-1, None] + (edges[1:] - edges[:-1])[:, None] * _SAMPLES).ravel()


def _span_at(length: float, supports: tuple[float, ...], places: list[float]) -> Array:
    """Return the span that each place belongs to."""
    edges = np.array([0.0, *supports, length])
    spans = (edges[1:] - edges[:-1]) * np.array([2.0] + [1.0] * (len(supports) - 1) + [2.0])
    return spans[np.searchsorted(edges[1:-1], places)]


def _load_terms(x: Array, start: Array, end: Array) -> tuple[Array, Array]:
    """Load terms (places, loads) of E I v / L^3 and of E I v'' / L, each of 1 N.

    At a point: <x-a>^3 / 6 and <x-a>; spread: (<x-a>^4 - <x-b>^4) / 24 l and (<x-a>^2 - <x-b>^2) /
    2 l.
    """
    point = end - start < _POINT
    spread = np.where(point, 1.0, end - start)
    past, beyond = np.maximum(x - start, 0), np.maximum(x - end, 0)
    near, far = past * past, beyond * beyond
    over = (
        near - far
    )  # of two squares: their product with the sum is the difference of fourth powers
    bent = np.where(point, near * past / 6, over * (near + far) / (24 * spread))
    return bent, np.where(point, past, over / (2 * spread))


def _turned(x: Array, start: Array, end: Array) -> Array:
    """Return the second of these alone.

    Of points, as pushes are, no more is to be worked out than how far they are to the left.
    """
    return (
        np.maximum(x - start, 0) if (end - start < _POINT).all() else _load_terms(x, start, end)[1]
    )
