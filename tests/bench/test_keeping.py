"""Keeping.

A job as a file that comes in the same; hostile files; backups that are opened, pruned and put back.
"""

import errno
import fcntl
import io
import json
import os
import shutil
import sqlite3
import struct
import tempfile
import zipfile
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from unittest import mock

from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import CommandError, call_command
from django.db import OperationalError, connection
from django.test import SimpleTestCase, TransactionTestCase, override_settings, tag
from django.urls import reverse
from msgspec.structs import replace
from PIL import Image

from bench import archive, backup, photos
from bench.models import Job, LogEntry, Photo, Wall
from tests import loaded
from tests.bench.test_log import jpeg
from tests.bench.test_workbench import BenchCase, seen
from tests.plans import plan
from trade.plan import plan_file
from trade.plan.shop import OnHand, Shop


def zipped(**files: bytes) -> bytes:
    made = io.BytesIO()
    with zipfile.ZipFile(made, "w", zipfile.ZIP_DEFLATED) as file:
        for name, content in files.items():
            file.writestr(name, content)
    return made.getvalue()


class AJobAsAFile(BenchCase):
    def setUp(self) -> None:
        super().setUp()
        self.post("fix:move", "shelf", left_mm="650", top_mm="1500")
        self.post("undo")
        photos.keep(self.wall.pk, "shelf", "left one", photos.made_anew(jpeg((300, 200))))

    def bring(self, raw: bytes, name: str = "job.zip") -> Any:
        return self.client.post(reverse("import"), {"plan": SimpleUploadedFile(name, raw)})

    def test_what_goes_out_comes_in_again_the_same_to_the_byte(self) -> None:
        out = self.client.get(reverse("job-file", args=[self.job.pk])).content
        self.assertRedirects(self.bring(out), "/")
        other = Job.objects.exclude(pk=self.job.pk).get()
        self.assertEqual(archive.written(other), out)
        wall = other.walls.get()
        self.assertEqual((wall.current_revision, wall.last, wall.plan()), (1, 2, self.plan()))
        self.assertEqual(LogEntry.objects.filter(wall=wall).count(), 2)
        self.client.post(reverse("redo", args=[wall.pk]), {"base": seen(wall)})
        self.assertEqual(
            wall.__class__.objects.get(pk=wall.pk).plan().piece("shelf").left_mm, 650.0
        )

    def test_everything_is_every_job(self) -> None:
        Wall.begin(Job.objects.create(name="Attic"), plan(), "Begin")
        out = self.client.get(reverse("everything")).content
        self.bring(out)
        self.assertEqual(
            sorted(Job.objects.values_list("name", flat=True)), ["Attic", "Attic", "Job", "Job"]
        )
        self.assertEqual(Photo.objects.count(), 2)

    def test_the_rack_of_another_house_is_not_taken_along(self) -> None:
        hand = OnHand(
            name="end",
            board="plywood",
            kind="sheet",
            length_mm=500,
            width_mm=400,
            thickness_mm=18,
            rack=7,
        )
        raw = plan_file.dump(replace(plan(), shop=Shop(on_hand=(hand,))))
        self.client.post(reverse("import"), {"plan": SimpleUploadedFile("x.json", raw)})
        self.assertIsNone(Wall.objects.order_by("-pk")[0].plan().shop.on_hand[0].rack)

    def test_hostile_and_broken_files_are_refused_whole(self) -> None:
        good = archive.written(self.job)
        about = json.loads(zipfile.ZipFile(io.BytesIO(good)).read("job.json"))
        history = zipfile.ZipFile(io.BytesIO(good)).read("walls/1/history.json")
        plain = about | {"walls": [about["walls"][0] | {"photos": []}]}

        def job(what: Any, *, steps: bytes = history, **more: bytes) -> bytes:
            return zipped(
                **{"job.json": json.dumps(what).encode(), "walls/1/history.json": steps, **more}
            )

        climbing = zipped(**{"job.json": b"{}", "../../etc/passwd": b"x"})
        for raw, said in (
            (b"PK\x03\x04 nothing", "is incomplete"),
            (good[:300] + b"\x00" * 90 + good[390:], "is incomplete"),
            (good[:-200], "is incomplete"),
            (climbing, "is no part of a job file"),
            (zipped(**{"job.json": b"[" * 10_000}), "can&#x27;t be read"),
            (zipped(**{"job.json": b'{"a":' * 20_000}), "job.json"),
            (zipped(**{"walls/1/plan.json": b"{}"}), "“job.json” is missing"),
            (job(plain | {"version": 2}), "can&#x27;t be read"),
            (job(plain | {"walls": "many"}), "can&#x27;t be read"),
            (job(plain, steps=b"[]"), "inconsistent"),
            (job(plain, steps=b'[{"number": 1}]'), "can&#x27;t be read"),
            (job(about), "“photos/1.jpg” is missing"),
            (job(about, **{"photos/1.jpg": b"<svg onload=alert(1)>"}), "That is not a photo"),
            (job(plain | {"walls": [plain["walls"][0] | {"at": 9}]}), "inconsistent"),
        ):
            with self.subTest(said):
                self.assertContains(self.bring(raw), said, status_code=422)
        twice = about | {"walls": [about["walls"][0], about["walls"][0] | {"at": 9}]}
        half = job(twice, **{"photos/1.jpg": jpeg(), "walls/2/history.json": history})
        self.assertContains(self.bring(half), "inconsistent", status_code=422)
        self.assertEqual(
            (Job.objects.count(), len(list(photos.folder().glob("*.jpg")))),
            (1, 1),
            "a photo of a refused job is left",
        )

    def test_nobody_waits_while_a_file_is_looked_at(self) -> None:
        """Not even where its form counts once: the database is held only to keep what is ready."""
        raw, held = archive.written(self.job), len(connection.savepoint_ids)
        looked, kept = list[int](), list[int]()

        def look(raw: bytes) -> Any:
            looked.append(len(connection.savepoint_ids) - held)
            return looked_at(raw)

        def keep(jobs: Any, owner: Any) -> Any:
            kept.append(len(connection.savepoint_ids) - held)
            return keep_them(jobs, owner)

        looked_at, keep_them = archive.looked_at, archive.keep
        with mock.patch.multiple("bench.archive", looked_at=look, keep=keep):
            for _ in range(2):  # sent twice it counts once
                posted = {"plan": SimpleUploadedFile("job.zip", raw), "once": "of-this-form"}
                self.assertRedirects(self.client.post(reverse("import"), posted), "/")
        self.assertEqual((looked, kept, Job.objects.count()), ([0, 0], [1], 2))

    def test_impossible_numbers_and_dates_and_too_many_large_pictures_never_reach_the_database(
        self,
    ) -> None:
        good = archive.written(self.job)
        with zipfile.ZipFile(io.BytesIO(good)) as file:
            parts = {name: file.read(name) for name in file.namelist()}
        about, history = json.loads(parts["job.json"]), json.loads(parts["walls/1/history.json"])
        late = [step | {"created": "9999-12-31T23:59:59Z"} for step in history]
        far = [step | {"number": step["number"] + 2**63 - 9} for step in history]
        long = [history[0] | {"number": n} for n in range(1, 2_003)]
        wall = about["walls"][0] | {"photos": []}
        white = io.BytesIO()
        Image.new("RGB", (7_000, 7_000)).save(white, "PNG")
        shown = [
            {"file": f"photos/{n}.jpg", "key": "shelf", "caption": "", "created": about["created"]}
            for n in (1, 2, 3)
        ]
        for words, changes, more in (
            ("date in this file is impossible", wall, {"walls/1/history.json": late}),
            (
                "longer than any here",
                wall | {"at": far[0]["number"]},
                {"walls/1/history.json": far},
            ),
            ("longer than any here", wall | {"at": 1}, {"walls/1/history.json": long}),
            (
                "more large pictures",
                wall | {"photos": shown},
                {each["file"]: white.getvalue() for each in shown},
            ),
        ):
            made = {
                name: each if isinstance(each, bytes) else json.dumps(each).encode()
                for name, each in more.items()
            }
            raw = zipped(
                **parts | {"job.json": json.dumps(about | {"walls": [changes]}).encode()} | made
            )
            with (
                self.subTest(words),
                mock.patch(
                    "bench.archive.transaction.atomic",
                    side_effect=AssertionError("asked too early"),
                ),
            ):
                self.assertContains(self.bring(raw), words, status_code=422)

    def test_what_hides_in_a_small_photo_does_not_come_in(self) -> None:
        """Behind the picture's end, or in a segment of its own.

        The photo is made anew; one of ours stays the same to the byte.
        """
        plain = photos.made_anew(jpeg((300, 200))).raw
        comment = plain[:2] + b"\xff\xfe\x00\x0bsecret___" + plain[2:]
        self.assertEqual(photos.bare(plain), photos.Kept(plain, 300, 200))
        for hiding in (
            plain + b"secret___",
            comment,
            plain[:-2] + b"\xff\xfe\x00\x0bsecret___" + plain[-2:],
        ):
            self.assertIsNone(photos.bare(hiding))
            self.assertNotIn(b"secret", photos.made_anew(hiding).raw)

    def test_a_full_disk_is_said_and_nothing_is_half_kept(self) -> None:
        full = OSError(errno.ENOSPC, "No space left on device")
        database = OperationalError("database or disk is full")
        before, revisions = sorted(photos.folder().iterdir()), self.wall.revisions.count()
        one = SimpleUploadedFile("one.jpg", jpeg((300, 200)))
        for at, error, ask in (
            (
                "bench.photos.Path.write_bytes",
                full,
                lambda: self.post("photos:add", "shelf", photo=one),
            ),
            (
                "bench.models.walls.Revision.save",
                database,
                lambda: self.post("fix:move", "shelf", left_mm="660", top_mm="1500"),
            ),
        ):
            with self.subTest(at), mock.patch(at, side_effect=error):
                answer = ask()
                self.assertContains(answer, "no room left on the disk", status_code=507)
        self.assertEqual(
            (sorted(photos.folder().iterdir()), self.wall.revisions.count()), (before, revisions)
        )

    def test_a_bomb_is_stopped_while_it_unpacks(self) -> None:
        """A megabyte that says it is small, and unpacks to a gigabyte.

        No more is read than a job may have.
        """
        made = zipped(**{"job.json": b"0" * 50_000_000})
        lying = made.replace(struct.pack("<I", 50_000_000), struct.pack("<I", 10))
        for raw in (made, lying):
            with self.assertRaises(archive.RefusedFileError):
                archive._opened(raw, [10_000_000])


