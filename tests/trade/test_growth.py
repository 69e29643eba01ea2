"""Room to grow: how many holders more hold, a row or panel more, and sorts of wall compared."""

from typing import Any

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, wall
from trade.assess import judge_piece
from trade.choose import criteria, placement
from trade.choose.growth import grows, growth, sorts
from trade.errors import PlanError
from trade.mounts import KINDS, mount_of
from trade.plan.model import Plan, Thing


def put(kind: str, **changes: Any) -> Plan:
    """A wall with one new piece on it, its middle at 1 500 mm."""
    bare = plan(bracket_shelf())
    bare = replace(bare, pieces=(), wall=replace(wall(), width_mm=4000.0))
    made: Any = placement.put_up(bare, kind, 1500.0, 1800.0)
    return bare.with_piece(replace(made, things=(Thing(name="Saw", mass_kg=2.0),), **changes))


class Growth(SimpleTestCase):
    def test_so_many_more_hold_and_one_more_than_that_does_not(self) -> None:
        for kind in ("rail", "cleat_wall", "panel", "grid_panel", "peg_wall", "holder_board"):
            with self.subTest(kind):
                now = put(kind)
                [piece] = now.pieces
                found = growth(now, piece.key, 9.0)
                self.assertEqual((found.room, found.named), (mount_of(piece).room(piece), 1))
                out = piece.depth_mm

                def outcome(
                    count: int, piece: Any = piece, now: Plan = now, out: float = out
                ) -> str:
                    more = Thing(name="More", mass_kg=9.0 * count, out_mm=out)
                    tried = replace(piece, things=(*piece.things, more))
                    return judge_piece(tried, now.with_piece(tried)).outcome

                self.assertIn(outcome(found.more), ("holds", "close", "holds_but"))
                if found.first is None:
                    self.assertEqual(found.more, found.room - found.named)
                else:
                    self.assertIn(outcome(found.more + 1), ("wont_hold", "doesnt_fit"))

    def test_so_much_as_nobody_can_enter_is_not_said_to_hold(self) -> None:
        now = put("rail")
        [rail] = now.pieces
        found = growth(now, rail.key, 9_000.0)
        self.assertEqual(found.more, 0)
        full = replace(rail, things=tuple(Thing(name=f"Key {n}", mass_kg=0.01) for n in range(60)))
        self.assertEqual(growth(now.with_piece(full), rail.key, 0.01).more, 0)

    def test_room_is_counted_by_size(self) -> None:
        """1 500 mm take 15 hooks of 100; two panels of 600 × 600 four rows of six each."""
        [rail] = put("rail", length_mm=1500.0).pieces
        self.assertEqual(mount_of(rail).room(rail), 15)
        [panels] = put("grid_panel").pieces
        self.assertEqual(mount_of(panels).room(panels), 2 * 4 * 6)
        [cleats] = put("cleat_wall", length_mm=1200.0, rows=3).pieces
        self.assertEqual(mount_of(cleats).room(cleats), 3 * 6)
        [shelf] = plan(bracket_shelf()).pieces
        self.assertFalse(grows(shelf))
        with self.assertRaises(PlanError):
            growth(plan(shelf), shelf.key)

    def test_a_row_or_a_panel_more_is_judged_among_what_hangs_there(self) -> None:
        """A row more is as many holes again; what stands in its way is named; none is changed."""
        now = put("cleat_wall", rows=3)
        [cleats] = now.pieces
        below, above = growth(now, cleats.key).steps
        count = len(cleats.supports_mm) * 2
        self.assertEqual((below.holes, above.holes), (count, count))
        self.assertEqual(above.piece.top_mm - cleats.top_mm, 200.0)
        self.assertFalse(below.verdict.fails)
        barred = now.with_piece(bracket_shelf(key="low", left_mm=1200.0, top_mm=1150.0))
        [barred_below, _] = growth(barred, cleats.key).steps
        self.assertEqual(barred_below.verdict.governing.code, "piece.clash")
        panels = put("grid_panel")
        [one] = panels.pieces
        for step in growth(panels, one.key).steps:
            grown: Any = step.piece
            self.assertEqual((grown.panels, grown.panel_mm), (3, 600.0))
            self.assertTrue(step.cost > 0)
        self.assertEqual(growth(panels, one.key).steps[1].piece.left_mm, one.left_mm - 600.0)

    def test_sorts_of_wall_are_compared_in_figures_of_this_wall(self) -> None:
        now = put("cleat_wall", rows=3)
        [cleats] = now.pieces
        found = {each.kind: each for each in sorts(now, cleats.key)}
        self.assertEqual(next(iter(found)), "cleat_wall")
        self.assertGreaterEqual(len(found), 5)
        for kind, each in found.items():
            with self.subTest(kind):
                self.assertEqual(mount_of(each.piece), KINDS[kind])
                effort = criteria.effort(each.piece, now.wall, now.policy)
                self.assertEqual((each.holes, each.cost), (effort.holes, effort.cost))
                self.assertEqual(each.with_more(10)[0], each.cost + 10 * each.each_cost)
                self.assertEqual(each.piece.things, cleats.things)
                self.assertTrue(0.0 <= each.bare <= 1.0)
                gap = each.piece.supports_mm[0] + each.piece.supports_mm[1]
                for kg, fails in ((0.99 * each.between_kg, False), (1.3 * each.between_kg, True)):
                    one = Thing(name="One", mass_kg=kg, at_mm=gap / 2, out_mm=each.piece.depth_mm)
                    alone = judge_piece(replace(each.piece, things=(one,)), now)
                    self.assertEqual(alone.outcome in ("close", "wont_hold"), fails, kg)
        self.assertEqual(found["panel"].bare, 0.0)
        self.assertGreater(found["rail"].bare, found["cleat_wall"].bare)
        self.assertGreater(found["cleat_wall"].each_minutes, found["grid_panel"].each_minutes)
