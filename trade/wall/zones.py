"""Where not to hang, where not to drill, and where to take care.

Each with its reason and what to do about it.
"""

from math import hypot
from typing import Literal, NamedTuple

from trade import data
from trade.language import compose
from trade.memo import memoized
from trade.plan.features import Feature
from trade.plan.model import Wall

CABLE_RUN_MM = data.house("cable_run_mm")
# BS 7671 522.6.202, from memory: cables without a cover may run this near to a corner or to the
# ceiling
CHASE_MM = data.house("chase_mm")


class Zone(NamedTuple):
    """A rectangle on the wall.

    `keep_out`: `way` for hanging, `service` for drilling; `take_care`: mind the advice. What stands
    out no further than `shallow_mm` may be there.
    """

    level: Literal["keep_out", "take_care"]
    bars: Literal["hanging", "drilling"]
    left_mm: float
    right_mm: float
    bottom_mm: float
    top_mm: float
    reason: str
    advice: str
    shallow_mm: float = 0.0

    def holds(self, x_mm: float, y_mm: float) -> bool:
        """Whether a place lies in it."""
        return self.left_mm <= x_mm <= self.right_mm and self.bottom_mm <= y_mm <= self.top_mm


@memoized(limit=64)
def zones(wall: Wall) -> tuple[Zone, ...]:
    """All zones of a wall, keep-out first."""
    found = [zone for feature in wall.features for zone in _of(feature, wall)]
    if wall.build == "mass":
        found += _chases(wall)
    return tuple(sorted(found, key=lambda zone: zone.level))


def _of(f: Feature, wall: Wall) -> list[Zone]:
    row, grown = f.row, f.row.margin_mm + f.trim_mm
    if row.keep == "wood":
        return []
    if row.keep == "off":
        place = (f.left_mm, f.right_mm, f.bottom_mm, f.top_mm)
        return [Zone("take_care", "hanging", *place, row.reason, row.advice)]
    around = (
        max(f.left_mm - grown, 0.0),
        min(f.right_mm + grown, wall.width_mm),
        max(f.bottom_mm - grown, 0.0),
        min(f.top_mm + grown, wall.height_mm),
    )
    bars: Literal["hanging", "drilling"] = "hanging" if row.keep == "way" else "drilling"
    found = [
        Zone(
            "take_care" if row.keep == "care" else "keep_out",
            bars,
            *around,
            row.reason,
            row.advice,
            row.shallow_mm,
        )
    ]
    if row.above_mm:
        top = min(f.top_mm + row.above_mm, wall.height_mm)
        left, right, _, _ = around
        found.append(
            Zone(
                "keep_out",
                "hanging",
                left,
                right,
                f.top_mm,
                max(top, f.top_mm),
                row.above,
                row.advice,
                row.shallow_mm,
            )
        )
    if row.runs == "cable":
        left = max(f.left_mm - CABLE_RUN_MM, 0.0)
        right = min(f.right_mm + CABLE_RUN_MM, wall.width_mm)
        why = compose(
            "a cable may run up or down from {reason}",
            reason=row.reason,
        )
        found.append(
            Zone("take_care", "drilling", left, right, 0.0, wall.height_mm, why, row.advice)
        )
        if wall.build == "mass":
            bottom, top = max(f.bottom_mm - CABLE_RUN_MM, 0.0), f.top_mm + CABLE_RUN_MM
            level = compose("a cable may run level from {reason}", reason=row.reason)
            found.append(
                Zone("take_care", "drilling", 0.0, wall.width_mm, bottom, top, level, row.advice)
            )
    if row.runs == "pipe" and f.bottom_mm > 0:
        why = compose("the pipes of {reason}", reason=row.reason)
        found.append(
            Zone("take_care", "drilling", f.left_mm, f.right_mm, 0.0, f.bottom_mm, why, row.advice)
        )
    return found


def _chases(wall: Wall) -> list[Zone]:
    advice = (
        "In masonry cables also run near corners and under the ceiling. Scan, switch off; "
        "local wiring rules decide."
    )
    edges = (
        (0.0, CHASE_MM, 0.0, wall.height_mm),
        (wall.width_mm - CHASE_MM, wall.width_mm, 0.0, wall.height_mm),
        (0.0, wall.width_mm, wall.height_mm - CHASE_MM, wall.height_mm),
    )
    return [
        Zone(
            "take_care",
            "drilling",
            *edge,
            "cables may run along the edge of a masonry wall",
            advice,
        )
        for edge in edges
    ]


def nearest_service(wall: Wall, x_mm: float, y_mm: float) -> tuple[Feature, float] | None:
    """Return the box, pipe or duct that is nearest to a place, with its distance.

    None when none is known.
    """
    near = [(f, distance_mm(f, x_mm, y_mm)) for f in wall.features if f.row.keep == "service"]
    return min(near, key=lambda found: found[1] / max(found[0].row.margin_mm, 1.0), default=None)


def distance_mm(f: Feature, x_mm: float, y_mm: float) -> float:
    """From a place on the wall to the nearest edge of something; nought within it."""
    dx = max(f.left_mm - x_mm, x_mm - f.right_mm, 0.0)
    return hypot(dx, max(f.bottom_mm - y_mm, y_mm - f.top_mm, 0.0))
