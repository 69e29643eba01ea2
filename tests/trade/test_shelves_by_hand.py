"""Each kind of shelf, beam and bench by hand.

One that holds, one that fails for its typical reason, one that nobody can tell; and its sums.

The wall: studs of spruce-pine-fir (G = 0.42) 38 mm wide every 400 mm, known to 2 mm, behind 12.7 mm
of gypsum board.
"""

from typing import Any

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import STUDS, wall
from tests.trade.kind_case import KG, Case, load, piece
from trade import data, wording
from trade.errors import PlanError
from trade.fixings.pins import bed_give, carries
from trade.mounts import bracket_shelf, corner_shelf, ledgers, mount_of, sided
from trade.mounts.pin_shelf import tilt_mm
from trade.plan.model import (
    AnyPiece,
    Bench,
    BoxShelf,
    BracketBeam,
    CornerShelf,
    DowelShelf,
    LedgerShelf,
    PinShelf,
    RodBeam,
    Stud,
    Thing,
)


class BlindPins(Case):
    def shelf(self, **changes: Any) -> PinShelf:
        sizes = {
            "thickness_mm": 40.0,
            "board": "oak_red",
            "depth_mm": 180.0,
            "in_shelf_mm": 120.0,
            "things": load(4.0),
        }
        return piece(PinShelf, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_a_pin_in_wood_by_hand(self) -> None:
        """q = 300, L = 60, e = 100.

        A = (−400 + √(160 000 + 8·15 600))/4 = 33.42, P = 300·(66.83 − 60) = 2 050; M_p = 60 000: P
        = 300·(√(10 000 + 400) − 100) = 594.
        """
        bearing, bending, turn = carries(300.0, 60.0, 100.0, 60_000.0)
        self.assertAlmostEqual(turn, 33.417, places=3)
        self.assertAlmostEqual(bearing, 2050, delta=1)
        self.assertAlmostEqual(bending, 594.1, delta=0.1)
        self.assertAlmostEqual(
            bearing * 100, 300 * (60**2 - 2 * turn**2) / 2, delta=1
        )  # moments about the wood's face

    def test_on_a_bed_of_springs_long_and_short(self) -> None:
        """Long: 2λ/k, 2λ²/k, 4λ³/k (Hetenyi).

        Short and stiff: a rigid bar, 4/(k L) and 12/(k L³) at its end.
        """
        k, ei = 400.0, 4.0e8
        lam = (k / (4 * ei)) ** 0.25
        for ours, theirs in zip(
            bed_give(k, ei, 2000.0), (2 * lam / k, 2 * lam**2 / k, 4 * lam**3 / k), strict=True
        ):
            self.assertAlmostEqual(ours, theirs, delta=theirs * 1e-6)
        sinks, across, turns = bed_give(k, 1e14, 50.0)
        self.assertAlmostEqual(sinks, 4 / (k * 50), delta=1e-9)
        self.assertAlmostEqual(across, 6 / (k * 50**2), delta=1e-9)
        self.assertAlmostEqual(turns, 12 / (k * 50**3), delta=1e-9)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.outcome(self.shelf()), "holds")
        self.fails("pin.carries", self.shelf(use="hard", things=load(16.0)))
        self.fails("pin.wood", self.shelf(), wall(structure="brick_solid", studs=()))
        self.fails("screw.edge", self.shelf(pin_mm=20.0))
        unsure = wall(studs=tuple(replace(stud, uncertainty_mm=12.0) for stud in STUDS))
        self.cannot_tell("where exactly the stud behind the left pin is", self.shelf(), unsure)

    def test_half_an_inch_in_the_middle_of_a_stud_holds_and_what_is_unsure_takes_from_it(
        self,
    ) -> None:
        """12.7 in 38: the full distance is 19.05.

        A stud within 1 mm leaves 18, within 5 mm 14; 12.7 must be left.
        """
        for unsure, share in ((1.0, 18.0 / 19.05), (5.0, 14.0 / 19.05)):
            on = wall(studs=tuple(replace(stud, uncertainty_mm=unsure) for stud in STUDS))
            support = mount_of(self.shelf(pin_mm=12.7)).supports(self.shelf(pin_mm=12.7), on)[0]
            self.assertAlmostEqual(support.edge_share, share)  # type: ignore[union-attr]
            self.assertEqual(self.outcome(self.shelf(pin_mm=12.7), on), "holds")
        unsure_on = wall(studs=tuple(replace(stud, uncertainty_mm=7.0) for stud in STUDS))
        self.cannot_tell("where exactly the stud", self.shelf(pin_mm=12.7), unsure_on)

    def test_set_upward_by_what_the_load_takes_away(self) -> None:
        flat = self.check("pin.droop", self.shelf(tilted=False))
        up = tilt_mm(self.shelf(), wall())
        self.assertAlmostEqual(up, flat.demand.value, delta=0.03)  # but for the pin's own weight
        self.assertAlmostEqual(self.check("pin.droop", self.shelf()).demand.value, 0.0)
        self.assertIn(
            "Set the pins upward",
            wording.phrase(mount_of(self.shelf()).cautions(self.shelf(), wall())[0], "metric"),
        )


