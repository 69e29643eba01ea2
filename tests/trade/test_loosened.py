"""Contradictory limits: which one stands in the way, and what would give."""

from typing import Any

from django.test import SimpleTestCase

from tests.plans import wall
from trade import wording
from trade.choose.loosened import loosened, sentence
from trade.choose.options import find_options
from trade.choose.request import wish_for
from trade.plan.model import Plan, Policy


class Limits(SimpleTestCase):
    def said(self, amount: float = 800.0, **policy: Any) -> list[str]:
        plan = Plan(name="Wall", units="metric", wall=wall(), policy=Policy(**policy))
        wish = wish_for(plan, "books", amount, 1600.0, 1500.0)
        return [
            wording.phrase(sentence(each), "metric")
            for each in loosened(plan, find_options(plan, wish))
        ]

    def test_nothing_is_said_where_something_holds(self) -> None:
        self.assertEqual(self.said(budget=100.0, most_holes=20), [])

    def test_one_limit_that_stands_in_the_way_is_named_with_what_would_hold(self) -> None:
        self.assertEqual(
            self.said(budget=0.0, most_holes=40),
            ["Without the budget of 0, this would hold: shelf on brackets."],
        )
        [said] = self.said(most_holes=1, budget=500.0)
        self.assertRegex(said, "^Without the limit of 1 hole, this would hold: ")

    def test_where_no_single_one_is_enough_all_are(self) -> None:
        self.assertEqual(
            self.said(budget=0.0, most_holes=0, hidden=True),
            ["Without all of these limits together, this would hold: shelf on brackets."],
        )

    def test_where_the_wall_is_the_limit_none_is_blamed(self) -> None:
        self.assertEqual(self.said(amount=3000.0 * 20, budget=0.0), [])
