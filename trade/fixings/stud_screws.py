"""Screws into timber studs: every check between the hardware and the wood.

The hardware knows where its screws are and what moment and load it brings; this module knows the
screws. The worst over seats and cases is what a check reports.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property

from trade import data
from trade.check import Check, Quantity, Step, make
from trade.fixings import wood
from trade.fixings.fastener_demand import (
    FastenerDemand,
    alike,
    face_checks,
    fastener_demands,
    pull_steps,
    pulled,
)
from trade.fixings.stud_position import edge
from trade.fixings.support import Support
from trade.load.demand import Demand
from trade.measure import many

_MODES: dict[wood.Mode, str] = {
    "I_m": "the stud gives way along the whole screw",
    "I_s": "the piece under the head gives way",
    "II": "the screw turns in both, unbent",
    "III_m": "it bends once, under the head",
    "III_s": "it bends once, in the stud",
    "IV": "it bends in both",
}


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
    def pull_steps(self) -> tuple[Step, ...]:
        return pull_steps(self.fastener)

    @cached_property
    def withdrawal_steps(self) -> tuple[Step, ...]:
        return _withdrawal_steps(self)

    @cached_property
    def shear_steps(self) -> tuple[Step, ...]:
        return _shear_steps(self)


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
    """What the screws of supports that are alike may be asked for, in the cases that can govern."""
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
        tip = (
            0.0 if support.screw.kind == "wood" else support.screw.tip_mm
        )  # of a lag the tip does not count
        return max(support.reach.penetration_mm - tip, 1e-6)

    support = min(supports, key=have)
    diameters = data.house(
        "min_penetration" if support.screw.kind == "wood" else "min_penetration_lag"
    )
    need = diameters * support.screw.diameter_mm
    return make(
        "screw.embedment",
        part=support.part,
        support=support.index,
        case="any",
        unknown=unknown,
        demand=Quantity(need, "fine"),
        capacity=Quantity(have(support), "fine"),
        template="The screw must reach {demand} into the stud; it reaches {capacity} past "
        "{layers} of layers.",
        parts={"layers": Quantity(support.layers_mm, "fine")},
        steps=(
            Step("L", "length of the screw", Quantity(support.screw_mm, "length")),
            Step("t", "hardware and lining before the stud", Quantity(support.layers_mm, "fine")),
            Step(
                "p",
                "L − t" if support.screw.kind == "wood" else "L − t, less the tip",
                Quantity(have(support), "fine"),
            ),
            Step(f"{diameters:.0f} D", "least penetration", Quantity(need, "fine")),
        ),
    )


def far_side(supports: list[Support], unknown: tuple[str, ...]) -> Check:
    """Whether no screw comes out behind its stud."""
    support = min(supports, key=lambda s: (s.stud.depth_mm + s.layers_mm) / s.screw_mm)
    room = support.layers_mm + support.stud.depth_mm
    if support.stud.stud is None:
        unknown += support.stud.unknown
    # a lining or a stud that nobody knows may leave more room than this: too long is then not
    # certain
    long = min(support.screw_mm, room) if unknown else support.screw_mm
    return make(
        "screw.far_side",
        part=support.part,
        support=support.index,
        case="any",
        unknown=unknown,
        demand=Quantity(long, "length"),
        capacity=Quantity(room, "length"),
        template="The screw is {demand} long; layers and stud together are {capacity} deep.",
        steps=(
            Step("t", "hardware and lining before the stud", Quantity(support.layers_mm, "fine")),
            Step("d", "depth of the stud", Quantity(support.stud.depth_mm, "length")),
            Step("t + d", "room for the screw", Quantity(room, "length")),
        ),
    )


def _withdrawal(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: pulled(u.fastener).tension_n / u.withdrawal_n)
    support, hold = use.support, pulled(use.fastener)
    return make(
        "screw.withdrawal",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=Quantity(hold.tension_n, "pull"),
        capacity=Quantity(use.withdrawal_n, "pull"),
        template="The {part}'s hardest-pulled screw pulls with {demand}; the stud holds it up to "
        "{capacity}.",
        parts={"part": support.part},
        steps=use.pull_steps + use.withdrawal_steps,
    )


def _withdrawal_steps(use: _Use) -> tuple[Step, ...]:
    support = use.support
    thread = support.reach.thread_mm
    formula = "1800 G^1.5 D^0.75" if support.screw.kind != "wood" else "2850 G² D"
    return (
        Step(
            "G", f"specific gravity of {support.timber.name}", Quantity(support.timber.g, "ratio")
        ),
        Step(
            "W",
            f"{formula} per length of thread",
            Quantity(wood.withdrawal_n_per_mm(support.screw, support.timber.g), "line"),
        ),
        Step("p_t", "thread in the stud, less layers and tip", Quantity(thread, "fine")),
        Step("C_D", "load duration", Quantity(use.fastener.demand.duration, "ratio")),
        Step("W'", "W p_t C_D", Quantity(use.withdrawal_n, "force")),
    )


def _shear(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.fastener.shear_n / u.lateral_n)
    support = use.support
    return make(
        "screw.shear",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=Quantity(use.fastener.shear_n, "pull"),
        capacity=Quantity(use.lateral_n, "pull"),
        template=f"Each screw of the {{part}} carries {{demand}} downwards; {support.across} can "
        "carry {capacity}.",
        parts={"part": support.part, "gap": Quantity(support.gap_mm, "fine")},
        steps=use.shear_steps,
    )


def _shear_steps(use: _Use) -> tuple[Step, ...]:
    support, side = use.support, use.lateral
    dowel = wood.dowel(support.screw)
    bearing = wood.bearing_length_mm(
        support.reach.penetration_mm, support.screw.diameter_mm, support.screw.tip_mm
    )
    return (
        Step(
            "V",
            f"load on the support over {many(len(support.heights_mm), 'screw')}",
            Quantity(use.fastener.shear_n, "force"),
        ),
        Step("g", "gap: lining that bears nothing", Quantity(support.gap_mm, "fine")),
        Step("D", "core of the thread", Quantity(dowel.diameter_mm, "fine")),
        Step("L_s", "thickness under the head", Quantity(support.side.thickness_mm, "fine")),
        Step("L_m", "bearing length in the stud", Quantity(bearing, "fine")),
        Step(
            "F_es",
            f"bearing strength under the head{', across its grain' if support.side.across else ''}",
            Quantity(support.side.fe_mpa, "stress"),
        ),
        Step("F_em", "bearing strength of the stud", Quantity(_fe(support), "stress")),
        Step("F_yb", "bending yield of the screw", Quantity(dowel.fyb_mpa, "stress")),
        Step(
            "R_d",
            f"reduction term{', K_θ = 1.25 across the grain' if support.side.across else ''}",
            Quantity(side.reduction, "ratio"),
        ),
        *(
            Step(f"P_{mode} / R_d", _MODES[mode], Quantity(value, "force"))
            for mode, value in side.modes_n.items()
        ),
        Step("Z", f"the least, mode {side.mode}", Quantity(side.value_n, "force")),
        Step("Z'", "Z C_D", Quantity(use.lateral_n, "force")),
    )


def _fe(support: Support) -> float:
    return wood.bearing_strength_mpa(support.timber.g, support.screw.diameter_mm)


def _combined(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    together = [
        wood.combined_use(
            pulled(use.fastener).tension_n, use.fastener.shear_n, use.withdrawal_n, use.lateral_n
        )
        for use in uses
    ]
    used = max(together)
    use = uses[together.index(used)]
    support, tension = use.support, pulled(use.fastener).tension_n
    resultant = (tension**2 + use.fastener.shear_n**2) ** 0.5
    capacity = resultant / used if used else use.lateral_n
    return make(
        "screw.combined",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=Quantity(resultant, "pull"),
        capacity=Quantity(capacity, "pull"),
        template="Pull and shear together put {demand} on the {part}'s top screw; at that angle "
        "it holds {capacity}.",
        parts={"part": support.part},
        steps=(
            *use.pull_steps,
            *use.withdrawal_steps,
            *use.shear_steps,
            Step("R", "√(T_1² + V²)", Quantity(resultant, "force")),
            Step("Z'_α", "W' Z' / (W' cos²α + Z' sin²α)", Quantity(capacity, "force")),
        ),
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
    support = use.support
    return make(
        "screw.pull_through",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=Quantity(pulled(use.fastener).tension_n, "pull"),
        capacity=Quantity(capacity(use), "pull"),
        template="The {part}'s hardest-pulled screw head is pulled with {demand}; the wood under "
        "it holds {capacity}.",
        parts={"part": support.part},
        steps=(
            *use.pull_steps,
            Step("D_H", "width of the head", Quantity(support.screw.head_mm, "fine")),
            Step("t", "wood under the head", Quantity(support.side.thickness_mm, "fine")),
            Step(
                "W_H'",
                "690 π D_H G² t (at most 1725 π D_H² G²) × C_D",
                Quantity(capacity(use), "force"),
            ),
        ),
    )
