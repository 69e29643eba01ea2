"""Ways to hang something.

Every kind that serves it is tried at the places near the wished one, and what holds is ranked.

Within a kind the designs are looked through from the least trouble to the most, and no further than
where even a design that used nothing of what it may bear would come out behind the best one that
holds: that one then is the best there is. Of one design the strongest screws are tried first: with
others it uses no less, as its supports share then.
"""

from collections.abc import Iterator
from typing import NamedTuple

import msgspec

from trade import data
from trade.assess import assess_piece, judge_piece
from trade.calculation import Quantity
from trade.check import FAILED, FAILS, RANK, Message, Outcome, PieceVerdict, Placeholders, severity
from trade.choose import candidate_positions, candidates, criteria
from trade.choose.candidate_positions import HeldBy
from trade.choose.criteria import Effort
from trade.choose.request import HangRequest
from trade.choose.stud_layouts import StudLayout
from trade.cutting.sold import unsold
from trade.fixings.support import Support
from trade.language import Figure, compose, counted, numbered
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan, Policy, Wall
from trade.wall.backing import ASK_STRUCTURE, ASK_STUDS

_HELD_BY: tuple[HeldBy, ...] = ("studs", "anchors")
_ENDS_MM = data.house("ledger_ends_mm")
_MOST_TRIES = 100  # of one kind: what is not found by then is hardly worth finding
_ANCHORS_MM = data.house("anchor_as_moved_mm")
_NOT_YET: tuple[Outcome, ...] = ("holds_but", "close")  # with these a better one is looked for
_OF_SCREWS = ("screw.e", "strip.")  # what smaller screws may mend
_OF_ANCHORS = ("screw.e", "strip.", "anchor.edge", "anchor.beside", "anchor.behind", "anchor.base")
_BY_SCREWS = (
    "screw.",
    "strip.",
    "anchor.",
    "lining.",
    "shelf.",
    "pin.",
    "hole.",
    "ledger.",
    "corner.",
    "tip.",
    "rod.locked",
)


class Option(msgspec.Struct, frozen=True, kw_only=True):
    """A way to hang it.

    The piece as it would be, what `assess` says of it, what it takes, and why it is worth a look.

    `but`: what is a nuisance about it; `used`: how much of its strength; `marks`: each merit from 0
    to 1; `demerit`: what they lack in all, which ranks.
    """

    kind: str
    hold: HeldBy
    piece: AnyPiece
    outcome: Outcome
    but: str
    used: float
    effort: Effort
    marks: dict[str, float]
    demerit: float
    reasons: tuple[Message, ...]


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


class _Tried(NamedTuple):
    """What came out of one kind.

    The best design, or else the verdict on the one that failed least.
    """

    way: Option | None
    failed: PieceVerdict | None
    tries: int
    beyond: str = ""


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
        if request.goes not in row.serves:
            continue
        if reason := excluded(plan, request, kind):
            refused.append(RejectedOption(kind=kind, reason=reason))
            continue
        places[kind] = dict(candidate_positions.positions(plan, request, kind))
    outcomes: dict[str, list[_Tried]] = {kind: [] for kind in places}
    for hold in _HELD_BY:
        for kind, where in places.items():
            if hold in where:
                outcomes[kind].append(_search(plan, request, kind, hold, where[hold]))
        found = [each.way for tried in outcomes.values() for each in tried if each.way is not None]
        if plan.policy.anchors == "studs_first" and any(way.outcome == "holds" for way in found):
            break  # what holds in wood needs no anchor
    served = {way.kind for way in found}
    refused += [
        RejectedOption(kind=kind, reason=_why_not(plan, request, kind, tried))
        for kind, tried in outcomes.items()
        if kind not in served
    ]
    count = sum(each.tries for tried in outcomes.values() for each in tried)
    ranked = sorted(found, key=lambda way: (RANK[way.outcome], way.demerit))
    return Options(request=request, found=_praised(ranked), refused=tuple(refused), tried=count)


def as_it_hangs(plan: Plan, piece: AnyPiece) -> Option:
    """Return a piece that hangs already, as a way among the others."""
    verdict, effort = judge_piece(piece, plan), criteria.effort(piece, plan.wall, plan.policy)
    anchored = any(
        isinstance(support, Support) and support.capacity
        for support in mount_of(piece).supports(piece, plan.wall)
    )
    way = _way(
        mount_of(piece).kind,
        "anchors" if anchored else "studs",
        piece,
        verdict,
        effort,
        0.0,
        plan.policy,
    )
    return msgspec.structs.replace(way, reasons=_reasons(piece, verdict, plan.wall))


