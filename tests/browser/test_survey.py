"""The survey and the practice wall in a browser: by mouse, finger and keyboard."""

from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from django.test import override_settings
from playwright.sync_api import Locator, expect

from bench import demo
from bench.models import Practice
from tests.browser.base import PHONE, BrowserCase
from tests.plans import bracket_shelf, plan
from trade.devices.hidden import LEVELS, build
from trade.devices.practice import set_up
from trade.parse import spreadsheet
from trade.plan.readings import ByHand, Edge, MagnetHit, Sweep


class OnTheWall(BrowserCase):
    def test_an_outlet_is_put_on_the_wall_dragged_nudged_and_taken_away(self) -> None:
        wall = self.open(plan(bracket_shelf()), "survey")
        self.page.get_by_role("button", name="Outlet").click()
        x, y = self.centre(self.page.locator("#wall-face"))
        self.page.mouse.click(x, y + 60)
        expect(self.page.locator("#thing-0")).to_be_visible()
        expect(self.page.locator(".zone-take_care")).to_have_count(1)
        expect(self.page.locator(".zones")).to_contain_text(
            "a cable may run up or down from an outlet"
        )
        before = self.now(wall).wall.features[0].left_mm
        self.drag(self.page.locator("#thing-0 .grip"), 300 * self.px_per_mm(), 0)
        expect(self.page.locator("#undo")).to_have_attribute(
            "title", "Undo: Move the outlet (Ctrl+Z)"
        )
        self.assertAlmostEqual(self.now(wall).wall.features[0].left_mm, before + 300, delta=4.0)
        self.page.locator("#thing-0").focus()
        left = self.now(wall).wall.features[0].left_mm
        self.page.keyboard.press("Shift+ArrowLeft")
        expect(self.page.locator("#thing-0")).to_have_attribute("data-left", repr(left - 10))
        self.page.locator("#thing-0").focus()
        self.page.keyboard.press("Delete")
        expect(self.page.locator("#thing-0")).to_have_count(0)
        self.page.keyboard.press("Control+z")
        expect(self.page.locator("#thing-0")).to_have_count(1)

    def test_by_keyboard_a_stud_a_door_and_what_is_typed_along_the_tape(self) -> None:
        wall = self.open(plan(bracket_shelf(), studs=()).without_piece("shelf"), "survey")
        self.page.keyboard.press("p")
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#notch-survey")).to_contain_text("1 stud")
        self.page.locator("#more-kinds").focus()
        self.page.locator("#more-kinds").select_option("radiator")
        expect(self.page.locator("#put-up-hint")).to_be_visible()
        self.page.locator("#panel").focus()
        self.page.keyboard.press("Enter")
        expect(self.page.locator(".feature-radiator")).to_have_count(1)
        self.page.locator("#id_studs").fill("400, 800\n2000 to 2800 door")
        self.page.locator("#id_studs").press("Tab")
        expect(self.page.locator(".feature-door")).to_have_count(1)
        expect(self.page.locator(".implied")).to_have_count(5)
        self.assertEqual([f.kind for f in self.now(wall).wall.features], ["door"])
        self.assertAccessible()

    def test_pin_strike_and_count_on_what_the_readings_say(self) -> None:
        wall = self.open(demo.reading_corner(), "survey")
        expect(self.page.locator(".contradiction")).to_contain_text("contradict each other")
        row = self.page.locator(".found-row", has_text="47")
        row.get_by_role("button", name="Confirm").click()
        expect(self.page.locator(".found-row", has_text="confirmed by you")).to_have_count(1)
        self.page.locator(".found-row", has_text="but sounds hollow").get_by_role(
            "button", name="Reject"
        ).click()
        expect(self.page.locator(".struck")).to_have_count(1)
        self.assertEqual(
            sorted(r.word for r in self.now(wall).wall.readings if isinstance(r, ByHand)),
            ["pinned", "struck"],
        )
        self.page.locator("#take-studs").click()
        expect(self.page.locator("#undo")).to_have_attribute(
            "title", "Undo: Take the studs from the readings (Ctrl+Z)"
        )
        self.page.keyboard.press("3")
        self.page.locator("#place summary").click()
        self.page.locator("#support-studs").click()
        expect(self.page.locator("#verdict .word")).to_have_text("Holds")

    def test_a_doubtful_stud_cannot_tell_and_names_the_reading(self) -> None:
        self.open(demo.reading_corner(), "fix")
        expect(self.page.locator("#verdict .word")).to_have_text("Can't tell")
        expect(self.page.locator(".asks-list")).to_contain_text("probe for both of its edges")
        self.page.keyboard.press("1")
        expect(self.page.locator(".next-reading")).to_contain_text("push a thin nail in at")

    @override_settings(DEVICES="trade.devices.stand_ins.for_wall")
    def test_a_sweep_with_the_finder_that_the_settings_name(self) -> None:
        wall = self.open(plan(bracket_shelf()).without_piece("shelf"), "survey")
        self.page.locator("#sweep").click()
        expect(self.page.locator(".swept")).to_have_count(1)
        self.page.locator("#sweep").click()
        expect(self.page.locator(".swept")).to_have_count(2)
        self.assertEqual(sum(isinstance(r, Sweep) for r in self.now(wall).wall.readings), 2)


