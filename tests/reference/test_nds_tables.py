"""Printed design values of the NDS, reproduced.

ANSI/AWC National Design Specification for Wood Construction, 2018 edition. Printed values are rounded to a pound (lags
and lateral values too), so agreement is within half a unit of the last printed digit, and 1 % where F_e is itself rounded.
Values marked M are quoted from memory.
"""

from django.test import SimpleTestCase

from trade import data
from trade.fixings import wood
from trade.measure import LB_PER_IN_N_PER_MM, LBF_N, PSI_MPA

# (screw, G, lb per inch of thread): Table 12.2B
WOOD_SCREWS = [
    ("wood_8", 0.50, 117), ("wood_10", 0.50, 135), ("wood_12", 0.50, 154), ("wood_14", 0.50, 172),  # 8, 10, 12 given; 14 M
    ("wood_8", 0.42, 82), ("wood_10", 0.42, 96), ("wood_12", 0.42, 109), ("wood_10", 0.55, 164),  # M
]  # fmt: skip
# (screw, G, lb per inch of thread): Table 12.2A
LAGS = [
    ("lag_1_4", 0.50, 225), ("lag_3_8", 0.50, 305), ("lag_5_16", 0.50, 266),  # 1/4 and 3/8 given; 5/16 M
    ("lag_1_4", 0.42, 173), ("lag_5_16", 0.42, 205), ("lag_3_8", 0.42, 235), ("lag_1_4", 0.55, 260), ("lag_3_8", 0.55, 352),  # M
]  # fmt: skip
# (diameter in, G, lb per inch): Table 12.2C, common nails 8d and 16d, M
NAILS = [(0.131, 0.50, 32), (0.162, 0.50, 40), (0.131, 0.42, 21), (0.162, 0.42, 26)]
# (diameter in, G, psi, across the grain): Table 12.3.3, printed to 50 psi, M
BEARING = [
    (0.190, 0.50, 4650, False), (0.190, 0.42, 3350, False), (0.190, 0.55, 5550, False), (0.190, 0.43, 3500, False),
    (0.250, 0.50, 5600, False), (0.375, 0.42, 4700, False), (0.250, 0.50, 4450, True), (0.375, 0.50, 3650, True),
]  # fmt: skip
# (diameter in, F_yb psi, side member in, lb): Table 12N, G = 0.50, ten diameters deep; 8d and 16d in 1 1/2 in given, others M
COMMON_NAILS_LATERAL = [
    (0.131, 100_000, 1.5, 97), (0.148, 90_000, 1.5, 118), (0.162, 90_000, 1.5, 141),
    (0.131, 100_000, 0.75, 90), (0.148, 90_000, 0.75, 105), (0.162, 90_000, 0.75, 121),
]  # fmt: skip
# (number, diameter in, root in, F_yb psi, lb): Table 12L, 1/2 in side member, G = 0.50, ten diameters deep, M
WOOD_SCREWS_LATERAL = [
    (6, 0.138, 0.113, 100_000, 59), (7, 0.151, 0.122, 90_000, 65), (8, 0.164, 0.131, 90_000, 73), (9, 0.177, 0.142, 90_000, 83),
    (10, 0.190, 0.152, 80_000, 90), (12, 0.216, 0.171, 80_000, 110), (14, 0.242, 0.196, 70_000, 120),
]  # fmt: skip
# (diameter in, lb along the grain of both, lb across the grain of the side): Table 12A, 1 1/2 in in 1 1/2 in, G = 0.50, M.
# Printed to 10 lb, from an F_e printed to 50 psi.
BOLTS = [(0.5, 480, 300), (0.625, 600, 360), (0.75, 720, 420), (0.875, 850, 470), (1.0, 970, 530)]


class WithdrawalTables(SimpleTestCase):
    def test_wood_screws(self) -> None:
        for key, g, printed in WOOD_SCREWS:
            with self.subTest(screw=key, g=g):
                ours = wood.withdrawal_n_per_mm(data.screws()[key], g) / LB_PER_IN_N_PER_MM
                self.assertAlmostEqual(ours, printed, delta=0.6)

    def test_lag_screws(self) -> None:
        for key, g, printed in LAGS:
            with self.subTest(screw=key, g=g):
                ours = wood.withdrawal_n_per_mm(data.screws()[key], g) / LB_PER_IN_N_PER_MM
                self.assertAlmostEqual(ours, printed, delta=0.6)

    def test_nails(self) -> None:
        for inches, g, printed in NAILS:
            with self.subTest(diameter=inches, g=g):
                self.assertAlmostEqual(wood.nail_withdrawal_n_per_mm(inches * 25.4, g) / LB_PER_IN_N_PER_MM, printed, delta=0.6)


