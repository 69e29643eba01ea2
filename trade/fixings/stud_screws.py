"""Screws into timber studs: every check between the hardware and the wood.

The hardware knows where its screws are and what moment and load it brings; this module knows the
screws. The worst over seats and cases is what a check reports.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property

from trade import data
from trade.calculation import Calculation, Equation, Quantity
from trade.check import Check, make
from trade.fixings import driving, wood
from trade.fixings.fastener_demand import (
    FastenerDemand,
    alike,
    face_checks,
    fastener_demands,
    pull_equations,
    pulled,
)
from trade.fixings.stud_position import edge
from trade.fixings.support import Support
from trade.load.demand import Demand


@dataclass(frozen=True)
class _Use:
    """One support in one load case, with what its screws may be asked for.

    Several checks print parts of one sum.
    """

    fastener: FastenerDemand
    withdrawal_n: float
    lateral: wood.Lateral
    lateral_n: float

    @property
    def support(self) -> Support:
        return self.fastener.support

    @cached_property
    def pull(self) -> list[Equation]:
        """Up to T_1."""
        return pull_equations(self.fastener)

    @cached_property
    def withdrawal(self) -> list[Equation]:
        """Up to W'."""
        return _withdrawal_equations(self)

    @cached_property
    def shear(self) -> list[Equation]:
        """Up to V and Z'."""
        return _shear_equations(self)


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
    if in_wood := [use for use in uses if use.lateral_n > 0]:
        found.append(_shear(in_wood, unknown))
    held = [
        use
        for use in uses
        if use.fastener.hold is not None and use.withdrawal_n > 0 and use.lateral_n > 0
    ]
    if held:
        found += [_withdrawal(held, unknown), _combined(held, unknown)]
        if held[0].support.side.g is not None and held[0].support.screw.kind != "rod":
            found.append(_pull_through(held, unknown))
    return found


def _uses(supports: list[Support], demands: dict[int, tuple[Demand, ...]]) -> Iterable[_Use]:
    """Return what the screws of supports that are alike may be asked for.

    In the cases that can govern.
    """
    support, reach = supports[0], supports[0].reach
    pull = wood.withdrawal_n_per_mm(support.screw, support.timber.g) * reach.thread_mm
    bearing = wood.bearing_length_mm(
        reach.penetration_mm, support.screw.diameter_mm, support.screw.tip_mm
    )
    fe = wood.bearing_strength_mpa(support.timber.g, support.screw.diameter_mm)
    side = wood.lateral(wood.dowel(support.screw), support.side, support.gap_mm, fe, bearing)
    for fastener in fastener_demands(supports, demands):
        yield _Use(
            fastener, pull * fastener.demand.duration, side, side.value_n * fastener.demand.duration
        )


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
    sums.given("t", support.layers_mm, "fine", "hardware and lining before the stud")
    if not thin:
        sums.given("E", support.screw.tip_mm, "fine", "its tip")
    sums.then("p", f"max(L − t{'' if thin else ' − E'}, 0)", "fine", "in the stud")
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
        template="The screw must reach {demand} into the stud; it reaches {capacity} past "
        "{layers} of layers.",
        parts={"layers": Quantity(support.layers_mm, "fine")},
        equations=sums.equations,
    )


def far_side(supports: list[Support], unknown: tuple[str, ...]) -> Check:
    """Whether no screw comes out behind its stud."""
    support = min(supports, key=lambda s: (s.stud.depth_mm + s.layers_mm) / s.screw_mm)
    sums = Calculation()
    sums.given("t", support.layers_mm, "fine", "hardware and lining before the stud")
    sums.given("d", support.stud.depth_mm, "length", "depth of the stud")
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
        template="The screw is {demand} long; layers and stud together are {capacity} deep.",
        equations=sums.equations,
    )


def _withdrawal(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: pulled(u.fastener).tension_n / u.withdrawal_n)
    support, sums = use.support, Calculation(use.pull, use.withdrawal)
    return make(
        "screw.withdrawal",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("T_1", "pull"),
        capacity=sums.quantity("W'", "pull"),
        template="The {part}'s hardest-pulled screw pulls with {demand}; the stud holds it up to "
        "{capacity}.",
        parts={"part": support.part},
        equations=sums.equations,
    )


def _withdrawal_equations(use: _Use) -> list[Equation]:
    support, screw, sums = use.support, use.support.screw, Calculation()
    sums.given("G", support.timber.g, "ratio", f"specific gravity of {support.timber.name}")
    sums.given("D", screw.diameter_mm, "fine", "diameter of the screw")
    sums.then(
        "W", wood.withdrawal_formula(screw).text, "line", "what each length of its thread holds"
    )
    write_thread(sums, support)
    sums.given("C_D", use.fastener.demand.duration, "ratio", "load duration")
    sums.then("W'", "W p C_D", "force", "what the stud holds of it")
    return sums.equations


