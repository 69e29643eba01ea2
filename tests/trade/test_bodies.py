"""Boards of bodies: they fit together, and nothing is missing, by a library for solids."""

from itertools import combinations
from typing import Any

from django.test import SimpleTestCase
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from manifold3d import Manifold, OpType
from msgspec.structs import replace

from tests.plans import plan, wall
from trade import data, wording
from trade.assess import judge_piece
from trade.check import Check
from trade.choose.samples import sample
from trade.cutting.parts import labelled, parts_of
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.errors import PlanError
from trade.fixings import driving, wood
from trade.job.steps import steps
from trade.load.line import LineLoad
from trade.measure import G_N_PER_KG
from trade.mounts import mount_of
from trade.plan.model import Policy, Thing
from trade.workshop.carcass import Case, boards, weight_kg
from trade.workshop.panels import OUT, UP, Panel

_ADD = OpType.Add
BY_HAND = Case(800.0, 2000.0, 280.0, "plywood", 18.0, data.joints()["housed"])

cases = st.builds(
    Case,
    length_mm=st.floats(250, 2400),
    height_mm=st.floats(200, 2500),
    depth_mm=st.floats(120, 600),
    board=st.sampled_from(["plywood", "oak_red"]),
    board_mm=st.sampled_from([12.0, 18.0, 19.05, 25.4]),
    joint=st.sampled_from(list(data.joints().values())),
    back_mm=st.sampled_from([0.0, 3.0, 6.35]),
    rail_mm=st.sampled_from([0.0, 60.0, 80.0]),
    rail_thick_mm=st.sampled_from([12.0, 18.0]),
    kick_mm=st.sampled_from([0.0, 45.0, 100.0]),
    doors=st.integers(0, 3),
    dividers=st.integers(0, 3),
    rows=st.integers(0, 3),
    loose=st.integers(0, 12),
    drawer_mm=st.sampled_from([0.0, 0.0, 70.0, 150.0]),
).map(lambda case: case._replace(kick_mm=0.0) if case.joint.way == "mitred" else case)


def has_room(case: Case) -> bool:
    """Whether a hand goes in everywhere, drawers included, as a plan asks for."""
    inside = min(case.bay_mm, case.front_mm - case.back_mm - case.board_mm) - 2 * case.board_mm
    return case.bay_mm > 60 and case.room_mm > 40 and (not case.drawer_mm or inside >= 60)


def solid(panel: Panel) -> Manifold:
    """The panel as a solid: what its corners span, less what is taken out."""
    whole = Manifold.hull_points(panel.corners())
    for each in panel.taken:
        whole -= Manifold.cube([each.size(axis) for axis in (0, 1, 2)]).translate(each.low)
    return whole


class Fit(SimpleTestCase):
    """Random cases of every joint."""

    @settings(max_examples=60, deadline=None)
    @given(cases)
    def test_boards_make_the_outside_sizes_and_no_two_are_in_one_place(self, case: Case) -> None:
        assume(has_room(case))
        panels = boards(case)
        solids = [solid(each) for each in panels]
        for panel, made in zip(panels, solids, strict=True):
            self.assertAlmostEqual(made.volume(), panel.volume_mm3, delta=50.0, msg=panel.name)
        whole = Manifold.batch_boolean(solids, _ADD)
        self.assertAlmostEqual(whole.volume(), sum(each.volume() for each in solids), delta=500.0)
        for got, wanted in zip(
            whole.bounding_box(),
            (0.0, 0.0, 0.0, case.length_mm, case.height_mm, case.depth_mm),
            strict=True,
        ):
            self.assertAlmostEqual(got, wanted, places=3)

    @settings(max_examples=30, deadline=None)
    @given(cases)
    def test_its_outer_faces_are_whole(self, case: Case) -> None:
        """From the side and from above no light is seen; from behind none where it has a back."""
        assume(has_room(case))
        outer = [p for p in boards(case) if p.name != "door"]
        whole = Manifold.batch_boolean([solid(each) for each in outer], _ADD)
        for turned, wanted in (
            (whole.rotate([0.0, 90.0, 0.0]), case.height_mm * case.front_mm),
            (whole.rotate([90.0, 0.0, 0.0]), case.length_mm * case.front_mm),
        ):
            self.assertAlmostEqual(turned.project().area(), wanted, delta=1.0)
        if case.back_mm:
            behind = Manifold.batch_boolean(
                [solid(p) for p in outer if p.body.low[OUT] < case.back_mm - 1e-6], _ADD
            )
            open_mm2 = case.kick_mm * (case.length_mm - 2 * case.board_mm)
            wanted = case.length_mm * case.height_mm - open_mm2
            self.assertAlmostEqual(behind.project().area(), wanted, delta=1.0)


