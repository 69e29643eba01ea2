"""Cures as they are offered: each with the code that its button sends."""

from trade.choose.cures import Cure, look_for_cures
from trade.choose.shop_lengths import of_two_lengths
from trade.memo import memoized
from trade.plan.model import Plan

_TWO_LENGTHS = "two-lengths"
looked_for = memoized(limit=32)(look_for_cures)


def offered_cures(plan: Plan, key: str) -> list[tuple[str, Cure]]:
    """Return (code, cure) for each cure of a piece."""
    return [(f"{cure.code}-{n}", cure) for n, cure in enumerate(looked_for(plan, key).found)]


def offered(plan: Plan, key: str, code: str) -> Cure | None:
    """Return the cure of a piece that a button's code stands for; None if it is no longer one."""
    joint = two_lengths(plan, key) if code == _TWO_LENGTHS else None
    return joint[1] if joint is not None else dict(offered_cures(plan, key)).get(code)


def two_lengths(plan: Plan, key: str) -> tuple[str, Cure] | None:
    """Return (code, cure) for a strip that no shop has in one piece; None where it has."""
    found = of_two_lengths(plan, key)
    return None if found is None else (_TWO_LENGTHS, found)
