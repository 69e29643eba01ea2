"""How well each reading fits each kind of object at each place: the likelihood side of `infer`.

Everything is a log odds against nothing standing there, so that readings add up. All chances are
house rules, in the table of what is in the wall.
"""

from collections.abc import Callable, Iterable, Sequence
from functools import partial
from math import ceil, erf, log1p, pi, sqrt
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from trade import data
from trade.measure import IN_MM
from trade.plan.readings import ByHand, Edge, Knock, MagnetHit, Probe, Reading, Seen, Sweep

Array = NDArray[np.float64]
Places = NDArray[np.int_]
STEP = 2.0
BY_HAND = data.house("by_hand")
_MAGNET_MM = data.house("magnet_reach_mm")
_KNOCK_MM = data.house("knock_reach_mm")
_SEEN_MM = data.house("seen_reach_mm")
_SOFT = data.house("nail_wanders_mm")
_FINE = 0.05  # so finely effects are tabulated, mm
_TWICE = data.house("not_double")
STRUCK_MM = data.house("struck_mm")


class Model(NamedTuple):
    """What the model takes for granted; lengths mm, densities per mm."""

    stud_per_mm: float = data.house("studs_per_mm")
    double_per_mm: float = data.house("doubles_per_mm")
    pipe_per_mm: float = data.house("pipes_per_mm")
    cable_per_mm: float = data.house("cables_per_mm")
    edge_sd: float = data.house("edge_sd_mm")
    patch_per_mm: float = data.house("patches_per_mm")
    shows: tuple[float, float, float, float] = (  # in the order of `SHOWS`
        data.house("stud_shows"),
        data.house("pipe_shows"),
        data.house("cable_shows"),
        data.house("patch_shows"),
    )
    clutter: float = data.house("false_per_mm")
    screw_sd: float = data.house("lining_screw_sd_mm")
    on_grid: float = data.house("on_grid")
    grid_sd: float = data.house("grid_sd_mm")
    end_stud: float = data.house("end_stud")
    probe_errs: float = data.house("probe_errs")
    jamb: float = data.house("jamb_doubled")
    within_opening: float = data.house("within_opening")


MODEL = Model()
SPACINGS = {
    16 * IN_MM: data.house("grid_16_in"),
    24 * IN_MM: data.house("grid_24_in"),
    400.0: data.house("grid_400_mm"),
    600.0: data.house("grid_600_mm"),
    19.2 * IN_MM: data.house("grid_19_2_in"),
    12 * IN_MM: data.house("grid_12_in"),
    450.0: data.house("grid_450_mm"),
}
WIDTHS = {
    "single": (38.0,),
    "double": (76.0,),
    "pipe": (14.0, 20.0, 26.0),
    "cable": (10.0,),
    "patch": (30.0, 38.0, 50.0),
}
STUDS = ("single", "double")
SHOWS = {"single": 0, "double": 0, "pipe": 1, "cable": 2, "patch": 3}

_WIDEST = 80  # half steps that the widest of them reaches over the last place
_MET = ("wood", "air", "metal")  # what is hard everywhere says nothing about studs
_SAID: dict[type[Reading], str] = {
    Probe: "met",
    Knock: "sound",
    ByHand: "word",
    MagnetHit: "stuck",
    Seen: "seen",
}


def widths(kind: str, steel: bool) -> tuple[float, ...]:
    """How wide things of a kind are; a steel stud shows its flange."""
    return (32.0,) if steel and kind == "single" else WIDTHS[kind]


def bell(x: Array | float, sd: float) -> Array:
    """Density of a normal distribution about nought, per mm."""
    z = np.asarray(x) / sd
    return np.exp(-0.5 * z * z) / (sd * sqrt(2 * pi))


class Lattice(NamedTuple):
    """Places along a wall, evenly apart."""

    first_mm: float
    step_mm: float
    size: int

    def after(self, mm: float) -> int:
        """Return the number of the first point at or right of a place.

        It may lie outside the lattice.
        """
        return ceil((mm - self.first_mm) / self.step_mm)

    def accumulate(
        self, at_mm: Sequence[float], reach_mm: float, effect: Callable[[Array], Array]
    ) -> Array:
        """Return at each place the sum of the effects of the readings near enough to matter.

        Args:
            at_mm: where they were taken.
            reach_mm: further off they do nothing.
            effect: of a reading at this distance from a place, mm: asked for every 1/20 mm, and
              even between them.
        """
        if not len(at_mm):
            return np.zeros(self.size)
        at = np.asarray(at_mm, dtype=np.float64)
        apart = round(self.step_mm / _FINE)
        ends = round(reach_mm / _FINE)
        table = effect(np.arange(-ends, ends + 2, dtype=np.float64) * _FINE)
        first = np.ceil((at - reach_mm - self.first_mm) / self.step_mm)
        fine = (at - self.first_mm - first * self.step_mm + reach_mm) / _FINE
        whole = np.floor(fine)
        steps = np.arange(int(2 * reach_mm / self.step_mm) + 1)
        rows = whole.astype(int)[:, None] - apart * steps
        places = first.astype(int)[:, None] + steps
        rest = np.broadcast_to((fine - whole)[:, None], rows.shape)
        here = (
            (rows + rest > 0)
            & (rows + rest < len(table) - 2)
            & (places >= 0)
            & (places < self.size)
        )
        row, place = rows[here], places[here]
        value = table[row]
        value += (table[row + 1] - value) * rest[here]
        return np.asarray(np.bincount(place, value, minlength=self.size), dtype=np.float64)


