"""What the rules answer with.

Frozen results that carry their units, their source and the whole sum. They print nothing.
"""

from collections.abc import Iterable
from math import inf
from typing import Literal, TypeAlias, get_args

import msgspec

from trade import data
from trade.calculation import Calculation, Equation, Quantity
from trade.data.rows import Limit

Outcome = Literal["holds", "holds_but", "close", "cannot_tell", "doesnt_fit", "wont_hold"]
"""What is said of a check or a piece, best first.

Strength alone says `holds`, `close` and `wont_hold`; what doesn't fit says `doesnt_fit`; of either
it may be that nobody `cannot_tell`. A nuisance in service turns `holds` into `holds_but`, no more.
"""
FAILED: tuple[Outcome, ...] = ("wont_hold", "doesnt_fit")
FAILS: tuple[Outcome, ...] = ("cannot_tell", *FAILED)  # with these nobody drills yet
_DIGITS = 9  # utilisations that differ only beyond are equal
_NOUGHT = 1e-6  # what nothing at all is taken as, where it divides
_ORDER: tuple[Outcome, ...] = get_args(Outcome)
LIMITS: tuple[Limit, ...] = get_args(Limit)
RANK: dict[Outcome, int] = {word: n for n, word in enumerate(_ORDER)}
OVER: dict[Limit, Outcome] = {"strength": "wont_hold", "service": "holds_but", "fit": "doesnt_fit"}


class Message(msgspec.Struct, frozen=True, gc=False):
    """A sentence that can be said in anybody's units and language: its template and its parts."""

    template: str
    parts: "Placeholders" = {}


Placeholders: TypeAlias = dict[str, "Quantity | Message | str | int"]
"""What stands for the `{names}` of a template."""


class Check(msgspec.Struct, frozen=True, kw_only=True, gc=False):
    """One question asked of a piece: what is demanded, what is there, by which rule.

    `part` names what governs (`board`, `left bracket`), `support` its number from the left, from 0,
    when it is a support; `case` the load case. `unknown` lists what to find out before the answer
    can be trusted. `limit`: which limit state it asks about, strength (it breaks, comes out, climbs
    off, tips), service (it sags, droops, wobbles) or fit (it can't be built as drawn); `threshold`:
    a size that is reached or not, where nearly is no nearer to failing; `but`: a nuisance in a few
    words.
    """

    code: str
    name: str
    part: str
    demand: Quantity
    capacity: Quantity
    rule: str
    source: str
    case: str
    sentence: Message
    equations: tuple[Equation, ...] = ()
    support: int | None = None
    limit: Limit = "strength"
    threshold: bool = False
    but: str = ""
    unknown: tuple[str, ...] = ()

    @property
    def utilisation(self) -> float:
        """Demand over capacity; 1 is the limit."""
        return _used(self.demand, self.capacity)

    @property
    def values(self) -> dict[str, float]:
        """What each symbol of its sum is worth, in the core's units."""
        return {line.symbol: line.value for line in self.equations}

    @property
    def gradual(self) -> bool:
        """Whether more of a strength may be used up and it still holds.

        A size is reached or not.
        """
        return self.limit == "strength" and not self.threshold

    @property
    def pushed(self) -> bool:
        """Whether its figure comes from the accidental push of its use."""
        return "push" in self.case or "lifted" in self.case or "tug" in self.case

    @property
    def sized(self) -> bool:
        """Whether it is a nuisance by its size, of which one person minds more than another."""
        return self.limit == "service" and self.demand.kind in ("fine", "moment")

    def within(self, times: float) -> "Check":
        """Return the same check with its limit multiplied by `times`."""
        sums = Calculation(self.equations)
        usual = next(
            (each.symbol for each in reversed(self.equations) if each.result == self.capacity), "L"
        )
        sums.given(usual, self.capacity.value, self.capacity.kind, "usual limit")
        sums.given("m", times, "ratio", "times the usual limit, by how much it is minded")
        sums.then(f"{usual}'", f"m {usual}", self.capacity.kind, "limit")
        limit = sums.quantity(f"{usual}'")
        said = self.sentence.parts | {
            "capacity": limit,
            "used": Quantity(_used(self.demand, limit), "percent"),
        }
        return msgspec.structs.replace(
            self,
            capacity=limit,
            sentence=Message(self.sentence.template, said),
            equations=tuple(sums.equations),
        )

    @property
    def outcome(self) -> Outcome:
        """The verdict of this check alone. An unknown hides nothing that fails already."""
        return _word(self, self.utilisation, self.gradual)


def _used(demand: Quantity, capacity: Quantity) -> float:
    """Demand over capacity, a number even where there is no capacity at all."""
    return demand.value / max(capacity.value, _NOUGHT)


