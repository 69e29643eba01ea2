"""Choosing over the test client.

Hanging things, adopting ways, laying out, the job's policy; what is refused and how.
"""

from django.urls import reverse
from msgspec.structs import replace

from bench.models import Wall
from tests.bench.test_workbench import HTMX, BenchCase
from tests.plans import bracket_shelf, plan, rod_shelf
from tests.trade.test_every_kind import put_up
from trade.assess import assess
from trade.measure import say_length
from trade.plan.model import Policy, Thing


class Hanging(BenchCase):
    def hang(self, **values: str) -> object:
        fields = {"what": "plates", "amount": "12", "length": "", "depth": "", "many": "1"} | values
        place = {"kind": "thing", "x_mm": "2400", "top_mm": "1900"}
        return self.post(
            "fix:put-up", **place, **{f"hang-{name}": value for name, value in fields.items()}
        )

    def test_a_thing_hangs_the_best_way_and_the_ways_are_shown(self) -> None:
        answer = self.hang()
        self.assertContains(answer, 'data-look="ways"')
        made = self.plan().pieces[-1]
        self.assertEqual(
            (made.things[0].name, assess(self.plan()).piece(made.key).outcome),
            ("Dinner plates, 12", "holds"),
        )
        self.assertContains(
            self.client.get(self.url("fix:ways", made.key), **HTMX), "It needs a wall at each end"
        )
        self.assertContains(
            self.client.get(self.url("fix:ways", made.key), {"part": "strip"}, **HTMX),
            "Hangs so now",
        )

    def test_several_hang_side_by_side_and_what_finds_no_room_is_said(self) -> None:
        self.assertContains(self.hang(many="3"), "3 placed")
        self.assertEqual(len(self.plan().pieces), 5)
        self.assertEqual({verdict.outcome for verdict in assess(self.plan()).pieces}, {"holds"})

    def test_where_it_would_not_hold_the_nearest_place_is_taken(self) -> None:
        self.wall.record(
            replace(
                plan(bracket_shelf(top_mm=1900.0, left_mm=1900.0)),
                policy=Policy(shift_mm=0.0, grow_mm=0.0),
            ),
            "Alone",
            self.base(),
        )
        self.assertContains(self.hang(what="books", amount="900 mm"), "at the nearest place")
        self.assertEqual({verdict.outcome for verdict in assess(self.plan()).pieces}, {"holds"})

    def test_where_nothing_holds_it_is_put_up_all_the_same_with_what_is_wrong(self) -> None:
        self.assertContains(self.hang(what="shelf", amount="900 kg"), "Won&#x27;t hold")
        self.assertContains(
            self.client.get(self.url("fix:ways", self.plan().pieces[-1].key)), "Nothing holds here"
        )

    def test_a_bare_number_is_read_in_the_unit_shown_beside_it(self) -> None:
        shown = self.client.get(
            reverse("amount-unit", args=["metric", "hang-amount"]), {"hang-what": "books"}
        )
        self.assertContains(shown, 'name="hang-amount_in" value="length"')
        self.assertContains(shown, ">mm</span>")
        self.hang(what="books", amount="600", amount_in="length")
        self.assertEqual(self.plan().pieces[-1].things[0].name, "Books, mixed, 600 mm")

    def test_nudged_with_catch_on_its_supports_stay_on_their_studs(self) -> None:
        """From 700 its supports are on the studs at 800 and 1 600; 1 m long it ends at 1 700."""
        for by, catch, supports in (
            ("right", "1", (90.0, 890.0)),
            ("right", "", (100.0, 900.0)),
        ):
            with self.subTest(by=by, catch=catch):
                self.post("fix:move", "shelf", nudge=by, far="1", catch=catch)
                piece = self.plan().piece("shelf")
                self.assertEqual((piece.left_mm, piece.supports_mm), (710.0, supports))
                self.client.post(self.url("undo"), {"base": self.base()})
        for _ in range(9):  # at 790 the first would hang over too little: on to the next studs
            self.post("fix:move", "shelf", nudge="right", far="1", catch="1")
        piece = self.plan().piece("shelf")
        studs = {round(piece.left_mm + x) for x in piece.supports_mm}
        self.assertLessEqual(studs, {800, 1200, 1600, 2000})
        self.assertEqual(assess(self.plan()).piece("shelf").outcome, "holds")

    def test_refusals_stand_beside_their_fields(self) -> None:
        for values, said in (
            ({"what": ""}, "Choose what to hang"),
            ({"amount": "some"}, "“some” is not a number"),
            ({"what": "books", "amount": "12"}, "12 mm or 12 cm"),
            ({"what": "books", "amount": "12", "amount_in": "weight"}, "12 mm or 12 cm"),
            ({"length": "long"}, "long"),
            ({"many": "50"}, "less than or equal to 6"),
            ({"depth": "9 m"}, "How deep it is must lie between"),
        ):
            with self.subTest(said=said):
                answer = self.hang(**values)
                self.assertContains(answer, said, status_code=422)
                self.assertContains(answer, 'id="hang-box" open', status_code=422)
        self.assertEqual(len(self.plan().pieces), 2)

    def test_a_way_that_is_gone_is_refused_and_one_that_is_there_is_adopted(self) -> None:
        self.assertContains(
            self.post("fix:adopt", "shelf", way="nothing-studs"), "no longer valid", status_code=422
        )
        self.assertContains(
            self.post("fix:adopt", "shelf", way="box_shelf-studs"), "Hollow box shelf"
        )
        self.assertEqual(self.plan().piece("shelf").things, bracket_shelf().things)


