"""People.

What is somebody's own is nobody else's, proved address by address; helpers hang, links show, wrong
passwords rest.
"""

import io
import os
import re
import subprocess
import tempfile
from datetime import timedelta
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.management import CommandError, call_command
from django.test import Client, TestCase, override_settings
from django.urls import reverse
from django.utils import timezone
from msgspec.structs import replace

from bench.bin import empty
from bench.models import Job, Offcut, Photo, Practice, Revision, Share, Trail, Wall
from tests import loaded
from tests.addresses import addresses
from tests.plans import bracket_shelf, plan
from tests.turns import in_turn
from trade.job.steps import steps
from trade.plan.model import Shop
from trade.plan.shop import OnHand

OPEN = {
    "people:sign-in",
    "people:sign-out",
    "people:sign-up",
    "people:shown",
    "hang-worker",
    "people:account",
    "people:new-password",  # of nobody's data
    "jobs",
    "kinds",
    "rules",
    "glossary",
    "workshop",
    "amount-unit",
    "stopped",
    "term",
    "import",
    "practice:lobby",
    "practice:begin",
    "new-wall",
    "preview",
    "bin:contents",
    "people:trail",
    "log:entries",
    "log:charts",
    "everything",  # of one's own only
}
KNOWN: dict[str, Any] = {
    "key": "shelf",
    "stage": "fix",
    "index": 0,
    "question": "plates",
    "what": "template",
    "kind": "pdf",
    "n": 0,
    "token": "x",
    "uid": "x",
    "units": "furlongs",
    "field": "x",
}
HTMX = {"HTTP_HX_REQUEST": "true", "HTTP_HX_TARGET": "bench"}


def person(name: str) -> Any:
    return get_user_model().objects.create_user(name, password="a long enough one")


