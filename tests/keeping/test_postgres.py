"""Two application servers on one database server, twenty people at once.

Nothing lost, conflicts told, backed up and put back.
"""

import os
import re
import shutil
import socket
import subprocess
import sys
import tempfile
import threading
import urllib.error
import urllib.parse
import urllib.request
from pathlib import Path
from typing import Any, ClassVar
from unittest import skipUnless

from django.test import SimpleTestCase, tag

from tests import loaded

ROOT = Path(__file__).resolve().parents[2]
PLACES = [str(path) for path in sorted(Path("/usr/lib/postgresql").glob("*/bin"), reverse=True)]
INITDB = shutil.which("initdb", path=os.pathsep.join([*PLACES, os.environ.get("PATH", "")]))
PEOPLE, MOVES = 20, 2
BEGIN = """
import django; django.setup()
from bench.models import Job, Wall
from tests.plans import plan
job = Job.objects.create(name="Job")
print(*[Wall.begin(job, plan(), "Begin").pk for _ in range({})])
"""
LEFTS = """
import django; django.setup()
from bench.models import Wall
for wall in Wall.objects.all():
    print(wall.pk, wall.current_revision, wall.plan().piece("shelf").left_mm)
"""


class Person(threading.Thread):
    """Moves a shelf on a wall, again and again.

    Counts what was kept and what was told to be a conflict.
    """

    def __init__(self, port: int, wall: int, number: int) -> None:
        super().__init__()
        self.number = number
        self.here, self.wall, self.kept, self.conflicts, self.wrong, self.last = (
            f"http://127.0.0.1:{port}/walls/{wall}/",
            wall,
            0,
            0,
            "",
            0,
        )

    def run(self) -> None:
        try:
            self.work()
        except Exception as error:
            self.wrong = f"{type(error).__name__}: {error}"

    def work(self) -> None:
        opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor())
        page = opener.open(f"{self.here}fix/?piece=shelf", timeout=60).read().decode()
        token, base = page.split('x-csrftoken": "')[1].split('"')[0], self.base(page)
        for n in range(MOVES):
            left = 801 + self.number * MOVES + n  # nobody else's, and not where it hung before
            body = urllib.parse.urlencode({"base": base, "left_mm": left, "top_mm": 1500}).encode()
            asked = urllib.request.Request(
                f"{self.here}pieces/shelf/move/", body, {"X-CSRFToken": token, "HX-Request": "true"}
            )
            try:
                base = self.base(opener.open(asked, timeout=60).read().decode())
                self.kept, self.last = self.kept + 1, left
            except urllib.error.HTTPError as error:
                with error:
                    if error.status != 409:
                        raise
                    self.conflicts, base = self.conflicts + 1, self.base(error.read().decode())

    def base(self, page: str) -> int:
        return int(re.findall(r'data-base="(\d+)"', page)[0])


