"""Each kind by hand: one that holds, one that fails for its typical reason, one that nobody can tell; and its sums.

The wall: studs of spruce-pine-fir (G = 0.42) 38 mm wide every 400 mm, known to 2 mm, behind 12.7 mm of gypsum board.
"""

from typing import Any

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import STUDS, wall
from trade import data, say
from trade.assess import assess_piece
from trade.check import Check
from trade.errors import PlanError
from trade.fixings.pins import bed_give, carries
from trade.load.line import LineLoad
from trade.mounts import corner_shelf, ledger_shelf, ledgers, mount_of, panel, rail
from trade.mounts.pin_shelf import tilt_mm
from trade.plan import (
    AnyPiece,
    Bench,
    Bookcase,
    BoxShelf,
    BracketBeam,
    Cabinet,
    CleatWall,
    CornerShelf,
    DowelShelf,
    HolderBoard,
    LedgerShelf,
    Panel,
    PegWall,
    Piece,
    PinShelf,
    Rail,
    RodBeam,
    Stud,
    Thing,
    Wall,
)

KG = 9.80665


def piece(kind: type[Piece], **changes: Any) -> Any:
    """1 000 mm long, on the studs at 800 and 1 600 mm."""
    base: dict[str, Any] = {
        "key": "piece", "name": "Piece", "left_mm": 700.0, "top_mm": 1500.0, "length_mm": 1000.0, "depth_mm": 200.0,
        "use": "display", "supports_mm": (100.0, 900.0), "screw": "wood_10", "screw_length_mm": 76.2,
        "things": (Thing(name="Load", mass_kg=10.0),),
    }  # fmt: skip
    return kind(**{**base, **changes})


def load(kg: float, **where: float) -> tuple[Thing, ...]:
    return (Thing(name="Load", mass_kg=kg, **where),)


class Case(SimpleTestCase):
    def word(self, what: AnyPiece, on: Wall | None = None) -> str:
        return assess_piece(what, on or wall()).word

    def fails(self, code: str, what: AnyPiece, on: Wall | None = None) -> Check:
        verdict = assess_piece(what, on or wall())
        check = next(check for check in verdict.checks if check.code == code)
        self.assertEqual(check.word, "wont_hold", (code, check.utilisation))
        return check

    def check(self, code: str, what: AnyPiece, on: Wall | None = None) -> Check:
        return next(check for check in assess_piece(what, on or wall()).checks if check.code == code)

    def cannot_tell(self, words: str, what: AnyPiece, on: Wall | None = None) -> None:
        verdict = assess_piece(what, on or wall())
        self.assertEqual(verdict.word, "cannot_tell", [c.code for c in verdict.checks if c.word == "wont_hold"])
        self.assertTrue(any(words in ask for ask in verdict.unknown), verdict.unknown)


