"""Shelves judged: hand sums, unknowns, refusals, and the words."""

from math import pi

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import STUDS, bracket_shelf, plan, rod_shelf, wall
from trade import data, wording
from trade.assess import assess, assess_piece
from trade.check import Check, PieceVerdict
from trade.mounts import mount_of
from trade.mounts.stiffness import turning_stiffness
from trade.plan.model import AnyPiece, Stud, Thing, Wall

G = 9.80665


def judge(piece: AnyPiece, on: Wall | None = None) -> PieceVerdict:
    return assess_piece(piece, on or wall())


def check(verdict: PieceVerdict, code: str) -> Check:
    return next(c for c in verdict.checks if c.code == code)


class ByHand(SimpleTestCase):
    """The base shelf: 1 000 x 250 x 20 oak (710 kg/m3.

    3.55 kg), brackets at 100 and 900, 20 kg x 1.25, push 150 N.
    """

    def setUp(self) -> None:
        self.verdict = judge(bracket_shelf())
        self.own = 0.25 * 0.02 * 1.0 * 710 * G  # N

    def test_it_holds(self) -> None:
        self.assertEqual(self.verdict.outcome, "holds")

    def test_turning_load_at_the_bracket(self) -> None:
        """The board turns both brackets together.

        Half of everything that turns, and a push of 150 N 250 mm out wherever it is.

        That twists it with at most 150 × 250 / 2 = 18.75 N m; oak 250 × 20 may be twisted with 0.95
        × 250 × 400 / 3 × 1.53 MPa = 48.6 N m for years, and 1.6 times that for minutes.
        """
        own_bracket = 0.90 * G
        moment = (self.own / 2 + 25 * G / 2) * 125 + own_bracket * 250 * 0.4 + 150 * 250 / 2
        bending = check(self.verdict, "bracket.bending")
        self.assertAlmostEqual(bending.demand.value, moment / 900, places=6)
        self.assertAlmostEqual(bending.capacity.value, 0.6 * 235, places=6)

    def test_pull_on_the_top_screw_is_the_couple_of_block_and_screws(self) -> None:
        pull = check(self.verdict, "screw.withdrawal")
        steps = pull.values
        block = steps["a"]
        levers = [y - block / 2 for y in (275.0, 240.0, 60.0, 25.0)]
        counted = [d for d in levers if d > 0]
        self.assertAlmostEqual(
            pull.demand.value,
            steps["M"] * levers[0] / sum(d * d for d in counted),
            delta=0.02 * pull.demand.value,
        )
        self.assertAlmostEqual(steps["d_1"], levers[0], places=6)

    def test_withdrawal_counts_thread_in_the_stud_less_the_tip(self) -> None:
        """#10, 3 in.

        Thread 50.8 mm, all of it past 4 + 12.7 mm; less a tip of 2 x 4.826; 95.5 lb/in at G = 0.42;
        C_D = 1.6.
        """
        pull = check(self.verdict, "screw.withdrawal")
        per_mm = 2850 * 0.42**2 * 0.190 * 4.4482216 / 25.4
        self.assertAlmostEqual(pull.capacity.value, per_mm * (50.8 - 9.65) * 1.6, delta=0.5)

    def test_sag_over_the_years(self) -> None:
        """Between the brackets only, 800 mm.

        5 w l^4 / 384 EI, own weight x 1.6, contents x 1.48; the own overhangs hold up a little:
        minus w a^2 l^2 / 16 EI for each pair of end moments w a^2 / 2.
        """
        ei = 12_500 * 250 * 20**3 / 12
        contents, own = 20 * G / 1000 * (1 + 0.8 * 0.6), self.own / 1000 * 1.6
        sag = 5 * (contents + own) * 800**4 / (384 * ei) - own * 100**2 / 2 * 800**2 / (8 * ei)
        found = check(self.verdict, "sag.long_term")
        self.assertAlmostEqual(found.demand.value / sag, 1.0, delta=0.003)
        self.assertAlmostEqual(found.capacity.value, 800 / 360, places=6)

    def test_every_sum_says_itself_in_both_units(self) -> None:
        for piece in (bracket_shelf(), rod_shelf(), bracket_shelf(bracket="shop_plywood")):
            for one in judge(piece).checks:
                for units in ("imperial", "metric"):
                    words = wording.phrase(one.sentence, units) + wording.check_line(one, units)  # type: ignore[arg-type]
                    words += "".join(wording.quantity(step.result, units) for step in one.equations)  # type: ignore[arg-type]
                    self.assertNotIn("{", words)
                    self.assertTrue(one.rule and one.source and one.case)


