"""The best design of one kind of mounting for a wish.

The designs are looked through from the least trouble to the most, and no further than where even a
design that used nothing of what it may bear would come out behind the best one that holds: that one
then is the best there is. Of one design the strongest screws and anchors are tried first: with
others it uses no less, as its supports share then. What fails the same way by the same figure in
several designs of one place, or of one hardware, is taken to fail so in the rest of them.
"""

from collections import Counter
from collections.abc import Iterator
from math import inf
from typing import NamedTuple

import msgspec

from trade import data
from trade.assess import judge_piece
from trade.calculation import Quantity
from trade.check import FAILED, RANK, Message, Outcome, PieceVerdict, severity
from trade.choose import candidates, criteria
from trade.choose.candidate_positions import HeldBy
from trade.choose.criteria import Effort
from trade.choose.request import HangRequest
from trade.choose.stud_layouts import StudLayout
from trade.cutting.price import DesignPrice, price
from trade.cutting.sold import unsold
from trade.fixings.support import Support
from trade.language import Figure, compose, counted, numbered
from trade.measure import Units
from trade.mounts import mount_of
from trade.mounts.without import without
from trade.plan.model import AnyPiece, Plan, Policy, Wall

_MOST_TRIES = 60  # of one kind: what is not found by then is hardly worth finding
_MOST_BEHIND = 15  # of one that holds and can't be the best of all kinds
_MOST_FOR_NOTHING = 25  # of one that can't, and of which nothing holds so far
_SAME_MM = 0.5
# with another anchor supports take so much, at least, of what they take with one: never under 0.90
# over the wishes of the tests
_SAME_FORCES = 0.9
_ANCHORS_MM = data.house("anchor_as_moved_mm")
_NOT_YET: tuple[Outcome, ...] = ("holds_but", "close")  # with these a better one is looked for
_ALIKE = {"place": 4, "hardware": 2}  # so often the same failure, and the rest are left out
_OF_SCREWS = ("screw.e", "strip.")  # what smaller screws may mend
_OF_ANCHORS = ("screw.e", "strip.", "anchor.edge", "anchor.beside", "anchor.behind", "anchor.base")
_OF_PLACE = ("anchor.", "screw.")
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

    `but`: what is a nuisance about it; `used`: how much of its strength; `price`: what it costs in
    the shop, None while designs of one kind are compared by what goes into them; `marks`: each
    merit from 0 to 1; `demerit`: what they lack in all, which ranks; `changed`: what is other than
    was asked for, by how much and why.
    """

    kind: str
    hold: HeldBy
    piece: AnyPiece
    outcome: Outcome
    but: str
    used: float
    effort: Effort
    price: DesignPrice | None = None
    marks: dict[str, float]
    demerit: float
    reasons: tuple[Message, ...]
    changed: tuple[Message, ...] = ()


class Tried(NamedTuple):
    """What came out of one kind.

    The best design, or else the verdict on the one that failed least; `cut`: there was more to try.
    """

    way: Option | None
    failed: PieceVerdict | None
    tries: int
    beyond: str = ""
    cut: bool = False


class _Group(NamedTuple):
    """A design but for what goes into the wall.

    `least`: what it lacks before anything is judged, its screws for nothing; `hardware`: which of
    those that the kind offers at every place.
    """

    least: float
    number: int
    piece: AnyPiece
    layout: StudLayout
    holes: int
    hardware: int

    @property
    def of(self) -> tuple[tuple[str, object], ...]:
        """What it shares with other designs."""
        return ("place", self.layout), ("hardware", self.hardware)


class _Failing:
    """What failed of one design, and what fails with it."""

    def __init__(self) -> None:
        """Nothing has failed yet."""
        self.hopeless: list[tuple[float, ...]] = []  # what holds no more than these fails, too
        self.splits_mm = inf  # what is so wide splits the wood that it goes through
        self.judged: list[tuple[float, tuple[float, ...]]] = []  # so much used of what may be asked

    def note(
        self, verdict: PieceVerdict, drive: candidates.Drive, holds: tuple[float, ...]
    ) -> None:
        """Keep what failed with a screw or an anchor that may be asked for so much."""
        if any(c.code == "strip.edge" and c.outcome in FAILED for c in verdict.checks):
            self.splits_mm = min(self.splits_mm, drive.through_mm)
        if _beyond_help(verdict, drive):
            self.hopeless.append(holds)
        if holds and min(holds) > 0:
            self.judged.append((_used_of(drive, verdict), holds))

    def asks_of(self, holds: tuple[float, ...]) -> float:
        """Return how much of something else the same forces use at least; 0 where nobody knows.

        They differ a little, for supports share by what holds them, too.
        """
        if not holds or min(holds) <= 0:
            return 0.0
        return max(
            (
                _SAME_FORCES * used * min(a / b for a, b in zip(judged, holds, strict=True))
                for used, judged in self.judged
            ),
            default=0.0,
        )

    def rules_out(self, drive: candidates.Drive, holds: tuple[float, ...]) -> bool:
        """Whether that fails, too."""
        return (
            drive.through_mm >= self.splits_mm
            or self.asks_of(holds) > 1
            or any(candidates.weaker(holds, each) for each in self.hopeless)
        )


class Search:
    """The search for the best design of a kind, held in one way."""

    def __init__(
        self, plan: Plan, request: HangRequest, kind: str, hold: HeldBy, leading: float = inf
    ) -> None:
        """Nothing is tried yet. `leading`: what the best way so far lacks that holds."""
        self.leading = leading
        self.plan, self.request, self.kind, self.hold = plan, request, kind, hold
        self.best: Option | None = None
        self.chosen: PieceVerdict | None = None
        self.failed: PieceVerdict | None = None
        self.tries, self.beyond = 0, ""
        self.failures: Counter[object] = Counter()
        self.given_up: set[object] = set()

    def among(self, where: list[StudLayout]) -> Tried:
        """Return the best design at some places."""
        cut = False
        for group in sorted(self._groups(where), key=lambda each: each[:2]):
            most = _MOST_TRIES
            if group.least >= self.leading:
                most = _MOST_BEHIND if self.best is not None else _MOST_FOR_NOTHING
            if self._behind(group.least):
                break
            if self.tries >= most:
                cut = True
                break
            if self.given_up.isdisjoint(group.of):
                self._try(group)
        best = self.best
        if best is not None and self.chosen is not None:
            reasons = reasons_of(best.piece, self.chosen, self.plan.wall)
            changed = _changed(best.piece, self.request, self.plan.wall)
            best = msgspec.structs.replace(
                priced(best, self.plan),
                reasons=(*changed, *reasons, *unsold(best.piece, self.plan)),
                changed=changed,
            )
        return Tried(best, self.failed, self.tries, self.beyond, cut)

    def _behind(self, lacks: float) -> bool:
        """Whether what lacks so much at least would come out behind the best that holds."""
        best = self.best
        return best is not None and best.outcome not in _NOT_YET and lacks >= best.demerit

    def _groups(self, where: list[StudLayout]) -> Iterator[_Group]:
        """Yield every place with every hardware and board, and the least that each may lack."""
        plan, wall, policy = self.plan, self.plan.wall, self.plan.policy
        per_support: dict[int, float] = {}
        number = 0
        for layout in where:
            base = candidates.base(self.request, self.kind, layout, plan)
            if base is None:
                continue
            for n, piece in enumerate(candidates.hardware(base, policy, plan.units)):
                if n not in per_support:
                    per_support[n] = criteria.holes_of(piece, wall) / max(len(piece.supports_mm), 1)
                count = round(per_support[n] * len(piece.supports_mm))
                number += 1
                effort = criteria.sized(piece, wall, policy, count, 0.0)
                lacks = _lacks(effort, 0.0, trouble_of(layout, self.hold), policy)
                yield _Group(lacks, number, piece, layout, count, n)

    def _try(self, group: _Group) -> None:
        """Judge a design with what may go into the wall, the cheapest that may hold first."""
        wall, policy = self.plan.wall, self.plan.policy
        found = candidates.drives(
            group.piece, wall, policy, self.plan.shop.have, self.request.held_with
        )
        held = candidates.held_by(found, group.piece, wall)
        failing = _Failing()
        probed = self._probe(group, found, held, failing)
        least: PieceVerdict | None = None  # of those that fail
        for verdict in probed:
            least = _lesser(least, verdict)
        if probed and (len(failing.hopeless) == len(probed) or not _by_screws(probed[-1])):
            self._learn(group, least)
            return
        used = min(map(_at_least, probed), default=0.0)
        trouble = trouble_of(group.layout, self.hold)
        if probed and all(map(_for_good, probed)):
            cost = found[0].price * group.holes
            effort = criteria.sized(group.piece, wall, policy, group.holes, cost)
            if self._no_better(_lacks(effort, used, trouble, policy), probed):
                self._learn(group, probed[0])
                return
        for drive, holds in zip(found, held, strict=True):
            if failing.rules_out(drive, holds):
                continue
            piece = candidates.driven(group.piece, drive)
            effort = criteria.sized(piece, wall, policy, group.holes, drive.price * group.holes)
            said = over(effort, policy, self.plan.units)
            self.beyond = said or self.beyond
            if said or self._behind(_lacks(effort, used, trouble, policy)):
                break
            taken = max(used, failing.asks_of(holds))
            if self._behind(_lacks(effort, taken, trouble, policy)):
                continue
            verdict = judge_piece(piece, self.plan)
            self.tries += 1
            if verdict.outcome in FAILED:
                least = _lesser(least, verdict)
                if not _by_screws(verdict):
                    break
                failing.note(verdict, drive, holds)
                continue
            way = option(self.kind, self.hold, piece, verdict, effort, trouble, policy)
            if not self._keep(way, verdict):
                break
            if _stays(verdict, probed):
                least = verdict
                break
        self._learn(group, least)

    def _probe(
        self,
        group: _Group,
        found: list[candidates.Drive],
        held: list[tuple[float, ...]],
        failing: _Failing,
    ) -> list[PieceVerdict]:
        """Judge a design with the strongest, no further than where no screw changes anything."""
        probed: list[PieceVerdict] = []
        for n in candidates.strongest(held):
            verdict = judge_piece(candidates.driven(group.piece, found[n]), self.plan)
            self.tries += 1
            probed.append(verdict)
            failing.note(verdict, found[n], held[n])
            if not _by_screws(verdict):
                break
        return probed

    def _no_better(self, lacks: float, probed: list[PieceVerdict]) -> bool:
        """Whether a design that is no better at its strongest comes out behind the best so far."""
        best = self.best
        rank = min(RANK[verdict.outcome] for verdict in probed)
        return best is not None and (rank, lacks) >= (RANK[best.outcome], best.demerit)

    def _keep(self, way: Option, verdict: PieceVerdict) -> bool:
        """Keep a design where it is the best so far; return whether there is the money for it."""
        budget = self.plan.policy.budget
        if budget is not None and (cost := price(way.piece, self.plan).cost) > budget:
            self.beyond = compose(
                "It costs about {cost}; {budget} is there.",
                cost=Figure(f"{cost:.0f}"),
                budget=Figure(f"{budget:.0f}"),
            )
            return False
        best = self.best
        if best is None or (RANK[way.outcome], way.demerit) < (RANK[best.outcome], best.demerit):
            self.best, self.chosen = way, verdict
        return True

    def _learn(self, group: _Group, least: PieceVerdict | None) -> None:
        """Note what is wrong with a design; give up a place or hardware where that comes again."""
        if least is None:
            return
        self.failed = _lesser(self.failed, least)
        nuisance = least.nuisance if least.outcome == "holds_but" else None
        check = nuisance or least.governing
        for shared in group.of:
            if shared[0] == "place" and not (
                least.outcome in FAILED
                and check.code.startswith(_OF_PLACE)
                and not check.code.startswith(_OF_SCREWS)
            ):
                continue  # other hardware may well mend that, or a smaller screw
            failure = (shared, check.code, round(check.utilisation, 3))
            self.failures[failure] += 1
            if self.failures[failure] >= _ALIKE[shared[0]]:
                self.given_up.add(shared)


def _by_screws(verdict: PieceVerdict) -> bool:
    """Whether other screws or anchors might mend all that fails."""
    return all(c.outcome not in FAILED or c.code.startswith(_BY_SCREWS) for c in verdict.checks)


def _used_of(drive: candidates.Drive, verdict: PieceVerdict) -> float:
    """Return how much of the strength of its screw or anchor is used."""
    mine = "screw." if drive.anchor is None else "anchor."
    asked = (
        check.utilisation
        for check in verdict.checks
        if check.gradual and check.code.startswith(mine) and "pull_through" not in check.code
    )
    return max(asked, default=0.0)


def _beyond_help(verdict: PieceVerdict, drive: candidates.Drive) -> bool:
    """Whether nothing weaker would do either: it is not its head or its length that fails."""
    spared = _OF_SCREWS if drive.anchor is None else _OF_ANCHORS
    return any(
        check.outcome in FAILED
        and not check.code.startswith(spared)
        and "pull_through" not in check.code
        for check in verdict.checks
    )


def _for_good(verdict: PieceVerdict) -> bool:
    """Whether it is close, or a nuisance, for a reason that no screw or anchor changes."""
    check = verdict.nuisance if verdict.outcome == "holds_but" else verdict.governing
    return (
        verdict.outcome in _NOT_YET and check is not None and not check.code.startswith(_BY_SCREWS)
    )


def _stays(verdict: PieceVerdict, probed: list[PieceVerdict]) -> bool:
    """Whether it stays close, or a nuisance, whatever is driven: the strongest are so, too."""
    nuisance = verdict.nuisance if verdict.outcome == "holds_but" else None
    return _for_good(verdict) or (
        nuisance is not None
        and any(
            each.nuisance is not None and each.nuisance.code == nuisance.code for each in probed
        )
    )


def _at_least(strongest: PieceVerdict) -> float:
    """How much of its strength it uses whatever is driven.

    What it does with the strongest, but for how wide the heads are.
    """
    asked = (
        check for check in strongest.checks if check.gradual and "pull_through" not in check.code
    )
    return max((check.utilisation for check in asked), default=0.0)


def trouble_of(layout: StudLayout, hold: HeldBy) -> float:
    """How far a place is from what was wished, mm; being held by anchors counts as a detour."""
    return layout.trouble_mm + (_ANCHORS_MM if hold == "anchors" else 0.0)


def _lacks(effort: Effort, used: float, trouble_mm: float, policy: Policy) -> float:
    return criteria.demerit(criteria.marks(effort, used, trouble_mm), policy.matters)


def over(effort: Effort, policy: Policy, units: Units) -> str:
    """Return what a policy's bounds say against it; nothing when it is within them."""
    lacking = [data.tools()[tool] for tool in effort.tools if tool in policy.lacks]
    if lacking:
        return compose(
            "It takes a {lacking}, which is not at hand. {without}",
            lacking=lacking[0].name,
            without=without(lacking[0], units),
        )
    if policy.comes_off and not effort.off:
        return "It leaves a patch or large holes when it comes off."
    if policy.most_holes is not None and effort.holes > policy.most_holes:
        return compose(
            "It takes {holes}; no more than {most_holes} were asked for.",
            holes=counted(effort.holes, "{n} hole", "{n} holes"),
            most_holes=policy.most_holes,
        )
    return ""


