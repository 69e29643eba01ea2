"""All walls of a job together: the same parts, fewer boards and packs, one drawer, one week."""

from collections import Counter
from datetime import datetime

from django.test import SimpleTestCase
from msgspec.structs import replace

from bench.demo import walls
from tests.plans import bracket_shelf, plan, rod_shelf
from trade.cutting.order import order_of, price_differs, together
from trade.cutting.parts import parts_of
from trade.cutting.plan import cut_order, cut_plan
from trade.cutting.shopping import shopping, shopping_of
from trade.job.days import schedule_of
from trade.plan.model import Plan, Shop
from trade.plan.shop import Days, Finish, Have, Hours, OnHand, Price

SCREWS, OTHER = "screw:screw_5:80", "screw:wood_8:50"
BOARD = OnHand(
    name="Old shelf",
    board="pine_white",
    kind="board",
    length_mm=1200.0,
    width_mm=250.0,
    thickness_mm=20.0,
)


def short(name: str, **shop: object) -> Plan:
    """Return a wall with a shelf of which two come out of one board as sold."""
    made = plan(bracket_shelf(length_mm=850.0, supports_mm=(100.0, 500.0)))
    return replace(made, name=name, shop=Shop(**shop))  # type: ignore[arg-type]


class Together(SimpleTestCase):
    def test_the_same_parts_by_the_wall_s_number(self) -> None:
        plans = (walls.changing_room(), walls.workshop(), walls.wardrobe())
        order = together(plans, "imperial")
        cut = cut_order(order)
        alone = Counter(
            (f"{n}-{part.label}", part.name, part.length_mm, part.width_mm)
            for n, each in enumerate(plans, start=1)
            for part in parts_of(each).cut
        )
        found = Counter((p.label, p.name, p.length_mm, p.width_mm) for p in cut.parts)
        self.assertEqual(found, alone)
        self.assertEqual(order.many, sum(alone.values()))

    def test_two_short_shelves_come_off_one_board(self) -> None:
        one, other = short("One"), short("Other")
        order = together((one, other), "metric")
        cut = cut_order(order)
        alone = [cut_plan(each) for each in (one, other)]
        self.assertEqual(sum(len(job.layout) for job in cut.boards), 1)
        self.assertEqual([sum(len(job.layout) for job in each.boards) for each in alone], [1, 1])
        lines = {line.key: line for line in shopping_of(order, cut).lines}
        screws = [
            {line.key: line.needed for line in shopping(each, cut_plan(each), "metric").lines}
            for each in (one, other)
        ]
        for key, line in lines.items():
            if line.aisle == "fasteners":
                self.assertEqual(line.needed, sum(each.get(key, 0) for each in screws))
        self.assertLess(
            shopping_of(order, cut).cost,
            sum(shopping(each, cut_plan(each), "metric").cost for each in (one, other)),
        )

    def test_a_wall_alone_is_what_it_was(self) -> None:
        one = short("One")
        self.assertEqual(cut_order(order_of(one)), cut_plan(one))
        self.assertEqual([part.label for part in cut_plan(one).parts], ["1a"])

    def test_what_is_said_at_several_walls_is_there_once(self) -> None:
        one = short("One", on_hand=(BOARD,), have=(Have(of=SCREWS, many=4),), ready=50.0)
        other = short(
            "Other",
            on_hand=(replace(BOARD, many=2), replace(BOARD, length_mm=900.0)),
            have=(Have(of=SCREWS, many=9), Have(of=OTHER, many=1)),
            ready=30.0,
        )
        shop = together((one, other), "metric").shop
        self.assertEqual(
            [(each.length_mm, each.many) for each in shop.on_hand], [(1200.0, 2), (900.0, 1)]
        )
        self.assertEqual({each.of: each.many for each in shop.have}, {SCREWS: 9, OTHER: 1})
        self.assertEqual(shop.ready, 80.0)
        self.assertIsNone(together((one, short("Third")), "metric").shop.ready)

    def test_one_price_and_one_money(self) -> None:
        one = short("One", prices=(Price(of=SCREWS, each=0.2),))
        other = short("Other", prices=(Price(of=SCREWS, each=0.3),))
        self.assertEqual(together((one, other), "metric").shop.prices[0].each, 0.3)
        self.assertEqual(price_differs((one, other), "metric"), [SCREWS])
        dollars = replace(other, units="imperial")
        self.assertEqual(together((one, dollars), "metric").shop.prices[0].each, 0.2)
        self.assertEqual(price_differs((one, dollars), "metric"), [])

    def test_one_calendar_and_the_week_that_was_said_first(self) -> None:
        night = Days(week=(Hours(begins=20, ends=24),) * 7, helper=(0, 1, 2, 3, 4, 5, 6))
        order = together((short("One"), short("Other", days=night)), "metric")
        days = schedule_of(order, cut_order(order), datetime(2026, 3, 2, 9))
        steps = [(step.what, step.begins.hour) for step in days.steps if step.minutes]
        self.assertEqual([what for what, _ in steps], ["shop", "saw", "hang", "hang"])
        self.assertTrue(all(hour >= 20 for _, hour in steps))
        self.assertEqual(sum(step.what == "load" for step in days.steps), 2)

    def test_rods_go_up_before_a_finish_only_where_their_own_shelf_gets_one(self) -> None:
        bare = plan(rod_shelf())
        varnished = replace(plan(bracket_shelf()), shop=Shop(finish=Finish(top="oil_varnish")))
        for walls_, mounted in (((bare, varnished), 0), ((varnished, bare), 0)):
            order = together(walls_, "metric")
            days = schedule_of(order, cut_order(order), datetime(2026, 3, 2, 9))
            self.assertEqual(sum(step.what == "mount" for step in days.steps), mounted)
        both = tuple(replace(each, shop=varnished.shop) for each in (bare, varnished))
        order = together(both, "metric")
        days = schedule_of(order, cut_order(order), datetime(2026, 3, 2, 9))
        [mount] = [step for step in days.steps if step.what == "mount"]
        self.assertLess(mount.ends, min(s.begins for s in days.steps if s.what == "coat"))
