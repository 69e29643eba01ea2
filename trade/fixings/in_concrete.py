"""What an anchor holds in concrete, line by line, by either design code."""

from trade import data
from trade.calculation import Calculation
from trade.data import Anchor
from trade.fixings import concrete
from trade.fixings.substrate import CORE_SHARE, FAR_MM, Substrate
from trade.language import compose

STEEL_MPA = data.house("anchor_steel_mpa")
GAMMA_C = 1.5 * 1.2  # EN 1992-4 Table 4.1: gamma_c, and gamma_inst of normal safety
GAMMA_S = 1.5  # EN 1992-4 Table 4.1, steel, about f_u/f_y of such anchors
GAMMA_F = 1.5  # EN 1990 Table A1.2(B), variable; taken for all of it


def american(anchor: Anchor, substrate: Substrate) -> tuple[Calculation, Calculation]:
    """Return the least of steel, breakout and bond, each times phi / 1.6: T_a.

    Shear with pry-out: V_a.

    ACI 318-19 chapter 17; what it cannot know of an anchor without an approval is a house rule.
    """
    given = Calculation()
    given.given("f'c", data.house("concrete_mpa"), "stress", "concrete, assumed")
    _write_depth(given, anchor)
    given.given(
        "k_c", concrete.KC_POST_INSTALLED, "ratio", "cracked, drilled, in pounds and inches"
    )
    given.then("N_b", concrete.BREAKOUT.text, "force", "breakout of a lone anchor")
    given.then("N_cb", f"N_b{_write_around(given, substrate)}", "force", "breakout")
    given.given("γ", concrete.LOAD_FACTOR, "ratio", "load factor")
    _write_steel(given, anchor)

    pull = Calculation(given.equations)
    pull.given("φ", concrete.PHI_TENSION, "ratio", "concrete in tension")
    pull.given("φ_s", concrete.PHI_STEEL, "ratio", "brittle steel in tension")
    pull.then("T_cb", "φ N_cb / γ", "force", "breakout")
    pull.then("T_sa", "φ_s A_s f_u / γ", "force", "steel")
    if anchor.kind == "resin":
        _write_bond(pull)
        pull.then("T_ba", "φ k_s N_ba / γ", "force", "bond, for good")
        pull.then("T_a", "min(T_cb, T_sa, T_ba)", "force", "the least")
    else:
        _write_pull_out(pull)
        pull.then("T_pn", "k_p T_cb", "force", "pulling out")
        pull.then("T_a", "min(T_cb, T_sa, T_pn)", "force", "the least")

    shear = Calculation(given.equations)
    hef = shear.quantity("h_ef").value
    shear.given("φ_V", concrete.PHI_SHEAR, "ratio", "concrete in shear")
    shear.given("φ_sV", concrete.PHI_STEEL_SHEAR, "ratio", "brittle steel in shear")
    shear.given("k_cp", concrete.pry_out_factor(hef), "ratio", "prying out over breakout")
    shear.then("V_cp", "φ_V k_cp N_cb / γ", "force", "prying out")
    shear.then("V_sa", "0.6 φ_sV A_s f_u / γ", "force", "steel")
    edge = ""
    if _write_edge(shear, substrate):
        shear.given("l_e", min(hef, 8 * anchor.screw_mm), "fine", "bearing length")
        shear.then("V_b", concrete.EDGE_SHEAR.text, "force", "breaking to the edge, along it")
        shear.then("V_cb", "φ_V V_b / γ", "force")
        edge = ", V_cb"
    shear.then("V_a", f"min(V_cp, V_sa{edge})", "force", "the least")
    return pull, shear


