"""Devices that are not there: over a hidden wall, with the faults of real ones."""

from random import Random
from typing import Literal, NamedTuple

from trade import data
from trade.devices.hidden import HEIGHT_MM, HiddenWall, build
from trade.plan.readings import Edge, Knock, MagnetHit, Probe, Reading, Sweep

LINE_MM = 1200.0  # where the cross-line level throws its line


class Faults(NamedTuple):
    """How far the devices may be believed. House rules: a middling finder in practised hands."""

    edge_sd_mm: float = 3.5
    bias_sd_mm: float = 1.5  # of one sweep: the finder fires early or late on every edge
    missed_edge: float = 0.06
    pipe_shows: float = 0.6
    cable_shows: float = 0.15
    patch_shows: float = 0.8
    false_per_m: float = 0.15
    screw_sd_mm: float = 6.0  # lining screws from the stud's centre
    magnet_sd_mm: float = 2.0
    screw_found: float = 0.9
    pipe_sticks: float = 0.3
    ear: float = 0.75  # share of knocks that are heard right
    scale_sd_kg: float = 0.03  # the usual class of luggage scales
    laser_sd_mm: float = 1.0  # +- 2 mm, the usual class of laser meters
    line_mm_per_m: float = 0.3  # the usual class of cross-line levels
    dead: bool = False  # the finder's battery is empty; it finds nothing and does not say so


_SCALE_STEP_KG, _SCALE_MOST_KG = 0.05, 50.0  # the usual class of luggage scales
USELESS = Faults(missed_edge=0.6, false_per_m=3.0)  # behind lath or foil a finder fires anywhere