class BlindPins(Case):
    def shelf(self, **changes: Any) -> PinShelf:
        sizes = {"thickness_mm": 40.0, "board": "oak_red", "depth_mm": 180.0, "in_shelf_mm": 120.0, "things": load(4.0)}
        return piece(PinShelf, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_a_pin_in_wood_by_hand(self) -> None:
        """q = 300, L = 60, e = 100: a = (−400 + √(160 000 + 8·15 600))/4 = 33.42, P = 300·(66.83 − 60) = 2 050; M_p = 60 000:
        P = 300·(√(10 000 + 400) − 100) = 594."""
        bearing, bending, turn = carries(300.0, 60.0, 100.0, 60_000.0)
        self.assertAlmostEqual(turn, 33.417, places=3)
        self.assertAlmostEqual(bearing, 2050, delta=1)
        self.assertAlmostEqual(bending, 594.1, delta=0.1)
        self.assertAlmostEqual(bearing * 100, 300 * (60**2 - 2 * turn**2) / 2, delta=1)  # moments about the wood's face

    def test_on_a_bed_of_springs_long_and_short(self) -> None:
        """Long: 2λ/k, 2λ²/k, 4λ³/k (Hetenyi). Short and stiff: a rigid bar, 4/(k L) and 12/(k L³) at its end."""
        k, ei = 400.0, 4.0e8
        lam = (k / (4 * ei)) ** 0.25
        for ours, theirs in zip(bed_give(k, ei, 2000.0), (2 * lam / k, 2 * lam**2 / k, 4 * lam**3 / k), strict=True):
            self.assertAlmostEqual(ours, theirs, delta=theirs * 1e-6)
        sinks, across, turns = bed_give(k, 1e14, 50.0)
        self.assertAlmostEqual(sinks, 4 / (k * 50), delta=1e-9)
        self.assertAlmostEqual(across, 6 / (k * 50**2), delta=1e-9)
        self.assertAlmostEqual(turns, 12 / (k * 50**3), delta=1e-9)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.word(self.shelf()), "holds")
        self.fails("pin.carries", self.shelf(use="hard"))
        self.fails("pin.wood", self.shelf(), wall(structure="brick_solid", studs=()))
        self.fails("screw.edge", self.shelf(pin_mm=16.0))
        unsure = wall(studs=tuple(replace(stud, uncertainty_mm=6.0) for stud in STUDS))
        self.cannot_tell("where exactly the stud behind the left pin is", self.shelf(), unsure)

    def test_set_upward_by_what_the_load_takes_away(self) -> None:
        flat = self.check("pin.droop", self.shelf(tilted=False))
        up = tilt_mm(self.shelf(), wall())
        self.assertAlmostEqual(up, flat.demand.value, delta=0.03)  # but for the pin's own weight
        self.assertAlmostEqual(self.check("pin.droop", self.shelf()).demand.value, 0.0)
        self.assertIn("Set the pins upward", say.phrase(mount_of(self.shelf()).cautions(self.shelf(), wall())[0], "metric"))


class Beams(Case):
    def beam(self, **changes: Any) -> RodBeam:
        sizes = {"thickness_mm": 140.0, "board": "oak_white", "depth_mm": 190.0, "screw": "rod_3_8", "screw_length_mm": 165.0}
        return piece(RodBeam, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_a_rod_pulls_like_a_lag(self) -> None:
        """1800 G^1.5 D^0.75 = 1800·0.2722·0.4792 = 234.8 lb/in; 62.3 mm in the stud: 576 lb = 2 561 N; × 1.6 for a push."""
        check = self.check("screw.withdrawal", self.beam())
        self.assertAlmostEqual(check.capacity.value, 2561 * 1.6, delta=8)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.word(self.beam()), "holds")
        self.fails("rod.locked", self.beam(locked=False))
        self.fails("screw.embedment", self.beam(screw_length_mm=127.0))
        self.cannot_tell("what “Load” weighs", self.beam(things=(Thing(name="Load", mass_kg=None),)))


class Cleats(Case):
    def cabinet(self, **changes: Any) -> Cabinet:
        sizes = {"height_mm": 600.0, "body_kg": 18.0, "depth_mm": 250.0, "use": "everyday", "things": load(20.0)}
        three = {"supports_mm": (100.0, 500.0, 900.0)}
        return piece(Cabinet, **{**sizes, **three, **changes})  # type: ignore[no-any-return]

    def test_the_bevel_s_pull_by_hand(self) -> None:
        """On two studs: half of 18 kg and 20·1.25 kg is 210.8 N; the overhang that would help is left out (+1.5), a push of 150 N
        at the end adds 168.8: 381.1 N. Its turning (26 355 + 42 188 + …)/531 is less than W tan 45°: so 381.1 N pull at 71 mm, and the
        weight at 9 mm: M = 381.1·80 = 30 490 N mm."""
        check = self.check("screw.withdrawal", self.cabinet(supports_mm=(100.0, 900.0)))
        steps = {step.symbol: step.result.value for step in check.steps}
        self.assertAlmostEqual(steps["P"], 381.1, delta=0.2)
        self.assertAlmostEqual(steps["M"], 30_490, delta=20)

    def test_seating_by_hand(self) -> None:
        """Low and deep: h = 200 − 40 − 9 − 20 = 131. Empty body (176.5 N at 134), a push (150 N at 259) and the load at 134, which
        helps and is left out: z = (23 654 + 38 850)/326.5 = 191.4; z/h = 1.46 > tan 45°."""
        low = self.cabinet(height_mm=200.0)
        check = self.fails("cleat.seating", low)
        self.assertAlmostEqual(check.demand.value, 191.4 / 131, delta=0.002)
        self.assertAlmostEqual(check.capacity.value, 1.0)
        self.assertNotIn("cleat.seating", [c.code for c in assess_piece(replace(low, locked=True), wall()).checks])
        steep = self.check("cleat.seating", replace(low, bevel_deg=60.0))
        self.assertAlmostEqual(steep.capacity.value, 3**0.5)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.word(self.cabinet()), "holds")
        self.fails("cleat.bending", self.cabinet(supports_mm=(100.0, 900.0)))
        self.fails("cleat.room", self.cabinet(top_mm=2390.0))
        self.cannot_tell("weighs empty", self.cabinet(body_kg=None))
        self.assertEqual(self.check("cleat.lift", self.cabinet(use="hard")).word, "close")

    def test_what_does_not_fit_behind_it_is_refused(self) -> None:
        for bad in ({"height_mm": 130.0}, {"bevel_deg": 80.0}, {"cleat": "cheese"}, {"body_kg": -1.0}):
            with self.subTest(bad=bad), self.assertRaises(PlanError):
                self.cabinet(**bad)


