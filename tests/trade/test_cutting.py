"""Cutting.

Nothing overlaps, no kerf is eaten, every plan is guillotine by an independent test, and how near to
the least it comes.
"""

import random
from itertools import combinations, pairwise

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, wall
from tests.trade.test_every_kind import put_up
from tests.trade.test_glue_up import glued
from trade.cutting.bounds import fewest
from trade.cutting.parts import parts_of
from trade.cutting.plan import cut_plan
from trade.cutting.sheets import Blank, Item, ReadingIndex, Rect, SheetCuts, SheetPlan, cut_sheets
from trade.cutting.shopping import _pack, shopping
from trade.errors import PlanError
from trade.mounts import KINDS
from trade.plan.model import Shop, Thing
from trade.plan.shop import Defect, OnHand, OwnPart, Price

SHEET = (2438.4, 1219.2)


def guillotine(placed: list[ReadingIndex], kerf: float) -> bool:
    """Whether a saw that cuts from edge to edge can part them all, with a kerf between.

    Found from their places alone.
    """
    if len(placed) < 2:
        return True
    for near, far in (
        (lambda p: p.left_mm, lambda p: p.left_mm + p.wide_mm),
        (lambda p: p.bottom_mm, lambda p: p.bottom_mm + p.high_mm),
    ):
        ranked = sorted(placed, key=near)
        reach = far(ranked[0])
        for n, (_, following) in enumerate(pairwise(ranked), start=1):
            if near(following) >= reach + kerf - 1e-6:
                return guillotine(ranked[:n], kerf) and guillotine(ranked[n:], kerf)
            reach = max(reach, far(following))
    return False


