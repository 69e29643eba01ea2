"""The practice wall's rules.

The same again by number, lamps, scores against the truth, and the fewest readings.
"""

from django.test import SimpleTestCase

from trade.devices import practice
from trade.devices.hidden import LEVELS, HiddenWall, Member, Service, build, level_named
from trade.devices.practice import Score, Tally, fewest, lit, score, set_up, swept, tally
from trade.errors import PlanError
from trade.plan.readings import Edge, Probe, Sweep

PLAIN = LEVELS["plain"]
WALL = HiddenWall(
    1,
    2000.0,
    400.0,
    (Member(400, 38, "single"), Member(800, 76, "double"), Member(1600, 38, "single", 2200.0)),
    (Service(1200, 20, "pipe"),),
)


class Rules(SimpleTestCase):
    def test_a_reading_of_the_same_number_says_the_same_however_far_the_finder_went(self) -> None:
        whole, part = (swept(set_up(5, PLAIN, 3), 0.0, far, 1300.0) for far in (2000.0, 900.0))
        self.assertEqual(
            [r for r in part if isinstance(r, Edge)],
            [r for r in whole if isinstance(r, Edge) and r.at_mm <= 900],
        )
        self.assertEqual(part[0], Sweep(from_mm=0.0, to_mm=900.0, height_mm=1300.0))
        self.assertEqual(swept(set_up(5, PLAIN, 3), 900.0, 0.0, 1300.0), part)
        self.assertNotEqual(swept(set_up(5, PLAIN, 4), 0.0, 2000.0, 1300.0), whole)

    def test_the_lamp_is_on_between_a_left_and_a_right_edge(self) -> None:
        told = (Edge(at_mm=100, side="left"), Edge(at_mm=140, side="right"))
        self.assertEqual([lit(told, x) for x in (50, 120, 160)], [False, True, False])

    def test_calls_against_the_truth_at_chest_height(self) -> None:
        """400 right on, 795 on the double, 417 in the wood's edge.

        1 205 on a pipe, 1 600 has a cripple far above only.
        """
        self.assertEqual(
            tally(WALL, [401.0, 770.0, 1205.0, 1600.0]),
            Tally(found=2, edge=0, missed=0, false=2, services=1),
        )
        self.assertEqual(
            tally(WALL, [417.0]), Tally(found=0, edge=1, missed=1, false=0, services=0)
        )
        self.assertEqual(tally(WALL, []), Tally(0, 0, 2, 0, 0))

    def test_a_perfect_go(self) -> None:
        hidden = build(3, PLAIN)
        calls = [m.centre_mm for m in hidden.members_at(practice.CHEST_MM)]
        got = score(
            3, PLAIN, calls, swept(set_up(3, PLAIN, 1), 0, hidden.width_mm, 1300), 1, "timber"
        )
        self.assertTrue(got.perfect)
        self.assertEqual(
            (got.studs, got.yours.missed, got.named, got.hits), (len(calls), 0, True, 0)
        )
        assert got.fewest is not None
        self.assertLessEqual(got.fewest, 6)
        self.assertFalse(score(3, PLAIN, calls[1:], [], 0, None).perfect)

    def test_a_nail_into_a_pipe_is_told(self) -> None:
        level, seed = LEVELS["services"], 12
        pipe = next(s for s in build(seed, level).services if s.kind == "pipe")
        got = score(seed, level, [], [Probe(at_mm=pipe.centre_mm, met="metal")], 1, "brick_solid")
        self.assertEqual((got.nails, got.hits, got.named), (1, 1, False))

    def test_every_level_can_be_won_and_harder_ones_take_more(self) -> None:
        took = {
            key: [fewest(seed, level) for seed in range(3)]
            for key, level in LEVELS.items()
            if key != "anything"
        }
        for key, counts in took.items():
            self.assertNotIn(None, counts, key)
        self.assertLess(sum(took["plain"]), sum(took["plaster"]))  # type: ignore[arg-type]

    def test_whatever_it_is_has_steel_brick_foil_and_a_flat_battery(self) -> None:
        level = LEVELS["anything"]
        walls = [build(seed, level) for seed in range(40)]
        self.assertLessEqual(
            {"timber", "steel_25", "brick_solid"}, {wall.structure for wall in walls}
        )
        self.assertTrue(any(wall.foil for wall in walls))
        self.assertTrue(any(set_up(seed, level).faults.dead for seed in range(40)))
        with self.assertRaisesRegex(PlanError, "Levels: plain"):
            level_named("easy")

    def test_masonry_is_won_by_calling_nothing_and_naming_it(self) -> None:
        level = LEVELS["anything"]
        seed = next(seed for seed in range(40) if build(seed, level).structure == "brick_solid")
        got: Score = score(seed, level, [], [], 0, "brick_solid")
        self.assertEqual((got.studs, got.perfect, got.named), (0, True, True))
