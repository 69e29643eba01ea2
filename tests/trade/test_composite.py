"""Parts that bend side by side, by hand."""

from django.test import SimpleTestCase

from trade.mechanics.composite import Component, ei_nmm2, stress_mpa

BOARD = Component(10_000.0, 250.0, 20.0, k_def=0.6)  # I = 250 · 20³ / 12 = 166 667
STEEL = Component(200_000.0, 5.0, 40.0)  # I = 26 667


class ByHand(SimpleTestCase):
    def test_a_tube_is_what_it_is_less_its_hollow(self) -> None:
        """40 wide, 20 high, 2 thick: (40 · 20³ − 36 · 16³) / 12; 800 − 576 of section."""
        tube = Component(200_000.0, 40.0, 20.0, wall_mm=2.0)
        self.assertAlmostEqual(tube.inertia_mm4, 14_378.7, delta=0.1)
        self.assertAlmostEqual(tube.area_mm2, 224.0)
        self.assertAlmostEqual(Component(1.0, 40.0, 3.0, wall_mm=2.0).area_mm2, 120.0)  # no hollow

    def test_they_share_a_moment_as_their_stiffnesses_and_wood_gives_way_to_steel(self) -> None:
        """1.667 and 5.333 kN m²; of 100 000 the steel takes 76 190, over 5 · 40² / 6."""
        parts = (BOARD, STEEL)
        self.assertAlmostEqual(ei_nmm2(parts), 7.0e9, delta=1e6)
        self.assertAlmostEqual(ei_nmm2(parts, 1.0), 1.6667e9 / 1.6 + 5.3333e9, delta=1e6)
        self.assertAlmostEqual(stress_mpa(100_000, STEEL, parts), 57.14, delta=0.01)
        self.assertAlmostEqual(stress_mpa(100_000, BOARD, parts), 1.429, delta=0.001)
