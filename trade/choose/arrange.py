"""Several things on one wall.

Each the best way, as near as there is room to where it was wished, none in another's way.
"""

from math import hypot
from typing import NamedTuple

from msgspec.structs import replace

from trade.assess import judge_piece
from trade.choose.capacity_map import Column, map_capacity, nearest_height, settled
from trade.choose.options import find_options
from trade.choose.request import HangRequest
from trade.memo import memoized
from trade.plan.model import AnyPiece, Plan

_STEP_MM = 50.0


class Arranged(NamedTuple):
    """A plan with more on it, and which wishes found no place; `moved_mm`.

    How far each that did is from where it was wished.
    """

    plan: Plan
    placed: tuple[AnyPiece, ...]
    moved_mm: tuple[float, ...]
    left_over: tuple[HangRequest, ...]


def arrange(plan: Plan, wishes: tuple[HangRequest, ...]) -> Arranged:
    """Hang several things, the first first.

    Each where it was wished, else at the nearest place that is free and holds it.

    Args:
        plan: the wall and what hangs there, which stays where it is.
        wishes: what shall hang, each with a key of its own.
    """
    placed: list[AnyPiece] = []
    moved: list[float] = []
    left_over: list[HangRequest] = []
    for request in wishes:
        found = _place(plan, request)
        if found is None:
            left_over.append(request)
            continue
        placed.append(found)
        moved.append(_distance(found, request))
        plan = plan.with_piece(found)
    return Arranged(plan, tuple(placed), tuple(moved), tuple(left_over))


def _place(plan: Plan, request: HangRequest) -> AnyPiece | None:
    """Return the best way where it was wished.

    Else the best way on the bare wall, at the nearest place that is free.
    """
    best = find_options(plan, request).best
    if best is not None and best.outcome == "holds":
        return best.piece
    bare = replace(plan, pieces=())
    for pattern in _patterns(bare, replace(request, key="new", name="New")):
        piece = nearest(
            replace(pattern, key=request.key, name=request.name), plan, request.x_mm, request.top_mm
        )
        if piece is not None:
            return piece
    return None


@memoized(limit=16)
def _patterns(bare: Plan, request: HangRequest) -> tuple[AnyPiece, ...]:
    """Return the two best ways for a wish on the bare wall: there, or else in its middle."""
    for x_mm in (request.x_mm, bare.wall.width_mm / 2):
        found = [
            way.piece
            for way in find_options(bare, replace(request, x_mm=x_mm)).found
            if way.outcome == "holds"
        ]
        if found:
            return tuple(found[:2])
    return ()


def nearest(piece: AnyPiece, plan: Plan, x_mm: float, top_mm: float) -> AnyPiece | None:
    """Return a piece at the nearest place where it is free and holds; None if there is none."""
    carried = sum(thing.mass_kg or 0.0 for thing in piece.things)
    columns = [
        column
        for column in map_capacity(piece, plan, _STEP_MM)
        if column.kg >= carried and column.kg > 0
    ]

    def far(column: Column) -> float:
        return hypot(
            column.left_mm + piece.length_mm / 2 - x_mm, nearest_height(column, top_mm) - top_mm
        )

    for column in sorted(columns, key=far):
        placed = settled(
            replace(piece, left_mm=column.left_mm, top_mm=nearest_height(column, top_mm)), plan.wall
        )
        if judge_piece(placed, plan.with_piece(placed)).outcome == "holds":
            return placed
    return None


def _distance(piece: AnyPiece, request: HangRequest) -> float:
    return hypot(piece.left_mm + piece.length_mm / 2 - request.x_mm, piece.top_mm - request.top_mm)
