"""The finish and the days, by hand.

What goes over what, how much of it, when it hangs and when it may be loaded.
"""

from datetime import date, datetime, timedelta
from itertools import pairwise

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, rod_shelf, wall
from tests.trade.test_every_kind import put_up
from trade import data
from trade.cutting.finish import finishing
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.errors import PlanError
from trade.job.days import Schedule, schedule
from trade.plan.model import Plan, Shop, Thing
from trade.plan.shop import Days, Finish, Hours

BARE = Finish()
MONDAY = datetime(2026, 11, 23, 8, 0)
ALWAYS = Days(week=(Hours(begins=0, ends=24),) * 7, helper=(0, 1, 2, 3, 4, 5, 6))


def planned(finish: Finish = BARE, days: Days = ALWAYS, **changes: object) -> Plan:
    shelf = bracket_shelf(**changes)
    return replace(plan(shelf), shop=Shop(finish=finish, days=days))


def days_of(now: Plan, today: datetime = MONDAY) -> Schedule:
    return schedule(now, cut_plan(now), today)


class WhatGoesOverWhat(SimpleTestCase):
    def test_a_barrier_between_oil_stain_and_water_borne_varnish(self) -> None:
        done = finishing(Finish(first="oil_stain", top="water_varnish"), [])
        self.assertEqual(
            [(each.key, each.coats) for each in done.coats],
            [("oil_stain", 1), ("shellac", 1), ("water_varnish", 3)],
        )
        self.assertIn("oil stain", done.coats[1].why)
        self.assertEqual(
            [
                each.key
                for each in finishing(Finish(first="oil_stain", top="oil_varnish"), []).coats
            ],
            ["oil_stain", "oil_varnish"],
        )

    def test_nothing_goes_over_wax_and_a_barrier_does_not_help(self) -> None:
        for top in ("oil_varnish", "water_varnish", "paint"):
            self.assertIn("does not go over", finishing(Finish(top=top, old="wax"), []).refusal)
        self.assertEqual(finishing(Finish(top="wax", old="wax"), []).refusal, "")
        self.assertEqual(
            [each.key for each in finishing(Finish(top="paint", old="oil"), []).coats],
            ["shellac", "paint"],
        )

    def test_cold_refuses_and_cool_takes_longer(self) -> None:
        self.assertIn(
            "does not dry", finishing(Finish(top="water_varnish", temp_c=4.0), []).refusal
        )
        self.assertEqual(finishing(Finish(top="water_varnish", temp_c=10.0), []).slower, 2.0)
        self.assertEqual(finishing(Finish(top="water_varnish", temp_c=30.0), []).slower, 1.0)

    def test_every_way_of_finishing_is_refused_or_never_lays_what_should_not_meet(self) -> None:
        bad = {(row.under, row.over) for row in data.over().values()}
        firsts = [None, *(key for key, row in data.coatings().items() if row.role == "first")]
        tops = [None, *(key for key, row in data.coatings().items() if row.role != "first")]
        for old in ("bare", "oil", "water", "shellac", "wax"):
            for first in firsts:
                for top in tops:
                    done = finishing(Finish(first=first, top=top, old=old), [])  # type: ignore[arg-type]
                    bases = [old, *(each.row.base for each in done.coats)]
                    self.assertFalse(
                        not done.refusal and any(pair in bad for pair in pairwise(bases)),
                        (old, first, top),
                    )

    def test_how_much_by_hand(self) -> None:
        """A board of 1 000 × 250 × 20 all round is 0.55 m².

        Three coats at 12 m² a litre are 0.1375 l: one tin of a quarter.
        """
        now = planned(Finish(top="oil_varnish"))
        buying = shopping(now, cut_plan(now), "metric")
        self.assertAlmostEqual(
            buying.finishing.area_m2, 2 * (1.0 * 0.25 + 1.0 * 0.02 + 0.25 * 0.02), places=9
        )
        [tin] = [line for line in buying.lines if line.aisle == "finish"]
        self.assertAlmostEqual(tin.needed, 0.55 * 3 / 12, places=9)
        self.assertEqual((tin.pack, tin.packs, tin.unit), (0.25, 1, "l"))

    def test_products_are_where_they_belong(self) -> None:
        for fields in (
            {"first": "paint"},
            {"top": "oil_stain"},
            {"top": "chalk"},
            {"coats": 0},
            {"temp_c": 90.0},
        ):
            with self.assertRaises(PlanError):
                Finish(**fields)  # type: ignore[arg-type]


