"""What follows a finger, put together as the page does it, is what the whole bench would be."""

from random import Random
from typing import Any

from django.test import Client, TestCase
from lxml import html
from msgspec.structs import replace

from bench.models import Job, Wall
from tests.plans import bracket_shelf, plan, rod_shelf
from trade.plan.model import Thing

HTMX = {"HTTP_HX_REQUEST": "true", "HTTP_HX_TARGET": "bench"}


class Page:
    """A bench in a browser, with what its script does to it while a piece is dragged."""

    def __init__(self, client: Client, wall: Wall, stage: str) -> None:
        self.client, self.wall, self.stage = client, wall, stage
        self.touched, self.parts, self.rows, self.kept = (
            "",
            dict[str, str](),
            list[str](),
            list[str](),
        )
        self.lay(html.fromstring(client.get(f"/walls/{wall.pk}/{stage}/?piece=shelf").content))
        self.kept, self.section = self.rows, self.parts["section"]

    def ask(self, left: int, top: int, **more: str) -> Any:
        at = {
            "base": "1",
            "left_mm": str(left),
            "top_mm": str(top),
            "live": "1",
            "stage": self.stage,
            "piece": "shelf",
        }
        answer = self.client.post(f"/walls/{self.wall.pk}/pieces/shelf/move/", at | more, **HTMX)  # type: ignore[arg-type]
        assert answer.status_code == 200, answer.status_code
        return answer

    def drag(self, left: int, top: int) -> int:
        """Take a tick; how many bytes it was."""
        answer = self.ask(left, top, seen="shelf", touched=self.touched)
        fresh = html.fromstring(answer.content)
        assert fresh.get("data-live"), "the whole bench came"
        self.touched = fresh.get("data-touched")
        self.lay(fresh)
        return len(answer.content)

    def whole(self, left: int, top: int) -> "Page":
        """The bench as it would be drawn whole."""
        other = Page(self.client, self.wall, self.stage)
        other.lay(html.fromstring(self.ask(left, top).content))
        return other

    def lay(self, bench: Any) -> None:
        for part in bench.xpath(
            '//*[@id="sheet"]/*[@id] | //*[@data-live]/svg/*[@id] | //*[@id="verdict"] | '
            '//*[@id="section"]'
        ):
            said = " ".join(html.tostring(part, encoding="unicode").split())
            if (
                not bench.get("data-live") or part.get("id") in self.parts
            ):  # the script puts nothing where nothing was
                self.parts[part.get("id")] = self.section if part.get("data-kept") else said
        if rows := bench.xpath('//*[@id="checks"]/li'):
            self.rows = [
                self.kept[int(row.get("data-kept"))] if row.get("data-kept") else self.row(row)
                for row in rows
            ]

    def row(self, row: Any) -> str:
        """A row of the list without its sum, which waits until the finger lifts."""
        for below in row.xpath(".//*[@class='sum']"):
            below.getparent().remove(below)
        return " ".join(html.tostring(row, encoding="unicode").split())


class Follow(TestCase):
    def setUp(self) -> None:
        pieces = [bracket_shelf(), rod_shelf()]
        pieces += [
            rod_shelf(key=f"l{n}", left_mm=80.0 * n, top_mm=200.0 + 45 * n, name=f"Ledge {n}")
            for n in range(12)
        ]
        pieces.append(
            bracket_shelf(
                key="low", top_mm=500.0, things=(Thing(name="Pot", mass_kg=4.0, high_mm=350.0),)
            )
        )
        self.wall = Wall.begin(Job.objects.create(name="Job"), plan(*pieces), "Begin")

    def test_tick_by_tick_it_becomes_what_the_whole_bench_would_be(self) -> None:
        dice = Random(5)
        for stage in ("fix", "mark", "load", "hang"):
            page, left, top = Page(self.client, self.wall, stage), 700, 1500
            for n in range(6):
                left, top = (
                    min(max(left + dice.randrange(-300, 300), 0), 2200),
                    min(max(top + dice.randrange(-500, 400), 20), 2400),
                )
                page.drag(left, top)
                whole = page.whole(left, top)
                with self.subTest(stage=stage, tick=n):
                    self.assertEqual(page.parts, whole.parts)
                    self.assertEqual(page.rows, whole.rows)

    def test_nothing_of_it_is_kept_and_a_page_of_another_piece_gets_the_whole_bench(self) -> None:
        page = Page(self.client, self.wall, "fix")
        page.drag(900, 1400)
        self.assertEqual(Wall.objects.get(pk=self.wall.pk).current_revision, 1)
        self.assertContains(page.ask(900, 1400, seen="ledge"), 'class="bench stage-fix"')

    def test_a_tick_is_small_however_much_hangs_there(self) -> None:
        page = Page(self.client, self.wall, "fix")
        few = page.drag(760, 1650)
        more = [
            rod_shelf(
                key=f"m{n}", left_mm=150.0 * (n % 14), top_mm=150.0 + 60 * n, name=f"More {n}"
            )
            for n in range(35)
        ]
        self.wall.record(
            replace(self.wall.plan(), pieces=(*self.wall.plan().pieces, *more)),
            "More",
            self.wall.seen,
        )
        many = Page(self.client, self.wall, "fix").drag(760, 1650)
        self.assertLess(few, 8_000)
        self.assertLess(many, 8_000)
