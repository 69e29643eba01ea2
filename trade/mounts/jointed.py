"""A strip too long for one board: two lengths that meet slantwise over a stud.

The screws there go through both, each half as thick, and carry both ends; the strip is hinged
there, so that each length is a beam of its own.
"""

from collections.abc import Callable, Iterator
from contextlib import suppress
from typing import Any, TypeVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Quantity
from trade.check import Check, Message, make
from trade.errors import PlanError
from trade.fixings.support import Support
from trade.language import compose, word
from trade.load.demand import Demand
from trade.load.line import BoardDemand, LineLoad
from trade.measure import Units
from trade.mounts import strips
from trade.mounts.base import Ask, Part, Role, Shape, block, cut
from trade.mounts.work import Detail, Mitre, Work
from trade.plan.pieces.hung import Strip

S = TypeVar("S", bound=Strip)
_OFF_MM = data.house("joint_off_mm")
_SLANT_DEG = 45.0
_LEAST = 2  # supports of each length

ASK = Ask(
    "joint_mm",
    "Joint in it, from its left end",
    "length",
    optional=True,
    help="Empty: it is in one piece. Only over a stud.",
)


def spans(piece: Strip) -> dict[str, tuple[float, float]]:
    """Return where each length of it starts and ends, from its left end, by what it is called."""
    at, end = piece.joint_mm, piece.length_mm
    return {"": (0.0, end)} if at is None else {"left": (0.0, at), "right": (at, end)}


def lengths(piece: S) -> list[S]:
    """Return each length of it as a piece of its own, with what hangs on it; itself where whole."""
    if piece.joint_mm is None:
        return [piece]
    found: list[S] = []
    for start, end in spans(piece).values():
        share = (end - start) / piece.length_mm
        things = tuple(
            replace(thing, mass_kg=None if thing.mass_kg is None else thing.mass_kg * share)
            if thing.at_mm is None
            else replace(thing, at_mm=min(max(thing.at_mm - start, 0.0), end - start))
            for thing in piece.things
            if thing.at_mm is None or (start < thing.at_mm <= end or start == thing.at_mm == 0)
        )
        held = tuple(
            min(max(x - start, 0.0), end - start)
            for x in piece.supports_mm
            if start - _OFF_MM <= x <= end + _OFF_MM
        )
        sizes: dict[str, Any] = {
            "left_mm": piece.left_mm + start,
            "length_mm": end - start,
            "supports_mm": held,
            "things": things,
            "joint_mm": None,
            **piece.of_one_length,
        }
        found.append(replace(piece, **sizes))
    return found


def seat(piece: Strip) -> int | None:
    """Return the number of the support under its joint; None where it has none there."""
    if piece.joint_mm is None:
        return None
    near = min(
        range(len(piece.supports_mm)),
        key=lambda i: abs(piece.supports_mm[i] - (piece.joint_mm or 0.0)),
        default=None,
    )
    if near is None or abs(piece.supports_mm[near] - piece.joint_mm) > _OFF_MM:
        return None
    return near


def whole(piece: Strip) -> bool:
    """Whether it is in one piece, or its lengths can be judged: two supports each, one shared."""
    if piece.joint_mm is None:
        return len(piece.supports_mm) >= _LEAST
    return seat(piece) is not None and all(
        len(each.supports_mm) >= _LEAST for each in lengths(piece)
    )


def check(piece: Strip) -> list[Check]:
    """Check that its joint is over a support, with another one to either side.

    Nothing for what is in one piece.
    """
    if piece.joint_mm is None:
        return []
    away = min((abs(x - piece.joint_mm) for x in piece.supports_mm), default=piece.length_mm)
    few = away <= _OFF_MM and not whole(piece)
    said = "Its joint is {demand} from the nearest stud that it is screwed to: put it over one."
    if few:
        said = "One of its two lengths is held in one place only: joint it over another stud."
    elif away <= _OFF_MM:
        said = "Its joint is over a stud, its screws go through both ends."
    return [
        make(
            "strip.joint",
            part="board",
            case="any",
            demand=Quantity(2 * _OFF_MM if few else away, "fine"),
            capacity=Quantity(_OFF_MM, "fine"),
            template=said,
        )
    ]


def demands(piece: S, load_of: Callable[[S], LineLoad]) -> dict[int, tuple[Demand, ...]]:
    """Return what each support is asked; the one under the joint by both lengths."""
    loads = [load_of(each).demands() for each in lengths(piece)]
    shared = seat(piece)
    if len(loads) == 1 or shared is None:
        return loads[0]
    left, right = loads
    found = {i: cases for i, cases in left.items() if i < shared}
    found |= {shared + i: cases for i, cases in right.items() if i > 0}
    found[shared] = (*_both(left[shared], right[0]), *_both(right[0], left[shared])[1:])
    return found