class ByHand(SimpleTestCase):
    """A bookcase of 18 mm plywood, 800 x 2 000 x 280, with a row of fixed shelves."""

    def test_its_cut_list(self) -> None:
        case = BY_HAND._replace(back_mm=6.0, kick_mm=60.0, rows=1, rail_mm=80.0, rail_thick_mm=18.0)
        sizes = {each.name: each.sizes_mm for each in boards(case)}
        self.assertEqual(
            sizes,
            {
                "side": (2000.0, 280.0, 18.0),
                "top": (800.0 - 36.0 + 12.0, 274.0, 18.0),  # 6 in each side
                "bottom": (776.0, 274.0, 18.0),
                "back": (1940.0, 800.0 - 36.0 + 18.0, 6.0),  # 9 in each rabbet
                "rail": (764.0, 80.0, 18.0),
                "kick": (764.0, 60.0, 18.0),
                "fixed shelf": (776.0, 274.0, 18.0),
            },
        )

    def test_a_drawer_by_hand(self) -> None:
        """An opening of 764 x 150 in the same case, 274 deep: front 760 x 146, box 761 wide."""
        case = BY_HAND._replace(back_mm=6.0, drawer_mm=150.0, joint=data.joints()["screwed"])
        sizes = {e.name: e.sizes_mm for e in boards(case) if e.name.startswith("drawer")}
        long = 280.0 - 6.0 - 18.0 - 10.0
        self.assertEqual(
            sizes,
            {
                "drawer front": (760.0, 146.0, 18.0),
                "drawer side": (long, 145.0, 18.0),
                "drawer end": (761.0 - 36.0, 145.0, 18.0),
                "drawer bottom": (761.0 - 36.0 + 12.0, long - 36.0 + 12.0, 6.0),
            },
        )
        [shelf] = [each for each in boards(case) if each.name == "fixed shelf"]
        self.assertEqual(shelf.body.low[UP], 18.0 + 150.0)

    def test_it_weighs_what_its_wood_does(self) -> None:
        """By its boards whole, in litres; grooves and notches take less than a hundredth."""
        case = BY_HAND._replace(joint=data.joints()["screwed"])
        litres = 2 * 20.0 * 2.8 * 0.18 + 2 * 7.64 * 2.8 * 0.18
        self.assertAlmostEqual(
            weight_kg(case), litres * data.boards()["plywood"].density_kg_m3 / 1000
        )
        housed = weight_kg(BY_HAND)
        self.assertLess(abs(housed - weight_kg(case)), 0.01 * housed)

    def test_a_mitred_ring_is_cut_to_the_outside_and_weighs_its_middle_line(self) -> None:
        case = Case(400.0, 300.0, 200.0, "oak_red", 20.0, data.joints()["mitred"])
        sizes = sorted((each.name, each.sizes_mm) for each in boards(case))
        side, flat = (300.0, 200.0, 20.0), (400.0, 200.0, 20.0)
        self.assertEqual(sizes, [("bottom", flat), ("side", side), ("side", side), ("top", flat)])
        ring_mm3 = 2 * (380.0 + 280.0) * 20.0 * 200.0
        self.assertAlmostEqual(sum(each.volume_mm3 for each in boards(case)), ring_mm3)

    def test_a_stopped_groove_ends_where_the_notch_begins(self) -> None:
        case = BY_HAND._replace(back_mm=6.0, rows=1)
        side, *_, shelf = boards(case)
        groove = next(each for each in side.taken if each.low[UP] > 900 and each.high[UP] < 1100)
        for notch in shelf.taken:
            self.assertEqual(notch.low[OUT], groove.high[OUT])
            self.assertEqual(notch.high[OUT], case.front_mm)


class Loose(SimpleTestCase):
    """Loose shelves are spread over bays and rows."""

    def test_none_lies_in_another(self) -> None:
        case = BY_HAND._replace(dividers=1, rows=1, loose=7)
        shelves = [each.body for each in boards(case) if each.name == "loose shelf"]
        self.assertEqual(len(shelves), 7)
        for one, other in combinations(shelves, 2):
            self.assertTrue(
                any(one.high[a] <= other.low[a] or other.high[a] <= one.low[a] for a in (0, 1, 2))
            )


def made(kind: str, **changes: Any) -> Any:
    """A sample of a kind whose body is made."""
    return replace(sample(kind), **changes)


