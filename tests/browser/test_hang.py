"""At the wall, on a phone.

One thumb, one bad hole on the way, the connection lost in the middle.
"""

import io
import socket
import threading
from contextlib import suppress

import pdfplumber
from django.contrib.auth import get_user_model
from django.test import override_settings
from msgspec.structs import replace
from playwright.sync_api import expect

from bench.models import Job, Wall
from tests.browser.base import PHONE, BrowserCase
from tests.plans import bracket_shelf, plan, rod_shelf
from trade.assess import assess


class Cable(threading.Thread):
    """What lies between the phone and the server, and can be cut.

    Bytes go through both ways until then.
    """

    def __init__(self, to: int) -> None:
        super().__init__(daemon=True)
        self._to, self._open = to, list[socket.socket]()
        self._door = socket.create_server(("127.0.0.1", 0))
        self.port = self._door.getsockname()[1]

    def run(self) -> None:
        with suppress(OSError):
            while True:
                near, _ = self._door.accept()
                far = socket.create_connection(("127.0.0.1", self._to))
                self._open += [near, far]
                for one, other in ((near, far), (far, near)):
                    threading.Thread(target=self._carry, args=(one, other), daemon=True).start()

    def _carry(self, one: socket.socket, other: socket.socket) -> None:
        with suppress(OSError):
            while part := one.recv(65_536):
                other.sendall(part)
            other.shutdown(socket.SHUT_WR)

    def cut(self) -> None:
        with suppress(OSError):
            self._door.shutdown(socket.SHUT_RDWR)
        for each in (self._door, *self._open):
            with suppress(OSError):
                each.shutdown(socket.SHUT_RDWR)
            each.close()

    def mended(self) -> "Cable":
        new = Cable(self._to)
        new._door.close()
        new._door, new.port = socket.create_server(("127.0.0.1", self.port)), self.port
        new.start()
        return new


