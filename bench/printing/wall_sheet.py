"""Drilling sheet (PDF).

The wall to scale, then each piece close up with its holes, bits and depths; read at arm's length.
"""

from django.utils.translation import gettext as _

from bench.drawing.room import in_depth
from bench.printing.paper import FILLS, Paper
from bench.printing.true_size import replay
from bench.words import worded
from trade import wording
from trade.assess import assess
from trade.check import Outcome, Verdict
from trade.language import Figure, joined
from trade.marking.marks import Mark, piece_marks
from trade.marking.overview import LETTERS_MM, close_up, overview, room_for, scale_for
from trade.marking.reading import read, say_across, say_datum, say_up
from trade.marking.template import Drawing
from trade.measure import IN_MM, Units, say_bit, say_length
from trade.mounts import mount_of
from trade.plan.facing import SIDES, beside
from trade.plan.model import AnyPiece, Plan
from trade.plan.place import faced

LARGER = 1.4  # 7.5 points become 10.5
_HIGH_MM = 150.0
_PLACE_MM = 195.0
_CLOSE_MM = 105.0
_WITH_IT_MM = 55.0
_MOST_CAUTIONS = 6
_PLAIN = (250, 248, 244)  # what has no fill of its own hides what is behind it all the same


def wall_sheet(plan: Plan, verdict: Verdict, units: Units, job: str, day: str) -> bytes:
    """Return the sheet as a PDF.

    Args:
        plan: the wall, or a place: then each of its walls, from the left.
        verdict: of the same plan; what won't hold is not to be drilled.
        units: to print in.
        job: whose wall it is.
        day: when it was printed, in words.
    """
    paper = Paper(
        units,
        worded("{plan}: wall", plan=plan.name),
        worded("{job}, {name}. {day}. Probe before you drill.", job=job, name=plan.name, day=day),
        LARGER,
    )
    every = [(on, verdict if on is plan else assess(on)) for on in faced(plan)]
    for n, (on, judged) in enumerate(every):
        if n:
            paper.add_page()
        _wall(paper, on, judged, units)
    if len(every) > 1:
        _place(paper, plan, {each.key: each.outcome for _, v in every for each in v.pieces})
    return bytes(paper.output())


def _place(paper: Paper, plan: Plan, outcomes: dict[str, Outcome]) -> None:
    """Draw all the walls of a place in depth, with what stands out from them."""
    paper.add_page()
    paper.title_line(plan.name, _("In depth; dashed: walls between you and the room"))
    seen, top = in_depth(plan, outcomes), paper.get_y()
    fit = seen.fit((paper.l_margin, top, paper.l_margin + paper.epw, top + _PLACE_MM))
    for face in seen.faces:
        light = face.role == "shade"  # furniture: what is behind it is seen
        fill = None if light else FILLS[face.role] or _PLAIN
        paper.outline([fit(*point) for point in face.points], fill, dashed=light)
    for edge in seen.edges:
        paper.outline([fit(*point) for point in edge], None, dashed=True)
    paper.set_xy(paper.l_margin, top + _PLACE_MM + 3)


def _wall(paper: Paper, plan: Plan, verdict: Verdict, units: Units) -> None:
    """One wall: all of it, what hangs there, and each piece close up."""
    paper.title_line(plan.faced_name, say_datum(plan.datum, units))
    room = (paper.epw, _HIGH_MM)
    per = scale_for(plan.wall.width_mm, plan.wall.height_mm, room)
    _draw(paper, overview(plan, units, per), per)
    for number, piece in enumerate(plan.pieces, start=1):
        word = wording.outcome(verdict.piece(piece.key))
        up = say_length(piece.top_mm, units)
        hangs = _(" It hangs already.") if plan.as_built.hangs(piece.key) else ""
        paper.say(
            worded(
                "{number}  {name}: its top {up} up. {word}.{hangs}",
                number=number,
                name=piece.name,
                up=up,
                word=word,
                hangs=hangs,
            ),
            bold=True,
        )
    paper.quiet(_("Dashed: studs. Crossed out: do not drill there. Crosses: holes."))
    for number, piece in enumerate(plan.pieces, start=1):
        if plan.as_built.hangs(piece.key):
            continue  # its holes are on the wall above; nothing is drilled for it any more
        _piece(paper, number, piece, plan, verdict, units)


