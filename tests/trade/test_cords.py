"""Openings for cords: sized by the plug, away from edges, and what is left of the board."""

from typing import Any

from django.test import SimpleTestCase

from tests.plans import bracket_shelf, plan
from tests.trade.kind_case import Case
from tests.trade.test_every_kind import put_up
from trade import data
from trade.cutting.parts import parts_of
from trade.job.minding import what_to_mind
from trade.mounts.work import Bored


class Cords(Case):
    def bored(self, *pieces: Any) -> list[Bored]:
        return [
            work
            for part in parts_of(plan(*pieces)).cut
            for work in part.detail.works
            if isinstance(work, Bored) and "cord" in work.why
        ]

    def test_it_is_as_wide_as_what_passes_and_off_the_back_edge(self) -> None:
        for key, wide in (("bare", 12.0), ("flat_plug", 44.0), ("plug", 60.0), ("adapter", 80.0)):
            [work] = self.bored(bracket_shelf(cord=key, cord_at_mm=500.0))
            self.assertEqual((work.wide_mm, work.deep_mm), (wide, None))
            self.assertEqual(work.places, ((500.0, wide / 2 + 25.0),))
        [work] = self.bored(bracket_shelf(cord="plug"))
        self.assertEqual(work.places[0][0], 1000.0 - 30.0 - 50.0)
        self.assertEqual(self.bored(bracket_shelf()), [])

    def test_a_box_has_it_in_both_faces(self) -> None:
        box = put_up("box_shelf", plan().wall, key="box", cord="plug", cord_at_mm=300.0)
        self.assertEqual(len(self.bored(box)), 2)

    def test_wood_stays_all_round_it(self) -> None:
        """Supports at 100 and 900, an opening of 60: 55 mm from a support's line is the least."""
        for at, fits in ((155.0, True), (154.0, False), (500.0, True), (30.0, False)):
            found = self.check("board.cord", bracket_shelf(cord="plug", cord_at_mm=at))
            self.assertEqual(found.utilisation <= 1, fits, at)
        narrow = bracket_shelf(cord="adapter", cord_at_mm=500.0, depth_mm=125.0)
        self.fails("board.cord", narrow)

    def test_what_is_left_beside_it_is_bent(self) -> None:
        """250 deep less 80: 250/170 of what it uses whole."""
        whole = self.check("board.bending", bracket_shelf())
        beside = self.check("board.cord_bending", bracket_shelf(cord="adapter", cord_at_mm=500.0))
        self.assertAlmostEqual(beside.demand.value, whole.utilisation * 250 / 170, places=9)

    def test_power_is_never_wired(self) -> None:
        now = plan(bracket_shelf(cord="plug"))
        said = [each.template for each in what_to_mind(now.pieces[0], now)]
        self.assertTrue(any("licensed work" in each for each in said))


class Rows(SimpleTestCase):
    def test_a_larger_thing_has_a_larger_hole(self) -> None:
        holes = [row.hole_mm for row in data.cords().values()]
        self.assertEqual(holes, sorted(holes))
