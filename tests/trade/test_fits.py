"""What cannot be built as drawn.

Boxes behind a face, things that reach the floor, screws that come out or meet a dowel.
"""

from typing import Any

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import plan, wall
from tests.trade.test_every_kind import put_up
from trade import wording
from trade.assess import assess
from trade.check import Check
from trade.choose.cures import Cure, cures
from trade.cutting.parts import parts_of
from trade.cutting.plan import cut_plan
from trade.job.minding import what_to_mind
from trade.load import contents
from trade.mounts import mount_of
from trade.mounts.work import Opening
from trade.plan.features import Feature
from trade.plan.model import AnyPiece, Plan, Thing

OUTLET = Feature(kind="outlet", left_mm=1300.0, right_mm=1370.0, bottom_mm=1100.0, top_mm=1215.0)


def judged(piece: AnyPiece, code: str, **changes: Any) -> Check | None:
    verdict = assess(plan(piece, **changes)).piece(piece.key)
    return next((check for check in verdict.checks if check.code == code), None)


def cured(piece: AnyPiece, code: str, **changes: Any) -> list[Cure]:
    return [cure for cure in cures(plan(piece, **changes), piece.key) if cure.code == code]


class Boxes(SimpleTestCase):
    def panel(self, kind: str = "panel", **changes: Any) -> AnyPiece:
        on = wall(features=(OUTLET,))
        light = (Thing(name="Hats", mass_kg=2.0),)
        made = {
            "left_mm": 1000.0,
            "length_mm": 1000.0,
            "supports_mm": (200.0, 600.0),
            "things": light,
            "top_mm": 1500.0,
        }
        return put_up(kind, on, **(made | changes))

    def test_a_face_over_an_outlet_does_not_fit_and_both_ways_out_are_offered(self) -> None:
        for kind in ("panel", "peg_wall"):
            panel = self.panel(kind, height_mm=600.0, rows=2)
            found = judged(panel, "piece.covers", features=(OUTLET,))
            assert found is not None
            self.assertEqual((found.outcome, found.limit), ("doesnt_fit", "fit"))
            self.assertIn("an outlet's box", wording.phrase(found.sentence, "metric"))
            self.assertEqual(
                wording.check_line(found, "metric"), ""
            )  # nothing was measured: no “1 of 0.5”
            [opened] = cured(panel, "cut_out", features=(OUTLET,))
            self.assertEqual(opened.outcome, "holds")
            self.assertTrue(cured(panel, "clear", features=(OUTLET,)))
        self.assertIsNone(
            judged(self.panel(height_mm=250.0), "piece.covers", features=(OUTLET,))
        )  # it hangs above it

    def test_the_opening_is_in_the_cut_list_where_the_box_is(self) -> None:
        """By hand.

        The panel's foot is at 900 and its left end at 1000; the plate is 70 by 115, 300 from the
        left and 200 up, and laps the opening by 6.
        """
        opened = replace(self.panel(height_mm=600.0), cut_out=True)
        for thick in (0.0, 19.0):
            parts = parts_of(plan(replace(opened, batten_mm=thick), features=(OUTLET,))).cut
            [hole] = [w for part in parts for w in part.detail.works if isinstance(w, Opening)]
            self.assertEqual(
                (hole.x_mm, hole.y_mm, hole.wide_mm, hole.high_mm), (306.0, 206.0, 58.0, 103.0)
            )

    def test_no_batten_runs_across_a_box_even_where_an_opening_is_cut(self) -> None:
        """A batten is 64 high and the box 115: their middles need 89.5 between them.

        Three rows put one 2.5 from it; two clear it.
        """
        opened = self.panel(height_mm=690.0, batten_mm=28.0, cut_out=True, rows=3)
        found = judged(opened, "panel.batten_box", features=(OUTLET,))
        assert found is not None
        self.assertAlmostEqual(found.demand.value, 89.5)
        self.assertAlmostEqual(found.capacity.value, abs(1500.0 - 345.0 - 1157.5))
        [two] = cured(opened, "rows", features=(OUTLET,))
        self.assertEqual((two.piece.rows, two.outcome), (2, "holds"))


