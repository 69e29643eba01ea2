"""Ways to hang.

What is found keeps its word, nothing better is overlooked, and the reasons are those of the trade.
"""

from typing import Any
from unittest import mock

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import GYPSUM, STUDS, bracket_shelf, wall
from tests.trade.test_every_kind import walls
from tests.turns import in_turn
from trade import data, wording
from trade.assess import judge_piece
from trade.check import FAILED, RANK
from trade.choose import candidate_positions, candidates, criteria, policy_effects, search
from trade.choose import options as door
from trade.choose.held_with import holders, name_of
from trade.choose.options import Options, find_options
from trade.choose.request import HangRequest, wish_for, wish_of
from trade.choose.search import Option
from trade.errors import PlanError
from trade.mounts import KINDS
from trade.plan.features import Feature
from trade.plan.model import Plan, Policy, Stud, Thing, Wall
from trade.plan.shop import Have, Shop


def plan_on(on: Wall, *pieces: Any, **policy: Any) -> Plan:
    return Plan(name="Wall", units="metric", wall=on, pieces=pieces, policy=Policy(**policy))


def kg(mass: float) -> tuple[Thing, ...]:
    return (Thing(name="Load", mass_kg=mass),)


def request(**changes: Any) -> HangRequest:
    base: dict[str, Any] = {
        "key": "new",
        "name": "New",
        "goes": "stand",
        "x_mm": 1200.0,
        "top_mm": 1500.0,
        "length_mm": 800.0,
        "depth_mm": 200.0,
        "things": kg(15.0),
    }
    return HangRequest(**{**base, **changes})


class Case(SimpleTestCase):
    def found(self, plan: Plan, wanted: HangRequest) -> Options:
        """The ways, each of which must be what `assess` says it is."""
        result = find_options(plan, wanted)
        for way in result.found:
            verdict = judge_piece(way.piece, plan.with_piece(way.piece))
            self.assertEqual((verdict.outcome, verdict.used), (way.outcome, way.used), way.kind)
            effort = criteria.effort(way.piece, plan.wall, plan.policy)
            self.assertEqual(way.effort, effort._replace(cost=way.effort.cost), way.kind)
            self.assertAlmostEqual(way.effort.cost, effort.cost, places=9, msg=way.kind)
        served = {
            kind
            for kind, row in data.mounting_kinds().items()
            if wanted.goes in row.serves and row.offered
        }
        self.assertEqual(
            {way.kind for way in result.found} | {no.kind for no in result.refused}, served
        )
        return result

    def holds(self, result: Options) -> list[str]:
        return [way.kind for way in result.found if way.outcome == "holds"]

    def why_not(self, result: Options, kind: str) -> str:
        return next(wording.phrase(no.reason, "metric") for no in result.refused if no.kind == kind)


