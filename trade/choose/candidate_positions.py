"""Where near a wished place a piece could hang.

On studs or by anchors, clear of what is on the wall and of what hangs there.
"""

from collections.abc import Iterator
from typing import Literal

from trade import data
from trade.choose import candidates, stud_layouts
from trade.choose.request import HangRequest
from trade.choose.stud_layouts import Limits, StudLayout
from trade.mounts import KINDS, fit, mount_of
from trade.mounts.base import Box
from trade.plan.model import AnyPiece, Plan
from trade.wall.zones import zones

HeldBy = Literal["studs", "anchors"]
_NEAR_MM = data.house("studs_near_mm")


def positions(
    plan: Plan, request: HangRequest, kind: str
) -> Iterator[tuple[HeldBy, list[StudLayout]]]:
    """Where it could go.

    On studs; and between them, where there are none or the policy lets anchors carry.

    At the wished height when there is room; else at the nearest height at which it clears what is
    in the way.
    """
    stock = candidates.base(
        request, kind, StudLayout(0.0, min(request.length_mm, plan.wall.width_mm), (0.0,)), plan
    )
    if stock is None:
        return
    found: list[tuple[HeldBy, list[StudLayout]]] = []
    for raised in _heights(plan, request, kind, stock):
        found = list(
            _places_at(
                plan, request, kind, mount_of(stock).box(stock), raised, fit.headroom_mm(stock)
            )
        )
        if any(where for _, where in found):
            break
    yield from found


def _places_at(
    plan: Plan, request: HangRequest, kind: str, box: Box, raised: float, room_mm: float
) -> Iterator[tuple[HeldBy, list[StudLayout]]]:
    """Yield the same at one height, so much above the wished one."""
    wall, policy = plan.wall, plan.policy
    row, every = data.mounting_kinds()[kind], KINDS[kind].every_stud
    limits = Limits(
        policy.shift_mm, 0.0 if KINDS[kind].stands or request.goes == "body" else policy.grow_mm
    )
    middle = request.x_mm
    if row.ends:
        limits, middle = (
            Limits(),
            wall.width_mm / 2 if row.ends == "both" else request.length_mm / 2,
        )
        if row.ends == "corner" and request.x_mm > wall.width_mm / 2:
            middle = wall.width_mm - request.length_mm / 2
    low, high = box.bottom_mm + raised, box.top_mm + raised + room_mm
    blocked = (
        []
        if row.ends
        else [
            (left, right)
            for left, right, *_ in in_the_way(plan, request, low, high, KINDS[kind].stands)
        ]
    )
    clear = stud_layouts.clear_studs(wall, low, high)
    if wall.build != "mass":
        found = stud_layouts.on_studs(
            wall, middle, request.length_mm, limits, clear, blocked, every
        )
        if not every:
            all_of_them = stud_layouts.on_studs(
                wall, middle, request.length_mm, limits, clear, blocked, True
            )
            found += [layout for layout in all_of_them if layout not in found]
        if found or wall.build == "steel":
            yield "studs", [layout._replace(raised_mm=raised) for layout in found]
        near = 0.0 if policy.anchors == "anchors_light" else _NEAR_MM
        if (
            policy.anchors == "studs_only"
            or wall.build == "steel"
            or (found and found[0].trouble_mm <= near)
        ):
            return
    loose = stud_layouts.anywhere(
        wall, middle, request.length_mm, limits._replace(grow_mm=0.0), blocked, clear
    )
    if wall.build != "mass":
        on_wood = [
            sum(abs(layout.left_mm + x - stud) < 1 for x in layout.supports_mm for stud in clear)
            for layout in loose
        ]
        least = 1 if policy.anchors == "studs_first" else 0
        loose = [
            layout
            for layout, n in zip(loose, on_wood, strict=True)
            if least <= n < len(layout.supports_mm)
        ]
    yield "anchors", [layout._replace(raised_mm=raised) for layout in loose]


def _heights(plan: Plan, request: HangRequest, kind: str, stock: AnyPiece) -> list[float]:
    """How far up or down it may go to clear what is in the way, nearest first.

    What stands or meets other walls stays.
    """
    if KINDS[kind].stands or data.mounting_kinds()[kind].ends:
        return [0.0]
    box = mount_of(stock).box(stock)
    box = box._replace(top_mm=box.top_mm + fit.headroom_mm(stock))
    left, right = request.x_mm - request.length_mm / 2, request.x_mm + request.length_mm / 2
    tries = {0.0}
    for start, end, low, high, _ in in_the_way(plan, request, box.bottom_mm, box.top_mm, False):
        if start < right and end > left:
            tries |= {high - box.bottom_mm, low - box.top_mm}
    roomy = [
        up for up in tries if box.bottom_mm + up >= 0 and box.top_mm + up <= plan.wall.height_mm
    ]
    return [0.0, *sorted((up for up in roomy if 0 < abs(up) <= plan.policy.shift_mm), key=abs)]


def in_the_way(
    plan: Plan, request: HangRequest, bottom_mm: float, top_mm: float, stands: bool
) -> list[tuple[float, float, float, float, str]]:
    """Return what else takes the wall between two heights, from left to right.

    Left, right, bottom, top, and what it is.
    """
    taken = [
        (zone.left_mm, zone.right_mm, zone.bottom_mm, zone.top_mm, zone.reason)
        for zone in zones(plan.wall)
        if zone.level == "keep_out"
        and zone.bars == "hanging"
        and not (stands and not zone.bottom_mm)
    ]
    for piece in (each for each in plan.pieces if each.key != request.key):
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


def blocker(plan: Plan, request: HangRequest, kind: str) -> str:
    """Return what takes the wished place itself; nothing when it is free."""
    stock = candidates.base(
        request, kind, StudLayout(0.0, min(request.length_mm, plan.wall.width_mm), (0.0,)), plan
    )
    if stock is None:
        return ""
    box, half = mount_of(stock).box(stock), request.length_mm / 2
    taken = in_the_way(plan, request, box.bottom_mm, box.top_mm, KINDS[kind].stands)
    return next(
        (
            name
            for left, right, _, _, name in taken
            if left < request.x_mm + half and right > request.x_mm - half
        ),
        "",
    )
