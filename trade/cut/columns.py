"""Patterns for the cutting stock problem, generated as they are wanted, and a bound below which no way of cutting goes.

Gilmore and Gomory: a linear programme over the patterns known so far prices every part; a knapsack finds the pattern worth the
most at those prices; when none is worth more than its board, the programme's optimum bounds every whole answer (Farley's bound
when it is stopped before). Patterns are looked for on a grid of half a millimetre, parts rounded up; for the bound they are
rounded down, on a grid of a tenth.
"""

from collections.abc import Sequence
from itertools import count
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

_GRID_MM, _FINE_MM = 0.5, 0.1
_CELLS = 60_000_000  # of knapsack tables, then it must do: work, not seconds, so that all machines answer the same
_WORTH = 1e-7

Pattern = tuple[int, tuple[int, ...]]
"""Number of the board's size, and how many of each kind are cut from it."""


class Columns(NamedTuple):
    """Patterns among which a good answer is, and what no answer costs less than."""

    patterns: tuple[Pattern, ...]
    bound: float


def generate(
    kinds: Sequence[float], demand: Sequence[int], rooms: Sequence[float], prices: Sequence[float],
    limits: Sequence[int | None] = (),
) -> Columns:  # fmt: skip
    """The patterns that a linear programme wants.

    Args:
        kinds: sizes of the parts, kerf and all, each once.
        demand: how many of each are wanted.
        rooms: of the boards, kerf and all.
        prices: of the boards.
        limits: how many there are of each, None for as many as are wanted. With any of them nothing is said of a bound.
    """
    from scipy.optimize import linprog

    wanted = np.array(demand, dtype=float)
    few = [stock for stock, limit in enumerate(limits) if limit is not None]
    endless = [stock for stock in range(len(rooms)) if stock not in few] or list(range(len(rooms)))
    patterns: list[Pattern] = [_alone(n, kinds, demand, rooms, prices, endless) for n in range(len(kinds))]
    round_cells = sum(int(room / _GRID_MM) for room in rooms) * len(kinds)
    for cells in count(round_cells, round_cells):
        costs = [prices[stock] for stock, _ in patterns]
        matrix = np.array([pattern for _, pattern in patterns], dtype=float).T
        used = np.array([[float(own == stock) for own, _ in patterns] for stock in few]).reshape(len(few), len(patterns))
        room_for = np.array([limits[stock] or 0 for stock in few], dtype=float)
        solved = linprog(
            costs, A_ub=np.vstack([-matrix, used]), b_ub=np.concatenate([-wanted, room_for]), bounds=(0, None), method="highs"
        )
        if solved.status != 0:
            break  # the few boards do not hold what only they can
        worth = -np.array(solved.ineqlin.marginals[: len(wanted)])
        scarce = dict(zip(few, -np.array(solved.ineqlin.marginals[len(wanted) :]), strict=True))
        found = []
        for stock, (room, price) in enumerate(zip(rooms, prices, strict=True)):
            value, pattern = _knapsack(kinds, demand, worth, room, _GRID_MM, up=True)
            if value > price + scarce.get(stock, 0.0) + _WORTH and (stock, pattern) not in patterns:
                found.append((stock, pattern))
        if not found or cells > _CELLS:
            break
        patterns += found
    if few:
        return Columns(tuple(patterns), 0.0)
    dearest = 1.0
    for room, price in zip(rooms, prices, strict=True):
        most, _ = _knapsack(kinds, demand, worth, room, _FINE_MM, up=False)
        dearest = max(dearest, most / price if price > 0 else 1.0)
    return Columns(tuple(patterns), float(solved.fun) / dearest)


def _alone(
    n: int, kinds: Sequence[float], demand: Sequence[int], rooms: Sequence[float], prices: Sequence[float], among: Sequence[int]
) -> Pattern:  # fmt: skip
    """As many of one kind as go on the board that is cheapest for them."""
    fitting = [stock for stock in among if rooms[stock] >= kinds[n] - 1e-6] or [
        stock for stock, room in enumerate(rooms) if room >= kinds[n] - 1e-6
    ]
    many = {stock: min(int((rooms[stock] + 1e-6) / kinds[n]), demand[n]) for stock in fitting}
    stock = min(fitting, key=lambda each: prices[each] / many[each])
    return stock, tuple(many[stock] if i == n else 0 for i in range(len(kinds)))


def knapsack(kinds: Sequence[float], demand: Sequence[int], worth: Sequence[float], room: float) -> tuple[float, tuple[int, ...]]:
    """The most that fits on one board is worth, and how many of each kind that is.

    Args:
        kinds: sizes of the parts, kerf and all.
        demand: how many of each there are.
        worth: of one of each.
        room: of the board.
    """
    return _knapsack(kinds, demand, np.array(worth), room, _GRID_MM, up=True)


def _knapsack(
    kinds: Sequence[float], demand: Sequence[int], worth: NDArray[np.float64], room: float, grid_mm: float, up: bool
) -> tuple[float, tuple[int, ...]]:  # fmt: skip
    """The most that fits on one board is worth, and what it is; not what it is when lengths are rounded down for a bound."""
    capacity = int(room / grid_mm + 1e-6) + (0 if up else 1)
    sizes = [int(np.ceil(kind / grid_mm - 1e-6)) if up else int(kind / grid_mm + 1e-6) for kind in kinds]
    best = np.zeros(capacity + 1)
    took: list[tuple[int, NDArray[np.bool_]]] = []
    for kind, size in enumerate(sizes):
        if worth[kind] <= 0 or size > capacity:
            continue
        for _ in range(min(demand[kind], capacity // size)):
            better = best[:-size] + worth[kind]
            wins = np.zeros(capacity + 1, dtype=bool)
            wins[size:] = better > best[size:] + 1e-12
            if not wins.any():
                break
            best[size:] = np.maximum(best[size:], better)
            took.append((kind, wins))
    pattern = [0] * len(kinds)
    if up:
        at = int(best.argmax())
        for kind, wins in reversed(took):
            if wins[at]:
                pattern[kind] += 1
                at -= sizes[kind]
    return float(best.max()), tuple(pattern)
