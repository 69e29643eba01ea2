"""Putting a shelf up where somebody points: sized and supported by the studs that are there."""

from itertools import pairwise
from typing import Any

from msgspec.structs import replace

from trade import data
from trade.choose.stud_layouts import SHORTEST_OVERHANG_MM, clear_studs, spread
from trade.cutting.sold import sold_mm
from trade.errors import PlanError
from trade.fixings import driving
from trade.fixings.anchor_capacity import usual
from trade.language import compose
from trade.measure import Units
from trade.mounts import KINDS, Support, mount_of
from trade.mounts.base import Mount
from trade.plan.facing import Facing
from trade.plan.model import AnyPiece, Plan, Wall
from trade.plan.place import each_piece

_ON_STUD_MM = 0.5
EMBEDMENT_MM = data.house("embedment_mm")
_SCREW = "wood_10"  # what a new piece is screwed with, unless its kind says otherwise


def put_up(plan: Plan, kind: str, x_mm: float, top_mm: float) -> AnyPiece:
    """Return a new shelf whose middle is where somebody pointed, on the studs nearest to there.

    Nobody has said yet what it carries.

    Raises:
        PlanError: no such kind.
    """
    if kind not in KINDS:
        raise PlanError(
            compose(
                "“{kind}” is not a mounting that Gancho knows. It knows: {kinds}.",
                kind=kind,
                kinds=", ".join(KINDS),
            ),
            "kind",
        )
    wall, mount = plan.wall, KINDS[kind]
    made: dict[str, Any] = {
        "use": "everyday",
        **made_new(mount, plan.units),
    }
    if wall.build == "mass" and "screws_each" in mount.make.__struct_fields__:
        made["screws_each"] = 1  # a row of single plugs
    made["length_mm"] = min(made["length_mm"], wall.width_mm)
    if isinstance(wall, Facing):
        made = mount.sized(made, wall, x_mm)
    length = made["length_mm"]
    left = _caught(wall, min(max(x_mm - length / 2, 0.0), wall.width_mm - length), length)
    piece: Any = mount.make(
        key=free_key(plan),
        name=f"{mount.piece_noun.capitalize()} {len(plan.pieces) + 1}",
        left_mm=left,
        top_mm=wall.height_mm,
        supports_mm=supports_on_studs(wall, left, length, mount.every_stud),
        screw_length_mm=EMBEDMENT_MM,
        anchor=usual_anchor(wall),
        **made,
    )
    support = mount.supports(piece, wall)[0]
    if isinstance(support, Support):
        room = support.layers_mm + min(
            (stud.depth_mm for stud in wall.uprights), default=support.stud.depth_mm
        )
        length = driving.suggest_length_mm(support.screw, support.layers_mm, EMBEDMENT_MM, room)
        piece = replace(piece, screw_length_mm=length)
    piece = replace(piece, top_mm=min(max(top_mm, piece.high_mm), wall.height_mm))
    return mount.landed(on_studs(piece, wall) if wall.features else piece, wall)


def made_new(mount: Mount[Any], units: Units) -> dict[str, Any]:
    """Return the fields of a new piece, in sizes of the person's units.

    Its board is as thick as it is sold there: 18 instead of 19.
    """
    sizes = data.usual(mount.kind, units)
    usual_length = data.usual("bracket_shelf", units)["length_mm"]
    fresh = {"length_mm": usual_length, "screw": _SCREW, **mount.fresh, **sizes}
    fresh["screw"] = data.screw_in(fresh["screw"], units)
    thick, board = fresh.get("thickness_mm"), fresh.get("board")
    if thick is not None and board is not None and "thickness_mm" not in sizes:
        fresh["thickness_mm"] = next(iter(sold_mm(board, units, thick)), thick)
    return fresh


def usual_anchor(wall: Wall) -> str | None:
    """Return what holds in a wall without timber studs; nothing is needed where there are some."""
    if wall.build not in ("mass", "steel") or wall.structure is None:
        return None
    return usual(wall.structure)


def on_studs(piece: AnyPiece, wall: Wall, every: bool = False) -> AnyPiece:
    """Return the piece with its supports on the studs below it, clear of boxes, pipes and ducts.

    On as many as its kind wants, or on `every` one.
    """
    mount = mount_of(piece)
    box = mount.box(piece)
    clear = clear_studs(wall, box.bottom_mm, box.top_mm)
    for studs in (clear, [stud.centre_mm for stud in wall.uprights]):
        places = _under(studs, piece.left_mm, piece.length_mm, every or mount.every_stud)
        if len(places) >= (1 if len(piece.supports_mm) == 1 else 2):
            return replace(piece, supports_mm=places)
    return replace(piece, supports_mm=(piece.length_mm / 5, piece.length_mm * 4 / 5))


def supports_on_studs(
    wall: Wall, left_mm: float, length_mm: float, every: bool = False
) -> tuple[float, ...]:
    """Where to hold a piece.

    On the studs under it, the outer two and as many between as keep gaps under 24 in; or on every
    one.

    With fewer than two studs under it, a fifth from each end; the verdict will say what is wrong
    with that.
    """
    places = _under([stud.centre_mm for stud in wall.uprights], left_mm, length_mm, every)
    return places if len(places) > 1 else (length_mm / 5, length_mm * 4 / 5)


def _under(studs: list[float], left_mm: float, length_mm: float, every: bool) -> tuple[float, ...]:
    """Those of some studs that a piece should be held at, from its left end."""
    inside = sorted(
        x for x in studs if SHORTEST_OVERHANG_MM <= x - left_mm <= length_mm - SHORTEST_OVERHANG_MM
    )
    return tuple(x - left_mm for x in spread(inside, every))


def add_support(piece: AnyPiece, wall: Wall) -> AnyPiece:
    """One more support.

    On the free stud that halves the widest gap best; with none free, in the middle of that gap.

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
    """Return the piece with another length, its supports set anew on the studs under it."""
    if abs(length_mm - piece.length_mm) < 0.05:
        return piece
    return on_studs(replace(piece, length_mm=length_mm, supports_mm=()), wall)


def kept_on_studs(before: AnyPiece, moved: AnyPiece, wall: Wall) -> AnyPiece:
    """Return a moved piece whose supports stay on the studs that they were on.

    Anew on the studs under it where one would come too near to an end; as it was moved where not
    all were on studs.
    """
    places = [before.left_mm + x for x in before.supports_mm]
    centres = [stud.centre_mm for stud in wall.uprights]
    if not places or not all(any(abs(x - stud) < _ON_STUD_MM for stud in centres) for x in places):
        return moved
    first, last = places[0] - moved.left_mm, moved.left_mm + moved.length_mm - places[-1]
    over = min(
        before.supports_mm[0], before.length_mm - before.supports_mm[-1], SHORTEST_OVERHANG_MM
    )
    if min(first, last) < over - _ON_STUD_MM:
        return on_studs(moved, wall)
    return replace(moved, supports_mm=tuple(x - moved.left_mm for x in places))


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


def free_key(plan: Plan) -> str:
    """Return a key that no piece of a plan has."""
    taken = {piece.key for piece, _ in each_piece(plan)}
    return next(key for n in range(1, len(taken) + 2) if (key := f"piece-{n}") not in taken)
