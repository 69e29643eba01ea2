"""What an anchor holds in concrete, step by step, by either school."""

from math import pi

from trade import data
from trade.check import Quantity, Step
from trade.data import Anchor
from trade.fixings import concrete
from trade.fixings.substrate import CORE_SHARE, Substrate

STEEL_MPA = 500.0  # house rule: the weakest steel that such anchors are made of
GAMMA_C = 1.5 * 1.2  # EN 1992-4 Table 4.1: gamma_c, and gamma_inst of normal safety
GAMMA_S = 1.5  # EN 1992-4 Table 4.1, steel, about f_u/f_y of such anchors
GAMMA_F = 1.5  # EN 1990 Table A1.2(B), variable; taken for all of it


def _free_mm(substrate: Substrate) -> tuple[float, float, float, float]:
    """How far its cone may reach to each side: to an edge, or half way to the next anchor."""
    below, above, left, right = (apart / 2 for apart in (*substrate.apart_mm, *substrate.beside_mm))
    return min(substrate.edge_mm, left), right, below, above


def american(anchor: Anchor, substrate: Substrate) -> tuple[list[Step], list[Step]]:
    """Return the least of steel, breakout and bond, each times phi / 1.6; shear with pry-out.

    ACI 318-19 chapter 17; what it cannot know of an anchor without an approval is a house rule.
    """
    fc, d = data.house("concrete_mpa"), anchor.screw_mm
    hef = anchor.depth_mm * (1.0 if anchor.kind == "resin" else data.house("concrete_depth_share"))
    area = pi * (d * CORE_SHARE) ** 2 / 4
    share = concrete.area_share(hef, _free_mm(substrate)) * concrete.edge_factor(
        hef, substrate.edge_mm
    )
    cone = concrete.basic_breakout_n(hef, fc) * share
    holding = concrete.PHI_TENSION / concrete.LOAD_FACTOR
    steel = area * STEEL_MPA
    given = [
        Step("f'c", "concrete, assumed", Quantity(fc, "stress")),
        Step("h_ef", "effective depth", Quantity(hef, "fine")),
        Step(
            "N_b",
            "k_c √f'c h_ef^1.5, k_c = 17 (lb, in), cracked",
            Quantity(concrete.basic_breakout_n(hef, fc), "force"),
        ),
        Step("ψ A_Nc / A_Nco", "edges and neighbours", Quantity(share, "ratio")),
        Step("N_cb", "breakout", Quantity(cone, "force")),
    ]
    pulls = [cone * holding, steel * concrete.PHI_STEEL / concrete.LOAD_FACTOR]
    pull = [*given, Step("N_sa φ / 1.6", "steel of the anchor", Quantity(pulls[1], "force"))]
    if anchor.kind == "resin":
        pulls.append(
            concrete.bond_n(d, hef) * concrete.SUSTAINED_BOND * concrete.SUSTAINED * holding
        )
        pull.append(
            Step(
                "0.55 N_ba φ / 1.6",
                "bond of the resin, for good: 0.4 τ_cr π d h_ef",
                Quantity(pulls[-1], "force"),
            )
        )
    else:
        pulls.append(pulls[0] * data.house("concrete_pull_out_share"))
        pull.append(
            Step(
                "N_pn φ / 1.6",
                "pulling out of its hole, as a share of breakout (house rule)",
                Quantity(pulls[-1], "force"),
            )
        )
    shears = [
        cone * concrete.pry_out_factor(hef) * concrete.PHI_SHEAR / concrete.LOAD_FACTOR,
        0.6 * steel * concrete.PHI_STEEL_SHEAR / concrete.LOAD_FACTOR,
        concrete.shear_breakout_n(substrate.edge_mm, d, hef, fc)
        * concrete.PHI_SHEAR
        / concrete.LOAD_FACTOR,
    ]
    names = (
        "k_cp N_cb φ / 1.6, prying out",
        "0.6 N_sa φ / 1.6, steel",
        "2 V_b φ / 1.6, breaking to the edge",
    )
    shear = [
        *given,
        *(
            Step("V", how, Quantity(value, "force"))
            for how, value in zip(names, shears, strict=True)
        ),
    ]
    pull.append(Step("T_a", "the least", Quantity(min(pulls), "force")))
    shear.append(Step("V_a", "the least", Quantity(min(shears), "force")))
    return pull, shear


def european(anchor: Anchor, substrate: Substrate) -> tuple[list[Step], list[Step]]:
    """The same by EN 1992-4:2018 section 7.2.

    Cracked concrete, cone with edges and neighbours, pry-out, steel, edge.

    The concrete's f_ck is taken as the same weak value; without an approval pulling out is a share
    of the cone (house rule).
    """
    fck, d = data.house("concrete_mpa"), anchor.screw_mm
    hef = anchor.depth_mm * (1.0 if anchor.kind == "resin" else data.house("concrete_depth_share"))
    share = concrete.area_share(hef, _free_mm(substrate)) * concrete.edge_factor(
        hef, substrate.edge_mm
    )
    lone = concrete.cone_n(hef, fck)
    cone, steel = lone * share, pi * (d * CORE_SHARE) ** 2 / 4 * STEEL_MPA
    given = [
        Step("f_ck", "concrete, assumed", Quantity(fck, "stress")),
        Step("h_ef", "effective depth", Quantity(hef, "fine")),
        Step("N⁰_Rk", "7.7 √f_ck h_ef^1.5, cracked", Quantity(lone, "force")),
        Step("ψ A_c / A⁰_c", "edges and neighbours", Quantity(share, "ratio")),
        Step("N_Rk", "concrete cone", Quantity(cone, "force")),
        Step("γ_Mc γ_F", "1.5 × 1.2 × 1.5", Quantity(GAMMA_C * GAMMA_F, "ratio")),
    ]
    pulls = [cone / GAMMA_C / GAMMA_F, steel / GAMMA_S / GAMMA_F]
    if anchor.kind == "resin":
        pulls.append(
            concrete.bond_n(d, hef)
            * concrete.SUSTAINED_BOND
            * concrete.SUSTAINED
            / GAMMA_C
            / GAMMA_F
        )
    else:
        pulls.append(pulls[0] * data.house("concrete_pull_out_share"))
    prying = cone * (1.0 if hef < concrete.SHALLOW_MM else 2.0) / (GAMMA_C * GAMMA_F)
    edge = 2 * concrete.edge_n(substrate.edge_mm, d, hef, fck) / GAMMA_C / GAMMA_F
    shears = [prying, 0.6 * steel / GAMMA_S / GAMMA_F, edge]
    names = ("cone", "steel", "pulling out, or bond for good")
    pull = [
        *given,
        *(
            Step("N_Rd / γ_F", how, Quantity(value, "force"))
            for how, value in zip(names, pulls, strict=True)
        ),
    ]
    names = ("prying out, k_8 N_Rk", "steel, 0.6 A_s f_uk", "breaking to the edge, twice along it")
    shear = [
        *given,
        *(
            Step("V_Rd / γ_F", how, Quantity(value, "force"))
            for how, value in zip(names, shears, strict=True)
        ),
    ]
    pull.append(Step("T_a", "the least", Quantity(min(pulls), "force")))
    shear.append(Step("V_a", "the least", Quantity(min(shears), "force")))
    return pull, shear
