"""What a design costs: what must be bought for it alone, as the shopping list has it."""

from typing import NamedTuple

from msgspec.structs import replace

from trade import data
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.memo import memoized
from trade.mounts.prices import wood_price
from trade.plan.model import AnyPiece, Plan


class DesignPrice(NamedTuple):
    """What is paid for one piece when nothing else is bought: whole boards and whole packs.

    `unpriced`: parts in a size that nobody sells, which are not in it; `guess`: what their wood is
    worth by its volume, to compare designs by.
    """

    cost: float
    unpriced: tuple[str, ...]
    guess: float

    @property
    def compared(self) -> float:
        """What designs are compared by."""
        return self.cost + self.guess


def price(piece: AnyPiece, plan: Plan) -> DesignPrice:
    """Return what a piece costs that hangs on a plan's wall, what is at hand used first.

    The same sum as the shopping list of a wall with that piece alone; several pieces together cost
    less where they share a board or a pack.
    """
    shop = replace(plan.shop, own=(), kept=())
    return _alone(replace(plan.alone_with(piece), shop=shop))


@memoized(limit=500)
def _alone(plan: Plan) -> DesignPrice:
    cut = cut_plan(plan)
    guess = sum(
        wood_price(data.boards()[part.board], part.length_mm, part.width_mm, part.thick_mm)
        for part in cut.no_stock
    )
    names = tuple(dict.fromkeys(part.name for part in cut.no_stock))
    return DesignPrice(shopping(plan, cut, plan.units).cost, names, guess)
