"""How well readings become studs, over seeded simulated walls.

`python -m benchmarks.survey [WALLS]`.

A practised person's readings: two sweeps of the whole wall at two heights, a magnet at every place
the first sweep suggests, and up to six probes where the inference asks for one. Side by side with
the plain rule (the midpoint of two edges a stud's width apart, averaged over the sweeps) on the
same readings.
"""

import sys
import time
from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

from benchmarks.timing import REFERENCE_MS, reference_ms
from trade.devices.hidden import HiddenWall, build
from trade.devices.stand_ins import StandIns
from trade.plan.readings import Edge, Reading
from trade.wall.found import Inference
from trade.wall.infer import infer

NEAR_MM = 6.0
MOST_PROBES = 6
HEIGHT_MM = 1300.0  # of what is looked for: studs that stand here


class Tally(NamedTuple):
    """Counts over all walls."""

    studs: int = 0
    found: int = 0
    claimed: int = 0
    false: int = 0
    covered: int = 0
    intervals: int = 0

    def plus(self, other: "Tally") -> "Tally":
        """Both together."""
        return Tally(*(a + b for a, b in zip(self, other, strict=True)))


def practised(devices: StandIns) -> tuple[list[Reading], Inference, float]:
    """Return a practised person's readings, the inference, and the last one's time, ms."""
    width, seen = devices.wall.width_mm, devices.wall.openings
    readings = devices.sweep(0, width, 1200) + devices.sweep(0, width, 1500)
    for centre in plain_rule(readings):
        readings += devices.search(centre, HEIGHT_MM)
    begun = time.perf_counter()
    known = infer(width, readings, seen)
    spent = (time.perf_counter() - begun) * 1000
    for _ in range(MOST_PROBES):
        if known.ask_mm is None:
            break
        readings.append(devices.probe(known.ask_mm, HEIGHT_MM))
        known = infer(width, readings, seen)
    return readings, known, spent


def plain_rule(readings: Sequence[Reading]) -> list[float]:
    """Return midpoints of a left and a right edge 25 to 55 mm apart.

    Averaged where two sweeps agree within 20 mm.
    """
    middles: list[list[float]] = []
    for height in sorted({r.height_mm for r in readings if isinstance(r, Edge)}):
        edges = sorted(
            (r.at_mm, r.side) for r in readings if isinstance(r, Edge) and r.height_mm == height
        )
        for (a, left), (b, right) in pairwise(edges):
            if (left, right) == ("left", "right") and 25 <= b - a <= 55:
                middle = (a + b) / 2
                near = next((m for m in middles if abs(sum(m) / len(m) - middle) < 20), None)
                near.append(middle) if near is not None else middles.append([middle])
    return sorted(sum(m) / len(m) for m in middles)


def score(wall: HiddenWall, claims: Sequence[tuple[float, float, float]]) -> Tally:
    """Compare claims (centre, low, high) with the truth.

    A claim is false when no stud's centre is within half its width.
    """
    found = covered = intervals = false = 0
    members = wall.members_at(HEIGHT_MM)
    for member in members:
        near = [
            claim for claim in claims if abs(claim[0] - member.centre_mm) <= member.width_mm / 2
        ]
        best = min(near, key=lambda claim: abs(claim[0] - member.centre_mm), default=None)
        if best is not None:
            found += abs(best[0] - member.centre_mm) <= NEAR_MM
            intervals += 1
            covered += best[1] <= member.centre_mm <= best[2]
    for centre, _, _ in claims:
        false += not any(
            abs(centre - member.centre_mm) <= member.width_mm / 2 for member in members
        )
    return Tally(len(members), found, len(claims), false, covered, intervals)


def main(count: int) -> int:
    """Print both tallies; 1 when the inference misses its marks."""
    ours, plain, slowest, taken = Tally(), Tally(), 0.0, 0
    times = []
    for seed in range(count):
        devices = StandIns(build(seed))
        readings, known, spent = practised(devices)
        times.append(spent)
        slowest, taken = max(slowest, spent), taken + len(readings)
        claims = [
            (s.centre_mm, s.low_mm, s.high_mm) for s in known.studs if s.confidence != "doubtful"
        ]
        ours = ours.plus(score(devices.wall, claims))
        plain = plain.plus(score(devices.wall, [(x, x - 8, x + 8) for x in plain_rule(readings)]))
    print(f"{count} walls, {ours.studs} studs, {taken / count:.0f} readings a wall")
    for name, tally in (("inference", ours), ("plain rule", plain)):
        print(
            f"  {name:<11} found within {NEAR_MM:.0f} mm {tally.found / tally.studs:7.2%}"
            f"   false of claimed {tally.false / tally.claimed:6.2%}   interval holds "
            f"{tally.covered / tally.intervals:7.2%}"
        )
    middle = sorted(times)[len(times) // 2]
    limit = 20 * max(reference_ms() / REFERENCE_MS, 1.0)
    print(
        f"  inference of one wall: median {middle:.1f} ms, slowest {slowest:.1f} ms (limit "
        f"{limit:.0f} on this machine now)"
    )
    good = (
        ours.found / ours.studs >= 0.98
        and ours.false / ours.claimed <= 0.01
        and 0.93 <= ours.covered / ours.intervals <= 0.97
    )
    return int(not (good and middle <= limit))


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1]) if len(sys.argv) > 1 else 2000))