class Ledgers(Case):
    def shelf(self, **changes: Any) -> LedgerShelf:
        sizes = {"thickness_mm": 18.0, "board": "plywood", "depth_mm": 300.0, "use": "everyday", "sides_sure": True}
        return piece(LedgerShelf, **{**sizes, "things": load(8.0), **changes})  # type: ignore[no-any-return]

    def test_what_each_ledger_carries(self) -> None:
        """1 000 × 300 on three sides: yield lines would give each side 0.15, statics asks a quarter. Deep, 400 × 300: the lines meet at
        200: 200·300 − 200²/2 = 40 000 of 120 000: a third each."""
        self.assertEqual([round(x, 9) for x in ledgers.shares(1000, 300, 2, legs=False)], [0.5, 0.25, 0.0])
        self.assertEqual([round(x, 6) for x in ledgers.shares(400, 300, 2, legs=False)], [0.333333, 0.333333, 0.0])
        self.assertEqual(ledgers.shares(1000, 400, 0, legs=True).back, 0.5)

    def test_the_front_screw_of_a_side_ledger(self) -> None:
        """At its quarter points: 1/2 + (1/2)(1/4)/(2/16) = 1.5. Four, at eighths: 1/4 + (1/2)(3/8)/(2 (9 + 1)/64) = 0.85."""
        self.assertEqual([round(ledger_shelf.front_share(n), 9) for n in (1, 2, 4)], [1.0, 1.5, 0.85])

    def test_the_front_edge_by_hand(self) -> None:
        """8 kg·1.25/2 = 49.0 N and half the board (1 000·300·18 at 500 kg/m³ or so): M = w l/8 + 150 l/4."""
        strip = ledgers.front_strip(self.shelf(), (0.0, 1000.0), 0.0, 19.0)
        self.assertAlmostEqual(strip.even_n, 8 * 1.25 * KG / 2 + ledgers.board_n(self.shelf()) / 2, places=6)
        check = self.check("front.bending", self.shelf())
        moment = strip.even_n * 1000 / 8 + 150 * 1000 / 4
        self.assertAlmostEqual(check.demand.value, moment / (150 * 18**2 / 6), places=6)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.word(self.shelf(stiffener_mm=38.0, side_screws=4)), "holds")
        self.fails("ledger.front", self.shelf(right_side=False))
        self.fails("front.sag", self.shelf(things=load(20.0)))
        plain, stiff = (self.check("front.sag", self.shelf(stiffener_mm=high)).demand.value for high in (0.0, 50.0))
        self.assertAlmostEqual(plain / stiff, 1 + 19 * 50**3 / (150 * 18**3), places=6)
        self.cannot_tell("side walls", self.shelf(sides_sure=False))


