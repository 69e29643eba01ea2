"""Parts by hand.

Mitres, bevels, cleat pairs, corner shelves, rows of holes, what is left on for the wall, what waits
to be measured.
"""

from math import asin, cos, degrees, radians, sin, sqrt, tan

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, rod_shelf, wall
from tests.trade.test_every_kind import put_up
from trade import wording
from trade.assess import assess
from trade.cutting.actual import with_thickness
from trade.cutting.parts import CutPart, count_parts, parts_of
from trade.cutting.plan import cut_plan
from trade.errors import PlanError
from trade.mounts import KINDS, mount_of
from trade.mounts.work import Band, Bevel, Bored, Mitre, Pair, Recess, Row, Slant, minutes
from trade.plan.flatness import Corner, Flatness, Straightedge
from trade.plan.model import Plan, Shop, Thing
from trade.plan.shop import Measured, OwnPart


def made(piece: object, **changes: object) -> dict[str, CutPart]:
    """Parts of a piece on the usual wall, one of each name."""
    return {part.name: part for part in parts_of(plan(piece, **changes)).cut}  # type: ignore[arg-type]


def work(part: CutPart, kind: type) -> list:
    return [each for each in part.detail.works if isinstance(each, kind)]


class Geometry(SimpleTestCase):
    @given(
        b=st.floats(20, 60), high=st.floats(60, 200), thick=st.floats(6, 40), kerf=st.floats(0.5, 5)
    )
    def test_a_strip_is_both_halves_and_the_slanting_kerf_by_area(
        self, b: float, high: float, thick: float, kerf: float
    ) -> None:
        """First principles.

        Seen from its end, the strip is two trapezia and the band that the blade takes.
        """
        pair = Pair(b, high, thick)
        half = (high + high - thick * tan(radians(b))) / 2 * thick
        self.assertAlmostEqual(
            pair.strip_mm(kerf) * thick, 2 * half + kerf / cos(radians(b)) * thick, places=6
        )

    def test_a_pair_of_cleats_by_hand(self) -> None:
        """18 mm at 45 degrees, both 80 mm high: 80 + 80 - 18 + 3.2 √2 = 146.525."""
        self.assertAlmostEqual(Pair(45, 80, 18).strip_mm(3.2), 142 + 3.2 * sqrt(2), places=9)
        cabinet = put_up("cleat_cabinet", wall(), things=(Thing(name="Plates", mass_kg=8.0),))
        strip = made(cabinet)["strip for both halves of the cleat"]
        self.assertAlmostEqual(
            strip.width_mm, 2 * cabinet.cleat_high_mm - cabinet.cleat_mm + 3.2 * sqrt(2), places=6
        )
        said = wording.phrase(strip.detail.works[0].phrase("metric"), "metric")
        self.assertIn("each half 80 mm at its higher face, 62 mm at the other", said)

    def test_a_corner_shelf_by_hand(self) -> None:
        """500 along this wall, 400 along the other.

        Front 640.3; ledgers of 19 end 23.75 and 15.2 shorter in front.
        """
        corner = put_up("corner_shelf", wall(), things=(Thing(name="Globe", mass_kg=4.0),))
        corner = replace(
            corner,
            length_mm=500.0,
            depth_mm=400.0,
            ledger_mm=19.0,
            other_mm=350.0,
            left_mm=0.0,
            supports_mm=(300.0,),
        )
        parts = made(corner)
        [slant] = work(parts["board"], Slant)
        self.assertAlmostEqual(slant.front_mm, 640.312, places=3)
        self.assertAlmostEqual(slant.degrees, 38.66, places=2)
        [here], [there] = (
            work(parts["ledger, this wall"], Mitre),
            work(parts["ledger, other wall"], Mitre),
        )
        self.assertAlmostEqual(here.short_mm, 500 * 19 / 400, places=9)
        self.assertAlmostEqual(there.short_mm, 400 * 19 / 500, places=9)
        self.assertAlmostEqual(here.degrees + there.degrees, 90, places=9)
        self.assertEqual(parts["ledger, other wall"].length_mm, 400 - 19)
        square = Mitre("its outer end", 45, 19, "in front")
        self.assertAlmostEqual(square.short_mm, 19, places=9)

    def test_a_corner_that_is_not_square_shapes_the_board_and_both_ledgers(self) -> None:
        """A triangle of 500 and 400 with the measured angle between.

        Sides and angles by the laws of cosines and sines.
        """
        for angle in (85.0, 92.0, 96.0):
            on = wall(flatness=Flatness(corners=(Corner(side="left", angle_deg=angle),)))
            shelf = put_up(
                "corner_shelf",
                on,
                length_mm=500.0,
                depth_mm=400.0,
                ledger_mm=19.0,
                left_mm=0.0,
                supports_mm=(300.0,),
            )
            parts = {
                part.name: part
                for part in parts_of(Plan(name="W", units="metric", wall=on, pieces=(shelf,))).cut
            }
            a = radians(angle)
            front = sqrt(500**2 + 400**2 - 2 * 500 * 400 * cos(a))
            here = degrees(asin(400 * sin(a) / front))
            [slant], [edge] = work(parts["board"], Slant), work(parts["board"], Mitre)
            with self.subTest(angle=angle):
                self.assertAlmostEqual(slant.front_mm, front)
                self.assertAlmostEqual(slant.degrees, here)
                self.assertAlmostEqual(edge.short_mm, abs(400 * cos(a)))
                self.assertAlmostEqual(parts["board"].width_mm, 400 * sin(a))
                self.assertAlmostEqual(parts["board"].length_mm, 500 + max(-400 * cos(a), 0.0))
                first = work(parts["ledger, this wall"], Mitre)
                other = work(parts["ledger, other wall"], Mitre)
                self.assertAlmostEqual(first[0].degrees, 90 - here)
                self.assertAlmostEqual(other[0].degrees, 90 - (180 - angle - here))
                for inner in (first[1], other[1]):
                    self.assertAlmostEqual(inner.degrees, abs(angle - 90))
                    self.assertEqual(
                        inner.shorter, "at its front face" if angle < 90 else "at its back face"
                    )
                self.assertAlmostEqual(parts["ledger, other wall"].length_mm, 400 - 19 / sin(a))

    def test_a_shelf_that_meets_a_crooked_corner_is_sawn_to_it(self) -> None:
        """By hand.

        250 deep against a corner of 92 degrees it is 8.73 longer in front; of 88, as much shorter.
        """
        for angle, long, shorter in (
            (92.0, 1008.73, "at its back edge"),
            (88.0, 1000.0, "at its front edge"),
        ):
            shelf = bracket_shelf(left_mm=0.0, supports_mm=(400.0, 800.0))
            board = made(shelf, flatness=Flatness(corners=(Corner(side="left", angle_deg=angle),)))[
                "board"
            ]
            [end] = work(board, Mitre)
            self.assertAlmostEqual(board.length_mm, long, places=2)
            self.assertEqual(
                (end.ends, end.shorter, round(end.short_mm, 2)), ("its left end", shorter, 8.73)
            )
        away = made(
            bracket_shelf(), flatness=Flatness(corners=(Corner(side="left", angle_deg=92.0),))
        )["board"]
        self.assertEqual(work(away, Mitre), [])

    def test_a_mitred_box_by_hand(self) -> None:
        """180 high, 200 deep, skins of 15.

        The front is all 180, the back 150 between top and bottom, the caps 170 × 150.
        """
        box = put_up("box_shelf", wall(), things=(Thing(name="Films", mass_kg=5.0),))
        box = replace(
            box, height_mm=180.0, depth_mm=200.0, skin_mm=15.0, mitred=True, screw_down_mm=40.0
        )
        parts = made(box)
        self.assertEqual((parts["front"].width_mm, parts["back"].width_mm), (180.0, 150.0))
        self.assertEqual((parts["end cap"].length_mm, parts["end cap"].width_mm), (170.0, 150.0))
        self.assertEqual(
            [each.narrow_mm for each in work(parts["front"], Bevel)], [15.0 * tan(radians(45))]
        )
        self.assertTrue(parts["end cap"].waits)
        butted = made(replace(box, mitred=False))
        self.assertEqual((butted["front"].width_mm, work(butted["front"], Bevel)), (150.0, []))

    def test_rows_of_shelf_pins_by_hand(self) -> None:
        """2 000 high, boards of 18.

        (1 964 - 200) / 32 is 55.1, so 56 holes a row; one upright, two rows on both faces: 224.
        """
        case = put_up("bookcase", wall(height_mm=2600.0))
        case = replace(
            case, height_mm=2000.0, length_mm=800.0, dividers=1, loose_shelves=8, body_kg=40.0
        )
        parts = made(case, height_mm=2600.0)
        [row] = work(parts["upright"], Row)
        self.assertEqual((row.many, row.rows, row.holes), (56, 4, 224))
        self.assertAlmostEqual(
            parts["loose shelf"].length_mm, (800 - 36 - 18) / 2 - 3.175, places=6
        )
        self.assertAlmostEqual(
            minutes((row._replace(rows=1, many=650),)), 20, delta=0.1
        )  # common practice, no source
        bought = {
            part.name: many for part, many in parts_of(plan(case, height_mm=2600.0)).bought.items()
        }
        self.assertEqual(bought["shelf pin"], 32)
        with self.assertRaisesRegex(PlanError, "no room between"):
            replace(case, dividers=12, length_mm=400.0, supports_mm=(100.0,))

    def test_a_plate_is_let_in_and_more_than_two_rods_are_bored_wider(self) -> None:
        over = replace(rod_shelf(), let_in=False)
        two = made(over)["board"]
        [recess] = work(two, Recess)
        self.assertTrue(recess.deeper)
        self.assertEqual([each.wide_mm for each in work(two, Bored)], [16.0])
        three = made(replace(over, supports_mm=(100.0, 500.0, 900.0)))["board"]
        self.assertEqual(
            [each.wide_mm for each in work(three, Bored)], [18.0]
        )  # 1.5 wider, as drills are sold
        self.assertEqual(work(made(rod_shelf())["board"], Recess), [])

    def test_every_hole_of_a_strip_is_where_it_is_in_the_wall(self) -> None:
        for kind in (
            "rail",
            "ledger_shelf",
            "dowel_shelf",
            "cleat_cabinet",
            "panel",
            "holder_board",
        ):
            piece = put_up(kind, wall(), things=(Thing(name="Load", mass_kg=3.0),))
            supports = [
                hole
                for support in mount_of(piece).supports(piece, wall())
                for hole in support.holes
            ]
            places = [
                place
                for part in parts_of(plan(piece)).cut
                for each in work(part, Bored)
                if each.why == "for the screws"
                for place in each.places
            ]
            with self.subTest(kind=kind):
                apart = {round(x - min(x for x, _ in supports), 3) for x, _ in supports}
                self.assertEqual(
                    {round(x - min(x for x, _ in places), 3) for x, _ in places}, apart
                )

    def test_a_peg_grid_counts_itself(self) -> None:
        """1 000 × 800 at 100: 10 by 8 holes, half of them large."""
        pegs = replace(put_up("peg_wall", wall()), length_mm=1000.0, height_mm=800.0, grid_mm=100.0)
        large, small = work(made(pegs)["sheet"], Bored)[-2:]
        self.assertEqual((large.holes, small.holes), (40, 40))
        self.assertGreater(large.wide_mm, small.wide_mm)


