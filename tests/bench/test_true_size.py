"""Templates and story sticks at true size.

PDF, SVG and DXF are measured and hold the plan's own holes.
"""

import io
import re
from itertools import pairwise
from typing import Any

import pdfplumber
from django.test import SimpleTestCase
from django.urls import reverse
from ezdxf.filemanagement import read
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from bench.models import Wall
from bench.printing import true_size
from tests.bench.test_workbench import BenchCase
from tests.plans import bracket_shelf, plan, rod_shelf, wall
from tests.trade.test_every_kind import put_up
from trade.errors import PlanError
from trade.marking.marks import piece_marks
from trade.marking.reading import read as from_datum
from trade.marking.reading import say_across, say_datum, say_up
from trade.marking.spread import spread
from trade.marking.template import edge, sticks, template
from trade.mounts import KINDS
from trade.plan.datum import Datum
from trade.plan.model import Plan, Thing

MM = 25.4 / 72
TOLERANCE_MM = 0.1


def holes_of(piece: Any, on: Plan) -> list[tuple[float, float]]:
    return sorted(
        (mark.x_mm, mark.y_mm)
        for mark in piece_marks(piece, on.wall, "metric")
        if mark.where == "wall"
    )


class AtTrueSize(SimpleTestCase):
    def near(
        self, found: list[tuple[float, float]], wanted: list[tuple[float, float]], msg: str
    ) -> None:
        self.assertEqual(len(found), len(wanted), msg)
        for (x, y), (wx, wy) in zip(sorted(found), sorted(wanted), strict=True):
            self.assertAlmostEqual(x, wx, delta=TOLERANCE_MM, msg=msg)
            self.assertAlmostEqual(y, wy, delta=TOLERANCE_MM, msg=msg)

    def test_paper_holds_every_hole_within_a_tenth_and_its_check_lines_are_exact(self) -> None:
        """Measured by a PDF library that knows nothing of ours, on both papers.

        Sheets laid on one another by their places.
        """
        for piece, units in (
            (bracket_shelf(), "metric"),
            (bracket_shelf(), "imperial"),
            (rod_shelf(), "metric"),
            (put_up("rail", wall()), "imperial"),
        ):
            drawing = template(piece, plan(piece), "metric")
            sheets = true_size.tiles(drawing, *true_size.room(units, drawing.wide > drawing.high))  # type: ignore[arg-type]
            with pdfplumber.open(io.BytesIO(true_size.pdf([drawing], units))) as paper:  # type: ignore[arg-type]
                self.assertEqual(len(paper.pages), len(sheets))
                found: set[tuple[float, float]] = set()
                for page, sheet in zip(paper.pages, sheets, strict=True):
                    foot = float(page.height) - (true_size._MARGIN_MM + true_size._FOOT_MM) / MM
                    for curve in page.curves:
                        if (
                            abs(curve["x1"] - curve["x0"]) * MM < 2.9
                            or abs(curve["x1"] - curve["x0"]) * MM > 3.1
                        ):  # not a registration mark
                            x = (
                                (curve["x0"] + curve["x1"]) / 2 * MM
                                - true_size._MARGIN_MM
                                + sheet.left
                            )
                            y = (foot - (curve["top"] + curve["bottom"]) / 2) * MM + sheet.bottom
                            found.add((round(x, 1), round(y, 1)))
                    level = [
                        line for line in page.lines if abs(line["top"] - line["bottom"]) < 0.01
                    ]
                    lengths = sorted(
                        (line["x1"] - line["x0"]) * MM for line in level if line["top"] > foot + 20
                    )
                    checks = [length for length in lengths if 90 < length < 110]
                    self.assertEqual(len(checks), 2)
                    self.assertAlmostEqual(
                        checks[0], 100.0, delta=0.01
                    )  # the file rounds to a hundredth of a point
                    self.assertAlmostEqual(checks[1], 101.6, delta=0.01)
            self.near(_merged(found), holes_of(piece, plan(piece)), piece.name)

    def test_the_exchange_file_audits_clean_and_reads_back_the_same_holes_for_every_kind(
        self,
    ) -> None:
        for kind in KINDS:
            with self.subTest(kind=kind):
                piece = put_up(kind, wall(), things=(Thing(name="Load", mass_kg=3.0),))
                raw = true_size.dxf(template(piece, plan(piece), "metric"))
                doc = read(io.StringIO(raw.decode()))
                self.assertEqual(len(doc.audit().errors), 0)
                self.assertEqual(doc.units, 4)  # millimetres
                circles = [
                    circle.dxf.center for circle in doc.modelspace().query('CIRCLE[layer=="HOLES"]')
                ]
                self.near([(c.x, c.y) for c in circles], holes_of(piece, plan(piece)), kind)

    def test_the_drawing_for_the_screen_agrees(self) -> None:
        piece = bracket_shelf()
        drawing = template(piece, plan(piece), "metric")
        said = true_size.svg(drawing)
        circles = re.findall(r'<circle cx="([\d.]+)" cy="([\d.]+)" r="([\d.]+)"', said)
        self.near(
            [(float(x) + drawing.left, drawing.top - float(y)) for x, y, _ in circles],
            holes_of(piece, plan(piece)),
            "svg",
        )
        wide, high = re.findall(
            r'width="([\d.]+)mm" height="([\d.]+)mm" viewBox="0 0 ([\d.]+) ([\d.]+)"', said
        )[0][:2]
        self.assertAlmostEqual(float(wide), drawing.wide, delta=0.01)
        self.assertAlmostEqual(float(high), drawing.high, delta=0.01)

    def test_sheets_cover_all_of_it_and_overlap(self) -> None:
        drawing = template(bracket_shelf(), plan(), "metric")
        sheets = true_size.tiles(drawing, 186.0, 250.0)
        row = [sheet for sheet in sheets if sheet.row == 0]
        self.assertTrue(all(abs(b.left - a.left - 176.0) < 1e-9 for a, b in pairwise(row)))
        self.assertGreaterEqual(row[-1].left + 186.0, drawing.right - 1e-9)
        self.assertLessEqual(min(sheet.bottom for sheet in sheets), drawing.bottom + 1e-9)

    def test_sticks_carry_every_column_and_row_of_holes(self) -> None:
        piece = bracket_shelf()
        across, up = sticks(piece, plan(piece), "metric")
        ticks = {round(line.x1, 3) for line in across.lines if line.layer == "CENTRES"}
        self.assertEqual(ticks, {0.0, 700.0, 800.0, 1600.0, 1700.0})
        ticks = {round(line.x1, 3) for line in up.lines if line.layer == "CENTRES"}
        self.assertEqual(
            ticks, {0.0, 1480.0, 1500.0, *(round(y, 3) for _, y in holes_of(piece, plan(piece)))}
        )
        self.assertIn("holes 1, 2, 3, 4: 800 mm", [text.words for text in across.texts])

    def test_the_back_of_a_piece_mirrors_its_rods_and_is_bored_wider_for_more_than_two(
        self,
    ) -> None:
        two = rod_shelf()
        three = replace(two, supports_mm=(100.0, 500.0, 900.0))
        for piece, bit in ((two, 16.0), (three, 18.0)):
            drawing = edge(piece, plan(piece), "metric")
            assert drawing is not None
            self.near(
                [(c.x, c.y) for c in drawing.circles],
                [(1000.0 - x, 47.5) for x in piece.supports_mm],
                "back",
            )
            self.assertEqual({c.diameter for c in drawing.circles}, {bit})
            at_the_wall = sorted(x for x, _ in set(holes_of(piece, plan(piece))))
            self.assertEqual(
                sorted({round(1000.0 - c.x + piece.left_mm, 3) for c in drawing.circles}),
                sorted({round(x, 3) for x in at_the_wall}),
            )
        self.assertIsNone(edge(bracket_shelf(), plan(), "metric"))


