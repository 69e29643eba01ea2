"""Screws and nails in wood by American practice (allowable stress).

Sources: ANSI/AWC NDS-2018 (National Design Specification for Wood Construction) chapter 12, and AWC
TR12-2018 (General Dowel Equations) for connections with a gap. Reference values here are for C_D =
1; `g` is the oven-dry specific gravity. Forces in N, lengths in mm; the published coefficients are
for psi and inches, which stand as units in their formulas.
"""

from math import sqrt
from typing import Literal, NamedTuple

from trade.calculation import Calculation, Formula
from trade.data import Screw
from trade.language import compose
from trade.measure import IN_MM, PSI_MPA
from trade.memo import memoized

Mode = Literal["I_m", "I_s", "II", "III_m", "III_s", "IV"]
QUARTER_INCH_MM = 0.25 * IN_MM  # from here on the tables treat a fastener as a bolt

WITHDRAWAL_LAG = Formula("1800 G^1.5 (D/in)^0.75 lb/in")  # NDS 12.2.1
WITHDRAWAL_SCREW = Formula("2850 G² (D/in) lb/in")  # NDS 12.2.2
WITHDRAWAL_NAIL = Formula("1380 G^2.5 (D/in) lb/in")  # NDS 12.2.3
PULL_THROUGH = Formula("min(690 π D_H G² t, 1725 π D_H² G²) psi")  # NDS 12.2.5
BEARING_SMALL = Formula("16600 G^1.84 psi")  # NDS Table 12.3.3, note 3
BEARING_ALONG = Formula("11200 G psi")  # NDS Table 12.3.3, note 2
BEARING_ACROSS = Formula("6100 G^1.45 psi / √(D/in)")  # NDS Table 12.3.3, note 2


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
    """Return a screw as a dowel of its root diameter (NDS 12.3.7.2)."""
    return Dowel(screw.root_mm, screw.diameter_mm, screw.fyb_psi * PSI_MPA)


def steel_side(thickness_mm: float) -> Side:
    """Return a steel side plate, A653 grade 33: F_e = 61 850 psi (NDS Table 12P footnote.

    From memory).
    """
    return Side(thickness_mm, 61_850 * PSI_MPA, None)


def wood_side(thickness_mm: float, g: float, nominal_mm: float, across: bool = False) -> Side:
    """Return a wood side member; `across`: loaded across its grain (panels have none)."""
    return Side(thickness_mm, bearing_strength_mpa(g, nominal_mm, across), g, across)


def bearing_strength_mpa(g: float, nominal_mm: float, across_grain: bool = False) -> float:
    """Dowel bearing strength of wood, MPa (NDS Table 12.3.3, notes 2 and 3).

    Below 1/4 in: 16 600 G^1.84 psi whatever the grain; from 1/4 in: 11 200 G along it, 6 100 G^1.45
    / sqrt(D) across it.
    """
    return bearing_formula(nominal_mm, across_grain)(G=g, D=nominal_mm)


def bearing_formula(nominal_mm: float, across_grain: bool = False) -> Formula:
    """Return the formula of `bearing_strength_mpa` for such a fastener; G, and D in mm."""
    if nominal_mm < QUARTER_INCH_MM:
        return BEARING_SMALL
    return BEARING_ACROSS if across_grain else BEARING_ALONG


def withdrawal_n_per_mm(screw: Screw, g: float) -> float:
    """Withdrawal per length of thread in side grain.

    Lags, and rods driven like them: 1800 G^1.5 D^0.75 (NDS 12.2.1); wood screws: 2850 G^2 D (NDS
    12.2.2).
    """
    return withdrawal_formula(screw)(G=g, D=screw.diameter_mm)


def withdrawal_formula(screw: Screw) -> Formula:
    """Return the formula of `withdrawal_n_per_mm` for such a screw; G, and D in mm."""
    return WITHDRAWAL_SCREW if screw.kind == "wood" else WITHDRAWAL_LAG


def nail_withdrawal_n_per_mm(diameter_mm: float, g: float) -> float:
    """Withdrawal of a smooth nail per length in side grain (NDS 12.2.3: 1380 G^2.5 D)."""
    return WITHDRAWAL_NAIL(G=g, D=diameter_mm)


def pull_through_n(head_mm: float, thickness_mm: float, g: float) -> float:
    """Head pulled through a wood side member (NDS 12.2.5).

    690 pi D_H G^2 t, at most 1725 pi D_H^2 G^2.
    """
    return PULL_THROUGH(D_H=head_mm, G=g, t=thickness_mm)


def reduction_terms(
    diameter_mm: float, nominal_mm: float, angle_deg: float = 0.0
) -> dict[Mode, float]:
    """Reduction terms R_d by mode (NDS Table 12.3.1B).

    `angle_deg` is the largest angle of load to grain.
    """
    if diameter_mm < QUARTER_INCH_MM:
        k_d = 2.2 if diameter_mm <= 0.17 * IN_MM else 10 * diameter_mm / IN_MM + 0.5
        if nominal_mm >= QUARTER_INCH_MM:
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


class Yielding(NamedTuple):
    """One mode of yielding as the positive root of P² / q + B P = C (TR12 Table 1-1).

    `line`: q, what resists per length; `lever`: B; `moment`: C; each of q_s, q_m, L_s, L_m, M_y and
    the gap g.
    """

    line: Formula
    lever: Formula
    moment: Formula


