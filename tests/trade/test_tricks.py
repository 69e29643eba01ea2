"""Tricks at the wall: each where kind and step call for it, with the piece's own figures."""

from math import atan, degrees

from django.test import SimpleTestCase

from tests.plans import bracket_shelf, plan, rod_shelf
from tests.trade.test_every_kind import put_up
from trade import data
from trade.calculation import Quantity
from trade.job.step import Tip
from trade.job.steps import steps
from trade.mounts import KINDS, mount_of
from trade.plan.model import AnyPiece, Thing


def tips(piece: AnyPiece, **changes: object) -> dict[str, Tip]:
    found = steps(plan(piece, **changes), piece.key, "metric")
    every = [tip for step in found for tip in step.tips]
    assert len({tip.key for tip in every}) == len(every)  # each is told once
    return {tip.key: tip for tip in every}


class CalledFor(SimpleTestCase):
    def test_what_is_held_up_while_it_is_driven_and_what_is_only_marked(self) -> None:
        driven = tips(bracket_shelf())
        self.assertIn("tips", driven)
        self.assertNotIn("nail", driven)
        marked = tips(bracket_shelf(anchor="plug_8"), structure="brick_solid", studs=())
        self.assertTrue({"nail", "paper"} <= set(marked))
        self.assertNotIn("tips", marked)

    def test_deep_holes_are_guided_and_the_deepest_begun_with_a_short_bit(self) -> None:
        for mm, wanted in ((38.1, set()), (76.2, {"block"}), (180.0, {"block", "long"})):
            found = set(tips(bracket_shelf(screw_length_mm=mm))) & {"block", "long"}
            self.assertEqual(found, wanted, mm)

    def test_rods_that_give_are_set_up_by_as_much(self) -> None:
        """The drop of its front over its depth; a shim of that over the height of the plate."""
        piece = rod_shelf(things=(Thing(name="Books", mass_kg=25.0),))
        self.assertNotIn("tilt", tips(rod_shelf()))  # less than a millimetre
        checks = mount_of(piece).checks(piece, plan(piece).wall)
        [drop] = [each.demand.value for each in checks if each.code == "shelf.droop"]
        tilt = tips(piece)["tilt"].figures
        assert tilt is not None
        shim = tilt.parts["shim"]
        assert isinstance(shim, Quantity)
        self.assertAlmostEqual(shim.value, drop / piece.depth_mm * piece.hardware.height_mm)
        self.assertEqual(str(tilt.parts["degrees"]), f"{degrees(atan(drop / 250.0)):.1f}")

    def test_every_trick_of_a_step_is_met_by_some_kind_or_named_for_the_handbook(self) -> None:
        met = {key for kind in KINDS for key in tips(put_up(kind, plan().wall))}
        self.assertTrue({"tape", "tips", "eye", "block", "slide", "props", "strip"} <= met)
        self.assertTrue(met.isdisjoint(k for k, row in data.tricks().items() if not row.calls))
