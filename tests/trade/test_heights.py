"""Heights that suit people, which face is seen, lamps, bad rooms: said beside the verdict."""

from typing import Any

from django.test import SimpleTestCase

from tests.plans import bracket_shelf, plan
from tests.trade.test_every_kind import put_up
from trade import data, wording
from trade.job import movement
from trade.job.minding import what_to_mind
from trade.load import contents


def minded(piece: Any) -> str:
    now = plan(piece)
    return " ".join(wording.phrase(each, "imperial") for each in what_to_mind(piece, now))


class Heights(SimpleTestCase):
    def test_a_bench_or_a_desk_is_told_when_its_top_suits_nobody(self) -> None:
        """Seats 17 to 19 in (ADA 903.5), desks 28 to 30, benches to stand at 34 to 38."""
        for top, said in (
            (18.0, ""),
            (29.0, ""),
            (36.0, ""),
            (24.0, "A desk suits most people between 28"),
            (21.0, 'A seat suits most people between 17"'),
            (44.0, "A bench to stand at suits"),
        ):
            with self.subTest(top):
                bench = put_up("ledger_bench", plan().wall, top_mm=top * 25.4)
                found = minded(bench)
                self.assertEqual("suits most people" in found, bool(said))
                self.assertIn(said, found)

    def test_a_low_deep_shelf_is_sat_on(self) -> None:
        low: dict[str, Any] = {"top_mm": 450.0, "depth_mm": 300.0}
        self.assertIn("people sit down on it", minded(bracket_shelf(**low)))
        for other in ({"top_mm": 700.0}, {"depth_mm": 200.0}, {"use": "sitting"}):
            self.assertNotIn("people sit down on it", minded(bracket_shelf(**(low | other))))

    def test_above_eye_level_its_underside_is_seen(self) -> None:
        self.assertIn("the better face goes down", minded(bracket_shelf(top_mm=1700.0)))
        self.assertNotIn("the better face goes down", minded(bracket_shelf(top_mm=1400.0)))

    def test_a_lamp_under_it_has_a_small_opening_and_is_never_wired(self) -> None:
        said = minded(bracket_shelf(cord="lamp_lead"))
        self.assertIn("A lamp under it: a plug-in one", said)
        self.assertIn("licensed work", said)
        self.assertNotIn("A lamp under it", minded(bracket_shelf(cord="plug")))


class Rooms(SimpleTestCase):
    def minded(self, climate: str | None, *keys: str) -> str:
        things = tuple(contents.thing(key, 1, "metric") for key in keys)
        shelf = bracket_shelf(things=things)
        now = plan(shelf, climate=climate)
        return " ".join(wording.phrase(each, "metric") for each in what_to_mind(shelf, now))

    def test_a_bad_room_says_what_it_spoils_and_a_heated_one_nothing(self) -> None:
        for climate, key, spoilt in (
            ("unheated", "paint_litre", "frost splits it"),
            ("damp", "drill", "it rusts"),
            ("hot", "epoxy", "heat may burst it"),
            ("hot", "drill", ""),
            (None, "paint_litre", ""),
        ):
            with self.subTest(climate=climate, key=key):
                said = self.minded(climate, key)
                self.assertEqual("should not be kept" in said, bool(spoilt))
                self.assertIn(spoilt, said)
        self.assertIn("seal them all round", self.minded("damp", "plates"))
        self.assertNotIn("seal them all round", self.minded(None, "plates"))

    def test_every_way_to_spoil_is_known_to_some_room(self) -> None:
        rooms = {how for row in data.climates().values() for how in row.spoils}
        things = {how for row in data.contents().values() for how in row.spoils}
        self.assertEqual(things, rooms)

    def test_solid_wood_moves_with_the_seasons_and_sheets_do_not(self) -> None:
        """White oak 300 mm deep, heated: from 6.2 to 10.9 % of moisture, 300 × 0.365 × 0.047."""

        def minded(on: str | None = None, **changes: Any) -> str:
            shelf = bracket_shelf(depth_mm=300.0, **changes)
            found = movement.to_mind(shelf, plan(shelf, climate=on))
            return " ".join(wording.phrase(each, "metric") for each in found)

        self.assertIn("White oak 300 mm wide swells and shrinks by 5 mm", minded(board="oak_white"))
        self.assertIn("(moisture 6 to 11 %)", minded(board="oak_white"))
        self.assertEqual(minded(board="plywood"), "")
        self.assertEqual(minded(board="glass"), "")
        rods = put_up("rod_beam", plan().wall, board="oak_white")
        self.assertEqual(movement.to_mind(rods, plan(rods)), [])
        heated, outside = (movement.moistures(plan(climate=on)) for on in (None, "unheated"))
        self.assertLess(heated, outside)
        self.assertIn("(moisture 8 to 18 %)", minded("unheated", board="oak_white"))
