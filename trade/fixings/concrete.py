"""Anchors in concrete: concrete breakout, pry-out, bond and steel.

Source: ACI 318-19 chapter 17, and EN 1992-4:2018 section 7.2 where it says so. Concrete is taken as
cracked and of normal weight. Forces in N, lengths in mm, f'c in MPa; the published American
coefficients are for psi and inches and are converted where they stand.
"""

from math import pi, sqrt

from trade.measure import LBF_N, PSI_MPA

_INCH = 25.4
_TO_SI = LBF_N / (
    sqrt(PSI_MPA) * _INCH**1.5
)  # of a coefficient on sqrt(f'c) times a length to the power 1.5
KC_POST_INSTALLED = 17.0 * _TO_SI  # 17.6.2.2.1
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
    """One anchor far from every edge (17.6.2.2.1): kc sqrt(f'c) hef^1.5."""
    return kc * sqrt(fc_mpa) * embedment_mm**1.5


def area_share(embedment_mm: float, reaches_mm: tuple[float, float, float, float]) -> float:
    """Projected area of one anchor's cone over that of a lone one, A_Nc / A_Nco (17.6.2.1).

    Args:
        embedment_mm: effective depth.
        reaches_mm: to each of four sides how far its cone may spread: to an edge, or half way to
          the next anchor.
    """
    full = 1.5 * embedment_mm
    left, right, down, up = (min(reach, full) for reach in reaches_mm)
    return (left + right) * (down + up) / (4 * full**2)


def edge_factor(embedment_mm: float, edge_mm: float) -> float:
    """The edge disturbs the stresses in the cone (17.6.2.4.1).

    0.7 + 0.3 c_a,min / (1.5 hef), at most 1.
    """
    return min(0.7 + 0.3 * edge_mm / (1.5 * embedment_mm), 1.0)


def pry_out_factor(embedment_mm: float) -> float:
    """The share of the breakout that holds pry-out, k_cp (17.7.3.1.1)."""
    return 1.0 if embedment_mm < 2.5 * _INCH else 2.0


def shear_breakout_n(
    edge_mm: float, diameter_mm: float, embedment_mm: float, fc_mpa: float
) -> float:
    """Shear along an edge, one anchor in a deep member.

    Twice the value towards the edge (17.7.2.1(c)).

    V_b is the lesser of 7 (l_e / d_a)^0.2 sqrt(d_a) sqrt(f'c) c_a1^1.5 and 9 sqrt(f'c) c_a1^1.5
    (17.7.2.2.1).
    """
    bearing = min(embedment_mm, 8 * diameter_mm)
    slender = 7 * (bearing / diameter_mm) ** 0.2 * sqrt(diameter_mm / _INCH)
    return 2 * min(slender, 9.0) * _TO_SI * sqrt(fc_mpa) * edge_mm**1.5


def bond_n(diameter_mm: float, embedment_mm: float) -> float:
    """A rod in resin of which nobody knows more, in cracked concrete (17.6.5.2.1).

    Tau_cr pi d_a hef.
    """
    return CRACKED_BOND_MPA * pi * diameter_mm * embedment_mm


SHALLOW_MM = 60.0  # EN 1992-4 7.2.2.4: below it k_8 is 1


def cone_n(embedment_mm: float, fck_mpa: float) -> float:
    """Characteristic cone of one anchor far from every edge, cracked concrete (EN 1992-4 (7.2)).

    7.7 sqrt(f_ck) hef^1.5.
    """
    return 7.7 * sqrt(fck_mpa) * embedment_mm**1.5


def edge_n(edge_mm: float, diameter_mm: float, embedment_mm: float, fck_mpa: float) -> float:
    """Characteristic shear towards an edge, one anchor, cracked (EN 1992-4 (7.41)).

    1.7 d^alpha l_f^beta sqrt(f_ck) c1^1.5.
    """
    length = min(embedment_mm, 12 * diameter_mm)
    alpha, beta = 0.1 * (length / edge_mm) ** 0.5, 0.1 * (diameter_mm / edge_mm) ** 0.2
    return 1.7 * diameter_mm**alpha * length**beta * sqrt(fck_mpa) * edge_mm**1.5
