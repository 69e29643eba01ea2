"""Results in words, in anybody's units.

The page, the command line and the paper all say it through here.
"""

from collections.abc import Callable
from math import ceil
from typing import NamedTuple, Protocol

from trade.calculation import Kind, Quantity
from trade.check import LIMITS, RANK, Check, Message, Outcome, PieceVerdict, worst
from trade.data.rows import Limit
from trade.errors import TradeError
from trade.language import Figure, Text, compose, in_system, joined, small, word
from trade.measure import (
    G_N_PER_KG,
    IN_MM,
    LB_CU_FT_KG_M3,
    LBF_N,
    PSI_MPA,
    Units,
    say_fine_length,
    say_length,
    say_weight,
)

WORDS: dict[Outcome, str] = {
    "holds": "Holds",
    "holds_but": "Holds, but",
    "close": "Close",
    "cannot_tell": "Can't tell",
    "wont_hold": "Won't hold",
    "doesnt_fit": "Doesn't fit",
}


def _number(value: float) -> str:
    magnitude = abs(value)
    digits = 0 if magnitude >= 100 else 1 if magnitude >= 10 else 2 if magnitude >= 1 else 3
    text = f"{value:,.{digits}f}".replace(",", " ").replace("-", "−")
    return text.rstrip("0").rstrip(".") if "." in text else text


_PLAIN: dict[Kind, tuple[float, str, float, str]] = {
    # kind: (imperial divisor, imperial unit, metric divisor, metric unit)
    "force": (LBF_N, "lb", 1, "N"),
    "stress": (PSI_MPA, "psi", 1, "MPa"),
    "moment": (LBF_N * IN_MM, "lb in", 1000, "N m"),
    "line": (LBF_N / IN_MM, "lb/in", 1, "N/mm"),
    "area": (IN_MM**2, "sq in", 1, "mm²"),
    "section": (IN_MM**3, "cu in", 1, "mm³"),
    "inertia": (IN_MM**4, "in⁴", 1, "mm⁴"),
    "rigidity": (LBF_N * IN_MM**2, "lb in²", 1e6, "N m²"),
    "turning": (LBF_N * IN_MM, "lb in/rad", 1000, "N m/rad"),
    "density": (LB_CU_FT_KG_M3, "lb/cu ft", 1, "kg/m³"),
    "ratio": (1, "", 1, ""),
    "count": (1, "", 1, ""),
}
_SAID: dict[str, Callable[[float, Units], str]] = {
    "length": say_length,
    "fine": say_fine_length,
    "mass": say_weight,
    "percent": lambda share, units: Figure(f"{ceil(share * 100 - 1e-9)} %"),
    "pull": lambda newton, units: say_weight(newton / G_N_PER_KG, units),
}


def quantity(what: Quantity, units: Units) -> str:
    """Write a quantity with its unit.

    Raises:
        TradeError: it is not a quantity, or of a kind that has no unit here.
    """
    if not isinstance(what, Quantity):
        raise TradeError(f"A number without a unit reached the page: {what!r}")
    if said := _SAID.get(what.kind):
        return said(what.value, units)
    if what.kind not in _PLAIN:
        raise TradeError(f"No unit is known for a {what.kind}")
    lb, lb_unit, si, si_unit = _PLAIN[what.kind]
    divisor, unit = (lb, lb_unit) if units == "imperial" else (si, si_unit)
    return Figure(f"{_number(what.value / divisor)} {unit}".rstrip())


def kilograms(kg: float) -> Quantity:
    """Return a weight as a quantity."""
    return Quantity(kg, "mass")


def phrase(what: Message, units: Units) -> str:
    """Write a sentence."""
    if isinstance(what.template, Text):
        return in_system(what.template, units)  # put together already
    return compose(what.template, **{name: _part(part, units) for name, part in what.parts.items()})


def _part(what: Quantity | Message | str | int, units: Units) -> str | int:
    if isinstance(what, Message):
        return phrase(what, units)
    if isinstance(what, str):
        return in_system(what, units)
    return quantity(what, units) if isinstance(what, Quantity) else what


def utilisation(value: float) -> str:
    """Write a utilisation so that it never looks better than it is.

    0.804 is 0.81, 1.0001 is 1.01.
    """
    if value >= 99.5:
        return "99+"
    hundredths = int(value * 100)
    return Figure(f"{(hundredths + (value * 100 > hundredths + 1e-9)) / 100:.2f}")


def one_line(words: str) -> str:
    """Words without line breaks or control characters, for files whose lines mean something."""
    return " ".join("".join(letter if letter.isprintable() else " " for letter in words).split())


