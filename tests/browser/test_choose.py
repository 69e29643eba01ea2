"""Choosing on the real page.

Hang a thing by what it is, adopt a way, cure it, look where and what if, and undo it all.
"""

from playwright.sync_api import Route, expect

from bench.demo import tool_corner
from bench.models import Job, Wall
from tests.browser.base import PHONE, BrowserCase
from tests.plans import bracket_shelf, plan
from trade.plan.model import Policy
from trade.plan.place import turned


class ByMouse(BrowserCase):
    def hang(self, what: str, amount: str, across: float = 0.5, up: float = 0.4) -> None:
        self.page.locator("#hang-something").click()
        self.page.locator("#id_hang-what").select_option(what)
        self.page.locator("#id_hang-amount").fill(amount)
        self.page.locator("#hang-it").click()
        box = self.page.locator("#wall-face").bounding_box()
        assert box is not None
        self.page.mouse.click(box["x"] + box["width"] * across, box["y"] + box["height"] * up)

    def test_hang_a_thing_adopt_a_way_cure_it_and_undo_it_all(self) -> None:
        wall = self.open(plan(bracket_shelf()).without_piece("shelf"))
        expect(self.page.locator(".panel")).to_contain_text("What do you want to hang?")
        self.hang("books", "90 cm")
        expect(self.page.locator("#verdict .word")).to_have_text("Holds")
        expect(self.page.locator("#look-ways")).to_have_attribute("aria-current", "true")
        first = self.now(wall)
        expect(self.page.locator(".strip .way-button[aria-pressed]")).to_contain_text(
            "Hangs so now"
        )
        expect(self.page.locator(".not-so")).to_contain_text("It needs a corner")
        self.page.locator("#way-box_shelf-studs").click()
        expect(self.page.locator(".subtitle")).to_contain_text("Hollow box shelf")
        expect(self.page.locator("#verdict .word")).to_have_text("Holds")
        self.page.locator("#undo").click()
        expect(self.page.locator(".subtitle")).to_contain_text("Shelf on brackets")
        self.assertEqual(self.now(wall), first)
        self.page.locator("#notch-load").click()
        self.page.locator("#id_thing-0-weight").fill("150 kg")
        self.page.locator("#id_thing-0-weight").press("Tab")
        expect(self.page.locator("#verdict .word")).to_have_text("Won't hold")
        self.page.locator("#notch-fix").click()
        cure = self.page.locator(".cure").first
        promised = cure.locator("small").inner_text()
        cure.click()
        expect(self.page.locator("#verdict .word")).to_have_text(
            "Holds" if promised.startswith("holds") else "Close"
        )
        self.assertIn(promised.split(", ")[1], self.page.locator(".check-used").first.inner_text())
        for _ in range(3):
            self.page.keyboard.press("Control+z")
        expect(self.page.locator(".piece")).to_have_count(0)
        self.assertEqual(self.now(wall).pieces, ())

    def test_will_these_do(self) -> None:
        wall = self.open(plan(bracket_shelf()), piece="shelf")
        self.page.locator("#look-ways").click()
        self.page.locator("#held-with").select_option("screw:screw_6")
        expect(self.page.locator("#held-with")).to_have_value("screw:screw_6")
        expect(self.page.locator(".not-so")).to_contain_text("6 mm wood screw does not hold it")
        box = self.page.locator(".strip .way-column", has_text="Hollow box shelf")
        expect(box.locator("[name=with]")).to_have_value("screw:screw_6")
        box.get_by_text("Hang it so").click()
        expect(self.page.locator(".subtitle")).to_contain_text("Hollow box shelf")
        self.assertEqual(self.now(wall).pieces[0].screw, "screw_6")
        self.page.locator("#held-with").select_option("anchor:plug_10")
        expect(self.page.locator(".ways-words h3").first).to_have_text("These will not do here")

    def test_what_cannot_be_read_stands_beside_its_field_and_is_kept(self) -> None:
        self.expected_errors = ("status of 422",)
        self.open(plan(bracket_shelf()).without_piece("shelf"))
        self.hang("books", "a lot")
        expect(self.page.locator(".field-amount .error")).to_contain_text("a lot")
        expect(self.page.locator("#id_hang-amount")).to_have_value("a lot")
        expect(self.page.locator("#id_hang-what")).to_have_value("books")
        expect(self.page.locator(".piece")).to_have_count(0)

    def test_where_else_it_could_hang_and_what_gives_way_first(self) -> None:
        wall = self.open(plan(bracket_shelf()), piece="shelf")
        self.page.locator("#look-where").click()
        expect(self.page.locator(".shade .spot-plenty").first).to_be_attached()
        strongest = self.page.locator("#spot-1")
        expect(strongest).to_contain_text("up to")
        strongest.click()
        expect(self.page.locator("#undo")).to_be_enabled()
        expect(self.page.locator("#look-where")).to_have_attribute("aria-current", "true")
        self.assertNotEqual(self.now(wall).pieces[0].left_mm, 700.0)
        self.page.keyboard.press("Control+z")
        self.page.locator("#look-if").click()
        expect(self.page.locator(".if-now")).to_contain_text("20 kg")
        slider = self.page.locator("#if-load")
        slider.focus()
        slider.press("End")
        expect(self.page.locator(".if-now")).to_contain_text("80 kg")
        expect(self.page.locator(".falls li").first).to_contain_text("gives way at")
        self.assertEqual(self.now(wall).pieces[0].things[0].mass_kg, 20.0)

    def test_what_more_goes_on_it_and_another_sort_of_wall(self) -> None:
        """A weight asked and refused, a row more by one tap, panels instead, all undone."""
        corner = turned(tool_corner(), "wall-2")
        wall = self.open(corner, piece="cleats")
        self.page.locator("#look-if").click()
        each = self.page.locator(".grow-each input")
        expect(self.page.locator(".falls-box", has=each)).to_contain_text("Room for 21 holders")
        each.fill("0")
        each.press("Tab")
        expect(self.page.locator(".grow-each")).to_contain_text("a weight that somebody could")
        self.page.locator(".grow-each input").fill("1 kg")
        self.page.locator(".grow-each input").press("Tab")
        expect(self.page.locator(".falls-box", has=each)).to_contain_text("19 more of 2.2 lb")
        self.page.get_by_role("button", name="One row more below").click()
        expect(self.page.locator("#undo")).to_be_enabled()
        self.assertEqual(turned(self.now(wall), "wall-2").piece("cleats").rows, 4)
        self.page.locator("#undo").click()
        expect(self.page.locator("#undo")).to_be_disabled()
        self.page.get_by_text("Other sorts of wall here, compared").click()
        panels = self.page.locator(".sorts-list li", has_text="Panels with a grid of holes")
        panels.get_by_text("Use this instead").click()
        expect(self.page.locator(".subtitle")).to_contain_text("Panels with a grid of holes")
        self.page.locator("#undo").click()
        expect(self.page.locator(".subtitle")).to_contain_text("Cleat wall")
        self.assertEqual(turned(self.now(wall), "wall-2").pieces, corner.pieces)

    def test_the_jobs_policy_and_what_it_would_change(self) -> None:
        wall = self.open(plan(bracket_shelf()), piece="shelf")
        other = Wall.begin(wall.job, plan(bracket_shelf()), "Begin")
        self.page.locator("#look-policy").click()
        self.page.locator("#effects-made button").click()
        expect(self.page.locator("#effects-made")).to_contain_text("“Shelf”")
        self.page.locator("#id_anchors").select_option("studs_only")
        expect(self.page.locator(".field-anchors .help")).to_contain_text("nothing but wood")
        self.assertEqual(self.now(wall).policy, Policy(anchors="studs_only"))
        self.page.locator("#share-policy").click()
        expect(self.page.locator(".notice")).to_contain_text("1 other wall")
        self.assertEqual(self.now(other).policy.anchors, "studs_only")
        self.assertEqual(Job.objects.count(), 1)

    def test_a_checker_finds_nothing_in_any_look(self) -> None:
        self.open(plan(bracket_shelf()), piece="shelf")
        for look, ready in (
            ("ways", ".merits"),
            ("where", "#spot-1"),
            ("if", ".falls"),
            ("policy", "#share-policy"),
        ):
            self.page.locator(f"#look-{look}").click()
            self.page.locator(ready).first.wait_for()
            with self.subTest(look=look):
                self.assertAccessible()


