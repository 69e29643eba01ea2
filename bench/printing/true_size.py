"""Drawings at true size replayed to paper, to SVG and to DXF.

One drawing, three players: the same holes in all of them.
"""

import io
from collections.abc import Callable, Iterator
from math import ceil
from typing import NamedTuple

from django.utils.html import escape
from django.utils.translation import gettext as _
from fpdf import FPDF
from fpdf.prefs import ViewerPreferences

from bench.drawing.svg import number
from bench.printing.paper import FONTS
from bench.words import say, worded
from trade import wording
from trade.marking.template import LAYERS, Drawing
from trade.measure import IN_MM, Units

_MARGIN_MM, _OVERLAP_MM, _FOOT_MM, _GAP_MM = 12.0, 10.0, 20.0, 4.0
_PT = 72 / IN_MM
_PAPERS = {"metric": ("A4", 210.0, 297.0), "imperial": ("Letter", 8.5 * IN_MM, 11 * IN_MM)}
_WIDTHS = {
    "HOLES": 0.35,
    "CENTRES": 0.15,
    "PIECE": 0.25,
    "STUDS": 0.2,
    "AVOID": 0.35,
    "LEVEL": 0.5,
    "FRAME": 0.25,
    "WORDS": 0.15,
}
_DASHES = {"STUDS": (6.0, 2.0, "6 2"), "PIECE": (2.0, 1.0, "2 1")}
_COLOURS = {
    "HOLES": 1,
    "CENTRES": 8,
    "PIECE": 3,
    "STUDS": 30,
    "AVOID": 1,
    "LEVEL": 5,
    "WORDS": 7,
    "FRAME": 9,
}  # numbers of the DXF palette


class Tile(NamedTuple):
    """One sheet of a drawing.

    Its row from the top, its column from the left, and what is at its lower left corner, mm.
    """

    row: int
    column: int
    left: float
    bottom: float


def tiles(drawing: Drawing, wide: float, high: float) -> list[Tile]:
    """Return the sheets that a drawing takes, row by row from the top, overlapping by 10 mm.

    Of each so much can be drawn on.
    """
    across = max(ceil((drawing.wide - _OVERLAP_MM) / (wide - _OVERLAP_MM) - 1e-9), 1)
    down = max(ceil((drawing.high - _OVERLAP_MM) / (high - _OVERLAP_MM) - 1e-9), 1)
    return [
        Tile(
            row,
            column,
            drawing.left + column * (wide - _OVERLAP_MM),
            drawing.top - high - row * (high - _OVERLAP_MM),
        )
        for row in range(down)
        for column in range(across)
    ]


def room(units: Units, lying: bool) -> tuple[float, float]:
    """Return what can be drawn on of a sheet, mm."""
    _name, wide, high = _PAPERS[units]
    wide, high = (high, wide) if lying else (wide, high)
    return wide - 2 * _MARGIN_MM, high - 2 * _MARGIN_MM - _FOOT_MM


def pdf(drawings: list[Drawing], units: Units) -> bytes:
    """Print every drawing at 1:1, tiled over as many sheets as it needs.

    Marks show how to lay the sheets edge to edge, and lines check the scale.
    """
    name, _wide, _high = _PAPERS[units]
    paper = FPDF(format=name)
    paper.set_auto_page_break(False)
    paper.add_font("DejaVu", "", str(FONTS / "DejaVuSans.ttf"))
    paper.set_title(", ".join(drawing.name for drawing in drawings))
    paper.viewer_preferences = ViewerPreferences(print_scaling="None")
    for drawing in drawings:
        lying = drawing.wide > drawing.high
        wide, high = room(units, lying)
        on_a_sheet = max(
            int((high + _GAP_MM) / (drawing.high + _GAP_MM)), 1
        )  # long strips go one under the other
        high = drawing.high if on_a_sheet > 1 else high
        every = tiles(drawing, wide, high)
        for n, tile in enumerate(every):
            if n % on_a_sheet == 0:
                paper.add_page(orientation="L" if lying else "P")
                _foot(paper, drawing, every[n : n + on_a_sheet], len(every))
            top = _MARGIN_MM + (n % on_a_sheet) * (high + _GAP_MM)
            _tile(paper, drawing, tile, every, (top, wide, high))
    return bytes(paper.output())


def _tile(
    paper: FPDF, drawing: Drawing, tile: Tile, every: list[Tile], where: tuple[float, float, float]
) -> None:
    top, wide, high = where

    def place(x: float, y: float) -> tuple[float, float]:
        return _MARGIN_MM + x - tile.left, top + high - (y - tile.bottom)

    with paper.rect_clip(_MARGIN_MM, top, wide, high):
        replay(paper, drawing, place)
    _registration(paper, tile, every, where)


def replay(
    paper: FPDF,
    drawing: Drawing,
    place: Callable[[float, float], tuple[float, float]],
    per: float = 1.0,
    solid: tuple[str, ...] = (),
) -> None:
    """Draw it on a page at 1 : `per`.

    `place`: where on the page a place of the drawing is; `solid`: layers without dashes.
    """
    paper.set_draw_color(20, 20, 20)
    paper.set_text_color(20, 20, 20)
    for line in drawing.lines:
        paper.set_line_width(_WIDTHS[line.layer])
        dash = _DASHES.get(line.layer) if line.layer not in solid else None
        paper.set_dash_pattern(*dash[:2]) if dash else paper.set_dash_pattern()
        paper.line(*place(line.x1, line.y1), *place(line.x2, line.y2))
    paper.set_dash_pattern()
    for circle in drawing.circles:
        paper.set_line_width(_WIDTHS[circle.layer])
        x, y = place(circle.x, circle.y)
        paper.circle(x, y, circle.diameter / 2 / per)
    for text in drawing.texts:
        paper.set_font("DejaVu", "", text.high / per * _PT)
        x, y = place(text.x, text.y)
        with paper.rotation(text.turn, x, y):
            paper.text(x, y, say(text.words))


