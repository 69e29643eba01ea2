"""What holds where there is no timber.

Classes, sheet steel, concrete, packets; each sum done by hand.
"""

from typing import Any

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, rod_shelf, wall
from tests.trade.test_every_kind import put_up
from trade import data, wording
from trade.assess import assess, assess_piece
from trade.check import Check, PieceVerdict
from trade.choose import placement
from trade.choose.cures import cures, most
from trade.errors import PlanError
from trade.fixings import anchors
from trade.fixings.anchor_capacity import AnchorCapacity, anchor_capacity
from trade.fixings.substrate import Substrate
from trade.fixings.support import Support
from trade.load.demand import Demand
from trade.marking.marks import piece_marks
from trade.mounts import mount_of
from trade.plan.features import Feature
from trade.plan.model import Layer, Packet, Policy, Stud, Thing, Wall

FAR = 1e6
RENDER = (Layer(kind="render", thickness_mm=13.0),)
BLOCK = wall(structure="block_hollow", studs=(), layers=RENDER)
OFF = (100.0, 700.0)  # the right bracket is between two studs


def at(
    base: str,
    apart: tuple[float, float] = (FAR, FAR),
    gap: float = 0.0,
    edge: float = FAR,
    hollow: bool = False,
) -> Substrate:
    return Substrate(base, hollow, gap, apart, edge)


def check(verdict: PieceVerdict, code: str) -> Check:
    return next(each for each in verdict.checks if each.code == code)


