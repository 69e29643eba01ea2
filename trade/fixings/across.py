"""Blocking between two studs, a board across them: whether it holds what is screwed to it."""

from collections.abc import Iterable
from itertools import pairwise
from math import hypot
from typing import NamedTuple

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation
from trade.check import Check, make
from trade.fixings import driving, wood
from trade.fixings.fastener_demand import fastener_demands
from trade.fixings.stud_screws import dowel_sum
from trade.fixings.support import Support
from trade.load.demand import Demand
from trade.plan.features import Feature


class _End(NamedTuple):
    """What comes to one end of a piece of blocking in one load case: load and pull, N."""

    support: Support
    case: str
    duration: float
    load_n: float
    pull_n: float

    @property
    def asked(self) -> float:
        return hypot(self.load_n, self.pull_n) / self.duration


def checks(
    supports: Iterable[Support],
    demands: dict[int, tuple[Demand, ...]],
    unknown: tuple[str, ...],
) -> list[Check]:
    """Check the ends of all blocking that the supports of one piece are screwed to.

    And whether that, or a board on the wall's face, is bent too much. Nothing to ask where they are
    on studs, or on what rests on studs all along.

    Args:
        supports: one per support.
        demands: by the seat's index, the load cases.
        unknown: of the wall and the loads.
    """
    held: dict[Feature, list[Support]] = {}
    for support in supports:
        across = support.stud.across
        if across is not None and support.capacity is None:
            held.setdefault(across, []).append(support)
    found = []
    for across, some in held.items():
        if across.row.ends_n:
            found.append(_check(across, some, demands, unknown))
        found += _bending(across, some, demands, unknown)
    return found


def _check(
    across: Feature,
    supports: list[Support],
    demands: dict[int, tuple[Demand, ...]],
    unknown: tuple[str, ...],
) -> Check:
    worst = max(_ends(across, supports, demands), key=lambda end: end.asked)
    support, row = worst.support, across.row
    screw = data.screws()[data.screw_in(row.ends_screw, support.screw.system)]
    into_end = replace(
        support,
        screw=screw,
        screw_mm=driving.nearest_length_mm(screw, row.ends_mm),
        side=wood.wood_side(data.house("stud_mm"), support.timber.g, screw.diameter_mm, True),
        gap_mm=0.0,
        set_back_mm=0.0,
    )
    sums = dowel_sum(into_end)
    sums.given("F_e", worst.load_n, "force", "load that comes to its harder end")
    sums.given("P_e", worst.pull_n, "force", "pull that comes to it, no less")
    sums.then("R_e", "√(F_e² + P_e²)", "force", "both")
    sums.given("n_e", row.ends_n, "count", "screws through the stud into that end")
    sums.then("V_e", "R_e / n_e", "force", "load of each")
    sums.given("C_eg", data.house("end_grain"), "ratio", "in end grain")
    sums.given("C_D", worst.duration, "ratio", "load duration")
    sums.then("Z'", "Z C_eg C_D", "force", "what a screw can carry")
    return make(
        "across.ends",
        part=support.part,
        support=support.index,
        case=worst.case,
        unknown=(*support.stud.unknown, *unknown),
        demand=sums.quantity("V_e", "pull"),
        capacity=sums.quantity("Z'", "pull"),
        template="The {wood} behind the {part} is held at its ends by {n} screws each; the "
        "hardest carries {demand}, and it can carry {capacity}.",
        parts={"wood": support.stud.wood, "part": support.part, "n": str(row.ends_n)},
        equations=sums,
    )


def in_case(own: tuple[Demand, ...], case: str) -> Demand:
    """Return what a support answers in a load case: what it bears always where it is not asked."""
    return next((each for each in own if each.case == case), own[0])


def _ends(
    across: Feature, supports: list[Support], demands: dict[int, tuple[Demand, ...]]
) -> Iterable[_End]:
    """Yield what comes to either end in each load case, by the lever.

    A support that is not asked in a case counts with what it bears always.
    """
    wide = across.right_mm - across.left_mm
    cases = {case.case: case for each in supports for case in demands[each.index]}
    for case in cases.values():
        shares: list[tuple[float, float, float]] = []
        for support in supports:
            same = in_case(demands[support.index], case.case)
            shares.append(
                (
                    (support.x_mm - across.left_mm) / wide,
                    abs(same.load_n),
                    _pull_n(support, same),
                )
            )
        for left in (True, False):
            yield _End(
                supports[0],
                case.case,
                case.duration,
                sum((1 - at if left else at) * load for at, load, _ in shares),
                sum((1 - at if left else at) * pull for at, _, pull in shares),
            )


