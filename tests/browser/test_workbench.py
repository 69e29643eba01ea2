"""The workbench in a browser: by mouse, finger and keyboard."""

import json
import re
import subprocess
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import expect

from bench import demo
from bench.models import Wall
from tests.browser.base import PHONE, BrowserCase
from tests.plans import bracket_shelf, plan, rod_shelf
from trade.cli.common import EXIT

ROOT = Path(__file__).resolve().parents[2]


# of a long list the first dozen: the others are made alike
FEWER = """() => {
    for (const list of document.querySelectorAll('dl.rules, tbody'))
        for (const each of [...list.children].slice(12)) each.remove();
}"""


class AtTheBench(BrowserCase):
    def test_dragging_a_shelf_off_its_studs_changes_verdict_governing_part_and_marks(self) -> None:
        wall = self.open(plan(bracket_shelf(), rod_shelf(top_mm=800.0)), "mark", "shelf")
        first_hole = self.page.locator(".hole-row").first
        expect(first_hole).to_have_attribute("data-x", "800.0")
        expect(self.page.locator(".holes-part").first).to_contain_text("stud at 800 mm")
        self.page.keyboard.press("3")
        expect(self.page.locator("#verdict .word")).to_have_text("Holds")
        before = self.page.locator(".check-row").first.get_attribute("data-code")

        self.drag(self.page.locator("#piece-shelf .grip"), 150 * self.px_per_mm(), 0, alt=True)
        expect(self.page.locator("#verdict .word")).to_have_text("Won't hold")
        expect(self.page.locator("#verdict .sentence").first).to_contain_text("misses the stud by")
        self.assertNotEqual(
            self.page.locator(".check-row").first.get_attribute("data-code"), before
        )
        expect(self.page.locator("#piece-shelf .shape-steel.governs")).to_have_count(1)
        expect(self.page.locator("#undo")).to_be_enabled()
        self.assertAlmostEqual(self.now(wall).piece("shelf").left_mm, 850.0, delta=4.0)
        self.page.keyboard.press("4")
        expect(self.page.locator(".panel .message")).to_contain_text("Don't drill yet")
        expect(self.page.locator(".holes-caution").first).to_contain_text(
            "no stud behind this mark"
        )
        self.assertNotEqual(self.page.locator(".hole-row").first.get_attribute("data-x"), "800.0")
        self.agrees_with_the_command_line()

    def agrees_with_the_command_line(self) -> None:
        """Export the plan as a person would, judge it from a shell, and compare every digit."""
        with self.page.expect_download() as got:
            self.page.get_by_role("link", name="Plan file").click()
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "wall.json"
            got.value.save_as(path)
            run = subprocess.run(
                [sys.executable, "-m", "trade", "assess", str(path), "--json"],
                capture_output=True,
                text=True,
                cwd=ROOT,
            )
        told = json.loads(run.stdout)
        self.page.keyboard.press("3")
        expect(self.page.locator("#notch-fix")).to_have_attribute("aria-current", "step")
        for piece in told["pieces"]:
            self.page.locator(f"#choose-{piece['key']}").click()
            expect(self.page.locator(f"#choose-{piece['key']}")).to_have_attribute(
                "aria-current", "true"
            )
            rows = self.page.locator(".check-row").evaluate_all(
                "rows => rows.map(r => [r.dataset.code, r.dataset.word, r.dataset.utilisation])"
            )
            told_rows = [[c["code"], c["word"], repr(c["utilisation"])] for c in piece["checks"]]
            self.assertEqual(sorted(rows), sorted(told_rows))  # there limit state by limit state
            self.assertEqual(rows[0], told_rows[0])
        self.assertEqual(run.returncode, EXIT[told["word"]])

    def test_supports_catch_on_studs(self) -> None:
        wall = self.open(plan(bracket_shelf()), "fix", "shelf")
        self.drag(
            self.page.locator("#piece-shelf .grip"), 390 * self.px_per_mm(), -100 * self.px_per_mm()
        )
        expect(self.page.locator("#undo")).to_be_enabled()
        self.assertEqual(self.now(wall).piece("shelf").left_mm, 1100.0)
        self.page.locator("#undo").click()
        expect(self.page.locator("#redo")).to_be_enabled()
        self.assertEqual(self.now(wall).piece("shelf").left_mm, 700.0)

    def test_the_verdict_is_live_while_dragging_and_escape_puts_it_back(self) -> None:
        wall = self.open(plan(bracket_shelf()), "fix", "shelf")
        x, y = self.centre(self.page.locator("#piece-shelf .grip"))
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.keyboard.down("Alt")
        self.page.mouse.move(x + 150 * self.px_per_mm(), y, steps=5)
        expect(self.page.locator("#verdict .word")).to_have_text("Won't hold")
        self.assertEqual(self.now(wall).piece("shelf").left_mm, 700.0)
        self.page.keyboard.up("Alt")
        self.page.keyboard.press("Escape")
        expect(self.page.locator("#verdict .word")).to_have_text("Holds")
        self.page.mouse.up()
        self.assertEqual(self.now(wall).piece("shelf").left_mm, 700.0)

    def test_a_neighbour_that_is_run_into_says_so_until_the_finger_moves_on(self) -> None:
        self.open(plan(bracket_shelf(), rod_shelf()), "fix", "shelf")
        ledge, rows = self.page.locator("#piece-ledge"), self.page.locator("#checks .check-row")
        told, steady = rows.count(), self.page.locator('[data-code="board.bending"] summary').first
        steady.click()  # what a move doesn't change stays as it was opened
        x, y = self.centre(self.page.locator("#piece-shelf .grip"))
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x, y + 600 * self.px_per_mm(), steps=5)
        expect(ledge).to_have_class(re.compile("piece-doesnt_fit"))
        expect(self.page.locator('[data-code="piece.clash"]')).to_be_visible()
        self.page.mouse.move(x, y + 100 * self.px_per_mm(), steps=5)
        expect(ledge).to_have_class(re.compile("piece-holds"))
        expect(rows).to_have_count(told)
        expect(self.page.locator('[data-code="board.bending"] .sum').first).to_be_visible()
        self.page.mouse.up()
        expect(self.page.locator("#undo")).to_be_enabled()
        expect(self.page.locator('[data-code="board.bending"] .sum').first).to_be_visible()

    def test_by_keyboard_alone(self) -> None:
        wall = self.open(plan(bracket_shelf()), "fix", "shelf")
        self.page.locator("#piece-shelf").focus()
        began, _ = self.centre(self.page.locator("#piece-shelf .shape-board"))
        for key, left, top in (
            ("ArrowRight", 701, 1500),
            ("Shift+ArrowRight", 711, 1500),
            ("ArrowUp", 711, 1501),
            ("Shift+ArrowDown", 711, 1491),
        ):
            self.page.keyboard.press(key)
            expect(self.page.locator("#piece-shelf")).to_have_attribute(
                "data-left", re.compile(rf"^{left}(\.0)?$")
            )
            expect(self.page.locator("#piece-shelf")).to_have_attribute(
                "data-top", re.compile(rf"^{top}(\.0)?$")
            )
            expect(self.page.locator("#piece-shelf")).to_be_focused()
        drawn, _ = self.centre(self.page.locator("#piece-shelf .shape-board"))
        self.assertAlmostEqual(drawn - began, 11 * self.px_per_mm(), delta=0.2)
        for _ in range(4):
            self.page.keyboard.press("Control+z")
        expect(self.page.locator("#piece-shelf")).to_have_attribute("data-left", "700.0")
        self.assertEqual(self.now(wall).piece("shelf"), bracket_shelf())
        self.page.keyboard.press("Control+Shift+z")
        expect(self.page.locator("#piece-shelf")).to_have_attribute("data-left", "701.0")
        self.page.locator("#piece-shelf").focus()
        self.page.keyboard.press("Delete")
        expect(self.page.locator(".piece")).to_have_count(0)
        self.page.keyboard.press("Shift+P")
        expect(self.page.get_by_role("button", name="Shelf on brackets")).to_be_focused()
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#put-up-hint")).to_be_visible()
        self.page.keyboard.press("Enter")
        expect(self.page.locator(".piece")).to_have_count(1)
        self.page.keyboard.press("?")
        expect(self.page.locator("#keys")).to_be_visible()
        self.page.keyboard.press("Escape")
        self.page.keyboard.press("2")
        expect(self.page.locator("#notch-load")).to_have_attribute("aria-current", "step")

    def test_put_up_load_and_see_it_hold(self) -> None:
        wall = self.open(plan(bracket_shelf()).without_piece("shelf"), "fix")
        self.page.locator("#more-mounts").click()
        self.page.get_by_role("button", name="Shelf on brackets").click()
        x, y = self.centre(self.page.locator("#wall-face"))
        self.page.mouse.click(x, y)
        expect(self.page.locator("#verdict .word")).to_have_text("Can't tell")
        self.page.keyboard.press("2")
        self.page.locator("#id_thing-0-name").fill("Plates")
        self.page.locator("#id_thing-0-weight").fill("12 kg")
        self.page.locator("#id_thing-0-weight").press("Tab")
        expect(self.page.locator("#verdict .word")).to_have_text("Holds")
        self.assertEqual(self.now(wall).pieces[0].things[0].mass_kg, 12.0)
        self.page.locator("#id_thing-1-name").fill("Kettle")
        self.page.locator("#id_thing-1-name").press("Tab")
        expect(self.page.locator("#verdict .asks-list")).to_contain_text("what “Kettle” weighs")

    def test_a_link_under_the_finger_stays_pressed_while_the_page_is_drawn_anew(self) -> None:
        self.open(demo.changing_room(), "fix", "paint")
        x, y = self.centre(self.page.locator("#choose-towels"))
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.evaluate("htmx.ajax('GET', location.href, {source: '#bench'})")
        self.page.mouse.up()
        expect(self.page.locator(".panel .title")).to_have_text("Towel shelf")

    def test_quick_clicks_all_arrive_and_back_goes_back(self) -> None:
        wall = self.open(demo.changing_room(), "fix", "paint")
        for key in ("towels", "trophies", "paint", "towels"):
            self.page.locator(f"#choose-{key}").click()
        self.page.locator("#notch-mark").click()
        expect(self.page.locator(".panel .title")).to_have_text("Drill for Towel shelf")
        self.assertEqual(self.page.title(), "East wall, changing room · Mark · Gancho")
        self.page.go_back()
        expect(self.page.locator(".panel .title")).to_have_text("Towel shelf")
        self.page.reload()
        expect(self.page.locator("#choose-towels")).to_have_attribute("aria-current", "true")
        self.assertEqual(
            self.page.url.removeprefix(self.live_server_url), f"/walls/{wall.pk}/fix/?piece=towels"
        )

    def test_a_cure_and_undo(self) -> None:
        wall = self.open(demo.changing_room(), "fix", "paint")
        expect(self.page.locator("#verdict .word")).to_have_text("Won't hold")
        self.page.locator(".cure").first.click()
        expect(self.page.locator("#verdict .word")).to_have_text("Holds")
        self.page.locator("#undo").click()
        expect(self.page.locator("#verdict .word")).to_have_text("Won't hold")
        self.assertEqual(self.now(wall).piece("paint"), demo.changing_room().piece("paint"))

    def test_the_sum_opens_and_stays_open_and_units_change(self) -> None:
        self.open(plan(bracket_shelf()), "fix", "shelf")
        row = self.page.locator('[data-code="screw.withdrawal"]')
        row.locator("summary").click()
        expect(row.locator(".sum")).to_contain_text("NDS 2018 12.2.1")
        expect(row.locator(".steps")).to_contain_text("2850 G² (D/in) lb/in")
        self.page.locator("#units-imperial").click()
        expect(row.locator(".steps")).to_contain_text("lb/in")
        self.page.evaluate("scrollTo(0, 0)")

    def test_a_word_of_the_trade_is_explained_where_it_stands(self) -> None:
        self.open(plan(bracket_shelf()), "fix", "shelf")
        row, note = self.page.locator('[data-code="screw.shear"]'), self.page.locator("#term")
        row.locator("summary").click()
        row.locator(".term", has_text="lining").first.click()
        expect(note).to_be_visible()
        expect(note).to_contain_text("What covers the studs")
        self.assertAccessible()
        self.page.keyboard.press("Escape")
        expect(note).to_be_hidden()
        expect(row.locator(".sum")).to_be_visible()
        self.page.get_by_role("link", name="Glossary").click()
        expect(self.page.locator("#stud")).to_contain_text("An upright timber")

    def test_a_new_wall_draws_itself(self) -> None:
        self.page.goto("/")
        self.page.get_by_role("link", name="A new wall").click()
        self.page.locator("#id_width").fill("10'")
        self.page.locator("#id_lining").select_option("gypsum_12_7")
        self.page.locator("#id_studs").fill("16 every 16")
        expect(self.page.locator("#preview .stud")).to_have_count(7)
        self.page.get_by_role("button", name="On to the bench").click()
        expect(self.page.locator("#sheet .stud")).to_have_count(7)
        self.assertEqual(len(self.now(Wall.objects.latest("pk")).wall.studs), 7)

    def test_enter_makes_one_wall_even_while_it_is_about_to_be_drawn(self) -> None:
        posted: list[str] = []
        self.page.on("request", lambda r: posted.append(r.url) if r.method == "POST" else None)
        self.page.goto("/walls/new/")
        expect(self.page.locator("#preview")).to_contain_text("as you answer")
        self.page.locator("#id_width").fill("10'")
        self.page.locator("#id_lining").select_option("gypsum_12_7")
        self.page.locator("#id_studs").fill("16 every 16")
        self.page.locator("#id_width").press("Enter")
        expect(self.page.locator("#sheet .stud")).to_have_count(7)
        self.assertEqual(Wall.objects.count(), 1)
        self.assertEqual(
            [url for url in posted if url.endswith("/walls/new/")],
            [f"{self.live_server_url}/walls/new/"],
        )

    def test_nothing_that_a_checker_finds(self) -> None:
        wall = self.open(demo.changing_room(), "fix", "paint")
        for address in (
            *(f"/walls/{wall.pk}/{stage}/" for stage in ("survey", "load", "fix", "mark")),
            "/",
            "/rules/",
            "/glossary/",
            "/walls/new/",
            "/practice/",
        ):
            with self.subTest(address=address):
                self.page.emulate_media(color_scheme="light")
                self.page.goto(address)
                self.settled()
                self.page.evaluate(FEWER)
                self.assertAccessible()
                self.page.emulate_media(color_scheme="dark")
                self.assertAccessible(["color-contrast"])

    def test_the_page_does_not_scroll(self) -> None:
        wall = self.open(demo.changing_room(), "fix", "paint")
        for stage in ("survey", "load", "fix", "mark"):
            self.page.goto(f"/walls/{wall.pk}/{stage}/")
            self.assertLessEqual(
                self.page.evaluate("document.documentElement.scrollHeight - innerHeight"), 0
            )


