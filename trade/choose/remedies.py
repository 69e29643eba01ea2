"""Single changes that may help a piece that is close or won't hold, the least trouble first.

Nothing is judged here.
"""

from collections.abc import Iterable, Iterator
from contextlib import suppress
from math import hypot, sqrt
from typing import NamedTuple

from msgspec.structs import replace

from trade import data
from trade.calculation import Quantity
from trade.check import Check, Message, Placeholders
from trade.choose import placement, policy_effects
from trade.choose.request import BOARD_WIDTHS_MM, THIN_MM
from trade.choose.stud_layouts import SHORTEST_OVERHANG_MM
from trade.cutting.sold import sold_mm
from trade.errors import PlanError
from trade.fixings import driving
from trade.fixings.anchor_capacity import anchor_of
from trade.mounts import holes, mount_of
from trade.plan.model import AnyPiece, Plan
from trade.wall.scribing import fitted
from trade.wall.zones import zones

_BOARD = (
    "board.",
    "sag.",
    "front.",
    "rail.",
    "cleat.bending",
    "panel.batten_bending",
    "box.top",
    "fit.items",
)
_BY_THICKNESS = (*_BOARD, "rod.", "dowel.", "plate.", "shelf.", "pin.", "peg.")
_BY_DEPTH = (
    "screw.",
    "anchor.",
    "lining.",
    "pin.",
    "rod.",
    "dowel.",
    "shelf.",
    "bracket.",
    "cleat.",
    "hole.",
    "box.",
)
_UP, _DOWN = ("fit.hang", "bracket.room"), ("piece.ceiling", "cleat.room", "fit.items")
_ASIDE = ("anchor.edge", "anchor.beside", "hole.service")
_LONGER_MM = data.house("longer_mm")
_FAR_OVER_MM = data.house("far_over_mm")
_CLEAR_MM = 1.0  # beyond what must lie between, so that a rounded mark keeps it too
_MOVED_MM = data.house("moved_mm")
_THICKER_MM = (25.0, 32.0, 38.0, 45.0)


class Remedy(NamedTuple):
    """A change: its kind, what to do in words, and the piece after it."""

    code: str
    label: Message
    piece: AnyPiece


def remedies(piece: AnyPiece, plan: Plan, wrong: Iterable[Check]) -> Iterator[Remedy]:
    """Yield changes that bear on what is wrong and follow the job's policy.

    Args:
        piece: that is close or won't hold.
        plan: the wall, what else hangs there, the policy.
        wrong: the checks that are not as they should be.
    """
    for remedy in _all(piece, plan, tuple(wrong)):
        if policy_effects.follows(remedy.piece, plan) or not policy_effects.follows(piece, plan):
            yield remedy


def anew(code: str) -> bool:
    """Whether a change, or one of several together, makes the body anew.

    The most trouble, so it comes last.
    """
    return "taller" in code.split("-")


def _all(piece: AnyPiece, plan: Plan, wrong: tuple[Check, ...]) -> Iterator[Remedy]:
    codes = tuple(check.code for check in wrong)
    wall, elsewhere = plan.wall, [code for code in codes if not code.startswith(_BOARD)]
    yield from _to_studs(piece, plan)
    if any(code.startswith(("piece.", "hole.")) for code in codes):
        yield from _clear(piece, plan)
    if "rod.hole" in codes:
        yield from _shorter_rods(piece)
    if "fit.niche" in codes:
        with suppress(PlanError):
            cut = fitted(piece, wall)
            yield Remedy(
                "niche",
                Message("Cut it to the niche, {l}", {"l": Quantity(cut.length_mm, "length")}),
                cut,
            )
    if any(code.startswith("made.") for code in codes):
        yield from _around(piece, plan)
    if elsewhere:
        yield from _anchors(piece, plan)
    yield from (Remedy(*each) for each in mount_of(piece).cures(piece, plan.units))
    if elsewhere:
        yield from _screws(piece, plan, too_long=any(code.endswith(".far_side") for code in codes))
    yield from _moved(piece, plan, wrong)
    with suppress(PlanError):
        yield Remedy(
            "support",
            Message("One more support, on a free stud"),
            placement.add_support(piece, wall),
        )
    mount = mount_of(piece)
    if mount.longer_ends:
        yield from _ends(piece, plan)
    if any(code.startswith(_BY_THICKNESS) for code in codes):
        yield from _boards(piece, plan)
    if any(code.startswith(_BY_DEPTH) for code in codes):
        yield from _narrower(piece, plan)
    for taller, high in mount.taller(piece):
        label = Message(
            "A body {h} high, its foot further down the wall", {"h": Quantity(high, "length")}
        )
        yield Remedy("taller", label, taller)