class ForTheWall(SimpleTestCase):
    def test_an_eighth_is_left_on_where_nobody_measured_and_nothing_where_it_is_straight(
        self,
    ) -> None:
        shelf = bracket_shelf()
        self.assertEqual(made(shelf)["board"].rough_mm, (1000.0, 250.0 + 3.175))
        for gap, left in ((0.2, 0.0), (1.0, 3.175), (7.0, 7.0)):
            flatness = Flatness(
                straightedges=(
                    Straightedge(
                        height_mm=1500.0, gaps_mm=((700.0, 0.0), (1200.0, gap), (1700.0, 0.0))
                    ),
                )
            )
            self.assertAlmostEqual(
                made(shelf, flatness=flatness)["board"].detail.scribe_mm[1], left, places=6
            )
        cornered = replace(shelf, left_mm=0.0, supports_mm=(100.0, 800.0))
        self.assertEqual(made(cornered)["board"].detail.scribe_mm[0], 3.175)

    def test_a_board_as_wide_as_its_shelf_gives_nothing_and_says_so(self) -> None:
        shelf = bracket_shelf(length_mm=1000.0, depth_mm=11.25 * 25.4, thickness_mm=19.05)
        [part] = cut_plan(plan(shelf)).parts
        self.assertEqual((part.tight, part.cut_mm[1]), (True, 11.25 * 25.4))
        sheet = replace(shelf, board="plywood", thickness_mm=18.0, depth_mm=300.0)
        [part] = cut_plan(plan(sheet)).parts
        self.assertEqual((part.tight, part.rough, part.cut_mm), (False, True, (1000.0, 303.175)))
        self.assertEqual([each.long_mm for each in work(part, Band)], [1000.0 + 2 * 300.0])

    def test_what_was_measured_moves_what_follows_it(self) -> None:
        """A closet shelf planned 1 200 and measured 1 190.

        Its strip is 10 shorter too, the ledgers as planned.
        """
        shelf = replace(
            put_up("ledger_shelf", wall()),
            length_mm=1200.0,
            left_mm=0.0,
            supports_mm=(100.0, 800.0),
            stiffener_mm=40.0,
        )
        now = plan(shelf)
        measured = (
            Measured(piece=shelf.key, part="board", length_mm=1190.0),
            Measured(piece="gone", part="board", length_mm=9.0),
        )
        after = {p.name: p for p in parts_of(replace(now, shop=Shop(measured=measured))).cut}
        before = {p.name: p for p in parts_of(now).cut}
        self.assertEqual(
            (after["board"].length_mm, after["board"].measured, after["board"].waits),
            (1190.0, True, False),
        )
        self.assertEqual(after["front strip"].length_mm, before["front strip"].length_mm - 10.0)
        self.assertEqual(after["back ledger"].length_mm, before["back ledger"].length_mm)
        self.assertTrue(before["board"].waits)

    def test_wood_as_it_measures_goes_through_the_verdict_and_every_part(self) -> None:
        shelf = bracket_shelf(board="plywood", thickness_mm=18.0)
        other = bracket_shelf(key="oak", top_mm=900.0, thickness_mm=18.0)
        now = replace(
            plan(shelf, other),
            shop=Shop(
                own=(
                    OwnPart(
                        name="Back", board="plywood", length_mm=500, width_mm=300, thickness_mm=18.0
                    ),
                )
            ),
        )
        thin = with_thickness(now, "plywood", 18.0, 17.0)
        self.assertEqual([p.thickness_mm for p in thin.pieces], [17.0, 18.0])
        self.assertEqual(thin.shop.own[0].thickness_mm, 17.0)
        sag = [
            next(
                c for c in assess(p).piece("shelf").checks if c.code == "sag.long_term"
            ).utilisation
            for p in (now, thin)
        ]
        self.assertLess(sag[0], sag[1])
        self.assertEqual(with_thickness(now, "mdf", 18.0, 17.0), now)
        with self.assertRaises(PlanError):
            with_thickness(now, "plywood", 18.0, 900.0)


