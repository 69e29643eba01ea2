"""What hangs and is no shelf, each kind by hand.

One that holds, one that fails for its typical reason, one that nobody can tell; and its sums.

The wall: studs of spruce-pine-fir (G = 0.42) 38 mm wide every 400 mm, known to 2 mm, behind 12.7 mm
of gypsum board.
"""

from typing import Any

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import wall
from tests.trade.kind_case import KG, Case, load, piece
from trade import data, wording
from trade.assess import assess_piece
from trade.errors import PlanError
from trade.load.line import LineLoad
from trade.mounts import mount_of, rail
from trade.mounts.cleat_cabinet import bevel_of
from trade.mounts.work import Bored
from trade.plan.flatness import Flatness, RunOut
from trade.plan.model import Bookcase, Cabinet, CleatWall, HolderBoard, Panel, PegWall, Rail, Thing
from trade.plan.policy import Policy


class Cleats(Case):
    def cabinet(self, **changes: Any) -> Cabinet:
        sizes = {
            "height_mm": 600.0,
            "body_kg": 18.0,
            "depth_mm": 250.0,
            "use": "everyday",
            "things": load(20.0),
        }
        three = {"supports_mm": (100.0, 500.0, 900.0)}
        return piece(Cabinet, **{**sizes, **three, **changes})  # type: ignore[no-any-return]

    def test_the_bevel_s_pull_by_hand(self) -> None:
        """On two studs.

        Half of 18 kg and 20·1.25 kg is 210.8 N; the overhang that would help is left out (+1.5), a
        push of 150 N at the end adds 168.8: 381.1 N. Its turning (26 355 + 42 188 + …)/531 is less
        than W tan 45°: so 381.1 N pull at 71 mm, and the weight at 9 mm: M = 381.1·80 = 30 490 N
        mm.
        """
        check = self.check("screw.withdrawal", self.cabinet(supports_mm=(100.0, 900.0)))
        steps = check.values
        self.assertAlmostEqual(steps["P"], 381.1, delta=0.2)
        self.assertAlmostEqual(steps["M"], 30_490, delta=20)

    def test_the_cleat_s_bending_and_its_own_half_by_hand(self) -> None:
        """T = 381.1, N = 539.0.

        Plywood 80 x 18, S = 4 320, w = 18 / cos 45 = 25.46, 6.80 and 4.00 MPa for minutes: c =
        sqrt(8 · 4 320 · 6.80 · 539 / (381.1 · 25.46 · 4.00)) = 57.1; T c / 8 S = 0.63 of 6.80. Its
        own half: #8, 31.75 long through 15 of plywood, thread 31.75 − 15 − 8.33 = 8.42: 2 850 ·
        0.42² · 0.164 · 8.42 / 25.4 in, 27.3 lb, 121.6 N, less than its head's; in shear 201.7: at
        that slant (381.1² / 121.6 + 381.1² / 201.7) / 539.0 / 1.6 = 2.2, so three.
        """
        on_two = self.cabinet(supports_mm=(100.0, 900.0))
        steps = self.check("cleat.bending", on_two).values
        self.assertAlmostEqual(steps["c"], 57.1, delta=0.1)
        self.assertAlmostEqual(steps["σ"], 0.63, delta=0.005)
        self.assertAlmostEqual(steps["u"], 0.63 / 6.80, delta=0.002)
        own = self.check("cleat.own_half", on_two)
        self.assertAlmostEqual(own.values["W"], 121.6, delta=0.1)
        self.assertAlmostEqual(own.values["Z"], 201.7, delta=0.1)
        self.assertEqual(own.demand.value, 3)

    def test_on_one_place_only_it_still_says_how_it_would_hang(self) -> None:
        one = self.cabinet(supports_mm=(100.0,))
        self.assertEqual(
            [step.key for step in mount_of(one).hanging(one, wall(), Policy()).before], ["own-half"]
        )

    def test_seating_by_hand(self) -> None:
        """Low and deep: h = 200 − 40 − 9 − 20 = 131.

        Empty body (176.5 N at 134), a push (150 N at 259) and the load at 134, which helps and is
        left out: z = (23 654 + 38 850)/326.5 = 191.4; z/h = 1.46 > tan 45°.
        """
        low = self.cabinet(height_mm=200.0)
        check = self.fails("cleat.seating", low)
        self.assertAlmostEqual(check.demand.value, 191.4 / 131, delta=0.002)
        self.assertAlmostEqual(check.capacity.value, 1.0)
        self.assertNotIn(
            "cleat.seating",
            [c.code for c in assess_piece(replace(low, locked=True), wall()).checks],
        )
        steep = self.check("cleat.seating", replace(low, bevel_deg=60.0))
        self.assertAlmostEqual(steep.capacity.value, 3**0.5)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.outcome(self.cabinet()), "holds")
        self.fails(
            "cleat.bending",
            self.cabinet(supports_mm=(100.0, 900.0), cleat_mm=8.0, things=load(140.0)),
        )
        self.fails("cleat.own_half", self.cabinet(back_mm=3.0, things=load(90.0)))
        self.fails("cleat.spacer", self.cabinet(height_mm=200.0, below_mm=500.0, locked=True))
        self.fails("cleat.room", self.cabinet(top_mm=2390.0))
        self.cannot_tell("weighs empty", self.cabinet(body_kg=None))
        self.assertEqual(self.check("cleat.lift", self.cabinet(use="hard")).outcome, "holds_but")

    def test_what_does_not_fit_behind_it_is_refused(self) -> None:
        for bad in (
            {"height_mm": 130.0},
            {"bevel_deg": 80.0},
            {"cleat": "cheese"},
            {"body_kg": -1.0},
        ):
            with self.subTest(bad=bad), self.assertRaises(PlanError):
                self.cabinet(**bad)


