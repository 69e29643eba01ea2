"""Hidden walls, drawn from a seed.

Framing as carpenters do it, with openings, services and mistakes.
"""

from itertools import pairwise
from random import Random
from typing import Literal, NamedTuple

from trade.errors import PlanError
from trade.measure import IN_MM
from trade.plan.features import Feature, usual
from trade.wall.framing import SHIM_MM, STUD_MM

HEIGHT_MM = 2440.0
SPACINGS_MM = (16 * IN_MM, 24 * IN_MM, 400.0, 600.0)


class Member(NamedTuple):
    """An upright: its centre and width; `kind` double where two stand side by side.

    A cripple stands on part of the height.
    """

    centre_mm: float
    width_mm: float
    kind: Literal["single", "double"]
    bottom_mm: float = 0.0
    top_mm: float = HEIGHT_MM


class Service(NamedTuple):
    """A pipe or a cable that runs up the wall."""

    centre_mm: float
    width_mm: float
    kind: Literal["pipe", "cable"]


class Unevenness(NamedTuple):
    """How the wall and its neighbours lie.

    Ceiling and floor fall to the right by so much; the wall is hollow at mid width; its top leans
    into the room; corners are open where they are over 90 degrees.
    """

    ceiling_mm_per_m: float = 0.0
    floor_mm_per_m: float = 0.0
    hollow_mm: float = 0.0
    lean_mm_per_m: float = 0.0
    left_deg: float = 90.0
    right_deg: float = 90.0


class HiddenWall(NamedTuple):
    """The truth behind a lining.

    `structure` as in the structures table; `patches`: centres and widths of what fools a finder.
    """

    seed: int
    width_mm: float
    spacing_mm: float
    members: tuple[Member, ...]
    services: tuple[Service, ...] = ()
    openings: tuple[Feature, ...] = ()
    structure: str = "timber"
    lining: str = "gypsum_12_7"
    foil: bool = False
    patches: tuple[tuple[float, float], ...] = ()
    unevenness: Unevenness = Unevenness()

    def members_at(self, height_mm: float) -> tuple[Member, ...]:
        """Return the uprights that stand at a height."""
        return tuple(m for m in self.members if m.bottom_mm <= height_mm <= m.top_mm)

    def member_at(self, x_mm: float, height_mm: float) -> Member | None:
        """Return the upright behind a place."""
        return next(
            (m for m in self.members_at(height_mm) if abs(m.centre_mm - x_mm) <= m.width_mm / 2),
            None,
        )

    def service_at(self, x_mm: float) -> Service | None:
        """Return the pipe or cable behind a place."""
        return next((s for s in self.services if abs(s.centre_mm - x_mm) <= s.width_mm / 2), None)

    def open_at(self, x_mm: float, height_mm: float) -> bool:
        """Whether there is a door or a window and no wall at a place."""
        return any(
            o.left_mm <= x_mm <= o.right_mm and o.bottom_mm <= height_mm <= o.top_mm
            for o in self.openings
        )


class Level(NamedTuple):
    """How hard hidden walls are.

    Chances are of a wall, `services` of each bay, `careless` of each stud.
    """

    name: str
    words: str
    openings: float = 0.33
    services: tuple[float, float] = (0.08, 0.22)
    careless: float = 0.05
    patches: float = 0.0
    width_mm: tuple[float, float] = (2000.0, 6000.0)
    lining: str = "gypsum_12_7"
    surprises: bool = False


USUAL = Level("Usual", "Walls as they come.")
LEVELS: dict[str, Level] = {
    "plain": Level(
        "Plain", "Studs on a grid, nothing else.", 0.0, (0.0, 0.0), 0.0, width_mm=(2000.0, 2800.0)
    ),
    "services": Level(
        "Pipes and cables",
        "Not all that beeps is wood.",
        0.0,
        (0.25, 0.35),
        0.05,
        width_mm=(2200.0, 3200.0),
    ),
    "opening": Level(
        "A door or a window", "Doubled studs off the grid.", 1.0, width_mm=(2900.0, 3800.0)
    ),
    "careless": Level(
        "Careless framing",
        "Studs off the grid, patches that fool the finder.",
        0.4,
        (0.15, 0.3),
        0.3,
        0.8,
        (2400.0, 3800.0),
    ),
    "plaster": Level(
        "Plaster on lath",
        "The finder is useless here.",
        0.3,
        (0.1, 0.2),
        0.2,
        width_mm=(2200.0, 3200.0),
        lining="plaster_lath",
    ),
    "anything": Level(
        "Whatever it is",
        "Steel, masonry, foil, a flat battery: find out.",
        0.3,
        (0.1, 0.2),
        0.1,
        0.3,
        (2200.0, 3600.0),
        surprises=True,
    ),
}


def level_named(key: str) -> Level:
    """Return a level by its key.

    Raises:
        PlanError: there is none.
    """
    if key not in LEVELS:
        raise PlanError(f"“{key}” is no level. Levels: {', '.join(LEVELS)}.", "level")
    return LEVELS[key]


