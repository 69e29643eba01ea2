"""Ways to hang something.

Every kind that serves it is tried at the places near the wished one, and what holds is ranked.
"""

from math import inf

import msgspec

from trade import data
from trade.assess import judge_piece
from trade.calculation import Quantity
from trade.check import FAILED, FAILS, RANK, Message, Placeholders, severity
from trade.choose import candidate_positions, criteria, held_with
from trade.choose.candidate_positions import HeldBy
from trade.choose.request import HangRequest, wish_of
from trade.choose.search import Option, Search, Tried, in_blocking, option, priced, reasons_of
from trade.choose.stud_layouts import StudLayout
from trade.fixings.support import Support
from trade.mounts import mount_of
from trade.mounts.without import without
from trade.plan.model import AnyPiece, Plan, Wall
from trade.wall.backing import ASK_STRUCTURE, ASK_STUDS

_HELD_BY: tuple[HeldBy, ...] = ("studs", "blocking", "anchors")
_ENDS_MM = data.house("ledger_ends_mm")


class RejectedOption(msgspec.Struct, frozen=True, kw_only=True):
    """A kind that does not do here, and why not."""

    kind: str
    reason: Message


class Options(msgspec.Struct, frozen=True, kw_only=True):
    """What was found for a wish.

    Ways that hold, the best first, then close ones and those that wait for an answer.

    `tried`: how many designs were judged.
    """

    request: HangRequest
    found: tuple[Option, ...]
    refused: tuple[RejectedOption, ...]
    tried: int

    @property
    def best(self) -> Option | None:
        """The best of those that hold; None when none does."""
        return self.found[0] if self.found and self.found[0].outcome not in FAILS else None


def find_options(plan: Plan, request: HangRequest) -> Options:
    """Return every way to hang something that serves it, best first, and why the others do not.

    Args:
        plan: the wall, what else hangs on it, and the job's policy.
        request: what shall hang. A piece of the same key is looked past.
    """
    found: list[Option] = []
    refused: list[RejectedOption] = []
    places: dict[str, dict[HeldBy, list[StudLayout]]] = {}
    for kind, row in data.mounting_kinds().items():
        if request.goes not in row.serves or not row.offered:
            continue
        if reason := excluded(plan, request, kind):
            refused.append(RejectedOption(kind=kind, reason=reason))
            continue
        places[kind] = dict(candidate_positions.positions(plan, request, kind))
    outcomes: dict[str, list[Tried]] = {kind: [] for kind in places}
    leading = inf
    for hold in _HELD_BY:
        if (
            hold == "anchors"
            and plan.policy.anchors == "studs_first"
            and any(way.outcome == "holds" for way in found)
        ):
            break  # what holds in wood needs no anchor
        for kind, where in places.items():
            if hold in where:
                tried = Search(plan, request, kind, hold, leading).among(where[hold])
                outcomes[kind].append(tried)
                if tried.way is not None and tried.way.outcome == "holds":
                    leading = min(leading, tried.way.demerit)
        found = [each.way for some in outcomes.values() for each in some if each.way is not None]
    found = _kept(plan, request, found)
    served = {way.kind for way in found}
    refused += [
        RejectedOption(kind=kind, reason=_why_not(plan, request, kind, tried))
        for kind, tried in outcomes.items()
        if kind not in served
    ]
    count = sum(each.tries for tried in outcomes.values() for each in tried)
    ranked = sorted(found, key=lambda way: (RANK[way.outcome], way.demerit))
    return Options(request=request, found=_praised(ranked), refused=tuple(refused), tried=count)


def _kept(plan: Plan, request: HangRequest, found: list[Option]) -> list[Option]:
    """Return the ways with what hangs already in its kind's place, unless a change makes it better.

    Only where it is asked for as it is.
    """
    here = next((piece for piece in plan.pieces if piece.key == request.key), None)
    if here is None or wish_of(here) != request:
        return found
    now = as_it_hangs(plan, here)
    if now.outcome in FAILED or excluded(plan, request, now.kind) is not None:
        return found
    better = [
        way
        for way in found
        if (way.kind, way.hold) == (now.kind, now.hold)
        and (RANK[way.outcome], way.demerit) < (RANK[now.outcome], now.demerit)
    ]
    others = [way for way in found if (way.kind, way.hold) != (now.kind, now.hold)]
    return [*others, *(better or [now])]


def as_it_hangs(plan: Plan, piece: AnyPiece) -> Option:
    """Return a piece that hangs already, as a way among the others."""
    verdict, effort = judge_piece(piece, plan), criteria.effort(piece, plan.wall, plan.policy)
    way = option(
        mount_of(piece).kind,
        _held_by(piece, plan.wall),
        piece,
        verdict,
        effort,
        0.0,
        plan.policy,
    )
    return msgspec.structs.replace(priced(way, plan), reasons=reasons_of(piece, verdict, plan.wall))


