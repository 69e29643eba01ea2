"""A bevelled cleat: what the wall's half must answer, whatever hangs on it."""

from collections.abc import Iterable
from itertools import pairwise
from math import hypot, radians, tan
from typing import NamedTuple

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, Message, make
from trade.language import compose
from trade.load.demand import Demand
from trade.mechanics.beam import widest_mm
from trade.mounts import strength, strips
from trade.mounts.base import Shape

LIFT_MM = data.house("cleat_lift_mm")
_SCREW_PLACES = {2: (0.7, 0.3), 1: (0.6,)}  # of the cleat's height, by how many at each place


class Bevel(NamedTuple):
    """A cleat's half on the wall and what hangs on it.

    `wood`: a row of the boards table; `thick_mm`, `high_mm`: its size; `degrees`: of its top edge
    from level; `lever_mm`: from what the piece presses on at its foot up to the bevel; `length_mm`
    of the cleat and `supports_mm` along it.
    """

    wood: str
    thick_mm: float
    high_mm: float
    degrees: float
    lever_mm: float
    length_mm: float
    supports_mm: tuple[float, ...]

    @property
    def free_mm(self) -> float:
        """How far it goes on beyond its last screws."""
        return self.length_mm - self.supports_mm[-1]

    @property
    def slope(self) -> float:
        """Tan b."""
        return tan(radians(self.degrees))

    @property
    def rise_mm(self) -> float:
        """How far up the bevel goes over the cleat's thickness."""
        return self.thick_mm * self.slope

    def at_cleat(self, case: Demand) -> Demand:
        """Return the piece's load case as what the wall's half must resist about its lower edge."""
        load = max(case.load_n, 0.0)
        turning = (
            case.moment_nmm + load * self.thick_mm / 2
        )  # the piece hangs half a cleat further out than its bevel
        pull = max(turning / self.lever_mm, load * self.slope, 0.0)
        at = self.high_mm - self.rise_mm / 2
        return case._replace(
            load_n=load, moment_nmm=pull * at + load * self.thick_mm / 2, pull_n=pull
        )

    def shapes(self, edge_mm: float, top_mm: float) -> list[Shape]:
        """Both halves from the side.

        The wall's with its top at `edge_mm`, the piece's up to `top_mm`.
        """
        t, low = self.thick_mm, edge_mm - self.high_mm
        return [
            Shape("wood", ((0.0, low), (t, low), (t, edge_mm), (0.0, edge_mm - self.rise_mm))),
            Shape(
                "board",
                ((0.0, edge_mm - self.rise_mm + 1), (t, edge_mm + 1), (t, top_mm), (0.0, top_mm)),
            ),
        ]


def seating(
    bevel: Bevel,
    weight: tuple[float, float],
    push: tuple[float, float],
    loads: Iterable[tuple[float, float]],
    unknown: tuple[str, ...],
) -> Check:
    """Whether it sits, in the worst case.

    The push on its front edge, and of what is in it only what makes it worse.

    Args:
        bevel: the cleat.
        weight: of the piece itself, N, and how far out from the cleat's face.
        push: the accidental force and how far out.
        loads: each thing's weight and how far out.
        unknown: what is not known of the loads.
    """
    down, _, out = _worst(bevel, weight, push, loads)
    sums = Calculation()
    sums.given("W", down, "force", "weight, push and what makes it worse")
    sums.given("z", out, "length", "where all that hangs, from the bevel")
    sums.given("h", bevel.lever_mm, "length", "from what it presses on at its foot to the bevel")
    climbs = sums.then("s", "z / h", "ratio", "what wants to climb")
    sits = climbs <= _write_slope(sums, bevel) * (1 + 1e-9)
    return make(
        "cleat.seating",
        part="cleat",
        case="a push on the front edge, and what makes it worse",
        unknown=unknown,
        demand=sums.quantity("s"),
        capacity=sums.quantity("s_b"),
        template="Its weight hangs {z} out and the cleat is {h} above its foot: it sits in its "
        "bevel."
        if sits
        else "Its weight hangs {z} out and the cleat is {h} above its foot: pushed at the front it "
        "climbs off the cleat. Lock it.",
        parts={"z": sums.quantity("z"), "h": sums.quantity("h")},
        equations=sums.equations,
    )


