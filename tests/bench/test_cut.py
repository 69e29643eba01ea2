"""The Cut stage over the test client.

The saw, what was measured, the yard and its rack, prices, days; every file opened and measured.
"""

import csv
import io
import re
from itertools import combinations
from typing import Any
from xml.etree import ElementTree

import pdfplumber
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import SimpleTestCase
from django.urls import reverse
from ezdxf.filemanagement import read
from icalendar import Calendar
from msgspec.structs import replace
from odfdo import Document
from shapely import box

from bench.drawing.exploded import exploded, taken_apart
from bench.models import Job, Offcut, Wall
from bench.printing.labels import labels_sheet
from bench.printing.saw import saw_sheet
from bench.printing.shop_sheet import shop_sheet
from bench.printing.wall_sheet import wall_sheet
from tests.bench.test_true_size import MM, holes_of
from tests.bench.test_workbench import BenchCase, seen
from tests.plans import bracket_shelf, plan, wall
from tests.trade.test_every_kind import put_up
from tests.trade.test_part_import import drawn, ring
from trade.assess import assess
from trade.cutting.parts import labelled
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.marking.overview import close_up, overview, scale_for
from trade.plan.features import Feature
from trade.plan.model import Plan, Shop, Thing
from trade.plan.shop import Finish, Have, Measured, OwnPart

ARM_PT = 10.0  # common practice, no source: smaller letters are not read at arm's length


def panel() -> Plan:
    return plan(put_up("panel", wall(), things=(Thing(name="Keys", mass_kg=2.0),)))


def text_of(raw: bytes) -> str:
    with pdfplumber.open(io.BytesIO(raw)) as paper:
        return "\n".join(page.extract_text(x_tolerance_ratio=0.1) for page in paper.pages)


