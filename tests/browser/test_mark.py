"""Marks on the real page: measured from elsewhere, and every format downloaded and opened."""

import io

import pdfplumber
from ezdxf.filemanagement import read
from icalendar import Calendar
from msgspec.structs import replace
from odfdo import Document
from playwright.sync_api import expect

from tests.browser.base import BrowserCase
from tests.plans import bracket_shelf, plan, wall
from tests.trade.test_every_kind import put_up
from trade.plan.datum import Datum
from trade.plan.model import Shop, Thing
from trade.plan.shop import OwnPart


class Marks(BrowserCase):
    def test_measured_from_another_corner_and_a_level_line_and_undone(self) -> None:
        wall = self.open(plan(bracket_shelf()), "mark", "shelf")
        expect(self.page.locator(".hole-row").first).to_contain_text("800 mm")
        self.page.locator("#id_across").select_option("right")
        expect(self.page.locator(".hole-row").first).to_contain_text("2400 mm")
        self.page.locator("#id_line").fill("1 m")
        self.page.locator("#id_line").press("Tab")
        expect(self.page.locator(".subtitle")).to_contain_text(
            "a level line 1000 mm above the floor"
        )
        self.assertEqual(self.now(wall).datum, Datum(across="right", line_mm=1000.0))
        self.page.locator("#undo").click()
        expect(self.page.locator(".subtitle")).to_contain_text("up from the floor")
        self.assertAccessible()

    def test_every_format_is_fetched_and_opens(self) -> None:
        self.open(plan(bracket_shelf()), "mark", "shelf")
        fetched = {}
        for name in ("template-pdf", "template-svg", "template-dxf", "sticks-pdf", "wall-pdf"):
            address = self.page.locator(f"#{name}").get_attribute("href")
            answer = self.context.request.get(self.live_server_url + str(address))
            self.assertTrue(answer.ok, name)
            fetched[name] = answer.body()
        with pdfplumber.open(io.BytesIO(fetched["template-pdf"])) as paper:
            self.assertIn("print at 100 %", paper.pages[0].extract_text(x_tolerance_ratio=0.1))
        with pdfplumber.open(io.BytesIO(fetched["sticks-pdf"])) as paper:
            self.assertIn("along the shelf", paper.pages[0].extract_text(x_tolerance_ratio=0.1))
        with pdfplumber.open(io.BytesIO(fetched["wall-pdf"])) as paper:
            self.assertIn("on paper", paper.pages[0].extract_text(x_tolerance_ratio=0.1))
        self.assertEqual(
            len(read(io.StringIO(fetched["template-dxf"].decode())).modelspace().query("CIRCLE")), 8
        )
        self.assertEqual(fetched["template-svg"].count(b"<circle"), 8)


