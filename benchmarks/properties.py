"""The properties looked at further.

`python -m benchmarks.properties [examples] [module ...]`, 3 000 of each by default.

The tests draw the same hundred examples every time, so that a run means the same everywhere. Here
they are drawn at random, and a failure prints the example that it came down to: worth a test of its
own. Exit status as of the tests.
"""

import os
import subprocess
import sys

_MODULES = (
    "test_monotone",
    "test_every_kind",
    "test_sharing",
    "test_anchors",
    "test_contact",
    "test_cures",
)


def main(examples: int, modules: tuple[str, ...]) -> int:
    """Run the tests with so many examples of each property; their exit status."""
    labels = [f"tests.trade.{module}" for module in modules or _MODULES]
    print(f"{examples} examples of each property in {', '.join(labels)}")
    command = [sys.executable, "manage.py", "test", "--noinput", "--parallel", "auto", *labels]
    return subprocess.run(
        command, env=os.environ | {"GANCHO_EXAMPLES": str(examples)}, check=False
    ).returncode


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1]) if len(sys.argv) > 1 else 3000, tuple(sys.argv[2:])))
