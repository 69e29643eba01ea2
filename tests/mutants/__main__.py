"""Mutation tests: make small changes to the core, one at a time, and list those that no test notices.

Usage: `python -m tests.mutants [WORDS]`; with WORDS only changes whose file or line contains one of them. The changes are listed in
`made.toml`: factors, comparisons, dropped terms. Each is made in a copy of `trade/`, and the tests of the core run on the copy: first
the modules that check most, then all. Exit status 1 if a change survives that is not marked `same` (with the reason why it
changes no result), or if its line no longer exists.
"""

import os
import shutil
import subprocess
import sys
import tempfile
import tomllib
from collections import Counter
from concurrent.futures import ThreadPoolExecutor, as_completed
from pathlib import Path
from typing import NamedTuple

ROOT = Path(__file__).resolve().parents[2]
FIRST = [
    "tests.reference", "tests.trade.test_assess", "tests.trade.test_shelves_by_hand", "tests.trade.test_hung_by_hand",
    "tests.trade.test_anchors", "tests.trade.test_contact", "tests.trade.test_sharing", "tests.trade.test_limits",
    "tests.trade.test_fits", "tests.trade.test_fit", "tests.trade.test_around", "tests.trade.test_hang",
]  # fmt: skip
THEN = ["tests.trade"]
_LONG = 1_800.0  # what has not ended by then goes round in circles: that is noticed


class Mutant(NamedTuple):
    """One change: the line as it is, and as it is made. `same`: why it changes no answer; empty where it does."""

    file: str
    what: str
    before: str
    after: str
    same: str = ""

    @property
    def words(self) -> str:
        """It, in a line."""
        return f"{self.file}: {self.before}  ->  {self.after}"


def mutants() -> list[Mutant]:
    """All of them."""
    with (Path(__file__).parent / "made.toml").open("rb") as file:
        return [Mutant(**each) for each in tomllib.load(file)["mutant"]]


def noticed(mutant: Mutant) -> str:
    """What comes of it: `noticed`, `survived`, or `gone` when its line is not there, or there twice."""
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder) / "trade"
        shutil.copytree(ROOT / "trade", copy)
        changed = Path(folder) / mutant.file
        lines = changed.read_text().split("\n")
        places = [n for n, line in enumerate(lines) if line.strip() == mutant.before]
        if len(places) != 1:
            return "gone"
        lines[places[0]] = lines[places[0]].replace(mutant.before, mutant.after)
        changed.write_text("\n".join(lines))
        return "noticed" if _fails(folder, FIRST) or _fails(folder, THEN) else "survived"


def _fails(folder: str, labels: list[str]) -> bool:
    env = os.environ | {
        "PYTHONPATH": f"{folder}{os.pathsep}{ROOT}",
        "DJANGO_SETTINGS_MODULE": "gancho.settings",
        "GANCHO_DATA": f"{folder}/data",
    }
    words = [sys.executable, "-m", "django", "test", "--failfast", *labels]
    try:
        run = subprocess.run(words, cwd=folder, env=env, capture_output=True, timeout=_LONG, check=False)
    except subprocess.TimeoutExpired:
        return True
    return run.returncode != 0


def main(words: list[str]) -> int:
    """Make them all, two at a time or as many as there are processors; 1 where one survives or is gone."""
    chosen = [each for each in mutants() if not words or any(word in each.words for word in words)]
    if _fails(str(ROOT), FIRST):
        print("The tests fail as it is: nothing can be learnt from a change.")
        return 1
    counted, bad = Counter[str](), 0
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        asked = {pool.submit(noticed, mutant): mutant for mutant in chosen}
        for done in as_completed(asked):
            mutant, how = asked[done], done.result()
            counted[how] += 1
            if how == "gone" or (how == "survived") != bool(mutant.same):
                bad += 1
                print(f"  {'noticed after all' if mutant.same and how == 'noticed' else how}  {mutant.words}", flush=True)
    print(f"{len(chosen)} changes: {counted['noticed']} noticed, {counted['survived']} survived, {counted['gone']} gone")
    return int(bool(bad))


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
