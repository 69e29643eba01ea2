"""Whether a piece goes in through the opening of its place, and how it is turned there.

What is carried is a box: its length, and two sizes across. Three ways are tried, as people do it:
with its long side along the opening, one end raised as far as it must be; end first; and level,
flat or on edge, turned from side to side as it goes. What does not go in whole may go in parts.
"""

from math import cos, hypot, radians, sin
from typing import NamedTuple

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, Placeholders, make
from trade.mounts import mount_of, turning
from trade.plan.facing import Opening
from trade.plan.model import AnyPiece, Plan
from trade.wall.scribing import fitted

_SLACK_MM = data.house("way_in_slack_mm")
_STEPS = 180  # half degrees


class Inside(NamedTuple):
    """The room behind an opening: along the widest wall, out from it, and up."""

    wide_mm: float
    deep_mm: float
    high_mm: float


class Parcel(NamedTuple):
    """What is carried in: its length, and across it the larger and the smaller size."""

    long_mm: float
    broad_mm: float
    thick_mm: float

    @classmethod
    def of(cls, *sizes_mm: float) -> "Parcel":
        """Sort three sizes."""
        return cls(*sorted(sizes_mm, reverse=True))


class Way(NamedTuple):
    """A way in: one end raised by so many degrees, turned level by so many, or end first (None)."""

    raised_deg: float | None
    turned_deg: float | None = None


def way_in(parcel: Parcel, opening: Opening, inside: Inside) -> Way | None:
    """Return how something goes in and lies along the widest wall; None if no such way is known."""
    long, broad, thick = parcel
    if long > inside.wide_mm + _SLACK_MM:
        return None
    if broad <= inside.deep_mm:
        for step in range(_STEPS + 1):
            turn = radians(step / 2)
            across = long * cos(turn) + thick * sin(turn)
            up = long * sin(turn) + thick * cos(turn)
            if across <= opening.width_mm and up <= min(opening.height_mm, inside.high_mm):
                return Way(step / 2)
    small, large = sorted((opening.width_mm, opening.height_mm))
    if thick <= small and broad <= large and hypot(long, thick) <= inside.deep_mm:
        return Way(None)
    return _turned(parcel, opening, inside)


def _turned(parcel: Parcel, opening: Opening, inside: Inside) -> Way | None:
    """Return how something goes in level, turned as it goes: on edge if it can, else flat.

    What goes in on edge is laid flat inside.
    """
    long, broad, thick = parcel
    floor = turning.Floor(inside.wide_mm, inside.deep_mm, min(opening.width_mm, inside.wide_mm))
    for across, up in ((thick, broad), (broad, thick)):
        low = up <= min(opening.height_mm, inside.high_mm) and broad <= inside.deep_mm
        if low and (row := turning.way(floor, long, across)):
            return Way(None, turning.steepest_deg(row))
    return None


def _in_parts(piece: AnyPiece, plan: Plan, opening: Opening, inside: Inside) -> bool:
    """Whether all that it is put together from goes in, each by itself."""
    parts = mount_of(piece).carried(piece, plan.wall)
    return bool(parts) and all(way_in(Parcel.of(*each), opening, inside) for each in parts)


def check(piece: AnyPiece, plan: Plan) -> Check | None:
    """Return whether a piece goes in; None where it hangs, or nobody told the way in."""
    opening = plan.opening
    if opening is None or plan.as_built.hangs(piece.key):
        return None
    walls = [plan.wall, *(each.wall for each in (*plan.before, *plan.after))]
    inside = Inside(
        max(wall.width_mm for wall in walls),
        opening.away_mm,
        min(wall.height_mm for wall in walls),
    )
    box = Parcel.of(*mount_of(piece).parcel(fitted(piece, plan.wall)))
    way = way_in(box, opening, inside)
    sums = Calculation()
    sums.given("L", box.long_mm, "length", "its length")
    sums.given("t", box.thick_mm, "length", "its thickness")
    if way is None and _in_parts(piece, plan, opening, inside):
        said = (
            "In one piece, {demand} long, it does not go in; its parts do, each by itself: put it "
            "together inside."
        )
        return _fits("L", max(inside.wide_mm, box.long_mm), said, sums, {})
    if way is None:
        return make(
            "piece.way_in",
            part="piece",
            case="any",
            demand=sums.quantity("L"),
            capacity=Quantity(min(opening.width_mm, box.long_mm - _SLACK_MM), "length"),
            template="It is {demand} long, and no simple way in was found: level, one end raised, "
            "or end first. Cut a lath as long and try, or build it inside.",
            equations=sums.equations,
        )
    if way.turned_deg is not None:
        said = (
            "It goes in level, one end first, turned by up to {deg}° as it goes: {demand} long, "
            "and it lies along {capacity} inside."
        )
        parts: Placeholders = {"deg": f"{way.turned_deg:.0f}"}
        return _fits("L", max(inside.wide_mm, box.long_mm), said, sums, parts)
    if way.raised_deg is None:
        sums.then("d", "√(L² + t²)", "length", "it needs to turn inside")
        said = "It goes in end first, and needs {demand} to turn; there is {capacity}."
        return _fits("d", inside.deep_mm, said, sums, {})
    turn = radians(way.raised_deg)
    sums.given("c", cos(turn), "ratio", "cosine of how far one end is raised")
    sums.given("s", sin(turn), "ratio", "its sine")
    sums.then("b", "L c + t s", "length", "across the opening then")
    said = (
        "It goes in level: {demand} across, {capacity} is open."
        if not way.raised_deg
        else "It goes in with one end raised by {deg}°: {demand} across, {capacity} is open."
    )
    return _fits("b", opening.width_mm, said, sums, {"deg": f"{way.raised_deg:.0f}"})


def _fits(symbol: str, room_mm: float, said: str, sums: Calculation, parts: Placeholders) -> Check:
    return make(
        "piece.way_in",
        part="piece",
        case="any",
        demand=sums.quantity(symbol),
        capacity=Quantity(room_mm, "length"),
        template=said,
        parts=parts,
        equations=sums.equations,
    )