class ByHand(SimpleTestCase):
    def holding(self, key: str | None, site: Substrate, on: Wall = BLOCK) -> AnchorCapacity:
        return anchor_capacity(on, key, site)

    def test_a_plug_by_its_class_across_render_and_beside_its_neighbour(self) -> None:
        """Core 4.8 mm.

        M_p = 551.6 × 4.8³/6 = 10 167; over 13 + 3 mm 2 M_p/16/3 = 424 (class 400); over 33 mm 205.
        """
        far = self.holding("plug_8", at("block_hollow", gap=13.0))
        self.assertEqual((far.pull_n, far.shear_n), (250.0, 400.0))
        self.assertAlmostEqual(
            self.holding("plug_8", at("block_hollow", gap=30.0)).shear_n, 205.4, delta=0.1
        )
        self.assertAlmostEqual(
            self.holding("plug_8", at("block_hollow", (40.0, FAR))).pull_n, 250 * 0.75
        )
        self.assertAlmostEqual(
            self.holding("plug_8", at("block_hollow", (40.0, 20.0))).pull_n, 250 * 0.75 * 0.625
        )

    def test_a_screw_in_sheet_steel(self) -> None:
        """t = 0.836, d = 4.83, F_u = 310.

        0.85 t d F_u = 1 064 N; tilting 4.2 √(t³ d) F_u = 2 187 N; each over 3.
        """
        steel = self.holding("steel_10", at("steel_20"), wall(structure="steel_20"))
        self.assertAlmostEqual(steel.pull_n, 354.7, delta=0.1)
        self.assertAlmostEqual(steel.shear_n, 729.1, delta=0.5)

    def test_a_screw_anchor_in_weak_cracked_concrete(self) -> None:
        """h_ef = 33.75.

        7.114 √17.2 × 33.75^1.5 = 5 785 N; × 0.65/1.6 = 2 350; pulling out 0.6 of it = 1 410.

        Steel: core 4.8 mm, 18.1 mm² × 500 = 9 048 N; in shear 0.6 × 0.60/1.6 of that = 2 036, less
        than prying, 5 785 × 0.70/1.6.
        """
        lone = self.holding("screw_6", at("concrete"), wall(structure="concrete"))
        self.assertAlmostEqual(lone.pull_n, 1410, delta=3)
        self.assertAlmostEqual(lone.shear_n, 2036, delta=1)
        near = self.holding(
            "screw_6", at("concrete", edge=40.0, apart=(50.0, FAR)), wall(structure="concrete")
        )
        share = (40 + 50.625) / 101.25 * (25 + 50.625) / 101.25 * (0.7 + 0.3 * 40 / 50.625)
        self.assertAlmostEqual(near.pull_n, 1410 * share, delta=3)

    def test_what_creeps_holds_half_for_good_and_all_for_a_push(self) -> None:
        """1/4 in toggles: 178 N, one neighbour 35 mm away of 75.

        K = 0.733; half of that for good.
        """
        verdict = assess_piece(
            bracket_shelf(anchor="toggle_14", supports_mm=OFF, use="display"), wall()
        )
        lasting = check(verdict, "anchor.pull")
        self.assertIn("for years", lasting.case)
        self.assertAlmostEqual(lasting.capacity.value, 178 * (0.5 + 0.5 * 35 / 75) * 0.5, delta=0.1)
        pushed = assess_piece(
            bracket_shelf(anchor="toggle_14", supports_mm=OFF, use="hard"), wall()
        )
        self.assertIn("pushed", check(pushed, "anchor.pull").case)
        self.assertEqual(pushed.outcome, "wont_hold")
        self.assertEqual(
            check(pushed, "screw.withdrawal").outcome, "holds"
        )  # the left bracket is on its stud

    def test_a_push_of_nearly_twice_hides_no_lasting_load_on_what_creeps(self) -> None:
        """1.9 times the lasting load: over C_D, 1.6 and 0.9, the push is harder, 1.19 to 1.11.

        Of an anchor that keeps a half for good the lasting load asks for 2 of 1.9.
        """
        shelf = bracket_shelf(anchor="toggle_14", supports_mm=OFF)
        supports = mount_of(shelf).supports(shelf, wall())
        held = [s for s in supports if isinstance(s, Support) and s.anchor_key == "toggle_14"][-1:]
        cases = Demand("years", 0.9, 10.0, 1000.0), Demand("push", 1.6, 19.0, 1900.0)
        found = {c.code: c for c in anchors.checks(held, {held[0].index: cases}, ())}
        for code in ("anchor.pull", "anchor.shear", "anchor.combined"):
            self.assertEqual(found[code].case, "years", code)

    def test_a_push_that_turns_no_more_is_not_hidden_by_what_lasts(self) -> None:
        """A plug in brick keeps all for good: 12 N are more than 10 N."""
        shelf, on = bracket_shelf(anchor="plug_10"), wall(structure="brick_solid", layers=())
        [first, _] = mount_of(shelf).supports(shelf, on)
        assert isinstance(first, Support)
        cases = Demand("years", 0.9, 10.0, 1000.0), Demand("push", 1.6, 12.0, 1000.0)
        found = {c.code: c for c in anchors.checks([first], {first.index: cases}, ())}
        self.assertEqual(found["anchor.shear"].case, "push")

    def test_the_shallowest_stud_says_how_much_room_there_is_behind(self) -> None:
        """The wall is as deep as the studs beside: 60 mm at the right bracket, 89 at the left."""
        on = wall()
        thin = tuple(
            replace(stud, depth_mm=60.0) if stud.centre_mm > 1200 else stud for stud in on.studs
        )
        shelf = bracket_shelf(anchor="toggle_14", supports_mm=(300.0, 750.0))
        found = check(assess_piece(shelf, replace(on, studs=thin)), "anchor.behind")
        self.assertEqual((found.part, found.capacity.value), ("right bracket", 60.0))

    def test_linear_interaction(self) -> None:
        verdict = assess_piece(bracket_shelf(anchor="plug_10"), BLOCK)
        both = check(verdict, "anchor.combined")
        shares = both.values
        self.assertAlmostEqual(
            both.utilisation, shares["T_1"] / shares["T_a'"] + shares["V"] / shares["V_a'"]
        )
        self.assertEqual(verdict.outcome, "holds")


