"""Desks and benches in a corner, and corner shelves with a round front.

The desk: 1 200 by 600, 24 mm plywood, its left end on a ledger at the wall beside, one leg.
"""

from math import pi
from typing import Any

import numpy as np
import shapely
from msgspec.structs import replace

from tests.plans import wall
from tests.trade.kind_case import KG, Case, load, piece
from tests.trade.test_place import closet, side_wall
from trade.assess import assess
from trade.choose.cures import cures
from trade.job.steps import steps
from trade.load.push import push_of
from trade.load.shelf import board_n
from trade.mounts import mount_of
from trade.mounts.ledger_bench import end_loads, front_held_mm
from trade.mounts.work import Rounded
from trade.plan.model import Bench, CornerShelf, Plan, Stud, WallPlan
from trade.plan.place import turned, with_wall


def desk(**changes: Any) -> Bench:
    base: dict[str, Any] = {
        "left_mm": 0.0,
        "top_mm": 740.0,
        "length_mm": 1200.0,
        "depth_mm": 600.0,
        "thickness_mm": 24.0,
        "board": "plywood",
        "supports_mm": (60.0, 400.0, 800.0, 1140.0),
        "use": "everyday",
        "left_side": True,
        "legs": 1,
        "screw_length_mm": 88.9,
        "apron_mm": 120.0,
        "things": load(20.0),
    }
    made = piece(Bench, **(base | changes))
    assert isinstance(made, Bench)
    return made


def corner(*studs_mm: float, what: Bench | None = None, **changes: Any) -> Plan:
    """Two walls: the desk's, and one to its left with studs so far from the corner."""
    back = wall(
        width_mm=2000.0,
        studs=tuple(Stud(centre_mm=x) for x in (60.0, 400.0, 800.0, 1140.0, 1600.0)),
    )
    plan = Plan(name="Corner", units="metric", wall=back, pieces=(what or desk(),), faced="Back")
    left = side_wall(*(620.0 - x for x in studs_mm), **changes)
    return turned(with_wall(plan, "left", WallPlan(name="Left", wall=left), 90.0), "wall")


def found(plan: Plan, code: str) -> Any:
    return next(c for c in assess(plan).pieces[0].checks if c.code == code)


class Desks(Case):
    def test_the_end_in_the_corner_bears_a_quarter_and_its_wall_s_studs_judge_it(self) -> None:
        """Span 1 160 from the corner to the leg: 1 160/1 200 of half a half, at the front edge."""
        self.assertEqual(front_held_mm(desk()), (0.0, 1160.0))
        loads = end_loads(desk(), 1.25)
        even = board_n(desk()) + 1.25 * 20.0 * KG
        self.assertAlmostEqual(loads["left"].force_n, even / 4 * 1160 / 1200)
        self.assertEqual((set(loads), loads["left"].at_mm), ({"left"}, 600.0))
        thing = desk(things=load(10.0, at_mm=230.0, out_mm=300.0))
        here = end_loads(thing, 1.0)["left"].points_n
        self.assertAlmostEqual(here, 10.0 * KG * (1 - 230 / 1160) / 2)
        held = corner(200.0, 520.0)
        self.assertEqual(assess(held).pieces[0].outcome, "holds")
        self.assertIn("Left", found(held, "ledger.side").sentence.parts["wall"])
        none = found(corner(610.0), "ledger.nothing")
        self.assertEqual(none.outcome, "wont_hold")
        tips = corner(200.0, what=desk(use="hard"))
        self.assertEqual(found(tips, "ledger.tips").outcome, "wont_hold")

    def test_its_front_needs_two_places_and_a_leg_is_a_column(self) -> None:
        alone = found(corner(200.0, 520.0, what=desk(legs=0)), "ledger.front")
        self.assertEqual((alone.outcome, alone.capacity.value), ("wont_hold", 1))
        self.assertTrue(found(corner(200.0, 520.0), "leg.buckling").utilisation < 1)
        wide = desk(left_mm=0.0, length_mm=1500.0, legs=0, right_side=True, depth_mm=400.0)
        wide = replace(wide, supports_mm=(60.0, 400.0, 800.0, 1200.0, 1440.0), apron_mm=200.0)
        both = closet(side_wall(300.0, 500.0), side_wall(120.0, 320.0))
        judged = assess(replace(both, pieces=(wide,))).pieces[0]
        self.assertNotIn("leg.buckling", {c.code for c in judged.checks})
        self.assertNotIn("ledger.front", {c.code for c in judged.checks})

    def test_where_nobody_looked_nobody_can_tell(self) -> None:
        verdict = assess(corner(studs=())).pieces[0]
        self.assertEqual(verdict.outcome, "cannot_tell")

    def test_it_has_its_ledger_its_marks_and_its_step(self) -> None:
        held = corner(200.0, 520.0)
        names = [part.name for part in mount_of(desk()).parts(desk(), held.wall)]
        self.assertIn("side ledger", names)
        seats = mount_of(desk()).beside(desk(), held.wall)["left"]
        self.assertEqual(len(seats), 2)
        keys = [step.key for step in steps(held, "piece", "metric")]
        self.assertLess(keys.index("side-left"), keys.index("top"))

    def test_two_desks_meet_and_one_rests_on_the_other(self) -> None:
        """The one along the other wall ends at this one's front, 600 out, on a strip under both."""
        held = corner(200.0, 520.0)
        left = turned(held, held.before[0].key)
        wide = replace(left, wall=replace(left.wall, width_mm=1800.0))
        studs = tuple(Stud(centre_mm=x) for x in (100.0, 500.0, 900.0, 1280.0, 1600.0))
        wide = replace(wide, wall=replace(wide.wall, studs=studs))
        other = desk(
            left_side=False,
            right_on="piece",
            length_mm=1200.0,
            supports_mm=(100.0, 500.0, 900.0),
            legs=1,
            things=load(10.0),
        )
        both = wide.with_piece(replace(other, key="wing", left_mm=0.0))
        wing = assess(both).piece("wing")
        self.assertEqual((wing.outcome, wing.governing.code), ("wont_hold", "ledger.joint"))
        more = next(c for c in cures(both, "wing") if c.code == "joint_screws")
        self.assertEqual(assess(more.on(both)).piece("wing").outcome, "holds")
        rest = mount_of(other).rests(other)["right"]
        self.assertEqual((rest.on, rest.depth_mm), ("piece", 600.0))
        lasting = end_loads(other, 1.25)["right"].force_n
        joint = next(c for c in wing.checks if c.code == "ledger.joint")
        pushed = lasting + push_of(other).n
        self.assertAlmostEqual(joint.demand.value, 3 * pushed / 4)
        extra = mount_of(other).extras(other, both.wall)[-1]
        self.assertEqual((extra.where, extra.many), ("Under the joint", 8))
        gone = replace(both, pieces=(replace(other, key="wing", right_on="gone"),))
        self.assertIn(
            "ledger.rests",
            {
                c.code
                for c in assess(gone).piece("wing").checks
                if c.demand.value > 0 and c.outcome == "doesnt_fit"
            },
        )


