"""A piece along the wall as a beam on its supports, in every load case.

What hangs on a piece or stands on it may also not be there: each part of the load counts where it
hurts and is left out where it helps (pattern loading), so that taking something away can never turn
a good verdict bad. A thing spread over all of it is cut at the supports for this.
"""

from collections.abc import Callable
from functools import cache
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from trade import data
from trade.language import compose, word
from trade.load.demand import Demand
from trade.load.push import push_of
from trade.load.ways import ELASTIC, Sharing
from trade.measure import G_N_PER_KG
from trade.mechanics import beam
from trade.mechanics.beam import Array
from trade.memo import memoized
from trade.plan.model import Piece

Contents = tuple[list[beam.Load], list[float]]
Push = tuple[float, float, str]  # what a support takes of one push, N and N mm, and where that is
_WIDER = data.house("gap_wider")
_BESIDE_MM = 1e-3  # just to the side of a place


class BoardDemand(NamedTuple):
    """Greatest bending in the board for one duration, either way."""

    case: str
    duration: float
    moment_nmm: float
    place_mm: float


class LineLoad:
    """A piece's loads on its supports. Unknown weights count as nothing: the caller must say so."""

    def __init__(
        self,
        piece: Piece,
        own_n: float,
        own_out_mm: float,
        hardware_n: float = 0.0,
        hardware_out_mm: float = 0.0,
        ei_nmm2: float = 1.0,
        contents: "Contents | None" = None,
        push_share: float = 1.0,
        along: bool = False,
        sharing: Sharing = ELASTIC,
        torsion_nmm: float = 0.0,
    ) -> None:
        """Work out what each load does alone.

        Args:
            piece: with two supports or more.
            own_n: its own weight, spread along it.
            own_out_mm: how far from the wall that weight hangs.
            hardware_n: own weight of what holds it, at each support.
            hardware_out_mm: how far from the wall that hangs.
            ei_nmm2: bending stiffness; how supports share hangs on its evenness alone.
            contents: what hangs or stands on it, where that is not simply its things.
            push_share: how much of a push these supports take.
            along: what bends it is wanted too, not only what its supports take.
            sharing: how its supports share.
            torsion_nmm: what it may be twisted with for ten years; matters where it turns its
              supports together.
        """
        self.piece = piece
        self.use = data.uses()[piece.use]
        self.push_n = push_of(piece).n * push_share
        self.own_n = own_n
        self._hardware_n, self._hardware_out_mm = hardware_n, hardware_out_mm
        supports = tuple(x for i, x in enumerate(piece.supports_mm) if i not in sharing.left_out)
        loads, outs = contents or contents_of(piece, supports)
        self.pushed_at = push_places(piece, sharing.left_out)
        pushes = [beam.Load(1.0, place, place) for place, _ in self.pushed_at]
        self._count = len(loads)
        self._sagging = 1 + len(loads)  # nobody asks what a push sags
        self._loads = [beam.Load(own_n, 0.0, piece.length_mm), *loads, *pushes]
        self._left_out, self._torsion_nmm = sharing.left_out, torsion_nmm
        self._totals = np.array([load.total_n for load in self._loads])
        self._outs = np.array([own_out_mm, *outs, *(piece.depth_mm for _ in pushes)])
        self._turning = self._totals * self._outs
        self.stiff = sharing.stiff and len(supports) > 2  # on two supports both are the same
        self.beam = beam.solve(
            piece.length_mm, supports, ei_nmm2, self._loads, along, self.stiff, self._sagging
        )
        self._shares, self._turns = self._shared(sharing, self.beam.reactions_n)

    def _shared(self, sharing: Sharing, reactions_n: Array) -> tuple[Array, Array]:
        """Share each load over the supports: force, N, and turning, N mm, (supports, loads)."""
        count = len(self.piece.supports_mm)
        bearing = [i for i in range(count) if i not in sharing.left_out]
        shares = reactions_n
        if sharing.left_out:
            shares = np.zeros((count, len(self._loads)))
            shares[bearing] = reactions_n
        turns = shares * self._outs
        if sharing.turned:
            together = self._together(tuple(self.piece.supports_mm[i] for i in bearing))
            even = np.zeros((count, 1))
            even[bearing] = together / len(bearing)
            turns = (1 - together) * turns + even * self._turning
        return shares, turns

    def _together(self, supports: tuple[float, ...]) -> float:
        """Return the share of turning that all supports carry evenly without twisting the piece."""
        n, factor = 1 + self._count, self.use.factor
        turning = self._turning
        if (
            self._torsion_nmm
            >= factor * float(turning[:n].sum()) + self.push_n * self.piece.depth_mm
        ):
            return 1.0  # it could bear all of it in one place
        paths = twist_paths(supports, tuple((load.start_mm, load.end_mm) for load in self._loads))
        twists = turning * paths
        own, contents = twists[:, 0], twists[:, 1:n]
        lasting = max(
            float((np.maximum(contents, 0).sum(axis=1) * factor + own).max()),
            float((np.maximum(-contents, 0).sum(axis=1) * factor - own).max()),
            1e-9,
        )
        pushed = lasting + self.push_n * float(np.abs(twists[:, n:]).max())
        years, minutes = data.house("duration_years"), data.house("duration_minutes")
        return min(self._torsion_nmm * years / lasting, self._torsion_nmm * minutes / pushed, 1.0)

    def hardest(self, sharing: Sharing | None = None) -> tuple[float, float]:
        """Return the greatest load and turning on any support, each over its duration factor."""
        shares, turns = self._shares, self._turns
        if sharing is not None:
            places = tuple((load.start_mm, load.end_mm) for load in self._loads)
            supports = tuple(
                x for i, x in enumerate(self.piece.supports_mm) if i not in sharing.left_out
            )
            unit = beam.unit(self.piece.length_mm, supports, places, False, sharing.stiff)
            shares, turns = self._shared(sharing, unit.reactions_n * self._totals)
        n = 1 + self._count
        years = data.house("duration_years")
        minutes = data.house("duration_minutes")
        rows = np.array([shares, turns])
        own, contents = rows[:, :, 0], rows[:, :, 1:n]
        pressing = np.maximum(contents, 0).sum(axis=2)
        down = own + pressing * self.use.factor
        up = own + (contents.sum(axis=2) - pressing) * self.use.factor
        pushed = rows[:, :, n:].max(axis=2) * self.push_n
        lifted = rows[:, :, n:].min(axis=2) * self.push_n
        cases = np.maximum.reduce(
            [down / years, -up / years, (down + pushed) / minutes, -(up + lifted) / minutes]
        )
        load, turning = cases.max(axis=1).tolist()
        return load, turning

    def even(self) -> tuple[float, float]:
        """Return an even part of all load and all turning load, each over its duration factor.

        The least that is the hardest.
        """
        factors = np.array([1.0] + [self.use.factor] * self._count)
        loads = self._totals[: 1 + self._count] * factors
        load, turning = float(loads.sum()), float(loads @ self._outs[: 1 + self._count])
        years = data.house("duration_years")
        minutes = data.house("duration_minutes")
        count = len(self.piece.supports_mm)
        pushed = (load + self.push_n, turning + self.push_n * self.piece.depth_mm)
        return max(load / years, pushed[0] / minutes) / count, max(
            turning / years, pushed[1] / minutes
        ) / count

    def demands(self) -> dict[int, tuple[Demand, ...]]:
        """Return the load cases that can govern at each support.

        For years, and for minutes, downwards and upwards.
        """
        n, factor = 1 + self._count, self.use.factor
        hardware_m = self._hardware_n * self._hardware_out_mm
        found: dict[int, tuple[Demand, ...]] = {}
        for i, (forces, turns) in enumerate(
            zip(self._shares.tolist(), self._turns.tolist(), strict=True)
        ):
            if i in self._left_out:
                found[i] = (
                    Demand("counted as bearing nothing", data.house("duration_years"), 0.0, 0.0),
                )
                continue
            down = down_m = up = up_m = 0.0
            for force, turn in zip(forces[1:n], turns[1:n], strict=True):
                if force > 0:
                    down += force
                else:
                    up += force
                if turn > 0:
                    down_m += turn
                else:
                    up_m += turn
            own, own_m = forces[0] + self._hardware_n, turns[0] + hardware_m
            share = Share(own, own_m, factor * down, factor * down_m, factor * up, factor * up_m)
            found[i] = _cases(
                share,
                self._pushes(forces[n:], turns[n:], max),
                self._pushes(forces[n:], turns[n:], min),
            )
        return found

    def _pushes(
        self, forces: list[float], turns: list[float], most: Callable[[list[float]], float]
    ) -> list[Push]:
        """Return the push that turns a support most (or least), and the one that presses most."""
        at = dict.fromkeys((turns.index(most(turns)), forces.index(most(forces))))
        return [(self.push_n * forces[k], self.push_n * turns[k], self.pushed_at[k][1]) for k in at]

    def board_demands(self) -> tuple[BoardDemand, BoardDemand]:
        """Greatest bending of the board for years, and with the push or the lift."""
        own, contents, pushes = self._parts(self.beam.moments_nmm)
        down, up = pushes.max(axis=1) * self.push_n, pushes.min(axis=1) * self.push_n
        helping = np.maximum(contents, 0).sum(axis=1) * self.use.factor
        sagging = own + helping
        hogging = own + (contents.sum(axis=1) * self.use.factor - helping)
        years = np.maximum(sagging, -hogging)
        # a lift is the push upside down on the empty shelf
        minutes = np.maximum.reduce(
            [sagging + np.maximum(down, 0), -hogging - np.minimum(up, 0), down - own, own - up]
        )
        a, b = int(years.argmax()), int(minutes.argmax())
        places = self.beam.places_mm
        return (
            BoardDemand(
                "loaded, for years", data.house("duration_years"), float(years[a]), float(places[a])
            ),
            BoardDemand(
                "loaded, and pushed or lifted",
                data.house("duration_minutes"),
                float(minutes[b]),
                float(places[b]),
            ),
        )

    def _parts(self, rows: Array) -> tuple[Array, Array, Array]:
        """Own weight, contents and unit pushes (where they are wanted) of some result rows."""
        return rows[:, 0], rows[:, 1 : 1 + self._count], rows[:, 1 + self._count :]

    def lasting_effects(self, effect: Callable[[float], float]) -> list[float]:
        """Return what lasts at each support: each load times the effect of 1 N at its reach."""
        n = 1 + self._count
        effects = np.array([effect(float(out)) for out in self._outs[:n]])
        effects[1:] *= self.use.factor
        shares = self._shares[:, :n].copy()
        shares[:, 1:] = np.maximum(shares[:, 1:], 0)
        found: list[float] = (
            shares @ effects + self._hardware_n * effect(self._hardware_out_mm)
        ).tolist()
        return found

    def push_shares(self, support: int) -> list[float]:
        """Part of a unit push at each place that a support takes."""
        found: list[float] = self._shares[support, 1 + self._count :].tolist()
        return found


