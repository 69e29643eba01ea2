"""Boards cut to length.

The fewest, or the cheapest, boards as sold for some lengths, with the saw's kerf and trimmed ends.

The one-dimensional cutting stock problem. Parts are put first-fit, longest first; where that cannot
be proved to be the least, patterns are generated and an integer programme chooses among them
(`columns.py`; HiGHS through scipy).
"""

from collections import Counter
from collections.abc import Sequence
from itertools import pairwise
from math import ceil, gcd, inf
from typing import Any, NamedTuple

from trade.cutting.pattern_generation import Pattern, generate, greedy_fills, knapsack, near_optimal
from trade.errors import PlanError
from trade.language import Figure, compose

_MOST_PARTS = 500
_MOST_PATTERNS, _FEW_KINDS = 3_000, 16
_FEW = 600  # patterns among which the integer programme chooses soon
_NODES = 120_000
_MOST_NODES = 100
_LIKED = 150  # patterns that are tried first
_TOUCHING_MM = 1e-6
_HALF_A_CENT = 0.005


class Cutting(NamedTuple):
    """One board and what is cut off it, one after the other from its trimmed end; `stock`.

    Number of the board's size.
    """

    stock: int
    parts_mm: tuple[float, ...]
    rest_mm: float


class LengthPlan(NamedTuple):
    """Every board with its cuts; `cost` of them all, and `bound`: no way of cutting costs less.

    `proven`: they are the same.
    """

    cuttings: tuple[Cutting, ...]
    cost: float
    bound: float

    @property
    def proven(self) -> bool:
        """Whether no other way can be cheaper."""
        return self.cost <= self.bound + 1e-6


def cut_lengths(
    parts_mm: Sequence[float],
    stock_mm: Sequence[float],
    prices: Sequence[float] | None = None,
    kerf_mm: float = 3.2,
    trim_mm: float = 0.0,
    limits: Sequence[int | None] | None = None,
) -> LengthPlan:
    """Return the cheapest boards for some parts.

    Args:
        parts_mm: finished lengths.
        stock_mm: lengths as sold, or at hand.
        prices: of one board of each; None where every board costs 1, so that the fewest are sought.
        kerf_mm: what every cut takes.
        trim_mm: what is cut off either end first.
        limits: how many of each there are; None for as many as are wanted.

    Raises:
        PlanError: a part is longer than any board, there are too few boards, or nonsense in
          numbers.
    """
    prices = list(prices) if prices is not None else [1.0] * len(stock_mm)
    _refuse(parts_mm, stock_mm, prices, kerf_mm, trim_mm)
    if not parts_mm:
        return LengthPlan((), 0.0, 0.0)
    rooms = [
        length - 2 * trim_mm + kerf_mm for length in stock_mm
    ]  # a part takes its length and a kerf; the last needs none
    sizes = sorted((part + kerf_mm for part in parts_mm), reverse=True)
    sold = _Sold(rooms, prices, list(limits) if limits is not None else [None] * len(rooms))
    tried = [_first_fit(sizes, sold, largest) for largest in (sold.endless or [-1])]
    first = min(
        (each for each in tried if each is not None), key=lambda each: each[0], default=None
    )
    bound = _bound(sizes, sold)
    if first is None or first[0] > bound + 1e-6:
        fullest = _fullest(sizes, sold)
        first = (
            fullest
            if fullest is not None and (first is None or fullest[0] < first[0] - 1e-9)
            else first
        )
    if first is None or first[0] > bound + 1e-6:
        better, proved = _by_patterns(sizes, sold, inf if first is None else first[0])
        bound = max(bound, proved)
        first = (
            better
            if better is not None and (first is None or better[0] < first[0] - 1e-9)
            else first
        )
    if first is None:
        raise PlanError("There are not enough boards for all the parts.", "stock")
    cuttings = []
    for stock, taken in first[1]:
        parts = tuple(size - kerf_mm for size in taken)
        cuttings.append(
            Cutting(stock, parts, max(rooms[stock] - sum(taken) - kerf_mm, 0.0))
        )  # freeing the rest is a cut too
    return LengthPlan(tuple(cuttings), first[0], min(bound, first[0]))


Bins = tuple[float, list[tuple[int, list[float]]]]


class _Sold(NamedTuple):
    """Boards: room on each, kerf and all, its price, how many there are."""

    rooms: list[float]
    prices: list[float]
    limits: list[int | None]

    @property
    def endless(self) -> list[int]:
        """Those of which there are as many as are wanted."""
        return [i for i, limit in enumerate(self.limits) if limit is None]

    def cheapest(self, size: float) -> int:
        """Return the cheapest endless one that holds so much."""
        holding = [i for i in self.endless if self.rooms[i] >= size - _TOUCHING_MM]
        return min(holding, key=lambda i: (self.prices[i], self.rooms[i]))


