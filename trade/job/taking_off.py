"""What is on the wall and comes off first: how, how long, and what its traces tell."""

from trade import data
from trade.check import Message
from trade.job.step import Step, said
from trade.language import compose
from trade.mounts import mount_of
from trade.mounts.base import Box
from trade.mounts.old_things import in_the_way
from trade.plan.features import Feature
from trade.plan.model import AnyPiece, Plan

FILLS_HOURS = data.house("filler_hours")


def minutes(old: Feature) -> float:
    """Return what it takes to take it off and to make its place good."""
    row = data.taking_off()[old.kind]
    return row.minutes + row.fill_minutes


def _hidden(old: Feature, box: Box) -> bool:
    """Whether a piece covers all that it leaves."""
    return (
        box.left_mm <= old.left_mm
        and old.right_mm <= box.right_mm
        and box.bottom_mm <= old.bottom_mm
        and old.top_mm <= box.top_mm
    )


def steps(piece: AnyPiece, plan: Plan) -> list[Step]:
    """Return a step for each old thing; and one to make good what stays in sight, and to wait."""
    old = in_the_way(piece, plan)
    found = [_off(each) for each in old]
    box = mount_of(piece).box(piece)
    if any(not (mount_of(piece).covers and _hidden(each, box)) for each in old):
        words = (
            Message("Fill holes proud of the face, let it dry, sand it flush with a block."),
            Message("Torn paper: cut back to what is firm, seal it, then fill."),
            Message("Prime what was filled, or it shows through the paint."),
            Message("What the new piece hides need not be filled."),
        )
        title = "Fill what stays in sight"
        found.append(Step("off-fill", "wait", title, words, wait_hours=FILLS_HOURS))
    return found


def _off(old: Feature) -> Step:
    row = data.taking_off()[old.kind]
    words = (*said(*row.how), Message(row.tells))
    title = compose("Take off {what}", what=old.row.reason)
    return Step(old.step, "do", title, words, cautions=said(row.mind))
