"""Texts are English, and can be said in another language."""

import pickle

from django.test import SimpleTestCase

from trade.calculation import Quantity
from trade.check import Message
from trade.language import Figure, compose, counted, joined, numbered, say, small
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
