"""A server that is killed in the middle of writing, again and again.

No change that it acknowledged is lost, and the database is sound. `GANCHO_LIVES=200` kills it 200
times.
"""

import os
import re
import signal
import sqlite3
import subprocess
import sys
import tempfile
import threading
import urllib.parse
import urllib.request
import zlib
from contextlib import closing, suppress
from pathlib import Path
from random import Random

from django.test import SimpleTestCase, tag

from tests import loaded

ROOT = Path(__file__).resolve().parents[2]
LIVES, WRITERS = int(os.environ.get("GANCHO_LIVES", "10")), 4
BEGIN = """
import django; django.setup()
from django.core.management import call_command
from bench.models import Job, Wall
from tests.plans import plan
call_command("migrate", verbosity=0)
job = Job.objects.create(name="Job")
print(*[Wall.begin(job, plan(), "Begin").pk for _ in range({})])
"""


def _end(group: int) -> None:
    """Whoever is left of it."""
    with suppress(ProcessLookupError):
        os.killpg(group, signal.SIGKILL)


class Writer(threading.Thread):
    """Moves a shelf on a wall of its own until the server is gone.

    Remembers what was acknowledged.
    """

    def __init__(self, port: int, wall: int) -> None:
        super().__init__()
        self.here, self.acknowledged, self.wall = (
            f"http://127.0.0.1:{port}/walls/{wall}/",
            dict[int, int](),
            wall,
        )
        self.wrote, self.stopped_by = threading.Event(), ""

    def run(self) -> None:
        """Write until nobody answers, and say what stopped it."""
        try:
            self._write()
        except Exception as error:
            self.stopped_by = f"{type(error).__name__}: {error}"
            self.wrote.set()  # nobody need wait for it any longer

    def _write(self) -> None:
        opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor())
        page = opener.open(f"{self.here}fix/?piece=shelf", timeout=60).read().decode()
        token = page.split('x-csrftoken": "')[1].split('"')[0]
        base = int(re.findall(r'data-base="(\d+)"', page)[0])
        for n in range(10_000):
            left = 600 + (base * 7 + n) % 400
            body = urllib.parse.urlencode({"base": base, "left_mm": left, "top_mm": 1500}).encode()
            asked = urllib.request.Request(
                f"{self.here}pieces/shelf/move/",
                body,
                {"X-CSRFToken": token, "HX-Request": "true"},
            )
            answer = opener.open(asked, timeout=60).read().decode()
            base = int(re.findall(r'data-base="(\d+)"', answer)[0])
            self.acknowledged[base] = left
            self.wrote.set()


@tag("processes")
class Killed(SimpleTestCase):
    def test_again_and_again(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            env = os.environ | {
                "GANCHO_DATA": folder,
                "TMPDIR": folder,
                "DJANGO_SETTINGS_MODULE": "gancho.settings",
                "PYTHONPATH": str(ROOT),
            }
            made = loaded.run(["-c", BEGIN.format(WRITERS)], env)
            walls = [int(each) for each in made.stdout.split()]
            lives = subprocess.Popen(
                [sys.executable, "tests/keeping/forked.py"],
                env=env,
                cwd=ROOT,
                text=True,
                start_new_session=True,
                stdin=subprocess.PIPE,
                stdout=subprocess.PIPE,
                stderr=subprocess.DEVNULL,
            )
            self.addCleanup(_end, lives.pid)
            self.addCleanup(lambda: _end(self.server))
            self._live(lives, walls, Path(folder) / "gancho.sqlite3")
            assert lives.stdin is not None
            assert lives.stdout is not None
            _end(lives.pid)
            lives.stdin.close()
            lives.stdout.close()
            lives.wait(20)

    def _live(self, lives: "subprocess.Popen[str]", walls: list[int], database: Path) -> None:
        dice, told = Random(50), 0
        assert lives.stdin is not None
        assert lives.stdout is not None
        for life in range(LIVES):
            lives.stdin.write("\n")
            lives.stdin.flush()
            server, port = (int(each) for each in lives.stdout.readline().split())
            self.server = server
            writers = [Writer(port, wall) for wall in walls]
            for each in writers:
                each.start()
            self.assertTrue(writers[0].wrote.wait(120), "nobody could write")
            self.assertTrue(writers[0].acknowledged, writers[0].stopped_by)
            writers[0].join(dice.uniform(0.02, 0.25))  # somewhere in the middle
            _end(server)  # all its processes
            for each in writers:
                each.join()
            with closing(sqlite3.connect(database)) as opened:
                self.assertEqual(opened.execute("PRAGMA integrity_check").fetchone(), ("ok",), life)
                self.assertEqual(opened.execute("PRAGMA foreign_key_check").fetchall(), [], life)
                for each in writers:
                    told += len(each.acknowledged)
                    for base, left in each.acknowledged.items():
                        row = opened.execute(
                            "SELECT packed FROM bench_revision WHERE wall_id = ? AND id = ?",
                            (each.wall, base),
                        ).fetchone()
                        self.assertIsNotNone(
                            row, f"life {life}: change {base} of wall {each.wall} is lost"
                        )
                        self.assertIn(f'"left_mm":{left}.0', zlib.decompress(row[0]).decode())
        self.assertGreaterEqual(told, LIVES)
