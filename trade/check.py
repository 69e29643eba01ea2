"""What the rules answer with: frozen results that carry their units, their source and the whole sum. They print nothing."""

from typing import Literal

import msgspec

from trade import data

Kind = Literal["force", "pull", "stress", "length", "fine", "moment", "mass", "ratio", "percent", "line", "count", "area"]
"""force N · pull N, said as a weight · stress MPa · length mm · fine mm, small · moment N mm · mass kg · line N/mm ·
area mm2 · ratio and count without a unit · percent, a ratio said in hundredths."""
Word = Literal["holds", "close", "cannot_tell", "wont_hold"]
FAILS: tuple[Word, ...] = ("wont_hold", "cannot_tell")  # with these nobody drills yet
_ORDER: tuple[Word, ...] = ("holds", "close", "cannot_tell", "wont_hold")
_RANK: dict[Word, int] = {word: n for n, word in enumerate(_ORDER)}


class Quantity(msgspec.Struct, frozen=True, gc=False):
    """A number and what it is a number of."""

    value: float
    kind: Kind


class Phrase(msgspec.Struct, frozen=True, gc=False):
    """A sentence whose `{names}` are quantities, so that it can be said in anybody's units."""

    template: str
    parts: dict[str, Quantity | str] = {}


class Step(msgspec.Struct, frozen=True, gc=False):
    """One line of a hand calculation: symbol, what it is or how it comes about, and its value."""

    symbol: str
    formula: str
    result: Quantity


class Check(msgspec.Struct, frozen=True, kw_only=True, gc=False):
    """One question asked of a piece: what is demanded, what is there, by which rule.

    `part` names what governs (`board`, `left bracket`), `support` its number from the left, from 0, when it is a support; `case`
    the load case. `unknown` lists what to find out before the answer can be trusted. `advice`: going over it is a nuisance, not
    a failure. `fit`: a size that fits or does not; nearly too big is no nearer to failing.
    """

    code: str
    name: str
    part: str
    demand: Quantity
    capacity: Quantity
    rule: str
    source: str
    case: str
    sentence: Phrase
    steps: tuple[Step, ...] = ()
    support: int | None = None
    advice: bool = False
    fit: bool = False
    unknown: tuple[str, ...] = ()

    @property
    def utilisation(self) -> float:
        """Demand over capacity; 1 is the limit."""
        return self.demand.value / self.capacity.value

    @property
    def word(self) -> Word:
        """The verdict of this check alone. An unknown hides nothing that fails already."""
        used = self.demand.value / self.capacity.value
        if not used <= 1:  # what is not a number fails too
            return "close" if self.advice else "wont_hold"
        if self.unknown:
            return "cannot_tell"
        nearly = not (self.advice or self.fit) and used > data.house("close_from")
        return "close" if nearly else "holds"


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
    def word(self) -> Word:
        """The worst word of its checks."""
        return worst(check.word for check in self.checks)

    @property
    def governing(self) -> Check:
        """The check that decides."""
        return self.checks[0]

    @property
    def unknown(self) -> tuple[str, ...]:
        """What to find out, each said once."""
        return tuple(dict.fromkeys(ask for check in self.checks for ask in check.unknown))


class Verdict(msgspec.Struct, frozen=True, kw_only=True):
    """The verdict on a whole plan: one per piece, and the worst word of all."""

    pieces: tuple[PieceVerdict, ...]

    @property
    def word(self) -> Word:
        """The worst word of its pieces; an empty wall holds nothing, so nothing fails."""
        return worst(piece.word for piece in self.pieces)

    def piece(self, key: str) -> PieceVerdict:
        """The verdict of one piece.

        Raises:
            KeyError: there is no such piece.
        """
        for piece in self.pieces:
            if piece.key == key:
                return piece
        raise KeyError(key)


def worst(words: object) -> Word:
    """The worst of some words; `holds` of none."""
    return max(words, key=_ORDER.index, default="holds")  # type: ignore[call-overload]


def severity(check: Check) -> tuple[int, bool, float]:
    """How bad a check is: its word, then how much of it is used.

    Of what fails, what does not fit comes first, for it is the cause of the rest; of what holds, strength comes first.
    """
    word = check.word
    first = check.fit if word == "wont_hold" else not (check.advice or check.fit)
    return (_RANK[word], first, check.demand.value / check.capacity.value)


def make(
    code: str,
    *,
    part: str,
    demand: Quantity,
    capacity: Quantity,
    case: str,
    template: str,
    parts: dict[str, Quantity | str] | None = None,
    steps: tuple[Step, ...] = (),
    support: int | None = None,
    advice: bool = False,
    fit: bool = False,
    unknown: tuple[str, ...] = (),
) -> Check:
    """Build a check; its name, rule and source come from the table of rules.

    Raises:
        KeyError: no rule has that code (a bug here, not a person's mistake).
    """
    rule = data.rules()[code]
    used = Quantity(demand.value / capacity.value, "percent")
    said: dict[str, Quantity | str] = {"demand": demand, "capacity": capacity, "used": used}
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
        sentence=Phrase(template, said),
        steps=steps,
        support=support,
        advice=advice,
        fit=fit,
        unknown=unknown,
    )