class TwelveSituations(Case):
    """Twelve invented walls and wishes, with the answers and the reasons a tradesman would give."""

    def test_1_books_on_a_stud_wall_hang_on_brackets_and_twice_as_many_on_no_pins(self) -> None:
        result = self.found(plan_on(wall()), request(things=kg(35.0), length_mm=1200.0))
        self.assertEqual(result.found[0].kind, "bracket_shelf")
        heavier = self.found(plan_on(wall()), request(things=kg(70.0), length_mm=1200.0))
        self.assertIn("there stud and steel can carry", self.why_not(heavier, "pin_shelf"))
        self.assertIn("wall at each end", self.why_not(result, "ledger_shelf"))

    def test_2_a_light_ledge_that_shall_show_nothing_floats(self) -> None:
        result = self.found(
            plan_on(wall(), hidden=True), request(things=kg(3.0), use="display", depth_mm=140.0)
        )
        self.assertTrue(self.holds(result))
        self.assertLessEqual(
            set(self.holds(result)),
            {"rod_shelf", "pin_shelf", "dowel_shelf", "box_shelf", "rod_beam"},
        )
        self.assertEqual(self.why_not(result, "bracket_shelf"), "What holds it would show.")

    def test_3_studs_only_and_the_only_two_studs_are_far_away(self) -> None:
        on = wall(studs=(Stud(centre_mm=2400.0), Stud(centre_mm=2800.0)))
        result = self.found(plan_on(on, anchors="studs_only"), request(x_mm=600.0))
        self.assertEqual(result.found, ())
        self.assertIn("this job trusts nothing else", self.why_not(result, "bracket_shelf"))

    def test_4_the_same_with_anchors_allowed_hangs_light_things_on_toggles(self) -> None:
        on = wall(studs=(Stud(centre_mm=2400.0), Stud(centre_mm=2800.0)))
        result = self.found(
            plan_on(on, anchors="anchors_light"),
            request(x_mm=600.0, things=kg(2.0), use="display", depth_mm=140.0),
        )
        best = result.found[0]
        self.assertEqual(
            (best.kind, best.hold, best.outcome), ("bracket_shelf", "anchors", "holds")
        )
        self.assertNotIn(data.anchors()[best.piece.anchor or ""].kind, ("plug",))
        self.assertIn("misses the stud", self.why_not(result, "pin_shelf"))

    def test_5_plants_on_hollow_block_hang_on_plugs_or_anchors_made_for_it(self) -> None:
        on = wall(structure="block_hollow", layers=(), studs=())
        result = self.found(plan_on(on), request(things=kg(25.0), depth_mm=220.0))
        self.assertEqual(result.found[0].kind, "bracket_shelf")
        self.assertIn("block_hollow", data.anchors()[result.found[0].piece.anchor or ""].holds_n)
        self.assertIn("hammer_drill", result.found[0].effort.tools)
        self.assertIn("goes into the wood of studs", self.why_not(result, "pin_shelf"))

    def test_6_in_concrete_almost_anything_holds_but_pins(self) -> None:
        result = self.found(plan_on(wall(structure="concrete", layers=(), studs=())), request())
        self.assertLessEqual({"bracket_shelf", "box_shelf"}, set(self.holds(result)))
        self.assertIn("goes into the wood of studs", self.why_not(result, "pin_shelf"))

    def test_7_between_two_side_walls_a_shelf_rests_on_ledgers(self) -> None:
        on = wall(width_mm=1180.0, studs=(Stud(centre_mm=300.0), Stud(centre_mm=900.0)))
        result = self.found(plan_on(on), request(x_mm=590.0, length_mm=1180.0, depth_mm=300.0))
        ledgers = next(way for way in result.found if way.kind == "ledger_shelf")
        self.assertEqual(ledgers.outcome, "cannot_tell")  # not known stands in the side walls
        self.assertIn("Find out first", wording.phrase(ledgers.reasons[1], "metric"))

    def test_8_coats_hang_on_a_rail_or_a_board_and_not_on_shelves(self) -> None:
        result = self.found(plan_on(wall()), request(goes="hang", depth_mm=80.0, things=kg(12.0)))
        self.assertLessEqual({"rail", "holder_board"}, set(self.holds(result)))
        self.assertNotIn("bracket_shelf", {no.kind for no in result.refused})

    def test_9_a_cabinet_hangs_locked_on_a_cleat_across_two_studs(self) -> None:
        wanted = request(goes="body", high_mm=700.0, depth_mm=300.0, body_kg=22.0, things=kg(15.0))
        best = self.found(plan_on(wall()), wanted).found[0]
        self.assertEqual((best.kind, best.outcome, best.hold), ("cleat_cabinet", "holds", "studs"))
        self.assertTrue(best.piece.locked)  # type: ignore[union-attr]

    def test_10_a_rented_flat_counts_its_holes(self) -> None:
        free, few = (
            self.found(plan_on(wall(), most_holes=most), request(things=kg(6.0)))
            for most in (None, 4)
        )
        self.assertGreater(max(way.effort.holes for way in free.found), 4)
        self.assertTrue(few.found)
        self.assertLessEqual(max(way.effort.holes for way in few.found), 4)
        self.assertTrue(
            any(
                "holes; no more than 4" in wording.phrase(no.reason, "metric") for no in few.refused
            )
        )

    def test_11_without_a_table_saw_no_cleat_is_ripped(self) -> None:
        result = self.found(
            plan_on(wall(), lacks=("table_saw",)),
            request(goes="hang", depth_mm=80.0, things=kg(8.0)),
        )
        why = self.why_not(result, "cleat_wall")
        self.assertIn("It takes a table saw, which is not at hand. Without one: a circular", why)
        self.assertIn("within 1.5 mm (1/16 in), and takes 25 minutes more. Not so: strips", why)
        self.assertIn("rail", self.holds(result))

    def test_12_beside_a_window_and_over_an_outlet_it_makes_way(self) -> None:
        window = Feature(
            kind="window", left_mm=1300.0, right_mm=2300.0, bottom_mm=900.0, top_mm=2000.0
        )
        outlet = Feature(
            kind="outlet", left_mm=370.0, right_mm=440.0, bottom_mm=1330.0, top_mm=1450.0
        )
        on = wall(features=(window, outlet))
        best = self.found(plan_on(on, shift_mm=400.0), request(x_mm=1100.0)).found[0].piece
        self.assertLessEqual(best.left_mm + best.length_mm, 1300.0 - window.trim_mm)
        self.assertTrue(
            all(abs(best.left_mm + x - 400.0) > 1 for x in best.supports_mm)
        )  # a cable's box is on that stud

    def test_what_weighs_too_much_for_everything_is_refused_by_every_kind_with_its_sum(
        self,
    ) -> None:
        result = self.found(plan_on(wall()), request(things=kg(900.0)))
        self.assertEqual(result.found, ())
        self.assertTrue(
            all(
                no.reason.parts
                for no in result.refused
                if no.kind not in ("corner_shelf", "ledger_shelf")
            )
        )


