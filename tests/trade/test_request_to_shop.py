"""From a wish to the shopping list, on brick in millimetres.

And every screw of every wall that a piece touches.
"""

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, wall
from tests.trade.test_every_kind import put_up
from trade import wording
from trade.choose.options import find_options
from trade.choose.request import BOARD_WIDTHS_MM, wish_for
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import ShoppingItem, shopping
from trade.cutting.sold import sold_mm, unsold
from trade.job.steps import steps
from trade.plan.model import Plan, Policy
from trade.plan.shop import Have, Shop

BRICK = wall(structure="brick_solid", layers=(), timber=None, studs=())
EMPTY = Plan(name="Brick", units="metric", wall=BRICK)


class BrickInMillimetres(SimpleTestCase):
    def test_from_books_to_what_the_shop_has(self) -> None:
        found = find_options(EMPTY, wish_for(EMPTY, "books", 900.0, 1600.0, 1500.0))
        shelf = next(way for way in found.found if way.kind == "bracket_shelf")
        self.assertEqual(shelf.outcome, "holds")
        self.assertIn(shelf.piece.depth_mm, BOARD_WIDTHS_MM["metric"])
        now = EMPTY.with_piece(shelf.piece)
        cut = cut_plan(now)
        self.assertEqual(cut.no_stock, ())
        [line] = [each for each in shopping(now, cut, "metric").lines if each.aisle == "wood"]
        self.assertRegex(line.what, r"^white pine board, (1200|2000|3000) × \d+ × (18|28) mm$")
        self.assertGreater(line.cost, 0)

    def test_a_proposal_that_no_shop_has_says_so(self) -> None:
        found = find_options(EMPTY, wish_for(EMPTY, "books", 900.0, 1600.0, 1500.0))
        for way in found.found:
            words = " ".join(wording.phrase(reason, "metric") for reason in way.reasons)
            cut = cut_plan(EMPTY.with_piece(way.piece))
            none = cut.no_stock
            with self.subTest(way.kind):
                self.assertEqual("No shop has its" in words, bool(none or cut.made_up))
                assert way.price is not None
                self.assertEqual(set(way.price.unpriced), {part.name for part in none})
                self.assertEqual(way.price.guess > 0, bool(none))
        self.assertTrue(any(cut_plan(EMPTY.with_piece(way.piece)).made_up for way in found.found))

    def test_what_is_put_up_is_as_thick_as_it_is_sold(self) -> None:
        shelf = put_up("bracket_shelf", wall())
        self.assertEqual(shelf.thickness_mm, 18.0)  # metric: put_up asks in millimetres
        self.assertEqual(sold_mm("pine_white", "metric", 19.0), [18.0])
        self.assertEqual(unsold(shelf, plan(shelf)), [])
        thick = replace(shelf, thickness_mm=95.0, key="thick")
        self.assertIn("95", wording.phrase(unsold(thick, plan(thick))[0], "metric"))


class Drawer(SimpleTestCase):
    def bought(self, many: int) -> ShoppingItem:
        have = (Have(of="screw:wood_10:76", many=many),) if many else ()
        now = replace(plan(bracket_shelf()), shop=Shop(have=have))
        lines = shopping(now, cut_plan(now), "metric").lines
        return next(line for line in lines if line.key == "screw:wood_10:76")

    def test_what_is_there_is_not_bought(self) -> None:
        """By hand: 2 brackets of 4 holes take 8 screws."""
        none, some, all_of_it = self.bought(0), self.bought(6), self.bought(20)
        self.assertEqual((none.needed, some.needed, all_of_it.needed), (8, 8, 8))
        self.assertGreaterEqual(none.pack * none.packs, 8)
        self.assertLessEqual(some.pack * some.packs, none.pack * none.packs)
        self.assertGreaterEqual(some.pack * some.packs, 2)
        self.assertEqual((all_of_it.packs, all_of_it.cost, all_of_it.spare), (0, 0.0, 12))

    def test_what_is_there_is_taken_where_it_holds(self) -> None:
        wish = wish_for(EMPTY, "books", 900.0, 1600.0, 1500.0)
        without = find_options(EMPTY, wish).best
        shop = Shop(have=(Have(of="anchor:screw_8", many=40),))
        with_it = find_options(replace(EMPTY, shop=shop), wish).best
        assert without is not None
        assert with_it is not None
        self.assertNotEqual(without.piece.anchor, "screw_8")
        self.assertEqual((with_it.piece.anchor, with_it.outcome), ("screw_8", "holds"))
        assert without.price is not None
        assert with_it.price is not None
        self.assertLess(with_it.price.cost, without.price.cost)