class Refused(BrowserCase):
    expected_errors = ("status of 422",)

    def test_a_bad_length_stands_beside_its_field_with_what_was_typed(self) -> None:
        wall = self.open(plan(bracket_shelf()), "fix", "shelf")
        self.page.locator("#place summary").click()
        self.page.locator("#id_length").fill("forty two")
        self.page.locator("#id_length").press("Tab")
        expect(self.page.locator("#error-length")).to_contain_text("“forty two” is not a number")
        expect(self.page.locator("#id_length")).to_have_value("forty two")
        expect(self.page.locator("#id_length")).to_have_attribute("aria-invalid", "true")
        self.assertAccessible()
        self.page.locator("#id_length").fill("1200 mm")
        self.page.locator("#id_length").press("Tab")
        expect(self.page.locator("#error-length")).to_have_count(0)
        self.assertEqual(self.now(wall).piece("shelf").length_mm, 1200.0)


class NoConnection(BrowserCase):
    expected_errors = ("ERR_INTERNET_DISCONNECTED", "htmx:sendError", "undefined")

    def test_a_lost_connection_is_said_and_nothing_changes(self) -> None:
        wall = self.open(plan(bracket_shelf()), "fix", "shelf")
        self.context.set_offline(True)
        self.page.locator("#piece-shelf").focus()
        self.page.keyboard.press("ArrowRight")
        expect(self.page.locator("#trouble")).to_contain_text("No connection")
        self.assertEqual(self.now(wall).piece("shelf").left_mm, 700.0)