def _refuse(
    parts: Sequence[float],
    stock: Sequence[float],
    prices: Sequence[float],
    kerf: float,
    trim: float,
) -> None:
    if not stock or len(prices) != len(stock) or any(length <= 0 for length in stock):
        raise PlanError("There is no board to cut from.", "stock")
    if any(price < 0 for price in prices):
        raise PlanError("A price can't be negative.", "price")
    if not 0 <= kerf <= 20 or not 0 <= trim <= 500:
        raise PlanError("The saw kerf must be 0 to 20 mm and the trim 0 to 500 mm.", "kerf_mm")
    if len(parts) > _MOST_PARTS:
        raise PlanError(
            compose("More than {most_parts} parts at once.", most_parts=_MOST_PARTS), "parts"
        )
    longest = max(stock) - 2 * trim
    for part in parts:
        if part <= 0:
            raise PlanError("A part must have a length.", "parts")
        if part > longest + _TOUCHING_MM:
            raise PlanError(
                compose(
                    "A part of {part} mm is longer than any board, {longest} mm without its ends.",
                    part=Figure(f"{part:.0f}"),
                    longest=Figure(f"{longest:.0f}"),
                ),
                "parts",
            )


def _first_fit(sizes: Sequence[float], sold: _Sold, largest: int) -> Bins | None:
    """First fit, longest first.

    Into the boards of which there are only so many, the shortest first, then into one endless size.

    Each board of the endless size is then changed for the cheapest that holds what is on it. None
    where it does not all fit.
    """
    few = sorted(
        (i for i, limit in enumerate(sold.limits) if limit is not None), key=lambda i: sold.rooms[i]
    )
    stocks = [i for i in few for _ in range(min(sold.limits[i] or 0, len(sizes)))]
    left = [sold.rooms[i] for i in stocks]
    bins: list[list[float]] = [[] for _ in stocks]
    for size in sizes:
        at = next((i for i, room in enumerate(left) if room >= size - _TOUCHING_MM), None)
        if at is None:
            if largest < 0 or sold.rooms[largest] < size - _TOUCHING_MM:
                return None
            bins.append([])
            stocks.append(largest)
            left.append(sold.rooms[largest])
            at = len(bins) - 1
        bins[at].append(size)
        left[at] -= size
    found = [
        (stock if sold.limits[stock] is not None else sold.cheapest(sum(taken)), taken)
        for stock, taken in zip(stocks, bins, strict=True)
        if taken
    ]
    return sum(sold.prices[stock] for stock, _ in found), found


def _fullest(sizes: Sequence[float], sold: _Sold) -> Bins | None:
    """Board after board filled to the brim.

    The longest part that is left, and those that leave the least over beside it.

    The boards of which there are few first, then the longest endless one. None where it does not
    all fit.
    """
    few = sorted(
        (i for i, limit in enumerate(sold.limits) if limit is not None), key=lambda i: sold.rooms[i]
    )
    queue = [i for i in few for _ in range(min(sold.limits[i] or 0, len(sizes)))]
    main = max(sold.endless, key=lambda i: sold.rooms[i], default=None)
    left, found = sorted(sizes, reverse=True), list[tuple[int, list[float]]]()
    while left:
        stock = queue.pop(0) if queue else main
        if stock is None:
            return None
        first = next((size for size in left if size <= sold.rooms[stock] + _TOUCHING_MM), None)
        if first is None:
            if sold.limits[stock] is None:
                return None
            continue
        left.remove(first)
        kinds = list(dict.fromkeys(left))
        counts = [left.count(kind) for kind in kinds]
        taken = [first]
        if kinds:
            _, pattern = knapsack(kinds, counts, kinds, sold.rooms[stock] - first)
            for kind, many in zip(kinds, pattern, strict=True):
                taken += [kind] * many
                for _ in range(many):
                    left.remove(kind)
        found.append(
            (stock if sold.limits[stock] is not None else sold.cheapest(sum(taken)), taken)
        )
    return sum(sold.prices[stock] for stock, _ in found), found


