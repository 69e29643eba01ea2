"""The Hang stage over the test client.

One step a screen, kept once however often it is sent, judged at once.
"""

from typing import Any
from urllib.parse import urlencode

from django.urls import reverse
from django.utils import timezone
from msgspec.structs import replace

from bench.models import Report, Wall
from tests.bench.test_workbench import BenchCase
from tests.plans import plan, rod_shelf
from trade.assess import assess
from trade.job.steps import steps
from trade.plan.as_built import Drilled
from trade.plan.policy import Policy


class Hanging(BenchCase):
    def tell(self, what: str, step: str = "", key: str = "shelf", **values: Any) -> Any:
        url, seen = reverse("hang:report", args=[self.wall.pk, key]), self.seen()
        return self.client.post(
            url, {"step": step, "what": what, "seen": seen, **values}, headers={"X-Part": "steps"}
        )

    def seen(self) -> int:
        now = Wall.objects.get(pk=self.wall.pk)
        return now.revisions.get(number=now.current_revision).pk

    def first_hole(self, key: str = "shelf") -> str:
        return next(step.key for step in steps(self.plan(), key, "metric") if step.mark)

    def at_wall(self, **asked: str) -> Any:
        return self.client.get(
            f"{reverse('hang:at-wall', args=[self.wall.pk, 'shelf'])}?{urlencode(asked)}"
        )

    def test_the_page_opens_at_the_first_step_that_waits_and_without_scripts_too(self) -> None:
        page = self.at_wall().content.decode()
        self.assertRegex(page, r'id="step-ready"[^>]*>')
        self.assertNotRegex(page, r'id="step-ready"[^>]*hidden')
        self.assertRegex(page, r'id="step-safe"[^>]*hidden')
        url = reverse("hang:report", args=[self.wall.pk, "shelf"])
        answer = self.client.post(url, {"step": "ready", "what": "done"})
        self.assertRedirects(
            answer, f"{reverse('hang:at-wall', args=[self.wall.pk, 'shelf'])}?step=safe"
        )
        self.assertContains(self.client.get(self.url("stage", "hang")), "1 of 22 steps are done")

    def test_what_is_sent_twice_counts_once_and_undo_takes_it_back(self) -> None:
        for _ in range(3):
            self.tell("done", "ready", uid="abc", at=str(timezone.now().timestamp() * 1000))
        self.assertEqual([each.step for each in self.plan().as_built.done], ["ready"])
        self.assertEqual(
            (Report.objects.count(), Wall.objects.get(pk=self.wall.pk).current_revision), (1, 2)
        )
        self.tell("undo")
        self.assertEqual(self.plan().as_built.done, ())

    def test_an_undo_takes_back_what_it_means_and_nothing_that_came_after(self) -> None:
        self.tell("done", "ready", uid="a")
        before = self.seen()
        self.post("fix:move", "shelf", left_mm="710", top_mm="1400")
        for meant, words in (
            (
                {"undoes": "a"},
                "“Shelf: Have it all at hand” still stands, for “Move Shelf” came after it",
            ),
            ({"undoes": "unheard"}, "not clear any more"),
            ({"seen": ""}, "not clear any more"),
            ({"seen": "9" * 5_000}, "not clear any more"),
            ({"seen": before}, "still stands"),
        ):
            with self.subTest(meant):
                self.assertContains(self.tell("undo", **meant), words, status_code=422)
        self.assertEqual(
            ([each.step for each in self.plan().as_built.done], self.plan().piece("shelf").left_mm),
            (["ready"], 710.0),
        )
        self.tell("done", "safe", uid="b")
        self.tell(
            "done", "safe", uid="c"
        )  # done already: it changes nothing, and neither does taking it back
        self.assertEqual(self.tell("undo", undoes="c").status_code, 200)
        self.assertEqual([each.step for each in self.plan().as_built.done], ["ready", "safe"])
        self.tell("undo", undoes="b")
        self.assertEqual([each.step for each in self.plan().as_built.done], ["ready"])

    def test_a_number_that_comes_again_is_not_taken_for_the_tap_s(self) -> None:
        """The tap was taken back at the bench, and another change got its number."""
        self.tell("done", "ready", uid="a")
        page = self.seen()
        self.post("undo")
        self.post("fix:move", "shelf", left_mm="710", top_mm="1400")
        for meant in ({"undoes": "a"}, {"seen": page}):
            self.assertContains(self.tell("undo", **meant), "not clear any more", status_code=422)
        self.assertEqual(self.plan().piece("shelf").left_mm, 710.0)

    def test_two_undos_tapped_on_one_page_take_back_two_changes(self) -> None:
        for step in ("ready", "safe"):
            self.tell("done", step)
        seen = self.seen()
        for back in (0, 1):
            self.tell("undo", seen=seen, back=back, uid=f"undo-{back}")
        self.assertEqual(self.plan().as_built.done, ())

    def test_a_tap_for_a_piece_that_is_gone_says_so(self) -> None:
        self.post("fix:remove", "shelf")
        self.assertEqual(self.tell("done", "ready", uid="late").status_code, 410)
        self.assertEqual(self.tell("done", "ready", "ledge").status_code, 200)

    def test_a_change_without_a_base_or_with_one_that_nobody_can_read_is_a_conflict(self) -> None:
        for base in ("", "one", "-1", "9" * 5_000):
            with self.subTest(base[:9]):
                self.assertContains(
                    self.post("fix:move", "shelf", left_mm="710", top_mm="1300", base=base),
                    "in another window",
                    status_code=409,
                )
        self.assertEqual(Wall.objects.get(pk=self.wall.pk).current_revision, 1)

    def test_a_bad_hole_is_evidence_is_judged_and_offers_what_fits(self) -> None:
        hole = self.first_hole()
        answer = self.tell("no_wood", hole)
        self.assertContains(answer, "Stop. Won&#x27;t hold.")
        self.assertContains(answer, 'value="elsewhere-')
        self.assertEqual([each.met for each in self.plan().as_built.drilled], ["no_wood"])
        self.assertNotIn(800.0, [stud.centre_mm for stud in self.plan().wall.studs])
        code = answer.content.decode().split('name="code" value="')[1].split('"')[0]
        cured = self.tell("cure", hole, code=code)
        self.assertNotContains(cured, "Stop.")
        self.assertEqual(assess(self.plan()).piece("shelf").outcome, "holds")
        self.assertContains(
            self.tell("cure", hole, code="nonsense"), "no longer valid", status_code=422
        )

    def test_what_was_measured_at_the_rods_is_where_the_shelf_is_bored(self) -> None:
        answer = self.tell("places", "measure", "ledge", places="102, 903 mm")
        self.assertEqual(answer.status_code, 200)
        self.assertContains(answer, 'value="102 mm, 903 mm"')
        self.assertEqual(
            [each.places_mm for each in self.plan().as_built.mounted], [(102.0, 903.0)]
        )
        self.assertEqual([each.step for each in self.plan().as_built.done], ["measure"])
        page = self.client.get(f"{self.url('stage', 'cut')}?look=parts&piece=ledge")
        self.assertContains(page, "at 102 mm and so on from its left end")
        for places in ("102", "102, 2 m", "wide, 3", ""):
            self.assertEqual(
                self.tell("places", "measure", "ledge", places=places).status_code, 422, places
            )

    def test_beside_the_stud_a_thick_lining_and_nonsense(self) -> None:
        hole = self.first_hole()
        self.tell("stud_off", hole, off="10 mm", side="left")
        self.assertIn(790.0, [stud.centre_mm for stud in self.plan().wall.studs])
        self.tell("lining", hole, depth="16 mm")
        assert self.plan().wall.layers is not None
        self.assertEqual(self.plan().wall.layers[0].thickness_mm, 16.0)
        before = self.plan()
        for what, values, said in (
            ("stud_off", {"off": "far", "side": "left"}, "Couldn&#x27;t read “far”"),
            ("stud_off", {"off": " ", "side": "left"}, "how far off"),
            ("lining", {"depth": "2 m"}, "how deep the bit was"),
            ("good", {"x_mm": "nan", "y_mm": "1"}, "which hole"),
        ):
            with self.subTest(what, **values):
                step = "drill-0-0" if what == "good" else hole
                answer = self.tell(what, step, **values)
                self.assertContains(answer, said, status_code=422)
                for name in {"off", "depth"} & values.keys():
                    field = rf'<input[^>]*name="{name}"[^>]*value="{values[name]}"'
                    self.assertRegex(answer.content.decode(), field)
        self.assertEqual(self.plan(), before)
        self.assertEqual(self.tell("fly", hole).status_code, 404)

    def test_a_hole_that_was_drilled_before_the_plan_moved_is_kept_where_it_is(self) -> None:
        """The phone was offline: the shelf moved on the bench meanwhile.

        The hole is in the wall all the same.
        """
        hole = self.first_hole()
        x, y = (float(each) for each in hole.split("-")[1:])
        self.post("fix:move", "shelf", left_mm="700", top_mm="1300")
        self.tell("good", hole, x_mm=str(x), y_mm=str(y), uid="late")
        self.assertEqual([(d.x_mm, d.y_mm) for d in self.plan().as_built.drilled], [(x, y)])
        self.assertContains(self.client.get(self.url("stage", "fix")), "made already")

    def test_begin_again_fills_the_holes(self) -> None:
        self.tell("good", self.first_hole())
        self.tell("again")
        self.assertEqual(self.plan().as_built.drilled, ())
        self.assertEqual([feature.kind for feature in self.plan().wall.features], ["hole"])

    def test_resin_rests_until_it_has_set(self) -> None:
        self.wall = Wall.begin(
            self.job, replace(plan(rod_shelf()), policy=Policy(stays="glued")), "Begin"
        )
        page = self.tell("done", "glue", key="ledge")
        self.assertContains(page, "must rest until")

    def test_the_drawing_shows_what_is_in_the_wall(self) -> None:
        now = self.plan()
        holes = (
            Drilled(piece="shelf", x_mm=800.0, y_mm=1400.0),
            Drilled(piece="shelf", x_mm=900.0, y_mm=1400.0, met="metal"),
        )
        self.wall.record(
            replace(now, as_built=replace(now.as_built, drilled=holes)), "Drilled", self.wall.seen
        )
        page = self.client.get(self.url("stage", "fix")).content.decode()
        self.assertEqual((page.count("drilled-sound"), page.count("drilled-spoiled")), (1, 1))

    def test_the_worker_is_served_where_it_may_see_the_walls(self) -> None:
        answer = self.client.get("/hang-worker.js")
        self.assertEqual(answer["Service-Worker-Allowed"], "/walls/")
        self.assertContains(answer, "addEventListener")