class OnTheList(SimpleTestCase):
    """Cut list, drawing, shopping and steps speak of the same parts."""

    everything = (
        made("bookcase", joint="housed", fixed_rows=1, loose_shelves=5, dividers=1, body_kg=None),
        made("bookcase", joint="mitred", kick_mm=0.0, panel_mm=0.0, body_kg=None),
        made("cleat_cabinet", joint="screwed", doors=2, loose_shelves=2, body_kg=None),
        made("cleat_cabinet", joint="dowelled", panel_mm=16.0, body_kg=None),
        made("cleat_cabinet", joint="housed", drawer_mm=120.0, dividers=1, body_kg=None),
        made("box_shelf", mitred=True),
        made("box_shelf", mitred=False),
        made("ledger_bench", legs=3, left_side=True),
    )

    def test_every_board_of_the_drawing_is_a_part_of_that_size_by_its_own_label(self) -> None:
        for piece in self.everything:
            found = parts_of(replace(plan(piece), wall=wall())).cut
            sizes = {part.label: (part.length_mm, part.width_mm, part.thick_mm) for part in found}
            boards = mount_of(piece).panels(piece)
            drawn = labelled(found, piece)
            self.assertEqual([each.panel for each in drawn], list(boards), piece)
            self.assertEqual(len({each.label for each in drawn}), len(drawn))
            for each in drawn:
                for part, panel in zip(sizes[each.label], each.panel.sizes_mm, strict=True):
                    self.assertAlmostEqual(part, panel, places=6, msg=str(each))

    def test_one_bottle_of_glue_is_bought_for_two_and_none_without(self) -> None:
        for joint, bottles in (("dowelled", 1), ("screwed", 0)):
            two = [made("bookcase", key=key, joint=joint) for key in ("one", "two")]
            on = replace(plan(*two), wall=wall())
            lines = [line.key for line in shopping(on, cut_plan(on), "metric").lines]
            self.assertEqual(lines.count("glue"), bottles)

    def test_its_body_is_put_together_first_and_rests_while_the_glue_sets(self) -> None:
        for joint, hours in (("housed", 12.0), ("screwed", 0.0)):
            piece = made("bookcase", joint=joint)
            first, *others = steps(replace(plan(piece), wall=wall()), piece.key, "metric")
            self.assertEqual((first.key, first.wait_hours), ("make-body", hours))
            self.assertEqual(first.facts[:2], (("side", "1a, 1b"), ("top", "1c")))
            self.assertNotIn("make-body", [each.key for each in others])
        there = sample("bookcase")
        found = steps(replace(plan(there), wall=wall()), there.key, "metric")
        self.assertNotIn("make-body", [each.key for each in found])

    def test_a_back_that_was_measured_is_as_thick_as_that(self) -> None:
        for kind in ("bookcase", "cleat_cabinet"):
            piece = made(kind, joint="screwed", inner="plywood", inner_mm=18.0, panel_mm=6.0)
            thin = mount_of(piece).measured(piece, "plywood", 6.0, 5.2)
            self.assertEqual((thin.panel_mm, thin.inner_mm), (5.2, 18.0))
            thick = mount_of(piece).measured(piece, "plywood", 18.0, 17.4)
            self.assertEqual((thick.panel_mm, thick.inner_mm), (6.0, 17.4))
            there = replace(piece, joint=None)
            self.assertEqual(mount_of(there).measured(there, "plywood", 6.0, 5.2), there)

    def test_two_that_stand_close_are_joined_once_with_four_bolts(self) -> None:
        one = made("bookcase", key="one", left_mm=200.0)
        for gap, bolts in ((0.0, 4), (2.0, 4), (5.0, 0)):
            two = replace(one, key="two", name="Second", left_mm=200.0 + one.length_mm + gap)
            for first, second in ((one, two), (two, one)):
                on = replace(plan(first, second), wall=wall())
                lines = shopping(on, cut_plan(on), "metric").lines
                many = sum(line.needed for line in lines if line.key == "joining-bolt")
                keys = [each.key for key in ("one", "two") for each in steps(on, key, "metric")]
                self.assertEqual(many, bolts)
                joins = [key for key in keys if key.startswith("join-")]
                self.assertEqual(joins, [f"join-{first.key}"] if bolts else [])

    def test_a_tool_of_its_joint_that_is_lacking_is_told_with_how_to_do_without(self) -> None:
        for lacks, said in (
            (("router",), "You lack the router and a straight bit"),
            ((), ""),
        ):
            piece = made("bookcase", joint="housed")
            on = replace(plan(piece), wall=wall(), policy=Policy(lacks=lacks))
            found = steps(on, piece.key, "metric")
            ready = next(each for each in found if each.key == "ready")
            minds = " ".join(wording.phrase(each, "metric") for each in ready.cautions)
            self.assertEqual("You lack" in minds, bool(said))
            self.assertIn(said, minds)
            self.assertEqual("with a hand saw along a clamped strip" in minds, bool(said))

    def test_holes_for_shelf_pins_are_bored_once_however_many_shelves(self) -> None:
        counts = []
        for joint, shelves in ((None, 2), (None, 22), ("screwed", 2), ("screwed", 22)):
            on = plan(made("bookcase", joint=joint, loose_shelves=shelves))
            counts.append(sum(w.holes for w in cut_plan(replace(on, wall=wall())).bores))
        self.assertEqual(counts[::2], counts[1::2])