class Rounds(Case):
    def shelf(self, **changes: Any) -> CornerShelf:
        sizes: dict[str, Any] = {
            "left_mm": 0.0,
            "length_mm": 400.0,
            "depth_mm": 300.0,
            "thickness_mm": 18.0,
            "board": "plywood",
            "supports_mm": (30.0, 360.0),
            "other_mm": 270.0,
            "other_sure": True,
            "front": "round",
            "things": load(6.0),
        }
        made = piece(CornerShelf, **(sizes | changes))
        assert isinstance(made, CornerShelf)
        return made

    def test_its_area_its_middle_and_how_far_it_stands_out_by_geometry(self) -> None:
        """Against GEOS: a polygon of many sides for a quarter of an ellipse."""
        angles = np.linspace(0, pi / 2, 2001)
        arc = np.column_stack([400 * np.cos(angles), 300 * np.sin(angles)])
        face = shapely.Polygon([(0, 0), *arc])
        shape = self.shelf().shape
        self.assertAlmostEqual(face.area / (400 * 300), shape.area, places=6)
        self.assertAlmostEqual(face.centroid.x / 400, shape.middle, places=5)
        self.assertAlmostEqual(face.centroid.y / 300, shape.middle, places=5)
        middle = shapely.LineString([(0, 0), (400, 300)]).intersection(face.exterior)
        far = max(point.x for point in middle.geoms)
        self.assertAlmostEqual(far / 400, shape.far, places=5)
        board = next(
            b for b in mount_of(self.shelf()).solids(self.shelf(), wall()) if b.role == "board"
        )
        self.assertAlmostEqual(
            shapely.Polygon(board.outline).area, face.area, delta=0.005 * face.area
        )

    def test_its_front_is_a_beam_from_screw_to_screw(self) -> None:
        """360 and 270 out: 450 between; half of all along it, and the push in its middle."""
        check = self.check("corner.front", self.shelf(use="hard"))
        board = pi / 4 * 0.4 * 0.3 * 0.018 * 520.0 * KG
        moment = (1.5 * 6.0 * KG + board) / 2 * 450 / 8 + 300.0 * 450 / 4
        self.assertAlmostEqual(check.values["M"], moment, places=3)
        self.assertAlmostEqual(check.values["h"], 360 * 270 / 3 / 450)

    def test_its_screws_must_be_further_out_than_a_slanting_one_s(self) -> None:
        """0.4244 of each leg: 2 × 0.4244 = 85 % of the way out is the least, not two thirds."""
        for share, fits in ((0.86, True), (0.84, False)):
            out = self.shelf(supports_mm=(30.0, 400 * share), other_mm=300 * share)
            self.assertEqual(self.check("corner.triangle", out).utilisation <= 1, fits)
            slant = replace(out, front="slant")
            self.assertLess(self.check("corner.triangle", slant).utilisation, 0.9)

    def test_it_is_sawn_round(self) -> None:
        works = mount_of(self.shelf()).details(self.shelf(), wall(), "metric")["board"].works
        self.assertIn(Rounded(400.0, 300.0), works)
