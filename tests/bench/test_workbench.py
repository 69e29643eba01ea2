"""The workbench over the test client: pages, changes, refusals, history."""

import re
import tempfile
from html import unescape
from pathlib import Path
from random import Random
from typing import Any
from unittest import mock

from django.conf import settings
from django.core.cache import caches
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client, TestCase
from django.urls import reverse
from msgspec.structs import replace

from bench import demo
from bench.drawing import elevation, section
from bench.models import Job, Practice, Revision, Wall
from bench.templatetags.gancho import terms
from tests.addresses import addresses
from tests.plans import bracket_shelf, plan, rod_shelf
from tests.trade.test_every_kind import put_up
from trade.assess import assess
from trade.mounts import KINDS, mount_of
from trade.plan import plan_file
from trade.plan.model import Plan, Thing
from trade.plan.shop import Have, Price, Shop

HTMX = {"HTTP_HX_REQUEST": "true", "HTTP_HX_TARGET": "bench"}
STAGES = ("survey", "load", "fix", "mark", "cut", "hang", "record")


def seen(wall: Wall) -> int:
    """Key of the revision that counts on a wall."""
    return int(
        Revision.objects.values_list("pk", flat=True).get(
            wall=wall, number=Wall.objects.get(pk=wall.pk).current_revision
        )
    )


class BenchCase(TestCase):
    """A wall with a shelf and a ledge."""

    def setUp(self) -> None:
        photos = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.enterContext(self.settings(PHOTOS_DIR=photos))  # of its own: tests run side by side
        self.job = Job.objects.create(name="Job")
        self.wall = Wall.begin(self.job, plan(bracket_shelf(), rod_shelf()), "Begin")

    def url(self, name: str, *more: Any) -> str:
        return reverse(name, args=[self.wall.pk, *more])

    def plan(self) -> Plan:
        return Wall.objects.get(pk=self.wall.pk).plan()

    def at(self) -> int:
        """The number of the revision that counts."""
        return Wall.objects.get(pk=self.wall.pk).current_revision

    def base(self) -> int:
        """Its key, as a page would name it."""
        return seen(self.wall)

    def post(self, name: str, /, *more: Any, **values: Any) -> Any:
        return self.client.post(self.url(name, *more), {"base": self.base(), **values}, **HTMX)

    def fix_values(self, **changes: str) -> dict[str, str]:
        form = {
            "name": "Shelf",
            "left": "700 mm",
            "top": "1500 mm",
            "length": "1000 mm",
            "depth": "250 mm",
            "thickness": "20 mm",
            "board": "oak_red",
            "bracket": "braced",
            "stiffener_mm": "0",
            "stiffener": "usual",
            "screw": "wood_10",
            "screw_length": "76.2 mm",
            "supports": "800 mm, 1600 mm",
        }
        return form | changes

    def survey_values(self, **changes: str) -> dict[str, str]:
        form = {
            "name": "Test wall",
            "width": "3200",
            "height": "2400",
            "lining": "gypsum_12_7",
            "studs": "400, 800",
            "give": "2",
            "timber": "unknown",
            "structure": "timber",
            "stud_width": "38",
            "stud_depth": "89",
        }
        return form | changes


class Pictures(BenchCase):
    def setUp(self) -> None:
        super().setUp()
        kept = {
            "BACKEND": "django.core.cache.backends.locmem.LocMemCache",
            "LOCATION": "pictures of this test",
        }
        self.enterContext(self.settings(CACHES=settings.CACHES | {"pictures": kept}))

    def listed(self) -> str:
        [card] = re.findall(
            r'<a class="wall-card".*?</a>',
            self.client.get(reverse("jobs")).content.decode(),
            re.DOTALL,
        )
        return str(card)

    def test_what_is_remembered_is_what_would_be_drawn_over_any_changes(self) -> None:
        dice = Random(11)
        for _ in range(12):
            what = dice.choice(("move", "move", "remove", "undo", "units"))
            if what == "move":
                self.post(
                    "fix:move",
                    "shelf",
                    left_mm=str(dice.randrange(300, 1500)),
                    top_mm=str(dice.randrange(900, 1800)),
                )
            elif what == "remove":
                self.post("fix:remove", "ledge")
            else:
                self.post(what, **({"units": "imperial"} if what == "units" else {}))
            remembered = (self.listed(), self.listed())
            caches["pictures"].clear()
            self.assertEqual(remembered, (self.listed(),) * 2, what)

    def test_a_wall_is_judged_and_drawn_once_until_it_or_the_program_changes(self) -> None:
        with mock.patch("bench.pictures.assess", wraps=assess) as judged:
            for _ in range(3):
                self.listed()
            self.assertEqual(judged.call_count, 1)
            self.post("fix:move", "shelf", left_mm="710", top_mm="1400")
            self.listed()
            self.assertEqual(judged.call_count, 2)
            with mock.patch("bench.pictures._program", return_value="another table"):
                self.listed()
            self.assertEqual(judged.call_count, 3)


