"""Screws into timber studs: every check between the hardware and the wood.

The hardware knows where its screws are and what moment and load it brings; this module knows the
screws. The worst over seats and cases is what a check reports.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property

from trade import data
from trade.calculation import Calculation, Formula, Quantity
from trade.check import Check, make
from trade.fixings import driving, wood
from trade.fixings.fastener_demand import (
    FastenerDemand,
    alike,
    face_checks,
    fastener_demands,
    pull_sum,
    pulled,
)
from trade.fixings.stud_position import edge
from trade.fixings.support import Support
from trade.language import compose
from trade.load.demand import Demand

_HELD = Formula("W p C_D")
_CARRIED = Formula("Z C_D")
_THROUGH = Formula("W_H C_D")


@dataclass(frozen=True)
class _Use:
    """One support in one load case, and the sums of its screws, written where they govern.

    `thread`: up to W and p, `dowel`: up to Z, of any support that is like it.
    """

    fastener: FastenerDemand
    thread: Calculation
    dowel: Calculation

    @property
    def support(self) -> Support:
        return self.fastener.support

    @property
    def tension_n(self) -> float:
        """T_1, as the grip was solved."""
        return pulled(self.fastener).tension_n

    @cached_property
    def held_n(self) -> float:
        """W'."""
        return _HELD(W=self.thread["W"], p=self.thread["p"], C_D=self.fastener.demand.duration)

    @cached_property
    def carried_n(self) -> float:
        """Z'."""
        return _CARRIED(Z=self.dowel["Z"], C_D=self.fastener.demand.duration)

    @cached_property
    def pull(self) -> Calculation:
        """Up to T_1."""
        return pull_sum(self.fastener)

    @cached_property
    def withdrawal(self) -> Calculation:
        """Up to W'."""
        sums = Calculation(self.thread)
        sums.given("C_D", self.fastener.demand.duration, "ratio", "load duration")
        sums.then("W'", _HELD.text, "force", "what the wood holds of it")
        return sums

    @cached_property
    def shear(self) -> Calculation:
        """Up to V and Z'."""
        sums = Calculation(shear_sum(self.fastener), self.dowel)
        sums.given("C_D", self.fastener.demand.duration, "ratio", "load duration")
        sums.then("Z'", _CARRIED.text, "force", "what a screw can carry")
        return sums

    def together(self) -> Calculation:
        """Up to R and Z'_α."""
        sums = Calculation(self.pull, self.withdrawal, self.shear)
        if sums.then("R", "√(T_1² + V²)", "force", "pull and shear together"):
            sums.then("u", wood.HANKINSON.text, "percent", "used by both, no less than by either")
            sums.then("Z'_α", "R / u", "force", "at that angle")
        else:
            sums.then("Z'_α", "Z'", "force", "at that angle")
        return sums

    @property
    def head_n(self) -> float:
        """W_H'."""
        side = self.support.side
        head_mm = self.support.screw.head_mm
        through = wood.pull_through_n(head_mm, side.thickness_mm, side.g or 0.0)
        return _THROUGH(W_H=through, C_D=self.fastener.demand.duration)

    def head(self) -> Calculation:
        """Up to T_1 and W_H'."""
        sums = Calculation(self.pull)
        write_pull_through(sums, self.fastener, self.support.screw.head_mm)
        return sums


def checks(
    supports: Iterable[Support],
    demands: dict[int, tuple[Demand, ...]],
    lining: tuple[str, ...],
    loads: tuple[str, ...],
) -> list[Check]:
    """All checks of the screws of one piece.

    Seats whose screws miss the wood answer only where they are.

    Args:
        supports: one per support.
        demands: by the seat's index, the load cases.
        lining: what is not known of the lining, to be found out; whether a screw fits hangs on this
          alone.
        loads: what is not known of the loads.
    """
    supports = list(supports)
    found = [edge(supports)]
    hit = [support for support in supports if support.in_stud]
    if not hit:
        return found
    found += [embedment(hit, lining), far_side(hit, lining)]
    unknown = lining + loads
    uses = [use for same in alike(hit) for use in _uses(same, demands)]
    found += face_checks([use.fastener for use in uses], unknown)
    if in_wood := [use for use in uses if use.dowel["Z"] > 0]:
        found.append(_shear(in_wood, unknown))
    held = [use for use in in_wood if use.fastener.hold is not None and use.held_n > 0]
    if held:
        found += [_withdrawal(held, unknown), _combined(held, unknown)]
        if held[0].support.side.g is not None and held[0].support.screw.kind != "rod":
            found.append(_pull_through(held, unknown))
    return found


