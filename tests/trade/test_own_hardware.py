"""Hardware of one's own, by hand: by its bar, and by what its packet states."""

from typing import Any

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, rod_shelf
from trade import data
from trade.assess import assess
from trade.check import Check
from trade.choose.cures import cures
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.errors import PlanError
from trade.measure import LBF_N
from trade.plan import plan_file
from trade.plan.hardware import OwnBracket, OwnPlate, Stated
from trade.plan.model import AnyPiece, Thing

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
