"""What sums of strength and sag share: allowed stresses of wood and steel, sections, limits."""

from collections.abc import Sequence
from typing import Literal

from trade import data
from trade.calculation import Calculation, Formula
from trade.data import Board, Screw
from trade.fixings import wood
from trade.language import compose
from trade.mechanics import steel
from trade.mechanics.composite import Component

TORSION_FORM = Formula("h t² (1 − 0.63 t/h) / 3")  # torsion over the greatest shear stress


def lasting_or_pushed(
    lasting: float, pushed: float, case: str = "loaded, and pushed"
) -> tuple[float, float, str]:
    """Of a force for years and one with a push, the harder: itself, its C_D, its case."""
    years, minutes = data.house("duration_years"), data.house("duration_minutes")
    cases = ((lasting, years, "loaded, for years"), (pushed, minutes, case))
    return max(cases, key=lambda each: each[0] / each[1])


def write_bending(sums: Calculation, row: Board, duration: float) -> float:
    """Write what a board may be bent with, σ'."""
    if row.allowable_mpa is not None:
        return sums.given(
            "σ'", row.allowable_mpa, "stress", compose("{row}, 0.6 of its yield", row=row.name)
        )
    sums.given(
        "MOR", row.mor_mpa, "stress", compose("modulus of rupture of {row}, mean", row=row.name)
    )
    sums.given("k_m", data.house("mor_share"), "ratio", "share of it, for ten years")
    sums.given("C_D", duration, "ratio", "load duration")
    return sums.then("σ'", "k_m MOR C_D", "stress", "it may be bent with")


def write_shearing(sums: Calculation, row: Board, duration: float) -> float:
    """Write what a board may be sheared or twisted with, τ'."""
    sums.given(
        "f_v", row.shear_mpa, "stress", compose("shear strength of {row}, mean", row=row.name)
    )
    sums.given("k_m", data.house("mor_share"), "ratio", "share of it, for ten years")
    sums.given("C_D", duration, "ratio", "load duration")
    return sums.then("τ'", "k_m f_v C_D", "stress", "it may be sheared with")


def write_bearing(sums: Calculation, row: Board, duration: float) -> float:
    """Write what a board may be pressed with, p'."""
    sums.given("p_0", row.bearing_mpa, "stress", compose("bearing strength of {row}", row=row.name))
    sums.given("C_D", duration, "ratio", "load duration")
    return sums.then("p'", "p_0 C_D", "stress", "it may be pressed with")


def write_withdrawal(
    sums: Calculation, screw: Screw, row: Board, words: str, duration: float
) -> float:
    """Write what a thread p long holds in a board, W'; `words`: which board its gravity is of."""
    sums.given("G", row.g, "ratio", words)
    sums.given("D", screw.diameter_mm, "fine", "diameter of the screw")
    sums.then("W", wood.withdrawal_formula(screw).text, "line", "what each length holds")
    sums.given("C_D", duration, "ratio", "load duration")
    return sums.then("W'", "W p C_D", "force", "what its thread holds")


def write_twist(sums: Calculation, high_mm: float, thick_mm: float) -> float:
    """Write what a torsion T twists a strip with, τ."""
    sums.given("h", high_mm, "length", "its height")
    sums.given("t", thick_mm, "fine", "its thickness")
    sums.then("S_t", TORSION_FORM.text, "section", "its section in torsion")
    return sums.then("τ", "T / S_t", "stress")


def write_flatwise(
    sums: Calculation, long_mm: float, thick_mm: float, meaning: str, moment: str = "M"
) -> float:
    """Write what a moment bends a strip with across its thickness, σ."""
    sums.given("h", long_mm, "length", meaning)
    sums.given("t", thick_mm, "fine", "its thickness")
    sums.then("S", "h t² / 6", "section", "section modulus")
    return sums.then("σ", f"{moment} / S", "stress")