def excluded(plan: Plan, request: HangRequest, kind: str) -> Message | None:
    """Why a kind is out of the question before any sum."""
    row, policy, wall = data.mounting_kinds()[kind], plan.policy, plan.wall
    missing = [data.tools()[tool].name for tool in row.tools if tool in policy.lacks]
    if missing:
        return Message("It takes a {tool}, which is not at hand.", {"tool": missing[0]})
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
    if wall.build != "mass" and not wall.uprights and policy.anchors != "anchors_light":
        return Message("Find out first: {ask}", {"ask": ASK_STUDS})
    return None


class _Group(NamedTuple):
    """A design but for what goes into the wall.

    `least`: what it lacks before anything is judged, its screws for nothing.
    """

    least: float
    number: int
    piece: AnyPiece
    layout: StudLayout
    holes: int


def _search(
    plan: Plan, request: HangRequest, kind: str, hold: HeldBy, where: list[StudLayout]
) -> _Tried:
    """Return the best design of a kind at some places."""
    wall, policy = plan.wall, plan.policy
    best: Option | None = None
    failed: PieceVerdict | None = None
    chosen: PieceVerdict | None = None
    tries, beyond = 0, ""
    for group in sorted(_groups(plan, request, kind, hold, where), key=lambda each: each[:2]):
        if (
            best is not None and best.outcome not in _NOT_YET and group.least >= best.demerit
        ) or tries >= _MOST_TRIES:
            break
        found = candidates.drives(group.piece, wall, policy)
        probe, used = candidates.strongest(found, group.piece, wall), 0.0
        if probe is not None:
            tries += 1
            verdict = assess_piece(candidates.driven(group.piece, probe), wall)
            failed, used = _lesser(failed, verdict), _at_least(verdict)
            spared = _OF_SCREWS if probe.anchor is None else _OF_ANCHORS
            if any(
                check.outcome in FAILED and not check.code.startswith(spared)
                for check in verdict.checks
            ):
                continue
        for drive in found:
            piece = candidates.driven(group.piece, drive)
            effort = criteria.sized(piece, wall, policy, group.holes, drive.price * group.holes)
            if said := over(effort, policy):
                beyond = said
                break
            trouble = trouble_of(group.layout, hold)
            if (
                best is not None
                and best.outcome not in _NOT_YET
                and _lacks(effort, used, trouble, policy) >= best.demerit
            ):
                break
            tries += 1
            verdict = judge_piece(piece, plan)
            if verdict.outcome in FAILED:
                failed = _lesser(failed, verdict)
                if any(
                    c.outcome in FAILED and not c.code.startswith(_BY_SCREWS)
                    for c in verdict.checks
                ):
                    break
                continue
            way = _way(kind, hold, piece, verdict, effort, trouble, policy)
            if best is None or (RANK[way.outcome], way.demerit) < (
                RANK[best.outcome],
                best.demerit,
            ):
                best, chosen = way, verdict
            nuisance = verdict.nuisance if verdict.outcome == "holds_but" else None
            if nuisance is not None and not nuisance.code.startswith(_BY_SCREWS):
                break  # it stays a nuisance whatever is driven
    if best is not None and chosen is not None:
        best = msgspec.structs.replace(
            best, reasons=(*_reasons(best.piece, chosen, wall), *unsold(best.piece, plan))
        )
    return _Tried(best, failed, tries, beyond)


def _at_least(strongest: PieceVerdict) -> float:
    """How much of its strength it uses whatever is driven.

    What it does with the strongest, but for how wide the heads are.
    """
    asked = (
        check for check in strongest.checks if check.gradual and "pull_through" not in check.code
    )
    return max((check.utilisation for check in asked), default=0.0)


def _groups(
    plan: Plan, request: HangRequest, kind: str, hold: HeldBy, where: list[StudLayout]
) -> Iterator[_Group]:
    """Every place with every hardware and board, and the least that each may lack."""
    wall, policy = plan.wall, plan.policy
    per_support: dict[int, float] = {}
    number = 0
    for layout in where:
        base = candidates.base(request, kind, layout, plan)
        if base is None:
            continue
        for n, piece in enumerate(candidates.hardware(base, policy, plan.units)):
            if n not in per_support:
                per_support[n] = criteria.holes_of(piece, wall) / max(len(piece.supports_mm), 1)
            count = round(per_support[n] * len(piece.supports_mm))
            number += 1
            effort = criteria.sized(piece, wall, policy, count, 0.0)
            yield _Group(
                _lacks(effort, 0.0, trouble_of(layout, hold), policy), number, piece, layout, count
            )