def _bound(sizes: Sequence[float], sold: _Sold) -> float:
    """No way costs less.

    What the few can't hold, at the best price; for one size the second bound of Martello and Toth.
    """
    few = sum(
        room * limit
        for room, limit in zip(sold.rooms, sold.limits, strict=True)
        if limit is not None
    )
    best = min((sold.prices[i] / sold.rooms[i] for i in sold.endless), default=0.0)
    if few or len(sold.rooms) > 1:
        return max(sum(sizes) - few, 0.0) * best
    room, price = sold.rooms[0], sold.prices[0]
    counts = [ceil(sum(sizes) / room - 1e-9)]
    for small in {size for size in sizes if size <= room / 2} | {0.0}:
        large = [size for size in sizes if size > room - small + _TOUCHING_MM]
        middle = [
            size for size in sizes if room / 2 + _TOUCHING_MM < size <= room - small + _TOUCHING_MM
        ]
        rest = sum(size for size in sizes if small <= size <= room / 2 + _TOUCHING_MM)
        spare = len(middle) * room - sum(middle)
        counts.append(len(large) + len(middle) + max(ceil((rest - spare) / room - 1e-9), 0))
    return max(counts) * price


def _by_patterns(sizes: Sequence[float], sold: _Sold, best: float) -> tuple[Bins | None, float]:
    """Return the cheapest choice of patterns from a linear programme, and its lower bound.

    Of all patterns, where they can be counted, those go first that the programme likes best. One
    whose reduced cost is more than what lies between its optimum and the best answer known is in no
    better answer.

    Args:
        sizes: of the parts, kerf and all, the longest first.
        sold: the boards.
        best: what the best answer known costs; None comes back where nothing cheaper was found.
    """
    demand = Counter(sizes)
    kinds = sorted(demand, reverse=True)
    counts = [demand[kind] for kind in kinds]
    every = _patterns(kinds, counts, sold.rooms)
    if not every:
        taken, bound = _by_columns(kinds, counts, sold, best)
    else:
        reduced, optimum = _relaxed(every, counts, sold)
        bound = _whole(optimum, sold.prices)
        order = sorted(range(len(every)), key=lambda i: reduced[i])
        taken, few = None, order[:_LIKED]
        while bound < best - _TOUCHING_MM:
            choice, proved = _choose([every[i] for i in few], counts, sold)
            cost = inf if choice is None else _cost(choice, sold)
            if cost < best - _TOUCHING_MM:
                taken, best = choice, cost
            worth = [i for i in order if reduced[i] <= best - optimum + _TOUCHING_MM]
            if len(worth) <= len(few):  # all that could be better were there to be chosen from
                bound = max(bound, min(_whole(proved, sold.prices), best))
                break
            few = worth
    if taken is None:
        return None, bound
    left = dict(demand)
    bins: list[tuple[int, list[float]]] = []
    for (stock, pattern), many in taken:
        for _ in range(many):
            row = []
            for kind, count in zip(kinds, pattern, strict=True):
                here = min(count, left[kind])
                left[kind] -= here
                row += [kind] * here
            if row:
                bins.append(
                    (stock if sold.limits[stock] is not None else sold.cheapest(sum(row)), row)
                )
    return (sum(sold.prices[stock] for stock, _ in bins), bins), bound


def _by_columns(
    kinds: Sequence[float], counts: Sequence[int], sold: _Sold, best: float
) -> tuple[list[tuple[Pattern, int]] | None, float]:
    """Return the same where the patterns are too many to be counted.

    Those are looked for of which any answer is made that costs no more than the bound; where they
    are few, they are chosen from, and where none of them is so cheap, the bound is what the next
    dearer answer costs. Else boards are filled one after the other by the programme's prices, in
    several ways.
    """
    known = generate(kinds, counts, *sold)
    bound, taken, likely = _whole(known.bound, sold.prices), None, list[Pattern]()
    while bound < best - _TOUCHING_MM and known.worth:
        likely, every = near_optimal(
            kinds, counts, sold.rooms, known, max(bound - known.optimum, 0.0)
        )
        if not every or len(likely) > _FEW:
            break
        choice, proved = _choose(list(dict.fromkeys((*known.patterns, *likely))), counts, sold)
        cost = inf if choice is None else _cost(choice, sold)
        if cost < best - _TOUCHING_MM:
            taken, best = choice, cost
        dearer = _whole(bound + _HALF_A_CENT, sold.prices)
        if not (known.all_priced and proved > bound + _TOUCHING_MM):
            break
        bound = min(dearer, best)
    tries = greedy_fills(kinds, counts, sold.rooms, sold.limits, known) if known.worth else iter(())
    patterns = dict.fromkeys(known.patterns)
    while bound < best - _TOUCHING_MM and (way := next(tries, None)):
        patterns |= dict.fromkeys(way)
        choice = list(Counter(way).items())
        if _cost(choice, sold) < best - _TOUCHING_MM:
            taken, best = choice, _cost(choice, sold)
    if bound < best - _TOUCHING_MM and len(sold.rooms) == 1:  # a board too many, at the most
        choice = _choose(list(patterns | dict.fromkeys(likely)), counts, sold)[0]
        taken = (
            choice if choice is not None and _cost(choice, sold) < best - _TOUCHING_MM else taken
        )
    return taken, bound


