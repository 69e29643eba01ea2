"""What is cut, bought and finished together: one wall, or all walls of a job."""

from collections.abc import Iterable, Sequence
from typing import NamedTuple, TypeVar

from msgspec.structs import replace

from trade.cutting.parts import CutPart, Parts, count_parts, parts_of
from trade.measure import Units
from trade.mounts.base import Part
from trade.plan.features import Feature
from trade.plan.model import AnyPiece, Plan
from trade.plan.place import each_piece, each_waiting, wood_to_fit
from trade.plan.shop import Days, Have, OnHand, Shop

T = TypeVar("T", OnHand, Have)


class Order(NamedTuple):
    """Walls whose parts come off the same boards and out of the same packs.

    `shop`: what is at hand, in the drawer, and what things cost, for all of them; `units`: in which
    sizes are sold; `kerf_mm`, `trim_mm`: of the saw.
    """

    walls: tuple[Plan, ...]
    shop: Shop
    units: Units
    kerf_mm: float
    trim_mm: float

    @property
    def pieces(self) -> list[tuple[AnyPiece, Plan]]:
        """Every piece, each with the plan in front of its own wall."""
        return [each for plan in self.walls for each in each_piece(plan)]

    @property
    def waiting(self) -> list[tuple[AnyPiece, Plan]]:
        """Return the same of those that do not hang yet."""
        return [each for plan in self.walls for each in each_waiting(plan)]

    @property
    def wood_to_fit(self) -> list[tuple[Feature, Plan]]:
        """Blocking and boards that are still to be put in, each with its wall's plan."""
        return [each for plan in self.walls for each in wood_to_fit(plan)]

    @property
    def parts(self) -> Parts:
        """Every part; of several walls each label begins with the wall's number, from 1."""
        if len(self.walls) == 1:
            return parts_of(self.walls[0])
        cut: list[CutPart] = []
        bought: dict[Part, int] = {}
        for n, plan in enumerate(self.walls, start=1):
            found = parts_of(plan, n)
            cut += found.cut
            for part, many in found.bought.items():
                bought[part] = bought.get(part, 0) + many
        return Parts(tuple(cut), bought)

    @property
    def many(self) -> int:
        """How many parts are cut, counted without working them out."""
        return sum(count_parts(plan) for plan in self.walls)


def order_of(plan: Plan) -> Order:
    """Return a wall alone."""
    policy = plan.policy
    return Order((plan,), plan.shop, plan.units, policy.kerf_mm, policy.trim_mm)


def together(plans: Sequence[Plan], units: Units) -> Order:
    """Return all walls of a job, what is said of the workshop at each brought together.

    What is at hand or in the drawer and said alike at several walls is there once. A price that is
    said at several walls is that of the last; it counts only where money is the same, which goes
    with the units. The widest kerf and trim count, and the first week that was said.

    Args:
        plans: at least one.
        units: of the person.
    """
    shops = [plan.shop for plan in plans]
    ready = [shop.ready for plan, shop in zip(plans, shops, strict=True) if each_waiting(plan)]
    said = [price for plan in plans if plan.units == units for price in plan.shop.prices]
    shop = Shop(
        on_hand=_most(each for shop in shops for each in shop.on_hand),
        prices=tuple({price.of: price for price in said}.values()),
        have=_most(each for shop in shops for each in shop.have),
        ready=sum(each for each in ready if each is not None) if _all_said(ready) else None,
        days=next((shop.days for shop in shops if shop.days != Days()), Days()),
    )
    kerf = max(plan.policy.kerf_mm for plan in plans)
    trim = max(plan.policy.trim_mm for plan in plans)
    return Order(tuple(plans), shop, units, kerf, trim)


def price_differs(plans: Sequence[Plan], units: Units) -> list[str]:
    """Return the keys of what has one price at one wall and another at the next."""
    said: dict[str, set[float]] = {}
    for price in (price for plan in plans if plan.units == units for price in plan.shop.prices):
        said.setdefault(price.of, set()).add(price.each)
    return [key for key, each in said.items() if len(each) > 1]


def _all_said(ready: Sequence[float | None]) -> bool:
    return bool(ready) and None not in ready


def _most(said: Iterable[T]) -> tuple[T, ...]:
    """Return each thing once, with the largest number that was said of it."""
    found: dict[T, T] = {}
    for each in said:
        key = replace(each, many=1)
        if key not in found or each.many > found[key].many:
            found[key] = each
    return tuple(found.values())