class AtTheWall(BrowserCase):
    context_options = PHONE
    expected_errors = (
        "ERR_CONNECTION",
        "ERR_SOCKET",
        "ERR_EMPTY",
        "status of 422",
        "status of 401",
    )

    def setUp(self) -> None:
        super().setUp()
        self.cable = Cable(int(self.live_server_url.rpartition(":")[2]))
        self.cable.start()
        self.addCleanup(lambda: self.cable.cut())
        self.here = f"http://127.0.0.1:{self.cable.port}"
        self.context = self.begin_context(self.here)  # one of its own, for it keeps a worker
        self.addCleanup(self.context.close)
        self.begin_page()

    def yes(self) -> None:
        self.page.locator(".step:not([hidden]) .tell-yes").tap()

    def heading(self, words: str) -> None:
        expect(self.page.locator(".step:not([hidden]) h2")).to_contain_text(words)

    def test_what_is_measured_at_the_rods_is_said_with_a_thumb(self) -> None:
        wall = self.open(plan(rod_shelf()), "hang", "ledge")
        self.page.goto(f"/walls/{wall.pk}/pieces/ledge/hang/?step=measure")
        self.heading("Measure where the rods really are")
        self.assertAccessible()
        places = self.page.locator("#places-measure")
        expect(places).to_have_value("100 mm, 900 mm")
        places.fill("104 mm")
        self.yes()
        expect(self.page.locator(".message")).to_contain_text("There are 2")
        self.page.locator("#places-measure").fill("104 mm, 897")
        with self.page.expect_response(
            lambda answer: answer.request.method == "POST"
        ):  # the step goes on before it is kept
            self.yes()
        self.heading("Bore the shelf from there")
        self.assertEqual(
            [each.places_mm for each in self.now(wall).as_built.mounted], [(104.0, 897.0)]
        )

    def test_an_undo_tapped_without_a_connection_takes_back_ones_own_tap_and_nobody_elses_change(
        self,
    ) -> None:
        wall = self.open(plan(bracket_shelf()), "hang", "shelf")
        self.page.goto(f"/walls/{wall.pk}/pieces/shelf/hang/")
        self.page.wait_for_load_state("networkidle")
        self.heading("at hand")
        self.cable.cut()
        self.yes()
        self.heading("Switch off")
        self.page.locator(".step:not([hidden]) button[value=undo]").tap()
        expect(self.page.locator("#kept")).to_contain_text("2 taps are kept here")
        kept = Wall.objects.get(pk=wall.pk)
        kept.record(replace(kept.plan(), name="Hall"), "Rename", kept.seen)
        self.cable = self.cable.mended()
        self.page.evaluate("window.dispatchEvent(new Event('online'))")
        expect(self.page.locator("#kept")).to_be_hidden()
        self.assertEqual((self.now(wall).name, self.now(wall).as_built.done), ("Hall", ()))

    def test_a_whole_hang_with_a_bad_hole_and_a_lost_connection(self) -> None:
        wall = self.open(plan(bracket_shelf()), "hang", "shelf")
        self.page.locator("#go-hang").tap()
        self.page.wait_for_url("**/pieces/shelf/hang/**")
        self.assertAccessible()
        for words in ("at hand", "Switch off", "studs", "line"):
            self.heading(words)
            self.yes()
        self.heading("Drill the left bracket, hole 1 of 4")
        self.assertEqual(self.page.locator(".about.now").count(), 1)
        self.page.locator(".step:not([hidden]) button[value=no_wood]").tap()
        expect(self.page.locator(".stop")).to_contain_text("Won't hold")
        self.assertAccessible()
        self.page.locator(".trouble-now .cure").first.tap()
        expect(self.page.locator(".stop")).to_have_count(0)
        self.assertEqual(assess(self.now(wall)).outcome, "holds")

        self.page.evaluate("navigator.serviceWorker.ready.then(() => 1)")
        self.page.reload()  # by now the worker keeps the page
        self.page.wait_for_load_state("networkidle")
        self.cable.cut()
        before = self.now(wall).as_built
        for _ in range(3):
            self.yes()
        expect(self.page.locator("#kept")).to_contain_text("3 taps are kept here")
        self.page.reload()
        expect(self.page.locator("#kept")).to_contain_text("3 taps are kept here")
        self.assertEqual(self.now(wall).as_built, before)
        self.cable = self.cable.mended()
        self.page.evaluate("window.dispatchEvent(new Event('online'))")
        expect(self.page.locator("#kept")).to_be_hidden()
        as_built = self.now(wall).as_built
        self.assertEqual(
            len(as_built.existing_holes("shelf")) + len(as_built.done),
            len(before.existing_holes("shelf")) + len(before.done) + 3,
        )

        while not self.page.locator(".hung").count():
            number = self.page.locator("#step-number").text_content()
            self.yes()
            self.page.wait_for_function(
                "was => document.querySelector('.hung') || "
                "document.getElementById('step-number').textContent !== was",
                arg=number,
            )
        as_built = self.now(wall).as_built
        self.assertEqual((len(as_built.existing_holes("shelf")), len(as_built.spoiled())), (8, 1))
        self.page.locator(".hung a").tap()
        expect(self.page.locator(".panel .subtitle")).to_contain_text("It hangs")
        expect(self.page.locator("#notch-hang")).to_contain_text("all up")

        self.page.locator("#notch-record").tap()
        self.page.locator("#save-built").tap()
        expect(self.page.locator(".panel")).to_contain_text("Holds as it hangs")
        self.assertAccessible()
        label = self.context.request.get(
            self.here + str(self.page.locator("#label-pdf").get_attribute("href"))
        )
        with pdfplumber.open(io.BytesIO(label.body())) as paper:
            self.assertIn(
                "Carries 20 kg in all", paper.pages[0].extract_text(x_tolerance_ratio=0.1)
            )

    @override_settings(PEOPLE="many")
    def test_a_session_that_ended_loses_no_tap(self) -> None:
        ana = get_user_model().objects.create_user("ana", password="a long enough one")
        wall = Wall.begin(Job.objects.create(name="Job", owner=ana), plan(bracket_shelf()), "Begin")
        here = f"/walls/{wall.pk}/pieces/shelf/hang/"
        self.sign_in(here)
        self.heading("at hand")
        self.context.clear_cookies(name="sessionid")
        self.yes()
        expect(self.page.locator("#kept")).to_contain_text("signed out")
        self.sign_in(here)
        self.heading("Switch off")
        self.assertEqual([each.step for each in self.now(wall).as_built.done], ["ready"])

        self.page.goto(f"/walls/{wall.pk}/fix/?piece=shelf")
        self.context.clear_cookies(name="sessionid")
        self.page.locator("#units-imperial").tap()
        expect(self.page.locator("#trouble")).to_contain_text("signed out")

    def sign_in(self, to: str) -> None:
        self.page.goto(to)
        self.page.locator("#id_username").fill("ana")
        self.page.locator("#id_password").fill("a long enough one")
        self.assertAccessible()
        self.page.locator("main button").tap()
        self.page.wait_for_url(f"**{to}**")

    def test_what_cannot_be_read_is_said_and_what_was_typed_stays(self) -> None:
        wall = self.open(plan(bracket_shelf()), "hang", "shelf")
        self.page.locator(".all-drill a").first.tap()
        self.page.locator(".step:not([hidden]) details:not(.tips) > summary").tap()
        off = self.page.locator(".step:not([hidden]) input[name=off]")
        off.fill("a bit")
        self.page.locator(".step:not([hidden]) button[value=stud_off]").tap()
        expect(self.page.locator(".message")).to_contain_text("Couldn't read “a bit”")
        expect(off).to_have_value("a bit")
        off.fill("12")
        self.page.locator(".step:not([hidden]) button[value=stud_off]").tap()
        expect(self.page.locator(".message")).to_have_count(0)
        self.assertIn(788.0, [stud.centre_mm for stud in self.now(wall).wall.studs])
