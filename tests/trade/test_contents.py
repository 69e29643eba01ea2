"""Things out of the library, and uses that are refused."""

from django.test import SimpleTestCase

from tests.plans import bracket_shelf, wall
from trade import data, say
from trade.assess import assess_piece
from trade.errors import PlanError, UnknownRowError
from trade.load import contents
from trade.plan import Thing


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
        """Common practice, no source: 20 to 25 lb for a foot of mixed books, 25 to 35 of reference books."""
        per_foot = {key: data.contents()[key].kg * 0.3048 / 0.45359237 for key in ("books", "reference", "paperbacks")}
        self.assertTrue(
            18 <= per_foot["books"] <= 25 and 25 <= per_foot["reference"] <= 35 and per_foot["paperbacks"] < 18, per_foot
        )

    def test_wet_soil_is_heavier_than_dry(self) -> None:
        self.assertGreater(data.contents()["plant_medium"].kg, 1.5 * data.contents()["plant_medium_dry"].kg)


class Refused(SimpleTestCase):
    def test_lives_are_not_hung_here(self) -> None:
        for name, thing in (
            ("Grab bar", "Towel"),
            ("Rail", "Baby swing"),
            ("Shelf over the bed", "Books"),
            ("Board", "Hangboard"),
        ):
            with self.subTest(name=name, thing=thing):
                verdict = assess_piece(bracket_shelf(name=name, things=(Thing(name=thing, mass_kg=0.1),)), wall())
                self.assertEqual((verdict.word, verdict.governing.code), ("wont_hold", "use.refused"))
                self.assertIn("is not planned here", say.headline(verdict, "metric"))

    def test_ordinary_words_are_not_taken_for_them(self) -> None:
        for name in ("Gymnastics books", "Swinging sixties", "Barometer"):
            with self.subTest(name=name):
                codes = [check.code for check in assess_piece(bracket_shelf(name=name), wall()).checks]
                self.assertNotIn("use.refused", codes)
