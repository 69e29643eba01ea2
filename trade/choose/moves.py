"""Changes of where a piece hangs and of where it is held, that may help it.

Onto studs, clear of what is there, longer or shorter at an end. Nothing is judged here.
"""

from collections.abc import Collection, Iterator
from contextlib import suppress
from math import hypot, sqrt
from typing import NamedTuple

from msgspec.structs import replace

from trade import data
from trade.calculation import Quantity
from trade.check import Check, Message, Placeholders
from trade.choose import placement
from trade.choose.stud_layouts import SHORTEST_OVERHANG_MM
from trade.errors import PlanError
from trade.fixings.support import Support
from trade.mounts import holes, mount_of
from trade.plan.features import Feature
from trade.plan.model import AnyPiece, Plan, Wall
from trade.wall.backing import boards_on
from trade.wall.zones import zones

_UP, _DOWN = ("fit.hang", "bracket.room"), ("piece.ceiling", "cleat.room", "fit.items")
_ASIDE = ("anchor.edge", "anchor.beside", "hole.service")
_BESIDE = frozenset({"screw.edge", "pin.wood", "anchor.base"})  # it is not where the wood is
_LONGER_MM = data.house("longer_mm")
_FAR_OVER_MM = data.house("far_over_mm")
_CLEAR_MM = 1.0  # beyond what must lie between, so that a rounded mark keeps it too
_MOVED_MM = data.house("moved_mm")
_SAME_MM = 0.5
_LONGER = (
    "Make it {by} longer on the right, onto the stud there",
    "Make it {by} longer on the left, onto the stud there",
)
_SHORTER = (
    "Make it {by} shorter on the right, where it hangs over",
    "Make it {by} shorter on the left, where it hangs over",
)


class Remedy(NamedTuple):
    """A change: its kind, what to do in words, and the piece after it.

    `wood`: blocking that is put in behind it.
    """

    code: str
    label: Message
    piece: AnyPiece
    wood: tuple[Feature, ...] = ()


def to_studs(piece: AnyPiece, plan: Plan, wrong: Collection[str]) -> Iterator[Remedy]:
    """Its supports into the middle of studs, itself moved a little where that helps.

    Args:
        piece: what hangs.
        plan: the wall and what else hangs there.
        wrong: codes of the checks that are not as they should be.
    """
    mount = mount_of(piece)
    wall, supports = plan.wall, mount.supports(piece, plan.wall)
    astray = any(not support.in_stud for support in supports)
    if wall.uprights and (astray or not _BESIDE.isdisjoint(wrong)):
        yield from _seated(piece, plan)
        for shift in sorted(
            (s.centre_mm - piece.left_mm - x for s in wall.uprights for x in piece.supports_mm),
            key=abs,
        )[:3]:
            if abs(shift) > _SAME_MM and piece.left_mm + shift >= 0:
                moved = replace(piece, left_mm=piece.left_mm + shift)
                if _stays(moved, wall):
                    yield Remedy("seat", _sideways(shift), moved)
    elif len(placement.on_studs(piece, wall).supports_mm) > len(piece.supports_mm):
        yield from _anew(piece, wall)  # it could be held by more of those under it
    if wall.uprights and not mount.every_stud:
        every = placement.on_studs(piece, wall, every=True)
        if len(every.supports_mm) > len(piece.supports_mm) and _on_studs(every, wall):
            yield Remedy("every", Message("Hold it on every stud under it"), every)
    if astray or len(piece.supports_mm) < 2:
        yield from _onto_one_more(piece, plan)
        if not mount.longer_ends:
            yield from _reaching(piece, plan)