class Drawers(SimpleTestCase):
    """Pulled out, what is in them stands further out; a bookcase is climbed on them."""

    def test_things_of_a_cabinet_stand_out_by_the_drawers_share_of_its_height(self) -> None:
        body = made("cleat_cabinet", joint="screwed", height_mm=600.0, depth_mm=250.0)
        pulled = replace(body, drawer_mm=150.0)
        self.assertEqual((body.usual_out_mm, pulled.usual_out_mm), (125.0, 125.0 + 250.0 / 4))
        self.assertEqual(replace(pulled, joint=None).usual_out_mm, 125.0)

        def turns_nmm(piece: Any) -> float:
            load = LineLoad(piece, 0.0, 0.0)
            return max(case.moment_nmm for case in load.demands()[0] if "years" in case.case)

        self.assertAlmostEqual(turns_nmm(pulled) / turns_nmm(body), 187.5 / 125.0)

    def test_a_bookcase_is_climbed_on_its_open_drawer(self) -> None:
        body = made("bookcase", joint="screwed", depth_mm=300.0, inner_mm=18.0)
        arms = []
        for piece in (body, replace(body, drawer_mm=150.0)):
            strap = next(c for c in judge_piece(piece, plan(piece)).checks if c.code == "tip.strap")
            arms.append(strap.demand.value)
        self.assertGreater(arms[1], arms[0])

    def test_fronts_of_a_row_come_off_one_board_and_small_openings_are_refused(self) -> None:
        body = made("cleat_cabinet", joint="screwed", drawer_mm=120.0, dividers=1, body_kg=None)
        parts = [p for p in parts_of(plan(body)).cut if p.name == "drawer front"]
        told = [wording.phrase(work.phrase("metric"), "metric") for work in parts[0].detail.works]
        self.assertEqual(len(parts), 2)
        self.assertIn("from one board", told[0])
        alone = parts_of(plan(replace(body, dividers=0))).cut
        [front] = [p for p in alone if p.name == "drawer front"]
        self.assertNotIn("one board", " ".join(str(work) for work in front.detail.works))
        for changes in ({"drawer_mm": 30.0}, {"drawer_mm": 540.0}, {"dividers": 8}):
            with self.assertRaises(PlanError):
                replace(body, **changes)


