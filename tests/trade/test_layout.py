"""Laying out.

The best place and length, rows, hooks, battens, peg grids, whole walls, and what the wall would
carry where.
"""

from itertools import combinations, pairwise
from typing import Any

from django.test import SimpleTestCase
from hypothesis import example, given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import STUDS, bracket_shelf, plan, rod_shelf, wall
from tests.trade.test_every_kind import put_up
from trade.assess import assess, assess_piece
from trade.choose import placement, stud_layouts
from trade.choose.arrange import arrange
from trade.choose.capacity_map import map_capacity, settled
from trade.choose.findings import findings
from trade.choose.fitted import fitted
from trade.choose.hooks import fewest_rows, spread_along
from trade.choose.order import deeper, heavier, order, order_deeper
from trade.choose.policy_effects import effects, followed
from trade.choose.request import wish_for
from trade.choose.stack import stack
from trade.errors import PlanError
from trade.marking.marks import marks
from trade.mounts import KINDS, mount_of
from trade.mounts.peg_wall import grid
from trade.mounts.surroundings import crowded
from trade.plan.features import Feature
from trade.plan.model import Plan, Policy, Stud, Thing

WINDOW = Feature(kind="window", left_mm=1300.0, right_mm=2100.0, bottom_mm=900.0, top_mm=2000.0)
OUTLET = Feature(kind="outlet", left_mm=770.0, right_mm=830.0, bottom_mm=1300.0, top_mm=1420.0)


BETWEEN = bracket_shelf(
    left_mm=850.0,
    length_mm=300.0,
    supports_mm=(60.0, 240.0),
    anchor="toggle_14",
    things=(Thing(name="Light", mass_kg=1.0),),
    use="display",
    depth_mm=140.0,
)
"""Between the studs at 800 and 1 200 mm, on anchors."""


class Slots(SimpleTestCase):
    @example(middle=300.0, length=300.5, shift=0.0, grow=0.0, places=[190.0, 351.0], blocked=[])
    @settings(max_examples=200)
    @given(
        middle=st.floats(300, 2900),
        length=st.floats(300, 1600),
        shift=st.floats(0, 400),
        grow=st.floats(0, 300),
        places=st.lists(st.floats(50, 3150), min_size=0, max_size=8, unique=True),
        blocked=st.sampled_from([[], [(1000.0, 1700.0)]]),
    )
    def test_every_place_found_is_within_the_limits_and_none_nearer_is_left_out(
        self,
        middle: float,
        length: float,
        shift: float,
        grow: float,
        places: list[float],
        blocked: Any,
    ) -> None:
        limits, studs = stud_layouts.Limits(shift, grow), sorted(places)
        found = stud_layouts.on_studs(wall(), middle, length, limits, studs, blocked)
        for slot in found:
            self.assertTrue(slot.left_mm >= -1e-6 and slot.left_mm + slot.length_mm <= 3200 + 1e-6)
            self.assertLessEqual(abs(slot.moved_mm), shift + 1e-5)
            self.assertLessEqual(abs(slot.grown_mm), grow + 1e-5)
            self.assertTrue(
                all(
                    any(abs(slot.left_mm + x - stud) < 1e-6 for stud in studs)
                    for x in slot.supports_mm
                )
            )
            self.assertGreaterEqual(slot.supports_mm[0], stud_layouts.SHORTEST_OVERHANG_MM - 1e-6)
            self.assertLessEqual(slot.supports_mm[0], slot.length_mm / 3 + 1e-6)
            self.assertTrue(
                all(
                    slot.left_mm + slot.length_mm <= a + 1e-6 or slot.left_mm >= b - 1e-6
                    for a, b in blocked
                )
            )
        # as it was wished, it is never refused when two studs carry it there
        left = middle - length / 2
        carried = any(
            a - left >= 40
            and left + length - b >= 40
            and a - left <= length / 3
            and left + length - b <= length / 3
            for a, b in combinations(studs, 2)
        )
        if carried and 0 <= left <= 3200 - length and not blocked:
            self.assertAlmostEqual(found[0].trouble_mm, 0.0, places=6)

    def test_supports_keep_clear_of_boxes(self) -> None:
        on = wall(features=(OUTLET,))
        placed = placement.on_studs(bracket_shelf(left_mm=350.0, length_mm=1300.0), on)
        self.assertEqual([placed.left_mm + x for x in placed.supports_mm], [400.0, 1200.0, 1600.0])
        self.assertNotIn(
            "wont_hold",
            [
                check.outcome
                for check in assess_piece(placed, on).checks
                if check.code == "hole.service"
            ],
        )

    def test_a_crooked_shelf_is_moved_and_grown_to_where_it_holds(self) -> None:
        crooked = plan(bracket_shelf(left_mm=830.0, length_mm=380.0, supports_mm=(60.0, 300.0)))
        self.assertEqual(assess(crooked).outcome, "wont_hold")
        better = fitted(crooked, "shelf")
        self.assertEqual(assess(crooked.with_piece(better)).outcome, "holds")
        self.assertLessEqual(abs(better.length_mm - 380.0), 150.0)