class Benches(Case):
    def bench(self, **changes: Any) -> Bench:
        sizes = {
            "thickness_mm": 24.0, "board": "plywood", "depth_mm": 400.0, "use": "sitting", "screw": "wood_14",
            "screw_length_mm": 101.6, "top_mm": 450.0, "apron_mm": 120.0,
        }  # fmt: skip
        return piece(Bench, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_a_leg_as_a_column(self) -> None:
        """Pine 38 × 38, 426 mm: π²·8 500·173 761/426² = 80 325 N; a third: 26 775."""
        self.assertAlmostEqual(self.check("leg.buckling", self.bench()).capacity.value, 26_775, delta=5)

    def test_half_of_it_goes_to_the_ledger(self) -> None:
        load_on = ledgers.ledger_load(self.bench(), 0.5)
        self.assertAlmostEqual(sum(load_on.beam.reactions_n[:, 1:-3].sum(axis=0)), 10 * KG / 2, places=6)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.word(self.bench()), "holds")
        self.fails("ledger.front", self.bench(legs=1))
        self.fails("front.bending", self.bench(apron_mm=0.0))
        self.cannot_tell("what “Piece” will carry", self.bench(things=()))


class Rails(Case):
    def rail(self, kind: type[Rail] = Rail, **changes: Any) -> Any:
        sizes = {"height_mm": 90.0, "thickness_mm": 19.0, "board": "oak_red", "depth_mm": 100.0, "use": "everyday"}
        hung = {"things": load(8.0, at_mm=500.0, out_mm=100.0)}
        return piece(kind, **{**sizes, **hung, **changes})

    def test_twist_by_hand(self) -> None:
        """8 kg·1.25 at 100 mm half way: 9 807/2 = 4 903 N mm to each stud; a push of 150 N at 100 mm, 90 mm from a stud: 15 000·(1 − 90/800) =
        13 313; together 18 216 over 19²·90·(1 − 0.63·19/90)/3 = 9 390 mm³."""
        lasting, pushed = rail.twists(self.rail())
        self.assertAlmostEqual(lasting, 8 * 1.25 * KG * 100 / 2, places=3)
        self.assertAlmostEqual(pushed, 18_216, delta=1)
        self.assertAlmostEqual(self.check("rail.twist", self.rail()).demand.value, 18_216 / 9_390, delta=0.001)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.word(self.rail()), "holds")
        self.fails("rail.twist", self.rail(things=load(25.0, at_mm=500.0, out_mm=100.0)))
        self.fails("support.count", self.rail(supports_mm=(100.0,)))
        self.cannot_tell("what “Oars” weighs", self.rail(things=(Thing(name="Oars", mass_kg=None),)))

    def test_more_may_hang_at_a_stud_than_between(self) -> None:
        at_stud, between = (
            self.check("rail.twist", self.rail(things=load(20.0, at_mm=x, out_mm=100.0))).utilisation for x in (100.0, 500.0)
        )
        self.assertLess(at_stud, between)
        bending = [self.check("rail.bending", self.rail(things=load(20.0, at_mm=x))).utilisation for x in (100.0, 500.0)]
        self.assertLess(bending[0], bending[1])

    def test_a_holder_board_is_a_high_rail(self) -> None:
        board = self.rail(HolderBoard, height_mm=200.0, use="hard", things=load(6.0))
        self.assertEqual(self.word(board), "holds")
        self.fails("rail.twist", replace(board, depth_mm=300.0, things=load(30.0)))
        self.cannot_tell("will carry", replace(board, things=()))


class Bookcases(Case):
    def case(self, **changes: Any) -> Bookcase:
        sizes = {"height_mm": 2000.0, "top_mm": 2000.0, "body_kg": 30.0, "depth_mm": 300.0}
        return piece(Bookcase, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_tipping_by_hand(self) -> None:
        """270·100 + 45·1 420 = 90 900; 30 kg at 150: 44 130; the difference at 1 980 mm: 23.6 N on one strap."""
        self.assertAlmostEqual(self.check("tip.strap", self.case(supports_mm=())).capacity.value, 44_130, delta=1)
        self.assertAlmostEqual(self.check("tip.strap", self.case()).demand.value, (90_900 - 44_130) / 1980, delta=0.01)
        self.assertAlmostEqual(self.check("screw.withdrawal", self.case()).demand.value, (90_900 - 44_130) / 1980, delta=0.01)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.word(self.case(depth_mm=450.0, body_kg=60.0)), "holds")
        self.fails("tip.strap", self.case(open_mm=1000.0, height_mm=1000.0, top_mm=1000.0))
        self.fails("tip.strap", self.case(supports_mm=()))
        self.fails("fit.stand_up", self.case(height_mm=2380.0, top_mm=2380.0))
        self.fails("screw.edge", self.case(supports_mm=(300.0, 700.0)))
        self.cannot_tell("weighs empty", self.case(body_kg=None))

    def test_it_stands_in_front_of_the_baseboard_and_on_the_floor(self) -> None:
        self.assertEqual(mount_of(self.case()).landed(self.case(top_mm=1200.0), wall()).top_mm, 2000.0)
        self.assertTrue(mount_of(self.case()).stands)


