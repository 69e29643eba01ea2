"""Thirty everyday wishes on six walls in both systems: the first way to hang each."""

import csv
from collections.abc import Iterator
from pathlib import Path
from typing import NamedTuple

from tests.failing import WALLS
from trade.choose.options import find_options
from trade.choose.request import wish_for
from trade.choose.search import Option
from trade.measure import Units, say_length
from trade.plan.model import Plan

TABLE = Path(__file__).with_name("wishes.csv")
UNITS: tuple[Units, ...] = ("imperial", "metric")
_AT_MM, _TOP_MM = 1600.0, 1500.0

WISHES: dict[str, tuple[str, float | None, str]] = {
    # what it is called here: a row of the lists, how much of it, kinds that a tradesman would take
    "a metre of books": ("books", 1000.0, "bracket_shelf"),
    "paperbacks": ("paperbacks", 800.0, "bracket_shelf"),
    "magazines": ("magazines", 600.0, "bracket_shelf"),
    "records": ("records", 500.0, "bracket_shelf box_shelf"),
    "picture books": ("picture_books", 900.0, "bracket_shelf"),
    "three plants": ("plant_medium", 3.0, "bracket_shelf"),
    "a large plant": ("plant_large", 1.0, "bracket_shelf box_shelf"),
    "six coats": ("coats", 6.0, "rail holder_board"),
    "drills": ("drill", 3.0, "bracket_shelf"),
    "hand tools": ("hand_tools", 600.0, "rail holder_board"),
    "a bicycle": ("bicycle", 1.0, "rail holder_board panel"),
    "two bicycles": ("bicycle", 2.0, "rail holder_board panel"),
    "two oars": ("oar", 2.0, "rail holder_board"),
    "six life jackets": ("life_jacket", 6.0, "rail holder_board"),
    "a ladder": ("ladder", 1.0, "rail holder_board"),
    "a garden hose": ("hose", 1.0, "rail holder_board"),
    "shovels": ("shovels", 3.0, "rail holder_board"),
    "mugs": ("mugs", 8.0, "bracket_shelf"),
    "plates": ("plates", 24.0, "bracket_shelf"),
    "pots": ("pots", 6.0, "bracket_shelf"),
    "jars": ("jars", 10.0, "bracket_shelf"),
    "towels": ("towels", 6.0, "bracket_shelf"),
    "shoes": ("shoes", 6.0, "bracket_shelf"),
    "a printer": ("printer", 1.0, "bracket_shelf"),
    "a microwave": ("microwave", 1.0, "bracket_shelf"),
    "gallons of paint": ("paint_gallon", 4.0, "bracket_shelf"),
    "a cabinet": ("cabinet", 27.0, "cleat_cabinet"),
    "a bookcase": ("bookcase", 60.0, "bookcase"),
    "a shelf": ("shelf", 20.0, "bracket_shelf"),
    "hooks": ("hooks", 10.0, "rail holder_board"),
}


class Row(NamedTuple):
    """One line of the table."""

    wish: str
    wall: str
    units: str
    kind: str
    outcome: str
    length: str
    held: str


def asked(wish: str, wall: str, units: Units) -> tuple[Row, Option | None, Plan]:
    """Return the line of a wish as it is today, the way itself and the plan."""
    plan = Plan(name="Wall", units=units, wall=WALLS[wall])
    what, amount, _ = WISHES[wish]
    options = find_options(plan, wish_for(plan, what, amount, _AT_MM, _TOP_MM))
    if options.best is None:
        return Row(wish, wall, units, "", "", "", ""), None, plan
    best = options.best
    piece = best.piece
    held = f"{len(piece.supports_mm)} × {piece.anchor or piece.screw}"
    length = say_length(piece.length_mm, units)
    return Row(wish, wall, units, best.kind, best.outcome, length, held), best, plan


def kept() -> list[Row]:
    """Return the table as it is kept."""
    with TABLE.open(newline="", encoding="utf-8") as file:
        return [Row(*line) for line in csv.reader(file)]


def every() -> Iterator[tuple[str, str, Units]]:
    """Yield each wish on each wall in each system."""
    yield from ((wish, wall, units) for wish in WISHES for wall in WALLS for units in UNITS)
