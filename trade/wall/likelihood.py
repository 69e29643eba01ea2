"""How well each reading fits each kind of object at each place: the likelihood side of `infer`.

Everything is a log odds against nothing standing there, so that readings add up. All chances are house rules, in `MODEL`.
"""

from collections.abc import Sequence
from math import erf, pi, sqrt
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from trade.evidence import ByHand, Edge, Knock, MagnetHit, Probe, Reading, Seen, Sweep
from trade.measure import INCH_MM

Array = NDArray[np.float64]
INCH = float(INCH_MM)
STEP = 2.0
BY_HAND = 40.0  # log odds of what a person pinned or struck out
_MAGNET_MM = 70.0  # further from a hit it speaks for nothing
STRUCK_MM = 25.0  # a stud's centre that was struck out lies no nearer than this


class Model(NamedTuple):
    """What the model takes for granted; lengths mm, densities per mm. House rules."""

    stud_per_mm: float = 1 / 450
    double_per_mm: float = 1.7e-4
    pipe_per_mm: float = 2e-4
    cable_per_mm: float = 5e-4
    edge_sd: float = 3.5
    patch_per_mm: float = 5e-5
    shows: tuple[float, float, float, float] = (0.94, 0.56, 0.15, 0.6)  # an edge of a stud, pipe, cable, patch in one sweep
    clutter: float = 1.2e-4  # false edges, and false hits, per mm
    screw_sd: float = 6.5  # lining screws about a stud's centre, tape included
    on_grid: float = 0.9
    grid_sd: float = 3.5
    end_stud: float = 0.95
    probe_errs: float = 0.02
    jamb: float = 0.7  # chance of a doubled upright where one is expected beside an opening
    within_opening: float = 0.05  # share of the studs that stand on, below a sill or above a header


MODEL = Model()
SPACINGS = {16 * INCH: 0.34, 24 * INCH: 0.2, 400.0: 0.24, 600.0: 0.14, 19.2 * INCH: 0.03, 12 * INCH: 0.02, 450.0: 0.03}
WIDTHS = {"single": (38.0,), "double": (76.0,), "pipe": (14.0, 20.0, 26.0), "cable": (10.0,), "patch": (30.0, 38.0, 50.0)}
SHOWS = {"single": 0, "double": 0, "pipe": 1, "cable": 2, "patch": 3}


def widths(kind: str, steel: bool) -> tuple[float, ...]:
    """How wide things of a kind are; a steel stud shows its flange."""
    return (32.0,) if steel and kind == "single" else WIDTHS[kind]


def bell(x: Array | float, sd: float) -> Array:
    """Density of a normal distribution about nought, per mm."""
    z = np.asarray(x) / sd
    return np.exp(-0.5 * z * z) / (sd * sqrt(2 * pi))


class Swept(NamedTuple):
    """What one sweep said about one side's edges: where it could say anything, and the density of edges it told of."""

    covered: NDArray[np.bool_] | None
    told: Array


def swept(lattice: Array, readings: Sequence[Reading], side: str) -> list[Swept]:
    """All that finders said about one side; edges told without a sweep stand alone, for what was silent there nobody knows."""
    sweeps = [r for r in readings if isinstance(r, Sweep)]
    edges = [r for r in readings if isinstance(r, Edge) and r.side == side]
    found, used = [], set()
    for sweep in sweeps:
        own = [e for e in edges if e.height_mm == sweep.height_mm and sweep.from_mm <= e.at_mm <= sweep.to_mm]
        used |= {id(edge) for edge in own}
        reach = 3 * MODEL.edge_sd  # an edge this near to where the sweep began or ended may have been missed for that
        covered = (lattice >= sweep.from_mm + reach) & (lattice <= sweep.to_mm - reach)
        found.append(Swept(covered, _told(lattice, own)))
    return found + [Swept(None, _told(lattice, [edge])) for edge in edges if id(edge) not in used]


def _told(lattice: Array, edges: Sequence[Edge]) -> Array:
    total = np.zeros(len(lattice))
    for edge in edges:  # each only where it matters
        a, b = np.searchsorted(lattice, (edge.at_mm - 6 * MODEL.edge_sd, edge.at_mm + 6 * MODEL.edge_sd))
        total[a:b] += bell(lattice[a:b] - edge.at_mm, MODEL.edge_sd)
    return total


