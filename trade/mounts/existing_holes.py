"""A piece among the holes that are in the wall already.

What is made stays made, and nothing goes near what was spoiled.
"""

from math import hypot

from msgspec.structs import replace

from trade import data
from trade.calculation import Quantity
from trade.check import Check, make
from trade.language import counted
from trade.mounts import Hole, holes, mount_of
from trade.plan.as_built import AsBuilt, nearest_mm
from trade.plan.model import AnyPiece, Plan

_LEAST_MM = 1e-3


def as_mounted(piece: AnyPiece, as_built: AsBuilt) -> AnyPiece:
    """Return the piece with its own holes where what carries it was measured to be.

    As planned where nobody has.
    """
    places = as_built.places_mm(piece.key)
    if places is None or len(places) != len(piece.supports_mm) or places[-1] > piece.length_mm:
        return piece
    return replace(piece, supports_mm=places)


def as_hung(piece: AnyPiece, as_built: AsBuilt) -> AnyPiece:
    """Return the piece where it hangs, with what really went in; as planned where it does not hang.

    Raises:
        PlanError: it cannot hang so.
    """
    hung = as_built.as_hung(piece.key)
    if hung is None:
        return piece
    return replace(
        piece,
        left_mm=piece.left_mm + hung.right_mm,
        top_mm=piece.top_mm + hung.up_mm,
        screw=hung.screw if hung.screw is not None else piece.screw,
        screw_length_mm=hung.screw_length_mm
        if hung.screw_length_mm is not None
        else piece.screw_length_mm,
        anchor=hung.anchor if hung.anchor is not None else piece.anchor,
    )


def checks(piece: AnyPiece, plan: Plan) -> list[Check]:
    """Check that marks keep clear of spoiled holes and that the holes already drilled are used."""
    if not plan.as_built.drilled:
        return []
    marks = holes(mount_of(piece).supports(piece, plan.wall))
    return [
        check
        for check in (_spoiled(piece, plan, marks), _kept(piece, plan, marks))
        if check is not None
    ]


def _spoiled(piece: AnyPiece, plan: Plan, marks: list[Hole]) -> Check | None:
    """Return the mark that comes nearest to a hole where nothing can hold.

    Anchors may go into one that only met no wood.
    """
    made, nearest = plan.as_built.existing_holes(piece.key), None
    for hole in plan.as_built.spoiled():
        for mark in marks:
            if any(own.is_at(mark.x_mm, mark.y_mm) for own in made):
                continue
            if (
                hole.met == "no_wood"
                and mark.support.anchored
                and any(hole.is_at(x, y) for x, y in mark.support.holes)
            ):
                continue
            away = hypot(hole.x_mm - mark.x_mm, hole.y_mm - mark.y_mm)
            if nearest is None or away < nearest[0]:
                nearest = (away, mark)
    if nearest is None:
        return None
    away, mark = nearest
    into = "The {part} has nothing to hold it here: its hole is spoiled."
    beside = "The {part} has a mark {capacity} from a spoiled hole, and {demand} must lie between."
    return make(
        "made.spoiled",
        part=mark.support.part,
        support=mark.support.index,
        case="any",
        demand=Quantity(data.house("spoiled_mm"), "length"),
        capacity=Quantity(max(away, _LEAST_MM), "length"),
        template=into if away <= data.house("made_mm") else beside,
        parts={"part": mark.support.part},
    )


def _kept(piece: AnyPiece, plan: Plan, marks: list[Hole]) -> Check | None:
    """Sound holes that its marks have left."""
    places = [(mark.x_mm, mark.y_mm) for mark in marks]
    off = [nearest_mm(hole, places) for hole in plan.as_built.existing_holes(piece.key)]
    limit = data.house("made_mm")
    left = sum(away > limit for away in off)
    if not left:
        return None
    return make(
        "made.kept",
        part="piece",
        case="any",
        demand=Quantity(min(max(off), 1e6), "length"),
        capacity=Quantity(limit, "length"),
        template="{holes}, up to {demand} from any mark: go back to them, or fill them.",
        parts={
            "holes": counted(
                left,
                "{n} hole is made already that it no longer uses",
                "{n} holes are made already that it no longer uses",
            )
        },
    )
