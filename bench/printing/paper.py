"""A sheet of paper: fonts, headings, rows, formulas and outlines, over a PDF library."""

import logging
import re
from collections.abc import Iterable, Iterator
from pathlib import Path

from fpdf import FPDF

from bench.words import say, worded
from trade.measure import Units

FONTS = Path(__file__).resolve().parent / "fonts"
_MARGIN_MM = 16.0
_INK, _PENCIL, _LINE = (30, 30, 30), (100, 100, 100), (190, 190, 190)
_CELL_MM = 2.0  # between one cell of a table and the next
_INDEX_SHARE = 0.72  # size of an index over that of its line
_SMALL, _TEXT, _HEAD, _TITLE = 7.5, 8.5, 11.0, 16.0
_INDEX = re.compile(r"_([A-Za-z0-9α-ω∞]+(?:_[A-Za-z0-9]+)?)|\^([\d.]+)")
_BREAKS = re.compile(r"[\x00-\x1f\x7f\u2028\u2029]+")
logging.getLogger("fontTools").setLevel(logging.WARNING)


def _runs(words: str) -> Iterator[tuple[str, float]]:
    """Parts of a word, each with how far down it is set, mm."""
    at = 0
    for found in _INDEX.finditer(words):
        if found.start() > at:
            yield words[at : found.start()], 0.0
        yield (found[1] or found[2]).replace("_", " "), 0.7 if found[1] else -0.9
        at = found.end()
    if at < len(words):
        yield words[at:], 0.0


FILLS: dict[str, tuple[int, int, int] | None] = {
    "board": (222, 200, 165),
    "wood": (222, 200, 165),
    "leg": (235, 220, 195),
    "steel": (150, 150, 150),
    "stud": (245, 238, 225),
    "side": (252, 250, 246),
    "floor": (232, 230, 224),
    "face": None,
    "door": None,
    "hidden": None,
    "shade": None,
    "holes": None,
}
"""What shapes are filled with, by what they are made of or are."""


