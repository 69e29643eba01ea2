"""Several threads that read their first plan at once, in processes of their own."""

import subprocess
import sys
from pathlib import Path

from django.test import SimpleTestCase, tag

ROOT = Path(__file__).parents[2]
PROCESSES = 5
# with the types built by whoever reads first, half of such processes die of a segmentation fault
FIRST = """
import sys, threading
sys.setswitchinterval(1e-6)
from trade.plan import plan_file
from trade.assess import assess
raw = open("docs/example.plan.json", "rb").read()
together, words = threading.Barrier(4), []
def read():
    together.wait()
    words.append(assess(plan_file.load(raw)).outcome)
threads = [threading.Thread(target=read) for _ in range(4)]
[thread.start() for thread in threads]
[thread.join() for thread in threads]
assert len(words) == 4 and len(set(words)) == 1, words
"""


@tag("processes")
class ColdStart(SimpleTestCase):
    def test_threads_may_read_their_first_plan_at_once(self) -> None:
        running = [
            subprocess.Popen(
                [sys.executable, "-c", FIRST], cwd=ROOT, stderr=subprocess.PIPE, text=True
            )
            for _ in range(PROCESSES)
        ]
        for process in running:
            _, said = process.communicate(timeout=120)
            self.assertEqual(process.returncode, 0, said)
