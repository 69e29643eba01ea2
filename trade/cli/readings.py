"""`survey`: what readings amount to."""

import argparse

from trade import wording
from trade.cli import common
from trade.measure import Units, say_gap, say_length
from trade.parse.notes import word_of
from trade.plan.model import Plan
from trade.wall.survey import Survey
from trade.wall.survey import survey as surveyed


def arguments(name: str, parser: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    common.add_plan(parser)


def survey(asked: argparse.Namespace) -> int:
    """Say what a plan's readings amount to."""
    plan, units = common.load_plan(asked)
    known = surveyed(plan.wall, plan.supports_mm)
    common.print_result(asked, survey_as_json(known), survey_as_text(known, plan, units))
    return 0


def survey_as_json(known: Survey) -> dict[str, object]:
    """Return what readings amount to, with the words of each stud's confidence.

    Ready to be written.
    """
    found = known.inference
    return {
        "masonry": known.masonry,
        "lining_mm": known.lining_mm,
        "ask_mm": found.ask_mm,
        "studs": [{**stud._asdict(), "confidence": stud.confidence} for stud in found.studs],
        "others": [other._asdict() for other in found.others],
        "grid": found.grid._asdict() if found.grid else None,
        "rejected": [{"reading": i, "why": why} for i, why in found.rejected],
        "contradictions": [each._asdict() for each in known.contradictions],
    }


def survey_as_text(known: Survey, plan: Plan, units: Units) -> str:
    """Return what readings amount to, to read."""
    found, readings = known.inference, plan.wall.readings

    def jotted(these: tuple[int, ...]) -> str:
        return ", ".join(word_of(readings[i], units) for i in these)

    lines = [known.masonry] if known.masonry else []
    for stud in found.studs:
        kind = "doubled stud" if stud.kind == "double" else "stud"
        place = f"{say_length(stud.centre_mm, units)} ± {say_gap(stud.reach_mm, units)}"
        lines.append(
            f"{stud.confidence:<9} {kind} at {place}, {wording.chance(stud.probability)}: "
            f"{'; '.join(stud.reasons)}"
        )
    lines += [
        f"rather a {other.kind} at {say_length(other.centre_mm, units)}" for other in found.others
    ]
    lines += [
        f"contradiction at {say_length(c.at_mm, units)}: {jotted(c.for_it)} against "
        f"{jotted(c.against)}"
        for c in known.contradictions
    ]
    lines += [f"not counted: {jotted((i,))}, for {why}" for i, why in found.rejected]
    lines += [wording.phrase(doubt, units) for doubt in known.doubts]
    if found.ask_mm is not None:
        lines.append(f"next: push a thin nail in at {say_length(found.ask_mm, units)}")
    return "\n".join(lines) or "The readings make no stud likely."