class Sheets(SimpleTestCase):
    def sound(
        self,
        plan: SheetPlan,
        parts: list[Item],
        sheet: tuple[float, float],
        kerf: float,
        trim: float,
    ) -> None:
        self.assertEqual(
            sorted(each.label for cut in plan.sheets for each in cut.placed),
            sorted(part.label for part in parts),
        )
        by_label = {part.label: part for part in parts}
        for cut in plan.sheets:
            for each in cut.placed:
                part = by_label[each.label]
                size = (
                    (part.across_mm, part.along_mm)
                    if each.turned
                    else (part.along_mm, part.across_mm)
                )
                self.assertEqual((each.wide_mm, each.high_mm), size)
                self.assertTrue(part.turns or not each.turned)
                self.assertTrue(
                    trim - 1e-6 <= each.left_mm
                    and each.left_mm + each.wide_mm <= sheet[0] - trim + 1e-6
                )
                self.assertTrue(
                    trim - 1e-6 <= each.bottom_mm
                    and each.bottom_mm + each.high_mm <= sheet[1] - trim + 1e-6
                )
            self.assertTrue(guillotine(list(cut.placed), kerf), cut.placed)
            self.no_cut_goes_through_a_part(cut, kerf)
        self.assertGreaterEqual(len(plan.sheets), plan.bound)

    def no_cut_goes_through_a_part(self, sheet: SheetCuts, kerf: float) -> None:
        for cut in sheet.cuts:
            for each in sheet.placed:
                low, high = (
                    (each.bottom_mm, each.bottom_mm + each.high_mm)
                    if cut.way == "rip"
                    else (each.left_mm, each.left_mm + each.wide_mm)
                )
                start, end = (
                    (each.left_mm, each.left_mm + each.wide_mm)
                    if cut.way == "rip"
                    else (each.bottom_mm, each.bottom_mm + each.high_mm)
                )
                meets = min(end, cut.to_mm) - max(start, cut.from_mm) > 1e-6
                self.assertFalse(
                    meets and low < cut.at_mm + kerf - 1e-6 and high > cut.at_mm + 1e-6, (cut, each)
                )

    def test_thirty_jobs_come_within_one_sheet_of_the_least_there_could_be(self) -> None:
        """Cabinet and shelf parts of ordinary sizes, drawn at random but the same each time."""
        dice = random.Random(7)
        for job in range(30):
            parts = [
                Item(f"p{n}", dice.uniform(150, 1100), dice.uniform(80, 560), dice.random() < 0.5)
                for n in range(dice.randrange(5, 45))
            ]
            plan = cut_sheets(parts, [Blank(*SHEET)])
            with self.subTest(job=job):
                self.sound(plan, parts, SHEET, 3.2, 5.0)
                self.assertLessEqual(len(plan.sheets), plan.bound + 1)

    @settings(max_examples=60)
    @given(
        sizes=st.lists(
            st.tuples(st.floats(20, 1200), st.floats(20, 1200), st.booleans()),
            min_size=1,
            max_size=25,
        ),
        kerf=st.floats(0, 6),
        trim=st.floats(0, 9),
    )
    def test_any_job_is_sound(
        self, sizes: list[tuple[float, float, bool]], kerf: float, trim: float
    ) -> None:
        parts = [Item(f"p{n}", *size) for n, size in enumerate(sizes)]
        self.sound(cut_sheets(parts, [Blank(*SHEET)], kerf, trim), parts, SHEET, kerf, trim)

    def test_by_hand_four_rips_of_eleven_and_three_quarters_from_a_four_foot_sheet(self) -> None:
        """Common practice.

        Four 11 3/4 in rips from a 48 in sheet, kerfs of 1/8 in between; a fifth would not fit.
        """
        rips = [Item(f"rip {n}", 2438.4, 11.75 * 25.4) for n in range(1, 5)]
        self.assertEqual(len(cut_sheets(rips, [Blank(*SHEET)], 3.175, 0.0).sheets), 1)
        self.assertEqual(
            len(
                cut_sheets(
                    [*rips, Item("rip 5", 2438.4, 11.75 * 25.4)], [Blank(*SHEET)], 3.175, 0.0
                ).sheets
            ),
            2,
        )
        self.assertEqual(
            len(
                cut_sheets(
                    [Item(str(n), 2438.4, 12 * 25.4) for n in range(4)], [Blank(*SHEET)], 3.175, 0.0
                ).sheets
            ),
            2,
        )  # the kerfs

    def test_published_cases(self) -> None:
        """No kerf, no trim.

        Hopper and Turton 2001 (EJOR 128: 34-57), C1P1, from memory: sixteen parts that fill 20 by
        20.

        The squared rectangle of Moroń (1925), 33 by 32 out of nine squares, can't be cut from edge
        to edge: it takes two.
        """
        c1p1 = [
            (2, 12),
            (7, 12),
            (8, 6),
            (3, 6),
            (3, 5),
            (5, 5),
            (3, 12),
            (3, 7),
            (5, 7),
            (2, 6),
            (3, 2),
            (4, 2),
            (3, 4),
            (4, 4),
            (9, 2),
            (11, 2),
        ]
        self.assertEqual(sum(w * h for w, h in c1p1), 400)
        parts = [Item(f"p{n}", float(w), float(h), True) for n, (w, h) in enumerate(c1p1)]
        plan = cut_sheets(parts, [Blank(20, 20)], 0.0, 0.0)
        self.sound(plan, parts, (20, 20), 0.0, 0.0)
        self.assertLessEqual(plan.cost, plan.bound + 1)
        squares = [
            Item(str(side), float(side), float(side)) for side in (18, 15, 14, 10, 9, 8, 7, 4, 1)
        ]
        self.assertEqual(sum(part.along_mm**2 for part in squares), 33 * 32)
        plan = cut_sheets(squares, [Blank(33, 32)], 0.0, 0.0)
        self.sound(plan, squares, (33, 32), 0.0, 0.0)
        self.assertEqual((plan.cost, plan.bound), (2, 1))
        moron = {
            18: (0, 14),
            15: (18, 17),
            14: (0, 0),
            10: (14, 0),
            9: (24, 0),
            8: (25, 9),
            7: (18, 10),
            4: (14, 10),
            1: (24, 9),
        }
        placed = [
            ReadingIndex(str(s), float(x), float(y), float(s), float(s), False)
            for s, (x, y) in moron.items()
        ]
        for a, b in combinations(placed, 2):
            apart = min(a.left_mm + a.wide_mm, b.left_mm + b.wide_mm) <= max(
                a.left_mm, b.left_mm
            ) or min(a.bottom_mm + a.high_mm, b.bottom_mm + b.high_mm) <= max(
                a.bottom_mm, b.bottom_mm
            )
            self.assertTrue(apart, (a, b))
        self.assertFalse(guillotine(placed, 0.0))

    def test_published_classes_come_within_one_sheet(self) -> None:
        """The six classes of Berkey and Wang 1987 (J. Oper. Res. Soc.

        38: 423-429): sizes even from 1 to m, sheets b by b, never turned.

        Their rule, from memory; the numbers drawn are our own.
        """
        for number, (most, side) in enumerate(
            ((10, 10), (10, 30), (35, 40), (35, 100), (100, 100), (100, 300)), start=1
        ):
            for count in (20, 40, 60):
                dice = random.Random(1000 * number + count)
                parts = [
                    Item(f"p{n}", float(dice.randint(1, most)), float(dice.randint(1, most)))
                    for n in range(count)
                ]
                plan = cut_sheets(parts, [Blank(side, side)], 0.0, 0.0)
                with self.subTest(number=number, count=count):
                    self.sound(plan, parts, (side, side), 0.0, 0.0)
                    self.assertLessEqual(plan.cost, plan.bound + 1)

    @settings(max_examples=60)
    @given(
        st.lists(
            st.tuples(st.integers(1, 9), st.integers(1, 9)), min_size=1, max_size=3, unique=True
        ),
        st.integers(0, 10_000),
    )
    def test_the_bound_is_no_more_than_sheets_that_are_known_to_do(
        self, splits: list[tuple[int, int]], seed: int
    ) -> None:
        """Sheets cut up at random, so that how many there were is known."""
        dice = random.Random(seed)
        pieces: list[tuple[float, float, bool]] = []
        for _ in splits:
            todo = [(10.0, 10.0)]
            while todo:
                wide, high = todo.pop()
                if dice.random() < 0.35 or min(wide, high) < 2:
                    pieces.append((wide, high, dice.random() < 0.5))
                elif dice.random() < 0.5:
                    at = dice.uniform(0.2, 0.8) * wide
                    todo += [(at, high), (wide - at, high)]
                else:
                    at = dice.uniform(0.2, 0.8) * high
                    todo += [(wide, at), (wide, high - at)]
        self.assertLessEqual(fewest(pieces, (10.0, 10.0)), len(splits))

    def test_large_parts_need_a_sheet_each_by_hand(self) -> None:
        """Five of 6 by 6 out of 10 by 10 are 1.8 sheets by area, and yet no two go on one.

        Four of 6 by 4 besides do no harm.
        """
        self.assertEqual(fewest([(6.0, 6.0, True)] * 5, (10.0, 10.0)), 5)
        self.assertEqual(fewest([(6.0, 6.0, True)] * 5 + [(6.0, 4.0, True)] * 4, (10.0, 10.0)), 5)

    def test_smaller_sheets_where_they_do_and_those_at_hand_first(self) -> None:
        whole, half = Blank(2438.4, 1219.2, 60.0), Blank(1219.2, 1219.2, 36.0)
        small = [Item("a", 600.0, 500.0), Item("b", 500.0, 500.0)]
        plan = cut_sheets(small, [whole, half])
        self.assertEqual(
            ([sheet.blank for sheet in plan.sheets], plan.cost, plan.proven), ([1], 36.0, True)
        )
        plan = cut_sheets(small, [whole, half, Blank(700.0, 600.0, 0.0, 1)])
        self.assertEqual(
            sorted((sheet.blank, len(sheet.placed)) for sheet in plan.sheets), [(1, 1), (2, 1)]
        )
        plan = cut_sheets(small, [whole, half, Blank(700.0, 600.0, 0.0, 2)])
        self.assertEqual((plan.cost, plan.proven), (0.0, True))
        with self.assertRaisesRegex(PlanError, "not enough sheets"):
            cut_sheets(small, [Blank(700.0, 600.0, 0.0, 1)])

    @settings(max_examples=60)
    @given(
        defect=st.tuples(
            st.floats(0, 2000), st.floats(0, 1000), st.floats(20, 400), st.floats(20, 200)
        ),
        sizes=st.lists(
            st.tuples(st.floats(50, 700), st.floats(50, 400), st.booleans()), min_size=1, max_size=8
        ),
    )
    def test_nothing_is_cut_out_of_bad_wood(
        self, defect: tuple[float, float, float, float], sizes: list[tuple[float, float, bool]]
    ) -> None:
        spot = Rect(*defect)
        parts = [Item(f"p{n}", *size) for n, size in enumerate(sizes)]
        plan = cut_sheets(parts, [Blank(*SHEET), Blank(*SHEET, 0.0, 1, spot)], 3.0, 6.0)
        for sheet in plan.sheets:
            bad = ReadingIndex(
                "bad", spot.left_mm, spot.bottom_mm, spot.wide_mm, spot.high_mm, False
            )
            if sheet.blank == 1:
                for each in sheet.placed:
                    beside = (
                        each.left_mm >= spot.left_mm + spot.wide_mm - 1e-6
                        or each.left_mm + each.wide_mm <= spot.left_mm + 1e-6
                    )
                    above = (
                        each.bottom_mm >= spot.bottom_mm + spot.high_mm - 1e-6
                        or each.bottom_mm + each.high_mm <= spot.bottom_mm + 1e-6
                    )
                    self.assertTrue(beside or above, (each, spot))
                self.no_cut_goes_through_a_part(sheet, 3.0)
            self.assertTrue(
                guillotine([*sheet.placed, bad] if sheet.blank == 1 else list(sheet.placed), 0.0)
            )

    def test_cuts_that_need_one_setting_follow_one_another(self) -> None:
        """Four strips of 200 and four parts off each.

        By hand a rip set once and a stop set once.
        """
        parts = [Item(f"p{n}", 500.0, 200.0) for n in range(16)]
        [sheet] = cut_sheets(parts, [Blank(2100.0, 900.0)], 3.0, 5.0).sheets
        self.assertEqual(sheet.settings, 2)
        for n, cut in enumerate(sheet.cuts):
            self.assertTrue(cut.after is None or cut.after < n)

    def test_grain_is_kept(self) -> None:
        tall = Item("door", 600.0, 1300.0)
        with self.assertRaisesRegex(PlanError, "larger than a sheet"):
            cut_sheets([tall], [Blank(*SHEET)])
        self.assertTrue(
            cut_sheets([tall._replace(turns=True)], [Blank(*SHEET)]).sheets[0].placed[0].turned
        )

    def test_refusals(self) -> None:
        for parts, kerf, said in (
            ([Item("a", 3000, 100)], 3.0, "larger"),
            ([Item("a", 0, 100)], 3.0, "a size"),
            ([Item("a", 10, 10)], -1.0, "saw"),
            ([Item(str(n), 10, 10) for n in range(501)], 3.0, "More than"),
        ):
            with self.assertRaisesRegex(PlanError, said):
                cut_sheets(parts, [Blank(*SHEET)], kerf)
        for blanks, said in (
            ([], "no sheet"),
            ([Blank(*SHEET, -1.0)], "be negative"),
            ([Blank(9, 9)], "no sheet"),
        ):
            with self.assertRaisesRegex(PlanError, said):
                cut_sheets([Item("a", 10, 10)], blanks)


