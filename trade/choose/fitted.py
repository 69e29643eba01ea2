"""A piece as it hangs, at the best place and length near to where it is.

On the studs, with sane overhangs, clear of the rest.
"""

from msgspec.structs import replace

from trade.assess import judge_piece
from trade.check import severity
from trade.choose.candidate_positions import positions
from trade.choose.request import wish_of
from trade.errors import PlanError
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan


def fitted(plan: Plan, key: str) -> AnyPiece:
    """Return the piece moved, lengthened or shortened within the policy so that it is judged best.

    Raises:
        PlanError: no such piece, or no place near there.
    """
    piece = plan.piece(key)
    mount = mount_of(piece)
    found: list[AnyPiece] = []
    for _, where in positions(plan, wish_of(piece), mount.kind):
        for slot in where:
            top = piece.top_mm + slot.raised_mm
            things = tuple(
                replace(t, at_mm=min(t.at_mm, slot.length_mm)) if t.at_mm is not None else t
                for t in piece.things
            )
            bare = replace(piece, things=(), supports_mm=())
            sized = replace(bare, left_mm=slot.left_mm, length_mm=slot.length_mm, top_mm=top)
            found.append(
                mount.landed(replace(sized, supports_mm=slot.supports_mm, things=things), plan.wall)
            )
    if not found:
        raise PlanError(
            "No studs near there fit it. Try another place.",
            "left_mm",
        )
    judged = [(judge_piece(each, plan.with_piece(each)), each) for each in found]
    holding = [each for verdict, each in judged if verdict.outcome == "holds"]
    return holding[0] if holding else min(judged, key=lambda pair: severity(pair[0].governing))[1]
