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


class Row(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A row of any table.

    `source` says where its numbers come from: a clause, "from memory" or "house rule".
    """

    source: str


class House(Row, frozen=True, kw_only=True):
    """One number of ours."""

    value: float
    meaning: str


R = TypeVar("R", bound=Row)


_READING = Lock()  # several threads must not build the same type at once


@cache
def table(name: str, row: type[R]) -> dict[str, R]:
    """The rows of a table by key."""
    text = files(__package__).joinpath(f"{name}.toml").read_text(encoding="utf-8")
    with _READING:
        return msgspec.convert(tomllib.loads(text), dict[str, row])  # type: ignore[valid-type]


@cache
def house_rules() -> dict[str, House]:
    """Every number of ours by key."""
    return table("house", House)


@cache
def house(key: str) -> float:
    """One number of ours."""
    value: float = house_rules()[key].value
    return value