class StandIns:
    """All devices over one hidden wall; the same seed gives the same readings."""

    def __init__(self, wall: HiddenWall, seed: int = 0, faults: Faults | None = None) -> None:
        """Take them up.

        Behind plaster on lath or foil the finder is useless unless its faults are given.
        """
        blind = wall.foil or wall.lining in ("plaster_lath", "lath_steel")
        self.wall, self.faults = wall, faults or (USELESS if blind else Faults())
        self._draw = Random(f"{wall.seed}/{seed}")
        self._tilt = self._draw.gauss(0, self.faults.line_mm_per_m / 2)
        self.steel = data.structures()[wall.structure].kind == "steel"

    def sweep(self, from_mm: float, to_mm: float, height_mm: float) -> list[Reading]:
        """Edges as a middling finder tells them."""
        found: list[Reading] = [Sweep(from_mm=from_mm, to_mm=to_mm, height_mm=height_mm)]
        if self.faults.dead:
            return found
        bias = self._draw.gauss(0, self.faults.bias_sd_mm)
        things = [(m.centre_mm, m.width_mm) for m in self.wall.members_at(height_mm)]
        shows = {"pipe": self.faults.pipe_shows, "cable": self.faults.cable_shows}
        things += [
            (s.centre_mm, s.width_mm)
            for s in self.wall.services
            if self._draw.random() < shows[s.kind]
        ]
        things += [
            patch for patch in self.wall.patches if self._draw.random() < self.faults.patch_shows
        ]
        told: list[tuple[float, Literal["left", "right"]]] = []
        for centre, width in things:
            for side, sign in (("left", -1), ("right", 1)):
                at = (
                    centre + sign * (width / 2 + bias) + self._draw.gauss(0, self.faults.edge_sd_mm)
                )
                if self._draw.random() >= self.faults.missed_edge:
                    told.append((at, side))  # type: ignore[arg-type]
        for _ in range(self._count_of_false(to_mm - from_mm)):
            told.append((self._draw.uniform(from_mm, to_mm), self._draw.choice(("left", "right"))))
        for at, side in told:
            if from_mm <= at <= to_mm and not self.wall.open_at(at, height_mm):
                found.append(Edge(at_mm=at, side=side, height_mm=height_mm))
        return found

    def _count_of_false(self, length_mm: float) -> int:
        whole, rest = divmod(self.faults.false_per_m, 1.0)
        return sum(
            int(whole) + (self._draw.random() < rest) for _ in range(round(length_mm / 1000))
        )

    def search(self, around_mm: float, height_mm: float) -> list[Reading]:
        """Return a screw of the stud near here, when there is one; a pipe may stick too."""
        for member in self.wall.members_at(height_mm):
            if (
                abs(member.centre_mm - around_mm) < 100
                and self._draw.random() < self.faults.screw_found
            ):
                off = min(max(self._draw.gauss(0, self.faults.screw_sd_mm), -15.0), 15.0)
                if self.steel:  # it sticks to the flange, wherever it meets it
                    off = self._draw.uniform(-0.45, 0.45) * member.width_mm
                elif member.kind == "double":
                    off += self._draw.choice((-19.0, 19.0))
                at = member.centre_mm + off + self._draw.gauss(0, self.faults.magnet_sd_mm)
                return [MagnetHit(at_mm=min(max(at, 0.0), self.wall.width_mm), height_mm=height_mm)]
        for service in self.wall.services:
            if (
                service.kind == "pipe"
                and abs(service.centre_mm - around_mm) < 60
                and self._draw.random() < self.faults.pipe_sticks
            ):
                return [
                    MagnetHit(
                        at_mm=service.centre_mm + self._draw.gauss(0, self.faults.magnet_sd_mm),
                        height_mm=height_mm,
                    )
                ]
        return []

    def probe(self, at_mm: float, height_mm: float) -> Probe:
        """Return what the nail meets, and how deep. It wanders a little on its way."""
        at = at_mm + self._draw.gauss(0, 1.0)
        depth = round(data.linings()[self.wall.lining].thickness_mm + self._draw.gauss(0, 0.7), 1)
        if data.structures()[self.wall.structure].kind == "mass":
            return Probe(at_mm=at_mm, met="hard", depth_mm=depth, height_mm=height_mm)
        if self.wall.member_at(at, height_mm):
            return Probe(
                at_mm=at_mm,
                met="metal" if self.steel else "wood",
                depth_mm=depth,
                height_mm=height_mm,
            )
        if self.wall.service_at(at):
            return Probe(at_mm=at_mm, met="metal", depth_mm=depth + 20, height_mm=height_mm)
        return Probe(at_mm=at_mm, met="air", height_mm=height_mm)

    def knock(self, at_mm: float, height_mm: float) -> Knock:
        """Full over studs and masonry, hollow between; not every ear hears it."""
        mass = data.structures()[self.wall.structure].kind == "mass"
        full = mass or any(
            abs(m.centre_mm - at_mm) < m.width_mm / 2 + 15 for m in self.wall.members_at(height_mm)
        )
        right = self._draw.random() < self.faults.ear
        return Knock(at_mm=at_mm, sound="full" if full == right else "hollow", height_mm=height_mm)

    def across_mm(self, height_mm: float, out_mm: float) -> float:
        """Side walls that are not square open or close with the distance from this wall."""
        unevenness = self.wall.unevenness
        opening = (
            out_mm
            * ((unevenness.left_deg - 90) + (unevenness.right_deg - 90))
            * 3.141592653589793
            / 180
        )
        return self.wall.width_mm + opening + self._draw.gauss(0, self.faults.laser_sd_mm)

    def up_mm(self, at_mm: float) -> float:
        """Floor to ceiling."""
        wider = (
            (self.wall.unevenness.floor_mm_per_m - self.wall.unevenness.ceiling_mm_per_m)
            * at_mm
            / 1000
        )
        return HEIGHT_MM + wider + self._draw.gauss(0, self.faults.laser_sd_mm)

    def to_ceiling_mm(self, at_mm: float) -> float:
        """Return the ceiling, which falls to the right; the line itself tilts a little."""
        return (
            HEIGHT_MM
            - LINE_MM
            - (self.wall.unevenness.ceiling_mm_per_m + self._tilt) * at_mm / 1000
        )

    def to_floor_mm(self, at_mm: float) -> float:
        """Return the floor, which falls to the right, away from the line."""
        return LINE_MM + (self.wall.unevenness.floor_mm_per_m + self._tilt) * at_mm / 1000

    def lean_mm(self, at_mm: float, low_mm: float, high_mm: float) -> float:
        """Return the same anywhere along the wall, but for the width of the line."""
        return self.wall.unevenness.lean_mm_per_m * (high_mm - low_mm) / 1000 + self._draw.gauss(
            0, 0.3
        )

    def weigh(self, name: str) -> float | None:
        """Return a luggage scale over things that are not there.

        As the library knows them, give or take a fifth; else anything.
        """
        words = name.lower()
        known = next(
            (row for row in data.contents().values() if row.name.split(",")[0] in words), None
        )
        true_kg = (known.kg if known else self._draw.uniform(0.5, 20.0)) * self._draw.uniform(
            0.8, 1.2
        )
        shown = (
            round((true_kg + self._draw.gauss(0, self.faults.scale_sd_kg)) / _SCALE_STEP_KG)
            * _SCALE_STEP_KG
        )
        return None if true_kg > _SCALE_MOST_KG else max(round(shown, 2), _SCALE_STEP_KG)


def for_wall(seed: int, width_mm: float, taken: int) -> StandIns:
    """Stand-ins over a made-up wall of this width, after so many readings.

    To try the bench out without a device at hand.
    """
    wall = build(seed)
    share = width_mm / wall.width_mm
    members = tuple(m._replace(centre_mm=m.centre_mm * share) for m in wall.members)
    services = tuple(s._replace(centre_mm=s.centre_mm * share) for s in wall.services)
    return StandIns(
        wall._replace(width_mm=width_mm, members=members, services=services, openings=()), taken
    )


class StandInDial:
    """A dial under a piece that is not there.

    It gives a little more each time, and never quite comes back.
    """

    def __init__(self, seed: int = 0, sound: bool = True) -> None:
        """Set it up; under what is not sound the edge keeps going down."""
        draw = Random(f"dial/{seed}")
        self._mm_per_kg = draw.uniform(0.02, 0.06) * (1.0 if sound else 4.0)
        self._stays = draw.uniform(0.03, 0.12) if sound else 0.6
        self._most_kg = 0.0

    def read_mm(self, kg: float) -> float:
        """To a hundredth, as a dial is read."""
        self._most_kg = max(self._most_kg, kg)
        bedded = self._most_kg * self._mm_per_kg * self._stays
        return round(bedded + kg * self._mm_per_kg * (1 - self._stays), 2)
