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
from trade.fixings import driving, in_strip, wood
from trade.fixings.anchor_capacity import anchor_capacity, anchor_of, lining_base, suits
from trade.fixings.support import Support
from trade.measure import Units
from trade.mounts import KINDS, mount_of
from trade.mounts.base import Mount
from trade.mounts.prices import anchor_key, screw_key, screw_price
from trade.plan.model import (
    AnyPiece,
    Plan,
    Policy,
    Wall,
)
from trade.plan.policy import trusts
from trade.plan.shop import Have

_THICKER_MM = (25.0, 32.0, 38.0)
_MANY = 4  # fewer are tried one by one
_MENDS = ("under", "cut_out", "joint", "gap", "joint_screws")  # not built so at first
_LONGER = 1  # so many sold lengths beyond the one that is enough


class Drive(NamedTuple):
    """What goes into the wall.

    A screw and its length, or an anchor; each hole's costs so much, evened out where both do;
    `through_mm`: so wide is what goes through the piece.
    """

    screw: str
    length_mm: float
    anchor: str | None
    price: float
    through_mm: float


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
    made: dict[str, Any] = dict(placement.made_new(mount, units))
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
        for code, _, changed in mount.cures(each, units):
            if code in _MENDS or not mount.suits(changed, policy):
                continue
            changed = follow(changed, policy)
            if changed != each:
                yield changed


def drives(
    piece: AnyPiece, wall: Wall, policy: Policy, drawer: tuple[Have, ...] = (), held_with: str = ""
) -> list[Drive]:
    """Return what may go into the wall at its supports, the cheapest first.

    What is in the drawer, enough for it, costs nothing. Nothing is returned when the wall offers no
    hold to anything, or none to what alone may be used.
    """
    supports = [
        support for support in mount_of(piece).supports(piece, wall) if isinstance(support, Support)
    ]
    if not supports:
        pins = Drive(piece.screw, piece.screw_length_mm, piece.anchor, 0.0, 0.0)
        return [] if held_with else [pins]
    loose = [support for support in supports if support.capacity is not None or not support.on_stud]
    if loose:
        share = sum(len(support.holes) for support in loose) / sum(
            len(support.holes) for support in supports
        )
        length = _enough(piece.screw, supports)
        wooden = screw_price(data.screws()[piece.screw], length) * (1 - share)
        found = [
            _anchored(piece.screw, length, key, anchor_of(wall, key), share, wooden)
            for key in (*data.anchors(), *(packet.key for packet in wall.packets))
            if allowed(key, loose, wall, policy)
        ]
    elif held_with.startswith("screw:"):
        found = list(_asked_for(held_with, supports))
    else:
        found = [drive for screw in _screws(piece) for drive in _lengths(screw, supports)]
    holes = sum(len(support.holes) for support in loose or supports)
    there = {each.of for each in drawer if each.many >= holes}
    if held_with:
        found = [drive for drive in found if f"{_key(drive)}:".startswith(f"{held_with}:")]
    widest = in_strip.widest_mm(loose)
    found = [drive for drive in found if drive.through_mm <= widest] or found
    priced = (drive._replace(price=0.0) if _key(drive) in there else drive for drive in found)
    return sorted(priced, key=lambda drive: drive.price)


def _key(drive: Drive) -> str:
    return (
        anchor_key(drive.anchor)
        if drive.anchor is not None
        else screw_key(drive.screw, drive.length_mm)
    )


def _anchored(
    screw: str, length_mm: float, key: str, row: data.Anchor, share: float, wooden: float
) -> Drive:
    return Drive(screw, length_mm, key, row.price * share + wooden, row.screw_mm)


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
    own = data.screws()[piece.screw]
    if own.kind == "rod":
        yield piece.screw
        return
    sold = data.screws_sold(own.system)
    yield from (key for key, row in sold.items() if row.kind != "rod")


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
        yield Drive(key, length, None, screw_price(row, length), row.diameter_mm)


def _asked_for(held_with: str, supports: list[Support]) -> Iterator[Drive]:
    """Yield a screw that was asked for: of its length, or as long as serves."""
    _, key, *long = held_with.split(":")
    if not long:
        yield from _lengths(key, supports)
        return
    row = data.screws()[key]
    room = min(support.layers_mm + support.stud.depth_mm for support in supports)
    for length in driving.lengths_mm(row):
        if screw_key(key, length) == held_with and length < room:
            yield Drive(key, length, None, screw_price(row, length), row.diameter_mm)


def _enough(key: str, supports: list[Support]) -> float:
    return next((drive.length_mm for drive in _lengths(key, supports)), EMBEDMENT_MM)


def held_by(found: list[Drive], piece: AnyPiece, wall: Wall) -> list[tuple[float, ...]]:
    """Return what each may be asked for at a piece's first support, N, so that they compare.

    An anchor pulled for years, pulled, and sheared; a screw pulled and sheared. Nothing where they
    are few, or there is no such support.
    """
    if len(found) < _MANY:
        return [() for _ in found]
    supports = [
        support for support in mount_of(piece).supports(piece, wall) if isinstance(support, Support)
    ]
    if found[0].anchor is None:
        return [_screw_holds(drive, supports[0]) for drive in found]
    loose = next((each for each in supports if each.capacity or not each.on_stud), supports[0])
    return [_anchor_holds(drive.anchor or "", loose, piece, wall) for drive in found]


def _anchor_holds(key: str, loose: Support, piece: AnyPiece, wall: Wall) -> tuple[float, ...]:
    capacity = loose.capacity
    if capacity is None:  # it has none yet
        with_it = mount_of(piece).supports(replace(piece, anchor=key), wall)[loose.index]
        capacity = with_it.capacity if isinstance(with_it, Support) else None
        if capacity is None:
            return ()
    substrate = capacity.substrate
    if substrate.hollow:
        substrate = substrate._replace(base=lining_base(wall, anchor_of(wall, key)))
    held = anchor_capacity(wall, key, substrate)
    return held.pull_n * held.lasting, held.pull_n, held.shear_n


def _screw_holds(drive: Drive, support: Support) -> tuple[float, ...]:
    row = data.screws()[drive.screw]
    reach = driving.reach(row, drive.length_mm, support.layers_mm)
    bearing = wood.bearing_length_mm(reach.penetration_mm, row.diameter_mm, row.tip_mm)
    lying = support.across_grain
    fe = wood.bearing_strength_mpa(support.timber.g, row.diameter_mm, lying)
    side = (
        wood.lateral(wood.dowel(row), support.side, support.gap_mm, fe, bearing, lying).value_n
        if bearing > 0
        else 0.0
    )
    return wood.withdrawal_n_per_mm(row, support.timber.g) * reach.thread_mm, side


def weaker(one: tuple[float, ...], other: tuple[float, ...]) -> bool:
    """Whether one holds no more than the other in any way."""
    return bool(one) and all(a <= b + 1e-9 for a, b in zip(one, other, strict=True))


def strongest(held: list[tuple[float, ...]]) -> list[int]:
    """Return the places of those than which none is stronger in every way, where they are few."""
    front = [
        i
        for i, one in enumerate(held)
        if not any(
            weaker(one, other) and (one != other or j < i) for j, other in enumerate(held) if j != i
        )
    ]
    return front if len(front) * 4 <= len(held) else []
