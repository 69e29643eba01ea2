"""Published values for screws in sheet steel and anchors in concrete.

Sheet steel: the table of screw capacities that stud makers print after AISI S100 (allowable, Omega
= 3.0, F_u = 45 ksi, design thickness of 33 mil 0.0346 in and 43 mil 0.0451 in), rounded to a pound;
from memory. Concrete: ACI 318-19, and values worked out in the Notes on ACI 318 of the Portland
Cement Association, chapter 34; from memory.
"""

from collections.abc import Callable
from math import sqrt

from django.test import SimpleTestCase
from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation
from trade.fixings import concrete, sheet_steel
from trade.fixings.in_concrete import american, european
from trade.fixings.substrate import Substrate
from trade.measure import LBF_N, PSI_MPA
from trade.mechanics.steel import solid_bending_mpa

_INCH = 25.4
School = Callable[[data.Anchor, Substrate], tuple[Calculation, Calculation]]
SITE = Substrate("concrete", False, 0.0, (1e6, 1e6), 1e6)
# (design thickness in, screw diameter in, shear lb, pull-out lb)
SCREWS = [
    (0.0346, 0.138, 151, 61),
    (0.0346, 0.164, 164, 72),
    (0.0346, 0.190, 177, 84),
    (0.0346, 0.216, 188, 95),
    (0.0451, 0.138, 224, 79),
    (0.0451, 0.164, 244, 94),
    (0.0451, 0.190, 263, 109),
    (0.0451, 0.216, 280, 124),
]


class SheetSteel(SimpleTestCase):
    def test_the_printed_table(self) -> None:
        fu = 45_000 * PSI_MPA
        for t, d, shear, pull in SCREWS:
            with self.subTest(t=t, d=d):
                sheet, screw = t * _INCH, d * _INCH
                least = min(
                    sheet_steel.tilting_n(sheet, screw, fu), sheet_steel.bearing_n(sheet, screw, fu)
                )
                self.assertAlmostEqual(least / 3 / LBF_N, shear, delta=0.7)
                self.assertAlmostEqual(
                    sheet_steel.pull_out_n(sheet, screw, fu) / 3 / LBF_N, pull, delta=0.7
                )

    def test_a_thick_sheet_is_torn_beside_the_screw(self) -> None:
        """J4.3.1, bearing: 2.7 t d F_u = 2.7 · 2 · 4 · 300."""
        self.assertAlmostEqual(sheet_steel.bearing_n(2.0, 4.0, 300.0), 6_480)


class SolidBars(SimpleTestCase):
    """AISC 360 F11.

    M_n = F_y Z, at most 1.6 F_y S (1.5 for rectangles), over 1.67; Z and S integrated from the
    section itself.
    """

    def integrated(self, wide: Callable[[float], float], high: float) -> tuple[float, float]:
        """Z = ∫ |y| dA and S = 2 ∫ y² dA / h, by the midpoint rule."""
        n = 20_000
        ys = [(k + 0.5) / n * high - high / 2 for k in range(n)]
        step = high / n
        return sum(abs(y) * wide(y) for y in ys) * step, sum(y * y * wide(y) for y in ys) * step / (
            high / 2
        )

    def test_rounds_and_rectangles(self) -> None:
        for shape, wide, most in (
            ("round", lambda y: 2 * sqrt(max(8.0**2 - y * y, 0.0)), 1.6),
            ("rectangle", lambda y: 40.0, 1.5),
        ):
            z, s = self.integrated(wide, 16.0)
            moment = min(z, most * s) * 235 / 1.67
            self.assertAlmostEqual(solid_bending_mpa(235, shape) * s / moment, 1.0, places=5)  # type: ignore[arg-type]

    def test_what_the_tables_may_be_bent_with(self) -> None:
        self.assertAlmostEqual(solid_bending_mpa(235, "round"), 225.1, delta=0.1)
        self.assertAlmostEqual(
            data.brackets()["bar"].allowable_mpa, solid_bending_mpa(235, "rectangle"), delta=0.5
        )


