"""The designs that a kind of mounting offers for a wish.

Its hardware, its board, what goes into the wall. Nothing is judged.
"""

from collections.abc import Iterator
from contextlib import suppress
from typing import Any, NamedTuple

from msgspec.structs import replace

from trade import data
from trade.choose import placement
from trade.choose.placement import EMBEDMENT_MM
from trade.choose.request import THIN_MM, HangRequest
from trade.choose.stud_layouts import StudLayout
from trade.cutting.sold import sold_mm
from trade.errors import PlanError
from trade.fixings import driving, wood
from trade.fixings.anchor_capacity import anchor_of, lining_base, suits
from trade.fixings.support import Support
from trade.measure import Units
from trade.mounts import KINDS, mount_of
from trade.mounts.base import Mount
from trade.mounts.prices import screw_price
from trade.plan.model import (
    AnyPiece,
    Plan,
    Policy,
    Wall,
)
from trade.plan.policy import trusts

_THICKER_MM = (25.0, 32.0, 38.0)
_LONGER = 1  # so many sold lengths beyond the one that is enough


class Drive(NamedTuple):
    """What goes into the wall.

    A screw and its length, or an anchor; each hole's costs so much, evened out where both do.
    """

    screw: str
    length_mm: float
    anchor: str | None
    price: float


def base(request: HangRequest, kind: str, layout: StudLayout, plan: Plan) -> AnyPiece | None:
    """Return a piece of a kind for a wish, at a slot, as it is usually made.

    None when this kind can never be that size or stand there.

    Args:
        request: what it is for.
        kind: of mounting.
        layout: where.
        plan: the wall, the policy whose schools it follows, the units in whose sizes its board is
          sold.
    """
    mount, wall, policy, units = KINDS[kind], plan.wall, plan.policy, plan.units
    made: dict[str, Any] = {"screw": "wood_10", **placement.made_new(mount, units)}
    made |= {
        "length_mm": layout.length_mm,
        "depth_mm": request.depth_mm,
        "use": request.use,
        "supports_mm": layout.supports_mm,
    }
    if request.body_kg is not None or request.goes in ("body", "floor"):
        made |= {"body_kg": request.body_kg, "height_mm": request.high_mm or made.get("height_mm")}
    fields = mount.make.__struct_fields__
    if (
        "thickness_mm" in fields
        and made.get("thickness_mm", 0.0) <= THIN_MM
        and request.thickness_mm
    ):
        made["thickness_mm"] = request.thickness_mm
        with suppress(PlanError):
            made["board"] = _fitting(mount, request.board, made["board"])
    made = mount.sized(made, wall, request.x_mm)
    try:
        piece: Any = mount.make(
            key=request.key,
            name=request.name,
            left_mm=layout.left_mm,
            top_mm=wall.height_mm,
            screw_length_mm=EMBEDMENT_MM,
            things=request.things,
            **made,
        )
        piece = mount.landed(
            replace(
                follow(piece, policy),
                top_mm=min(max(request.top_mm + layout.raised_mm, piece.high_mm), wall.height_mm),
            ),
            wall,
        )
    except PlanError:
        return None
    return (
        piece
        if piece.left_mm + piece.length_mm <= wall.width_mm + 0.05 and piece.supports_mm
        else None
    )


def _fitting(mount: Mount[Any], board: str | None, usual: str) -> str:
    """Return the board asked for, where this kind can be made of it."""
    if board is None or not (mount.any_board or data.boards()[board].wooden):
        return usual
    return board


def follow(piece: AnyPiece, policy: Policy) -> AnyPiece:
    """Return a piece with its hardware as a policy wants it."""
    for question in ("plates", "stays", "made"):
        piece = mount_of(piece).follow(piece, question, policy)
    return piece


def hardware(piece: AnyPiece, policy: Policy, units: Units) -> Iterator[AnyPiece]:
    """Yield the piece and each change of its hardware and board that the policy leaves open."""
    boards = [piece]
    mount = mount_of(piece)
    board = mount.board_of(piece)
    if board is not None and board[1] <= THIN_MM:
        boards += [
            mount.with_board(piece, board[0], thick)
            for thick in sold_mm(board[0], units) or _THICKER_MM
            if THIN_MM >= thick > board[1] and piece.top_mm >= thick
        ]
    for each in boards:
        yield each
        for _, _, changed in mount.cures(each, units):
            if not mount.suits(changed, policy):
                continue
            changed = follow(changed, policy)
            if changed != each:
                yield changed