def _cost(choice: Sequence[tuple[Pattern, int]], sold: _Sold) -> float:
    return sum(sold.prices[stock] * many for (stock, _), many in choice)


def _rules(patterns: Sequence[Pattern], counts: Sequence[int], sold: _Sold) -> tuple[Any, Any, Any]:
    """Costs of the patterns; rows and most of `rows @ x <= most`.

    Every part is cut, and no board used that is not there.
    """
    import numpy as np

    costs = np.array([sold.prices[stock] for stock, _ in patterns])
    rows = [-np.array([pattern for _, pattern in patterns], dtype=float).T]
    most = [-np.array(counts, dtype=float)]
    for stock, limit in enumerate(sold.limits):
        if limit is not None:
            rows.append(np.array([[float(own == stock) for own, _ in patterns]]))
            most.append(np.array([float(limit)]))
    return costs, np.vstack(rows), np.concatenate(most)


def _relaxed(
    patterns: Sequence[Pattern], counts: Sequence[int], sold: _Sold
) -> tuple[Sequence[float], float]:
    """Return the reduced cost of each pattern in the linear programme, and its optimum.

    Nothing known where it has none.
    """
    from scipy.optimize import linprog

    costs, rows, most = _rules(patterns, counts, sold)
    solved = linprog(costs, A_ub=rows, b_ub=most, bounds=(0, None), method="highs")
    return (
        (solved.lower.marginals, float(solved.fun))
        if solved.status == 0
        else ([0.0] * len(patterns), 0.0)
    )


def _choose(
    patterns: Sequence[Pattern], counts: Sequence[int], sold: _Sold
) -> tuple[list[tuple[Pattern, int]] | None, float]:
    """Return the cheapest of these patterns that give every part, with how many boards of each.

    And what no choice costs less than.
    """
    import numpy as np
    from scipy.optimize import Bounds, LinearConstraint, milp

    costs, rows, most = _rules(patterns, counts, sold)
    found = milp(
        costs,
        constraints=LinearConstraint(rows, -np.inf, most),
        integrality=np.ones(len(costs)),
        bounds=Bounds(0, np.inf),
        options={"node_limit": min(_NODES // len(costs), _MOST_NODES)},
    )
    if found.x is None:
        return None, inf if found.status == 2 else 0.0
    chosen = [
        (pattern, int(many))
        for pattern, many in zip(patterns, np.round(found.x), strict=True)
        if many > 0.5
    ]
    return chosen, float(found.mip_dual_bound or 0.0)


def _patterns(
    kinds: Sequence[float], demand: Sequence[int], rooms: Sequence[float]
) -> tuple[Pattern, ...]:
    """Every way to fill one board so that no further part that is wanted fits.

    None of them when they are too many.
    """
    found: list[Pattern] = []

    def fill(stock: int, kind: int, left: float, taken: list[int]) -> None:
        if len(found) > _MOST_PATTERNS:
            return
        if kind == len(kinds):
            full = all(
                left < size - _TOUCHING_MM or taken[i] == demand[i] for i, size in enumerate(kinds)
            )
            if full and any(taken):
                found.append((stock, tuple(taken)))
            return
        for count in range(min(demand[kind], int((left + _TOUCHING_MM) / kinds[kind])), -1, -1):
            fill(stock, kind + 1, left - count * kinds[kind], [*taken, count])

    if len(kinds) <= _FEW_KINDS:
        for stock, room in enumerate(rooms):
            fill(stock, 0, room, [])
    return tuple(found) if len(found) <= _MOST_PATTERNS else ()


def _whole(bound: float, prices: Sequence[float]) -> float:
    """Round a bound up to what whole boards can cost, where all prices are whole cents."""
    cents = [round(price * 100) for price in prices]
    if any(abs(price * 100 - each) > 1e-6 for price, each in zip(prices, cents, strict=True)):
        return bound
    step = gcd(*cents)
    return ceil(bound * 100 / step - 1e-6) * step / 100 if step else bound


def cuts_mm(cutting: Cutting, kerf_mm: float, trim_mm: float) -> tuple[tuple[float, float], ...]:
    """Where each part begins and ends on its board, from the board's own end."""
    found: list[tuple[float, float]] = []
    at = trim_mm
    for part in cutting.parts_mm:
        found.append((at, at + part))
        at += part + kerf_mm
    assert all(after[0] - before[1] >= kerf_mm - _TOUCHING_MM for before, after in pairwise(found))
    return tuple(found)
