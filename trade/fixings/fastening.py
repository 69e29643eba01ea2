"""The door to the fixings: every check of what holds a piece's supports, whatever that is."""

from msgspec.structs import replace

from trade.check import Check
from trade.fixings import across, anchors, backing_board, in_strip, stud_screws, stud_screws_en
from trade.fixings.support import Support
from trade.language import compose
from trade.load.demand import Demand


def checks(
    supports: list[Support],
    demands: dict[int, tuple[Demand, ...]],
    lining: tuple[str, ...],
    loads: tuple[str, ...],
) -> list[Check]:
    """Screws in timber and anchors elsewhere, each by its own rules.

    Args:
        supports: one per support.
        demands: by the seat's index, the load cases.
        lining: what is not known of the wall; whether a screw fits hangs on this alone.
        loads: what is not known of the loads.
    """
    found = _held(supports, demands, lining, loads)
    for board, some in backing_board.boards(supports).items():
        asked = backing_board.on_studs(board, some, demands)
        for check in _held(list(some[0].board_on), asked, lining, loads):
            found.append(_seen_at(check, some))
    found += across.checks(supports, demands, lining + loads)
    return found + in_strip.checks(supports) + in_strip.splitting(supports, demands, loads)


def _seen_at(check: Check, supports: list[Support]) -> Check:
    """Return a check of a board on a stud, shown at the support that is nearest to that stud."""
    place = supports[0].board_on[check.support or 0].x_mm
    nearest = min(supports, key=lambda each: abs(each.x_mm - place))
    name = compose("{name}: {part}", name=check.name, part=check.part)
    return replace(check, support=nearest.index, name=name)


def _held(
    supports: list[Support],
    demands: dict[int, tuple[Demand, ...]],
    lining: tuple[str, ...],
    loads: tuple[str, ...],
) -> list[Check]:
    # one above the other with the same load they are the same sum
    in_timber = list(
        {
            (support.x_mm, id(demands[support.index])): support
            for support in reversed(supports)
            if support.capacity is None
        }.values()
    )[::-1]
    anchored = [support for support in supports if support.capacity is not None]
    european = any(support.design_code == "european" for support in in_timber)
    judge = stud_screws_en.checks if european else stud_screws.checks
    found = judge(in_timber, demands, lining, loads) if in_timber else []
    return found + (anchors.checks(anchored, demands, loads) if anchored else [])