def _edge_scores(swept: list[Swept], size: int, shows: float) -> Array:
    """Log odds of an object's edge at each step against none there, over all sweeps; a sweep that was silent counts."""
    total = np.zeros(size)
    for covered, told in swept:
        if covered is None:
            total += np.log1p(shows / MODEL.clutter * told)
        else:
            total += np.where(covered | (told > 1e-9), np.log((1 - shows) + shows / MODEL.clutter * told), 0.0)
    return total


def scores(
    kind: str, lattice: Array, readings: Sequence[Reading], told: tuple[list[Swept], list[Swept]], steel: bool = False
) -> list[tuple[int, Array]]:
    """Per width of a kind: its length in steps, and the log odds of such an object beginning at each step."""
    shows = MODEL.shows[SHOWS[kind]]
    left, right = (_edge_scores(side, len(lattice), shows) for side in told)
    found = []
    for width in widths(kind, steel):
        steps = round(width / STEP)
        score = np.full(len(lattice), -np.inf)
        if steps < len(lattice):
            score[:-steps] = left[:-steps] + right[steps:]
            score += _point_scores(kind, width, lattice + width / 2, readings, steel)
        found.append((steps, score))
    return found


def _point_scores(kind: str, width: float, centres: Array, readings: Sequence[Reading], steel: bool) -> Array:
    total = np.zeros(len(centres))
    stud = kind in ("single", "double")
    for r in readings:
        if isinstance(r, MagnetHit):  # only where it matters
            a, b = np.searchsorted(centres, (r.at_mm - _MAGNET_MM, r.at_mm + _MAGNET_MM))
            total[a:b] += _magnet(kind, r.at_mm - centres[a:b], steel)
        elif isinstance(r, Probe) and r.met != "hard":  # what is hard everywhere says nothing about studs
            total += _probe(kind, width, r, centres, steel)
        elif isinstance(r, Knock):
            near = np.exp(-0.5 * ((r.at_mm - centres) / 25.0) ** 2)
            full = 0.65 if (r.sound == "full") == stud else 0.35
            total += np.log((full * near + 0.5 * (1 - near)) / 0.5)
        elif isinstance(r, Seen) and stud:
            total += np.log((bell(r.at_mm - centres, 2.5) + 1e-7) / 1e-4) * (np.abs(r.at_mm - centres) < 40)
        elif isinstance(r, ByHand) and stud:  # a person's word outweighs what devices say
            off = np.abs(r.at_mm - centres)
            pinned = np.maximum(BY_HAND - 0.5 * (off / 2.5) ** 2, 0.0) - (6.0 if kind == "double" else 0.0)
            total += pinned if r.word == "pinned" else np.where(off < STRUCK_MM, -BY_HAND, 0.0)
    return total


def _magnet(kind: str, off: Array, steel: bool) -> Array:
    stud = kind in ("single", "double")
    if stud and steel:  # it sticks anywhere on the flange
        hit = np.where(np.abs(off) <= 18, 1 / 36.0, 1e-9)
    elif kind == "double":
        hit = 0.5 * (bell(off - 19, MODEL.screw_sd) + bell(off + 19, MODEL.screw_sd))
    else:
        hit = bell(off, MODEL.screw_sd if stud else 4.0)
    share = 0.9 if stud else 0.3 if kind == "pipe" else 0.02 if kind == "cable" else 0.0
    return np.log1p(share / MODEL.clutter * hit)


def _probe(kind: str, width: float, r: Probe, centres: Array, steel: bool) -> Array:
    errs = MODEL.probe_errs
    cover = _covered(width / 2 - np.abs(r.at_mm - centres))
    own = ("metal" if steel else "wood") if kind in ("single", "double") else "metal" if kind == "pipe" else "air"
    behind = 1 - 2 * errs if r.met == own else errs
    beside = 1 - 2 * errs if r.met == "air" else errs
    return np.log((behind * cover + beside * (1 - cover)) / beside)


_SOFT = 1.5
_TABLE = np.array([0.5 * (1 + erf(x / sqrt(2))) for x in np.linspace(-6, 6, 241)])


def _covered(inside: Array) -> Array:
    """Chance that a wandering nail is over an object when its place is this far inside its edge."""
    return np.interp(inside / _SOFT, np.linspace(-6, 6, 241), _TABLE)
