"""How much worse a finder reads on this wall than the model takes for granted.

One unknown that all its edges share.

A stud is as wide as it is. What a finder says of that width, edge from edge, scatters with the
finder; where it scatters more than the model's finder would, every interval that stands on its
edges is widened alike. A tape that was hooked wrongly can't be seen so: it moves all readings
together, and the marks that are measured with it too.
"""

from collections.abc import Sequence
from math import sqrt

from trade import data
from trade.plan.readings import Edge
from trade.wall.found import Found
from trade.wall.likelihood import MODEL
from trade.wall.reading_index import ReadingIndex

_ENOUGH = int(data.house("scatter_enough"))
_WORSE = data.house("scatter_worse")
_MOST = data.house("scatter_most")
_NEAR_MM = data.house("scatter_near_mm")


def worse(index: ReadingIndex, studs: Sequence[Found]) -> float:
    """Return times as much as the model's finder scatters; 1 where too few widths tell."""
    off = [
        wide - stud.width_mm
        for stud in studs
        if stud.kind == "single"
        for wide in _widths(stud, index)
    ]
    if len(off) < _ENOUGH:
        return 1.0
    seen = sqrt(sum(x * x for x in off) / len(off)) / (sqrt(2) * MODEL.edge_sd)
    return min(seen, _MOST) if seen > _WORSE else 1.0


def widened(stud: Found, times: float) -> Found:
    """Return the stud with its interval stretched about its centre, `times` as wide."""
    if times <= 1.0:
        return stud
    low, high = (
        stud.centre_mm + times * (end - stud.centre_mm) for end in (stud.low_mm, stud.high_mm)
    )
    return stud._replace(low_mm=low, high_mm=high)


def _widths(stud: Found, index: ReadingIndex) -> list[float]:
    """Return the stud's width in each sweep of the finder, mm.

    From the nearest left edge to the nearest right one.
    """
    ends = {"left": stud.centre_mm - stud.width_mm / 2, "right": stud.centre_mm + stud.width_mm / 2}
    sweeps: dict[float, dict[str, list[float]]] = {}
    for _, edge in index.near(stud.centre_mm, stud.width_mm / 2 + _NEAR_MM):
        if isinstance(edge, Edge) and abs(edge.at_mm - ends[edge.side]) < _NEAR_MM:
            sweeps.setdefault(edge.height_mm, {"left": [], "right": []})[edge.side].append(
                edge.at_mm
            )
    both = [(sides["left"], sides["right"]) for sides in sweeps.values()]
    return [right[0] - left[0] for left, right in both if len(left) == len(right) == 1]
