"""A strip of two lengths that meet slantwise over a stud: statics, parts, marks, cures.

A rail from 700 to 3 100 mm over studs every 400 mm, 24 kg along it; the joint is over the stud at
2 000, 1 300 mm from its left end.
"""

from typing import Any

from msgspec.structs import replace

from tests.plans import plan, wall
from tests.trade.kind_case import KG, Case, load, piece
from trade.assess import assess_piece
from trade.choose.cures import cures
from trade.choose.shop_lengths import of_two_lengths
from trade.cutting.sold import unsold
from trade.errors import PlanError
from trade.marking.marks import marks
from trade.mounts import jointed, mount_of
from trade.mounts.rail import rail_load
from trade.plan.model import CleatWall, GridPanel, Panel, Rail
from trade.plan.pieces.base import SHORTEST_MM

AT = 1300.0
PLACES = (100.0, 500.0, 900.0, 1300.0, 1700.0, 2100.0)


def rail(kind: type[Any] = Rail, **changes: Any) -> Any:
    sizes = {"board": "oak_red", "thickness_mm": 19.0, "height_mm": 90.0, "depth_mm": 100.0}
    own = sizes if kind is Rail else {}
    made = {"length_mm": 2400.0, "supports_mm": PLACES, "things": load(24.0), "joint_mm": AT}
    return piece(kind, **(own | made | changes))


class Joints(Case):
    def test_each_length_is_a_beam_of_its_own_and_the_stud_there_bears_both(self) -> None:
        """Left 1 300 of 2 400: 13 kg; what all supports bear for years is the whole load."""
        left, right = jointed.lengths(rail())
        self.assertAlmostEqual(left.things[0].mass_kg, 13.0)
        self.assertEqual((left.supports_mm, right.supports_mm), (PLACES[:4], (0.0, 400.0, 800.0)))
        found, one, other = (
            jointed.demands(rail(), rail_load),
            rail_load(left).demands(),
            rail_load(right).demands(),
        )
        self.assertAlmostEqual(found[3][0].load_n, one[3][0].load_n + other[0][0].load_n)
        self.assertAlmostEqual(
            found[3][0].moment_nmm, one[3][0].moment_nmm + other[0][0].moment_nmm
        )
        self.assertAlmostEqual(found[5][0].load_n, other[2][0].load_n)
        weight = rail_load(left).own_n + rail_load(right).own_n
        use = rail_load(left).use.factor
        whole = replace(rail(), joint_mm=None)
        self.assertAlmostEqual(weight, rail_load(whole).own_n)
        spread = sum(cases[0].load_n for cases in found.values())
        self.assertGreaterEqual(spread, weight + use * 24.0 * KG - 1e-6)  # each at its hardest
        bent = self.check("rail.bending", rail()).demand.value
        alone = [self.check("rail.bending", each).demand.value for each in (left, right)]
        self.assertAlmostEqual(bent, max(alone))
        seats = mount_of(rail()).supports(rail(), wall())
        self.assertEqual(
            [seat.side.thickness_mm for seat in seats], [19.0] * 3 + [9.5] + [19.0] * 2
        )

    def test_a_joint_between_studs_does_not_do_and_moves_to_one(self) -> None:
        off = rail(joint_mm=1100.0)
        self.assertAlmostEqual(self.fails("strip.joint", off).demand.value, 200.0)
        found = [c.piece.joint_mm for c in cures(plan(off), off.key) if c.code == "joint"]
        self.assertIn(found[0], (900.0, 1300.0))
        self.assertEqual(self.outcome(replace(off, joint_mm=found[0])), "holds")
        self.fails("strip.joint", rail(joint_mm=100.0))  # the left length is held once
        with self.assertRaises(PlanError):
            rail(joint_mm=2400.0)

    def test_it_is_cut_from_two_boards_and_marked_like_one(self) -> None:
        """The slants overlap by the thickness: each is half of it longer."""
        boards = mount_of(rail()).parts(rail(), wall())
        self.assertEqual([part.sizes_mm[0] for part in boards if part.sizes_mm], [1309.5, 1109.5])
        whole = replace(rail(), joint_mm=None)
        places = [(m.x_mm, m.y_mm) for m in marks(plan(rail()))]
        self.assertEqual(places, [(m.x_mm, m.y_mm) for m in marks(plan(whole))])
        made = mount_of(rail()).details(rail(), wall(), "metric")
        self.assertEqual(set(made), {part.name for part in boards})
        self.assertEqual(len(mount_of(rail()).front(rail())) - 1, len(mount_of(whole).front(whole)))

    def test_cleats_and_battens_too(self) -> None:
        cleats = rail(CleatWall, depth_mm=150.0, holder_mm=250.0)
        self.assertEqual(self.outcome(cleats), "holds")
        self.fails("strip.joint", replace(cleats, joint_mm=1000.0))
        many = [part.many for part in mount_of(cleats).parts(cleats, wall())]
        self.assertEqual(many, [3, 3])
        panel = rail(
            Panel,
            board="plywood",
            height_mm=800.0,
            thickness_mm=12.0,
            batten_mm=19.0,
            depth_mm=90.0,
        )
        panel = replace(panel, panel_screw_mm=28.0, panels=2, panel_screws=6)
        self.assertEqual(self.outcome(panel), "holds")
        self.fails("strip.joint", replace(panel, joint_mm=1000.0))
        names = [part.name for part in mount_of(panel).parts(panel, wall())]
        self.assertEqual(names, ["sheet", "left batten", "right batten"])
        codes = {check.code for check in assess_piece(replace(panel, batten_mm=0.0), wall()).checks}
        self.assertNotIn("strip.joint", codes)

    def test_what_no_shop_has_in_one_piece_is_jointed_by_one_tap(self) -> None:
        """White oak 27 mm thick is sold up to 2 000 mm in metric sizes; the rail is 2 400 mm."""
        long = rail(board="oak_white", thickness_mm=27.0, joint_mm=None)
        one = of_two_lengths(plan(long), long.key)
        assert one is not None
        made = one.on(plan(long)).pieces[0]
        self.assertEqual((self.outcome(made), one.outcome), ("holds", "holds"))
        self.assertIn(made.joint_mm, PLACES[1:-1])
        self.assertTrue(unsold(long, plan(long)))
        self.assertEqual(unsold(made, plan(made)), [])
        short = replace(long, length_mm=1300.0, supports_mm=PLACES[:3])
        for needs_none in (made, short):
            self.assertIsNone(of_two_lengths(plan(needs_none), needs_none.key))

    def test_battens_behind_several_panels_may_be_jointed_anywhere(self) -> None:
        """One length may be narrower than two panels side by side, or than their grid."""
        for kind in (Panel, GridPanel):
            sizes = {"height_mm": 600.0, "thickness_mm": 12.0, "depth_mm": 90.0}
            made = {"board": "plywood", "panels": 12, "batten_mm": 19.0, "joint_mm": None}
            many = rail(kind, **(sizes | made))
            for at in (SHORTEST_MM, 160.0, *PLACES, 2400.0 - SHORTEST_MM):
                with self.subTest(kind=kind, at=at):
                    jointed_there = replace(many, joint_mm=at)
                    found = assess_piece(jointed_there, wall()).checks
                    [joint] = [check for check in found if check.code == "strip.joint"]
                    self.assertEqual(joint.outcome != "doesnt_fit", at in PLACES[1:-1])
            with self.assertRaisesRegex(PlanError, "too close to an end"):
                replace(many, joint_mm=SHORTEST_MM - 1)
