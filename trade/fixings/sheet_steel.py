"""Screws in sheet-steel studs.

Source: AISI S100-16 section J4, with Omega = 3.0. Forces in N, lengths in mm, strengths in MPa.
"""

from trade.calculation import Formula

OMEGA = 3.0  # J4
SHEET_FU_MPA = 310.0  # ASTM A1003 grade 33: F_u = 45 ksi
PULL_OUT = Formula("0.85 t d F_u")  # J4.4.1
TILTING = Formula("4.2 √(t³ d) F_u")  # J4.3.1
BEARING = Formula("2.7 t d F_u")  # J4.3.1


def pull_out_n(sheet_mm: float, diameter_mm: float, fu_mpa: float = SHEET_FU_MPA) -> float:
    """Nominal pull-out (J4.4.1): 0.85 t d F_u."""
    return PULL_OUT(t=sheet_mm, d=diameter_mm, F_u=fu_mpa)


def tilting_n(sheet_mm: float, diameter_mm: float, fu_mpa: float = SHEET_FU_MPA) -> float:
    """Nominal shear by tilting, where the sheet under the head is no thinner (J4.3.1).

    4.2 sqrt(t^3 d) F_u.
    """
    return TILTING(t=sheet_mm, d=diameter_mm, F_u=fu_mpa)


def bearing_n(sheet_mm: float, diameter_mm: float, fu_mpa: float = SHEET_FU_MPA) -> float:
    """Nominal shear by bearing (J4.3.1): 2.7 t d F_u."""
    return BEARING(t=sheet_mm, d=diameter_mm, F_u=fu_mpa)
