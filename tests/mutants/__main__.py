"""Mutation tests.

Make small changes to the core, one at a time, and list those that no test notices.

Usage: `python -m tests.mutants [--write] [WORDS]`

With WORDS only changes whose file, place or text contains one of them. The changes are in
`made.toml`: factors, comparisons, dropped terms. Each is made in a copy of `trade/`; then the test
that noticed it last time runs on the copy; if that one passes, the sums by hand and against the
world outside, then what must be true of every kind, then every test of the core. `--write` records
which test noticed each change.

Exit status 1 if a change survives that is not marked `same` (with the reason why it changes no
result), or if its place is gone.
"""

import argparse
import ast
import os
import re
import shutil
import subprocess
import sys
import tempfile
import tomllib
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor, as_completed
from dataclasses import asdict, dataclass, replace
from functools import cache
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
MADE = Path(__file__).with_name("made.toml")
CORE = (
    "assess",
    "shelves_by_hand",
    "hung_by_hand",
    "anchors",
    "contact",
    "composite",
    "bevel",
    "sharing",
    "limits",
    "fits",
    "around",
    "hang",
)
FIRST = (*(f"tests.trade.test_{name}" for name in CORE), "tests.reference")
THEN = tuple(
    f"tests.trade.test_{name}" for name in ("house", "calculation", "every_kind", "monotone")
)
ALL = ("tests.trade",)
_LIMIT_S = 1_800.0  # a change that makes the tests run longer than this counts as noticed
_FAILED = re.compile(r"^(?:FAIL|ERROR): \S+ \((\S+)\)", re.MULTILINE)
_SCOPES = (ast.FunctionDef, ast.ClassDef)
_HEAD = """\
# Changes to the core that a test must notice. `before` is one expression inside `where` (a function
# or class; empty: the module), written as `ast.unparse` prints it; in a table a line of the row
# `where`. `by` noticed it last time.
"""


@dataclass(frozen=True)
class Mutant:
    """One change: an expression, or a line of a row in a table, as it is and as it becomes.

    `by` is the test that noticed it last time, `same` the reason why it changes no result.
    """

    file: str
    what: str
    before: str
    after: str
    where: str = ""
    by: str = ""
    same: str = ""

    @property
    def words(self) -> str:
        """The change on one line."""
        return f"{self.file}: {self.where}: {self.before}  ->  {self.after}"


@dataclass(frozen=True)
class Result:
    """What became of a change: `noticed` (by which test), `survived`, or `gone`."""

    outcome: str
    by: str = ""


def read() -> list[Mutant]:
    """Return all changes of `made.toml`."""
    with MADE.open("rb") as file:
        return [Mutant(**each) for each in tomllib.load(file)["mutant"]]


def write(mutants: list[Mutant]) -> None:
    """Write the changes back to `made.toml`."""
    blocks = [
        "[[mutant]]\n"
        + "".join(f"{key} = {_quoted(text)}\n" for key, text in asdict(mutant).items() if text)
        for mutant in mutants
    ]
    MADE.write_text("\n".join([_HEAD, *blocks]))


def _quoted(text: str) -> str:
    if "\n" in text:
        return f"'''\n{text}'''"
    if "'" not in text:
        return f"'{text}'"
    return '"' + text.replace("\\", "\\\\").replace('"', '\\"') + '"'


def mutated(source: str, mutant: Mutant) -> str | None:
    """Return the source with the change made; None if its place is not there exactly once."""
    if mutant.file.endswith(".toml"):
        head, row, rest = source.partition(f"[{mutant.where}]\n")
        whole = row + rest.partition("\n[")[0]
        return (
            head + row + rest.replace(mutant.before, mutant.after, 1)
            if whole.count(f"{mutant.before}\n") == 1
            else None
        )
    places = [
        node for node in _inside(_tree(source), mutant.where) if ast.unparse(node) == mutant.before
    ]
    if len(places) != 1:
        return None
    node, lines = places[0], source.encode().splitlines(keepends=True)
    assert node.end_lineno is not None
    assert node.end_col_offset is not None
    start = sum(map(len, lines[: node.lineno - 1])) + node.col_offset
    end = sum(map(len, lines[: node.end_lineno - 1])) + node.end_col_offset
    after = f"({mutant.after})" if isinstance(node, ast.expr) else mutant.after
    text = source.encode()
    return (text[:start] + after.encode() + text[end:]).decode()


