"""A closet of three walls, from bare walls to the shopping list; and at the wall with a phone."""

from typing import Any

from msgspec.structs import replace
from playwright.sync_api import expect

from bench import demo
from bench.models import Wall
from tests.browser.base import PHONE, BrowserCase
from trade.assess import assess
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.mounts.rests import loaded
from trade.plan.place import faced, turned


class Closet(BrowserCase):
    expected_errors = ("422",)

    def chip(self, name: str) -> None:
        self.page.get_by_role("navigation", name="Walls of this place").get_by_text(name).click()
        expect(self.page.locator(".crumb-wall")).to_contain_text(name)

    def add_wall(self, name: str, width: str, side: str, angle: str) -> None:
        self.page.locator("#look-room").click()
        expect(self.page.locator("#look-room")).to_have_attribute("aria-current", "true")
        if not self.page.locator("#add-wall").is_visible():
            self.page.locator("#s-add summary").click()
        self.page.locator("#id_side").select_option(side)
        self.page.locator("#id_wall_name").fill(name)
        self.page.locator("#id_wall_width").fill(width)
        self.page.locator("#id_wall_angle").fill(angle)
        self.page.locator("#add-wall-now").click()

    def studs(self, said: str) -> None:
        self.page.locator("#look-wall").click()
        expect(self.page.locator("#id_studs")).to_be_visible()
        self.page.locator("#id_studs").fill(said)
        self.page.locator("#id_studs").press("Tab")
        expect(self.page.locator("#notch-survey")).to_contain_text("stud")

    def test_from_bare_walls_to_the_shopping_list(self) -> None:
        self.page.goto("/walls/new/?units=metric")
        self.page.locator("#id_width").fill("1515")
        self.page.locator("#id_lining").select_option("gypsum_12_7")
        self.page.locator("#id_studs").fill("60, 400, 800, 1200, 1455")
        self.page.get_by_role("button", name="On to the bench").click()
        self.page.locator("#notch-survey").click()
        self.add_wall("Left wall", "620", "left", "89,2")
        expect(self.page.locator(".crumb-wall")).to_contain_text("Left wall")
        self.studs("380, 560")
        self.chip("First wall")
        self.add_wall("Right wall", "620", "right", "0")
        self.fail_kept()
        self.page.locator("#id_wall_angle").fill("90.6")
        self.page.locator("#add-wall-now").click()
        expect(self.page.locator(".crumb-wall")).to_contain_text("Right wall")
        self.studs("80, 240")
        self.chip("First wall")
        self.page.locator("#notch-fix").click()
        self.page.locator("#more-mounts").click()
        self.page.get_by_role("button", name="Shelf on ledgers, wall to wall").click()
        box = self.page.locator("#wall-face").bounding_box()
        assert box is not None
        self.page.mouse.click(box["x"] + box["width"] / 2, box["y"] + box["height"] / 3)
        self.page.locator("#notch-load").click()
        self.page.locator("#id_thing-0-name").fill("Bed linen")
        self.page.locator("#id_thing-0-weight").fill("6")
        self.page.locator("#id_thing-0-weight").press("Tab")
        expect(self.page.locator("#verdict .word")).to_have_text("Won't hold")  # its front edge
        self.page.locator("#notch-fix").click()
        self.page.locator(".cure").first.click()
        expect(self.page.locator("#verdict .word")).to_have_text("Holds")
        self.page.locator("#notch-mark").click()
        expect(self.page.locator("#panel")).to_contain_text("Round the corner, on “Left wall”")
        expect(self.page.locator("#panel")).to_contain_text("Round the corner, on “Right wall”")
        self.page.locator("#notch-cut").click()
        self.page.locator("#look-buy").click()
        plan = Wall.objects.latest("pk").plan()
        [piece] = plan.pieces
        self.assertEqual((piece.left_mm, piece.length_mm), (0.0, 1515.0))
        self.assertEqual([corner.angle_deg for corner in plan.corners], [89.2, 90.6])
        self.assertEqual(assess(plan).pieces[0].outcome, "holds")
        for line in shopping(plan, cut_plan(plan), plan.units).lines:
            if line.aisle == "fasteners":
                expect(self.page.locator(".buying tbody")).to_contain_text(str(line.needed))

    def fail_kept(self) -> None:
        """A corner of nothing is refused beside its field, and what was typed is kept."""
        expect(self.page.locator("#error-wall_angle")).to_contain_text("can't meet at 0°")
        expect(self.page.locator("#id_wall_name")).to_have_value("Right wall")

    def test_a_wall_goes_and_comes_back(self) -> None:
        wall = self.open(demo.linen_closet(), "survey")
        self.page.locator("#look-room").click()
        expect(self.page.locator(".room-row")).to_have_count(3)
        self.assertAccessible()
        self.page.locator("#remove-wall").click()
        expect(self.page.locator(".room-row")).to_have_count(2)
        self.page.keyboard.press("Control+z")
        expect(self.page.locator(".room-row")).to_have_count(3)
        self.assertEqual(self.now(wall), demo.linen_closet())

    def test_a_wall_of_the_drawing_leads_to_its_own_page(self) -> None:
        self.open(demo.alcoves(), "survey")
        self.page.locator("#look-room").click()
        self.page.locator(".room-wall", has_text="Left alcove").click()
        expect(self.page.locator(".crumb-wall")).to_contain_text("Left alcove")
        expect(self.page.locator(".piece")).to_have_count(2)
        self.chip("Window wall")
        expect(self.page.locator(".beside-outline").first).to_be_visible()


class InOneHand(BrowserCase):
    context_options: dict[str, Any] = PHONE

    def test_a_pantry_corner_of_two_depths(self) -> None:
        whole = turned(demo.pantry(), "wall-3")
        free = replace(whole.piece("side-1"), left_on=None, left_side=False)
        wall = self.open(turned(whole.with_piece(free), "wall"), "fix")
        self.page.get_by_role("navigation", name="Walls of this place").get_by_text("Right").tap()
        expect(self.page.locator(".crumb-wall")).to_contain_text("Right wall")
        self.page.locator("#choose-side-1").tap()
        expect(self.page.locator("#verdict .word")).to_have_text("Won't hold")
        self.page.locator("#place summary").tap()
        self.page.locator("#id_left_on").select_option(label="Tins, deep")
        expect(self.page.locator("#verdict .word")).to_have_text("Holds")
        now = turned(self.now(wall), "wall-3")
        self.assertEqual(now.piece("side-1"), replace(free, left_on="deep-1"))
        back = turned(now, "wall")
        self.assertIn("Tins, shallow", [t.name for t in loaded(back.piece("deep-1"), back).things])

    def test_one_wall_after_the_other(self) -> None:
        wall = self.open(demo.linen_closet(), "survey")
        self.page.locator("#look-room").click()
        shown = self.page.locator(".wall-swipe a")
        expect(shown).to_have_count(3)
        expect(shown.first).to_be_in_viewport()
        expect(shown.last).not_to_be_in_viewport()
        shown.last.scroll_into_view_if_needed()
        expect(shown.last).to_be_in_viewport()
        shown.last.click()
        expect(self.page.locator("h2.title")).to_have_text("Right wall")
        self.page.goto(f"/walls/{wall.pk}/hang/?piece=albums")
        expect(self.page.locator("#panel")).to_be_visible()
        self.assertEqual(len(faced(self.now(wall))), 3)
