"""Readings to studs: irregular walls, contradictions, and the stand-ins that give the readings."""

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import bracket_shelf, wall
from trade import notes
from trade.assess import assess_piece
from trade.devices.hidden import STUD_MM, HiddenWall, Member, Service, build
from trade.devices.stand_ins import StandIns
from trade.errors import PlanError
from trade.evidence import Edge, Knock, MagnetHit, Probe, Reading, Seen, Sweep
from trade.measure import Units, read_length
from trade.wall.infer import Found, as_studs, infer

INCH = 25.4


def told(centre: float, width: float = STUD_MM, *, sweeps: int = 2) -> list[Reading]:
    """Both edges of something, in each sweep."""
    return [
        Edge(at_mm=centre + sign * width / 2, side=side, height_mm=1000.0 + n)  # type: ignore[arg-type]
        for n in range(sweeps)
        for side, sign in (("left", -1), ("right", 1))
    ]


def swept(width: float, sweeps: int = 2) -> list[Reading]:
    return [Sweep(from_mm=0, to_mm=width, height_mm=1000.0 + n) for n in range(sweeps)]


class Irregular(SimpleTestCase):
    def at(self, studs: tuple[Found, ...], place: float, near: float = 6.0) -> Found:
        found = [s for s in studs if abs(s.centre_mm - place) <= near]
        self.assertEqual(len(found), 1, studs)
        return found[0]

    def test_a_plain_grid_is_certain_and_named(self) -> None:
        width = 3200.0
        known = infer(width, swept(width) + [r for n in range(1, 8) for r in told(16 * INCH * n)])
        self.assertEqual([s.confidence for s in known.studs if 60 < s.centre_mm < 3100], ["certain"] * 7)
        assert known.grid is not None
        self.assertAlmostEqual(known.grid.spacing_mm, 16 * INCH)
        self.assertEqual(known.rejected, ())

    def test_a_doubled_stud_beside_a_door(self) -> None:
        width = 3000.0
        known = infer(width, swept(width) + told(406.4) + told(812.8) + told(1150, 76) + told(2086, 76) + told(2438.4))
        for place in (1150, 2086):
            self.assertEqual((self.at(known.studs, place).kind, self.at(known.studs, place).confidence), ("double", "certain"))

    def test_a_grid_from_the_other_corner(self) -> None:
        width = 3333.0
        known = infer(width, swept(width) + [r for n in range(1, 8) for r in told(width - 400.0 * n)])
        assert known.grid is not None
        self.assertEqual(known.grid.spacing_mm, 400.0)
        self.assertAlmostEqual(known.grid.first_mm, width % 400.0, delta=2.0)

    def test_two_hits_48_inches_apart_leave_the_grid_open(self) -> None:
        """24 in looks like 16 in from two hits 48 in apart; what was not swept between is in doubt, and asked about."""
        known = infer(2500.0, [Seen(at_mm=600.0), Seen(at_mm=600.0 + 48 * INCH)])
        assert known.grid is not None
        self.assertLess(known.grid.probability, 0.8)
        between = [s for s in known.studs if 640 < s.centre_mm < 1780]
        self.assertTrue(between)
        self.assertTrue(all(s.confidence == "doubtful" for s in between))
        self.assertIsNotNone(known.ask_mm)

    def test_a_pipe_beside_a_stud_is_no_stud(self) -> None:
        width = 2000.0
        known = infer(width, swept(width) + told(406.4) + told(812.8) + told(940, 20) + told(1219.2) + told(1625.6))
        self.assertEqual([s for s in known.studs if abs(s.centre_mm - 940) < 30 and s.probability > 0.2], [])
        self.assertTrue(any("too narrow" in why for _, why in known.rejected))

    def test_plaster_on_lath_where_the_finder_is_useless_magnets_and_probes_serve(self) -> None:
        readings: list[Reading] = []
        for n in (1, 2, 3):
            readings += [MagnetHit(at_mm=400.0 * n + off, height_mm=900.0 + off) for off in (-5, 4)]
            readings += [
                Probe(at_mm=400.0 * n + off, met=met) for off, met in ((-14, "wood"), (14, "wood"), (-24, "air"), (24, "air"))
            ]  # type: ignore[arg-type]
        known = infer(1700.0, readings)
        for n in (1, 2, 3):
            self.assertIn(self.at(known.studs, 400.0 * n).confidence, ("certain", "likely"))

    def test_nothing_was_read_and_nothing_is_claimed(self) -> None:
        known = infer(2500.0, [])
        self.assertTrue(all(s.confidence == "doubtful" for s in known.studs if 60 < s.centre_mm < 2440))
        self.assertIsNone(known.grid)
        silent = infer(2500.0, swept(2500.0))
        self.assertEqual([s for s in silent.studs if 100 < s.centre_mm < 2400 and s.probability > 0.3], [])

    def test_a_contradiction_is_kept_and_named(self) -> None:
        """Edges say stud, two probes say air: doubtful at best, and the lone hit agrees with nothing."""
        width = 2000.0
        readings = (
            swept(width) + told(800.0) + [Probe(at_mm=792.0, met="air"), Probe(at_mm=806.0, met="air"), MagnetHit(at_mm=1411.0)]
        )
        known = infer(width, readings)
        at_800 = [s for s in known.studs if abs(s.centre_mm - 800) < 12]
        self.assertTrue(all(s.confidence == "doubtful" for s in at_800))
        self.assertIn((len(readings) - 1, "it agrees with nothing else"), known.rejected)

    def test_evidence_moves_the_odds_the_way_it_should(self) -> None:
        width, base = 2000.0, [*swept(2000.0, 1), Edge(at_mm=781.0, side="left", height_mm=1000.0)]

        def odds(*more: Reading) -> float:
            return sum(s.probability for s in infer(width, [*base, *more]).studs if abs(s.centre_mm - 800) < 10)

        self.assertGreater(odds(Knock(at_mm=800, sound="full")), odds())
        self.assertLess(odds(Knock(at_mm=800, sound="hollow")), odds())
        self.assertGreater(odds(MagnetHit(at_mm=802)), odds(Knock(at_mm=800, sound="full")))
        self.assertLess(1 - odds(Probe(at_mm=800, met="wood")), (1 - odds()) / 2)
        self.assertLess(odds(Probe(at_mm=800, met="air")), 0.05)

    def test_a_reading_on_no_wall_is_refused(self) -> None:
        for bad in (-1.0, float("nan"), 31_000.0):
            with self.assertRaises(PlanError):
                MagnetHit(at_mm=bad)