def european(anchor: Anchor, substrate: Substrate) -> tuple[Calculation, Calculation]:
    """Return the same by EN 1992-4:2018 section 7.2.

    Cracked concrete, cone with edges and neighbours, pry-out, steel, edge.

    The concrete's f_ck is taken as the same weak value; without an approval pulling out is a share
    of the cone (house rule).
    """
    given = Calculation()
    given.given("f_ck", data.house("concrete_mpa"), "stress", "concrete, assumed")
    _write_depth(given, anchor)
    given.then("N_0", concrete.CONE.text, "force", "cone of a lone anchor, cracked")
    given.then("N_Rk", f"N_0{_write_around(given, substrate)}", "force", "cone")
    given.given("γ_Mc", GAMMA_C, "ratio", "concrete, 1.5 × 1.2")
    given.given("γ_Ms", GAMMA_S, "ratio", "steel")
    given.given("γ_F", GAMMA_F, "ratio", "on everything")
    _write_steel(given, anchor)

    pull = Calculation(given.equations)
    pull.then("T_c", "N_Rk / γ_Mc γ_F", "force", "cone")
    pull.then("T_s", "A_s f_u / γ_Ms γ_F", "force", "steel")
    if anchor.kind == "resin":
        _write_bond(pull)
        pull.then("T_p", "k_s N_ba / γ_Mc γ_F", "force", "bond, for good")
    else:
        _write_pull_out(pull)
        pull.then("T_p", "k_p T_c", "force", "pulling out")
    pull.then("T_a", "min(T_c, T_s, T_p)", "force", "the least")

    shear = Calculation(given.equations)
    hef = shear.quantity("h_ef").value
    shear.given("k_8", 1.0 if hef < concrete.SHALLOW_MM else 2.0, "ratio", "prying out over cone")
    shear.then("V_cp", "k_8 N_Rk / γ_Mc γ_F", "force", "prying out")
    shear.then("V_s", "0.6 A_s f_u / γ_Ms γ_F", "force", "steel")
    edge = ""
    if _write_edge(shear, substrate):
        shear.given("l_f", min(hef, 12 * anchor.screw_mm), "fine", "bearing length")
        shear.then("α", concrete.ALPHA.text, "ratio")
        shear.then("β", concrete.BETA.text, "ratio")
        shear.then("V_Rk", concrete.EDGE_SHEAR_EN.text, "force", "breaking to the edge")
        shear.then("V_c", "2 V_Rk / γ_Mc γ_F", "force", "twice that, along it")
        edge = ", V_c"
    shear.then("V_a", f"min(V_cp, V_s{edge})", "force", "the least")
    return pull, shear


def _write_depth(sums: Calculation, anchor: Anchor) -> None:
    """Write d and h_ef."""
    sums.given("d", anchor.screw_mm, "fine", "diameter of the anchor")
    sums.given("h", anchor.depth_mm, "fine", "depth of its hole")
    share = 1.0 if anchor.kind == "resin" else data.house("concrete_depth_share")
    sums.given("k_h", share, "ratio", "effective part of that")
    sums.then("h_ef", "k_h h", "fine", "effective depth")


def _write_around(sums: Calculation, substrate: Substrate) -> str:
    """Write what edges and neighbours leave of a cone; return it as factors, none far from all."""
    hef = sums.quantity("h_ef").value
    below, above, left, right = (apart / 2 for apart in (*substrate.apart_mm, *substrate.beside_mm))
    spread = concrete.spread_mm(hef, (min(substrate.edge_mm, left), right, below, above))
    factors = ""
    if min(spread) < max(spread):
        for n, (reach, side) in enumerate(
            zip(spread, ("left", "right", "below", "above"), strict=True), start=1
        ):
            sums.given(
                f"c_{n}", reach, "fine", compose("how far its cone spreads, {side}", side=side)
            )
        sums.then("k_A", concrete.AREA_SHARE.text, "ratio", "area of its cone over a lone one's")
        factors += " k_A"
    if substrate.edge_mm < 1.5 * hef:
        _write_edge(sums, substrate)
        sums.then("k_e", concrete.EDGE.text, "ratio", "an edge disturbs it")
        factors += " k_e"
    return factors


def _write_edge(sums: Calculation, substrate: Substrate) -> bool:
    """Write the distance to the nearest edge where there is one; say whether."""
    if substrate.edge_mm < FAR_MM:
        sums.given("c_min", substrate.edge_mm, "length", "to the nearest edge")
    return substrate.edge_mm < FAR_MM


def _write_steel(sums: Calculation, anchor: Anchor) -> None:
    """Write the anchor's own section and steel, A_s and f_u."""
    sums.then("d_c", f"{CORE_SHARE} d", "fine", "core of its thread")
    sums.then("A_s", "π d_c² / 4", "area")
    sums.given("f_u", STEEL_MPA, "stress", "strength of its steel")


def _write_bond(sums: Calculation) -> None:
    """Write the bond of a resin that nobody knows more of, N_ba, and its lasting share, k_s."""
    sums.given("τ_cr", concrete.CRACKED_BOND_MPA, "stress", "bond in cracked concrete")
    sums.then("N_ba", concrete.BOND.text, "force", "bond of the resin")
    share = concrete.SUSTAINED_BOND * concrete.SUSTAINED
    sums.given("k_s", share, "ratio", "of it for good, 0.4 × 0.55")


def _write_pull_out(sums: Calculation) -> None:
    """Write the share of the breakout at which it pulls out of its hole, k_p."""
    share = data.house("concrete_pull_out_share")
    sums.given("k_p", share, "ratio", "pulling out over breakout, where no approval is at hand")
