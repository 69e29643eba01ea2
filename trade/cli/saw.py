"""`cut`, `buy`, `days`: what to saw out of what, what to buy, when it can hang."""

import argparse
from datetime import datetime
from typing import Any

from trade import data, wording
from trade.cli import common
from trade.cutting.parts import CutPart
from trade.cutting.plan import BoardJob, CutPlan, SheetJob, cut_line, cut_plan, source_words
from trade.cutting.shopping import Shopping, shopping
from trade.job.days import Schedule, schedule
from trade.language import counted
from trade.measure import Units, say_fine_length, say_length


def arguments(name: str, parser: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    common.add_plan(parser)
    if name == "days":
        parser.add_argument(
            "--now",
            type=datetime.fromisoformat,
            help="from when on, 2031-04-05T18:00; now when left out",
        )


def cut(asked: argparse.Namespace) -> int:
    """Print the cut list."""
    plan, units = common.load_plan(asked)
    found = cut_plan(plan)
    common.print_result(asked, cut_as_json(found), cut_as_text(found, units))
    return 0


def buy(asked: argparse.Namespace) -> int:
    """Print the shopping list."""
    plan, units = common.load_plan(asked)
    found = shopping(plan, cut_plan(plan), units)
    common.print_result(asked, buy_as_json(found), buy_as_text(found))
    return 0


def days(asked: argparse.Namespace) -> int:
    """Print the schedule: when pieces can hang and when they can be loaded."""
    plan, _ = common.load_plan(asked)
    found = schedule(plan, cut_plan(plan), asked.now or datetime.now())
    common.print_result(asked, days_as_json(found), days_as_text(found))
    return 0


def cut_as_json(plan: CutPlan) -> dict[str, Any]:
    """Parts, boards and sheets with every cut, ready to be written.

    Lengths in mm, from the left and the lower edge.
    """
    return {
        "parts": [_part(part) for part in plan.parts],
        "boards": [
            {
                "from": job.stock[stock].name,
                "length_mm": job.stock[stock].length_mm,
                "width_mm": job.stock[stock].width_mm,
                "parts": [
                    {"label": part.label, "from_mm": start, "to_mm": end}
                    for part, start, end in row
                ],
            }
            for job in plan.boards
            for stock, row in job.layout
        ],
        "sheets": [
            {
                "from": job.stock[sheet.blank].name,
                "length_mm": job.stock[sheet.blank].length_mm,
                "width_mm": job.stock[sheet.blank].width_mm,
                "parts": [each._asdict() for each in sheet.placed],
                "cuts": [cut._asdict() for cut in sheet.cuts],
            }
            for job in plan.sheets
            for sheet in job.plan.sheets
        ],
        "no_stock": [part.label for part in plan.no_stock],
        "cuts": plan.cuts,
        "cost": plan.cost,
    }


def _part(part: CutPart) -> dict[str, Any]:
    return {
        "label": part.label,
        "piece": part.piece,
        "name": part.name,
        "board": part.board,
        "length_mm": part.length_mm,
        "width_mm": part.width_mm,
        "thick_mm": part.thick_mm,
        "waits_for": part.detail.late if part.waits else None,
        "work": [wording.phrase(work.phrase("metric"), "metric") for work in part.detail.works],
    }


def cut_as_text(plan: CutPlan, units: Units) -> str:
    """Return the parts, then every board and sheet with its cuts, to read."""
    if not plan.parts:
        return "Nothing to cut."
    lines = ["Parts"]
    for part in plan.parts:
        size = " × ".join(say_length(mm, units) for mm in (part.length_mm, part.width_mm))
        wood = f"{data.boards()[part.board].name}, {size} × {say_fine_length(part.thick_mm, units)}"
        lines.append(
            f"  {part.label:<4} {part.name}{f' ({part.piece})' if part.piece else ''}: {wood}"
        )
        lines += [
            f"       {wording.phrase(work.phrase(units), units)}" for work in part.detail.works
        ]
        if part.waits:
            lines.append(f"       Measure before you cut: {part.detail.late}.")
    for boards in plan.boards:
        lines += _boards(boards, units)
    for sheets in plan.sheets:
        lines += _sheets(sheets, units)
    if plan.no_stock:
        lines += ["", f"Not sold in that size: {', '.join(part.label for part in plan.no_stock)}."]
    return "\n".join(lines)


def _boards(job: BoardJob, units: Units) -> list[str]:
    lines = []
    for stock, row in job.layout:
        taken = ", ".join(f"{part.label} {say_length(part.cut_mm[0], units)}" for part, _, _ in row)
        lines += ["", source_words(job.stock[stock], units), f"  {taken}"]
    return [
        *lines,
        f"  Waste {job.waste:.0%}; "
        f"{'proven the least' if job.plan.proven else 'no less is known'}.",
    ]


def _sheets(job: SheetJob, units: Units) -> list[str]:
    lines = []
    for n, sheet in enumerate(job.plan.sheets, start=1):
        taken = ", ".join(
            f"{each.label} {say_length(each.wide_mm, units)} × {say_length(each.high_mm, units)}"
            for each in sheet.placed
        )
        lines += [
            "",
            f"{source_words(job.stock[sheet.blank], units)}, {n} of {len(job.plan.sheets)}",
            f"  {taken}",
        ]
        lines += [
            f"  {number}: {cut_line(cut, units)}" for number, cut in enumerate(sheet.cuts, start=1)
        ]
    return [
        *lines,
        f"  Waste {job.waste:.0%}; "
        f"{'proven the least' if job.plan.proven else 'no less is known'}.",
    ]


def buy_as_json(buying: Shopping) -> dict[str, Any]:
    """Return the shopping list, ready to be written."""
    return {
        "lines": [
            {**line._asdict(), "cost": line.cost, "spare": line.spare} for line in buying.lines
        ],
        "cost": buying.cost,
        "ready": buying.ready,
        "saves": buying.saves,
        "unpriced": buying.unpriced,
    }


def buy_as_text(buying: Shopping) -> str:
    """Return the shopping list, to read."""
    if not buying.lines:
        return "Nothing to buy."
    lines, aisle = [], ""
    for line in buying.lines:
        if line.aisle != aisle:
            aisle = line.aisle
            lines.append(aisle.capitalize())
        pack = (
            ""
            if line.pack == 1
            else f"pack{'' if line.packs == 1 else 's'} of "
            f"{line.pack:g}{line.unit and ' ' + line.unit}, "
        )
        cost = f", about {line.cost:.2f}" if line.cost else ""
        cost += f", you have {line.have:g}, {line.needed:g} needed" if line.have else ""
        lines.append(f"  {line.packs} × {pack}{line.what}{cost}{line.note and f' ({line.note})'}")
    lines.append(f"About {buying.cost:.0f} of money.")
    if buying.unpriced:
        lines.append(f"Not in it, since no shop has that size: {', '.join(buying.unpriced)}.")
    if buying.saves is not None:
        lines.append(f"Bought ready it costs {buying.ready:.0f}.")
    return "\n".join(lines)


def days_as_json(found: Schedule) -> dict[str, Any]:
    """Return the days, ready to be written."""
    return {
        "steps": [step._asdict() for step in found.steps],
        "refusal": found.refusal,
        "minutes": found.minutes,
        "by": found.by,
        "begin_by": found.begin_by,
    }


def days_as_text(found: Schedule) -> str:
    """Return the days, to read."""
    lines = []
    for step in found.steps:
        more = f", {step.people} people" if step.people > 1 else ""
        lines.append(
            f"{step.begins:%a %d %b %H:%M} to {step.ends:%H:%M}  {step.name} "
            f"({counted(round(step.minutes), '{n} minute', '{n} minutes')}{more})"
        )
        if step.waits_hours:
            lines.append(
                f"{'':<23}then {counted(step.waits_hours, '{n} hour', '{n} hours')}: {step.why}"
            )
    if found.by is not None and not found.refusal:
        last = f"start no later than {found.begin_by}" if found.begin_by else "it is too late"
        lines.append(f"To hang by {found.by}: {last}.")
    return "\n".join([*lines, *([found.refusal] if found.refusal else [])])
