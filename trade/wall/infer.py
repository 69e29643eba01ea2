"""From readings to studs: a probabilistic model of what may stand behind a lining.

The wall is cut into 2 mm steps. Along it stand objects that do not overlap: single and doubled studs, pipes, cables, and
patches or joints of the lining, which fool a finder the same way each time. Each kind has a density of its own and shows
itself in each reading with a known chance; a reading that no object explains is clutter, at a small known rate. Sums over
every possible row of objects (forwards and backwards, as for a semi-Markov chain) give the probability of a stud at each
place. Studs like to stand on a grid: a first pass without one says where studs are, these say which grids are likely, and a
second pass puts more weight on those grids' lines.

All chances are house rules, stated in `likelihood.MODEL`; `benchmarks/survey.py` measures how well they serve.
"""

from collections.abc import Sequence
from math import exp, log, log1p, sqrt
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from trade.evidence import Edge, MagnetHit, Probe, Reading, Sweep
from trade.plan import Stud
from trade.wall.likelihood import MODEL, SPACINGS, STEP, WIDTHS, Array, bell, scores, swept

Places = NDArray[np.int_]
_FAINT = -5.0  # an object with less than this (log of its odds against nothing) is not followed up
BEYOND = 40.0  # an end stud may stand partly behind the next wall


class Found(NamedTuple):
    """Something that may stand there: where its centre is, with the interval that holds it with 95 %, and how likely."""

    kind: str
    centre_mm: float
    low_mm: float
    high_mm: float
    width_mm: float
    probability: float

    @property
    def reach_mm(self) -> float:
        """Half the interval."""
        return (self.high_mm - self.low_mm) / 2

    @property
    def confidence(self) -> str:
        """certain, likely or doubtful (house rule: 98 % and within 6 mm; 85 %)."""
        if self.probability >= 0.98 and self.high_mm - self.low_mm <= 12:
            return "certain"
        return "likely" if self.probability >= 0.85 else "doubtful"


class Grid(NamedTuple):
    """The likeliest grid: spacing, its first line from the corner, and how likely that spacing is among all."""

    spacing_mm: float
    first_mm: float
    probability: float


class Inference(NamedTuple):
    """What the readings amount to.

    `studs` from left to right; `others`: pipes, cables, patches; `rejected`: readings that no accepted object explains, by index,
    with the reason; `ask_mm`: the place where a probe would help most, None when it would not help.
    """

    studs: tuple[Found, ...]
    others: tuple[Found, ...]
    grid: Grid | None
    rejected: tuple[tuple[int, str], ...]
    ask_mm: float | None


class _Marginals(NamedTuple):
    """Probability of an object's centre in each step, by kind (on the lattice of half steps, so that widths fit)."""

    mass: dict[str, Array]


def infer(width_mm: float, readings: Sequence[Reading]) -> Inference:
    """What stands behind a wall of this width, after these readings."""
    lattice = np.arange(-BEYOND, width_mm + BEYOND, STEP)
    told = (swept(lattice, readings, "left"), swept(lattice, readings, "right"))
    odds = {kind: scores(kind, lattice, readings, told) for kind in WIDTHS}
    flat = np.full(len(lattice), MODEL.stud_per_mm)
    _add_ends(flat, lattice, width_mm)
    first = _marginals(lattice, {kind: odds[kind] for kind in ("single", "double", "pipe")}, flat)
    grids = _grids(_found("single", first, 0.2), readings, width_mm)
    second = _marginals(lattice, odds, _gridded(lattice, grids, width_mm))
    studs = sorted(_found("single", second, 0.1) + _found("double", second, 0.1), key=lambda f: f.centre_mm)
    others = [f for kind in ("pipe", "cable", "patch") for f in _found(kind, second, 0.5)]
    accepted = [f for f in studs if f.probability >= 0.5] + others
    return Inference(tuple(studs), tuple(others), _best(grids), _rejected(readings, accepted), _ask(studs, width_mm))


