"""A house that is full: the log with 5 000 jobs and 50 000 pieces. `python -m benchmarks.keeping`.

Exit status 1 when a limit is missed.
"""

import os
import random
import sys
import tempfile
from pathlib import Path

from benchmarks.timing import Figures, measured

LOG_MS = 200.0
JOBS, PIECES_A_JOB = 5_000, 10
_WORDS = ("oar", "towel", "atlas", "plant", "globe", "rope", "paint", "cup", "coat", "film")


def fill() -> None:
    """5 000 jobs with a wall and ten pieces each."""
    from bench.models import Job, LogEntry, Wall

    dice = random.Random(7)
    jobs = Job.objects.bulk_create([Job(name=f"House {n}") for n in range(JOBS)])
    walls = Wall.objects.bulk_create(
        [Wall(job=job, name=f"Wall of {job.name}", current_revision=1, last=1) for job in jobs]
    )
    structures = ("timber", "brick_solid", "block_hollow")
    fixings = ("wood", "lag", "plug", "toggle")
    lines = []
    for wall in walls:
        for n in range(PIECES_A_JOB):
            word = dice.choice(_WORDS)
            structure = dice.choice(structures)
            minutes = dice.choice((None, 75.0))
            words = (
                f"shelf for {word}s {wall.name} {structure} #10 wood screw gypsum board ".lower()
                * 3
            )
            lines.append(
                LogEntry(
                    wall=wall,
                    key=f"p{n}",
                    name=f"Shelf for {word}s",
                    kind="bracket_shelf",
                    outcome="holds",
                    structure=structure,
                    fixing=dice.choice(fixings),
                    words=words,
                    thought_minutes=60.0,
                    thought_cost=40.0,
                    minutes=minutes,
                    held=dice.choice(("", "firm", "loose")),
                    hung="2031-03-01",
                )
            )
    LogEntry.objects.bulk_create(lines, batch_size=2_000)


def log() -> dict[str, Figures]:
    """Time the log: opened, searched for what is everywhere and nearly nowhere, and sifted."""
    from django.db import connection
    from django.test import Client
    from django.test.utils import CaptureQueriesContext

    client, found = Client(raise_request_exception=True), {}
    asked = {
        "open": "",
        "search, common": "?q=shelf+oars",
        "search, rare": "?q=house+4711",
        "search, nothing": "?q=lighthouse",
        "sifted": "?structure=brick_solid&fixing=plug&held=loose",
        "far in": "?page=100",
    }
    queries = set()
    for name, what in asked.items():
        client.get(f"/log/{what}")  # the charts come after, in a request of their own
        with CaptureQueriesContext(connection) as counted:
            client.get(f"/log/{what}")
        queries.add(len(counted))
        found[name] = measured(lambda what=what: client.get(f"/log/{what}"), 7)  # type: ignore[misc]
    found["charts, after the page"] = measured(lambda: client.get("/log/charts/"), 7)
    print(f"  queries: {sorted(queries)}")
    return found


def main() -> int:
    """Run it; 1 when a limit is missed."""
    os.chdir(Path(__file__).resolve().parents[1])
    missed = False
    with tempfile.TemporaryDirectory() as folder:
        os.environ |= {
            "GANCHO_DATA": folder,
            "DJANGO_SETTINGS_MODULE": "gancho.settings",
            "GANCHO_HOSTS": "testserver,127.0.0.1",
        }
        import django

        django.setup()
        from django.core.management import call_command
        from django.db import connection

        call_command("migrate", verbosity=0)
        fill()
        print(f"The log with {JOBS:,} jobs and {JOBS * PIECES_A_JOB:,} pieces:")
        for name, each in log().items():
            missed |= each.usual_ms > LOG_MS
            cpu = (
                f"p50 {each.p50_ms:6.1f} ms   p95 {each.p95_ms:6.1f} ms   clock "
                f"{each.wall_ms:6.1f} ms"
            )
            print(
                f"  {name:<24} {cpu}   {each.usual_ms:6.1f} of {LOG_MS:.0f}   "
                f"{'ok' if each.usual_ms <= LOG_MS else 'MISSED'}"
            )
        connection.close()
    return int(missed)


if __name__ == "__main__":
    sys.exit(main())
