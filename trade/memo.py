"""Results kept for reuse, and what is done with what is not kept.

Plans are frozen, so a result that depends only on its arguments can be given again.

This is the one place for it: a function asks to be `memoized` with a limit, and the least recently
used result goes first. Tables are read once per process and never change after that, so they need
not be arguments.
"""

import gc
from collections.abc import Callable
from functools import lru_cache
from typing import Any, ParamSpec, TypeVar

_Arguments = ParamSpec("_Arguments")
_Result = TypeVar("_Result")
_memos: list[Any] = []


def memoized(
    limit: int,
) -> Callable[[Callable[_Arguments, _Result]], Callable[_Arguments, _Result]]:
    """Keep up to `limit` results of a function of hashable arguments."""

    def wrap(function: Callable[_Arguments, _Result]) -> Callable[_Arguments, _Result]:
        memo = lru_cache(maxsize=limit)(function)
        _memos.append(memo)
        return memo  # type: ignore[return-value]

    return wrap


def clear_memos() -> None:
    """Forget every kept result, so that the next call computes it again."""
    for memo in _memos:
        memo.cache_clear()


def collect_seldom() -> None:
    """Have Python look for circles of objects seldom, and never among what is loaded by now.

    Plans, checks and pages go with their last name; looking for circles among them took a fifth of
    the time of a search for ways.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(50_000, 10, 10)
