"""Proving a piece.

How much to put on it, where, for how long, what to watch; and what the readings say.
"""

from typing import NamedTuple

from trade import data
from trade.assess import judge_piece
from trade.calculation import Quantity
from trade.check import Message, Placeholders
from trade.language import counted
from trade.load.push import push_of
from trade.plan.as_built import Proof
from trade.plan.model import AnyPiece, Plan


class ProofLoad(NamedTuple):
    """What to put on; `refusal`: why it must not be tried, empty where it may."""

    kg: float
    minutes: float
    push_n: float
    words: tuple[Message, ...] = ()
    refusal: str = ""


class Proved(NamedTuple):
    """Whether it passed, and what was found, each thing in a sentence."""

    passed: bool
    words: tuple[Message, ...]


def proof_load(piece: AnyPiece, plan: Plan) -> ProofLoad:
    """Return the load that proves a piece: no more than it was checked for.

    Args:
        piece: as it hangs.
        plan: the wall.
    """
    use, minutes, push = data.uses()[piece.use], data.house("proof_minutes"), push_of(piece).n
    verdict = judge_piece(piece, plan.with_piece(piece))
    if verdict.fails:
        refusal = "Don't load it: the plan doesn't hold. Change the plan first."
        return ProofLoad(0.0, minutes, push, refusal=refusal)
    total = sum(thing.mass_kg or 0.0 for thing in piece.things)
    kg = total * use.factor * data.house("proof_share")
    left = Quantity(data.house("proof_left_mm"), "fine")
    sizes = {
        "kg": Quantity(kg, "mass"),
        "push": Quantity(push, "force"),
        "left": left,
        "share": Quantity(data.house("duration_years") / data.house("duration_minutes"), "percent"),
    }
    words = [
        Message(
            "Read the front edge in the middle first: from a dial, or from a rule against a fixed "
            "point."
        ),
        Message(
            "Put {kg} on it, sacks or bottles of water, half by half; the front half as full as "
            "the back.",
            dict(sizes),
        )
        if kg
        else Message("It carries nothing: only push it."),
        Message(
            "Leave it for {wait}. Watch the screws, the lining beside them, and the gap at the "
            "wall; listen.",
            {"wait": counted(round(minutes), "{n} minute", "{n} minutes")},
        ),
        Message(
            "Push its front edge down once with {push}, at each end and in the middle.", dict(sizes)
        ),
        Message(
            "Take all of it off and read again: no more than {left} and a fifth of the movement "
            "may be left.",
            dict(sizes),
        ),
        Message(
            "Carrying it for minutes proves {share} of it for years; sag still grows with time.",
            dict(sizes),
        ),
    ]
    return ProofLoad(kg, minutes, push, tuple(words))


def prove(proof: Proof, load: ProofLoad) -> Proved:
    """Return what the readings say.

    Args:
        proof: as read.
        load: what it should have been.
    """
    moved, left = proof.loaded_mm - proof.before_mm, proof.after_mm - proof.before_mm
    allowed = data.house("proof_left_mm") + data.house("proof_left_share") * max(moved, 0.0)
    most, level = data.house("proof_most_mm"), data.house("level_mm_per_m")
    sizes: Placeholders = {
        "moved": Quantity(moved, "fine"),
        "left": Quantity(abs(left), "fine"),
        "allowed": Quantity(allowed, "fine"),
        "min": f"{proof.minutes:.0f}",
        "full": f"{load.minutes:.0f}",
        "most": Quantity(most, "fine"),
        "kg": Quantity(load.kg, "mass"),
        "put": Quantity(proof.kg, "mass"),
    }
    asked: list[tuple[bool, str, str]] = [
        (
            proof.kg >= load.kg - 0.05,
            "{put} was put on it.",
            "Only {put} was put on it; the proof load is {kg}.",
        ),
        (
            proof.minutes >= load.minutes,
            "It was on for {min} minutes.",
            "The load was on for {min} minutes; it must be {full}.",
        ),
        (
            moved <= most,
            "The front edge went down {moved}.",
            "The front edge went down {moved}: more than {most} is too much.",
        ),
        (
            abs(left) <= allowed,
            "{left} of that was left.",
            "{left} of that was left; it may be {allowed}: something gave way.",
        ),
        (
            not proof.stirred,
            "Nothing was seen or heard to move.",
            "Something was seen or heard to move: find out what.",
        ),
    ]
    if proof.level_mm_per_m is not None:
        sizes["level"], off = (
            Quantity(abs(proof.level_mm_per_m), "fine"),
            abs(proof.level_mm_per_m) <= level,
        )
        asked.append(
            (
                off,
                "It runs {level} a metre off level.",
                "It runs {level} a metre off level: the eye sees that.",
            )
        )
    return Proved(
        all(good for good, _, _ in asked),
        tuple(Message(yes if good else no, dict(sizes)) for good, yes, no in asked),
    )