def _reaching(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Yield it just so much longer at an end that it reaches the next stud there."""
    for left in (False, True):
        by = _to_next_stud(piece, plan, left)
        longer = _lengthened(piece, plan, by, left) if by else None
        if longer is None:
            continue
        set_anew = placement.on_studs(longer, plan.wall)
        if _stays(set_anew, plan.wall) and _on_studs(set_anew, plan.wall):
            yield Remedy("reach", Message(_LONGER[left], {"by": Quantity(by, "length")}), set_anew)


def _to_next_stud(piece: AnyPiece, plan: Plan, left: bool) -> float:
    """How much longer it must be at an end to reach a stud beyond it; 0 where none is near."""
    end = piece.left_mm + (0.0 if left else piece.length_mm)
    beyond = [
        (end - stud.centre_mm if left else stud.centre_mm - end) + SHORTEST_OVERHANG_MM
        for stud in plan.wall.uprights
    ]
    return min((by for by in beyond if 0 < by <= _LONGER_MM), default=0.0)


def _lengthened(piece: AnyPiece, plan: Plan, by: float, left: bool) -> AnyPiece | None:
    """Return the piece so much longer or shorter at an end, what is on it and holds it in place.

    None where that leaves the wall or drops a thing.
    """
    moved, long = by if left else 0.0, piece.length_mm + by
    start = piece.left_mm - moved
    on_it = all(thing.at_mm is None or 0 <= thing.at_mm + moved <= long for thing in piece.things)
    if not on_it or start < 0 or start + long > plan.wall.width_mm:
        return None
    things = tuple(
        thing if thing.at_mm is None else replace(thing, at_mm=thing.at_mm + moved)
        for thing in piece.things
    )
    with suppress(PlanError):
        return replace(
            piece,
            left_mm=start,
            length_mm=long,
            supports_mm=tuple(x + moved for x in piece.supports_mm),
            things=things,
        )
    return None


def _stays(piece: AnyPiece, wall: Wall) -> bool:
    """Whether a kind may be there: one that goes into a corner goes nowhere else."""
    return mount_of(piece).landed(piece, wall).left_mm == piece.left_mm


def _on_studs(piece: AnyPiece, wall: Wall) -> bool:
    """Whether every support is in the middle of a stud."""
    return all(
        any(abs(stud.centre_mm - piece.left_mm - x) < _SAME_MM for stud in wall.uprights)
        for x in piece.supports_mm
    )


def _seated(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Each support on the stud next to it; all anew on the studs under it."""
    wall, noun = plan.wall, mount_of(piece).noun_of(piece)
    studs = [
        stud.centre_mm - piece.left_mm
        for stud in wall.uprights
        if 0 < stud.centre_mm - piece.left_mm < piece.length_mm
    ]
    nearest = {min(studs, key=lambda stud: abs(stud - x)) for x in piece.supports_mm if studs}
    if len(nearest) == len(piece.supports_mm) and any(
        abs(stud - x) > _SAME_MM for stud, x in zip(sorted(nearest), piece.supports_mm, strict=True)
    ):
        label = Message("Set each {noun} in the middle of the stud next to it", {"noun": noun})
        yield Remedy("seat", label, replace(piece, supports_mm=tuple(sorted(nearest))))
    yield from _anew(piece, wall)


def _anew(piece: AnyPiece, wall: Wall) -> Iterator[Remedy]:
    anew = placement.on_studs(piece, wall)
    if wall.uprights and _on_studs(anew, wall):
        yield Remedy("seat", Message("Set its supports on the studs under it"), anew)


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
            moved = placement.on_studs(replace(piece, left_mm=left), wall)
            if _stays(moved, wall):
                yield Remedy("onto", label, moved)


def _sideways(shift_mm: float) -> Message:
    return Message(
        "Move it {by} to the right" if shift_mm > 0 else "Move it {by} to the left",
        {"by": Quantity(abs(shift_mm), "length")},
    )


def ends(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Yield a strip's end that hangs over far.

    On to the next stud, else back to just past its last support.
    """
    if len(piece.supports_mm) < 2:
        return
    over_left, over_right = piece.supports_mm[0], piece.length_mm - piece.supports_mm[-1]
    for over, left in ((over_right, False), (over_left, True)):
        if over < _FAR_OVER_MM:
            continue
        if by := _to_next_stud(piece, plan, left):
            yield from _ended(piece, plan, by, left, _LONGER[left])
        yield from _ended(piece, plan, SHORTEST_OVERHANG_MM - over, left, _SHORTER[left])


def _ended(piece: AnyPiece, plan: Plan, by: float, left: bool, said: str) -> Iterator[Remedy]:
    """Yield the piece longer at one end, on one support more there, or shorter."""
    made = _lengthened(piece, plan, by, left)
    if made is None:
        return
    if by > 0:
        end = SHORTEST_OVERHANG_MM if left else made.length_mm - SHORTEST_OVERHANG_MM
        made = replace(made, supports_mm=tuple(sorted({*made.supports_mm, end})))
    yield Remedy("end", Message(said, {"by": Quantity(abs(by), "length")}), made)


def off_the_ends(piece: AnyPiece, plan: Plan, wrong: tuple[Check, ...]) -> Iterator[Remedy]:
    """Yield supports further from the ends that what they drive would split.

    Longer at that end; further in, where no stud says where.
    """
    needed = max((each.demand.value for each in wrong if each.code == "strip.edge"), default=0.0)
    places = piece.supports_mm
    if not places:
        return
    over = (places[0], piece.length_mm - places[-1])
    for left, room in zip((True, False), over, strict=True):
        if room < needed and (made := _lengthened(piece, plan, needed - room, left)) is not None:
            said = "Make it {by} longer on the left" if left else "Make it {by} longer on the right"
            by = Quantity(needed - room, "length")
            yield Remedy("end_left" if left else "end_right", Message(said, {"by": by}), made)
    if not plan.wall.uprights and len(places) > 1 and min(over) < needed:
        first, last = max(places[0], needed), min(places[-1], piece.length_mm - needed)
        inner = tuple(x for x in places[1:-1] if first < x < last)
        with suppress(PlanError):
            label = Message("Set its outer supports further in")
            yield Remedy("inward", label, replace(piece, supports_mm=(first, *inner, last)))


def clear(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Out of the way of what is on the wall, by the shortest way.

    Up, down or to a side, where it is set on the studs anew.
    """
    box, wall = mount_of(piece).box(piece), plan.wall
    taken = [
        (zone.left_mm, zone.right_mm, zone.bottom_mm, zone.top_mm)
        for zone in zones(wall)
        if zone.level == "keep_out"
    ]
    taken += [
        (board.left_mm, board.right_mm, board.bottom_mm, board.top_mm) for board in boards_on(wall)
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
        if _stays(moved, wall):
            yield Remedy("clear", label, placement.on_studs(moved, wall) if dx else moved)


def spread(piece: AnyPiece) -> Iterator[Remedy]:
    """Yield the hooks of things whose width is known as far apart as these need, in their order."""
    wide = [t for t in piece.things if t.at_mm is not None and t.wide_mm is not None]
    rest = [t for t in piece.things if t not in wide]
    room = piece.length_mm - sum(t.wide_mm or 0.0 for t in wide)
    if len(wide) < 2 or room < 0:
        return
    gap, at, found = room / len(wide), 0.0, []
    for thing in sorted(wide, key=lambda t: t.at_mm or 0.0):
        own = (thing.wide_mm or 0.0) + gap
        found.append(replace(thing, at_mm=at + own / 2))
        at += own
    label = Message("Spread them evenly, side by side")
    yield Remedy("spread", label, replace(piece, things=(*found, *rest)))


def before_it(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Yield it ended before what runs along the wall's face through it, the longer side first."""
    box, wall = mount_of(piece).box(piece), plan.wall
    for run in (each for each in wall.features if each.row.surface):
        off = run.row.margin_mm
        low, high = max(box.bottom_mm, run.bottom_mm), min(box.top_mm, run.top_mm)
        if not (box.left_mm < run.right_mm and run.left_mm < box.right_mm and low < high):
            continue
        sides = (
            (piece.left_mm, run.left_mm - off, "End it before {what}, {l} long"),
            (
                run.right_mm + off,
                piece.left_mm + piece.length_mm,
                "Begin it after {what}, {l} long",
            ),
        )
        for left, right, said in sorted(sides, key=lambda side: side[0] - side[1]):
            with suppress(PlanError):
                things = tuple(
                    thing
                    if thing.at_mm is None
                    else replace(
                        thing,
                        at_mm=min(max(piece.left_mm + thing.at_mm - left, 0.0), right - left),
                    )
                    for thing in piece.things
                )
                short = replace(
                    piece, left_mm=left, length_mm=right - left, supports_mm=(), things=things
                )
                parts: Placeholders = {
                    "what": run.row.reason,
                    "l": Quantity(right - left, "length"),
                }
                yield Remedy("before", Message(said, parts), placement.on_studs(short, wall))


def onto_board(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Up or down until all its hardware sits on the board that shares its place."""
    off = data.house("across_edge_mm")
    seats = [
        each for each in mount_of(piece).supports(piece, plan.wall) if isinstance(each, Support)
    ]
    if not seats:
        return
    screws = [y for seat in seats for _, y in seat.holes]
    low = min(min(screws) - off, *(seat.foot_mm for seat in seats))
    top = max(max(screws) + off, *(seat.foot_mm + seat.height_mm for seat in seats))
    for board in boards_on(plan.wall):
        least, most = board.bottom_mm - low, board.top_mm - top
        raised = min(max(least, 0.0), most) if least <= most else 0.0
        if raised and all(board.left_mm < seat.x_mm < board.right_mm for seat in seats):
            said = "Move it {by} down, onto the board"
            if raised > 0:
                said = "Move it {by} up, onto the board"
            label = Message(said, {"by": Quantity(abs(raised), "length")})
            with suppress(PlanError):
                yield Remedy("onto_board", label, replace(piece, top_mm=piece.top_mm + raised))


def around(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
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
                "noun": mount_of(piece).noun_of(piece),
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


def _off_its_height(piece: AnyPiece, plan: Plan, by: float) -> Iterator[Remedy]:
    """Yield it higher or lower by so much, and by twice, so that it stays on its studs."""
    for up in (by, -by, 2 * by, -2 * by):
        top = piece.top_mm + up
        if piece.high_mm <= top <= plan.wall.height_mm:
            said = "Hang it {by} higher" if up > 0 else "Hang it {by} lower"
            label = Message(said, {"by": Quantity(abs(up), "length")})
            yield Remedy("around", label, replace(piece, top_mm=top))


def moved(piece: AnyPiece, plan: Plan, wrong: tuple[Check, ...]) -> Iterator[Remedy]:
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
            if plan.wall.uprights:
                yield from _off_its_height(piece, plan, by)
            for shift in (by, -by):
                if 0 <= piece.left_mm + shift <= plan.wall.width_mm - piece.length_mm:
                    aside = replace(piece, left_mm=piece.left_mm + shift)
                    if _stays(aside, plan.wall):
                        yield Remedy("aside", _sideways(shift), aside)
