"""Hanging.

The steps in the order that works; what the bit met becomes evidence, and the plan is judged by it.
"""

from datetime import date, datetime, timedelta
from math import hypot
from typing import Any

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import GYPSUM, bracket_shelf, plan, rod_shelf, wall
from tests.trade.test_every_kind import put_up
from trade import data
from trade.assess import assess
from trade.choose import placement
from trade.choose.cures import cures
from trade.cutting.parts import count_parts, parts_of
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.errors import PlanError
from trade.job.days import schedule
from trade.job.found import MarkReport, begun_again, done, mounted, tell
from trade.job.step import Step
from trade.job.steps import steps
from trade.marking.marks import Mark, piece_marks
from trade.marking.overview import overview
from trade.marking.template import edge
from trade.mounts import KINDS, mount_of
from trade.mounts.old_things import to_come_off
from trade.mounts.work import Bored
from trade.plan import plan_file
from trade.plan.as_built import AsBuilt, Drilled, Hung, Look
from trade.plan.features import Feature
from trade.plan.model import Layer, Plan, Stud, Thing
from trade.plan.policy import Policy
from trade.plan.readings import ByHand, Edge, Probe, Sweep
from trade.plan.shop import Finish, Shop


def hung(kind: str, **changes: Any) -> Plan:
    """A piece of this kind on the test wall, with 4 kg on it."""
    bare = Plan(name="Wall", units="metric", wall=wall(), policy=Policy(**changes))
    return bare.with_piece(
        replace(
            placement.put_up(bare, kind, 1600.0, 1500.0), things=(Thing(name="Load", mass_kg=4.0),)
        )
    )


def holes_of(now: Plan, key: str = "shelf") -> list[Mark]:
    return [
        mark for mark in piece_marks(now.piece(key), now.wall, "metric") if mark.where == "wall"
    ]


def word(now: Plan, code: str, key: str = "shelf") -> str:
    return next(
        (check.outcome for check in assess(now).piece(key).checks if check.code == code),
        "not asked",
    )


