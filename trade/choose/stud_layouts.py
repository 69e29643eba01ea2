"""Where along the wall a piece could go.

The best length and place between limits so that its supports fall on studs.
"""

from collections.abc import Iterable
from itertools import combinations, pairwise
from math import ceil, inf
from typing import NamedTuple

from trade import data
from trade.plan.model import Wall
from trade.wall.zones import distance_mm

WIDEST_GAP_MM = data.house("widest_gap_mm")
SHORTEST_OVERHANG_MM = data.house("shortest_overhang_mm")
_LONGEST_OVERHANG = data.house("overhang_share")
_EVEN_OVERHANG = data.house("even_overhang_share")
_MOST = 3


class Limits(NamedTuple):
    """How far a piece's middle may move, and how much longer or shorter it may become, mm.

    `whole_mm`: then it is so many of these long, as somebody would measure it.
    """

    shift_mm: float = 0.0
    grow_mm: float = 0.0
    whole_mm: float = 1.0


class StudLayout(NamedTuple):
    """A place along the wall.

    `supports_mm` from its left end; `moved_mm`, `grown_mm`, `raised_mm`: against what was wished.
    """

    left_mm: float
    length_mm: float
    supports_mm: tuple[float, ...]
    moved_mm: float = 0.0
    grown_mm: float = 0.0
    raised_mm: float = 0.0

    @property
    def trouble_mm(self) -> float:
        """How far it is from what was wished."""
        return abs(self.moved_mm) + abs(self.grown_mm) + abs(self.raised_mm)


Blocked = list[tuple[float, float]]


def clear_studs(wall: Wall, bottom_mm: float, top_mm: float) -> list[float]:
    """Return the middles of studs free of boxes, pipes and ducts between two heights, mm."""
    near = [f for f in wall.features if f.row.keep == "service"]
    return sorted(
        stud.centre_mm
        for stud in wall.uprights
        if all(
            distance_mm(f, stud.centre_mm, min(max(f.bottom_mm, bottom_mm), top_mm))
            >= f.row.margin_mm
            for f in near
        )
    )


def on_studs(
    wall: Wall,
    middle_mm: float,
    length_mm: float,
    limits: Limits,
    studs: list[float],
    blocked: Blocked,
    every: bool = False,
) -> list[StudLayout]:
    """Return the nearest places where two studs or more carry it with sane overhangs.

    Args:
        wall: it hangs on.
        middle_mm: where its middle was wished.
        length_mm: how long it was wished.
        limits: how far it may be moved and grow.
        studs: middles of the studs that may be used, from the left.
        blocked: stretches of the wall that are taken at its height, from left to right.
        every: it is screwed to every stud that it crosses.
    """
    found: dict[tuple[float, ...], StudLayout] = {}
    for first, last in combinations(studs, 2):
        needed = last - first + 2 * SHORTEST_OVERHANG_MM
        least = max(length_mm - limits.grow_mm, needed)
        least = ceil(least / limits.whole_mm - 1e-6) * limits.whole_mm
        if needed <= length_mm:
            least = min(least, length_mm)  # as it was wished it need not be round
        most = min(length_mm + limits.grow_mm, wall.width_mm)
        if least > most:
            continue
        carrying = spread([stud for stud in studs if first <= stud <= last], every)
        for length in {min(max(length_mm, least), most), least}:
            from_mm = max(
                last + SHORTEST_OVERHANG_MM - length, first - length * _LONGEST_OVERHANG, 0.0
            )
            to_mm = min(
                first - SHORTEST_OVERHANG_MM,
                last - length * (1 - _LONGEST_OVERHANG),
                wall.width_mm - length,
            )
            for left in _free(middle_mm - length / 2, length, (from_mm, to_mm), blocked):
                moved = left + length / 2 - middle_mm
                layout = StudLayout(
                    left, length, tuple(stud - left for stud in carrying), moved, length - length_mm
                )
                better = carrying not in found or layout.trouble_mm < found[carrying].trouble_mm
                if better and abs(moved) <= limits.shift_mm + 1e-6:
                    found[carrying] = layout
    return sorted(found.values(), key=lambda layout: (layout.trouble_mm, len(layout.supports_mm)))[
        :_MOST
    ]


def anywhere(
    wall: Wall,
    middle_mm: float,
    length_mm: float,
    limits: Limits,
    blocked: Blocked,
    studs: Iterable[float] = (),
) -> list[StudLayout]:
    """Return the places nearest to what was wished for a piece that needs no stud.

    Supports evenly, and on what studs there are.
    """
    return in_wood(wall, middle_mm, length_mm, limits, [(-inf, inf)], blocked, studs)


def in_wood(
    wall: Wall,
    middle_mm: float,
    length_mm: float,
    limits: Limits,
    wood: Iterable[tuple[float, float]],
    blocked: Blocked,
    studs: Iterable[float] = (),
) -> list[StudLayout]:
    """Return the places nearest to what was wished with all supports in one stretch of wood."""
    length = min(length_mm, wall.width_mm)
    over, apart = length * _EVEN_OVERHANG, length * (1 - 2 * _EVEN_OVERHANG)
    found = []
    for start, end in wood:
        window = (max(start - over, 0.0), min(end - over - apart, wall.width_mm - length))
        for left in _free(middle_mm - length / 2, length, window, blocked):
            moved = left + length / 2 - middle_mm
            if abs(moved) > limits.shift_mm + 1e-6:
                continue
            count = max(2, int(apart / WIDEST_GAP_MM) + 1)
            for many in (count, count + 1, 2 * count + 1):
                even = [over + apart * n / (many - 1) for n in range(many)]
                found.append(
                    StudLayout(
                        left,
                        length,
                        _caught(even, [stud - left for stud in studs]),
                        moved,
                        length - length_mm,
                    )
                )
    return sorted(found, key=lambda layout: (layout.trouble_mm, len(layout.supports_mm)))[:_MOST]


def spread(studs: list[float], every: bool = False) -> tuple[float, ...]:
    """Of some studs, the outer two and as many between as keep gaps under 24 in; or every one."""
    if every or len(studs) < 3:
        return tuple(studs)
    kept = [studs[0]]
    for stud, following in pairwise([*studs[1:], studs[-1]]):
        if stud == studs[-1] or following - kept[-1] > WIDEST_GAP_MM:
            kept.append(stud)
    return tuple(kept)


def _caught(places: list[float], studs: list[float]) -> tuple[float, ...]:
    """Places moved onto a stud where one stands near, never two onto the same."""
    found: list[float] = []
    near = min((b - a for a, b in pairwise(places)), default=0.0) * 0.4
    for place in places:
        stud = min(studs, key=lambda each: abs(each - place), default=place)
        found.append(stud if abs(stud - place) <= near and stud not in found else place)
    return tuple(sorted(found))


def _free(
    wished: float, length: float, window: tuple[float, float], blocked: Blocked
) -> list[float]:
    """Return left ends in a window, clear of what is blocked, nearest to the wish first."""
    low, high = window
    if low > high + 1e-9:
        return []
    tries = {min(max(wished, low), high)}
    for start, end in blocked:
        tries |= {at for at in (end, start - length) if low <= at <= high}
    clear = [
        at
        for at in tries
        if all(at + length <= start + 1e-9 or at >= end - 1e-9 for start, end in blocked)
    ]
    return sorted(clear, key=lambda at: abs(at - wished))[:2]
