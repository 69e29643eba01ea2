"""Screws into timber studs by European practice.

Design values against demands times a partial factor.
"""

from itertools import pairwise
from typing import NamedTuple

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, make
from trade.fixings import european, wood
from trade.fixings.fastener_demand import (
    FastenerDemand,
    alike,
    face_checks,
    fastener_demands,
    pull_equations,
    pulled,
)
from trade.fixings.stud_position import edge
from trade.fixings.stud_screws import embedment, far_side, write_shear
from trade.fixings.support import Support
from trade.load.demand import Demand


class _Use(NamedTuple):
    """One support in one load case.

    `pull_k`, `head_k`, `shear_k`: characteristic values of one screw, N, those of several together
    (`together`, `in_line`) counted in; `side` with embedment strengths of this code; `under`:
    characteristic density of the wood under the head.
    """

    fastener: FastenerDemand
    kmod: float
    pull_k: float
    head_k: float
    shear_k: float
    lateral: wood.Lateral
    side: wood.Side
    under: float
    bearing_mm: float
    together: float
    in_line: float

    def design(self, value: float) -> float:
        """Return a characteristic value as a design value."""
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
    def used(self) -> float:
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
    """Return what the screws of supports that are alike may be asked for.

    In the cases that can govern.
    """
    support = supports[0]
    screw, reach = support.screw, support.reach
    density = european.rho_k(support.timber.density_kg_m3)
    thick = european.ROOT_FACTOR * screw.root_mm
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
    in_line = european.sheared_in_line(len(support.heights_mm), apart, thick)
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
                lateral.value_n * in_line,
                lateral,
                side,
                under,
                bearing,
                together,
                in_line,
            )
        )
    return found


def _write_design(sums: Calculation, use: _Use, name: str) -> None:
    """Write the design value of a characteristic one, and the demand with its factor.

    Args:
        sums: with `name_Rk`, and the demand as `name`.
        use: the support and its load case.
        name: F for pulling out, H for the head, V for shear.
    """
    sums.given("k_mod", use.kmod, "ratio", "load duration, service class 1")
    sums.given("γ_M", european.GAMMA_M, "ratio", "connections")
    sums.then(f"{name}_Rd", f"{name}_Rk k_mod / γ_M", "force", "it can carry")
    sums.given("γ_F", european.GAMMA_F, "ratio", "on everything")


def _write_pull(sums: Calculation, use: _Use) -> None:
    """Write F_Ed and F_Rd, below T_1."""
    support = use.fastener.support
    density = european.rho_k(support.timber.density_kg_m3)
    sums.given("ρ_k", density, "density", f"characteristic density of {support.timber.name}")
    sums.given("d", support.screw.diameter_mm, "fine", "diameter of the screw")
    sums.given("l_ef", support.reach.thread_mm, "fine", "thread in the stud, less layers and tip")
    sums.then("f_ax", european.WITHDRAWAL_PARAMETER.text, "stress")
    sums.given("k_n", use.together, "ratio", "n^0.9 / n, of n screws pulled together")
    sums.then("F_Rk", f"{european.WITHDRAWAL.text} k_n", "force")
    _write_design(sums, use, "F")
    sums.then("F_Ed", "γ_F T_1", "force", "pull, factored")


def _withdrawal(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.tension_n / u.design(u.pull_k))
    support, sums = use.fastener.support, Calculation(pull_equations(use.fastener))
    _write_pull(sums, use)
    return make(
        "screw.withdrawal_en",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("F_Ed", "pull"),
        capacity=sums.quantity("F_Rd", "pull"),
        template="The {part}'s hardest-pulled screw pulls with {demand}, factored; the stud holds "
        "it up to {capacity}.",
        parts={"part": support.part},
        equations=sums.equations,
    )


def _write_shear(sums: Calculation, use: _Use) -> None:
    """Write V_Ed and V_Rd."""
    support, lag = use.fastener.support, use.fastener.support.screw.kind != "wood"
    density = european.rho_k(support.timber.density_kg_m3)
    write_shear(sums, use.fastener)
    sums.given("d_r", support.screw.root_mm, "fine", "root of its thread")
    thick = sums.then("d_ef", f"{european.ROOT_FACTOR} d_r", "fine", "effective diameter")
    sums.given("f_u", european.strength_mpa(lag), "stress", "tensile strength of its steel")
    sums.then("M_y", european.YIELD_MOMENT.text, "moment", "at which it yields")
    sums.given("f_hs", use.side.fe_mpa, "stress", "embedment strength under the head")
    sums.then("q_s", "f_hs d_ef", "line")
    sums.given("ρ_k", density, "density", f"characteristic density of {support.timber.name}")
    sums.then(
        "f_hm",
        european.embedment_formula(thick).text,
        "stress",
        "embedment strength of the stud",
    )
    sums.then("q_m", "f_hm d_ef", "line")
    sums.given("L_s", support.side.thickness_mm, "fine", "thickness under the head")
    sums.given("L_m", use.bearing_mm, "fine", "bearing length in the stud")
    wood.write_yield(sums, use.lateral)
    sums.given("k_V", use.in_line, "ratio", "n_ef / n of screws in line; no rope effect")
    sums.then("V_Rk", "Y k_V", "force")
    _write_design(sums, use, "V")
    sums.then("V_Ed", "γ_F V", "force", "load, factored")


def _shear(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.shear_n / u.design(u.shear_k))
    support, sums = use.fastener.support, Calculation()
    _write_shear(sums, use)
    return make(
        "screw.shear_en",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("V_Ed", "pull"),
        capacity=sums.quantity("V_Rd", "pull"),
        template="Each screw of the {part} carries {demand} downwards, factored; "
        f"{support.across} can carry {{capacity}}.",
        parts={"part": support.part, "gap": Quantity(support.gap_mm, "fine")},
        equations=sums.equations,
    )


def _combined(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.used)
    support, sums = use.fastener.support, Calculation(pull_equations(use.fastener))
    _write_pull(sums, use)
    _write_shear(sums, use)
    sums.then("u", european.TOGETHER.text, "percent", "pull and shear together")
    return make(
        "screw.combined_en",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("u"),
        capacity=Quantity(1.0, "percent"),
        template="Pull and shear together use {demand} of the strength of a screw of the {part}.",
        parts={"part": support.part},
        equations=sums.equations,
    )


def _head(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.tension_n / u.design(u.head_k))
    support, sums = use.fastener.support, Calculation(pull_equations(use.fastener))
    sums.given("f_head", european.HEAD_MPA, "stress", "of wood of 350 kg/m³")
    sums.given("d_h", support.screw.head_mm, "fine", "width of the head")
    sums.given("ρ_k", use.under, "density", "characteristic density of the wood under it")
    sums.given("t", support.side.thickness_mm, "fine", "how thick that is")
    sums.given("k_n", use.together, "ratio", "n^0.9 / n, of n screws pulled together")
    sums.then("H_Rk", f"{european.PULL_THROUGH.text} k_n", "force")
    _write_design(sums, use, "H")
    sums.then("H_Ed", "γ_F T_1", "force", "pull, factored")
    return make(
        "screw.head_en",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("H_Ed", "pull"),
        capacity=sums.quantity("H_Rd", "pull"),
        template="The {part}'s hardest-pulled screw head is pulled with {demand}, factored; the "
        "wood under it holds {capacity}.",
        parts={"part": support.part},
        equations=sums.equations,
    )
