"""Runs the tests side by side so that no processor stands idle.

Tests that wait (for a browser, for processes that they start) and tests that reckon are dealt out
mixed: those that wait first, the longest of them at the very start, a few at a time.
"""

from typing import Any
from unittest import TestSuite

from django.test.runner import DiscoverRunner, ParallelTestSuite

_WAITING = ("processes", "browser")  # tags; those that start processes take the longest


class Mixed(ParallelTestSuite):
    """Test classes in the order in which the workers take them."""

    def __init__(self, subsuites: list[TestSuite], processes: int, *more: Any) -> None:
        """`subsuites`: one a class; `processes`: how many work side by side."""
        super().__init__(mixed(subsuites, processes // 2), processes, *more)


class Runner(DiscoverRunner):
    """Django's own, but for the order."""

    parallel_test_suite = Mixed


def mixed(suites: list[TestSuite], at_once: int) -> list[TestSuite]:
    """Return test classes, those that wait spread evenly among those that reckon.

    Args:
        suites: one a class.
        at_once: so many of those that wait come first of all.
    """
    waiting = sorted(
        filter(_waits, suites),
        key=lambda suite: (_tagged(suite, "browser"), -suite.countTestCases()),
    )
    order = [suite for suite in suites if not _waits(suite)]
    first, later = waiting[:at_once], waiting[at_once:]
    apart = len(order) / (len(later) + 1)
    for n, suite in reversed([*enumerate(later)]):
        order.insert(round(apart * n), suite)
    return first + order


def _waits(suite: TestSuite) -> bool:
    return any(_tagged(suite, tag) for tag in _WAITING)


def _tagged(suite: TestSuite, tag: str) -> bool:
    return any(tag in getattr(test, "tags", ()) for test in suite)
