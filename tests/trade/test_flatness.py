"""Flat, plumb, square, level.

Sums by hand for scribe, shims, ends, crookedness and niches; and how it is jotted down.
"""

from typing import Any

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st
from msgspec.structs import replace
from scipy.optimize import linprog

from tests.plans import STUDS, bracket_shelf, wall
from tests.trade.test_every_kind import put_up
from trade import wording
from trade.assess import assess_piece
from trade.choose.cures import cures
from trade.cutting.parts import parts_of
from trade.errors import PlanError
from trade.marking.template import template
from trade.measure import Units
from trade.plan import flatness
from trade.plan.flatness import Corner, Flatness, NicheWidth, Plumb, RunOut, Straightedge
from trade.plan.model import Plan, Thing, Wall
from trade.wall import scribing as lying
from trade.wall.scribing import Scribing, gap_mm, niche_of, scribing

HOLLOW = Straightedge(height_mm=1500.0, gaps_mm=((600.0, 0.0), (1200.0, 6.0), (1800.0, 0.0)))


def on(piece: dict[str, Any] | None = None, **measured: Any) -> Scribing:
    """The shelf of the other tests.

    700 to 1 700, at 1 500, supports at 800 and 1 600, 250 deep, 20 thick.
    """
    return scribing(bracket_shelf(**(piece or {})), wall(flatness=Flatness(**measured)), 200.0)


class Flat(SimpleTestCase):
    def test_a_hollow_wall_is_scribed_at_the_ends(self) -> None:
        """Gap 1 at 700 and 1 700, 6 at 1 200.

        The shelf touches at its ends, gapes 5 in the middle; 5 come off the ends.
        """
        scribe = on(straightedges=(HOLLOW,)).scribe
        assert scribe is not None
        self.assertEqual(
            [(x, round(gap, 6)) for x, gap in scribe.points_mm],
            [(0.0, 0.0), (500.0, 5.0), (1000.0, 0.0)],
        )
        self.assertEqual([round(cut, 6) for _, cut in scribe.cut_mm], [5.0, 0.0, 5.0])

    def test_a_belly_gapes_at_both_ends_alike(self) -> None:
        """Gaps 4, 0, 8: turned about the belly until both ends gape 6."""
        belly = Straightedge(height_mm=1500.0, gaps_mm=((700.0, 4.0), (1200.0, 0.0), (1700.0, 8.0)))
        scribe = on(straightedges=(belly,)).scribe
        assert scribe is not None
        self.assertEqual([round(gap, 6) for _, gap in scribe.points_mm], [6.0, 0.0, 6.0])
        self.assertEqual([round(cut, 6) for _, cut in scribe.cut_mm], [0.0, 6.0, 0.0])

    @given(st.lists(st.integers(0, 200), min_size=3, max_size=9))
    def test_a_straight_edge_lies_as_close_as_it_can(self, tenths: list[int]) -> None:
        """Against a general solver: least t with 0 <= gap - (a + b x) <= t at every place."""
        xs, gaps = np.linspace(700, 1700, len(tenths)), np.array(tenths) / 10
        scribe = on(
            straightedges=(
                Straightedge(
                    height_mm=1500.0,
                    gaps_mm=tuple(zip(map(float, xs), map(float, gaps), strict=True)),
                ),
            )
        ).scribe
        assert scribe is not None
        one, nought = np.ones_like(xs), np.zeros_like(xs)
        rows = np.vstack(
            [np.column_stack([one, xs - 700, nought]), np.column_stack([-one, 700 - xs, -one])]
        )
        least = linprog(
            [0, 0, 1],
            A_ub=rows,
            b_ub=np.concatenate([gaps, -gaps]),
            bounds=[(None, None), (None, None), (0, None)],
        )
        self.assertAlmostEqual(scribe.widest_mm, least.fun, places=5)
        self.assertGreaterEqual(min(gap for _, gap in scribe.points_mm), -1e-9)

    def test_between_two_heights_in_proportion_and_beyond_the_straightedge_nothing(self) -> None:
        upper = Straightedge(height_mm=1900.0, gaps_mm=((600.0, 4.0), (1800.0, 4.0)))
        self.assertEqual(gap_mm(Flatness(straightedges=(HOLLOW, upper)), 1200.0, 1600.0), 5.5)
        self.assertIsNone(gap_mm(Flatness(straightedges=(HOLLOW,)), 300.0, 1500.0))
        self.assertIsNone(on({"left_mm": 2000.0}, straightedges=(HOLLOW,)).scribe)
        self.assertIsNone(on({"top_mm": 1100.0}, straightedges=(HOLLOW,)).scribe)

    def test_supports_in_a_hollow_are_shimmed_to_a_line(self) -> None:
        shims = on({"supports_mm": (100.0, 500.0, 900.0)}, straightedges=(HOLLOW,)).shims
        self.assertEqual([round(shim.behind_mm, 6) for shim in shims], [0.0, 4.0, 0.0])


