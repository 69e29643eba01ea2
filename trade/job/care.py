"""Years later: when somebody should look at a piece again, and what to do then."""

from datetime import date, timedelta
from typing import NamedTuple

from trade import data
from trade.check import Message
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan

_LOOKS = 4  # so many are named ahead


class Care(NamedTuple):
    """A day on which to look at a piece, and what to do."""

    on: date
    piece: str
    name: str
    words: tuple[Message, ...]


def cares(plan: Plan, key: str) -> tuple[Care, ...]:
    """When to look at a piece, from the day on which it was hung or last looked at.

    None while nobody said that it hangs.

    Raises:
        PlanError: no such piece.
    """
    piece, hung = plan.piece(key), plan.as_built.as_hung(key)
    if hung is None:
        return ()
    first = data.house("care_first_days")
    each = data.house("care_hollow_days" if _often(piece, plan) else "care_days")
    looked = [look.on for look in plan.as_built.looks if look.piece == key and look.on >= hung.on]
    begins = max(looked) + timedelta(days=each) if looked else hung.on + timedelta(days=first)
    days = [begins + timedelta(days=n * each) for n in range(_LOOKS)]
    return tuple(
        Care(day, key, piece.name, _words(piece, plan, not looked and n == 0))
        for n, day in enumerate(days)
    )


def _often(piece: AnyPiece, plan: Plan) -> bool:
    """Whether it hangs on the lining alone somewhere, or people lean on it and climb."""
    return piece.use in ("sitting", "climbable", "hard") or _hollow(piece, plan)


def _hollow(piece: AnyPiece, plan: Plan) -> bool:
    supports = mount_of(piece).supports(piece, plan.wall)
    return plan.wall.build in ("timber", "steel") and any(support.anchored for support in supports)


def _words(piece: AnyPiece, plan: Plan, first: bool) -> tuple[Message, ...]:
    said = [
        "Take off what is heavy. Push it down, pull it out: nothing may move that you can feel."
    ]
    later = "Look at the screws, at the lining beside them, at the gap to the wall."
    said.append("Snug the screws: stop when they sit." if first else later)
    if _hollow(piece, plan):
        said.append(
            "Anchors in the lining: turn them no tighter; one that turns freely is replaced."
        )
    if mount_of(piece).stands:
        said.append("Draw the straps taut again; heavy things below.")
    return tuple(Message(each) for each in said)
