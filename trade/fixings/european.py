"""Screws in wood by European practice: characteristic values, partial factors.

Source: EN 1995-1-1:2004+A1+A2 section 8 (Johansen, withdrawal), EN 1990. Forces in N, lengths in
mm, densities in kg/m³.
"""

from math import inf

import numpy as np

from trade import data
from trade.calculation import Formula
from trade.fixings.wood import Lateral, Side, yields

GAMMA_M = 1.3  # EN 1995-1-1 Table 2.3, connections
GAMMA_F = 1.5  # EN 1990 Table A1.2(B), variable; taken for all of it
KMOD_YEARS = 0.6
KMOD_MINUTES = 0.9
# what stands over mm or kg/m³ makes a formula that is published for these units right in any
WITHDRAWAL_PARAMETER = Formula("0.52 (d/mm)^−0.5 (l_ef/mm)^−0.1 ρ_k^0.8 MPa")  # (8.39)
WITHDRAWAL = Formula("f_ax d l_ef min(d / 8 mm, 1)")  # (8.38)
PULL_THROUGH = Formula("f_head d_h² (ρ_k / 350)^0.8 min(t / 2 d_h, 1)")  # (8.40b)
SPLITTING = Formula("14 (b/mm) √(h_e / (1 − h_e/h) / mm) N")  # (8.4)
EMBEDMENT_NAIL = Formula("0.082 ρ_k (d_ef/mm)^−0.3 MPa")  # (8.15)
EMBEDMENT_BOLT = Formula("0.082 (1 − 0.01 d_ef/mm) ρ_k MPa")  # (8.32)
EMBEDMENT_ACROSS = Formula("0.082 (1 − 0.01 d_ef/mm) ρ_k MPa / (1.35 + 0.015 d_ef/mm)")  # (8.31)
YIELD_MOMENT = Formula("0.3 f_u (d_ef/mm)^2.6 mm³")  # (8.14, 8.30)
TOGETHER = Formula("√((F_Ed / F_Rd)² + (V_Ed / V_Rd)²)")  # (8.28)
ROOT_FACTOR = 1.1  # of the thread's root: the effective diameter (8.7.1)
HEAD_MPA = data.house("head_mpa")
_SCREW_FU_MPA = data.house("screw_fu_mpa")
_LAG_FU_MPA = data.house("lag_fu_mpa")
_DENSE = data.house("characteristic_density")


def rho_k(mean_kg_m3: float) -> float:
    """Characteristic density."""
    return _DENSE * mean_kg_m3


def kmod(duration: float) -> float:
    """Modification factor, by the load duration factor of the other school."""
    return KMOD_YEARS if duration <= data.house("duration_years") else KMOD_MINUTES


def fax_mpa(diameter_mm: float, thread_mm: float, density_k: float) -> float:
    """Withdrawal parameter (8.39).

    0.52 d^-0.5 l_ef^-0.1 rho_k^0.8; stated for 6 to 12 mm, used below too (house rule).
    """
    return (
        WITHDRAWAL_PARAMETER.of({"d": diameter_mm, "l_ef": thread_mm, "ρ_k": density_k})
        if thread_mm > 0
        else 0.0
    )


def withdrawal_k(diameter_mm: float, thread_mm: float, density_k: float) -> float:
    """Characteristic withdrawal at right angles to the grain (8.38).

    F_ax,k d l_ef k_d, k_d = d/8 up to 1.
    """
    f_ax = fax_mpa(diameter_mm, thread_mm, density_k)
    return WITHDRAWAL(f_ax=f_ax, d=diameter_mm, l_ef=thread_mm)


def head_k(head_mm: float, density_k: float, thick_mm: float = inf) -> float:
    """Characteristic pull-through (8.40b).

    F_head,k d_h² (rho_k/350)^0.8, of the member under the head.

    In one thinner than two heads less in proportion (house rule: approvals ask for so much).
    """
    return PULL_THROUGH.of({"f_head": HEAD_MPA, "d_h": head_mm, "ρ_k": density_k, "t": thick_mm})


def pulled_together(count: int) -> float:
    """Return what each of several screws pulled together may take of what one may.

    N^0.9 / n (8.41).
    """
    return max(count, 1) ** -0.1


def sheared_in_line(count: int, apart_mm: float, diameter_mm: float) -> float:
    """Return the same of screws in a line along the grain, sheared along it.

    In holes drilled first.

    To 6 mm as nails, n^k / n with k of Table 8.1; thicker as bolts, n^0.9 (a / 13 d)^0.25 / n
    (8.34), at most 1.
    """
    if count < 2:
        return 1.0
    a = apart_mm / diameter_mm
    if diameter_mm <= 6:
        k = float(np.interp(a, (4.0, 7.0, 10.0, 14.0), (0.5, 0.7, 0.85, 1.0)))
        return float(count ** (k - 1))
    return min(count**0.9 * (a / 13) ** 0.25, count) / count


def embedment_k(diameter_mm: float, density_k: float, across: bool = False) -> float:
    """Embedment strength.

    To 6 mm as nails without holes, 0.082 rho_k d^-0.3 (8.15); thicker as bolts (8.31, 8.32).

    Bolts along the grain: 0.082 (1 - 0.01 d) rho_k; across it over k_90 = 1.35 + 0.015 d, that of
    softwood, the least (8.33).
    """
    return embedment_formula(diameter_mm, across).of({"ρ_k": density_k, "d_ef": diameter_mm})


def embedment_formula(diameter_mm: float, across: bool = False) -> Formula:
    """Return the formula of `embedment_k` for such a fastener; ρ_k in kg/m³ and d_ef in mm."""
    if diameter_mm <= 6:
        return EMBEDMENT_NAIL
    return EMBEDMENT_ACROSS if across else EMBEDMENT_BOLT


def yield_nmm(diameter_mm: float, lag: bool) -> float:
    """Characteristic yield moment (8.14, 8.30).

    0.3 f_u d^2.6, with the effective diameter 1.1 times the root (8.7.1).
    """
    return YIELD_MOMENT(f_u=strength_mpa(lag), d_ef=diameter_mm)


def strength_mpa(lag: bool) -> float:
    """Tensile strength of a screw's or a lag's steel, f_u."""
    return _LAG_FU_MPA if lag else _SCREW_FU_MPA


def lateral_k(
    diameter_mm: float,
    moment_nmm: float,
    side: Side,
    gap_mm: float,
    main_mpa: float,
    main_mm: float,
) -> Lateral:
    """Johansen's yield modes with a gap that bears nothing.

    (8.6) without its 1.05 and 1.15, which theory does not give.

    Args:
        diameter_mm: effective.
        moment_nmm: yield moment.
        side: the member under the head.
        gap_mm: soft layers.
        main_mpa: embedment strength of the stud.
        main_mm: length in it.
    """
    modes = yields(side, gap_mm, diameter_mm, moment_nmm, main_mpa, main_mm)
    mode = min(modes, key=modes.__getitem__)
    return Lateral(modes[mode], mode, modes, 1.0)