class Dowels(Case):
    def shelf(self, **changes: Any) -> DowelShelf:
        sizes = {"thickness_mm": 60.0, "board": "oak_red", "things": load(5.0)}
        return piece(DowelShelf, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_a_dowel_by_hand(self) -> None:
        """A push of 50 N, 181 mm out from the strip, on one dowel of 19 mm: 9 050 over π 19³/32 = 673: 13.4 MPa; and what lasts, over 4."""
        check = self.check("dowel.bending", self.shelf())
        own = 1000 * 200 * 60 / 1e9 * 640 * KG  # red oak
        lasting = (own + 5 * KG) * (100 - 19) / 4
        self.assertAlmostEqual(check.demand.value, (lasting + 50 * 181) / 673.4, delta=0.3)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.word(self.shelf(dowels=6)), "holds")
        self.fails("dowel.bending", self.shelf(dowel_mm=12.0))
        self.fails("lining.crushing", self.shelf(thickness_mm=30.0, dowel_mm=9.0, things=load(15.0)))
        self.cannot_tell("what “Load” weighs", self.shelf(dowels=6, things=(Thing(name="Load", mass_kg=None),)))


class Boxes(Case):
    def box(self, **changes: Any) -> BoxShelf:
        sizes = {"height_mm": 180.0, "board": "plywood", "things": load(8.0)}
        return piece(BoxShelf, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_the_taller_box_wins(self) -> None:
        pulls = [self.check("screw.withdrawal", self.box(height_mm=high)).demand.value for high in (120.0, 180.0, 260.0)]
        self.assertEqual(pulls, sorted(pulls, reverse=True))

    def test_its_top_by_hand(self) -> None:
        """8 kg along a metre: q = 0.0785 N/mm, each millimetre of it over 176 mm: 5 q l³/384 by 1 + k_def, over E 12³/12."""
        row = data.boards()["plywood"]
        expected = 5 * 8 * KG / 1000 * 176**3 / 384 * (1 + row.k_def) / (row.e_mpa * 144)
        self.assertAlmostEqual(self.check("box.top", self.box()).demand.value, expected, places=9)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.word(self.box()), "holds")
        self.fails("screw.pull_through", self.box(height_mm=120.0, skin_mm=9.0, use="hard", things=load(25.0)))
        self.fails("lining.crushing", self.box(low_screws=False, height_mm=120.0, use="everyday"))
        self.cannot_tell("will carry", self.box(things=()))
        for bad in ({"skin_mm": 39.0, "height_mm": 60.0}, {"screw_down_mm": 500.0}):
            with self.subTest(bad=bad), self.assertRaises(PlanError):
                self.box(**bad)


class HeavyBrackets(Case):
    def beam(self, **changes: Any) -> BracketBeam:
        sizes = {"thickness_mm": 140.0, "board": "oak_white", "bracket": "braced", "screw": "lag_1_4", "screw_length_mm": 76.2}
        return piece(BracketBeam, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_its_own_weight_is_most_of_it(self) -> None:
        """200 × 140 mm of white oak, a metre: 19 to 21 kg."""
        steps = {step.symbol: step.result.value for step in self.check("screw.shear", self.beam(things=load(0.0))).steps}
        self.assertGreater(steps["V"] * 4 * 2 / KG, 19)
        self.assertLess(steps["V"] * 4 * 2 / KG, 21 + 2 * 5.8)  # and the push at an end

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.word(self.beam()), "holds")
        self.fails("bracket.bending", self.beam(bracket="pressed_small"))
        self.cannot_tell("what “Load” weighs", self.beam(things=(Thing(name="Load", mass_kg=None),)))


