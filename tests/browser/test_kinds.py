"""Every way to hang something, in a browser: put up, load, hold on any wall, look it up."""

from playwright.sync_api import expect

from bench import demo
from bench.models import Wall
from tests.browser.base import PHONE, BrowserCase
from tests.plans import bracket_shelf, plan
from tests.turns import in_turn
from trade.mounts import ALL
from trade.plan.model import Layer


class Options(BrowserCase):
    def test_another_way_to_hang_by_mouse_and_its_own_inputs(self) -> None:
        wall = self.open(plan(bracket_shelf()))
        self.page.locator("#more-mounts").click()
        expect(self.page.locator(".kinds-sheet .kind")).to_have_count(
            len(ALL) + 1
        )  # and what hangs itself
        self.page.get_by_role("button", name="Cabinet on a cleat").click()
        expect(self.page.locator(".kinds[open]")).to_have_count(0)
        box = self.page.locator("#wall-face").bounding_box()
        assert box is not None
        self.page.mouse.click(box["x"] + box["width"] * 0.75, box["y"] + box["height"] * 0.1)
        expect(self.page.locator("#verdict .word")).to_have_text("Can't tell")
        expect(self.page.locator("#verdict")).to_contain_text("weighs empty")
        self.page.locator("#place summary").click()
        weight = self.page.get_by_label("Weighs empty")
        weight.fill("18 kg")
        weight.press("Tab")
        expect(self.page.locator("#verdict")).not_to_contain_text("weighs empty")
        self.page.get_by_label("Locked").check()
        expect(self.page.locator('[data-code="cleat.seating"]')).to_have_count(0)
        made = self.now(wall).pieces[-1]
        self.assertEqual((made.body_kg, made.locked), (18.0, True))  # type: ignore[union-attr]

    def test_a_bookcase_by_keyboard_stands_on_the_floor(self) -> None:
        wall = self.open(plan(bracket_shelf()))
        self.page.locator("#more-mounts").focus()
        self.page.keyboard.press("Enter")
        self.page.get_by_role("button", name="Bookcase against tipping").focus()
        self.page.keyboard.press("Enter")
        self.page.keyboard.press("Enter")
        expect(self.page.locator(".panel .title")).to_contain_text("Bookcase")
        made = self.now(wall).pieces[-1]
        self.assertEqual((made.top_mm, made.high_mm), (2000.0, 2000.0))

    def test_so_much_of_something_from_the_list(self) -> None:
        wall = self.open(plan(bracket_shelf(things=())), "load", "shelf")
        self.page.locator("#id_amount").fill("60 cm")
        self.page.locator("#id_pick").select_option(label="books, mixed")
        self.page.locator("#add-thing").click()
        expect(self.page.locator("#verdict .word")).to_have_text("Holds")
        expect(self.page.get_by_label("What, row 1")).to_have_value("Books, mixed, 600 mm")
        self.assertEqual(self.now(wall).pieces[0].things[0].mass_kg, 18.0)
        self.page.keyboard.press("Control+z")
        expect(self.page.locator("#verdict .word")).to_have_text("Can't tell")

    def test_the_handbook_shows_every_way_and_a_checker_finds_nothing(self) -> None:
        self.page.goto("/kinds/")
        expect(self.page.locator(".way")).to_have_count(len(ALL))
        expect(self.page.locator("#cleat_cabinet")).to_contain_text("climbs off")
        self.assertAccessible()

    def test_a_checker_finds_nothing_on_walls_full_of_kinds(self) -> None:
        demo.load()
        pages = [
            ("East wall, story corner", "fix"),
            ("Workshop wall", "fix"),
            ("Closet, back wall", "mark"),
            ("Closet, back wall", "fix"),
            ("Closet, back wall", "load"),
        ]
        for n, (name, stage) in enumerate(pages):
            if in_turn(n, 0, 2):
                self.page.goto(f"/walls/{Wall.objects.get(name=name).pk}/{stage}/")
                self.settled()
                self.assertAccessible()


class Refused(BrowserCase):
    expected_errors = ("422",)

    def test_on_block_an_anchor_is_chosen_and_one_comes_out_of_a_packet(self) -> None:
        block = {
            "structure": "block_hollow",
            "studs": (),
            "layers": (Layer(kind="render", thickness_mm=13.0),),
        }
        wall = self.open(plan(bracket_shelf(), **block))
        expect(self.page.locator("#verdict")).to_contain_text("Choose an anchor")
        expect(self.page.locator(".cures button").first).to_contain_text("Hold it with")
        self.page.locator(".cures button").first.click()
        expect(self.page.locator("#verdict .word")).not_to_have_text("Won't hold")
        self.page.locator("#packet summary").click()
        for label, typed in (
            ("What it is called", "Grey plug"),
            ("Pulled out", "300 kg"),
            ("Along the wall", "much"),
        ):
            self.page.locator("#packet").get_by_label(label, exact=True).fill(typed)
        self.page.locator("#add-packet").click()
        expect(self.page.locator("#packet .error")).to_contain_text("as a load")
        expect(self.page.locator("#id_packet_name")).to_have_value("Grey plug")
        self.page.get_by_label("Along the wall", exact=True).fill("400 kg")
        self.page.locator("#add-packet").click()
        expect(self.page.locator(".cut-words-box")).to_contain_text("Grey plug")
        self.assertEqual(self.now(wall).pieces[0].anchor, "grey-plug")


class WaysOnAPhone(BrowserCase):
    context_options = PHONE

    def test_put_up_a_rail_with_a_thumb(self) -> None:
        wall = self.open(plan(bracket_shelf()))
        self.page.locator("#more-mounts").tap()
        rail = self.page.get_by_role("button", name="Rail with hooks")
        expect(rail).to_be_in_viewport()
        rail.tap()
        sheet = self.page.locator("#wall-face")
        sheet.scroll_into_view_if_needed()
        box = sheet.bounding_box()
        assert box is not None
        self.page.touchscreen.tap(box["x"] + box["width"] * 0.6, box["y"] + box["height"] * 0.75)
        expect(self.page.locator(".panel .title")).to_contain_text("Rail")
        self.assertEqual(len(self.now(wall).pieces), 2)
        width = self.page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(width, 390)