def _to_studs(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Its supports onto studs, itself moved a little where that helps."""
    wall, supports = plan.wall, mount_of(piece).supports(piece, plan.wall)
    if any(not support.anchored and not support.in_stud for support in supports) and wall.uprights:
        yield Remedy(
            "seat",
            Message("Set its supports on the studs under it"),
            placement.on_studs(piece, wall),
        )
        for shift in sorted(
            (s.centre_mm - piece.left_mm - x for s in wall.uprights for x in piece.supports_mm),
            key=abs,
        )[:3]:
            if piece.left_mm + shift >= 0:
                yield Remedy(
                    "seat", _sideways(shift), replace(piece, left_mm=piece.left_mm + shift)
                )
    if any(not support.in_stud for support in supports):
        yield from _onto_one_more(piece, plan)


def _onto_one_more(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Yield the least moves to either side that bring one more stud under it.

    Its supports then go on every stud that it can use.
    """
    wall, studs = plan.wall, [stud.centre_mm for stud in plan.wall.uprights]
    low = piece.left_mm + SHORTEST_OVERHANG_MM
    high = piece.left_mm + piece.length_mm - SHORTEST_OVERHANG_MM
    shifts = [x - (high if x > high else low) for x in studs]
    for shift in sorted((shift for shift in shifts if abs(shift) <= _MOVED_MM), key=abs):
        left = piece.left_mm + shift
        more = sum(low + shift <= x <= high + shift for x in studs) > sum(
            low <= x <= high for x in studs
        )
        if more and 0 <= left <= wall.width_mm - piece.length_mm:
            label = Message("{move}, onto one stud more", {"move": _sideways(shift)})
            yield Remedy("onto", label, placement.on_studs(replace(piece, left_mm=left), wall))


def _sideways(shift_mm: float) -> Message:
    return Message(
        "Move it {by} to the right" if shift_mm > 0 else "Move it {by} to the left",
        {"by": Quantity(abs(shift_mm), "length")},
    )


def _ends(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Yield a strip's end that hangs over far.

    On to the next stud, else back to just past its last support.
    """
    if len(piece.supports_mm) < 2:
        return
    over_left, over_right = piece.supports_mm[0], piece.length_mm - piece.supports_mm[-1]
    for over, left in ((over_right, False), (over_left, True)):
        if over < _FAR_OVER_MM:
            continue
        end = piece.left_mm + (0.0 if left else piece.length_mm)
        beyond = [
            (end - stud.centre_mm if left else stud.centre_mm - end) + SHORTEST_OVERHANG_MM
            for stud in plan.wall.uprights
        ]
        for by in sorted(by for by in beyond if 0 < by <= _LONGER_MM)[:1]:
            yield from _ended(
                piece,
                plan,
                by,
                left,
                "Make it {by} longer on the left, onto the stud there"
                if left
                else "Make it {by} longer on the right, onto the stud there",
            )
        yield from _ended(
            piece,
            plan,
            SHORTEST_OVERHANG_MM - over,
            left,
            "Make it {by} shorter on the left, where it hangs over"
            if left
            else "Make it {by} shorter on the right, where it hangs over",
        )


def _ended(piece: AnyPiece, plan: Plan, by: float, left: bool, said: str) -> Iterator[Remedy]:
    """Yield the piece longer at one end, on one support more there, or shorter.

    Nothing where that leaves the wall or drops a thing.
    """
    moved, long = by if left else 0.0, piece.length_mm + by
    places = {x + moved for x in piece.supports_mm}
    if by > 0:
        places.add(SHORTEST_OVERHANG_MM if left else long - SHORTEST_OVERHANG_MM)
    on_it = all(thing.at_mm is None or 0 <= thing.at_mm + moved <= long for thing in piece.things)
    start = piece.left_mm - moved
    if on_it and start >= 0 and start + long <= plan.wall.width_mm:
        things = tuple(
            thing if thing.at_mm is None else replace(thing, at_mm=thing.at_mm + moved)
            for thing in piece.things
        )
        with suppress(PlanError):
            made = replace(
                piece,
                left_mm=start,
                length_mm=long,
                supports_mm=tuple(sorted(places)),
                things=things,
            )
            yield Remedy("end", Message(said, {"by": Quantity(abs(by), "length")}), made)


def _boards(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Yield a thicker board; one of a stiffer wood, the cheapest first."""
    mount = mount_of(piece)
    found = mount.board_of(piece)
    if found is None:
        return
    board, now_mm = found
    sold = [thick for thick in sold_mm(board, plan.units) if thick <= THIN_MM]
    for thickness in sold or _THICKER_MM:
        if thickness > now_mm and piece.top_mm >= thickness:
            label = Message("A board {t} thick", {"t": Quantity(thickness, "length")})
            yield Remedy("board", label, mount.with_board(piece, board, thickness))
    if now_mm > THIN_MM:
        return
    now = data.boards()[board]
    stiffer = [
        (row.price, key, row)
        for key, row in data.woods().items()
        if row.e_mpa > now.e_mpa and not row.never
    ]
    for _, key, row in sorted(stiffer, key=lambda each: each[:2]):
        label = Message("A board of {name}", {"name": row.name})
        yield Remedy("stiffer", label, mount.with_board(piece, key, now_mm))


def _narrower(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Less deep, by widths of boards as sold, as long as what stands on it stays on it."""
    if mount_of(piece).board_of(piece) is None:
        return
    outs = [thing.out_mm for thing in piece.things if thing.out_mm is not None]
    for depth in reversed(BOARD_WIDTHS_MM[plan.units]):
        if piece.depth_mm * 0.6 <= depth < piece.depth_mm - 5 and all(out <= depth for out in outs):
            with suppress(PlanError):
                label = Message("Less deep, {d}", {"d": Quantity(depth, "length")})
                yield Remedy("narrower", label, replace(piece, depth_mm=depth))


def _anchors(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Every anchor that suits what is behind a support without timber."""
    wall = plan.wall
    bases = {wall.structure, *(layer.kind for layer in wall.layers or ())}
    for key in (*data.anchors(), *(packet.key for packet in wall.packets)):
        if key == piece.anchor or (
            wall.layers is not None and not bases & set(anchor_of(wall, key).holds_n)
        ):
            continue
        changed = replace(piece, anchor=key)
        fastener_demands = [
            support.capacity
            for support in mount_of(changed).supports(changed, wall)
            if support.capacity is not None
        ]
        if not fastener_demands:
            return  # nothing here would be held by an anchor
        if all(capacity.pull_n > 0 for capacity in fastener_demands):
            yield Remedy(
                "anchor",
                Message("Hold it with: {name}", {"name": anchor_of(wall, key).name}),
                changed,
            )


def _clear(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Out of the way of what is on the wall, by the shortest way.

    Up, down or to a side, where it is set on the studs anew.
    """
    box, wall = mount_of(piece).box(piece), plan.wall
    taken = [
        (zone.left_mm, zone.right_mm, zone.bottom_mm, zone.top_mm)
        for zone in zones(wall)
        if zone.level == "keep_out"
    ]
    taken += [mount_of(other).box(other)[:4] for other in plan.pieces if other.key != piece.key]
    moves: list[tuple[float, float]] = []
    for left, right, low, high in taken:
        if min(box.right_mm, right) > max(box.left_mm, left):
            moves += [
                (0.0, high - box.bottom_mm),
                (0.0, low - box.top_mm),
                (right - box.left_mm, 0.0),
                (left - box.right_mm, 0.0),
            ]
    for dx, dy in sorted(moves, key=lambda move: abs(move[0] + move[1])):
        left, top = piece.left_mm + dx, piece.top_mm + dy
        if (
            left < 0
            or left + piece.length_mm > wall.width_mm
            or not piece.high_mm <= top <= wall.height_mm
        ):
            continue
        template = (
            "Move it {by} to the right, clear of what is there"
            if dx > 0
            else "Move it {by} to the left, clear of what is there"
            if dx
            else "Move it {by} up, clear of what is there"
            if dy > 0
            else "Move it {by} down, clear of what is there"
        )
        label = Message(template, {"by": Quantity(abs(dx + dy), "length")})
        moved = replace(piece, left_mm=left, top_mm=top)
        yield Remedy("clear", label, placement.on_studs(moved, wall) if dx else moved)


def _around(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Clear of spoiled holes.

    A support onto another stud; all of it up or down, while no sound hole is made for it.
    """
    limit, marks = data.house("spoiled_mm"), holes(mount_of(piece).supports(piece, plan.wall))
    spoiled = plan.as_built.spoiled()
    near = {
        m.support.index
        for m in marks
        for hole in spoiled
        if hypot(hole.x_mm - m.x_mm, hole.y_mm - m.y_mm) < limit
    }
    free = [
        s.centre_mm - piece.left_mm
        for s in plan.wall.uprights
        if 0 < s.centre_mm - piece.left_mm < piece.length_mm
    ]
    free = [x for x in free if all(abs(x - other) > limit for other in piece.supports_mm)]
    for index in sorted(near & set(range(len(piece.supports_mm)))):
        for x in sorted(free, key=lambda x: abs(x - piece.supports_mm[index]))[:2]:
            others = (*piece.supports_mm[:index], x, *piece.supports_mm[index + 1 :])
            parts: Placeholders = {
                "noun": mount_of(piece).support_noun,
                "at": Quantity(piece.left_mm + x, "length"),
            }
            label = Message("Set that {noun} on the stud at {at}", parts)
            with suppress(PlanError):
                yield Remedy("elsewhere", label, replace(piece, supports_mm=tuple(sorted(others))))
    if plan.as_built.existing_holes(piece.key):
        return
    moves = set()
    for mark in marks:
        for hole in spoiled:
            if abs(dx := hole.x_mm - mark.x_mm) < limit:
                room = sqrt(limit**2 - dx**2) + _CLEAR_MM
                moves |= {hole.y_mm - mark.y_mm + room, hole.y_mm - mark.y_mm - room}
    for dy in sorted(moves, key=abs):
        top = piece.top_mm + dy
        if abs(dy) > 0.5 and piece.high_mm <= top <= plan.wall.height_mm:
            label = Message(
                "Hang it {by} higher" if dy > 0 else "Hang it {by} lower",
                {"by": Quantity(abs(dy), "length")},
            )
            yield Remedy("around", label, replace(piece, top_mm=top))


def _shorter_rods(piece: AnyPiece) -> Iterator[Remedy]:
    """Rods, pins or dowels just short enough to leave wood in front of them."""
    found = mount_of(piece).shorter_rods(piece)
    if found is not None:
        shorter, room = found
        label = Message("So much of each in the piece: {l}", {"l": Quantity(room, "length")})
        yield Remedy("rods", label, shorter)


def _moved(piece: AnyPiece, plan: Plan, wrong: tuple[Check, ...]) -> Iterator[Remedy]:
    """So much higher or lower as there is too little room.

    So far to a side as what holds is too near to something.
    """
    for check in wrong:
        by = (
            check.demand.value
            - check.capacity.value
            + (0.0 if check.code == "fit.hang" else _CLEAR_MM)
        )
        if check.code in _UP or check.code in _DOWN:
            top = piece.top_mm + (by if check.code in _UP else -by)
            if piece.high_mm <= top <= plan.wall.height_mm:
                label = Message(
                    "Hang it {by} higher" if check.code in _UP else "Hang it {by} lower",
                    {"by": Quantity(by, "length")},
                )
                way = "higher" if check.code in _UP else "lower"
                yield Remedy(way, label, replace(piece, top_mm=top))
        elif check.code in _ASIDE:
            for shift in (by, -by):
                if 0 <= piece.left_mm + shift <= plan.wall.width_mm - piece.length_mm:
                    label = _sideways(shift)
                    yield Remedy("aside", label, replace(piece, left_mm=piece.left_mm + shift))


def _screws(piece: AnyPiece, plan: Plan, too_long: bool) -> Iterator[Remedy]:
    """Shorter screws where they come out behind; longer ones; thicker ones; lags."""
    for length in reversed(driving.lengths_mm(data.screws()[piece.screw]) if too_long else ()):
        if length < piece.screw_length_mm - 0.5:
            label = Message("Shorter screws, {l}", {"l": Quantity(length, "length")})
            yield Remedy("shorter", label, replace(piece, screw_length_mm=length))
    for length in driving.lengths_mm(data.screws()[piece.screw]):
        if length > piece.screw_length_mm + 0.5:
            label = Message("Longer screws, {l}", {"l": Quantity(length, "length")})
            yield Remedy("longer", label, replace(piece, screw_length_mm=length))
    kind, now = data.screws()[piece.screw].kind, data.screws()[piece.screw].diameter_mm
    for key, row in data.screws().items():
        if (
            row.kind == kind
            and row.diameter_mm > now
            and piece.screw_length_mm <= max(driving.lengths_mm(row)) + 0.5
        ):
            name = row.name_imperial if plan.units == "imperial" else row.name_metric
            yield Remedy(
                "thicker",
                Message("A thicker screw: {name}", {"name": name}),
                replace(piece, screw=key),
            )
    if kind == "wood":
        for key, row in data.screws().items():
            length = min(
                (each for each in driving.lengths_mm(row) if each >= piece.screw_length_mm - 0.5),
                default=0.0,
            )
            if row.kind == "lag" and length:
                name = row.name_imperial if plan.units == "imperial" else row.name_metric
                label = Message(
                    "Lags instead: {name}, {l}", {"name": name, "l": Quantity(length, "length")}
                )
                yield Remedy("lag", label, replace(piece, screw=key, screw_length_mm=length))
