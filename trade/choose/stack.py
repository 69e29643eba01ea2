"""Rows of shelves one above the other.

Heights from what stands on them, or evenly, or lower and lower openings upwards.
"""

from typing import Literal

from msgspec.structs import replace

from trade import data
from trade.choose.placement import free_key
from trade.data import house
from trade.errors import PlanError
from trade.language import compose
from trade.measure import say_length
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan

Manner = Literal["fitted", "equal", "graded"]
_GRADE = data.house("stack_grade")
_MOST = 12


def tops(
    piece: AnyPiece,
    plan: Plan,
    manner: Manner,
    count: int,
    tall_mm: tuple[float, ...],
    high_mm: float,
) -> tuple[float, ...]:
    """Heights of the tops of some rows, from the bottom up; the piece itself is the lowest.

    Args:
        piece: the lowest row.
        plan: whose wall it is on.
        manner: `fitted`: each opening takes its tallest thing and a hand; `equal`: all openings
          alike up to `high_mm`;
            `graded`: each a little lower than the one below, up to `high_mm`.
        count: of rows.
        tall_mm: the tallest thing on each row, from the bottom up; the last one counts for all rows
          above it. None is needed
            but for fitted rows.
        high_mm: where the top of the highest row goes.

    Raises:
        PlanError: too few or too many rows, no heights, or too little wall.
    """
    if not 2 <= count <= _MOST:
        raise PlanError(compose("Put up 2 to {most} rows at once.", most=_MOST), "rows")
    box = mount_of(piece).box(piece)
    under, hand, start = piece.top_mm - box.bottom_mm, house("hand_room_mm"), piece.top_mm
    if manner == "fitted":
        if not tall_mm:
            raise PlanError("How tall is the tallest thing on each row?", "tall")
        heights = [*tall_mm, *[tall_mm[-1]] * count]
        steps = [heights[n] + hand + under for n in range(count - 1)]
    else:
        shares = [_GRADE**n if manner == "graded" else 1.0 for n in range(count - 1)]
        room = high_mm - start - under * (count - 1)
        if room <= 0:
            raise PlanError(
                "Put the highest row far enough above the lowest for the rows between.", "high"
            )
        steps = [room * share / sum(shares) + under for share in shares]
        least = min(steps) - under
        for n, tall in enumerate(
            (*tall_mm, *[tall_mm[-1]] * count)[: count - 1] if tall_mm else ()
        ):
            if tall + hand > steps[n] - under + 0.05:
                said = compose(
                    "Row {n} has {steps} of room; its tallest thing and a hand need more.",
                    n=n + 1,
                    steps=say_length(steps[n] - under, plan.units),
                )
                raise PlanError(said, "tall")
        if least < hand:
            raise PlanError(
                compose(
                    "That many rows leave {least} between two of them.",
                    least=say_length(max(least, 0.0), plan.units),
                ),
                "rows",
            )
    found = [start]
    for step in steps:
        found.append(found[-1] + step)
    if found[-1] > plan.wall.height_mm:
        needed = say_length(found[-1] - start, plan.units)
        there = say_length(plan.wall.height_mm - start, plan.units)
        raise PlanError(
            compose(
                "The rows need {needed} above the lowest; the wall has {there}.",
                needed=needed,
                there=there,
            ),
            "rows",
        )
    return tuple(found)


def stack(
    plan: Plan,
    key: str,
    manner: Manner,
    count: int,
    tall_mm: tuple[float, ...] = (),
    high_mm: float | None = None,
) -> Plan:
    """Return the plan with rows like a piece above it.

    What stands on them is taken to be like what stands on it, so tall as was said.

    Raises:
        PlanError: no such piece, or as `tops`.
    """
    piece = plan.piece(key)
    high = high_mm if high_mm is not None else min(house("reach_mm"), plan.wall.height_mm)
    heights = [*tall_mm, *([tall_mm[-1]] if tall_mm else [None]) * count]
    for n, top in enumerate(tops(piece, plan, manner, count, tall_mm, high)):
        things = tuple(
            replace(thing, high_mm=heights[n] or thing.high_mm) for thing in piece.things
        )
        named = (
            {}
            if n == 0
            else {
                "key": free_key(plan),
                "name": compose("{piece}, row {n}", piece=piece.name[:70], n=n + 1),
            }
        )
        plan = plan.with_piece(replace(piece, top_mm=top, things=things, **named))
    return plan
