"""Walls that meet: where they stand, what goes round a corner, and what both walls say of it."""

from math import atan2, cos, isclose, pi, radians, sin
from typing import Any

import shapely
from django.test import SimpleTestCase
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import GYPSUM, STUDS, wall
from tests.trade.kind_case import KG, load, piece
from tests.trade.test_every_kind import put_up
from trade import data as tables
from trade.assess import assess, judge_piece
from trade.check import Check
from trade.choose.cures import cures
from trade.cutting.parts import parts_of
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.errors import PlanError
from trade.job.found import MarkReport, What, begun_again, tell
from trade.job.steps import steps
from trade.load.shelf import board_n
from trade.marking.marks import Mark, piece_marks
from trade.marking.template import round_corners
from trade.mounts import ledgers, turning
from trade.mounts.in_room import standing
from trade.mounts.rests import loaded
from trade.mounts.side_ledgers import of_shelf, parts_taken
from trade.mounts.way_in import Inside, Parcel, way_in
from trade.plan import plan_file
from trade.plan.facing import Opening, RoomCorner
from trade.plan.flatness import Corner, Flatness
from trade.plan.ground import doubts, overlap_mm, stands
from trade.plan.model import (
    BracketShelf,
    CornerShelf,
    LedgerShelf,
    Plan,
    Stud,
    Wall,
    WallPlan,
)
from trade.plan.place import faced, turned, with_wall, without_wall
from trade.plan.readings import ByHand, Edge, Knock, Probe, Reading, Sweep

ANGLES = st.floats(60, 300)


def side_wall(*studs_mm: float, **changes: object) -> Wall:
    """620 mm wide, with studs so far from its left corner."""
    studs = tuple(Stud(centre_mm=x, uncertainty_mm=2.0) for x in studs_mm)
    base = {"width_mm": 620.0, "height_mm": 2400.0, "layers": GYPSUM, "studs": studs}
    return Wall(**base | {"timber": "spruce_pine_fir"} | changes)  # type: ignore[arg-type]


def shelf(**changes: object) -> LedgerShelf:
    """From wall to wall, 400 mm deep, 8 kg on it."""
    base = {
        "left_mm": 0.0,
        "length_mm": 1500.0,
        "depth_mm": 400.0,
        "thickness_mm": 18.0,
        "board": "plywood",
        "supports_mm": (60.0, 400.0, 800.0, 1200.0, 1440.0),
        "stiffener_mm": 38.0,
        "things": load(8.0),
    }
    return piece(LedgerShelf, **base | changes)  # type: ignore[no-any-return]


def closet(
    left: Wall, right: Wall, what: LedgerShelf | CornerShelf | None = None, degrees: float = 90.0
) -> Plan:
    """Three walls, facing the one at the back."""
    back = wall(
        width_mm=1500.0,
        studs=tuple(Stud(centre_mm=x) for x in (60.0, 400.0, 800.0, 1200.0, 1440.0)),
    )
    plan = Plan(name="Closet", units="metric", wall=back, pieces=(what or shelf(),), faced="Back")
    plan = turned(with_wall(plan, "left", WallPlan(name="Left", wall=left), degrees), "wall")
    return turned(with_wall(plan, "right", WallPlan(name="Right", wall=right), degrees), "wall")


def check(plan: Plan, code: str, part: str = "") -> Check:
    found = assess(plan).pieces[0].checks
    return next(each for each in found if each.code == code and part in each.part)


class Templates(SimpleTestCase):
    def test_a_side_ledger_has_its_own_laid_into_the_corner(self) -> None:
        """Screws 120 and 320 from the corner: to its left on the left wall, to its right there."""
        plan = closet(side_wall(300.0, 500.0), side_wall(120.0, 320.0))
        left, right = round_corners(plan.pieces[0], plan, "metric")
        self.assertEqual(sorted({c.x for c in left.circles}), [-320.0, -120.0])
        self.assertEqual(sorted({c.x for c in right.circles}), [120.0, 320.0])
        studs = {line.x1 for line in right.lines if line.layer == "STUDS"}
        self.assertEqual(studs, {120.0, 320.0})
        self.assertIn("Right", right.name)
        edges = [line for line in right.lines if line.layer == "FRAME"]
        self.assertEqual([(line.x1, line.x2) for line in edges], [(0.0, 0.0)])
        alone = replace(plan.pieces[0], left_side=False, right_side=False)
        self.assertEqual(round_corners(alone, plan, "metric"), [])