class OnAPhone(BrowserCase):
    context_options = PHONE

    def test_drag_by_finger_and_read_the_marks(self) -> None:
        wall = self.open(plan(bracket_shelf()), "fix", "shelf")
        self.touch_drag(
            self.page.locator("#piece-shelf .grip"), 400 * self.px_per_mm(), -150 * self.px_per_mm()
        )
        expect(self.page.locator("#undo")).to_be_enabled()
        self.assertEqual(self.now(wall).piece("shelf").left_mm, 1100.0)
        self.page.locator("#notch-mark").tap()
        expect(self.page.locator(".hole-row")).to_have_count(8)

    def test_targets_are_big_enough_and_nothing_sticks_out(self) -> None:
        wall = self.open(demo.changing_room(), "fix", "paint")
        for stage in ("survey", "load", "fix", "mark"):
            self.page.goto(f"/walls/{wall.pk}/{stage}/")
            self.assertEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)
            small = self.page.evaluate(
                """() => [...document.querySelectorAll(
                    'button, .notch, .cure, summary, label:has([type=checkbox]), '
                    + 'input:not([type=hidden], [type=checkbox]), select')]
                .filter(e => e.offsetParent && !e.matches('.visually-hidden-focusable')
                    && e.getBoundingClientRect().height < 44)
                .map(e => e.outerHTML.slice(0, 120))"""
            )
            self.assertEqual(small, [])
        self.assertAccessible()
