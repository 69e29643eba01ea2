"""Commands run from a process that has loaded what they load: each costs a fork, not a start.

Settings, models and pages are read anew in each, in an environment of its own.
"""

import importlib
import json
import os
import pkgutil
import runpy
import subprocess
import sys
import tempfile
import traceback
from collections.abc import Mapping
from functools import cache
from pathlib import Path
from typing import NamedTuple

ROOT = Path(__file__).resolve().parents[1]
LIBRARIES = (
    "django.core.management.commands.check",
    "django.contrib.auth.hashers",
    "django.contrib.sessions.backends.db",
    "django.contrib.staticfiles.finders",
    "django.db.backends.sqlite3.base",
    "django.db.migrations.executor",
    "django.db.models",
    "django.template.loader",
    "django.test",
    "django.views.generic",
    "fpdf",
    "gunicorn.app.base",
    "PIL.Image",
    "sqlparse",
)  # none of them reads our settings when it is loaded


class Done(NamedTuple):
    """How a command ended: its status, and what it said on both outputs."""

    returncode: int
    stdout: str
    stderr: str


def run(words: list[str], env: Mapping[str, str]) -> Done:
    """Run a script or, after `-c`, a program, as Python would from the project's folder."""
    with tempfile.TemporaryDirectory() as folder:
        out, err = Path(folder) / "out", Path(folder) / "err"
        asked = {"words": words, "env": dict(env), "out": str(out), "err": str(err)}
        status = _loaded().ask(asked)
        return Done(status, out.read_text(), err.read_text())


class _Loaded:
    """The process that has loaded everything, for as long as this one lives."""

    def __init__(self) -> None:
        words = [sys.executable, __file__]
        self.process = subprocess.Popen(
            words, cwd=ROOT, text=True, stdin=subprocess.PIPE, stdout=subprocess.PIPE
        )

    def ask(self, what: Mapping[str, object]) -> int:
        assert self.process.stdin is not None
        assert self.process.stdout is not None
        self.process.stdin.write(json.dumps(what) + "\n")
        self.process.stdin.flush()
        return int(self.process.stdout.readline())


@cache
def _loaded() -> _Loaded:
    return _Loaded()


def _serve() -> None:
    sys.path[0] = str(ROOT)
    os.environ["OPENBLAS_NUM_THREADS"] = "1"
    for name in LIBRARIES:
        importlib.import_module(name)
    trade = importlib.import_module("trade")
    for module in pkgutil.walk_packages(trade.__path__, "trade."):
        if not module.name.endswith("__main__"):
            importlib.import_module(module.name)
    for line in sys.stdin:
        asked = json.loads(line)
        child = os.fork()
        if not child:
            _live(**asked)
        print(os.waitstatus_to_exitcode(os.waitpid(child, 0)[1]), flush=True)


def _live(words: list[str], env: dict[str, str], out: str, err: str) -> None:
    """Be one command, to its end."""
    os.environ.clear()
    os.environ.update(env)
    for path, number in ((os.devnull, 0), (out, 1), (err, 2)):
        os.dup2(os.open(path, os.O_RDWR | os.O_CREAT), number)
    status = 0
    try:
        if words[0] == "-c":
            sys.argv = words[:1]
            exec(words[1], {"__name__": "__main__"})
        else:
            sys.argv = words
            runpy.run_path(words[0], run_name="__main__")
    except SystemExit as end:
        if isinstance(end.code, str):
            print(end.code, file=sys.stderr)
        status = end.code if isinstance(end.code, int) else int(end.code is not None)
    except BaseException:
        traceback.print_exc()
        status = 1
    sys.stdout.flush()
    sys.stderr.flush()
    os._exit(status)


if __name__ == "__main__":
    _serve()
