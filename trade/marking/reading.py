"""A place on the wall as it is read off the tape from the datum that somebody chose."""

from typing import NamedTuple

from trade.language import compose
from trade.measure import Units, say_length
from trade.plan.datum import Datum
from trade.plan.model import AnyPiece, Wall


class Reading(NamedTuple):
    """How far to the right of the datum (less: to the left), and how far above it (less.

    Below), mm.
    """

    across_mm: float
    up_mm: float


def zero(datum: Datum, piece: AnyPiece, wall: Wall) -> tuple[float, float]:
    """Where the datum is, from the wall's left corner and the floor."""
    middle = piece.left_mm + piece.length_mm / 2
    across = {"left": 0.0, "right": wall.width_mm, "middle": middle, "stud": datum.stud_mm or 0.0}[
        datum.across
    ]
    return across, datum.line_mm or 0.0


def read(datum: Datum, piece: AnyPiece, wall: Wall, x_mm: float, y_mm: float) -> Reading:
    """Return a place from the datum."""
    across, up = zero(datum, piece, wall)
    return Reading(x_mm - across, y_mm - up)


def say_across(reading: Reading, datum: Datum, units: Units) -> str:
    """How far along, with a side where there are two."""
    said = say_length(abs(reading.across_mm), units)
    if datum.across in ("left", "right") or abs(reading.across_mm) < 0.05:
        return said
    return compose("{far} right" if reading.across_mm > 0 else "{far} left", far=said)


def say_up(reading: Reading, datum: Datum, units: Units) -> str:
    """How far up, or down from a level line."""
    said = say_length(abs(reading.up_mm), units)
    if datum.line_mm is None or abs(reading.up_mm) < 0.05:
        return said
    return compose("{far} up" if reading.up_mm > 0 else "{far} down", far=said)


def say_datum(datum: Datum, units: Units) -> str:
    """Return what is measured from, in words."""
    stud = say_length(datum.stud_mm or 0.0, units)
    across = {
        "left": "From the left corner",
        "right": "From the right corner",
        "middle": "From its own middle",
        "stud": compose("From the centre of the stud at {stud}", stud=stud),
    }[datum.across]
    up = (
        "up from the floor"
        if datum.line_mm is None
        else compose(
            "from a level line {line} above the floor", line=say_length(datum.line_mm, units)
        )
    )
    return compose("{across}, and {up}.", across=across, up=up)