@override_settings(PEOPLE="many")
class Own(TestCase):
    def setUp(self) -> None:
        self.ana, self.bo = person("ana"), person("bo")
        self.job = Job.objects.create(name="Ana's", owner=self.ana)
        kept = OnHand(
            name="end", board="plywood", kind="sheet", length_mm=500, width_mm=400, thickness_mm=18
        )
        self.wall = Wall.begin(self.job, replace(plan(), shop=Shop(kept=(kept,))), "Begin")
        self.run_at = Practice.objects.create(owner=self.ana, seed=1, level="plain")
        self.photo = Photo.objects.create(
            wall=self.wall, key="shelf", file="none.jpg", wide=1, high=1
        )
        self.share = Share.objects.create(job=self.job, helper=person("cy"))

    def seen(self) -> int:
        return Revision.objects.get(
            wall=self.wall, number=Wall.objects.get(pk=self.wall.pk).current_revision
        ).pk

    def addresses(self) -> list[tuple[str, str]]:
        """Every address of the application, with Ana's things in it."""
        known = KNOWN | {
            "wall": self.wall.pk,
            "job": self.job.pk,
            "run": self.run_at.pk,
            "share": self.share.pk,
            "offcut": Offcut.objects.get().pk,
            "pk": self.wall.pk,
            "photo": self.photo.pk,
        }
        found = []
        for each in addresses():
            own = {"bin:restore": {"what": "wall"}, "cut:stock-drop": {"what": "own"}}
            values = known | own.get(each.name, {})
            url = reverse(each.name, kwargs={key: values[key] for key in each.converters})
            found.append((each.name, url))
        return found

    def test_every_address_of_one_persons_data_is_nowhere_for_another(self) -> None:
        client = Client()
        client.force_login(self.bo)
        before = Revision.objects.count()
        walked = 0
        for name, url in self.addresses():
            if name in OPEN:
                continue
            for answer in (
                client.get(url),
                client.post(url, **HTMX),
                client.post(url, {"base": "1", "what": "done", "step": "ready"}),
            ):  # type: ignore[arg-type]
                with self.subTest(name, method=answer.request["REQUEST_METHOD"]):
                    self.assertIn(answer.status_code, (404, 405))
            walked += 1
        self.assertGreater(walked, 60)
        self.assertEqual(Revision.objects.count(), before)
        for name in (
            "jobs",
            "bin:contents",
            "people:trail",
            "practice:lobby",
            "log:entries",
            "log:charts",
        ):
            self.assertNotContains(client.get(reverse(name)), "Ana")
        self.assertLess(len(client.get(reverse("everything")).content), 100, "an empty file")
        self.assertNotContains(
            client.get(reverse("practice:lobby")), f"/practice/{self.run_at.pk}/"
        )

    def test_head_is_answered_like_get_without_a_body(self) -> None:
        self.client.force_login(self.ana)
        for n, (name, url) in enumerate(self.addresses()):
            if not in_turn(n, 0) or name in ("job-file", "everything") or url.endswith(".pdf"):
                continue
            got, head = self.client.get(url), self.client.head(url)
            with self.subTest(name):
                self.assertEqual(
                    (head.status_code, head.get("Content-Type")),
                    (got.status_code, got.get("Content-Type")),
                )
                self.assertEqual(b"".join(head) if head.streaming else head.content, b"")

    def test_another_password_signs_other_places_out(self) -> None:
        here, there = Client(), Client()
        for client in (here, there):
            client.force_login(self.ana)
        form = {
            "what": "password",
            "old_password": "a long enough one",
            "new_password1": "gypsum nail lath 7",
            "new_password2": "gypsum nail lath 7",
        }
        self.assertContains(
            here.post(reverse("people:account"), form | {"old_password": "wrong"}),
            "not your current password",
            status_code=422,
        )
        self.assertContains(here.post(reverse("people:account"), form), "Your password is changed")
        self.assertEqual(
            (here.get(reverse("jobs")).status_code, there.get(reverse("jobs")).status_code),
            (200, 302),
        )

    def test_a_link_makes_a_new_password_once(self) -> None:
        said = io.StringIO()
        with self.settings(ADDRESS="https://gancho.example"):
            call_command("password_link", "ana", stdout=said)
        [path] = re.findall(r"^https://gancho\.example(/\S+)$", said.getvalue(), re.MULTILINE)
        form = {"new_password1": "gypsum nail lath 7", "new_password2": "gypsum nail lath 7"}
        page = self.client.get(path)
        self.assertContains(page, "For ana.")
        self.assertEqual(page["Referrer-Policy"], "no-referrer")
        self.assertEqual(
            self.client.post(path, form | {"new_password2": "another"}).status_code, 422
        )
        self.assertRedirects(self.client.post(path, form), reverse("people:sign-in"))
        self.assertTrue(
            get_user_model().objects.get(username="ana").check_password("gypsum nail lath 7")
        )
        for again in (
            path,
            path.replace("new-password/", "new-password/x"),
            "/people/new-password/" + "9" * 300 + "/a-b/",
        ):
            self.assertContains(self.client.get(again), "has been used", status_code=404)
        with self.assertRaisesMessage(CommandError, "Nobody called “zoe”"):
            call_command("password_link", "zoe")

    def test_an_account_is_closed_with_everything_saved_first_and_nobody_elses_goes(self) -> None:
        others = Wall.begin(Job.objects.create(name="Bo's", owner=self.bo), plan(), "Begin")
        self.photo.delete()
        self.client.force_login(self.ana)
        form = {"what": "close", "password": "a long enough one"}
        self.assertContains(
            self.client.post(reverse("people:account"), form),
            "Save everything to a file first",
            status_code=422,
        )
        self.client.head(reverse("everything"))  # which fetches nothing
        self.assertContains(
            self.client.post(reverse("people:account"), form), "Save everything", status_code=422
        )
        self.client.get(reverse("everything"))
        self.wall.record(replace(self.wall.plan(), name="Changed"), "Rename", self.wall.seen)
        self.assertContains(
            self.client.post(reverse("people:account"), form),
            "Something has changed since",
            status_code=422,
        )
        self.client.get(reverse("everything"))
        self.assertContains(
            self.client.post(reverse("people:account"), form | {"password": "guess"}),
            "not your password",
            status_code=422,
        )
        self.assertRedirects(
            self.client.post(reverse("people:account"), form), reverse("people:sign-in")
        )
        self.assertEqual(list(Wall.objects.all()), [others])
        self.assertEqual(
            set(get_user_model().objects.values_list("username", flat=True)), {"bo", "cy"}
        )

    def test_a_link_carries_the_public_address_or_says_that_it_opens_here_only(self) -> None:
        self.client.force_login(self.ana)
        share, form = reverse("people:share", args=[self.job.pk]), {"how": "link", "days": "3"}
        with self.settings(ADDRESS="https://gancho.example"):
            self.assertContains(
                self.client.post(share, form), 'value="https://gancho.example/shown/'
            )
        self.assertContains(
            self.client.post(share, form, headers={"host": "127.0.0.1"}), "on this machine only"
        )

    def test_strangers_are_sent_to_the_door(self) -> None:
        for name, url in self.addresses():
            if name in (
                "people:sign-in",
                "people:sign-up",
                "people:shown",
                "hang-worker",
                "people:new-password",
            ):
                continue
            for answer in (self.client.get(url), self.client.post(url)):
                with self.subTest(name):
                    self.assertEqual(
                        (answer.status_code, answer.headers["Location"].split("?")[0]),
                        (302, "/people/sign-in/"),
                    )

    def test_the_owner_sees_it_and_changes_carry_a_name(self) -> None:
        self.client.force_login(self.ana)
        self.assertContains(self.client.get(reverse("jobs")), "Ana&#x27;s")
        self.client.post(
            reverse("hang:report", args=[self.wall.pk, "shelf"]), {"step": "ready", "what": "done"}
        )
        self.assertEqual(Revision.objects.order_by("-pk")[0].by, self.ana)
        self.assertEqual(Wall.objects.get().plan().as_built.done[0].by, "ana")
        self.assertContains(self.client.get(reverse("people:trail")), "Have it all at hand")

    def test_a_helper_hangs_and_does_nothing_else(self) -> None:
        client = Client()
        client.force_login(self.share.helper)
        self.assertContains(client.get(reverse("jobs")), "Ana&#x27;s")
        page = client.get(reverse("stage", args=[self.wall.pk, "hang"]))
        self.assertContains(page, "Start at the wall")
        self.assertEqual(re.findall(r'id="notch-(\w+)"', page.content.decode()), ["mark", "hang"])
        url = reverse("hang:report", args=[self.wall.pk, "shelf"])
        self.assertContains(
            client.post(url, {"what": "undo", "seen": self.seen()}),
            "somebody else",
            status_code=422,
        )
        self.assertEqual(client.post(url, {"step": "ready", "what": "done"}).status_code, 302)
        self.assertEqual(client.post(url, {"what": "undo", "seen": self.seen()}).status_code, 302)
        hole = next(step.key for step in steps(self.wall.plan(), "shelf", "metric") if step.mark)
        met = client.post(url, {"step": hole, "what": "no_wood"}, headers={"X-Part": "steps"})
        self.assertContains(met, "The owner of the job changes the plan")
        self.assertNotContains(met, 'value="cure"')
        self.assertContains(
            client.post(url, {"what": "cure", "code": "seat-0"}),
            "only the owner of the job can apply it",
            status_code=422,
        )
        client.post(url, {"what": "undo", "seen": self.seen()})
        self.assertEqual(Wall.objects.get().current_revision, 1)
        for name, args in (
            ("stage", ["fix"]),
            ("plan-file", []),
            ("fix:move", ["shelf"]),
            ("undo", []),
            ("fix:remove", ["shelf"]),
            ("mark:datum", []),
        ):
            url = reverse(name, args=[self.wall.pk, *args])
            self.assertEqual(
                (
                    client.get(url).status_code
                    if name in ("stage", "plan-file")
                    else client.post(url).status_code
                ),
                404,
                name,
            )
        self.assertEqual(client.get(reverse("people:share", args=[self.job.pk])).status_code, 404)
        self.client.force_login(self.ana)
        self.client.post(reverse("people:end-share", args=[self.job.pk, self.share.pk]))
        self.assertEqual(client.get(reverse("stage", args=[self.wall.pk, "hang"])).status_code, 404)

    def test_a_link_shows_reads_only_and_expires(self) -> None:
        self.client.force_login(self.ana)
        page = self.client.post(
            reverse("people:share", args=[self.job.pk]), {"how": "link", "days": "3"}
        ).content.decode()
        [address] = re.findall(r'value="http://testserver(/shown/[^"]+)"', page)
        client = Client()
        shown = client.get(address)
        self.assertContains(shown, "Shelf")
        self.assertNotRegex(shown.content.decode(), r"<form|hx-post|data-post")
        self.assertEqual(shown["Referrer-Policy"], "no-referrer")
        self.assertFalse(Share.objects.filter(token_hash=address.split("/")[2]).exists())
        Share.objects.filter(helper=None).update(expires=timezone.now() - timedelta(seconds=1))
        self.assertContains(client.get(address), "has expired", status_code=404)
        self.assertTrue(Trail.objects.filter(what="opened the link", job=self.job).exists())

    def test_bad_shares_are_refused_beside_their_field(self) -> None:
        self.client.force_login(self.ana)
        url = reverse("people:share", args=[self.job.pk])
        for values, said in (
            ({"how": "helper", "helper": "nobody"}, "Nobody with that name"),
            ({"how": "helper", "helper": "ana"}, "That is you"),
            ({"how": "link", "days": "9000"}, "less than or equal to 90"),
            ({"how": "link", "days": "x"}, "whole number"),
        ):
            self.assertContains(self.client.post(url, values), said, status_code=422)

    def test_five_wrong_passwords_and_then_a_rest(self) -> None:
        url, good = reverse("people:sign-in"), {"username": "ana", "password": "a long enough one"}
        for _ in range(4):
            self.assertContains(
                self.client.post(url, good | {"password": "wrong"}),
                "do not match",
                status_code=422,
            )
        self.assertContains(
            self.client.post(url, good | {"password": "wrong"}), "Wait a quarter", status_code=429
        )
        self.assertContains(self.client.post(url, good), "Wait a quarter", status_code=429)
        self.assertRedirects(
            self.client.post(url, {"username": "bo", "password": "a long enough one"}), "/"
        )
        self.assertTrue(Trail.objects.filter(what="sign-in refused", name="ana").exists())

    def test_an_account_is_made_where_strangers_may(self) -> None:
        url = reverse("people:sign-up")
        for values, said in (
            (
                {
                    "username": "ana",
                    "password1": "a long enough one",
                    "password2": "a long enough one",
                },
                "is not available",
            ),
            ({"username": "dee", "password1": "short", "password2": "short"}, "at least 10"),
        ):
            self.assertContains(self.client.post(url, values), said, status_code=422)
        made = {
            "username": "dee",
            "password1": "a long enough one",
            "password2": "a long enough one",
        }
        self.assertRedirects(self.client.post(url, made), "/")
        with override_settings(SIGN_UP=False):
            self.assertEqual(Client().get(url).status_code, 404)

    def test_names_can_be_asked_for_ten_times_from_one_address(self) -> None:
        url = reverse("people:sign-up")
        taken = {
            "username": "ana",
            "password1": "a long enough one",
            "password2": "a long enough one",
        }
        for _ in range(10):
            answer = self.client.post(url, taken)
            self.assertEqual(answer.status_code, 422)
            self.assertNotContains(answer, "exist", status_code=422)
        for name in ("ana", "nobody-yet"):  # the same, whoever has an account
            self.assertContains(
                self.client.post(url, taken | {"username": name}), "Wait an hour", status_code=429
            )
        elsewhere = Client(REMOTE_ADDR="192.0.2.9")
        self.assertEqual(elsewhere.post(url, taken).status_code, 422)
        Trail.objects.update(at=timezone.now() - timedelta(minutes=61))
        self.assertEqual(self.client.post(url, taken).status_code, 422)

    def test_names_can_be_tried_thirty_times_from_one_address(self) -> None:
        url = reverse("people:sign-in")
        for n in range(30):
            wrong = {"username": f"name-{n}" if n else "ana", "password": "wrong"}
            self.assertContains(self.client.post(url, wrong), "do not match", status_code=422)
        good = {"username": "bo", "password": "a long enough one"}
        self.assertContains(self.client.post(url, good), "Wait an hour", status_code=429)
        self.assertRedirects(Client(REMOTE_ADDR="192.0.2.9").post(url, good), "/")

    def test_signing_out_ends_it(self) -> None:
        self.client.force_login(self.ana)
        self.client.post(reverse("people:sign-out"))
        self.assertEqual(self.client.get("/").status_code, 302)


