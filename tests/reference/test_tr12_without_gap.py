"""With no gap, TR12's general dowel equations are the NDS yield limit equations (NDS 2018 Table 12.3.1A), in every mode.

The NDS closed forms are written out here from the standard; the application solves TR12's quadratic instead.
"""

from math import sqrt

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from trade.fixings import wood


def nds_yields(d: float, l_m: float, l_s: float, f_em: float, f_es: float, f_yb: float) -> dict[str, float]:
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
        d=st.floats(2.5, 12), l_m=st.floats(10, 150), l_s=st.floats(1, 60), f_em=st.floats(10, 60), f_es=st.floats(10, 500),
        f_yb=st.floats(250, 700),
    )  # fmt: skip
    def test_every_mode(self, d: float, l_m: float, l_s: float, f_em: float, f_es: float, f_yb: float) -> None:
        ours = wood.lateral(wood.Dowel(d, d, f_yb), wood.Side(l_s, f_es, None), 0.0, f_em, l_m)
        terms = wood.reduction_terms(d, d)
        for mode, yields in nds_yields(d, l_m, l_s, f_em, f_es, f_yb).items():
            self.assertAlmostEqual(ours.modes_n[mode] * terms[mode] / yields, 1.0, places=6, msg=mode)  # type: ignore[index]

    @given(gap=st.floats(0, 60), more=st.floats(0.1, 30))
    def test_a_wider_gap_never_helps(self, gap: float, more: float) -> None:
        def value(g: float) -> float:
            return wood.lateral(wood.Dowel(3.9, 4.8, 550.0), wood.Side(3.0, 426.0, None), g, 23.0, 50.0).value_n

        self.assertLessEqual(value(gap + more), value(gap))
