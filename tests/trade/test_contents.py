"""Things out of the library, and uses that are refused."""

from django.test import SimpleTestCase

from tests.plans import bracket_shelf, rod_shelf, wall
from trade import data, wording
from trade.assess import assess_piece
from trade.errors import PlanError, UnknownRowError
from trade.load import contents
from trade.load.shelf import ShelfLoad
from trade.mechanics import composite
from trade.mounts import mount_of
from trade.plan.model import Thing


class Library(SimpleTestCase):
    def test_so_much_of_something(self) -> None:
        """Two feet of books at 30 kg a metre: 18.29 kg; a dozen plates of 0.75; five litres."""
        books = contents.thing("books", 609.6, "imperial")
        self.assertEqual((books.name, books.mass_kg), ('Books, mixed, 24"', 18.29))
        self.assertEqual(contents.thing("plates", 12, "metric").mass_kg, 9.0)
        self.assertEqual(contents.thing("water", 5, "metric").name, "Water and drinks, 5 l")
        with self.assertRaises(UnknownRowError):
            contents.thing("gold", 1, "metric")
        with self.assertRaises(PlanError):
            contents.thing("water", 1e7, "metric")

    def test_a_shelf_of_books_weighs_what_libraries_reckon(self) -> None:
        """Common practice, no source.

        20 to 25 lb for a foot of mixed books, 25 to 35 of reference books.
        """
        per_foot = {
            key: data.contents()[key].kg * 0.3048 / 0.45359237
            for key in ("books", "reference", "paperbacks")
        }
        self.assertTrue(
            18 <= per_foot["books"] <= 25
            and 25 <= per_foot["reference"] <= 35
            and per_foot["paperbacks"] < 18,
            per_foot,
        )

    def test_wet_soil_is_heavier_than_dry(self) -> None:
        self.assertGreater(
            data.contents()["plant_medium"].kg, 1.5 * data.contents()["plant_medium_dry"].kg
        )


class Refused(SimpleTestCase):
    def test_lives_are_not_hung_here(self) -> None:
        for name, thing in (
            ("Grab bar", "Towel"),
            ("Rail", "Baby swing"),
            ("Shelf over the crib", "Books"),
            ("Board", "Hangboard"),
        ):
            with self.subTest(name=name, thing=thing):
                verdict = assess_piece(
                    bracket_shelf(name=name, things=(Thing(name=thing, mass_kg=0.1),)), wall()
                )
                self.assertEqual(
                    (verdict.outcome, verdict.governing.code), ("wont_hold", "use.refused")
                )
                self.assertIn("is not planned here", wording.headline(verdict, "metric"))

    def test_ordinary_words_are_not_taken_for_them(self) -> None:
        for name in ("Gymnastics books", "Swinging sixties", "Barometer"):
            with self.subTest(name=name):
                codes = [
                    check.code for check in assess_piece(bracket_shelf(name=name), wall()).checks
                ]
                self.assertNotIn("use.refused", codes)


class Boards(SimpleTestCase):
    def test_steel_is_heavy_and_stiff(self) -> None:
        """A plate of 3/16 in weighs 7.66 lb a square foot (handbook value).

        Flat, 5 mm of it sag over 800 mm and not over 400.
        """
        row = data.boards()["steel_sheet"]
        self.assertAlmostEqual(
            row.density_kg_m3 * 4.7625e-3 / 0.45359237 * 0.3048**2, 7.66, delta=0.01
        )
        self.assertEqual((row.bending_mpa(0.9), row.bending_mpa(1.6)), (141, 141))
        wide = bracket_shelf(board="steel_sheet", thickness_mm=5.0)
        self.assertEqual(
            assess_piece(wide, wall()).governing.code, "sag.now"
        )  # steel does not creep
        plate = bracket_shelf(
            board="steel_sheet", thickness_mm=5.0, supports_mm=(100.0, 500.0, 900.0)
        )
        self.assertEqual(assess_piece(plate, wall()).outcome, "holds")
        sags = [
            next(
                check.demand.value
                for check in assess_piece(piece, wall()).checks
                if check.code == "sag.long_term"
            )
            for piece in (plate, bracket_shelf(board="steel_sheet", thickness_mm=3.0))
        ]
        self.assertLess(sags[0], sags[1])

    def test_a_fold_stiffens_a_sheet(self) -> None:
        """250 × 5 mm: 250·5³/12 = 2 604 mm⁴; a fold of 30 mm adds 5·30³/12 = 11 250.

        5.32 times as stiff, and 1.18 kg more.
        """
        flat = ShelfLoad(bracket_shelf(board="steel_sheet", thickness_mm=5.0), 0.0, 0.0)
        folded = ShelfLoad(
            bracket_shelf(board="steel_sheet", thickness_mm=5.0, stiffener_mm=30.0), 0.0, 0.0
        )
        self.assertAlmostEqual(
            composite.ei_nmm2(folded.bent) / composite.ei_nmm2(flat.bent),
            13_854.2 / 2_604.2,
            places=3,
        )
        self.assertAlmostEqual((folded.own_n - flat.own_n) / 9.80665, 1.1775, places=4)
        self.assertEqual(
            assess_piece(
                bracket_shelf(board="steel_sheet", thickness_mm=5.0, stiffener_mm=30.0), wall()
            ).outcome,
            "holds",
        )

    def test_what_stiffens_a_front_bends_as_what_it_is_of(self) -> None:
        """Sheet 250 × 5: 200 000 · 2 604.

        Under it 40 high: pine 19 wide, 8 500 · 101 333; tube 25 wide, 2 thick, (25·40³ − 21·36³)/12
        = 51 685; its fold 5 wide, 26 667; a second sheet, 250 wide, 5 high, as much again, and
        neither glued.
        """
        sheet = {"board": "steel_sheet", "thickness_mm": 5.0}
        bare = composite.ei_nmm2(ShelfLoad(bracket_shelf(**sheet), 0.0, 0.0).bent)
        pine = data.boards()["pine_white"].e_mpa
        for kind, high, adds in (
            ("strip", 40.0, pine * 101_333.3),
            ("tube", 40.0, 200_000 * 51_685.3),
            ("fold", 40.0, 200_000 * 26_666.7),
            ("usual", 40.0, 200_000 * 26_666.7),
            ("second", 5.0, bare),
        ):
            with self.subTest(kind=kind):
                made = ShelfLoad(
                    bracket_shelf(**sheet, stiffener=kind, stiffener_mm=high), 0.0, 0.0
                )
                self.assertAlmostEqual(composite.ei_nmm2(made.bent) / (bare + adds), 1.0, places=5)
        with_tube = bracket_shelf(**sheet, stiffener="tube", stiffener_mm=40.0)
        self.assertIn(
            "front tube", [part.name for part in mount_of(with_tube).parts(with_tube, wall())]
        )
        bent = next(
            c
            for c in assess_piece(
                bracket_shelf(**sheet, stiffener="strip", stiffener_mm=90.0), wall()
            ).checks
            if c.code == "board.bending"
        )
        self.assertIn("strip under its front edge uses", wording.phrase(bent.sentence, "metric"))

    def test_glass_is_not_trusted(self) -> None:
        verdict = assess_piece(bracket_shelf(board="glass", things=()), wall())
        self.assertEqual((verdict.outcome, verdict.governing.code), ("wont_hold", "board.never"))
        self.assertIn("without warning", wording.headline(verdict, "metric"))

    def test_wood_where_something_is_let_into_it(self) -> None:
        for board in ("glass", "steel_sheet"):
            with self.subTest(board=board), self.assertRaisesRegex(PlanError, "needs wood"):
                rod_shelf(board=board)