def _merged(found: set[tuple[float, float]]) -> list[tuple[float, float]]:
    """Holes that lie in the overlap of two sheets, once."""
    kept: list[tuple[float, float]] = []
    for x, y in sorted(found):
        if all(abs(x - a) > 0.3 or abs(y - b) > 0.3 for a, b in kept):
            kept.append((x, y))
    return kept


class FromADatum(SimpleTestCase):
    def test_read_from_each_datum_by_hand(self) -> None:
        piece, on = bracket_shelf(), wall()
        for datum, across, up, said in (
            (Datum(), "800 mm", "1200 mm", "From the left corner, and up from the floor."),
            (Datum(across="right"), "2400 mm", "1200 mm", "From the right corner"),
            (
                Datum(across="middle", line_mm=1000.0),
                "400 mm left",
                "200 mm up",
                "from a level line 1000 mm above the floor",
            ),
            (
                Datum(across="stud", stud_mm=400.0, line_mm=1300.0),
                "400 mm right",
                "100 mm down",
                "the stud at 400 mm",
            ),
        ):
            found = from_datum(datum, piece, on, 800.0, 1200.0)
            self.assertEqual(
                (say_across(found, datum, "metric"), say_up(found, datum, "metric")), (across, up)
            )
            self.assertIn(said, say_datum(datum, "metric"))
        for nonsense in ({"across": "stud"}, {"stud_mm": 5.0}, {"line_mm": -3.0}):
            with self.assertRaises(PlanError):
                Datum(**nonsense)


