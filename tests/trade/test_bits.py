"""One hole, one bit.

A real drill of the person's series, the same in marks, cut list, template and steps.
"""

from itertools import product
from typing import Any, get_args

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import bracket_shelf, rod_shelf, wall
from tests.trade.test_every_kind import put_up
from trade import data
from trade.cutting.parts import parts_of
from trade.errors import NoSizeError
from trade.fixings import driving
from trade.marking.marks import piece_marks
from trade.marking.template import edge
from trade.measure import INCH_64TH_MM, Units
from trade.mounts import KINDS
from trade.mounts.work import Bored, Row
from trade.plan.model import AnyPiece, Plan, Wall

UNITS: tuple[Units, ...] = get_args(Units)
BASES: dict[str, dict[str, Any]] = {
    "timber": {},
    "steel": {"structure": "steel_20"},
    "brick": {"structure": "brick_solid", "layers": ()},
}


def bored(piece: AnyPiece, on: Wall, units: Units, part: str) -> list[tuple[float, int]]:
    """Each kind of hole in a part: its bit, and how many."""
    made = parts_of(Plan(name="Wall", units=units, wall=on, pieces=(piece,)))
    works = next(each for each in made.cut if each.name == part).detail.works
    return [(work.wide_mm, work.holes) for work in works if isinstance(work, Bored)]


class Drills(SimpleTestCase):
    def test_a_size_that_the_table_lacks_is_an_error_not_the_last_row(self) -> None:
        for units in UNITS:
            self.assertRaises(NoSizeError, driving.drill_at_least_mm, 80.0, units)
            self.assertRaises(
                NoSizeError, driving.drill_at_least_mm, driving.drills_mm(units)[-1] + 0.1, units
            )
            thin = replace(data.screws()["wood_8"], root_mm=1.0)
            self.assertRaises(NoSizeError, driving.pilot_mm, thin, 0.4, units)

    def test_a_drill_of_the_very_size_is_taken_however_the_product_is_rounded(self) -> None:
        for units in UNITS:
            for size in driving.drills_mm(units):
                screw = replace(data.screws()["wood_8"], root_mm=size * (1 - 1e-6) / 0.7)
                self.assertEqual(driving.pilot_mm(screw, 0.4, units), size)

    def test_every_pin_and_dowel_that_a_plan_may_have_finds_a_bit_that_is_hardly_wider(
        self,
    ) -> None:
        for units in UNITS:
            for tenth in range(40, 601, 5):
                wide = tenth / 10
                self.assertTrue(
                    -0.05 <= driving.drill_at_least_mm(wide, units) - wide <= max(0.13 * wide, 0.6),
                    (units, wide),
                )

    def test_half_five_eighths_and_three_quarter_inch_pins(self) -> None:
        for sixteenths in (6, 8, 10, 12):
            pins = put_up(
                "pin_shelf", wall(), pin_mm=25.4 * sixteenths / 16, supports_mm=(100.0, 700.0)
            )
            made = piece_marks(pins, wall(), "imperial")
            self.assertEqual({mark.bit_mm for mark in made}, {4 * sixteenths * INCH_64TH_MM})

    def test_every_anchor_names_a_drill_of_both_series(self) -> None:
        for key, anchor in data.anchors().items():
            if anchor.hole_mm:
                self.assertIn(anchor.hole_mm, driving.drills_mm("metric"), key)
                self.assertIn(anchor.hole_64ths * INCH_64TH_MM, driving.drills_mm("imperial"), key)
                self.assertLessEqual(
                    abs(anchor.hole_64ths * INCH_64TH_MM - anchor.hole_mm), 0.55, key
                )

    def test_every_hole_of_every_kind_is_a_real_drill(self) -> None:
        for kind, base, units in product(KINDS, BASES, UNITS):
            on = wall(**BASES[base])
            extra = {"loose_shelves": 2} if kind in ("bookcase", "cleat_cabinet") else {}
            piece = put_up(kind, on, **extra)
            works = [
                w
                for part in parts_of(Plan(name="W", units=units, wall=on, pieces=(piece,))).cut
                for w in part.detail.works
            ]
            made = [w.wide_mm for w in works if isinstance(w, Bored | Row)]
            made += [
                bit
                for mark in piece_marks(piece, on, units)
                for bit in (mark.bit_mm, mark.clearance_mm)
                if bit
            ]
            with self.subTest(kind=kind, base=base, units=units):
                self.assertLessEqual(set(made), set(driving.drills_mm(units)))