class Rows(SimpleTestCase):
    def test_fitted_to_the_things_with_a_hands_room(self) -> None:
        low = plan(
            bracket_shelf(top_mm=500.0, things=(Thing(name="Books", mass_kg=15.0, high_mm=240.0),))
        )
        made = stack(low, "shelf", "fitted", 3, (300.0, 250.0))
        self.assertEqual(
            [piece.top_mm for piece in made.pieces],
            [500.0, 500 + 300 + 40 + 320, 1160.0 + 250 + 40 + 320],
        )  # leg 300 + board 20
        self.assertEqual(len({piece.key for piece in made.pieces}), 3)
        self.assertEqual(assess(made).outcome, "holds")

    def test_equal_and_graded_openings(self) -> None:
        low = plan(rod_shelf(top_mm=400.0))
        for manner, ratio in (("equal", 1.0), ("graded", 0.85)):
            made = stack(low, "ledge", manner, 4, (), 1900.0)  # type: ignore[arg-type]
            heights = [piece.top_mm for piece in made.pieces]
            openings = [above - below - 95.0 for below, above in pairwise(heights)]
            self.assertAlmostEqual(heights[-1], 1900.0)
            for one, following in pairwise(openings):
                self.assertAlmostEqual(following / one, ratio)

    def test_refusals(self) -> None:
        for manner, count, tall, high, said in (
            ("fitted", 1, (200.0,), None, "2 to 12 rows"),
            ("fitted", 3, (), None, "How tall"),
            ("fitted", 5, (400.0,), None, "the wall has"),
            ("equal", 3, (), 1000.0, "far enough above"),
            ("equal", 10, (), 2300.0, "rows leave"),
            ("equal", 3, (900.0,), 2300.0, "tallest thing"),
        ):
            with self.subTest(said=said), self.assertRaisesRegex(PlanError, said):
                stack(plan(rod_shelf(top_mm=1200.0)), "ledge", manner, count, tall, high)  # type: ignore[arg-type]


