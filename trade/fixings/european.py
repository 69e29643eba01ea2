"""Screws in wood by European practice: characteristic values, partial factors.

Source: EN 1995-1-1:2004+A1+A2 section 8 (Johansen, withdrawal), EN 1990. Forces in N, lengths in
mm, densities in kg/m³.
"""

from math import inf, sqrt

import numpy as np

from trade import data
from trade.fixings.wood import Dowel, Lateral, Mode, Side, yields

GAMMA_M = 1.3  # EN 1995-1-1 Table 2.3, connections
GAMMA_F = 1.5  # EN 1990 Table A1.2(B), variable; taken for all of it
KMOD_YEARS = 0.6
KMOD_MINUTES = 0.9
_HEAD_MPA = 10.0  # f_head,k at 350 kg/m³: usual in approvals of screws, from memory
_SCREW_FU_MPA = (
    500.0  # house rule: the weakest hardened wood screw; lags are weaker, see `yield_nmm`
)
_LAG_FU_MPA = 360.0  # EN ISO 898-1 class 3.6 and ordinary lags
_DENSE = 0.83  # 5 % fractile of density over its mean, as C24 of EN 338: 350 over 420


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
    return 0.52 * diameter_mm**-0.5 * thread_mm**-0.1 * density_k**0.8 if thread_mm > 0 else 0.0


def withdrawal_k(diameter_mm: float, thread_mm: float, density_k: float) -> float:
    """Characteristic withdrawal at right angles to the grain (8.38).

    F_ax,k d l_ef k_d, k_d = d/8 up to 1.
    """
    return (
        fax_mpa(diameter_mm, thread_mm, density_k)
        * diameter_mm
        * thread_mm
        * min(diameter_mm / 8, 1.0)
    )


def head_k(head_mm: float, density_k: float, thick_mm: float = inf) -> float:
    """Characteristic pull-through (8.40b).

    F_head,k d_h² (rho_k/350)^0.8, of the member under the head.

    In one thinner than two heads less in proportion (house rule: approvals ask for so much).
    """
    return _HEAD_MPA * head_mm**2 * (density_k / 350) ** 0.8 * min(thick_mm / (2 * head_mm), 1.0)


def pulled_together(count: int) -> float:
    """What each of several screws pulled together may take of what one may: n^0.9 / n (8.41)."""
    return max(count, 1) ** -0.1


def sheared_in_line(count: int, apart_mm: float, diameter_mm: float) -> float:
    """The same of screws in a line along the grain, sheared along it, in holes drilled first.

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


def splitting_k(wide_mm: float, high_mm: float, beyond_mm: float) -> float:
    """What splits a softwood strip that is loaded across its grain (8.4).

    14 b sqrt(h_e / (1 - h_e / h)), N.

    Args:
        wide_mm: b, its thickness.
        high_mm: h, its height.
        beyond_mm: h_e, from the loaded edge to the fastener furthest from it.
    """
    return 14 * wide_mm * sqrt(beyond_mm / (1 - beyond_mm / high_mm))


def embedment_k(diameter_mm: float, density_k: float, across: bool = False) -> float:
    """Embedment strength.

    To 6 mm as nails without holes, 0.082 rho_k d^-0.3 (8.15); thicker as bolts (8.31, 8.32).

    Bolts along the grain: 0.082 (1 - 0.01 d) rho_k; across it over k_90 = 1.35 + 0.015 d, that of
    softwood, the least (8.33).
    """
    if diameter_mm <= 6:
        return 0.082 * density_k * diameter_mm**-0.3
    along = 0.082 * (1 - 0.01 * diameter_mm) * density_k
    return along / (1.35 + 0.015 * diameter_mm) if across else along


def yield_nmm(diameter_mm: float, lag: bool) -> float:
    """Characteristic yield moment (8.14, 8.30).

    0.3 f_u d^2.6, with the effective diameter 1.1 times the root (8.7.1).
    """
    return 0.3 * (_LAG_FU_MPA if lag else _SCREW_FU_MPA) * diameter_mm**2.6


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
    equal = Dowel(diameter_mm, diameter_mm, 6 * moment_nmm / diameter_mm**3)
    modes: dict[Mode, float] = yields(equal, side, gap_mm, main_mpa, main_mm)
    mode = min(modes, key=modes.__getitem__)
    return Lateral(modes[mode], mode, modes, 1.0)


def combined_use(tension: float, shear: float) -> float:
    """Both together, as shares of their own (8.28, screws): the square root of the squares' sum."""
    return sqrt(tension**2 + shear**2)