def drives(piece: AnyPiece, wall: Wall, policy: Policy) -> list[Drive]:
    """Return what may go into the wall at its supports, the cheapest first.

    Nothing when the wall offers no hold to anything.
    """
    supports = [
        support for support in mount_of(piece).supports(piece, wall) if isinstance(support, Support)
    ]
    if not supports:
        return [Drive(piece.screw, piece.screw_length_mm, piece.anchor, 0.0)]
    loose = [support for support in supports if support.capacity is not None or not support.on_stud]
    if loose:
        share = sum(len(support.holes) for support in loose) / sum(
            len(support.holes) for support in supports
        )
        length = _enough(piece.screw, supports)
        wooden = screw_price(data.screws()[piece.screw], length) * (1 - share)
        found = [
            Drive(piece.screw, length, key, anchor_of(wall, key).price * share + wooden)
            for key in (*data.anchors(), *(packet.key for packet in wall.packets))
            if allowed(key, loose, wall, policy)
        ]
    else:
        found = [drive for screw in _screws(piece) for drive in _lengths(screw, supports)]
    return sorted(found, key=lambda drive: drive.price)


def allowed(key: str, loose: list[Support], wall: Wall, policy: Policy) -> bool:
    """Whether an anchor is known to hold where it would sit, and the policy trusts it there."""
    anchor = anchor_of(wall, key)
    for support in loose:
        hollow = wall.build != "mass" and not support.on_stud
        if not suits(anchor, lining_base(wall, anchor) if hollow else wall.structure or ""):
            return False
        if hollow and (policy.anchors == "studs_only" or not trusts(policy, anchor.kind)):
            return False
    return True


def driven(piece: AnyPiece, drive: Drive) -> AnyPiece:
    """Return the piece held by that."""
    return replace(piece, screw=drive.screw, screw_length_mm=drive.length_mm, anchor=drive.anchor)


def _screws(piece: AnyPiece) -> Iterator[str]:
    kind = data.screws()[piece.screw].kind
    if kind == "rod":
        yield piece.screw
        return
    yield from (key for key, row in data.screws().items() if row.kind != "rod")


def _lengths(key: str, supports: list[Support]) -> Iterator[Drive]:
    """Yield the sold length enough for every seat, and longer ones that stay in the studs."""
    row = data.screws()[key]
    layers = max(support.layers_mm for support in supports)
    room = min(support.layers_mm + support.stud.depth_mm for support in supports)
    inside = [length for length in driving.lengths_mm(row) if length < room]
    enough = [
        length
        for length in inside
        if driving.reach(row, length, layers).embedment_mm >= EMBEDMENT_MM
    ]
    for length in (enough or inside[-1:])[: 1 + _LONGER]:
        yield Drive(key, length, None, screw_price(row, length))


def _enough(key: str, supports: list[Support]) -> float:
    return next((drive.length_mm for drive in _lengths(key, supports)), EMBEDMENT_MM)


def strongest(found: list[Drive], piece: AnyPiece, wall: Wall) -> Drive | None:
    """Return the one that holds at least as much as any other, pulled and sheared alike.

    None when there is none, or they are few.
    """
    if len(found) < 4:
        return None
    if found[0].anchor is not None:
        return _strongest_anchor(found, piece, wall)
    support = next(
        support for support in mount_of(piece).supports(piece, wall) if isinstance(support, Support)
    )

    def holds(drive: Drive) -> tuple[float, float]:
        row = data.screws()[drive.screw]
        reach = driving.reach(row, drive.length_mm, support.layers_mm)
        bearing = wood.bearing_length_mm(reach.penetration_mm, row.diameter_mm, row.tip_mm)
        fe = wood.bearing_strength_mpa(support.timber.g, row.diameter_mm)
        side = (
            wood.lateral(wood.dowel(row), support.side, support.gap_mm, fe, bearing).value_n
            if bearing > 0
            else 0.0
        )
        return wood.withdrawal_n_per_mm(row, support.timber.g) * reach.thread_mm, side

    values = [holds(drive) for drive in found]
    best = max(range(len(found)), key=values.__getitem__)
    return found[best] if all(values[best][1] >= side - 1e-9 for _, side in values) else None


def _strongest_anchor(found: list[Drive], piece: AnyPiece, wall: Wall) -> Drive | None:
    """Return the anchor that holds at least as much as any other, for a while and for years."""
    held: list[tuple[float, float, float]] = []
    for drive in found:
        capacity = next(
            (
                support.capacity
                for support in mount_of(piece).supports(driven(piece, drive), wall)
                if isinstance(support, Support) and support.capacity is not None
            ),
            None,
        )
        if capacity is None:
            return None
        held.append((capacity.pull_n * capacity.lasting, capacity.pull_n, capacity.shear_n))
    most = tuple(max(each) for each in zip(*held, strict=True))
    return next(
        (drive for drive, each in zip(found, held, strict=True) if each == most),
        None,
    )
