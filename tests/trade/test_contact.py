"""The compression block: equilibrium, closed forms, and what must never help."""

from math import sqrt

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import bracket_shelf, wall
from trade.fixings import wood
from trade.fixings.fastener_demand import fastener_demands, pull_sum, pulled
from trade.fixings.support import Hardware, support
from trade.load.demand import Demand
from trade.mechanics import contact
from trade.mechanics.contact import _block_middle, limit_moment, rotation_stiffness, solve_contact

HEIGHTS = st.lists(st.floats(5, 300), min_size=1, max_size=5, unique=True).map(tuple)


class Block(SimpleTestCase):
    def test_one_fastener_in_closed_form(self) -> None:
        """f a (y - a / 2) = M: a = y - sqrt(y^2 - 2 M / f); T = f a."""
        y, f, moment = 200.0, 20.0, 60_000.0
        block = y - sqrt(y**2 - 2 * moment / f)
        found = solve_contact(moment, (y,), f)
        assert found is not None
        self.assertAlmostEqual(found.block_mm, block, places=6)
        self.assertAlmostEqual(found.tension_n, f * block, places=6)

    @given(heights=HEIGHTS, f=st.floats(2, 300), share=st.floats(0.01, 0.95))
    def test_forces_and_moments_balance(
        self, heights: tuple[float, ...], f: float, share: float
    ) -> None:
        moment = share * limit_moment(max(heights), f)
        found = solve_contact(moment, heights, f)
        assert found is not None
        pressed = f * found.block_mm
        self.assertAlmostEqual(sum(found.tensions_n) / pressed, 1.0, places=5)
        turning = (
            sum(t * y for t, y in zip(found.tensions_n, heights, strict=True))
            - pressed * found.block_mm / 2
        )
        self.assertAlmostEqual(turning / moment, 1.0, places=5)
        self.assertAlmostEqual(found.tension_n, max(found.tensions_n), places=6)

    @given(
        heights=HEIGHTS,
        f=st.floats(2, 300),
        share=st.floats(0.01, 0.95),
        pull=st.floats(1, 3_000),
    )
    def test_so_they_do_when_it_is_pulled_straight_out_too(
        self, heights: tuple[float, ...], f: float, share: float, pull: float
    ) -> None:
        moment = pull * max(heights) + share * limit_moment(max(heights), f)
        found = solve_contact(moment, heights, f, pull)
        assert found is not None
        pressed = f * found.block_mm
        self.assertAlmostEqual(sum(found.tensions_n) / (pressed + pull), 1.0, places=5)
        turning = (
            sum(t * y for t, y in zip(found.tensions_n, heights, strict=True))
            - pressed * found.block_mm / 2
        )
        self.assertAlmostEqual(turning / moment, 1.0, places=5)

    @given(
        heights=HEIGHTS, f=st.floats(2, 300), share=st.floats(0.01, 0.9), more=st.floats(1.01, 3)
    )
    def test_more_moment_or_a_softer_face_pulls_harder(
        self, heights: tuple[float, ...], f: float, share: float, more: float
    ) -> None:
        moment = share * limit_moment(max(heights), f)
        base = solve_contact(moment, heights, f)
        assert base is not None
        for worse in (
            solve_contact(moment * more, heights, f),
            solve_contact(moment, heights, f / more),
        ):
            if worse is not None:
                self.assertGreaterEqual(worse.tension_n, base.tension_n * (1 - 1e-9))

    @given(
        heights=st.lists(st.floats(5, 300), min_size=2, max_size=5, unique=True),
        f=st.floats(2, 300),
        share=st.floats(0.01, 0.8),
    )
    def test_taking_a_fastener_away_never_pulls_less(
        self, heights: list[float], f: float, share: float
    ) -> None:
        moment = share * limit_moment(max(heights), f)
        whole = solve_contact(moment, tuple(heights), f)
        for gone in range(len(heights)):
            rest = solve_contact(moment, tuple(heights[:gone] + heights[gone + 1 :]), f)
            if rest is not None:
                assert whole is not None
                self.assertGreaterEqual(rest.tension_n, whole.tension_n * (1 - 1e-9))

    @given(heights=HEIGHTS, f=st.floats(2, 300), share=st.floats(0.001, 1.0))
    def test_the_least_pull_of_all_that_leave_out_the_lowest(
        self, heights: tuple[float, ...], f: float, share: float
    ) -> None:
        moment = share * limit_moment(max(heights), f)
        ranked = sorted(heights, reverse=True)
        middles = {n: _block_middle(moment, ranked[:n], f) for n in range(1, len(ranked) + 1)}
        pulls = [
            moment * (ranked[0] - c) / sum((y - c) ** 2 for y in ranked[:n])
            for n, c in middles.items()
            if c is not None
        ]
        found = solve_contact(moment, heights, f)
        assert found is not None
        self.assertAlmostEqual(found.tension_n / min(pulls), 1.0, places=6)

    @given(heights=HEIGHTS, f=st.floats(2, 300), share=st.floats(0.001, 1.0))
    def test_there_is_an_answer_right_up_to_the_limit(
        self, heights: tuple[float, ...], f: float, share: float
    ) -> None:
        """Else a check of the screws could vanish without the lining's failing."""
        self.assertIsNotNone(solve_contact(share * limit_moment(max(heights), f), heights, f))

    def test_past_the_limit_the_face_gives_way(self) -> None:
        self.assertIsNone(solve_contact(1.01 * limit_moment(100.0, 10.0), (100.0, 30.0), 10.0))
        self.assertIsNone(solve_contact(1000.0, (), 10.0))

    def test_turning_stiffness_of_one_screw_in_closed_form(self) -> None:
        """f x^2 / 2 = k (y - x); K = k (y - x)^2 + f x^3 / 3."""
        k, f, y = 4000.0, 900.0, 150.0
        x = (-k + sqrt(k * k + 2 * f * k * y)) / f
        self.assertAlmostEqual(
            rotation_stiffness((y,), k, f), k * (y - x) ** 2 + f * x**3 / 3, places=3
        )


