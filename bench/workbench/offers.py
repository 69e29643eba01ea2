"""Cures as they are offered: each with the code that its button sends."""

from trade.choose.cures import Cure, cures
from trade.memo import memoized
from trade.plan.model import Plan

_found = memoized(limit=32)(cures)


def offered_cures(plan: Plan, key: str) -> list[tuple[str, Cure]]:
    """Return (code, cure) for each cure of a piece."""
    return [(f"{cure.code}-{n}", cure) for n, cure in enumerate(_found(plan, key))]
