"""Screws and nails in wood by American practice (allowable stress).

Sources: ANSI/AWC NDS-2018 (National Design Specification for Wood Construction) chapter 12, and AWC
TR12-2018 (General Dowel Equations) for connections with a gap. Reference values here are for C_D =
1; `g` is the oven-dry specific gravity. Forces in N, lengths in mm; the published coefficients are
for psi and inches and are converted where they stand.
"""

from math import pi, sqrt
from typing import Literal, NamedTuple

from trade.data import Screw
from trade.measure import LB_PER_IN_N_PER_MM, PSI_MPA
from trade.memo import memoized

Mode = Literal["I_m", "I_s", "II", "III_m", "III_s", "IV"]
_INCH = 25.4
_SMALL_MM = 0.25 * _INCH


class Dowel(NamedTuple):
    """What a lateral calculation needs of a fastener.

    `diameter_mm` where it bends and bears (the root, when threaded there).
    """

    diameter_mm: float
    nominal_mm: float
    fyb_mpa: float


class Side(NamedTuple):
    """The piece under the screw's head.

    Thickness, dowel bearing strength, and its specific gravity when it is wood.

    `across`: its grain runs across the load, as in strips, cleats, ledgers and beams that lie along
    the wall.
    """

    thickness_mm: float
    fe_mpa: float
    g: float | None
    across: bool = False


class Lateral(NamedTuple):
    """A lateral design value and how it came about.

    Every mode's value, the one that governs, and its reduction term.
    """

    value_n: float
    mode: Mode
    modes_n: dict[Mode, float]
    reduction: float


def dowel(screw: Screw) -> Dowel:
    """A screw as a dowel of its root diameter (NDS 12.3.7.2)."""
    return Dowel(screw.root_mm, screw.diameter_mm, screw.fyb_psi * PSI_MPA)


def steel_side(thickness_mm: float) -> Side:
    """A steel side plate, A653 grade 33: F_e = 61 850 psi (NDS Table 12P footnote; from memory)."""
    return Side(thickness_mm, 61_850 * PSI_MPA, None)


def wood_side(thickness_mm: float, g: float, nominal_mm: float, across: bool = False) -> Side:
    """A wood side member; `across`: loaded across its grain (panels have none)."""
    return Side(thickness_mm, bearing_strength_mpa(g, nominal_mm, across), g, across)


def bearing_strength_mpa(g: float, nominal_mm: float, across_grain: bool = False) -> float:
    """Dowel bearing strength of wood, MPa (NDS Table 12.3.3, notes 2 and 3).

    Below 1/4 in: 16 600 G^1.84 psi whatever the grain; from 1/4 in: 11 200 G along it, 6 100 G^1.45
    / sqrt(D) across it.
    """
    if nominal_mm < _SMALL_MM:
        return 16_600 * g**1.84 * PSI_MPA
    if across_grain:
        return 6_100 * g**1.45 / sqrt(nominal_mm / _INCH) * PSI_MPA
    return 11_200 * g * PSI_MPA


def withdrawal_n_per_mm(screw: Screw, g: float) -> float:
    """Withdrawal per length of thread in side grain.

    Lags, and rods driven like them: 1800 G^1.5 D^0.75 (NDS 12.2.1); wood screws: 2850 G^2 D (NDS
    12.2.2).
    """
    inches = screw.diameter_mm / _INCH
    if screw.kind != "wood":
        return 1_800 * g**1.5 * inches**0.75 * LB_PER_IN_N_PER_MM
    return 2_850 * g**2 * inches * LB_PER_IN_N_PER_MM


def nail_withdrawal_n_per_mm(diameter_mm: float, g: float) -> float:
    """Withdrawal of a smooth nail per length in side grain (NDS 12.2.3: 1380 G^2.5 D)."""
    return 1_380 * g**2.5 * diameter_mm / _INCH * LB_PER_IN_N_PER_MM


def pull_through_n(head_mm: float, thickness_mm: float, g: float) -> float:
    """Head pulled through a wood side member (NDS 12.2.5).

    690 pi D_H G^2 t, at most 1725 pi D_H^2 G^2.
    """
    return min(690 * pi * head_mm * g**2 * thickness_mm, 1_725 * pi * head_mm**2 * g**2) * PSI_MPA


