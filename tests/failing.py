"""Plans that fail: every kind in turn, on six walls, loaded and put up as it comes."""

import random
from collections.abc import Iterator
from typing import Any

from msgspec.structs import replace

from tests.plans import GYPSUM, STUDS, wall
from trade import data
from trade.assess import judge_piece
from trade.check import FAILED
from trade.choose import placement
from trade.errors import PlanError
from trade.mounts import KINDS
from trade.plan.model import Layer, Plan, Thing, Wall

_IN_THE_CORNER = replace(STUDS[0], centre_mm=30.0)
_CLOSE = (_IN_THE_CORNER, *STUDS)  # at 400 mm
_WIDE = tuple(replace(STUDS[0], centre_mm=x) for x in (30.0, *(609.6 * n for n in range(1, 6))))
WALLS: dict[str, Wall] = {
    "timber_16": wall(studs=_CLOSE),
    "timber_24": wall(studs=_WIDE),
    "steel": wall(studs=_CLOSE, structure="steel_20"),
    "brick": wall(studs=(), layers=(), structure="brick_solid"),
    "block": wall(studs=(), layers=(), structure="block_hollow"),
    "lath": wall(studs=_CLOSE, layers=(Layer(kind="plaster_lath", thickness_mm=22.0),)),
}
assert WALLS["timber_16"].layers == GYPSUM


def failing(seed: int, many: int) -> Iterator[Plan]:
    """Yield plans of one piece that won't hold or doesn't fit, as many of each kind."""
    dice = random.Random(seed)
    kinds, found = sorted(KINDS), 0
    while found < many:
        plan = _drawn(kinds[found % len(kinds)], dice)
        if plan is not None and judge_piece(plan.pieces[0], plan).outcome in FAILED:
            found += 1
            yield plan


def _drawn(kind: str, dice: random.Random) -> Plan | None:
    """Return a piece as somebody may have put it up, with what somebody may have put on it."""
    on, units = dice.choice(list(WALLS.values())), dice.choice(("imperial", "metric"))
    mount = KINDS[kind]
    try:
        piece: Any = placement.put_up(
            Plan(name="Wall", units=units, wall=on), kind, dice.uniform(300, 2900), 1500.0
        )
        changed: dict[str, Any] = {
            "things": tuple(
                Thing(name="Load", mass_kg=round(10 ** dice.uniform(0.3, 2.0), 1))
                for _ in range(dice.choice((1, 1, 2)))
            ),
            "use": dice.choice(sorted(data.uses())),
            "left_mm": piece.left_mm + dice.choice((0.0, 0.0, 6.0, 60.0, 130.0, -90.0)),
        }
        if mount.has_body:
            changed["body_kg"] = dice.choice((8.0, 18.0, 30.0))
        if mount.board_of(piece) and dice.random() < 0.4:
            changed["board"] = dice.choice(sorted(data.woods()))
        if dice.random() < 0.2:
            changed["screw_length_mm"] = dice.choice((38.1, 50.8, 101.6))
        if dice.random() < 0.2:
            changed["anchor"] = dice.choice(("plug_8", "toggle_14", None))
        piece = mount.confirmed(mount.landed(replace(piece, **changed), on))
        return Plan(name="Wall", units=units, wall=on, pieces=(piece,))
    except PlanError:
        return None
