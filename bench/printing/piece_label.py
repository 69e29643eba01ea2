"""A label for each piece.

What it may carry, spread how, what is behind it, since when, and a code that leads to its record.
"""

from collections.abc import Callable

from django.utils.translation import gettext as _

from bench.printing.paper import Paper
from bench.words import day_of, worded
from trade.job.as_built import as_built
from trade.language import joined
from trade.measure import Units, say_length, say_weight
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan
from trade.plan.place import each_piece

_WIDE_MM, _HIGH_MM, _ACROSS, _CODE_MM = 88.0, 54.0, 2, 24.0


def piece_labels(plan: Plan, key: str | None, units: Units, address: Callable[[str], str]) -> bytes:
    """Labels as a PDF.

    Args:
        plan: the wall.
        key: of one piece; None for all of them.
        units: to print in.
        address: of a piece's record, by its key.
    """
    paper = Paper(
        units,
        worded("{plan}: labels", plan=plan.name),
        worded("{plan}. Stick each where it is seen when the piece is loaded.", plan=plan.name),
    )
    paper.set_auto_page_break(False)
    pieces = [each for each in each_piece(plan) if key in (None, each[0].key)]
    down = int((paper.h - 2 * paper.t_margin - 6) / _HIGH_MM)
    for n, (piece, on) in enumerate(pieces):
        if n and n % (down * _ACROSS) == 0:
            paper.add_page()
        place = n % (down * _ACROSS)
        left = paper.l_margin + place % _ACROSS * _WIDE_MM
        top = paper.t_margin + place // _ACROSS * _HIGH_MM
        _label(paper, piece, on, units, (left, top), address(piece.key))
    if not pieces:
        paper.say(_("Nothing hangs on this wall yet."))
    return bytes(paper.output())


def carries(piece: AnyPiece, plan: Plan, units: Units) -> str:
    """Return what it may carry, in words.

    What it was made for, and nothing at all where it would not hold as it hangs.
    """
    verdict = as_built(plan, piece.key).verdict
    if verdict is None or verdict.outcome == "wont_hold":
        return _("Do not load: it won't hold")
    if verdict.outcome == "doesnt_fit":
        return _("Do not load: it doesn't fit as it is")
    if verdict.outcome == "cannot_tell":
        return _("Do not load: not yet judged")
    total = sum(thing.mass_kg or 0.0 for thing in piece.things)
    if not total or any(thing.mass_kg is None for thing in piece.things):
        return _("Its load has not been weighed")
    return worded("Carries {total} in all", total=say_weight(total, units))


def spread(piece: AnyPiece, units: Units) -> str:
    """How that is spread, in words."""
    single = [thing for thing in piece.things if thing.at_mm is not None]
    evenly = _("spread along it") if any(thing.at_mm is None for thing in piece.things) else ""
    at = [
        worded(
            "{name} {place} from its left end",
            name=thing.name,
            place=say_length(thing.at_mm or 0.0, units),
        )
        for thing in single[:2]
    ]
    return ", ".join([*([evenly] if evenly else []), *at]) or _("loads not told")


def behind(piece: AnyPiece, plan: Plan, units: Units) -> str:
    """Return what holds it, in words."""
    supports = mount_of(piece).supports(piece, plan.wall)
    words = dict.fromkeys(support.words(units) for support in supports)
    count = sum(len(support.holes) for support in supports)
    studs = sorted(
        {
            support.stud.stud.centre_mm
            for support in supports
            if support.stud.stud is not None and support.in_stud
        }
    )
    where = (
        ""
        if not studs
        else worded(
            "; studs at {studs} from the left corner",
            studs=joined(say_length(x, units) for x in studs[:6]),
        )
    )
    return worded("{n} × {words}{where}", n=count, words=joined(words), where=where)


def _label(
    paper: Paper, piece: AnyPiece, plan: Plan, units: Units, at: tuple[float, float], address: str
) -> None:
    left, top = at
    paper.set_draw_color(120, 120, 120)
    paper.set_line_width(0.25)
    paper.rect(left, top, _WIDE_MM, _HIGH_MM)
    paper.set_text_color(20, 20, 20)
    room = _WIDE_MM - _CODE_MM - 8
    paper.set_font("DejaVu", "B", 11)
    paper.text(left + 4, top + 7, _fits(paper, piece.name, room + _CODE_MM))
    paper.set_font("DejaVu", "B", 14)
    paper.set_xy(left + 3, top + 9.5)
    paper.multi_cell(room, 6, carries(piece, plan, units), align="L")
    paper.set_font("DejaVu", "", 8.5)
    paper.set_xy(left + 3, paper.get_y() + 0.5)
    paper.multi_cell(room, 3.8, spread(piece, units), align="L")
    _code(paper, address, left + _WIDE_MM - _CODE_MM - 3, top + 9.5)
    hung = plan.as_built.as_hung(piece.key)
    proofs = [proof for proof in plan.as_built.proofs if proof.piece == piece.key]
    lines = [
        worded(
            "Hung {day} by {name}." if hung.by else "Hung {day}.", day=day_of(hung.on), name=hung.by
        )
        if hung
        else _("Not yet recorded as hung.")
    ]
    if proofs:
        lines.append(
            worded(
                "Proved with {weight} on {day}.",
                weight=say_weight(proofs[-1].kg, units),
                day=day_of(proofs[-1].on),
            )
        )
    lines.append(behind(piece, plan, units))
    paper.set_font("DejaVu", "", 7.5)
    paper.set_xy(left + 3, top + _HIGH_MM - 17)
    paper.multi_cell(_WIDE_MM - 6, 3.5, "\n".join(lines), align="L")


def _fits(paper: Paper, words: str, room: float) -> str:
    while paper.get_string_width(words) > room and len(words) > 4:
        words = f"{words[:-2].rstrip('…')}…"
    return words


def _code(paper: Paper, address: str, left: float, top: float) -> None:
    """Draw a QR code, drawn square by square: sharp at any printer."""
    import segno

    rows = [list(row) for row in segno.make(address, error="m", micro=False).matrix]
    step = _CODE_MM / len(rows)
    paper.set_fill_color(0, 0, 0)
    for y, row in enumerate(rows):
        for x, dark in enumerate(row):
            if dark:
                paper.rect(left + x * step, top + y * step, step, step, "F")
