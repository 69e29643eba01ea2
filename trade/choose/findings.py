"""What to find out when nobody can tell whether a piece holds, and what would follow."""

from collections.abc import Callable, Iterator
from typing import Literal, NamedTuple

from msgspec.structs import replace

from trade import data
from trade.assess import judge_piece
from trade.calculation import Quantity
from trade.check import Message, Outcome, PieceVerdict, Placeholders
from trade.language import compose
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Layer, Plan, Stud, Thing, Wall

_SURE_MM = data.house("edges_sure_mm")
_MOST_KG, _TRIES = 200.0, 10
_LININGS = ("gypsum_12_7", "gypsum_15_9", "plaster_lath", "plywood_12")


class Finding(NamedTuple):
    """Something to find out.

    How, and at which stage; what the verdict would then be, when that is one word and one number.
    """

    label: Message
    stage: Literal["survey", "load", "fix"]
    outcome: Outcome | None = None
    but: str = ""
    used: float = 0.0


def findings(plan: Plan, key: str) -> tuple[Finding, ...]:
    """Return what to find out about a piece, and what would follow.

    None unless nobody can tell whether it holds.

    Each answer supposes that the others turn out as they are thought to be: studs where they were
    noted, side walls of wood.

    Raises:
        PlanError: no such piece.
    """
    piece = plan.piece(key)
    now = judge_piece(piece, plan)
    return tuple(_all(piece, plan, now)) if now.outcome == "cannot_tell" else ()


def _all(piece: AnyPiece, plan: Plan, now: PieceVerdict) -> Iterator[Finding]:
    sure, certain = supposed(piece, plan)
    if plan.wall.layers is None:
        yield from _linings(sure, certain)
        certain = _lined(certain, _LININGS[0])
    mount = mount_of(piece)
    if mount.has_body and mount.body_kg(piece) is None:
        kg = _greatest(lambda kg: replace(_weighed(sure, 0.0), body_kg=kg), certain)
        yield Finding(
            Message(
                "Weigh it empty: up to {kg} it holds with nothing in it.",
                {"kg": Quantity(kg, "mass")},
            ),
            "fix",
        )
        sure = replace(sure, body_kg=kg / 2)
    unweighed = [thing.name for thing in piece.things if thing.mass_kg is None]
    if unweighed or not piece.things:
        kg = _greatest(lambda kg: _weighed(sure, kg), certain)
        what = (
            compose("“{thing}”", thing=unweighed[0])
            if len(unweighed) == 1
            else "what is not weighed"
            if unweighed
            else "what it shall carry"
        )
        parts: Placeholders = {"what": what, "kg": Quantity(kg, "mass")}
        yield Finding(Message("Weigh {what}: up to {kg} it holds.", parts), "load")
        return
    then = judge_piece(sure, certain.with_piece(sure))
    if not plan.wall.studs and certain.wall.studs:
        said = Message(
            "Find the studs. If one stands behind each {noun}:",
            {"noun": mount_of(piece).noun_of(piece)},
        )
        yield Finding(said, "survey", then.outcome, then.but, then.used)
    elif (
        any("probe for both" in ask for ask in now.unknown)
        and certain.wall.studs != plan.wall.studs
    ):
        doubtful = [
            stud
            for stud, now in zip(plan.wall.studs, certain.wall.studs, strict=True)
            if stud != now
        ]
        said = Message(
            "Probe for both edges of the stud at {at} and {n} more. If they stand as they were "
            "noted:"
            if len(doubtful) > 1
            else "Probe for both edges of the stud at {at}. If they stand as they were noted:",
            {"at": Quantity(doubtful[0].centre_mm, "length"), "n": len(doubtful) - 1},
        )
        yield Finding(said, "survey", then.outcome, then.but, then.used)
    if sure != piece:
        said = Message("Find wood in the side walls for its screws. If there is:")
        yield Finding(said, "fix", then.outcome, then.but, then.used)


def supposed(piece: AnyPiece, plan: Plan) -> tuple[AnyPiece, Plan]:
    """Return the piece and plan as if every doubt about studs and side walls were confirmed."""
    supports = mount_of(piece).supports(piece, plan.wall)
    if plan.wall.build == "timber" and not plan.wall.studs:
        here = sorted({piece.left_mm + x for x in piece.supports_mm})
        found = tuple(
            Stud(centre_mm=x, uncertainty_mm=_SURE_MM) for x in here if x <= plan.wall.width_mm
        )
        return piece, replace(plan, wall=replace(plan.wall, studs=found))
    behind = {support.stud.stud.centre_mm for support in supports if support.stud.stud is not None}
    studs = tuple(
        replace(stud, uncertainty_mm=_SURE_MM)
        if stud.centre_mm in behind
        and (stud.uncertainty_mm is None or stud.uncertainty_mm > _SURE_MM)
        else stud
        for stud in plan.wall.studs
    )
    sure = mount_of(piece).confirmed(piece)
    return sure, replace(plan, wall=replace(plan.wall, studs=studs))


def _weighed(piece: AnyPiece, kg: float) -> AnyPiece:
    """Return the piece with what nobody has weighed weighing so much in all."""
    unknown = sum(thing.mass_kg is None for thing in piece.things)
    things = tuple(
        replace(t, mass_kg=kg / unknown) if t.mass_kg is None else t for t in piece.things
    )
    if not piece.things:
        things = (Thing(name="What it carries", mass_kg=kg),)
    return replace(piece, things=things)


def _lined(plan: Plan, kind: str) -> Plan:
    wall: Wall = replace(
        plan.wall, layers=(Layer(kind=kind, thickness_mm=data.linings()[kind].thickness_mm),)
    )
    return replace(plan, wall=wall)


def _linings(piece: AnyPiece, plan: Plan) -> Iterator[Finding]:
    """Yield what the verdict would be behind each usual lining."""
    for kind in _LININGS:
        on = _lined(plan, kind)
        then = judge_piece(piece, on.with_piece(piece))
        said = Message("If the lining is {name}:", {"name": data.linings()[kind].name})
        yield Finding(said, "survey", then.outcome, then.but, then.used)


def _greatest(weighing: Callable[[float], AnyPiece], plan: Plan) -> float:
    """Return the greatest weight, to a tenth of a kilogram below, with which it holds.

    Nought when even none is too much.
    """
    low, high = 0.0, _MOST_KG
    for _ in range(_TRIES):
        kg = (low + high) / 2
        tried = weighing(kg)
        low, high = (
            (kg, high)
            if judge_piece(tried, plan.with_piece(tried)).outcome in ("holds", "holds_but")
            else (low, kg)
        )
    return int(low * 10) / 10
