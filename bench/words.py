"""Texts in the language of whoever reads them."""

from collections.abc import Callable
from datetime import date
from functools import wraps
from typing import ParamSpec, TypeVar, cast

from django.utils.formats import date_format, get_format
from django.utils.translation import get_language, gettext, gettext_lazy, ngettext

from trade import language, wording
from trade.calculation import Quantity
from trade.check import Message
from trade.language import Said
from trade.measure import Units
from trade.memo import memoized


class _Voice:
    """The language of this request."""

    @property
    def decimal(self) -> str:
        """What stands between the whole of a number and its fraction."""
        return str(get_format("DECIMAL_SEPARATOR"))

    def one(self, text: str) -> str:
        """Return a text, or a template, in this language."""
        return gettext(text)

    def counted(self, one: str, several: str, count: int) -> str:
        """Return the template for so many, in this language."""
        return ngettext(one, several, count)


_VOICE = _Voice()


_Arguments = ParamSpec("_Arguments")
_Result = TypeVar("_Result")


def memoized_in_language(
    limit: int,
) -> Callable[[Callable[_Arguments, _Result]], Callable[_Arguments, _Result]]:
    """Keep up to `limit` results of a function that says them in the reader's language."""

    def wrap(function: Callable[_Arguments, _Result]) -> Callable[_Arguments, _Result]:
        @memoized(limit)
        def kept(language: str, *args: _Arguments.args, **kwargs: _Arguments.kwargs) -> _Result:
            return function(*args, **kwargs)

        @wraps(function)
        def asked(*args: _Arguments.args, **kwargs: _Arguments.kwargs) -> _Result:
            return kept(get_language() or "", *args, **kwargs)

        return asked

    return wrap


def lazy(text: str) -> str:
    """Return a text of a module or a class, to be translated whenever it is shown."""
    return cast(str, gettext_lazy(text))


def say(what: str) -> str:
    """Return a text of the trade in the language of whoever reads it."""
    return language.say(what, _VOICE)


def name_in(name: str, units: Units) -> str:
    """Return a name of the tables, its sizes in somebody's units first."""
    return say(language.in_system(name, units))


def worded(template: str, /, **parts: Said) -> str:
    """Put a text together in the reader's language, its parts too."""
    return say(language.compose(template, **parts))


def day_of(day: date) -> str:
    """Write a day for paper: 28 Nov 2026."""
    return date_format(day, "d M Y")


def said(what: Quantity | Message, units: Units) -> str:
    """Return a quantity or a sentence in somebody's units and language."""
    return say(
        wording.phrase(what, units) if isinstance(what, Message) else wording.quantity(what, units)
    )