def write_thread(sums: Calculation, support: Support) -> None:
    """Write how much thread is in the stud, p."""
    screw = support.screw
    sums.given("L", support.screw_mm, "length", "length of the screw")
    sums.given("t", support.layers_mm, "fine", "hardware and lining before the stud")
    thread = driving.thread_length_mm(screw, support.screw_mm)
    sums.given("L_T", thread, "fine", "its thread")
    sums.given("E", screw.tip_mm, "fine", "its tip, which does not count")
    sums.then("p", "max(min(L_T, L − t) − E, 0)", "fine", "thread in the stud")


def _shear(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.fastener.shear_n / u.lateral_n)
    support, sums = use.support, Calculation(use.shear)
    return make(
        "screw.shear",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("V", "pull"),
        capacity=sums.quantity("Z'", "pull"),
        template=f"Each screw of the {{part}} carries {{demand}} downwards; {support.across} can "
        "carry {capacity}.",
        parts={"part": support.part, "gap": Quantity(support.gap_mm, "fine")},
        equations=sums.equations,
    )


def _shear_equations(use: _Use) -> list[Equation]:
    support, side, sums = use.support, use.lateral, Calculation()
    dowel = wood.dowel(support.screw)
    bearing = wood.bearing_length_mm(
        support.reach.penetration_mm, support.screw.diameter_mm, support.screw.tip_mm
    )
    across = ", across its grain" if support.side.across else ""
    write_shear(sums, use.fastener)
    sums.given("D_r", dowel.diameter_mm, "fine", "core of the thread")
    sums.given("F_es", support.side.fe_mpa, "stress", f"bearing strength under the head{across}")
    sums.then("q_s", "F_es D_r", "line")
    sums.given("G", support.timber.g, "ratio", f"specific gravity of {support.timber.name}")
    sums.given("D", support.screw.diameter_mm, "fine", "diameter of the screw")
    fe = wood.bearing_formula(support.screw.diameter_mm)
    sums.then("F_em", fe.text, "stress", "bearing strength of the stud")
    sums.then("q_m", "F_em D_r", "line")
    sums.given("F_yb", dowel.fyb_mpa, "stress", "bending yield of the screw")
    sums.then("M_y", "F_yb D_r³ / 6", "moment")
    sums.given("L_s", support.side.thickness_mm, "fine", "thickness under the head")
    sums.given("L_m", bearing, "fine", "bearing length in the stud")
    wood.write_yield(sums, side)
    reduced = f"reduction term{', K_θ = 1.25 across the grain' if support.side.across else ''}"
    sums.given("R_d", side.reduction, "ratio", reduced)
    sums.then("Z", "Y / R_d", "force")
    sums.given("C_D", use.fastener.demand.duration, "ratio", "load duration")
    sums.then("Z'", "Z C_D", "force", "what a screw can carry")
    return sums.equations


def write_shear(sums: Calculation, fastener: FastenerDemand) -> None:
    """Write what one screw carries, V, and the gap g that it carries it across."""
    support = fastener.support
    sums.given("F", abs(fastener.demand.load_n), "force", "load on the support")
    sums.given("n", len(support.heights_mm), "count", "screws that share it")
    sums.then("V", "F / n", "force", "load of each")
    sums.given("g", support.gap_mm, "fine", "gap: lining that bears nothing")


def _combined(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    together = [
        wood.combined_use(
            pulled(use.fastener).tension_n, use.fastener.shear_n, use.withdrawal_n, use.lateral_n
        )
        for use in uses
    ]
    use = uses[together.index(max(together))]
    support, sums = use.support, Calculation(use.pull, use.withdrawal, use.shear)
    if sums.then("R", "√(T_1² + V²)", "force", "pull and shear together"):
        sums.then("u", wood.HANKINSON.text, "percent", "used by both, no less than by either")
        sums.then("Z'_α", "R / u", "force", "at that angle")
    else:
        sums.then("Z'_α", "Z'", "force", "at that angle")
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
        equations=sums.equations,
    )


def _pull_through(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    def capacity(use: _Use) -> float:
        side = use.support.side
        assert side.g is not None  # only wood sides get here
        return (
            wood.pull_through_n(use.support.screw.head_mm, side.thickness_mm, side.g)
            * use.fastener.demand.duration
        )

    use = max(uses, key=lambda u: pulled(u.fastener).tension_n / capacity(u))
    support, sums = use.support, Calculation(use.pull)
    write_pull_through(sums, use.fastener, support.screw.head_mm)
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
        equations=sums.equations,
    )


def write_pull_through(sums: Calculation, fastener: FastenerDemand, head_mm: float) -> None:
    """Write what the wood under a head holds of it, W_H'."""
    side = fastener.support.side
    sums.given("D_H", head_mm, "fine", "width of the head")
    sums.given("G", side.g or 0.0, "ratio", "specific gravity of the wood under it")
    sums.given("t", side.thickness_mm, "fine", "how thick that is")
    sums.then("W_H", wood.PULL_THROUGH.text, "force", "pulled through it")
    sums.given("C_D", fastener.demand.duration, "ratio", "load duration")
    sums.then("W_H'", "W_H C_D", "force")