class Places(SimpleTestCase):
    def test_a_place_is_the_same_from_every_wall(self) -> None:
        plan = closet(side_wall(220.0), side_wall(120.0), degrees=91.5)
        self.assertEqual([each.faced_name for each in faced(plan)], ["Left", "Back", "Right"])
        for each in faced(plan):
            self.assertEqual(turned(turned(each, "wall"), each.at), each)
            self.assertEqual(plan_file.load(plan_file.dump(each), each.at), each)
        self.assertEqual(plan_file.load(plan_file.dump(plan)).at, "wall")

    def test_a_corner_that_is_measured_on_one_wall_is_the_other_s_too(self) -> None:
        plan = closet(side_wall(220.0), side_wall(120.0))
        measured = Flatness(corners=(Corner(side="left", angle_deg=88.0),))
        plan = replace(plan, wall=replace(plan.wall, flatness=measured))
        there = turned(plan, plan.before[0].key)
        self.assertEqual(there.wall.flatness.corners, (Corner(side="right", angle_deg=88.0),))
        self.assertEqual([each.angle_deg for each in there.corners], [88.0, 90.0])

    def test_a_wall_goes_in_between_and_out_again(self) -> None:
        plan = closet(side_wall(220.0), side_wall(120.0), degrees=91.0)
        more = with_wall(plan, "left", WallPlan(name="Niche", wall=side_wall()), 270.0)
        self.assertEqual(
            [each.faced_name for each in faced(more)], ["Left", "Niche", "Back", "Right"]
        )
        self.assertEqual([each.angle_deg for each in more.corners], [91.0, 270.0, 91.0])
        back = turned(without_wall(more), "wall")
        self.assertEqual([each.faced_name for each in faced(back)], ["Left", "Back", "Right"])
        self.assertEqual(len({each.at for each in faced(more)}), 4)

    def test_what_can_t_be_is_refused_with_a_sentence(self) -> None:
        plan = closet(side_wall(), side_wall())
        for degrees in (0.0, 360.0, float("nan")):
            with self.assertRaisesRegex(PlanError, "can't meet at"):
                RoomCorner(angle_deg=degrees)
        with self.assertRaisesRegex(PlanError, "needs a wall"):
            without_wall(Plan(name="One", units="metric", wall=wall()))
        with self.assertRaisesRegex(PlanError, "same key"):
            there = turned(plan, plan.before[0].key)
            replace(there, pieces=(shelf(length_mm=500.0, supports_mm=(100.0, 300.0)),))

    def test_a_piece_whose_corner_is_gone_is_kept_and_asked_about(self) -> None:
        plan = closet(side_wall(80.0, 320.0), side_wall(300.0, 540.0))
        gone = without_wall(turned(plan, plan.before[0].key))
        verdict = judge_piece(gone.piece("piece"), gone)
        self.assertEqual(verdict.outcome, "cannot_tell")
        self.assertIn("side walls", " ".join(u for c in verdict.checks for u in c.unknown))