def _word(check: Check, used: float, gradual: bool) -> Outcome:
    if not used <= 1:  # what is not a number fails too
        return OVER[check.limit]
    if check.limit == "service":
        return "holds"
    if check.unknown:
        return "cannot_tell"
    return "close" if gradual and used > data.house("close_from") else "holds"


class Assumption(msgspec.Struct, frozen=True):
    """Something taken for granted because nobody said otherwise."""

    code: str
    text: str


class PieceVerdict(msgspec.Struct, frozen=True, kw_only=True):
    """All checks of one piece, worst first."""

    key: str
    name: str
    checks: tuple[Check, ...]
    assumptions: tuple[Assumption, ...]

    @property
    def outcome(self) -> Outcome:
        """The worst word of its checks."""
        return self.checks[0].outcome if self.checks else "holds"

    @property
    def fails(self) -> bool:
        """Whether nobody drills for it yet."""
        return self.outcome in FAILS

    @property
    def governing(self) -> Check:
        """The check that decides."""
        return self.checks[0]

    def of(self, limit: Limit) -> tuple[Check, ...]:
        """Its checks of one limit state, worst first."""
        return tuple(check for check in self.checks if check.limit == limit)

    @property
    def weakest(self) -> Check | None:
        """What uses its strength most; None where nothing asks for any."""
        failed = self.governing if self.checks and self.governing.outcome == "wont_hold" else None
        return failed or max(
            (check for check in self.checks if check.gradual),
            key=lambda check: round(check.utilisation, _DIGITS),
            default=None,
        )

    @property
    def used(self) -> float:
        """How much of its strength is used."""
        return self.weakest.utilisation if self.weakest else 0.0

    @property
    def nuisance(self) -> Check | None:
        """The worst of what is a nuisance in service; None where there is none."""
        return next((check for check in self.checks if check.outcome == "holds_but"), None)

    @property
    def but(self) -> str:
        """The worst nuisance in a few words; nothing where there is none."""
        return self.nuisance.but if self.nuisance else ""

    @property
    def unknown(self) -> tuple[str, ...]:
        """What to find out, each said once."""
        return tuple(
            dict.fromkeys(
                ask for check in self.checks if check.limit != "service" for ask in check.unknown
            )
        )


class Verdict(msgspec.Struct, frozen=True, kw_only=True):
    """The verdict on a whole plan: one per piece, and the worst word of all."""

    pieces: tuple[PieceVerdict, ...]

    @property
    def outcome(self) -> Outcome:
        """The worst word of its pieces; an empty wall holds nothing, so nothing fails."""
        return worst(piece.outcome for piece in self.pieces)

    def piece(self, key: str) -> PieceVerdict:
        """Return the verdict of one piece.

        Raises:
            KeyError: there is no such piece.
        """
        for piece in self.pieces:
            if piece.key == key:
                return piece
        raise KeyError(key)


def worst(words: object) -> Outcome:
    """Return the worst of some words; `holds` of none."""
    return max(words, key=_ORDER.index, default="holds")  # type: ignore[call-overload]


def strained(checks: Iterable[Check]) -> float:
    """How much of the strength is used by what is asked for most.

    Infinite where something doesn't fit or suit.
    """
    worst = 0.0
    for check in checks:
        if check.gradual:
            worst = max(worst, check.utilisation)
        elif check.outcome in FAILED:
            return inf
    return worst


def severity(check: Check) -> tuple[int, bool, float]:
    """How bad a check is: its word, then how much of it is used.

    Of what fails, a threshold comes first, for it is the cause of the rest; of what holds, strength
    comes first. What differs only by rounding is equal, so that it keeps its order.
    """
    used, gradual = check.utilisation, check.gradual
    word = _word(check, used, gradual)
    return RANK[word], gradual != (word in FAILED), round(used, _DIGITS)


def make(
    code: str,
    *,
    part: str,
    demand: Quantity,
    capacity: Quantity,
    case: str,
    template: str,
    parts: Placeholders | None = None,
    equations: Iterable[Equation] = (),
    support: int | None = None,
    limit: Limit | None = None,
    unknown: tuple[str, ...] = (),
) -> Check:
    """Build a check.

    Its name, rule, source and limit state come from the table of rules, unless the limit state is
    given.

    Raises:
        KeyError: no rule has that code (a bug here, not a person's mistake).
    """
    rule = data.rules()[code]
    used = Quantity(_used(demand, capacity), "percent")
    said: Placeholders = {"demand": demand, "capacity": capacity, "used": used}
    if parts:
        said |= parts
    return Check(
        code=code,
        name=rule.name,
        part=part,
        demand=demand,
        capacity=capacity,
        rule=rule.rule,
        source=rule.source,
        case=case,
        sentence=Message(template, said),
        equations=tuple(equations),
        support=support,
        limit=limit or rule.limit,
        threshold=rule.threshold or (limit == "strength" and rule.limit == "fit"),
        but=rule.but if (limit or rule.limit) == "service" else "",
        unknown=unknown,
    )
