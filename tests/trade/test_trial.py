"""One fixing tried on scrap: what the sums expect of it, and what a trial says beside them."""

from datetime import date
from typing import Any

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, wall
from tests.trade.test_every_kind import put_up
from trade import data, wording
from trade.assess import assess_piece
from trade.errors import PlanError
from trade.job.trial import Rig, fixing_of, learned, rig, tried
from trade.measure import G_N_PER_KG
from trade.mounts import KINDS
from trade.plan import plan_file
from trade.plan.as_built import AsBuilt, Trial
from trade.plan.model import AnyPiece, Plan, Thing

ON = date(2031, 3, 1)


def seen(piece: AnyPiece, kg: float, **changes: Any) -> Trial:
    kind, screw, length_mm, anchor = fixing_of(piece)
    made = {"piece": piece.key, "on": ON, "kind": kind, "screw": screw, "kg": kg, "hours": 24.0}
    return Trial(**made | {"screw_length_mm": length_mm, "anchor": anchor} | changes)


def with_trials(on: Plan, *trials: Trial) -> Plan:
    return replace(on, as_built=AsBuilt(trials=trials))


class Expected(SimpleTestCase):
    def of(self, kind: str) -> tuple[AnyPiece, Plan, Rig]:
        piece = put_up(kind, wall())
        on = plan(piece)
        return piece, on, rig(piece, on)

    def test_a_holder_board_by_hand(self) -> None:
        """Its screws are pressed down: one place bears what each of its screws bears, together.

        The plan's check is of a tug, for minutes (C_D 1.6); a trial stands for years (0.9).
        """
        piece, _, built = self.of("holder_board")
        shear = next(c for c in assess_piece(piece, wall()).checks if c.code == "screw.shear")
        many = len(KINDS["holder_board"].supports(piece, wall())[0].holes)
        bears_kg = many * shear.capacity.value * 0.9 / 1.6 / G_N_PER_KG
        self.assertEqual(built.check and built.check.code, "screw.shear")
        self.assertAlmostEqual(built.allowed_kg, bears_kg, delta=0.04 * bears_kg)  # its own weight

    def test_two_fixings_on_the_wall_are_used_up_by_twice_as_much(self) -> None:
        piece = put_up("rod_shelf", wall())
        left, right = piece.supports_mm[:2]
        built = rig(piece, plan(piece))
        load = Thing(
            name="Load",
            mass_kg=2 * built.allowed_kg,
            at_mm=(right - left) / 2 + 50.0,
            out_mm=piece.depth_mm,
        )
        pair = replace(
            piece,
            left_mm=piece.left_mm + left - 50.0,
            length_mm=right - left + 100.0,
            supports_mm=(50.0, right - left + 50.0),
            things=(load,),
            use="display",
        )
        of_screws = [c for c in assess_piece(pair, wall()).checks if c.code.startswith("screw.")]
        self.assertAlmostEqual(max(c.utilisation for c in of_screws), 1.0, places=2)

    def test_of_what_is_used_in_the_plan_so_much_hangs_first(self) -> None:
        for kind in ("bracket_shelf", "rod_shelf", "rail", "cleat_wall"):
            with self.subTest(kind=kind):
                piece, _, built = self.of(kind)
                assert built.check is not None
                used = max(
                    check.utilisation
                    for check in assess_piece(piece, wall()).checks
                    if check.code == built.check.code
                )
                self.assertAlmostEqual(built.planned_kg / built.allowed_kg, used, places=6)

    def test_where_tests_end_by_practice(self) -> None:
        american, european = (
            rig(piece, on)
            for school in ("american", "european")
            for piece in (put_up("rod_shelf", wall()),)
            for on in (plan(piece, design_code=school),)
        )
        for built, times in ((american, 5.0), (european, 4.0)):
            assert built.breaks_kg is not None
            self.assertAlmostEqual(built.breaks_kg / built.allowed_kg, times)

    def test_steel_is_not_bent_for_nothing(self) -> None:
        """A bracket bends for good at 1.67 × what is allowed: the trial ends at 3/4 of that."""
        _, _, built = self.of("bracket_shelf")
        words = " ".join(wording.phrase(each, "metric") for each in built.words)
        kg = round(built.allowed_kg * 1.67 * 0.75)
        self.assertRegex(words, rf"up to {kg}(\.\d)? kg")

    def test_what_cannot_be_tried_says_why(self) -> None:
        off = replace(bracket_shelf(), left_mm=700.0, supports_mm=(200.0, 600.0))
        self.assertIn("other than strength", rig(off, plan(off)).refusal)
        for kind in ("bookcase", "ledger_shelf"):
            self.assertIn("hardly loads", self.of(kind)[2].refusal)
        self.assertIn("one fixing at a time", self.of("corner_shelf")[2].refusal)


class Seen(SimpleTestCase):
    def setUp(self) -> None:
        self.piece = put_up("rod_shelf", wall())
        self.on = plan(self.piece)
        self.rig = rig(self.piece, self.on)

    def said(self, trial: Trial) -> str:
        found = tried(trial, self.rig)
        return " ".join(wording.phrase(each, "metric") for each in found.words)

    def test_beside_the_sum(self) -> None:
        allowed = self.rig.allowed_kg
        for times, gave, good, words in (
            (5.0, "came_out", True, "as expected"),
            (2.0, "came_out", True, "weak"),
            (0.8, "split", False, "don't rely"),
            (2.0, "nothing", True, "It held"),
            (0.5, "nothing", False, "far enough"),
        ):
            with self.subTest(times=times, gave=gave):
                trial = seen(self.piece, times * allowed, gave=gave)
                self.assertEqual(tried(trial, self.rig).good, good)
                self.assertIn(words, self.said(trial))
        self.assertIn("creep", self.said(seen(self.piece, 2 * allowed, hours=3.0)))
        self.assertNotIn("creep", self.said(seen(self.piece, 2 * allowed)))

    def test_the_weakest_that_broke_is_what_is_learned(self) -> None:
        allowed = self.rig.allowed_kg
        times, held = (4.0, 2.5, 3.0), seen(self.piece, 4.5 * allowed)
        broke = [seen(self.piece, each * allowed, gave="came_out") for each in times]
        here, there = with_trials(self.on, *broke[:2], held), with_trials(self.on, broke[2])
        found = learned(self.piece, [here, there])
        assert found is not None
        self.assertEqual((round(found.factor, 3), found.least, found.many), (0.5, False, 4))
        only = learned(self.piece, [with_trials(self.on, held)])
        assert only is not None
        self.assertEqual((round(only.factor, 3), only.least), (0.9, True))

    def test_of_another_fixing_nothing_is_learned(self) -> None:
        other = seen(self.piece, 10.0, screw="wood_8", gave="split")
        self.assertIsNone(learned(self.piece, [with_trials(self.on, other)]))

    def test_no_sum_changes(self) -> None:
        weak = with_trials(self.on, seen(self.piece, 1.0, gave="broke"))
        self.assertEqual(rig(self.piece, weak), self.rig)
        self.assertEqual(plan_file.load(plan_file.dump(weak)), weak)

    def test_nonsense_is_refused(self) -> None:
        for changes in ({"kg": 0.0}, {"kg": float("nan")}, {"hours": -1.0}, {"sag_mm": 900.0}):
            with self.subTest(**changes), self.assertRaises(PlanError):
                seen(self.piece, **{"kg": 5.0} | changes)


class Reserves(SimpleTestCase):
    def test_each_row_is_of_a_check_that_there_is(self) -> None:
        for key in data.reserves():
            self.assertTrue(any(code.startswith(key) for code in data.rules()), key)