class OnPaper(SimpleTestCase):
    """Sheets to take along: at their scale, and legible."""

    def test_the_wall_is_drawn_at_the_scale_that_stands_below_it(self) -> None:
        """Measured by a PDF library that knows nothing of ours.

        The frame, the line of 50 mm, every hole's cross.
        """
        now = plan(bracket_shelf())
        per = scale_for(3200.0, 2400.0, (178.0, 150.0))
        self.assertEqual(per, 20)
        with pdfplumber.open(
            io.BytesIO(wall_sheet(now, assess(now), "metric", "Job", "today"))
        ) as paper:
            first = paper.pages[0]
            lengths = sorted(
                {
                    round((line["x1"] - line["x0"]) * MM, 2)
                    for line in first.lines
                    if abs(line["top"] - line["bottom"]) < 0.01
                }
            )
            self.assertIn(50.0, lengths)
            self.assertAlmostEqual(max(lengths), 3200 / per, delta=0.05)
            left = min(line["x0"] for line in first.lines)
            foot = max(
                line["bottom"] for line in first.lines if (line["x1"] - line["x0"]) * MM > 100
            )
            crosses = [
                ((line["x0"] + line["x1"]) / 2, (line["top"] + line["bottom"]) / 2)
                for line in first.lines
                if abs((line["x1"] - line["x0"]) * MM - 2.4) < 0.02
                and abs(line["top"] - line["bottom"]) < 0.01
            ]
            found = sorted(((x - left) * MM * per, (foot - y) * MM * per) for x, y in crosses)
            wanted = holes_of(now.pieces[0], now)
            self.assertEqual(len(found), len(wanted))
            for (x, y), (wx, wy) in zip(found, wanted, strict=True):
                self.assertAlmostEqual(x, wx, delta=0.1 * per)  # a tenth of a millimetre on paper
                self.assertAlmostEqual(y, wy, delta=0.1 * per)

    def test_every_letter_can_be_read_at_arms_length(self) -> None:
        now = replace(panel(), shop=Shop(finish=Finish(first="oil_stain", top="water_varnish")))
        made = cut_plan(now)
        for raw in (
            wall_sheet(now, assess(now), "metric", "Job", "today"),
            saw_sheet("Wall", made, "metric", "Job", "today"),
            shop_sheet("Wall", shopping(now, made, "metric"), "metric", "Job", "today"),
        ):
            with pdfplumber.open(io.BytesIO(raw)) as paper:
                for page in paper.pages:
                    self.assertGreaterEqual(min(char["size"] for char in page.chars), ARM_PT)
                    for char in page.chars:
                        self.assertTrue(
                            char["x0"] >= 0
                            and char["x1"] <= page.width
                            and char["bottom"] <= page.height,
                            char["text"],
                        )

    def test_a_body_is_drawn_taken_apart_with_every_label_on_screen_and_on_paper(self) -> None:
        case = put_up("bookcase", wall(), joint="housed", loose_shelves=2, fixed_rows=1)
        boards = labelled(cut_plan(plan(case)).parts, case)
        labels = [each.label for each in boards]
        self.assertEqual(len(labels), 10)
        svg = ElementTree.fromstring(exploded(case.name, boards))
        self.assertEqual(sorted(e.text or "" for e in svg.iter("text")), sorted(labels))
        wide, high = float(svg.attrib["width"]), float(svg.attrib["height"])
        for path in svg.iter("path"):
            places = re.findall(r"([-\d.]+) ([-\d.]+)", path.attrib["d"])
            self.assertTrue(all(0 <= float(x) <= wide and 0 <= float(y) <= high for x, y in places))
        drawn = taken_apart(boards, 300.0, 300.0, 7.0, 14.0)
        rooms = [
            box(x - 3.5 * len(label), y - 7, x + 3.5 * len(label), y + 7)
            for x, y, label in drawn.labels
        ]
        for one, other in combinations(rooms, 2):
            self.assertAlmostEqual(one.intersection(other).area, 0.0)
        made = cut_plan(plan(case))
        raw = saw_sheet("Wall", made, "metric", "Job", "today", [(case.name, boards)])
        [page] = text_of(raw).split("taken apart")[1:]
        for label in labels:
            self.assertIn(label, page.split("Parts")[0])

    def test_what_hides_another_board_is_drawn_after_it(self) -> None:
        """From the front, the right and above: the front hides the back, the top what is below."""
        box_shelf = put_up("box_shelf", wall())
        drawn = taken_apart(labelled(cut_plan(plan(box_shelf)).parts, box_shelf), 300, 300, 7, 14)
        order = [label for _, _, label in reversed(drawn.labels)]
        named = {p.label: p.name for p in cut_plan(plan(box_shelf)).parts}
        names = [named[label] for label in order]
        self.assertLess(names.index("back"), names.index("front"))

    def test_the_sheets_say_what_they_must(self) -> None:
        now = panel()
        made = cut_plan(now)
        said = text_of(wall_sheet(now, assess(now), "metric", "Job", "today"))
        for words in ("1 : ", "tape at", "across", "wood screw", now.pieces[0].name):
            self.assertIn(words, said)
        said = text_of(saw_sheet("Wall", made, "metric", "Job", "today"))
        for part in made.parts:
            self.assertIn(part.label, said)
        self.assertIn("Set the stop once for each length", said)
        said = text_of(labels_sheet("Wall", made.parts, "metric"))
        self.assertEqual([part.label for part in made.parts if part.label not in said], [])
        said = text_of(
            shop_sheet("Wall", shopping(now, made, "imperial"), "imperial", "Job", "today")
        )
        self.assertIn("packs of", said)
        self.assertIn("$", said)

    def test_what_wont_hold_is_not_to_be_drilled(self) -> None:
        now = plan(bracket_shelf(things=(Thing(name="Safe", mass_kg=900.0),)))
        self.assertIn(
            "Don't drill yet", text_of(wall_sheet(now, assess(now), "metric", "Job", "today"))
        )

    def test_what_must_not_be_hit_is_crossed_out(self) -> None:
        outlet = Feature(
            kind="outlet", left_mm=1000.0, right_mm=1080.0, bottom_mm=300.0, top_mm=420.0
        )
        drawing = overview(plan(bracket_shelf(), features=(outlet,)), "metric", 20)
        self.assertGreaterEqual(len([line for line in drawing.lines if line.layer == "AVOID"]), 6)

    def test_a_close_up_measures_every_column_and_row(self) -> None:
        now = plan(bracket_shelf())
        drawing = close_up(now.pieces[0], now, "metric", 10)
        words = {text.words for text in drawing.texts}
        self.assertTrue({"800 mm", "1600 mm"} <= words)
        self.assertEqual(sorted((c.x, c.y) for c in drawing.circles), holes_of(now.pieces[0], now))