class EdgeEvidence(NamedTuple):
    """What finders said about one side's edges.

    `covered`: over how many places' edges sweeps went, that may have been silent; `places`,
    `density`, `swept`: of each sweep the places where it told of edges, how densely, and whether it
    covered them; `alone_mm`: edges told without a sweep, for what was silent there nobody knows.
    """

    covered: Array
    places: Places
    density: Array
    swept: Array
    alone_mm: list[float]


def edge_evidence(lattice: Lattice, readings: Sequence[Reading], side: str) -> EdgeEvidence:
    """All that finders said about one side."""
    edges = [r for r in readings if isinstance(r, Edge) and r.side == side]
    at, height = np.array([e.at_mm for e in edges]), np.array([e.height_mm for e in edges])
    used = np.zeros(len(edges), dtype=bool)
    changes = np.zeros(lattice.size + 1)
    rows: list[tuple[Places, Array, Array]] = []
    for sweep in (r for r in readings if isinstance(r, Sweep)):
        reach = (
            3 * MODEL.edge_sd
        )  # an edge this near to where the sweep began or ended may have been missed for that
        ends = (lattice.after(sweep.from_mm + reach), lattice.after(sweep.to_mm - reach))
        start, end = (min(max(place, 0), lattice.size) for place in ends)
        if start < end:
            changes[start] += 1
            changes[end] -= 1
        own = (height == sweep.height_mm) & (at >= sweep.from_mm) & (at <= sweep.to_mm)
        if own.any():
            used |= own
            density = lattice.accumulate(
                at[own], 6 * MODEL.edge_sd, lambda off: bell(off, MODEL.edge_sd)
            )
            places = np.flatnonzero(density)
            rows.append(
                (places, density[places], ((places >= start) & (places < end)).astype(float))
            )
    covered = np.cumsum(changes)[:-1]
    alone = at[~used].tolist()
    if not rows:
        return EdgeEvidence(covered, np.empty(0, dtype=int), np.empty(0), np.empty(0), alone)
    places, density, swept = (np.concatenate(part) for part in zip(*rows, strict=True))
    return EdgeEvidence(covered, places, density, swept, alone)


def _edge_scores(said: EdgeEvidence, lattice: Lattice, shows: float) -> Array:
    """Log odds of an object's edge at each step against none there, over all sweeps.

    A sweep that was silent counts.
    """
    silent, shown = log1p(-shows), shows / MODEL.clutter
    heard = np.log((1 - shows) + shown * said.density) - said.swept * silent
    total = said.covered * silent + np.bincount(said.places, heard, minlength=lattice.size)
    return total + lattice.accumulate(
        said.alone_mm, 6 * MODEL.edge_sd, lambda off: np.log1p(shown * bell(off, MODEL.edge_sd))
    )


def scores(
    kinds: Iterable[str], lattice: Lattice, readings: Sequence[Reading], steel: bool = False
) -> dict[str, list[tuple[int, Array]]]:
    """Per kind and width.

    Its length in steps, and the log odds of such an object beginning at each step.
    """
    both = (edge_evidence(lattice, readings, "left"), edge_evidence(lattice, readings, "right"))
    edges = {
        shows: tuple(_edge_scores(side, lattice, shows) for side in both)
        for shows in set(MODEL.shows)
    }
    points = _PointEvidence(lattice, readings, steel)
    found: dict[str, list[tuple[int, Array]]] = {}
    for kind in kinds:
        left, right = edges[MODEL.shows[SHOWS[kind]]]
        found[kind] = []
        for width in widths(kind, steel):
            steps = round(width / STEP)
            score = np.full(lattice.size, -np.inf)
            if steps < lattice.size:
                score[:-steps] = left[:-steps] + right[steps:]
                score += points.scores(kind, width)
            found[kind].append((steps, score))
    return found


