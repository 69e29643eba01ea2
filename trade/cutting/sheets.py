"""Sheets cut by a saw that only cuts from edge to edge.

A guillotine plan with kerf, trim and grain; how little it could cost.

Each sheet is trimmed, then cut again and again in two, each cut right across what it cuts: a table
saw or a track saw can do it in the order given. Sheets that are at hand are used up first, round
their defects. Many orders and rules are tried; the cheapest plan, then that with the largest piece
left, is kept. Cuts that need the same setting follow one another where they may.
"""

from collections.abc import Sequence
from itertools import product
from math import ceil, inf
from random import Random
from typing import NamedTuple

from trade.cutting.bounds import fewest
from trade.cutting.guillotine import (
    Blank,
    Cut,
    Item,
    Offcut,
    ReadingIndex,
    Rect,
    SheetCuts,
    Shop,
    room_of,
    same_setting,
    ways_of,
)
from trade.errors import PlanError
from trade.language import Figure, compose

__all__ = [
    "Blank",
    "Cut",
    "Item",
    "Offcut",
    "ReadingIndex",
    "Rect",
    "SheetCuts",
    "SheetPlan",
    "cut_sheets",
]

_MOST_PARTS = 500


class SheetPlan(NamedTuple):
    """All sheets; `cost` of those that are bought, and `bound`: by area no plan costs less."""

    sheets: tuple[SheetCuts, ...]
    cost: float
    bound: float

    @property
    def proven(self) -> bool:
        """Whether no plan costs less."""
        return self.cost <= self.bound + 1e-6


def cut_sheets(
    parts: Sequence[Item], blanks: Sequence[Blank], kerf_mm: float = 3.2, trim_mm: float = 5.0
) -> SheetPlan:
    """Return a guillotine plan for some parts.

    Args:
        parts: to cut, each with its own label.
        blanks: sheets as sold, and those at hand.
        kerf_mm: what every cut takes.
        trim_mm: what is cut off each edge first.

    Raises:
        PlanError: a part is larger than every sheet, there are too few sheets, or nonsense in
          numbers.
    """
    _refuse(parts, blanks, kerf_mm, trim_mm)
    if not parts:
        return SheetPlan((), 0.0, 0.0)
    bound = _bound(parts, blanks, kerf_mm, trim_mm)
    best = _tried(parts, blanks, kerf_mm, trim_mm, bound)
    if best is None:
        raise PlanError("There are not enough sheets for all the parts.", "stock")
    cost = _cost(best, blanks)
    return SheetPlan(
        tuple(sheet._replace(cuts=_ordered(sheet.cuts)) for sheet in best), cost, min(bound, cost)
    )


def _cost(sheets: Sequence[SheetCuts], blanks: Sequence[Blank]) -> float:
    return sum(blanks[sheet.blank].price for sheet in sheets)


