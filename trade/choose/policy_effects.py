"""What another school would change on this wall, worked out piece by piece."""

from typing import NamedTuple

from msgspec.structs import replace

from trade import data
from trade.assess import assess
from trade.calculation import Quantity
from trade.check import Message, PieceVerdict, Placeholders
from trade.choose import candidates
from trade.choose.options import Options, find_options
from trade.choose.request import wish_of
from trade.fixings.anchor_capacity import anchor_of
from trade.fixings.support import Support
from trade.language import counted, small
from trade.marking.marks import piece_marks
from trade.mounts import KINDS, mount_of
from trade.plan.model import AnyPiece, Plan, Policy, Wall
from trade.wall.scribing import scribing
from trade.wording import outcome

_ALIKE = 0.005  # two utilisations that are said alike
_ON_WAYS = ("anchors", "hollow", "made", "matters", "plates", "stays")


class Effect(NamedTuple):
    """What following another school would change here; nothing when nothing would."""

    answer: str
    changes: tuple[Message, ...]


def answer_of(plan: Plan, question: str) -> str:
    """Return the school that a plan follows in a question of the policies table."""
    answer: str = plan.wall.design_code if question == "school" else getattr(plan.policy, question)
    return answer


def followed(plan: Plan, question: str, answer: str) -> Plan:
    """Return the plan under another answer, with its pieces changed to follow it."""
    if question == "school":
        return replace(plan, wall=replace(plan.wall, design_code=answer))
    policy = replace(plan.policy, **{question: answer})
    return replace(
        plan,
        policy=policy,
        pieces=tuple(_follows(piece, plan.wall, question, policy) for piece in plan.pieces),
    )


def effects(plan: Plan, question: str, key: str | None = None) -> tuple[Effect, ...]:
    """Return what each other school in a question would change.

    Verdicts, holes to drill, how level, and the best way for one piece.

    Args:
        plan: the wall and what hangs there.
        question: a row of the policies table.
        key: of a piece whose best way is looked for; None for none.

    Raises:
        UnknownRowError: no such question.
    """
    row = data.row(data.policies(), question, "question")
    now = answer_of(plan, question)
    before = assess(plan)
    now_best = (
        find_options(plan, wish_of(plan.piece(key)))
        if key is not None and question in _ON_WAYS
        else None
    )
    found = []
    for answer in row.answers:
        if answer == now:
            continue
        after = followed(plan, question, answer)
        changes = [
            _said(old, new)
            for old, new in zip(before.pieces, assess(after).pieces, strict=True)
            if _differs(old, new)
        ]
        if question == "lead_holes":
            changes += _drilled(plan, after)
        if question == "level":
            changes += _by_eye(plan) if answer == "eye" else []
        if now_best is not None and key is not None:
            changes += _best(now_best, after, key)
        found.append(Effect(answer, tuple(changes)))
    return tuple(found)


def follows(piece: AnyPiece, plan: Plan) -> bool:
    """Whether a piece is made and held as the plan's policy would have it."""
    questions = ("plates", "stays", "made", "anchors", "hollow")
    return all(_follows(piece, plan.wall, question, plan.policy) == piece for question in questions)


def _follows(piece: AnyPiece, wall: Wall, question: str, policy: Policy) -> AnyPiece:
    """Return a piece as a school would have it."""
    if question in ("anchors", "hollow") and wall.build == "timber" and piece.anchor is not None:
        loose = [
            support
            for support in mount_of(piece).supports(piece, wall)
            if isinstance(support, Support) and not support.on_stud
        ]
        if loose and not candidates.allowed(piece.anchor, loose, wall, policy):
            fitting = [
                key for key in data.anchors() if candidates.allowed(key, loose, wall, policy)
            ]
            cheapest = min(fitting, key=lambda key: anchor_of(wall, key).price, default=None)
            return replace(piece, anchor=cheapest)
    return mount_of(piece).follow(piece, question, policy)


def _differs(old: PieceVerdict, new: PieceVerdict) -> bool:
    return old.outcome != new.outcome or abs(old.used - new.used) > _ALIKE or old.but != new.but


def _said(old: PieceVerdict, new: PieceVerdict) -> Message:
    parts: Placeholders = {
        "name": old.name,
        "was": Quantity(old.used, "percent"),
        "now": small(outcome(new)),
        "used": Quantity(new.used, "percent"),
        "what": small((new.weakest or new.governing).name),
    }
    return Message("“{name}” {now}: {used} used instead of {was}, by {what}.", parts)


def _drilled(plan: Plan, after: Plan) -> list[Message]:
    """How many pilot holes more or fewer."""
    counts = [
        sum(
            bool(mark.bit_mm)
            for piece in each.pieces
            for mark in piece_marks(piece, each.wall, each.units, each.policy.lead_holes)
        )
        for each in (plan, after)
    ]
    fewer = counts[0] - counts[1]
    if not fewer:
        return []
    change = (
        counted(fewer, "{n} fewer hole", "{n} fewer holes")
        if fewer > 0
        else counted(-fewer, "{n} more hole", "{n} more holes")
    )
    return [
        Message(
            "{change} to drill before screws go in, {all} in all.",
            {"change": change, "all": counts[1]},
        )
    ]


def _by_eye(plan: Plan) -> list[Message]:
    """How far out of level the eye would have things."""
    found = []
    for piece in plan.pieces:
        for line in scribing(piece, plan.wall, 0.0).crooked:
            if line.eye:
                found.append(
                    Message(
                        "“{name}” would hang {up} out of level, to follow the {line}.",
                        {
                            "name": piece.name,
                            "up": Quantity(line.split_mm, "fine"),
                            "line": line.line,
                        },
                    )
                )
    return found


def _best(old: Options, after: Plan, key: str) -> list[Message]:
    """Return the best way for a piece, where that changes, and how many hold."""
    new = find_options(after, old.request)
    counts = [
        sum(way.outcome in ("holds", "holds_but") for way in each.found) for each in (old, new)
    ]
    kinds = [KINDS[each.best.kind].name if each.best else "none" for each in (old, new)]
    name = after.piece(key).name
    found = []
    if kinds[0] != kinds[1]:
        parts: Placeholders = {"name": name, "new": kinds[1], "old": kinds[0]}
        found.append(Message("The best way for “{name}”: {new}, not {old}.", parts))
    if counts[0] != counts[1]:
        ways = counted(
            counts[1],
            "{n} way to hang “{name}” would hold instead of {before}.",
            "{n} ways to hang “{name}” would hold instead of {before}.",
            name=name,
            before=counts[0],
        )
        found.append(Message("{ways}", {"ways": ways}))
    return found
