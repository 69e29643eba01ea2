"""Old things on a wall that come off before anything hangs there."""

from trade import data
from trade.mounts import mount_of
from trade.plan.features import Feature
from trade.plan.model import AnyPiece, Plan
from trade.plan.place import each_waiting

_NEAR_MM = data.house("off_near_mm")


def in_the_way(piece: AnyPiece, plan: Plan) -> list[Feature]:
    """Return what comes off before a piece hangs: old things where it goes, or close by.

    What came off for another piece is gone.
    """
    box = mount_of(piece).box(piece)
    gone = {each.step for each in plan.as_built.done if each.piece != piece.key}
    return [
        f
        for f in plan.wall.features
        if f.row.keep == "off"
        and f.step not in gone
        and min(box.right_mm, f.right_mm) - max(box.left_mm, f.left_mm) > -_NEAR_MM
        and min(box.top_mm, f.top_mm) - max(box.bottom_mm, f.bottom_mm) > -_NEAR_MM
    ]


def to_come_off(plan: Plan) -> list[Feature]:
    """Return what is still to come off for all that is yet to be hung, each thing once."""
    found: dict[tuple[str, Feature], None] = {}
    for piece, there in each_waiting(plan):
        done = there.as_built.steps(piece.key)
        for old in in_the_way(piece, there):
            if old.step not in done:
                found[there.at, old] = None
    return [old for _, old in found]
