"""Devices that are not there: a scanner, a magnet and a probe over a hidden wall, with the faults of real ones."""

from random import Random
from typing import Protocol

from trade.devices.hidden import HiddenWall
from trade.evidence import Edge, MagnetHit, Probe, Reading, Sweep

# faults, all house rules: what a middling finder does in practised hands
EDGE_SD_MM = 3.5
BIAS_SD_MM = 1.5  # of one sweep: the finder fires early or late on every edge
MISSED_EDGE = 0.06
PIPE_SHOWS, CABLE_SHOWS = 0.6, 0.15
FALSE_EDGES_PER_M = 0.15
SCREW_SD_MM = 6.0  # lining screws from the stud's centre
MAGNET_SD_MM = 2.0
SCREW_FOUND = 0.9
PIPE_STICKS = 0.3


class Scanner(Protocol):
    """Finds edges behind a lining."""

    def sweep(self, from_mm: float, to_mm: float, height_mm: float) -> list[Reading]:
        """Draw it along; the sweep itself is the first reading."""


class Magnet(Protocol):
    """Finds the lining's screws."""

    def search(self, around_mm: float, height_mm: float) -> list[Reading]:
        """Move it about a place, a hand's width to either side."""


class Prober(Protocol):
    """A thin nail."""

    def probe(self, at_mm: float, height_mm: float) -> Probe:
        """Push it in."""


class StandIns:
    """All three over one hidden wall; the same seed gives the same readings."""

    def __init__(self, wall: HiddenWall, seed: int = 0, dead: bool = False) -> None:
        """Take them up. `dead`: the scanner's battery is empty; it finds nothing and does not say so."""
        self.wall, self.dead = wall, dead
        self._draw = Random(f"{wall.seed}/{seed}")

    def sweep(self, from_mm: float, to_mm: float, height_mm: float) -> list[Reading]:
        """Edges as a middling finder tells them."""
        found: list[Reading] = [Sweep(from_mm=from_mm, to_mm=to_mm, height_mm=height_mm)]
        if self.dead:
            return found
        bias = self._draw.gauss(0, BIAS_SD_MM)
        things = [(m.centre_mm, m.width_mm) for m in self.wall.members]
        for service in self.wall.services:
            if self._draw.random() < (PIPE_SHOWS if service.kind == "pipe" else CABLE_SHOWS):
                things.append((service.centre_mm, service.width_mm))
        for centre, width in things:
            for side, sign in (("left", -1), ("right", 1)):
                at = centre + sign * (width / 2 + bias) + self._draw.gauss(0, EDGE_SD_MM)
                if self._draw.random() >= MISSED_EDGE and from_mm <= at <= to_mm:
                    found.append(Edge(at_mm=at, side=side, height_mm=height_mm))  # type: ignore[arg-type]
        for _ in range(self._count_of_false(to_mm - from_mm)):
            at, side = self._draw.uniform(from_mm, to_mm), self._draw.choice(("left", "right"))
            found.append(Edge(at_mm=at, side=side, height_mm=height_mm))  # type: ignore[arg-type]
        return found

    def _count_of_false(self, length_mm: float) -> int:
        return sum(self._draw.random() < FALSE_EDGES_PER_M for _ in range(round(length_mm / 1000)))

    def search(self, around_mm: float, height_mm: float) -> list[Reading]:
        """A screw of the stud near here, when there is one; a pipe may stick too."""
        for member in self.wall.members:
            if abs(member.centre_mm - around_mm) < 100 and self._draw.random() < SCREW_FOUND:
                off = min(max(self._draw.gauss(0, SCREW_SD_MM), -15.0), 15.0)
                if member.kind == "double":
                    off += self._draw.choice((-19.0, 19.0))
                at = member.centre_mm + off + self._draw.gauss(0, MAGNET_SD_MM)
                return [MagnetHit(at_mm=min(max(at, 0.0), self.wall.width_mm), height_mm=height_mm)]
        for service in self.wall.services:
            if service.kind == "pipe" and abs(service.centre_mm - around_mm) < 60 and self._draw.random() < PIPE_STICKS:
                return [MagnetHit(at_mm=service.centre_mm + self._draw.gauss(0, MAGNET_SD_MM), height_mm=height_mm)]
        return []

    def probe(self, at_mm: float, height_mm: float) -> Probe:
        """What the nail meets. It wanders a little on its way."""
        at = at_mm + self._draw.gauss(0, 1.0)
        if self.wall.member_at(at):
            return Probe(at_mm=at_mm, met="wood", height_mm=height_mm)
        met = "metal" if self.wall.service_at(at) else "air"
        return Probe(at_mm=at_mm, met=met, height_mm=height_mm)  # type: ignore[arg-type]
