"""The framing that a door or a window implies.

Doubled uprights beside it, a header above, a sill and cripples below.
"""

from collections.abc import Iterable
from typing import Literal, NamedTuple

from msgspec.structs import replace

from trade import data
from trade.language import word
from trade.plan.features import Feature
from trade.plan.wall import Wall

STUD_MM = data.house("stud_mm")
SHIM_MM = data.house("shim_mm")
HEADER_MM = data.house("header_mm")
_BAY_MM = data.house("widest_bay_mm")
OFF_MM = data.house("uprights_off_mm")


class Member(NamedTuple):
    """A piece of framing to be expected: where, and what carpenters call it."""

    kind: Literal["king", "jack", "header", "sill"]
    left_mm: float
    right_mm: float
    bottom_mm: float
    top_mm: float


def jambs_mm(openings: Iterable[Feature]) -> tuple[float, ...]:
    """Centres of the doubled uprights (jack and king together) at both sides of each opening."""
    out = SHIM_MM + STUD_MM
    return tuple(x for o in openings for x in (o.left_mm - out, o.right_mm + out))


def members(openings: Iterable[Feature], width_mm: float, height_mm: float) -> tuple[Member, ...]:
    """Return what to expect about each opening.

    Cripples, short studs above and below, go on with the grid and are not named here.
    """
    found: list[Member] = []
    for o in openings:
        left = o.left_mm - SHIM_MM
        right = o.right_mm + SHIM_MM
        head = min(o.top_mm + SHIM_MM, height_mm)
        for jack, king in ((left - STUD_MM, left - 2 * STUD_MM), (right, right + STUD_MM)):
            found.append(Member(word("jack"), jack, jack + STUD_MM, 0.0, head))
            found.append(Member(word("king"), king, king + STUD_MM, 0.0, height_mm))
        found.append(
            Member(
                word("header"),
                left - STUD_MM,
                right + STUD_MM,
                head,
                min(head + HEADER_MM, height_mm),
            )
        )
        if o.bottom_mm > SHIM_MM + STUD_MM:
            found.append(
                Member(
                    word("sill"),
                    left,
                    right,
                    o.bottom_mm - SHIM_MM - STUD_MM,
                    o.bottom_mm - SHIM_MM,
                )
            )
    return tuple(m for m in found if m.right_mm > 0 and m.left_mm < width_mm)


def into_framing(thing: Feature, wall: Wall) -> Feature:
    """Return blocking from stud to stud, a header over its opening; anything else as it is.

    A board on the wall's face ends flush with the outer studs that it reaches.
    As it is, too, where no stud is known on both sides within the widest bay, or no opening below.
    """
    if thing.row.keep != "wood":
        return thing
    if thing.on_face:
        edges = [
            (stud.centre_mm - stud.width_mm / 2, stud.centre_mm + stud.width_mm / 2)
            for stud in wall.uprights
            if thing.left_mm - _BAY_MM / 2 <= stud.centre_mm <= thing.right_mm + _BAY_MM / 2
        ]
        if len(edges) < 2:
            return thing
        ends = min(left for left, _ in edges), max(right for _, right in edges)
        return replace(thing, left_mm=ends[0], right_mm=ends[1])
    if not thing.row.ends_n:
        over = [
            each
            for each in members(wall.openings, wall.width_mm, wall.height_mm)
            if each.kind == "header" and each.left_mm < thing.centre_mm < each.right_mm
        ]
        found = max(over, key=lambda each: each.bottom_mm, default=None)
        if found is None:
            return thing
        high = thing.top_mm - thing.bottom_mm
        top = min(found.bottom_mm + high, wall.height_mm)
        return replace(
            thing,
            left_mm=max(found.left_mm, 0.0),
            right_mm=min(found.right_mm, wall.width_mm),
            bottom_mm=min(found.bottom_mm, top - 1.0),
            top_mm=top,
        )
    left = max(
        (s.centre_mm + s.width_mm / 2 for s in wall.uprights if s.centre_mm <= thing.centre_mm),
        default=None,
    )
    right = min(
        (s.centre_mm - s.width_mm / 2 for s in wall.uprights if s.centre_mm > thing.centre_mm),
        default=None,
    )
    if left is None or right is None or not 0 < right - left <= _BAY_MM:
        return thing
    return replace(thing, left_mm=left, right_mm=right)