class Lacking(SimpleTestCase):
    """What is not there is said before anybody climbs: tools by the policy, bits by the drawer."""

    def told(self, now: Plan) -> list[str]:
        ready = steps(now, now.pieces[0].key, "metric")[0]
        return [
            wording.phrase(each, "metric") for each in ready.cautions if "lack" in each.template
        ]

    def test_bits_are_lacking_once_the_drawer_has_any(self) -> None:
        now = plan(put_up("rail", wall()))
        needed = [
            line.key
            for line in shopping(now, cut_plan(now), "metric").lines
            if line.aisle == "bits"
        ]
        self.assertGreater(len(needed), 0)
        self.assertEqual(self.told(now), [])
        some = replace(now, shop=Shop(have=(Have(of="bit:bit:40 mm", many=1),)))
        [said] = self.told(some)
        self.assertIn(needed[0].removeprefix("bit:bit:"), said)
        every = replace(now, shop=Shop(have=tuple(Have(of=key, many=1) for key in needed)))
        self.assertEqual(self.told(every), [])
        bits = [
            line
            for line in shopping(every, cut_plan(every), "metric").lines
            if line.aisle == "bits"
        ]
        self.assertEqual({(line.packs, line.note) for line in bits}, {(0, "")})

    def test_tools_that_the_policy_lacks(self) -> None:
        floating = plan(put_up("rod_shelf", wall()))
        lacks = replace(floating, policy=Policy(lacks=("long_bit", "chisel")))
        self.assertEqual(self.told(floating), [])
        [said] = self.told(lacks)
        self.assertIn("long", said)
        brick = Plan(name="W", units="metric", wall=BRICK, pieces=(put_up("rail", BRICK),))
        hammer = replace(brick, policy=Policy(lacks=("hammer_drill",)))
        [said] = self.told(hammer)
        self.assertIn("hammer drill", said)


class EveryWall(SimpleTestCase):
    def needed(self, now: Plan) -> int:
        return sum(
            round(line.needed)
            for line in shopping(now, cut_plan(now), "metric").lines
            if line.aisle == "fasteners"
        )

    def test_side_walls_and_other_walls_are_counted_with_what_holds_there(self) -> None:
        """By hand.

        2 or 3 screws at the back and 2 in each side ledger; a corner shelf as many in the other
        wall as two places take.
        """
        for on in (wall(), BRICK):
            ledger = put_up("ledger_shelf", on, supports_mm=(100.0, 800.0), side_screws=3)
            corner = put_up("corner_shelf", on, left_mm=0.0, supports_mm=(400.0,))
            for piece, back, beside, where in (
                (ledger, 2, 6, "side walls"),
                (corner, 1, 2, "other wall"),
            ):
                now = Plan(name="W", units="metric", wall=on, pieces=(piece,))
                self.assertEqual(self.needed(now), back + beside)
                ready = dict(steps(now, piece.key, "metric")[0].facts)
                self.assertTrue(ready[f"Into the {where}"].startswith(f"{beside} × "))
                self.assertEqual(
                    ready[f"Into the {where}"].split("× ")[1], ready["Into the wall"].split("× ")[1]
                )

    def test_a_panels_own_screws_are_packed_too(self) -> None:
        panel = put_up("panel", wall(), batten_mm=19.0, rows=3, panel_screws=5)
        ready = dict(steps(plan(panel), panel.key, "metric")[0].facts)
        self.assertTrue(ready["Into the battens"].startswith("15 × 4 mm wood screw, 35 mm"))