class PlumbAndSquare(SimpleTestCase):
    def test_a_wall_that_leans_into_the_room_tips_the_shelf_forward(self) -> None:
        """12 mm over 1 200: 1 in 100.

        250 deep: 2.5 down at the front; a leg of 200 wants 2 under its foot.
        """
        got = on(plumbs=(Plumb(at_mm=800, low_mm=300, high_mm=1500, out_mm=12.0),))
        self.assertAlmostEqual(got.tilt_mm or 0, -2.5)
        self.assertEqual([(s.behind_mm, s.foot_mm) for s in got.shims], [(0.0, 2.0), (0.0, 2.0)])
        away = on(plumbs=(Plumb(at_mm=800, low_mm=300, high_mm=1500, out_mm=-12.0),))
        self.assertAlmostEqual(away.tilt_mm or 0, 2.5)

    def test_an_open_corner_needs_a_wider_front(self) -> None:
        """tan 1 degree = 0.017455; 250 deep."""
        ends = on(
            {"left_mm": 0.0},
            corners=(Corner(side="left", angle_deg=91.0), Corner(side="right", angle_deg=89.0)),
        ).ends
        self.assertEqual([(end.side, round(end.front_mm, 3)) for end in ends], [("left", 4.364)])

    def test_three_four_five(self) -> None:
        self.assertAlmostEqual(
            flatness.read("left corner 36 by 48 is 60", "imperial").corners[0].angle_deg, 90.0
        )
        self.assertGreater(
            flatness.read("right corner 36 by 48 is 60 1/8", "imperial").corners[0].angle_deg, 90.0
        )


class Level(SimpleTestCase):
    CEILING = RunOut(line="ceiling", points_mm=((0.0, 900.0), (3200.0, 868.0)))

    def test_a_falling_ceiling_shows_beside_a_level_shelf(self) -> None:
        """It falls 1 in 100.

        Shelf top at 2 200 of 2 400: 193 left, 183 right; 10 over a metre, and near.
        """
        [crooked] = on({"top_mm": 2200.0}, run_outs=(self.CEILING,)).crooked
        self.assertEqual((round(crooked.left_mm, 6), round(crooked.right_mm, 6)), (193.0, 183.0))
        self.assertEqual(
            (crooked.eye, round(crooked.split_mm, 6), round(crooked.off_mm, 6)), (True, 5.0, 10.0)
        )
        self.assertFalse(on(run_outs=(self.CEILING,)).crooked[0].eye)

    def test_a_floor_falls_away_from_its_line(self) -> None:
        floor = RunOut(line="floor", points_mm=((0.0, 1000.0), (3200.0, 1032.0)))
        [crooked] = on({"top_mm": 220.0}, run_outs=(floor,)).crooked
        self.assertEqual((round(crooked.left_mm, 6), round(crooked.right_mm, 6)), (207.0, 217.0))

    def test_a_sloped_ceiling_stops_what_would_run_into_it(self) -> None:
        slope = RunOut(line="ceiling", points_mm=((0.0, 1200.0), (1600.0, 1200.0), (3200.0, 200.0)))
        for left, word in ((600.0, "holds"), (2000.0, "doesnt_fit")):
            verdict = assess_piece(
                bracket_shelf(left_mm=left, top_mm=1700.0),
                wall(flatness=Flatness(run_outs=(slope,))),
            )
            [check] = [check for check in verdict.checks if check.code == "piece.ceiling"]
            self.assertEqual(check.outcome, word)
        self.assertAlmostEqual(
            lying.lowest_ceiling_mm(wall(flatness=Flatness(run_outs=(slope,))), 1500.0, 2000.0),
            2150.0,
        )