@cache
def _tree(source: str) -> ast.Module:
    return ast.parse(source)


def _inside(tree: ast.Module, where: str) -> Iterator[ast.expr | ast.stmt]:
    scopes: list[ast.AST] = [tree]
    for name in filter(None, where.split(".")):
        scopes = [
            node
            for scope in scopes
            for node in _own(scope)
            if isinstance(node, _SCOPES) and node.name == name
        ]
    for scope in scopes:
        yield from (node for node in ast.walk(scope) if isinstance(node, ast.expr | ast.stmt))


def _own(scope: ast.AST) -> Iterator[ast.AST]:
    """Everything in a scope that is not in a function or class inside it."""
    for node in ast.iter_child_nodes(scope):
        yield node
        if not isinstance(node, _SCOPES):
            yield from _own(node)


def tried(mutant: Mutant) -> Result:
    """Make one change in a copy of the core and run the tests on it."""
    with tempfile.TemporaryDirectory() as folder:
        shutil.copytree(ROOT / "trade", Path(folder) / "trade")
        file = Path(folder) / mutant.file
        source = mutated(file.read_text(), mutant) if file.exists() else None
        if source is None:
            return Result("gone")
        file.write_text(source)
        for labels in [(mutant.by,), FIRST, THEN, ALL] if mutant.by else [FIRST, THEN, ALL]:
            if by := _failing(folder, labels):
                return Result("noticed", by)
        return Result("survived")


def _failing(folder: str, labels: tuple[str, ...]) -> str:
    """Return the first test that fails.

    `labels` themselves if none can be named, empty if all pass.
    """
    env = os.environ | {
        "PYTHONPATH": f"{folder}{os.pathsep}{ROOT}",
        "DJANGO_SETTINGS_MODULE": "gancho.settings",
        "GANCHO_DATA": f"{folder}/data",
    }
    words = [sys.executable, "-m", "django", "test", "--failfast", *labels]
    try:
        run = subprocess.run(
            words,
            cwd=folder,
            env=env,
            capture_output=True,
            text=True,
            timeout=_LIMIT_S,
            check=False,
        )
    except subprocess.TimeoutExpired:
        return labels[0]
    if run.returncode == 0:
        return ""
    found = _FAILED.search(run.stderr)
    named = bool(found) and found[1].startswith("tests.") and "setUpClass" not in found[1]
    return found[1] if found and named else labels[0]


def _by(mutant: Mutant, results: dict[Mutant, Result]) -> str:
    return (mutant in results and results[mutant].by) or mutant.by


def main(words: list[str]) -> int:
    """Try the changes, as many at a time as there are processors; return the exit status."""
    parser = argparse.ArgumentParser(prog="python -m tests.mutants")
    parser.add_argument(
        "words", nargs="*", metavar="WORDS", help="only changes that contain one of these"
    )
    parser.add_argument(
        "--write", action="store_true", help="record which test noticed each change"
    )
    asked = parser.parse_args(words)
    every = read()
    chosen = [
        each for each in every if not asked.words or any(word in each.words for word in asked.words)
    ]
    if failing := _failing(str(ROOT), FIRST):
        print(f"{failing} fails without any change: mend it first.")
        return 1
    results: dict[Mutant, Result] = {}
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        running = {pool.submit(tried, mutant): mutant for mutant in chosen}
        for future in as_completed(running):
            mutant, result = running[future], future.result()
            results[mutant] = result
            if wrong := _wrong(mutant, result):
                print(f"  {wrong}: {mutant.words}", flush=True)
            if asked.write and result.outcome == "noticed":
                write([replace(each, by=_by(each, results)) for each in every])
            print(f"{len(results)} of {len(chosen)}", end="\r", file=sys.stderr, flush=True)
    counted = Counter(result.outcome for result in results.values())
    print(
        f"{len(chosen)} changes: "
        + ", ".join(f"{counted[each]} {each}" for each in ("noticed", "survived", "gone"))
    )
    return int(any(_wrong(each, result) for each, result in results.items()))


def _wrong(mutant: Mutant, result: Result) -> str:
    """Return what is wrong with a result; empty if it is as it should be."""
    if result.outcome == "noticed":
        return "noticed, though marked as the same" if mutant.same else ""
    return "" if result.outcome == "survived" and mutant.same else result.outcome


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