class RodsByHand(SimpleTestCase):
    """The base ledge.

    1 000 x 250 x 95 oak, 10 kg on show, rods 15.875 x 190 at 100 and 900, plates let 12.7 mm into
    the lining.
    """

    def setUp(self) -> None:
        self.verdict = judge(rod_shelf())
        self.own = 0.25 * 0.095 * 1.0 * 710 * G / 2  # N on each rod
        self.contents = 10 * G * (0.1 * (1 + 50 / 800) + 0.8 / 2)
        self.hardware = 0.50 * G

    def test_the_rod_bends_about_the_studs_face(self) -> None:
        """The shelf turns both rods together.

        Each is loaded by its own share, 12.7 mm further out than the stud's face.
        """
        push = 50 * (1 + 100 / 800)
        load = self.own + self.contents + self.hardware + push
        moment = (self.own + 5 * G) * 125 + self.hardware * 95 + 50 * 250 / 2 + load * 12.7
        self.assertAlmostEqual(
            check(self.verdict, "rod.bending").demand.value,
            moment / (pi * 15.875**3 / 32),
            places=6,
        )

    def test_the_front_edge_drops_by_the_rod_and_by_the_plate(self) -> None:
        """A load at z bends the rod z^3 / 3 EI there and turns its end z^2 / 2 EI.

        The plate turns by M / K, with creep 0.6.
        """
        ei = 200_000 * pi * 15.875**4 / 64

        def front(z: float) -> float:
            return (z**3 / 3 + z**2 / 2 * (250 - z)) / ei

        steps = check(self.verdict, "shelf.droop").values
        self.assertAlmostEqual(
            steps["w_1"],
            (self.own + self.contents) * front(125) + self.hardware * front(95),
            places=9,
        )
        lasting = (
            (self.own + 5 * G) * 125
            + self.hardware * 95
            + (self.own + self.contents + self.hardware) * 12.7
        )
        self.assertAlmostEqual(steps["M"], lasting, places=6)
        self.assertAlmostEqual(steps["w_2"], lasting / (steps["K"]) * 250 * 1.6, places=9)
        self.assertAlmostEqual(
            check(self.verdict, "shelf.droop").demand.value, steps["w_1"] + steps["w_2"], places=9
        )

    def test_what_the_stud_takes_under_the_plate(self) -> None:
        """425 psi across the grain, 36 of 38 mm pressed (stud ±2 mm), top screw 83 above edge."""
        self.assertAlmostEqual(
            check(self.verdict, "lining.pressed").capacity.value, 2.93 * 36 * 83**2 / 2, places=3
        )

    def test_pressure_in_the_rods_hole(self) -> None:
        """At most 4 V / L at the wall and 6 M / L^2 at the end, over 15.875 mm.

        L = 190 less the 12.7 of lining; oak takes 2.3 MPa times C_D.
        """
        found = check(self.verdict, "rod.bearing")
        steps = found.values
        self.assertAlmostEqual(
            found.demand.value,
            max(4 * steps["V"] / 177.3, 6 * steps["M"] / 177.3**2) / 15.875,
            places=9,
        )
        self.assertIn(round(found.capacity.value, 6), (round(2.3 * 0.9, 6), round(2.3 * 1.6, 6)))