def as_studs(known: Inference) -> tuple[Stud, ...]:
    """Studs to count on: those likelier than not; how far each may be off is its interval, and unknown when it is doubtful."""
    return tuple(
        Stud(
            centre_mm=max(round(stud.centre_mm, 1), 0.0),
            width_mm=stud.width_mm,
            uncertainty_mm=None if stud.confidence == "doubtful" else round((stud.high_mm - stud.low_mm) / 2, 1),
        )
        for stud in known.studs
        if stud.probability >= 0.5
    )


def _add_ends(density: Array, lattice: Array, width_mm: float) -> None:
    """A stud stands at each end of a wall."""
    for centre in (19.0, width_mm - 19.0):
        density += MODEL.end_stud * bell(lattice - centre, 5.0)


def _marginals(lattice: Array, odds_of: dict[str, list[tuple[int, Array]]], stud_density: Array) -> _Marginals:
    """Forwards and backwards over every row of objects; `stud_density` is by a stud's centre, per mm."""
    densities = {
        "double": MODEL.double_per_mm,
        "pipe": MODEL.pipe_per_mm / 3,
        "cable": MODEL.cable_per_mm,
        "patch": MODEL.patch_per_mm / 3,
    }
    n = len(lattice)
    kept: list[tuple[str, Places, int, Array]] = []
    for kind, widths in odds_of.items():
        for steps, score in widths:
            if kind == "single":
                prior = np.log(np.interp(lattice + 19.0, lattice, stud_density) * STEP)
            else:
                prior = np.full(n, log(densities[kind] * STEP))
            odds = score + prior
            # pipes and cables are only followed up where some reading speaks for them
            hopeful = odds > _FAINT if kind in ("single", "double") else (odds > _FAINT) & (score > 1.0)
            starts = np.flatnonzero(hopeful)
            kept.append((kind, starts, steps, odds[starts]))
    start = np.concatenate([starts for _, starts, _, _ in kept])
    end = np.concatenate([starts + steps for _, starts, steps, _ in kept])
    value = np.concatenate([values for _, _, _, values in kept])
    forward = _run(start, end, value, n)
    backward = _run(n - end, n - start, value, n)[::-1]
    mass = {kind: np.zeros(2 * n + 80) for kind in odds_of}
    for kind, starts, steps, values in kept:
        weight = np.exp(np.minimum(forward[starts] + values + backward[starts + steps] - forward[n], 0.0))
        np.add.at(mass[kind], 2 * starts + steps, weight)
    return _Marginals(mass)


def _run(start: Places, end: Places, value: Array, size: int) -> Array:
    """Log weight of all rows of objects up to each step; each object takes a row from its start to its end."""
    weights = [0.0] * (size + 1)
    order: Places = np.argsort(end, kind="stable")
    at = 0
    for a, b, v in zip(start[order].tolist(), end[order].tolist(), value[order].tolist(), strict=True):
        if b > at:
            weights[at + 1 : b + 1] = [weights[at]] * (b - at)
            at = b
        gain = weights[a] + v - weights[b]
        weights[b] += log1p(exp(gain)) if gain < 30 else gain
    weights[at + 1 :] = [weights[at]] * (size - at)
    return np.array(weights)