@memoized(limit=1_024)
def twist_paths(
    supports_mm: tuple[float, ...], places_mm: tuple[tuple[float, float], ...]
) -> Array:
    """Return the part of each load's turning passed between supports, (places, loads)."""
    starts, ends = (np.array(edges) for edges in zip(*places_mm, strict=True))
    inside = [x for x in (*supports_mm, *starts.tolist()) if supports_mm[0] <= x <= supports_mm[-1]]
    at = np.array([x + side for x in inside for side in (-_BESIDE_MM, _BESIDE_MM)])
    at = at[(at > supports_mm[0]) & (at < supports_mm[-1])][:, None]
    borne = (at > np.array(supports_mm)).sum(axis=1)[:, None] / len(supports_mm)
    passed = np.clip((at - starts) / np.maximum(ends - starts, _BESIDE_MM / 2), 0.0, 1.0)
    paths: Array = borne - passed
    return paths


def push_places(piece: Piece, left_out: tuple[int, ...] = ()) -> tuple[tuple[float, str], ...]:
    """Where the accidental push is tried, with its name.

    Both ends, over every support that bears, in the middle of every gap.

    What a support takes of a push, over the push's place, is a straight line beyond the outer
    supports, and all along where there are only two. Between others it is a curve, steep near the
    end of a gap that is wider than another: there quarters are tried too, so that no more than a
    twentieth is missed.
    """
    return _push_places(piece.length_mm, piece.supports_mm, left_out)