class Ground(SimpleTestCase):
    """Against shapely (GEOS), a general-purpose geometry library."""

    @given(widths=st.lists(st.floats(300, 4000), min_size=2, max_size=5), data=st.data())
    def test_walls_meet_at_their_angles(self, widths: list[float], data: st.DataObject) -> None:
        angles = [data.draw(ANGLES) for _ in widths[1:]]
        plan = Plan(name="Room", units="metric", wall=side_wall(width_mm=widths[0]))
        for width, degrees in zip(widths[1:], angles, strict=True):
            plan = with_wall(plan, "right", WallPlan(wall=side_wall(width_mm=width)), degrees)
        at = data.draw(st.sampled_from([each.at for each in faced(plan)]))
        found = stands(turned(plan, at))
        here = next(stand for stand in found if stand.key == at)
        self.assertEqual((here.x_mm, here.y_mm, here.turned_deg), (0.0, 0.0, 0.0))
        for one, other, degrees in zip(found, found[1:], angles, strict=False):
            self.assertLess(shapely.Point(one.ends[1]).distance(shapely.Point(other.ends[0])), 1e-6)
            # the room's side of both, a hand out: what is inside one's front is inside the corner
            inner = shapely.Point(one.at(one.width_mm, 1.0)).distance(
                shapely.Point(other.at(0.0, 1.0))
            )
            self.assertTrue(isclose(inner, 2 * abs(_half_cosine(degrees)), abs_tol=1e-6))
            self.assertTrue(isclose(shapely.LineString(one.ends).length, one.width_mm))

    @given(
        points=st.lists(
            st.tuples(st.floats(-900, 900), st.floats(-900, 900)), min_size=6, max_size=6
        ),
        off=st.tuples(st.floats(-900, 900), st.floats(-900, 900)),
    )
    def test_outlines_overlap_as_geos_says(
        self, points: list[tuple[float, float]], off: tuple[float, float]
    ) -> None:
        one = shapely.MultiPoint(points).convex_hull
        assume(one.geom_type == "Polygon" and one.area > 100)
        two = shapely.affinity.translate(one, *off)
        mine = overlap_mm(tuple(one.exterior.coords[:-1]), tuple(two.exterior.coords[:-1]))
        if one.distance(two) > 1e-6:
            self.assertEqual(mine, 0.0)
        if one.intersection(two).area > 1.0:
            self.assertGreater(mine, 0.0)
        for turn in range(0, 360, 30):  # no shorter way clears them
            way = radians(turn)
            by = max(mine - 1e-6, 0.0)
            moved = shapely.affinity.translate(two, by * cos(way), by * sin(way))
            self.assertTrue(mine == 0.0 or one.distance(moved) < 1e-6)

    def test_walls_that_go_round_must_close(self) -> None:
        def room(*widths: float) -> Plan:
            plan = Plan(name="Room", units="metric", wall=side_wall(width_mm=widths[0]))
            for width in widths[1:]:
                plan = with_wall(plan, "right", WallPlan(wall=side_wall(width_mm=width)), 90.0)
            return plan

        self.assertEqual(doubts(room(3000, 2000, 3000, 2000)), [])
        self.assertEqual(doubts(room(3000, 2000, 3000)), [])
        self.assertIn("miss each other", doubts(room(3000, 2000, 2900, 2000))[0].template)
        self.assertIn("run through", doubts(room(3000, 2000, 1000, 2500, 900))[0].template)


def _half_cosine(degrees: float) -> float:
    """Distance of two places 1 mm out from walls that meet so, halved: cos of half the angle."""
    ring = shapely.affinity.rotate(shapely.Point(1.0, 0.0), degrees / 2, origin=(0, 0))
    return float(ring.x)


