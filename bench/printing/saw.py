"""Cut list (PDF).

Every board and sheet with its parts to scale, its cuts in order, what is set once, each part's
work.
"""

from collections.abc import Sequence
from itertools import pairwise

from django.utils.translation import gettext as _

from bench.drawing.exploded import taken_apart
from bench.printing.paper import Paper
from bench.printing.wall_sheet import LARGER
from bench.words import say, worded
from trade import data, wording
from trade.cutting.parts import CutPart, Labelled
from trade.cutting.plan import BoardJob, CutPlan, SheetJob, cut_line, source_words
from trade.language import compose, counted, joined
from trade.marking.template import Drawing, Line, Text
from trade.measure import Units, say_fine_length, say_length

_BAR_MM, _BODY_MM = 12.0, 110.0
_FILL, _STOCK, _WAITS = (255, 255, 255), (236, 222, 190), (220, 228, 236)
_FACES = {"front": _STOCK, "side": (214, 196, 156), "top": (247, 240, 224), "cut": (169, 138, 85)}


def saw_sheet(
    name: str,
    plan: CutPlan,
    units: Units,
    job: str,
    day: str,
    bodies: Sequence[tuple[str, Sequence[Labelled]]] = (),
) -> bytes:
    """Return the sheet as a PDF.

    Args:
        name: of the wall.
        plan: how it is cut.
        units: of the person.
        job: the wall's job.
        day: when it was printed, in words.
        bodies: that are made: the name of each piece, and its boards by their labels.
    """
    paper = Paper(units, worded("{name}: saw", name=name), f"{job}, {name}. {day}.", LARGER)
    paper.title_line(
        worded("Saw for {name}", name=name),
        _("Label every part as it comes off the saw. Cut what must match at one setting."),
    )
    for boards in plan.boards:
        wide = say_length(boards.stock[boards.layout[0][0]].width_mm, units)
        paper.heading(
            worded(
                "{wood!c}, {wide} wide",
                wood=data.boards()[boards.parts[0].board].name,
                wide=wide,
            ),
            34,
        )
        for n in range(len(boards.layout)):
            _board(paper, boards, n, units)
        stops = joined(
            (
                compose("{length}: {parts}", length=say_length(mm, units), parts=", ".join(labels))
                for mm, labels in boards.settings
            ),
            "; ",
        )
        paper.quiet(worded("Set the stop once for each length. {stops}.", stops=stops))
    for sheets in plan.sheets:
        for n in range(len(sheets.plan.sheets)):
            _sheet(paper, sheets, n, units)
    for body, labelled in bodies:
        _body(paper, body, labelled)
    paper.heading(_("Parts"))
    for part in plan.parts:
        _part(paper, part, units)
    if plan.no_stock:
        paper.say(
            worded(
                "Not sold in that size, to be glued up or ordered: {parts}.",
                parts=", ".join(part.label for part in plan.no_stock),
            )
        )
    return bytes(paper.output())


def _body(paper: Paper, name: str, boards: Sequence[Labelled]) -> None:
    """Draw a body taken apart, each board with its label."""
    drawn = taken_apart(boards, paper.epw * 0.8, _BODY_MM, 2.6, 4.5)
    paper.heading(worded("{name!c}, taken apart", name=name), drawn.high + 4)
    left, top = paper.l_margin + (paper.epw - drawn.wide) / 2, paper.get_y()
    for face in drawn.faces:
        paper.outline([(left + x, top + y) for x, y in face.points], _FACES[face.of])
    for x, y, label in drawn.labels:
        paper.label(left + x, top + y - 2.0, label)
    paper.set_xy(paper.l_margin, top + drawn.high + 2)


def _part(paper: Paper, part: CutPart, units: Units) -> None:
    """One part: label, size, what is done to it, which side goes where, what is measured first."""
    if paper.will_page_break(20):
        paper.add_page()
    paper.say(
        worded(
            "{label}  {part}, {piece}: {size}",
            label=part.label,
            part=part.name,
            piece=part.piece,
            size=_size(part, units),
        ),
        bold=True,
    )
    if part.waits:
        paper.say(worded("Measure before you cut: {late}.", late=part.detail.late))
    if part.rough:
        rough = joined((say_length(mm, units) for mm in part.cut_mm), " × ")
        paper.quiet(worded("Off the saw {rough}; the rest is scribed to the wall.", rough=rough))
    paper.points(wording.phrase(work.phrase(units), units) for work in part.detail.works)
    if part.detail.wall:
        paper.quiet(worded("Side: {wall}.", wall=part.detail.wall))


def _size(part: CutPart, units: Units) -> str:
    sizes = (say_length(part.length_mm, units), say_length(part.width_mm, units))
    return joined((*sizes, say_fine_length(part.thick_mm, units)), " × ")


