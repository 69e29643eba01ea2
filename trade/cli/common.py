"""What all commands share: a plan out of a file, an answer in words or as JSON, how it ends."""

import argparse
import sys
from pathlib import Path

import msgspec

from trade.check import Outcome
from trade.errors import PlanError
from trade.language import compose
from trade.measure import Units
from trade.plan import plan_file
from trade.plan.model import Plan
from trade.plan.place import each_piece, faced

EXIT: dict[Outcome, int] = {
    "holds": 0,
    "holds_but": 0,
    "close": 0,
    "wont_hold": 1,
    "cannot_tell": 2,
    "doesnt_fit": 4,
}


def add_output_options(parser: argparse.ArgumentParser, units: str | None = None) -> None:
    """How the answer is said."""
    parser.add_argument("--json", action="store_true", help="print the whole result as JSON")
    parser.add_argument(
        "--units",
        choices=("imperial", "metric"),
        default=units,
        help="print and read in these units",
    )


def add_plan(parser: argparse.ArgumentParser, piece: bool = False) -> None:
    """Add what it is asked about: a plan, or a piece of one."""
    add_output_options(parser)
    parser.add_argument("plan", help="a plan file (JSON), or - for standard input")
    parser.add_argument("--wall", default="", help="of a place only this wall, by its key")
    if piece:
        parser.add_argument("piece", help="its key")


def load_plan(asked: argparse.Namespace) -> tuple[Plan, Units]:
    """Return the plan, and the units that the answer is said in.

    In front of the wall that is named, else of that of the piece that is, else of the widest.

    Raises:
        PlanError: it can't be read, or has no such wall.
        OSError: nor can its file.
    """
    raw = sys.stdin.buffer.read() if asked.plan == "-" else Path(asked.plan).read_bytes()
    plan = plan_file.load(raw, asked.wall)
    if asked.wall and plan.at != asked.wall:
        keys = ", ".join(each.at for each in faced(plan))
        raise PlanError(
            compose("There is no wall “{key}”; there are: {keys}.", key=asked.wall, keys=keys)
        )
    if (key := getattr(asked, "piece", None)) is not None:
        plan = next((on for piece, on in each_piece(plan) if piece.key == key), plan)
    return plan, asked.units or plan.units


def walls(asked: argparse.Namespace, plan: Plan) -> tuple[Plan, ...]:
    """Return the walls that are asked about: one where it is named, else all of the place."""
    return (plan,) if asked.wall else faced(plan)


def print_result(asked: argparse.Namespace, as_json: object, as_text: str) -> None:
    """Print the answer as it was asked for."""
    print(as_json_text(as_json) if asked.json else as_text)


def as_json_text(what: object) -> str:
    """Anything as indented JSON."""
    return msgspec.json.format(msgspec.json.encode(what, enc_hook=str), indent=2).decode()
