"""A piece as one line of the log.

What it is, what holds it, how it is judged, what it took, how it held.
"""

from datetime import date
from typing import NamedTuple

from trade import data
from trade.assess import assess
from trade.check import Outcome, Verdict
from trade.choose.criteria import effort
from trade.cutting.price import price
from trade.fixings.anchor_capacity import anchor_of
from trade.memo import memoized
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan, Wall


class Entry(NamedTuple):
    """One line.

    `fixing`: the class of what holds it, a row of the fixings table; `words`: all that it may be
    searched by.

    `thought_minutes`, `thought_cost`: the estimate; `held`: as it was last seen, empty: nobody
    looked.
    """

    key: str
    name: str
    kind: str
    outcome: Outcome
    structure: str
    fixing: str
    words: str
    thought_minutes: float
    thought_cost: float
    hung: date | None
    minutes: float | None
    cost: float | None
    proved: bool
    held: str


def entries(plan: Plan, place: str = "", verdict: Verdict | None = None) -> tuple[Entry, ...]:
    """Every piece of a plan as a line.

    Args:
        plan: the wall.
        place: its job, to be searched by.
        verdict: on the plan, where it is known already.
    """
    verdict = verdict or assess(plan)
    return tuple(
        _entry(piece, plan, verdict.piece(piece.key).outcome, place) for piece in plan.pieces
    )


def _entry(piece: AnyPiece, plan: Plan, word: Outcome, place: str) -> Entry:
    as_built, took, fixing = (
        plan.as_built,
        effort(piece, plan.wall, plan.policy),
        fixing_of(piece, plan),
    )
    hung = as_built.as_hung(piece.key)
    held = next((look.held for look in reversed(as_built.looks) if look.piece == piece.key), "")
    structure = plan.wall.structure or ""
    notes = [each.note for each in as_built.hung if each.piece == piece.key]
    notes += [each.note for each in as_built.looks if each.piece == piece.key]
    lining = [data.linings()[layer.kind].name for layer in plan.wall.layers or ()]
    said = [
        piece.name,
        plan.name,
        place,
        mount_of(piece).name,
        data.fixings()[fixing].name,
        _screw(piece, plan),
        data.structures()[structure].name if structure else "",
        *lining,
        *(thing.name for thing in piece.things),
        *notes,
    ]
    return Entry(
        piece.key,
        piece.name,
        mount_of(piece).kind,
        word,
        structure,
        fixing,
        " ".join(said).lower(),
        took.minutes,
        price(piece, plan).cost,
        hung.on if hung else None,
        hung.minutes if hung else None,
        hung.cost if hung else None,
        any(proof.piece == piece.key for proof in as_built.proofs),
        held,
    )


def fixing_of(piece: AnyPiece, plan: Plan) -> str:
    """Return the class of what holds a piece.

    The anchors where it hangs on any, else its screws, rods or pins.
    """
    hung = plan.as_built.as_hung(piece.key)
    anchor = hung.anchor if hung is not None and hung.anchor is not None else piece.anchor
    if anchor is not None and _anchored(piece, plan.wall):
        return anchor_of(plan.wall, anchor).kind
    if mount_of(piece).kind == "pin_shelf":
        return "pin"
    screw = hung.screw if hung is not None and hung.screw is not None else piece.screw
    return data.screws()[screw].kind


@memoized(limit=1_000)
def _anchored(piece: AnyPiece, wall: Wall) -> bool:
    return any(support.anchored for support in mount_of(piece).supports(piece, wall))


def _screw(piece: AnyPiece, plan: Plan) -> str:
    row = data.screws()[piece.screw]
    anchor = f" {anchor_of(plan.wall, piece.anchor).name}" if piece.anchor is not None else ""
    return f"{row.name_imperial} {row.name_metric}{anchor}"