class Tables(BrowserCase):
    expected_errors = ("status of 422",)

    def test_a_table_comes_in_whole_or_not_at_all(self) -> None:
        wall = self.open(plan(bracket_shelf()), "survey")
        with TemporaryDirectory() as folder:
            bad, good = Path(folder) / "bad.csv", Path(folder) / "good.csv"
            bad.write_bytes(b"kind,at_mm\nmagnet,400\nmagnet,=A1\n")
            good.write_bytes(spreadsheet.write([MagnetHit(at_mm=400.0), MagnetHit(at_mm=800.0)]))
            self.page.locator("#table").set_input_files(bad)
            self.page.locator("#table-send").click()
            expect(self.page.locator(".refused-rows")).to_contain_text(
                "Row 3: “=A1” under at is a formula"
            )
            self.assertEqual(self.now(wall).wall.readings, ())
            self.page.locator("#table").set_input_files(good)
            self.page.locator("#table-send").click()
            expect(self.page.locator("#id_readings")).to_have_value("400 mm magnet, 800 mm magnet")


class PracticeCase(BrowserCase):
    level, seed = "plain", 3

    def begin(self) -> Practice:
        self.page.goto("/practice/")
        self.page.locator("#seed").fill(str(self.seed))
        self.page.locator(f"button[value={self.level}]").click()
        expect(self.page.locator("#practice")).to_be_visible()
        return Practice.objects.latest("pk")

    def where(self, x_mm: float, y_mm: float = 1500.0) -> tuple[float, float]:
        """Screen place of a place on the wall."""
        at: Any = self.page.evaluate(
            """([x, y]) => {
                const d = document.getElementById('practice').dataset;
                const p = new DOMPoint(+d.left + x * d.scale, d.floor - y * d.scale)
                    .matrixTransform(document.getElementById('sheet').getScreenCTM());
                return [p.x, p.y];
            }""",
            [x_mm, y_mm],
        )
        return at[0], at[1]

    def said(self) -> Locator:
        return self.page.locator("#say")

    def uncover(self, studs: int) -> None:
        self.page.locator("#uncover").click()
        expect(self.page.locator(".title")).to_have_text(f"You found {studs} of {studs}")
        expect(self.page.locator(".truth .stud")).to_have_count(studs)
        self.assertAccessible()


class ByMouse(PracticeCase):
    def test_sweep_call_and_uncover(self) -> None:
        level = LEVELS[self.level]
        hidden, run = build(self.seed, level), self.begin()
        told = [
            r
            for r in set_up(self.seed, level, 1).sweep(0, hidden.width_mm, 1500.0)
            if isinstance(r, Edge)
        ]
        sides = {
            m: {r.side for r in told if abs(r.at_mm - m.centre_mm) < 35} for m in hidden.members[1:]
        }
        stud = next(m.centre_mm for m, both in sides.items() if both == {"left", "right"})
        mouse = self.page.mouse
        mouse.move(*self.where(2))
        mouse.down()
        mouse.move(*self.where(stud), steps=12)
        expect(self.page.locator("#practice")).to_have_class("practice lit")
        expect(self.page.locator("#lamp-word")).to_have_text("something here")
        mouse.move(*self.where(stud + 80), steps=5)
        expect(self.page.locator("#lamp-word")).to_have_text("quiet")
        expect(self.said()).to_contain_text("Right edge at")
        mouse.move(*self.where(hidden.width_mm), steps=25)
        mouse.up()
        expect(self.page.locator("#spent")).to_have_text("1 reading")
        self.page.get_by_role("button", name="Nail").click()
        mouse.click(*self.where(stud, 1400))
        expect(self.said()).to_contain_text("Wood at")
        self.page.get_by_role("button", name="A stud is here").click()
        for member in hidden.members:
            mouse.click(*self.where(member.centre_mm, 1200))
        expect(self.page.locator("#call-count")).to_have_text(str(len(hidden.members)))
        self.assertEqual(
            sum(isinstance(r, Edge) for r in Practice.objects.get(pk=run.pk).said.readings) > 6,
            True,
        )
        self.assertAccessible()
        self.uncover(len(hidden.members))
        self.page.get_by_role("link", name="All levels").click()
        expect(self.page.locator(".history")).to_contain_text(f"Plain, {self.seed}")
        self.assertAccessible()