class Carried(SimpleTestCase):
    """What a body that is made weighs and what its corners carry, in the verdict."""

    def test_its_boards_tell_its_weight_where_nobody_weighed_it(self) -> None:
        bought = made("cleat_cabinet", body_kg=None)
        self.assertEqual(judge_piece(bought, plan(bought)).outcome, "cannot_tell")
        body = made("cleat_cabinet", body_kg=None, joint="screwed", doors=2)
        litres = sum(each.volume_mm3 for each in mount_of(body).panels(body)) / 1e6
        kg = litres * data.boards()["plywood"].density_kg_m3 / 1000
        weight = mount_of(body).body_kg(body)
        self.assertAlmostEqual(weight or 0.0, kg)
        self.assertNotEqual(judge_piece(body, plan(body)).outcome, "cannot_tell")
        lift = next(c for c in judge_piece(body, plan(body)).checks if c.code == "cleat.lift")
        self.assertAlmostEqual(lift.capacity.value, kg * G_N_PER_KG)
        weighed = made("cleat_cabinet", body_kg=30.0, joint="screwed")
        self.assertEqual(mount_of(weighed).body_kg(weighed), 30.0)

    def test_a_bookcase_tips_with_its_loose_shelves_out(self) -> None:
        weights = []
        for loose in (0, 6):
            case = made("bookcase", joint="screwed", body_kg=None, loose_shelves=loose)
            strap = next(c for c in judge_piece(case, plan(case)).checks if c.code == "tip.strap")
            weights.append(strap.demand.value)
        self.assertAlmostEqual(*weights)

    def test_screws_of_its_own_half_pass_its_thin_back_and_the_rail(self) -> None:
        body = made("cleat_cabinet", joint="screwed", inner_mm=18.0, panel_mm=6.0, back_mm=15.0)
        self.assertEqual(body.under_heads_mm, 24.0)
        self.assertEqual(replace(body, panel_mm=16.0).under_heads_mm, 16.0)
        self.assertEqual(replace(body, joint=None).under_heads_mm, 15.0)

    def corner(self, **changes: Any) -> Check:
        """800 x 2 000 x 280 of 18 mm plywood, two loose shelves, 24 kg in it."""
        books = (Thing(name="Books", mass_kg=24.0),)
        usual: dict[str, Any] = {"depth_mm": 280.0, "loose_shelves": 2, "use": "everyday"}
        case = made("bookcase", things=books, **(usual | changes))
        verdict = judge_piece(case, plan(case))
        return next(check for check in verdict.checks if check.code == "body.corner")

    def test_its_bottom_carries_its_share_at_two_ends(self) -> None:
        """A third of 24 kg stands on it, for two shelves take the rest."""
        check = self.corner(joint="screwed")
        factor, row = data.uses()["everyday"].factor, data.boards()["plywood"]
        bottom_kg = 0.764 * 0.274 * 0.018 * row.density_kg_m3
        self.assertAlmostEqual(
            check.demand.value, (8.0 * factor + bottom_kg) * G_N_PER_KG / 2, places=4
        )

    def test_a_groove_carries_what_its_wood_bears_across_the_grain(self) -> None:
        """6 mm deep, 264 mm long."""
        self.assertAlmostEqual(
            self.corner(joint="housed").capacity.value,
            6.0 * (274.0 - 10.0) * data.boards()["plywood"].bearing_mpa,
        )

    def test_screws_into_end_grain_carry_two_thirds_of_what_they_do_across(self) -> None:
        """NDS 2018 12.5.2.2: C_eg = 0.67; 2.3.2: C_D = 0.9; three in each end."""
        screw, row = data.screws()["wood_8"], data.boards()["plywood"]
        side = wood.wood_side(18.0, row.g, screw.diameter_mm)
        length = driving.nearest_length_mm(screw, 50.0)
        into = driving.reach(screw, length, 18.0).penetration_mm
        bearing = wood.bearing_length_mm(into, screw.diameter_mm, screw.tip_mm)
        fe = wood.bearing_strength_mpa(row.g, screw.diameter_mm)
        one = wood.lateral(wood.dowel(screw), side, 0.0, fe, bearing).value_n
        check = self.corner(joint="screwed", panel_mm=0.0, screw="wood_10")
        self.assertAlmostEqual(check.capacity.value, 3 * one * 0.67 * 0.9, places=3)

    def test_corners_that_nothing_judges_are_said_to_hold_by_assumption(self) -> None:
        for key, row in data.joints().items():
            kick = 0.0 if row.way == "mitred" else 60.0
            case = made("bookcase", joint=key, kick_mm=kick)
            verdict = judge_piece(case, plan(case))
            codes = {check.code for check in verdict.checks}
            assumed = "corners" in {each.code for each in verdict.assumptions}
            self.assertEqual("body.corner" in codes, not assumed, key)

    def test_shelves_too_close_for_a_hand_do_not_fit(self) -> None:
        case = made("bookcase", joint="screwed", loose_shelves=40)
        found = {c.code: c.outcome for c in judge_piece(case, plan(case)).checks}
        self.assertEqual(found["body.room"], "doesnt_fit")


class Refused(SimpleTestCase):
    """What nobody can make."""

    def test_boards_that_leave_no_room(self) -> None:
        for kind in ("bookcase", "cleat_cabinet"):
            for small in ({"depth_mm": 70.0}, {"length_mm": 70.0, "supports_mm": (20.0, 50.0)}):
                with self.assertRaisesMessage(PlanError, "leave no room inside"):
                    made(kind, joint="housed", inner_mm=25.0, **small)

    def test_a_mitred_bookcase_on_a_kick(self) -> None:
        with self.assertRaisesMessage(PlanError, "stands on its bottom"):
            made("bookcase", joint="mitred", kick_mm=60.0)

    def test_a_joint_that_is_none(self) -> None:
        with self.assertRaisesMessage(PlanError, "is no joint"):
            made("bookcase", joint="tape")
