"""What goes onto a wall later: what of a piece it hides and buries, and how that holds after."""

from datetime import date

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan
from tests.trade.test_every_kind import put_up
from trade import wording
from trade.assess import assess
from trade.job.coverings import covered, to_mind
from trade.job.minding import what_to_mind
from trade.plan import plan_file
from trade.plan.model import Covering, Layer, Plan

STONE = Covering(kind="stone", thickness_mm=45.0, on=date(2027, 3, 1))


class Coverings(SimpleTestCase):
    def said(self, now: Plan) -> str:
        return " ".join(wording.phrase(each, "metric") for each in to_mind(now.pieces[0], now))

    def test_it_hides_buries_and_is_gone_through(self) -> None:
        """250 deep, 45 of stone: 205 show; 4 screws in each of two brackets."""
        now = plan(bracket_shelf(), coming=(STONE,))
        said = self.said(now)
        self.assertIn("On 2027-03-01 stone veneer goes onto this wall, 45 mm thick", said)
        self.assertIn("205 mm of its 250 mm show", said)
        self.assertIn("its 8 screws are buried", said)
        self.assertIn("washer head, 114 mm: holds", said)
        self.assertEqual(assess(now).pieces, assess(plan(bracket_shelf())).pieces)
        for message in to_mind(now.pieces[0], now):
            self.assertIn(message, what_to_mind(now.pieces[0], now))

    def test_rods_stand_less_out(self) -> None:
        beam = put_up("rod_beam", plan().wall, key="beam")
        self.assertIn("Its rods stand 45 mm less out", self.said(plan(beam, coming=(STONE,))))

    def test_the_wall_as_it_will_be(self) -> None:
        tile = Covering(kind="tile", thickness_mm=10.0)
        later = covered(plan(coming=(STONE, tile)).wall)
        self.assertEqual([layer.kind for layer in later.layers or ()][:2], ["tile", "stone"])
        self.assertEqual(later.lining_mm, 45.0 + 10.0 + 12.7)
        self.assertIn("Some day tile", self.said(plan(bracket_shelf(), coming=(tile,))))

    def test_nothing_is_said_where_nothing_comes_and_a_file_keeps_it(self) -> None:
        self.assertEqual(self.said(plan(bracket_shelf())), "")
        now = plan(bracket_shelf(), coming=(STONE,))
        self.assertEqual(plan_file.load(plan_file.dump(now)), now)
        unknown = replace(now, wall=replace(now.wall, layers=None))
        self.assertEqual(covered(unknown.wall), unknown.wall)
        self.assertNotIn("Hung after", self.said(unknown))
        self.assertEqual(
            Layer(kind="stone", thickness_mm=45.0), (covered(now.wall).layers or ())[0]
        )