def _both(one: tuple[Demand, ...], other: tuple[Demand, ...]) -> tuple[Demand, ...]:
    """Return the cases of one end, each with what lasts at the other where that adds to it."""
    lasts = other[0]
    return tuple(
        case._replace(
            load_n=case.load_n + (max(lasts.load_n, 0.0) if case.load_n >= 0 else 0.0),
            moment_nmm=case.moment_nmm
            + (max(lasts.moment_nmm, 0.0) if case.moment_nmm >= 0 else 0.0),
        )
        for case in one
    )


def board_demands(piece: S, load_of: Callable[[S], LineLoad]) -> tuple[BoardDemand, BoardDemand]:
    """Return the greatest bending for years, and with a push, of whichever length has more."""
    start, found = piece.left_mm, []
    for each in lengths(piece):
        off = each.left_mm - start
        years, pushed = load_of(each).board_demands()
        found.append(
            (
                years._replace(place_mm=years.place_mm + off),
                pushed._replace(place_mm=pushed.place_mm + off),
            )
        )
    years, pushed = (max(pair, key=lambda d: d.moment_nmm) for pair in zip(*found, strict=True))
    return years, pushed


def boards(
    piece: S, name: str, board: str, many: int, high_mm: float, thick_mm: float
) -> list[Part]:
    """Return the boards that it is cut from: one, or a left and a right one with their slants."""
    if piece.joint_mm is None:
        return [cut(name, board, many, piece.length_mm, high_mm, thick_mm)]
    return [
        cut(side_of(name, side), board, many, end - start + thick_mm / 2, high_mm, thick_mm)
        for side, (start, end) in spans(piece).items()
    ]


def bored(
    piece: Strip,
    name: str,
    thick_mm: float,
    seats: list[Support],
    units: Units,
    detail: Detail,
    into: str = "its face",
) -> dict[str, Detail]:
    """Return what is done to each of its boards: as told, its slant, holes for what goes through.

    Args:
        piece: the strip.
        name: what its board is called.
        thick_mm: how thick that is.
        seats: its supports, or those of one row.
        units: of the person.
        detail: what is done to either.
        into: the face that the holes are in.
    """
    foot, found = min((seat.foot_mm for seat in seats), default=0.0), {}
    for side, (start, end) in spans(piece).items():
        left = piece.left_mm + start
        low, high = left - _OFF_MM, piece.left_mm + end + _OFF_MM
        through = [support for support in seats if low <= support.x_mm <= high]
        screws = strips.screwed(through, left, foot, units, into)
        works = (*detail.works, *ends(side, thick_mm), *screws)
        found[side_of(name, side)] = detail._replace(works=works)
    return found


def side_of(name: str, side: str) -> str:
    """Return what one of two lengths is called; the only one by its name."""
    return compose("{side} {name}", side=word(side), name=name) if side else name


def ends(side: str, thick_mm: float) -> tuple[Work, ...]:
    """Return the slant of a length at the joint; the left one slants behind, and goes up first."""
    if not side:
        return ()
    if side == "left":
        return (Mitre("its right end", _SLANT_DEG, thick_mm, "at its front face"),)
    return (Mitre("its left end", _SLANT_DEG, thick_mm, "at its back face"),)


def front(
    piece: Strip, low_mm: float, high_mm: float, role: Role = "board", inset_mm: float = 0.0
) -> list[Shape]:
    """Return it from the front, its two lengths where they meet."""
    left, top, last = piece.left_mm, low_mm + high_mm, piece.length_mm - inset_mm
    return [
        block(role, left + max(start, inset_mm), low_mm, left + min(end, last), top)
        for start, end in spans(piece).values()
    ]


def cautions(piece: Strip) -> list[Message]:
    """Return how a joint is made."""
    if piece.joint_mm is None:
        return []
    said = (
        "It is jointed {at} from its left end, over a stud: both ends at 45 degrees, the one that "
        "slants behind goes up first, the screws there go through both."
    )
    return [Message(said, {"at": Quantity(piece.joint_mm, "length")})]


def tried(piece: S) -> Iterator[tuple[str, Message, S]]:
    """Yield its joint over each of its inner supports, the middle one first; then none.

    Nothing where it has none: whether a strip needs one, the shop says.
    """
    if piece.joint_mm is None:
        return
    for label, made in over_studs(piece):
        if abs((made.joint_mm or 0.0) - piece.joint_mm) > _OFF_MM:
            yield "joint", label, made
    yield "joint", Message("In one piece, without a joint"), replace(piece, joint_mm=None)


def over_studs(piece: S) -> Iterator[tuple[Message, S]]:
    """Yield what to do, and the strip jointed over each inner support, the middle one first."""
    for at in sorted(piece.supports_mm[1:-1], key=lambda x: abs(x - piece.length_mm / 2)):
        with suppress(PlanError):
            label = Message(
                "Joint it over the stud {at} from its left end", {"at": Quantity(at, "length")}
            )
            yield label, replace(piece, joint_mm=at)


def in_two(piece: S) -> Iterator[tuple[Message, S]]:
    """Yield the same for a strip without a joint; nothing for one that has it."""
    if piece.joint_mm is None:
        yield from over_studs(piece)
