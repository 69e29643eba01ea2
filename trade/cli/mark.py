"""`marks`: where to drill."""

import argparse

from trade.assess import assess
from trade.check import Verdict
from trade.cli import common
from trade.cli.judge import stop
from trade.marking.marks import Mark, piece_marks
from trade.marking.reading import read, say_across, say_datum, say_up
from trade.measure import Units, say_bit, say_length
from trade.plan.model import AnyPiece, Plan


def arguments(name: str, parser: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    common.add_plan(parser)


def marks(asked: argparse.Namespace) -> int:
    """Say where to drill."""
    plan, units = common.load_plan(asked)
    every = common.walls(asked, plan)
    made = {
        piece.key: piece_marks(piece, on.wall, units, on.policy.lead_holes, on.as_built)
        for on in every
        for piece in on.pieces
    }
    said = [marks_as_text(on, made, assess(on), units) for on in every]
    if len(every) > 1:
        said = [f"{on.faced_name}\n{text}" for on, text in zip(every, said, strict=True)]
    common.print_result(asked, made, "\n\n".join(said))
    return 0


def marks_as_text(
    plan: Plan, made: dict[str, tuple[Mark, ...]], verdict: Verdict, units: Units
) -> str:
    """Where to drill, piece by piece, from the plan's datum.

    What must not be drilled yet says so first.
    """
    lines = [say_datum(plan.datum, units)]
    for piece in plan.pieces:
        lines += [piece.name, *stop(verdict.piece(piece.key), units)]
        lines += [
            f"  {mark.number:>3}  {_mark_line(mark, piece, plan, units)}"
            for mark in made[piece.key]
        ]
    return "\n".join(lines)


def _mark_line(mark: Mark, piece: AnyPiece, plan: Plan, units: Units) -> str:
    """One hole in words."""
    at = read(plan.datum, piece, plan.wall, mark.x_mm, mark.y_mm)
    up = say_up(at, plan.datum, units)
    place = (
        f"{say_across(at, plan.datum, units)} across, "
        f"{up}{' up' if plan.datum.line_mm is None else ''}"
    )
    if mark.where == "shelf":
        place = (
            f"{say_length(mark.x_mm, units)} from its left end, "
            f"{say_length(mark.y_mm, units)} above its underside"
        )
    elif mark.where == "beside":
        place = f"{say_length(mark.corner_mm or 0.0, units)} from the corner, {up} up"
    bit = (
        f"{say_bit(mark.bit_mm, units) if mark.bit_mm else 'no'} bit, "
        f"{say_length(mark.depth_mm, units)} deep"
    )
    if mark.where == "shelf":
        return f"in its own back, {mark.part}: {place}; {bit}"
    return f"{mark.part}: {place}; {bit}; {mark.fixing}"