class ByKeyboard(PracticeCase):
    def test_sweep_probe_call_and_uncover(self) -> None:
        hidden, run = build(self.seed, LEVELS[self.level]), self.begin()
        keys, sheet_ = self.page.keyboard, self.page.locator("#sheet")
        sheet_.focus()
        step = 25.4 / 4
        x = hidden.width_mm / 2

        def go(to_mm: float) -> None:
            nonlocal x
            far, near = divmod(abs(round((to_mm - x) / step)), 10)
            way = "ArrowRight" if to_mm > x else "ArrowLeft"
            for key in [f"Shift+{way}"] * far + [way] * near:
                keys.press(key)
            x += (far * 10 + near) * step * (1 if way == "ArrowRight" else -1)

        keys.press("Space")
        go(hidden.members[3].centre_mm + 100)
        keys.press("Escape")
        expect(self.said()).to_contain_text("edge at")
        keys.press("m")
        keys.press("Space")
        expect(self.page.locator("#spent")).to_have_text("2 readings")
        keys.press("t")
        keys.press("Space")
        expect(self.page.locator(".strip")).to_have_count(1)
        keys.press("c")
        for member in hidden.members:
            go(min(max(member.centre_mm, step), hidden.width_mm - step))
            keys.press("Space")
        expect(self.page.locator("#call-count")).to_have_text(str(len(hidden.members)))
        self.page.locator("#structure").select_option("timber")
        self.page.locator("#uncover").focus()
        keys.press("Enter")
        expect(self.page.locator(".title")).to_have_text(
            f"You found {len(hidden.members)} of {len(hidden.members)}"
        )
        self.assertEqual(Practice.objects.get(pk=run.pk).said.structure, "timber")


class ByFinger(PracticeCase):
    context_options = PHONE
    level, seed = "services", 12

    def test_sweep_by_finger_and_call_by_tap(self) -> None:
        hidden, run = build(self.seed, LEVELS[self.level]), self.begin()
        self.assertEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)
        x, y = self.where(5)
        end, _ = self.where(hidden.width_mm - 5)
        self.touch_from(x, y, end - x, 0)
        expect(self.page.locator("#spent")).to_have_text("1 reading")
        expect(self.said()).to_contain_text("edge at")
        self.page.get_by_role("button", name="A stud is here").tap()
        expect(self.page.locator("#tool-call")).to_have_attribute("aria-pressed", "true")
        for member in hidden.members:
            self.page.touchscreen.tap(*self.where(member.centre_mm))
        expect(self.page.locator("#call-count")).to_have_text(str(len(hidden.members)))
        self.assertEqual(Practice.objects.get(pk=run.pk).said.spent, 1)
        self.uncover(len(hidden.members))


class SurveyOnAPhone(BrowserCase):
    context_options = PHONE

    def test_put_a_switch_on_the_wall_and_drag_it_by_finger(self) -> None:
        wall = self.open(plan(bracket_shelf()), "survey")
        self.page.get_by_role("button", name="Switch").tap()
        x, y = self.centre(self.page.locator("#wall-face"))
        self.page.touchscreen.tap(x, y)
        expect(self.page.locator("#thing-0")).to_be_visible()
        before = self.now(wall).wall.features[0].left_mm
        self.touch_drag(self.page.locator("#thing-0 .grip"), 400 * self.px_per_mm(), 0)
        expect(self.page.locator("#undo")).to_have_attribute(
            "title", "Undo: Move the switch (Ctrl+Z)"
        )
        self.assertAlmostEqual(self.now(wall).wall.features[0].left_mm, before + 400, delta=8.0)
