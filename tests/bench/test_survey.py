"""The survey over the test client.

Readings, what is on the wall, what it is made of, tables in and out.
"""

from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import override_settings
from django.urls import reverse
from msgspec.structs import replace

from bench import demo
from bench.models import Wall
from tests.bench.test_workbench import HTMX, BenchCase, seen
from tests.plans import bracket_shelf, plan
from trade.parse import spreadsheet
from trade.plan.model import Layer, Stud
from trade.plan.readings import ByHand, MagnetHit, Probe, Sweep


class Typed(BenchCase):
    def test_readings_are_weighed_and_their_studs_counted_on(self) -> None:
        passes = "\n".join(
            f"{h} mm up: swept 0 mm to 3200 mm, "
            + ", ".join(f"{c - 19} mm left, {c + 19} mm right" for c in range(410, 3200, 400))
            for h in (1200, 1500)
        )
        answer = self.post("survey:save", **self.survey_values(readings=passes, studs=""))
        self.assertContains(answer, "Most likely spacing: 400 mm")
        self.assertEqual(len(self.plan().wall.readings), 2 * (1 + 14))
        self.assertContains(self.post("survey:take"), 'class="stud"', count=7)
        self.assertAlmostEqual(self.plan().wall.studs[0].centre_mm, 410.0, delta=1.0)
        self.assertContains(
            self.post("survey:save", **self.survey_values(readings="9 lft")),
            "Line 1",
            status_code=422,
        )
        before = self.plan().wall.studs
        self.post(
            "survey:save",
            **self.survey_values(
                name="Hall",
                readings=passes,
                studs=", ".join(f"{s.centre_mm:.1f}".removesuffix(".0") + " mm" for s in before),
                give=f"{before[0].uncertainty_mm} mm",
                stud_width="38 mm",
                stud_depth="89 mm",
            ),
        )
        self.assertEqual(self.plan().wall.studs, before)

    def test_what_goes_on_later_is_kept_and_minded(self) -> None:
        cover = {"cover": "stone", "cover_thick": "45 mm", "cover_on": "2027-03-01"}
        self.post("survey:save", **self.survey_values(**cover))
        [kept] = self.plan().wall.coming
        self.assertEqual(
            (kept.kind, kept.thickness_mm, str(kept.on)), ("stone", 45.0, "2027-03-01")
        )
        page = self.client.get(reverse("stage", args=[self.wall.pk, "mark"]))
        self.assertContains(page, "are buried behind it")
        bad = self.post("survey:save", **self.survey_values(cover="stone", cover_on="soon"))
        self.assertContains(bad, "valid date", status_code=422)
        self.post("survey:save", **self.survey_values())
        self.assertEqual(self.plan().wall.coming, ())

    def test_linings_are_read_in_ones_own_units_first(self) -> None:
        for units, said in (
            ("metric", "gypsum board, 12.7 mm (1/2 in)"),
            ("imperial", "gypsum board, 1/2 in (12.7 mm)"),
        ):
            wall = Wall.begin(self.job, replace(plan(), units=units), "Begin")
            page = self.client.get(reverse("stage", args=[wall.pk, "survey"])).content.decode()
            self.assertIn(f">{said}</option>", page)

    def test_layers_add_up_and_keep_what_was_measured(self) -> None:
        wall = Wall.begin(
            self.job, plan(bracket_shelf(), layers=(Layer(kind="tile", thickness_mm=8.0),)), "Begin"
        )
        values = self.survey_values(lining="tile", lining_2="cement_board")
        self.client.post(
            reverse("survey:save", args=[wall.pk]), {"base": seen(wall), **values}, **HTMX
        )
        layers = Wall.objects.get(pk=wall.pk).plan().wall.layers
        self.assertEqual(
            layers,
            (Layer(kind="tile", thickness_mm=8.0), Layer(kind="cement_board", thickness_mm=12.7)),
        )
        self.client.post(
            reverse("survey:save", args=[wall.pk]),
            {"base": seen(wall), **values, "lining": "bare"},
            **HTMX,
        )
        self.assertEqual(Wall.objects.get(pk=wall.pk).plan().wall.layers, ())
        for typed, thick in (("9", 9.0), ("", 9.0), ("0.5 in", 12.7)):
            posted = {"base": seen(wall), **values, "thick": typed}
            self.client.post(reverse("survey:save", args=[wall.pk]), posted, **HTMX)
            self.assertEqual(
                Wall.objects.get(pk=wall.pk).plan().wall.layers[0].thickness_mm,
                thick if typed else 9.0,
            )  # type: ignore[index]

    def test_a_stud_keeps_its_own_width_and_doubt_when_another_is_typed(self) -> None:
        double = Stud(centre_mm=800.0, width_mm=76.0, uncertainty_mm=None)
        wall = Wall.begin(
            self.job, plan(bracket_shelf(), studs=(Stud(centre_mm=400.0), double)), "Begin"
        )
        values = self.survey_values(
            studs="400 mm, 800 mm, 1600 mm", give="3 mm", stud_width="38 mm", stud_depth="100 mm"
        )
        self.client.post(
            reverse("survey:save", args=[wall.pk]), {"base": seen(wall), **values}, **HTMX
        )
        studs = Wall.objects.get(pk=wall.pk).plan().wall.studs
        self.assertEqual(
            [(s.centre_mm, s.width_mm, s.depth_mm, s.uncertainty_mm) for s in studs],
            [(400.0, 38.0, 100.0, 3.0), (800.0, 76.0, 100.0, None), (1600.0, 38.0, 100.0, 3.0)],
        )

    def test_sketched_along_the_tape(self) -> None:
        self.post(
            "survey:save",
            **self.survey_values(studs="400, 800\n1200 outlet 300 high, 2000 to 2800 door"),
        )
        wall = self.plan().wall
        self.assertEqual([s.centre_mm for s in wall.studs], [400.0, 800.0])
        self.assertEqual(
            [(f.kind, f.left_mm, f.right_mm) for f in wall.features],
            [("outlet", 1165.0, 1235.0), ("door", 2000.0, 2800.0)],
        )
        page = self.client.get(self.url("stage", "survey"))
        self.assertContains(page, "2000 mm to 2800 mm door")
        self.assertContains(page, "a cable may run up or down from an outlet")
        shown = "400 mm, 800 mm\n1200 mm outlet 300 mm high\n2000 mm to 2800 mm door"
        self.post(
            "survey:save",
            **self.survey_values(
                name="Hall", studs=shown, give="2 mm", stud_width="38 mm", stud_depth="89 mm"
            ),
        )
        self.assertEqual(self.plan().wall.features, wall.features)

    def test_made_of_brick_there_are_no_studs_and_no_verdict(self) -> None:
        answer = self.post(
            "survey:save", **self.survey_values(structure="brick_solid", clue_dust_red="on")
        )
        self.assertContains(answer, "No studs to find: this is solid brick.")
        self.assertContains(answer, "Most likely solid brick")
        self.assertContains(self.client.get(self.url("stage", "fix")), "Choose an anchor")
        self.assertEqual(len(self.plan().wall.studs), 2)

    def test_how_it_lies_is_told_behind_the_shelf(self) -> None:
        lie = (
            "1500 up: gaps 0 at 600, 6 at 1200, 0 at 1800\nplumb at 800: 300 to 1500 up, 12 "
            "out\nceiling 900 at 0, 868 at 3200"
        )
        answer = self.post(
            "survey:save", **self.survey_values(lie=lie, studs="400, 800, 1200, 1600")
        )
        for words in (
            "gapes up to 5.0 mm",
            "its front edge drops 2.5 mm",
            "left bracket, 3.0 mm at its foot",
            "from the ceiling at its left end",
        ):
            self.assertContains(answer, words)
        self.assertContains(
            self.client.get(self.url("stage", "mark") + "?piece=shelf"), "gapes up to 5.0 mm"
        )

    def test_refusals_stand_beside_their_fields_with_what_was_typed(self) -> None:
        for field, typed, words in (
            ("studs", "400, 9000", "outside the wall"),
            ("studs", "400, 4x8", "part 2"),
            ("studs", "16 every 1", "at least 50 mm"),
            ("studs", "40 outlet 9000 high", "higher than the wall"),
            ("readings", "400 lft", "Line 1"),
            ("lie", "wonky", "Line 1"),
            ("thick", "0", "must lie between"),
            ("width", "40 m", "longer than any wall"),
            ("width", "5", "outside the wall"),
            ("stud_width", "1", "must lie between"),
            ("width", "900", "the wall only"),
        ):
            with self.subTest(field=field, typed=typed):
                answer = self.post("survey:save", **self.survey_values(**{field: typed}))
                self.assertContains(answer, words, status_code=422)
                self.assertContains(answer, typed, status_code=422)
                self.assertEqual(self.at(), 1)