class Rails(Case):
    def rail(self, kind: type[Rail] = Rail, **changes: Any) -> Any:
        sizes = {
            "height_mm": 90.0,
            "thickness_mm": 19.0,
            "board": "oak_red",
            "depth_mm": 100.0,
            "use": "everyday",
        }
        hung = {"things": load(8.0, at_mm=500.0, out_mm=100.0)}
        return piece(kind, **{**sizes, **hung, **changes})

    def test_twist_by_hand(self) -> None:
        """8 kg·1.25 at 100 mm half way.

        9 807/2 = 4 903 N mm to each stud; a tug of 8 kg at 100 mm, 90 mm from a stud: 7 845·(1 −
        90/800) = 6 963; together 11 866 over 19²·90·(1 − 0.63·19/90)/3 = 9 390 mm³.
        """
        lasting, pushed = rail.twists(self.rail())
        self.assertAlmostEqual(lasting, 8 * 1.25 * KG * 100 / 2, places=3)
        self.assertAlmostEqual(pushed, 11_866, delta=1)
        steps = self.check("rail.twist", self.rail()).values
        self.assertAlmostEqual(steps["τ"], 11_866 / 9_390, delta=0.001)

    def test_lags_near_the_upper_edge_split_a_strip_along_its_grain(self) -> None:
        """Two of 3/8 in at 67.5 and 22.5 of 90.

        22.5 above the upper one, under 4 · 9.53; h_e = 67.5: 14 · 19 · √(67.5 / 0.25) = 4 371 N, ·
        0.6 / 1.3 for years 2 017, · 0.9 / 1.3 for minutes 3 026. One in the middle of a higher rail
        has wood enough: nothing to ask.
        """
        rail = self.rail(screw="lag_3_8", screw_length_mm=101.6)
        check = self.check("strip.splitting", rail)
        self.assertIn(round(check.capacity.value), (2017, 3026))
        self.assertEqual(
            self.fails("strip.splitting", replace(rail, things=load(260.0, at_mm=450.0))).support, 0
        )
        for safe in (replace(rail, screw="wood_10"), replace(rail, board="plywood")):
            self.assertNotIn("strip.splitting", [c.code for c in assess_piece(safe, wall()).checks])

    def test_it_is_bored_for_its_screws_from_its_left_end_and_lower_edge(self) -> None:
        """Two on each stud, at three quarters and a quarter of 90."""
        rail = self.rail()
        [bored] = mount_of(rail).details(rail, wall(), "metric")["board"].works
        assert isinstance(bored, Bored)
        self.assertEqual(bored.places, ((100.0, 67.5), (100.0, 22.5), (900.0, 67.5), (900.0, 22.5)))

    def test_rolling_by_hand(self) -> None:
        """z = 0.45·90 = 40.5.

        98.07·100/40.5 = 242.1 N outward, half way of 800: 48 428 N mm; a tug of 78.45·100/40.5 =
        193.7 N: 38 742.

        87 170 over 90·19²/6 = 5 415 mm³: 16.10 MPa. It shares with twist: u_T u_M / √(u_T² + u_M²);
        on bare studs there is no edge to roll on.
        """
        lasting, pushed = rail.rolls(self.rail())
        self.assertAlmostEqual(lasting, 48_428, delta=1)
        self.assertAlmostEqual(pushed, 87_170, delta=1)
        steps = self.check("rail.twist", self.rail()).values
        self.assertAlmostEqual(steps["σ"], 16.10, delta=0.01)
        self.assertAlmostEqual(
            steps["u_M"],
            16.10 / steps["σ'"] + self.check("rail.bending", self.rail()).utilisation,
            delta=0.001,
        )
        twist, roll = steps["u_T"], steps["u_M"]
        least = min(
            ((n / 500 * twist) ** 2 + ((1 - n / 500) * roll) ** 2) ** 0.5 for n in range(501)
        )
        self.assertAlmostEqual(
            self.check("rail.twist", self.rail()).demand.value, least, delta=0.001
        )
        bare = next(
            c for c in assess_piece(self.rail(), wall(layers=())).checks if c.code == "rail.twist"
        )
        self.assertAlmostEqual(bare.demand.value, twist)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.outcome(self.rail()), "holds")
        self.fails("rail.twist", self.rail(things=load(25.0, at_mm=500.0, out_mm=100.0)))
        self.fails("support.count", self.rail(supports_mm=(100.0,)))
        self.cannot_tell(
            "what “Oars” weighs", self.rail(things=(Thing(name="Oars", mass_kg=None),))
        )

    def test_more_may_hang_at_a_stud_than_between(self) -> None:
        at_stud, between = (
            self.check(
                "rail.twist", self.rail(things=load(20.0, at_mm=x, out_mm=100.0))
            ).utilisation
            for x in (100.0, 500.0)
        )
        self.assertLess(at_stud, between)
        bending = [
            self.check("rail.bending", self.rail(things=load(20.0, at_mm=x))).utilisation
            for x in (100.0, 500.0)
        ]
        self.assertLess(bending[0], bending[1])

    def test_a_holder_board_is_a_high_rail(self) -> None:
        board = self.rail(HolderBoard, height_mm=200.0, use="hard", things=load(6.0))
        self.assertEqual(self.outcome(board), "holds")
        self.fails("rail.twist", replace(board, depth_mm=300.0, things=load(30.0)))
        self.cannot_tell("will carry", replace(board, things=()))