class Concrete(SimpleTestCase):
    def test_basic_breakout(self) -> None:
        """24 √4000 × 4^1.5 = 12 143 lb (cast in); 17 √2500 × 2^1.5 = 2 404 lb (post-installed)."""
        self.assertAlmostEqual(
            concrete.basic_breakout_n(4 * _INCH, 4000 * PSI_MPA, 24) / LBF_N, 12_143, delta=1
        )
        self.assertAlmostEqual(
            concrete.basic_breakout_n(2 * _INCH, 2500 * PSI_MPA) / LBF_N, 2_404, delta=1
        )

    def test_the_metric_edition_agrees(self) -> None:
        """ACI 318M-19 rounds k_c to 7 and 10 (N, mm, MPa)."""
        for published, metric, off in ((17, 7, 0.15), (24, 10, 0.1)):
            self.assertAlmostEqual(concrete.basic_breakout_n(1, 1, published), metric, delta=off)

    def test_a_group_is_the_sum_of_its_anchors_areas(self) -> None:
        """Two anchors s apart, no edge: A_Nc = (3 h + s)(3 h), 17.6.2.1.1."""
        for h, s in ((40.0, 30.0), (40.0, 100.0), (60.0, 180.0)):
            ours = 2 * concrete.area_share(h, (1e6, 1e6, 1e6, s / 2))
            self.assertAlmostEqual(ours, (3 * h + s) * 3 * h / (9 * h**2))

    def test_edge_factor(self) -> None:
        """17.6.2.4.1: 0.7 at the edge, 0.85 at 0.75 h, 1.0 from 1.5 h."""
        self.assertEqual(
            [round(concrete.edge_factor(40, c), 9) for c in (0, 30, 60, 90)], [0.7, 0.85, 1.0, 1.0]
        )

    def test_shear_breakout_along_an_edge(self) -> None:
        """7 (l_e/d)^0.2 √d √f'c c^1.5 in pounds.

        D = 1/2, l_e = 4 in, f'c = 4 000 psi, c = 6 in; twice, along the edge.
        """
        expected = 2 * min(7 * (4 / 0.5) ** 0.2 * sqrt(0.5), 9) * sqrt(4000) * 6**1.5
        self.assertAlmostEqual(
            concrete.shear_breakout_n(6 * _INCH, 0.5 * _INCH, 4 * _INCH, 4000 * PSI_MPA) / LBF_N,
            expected,
            delta=1,
        )

    def test_pry_out_doubles_from_two_and_a_half_inches(self) -> None:
        self.assertEqual((concrete.pry_out_factor(63), concrete.pry_out_factor(64)), (1.0, 2.0))


class ConcreteByTheOtherSchool(SimpleTestCase):
    def test_cone(self) -> None:
        """EN 1992-4 (7.2): h_ef = 80, C20/25: 7.7 √20 · 80^1.5 = 24 640 N = 24.6 kN."""
        self.assertAlmostEqual(concrete.cone_n(80, 20) / 1000, 24.64, delta=0.01)

    def test_edge(self) -> None:
        """(7.41): d = 12, l_f = 80, c_1 = 100, f_ck = 20: α = 0.0894, β = 0.0654.

        1.7 · 1.249 · 1.332 · 4.472 · 1 000 = 12.65 kN.
        """
        self.assertAlmostEqual(concrete.edge_n(100, 12, 80, 20) / 1000, 12.65, delta=0.01)

    def test_both_schools_are_near_each_other(self) -> None:
        """Cones for the same cracked concrete: 7.7 on f_ck of cylinders against 7.1 on f'c.

        8 % apart.
        """
        self.assertAlmostEqual(
            concrete.cone_n(60, 20) / concrete.basic_breakout_n(60, 20), 7.7 / 7.114, delta=0.001
        )


class AnchorSteel(SimpleTestCase):
    """The anchor's own steel, by hand: core 0.8 times 8 mm, 32.17 mm², at 500 MPa 16 085 N."""

    def test_by_aci_318(self) -> None:
        """17.6.1, 17.7.1, Table 17.5.3(a) for brittle steel.

        0.65 N_sa / 1.6 = 6 535 N, 0.60 × 0.6 N_sa / 1.6 = 3 619 N.
        """
        pull, shear = american(data.anchors()["expansion_10"], SITE)
        self.assertAlmostEqual(pull.quantity("T_sa").value, 6_535, delta=5)
        self.assertAlmostEqual(shear.quantity("V_sa").value, 3_619, delta=5)

    def test_by_en_1992_4(self) -> None:
        """Table 4.1 and 7.2.2.3: N_Rk,s / 1.5 / 1.5 = 7 149 N, 0.6 of it 4 289 N."""
        pull, shear = european(data.anchors()["expansion_10"], SITE)
        self.assertAlmostEqual(pull.quantity("T_s").value, 7_149, delta=5)
        self.assertAlmostEqual(shear.quantity("V_s").value, 4_289, delta=5)

    def test_prying_out_by_en_1992_4(self) -> None:
        """7.2.2.4: k_8 = 1 below h_ef = 60 mm, 2 from there, times the cone's resistance."""
        for depth, k_8 in ((55, 1.0), (120, 2.0)):
            anchor = replace(data.anchors()["expansion_10"], depth_mm=depth)
            pull, shear = european(anchor, SITE)
            cone = pull.quantity("T_c").value
            self.assertAlmostEqual(shear.quantity("V_cp").value, k_8 * cone)


