"""The demo's places of several walls: what is asked of the ten of the core, asked of them."""

from collections.abc import Iterator

from bench import demo
from tests.trade import test_ten_places
from trade.assess import assess
from trade.plan.model import Plan
from trade.plan.place import faced


class DemoPlaces(test_ten_places.TenPlaces):
    many = 6

    def places(self) -> Iterator[tuple[str, Plan]]:
        for make in (make for _, plans in demo.PLANS for make in plans):
            plan = make()
            if len(faced(plan)) > 1:
                yield plan.name, plan

    def test_all_that_hangs_there_holds(self) -> None:
        for name, plan in self.places():
            for each in faced(plan):
                for verdict in assess(each).pieces:
                    with self.subTest(name, piece=verdict.name):
                        self.assertFalse(verdict.fails, verdict.governing.sentence)
