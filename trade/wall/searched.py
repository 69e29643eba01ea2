"""Stretches of a wall that were searched, and in which no stud was found: there is none."""

from trade import data
from trade.memo import memoized
from trade.plan.model import Stud, Wall
from trade.plan.readings import ByHand, Knock, Probe, Reading, Sweep


@memoized(limit=64)
def bare_stretches(wall: Wall) -> tuple[tuple[float, float], ...]:
    """Return from where to where a framed wall without a known stud has none, left to right, mm.

    A finder was drawn along all of it and said nothing, nor did anything else. One longer than
    studs ever stand apart tells of the finder and not of the wall, so it counts for nothing. What
    a finder cannot reach in a corner belongs to the stretch beside it.
    """
    if wall.build not in ("timber", "steel") or wall.uprights:
        return ()
    blind, found = data.house("finder_blind_mm"), list[tuple[float, float]]()
    for start, end in sorted(
        (min(each.from_mm, each.to_mm), max(each.from_mm, each.to_mm))
        for each in wall.readings
        if isinstance(each, Sweep)
    ):
        if found and start <= found[-1][1]:
            found[-1] = found[-1][0], max(found[-1][1], end)
        else:
            found.append((start, end))
    said = [each.at_mm for each in wall.readings if not isinstance(each, Sweep) and _tells(each)]
    most = data.house("studs_apart_mm")
    return tuple(
        (
            0.0 if start <= blind else start,
            wall.width_mm if end >= wall.width_mm - blind else end,
        )
        for start, end in found
        if end - start <= most and not any(start <= at <= end for at in said)
    )


def _tells(reading: Reading) -> bool:
    """Whether a reading speaks for a stud; a nail into air and a hollow knock do not."""
    if isinstance(reading, Probe):
        return reading.met != "air"
    if isinstance(reading, ByHand):
        return reading.word == "pinned"
    return not (isinstance(reading, Knock) and reading.sound == "hollow")


def stud_away_mm(wall: Wall, x_mm: float) -> float | None:
    """Return how far off the middle of a stud is at least; None where nobody has searched.

    From a place in a stretch that has none.
    """
    here = next((each for each in bare_stretches(wall) if each[0] <= x_mm <= each[1]), None)
    if here is None:
        return None
    half = Stud(centre_mm=0.0).width_mm / 2
    return max(min(x_mm - here[0], here[1] - x_mm), half) + half
