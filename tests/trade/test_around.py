"""What a wall is made of, what is on it, where not to drill.

Sketches along the tape and tables of readings.
"""

from typing import Any

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import bracket_shelf, plan, rod_shelf, wall
from trade import data, wording
from trade.assess import assess, assess_piece
from trade.check import Check
from trade.errors import PlanError
from trade.marking.marks import piece_marks
from trade.measure import Units
from trade.parse import sketch, spreadsheet
from trade.plan.features import Feature, usual
from trade.plan.model import Wall
from trade.plan.readings import ByHand, Edge, Knock, MagnetHit, Probe, Seen, Sweep
from trade.wall.framing import members
from trade.wall.makeup import guesses
from trade.wall.zones import zones
from trade.wording import phrase

INCH = 25.4
SIZE = (3200.0, 2400.0)


def box(kind: str, left: float, right: float, bottom: float, top: float) -> Feature:
    return Feature(kind=kind, left_mm=left, right_mm=right, bottom_mm=bottom, top_mm=top)


class MadeOf(SimpleTestCase):
    def test_clues_rank_structures(self) -> None:
        for clues, likely in (
            (("box_wood",), "timber"),
            (("dust_red", "hard_all_the_way"), "brick_solid"),
            (("dust_grey", "falls_through"), "block_hollow"),
            (("dust_crumbs",), "aerated_4"),
        ):
            with self.subTest(clues=clues):
                self.assertEqual(guesses(clues)[0].key, likely)
        self.assertTrue(data.structures()[guesses(("magnet_line",))[0].key].kind == "steel")
        self.assertAlmostEqual(
            sum(guess.probability for guess in guesses(("knock_dead", "dust_red"))), 1.0
        )
        self.assertEqual(
            {round(guess.probability, 9) for guess in guesses(())},
            {round(1 / len(data.structures()), 9)},
        )

    def test_clues_name_only_structures_that_there_are(self) -> None:
        for key, clue in data.clues().items():
            self.assertLessEqual(set(clue.speaks), set(data.structures()), key)

    def test_a_structure_that_nobody_knows_is_no_verdict_and_says_what_to_find_out(self) -> None:
        verdict = assess_piece(bracket_shelf(), wall(structure=None))
        self.assertEqual(verdict.outcome, "cannot_tell")
        self.assertTrue(any("studs or masonry" in ask for ask in verdict.unknown), verdict.unknown)
        self.assertFalse(
            any(
                "find one and measure it" in ask
                for ask in assess_piece(bracket_shelf(), wall(structure="concrete")).unknown
            )
        )


