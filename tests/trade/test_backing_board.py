"""A board across studs, on the wall's face, that things are screwed to where no stud is."""

from datetime import UTC, datetime
from typing import Any

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, rod_shelf, wall
from tests.trade.test_across import rail
from trade import data
from trade.assess import assess_piece, judge_piece
from trade.check import Check
from trade.choose.cures import look_for_cures
from trade.cutting.parts import parts_of
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.fixings import across, backing_board
from trade.fixings.support import Support
from trade.job import found, steps
from trade.load.demand import Demand
from trade.mounts import mount_of
from trade.parse import sketch
from trade.plan.features import Feature, usual
from trade.plan.model import AnyPiece, Thing
from trade.wall.framing import into_framing


def board(**changes: Any) -> Feature:
    """From stud to stud at 800 and 1 600, over that at 1 200; 310 mm high."""
    made = Feature(
        kind="backing_board", left_mm=781.0, right_mm=1619.0, bottom_mm=1170.0, top_mm=1480.0
    )
    return replace(made, **changes)


def shelf(**changes: Any) -> AnyPiece:
    """Its brackets between studs, at 1 000 and 1 400, 300 mm high from 1 180 up."""
    return bracket_shelf(**{"supports_mm": (300.0, 700.0), "screw_length_mm": 38.1} | changes)


def checks(piece: AnyPiece, *features: Feature, **on: Any) -> list[Check]:
    return list(assess_piece(piece, wall(features=features, **on)).checks)


class Carried(SimpleTestCase):
    def test_what_hangs_is_screwed_to_it_and_it_to_the_studs(self) -> None:
        self.assertEqual(assess_piece(shelf(), wall()).outcome, "wont_hold")
        found = checks(shelf(), board())
        self.assertEqual({each.outcome for each in found}, {"holds"})
        own = {each.code for each in found if each.part == "backing board"}
        self.assertLessEqual({"screw.shear", "screw.withdrawal", "screw.combined"}, own)
        for seat in mount_of(shelf()).supports(shelf(), wall(features=(board(),))):
            assert isinstance(seat, Support)
            self.assertEqual((seat.gap_mm, seat.stud.depth_mm), (0.0, 38.0))
            self.assertEqual([each.x_mm for each in seat.board_on], [800.0, 1200.0, 1600.0])

    def test_load_and_turning_come_to_the_studs_by_the_lever_further_out_by_the_board(self) -> None:
        """At 1 000 and 1 400: half of each goes to 1 200, a quarter of both to either end."""
        seats = mount_of(shelf()).supports(shelf(), wall(features=(board(),)))
        held = [each for each in seats if isinstance(each, Support)]
        up = held[0].foot_mm - 1170.0
        cases = {
            0: (Demand("always", 0.9, 100.0, 20_000.0, 10.0),),
            1: (Demand("always", 0.9, 300.0, 60_000.0), Demand("pushed", 1.6, 500.0, 99_000.0)),
        }
        on = backing_board.on_studs(board(), held, cases)
        first = 20_000.0 + 100 * 38 + 10 * up
        self.assertEqual(on[0][0], Demand("always", 0.9, 50.0, first / 2, 5.0))
        self.assertEqual(on[1][0].load_n, 50.0 + 150.0)
        self.assertAlmostEqual(on[1][0].moment_nmm, first / 2 + (60_000 + 300 * 38) / 2)
        self.assertEqual(on[2][1].load_n, 250.0)
        self.assertEqual(on[1][1].load_n, 50.0 + 250.0)  # the other one always bears its own

    def test_beyond_the_last_stud_it_carries_more_than_the_load(self) -> None:
        self.assertEqual(backing_board.lever([0.0, 400.0], 500.0), [0.0, 1.25])
        self.assertEqual(backing_board.lever([0.0, 400.0, 800.0], -100.0), [1.25, 0.0, 0.0])
        self.assertEqual(backing_board.lever([0.0, 400.0, 800.0], 400.0), [0.0, 1.0, 0.0])

    def test_it_is_bent_between_the_studs_and_beyond_the_last(self) -> None:
        """Two loads 100 mm apart in a bay of 400; one 80 mm beyond a stud."""
        bay = across._Bay(0.0, 400.0)
        self.assertEqual(bay.lever_mm(200.0, 200.0), 100.0)
        self.assertEqual(bay.lever_mm(100.0, 300.0), 25.0)
        self.assertEqual(across._Bay(400.0, 500.0, 400.0).lever_mm(480.0, 450.0), 80.0)
        thin, thick = (
            next(
                each for each in checks(shelf(), board(depth_mm=t)) if each.code == "across.bending"
            )
            for t in (38.0, 76.0)
        )
        self.assertGreater(thin.demand.value, 2 * thick.demand.value)

    def test_what_shares_its_place_sits_on_it_whole(self) -> None:
        for wood, sits in (
            (board(), True),
            (board(bottom_mm=1300.0), False),  # the foot is 44 mm off the wall
            (board(right_mm=1300.0), False),  # one bracket is beside it
            (board(left_mm=900.0, right_mm=1500.0), False),  # over one stud alone: nothing holds it
            (board(bottom_mm=500.0, top_mm=640.0), True),  # far below
        ):
            codes = {each.code for each in checks(shelf(), wood)}
            self.assertEqual("across.off_board" not in codes, sits, wood)
        into = rod_shelf(let_in=True, top_mm=1400.0)
        self.assertIn("across.off_board", {each.code for each in checks(into, board())})

    def test_all_that_hangs_on_it_comes_together(self) -> None:
        second = shelf(key="second", top_mm=1100.0)
        both = plan(shelf(), second, features=(board(bottom_mm=760.0),))
        alone = [
            max(
                each.utilisation
                for each in judge_piece(piece, both.without_piece(other)).checks
                if each.gradual and (each.part == "backing board" or each.code == "across.bending")
            )
            for piece, other in ((both.piece("shelf"), "second"), (second, "shelf"))
        ]
        for piece in both.pieces:
            [shared] = [
                each for each in judge_piece(piece, both).checks if each.code == "across.shared"
            ]
            self.assertAlmostEqual(shared.utilisation, sum(alone), places=9)

    def test_on_steel_studs_or_unknown_ones_nobody_can_tell(self) -> None:
        steel = {"structure": "steel_20", "timber": None}
        for on, ask in ((steel, "the board across the steel"), ({"studs": ()}, "where the studs")):
            verdict = assess_piece(shelf(), wall(features=(board(),), **on))
            self.assertEqual(verdict.outcome, "cannot_tell", on)
            self.assertTrue(any(ask in each for each in verdict.unknown), verdict.unknown)


