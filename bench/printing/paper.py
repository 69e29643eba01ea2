"""A sheet of paper: fonts, headings, rows, formulas and outlines, over a PDF library."""

import logging
import re
from collections.abc import Iterable
from pathlib import Path

from fpdf import FPDF
from fpdf.enums import CharVPos, XPos, YPos

from trade.measure import Units

_FONTS = Path(__file__).resolve().parent / "fonts"
_MARGIN_MM = 16.0
_INK, _PENCIL, _LINE = (30, 30, 30), (100, 100, 100), (190, 190, 190)
_SMALL, _TEXT, _HEAD, _TITLE = 7.5, 8.5, 11.0, 16.0
_INDEX = re.compile(r"_([A-Za-z0-9α-ω∞]+(?:_[A-Za-z0-9]+)?)|\^([\d.]+)")
logging.getLogger("fontTools").setLevel(logging.WARNING)


class Paper(FPDF):
    """A document in A4 or, for those who think in inches, Letter."""

    def __init__(self, units: Units, title: str, foot: str) -> None:
        """Begin, with a title for the file and words at the foot of each page."""
        super().__init__(format="Letter" if units == "imperial" else "A4")
        self.foot = foot
        self.add_font("DejaVu", "", str(_FONTS / "DejaVuSans.ttf"))
        self.add_font("DejaVu", "B", str(_FONTS / "DejaVuSans-Bold.ttf"))
        self.set_margins(_MARGIN_MM, _MARGIN_MM)
        self.set_auto_page_break(True, _MARGIN_MM + 4)
        self.set_title(title)
        self.set_lang("en")
        self.add_page()

    def footer(self) -> None:
        """The same words on every page, and its number."""
        self.set_y(-_MARGIN_MM)
        self._pen(_SMALL, colour=_PENCIL)
        self.cell(0, 5, self.foot)
        self.set_x(_MARGIN_MM)
        self.cell(0, 5, f"{self.page_no()} of {{nb}}", align="R")

    def _pen(self, size: float, bold: bool = False, colour: tuple[int, int, int] = _INK) -> None:
        self.set_font("DejaVu", "B" if bold else "", size)
        self.set_text_color(*colour)

    def title_line(self, words: str, below: str = "") -> None:
        """The name of the sheet."""
        self._pen(_TITLE, bold=True)
        self.multi_cell(0, 8, words, new_x=XPos.LMARGIN, new_y=YPos.NEXT)
        if below:
            self.quiet(below)
        self.ln(2)

    def heading(self, words: str, keep_mm: float = 24.0) -> None:
        """A heading, never alone at the foot of a page."""
        if self.will_page_break(keep_mm):
            self.add_page()
        self.ln(2)
        self._pen(_HEAD, bold=True)
        self.multi_cell(0, 6, words, new_x=XPos.LMARGIN, new_y=YPos.NEXT)

    def say(self, words: str, bold: bool = False) -> None:
        """A paragraph."""
        self._pen(_TEXT, bold)
        self.multi_cell(0, 4.4, words, new_x=XPos.LMARGIN, new_y=YPos.NEXT)

    def quiet(self, words: str) -> None:
        """A paragraph that matters less."""
        self._pen(_SMALL, colour=_PENCIL)
        self.multi_cell(0, 3.9, words, new_x=XPos.LMARGIN, new_y=YPos.NEXT)

    def points(self, items: Iterable[str]) -> None:
        """A list."""
        for item in items:
            self._pen(_TEXT)
            self.cell(4, 4.4, "•")
            self.multi_cell(0, 4.4, item, new_x=XPos.LMARGIN, new_y=YPos.NEXT)

    def rule(self) -> None:
        """A thin line across."""
        self.set_draw_color(*_LINE)
        self.set_line_width(0.2)
        self.line(self.l_margin, self.get_y(), self.w - self.r_margin, self.get_y())

    def row(self, cells: Iterable[tuple[str, float]], bold: bool = False) -> None:
        """One line of a table: words and widths in mm."""
        self._pen(_SMALL, bold)
        for words, wide in cells:
            self.cell(wide, 4.4, words)
        self.ln(4.4)

    def step(self, symbol: str, value: str, formula: str) -> None:
        """One line of a sum: the symbol with its index set low, its value, how it comes about."""
        if self.will_page_break(4.2):
            self.add_page()
        start, y = self.l_margin + 3, self.get_y()
        for x, words in ((start, symbol), (start + 27, value), (start + 59, formula)):
            self.set_xy(x, y)
            self.set_left_margin(x)  # where a long one goes on
            self._formula(words)
        self.set_left_margin(_MARGIN_MM)
        self.set_xy(_MARGIN_MM, self.get_y() + 4.2)

    def _formula(self, words: str) -> None:
        at = 0
        for found in _INDEX.finditer(words):
            self._run(words[at : found.start()])
            self._run((found[1] or found[2]).replace("_", " "), CharVPos.SUB if found[1] else CharVPos.SUP)
            at = found.end()
        self._run(words[at:])

    def _run(self, words: str, place: CharVPos = CharVPos.LINE) -> None:
        if words:
            self._pen(_SMALL)
            self.char_vpos = place
            self.write(4.2, words)
            self.char_vpos = CharVPos.LINE

    def outline(self, points: Iterable[tuple[float, float]], fill: tuple[int, int, int] | None, dashed: bool = False) -> None:
        """A closed outline in mm on the page."""
        self.set_draw_color(*_INK)
        self.set_line_width(0.15)
        self.set_dash_pattern(0.8, 0.6) if dashed else self.set_dash_pattern()
        if fill is not None:
            self.set_fill_color(*fill)
        self.polygon(list(points), style="DF" if fill is not None else "D")
        self.set_dash_pattern()

    def label(self, x: float, y: float, words: str) -> None:
        """Small words centred on a place."""
        self._pen(6)
        self.set_xy(x - 25, y)
        self.cell(50, 3, words, align="C")
