"""Screws by EN 1995-1-1, against its own equations written out here, and sums done by hand."""

import random
from math import sqrt

from django.test import SimpleTestCase

from tests.plans import bracket_shelf, wall
from trade import data
from trade.assess import assess_piece
from trade.fixings import european
from trade.fixings.wood import Side


def johansen(t1: float, t2: float, fh1: float, fh2: float, d: float, m: float) -> dict[str, float]:
    """(8.6) a to f for timber to timber in single shear.

    Without rope effect and without the factors 1.05 and 1.15.
    """
    b = fh2 / fh1
    return {
        "a": fh1 * t1 * d,
        "b": fh2 * t2 * d,
        "c": fh1
        * t1
        * d
        / (1 + b)
        * (
            sqrt(b + 2 * b**2 * (1 + t2 / t1 + (t2 / t1) ** 2) + b**3 * (t2 / t1) ** 2)
            - b * (1 + t2 / t1)
        ),
        "d": fh1
        * t1
        * d
        / (2 + b)
        * (sqrt(2 * b * (1 + b) + 4 * b * (2 + b) * m / (fh1 * d * t1**2)) - b),
        "e": fh1
        * t2
        * d
        / (1 + 2 * b)
        * (sqrt(2 * b**2 * (1 + b) + 4 * b * (1 + 2 * b) * m / (fh1 * d * t2**2)) - b),
        "f": sqrt(2 * b / (1 + b)) * sqrt(2 * m * fh1 * d),
    }


class Johansen(SimpleTestCase):
    def test_with_no_gap_every_mode_is_the_standard_s(self) -> None:
        pairs = {"a": "I_s", "b": "I_m", "c": "II", "d": "III_s", "e": "III_m", "f": "IV"}
        draw = random.Random(1995)
        for _ in range(30):
            t1 = draw.uniform(8, 60)
            t2 = draw.uniform(15, 90)
            fh1 = draw.uniform(12, 45)
            fh2 = draw.uniform(12, 45)
            d, m = draw.uniform(3, 12), draw.uniform(1_500, 60_000)
            ours = european.lateral_k(d, m, Side(t1, fh1, 0.4), 0.0, fh2, t2).modes_n
            for printed, mode in pairs.items():
                self.assertAlmostEqual(
                    ours[mode] / johansen(t1, t2, fh1, fh2, d, m)[printed],
                    1.0,
                    places=9,
                    msg=printed,
                )  # type: ignore[index]

    def test_a_gap_only_weakens(self) -> None:
        side = Side(18.0, 25.0, 0.4)
        values = [
            european.lateral_k(5.0, 8_000.0, side, gap, 20.0, 50.0).value_n
            for gap in (0.0, 5.0, 12.7, 30.0)
        ]
        self.assertEqual(values, sorted(values, reverse=True))


class Formulas(SimpleTestCase):
    def test_withdrawal(self) -> None:
        """d = 8, l_ef = 80, C24 (350 kg/m³).

        0.52 · 0.3536 · 0.6452 · 108.5 = 12.87 N/mm²; × 8 × 80 = 8 237 N. With d = 6, k_d = 0.75.
        """
        self.assertAlmostEqual(european.fax_mpa(8, 80, 350), 12.87, delta=0.01)
        self.assertAlmostEqual(european.withdrawal_k(8, 80, 350), 8_237, delta=5)
        self.assertAlmostEqual(
            european.withdrawal_k(6, 50, 350), 0.75 * 6 * 50 * european.fax_mpa(6, 50, 350)
        )

    def test_embedment(self) -> None:
        """(8.15) 0.082 · 350 · 4^-0.3 = 18.94; (8.32) 0.082 · 0.88 · 350 = 25.26 for 12 mm."""
        self.assertAlmostEqual(european.embedment_k(4, 350), 18.94, delta=0.01)
        self.assertAlmostEqual(european.embedment_k(12, 350), 25.26, delta=0.01)

    def test_yield_moment(self) -> None:
        """0.3 · 500 · 4.4^2.6 = 7 064 N mm."""
        self.assertAlmostEqual(european.yield_nmm(4.4, lag=False), 7_064, delta=5)

    def test_characteristic_density(self) -> None:
        """EN 338: C24 has 420 and 350 kg/m³, C16 370 and 310, C30 460 and 380: within 2 %."""
        for mean, fractile in ((420, 350), (370, 310), (460, 380)):
            self.assertAlmostEqual(european.rho_k(mean) / fractile, 1.0, delta=0.02)


class WorkedExample(SimpleTestCase):
    def test_a_nail_of_a_textbook(self) -> None:
        """Porteous and Kermani, Structural Timber Design to Eurocode 5 (2007), example 10.13.1.

        From memory: 3.35 mm nails in C22 (340 kg/m³): f_h,k = 19.40 N/mm², M_y,Rk = 4.17 kN mm
        with f_u = 600 N/mm².
        """
        self.assertAlmostEqual(european.embedment_k(3.35, 340), 19.40, delta=0.01)
        self.assertAlmostEqual(
            european.yield_nmm(3.35, lag=False) * 600 / 500 / 1000, 4.17, delta=0.01
        )


class School(SimpleTestCase):
    def test_the_wall_says_whose_practice_judges(self) -> None:
        american, european_ = (
            {c.code: c for c in assess_piece(bracket_shelf(), wall(design_code=design_code)).checks}
            for design_code in ("american", "european")
        )
        self.assertIn("screw.withdrawal", american)
        self.assertNotIn("screw.withdrawal", european_)
        check = european_["screw.withdrawal_en"]
        steps = check.values
        self.assertAlmostEqual(steps["F_Rd"], steps["k_mod"] * steps["F_Rk"] / 1.3)
        self.assertAlmostEqual(check.demand.value, 1.5 * steps["T_1"])
        self.assertTrue(check.source.startswith("EN 1995"))

    def test_both_schools_are_of_one_mind_within_a_factor_of_three(self) -> None:
        """They differ in safety and in how duration counts, not in kind."""
        for key in data.screws():
            made = bracket_shelf(screw=key, screw_length_mm=101.6)
            ours, theirs = (
                {
                    c.code.removesuffix("_en"): c.utilisation
                    for c in assess_piece(made, wall(design_code=design_code)).checks
                }
                for design_code in ("american", "european")
            )
            for code in ("screw.withdrawal", "screw.shear"):
                if code in ours and code in theirs:
                    self.assertTrue(
                        1 / 3 < ours[code] / theirs[code] < 3, (key, code, ours[code], theirs[code])
                    )

    def test_pull_and_shear_together_add_as_squares(self) -> None:
        """(8.28) for screws: 0.6 and 0.8 of each use all of it, 0.3 and 0.4 half."""
        for pull, shear, used in ((60.0, 160.0, 1.0), (40.0, 60.0, 0.5)):
            together = european.TOGETHER(F_Ed=pull, F_Rd=100.0, V_Ed=shear, V_Rd=200.0)
            self.assertAlmostEqual(together, used)
