"""Blocking between two studs: whether its own ends hold what is screwed to it."""

from collections.abc import Iterable
from math import hypot
from typing import NamedTuple

from msgspec.structs import replace

from trade import data
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

    Nothing to ask where they are on studs, or on what rests on studs.

    Args:
        supports: one per support.
        demands: by the seat's index, the load cases.
        unknown: of the wall and the loads.
    """
    held: dict[Feature, list[Support]] = {}
    for support in supports:
        across = support.stud.across
        if across is not None and across.row.ends_n and support.capacity is None:
            held.setdefault(across, []).append(support)
    return [_check(across, some, demands, unknown) for across, some in held.items()]


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
            own = demands[support.index]
            same = next((each for each in own if each.case == case.case), own[0])
            [gripped] = fastener_demands([support], {support.index: (same,)})
            pull = sum(gripped.hold.tensions_n) if gripped.hold is not None else 0.0
            shares.append(((support.x_mm - across.left_mm) / wide, abs(same.load_n), pull))
        for left in (True, False):
            yield _End(
                supports[0],
                case.case,
                case.duration,
                sum((1 - at if left else at) * load for at, load, _ in shares),
                sum((1 - at if left else at) * pull for at, _, pull in shares),
            )