class FromTheList(BenchCase):
    def test_so_much_of_something(self) -> None:
        row = {
            "thing-0-name": "Tins",
            "thing-0-weight": "8 kg",
            "thing-0-at": "",
            "thing-0-out": "",
        }
        self.assertEqual(
            self.post(
                "load:save", "shelf", use="display", amount="12", pick="plates", **row
            ).status_code,
            200,
        )
        things = self.plan().pieces[0].things
        self.assertEqual(
            [(thing.name, thing.mass_kg) for thing in things],
            [("Tins", 8.0), ("Dinner plates, 12", 9.0)],
        )
        for amount, pick, words in (
            ("12", "", "Choose what it is"),
            ("", "plates", "How much of it"),
            ("lots", "plates", "is not a number of"),
            ("lots", "books", "lots"),
        ):
            with self.subTest(amount=amount, pick=pick):
                answer = self.post(
                    "load:save", "shelf", use="display", amount=amount, pick=pick, **row
                )
                self.assertContains(answer, words, status_code=422)
        self.assertEqual(self.plan().pieces[0].things, things)


class EveryKind(BenchCase):
    def shown(self, key: str) -> dict[str, str]:
        """What the Fix form of a piece shows, as a browser would send it."""
        page = self.client.get(f"{self.url('stage', 'fix')}?piece={key}").content.decode()
        form = page.split(f'action="{self.url("fix:save", key)}"')[1].split("</form>")[0]
        values = {}
        for tag, name in re.findall(r'(<input[^>]*name="([^"]+)"[^>]*>)', form):
            value = re.search(r'value="([^"]*)"', tag)
            box = 'type="checkbox"' in tag
            if not box or "checked" in tag:
                values[name] = unescape(value[1]) if value else "on" if box else ""
        for name, options in re.findall(r'<select name="([^"]+)"(.*?)</select>', form, re.S):
            chosen = re.search(r'<option value="([^"]*)" selected', options)
            values[name] = chosen[1] if chosen else ""
        return {
            name: value
            for name, value in values.items()
            if name not in ("base", "csrfmiddlewaretoken", "stage", "piece")
        }

    def test_the_form_says_what_the_plan_says_and_keeps_it(self) -> None:
        for kind in KINDS:
            with self.subTest(kind=kind):
                self.assertEqual(
                    self.post("fix:put-up", kind=kind, x_mm="2000", top_mm="1200").status_code, 200
                )
                before = self.plan().pieces[-1]
                answer = self.post(
                    "fix:save", before.key, **(self.shown(before.key) | {"name": "Renamed"})
                )
                self.assertEqual(
                    answer.status_code,
                    200,
                    re.findall(r'class="error"[^>]*>([^<]*)', answer.content.decode()),
                )
                self.assertEqual(self.plan().piece(before.key), replace(before, name="Renamed"))
                self.client.post(self.url("fix:remove", before.key), {"base": self.base()})

    def test_screws_round_a_corner_are_typed_with_commas_and_refused_by_their_number(self) -> None:
        self.post("fix:put-up", kind="ledger_shelf", x_mm="2000", top_mm="1200")
        key = self.plan().pieces[-1].key
        shown = self.shown(key)
        self.assertEqual(shown["left_screws_mm"], "")
        self.post("fix:save", key, **(shown | {"left_screws_mm": "250 mm, 120 mm"}))
        self.assertEqual(self.plan().piece(key).left_screws_mm, (120.0, 250.0))
        wrong = self.shown(key) | {"left_screws_mm": "120 mm, often"}
        answer = self.post("fix:save", key, **wrong)
        self.assertContains(answer, "Number 2", status_code=422)
        self.assertContains(answer, "120 mm, often", status_code=422)
        self.assertEqual(self.plan().piece(key).left_screws_mm, (120.0, 250.0))


