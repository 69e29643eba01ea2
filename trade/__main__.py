"""The trade from a shell: `python -m trade assess plan.json`."""

import argparse
import functools
import os
import sys
from importlib import import_module

from trade.errors import TradeError
from trade.memo import collect_seldom

BAD_FILE = 3
_COMMANDS = {
    "assess": ("judge", "judge a plan"),
    "marks": ("mark", "say where to drill"),
    "survey": ("readings", "say what its readings amount to"),
    "explain": ("judge", "show every sum of a plan's pieces"),
    "cut": ("saw", "say what to saw out of what"),
    "buy": ("saw", "say what to buy"),
    "days": ("saw", "say when it can hang and when it may be loaded"),
    "ways": ("choose", "find ways to hang something on a plan's wall"),
    "grow": ("choose", "say what more goes on a piece, and compare sorts of wall for it"),
    "steps": ("hang", "say the steps of hanging a piece, in order"),
    "cures": ("choose", "find what would cure a piece of a plan"),
    "kinds": ("kinds", "list the kinds of mounting"),
    "capacity": ("sums", "say what one screw or anchor holds"),
    "sag": ("sums", "say how far a board sags"),
    "schema": ("pages", "print the JSON Schema of the plan format"),
    "rules": ("pages", "print the handbook's chapter on the rules"),
    "glossary": ("pages", "print the handbook's glossary"),
    "everyday": ("everyday", "print the handbook's chapter on fifteen everyday set-ups"),
}
"""Every command.

Its module in `trade.cli`, which has a function of its name, and what it does.
"""


def main(argv: list[str] | None = None) -> int:
    """Run one command.

    Its exit status: 0 holds, 1 won't hold, 2 can't tell, 3 bad file or bad words, 4 doesn't fit.
    """
    os.environ.setdefault(
        "OPENBLAS_NUM_THREADS", "1"
    )  # its matrices are small: threads would wait for each other
    words = sys.argv[1:] if argv is None else argv
    asked = _parser(next((word for word in words if not word.startswith("-")), "")).parse_args(
        words
    )
    try:
        return int(getattr(_module(asked.command), asked.command)(asked))
    except OSError as error:
        print(f"{asked.plan}: can't be read ({error.strerror}).", file=sys.stderr)
        return BAD_FILE
    except TradeError as error:
        where, plan = getattr(error, "where", ""), getattr(asked, "plan", "")
        print(
            f"{plan + ': ' if plan else ''}{where + ': ' if where else ''}{error}", file=sys.stderr
        )
        return BAD_FILE


def _module(command: str) -> object:
    """Import the module of a command, and no other, so that the shell starts quickly."""
    return import_module(f"trade.cli.{_COMMANDS[command][0]}")


@functools.cache
def _parser(command: str) -> argparse.ArgumentParser:
    """Build the parser: every command by name, and the arguments of the given command only."""
    parser = argparse.ArgumentParser(prog="python -m trade", description=__doc__)
    commands = parser.add_subparsers(dest="command", required=True)
    for name, (_, what) in _COMMANDS.items():
        made = commands.add_parser(name, help=what)
        if name == command:
            _module(name).arguments(name, made)  # type: ignore[attr-defined]
    return parser


if __name__ == "__main__":
    collect_seldom()
    try:
        status = main()
        sys.stdout.flush()
    except BrokenPipeError:  # the reader had enough, as with `| head`
        sys.stdout = None  # nothing left to flush to
        status = 0
    sys.exit(status)