class TheBin(TestCase):
    def setUp(self) -> None:
        self.job = Job.objects.create(name="Attic")
        self.wall = Wall.begin(self.job, plan(bracket_shelf()), "Begin")

    def test_a_wall_and_a_job_come_back_as_they_were(self) -> None:
        for name, pk, what in (
            ("bin:delete-wall", self.wall.pk, "wall"),
            ("bin:delete-job", self.job.pk, "job"),
        ):
            before = Wall.objects.get().plan()
            self.client.post(reverse(name, args=[pk]))
            self.assertEqual(self.client.get(self.wall.get_absolute_url()).status_code, 404)
            self.assertNotContains(self.client.get("/"), "Attic")
            self.assertContains(self.client.get(reverse("bin:contents")), "Attic")
            self.client.post(reverse("bin:restore", args=[what, pk]))
            self.assertEqual(
                self.client.get(f"{self.wall.get_absolute_url()}fix/").status_code, 200
            )
            self.assertEqual(Wall.objects.get().plan(), before)

    def test_after_thirty_days_it_is_gone(self) -> None:
        self.client.post(reverse("bin:delete-job", args=[self.job.pk]))
        for days, left in ((29, 1), (31, 0)):
            Job.objects.update(deleted=timezone.now() - timedelta(days=days))
            empty()
            self.assertEqual((Job.objects.count(), Wall.objects.count()), (left, left))