class Saw(BenchCase):
    def setUp(self) -> None:
        super().setUp()
        self.wall.record(panel(), "A panel", self.base())

    def test_diagrams_and_another_saw(self) -> None:
        page = self.client.get(self.url("stage", "cut"))
        self.assertContains(page, "softwood plywood sheet, 1250 × 1250 × 12 mm: sheet 1")
        self.assertContains(page, "Cheapest possible.")
        self.assertContains(self.post("cut:saw", stage="cut", kerf="4 mm", trim="10 mm"), "4 parts")
        self.assertEqual((self.plan().policy.kerf_mm, self.plan().policy.trim_mm), (4.0, 10.0))
        for kerf, trim in (
            ("0", "5 mm"),
            ("30 mm", "5 mm"),
            ("3 mm", "900 mm"),
            ("wide", "5 mm"),
            ("-3", "5 mm"),
        ):
            answer = self.post("cut:saw", stage="cut", kerf=kerf, trim=trim)
            self.assertContains(answer, kerf, status_code=422)

    def test_every_file_opens_and_holds_what_it_should(self) -> None:
        listed = list(
            csv.reader(io.StringIO(self.client.get(self.url("cut:shopping")).content.decode()))
        )
        self.assertEqual(
            listed[0],
            [
                *("aisle", "what", "needed", "unit", "pack", "packs", "spare", "each", "cost"),
                *("note", "have"),
            ],
        )
        ods = Document(io.BytesIO(self.client.get(self.url("cut:shopping-ods")).content))
        values = list(ods.body.get_table(0).iter_values())
        self.assertEqual([row[1] for row in values[1:-1]], [row[1] for row in listed[1:]])
        self.assertAlmostEqual(
            float(values[-1][8]), sum(float(row[8]) for row in listed[1:]), places=1
        )
        doc = read(
            io.StringIO(self.client.get(self.url("cut:sheet-file", 0, 0, "dxf")).content.decode())
        )
        self.assertEqual(len(doc.audit().errors), 0)
        lines = doc.modelspace().query('LINE[layer=="PIECE"]')
        self.assertEqual(
            sorted({round((line.dxf.end - line.dxf.start).magnitude) for line in lines}),
            [800, 1000],
        )
        self.assertContains(self.client.get(self.url("cut:sheet-file", 0, 0, "svg")), "<svg")
        doc = read(
            io.StringIO(self.client.get(self.url("mark:whole-wall", "dxf")).content.decode())
        )
        self.assertEqual(len(doc.audit().errors), 0)
        for name, args in (
            ("cut:saw-pdf", ()),
            ("cut:labels-pdf", ()),
            ("cut:shop-pdf", ()),
            ("mark:whole-wall", ("pdf",)),
        ):
            self.assertTrue(
                self.client.get(self.url(name, *args)).content.startswith(b"%PDF"), name
            )
        for args in ((0, 9, "dxf"), (9, 0, "dxf"), (0, 0, "exe")):
            self.assertEqual(self.client.get(self.url("cut:sheet-file", *args)).status_code, 404)
        self.assertEqual(self.client.get(self.url("mark:whole-wall", "exe")).status_code, 404)

    def test_the_calendar_is_the_schedule(self) -> None:
        self.wall.record(
            replace(self.plan(), shop=Shop(finish=Finish(top="oil_varnish"))),
            "Varnish",
            self.base(),
        )
        found = Calendar.from_ical(self.client.get(self.url("cut:days-ics")).content)
        events = list(found.walk("VEVENT"))
        names = [str(each["SUMMARY"]) for each in events]
        self.assertEqual(len([name for name in names if "coat" in name]), 3)
        self.assertTrue(names[-1].startswith("Load it"))
        self.assertEqual(len({str(each["UID"]) for each in events}), len(events))
        for each in events:
            self.assertIsNone(each.decoded("DTSTART").tzinfo)
            self.assertGreater(each.decoded("DTEND"), each.decoded("DTSTART"))


