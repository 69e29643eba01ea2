"""Lengths and weights, in and out."""

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from trade.choose.request import amount_of
from trade.errors import MeasureError
from trade.measure import (
    read_force,
    read_length,
    read_weight,
    say_bit,
    say_fine_length,
    say_length,
    say_weight,
    type_length,
    type_weight,
)

INCH = 25.4
LENGTHS = [
    ("5' 4 3/8\"", 64.375 * INCH),
    ("64 3/8 in", 64.375 * INCH),
    ("5 ft 4", 64 * INCH),
    ("64.375in", 64.375 * INCH),
    ("5'4", 64 * INCH),
    ("5’ 4⅜”", 64.375 * INCH),
    ('64-3/8"', 64.375 * INCH),
    ("1/2 in", 0.5 * INCH),
    ("3½″", 3.5 * INCH),
    ("6 feet", 72 * INCH),
    ("162 cm", 1620.0),
    ("1.62 m", 1620.0),
    ("1,62 m", 1620.0),
    ("1620 mm", 1620.0),
    ("1 620 mm", 1620.0),
    ("1 m 62", 1620.0),
    ("16″", 16 * INCH),
]
REFUSED = [
    "",
    "  ",
    "tall",
    "-5",
    "−5",
    "5 foo",
    "1/0",
    "5 4",
    "4 5 6",
    "nan",
    "inf",
    "1e9",
    "1,620",
    "4 in 5 ft",
    "31 m",
    "9" * 80,
    "5''5''",
    "½½",
]


class Reading(SimpleTestCase):
    def test_what_people_say_means_the_same_in_either_units(self) -> None:
        for text, mm in LENGTHS:
            with self.subTest(text=text):
                self.assertAlmostEqual(read_length(text, "imperial"), mm, places=9)
                self.assertAlmostEqual(read_length(text, "metric"), mm, places=9)

    def test_a_bare_number_is_in_the_persons_units(self) -> None:
        self.assertEqual(read_length("1620", "metric"), 1620.0)
        self.assertAlmostEqual(read_length("16", "imperial"), 16 * INCH)
        self.assertAlmostEqual(read_length("64-3/8", "imperial"), 64.375 * INCH)

    def test_a_bare_fraction_is_asked_back_where_lengths_are_millimetres(self) -> None:
        for text in ("1/2", "64 3/8", "½"):
            with self.subTest(text=text), self.assertRaisesRegex(MeasureError, f"{text} in, or"):
                read_length(text, "metric")
        self.assertEqual(read_length("1/2 in", "metric"), 12.7)

    def test_nonsense_is_refused_with_what_was_read(self) -> None:
        for text in REFUSED:
            with self.subTest(text=text), self.assertRaises(MeasureError) as caught:
                read_length(text, "imperial")
            self.assertEqual(caught.exception.read, text)
            self.assertGreater(len(str(caught.exception)), 20)

    def test_weights(self) -> None:
        pound = 0.45359237
        for text, kg in (
            ("12 lb", 12 * pound),
            ("12lb 4oz", 12.25 * pound),
            ("5.5 kg", 5.5),
            ("500 g", 0.5),
            ("2 1/2 lb", 2.5 * pound),
        ):
            with self.subTest(text=text):
                self.assertAlmostEqual(read_weight(text, "metric"), kg, places=9)
        self.assertEqual(read_weight("3", "metric"), 3.0)
        with self.assertRaises(MeasureError):
            read_weight("5001 kg", "metric")

    def test_what_a_packet_states_is_never_guessed(self) -> None:
        for text, force_n in (
            ("0.35 kN", 350.0),
            ("350 N", 350.0),
            ("80 lb", 80 * 0.45359237 * 9.80665),
            ("36 kg", 36 * 9.80665),
        ):
            with self.subTest(text=text):
                self.assertAlmostEqual(read_force(text), force_n, places=9)
        for text in ("300", "1/2", "300 mm"):
            with self.subTest(text=text), self.assertRaises(MeasureError):
                read_force(text)

    def test_an_amount_is_read_in_the_unit_shown_or_asked_back(self) -> None:
        self.assertAlmostEqual(amount_of("hand_tools", "12", "imperial", "length"), 12 * INCH)
        self.assertEqual(amount_of("cabinet", "30", "metric", "weight"), 30.0)
        self.assertEqual(amount_of("plates", "12", "imperial"), 12.0)
        for what, units, shown, asked in (
            ("hand_tools", "imperial", "", "12 in or 12 ft"),
            ("hand_tools", "metric", "weight", "12 mm or 12 cm"),
            ("cabinet", "imperial", "length", "12 lb or 12 kg"),
        ):
            with self.subTest(what=what, units=units), self.assertRaises(MeasureError) as caught:
                amount_of(what, "12", units, shown)
            self.assertIn(asked, str(caught.exception))

    @given(st.text(max_size=40))
    def test_any_text_is_read_or_refused(self, text: str) -> None:
        for reader in (read_length, read_weight):
            try:
                self.assertGreaterEqual(reader(text, "imperial"), 0.0)
            except MeasureError:
                continue


class RoundTrips(SimpleTestCase):
    @given(st.integers(0, 75_000))
    def test_sixty_fourths_of_an_inch_are_exact(self, parts: int) -> None:
        mm = parts * 254 / 640
        self.assertEqual(
            round(read_length(say_length(mm, "imperial", 64), "metric") / 254 * 640), parts
        )
        self.assertEqual(
            read_length(type_length(mm, "imperial"), "imperial"),
            read_length(say_length(mm, "imperial", 64), "imperial"),
        )

    @given(st.integers(0, 300_000))
    def test_tenths_of_a_millimetre_are_exact(self, tenths: int) -> None:
        self.assertEqual(
            round(read_length(type_length(tenths / 10, "metric"), "imperial") * 10), tenths
        )

    @given(st.integers(0, 100_000))
    def test_hundredths_of_a_weight(self, hundredths: int) -> None:
        kg = hundredths / 100
        self.assertAlmostEqual(read_weight(type_weight(kg, "metric"), "imperial"), kg, places=6)
        self.assertAlmostEqual(
            read_weight(type_weight(kg, "imperial"), "metric"), kg, delta=0.0051 * 0.4536
        )


class Saying(SimpleTestCase):
    def test_lengths(self) -> None:
        for mm, said in (
            (64.375 * INCH, '64 3/8"'),
            (96 * INCH, '96"'),
            (97 * INCH, "8' 1\""),
            (108 * INCH, "9'"),
            (0.5 * INCH, '1/2"'),
            (0, '0"'),
        ):
            self.assertEqual(say_length(mm, "imperial"), said)
        self.assertEqual(say_length(-1620.4, "metric"), "−1620 mm")
        self.assertEqual(say_length(-0.2, "metric"), "0 mm")

    def test_small_ones(self) -> None:
        self.assertEqual(say_fine_length(0.01, "metric"), "under 0.1 mm")
        self.assertEqual(say_fine_length(2.54, "imperial"), "0.10 in")
        self.assertEqual(
            (say_bit(3.0, "metric"), say_bit(2.5, "metric"), say_bit(7 * INCH / 64, "imperial")),
            ("3 mm", "2.5 mm", '7/64"'),
        )

    def test_weights(self) -> None:
        self.assertEqual(
            (say_weight(12.25, "metric"), say_weight(3.3, "metric"), say_weight(3.0, "metric")),
            ("12 kg", "3.3 kg", "3 kg"),
        )
