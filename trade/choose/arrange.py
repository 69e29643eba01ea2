"""Several things on one wall.

Each the best way, as near as there is room to where it was wished, none in another's way.
"""

from math import hypot
from typing import NamedTuple

from msgspec.structs import replace

from trade.assess import judge_piece
from trade.choose.spots import Column, nearest_height, settled, spots
from trade.choose.ways import ways
from trade.choose.wish import Wish
from trade.memo import memoized
from trade.plan import AnyPiece, Plan

_STEP_MM = 50.0


class Arranged(NamedTuple):
    """A plan with more on it, and which wishes found no place; `moved_mm`.

    How far each that did is from where it was wished.
    """

    plan: Plan
    placed: tuple[AnyPiece, ...]
    moved_mm: tuple[float, ...]
    left_over: tuple[Wish, ...]


def arrange(plan: Plan, wishes: tuple[Wish, ...]) -> Arranged:
    """Hang several things, the first first.

    Each where it was wished, else at the nearest place that is free and holds it.

    Args:
        plan: the wall and what hangs there, which stays where it is.
        wishes: what shall hang, each with a key of its own.
    """
    placed: list[AnyPiece] = []
    moved: list[float] = []
    left_over: list[Wish] = []
    for wish in wishes:
        found = _place(plan, wish)
        if found is None:
            left_over.append(wish)
            continue
        placed.append(found)
        moved.append(_distance(found, wish))
        plan = plan.with_piece(found)
    return Arranged(plan, tuple(placed), tuple(moved), tuple(left_over))


def _place(plan: Plan, wish: Wish) -> AnyPiece | None:
    """The best way where it was wished.

    Else the best way on the bare wall, at the nearest place that is free.
    """
    best = ways(plan, wish).best
    if best is not None and best.word == "holds":
        return best.piece
    bare = replace(plan, pieces=())
    for pattern in _patterns(bare, replace(wish, key="new", name="New")):
        piece = nearest(
            replace(pattern, key=wish.key, name=wish.name), plan, wish.x_mm, wish.top_mm
        )
        if piece is not None:
            return piece
    return None


@memoized(limit=16)
def _patterns(bare: Plan, wish: Wish) -> tuple[AnyPiece, ...]:
    """Return the two best ways for a wish on the bare wall: there, or else in its middle."""
    for x_mm in (wish.x_mm, bare.wall.width_mm / 2):
        found = [
            way.piece for way in ways(bare, replace(wish, x_mm=x_mm)).found if way.word == "holds"
        ]
        if found:
            return tuple(found[:2])
    return ()


def nearest(piece: AnyPiece, plan: Plan, x_mm: float, top_mm: float) -> AnyPiece | None:
    """Return a piece at the nearest place where it is free and holds; None if there is none."""
    carried = sum(thing.mass_kg or 0.0 for thing in piece.things)
    columns = [
        column for column in spots(piece, plan, _STEP_MM) if column.kg >= carried and column.kg > 0
    ]

    def far(column: Column) -> float:
        return hypot(
            column.left_mm + piece.length_mm / 2 - x_mm, nearest_height(column, top_mm) - top_mm
        )

    for column in sorted(columns, key=far):
        placed = settled(
            replace(piece, left_mm=column.left_mm, top_mm=nearest_height(column, top_mm)), plan.wall
        )
        if judge_piece(placed, plan.with_piece(placed)).word == "holds":
            return placed
    return None


def _distance(piece: AnyPiece, wish: Wish) -> float:
    return hypot(piece.left_mm + piece.length_mm / 2 - wish.x_mm, piece.top_mm - wish.top_mm)
