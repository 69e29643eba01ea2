"""Parts that come from elsewhere: a table (CSV) or the rectangles of a drawing (DXF).

All of it is taken, or nothing.

A table's columns: `name`, `board`, `length`, `width`, `thickness`, and, if wished, `many` and
`turns`. Lengths are read as typed anywhere: bare numbers in the wall's units. A board is named as
the boards table names it, or by its key.
"""

import io
from collections import Counter
from collections.abc import Iterator, Sequence
from typing import Any, NamedTuple

from trade import data
from trade.errors import MeasureError, PlanError
from trade.language import compose, joined
from trade.measure import IN_MM, Units, read_length
from trade.parse.spreadsheet import (
    MAX_BYTES,
    Refusal,
    RefusedSheetError,
    all_or_none,
    refuse_formula,
    table,
)
from trade.plan.shop import OwnPart

MOST_ROWS = 200
_NEEDED = ("name", "board", "length", "width", "thickness")
_MAY = ("many", "turns")
_YES, _NO = ("yes", "y", "1", "true", "x"), ("", "no", "n", "0", "false")
_SQUARE = 1e-3  # of a side: so far from a right angle a corner may be
_MM = {
    1: IN_MM,
    2: 304.8,
    4: 1.0,
    5: 10.0,
    6: 1000.0,
}  # DXF $INSUNITS: inches, feet, millimetres, centimetres, metres


class Drawn(NamedTuple):
    """Rectangles out of a drawing as parts, and how many other shapes were left out."""

    parts: tuple[OwnPart, ...]
    others: int


def read_table(raw: bytes, units: Units) -> tuple[OwnPart, ...]:
    """Read a table of parts.

    Raises:
        RefusedSheetError: anything at all is wrong; nothing is taken then.
    """
    with table(raw, "parts") as rows:
        return _rows(rows, _columns(next(rows, [])), units)


def _columns(head: Sequence[str]) -> dict[str, int]:
    names = [name.strip().lower() for name in head]
    for name in names:
        if name not in (*_NEEDED, *_MAY):
            raise RefusedSheetError(
                compose(
                    "Row 1: “{name}” is not a known column. The first row must be: {needed}.",
                    name=name[:40],
                    needed=", ".join(_NEEDED),
                )
            )
    if len(set(names)) != len(names):
        raise RefusedSheetError("Row 1: a column is given twice.")
    if missing := [name for name in _NEEDED if name not in names]:
        raise RefusedSheetError(
            compose("Row 1: the column is missing: “{missing}”.", missing=missing[0])
        )
    return {name: i for i, name in enumerate(names)}


def _rows(rows: Iterator[list[str]], columns: dict[str, int], units: Units) -> tuple[OwnPart, ...]:
    taken: list[OwnPart] = []
    refused: list[Refusal] = []
    for n, row in enumerate(rows, start=2):
        if n - 1 > MOST_ROWS:
            raise RefusedSheetError(
                compose(
                    "There are more than {most_rows} rows. Nothing was imported.",
                    most_rows=MOST_ROWS,
                )
            )
        if any(cell.strip() for cell in row):
            try:
                taken.append(_part(row, columns, units))
            except (MeasureError, PlanError) as error:
                refused.append(Refusal(n, str(error)))
    all_or_none(refused)
    if not taken:
        raise RefusedSheetError("This table has no parts.")
    return tuple(taken)


def _part(row: Sequence[str], columns: dict[str, int], units: Units) -> OwnPart:
    cells = {name: row[i].strip() if i < len(row) else "" for name, i in columns.items()}
    for name, cell in cells.items():
        refuse_formula(name, cell)
    if empty := next((name for name in _NEEDED if not cells[name]), None):
        raise PlanError(compose("The column {empty} is empty.", empty=empty))
    many, turns = cells.get("many") or "1", cells.get("turns", "").lower()
    if not many.isascii() or not many.isdigit():
        raise PlanError(compose("“{many}” under many is not a whole number.", many=many[:40]))
    if turns not in (*_YES, *_NO):
        raise PlanError(compose("“{turns}” under turns must be yes or no.", turns=turns[:40]))
    return OwnPart(
        name=cells["name"][:80],
        board=board_of(cells["board"]),
        length_mm=read_length(cells["length"], units),
        width_mm=read_length(cells["width"], units),
        thickness_mm=read_length(cells["thickness"], units),
        many=int(many),
        turns=turns in _YES,
    )