class Policies(Case):
    def test_every_question_of_the_table_is_one_of_the_policy_and_every_school_can_be_followed(
        self,
    ) -> None:
        for question, row in data.policies().items():
            for answer, said in row.answers.items():
                self.assertEqual(
                    policy_effects.answer_of(
                        policy_effects.followed(plan_on(wall()), question, answer), question
                    ),
                    answer,
                )
                self.assertEqual(said.count("."), 2, said)  # two sentences

    def test_what_matters_most_comes_first(self) -> None:
        wanted = request(things=kg(5.0), depth_mm=180.0)
        plain = self.found(plan_on(wall()), wanted).found[0]
        for name in data.policies()["matters"].answers:
            best = self.found(plan_on(wall(), matters=name), wanted).found[0]
            self.assertGreaterEqual(best.marks.get(name, 0.0), plain.marks.get(name, 0.0), name)
        self.assertEqual(
            self.found(plan_on(wall(), matters="seen"), wanted).found[0].marks["seen"], 1.0
        )

    def test_shop_made_brackets_only_and_plates_over_the_lining(self) -> None:
        shop = self.found(plan_on(wall(), made="shop"), request())
        self.assertEqual(
            {way.piece.bracket for way in shop.found if way.kind == "bracket_shelf"},
            {"shop_plywood"},
        )  # type: ignore[union-attr]
        over = self.found(
            plan_on(wall(layers=GYPSUM), plates="over"), request(things=kg(1.0), use="display")
        )
        self.assertFalse(any(getattr(way.piece, "let_in", False) for way in over.found))

    def test_toggles_only(self) -> None:
        on = wall(studs=(STUDS[6],))
        result = self.found(
            plan_on(on, anchors="anchors_light", hollow="toggles"),
            request(x_mm=600.0, things=kg(2.0), use="display", depth_mm=140.0),
        )
        self.assertEqual(
            {data.anchors()[way.piece.anchor or ""].kind for way in result.found},
            {"toggle", "channel"},
        )


class AskedFor(Case):
    def test_a_length_that_was_asked_for_and_changed_says_by_how_much_and_why(self) -> None:
        """Studs every 400 mm: what holds on two of them is at least 480 mm long."""
        on = wall(studs=STUDS)
        found = self.found(plan_on(on), request(length_mm=440.0, x_mm=1000.0, things=kg(5.0)))
        best = found.best
        assert best is not None
        by = best.piece.length_mm - 440.0
        self.assertGreater(by, 0.5)
        [said] = [wording.phrase(each, "metric") for each in best.changed]
        self.assertEqual(said, f"{by:.0f} mm longer than asked for, to reach the studs.")
        self.assertEqual(best.reasons[0], best.changed[0])
        kept = self.found(plan_on(on), request(length_mm=800.0, x_mm=1000.0, things=kg(5.0)))
        assert kept.best is not None
        self.assertEqual((kept.best.piece.length_mm, kept.best.changed), (800.0, ()))


class WhatHangs(Case):
    def test_it_is_kept_unless_a_change_makes_it_better(self) -> None:
        """Two brackets 800 mm apart hold; of those that are proposed none is so far apart."""
        shelf = bracket_shelf(things=kg(8.0))
        now = replace(plan_on(wall(studs=STUDS)), pieces=(shelf,))
        best = self.found(now, wish_of(shelf)).best
        assert best is not None
        self.assertEqual((best.piece, best.changed), (shelf, ()))
        heavy = replace(shelf, things=kg(400.0))
        other = self.found(replace(now, pieces=(heavy,)), wish_of(heavy)).best
        self.assertTrue(other is None or other.piece != heavy)


