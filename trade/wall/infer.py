"""From readings to studs: a probabilistic model of what may stand behind a lining.

The wall is cut into 2 mm steps. Along it stand objects that do not overlap: single and doubled
studs, pipes, cables, and patches or joints of the lining, which fool a finder the same way each
time. Each kind has a density of its own and shows itself in each reading with a known chance; a
reading that no object explains is clutter, at a small known rate. Sums over every possible row of
objects (forwards and backwards, as for a semi-Markov chain) give the probability of a stud at each
place. Studs like to stand on a grid: a first pass without one says where studs are, these say which
grids are likely, and a second pass puts more weight on those grids' lines.

All chances are house rules, stated in `likelihood.MODEL`; `benchmarks/survey.py` measures how well
they serve.
"""

from collections.abc import Sequence
from math import exp, log, log1p, sqrt
from typing import NamedTuple

import numpy as np

from trade.plan.features import Feature
from trade.plan.model import Stud
from trade.plan.readings import Reading, Sweep
from trade.wall import reasons, scatter
from trade.wall.found import OTHERS, Found, Grid, Inference
from trade.wall.framing import OFF_MM, SHIM_MM, STUD_MM, jambs_mm
from trade.wall.likelihood import (
    MODEL,
    SPACINGS,
    STEP,
    WIDTHS,
    Array,
    Lattice,
    Places,
    bell,
    scores,
    widths,
)
from trade.wall.reading_index import ReadingIndex

_FAINT = -5.0  # an object with less than this (log of its odds against nothing) is not followed up
_RIVAL = (
    0.1  # a second reading of a place that is this much as likely as the first widens the doubt
)
BEYOND = 40.0  # an end stud may stand partly behind the next wall


class _Setting(NamedTuple):
    """What is known before any reading.

    The wall's width, where doubled uprights are expected, and where openings interrupt.
    """

    width_mm: float
    jambs_mm: tuple[float, ...]
    gaps_mm: tuple[tuple[float, float], ...]

    def thinned(self, density: Array, centres: Array) -> Array:
        """Return a density of uprights with next to none within the openings."""
        for start, end in self.gaps_mm:
            density = np.where(
                (centres > start) & (centres < end), density * MODEL.within_opening, density
            )
        return density


class _Marginals(NamedTuple):
    """Probability of an object's centre at each half step, by kind."""

    mass: dict[str, Array]


def infer(
    width_mm: float,
    readings: Sequence[Reading],
    openings: Sequence[Feature] = (),
    steel: bool = False,
) -> Inference:
    """Return what stands behind a wall of this width, after these readings.

    Args:
        width_mm: of the wall.
        readings: as taken, in any order.
        openings: doors and windows, which everybody sees: studs stand doubled beside them, and
          hardly any within.
        steel: the studs are of sheet steel: narrower, and iron all over.
    """
    lattice = np.arange(-BEYOND, width_mm + BEYOND, STEP)
    odds = scores(WIDTHS, Lattice(-BEYOND, STEP, len(lattice)), readings, steel)
    setting = _Setting(
        width_mm,
        jambs_mm(openings),
        tuple((o.left_mm - SHIM_MM, o.right_mm + SHIM_MM) for o in openings),
    )
    first = _marginals(
        lattice, {kind: odds[kind] for kind in ("single", "double", "pipe")}, setting, []
    )
    grids = _grids(_found("single", first, 0.2, steel), readings, setting)
    second = _marginals(lattice, odds, setting, grids)
    found = _merged(_found("single", second, 0.1, steel), _found("double", second, 0.1, steel))
    others = [f for kind in OTHERS for f in _found(kind, second, 0.5, steel)]
    grid = _best(grids)
    index = ReadingIndex(readings)
    times = scatter.worse(index, found)
    studs = tuple(
        _explained(scatter.widened(f, times), index, grid, setting)
        for f in sorted(found, key=lambda f: f.centre_mm)
    )
    accepted = [f for f in studs if f.probability >= 0.5] + others
    return Inference(
        studs,
        tuple(others),
        grid,
        reasons.rejected(readings, accepted),
        reasons.ask_mm(studs, width_mm),
    )


def _explained(stud: Found, index: ReadingIndex, grid: Grid | None, setting: "_Setting") -> Found:
    stud = stud._replace(
        by_opening=any(abs(stud.centre_mm - x) < 3 * OFF_MM for x in setting.jambs_mm)
    )
    at_end = not 60 < stud.centre_mm < setting.width_mm - 60
    return stud._replace(reasons=reasons.of(stud, index, grid, at_end))


