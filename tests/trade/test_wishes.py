"""The table of everyday wishes is today's, and what leads is what a tradesman would take."""

from django.test import SimpleTestCase

from tests.wishes import WISHES, asked, every, kept
from trade import data
from trade.assess import judge_piece
from trade.choose.entry import entries
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.cutting.sold import unsold
from trade.fixings import driving
from trade.marking.marks import marks

_EACH = 13  # of 360; the benchmark of the same name looks at all


class Everyday(SimpleTestCase):
    def test_the_table_is_todays_and_its_ways_can_be_bought_and_drilled(self) -> None:
        rows = {row[:3]: row for row in kept()}
        for each in list(every())[::_EACH]:
            row, way, plan = asked(*each)
            with self.subTest(each):
                self.assertEqual(row, rows[each])
                if way is None:
                    continue
                self.assertEqual(unsold(way.piece, plan), [])
                hung = plan.with_piece(way.piece)
                self.assertEqual(judge_piece(way.piece, hung).outcome, way.outcome)
                holes = marks(hung)
                self.assertEqual(len(holes), way.effort.holes)
                for mark in holes:
                    if mark.screw is not None:  # and it hangs on the rail of the nearest shop
                        screw = data.screws()[mark.screw]
                        self.assertEqual(screw.system, plan.units)
                        self.assertIn(mark.screw_length_mm, driving.lengths_mm(screw))
                bought = shopping(hung, cut_plan(hung), plan.units)
                self.assertEqual(way.price, (bought.cost, (), 0.0))
                [logged] = entries(hung)
                self.assertEqual(logged.thought_cost, bought.cost)

    def test_every_kind_that_leads_is_one_that_a_tradesman_would_take(self) -> None:
        rows = kept()
        self.assertEqual([row[:3] for row in rows], list(every()))
        odd = [row for row in rows if row.kind and row.kind not in WISHES[row.wish][2].split()]
        self.assertEqual(odd, [])
        self.assertEqual(
            {(row.wish, row.wall) for row in rows if not row.kind},
            {("a cabinet", "steel")},
        )