class Hanging(SimpleTestCase):
    def test_what_is_longer_than_its_hook_is_high_stands_on_the_floor(self) -> None:
        """A rail 90 high, its top at 1 727: hooks at 1 637.

        1 676 long reaches the floor; 1 600 clears it by less than 50.
        """
        for high, word in ((1676.0, "doesnt_fit"), (1600.0, "holds_but"), (1580.0, "holds")):
            bike = Thing(name="Bicycle", mass_kg=14.0, at_mm=600.0, out_mm=80.0, high_mm=high)
            rail = put_up("rail", wall(), top_mm=1727.0, height_mm=90.0, things=(bike,))
            found = judged(rail, "fit.hang")
            assert found is not None
            self.assertEqual(found.outcome, word)
        rail = put_up(
            "rail",
            wall(),
            top_mm=1727.0,
            height_mm=90.0,
            screw_length_mm=76.2,
            things=(replace(bike, high_mm=1676.0, mass_kg=5.0),),
        )
        [higher] = cured(rail, "higher")
        self.assertAlmostEqual(higher.piece.top_mm, 1727.0 + 1676.0 + 50.0 - 1637.0)


class Screws(SimpleTestCase):
    def test_a_screw_that_comes_out_behind_is_cured_by_a_shorter_one(self) -> None:
        panel = put_up(
            "panel",
            wall(),
            batten_mm=19.0,
            thickness_mm=14.0,
            panel_screw_mm=40.0,
            things=(Thing(name="Hat", mass_kg=1.0),),
        )
        self.assertIsNotNone(judged(panel, "panel.behind"))
        self.assertAlmostEqual(cured(panel, "panel_screw")[0].piece.panel_screw_mm, 30.0)
        deep = tuple(replace(stud, depth_mm=89.0) for stud in wall().studs)
        beam = put_up(
            "bracket_beam",
            wall(studs=deep),
            screw="lag_3_8",
            screw_length_mm=127.0,
            things=(Thing(name="Clock", mass_kg=1.0),),
        )
        self.assertAlmostEqual(cured(beam, "shorter")[0].piece.screw_length_mm, 101.6)

    def test_pins_too_long_for_the_stud_or_the_shelf_are_cured_by_shorter_ones(self) -> None:
        light = (Thing(name="Cup", mass_kg=0.5),)
        shallow = wall(studs=tuple(replace(stud, depth_mm=64.0) for stud in wall().studs))
        pins = put_up(
            "pin_shelf", shallow, in_stud_mm=64.0, depth_mm=140.0, in_shelf_mm=100.0, things=light
        )
        self.assertIn(
            55.0,
            [cure.piece.in_stud_mm for cure in cures(plan(pins, studs=shallow.studs), pins.key)],
        )
        deep = put_up("pin_shelf", wall(), depth_mm=120.0, in_shelf_mm=118.0, things=light)
        [shorter] = cured(deep, "rods")
        self.assertLess(shorter.piece.in_shelf_mm, 118.0)

    def test_no_bracket_of_plywood_under_a_heavy_beam(self) -> None:
        """1.5 m of white oak 140 by 190 weigh 30 kg; a shelf of pine may have one."""
        from trade.mounts import mount_of

        beam, shelf = put_up("bracket_beam", wall()), put_up("bracket_shelf", wall())
        offered = [
            [cure[2].bracket for cure in mount_of(each).cures(each, "metric")]
            for each in (beam, shelf)
        ]
        self.assertEqual(["shop_plywood" in each for each in offered], [False, True])

    def test_a_screw_and_a_dowel_cant_be_in_one_place(self) -> None:
        """One row of screws in a strip of 45 is at its middle, where the dowels are.

        Three dowels meet three screws; four meet none.
        """
        shelf = put_up(
            "dowel_shelf",
            wall(),
            length_mm=900.0,
            left_mm=700.0,
            thickness_mm=45.0,
            supports_mm=(150.0, 450.0, 750.0),
        )
        for dowels, word in ((3, "doesnt_fit"), (4, "holds")):
            found = judged(replace(shelf, dowels=dowels), "dowel.screw")
            assert found is not None
            self.assertEqual(found.outcome, word)