def as_studs(known: Inference) -> tuple[Stud, ...]:
    """Studs to count on.

    Those likelier than not; how far each may be off is its interval, and unknown when it is
    doubtful.
    """
    return tuple(
        Stud(
            centre_mm=max(round(stud.centre_mm, 1), 0.0),
            width_mm=stud.width_mm,
            uncertainty_mm=None
            if stud.confidence == "doubtful"
            else round((stud.high_mm - stud.low_mm) / 2, 1),
        )
        for stud in known.studs
        if stud.probability >= 0.5
    )


def _marginals(
    lattice: Array,
    odds_of: dict[str, list[tuple[int, Array]]],
    setting: _Setting,
    grids: list[tuple[float, float, float]],
) -> _Marginals:
    """Return forwards and backwards over every row of objects."""
    densities = {
        "pipe": MODEL.pipe_per_mm / 3,
        "cable": MODEL.cable_per_mm,
        "patch": MODEL.patch_per_mm / 3,
    }
    stud_density = setting.thinned(_gridded(lattice, grids, setting.width_mm), lattice)
    double_density = np.full(len(lattice), MODEL.double_per_mm)
    for centre in setting.jambs_mm:
        double_density += MODEL.jamb * bell(lattice - centre, OFF_MM)
    double_density = setting.thinned(double_density, lattice)
    n = len(lattice)
    kept: list[tuple[str, Places, int, Array]] = []
    for kind, by_width in odds_of.items():
        for steps, score in by_width:
            if kind in ("single", "double"):
                density = stud_density if kind == "single" else double_density
                prior = np.log(np.interp(lattice + steps * STEP / 2, lattice, density) * STEP)
            else:
                prior = np.full(n, log(densities[kind] * STEP))
            odds = score + prior
            # pipes and cables are only followed up where some reading speaks for them
            hopeful = (
                odds > _FAINT if kind in ("single", "double") else (odds > _FAINT) & (score > 1.0)
            )
            starts = np.flatnonzero(hopeful)
            kept.append((kind, starts, steps, odds[starts]))
    start = np.concatenate([starts for _, starts, _, _ in kept])
    end = np.concatenate([starts + steps for _, starts, steps, _ in kept])
    value = np.concatenate([values for _, _, _, values in kept])
    forward = _run(start, end, value, n)
    backward = _run(n - end, n - start, value, n)[::-1]
    mass = {kind: np.zeros(2 * n + 80) for kind in odds_of}
    for kind, starts, steps, values in kept:
        weight = np.exp(
            np.minimum(forward[starts] + values + backward[starts + steps] - forward[n], 0.0)
        )
        np.add.at(mass[kind], 2 * starts + steps, weight)
    return _Marginals(mass)


def _run(start: Places, end: Places, value: Array, size: int) -> Array:
    """Log weight of all rows of objects up to each step.

    Each object takes a row from its start to its end.
    """
    weights = [0.0] * (size + 1)
    order: Places = np.argsort(end, kind="stable")
    at = 0
    for a, b, v in zip(
        start[order].tolist(), end[order].tolist(), value[order].tolist(), strict=True
    ):
        if b > at:
            weights[at + 1 : b + 1] = [weights[at]] * (b - at)
            at = b
        gain = weights[a] + v - weights[b]
        weights[b] += log1p(exp(gain)) if gain < 30 else gain
    weights[at + 1 :] = [weights[at]] * (size - at)
    return np.array(weights)


def _found(kind: str, marginals: _Marginals, least: float, steel: bool) -> list[Found]:
    """Gather the probability of a kind into things, the likeliest first.

    What lies within 40 mm is one thing.

    Places that are merely not ruled out never add up to a thing: only a window's own sum counts,
    from `least` on.
    """
    mass = marginals.mass[kind].copy()
    half = 20
    found: list[Found] = []
    while True:
        running = np.concatenate([[0.0], np.cumsum(mass)])
        sums = running[2 * half + 1 :] - running[: -2 * half - 1]
        i = int(sums.argmax()) + half
        total = float(sums[i - half])
        if total < least:
            return found
        weight = mass[i - half : i + half + 1]
        at = np.arange(i - half, i + half + 1) * STEP / 2 - BEYOND
        middle = float(weight @ at) / total
        spread = max(
            float(weight @ (at - middle) ** 2) / total - STEP**2 / 12, 0.25
        )  # less what the steps add
        reach = 1.96 * sqrt(spread)
        found.append(
            Found(
                kind,
                middle,
                middle - reach,
                middle + reach,
                widths(kind, steel)[-1],
                min(total, 1.0),
            )
        )
        mass[max(i - 35, 0) : i + 36] = 0.0


