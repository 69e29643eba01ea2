"""Whether things fit on a piece, people reach it, and it comes through the door.

And the scale that weighs things.
"""

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, wall
from trade import data, wording
from trade.assess import assess
from trade.check import Check
from trade.choose.samples import sample
from trade.devices.stand_ins import for_wall
from trade.mounts import fit
from trade.plan.features import Feature
from trade.plan.model import AnyPiece, Thing, Wall

TALL = (Thing(name="Vases", mass_kg=3.0, high_mm=400.0),)


class Items(SimpleTestCase):
    def room(self, *pieces: AnyPiece) -> Check | None:
        found = assess(plan(*pieces)).pieces[0].checks
        return next((check for check in found if check.code == "fit.items"), None)

    def test_against_the_shelf_above_and_the_ceiling(self) -> None:
        """A shelf at 1 500; vases of 400 and a hand of 40.

        The next one's brackets end 300 under its board of 20.
        """
        low = bracket_shelf(things=(Thing(name="Cups", mass_kg=1.0, high_mm=90.0), *TALL))
        under_ceiling = self.room(low)
        assert under_ceiling is not None
        self.assertIn("“Vases”", wording.phrase(under_ceiling.sentence, "metric"))
        self.assertEqual((under_ceiling.demand.value, under_ceiling.capacity.value), (440.0, 900.0))
        for top, word in ((2261.0, "holds"), (2259.0, "holds_but")):
            found = self.room(low, bracket_shelf(key="above", top_mm=top))
            assert found is not None
            self.assertEqual(
                (found.outcome, round(found.capacity.value)), (word, round(top - 320 - 1500))
            )
        beside = self.room(low, bracket_shelf(key="beside", top_mm=2000.0, left_mm=1800.0))
        assert beside is not None
        self.assertEqual(beside.capacity.value, 900.0)

    def test_nothing_is_said_where_nobody_said_how_high(self) -> None:
        self.assertIsNone(self.room(bracket_shelf()))
        self.assertIsNone(self.room(replace(sample("rail"), things=TALL)))


class Mind(SimpleTestCase):
    def said(self, piece: AnyPiece, on: Wall) -> str:
        return " ".join(wording.phrase(phrase, "metric") for phrase in fit.to_mind(piece, on))

    def test_too_high_to_reach(self) -> None:
        self.assertIn(
            "without a step most people reach 1950 mm",
            self.said(bracket_shelf(top_mm=2100.0), wall()),
        )
        self.assertEqual(self.said(bracket_shelf(top_mm=1950.0), wall()), "")

    def test_too_big_for_the_door(self) -> None:
        door = Feature(kind="door", left_mm=100, right_mm=900, bottom_mm=0, top_mm=2000)
        room = wall(features=(door,))
        case = replace(sample("bookcase"), length_mm=1200.0, depth_mm=850.0)
        self.assertIn(
            "does not go through the door of this wall, 800 mm by 2000 mm", self.said(case, room)
        )
        self.assertNotIn("does not go through", self.said(replace(case, depth_mm=300.0), room))
        self.assertEqual(self.said(case, wall()), "")


class Around(SimpleTestCase):
    def said(self, piece: AnyPiece, *features: Feature) -> str:
        return " ".join(
            wording.phrase(phrase, "metric")
            for phrase in fit.to_mind(piece, wall(features=features))
        )

    def test_what_it_would_hang_over(self) -> None:
        """The shelf spans 700 to 1 700, its brackets from 1 180 up."""
        for x, y, hidden in (
            (1000.0, 1300.0, True),
            (1000.0, 300.0, False),
            (2200.0, 1300.0, False),
        ):
            outlet = Feature(kind="outlet", left_mm=x, right_mm=x + 80, bottom_mm=y, top_mm=y + 80)
            self.assertEqual("hangs over an outlet" in self.said(bracket_shelf(), outlet), hidden)

    def test_a_door_that_may_swing_against_it(self) -> None:
        near, far = (
            Feature(kind="door", left_mm=x, right_mm=x + 800, bottom_mm=0, top_mm=2000)
            for x in (1900.0, 2390.0)
        )
        self.assertIn("the leaf meets it: it stands 250 mm out", self.said(bracket_shelf(), near))
        self.assertIn("the leaf meets it", self.said(bracket_shelf(), far))
        self.assertNotIn("the leaf meets it", self.said(bracket_shelf(top_mm=2350.0), near))
        self.assertEqual(
            self.said(
                bracket_shelf(left_mm=100.0, length_mm=900.0, supports_mm=(300.0, 700.0)), far
            ),
            "",
        )


class Weighed(SimpleTestCase):
    def test_a_scale_that_is_not_there_is_near_what_such_things_weigh(self) -> None:
        scale = for_wall(1, 3000.0, 0)
        for _ in range(20):
            kg = scale.weigh("Bicycle of the treasurer")
            assert kg is not None
            self.assertLess(abs(kg / data.contents()["bicycle"].kg - 1), 0.25)
            self.assertAlmostEqual(kg / 0.05, round(kg / 0.05), places=6)  # as its display shows

    def test_it_has_its_limit(self) -> None:
        scale = for_wall(1, 3000.0, 0)
        self.assertTrue(all((kg := scale.weigh("anything")) is None or kg <= 51 for _ in range(50)))
