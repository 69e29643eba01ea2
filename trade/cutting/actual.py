"""Wood is not what it is called.

What it measures, put into the plan, so that the verdict and every part follow it.
"""

from msgspec.structs import replace

from trade.mounts import mount_of
from trade.plan.model import Plan
from trade.plan.place import each_piece, turned

_SAME_MM = 0.05


def with_thickness(plan: Plan, board: str, called_mm: float, found_mm: float) -> Plan:
    """Return the plan with every part of a wood and thickness as thick as was measured.

    Args:
        plan: the wall.
        board: row of the boards table.
        called_mm: what the plan has.
        found_mm: what was measured.

    Raises:
        PlanError: a piece that can't be made of it.
    """
    changed = plan
    for piece, there in each_piece(plan):
        mount = mount_of(piece)
        thicker = mount.measured(piece, board, called_mm, found_mm)
        if thicker != piece:
            changed = turned(changed, there.at).with_piece(mount.landed(thicker, there.wall))
    changed = turned(changed, plan.at)
    own = tuple(
        replace(part, thickness_mm=found_mm)
        if part.board == board and abs(part.thickness_mm - called_mm) < _SAME_MM
        else part
        for part in plan.shop.own
    )
    return replace(changed, shop=replace(plan.shop, own=own)) if own != plan.shop.own else changed
