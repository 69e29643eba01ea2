"""Screws, and what anchors hold, where they go through a strip of wood.

Away from its ends, its edges and each other.
"""

from itertools import pairwise
from math import inf
from typing import NamedTuple

from trade import data
from trade.calculation import Calculation
from trade.check import Check, make
from trade.fixings import european, wood
from trade.fixings.support import Support
from trade.language import compose
from trade.load.demand import Demand

_NOUGHT_MM = 1e-6
_THICK_MM = wood.QUARTER_INCH_MM  # NDS 2018 12.5.1: thinner ones have no loaded edge
_LOADED_EDGE = data.house("loaded_edge_diameters")


class _Asked(NamedTuple):
    """One distance of one seat.

    What it is to, how much is needed in diameters, how much there is.
    """

    support: Support
    to: str
    diameters: float
    has_mm: float

    @property
    def needs_mm(self) -> float:
        return self.diameters * _through_mm(self.support)

    @property
    def widest_mm(self) -> float:
        return self.has_mm / self.diameters


def checks(supports: list[Support]) -> list[Check]:
    """Whether nothing splits the strip that it goes through.

    Nothing to ask where there is no strip.
    """
    asked = [
        _nearest(support, thin=support.capacity is not None or support.screw.kind == "wood")
        for support in supports
        if support.strip is not None and support.side.g is not None
    ]
    if not asked:
        return []
    worst = max(asked, key=lambda each: each.needs_mm / each.has_mm)
    support, sums = worst.support, Calculation()
    sums.given("D", _through_mm(support), "fine", "what goes through it")
    sums.given("k", worst.diameters, "ratio", compose("diameters {to}", to=worst.to))
    sums.then("a_min", "k D", "fine", "needed")
    sums.given("a", worst.has_mm, "fine", "there is")
    return [
        make(
            "strip.edge",
            part=support.part,
            support=support.index,
            case="any",
            demand=sums.quantity("a_min"),
            capacity=sums.quantity("a"),
            template="At the {part} what goes through the strip has {capacity} {to}; under "
            "{demand} it splits.",
            parts={"part": support.part, "to": worst.to},
            equations=sums.equations,
        )
    ]


def widest_mm(supports: list[Support]) -> float:
    """Return how wide what an anchor holds may be before it splits the strip it goes through, mm.

    Infinite where there is no strip.
    """
    strips = [each for each in supports if each.strip is not None and each.side.g is not None]
    return min((_nearest(each, thin=True).widest_mm for each in strips), default=inf)


def splitting(
    supports: list[Support], demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]
) -> list[Check]:
    """Whether thick fasteners with less than four diameters of wood at the loaded edge split it.

    Nothing where all have so much.

    A strip that is pressed down is held up by its fasteners: they push towards its upper edge.
    """
    found = []
    for support in supports:
        if support.strip is None or not support.side.across or _through_mm(support) < _THICK_MM:
            continue
        high = support.strip[2]
        for case in demands[support.index]:
            up = case.load_n >= 0
            near = high - max(support.heights_mm) if up else min(support.heights_mm)
            if near < _LOADED_EDGE * _through_mm(support):
                beyond = high - min(support.heights_mm) if up else max(support.heights_mm)
                found.append((_split(support, case, beyond, high), support, case))
    if not found:
        return []
    sums, support, case = max(found, key=lambda each: each[0]["F_Ed"] / each[0]["F_90d"])
    return [
        make(
            "strip.splitting",
            part=support.part,
            support=support.index,
            case=case.case,
            unknown=unknown,
            demand=sums.quantity("F_Ed", "pull"),
            capacity=sums.quantity("F_90d", "pull"),
            template="At the {part} the strip's grain is pulled apart with {demand}, factored; it "
            "splits at {capacity}.",
            parts={"part": support.part},
            equations=sums,
        )
    ]


def _split(support: Support, case: Demand, beyond: float, high: float) -> Calculation:
    """Work out what pulls the grain of a strip apart, F_Ed, and at what it splits, F_90d."""
    sums = Calculation()
    sums.given(
        "F", abs(case.load_n), "force", compose("load on the support, {case}", case=case.case)
    )
    sums.given("γ_F", european.GAMMA_F, "ratio", "on everything")
    sums.then("F_Ed", "γ_F F", "force", "what pulls its grain apart")
    sums.given("b", support.side.thickness_mm, "fine", "thickness of the strip")
    sums.given("h", high, "fine", "its height")
    sums.given("h_e", beyond, "fine", "from the loaded edge to the fastener furthest from it")
    sums.then("F_90k", european.SPLITTING.text, "force")
    sums.given("k_mod", european.kmod(case.duration), "ratio", "load duration, service class 1")
    sums.given("γ_M", european.GAMMA_M, "ratio", "connections")
    sums.then("F_90d", "k_mod F_90k / γ_M", "force", "at which it splits")
    return sums


def _through_mm(support: Support) -> float:
    if support.capacity is not None and support.capacity.anchor is not None:
        return support.capacity.anchor.screw_mm
    return support.screw.diameter_mm


def _nearest(support: Support, *, thin: bool) -> _Asked:
    """Return what a seat is nearest to, for what that asks. `thin`: not of a bolt or a rod."""
    assert support.strip is not None
    left, right, high = support.strip
    edge = data.house("edge_diameters_wood" if thin else "edge_diameters_lag")
    end = data.house("strip_end_diameters_wood" if thin else "strip_end_diameters_lag")
    ranked = sorted(support.heights_mm)
    found = [
        (end, min(support.x_mm - left, right - support.x_mm), "to its end"),
        (edge, min(ranked[0], high - ranked[-1]), "to its edge"),
        (data.house("strip_thick_diameters"), support.side.thickness_mm, "of wood under the head"),
    ]
    if len(ranked) > 1:
        apart = min(above - below for below, above in pairwise(ranked))
        found.append((data.house("strip_apart_diameters"), apart, "to the next one"))
    diameters, has, to = max(found, key=lambda each: each[0] / max(each[1], _NOUGHT_MM))
    return _Asked(support, to, diameters, max(has, _NOUGHT_MM))