def _held_by(piece: AnyPiece, wall: Wall) -> HeldBy:
    """Return what holds it: anchors if any does, else blocking if any does."""
    supports = mount_of(piece).supports(piece, wall)
    if any(isinstance(each, Support) and each.capacity for each in supports):
        return "anchors"
    return "blocking" if in_blocking(piece, wall) else "studs"


def excluded(plan: Plan, request: HangRequest, kind: str) -> Message | None:
    """Why a kind is out of the question before any sum."""
    row, policy, wall = data.mounting_kinds()[kind], plan.policy, plan.wall
    missing = [data.tools()[tool] for tool in row.tools if tool in policy.lacks]
    if missing:
        return Message(
            "It takes a {tool}, which is not at hand. {without}",
            {"tool": missing[0].name, "without": without(missing[0], plan.units)},
        )
    if policy.hidden and row.seen:
        return Message("What holds it would show.")
    if policy.comes_off and not row.off:
        return Message("It leaves a patch or large holes when it comes off.")
    if (
        policy.made != "either"
        and row.made != policy.made
        and kind not in ("bracket_shelf", "bracket_beam")
    ):
        return Message(
            "It comes ready-made; this job prefers shop-made."
            if row.made == "bought"
            else "It is shop-made; this job prefers ready-made."
        )
    if row.ends == "both" and request.length_mm < wall.width_mm - 2 * _ENDS_MM:
        short = {"short": Quantity(wall.width_mm - request.length_mm, "length")}
        return Message(
            "It needs a wall at each end; this would end {short} short of the wall's width.",
            dict(short),
        )
    to_corner = min(request.x_mm, wall.width_mm - request.x_mm)
    if row.ends == "corner" and to_corner > request.length_mm:
        return Message(
            "It needs a corner; the next one is {far} away.", {"far": Quantity(to_corner, "length")}
        )
    if row.deepest_mm is not None and request.depth_mm > row.deepest_mm:
        return Message(
            "Nobody builds this kind so deep: {deep} was asked for.",
            {"deep": Quantity(request.depth_mm, "length")},
        )
    if wall.build == "unknown":
        return Message("Find out first: {ask}", {"ask": ASK_STRUCTURE})
    if row.wood and wall.build != "timber":
        return Message("What holds it goes into the wood of studs; this wall has none.")
    if wall.build != "mass" and not wall.uprights and policy.anchors != "anchors_light":
        return Message("Find out first: {ask}", {"ask": ASK_STUDS})
    return None


def _why_not(plan: Plan, request: HangRequest, kind: str, outcomes: list[Tried]) -> Message:
    """Why a kind does not do.

    What failed least, what was over a bound, or that there is no place for it.
    """
    if beyond := [outcome.beyond for outcome in outcomes if outcome.beyond]:
        return Message(beyond[0])
    if failed := [outcome.failed for outcome in outcomes if outcome.failed is not None]:
        said = min(failed, key=lambda verdict: severity(verdict.governing)).governing.sentence
        if not any(outcome.cut for outcome in outcomes):
            return said
        tried = sum(outcome.tries for outcome in outcomes)
        return Message(
            "Of {tried} designs not one holds, and there are more. The nearest: {said}",
            {"tried": str(tried), "said": said},
        )
    if request.held_with:
        name = held_with.name_of(request.held_with, plan)
        return Message("{name!c} does not hold it there.", {"name": name})
    if plan.wall.build == "mass":
        return Message("Nothing that is known to hold in this wall can carry it.")
    room: Placeholders = {"shift": Quantity(plan.policy.shift_mm, "length")}
    if what := candidate_positions.blocker(plan, request, kind):
        return Message(
            "{what} is in the way there, and no place is free within {shift}.",
            room | {"what": what},
        )
    if plan.policy.anchors == "studs_only":
        return Message(
            "No two studs carry it within {shift} of there, and this job trusts nothing else.", room
        )
    return Message("No stud that it could hang on is free within {shift} of there.", room)


_PRAISE = {
    "margin": "The most to spare.",
    "holes": "The fewest holes.",
    "cost": "The cheapest.",
    "time": "The quickest.",
    "off": "It comes off without tools.",
    "seen": "Nothing of what holds it shows.",
}


def _praised(ranked: list[Option]) -> tuple[Option, ...]:
    """Each way with what it is better at than all others."""
    if len(ranked) < 2:
        return tuple(ranked)
    made = []
    for way in ranked:
        others = [other for other in ranked if other is not way]
        best = [
            said
            for name, said in _PRAISE.items()
            if all(way.marks[name] > other.marks[name] + 1e-9 for other in others)
        ]
        made.append(msgspec.structs.replace(way, reasons=(*way.reasons, *map(Message, best))))
    return tuple(made)
