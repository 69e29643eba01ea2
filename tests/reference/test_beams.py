"""The continuous beam against printed formulas and a frame library (PyNiteFEA, MIT licence)."""

import random

from django.test import SimpleTestCase
from Pynite import FEModel3D

from trade.mechanics import beam
from trade.mechanics.beam import Load

EI = 8.0e9  # N mm2


class PrintedFormulas(SimpleTestCase):
    """AISC Steel Construction Manual Table 3-23 (beam diagrams and formulas).

    Sampled sags within 0.3 %.
    """

    def test_simple_span_under_line_load(self) -> None:
        """Case 1: M = w l^2 / 8, sag 5 w l^4 / (384 E I)."""
        b = beam.solve(900.0, (0.0, 900.0), EI, [Load(450.0, 0, 900)])
        self.assertAlmostEqual(b.moments_nmm.max(), 0.5 * 900**2 / 8, places=3)
        self.assertAlmostEqual(b.sags_mm.max() / (5 * 0.5 * 900**4 / (384 * EI)), 1.0, places=6)

    def test_simple_span_under_a_point(self) -> None:
        """Case 7: P l^3 / (48 E I)."""
        b = beam.solve(900.0, (0.0, 900.0), EI, [Load(100.0, 450, 450)])
        self.assertAlmostEqual(b.sags_mm.max() / (100 * 900**3 / (48 * EI)), 1.0, places=6)

    def test_point_on_an_overhang(self) -> None:
        """Case 26.

        Sag at the tip P a^2 (l + a) / (3 E I), moment P a over the support, far support lifts by P
        a / l.
        """
        b = beam.solve(1000.0, (0.0, 800.0), EI, [Load(100.0, 1000, 1000)])
        self.assertAlmostEqual(b.sags_mm[-1, 0] / (100 * 200**2 * 1000 / (3 * EI)), 1.0, places=6)
        self.assertAlmostEqual(b.moments_nmm.min(), -100 * 200, places=3)
        self.assertAlmostEqual(b.reactions_n[0, 0], -25.0, places=6)

    def test_equal_spans_share_as_the_tables_say(self) -> None:
        """Two spans 3/16, 5/8, 3/16 of the whole.

        Three 0.4, 1.1, 1.1, 0.4 and four 0.393, 1.143, 0.928 of w l.
        """
        two = beam.solve(1000.0, (0.0, 500.0, 1000.0), EI, [Load(1000.0, 0, 1000)]).reactions_n[
            :, 0
        ]
        three = beam.solve(
            1500.0, (0.0, 500.0, 1000.0, 1500.0), EI, [Load(1500.0, 0, 1500)]
        ).reactions_n[:, 0]
        four = beam.solve(
            2000.0, (0.0, 500.0, 1000.0, 1500.0, 2000.0), EI, [Load(2000.0, 0, 2000)]
        ).reactions_n[:, 0]
        for ours, printed in (
            (two / 1000, (3 / 16, 5 / 8, 3 / 16)),
            (three / 500, (0.4, 1.1, 1.1, 0.4)),
        ):
            for a, b in zip(ours, printed, strict=True):
                self.assertAlmostEqual(a, b, places=6)
        for a, b in zip(four / 500, (0.393, 1.143, 0.928, 1.143, 0.393), strict=True):
            self.assertAlmostEqual(a, b, delta=0.0006)

    def test_two_equal_spans_sag_by_the_table(self) -> None:
        """w l^4 / (185 E I), printed rounded; sampled."""
        b = beam.solve(1000.0, (0.0, 500.0, 1000.0), EI, [Load(1000.0, 0, 1000)])
        self.assertAlmostEqual(b.sags_mm.max() / (1.0 * 500**4 / (185 * EI)), 1.0, delta=0.004)


class AgainstAFrameLibrary(SimpleTestCase):
    def test_fourteen_random_shelves(self) -> None:
        draw = random.Random(20261125)
        for n in range(14):
            length = draw.uniform(500, 2600)
            count = draw.choice((2, 2, 3, 4, 5))
            supports = tuple(
                sorted(length * (i + draw.uniform(0.15, 0.85)) / count for i in range(count))
            )
            loads = [Load(draw.uniform(20, 400), 0.0, length)]
            loads += [
                Load(draw.uniform(5, 200), x, x)
                for x in (draw.uniform(0, length) for _ in range(draw.randint(1, 3)))
            ]
            start = draw.uniform(0, length * 0.5)
            loads.append(Load(draw.uniform(10, 200), start, draw.uniform(start + 50, length)))
            with self.subTest(shelf=n, supports=count):
                self._compare(length, supports, loads)

    def _compare(self, length: float, supports: tuple[float, ...], loads: list[Load]) -> None:
        ours = beam.solve(length, supports, EI, loads)
        model = FEModel3D()
        model.add_material("board", 10_000.0, 4_000.0, 0.3, 1e-9)
        model.add_section("section", 1e4, EI / 10_000, EI / 10_000, 1e6)
        places = sorted({0.0, length, *supports})
        for i, x in enumerate(places):
            model.add_node(f"n{i}", x, 0, 0)
            model.def_support(f"n{i}", i == 0, x in supports, True, True, True, False)
        model.add_member("shelf", "n0", f"n{len(places) - 1}", "board", "section")
        for load in loads:
            if load.end_mm > load.start_mm:
                w = load.total_n / (load.end_mm - load.start_mm)
                model.add_member_dist_load("shelf", "FY", -w, -w, load.start_mm, load.end_mm)
            else:
                model.add_member_pt_load("shelf", "FY", -load.total_n, load.start_mm)
        model.analyze(check_statics=False)
        total = sum(load.total_n for load in loads)
        for i, x in enumerate(supports):
            theirs = model.nodes[f"n{places.index(x)}"].RxnFY["Combo 1"]
            self.assertAlmostEqual(ours.reactions_n[i].sum(), theirs, delta=1e-4 * total)
        sags = ours.sags_mm.sum(axis=1)
        scale = abs(sags).max()
        for at in range(0, len(sags), 7):
            theirs = -model.members["shelf"].deflection("dy", float(ours.places_mm[at]), "Combo 1")
            self.assertAlmostEqual(sags[at], theirs, delta=2e-3 * scale)
