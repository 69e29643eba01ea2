"""The order in which a piece gives way as its load or its reach grows."""

from collections.abc import Callable, Iterator
from itertools import chain, pairwise
from typing import NamedTuple

from msgspec.structs import replace

from trade.assess import judge_piece
from trade.check import Check
from trade.errors import PlanError
from trade.plan.model import AnyPiece, Plan

_FACTORS = tuple(2 ** (n / 2) for n in range(15))  # up to 128 times
_HALVED = 3
_DEEPER = tuple(1 + n / 4 for n in range(13))  # up to 4 times


_Checks = dict[str, Check]
_Tried = tuple[float, _Checks]


class Failing(NamedTuple):
    """A check that fails when the load, or the reach, is multiplied by `factor`."""

    code: str
    name: str
    factor: float


def heavier(piece: AnyPiece, factor: float) -> AnyPiece:
    """Return the piece with everything on it so many times as heavy."""
    things = tuple(
        replace(thing, mass_kg=thing.mass_kg * factor if thing.mass_kg else thing.mass_kg)
        for thing in piece.things
    )
    return replace(piece, things=things)


def deeper(piece: AnyPiece, factor: float) -> AnyPiece:
    """Return the piece reaching so many times as far out, and what is on it with it.

    Raises:
        PlanError: no such piece is that deep.
    """
    things = tuple(
        replace(thing, out_mm=thing.out_mm * factor if thing.out_mm else thing.out_mm)
        for thing in piece.things
    )
    bare = replace(piece, things=())
    return replace(replace(bare, depth_mm=piece.depth_mm * factor), things=things)


def order(piece: AnyPiece, plan: Plan, most: int | None = None) -> tuple[Failing, ...]:
    """Return what gives way first, second and so on under more load.

    Among what else hangs there. What fails as it is with a factor below 1.

    Advice and misfits not at all. Factors between those that are tried are read off a straight
    line: the first is good to a few hundredths, those after it to a tenth, where supports then
    share otherwise.

    Args:
        piece: what is loaded.
        plan: its wall, and what else hangs there.
        most: no more than the first so many are asked for; None for all.
    """
    return _order(lambda factor: heavier(piece, factor), _FACTORS, plan, most)


def order_deeper(piece: AnyPiece, plan: Plan, most: int | None = None) -> tuple[Failing, ...]:
    """Return the same when it reaches further and further out."""
    return _order(lambda factor: deeper(piece, factor), _DEEPER, plan, most)


def _order(
    changed: Callable[[float], AnyPiece], factors: tuple[float, ...], plan: Plan, most: int | None
) -> tuple[Failing, ...]:
    tried = _tried(changed, factors, plan)
    first = next(tried)
    found: dict[str, Failing] = {}
    for code, check in first[1].items():
        if check.utilisation > 1:
            found[code] = Failing(code, check.name, 1 / check.utilisation)
    for (low, before), (high, after) in pairwise(chain((first,), tried)):
        if most is not None and len(found) >= most:
            break  # what gives way later comes after these
        failing = [
            code for code, check in after.items() if code not in found and check.utilisation > 1
        ]
        near = (low, before), (high, after)
        if not found and failing:
            near = _narrowed(changed, plan, *near)
        (under, held), (over, failed) = near
        for code in failing:
            gave = failed[code].utilisation > 1
            to = (over, failed[code]) if gave else (high, after[code])
            found[code] = _between(under, held.get(code), *to)
    ranked = sorted(found.values(), key=lambda failing: round(failing.factor, 6))
    return tuple(ranked[:most])


def _tried(
    changed: Callable[[float], AnyPiece], factors: tuple[float, ...], plan: Plan
) -> Iterator[_Tried]:
    """Yield each factor with its checks, as far as there is such a piece."""
    for factor in factors:
        try:
            checks = judge_piece(changed(factor), plan).checks
        except PlanError:
            return
        yield factor, {check.code: check for check in checks if check.gradual}


def _narrowed(
    changed: Callable[[float], AnyPiece], plan: Plan, low: _Tried, high: _Tried
) -> tuple[_Tried, _Tried]:
    """Nearer to where the first check gives way.

    Halved a few times, for that is what people ask about.
    """
    for _ in range(_HALVED):
        middle = (low[0] + high[0]) / 2
        checks = {
            check.code: check
            for check in judge_piece(changed(middle), plan).checks
            if check.gradual
        }
        fails = any(check.utilisation > 1 for check in checks.values())
        low, high = (low, (middle, checks)) if fails else ((middle, checks), high)
    return low, high


def _between(low: float, before: Check | None, high: float, after: Check) -> Failing:
    """Where a check comes to its limit, on a straight line."""
    was = min(before.utilisation, 1.0) if before else 0.0
    return Failing(
        after.code, after.name, low + (high - low) * (1 - was) / (after.utilisation - was)
    )
