"""A wood that nobody knows: what its weight says of it."""

from itertools import pairwise

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import bracket_shelf, wall
from trade import data
from trade.assess import assess_piece
from trade.errors import PlanError
from trade.workshop.unknown_wood import weighed

UNKNOWN = {key: row for key, row in data.boards().items() if row.from_kg_m3 is not None}
KNOWN = {
    key: row
    for key, row in data.boards().items()
    if row.from_kg_m3 is None and row.across is not None
}


class ByWeight(SimpleTestCase):
    def test_a_beam_by_hand(self) -> None:
        """2 400 × 140 × 90 mm is 0.03024 m³; 15 kg are 496 kg/m³, 16 kg are 529."""
        self.assertEqual(weighed(2400, 140, 90, 15.0), "unknown_400")
        self.assertEqual(weighed(2400, 140, 90, 16.0), "unknown_500")

    def test_what_no_dry_wood_weighs_is_asked_again(self) -> None:
        for kg in (3.0, 30.0):
            with self.subTest(kg=kg), self.assertRaisesRegex(PlanError, "weigh it again"):
                weighed(2400, 140, 90, kg)

    @given(st.floats(300, 899))
    def test_it_weighs_no_less_than_was_found(self, density: float) -> None:
        row = UNKNOWN[weighed(1000, 1000, 1000, density)]
        assert row.from_kg_m3 is not None
        self.assertTrue(row.from_kg_m3 <= density * 1.000001)
        self.assertGreater(row.density_kg_m3, density)


class Bounds(SimpleTestCase):
    def test_by_the_handbooks_relations(self) -> None:
        """Wood Handbook FPL-GTR-282, Table 5-11a, from memory, as in the reference tests.

        The less of softwoods' and hardwoods', times 0.75; across the grain a third of that.
        """
        for key, row in UNKNOWN.items():
            g = (row.from_kg_m3 or 0.0) / 1120
            for ours, theirs in (
                (row.mor_mpa, min(170.7 * g**1.01, 171.3 * g**1.13)),
                (row.e_mpa, min(20_500 * g**0.84, 16_500 * g**0.70)),
                (row.shear_mpa, min(16.6 * g**0.85, 21.9 * g**1.13)),
                (row.bearing_mpa, min(16.5 * g**1.57, 21.6 * g**2.09) / 3),
            ):
                with self.subTest(wood=key, theirs=theirs):
                    self.assertLessEqual(ours, 0.75 * theirs)
                    self.assertGreater(ours, 0.69 * theirs)
            self.assertLessEqual(row.g, g)

    def test_no_known_wood_is_weaker_than_what_it_would_be_told_as(self) -> None:
        for key, row in KNOWN.items():
            told = data.boards()[weighed(1000, 1000, 1000, row.density_kg_m3)]
            with self.subTest(wood=key):
                for of in ("mor_mpa", "e_mpa", "shear_mpa", "bearing_mpa", "g"):
                    self.assertGreaterEqual(getattr(row, of), getattr(told, of), of)
                self.assertGreater(told.density_kg_m3, row.density_kg_m3)
                self.assertGreaterEqual(told.across or 0.0, row.across or 0.0)

    def test_heavier_is_stronger(self) -> None:
        for lighter, heavier in pairwise(UNKNOWN.values()):
            self.assertLess(lighter.mor_mpa, heavier.mor_mpa)
            self.assertEqual(lighter.density_kg_m3, heavier.from_kg_m3)

    def test_the_verdict_says_that_it_takes_it_as_sound(self) -> None:
        old = replace(bracket_shelf(), board="unknown_400")
        said = [str(each.text) for each in assess_piece(old, wall()).assumptions]
        self.assertTrue(any("rot" in each for each in said))
        said = [str(each.text) for each in assess_piece(bracket_shelf(), wall()).assumptions]
        self.assertFalse(any("rot" in each for each in said))