def chance(probability: float) -> str:
    """Write a probability in whole hundredths, never rounded up to certainty."""
    return Figure(f"{min(int(probability * 100 + 0.5), 99)} %")


class Judged(Protocol):
    """A verdict, or what a change or a way would come to."""

    @property
    def outcome(self) -> Outcome:
        """Of all limit states."""

    @property
    def but(self) -> str:
        """The worst nuisance in a few words; nothing where there is none."""

    @property
    def used(self) -> float:
        """How much of its strength."""


def outcome(what: Judged) -> str:
    """Return the word on a piece, with its worst nuisance where it holds all the same.

    "Holds, but sags".
    """
    word = WORDS[what.outcome]
    return compose("{word} {but}", word=word, but=what.but) if what.outcome == "holds_but" else word


def outcome_used(what: Judged) -> str:
    """Return the same with how much of its strength is used, where that says anything."""
    said = outcome(what)
    return (
        said
        if what.outcome in ("cannot_tell", "doesnt_fit")
        else joined((said, utilisation(what.used)))
    )


_NO_BREAK = "\N{NO-BREAK SPACE}"
_LIMITS: dict[Limit, str] = {"strength": "Strength", "service": "In use", "fit": "Fit"}


class Standing(NamedTuple):
    """How a piece stands in one limit state.

    Its name, the worst word there, what that means, and its checks, worst first.
    """

    limit: Limit
    name: str
    outcome: Outcome
    said: str
    checks: tuple[Check, ...]

    @property
    def minded(self) -> bool:
        """Whether something is wrong or unknown there."""
        return self.outcome != "holds"


def standings(verdict: PieceVerdict) -> tuple[Standing, ...]:
    """Each limit state of a piece apart, the worst first.

    Of equals strength, then service, then fit.
    """
    return tuple(
        sorted(
            (_standing(limit, verdict) for limit in LIMITS), key=lambda each: -RANK[each.outcome]
        )
    )


def besides(verdict: PieceVerdict) -> tuple[Standing, ...]:
    """Return what else is wrong or unknown, in limit states other than the headline's."""
    return tuple(each for each in standings(verdict)[1:] if each.minded)


def _standing(limit: Limit, verdict: PieceVerdict) -> Standing:
    checks = verdict.of(limit)
    state = worst(check.outcome for check in checks)
    named = joined(
        dict.fromkeys(check.but or small(check.name) for check in checks if check.outcome == state)
    )
    if limit == "service":
        said = named if state != "holds" else "nothing to mind"
    elif limit == "fit":
        said = (
            word("fits")
            if state == "holds"
            else named
            if state == "doesnt_fit"
            else compose("{word!l}: {named}", word=WORDS[state], named=named)
        )
    else:
        most = verdict.weakest
        said = small(WORDS[state])
        if most is not None and state != "cannot_tell":
            said = compose(
                "{word!l}, {used}: {name!l}",
                word=WORDS[state],
                used=utilisation(most.utilisation),
                name=most.name,
            )
    return Standing(limit, _LIMITS[limit], state, said, checks)


def headline(verdict: PieceVerdict, units: Units) -> str:
    """Return one sentence: the weakest point if all holds, else what is wrong or unknown."""
    check = verdict.governing
    if verdict.outcome == "cannot_tell" and verdict.unknown:
        return compose("Find out first: {unknown}", unknown=verdict.unknown[0])
    weakest = verdict.weakest
    if verdict.outcome == "holds" and weakest is not None:
        share = quantity(Quantity(weakest.utilisation, "percent"), units)
        return compose(
            "Weakest point: {name!l}, {used} used."
            if weakest.part in weakest.name.lower()
            else "Weakest point: {name!l} ({part}), {used} used.",
            name=weakest.name,
            part=weakest.part,
            used=Figure(share.replace(" ", _NO_BREAK)),
        )
    return phrase(check.sentence, units)


def check_line(check: Check, units: Units) -> str:
    """Demand against capacity in a few words.

    Nothing where there is nothing to measure but yes or no.
    """
    if check.demand.kind == "count":
        had = check.capacity.value
        return (
            ""
            if had < 1 or had == check.demand.value == 1
            else compose(
                "needs {needed}, has {had}",
                needed=Figure(f"{check.demand.value:.0f}"),
                had=Figure(f"{had:.0f}"),
            )
        )
    return compose(
        "{demand} of {capacity}",
        demand=quantity(check.demand, units),
        capacity=quantity(check.capacity, units),
    )
