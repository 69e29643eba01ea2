"""How the supports of a piece share its load.

Of all the ways that are in balance, one that every part can bear is enough.

By the lower bound theorem a set of forces that is in equilibrium with the load, and nowhere over
what a part can bear, shows that it holds; which way the load really goes is then of no matter. So a
support that would do harm may be counted as bearing nothing, and one more never makes a verdict
worse.
"""

from collections.abc import Callable, Iterator
from itertools import combinations

from trade import data
from trade.check import Check, severity
from trade.load.line import BoardDemand, LineLoad
from trade.load.ways import BOARD, BODY, ELASTIC, Sharing

_TRIED = int(data.house("sharings_tried"))
# the push is tried here over a support that bears nothing, too: a twentieth too hard at most
_NEARLY = data.house("sharing_slack")
_LOAD, _TURNING = 0, 1
_AT_MM = 1.0  # so near to a support the board is bent over it
_MODES = (BODY, BOARD, ELASTIC)
_FEW = int(data.house("sharing_few"))


def best(
    judge: Callable[[Sharing], list[Check]], load: Callable[[Sharing], LineLoad], usual: Sharing
) -> list[Check]:
    """Return the checks of the usual way of sharing.

    Where its strength is close or fails, that of the best other way instead.

    Service and fit stay those of the usual way: it is the likely one.

    Args:
        judge: the checks when shared so.
        load: the loads when shared so.
        usual: how supports of this kind share as far as anybody knows.
    """
    found = judge(usual)
    hardest = max(_strength(found), key=severity, default=None)
    if hardest is None or hardest.outcome not in ("close", "wont_hold") or not hardest.gradual:
        return found
    if hardest.support is None and hardest.code != "board.bending":
        return found  # it asks about all of it together
    chosen, least = found, severity(hardest)
    for way in _promising(load, usual, hardest):
        checks = judge(way)
        worst = max(_strength(checks), key=severity)
        if severity(worst) < least:
            chosen, least = checks, severity(worst)
        if worst.outcome == "holds":
            break  # one way that holds is enough
    return (
        found
        if chosen is found
        else [*_strength(chosen), *(check for check in found if check.limit != "strength")]
    )


def _strength(checks: list[Check]) -> list[Check]:
    return [check for check in checks if check.limit == "strength"]


def _promising(
    load: Callable[[Sharing], LineLoad], usual: Sharing, hardest: Check
) -> list[Sharing]:
    """Other ways worth judging.

    Least load, least turning load, and the least of either without the support that fails.

    What a support must bear grows no slower than its load or its turning load, whichever grows
    less, in shear with its load; and no way of sharing brings the hardest one under an even share.
    So what could not change the word is left alone.
    """
    now, limit = load(usual), data.house("close_from") if hardest.outcome == "close" else 1.0
    ways = list(_ways(usual, len(now.piece.supports_mm)))
    if hardest.support is None:
        return _straighter(load, usual, ways, limit / hardest.utilisation)
    most = now.hardest()
    matters = (_LOAD,) if hardest.code.endswith(".shear") else (_TURNING, _LOAD)

    def helps(asked: tuple[float, float]) -> bool:
        shares = [asked[k] / most[k] for k in matters if most[k] > 0]
        return hardest.utilisation * min(shares, default=1.0) <= limit * _NEARLY

    if not helps(now.even()):
        return []
    asked = {way: each for way in ways if helps(each := now.hardest(way))}
    without = [way for way in asked if hardest.support in way.left_out]
    picked = [
        min(some, key=lambda way: asked[way][k])
        for some in (list(asked), without)
        if some
        for k in matters
    ]
    return list(dict.fromkeys(picked))[: 1 if hardest.outcome == "close" else _TRIED]


def _straighter(
    load: Callable[[Sharing], LineLoad], usual: Sharing, ways: list[Sharing], enough: float
) -> list[Sharing]:
    """Ways in which the board is bent less than so much of the usual.

    One support fewer only where it is bent most over one.
    """

    def bent(way: Sharing) -> BoardDemand:
        return max(
            load(way).board_demands(), key=lambda demand: demand.moment_nmm / demand.duration
        )

    now = bent(usual)
    over = any(abs(now.place_mm - x) < _AT_MM for x in load(usual).piece.supports_mm)
    tried = dict.fromkeys(
        way._replace(turned=usual.turned) for way in ways if over or not way.left_out
    )
    found = {way: each.moment_nmm / each.duration for way in tried for each in (bent(way),)}
    least = enough * now.moment_nmm / now.duration
    return sorted((way for way, moment in found.items() if moment <= least), key=found.__getitem__)[
        :_TRIED
    ]


def _ways(usual: Sharing, count: int) -> Iterator[Sharing]:
    """Other ways with all supports; then each way without one, where that may pry.

    Of many, one of the two at either end.
    """
    yield from (way for way in _MODES if way != usual)
    if count <= _FEW:
        outs = [
            left_out for out in range(1, count - 1) for left_out in combinations(range(count), out)
        ]
    else:
        outs = [(i,) for i in (0, 1, count - 2, count - 1)]
    modes = dict.fromkeys((usual, *_MODES))
    yield from (mode._replace(left_out=left_out) for left_out in outs for mode in modes)
