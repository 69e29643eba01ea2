"""Hardware of one's own, by hand: by its bar, and by what its packet states."""

from math import hypot
from typing import Any

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, rod_shelf, wall
from tests.trade.rehearsal import Rehearsal
from tests.trade.test_every_kind import put_up
from trade import data, wording
from trade.assess import assess
from trade.check import Check
from trade.choose.cures import cures
from trade.cutting.parts import parts_of
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.errors import PlanError
from trade.job.steps import steps
from trade.load.demand import Demand
from trade.measure import LBF_N
from trade.mounts import cleat_cabinet, flush_cleat, mount_of
from trade.plan import plan_file
from trade.plan.hardware import OwnBracket, OwnCleat, OwnPlate, Stated
from trade.plan.model import AnyPiece, Cabinet, Thing

BAR: dict[str, Any] = {
    "name": "Smith's bracket",
    "arm_mm": 180.0,
    "leg_mm": 220.0,
    "width_mm": 40.0,
    "thick_mm": 6.0,
    "holes_mm": (25.0, 110.0, 190.0),
}
HEAVY = (Thing(name="Load", mass_kg=30.0),)


def check(piece: AnyPiece, code: str) -> Check:
    return next(each for each in assess(plan(piece)).pieces[0].checks if each.code == code)


class Bracket(SimpleTestCase):
    def test_a_bar_has_the_section_of_a_rectangle(self) -> None:
        row = OwnBracket(**BAR).row
        self.assertAlmostEqual(row.section_mm3, 40 * 6**2 / 6)
        self.assertAlmostEqual(row.inertia_mm4, 40 * 6**3 / 12)
        table = data.brackets()["bar"]  # the same bar, entered by hand, is judged alike
        own = replace(
            OwnBracket(**BAR),
            arm_mm=table.arm_mm,
            leg_mm=table.leg_mm,
            holes_mm=table.holes_mm,
        )
        ours = check(bracket_shelf(own=own), "bracket.bending")
        theirs = check(bracket_shelf(bracket="bar"), "bracket.bending")
        self.assertAlmostEqual(ours.utilisation, theirs.utilisation, places=2)

    def test_what_fails_at_a_load_may_carry_a_quarter_of_it_and_one_half_of_a_pair(self) -> None:
        """By hand: 400 lb at which a pair fails are 50 lb for one, half an arm out."""
        stated = Stated(load_n=400 * LBF_N, states="ultimate", per="pair", found="its packet")
        self.assertAlmostEqual(stated.each_n, 50 * LBF_N)
        own = OwnBracket(**BAR, stated=stated)
        found = check(bracket_shelf(own=own, things=HEAVY), "bracket.bending")
        self.assertAlmostEqual(found.capacity.value, 50 * LBF_N * 180 / 2)
        carries = replace(stated, states="allowable", per="each")
        stronger = check(
            bracket_shelf(own=OwnBracket(**BAR, stated=carries), things=HEAVY), "bracket.bending"
        )
        self.assertAlmostEqual(stronger.capacity.value, found.capacity.value * 8)

    def test_a_braced_one_is_as_stiff_as_its_rating_says(self) -> None:
        """W a^3 / 8 E I, a load spread over a cantilever, is a hundredth of the arm."""
        stated = Stated(load_n=2000.0, states="allowable", per="each", found="its packet")
        row = OwnBracket(**BAR, braced=True, stated=stated).row
        droop_mm = 2000 * 180**3 / (8 * row.e_mpa * row.inertia_mm4)
        self.assertAlmostEqual(droop_mm, 1.8)

    def test_it_is_kept_in_the_file_not_bought_and_changed_only_by_a_cure(self) -> None:
        own = OwnBracket(**BAR)
        now = plan(bracket_shelf(own=own, things=(Thing(name="Load", mass_kg=90.0),)))
        self.assertEqual(plan_file.load(plan_file.dump(now)), now)
        [line] = [
            line
            for line in shopping(now, cut_plan(now), "metric").lines
            if line.aisle == "hardware"
        ]
        self.assertEqual((line.what, line.cost, line.note), ("Smith's bracket", 0.0, "your own"))
        found = {cure.code: cure.piece for cure in cures(now, "shelf")}
        self.assertTrue(any("bracket" in code for code in found))
        for code, piece in found.items():
            kept = getattr(piece, "own", None) == own
            self.assertEqual(kept, "bracket" not in code and code != "otherwise", code)

    def test_what_is_none_is_refused(self) -> None:
        for changes, said in (
            ({"holes_mm": ()}, "Give its holes"),
            ({"holes_mm": (25.0, 400.0)}, "A hole of its leg"),
            ({"braced": True}, "what its packet states"),
            ({"thick_mm": 90.0}, "A bracket's thickness"),
        ):
            with self.subTest(said), self.assertRaisesMessage(PlanError, said):
                OwnBracket(**BAR | changes)


