"""Every trouble of every kind has a cure that keeps its word, or a reason why none can."""

from django.test import SimpleTestCase

from tests.troubles import Trouble, answer, failing, table
from trade import data
from trade.assess import judge_piece
from trade.check import FAILED
from trade.mounts import KINDS

_EACH = 29  # of nearly five hundred; the benchmark of the same name looks at all


class Troubles(SimpleTestCase):
    def test_what_is_proposed_keeps_its_word_and_what_nothing_mends_says_why(self) -> None:
        kept = table()
        for trouble in list(kept)[::_EACH]:
            with self.subTest(trouble):
                said, found, plan = answer(trouble)
                self.assertIn(trouble.check, failing(plan))
                self.assertEqual(said, kept[trouble])
                for cure in found.found:
                    then = judge_piece(cure.piece, cure.on(plan))
                    self.assertEqual((then.outcome, then.used), (cure.outcome, cure.used))
                    self.assertNotIn(then.outcome, FAILED)
                if found.state == "none":
                    self.assertTrue(said.said)
                    self.assertGreater(found.tried, 0)

    def test_every_kind_has_its_troubles_and_most_are_mended(self) -> None:
        kept = table()
        self.assertEqual({trouble.kind for trouble in kept}, set(KINDS))
        self.assertLessEqual({trouble.check for trouble in kept}, set(data.rules()))
        cured = sum(each.state == "cured" for each in kept.values())
        self.assertGreater(cured, 0.93 * len(kept))

    def test_a_glass_board_is_replaced_and_what_splits_a_strip_is_thinner(self) -> None:
        for kind, check, changes, helps in (
            ("bracket_shelf", "board.never", '{"piece": {"board": "glass"%s}}', "A board of"),
            ("rail", "strip.edge", '{"piece": {"screw": "rod_1_2"%s}}', "A thinner screw"),
        ):
            things = ', "things": [{"name": "Load", "mass_kg": 3.0}]'
            with self.subTest(kind):
                trouble = Trouble(kind, check, "timber_16", changes % things)
                said, _, plan = answer(trouble)
                self.assertIn(check, failing(plan))
                self.assertIn(helps, said.said)