class Arms(Case):
    def test_a_board_goes_down_beyond_its_arm(self) -> None:
        """200 of arm, 50 beyond: under 1 N there 200³/3 + 200²·50 + 200·50² = 5 166 667 over E I.

        The arm's end sinks 200³/3 + 50·200²/2, and turns by 200²/2 + 50·200.
        """
        self.assertAlmostEqual(bracket_shelf.give(250.0, 200.0, 1.0), 5_166_667, delta=1)


class Beams(Case):
    def beam(self, **changes: Any) -> RodBeam:
        sizes = {
            "thickness_mm": 140.0,
            "board": "oak_white",
            "depth_mm": 190.0,
            "screw": "rod_3_8",
            "screw_length_mm": 165.0,
        }
        return piece(RodBeam, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_a_rod_pulls_like_a_lag(self) -> None:
        """1800 G^1.5 D^0.75 = 1800·0.2722·0.4792 = 234.8 lb/in; 62.3 mm in the stud.

        576 lb = 2 561 N; × 1.6 for a push.
        """
        check = self.check("screw.withdrawal", self.beam(use="hard"))
        self.assertAlmostEqual(check.capacity.value, 2561 * 1.6, delta=8)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.outcome(self.beam()), "holds")
        self.fails("rod.locked", self.beam(locked=False))
        pressed = self.check("rod.bearing", self.beam())
        steps = pressed.values
        self.assertAlmostEqual(
            pressed.demand.value, 4 * steps["V"] / 90 / 9.525
        )  # its rods' pull already carries the moment
        self.assertEqual(steps["M"], 0.0)
        self.assertGreater(
            self.check("rod.bearing", self.beam(locked=False)).demand.value, pressed.demand.value
        )
        self.fails("screw.embedment", self.beam(screw_length_mm=127.0))
        self.cannot_tell(
            "what “Load” weighs", self.beam(things=(Thing(name="Load", mass_kg=None),))
        )