YIELD_LOAD = Formula("q (√(B² + 4 C / q) − B) / 2")
PLASTIC_MOMENT = Formula("F_yb D³ / 6")  # TR12, as of M_s = M_m
CRUSHES: dict[Mode, Formula] = {"I_m": Formula("q_m L_m"), "I_s": Formula("q_s L_s")}
BENDS: dict[Mode, Yielding] = {
    "II": Yielding(
        Formula("4 q_s q_m / (q_s + q_m)"),
        Formula("L_s/2 + g + L_m/2"),
        Formula("q_s L_s²/4 + q_m L_m²/4"),
    ),
    "III_m": Yielding(
        Formula("4 q_s q_m / (q_s + 2 q_m)"), Formula("g + L_m/2"), Formula("M_y + q_m L_m²/4")
    ),
    "III_s": Yielding(
        Formula("4 q_s q_m / (2 q_s + q_m)"), Formula("g + L_s/2"), Formula("M_y + q_s L_s²/4")
    ),
    "IV": Yielding(Formula("2 q_s q_m / (q_s + q_m)"), Formula("g"), Formula("2 M_y")),
}


def yields(
    side: Side, gap_mm: float, diameter_mm: float, moment_nmm: float, main_fe_mpa: float, l_m: float
) -> dict[Mode, float]:
    """Return loads at yield by mode, N, with a gap between the members (TR12 Table 1-1).

    Args:
        side: the member under the head.
        gap_mm: what lies between and bears nothing.
        diameter_mm: where the fastener bends and bears.
        moment_nmm: at which it yields.
        main_fe_mpa: dowel bearing strength of the main member.
        l_m: dowel bearing length in it, mm.
    """
    given = {
        "q_s": side.fe_mpa * diameter_mm,
        "q_m": main_fe_mpa * diameter_mm,
        "L_s": side.thickness_mm,
        "L_m": l_m,
        "M_y": moment_nmm,
        "g": gap_mm,
    }
    found = {mode: crushes.of(given) for mode, crushes in CRUSHES.items()}
    for mode, bends in BENDS.items():
        found[mode] = YIELD_LOAD(
            q=bends.line.of(given), B=bends.lever.of(given), C=bends.moment.of(given)
        )
    return found


@memoized(limit=4_096)
def lateral(
    fastener: Dowel,
    side: Side,
    gap_mm: float,
    main_fe_mpa: float,
    main_mm: float,
    across_grain: bool = False,
) -> Lateral:
    """Single-shear design value with a gap between side and main member (TR12 Table 1-1.

    With no gap, NDS 12.3.1).

    Args:
        fastener: diameter and bending yield strength.
        side: the member under the head.
        gap_mm: what lies between and bears nothing, such as gypsum board.
        main_fe_mpa: dowel bearing strength of the main member.
        main_mm: dowel bearing length in it.
        across_grain: whether it is loaded across its grain, as blocking is.
    """
    d = fastener.diameter_mm
    moment = PLASTIC_MOMENT(F_yb=fastener.fyb_mpa, D=d)
    found = yields(side, gap_mm, d, moment, main_fe_mpa, main_mm)
    r_d = reduction_terms(d, fastener.nominal_mm, 90.0 if side.across or across_grain else 0.0)
    modes = {mode: value / r_d[mode] for mode, value in found.items()}
    mode = min(modes, key=modes.__getitem__)
    return Lateral(modes[mode], mode, modes, r_d[mode])


MODES: dict[Mode, str] = {
    "I_m": "the stud gives way along the whole screw",
    "I_s": "the piece under the head gives way",
    "II": "the screw turns in both, unbent",
    "III_m": "it bends once, under the head",
    "III_s": "it bends once, in the stud",
    "IV": "it bends in both",
}


def write_yield(sums: Calculation, found: Lateral) -> float:
    """Write how the governing mode's load follows, and what the other modes would come to.

    Args:
        sums: with q_s, q_m, L_s, L_m, M_y and g, as of `yields`.
        found: what `lateral` found.

    Returns:
        The load at yield, Y, N.
    """
    for mode, value in found.modes_n.items():
        if mode != found.mode:
            sums.given(
                f"Z_{mode}", value, "force", compose("no less, if {modes}", modes=MODES[mode])
            )
    if found.mode in CRUSHES:
        return sums.then("Y", CRUSHES[found.mode].text, "force", MODES[found.mode])
    bends = BENDS[found.mode]
    sums.then("q", bends.line.text, "line", "what resists, per length")
    sums.then("B", bends.lever.text, "fine", "lever")
    sums.then("C", bends.moment.text, "moment", "what the bearing and the screw resist")
    return sums.then(
        "Y",
        YIELD_LOAD.text,
        "force",
        compose("mode {mode}: {modes}", mode=found.mode, modes=MODES[found.mode]),
    )


def bearing_length_mm(penetration_mm: float, nominal_mm: float, tip_mm: float) -> float:
    """Dowel bearing length of a pointed fastener (NDS 12.3.5.3).

    Half the tip is lost below ten diameters.
    """
    return (
        penetration_mm
        if penetration_mm >= 10 * nominal_mm
        else max(penetration_mm - tip_mm / 2, 0.0)
    )


HANKINSON = Formula("max((T_1²/W' + V²/Z') / R, T_1/W', V/Z')")  # NDS 12.4.1


def combined_use(tension_n: float, shear_n: float, withdrawal_n: float, lateral_n: float) -> float:
    """Utilisation in pull and shear together (NDS 12.4.1, Hankinson form): R over Z'_alpha.

    The form dips below pure shear when a little pull is added to a screw that is weak in shear; a
    house rule takes it as no less than either alone.
    """
    resultant = sqrt(tension_n**2 + shear_n**2)
    if resultant == 0:
        return 0.0
    return HANKINSON.of(
        {"T_1": tension_n, "V": shear_n, "R": resultant, "W'": withdrawal_n, "Z'": lateral_n}
    )