CARRIES = Stated(load_n=240.0, states="ultimate", per="pair", found="its packet")
CLEAT: dict[str, Any] = {
    "name": "Flush cleat",
    "width_mm": 100.0,
    "high_mm": 30.0,
    "thick_mm": 1.5,
    "off_mm": 6.0,
    "hook_mm": 8.0,
    "hole_mm": 10.0,
    "holes": 3,
    "stated": CARRIES,
}
STRONG = replace(CARRIES, load_n=4000.0, states="allowable", per="each")


def box(stated: Stated = STRONG, **changes: Any) -> Cabinet:
    things = (Thing(name="Load", mass_kg=8.0),)
    made = put_up("cleat_cabinet", wall(), own=OwnCleat(**CLEAT | {"stated": stated}))
    sizes: dict[str, Any] = {"height_mm": 600.0, "body_kg": 12.0, "use": "display", "locked": True}
    return replace(made, things=things, **(sizes | changes))  # type: ignore[no-any-return]


class Cleat(SimpleTestCase):
    def test_its_lips_carry_load_and_pull_and_nothing_climbs(self) -> None:
        """100 N, 125 out, hung 3 in front of the lips' middle; the bumper 550 below the lips.

        T = 100 · 128 / 550 = 23.3; √(100² + 23.3²) = 102.7, against 240 / 4 / 2 = 30.
        """
        piece = box(CARRIES)
        case = cleat_cabinet.bevel_of(piece).at_cleat(Demand("years", 0.9, 100.0, 12_500.0))
        lever = 600 - 40 - data.house("spacer_mm") / 2
        pull = 100 * 128 / lever
        self.assertAlmostEqual(case.pull_n, pull)
        self.assertAlmostEqual(case.moment_nmm, pull * 30 + 100 * 3)
        assert piece.own is not None
        rated, lock = flush_cleat.checks(piece, piece.own, {0: (case,)}, ())
        self.assertEqual((rated.code, lock.code), ("cleat.rated", "cleat.lock"))
        self.assertAlmostEqual(rated.demand.value, hypot(100, pull))
        self.assertAlmostEqual(rated.capacity.value, 240 / 4 / 2)

    def test_its_packet_decides_and_no_rule_of_wood_is_asked(self) -> None:
        found = assess(plan(box())).pieces[0]
        self.assertIn(found.outcome, ("holds", "holds_but", "close"))
        codes = {each.code for each in found.checks}
        self.assertFalse({"cleat.bending", "cleat.nib", "cleat.seating", "cleat.spacer"} & codes)
        self.assertLessEqual({"cleat.rated", "cleat.own_half", "cleat.lock", "screw.edge"}, codes)
        weak = assess(plan(box(CARRIES))).pieces[0]
        self.assertEqual((weak.outcome, weak.governing.code), ("wont_hold", "cleat.rated"))
        loose = check(box(locked=False, body_kg=3.0), "cleat.lift")
        self.assertGreater(loose.utilisation, 1)

    def test_its_own_half_needs_a_back_that_screws_hold_in(self) -> None:
        for back_mm in (4.0, 12.0):  # the shortest sold are 16 mm: they would come out inside
            thin = check(box(back_mm=back_mm), "cleat.own_half")
            self.assertIn("put a rail behind", wording.phrase(thin.sentence, "metric"))
            self.assertEqual(thin.outcome, "wont_hold")
        self.assertLessEqual(check(box(back_mm=18.0), "cleat.own_half").utilisation, 1)

    def test_it_is_hooked_by_steps_that_can_be_done_and_is_not_bought(self) -> None:
        now = plan(box())
        key = now.pieces[0].key
        found = steps(now, key, "metric")
        Rehearsal(now, key).run(found)
        said = " ".join(wording.phrase(each, "metric") for step in found for each in step.words)
        self.assertNotIn("bevel", said.lower())
        self.assertIn("every lip has caught", said)
        self.assertEqual(plan_file.load(plan_file.dump(now)), now)
        lines = shopping(now, cut_plan(now), "metric").lines
        [line] = [line for line in lines if line.what == "Flush cleat"]
        self.assertEqual((line.cost, line.note), (0.0, "your own"))
        self.assertEqual(parts_of(now).cut, ())

    def test_cures_leave_it_or_take_another_never_size_it(self) -> None:
        for cure in cures(plan(box(CARRIES)), box().key):
            kept = cure.piece.own if isinstance(cure.piece, Cabinet) else None
            self.assertTrue(kept is None or kept == box(CARRIES).own, cure.code)

    def test_what_is_no_cleat_is_refused(self) -> None:
        for changes, said in (
            ({"holes": 0}, "between 1 and 60 holes"),
            ({"hole_mm": 40.0}, "row of its holes"),
            ({"off_mm": 90.0}, "off the wall"),
        ):
            with self.subTest(said), self.assertRaisesMessage(PlanError, said):
                OwnCleat(**CLEAT | changes)


