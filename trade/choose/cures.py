"""What would cure a piece that is close or won't hold.

Changes, each tried out, each keeping its promise: one alone, else two or three together, else less
on it, else another way to hang it; and wood put in for it: a board across studs, or blocking, for
which the wall is opened.
"""

from collections.abc import Iterable, Iterator
from math import log
from typing import Literal, NamedTuple

import msgspec

from trade import data
from trade.assess import judge_piece
from trade.calculation import Quantity
from trade.check import (
    FAILED,
    FAILS,
    RANK,
    Check,
    Message,
    Outcome,
    PieceVerdict,
    severity,
    strained,
)
from trade.choose import blocking
from trade.choose.moves import Remedy
from trade.choose.options import find_options
from trade.choose.order import heavier
from trade.choose.remedies import anew, asks_less, only_for, quieter_uses, remedies
from trade.choose.request import wish_of
from trade.data.rows import Limit
from trade.errors import PlanError
from trade.mounts import KINDS, mount_of
from trade.plan.features import Feature
from trade.plan.model import AnyPiece, Plan

_MOST = 5
_HELD = 5  # so many ways to make a course hold are looked for
_TRIES = 8  # to find what it may carry
_FOLLOWED = 3  # so many courses are followed further
_TRIES_FURTHER = 50
_MOST_TOGETHER = 3


class Cure(msgspec.Struct, frozen=True, kw_only=True):
    """A change that helps.

    What to do in words, the piece after it, and what the verdict will then be.

    `but`: what will still be a nuisance; `used`: how much of its strength will be used; `wood`:
    wood that is put in for it.
    """

    code: str
    label: Message
    piece: AnyPiece
    outcome: Outcome
    but: str
    used: float
    wood: tuple[Feature, ...] = ()

    def on(self, plan: Plan) -> Plan:
        """Return a plan with the change made."""
        return plan.with_wood(self.wood).with_piece(self.piece)


class Cures(msgspec.Struct, frozen=True):
    """What came of looking for cures.

    `state`: nothing is wrong (`sound`); something must be found out first (`ask`); something
    helps (`cured`); nothing of what was `tried` does (`none`), and then `nearest` is what comes
    nearest, with `short`: the sentence of what is still wrong.
    """

    state: Literal["sound", "ask", "cured", "none"]
    found: tuple[Cure, ...] = ()
    tried: int = 0
    nearest: Message | None = None
    short: Message | None = None


def cures(plan: Plan, key: str) -> tuple[Cure, ...]:
    """Return the changes that mend a piece, least trouble first; none when nothing does.

    Raises:
        PlanError: no such piece.
    """
    return look_for_cures(plan, key).found


def look_for_cures(plan: Plan, key: str) -> Cures:
    """Return the changes that mend a piece, least trouble first, or what came of looking for them.

    Each kind of change appears once, at its smallest step that makes the piece hold; if none of its
    steps does, at the step that at least stops it from failing. When no single change makes it
    hold, two together are tried, then three; then less on it besides; then another way to hang it.

    Raises:
        PlanError: no such piece.
    """
    piece = plan.piece(key)
    now = judge_piece(piece, plan)
    if now.outcome in ("holds", "cannot_tell"):
        return Cures("sound" if now.outcome == "holds" else "ask")
    start = _Course((), Message(""), piece, now, frozenset(_misfits(now)))
    search = _Search(plan, now)
    kept = search.singles(start)
    if not search.settled(kept):
        kept |= {cure.code: cure for cure in search.together()}
    if lighter := _lighter(piece, plan, now):
        kept["lighten"] = lighter
    if not search.mended(kept):
        kept |= {cure.code: cure for cure in search.lightened()}
    as_it_is = search.mended(kept)
    if not as_it_is and (other := _otherwise(piece, plan)):
        kept[other.code] = other
    kept |= {cure.code: cure for cure in search.opened(start, search.mended(kept))}
    if not as_it_is and (asking := search.asking()):
        kept[asking.code] = asking
    if kept:
        return Cures("cured", _shown(kept), search.tried)
    best = min(search.courses, key=_burden, default=None)
    if best is None:
        return Cures("none", (), search.tried, None, now.governing.sentence)
    return Cures("none", (), search.tried, best.label, best.then.governing.sentence)


