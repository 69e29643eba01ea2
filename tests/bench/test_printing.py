"""The calculation sheet: everything that the screen says, on paper, what is not known first."""

import io
import re

from django.test import SimpleTestCase
from pypdf import PdfReader

from bench import demo
from bench.models import Wall
from bench.printing.sums import sums_sheet
from tests.bench.test_workbench import BenchCase
from tests.plans import plan, wall
from tests.trade.test_every_kind import put_up
from trade import wording
from trade.assess import assess
from trade.plan.model import Plan


def words_of(raw: bytes) -> list[str]:
    return [" ".join(page.extract_text().split()) for page in PdfReader(io.BytesIO(raw)).pages]


class Sheets(SimpleTestCase):
    def sheet(self, plan: Plan) -> list[str]:
        return words_of(sums_sheet(plan, assess(plan), plan.units, "Boathouse", "25 November 2026"))

    def test_every_piece_every_check_and_every_source(self) -> None:
        plan = demo.story_corner()
        text = re.sub(
            r"Gancho\. A sum is no licence.*?\d+ of \d+ ", "", " ".join(self.sheet(plan))
        )  # what a page ends with
        self.assertLess(text.index("Assumed"), text.index("What is judged"))
        for piece in assess(plan).pieces:
            self.assertIn(f"{piece.name}: {wording.outcome(piece).lower()}", text)
            for check in piece.checks:
                self.assertIn(f"{check.name}: {wording.check_line(check, plan.units)}", text)
                self.assertIn(check.source, text)
        unknown = text.index("what “Encyclopedias” weighs empty")  # of the story corner
        self.assertLess(unknown, text.index("What is judged"))

    def test_paper_is_letter_for_inches_and_a4_for_millimetres(self) -> None:
        for make, size in ((demo.changing_room, (612, 792)), (demo.wardrobe, (595, 842))):
            raw = sums_sheet(make(), assess(make()), make().units, "Job", "today")
            box = PdfReader(io.BytesIO(raw)).pages[0].mediabox
            self.assertEqual((round(float(box.width)), round(float(box.height))), size)

    def test_an_empty_wall_is_a_sheet_too(self) -> None:
        bare = demo.changing_room()
        for piece in bare.pieces:
            bare = bare.without_piece(piece.key)
        self.assertIn("Nothing hangs on this wall yet.", self.sheet(bare)[0])


class Served(BenchCase):
    def test_as_a_file_to_look_at(self) -> None:
        answer = self.client.get(self.url("sums"))
        self.assertEqual((answer.status_code, answer["Content-Type"]), (200, "application/pdf"))
        self.assertIn("test-wall-sums.pdf", answer["Content-Disposition"])
        self.assertTrue(answer.content.startswith(b"%PDF"))
        self.assertContains(self.client.get(self.url("stage", "fix")), self.url("sums"))


class Packets(BenchCase):
    def values(self, **changes: str) -> dict[str, str]:
        form = {
            "packet_name": "Blue plug",
            "packet_base": "gypsum_12_7",
            "packet_pull": "60 kg",
            "packet_shear": "80 kg",
            "packet_states": "ultimate",
            "packet_found": "its packet",
            "packet_hole": "8 mm",
            "packet_depth": "40 mm",
        }
        return form | changes

    def test_kept_with_the_wall_and_used_at_once(self) -> None:
        self.assertEqual(self.post("fix:add-packet", "shelf", **self.values()).status_code, 200)
        now = self.plan()
        self.assertEqual(
            (now.pieces[0].anchor, now.wall.packets[0].name), ("blue-plug", "Blue plug")
        )
        self.assertAlmostEqual(
            now.wall.packets[0].anchor.holds_n["gypsum_12_7"].pull, 60 * 9.80665 / 4
        )
        self.assertContains(self.client.get(self.url("stage", "fix")), "Blue plug")
        self.post("fix:add-packet", "shelf", **self.values())
        self.assertEqual(
            [packet.key for packet in self.plan().wall.packets], ["blue-plug", "blue-plug-2"]
        )
        self.client.post(self.url("undo"), {"base": self.base()})
        self.assertEqual(len(self.plan().wall.packets), 1)

    def test_refusals_stand_beside_their_fields(self) -> None:
        for field, typed, words in (
            ("packet_pull", "much", "as a load"),
            ("packet_pull", "300", "of what? Packets print"),
            ("packet_pull", "", "Fill in this field"),
            ("packet_hole", "90 mm", "must lie between"),
            ("packet_shear", "900 t", "Couldn"),
            ("packet_base", "cheese", "valid choice"),
        ):
            with self.subTest(field=field, typed=typed):
                answer = self.post("fix:add-packet", "shelf", **self.values(**{field: typed}))
                self.assertEqual(answer.status_code, 422)
                self.assertContains(answer, words, status_code=422)
        self.assertEqual(self.plan().wall.packets, ())

    def test_what_may_hang_where_is_drawn_for_rails(self) -> None:
        answer = self.post("fix:put-up", kind="rail", x_mm="1600", top_mm="900")
        self.assertContains(answer, "/along/")
        key = self.plan().pieces[-1].key
        self.assertContains(
            self.client.get(self.url("fix:along", key)), "One thing alone may weigh from"
        )