class Ledgers(Case):
    def shelf(self, **changes: Any) -> LedgerShelf:
        sizes = {
            "thickness_mm": 18.0,
            "board": "plywood",
            "depth_mm": 300.0,
            "use": "everyday",
            "sides_sure": True,
        }
        return piece(LedgerShelf, **{**sizes, "things": load(8.0), **changes})  # type: ignore[no-any-return]

    def sagged_per_n(self, shelf: LedgerShelf) -> float:
        """How far the front sags for what is on it, for a strip has a weight too."""
        sag = self.check("front.sag", shelf)
        return sag.demand.value / sag.values["w_1"]

    def test_what_each_ledger_carries(self) -> None:
        """1 000 × 300 on three sides.

        Yield lines would give each side 0.15, statics asks a quarter. Deep, 400 × 300: the lines
        meet at 200: 200·300 − 200²/2 = 40 000 of 120 000: a third each.
        """
        self.assertEqual(
            [round(x, 9) for x in ledgers.shares(1000, 300, 2, legs=False)], [0.5, 0.25, 0.0]
        )
        self.assertEqual(
            [round(x, 6) for x in ledgers.shares(400, 300, 2, legs=False)],
            [0.333333, 0.333333, 0.0],
        )
        self.assertEqual(ledgers.shares(1000, 400, 0, legs=True).back, 0.5)

    def test_the_front_screw_of_a_side_ledger(self) -> None:
        """At its quarter points: 1/2 + (1/2)(1/4)/(2/16) = 1.5.

        Four, at eighths: 1/4 + (1/2)(3/8)/(2 (9 + 1)/64) = 0.85.
        """
        self.assertEqual([round(sided.front_share(n), 9) for n in (1, 2, 4)], [1.0, 1.5, 0.85])

    def test_the_front_edge_by_hand(self) -> None:
        """8 kg·1.25/2 = 49.0 N and half the board (1 000·300·18 at 500 kg/m³ or so).

        M = w l/8 + 150 l/4.
        """
        strip = ledgers.front_strip(self.shelf(), (0.0, 1000.0), None)
        self.assertAlmostEqual(
            strip.even_n, 8 * 1.25 * KG / 2 + ledgers.board_n(self.shelf()) / 2, places=6
        )
        check = self.check("front.bending", self.shelf())
        moment = strip.even_n * 1000 / 8 + 150 * 1000 / 4
        self.assertAlmostEqual(check.demand.value, moment / (150 * 18**2 / 6), places=6)

    def test_a_wooden_strip_under_a_steel_sheet_is_as_stiff_as_wood(self) -> None:
        """By hand.

        Half of 600 × 5 mm steel, 200 000 · 3 125; 19 × 25 of fir, 13 400 · 24 740, after the years
        over 1.6. They share M as E I.
        """
        made = {
            "board": "steel_sheet",
            "thickness_mm": 5.0,
            "depth_mm": 600.0,
            "ledger": "douglas_fir",
        }
        bare, stiff = self.shelf(**made), self.shelf(**made, stiffener_mm=25.0)
        steel, fir = 200_000 * 300 * 5**3 / 12, 13_400 * 19 * 25**3 / 12
        per_n = [self.sagged_per_n(each) for each in (bare, stiff)]
        self.assertAlmostEqual(
            ledgers.board_n(stiff) - ledgers.board_n(bare), 1000 * 19 * 25 * 540e-9 * KG, delta=0.01
        )
        self.assertAlmostEqual(per_n[0] / per_n[1], (steel + fir / 1.6) / steel, places=6)
        found = self.check("front.bending", stiff)
        self.assertIn("strip under its front edge", wording.phrase(found.sentence, "metric"))
        moment = found.values["M"]
        self.assertAlmostEqual(
            found.demand.value, moment * fir / (steel + fir) / (19 * 25**2 / 6), places=6
        )

    def test_a_board_s_own_weight_sags_whole_whatever_the_use(self) -> None:
        bare = {"board": "oak_red", "thickness_mm": 30.0}
        sags = [
            self.check("front.sag", self.shelf(**bare, use=use)).demand.value
            for use in ("display", "hard")
        ]
        self.assertAlmostEqual(sags[0], sags[1], places=9)
        own = ledgers.board_n(self.shelf(**bare)) / 2  # on half its depth, 1 000 long
        row, depth = data.boards()["oak_red"], self.shelf().depth_mm
        inertia = depth / 2 * 30**3 / 12
        self.assertAlmostEqual(
            sags[0],
            5 * (own + 4 * KG) * 1e9 * (1 + row.k_def) / (384 * row.e_mpa * inertia),
            places=6,
        )

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.outcome(self.shelf(stiffener_mm=38.0, side_screws=4)), "holds")
        self.fails("ledger.front", self.shelf(right_side=False))
        self.fails("front.sag", self.shelf(things=load(20.0)))
        plain, stiff = (self.sagged_per_n(self.shelf(stiffener_mm=high)) for high in (0.0, 50.0))
        self.assertAlmostEqual(plain / stiff, 1 + 19 * 50**3 / (150 * 18**3), places=6)
        self.cannot_tell("side walls", self.shelf(sides_sure=False))


