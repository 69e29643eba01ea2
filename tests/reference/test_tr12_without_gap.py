"""With no gap, TR12's equations are the NDS yield equations (NDS 2018 Table 12.3.1A), every mode.

The NDS closed forms are written out here from the standard; the application solves TR12's quadratic
instead.
"""

from math import sqrt

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from trade.fixings import wood


def nds_yields(
    d: float, l_m: float, l_s: float, f_em: float, f_es: float, f_yb: float
) -> dict[str, float]:
    """Yield loads by mode before R_d, single shear, NDS eq. 12.3-1 to 12.3-6."""
    re, rt = f_em / f_es, l_m / l_s
    k1 = (sqrt(re + 2 * re**2 * (1 + rt + rt**2) + rt**2 * re**3) - re * (1 + rt)) / (1 + re)
    k2 = -1 + sqrt(2 * (1 + re) + 2 * f_yb * (1 + 2 * re) * d**2 / (3 * f_em * l_m**2))
    k3 = -1 + sqrt(2 * (1 + re) / re + 2 * f_yb * (2 + re) * d**2 / (3 * f_em * l_s**2))
    return {
        "I_m": d * l_m * f_em,
        "I_s": d * l_s * f_es,
        "II": k1 * d * l_s * f_es,
        "III_m": k2 * d * l_m * f_em / (1 + 2 * re),
        "III_s": k3 * d * l_s * f_em / (2 + re),
        "IV": d**2 * sqrt(2 * f_em * f_yb / (3 * (1 + re))),
    }


class SameAsTheStandard(SimpleTestCase):
    @given(
        d=st.floats(2.5, 12),
        l_m=st.floats(10, 150),
        l_s=st.floats(1, 60),
        f_em=st.floats(10, 60),
        f_es=st.floats(10, 500),
        f_yb=st.floats(250, 700),
    )
    def test_every_mode(
        self, d: float, l_m: float, l_s: float, f_em: float, f_es: float, f_yb: float
    ) -> None:
        ours = wood.lateral(wood.Dowel(d, d, f_yb), wood.Side(l_s, f_es, None), 0.0, f_em, l_m)
        terms = wood.reduction_terms(d, d)
        for mode, yields in nds_yields(d, l_m, l_s, f_em, f_es, f_yb).items():
            self.assertAlmostEqual(
                ours.modes_n[mode] * terms[mode] / yields, 1.0, places=6, msg=mode
            )  # type: ignore[index]

    def test_a_side_member_loaded_across_its_grain(self) -> None:
        """A ledger lies along the wall.

        F_e across its grain by NDS Table 12.3.3 (printed to 50 psi), every R_d times K_θ = 1.25.

        Lags of 1/4 to 1/2 in, side and main of G = 0.50: F_e 5600 along; 4450, 3650, 3150 across.
        Screws under 1/4 in know no grain.
        """
        for inches, across in ((0.25, 4450), (0.375, 3650), (0.5, 3150)):
            d, psi = inches * 25.4, 0.00689476
            side = wood.wood_side(38.1, 0.50, d, across=True)
            self.assertAlmostEqual(side.fe_mpa / psi, across, delta=25)
            ours = wood.lateral(
                wood.Dowel(d, d, 45_000 * psi), side, 0.0, wood.bearing_strength_mpa(0.50, d), 60.0
            )
            terms = {"I_m": 5.0, "I_s": 5.0, "II": 4.5, "III_m": 4.0, "III_s": 4.0, "IV": 4.0}
            for mode, load in nds_yields(
                d, 60.0, 38.1, 5600 * psi, side.fe_mpa, 45_000 * psi
            ).items():
                self.assertAlmostEqual(
                    ours.modes_n[mode] / (load / terms[mode]), 1.0, places=4, msg=mode
                )  # type: ignore[index]
            along = wood.lateral(
                wood.Dowel(d, d, 45_000 * psi), wood.wood_side(38.1, 0.50, d), 0.0, 5600 * psi, 60.0
            )
            self.assertTrue(1.25 < along.value_n / ours.value_n < 1.7)
        small = [wood.wood_side(19.0, 0.5, 4.8, across) for across in (True, False)]
        self.assertEqual(
            *(
                wood.lateral(wood.Dowel(3.9, 4.8, 550.0), each, 0.0, 23.0, 50.0).value_n
                for each in small
            )
        )

    @given(gap=st.floats(0, 60), more=st.floats(0.1, 30))
    def test_a_wider_gap_never_helps(self, gap: float, more: float) -> None:
        def value(g: float) -> float:
            return wood.lateral(
                wood.Dowel(3.9, 4.8, 550.0), wood.Side(3.0, 426.0, None), g, 23.0, 50.0
            ).value_n

        self.assertLessEqual(value(gap + more), value(gap))
