"""Screws, and what anchors hold, where they go through a strip of wood: away from its ends, its edges and each other."""

from itertools import pairwise
from typing import NamedTuple

from trade import data
from trade.check import Check, Quantity, Step, make
from trade.fixings.seat import Seat

_NOUGHT_MM = 1e-6


class _Asked(NamedTuple):
    """One distance of one seat: what it is to, how much is needed in diameters, how much there is."""

    seat: Seat
    to: str
    diameters: float
    has_mm: float

    @property
    def needs_mm(self) -> float:
        return self.diameters * _through_mm(self.seat)


def checks(seats: list[Seat]) -> list[Check]:
    """Whether nothing splits the strip that it goes through; nothing to ask where there is no strip."""
    asked = [_asked(seat) for seat in seats if seat.strip is not None and seat.side.g is not None]
    if not asked:
        return []
    worst = max(asked, key=lambda each: each.needs_mm / each.has_mm)
    seat = worst.seat
    return [
        make(
            "strip.edge", part=seat.part, support=seat.index, case="any",
            demand=Quantity(worst.needs_mm, "fine"), capacity=Quantity(worst.has_mm, "fine"),
            template=f"At the {{part}} what goes through the strip has {{capacity}} {worst.to}; under {{demand}} it splits.",
            parts={"part": seat.part},
            steps=(
                Step("D", "what goes through it", Quantity(_through_mm(seat), "fine")),
                Step("n", f"diameters {worst.to}", Quantity(worst.diameters, "ratio")),
                Step("n D", "needed", Quantity(worst.needs_mm, "fine")),
                Step("a", "there is", Quantity(worst.has_mm, "fine")),
            ),
        )
    ]  # fmt: skip


def _through_mm(seat: Seat) -> float:
    if seat.held is not None and seat.held.anchor is not None:
        return seat.held.anchor.screw_mm
    return seat.screw.diameter_mm


def _asked(seat: Seat) -> _Asked:
    """What a seat is nearest to, for what that asks."""
    assert seat.strip is not None
    left, right, high = seat.strip
    thin = seat.held is not None or seat.screw.kind == "wood"
    edge = data.house("edge_diameters_wood" if thin else "edge_diameters_lag")
    end = data.house("strip_end_diameters_wood" if thin else "strip_end_diameters_lag")
    ranked = sorted(seat.heights_mm)
    found = [
        (end, min(seat.x_mm - left, right - seat.x_mm), "to its end"),
        (edge, min(ranked[0], high - ranked[-1]), "to its edge"),
        (data.house("strip_thick_diameters"), seat.side.thickness_mm, "of wood under the head"),
    ]
    if len(ranked) > 1:
        apart = min(above - below for below, above in pairwise(ranked))
        found.append((data.house("strip_apart_diameters"), apart, "to the next one"))
    diameters, has, to = max(found, key=lambda each: each[0] / max(each[1], _NOUGHT_MM))
    return _Asked(seat, to, diameters, max(has, _NOUGHT_MM))