class Suits(SimpleTestCase):
    def test_nonsense_is_a_verdict_with_what_would_work(self) -> None:
        for structure, anchor, words in (
            ("concrete", None, "Choose an anchor, such as plug"),
            ("concrete", "toggle_14", "does not hold in concrete; plug"),
            ("brick_solid", "steel_10", "does not hold in solid brick; plug"),
            (
                "steel_25",
                "plug_8",
                "does not hold in sheet-steel studs, 25 gauge; sheet-metal screw",
            ),
        ):
            with self.subTest(structure=structure, anchor=anchor):
                verdict = assess_piece(bracket_shelf(anchor=anchor), wall(structure=structure))
                self.assertEqual(
                    (verdict.outcome, verdict.governing.code), ("wont_hold", "anchor.base")
                )
                self.assertIn(words, wording.headline(verdict, "metric"))
        bare = assess_piece(bracket_shelf(anchor="toggle_14", supports_mm=OFF), wall(layers=()))
        self.assertIn("Between bare studs", wording.headline(bare, "metric"))

    def test_what_nobody_has_a_value_for_is_found_out_first(self) -> None:
        stone = wall(layers=(Layer(kind="stone", thickness_mm=20.0),))
        light = {"supports_mm": OFF, "things": (Thing(name="Card", mass_kg=0.2),)}
        verdict = assess_piece(bracket_shelf(anchor="toggle_14", **light), stone)
        self.assertEqual(verdict.outcome, "cannot_tell")
        self.assertTrue(any("test pull" in ask for ask in verdict.unknown), verdict.unknown)
        unlined = assess_piece(
            bracket_shelf(anchor="toggle_14", use="display", **light), wall(layers=None)
        )
        self.assertEqual(unlined.outcome, "cannot_tell")

    def test_a_packet_is_used_like_any_other_with_its_safety(self) -> None:
        packet = Packet(
            key="blue",
            name="Blue plug",
            base="stone",
            pull_n=2000,
            shear_n=2400,
            states="ultimate",
            found="its packet",
        )
        stone = wall(layers=(Layer(kind="stone", thickness_mm=20.0),), packets=(packet,))
        grip = anchor_capacity(stone, "blue", at("stone", hollow=True))
        self.assertEqual((grip.pull_n, grip.shear_n, grip.lasting), (500.0, 600.0, 0.5))
        self.assertEqual(anchor_capacity(stone, "blue", at("gypsum_12_7")).pull_n, 0.0)
        self.assertTrue(
            any(
                check.code == "anchor.pull"
                for check in assess_piece(
                    bracket_shelf(anchor="blue", supports_mm=OFF), stone
                ).checks
            )
        )
        with self.assertRaisesRegex(PlanError, "no anchor"):
            plan(bracket_shelf(anchor="red"))
        for bad in (
            {"base": "cheese"},
            {"pull_n": -1.0},
            {"shear_n": float("nan")},
            {"key": "plug-8", "screw_mm": 99.0},
        ):
            with self.subTest(bad=bad), self.assertRaises(PlanError):
                replace(packet, **bad)


class Around(SimpleTestCase):
    def test_edges_and_old_holes(self) -> None:
        door = Feature(kind="door", left_mm=1640, right_mm=2400, bottom_mm=0, top_mm=2000)
        hole = Feature(kind="hole", left_mm=1598, right_mm=1602, bottom_mm=1300, top_mm=1304)
        for features, word in (((door,), "doesnt_fit"), ((hole,), "doesnt_fit")):
            with self.subTest(features=features):
                verdict = assess_piece(
                    bracket_shelf(anchor="plug_10"), replace(BLOCK, features=features)
                )
                self.assertEqual(check(verdict, "anchor.edge").outcome, word)

    def test_room_to_open_beside_a_stud_that_may_be_anywhere(self) -> None:
        for centre, off, word in (
            (1430.0, 2.0, "holds"),
            (1440.0, 2.0, "cannot_tell"),
            (1430.0, 12.0, "cannot_tell"),
            (1442.0, 2.0, "doesnt_fit"),
        ):
            with self.subTest(centre=centre, off=off):
                on = wall(studs=(Stud(centre_mm=800.0), Stud(centre_mm=centre, uncertainty_mm=off)))
                verdict = assess_piece(
                    bracket_shelf(anchor="toggle_14", supports_mm=(100.0, 780.0)), on
                )
                self.assertEqual(check(verdict, "anchor.beside").outcome, word)

    def test_masonry_and_linings_behind_the_plate(self) -> None:
        support = mount_of(bracket_shelf()).supports(bracket_shelf(anchor="plug_8"), BLOCK)[0]
        self.assertEqual(
            (support.face.name, support.pressed_mm), ("hollow concrete block", support.width_mm)
        )
        hollow = mount_of(bracket_shelf()).supports(
            bracket_shelf(anchor="toggle_14", supports_mm=OFF), wall()
        )[1]
        self.assertEqual((hollow.face.bearing_mpa, hollow.gap_mm), (0.4, 0.0))

    def test_putting_up_takes_what_the_wall_wants(self) -> None:
        for structure, expected in (
            ("timber", None),
            ("concrete", "plug_8"),
            ("block_hollow", "plug_8"),
            ("steel_20", "steel_10"),
        ):
            made = placement.put_up(plan(structure=structure), "bracket_shelf", 1000, 1200)
            self.assertEqual(made.anchor, expected, structure)

    def test_cures_offer_anchors_and_keep_their_promise(self) -> None:
        for now in (
            plan(bracket_shelf(), structure="brick_solid", layers=RENDER, studs=()),
            plan(bracket_shelf(supports_mm=OFF, use="display")),
        ):
            found = [cure for cure in cures(now, "shelf") if cure.code == "anchor"]
            self.assertTrue(found)
            after = now.with_piece(found[0].piece)
            self.assertEqual(assess_piece(after.pieces[0], after.wall).outcome, found[0].outcome)

    def test_screws_near_one_another_carry_a_caution(self) -> None:
        """The tall plate's rows are 14 mm apart.

        2.9 diameters of a #10 screw; the small one's 26 are 5.4.
        """
        for plate, warned in (("tall", True), ("small", False)):
            made = piece_marks(rod_shelf(plate=plate), wall(), "metric")[0]
            self.assertEqual(
                any("split the stud" in wording.phrase(c, "metric") for c in made.cautions), warned
            )

    def test_marks_say_the_hole_for_the_anchor(self) -> None:
        """Plug 60 deep behind 13 of render, and 10 for dust; 4 of steel before it.

        A screw of 77, sold as 80.
        """
        made = piece_marks(bracket_shelf(anchor="plug_8"), BLOCK, "metric")[0]
        self.assertEqual(
            (made.bit_mm, made.depth_mm, made.anchor, made.screw, made.screw_length_mm),
            (8.0, 83.0, "plug_8", None, 80.0),
        )
        self.assertTrue(any("joint" in wording.phrase(c, "metric") for c in made.cautions))
        none = piece_marks(bracket_shelf(), BLOCK, "metric")[0]
        self.assertIn("Choose an anchor", wording.phrase(none.cautions[0], "metric"))


