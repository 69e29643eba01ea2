"""Patterns for the cutting stock problem, generated as needed, and a lower bound on the cost.

Gilmore and Gomory: a linear programme over the patterns known so far prices every part; a knapsack
finds the pattern worth the most at those prices; when none is worth more than its board, the
programme's optimum bounds every whole answer (Farley's bound when it is stopped before). Patterns
are looked for on a grid of half a millimetre, parts rounded up; for the bound they are rounded
down, on a grid of a tenth.
"""

import random
from collections.abc import Iterator, Sequence
from itertools import count
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

_GRID_MM, _FINE_MM = 0.5, 0.1
# of knapsack tables, then it must do: work, not seconds, so that all machines answer the same
_CELLS = 60_000_000
_WORTH = 1e-7
_OFF = 0.08  # by what share prices are off in each of several tries
_MOST_NEAR, _MOST_LOOKED = 4_000, 300_000  # patterns near the best, and ways looked at to find them

Pattern = tuple[int, tuple[int, ...]]
"""Number of the board's size, and how many of each kind are cut from it."""


class Columns(NamedTuple):
    """Patterns among which a good answer is, and what no answer costs less than.

    `optimum`: of the linear programme; `worth`: its price of a part of each kind; `dear`: of a
    board of each size, scarce or not; `all_priced`: no pattern, finer than the grid, is worth more
    than its board at these prices.
    """

    patterns: tuple[Pattern, ...]
    bound: float
    optimum: float = 0.0
    worth: tuple[float, ...] = ()
    dear: tuple[float, ...] = ()
    all_priced: bool = False