class RoundCorners(SimpleTestCase):
    def test_two_screws_share_by_the_lever(self) -> None:
        """Studs 120 and 300 from the corner.

        1 500 × 400 on three sides: a quarter of it all at the front end, 400 out. The outer screw
        takes (400 − 120)/(300 − 120) of that and of the push there, whatever their stiffness.
        """
        plan = closet(side_wall(320.0, 500.0), side_wall(120.0, 300.0))
        found = check(plan, "ledger.side", "right").values
        self.assertAlmostEqual(found["W"], _whole_n(plan) / 4, places=6)
        lever = (400 - 120) / (300 - 120)
        self.assertAlmostEqual(found["V"], (found["W"] + found["F"]) * lever, places=6)
        # the left wall's studs are told from its own left corner, 620 − 320 and 620 − 500 from ours
        self.assertAlmostEqual(check(plan, "ledger.side", "left").values["V"], found["V"], places=6)

    def test_a_stiff_screw_takes_more_than_a_soft_anchor(self) -> None:
        plan = closet(
            side_wall(500.0), side_wall(120.0, 480.0), shelf(side_anchor="toggle_14", side_screws=3)
        )
        right = of_shelf(_shelf(plan), plan.wall)[1]
        self.assertEqual([s.anchored for s in right.supports], [False, True, True])
        parts = parts_taken(right, 250.0)
        self.assertAlmostEqual(sum(parts.values()), 1.0)
        moment = sum(part * right.places_mm[n] for n, part in parts.items())
        self.assertAlmostEqual(moment, 250.0)
        self.assertGreater(
            right.supports[0].slip_stiffness_n_per_mm, right.supports[1].slip_stiffness_n_per_mm
        )

    def test_a_thing_at_a_place_goes_to_the_end_that_is_near(self) -> None:
        """10 kg at 1 350 of 1 500, 300 of 400 out: 0.9 × 0.75 of it on the right, a ninth left."""
        near = shelf(things=load(10.0, at_mm=1350.0, out_mm=300.0), use="display")
        plan = closet(side_wall(320.0, 500.0), side_wall(120.0, 300.0), near)
        board = board_n(near) / 4
        factor = tables.uses()["display"].factor
        for side, part in (("right", 0.9), ("left", 0.1)):
            found = check(plan, "ledger.side", side).values
            self.assertAlmostEqual(found["W"], board + 10 * KG * factor * part * 0.75, places=6)

    def test_a_ledger_on_one_screw_tips_beyond_it(self) -> None:
        """All on its half, W at 200 and a push F at 400: (W 200 + F 400)/(W + F) from the wall."""
        plan = closet(side_wall(320.0, 500.0), side_wall(240.0))
        found = check(plan, "ledger.tips", "right")
        half, push = _whole_n(plan) / 2, found.values["F"]
        self.assertAlmostEqual(
            found.demand.value, (half * 200 + push * 400) / (half + push), places=6
        )
        self.assertEqual((found.capacity.value, found.outcome), (240.0, "wont_hold"))
        [right] = [each for each in of_shelf(_shelf(plan), plan.wall) if each.side == "right"]
        self.assertEqual(parts_taken(right, 200.0), {0: 200.0 / 240.0})
        codes = [
            each.code
            for each in assess(closet(side_wall(320.0, 500.0), side_wall(120.0, 300.0)))
            .pieces[0]
            .checks
        ]
        self.assertNotIn("ledger.tips", codes)

    def test_nothing_behind_is_an_answer(self) -> None:
        """One stud beyond its reach and no anchor: it carries nothing, and the front drops."""
        plan = closet(side_wall(320.0, 500.0), side_wall(580.0))
        self.assertEqual(check(plan, "ledger.nothing").outcome, "wont_hold")
        self.assertEqual(check(plan, "ledger.front").outcome, "wont_hold")
        nobody = closet(side_wall(320.0, 500.0), side_wall())
        self.assertEqual(assess(nobody).pieces[0].outcome, "cannot_tell")

    def test_searched_without_a_stud_is_an_answer_and_nobody_looked_is_none(self) -> None:
        """A finder from 40 mm, where it begins to reach, to past the front of the shelf, 400 mm."""

        def right(*readings: Reading, **changes: Any) -> Plan:
            return closet(
                side_wall(320.0, 500.0), side_wall(readings=readings, **changes), shelf(**anchored)
            )

        anchored: dict[str, Any] = {}
        quiet = Sweep(from_mm=40.0, to_mm=450.0, height_mm=1200.0)
        air = Probe(at_mm=200.0, met="air")
        struck = ByHand(at_mm=220.0, word="struck")
        hollow = Knock(at_mm=90.0, sound="hollow")
        for heard in ((quiet,), (quiet, air), (quiet, hollow), (quiet, struck)):
            self.assertEqual(check(right(*heard), "ledger.nothing").outcome, "wont_hold")
        for heard in (
            (air,),  # nobody drew a finder along it
            (replace(quiet, to_mm=300.0),),  # not as far as the shelf is deep
            (replace(quiet, from_mm=80.0),),
            (quiet, Edge(at_mm=210.0, side="left")),
            (replace(quiet, to_mm=1200.0),),  # longer than studs stand apart: it sees nothing
        ):
            wide = {"width_mm": 1300.0}
            self.assertEqual(assess(right(*heard, **wide)).pieces[0].outcome, "cannot_tell", heard)
        anchored = {"side_anchor": "toggle_14", "side_screws": 3}
        self.assertEqual(check(right(quiet), "anchor.pull", "right").outcome, "holds")

    def test_round_an_outside_corner_nothing_holds(self) -> None:
        on = Plan(name="Breast", units="metric", wall=wall(width_mm=1500.0, studs=STUDS[:3]))
        both = with_wall(on, "right", WallPlan(wall=side_wall(120.0)), 270.0)
        ledge = shelf(supports_mm=(400.0, 800.0, 1200.0), sides_sure=True)
        there = turned(both, "wall").with_piece(ledge)
        self.assertEqual(check(there, "ledger.nothing").outcome, "wont_hold")
        self.assertEqual(check(there, "ledger.front").outcome, "wont_hold")

    def test_an_anchor_more_never_harms(self) -> None:
        on_studs = closet(side_wall(320.0, 500.0), side_wall(120.0, 300.0))
        more = closet(
            side_wall(320.0, 500.0),
            side_wall(120.0, 300.0),
            shelf(side_anchor="plug_light", side_screws=4),
        )
        self.assertEqual(
            check(on_studs, "ledger.side", "right").utilisation,
            check(more, "ledger.side", "right").utilisation,
        )

    def test_an_anchor_cures_what_only_one_stud_holds(self) -> None:
        plan = closet(side_wall(320.0, 500.0), side_wall(120.0), shelf(things=load(4.0)))
        self.assertEqual(assess(plan).pieces[0].outcome, "wont_hold")
        codes = {cure.code for cure in cures(plan, "piece")}
        self.assertTrue(any("side_anchor" in code for code in codes), codes)

    def test_a_corner_shelf_is_held_by_what_is_round_the_corner(self) -> None:
        corner = piece(
            CornerShelf,
            left_mm=0.0,
            length_mm=500.0,
            depth_mm=500.0,
            thickness_mm=18.0,
            board="plywood",
            supports_mm=(60.0, 400.0),
            other_mm=400.0,
            things=load(2.0),
        )
        asked = assess(closet(side_wall(), side_wall(), corner)).pieces[0]
        self.assertEqual(asked.outcome, "cannot_tell")
        held = closet(side_wall(220.0, 540.0), side_wall(), corner)  # 400 and 80 from the corner
        self.assertEqual(assess(held).pieces[0].outcome, "close")  # pushed on its front
        missed = closet(side_wall(100.0), side_wall(), corner)
        self.assertEqual(assess(missed).pieces[0].outcome, "wont_hold")
        anchored = closet(side_wall(100.0), side_wall(), replace(corner, side_anchor="plug_light"))
        self.assertEqual(assess(anchored).pieces[0].outcome, "wont_hold")

    def test_a_gap_at_an_end_is_seen(self) -> None:
        short = shelf(left_mm=20.0, length_mm=1480.0, supports_mm=(40.0, 380.0, 780.0, 1180.0))
        plan = closet(side_wall(320.0, 500.0), side_wall(120.0, 300.0), short)
        found = check(plan, "ledger.gap")
        self.assertEqual((found.demand.value, found.capacity.value), (20.0, 9.5))

    def test_marks_steps_shopping_and_sides_agree(self) -> None:
        plan = closet(side_wall(320.0, 500.0), side_wall(120.0), shelf(side_anchor="toggle_14"))
        marks = piece_marks(plan.pieces[0], plan.wall, "metric")
        beside = [mark for mark in marks if mark.where == "beside"]
        self.assertEqual([mark.number for mark in marks], list(range(1, len(marks) + 1)))
        self.assertEqual(
            [(m.side, m.corner_mm, m.stud_mm) for m in beside if m.stud_mm],
            [("left", 120.0, 500.0), ("left", 300.0, 320.0), ("right", 120.0, 120.0)],
        )
        told = {
            fact
            for step in steps(plan, "piece", "metric")
            if step.key.startswith("side-")
            for fact in step.facts
        }
        self.assertEqual(len(told), len(beside))
        for mark in beside:
            self.assertTrue(
                any(f"{mark.corner_mm:.0f} mm from the corner" in said for _, said in told)
            )
        lines = {
            line.key: line.needed
            for line in shopping(plan, cut_plan(plan), "metric").lines
            if line.aisle == "fasteners"
        }
        self.assertEqual(sum(lines.values()), sum(_into_wall(mark) for mark in marks))

    def test_the_cut_list_is_of_the_whole_place(self) -> None:
        plan = closet(side_wall(320.0, 500.0), side_wall(120.0, 300.0))
        there = turned(plan, plan.after[0].key).with_piece(_small())
        names = {part.piece for part in parts_of(there).cut}
        self.assertEqual(names, {"Piece", "Small"})
        self.assertEqual(parts_of(there), parts_of(turned(there, "wall")))


