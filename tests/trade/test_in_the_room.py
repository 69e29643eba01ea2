"""What stands before a wall, and what that asks of what hangs above it."""

from typing import Any

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, wall
from tests.trade.test_every_kind import put_up
from tests.trade.test_options import kg, request
from trade import data
from trade.assess import assess_piece, judge_piece
from trade.choose.cures import look_for_cures
from trade.choose.options import find_options
from trade.mounts import mount_of
from trade.parse import sketch
from trade.plan.features import Feature, usual
from trade.plan.model import Plan, Wall
from trade.wall.zones import zones

SIZE = (3200.0, 2400.0)


def before(kind: str, centre_mm: float = 1200.0) -> Wall:
    """The usual one, in the middle of where the shelf hangs, 700 to 1 700."""
    return wall(features=(usual(kind, centre_mm, None, SIZE),))


def codes(on: Wall, **changes: Any) -> set[str]:
    verdict = assess_piece(bracket_shelf(**changes), on)
    return {each.code for each in verdict.checks if each.outcome not in ("holds", "close")}


class Above(SimpleTestCase):
    def test_so_much_is_kept_clear_above_each_and_no_more(self) -> None:
        """The bracket's foot hangs 320 below the shelf's top."""
        for kind, above_mm in (
            ("hob", 915 + 762),
            ("sofa", 850 + 300),
            ("desk", 740 + 450),
            ("basin", 870 + 300),
            ("fireplace", 737 + 152.4),
            ("walkway", 2032),
        ):
            on = before(kind)
            top = above_mm + 320.0
            with self.subTest(kind):
                self.assertIn("piece.obstacle", codes(on, top_mm=top - 1.0))
                self.assertNotIn("piece.obstacle", codes(on, top_mm=min(top, 2400.0)))

    def test_wood_by_a_fireplace_keeps_off_by_how_far_it_stands_out(self) -> None:
        """The opening is 914 wide and 737 high, its middle at 1 200.

        Above: from 12 in (304.8) on as far as it likes, nearer 1/8 of the distance; the shelf's
        bracket hangs 320 below its top. Beside: 6 in and its depth.
        """
        on = before("fireplace")
        for above, depth, clear in (
            (305.0, 250.0, True),
            (304.0, 250.0, False),
            (240.0, 31.0, False),
            (241.0, 30.0, True),
        ):
            slab = put_up("ledger_shelf", wall(), top_mm=737.0 + above + 60.0)
            slab = replace(slab, left_mm=900.0, length_mm=500.0, supports_mm=(100.0, 400.0))
            slab = replace(slab, depth_mm=depth, side_screws=0)
            box = mount_of(slab).box(slab)
            slab = replace(slab, top_mm=slab.top_mm + 737.0 + above - box.bottom_mm)
            found = {each.code for each in assess_piece(slab, on).checks if each.utilisation > 1}
            self.assertEqual("piece.fireplace" not in found, clear, (above, depth))
        edge = 1200.0 + 914 / 2
        for aside, depth, clear in ((402.0, 250.0, False), (403.0, 250.0, True)):
            beside = codes(on, left_mm=edge + aside, top_mm=700.0, depth_mm=depth)
            self.assertEqual("piece.fireplace" not in beside, clear, aside)
        steel = bracket_shelf(board="steel_sheet", thickness_mm=3.0, top_mm=737.0 + 200 + 320)
        checks = assess_piece(steel, on).checks
        self.assertNotIn("piece.fireplace", [each.code for each in checks])

    def test_nothing_hangs_over_a_crib_nor_within_reach_of_it(self) -> None:
        on = before("crib", 2525.0)  # from 1 850 on, and 300 aside of it
        for left, clear in ((549.0, True), (551.0, False)):
            found = codes(on, top_mm=2300.0, left_mm=left)
            self.assertEqual("piece.obstacle" not in found, clear, left)
        over = plan(bracket_shelf(top_mm=2300.0), features=before("crib").features)
        self.assertEqual(judge_piece(over.pieces[0], over).outcome, "doesnt_fit")

    def test_what_hardly_stands_out_may_be_there(self) -> None:
        rail = replace(
            put_up("rail", wall(), top_mm=1500.0), supports_mm=(100.0,), key="rail", depth_mm=100.0
        )
        for deep, free in ((102.0, True), (103.0, False)):
            found = assess_piece(replace(rail, depth_mm=deep), before("walkway"))
            hit = any(each.code == "piece.obstacle" for each in found.checks)
            self.assertEqual(hit, not free, deep)

    def test_over_a_bed_it_is_judged_for_hard_use_whatever_it_is_called(self) -> None:
        everyday = {"use": "everyday", "top_mm": 1500.0}
        self.assertIn("use.sleeping", codes(before("bed"), **everyday))
        self.assertIn("use.sleeping", codes(wall(), name="Shelf over the bed", **everyday))
        self.assertNotIn("use.sleeping", codes(before("bed", 2500.0), **everyday))
        self.assertNotIn("use.sleeping", codes(wall(), name="Bedding shelf", **everyday))
        for use in ("hard", "climbable"):
            self.assertNotIn("use.sleeping", codes(before("bed"), use=use, top_mm=1500.0))

    def test_a_cure_judges_it_harder_or_moves_it_clear_and_keeps_its_word(self) -> None:
        for kind, code in (("bed", "harder"), ("hob", "clear"), ("crib", "clear")):
            now = plan(bracket_shelf(use="everyday"), features=before(kind, 1000.0).features)
            found = {cure.code: cure for cure in look_for_cures(now, "shelf").found}
            with self.subTest(kind):
                cure = next(each for name, each in found.items() if code in name.split("-"))
                then = judge_piece(cure.piece, cure.on(now))
                self.assertEqual((then.outcome, then.used), (cure.outcome, cure.used))
                self.assertNotIn(then.outcome, ("wont_hold", "doesnt_fit"))

    def test_ways_keep_clear_of_it(self) -> None:
        bare = plan().without_piece("shelf")
        wish = request(things=kg(8.0), x_mm=800.0, top_mm=1500.0, length_mm=600.0, depth_mm=200.0)
        on = before("hob", 500.0)
        now: Plan = replace(bare, wall=on)
        for way in find_options(now, wish).found:
            own = mount_of(way.piece).box(way.piece)
            self.assertTrue(own.left_mm >= 800.0 or own.bottom_mm >= 915 + 762, way.kind)

    def test_each_stands_on_the_floor_has_its_advice_and_is_typed_and_read_back(self) -> None:
        for kind in (
            "bed",
            "crib",
            "sofa",
            "desk",
            "basin",
            "hob",
            "fireplace",
            "stove",
            "walkway",
        ):
            made = usual(kind, 1600.0, None, SIZE)
            self.assertEqual(made.bottom_mm, 0.0)
            said = sketch.word_of(made, "metric", SIZE)
            self.assertEqual(sketch.read(said, "metric", SIZE).features, (made,), said)
            row = data.features()[kind]
            advised = {zone.advice for zone in zones(wall(features=(made,)))}
            self.assertIn(row.advice, advised)
        self.assertIsInstance(made, Feature)
