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
from trade.cutting.finish import finish_of, finishing
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.errors import PlanError
from trade.job.days import Schedule, schedule
from trade.job.steps import steps as steps_of
from trade.plan.model import Plan, Shop, Thing
from trade.plan.shop import Days, Finish, FinishOf, Have, Hours

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
            buying.finishes[0].done.area_m2, 2 * (1.0 * 0.25 + 1.0 * 0.02 + 0.25 * 0.02), places=9
        )
        [tin] = [line for line in buying.lines if line.key.startswith("finish:")]
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


class ByPart(SimpleTestCase):
    """A painted ledger under a varnished shelf: each is its own finish, in one order of days."""

    def made(self, **changes: object) -> Plan:
        shelf, ledge = bracket_shelf(), bracket_shelf(key="ledge", name="Ledge", top_mm=700.0)
        own = FinishOf(piece="ledge", finish=Finish(first="oil_stain", top="oil_varnish"))
        shop = Shop(finish=Finish(top="paint"), finishes=(own,), days=ALWAYS)
        return replace(plan(shelf, ledge), shop=replace(shop, **changes))

    def test_a_part_s_own_counts_before_its_piece_s_and_that_before_all(self) -> None:
        wax, oil = Finish(top="wax"), Finish(top="drying_oil")
        of = {"shelf": ("ledge", "board"), "all": ("ledge", None)}
        both = tuple(
            FinishOf(piece=of[key][0], part=of[key][1], finish=finish)
            for key, finish in (("shelf", wax), ("all", oil))
        )
        now = self.made(finishes=both)
        found = {part.key: finish_of(part, now.shop).top for part in cut_plan(now).parts}
        self.assertEqual(found, {"shelf": "paint", "ledge": "wax"})
        now = self.made(finishes=both[1:])
        found = {part.key: finish_of(part, now.shop).top for part in cut_plan(now).parts}
        self.assertEqual(found, {"shelf": "paint", "ledge": "drying_oil"})
        cold = self.made(finishes=both, finish=Finish(top="paint", temp_c=12.0, humid_pct=60.0))
        rooms = {finish_of(part, cold.shop) for part in cut_plan(cold).parts}
        self.assertEqual({(each.temp_c, each.humid_pct) for each in rooms}, {(12.0, 60.0)})

    def test_each_gets_its_coats_and_both_are_bought(self) -> None:
        now = self.made()
        tins = {line.key: line.needed for line in shopping(now, cut_plan(now), "metric").lines}
        self.assertAlmostEqual(tins["finish:paint"], 0.55 * 2 / 10, places=9)
        self.assertAlmostEqual(tins["finish:oil_varnish"], 0.55 * 3 / 12, places=9)
        steps = days_of(now).steps
        coats = [step.name for step in steps if step.what == "coat"]
        self.assertEqual(len(coats), 2 + 1 + 3)
        self.assertTrue(all("(1a)" in name or "(2a)" in name for name in coats))
        # one is sanded while the other dries, and nobody does two things at once
        busy = sorted((step.begins, step.ends) for step in steps if step.minutes)
        self.assertTrue(all(a[1] <= b[0] for a, b in pairwise(busy)))
        alone = days_of(self.made(finish=Finish())).steps
        first = next(step for step in alone if step.what == "hang")
        hang = next(step for step in steps if step.what == "hang")
        self.assertLess(hang.begins - first.begins, timedelta(hours=2))

    def test_what_goes_on_at_the_wall_waits_for_the_hang_and_is_caulked_first(self) -> None:
        now = planned(Finish(top="paint", hung=True))
        whats = [step.what for step in days_of(now).steps]
        self.assertEqual(whats[:3], ["shop", "saw", "hang"])
        names = [step.name for step in days_of(now).steps if step.what == "prepare"]
        self.assertTrue(names[0].startswith("Caulk"), names)
        load, last = days_of(now).steps[-1], days_of(now).steps[-2]
        self.assertEqual(load.begins - last.ends, timedelta(days=10))
        keys = [line.key for line in shopping(now, cut_plan(now), "metric").lines]
        self.assertIn("prepare:caulk", keys)
        told = [step.key for step in steps_of(now, "shelf", "metric")]
        self.assertLess(told.index("finish-hung"), told.index("harden"))
        before = planned(Finish(top="paint"))
        names = [step.name for step in days_of(before).steps]
        self.assertFalse([name for name in names if name.startswith("Caulk")])
        keys = [line.key for line in shopping(before, cut_plan(before), "metric").lines]
        self.assertNotIn("prepare:caulk", keys)
        self.assertNotIn("finish-hung", [s.key for s in steps_of(before, "shelf", "metric")])

    def test_wood_is_prepared_for_what_goes_on_it(self) -> None:
        """Stained pine is conditioned and tried on an offcut; painted pine has knots sealed."""
        for top, first, wanted, never in (
            ("oil_varnish", "oil_stain", ["Brush on wood conditioner", "Try it all"], "knots"),
            ("paint", None, ["Fill screw holes", "Seal the knots"], "conditioner"),
            ("wax", None, [], "knots"),
        ):
            steps = days_of(planned(Finish(top=top, first=first), board="pine_white")).steps
            names = [step.name for step in steps if step.what == "prepare"]
            for each in wanted:
                self.assertTrue(any(name.startswith(each) for name in names), (top, names))
            self.assertFalse([name for name in names if never in name])
        mdf = days_of(planned(Finish(top="paint"), board="mdf")).steps
        self.assertTrue(any(step.name == "Seal the cut edges" for step in mdf))
        sanded = next(
            step
            for step in days_of(planned(Finish(top="oil_varnish"))).steps
            if step.what == "sand"
        )
        self.assertIn("80, 120, 180", sanded.why)

    def test_damp_air_dries_slowly_and_then_not_at_all(self) -> None:
        self.assertEqual(finishing(Finish(top="wax", humid_pct=71.0), []).slower, 1.5)
        self.assertEqual(finishing(Finish(top="wax", humid_pct=70.0), []).slower, 1.0)
        self.assertIn("does not dry", finishing(Finish(top="wax", humid_pct=86.0), []).refusal)

    def test_what_is_left_of_a_tin_counts(self) -> None:
        for have, tins in ((0.1, 1), (0.2, 0)):
            there = (Have(of="finish:oil_varnish", many=have),)
            now = planned(Finish(top="oil_varnish"))
            now = replace(now, shop=replace(now.shop, have=there))
            [line] = [
                each
                for each in shopping(now, cut_plan(now), "metric").lines
                if each.key == "finish:oil_varnish"
            ]
            self.assertEqual(line.packs, tins, have)


class ByADay(SimpleTestCase):
    """Read backwards: the last day to begin, so that all hangs by the day that was said."""

    @settings(max_examples=25)
    @given(later=st.integers(0, 30), top=st.sampled_from([None, "oil_varnish", "paint"]))
    def test_beginning_then_is_in_time_and_a_day_later_is_not(
        self, later: int, top: str | None
    ) -> None:
        days = replace(ALWAYS, week=(None,) + (Hours(begins=18, ends=21),) * 6)
        by = MONDAY.date() + timedelta(days=later)
        found = days_of(planned(Finish(top=top), replace(days, by=by)))

        def hangs(start: date) -> date:
            steps = days_of(planned(Finish(top=top), replace(days, start=start))).steps
            return max(step.ends.date() for step in steps if step.what == "hang")

        last = found.begin_by
        if last is None:
            self.assertGreater(hangs(MONDAY.date()), by)
        else:
            self.assertLessEqual(hangs(last), by)
            self.assertGreater(hangs(last + timedelta(days=1)), by)


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