@memoized(limit=1_024)
def _push_places(
    length_mm: float, supports_mm: tuple[float, ...], left_out: tuple[int, ...]
) -> tuple[tuple[float, str], ...]:
    bearing = [(x, i + 1) for i, x in enumerate(supports_mm) if i not in left_out]
    left, right = (0.0, "at the left end"), (length_mm, "at the right end")
    if len(bearing) == 2:
        return left, ((bearing[0][0] + bearing[1][0]) / 2, "in the middle"), right
    narrow = min(b - a for (a, _), (b, _) in pairwise(bearing)) * _WIDER
    over = [(x, compose("over support {i}", i=i)) for x, i in bearing]
    between = [
        (a + (b - a) * share, compose("between supports {i} and {k}", i=i, k=k))
        for (a, i), (b, k) in pairwise(bearing)
        for share in ((0.5,) if b - a <= narrow else (0.25, 0.5, 0.75))
    ]
    return (left, *over, *between, right)


class Share(NamedTuple):
    """What one support gets.

    Own weight, then contents that press it down and up, each with what it turns by, N and N mm.
    """

    own: float
    own_m: float
    down: float
    down_m: float
    up: float
    up_m: float


_NOTHING_N = 1e-9


@cache
def _for_years(part: str) -> str:
    return compose("{part}, for years", part=part)


