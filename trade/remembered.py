"""What was worked out before. Plans are frozen, so an answer that depends on its arguments alone may be given again.

The one place for it: a function asks to be `remembered` with a bound; what is longest unasked goes first. Tables are read once a
process and never change within it, so that they are no argument.
"""

from collections.abc import Callable
from functools import lru_cache
from typing import Any, ParamSpec, TypeVar

_Asked = ParamSpec("_Asked")
_Answer = TypeVar("_Answer")
_all: list[Any] = []


def remembered(most: int) -> Callable[[Callable[_Asked, _Answer]], Callable[_Asked, _Answer]]:
    """Keep the answers of a function of frozen arguments, at most so many."""

    def keep(work: Callable[_Asked, _Answer]) -> Callable[_Asked, _Answer]:
        kept = lru_cache(maxsize=most)(work)
        _all.append(kept)
        return kept  # type: ignore[return-value]

    return keep


def forget() -> None:
    """Drop all that is remembered: what is asked next is worked out afresh."""
    for kept in _all:
        kept.cache_clear()