def write_steel(sums: Calculation, yield_mpa: float, shape: Literal["round", "rectangle"]) -> float:
    """Write what a compact solid bar of steel may be bent with, σ'."""
    sums.given("F_y", yield_mpa, "stress", "yield of its steel")
    sums.given("Ω", steel.OMEGA, "ratio", "safety factor")
    return sums.then("σ'", steel.BENDING[shape].text, "stress", "plastic, as far as that counts")


def write_round(sums: Calculation, diameter_mm: float, meaning: str) -> float:
    """Write what a moment M bends a round bar with, σ."""
    sums.given("d", diameter_mm, "fine", meaning)
    sums.then("S", "π d³ / 32", "section", "section modulus")
    return sums.then("σ", "M / S", "stress")


def write_rigidity(
    sums: Calculation, parts: Sequence[tuple[str, str, Component]], creep: bool = False
) -> float:
    """Write the stiffness of all that bends together, K; with `creep` that after years, K'.

    Args:
        sums: to be written to.
        parts: each with its name, its row of the boards table, its section.
        creep: whether each gives by its own creep.
    """
    for n, (name, key, part) in enumerate(parts, start=1):
        wood = data.boards()[key].name
        sums.given(
            f"E_{n}",
            part.e_mpa,
            "stress",
            compose("stiffness of {wood}: the {name}", wood=wood, name=name),
        )
        sums.given(f"b_{n}", part.wide_mm, "length", "its width")
        sums.given(f"h_{n}", part.high_mm, "fine", "its height")
        if part.wall_mm:
            sums.given(f"I_{n}", part.inertia_mm4, "inertia", "b h³ / 12, less its hollow's")
        else:
            sums.then(f"I_{n}", f"b_{n} h_{n}³ / 12", "inertia")
    count = range(1, len(parts) + 1)
    stiff = sums.then("K", " + ".join(f"E_{n} I_{n}" for n in count), "rigidity", "stiffness")
    if not creep:
        return stiff
    for n, (_, _, part) in enumerate(parts, start=1):
        sums.given(f"k_{n}", part.k_def, "ratio", "creep, k_def")
    crept = " + ".join(f"E_{n} I_{n} / (1 + k_{n})" for n in count)
    return sums.then("K'", crept, "rigidity", "stiffness after years")


def shared_sum(
    parts: Sequence[tuple[str, str, Component]],
    n: int,
    moment_nmm: float,
    duration: float,
    meaning: str,
) -> Calculation:
    """Work out what a moment on all that bends together bends one part with, σ and σ'.

    Args:
        parts: as of `write_rigidity`.
        n: which of them, from 0.
        moment_nmm: on all.
        duration: its C_D.
        meaning: of the moment.
    """
    sums = Calculation()
    sums.given("M", moment_nmm, "moment", meaning)
    write_rigidity(sums, parts)
    sums.then("k", f"E_{n + 1} I_{n + 1} / K", "ratio", "its share of the bending")
    sums.then("S", f"2 I_{n + 1} / h_{n + 1}", "section", "its section modulus")
    sums.then("σ", "k M / S", "stress")
    write_bending(sums, data.boards()[parts[n][1]], duration)
    return sums


def write_sag_limit(sums: Calculation) -> float:
    """Write how far a span l may sag over the years, w_max."""
    sums.given("n_w", data.house("sag_limit"), "count", "span over the sag that it may have")
    return sums.then("w_max", "l / n_w", "fine", "limit")


def write_droop_limit(sums: Calculation) -> float:
    """Write how far the front edge of a depth d may drop over the years, w_max."""
    sums.given("n_w", data.house("droop_limit"), "count", "depth over the drop that it may have")
    return sums.then("w_max", "d / n_w", "fine", "limit")


def write_column(sums: Calculation) -> float:
    """Write what a column of length l, stiffness E and inertia I can carry, F_max (Euler)."""
    sums.then("F_E", "π² E I / l²", "force", "at which it buckles, hinged at both ends")
    sums.given("γ_E", data.house("buckling_safety"), "ratio", "safety")
    return sums.then("F_max", "F_E / γ_E", "force", "it can carry")
