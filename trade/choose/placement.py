"""Putting a shelf up where somebody points: sized and supported by the studs that are there."""

from itertools import pairwise
from typing import Any

from msgspec.structs import replace

from trade.errors import PlanError
from trade.fixings import driving
from trade.fixings.held import usual
from trade.mounts import KINDS, Seat, mount_of
from trade.plan import AnyPiece, Plan, Wall

LENGTH_MM = 900.0
WIDEST_GAP_MM = 610.0  # house rule: 24 in between supports
SHORTEST_OVERHANG_MM = 40.0  # house rule: a support's room at the end of a shelf
EMBEDMENT_MM = 38.0  # house rule: 1 1/2 in of screw in the stud


def put_up(plan: Plan, kind: str, x_mm: float, top_mm: float) -> AnyPiece:
    """A new shelf whose middle is where somebody pointed, on the studs nearest to there. Nobody has said yet what it carries.

    Raises:
        PlanError: no such kind.
    """
    if kind not in KINDS:
        raise PlanError(f"“{kind}” is no kind of mounting Gancho knows. It knows: {', '.join(KINDS)}.", "kind")
    wall, mount = plan.wall, KINDS[kind]
    made: dict[str, Any] = {"length_mm": LENGTH_MM, "use": "everyday", "screw": "wood_10", **mount.fresh}
    made["length_mm"] = length = min(made["length_mm"], wall.width_mm)
    left = _caught(wall, min(max(x_mm - length / 2, 0.0), wall.width_mm - length), length)
    piece: Any = mount.make(
        key=_free_key(plan), name=f"{mount.piece_noun.capitalize()} {len(plan.pieces) + 1}", left_mm=left, top_mm=wall.height_mm,
        supports_mm=supports_on_studs(wall, left, length, mount.every_stud), screw_length_mm=EMBEDMENT_MM,
        anchor=usual_anchor(wall), **made,
    )  # fmt: skip
    seat = mount.seats(piece, wall)[0]
    if isinstance(seat, Seat):
        room = seat.layers_mm + min((stud.depth_mm for stud in wall.uprights), default=seat.stud.depth_mm)
        length = driving.suggest_length_mm(seat.screw, seat.layers_mm, EMBEDMENT_MM, room)
        piece = replace(piece, screw_length_mm=length)
    return mount.landed(replace(piece, top_mm=min(max(top_mm, piece.high_mm), wall.height_mm)), wall)


def usual_anchor(wall: Wall) -> str | None:
    """What holds in a wall without timber studs; nothing is needed where there are some."""
    if wall.build not in ("mass", "steel") or wall.structure is None:
        return None
    return usual(wall.structure)


def on_studs(piece: AnyPiece, wall: Wall) -> AnyPiece:
    """The piece with its supports set on the studs under it, as its kind wants them."""
    every = mount_of(piece).every_stud
    return replace(piece, supports_mm=supports_on_studs(wall, piece.left_mm, piece.length_mm, every))


def supports_on_studs(wall: Wall, left_mm: float, length_mm: float, every: bool = False) -> tuple[float, ...]:
    """Where to hold a piece: on the studs under it, the outer two and as many between as keep gaps under 24 in; or on every one.

    With fewer than two studs under it, a fifth from each end; the verdict will say what is wrong with that.
    """
    inside = sorted(stud.centre_mm - left_mm for stud in wall.uprights)
    inside = [x for x in inside if SHORTEST_OVERHANG_MM <= x <= length_mm - SHORTEST_OVERHANG_MM]
    if len(inside) < 2:
        return (length_mm / 5, length_mm * 4 / 5)
    kept = [inside[0]]
    for x, following in pairwise([*inside[1:], inside[-1]]):
        if every or x == inside[-1] or following - kept[-1] > WIDEST_GAP_MM:
            kept.append(x)
    return tuple(dict.fromkeys(kept))


def add_support(piece: AnyPiece, wall: Wall) -> AnyPiece:
    """One more support: on the free stud that halves the widest gap best; with none free, in the middle of that gap.

    Raises:
        PlanError: there is no room.
    """
    edges = (0.0, *piece.supports_mm, piece.length_mm)
    free = [
        x
        for x in (stud.centre_mm - piece.left_mm for stud in wall.uprights)
        if SHORTEST_OVERHANG_MM / 2 <= x <= piece.length_mm - SHORTEST_OVERHANG_MM / 2
        and all(abs(x - support) > SHORTEST_OVERHANG_MM for support in piece.supports_mm)
    ]
    if free:
        place = max(free, key=lambda x: min(abs(x - edge) for edge in edges))
    else:
        gap, start = max((b - a, a) for a, b in pairwise(edges))
        if gap < 2 * SHORTEST_OVERHANG_MM:
            raise PlanError("There is no room for one more support.", "supports_mm")
        place = start + gap / 2
    return replace(piece, supports_mm=tuple(sorted({*piece.supports_mm, place})))


def resized(piece: AnyPiece, wall: Wall, length_mm: float) -> AnyPiece:
    """The piece with another length, its supports set anew on the studs under it."""
    if abs(length_mm - piece.length_mm) < 0.05:
        return piece
    return on_studs(replace(piece, length_mm=length_mm, supports_mm=()), wall)


def _caught(wall: Wall, left: float, length: float) -> float:
    """Shift a shelf so that the two studs it covers best stand evenly under it."""
    centres = sorted(stud.centre_mm for stud in wall.uprights)
    pairs = [
        (a + b) / 2 - length / 2
        for i, a in enumerate(centres)
        for b in centres[i + 1 :]
        if length * 0.35 <= b - a <= length - 2 * SHORTEST_OVERHANG_MM
    ]
    pairs = [x for x in pairs if 0 <= x <= wall.width_mm - length]
    return min(pairs, key=lambda x: abs(x - left), default=left)


def _free_key(plan: Plan) -> str:
    taken = {piece.key for piece in plan.pieces}
    return next(key for n in range(1, len(taken) + 2) if (key := f"piece-{n}") not in taken)