def _uses(supports: list[Support], demands: dict[int, tuple[Demand, ...]]) -> Iterable[_Use]:
    """Return what the screws of supports that are alike may be asked for.

    In the cases that can govern.
    """
    thread, dowel = _thread_sum(supports[0]), dowel_sum(supports[0])
    for fastener in fastener_demands(supports, demands):
        yield _Use(fastener, thread, dowel)


def embedment(supports: list[Support], unknown: tuple[str, ...]) -> Check:
    """Whether every screw reaches far enough into its stud."""

    def have(support: Support) -> float:
        return support.reach.penetration_mm - (
            0.0 if support.screw.kind == "wood" else support.screw.tip_mm
        )  # of a lag the tip does not count

    support = min(supports, key=have)
    thin = support.screw.kind == "wood"
    sums = Calculation()
    sums.given("L", support.screw_mm, "length", "length of the screw")
    sums.given("t", support.layers_mm, "fine", "hardware and lining before the wood")
    if not thin:
        sums.given("E", support.screw.tip_mm, "fine", "its tip")
    sums.then("p", "max(L − t, 0)" if thin else "max(L − t − E, 0)", "fine", "in the wood")
    sums.given("D", support.screw.diameter_mm, "fine", "diameter of the screw")
    sums.given(
        "k", data.house("min_penetration" if thin else "min_penetration_lag"), "ratio", "diameters"
    )
    sums.then("p_min", "k D", "fine", "least penetration")
    return make(
        "screw.embedment",
        part=support.part,
        support=support.index,
        case="any",
        unknown=unknown,
        demand=sums.quantity("p_min"),
        capacity=sums.quantity("p"),
        template="The screw must reach {demand} into the {wood}; it reaches {capacity} past "
        "{layers} of layers.",
        parts={"wood": support.stud.wood, "layers": Quantity(support.layers_mm, "fine")},
        equations=sums.equations,
    )


def far_side(supports: list[Support], unknown: tuple[str, ...]) -> Check:
    """Whether no screw comes out behind its stud."""
    support = min(supports, key=lambda s: (s.stud.depth_mm + s.layers_mm) / s.screw_mm)
    sums = Calculation()
    sums.given("t", support.layers_mm, "fine", "hardware and lining before the wood")
    sums.given("d", support.stud.depth_mm, "length", "depth of the wood")
    room = sums.then("t_max", "t + d", "length", "room for the screw")
    sums.given("L", support.screw_mm, "length", "length of the screw")
    if support.stud.stud is None:
        unknown += support.stud.unknown
    # a lining or a stud that nobody knows may leave more room than this: too long is then not
    # certain
    if unknown and support.screw_mm > room:
        sums.then("L'", "min(L, t_max)", "length", "no longer than the room: that may be more")
    return make(
        "screw.far_side",
        part=support.part,
        support=support.index,
        case="any",
        unknown=unknown,
        demand=sums.quantity("L'" if unknown and support.screw_mm > room else "L"),
        capacity=sums.quantity("t_max"),
        template="The screw is {demand} long; layers and {wood} together are {capacity} deep.",
        parts={"wood": support.stud.wood},
        equations=sums.equations,
    )


def _withdrawal(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.tension_n / u.held_n)
    support, sums = use.support, Calculation(use.pull, use.withdrawal)
    return make(
        "screw.withdrawal",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("T_1", "pull"),
        capacity=sums.quantity("W'", "pull"),
        template="The {part}'s hardest-pulled screw pulls with {demand}; the {wood} holds it up to "
        "{capacity}.",
        parts={"part": support.part, "wood": support.stud.wood},
        equations=sums,
    )


def _thread_sum(support: Support) -> Calculation:
    """Work out what each length of thread holds, W, and how much is in the stud, p."""
    screw, sums = support.screw, Calculation()
    sums.given(
        "G",
        support.timber.g,
        "ratio",
        compose("specific gravity of {timber}", timber=support.timber.name),
    )
    sums.given("D", screw.diameter_mm, "fine", "diameter of the screw")
    sums.then(
        "W", wood.withdrawal_formula(screw).text, "line", "what each length of its thread holds"
    )
    sums.given("L", support.screw_mm, "length", "length of the screw")
    sums.given("t", support.layers_mm, "fine", "hardware and lining before the wood")
    thread = driving.thread_length_mm(screw, support.screw_mm)
    sums.given("L_T", thread, "fine", "its thread")
    sums.given("E", screw.tip_mm, "fine", "its tip, which does not count")
    sums.then("p", "max(min(L_T, L − t) − E, 0)", "fine", "thread in the wood")
    return sums