class Measuring(BenchCase):
    def test_a_part_that_waits_is_measured_and_what_follows_it_moves(self) -> None:
        shelf = replace(
            put_up("ledger_shelf", wall()),
            left_mm=0.0,
            length_mm=1200.0,
            supports_mm=(100.0, 800.0),
            stiffener_mm=40.0,
        )
        self.wall.record(plan(shelf), "A ledger shelf", self.base())
        page = self.client.get(self.url("stage", "cut") + "?look=parts")
        self.assertContains(page, "Measured from wall to wall")
        field = f"{shelf.key}--board"
        woods = {
            name: field.initial
            for name, field in the_form(page, field).fields.items()
            if name.startswith("wood")
        }
        answer = self.post(
            "cut:measured",
            stage="cut",
            look="parts",
            **{field: "1190 mm", f"{shelf.key}--side ledger": "", **woods},
        )
        self.assertContains(answer, "1190 mm × ")
        self.assertContains(answer, "1200 mm planned")
        self.assertEqual(
            self.plan().shop.measured, (Measured(piece=shelf.key, part="board", length_mm=1190.0),)
        )
        thinner = self.post(
            "cut:measured",
            stage="cut",
            look="parts",
            **{field: "1190 mm", **woods, "wood-0": "17.4 mm"},
        )
        self.assertEqual(thinner.status_code, 200)
        self.assertEqual(self.plan().pieces[0].thickness_mm, 17.4)
        for name, value in ((field, "nothing"), ("wood-0", "2 m"), ("wood-0", "")):
            answer = self.post(
                "cut:measured",
                stage="cut",
                look="parts",
                **{field: "1190 mm", **woods, "wood-0": "17.4 mm", name: value},
            )
            self.assertEqual(answer.status_code, 422, (name, value))