class Pages(BenchCase):
    def test_every_stage_as_page_and_as_fragment(self) -> None:
        for stage in STAGES:
            page = self.client.get(self.url("stage", stage))
            part = self.client.get(self.url("stage", stage), **HTMX)
            self.assertContains(page, "<!DOCTYPE html>")
            self.assertNotContains(part, "<!DOCTYPE html>")
            self.assertContains(part, f'class="bench stage-{stage}"')

    def test_constant_queries_whatever_hangs_there(self) -> None:
        for pieces in (
            (),
            tuple(bracket_shelf(key=f"s{n}", top_mm=200.0 * n + 100) for n in range(10)),
        ):
            wall = Wall.begin(
                self.job, plan(*pieces) if pieces else plan().without_piece("shelf"), "Begin"
            )
            with self.assertNumQueries(2):
                self.client.get(reverse("stage", args=[wall.pk, "fix"]))
        with self.assertNumQueries(2):
            self.client.get(reverse("jobs"))

    def test_strict_content_policy_and_nothing_from_elsewhere(self) -> None:
        page = self.client.get(self.url("stage", "fix"))
        policy = page["Content-Security-Policy"]
        self.assertNotIn("unsafe", policy)
        self.assertIn("default-src 'none'", policy)
        self.assertNotRegex(page.content.decode(), r'(?:src|href|action)="(?:https?:)?//')
        self.assertNotRegex(page.content.decode(), r'\sstyle="|<style|\son\w+="')

    def test_wrong_addresses_are_404(self) -> None:
        for url in (
            "/walls/999/fix/",
            f"/walls/{10**30}/fix/",
            self.url("stage", "paint"),
            "/nowhere/",
            "/walls/0/plan.json",
        ):
            self.assertEqual(self.client.get(url).status_code, 404)
        for name in ("fix:move", "load:save", "fix:save", "fix:remove", "fix:support", "fix:cure"):
            self.assertEqual(self.post(name, "nothing").status_code, 404)

    def test_no_address_breaks_on_nonsense(self) -> None:
        """Every address, by GET and by an empty POST, with a wall and a piece: never a 500."""
        run = Practice.objects.create(seed=1, level="plain")
        known = {
            "wall": self.wall.pk,
            "key": "shelf",
            "stage": "fix",
            "index": 7,
            "run": run.pk,
            "question": "plates",
            "what": "template",
            "kind": "pdf",
            "job": 0,
            "n": 0,
            "offcut": 1,
            "share": 1,
            "token": "nobody",
            "uid": "nobody",
            "units": "furlongs",
            "field": "x",
            "photo": 1,
            "pk": 1,
        }
        for each in addresses():
            url = reverse(each.name, kwargs={key: known[key] for key in each.converters})
            for answer in (
                self.client.get(url),
                self.client.post(url, **HTMX),
                self.client.post(url, {"base": "x", "kind": "?", "left_mm": "nan"}, **HTMX),
            ):
                self.assertLess(answer.status_code, 500, url)

    def test_every_wall_can_be_reached(self) -> None:
        for n in range(30):
            Wall.begin(self.job, plan(), f"Begin {n}")
        seen = {
            url
            for page in (1, 2)
            for url in re.findall(
                r'href="(/walls/\d+/)"', self.client.get(f"/?page={page}").content.decode()
            )
        }
        self.assertEqual(len(seen), 31)

    def test_a_page_from_another_visit_and_a_heap_of_data_are_refused_with_a_sentence(self) -> None:
        strict = Client(enforce_csrf_checks=True)
        self.assertContains(
            strict.post(self.url("undo"), {"base": "²"}), "Load the page again", status_code=403
        )
        self.assertContains(
            self.client.post(self.url("undo"), {"x": "9" * 7_000_000}),
            "Nothing was changed",
            status_code=400,
        )
        self.assertEqual(self.client.post(self.url("undo"), {"base": "²"}, **HTMX).status_code, 409)

    def test_names_are_escaped_everywhere(self) -> None:
        wall = Wall.begin(self.job, plan(bracket_shelf(name='<b>"{x}"</b>')), "Begin")
        for stage in STAGES:
            self.assertNotContains(self.client.get(reverse("stage", args=[wall.pk, stage])), "<b>")

    def test_words_of_the_trade_lead_to_what_they_mean(self) -> None:
        """Once each, in any number; not in a name that somebody gave, and no markup gets in."""
        said = terms("Studs behind the “stud shelf”: a <b>stud</b> and a French cleat.")
        self.assertEqual(
            re.findall(r'#(\w+)" hx-get="[^"]+"[^>]*>([^<]+)', said),
            [
                ("stud", "Studs"),
                ("french_cleat", "French cleat"),
            ],
        )
        self.assertIn("“stud shelf”: a &lt;b&gt;stud&lt;", said)
        self.assertContains(self.client.get(reverse("term", args=["stud"])), "An upright timber")
        self.assertEqual(self.client.get(reverse("term", args=["nothing"])).status_code, 404)

    def test_the_rules_page_prints_every_check(self) -> None:
        page = self.client.get(reverse("rules"))
        for one in assess(self.plan()).pieces[0].checks:
            self.assertContains(page, one.name)