class StandInDevices(SimpleTestCase):
    WALL = HiddenWall(7, 2000.0, 400.0, (Member(400, 38, "single"), Member(1200, 76, "double")), (Service(800, 20, "pipe"),), ())

    def test_the_same_seed_gives_the_same_wall_and_readings(self) -> None:
        self.assertEqual(build(5), build(5))
        self.assertNotEqual(build(5), build(6))
        first, again = (StandIns(build(5), 1).sweep(0, 2000, 1200) for _ in range(2))
        self.assertEqual(first, again)

    def test_hidden_walls_are_framed_as_carpenters_do(self) -> None:
        for seed in range(60):
            hidden = build(seed)
            for a, b in zip(hidden.members, hidden.members[1:], strict=False):
                self.assertLess(a.centre_mm + a.width_mm / 2, b.centre_mm - b.width_mm / 2 + 30, seed)
            for start, end in hidden.openings_mm:
                self.assertEqual([m for m in hidden.members if start < m.centre_mm < end], [])
                self.assertTrue(hidden.member_at(start - 30) and hidden.member_at(end + 30))

    def test_probe_and_magnet_tell_what_is_there(self) -> None:
        devices = StandIns(self.WALL)
        self.assertEqual([devices.probe(x, 1000).met for x in (400, 600, 800, 1220)], ["wood", "air", "metal", "wood"])
        hits = [r for _ in range(40) for r in devices.search(395, 1000)]
        self.assertTrue(30 <= len(hits) <= 40)
        self.assertTrue(all(abs(hit.at_mm - 400) < 25 for hit in hits))  # type: ignore[union-attr]
        self.assertEqual(devices.search(1700, 1000), [])

    def test_a_dead_battery_finds_nothing_and_does_not_say_so(self) -> None:
        self.assertEqual(len(StandIns(self.WALL, dead=True).sweep(0, 2000, 1000)), 1)