class Around(SimpleTestCase):
    def check(self, code: str, *, features: tuple[Feature, ...], **piece: Any) -> Check | None:
        verdict = assess_piece(bracket_shelf(**piece), wall(features=features))
        return next((check for check in verdict.checks if check.code == code), None)

    def test_what_is_in_the_way_is_in_the_way_by_its_trim(self) -> None:
        """Shelf from 700 to 1 700 at 1 500; trim of 57 counts."""
        for left, hits in ((1757.0, False), (1756.0, True), (300.0, True)):
            door = Feature(
                kind="door",
                left_mm=left,
                right_mm=left + 800,
                bottom_mm=0,
                top_mm=2000,
                trim_mm=57.0,
            )
            with self.subTest(left=left):
                found = self.check("piece.obstacle", features=(door,))
                self.assertEqual(found is not None and found.outcome == "doesnt_fit", hits)
        tv = box("tv", 900.0, 1500.0, 1600.0, 2200.0)
        self.assertIsNone(self.check("piece.obstacle", features=(tv,)))
        self.assertIn(
            "runs into a screen",
            wording.phrase(
                self.check("piece.obstacle", features=(tv,), top_mm=1700.0).sentence, "metric"
            ),
        )  # type: ignore[union-attr]

    def test_screws_keep_clear_of_boxes_and_pipes(self) -> None:
        """The screws of the left bracket stand at x = 800 mm; a pipe 28 mm wide asks for 50 mm."""
        for centre, word in ((864.0, "holds"), (863.0, "doesnt_fit"), (800.0, "doesnt_fit")):
            with self.subTest(centre=centre):
                found = self.check("hole.service", features=(usual("pipe", centre, None, SIZE),))
                assert found is not None
                self.assertEqual((found.outcome, found.demand.value), (word, 50.0))
        self.assertIsNone(self.check("hole.service", features=(usual("tv", 3000.0, 2000.0, SIZE),)))

    def test_a_cable_may_run_up_or_down_from_a_box_and_marks_say_so(self) -> None:
        outlet = usual("outlet", 800.0, 300.0, SIZE)
        marks = piece_marks(bracket_shelf(), wall(features=(outlet,)), "metric")
        by_support = [
            any("cable may run" in phrase(c, "metric") for c in mark.cautions) for mark in marks
        ]
        self.assertEqual(by_support, [mark.support == 0 for mark in marks])

    def test_an_old_hole_weakens_the_lining_only(self) -> None:
        hole = usual("hole", 800.0, 1400.0, SIZE)
        self.assertEqual(assess_piece(bracket_shelf(), wall(features=(hole,))).outcome, "holds")
        [zone] = zones(wall(features=(hole,)))
        self.assertEqual((zone.level, zone.right_mm - zone.left_mm), ("take_care", 108.0))

    def test_masonry_has_cables_level_and_along_its_edges_too(self) -> None:
        outlet = usual("outlet", 800.0, 300.0, SIZE)
        timber, brick = (
            zones(wall(features=(outlet,), structure=key)) for key in ("timber", "brick_solid")
        )
        self.assertEqual(len(brick) - len(timber), 4)
        self.assertTrue(any(zone.holds(3100.0, 1000.0) for zone in brick))

    def test_every_kind_of_thing_can_stand_on_a_wall_at_its_usual_place(self) -> None:
        for kind in data.features():
            feature = usual(kind, 1600.0, None, SIZE)
            with self.subTest(kind=kind):
                barred = bool(zones(wall(features=(feature,))))
                self.assertEqual(barred, feature.row.keep != "wood")
                self.assertTrue(
                    0 <= feature.bottom_mm < feature.top_mm <= 2400
                    and 0 <= feature.left_mm < feature.right_mm <= 3200
                )

    def test_a_window_implies_kings_jacks_a_header_and_a_sill(self) -> None:
        window = box("window", 1000.0, 1900.0, 900.0, 2000.0)
        found = members((window,), *SIZE)
        self.assertEqual(
            sorted(m.kind for m in found), ["header", "jack", "jack", "king", "king", "sill"]
        )
        jack = next(m for m in found if m.kind == "jack")
        self.assertEqual((jack.right_mm, jack.top_mm), (968.0, 2032.0))
        self.assertEqual(
            [m.kind for m in members((usual("door", 1600.0, None, SIZE),), *SIZE)].count("sill"), 0
        )

    def test_nonsense_is_refused(self) -> None:
        for bad in (
            (200.0, 100.0, 0.0, 10.0),
            (0.0, 10.0, 5.0, 5.0),
            (-1.0, 10.0, 0.0, 5.0),
            (0.0, float("inf"), 0.0, 5.0),
        ):
            with self.assertRaises(PlanError):
                box("tv", *bad)
        with self.assertRaisesRegex(PlanError, "no thing on a wall"):
            usual("chandelier", 0.0, None, SIZE)
        with self.assertRaisesRegex(PlanError, "beyond the wall"):
            wall(features=(box("tv", 3000.0, 3300.0, 0.0, 10.0),))

    def test_two_kinds_of_shelf_and_everything_on_the_wall_are_still_judged(self) -> None:
        features = tuple(usual(kind, 2900.0, None, SIZE) for kind in data.features())
        self.assertEqual(
            len(assess(plan(bracket_shelf(), rod_shelf(), features=features)).pieces), 2
        )


class Sketched(SimpleTestCase):
    TAPE = (144 * INCH, 96 * INCH)

    def test_typed_along_the_tape(self) -> None:
        said = (
            "16 3/8 stud, 31 7/8, 40 outlet 12 high, 60 to 92 door, 110 window 36 to 72 high; "
            "baseboard 4 high, crown"
        )
        got = sketch.read(said, "imperial", self.TAPE)
        self.assertEqual(got.studs_mm, (415.925, 809.625))
        self.assertEqual(
            [f.kind for f in got.features], ["outlet", "door", "window", "baseboard", "crown"]
        )
        outlet, door, window, baseboard, crown = got.features
        self.assertAlmostEqual(outlet.middle_mm, 12 * INCH)
        self.assertEqual((door.left_mm, door.right_mm, door.bottom_mm), (1524.0, 2336.8, 0.0))
        self.assertEqual((window.bottom_mm, window.top_mm), (36 * INCH, 72 * INCH))
        self.assertEqual((baseboard.right_mm, baseboard.top_mm), (144 * INCH, 4 * INCH))
        self.assertEqual(crown.top_mm, 96 * INCH)

    def test_what_cannot_be_read_is_named(self) -> None:
        for said, words in (
            ("40 outlit", "part 1: Couldn't read"),
            ("16, outlet", "part 2: say where the outlet is"),
            ("300 door", "outside the wall"),
            ("40 outlet 200 high", "higher than the wall"),
            ("5 every 1", "at least 50 mm"),
            ("300", "outside the wall"),
            ("40 to 400 tv", "outside"),
        ):
            with self.subTest(said=said), self.assertRaisesRegex(PlanError, words):
                sketch.read(said, "imperial", self.TAPE)

    @given(
        st.sampled_from(sorted(data.features())),
        st.integers(0, 3600),
        st.integers(0, 2400),
        st.booleans(),
        st.sampled_from(["imperial", "metric"]),
    )
    def test_written_and_read_again_it_is_the_same(
        self, kind: str, x: int, y: int, odd: bool, units: Units
    ) -> None:
        made = usual(kind, float(x), float(y), self.TAPE)
        if odd and made.right_mm - made.left_mm > 20:
            made = Feature(
                kind=kind,
                left_mm=made.left_mm + 7,
                right_mm=made.right_mm - 4,
                bottom_mm=made.bottom_mm,
                top_mm=made.top_mm,
                trim_mm=made.trim_mm,
            )
        [again] = sketch.read(sketch.write([made], units, self.TAPE), units, self.TAPE).features
        for name in ("left_mm", "right_mm", "bottom_mm", "top_mm"):
            self.assertAlmostEqual(getattr(again, name), getattr(made, name), delta=0.5)
        self.assertEqual((again.kind, again.trim_mm), (made.kind, made.trim_mm))


