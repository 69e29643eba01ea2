"""Rules of the NDS that no table prints: where they change, and what they come to at their ends.

Printed values: `tables`.

ANSI/AWC National Design Specification for Wood Construction, 2018 edition.
"""

from django.test import SimpleTestCase

from tests.plans import bracket_shelf, wall
from trade import data
from trade.assess import assess_piece
from trade.fixings import driving, wood
from trade.plan.model import Thing


class Rules(SimpleTestCase):
    def test_half_an_inch_of_soft_lining_costs_a_number_ten_about_forty_per_cent(self) -> None:
        """TR12 with a gap; common figure of the trade, no source."""
        screw = data.screws()["wood_10"]
        fe = wood.bearing_strength_mpa(0.42, screw.diameter_mm)
        side = wood.wood_side(19.05, 0.42, screw.diameter_mm)
        tight, gapped = (
            wood.lateral(wood.dowel(screw), side, gap, fe, 48.0).value_n for gap in (0.0, 12.7)
        )
        self.assertAlmostEqual(1 - gapped / tight, 0.40, delta=0.03)

    def test_reduction_terms(self) -> None:
        """Table 12.3.1B.

        2.2 up to 0.17 in, 10 D + 0.5 up to 1/4 in, then 4, 3.6, 3.2 times 1 + 0.25 (angle / 90).
        """
        self.assertEqual(wood.reduction_terms(0.15 * 25.4, 0.19 * 25.4)["IV"], 2.2)
        self.assertAlmostEqual(wood.reduction_terms(0.20 * 25.4, 0.20 * 25.4)["II"], 2.5)
        # 1/4 in nominal, 0.173 in at its root: K_D = 10 D + 0.5 times K_theta (footnote 1); by hand
        # 2.23, 2.51, 2.79
        for angle, term in ((0, 2.23), (45, 2.23 * 1.125), (90, 2.23 * 1.25)):
            self.assertAlmostEqual(
                wood.reduction_terms(0.173 * 25.4, 0.25 * 25.4, angle_deg=angle)["IV"], term
            )
        thick = wood.reduction_terms(0.375 * 25.4, 0.375 * 25.4, angle_deg=90)
        self.assertEqual((thick["I_m"], thick["II"], thick["III_s"]), (5.0, 4.5, 4.0))

    def test_thread_lengths(self) -> None:
        """Tables L2 and L3.

        3 in of lag has 2 in of thread, 1 in is threaded all along; two thirds of a wood screw; all
        of a rod.
        """
        rows = {row.kind: row for row in data.screws().values()}
        for kind, length, thread in (
            ("lag", 3.0, 2.0),
            ("lag", 6.0, 3.5),
            ("lag", 1.0, 1.0),
            ("wood", 3.0, 2.0),
        ):
            self.assertAlmostEqual(
                driving.thread_length_mm(rows[kind], length * 25.4), thread * 25.4
            )

    def test_pull_and_shear_together_are_told_as_their_resultant(self) -> None:
        """Demand √(T² + V²) of the printed T and V.

        Capacity the same over the interaction of 12.4.1.
        """
        heavy = bracket_shelf(things=(Thing(name="Books", mass_kg=45.0),))
        [check] = [
            check for check in assess_piece(heavy, wall()).checks if check.code == "screw.combined"
        ]
        steps = check.values
        self.assertAlmostEqual(check.demand.value, (steps["T_1"] ** 2 + steps["V"] ** 2) ** 0.5)

    def test_pull_through_changes_rule_at_two_and_a_half_heads(self) -> None:
        """12.2.5: linear in the thickness up to 2.5 D_H, constant beyond; both sides meet there."""
        head, g = 10.0, 0.5
        self.assertAlmostEqual(
            wood.pull_through_n(head, 25.0, g), wood.pull_through_n(head, 60.0, g)
        )
        self.assertAlmostEqual(
            wood.pull_through_n(head, 12.5, g) * 2, wood.pull_through_n(head, 25.0, g)
        )

    def test_combined_is_each_alone_at_the_ends(self) -> None:
        """12.4.1: pure pull gives T/W', pure shear V/Z'; at 45 degrees with W' = Z' it is R/Z'."""
        self.assertAlmostEqual(wood.combined_use(100, 0, 400, 300), 100 / 400)
        self.assertAlmostEqual(wood.combined_use(0, 100, 400, 300), 100 / 300)
        self.assertAlmostEqual(wood.combined_use(100, 100, 300, 300), 2**0.5 * 100 / 300)