def _found(kind: str, marginals: _Marginals, least: float) -> list[Found]:
    """Gather the probability of a kind into things, the likeliest first: what lies within 40 mm is one thing.

    Places that are merely not ruled out never add up to a thing: only a window's own sum counts, from `least` on.
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
        weight, at = mass[i - half : i + half + 1], np.arange(i - half, i + half + 1) * STEP / 2 - BEYOND
        middle = float(weight @ at) / total
        spread = max(float(weight @ (at - middle) ** 2) / total - STEP**2 / 12, 0.25)  # less what the steps add
        reach = 1.96 * sqrt(spread)
        found.append(Found(kind, middle, middle - reach, middle + reach, WIDTHS[kind][-1], min(total, 1.0)))
        mass[max(i - 35, 0) : i + 36] = 0.0


def _grids(studs: list[Found], readings: Sequence[Reading], width_mm: float) -> list[tuple[float, float, float]]:
    """Likely grids (spacing, first line, weight): studs near its lines speak for one, swept lines without a stud against it."""
    inner = [s for s in studs if 60 < s.centre_mm < width_mm - 60]
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
        weight += _silent_lines(phase, spacing, inner, sweeps, width_mm) * log(1 - MODEL.on_grid * 0.95)
        spacings.append(np.full(len(phase), spacing))
        firsts.append(phase)
        logs.append(weight)
    weights = np.concatenate(logs)
    weights = np.exp(weights - weights.max())
    weights /= weights.sum()
    best = np.argsort(weights)[::-1][:150]
    spacing_all, first_all = np.concatenate(spacings), np.concatenate(firsts)
    return [(float(spacing_all[i]), float(first_all[i]), float(weights[i])) for i in best if weights[i] > 1e-4]


def _silent_lines(phase: Array, spacing: float, studs: list[Found], sweeps: list[Sweep], width_mm: float) -> Array:
    """How many lines of each grid were swept and have no stud near."""
    if not sweeps:
        return np.zeros(len(phase))
    start, end = max(min(s.from_mm for s in sweeps), 60.0), min(max(s.to_mm for s in sweeps), width_mm - 60.0)
    lines = phase[:, None] + spacing * np.arange(int(width_mm / spacing) + 1)
    swept = (lines > start) & (lines < end)
    if studs:
        centres = np.array([s.centre_mm for s in studs])
        swept &= np.abs(lines[:, :, None] - centres).min(axis=2) > 25
    return swept.sum(axis=1)


def _gridded(lattice: Array, grids: list[tuple[float, float, float]], width_mm: float) -> Array:
    """Density of studs' centres: mostly on the lines of the likely grids, some anywhere, one at each end."""
    density = np.full(len(lattice), (1 - MODEL.on_grid if grids else 1) * MODEL.stud_per_mm)
    lines = np.zeros(len(lattice))
    for spacing, first, weight in grids:
        at = np.arange(first, width_mm, spacing)
        np.add.at(lines, np.round((at + BEYOND) / STEP).astype(int), weight)
    line = bell(np.arange(-10.0, 11.0) * STEP, MODEL.grid_sd)
    density += MODEL.on_grid * np.convolve(lines, line, mode="same")
    _add_ends(density, lattice, width_mm)
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


_WHY = {
    "pipe": "what is there is too narrow for a stud: a pipe",
    "cable": "what is there is too narrow for a stud: a cable",
    "patch": "what is there shows itself like a stud but is none: a patch or a joint",
}


def _rejected(readings: Sequence[Reading], accepted: list[Found]) -> tuple[tuple[int, str], ...]:
    found = []
    for i, r in enumerate(readings):
        if isinstance(r, Edge | MagnetHit):
            near = [f for f in accepted if abs(r.at_mm - f.centre_mm) <= f.width_mm / 2 + 3 * MODEL.edge_sd]
            if not near:
                found.append((i, "it agrees with nothing else"))
            elif all(f.kind not in ("single", "double") for f in near):
                found.append((i, _WHY[near[0].kind]))
        elif (
            isinstance(r, Probe)
            and r.met == "wood"
            and not any(abs(r.at_mm - f.centre_mm) <= f.width_mm / 2 + 4 for f in accepted)
        ):
            found.append((i, "wood here, but nothing else speaks for a stud"))
    return tuple(found)


def _ask(studs: list[Found], width_mm: float) -> float | None:
    """Probe the stud that is most in doubt; when none is, the one whose place is least sure, near its edge."""
    doubtful = [s for s in studs if 0.05 < s.probability < 0.98 and 0 <= s.centre_mm <= width_mm]
    if doubtful:
        return max(doubtful, key=lambda s: s.probability * (1 - s.probability)).centre_mm
    loose = [s for s in studs if s.high_mm - s.low_mm > 12]
    if not loose:
        return None
    return min(max(max(loose, key=lambda s: s.high_mm - s.low_mm).centre_mm + 17.0, 0.0), width_mm)