class PutUp(SimpleTestCase):
    def test_it_ends_on_studs_and_is_typed_and_read_back(self) -> None:
        size = (3200.0, 2400.0)
        made = into_framing(usual("backing_board", 1200.0, 1400.0, size), wall())
        self.assertEqual((made.left_mm, made.right_mm), (381.0, 2019.0))
        for thing in (board(), board(to_fit=True, depth_mm=44.0)):
            said = sketch.word_of(thing, "metric", size)
            self.assertEqual(sketch.read(said, "metric", size).features, (thing,), said)

    def test_as_a_cure_it_is_on_every_list(self) -> None:
        now = plan(rail())
        [cure] = [
            each for each in look_for_cures(now, "rail").found if each.code == "backing_board"
        ]
        after = cure.on(now)
        verdict = judge_piece(after.piece("rail"), after)
        self.assertEqual((verdict.outcome, verdict.used), ("holds", cure.used))
        [wood] = after.wood_to_fit
        self.assertEqual((wood.left_mm, wood.right_mm), (1181.0, 1619.0))
        self.assertEqual([each.name for each in parts_of(after).cut].count("backing board"), 1)
        [step] = [each for each in steps.steps(after, "rail", "metric") if each.key == wood.step]
        self.assertIn("2 × 5 mm wood screw, 120 mm", dict(step.facts)["Into each stud"])
        cut = cut_plan(after)
        listed = shopping(after, cut, "metric")
        [held] = [line for line in listed.lines if line.what == "5 mm wood screw, 120 mm"]
        self.assertEqual((cut.no_stock, held.needed, listed.unpriced), ((), 4, ()))
        done = found.done(after, "rail", step.key, datetime(2026, 5, 2, tzinfo=UTC), "Ines")
        self.assertEqual(done.wood_to_fit, ())

    def test_it_is_offered_where_hardware_alone_touches_the_wall_and_nothing_is_in_the_way(
        self,
    ) -> None:
        heavy = rod_shelf(left_mm=860.0, length_mm=300.0, supports_mm=(60.0, 240.0), let_in=True)
        heavy = replace(heavy, things=(Thing(name="Pots", mass_kg=6.0),))
        outlet = Feature(kind="outlet", left_mm=850, right_mm=900, bottom_mm=780, top_mm=900)
        below = bracket_shelf(key="below", top_mm=820.0)
        for others, features, offered in (
            ((), (), True),
            ((), (outlet,), False),
            ((below,), (), False),
        ):
            now = plan(heavy, *others, features=features)
            cures = {each.code: each for each in look_for_cures(now, heavy.key).found}
            self.assertEqual("backing_board" in cures, offered, features)
            if offered:
                flat = cures["backing_board"].piece
                self.assertFalse(getattr(flat, "let_in", None))
        self.assertTrue(data.features()["backing_board"].studs_n)