class Changes(BenchCase):
    def test_moving_is_kept_and_judged(self) -> None:
        answer = self.post("fix:move", "shelf", left_mm="850", top_mm="1400")
        self.assertContains(answer, "misses the stud")
        self.assertEqual(
            (self.plan().piece("shelf").left_mm, self.plan().piece("shelf").top_mm), (850.0, 1400.0)
        )

    def test_a_live_move_is_judged_and_not_kept(self) -> None:
        answer = self.post("fix:move", "shelf", left_mm="850", top_mm="1400", live="1")
        self.assertContains(answer, "misses the stud")
        self.assertEqual((self.plan().piece("shelf").left_mm, self.at()), (700.0, 1))

    def test_moving_off_the_wall_stops_at_its_edge(self) -> None:
        self.post("fix:move", "shelf", left_mm="99999", top_mm="-50")
        self.assertEqual(
            (self.plan().piece("shelf").left_mm, self.plan().piece("shelf").top_mm), (2200.0, 20.0)
        )

    def test_putting_up_loading_and_taking_down(self) -> None:
        answer = self.post("fix:put-up", kind="bracket_shelf", x_mm="1200", top_mm="600")
        self.assertContains(answer, "Can&#x27;t tell")
        key = self.plan().pieces[-1].key
        answer = self.post(
            "load:save",
            key,
            use="hard",
            **{
                "thing-0-name": "Tins",
                "thing-0-weight": "8 kg",
                "thing-0-at": "10 cm",
                "thing-0-out": "20 cm",
            },
        )
        self.assertEqual(
            self.plan().piece(key).things,
            (Thing(name="Tins", mass_kg=8.0, at_mm=100.0, out_mm=200.0),),
        )
        self.post("fix:remove", key)
        self.assertNotIn(key, [piece.key for piece in self.plan().pieces])

    def test_hardware_and_length_are_kept_and_supports_follow_the_studs(self) -> None:
        self.post("fix:save", "shelf", **self.fix_values(length="1400 mm", bracket="bar"))
        piece = self.plan().piece("shelf")
        self.assertEqual(
            (piece.length_mm, piece.bracket, piece.supports_mm),
            (1400.0, "bar", (100.0, 500.0, 900.0, 1300.0)),
        )

    def test_typed_supports_are_kept(self) -> None:
        self.post("fix:save", "shelf", **self.fix_values(supports="800, 1200, 1600"))
        self.assertEqual(self.plan().piece("shelf").supports_mm, (100.0, 500.0, 900.0))

    def test_what_was_not_changed_stays_exact(self) -> None:
        wall = Wall.begin(self.job, plan(bracket_shelf(left_mm=700.1234567)), "Begin")
        values = {
            "base": wall.seen,
            **self.fix_values(left="700.1 mm", supports="800.1 mm, 1600.1 mm", depth="240"),
        }
        self.client.post(reverse("fix:save", args=[wall.pk, "shelf"]), values, **HTMX)
        piece = Wall.objects.get(pk=wall.pk).plan().piece("shelf")
        self.assertEqual(
            (piece.left_mm, piece.depth_mm, piece.supports_mm), (700.1234567, 240.0, (100.0, 900.0))
        )

    def test_a_cure_is_offered_and_delivers(self) -> None:
        self.post("fix:move", "shelf", left_mm="760", top_mm="1500")
        offered = self.client.get(self.url("fix:cures", "shelf"), **HTMX)
        self.assertContains(offered, "in the middle of the stud next to it")
        self.assertContains(self.post("fix:cure", "shelf", code="seat-0"), "word word-holds")

    def test_a_rail_that_no_shop_has_so_long_is_made_of_two_by_one_tap(self) -> None:
        long = put_up("rail", self.plan().wall, key="rail", board="oak_white", thickness_mm=27.0)
        reach = (100.0, 500.0, 900.0, 1300.0, 1700.0, 2100.0)
        long = replace(long, left_mm=700.0, length_mm=2400.0, supports_mm=reach)
        self.wall.record(self.plan().with_piece(long), "A long rail", self.base())
        page = self.client.get(f"{self.url('stage', 'fix')}?piece=rail")
        self.assertContains(page, "No shop has its board in one piece")
        self.assertContains(page, "Joint it over the stud")
        after = self.post("fix:cure", "rail", code="two-lengths")
        self.assertNotContains(after, "No shop has its board in one piece")
        self.assertIn(self.plan().piece("rail").joint_mm, reach)
        self.assertEqual(self.post("fix:cure", "shelf", code="seat-0").status_code, 422)

    def test_survey(self) -> None:
        self.post(
            "survey:save", **self.survey_values(studs="16 in every 16 in", width="12 ft", give="")
        )
        wall = self.plan().wall
        self.assertEqual(
            (len(wall.studs), wall.studs[0].uncertainty_mm, wall.timber), (9, None, None)
        )
        self.assertAlmostEqual(wall.studs[8].centre_mm, 144 * 25.4)

    def test_without_scripts_a_change_leads_back_to_the_page(self) -> None:
        answer = self.client.post(self.url("fix:remove", "shelf"), {"base": self.base()})
        self.assertRedirects(answer, self.url("stage", "fix"))


