"""From nothing to what was wanted, the way somebody would go who opens it for the first time."""

from playwright.sync_api import Locator, expect

from bench.models import Wall
from tests.browser.base import BrowserCase
from trade.assess import assess
from trade.choose.entry import entries
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.mounts import mount_of


class FromNothing(BrowserCase):
    def new_wall(self, units: str, **said: str) -> None:
        """Answer the three questions."""
        self.page.goto(f"/walls/new/?units={units}")
        for field, answer in said.items():
            box = self.page.locator(f"#id_{field}")
            if field in ("lining", "structure"):
                box.select_option(answer)
            else:
                box.fill(answer)
        self.page.get_by_role("button", name="On to the bench").click()
        expect(self.page.locator("#wall-face")).to_be_visible()

    def tap_wall(self, across: float, up: float) -> None:
        box = self.page.locator("#wall-face").bounding_box()
        assert box is not None
        self.page.mouse.click(box["x"] + box["width"] * across, box["y"] + box["height"] * up)

    def word(self) -> Locator:
        return self.page.locator("#verdict .word")

    def test_a_cabinet_dropped_off_the_studs_is_cured_by_one_tap(self) -> None:
        self.new_wall("imperial", width="10'", lining="gypsum_12_7", studs="16 every 16")
        self.page.locator("#catch").uncheck()
        self.page.locator("#more-mounts").click()
        self.page.get_by_role("button", name="Cabinet on a cleat").click()
        self.tap_wall(0.45, 0.3)
        expect(self.word()).to_have_text("Can't tell")
        self.page.locator("#place summary").click()
        self.page.locator("#id_body_kg").fill("35")
        self.page.locator("#id_body_kg").press("Tab")
        self.page.locator("#notch-load").click()
        self.page.locator("#id_thing-0-name").fill("Plates")
        self.page.locator("#id_thing-0-weight").fill("25")
        self.page.locator("#id_thing-0-weight").press("Tab")
        expect(self.word()).to_have_text("Holds")
        self.page.locator("#notch-fix").click()
        self.drag(self.page.locator(".piece .grip"), 8 * 25.4 * self.px_per_mm(), 0)
        expect(self.word()).to_have_text("Won't hold")
        self.page.locator(".cure").first.click()
        expect(self.word()).to_have_text("Holds")
        [piece] = Wall.objects.latest("pk").plan().pieces
        loaded = (mount_of(piece).body_kg(piece) or 0.0) + (piece.things[0].mass_kg or 0.0)
        self.assertAlmostEqual(loaded, 60 * 0.45359237, places=6)

    def test_on_brick_in_millimetres_from_the_wish_to_the_shopping_list(self) -> None:
        self.new_wall("metric", width="3200", structure="brick_solid", lining="bare")
        self.page.locator("#hang-something").click()
        self.page.locator("#id_hang-what").select_option("books")
        expect(self.page.locator("#id_hang-amount-unit")).to_have_text("mm")
        self.page.locator("#id_hang-amount").fill("900")
        self.page.locator("#hang-it").click()
        self.tap_wall(0.5, 0.4)
        expect(self.word()).to_have_text("Holds")
        way = self.page.locator(".strip .way-button[aria-pressed]")
        expect(way).to_contain_text("€")
        asked = way.inner_text()
        for stage in ("mark", "cut"):
            self.page.locator(f"#notch-{stage}").click()
            expect(self.page.locator(f"#notch-{stage}")).to_have_attribute("aria-current", "step")
        self.page.locator("#look-buy").click()
        listed = self.page.locator(".buying tbody")
        expect(listed).to_contain_text("plug")
        expect(listed).to_contain_text("board")
        plan = Wall.objects.latest("pk").plan()
        bought = shopping(plan, cut_plan(plan), plan.units)
        self.assertEqual((assess(plan).pieces[0].outcome, bought.unpriced), ("holds", ()))
        self.assertIn(f"€{bought.cost:.0f}", asked)
        expect(self.page.locator(".in-all")).to_contain_text(f"€{bought.cost:.2f}")
        self.assertEqual(entries(plan)[0].thought_cost, bought.cost)
        self.page.locator("#notch-hang").click()
        expect(self.page.locator("#panel")).to_contain_text("Set the anchors of the left bracket")