@cache
def _pushed_down(part: str, where: str) -> str:
    return compose("{part}, and pushed down {name}", part=part, name=where)


@cache
def _pushed_far(where: str) -> str:
    return compose("loaded on the far side only, and pushed down {name}", name=where)


@cache
def _lifted(where: str) -> str:
    return compose("empty, and lifted {name}", name=where)


def _cases(mine: Share, hardest: list[Push], lightest: list[Push]) -> tuple[Demand, ...]:
    """Load cases of one support, pushed where that loads it most and where it unloads it most."""
    years, minutes = data.house("duration_years"), data.house("duration_minutes")
    part = word("loaded") if mine.up > -_NOTHING_N else "loaded on one side only"
    full, full_m = mine.own + mine.down, mine.own_m + mine.down_m
    cases = [Demand(_for_years(part), years, full, full_m)]
    for push, turn, name in hardest:
        cases.append(
            Demand(
                _pushed_down(part, name),
                minutes,
                full + max(push, 0.0),
                full_m + max(turn, 0.0),
            )
        )
    far, far_m = mine.own + mine.up, mine.own_m + mine.up_m
    if far_m < 0:
        cases.append(Demand("loaded on the far side only, for years", years, far, far_m))
    for pull, back, name in lightest:
        if far_m + min(back, 0.0) < 0 or far + min(pull, 0.0) < 0:
            case = _pushed_far(name)
            cases.append(Demand(case, minutes, far + min(pull, 0.0), far_m + min(back, 0.0)))
    for push, turn, name in hardest:
        if mine.own_m - turn < 0:
            cases.append(
                Demand(
                    _lifted(name),
                    minutes,
                    mine.own - push,
                    mine.own_m - turn,
                )
            )
    return tuple(cases)


def unweighed(piece: Piece) -> tuple[str, ...]:
    """Return what to find out about the loads: nothing listed, or things without a weight."""
    if not piece.things:
        return (compose("what “{piece}” will carry.", piece=piece.name),)
    return tuple(
        compose("what “{thing}” weighs.", thing=thing.name)
        for thing in piece.things
        if thing.mass_kg is None
    )


def contents_of(piece: Piece, supports_mm: tuple[float, ...] | None = None) -> Contents:
    """Return what stands on a piece.

    Loads along it, and how far from the wall each is; spread loads cut at the supports.
    """
    edges = sorted(
        {0.0, *(piece.supports_mm if supports_mm is None else supports_mm), piece.length_mm}
    )
    spread: dict[float, float] = {}
    loads: list[beam.Load] = []
    outs: list[float] = []
    for thing in piece.things:
        weight = (thing.mass_kg or 0.0) * G_N_PER_KG
        out = piece.usual_out_mm if thing.out_mm is None else thing.out_mm
        if thing.at_mm is None:
            spread[out] = spread.get(out, 0.0) + weight
        else:
            loads.append(beam.Load(weight, thing.at_mm, thing.at_mm))
            outs.append(out)
    for out, weight in spread.items():
        for start, end in pairwise(edges):
            loads.append(beam.Load(weight * (end - start) / piece.length_mm, start, end))
            outs.append(out)
    return loads, outs