def _shear(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.fastener.shear_n / u.carried_n)
    support, sums = use.support, use.shear
    return make(
        "screw.shear",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("V", "pull"),
        capacity=sums.quantity("Z'", "pull"),
        template="Each screw of the {part} carries {demand} downwards; across {gap} of lining it "
        "can carry {capacity}."
        if support.gap_mm > 0
        else "Each screw of the {part} carries {demand} downwards; it can carry {capacity}.",
        parts={"part": support.part, "gap": Quantity(support.gap_mm, "fine")},
        equations=sums,
    )


def dowel_sum(support: Support) -> Calculation:
    """Work out what one screw of a support can carry across its lining for ten years, Z."""
    screw, sums = support.screw, Calculation()
    dowel = wood.dowel(screw)
    bearing = wood.bearing_length_mm(support.reach.penetration_mm, screw.diameter_mm, screw.tip_mm)
    lying, over = support.across_grain, support.side.across
    fe = wood.bearing_strength_mpa(support.timber.g, screw.diameter_mm, lying)
    found = wood.lateral(dowel, support.side, support.gap_mm, fe, bearing, lying)
    under = (
        "bearing strength under the head, across its grain"
        if over
        else "bearing strength under the head"
    )
    sums.given("g", support.gap_mm, "fine", "gap: lining that bears nothing")
    sums.given("D_r", dowel.diameter_mm, "fine", "core of the thread")
    sums.given("F_es", support.side.fe_mpa, "stress", under)
    sums.then("q_s", "F_es D_r", "line")
    sums.given(
        "G",
        support.timber.g,
        "ratio",
        compose("specific gravity of {timber}", timber=support.timber.name),
    )
    sums.given("D", screw.diameter_mm, "fine", "diameter of the screw")
    sums.then(
        "F_em",
        wood.bearing_formula(screw.diameter_mm, lying).text,
        "stress",
        "bearing strength of the wood behind, across its grain"
        if lying
        else "bearing strength of the wood behind",
    )
    sums.then("q_m", "F_em D_r", "line")
    sums.given("F_yb", dowel.fyb_mpa, "stress", "bending yield of the screw")
    sums.then("M_y", "F_yb D_r³ / 6", "moment")
    sums.given("L_s", support.side.thickness_mm, "fine", "thickness under the head")
    sums.given("L_m", bearing, "fine", "bearing length in it")
    wood.write_yield(sums, found)
    reduced = "reduction term, K_θ = 1.25 across the grain" if over or lying else "reduction term"
    sums.given("R_d", found.reduction, "ratio", reduced)
    sums.then("Z", "Y / R_d", "force")
    return sums


def shear_sum(fastener: FastenerDemand) -> Calculation:
    """Work out what one screw carries, V."""
    support, sums = fastener.support, Calculation()
    sums.given("F", abs(fastener.demand.load_n), "force", "load on the support")
    sums.given("n", len(support.heights_mm), "count", "screws that share it")
    sums.then("V", "F / n", "force", "load of each")
    return sums


def _combined(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(
        uses,
        key=lambda u: wood.combined_use(u.tension_n, u.fastener.shear_n, u.held_n, u.carried_n),
    )
    support, sums = use.support, use.together()
    return make(
        "screw.combined",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("R", "pull"),
        capacity=sums.quantity("Z'_α", "pull"),
        template="Pull and shear together put {demand} on the {part}'s top screw; at that angle "
        "it holds {capacity}.",
        parts={"part": support.part},
        equations=sums,
    )


def _pull_through(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.tension_n / u.head_n)
    support, sums = use.support, use.head()
    return make(
        "screw.pull_through",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("T_1", "pull"),
        capacity=sums.quantity("W_H'", "pull"),
        template="The {part}'s hardest-pulled screw head is pulled with {demand}; the wood under "
        "it holds {capacity}.",
        parts={"part": support.part},
        equations=sums,
    )


def write_pull_through(sums: Calculation, fastener: FastenerDemand, head_mm: float) -> None:
    """Write what the wood under a head holds of it, W_H'."""
    side = fastener.support.side
    sums.given("D_H", head_mm, "fine", "width of the head")
    sums.given("G", side.g or 0.0, "ratio", "specific gravity of the wood under it")
    sums.given("t", side.thickness_mm, "fine", "how thick that is")
    sums.then("W_H", wood.PULL_THROUGH.text, "force", "pulled through it")
    sums.given("C_D", fastener.demand.duration, "ratio", "load duration")
    sums.then("W_H'", _THROUGH.text, "force")