class Bookcases(Case):
    def case(self, **changes: Any) -> Bookcase:
        sizes = {"height_mm": 2000.0, "top_mm": 2000.0, "body_kg": 30.0, "depth_mm": 300.0}
        return piece(Bookcase, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_tipping_by_hand(self) -> None:
        """270·100 + 45·1 420 = 90 900; 30 kg at 150: 44 130; the difference at 1 980 mm.

        23.6 N on one strap.
        """
        self.assertAlmostEqual(
            self.check("tip.strap", self.case(supports_mm=())).capacity.value, 44_130, delta=1
        )
        self.assertAlmostEqual(
            self.check("tip.strap", self.case()).demand.value, (90_900 - 44_130) / 1980, delta=0.01
        )
        self.assertAlmostEqual(
            self.check("screw.withdrawal", self.case()).demand.value,
            (90_900 - 44_130) / 1980,
            delta=0.01,
        )

    def test_a_loose_shelf_by_hand(self) -> None:
        """1 036 long of plywood of 18: 1 000 free, 290 deep; 70 kg on six shelves and the bottom.

        98.07 N each, and 26.62 of its own.

        (26.62 + 1.25·98.07) 1 000/8 over 290·18²/6: 1.191 MPa. 5 (26.62·1.8 + 98.07·1.64) 1
        000³/(384·7 000·140 940): 2.755 mm. A pin 10 deep, loaded 4 out: F_e 23.2, a = 6.295; 116.0
        (2a − 10) = 300.5 at yield of the wood, over 2.469: 121.7 N.
        """
        case = self.case(length_mm=1036.0, loose_shelves=6, things=load(70.0), use="everyday")
        self.assertAlmostEqual(self.check("inside.bending", case).demand.value, 1.191, delta=0.001)
        self.assertAlmostEqual(self.check("inside.sag", case).demand.value, 2.755, delta=0.001)
        self.assertAlmostEqual(self.check("inside.pin", case).demand.value, 37.3, delta=0.1)
        self.assertAlmostEqual(self.check("inside.pin", case).capacity.value, 121.7, delta=0.3)

    def test_a_tall_side_is_a_column_and_a_fixed_row_halves_it(self) -> None:
        """18 mm of plywood, 270 deep, 1 964 free.

        Π²·7 000·131 220/1 964² = 2 350 N, a third of it 783; a row in the middle: four times.
        """
        tall = replace(
            self.case(
                height_mm=2000.0, depth_mm=280.0, loose_shelves=5, inner="plywood", inner_mm=18.0
            ),
            things=load(100.0),
        )
        one, two = (self.check("inside.side", replace(tall, fixed_rows=rows)) for rows in (0, 1))
        self.assertAlmostEqual(one.capacity.value, 783, delta=2)
        self.assertAlmostEqual(two.capacity.value / one.capacity.value, 4.0)
        self.assertAlmostEqual(one.demand.value, 100 * KG * data.uses()[tall.use].factor / 2)
        rows = [
            part
            for part in mount_of(tall).parts(replace(tall, fixed_rows=2), wall())
            if part.name == "fixed shelf"
        ]
        self.assertEqual([part.many for part in rows], [2])
        self.assertEqual(mount_of(tall).parts(tall, wall())[-1].name, "shelf pin")

    def test_a_loose_shelf_that_is_long_fails_and_an_upright_mends_it(self) -> None:
        case = self.case(
            length_mm=1500.0,
            supports_mm=(100.0, 900.0),
            depth_mm=450.0,
            body_kg=60.0,
            loose_shelves=6,
        )
        case = replace(case, things=load(150.0))
        self.fails("inside.sag", case)
        self.assertEqual(self.outcome(replace(case, dividers=1, loose_shelves=12)), "holds")
        self.fails("inside.pin", replace(case, dividers=3, loose_shelves=8, things=load(1200.0)))
        self.fails("inside.bending", replace(case, things=load(400.0)))
        self.cannot_tell("will carry", replace(case, dividers=1, loose_shelves=12, things=()))

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.outcome(self.case(depth_mm=450.0, body_kg=60.0)), "holds")
        self.fails("tip.strap", self.case(open_mm=1000.0, height_mm=1000.0, top_mm=1000.0))
        self.fails("tip.strap", self.case(supports_mm=()))
        self.fails("fit.stand_up", self.case(height_mm=2380.0, top_mm=2380.0))
        self.fails("screw.edge", self.case(supports_mm=(300.0, 700.0)))
        self.cannot_tell("weighs empty", self.case(body_kg=None))

    def test_a_strap_of_one_s_own_is_judged_by_its_packet(self) -> None:
        """It is pulled with 23.6 N, 2.41 kg; of what one fails at a quarter counts."""
        for changes, holds in (
            ({"strap_kg": 2.5}, True),
            ({"strap_kg": 2.3}, False),
            ({"strap_kg": 9.8, "strap_ultimate": True}, True),
            ({"strap_kg": 9.5, "strap_ultimate": True}, False),
        ):
            check = self.check("tip.strap", self.case(**changes))
            self.assertEqual(check.utilisation <= 1, holds, changes)
            self.assertIn("its packet says", wording.phrase(check.sentence, "metric"))

    def test_it_is_stood_up_under_the_lowest_of_the_ceiling_over_it(self) -> None:
        """√(2 000² + 300²) = 2 022.4; at its right end, 1 700, the ceiling is 62.5 lower."""
        falls = RunOut(line="ceiling", points_mm=((0.0, 1200.0), (1600.0, 1200.0), (3200.0, 200.0)))
        under = wall(flatness=Flatness(run_outs=(falls,)))
        check = next(
            each for each in assess_piece(self.case(), under).checks if each.code == "fit.stand_up"
        )
        self.assertAlmostEqual(check.demand.value, 2022.4 + data.house("stand_up_mm"), delta=0.1)
        self.assertAlmostEqual(check.capacity.value, 2337.5)

    def test_it_stands_in_front_of_the_baseboard_and_on_the_floor(self) -> None:
        self.assertEqual(
            mount_of(self.case()).landed(self.case(top_mm=1200.0), wall()).top_mm, 2000.0
        )
        self.assertTrue(mount_of(self.case()).stands)