def _lesser(one: PieceVerdict | None, other: PieceVerdict) -> PieceVerdict | None:
    """Return the one that failed less."""
    if other.outcome not in FAILED:
        return one
    return other if one is None or severity(other.governing) < severity(one.governing) else one


def option(
    kind: str,
    hold: HeldBy,
    piece: AnyPiece,
    verdict: PieceVerdict,
    effort: Effort,
    trouble_mm: float,
    policy: Policy,
) -> Option:
    """Return a judged design as a way to hang it."""
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


def priced(way: Option, plan: Plan) -> Option:
    """Return a way with what it costs in the shop, and its merits by that."""
    asked = price(way.piece, plan)
    marks = criteria.at_price(way.marks, asked.compared)
    return msgspec.structs.replace(
        way, price=asked, marks=marks, demerit=criteria.demerit(marks, plan.policy.matters)
    )


def _changed(piece: AnyPiece, request: HangRequest, wall: Wall) -> tuple[Message, ...]:
    """Return what is other than was asked for, by how much and why."""
    found: list[Message] = []
    longer = piece.length_mm - request.length_mm
    if abs(longer) > _SAME_MM:
        if data.mounting_kinds()[mount_of(piece).kind].ends:
            said = (
                "{by} longer than asked for: it goes from wall to wall."
                if longer > 0
                else "{by} shorter than asked for: it goes from wall to wall."
            )
        elif wall.build == "mass":
            said = (
                "{by} longer than asked for, as this kind is made."
                if longer > 0
                else "{by} shorter than asked for, as this kind is made."
            )
        else:
            said = (
                "{by} longer than asked for, to reach the studs."
                if longer > 0
                else "{by} shorter than asked for, to end at the studs that hold it."
            )
        found.append(Message(said, {"by": Quantity(abs(longer), "length")}))
    higher = piece.top_mm - request.top_mm
    if abs(higher) > _SAME_MM and not mount_of(piece).stands:
        wood = wood_under(piece, wall)
        if wood is not None:
            said = (
                "{by} higher than asked for, so that its screws meet the {wood}."
                if higher > 0
                else "{by} lower than asked for, so that its screws meet the {wood}."
            )
        else:
            said = (
                "{by} higher than asked for, clear of what is there."
                if higher > 0
                else "{by} lower than asked for, clear of what is there."
            )
        by = Quantity(abs(higher), "length")
        found.append(Message(said, {"by": by, **({} if wood is None else {"wood": wood})}))
    return tuple(found)


def wood_under(piece: AnyPiece, wall: Wall) -> str | None:
    """Return what wood across any of it is screwed to: blocking, a header, a board; else None."""
    supports = mount_of(piece).supports(piece, wall)
    return next(
        (
            each.stud.wood
            for each in supports
            if isinstance(each, Support) and each.stud.across is not None
        ),
        None,
    )


def in_blocking(piece: AnyPiece, wall: Wall) -> bool:
    """Whether any of it is screwed to blocking, a header, or a board across studs."""
    return wood_under(piece, wall) is not None


def reasons_of(piece: AnyPiece, verdict: PieceVerdict, wall: Wall) -> tuple[Message, ...]:
    """How it is held, and what limits it."""
    mount, count = mount_of(piece), len(piece.supports_mm)
    supports, noun = mount.supports(piece, wall), mount.noun_of(piece)
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
    wood = wood_under(piece, wall)
    if not anchor and wood is not None:
        held = compose("{each}, in the {wood} behind it.", each=each, wood=wood)
    elif not anchor:
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