class Sheets(SimpleTestCase):
    def test_a_whole_sheet_stands_upright_and_keeps_its_edges(self) -> None:
        """48 by 96 in of plywood.

        One whole sheet, nothing trimmed; and one 46 wide out of another, ripped once.
        """
        on = wall(height_mm=2438.4)
        walls = [
            put_up(
                "peg_wall",
                on,
                key=key,
                left_mm=left,
                top_mm=2438.4,
                length_mm=long,
                height_mm=2438.4,
                thickness_mm=19.05,
                peg_mm=25.4,
            )
            for key, left, long in (("a", 0.0, 1219.2), ("b", 1300.0, 1168.4))
        ]
        found = cut_plan(Plan(name="W", units="imperial", wall=on, pieces=tuple(walls)))
        self.assertEqual(found.no_stock, ())
        sheets = [len(sheet.cuts) for job in found.sheets for sheet in job.plan.sheets]
        self.assertEqual(sorted(sheets), [0, 1])
        dowels = {
            job.stock[n].name for job in found.boards for n, _ in job.layout if job.stock[n].round
        }
        self.assertTrue(dowels and all("dowel 1 in" in name for name in dowels))


class Covered(SimpleTestCase):
    """What must be reached: openings by plate and box, what stays open, what runs on the face."""

    def feature(self, kind: str, left: float, low: float, wide: float, high: float) -> Feature:
        return Feature(
            kind=kind, left_mm=left, right_mm=left + wide, bottom_mm=low, top_mm=low + high
        )

    def test_a_plate_laps_its_opening_and_a_ring_brings_the_box_forward(self) -> None:
        """A panel 12 thick on battens of 19: 31 forward, one ring; a grille stays open whole."""
        vent = self.feature("vent", 1600.0, 1000.0, 300.0, 150.0)
        panel = put_up(
            "panel",
            wall(),
            left_mm=1000.0,
            length_mm=1000.0,
            top_mm=1500.0,
            height_mm=600.0,
            thickness_mm=12.0,
            batten_mm=19.0,
            cut_out=True,
            rows=2,
        )
        parts = parts_of(plan(panel, features=(OUTLET, vent))).cut
        plated, left_open = (
            w for part in parts for w in part.detail.works if isinstance(w, Opening)
        )
        self.assertEqual((plated.plate_mm, plated.forward_mm), ((70.0, 115.0), 31.0))
        self.assertEqual((plated.wide_mm, plated.high_mm), (58.0, 103.0))
        self.assertIn("31 mm forward", wording.phrase(plated.phrase("metric"), "metric"))
        self.assertEqual((left_open.plate_mm, left_open.wide_mm), (None, 300.0))
        self.assertIn("stays open", wording.phrase(left_open.phrase("metric"), "metric"))
        rings = mount_of(panel).parts(panel, wall(features=(OUTLET, vent)))
        self.assertEqual([p.many for p in rings if p.name == "extension ring"], [1])

    def test_a_cabinet_over_a_switch_gets_an_opening_or_moves(self) -> None:
        switch = self.feature("switch", 1300.0, 1162.0, 70.0, 115.0)
        made: dict[str, Any] = {"height_mm": 600.0, "top_mm": 1700.0, "body_kg": 12.0}
        cabinet = put_up("cleat_cabinet", wall(), left_mm=1000.0, length_mm=900.0, **made)
        cabinet = replace(cabinet, things=(Thing(name="Plates", mass_kg=8.0),))
        self.assertIsNotNone(judged(cabinet, "piece.covers", features=(switch,)))
        [opened] = cured(cabinet, "cut_out", features=(switch,))
        found = mount_of(opened.piece)
        said = [
            wording.phrase(each, "metric")
            for each in found.cautions(opened.piece, wall(features=(switch,)))
        ]
        self.assertTrue(any("a switch's box: 58 mm × 103 mm" in each for each in said), said)
        names = [p.name for p in found.parts(opened.piece, wall(features=(switch,)))]
        self.assertIn("extension ring", names)

    def test_trunking_ends_a_row_of_cleats(self) -> None:
        """Trunking at 1 600 to 1 640 through cleats from 900 to 2 300: 1 595 is where they end."""
        run = self.feature("trunking", 1700.0, 0.0, 40.0, 2400.0)
        cleats = put_up("cleat_wall", wall(), left_mm=700.0, length_mm=1400.0, top_mm=1600.0)
        cleats = replace(cleats, things=(Thing(name="Tools", mass_kg=4.0),))
        self.assertIsNotNone(judged(cleats, "piece.obstacle", features=(run,)))
        ended = cured(cleats, "before", features=(run,))
        self.assertAlmostEqual(ended[0].piece.left_mm + ended[0].piece.length_mm, 1695.0)
        self.assertEqual(ended[0].outcome, "holds")

    def test_a_shelf_that_rests_on_trim_is_told_that_trim_bears_nothing(self) -> None:
        """A door 2 032 high with 57 of trim: its top is at 2 089; the verdict is as without it."""
        door = replace(self.feature("door", 1200.0, 0.0, 813.0, 2032.0), trim_mm=57.0)
        for up, told in ((2089.0, True), (2096.0, True), (2120.0, False)):
            shelf = put_up("rod_shelf", wall(), left_mm=1100.0, length_mm=1000.0)
            low = shelf.top_mm - mount_of(shelf).box(shelf).bottom_mm
            shelf = replace(shelf, top_mm=up + low)
            now = plan(shelf, features=(door,))
            said = " ".join(wording.phrase(m, "metric") for m in what_to_mind(shelf, now))
            self.assertEqual("lies on the trim of a door" in said, told, up)

    def test_bicycles_side_by_side_need_their_handlebars_width(self) -> None:
        """600 each: 600 apart is enough, 450 is not; on 2 000 mm three of them have 667 each."""
        rail = put_up("rail", wall(), left_mm=700.0, length_mm=2000.0, top_mm=1900.0)
        rail = replace(rail, supports_mm=(100.0, 500.0, 900.0, 1300.0, 1700.0))

        def hung(*places: float) -> AnyPiece:
            bikes = (contents.thing("bicycle", 1, "metric", at) for at in places)
            return replace(
                rail, things=tuple(replace(b, high_mm=900.0, mass_kg=5.0) for b in bikes)
            )

        self.assertIsNone(judged(hung(500.0), "hang.apart"))
        fits = judged(hung(300.0, 900.0), "hang.apart")
        assert fits is not None
        self.assertEqual((fits.outcome, fits.demand.value), ("holds", 600.0))
        close = hung(300.0, 750.0, 1500.0)
        found = judged(close, "hang.apart")
        assert found is not None
        self.assertEqual((found.outcome, found.capacity.value), ("holds_but", 450.0))
        [spread] = cured(close, "spread")
        places = [thing.at_mm for thing in spread.piece.things]
        self.assertEqual([round(x or 0.0) for x in places], [333, 1000, 1667])

    def test_what_hangs_on_a_hook_keeps_clear_of_a_plate_below(self) -> None:
        """A coat 1 000 long 20 beside a switch's plate: 50 to a side is wanted."""
        switch = self.feature("switch", 1300.0, 1162.0, 70.0, 115.0)
        rail = put_up("rail", wall(), left_mm=700.0, length_mm=1500.0, top_mm=1800.0)
        for at, away in ((580.0, 20.0), (550.0, None)):
            coat = Thing(name="Coat", mass_kg=1.5, at_mm=at, high_mm=1000.0)
            found = judged(replace(rail, things=(coat,)), "hook.clear", features=(switch,))
            self.assertEqual(found and found.capacity.value, away)
        short = Thing(name="Cap", mass_kg=0.2, at_mm=580.0, high_mm=200.0)
        self.assertIsNone(judged(replace(rail, things=(short,)), "hook.clear", features=(switch,)))