def _write_slope(sums: Calculation, bevel: Bevel) -> float:
    """Write the slope of the bevel, s_b."""
    return sums.then(
        "s_b",
        f"tan({bevel.degrees:g} π / 180)",
        "ratio",
        "slope of the bevel, no friction counted",
    )


def screw_heights_mm(high_mm: float, each: int) -> tuple[float, ...]:
    """Where a cleat's screws go above its lower edge.

    Two on a stud, or one plug in a row of them.
    """
    return tuple(high_mm * share for share in _SCREW_PLACES[each])


def lock(
    bevel: Bevel,
    weight: tuple[float, float],
    push: tuple[float, float],
    loads: Iterable[tuple[float, float]],
    unknown: tuple[str, ...],
) -> Check:
    """Return what keeps it from climbing off, and from being lifted.

    Two screws through its back into the cleat.

    Pulled over with W z at its foot the bevel must push back W z / h, and on a slope of tan b that
    lifts with W z / (h tan b). Arguments as of `seating`.
    """
    down, _, out = _worst(bevel, weight, push, loads)
    sums = Calculation()
    sums.given("W", down, "force", "weight, push and what makes it worse")
    sums.given("z", out, "length", "where all that hangs, from the bevel")
    sums.given("h", bevel.lever_mm, "length", "from what it presses on at its foot to the bevel")
    _write_slope(sums, bevel)
    sums.then("V", "W z / h s_b", "force", "what the bevel lifts with")
    sums.given("F", push[0], "force", "the push, upwards")
    sums.given("G", weight[0], "force", "its empty weight")
    sums.then("V_max", "max(V − W, F − G, 0)", "force", "climbing, or lifted")
    sums.given("n", data.house("lock_screws"), "count", "screws")
    sums.given("Z", data.house("lock_screw_n"), "force", "one in shear")
    sums.given("C_D", data.house("duration_minutes"), "ratio", "load duration")
    sums.then("Z'", "n Z C_D", "force", "they hold")
    return make(
        "cleat.lock",
        part="lock",
        case="pushed on its front edge, or lifted",
        unknown=unknown,
        demand=sums.quantity("V_max"),
        capacity=sums.quantity("Z'"),
        template="Its lock keeps it down against {demand}; two screws through its back into the "
        "cleat hold {capacity}.",
        equations=sums.equations,
    )


def _worst(
    bevel: Bevel,
    weight: tuple[float, float],
    push: tuple[float, float],
    loads: Iterable[tuple[float, float]],
) -> tuple[float, float, float]:
    """Weight, push and what of the contents makes it worse.

    N, what it turns by about the bevel, and how far out it hangs.
    """
    half = bevel.thick_mm / 2
    down = weight[0] + push[0]
    turning = weight[0] * (weight[1] + half) + push[0] * (push[1] + half)
    for load, out in sorted(loads, key=lambda pair: -pair[1]):
        if down == 0 or out + half > turning / down:
            down, turning = down + load, turning + load * (out + half)
    return down, turning, turning / down if down else weight[1]


class Holder(NamedTuple):
    """What one movable holder pulls a cleat with, N.

    All of it at one place, for years, and with a push on it.
    """

    lasting_n: float
    pushed_n: float


