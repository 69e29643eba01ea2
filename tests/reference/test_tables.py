"""Every printed value of `tables` against ours, and their tally in the handbook."""

from pathlib import Path

from django.test import SimpleTestCase

from tests.reference.tables import tables, tally

HANDBOOK = Path(__file__).resolve().parents[2] / "docs/handbook/outside.md"


class Printed(SimpleTestCase):
    def test_ours_is_as_printed(self) -> None:
        for table in tables():
            for given, printed, ours in table.values:
                with self.subTest(table=f"{table.source}, {table.clause}", given=given):
                    self.assertAlmostEqual(
                        ours, printed, delta=table.within * (abs(printed) if table.share else 1.0)
                    )

    def test_the_handbook_keeps_the_tally_and_there_are_three_hundred(self) -> None:
        self.assertEqual(HANDBOOK.read_text(), tally() + "\n")
        self.assertGreaterEqual(sum(len(table.values) for table in tables()), 300)
