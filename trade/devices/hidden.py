"""Hidden walls, drawn from a seed: framing as carpenters do it, with openings, services and mistakes."""

from itertools import pairwise
from random import Random
from typing import Literal, NamedTuple

_INCH = 25.4
SPACINGS_MM = (16 * _INCH, 24 * _INCH, 400.0, 600.0)
STUD_MM = 38.0


class Member(NamedTuple):
    """An upright: its centre and width; `kind` double where two stand side by side, as next to an opening."""

    centre_mm: float
    width_mm: float
    kind: Literal["single", "double"]


class Service(NamedTuple):
    """A pipe or a cable that runs up the wall."""

    centre_mm: float
    width_mm: float
    kind: Literal["pipe", "cable"]


class HiddenWall(NamedTuple):
    """The truth behind a lining. `openings_mm`: from and to; nothing stands between at the height of a door."""

    seed: int
    width_mm: float
    spacing_mm: float
    members: tuple[Member, ...]
    services: tuple[Service, ...]
    openings_mm: tuple[tuple[float, float], ...]

    def member_at(self, x_mm: float) -> Member | None:
        """The upright behind a place."""
        return next((m for m in self.members if abs(m.centre_mm - x_mm) <= m.width_mm / 2), None)

    def service_at(self, x_mm: float) -> Service | None:
        """The pipe or cable behind a place."""
        return next((s for s in self.services if abs(s.centre_mm - x_mm) <= s.width_mm / 2), None)


def build(seed: int) -> HiddenWall:
    """A wall of 2 to 6 m. Studs on a grid laid out from either end, each a few mm off, one in twenty carelessly so.

    One wall in three has a door, with doubled studs off the grid at its sides; pipes stand between studs, cables beside them.
    """
    draw = Random(seed)
    width = draw.uniform(2000, 6000)
    spacing = draw.choice(SPACINGS_MM)
    layout = [spacing * n for n in range(1, int((width - 60) / spacing) + 1)]
    grid = layout if draw.random() < 0.5 else [width - x for x in layout]
    studs = [x + draw.gauss(0, 15.0 if draw.random() < 0.05 else 3.0) for x in grid]
    opening: tuple[tuple[float, float], ...] = ()
    if draw.random() < 0.33 and width > 2400:
        start = draw.uniform(450, width - 450 - 860)
        opening = ((start, start + 860.0),)
    # the end studs stand against the next walls, whose linings hide some of them
    ends = (STUD_MM / 2 + draw.gauss(0, 4.0), width - STUD_MM / 2 + draw.gauss(0, 4.0))
    members = [Member(x, STUD_MM, "single") for x in ends]
    for start, end in opening:
        members += [Member(start - STUD_MM, 2 * STUD_MM, "double"), Member(end + STUD_MM, 2 * STUD_MM, "double")]
    for x in studs:
        clear_of_opening = all(x < start - 130 or x > end + 130 for start, end in opening)
        if clear_of_opening and 100 < x < width - 100:
            members.append(Member(x, STUD_MM, "single"))
    members.sort()
    return HiddenWall(seed, width, spacing, tuple(members), tuple(_services(draw, members, opening)), opening)


def _services(draw: Random, members: list[Member], openings: tuple[tuple[float, float], ...]) -> list[Service]:
    found: list[Service] = []
    for left, right in pairwise(members):
        room = right.centre_mm - right.width_mm / 2 - left.centre_mm - left.width_mm / 2
        middle = (left.centre_mm + right.centre_mm) / 2
        if room < 150 or any(start < middle < end for start, end in openings):
            continue
        chance = draw.random()
        if chance < 0.08:
            edge = left.centre_mm + left.width_mm / 2
            found.append(Service(draw.uniform(edge + 45, edge + room - 45), draw.uniform(15, 28), "pipe"))
        elif chance < 0.30:
            found.append(Service(left.centre_mm + left.width_mm / 2 + draw.uniform(8, 25), 10.0, "cable"))
    return found
