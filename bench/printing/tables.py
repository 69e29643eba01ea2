"""The shopping list for a spreadsheet: as plain text (CSV) and as an OpenDocument table (ODS)."""

import csv
import io
import re

from django.utils.translation import gettext as _

from bench.printing.shop_sheet import AISLES
from bench.words import say
from trade.cutting.shopping import Shopping

_HEAD = (
    "aisle",
    "what",
    "needed",
    "unit",
    "pack",
    "packs",
    "spare",
    "each",
    "cost",
    "note",
    "have",
)
_FORMULA = ("=", "+", "-", "@", "\t", "\r")
Row = tuple[str | float, ...]


def rows(buying: Shopping) -> list[Row]:
    """Return the list, row by row, its head first; no word in it can be taken for a formula.

    Names are in the reader's language; heads and units are keys for programs.
    """
    found: list[Row] = [_HEAD]
    for line in buying.lines:
        found.append(
            (
                str(AISLES[line.aisle]),
                _plain(say(line.what)),
                round(line.needed, 2),
                line.unit or "pieces",
                line.pack,
                line.packs,
                round(line.spare, 2),
                round(line.each, 4),
                round(line.cost, 2),
                _plain(say(line.note)),
                line.have,
            )
        )
    return found


def _plain(words: str) -> str:
    return f"'{words}" if words.startswith(_FORMULA) else words


def _sheet_name(name: str) -> str:
    """Return a name that a spreadsheet lets a table have: letters, figures and spaces."""
    return " ".join(re.sub(r"[^\w ]", " ", name).split())[:30] or _("Shopping")


def as_csv(buying: Shopping) -> bytes:
    """Return the list as CSV."""
    out = io.StringIO()
    csv.writer(out, lineterminator="\r\n").writerows(rows(buying))
    return out.getvalue().encode()


def as_ods(buying: Shopping, name: str) -> bytes:
    """Return the list as a spreadsheet with one table, and the sum of all costs below it."""
    from odfdo import Cell, Document, Table
    from odfdo import Row as OdsRow

    doc = Document("spreadsheet")
    doc.body.clear()
    table = Table(_sheet_name(name))
    listed = rows(buying)
    for each in listed:
        row = OdsRow()
        for cell in each:
            row.append_cell(Cell(cell))
        table.append_row(row)
    last = OdsRow()
    for cell in ("", _("in all"), "", "", "", "", "", ""):
        last.append_cell(Cell(cell))
    total = (
        Cell(round(buying.cost, 2), formula=f"of:=SUM([.I2:.I{len(listed)}])")
        if len(listed) > 1
        else Cell(0.0)
    )
    last.append_cell(total)
    table.append_row(last)
    doc.body.append(table)
    out = io.BytesIO()
    doc.save(out)
    return out.getvalue()
