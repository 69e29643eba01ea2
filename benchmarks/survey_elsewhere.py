"""How well intervals hold on walls that the model was not made for.

`python -m benchmarks.survey_elsewhere [WALLS]`.

A second simulator with assumptions of its own, which shares nothing with the devices in `trade`:
odd and wide spacings, walls framed by eye, doubled jambs, blocking; a tape that is hooked wrongly
at the corner, so that all readings are off by the same; a poor finder that widens everything,
misses, and cries where nothing is. People take what they would: one sweep or two, magnets, a few
probes. All numbers here are house rules.
"""

import random
import sys
from collections.abc import Callable
from typing import NamedTuple

from trade.plan.readings import Edge, MagnetHit, Probe, Reading, Sweep
from trade.wall.infer import infer

STUD_MM, PROBES = 38.0, 6


class Kind(NamedTuple):
    """A kind of wall and of person.

    Spacing from one stud to the next, and how wrong tape and finder are, mm.
    """

    name: str
    spacing: Callable[[random.Random], float]
    framed_sd: float = 3.0
    hooked_sd: float = 1.0
    edge_sd: float = 3.5
    widens_sd: float = 1.0
    misses: float = 0.05
    jambs: bool = False
    blocked: bool = False


KINDS = (
    Kind("16 in, ordinary", lambda draw: 406.4),
    Kind("24 in", lambda draw: 609.6),
    Kind("odd spacing", lambda draw: draw.choice((350.0, 430.0, 488.0, 500.0, 550.0))),
    Kind("framed by eye", lambda draw: 406.4, framed_sd=25.0),
    Kind("doubled jambs, blocking", lambda draw: 406.4, jambs=True, blocked=True),
    Kind("tape hooked wrongly", lambda draw: 406.4, hooked_sd=4.0),
    Kind("poor finder", lambda draw: 406.4, edge_sd=6.0, widens_sd=5.0, misses=0.2),
)


class Wall(NamedTuple):
    """Left and right edges of what stands there, and how wide it all is."""

    wide_mm: float
    members: tuple[tuple[float, float], ...]

    def met(self, at_mm: float) -> bool:
        """Whether a nail there finds wood."""
        return any(left <= at_mm <= right for left, right in self.members)


def framed(kind: Kind, draw: random.Random) -> Wall:
    """Return a wall of a kind."""
    wide, step = draw.uniform(2200.0, 4500.0), kind.spacing(draw)
    members, x = [(0.0, STUD_MM)], step * draw.uniform(0.5, 1.0)
    while x < wide - 100:
        centre = x + draw.gauss(0, kind.framed_sd)
        double = kind.jambs and draw.random() < 0.2
        members.append((centre - STUD_MM / 2, centre + STUD_MM / 2 + (STUD_MM if double else 0.0)))
        x += step
    return Wall(wide, (*members, (wide - STUD_MM, wide)))


def read(
    wall: Wall, kind: Kind, draw: random.Random
) -> tuple[list[Reading], Callable[[float], Probe], float]:
    """Return a person's readings, the probe he makes at a place, and his tape's error, mm."""
    hooked, widens = draw.gauss(0, kind.hooked_sd), draw.gauss(0, kind.widens_sd)

    def off(x: float, sd: float) -> float:
        return min(max(x + hooked + draw.gauss(0, sd), 0.0), wall.wide_mm)

    found: list[Reading] = []
    for height in (1200.0, 1500.0)[: draw.choice((1, 2, 2))]:
        found.append(Sweep(from_mm=0.0, to_mm=wall.wide_mm, height_mm=height))
        for left, right in wall.members:
            for at, side in ((left - widens, "left"), (right + widens, "right")):
                if draw.random() >= kind.misses and 0 < at < wall.wide_mm:
                    found.append(Edge(at_mm=off(at, kind.edge_sd), side=side, height_mm=height))  # type: ignore[arg-type]
        if kind.blocked and draw.random() < 0.5:
            a = draw.uniform(200.0, wall.wide_mm - 600.0)
            found.append(Edge(at_mm=off(a, 4.0), side="left", height_mm=height))
            found.append(Edge(at_mm=off(a + 390.0, 4.0), side="right", height_mm=height))
        if draw.random() < 3 * kind.misses:
            found.append(
                Edge(
                    at_mm=draw.uniform(0, wall.wide_mm),
                    side=draw.choice(("left", "right")),
                    height_mm=height,
                )
            )
    for left, right in wall.members:
        if draw.random() < 0.6:
            found.append(
                MagnetHit(at_mm=off((left + right) / 2, 8.0), height_mm=draw.uniform(300.0, 2000.0))
            )

    def probe(at_mm: float) -> Probe:
        return Probe(
            at_mm=at_mm, height_mm=1300.0, met="wood" if wall.met(at_mm - hooked) else "air"
        )

    return found, probe, hooked


class Held(NamedTuple):
    """Intervals that hold their stud as it stands, and as the same tape marks it; of how many.

    Claims on nothing.
    """

    stands: int
    marked: int
    claims: int
    false: int


def held(kind: Kind, count: int) -> Held:
    """Return what comes of so many walls of a kind."""
    stands = marked = claims = false = 0
    for seed in range(count):
        draw = random.Random(f"{kind.name} {seed}")
        wall = framed(kind, draw)
        readings, probe, hooked = read(wall, kind, draw)
        known = infer(wall.wide_mm, readings, ())
        for _ in range(PROBES):
            if known.ask_mm is None:
                break
            readings.append(probe(known.ask_mm))
            known = infer(wall.wide_mm, readings, ())
        for stud in known.studs:
            if stud.confidence == "doubtful":
                continue
            near = [
                (left + right) / 2
                for left, right in wall.members
                if left - 10 <= stud.centre_mm <= right + 10
            ]
            claims, false = claims + bool(near), false + (not near)
            stands += any(stud.low_mm <= centre <= stud.high_mm for centre in near)
            marked += any(stud.low_mm <= centre + hooked <= stud.high_mm for centre in near)
    return Held(stands, marked, claims, false)


def main(count: int) -> int:
    """Print how often intervals hold on each kind of wall.

    1 when one holds less than nine times of ten where it is marked.
    """
    worst = 1.0
    print("interval holds the stud as it stands, and as the same tape, hooked the same, marks it")
    for kind in KINDS:
        found = held(kind, count)
        worst = min(worst, found.marked / found.claims)
        both = (
            f"{found.stands / found.claims:7.2%} {found.marked / found.claims:7.2%} of "
            f"{found.claims}"
        )
        print(
            f"  {kind.name:<24} {both}   false of claimed "
            f"{found.false / (found.claims + found.false):6.2%}"
        )
    return int(worst < 0.9)


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1]) if len(sys.argv) > 1 else 300))
