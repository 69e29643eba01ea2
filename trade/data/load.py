"""How tables are read.

One TOML file each, a source on every row; and the numbers that are ours, which rows themselves
need.
"""

import tomllib
from functools import cache
from importlib.resources import files
from threading import Lock
from typing import TypeVar

import msgspec

from trade.language import sized


class Row(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A row of any table.

    `source` says where its numbers come from: a clause, "from memory" or "house rule".
    """

    source: str


class House(Row, frozen=True, kw_only=True):
    """One number of ours: its value in `unit` (nothing: a plain number), and what it says."""

    value: float
    meaning: str
    unit: str = ""


R = TypeVar("R", bound=Row)


_READING = Lock()  # several threads must not build the same type at once


@cache
def table(name: str, row: type[R]) -> dict[str, R]:
    """Return the rows of a table by key."""
    text = files(__package__).joinpath(f"{name}.toml").read_text(encoding="utf-8")
    with _READING:
        rows: dict[str, R] = msgspec.convert(tomllib.loads(text), dict[str, row])  # type: ignore[valid-type]
    return {key: _named(each) for key, each in rows.items()}


def _named(row: R) -> R:
    """Return a row whose name says each size in both systems."""
    name = getattr(row, "name", "")
    return row if sized(name) is name else msgspec.structs.replace(row, name=sized(name))


HOUSE: dict[str, str] = {
    "strength": "Strength",
    "service": "Sag, droop, wobble",
    "load": "Loads",
    "fixings": "Screws and anchors",
    "shapes": "How parts are made",
    "hanging": "Hanging, proof, care",
    "choice": "Options and advice",
    "wall": "What is in the wall",
    "workshop": "Workshop",
    "time": "Time and money",
}
"""What the numbers of ours are about: files in `house/`, and their headings."""


@cache
def house_rules(about: str) -> dict[str, House]:
    """Return the numbers of ours on one subject by key."""
    return table(f"house/{about}", House)


@cache
def _house() -> dict[str, House]:
    return {key: row for about in HOUSE for key, row in house_rules(about).items()}


@cache
def house(key: str) -> float:
    """One number of ours."""
    value: float = _house()[key].value
    return value