class Yard(BenchCase):
    def hand(self, **values: str) -> Any:
        fields = {
            "kind": "board",
            "board": "oak_red",
            "length": "2 m",
            "width": "260 mm",
            "thickness": "20 mm",
            "many": "1",
            "bad_from": "",
            "bad_to": "",
        }
        return self.post("cut:stock-add", stage="cut", look="stock", **(fields | values))

    def test_what_is_at_hand_is_cut_first_and_taken_away_and_undone(self) -> None:
        self.assertContains(self.hand(), "your red oak board")
        self.assertEqual(self.plan().shop.on_hand[0].length_mm, 2000.0)
        self.assertEqual(self.hand(bad_from="100 mm", bad_to="200 mm").status_code, 200)
        self.assertEqual(self.plan().shop.on_hand[1].defects[0].to_mm, 200.0)
        self.assertEqual(
            self.post("cut:stock-drop", "on_hand", 0, stage="cut", look="stock").status_code, 200
        )
        self.assertEqual(len(self.plan().shop.on_hand), 1)
        self.post("undo", stage="cut")
        self.assertEqual(len(self.plan().shop.on_hand), 2)
        self.assertEqual(self.post("cut:stock-drop", "on_hand", 7, stage="cut").status_code, 404)
        self.assertEqual(self.post("cut:stock-drop", "prices", 0, stage="cut").status_code, 404)
        for values, said in (
            ({"length": "long"}, "long"),
            ({"length": ""}, "Fill in this field"),
            ({"many": "0"}, "greater than or equal to 1"),
            ({"bad_from": "300 mm"}, "Where does it end?"),
            ({"bad_from": "500 mm", "bad_to": "400 mm"}, "end after it begins"),
            ({"bad_to": "9 m"}, "beyond the end"),
            ({"board": "cheese"}, "not one of"),
            ({"board": "unknown"}, "Weigh it"),
            ({"board": "unknown", "weighs": "200 kg"}, "weigh it again"),
        ):
            self.assertContains(self.hand(**values), said, status_code=422)

    def test_a_wood_that_nobody_knows_is_told_by_its_weight(self) -> None:
        """2 000 × 300 × 40 mm is 0.024 m³; of 11 kg that is 458 kg/m³."""
        sizes = {"length": "2000 mm", "width": "300 mm", "thickness": "40 mm"}
        kept = self.hand(board="unknown", weighs="11 kg", **sizes)
        self.assertContains(kept, "unknown wood, 400 to 500 kg/m³")
        self.assertEqual(self.plan().shop.on_hand[0].board, "unknown_400")

    def test_offcuts_go_over_the_rack_to_another_wall_and_undo_brings_them_back(self) -> None:
        other = Wall.begin(
            Job.objects.create(name="Next"),
            plan(bracket_shelf(length_mm=300.0, supports_mm=(50.0, 250.0))),
            "Begin",
        )
        self.assertContains(
            self.post("cut:stock-keep", stage="cut", look="stock"), "They are on the rack now"
        )
        kept = len(self.plan().shop.kept)
        self.assertEqual(Offcut.objects.filter(wall=self.wall, taken=None).count(), kept)
        page = self.client.get(f"/walls/{other.pk}/cut/?look=stock")
        self.assertContains(page, "from Test wall")
        offcut = Offcut.objects.filter(wall=self.wall).first()
        assert offcut is not None
        take = f"/walls/{other.pk}/yard/take/{offcut.pk}/"
        self.client.post(
            take,
            {"base": seen(other), "stage": "cut"},
            HTTP_HX_REQUEST="true",
            HTTP_HX_TARGET="bench",
        )
        offcut.refresh_from_db()
        self.assertEqual(
            (offcut.taken, Wall.objects.get(pk=other.pk).plan().shop.on_hand[0].rack),
            (other, offcut.pk),
        )
        again = self.client.post(
            take,
            {"base": seen(other), "stage": "cut"},
            HTTP_HX_REQUEST="true",
            HTTP_HX_TARGET="bench",
        )
        self.assertContains(again, "another wall uses it", status_code=422)
        self.client.post(
            f"/walls/{other.pk}/undo/",
            {"base": seen(other), "stage": "cut"},
            HTTP_HX_REQUEST="true",
            HTTP_HX_TARGET="bench",
        )
        offcut.refresh_from_db()
        self.assertIsNone(offcut.taken)
        self.post("undo", stage="cut")
        self.assertEqual(Offcut.objects.count(), 0)

    def test_a_part_of_ones_own(self) -> None:
        fields = {
            "own_name": "Bottom",
            "own_board": "plywood",
            "own_length": "500",
            "own_width": "400",
            "own_thickness": "12",
            "own_many": "2",
        }
        self.assertContains(
            self.post("cut:stock-own", stage="cut", look="stock", **fields), "2 × Bottom"
        )
        self.assertEqual(
            self.plan().shop.own,
            (
                OwnPart(
                    name="Bottom",
                    board="plywood",
                    length_mm=500.0,
                    width_mm=400.0,
                    thickness_mm=12.0,
                    many=2,
                ),
            ),
        )
        for values, said in (
            ({"own_width": "9 m"}, "must lie between"),
            ({"own_name": ""}, "required"),
            ({"own_length": "x"}, "x"),
            ({"own_many": "450"}, "More than 400 parts"),
        ):
            self.assertContains(
                self.post("cut:stock-own", stage="cut", look="stock", **(fields | values)),
                said,
                status_code=422,
            )

    def bring(self, what: str, name: str, raw: bytes, **values: str) -> Any:
        file = SimpleUploadedFile(name, raw)
        field = "table" if what == "cut:stock-table" else "drawing"
        return self.client.post(
            self.url(what),
            {"base": self.base(), "stage": "cut", "look": "stock", field: file, **values},
            follow=True,
        )

    def test_tables_and_drawings_come_in_whole_or_not_at_all(self) -> None:
        good = b"name,board,length,width,thickness,many\nBottom,plywood,500,400,12,2\n"
        self.assertContains(self.bring("cut:stock-table", "parts.csv", good), "2 × Bottom")
        drawing = drawn(ring(600, 300), ring(300, 600))
        self.assertContains(
            self.bring("cut:stock-drawing", "parts.dxf", drawing, of="plywood:11.90"),
            "2 × part 1 of the drawing",
        )
        self.assertEqual(len(self.plan().shop.own), 2)
        before = self.plan()
        for what, raw, values, said in (
            ("cut:stock-table", b"\x00\x01", {}, "plain text"),
            ("cut:stock-table", b"a,b\n1,2\n", {}, "not a known column"),
            ("cut:stock-table", good + b"x,cheese,1,1,1,1\n", {}, "Row 3"),
            ("cut:stock-table", b"x" * 50_000_000, {}, "larger"),
            ("cut:stock-drawing", b"x" * 50_000_000, {"of": "plywood:11.90"}, "larger"),
            ("cut:stock-drawing", b"hello", {"of": "plywood:11.90"}, "not a DXF"),
            (
                "cut:stock-drawing",
                drawing,
                {"of": "cheese"},
                "choose the material of the parts",
            ),
        ):
            self.assertContains(self.bring(what, "file", raw, **values), said, status_code=422)
        self.assertContains(
            self.post("cut:stock-table", stage="cut"), "Choose a file first", status_code=422
        )
        self.assertEqual(self.plan(), before)


