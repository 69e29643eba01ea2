"""Shelves on slotted uprights, by hand: 1 000 mm long uprights, holes every 300 mm."""

from typing import Any

from msgspec.structs import replace

from tests.plans import plan, wall
from tests.trade.kind_case import KG, Case, load, piece
from tests.trade.rehearsal import Rehearsal
from trade import data
from trade.assess import assess_piece
from trade.choose.cures import cures
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.job.steps import steps
from trade.mechanics.channel import weakest_section_mm3
from trade.plan.hardware import OwnTrack, Stated
from trade.plan.model import TrackShelf

HOOK, LEVER = 65.0, 1530.0 - 1415.0  # the arm under 1 480 hooks in at 1 415, the screw is at 1 530


def shelves(**changes: Any) -> TrackShelf:
    """One shelf, its uprights from 560 to 1 560 mm, screws at 630, 930, 1 230 and 1 530."""
    sizes = {"thickness_mm": 20.0, "board": "oak_red", "track": "medium_250"}
    made = piece(TrackShelf, **(sizes | changes))
    assert isinstance(made, TrackShelf)
    return made


class Held(Case):
    def value(self, code: str, what: TrackShelf, symbol: str) -> float:
        equations = self.check(code, what).equations
        return next(each.value for each in equations if each.symbol == symbol)

    def test_an_arm_turns_about_its_lower_hook_and_the_screw_above_it_holds_it(self) -> None:
        """Its pull is M / (d − a / 2), a what is pressed; lifted it comes out and pulls at none."""
        self.assertEqual(self.outcome(shelves()), "holds")
        code = "screw.withdrawal"
        moment, pull, deep = (self.value(code, shelves(), each) for each in ("M", "T_1", "a"))
        self.assertAlmostEqual(pull, moment / (LEVER - deep / 2), places=3)
        self.assertNotIn("lifted", self.check(code, shelves(use="sitting")).case)

    def test_of_several_shelves_one_carries_half_more_and_every_screw_bears_them_all(self) -> None:
        """30 kg on three: 15 on one, and the uprights of three of those less a third."""
        one, three = shelves(things=load(15.0)), shelves(things=load(30.0), shelves=3)
        for code in ("board.bending", "sag.long_term", "track.arm"):
            self.assertAlmostEqual(
                self.check(code, three).demand.value, self.check(code, one).demand.value
            )
        lasting = [
            next(
                each.value
                for each in self.check("screw.shear", what).equations
                if each.symbol == "F"
            )
            for what in (one, three)
        ]
        self.assertAlmostEqual(lasting[1], lasting[0] * (1 + 2 / 1.5), places=6)

    def test_arms_below_one_screw_pull_at_it_together(self) -> None:
        """A second one 100 mm below has 215 mm to the same screw."""
        code, heavy = "screw.withdrawal", {"things": load(40.0), "shelves": 2}
        apart, near = (
            self.value(code, shelves(gap_mm=gap, **heavy), "M") for gap in (300.0, 100.0)
        )
        self.assertAlmostEqual(near / apart, 1 + LEVER / (LEVER + 100.0) / 1.5)
        self.assertEqual(self.value("track.bending", shelves(gap_mm=300.0, **heavy), "M_2"), 0.0)
        self.assertGreater(self.value("track.bending", shelves(gap_mm=100.0, **heavy), "M_2"), 0.0)

    def test_an_upright_is_bent_above_an_arm_up_to_the_screw(self) -> None:
        """100 mm lower the hook is 150 mm below the screw."""
        low = shelves(above_mm=160.0)
        moment = self.value("track.bending", low, "M")
        self.assertAlmostEqual(
            self.value("track.bending", low, "M_b"), moment * (1 - HOOK / (LEVER + 100.0))
        )
        self.assertGreater(
            self.value("track.bending", low, "M_b"), self.value("track.bending", shelves(), "M_b")
        )

    def test_two_arms_below_one_screw_may_bend_it_more_than_one_that_is_further_off(self) -> None:
        """The uppermost is 240 mm below its screw, the next two 40 and 140 below theirs."""
        three = shelves(shelves=3, gap_mm=100.0, above_mm=250.0, things=load(40.0))
        self.assertGreater(self.value("track.bending", three, "M_2"), 0.0)
        self.assertEqual(self.value("track.bending", three, "d"), 140.0 + HOOK)

    def test_a_channel_is_a_block_less_what_is_hollow(self) -> None:
        """25 by 14 by 1.5 mm without slots: 25 × 14 less 22 × 12.5, about its centroid."""
        area = 25 * 14 - 22 * 12.5
        centre = (25 * 14 * 7 - 22 * 12.5 * (1.5 + 6.25)) / area
        inertia = 25 * 14**3 / 12 + 25 * 14 * (centre - 7) ** 2
        inertia -= 22 * 12.5**3 / 12 + 22 * 12.5 * (centre - 7.75) ** 2
        ours = weakest_section_mm3(25, 14, 1.5, 1.0)
        self.assertAlmostEqual(ours, inertia / (14 - centre), places=9)
        self.assertLess(weakest_section_mm3(25, 14, 1.5, 0.6), ours)

    def test_a_screw_is_above_the_top_arm_and_the_arms_are_on_the_uprights(self) -> None:
        none_above = shelves(above_mm=0.0)
        self.fails("track.screw", none_above)
        found = {each.code: each for each in cures(plan(none_above), none_above.key)}
        self.assertEqual(found["higher"].piece, shelves(above_mm=10.0))
        self.fails("track.room", shelves(shelves=5, gap_mm=250.0))
        self.fails("track.floor", shelves(top_mm=700.0))
        tall = shelves(shelves=2, gap_mm=200.0, things=load(5.0, high_mm=190.0), length_mm=1000.0)
        self.fails("fit.items", tall)

    def test_what_its_packet_states_decides_and_what_fails_at_a_load_may_carry_a_quarter(
        self,
    ) -> None:
        row = data.tracks()["medium_250"]
        sizes = ("width_mm", "deep_mm", "thick_mm", "first_mm", "every_mm", "hook_mm", "arm_mm")
        stated = Stated(load_n=240 * KG, states="ultimate", per="pair", found="its packet")
        own = OwnTrack(name="Mine", stated=stated, **{each: getattr(row, each) for each in sizes})
        for what in ("track.arm", "track.bending"):
            mine = self.check(what, shelves(own=own))
            self.assertAlmostEqual(mine.capacity.value, self.check(what, shelves()).capacity.value)
        heavy = shelves(own=own, things=load(110.0))
        self.fails("track.arm", heavy)
        self.cannot_tell("where the studs are", shelves(), wall(studs=()))

    def test_it_can_be_bought_and_put_up_in_order(self) -> None:
        now = plan(replace(shelves(shelves=3), depth_mm=235.0))
        listed = {line.what: line for line in shopping(now, cut_plan(now), "metric").lines}
        [upright] = [line for said, line in listed.items() if "upright, 1000 mm" in said]
        [arm] = [line for said, line in listed.items() if said.startswith("arm of 250 mm")]
        self.assertEqual((upright.needed, arm.needed), (2, 6))
        self.assertAlmostEqual(upright.each, data.tracks()["medium_250"].price)
        Rehearsal(now, now.pieces[0].key).run(steps(now, now.pieces[0].key, "metric"))
        self.assertIn(
            "uneven_shelves",
            {each.code for each in assess_piece(now.pieces[0], now.wall).assumptions},
        )
