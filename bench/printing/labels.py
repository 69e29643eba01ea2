"""Labels for the parts, to stick on as each comes off the saw.

What it is, whose, how large, which side goes to the wall.
"""

from django.utils.translation import gettext as _

from bench.printing.paper import Paper
from bench.words import say, worded
from trade import data
from trade.cutting.parts import CutPart
from trade.language import joined
from trade.measure import Units, say_fine_length, say_length

_WIDE_MM, _HIGH_MM, _ACROSS = 88.0, 40.0, 2


def labels_sheet(name: str, parts: list[CutPart], units: Units) -> bytes:
    """All labels as a PDF, eight or more a page.

    Args:
        name: of the wall.
        parts: one label for each.
        units: to print in.
    """
    paper = Paper(
        units,
        worded("{name}: labels", name=name),
        worded(
            "{name}. Stick each on its part as it comes off the saw, on the side that is not seen.",
            name=name,
        ),
    )
    paper.set_auto_page_break(False)
    down = int((paper.h - 2 * paper.t_margin - 6) / _HIGH_MM)
    for n, part in enumerate(parts):
        if n and n % (down * _ACROSS) == 0:
            paper.add_page()
        place = n % (down * _ACROSS)
        _label(
            paper,
            part,
            units,
            paper.l_margin + place % _ACROSS * _WIDE_MM,
            paper.t_margin + place // _ACROSS * _HIGH_MM,
        )
    if not parts:
        paper.say(_("There is nothing to label."))
    return bytes(paper.output())


def _label(paper: Paper, part: CutPart, units: Units, left: float, top: float) -> None:
    paper.set_draw_color(150, 150, 150)
    paper.set_line_width(0.2)
    paper.rect(left, top, _WIDE_MM, _HIGH_MM)
    paper.set_text_color(20, 20, 20)
    paper.set_font("DejaVu", "B", 24)
    paper.text(left + 3, top + 11, part.label)
    wide = paper.get_string_width(part.label)
    paper.set_font("DejaVu", "B", 10)
    paper.text(left + 7 + wide, top + 7, _short(say(part.name), 30))
    paper.set_font("DejaVu", "", 9)
    paper.text(left + 7 + wide, top + 11.5, _short(part.piece, 32))
    sizes = (say_length(part.length_mm, units), say_length(part.width_mm, units))
    size = joined((*sizes, say_fine_length(part.thick_mm, units)), " × ")
    paper.set_font("DejaVu", "B", 11)
    paper.text(left + 3, top + 19, say(size))
    paper.set_font("DejaVu", "", 8.5)
    paper.text(left + 3, top + 24, say(data.boards()[part.board].name))
    wall = say(part.detail.wall) or (_("measure first") if part.waits else "")
    paper.set_xy(left + 2, top + 26)
    paper.multi_cell(_WIDE_MM - 5, 4, f"▸ {wall}" if wall else "", max_line_height=4)


def _short(words: str, most: int) -> str:
    return words if len(words) <= most else f"{words[: most - 1]}…"
