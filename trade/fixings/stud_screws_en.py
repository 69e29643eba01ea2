"""Screws into timber studs by European practice.

Design values against demands times a partial factor.
"""

from itertools import pairwise
from typing import NamedTuple

from trade import data
from trade.check import Check, Quantity, Step, make
from trade.fixings import european, wood
from trade.fixings.fastener_demand import (
    FastenerDemand,
    alike,
    face_checks,
    fastener_demands,
    pull_steps,
    pulled,
)
from trade.fixings.stud_position import edge
from trade.fixings.stud_screws import embedment, far_side
from trade.fixings.support import Support
from trade.load.demand import Demand
from trade.measure import many


class _Use(NamedTuple):
    fastener: FastenerDemand
    kmod: float
    pull_k: float
    head_k: float
    shear_k: float
    lateral: wood.Lateral

    def design(self, value: float) -> float:
        """A characteristic value as a design value."""
        return value * self.kmod / european.GAMMA_M

    @property
    def tension_n(self) -> float:
        """Design pull."""
        return pulled(self.fastener).tension_n * european.GAMMA_F

    @property
    def shear_n(self) -> float:
        """Design shear."""
        return self.fastener.shear_n * european.GAMMA_F

    @property
    def together(self) -> float:
        """Both, as a share of what both may be."""
        return european.combined_use(
            self.tension_n / self.design(self.pull_k), self.shear_n / self.design(self.shear_k)
        )


def checks(
    supports: list[Support],
    demands: dict[int, tuple[Demand, ...]],
    lining: tuple[str, ...],
    loads: tuple[str, ...],
) -> list[Check]:
    """All checks of the screws of one piece, as those of the American school.

    Args:
        supports: those whose screws go into timber.
        demands: by the seat's index, the load cases.
        lining: what is not known of the wall.
        loads: what is not known of the loads.
    """
    found = [edge(supports)]
    hit = [support for support in supports if support.in_stud]
    if not hit:
        return found
    found += [embedment(hit, lining), far_side(hit, lining)]
    uses = [use for same in alike(hit) for use in _uses(same, demands)]
    unknown = lining + loads
    found += face_checks([use.fastener for use in uses], unknown)
    if in_wood := [use for use in uses if use.shear_k > 0]:
        found.append(_shear(in_wood, unknown))
    if held := [use for use in in_wood if use.fastener.hold is not None and use.pull_k > 0]:
        found += [_withdrawal(held, unknown), _combined(held, unknown)]
        if (
            held[0].fastener.support.side.g is not None
            and held[0].fastener.support.screw.kind != "rod"
        ):
            found.append(_head(held, unknown))
    return found


def _uses(supports: list[Support], demands: dict[int, tuple[Demand, ...]]) -> list[_Use]:
    """What the screws of supports that are alike may be asked for, in the cases that can govern."""
    support = supports[0]
    screw, reach = support.screw, support.reach
    density = european.rho_k(support.timber.density_kg_m3)
    thick = 1.1 * screw.root_mm
    side, under = support.side, density
    if side.g is not None:
        under = european.rho_k(
            data.Framing(source="", name="", g=side.g, bearing_mpa=0.0).density_kg_m3
        )
        side = side._replace(fe_mpa=european.embedment_k(thick, under, side.across))
    moment = european.yield_nmm(thick, screw.kind != "wood")
    bearing = wood.bearing_length_mm(reach.penetration_mm, screw.diameter_mm, screw.tip_mm)
    if bearing > 0:
        lateral = european.lateral_k(
            thick, moment, side, support.gap_mm, european.embedment_k(thick, density), bearing
        )
    else:
        lateral = wood.Lateral(0.0, "I_m", {"I_m": 0.0}, 1.0)
    pull = european.withdrawal_k(screw.diameter_mm, reach.thread_mm, density)
    head = european.head_k(screw.head_mm, under, side.thickness_mm)
    apart = min(
        (above - below for below, above in pairwise(sorted(support.heights_mm))), default=0.0
    )
    shear = lateral.value_n * european.sheared_in_line(len(support.heights_mm), apart, thick)
    found = []
    for fastener in fastener_demands(supports, demands):
        together = european.pulled_together(
            sum(t > 0 for t in fastener.hold.tensions_n) if fastener.hold else 1
        )
        found.append(
            _Use(
                fastener,
                european.kmod(fastener.demand.duration),
                pull * together,
                head * together,
                shear,
                lateral,
            )
        )
    return found


