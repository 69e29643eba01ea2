"""Wood put in for a piece where there is no stud: blocking behind it, or a board across studs."""

from collections.abc import Iterator
from itertools import combinations

from msgspec.structs import replace

from trade import data
from trade.calculation import Quantity
from trade.check import Message
from trade.choose.moves import Remedy
from trade.choose.placement import EMBEDMENT_MM
from trade.cutting.sold import framing_mm
from trade.fixings import driving
from trade.fixings.support import Support
from trade.mounts import mount_of
from trade.mounts.base import Box
from trade.plan.features import Feature
from trade.plan.model import AnyPiece, Plan, Wall
from trade.wall.backing import boards_on, crossed
from trade.wall.framing import into_framing

_KIND, _BOARD = "blocking", "backing_board"

_NO_WOOD = ("care", "off")  # what is only to be minded, or comes off first


def behind(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Yield the piece held by blocking wherever no stud is behind it, the lining opened for it.

    One height of board for all of it. Nothing where the studs on both sides are not known, where a
    box, a pipe or other blocking is in the way, or where no board is high enough.
    """
    wall = plan.wall
    loose = [
        support
        for support in mount_of(piece).supports(piece, wall)
        if isinstance(support, Support) and not support.in_stud
    ]
    if wall.build != "timber" or not loose or wall.lining_mm is None:
        return
    thick, sold = framing_mm(plan.units)
    spans = [_span(support, sold[-1]) for support in loose]
    least = max(top - bottom for bottom, top in spans)
    high = next((each for each in sold if each >= least), None)
    if high is None:
        return
    blocks = dict.fromkeys(
        _block(support.x_mm, sum(span) / 2, (high, thick), wall)
        for support, span in zip(loose, spans, strict=True)
    )
    wood = tuple(each for each in blocks if each is not None)
    if None in blocks or any(_meet(one, other) for one, other in combinations(wood, 2)):
        return
    said = "Open the lining and put blocking between the studs, {t} by {h}; {screw}, {l} long"
    layers = max(support.side.thickness_mm for support in loose) + wall.lining_mm
    yield from _screwed(said, piece, plan, wood, layers)


def across(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Yield the piece on a board that is screwed to the studs on both sides of it, on the lining.

    Where any of its supports is on no stud. Nothing where it leans on the wall besides, where no
    two studs are known, where something is in the way, or where no board is high enough for its
    hardware.
    """
    wall, mount = plan.wall, mount_of(piece)
    supports = mount.supports(piece, wall)
    seats = [each for each in supports if isinstance(each, Support)]
    loose = any(not each.in_stud for each in seats)
    if wall.build != "timber" or not loose or not mount.on_a_board or boards_on(wall):
        return
    board = _board(seats, piece, plan)
    if board is None:
        return
    said = "Screw a board to the studs first, {t} by {h}, and hang it on that; {screw}, {l} long"
    flat = mount.on_face(piece)
    layers = max(support.side.thickness_mm for support in seats)
    yield from _screwed(said, flat, plan, (board,), layers)


def _screwed(
    said: str, piece: AnyPiece, plan: Plan, wood: tuple[Feature, ...], layers_mm: float
) -> Iterator[Remedy]:
    """Yield the piece screwed to wood of one size, by its screw and by thinner ones."""
    high, thick = wood[0].top_mm - wood[0].bottom_mm, wood[0].deep_mm
    for key, screw in _no_thicker(piece):
        length = driving.suggest_length_mm(screw, layers_mm, EMBEDMENT_MM, layers_mm + thick)
        label = Message(
            said,
            {
                "t": Quantity(thick, "length"),
                "h": Quantity(high, "length"),
                "screw": screw.called(plan.units),
                "l": Quantity(length, "length"),
            },
        )
        held = replace(piece, anchor=None, screw=key, screw_length_mm=length)
        yield Remedy(wood[0].kind, label, held, wood)


def _board(seats: list[Support], piece: AnyPiece, plan: Plan) -> Feature | None:
    """Return a board that all of its hardware sits on, from stud to stud; None where none fits."""
    wall, off = plan.wall, data.house("across_edge_mm")
    thick, sold = framing_mm(plan.units)
    heights = [y for seat in seats for _, y in seat.holes]
    low = min(min(heights) - off, *(seat.foot_mm for seat in seats))
    top = max(max(heights) + off, *(seat.foot_mm + seat.height_mm for seat in seats))
    high = next((each for each in sold if each >= top - low), None)
    first, last = min(seat.x_mm for seat in seats), max(seat.x_mm for seat in seats)
    left = max(
        (s.centre_mm - s.width_mm / 2 for s in wall.uprights if s.centre_mm < first), default=None
    )
    right = min(
        (s.centre_mm + s.width_mm / 2 for s in wall.uprights if s.centre_mm > last), default=None
    )
    if high is None:
        return None
    beyond = max(seat.width_mm for seat in seats) / 2 + off
    bottom = min(max(round((low + top - high) / 2), 0.0), wall.height_mm - high)
    board = Feature(
        kind=_BOARD,
        left_mm=max(first - beyond, 0.0) if left is None else left,
        right_mm=min(last + beyond, wall.width_mm) if right is None else right,
        bottom_mm=bottom,
        top_mm=bottom + high,
        to_fit=True,
        depth_mm=thick,
    )
    taken = any(each.row.keep not in _NO_WOOD and _meet(each, board) for each in wall.features)
    others = (mount_of(each).box(each) for each in plan.pieces if each.key != piece.key)
    if taken or any(_meet(each, board) for each in others) or len(crossed(wall, board)) < 2:
        return None
    return board


def _no_thicker(piece: AnyPiece) -> list[tuple[str, data.Screw]]:
    """Return the piece's screw, then thinner ones: blocking is less deep than a stud."""
    own = data.screws()[piece.screw]
    thinner = [
        (key, row)
        for key, row in data.screws_sold(own.system).items()
        if row.kind == own.kind and row.diameter_mm < own.diameter_mm
    ]
    return [(piece.screw, own), *sorted(thinner, key=lambda each: -each[1].diameter_mm)]


def _span(support: Support, highest_mm: float) -> tuple[float, float]:
    """Return from where to where up the wall it needs wood: its screws, and its foot if it can."""
    off, heights = data.house("across_edge_mm"), [y for _, y in support.holes]
    bottom, top = min(heights) - off, max(heights) + off
    foot = min(bottom, support.foot_mm)
    return (foot if top - foot <= highest_mm else bottom), top


def _block(
    x_mm: float, middle_mm: float, board_mm: tuple[float, float], wall: Wall
) -> Feature | None:
    """Return blocking of a board, so high and thick, behind a place; None where none fits."""
    high_mm, thick_mm = board_mm
    loose = Feature(
        kind=_KIND,
        left_mm=max(x_mm - 1.0, 0.0),
        right_mm=x_mm + 1.0,
        bottom_mm=max(round(middle_mm - high_mm / 2), 0.0),
        top_mm=min(round(middle_mm - high_mm / 2) + high_mm, wall.height_mm),
        to_fit=True,
        depth_mm=thick_mm,
    )
    block = into_framing(loose, wall)
    if block == loose or block.top_mm - block.bottom_mm < high_mm - 1e-6:
        return None
    taken = any(each.row.keep not in _NO_WOOD and _meet(each, block) for each in wall.features)
    return None if taken else block


def _meet(one: Feature | Box, other: Feature) -> bool:
    """Whether two things take the same place."""
    return (
        one.left_mm < other.right_mm
        and one.right_mm > other.left_mm
        and one.bottom_mm < other.top_mm
        and one.top_mm > other.bottom_mm
    )