class Panels(Case):
    def panel(self, kind: type[Panel] = Panel, **changes: Any) -> Any:
        sizes = {
            "height_mm": 800.0,
            "thickness_mm": 12.0,
            "board": "plywood",
            "depth_mm": 120.0,
            "batten_mm": 19.0,
            "panel_screw_mm": 28.0,
            "use": "everyday",
        }
        return piece(kind, **{**sizes, **changes})

    def test_a_panel_s_screw_in_its_batten_by_hand(self) -> None:
        """28 mm less 12 of panel is 16 in the batten, less a tip of 8.33.

        7.67 mm; 2850·0.36²·0.164 = 60.6 lb/in = 10.61 N/mm: 81.4 N, × 0.9 for years. One push turns
        the panel once, however many studs its battens are on.
        """
        check = self.check("panel.batten_screws", self.panel())
        self.assertAlmostEqual(check.capacity.value, 81.4 * 0.9, delta=0.8)

    def test_rows_pull_in_proportion_to_their_height(self) -> None:
        """Rows 760, 400 and 40 above the foot.

        The top one takes 760/(760² + 400² + 40²) of the turning.
        """
        self.assertEqual(self.panel().rows_mm, (760.0, 400.0, 40.0))

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.outcome(self.panel()), "holds")
        self.assertEqual(self.outcome(self.panel(batten_mm=0.0)), "holds")
        self.fails("panel.behind", self.panel(panel_screw_mm=35.0))
        self.fails(
            "panel.batten_screws",
            self.panel(height_mm=200.0, panel_screws=2, rows=2, use="hard", things=load(40.0)),
        )
        self.cannot_tell(
            "what “Load” weighs", self.panel(things=(Thing(name="Load", mass_kg=None),))
        )

    def test_a_peg_by_hand(self) -> None:
        """2.5 kg alone on a peg, 80 mm out, on show.

        1 961 N mm for years; a tug of 30 N at 90 mm is 2 700, for minutes: / (π 16³/32 = 402).
        """
        pegs = self.panel(
            PegWall,
            thickness_mm=18.0,
            depth_mm=90.0,
            panel_screw_mm=35.0,
            use="display",
            peg_mm=16.0,
        )
        pegs = replace(pegs, things=load(2.5, at_mm=500.0, out_mm=80.0))
        check = self.check("peg.bending", pegs)
        self.assertAlmostEqual(check.demand.value, 2.5 * KG * 80 / 402.1, delta=0.02)
        self.assertEqual(self.outcome(pegs), "holds")
        shelf = replace(
            pegs, depth_mm=150.0, things=load(2.5, at_mm=500.0, out_mm=120.0)
        )  # reaches out: on two pegs
        lone = self.check("peg.bending", shelf).values["M"]
        self.assertAlmostEqual(lone, 2.5 * KG / 2 * 120.0, places=3)
        self.fails("peg.socket", replace(pegs, thickness_mm=6.0, panel_screw_mm=20.0))
        self.cannot_tell("will carry", replace(pegs, things=()))