def _factors(use: _Use, name: str, value: float) -> tuple[Step, ...]:
    return (
        Step("k_mod", "load duration, service class 1", Quantity(use.kmod, "ratio")),
        Step("γ_M", "connections", Quantity(european.GAMMA_M, "ratio")),
        Step(f"{name}_Rd", f"k_mod {name}_Rk / γ_M", Quantity(use.design(value), "force")),
        Step("γ_F", "on everything", Quantity(european.GAMMA_F, "ratio")),
    )


def _withdrawal(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.tension_n / u.design(u.pull_k))
    support = use.fastener.support
    density = european.rho_k(support.timber.density_kg_m3)
    fax = european.fax_mpa(support.screw.diameter_mm, support.reach.thread_mm, density)
    return make(
        "screw.withdrawal_en",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=Quantity(use.tension_n, "pull"),
        capacity=Quantity(use.design(use.pull_k), "pull"),
        template="The {part}'s hardest-pulled screw pulls with {demand}, factored; the stud holds "
        "it up to {capacity}.",
        parts={"part": support.part},
        steps=(
            *pull_steps(use.fastener),
            Step(
                "ρ_k",
                f"characteristic density of {support.timber.name}, kg/m³",
                Quantity(density, "ratio"),
            ),
            Step(
                "l_ef",
                "thread in the stud, less layers and tip",
                Quantity(support.reach.thread_mm, "fine"),
            ),
            Step("f_ax", "0.52 d^-0.5 l_ef^-0.1 ρ_k^0.8", Quantity(fax, "stress")),
            Step("F_Rk", "f_ax d l_ef k_d n^0.9 / n", Quantity(use.pull_k, "force")),
            *_factors(use, "F", use.pull_k),
        ),
    )


def _shear_lines(use: _Use) -> tuple[Step, ...]:
    support = use.fastener.support
    thick = 1.1 * support.screw.root_mm
    return (
        Step(
            "V",
            f"load on the support over {many(len(support.heights_mm), 'screw')}",
            Quantity(use.fastener.shear_n, "force"),
        ),
        Step("g", "gap: lining that bears nothing", Quantity(support.gap_mm, "fine")),
        Step("d_ef", "1.1 × the thread's root", Quantity(thick, "fine")),
        Step(
            "M_y",
            "0.3 f_u d_ef^2.6",
            Quantity(european.yield_nmm(thick, support.screw.kind != "wood"), "moment"),
        ),
        *(
            Step(f"P_{mode}", "Johansen, with the gap", Quantity(value, "force"))
            for mode, value in use.lateral.modes_n.items()
        ),
        Step(
            "V_Rk",
            f"the least, mode {use.lateral.mode}, times n_ef / n in line; no rope effect",
            Quantity(use.shear_k, "force"),
        ),
        *_factors(use, "V", use.shear_k),
    )


def _shear(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.shear_n / u.design(u.shear_k))
    support = use.fastener.support
    return make(
        "screw.shear_en",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=Quantity(use.shear_n, "pull"),
        capacity=Quantity(use.design(use.shear_k), "pull"),
        template="Each screw of the {part} carries {demand} downwards, factored; "
        f"{support.across} can carry {{capacity}}.",
        parts={"part": support.part, "gap": Quantity(support.gap_mm, "fine")},
        steps=_shear_lines(use),
    )


def _combined(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.together)
    support = use.fastener.support
    return make(
        "screw.combined_en",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=Quantity(use.together, "percent"),
        capacity=Quantity(1.0, "percent"),
        template="Pull and shear together use {demand} of the strength of a screw of the {part}.",
        parts={"part": support.part},
        steps=(
            *pull_steps(use.fastener),
            *_shear_lines(use),
            Step(
                "F_Ed / F_Rd",
                "share of the pull",
                Quantity(use.tension_n / use.design(use.pull_k), "ratio"),
            ),
            Step(
                "V_Ed / V_Rd",
                "share of the shear",
                Quantity(use.shear_n / use.design(use.shear_k), "ratio"),
            ),
            Step("√(…² + …²)", "together", Quantity(use.together, "ratio")),
        ),
    )


def _head(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.tension_n / u.design(u.head_k))
    support = use.fastener.support
    return make(
        "screw.head_en",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=Quantity(use.tension_n, "pull"),
        capacity=Quantity(use.design(use.head_k), "pull"),
        template="The {part}'s hardest-pulled screw head is pulled with {demand}, factored; the "
        "wood under it holds {capacity}.",
        parts={"part": support.part},
        steps=(
            *pull_steps(use.fastener),
            Step("d_h", "width of the head", Quantity(support.screw.head_mm, "fine")),
            Step(
                "F_Rk",
                "f_head d_h² (ρ_k/350)^0.8 of the wood under it, times n^0.9 / n",
                Quantity(use.head_k, "force"),
            ),
            *_factors(use, "F", use.head_k),
        ),
    )
