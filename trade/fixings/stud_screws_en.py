"""Screws into timber studs by European practice.

Design values against demands times a partial factor.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, make
from trade.fixings import european, wood
from trade.fixings.fastener_demand import (
    FastenerDemand,
    alike,
    face_checks,
    fastener_demands,
    pull_sum,
)
from trade.fixings.stud_position import edge
from trade.fixings.stud_screws import embedment, far_side, shear_sum
from trade.fixings.support import Support
from trade.language import compose
from trade.load.demand import Demand


@dataclass(frozen=True)
class _Use:
    """One support in one load case, with the sums of its screws, each worked out once.

    `thread`: up to f_ax, `dowel`: up to V_Rk, of any support that is like it.
    """

    fastener: FastenerDemand
    thread: Calculation
    dowel: Calculation

    @property
    def support(self) -> Support:
        return self.fastener.support

    @cached_property
    def pull(self) -> Calculation:
        """Up to T_1."""
        return pull_sum(self.fastener)

    @cached_property
    def withdrawal(self) -> Calculation:
        """Up to F_Ed and F_Rd."""
        sums = Calculation(self.pull, self.thread)
        self._write_group(sums)
        sums.then("F_Rk", f"{european.WITHDRAWAL.text} k_n", "force")
        self._write_design(sums, "F")
        sums.then("F_Ed", "γ_F T_1", "force", "pull, factored")
        return sums

    @cached_property
    def shear(self) -> Calculation:
        """Up to V_Ed and V_Rd."""
        sums = Calculation(shear_sum(self.fastener), self.dowel)
        self._write_design(sums, "V")
        sums.then("V_Ed", "γ_F V", "force", "load, factored")
        return sums

    @cached_property
    def together(self) -> Calculation:
        """Up to u."""
        sums = Calculation(self.withdrawal, self.shear)
        sums.then("u", european.TOGETHER.text, "percent", "pull and shear together")
        return sums

    @cached_property
    def head(self) -> Calculation:
        """Up to H_Ed and H_Rd."""
        support, sums = self.support, Calculation(self.pull)
        sums.given("f_head", european.HEAD_MPA, "stress", "of wood of 350 kg/m³")
        sums.given("d_h", support.screw.head_mm, "fine", "width of the head")
        under = _density_under(support)
        sums.given("ρ_k", under, "density", "characteristic density of the wood under it")
        sums.given("t", support.side.thickness_mm, "fine", "how thick that is")
        self._write_group(sums)
        sums.then("H_Rk", f"{european.PULL_THROUGH.text} k_n", "force")
        self._write_design(sums, "H")
        sums.then("H_Ed", "γ_F T_1", "force", "pull, factored")
        return sums

    def _write_group(self, sums: Calculation) -> None:
        """Write what each of several screws pulled together may take, k_n."""
        hold = self.fastener.hold
        count = sum(tension > 0 for tension in hold.tensions_n) if hold else 1
        share = european.pulled_together(count)
        sums.given("k_n", share, "ratio", "n^0.9 / n, of n screws pulled together")

    def _write_design(self, sums: Calculation, name: str) -> None:
        """Write the design value `name`_Rd of a characteristic one, and the factor on loads.

        `name`: F for pulling out, H for the head, V for shear.
        """
        kmod = european.kmod(self.fastener.demand.duration)
        sums.given("k_mod", kmod, "ratio", "load duration, service class 1")
        sums.given("γ_M", european.GAMMA_M, "ratio", "connections")
        sums.then(f"{name}_Rd", f"{name}_Rk k_mod / γ_M", "force", "it can carry")
        sums.given("γ_F", european.GAMMA_F, "ratio", "on everything")


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
    if in_wood := [use for use in uses if use.dowel["V_Rk"] > 0]:
        found.append(_shear(in_wood, unknown))
    held = [use for use in in_wood if use.fastener.hold is not None and use.withdrawal["F_Rk"] > 0]
    if held:
        found += [_withdrawal(held, unknown), _combined(held, unknown)]
        if held[0].support.side.g is not None and held[0].support.screw.kind != "rod":
            found.append(_head(held, unknown))
    return found


def _uses(supports: list[Support], demands: dict[int, tuple[Demand, ...]]) -> Iterable[_Use]:
    """Yield what the screws of supports that are alike may be asked for, if it can govern."""
    thread, dowel = _thread_sum(supports[0]), _dowel_sum(supports[0])
    for fastener in fastener_demands(supports, demands):
        yield _Use(fastener, thread, dowel)


def _density_under(support: Support) -> float:
    """Return the characteristic density of the wood under the head, else of the stud, kg/m³."""
    if support.side.g is None:
        return european.rho_k(support.timber.density_kg_m3)
    under = data.Framing(source="", name="", g=support.side.g, bearing_mpa=0.0)
    return european.rho_k(under.density_kg_m3)


def _thread_sum(support: Support) -> Calculation:
    """Work out the withdrawal parameter of a screw in its stud, f_ax."""
    sums = Calculation()
    density = european.rho_k(support.timber.density_kg_m3)
    sums.given(
        "ρ_k",
        density,
        "density",
        compose("characteristic density of {timber}", timber=support.timber.name),
    )
    sums.given("d", support.screw.diameter_mm, "fine", "diameter of the screw")
    thread = support.reach.thread_mm
    sums.given("l_ef", thread, "fine", "thread in the wood, less layers and tip")
    if thread > 0:
        sums.then("f_ax", european.WITHDRAWAL_PARAMETER.text, "stress")
    else:
        sums.given("f_ax", 0.0, "stress", "no thread is in the wood")
    return sums


def _dowel_sum(support: Support) -> Calculation:
    """Work out the characteristic shear of a screw across its lining, V_Rk."""
    screw, side, sums = support.screw, support.side, Calculation()
    density = european.rho_k(support.timber.density_kg_m3)
    sums.given("g", support.gap_mm, "fine", "gap: lining that bears nothing")
    sums.given("d_r", screw.root_mm, "fine", "root of its thread")
    thick = sums.then("d_ef", f"{european.ROOT_FACTOR} d_r", "fine", "effective diameter")
    strength = european.strength_mpa(screw.kind != "wood")
    sums.given("f_u", strength, "stress", "tensile strength of its steel")
    sums.then("M_y", european.YIELD_MOMENT.text, "moment", "at which it yields")
    if side.g is not None:
        under = european.embedment_k(thick, _density_under(support), side.across)
        side = side._replace(fe_mpa=under)
    sums.given("f_hs", side.fe_mpa, "stress", "embedment strength under the head")
    sums.then("q_s", "f_hs d_ef", "line")
    sums.given(
        "ρ_k",
        density,
        "density",
        compose("characteristic density of {timber}", timber=support.timber.name),
    )
    formula = european.embedment_formula(thick, support.across_grain).text
    sums.then("f_hm", formula, "stress", "embedment strength of the wood behind")
    sums.then("q_m", "f_hm d_ef", "line")
    sums.given("L_s", side.thickness_mm, "fine", "thickness under the head")
    bearing = wood.bearing_length_mm(support.reach.penetration_mm, screw.diameter_mm, screw.tip_mm)
    sums.given("L_m", bearing, "fine", "bearing length in it")
    lateral = european.lateral_k(
        thick, sums["M_y"], side, support.gap_mm, sums["f_hm"], max(bearing, 0.0)
    )
    wood.write_yield(sums, lateral)
    apart = min(
        (above - below for below, above in pairwise(sorted(support.heights_mm))), default=0.0
    )
    in_line = european.sheared_in_line(len(support.heights_mm), apart, thick)
    sums.given("k_V", in_line, "ratio", "n_ef / n of screws in line; no rope effect")
    sums.then("V_Rk", "Y k_V", "force")
    return sums


def _withdrawal(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.withdrawal["F_Ed"] / u.withdrawal["F_Rd"])
    support, sums = use.support, use.withdrawal
    return make(
        "screw.withdrawal_en",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("F_Ed", "pull"),
        capacity=sums.quantity("F_Rd", "pull"),
        template="The {part}'s hardest-pulled screw pulls with {demand}, factored; the {wood} "
        "holds it up to {capacity}.",
        parts={"part": support.part, "wood": support.stud.wood},
        equations=sums,
    )


def _shear(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.shear["V_Ed"] / u.shear["V_Rd"])
    support, sums = use.support, use.shear
    return make(
        "screw.shear_en",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("V_Ed", "pull"),
        capacity=sums.quantity("V_Rd", "pull"),
        template="Each screw of the {part} carries {demand} downwards, factored; across {gap} of "
        "lining it can carry {capacity}."
        if support.gap_mm > 0
        else "Each screw of the {part} carries {demand} downwards, factored; it can carry "
        "{capacity}.",
        parts={"part": support.part, "gap": Quantity(support.gap_mm, "fine")},
        equations=sums,
    )


def _combined(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.together["u"])
    support, sums = use.support, use.together
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
        equations=sums,
    )


def _head(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.head["H_Ed"] / u.head["H_Rd"])
    support, sums = use.support, use.head
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
        equations=sums,
    )