class LayingOut(BenchCase):
    def test_rows_and_their_refusals(self) -> None:
        low = {"rows-rows": "3", "rows-manner": "fitted", "rows-tall": "", "rows-high": ""}
        self.assertContains(
            self.post("fix:rows", "ledge", **low), "How tall is the tallest thing", status_code=422
        )
        self.assertContains(
            self.post("fix:rows", "ledge", **low | {"rows-tall": "20 cm, tall"}),
            "tall",
            status_code=422,
        )
        self.wall.record(plan(rod_shelf(top_mm=900.0)), "Alone", self.base())
        self.assertContains(
            self.post("fix:rows", "ledge", **low | {"rows-tall": "20 cm, 250"}), "Ledge, row 3"
        )
        self.assertEqual(
            [piece.top_mm for piece in self.plan().pieces],
            [900.0, 900 + 240 + 95, 1235.0 + 290 + 95],
        )

    def test_fit_hooks_and_battens(self) -> None:
        self.wall.record(
            plan(
                put_up(
                    "peg_wall",
                    self.plan().wall,
                    key="pegs",
                    things=(Thing(name="Rope", mass_kg=2.0),),
                )
            ),
            "Pegs",
            self.base(),
        )
        self.post("fix:lay", "pegs", how="hooks", hooks="4")
        self.assertEqual([thing.name for thing in self.plan().pieces[0].things][-1], "Rope, 4")
        self.assertContains(
            self.post("fix:lay", "pegs", how="hooks", hooks="-1"),
            "not a number of hooks",
            status_code=422,
        )
        self.assertContains(self.post("fix:lay", "pegs", how="battens"), "Holds")
        self.assertContains(self.post("fix:lay", "pegs", how="fit"), "Holds")

    def test_to_the_strongest_place(self) -> None:
        self.assertContains(self.client.get(self.url("fix:where", "shelf")), "The strongest places")
        self.assertContains(self.client.get(self.url("fix:where", "shelf")), "to spare for later")
        self.assertContains(
            self.client.get(self.url("fix:where", "shelf"), {"part": "shade"}), "spot-plenty"
        )
        self.assertContains(
            self.post("fix:settle", "shelf", left_mm="300", top_mm="1500"), 'data-look="where"'
        )
        self.assertEqual(self.plan().piece("shelf").supports_mm, (100.0, 500.0, 900.0))
        self.assertEqual(
            self.post("fix:settle", "shelf", left_mm="here", top_mm="1500").status_code, 422
        )

    def test_what_if_with_nonsense_is_as_it_is(self) -> None:
        for asked in ({}, {"load": "much", "out": "-3"}, {"load": "99999999"}):
            answer = self.client.get(self.url("fix:what-if", "shelf"), asked)
            self.assertContains(answer, "reaching <strong>250 mm</strong> out")