def _rectangle(
    left: float, top: float, wide: float, high: float
) -> tuple[tuple[float, float], ...]:
    return ((left, top), (left + wide, top), (left + wide, top + high), (left, top + high))


def _board(paper: Paper, job: BoardJob, n: int, units: Units) -> None:
    stock, parts = job.layout[n]
    row = job.stock[stock]
    if paper.will_page_break(_BAR_MM + 12):
        paper.add_page()
    paper.say(source_words(row, units))
    scale, top = paper.epw / max(each.length_mm for each in job.stock), paper.get_y() + 1
    paper.outline(_rectangle(paper.l_margin, top, row.length_mm * scale, _BAR_MM), _STOCK)
    for part, start, end in parts:
        left, wide = paper.l_margin + start * scale, (end - start) * scale
        paper.outline(_rectangle(left, top, wide, _BAR_MM), _WAITS if part.waits else _FILL)
        paper.label(
            left + wide / 2,
            top + _BAR_MM / 2 - 2.0,
            f"{part.label}  {say_length(part.cut_mm[0], units)}" if wide > 34 else part.label,
        )
    paper.set_xy(paper.l_margin, top + _BAR_MM + 3)


def _sheet(paper: Paper, job: SheetJob, n: int, units: Units) -> None:
    cuts = job.plan.sheets[n]
    row = job.stock[cuts.blank]
    scale = paper.epw / max(row.length_mm, 2000.0)
    high = row.width_mm * scale
    paper.heading(
        worded(
            "{sheet!c}, {n} of {sheets}",
            sheet=source_words(row, units),
            n=n + 1,
            sheets=len(job.plan.sheets),
        ),
        high + 14,
    )
    left, top = paper.l_margin, paper.get_y() + 1
    paper.outline(_rectangle(left, top, row.length_mm * scale, high), _STOCK)
    for each in cuts.placed:
        x, y = left + each.left_mm * scale, top + high - (each.bottom_mm + each.high_mm) * scale
        waits = job.parts[each.label].waits
        paper.outline(
            _rectangle(x, y, each.wide_mm * scale, each.high_mm * scale), _WAITS if waits else _FILL
        )
        size = (
            f"  {say_length(each.wide_mm, units)} × {say_length(each.high_mm, units)}"
            if each.wide_mm * scale > 56
            else ""
        )
        if each.high_mm * scale > 4.4:
            paper.label(
                x + each.wide_mm * scale / 2, y + each.high_mm * scale / 2 - 2.0, each.label + size
            )
    paper.set_xy(paper.l_margin, top + high + 2)
    steps = joined(
        (
            compose("{n}: {cut}", n=number, cut=cut_line(cut, units))
            for number, cut in enumerate(cuts.cuts, start=1)
        ),
        "; ",
    )
    settings = (
        worded(
            " The saw is set {settings} for {cuts}.",
            settings=counted(cuts.settings, "{n} time", "{n} times"),
            cuts=counted(len(cuts.cuts), "{n} cut", "{n} cuts"),
        )
        if cuts.cuts
        else ""
    )
    paper.quiet((say(steps) + "." if cuts.cuts else _("Only the edges are trimmed.")) + settings)


def sheet_drawing(job: SheetJob, n: int, units: Units) -> Drawing:
    """One sheet at true size, for those who play drawings to files.

    Its edge, its parts, their labels.
    """
    cuts = job.plan.sheets[n]
    row = job.stock[cuts.blank]
    lines = _ring("FRAME", 0.0, 0.0, row.length_mm, row.width_mm)
    texts = []
    for each in cuts.placed:
        lines += _ring("PIECE", each.left_mm, each.bottom_mm, each.wide_mm, each.high_mm)
        size = f"{say_length(each.wide_mm, units)} × {say_length(each.high_mm, units)}"
        texts.append(
            Text(
                "WORDS",
                each.left_mm + 5,
                each.bottom_mm + 5,
                min(20.0, each.high_mm / 2),
                f"{each.label} {size}",
            )
        )
    return Drawing(
        worded("{row}, sheet {n}", row=row.name, n=n + 1),
        0.0,
        0.0,
        row.length_mm,
        row.width_mm,
        tuple(lines),
        (),
        tuple(texts),
    )


def _ring(layer: str, left: float, bottom: float, wide: float, high: float) -> list[Line]:
    corners = [
        (left, bottom),
        (left + wide, bottom),
        (left + wide, bottom + high),
        (left, bottom + high),
        (left, bottom),
    ]
    return [Line(layer, *a, *b) for a, b in pairwise(corners)]  # type: ignore[arg-type]