class Refusals(BenchCase):
    def refused(self, answer: Any, words: str, typed: str) -> None:
        self.assertContains(answer, words, status_code=422)
        self.assertContains(answer, typed, status_code=422)
        self.assertEqual(self.at(), 1)

    def test_each_bad_value_beside_its_field_with_what_was_typed(self) -> None:
        for field, typed, words in (
            ("length", "9 m", "the wall only"),
            ("length", "forty", "is not a number"),
            ("left", "3000", "past the wall"),
            ("depth", "-3", "be negative"),
            ("thickness", "1e9", "not a known unit"),
            ("top", "31 m", "longer than any wall"),
            ("length", "NaN", "is not a number"),
            ("screw_length", "inf", "is not a number"),
            ("supports", "50", "is not within it"),
            ("supports", "800, x", "Number 2"),
            ("supports", "800, 805", "closer together"),
            ("top", "", "Fill in this field"),
        ):
            with self.subTest(field=field, typed=typed):
                answer = self.post("fix:save", "shelf", **self.fix_values(**{field: typed}))
                self.refused(answer, words, f'value="{typed}"' if typed else 'aria-invalid="true"')
                self.assertContains(answer, f'id="error-{field}"', status_code=422)

    def test_load_refusals(self) -> None:
        for part, typed, words in (
            ("weight", "-4", "be negative"),
            ("weight", "6 t", "not a known unit"),
            ("at", "2 m", "beyond the end"),
            ("out", "30 cm", "further out"),
            ("weight", "9999", "more than"),
        ):
            values = {
                "thing-0-name": "Box",
                "thing-0-weight": "4",
                "thing-0-at": "",
                f"thing-0-{part}": typed,
            }
            with self.subTest(typed=typed):
                self.refused(
                    self.post("load:save", "shelf", use="display", **values),
                    words,
                    f'value="{typed}"',
                )

    def test_plan_files(self) -> None:
        good = plan_file.dump(self.plan())
        for raw, words in (
            (good[:99], "cut short"),
            (good.replace(b'"version": 2', b'"version": 7'), "another version"),
            (b"\x00" * 50, "not a plan"),
            (b"9" * 5_000_010, "larger"),
        ):
            answer = self.client.post(
                reverse("import"), {"plan": SimpleUploadedFile("wall.json", raw)}
            )
            self.assertContains(answer, words, status_code=422)
        self.assertContains(
            self.client.post(reverse("import")), "Choose a plan file", status_code=422
        )
        answer = self.client.post(
            reverse("import"), {"plan": SimpleUploadedFile("wall.json", good)}, follow=True
        )
        self.assertContains(answer, "Test wall")
        self.assertEqual(Wall.objects.latest("pk").plan(), self.plan())

    def test_a_new_wall(self) -> None:
        page = self.client.get(reverse("new-wall") + "?units=metric")
        self.assertContains(page, 'value="2440 mm"')
        bad = self.client.post(
            reverse("new-wall"),
            {"units": "metric", **self.survey_values(name="Hall", width="wide")},
        )
        self.assertContains(bad, "is not a number", status_code=422)
        good = self.client.post(
            reverse("new-wall"),
            {"units": "metric", "job": "Flat", **self.survey_values(name="Hall", studs="")},
            follow=True,
        )
        self.assertContains(good, "Nothing on this wall yet")

    def test_a_new_wall_knows_what_is_in_the_drawer_and_what_one_pays(self) -> None:
        have, prices = (Have(of="bit:bit:2.5 mm", many=1),), (Price(of="screw:x:60", each=0.2),)
        shop = Shop(have=have, prices=prices, ready=90.0)
        for units, paid in (("metric", prices), ("imperial", ())):
            there = replace(plan(), units=units, shop=shop)
            Wall.begin(Job.objects.create(name="Elsewhere"), there, "Begin")
            asked = {"units": "metric", **self.survey_values(name=units, studs="")}
            self.client.post(reverse("new-wall"), asked)
            new = Wall.objects.latest("pk").plan()
            self.assertEqual((new.name, new.shop), (units, Shop(have=have, prices=paid)))

    def test_a_form_that_is_sent_twice_makes_one_thing(self) -> None:
        raw = plan_file.dump(plan())
        for name, args, values in (
            ("new-wall", [], {"units": "metric", **self.survey_values(name="Hall")}),
            ("import", [], {}),
            ("log:copy", [self.wall.pk, "shelf"], {"to": self.wall.pk}),
            ("practice:begin", [], {"level": "plain", "seed": "7"}),
        ):
            made = []
            for token in ("one", "one", "two"):
                file = {"plan": SimpleUploadedFile("wall.json", raw)} if name == "import" else {}
                made.append(
                    self.client.post(
                        reverse(name, args=args), values | file | {"once": token}
                    ).headers["Location"]
                )
            with self.subTest(name):
                self.assertEqual(made[0], made[1])
                self.assertNotEqual(made[0], made[2])
        self.assertEqual(
            (Wall.objects.count(), Practice.objects.count(), len(self.plan().pieces)), (5, 2, 4)
        )

    def test_a_form_that_was_refused_can_be_sent_again(self) -> None:
        values = {"units": "metric", "once": "one", **self.survey_values(name="Hall")}
        self.assertEqual(
            self.client.post(reverse("new-wall"), values | {"width": "wide"}).status_code, 422
        )
        self.assertEqual(self.client.post(reverse("new-wall"), values).status_code, 302)


