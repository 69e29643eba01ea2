"""Sums that are evaluated as they are printed: the notation, and every sum of every kind."""

from math import inf
from typing import Any

import pint
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.trade.test_every_kind import hung
from trade.assess import assess_piece
from trade.calculation import Calculation, Equation, Formula, Kind
from trade.check import Check
from trade.errors import TradeError
from trade.plan.model import AnyPiece, Wall

UNIT = pint.UnitRegistry()
UNITS = {
    "inch": UNIT.inch,
    "lb": UNIT.force_pound,
    "psi": UNIT.force_pound / UNIT.inch**2,
    "mm": UNIT.mm,
    "N": UNIT.newton,
    "MPa": UNIT.megapascal,
}
KINDS: dict[Kind, Any] = {
    "force": UNIT.newton,
    "pull": UNIT.newton,
    "stress": UNIT.megapascal,
    "length": UNIT.mm,
    "fine": UNIT.mm,
    "moment": UNIT.newton * UNIT.mm,
    "line": UNIT.newton / UNIT.mm,
    "area": UNIT.mm**2,
    "section": UNIT.mm**3,
    "inertia": UNIT.mm**4,
    "rigidity": UNIT.newton * UNIT.mm**2,
    "turning": UNIT.newton * UNIT.mm,
    "mass": UNIT.kg,
    "ratio": UNIT.dimensionless,
    "percent": UNIT.dimensionless,
    "count": UNIT.dimensionless,
    "density": UNIT.dimensionless,  # standards take the bare number of kg/m³
}


EXTRAS: dict[str, Any] = {
    "loose_shelves": 4,
    "below_mm": 60.0,
    "locked": True,
    "hook_kg": 3.0,
    "hook_ultimate": True,
    "strap_kg": 40.0,
    "strap_ultimate": True,
    "tilted": True,
    "screw": "lag_5_16",
}


@st.composite
def with_extras(draw: st.DrawFn) -> tuple[AnyPiece, Wall]:
    """A piece on a wall, some of it as it seldom is, so that every sum is asked for."""
    piece, on = draw(hung())
    chosen = [key for key in EXTRAS if hasattr(piece, key) and draw(st.booleans())]
    return replace(piece, **{key: EXTRAS[key] for key in chosen}), on


class Notation(SimpleTestCase):
    def test_it_is_read_as_on_paper(self) -> None:
        given = {"a": 2.0, "b": 3.0, "l": 4.0, "E": 5.0, "I": 6.0, "Z'": 7.0, "F_em": 8.0, "γ": 9.0}
        for text, value in (
            ("2a + b", 7),
            ("a b / E I", 6 / 30),
            ("a / b × E", 10 / 3),
            ("a − b − E", -6),
            ("−a b", -6),
            ("5 a l³ / 384 E I", 5 * 2 * 64 / (384 * 30)),
            ("√(a b) l", 6**0.5 * 4),
            ("a^1.5 b^−0.5", 2**1.5 / 3**0.5),
            ("(a + b)²", 25),
            ("min(Z', F_em, γ) a", 14),
            ("max(a / b, b / a)", 1.5),
            ("tan(45 π / 180)", 1),
        ):
            self.assertAlmostEqual(Formula(text).of(given), value, msg=text)

    def test_published_units_stand_in_it(self) -> None:
        """A #10 screw in spruce-pine-fir: 2850 · 0.42² · 0.190 = 95.5 lb/in."""
        pounds = Formula("2850 G² (D/in) lb/in")(G=0.42, D=0.19 * 25.4) / 4.4482216 * 25.4
        self.assertAlmostEqual(pounds, 95.5, delta=0.05)

    def test_what_is_no_formula_is_refused(self) -> None:
        for text in ("a +", "a $ b", "(a", "min a", "a b)", "× a"):
            with self.assertRaises(TradeError, msg=text):
                Formula(text).of({"a": 1.0, "b": 1.0})
        with self.assertRaises(KeyError):
            Calculation().then("x", "y", "ratio")


class EverySum(SimpleTestCase):
    @settings(max_examples=150)
    @given(with_extras())
    def test_it_is_whole_and_its_units_fit(self, found: tuple[AnyPiece, Wall]) -> None:
        """Every line follows from those above it, in its own units, and ends in what is judged.

        The units by a library for quantities, which reads the same text.
        """
        for check in assess_piece(*found).checks:
            if not check.equations:
                continue
            known: dict[str, Any] = {}
            for line in check.equations:
                self.assertNotIn(line.symbol, known, (check.code, "means two things"))
                known[line.symbol] = line.value * KINDS[line.kind]
                if line.expression:
                    self.follows(check, line, known)
            self.assertIn(check.demand.value, check.values.values(), check.code)
            if check.capacity.value != 1:
                self.assertIn(check.capacity.value, check.values.values(), check.code)

    def follows(self, check: Check, line: Equation, known: dict[str, Any]) -> None:
        value = Formula(line.expression).by(UNITS)(known)
        where = (check.code, line.symbol, line.expression, str(value))
        if isinstance(value, (float, int)):  # a nought that `max` chose is one of any unit
            value = UNIT.Quantity(value) if value else 0 * KINDS[line.kind]
        off = abs((value / KINDS[line.kind]).to("dimensionless").magnitude - line.value)
        self.assertLessEqual(off, 1e-9 * max(abs(line.value), 1e-6), where)
        self.assertLess(abs(line.value), inf, where)
