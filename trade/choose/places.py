"""Where near a wished place a piece could hang.

On studs or by anchors, clear of what is on the wall and of what hangs there.
"""

from collections.abc import Iterator
from typing import Literal

from trade import data
from trade.choose import designs, slots
from trade.choose.slots import Limits, Slot
from trade.choose.wish import Wish
from trade.mounts import KINDS, fit, mount_of
from trade.mounts.base import Box
from trade.plan import AnyPiece, Plan
from trade.wall.zones import zones

Hold = Literal["studs", "anchors"]
_NEAR_MM = 50.0  # house rule: studs so near are worth moving to, and nobody looks for anchors


def places(plan: Plan, wish: Wish, kind: str) -> Iterator[tuple[Hold, list[Slot]]]:
    """Where it could go.

    On studs; and between them, where there are none or the policy lets anchors carry.

    At the wished height when there is room; else at the nearest height at which it clears what is
    in the way.
    """
    stock = designs.base(
        wish, kind, Slot(0.0, min(wish.length_mm, plan.wall.width_mm), (0.0,)), plan
    )
    if stock is None:
        return
    found: list[tuple[Hold, list[Slot]]] = []
    for raised in _heights(plan, wish, kind, stock):
        found = list(
            _places_at(plan, wish, kind, mount_of(stock).box(stock), raised, fit.headroom_mm(stock))
        )
        if any(where for _, where in found):
            break
    yield from found


def _places_at(
    plan: Plan, wish: Wish, kind: str, box: Box, raised: float, room_mm: float
) -> Iterator[tuple[Hold, list[Slot]]]:
    """The same at one height, so much above the wished one."""
    wall, policy = plan.wall, plan.policy
    row, every = data.ways()[kind], KINDS[kind].every_stud
    limits = Limits(
        policy.shift_mm, 0.0 if KINDS[kind].stands or wish.goes == "body" else policy.grow_mm
    )
    middle = wish.x_mm
    if row.ends:
        limits, middle = Limits(), wall.width_mm / 2 if row.ends == "both" else wish.length_mm / 2
        if row.ends == "corner" and wish.x_mm > wall.width_mm / 2:
            middle = wall.width_mm - wish.length_mm / 2
    low, high = box.bottom_mm + raised, box.top_mm + raised + room_mm
    blocked = (
        []
        if row.ends
        else [
            (left, right)
            for left, right, *_ in in_the_way(plan, wish, low, high, KINDS[kind].stands)
        ]
    )
    clear = slots.clear_studs(wall, low, high)
    if wall.build != "mass":
        found = slots.on_studs(wall, middle, wish.length_mm, limits, clear, blocked, every)
        if not every:
            all_of_them = slots.on_studs(wall, middle, wish.length_mm, limits, clear, blocked, True)
            found += [slot for slot in all_of_them if slot not in found]
        if found or wall.build == "steel":
            yield "studs", [slot._replace(raised_mm=raised) for slot in found]
        near = 0.0 if policy.anchors == "anchors_light" else _NEAR_MM
        if (
            policy.anchors == "studs_only"
            or wall.build == "steel"
            or (found and found[0].trouble_mm <= near)
        ):
            return
    loose = slots.anywhere(
        wall, middle, wish.length_mm, limits._replace(grow_mm=0.0), blocked, clear
    )
    if wall.build != "mass":
        on_wood = [
            sum(abs(slot.left_mm + x - stud) < 1 for x in slot.supports_mm for stud in clear)
            for slot in loose
        ]
        least = 1 if policy.anchors == "studs_first" else 0
        loose = [
            slot
            for slot, n in zip(loose, on_wood, strict=True)
            if least <= n < len(slot.supports_mm)
        ]
    yield "anchors", [slot._replace(raised_mm=raised) for slot in loose]


def _heights(plan: Plan, wish: Wish, kind: str, stock: AnyPiece) -> list[float]:
    """How far up or down it may go to clear what is in the way, nearest first.

    What stands or meets other walls stays.
    """
    if KINDS[kind].stands or data.ways()[kind].ends:
        return [0.0]
    box = mount_of(stock).box(stock)
    box = box._replace(top_mm=box.top_mm + fit.headroom_mm(stock))
    left, right = wish.x_mm - wish.length_mm / 2, wish.x_mm + wish.length_mm / 2
    tries = {0.0}
    for start, end, low, high, _ in in_the_way(plan, wish, box.bottom_mm, box.top_mm, False):
        if start < right and end > left:
            tries |= {high - box.bottom_mm, low - box.top_mm}
    roomy = [
        up for up in tries if box.bottom_mm + up >= 0 and box.top_mm + up <= plan.wall.height_mm
    ]
    return [0.0, *sorted((up for up in roomy if 0 < abs(up) <= plan.policy.shift_mm), key=abs)]


def in_the_way(
    plan: Plan, wish: Wish, bottom_mm: float, top_mm: float, stands: bool
) -> list[tuple[float, float, float, float, str]]:
    """What else takes the wall between two heights, from left to right.

    Left, right, bottom, top, and what it is.
    """
    taken = [
        (zone.left_mm, zone.right_mm, zone.bottom_mm, zone.top_mm, zone.reason)
        for zone in zones(plan.wall)
        if zone.level == "keep_out"
        and zone.bars == "hanging"
        and not (stands and not zone.bottom_mm)
    ]
    for piece in (each for each in plan.pieces if each.key != wish.key):
        box = mount_of(piece).box(piece)
        taken.append(
            (
                box.left_mm,
                box.right_mm,
                box.bottom_mm,
                box.top_mm + fit.headroom_mm(piece),
                f"“{piece.name}”",
            )
        )
    return sorted(each for each in taken if each[2] < top_mm - 1e-6 and each[3] > bottom_mm + 1e-6)


def blocker(plan: Plan, wish: Wish, kind: str) -> str:
    """What takes the wished place itself; nothing when it is free."""
    stock = designs.base(
        wish, kind, Slot(0.0, min(wish.length_mm, plan.wall.width_mm), (0.0,)), plan
    )
    if stock is None:
        return ""
    box, half = mount_of(stock).box(stock), wish.length_mm / 2
    taken = in_the_way(plan, wish, box.bottom_mm, box.top_mm, KINDS[kind].stands)
    return next(
        (
            name
            for left, right, _, _, name in taken
            if left < wish.x_mm + half and right > wish.x_mm - half
        ),
        "",
    )