class Sheets(SimpleTestCase):
    READINGS = (
        Sweep(from_mm=0, to_mm=3000, height_mm=1200),
        Edge(at_mm=381.5, side="left", height_mm=1200),
        MagnetHit(at_mm=400, height_mm=900),
        Probe(at_mm=401, met="wood", depth_mm=12.5),
        Probe(at_mm=500, met="air"),
        Knock(at_mm=410, sound="full"),
        Seen(at_mm=800),
        ByHand(at_mm=1200, word="pinned"),
    )

    def refusal(self, text: str | bytes, width: float = 3200.0) -> spreadsheet.RefusedSheetError:
        with self.assertRaises(spreadsheet.RefusedSheetError) as caught:
            spreadsheet.read(text if isinstance(text, bytes) else text.encode(), width)
        return caught.exception

    def test_out_and_in_again(self) -> None:
        self.assertEqual(spreadsheet.read(spreadsheet.write(self.READINGS), 3200.0), self.READINGS)

    def test_as_spreadsheets_write_them(self) -> None:
        got = spreadsheet.read(
            "\ufeffAT_in;Kind;said\r\n16 3/8;magnet;\r\n\r\n32,5;probe;wood\r\n".encode(), 3200.0
        )
        self.assertEqual([r.at_mm for r in got], [415.925, 825.5])  # type: ignore[union-attr]

    def test_rows_are_refused_by_number_and_nothing_is_taken(self) -> None:
        error = self.refusal(
            "kind,at_mm,said\nmagnet,400,\nmagnet,=1+1,\nprobe,12,stone\nedge,99999,left\nbeep,4,\nmagnet,-3,\nsweep,4,\nmagnet,1,2,3\n"
        )
        self.assertEqual([refused.row for refused in error.rows], [3, 4, 5, 6, 7, 8, 9])
        for refused, words in zip(
            error.rows,
            (
                "formula",
                "wood or air",
                "longer than any wall",
                "not a kind",
                "be negative",
                "where it ended",
                "nothing, not",
            ),
            strict=True,
        ):
            self.assertIn(words, refused.words)
        self.assertIn("7 rows can't be read. Nothing was imported", str(error))

    def test_wrong_heads(self) -> None:
        for text, words in (
            ("", "missing: “kind”"),
            ("kind,at\nmagnet,4\n", "“at” is not a known column"),
            ("kind,at_mm,to_in\n", "use one"),
            ("at_mm\n4\n", "“kind”"),
            ("kind,at_mm,at_mm\n", "twice"),
            ("kind,at_mm\n", "no reading"),
            (b"\xff\xfe\x00", "plain text"),
            ('kind,at_mm\n"magnet', "not CSV"),
        ):
            with self.subTest(text=text):
                self.assertIn(words, str(self.refusal(text)))

    def test_a_hundred_thousand_rows_are_refused_at_once(self) -> None:
        self.assertIn(
            "more than 2000 rows", str(self.refusal("kind,at_mm\n" + "magnet,1\n" * 90_000))
        )
        self.assertIn("larger than", str(self.refusal("kind,at_mm\n" + "magnet,400.5\n" * 100_000)))

    def test_nothing_written_is_a_formula(self) -> None:
        cells = spreadsheet.write(self.READINGS).decode().replace("\r\n", ",").split(",")
        self.assertFalse(any(cell.startswith(("=", "+", "-", "@")) for cell in cells))


class Sizes(SimpleTestCase):
    def test_absurd_counts_are_refused(self) -> None:
        tv = box("tv", 0.0, 10.0, 0.0, 10.0)
        with self.assertRaisesRegex(PlanError, "200 things"):
            Wall(width_mm=3000.0, height_mm=2400.0, features=(tv,) * 201)