class ByHandAndOnTheWall(BenchCase):
    def test_pin_strike_and_let_go(self) -> None:
        self.assertContains(
            self.post("survey:take"), "do not make any stud likely", status_code=422
        )
        self.assertContains(self.post("survey:by-hand", pinned="640"), "Leave it to the readings")
        self.post("survey:by-hand", struck="645")
        self.assertEqual(
            [(r.at_mm, r.word) for r in self.plan().wall.readings if isinstance(r, ByHand)],
            [(645.0, "struck")],
        )
        self.post("survey:by-hand", free="640")
        self.assertEqual(self.plan().wall.readings, ())
        self.post("undo")
        self.assertEqual(len(self.plan().wall.readings), 1)
        self.assertContains(
            self.post("survey:by-hand", pinned="nan"), "is not a number", status_code=422
        )
        self.assertContains(
            self.post("survey:by-hand", pinned="-9"), "not on the wall", status_code=422
        )

    def test_put_move_and_take_away(self) -> None:
        self.assertContains(
            self.post("survey:place", kind="outlet", x_mm="1000", top_mm="305.5"), 'id="thing-0"'
        )
        self.post("survey:place", kind="stud", x_mm="200.3", top_mm="0")
        self.assertEqual(
            (self.plan().wall.features[0].middle_mm, self.plan().wall.studs[0].centre_mm),
            (305.5, 200.0),
        )
        live = self.post("survey:move", 0, left_mm="1500", top_mm="400", live="1")
        self.assertContains(live, 'data-left="1500.0"')
        self.assertEqual(self.plan().wall.features[0].left_mm, 965.0)
        self.post("survey:move", 0, left_mm="99999", top_mm="-4")
        moved = self.plan().wall.features[0]
        self.assertEqual((moved.right_mm, moved.bottom_mm), (3200.0, 0.0))
        self.post("survey:remove", 0)
        self.assertEqual(self.plan().wall.features, ())
        self.assertContains(self.post("survey:remove", 0), "no longer on the wall", status_code=422)
        self.assertContains(
            self.post("survey:place", kind="chandelier", x_mm="1", top_mm="1"),
            "no thing on a wall",
            status_code=422,
        )

    def test_a_contradiction_is_shown_with_both_sides(self) -> None:
        wall = Wall.begin(self.job, demo.reading_corner(), "Begin")
        page = self.client.get(reverse("stage", args=[wall.pk, "survey"]))
        self.assertContains(page, "contradict each other")
        self.assertContains(page, "48&quot; wood at 13/16&quot;; none, says 48&quot; air")