def _tried(
    parts: Sequence[Item], blanks: Sequence[Blank], kerf: float, trim: float, bound: float
) -> list[SheetCuts] | None:
    """Return the best of many orders and rules.

    The cheapest, then that with the largest piece left; None where it does not all fit.
    """
    best: list[SheetCuts] | None = None
    found = (inf, 0.0)
    endless = [n for n, blank in enumerate(blanks) if blank.many is None] or [-1]
    orders = {
        tuple(part.label for part in ranked): ranked
        for order in _ORDERS
        for ranked in (sorted(parts, key=order, reverse=True),)
    }
    ways = list(product(endless, orders.values(), _FITS, _SPLITS))
    for main, ranked, fit, split in ways[:: max(len(parts) // _MANY, 1)]:
        shop = Shop(blanks, main, kerf, trim, fit, split)
        tried = shop.pack(ranked)
        if tried is None:
            continue
        tried = [shop.smaller(sheet, parts) for sheet in tried] if len(endless) > 1 else tried
        merit = (_cost(tried, blanks), -_largest(tried))
        if best is None or merit < found:
            best, found = tried, merit
        if len(parts) > _MANY and found[0] <= bound + 1e-6:
            break  # nothing is cheaper; of many parts the largest piece left over is not looked for
    if found[0] > bound + 1e-6:
        tried = _one_by_one(parts, blanks, kerf, trim)
        if tried is not None and (_cost(tried, blanks), -_largest(tried)) < found:
            return tried
    return best


def _one_by_one(
    parts: Sequence[Item], blanks: Sequence[Blank], kerf: float, trim: float
) -> list[SheetCuts] | None:
    """Fill each sheet in turn, sheets at hand first, by the best of several orders and rules."""
    few = sorted(
        (n for n, blank in enumerate(blanks) if blank.many is not None),
        key=lambda n: min(room_of(blanks[n], trim)),
    )
    endless = [n for n, blank in enumerate(blanks) if blank.many is None]
    main = min(
        endless,
        key=lambda n: blanks[n].price / (blanks[n].along_mm * blanks[n].across_mm),
        default=None,
    )
    queue = [n for n in few for _ in range(min(blanks[n].many or 0, len(parts)))]
    dice = Random(1)
    ways = list(product(_ORDERS, _FITS, _SPLITS))[:: max(len(parts) // _MANY, 1)]
    left, done = list(parts), list[SheetCuts]()
    while left:
        n = queue.pop(0) if queue else main
        if n is None:
            return None
        best: tuple[float, SheetCuts] | None = None
        for order, fit, split in ways:
            ranked = sorted(left, key=order, reverse=True)
            place = {
                part.label: k + dice.uniform(0, _SHAKEN * len(ranked))
                for k, part in enumerate(ranked)
            }
            for tried in (ranked, sorted(ranked, key=lambda part: place[part.label])):
                sheet = Shop(blanks, n, kerf, trim, fit, split).fill(tried)
                merit = sum((each.wide_mm * each.high_mm) ** _LARGE_FIRST for each in sheet.placed)
                if best is None or merit > best[0]:
                    best = (merit, sheet)
        if best is None or not best[1].placed:
            if blanks[n].many is None:
                return None  # what is left fits on no such sheet
            continue
        taken = {each.label for each in best[1].placed}
        left = [part for part in left if part.label not in taken]
        done.append(best[1])
    every = Shop(blanks, -1, kerf, trim, _FITS[0], _SPLITS[0])
    return [every.smaller(sheet, parts) for sheet in done] if len(endless) > 1 else done


def _refuse(parts: Sequence[Item], blanks: Sequence[Blank], kerf: float, trim: float) -> None:
    if not 0 <= kerf <= 20 or not 0 <= trim <= 200:
        raise PlanError("The saw kerf must be 0 to 20 mm and the trim 0 to 200 mm.", "kerf_mm")
    if len(parts) > _MOST_PARTS:
        raise PlanError(
            compose("More than {most_parts} parts at once.", most_parts=_MOST_PARTS), "parts"
        )
    if not blanks or any(min(room_of(blank, trim)) <= 0 for blank in blanks):
        raise PlanError("There is no sheet to cut from.", "stock")
    if any(blank.price < 0 for blank in blanks):
        raise PlanError("A price can't be negative.", "price")
    for part in parts:
        if min(part.along_mm, part.across_mm) <= 0:
            raise PlanError(compose("“{label}” must have a size.", label=part.label), "parts")
        if not any(True for blank in blanks for _ in ways_of(part, room_of(blank, trim))):
            size = compose(
                "{along} × {across} mm",
                along=Figure(f"{part.along_mm:.0f}"),
                across=Figure(f"{part.across_mm:.0f}"),
            )
            room = max(room_of(blank, trim) for blank in blanks)
            said = compose(
                "“{label}”, {size}, is larger than a sheet, {wide} × {high} mm.",
                label=part.label,
                size=size,
                wide=Figure(f"{room[0]:.0f}"),
                high=Figure(f"{room[1]:.0f}"),
            )
            raise PlanError(said, "parts")


def _bound(parts: Sequence[Item], blanks: Sequence[Blank], kerf: float, trim: float) -> float:
    """How little it can cost.

    Sheets enough for the area, each part with its kerfs, and as many as large parts need.
    """
    area = sum((part.along_mm + kerf) * (part.across_mm + kerf) for part in parts)
    widest, highest = (
        max(room_of(blank, trim)[axis] for blank in blanks) + kerf for axis in (0, 1)
    )
    large = fewest(
        [(part.along_mm + kerf, part.across_mm + kerf, part.turns) for part in parts],
        (widest, highest),
    )
    sizes = [
        ((room[0] + kerf) * (room[1] + kerf), blank)
        for blank in blanks
        for room in (room_of(blank, trim),)
    ]
    area -= sum(size * blank.many for size, blank in sizes if blank.many is not None)
    count = large - sum(blank.many for blank in blanks if blank.many is not None)
    sold = [(size, blank.price) for size, blank in sizes if blank.many is None]
    return max(_cheapest(area, max(count, 0), sold), _dearest(parts, blanks, trim)) if sold else 0.0


def _dearest(parts: Sequence[Item], blanks: Sequence[Blank], trim: float) -> float:
    """Return the cheapest sheet that the most demanding part fits on.

    Nothing where it may be one that is at hand.
    """
    return max(
        min(
            (blank.price if blank.many is None else 0.0)
            for blank in blanks
            if any(True for _ in ways_of(part, room_of(blank, trim)))
        )
        for part in parts
    )


def _cheapest(area: float, count: int, sold: list[tuple[float, float]]) -> float:
    """Return the least that so many sheets, with so much area together, cost.

    One size after the other, the last takes the rest.
    """
    (size, price), rest = sold[0], sold[1:]
    most = max(ceil(area / size - 1e-9), count, 0)
    if not rest:
        return most * price
    return min(
        many * price + _cheapest(area - many * size, count - many, rest) for many in range(most + 1)
    )


_MANY = 60  # parts
_SHAKEN = 0.3
_LARGE_FIRST = 1.25
_ORDERS = (
    lambda part: part.along_mm * part.across_mm,
    lambda part: max(part.along_mm, part.across_mm),
    lambda part: (part.across_mm, part.along_mm),
    lambda part: (part.along_mm, part.across_mm),
)
_FITS = (
    lambda free, wide, high: free.wide * free.high - wide * high,
    lambda free, wide, high: min(free.wide - wide, free.high - high),
    lambda free, wide, high: max(free.wide - wide, free.high - high),
)
_SPLITS = (
    lambda free, wide, high: free.wide - wide > free.high - high,
    lambda free, wide, high: free.wide > free.high,
    lambda free, wide, high: True,
    lambda free, wide, high: False,
)


def _largest(sheets: list[SheetCuts]) -> float:
    """Return the largest piece left over."""
    return max(
        (offcut.wide_mm * offcut.high_mm for sheet in sheets for offcut in sheet.offcuts),
        default=0.0,
    )


def _ordered(cuts: tuple[Cut, ...]) -> tuple[Cut, ...]:
    """Return each cut after the one it needs, and next to those with the same saw setting."""
    left, found, number = list(range(len(cuts))), list[int](), dict[int, int]()
    while left:
        ready = [n for n in left if cuts[n].after is None or cuts[n].after in number]
        last = cuts[found[-1]] if found else None
        best = min(
            ready,
            key=lambda n: (
                last is None or not same_setting(last, cuts[n]),
                last is None or last.way != cuts[n].way,
                n,
            ),
        )
        number[best] = len(found)
        found.append(best)
        left.remove(best)
    return tuple(
        cuts[n]._replace(after=None if (a := cuts[n].after) is None else number[a]) for n in found
    )