def the_form(page: Any, field: str) -> Any:
    """The form on a page that asks for a field; there may be others."""
    return next(
        each["form"] for each in page.context if "form" in each and field in each["form"].fields
    )


class Buying(BenchCase):
    def test_how_many_are_in_the_drawer_is_kept_and_not_bought(self) -> None:
        page = self.client.get(self.url("stage", "cut") + "?look=buy")
        form = the_form(page, "price-0")
        shown = {name: field.initial or "" for name, field in form.fields.items()}
        n, line = next(each for each in enumerate(form.lines) if each[1].aisle == "fasteners")
        answer = self.post("cut:prices", stage="cut", look="buy", **(shown | {f"have-{n}": "500"}))
        self.assertContains(answer, f"you have 500, {line.needed:g} needed")
        self.assertEqual(
            [(each.of, each.many) for each in self.plan().shop.have], [(line.key, 500)]
        )
        self.assertEqual(self.plan().shop.prices, ())
        answer = self.post("cut:prices", stage="cut", look="buy", **(shown | {f"have-{n}": "-1"}))
        self.assertEqual(answer.status_code, 422)
        self.post("cut:prices", stage="cut", look="buy", **shown)
        self.assertEqual(self.plan().shop.have, ())

    def test_a_drawer_is_taken_over_from_another_wall_and_what_is_said_here_stays(self) -> None:
        def with_drawer(*have: Have) -> Plan:
            return replace(plan(bracket_shelf()), shop=Shop(have=have))

        there = with_drawer(Have(of="screw:screw_5:80", many=40), Have(of="bit:bit:2.5 mm", many=1))
        other = Wall.begin(self.wall.job, there, "Begin")
        mine = replace(self.plan(), shop=Shop(have=(Have(of="screw:screw_5:80", many=3),)))
        self.wall = Wall.begin(self.wall.job, mine, "Begin")
        page = self.client.get(self.url("stage", "cut") + "?look=buy")
        self.assertContains(page, f'<option value="{other.pk}">')
        answer = self.post("cut:drawer", stage="cut", look="buy", **{"from": str(other.pk)})
        self.assertEqual(
            {each.of: each.many for each in self.plan().shop.have},
            {"screw:screw_5:80": 3, "bit:bit:2.5 mm": 1},
        )
        self.assertNotContains(answer, "drawer-from")  # it has nothing more for this wall
        again = self.post("cut:drawer", stage="cut", look="buy", **{"from": str(other.pk)})
        self.assertContains(again, "nothing more for this wall", status_code=422)

    def test_a_drawer_is_said_at_ones_other_walls_and_can_be_undone_there(self) -> None:
        """What only they know stays; nobody else's wall is touched."""

        def begin(*have: Have) -> Wall:
            now = replace(plan(bracket_shelf()), shop=Shop(have=have))
            return Wall.begin(self.wall.job, now, "Begin")

        screws, bit = Have(of="screw:screw_5:80", many=12), Have(of="bit:bit:2.5 mm", many=1)
        other = begin(Have(of="screw:screw_5:80", many=40), bit)
        gone = begin()
        gone.deleted = gone.created
        gone.save()
        self.wall = begin(screws)
        page = self.client.get(self.url("stage", "cut") + "?look=buy")
        self.assertContains(page, "drawer-tell")
        answer = self.post("cut:drawer-tell", stage="cut", look="buy")
        self.assertContains(answer, "Said at 2 other walls.")
        self.assertNotContains(answer, 'id="drawer-tell"')
        other = Wall.objects.get(pk=other.pk)
        self.assertEqual(set(other.plan().shop.have), {screws, bit})
        self.assertEqual(Wall.objects.get(pk=gone.pk).plan().shop.have, ())
        other.step(-1, other.seen)
        self.assertIn(40, {each.many for each in other.plan().shop.have})

    def test_ones_own_prices_stay_until_they_are_emptied(self) -> None:
        page = self.client.get(self.url("stage", "cut") + "?look=buy")
        form = the_form(page, "price-0")
        shown = {name: field.initial or "" for name, field in form.fields.items()}
        wood = form.lines[0]
        answer = self.post(
            "cut:prices", stage="cut", look="buy", **(shown | {"price-0": "31,50", "ready": "99"})
        )
        self.assertContains(answer, "Making it")
        self.assertEqual(
            [(price.of, price.each) for price in self.plan().shop.prices], [(wood.key, 31.5)]
        )
        self.assertEqual(self.plan().shop.ready, 99.0)
        self.post("cut:prices", stage="cut", look="buy", **(shown | {"price-0": "", "ready": ""}))
        self.assertEqual((self.plan().shop.prices, self.plan().shop.ready), ((), None))
        for value, said in (
            ("-1", "cannot be negative"),
            ("dear", "A price is a number"),
            ("1e9", "100000"),
        ):
            answer = self.post(
                "cut:prices", stage="cut", look="buy", **(shown | {"price-0": value})
            )
            self.assertContains(answer, said, status_code=422)
            self.assertContains(answer, f'value="{value}"', status_code=422)