class LateralTables(SimpleTestCase):
    def test_dowel_bearing_strength(self) -> None:
        for inches, g, printed, across in BEARING:
            with self.subTest(diameter=inches, g=g, across=across):
                self.assertAlmostEqual(wood.bearing_strength_mpa(g, inches * 25.4, across) / PSI_MPA, printed, delta=26)

    def test_common_nails(self) -> None:
        for inches, fyb, side, printed in COMMON_NAILS_LATERAL:
            with self.subTest(diameter=inches, side=side):
                self.assertAlmostEqual(_lateral_lb(inches, inches, fyb, side, 10 * inches), printed, delta=0.006 * printed)

    def test_wood_screws_bend_and_bear_at_their_root(self) -> None:
        for number, inches, root, fyb, printed in WOOD_SCREWS_LATERAL:
            with self.subTest(number=number):
                self.assertAlmostEqual(_lateral_lb(inches, root, fyb, 0.5, 10 * inches), printed, delta=0.7)

    def test_bolts_along_and_across_the_grain_of_the_side_member(self) -> None:
        for inches, along, across in BOLTS:
            with self.subTest(diameter=inches):
                self.assertAlmostEqual(_lateral_lb(inches, inches, 45_000, 1.5, 1.5), along, delta=5.5)
                self.assertAlmostEqual(_lateral_lb(inches, inches, 45_000, 1.5, 1.5, across=True), across, delta=6.5)

    def test_half_an_inch_of_soft_lining_costs_a_number_ten_about_forty_per_cent(self) -> None:
        """TR12 with a gap; common figure of the trade, no source."""
        screw = data.screws()["wood_10"]
        fe = wood.bearing_strength_mpa(0.42, screw.diameter_mm)
        side = wood.wood_side(19.05, 0.42, screw.diameter_mm)
        tight, gapped = (wood.lateral(wood.dowel(screw), side, gap, fe, 48.0).value_n for gap in (0.0, 12.7))
        self.assertAlmostEqual(1 - gapped / tight, 0.40, delta=0.03)

    def test_reduction_terms(self) -> None:
        """Table 12.3.1B: 2.2 up to 0.17 in, 10 D + 0.5 up to 1/4 in, then 4, 3.6, 3.2 times 1 + 0.25 (angle / 90)."""
        self.assertEqual(wood.reduction_terms(0.15 * 25.4, 0.19 * 25.4)["IV"], 2.2)
        self.assertAlmostEqual(wood.reduction_terms(0.20 * 25.4, 0.20 * 25.4)["II"], 2.5)
        thick = wood.reduction_terms(0.375 * 25.4, 0.375 * 25.4, angle_deg=90)
        self.assertEqual((thick["I_m"], thick["II"], thick["III_s"]), (5.0, 4.5, 4.0))

    def test_pull_through_changes_rule_at_two_and_a_half_heads(self) -> None:
        """12.2.5: linear in the thickness up to 2.5 D_H, constant beyond; both sides meet there."""
        head, g = 10.0, 0.5
        self.assertAlmostEqual(wood.pull_through_n(head, 25.0, g), wood.pull_through_n(head, 60.0, g))
        self.assertAlmostEqual(wood.pull_through_n(head, 12.5, g) * 2, wood.pull_through_n(head, 25.0, g))

    def test_combined_is_each_alone_at_the_ends(self) -> None:
        """12.4.1: pure pull gives T/W', pure shear V/Z'; at 45 degrees with W' = Z' it is R/Z'."""
        self.assertAlmostEqual(wood.combined_use(100, 0, 400, 300), 100 / 400)
        self.assertAlmostEqual(wood.combined_use(0, 100, 400, 300), 100 / 300)
        self.assertAlmostEqual(wood.combined_use(100, 100, 300, 300), 2**0.5 * 100 / 300)


def _lateral_lb(nominal_in: float, root_in: float, fyb_psi: float, side_in: float, deep_in: float, across: bool = False) -> float:
    """Our single-shear design value with no gap, both members of G = 0.50, lb."""
    fastener = wood.Dowel(root_in * 25.4, nominal_in * 25.4, fyb_psi * PSI_MPA)
    side = wood.wood_side(side_in * 25.4, 0.50, nominal_in * 25.4, across)
    return wood.lateral(fastener, side, 0.0, wood.bearing_strength_mpa(0.50, nominal_in * 25.4), deep_in * 25.4).value_n / LBF_N