class Scales(BenchCase):
    def test_the_first_unweighed_thing_is_put_on_the_scale(self) -> None:
        row = {"thing-0-name": "Bicycle", "thing-0-weight": "", "thing-0-at": "", "thing-0-out": ""}
        self.post("load:save", "shelf", use="display", **row)
        self.assertEqual(
            self.post("load:weigh", "shelf").status_code, 422
        )  # no scale is named in the settings
        with self.settings(DEVICES="trade.devices.stand_ins.for_wall"):
            self.assertContains(
                self.client.get(self.url("stage", "load") + "?piece=shelf"),
                "Weigh “Bicycle” with the scale",
            )
            self.assertEqual(self.post("load:weigh", "shelf").status_code, 200)
        weighed = self.plan().pieces[0].things[0]
        assert weighed.mass_kg is not None
        self.assertTrue(10 < weighed.mass_kg < 18, weighed)


class OwnHardware(BenchCase):
    def values(self, **changes: str) -> dict[str, str]:
        form = {
            "name": "Smith's bracket",
            "arm": "180 mm",
            "leg": "220 mm",
            "width": "40 mm",
            "thick": "6 mm",
            "holes": "25, 190 mm",
            "load": "",
            "states": "ultimate",
            "per": "pair",
            "found": "its packet",
        }
        return {f"own-{name}": value for name, value in (form | changes).items()}

    def test_a_bracket_of_ones_own_is_used_shown_and_given_back(self) -> None:
        self.assertEqual(self.post("fix:own", "shelf", **self.values()).status_code, 200)
        own = self.plan().piece("shelf").own  # type: ignore[union-attr]
        self.assertEqual((own.name, own.holes_mm, own.stated), ("Smith's bracket", (25, 190), None))
        page = self.client.get(self.url("stage", "fix"))
        self.assertContains(page, "Smith&#x27;s bracket")
        self.post("fix:own", "shelf", **self.values(load="1.6 kN", braced="on"))
        stated = self.plan().piece("shelf").own.stated  # type: ignore[union-attr]
        self.assertEqual(stated.each_n, 1600 / 4 / 2)
        self.client.post(self.url("undo"), {"base": self.base()})
        self.assertEqual(self.plan().piece("shelf").own, own)  # type: ignore[union-attr]

    def test_flush_cleats_of_ones_own_are_asked_of_a_cabinet(self) -> None:
        cabinet = put_up("cleat_cabinet", wall(), key="box", left_mm=1900.0, top_mm=1400.0)
        self.wall = Wall.begin(self.job, plan(cabinet), "Begin")
        page = self.client.get(self.url("stage", "fix") + "?piece=box")
        self.assertContains(page, "Flush metal cleats of my own")
        typed = {"name": "Flush cleat", "width": "100", "high": "30", "thick": "1.5", "off": "6"}
        typed |= {"hook": "8", "hole": "10", "holes": "3", "load": "", "states": "allowable"}
        typed |= {"per": "each", "found": ""}
        posted = {f"own-{name}": value for name, value in typed.items()}
        refused = self.post("fix:own", "box", **posted)
        self.assertContains(refused, "Fill in this field.", status_code=422)
        answer = self.post("fix:own", "box", **posted | {"own-load": "60 lb"})
        self.assertEqual(answer.status_code, 200)
        own = self.plan().piece("box").own  # type: ignore[union-attr]
        self.assertEqual((own.name, own.off_mm, own.holes), ("Flush cleat", 6.0, 3))
        self.assertContains(self.client.get(self.url("stage", "hang")), "Flush cleat")

    def test_refusals_stand_beside_their_fields(self) -> None:
        for field, typed, words in (
            ("holes", "25, 400 mm", "A hole of its leg"),
            ("holes", "two", "Couldn"),
            ("load", "300", "of what? Packets print"),
            ("arm", "9 m", "must lie between"),
            ("braced", "on", "enter what its packet states"),
        ):
            with self.subTest(field=field, typed=typed):
                answer = self.post("fix:own", "shelf", **self.values(**{field: typed}))
                self.assertContains(answer, words, status_code=422)
                self.assertContains(answer, 'id="own" open', status_code=422)
        self.assertEqual(self.post("fix:own", "ledge").status_code, 422)