class Benches(Case):
    def bench(self, **changes: Any) -> Bench:
        sizes = {
            "thickness_mm": 24.0,
            "board": "plywood",
            "depth_mm": 400.0,
            "use": "sitting",
            "screw": "wood_14",
            "screw_length_mm": 101.6,
            "top_mm": 450.0,
            "apron_mm": 120.0,
        }
        return piece(Bench, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_a_leg_as_a_column(self) -> None:
        """Pine 38 × 38, 426 mm: π²·8 500·173 761/426² = 80 325 N; a third: 26 775."""
        self.assertAlmostEqual(
            self.check("leg.buckling", self.bench()).capacity.value, 26_775, delta=5
        )

    def test_half_of_it_goes_to_the_ledger(self) -> None:
        load_on = ledgers.ledger_load(self.bench(), 0.5)
        self.assertAlmostEqual(
            sum(load_on.beam.reactions_n[:, 1 : -len(load_on.pushed_at)].sum(axis=0)),
            10 * KG / 2,
            places=6,
        )

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.outcome(self.bench()), "holds")
        self.fails("ledger.front", self.bench(legs=1))
        self.fails("front.bending", self.bench(apron_mm=0.0))
        self.cannot_tell("what “Piece” will carry", self.bench(things=()))


class Dowels(Case):
    def shelf(self, **changes: Any) -> DowelShelf:
        sizes = {"thickness_mm": 60.0, "board": "oak_red", "things": load(5.0)}
        return piece(DowelShelf, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_a_dowel_by_hand(self) -> None:
        """A push of 50 N, 181 mm out from the strip, on one dowel of 19 mm.

        9 050 over π 19³/32 = 673: 13.4 MPa; and what lasts, over 4.
        """
        check = self.check("dowel.bending", self.shelf())
        own = 1000 * 200 * 60 / 1e9 * 640 * KG  # red oak
        lasting = (own + 5 * KG) * (100 - 19) / 4
        self.assertAlmostEqual(check.demand.value, (lasting + 50 * 181) / 673.4, delta=0.3)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.outcome(self.shelf(dowels=6)), "holds")
        self.fails("dowel.bending", self.shelf(dowel_mm=12.0))
        self.fails("dowel.bending", self.shelf(thickness_mm=30.0, dowel_mm=9.0, things=load(15.0)))
        self.cannot_tell(
            "what “Load” weighs", self.shelf(dowels=6, things=(Thing(name="Load", mass_kg=None),))
        )


class Boxes(Case):
    def box(self, **changes: Any) -> BoxShelf:
        sizes = {"height_mm": 180.0, "board": "plywood", "things": load(8.0)}
        return piece(BoxShelf, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_the_taller_box_wins(self) -> None:
        pulls = [
            self.check("screw.withdrawal", self.box(height_mm=high)).demand.value
            for high in (120.0, 180.0, 260.0)
        ]
        self.assertEqual(pulls, sorted(pulls, reverse=True))

    def test_its_top_by_hand(self) -> None:
        """8 kg along a metre: q = 0.0785 N/mm, each millimetre of it over 176 mm.

        5 q l³/384 by 1 + k_def, over E 12³/12.
        """
        row = data.boards()["plywood"]
        expected = 5 * 8 * KG / 1000 * 176**3 / 384 * (1 + row.k_def) / (row.e_mpa * 144)
        self.assertAlmostEqual(self.check("box.top", self.box()).demand.value, expected, places=9)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.outcome(self.box()), "holds")
        self.fails(
            "screw.pull_through",
            self.box(height_mm=120.0, skin_mm=9.0, use="hard", things=load(25.0)),
        )
        self.fails("lining.crushing", self.box(low_screws=False, height_mm=120.0, use="hard"))
        self.cannot_tell("will carry", self.box(things=()))
        for bad in ({"skin_mm": 39.0, "height_mm": 60.0}, {"screw_down_mm": 500.0}):
            with self.subTest(bad=bad), self.assertRaises(PlanError):
                self.box(**bad)


class HeavyBrackets(Case):
    def beam(self, **changes: Any) -> BracketBeam:
        sizes = {
            "thickness_mm": 140.0,
            "board": "oak_white",
            "bracket": "braced",
            "screw": "lag_1_4",
            "screw_length_mm": 76.2,
        }
        return piece(BracketBeam, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_its_own_weight_is_most_of_it(self) -> None:
        """200 × 140 mm of white oak, a metre: 19 to 21 kg."""
        steps = self.check("screw.shear", self.beam(things=load(0.0))).values
        self.assertGreater(steps["V"] * 4 * 2 / KG, 19)
        self.assertLess(steps["V"] * 4 * 2 / KG, 21 + 2 * 5.8)  # and the push at an end

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.outcome(self.beam()), "holds")
        self.fails("bracket.bending", self.beam(bracket="pressed_small"))
        self.cannot_tell(
            "what “Load” weighs", self.beam(things=(Thing(name="Load", mass_kg=None),))
        )