class EveryKind(SimpleTestCase):
    def test_every_part_has_a_label_and_is_counted_and_says_what_is_done_in_both_units(
        self,
    ) -> None:
        for kind in KINDS:
            now: Plan = plan(put_up(kind, wall(), things=(Thing(name="Load", mass_kg=3.0),)))
            cut = parts_of(now).cut
            with self.subTest(kind=kind):
                self.assertEqual(len({part.label for part in cut}), len(cut))
                self.assertEqual(count_parts(now), len(cut))
                names = {
                    part.name for part in mount_of(now.pieces[0]).parts(now.pieces[0], now.wall)
                }
                self.assertLessEqual(
                    set(mount_of(now.pieces[0]).details(now.pieces[0], now.wall, "metric")),
                    names | {"board", "front strip"},
                )
                for part in cut:
                    for each in part.detail.works:
                        for units in ("imperial", "metric"):
                            self.assertRegex(
                                wording.phrase(each.phrase(units), units), r"^[A-Z].*\.$"
                            )

    @settings(max_examples=30)
    @given(kind=st.sampled_from(sorted(KINDS)), thick=st.floats(12, 30))
    def test_measuring_wood_and_measuring_it_back_changes_nothing(
        self, kind: str, thick: float
    ) -> None:
        now = plan(put_up(kind, wall(), things=(Thing(name="Load", mass_kg=3.0),)))
        part = next((part for part in parts_of(now).cut if part.key), None)
        if part is None:
            return
        try:
            there = with_thickness(now, part.board, part.thick_mm, thick)
        except PlanError:
            return
        others = {p.thick_mm for p in parts_of(now).cut if p.board == part.board} - {part.thick_mm}
        if not any(abs(other - thick) < 0.1 for other in others):
            self.assertEqual(with_thickness(there, part.board, thick, part.thick_mm), now)
