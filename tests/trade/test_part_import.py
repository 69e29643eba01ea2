"""Parts from elsewhere: tables and drawings come in whole or not at all, with the reason."""

import io
from typing import Any

from django.test import SimpleTestCase
from ezdxf.filemanagement import new
from hypothesis import given, settings
from hypothesis import strategies as st

from trade.cutting.part_import import MAX_BYTES, read_dxf, read_table
from trade.parse.spreadsheet import RefusedSheetError

HEAD = "name,board,length,width,thickness,many,turns\n"


def drawn(*rings: list[tuple[float, float]], closed: bool = True, units: int = 4) -> bytes:
    doc = new("R2010")
    doc.units = units
    for ring in rings:
        doc.modelspace().add_lwpolyline(ring, close=closed)
    doc.modelspace().add_circle((0, 0), 5)
    out = io.StringIO()
    doc.write(out)
    return out.getvalue().encode()


def ring(wide: float, high: float) -> list[tuple[float, float]]:
    return [(10, 20), (10 + wide, 20), (10 + wide, 20 + high), (10, 20 + high)]


WHOLE = drawn(ring(600, 300))  # once: each drawing carries its own time and name


class Tables(SimpleTestCase):
    def test_lengths_are_read_as_people_write_them(self) -> None:
        for units, said in (
            ("metric", "500;400;12"),
            ("imperial", "500 mm;15 3/4;12 mm"),
            ("metric", '19 11/16";0.4 m;1.2 cm'),
        ):
            raw = (
                "name;board;length;width;thickness;many;turns\nBottom;softwood "
                f"plywood;{said};3;yes\n".encode()
            )
            [part] = read_table(raw, units)  # type: ignore[arg-type]
            self.assertEqual(
                (part.name, part.board, part.many, part.turns), ("Bottom", "plywood", 3, True)
            )
            self.assertAlmostEqual(part.length_mm, 500, delta=0.1)
            self.assertAlmostEqual(part.width_mm, 400, delta=0.1)
            self.assertAlmostEqual(part.thickness_mm, 12, delta=0.1)

    def test_what_is_wrong_is_named_by_its_row_and_nothing_is_taken(self) -> None:
        for rows, said in (
            ("a,plywood,500,400,12,1,no\nb,cheese,5,4,1,1,no\n", "“cheese” is not a known board"),
            ("a,plywood,,400,12,,\n", "column length is empty"),
            ("a,plywood,long,400,12,,\n", "long"),
            ("a,plywood,500,400,12,some,\n", "not a whole number"),
            ("a,plywood,500,400,12,1,perhaps\n", "must be yes or no"),
            ("=1+1,plywood,500,400,12,,\n", "formula"),
            ("a,plywood,500,400,12,0,\n", "between 1 and"),
            ("a,plywood,500,9000,12,,\n", "width"),
        ):
            with (
                self.subTest(rows),
                self.assertRaisesRegex(RefusedSheetError, "Nothing was imported") as caught,
            ):
                read_table((HEAD + rows).encode(), "metric")
            self.assertRegex(" ".join(each.words for each in caught.exception.rows), said)
        for raw, said in (
            (b"", "column is missing"),
            (b"\xff\xfe\x00", "plain text"),
            (b"%PDF-1.7\x00", "plain text"),
            (b"name,name\n", "twice|no column"),
            (b"what\n", "not a known column"),
            (HEAD.encode(), "no part"),
            (HEAD.encode() + b"a,plywood,500,400,12,,\n" * 201, "more than 200"),
            (b"x" * (MAX_BYTES + 1), "larger"),
            (b'name,board,length,width,thickness\n"a,plywood\n', "not CSV|can't be read"),
        ):
            with self.subTest(raw[:20]), self.assertRaisesRegex(RefusedSheetError, said):
                read_table(raw, "metric")


class Drawings(SimpleTestCase):
    def test_closed_rectangles_are_parts_however_they_lie(self) -> None:
        """By hand.

        Two of 600 × 300, one of them standing; one of 200 × 200 turned by 45 degrees; a circle is
        left out.
        """
        turned = [(0.0, 0.0), (141.42136, 141.42136), (0.0, 282.84271), (-141.42136, 141.42136)]
        found = read_dxf(drawn(ring(600, 300), ring(300, 600), turned), "plywood", 12.0, "metric")
        self.assertEqual(
            [(p.length_mm, p.width_mm, p.many) for p in found.parts],
            [(600.0, 300.0, 2), (200.0, 200.0, 1)],
        )
        self.assertEqual((found.others, found.parts[0].thickness_mm), (1, 12.0))

    def test_the_drawings_own_units_count_and_the_walls_where_it_has_none(self) -> None:
        for code, units, mm in (
            (1, "metric", 254.0),
            (5, "metric", 100.0),
            (0, "imperial", 254.0),
            (0, "metric", 10.0),
        ):
            [part] = read_dxf(drawn(ring(10, 10), units=code), "plywood", 12.0, units).parts  # type: ignore[arg-type]
            self.assertAlmostEqual(part.length_mm, mm, places=6)

    def test_anything_else_is_refused_with_its_reason(self) -> None:
        slanting = [(0.0, 0.0), (100.0, 0.0), (120.0, 50.0), (20.0, 50.0)]
        good = drawn(ring(600, 300))
        for raw, said in (
            (drawn(slanting), "no closed rectangle"),
            (drawn(ring(5, 5), closed=False), "no closed rectangle"),
            (drawn(ring(40_000, 9)), "Nothing was imported"),
            (b"PK\x03\x04", "not a DXF"),
            (b"hello", "not a DXF"),
            (good[: len(good) // 2], "not a DXF"),
            (b"x" * (MAX_BYTES + 1), "larger"),
            (
                b"  0\nSECTION\n  2\nENTITIES\n  0\nLINE\n 10\nabc\n  0\nENDSEC\n  0\nEOF\n",
                "not a DXF|no closed",
            ),
        ):
            with self.subTest(raw[:30]), self.assertRaisesRegex(RefusedSheetError, said):
                read_dxf(raw, "plywood", 12.0, "metric")

    @settings(max_examples=40)
    @given(st.data())
    def test_a_spoiled_drawing_never_ends_in_anything_but_a_refusal(self, data: Any) -> None:
        raw = bytearray(WHOLE)
        for _ in range(data.draw(st.integers(1, 6))):
            raw[data.draw(st.integers(0, len(raw) - 1))] = data.draw(st.integers(0, 255))
        try:
            read_dxf(bytes(raw), "plywood", 12.0, "metric")
        except RefusedSheetError as error:
            self.assertTrue(str(error).endswith("."))