def checks(
    bevel: Bevel,
    demands: dict[int, tuple[Demand, ...]],
    unknown: tuple[str, ...],
    holder: Holder | None = None,
) -> list[Check]:
    """Return the wall's half itself.

    Bent out and twisted between its screws, and pressed along its sharp edge.

    Args:
        bevel: the cleat.
        demands: at each stud, as `at_cleat` gives them.
        unknown: what is not known of the loads.
        holder: the hardest of the holders that move along it; None where one body hangs on all of
          it.
    """
    if holder is None:
        return [_under_a_body(bevel, demands, unknown), _nib(bevel, demands, unknown)]
    return [
        _bending(bevel, demands, unknown, holder),
        _nib(bevel, demands, unknown),
        _twist(bevel, holder, unknown),
    ]


def _under_a_body(
    bevel: Bevel, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]
) -> Check:
    """One stiff body presses its cleat as suits both best (lower bound).

    Near the screws, where it bends little.

    Over a length c about a screw it bends by T c / 8 and is pressed by N / c; c is where both use
    as much of what they may.
    """
    places = (-bevel.supports_mm[0], *bevel.supports_mm, bevel.length_mm + bevel.free_mm)
    gaps = [b - a for a, b in pairwise(places)]
    every = [
        (_about_a_screw(bevel, case, min(gaps[i], gaps[i + 1])), case.case)
        for i, cases in demands.items()
        for case in cases
    ]
    sums, case = max(every, key=lambda each: each[0].quantity("u").value)
    return make(
        "cleat.bending",
        part="cleat",
        case=case,
        unknown=unknown,
        demand=sums.quantity("u"),
        capacity=Quantity(1.0, "percent"),
        template="Around its screws the cleat uses {used} of the strength of {wood} in bending "
        "and bearing.",
        parts={"wood": data.boards()[bevel.wood].name},
        equations=sums.equations,
    )


def _about_a_screw(bevel: Bevel, case: Demand, gap_mm: float) -> Calculation:
    """How much of the cleat's strength one place uses, u; `gap_mm`: to the nearer screw."""
    row, sums = data.boards()[bevel.wood], Calculation()
    sums.given("T", case.pull_n, "force", compose("pull at one place, {case}", case=case.case))
    sums.given("V", case.load_n, "force", "load there")
    sums.then("R", "√(V² + T²)", "force", "load and pull together on the bevel")
    sums.given("h", bevel.high_mm, "length", "height of the cleat")
    sums.given("t", bevel.thick_mm, "fine", "its thickness")
    sums.then("S", "h t² / 6", "section", "section modulus")
    strength.write_bending(sums, row, case.duration)
    _write_along(sums, bevel)
    strength.write_bearing(sums, row, case.duration)
    sums.given("l", max(gap_mm, 1.0), "length", "to the nearer screw")
    if case.pull_n:
        sums.then("c", "min(√(8 S σ' R / T t_b p'), l)", "fine", "so long presses: both use alike")
    else:
        sums.then("c", "l", "fine", "so long presses")
    sums.then("M", "T c / 8", "moment", "bending")
    sums.then("σ", "M / S", "stress")
    sums.then("p", "R / c t_b", "stress", "pressed with")
    sums.then("u", "max(σ / σ', p / p')", "percent", "the greater share")
    return sums


def _write_along(sums: Calculation, bevel: Bevel) -> None:
    """Write how wide the bevel is that is pressed, t_b."""
    sums.given("t", bevel.thick_mm, "fine", "thickness of the cleat")
    _write_slope(sums, bevel)
    sums.then("t_b", "t √(1 + s_b²)", "fine", "width of the bevel")


