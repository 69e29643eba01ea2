"""The door to the fixings: every check of what holds a piece's supports, whatever that is."""

from trade.check import Check
from trade.fixings import anchors, in_strip, stud_screws, stud_screws_en
from trade.fixings.seat import Seat
from trade.load.demand import Demand


def checks(
    seats: list[Seat],
    demands: dict[int, tuple[Demand, ...]],
    lining: tuple[str, ...],
    loads: tuple[str, ...],
) -> list[Check]:
    """Screws in timber and anchors elsewhere, each by its own rules.

    Args:
        seats: one per support.
        demands: by the seat's index, the load cases.
        lining: what is not known of the wall; whether a screw fits hangs on this alone.
        loads: what is not known of the loads.
    """
    # one above the other with the same load they are the same sum
    in_timber = list(
        {
            (seat.x_mm, id(demands[seat.index])): seat
            for seat in reversed(seats)
            if seat.held is None
        }.values()
    )[::-1]
    anchored = [seat for seat in seats if seat.held is not None]
    european = any(seat.school == "european" for seat in in_timber)
    judge = stud_screws_en.checks if european else stud_screws.checks
    found = judge(in_timber, demands, lining, loads) if in_timber else []
    found += anchors.checks(anchored, demands, loads) if anchored else []
    return found + in_strip.checks(seats) + in_strip.splitting(seats, demands, loads)