class Plate(SimpleTestCase):
    def test_a_rod_of_half_an_inch_on_a_plate_is_judged_as_a_row_of_its_sizes(self) -> None:
        table = data.plates()["small"]
        own = OwnPlate(
            name="Rod and plate",
            rod_mm=table.rod_mm,
            rod_length_mm=table.rod_length_mm,
            width_mm=table.width_mm,
            height_mm=table.height_mm,
            thick_mm=table.side_mm,
            rows_mm=tuple(sorted(table.rows_mm)),
        )
        for code in ("rod.bending", "rod.hole", "screw.combined", "shelf.droop"):
            with self.subTest(code):
                ours = check(rod_shelf(own=own), code)
                theirs = check(rod_shelf(plate="small"), code)
                self.assertAlmostEqual(ours.utilisation, theirs.utilisation, places=2)
        longer = replace(own, rod_length_mm=300.0)
        self.assertEqual(check(rod_shelf(own=longer), "rod.hole").outcome, "doesnt_fit")

    def test_rods_that_shift_are_set_parallel_and_set_screws_keep_the_shelf(self) -> None:
        """Three fixed rods are never quite parallel: their holes have play."""
        table = data.plates()["small"]
        fixed = OwnPlate(
            name="Rod and plate",
            rod_mm=table.rod_mm,
            rod_length_mm=table.rod_length_mm,
            width_mm=table.width_mm,
            height_mm=table.height_mm,
            thick_mm=table.side_mm,
            rows_mm=tuple(sorted(table.rows_mm)),
        )
        shifts = replace(fixed, adjusts_mm=4.0, set_screw=True)
        for own, play, said in (
            (fixed, data.house("bore_spare_mm"), "Lock it"),
            (shifts, 0.0, "Tighten the set screws"),
        ):
            piece = rod_shelf(own=own, supports_mm=(100.0, 500.0, 900.0))
            now = plan(piece)
            loose = {each.loose_mm for each in mount_of(piece).bores(piece, now.wall)}
            self.assertEqual(loose, {play})
            titles = [each.title for each in steps(now, piece.key, "metric")]
            self.assertIn(said, titles)
            self.assertEqual(plan_file.load(plan_file.dump(now)), now)

    def test_one_row_of_screws_is_refused(self) -> None:
        with self.assertRaisesMessage(PlanError, "two rows"):
            OwnPlate(
                name="Rod",
                rod_mm=12.0,
                rod_length_mm=150.0,
                width_mm=38.0,
                height_mm=60.0,
                thick_mm=4.0,
                rows_mm=(0.0,),
            )