class History(BenchCase):
    def test_undo_and_redo_go_back_through_everything(self) -> None:
        plans = [self.plan()]
        for name, more, values in (
            ("fix:move", ("shelf",), {"left_mm": "900", "top_mm": "900"}),
            ("fix:remove", ("ledge",), {}),
            ("survey:save", (), self.survey_values()),
            ("fix:put-up", (), {"kind": "rod_shelf", "x_mm": "800", "top_mm": "2000"}),
        ):
            self.assertEqual(self.post(name, *more, **values).status_code, 200)
            plans.append(self.plan())
        for expected in plans[-2::-1]:
            self.post("undo")
            self.assertEqual(self.plan(), expected)
        self.assertContains(self.post("undo"), "nothing to undo", status_code=422)
        for expected in plans[1:]:
            self.post("redo")
            self.assertEqual(self.plan(), expected)
        self.assertContains(self.post("redo"), "nothing to redo", status_code=422)

    def test_two_windows_never_overwrite_one_another(self) -> None:
        old = self.base()
        self.post("fix:move", "shelf", left_mm="900", top_mm="900")
        answer = self.client.post(
            self.url("fix:move", "shelf"), {"base": old, "left_mm": "300", "top_mm": "300"}, **HTMX
        )
        self.assertContains(answer, "changed in another window", status_code=409)
        self.assertEqual(self.plan().piece("shelf").left_mm, 900.0)

    def test_a_number_that_came_again_is_another_change(self) -> None:
        """Undone in another window, and something else done.

        The page that still shows what was undone changes nothing.
        """
        self.post("fix:move", "shelf", left_mm="900", top_mm="900")
        old, at = self.base(), self.at()
        self.post("undo")
        self.post("fix:move", "ledge", left_mm="400", top_mm="500")
        self.assertEqual(self.at(), at)
        for name, more in (("fix:move", ("shelf",)), ("undo", ())):
            answer = self.client.post(
                self.url(name, *more), {"base": old, "left_mm": "300", "top_mm": "300"}, **HTMX
            )
            self.assertContains(answer, "changed in another window", status_code=409)
        self.assertEqual(
            (self.plan().piece("shelf").left_mm, self.plan().piece("ledge").left_mm), (700.0, 400.0)
        )

    def test_units_change_what_is_said_and_nothing_else(self) -> None:
        before = plan_file.dump(self.plan())
        self.assertContains(self.post("units", units="imperial"), "59 1/16&quot;")
        self.assertEqual(plan_file.dump(self.plan()).replace(b"imperial", b"metric"), before)
        self.assertEqual(self.at(), 1)

    def test_the_plan_file_is_the_plan(self) -> None:
        answer = self.client.get(self.url("plan-file"))
        self.assertEqual(plan_file.load(answer.content), self.plan())
        self.assertIn('filename="test-wall.plan.json"', answer["Content-Disposition"])