class WholeAnchors(SimpleTestCase):
    """Two anchors of 8 mm in concrete of 17.2 MPa, all of the sum by hand.

    Expansion: 55 deep, 0.75 of it effective, 41.25 mm; pulls out at 0.6 of its breakout (house
    rule). Resin: 80 deep; bond 300 psi · π · 8 · 80 = 4 159 N, 0.4 · 0.55 of it for good. Far from
    every edge, then 30 mm from one: the cone is (30 + 61.875) · 123.75 / 9 · 41.25² = 0.742 of a
    lone one, disturbed 0.7 + 0.3 · 30 / 61.875 = 0.845.
    """

    def held(self, school: School, key: str, edge_mm: float = 1e6) -> tuple[float, float]:
        pull, shear = school(data.anchors()[key], SITE._replace(edge_mm=edge_mm))
        return pull["T_a"], shear["V_a"]

    def test_by_aci_318(self) -> None:
        """17 √2 495 · 1.624^1.5 = 1 757 lb, 7 817 N: 0.6 · 0.65 / 1.6 and 0.70 / 1.6 of it.

        At the edge 0.742 · 0.845 of that; along it 2 · 7 · 5.156^0.2 · √0.315 · √2 495 · 1.181^1.5
        = 699 lb, 3 110 N, times 0.70 / 1.6. Resin: 0.65 · 0.22 · 4 159 / 1.6; steel in shear.
        """
        pull, shear = self.held(american, "expansion_10")
        self.assertAlmostEqual(pull, 1_905, delta=2)
        self.assertAlmostEqual(shear, 3_420, delta=3)
        pull, shear = self.held(american, "expansion_10", 30.0)
        self.assertAlmostEqual(pull, 1_905 * 0.7424 * 0.8455, delta=2)
        self.assertAlmostEqual(shear, 1_361, delta=2)
        pull, shear = self.held(american, "resin_8")
        self.assertAlmostEqual(pull, 371.7, delta=0.2)
        self.assertAlmostEqual(shear, 3_619, delta=5)

    def test_by_en_1992_4(self) -> None:
        """7.7 √17.2 · 41.25^1.5 = 8 460 N over 1.8 · 1.5; 0.6 of it pulling out.

        Along an edge α = 0.1173, β = 0.0768: 1.7 · 8^α · 41.25^β · √17.2 · 30^1.5 = 1 967 N, twice
        it over 2.7. Resin: 0.22 · 4 159 / 2.7; steel 4 289.
        """
        pull, shear = self.held(european, "expansion_10")
        self.assertAlmostEqual(pull, 1_880, delta=2)
        self.assertAlmostEqual(shear, 3_133, delta=3)
        pull, shear = self.held(european, "expansion_10", 30.0)
        self.assertAlmostEqual(pull, 1_880 * 0.7424 * 0.8455, delta=2)
        self.assertAlmostEqual(shear, 1_457, delta=2)
        pull, shear = self.held(european, "resin_8")
        self.assertAlmostEqual(pull, 338.9, delta=0.2)
        self.assertAlmostEqual(shear, 4_289, delta=5)


class PressedBrackets(SimpleTestCase):
    def test_a_ribbed_corner_is_a_channel(self) -> None:
        """Two webs under a flange, by the parallel axis theorem.

        A ȳ, then I about it, S to the far edge of the webs. Thin all over: web h / t of 8 and 9 and
        flange b / t of 14.7 and 14 are under the limits of AISI S100-16 Appendix 1 for full width.
        """
        for key, wide, rib, t in (
            ("pressed_small", 22.0, 12.0, 1.5),
            ("pressed_large", 28.0, 18.0, 2.0),
        ):
            parts = [
                (wide * t, t / 2, wide * t**3 / 12),
                (2 * rib * t, t + rib / 2, 2 * t * rib**3 / 12),
            ]
            middle = sum(area * y for area, y, _ in parts) / sum(area for area, _, _ in parts)
            inertia = sum(own + area * (y - middle) ** 2 for area, y, own in parts)
            row = data.brackets()[key]
            self.assertAlmostEqual(row.inertia_mm4, inertia, delta=0.01 * inertia)
            self.assertAlmostEqual(
                row.section_mm3, inertia / (t + rib - middle), delta=0.01 * row.section_mm3
            )
            self.assertAlmostEqual(row.allowable_mpa, 220 / 1.67, delta=0.5)