def _shown(kept: dict[str, Cure]) -> tuple[Cure, ...]:
    """Return the best few.

    What is of another sort keeps a place: less on it, a body made anew, one change alone.
    """
    ranked = _once(sorted(kept.values(), key=_place))
    shown = ranked[:_MOST]
    sorts = [
        [cure for cure in ranked if cure.code == "lighten"],
        [cure for cure in ranked if anew(cure.code)],
        [cure for cure in ranked if "-" not in cure.code],
    ]
    apart = [some[0] for some in sorts if some and not any(cure in shown for cure in some)]
    apart = list({cure.code: cure for cure in apart}.values())
    return (*shown[: _MOST - len(apart)], *apart)


_PLAINEST = ("elsewhere", "every", "seat", "support")  # what names best where its supports go


def _once(ranked: list[Cure]) -> list[Cure]:
    """Return them without those that come to the same as another, by its plainest name."""
    best: dict[tuple[AnyPiece, tuple[Feature, ...]], Cure] = {}
    for cure in ranked:
        of = cure.piece, cure.wood
        if of not in best or _named(cure) < _named(best[of]):
            best[of] = cure  # it keeps the place of the first
    return list(best.values())


def _named(cure: Cure) -> int:
    return _PLAINEST.index(cure.code) if cure.code in _PLAINEST else len(_PLAINEST)


def _place(cure: Cure) -> tuple[int, bool, bool, bool, float]:
    """Rank what holds first, the least trouble first; what opens the wall last.

    Of what is close, what is least close.
    """
    spare = round(cure.used, 1) if cure.outcome == "close" else 0.0
    return RANK[cure.outcome], bool(cure.wood), asks_less(cure.code), anew(cure.code), spare


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


def _cure(
    code: str, label: Message, piece: AnyPiece, then: PieceVerdict, wood: tuple[Feature, ...] = ()
) -> Cure:
    return Cure(
        code=code,
        label=label,
        piece=piece,
        outcome=then.outcome,
        but=then.but,
        used=then.used,
        wood=wood,
    )


class _Course(NamedTuple):
    """Changes made one after the other, the verdict after them, and what didn't fit at first.

    `wood`: blocking that they put in.
    """

    codes: tuple[str, ...]
    label: Message
    piece: AnyPiece
    then: PieceVerdict
    first: frozenset[str]
    wood: tuple[Feature, ...] = ()

    def cure(self) -> Cure:
        return _cure("-".join(self.codes), self.label, self.piece, self.then, self.wood)


def _misfits(verdict: PieceVerdict) -> set[str]:
    """Return the codes of what doesn't fit: it hides the rest."""
    return {check.code for check in verdict.checks if check.outcome in FAILED and not check.gradual}


def _burden(course: _Course) -> tuple[int, int, float]:
    """How much is wrong in all: what doesn't fit still, or now, then by how much the rest is over.

    Of two that are as bad, the one with less trouble was tried first.
    """
    misfits = _misfits(course.then)
    over = sum(_over(check) for check in _wrong(course.then) if check.gradual)
    return len(misfits & course.first), len(misfits), round(over, 3)


def _most_helpful(courses: list[_Course]) -> list[_Course]:
    """Return the courses to follow: the best that keep wish and body, and the best of the rest.

    Of those that begin alike the best alone, so that a good beginning is not lost.
    """
    keeps: dict[str, _Course] = {}
    rest: dict[str, _Course] = {}
    for course in sorted(courses, key=_burden):
        kept = not any(asks_less(code) or anew(code) for code in course.codes)
        (keeps if kept else rest).setdefault(course.codes[0], course)
    return [*list(keeps.values())[:_FOLLOWED], *list(rest.values())[:1]]


def _over(check: Check) -> float:
    """How far a check is over what it may be, each double alike; a little for what is close."""
    return (
        1.0 + log(check.utilisation)
        if check.outcome in FAILED
        else 0.01 + max(check.utilisation - data.house("close_from"), 0.0)
    )