def _into_wall(mark: Mark) -> bool:
    return mark.where != "shelf"


def _shelf(plan: Plan) -> LedgerShelf:
    [found] = plan.pieces
    assert isinstance(found, LedgerShelf)
    return found


def _whole_n(plan: Plan) -> float:
    """Return what lies on it with the factor of its use, the board and its strip."""
    return ledgers.total_n(_shelf(plan))


def _small(**changes: object) -> BracketShelf:
    base = {
        "key": "small",
        "name": "Small",
        "left_mm": 60.0,
        "length_mm": 500.0,
        "supports_mm": (60.0, 240.0),
        "thickness_mm": 18.0,
        "board": "plywood",
        "bracket": "braced",
    }
    return piece(BracketShelf, **base | changes)  # type: ignore[no-any-return]


class Pantry(SimpleTestCase):
    """Shelves of two depths: one at the back, one along the right wall that rests on its front."""

    def pantry(self, **changes: object) -> Plan:
        right = side_wall(120.0, 300.0, 500.0, 900.0, 1300.0, width_mm=1600.0)
        plan = turned(closet(side_wall(320.0, 500.0), right), "wall-3")
        arm = {
            "key": "arm",
            "name": "Side shelf",
            "left_mm": 400.0,
            "length_mm": 1000.0,
            "depth_mm": 300.0,
            "supports_mm": (100.0, 500.0, 900.0),
            "left_on": "piece",
            "right_side": False,
            "right_upright": True,
        }
        return plan.with_piece(shelf(**arm | changes))

    def test_what_rests_on_a_shelf_is_on_its_list(self) -> None:
        """A quarter of the side shelf and of its 8 kg, without the factor of its use."""
        plan = self.pantry()
        self.assertIn(assess(plan).pieces[0].outcome, ("holds", "holds_but"))
        self.assertNotIn(
            "piece.corner_clash", [each.code for each in assess(plan).pieces[0].checks]
        )
        [arm], back = plan.pieces, turned(plan, "wall")
        seen = loaded(back.pieces[0], back).things[-1]
        own = board_n(arm)
        self.assertAlmostEqual(seen.mass_kg or 0.0, (8.0 * KG + own) / 4 / KG, places=9)
        self.assertEqual((seen.at_mm, seen.out_mm), (1500.0 - 150.0, 400.0))
        alone = turned(plan.without_piece("arm"), "wall")
        self.assertGreater(
            judge_piece(back.pieces[0], back).used, judge_piece(alone.pieces[0], alone).used
        )

    def test_a_shelf_that_is_gone_or_elsewhere_is_told(self) -> None:
        plan = self.pantry()
        gone = turned(turned(plan, "wall").without_piece("piece"), "wall-3")
        self.assertEqual(check(gone, "ledger.rests").outcome, "doesnt_fit")
        for changes in ({"left_mm": 420.0}, {"top_mm": 1400.0}):
            found = check(self.pantry(**changes), "ledger.rests")
            self.assertEqual(found.outcome, "doesnt_fit", changes)
        self.assertEqual(check(plan, "ledger.rests").outcome, "holds")

    def test_what_rests_on_a_full_list_is_not_dropped(self) -> None:
        """Sixty things are as many as a list takes; what rests on the shelf is one more."""
        back = turned(self.pantry(), "wall")
        full = back.with_piece(replace(back.pieces[0], things=load(0.1) * 60))
        self.assertEqual(check(full, "ledger.rests").outcome, "doesnt_fit")
        fits = back.with_piece(replace(back.pieces[0], things=load(0.1) * 59))
        self.assertNotIn("ledger.rests", [each.code for each in assess(fits).pieces[0].checks])

    def test_an_upright_is_a_column(self) -> None:
        """300 × 18 of plywood, 1 482 high: π² E I / l² over the safety."""
        found = check(self.pantry(), "ledger.upright")
        row = tables.boards()["plywood"]
        euler = pi**2 * row.e_mpa * (300 * 18**3 / 12) / 1482**2
        self.assertAlmostEqual(found.capacity.value, euler / tables.house("buckling_safety"))
        free = self.pantry(right_upright=False)
        self.assertEqual(check(free, "ledger.front").outcome, "wont_hold")
        codes = {cure.code for cure in cures(free, "arm")}
        self.assertTrue(any("upright" in code for code in codes), codes)

    def test_its_parts_are_cut(self) -> None:
        names = [part.name for part in parts_of(self.pantry()).cut if part.key == "arm"]
        self.assertEqual(names.count("upright"), 1)
        self.assertEqual(names.count("joint strip"), 1)
        self.assertNotIn("side ledger", names)