def reduction_terms(
    diameter_mm: float, nominal_mm: float, angle_deg: float = 0.0
) -> dict[Mode, float]:
    """Reduction terms R_d by mode (NDS Table 12.3.1B).

    `angle_deg` is the largest angle of load to grain.
    """
    if diameter_mm < _SMALL_MM:
        k_d = 2.2 if diameter_mm <= 0.17 * _INCH else 10 * diameter_mm / _INCH + 0.5
        if nominal_mm >= _SMALL_MM:
            k_d *= 1 + 0.25 * angle_deg / 90
        return dict.fromkeys(("I_m", "I_s", "II", "III_m", "III_s", "IV"), k_d)
    k_theta = 1 + 0.25 * angle_deg / 90
    return {
        "I_m": 4 * k_theta,
        "I_s": 4 * k_theta,
        "II": 3.6 * k_theta,
        "III_m": 3.2 * k_theta,
        "III_s": 3.2 * k_theta,
        "IV": 3.2 * k_theta,
    }


def yields(
    fastener: Dowel, side: Side, gap_mm: float, main_fe_mpa: float, main_mm: float
) -> dict[Mode, float]:
    """Loads at yield by mode, N, with a gap between the members (TR12 Table 1-1).

    Arguments as of `lateral`.
    """
    d = fastener.diameter_mm
    q_s, q_m = side.fe_mpa * d, main_fe_mpa * d
    l_s, l_m = side.thickness_mm, main_mm
    moment = fastener.fyb_mpa * d**3 / 6  # plastic, TR12 eq. for M_s = M_m
    return {
        "I_m": q_m * l_m,
        "I_s": q_s * l_s,
        "II": _root(
            1 / (4 * q_s) + 1 / (4 * q_m),
            l_s / 2 + gap_mm + l_m / 2,
            -q_s * l_s**2 / 4 - q_m * l_m**2 / 4,
        ),
        "III_m": _root(1 / (2 * q_s) + 1 / (4 * q_m), gap_mm + l_m / 2, -moment - q_m * l_m**2 / 4),
        "III_s": _root(1 / (4 * q_s) + 1 / (2 * q_m), l_s / 2 + gap_mm, -q_s * l_s**2 / 4 - moment),
        "IV": _root(1 / (2 * q_s) + 1 / (2 * q_m), gap_mm, -2 * moment),
    }


@memoized(limit=4_096)
def lateral(
    fastener: Dowel, side: Side, gap_mm: float, main_fe_mpa: float, main_mm: float
) -> Lateral:
    """Single-shear design value with a gap between side and main member (TR12 Table 1-1.

    With no gap, NDS 12.3.1).

    Args:
        fastener: diameter and bending yield strength.
        side: the member under the head.
        gap_mm: what lies between and bears nothing, such as gypsum board.
        main_fe_mpa: dowel bearing strength of the main member.
        main_mm: dowel bearing length in it.
    """
    found = yields(fastener, side, gap_mm, main_fe_mpa, main_mm)
    d = fastener.diameter_mm
    r_d = reduction_terms(d, fastener.nominal_mm, 90.0 if side.across else 0.0)
    modes = {mode: value / r_d[mode] for mode, value in found.items()}
    mode = min(modes, key=modes.__getitem__)
    return Lateral(modes[mode], mode, modes, r_d[mode])


def _root(a: float, b: float, c: float) -> float:
    """The positive root of A P^2 + B P + C = 0."""
    return (-b + sqrt(b * b - 4 * a * c)) / (2 * a)


def bearing_length_mm(penetration_mm: float, nominal_mm: float, tip_mm: float) -> float:
    """Dowel bearing length of a pointed fastener (NDS 12.3.5.3).

    Half the tip is lost below ten diameters.
    """
    return (
        penetration_mm
        if penetration_mm >= 10 * nominal_mm
        else max(penetration_mm - tip_mm / 2, 0.0)
    )


def combined_use(tension_n: float, shear_n: float, withdrawal_n: float, lateral_n: float) -> float:
    """Utilisation in pull and shear together (NDS 12.4.1, Hankinson form): R over Z'_alpha.

    The form dips below pure shear when a little pull is added to a screw that is weak in shear; a
    house rule takes it as no less than either alone.
    """
    resultant = sqrt(tension_n**2 + shear_n**2)
    if resultant == 0:
        return 0.0
    together = (tension_n**2 / withdrawal_n + shear_n**2 / lateral_n) / resultant
    return max(together, tension_n / withdrawal_n, shear_n / lateral_n)