class OnTheBench(BenchCase):
    def test_each_format_is_served_and_nonsense_is_not(self) -> None:
        for what, kind, begins in (
            ("template", "pdf", b"%PDF"),
            ("template", "svg", b"<svg"),
            ("template", "dxf", b"  0\nSECTION"),
            ("sticks", "pdf", b"%PDF"),
            ("up", "svg", b"<svg"),
        ):
            answer = self.client.get(self.url("mark:drawn", "shelf", what, kind))
            self.assertTrue(answer.content.startswith(begins), (what, kind))
        for what, kind in (("template", "exe"), ("wall", "pdf"), ("sticks", "svg")):
            self.assertEqual(
                self.client.get(self.url("mark:drawn", "shelf", what, kind)).status_code, 404
            )

    def test_the_list_follows_the_datum_and_the_holes_stay(self) -> None:
        self.assertContains(
            self.client.get(self.url("stage", "mark") + "?piece=shelf"), "<td>800 mm</td>"
        )
        answer = self.post("mark:datum", piece="shelf", stage="mark", across="right", line="1 m")
        self.assertContains(answer, "<td>2400 mm</td>")
        self.assertContains(answer, "from a level line 1000 mm above the floor")
        self.assertEqual(
            self.plan(),
            replace(
                plan(bracket_shelf(), rod_shelf()), datum=Datum(across="right", line_mm=1000.0)
            ),
        )
        self.assertContains(
            self.post("mark:datum", piece="shelf", stage="mark", across="left", line="high"),
            "high",
            status_code=422,
        )
        self.assertEqual(
            self.post(
                "mark:datum", piece="shelf", stage="mark", across="left", line="90 m"
            ).status_code,
            422,
        )


class Dimensions(SimpleTestCase):
    @settings(max_examples=200)
    @given(st.lists(st.tuples(st.floats(0, 700), st.floats(5, 60)), min_size=1, max_size=10))
    def test_words_keep_their_order_and_never_lie_on_one_another(
        self, given: list[tuple[float, float]]
    ) -> None:
        ranked = sorted(given)
        places, sizes = [place for place, _ in ranked], [size for _, size in ranked]
        found = spread(places, sizes, 0.0, 800.0)
        for (a, size_a), (b, size_b) in pairwise(zip(found, sizes, strict=True)):
            self.assertGreaterEqual(b - size_b / 2, a + size_a / 2 - 1e-6)
        self.assertGreaterEqual(found[0] - sizes[0] / 2, -1e-6)

    def test_what_has_room_stays_where_it_is(self) -> None:
        self.assertEqual(spread([100.0, 300.0], [40.0, 40.0], 0.0, 800.0), [100.0, 300.0])
        self.assertEqual(spread([100.0, 110.0], [40.0, 40.0], 0.0, 800.0), [85.0, 125.0])


class Warned(BenchCase):
    def test_a_drawing_of_what_wont_hold_says_so_first(self) -> None:
        off = Wall.begin(self.job, plan(bracket_shelf(left_mm=850.0)), "Begin")
        for row, warned in ((off, True), (self.wall, False)):
            svg = self.client.get(
                reverse("mark:drawn", args=[row.pk, "shelf", "template", "svg"])
            ).content.decode()
            self.assertEqual("don&#x27;t drill yet" in svg or "don't drill yet" in svg, warned)