class Jottings(SimpleTestCase):
    def test_what_people_jot_down(self) -> None:
        got = notes.read(
            '48 up: swept 0 to 144, 15 1/4 left, 16 3/4" right\n32 magnet; 40 air, 48 wood, 5 ft seen, 70 hollow',
            "imperial",
            3700.0,
        )
        up = read_length("48", "imperial")
        self.assertEqual(got[0], Sweep(from_mm=0, to_mm=read_length("144", "imperial"), height_mm=up))
        self.assertEqual((got[1].side, got[2].side, got[1].height_mm), ("left", "right", up))  # type: ignore[union-attr]
        self.assertEqual([type(r).__name__ for r in got[3:]], ["MagnetHit", "Probe", "Probe", "Seen", "Knock"])
        self.assertEqual(got[3].height_mm, 0.0)

    def test_what_cannot_be_read_is_named_with_its_line(self) -> None:
        for text, words in (
            ("1 left\n2 lft", "Line 2: “2 lft”"),
            ("4x8 wood", "Line 1: Couldn't read"),
            ("9 m wood", "outside the wall"),
            ("x up: 2 air", "Line 1"),
        ):
            with self.subTest(text=text), self.assertRaisesRegex(PlanError, words):
                notes.read(text, "imperial", 2000.0)

    @given(
        st.lists(st.tuples(st.integers(0, 3000), st.integers(0, 3), st.integers(0, 8)), max_size=30),
        st.sampled_from(["imperial", "metric"]),
    )
    def test_written_and_read_again_they_are_the_same(self, rows: list[tuple[int, int, int]], units: Units) -> None:
        step = 25.4 / 64 if units == "imperial" else 0.1
        made = [
            (
                Edge(at_mm=x * step, side="left", height_mm=h * 100 * step), MagnetHit(at_mm=x * step, height_mm=h * 100 * step),
                Probe(at_mm=x * step, met="air", height_mm=h * 100 * step), Knock(at_mm=x * step, sound="full", height_mm=h * 100 * step),
                Seen(at_mm=x * step, height_mm=h * 100 * step), Sweep(from_mm=0, to_mm=x * step, height_mm=h * 100 * step),
            )[kind % 6]
            for x, h, kind in rows
        ]  # fmt: skip
        again = notes.read(notes.write(made, units), units, 4000.0)
        self.assertEqual(
            sorted(notes.word_of(r, units) + str(round(r.height_mm, 3)) for r in again),
            sorted(notes.word_of(r, units) + str(round(r.height_mm, 3)) for r in made),
        )


class Counting(SimpleTestCase):
    def test_a_doubtful_stud_makes_the_verdict_cannot_tell_and_names_the_reading(self) -> None:
        width = 3200.0
        sure = infer(width, swept(width) + [r for n in range(1, 8) for r in told(400.0 * n)])
        self.assertEqual(assess_piece(bracket_shelf(), wall(studs=as_studs(sure))).word, "holds")
        thin = infer(width, [MagnetHit(at_mm=800.0), MagnetHit(at_mm=1600.0)])
        doubted = assess_piece(bracket_shelf(), wall(studs=as_studs(thin)))
        self.assertEqual(doubted.word, "cannot_tell")
        self.assertTrue(any("probe for both of its edges" in ask for ask in doubted.unknown))