def _merged(singles: list[Found], doubles: list[Found]) -> list[Found]:
    """One stud or two side by side.

    The likelier of both, with the probability of either, and as wide a doubt as both ask for.
    """
    kept = list(doubles)
    for single in singles:
        rival = next(
            (
                d
                for d in kept
                if abs(d.centre_mm - single.centre_mm) < STUD_MM and d.kind == "double"
            ),
            None,
        )
        if rival is None:
            kept.append(single)
            continue
        kept.remove(rival)
        best, other = (
            (single, rival) if single.probability >= rival.probability else (rival, single)
        )
        if other.probability > _RIVAL * best.probability:
            best = best._replace(
                low_mm=min(best.low_mm, other.low_mm), high_mm=max(best.high_mm, other.high_mm)
            )
        kept.append(best._replace(probability=min(single.probability + rival.probability, 1.0)))
    return kept


def _grids(
    studs: list[Found], readings: Sequence[Reading], setting: _Setting
) -> list[tuple[float, float, float]]:
    """Likely grids (spacing, first line, weight).

    Studs near its lines speak for one, swept lines without a stud against it.
    """
    inner = [s for s in studs if 60 < s.centre_mm < setting.width_mm - 60]
    if len(inner) < 2:
        return []  # one stud makes no grid, and would only vouch for itself
    sweeps = [r for r in readings if isinstance(r, Sweep)]
    spacings, firsts, logs = [], [], []
    for spacing, prior in SPACINGS.items():
        phase = np.arange(0.0, spacing, STEP)
        weight = np.full(len(phase), log(prior / len(phase)))
        for stud in inner:
            sd = sqrt(((stud.high_mm - stud.low_mm) / 3.92) ** 2 + MODEL.grid_sd**2)
            off = (stud.centre_mm - phase + spacing / 2) % spacing - spacing / 2
            ratio = MODEL.on_grid * spacing * bell(off, sd) + (1 - MODEL.on_grid)
            weight += np.log(stud.probability * ratio + 1 - stud.probability)
        weight += _silent_lines(phase, spacing, inner, sweeps, setting) * log(
            1 - MODEL.on_grid * 0.95
        )
        spacings.append(np.full(len(phase), spacing))
        firsts.append(phase)
        logs.append(weight)
    weights = np.concatenate(logs)
    weights = np.exp(weights - weights.max())
    weights /= weights.sum()
    best = np.argsort(weights)[::-1][:150]
    spacing_all, first_all = np.concatenate(spacings), np.concatenate(firsts)
    return [
        (float(spacing_all[i]), float(first_all[i]), float(weights[i]))
        for i in best
        if weights[i] > 1e-4
    ]


def _silent_lines(
    phase: Array, spacing: float, studs: list[Found], sweeps: list[Sweep], setting: _Setting
) -> Array:
    """How many lines of each grid were swept and have no stud near."""
    if not sweeps:
        return np.zeros(len(phase))
    width_mm = setting.width_mm
    start = max(min(s.from_mm for s in sweeps), 60.0)
    end = min(max(s.to_mm for s in sweeps), width_mm - 60.0)
    lines = phase[:, None] + spacing * np.arange(int(width_mm / spacing) + 1)
    swept = (lines > start) & (lines < end)
    for left, right in setting.gaps_mm:
        swept &= (lines < left - 2 * STUD_MM) | (lines > right + 2 * STUD_MM)
    if studs:
        centres = np.array([s.centre_mm for s in studs])
        swept &= np.abs(lines[:, :, None] - centres).min(axis=2) > 25
    return swept.sum(axis=1)


def _gridded(lattice: Array, grids: list[tuple[float, float, float]], width_mm: float) -> Array:
    """Density of studs' centres.

    Mostly on the lines of the likely grids, some anywhere, one at each end.
    """
    density = np.full(len(lattice), (1 - MODEL.on_grid if grids else 1) * MODEL.stud_per_mm)
    lines = np.zeros(len(lattice))
    for spacing, first, weight in grids:
        at = np.arange(first, width_mm, spacing)
        np.add.at(lines, np.round((at + BEYOND) / STEP).astype(int), weight)
    line = bell(np.arange(-10.0, 11.0) * STEP, MODEL.grid_sd)
    density += MODEL.on_grid * np.convolve(lines, line, mode="same")
    for centre in (19.0, width_mm - 19.0):  # a stud stands at each end of a wall
        density += MODEL.end_stud * bell(lattice - centre, 5.0)
    return density


def _best(grids: list[tuple[float, float, float]]) -> Grid | None:
    if not grids:
        return None
    totals: dict[float, float] = {}
    for spacing, _, weight in grids:
        totals[spacing] = totals.get(spacing, 0.0) + weight
    spacing = max(totals, key=totals.__getitem__)
    first = max((g for g in grids if g[0] == spacing), key=lambda g: g[2])[1]
    return Grid(spacing, first, min(totals[spacing] / sum(totals.values()), 1.0))