def build(seed: int, level: Level = USUAL) -> HiddenWall:
    """Return a wall of 2 to 6 m.

    Studs on a grid laid out from either end, each a few mm off, some carelessly so.

    Beside a door or a window studs stand doubled, off the grid; above and below it cripples go on
    with the grid. Pipes stand between studs, cables beside them.
    """
    draw = Random(seed)
    width = draw.uniform(*level.width_mm)
    spacing = draw.choice(SPACINGS_MM)
    layout = [spacing * n for n in range(1, int((width - 60) / spacing) + 1)]
    grid = layout if draw.random() < 0.5 else [width - x for x in layout]
    studs = [x + draw.gauss(0, 15.0 if draw.random() < level.careless else 3.0) for x in grid]
    openings: tuple[Feature, ...] = ()
    if draw.random() < level.openings and width > 2400:
        openings = (_opening(draw, width),)
    structure, foil = _surprise(draw) if level.surprises else ("timber", False)
    unevenness = Unevenness(
        draw.gauss(0, 4),
        draw.gauss(0, 4),
        draw.gauss(0, 5),
        draw.gauss(0, 3),
        90 + draw.gauss(0, 0.6),
        90 + draw.gauss(0, 0.6),
    )
    lining = level.lining
    if structure == "brick_solid":
        return HiddenWall(
            seed, width, spacing, (), (), openings, structure, "render", False, (), unevenness
        )
    members = _members(
        draw, studs, width, openings, 32.0 if structure.startswith("steel") else STUD_MM
    )
    services = tuple(_services(draw, members, openings, level.services))
    patches = _patches(draw, members) if draw.random() < level.patches else ()
    return HiddenWall(
        seed,
        width,
        spacing,
        tuple(members),
        services,
        openings,
        structure,
        lining,
        foil,
        patches,
        unevenness,
    )


def _surprise(draw: Random) -> tuple[str, bool]:
    return draw.choice(
        (
            ("timber", False),
            ("timber", True),
            ("steel_25", False),
            ("steel_20", False),
            ("brick_solid", False),
        )
    )


def _opening(draw: Random, width: float) -> Feature:
    kind = draw.choice(("door", "window"))
    wide = 860.0 if kind == "door" else 914.0
    centre = draw.uniform(450 + wide / 2, width - 450 - wide / 2)
    return usual(kind, centre, None, (width, HEIGHT_MM))


def _members(
    draw: Random, studs: list[float], width: float, openings: tuple[Feature, ...], wide: float
) -> list[Member]:
    # the end studs stand against the next walls, whose linings hide some of them
    ends = (wide / 2 + draw.gauss(0, 4.0), width - wide / 2 + draw.gauss(0, 4.0))
    members = [Member(x, wide, "single") for x in ends]
    for o in openings:
        out = SHIM_MM + wide
        for x in (o.left_mm - out, o.right_mm + out):
            members.append(Member(x + draw.gauss(0, 5.0), 2 * wide, "double"))
    for x in studs:
        if not 100 < x < width - 100:
            continue
        if all(x < o.left_mm - 170 or x > o.right_mm + 170 for o in openings):
            members.append(Member(x, wide, "single"))
        members += [
            Member(x, wide, "single", bottom, top)
            for o in openings
            if o.left_mm + 20 < x < o.right_mm - 20
            for bottom, top in ((0.0, o.bottom_mm - 70), (o.top_mm + 180, HEIGHT_MM))
            if top > bottom
        ]
    return sorted(members)


def _services(
    draw: Random, members: list[Member], openings: tuple[Feature, ...], chances: tuple[float, float]
) -> list[Service]:
    found: list[Service] = []
    full = [m for m in members if m.top_mm - m.bottom_mm > HEIGHT_MM - 1]
    for left, right in pairwise(full):
        room = right.centre_mm - right.width_mm / 2 - left.centre_mm - left.width_mm / 2
        middle = (left.centre_mm + right.centre_mm) / 2
        if room < 150 or any(o.left_mm < middle < o.right_mm for o in openings):
            continue
        chance = draw.random()
        if chance < chances[0]:
            edge = left.centre_mm + left.width_mm / 2
            found.append(
                Service(draw.uniform(edge + 45, edge + room - 45), draw.uniform(15, 28), "pipe")
            )
        elif chance < sum(chances):
            found.append(
                Service(left.centre_mm + left.width_mm / 2 + draw.uniform(8, 25), 10.0, "cable")
            )
    return found


def _patches(draw: Random, members: list[Member]) -> tuple[tuple[float, float], ...]:
    """One filled hole or joint, well away from any upright."""
    gaps = [(a, b) for a, b in pairwise(members) if b.centre_mm - a.centre_mm > 300]
    if not gaps:
        return ()
    left, right = draw.choice(gaps)
    return ((draw.uniform(left.centre_mm + 120, right.centre_mm - 120), draw.uniform(30, 50)),)