def trouble_of(layout: StudLayout, hold: HeldBy) -> float:
    """How far a place is from what was wished, mm; being held by anchors counts as a detour."""
    return layout.trouble_mm + (_ANCHORS_MM if hold == "anchors" else 0.0)


def _lacks(effort: Effort, used: float, trouble_mm: float, policy: Policy) -> float:
    return criteria.demerit(criteria.marks(effort, used, trouble_mm), policy.matters)


def over(effort: Effort, policy: Policy) -> str:
    """Return what a policy's bounds say against it; nothing when it is within them."""
    lacking = [data.tools()[tool].name for tool in effort.tools if tool in policy.lacks]
    if lacking:
        return compose("It takes a {lacking}, which is not at hand.", lacking=lacking[0])
    if policy.comes_off and not effort.off:
        return "It leaves a patch or large holes when it comes off."
    if policy.most_holes is not None and effort.holes > policy.most_holes:
        return compose(
            "It takes {holes}; no more than {most_holes} were asked for.",
            holes=counted(effort.holes, "{n} hole", "{n} holes"),
            most_holes=policy.most_holes,
        )
    if policy.budget is not None and effort.cost > policy.budget:
        return compose(
            "It costs about {cost}; {budget} is there.",
            cost=Figure(f"{effort.cost:.0f}"),
            budget=Figure(f"{policy.budget:.0f}"),
        )
    return ""


def _lesser(one: PieceVerdict | None, other: PieceVerdict) -> PieceVerdict | None:
    """Return the one that failed less."""
    if other.outcome not in FAILED:
        return one
    return other if one is None or severity(other.governing) < severity(one.governing) else one


def _way(
    kind: str,
    hold: HeldBy,
    piece: AnyPiece,
    verdict: PieceVerdict,
    effort: Effort,
    trouble_mm: float,
    policy: Policy,
) -> Option:
    used = verdict.used
    marks = criteria.marks(effort, used, trouble_mm)
    return Option(
        kind=kind,
        hold=hold,
        piece=piece,
        outcome=verdict.outcome,
        but=verdict.but,
        used=used,
        effort=effort,
        marks=marks,
        demerit=criteria.demerit(marks, policy.matters),
        reasons=(),
    )


def _reasons(piece: AnyPiece, verdict: PieceVerdict, wall: Wall) -> tuple[Message, ...]:
    """How it is held, and what limits it."""
    mount = mount_of(piece)
    supports, noun, count = mount.supports(piece, wall), mount.support_noun, len(piece.supports_mm)
    on_studs = sum(
        not isinstance(support, Support) or (support.capacity is None and support.in_stud)
        for support in supports
    )
    anchor = next(
        (
            s.capacity.anchor.name
            for s in supports
            if isinstance(s, Support) and s.capacity and s.capacity.anchor
        ),
        "",
    )
    each = numbered(count, noun)
    if not anchor:
        held = compose("{each}, every one on a stud.", each=each)
    elif on_studs:
        held = compose(
            "{each}, {on_studs} in wood; the rest by {anchor}.",
            each=each,
            on_studs=on_studs,
            anchor=anchor,
        )
    else:
        held = compose("{each}, held by {anchor}.", each=each, anchor=anchor)
    words = Message("{held}", {"held": held})
    if verdict.outcome == "cannot_tell" and verdict.unknown:
        return words, Message("Find out first: {ask}", {"ask": verdict.unknown[0]})
    found = [words]
    if verdict.weakest is not None:
        most = Quantity(verdict.used, "percent")
        found.append(
            Message("Used most: {what!l}, {used}.", {"what": verdict.weakest.name, "used": most})
        )
    return (*found, *([verdict.nuisance.sentence] if verdict.nuisance else []))


def _why_not(plan: Plan, request: HangRequest, kind: str, outcomes: list[_Tried]) -> Message:
    """Why a kind does not do.

    What failed least, what was over a bound, or that there is no place for it.
    """
    if beyond := [outcome.beyond for outcome in outcomes if outcome.beyond]:
        return Message(beyond[0])
    if failed := [outcome.failed for outcome in outcomes if outcome.failed is not None]:
        return min(failed, key=lambda verdict: severity(verdict.governing)).governing.sentence
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