class Week(BenchCase):
    def values(self, **changes: str) -> dict[str, str]:
        week = {
            f"{end}-{n}": at
            for n in range(5)
            for end, at in (("begins", "18:00"), ("ends", "21:00"))
        }
        return {
            "old": "bare",
            "first": "",
            "top": "",
            "coats": "",
            "temp": "20",
            "humid": "50",
            "hung": "before",
            "start": "",
            "by": "",
            **week,
        } | changes

    def test_a_finish_and_a_week(self) -> None:
        answer = self.post(
            "cut:save-days",
            stage="cut",
            look="days",
            **self.values(first="oil_stain", top="water_varnish", **{"helper-2": "on"}),
        )
        self.assertContains(answer, "Dewaxed shellac")
        self.assertContains(answer, "Oily rags")
        self.assertContains(answer, "Hang it on")
        days = self.plan().shop.days
        self.assertEqual(
            (days.week[0] and days.week[0].begins, days.week[5], days.helper), (18.0, None, (2,))
        )
        self.assertContains(
            self.post(
                "cut:save-days", stage="cut", look="days", **self.values(old="wax", top="paint")
            ),
            "does not go over",
        )
        late = self.post(
            "cut:save-days",
            stage="cut",
            look="days",
            **self.values(**{"begins-6": "22:00", "ends-6": "00:00"}),
        )
        self.assertEqual(late.status_code, 200)
        self.assertEqual(self.plan().shop.days.week[6].ends, 24.0)  # type: ignore[union-attr]
        for changes, said in (
            ({"begins-0": "noon"}, "Write it as 18:00"),
            ({"ends-0": ""}, "Monday: say from when to when"),
            ({"begins-0": "22:00"}, "begin before it ends"),
            ({"temp": "hot"}, "Enter a number"),
            ({"coats": "99"}, "12"),
            ({"top": "chalk"}, "chalk"),
            ({"start": "soon"}, "valid date"),
            ({"humid": "101"}, "100"),
            (
                {f"{end}-{n}": "" for n in range(5) for end in ("begins", "ends")},
                "at least one day",
            ),
        ):
            self.assertContains(
                self.post("cut:save-days", stage="cut", look="days", **self.values(**changes)),
                said,
                status_code=422,
            )

    def test_a_finish_of_one_part_s_own_and_a_day_by_which_it_hangs(self) -> None:
        look = {"stage": "cut", "look": "days"}
        form = {"own-of": "shelf|board", "own-first": "", "own-coats": "", "own-hung": "before"}
        answer = self.post("cut:finish-add", **look, **form, **{"own-top": "wax"})
        self.assertContains(answer, "Shelf: board <small>wax</small>")
        [own] = self.plan().shop.finishes
        self.assertEqual((own.piece, own.part, own.finish.top), ("shelf", "board", "wax"))
        again = self.post("cut:finish-add", **look, **form, **{"own-top": "paint"})
        self.assertContains(again, "Water-borne enamel paint")
        self.assertEqual([each.finish.top for each in self.plan().shop.finishes], ["paint"])
        wrong = self.post(
            "cut:finish-add", **look, **(form | {"own-of": "door|"}), **{"own-top": ""}
        )
        self.assertContains(wrong, "door", status_code=422)
        self.post("cut:finish-drop", 0, **look)
        self.assertEqual(self.plan().shop.finishes, ())
        for day, said in (("2020-01-01", "hang by"), ("2999-01-01", "start no later than")):
            answer = self.post("cut:save-days", **look, **self.values(by=day))
            self.assertContains(answer, said)


