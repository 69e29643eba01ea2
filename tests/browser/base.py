"""Tests on the real pages in Debian's Chromium."""

import os
from collections.abc import Sequence
from functools import cache
from multiprocessing.util import Finalize
from pathlib import Path
from typing import Any

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.test import tag
from playwright.sync_api import Browser, BrowserContext, Locator, expect, sync_playwright

from bench.models import Job, Wall
from trade.plan.model import Plan

# half the work of the whole browser; pictures are taken with that one
CHROMIUM = os.environ.get("CHROMIUM", "/usr/bin/chromium-headless-shell")
ARGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--font-render-hinting=none",
]
AXE = Path(__file__).with_name("vendor") / "axe.min.js"
AXE_RUN = """async runOnly =>
    (await axe.run(document, {runOnly, resultTypes: ['violations'], preload: false})).violations
    .map(v => v.id + ': ' + v.nodes.map(n => n.target.join(' ')).join(', '))"""
WCAG = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]
WAIT_MS = 90_000  # a search of 3 s took 30 on a busy machine
PHONE: dict[str, Any] = {
    "viewport": {"width": 390, "height": 844},
    "has_touch": True,
    "is_mobile": True,
}

expect.set_options(timeout=WAIT_MS)

LEFT = (
    "htmx:sendAbort",
    "htmx:afterRequest",
)  # what is said of a page that was left while it asked for something


@cache
def chromium() -> Browser:
    """Return the browser of this process: started once, for that takes longer than most tests."""
    # Playwright's sync API keeps an event loop in this thread, so Django would refuse the ORM
    os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"
    running = sync_playwright().start()
    Finalize(None, running.stop, exitpriority=1)  # at the end of a test worker, too
    return running.chromium.launch(executable_path=CHROMIUM, args=ARGS)


@tag("browser")
class BrowserCase(StaticLiveServerTestCase):
    """A page, a wall to open, and a look at the console and at every address asked for."""

    context_options: dict[str, Any] = {"viewport": {"width": 1280, "height": 800}}
    expected_errors: tuple[str, ...] = ()

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.context = cls.begin_context(cls.live_server_url)
        cls.addClassCleanup(cls.context.close)
        # a page that stays open keeps what is loaded: half the time of a short test
        cls.first_page = cls.context.new_page()
        cls.first_page.goto("/static/bench/hook.svg")

    @classmethod
    def begin_context(cls, here: str) -> BrowserContext:
        """Return a browser's profile, with nothing in it."""
        options = {
            "locale": "en-GB",
            "timezone_id": "UTC",
            "reduced_motion": "reduce",
        } | cls.context_options
        context = chromium().new_context(base_url=here, **options)
        context.set_default_timeout(WAIT_MS)
        return context

    def setUp(self) -> None:
        super().setUp()
        self.here = self.live_server_url
        self.console_errors: list[str] = []
        self.asked: list[str] = []
        self.addCleanup(self.forget)
        self.begin_page()

    def begin_page(self) -> None:
        self.page = self.context.new_page()
        self.page.on(
            "console", lambda m: self.console_errors.append(m.text) if m.type == "error" else None
        )
        self.page.on("pageerror", lambda e: self.console_errors.append(str(e)))
        self.page.on("request", lambda r: self.asked.append(r.url))

    @classmethod
    def forget(cls) -> None:
        """Leave nothing of a test in the browser but what it has loaded."""
        for page in cls.context.pages[1:]:
            page.close()
        cls.context.set_offline(False)
        kept = "cookies,local_storage,service_workers,cache_storage"
        cls.context.new_cdp_session(cls.first_page).send(
            "Storage.clearDataForOrigin", {"origin": cls.live_server_url, "storageTypes": kept}
        )

    def tearDown(self) -> None:
        expected = (*self.expected_errors, *LEFT)
        self.assertEqual([e for e in self.console_errors if not any(x in e for x in expected)], [])
        self.assertEqual(
            [url for url in self.asked if not url.startswith((self.here, "data:"))], []
        )
        super().tearDown()

    def open(self, plan: Plan, stage: str = "fix", piece: str = "") -> Wall:
        """Open a wall at a stage."""
        wall = Wall.begin(Job.objects.create(name="Job"), plan, "Begin")
        self.page.goto(f"/walls/{wall.pk}/{stage}/" + (f"?piece={piece}" if piece else ""))
        return wall

    def settled(self) -> None:
        """Wait until the page asks for nothing any more."""
        expect(self.page.locator(".htmx-request")).to_have_count(0)

    def now(self, wall: Wall) -> Plan:
        """The plan that is kept."""
        return Wall.objects.get(pk=wall.pk).plan()

    def centre(self, locator: Locator) -> tuple[float, float]:
        locator.scroll_into_view_if_needed()
        box = locator.bounding_box()
        assert box is not None
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def px_per_mm(self) -> float:
        """Screen pixels to a millimetre of wall."""
        return float(
            self.page.evaluate(
                "document.getElementById('sheet').getScreenCTM().a * "
                "document.getElementById('bench').dataset.scale"
            )
        )

    def drag(self, locator: Locator, dx: float, dy: float, alt: bool = False) -> None:
        x, y = self.centre(locator)
        mouse = self.page.mouse
        if alt:
            self.page.keyboard.down("Alt")
        mouse.move(x, y)
        mouse.down()
        mouse.move(x + dx, y + dy, steps=8)
        mouse.up()
        if alt:
            self.page.keyboard.up("Alt")

    def touch_drag(self, locator: Locator, dx: float, dy: float) -> None:
        self.touch_from(*self.centre(locator), dx, dy)

    def touch_from(self, x: float, y: float, dx: float, dy: float) -> None:
        cdp = self.context.new_cdp_session(self.page)

        def send(kind: str, *points: tuple[float, float]) -> None:
            cdp.send(
                "Input.dispatchTouchEvent",
                {"type": kind, "touchPoints": [{"x": a, "y": b} for a, b in points]},
            )

        send("touchStart", (x, y))
        for i in range(1, 9):
            send("touchMove", (x + dx * i / 8, y + dy * i / 8))
        send("touchEnd")

    def assertAccessible(self, rules: Sequence[str] = ()) -> None:
        """Let a checker look for all that it knows, or by some of its rules."""
        if not self.page.evaluate("'axe' in window"):
            self.page.evaluate(AXE.read_text() + "\n;0")
        self.assertEqual(self.page.evaluate(AXE_RUN, list(rules or WCAG)), [])