def _pull_n(support: Support, case: Demand) -> float:
    """Return what its screws pull with in a load case."""
    [gripped] = fastener_demands([support], {support.index: (case,)})
    return sum(gripped.hold.tensions_n) if gripped.hold is not None else 0.0


class _Bent(NamedTuple):
    """Where a wood is bent most by one load case: moments of load and of pull, N mm."""

    support: Support
    case: str
    duration: float
    load_nmm: float
    pull_nmm: float


class _Bay(NamedTuple):
    """A free length of it; `held`: where it is held if that is at one end alone."""

    left_mm: float
    right_mm: float
    held_mm: float | None = None

    def lever_mm(self, load_mm: float, at_mm: float) -> float:
        """Return the moment at one place of a unit load at another."""
        if self.held_mm is not None:
            return abs(load_mm - self.held_mm)
        to_load, to_place = load_mm - self.left_mm, at_mm - self.left_mm
        wide = self.right_mm - self.left_mm
        return min(to_load * (wide - to_place), to_place * (wide - to_load)) / wide


def _bays(across: Feature, support: Support) -> list[_Bay]:
    """Return what of it is free: between its ends, or between the studs and beyond the last."""
    if across.row.ends_n:
        return [_Bay(across.left_mm, across.right_mm)]
    studs = [each.x_mm for each in support.board_on]
    if not studs:
        return []
    return [
        _Bay(across.left_mm, studs[0], studs[0]),
        *(_Bay(*pair) for pair in pairwise(studs)),
        _Bay(studs[-1], across.right_mm, studs[-1]),
    ]


def _bending(
    across: Feature,
    supports: list[Support],
    demands: dict[int, tuple[Demand, ...]],
    unknown: tuple[str, ...],
) -> list[Check]:
    """Check the bending of blocking, or of a board, between what holds it and beyond that."""
    deep, high = across.deep_mm, across.top_mm - across.bottom_mm
    bents = [bent for bay in _bays(across, supports[0]) for bent in _bent(bay, supports, demands)]
    if not bents:
        return []

    def asked(bent: _Bent) -> float:
        return (bent.load_nmm / high + bent.pull_nmm / deep) / bent.duration

    worst, sums = max(bents, key=asked), Calculation()
    sums.given("M_F", worst.load_nmm, "moment", "of the load, between what holds the wood")
    sums.given("M_P", worst.pull_nmm, "moment", "of the pull, no less")
    sums.given("h", high, "length", "its height")
    sums.given("t", deep, "length", "its thickness")
    sums.then("S_F", "t h² / 6", "section")
    sums.then("S_P", "h t² / 6", "section")
    sums.then("σ", "M_F / S_F + M_P / S_P", "stress", "it is bent with")
    sums.given("F_b", data.house("across_bending_mpa"), "stress", "it may be bent with")
    sums.given("C_D", worst.duration, "ratio", "load duration")
    sums.then("F_b'", "F_b C_D", "stress")
    return [
        make(
            "across.bending",
            part=worst.support.part,
            support=worst.support.index,
            case=worst.case,
            unknown=(*worst.support.stud.unknown, *unknown),
            demand=sums.quantity("σ"),
            capacity=sums.quantity("F_b'"),
            template="The {wood} behind the {part} uses {used} of its bending strength.",
            parts={"wood": worst.support.stud.wood, "part": worst.support.part},
            equations=sums,
        )
    ]


def _bent(
    bay: _Bay, supports: list[Support], demands: dict[int, tuple[Demand, ...]]
) -> Iterable[_Bent]:
    """Yield its bending in one bay in each load case, at each support."""
    inside = [each for each in supports if bay.left_mm <= each.x_mm <= bay.right_mm]
    cases = {case.case: case for each in inside for case in demands[each.index]}
    for case in cases.values():
        loads = []
        for support in inside:
            same = in_case(demands[support.index], case.case)
            loads.append((support.x_mm, abs(same.load_n), _pull_n(support, same)))
        for support in inside:
            levers = [bay.lever_mm(x, support.x_mm) for x, _, _ in loads]
            yield _Bent(
                support,
                case.case,
                case.duration,
                sum(lever * load for lever, (_, load, _) in zip(levers, loads, strict=True)),
                sum(lever * pull for lever, (_, _, pull) in zip(levers, loads, strict=True)),
            )