class Exhaustive(Case):
    """For small cases every design is judged, and none is better than the one that was found."""

    def test_nothing_better_is_overlooked(self) -> None:
        two = wall(
            studs=(
                Stud(centre_mm=1000.0, uncertainty_mm=1.0),
                Stud(centre_mm=1400.0, uncertainty_mm=1.0),
            )
        )
        block = wall(structure="block_hollow", layers=(), studs=())
        cases = [
            (block, request(things=kg(20.0)), {"most_holes": 6}),
            (two, request(things=kg(30.0), depth_mm=180.0), {"matters": "holes"}),
            (two, request(goes="hang", depth_mm=80.0, things=kg(10.0)), {"matters": "cost"}),
            (
                two,
                request(goes="body", high_mm=500.0, body_kg=15.0, things=kg(20.0)),
                {"matters": "margin"},
            ),
            (wall(studs=STUDS[3:4]), request(x_mm=1600.0, things=kg(2.0), use="display"), {}),
        ]
        for n, (on, wanted, policy) in enumerate(cases):
            if not in_turn(n, 0, 4):
                continue
            plan = plan_on(on, **policy)
            with (
                mock.patch.object(search, "_MOST_TRIES", 1000),
                mock.patch.object(search, "_MOST_BEHIND", 1000),
                mock.patch.object(search, "_MOST_FOR_NOTHING", 1000),
            ):
                result = self.found(plan, wanted)
            for kind in (
                kind
                for kind, row in data.mounting_kinds().items()
                if wanted.goes in row.serves and row.offered
            ):
                if door.excluded(plan, wanted, kind) is not None:
                    continue
                for hold, where in candidate_positions.positions(plan, wanted, kind):
                    with self.subTest(
                        kind=kind, hold=hold, goes=wanted.goes, kg=wanted.things[0].mass_kg
                    ):
                        best = self.best_of_all(plan, wanted, kind, hold, where)
                        ours = [
                            (RANK[w.outcome], self.lacks(plan, w))
                            for w in result.found
                            if (w.kind, w.hold) == (kind, hold)
                        ]
                        self.assertEqual(bool(ours), best is not None)
                        if best is not None:
                            self.assertEqual(ours[0][0], best[0])
                            self.assertAlmostEqual(ours[0][1], best[1], places=9)

    def lacks(self, plan: Plan, way: Option) -> float:
        """What a way lacks by what goes into it, as designs of a kind are compared."""
        effort = criteria.effort(way.piece, plan.wall, plan.policy)
        marks = criteria.marks(effort, way.used, 0.0) | {"place": way.marks["place"]}
        return criteria.demerit(marks, plan.policy.matters)

    def best_of_all(
        self, plan: Plan, wanted: HangRequest, kind: str, hold: Any, where: Any
    ) -> tuple[int, float] | None:
        scored = []
        for slot in where:
            base = candidates.base(wanted, kind, slot, plan)
            for piece in candidates.hardware(base, plan.policy, plan.units) if base else ():
                for drive in candidates.drives(piece, plan.wall, plan.policy):
                    made = candidates.driven(piece, drive)
                    effort = criteria.effort(made, plan.wall, plan.policy)
                    verdict = judge_piece(made, plan)
                    beyond = search.over(effort, plan.policy, plan.units)
                    if verdict.outcome not in FAILED and not beyond:
                        marks = criteria.marks(effort, verdict.used, search.trouble_of(slot, hold))
                        scored.append(
                            (RANK[verdict.outcome], criteria.demerit(marks, plan.policy.matters))
                        )
        return min(scored, default=None)