class Failing(SimpleTestCase):
    def test_no_stud_behind_a_bracket_leads_everything(self) -> None:
        verdict = judge(bracket_shelf(left_mm=850.0))
        self.assertEqual(verdict.outcome, "wont_hold")
        self.assertEqual(verdict.governing.code, "screw.edge")
        self.assertIn("misses the stud by 131 mm", wording.headline(verdict, "metric"))

    def test_a_screw_that_barely_reaches_the_stud(self) -> None:
        verdict = judge(bracket_shelf(screw_length_mm=31.75))
        self.assertEqual(check(verdict, "screw.embedment").outcome, "wont_hold")

    def test_a_screw_that_comes_out_behind(self) -> None:
        shallow = tuple(replace(stud, depth_mm=38.0) for stud in STUDS)
        self.assertEqual(
            check(judge(bracket_shelf(), wall(studs=shallow)), "screw.far_side").outcome,
            "doesnt_fit",
        )

    def test_a_plate_on_the_lining_does_badly_and_let_in_does_well(self) -> None:
        over, let_in = (
            judge(rod_shelf(plate="small", thickness_mm=45.0, let_in=flag))
            for flag in (False, True)
        )
        self.assertGreater(
            check(over, "lining.crushing").utilisation,
            3 * check(let_in, "lining.crushing").utilisation,
        )
        self.assertGreater(
            check(over, "shelf.droop").utilisation, check(let_in, "shelf.droop").utilisation
        )

    def test_a_hand_tells_a_plate_let_in_from_one_on_the_lining(self) -> None:
        """Oak 178 deep, books.

        Firm on the stud; on gypsum springy, and what stays of its dent is felt as play. By hand:
        the hardest case times what the face alone turns, 1 / K - 1 / K of a face that is not
        dented, times the share that stays, 178 mm out.
        """
        made = rod_shelf(
            plate="small",
            board="oak_red",
            thickness_mm=38.1,
            depth_mm=177.8,
            length_mm=762.0,
            supports_mm=(181.0, 581.0),
        )
        made = replace(made, left_mm=1019.0, use="display", screw="wood_10", screw_length_mm=63.5)
        made = replace(made, things=(Thing(name="Books", mass_kg=14.0),))
        felt = []
        for let_in in (True, False):
            shelf = replace(made, let_in=let_in)
            wobble = check(judge(shelf), "shelf.wobble")
            [support, _] = mount_of(shelf).supports(shelf, wall())
            stiff, hard = (turning_stiffness(support, times) for times in (1.0, 1e4))
            steps = wobble.values
            hardest = check(judge(shelf), "lining.crushing").values["M"]
            self.assertAlmostEqual(
                steps["δ_4"],
                hardest * (1 / stiff - 1 / hard) * support.face.set_share * 177.8,
                delta=0.01,
            )
            felt.append(wording.phrase(wobble.sentence, "metric").split(":")[0])
        self.assertEqual(felt, ["It feels solid", "It feels springy"])

    def test_a_wooden_bracket_can_be_pulled_through(self) -> None:
        self.assertIn(
            "screw.pull_through",
            [c.code for c in judge(bracket_shelf(bracket="shop_plywood")).checks],
        )
        self.assertNotIn("screw.pull_through", [c.code for c in judge(bracket_shelf()).checks])

    def test_one_support_is_refused(self) -> None:
        for supports in ((), (500.0,)):
            verdict = judge(bracket_shelf(supports_mm=supports))
            self.assertEqual(
                (verdict.outcome, verdict.governing.code), ("wont_hold", "support.count")
            )

    def test_rod_longer_than_the_shelf_is_deep(self) -> None:
        self.assertEqual(check(judge(rod_shelf(depth_mm=180.0)), "rod.hole").outcome, "doesnt_fit")


class Together(SimpleTestCase):
    def test_two_pieces_in_one_place_are_refused_and_touching_is_no_clash(self) -> None:
        """The bracket shelf takes 1 500 down to 1 180: board 20 and leg 300."""
        for top, word in (
            (1500.0, "doesnt_fit"),
            (1275.1, "doesnt_fit"),
            (1181.0, "doesnt_fit"),
            (1275.0 - 95.0, "holds"),
            (1595.0, "holds"),
        ):
            verdict = assess(plan(bracket_shelf(), rod_shelf(top_mm=top)))
            self.assertEqual([p.outcome for p in verdict.pieces], [word, word], top)
        aside = assess(
            plan(
                bracket_shelf(length_mm=900.0),
                rod_shelf(left_mm=1900.0, top_mm=1500.0, supports_mm=(100.0, 500.0, 900.0)),
            )
        )
        self.assertEqual(aside.outcome, "holds")
        self.assertIn(
            "runs into “Ledge”",
            wording.headline(
                assess(plan(bracket_shelf(), rod_shelf(top_mm=1500.0))).pieces[0], "metric"
            ),
        )


