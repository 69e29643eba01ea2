"""Hardwood by board measure, by hand."""

from django.test import SimpleTestCase

from trade import data
from trade.cutting.board_measure import board_measures
from trade.cutting.parts import CutPart
from trade.measure import IN_MM, Units


def part(board: str, length: float, width: float, thick: float, round: bool = False) -> CutPart:
    return CutPart("1a", "Shelf", "board", board, length, width, thick, round=round)


class ByHand(SimpleTestCase):
    def feet(self, *parts: tuple[float, float, float]) -> dict[str, float]:
        cut = [part("oak_red", *(size * IN_MM for size in each)) for each in parts]
        return {each.row.name: round(each.net, 4) for each in board_measures(cut, "imperial")}

    def test_board_feet(self) -> None:
        """Width and thickness in inches, length in feet: T x W x L / 12, by the sawn thickness.

        The handbooks' examples: 1 x 6 in of 8 ft is 4, 2 x 4 in of 12 ft is 8; from memory.
        """
        self.assertEqual(self.feet((96, 6, 0.75)), {"4/4": 4.0})
        self.assertEqual(self.feet((144, 4, 1.75)), {"8/4": 8.0})
        self.assertEqual(self.feet((48, 10, 1.0), (48, 10, 1.0)), {"5/4": 8.3333})

    def test_the_least_that_it_is_planed_out_of(self) -> None:
        for thick, named in ((13 / 16, "4/4"), (7 / 8, "5/4"), (1.25, "6/4"), (2.5, "12/4")):
            self.assertEqual(list(self.feet((12, 12, thick))), [named])
        self.assertEqual(self.feet((12, 12, 4.0)), {})

    def test_what_is_glued_up_counts_once(self) -> None:
        """Its boards where it is sawn in no such thickness, else itself."""
        for thick, layers, named in ((100.0, 5, "4/4"), (38.0, 2, "8/4")):
            beam = part("oak_red", 1000, 100, thick)._replace(label="2a")
            boards = [
                part("oak_red", 1000, 100, thick / layers)._replace(label=f"2a{n}", of="2a")
                for n in range(layers)
            ]
            [found] = board_measures([*boards, beam], "imperial")
            many = layers if named == "4/4" else 1
            feet = many * 1000 * 100 * found.row.thick_mm / (144 * IN_MM**3)
            self.assertEqual((found.row.name, round(found.net, 6)), (named, round(feet, 6)))

    def test_cubic_metres(self) -> None:
        """2 000 × 200 mm of 26 mm is 0.0104 m³; a quarter more is asked for."""
        [found] = board_measures([part("walnut", 2000, 200, 20)], "metric")
        self.assertEqual((found.row.name, round(found.net, 6)), ("26 mm", 0.0104))
        self.assertAlmostEqual(found.ask, 0.013)

    def test_neither_sheets_nor_softwood_nor_dowels(self) -> None:
        parts = [part("plywood", 1000, 300, 18), part("pine_white", 1000, 300, 19)]
        parts.append(part("maple", 1000, 30, 30, round=True))
        self.assertEqual(board_measures(parts, "imperial"), ())

    def test_thicknesses_rise(self) -> None:
        systems: tuple[Units, ...] = ("imperial", "metric")
        for units in systems:
            rows = [row for row in data.rough().values() if row.system == units]
            self.assertEqual(rows, sorted(rows, key=lambda row: row.planes_to_mm))
            self.assertTrue(all(row.planes_to_mm < row.thick_mm for row in rows))