class Order(SimpleTestCase):
    def test_every_kind_goes_up_in_the_order_that_works(self) -> None:
        for kind in KINDS:
            now = hung(kind)
            key = now.pieces[0].key
            found = steps(now, key, "metric")
            with self.subTest(kind):
                self.assertEqual(
                    [step.kind for step in found[:4]], ["ready", "safe", "survey", "line"]
                )
                self.assertEqual(found[-1].kind, "close")
                self.assertEqual(len({step.key for step in found}), len(found))
                drilled = [step.mark for step in found if step.mark]
                self.assertEqual(
                    sorted(m.number for m in drilled), sorted(m.number for m in holes_of(now, key))
                )
                self.level_before_the_second_screw(found)

    def level_before_the_second_screw(self, found: tuple[Step, ...]) -> None:
        """Nothing is driven into a hole that is not drilled.

        No strip gets its second screw before it is level.
        """
        made: set[int] = set()
        loose = 0
        for step in found:
            if step.mark:
                self.assertLess(loose, 1, f"{step.title}: not level yet")
                made.add(step.mark.number)
            elif step.kind == "drive":
                self.assertLessEqual({mark.number for mark in step.marks}, made, step.title)
                loose += step.key.endswith("loose") and len(made) > 0
            elif step.kind == "level":
                loose = 0
            if step.kind == "drive" and step.key.endswith("snug"):
                loose = 0

    def test_the_line_is_drawn_where_the_hardware_goes(self) -> None:
        """Rods go into the middle of what they carry.

        The middle of a panel's lowest batten is 40 above its foot, and half a batten 32.
        """
        panel = {"height_mm": 800.0, "batten_mm": 19.0, "rows": 3}
        for kind, size, below_its_top in (
            ("rod_shelf", {"thickness_mm": 95.0}, 47.5),
            ("rod_beam", {"thickness_mm": 120.0}, 60.0),
            ("panel", panel, 728.0),
        ):
            piece = put_up(kind, wall(), top_mm=1500.0, **size)
            with self.subTest(kind=kind):
                _, height = mount_of(piece).hanging(piece, wall(), Policy()).line
                self.assertAlmostEqual(height, 1500.0 - below_its_top)

    def test_policy_lifting_and_resin_change_the_steps(self) -> None:
        def keys(now: Plan) -> list[str]:
            return [step.key for step in steps(now, now.pieces[0].key, "metric")]

        for stays, last in (("friction", "slide"), ("locked", "lock"), ("glued", "glue")):
            self.assertEqual(keys(hung("rod_shelf", stays=stays))[-2], last)
        glued = hung("rod_shelf", stays="glued")
        waits = [step.wait_hours for step in steps(glued, glued.pieces[0].key, "metric")]
        self.assertEqual(max(waits), 24.0)
        self.assertEqual(sum(key.startswith("open-") for key in keys(plan(rod_shelf()))), 2)
        varnished = replace(plan(), shop=Shop(finish=Finish(top="oil_varnish")))
        harden = next(step for step in steps(varnished, "shelf", "metric") if step.key == "harden")
        self.assertEqual(harden.wait_hours, data.coatings()["oil_varnish"].load_days * 24)
        self.assertNotIn("harden", keys(plan()))
        self.assertFalse(
            any(key.startswith("open-") for key in keys(plan(rod_shelf(let_in=False))))
        )
        heavy = plan(
            rod_shelf(
                thickness_mm=95.0, length_mm=1400.0, supports_mm=(100.0, 1300.0), depth_mm=300.0
            )
        )
        people = {step.key: step.people for step in steps(heavy, "ledge", "metric")}
        self.assertGreater(people["slide"], 1)
        self.assertEqual(people["rods"], 1)

    def test_each_hole_says_where_how_wide_how_deep_from_the_chosen_datum(self) -> None:
        """By hand.

        The left bracket is on the stud at 800; from the right corner of 3 200 that is 2 400.
        """
        now = plan()
        now = replace(now, datum=replace(now.datum, across="right", line_mm=1000.0))
        first = next(step for step in steps(now, "shelf", "metric") if step.mark)
        facts = dict(first.facts)
        assert first.mark is not None
        self.assertEqual(facts["Across"], "2400 mm")
        self.assertEqual(facts["Up"], f"{first.mark.y_mm - 1000:.0f} mm up")
        self.assertEqual(facts["Tape at"], f"{first.mark.depth_mm:.0f} mm")

    def test_what_is_done_stays_done_and_a_hole_is_done_where_it_is(self) -> None:
        now = plan()
        first = next(step for step in steps(now, "shelf", "metric") if step.mark)
        assert first.mark is not None
        then = done(tell(now, first.mark, MarkReport("good")), "shelf", "ready", None, "Ana")
        state = {step.key: step.done for step in steps(then, "shelf", "metric")}
        self.assertTrue(state["ready"] and state[first.key])
        self.assertEqual(sum(state.values()), 2)
        self.assertEqual(done(then, "shelf", "ready", None, "Bo"), then)
        moved = then.with_piece(replace(then.piece("shelf"), top_mm=1560.0))
        self.assertFalse(any(step.done for step in steps(moved, "shelf", "metric") if step.mark))
        self.assertEqual(plan_file.load(plan_file.dump(then)), then)