@tag("processes")
@skipUnless(INITDB, "the database server is tried where it is installed (Debian: postgresql)")
class TwoServers(SimpleTestCase):
    env: ClassVar[dict[str, str]]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        cls.root.chmod(0o755)
        port, bins = cls.free_port(), Path(str(INITDB)).parent
        own: dict[str, Any] = (
            {"user": "postgres"} if os.geteuid() == 0 else {}
        )  # it refuses to be run by root
        store = cls.root / "store"
        store.mkdir()
        if own:
            shutil.chown(store, "postgres")
        cls.ran(
            [str(bins / "initdb"), "-D", str(store), "-U", "gancho", "-A", "trust", "-N"],
            cwd=store,
            **own,
        )
        start = [
            "-o",
            f"-p {port} -k {store} -c listen_addresses=127.0.0.1 -c fsync=off",
            "-l",
            str(store / "log"),
            "-w",
            "start",
        ]
        cls.ran(
            [str(bins / "pg_ctl"), "-D", str(store), *start],
            cwd=store,
            stdout=subprocess.DEVNULL,
            **own,
        )
        stop = [str(bins / "pg_ctl"), "-D", str(store), "-m", "immediate", "stop"]
        cls.addClassCleanup(lambda: cls.ran(stop, cwd=store, **own))
        kept = {
            key: value
            for key, value in os.environ.items()
            if not key.startswith(("GANCHO_", "DATABASE_URL"))
        }
        cls.env = kept | {
            "GANCHO_DATA": str(cls.root / "data"),
            "DATABASE_URL": f"postgresql://gancho@127.0.0.1:{port}/gancho",
            "DJANGO_SETTINGS_MODULE": "gancho.settings",
            "PYTHONPATH": str(ROOT),
            "PATH": f"{bins}{os.pathsep}{kept.get('PATH', '')}",
        }
        cls.ran(
            [str(bins / "createdb"), "-h", "127.0.0.1", "-p", str(port), "-U", "gancho", "gancho"]
        )
        cls.manage("serve", "--check")

    @staticmethod
    def free_port() -> int:
        with socket.create_server(("127.0.0.1", 0)) as taken:
            return int(taken.getsockname()[1])

    @staticmethod
    def ran(words: list[str], **how: Any) -> str:
        done = subprocess.run(
            words,
            check=False,
            text=True,
            timeout=300,
            **{"stdout": subprocess.PIPE, "stderr": subprocess.STDOUT} | how,
        )
        assert done.returncode == 0, done.stdout
        return str(done.stdout)

    @classmethod
    def manage(cls, *words: str) -> str:
        done = loaded.run(["manage.py", *words], cls.env)
        assert done.returncode == 0, done.stdout + done.stderr
        return done.stdout + done.stderr

    def told(self, code: str) -> list[list[str]]:
        done = loaded.run(["-c", code], self.env)
        self.assertEqual(done.returncode, 0, done.stderr)
        return [line.split() for line in done.stdout.splitlines()]

    def serve(self) -> tuple["subprocess.Popen[str]", int]:
        port = self.free_port()
        words = [sys.executable, "manage.py", "serve", "--port", str(port)]
        words += ["--processes", "1", "--backup-hours", "0"]
        server = subprocess.Popen(
            words,
            cwd=ROOT,
            env=self.env,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            text=True,
        )
        assert server.stdout is not None
        self.assertIn("Gancho is at", server.stdout.readline())
        return server, port

    def test_twenty_people_on_two_servers_and_all_of_it_put_back(self) -> None:
        [walls] = self.told(BEGIN.format(PEOPLE - 1))
        servers = [self.serve() for _ in range(2)]
        try:
            # two of them are at the same wall, each by another server
            people = [
                Person(servers[n % 2][1], int(walls[max(n - 1, 0)]), n) for n in range(PEOPLE)
            ]
            for person in people:
                person.start()
            for person in people:
                person.join(300)
        finally:
            for server, _ in servers:
                server.terminate()
                server.communicate(timeout=60)
        self.assertEqual([person.wrong for person in people if person.wrong], [])
        alone = people[2:]
        self.assertTrue(all((person.kept, person.conflicts) == (MOVES, 0) for person in alone))
        both = people[:2]
        self.assertEqual(sum(person.kept + person.conflicts for person in both), 2 * MOVES)
        after = {int(pk): (int(at), float(left)) for pk, at, left in self.told(LEFTS)}
        self.assertEqual(after[both[0].wall][0], 1 + sum(person.kept for person in both))
        for person in alone:
            self.assertEqual(after[person.wall], (1 + MOVES, float(person.last)))

        made = self.manage("backup").split()[0]
        self.told(
            "import django; django.setup()\nfrom bench.models import Job; "
            "Job.objects.all().delete()"
        )
        self.assertEqual(self.told(LEFTS), [])
        self.assertIn("What was there before is in", self.manage("restore", made))
        self.assertEqual(
            {int(pk): (int(at), float(left)) for pk, at, left in self.told(LEFTS)}, after
        )
