"""Parts that no shop has, made up of what shops have."""

from datetime import datetime

from django.test import SimpleTestCase
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import plan, wall
from trade import data, wording
from trade.choose.samples import sample
from trade.cutting.glue_up import made_up
from trade.cutting.parts import CutPart, parts_of
from trade.cutting.plan import CutPlan, cut_plan
from trade.cutting.shopping import shopping
from trade.cutting.stock import StockAllocation
from trade.job.days import schedule
from trade.mounts.work import GluedUp
from trade.plan.model import Plan, Shop

SOLD = StockAllocation(Shop(), "metric", 3.2, 10.0).sold
WOODS = sorted({source.board for source in SOLD if not source.round})


def glued(part: CutPart) -> GluedUp:
    [work] = [each for each in part.detail.works if isinstance(each, GluedUp)]
    return work


class AnyPart(SimpleTestCase):
    """Whatever is asked for."""

    @settings(max_examples=200, deadline=None)
    @given(
        st.sampled_from(WOODS),
        st.floats(200, 2500),
        st.floats(20, 700),
        st.floats(10, 200),
    )
    def test_it_comes_out_of_its_boards_and_they_out_of_a_shop(
        self, board: str, long: float, wide: float, thick: float
    ) -> None:
        found = made_up(CutPart("1a", "Beam", "board", board, long, wide, thick), SOLD)
        assume(found is not None)
        assert found is not None
        work, first = glued(found.part), found.strips[0]
        self.assertEqual(len({each.label for each in found.strips}), work.layers * work.across)
        self.assertEqual(work.labels, tuple(each.label for each in found.strips))
        self.assertLessEqual(len(found.strips), 12)
        stands = work.layers * first.thick_mm
        if data.boards()[board].sheet:
            self.assertLessEqual(abs(stands - thick), 1.5 + 1e-9)
        else:
            self.assertGreaterEqual(stands, thick - 1e-5)
            self.assertLessEqual(stands - thick, 6 * work.layers + 1e-5)
        lost = 3.0 * work.across if work.across > 1 else 0.0
        self.assertGreaterEqual(work.across * first.width_mm - lost, wide - 1e-5)
        self.assertTrue(all(each.length_mm >= long + 25 for each in found.strips))
        self.assertTrue(
            any(
                source.board == board
                and source.thickness_mm == first.thick_mm
                and source.width_mm >= first.width_mm - 1e-9
                and source.length_mm >= first.length_mm
                for source in SOLD
            )
        )


class ABeam(SimpleTestCase):
    """White oak, 1 500 x 190 x 140: boards of 18 mm are sold 200 wide."""

    def made(self) -> tuple[Plan, CutPlan]:
        on = replace(plan(sample("bracket_beam")), wall=wall())
        return on, cut_plan(on)

    def test_eight_boards_of_18_face_to_face(self) -> None:
        """8 x 18 = 144, 4 of it planed off; 190, an eighth of an inch for the wall, 3 to trim."""
        _, cut = self.made()
        [beam] = cut.made_up
        self.assertEqual((glued(beam).layers, glued(beam).across), (8, 1))
        self.assertEqual((beam.length_mm, beam.width_mm, beam.thick_mm), (1500.0, 190.0, 140.0))
        [job] = cut.boards
        self.assertEqual({part.cut_mm for part in job.parts}, {(1525.0, 196.175)})
        said = wording.phrase(glued(beam).phrase("metric"), "metric")
        self.assertIn("1a1, 1a2, 1a3, 1a4, 1a5, 1a6, 1a7, 1a8 face to face", said)
        self.assertIn("plane it to 140.0 mm and its edges straight", said)

    def test_it_is_one_part_that_is_bought_glued_and_left_to_set(self) -> None:
        on, cut = self.made()
        self.assertEqual([each.label for each in cut.parts], ["1a"])
        self.assertEqual(cut.no_stock, ())
        lines = {line.key: line for line in shopping(on, cut, "metric").lines}
        self.assertIn("glue", lines)
        self.assertEqual(sum(line.packs for line in lines.values() if line.aisle == "wood"), 8)
        days = schedule(on, cut, datetime(2026, 3, 2, 9))
        [task] = [task for task in days.steps if task.what == "glue"]
        self.assertEqual((task.minutes, task.waits_hours), (7 * 15.0, 12.0))
        order = [task.what for task in days.steps]
        self.assertLess(order.index("saw"), order.index("glue"))

    def test_no_part_is_lost_or_twice(self) -> None:
        for kind in ("bracket_beam", "dowel_shelf", "pin_shelf", "rod_shelf", "ledger_bench"):
            for units in ("metric", "imperial"):
                on = replace(plan(sample(kind)), wall=wall(), units=units)
                wanted = sorted(part.label for part in parts_of(on).cut)
                self.assertEqual(sorted(part.label for part in cut_plan(on).parts), wanted)


class WhatCannotBe(SimpleTestCase):
    """What is left for another size."""

    def test_longer_than_any_board_and_thicker_than_a_dozen(self) -> None:
        for long, wide, thick in ((6000.0, 100.0, 40.0), (800.0, 600.0, 400.0)):
            part = CutPart("1a", "Beam", "board", "oak_white", long, wide, thick)
            self.assertIsNone(made_up(part, SOLD))

    def test_a_dowel_is_no_board(self) -> None:
        part = CutPart("1a", "Rod", "rod", "oak_white", 300.0, 40.0, 40.0, round=True)
        self.assertIsNone(made_up(part, SOLD))