class Tables(BenchCase):
    def bring(self, raw: bytes, **more: Any) -> Any:
        return self.client.post(
            self.url("survey:readings-in"),
            {"base": self.base(), "table": SimpleUploadedFile("r.csv", raw)},
            **more,
        )

    def test_out_and_in(self) -> None:
        readings = (
            Sweep(from_mm=0, to_mm=3000, height_mm=1200),
            MagnetHit(at_mm=400, height_mm=900),
            Probe(at_mm=401, met="wood"),
        )
        self.assertRedirects(self.bring(spreadsheet.write(readings)), self.url("stage", "survey"))
        self.assertEqual(self.plan().wall.readings, readings)
        answer = self.client.get(self.url("survey:readings-out"))
        self.assertEqual(spreadsheet.read(answer.content, 3200.0), readings)
        self.assertIn('filename="test-wall.readings.csv"', answer["Content-Disposition"])

    def test_refused_row_by_row_and_nothing_half_imported(self) -> None:
        answer = self.bring(b"kind,at_mm\nmagnet,400\nmagnet,=2+2\nbeep,1\n")
        self.assertContains(
            answer, "2 rows can&#x27;t be read. Nothing was imported.", status_code=422
        )
        self.assertContains(answer, "Row 3: “=2+2” under at is a formula", status_code=422)
        self.assertContains(
            self.bring(b"kind,at_mm\n" + b"magnet,1\n" * 100_000),
            "more than 2000 rows",
            status_code=422,
        )
        self.assertContains(
            self.client.post(self.url("survey:readings-in"), {"base": self.base()}),
            "Choose a table",
            status_code=422,
        )
        self.assertEqual((self.plan().wall.readings, self.at()), ((), 1))


class Devices(BenchCase):
    def test_none_unless_the_settings_name_one(self) -> None:
        self.assertNotContains(
            self.client.get(self.url("stage", "survey")), "Sweep with the finder"
        )
        for name in ("survey:sweep", "survey:measure"):
            self.assertContains(self.post(name, height="1200"), "is connected", status_code=422)

    @override_settings(DEVICES="trade.devices.stand_ins.for_wall")
    def test_a_sweep_is_taken_and_kept(self) -> None:
        self.assertContains(self.client.get(self.url("stage", "survey")), "Sweep with the finder")
        self.post("survey:sweep", height="1200")
        self.post("survey:sweep", height="1500")
        sweeps = [r for r in self.plan().wall.readings if isinstance(r, Sweep)]
        self.assertEqual(
            [(r.from_mm, r.to_mm, r.height_mm) for r in sweeps],
            [(0.0, 3200.0, 1200.0), (0.0, 3200.0, 1500.0)],
        )
        self.assertGreater(len(self.plan().wall.readings), 8)
        self.post("survey:measure")
        lie = self.plan().wall.flatness
        self.assertEqual(
            ([run.line for run in lie.run_outs], len(lie.plumbs)), (["ceiling", "floor"], 1)
        )
        self.assertContains(
            self.post("survey:sweep", height="tall"), "is not a number", status_code=422
        )
