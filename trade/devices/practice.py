"""Practice.

A hidden wall, tools to read it with, calls to make, and a score when it is uncovered.
"""

from collections.abc import Iterable, Sequence
from math import ceil
from random import Random
from typing import Literal, NamedTuple, get_args

from trade import data
from trade.devices.hidden import HEIGHT_MM, HiddenWall, Level, Member, build
from trade.devices.stand_ins import Faults, StandIns
from trade.plan.model import Layer, Wall
from trade.plan.readings import Edge, Probe, Reading, Sweep
from trade.wall.found import Found
from trade.wall.survey import survey

Tool = Literal["finder", "magnet", "nail", "knock"]
TOOLS: tuple[Tool, ...] = get_args(Tool)
# studs are looked for here: what stands only above a door or under a sill does not count
CHEST_MM = 1300.0
SPARE_MM = 7.0  # a call this far inside the wood's edge still gives a screw its edge distance
_FLAT_BATTERY = 0.25  # of walls with surprises
_MOST_READINGS = 40  # of the practised hand that the score is held against


def set_up(seed: int, level: Level, number: int = 0) -> StandIns:
    """Return the devices for the reading of this number: the same number reads the same again."""
    wall = build(seed, level)
    flat = level.surprises and Random(f"battery {seed}").random() < _FLAT_BATTERY
    return StandIns(wall, number, Faults(dead=True) if flat else None)


def swept(devices: StandIns, from_mm: float, to_mm: float, height_mm: float) -> list[Reading]:
    """One sweep of the finder, so far: from where it was put on to where it is, either way."""
    low, high = sorted((from_mm, to_mm))
    told = devices.sweep(0.0, devices.wall.width_mm, height_mm)
    kept: list[Reading] = [Sweep(from_mm=low, to_mm=high, height_mm=height_mm)]
    return kept + [r for r in told if isinstance(r, Edge) and low <= r.at_mm <= high]


def lit(readings: Sequence[Reading], at_mm: float) -> bool:
    """Whether the finder's lamp is on: the last edge told to the left of it was a left one."""
    edges = sorted((r.at_mm, r.side) for r in readings if isinstance(r, Edge) and r.at_mm <= at_mm)
    return bool(edges) and edges[-1][1] == "left"


def seen(hidden: HiddenWall, readings: Iterable[Reading], structure: str | None) -> Wall:
    """Return the wall as somebody in front of it knows it.

    Its size, its openings, its readings, and what they say it is made of.
    """
    return Wall(
        width_mm=hidden.width_mm,
        height_mm=HEIGHT_MM,
        structure=structure,
        features=hidden.openings,
        readings=tuple(readings),
        layers=(
            Layer(kind=hidden.lining, thickness_mm=data.linings()[hidden.lining].thickness_mm),
        ),
    )


class Tally(NamedTuple):
    """How some calls compare with the truth.

    `edge`: in the wood, but too near its edge for a screw.
    """

    found: int
    edge: int
    missed: int
    false: int
    services: int


def tally(hidden: HiddenWall, calls_mm: Iterable[float]) -> Tally:
    """Compare calls with what stands at chest height."""
    calls = list(calls_mm)
    members = hidden.members_at(CHEST_MM)
    best = [min((abs(x - m.centre_mm) for x in calls), default=1e9) for m in members]
    found = sum(off <= m.width_mm / 2 - SPARE_MM for off, m in zip(best, members, strict=True))
    touched = sum(off <= m.width_mm / 2 for off, m in zip(best, members, strict=True))
    false = sum(not _in_wood(members, x) for x in calls)
    services = sum(
        any(abs(x - s.centre_mm) <= s.width_mm / 2 + 3 for s in hidden.services) for x in calls
    )
    return Tally(found, touched - found, len(members) - touched, false, services)


def _in_wood(members: Iterable[Member], x: float) -> bool:
    return any(abs(x - m.centre_mm) <= m.width_mm / 2 for m in members)


class Score(NamedTuple):
    """How it went.

    The person's calls, what the inference makes of the same readings, and the fewest readings that
    suffice.

    `nails`: nails that met a pipe or a cable; `spent`: sweeps, searches, nails and knocks;
    `fewest`: None when a practised hand did not get there within forty readings either. `named`:
    whether what it is made of was named right; None when not said.
    """

    studs: int
    yours: Tally
    weighed: Tally
    nails: int
    spent: int
    fewest: int | None
    named: bool | None

    @property
    def hits(self) -> int:
        """How often a pipe or a cable would have been hit."""
        return self.yours.services + self.nails

    @property
    def perfect(self) -> bool:
        """Every stud called, nothing called that is none, nothing hit."""
        return self.yours.found == self.studs and not (self.yours.false or self.hits)


def score(
    seed: int,
    level: Level,
    calls_mm: Sequence[float],
    readings: Sequence[Reading],
    spent: int,
    structure: str | None,
) -> Score:
    """Uncover the wall.

    Args:
        seed: of the wall.
        level: of the wall.
        calls_mm: where the person says that studs are.
        readings: all that were taken.
        spent: how many uses of a tool they took.
        structure: what the person says it is made of; None when not said.
    """
    hidden = build(seed, level)
    weighed = [f.centre_mm for f in believed(hidden, readings, structure)]
    nails = sum(isinstance(r, Probe) and hidden.service_at(r.at_mm) is not None for r in readings)
    named = None if structure is None else _kind(structure) == _kind(hidden.structure)
    count = len(hidden.members_at(CHEST_MM))
    return Score(
        count,
        tally(hidden, calls_mm),
        tally(hidden, weighed),
        nails,
        spent,
        fewest(seed, level),
        named,
    )


def _kind(structure: str) -> str:
    return data.structures()[structure].kind


def believed(hidden: HiddenWall, readings: Iterable[Reading], structure: str | None) -> list[Found]:
    """Return the studs that the inference would count on, after these readings."""
    known = survey(seen(hidden, readings, structure)).inference
    return [f for f in known.studs if f.confidence != "doubtful"]


def fewest(seed: int, level: Level) -> int | None:
    """Return the fewest readings that found every stud and no false one, of four practised ways.

    The ways: none, one, two or three sweeps, the magnet along the wall where the finder is useless,
    then a nail wherever it would help most. The wall's make is taken as known. None: not within
    forty readings.
    """
    best: int | None = None
    for sweeps in (1, 2, 3, 0):
        spent = _practised(seed, level, sweeps, (best or _MOST_READINGS) - 1)
        best = spent if spent is not None else best
    return best


def _practised(seed: int, level: Level, sweeps: int, most: int) -> int | None:
    hidden = build(seed, level)
    readings: list[Reading] = []
    spent = 0

    def devices() -> StandIns:
        return set_up(seed, level, -1 - spent)

    for n in range(sweeps):
        readings += devices().sweep(0.0, hidden.width_mm, CHEST_MM - 100 + 200 * n)
        spent += 1
    if not sweeps:
        steps = ceil(hidden.width_mm / 190.0)
        for n in range(steps):
            readings += devices().search(hidden.width_mm * (n + 0.5) / steps, CHEST_MM)
            spent += 1
    while spent <= most:
        known = survey(seen(hidden, readings, hidden.structure)).inference
        got = tally(hidden, [f.centre_mm for f in known.studs if f.confidence != "doubtful"])
        if not (got.missed or got.false or got.edge):
            return spent
        if known.ask_mm is None:
            return None
        readings.append(devices().probe(known.ask_mm, CHEST_MM))
        spent += 1
    return None
