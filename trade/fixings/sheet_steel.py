"""Screws in sheet-steel studs.

Source: AISI S100-16 section J4, with Omega = 3.0. Forces in N, lengths in mm, strengths in MPa.
"""

from math import sqrt

OMEGA = 3.0  # J4
SHEET_FU_MPA = 310.0  # ASTM A1003 grade 33: F_u = 45 ksi


def pull_out_n(sheet_mm: float, diameter_mm: float, fu_mpa: float = SHEET_FU_MPA) -> float:
    """Nominal pull-out (J4.4.1): 0.85 t d F_u."""
    return 0.85 * sheet_mm * diameter_mm * fu_mpa


def tilting_n(sheet_mm: float, diameter_mm: float, fu_mpa: float = SHEET_FU_MPA) -> float:
    """Nominal shear by tilting, where the sheet under the head is no thinner (J4.3.1).

    4.2 sqrt(t^3 d) F_u.
    """
    return 4.2 * sqrt(sheet_mm**3 * diameter_mm) * fu_mpa


def bearing_n(sheet_mm: float, diameter_mm: float, fu_mpa: float = SHEET_FU_MPA) -> float:
    """Nominal shear by bearing (J4.3.1): 2.7 t d F_u."""
    return 2.7 * sheet_mm * diameter_mm * fu_mpa
