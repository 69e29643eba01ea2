"""A board across studs on the wall's face: what hangs on it comes to the screws that hold it."""

from collections.abc import Iterable

from trade.fixings.across import in_case
from trade.fixings.support import Support
from trade.load.demand import Demand
from trade.plan.features import Feature


def boards(supports: Iterable[Support]) -> dict[Feature, list[Support]]:
    """Return the supports of a piece by the board that they sit on."""
    found: dict[Feature, list[Support]] = {}
    for support in supports:
        if support.stud.across is not None and support.board_on:
            found.setdefault(support.stud.across, []).append(support)
    return found


def on_studs(
    board: Feature, supports: list[Support], demands: dict[int, tuple[Demand, ...]]
) -> dict[int, tuple[Demand, ...]]:
    """Return what comes to each stud that a board crosses, in each load case.

    Between two studs by the lever, beyond the last one that lever goes on. Each load is further
    out by the board, and each pull is higher above its lower edge than above the hardware's.

    Args:
        board: that the supports sit on.
        supports: of one piece.
        demands: by the support's index, the load cases.

    Returns:
        By the stud's number from the left, the load cases.
    """
    places = [each.x_mm for each in supports[0].board_on]
    found: dict[int, tuple[Demand, ...]] = {}
    for i in range(len(places)):
        cases = []
        for case in {each.case: each for some in demands.values() for each in some}.values():
            load = moment = pull = 0.0
            for support in supports:
                own = in_case(demands[support.index], case.case)
                share = lever(places, support.x_mm)[i]
                raised = support.foot_mm - board.bottom_mm
                load += share * own.load_n
                pull += share * own.pull_n
                moment += share * (
                    own.moment_nmm + own.load_n * board.deep_mm + own.pull_n * raised
                )
            cases.append(Demand(case.case, case.duration, load, moment, pull))
        found[i] = tuple(cases)
    return found


def lever(places_mm: list[float], x_mm: float) -> list[float]:
    """Return the share of a load at a place that comes to each of some supports of a beam.

    The two beside it, or the last two where it stands out beyond them: there the last one carries
    more than the load, and what it lifts off the other is left out.
    """
    shares = [0.0] * len(places_mm)
    if len(places_mm) < 2:
        return [1.0] * len(places_mm)
    right = next((i for i, place in enumerate(places_mm) if place >= x_mm), len(places_mm) - 1)
    right = max(right, 1)
    left = right - 1
    at = (x_mm - places_mm[left]) / (places_mm[right] - places_mm[left])
    shares[left], shares[right] = max(1 - at, 0.0), max(at, 0.0)
    return shares