class CleatWalls(Case):
    def cleats(self, **changes: Any) -> CleatWall:
        sizes = {
            "depth_mm": 150.0,
            "holder_mm": 250.0,
            "use": "everyday",
            "supports_mm": (100.0, 500.0, 900.0),
        }
        return piece(CleatWall, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_every_row_has_its_holes(self) -> None:
        supports = mount_of(self.cleats()).supports(self.cleats(), wall())
        self.assertEqual([support.index for support in supports], list(range(9)))
        self.assertEqual(
            len({(x, round(y, 3)) for support in supports for x, y in support.holes}), 18
        )

    def test_a_holder_by_hand(self) -> None:
        """Nothing but a push 150 mm out, and half a cleat of 9: 159 over 250 − 9."""
        self.assertAlmostEqual(
            self.check("cleat.seating", self.cleats(things=load(0.0))).demand.value,
            159 / 241,
            places=6,
        )

    def test_one_holder_in_the_middle_of_a_gap_bends_and_twists_the_cleat_there(self) -> None:
        """A push of 150 N 150 mm out, and half a cleat of 18.

        150 · 159 / 241 = 99.0 N of pull, yet no less than 150 N by the bevel of 45 degrees; 150 ·
        400 / 4 = 15 000 N mm over 75 · 18² / 6 = 4 050 mm³; twisted by 150 · 28.5 at its end.
        """
        bare = self.cleats(things=load(0.0))
        self.assertAlmostEqual(
            self.check("cleat.bending", bare).demand.value, 15_000 / 4_050, delta=0.04
        )
        form = 75 * 18**2 * (1 - 0.63 * 18 / 75) / 3
        self.assertAlmostEqual(
            self.check("cleat.twist", bare).demand.value, 150 * 28.5 / form, places=6
        )
        end = self.cleats(things=load(0.0), supports_mm=(300.0, 500.0, 900.0))
        self.assertAlmostEqual(
            self.check("cleat.bending", end).demand.value, 150 * 240 / 4_050, delta=0.3
        )

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.outcome(self.cleats()), "holds")
        self.fails("cleat.seating", self.cleats(holder_mm=120.0))
        self.cannot_tell("will carry", self.cleats(things=()))