def _draw(paper: Paper, drawing: Drawing, per: float) -> None:
    """Draw a drawing at 1 : n.

    `per`, where the page has come to, with the scale in words and a line to check it by.
    """
    left, top = paper.l_margin, paper.get_y() + 1.0
    foot = top + drawing.high / per
    replay(
        paper,
        drawing,
        lambda x, y: (left + (x - drawing.left) / per, foot - (y - drawing.bottom) / per),
        per,
        ("PIECE",),
    )
    paper.set_line_width(0.3)
    paper.line(left, foot + 4, left + 50, foot + 4)
    for x in (left, left + 50):
        paper.line(x, foot + 3, x, foot + 5)
    paper.set_font("DejaVu", "", LETTERS_MM * 72 / IN_MM)
    paper.text(
        left + 53,
        foot + 5.2,
        worded("1 : {per}; this line is 50 mm on paper", per=Figure(f"{per:.0f}")),
    )
    paper.set_xy(paper.l_margin, foot + 8)


def _piece(
    paper: Paper, number: int, piece: AnyPiece, plan: Plan, verdict: Verdict, units: Units
) -> None:
    every = piece_marks(piece, plan.wall, units, plan.policy.lead_holes)
    holes = [mark for mark in every if mark.where == "wall"]
    per = room_for(piece, plan, units, (paper.epw, _CLOSE_MM))
    drawing = close_up(piece, plan, units, per)
    paper.heading(f"{number}  {piece.name}", drawing.high / per + _WITH_IT_MM)
    judged = verdict.piece(piece.key)
    if judged.fails:
        paper.say(
            worded(
                "{outcome}: {headline} Don't drill yet.",
                outcome=wording.outcome(judged),
                headline=wording.headline(judged, units),
            ),
            bold=True,
        )
    _draw(paper, drawing, per)
    supports = mount_of(piece).supports(piece, plan.wall)
    paper.say(
        joined(dict.fromkeys(support.words(units) for support in supports), "; ")
        or _("Nothing goes into the wall."),
        bold=True,
    )
    _table(paper, piece, plan, holes, units)
    for side in SIDES:
        there = beside(plan.wall, side)
        round_corner = [mark for mark in every if mark.side == side]
        if there is not None and round_corner:
            paper.say(worded("Round the corner, on “{name}”", name=there.name), bold=True)
            _table(paper, piece, plan, round_corner, units)
    cautions = list(
        dict.fromkeys(
            wording.phrase(each, units)
            for mark in every
            if mark.where != "shelf"
            for each in mark.cautions
        )
    )
    paper.points(cautions[:_MOST_CAUTIONS])


def _table(paper: Paper, piece: AnyPiece, plan: Plan, holes: list[Mark], units: Units) -> None:
    """Every hole: from the datum across and up, the bit, and where the tape sits on it."""
    wide, there = paper.epw / 5, any(mark.where == "beside" for mark in holes)
    paper.row(
        (
            (_("hole"), wide * 0.5),
            (_("from the corner") if there else _("across"), wide * 1.3),
            (_("up"), wide * 1.2),
            (_("bit"), wide),
            (_("tape at"), wide),
        ),
        bold=True,
    )
    datum = plan.datum
    for mark in holes:
        place = read(datum, piece, plan.wall, mark.x_mm, mark.y_mm)
        across = (
            say_length(mark.corner_mm, units)
            if mark.corner_mm is not None
            else say_across(place, datum, units)
        )
        paper.row(
            (
                (str(mark.number), wide * 0.5),
                (across, wide * 1.3),
                (say_up(place, datum, units), wide * 1.2),
                (say_bit(mark.bit_mm, units) if mark.bit_mm else "none", wide),
                (say_length(mark.depth_mm, units), wide),
            )
        )