class Corners(Case):
    def shelf(self, **changes: Any) -> CornerShelf:
        sizes = {
            "left_mm": 0.0,
            "length_mm": 450.0,
            "depth_mm": 450.0,
            "thickness_mm": 18.0,
            "board": "plywood",
            "supports_mm": (30.0, 400.0),
            "other_mm": 400.0,
            "other_sure": True,
            "things": load(6.0),
        }
        return piece(CornerShelf, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_three_places_share(self) -> None:
        """A triangle of 450 with screws at 400: the middle at (150, 150).

        0.375 each and 0.25 at the corner; the front's middle at (225, 225): 0.5625 each, and the
        corner lifts with 0.125.
        """
        self.assertEqual(
            [round(s, 6) for s in corner_shelf.shares(400, 400, 150, 150)], [0.375, 0.375, 0.25]
        )
        self.assertEqual(
            [round(s, 6) for s in corner_shelf.shares(400, 400, 225, 225)], [0.5625, 0.5625, -0.125]
        )

    def test_two_thirds_of_the_way_out_is_the_least(self) -> None:
        self.assertAlmostEqual(
            self.check(
                "corner.triangle", self.shelf(supports_mm=(30.0, 300.0), other_mm=300.0)
            ).utilisation,
            1.0,
        )
        self.fails("corner.triangle", self.shelf(supports_mm=(30.0, 290.0), other_mm=290.0))

    def test_holds_fails_and_nobody_knows(self) -> None:
        corner = wall(studs=(Stud(centre_mm=30.0, uncertainty_mm=2.0), *STUDS))
        self.assertIn(self.outcome(self.shelf(), corner), ("holds", "close"))
        self.cannot_tell(
            "whether there is a stud in the corner", self.shelf(supports_mm=(400.0,)), corner
        )
        self.fails("corner.place", self.shelf(left_mm=200.0, supports_mm=(200.0,)))
        self.fails("corner.front", self.shelf(thickness_mm=9.0, use="hard"))
        self.cannot_tell("the other wall's outer screw", self.shelf(other_sure=False), corner)
        landed = mount_of(self.shelf()).landed(self.shelf(left_mm=130.0, corner="right"), wall())
        self.assertEqual((landed.left_mm, landed.supports_mm), (2750.0, (50.0,)))


class Parts(SimpleTestCase):
    def sizes(self, made: AnyPiece) -> dict[str, tuple[int, tuple[float, ...] | None]]:
        return {
            part.name: (part.many, part.sizes_mm) for part in mount_of(made).parts(made, wall())
        }

    def test_what_is_cut_by_hand(self) -> None:
        """A shelf 200 deep on a strip of 19; pins 64 in the stud, 12.7 of lining, 120 in the shelf.

        A box of 12 mm skins.
        """
        dowels = piece(DowelShelf, thickness_mm=60.0, board="oak_red")
        self.assertEqual(self.sizes(dowels)["shelf"], (1, (1000.0, 181.0, 60.0)))
        self.assertEqual(self.sizes(dowels)["dowel"], (4, (139.0, 19.0, 19.0)))
        pins = piece(PinShelf, thickness_mm=40.0, board="oak_red", in_shelf_mm=120.0)
        self.assertEqual(self.sizes(pins)["pin"], (2, (196.7, 9.525, 9.525)))
        box = piece(BoxShelf, height_mm=180.0, board="plywood")
        self.assertEqual(self.sizes(box)["end cap"], (2, (176.0, 156.0, 12.0)))
        ledger = piece(
            LedgerShelf, thickness_mm=18.0, board="plywood", depth_mm=300.0, stiffener_mm=38.0
        )
        self.assertEqual(self.sizes(ledger)["side ledger"], (2, (281.0, 40.0, 19.0)))
        bench = piece(Bench, thickness_mm=24.0, board="plywood", top_mm=450.0)
        self.assertEqual(self.sizes(bench)["leg"], (2, (426.0, 38.0, 38.0)))
