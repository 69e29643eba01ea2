"""Panels with a grid of holes, by hand: 600 mm each, 6 mm holes every 25 mm from 12.5 mm on."""

from typing import Any

from msgspec.structs import replace

from tests.plans import plan, wall
from tests.trade.kind_case import KG, Case, load, piece
from trade import wording
from trade.assess import assess_piece
from trade.choose.cures import cures
from trade.choose.hooks import fewest_rows
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.errors import PlanError
from trade.mounts import mount_of
from trade.mounts.panel_screws import holder_kg
from trade.mounts.peg_wall import grid
from trade.plan.model import GridPanel, PegWall

SIZES: dict[str, Any] = {
    "length_mm": 1200.0,
    "height_mm": 600.0,
    "thickness_mm": 6.0,
    "board": "hardboard",
    "depth_mm": 100.0,
    "batten_mm": 25.4,
    "panel_screw_mm": 25.0,
    "panels": 2,
    "hole_mm": 6.0,
    "pitch_mm": 25.0,
    "edge_mm": 12.5,
    "use": "everyday",
}


def panels(**changes: Any) -> GridPanel:
    """Two panels on battens from 700 mm on, held by the studs at 800 and 1 600 mm."""
    made = piece(GridPanel, **(SIZES | changes))
    assert isinstance(made, GridPanel)
    return made


class Grid(Case):
    def test_screws_go_where_holes_are_and_battens_behind_them(self) -> None:
        """Rows 12.5 + 25 n down from 600: nearest to 560 is 562.5; columns from first to last."""
        self.assertEqual(panels().rows_mm, (562.5, 312.5, 37.5))
        self.assertEqual(panels().columns_mm, (12.5, 212.5, 387.5, 587.5))
        many = {part.name: part.many for part in mount_of(panels()).parts(panels(), wall())}
        self.assertEqual(many, {"batten": 3, "panel": 2})
        [extra] = mount_of(panels()).extras(panels(), wall())
        self.assertEqual(extra.many, 2 * 3 * 4)
        for wrong in ({"pitch_mm": 400.0}, {"hole_mm": 60.0}, {"panels": 40}, {"rows": 8}):
            with self.assertRaises(PlanError):
                panels(**({"height_mm": 130.0} | wrong))

    def test_the_fewest_battens_are_tried_no_further_than_it_has_holes(self) -> None:
        low = panels(height_mm=70.0 + 50.0, rows=2, things=load(60.0), pitch_mm=50.0)
        self.assertIsNone(fewest_rows(plan(low), low.key))
        three = panels()
        best = fewest_rows(plan(three), three.key)
        assert best is not None
        self.assertEqual(getattr(best, "rows", 0), 2)

    def test_the_grid_runs_on_over_a_joint_or_a_gap_makes_it(self) -> None:
        """591 mm panels have 8 mm beside the outermost holes: 16 over the joint, 9 less than 25."""
        self.assertEqual(self.outcome(panels()), "holds")
        off = panels(length_mm=1182.0, edge_mm=8.0)
        self.assertAlmostEqual(self.check("grid.joint", off).demand.value, 9.0)
        self.assertEqual(self.outcome(off), "holds_but")
        cure = next(c for c in cures(plan(off), off.key) if c.code == "gap")
        mended: Any = cure.piece
        self.assertAlmostEqual(mended.gap_mm, 9.0)
        self.assertAlmostEqual(mended.panel_mm, 591.0)
        self.assertEqual(assess_piece(mended, wall()).outcome, "holds")
        wide = panels(length_mm=1180.0)  # 27.5 and 12.5 beside the holes are too much already
        self.fails("grid.joint", wide)
        self.assertFalse([c for c in cures(plan(wide), wide.key) if c.code == "gap"])

    def test_a_screw_must_go_through_the_hole(self) -> None:
        """A 5/16 lag does not go through a 1/4 in hole; a #8 screw, 4.2 mm, not through 4 mm."""
        straight = panels(panels=1, batten_mm=0.0, left_mm=687.5, supports_mm=(112.5, 912.5))
        thick = replace(straight, screw="lag_5_16", hole_mm=6.35)
        self.assertAlmostEqual(self.fails("grid.fits", thick).demand.value, 7.94, delta=0.01)
        self.fails("grid.fits", panels(hole_mm=4.0))

    def test_straight_on_the_studs_every_stud_needs_a_hole_and_on_battens_none(self) -> None:
        """The stud at 800 is 100 from the left end; holes are at 87.5 and 112.5."""
        straight = panels(panels=1, batten_mm=0.0)
        self.assertAlmostEqual(self.fails("grid.hole", straight).demand.value, 12.5)
        landed = mount_of(straight).landed(straight, wall())
        self.assertTrue(all((x - 12.5) % 25.0 == 0 for x in landed.supports_mm))
        self.assertEqual(self.check("grid.hole", landed).demand.value, 0.0)
        codes = {check.code for check in assess_piece(panels(), wall()).checks}
        self.assertNotIn("grid.hole", codes)
        found = [c for c in cures(plan(straight), straight.key) if c.code == "batten"]
        self.assertTrue(found)


