"""Hand calculations: what is printed is what was evaluated.

A formula is written once, as on paper. Calling it gives the number; its text is what a person
reads. So a printed sum and its result cannot part.
"""

import re
from collections.abc import Callable, Iterable, Iterator, Mapping
from functools import cache, cached_property
from itertools import chain
from math import pi, tan
from types import CodeType
from typing import Any, Literal

import msgspec

from trade.errors import TradeError
from trade.measure import IN_MM, LBF_N, PSI_MPA

Kind = Literal[
    "force",
    "pull",
    "stress",
    "length",
    "fine",
    "moment",
    "mass",
    "ratio",
    "percent",
    "line",
    "count",
    "area",
    "section",
    "inertia",
    "rigidity",
    "turning",
    "density",
]
"""What a number measures, in the core's units; it decides how the number is printed.

`force` N, `pull` N (printed as a weight), `stress` MPa, `length` and `fine` mm (`fine` for
small ones), `moment` N mm, `mass` kg, `line` N/mm, `area` mm², `section` modulus mm³, `inertia`
mm⁴, `rigidity` (E I) N mm², `turning` stiffness N mm per radian, `density` kg/m³, `ratio` and
`count` without a unit, `percent` a ratio printed in hundredths.
"""


class Quantity(msgspec.Struct, frozen=True, gc=False):
    """A number and what it is a number of."""

    value: float
    kind: Kind


class Equation(msgspec.Struct, frozen=True, gc=False):
    """One line of a hand calculation.

    Its symbol, its value and what that is a number of, what it means in words, and the expression
    it was evaluated from; what is given or found by a solver has no expression.
    """

    symbol: str
    value: float
    kind: Kind
    meaning: str = ""
    expression: str = ""

    @property
    def result(self) -> Quantity:
        """Its value as a quantity."""
        return Quantity(self.value, self.kind)

    @property
    def formula(self) -> str:
        """The expression and what it means, as printed."""
        return ", ".join(filter(None, (self.expression, self.meaning)))


_RAISED = {"²": "2", "³": "3", "⁴": "4"}
_FUNCTIONS = {"min", "max", "√", "tan"}
_UNITS: dict[str, Any] = {
    "inch": IN_MM,
    "lb": LBF_N,
    "psi": PSI_MPA,
    "mm": 1.0,
    "N": 1.0,
    "MPa": 1.0,
}
_TOKEN = re.compile(
    r"\s*(?:(?P<number>\d+(?:\.\d+)?)"
    r"|(?P<name>[A-Za-zΑ-Ωα-ω][A-Za-zΑ-Ωα-ω0-9∞_']*)"
    r"|(?P<sign>[-+−×/^(),√²³⁴]))"
)


class Formula:
    """An expression as it is printed, such as `2850 G² (D/in) lb/in`, and what it is worth.

    Symbols are Latin or Greek with indices (`F_em`, `Z'`). What stands side by side is multiplied
    before anything is divided: `5 q l⁴ / 384 E I` is over all of `384 E I`. Powers are `²`, `³`,
    `⁴` and `^`; functions `√`, `min`, `max` and `tan` (of radians); constants `π` and the units
    `in`, `lb`, `psi`, `mm`, `N` and `MPa`, by which a formula that was published in one system is
    right in any.

    It is read when it is first asked; a TradeError then says where it cannot be.
    """

    def __init__(self, text: str) -> None:
        """Keep its text."""
        self.text = text

    @cached_property
    def _code(self) -> CodeType:
        return _compiled(self.text)

    @cached_property
    def worth(self) -> Callable[[Mapping[str, float]], float]:
        """Its value as a function of values by symbol, in the core's units."""
        return self.by(_UNITS)

    def of(self, values: Mapping[str, float]) -> float:
        """Return the value, of values by symbol, in the core's units.

        Raises:
            KeyError: a symbol has no value.
        """
        return self.worth(values)

    def __call__(self, **values: float) -> float:
        """Return the same of values by name, for symbols that are names."""
        return self.worth(values)

    def by(self, units: Mapping[str, Any]) -> Callable[[Mapping[str, Any]], Any]:
        """Return the same in other units, for numbers of any type that add and multiply.

        Args:
            units: what `inch`, `lb`, `psi`, `mm`, `N` and `MPa` stand for.
        """
        return eval(  # compiled from our own text by our own grammar
            self._code, {"min": min, "max": max, "tan": tan, "π": pi, **units}
        )


@cache
def formula(text: str) -> Formula:
    """Return a formula by its text, kept."""
    return Formula(text)


@cache
def _worth(text: str) -> Callable[[Mapping[str, float]], float]:
    return formula(text).worth