class Drawings(BenchCase):
    def test_to_scale(self) -> None:
        sheet = elevation.draw(self.plan(), assess(self.plan()), "shelf", "mark", ())
        x, y, per_mm = sheet.scale.x(700), sheet.scale.y(1500), sheet.scale.px_per_mm
        self.assertIn(f'<rect class="shape-board" x="{x:.6g}" y="{y:.6g}"', sheet.markup)
        self.assertAlmostEqual(sheet.scale.x(1700) - x, 1000 * per_mm)
        self.assertAlmostEqual(sheet.scale.y(0) - y, 1500 * per_mm)

    def test_the_section_is_drawn_for_every_state_of_the_wall(self) -> None:
        for piece in (
            bracket_shelf(),
            rod_shelf(),
            rod_shelf(let_in=False),
            bracket_shelf(left_mm=850.0),
            bracket_shelf(supports_mm=(100.0,)),
        ):
            for changes in ({}, {"layers": None}, {"layers": ()}, {"studs": ()}):
                now = plan(piece, **changes)
                verdict = assess(now).pieces[0]
                support = section.seat_in_question(piece, now, verdict)
                assert support is not None
                self.assertIn("<svg", section.draw(piece, now, verdict, support))

    def test_the_demo_shows_one_of_each_verdict(self) -> None:
        self.assertEqual((demo.load(), demo.load()), (13, 0))
        walls = list(
            Wall.objects.filter(job__name__in=[job for job, _ in demo.PLANS]).order_by("pk")
        )
        words = [[piece.outcome for piece in assess(wall.plan()).pieces] for wall in walls]
        self.assertEqual(
            (words[0], words[4], words[9]),
            (["holds", "close", "wont_hold"], ["cannot_tell"], ["close"]),
        )
        used = {mount_of(piece).kind for wall in walls for piece in wall.plan().pieces}
        self.assertEqual(used, set(KINDS))  # every kind on a wall that suits it
        self.assertNotIn("wont_hold", words[1] + words[5])
