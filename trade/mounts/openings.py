"""Openings in a face for what is behind it and must be reached: outlets, grilles, valves.

A box with a cover plate comes forward to the face, and its plate covers the opening's edges; what
is open stays open.
"""

from collections.abc import Iterator
from typing import TypeVar

from msgspec.structs import replace

from trade import data
from trade.check import Message
from trade.language import compose
from trade.mounts.base import Ask, Box, Part
from trade.mounts.work import Opening
from trade.plan.features import Feature
from trade.plan.model import Bookcase, Cabinet, Panel, Wall

_LAP_MM = data.house("plate_lap_mm")
_RING_PRICE = data.house("ring_price")
_TOUCHING_MM = 1e-6
P = TypeVar("P", bound=Panel | Cabinet | Bookcase)


def behind(own: Box, wall: Wall) -> list[Feature]:
    """Return what is behind a piece, in part or whole, and must be reached."""
    return [
        f
        for f in wall.features
        if f.row.reach
        and min(own.right_mm, f.right_mm) - max(own.left_mm, f.left_mm) > _TOUCHING_MM
        and min(own.top_mm, f.top_mm) - max(own.bottom_mm, f.bottom_mm) > _TOUCHING_MM
    ]


def opening(
    f: Feature, face: tuple[float, float, float], forward_mm: float, where: str = ""
) -> Opening | None:
    """Return the opening in a face for one thing; None where the face does not reach it.

    Args:
        f: what is behind.
        face: left and right edge of the face, and its lower edge, on the wall, mm.
        forward_mm: how far the face stands out from the lining; 0: nobody knows.
        where: which of several faces it is, for those who cut it.
    """
    left, right, low = face
    lap = _LAP_MM if f.row.reach == "plate" else 0.0
    start, end = max(f.left_mm + lap, left), min(f.right_mm - lap, right)
    if end - start <= _TOUCHING_MM:
        return None
    what = compose("{what}, in {where}", what=f.row.reason, where=where) if where else f.row.reason
    plate = (f.right_mm - f.left_mm, f.top_mm - f.bottom_mm) if lap else None
    high = f.top_mm - f.bottom_mm - 2 * lap
    return Opening(
        what, start - left, f.bottom_mm + lap - low, end - start, high, plate, forward_mm
    )


CUT_OUT = Ask("cut_out", "Openings cut out of it for what it covers", "flag")


def cure(piece: P) -> Iterator[tuple[str, Message, P]]:
    """Yield it with openings for what is behind it, where it has none."""
    if not piece.cut_out:
        label = Message("Cut openings out of it for the boxes behind it")
        yield "cut_out", label, replace(piece, cut_out=True)


def told(own: Box, wall: Wall, forward_mm: float) -> list[Message]:
    """Return how the openings in a body's back are cut: from its left side and its foot."""
    face = (own.left_mm, own.right_mm, own.bottom_mm)
    cut = (opening(f, face, forward_mm) for f in behind(own, wall))
    return [each.phrase("metric") for each in cut if each is not None]


def rings(own: Box, wall: Wall) -> list[Part]:
    """Return the extension rings that bring the boxes behind it forward."""
    many = sum(f.row.reach == "plate" for f in behind(own, wall))
    ring = Part("extension ring", "electrical box", many, price=_RING_PRICE)
    return [ring] if many else []