class AtTheWall(SimpleTestCase):
    """What was met round the corner is kept with the wall that it was met in."""

    def after(self, what: What, **told: float) -> tuple[Plan, Plan, Mark]:
        """The place from the back and from the right, and the mark there, after a hole."""
        plan = closet(side_wall(320.0, 500.0), side_wall(120.0, 300.0))
        mark = next(
            m for m in piece_marks(plan.pieces[0], plan.wall, "metric") if m.side == "right"
        )
        now = tell(plan, mark, MarkReport(what, **told))
        return now, turned(now, plan.after[0].key), mark

    def test_a_sound_hole_is_a_step_done(self) -> None:
        now, there, mark = self.after("good")
        self.assertEqual((now.at, now.as_built.drilled), ("wall", ()))
        [hole] = there.as_built.drilled
        self.assertEqual((hole.piece, hole.x_mm, hole.y_mm), ("piece", mark.x_mm, mark.y_mm))
        done = [step.key for step in steps(now, "piece", "metric") if step.done]
        self.assertEqual(done, [f"right-drill-{mark.x_mm:.0f}-{mark.y_mm:.0f}"])

    def test_no_wood_there_takes_the_stud_from_that_wall(self) -> None:
        now, there, mark = self.after("no_wood")
        self.assertNotIn(mark.stud_mm, [stud.centre_mm for stud in there.wall.studs])
        self.assertEqual(len(now.wall.studs), 5)
        self.assertEqual(check(now, "ledger.tips").capacity.value, 300.0)  # one screw is left
        moved = self.after("stud_off", by_mm=20.0)[1]
        self.assertIn(140.0, [stud.centre_mm for stud in moved.wall.studs])

    def test_begun_again_its_holes_are_old_ones_in_both_walls(self) -> None:
        now, _, mark = self.after("good")
        again = begun_again(now, "piece")
        there = turned(again, again.after[0].key)
        self.assertEqual(there.as_built.drilled, ())
        [old] = there.wall.features
        self.assertEqual((old.kind, old.centre_mm), ("hole", mark.x_mm))


