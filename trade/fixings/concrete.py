"""Anchors in concrete: concrete breakout, pry-out, bond and steel.

Source: ACI 318-19 chapter 17, and EN 1992-4:2018 section 7.2 where it says so. Concrete is taken as
cracked and of normal weight. Forces in N, lengths in mm, f'c in MPa; the published American
coefficients are for psi and inches and are converted where they stand.
"""

from trade.calculation import Formula
from trade.measure import IN_MM, PSI_MPA

KC_POST_INSTALLED = 17.0  # 17.6.2.2.1, cracked; psi and inches
BREAKOUT = Formula("k_c √(f'c/psi) (h_ef/in)^1.5 lb")  # 17.6.2.2.1
AREA_SHARE = Formula("(c_1 + c_2) (c_3 + c_4) / 9 h_ef²")  # 17.6.2.1
EDGE = Formula("min(0.7 + 0.3 c_min / 1.5 h_ef, 1)")  # 17.6.2.4.1
EDGE_SHEAR = Formula(
    "2 min(7 (l_e/d)^0.2 √(d/in), 9) √(f'c/psi) (c_min/in)^1.5 lb"
)  # 17.7.2.1(c), 17.7.2.2.1
BOND = Formula("τ_cr π d h_ef")  # 17.6.5.2.1
CONE = Formula("7.7 √(f_ck/MPa) (h_ef/mm)^1.5 N")  # EN 1992-4 (7.2), cracked
ALPHA = Formula("0.1 (l_f/c_min)^0.5")  # EN 1992-4 (7.42)
BETA = Formula("0.1 (d/c_min)^0.2")  # EN 1992-4 (7.43)
EDGE_SHEAR_EN = Formula(
    "1.7 (d/mm)^α (l_f/mm)^β √(f_ck/MPa) (c_min/mm)^1.5 N"
)  # EN 1992-4 (7.41), cracked
PHI_TENSION = 0.65  # Table 17.5.3(b): category 1, no supplementary reinforcement
PHI_SHEAR = 0.70  # Table 17.5.3(b)
PHI_STEEL = 0.65  # Table 17.5.3(a): brittle steel element, tension
PHI_STEEL_SHEAR = 0.60
SUSTAINED = 0.55  # 17.5.2.2: share of the bond that may be used for good
# ACI 318-19 Table 17.6.5.2.5, note: default bond stress where tension is sustained, from memory
SUSTAINED_BOND = 0.4
CRACKED_BOND_MPA = 300 * PSI_MPA  # Table 17.6.5.2.5, indoor, cracked; from memory
LOAD_FACTOR = 1.6  # 5.3.1, all of it taken as live load


def basic_breakout_n(embedment_mm: float, fc_mpa: float, kc: float = KC_POST_INSTALLED) -> float:
    """One anchor far from every edge (17.6.2.2.1): kc sqrt(f'c) hef^1.5, kc of psi and inches."""
    return BREAKOUT.of({"k_c": kc, "f'c": fc_mpa, "h_ef": embedment_mm})


def area_share(embedment_mm: float, reaches_mm: tuple[float, float, float, float]) -> float:
    """Projected area of one anchor's cone over that of a lone one, A_Nc / A_Nco (17.6.2.1).

    Args:
        embedment_mm: effective depth.
        reaches_mm: to each of four sides how far its cone may spread: to an edge, or half way to
          the next anchor.
    """
    left, right, down, up = spread_mm(embedment_mm, reaches_mm)
    return AREA_SHARE(c_1=left, c_2=right, c_3=down, c_4=up, h_ef=embedment_mm)


def spread_mm(
    embedment_mm: float, reaches_mm: tuple[float, float, float, float]
) -> tuple[float, float, float, float]:
    """How far its cone spreads to each of four sides: at most 1.5 times its depth (17.6.2.1)."""
    left, right, down, up = (min(reach, 1.5 * embedment_mm) for reach in reaches_mm)
    return left, right, down, up


def edge_factor(embedment_mm: float, edge_mm: float) -> float:
    """Return what an edge leaves of the cone, whose stresses it disturbs (17.6.2.4.1).

    0.7 + 0.3 c_a,min / (1.5 hef), at most 1.
    """
    return EDGE(c_min=edge_mm, h_ef=embedment_mm)


def pry_out_factor(embedment_mm: float) -> float:
    """Return the share of the breakout that holds pry-out, k_cp (17.7.3.1.1)."""
    return 1.0 if embedment_mm < 2.5 * IN_MM else 2.0


def shear_breakout_n(
    edge_mm: float, diameter_mm: float, embedment_mm: float, fc_mpa: float
) -> float:
    """Shear along an edge, one anchor in a deep member.

    Twice the value towards the edge (17.7.2.1(c)).

    V_b is the lesser of 7 (l_e / d_a)^0.2 sqrt(d_a) sqrt(f'c) c_a1^1.5 and 9 sqrt(f'c) c_a1^1.5
    (17.7.2.2.1).
    """
    bearing = min(embedment_mm, 8 * diameter_mm)
    return EDGE_SHEAR.of({"l_e": bearing, "d": diameter_mm, "f'c": fc_mpa, "c_min": edge_mm})


SHALLOW_MM = 60.0  # EN 1992-4 7.2.2.4: below it k_8 is 1


def cone_n(embedment_mm: float, fck_mpa: float) -> float:
    """Characteristic cone of one anchor far from every edge, cracked concrete (EN 1992-4 (7.2)).

    7.7 sqrt(f_ck) hef^1.5.
    """
    return CONE(f_ck=fck_mpa, h_ef=embedment_mm)


def edge_n(edge_mm: float, diameter_mm: float, embedment_mm: float, fck_mpa: float) -> float:
    """Characteristic shear towards an edge, one anchor, cracked (EN 1992-4 (7.41)).

    1.7 d^alpha l_f^beta sqrt(f_ck) c1^1.5.
    """
    length = min(embedment_mm, 12 * diameter_mm)
    given = {"l_f": length, "c_min": edge_mm, "d": diameter_mm, "f_ck": fck_mpa}
    given |= {"α": ALPHA.of(given), "β": BETA.of(given)}
    return EDGE_SHEAR_EN.of(given)