@override_settings(BACKUP_DIR=Path(settings.DATA_DIR) / "backups-of-tests")
class Backups(TransactionTestCase):
    def setUp(self) -> None:
        for folder in (settings.BACKUP_DIR, settings.PHOTOS_DIR):
            shutil.rmtree(folder, True)
            self.addCleanup(shutil.rmtree, folder, True)
        self.wall = Wall.begin(Job.objects.create(name="Job"), plan(), "Begin")

    def test_it_is_made_opened_and_put_back(self) -> None:
        photos.keep(self.wall.pk, "shelf", "", photos.made_anew(jpeg()))
        before = Wall.objects.get().plan()
        made = backup.make()
        earlier = made.with_name(
            f"gancho-{(datetime.now(UTC) - timedelta(seconds=90)).strftime('%Y%m%d-%H%M%S')}.zip"
        )
        made = made.rename(
            earlier
            # what is put back is older than what is made before it is put back, and must not fall
            # for it
        )
        self.wall.record(replace(before, name="Changed"), "Rename", self.wall.seen)
        Job.objects.create(name="Another")
        (photos.folder() / Photo.objects.get().file).unlink()
        call_command("restore", str(made), verbosity=0)
        self.assertEqual((Wall.objects.get().plan(), Job.objects.count()), (before, 1))
        self.assertTrue((photos.folder() / Photo.objects.get().file).exists())
        kept = [path.stem for _, path in backup.kept()]
        self.assertTrue(any(name.endswith("before-restore") for name in kept), kept)

    def test_a_damaged_one_is_refused_and_nothing_changes(self) -> None:
        made = backup.make()
        raw = bytearray(made.read_bytes())
        for spoil in (raw[: len(raw) // 2], raw[:200] + b"\x00" * 400 + raw[600:], b"nonsense"):
            made.write_bytes(bytes(spoil))
            with self.assertRaises(backup.BadBackupError):
                backup.verify(made)
            with self.assertRaisesMessage(CommandError, "Nothing was changed"):
                call_command("restore", str(made))
        self.assertEqual(Wall.objects.count(), 1)

    def test_a_database_that_is_none_is_refused(self) -> None:
        made = Path(settings.BACKUP_DIR) / "gancho-20310101-000000.zip"
        made.parent.mkdir(parents=True)
        made.write_bytes(zipped(**{"database.sqlite3": b"SQLite format 3\x00" + b"x" * 4000}))
        with self.assertRaises(backup.BadBackupError):
            backup.verify(made)

    def test_days_and_weeks_are_kept(self) -> None:
        """By hand.

        One a day for 100 days; seven days stay, and one for each of eight weeks, two of which are
        among the days.
        """
        place = Path(settings.BACKUP_DIR)
        place.mkdir(parents=True)
        first = datetime(2021, 1, 4, 3, tzinfo=UTC)  # a Monday
        for n in range(100):
            (
                place / f"gancho-{(first + timedelta(days=n)).strftime('%Y%m%d-%H%M%S')}.zip"
            ).write_bytes(b"x")
        backup.prune()
        kept = [when for when, _ in backup.kept()]
        self.assertEqual(kept[:7], [first + timedelta(days=99 - n) for n in range(7)])
        self.assertEqual(len({when.isocalendar()[:2] for when in kept}), 8)
        self.assertEqual(len(kept), 13)

    def test_one_is_due_once_a_day(self) -> None:
        self.assertTrue(backup.due(24.0))
        backup.make()
        self.assertFalse(backup.due(24.0))
        self.assertTrue(backup.due(0.0))

    def test_one_from_the_future_neither_stops_the_daily_ones_nor_pushes_them_out(self) -> None:
        later = datetime.now(UTC) + timedelta(days=400)
        for n in range(20):
            (
                backup.place()
                / f"gancho-{(later + timedelta(days=n)).strftime('%Y%m%d-%H%M%S')}.zip"
            ).write_bytes(b"x")
        self.assertTrue(backup.due(24.0))
        self.assertTrue(backup.make().exists())
        self.assertFalse(backup.due(24.0))

    def test_a_full_disk_is_said_and_leaves_nothing_half_made(self) -> None:
        full = OSError(errno.ENOSPC, "No space left on device")
        for at in ("bench.backup.zipfile.ZipFile", "bench.backup.os.replace"):
            with (
                mock.patch(at, side_effect=full),
                self.assertRaisesMessage(backup.BadBackupError, "no room left on the disk"),
            ):
                backup.make()
            self.assertEqual(list(backup.place().iterdir()), [])


@tag("processes")
class PutBack(SimpleTestCase):
    """By the commands themselves, on data folders of their own."""

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        cls.run_at(cls.root / "first", "serve", "--check")
        cls.run_at(cls.root / "first", "backup")
        [cls.made] = (cls.root / "first" / "backups").glob("gancho-*.zip")

    @classmethod
    def run_at(cls, data: Path, *words: str, wrong: bool = False) -> str:
        data.mkdir(exist_ok=True)
        env = {
            key: value
            for key, value in os.environ.items()
            if not key.startswith(("GANCHO_", "DATABASE_URL"))
        }
        done = loaded.run(["manage.py", *words], env | {"GANCHO_DATA": str(data)})
        said = done.stdout + done.stderr
        assert (done.returncode != 0) == wrong, said
        assert "Traceback" not in said, said
        return said

    def sound(self, data: Path) -> None:
        with closing(sqlite3.connect(data / "gancho.sqlite3")) as opened:
            self.assertEqual(opened.execute("SELECT count(*) FROM bench_wall").fetchone(), (0,))

    def test_into_an_empty_data_folder(self) -> None:
        said = self.run_at(self.root / "empty", "restore", str(self.made))
        self.assertIn("There was nothing before.", said)
        self.sound(self.root / "empty")

    def test_over_a_damaged_database_and_over_a_file_that_is_none(self) -> None:
        whole = (self.root / "first" / "gancho.sqlite3").read_bytes()
        for name, spoilt in (
            ("damaged", whole[:8192] + b"\x00" * 8192 + whole[16384:]),
            ("none", b"a shopping list\n" * 900),
        ):
            with self.subTest(name=name):
                data = self.root / name
                data.mkdir()
                (data / "gancho.sqlite3").write_bytes(spoilt)
                said = self.run_at(data, "restore", str(self.made))
                self.assertIn("is broken; its files are in", said)
                [aside] = (data / "backups").glob("broken-*/gancho.sqlite3")
                self.assertEqual(aside.read_bytes(), spoilt)
                self.sound(data)

    def test_not_while_a_server_runs_nor_what_a_newer_program_made_nor_from_a_broken_backup(
        self,
    ) -> None:
        data = self.root / "served"
        self.run_at(data, "restore", str(self.made))
        with (data / "serving.lock").open("w") as lock:
            fcntl.flock(lock, fcntl.LOCK_SH)
            self.assertIn(
                "A server runs on this data. Stop it first.",
                self.run_at(data, "restore", str(self.made), wrong=True),
            )
        newer = self.root / "gancho-newer.zip"
        with zipfile.ZipFile(self.made) as packed:
            (self.root / "newer.sqlite3").write_bytes(packed.read("database.sqlite3"))
        with closing(sqlite3.connect(self.root / "newer.sqlite3")) as opened:
            opened.execute(
                "INSERT INTO django_migrations (app, name, applied) VALUES ('bench', "
                "'9999_rooms', '2031-01-01')"
            )
            opened.commit()
        newer.write_bytes(
            zipped(**{"database.sqlite3": (self.root / "newer.sqlite3").read_bytes()})
        )
        self.assertIn(
            "this one does not know “9999_rooms”",
            self.run_at(data, "restore", str(newer), wrong=True),
        )
        broken = self.root / "gancho-broken.zip"
        broken.write_bytes(self.made.read_bytes()[:900])
        self.assertIn("Nothing was changed.", self.run_at(data, "restore", str(broken), wrong=True))
        self.sound(data)

    def test_a_server_holds_the_lock(self) -> None:
        code = (
            "import gancho.wsgi, fcntl; from django.conf import settings; "
            "fcntl.flock(open(settings.DATA_DIR / 'serving.lock', 'w'), 6)"
        )
        done = loaded.run(["-c", code], os.environ | {"GANCHO_DATA": str(self.root / "first")})
        self.assertIn("BlockingIOError", done.stderr)

    def test_a_key_that_was_never_written_is_made_and_stays(self) -> None:
        data = self.root / "key"
        data.mkdir()
        (data / "secret_key").touch()
        ask = ("shell", "-c", "from django.conf import settings; str(settings.SECRET_KEY)")
        self.run_at(data, *ask)
        key = (data / "secret_key").read_text()
        self.assertGreater(len(key), 40)
        self.assertEqual((data / "secret_key").stat().st_mode & 0o077, 0)
        self.run_at(data, *ask)
        self.assertEqual((data / "secret_key").read_text(), key)
