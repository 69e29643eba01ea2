"""How much worse a finder reads on this wall than the model takes for granted: one unknown that all its edges share.

A stud is as wide as it is. What a finder says of that width, edge from edge, scatters with the finder; where it scatters more
than the model's finder would, every interval that stands on its edges is widened alike. A tape that was hooked wrongly can't be
seen so: it moves all readings together, and the marks that are measured with it too.
"""

from collections.abc import Sequence
from math import sqrt

from trade.evidence import Edge, Reading
from trade.wall.found import Found
from trade.wall.likelihood import MODEL

_ENOUGH = 4  # house rule: of so many widths a scatter can be told
_WORSE = 1.3  # house rule: as much over what is taken for granted may be chance
_MOST = 3.0
_NEAR_MM = 30.0  # an edge further away is not the stud's


def worse(readings: Sequence[Reading], studs: Sequence[Found]) -> float:
    """Times as much as the model's finder scatters; 1 where too few widths tell."""
    off = [wide - stud.width_mm for stud in studs if stud.kind == "single" for wide in _widths(stud, readings)]
    if len(off) < _ENOUGH:
        return 1.0
    seen = sqrt(sum(x * x for x in off) / len(off)) / (sqrt(2) * MODEL.edge_sd)
    return min(seen, _MOST) if seen > _WORSE else 1.0


def widened(stud: Found, times: float) -> Found:
    """The stud with its interval stretched about its centre, `times` as wide."""
    if times <= 1.0:
        return stud
    low, high = (stud.centre_mm + times * (end - stud.centre_mm) for end in (stud.low_mm, stud.high_mm))
    return stud._replace(low_mm=low, high_mm=high)


def _widths(stud: Found, readings: Sequence[Reading]) -> list[float]:
    """The stud's width in each sweep of the finder, mm: from the nearest left edge to the nearest right one."""
    ends = {"left": stud.centre_mm - stud.width_mm / 2, "right": stud.centre_mm + stud.width_mm / 2}
    near = [edge for edge in readings if isinstance(edge, Edge) and abs(edge.at_mm - ends[edge.side]) < _NEAR_MM]
    found = []
    for height in {edge.height_mm for edge in near}:
        sides = [[edge.at_mm for edge in near if edge.height_mm == height and edge.side == side] for side in ("left", "right")]
        if all(len(side) == 1 for side in sides):
            found.append(sides[1][0] - sides[0][0])
    return found
