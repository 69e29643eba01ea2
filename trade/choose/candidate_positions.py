"""Where near a wished place a piece could hang.

On studs or by anchors, clear of what is on the wall and of what hangs there.
"""

from collections.abc import Iterator, Sequence
from math import ceil, floor
from typing import Literal

from trade import data
from trade.choose import candidates, stud_layouts
from trade.choose.request import FINE_MM, WHOLE_MM, HangRequest
from trade.choose.stud_layouts import Limits, StudLayout
from trade.fixings.support import Support
from trade.mounts import KINDS, fit, mount_of
from trade.mounts.base import Box
from trade.plan.model import AnyPiece, Plan
from trade.wall.backing import stretches_of_wood, wood_of
from trade.wall.zones import zones

HeldBy = Literal["studs", "blocking", "anchors"]
_NEAR_MM = data.house("studs_near_mm")


def positions(
    plan: Plan, request: HangRequest, kind: str
) -> Iterator[tuple[HeldBy, list[StudLayout]]]:
    """Where it could go.

    On studs; on blocking or a header that is there; and between them, where there are none or the
    policy lets anchors carry.

    At the wished height when there is room; else at the nearest height at which it clears what is
    in the way. On blocking at the nearest height at which its screws meet that.
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
    if where := _on_blocking(plan, request, kind, stock):
        yield "blocking", where


def _places_at(
    plan: Plan, request: HangRequest, kind: str, box: Box, raised: float, room_mm: float
) -> Iterator[tuple[HeldBy, list[StudLayout]]]:
    """Yield the same at one height, so much above the wished one."""
    wall, length, every = plan.wall, request.length_mm, KINDS[kind].every_stud
    middle, limits = _wished(plan, request, kind)
    low, high = box.bottom_mm + raised, box.top_mm + raised + room_mm
    blocked = (
        []
        if data.mounting_kinds()[kind].ends
        else [
            (left, right)
            for left, right, *_ in in_the_way(plan, request, low, high, KINDS[kind].stands)
        ]
    )
    clear = stud_layouts.clear_studs(wall, low, high)
    if wall.build != "mass":
        found = stud_layouts.on_studs(wall, middle, length, limits, clear, blocked, every)
        if not every:
            more = stud_layouts.on_studs(wall, middle, length, limits, clear, blocked, True)
            found += [layout for layout in more if layout not in found]
        if found or wall.build == "steel":
            yield "studs", [layout._replace(raised_mm=raised) for layout in found]
        if not request.held_with.startswith("anchor:") and not _anchors_too(plan, found):
            return
    limits = limits._replace(grow_mm=0.0)
    loose = stud_layouts.anywhere(wall, middle, length, limits, blocked, clear)
    if wall.build != "mass":
        least = 1 if plan.policy.anchors == "studs_first" else 0
        loose = [
            layout for layout in loose if least <= _on_wood(layout, clear) < len(layout.supports_mm)
        ]
    yield "anchors", [layout._replace(raised_mm=raised) for layout in loose]


def _on_blocking(plan: Plan, request: HangRequest, kind: str, stock: AnyPiece) -> list[StudLayout]:
    """Return places where all its screws meet blocking or a header, up or down from the wish."""
    wall, mount = plan.wall, KINDS[kind]
    supports = mount.supports(stock, wall) if wall.build == "timber" and wood_of(wall) else ()
    heights = [y for each in supports if isinstance(each, Support) for _, y in each.holes]
    if not heights or mount.stands or data.mounting_kinds()[kind].ends:
        return []
    middle, limits = _wished(plan, request, kind)
    limits = limits._replace(grow_mm=0.0)
    box, off, found = mount.box(stock), data.house("across_edge_mm"), list[StudLayout]()
    room, fine = fit.headroom_mm(stock), FINE_MM[plan.units]
    for wood in wood_of(wall):
        least, most = wood.bottom_mm + off - min(heights), wood.top_mm - off - max(heights)
        raised = ceil(least / fine) * fine if least > 0 else floor(min(most, 0.0) / fine) * fine
        low, high = box.bottom_mm + raised, box.top_mm + raised
        out = not least <= raised <= most or abs(raised) > plan.policy.shift_mm
        if out or low < 0 or high > wall.height_mm:
            continue
        taken = in_the_way(plan, request, low, high + room, mount.stands)
        blocked = [(left, right) for left, right, *_ in taken]
        clear = stud_layouts.clear_studs(wall, low, high)
        stretches = stretches_of_wood(wall, [y + raised for y in heights])
        for layout in stud_layouts.in_wood(
            wall, middle, request.length_mm, limits, stretches, blocked, clear
        ):
            layout = layout._replace(raised_mm=raised)
            if layout not in found and _on_wood(layout, clear) < len(layout.supports_mm):
                found.append(layout)
    return sorted(found, key=lambda layout: (layout.trouble_mm, len(layout.supports_mm)))


def _wished(plan: Plan, request: HangRequest, kind: str) -> tuple[float, Limits]:
    """Return where its middle is wished, and how far it may be moved or grow from there.

    What meets another wall stays at it.
    """
    ends, wide = data.mounting_kinds()[kind].ends, plan.wall.width_mm
    if not ends:
        stays = KINDS[kind].stands or request.goes == "body"
        grow = 0.0 if stays else plan.policy.grow_mm
        return request.x_mm, Limits(plan.policy.shift_mm, grow, WHOLE_MM[plan.units])
    if ends == "both":
        return wide / 2, Limits()
    right = ends == "corner" and request.x_mm > wide / 2
    return wide - request.length_mm / 2 if right else request.length_mm / 2, Limits()


def _anchors_too(plan: Plan, found: list[StudLayout]) -> bool:
    """Whether anchors are thought of besides what was found on the studs of a framed wall."""
    if plan.policy.anchors == "studs_only" or plan.wall.build == "steel":
        return False
    near = 0.0 if plan.policy.anchors == "anchors_light" else _NEAR_MM
    return not found or found[0].trouble_mm > near


def _on_wood(layout: StudLayout, clear: Sequence[float]) -> int:
    """Return how many of its supports meet a stud."""
    return sum(abs(layout.left_mm + x - stud) < 1 for x in layout.supports_mm for stud in clear)


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
        and request.depth_mm > zone.shallow_mm
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