class ThePolicy(BenchCase):
    def values(self, **changes: str) -> dict[str, str]:
        policy = Policy()
        answers = (
            "anchors",
            "hollow",
            "plates",
            "stays",
            "made",
            "lead_holes",
            "level",
            "minds",
            "matters",
        )
        form = {answer: getattr(policy, answer) for answer in answers} | {
            "school": "american",
            "shift": "210 mm",
            "grow": "210 mm",
        }
        return form | {"look": "policy", "most_holes": "", "budget": ""} | changes

    def test_kept_with_the_wall_undone_and_given_to_new_walls_of_the_job(self) -> None:
        self.post(
            "fix:save-policy",
            **self.values(
                made="shop", school="european", most_holes="8", **{"lacks-table_saw": "on"}
            ),
        )
        self.assertEqual(
            self.plan().policy, Policy(made="shop", most_holes=8, lacks=("table_saw",))
        )
        self.assertEqual(self.plan().wall.design_code, "european")
        asked = {
            "name": "Next",
            "width": "3 m",
            "height": "2.4 m",
            "lining": "gypsum_12_7",
            "structure": "timber",
            "studs": "400",
            "units": "metric",
            "job": "Job",
        }
        self.client.post(reverse("new-wall"), asked)
        self.assertEqual(Wall.objects.order_by("-pk")[0].plan().policy.made, "shop")
        self.post("undo")
        self.assertEqual(self.plan().policy, Policy())

    def test_the_saw_stays_as_it_was_set(self) -> None:
        self.post("cut:saw", stage="cut", kerf="2 mm", trim="10 mm")
        self.post("fix:save-policy", **self.values(made="shop"))
        self.assertEqual(self.plan().policy, Policy(made="shop", kerf_mm=2.0, trim_mm=10.0))

    def test_a_saw_in_inches_trims_a_quarter_of_one(self) -> None:
        asked = {"name": "Next", "width": "10 ft", "height": "8 ft", "lining": "gypsum_12_7"}
        asked |= {"structure": "timber", "studs": "16", "units": "imperial", "job": "Other"}
        self.client.post(reverse("new-wall"), asked)
        policy = Wall.objects.order_by("-pk")[0].plan().policy
        self.assertEqual(say_length(policy.trim_mm, "imperial"), '1/4"')

    def test_refusals_keep_what_was_typed(self) -> None:
        for changes, said in (
            ({"shift": "far"}, "far"),
            ({"most_holes": "-2"}, "greater than or equal to 0"),
            ({"grow": "9 km"}, "9 km"),
            ({"made": "sawn"}, "sawn"),
        ):
            answer = self.post("fix:save-policy", **self.values(**changes))
            self.assertContains(answer, said, status_code=422)
        self.assertEqual(self.plan().policy, Policy())

    def test_what_others_would_change_is_worked_out_and_only_for_known_questions(self) -> None:
        self.assertContains(self.client.get(self.url("fix:policy-effects", "plates")), "“Ledge”")
        self.assertContains(
            self.client.get(self.url("fix:policy-effects", "stays")),
            "Nothing on this wall would change.",
        )
        self.assertEqual(self.client.get(self.url("fix:policy-effects", "colour")).status_code, 404)

    def test_without_a_stud_the_ways_ask_for_one(self) -> None:
        self.wall.record(plan(bracket_shelf(), studs=()), "No studs", self.base())
        self.assertContains(self.client.get(self.url("fix:ways", "shelf")), "Find out first")
        self.assertContains(
            self.client.get(self.url("fix:cures", "shelf")), "What the verdict would be then"
        )
