"""What is remembered is what would be worked out afresh, whatever is done to a plan."""

from dataclasses import dataclass
from random import Random

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from bench.drawing import elevation
from tests.plans import bracket_shelf, plan, rod_shelf
from trade.assess import assess, by_itself
from trade.choose import placement
from trade.choose.entry import entries
from trade.errors import PlanError
from trade.memo import clear_memos, memoized
from trade.mounts import KINDS
from trade.plan import plan_file
from trade.plan.model import Plan, Policy, Stud, Thing


@dataclass
class Hand:
    """Does something to a plan, now and then the same again."""

    dice: Random

    def edit(self, on: Plan) -> Plan:
        """One edit of any kind that the wall allows; the plan as it was where it does not."""
        try:
            return self.dice.choice(
                (self.move, self.load, self.put_up, self.remove, self.agree, self.wall, self.reread)
            )(on)
        except PlanError:
            return on

    def move(self, on: Plan) -> Plan:
        piece = self.dice.choice(on.pieces)
        return on.with_piece(
            replace(
                piece, left_mm=float(self.dice.randrange(0, 2000, 200)), top_mm=piece.top_mm + 40.0
            )
        )

    def load(self, on: Plan) -> Plan:
        thing = Thing(
            name="Books",
            mass_kg=float(self.dice.randrange(0, 90, 15)),
            high_mm=self.dice.choice((None, 300.0)),
        )
        return on.with_piece(replace(self.dice.choice(on.pieces), things=(thing,)))

    def put_up(self, on: Plan) -> Plan:
        made = placement.put_up(
            on, self.dice.choice(sorted(KINDS)), float(self.dice.randrange(400, 2800, 400)), 1400.0
        )
        return on.with_piece(made)

    def remove(self, on: Plan) -> Plan:
        return on.without_piece(self.dice.choice(on.pieces).key) if len(on.pieces) > 1 else on

    def agree(self, on: Plan) -> Plan:
        minds = self.dice.choice(("usual", "much", "little"))
        anchors = self.dice.choice(("studs_only", "any"))
        return replace(on, policy=replace(on.policy, minds=minds, anchors=anchors))  # type: ignore[arg-type]

    def wall(self, on: Plan) -> Plan:
        studs = tuple(
            Stud(centre_mm=400.0 * n + self.dice.choice((0, 15)), uncertainty_mm=2.0)
            for n in range(1, 8)
        )
        return replace(
            on,
            wall=replace(
                on.wall, studs=studs, design_code=self.dice.choice(("american", "european"))
            ),
        )

    def reread(self, on: Plan) -> Plan:
        return plan_file.load(plan_file.dump(on))  # equal, but nothing of it the same object


class Remembered(SimpleTestCase):
    @settings(max_examples=25)
    @given(st.integers(0, 10**6))
    def test_over_any_edits_it_is_as_worked_out_afresh(self, seed: int) -> None:
        hand, now = Hand(Random(seed)), plan(bracket_shelf(), rod_shelf())
        clear_memos()
        for _ in range(6):
            now = hand.edit(now)
            told = self.told(now)
            clear_memos()
            self.assertEqual(told, self.told(now))

    def told(self, on: Plan) -> object:
        verdict = assess(on)
        return (
            verdict,
            entries(on, "Job", verdict),
            elevation.draw(on, verdict, on.pieces[0].key, "fix", ()).markup,
        )

    def test_a_piece_that_is_moved_leaves_the_others_judged(self) -> None:
        clear_memos()
        on = plan(bracket_shelf(), rod_shelf())
        first = assess(on)
        again = assess(plan_file.load(plan_file.dump(on.with_piece(bracket_shelf(left_mm=701.0)))))
        self.assertIs(again.piece("ledge"), first.piece("ledge"))
        self.assertIsNot(again.piece("shelf"), first.piece("shelf"))

    def test_what_it_depends_on_is_all_told(self) -> None:
        """A policy or a neighbour that changes the verdict is not answered from memory."""
        heavy = bracket_shelf(things=(Thing(name="Books", mass_kg=45.0),))
        usual, much = (
            by_itself(heavy, plan().wall, Policy(minds=minds)) for minds in ("usual", "much")
        )  # type: ignore[arg-type]
        self.assertNotEqual(usual.checks, much.checks)
        clear = plan(bracket_shelf(), rod_shelf())
        crowded = plan(bracket_shelf(), rod_shelf(top_mm=1500.0))
        self.assertEqual(
            [assess(each).piece("shelf").outcome for each in (clear, crowded)],
            ["holds", "doesnt_fit"],
        )

    def test_it_is_bounded(self) -> None:
        asked: list[int] = []

        @memoized(limit=2)
        def work(n: int) -> int:
            asked.append(n)
            return n

        for n in (1, 2, 1, 3, 1, 2):
            work(n)
        self.assertEqual(asked, [1, 2, 3, 2])