class Mounted(SimpleTestCase):
    """Holes in a piece follow what carries it, as it was measured."""

    def test_bores_cut_list_and_template_follow_what_was_measured(self) -> None:
        now = mounted(plan(rod_shelf()), "ledge", (104.0, 897.5))
        piece = now.piece("ledge")
        self.assertEqual(piece.supports_mm, (100.0, 900.0))
        marked = [
            m.x_mm
            for m in piece_marks(piece, now.wall, "metric", as_built=now.as_built)
            if m.where == "shelf"
        ]
        self.assertEqual(marked, [104.0, 897.5])
        [bored] = [
            w for part in parts_of(now).cut for w in part.detail.works if isinstance(w, Bored)
        ]
        self.assertEqual([x for x, _ in bored.places], marked)
        drawn = edge(piece, now, "metric")
        assert drawn is not None
        self.assertEqual([1000.0 - circle.x for circle in drawn.circles], marked)
        self.assertEqual(plan_file.load(plan_file.dump(now)), now)

    def test_what_was_not_measured_or_has_changed_since_is_as_planned(self) -> None:
        now = mounted(plan(rod_shelf()), "ledge", (104.0, 897.5))
        three = now.with_piece(replace(now.piece("ledge"), supports_mm=(100.0, 500.0, 900.0)))
        [bored] = [
            w for part in parts_of(three).cut for w in part.detail.works if isinstance(w, Bored)
        ]
        self.assertEqual([x for x, _ in bored.places], [100.0, 500.0, 900.0])
        for places in ((100.0,), (100.0, 200.0, 300.0), (100.0, 1000.5), (900.0, 100.0)):
            with self.assertRaises(PlanError):
                mounted(plan(rod_shelf()), "ledge", places)

    def test_what_hangs_is_not_made_bought_or_hung_again_until_it_comes_off(self) -> None:
        now = plan(bracket_shelf(), rod_shelf())
        hangs = replace(
            now, as_built=AsBuilt(hung=(Hung(piece="shelf", on=date(2031, 4, 5), right_mm=30.0),))
        )
        self.assertEqual({part.key for part in parts_of(hangs).cut}, {"ledge"})
        self.assertEqual(
            [part.label for part in parts_of(hangs).cut], ["2a"]
        )  # and keeps its number
        self.assertEqual(count_parts(hangs), 1)
        listed = [line.what for line in shopping(hangs, cut_plan(hangs), "metric").lines]
        self.assertFalse(any("bracket" in what for what in listed), listed)
        days = schedule(hangs, cut_plan(hangs), datetime(2031, 4, 6, 9))
        self.assertIn("“Ledge”", days.hang.name if days.hang else "")
        every = replace(
            hangs,
            as_built=replace(
                hangs.as_built,
                hung=(*hangs.as_built.hung, Hung(piece="ledge", on=date(2031, 4, 5))),
            ),
        )
        self.assertEqual(
            schedule(every, cut_plan(every), datetime(2031, 4, 6, 9)).refusal,
            "All of it hangs already.",
        )
        crosses = {
            round(line.x1 + line.x2, 3) / 2
            for line in overview(hangs, "metric", 10.0).lines
            if line.layer == "CENTRES"
        }
        self.assertIn(830.0, crosses)  # its holes are drawn where it hangs
        off = Look(piece="shelf", on=date(2031, 5, 1), held="off")
        again = replace(hangs, as_built=replace(hangs.as_built, looks=(off,)))
        self.assertEqual({part.key for part in parts_of(again).cut}, {"shelf", "ledge"})

    def test_beginning_again_loses_nothing_of_what_else_was_recorded(self) -> None:
        now = plan(bracket_shelf(), rod_shelf())
        kept = AsBuilt(
            hung=(Hung(piece="ledge", on=date(2031, 4, 5)),),
            looks=(Look(piece="ledge", on=date(2031, 5, 1), held="firm"),),
        )
        again = begun_again(
            tell(replace(now, as_built=kept), holes_of(now)[0], MarkReport("good")), "shelf"
        )
        self.assertEqual(
            (again.as_built.hung, again.as_built.looks, again.as_built.drilled),
            (kept.hung, kept.looks, ()),
        )