class Corners(Case):
    def shelf(self, **changes: Any) -> CornerShelf:
        sizes = {
            "left_mm": 0.0, "length_mm": 450.0, "depth_mm": 450.0, "thickness_mm": 18.0, "board": "plywood", "supports_mm": (30.0, 400.0),
            "other_mm": 400.0, "other_sure": True, "things": load(6.0),
        }  # fmt: skip
        return piece(CornerShelf, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_three_places_share(self) -> None:
        """A triangle of 450 with screws at 400: the middle at (150, 150): 0.375 each and 0.25 at the corner; the front's middle at
        (225, 225): 0.5625 each, and the corner lifts with 0.125."""
        self.assertEqual([round(s, 6) for s in corner_shelf.shares(400, 400, 150, 150)], [0.375, 0.375, 0.25])
        self.assertEqual([round(s, 6) for s in corner_shelf.shares(400, 400, 225, 225)], [0.5625, 0.5625, -0.125])

    def test_two_thirds_of_the_way_out_is_the_least(self) -> None:
        self.assertAlmostEqual(
            self.check("corner.triangle", self.shelf(supports_mm=(30.0, 300.0), other_mm=300.0)).utilisation, 1.0
        )
        self.fails("corner.triangle", self.shelf(supports_mm=(30.0, 290.0), other_mm=290.0))

    def test_holds_fails_and_nobody_knows(self) -> None:
        corner = wall(studs=(Stud(centre_mm=30.0, uncertainty_mm=2.0), *STUDS))
        self.assertIn(self.word(self.shelf(), corner), ("holds", "close"))
        self.cannot_tell("whether there is a stud in the corner", self.shelf(supports_mm=(400.0,)), corner)
        self.fails("corner.place", self.shelf(left_mm=200.0, supports_mm=(200.0,)))
        self.fails("corner.front", self.shelf(thickness_mm=9.0, use="hard"))
        self.cannot_tell("the other wall's outer screw", self.shelf(other_sure=False), corner)
        landed = mount_of(self.shelf()).landed(self.shelf(left_mm=130.0, corner="right"), wall())
        self.assertEqual((landed.left_mm, landed.supports_mm), (2750.0, (50.0,)))


class Panels(Case):
    def panel(self, kind: type[Panel] = Panel, **changes: Any) -> Any:
        sizes = {
            "height_mm": 800.0, "thickness_mm": 12.0, "board": "plywood", "depth_mm": 120.0, "batten_mm": 19.0, "panel_screw_mm": 28.0,
            "use": "everyday",
        }  # fmt: skip
        return piece(kind, **{**sizes, **changes})

    def test_a_panel_s_screw_in_its_batten_by_hand(self) -> None:
        """28 mm less 12 of panel is 16 in the batten, less a tip of 8.33: 7.67 mm; 2850·0.36²·0.164 = 60.6 lb/in = 10.61 N/mm: 81.4 N,
        × 1.6 for a push."""
        self.assertAlmostEqual(self.check("panel.batten_screws", self.panel()).capacity.value, 81.4 * 1.6, delta=0.8)

    def test_rows_pull_in_proportion_to_their_height(self) -> None:
        """Rows 760, 400 and 40 above the foot: the top one takes 760/(760² + 400² + 40²) of the turning."""
        self.assertEqual(panel.rows_mm(self.panel()), (760.0, 400.0, 40.0))

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.word(self.panel()), "holds")
        self.assertEqual(self.word(self.panel(batten_mm=0.0)), "holds")
        self.fails("panel.behind", self.panel(panel_screw_mm=35.0))
        self.fails("panel.batten_screws", self.panel(height_mm=200.0, panel_screws=2, rows=2, use="hard", things=load(40.0)))
        self.cannot_tell("what “Load” weighs", self.panel(things=(Thing(name="Load", mass_kg=None),)))

    def test_a_peg_by_hand(self) -> None:
        """2.5 kg alone on a peg, 80 mm out, on show: 1 961 N mm for years; a tug of 25 N at 90 mm is 2 250, for minutes: / (π 16³/32 = 402)."""
        pegs = self.panel(PegWall, thickness_mm=18.0, depth_mm=90.0, panel_screw_mm=35.0, use="display", peg_mm=16.0)
        pegs = replace(pegs, things=load(2.5, at_mm=500.0, out_mm=80.0))
        check = self.check("peg.bending", pegs)
        self.assertAlmostEqual(check.demand.value, 2.5 * KG * 80 / 402.1, delta=0.02)
        self.assertEqual(self.word(pegs), "holds")
        self.fails("peg.socket", replace(pegs, thickness_mm=6.0, panel_screw_mm=20.0))
        self.cannot_tell("will carry", replace(pegs, things=()))