def generate(
    kinds: Sequence[float],
    demand: Sequence[int],
    rooms: Sequence[float],
    prices: Sequence[float],
    limits: Sequence[int | None] = (),
) -> Columns:
    """Return the patterns that a linear programme wants.

    Args:
        kinds: sizes of the parts, kerf and all, each once.
        demand: how many of each are wanted.
        rooms: of the boards, kerf and all.
        prices: of the boards.
        limits: how many there are of each, None for as many as are wanted. With any of them nothing
          is said of a bound.
    """
    from scipy.optimize import linprog

    wanted = np.array(demand, dtype=float)
    few = [stock for stock, limit in enumerate(limits) if limit is not None]
    endless = [stock for stock in range(len(rooms)) if stock not in few] or list(range(len(rooms)))
    patterns: list[Pattern] = [
        _alone(n, kinds, demand, rooms, prices, endless) for n in range(len(kinds))
    ]
    round_cells = sum(int(room / _GRID_MM) for room in rooms) * len(kinds)
    for cells in count(round_cells, round_cells):
        costs = [prices[stock] for stock, _ in patterns]
        matrix = np.array([pattern for _, pattern in patterns], dtype=float).T
        used = np.array([[float(own == stock) for own, _ in patterns] for stock in few]).reshape(
            len(few), len(patterns)
        )
        room_for = np.array([limits[stock] or 0 for stock in few], dtype=float)
        solved = linprog(
            costs,
            A_ub=np.vstack([-matrix, used]),
            b_ub=np.concatenate([-wanted, room_for]),
            bounds=(0, None),
            method="highs",
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
    if solved.status != 0:
        return Columns(tuple(patterns), 0.0)
    dear = tuple(price + scarce.get(stock, 0.0) for stock, price in enumerate(prices))
    most = [_knapsack(kinds, demand, worth, room, _FINE_MM, up=False)[0] for room in rooms]
    optimum = float(solved.fun)
    all_priced = all(one <= price + _WORTH for one, price in zip(most, dear, strict=True))
    dearest = max([1.0, *(one / price for one, price in zip(most, dear, strict=True) if price > 0)])
    bound = 0.0 if few and not all_priced else optimum / dearest
    return Columns(tuple(patterns), bound, optimum, tuple(worth.tolist()), dear, all_priced)


def _alone(
    n: int,
    kinds: Sequence[float],
    demand: Sequence[int],
    rooms: Sequence[float],
    prices: Sequence[float],
    among: Sequence[int],
) -> Pattern:
    """As many of one kind as go on the board that is cheapest for them."""
    fitting = [stock for stock in among if rooms[stock] >= kinds[n] - 1e-6] or [
        stock for stock, room in enumerate(rooms) if room >= kinds[n] - 1e-6
    ]
    many = {stock: min(int((rooms[stock] + 1e-6) / kinds[n]), demand[n]) for stock in fitting}
    stock = min(fitting, key=lambda each: prices[each] / many[each])
    return stock, tuple(many[stock] if i == n else 0 for i in range(len(kinds)))


def knapsack(
    kinds: Sequence[float], demand: Sequence[int], worth: Sequence[float], room: float
) -> tuple[float, tuple[int, ...]]:
    """Return the most that fits on one board is worth, and how many of each kind that is.

    Args:
        kinds: sizes of the parts, kerf and all.
        demand: how many of each there are.
        worth: of one of each.
        room: of the board.
    """
    return _knapsack(kinds, demand, np.array(worth), room, _GRID_MM, up=True)


def _knapsack(
    kinds: Sequence[float],
    demand: Sequence[int],
    worth: NDArray[np.float64],
    room: float,
    grid_mm: float,
    up: bool,
) -> tuple[float, tuple[int, ...]]:
    """Return the most that fits on one board is worth, and what it is.

    Not what it is when lengths are rounded down for a bound.
    """
    capacity = int(room / grid_mm + 1e-6) + (0 if up else 1)
    sizes = [
        int(np.ceil(kind / grid_mm - 1e-6)) if up else int(kind / grid_mm + 1e-6) for kind in kinds
    ]
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


def greedy_fills(
    kinds: Sequence[float],
    demand: Sequence[int],
    rooms: Sequence[float],
    limits: Sequence[int | None],
    known: Columns,
) -> Iterator[list[Pattern]]:
    """Ways to cut everything, one after the other.

    Board by board, each filled with what is worth the most for its price.

    Each time the prices of the parts are another few hundredths off, by a seed. They end after so
    much work.

    Args:
        kinds: sizes of the parts, kerf and all, each once.
        demand: how many of each are wanted.
        rooms: of the boards.
        limits: how many there are of each, None for as many as are wanted.
        known: the linear programme's prices.
    """
    dice, cells = random.Random(len(kinds)), 0
    while cells < _CELLS:
        worth = np.array([price * (1 + dice.uniform(-_OFF, _OFF)) for price in known.worth])
        left, there, row = list(demand), list(limits), list[Pattern]()
        while any(left):
            best: tuple[float, int, tuple[int, ...]] | None = None
            for stock, (room, dear) in enumerate(zip(rooms, known.dear, strict=True)):
                if there[stock] == 0:
                    continue
                value, pattern = _knapsack(kinds, left, worth, room, _GRID_MM, up=True)
                cells += int(room / _GRID_MM) * sum(many > 0 for many in left)
                if any(pattern) and (best is None or value / max(dear, _WORTH) > best[0]):
                    best = (value / max(dear, _WORTH), stock, pattern)
            if best is None:
                break  # what is left is worth nothing, or fits on nothing that is there
            _, stock, pattern = best
            row.append((stock, pattern))
            left = [many - taken for many, taken in zip(left, pattern, strict=True)]
            many_there = there[stock]
            there[stock] = None if many_there is None else many_there - 1
        else:
            yield row


def near_optimal(
    kinds: Sequence[float],
    demand: Sequence[int],
    rooms: Sequence[float],
    known: Columns,
    slack: float,
) -> tuple[list[Pattern], bool]:
    """Return every full pattern whose cost exceeds its parts' worth by a limit, and if that is all.

    What costs no more than the linear programme's optimum and `slack` is made of these alone.

    Args:
        kinds: sizes of the parts, kerf and all, each once.
        demand: how many of each are wanted.
        rooms: of the boards.
        known: the linear programme's prices.
        slack: how much dearer than its parts a board may be.
    """
    found: list[Pattern] = []
    looked = 0
    for stock, (room, dear) in enumerate(zip(rooms, known.dear, strict=True)):
        least = dear - slack - _WORTH
        most = _most_from(kinds, demand, known.worth, room)
        ways: list[tuple[int, float, float, tuple[int, ...]]] = [
            (0, room, 0.0, ())
        ]  # the next kind, the room that is left, what was taken is worth, what was taken
        while ways:
            kind, left, worth, taken = ways.pop()
            looked += 1
            if looked > _MOST_LOOKED or len(found) > _MOST_NEAR:
                return found, False
            if (
                worth + most[kind][min(int(left / _FINE_MM + 1e-6) + 1, len(most[kind]) - 1)]
                < least
            ):
                continue
            if kind < len(kinds):
                many = min(demand[kind], int((left + 1e-6) / kinds[kind]))
                ways += [
                    (kind + 1, left - n * kinds[kind], worth + n * known.worth[kind], (*taken, n))
                    for n in range(many + 1)
                ]
            elif all(
                left < size - 1e-6 or n == wanted
                for size, n, wanted in zip(kinds, taken, demand, strict=True)
            ):
                found.append((stock, taken))
    return found, True


def _most_from(
    kinds: Sequence[float], demand: Sequence[int], worth: Sequence[float], room: float
) -> list[NDArray[np.float64]]:
    """Return what can at most be got out of each room, on the fine grid.

    By parts from each kind on.

    Lengths are rounded down.
    """
    most = [np.zeros(int(room / _FINE_MM + 1e-6) + 2)]
    for size, many, price in zip(reversed(kinds), reversed(demand), reversed(worth), strict=True):
        best, cells = most[-1].copy(), int(size / _FINE_MM + 1e-6)
        if price > 0:
            for n in range(1, min(many, len(best) // max(cells, 1)) + 1):
                if n * cells < len(best):
                    best[n * cells :] = np.maximum(
                        best[n * cells :], most[-1][: len(best) - n * cells] + n * price
                    )
        most.append(best)
    return most[::-1]
