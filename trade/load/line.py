"""A piece along the wall as a beam on its supports, in every load case.

What hangs on a piece or stands on it may also not be there: each part of the load counts where it hurts and is left out where it
helps (pattern loading), so that taking something away can never turn a good verdict bad. A thing spread over all of it is cut at
the supports for this.
"""

from collections.abc import Callable
from functools import lru_cache
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from trade import data
from trade.load.demand import Demand
from trade.measure import G_N_PER_KG
from trade.mechanics import beam
from trade.mechanics.beam import Array
from trade.plan import Piece

Contents = tuple[list[beam.Load], list[float]]
PLACES = ("at the left end", "in the middle of the widest gap", "at the right end")


class BoardDemand(NamedTuple):
    """Greatest bending in the board for one duration, either way."""

    case: str
    duration: float
    moment_nmm: float
    place_mm: float


@lru_cache(maxsize=256)
def alone(length_mm: float, supports_mm: tuple[float, ...], places_mm: tuple[tuple[float, float], ...], along: bool) -> beam.Beam:
    """1 N at each of some places of a beam of unit stiffness: solved once, however many weights and screws are then tried."""
    return beam.solve(length_mm, supports_mm, 1.0, [beam.Load(1.0, *place) for place in places_mm], along)


def solved(length_mm: float, supports_mm: tuple[float, ...], ei_nmm2: float, loads: list[beam.Load], along: bool) -> beam.Beam:
    """A beam under its loads, each alone: as much of each as there is of it."""
    unit = alone(length_mm, supports_mm, tuple((load.start_mm, load.end_mm) for load in loads), along)
    total = np.array([load.total_n for load in loads])
    return beam.Beam(
        unit.reactions_n * total, unit.places_mm, unit.moments_nmm * total, unit.sags_mm * (total / ei_nmm2), unit.spans_mm
    )


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
        """
        self.piece = piece
        self.use = data.uses()[piece.use]
        self.push_n = self.use.push_n * push_share
        self.own_n, self._own_out_mm = own_n, own_out_mm
        self._hardware_n, self._hardware_out_mm = hardware_n, hardware_out_mm
        loads, outs = contents or contents_of(piece)
        pushes = [beam.Load(1.0, place, place) for place in _push_places_mm(piece)]
        self._count = n = len(loads)
        own = beam.Load(own_n, 0.0, piece.length_mm)
        self.beam = solved(piece.length_mm, piece.supports_mm, ei_nmm2, [own, *loads, *pushes], along)
        self._outs = outs
        self._shares = [(row[0], row[1 : 1 + n], row[1 + n :]) for row in self.beam.reactions_n.tolist()]

    def demands(self) -> dict[int, tuple[Demand, ...]]:
        """The load cases that can govern at each support: for years, and for minutes, downwards and upwards."""
        depth, factor, push_n = self.piece.depth_mm, self.use.factor, self.push_n
        found = {}
        for i, (own, contents, pushes) in enumerate(self._shares):
            forces = [factor * force for force in contents]
            down = sum(force for force in forces if force > 0)
            up = sum(force for force in forces if force < 0)
            down_m = sum(force * out for force, out in zip(forces, self._outs, strict=True) if force > 0)
            up_m = sum(force * out for force, out in zip(forces, self._outs, strict=True) if force < 0)
            own_m = own * self._own_out_mm + self._hardware_n * self._hardware_out_mm
            pushed = [push_n * share for share in pushes]
            found[i] = _cases(own + self._hardware_n, own_m, down, down_m, up, up_m, pushed, depth)
        return found

    def board_demands(self) -> tuple[BoardDemand, BoardDemand]:
        """Greatest bending of the board for years, and with the push or the lift."""
        own, contents, pushes = self._parts(self.beam.moments_nmm)
        contents = contents * self.use.factor
        pushes = pushes * self.push_n
        down, up = pushes.max(axis=1), pushes.min(axis=1)
        sagging = own + np.maximum(contents, 0).sum(axis=1)
        hogging = own + np.minimum(contents, 0).sum(axis=1)
        years = np.maximum(sagging, -hogging)
        # a lift is the push upside down on the empty shelf
        minutes = np.maximum.reduce([sagging + np.maximum(down, 0), -hogging - np.minimum(up, 0), down - own, own - up])
        a, b = int(years.argmax()), int(minutes.argmax())
        places = self.beam.places_mm
        return (
            BoardDemand("loaded, for years", data.house("duration_years"), float(years[a]), float(places[a])),
            BoardDemand("loaded, and pushed or lifted", data.house("duration_minutes"), float(minutes[b]), float(places[b])),
        )

    def _parts(self, rows: Array) -> tuple[Array, Array, Array]:
        """Own weight, contents and unit pushes of some result rows."""
        return rows[:, 0], rows[:, 1 : 1 + self._count], rows[:, 1 + self._count :]

    def lasting_effects(self, effect: Callable[[float], float]) -> list[float]:
        """What lasts at each support, each load times the effect of 1 N at its distance from the wall (mm)."""
        effects = [self.use.factor * effect(out) for out in self._outs]
        own_effect = effect(self._own_out_mm)
        hardware = self._hardware_n * effect(self._hardware_out_mm)
        return [
            hardware + own * own_effect + sum(max(force, 0.0) * each for force, each in zip(contents, effects, strict=True))
            for own, contents, _ in self._shares
        ]

    def push_shares(self, support: int) -> list[float]:
        """Part of a unit push at each of the three places that a support takes."""
        return self._shares[support][2]


def _push_places_mm(piece: Piece) -> tuple[float, float, float]:
    """Where the accidental push is tried: both ends and the middle of the widest gap between supports."""
    _, middle = max((b - a, (a + b) / 2) for a, b in pairwise(piece.supports_mm))
    return (0.0, middle, piece.length_mm)


def _cases(
    own: float, own_m: float, down: float, down_m: float, up: float, up_m: float, pushes: list[float], depth: float
) -> tuple[Demand, ...]:
    """The cases at one support from its own weight, the contents that press it down and up, and the push at each place."""
    years, minutes = data.house("duration_years"), data.house("duration_minutes")
    hardest, lightest = max(range(3), key=pushes.__getitem__), min(range(3), key=pushes.__getitem__)
    push, pull = max(pushes[hardest], 0.0), min(pushes[lightest], 0.0)
    part = "loaded" if up == 0 else "loaded on one side only"
    cases = [
        Demand(f"{part}, for years", years, own + down, own_m + down_m),
        Demand(f"{part}, and pushed down {PLACES[hardest]}", minutes, own + down + push, own_m + down_m + push * depth),
    ]
    if own_m + up_m < 0:
        cases.append(Demand("loaded on the far side only, for years", years, own + up, own_m + up_m))
    if own_m + up_m + pull * depth < 0:
        case = f"loaded on the far side only, and pushed down {PLACES[lightest]}"
        cases.append(Demand(case, minutes, own + up + pull, own_m + up_m + pull * depth))
    if own_m - push * depth < 0:
        cases.append(Demand(f"empty, and lifted {PLACES[hardest]}", minutes, own - push, own_m - push * depth))
    return tuple(cases)


def unweighed(piece: Piece) -> tuple[str, ...]:
    """What to find out about the loads: nothing listed, or things without a weight."""
    if not piece.things:
        return (f"what “{piece.name}” will carry.",)
    return tuple(f"what “{thing.name}” weighs." for thing in piece.things if thing.mass_kg is None)


def contents_of(piece: Piece) -> Contents:
    """What stands on a piece: loads along it, and how far from the wall each is; spread loads cut at the supports."""
    edges = sorted({0.0, *piece.supports_mm, piece.length_mm})
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