class Held(Case):
    def test_each_panel_turns_for_itself_and_a_push_turns_it_once(self) -> None:
        """8 kg on the left one, 100 out: times 1.25, and its half of panels and battens.

        P = M 562.5 / (562.5² + 312.5² + 37.5²), with four screws in the top batten.
        """
        heavy = panels(things=load(8.0, at_mm=300.0, out_mm=100.0))
        check = self.check("panel.batten_screws", heavy)
        own = (600 * 600 * 6 * 900 + 3 * 600 * 64 * 25.4 * 350) / 1e9
        own_kg = check.values["M"] / KG - 1.25 * 8.0 * 100.0
        self.assertAlmostEqual(own_kg / (3.0 + 25.4), own, delta=0.15)
        squares = 562.5**2 + 312.5**2 + 37.5**2
        self.assertAlmostEqual(check.demand.value, check.values["M"] * 562.5 / squares / 4)
        one: dict[str, Any] = {"panels": 1, "length_mm": 600.0, "supports_mm": (100.0, 500.0)}
        alone = panels(**one, things=load(8.0, at_mm=300.0, out_mm=100.0))
        self.assertAlmostEqual(
            self.check("panel.batten_screws", alone).demand.value, check.demand.value
        )
        joint = panels(things=load(8.0, at_mm=600.0, out_mm=100.0))  # on both sides of the joint
        self.assertAlmostEqual(
            self.check("panel.batten_screws", joint).demand.value, check.demand.value
        )

    def test_four_fixings_a_panel_are_its_own_and_not_those_of_its_battens(self) -> None:
        two = panels(rows=2, panel_screws=2)
        self.assertEqual(self.check("panel.fixings", two).capacity.value, 4)
        narrow = panels(height_mm=150.0, rows=2, panel_screws=2, panels=1, batten_mm=0.0)
        self.assertEqual(self.check("panel.fixings", narrow).capacity.value, 4)

    def test_straight_on_the_studs_each_panel_needs_two_and_none_on_the_joint(self) -> None:
        """Two panels of 800: studs at 112.5, 512.5 | 912.5, 1 312.5, as if each hung alone."""
        sizes = {"length_mm": 1600.0, "batten_mm": 0.0, "left_mm": 687.5, "depth_mm": 100.0}
        both = panels(**sizes, supports_mm=(112.5, 512.5, 912.5, 1312.5), things=load(10.0))
        self.assertEqual(self.outcome(both), "holds")
        alone = panels(**(sizes | {"length_mm": 800.0}), panels=1, supports_mm=(112.5, 512.5))
        alone = replace(alone, things=load(5.0))
        self.assertAlmostEqual(
            self.check("screw.shear", both).demand.value,
            self.check("screw.shear", alone).demand.value,
        )
        self.fails("support.count", replace(both, supports_mm=(112.5, 512.5, 912.5)))
        near = replace(both, supports_mm=(112.5, 512.5, 805.0, 1312.5))
        self.assertAlmostEqual(self.fails("panel.joint", near).capacity.value, 5.0)

    def test_between_its_rows_the_sheet_bears_a_holder(self) -> None:
        """A strip of 200 mm: 200 × 6² / 6 × 19/25 = 912 mm³, at 31/8 × 0.9 MPa.

        A holder 100 out carries 2 σ' S / (1.25 × 100).
        """
        section = 200.0 * 36 / 6 * 19 / 25
        check = self.check("panel.sheet", panels())
        self.assertAlmostEqual(check.values["S"], section, places=6)
        kg = 2 * (31 / 8 * 0.9) * section / (1.25 * 100.0) / KG
        self.assertAlmostEqual(holder_kg(panels()), kg, places=6)
        just = panels(things=load(kg * 1.01, at_mm=300.0, out_mm=100.0))
        self.fails("panel.sheet", just)
        said = [wording.phrase(m, "metric") for m in mount_of(just).cautions(just, wall())]
        self.assertTrue(any(f"carry {kg:.1f} kg" in each for each in said), said)

    def test_what_a_packet_states_of_a_panel_counts_instead_of_the_sheet_s_sum(self) -> None:
        heavy = panels(things=load(12.0, at_mm=900.0, out_mm=60.0), board="steel_sheet")
        heavy = replace(heavy, thickness_mm=1.0, panel_kg=10.0)
        demand = self.fails("grid.rated", heavy).demand.value
        self.assertAlmostEqual(demand, 1.25 * 12 * KG)
        self.assertNotIn("panel.sheet", {c.code for c in assess_piece(heavy, wall()).checks})
        self.assertEqual(self.check("grid.rated", replace(heavy, panel_kg=40.0)).outcome, "holds")
        self.cannot_tell("will carry", panels(things=()))

    def test_panels_are_bought_and_peg_walls_run_on_too(self) -> None:
        now = plan(panels())
        lines = {line.what for line in shopping(now, cut_plan(now), "metric").lines}
        self.assertTrue(any("hardboard" in str(what) for what in lines), lines)
        pegs = piece(
            PegWall,
            **{k: SIZES[k] for k in ("length_mm", "height_mm", "depth_mm", "batten_mm", "panels")},
            thickness_mm=18.0,
            board="plywood",
            panel_screw_mm=40.0,
            peg_mm=16.0,
        )
        columns = {50.0 + i * 100.0 for i, _ in grid(pegs).places}
        self.assertEqual(len(columns), 12)  # 550 and 650 beside the joint at 600
        self.assertNotIn(600.0, {50.0 + i * 100.0 for i, _ in grid(pegs).places})
        odd = replace(pegs, length_mm=1100.0)  # the joint at 550 is where a hole would be
        self.assertEqual(set(range(11)) - {i for i, _ in grid(odd).places}, {5})
