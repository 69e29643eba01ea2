"""What would cure a piece that is close or won't hold.

Small changes, each tried out, each keeping its promise.
"""

from collections.abc import Iterator
from typing import NamedTuple

import msgspec

from trade import data
from trade.assess import judge_piece
from trade.calculation import Quantity
from trade.check import FAILS, RANK, Check, Message, Outcome, PieceVerdict, severity, strained
from trade.choose.order import heavier
from trade.choose.remedies import anew, remedies
from trade.data.rows import Limit
from trade.errors import PlanError
from trade.plan.model import AnyPiece, Plan

_MOST = 5
_HELD = 5  # so many ways to make a course hold are looked for
_TRIES = 8  # to find what it may carry
_FOLLOWED = 2  # so many courses are followed further
_TRIES_FURTHER = 16
_MOST_TOGETHER = 3


class Cure(msgspec.Struct, frozen=True, kw_only=True):
    """A change that helps.

    What to do in words, the piece after it, and what the verdict will then be.

    `but`: what will still be a nuisance; `used`: how much of its strength will be used.
    """

    code: str
    label: Message
    piece: AnyPiece
    outcome: Outcome
    but: str
    used: float


def cures(plan: Plan, key: str) -> tuple[Cure, ...]:
    """Return the changes that mend a piece, least trouble first.

    None when it holds or when something must be found out first.

    Each kind of change appears once, at its smallest step that makes the piece hold; if none of its
    steps does, at the step that at least stops it from failing. When no single change makes it
    hold, two together are tried, then three.

    Raises:
        PlanError: no such piece.
    """
    piece = plan.piece(key)
    now = judge_piece(piece, plan)
    if now.outcome in ("holds", "cannot_tell"):
        return ()
    kept: dict[str, Cure] = {}
    helped: list[_Course] = []
    for remedy in remedies(piece, plan, _wrong(now)):
        if remedy.code in kept and kept[remedy.code].outcome == "holds":
            continue
        if sum(cure.outcome == "holds" for cure in kept.values()) >= _MOST - 1:
            break
        then = _then(remedy.piece, plan)
        if then is None or severity(then.governing) >= severity(now.governing):
            continue
        helped.append(_Course((remedy.code,), remedy.label, remedy.piece, then))
        if then.outcome not in FAILS and (remedy.code not in kept or then.outcome == "holds"):
            kept[remedy.code] = _cure(remedy.code, remedy.label, remedy.piece, then)
    if lighter := _lighter(piece, plan, now):
        kept["lighten"] = lighter
    enough = ("holds",) if now.outcome == "holds_but" else ("holds", "holds_but")
    if all(
        cure.outcome not in enough or cure.code == "lighten" or anew(cure.code)
        for cure in kept.values()
    ):
        kept |= {cure.code: cure for cure in _together(plan, helped)}
    ranked = sorted(kept.values(), key=_place)
    shown = ranked[:_MOST]
    # what is of another sort keeps a place: less on it, a body made anew
    sorts = [
        [cure for cure in ranked if cure is lighter],
        [cure for cure in ranked if anew(cure.code)],
    ]
    apart = [some[0] for some in sorts if some and not any(cure in shown for cure in some)]
    return (*shown[: _MOST - len(apart)], *apart)


def _place(cure: Cure) -> tuple[int, bool, bool, float]:
    """Rank what holds first, the least trouble first.

    Of what is close, what is least close.
    """
    spare = round(cure.used, 1) if cure.outcome == "close" else 0.0
    return RANK[cure.outcome], cure.code == "lighten", anew(cure.code), spare


def _wrong(verdict: PieceVerdict) -> list[Check]:
    return [check for check in verdict.checks if check.outcome not in ("holds", "cannot_tell")]


def _then(piece: AnyPiece, plan: Plan) -> PieceVerdict | None:
    """Return the verdict on a changed piece among the others.

    None when it would no longer be on the wall.
    """
    try:
        return judge_piece(piece, plan.with_piece(piece))
    except PlanError:
        return None


def _cure(code: str, label: Message, piece: AnyPiece, then: PieceVerdict) -> Cure:
    return Cure(
        code=code, label=label, piece=piece, outcome=then.outcome, but=then.but, used=then.used
    )


class _Course(NamedTuple):
    """Changes made one after the other, and the verdict after them."""

    codes: tuple[str, ...]
    label: Message
    piece: AnyPiece
    then: PieceVerdict