class Deployed(TestCase):
    def test_no_secret_lies_in_the_repository(self) -> None:
        """In no file that is tracked.

        A private key, a key of a cloud, a settled secret key, a password in an address.
        """
        listed = subprocess.run(
            ["git", "ls-files", "-z"], cwd=settings.BASE_DIR, capture_output=True, check=True
        ).stdout
        secret = re.compile(
            rb"-----BEGIN [A-Z ]*PRIVATE KEY|AKIA[0-9A-Z]{16}|SECRET_KEY\s*=\s*[\"'][^\"'\n]{20,}|://[\w.]+:[^\s/@{]{3,}@"
        )
        found = [
            name
            for name in listed.decode().split("\0")
            if name and secret.search((settings.BASE_DIR / name).read_bytes())
        ]
        self.assertEqual(found, [])
        self.assertNotIn(
            b"data/", b"".join(each for each in listed.split(b"\0") if each.startswith(b"data/"))
        )

    def test_production_settings_pass_djangos_own_check(self) -> None:
        """In a process of its own, with the environment of a server behind https."""
        with tempfile.TemporaryDirectory() as folder:
            env = os.environ | {
                "GANCHO_DATA": folder,
                "GANCHO_HTTPS": "1",
                "GANCHO_PEOPLE": "many",
                "GANCHO_HOSTS": "walls.example",
            }
            found = loaded.run(["manage.py", "check", "--deploy", "--fail-level", "WARNING"], env)
        self.assertEqual(found.returncode, 0, found.stderr)
        call_command("check", fail_level="WARNING")