class Cutting(BrowserCase):
    def test_the_saws_plan_follows_the_saw_and_a_checker_finds_nothing(self) -> None:
        wall = self.open(plan(bracket_shelf()), "fix", "shelf")
        self.page.keyboard.press("5")
        expect(self.page.locator("#notch-cut")).to_have_attribute("aria-current", "step")
        expect(self.page.locator(".panel")).to_contain_text("1 board of red oak")
        self.page.locator("#id_kerf").fill("4 mm")
        self.page.locator("#id_kerf").press("Tab")
        expect(self.page.locator("#undo")).to_be_enabled()
        self.assertEqual(self.now(wall).policy.kerf_mm, 4.0)
        self.assertAccessible()

    def test_each_look_is_reached_and_reads_well(self) -> None:
        self.open(
            plan(put_up("ledger_shelf", wall(), things=(Thing(name="Cases", mass_kg=6.0),))), "cut"
        )
        for look, words in (
            ("parts", "Wood as it is"),
            ("stock", "At hand"),
            ("buy", "In all about"),
            ("days", "Step by step"),
            ("saw", "Set the stop to"),
        ):
            self.page.locator(f"#look-{look}").click()
            expect(self.page.locator(".panel")).to_contain_text(words)
            self.assertAccessible()

    def test_a_board_at_hand_saves_buying_one_and_undo_buys_it_again(self) -> None:
        wall = self.open(plan(bracket_shelf()), "cut")
        expect(self.page.locator(".subtitle")).to_contain_text("of wood")
        self.page.locator("#look-stock").click()
        self.page.locator("#add-hand summary").click()
        self.page.locator("#id_board").select_option("oak_red")
        for field, value in (("length", "1.2 m"), ("width", "260 mm"), ("thickness", "20 mm")):
            self.page.locator(f"#id_{field}").fill(value)
        self.page.locator("#add-hand .btn-primary").click()
        expect(self.page.locator(".subtitle")).not_to_contain_text("of wood")
        self.assertEqual(len(self.now(wall).shop.on_hand), 1)
        self.page.locator("#undo").click()
        expect(self.page.locator(".subtitle")).to_contain_text("of wood")

    def test_a_price_and_a_finish_save_themselves(self) -> None:
        wall = self.open(plan(bracket_shelf()), "cut")
        self.page.locator("#look-buy").click()
        self.page.locator("#id_price-0").fill("12.5")
        self.page.locator("#id_price-0").press("Tab")
        expect(self.page.locator("tr.mine")).to_have_count(1)
        self.page.locator("#look-days").click()
        self.page.locator("#id_first").select_option("oil_stain")
        expect(self.page.locator("#undo")).to_be_enabled()
        self.page.locator("#id_top").select_option("water_varnish")
        expect(self.page.locator(".coats")).to_contain_text("Dewaxed shellac")
        self.assertEqual(
            (self.now(wall).shop.finish.top, self.now(wall).shop.prices[0].each),
            ("water_varnish", 12.5),
        )

    def test_every_file_is_fetched_and_opens(self) -> None:
        self.open(plan(put_up("panel", wall(), things=(Thing(name="Keys", mass_kg=2.0),))), "cut")
        fetched = {}
        for look, names in (
            ("saw", ("saw-pdf", "labels-pdf")),
            ("buy", ("shop-pdf", "shopping-csv", "shopping-ods")),
            ("days", ("days-ics",)),
        ):
            self.page.locator(f"#look-{look}").click()
            for name in names:
                expect(self.page.locator(f"#{name}")).to_be_visible()
                address = self.page.locator(f"#{name}").get_attribute("href")
                answer = self.context.request.get(self.live_server_url + str(address))
                self.assertTrue(answer.ok, name)
                fetched[name] = answer.body()
        for name in ("saw-pdf", "labels-pdf", "shop-pdf"):
            with pdfplumber.open(io.BytesIO(fetched[name])) as paper:
                self.assertTrue(paper.pages[0].extract_text(x_tolerance_ratio=0.1), name)
        self.assertIn(b"softwood plywood", fetched["shopping-csv"])
        self.assertEqual(Document(io.BytesIO(fetched["shopping-ods"])).get_type(), "spreadsheet")
        self.assertTrue(Calendar.from_ical(fetched["days-ics"]).walk("VEVENT"))

    def test_two_hundred_parts_show_how_far_they_are_and_come(self) -> None:
        own = tuple(
            OwnPart(
                name=f"Part {n}",
                board=board,
                length_mm=300.0 + 7 * n,
                width_mm=90.0 + n,
                thickness_mm=thick,
                many=2,
            )
            for board, thick in (("plywood", 18.0), ("mdf", 12.7))
            for n in range(50)
        )
        self.page.route(
            "**/working/**",
            lambda route: (
                seen.append(self.page.locator("#working").inner_text()),
                route.continue_(),
            ),
        )
        seen: list[str] = []
        self.open(replace(plan(bracket_shelf()), shop=Shop(own=own)), "cut")
        expect(self.page.locator(".panel")).to_contain_text("201 parts")
        self.assertIn("of 3 woods", seen[0])
        self.assertIn("Stop", seen[0])
