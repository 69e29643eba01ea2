"""Texts are English, and can be said in another language."""

import pickle
import re

from django.test import SimpleTestCase

from trade import data
from trade.calculation import Quantity
from trade.check import Message
from trade.language import Figure, compose, counted, in_system, joined, numbered, say, sized, small
from trade.wording import phrase


class German:
    """A language with a catalogue of a few texts, one of them broken."""

    decimal = ","
    catalogue = {
        "Level the {thing}": "{thing!c} ausrichten",
        "shelf": "regal",
        "screw": "schraube",
        "{n} hole": "{n} loch",
        "{n} holes": "{n} löcher",
        "It weighs {kg}.": "Es wiegt {kg}.",
        "broken {part}": "kaputt {teil}",
    }

    def one(self, text: str) -> str:
        return self.catalogue.get(text, text)

    def counted(self, one: str, several: str, count: int) -> str:
        return self.one(one if count == 1 else several)


class Saying(SimpleTestCase):
    def told(self, text: str) -> tuple[str, str]:
        """What a text is in English, and what it is in German."""
        return str(text), say(text, German())

    def test_a_text_is_english_and_its_parts_are_said_in_turn(self) -> None:
        for text, english, german in (
            (compose("Level the {thing}", thing="shelf"), "Level the shelf", "Regal ausrichten"),
            (compose("Level the {thing}", thing="Jo's"), "Level the Jo's", "Jo's ausrichten"),
            (counted(1, "{n} hole", "{n} holes"), "1 hole", "1 loch"),
            (counted(1.5, "{n} hole", "{n} holes"), "1.5 holes", "1,5 löcher"),
            (counted(0, "{n} hole", "{n} holes"), "0 holes", "0 löcher"),
            (numbered(2, "screw"), "2 screws", "2 screws"),
            (joined(["shelf", "screw"], "; "), "shelf; screw", "regal; schraube"),
            (small("Pull of {all}"), "pull of {all}", "pull of {all}"),
            (Figure("2.5 mm"), "2.5 mm", "2,5 mm"),
            (compose("broken {part}", part="shelf"), "broken shelf", "broken shelf"),
            ("", "", ""),
        ):
            self.assertEqual(self.told(text), (english, german))

    def test_a_sentence_takes_units_and_language_apart(self) -> None:
        said = Message("It weighs {kg}.", {"kg": Quantity(2.5, "mass")})
        self.assertEqual(
            self.told(phrase(said, "metric")), ("It weighs 2.5 kg.", "Es wiegt 2,5 kg.")
        )
        self.assertEqual(self.told(phrase(said, "imperial"))[0], "It weighs 5.5 lb.")

    def test_it_outlives_the_way_to_another_process(self) -> None:
        text = compose("Level the {thing}", thing="shelf")
        self.assertEqual(self.told(pickle.loads(pickle.dumps(text))), self.told(text))


class Sizes(SimpleTestCase):
    """What is sold in both systems is read in the person's own first."""

    def test_a_size_is_said_in_ones_own_system_first_wherever_it_stands(self) -> None:
        board = sized("plaster, [3/4 in | 19 mm]")
        self.assertEqual(str(board), "plaster, 3/4 in (19 mm)")
        self.assertEqual(in_system(board, "imperial"), "plaster, 3/4 in (19 mm)")
        self.assertEqual(in_system(board, "metric"), "plaster, 19 mm (3/4 in)")
        inside = counted(2, "{n} layer of {what}", "{n} layers of {what}", what=board)
        self.assertEqual(in_system(inside, "metric"), "2 layers of plaster, 19 mm (3/4 in)")
        sentence = Message("Under {what}.", {"what": small(board)})
        self.assertEqual(phrase(sentence, "metric"), "Under plaster, 19 mm (3/4 in).")
        self.assertEqual(
            say(in_system(sized("tile, [3/8 in | 9.5 mm]"), "metric"), German()),
            "tile, 9,5 mm (3/8 in)",
        )
        kept = pickle.loads(pickle.dumps(board))
        self.assertEqual(in_system(kept, "metric"), "plaster, 19 mm (3/4 in)")
        self.assertIs(in_system("19 mm", "metric"), "19 mm")

    def test_no_name_in_the_tables_has_inches_alone(self) -> None:
        for table in (data.linings, data.anchors, data.brackets, data.plates):
            for key, row in table().items():
                with self.subTest(table=table.__name__, key=key):
                    said = in_system(row.name, "metric")
                    first = re.search(r"\d (in|mm)\b|#\d", said)
                    self.assertTrue(first is None or first[1] == "mm", said)