def board_of(said: str) -> str:
    """Return the row of the boards table that somebody named.

    Raises:
        PlanError: there is none; with those there are.
    """
    wanted = said.strip().lower()
    for key, row in data.boards().items():
        if wanted in (key, row.name.lower()):
            return key
    raise PlanError(
        compose(
            "“{said}” is not a known board. Boards: {boards}.",
            said=said[:40],
            boards=joined(row.name for row in data.boards().values()),
        )
    )


def read_dxf(raw: bytes, board: str, thickness_mm: float, units: Units) -> Drawn:
    """Read the closed rectangles of a drawing as parts, alike ones together.

    The longer side along the grain.

    Args:
        raw: the file.
        board: what they are of.
        thickness_mm: of that.
        units: what its numbers are where the drawing does not say.

    Raises:
        RefusedSheetError: it is no drawing, or there is no rectangle in it.
    """
    if len(raw) > MAX_BYTES:
        raise RefusedSheetError(
            compose(
                "This file is larger than a drawing of parts can be ({max_bytes} MB).",
                max_bytes=MAX_BYTES // 1000000,
            )
        )
    doc = _drawing(raw)
    scale = _MM.get(doc.units, IN_MM if units == "imperial" else 1.0)
    sizes: Counter[tuple[float, float]] = Counter()
    others = 0
    for entity in doc.modelspace():
        size = _rectangle(entity)
        if size is None:
            others += entity.dxftype() not in ("TEXT", "MTEXT", "POINT")
        else:
            sizes[(round(size[0] * scale, 2), round(size[1] * scale, 2))] += 1
    if not sizes:
        raise RefusedSheetError("This drawing has no closed rectangle. Nothing was imported.")
    if len(sizes) > MOST_ROWS:
        raise RefusedSheetError(
            compose(
                "There are more than {most_rows} sizes of rectangle. Nothing was imported.",
                most_rows=MOST_ROWS,
            )
        )
    try:
        parts = tuple(
            OwnPart(
                name=str(compose("part {n} of the drawing", n=n)),
                board=board,
                length_mm=long,
                width_mm=wide,
                thickness_mm=thickness_mm,
                many=many,
            )
            for n, ((long, wide), many) in enumerate(sorted(sizes.items(), reverse=True), start=1)
        )
    except PlanError as error:
        raise RefusedSheetError(
            compose("{error} Nothing was imported.", error=error.said)
        ) from None
    return Drawn(parts, others)


def _drawing(raw: bytes) -> Any:
    from ezdxf.filemanagement import read
    from ezdxf.lldxf.const import DXFError

    no_drawing = "This is not a DXF drawing, or it was cut short. Save it as a DXF in plain text."
    try:
        text = raw.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise RefusedSheetError(no_drawing) from None
    if "SECTION" not in text[:2000] or "EOF" not in text[-200:]:
        raise RefusedSheetError(no_drawing)
    try:
        return read(io.StringIO(text))
    except (
        DXFError,
        ValueError,
        KeyError,
        IndexError,
        TypeError,
        AttributeError,
    ):  # the reader meets what it did not expect
        raise RefusedSheetError(no_drawing) from None


def _rectangle(entity: Any) -> tuple[float, float] | None:
    """Return the sides of a closed polyline of four square corners, the longer first.

    None for any other shape.
    """
    kind = entity.dxftype()
    if kind == "LWPOLYLINE":
        points = [(x, y) for x, y, *_ in entity.get_points()]
        bulged = any(abs(point[4]) > 1e-9 for point in entity.get_points())
    elif kind == "POLYLINE" and not entity.is_3d_polyline:
        points = [(v.dxf.location.x, v.dxf.location.y) for v in entity.vertices]
        bulged = any(abs(v.dxf.bulge) > 1e-9 for v in entity.vertices)
    else:
        return None
    closed = entity.is_closed if kind == "POLYLINE" else entity.closed
    if len(points) == 5 and points[0] == points[-1]:
        points, closed = points[:4], True
    if len(points) != 4 or not closed or bulged:
        return None
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = points
    one, two = (bx - ax, by - ay), (cx - bx, cy - by)
    long, wide = sorted((abs(complex(*one)), abs(complex(*two))), reverse=True)
    square = abs(one[0] * two[0] + one[1] * two[1]) <= _SQUARE * long * wide
    shut = abs(complex(ax + cx - bx - dx, ay + cy - by - dy)) <= _SQUARE * long
    return (long, wide) if wide > 0 and square and shut else None