class AnyWall(Case):
    @settings(max_examples=12)
    @given(
        on=walls,
        goes=st.sampled_from(["stand", "hang", "body", "floor", "sit"]),
        mass=st.floats(0.5, 80),
        x=st.floats(200, 3000),
        long=st.floats(300, 1800),
        matters=st.sampled_from(sorted(data.policies()["matters"].answers)),
        anchors=st.sampled_from(["studs_only", "anchors_light"]),
    )
    def test_every_way_is_what_assess_says_it_is_and_the_best_comes_first(
        self, on: Wall, goes: Any, mass: float, x: float, long: float, matters: str, anchors: str
    ) -> None:
        wanted = request(
            goes=goes,
            things=kg(mass),
            x_mm=x,
            length_mm=long,
            high_mm=600.0,
            body_kg=20.0 if goes in ("body", "floor") else None,
        )
        result = self.found(
            plan_on(on, bracket_shelf(top_mm=700.0), matters=matters, anchors=anchors), wanted
        )
        ranks = [(RANK[way.outcome], way.demerit) for way in result.found]
        self.assertEqual(ranks, sorted(ranks))
        self.assertNotIn("wont_hold", [way.outcome for way in result.found])


class FromWhatHangs(Case):
    def test_a_piece_on_the_wall_is_asked_how_else_it_could_hang(self) -> None:
        plan = plan_on(wall(), bracket_shelf())
        result = self.found(plan, wish_of(plan.pieces[0]))
        self.assertIn("bracket_shelf", self.holds(result))
        self.assertTrue(
            all(
                way.piece.key == "shelf" and way.piece.things == plan.pieces[0].things
                for way in result.found
            )
        )

    def test_everything_on_the_lists_can_be_wished_for(self) -> None:
        plan = plan_on(wall())
        for what, row in (data.contents() | data.wants()).items():
            with self.subTest(what=what):
                amount = 600.0 if getattr(row, "per", "") == "metre" else 3.0
                wanted = wish_for(plan, what, amount, 1600.0, 1500.0)
                self.assertTrue(
                    any(wanted.goes in row.serves for row in data.mounting_kinds().values())
                )
                slot = candidates.StudLayout(
                    400.0, wanted.length_mm, (100.0, wanted.length_mm - 100.0)
                )
                kinds = [
                    kind
                    for kind, row in data.mounting_kinds().items()
                    if wanted.goes in row.serves and row.offered
                ]
                self.assertTrue(all(kind in KINDS for kind in kinds))
                self.assertTrue(any(candidates.base(wanted, kind, slot, plan) for kind in kinds))


class WillTheseDo(Case):
    """Given a thing, and what there is to hold it with: where and how, or why not."""

    def held(self, on: Wall, what: str, **changes: Any) -> Options:
        return find_options(plan_on(on), request(held_with=what, things=kg(8.0), **changes))

    def test_nothing_else_goes_into_the_wall(self) -> None:
        brick = wall(structure="brick_solid", layers=(), studs=())
        for on, what in (
            (wall(), "screw:wood_12"),
            (wall(), "screw:screw_5:80"),
            (wall(), "anchor:toggle_14"),
            (brick, "anchor:plug_10"),
        ):
            found = self.held(on, what).found
            self.assertTrue(found, what)
            for way in found:
                kind, _, rest = what.partition(":")
                if kind == "anchor":
                    self.assertEqual((way.hold, way.piece.anchor), ("anchors", rest))
                else:
                    key, _, long = rest.partition(":")
                    self.assertEqual((way.hold, way.piece.screw), ("studs", key))
                    self.assertTrue(not long or way.piece.screw_length_mm == float(long))

    def test_what_will_not_do_is_named(self) -> None:
        brick = wall(structure="brick_solid", layers=(), studs=())
        for on, what, said in (
            (brick, "screw:screw_5", "5 mm wood screw does not hold it there."),
            (wall(), "anchor:plug_10", "Plug 10 mm, 8 mm screw does not hold it there."),
        ):
            found = self.held(on, what)
            self.assertEqual(found.best, None, what)
            self.assertIn(said, {wording.phrase(no.reason, "metric") for no in found.refused})

    def test_what_is_in_the_drawer_comes_first(self) -> None:
        have = (Have(of="screw:screw_5:80", many=12), Have(of="part:hook", many=3))
        now = replace(plan_on(wall()), shop=Shop(have=have))
        known = holders(now)
        self.assertEqual(known[0].name, "5 mm wood screw, 80 mm, 12 there")
        self.assertNotIn("part:hook", [each.key for each in known])
        self.assertEqual(
            [each.key for each in known[1:]],
            [f"anchor:{key}" for key in data.anchors()]
            + [
                f"screw:{key}"
                for key, row in data.screws_sold("metric").items()
                if row.kind != "rod"
            ],
        )
        with self.assertRaisesRegex(PlanError, "Nothing is held with “screw:nail”"):
            name_of("screw:nail", now)