class Unknown(SimpleTestCase):
    def asks(self, verdict: PieceVerdict, words: str) -> None:
        self.assertEqual(verdict.outcome, "cannot_tell")
        self.assertTrue(any(words in ask for ask in verdict.unknown), verdict.unknown)
        self.assertIn("Find out first", wording.headline(verdict, "metric"))

    def test_each_unknown_is_asked_for(self) -> None:
        loose = tuple(replace(stud, uncertainty_mm=None) for stud in STUDS)
        self.asks(judge(bracket_shelf(), wall(layers=None)), "lined with")
        self.asks(judge(bracket_shelf(), wall(studs=())), "where the studs are")
        self.asks(judge(bracket_shelf(), wall(studs=loose)), "how far off the stud")
        self.asks(judge(bracket_shelf(things=())), "will carry")
        self.asks(
            judge(bracket_shelf(things=(Thing(name="Box {0}", mass_kg=None),))), "“Box {0}” weighs"
        )

    def test_a_stud_that_may_be_too_far_off_is_asked_about_and_a_hard_miss_fails(self) -> None:
        """38 mm stud, #10: 19 − 2.5 × 4.83 leaves 6.9 mm for the stud to be off."""
        for off, word in ((6.8, "holds"), (7.1, "cannot_tell"), (40.0, "cannot_tell")):
            verdict = judge(
                bracket_shelf(),
                wall(studs=tuple(replace(stud, uncertainty_mm=off) for stud in STUDS)),
            )
            self.assertEqual(verdict.outcome, word)
        self.asks(verdict, "probe for both of its edges")
        self.assertEqual(
            judge(bracket_shelf(left_mm=708.0), wall(studs=STUDS)).governing.code, "screw.edge"
        )

    def test_what_does_not_hang_on_the_unknown_is_not_unknown_and_what_may_fit_does_not_fail(
        self,
    ) -> None:
        unloaded = judge(bracket_shelf(things=()))
        self.assertEqual(
            [
                check(unloaded, code).outcome
                for code in ("screw.far_side", "screw.embedment", "screw.edge")
            ],
            ["holds"] * 3,
        )
        long = bracket_shelf(
            screw_length_mm=101.6
        )  # past a bare stud of 89, inside one behind half an inch
        self.assertEqual(check(judge(long), "screw.far_side").outcome, "holds")
        self.assertEqual(
            check(judge(long, wall(layers=None)), "screw.far_side").outcome, "cannot_tell"
        )
        self.assertEqual(
            check(judge(long, wall(layers=())), "screw.far_side").outcome, "doesnt_fit"
        )
        self.assertEqual(
            check(judge(long, wall(layers=(), studs=())), "screw.far_side").outcome, "cannot_tell"
        )

    def test_what_fails_at_its_best_fails_anyway(self) -> None:
        heavy = (Thing(name="Anvil", mass_kg=400.0), Thing(name="Box", mass_kg=None))
        self.assertEqual(judge(bracket_shelf(things=heavy), wall(layers=None)).outcome, "wont_hold")

    def test_an_unknown_timber_is_assumed_the_softest_and_says_so(self) -> None:
        assumed = judge(bracket_shelf(), wall(timber=None))
        self.assertIn("timber", [a.code for a in assumed.assumptions])
        named = {
            key: row for key, row in data.framing().items() if key not in ("c16", "c24")
        }  # those of the other school
        self.assertEqual(
            min(row.g for row in named.values()), data.framing()["spruce_pine_fir_south"].g
        )
        self.assertNotIn("timber", [a.code for a in judge(bracket_shelf()).assumptions])


class Words(SimpleTestCase):
    def test_breaks_at_080_and_100(self) -> None:
        one = judge(bracket_shelf()).governing
        for used, word in (
            (0.80, "holds"),
            (0.8001, "close"),
            (1.0, "close"),
            (1.0001, "wont_hold"),
        ):
            self.assertEqual(
                replace(one, demand=replace(one.demand, value=used * one.capacity.value)).outcome,
                word,
            )

    def test_what_is_not_a_number_fails(self) -> None:
        one = judge(bracket_shelf()).governing
        self.assertEqual(
            replace(one, demand=replace(one.demand, value=float("nan"))).outcome, "wont_hold"
        )

    def test_a_nuisance_holds_all_the_same_and_a_fit_is_never_nearly(self) -> None:
        one = judge(bracket_shelf()).governing
        over = replace(one, demand=replace(one.demand, value=3 * one.capacity.value))
        self.assertEqual(replace(over, limit="service").outcome, "holds_but")
        self.assertEqual(
            replace(
                one, demand=replace(one.demand, value=0.99 * one.capacity.value), limit="fit"
            ).outcome,
            "holds",
        )

    def test_a_utilisation_never_looks_better_than_it_is(self) -> None:
        self.assertEqual(
            [wording.utilisation(x) for x in (0.8, 0.8001, 1.0, 1.00001, 250.0)],
            ["0.80", "0.81", "1.00", "1.01", "99+"],
        )

    def test_an_empty_wall_holds(self) -> None:
        self.assertEqual(plan(bracket_shelf()).without_piece("shelf").pieces, ())

    def test_two_studs_doubled_are_as_good_as_wide(self) -> None:
        double = (*STUDS[:1], Stud(centre_mm=800.0, width_mm=76.0, uncertainty_mm=2.0), *STUDS[2:])
        self.assertLess(
            check(judge(bracket_shelf(), wall(studs=double)), "screw.edge").utilisation,
            check(judge(bracket_shelf(left_mm=705.0)), "screw.edge").utilisation,
        )


class Packets(SimpleTestCase):
    def test_what_a_bracket_s_packet_states_decides_instead_of_its_section(self) -> None:
        """40 kg a pair: 20 kg half of 250 mm out."""
        rated = judge(bracket_shelf(pair_kg=40.0))
        found = check(rated, "bracket.bending")
        self.assertAlmostEqual(found.capacity.value, 20 * G * 125)
        by_section = check(judge(bracket_shelf()), "bracket.bending")
        self.assertAlmostEqual(found.demand.value, by_section.demand.value * 900)

    def test_a_pressed_bracket_holds_a_few_things_and_not_a_row_of_books(self) -> None:
        for kg, words in ((5.0, ("holds", "close")), (60.0, ("wont_hold",))):
            shelf = bracket_shelf(
                bracket="pressed_large", depth_mm=200.0, things=(Thing(name="Things", mass_kg=kg),)
            )
            self.assertIn(check(judge(shelf), "bracket.bending").outcome, words)