class OneHole(SimpleTestCase):
    def test_marks_cut_list_and_template_name_the_same_bit(self) -> None:
        for kind, units, count in product(
            ("rod_shelf", "pin_shelf", "rod_beam", "dowel_shelf"), UNITS, (2, 3)
        ):
            extra: dict[str, Any] = (
                {"dowels": count + 2}
                if kind == "dowel_shelf"
                else {"supports_mm": (100.0, 500.0, 900.0)[-count:]}
            )
            piece = put_up(kind, wall(), length_mm=1000.0, **extra)
            marked = [
                mark.bit_mm for mark in piece_marks(piece, wall(), units) if mark.where == "shelf"
            ]
            drawn = edge(piece, Plan(name="W", units=units, wall=wall(), pieces=(piece,)), units)
            assert drawn is not None
            with self.subTest(kind=kind, units=units, count=count):
                self.assertEqual(marked, [circle.diameter for circle in drawn.circles])
                part = "shelf" if kind == "dowel_shelf" else "board"
                self.assertEqual(bored(piece, wall(), units, part), [(marked[0], len(marked))])

    def test_what_is_glued_is_snug_and_what_is_slid_on_is_loose(self) -> None:
        """20 mm dowels in 20 mm holes however many; 3/8 in rods in 1/2 in holes, 3 mm wider, once.

        Pins wider from three on.
        """
        dowels = put_up("dowel_shelf", wall(), dowels=6)
        self.assertEqual(bored(dowels, wall(), "metric", "shelf"), [(20.0, 6)])
        for places in ((100.0, 900.0), (100.0, 500.0, 900.0)):
            beam = put_up("rod_beam", wall(), supports_mm=places, screw="rod_3_8")
            self.assertEqual(bored(beam, wall(), "imperial", "board"), [(12.7, len(places))])
            pins = put_up("pin_shelf", wall(), pin_mm=12.7, length_mm=1000.0, supports_mm=places)
            self.assertEqual(
                bored(pins, wall(), "metric", "board"),
                [(13.0 if len(places) < 3 else 15.0, len(places))],
            )

    def test_the_hole_in_a_strip_is_for_what_goes_through_it(self) -> None:
        """A quarter-inch toggle's bolt, a plug's screw, a sleeve anchor whole.

        Never the wood screw that is not used.
        """
        between = replace(
            put_up("rail", wall()), left_mm=850.0, length_mm=300.0, supports_mm=(100.0, 200.0)
        )
        for anchor, bit in (("toggle_14", 16), ("toggle_18", 8), ("channel_316", 12)):
            [found] = bored(replace(between, anchor=anchor), wall(), "imperial", "board")
            self.assertAlmostEqual(found[0], bit * INCH_64TH_MM)
        brick = wall(**BASES["brick"])
        for anchor, bit in (
            ("plug_8", 6.0),
            ("plug_10", 8.0),
            ("expansion_10", 10.0),
            ("screw_6", 7.5),
        ):
            ledger = put_up("ledger_shelf", brick, anchor=anchor)
            [found] = bored(ledger, brick, "metric", "back ledger")
            self.assertEqual(found[0], bit)
            self.assertEqual(
                {mark.clearance_mm for mark in piece_marks(ledger, brick, "metric")}, {bit}
            )

    def test_nothing_is_drilled_through_a_steel_plate(self) -> None:
        for piece in (rod_shelf(anchor="plug_8"), bracket_shelf(anchor="plug_8")):
            marks = piece_marks(piece, wall(**BASES["brick"]), "metric")
            self.assertEqual({mark.clearance_mm for mark in marks}, {None})