class WayIn(SimpleTestCase):
    """Against shapely: the board in the plane of the opening, and lowered inside."""

    INSIDE = Inside(1515.0, 620.0, 2400.0)

    def test_a_board_longer_than_the_opening_goes_in_with_one_end_raised(self) -> None:
        """1 515 × 82 through 1 120: cos φ 1 515 + sin φ 82 = 1 120 at 45.52°, so 46."""
        way = way_in(
            Parcel.of(1515, 350, 82),
            Opening(width_mm=1120, height_mm=2030, away_mm=620),
            self.INSIDE,
        )
        assert way is not None
        self.assertEqual(way.raised_deg, 46.0)
        plan = replace(
            closet(side_wall(320.0, 500.0), side_wall(120.0, 300.0)),
            opening=Opening(width_mm=1120, height_mm=2030, away_mm=620),
        )
        found = check(plan, "piece.way_in")
        self.assertEqual(found.outcome, "holds")
        self.assertIn("one end raised", found.sentence.template)
        low = replace(plan, opening=Opening(width_mm=600, height_mm=900, away_mm=620))
        self.assertEqual(check(low, "piece.way_in").outcome, "holds_but")

    @settings(max_examples=40)
    @given(
        long=st.floats(300, 3000),
        broad=st.floats(100, 700),
        thick=st.floats(10, 99),
        wide=st.floats(400, 2000),
        high=st.floats(600, 2400),
        deep=st.floats(400, 4000),
    )
    def test_no_way_that_is_told_touches_anything(
        self, long: float, broad: float, thick: float, wide: float, high: float, deep: float
    ) -> None:
        inside = Inside(3200.0, deep, 2400.0)
        opening = Opening(width_mm=wide, height_mm=high, away_mm=deep)
        way = way_in(Parcel(long, broad, thick), opening, inside)
        if way is None:
            return
        board = shapely.box(0, 0, long, thick)
        if way.turned_deg is not None:
            return  # its own test below
        if way.raised_deg is None:
            turned = shapely.affinity.rotate(board, atan2(thick, long) * 180 / pi)
            reach = turned.bounds[3] - turned.bounds[1], turned.bounds[2] - turned.bounds[0]
            self.assertLessEqual(max(reach), deep + 1e-6)
            return
        hole = shapely.box(0, 0, wide, high)
        raised = shapely.affinity.rotate(board, way.raised_deg)
        left, low, _, _ = raised.bounds
        self.assertTrue(hole.buffer(1e-6).contains(shapely.affinity.translate(raised, -left, -low)))
        for turn in range(int(way.raised_deg), -1, -3):
            west, foot, east, top = shapely.affinity.rotate(board, turn).bounds
            self.assertLessEqual(east - west, max(3200.0, long + thick) + 1e-6)
            self.assertLessEqual(top - foot, max(2400.0, high) + 1e-6)
        self.assertLessEqual(broad, deep)


