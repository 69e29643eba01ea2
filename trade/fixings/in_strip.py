"""Screws, and what anchors hold, where they go through a strip of wood: away from its ends, its edges and each other."""

from itertools import pairwise
from typing import NamedTuple

from trade import data
from trade.check import Check, Quantity, Step, make
from trade.fixings.seat import Seat


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
    asked = [each for seat in seats if seat.strip is not None and seat.side.g is not None for each in _asked(seat)]
    if not asked:
        return []
    worst = max(asked, key=lambda each: each.needs_mm / max(each.has_mm, 1e-6))
    seat = worst.seat
    return [
        make(
            "strip.edge", part=seat.part, support=seat.index, case="any",
            demand=Quantity(worst.needs_mm, "fine"), capacity=Quantity(max(worst.has_mm, 1e-6), "fine"),
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


def _asked(seat: Seat) -> list[_Asked]:
    assert seat.strip is not None
    left, right, high = seat.strip
    thin = seat.held is not None or seat.screw.kind == "wood"
    edge = data.house("edge_diameters_wood" if thin else "edge_diameters_lag")
    end = data.house("strip_end_diameters_wood" if thin else "strip_end_diameters_lag")
    found = [
        _Asked(seat, "to its end", end, min(seat.x_mm - left, right - seat.x_mm)),
        _Asked(seat, "to its edge", edge, min(min(y, high - y) for y in seat.heights_mm)),
        _Asked(seat, "of wood under the head", data.house("strip_thick_diameters"), seat.side.thickness_mm),
    ]
    apart = [above - below for below, above in pairwise(sorted(seat.heights_mm))]
    return found + ([_Asked(seat, "to the next one", data.house("strip_apart_diameters"), min(apart))] if apart else [])
