"""The Record stage over the test client.

As built, proof, looks; the label, the owner's sheet and the calendar, opened.
"""

import io
from typing import Any

import pdfplumber
import segno
from django.test import override_settings
from icalendar import Calendar
from msgspec.structs import replace

from bench.printing.piece_label import piece_labels
from tests.bench.test_cut import text_of
from tests.bench.test_workbench import BenchCase
from tests.plans import bracket_shelf, plan
from tests.trade.test_record import hung


class Recording(BenchCase):
    def keep(self, name: str, **values: Any) -> Any:
        return self.post(
            name, "shelf", stage="record", **({"on": "2031-03-01", "by": "Ana"} | values)
        )

    def test_it_hangs_as_planned_then_with_shorter_screws_and_undo(self) -> None:
        self.assertContains(
            self.keep("record:save-built", up_way="1", right_way="1"), "All as planned"
        )
        shorter = self.keep(
            "record:save-built",
            up_way="1",
            right_way="1",
            screw_length="25 mm",
            up="12 mm",
            minutes="95",
            cost="40",
        )
        self.assertContains(shorter, "The screws are 25 mm long, not 76 mm.")
        self.assertContains(shorter, "Won&#x27;t hold as it hangs")
        self.assertContains(shorter, "12 mm higher than planned")
        self.assertEqual([each.minutes for each in self.plan().as_built.hung], [None, 95.0])
        self.post("undo")
        self.assertEqual(len(self.plan().as_built.hung), 1)

    def test_a_proof_is_judged_and_bad_readings_are_refused_beside_their_field(self) -> None:
        readings = {
            "look": "proof",
            "kg": "25 kg",
            "minutes": "15",
            "before": "0",
            "loaded": "2 mm",
            "after": "0.1 mm",
        }
        self.assertContains(self.keep("record:save-proof", **readings), "Passed")
        failed = self.keep("record:save-proof", **(readings | {"after": "1.8 mm"}))
        self.assertContains(failed, "Not passed")
        for values, said in (
            ({"kg": "heavy"}, "t read “heavy”"),
            ({"minutes": "-3"}, "greater than or equal to 0"),
            ({"on": ""}, "required"),
        ):
            self.assertContains(
                self.keep("record:save-proof", **(readings | values)), said, status_code=422
            )
        self.assertEqual(len(self.plan().as_built.proofs), 2)

    def test_a_trial_is_set_beside_the_sums_and_learned_from(self) -> None:
        page = self.client.get(f"{self.url('stage', 'record')}?piece=shelf&look=trial")
        self.assertContains(page, "Hang a bucket")
        tried = {"look": "trial", "hours": "24"}
        kept = self.keep("record:save-trial", kg="200 kg", gave="nothing", **tried)
        self.assertContains(kept, "Holds the allowable load")
        self.assertContains(kept, "did not fail")
        broke = self.keep("record:save-trial", kg="5 kg", gave="split", **tried)
        self.assertContains(broke, "rely on this fixing")
        self.assertContains(broke, "the weakest failed at 0.")
        for values, said in (({"kg": ""}, "required"), ({"kg": "0 kg"}, "more than 0 kg")):
            refused = self.keep("record:save-trial", gave="bent", **(tried | values))
            self.assertContains(refused, said, status_code=422)
        self.assertEqual(len(self.plan().as_built.trials), 2)

    @override_settings(DIAL="trade.devices.stand_ins.StandInDial")
    def test_a_dial_fills_the_readings_in(self) -> None:
        page = self.client.get(
            f"{self.url('stage', 'record')}?piece=shelf&look=proof"
        ).content.decode()
        self.assertRegex(page, r'name="loaded" value="[\d.]+ mm"')

    def test_looks_decide_what_the_stick_says(self) -> None:
        self.assertContains(
            self.keep("record:save-look", look="look", held="loose", note="the left one"), "1 loose"
        )
        self.assertContains(self.keep("record:save-look", look="look", held="firm"), "the left one")
        self.assertNotContains(self.client.get(self.url("stage", "record")), "1 loose")

    def test_the_label_the_owners_sheet_and_the_calendar(self) -> None:
        self.keep("record:save-built", up_way="1", right_way="1")
        label = self.client.get(f"{self.url('record:piece-labels')}?piece=shelf").content
        for words in (
            "Carries 20 kg in all",
            "spread along it",
            "Hung 01 Mar 2031 by Ana",
            "8 × ",
            "studs at 800 mm, 1600 mm",
        ):
            self.assertIn(words, text_of(label).replace("\n", " "))
        self.assertIn(
            "Look at it on 31 Mar 2031",
            text_of(self.client.get(self.url("record:owner-pdf")).content),
        )
        events = Calendar.from_ical(self.client.get(self.url("record:care-ics")).content).walk(
            "VEVENT"
        )
        self.assertEqual(str(events[0]["dtstart"].dt), "2031-03-31")

    def test_the_code_on_the_label_leads_to_the_record(self) -> None:
        """Its dark squares, measured on paper, are those that the library makes of the address."""
        address = "http://testserver/walls/1/record/?piece=shelf"
        rows = [list(row) for row in segno.make(address, error="m", micro=False).matrix]
        with pdfplumber.open(
            io.BytesIO(piece_labels(hung(plan()), "shelf", "metric", lambda _: address))
        ) as paper:
            dark = [each for each in paper.pages[0].rects if each["width"] < 10 and each["fill"]]
        self.assertEqual(len(dark), sum(sum(1 for dark in row if dark) for row in rows))
        left, top, step = min(e["x0"] for e in dark), min(e["top"] for e in dark), dark[0]["width"]
        drawn = {(round((e["x0"] - left) / step), round((e["top"] - top) / step)) for e in dark}
        self.assertEqual(
            drawn, {(x, y) for y, row in enumerate(rows) for x, dark in enumerate(row) if dark}
        )

    def test_what_wont_hold_gets_no_weight_on_its_label(self) -> None:
        weak = replace(plan(bracket_shelf(screw_length_mm=25.4)), as_built=hung(plan()).as_built)
        self.assertIn(
            "Do not load",
            text_of(piece_labels(weak, None, "metric", lambda key: key)).replace("\n", " "),
        )