class Hooks(SimpleTestCase):
    def test_a_hook_is_checked_against_its_packet_and_else_taken_to_hold(self) -> None:
        """Coats spread over 1 000 mm.

        Within a hand, 300 mm, hangs 0.3 · 18 kg; a bag of 6 kg hangs by itself, and weighs more.
        """
        made = piece(
            Rail,
            height_mm=90.0,
            thickness_mm=19.0,
            board="oak_red",
            things=load(18.0) + load(6.0, at_mm=400.0),
        )
        [assumed] = [
            each for each in assess_piece(made, wall()).assumptions if each.code == "hooks"
        ]
        self.assertIn("up to 6.0 kg (13 lb)", assumed.text)
        for kg, fails in ((6.1, False), (5.9, True)):
            verdict = assess_piece(replace(made, hook_kg=kg), wall())
            self.assertNotIn("hooks", [each.code for each in verdict.assumptions])
            [check] = [each for each in verdict.checks if each.code == "hook.rated"]
            self.assertAlmostEqual(check.demand.value, 6 * KG)
            self.assertEqual(check.outcome == "wont_hold", fails)

    def test_of_what_a_hook_fails_at_it_may_carry_a_quarter(self) -> None:
        made = piece(
            Rail, height_mm=90.0, thickness_mm=19.0, board="oak_red", things=load(6.0, at_mm=400.0)
        )
        for kg, fails in ((24.1, False), (23.9, True)):
            stated = replace(made, hook_kg=kg, hook_ultimate=True)
            checks = assess_piece(stated, wall()).checks
            [check] = [each for each in checks if each.code == "hook.rated"]
            self.assertAlmostEqual(check.capacity.value, kg * KG / 4)
            self.assertEqual(check.outcome == "wont_hold", fails)


class Lines(SimpleTestCase):
    def test_what_hangs_sums_up_to_what_the_supports_take(self) -> None:
        made = piece(
            Rail,
            height_mm=90.0,
            thickness_mm=19.0,
            board="oak_red",
            things=load(8.0, at_mm=300.0) + load(5.0),
        )
        line: LineLoad = rail.rail_load(made)
        own = 1000 * 90 * 19 / 1e9 * 670 * KG
        self.assertAlmostEqual(
            line.beam.reactions_n[:, : -len(line.pushed_at)].sum(), own + 13 * KG, delta=own * 0.1
        )


class Locks(Case):
    def test_two_screws_hold_it_down_against_what_climbs_and_what_lifts(self) -> None:
        """A mantel 200 deep, its bevel 100 − 9 up from its foot.

        What hangs at z lifts with W (z / h − 1) at 45 degrees; 2 × 325 × 1.6.
        """
        sizes = {
            "height_mm": 190.0,
            "depth_mm": 200.0,
            "down_mm": 30.0,
            "locked": True,
            "body_kg": 10.0,
            "things": load(0.0),
            "use": "everyday",
        }
        box = piece(Cabinet, cleat_mm=18.0, cleat_high_mm=80.0, **sizes)
        found = self.check("cleat.lock", box)
        steps = found.values
        turning = 10 * KG * 109 + 150 * 209
        self.assertAlmostEqual(steps["W"], 10 * KG + 150)
        self.assertAlmostEqual(steps["V"], turning / bevel_of(box).lever_mm)
        self.assertAlmostEqual(found.demand.value, max(steps["V"] - steps["W"], 150 - 10 * KG))
        self.assertAlmostEqual(found.capacity.value, 2 * 325 * 1.6)
        self.assertNotIn("cleat.seating", [c.code for c in assess_piece(box, wall()).checks])