bases = st.sampled_from(
    [
        "block_hollow",
        "brick_solid",
        "brick_hollow",
        "concrete",
        "aerated_2",
        "steel_25",
        "steel_16",
        "timber",
    ]
)


class Never(SimpleTestCase):
    @given(
        structure=bases,
        anchor=st.sampled_from([None, *data.anchors()]),
        kg=st.floats(0, 80),
        more=st.floats(1, 3),
        off=st.floats(0, 350),
        rods=st.booleans(),
    )
    def test_more_weight_is_never_better_and_every_number_is_finite(
        self, structure: str, anchor: str | None, kg: float, more: float, off: float, rods: bool
    ) -> None:
        on = wall(structure=structure)
        made: Any = rod_shelf if rods else bracket_shelf
        light, heavy = (
            made(
                anchor=anchor,
                supports_mm=(100.0, 500.0 + off),
                things=(Thing(name="Load", mass_kg=kg * f),),
            )
            for f in (1.0, more)
        )
        before, after = (
            {c.code: c for c in assess_piece(piece, on).checks} for piece in (light, heavy)
        )
        for code in before.keys() & after.keys():
            self.assertTrue(0 <= after[code].utilisation < float("inf"), code)
            if code.startswith("anchor."):
                self.assertGreaterEqual(
                    after[code].utilisation, before[code].utilisation * (1 - 1e-6) - 1e-9, code
                )


