"""Boards cut to length: sound, bounded, proven where they may be; published cases."""

import random
from itertools import islice, pairwise, product

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from benchmarks.lengths import triplets
from trade import data
from trade.cutting.lengths import LengthPlan, cut_lengths, cuts_mm
from trade.cutting.pattern_generation import generate, greedy_fills, near_optimal
from trade.errors import PlanError


class Lengths(SimpleTestCase):
    def sound(
        self, plan: LengthPlan, parts: list[float], stock: list[float], kerf: float, trim: float
    ) -> None:
        self.assertEqual(
            sorted(round(part, 6) for cut in plan.cuttings for part in cut.parts_mm),
            sorted(round(part, 6) for part in parts),
        )
        for cut in plan.cuttings:
            places = cuts_mm(cut, kerf, trim)
            self.assertLessEqual(places[-1][1], stock[cut.stock] - trim + 1e-6)
            for before, after in pairwise(places):
                self.assertGreaterEqual(after[0] - before[1], kerf - 1e-9)
        self.assertLessEqual(plan.bound, plan.cost + 1e-9)

    def test_the_paper_machine(self) -> None:
        """Thirteen orders from rolls of 5 600 mm: the least is 73 rolls.

        The worked example of the encyclopaedia's article on the cutting stock problem, from memory.
        """
        orders = {
            1380: 22,
            1520: 25,
            1560: 12,
            1710: 14,
            1820: 18,
            1880: 18,
            1930: 20,
            2000: 10,
            2050: 12,
            2100: 14,
            2140: 16,
            2150: 18,
            2200: 20,
        }
        parts = [float(size) for size, many in orders.items() for _ in range(many)]
        plan = cut_lengths(parts, [5600.0], kerf_mm=0.0)
        self.sound(plan, parts, [5600.0], 0.0, 0.0)
        self.assertEqual((len(plan.cuttings), plan.proven), (73, True))

    def test_first_fit_is_not_enough_and_the_solver_proves_the_least(self) -> None:
        """By hand: 6, 5, 5, 4, 4, 3, 3 with 10 to a board fit three boards only as 6+4, 5+5, 4+3+3.

        30 of 30.
        """
        parts = [600.0, 500.0, 500.0, 400.0, 400.0, 300.0, 300.0]
        plan = cut_lengths(parts, [1000.0], kerf_mm=0.0)
        self.sound(plan, parts, [1000.0], 0.0, 0.0)
        self.assertEqual((len(plan.cuttings), plan.proven), (3, True))

    def test_the_kerf_is_never_eaten(self) -> None:
        self.assertEqual(len(cut_lengths([1000.0, 1000.0], [2000.0], kerf_mm=3.0).cuttings), 2)
        self.assertEqual(len(cut_lengths([998.5, 998.5], [2000.0], kerf_mm=3.0).cuttings), 1)
        self.assertEqual(
            len(cut_lengths([998.5, 998.5], [2000.0], kerf_mm=3.0, trim_mm=1.0).cuttings), 2
        )

    def test_the_cheapest_of_several_lengths(self) -> None:
        """By hand.

        1 900 and 500 on one of 2 440 at 9; on two of 1 830 they would not fit, on 1 830 and 3 050
        they cost 17.
        """
        plan = cut_lengths([1900.0, 500.0], [1830.0, 2440.0, 3050.0], [5.0, 9.0, 12.0])
        self.assertEqual(
            ([cut.stock for cut in plan.cuttings], plan.cost, plan.proven), ([1], 9.0, True)
        )

    @settings(max_examples=40)
    @given(
        parts=st.lists(
            st.sampled_from([180.0, 305.0, 420.0, 560.0, 730.0, 915.0, 1200.0]),
            min_size=1,
            max_size=30,
        ),
        kerf=st.sampled_from([0.0, 3.2]),
    )
    def test_any_job_is_sound_and_proven(self, parts: list[float], kerf: float) -> None:
        stock = [1828.8, 2438.4, 3048.0]
        plan = cut_lengths(parts, stock, [6.0, 8.0, 10.0], kerf, 3.0)
        self.sound(plan, parts, stock, kerf, 3.0)
        self.assertTrue(plan.proven)

    def test_a_bound_by_columns_is_none_too_high_and_near(self) -> None:
        dice = random.Random(5)
        for _ in range(12):
            parts = [float(dice.randrange(200, 1700)) for _ in range(12)]
            plan = cut_lengths(parts, [2438.4], kerf_mm=0.0)
            kinds = sorted(set(parts), reverse=True)
            known = generate(kinds, [parts.count(kind) for kind in kinds], [2438.4], [1.0])
            self.assertTrue(plan.proven)
            self.assertLessEqual(known.bound, plan.cost + 1e-6)
            self.assertGreater(known.bound, plan.cost - 1)

    def test_triplets_fill_their_boards_and_it_is_proven(self) -> None:
        """Falkenauer 1996 (J.

        Heuristics 2: 5-30): boards of 1 000 filled by three parts each; twenty boards, known
        beforehand.
        """
        parts = triplets(random.Random(11), 20)
        plan = cut_lengths(parts, [1000.0], kerf_mm=0.0)
        self.sound(plan, parts, [1000.0], 0.0, 0.0)
        self.assertEqual((len(plan.cuttings), plan.proven), (20, True))

    def test_patterns_near_the_best_are_all_that_there_are(self) -> None:
        """Against every pattern, tried one by one.

        Full, and at most so much dearer than its parts are worth.
        """
        kinds = [700.0, 450.0, 330.0]
        counts = [3, 4, 5]
        rooms = [2000.0, 1500.0]
        prices = [9.0, 7.0]
        known = generate(kinds, counts, rooms, prices)
        for slack in (0.0, 0.4, 1.5):
            full = {
                (stock, taken)
                for stock, room in enumerate(rooms)
                for taken in product(*(range(many + 1) for many in counts))
                if (left := room - sum(n * size for n, size in zip(taken, kinds, strict=True))) >= 0
                and all(
                    left < size or n == many
                    for n, size, many in zip(taken, kinds, counts, strict=True)
                )
                and prices[stock]
                - sum(n * worth for n, worth in zip(taken, known.worth, strict=True))
                <= slack + 1e-7
            }
            found, complete = near_optimal(kinds, counts, rooms, known, slack)
            self.assertEqual((set(found), len(found), complete), (full, len(full), True))

    def test_several_ways_are_whole_ways_and_keep_to_what_is_there(self) -> None:
        kinds, counts = [700.0, 450.0, 330.0], [3, 4, 5]
        known = generate(kinds, counts, [2000.0, 1500.0], [9.0, 0.5], [None, 2])
        ways = list(islice(greedy_fills(kinds, counts, [2000.0, 1500.0], [None, 2], known), 5))
        self.assertEqual(len(ways), 5)
        for way in ways:
            self.assertEqual([sum(taken[n] for _, taken in way) for n in range(3)], counts)
            self.assertLessEqual(sum(stock == 1 for stock, _ in way), 2)

    def test_boards_at_hand_are_used_first_and_no_more_than_there_are(self) -> None:
        """By hand: 600 and 600 fit the two of 700 that are there; a third is bought, 2 440 long."""
        plan = cut_lengths([600.0] * 3, [2440.0, 700.0], [9.0, 0.0], 3.0, 0.0, [None, 2])
        self.assertEqual((sorted(cut.stock for cut in plan.cuttings), plan.cost), ([0, 1, 1], 9.0))
        self.assertEqual(
            cut_lengths([600.0] * 2, [2440.0, 700.0], [9.0, 0.0], 3.0, 0.0, [None, 2]).cost, 0.0
        )
        with self.assertRaisesRegex(PlanError, "not enough boards"):
            cut_lengths([600.0] * 3, [700.0], [0.0], 3.0, 0.0, [2])

    @settings(max_examples=30)
    @given(
        parts=st.lists(
            st.sampled_from([180.0, 305.0, 420.0, 560.0, 730.0]), min_size=1, max_size=20
        ),
        hand=st.lists(st.integers(400, 2000), max_size=3, unique=True),
        many=st.integers(1, 2),
    )
    def test_what_is_at_hand_never_costs_more(
        self, parts: list[float], hand: list[int], many: int
    ) -> None:
        stock = [2438.4, 3048.0, *(float(each) for each in hand)]
        prices, limits = [8.0, 10.0] + [0.0] * len(hand), [None, None] + [many] * len(hand)
        plan = cut_lengths(parts, stock, prices, 3.2, 3.0, limits)
        self.sound(plan, parts, stock, 3.2, 3.0)
        used = [sum(cut.stock == n for cut in plan.cuttings) for n in range(2, len(stock))]
        self.assertLessEqual(max(used, default=0), many)
        self.assertLessEqual(
            plan.cost, cut_lengths(parts, stock[:2], prices[:2], 3.2, 3.0).cost + 1e-9
        )

    def test_what_is_on_sale_is_what_the_board_table_knows_at_its_actual_sizes(self) -> None:
        for key, row in data.stock().items():
            self.assertIn(row.board, data.boards(), key)
        eight = data.stock()["pine_white_1x8_8"]
        self.assertEqual(
            (eight.width_mm, eight.thickness_mm, eight.length_mm), (184.15, 19.05, 2438.4)
        )

    def test_refusals(self) -> None:
        for parts, stock, prices, kerf, said in (
            ([3000.0], [2440.0], None, 3.0, "longer than any board"),
            ([-1.0], [2440.0], None, 3.0, "must have a length"),
            ([100.0], [], None, 3.0, "no board"),
            ([100.0], [2440.0], [-2.0], 3.0, "be negative"),
            ([100.0], [2440.0], None, 99.0, "The saw kerf"),
        ):
            with self.assertRaisesRegex(PlanError, said):
                cut_lengths(parts, stock, prices, kerf)