class OnAPhone(BrowserCase):
    context_options = PHONE

    def test_hang_coats_with_a_thumb_and_choose_another_way(self) -> None:
        wall = self.open(plan(bracket_shelf()).without_piece("shelf"))
        self.page.locator("#hang-something").tap()
        self.page.locator("#id_hang-what").select_option("coats")
        self.page.locator("#id_hang-amount").fill("5")
        self.page.locator("#hang-it").tap()
        sheet = self.page.locator("#wall-face")
        sheet.scroll_into_view_if_needed()
        box = sheet.bounding_box()
        assert box is not None
        self.page.touchscreen.tap(box["x"] + box["width"] * 0.5, box["y"] + box["height"] * 0.3)
        expect(self.page.locator("#verdict .word")).to_have_text("Holds")
        other = self.page.locator("button.way-button:enabled").first
        name = other.locator(".way-name").inner_text()
        other.tap()
        expect(self.page.locator(".subtitle")).to_contain_text(name)
        self.assertEqual(len(self.now(wall).pieces), 1)
        self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)


class LongWork(BrowserCase):
    def test_what_takes_long_says_so_and_can_be_stopped(self) -> None:
        wall = self.open(plan(bracket_shelf()), piece="shelf")
        held: list[Route] = []
        self.page.route(
            "**/pieces/shelf/lay/", lambda route: held.append(route)
        )  # an answer that never comes
        self.page.locator("#layout summary").click()
        self.page.locator("#lay-fit").click()
        expect(self.page.locator("#busy")).to_be_visible()
        self.page.locator("#busy button").click()
        expect(self.page.locator("#busy")).to_be_hidden()
        [never] = held
        never.abort()
        self.page.locator("#piece-shelf").focus()
        self.page.keyboard.press("ArrowRight")
        expect(self.page.locator("#piece-shelf")).to_have_attribute("data-left", "701.0")
        self.assertEqual(self.now(wall).piece("shelf").left_mm, 701.0)