class WholeJob(BenchCase):
    def page(self, look: str = "") -> Any:
        return self.client.get(reverse("whole-job:page", args=[self.wall.job_id]), {"look": look})

    def test_walls_share_boards_and_every_look_and_paper_names_the_same_parts(self) -> None:
        other = Wall.begin(self.wall.job, replace(self.plan(), name="Hall"), "Begin")
        empty = Wall.begin(self.wall.job, replace(self.plan(), name="Bare", pieces=()), "Begin")
        self.assertContains(self.client.get(self.url("stage", "cut")), 'id="whole-job"')
        page = self.page()
        for label in ("1-1a", "2-1a", "Hall", "nothing to hang"):
            self.assertContains(page, label)
        self.assertContains(page, reverse("cut:stage", args=[empty.pk]))
        self.assertContains(self.page("parts"), "Hall: Shelf")
        bought = self.page("buy").context["cutting"].shopping
        self.assertContains(self.page("buy"), f"{bought.cost:.2f}")
        alone = shopping(self.plan(), cut_plan(self.plan()), "imperial")
        self.assertLess(bought.cost, 2 * alone.cost)
        self.assertContains(self.page("days"), "“Ledge”: Hall")
        for what, holds in (
            ("saw.pdf", "2-1a"),
            ("labels.pdf", "2-1a"),
            ("shop.pdf", "all walls"),
            ("days.ics", "Hall"),
            ("shopping.csv", "wood"),
            ("shopping.ods", ""),
        ):
            got = self.client.get(reverse("whole-job:file", args=[self.wall.job_id, what]))
            self.assertEqual(got.status_code, 200, what)
            body = text_of(got.content) if what.endswith("pdf") else got.content.decode("latin-1")
            self.assertIn(holds, body, what)
        gone = self.client.get(reverse("whole-job:file", args=[self.wall.job_id, "door.pdf"]))
        self.assertEqual(gone.status_code, 404)
        other.deleted = other.created
        other.save()
        self.assertNotContains(self.page(), "Hall")

    def test_a_large_cut_list_says_how_far_it_is_and_shows_the_page_when_it_is_done(self) -> None:
        own = OwnPart(
            name="Slat",
            board="pine_white",
            length_mm=431.7,
            width_mm=61.3,
            thickness_mm=19.05,
            many=70,
        )
        large = replace(self.plan(), shop=Shop(own=(own,)))
        Wall.begin(self.wall.job, large, "Begin")
        working = reverse("whole-job:working", args=[self.wall.job_id])
        self.assertContains(self.page("buy"), "Planning the cuts: 0 of")
        for _ in range(20):
            answer = self.client.get(working, {"look": "buy"})
            if "HX-Redirect" in answer:
                break
            self.assertRegex(answer.content.decode(), r"Planning the cuts: \d+ of \d+ woods")
        self.assertTrue(answer["HX-Redirect"].endswith("?look=buy"))
        self.assertContains(self.page("buy"), "In all about")

    def test_where_nothing_waits_it_says_so(self) -> None:
        self.wall = Wall.begin(self.wall.job, replace(self.plan(), pieces=()), "Begin")
        Wall.objects.exclude(pk=self.wall.pk).delete()
        self.assertContains(self.page("buy"), "Nothing left to hang here")
        gone = self.client.get(reverse("whole-job:file", args=[self.wall.job_id, "saw.pdf"]))
        self.assertEqual(gone.status_code, 404)