class _PointEvidence:
    """What readings at one place say about the centre of an object there."""

    def __init__(self, lattice: Lattice, readings: Sequence[Reading], steel: bool) -> None:
        """Sort them.

        Centres lie on half steps, for every width is a whole number of steps or of half ones.
        """
        self._lattice, self._steel = lattice, steel
        self._halves = Lattice(lattice.first_mm, lattice.step_mm / 2, 2 * lattice.size + _WIDEST)
        self._at: dict[tuple[str, str], list[float]] = {}
        for r in readings:
            said = _SAID.get(type(r))
            if said is not None and not isinstance(r, Sweep):
                self._at.setdefault(
                    (said, getattr(r, said) if said in ("met", "sound", "word") else ""), []
                ).append(r.at_mm)
        self._of_kind = {stud: self._by_class(stud) for stud in (True, False)}
        self._magnets: dict[str, Array] = {}

    def scores(self, kind: str, width: float) -> Array:
        """Log odds of an object of a kind and width beginning at each step."""
        centres = self._lattice._replace(first_mm=self._lattice.first_mm + width / 2)
        total = sum(
            (
                self._sum(
                    centres,
                    "met",
                    met,
                    width / 2 + 6 * _SOFT,
                    _probe(kind, width, met, self._steel),
                )
                for met in _MET
            ),
            np.zeros(self._lattice.size),
        )
        if kind not in self._magnets:
            self._magnets[kind] = self._sum(
                self._halves, "stuck", "", _MAGNET_MM, lambda off: _magnet(kind, off, self._steel)
            )
        halves = self._magnets[kind] + self._of_kind[kind in STUDS]
        if kind == "double":
            total -= _TWICE * len(self._at.get(("word", "pinned"), ()))
        shift = round(width / self._lattice.step_mm)
        found: Array = total + halves[shift : shift + 2 * self._lattice.size : 2]
        return found

    def _sum(
        self, lattice: Lattice, said: str, how: str, reach: float, effect: Callable[[Array], Array]
    ) -> Array:
        return lattice.accumulate(self._at.get((said, how), ()), reach, effect)

    def _by_class(self, stud: bool) -> Array:
        """Return what is the same for all studs, and for all that is none."""
        steps = self._lattice._replace(size=self._lattice.size + _WIDEST // 2 + 1)
        heard = np.zeros(steps.size)
        for sound in ("full", "hollow"):
            full = 0.65 if (sound == "full") == stud else 0.35
            heard += self._sum(steps, "sound", sound, _KNOCK_MM, partial(_knock, full))
        # so blurred a sense needs no half steps of its own
        total: Array = np.interp(np.arange(self._halves.size) / 2, np.arange(steps.size), heard)
        if stud:  # a person's word outweighs what devices say
            total += self._sum(
                self._halves,
                "word",
                "struck",
                STRUCK_MM,
                lambda off: np.where(np.abs(off) < STRUCK_MM, -BY_HAND, 0.0),
            )
            total += self._sum(
                self._halves,
                "word",
                "pinned",
                STRUCK_MM,
                lambda off: np.maximum(BY_HAND - 0.5 * (off / 2.5) ** 2, 0.0),
            )
            total += self._sum(self._halves, "seen", "", _SEEN_MM, _seen)
        return total


def _knock(full: float, off: Array) -> Array:
    near = np.exp(-0.5 * (off / 25.0) ** 2)
    return np.log((full * near + 0.5 * (1 - near)) / 0.5)


def _seen(off: Array) -> Array:
    return np.log((bell(off, 2.5) + 1e-7) / 1e-4)


def _magnet(kind: str, off: Array, steel: bool) -> Array:
    stud = kind in STUDS
    if stud and steel:  # it sticks anywhere on the flange
        hit = np.where(np.abs(off) <= 18, 1 / 36.0, 1e-9)
    elif kind == "double":
        hit = 0.5 * (bell(off - 19, MODEL.screw_sd) + bell(off + 19, MODEL.screw_sd))
    else:
        hit = bell(off, MODEL.screw_sd if stud else 4.0)
    share = 0.9 if stud else 0.3 if kind == "pipe" else 0.02 if kind == "cable" else 0.0
    return np.log1p(share / MODEL.clutter * hit)


def _probe(kind: str, width: float, met: str, steel: bool) -> Callable[[Array], Array]:
    """Return what a nail says of an object of this width.

    By how far it was from the object's centre.
    """
    errs = MODEL.probe_errs
    own = ("metal" if steel else "wood") if kind in STUDS else "metal" if kind == "pipe" else "air"
    behind = 1 - 2 * errs if met == own else errs
    beside = 1 - 2 * errs if met == "air" else errs

    def effect(off: Array) -> Array:
        cover = _covered(width / 2 - np.abs(off))
        return np.log((behind * cover + beside * (1 - cover)) / beside)

    return effect


_TABLE = np.array([0.5 * (1 + erf(x / sqrt(2))) for x in np.linspace(-6, 6, 241)])


def _covered(inside: Array) -> Array:
    """Chance that a wandering nail is over an object when its place is this far inside its edge."""
    return np.interp(inside / _SOFT, np.linspace(-6, 6, 241), _TABLE)