class _Search:
    """The changes to one piece that help it, and those that mend it."""

    def __init__(self, plan: Plan, now: PieceVerdict) -> None:
        self.plan = plan
        self.now = now
        self.enough = ("holds",) if now.outcome == "holds_but" else ("holds", "holds_but")
        self.courses: list[_Course] = []  # that help, the fewest changes first
        self.tried = 0
        self._seen: set[tuple[AnyPiece, tuple[Feature, ...]]] = set()

    def settled(self, kept: dict[str, Cure]) -> bool:
        """Whether a change makes it hold as it was wished, its body as it is."""
        return any(
            cure.outcome in self.enough and not asks_less(cure.code) and not anew(cure.code)
            for cure in kept.values()
        )

    def mended(self, kept: dict[str, Cure]) -> bool:
        """Whether anything makes it hold."""
        return any(cure.outcome in self.enough for cure in kept.values())

    def singles(self, start: _Course) -> dict[str, Cure]:
        """Return single changes, of each kind the first step that makes it hold."""
        kept: dict[str, Cure] = {}
        before = _burden(start)
        for remedy in remedies(start.piece, self.plan, _wrong(self.now)):
            if remedy.code in kept and kept[remedy.code].outcome == "holds":
                continue
            held = {(each.piece, each.wood) for each in kept.values() if each.outcome == "holds"}
            if len(held) >= _MOST - 1:
                break
            then = self._tried(remedy, self.plan)
            if then is None:
                continue
            course = _Course(
                (remedy.code,), remedy.label, remedy.piece, then, start.first, remedy.wood
            )
            if _burden(course) < before:
                self.courses.append(course)
            if (
                then.outcome not in FAILS
                and severity(then.governing) < severity(self.now.governing)
                and (remedy.code not in kept or then.outcome == "holds")
            ):
                kept[remedy.code] = course.cure()
        return kept

    def together(self) -> Iterator[Cure]:
        """Two changes together that make it hold, else three.

        Each time the most helpful courses are followed further. Where none makes it hold, the best
        that at least stops it from failing.
        """
        courses = _most_helpful(self.courses)
        nearly: dict[frozenset[str], _Course] = {}
        for _ in range(_MOST_TOGETHER - 1):
            further = [each for course in courses for each in self._further(course)]
            self.courses += further
            held: dict[frozenset[str], _Course] = {}
            for course in further:
                if course.then.outcome not in FAILS:
                    some = held if course.then.outcome == "holds" else nearly
                    known = some.setdefault(frozenset(course.codes), course)
                    if _burden(course) < _burden(known):
                        some[frozenset(course.codes)] = course
            if held:
                # what is added to what holds already only makes more of it
                nearly = {
                    codes: each
                    for codes, each in nearly.items()
                    if not any(codes >= other for other in held)
                }
                yield from (each.cure() for each in (*held.values(), *nearly.values()))
                return
            courses = _most_helpful(further)
        yield from (course.cure() for course in sorted(nearly.values(), key=_burden)[:1])

    def opened(self, start: _Course, mended: bool) -> Iterator[Cure]:
        """Yield a board across studs, and blocking, for what is on no stud.

        With other changes where nothing else mends it. They are work of their own, and for blocking
        the wall is opened: so they are looked for by themselves.
        """
        for put_in in (blocking.across, blocking.behind):
            for cure in self._on_wood(put_in(start.piece, self.plan), start, mended):
                mended = mended or cure.outcome == "holds"
                yield cure

    def _on_wood(self, wooded: Iterable[Remedy], start: _Course, mended: bool) -> Iterator[Cure]:
        """Return the best of some changes that put wood in; with others where none mends it."""
        courses = [
            _Course((remedy.code,), remedy.label, remedy.piece, then, start.first, remedy.wood)
            for remedy in wooded
            if (then := self._tried(remedy, self.plan)) is not None
            and severity(then.governing) < severity(self.now.governing)
        ]
        held = [course for course in courses if course.then.outcome in self.enough]
        if not held and not mended:
            self.courses += courses
            held = [
                each
                for course in sorted(courses, key=_burden)[:1]
                for each in self._further(course)
                if each.then.outcome == "holds"
            ]
        yield from (course.cure() for course in sorted(held, key=_burden)[:1])

    def lightened(self) -> Iterator[Cure]:
        """Return the most helpful courses with less on it besides."""
        found = 0
        for course in sorted(self.courses, key=_burden)[: 2 * _FOLLOWED]:
            lighter = _lighter(
                course.piece, self.plan.with_wood(course.wood), course.then, self.now
            )
            if lighter is not None:
                found += 1
                codes = (*course.codes, lighter.code)
                yield msgspec.structs.replace(
                    lighter,
                    code="-".join(codes),
                    label=_both(course.label, lighter.label),
                    wood=course.wood,
                )
            if found == 2:
                return

    def asking(self) -> Cure | None:
        """Return the least change after which only a question is left."""
        for course in self.courses:
            if course.then.outcome == "cannot_tell" and not any(
                check.outcome in FAILED for check in course.then.checks
            ):
                then = course.cure()
                label = Message(
                    "{change}; then find out: {ask!l}",
                    {"change": course.label, "ask": next(iter(course.then.unknown), "")},
                )
                return msgspec.structs.replace(then, label=label)
        return None

    def _further(self, course: _Course) -> list[_Course]:
        """Return a course with each change after it that helps.

        Of each kind of change no further than the first step that makes it hold.
        """
        found: list[_Course] = []
        held: set[str] = set()
        tries, before = 0, _burden(course)
        plan = self.plan.with_wood(course.wood)
        for remedy in remedies(course.piece, plan, _wrong(course.then)):
            if remedy.code in course.codes or remedy.code in held:
                continue
            tries += 1
            wood = (*course.wood, *remedy.wood)
            if (remedy.piece, wood) in self._seen:
                continue  # other changes led to the same
            then = self._tried(remedy._replace(wood=wood), self.plan)
            if then is not None:
                more = _Course(
                    (*course.codes, remedy.code),
                    _both(course.label, remedy.label),
                    remedy.piece,
                    then,
                    course.first,
                    wood,
                )
                if _burden(more) < before:
                    found.append(more)
                    if then.outcome == "holds":
                        held.add(remedy.code)
            if tries >= _TRIES_FURTHER or len(held) >= _HELD:
                break
        return found

    def _tried(self, remedy: Remedy, plan: Plan) -> PieceVerdict | None:
        self._seen.add((remedy.piece, remedy.wood))
        self.tried += 1
        return _then(remedy.piece, plan.with_wood(remedy.wood))


