"""`steps`: how to hang a piece, step by step."""

import argparse
from collections.abc import Sequence

from trade import wording
from trade.assess import assess
from trade.cli import common
from trade.cli.judge import stop
from trade.job.step import Step
from trade.job.steps import steps as steps_of
from trade.language import counted
from trade.measure import Units


def arguments(name: str, parser: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    common.add_plan(parser, piece=True)


def steps(asked: argparse.Namespace) -> int:
    """Say the steps of hanging a piece, in order."""
    plan, units = common.load_plan(asked)
    found = steps_of(plan, asked.piece, units)
    verdict = assess(plan).piece(asked.piece)
    common.print_result(
        asked, [step._asdict() for step in found], steps_as_text(found, units, stop(verdict, units))
    )
    return common.EXIT[verdict.outcome]


def steps_as_text(found: Sequence[Step], units: Units, stop: Sequence[str] = ()) -> str:
    """Return the steps of hanging a piece, to read. `stop`.

    Why it must not be hung yet, said first.
    """
    lines = [*stop]
    for n, step in enumerate(found, start=1):
        people = f" ({step.people} people)" if step.people > 1 else ""
        lines.append(f"{n}. {step.title}{people}{', done' if step.done else ''}")
        if step.facts:
            lines.append("   " + "; ".join(f"{name} {value}" for name, value in step.facts))
        lines += [f"   {wording.phrase(phrase, units)}" for phrase in step.words]
        lines += [f"   Mind: {wording.phrase(phrase, units)}" for phrase in step.cautions]
        lines += (
            [f"   Then wait {counted(step.wait_hours, '{n} hour', '{n} hours')}."]
            if step.wait_hours
            else []
        )
    return "\n".join(lines)