class PulledStraightOut(SimpleTestCase):
    def test_a_pull_through_the_middle_of_the_screws_is_shared_alike(self) -> None:
        """600 N at 50, screws at 20, 50 and 80: nothing turns, nothing presses."""
        found = contact.solve_contact(600 * 50.0, (20.0, 50.0, 80.0), 40.0, 600.0)
        assert found is not None
        self.assertEqual([round(t, 6) for t in found.tensions_n], [200.0, 200.0, 200.0])
        self.assertEqual(found.block_mm, 0.0)

    def test_above_one_screw_the_foot_pries(self) -> None:
        """300 N at 70, one screw at 40, f = 30.

        T (40 − c) = 300 (70 − c), T = 300 + 60 c; c = (40 − √(1600 − 2·9000/30))/2 = 4.19.
        """
        found = contact.solve_contact(300 * 70.0, (40.0,), 30.0, 300.0)
        assert found is not None
        c = (40 - 1000**0.5) / 2
        self.assertAlmostEqual(found.tension_n, 300 + 60 * c, places=6)
        self.assertAlmostEqual(found.tension_n * (40 - c), 300 * (70 - c), places=6)

    def test_equilibrium_holds_for_any_pull_and_moment(self) -> None:
        for pull in (0.0, 50.0, 400.0):
            for at in (20.0, 90.0, 160.0):
                for heights in ((30.0,), (30.0, 90.0), (15.0, 60.0, 130.0)):
                    moment = pull * at + 9_000.0
                    found = contact.solve_contact(moment, heights, 60.0, pull)
                    self.assertEqual(
                        found is None, moment > contact.limit_moment(max(heights), 60.0, pull)
                    )
                    if found is None:
                        continue
                    pressed = 60.0 * found.block_mm
                    self.assertAlmostEqual(sum(found.tensions_n), pull + pressed, delta=0.05)
                    turned = sum(t * y for t, y in zip(found.tensions_n, heights, strict=True))
                    self.assertAlmostEqual(turned, moment + pressed * found.block_mm / 2, delta=5.0)

    def test_what_pulls_where_nothing_presses_is_written_as_it_was_solved(self) -> None:
        """100 N at the screws' middle: half each; 5 mm above it, 20 of 40 mm apart: 50 + 500 / 40.

        Two screws at one height share it, whatever their height.
        """
        for heights, moment, by_hand in (
            ((20.0, 60.0), 4_000.0, 50.0),
            ((20.0, 60.0), 4_500.0, 62.5),
            ((20.0, 20.0), 2_000.0, 50.0),
        ):
            hardware = Hardware(heights, 80.0, 40.0, wood.steel_side(2.0))
            held = support(wall(), bracket_shelf(), hardware, 0, "strap", 800.0, 1000.0)
            case = Demand("pulled", 1.6, 0.0, moment, 100.0)
            [use] = fastener_demands([held], {0: (case,)})
            with self.subTest(heights=heights, moment=moment):
                self.assertAlmostEqual(pulled(use).tension_n, by_hand)
                self.assertAlmostEqual(pull_sum(use)["T_1"], by_hand)

    def test_the_face_gives_way_beyond_its_limit(self) -> None:
        limit = contact.limit_moment(50.0, 10.0, 100.0)
        self.assertEqual(limit, 10 * 50**2 / 2 + 100 * 50)
        self.assertIsNotNone(contact.solve_contact(limit * 0.999, (50.0, 20.0), 10.0, 100.0))
        self.assertIsNone(contact.solve_contact(limit * 1.001, (50.0, 20.0), 10.0, 100.0))
