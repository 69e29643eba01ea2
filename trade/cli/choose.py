"""`ways`, `cures`, `grow`: ways to hang something, what mends a piece, what more goes on it."""

import argparse
from typing import Any

from msgspec.structs import replace

from trade import data, wording
from trade.assess import assess
from trade.choose.cures import Cures, look_for_cures
from trade.choose.growth import Growth, Sort, growth, sorts
from trade.choose.held_with import name_of
from trade.choose.loosened import loosened, sentence
from trade.choose.options import Options, find_options
from trade.choose.request import amount_of, wish_for, wish_of
from trade.choose.search import Option
from trade.cli import common
from trade.language import counted
from trade.measure import Units, read_length, read_weight, say_length, say_weight
from trade.mounts import KINDS


def arguments(name: str, parser: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    common.add_plan(parser, piece=name != "ways")
    if name == "grow":
        parser.add_argument("--each", help="what one thing more weighs")
    if name == "ways":
        thing = parser.add_mutually_exclusive_group(required=True)
        thing.add_argument("--piece", help="what hangs there already, by its key")
        thing.add_argument("--hang", help="a row of the lists of contents and wants")
        parser.add_argument(
            "--amount",
            help="so many; so long; so many litres; or, of a want, the weight that it must carry",
        )
        where = "where its middle goes, from the left corner; the middle of the wall when left out"
        parser.add_argument("--at", default="", help=where)
        parser.add_argument("--height", default="1500 mm", help="where its top goes")
        only = "what alone may hold it: screw:KEY, screw:KEY:MM or anchor:KEY, rows of their tables"
        parser.add_argument("--with", dest="held_with", default="", help=only)


def ways(asked: argparse.Namespace) -> int:
    """Print ways to hang something on a wall, best first."""
    plan, units = common.load_plan(asked)
    if asked.piece is not None:
        request = wish_of(plan.piece(asked.piece))
    else:
        middle = read_length(asked.at, units) if asked.at else plan.wall.width_mm / 2
        amount = None if asked.amount is None else amount_of(asked.hang, asked.amount, units)
        request = wish_for(plan, asked.hang, amount, middle, read_length(asked.height, units))
    if asked.held_with:
        name_of(asked.held_with, plan)
        request = replace(request, held_with=asked.held_with)
    found = find_options(plan, request)
    gives = [wording.phrase(sentence(each), units) for each in loosened(plan, found)]
    result = ways_as_json(found) | {"gives": gives}
    common.print_result(asked, result, "\n".join([ways_as_text(found, units), *gives]))
    return common.EXIT[found.found[0].outcome if found.found else "wont_hold"]


def cures(asked: argparse.Namespace) -> int:
    """Print the changes that make a piece hold."""
    plan, units = common.load_plan(asked)
    found = look_for_cures(plan, asked.piece)
    common.print_result(asked, found, cures_as_text(found, units))
    return common.EXIT[assess(plan).piece(asked.piece).outcome]


def grow(asked: argparse.Namespace) -> int:
    """Print what more goes on a piece, and other sorts of wall for the same things."""
    plan, units = common.load_plan(asked)
    each = None if asked.each is None else read_weight(asked.each, units)
    found = growth(plan, asked.piece, each)
    compared = sorts(plan, asked.piece) if found.room else ()
    common.print_result(asked, grow_as_json(found, compared), grow_as_text(found, compared, units))
    return common.EXIT[assess(plan).piece(asked.piece).outcome]


def grow_as_json(found: Growth, compared: tuple[Sort, ...]) -> dict[str, Any]:
    """Return what more goes on it, and the sorts of wall, in figures."""
    return {
        **{
            name: getattr(found, name)
            for name in ("noun", "room", "named", "each_kg", "more", "price", "minutes")
        },
        "first": found.first.code if found.first else None,
        "steps": [
            {
                "what": wording.phrase(step.label, "metric"),
                "word": step.verdict.outcome,
                "holes": step.holes,
                "cost": step.cost,
                "minutes": step.minutes,
                "piece": step.piece,
            }
            for step in found.steps
        ],
        "sorts": [
            {
                name: getattr(each, name)
                for name in each._fields
                if name not in ("piece", "verdict", "minds")
            }
            | {"word": each.verdict.outcome}
            for each in compared
        ],
    }


def grow_as_text(found: Growth, compared: tuple[Sort, ...], units: Units) -> str:
    """Return the same to read."""
    lines = []
    if found.noun:
        each = say_weight(found.each_kg, units)
        lines.append(f"Room for {found.room} {found.nouns}; {found.named} named on it.")
        lines.append(f"{found.more} more of {each} would hold.")
        if found.first is not None:
            lines.append(f"First to fail then: {found.first.name}.")
    for step in found.steps:
        said = f"{wording.outcome_used(step.verdict)}: {wording.phrase(step.label, units)}"
        if step.verdict.fails:
            lines += [said, f"    {wording.phrase(step.verdict.governing.sentence, units)}"]
        else:
            holes = counted(step.holes, "{n} hole more", "{n} holes more")
            lines.append(f"{said}; {holes}, {step.cost:.0f} of money, {step.minutes:.0f} minutes")
    for sort in compared:
        lines.append(f"{wording.outcome_used(sort.verdict)}: {KINDS[sort.kind].name}")
        holes = counted(sort.holes, "{n} hole", "{n} holes")
        lines.append(
            f"    {holes}, {sort.cost:.0f} of money, {sort.minutes:.0f} minutes; each holder more "
            f"{sort.each_cost:.1f} and {sort.each_minutes:.1f} minutes; room for {sort.room}"
        )
        lines.append(
            f"    one thing at a stud {say_weight(sort.stud_kg, units)}, between "
            f"{say_weight(sort.between_kg, units)}; {sort.bare:.0%} of the wall left bare"
        )
    return "\n".join(lines)


def ways_as_json(found: Options) -> dict[str, Any]:
    """Ways with their pieces, ready to be put into a plan; and why not, in words."""
    return {
        "wish": found.request,
        "tried": found.tried,
        "found": [
            {
                "kind": way.kind,
                "hold": way.hold,
                "word": way.outcome,
                "but": way.but,
                "used": way.used,
                "effort": way.effort._asdict(),
                "price": way.price._asdict() if way.price else None,
                "demerit": way.demerit,
                "piece": way.piece,
            }
            for way in found.found
        ],
        "refused": [
            {"kind": no.kind, "reason": wording.phrase(no.reason, "metric")} for no in found.refused
        ],
    }


def ways_as_text(found: Options, units: Units) -> str:
    """Ways to hang something, to read: the best first, then why not."""
    lines = [] if found.found else [f"No way to hang “{found.request.name}” there."]
    for way in found.found:
        effort, piece = way.effort, way.piece
        lines.append(f"{wording.outcome_used(way)}: {KINDS[way.kind].name}")
        lines.append(f"    {' '.join(wording.phrase(reason, units) for reason in way.reasons)}")
        tools = ", ".join(data.tools()[tool].name for tool in effort.tools)
        where = (
            f"{say_length(piece.left_mm, units)} from the left, "
            f"{say_length(piece.length_mm, units)} long"
        )
        taken = (
            f"{counted(effort.holes, '{n} hole', '{n} holes')}, {_cost(way)}, "
            f"{counted(round(effort.minutes), '{n} minute', '{n} minutes')}"
        )
        lines.append(f"    {where}; {taken}{', ' + tools if tools else ''}")
    lines += [
        f"Not: {KINDS[no.kind].name}. {wording.phrase(no.reason, units)}" for no in found.refused
    ]
    return "\n".join(lines)


def _cost(way: Option) -> str:
    """Return what it costs in the shop, and what of it has no price."""
    if way.price is None:
        return "no price"
    without = f", without its {', '.join(way.price.unpriced)}" if way.price.unpriced else ""
    return f"about {way.price.cost:.0f} of money{without}"


def cures_as_text(search: Cures, units: Units) -> str:
    """Return what would cure a piece, to read; that nothing is wrong; or that nothing mends it."""
    if search.state == "sound":
        return "Nothing is wrong with it."
    if search.state == "ask":
        return "Something must be found out first; see what assess asks."
    if search.found:
        lines = [(wording.outcome_used(c), wording.phrase(c.label, units)) for c in search.found]
        return "\n".join(f"{outcome}: {label}" for outcome, label in lines)
    tried = counted(search.tried, "{n} change was tried", "{n} changes were tried")
    said = f"{tried}, alone and up to three together: none makes it hold."
    if search.nearest is not None and search.short is not None:
        said += f"\nWhat comes nearest: {wording.phrase(search.nearest, units)}."
        said += f"\nEven so: {wording.phrase(search.short, units)}"
    return said
