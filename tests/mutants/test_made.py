"""The list of changes is true of the core as it is."""

from django.test import SimpleTestCase

from tests.mutants.__main__ import ROOT, mutated, read


class Places(SimpleTestCase):
    def test_every_change_has_its_place_still(self) -> None:
        gone = [
            each.words for each in read() if mutated((ROOT / each.file).read_text(), each) is None
        ]
        self.assertEqual(gone, [])