def _both(one: Message, other: Message) -> Message:
    """Return two things to do in one sentence."""
    return Message("{one}; and {other!l}", {"one": one, "other": other})


def _otherwise(piece: AnyPiece, plan: Plan) -> Cure | None:
    """Return the best of the other ways to hang the same, where one holds.

    Where none does, for the quietest use.
    """
    for use in (piece.use, *quieter_uses(piece)[-1:]):
        wish = msgspec.structs.replace(wish_of(piece), use=use)
        best = find_options(plan, wish).best
        if best is None or best.outcome not in ("holds", "holds_but"):
            continue
        label = Message(
            "Hang it another way: {kind!l}", {"kind": KINDS[mount_of(best.piece).kind].name}
        )
        if use != piece.use:
            label = _both(label, only_for(use))
        return Cure(
            code="otherwise",
            label=label,
            piece=best.piece,
            outcome=best.outcome,
            but=best.but,
            used=best.used,
        )
    return None


def _lighter(
    piece: AnyPiece, plan: Plan, now: PieceVerdict, first: PieceVerdict | None = None
) -> Cure | None:
    """Return what it may carry as it is, to a tenth of a kilogram below, when that is anything.

    `first`: the verdict that it must be better than, where that is not the one now.
    """
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
        or severity(then.governing) >= severity((first or now).governing)
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
