"""The calculation sheet: everything that the screen says, on paper, what is not known first."""

import io

from django.test import SimpleTestCase
from pypdf import PdfReader

from bench import demo
from bench.printing.sums import sums_sheet
from tests.bench.test_workbench import BenchCase
from trade import say
from trade.assess import assess
from trade.plan import Plan


def words_of(raw: bytes) -> list[str]:
    return [" ".join(page.extract_text().split()) for page in PdfReader(io.BytesIO(raw)).pages]


class Sheets(SimpleTestCase):
    def sheet(self, plan: Plan) -> list[str]:
        return words_of(sums_sheet(plan, assess(plan), plan.units, "Boathouse", "25 November 2026"))

    def test_every_piece_every_check_and_every_source(self) -> None:
        for make in (demo.changing_room, demo.story_corner):
            plan = make()
            text = " ".join(self.sheet(plan))
            for piece in assess(plan).pieces:
                self.assertIn(f"{piece.name}: {say.WORDS[piece.word].lower()}", text)
                for check in piece.checks:
                    self.assertIn(f"{check.name}: {say.check_line(check, plan.units)}", text)
                    self.assertIn(check.source, text)

    def test_what_is_not_known_comes_first(self) -> None:
        first = self.sheet(demo.story_corner())[0]
        self.assertLess(first.index("what “Encyclopedias” weighs empty"), first.index("What is judged"))
        self.assertLess(first.index("Assumed"), first.index("What is judged"))

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
