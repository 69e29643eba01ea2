"""Long work never delays a finger: the process that does it is stopped, and drags go on."""

import os
import signal
import subprocess
import sys
import tempfile
import urllib.error
import urllib.parse
import urllib.request
from concurrent.futures import ThreadPoolExecutor

from django.conf import settings
from django.test import SimpleTestCase, tag

from benchmarks.people import free_port
from benchmarks.processes import below
from tests import loaded

WAIT_S = 300  # long work gives way to everything: beside eight busy processes it takes minutes
BEGIN = """
import django; django.setup()
from django.core.management import call_command
from bench.models import Job, Wall
from tests.plans import plan
call_command("migrate", verbosity=0)
print(Wall.begin(Job.objects.create(name="Job"), plan(), "Begin").pk)
"""


@tag("processes")
class Aside(SimpleTestCase):
    def test_drags_go_on_while_long_work_stands_still(self) -> None:
        folder, port = self.enterContext(tempfile.TemporaryDirectory()), free_port()
        kept = {
            key: value
            for key, value in os.environ.items()
            if not key.startswith(("GANCHO_", "DATABASE_URL"))
        }
        env = kept | {
            "GANCHO_DATA": folder,
            "TMPDIR": folder,
            "DJANGO_SETTINGS_MODULE": "gancho.settings",
            "PYTHONPATH": str(settings.BASE_DIR),
        }
        made = loaded.run(["-c", BEGIN], env)
        server = subprocess.Popen(
            [sys.executable, "manage.py", "serve", "--port", str(port), "--processes", "1"],
            cwd=settings.BASE_DIR,
            env=env,
            stdout=subprocess.PIPE,
            text=True,
        )
        self.addCleanup(server.communicate, timeout=WAIT_S)
        self.addCleanup(server.terminate)
        assert server.stdout is not None
        self.assertIn("Gancho is at", server.stdout.readline())
        here = f"http://127.0.0.1:{port}/walls/{int(made.stdout)}/"
        opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor())
        page = opener.open(f"{here}fix/?piece=shelf", timeout=WAIT_S).read().decode()
        headers = {
            "X-CSRFToken": page.split('x-csrftoken": "')[1].split('"')[0],
            "HX-Request": "true",
        }
        opener.open(f"{here}sums.pdf", timeout=WAIT_S).read()  # they are there

        [long] = [each.number for each in below(server.pid) if each.nice > 0]
        os.kill(long, signal.SIGSTOP)
        self.addCleanup(lambda: os.kill(long, signal.SIGCONT))
        with ThreadPoolExecutor(2) as people:
            waiting = [
                people.submit(opener.open, f"{here}sums.pdf", timeout=WAIT_S) for _ in range(2)
            ]
            for left in range(700, 720):
                body = urllib.parse.urlencode(
                    {"base": 0, "left_mm": left, "top_mm": 1500, "live": 1, "seen": "shelf"}
                )
                asked = urllib.request.Request(f"{here}pieces/shelf/move/", body.encode(), headers)
                moved = opener.open(asked, timeout=WAIT_S).read().decode()
                self.assertIn(f'data-left="{left}.0"', moved)
            self.assertFalse(any(each.done() for each in waiting))
            os.kill(long, signal.SIGCONT)
            for each in waiting:
                self.assertTrue(each.result().read().startswith(b"%PDF"))
