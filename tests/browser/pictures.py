"""Takes the pictures in docs/screenshots/ from the demo data: `bin/pictures`. Not a test; discovery does not find it."""

from pathlib import Path

from bench import demo
from bench.models import Wall
from tests.browser.base import PHONE, BrowserCase

SHOTS = Path(__file__).resolve().parents[2] / "docs" / "screenshots"


class Desk(BrowserCase):
    def shoot(self, name: str, address: str) -> None:
        self.page.goto(address)
        self.take(name)

    def take(self, name: str) -> None:
        self.page.wait_for_load_state("networkidle")
        self.page.evaluate("document.fonts.ready.then(() => 1)")
        self.page.screenshot(path=SHOTS / f"{name}.png", animations="disabled")

    def wall(self) -> str:
        demo.load()
        return f"/walls/{Wall.objects.get(job__name=demo.JOB).pk}"

    def test_desk(self) -> None:
        wall = self.wall()
        self.shoot("fix", f"{wall}/fix/?piece=paint")
        self.shoot("survey", f"{wall}/survey/")
        self.shoot("load", f"{wall}/load/?piece=paint")
        self.shoot("mark", f"{wall}/mark/?piece=towels")
        self.shoot("walls", "/")
        self.shoot("new-wall", "/walls/new/")
        self.page.goto(f"{wall}/fix/?piece=trophies")
        self.page.locator('[data-code="screw.withdrawal"] summary').click()
        self.page.locator('[data-code="screw.withdrawal"]').evaluate("e => e.scrollIntoView()")
        self.take("fix-sum")
        self.page.emulate_media(color_scheme="dark")
        self.shoot("fix-dark", f"{wall}/fix/?piece=trophies")


class Phone(Desk):
    context_options = PHONE

    def test_desk(self) -> None:
        wall = self.wall()
        self.shoot("phone-fix", f"{wall}/fix/?piece=paint")
        self.page.goto(f"{wall}/mark/?piece=towels")
        self.page.locator(".panel").evaluate("e => e.scrollIntoView()")
        self.take("phone-mark")