class AWall(SimpleTestCase):
    def test_every_part_is_cut_once_bought_or_told(self) -> None:
        for kind in KINDS:
            piece = put_up(kind, wall(), things=(Thing(name="Load", mass_kg=3.0),))
            now = plan(piece)
            parts, bought = parts_of(now)
            made = cut_plan(now)
            with self.subTest(kind=kind):
                cut = [
                    part.label
                    for job in made.boards
                    for _, here in job.layout
                    for part, _, _ in here
                ]
                cut += [
                    each.label
                    for job in made.sheets
                    for sheet in job.plan.sheets
                    for each in sheet.placed
                ]
                strips = [label for whole in made.made_up for label in glued(whole).labels]
                self.assertEqual(sorted(label for label in cut if label in strips), sorted(strips))
                cut = [label for label in cut if label not in strips]
                self.assertEqual(
                    sorted(cut + [part.label for part in (*made.made_up, *made.no_stock)]),
                    sorted(part.label for part in parts),
                )
                self.assertEqual(len({part.label for part in parts}), len(parts))
                self.assertEqual(dict(made.bought), bought)
                for job in made.boards:
                    for stock, here in job.layout:
                        for part, start, end in here:
                            self.assertAlmostEqual(end - start, part.length_mm, places=6)
                            self.assertLessEqual(part.width_mm, job.stock[stock].width_mm + 0.5)

    def test_a_shelf_of_one_by_twelve_by_hand(self) -> None:
        """Two shelves of 44 in out of 1x12.

        On one board of 8 ft, 88 1/8 of 95 1/2 in; it costs less than two of 6 ft.
        """
        shelf = bracket_shelf(
            length_mm=44 * 25.4,
            depth_mm=11.25 * 25.4,
            thickness_mm=19.05,
            supports_mm=(100.0, 900.0),
        )
        made = cut_plan(plan(shelf, replace(shelf, key="other", top_mm=700.0)))
        [job] = made.boards
        self.assertEqual(
            [job.stock[stock].name for stock, _ in job.layout], ["1x12, 8 ft, red oak"]
        )
        self.assertEqual([part.label for part, _, _ in job.layout[0][1]], ["1a", "2a"])
        self.assertEqual(
            [(part.of, many) for part, many in made.bought],
            [("braced steel bracket, 10 × 12 in (250 × 300 mm)", 4)],
        )

    def test_a_board_at_hand_with_a_knot_gives_what_lies_beside_it(self) -> None:
        """By hand: 2 400 long, bad from 1 000 to 1 200, trimmed by 6.

        988 before it and 1 188 after; 1 100 comes out of the second.
        """
        knotty = OnHand(
            name="old oak",
            board="oak_red",
            kind="board",
            length_mm=2400.0,
            width_mm=260.0,
            thickness_mm=20.0,
            defects=(Defect(from_mm=1000.0, to_mm=1200.0),),
        )
        shelf = bracket_shelf(length_mm=1100.0)
        now = replace(plan(shelf), shop=Shop(on_hand=(knotty,)))
        [job] = cut_plan(now).boards
        [(stock, [(part, start, end)])] = job.layout
        source = job.stock[stock]
        self.assertEqual(
            (source.hand, source.from_mm, source.length_mm, source.price), (0, 1200.0, 1200.0, 0.0)
        )
        self.assertAlmostEqual(end - start, part.cut_mm[0], places=6)
        self.assertEqual((dict(cut_plan(now).at_hand), cut_plan(now).cost), ({0: 1}, 0.0))
        wood = [
            line for line in shopping(now, cut_plan(now), "metric").lines if line.aisle == "wood"
        ]
        self.assertEqual(wood, [])
        two = replace(now, pieces=(shelf, replace(shelf, key="two", top_mm=900.0)))
        self.assertGreater(cut_plan(two).cost, 0.0)

    def test_what_is_sold_nowhere_comes_out_of_what_is_at_hand(self) -> None:
        mantel = put_up("rod_beam", wall(), things=(Thing(name="Clock", mass_kg=3.0),))
        beam = OnHand(
            name="barn beam",
            board=mantel.board,
            kind="board",
            length_mm=3000.0,
            width_mm=mantel.depth_mm + 5,
            thickness_mm=mantel.thickness_mm,
        )
        now = replace(plan(mantel), shop=Shop(on_hand=(beam,)))
        self.assertEqual((cut_plan(now).no_stock, dict(cut_plan(now).at_hand)), ((), {0: 1}))
        other = replace(
            now,
            pieces=(
                mantel,
                replace(mantel, key="two", top_mm=600.0),
                replace(mantel, key="three", top_mm=1900.0),
            ),
        )
        self.assertEqual(
            len(cut_plan(other).no_stock), 3
        )  # one beam is too short for all three, and for none it is told

    def test_offcuts_worth_keeping_are_what_is_left(self) -> None:
        """By hand: 1 000 off a board of 6 ft, trimmed by 6 at both ends and a kerf of 3.2.

        1 828.8 - 1 015.2 = 813.6 left.
        """
        shelf = bracket_shelf(length_mm=1000.0, depth_mm=184.15, thickness_mm=19.05)
        [left] = cut_plan(plan(shelf)).offcuts
        self.assertAlmostEqual(left.length_mm, 813.6, places=1)
        self.assertEqual((left.width_mm, left.board), (184.2, "oak_red"))

    def test_the_persons_own_parts_and_prices(self) -> None:
        own = OwnPart(
            name="Drawer bottom",
            board="plywood",
            length_mm=500.0,
            width_mm=400.0,
            thickness_mm=12.0,
            many=3,
        )
        now = replace(
            plan(bracket_shelf()),
            shop=Shop(
                own=(own,),
                prices=(Price(of="stock:plywood_12_metric_half", each=20.0),),
                ready=200.0,
            ),
        )
        made = cut_plan(now)
        self.assertEqual([part.label for part in made.parts if not part.key], ["xa", "xb", "xc"])
        buying = shopping(now, made, "metric")
        [sheet] = [line for line in buying.lines if line.key == "stock:plywood_12_metric_half"]
        self.assertEqual((sheet.each, sheet.mine), (20.0, True))
        self.assertAlmostEqual(
            buying.saves or 0.0, 200.0 - sum(line.cost for line in buying.lines), places=9
        )
        for nonsense in ({"of": "x", "each": -1.0}, {"of": "x", "each": float("nan")}):
            with self.assertRaises(PlanError):
                Price(**nonsense)
        with self.assertRaisesRegex(PlanError, "More than 400 parts"):
            Shop(own=(replace(own, many=399), replace(own, many=2)))

    def test_seventy_screws_are_not_seven_packs_of_ten(self) -> None:
        """House rule, by hand.

        Seven packs of ten trouble like 21 screws, three of 25 like 5 + 9, one of 100 like 30 + 3.
        """
        self.assertEqual(_pack(70, (10, 25, 50, 100, 250), 3.0), (25, 3))

    def test_fasteners_come_in_packs_with_the_fewest_left_over(self) -> None:
        """By hand.

        Two brackets of four holes are 8 screws, one pack of 10, 2 to spare; a panel's battens take
        theirs besides.
        """
        now = plan(bracket_shelf())
        lines = {line.what: line for line in shopping(now, cut_plan(now), "metric").lines}
        screws = lines["4.8 mm (#10) wood screw, 76 mm"]
        self.assertEqual((screws.needed, screws.pack, screws.packs, screws.spare), (8, 10, 1, 2))
        self.assertEqual(lines["braced steel bracket, 250 × 300 mm (10 × 12 in)"].needed, 2)
        panel = plan(put_up("panel", wall(), things=(Thing(name="Keys", mass_kg=2.0),)))
        lines = {line.what: line for line in shopping(panel, cut_plan(panel), "metric").lines}
        self.assertEqual(lines["4 mm wood screw, 35 mm"].needed, 12)
        anchored = plan(bracket_shelf(anchor="plug_8"), structure="concrete", studs=())
        plugs = next(
            line
            for line in shopping(anchored, cut_plan(anchored), "metric").lines
            if "plug" in line.what and line.aisle == "fasteners"
        )
        self.assertEqual((plugs.needed, plugs.pack * plugs.packs), (8, 10))

    def test_what_is_not_sold_is_told(self) -> None:
        hall = replace(wall(), width_mm=9000.0)
        mantel = replace(put_up("rod_beam", hall), left_mm=500.0, length_mm=7000.0)
        cut = cut_plan(replace(plan(), wall=hall, pieces=(mantel,)))
        self.assertEqual([part.name for part in cut.no_stock], ["board"])