class Niches(SimpleTestCase):
    def test_each_shelf_has_its_own_width(self) -> None:
        """Back 1 000 at 1 000, 1 010 at 2 000; 500 out it is 12 wider.

        At 1 500, 250 deep, 1 005 and 1 011.
        """
        widths = (
            NicheWidth(height_mm=1000, width_mm=1000),
            NicheWidth(height_mm=2000, width_mm=1010),
            NicheWidth(height_mm=1000, width_mm=1012, out_mm=500),
            NicheWidth(height_mm=2000, width_mm=1022, out_mm=500),
        )
        inside = wall(width_mm=1000.0, studs=(), flatness=Flatness(widths=widths))
        niche = niche_of(bracket_shelf(left_mm=0.0), inside)
        assert niche is not None
        self.assertEqual(
            (niche.back_mm, niche.front_mm, niche.cut_back_mm, niche.cut_front_mm),
            (1005.0, 1011.0, 1002.0, 1008.0),
        )
        self.assertIsNone(
            niche_of(bracket_shelf(left_mm=0.0, length_mm=900.0), inside)
        )  # it does not fill it
        self.assertFalse(on().any)

    def test_what_was_measured_governs_the_verdict_the_cut_list_the_marks_and_the_template(
        self,
    ) -> None:
        """A closet of 60 in, 59 3/4 at the shelf.

        60 in boards don't go in; all that is cut is 59 5/8, less 1/8 in and no more.
        """
        inch = 25.4
        width = NicheWidth(height_mm=1400.0, width_mm=59.75 * inch)
        on = wall(
            width_mm=60 * inch,
            studs=tuple(s for s in STUDS if s.centre_mm < 1500),
            flatness=Flatness(widths=(width,)),
        )
        shelf = replace(
            put_up("ledger_shelf", on),
            left_mm=0.0,
            length_mm=60 * inch,
            supports_mm=(400.0, 800.0, 1200.0),
        )
        shelf = replace(
            shelf, sides_sure=True, stiffener_mm=90.0, things=(Thing(name="Linen", mass_kg=6.0),)
        )
        now = Plan(name="Closet", units="imperial", wall=on, pieces=(shelf,))
        [fit] = [c for c in assess_piece(shelf, on).checks if c.code == "fit.niche"]
        self.assertEqual(fit.outcome, "doesnt_fit")
        self.assertIn("59 3/4", wording.phrase(fit.sentence, "imperial"))
        cut = 59.75 * inch - 3.0
        parts = {part.name: part.length_mm for part in parts_of(now).cut}
        self.assertEqual(
            {round(parts[name], 3) for name in ("board", "back ledger")}, {round(cut, 3)}
        )
        drawn = template(shelf, now, "imperial")
        xs = [x for line in drawn.lines if line.layer == "PIECE" for x in (line.x1, line.x2)]
        self.assertAlmostEqual(max(xs) - min(xs), cut)
        [cure] = [each for each in cures(now, shelf.key) if each.code == "niche"]
        self.assertAlmostEqual(cure.piece.length_mm, cut)
        self.assertEqual(
            [shelf.left_mm + x for x in shelf.supports_mm],
            [cure.piece.left_mm + x for x in cure.piece.supports_mm],
        )
        self.assertNotIn(
            "fit.niche",
            [c.code for c in assess_piece(cure.piece, on).checks if c.outcome != "holds"],
        )


class Jotted(SimpleTestCase):
    TEXT = """48 up: gaps 0 at 0, 1/8 at 24, 0 at 48
plumb at 30: 12 to 84 up, 1/4 out
left corner 90.5°
ceiling 48 1/4 at 0, 48 at 96
floor 47 3/4 at 0, 48 at 96
width 35 7/8 at 60 up
width 36 at 60 up, 16 out"""

    def test_read_and_written_again(self) -> None:
        units: Units
        got = flatness.read(self.TEXT, "imperial")
        self.assertEqual(got.straightedges[0].gaps_mm[1], (609.6, 3.175))
        self.assertEqual(
            (len(got.plumbs), got.corners[0].angle_deg, len(got.run_outs), len(got.widths)),
            (1, 90.5, 2, 2),
        )
        self.assertEqual(flatness.read(flatness.write(got, "imperial"), "imperial"), got)
        for units in ("metric", "imperial"):
            once = flatness.read(flatness.write(got, units), units)
            self.assertEqual(flatness.read(flatness.write(once, units), units), once)

    def test_what_cannot_be_read_is_named_with_its_line(self) -> None:
        for text, words in (
            ("wonky", "Line 1: “wonky” is not understood"),
            ("48 up: gaps 0 at 0", "two places or more"),
            ("\nceiling 4, 5 at 6", "Line 2: “4” has no place"),
            ("left corner 36 by 48 is 90", "form a triangle"),
            ("left corner 20", "60 to 120"),
            ("plumb at 3: 12 to 13 up, 1 in", "4 in"),
            ("left corner " + "1 by " * 9_000, "is not understood"),
            ("ceiling 1 at 2, 3 at 2", "each once"),
            ("left corner 90\nleft corner 91", "twice"),
            ("width x at 3 up", "Couldn't read"),
        ):
            with self.subTest(text=text), self.assertRaisesRegex(PlanError, words):
                flatness.read(text, "imperial")

    def test_a_plan_refuses_what_is_no_number(self) -> None:
        for bad in (float("nan"), float("inf")):
            with self.assertRaises(PlanError):
                Corner(side="left", angle_deg=bad)
            with self.assertRaises(PlanError):
                Plumb(at_mm=bad, low_mm=0, high_mm=1000, out_mm=1)
        self.assertEqual(Wall(width_mm=3000, height_mm=2400).flatness, Flatness())
