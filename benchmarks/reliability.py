"""How it stands an attacker's and a load tester's day.

`python -m benchmarks.reliability > docs/reliability.md`.

Exit status 1 where one of the commands is not content.
"""

import subprocess
import sys

COMMANDS = {
    "attack": "Every address in every role; hostile forms; broken documents.",
    "parsers": "Every parser on inputs of double length: twice the CPU time is linear.",
    "keeping": "The log with 50 000 pieces.",
    "people": "Twenty people at once on one server, some with long-running work.",
}


def main() -> int:
    """Run each; 1 where one is not content."""
    print(
        "# Reliability\n\nMade by `python -m benchmarks.reliability`; each part by the command of "
        "its name.\n",
        flush=True,
    )
    bad = False
    for name, what in COMMANDS.items():
        done = subprocess.run(
            [sys.executable, "-m", f"benchmarks.{name}"],
            stdout=subprocess.PIPE,
            text=True,
            check=False,
        )
        bad |= done.returncode != 0
        said = "\n".join(line.rstrip() for line in done.stdout.strip("\n").splitlines())
        print(f"## `benchmarks.{name}`\n\n{what}\n\n```\n{said}\n```\n", flush=True)
    return int(bad)


if __name__ == "__main__":
    sys.exit(main())
