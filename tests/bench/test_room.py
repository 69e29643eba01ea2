"""Walls of a place over the test client: added, named, taken away, and worked on one by one."""

import io
import json
import zipfile
from datetime import date
from typing import Any

from django.http import HttpResponse
from django.urls import reverse

from bench import archive, demo
from bench.drawing.room import in_depth
from bench.models import LogEntry, Wall
from bench.printing.owner_sheet import owner_sheet
from bench.printing.piece_label import piece_labels
from bench.printing.sums import sums_sheet
from bench.printing.wall_sheet import wall_sheet
from tests.bench.test_cut import text_of
from tests.bench.test_workbench import HTMX, BenchCase, seen
from trade.assess import assess
from trade.marking.marks import marks_from_beside
from trade.marking.overview import overview
from trade.plan import plan_file
from trade.plan.model import Plan
from trade.plan.place import each_piece, faced, turned


class Rooms(BenchCase):
    def setUp(self) -> None:
        super().setUp()
        self.closet = Wall.begin(self.job, demo.linen_closet(), "Begin")

    def now(self) -> Plan:
        return Wall.objects.get(pk=self.closet.pk).plan()

    def room(self, view: str, at: str = "wall", **values: Any) -> HttpResponse:
        address = reverse(f"survey:{view}", args=[f"{self.closet.pk}.{at}"])
        posted = {"base": seen(self.closet), **values}
        return self.client.post(address, posted, **HTMX)  # type: ignore[return-value]

    def new_wall(self, **changes: str) -> dict[str, str]:
        base = {
            "side": "right",
            "wall_name": "Door wall",
            "wall_width": "800 mm",
            "wall_height": "2400 mm",
            "wall_angle": "90",
        }
        return base | changes

    def test_every_wall_has_an_address_and_shows_the_others(self) -> None:
        for key, here in (("wall-2", "Left wall"), ("wall", "Back wall"), ("wall-3", "Right wall")):
            for stage in ("survey", "load", "fix", "mark", "cut", "hang", "record"):
                with self.subTest(key=key, stage=stage):
                    page = self.client.get(f"/walls/{self.closet.pk}.{key}/{stage}/")
                    self.assertContains(page, f"/ {here}</span>")
                    self.assertContains(page, 'class="visits wall-chip"', count=3)
        # who asks for no wall stands in front of the widest, for no such wall likewise
        for address in (f"{self.closet.pk}", f"{self.closet.pk}.gone"):
            self.assertContains(self.client.get(f"/walls/{address}/survey/"), "/ Back wall</span>")

    def test_a_piece_is_found_on_whichever_wall_it_hangs(self) -> None:
        page = self.client.get(f"/walls/{self.closet.pk}.wall-3/fix/?piece=albums")
        self.assertContains(page, "/ Back wall</span>")
        self.assertContains(page, "Section at the right ledger, screw 2 from the corner")

    def test_a_wall_is_added_and_taken_back(self) -> None:
        before = self.now()
        answer = self.room("room-add", at="wall-3", **self.new_wall())
        self.assertContains(answer, "/ Door wall</span>")
        self.assertContains(answer, 'class="visits wall-chip"', count=4)
        names = [each.faced_name for each in faced(self.now())]
        self.assertEqual(names, ["Left wall", "Back wall", "Right wall", "Door wall"])
        new = faced(self.now())[-1].wall
        self.assertEqual((new.layers, new.studs), (before.wall.layers, ()))
        undone = self.client.post(
            reverse("undo", args=[self.closet.pk]),
            {"base": seen(Wall.objects.get(pk=self.closet.pk)), "stage": "survey"},
            **HTMX,
        )
        self.assertContains(undone, 'class="visits wall-chip"', count=3)
        self.assertEqual(self.now(), before)

    def test_bad_angles_and_sizes_stand_beside_their_fields(self) -> None:
        for changes, words in (
            ({"wall_angle": "0"}, "can&#39;t meet at 0°"),
            ({"wall_angle": "360"}, "can&#39;t meet at 360°"),
            ({"wall_angle": "nan"}, "can&#39;t meet at nan"),
            ({"wall_angle": "square"}, "“square” is no angle"),
            ({"wall_width": ""}, "required"),
            ({"wall_width": "4 mm"}, "must lie between"),
        ):
            with self.subTest(**changes):
                answer = self.room("room-add", **self.new_wall(**changes))
                self.assertContains(answer, words, status_code=422)
                self.assertContains(answer, "Door wall", status_code=422)  # what was typed is kept
        self.assertEqual(len(faced(self.now())), 3)

    def test_names_and_angles_are_saved_and_survive_the_survey_of_one_wall(self) -> None:
        values = {"wall-0": "West", "wall-1": "North", "wall-2": "East"}
        angles = {"angle-0": "91,5°", "angle-1": "88"}
        self.room("room-save", name="Cupboard", **values, **angles)
        found = self.now()
        self.assertEqual(found.name, "Cupboard")
        self.assertEqual([each.faced_name for each in faced(found)], ["West", "North", "East"])
        self.assertEqual([corner.angle_deg for corner in found.corners], [91.5, 88.0])
        answer = self.client.get(f"/walls/{self.closet.pk}.wall/survey/")
        self.assertContains(answer, "left corner 91.5")
        bad = self.room("room-save", name="Cupboard", **values, **{**angles, "angle-1": "350"})
        self.assertContains(bad, "can&#39;t meet at 350°", status_code=422)

    def test_the_way_in_is_kept_whole_or_not_at_all(self) -> None:
        values = {"name": "Cupboard", "wall-0": "West", "wall-1": "North", "wall-2": "East"}
        values |= {"angle-0": "90", "angle-1": "90"}
        half = self.room("room-save", **values, **{"in-width": "700 mm"})
        self.assertContains(half, "a width, a height and a distance", status_code=422)
        sizes = {"in-width": "700 mm", "in-height": "2000 mm", "in-away": "600 mm"}
        self.room("room-save", **values, **sizes)
        found = self.now().opening
        assert found is not None
        self.assertEqual((found.width_mm, found.height_mm, found.away_mm), (700, 2000, 600))
        page = self.client.get(f"/walls/{self.closet.pk}/survey/?look=room")
        self.assertContains(page, "way in 700 mm")

    def test_a_wall_goes_with_what_hangs_on_it_and_undo_brings_both_back(self) -> None:
        answer = self.room("room-remove", at="wall")
        self.assertContains(answer, 'class="visits wall-chip"', count=2)
        self.assertEqual(each_piece(self.now()), [])
        self.client.post(
            reverse("undo", args=[self.closet.pk]),
            {"base": seen(Wall.objects.get(pk=self.closet.pk)), "stage": "survey"},
            **HTMX,
        )
        self.assertEqual(len(each_piece(self.now())), 3)

    def test_walls_that_do_not_close_are_told_and_kept(self) -> None:
        for at in ("wall-3", "wall-4"):
            self.room("room-add", at=at, **self.new_wall(wall_width="1200 mm"))
        page = self.client.get(f"/walls/{self.closet.pk}/survey/?look=room")
        self.assertContains(page, "run through each other")
        self.assertEqual(len(faced(self.now())), 5)

    def test_the_log_and_the_file_have_every_wall(self) -> None:
        wall = Wall.begin(self.job, demo.alcoves(), "Begin")
        names = set(LogEntry.objects.filter(wall=wall).values_list("name", flat=True))
        self.assertEqual(names, {"Atlases", "Poets", "Mantel", "Shelf for the globe"})
        raw = self.client.get(reverse("plan-file", args=[wall.pk])).content
        self.assertEqual(plan_file.load(raw), wall.plan())
        self.assertEqual(len(faced(plan_file.load(raw))), 6)

    def test_the_drilling_sheet_has_every_wall_with_the_holes_that_are_in_it(self) -> None:
        closet = demo.linen_closet()
        said = text_of(wall_sheet(closet, assess(closet), "metric", "Job", "today"))
        for each in faced(closet):
            self.assertIn(each.faced_name, said)
        self.assertEqual(said.count("Round the corner, on “Right wall”"), 3)
        self.assertIn("In depth; dashed: walls between you and the room", said)
        words = {piece.key: assess(on).piece(piece.key).outcome for piece, on in each_piece(closet)}
        deep = in_depth(closet, words)
        fit = deep.fit((10.0, 20.0, 110.0, 220.0))
        places = [fit(*p) for face in deep.faces for p in face.points]
        self.assertTrue(all(10 - 1e-6 <= x <= 110 + 1e-6 and y >= 20 - 1e-6 for x, y in places))
        self.assertEqual(len(deep.edges), 1)  # the left wall stands before the room
        alone = demo.party_wall()
        self.assertNotIn(
            "In depth", text_of(wall_sheet(alone, assess(alone), "metric", "Job", "today"))
        )
        right = turned(closet, "wall-3")
        here = marks_from_beside(right)
        self.assertEqual(sorted({mark.x_mm for mark in here}), [120.0, 310.0])
        crosses = [line for line in overview(right, "metric", 20).lines if line.layer == "CENTRES"]
        self.assertEqual(len(crosses), 2 * len(here))

    def test_a_piece_on_any_wall_is_hung_step_by_step(self) -> None:
        pantry = Wall.begin(self.job, demo.pantry(), "Begin")
        page = self.client.get(reverse("hang:at-wall", args=[pantry.pk, "side-1"]))
        self.assertContains(page, "Tins, shallow")
        for step in ("ready", "safe"):
            answer = self.client.post(
                reverse("hang:report", args=[pantry.pk, "side-1"]),
                {"step": step, "what": "done", "uid": f"{step}-1"},
                headers={"X-Part": "steps"},
            )
            self.assertEqual(answer.status_code, 200)
        now = turned(Wall.objects.get(pk=pantry.pk).plan(), "wall-3")
        self.assertEqual(now.as_built.steps("side-1"), {"ready", "safe"})

    def test_papers_of_the_place_have_what_hangs_on_every_wall(self) -> None:
        corner = demo.tool_corner()
        self.assertEqual([len(each.pieces) for each in faced(corner)], [1, 1])
        names = [piece.name for piece, _ in each_piece(corner)]
        papers = (
            owner_sheet(corner, "imperial", "Job", date(2027, 1, 1)),
            piece_labels(corner, None, "imperial", lambda key: f"http://localhost/{key}"),
            sums_sheet(corner, assess(corner), "imperial", "Job", "today"),
        )
        for raw in papers:
            said = text_of(raw)
            self.assertEqual([name for name in names if name not in said], [])

    def test_a_job_file_of_before_is_still_read(self) -> None:
        """Its plans are of version 1: one wall, at the top."""
        before = io.BytesIO()
        made = io.BytesIO(archive.written(self.job))
        with zipfile.ZipFile(made) as now, zipfile.ZipFile(before, "w") as old:
            for name in now.namelist():
                raw = now.read(name)
                if name == "walls/1/history.json":
                    raw = json.dumps([self.of_version_1(s) for s in json.loads(raw)]).encode()
                old.writestr(name, raw)
        [brought] = archive.looked_at(before.getvalue())
        self.assertEqual(brought.walls[0].now, self.wall.plan())

    def of_version_1(self, step: dict[str, Any]) -> dict[str, Any]:
        plan = step["plan"]
        [one] = plan.pop("walls")
        for name in ("corners", "opening"):
            del plan[name]
        for name in ("wall", "pieces", "datum", "built"):
            plan[name] = one[name]
        return step | {"plan": plan | {"version": 1}}

    def test_the_list_of_walls_counts_and_draws_all_of_a_place(self) -> None:
        Wall.begin(self.job, demo.alcoves(), "Begin")
        page = self.client.get("/")
        self.assertContains(page, "4 mountings: close")
        self.assertContains(page, "Chimney breast")
        self.assertNotContains(page, 'class="room-wall" href')  # the picture is one link already

    def test_a_wall_alone_may_get_a_neighbour(self) -> None:
        page = self.client.get(f"/walls/{self.wall.pk}/survey/?look=room")
        self.assertContains(page, "Add the wall")
        self.assertNotContains(page, "wall-chip")
        address = reverse("survey:room-add", args=[self.wall.pk])
        answer = self.client.post(address, {"base": seen(self.wall), **self.new_wall()}, **HTMX)
        self.assertContains(answer, "First wall")
        self.assertContains(answer, 'class="visits wall-chip"', count=2)

    def test_all_walls_are_drawn_once_in_each_view(self) -> None:
        page = self.client.get(f"/walls/{self.closet.pk}/survey/?look=room").content.decode()
        sheet = page[page.index('id="sheet"') : page.index("wall-swipe")]
        self.assertEqual(sheet.count("room-wall"), 3)
        self.assertEqual(sheet.count('class="room-side"'), 2)  # the third is drawn by its edges
        self.assertEqual(sheet.count('class="room-hidden"'), 1)
        self.assertEqual(sheet.count('class="room-flat"'), 3)
        self.assertGreater(sheet.count("beside-outline"), 5)