class TheDays(SimpleTestCase):
    def test_around_the_clock_by_hand(self) -> None:
        """Bare.

        An hour in the shop, one part sawn, hung at once; the minutes are those of the house.
        """
        steps = days_of(planned()).steps
        self.assertEqual([step.what for step in steps], ["shop", "saw", "hang", "load"])
        self.assertEqual((steps[0].begins, steps[0].ends), (MONDAY, MONDAY + timedelta(hours=1)))
        self.assertEqual(steps[1].ends - steps[1].begins, timedelta(minutes=3))
        # 15, the brackets' own 5 each by the table of kinds, eight holes of 1.5 in timber
        each = data.mounting_kinds()["bracket_shelf"].each
        self.assertAlmostEqual(steps[2].minutes, 15 + 2 * each + 8 * 1.5)
        self.assertEqual(steps[3].begins, steps[2].ends)

    def test_coats_dry_by_the_clock_and_it_is_loaded_when_it_is_hard(self) -> None:
        """Oil varnish.

        Three coats 12 h apart, 24 h before hands touch it, 7 days after the last before books stand
        on it.
        """
        steps = days_of(planned(Finish(top="oil_varnish"))).steps
        coats = [step for step in steps if step.what == "coat"]
        self.assertEqual(len(coats), 3)
        for before, after in pairwise(coats):
            self.assertEqual(after.begins - before.ends, timedelta(hours=12))
        hang, load = steps[-2], steps[-1]
        self.assertEqual(hang.begins - coats[-1].ends, timedelta(hours=24))
        self.assertEqual(load.begins - coats[-1].ends, timedelta(days=7))
        self.assertTrue(coats[1].name.startswith("Sand lightly"))
        cool = days_of(planned(Finish(top="oil_varnish", temp_c=10.0))).steps
        self.assertEqual(
            cool[-1].begins - [s for s in cool if s.what == "coat"][-1].ends, timedelta(days=14)
        )

    def test_evenings_and_a_helper_on_saturday(self) -> None:
        """Monday 8:00, evenings from six.

        To the shop at six; what two must lift waits for Saturday, 28 November.
        """
        evening = Hours(begins=18, ends=21)
        days = Days(week=(evening,) * 5 + (Hours(begins=9, ends=17), None), helper=(5,))
        steps = days_of(planned(days=days)).steps
        self.assertEqual((steps[0].begins.hour, steps[-2].begins.date()), (18, date(2026, 11, 23)))
        heavy = planned(days=days, thickness_mm=150.0, depth_mm=400.0, length_mm=1900.0)
        steps = days_of(heavy).steps
        self.assertGreater(steps[-2].people, 1)
        self.assertEqual(steps[-2].begins, datetime(2026, 11, 28, 9, 0))
        self.assertIn(
            "name a day",
            days_of(replace(heavy, shop=Shop(days=replace(days, helper=())))).refusal,
        )

    def test_resin_sets_before_anything_hangs_on_it(self) -> None:
        now = replace(
            plan(bracket_shelf(anchor="resin_8"), structure="concrete", studs=()),
            shop=Shop(days=ALWAYS),
        )
        steps = days_of(now).steps
        self.assertEqual(steps[-1].begins - steps[-2].ends, timedelta(hours=24))

    def test_it_begins_on_the_day_that_was_said_and_never_in_the_past(self) -> None:
        later = days_of(planned(days=replace(ALWAYS, start=date(2026, 12, 1))))
        self.assertEqual(later.steps[0].begins, datetime(2026, 12, 1))
        past = days_of(planned(days=replace(ALWAYS, start=date(2020, 1, 1))))
        self.assertGreaterEqual(past.steps[0].begins, MONDAY)

    def test_refusals(self) -> None:
        self.assertIn("Nothing hangs", days_of(replace(plan(), pieces=())).refusal)
        self.assertIn("does not dry", days_of(planned(Finish(top="paint", temp_c=0.0))).refusal)
        for fields in ({"week": (None,) * 7}, {"helper": (9,)}):
            with self.assertRaises(PlanError):
                Days(**fields)  # type: ignore[arg-type]
        for begins, ends in ((18.0, 18.0), (20.0, 9.0), (-1.0, 4.0), (3.0, 25.0)):
            with self.assertRaises(PlanError):
                Hours(begins=begins, ends=ends)

    @settings(max_examples=60)
    @given(
        hours=st.lists(
            st.one_of(st.none(), st.tuples(st.integers(0, 20), st.integers(2, 4))),
            min_size=7,
            max_size=7,
        ).filter(any),
        start=st.integers(0, 24 * 14),
        top=st.sampled_from([None, "oil_varnish", "water_varnish", "wax"]),
        kind=st.sampled_from(["bracket_shelf", "peg_wall", "box_shelf"]),
    )
    def test_steps_follow_one_another_in_hours_that_there_are(
        self, hours: list[tuple[int, int] | None], start: int, top: str | None, kind: str
    ) -> None:
        week = tuple(h and Hours(begins=float(h[0]), ends=float(h[0] + h[1])) for h in hours)
        days = Days(week=week, helper=(0, 1, 2, 3, 4, 5, 6))  # type: ignore[arg-type]
        piece = put_up(kind, wall(), things=(Thing(name="Load", mass_kg=3.0),))
        now = replace(plan(piece), shop=Shop(finish=Finish(top=top), days=days))
        steps = days_of(now, MONDAY + timedelta(hours=start)).steps
        self.assertTrue(steps)
        for before, after in pairwise(steps):
            self.assertGreaterEqual(
                after.begins,
                before.ends + timedelta(hours=before.waits_hours) - timedelta(seconds=1),
            )
        for step in steps[:-1]:
            open_from = week[step.begins.weekday()]
            self.assertIsNotNone(open_from)
            at = step.begins.hour + step.begins.minute / 60 + step.begins.second / 3600
            assert open_from is not None
            self.assertTrue(open_from.begins - 1e-6 <= at <= open_from.ends)


class BoredFromTheWall(SimpleTestCase):
    def test_rods_go_up_and_the_shelf_is_bored_before_its_finish(self) -> None:
        now = replace(
            plan(rod_shelf(), bracket_shelf()),
            shop=Shop(finish=Finish(top="oil_varnish"), days=ALWAYS),
        )
        steps = days_of(now).steps
        whats = [step.what for step in steps]
        self.assertEqual(whats[:5], ["shop", "saw", "glue", "mount", "sand"])
        self.assertIn("“Ledge”", steps[3].name)
        alone = days_of(replace(plan(rod_shelf(), bracket_shelf()), shop=Shop(days=ALWAYS)))
        self.assertNotIn(
            "mount", [step.what for step in alone.steps]
        )  # bare wood waits for nothing
        minutes = [
            sum(step.minutes for step in found.steps if step.what in ("mount", "hang"))
            for found in (days_of(now), alone)
        ]
        self.assertAlmostEqual(*minutes)
