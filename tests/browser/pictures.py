"""Takes the pictures in docs/screenshots/ from the demo data: `bin/pictures`.

Not a test; discovery does not find it.
"""

from pathlib import Path

from bench import demo
from bench.models import Practice, Wall
from tests.browser.base import PHONE, BrowserCase
from trade.devices.hidden import LEVELS, build

SHOTS = Path(__file__).resolve().parents[2] / "docs" / "screenshots"


class WorkbenchContext(BrowserCase):
    def shoot(self, name: str, address: str) -> None:
        self.page.goto(address)
        self.take(name)

    def take(self, name: str) -> None:
        self.page.wait_for_load_state("networkidle")
        self.page.evaluate("document.fonts.ready.then(() => 1)")
        self.page.screenshot(path=SHOTS / f"{name}.png", animations="disabled")

    def wall(self) -> str:
        demo.load()
        return self.of(demo.JOB)

    def of(self, job: str, which: int = 0) -> str:
        """The first or second wall of a job."""
        return f"/walls/{Wall.objects.filter(job__name=job).order_by('pk')[which].pk}"

    def practise(self, name: str) -> None:
        """A sweep, two nails and some calls, one of them wrong."""
        hidden = build(12, LEVELS["services"])
        run = Practice.objects.create(seed=12, level="services")
        self.page.goto(run.get_absolute_url())
        box = self.page.locator("#wall-face").bounding_box()
        assert box is not None
        x, y, per_mm = box["x"], box["y"] + box["height"] / 2, box["width"] / hidden.width_mm
        mouse = self.page.mouse
        mouse.move(x + 4, y)
        mouse.down()
        mouse.move(x + box["width"] - 4, y, steps=30)
        mouse.up()
        for key, offs in (("n", (0.0, 60.0)), ("c", (0.0, 400.0, 800.0, 1190.0, 1500.0))):
            self.page.keyboard.press(key)
            for off in offs:
                mouse.click(x + (hidden.members[1].centre_mm + off) * per_mm, y - 60)
        self.page.locator("#call-count").get_by_text("5").wait_for()
        self.page.keyboard.press("f")
        mouse.move(x + 600 * per_mm, y)
        mouse.down()
        mouse.move(x + hidden.members[2].centre_mm * per_mm, y, steps=9)
        self.page.locator(".lit").wait_for()
        self.take(name)
        mouse.up()

    def look(self, name: str, address: str, ready: str) -> None:
        """One look at a piece, when what it works out has arrived."""
        self.page.goto(address)
        self.page.locator(ready).first.wait_for()
        self.take(name)

    def test_desk(self) -> None:
        wall = self.wall()
        self.shoot("fix", f"{wall}/fix/?piece=paint")
        self.look("ways", f"{wall}/fix/?piece=towels&look=ways", ".merits")
        self.look("where", f"{wall}/fix/?piece=towels&look=where", "#spot-1")
        self.page.goto(f"{wall}/fix/?piece=towels&look=if")
        self.page.locator("#if-load").focus()
        for _ in range(40):
            self.page.keyboard.press("ArrowRight")
        self.page.locator(".if-now").get_by_text("300 %").wait_for()
        self.take("what-if")
        self.page.goto(f"{wall}/fix/?piece=trophies&look=policy")
        self.page.locator("#effects-plates button").click()
        self.page.locator("#effects-plates .effect").first.wait_for()
        self.page.locator(".field-hollow").evaluate("e => e.scrollIntoView()")
        self.take("job")
        self.shoot("survey", f"{wall}/survey/")
        self.shoot("room", f"{self.of(demo.FLAT, 2)}/survey/?look=room")
        self.practise("practice")
        self.shoot("load", f"{wall}/load/?piece=paint")
        self.shoot("mark", f"{wall}/mark/?piece=towels")
        self.page.goto(f"{self.of(demo.LIBRARY, 4)}/cut/?look=parts")
        self.page.locator(".exploded").first.evaluate("e => e.parentElement.scrollIntoView()")
        self.page.locator(".exploded").first.evaluate("e => e.scrollIntoView()")
        self.take("cut")
        self.shoot("days", f"{self.of(demo.JOB, 1)}/cut/?look=days")
        self.shoot("record", f"{wall}/record/?piece=towels&look=proof")
        self.look("log", "/log/", ".bars-by")
        self.shoot("walls", "/")
        self.page.goto(f"{wall}/fix/?piece=trophies")
        self.page.locator('[data-code="screw.withdrawal"] summary').click()
        self.page.locator('[data-code="screw.withdrawal"]').evaluate("e => e.scrollIntoView()")
        self.take("fix-sum")
        self.page.emulate_media(color_scheme="dark")
        self.shoot("fix-dark", f"{wall}/fix/?piece=trophies")


class Phone(WorkbenchContext):
    context_options = PHONE

    def test_desk(self) -> None:
        wall = self.wall()
        self.shoot("phone-hang", f"{wall}/pieces/trophies/hang/?step=drill-2032-1768")
        self.page.goto(f"{wall}/mark/?piece=towels")
        self.page.locator(".panel").evaluate("e => e.scrollIntoView()")
        self.take("phone-mark")