class InTheRoom(SimpleTestCase):
    def test_pieces_at_walls_that_meet_are_kept_apart(self) -> None:
        plan = closet(side_wall(320.0, 500.0), side_wall(120.0, 300.0))
        right = turned(plan, plan.after[0].key)
        for top, clashes in ((1495.0, True), (1600.0, True), (1900.0, False)):
            with self.subTest(top=top):
                both = right.with_piece(_small(top_mm=top))
                seen = [
                    "piece.corner_clash" in {c.code for c in assess(each).pieces[0].checks}
                    for each in (both, turned(both, "wall"))
                ]
                self.assertEqual(seen, [clashes, clashes])

    @given(left=st.floats(60, 100), depth=st.floats(100, 400), degrees=st.floats(65, 115))
    def test_a_clash_is_what_geos_sees(self, left: float, depth: float, degrees: float) -> None:
        plan = closet(side_wall(), side_wall(), shelf(depth_mm=200.0), degrees)
        small = _small(left_mm=left, depth_mm=depth, top_mm=1500.0)
        both = turned(turned(plan, plan.after[0].key).with_piece(small), "wall")
        every = standing(both)
        shapes = {
            each.piece.key: [
                (shapely.Polygon(body.outline), body.bottom_mm, body.top_mm) for body in each.bodies
            ]
            for each in every
        }
        shared = max(
            one.intersection(two).area
            for one, low, high in shapes["piece"]
            for two, foot, top in shapes["small"]
            if min(high, top) - max(low, foot) > 1
        )
        found = next(
            (c for c in assess(both).pieces[0].checks if c.code == "piece.corner_clash"), None
        )
        if found is not None:
            self.assertGreater(shared, 0)
        if shared > 2_000:
            self.assertIsNotNone(found)


class Turned(SimpleTestCase):
    """Level through an opening, from above, against GEOS: each place, and what lies between."""

    CASES = (
        (turning.Floor(1515.0, 620.0, 1200.0), 1200.0, 300.0),
        (turning.Floor(1600.0, 900.0, 1150.0), 1500.0, 100.0),
        (turning.Floor(1600.0, 1000.0, 1300.0), 1500.0, 300.0),
    )

    def touched(self, plan: turning.Floor, board: shapely.Polygon) -> float:
        """How deep a board is in walls, mm of its border: the walls as lines of no thickness."""
        gap = (plan.wide_mm - plan.opening_mm) / 2
        walls = shapely.MultiLineString(
            [
                [(0, plan.deep_mm), (0, 0), (plan.wide_mm, 0), (plan.wide_mm, plan.deep_mm)],
                [(0, plan.deep_mm), (gap, plan.deep_mm)],
                [(plan.wide_mm - gap, plan.deep_mm), (plan.wide_mm, plan.deep_mm)],
            ]
        )
        return float(board.buffer(-3.0).intersection(walls).length)

    def test_each_step_of_a_way_touches_nothing_and_it_ends_at_the_wall(self) -> None:
        for plan, long, broad in self.CASES:
            row = turning.way(plan, long, broad)
            self.assertTrue(row)
            outer, last = row[0], row[-1]
            self.assertEqual((last.y_mm, last.deg), (broad / 2, 0.0))
            board = shapely.box(-long / 2, -broad / 2, long / 2, broad / 2)
            for place in row:
                here = shapely.affinity.rotate(board, place.deg, origin=(0, 0))
                here = shapely.affinity.translate(here, place.x_mm, place.y_mm)
                self.assertEqual(self.touched(plan, here), 0.0, place)
                if place == outer:
                    self.assertGreaterEqual(here.bounds[1], plan.deep_mm)

    def test_what_can_t_pass_has_no_way(self) -> None:
        for plan, long, broad in (
            (turning.Floor(1515.0, 620.0, 1120.0), 1515.0, 350.0),
            (turning.Floor(1600.0, 900.0, 700.0), 1500.0, 100.0),
            (turning.Floor(1000.0, 500.0, 900.0), 1200.0, 100.0),
        ):
            self.assertEqual(turning.way(plan, long, broad), ())

    def test_it_is_told_and_what_does_not_go_in_whole_goes_in_parts(self) -> None:
        """A low opening: nothing can be raised; 1 200 by 300 is turned level through 1 200."""
        way = way_in(
            Parcel.of(1200, 300, 140),
            Opening(width_mm=1190, height_mm=200, away_mm=620),
            Inside(1515.0, 620.0, 2400.0),
        )
        assert way is not None
        assert way.turned_deg is not None
        self.assertGreater(way.turned_deg, 0.0)
        case = put_up("bookcase", wall(), height_mm=2200.0, length_mm=1200.0, top_mm=2200.0)
        case = replace(case, body_kg=40.0, depth_mm=500.0)
        there = Plan(name="Closet", units="metric", wall=wall(), pieces=(case,))
        told = [
            next(c for c in assess(each).pieces[0].checks if c.code == "piece.way_in")
            for each in (
                replace(there, opening=Opening(width_mm=wide, height_mm=2000, away_mm=2600))
                for wide in (480, 520)
            )
        ]
        self.assertIn("put it together inside", told[0].sentence.template)
        self.assertEqual(told[0].outcome, "holds")
