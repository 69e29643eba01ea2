"""A sheet for the owner.

What hangs on the wall, what each piece may carry, what holds it, and when to look at it again.
"""

from datetime import date

from django.utils.translation import gettext as _

from bench.printing.paper import Paper
from bench.printing.piece_label import behind, carries, spread
from bench.printing.wall_sheet import LARGER
from bench.words import day_of, said, say, worded
from trade.job.care import cares
from trade.language import Figure
from trade.measure import Units
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan
from trade.plan.place import each_piece


def owner_sheet(plan: Plan, units: Units, job: str, day: date) -> bytes:
    """Return the sheet as a PDF.

    Args:
        plan: the wall.
        units: to print in.
        job: the wall's job.
        day: when it was printed.
    """
    paper = Paper(
        units,
        worded("{plan}: care", plan=plan.name),
        worded(
            "{job}, {plan}. {day}. A sum is no licence; local codes decide.",
            job=job,
            plan=plan.name,
            day=Figure(f"{day:%d %b %Y}"),
        ),
        LARGER,
    )
    paper.title_line(
        worded("What hangs on {name}", name=plan.name),
        _("Keep it where the next owner finds it."),
    )
    every = each_piece(plan)
    for piece, on in every:
        _piece(paper, piece, on, units)
    if not every:
        paper.say(_("Nothing yet."))
    return bytes(paper.output())


def _piece(paper: Paper, piece: AnyPiece, plan: Plan, units: Units) -> None:
    hung, found = plan.as_built.as_hung(piece.key), cares(plan, piece.key)
    paper.heading(piece.name, 40)
    paper.say(f"{carries(piece, plan, units)}, {spread(piece, units)}.", bold=True)
    paper.say(f"{say(mount_of(piece).name)}. {behind(piece, plan, units)}.")
    if hung is None:
        paper.quiet(_("Not yet recorded as hung."))
        return
    paper.say(
        worded(
            "Hung on {day} by {name}." if hung.by else "Hung on {day}.",
            day=day_of(hung.on),
            name=hung.by,
        )
        + (f" {hung.note}" if hung.note else "")
    )
    paper.say(worded("Look at it on {days}.", days=", ".join(day_of(care.on) for care in found)))
    paper.points(dict.fromkeys(said(words, units) for care in found for words in care.words))