def _registration(
    paper: FPDF, tile: Tile, every: list[Tile], where: tuple[float, float, float]
) -> None:
    """Draw the frame, its name in the corner, and crosses in the overlaps to align sheets."""
    top, wide, high = where
    paper.set_line_width(0.1)
    paper.rect(_MARGIN_MM, top, wide, high)
    paper.set_font("DejaVu", "", 8)
    if len(every) > 1:
        paper.text(_MARGIN_MM + wide - 8, top + 4, _name(tile))
    last_row, last_column = max(each.row for each in every), max(each.column for each in every)
    half = _OVERLAP_MM / 2
    xs = ([half] if tile.column else []) + ([wide - half] if tile.column < last_column else [])
    ys = ([half] if tile.row else []) + ([high - half] if tile.row < last_row else [])
    spots = [(x, share * high) for x in xs for share in (0.25, 0.75)] + [
        (share * wide, y) for y in ys for share in (0.25, 0.75)
    ]
    for x, y in spots:
        cx, cy = _MARGIN_MM + x, top + y
        paper.line(cx - 3, cy, cx + 3, cy)
        paper.line(cx, cy - 3, cx, cy + 3)
        paper.circle(cx, cy, 1.5)


def _name(tile: Tile) -> str:
    """Return what a sheet or a strip is called: its row by letter, its column by number."""
    return f"{chr(65 + tile.row)}{tile.column + 1}"


def _foot(paper: FPDF, drawing: Drawing, here: list[Tile], count: int) -> None:
    """Print the sheet's name and number, and lines of 100 mm and 4 in to check the printer."""
    y = paper.h - _MARGIN_MM
    paper.set_font("DejaVu", "", 8)
    sheet = (
        worded("{these} of {n}", these=", ".join(map(_name, here)), n=count)
        if count > 1
        else _("one sheet")
    )
    paper.text(
        _MARGIN_MM,
        y - 13,
        worded(
            "{drawing}. True size: print at 100 %, {sheet}. Check before you drill:",
            drawing=drawing.name,
            sheet=sheet,
        ),
    )
    paper.set_line_width(0.2)
    for low, length, words in ((y - 8, 100.0, "100 mm"), (y - 2, 4 * IN_MM, "4 in")):
        paper.line(_MARGIN_MM, low, _MARGIN_MM + length, low)
        for x in (_MARGIN_MM, _MARGIN_MM + length):
            paper.line(x, low - 1.5, x, low + 1.5)
        paper.text(_MARGIN_MM + length + 3, low + 1, words)


def svg(drawing: Drawing) -> str:
    """Return the drawing as an SVG of its true size, a group to a layer."""
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{number(drawing.wide)}mm" '
        f'height="{number(drawing.high)}mm" '
        f'viewBox="0 0 {number(drawing.wide)} {number(drawing.high)}">'
    )
    return head + "".join(_svg_layers(drawing)) + "</svg>"


def _svg_layers(drawing: Drawing) -> Iterator[str]:
    def place(x: float, y: float) -> tuple[str, str]:
        return f"{x - drawing.left:.4f}", f"{drawing.top - y:.4f}"

    yield f"<title>{escape(say(drawing.name))}</title>"
    for layer in LAYERS:
        dash = f' stroke-dasharray="{_DASHES[layer][2]}"' if layer in _DASHES else ""
        yield f'<g id="{layer}" fill="none" stroke="#222" stroke-width="{_WIDTHS[layer]}"{dash}>'
        for line in (each for each in drawing.lines if each.layer == layer):
            (x1, y1), (x2, y2) = place(line.x1, line.y1), place(line.x2, line.y2)
            yield f'<line x1="{x1}" y1="{y1}" x2="{x2}" y2="{y2}"/>'
        for circle in (each for each in drawing.circles if each.layer == layer):
            cx, cy = place(circle.x, circle.y)
            yield f'<circle cx="{cx}" cy="{cy}" r="{circle.diameter / 2:.4f}"/>'
        for text in (each for each in drawing.texts if each.layer == layer):
            x, y = place(text.x, text.y)
            turned = f' transform="rotate({number(-text.turn)} {x} {y})"' if text.turn else ""
            style = (
                'fill="#222" stroke="none" font-family="Barlow, sans-serif" '
                f'font-size="{number(text.high * 1.3)}"'
            )
            yield f'<text x="{x}" y="{y}" {style}{turned}>{escape(say(text.words))}</text>'
        yield "</g>"


def dxf(drawing: Drawing) -> bytes:
    """Return the drawing as a DXF (R2010) in mm, wall coordinates, one layer per line type."""
    from ezdxf import units as dxf_units
    from ezdxf.filemanagement import new

    doc = new("R2010", setup=True)
    doc.units = dxf_units.MM
    for layer in LAYERS:
        doc.layers.add(layer, color=_COLOURS[layer])
    space = doc.modelspace()
    for line in drawing.lines:
        space.add_line((line.x1, line.y1), (line.x2, line.y2), dxfattribs={"layer": line.layer})
    for circle in drawing.circles:
        space.add_circle(
            (circle.x, circle.y), circle.diameter / 2, dxfattribs={"layer": circle.layer}
        )
    for text in drawing.texts:
        attributes = {"layer": text.layer, "insert": (text.x, text.y), "rotation": text.turn}
        space.add_text(wording.one_line(say(text.words)), height=text.high, dxfattribs=attributes)
    out = io.StringIO()
    doc.write(out)
    return out.getvalue().encode()
