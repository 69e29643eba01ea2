"""Readings as a table (CSV), in and out: for a spreadsheet, or for what a device has stored.

Columns: `kind`, `at`, `to`, `height`, `said`, `depth`. The places' columns carry their unit in the
head: `at_mm` or `at_in`, all alike; fractions go with inches. All rows are taken or none: what
is wrong is named by the row's number in the file.
"""

import csv
import io
from collections.abc import Iterable, Iterator, Sequence
from contextlib import contextmanager
from typing import Any, NamedTuple

from trade.errors import MeasureError, PlanError
from trade.language import compose, counted
from trade.measure import Units, read_length, type_length
from trade.plan.readings import ByHand, Edge, Knock, MagnetHit, Probe, Reading, Seen, Sweep

MOST_ROWS, MOST_REFUSALS, MAX_BYTES = 2_000, 20, 1_000_000
_PLACES = ("at", "to", "height", "depth")
_SAID = {
    "edge": ("left", "right"),
    "probe": ("wood", "air", "metal", "hard"),
    "knock": ("full", "hollow"),
    "by_hand": ("pinned", "struck"),
    "sweep": ("",),
    "magnet": ("",),
    "seen": ("",),
}
_HEAD = ("kind", "at_mm", "to_mm", "height_mm", "said", "depth_mm")
_FORMULA = ("=", "+", "@", "\t")


class Refusal(NamedTuple):
    """A row that cannot be taken: its number in the file, the head being 1, and why."""

    row: int
    words: str


class RefusedSheetError(PlanError):
    """A table of which nothing was taken. `rows` says why, row by row, the first twenty."""

    def __init__(self, message: str, rows: Sequence[Refusal] = ()) -> None:
        """Keep the sentence and the rows."""
        super().__init__(message, "sheet")
        self.rows = tuple(rows)


def read(raw: bytes, width_mm: float) -> tuple[Reading, ...]:
    """Read a table of readings.

    Raises:
        RefusedSheetError: anything at all is wrong; nothing is taken then.
    """
    with table(raw, "readings") as rows:
        units, columns = _head(next(rows, []))
        return _rows(rows, units, columns, width_mm)


@contextmanager
def table(raw: bytes, noun: str) -> Iterator[Any]:
    """Give the rows of a table in plain text, its cells parted by commas or semicolons.

    Raises:
        RefusedSheetError: too large, no plain text, or a row that is no CSV.
    """
    if len(raw) > MAX_BYTES:
        raise RefusedSheetError(
            compose(
                "This file is larger than {most_rows} {noun} can be ({max_bytes} MB).",
                most_rows=MOST_ROWS,
                noun=noun,
                max_bytes=MAX_BYTES // 1000000,
            )
        )
    try:
        text = raw.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise RefusedSheetError(
            "This is not a table in plain text (UTF-8). Save it as CSV."
        ) from None
    if "\0" in text:
        raise RefusedSheetError("This is not a table in plain text (UTF-8). Save it as CSV.")
    first = text.split("\n", 1)[0]
    rows = csv.reader(
        io.StringIO(text),
        delimiter=";" if first.count(";") > first.count(",") else ",",
        strict=True,
    )
    try:
        yield rows
    except csv.Error as error:
        raise RefusedSheetError(
            compose("Row {row}: this is not CSV ({error}).", row=rows.line_num, error=str(error))
        ) from None


def refuse_formula(name: str, cell: str) -> None:
    """Refuse a cell that a spreadsheet would work out.

    Raises:
        PlanError: with the cell.
    """
    if cell.startswith(_FORMULA) or (cell.startswith("-") and not cell[1:2].isdigit()):
        raise PlanError(
            compose("“{cell}” under {name} is a formula, not a value.", cell=cell[:40], name=name)
        )


def all_or_none(refused: Sequence[Refusal]) -> None:
    """Refuse the whole table when any row was refused.

    Raises:
        RefusedSheetError: with the first rows.
    """
    if refused:
        said = counted(
            len(refused),
            "{n} row can't be read. Nothing was imported.",
            "{n} rows can't be read. Nothing was imported.",
        )
        raise RefusedSheetError(said, refused[:MOST_REFUSALS])


def _head(head: Sequence[str]) -> tuple[Units, dict[str, int]]:
    """Units and columns from the first row."""
    names = [name.strip().lower() for name in head]
    columns, units = {}, set()
    for i, name in enumerate(names):
        plain, _, unit = name.rpartition("_")
        if plain in _PLACES and unit in ("mm", "in"):
            units.add(unit)
            columns[plain] = i
        elif name in ("kind", "said"):
            columns[name] = i
        else:
            raise RefusedSheetError(
                compose(
                    "Row 1: “{name}” is not a known column. The first row must be: {head}; or _in.",
                    name=name[:40],
                    head=", ".join(_HEAD),
                )
            )
    if len(columns) != len(names):
        raise RefusedSheetError("Row 1: a column is given twice.")
    if missing := [name for name in ("kind", "at") if name not in columns]:
        raise RefusedSheetError(
            compose(
                "Row 1: the column is missing: “{name}”.",
                name=missing[0] if missing[0] == "kind" else f"{missing[0]}_mm",
            )
        )
    if len(units) > 1:
        raise RefusedSheetError("Row 1: some columns are in mm and some in inches; use one.")
    return ("metric" if units == {"mm"} else "imperial"), columns