class Calculation:
    """A hand calculation as it is written: what is given, then what follows from it."""

    __slots__ = ("_values", "equations")

    def __init__(self, *before: Iterable[Equation]) -> None:
        """Begin it, with what other calculations came to."""
        first, rest = (before[0], before[1:]) if before else ((), ())
        self.equations: list[Equation] = list(first)
        self._values: dict[str, float] = (
            first._values.copy()
            if isinstance(first, Calculation)
            else {each.symbol: each.value for each in self.equations}
        )
        values, write = self._values, self.equations.append
        for equation in chain(*rest):
            symbol, value = equation.symbol, equation.value
            if values.get(symbol) != value:
                write(equation)
                values[symbol] = value

    def given(self, symbol: str, value: float, kind: Kind, meaning: str) -> float:
        """Write down what is known, or what a solver found."""
        values = self._values
        if values.get(symbol) != value:
            self.equations.append(Equation(symbol, value, kind, meaning))
            values[symbol] = value
        return value

    def then(self, symbol: str, expression: str, kind: Kind, meaning: str = "") -> float:
        """Write down what follows from the lines above, and return it.

        Raises:
            KeyError: the expression names a symbol that stands in no line above.
            TradeError: the expression cannot be read.
        """
        values = self._values
        value = _worth(expression)(values)
        if values.get(symbol) != value:
            self.equations.append(Equation(symbol, value, kind, meaning, expression))
            values[symbol] = value
        return value

    def __iter__(self) -> Iterator[Equation]:
        """Its lines, from the first."""
        return iter(self.equations)

    def __getitem__(self, symbol: str) -> float:
        """Return the value of a line.

        Raises:
            KeyError: no line has that symbol.
        """
        return self._values[symbol]

    def quantity(self, symbol: str, kind: Kind | None = None) -> Quantity:
        """Return the value of a line, as the kind it has there or as another of the same unit.

        Raises:
            KeyError: no line has that symbol.
        """
        value = self._values[symbol]
        return Quantity(value, kind or self._kind(symbol))

    def _kind(self, symbol: str) -> Kind:
        return next(each.kind for each in reversed(self.equations) if each.symbol == symbol)


def _compiled(text: str) -> CodeType:
    tokens = _tokens(text)
    worth = _sum(tokens)
    if tokens:
        raise TradeError(f"Not a formula: {text!r}, at {tokens[0][1]!r}")
    return compile(f"lambda v: {worth}", f"<{text}>", "eval")


def _tokens(text: str) -> list[tuple[str, str]]:
    """Kind and text of each token."""
    found, at = [], 0
    while at < len(text.rstrip()):
        match = _TOKEN.match(text, at)
        if match is None or match.lastgroup is None:
            raise TradeError(f"Not a formula: {text!r}, at {text[at:]!r}")
        found.append((match.lastgroup, match[match.lastgroup].replace("−", "-")))
        at = match.end()
    return found


def _next(tokens: list[tuple[str, str]]) -> str:
    return tokens[0][1] if tokens else ""


def _expect(tokens: list[tuple[str, str]], sign: str) -> None:
    if _next(tokens) != sign:
        raise TradeError(f"Not a formula: {sign!r} is missing before {_next(tokens)!r}")
    tokens.pop(0)


def _sum(tokens: list[tuple[str, str]]) -> str:
    worth = _ratio(tokens)
    while _next(tokens) in ("+", "-"):
        worth += f" {tokens.pop(0)[1]} {_ratio(tokens)}"
    return worth


def _ratio(tokens: list[tuple[str, str]]) -> str:
    worth = _product(tokens)
    while _next(tokens) in ("×", "/"):
        sign = tokens.pop(0)[1].replace("×", "*")
        worth += f" {sign} {_product(tokens)}"
    return worth


def _product(tokens: list[tuple[str, str]]) -> str:
    """Factors side by side."""
    if _next(tokens) == "-":
        tokens.pop(0)
        return f"-{_product(tokens)}"
    factors = [_power(tokens)]
    while tokens and (tokens[0][0] != "sign" or _next(tokens) in ("(", "√")):
        factors.append(_power(tokens))
    return f"({' * '.join(factors)})" if len(factors) > 1 else factors[0]


def _power(tokens: list[tuple[str, str]]) -> str:
    worth = _atom(tokens)
    if _next(tokens) in _RAISED:
        return f"{worth}**{_RAISED[tokens.pop(0)[1]]}"
    if _next(tokens) != "^":
        return worth
    tokens.pop(0)
    sign = tokens.pop(0)[1] if _next(tokens) == "-" else ""
    return f"{worth}**({sign}{_atom(tokens)})"


def _atom(tokens: list[tuple[str, str]]) -> str:
    if not tokens:
        raise TradeError("Not a formula: it breaks off")
    kind, word = tokens.pop(0)
    if kind == "number":
        return word
    if word == "√":
        return f"({_atom(tokens)})**0.5"
    if word == "(":
        worth = _sum(tokens)
        _expect(tokens, ")")
        return f"({worth})"
    if word in _FUNCTIONS:
        return f"{word}({_arguments(tokens)})"
    if kind == "sign":
        raise TradeError(f"Not a formula: {word!r} stands where a number should")
    word = "inch" if word == "in" else word
    return word if word == "π" or word in _UNITS else f"v[{word!r}]"


def _arguments(tokens: list[tuple[str, str]]) -> str:
    _expect(tokens, "(")
    found = [_sum(tokens)]
    while _next(tokens) == ",":
        tokens.pop(0)
        found.append(_sum(tokens))
    _expect(tokens, ")")
    return ", ".join(found)