def _together(plan: Plan, helped: list[_Course]) -> Iterator[Cure]:
    """Two changes together that make it hold, else three.

    Each time the most helpful courses are followed further.

    Where none makes it hold, the best that at least stops it from failing.
    """
    best: dict[str, _Course] = {}
    for course in sorted(helped, key=_roughly):
        best.setdefault(course.codes[0], course)
    courses = list(best.values())[:_FOLLOWED]
    nearly: dict[frozenset[str], _Course] = {}
    for _ in range(_MOST_TOGETHER - 1):
        further = [each for course in courses for each in _further(course, plan)]
        held: dict[frozenset[str], _Course] = {}
        for course in further:
            if course.then.outcome not in FAILS:
                some = held if course.then.outcome == "holds" else nearly
                known = some.setdefault(frozenset(course.codes), course)
                if _roughly(course) < _roughly(known):
                    some[frozenset(course.codes)] = course
        if held:
            # what is added to what holds already only makes more of it
            nearly = {
                codes: each
                for codes, each in nearly.items()
                if not any(codes >= other for other in held)
            }
            yield from (
                _cure("-".join(each.codes), each.label, each.piece, each.then)
                for each in (*held.values(), *nearly.values())
            )
            return
        courses = sorted(further, key=_roughly)[:_FOLLOWED]
    for course in sorted(nearly.values(), key=_roughly)[:1]:
        yield _cure("-".join(course.codes), course.label, course.piece, course.then)


def _roughly(course: _Course) -> tuple[int, bool, float]:
    """How bad it still is: of two that are as bad, the one with less trouble was tried first."""
    rank, first, used = severity(course.then.governing)
    return rank, first, round(used, 2)


def _further(course: _Course, plan: Plan) -> list[_Course]:
    """Return a course with each change after it that helps.

    Of each kind of change no further than the first step that makes it hold.
    """
    found: list[_Course] = []
    held: set[str] = set()
    tries = 0
    for remedy in remedies(course.piece, plan, _wrong(course.then)):
        if remedy.code in course.codes or remedy.code in held:
            continue
        tries += 1
        then = _then(remedy.piece, plan)
        if then is not None and severity(then.governing) < severity(course.then.governing):
            found.append(
                _Course(
                    (*course.codes, remedy.code),
                    _both(course.label, remedy.label),
                    remedy.piece,
                    then,
                )
            )
            if then.outcome == "holds":
                held.add(remedy.code)
        if tries >= _TRIES_FURTHER or len(held) >= _HELD:
            break
    return found


def _both(one: Message, other: Message) -> Message:
    """Return two things to do in one sentence."""
    return Message("{one}; and {other!l}", {"one": one, "other": other})


def _lighter(piece: AnyPiece, plan: Plan, now: PieceVerdict) -> Cure | None:
    """Return what it may carry as it is, to a tenth of a kilogram below, when that is anything."""
    total = sum(thing.mass_kg or 0.0 for thing in piece.things)
    if not total:
        return None
    counted: tuple[Limit, ...] = (
        ("strength", "service") if now.outcome == "holds_but" else ("strength",)
    )
    kept = int(total * most(piece, plan, counted=counted) * 10 + 1e-9) / 10
    if kept <= 0 or kept >= total:
        return None
    lightened = heavier(piece, kept / total)
    then = _then(lightened, plan)
    if (
        then is None
        or then.outcome not in ("holds", "holds_but")
        or severity(then.governing) >= severity(now.governing)
    ):
        return None
    return _cure(
        "lighten",
        Message("Less on it: {kg} is what it may carry", {"kg": Quantity(kept, "mass")}),
        lightened,
        then,
    )


def most(
    piece: AnyPiece, plan: Plan, up_to: float = 1.0, counted: tuple[Limit, ...] = ("strength",)
) -> float:
    """How many times what is on it a piece may carry so that it holds, up to some number.

    By false position from below.

    `counted`: the limit states that it shall keep, besides fitting.
    """
    low, high = 0.0, up_to
    at_low = _asked(heavier(piece, 0.0), plan, counted)
    at_high = _asked(heavier(piece, high), plan, counted)
    if at_low > 1:
        return 0.0
    if at_high <= 1:
        return high
    for _ in range(_TRIES):
        share = (1 - at_low) / (at_high - at_low) if at_high < float("inf") else 0.5
        factor = low + (high - low) * min(max(share * 0.998, 0.03), 0.97)
        at = _asked(heavier(piece, factor), plan, counted)
        low, at_low, high, at_high = (
            (factor, at, high, at_high) if at <= 1 else (low, at_low, factor, at)
        )
        if at_low > 0.995 or high - low < 1e-3:
            break
    return low


def _asked(piece: AnyPiece, plan: Plan, counted: tuple[Limit, ...]) -> float:
    """Return the worst of its checks against what still holds.

    1 is the last that does; infinite where something doesn't fit.
    """
    checks = judge_piece(piece, plan).checks
    used = strained(checks) / data.house("close_from")
    grows = [
        check.utilisation for check in checks if check.limit == "service" and check.case != "any"
    ]  # by what is on it
    return max([used, *(grows if "service" in counted else [])])