class Truth(SimpleTestCase):
    def test_no_wood_takes_the_stud_away_and_the_shelf_no_longer_holds(self) -> None:
        now = plan()
        mark = holes_of(now)[0]
        then = tell(now, mark, MarkReport("no_wood"))
        self.assertNotIn(800.0, [stud.centre_mm for stud in then.wall.studs])
        self.assertIn(Probe(at_mm=mark.x_mm, height_mm=mark.y_mm, met="air"), then.wall.readings)
        self.assertEqual(assess(then).outcome, "wont_hold")
        self.assertEqual(word(then, "made.spoiled"), "doesnt_fit")

    def test_no_wood_beside_a_stud_that_readings_knew_moves_it(self) -> None:
        """The finder said 807 to 845, twice; the plan had it at 800.

        The hole at 800 met air: the stud is where the finder said.
        """
        edges = tuple(
            each
            for height in (1200.0, 1500.0)
            for each in (
                Sweep(from_mm=0.0, to_mm=3200.0, height_mm=height),
                Edge(at_mm=807.0, side="left", height_mm=height),
                Edge(at_mm=845.0, side="right", height_mm=height),
            )
        )
        now = plan(readings=edges)
        then = tell(now, holes_of(now)[0], MarkReport("no_wood"))
        [stud] = [stud for stud in then.wall.studs if 700 < stud.centre_mm < 900]
        self.assertAlmostEqual(stud.centre_mm, 826.0, delta=6.0)

    def test_the_stud_is_ten_to_the_left(self) -> None:
        now = plan()
        then = tell(now, holes_of(now)[0], MarkReport("stud_off", by_mm=-10.0))
        self.assertIn(
            Stud(centre_mm=790.0, width_mm=38.0, depth_mm=89.0, uncertainty_mm=1.0), then.wall.studs
        )
        self.assertNotIn(800.0, [stud.centre_mm for stud in then.wall.studs])
        self.assertEqual(then.as_built.drilled, ())
        self.assertTrue(any(isinstance(r, ByHand) and r.at_mm == 790.0 for r in then.wall.readings))
        for off in (None, 0.0, 900.0):
            with self.assertRaisesRegex(PlanError, "how far off"):
                tell(now, holes_of(now)[0], MarkReport("stud_off", by_mm=off))

    def test_a_thicker_lining_takes_thread_out_of_the_stud(self) -> None:
        now = plan()
        then = tell(now, holes_of(now)[0], MarkReport("lining", depth_mm=25.4))
        self.assertEqual(then.wall.layers, (Layer(kind="gypsum_12_7", thickness_mm=25.4),))
        pull = [
            next(c for c in assess(each).piece("shelf").checks if c.code == "screw.withdrawal")
            for each in (now, then)
        ]
        self.assertGreater(pull[1].utilisation, pull[0].utilisation)
        two = plan(layers=(*GYPSUM, Layer(kind="tile", thickness_mm=10.0)))
        self.assertEqual(
            [
                layer.thickness_mm
                for layer in (
                    tell(two, holes_of(two)[0], MarkReport("lining", depth_mm=30.0)).wall.layers
                    or ()
                )
            ],
            [20.0, 10.0],
        )
        for deep, layers in (
            (None, GYPSUM),
            (400.0, GYPSUM),
            (20.0, None),
            (8.0, (*GYPSUM, Layer(kind="tile", thickness_mm=10.0))),
        ):
            on = plan(layers=layers)
            with self.assertRaises(PlanError):
                tell(on, holes_of(on)[0], MarkReport("lining", depth_mm=deep))

    def test_nothing_within_fifty_of_a_spoiled_hole(self) -> None:
        """By hand.

        The lowest hole of the left bracket is at 800; a spoiled one 49.9 below is too near, 50.1 is
        not.
        """
        now = plan()
        low = min(holes_of(now), key=lambda mark: (mark.x_mm, mark.y_mm))
        for away, said in ((49.9, "doesnt_fit"), (50.1, "holds")):
            spoiled = Drilled(piece="other", x_mm=800.0, y_mm=low.y_mm - away, met="crumbles")
            self.assertEqual(
                word(
                    replace(now, as_built=replace(now.as_built, drilled=(spoiled,))), "made.spoiled"
                ),
                said,
            )

    def test_an_anchor_may_go_where_no_wood_was_but_not_where_it_crumbled(self) -> None:
        now = plan(bracket_shelf(use="display", things=(), anchor="toggle_316"))
        mark = holes_of(now)[0]
        self.assertEqual(word(tell(now, mark, MarkReport("no_wood")), "made.spoiled"), "holds")
        self.assertEqual(
            word(tell(now, mark, MarkReport("crumbles")), "made.spoiled"), "doesnt_fit"
        )

    def test_holes_that_are_made_are_missed_when_the_piece_moves(self) -> None:
        now = plan()
        for mark in holes_of(now)[:2]:
            now = tell(now, mark, MarkReport("good"))
        self.assertEqual(word(now, "made.kept"), "not asked")
        moved = now.with_piece(replace(now.piece("shelf"), top_mm=1520.0))
        self.assertEqual(word(moved, "made.kept"), "holds_but")
        again = begun_again(moved, "shelf")
        self.assertEqual((again.as_built.drilled, len(again.wall.features)), ((), 2))
        self.assertEqual(word(again, "made.kept"), "not asked")

    def test_the_last_word_on_a_hole_counts(self) -> None:
        now = plan()
        mark = holes_of(now)[0]
        then = tell(tell(now, mark, MarkReport("metal", depth_mm=20.0)), mark, MarkReport("good"))
        self.assertEqual([hole.met for hole in then.as_built.drilled], ["good"])

    @settings(max_examples=20)
    @given(
        kind=st.sampled_from(
            ["bracket_shelf", "rod_shelf", "rail", "cleat_cabinet", "holder_board"]
        ),
        which=st.integers(0, 7),
        met=st.sampled_from(["no_wood", "metal", "crumbles", "hard"]),
        made=st.integers(0, 2),
    )
    def test_cures_keep_what_is_made_and_clear_of_what_is_spoiled(
        self, kind: str, which: int, met: Any, made: int
    ) -> None:
        now = hung(kind)
        key = now.pieces[0].key
        now = (
            now.with_piece(replace(now.piece(key), body_kg=10.0))
            if hasattr(now.piece(key), "body_kg")
            else now
        )
        marks = holes_of(now, key)
        bad = marks[which % len(marks)]
        for mark in [m for m in marks if m != bad][:made]:
            now = tell(now, mark, MarkReport("good"))
        now = tell(now, bad, MarkReport(met))
        for cure in cures(now, key):
            if cure.outcome != "holds":
                continue
            after = holes_of(cure.on(now), key)
            for hole in now.as_built.existing_holes(key):
                self.assertTrue(any(hole.is_at(m.x_mm, m.y_mm) for m in after), cure.label)
            for m in after:
                into = met == "no_wood" and m.anchor and m.support == bad.support
                kept = any(hole.is_at(m.x_mm, m.y_mm) for hole in now.as_built.existing_holes(key))
                self.assertTrue(
                    into or kept or hypot(m.x_mm - bad.x_mm, m.y_mm - bad.y_mm) >= 50.0,
                    (cure.label, m.x_mm),
                )