def _rows(
    rows: Iterator[list[str]], units: Units, columns: dict[str, int], width_mm: float
) -> tuple[Reading, ...]:
    taken: list[Reading] = []
    refused: list[Refusal] = []
    for n, row in enumerate(rows, start=2):
        if n - 1 > MOST_ROWS:
            raise RefusedSheetError(
                compose(
                    "There are more than {most_rows} rows. Nothing was imported.",
                    most_rows=MOST_ROWS,
                )
            )
        if not any(cell.strip() for cell in row):
            continue
        try:
            taken.append(_reading(row, units, columns, width_mm))
        except (MeasureError, PlanError) as error:
            refused.append(Refusal(n, str(error)))
    all_or_none(refused)
    if not taken:
        raise RefusedSheetError("This table has no readings.")
    return tuple(taken)


def _reading(row: Sequence[str], units: Units, columns: dict[str, int], width_mm: float) -> Reading:
    cells = {name: row[i].strip() if i < len(row) else "" for name, i in columns.items()}
    for name, cell in cells.items():
        refuse_formula(name, cell)
    kind, said = cells["kind"].lower(), cells.get("said", "").lower()
    if kind not in _SAID:
        raise PlanError(
            compose(
                "“{kind}” is not a kind of reading. Kinds: {said}.",
                kind=kind[:40],
                said=", ".join(_SAID),
            )
        )
    if said not in _SAID[kind]:
        raise PlanError(
            compose(
                "A {kind} says {words}, not “{said}”.",
                kind=kind,
                words=" or ".join(_SAID[kind]) or "nothing",
                said=said[:40],
            )
        )
    if len(row) > len(columns):
        raise PlanError(
            compose(
                "There are {row} cells, and {columns} columns.", row=len(row), columns=len(columns)
            )
        )
    places = {name: read_length(cells[name], units) for name in _PLACES if cells.get(name)}
    if "at" not in places:
        raise PlanError("The place is missing.")
    if outside := next(
        (x for x in (places["at"], places.get("to", 0.0)) if x > width_mm + 0.05), None
    ):
        raise PlanError(
            compose(
                "{outside} is outside the wall, which is {width_mm} wide.",
                outside=type_length(outside, units),
                width_mm=type_length(width_mm, units),
            )
        )
    return _made(kind, said, places)


def _made(kind: str, said: str, places: dict[str, float]) -> Reading:
    at, height = places["at"], places.get("height", 0.0)
    if kind == "sweep":
        if "to" not in places:
            raise PlanError("A sweep needs the place where it ended.")
        ends = sorted((at, places["to"]))
        return Sweep(from_mm=ends[0], to_mm=ends[1], height_mm=height)
    if kind == "edge":
        return Edge(at_mm=at, side="left" if said == "left" else "right", height_mm=height)
    if kind == "probe":
        return Probe(at_mm=at, met=said, depth_mm=places.get("depth"), height_mm=height)  # type: ignore[arg-type]
    if kind == "knock":
        return Knock(at_mm=at, sound="full" if said == "full" else "hollow", height_mm=height)
    if kind == "by_hand":
        return ByHand(at_mm=at, word="pinned" if said == "pinned" else "struck", height_mm=height)
    return (
        MagnetHit(at_mm=at, height_mm=height)
        if kind == "magnet"
        else Seen(at_mm=at, height_mm=height)
    )


def write(readings: Iterable[Reading]) -> bytes:
    """Return a table of readings in millimetres, to a tenth.

    Nothing in it can be taken for a formula.
    """
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\r\n")
    rows.writerow(_HEAD)
    for r in readings:
        at, to = (r.from_mm, _tenth(r.to_mm)) if isinstance(r, Sweep) else (r.at_mm, "")
        said = next(
            (getattr(r, name) for name in ("side", "met", "sound", "word") if hasattr(r, name)), ""
        )
        depth = _tenth(r.depth_mm) if isinstance(r, Probe) and r.depth_mm is not None else ""
        rows.writerow([r.__struct_config__.tag, _tenth(at), to, _tenth(r.height_mm), said, depth])
    return out.getvalue().encode()


def _tenth(mm: float) -> str:
    return f"{mm:.1f}".removesuffix(".0")