class Along(SimpleTestCase):
    def test_hooks_catch_studs_and_the_heaviest_hangs_where_most_may(self) -> None:
        things = (Thing(name="Coats", mass_kg=6.0), Thing(name="Bag", mass_kg=4.0, at_mm=10.0))
        rail = put_up("rail", wall(), things=things)
        hung = spread_along(rail, plan(rail), 5)
        self.assertEqual(len(hung.things), 5)
        self.assertAlmostEqual(sum(thing.mass_kg or 0.0 for thing in hung.things), 10.0)
        self.assertEqual(len({thing.at_mm for thing in hung.things}), 5)
        on_stud = [
            thing
            for thing in hung.things
            if any(abs((thing.at_mm or 0.0) - x) < 1e-6 for x in rail.supports_mm)
        ]
        self.assertIn("Bag", [thing.name for thing in on_stud])
        with self.assertRaisesRegex(PlanError, "Nothing hangs"):
            spread_along(replace(rail, things=()), plan(rail))

    def test_the_fewest_battens_that_hold(self) -> None:
        panel = put_up("panel", wall(), things=(Thing(name="Tools", mass_kg=20.0),))
        now = plan(panel)
        best = fewest_rows(now, panel.key)
        assert best is not None
        self.assertEqual(assess(now.with_piece(best)).outcome, "holds")
        if best.rows > 2:  # type: ignore[union-attr]
            self.assertNotEqual(
                assess(now.with_piece(replace(best, rows=best.rows - 1))).outcome, "holds"
            )  # type: ignore[union-attr, call-arg]

    def test_a_peg_grid_takes_turns_and_keeps_off_the_battens_screws(self) -> None:
        for height in (700.0, 800.0, 880.0, 910.0):
            pegs: Any = put_up("peg_wall", wall(), height_mm=height)
            made = grid(pegs)
            self.assertEqual((made.across, made.up), (10, int(height // 100)))
            heights = [made.foot_mm + j * pegs.grid_mm for j in range(made.up)]
            self.assertTrue(heights[0] > 0 and heights[-1] < height)
            clear = [abs(at - screw) for at in heights for screw in pegs.rows_mm]
            self.assertGreaterEqual(min(clear), pegs.peg_mm / 2 + 4.0, height)
            large = sum(made.large(i, j) for i, j in made.places)
            self.assertLessEqual(abs(2 * large - len(made.places)), 1)
            self.assertFalse(made.large(0, 0) and made.large(0, 1))


class WholeWall(SimpleTestCase):
    def test_several_things_hang_without_getting_in_each_others_way(self) -> None:
        now = Plan(name="Wall", units="metric", wall=wall(features=(WINDOW,)))
        asked = (("books", 700.0), ("books", 700.0), ("plant_small", 4.0), ("coats", 4.0))
        wishes = tuple(
            replace(wish_for(now, what, much, 1000.0, 1500.0), key=f"w{n}")
            for n, (what, much) in enumerate(asked)
        )
        done = arrange(now, wishes)
        self.assertEqual(len(done.placed) + len(done.left_over), len(wishes))
        self.assertGreaterEqual(len(done.placed), 3)
        self.assertEqual(assess(done.plan).outcome, "holds")
        boxes = [mount_of(piece).box(piece) for piece in done.plan.pieces]
        self.assertTrue(all(crowded(a, b) is None for a, b in combinations(boxes, 2)))

    def test_what_finds_no_place_is_left_over(self) -> None:
        narrow = Plan(
            name="Niche",
            units="metric",
            wall=wall(
                width_mm=700.0,
                height_mm=1000.0,
                studs=(Stud(centre_mm=150.0), Stud(centre_mm=550.0)),
            ),
        )
        wishes = tuple(
            replace(wish_for(narrow, "reference", 500.0, 350.0, 900.0), key=f"w{n}")
            for n in range(4)
        )
        done = arrange(narrow, wishes)
        self.assertTrue(done.left_over)
        self.assertIn(assess(done.plan).outcome, ("holds",))


class Spots(SimpleTestCase):
    def test_what_is_shaded_is_what_assess_says_there(self) -> None:
        for piece in (
            bracket_shelf(),
            put_up("rail", wall(), things=(Thing(name="Coats", mass_kg=5.0),)),
        ):
            now = plan(piece, features=(WINDOW,))
            carried = sum(thing.mass_kg or 0.0 for thing in piece.things)
            for column in map_capacity(piece, now, 175.0):
                for low, high in column.heights_mm[:1]:
                    there = settled(
                        replace(piece, left_mm=column.left_mm, top_mm=(low + high) / 2), now.wall
                    )
                    for share, good in ((1.0, True), (1.08, False)):
                        tried = heavier(there, column.kg / carried * share)
                        word = assess_piece(tried, now.wall).outcome
                        if column.kg and column.kg < 7.9 * carried:
                            failing = [
                                c
                                for c in assess_piece(tried, now.wall).checks
                                if c.gradual and c.utilisation > 0.8
                            ]
                            self.assertEqual(
                                not failing, good, (piece.key, column.left_mm, share, word)
                            )

    def test_free_heights_clear_the_window_other_pieces_and_what_stands_on_them(self) -> None:
        tall = (Thing(name="Vase", mass_kg=2.0, high_mm=350.0),)
        now = plan(
            bracket_shelf(things=tall),
            rod_shelf(top_mm=700.0, left_mm=700.0, things=tall),
            features=(WINDOW,),
        )
        free = 0
        for column in map_capacity(now.pieces[0], now, 100.0):
            for low, high in column.heights_mm:
                for top in (low, high):
                    there = settled(
                        replace(now.pieces[0], left_mm=column.left_mm, top_mm=top), now.wall
                    )
                    verdict = assess(now.with_piece(there))
                    codes = [
                        check.code
                        for piece in verdict.pieces
                        for check in piece.checks
                        if check.code.startswith(("piece.", "fit.")) and check.utilisation > 1
                    ]
                    self.assertEqual(codes, [], (column.left_mm, top))
                    free += 1
        self.assertGreater(free, 15)


class GivingWay(SimpleTestCase):
    def test_each_fails_at_its_factor_and_in_that_order(self) -> None:
        shelf = bracket_shelf()
        for found, changed in (
            (order(shelf, plan()), heavier),
            (order_deeper(shelf, plan()), deeper),
        ):
            self.assertTrue(found)
            self.assertEqual([each.factor for each in found], sorted(each.factor for each in found))
            for each in found[:3]:
                for factor, fails in ((each.factor * 0.97, False), (each.factor * 1.03, True)):
                    check = next(
                        c
                        for c in assess_piece(changed(shelf, factor), wall()).checks
                        if c.code == each.code
                    )
                    self.assertEqual(check.utilisation > 1, fails, (each.code, factor))


class Schools(SimpleTestCase):
    def said(self, now: Plan, question: str, answer: str) -> list[str]:
        from trade import wording

        found = next(
            each for each in effects(now, question, now.pieces[0].key) if each.answer == answer
        )
        return [wording.phrase(change, now.units) for change in found.changes]

    def test_plates_over_the_lining_are_told_with_what_assess_says(self) -> None:
        now = plan(rod_shelf(things=(Thing(name="Cups", mass_kg=4.0),)))
        then = assess(followed(now, "plates", "over")).pieces[0]
        [line] = [line for line in self.said(now, "plates", "over") if line.startswith("“Ledge”")][
            :1
        ]
        self.assertIn(f"{-int(-then.governing.utilisation * 100 // 1)} %", line)

    def test_lead_holes_only_where_they_are_needed(self) -> None:
        now = plan(bracket_shelf())
        drilled, bare = (
            sum(mark.bit_mm is not None for mark in marks(each))
            for each in (now, replace(now, policy=Policy(lead_holes="needed")))
        )
        self.assertEqual((drilled, bare), (8, 0))  # spruce: NDS asks for none
        self.assertIn("8 fewer holes", self.said(now, "lead_holes", "needed")[0])

    def test_studs_only_takes_the_anchors_away(self) -> None:
        self.assertIn("won't hold", " ".join(self.said(plan(BETWEEN), "anchors", "studs_only")))

    def test_an_anchor_where_only_studs_were_agreed_is_told(self) -> None:
        for answer, word in (("studs_first", "holds"), ("studs_only", "holds_but")):
            verdict = assess(replace(plan(BETWEEN), policy=Policy(anchors=answer))).piece("shelf")  # type: ignore[arg-type]
            self.assertEqual(
                verdict.outcome, word, [c.code for c in verdict.checks if c.outcome != "holds"]
            )

    def test_whose_practice(self) -> None:
        box = put_up("box_shelf", wall(), things=(Thing(name="Films", mass_kg=8.0),))
        self.assertTrue(self.said(plan(box), "school", "european"))

    def test_every_school_of_every_kind_can_be_followed(self) -> None:
        for kind in KINDS:
            piece = put_up(kind, wall(studs=STUDS), things=(Thing(name="Light", mass_kg=2.0),))
            now = plan(piece)
            for question in ("plates", "stays", "made", "hollow", "lead_holes", "level"):
                with self.subTest(kind=kind, question=question):
                    self.assertTrue(effects(now, question))
        self.assertEqual(findings(plan(bracket_shelf()), "shelf"), ())
