"""The practice wall over the test client.

Nothing leaks before it is uncovered, moves are kept, nonsense is refused.
"""

from typing import Any

from django.test import TestCase
from django.urls import reverse

from bench.models import Practice
from trade.devices.hidden import LEVELS, build
from trade.plan.readings import Edge, Probe, Sweep


class PracticeCase(TestCase):
    def setUp(self) -> None:
        answer = self.client.post(
            reverse("practice:begin"), {"level": "services", "seed": "12", "units": "metric"}
        )
        self.url = answer["Location"]
        self.hidden = build(12, LEVELS["services"])

    def run_now(self) -> Practice:
        return Practice.objects.get()

    def do(self, name: str, **values: Any) -> Any:
        return self.client.post(
            reverse(name, args=[self.run_now().pk]), {"x_mm": "500", "y_mm": "1300", **values}
        )


class Playing(PracticeCase):
    def test_a_sweep_is_one_reading_however_often_it_is_asked_for(self) -> None:
        width = self.hidden.width_mm
        self.do("practice:read", tool="finder", begin="1", x_mm="0")
        for x in (300, 900, width, width - 200):
            told = self.do("practice:read", tool="finder", x_mm=str(x)).json()
        log = self.run_now().said
        self.assertEqual((log.spent, told["spent"]), (1, "1 reading"))
        self.assertEqual(
            [r for r in log.readings if isinstance(r, Sweep)],
            [Sweep(from_mm=0.0, to_mm=width, height_mm=1300.0)],
        )
        self.assertGreater(sum(isinstance(r, Edge) for r in log.readings), 6)
        self.do("practice:read", tool="finder", begin="1", x_mm="0")
        self.assertEqual(self.run_now().said.spent, 2)

    def test_edges_are_told_as_they_are_passed(self) -> None:
        stud = self.hidden.members_at(1300)[2].centre_mm
        self.do("practice:read", tool="finder", begin="1", x_mm=str(stud - 150))
        before = self.do("practice:read", tool="finder", x_mm=str(stud - 60)).json()
        over = self.do("practice:read", tool="finder", x_mm=str(stud)).json()
        after = self.do("practice:read", tool="finder", x_mm=str(stud + 60)).json()
        self.assertEqual([each["lit"] for each in (before, over, after)], [False, True, False])
        self.assertTrue(over["words"].startswith("Left edge at"), over["words"])
        self.assertTrue(after["words"].startswith("Right edge at"), after["words"])

    def test_the_other_tools(self) -> None:
        stud = self.hidden.members_at(1300)[2]
        pipe = next(s for s in self.hidden.services if s.kind == "pipe")
        self.assertIn(
            "Wood at",
            self.do("practice:read", tool="nail", x_mm=str(stud.centre_mm)).json()["words"],
        )
        self.assertIn(
            "Metal at",
            self.do("practice:read", tool="nail", x_mm=str(pipe.centre_mm)).json()["words"],
        )
        self.assertRegex(
            self.do("practice:read", tool="knock", x_mm=str(stud.centre_mm)).json()["words"],
            "It sounds: .* (full|hollow)",
        )
        said = [
            self.do("practice:read", tool="magnet", x_mm=str(stud.centre_mm)).json()["words"]
            for _ in range(6)
        ]
        self.assertTrue(any(words.startswith("It sticks: ") for words in said), said)
        self.assertIn(
            "The magnet finds nothing",
            self.do("practice:read", tool="magnet", x_mm=str(stud.centre_mm + 200)).json()["words"],
        )
        self.assertEqual(self.run_now().said.spent, 10)
        self.assertEqual(sum(isinstance(r, Probe) for r in self.run_now().said.readings), 2)

    def test_calls_and_tape_come_off_again(self) -> None:
        self.do("practice:mark", what="call", x_mm="400")
        self.do("practice:mark", what="call", x_mm="800")
        told = self.do("practice:mark", what="call", x_mm="410").json()
        self.assertEqual(told["calls"], ["800 mm"])
        self.do("practice:mark", what="tape", x_mm="300")
        self.assertIn(
            "strip-tape",
            self.do("practice:mark", what="structure", structure="timber").json()["marks"],
        )
        self.assertNotIn(
            "strip-tape", self.do("practice:mark", what="tape", x_mm="310").json()["marks"]
        )
        self.assertEqual(self.run_now().said.structure, "timber")

    def test_nothing_of_the_truth_is_on_the_page_until_it_is_uncovered(self) -> None:
        covered = self.client.get(self.url).content.decode()
        for word in ("stud-wood", "service-run", "patch-fill", str(self.hidden.spacing_mm)):
            self.assertNotIn(word, covered)
        for member in self.hidden.members_at(1300):
            self.do("practice:mark", what="call", x_mm=str(member.centre_mm))
        page = self.client.post(reverse("practice:uncover", args=[self.run_now().pk]), follow=True)
        self.assertContains(
            page, f"You found {len(self.hidden.members)} of {len(self.hidden.members)}"
        )
        self.assertContains(page, "stud-wood")
        self.assertContains(page, "level=services&amp;seed=12")
        self.assertContains(self.client.get(reverse("practice:lobby")), "Pipes and cables, 12")
        again = self.do("practice:read", tool="nail")
        self.assertEqual(
            (again.status_code, again.json()["words"]),
            (422, "This wall has been uncovered already."),
        )
        first = self.run_now().score
        self.do("practice:uncover")
        self.assertEqual(self.run_now().score, first)

    def test_nonsense_is_refused_with_a_sentence(self) -> None:
        for name, values, words in (
            ("practice:read", {"tool": "hammer"}, "no tool"),
            ("practice:read", {"tool": "nail", "x_mm": "nan"}, "is not a number"),
            ("practice:mark", {"what": "hole"}, "mark does not exist"),
            ("practice:mark", {"what": "structure", "structure": "cheese"}, "not made of that"),
        ):
            answer = self.do(name, **values)
            self.assertEqual(answer.status_code, 422)
            self.assertIn(words, answer.json()["words"])
        for seed in ("0", "many", "9999999", "-4"):
            answer = self.client.post(reverse("practice:begin"), {"level": "plain", "seed": seed})
            self.assertContains(answer, "is no wall&#x27;s number", status_code=422)
            self.assertContains(answer, f'value="{seed}"', status_code=422)
        self.assertContains(
            self.client.post(reverse("practice:begin"), {"level": "easy"}),
            "is no level",
            status_code=422,
        )
        self.assertEqual(Practice.objects.count(), 1)
        for x in range(0, 2000, 30):
            answer = self.do("practice:mark", what="call", x_mm=str(x))
        self.assertIn("enough marks", answer.json()["words"])

    def test_there_is_nothing_to_read_in_a_doorway(self) -> None:
        self.client.post(reverse("practice:begin"), {"level": "opening", "seed": "3"})
        run = Practice.objects.first()
        assert run is not None
        door = build(3, LEVELS["opening"]).openings[0]
        here = {"x_mm": str(door.centre_mm), "y_mm": str(door.middle_mm)}
        for tool, words in (("nail", "no wall here"), ("finder", "No wall to sweep")):
            told = self.client.post(
                reverse("practice:read", args=[run.pk]), {"tool": tool, "begin": "1", **here}
            ).json()
            self.assertIn(words, told["words"])
        self.assertEqual(told["spent"], "0 readings")