class CleatWalls(Case):
    def cleats(self, **changes: Any) -> CleatWall:
        sizes = {"depth_mm": 150.0, "holder_mm": 250.0, "use": "everyday", "supports_mm": (100.0, 500.0, 900.0)}
        return piece(CleatWall, **{**sizes, **changes})  # type: ignore[no-any-return]

    def test_every_row_has_its_holes(self) -> None:
        seats = mount_of(self.cleats()).seats(self.cleats(), wall())
        self.assertEqual([seat.index for seat in seats], list(range(9)))
        self.assertEqual(len({(x, round(y, 3)) for seat in seats for x, y in seat.holes}), 18)

    def test_a_holder_by_hand(self) -> None:
        """Nothing but a push 150 mm out, and half a cleat of 9: 159 over 250 − 9."""
        self.assertAlmostEqual(self.check("cleat.seating", self.cleats(things=load(0.0))).demand.value, 159 / 241, places=6)

    def test_holds_fails_and_nobody_knows(self) -> None:
        self.assertEqual(self.word(self.cleats()), "holds")
        self.fails("cleat.seating", self.cleats(holder_mm=120.0))
        self.cannot_tell("will carry", self.cleats(things=()))


class Parts(SimpleTestCase):
    def sizes(self, made: AnyPiece) -> dict[str, tuple[int, tuple[float, ...] | None]]:
        return {part.name: (part.many, part.sizes_mm) for part in mount_of(made).parts(made, wall())}

    def test_what_is_cut_by_hand(self) -> None:
        """A shelf 200 deep on a strip of 19; pins 64 in the stud, 12.7 of lining, 120 in the shelf; a box of 12 mm skins."""
        dowels = piece(DowelShelf, thickness_mm=60.0, board="oak_red")
        self.assertEqual(self.sizes(dowels)["shelf"], (1, (1000.0, 181.0, 60.0)))
        self.assertEqual(self.sizes(dowels)["dowel"], (4, (139.0, 19.0, 19.0)))
        pins = piece(PinShelf, thickness_mm=40.0, board="oak_red", in_shelf_mm=120.0)
        self.assertEqual(self.sizes(pins)["pin"], (2, (196.7, 9.525, 9.525)))
        box = piece(BoxShelf, height_mm=180.0, board="plywood")
        self.assertEqual(self.sizes(box)["end cap"], (2, (176.0, 156.0, 12.0)))
        ledger = piece(LedgerShelf, thickness_mm=18.0, board="plywood", depth_mm=300.0, stiffener_mm=38.0)
        self.assertEqual(self.sizes(ledger)["side ledger"], (2, (281.0, 40.0, 19.0)))
        bench = piece(Bench, thickness_mm=24.0, board="plywood", top_mm=450.0)
        self.assertEqual(self.sizes(bench)["leg"], (2, (426.0, 38.0, 38.0)))


class Lines(SimpleTestCase):
    def test_what_hangs_sums_up_to_what_the_supports_take(self) -> None:
        made = piece(Rail, height_mm=90.0, thickness_mm=19.0, board="oak_red", things=load(8.0, at_mm=300.0) + load(5.0))
        line: LineLoad = rail.rail_load(made)
        own = 1000 * 90 * 19 / 1e9 * 670 * KG
        self.assertAlmostEqual(line.beam.reactions_n[:, :-3].sum(), own + 13 * KG, delta=own * 0.1)