class Paper(FPDF):
    """A document in A4 or, for those who think in inches, Letter."""

    def __init__(self, units: Units, title: str, foot: str, larger: float = 1.0) -> None:
        """Begin, with a title for the file and words at the foot of each page.

        All letters so much larger than in a book.
        """
        super().__init__(format="Letter" if units == "imperial" else "A4")
        self.larger = larger
        self.foot = foot
        self.add_font("DejaVu", "", str(FONTS / "DejaVuSans.ttf"))
        self.add_font("DejaVu", "B", str(FONTS / "DejaVuSans-Bold.ttf"))
        self.set_margins(_MARGIN_MM, _MARGIN_MM)
        self.set_auto_page_break(True, _MARGIN_MM + 4)
        self.set_title(title)
        self.set_lang("en")
        self.add_page()

    def normalize_text(self, text: str) -> str:
        """Text on one line: whatever a name has in it, no letter of it is a line break."""
        return str(super().normalize_text(" ".join(_BREAKS.split(str(text)))))

    def footer(self) -> None:
        """Write the same words on every page, and its number."""
        self.set_y(-_MARGIN_MM)
        self._pen(_SMALL, colour=_PENCIL)
        self.cell(0, 5, say(self.foot))
        self.set_x(_MARGIN_MM)
        self.cell(0, 5, worded("{page} of {pages}", page=self.page_no(), pages="{nb}"), align="R")

    def _pen(self, size: float, bold: bool = False, colour: tuple[int, int, int] = _INK) -> None:
        self.set_font("DejaVu", "B" if bold else "", size * self.larger)
        self.set_text_color(*colour)

    def _paragraph(self, words: str, line_mm: float, left_mm: float | None = None) -> None:
        """Words in the pen's font, line by line.

        Each word is measured once, which the library's own paragraphs do not.
        """
        line_mm *= self.larger
        left = self.l_margin if left_mm is None else left_mm
        for line in self._lines(words, self.w - self.r_margin - left):
            self._line(line, line_mm, left)

    def _lines(self, words: str, room: float) -> list[str]:
        """Words in lines that go into a room, in the pen's font."""
        found: list[str] = []
        line: list[str] = []
        used, space = 0.0, self.get_string_width(" ")
        for word in say(words).split():
            wide = self.get_string_width(word)
            if line and used + space + wide > room:
                found.append(" ".join(line))
                line, used = [], 0.0
            used += wide + (space if line else 0.0)
            line.append(word)
        return [*found, " ".join(line)]

    def _line(self, words: str, line_mm: float, left: float) -> None:
        if self.will_page_break(line_mm):
            font = (self.font_family, self.font_style, self.font_size_pt, self.text_color)
            self.add_page()
            self.set_font(*font[:3])
            self.text_color = font[3]
        self.text(left, self.get_y() + line_mm * 0.75, words)
        self.set_xy(self.l_margin, self.get_y() + line_mm)

    def title_line(self, words: str, below: str = "") -> None:
        """Write the name of the sheet."""
        self._pen(_TITLE, bold=True)
        self._paragraph(words, 8)
        if below:
            self.quiet(below)
        self.ln(2)

    def heading(self, words: str, keep_mm: float = 24.0) -> None:
        """Write a heading, never alone at the foot of a page."""
        if self.will_page_break(keep_mm):
            self.add_page()
        self.ln(2)
        self._pen(_HEAD, bold=True)
        self._paragraph(words, 6)

    def say(self, words: str, bold: bool = False) -> None:
        """Write a paragraph."""
        self._pen(_TEXT, bold)
        self._paragraph(words, 4.4)

    def quiet(self, words: str) -> None:
        """Write a paragraph that matters less."""
        self._pen(_SMALL, colour=_PENCIL)
        self._paragraph(words, 3.9)

    def points(self, items: Iterable[str]) -> None:
        """Write a list."""
        for item in items:
            self._pen(_TEXT)
            self.text(self.l_margin, self.get_y() + 3.3 * self.larger, "•")
            self._paragraph(item, 4.4, self.l_margin + 4)

    def rule(self) -> None:
        """Write a thin line across."""
        self.set_draw_color(*_LINE)
        self.set_line_width(0.2)
        self.line(self.l_margin, self.get_y(), self.w - self.r_margin, self.get_y())

    def row(self, cells: Iterable[tuple[str, float]], bold: bool = False) -> None:
        """One line of a table: words and widths in mm; words that are too long go on below."""
        self._pen(_SMALL, bold)
        high = 4.4 * self.larger
        parted = [(self._lines(words, wide - _CELL_MM), wide) for words, wide in cells]
        lines = max((len(lines) for lines, _ in parted), default=1)
        if self.will_page_break(high * lines):
            self.add_page()
            self._pen(_SMALL, bold)
        left, top = self.get_x(), self.get_y()
        for own, wide in parted:
            for n, line in enumerate(own):
                self.set_xy(left, top + n * high)
                self.cell(wide, high, line)
            left += wide
        self.set_xy(self.l_margin, top + lines * high)

    def step(self, symbol: str, value: str, formula: str) -> None:
        """One line of a sum: the symbol with its index set low, its value, how it comes about."""
        if self.will_page_break(4.2):
            self.add_page()
        start, y = self.l_margin + 3, self.get_y()
        self._formula(symbol, start, y)
        self._formula(value, start + 27, y)
        self.set_xy(self.l_margin, self._formula(formula, start + 59, y) + 4.2)

    def _formula(self, words: str, left: float, y: float) -> float:
        """Words with their indices set low; how far down the last line stands."""
        x = left
        for word in words.split(" "):
            pieces = list(_runs(word))
            wide = sum(self._wide(run, index) for run, index in pieces)
            if x > left and x + wide > self.w - self.r_margin:
                x, y = left, y + 3.8
            for run, index in pieces:
                self._pen(_SMALL * (_INDEX_SHARE if index else 1.0))
                self.text(x, y + 3.1 + index, run)
                x += self._wide(run, index)
            x += self._wide(" ", 0.0)
        return y

    def _wide(self, words: str, index: float) -> float:
        self._pen(_SMALL * (_INDEX_SHARE if index else 1.0))
        return float(self.get_string_width(words))

    def outline(
        self,
        points: Iterable[tuple[float, float]],
        fill: tuple[int, int, int] | None,
        dashed: bool = False,
    ) -> None:
        """Write a closed outline in mm on the page."""
        self.set_draw_color(*_INK)
        self.set_line_width(0.1)
        self.set_dash_pattern(0.8, 0.6) if dashed else self.set_dash_pattern()
        if fill is not None:
            self.set_fill_color(*fill)
        self.polygon(list(points), style="DF" if fill is not None else "D")
        self.set_dash_pattern()

    def label(self, x: float, y: float, words: str) -> None:
        """Small words centred on a place."""
        words = say(words)
        self._pen(6 if self.larger == 1.0 else _SMALL)
        self.set_xy(max(x - 25, self.l_margin - 18), y)
        self.cell(50, 3 * self.larger, words, align="C")