def _bending(
    bevel: Bevel, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...], holder: Holder
) -> Check:
    """Check flatwise bending from an even pull-out and from a holder at mid-gap or at an end."""
    row, span = data.boards()[bevel.wood], widest_mm(bevel.length_mm, bevel.supports_mm)
    where, apart = strips.bent_where(bevel.length_mm, bevel.supports_mm)
    even = max(sum(cases[0].pull_n for cases in demands.values()) - holder.lasting_n, 0.0)
    beyond = max(bevel.supports_mm[0], bevel.free_mm) - data.house("holder_half_mm")
    lever = max(*(b - a for a, b in pairwise(bevel.supports_mm)), 4 * beyond) / 4
    years, minutes = data.house("duration_years"), data.house("duration_minutes")

    def bent(alone: float, duration: float) -> Calculation:
        sums = Calculation()
        sums.given("Q", even, "force", "pull of the other holders, all along it")
        sums.given("L", bevel.length_mm, "length", "length of the cleat")
        sums.then("p", "Q / L", "line", "pull along the cleat")
        sums.given("l", span, "length", "widest gap between screws, or twice the overhang")
        sums.given("P", alone, "force", "pull of one holder")
        words = "a quarter of the widest gap, or the overhang less half a holder"
        sums.given("e", lever, "length", words)
        sums.then("M", "p l² / 8 + P e", "moment", "bending")
        strength.write_flatwise(sums, bevel.high_mm, bevel.thick_mm, "height of the cleat")
        strength.write_bending(sums, row, duration)
        return sums

    cases = (
        (bent(holder.lasting_n, years), "loaded, for years"),
        (bent(holder.pushed_n, minutes), "loaded, and pushed"),
    )
    sums, case = max(cases, key=lambda each: each[0]["σ"] / each[0]["σ'"])
    return make(
        "cleat.bending",
        part="cleat",
        case=case,
        unknown=unknown,
        demand=sums.quantity("σ"),
        capacity=sums.quantity("σ'"),
        template="{where} the cleat uses {used} of the bending strength of {wood}.",
        parts={"where": Message(where, {"span": apart}), "wood": row.name},
        equations=sums.equations,
    )


def _twist(bevel: Bevel, holder: Holder, unknown: tuple[str, ...]) -> Check:
    """Check twist: a holder pulls at the bevel, above the middle of the cleat.

    Half of that twists it to either side, all of it at an end.
    """
    row, over = data.boards()[bevel.wood], max(bevel.supports_mm[0], bevel.free_mm) > bevel.high_mm
    arm = max(bevel.high_mm / 2 - bevel.rise_mm / 2, 0.0)
    pull, duration, case = strength.lasting_or_pushed(holder.lasting_n, holder.pushed_n)
    sums = Calculation()
    sums.given("P", pull, "force", "pull of one holder")
    sums.given("a", arm, "fine", "from the middle of the cleat up to its bevel")
    if over:
        sums.then("T", "P a", "moment", "beyond the last screws")
    else:
        sums.then("T", "P a / 2", "moment", "to either side")
    strength.write_twist(sums, bevel.high_mm, bevel.thick_mm)
    strength.write_shearing(sums, row, duration)
    return make(
        "cleat.twist",
        part="cleat",
        case=case,
        unknown=unknown,
        demand=sums.quantity("τ"),
        capacity=sums.quantity("τ'"),
        template="A holder between its screws uses {used} of the twisting strength of {wood}.",
        parts={"wood": row.name},
        equations=sums.equations,
    )


def _nib(bevel: Bevel, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]) -> Check:
    """Check bearing of the bevel, across the grain of a sharp edge."""
    row, sums = data.boards()[bevel.wood], Calculation()
    force = sum(hypot(cases[0].load_n, cases[0].pull_n) for cases in demands.values())
    sums.given("R", force, "force", "weight and pull together on the bevel")
    sums.given("L", bevel.length_mm, "length", "length of the cleat")
    _write_along(sums, bevel)
    sums.then("p", "R / L t_b", "stress", "pressed with")
    strength.write_bearing(sums, row, data.house("duration_years"))
    return make(
        "cleat.nib",
        part="cleat",
        case="loaded, for years",
        unknown=unknown,
        demand=sums.quantity("p"),
        capacity=sums.quantity("p'"),
        template="Along its bevel the cleat uses {used} of the bearing strength of {wood}.",
        parts={"wood": row.name},
        equations=sums.equations,
    )