class Groups(SimpleTestCase):
    def carries(self, supports: tuple[float, ...]) -> float:
        panel = put_up(
            "panel",
            wall(studs=(Stud(centre_mm=60.0),)),
            anchor="toggle_14",
            left_mm=400.0,
            length_mm=1200.0,
            use="display",
        )
        panel = replace(
            panel,
            supports_mm=supports,
            batten_mm=0.0,
            rows=2,
            things=(Thing(name="Load", mass_kg=1.0),),
            screw_length_mm=60.0,
        )
        return most(panel, plan(panel, studs=(Stud(centre_mm=60.0),)), up_to=2000.0)

    def test_anchors_side_by_side_share_a_patch_whatever_support_they_belong_to(self) -> None:
        """Half each where they would touch.

        0.5 + 0.5 × 25/50 to the left and again to the right.
        """
        lone, near = (
            mount_of(shelf).supports(shelf, wall(studs=(Stud(centre_mm=60.0),)))[1].capacity
            for shelf in (
                bracket_shelf(anchor="toggle_14", supports_mm=supports)
                for supports in ((100.0, 500.0, 900.0), (475.0, 500.0, 525.0))
            )
        )
        assert lone is not None
        assert near is not None
        assert lone.anchor is not None
        share = 0.5 + 0.5 * 25 / lone.anchor.spacing_mm
        self.assertAlmostEqual(near.pull_n / lone.pull_n, share**2)

    def test_in_concrete_the_next_support_cuts_the_cone_too(self) -> None:
        on = wall(structure="concrete", layers=(), timber=None, studs=())
        lone, near = (
            mount_of(shelf).supports(shelf, on)[0].capacity
            for shelf in (
                bracket_shelf(anchor="screw_6", supports_mm=each)
                for each in ((100.0, 900.0), (100.0, 140.0))
            )
        )
        assert lone is not None
        assert near is not None
        self.assertLess(near.pull_n, 0.9 * lone.pull_n)

    def test_thirty_three_toggles_hold_no_more_than_the_board_between_studs_does(self) -> None:
        """Four screws of the board a bay.

        640 N along the wall, 65 kg, less what is pulled; three bays.
        """
        many = self.carries(tuple(30.0 * n + 120.0 for n in range(33)))
        few = self.carries((200.0, 600.0, 1000.0))
        self.assertLess(many, 3.2 * 65.0)
        self.assertGreater(many, 0.8 * few)

    def test_what_goes_through_a_strip_keeps_off_its_end_its_edge_and_its_neighbour(self) -> None:
        rail = put_up(
            "rail",
            wall(),
            height_mm=90.0,
            thickness_mm=19.0,
            things=(Thing(name="Coats", mass_kg=3.0),),
        )
        for changes, needs, has in (
            ({"supports_mm": (20.0, 500.0)}, 5 * 5.0, 20.0),  # 5 D of a 5 mm screw to its end
            ({"height_mm": 22.0}, 2.5 * 5.0, 11.0),  # 2.5 D to its edge
            (
                {"thickness_mm": 15.0, "screw": "lag_3_8", "screw_length_mm": 63.5},
                1.6 * 9.525,
                15.0,
            ),  # 1.6 D under the head
        ):
            tight = replace(rail, **changes)
            found = check(assess_piece(tight, wall()), "strip.edge")
            self.assertEqual(found.outcome, "doesnt_fit", changes)
            self.assertAlmostEqual(found.demand.value, needs, places=2)
            self.assertAlmostEqual(found.capacity.value, has)
        self.assertEqual(check(assess_piece(rail, wall()), "strip.edge").outcome, "holds")


class Masonry(SimpleTestCase):
    brick: dict[str, Any] = {"structure": "brick_solid", "layers": (), "timber": None, "studs": ()}

    def rack(self, **changes: Any) -> Any:
        """A cleat 24 × 75, 1 700 long, on four 10 mm plugs; holders reach 250 out and 300 down."""
        sizes = {
            "length_mm": 1700.0,
            "cleat_mm": 24.0,
            "cleat_high_mm": 75.0,
            "depth_mm": 250.0,
            "holder_mm": 300.0,
            "rows": 1,
        }
        rack = put_up(
            "cleat_wall",
            wall(**self.brick),
            anchor="plug_10",
            use="everyday",
            left_mm=300.0,
            **sizes,
        )
        return replace(
            rack,
            supports_mm=(100.0, 600.0, 1100.0, 1600.0),
            things=(Thing(name="Pans and lids", mass_kg=20.0),),
            **changes,
        )

    def test_one_plug_at_each_place_carries_a_household_rack(self) -> None:
        single = assess_piece(self.rack(screws_each=1), wall(**self.brick))
        self.assertIn(single.outcome, ("holds", "close"), wording.headline(single, "metric"))
        share = 0.5 + 0.5 * 30 / 100  # 0.4 of 75 apart, where 100 are asked for
        one, two = (
            mount_of(r).supports(r, wall(**self.brick))[1].capacity
            for r in (self.rack(screws_each=1), self.rack(screws_each=2))
        )
        assert one is not None
        assert two is not None
        self.assertAlmostEqual(two.pull_n / one.pull_n, share, places=6)
        self.assertEqual(put_up("cleat_wall", wall(**self.brick)).screws_each, 1)  # type: ignore[union-attr]

    def test_a_policy_that_trusts_no_plugs_says_so_of_a_plug_and_not_of_a_toggle(self) -> None:
        on = {"studs": (Stud(centre_mm=60.0),)}
        for anchor, hollow, told in (
            ("plug_light", "any", False),
            ("plug_light", "no_plugs", True),
            ("drill_zinc", "no_plugs", False),
            ("drill_zinc", "toggles", True),
            ("toggle_14", "toggles", False),
        ):
            now = replace(
                plan(bracket_shelf(anchor=anchor, use="display"), **on),
                policy=Policy(hollow=hollow),
            )
            self.assertEqual(
                "policy.hollow" in [c.code for c in assess(now).pieces[0].checks],
                told,
                (anchor, hollow),
            )