class OldThings(SimpleTestCase):
    """What is on the wall and comes off first: steps, days, shopping, and no bar to what hangs."""

    def old(self, kind: str, left: float, low: float, wide: float, high: float) -> Feature:
        return Feature(
            kind=kind, left_mm=left, right_mm=left + wide, bottom_mm=low, top_mm=low + high
        )

    def test_it_comes_off_before_anything_is_marked_and_what_shows_is_filled(self) -> None:
        shelf = self.old("old_shelf", 800.0, 1400.0, 900.0, 250.0)
        far = self.old("old_fixings", 2200.0, 400.0, 300.0, 60.0)
        now = plan(bracket_shelf(), features=(shelf, far))
        self.assertEqual(assess(now).outcome, assess(plan(bracket_shelf())).outcome)
        found = [step.key for step in steps(now, "shelf", "metric")]
        off = [key for key in found if key.startswith("off-")]
        self.assertEqual(off, ["off-800-1400", "off-fill"])
        self.assertLess(found.index("off-fill"), found.index("survey-again"))
        [wait] = [s for s in steps(now, "shelf", "metric") if s.key == "off-fill"]
        self.assertEqual(wait.wait_hours, 24.0)
        told = next(s for s in steps(now, "shelf", "metric") if s.key == "off-800-1400")
        self.assertIn("enter them as nails that met wood", told.words[-1].template)
        later = done(now, "shelf", "off-800-1400", datetime(2026, 5, 4, 9), "")
        self.assertEqual(to_come_off(later), [])
        both = later.with_piece(bracket_shelf(key="other", top_mm=1900.0, left_mm=700.0))
        self.assertNotIn("off-800-1400", [s.key for s in steps(both, "other", "metric")])
        self.assertNotIn(
            "off-800-1400", [s.key for s in steps(later, "shelf", "metric") if not s.done]
        )

    def test_days_and_shopping_know_of_it(self) -> None:
        """20 and 25 minutes; nothing hangs within 24 hours of it."""
        shelf = self.old("old_shelf", 800.0, 1400.0, 900.0, 250.0)
        now = plan(bracket_shelf(), features=(shelf,))
        days = schedule(now, cut_plan(now), datetime(2026, 5, 4, 8))
        off = next(task for task in days.steps if task.what == "off")
        self.assertEqual(off.minutes, 45.0)
        assert days.hang is not None
        self.assertGreaterEqual(days.hang.begins, off.ends + timedelta(hours=24))
        unpriced = shopping(now, cut_plan(now), "metric").unpriced
        self.assertTrue(any("filler" in each for each in unpriced))
        self.assertFalse(to_come_off(plan(bracket_shelf())))
