"""Readings to studs: irregular walls, contradictions, and the stand-ins that give the readings."""

from collections.abc import Sequence
from itertools import pairwise

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import bracket_shelf, wall
from trade import wording
from trade.assess import assess_piece
from trade.devices.hidden import LEVELS, USUAL, HiddenWall, Member, Service, Unevenness, build
from trade.devices.stand_ins import Faults, StandIns
from trade.errors import PlanError
from trade.measure import Units, read_length
from trade.parse import notes
from trade.plan.features import usual
from trade.plan.readings import ByHand, Edge, Knock, MagnetHit, Probe, Reading, Seen, Sweep
from trade.wall.found import Found, Inference
from trade.wall.framing import STUD_MM
from trade.wall.infer import as_studs, infer
from trade.wall.likelihood import Array, Lattice, bell
from trade.wall.reading_index import ReadingIndex
from trade.wall.reasons import contradictions
from trade.wall.scatter import worse
from trade.wall.survey import survey

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
    def at(self, studs: Sequence[Found], place: float, near: float = 6.0) -> Found:
        found = [s for s in studs if abs(s.centre_mm - place) <= near]
        self.assertEqual(len(found), 1, studs)
        return found[0]

    def test_a_plain_grid_is_certain_and_named(self) -> None:
        width = 3200.0
        known = infer(width, swept(width) + [r for n in range(1, 8) for r in told(16 * INCH * n)])
        self.assertEqual(
            [s.confidence for s in known.studs if 60 < s.centre_mm < 3100], ["certain"] * 7
        )
        assert known.grid is not None
        self.assertAlmostEqual(known.grid.spacing_mm, 16 * INCH)
        self.assertEqual(known.rejected, ())

    def test_a_doubled_stud_beside_a_door(self) -> None:
        width = 3000.0
        known = infer(
            width,
            swept(width)
            + told(406.4)
            + told(812.8)
            + told(1150, 76)
            + told(2086, 76)
            + told(2438.4),
        )
        for place in (1150, 2086):
            self.assertEqual(
                (self.at(known.studs, place).kind, self.at(known.studs, place).confidence),
                ("double", "certain"),
            )

    def test_a_grid_from_the_other_corner(self) -> None:
        width = 3333.0
        known = infer(
            width, swept(width) + [r for n in range(1, 8) for r in told(width - 400.0 * n)]
        )
        assert known.grid is not None
        self.assertEqual(known.grid.spacing_mm, 400.0)
        self.assertAlmostEqual(known.grid.first_mm, width % 400.0, delta=2.0)

    def test_two_hits_48_inches_apart_leave_the_grid_open(self) -> None:
        """24 in looks like 16 in from two hits 48 in apart.

        What was not swept between is in doubt, and asked about.
        """
        known = infer(2500.0, [Seen(at_mm=600.0), Seen(at_mm=600.0 + 48 * INCH)])
        assert known.grid is not None
        self.assertLess(known.grid.probability, 0.8)
        between = [s for s in known.studs if 640 < s.centre_mm < 1780]
        self.assertTrue(between)
        self.assertTrue(all(s.confidence == "doubtful" for s in between))
        self.assertIsNotNone(known.ask_mm)

    def test_a_pipe_beside_a_stud_is_no_stud(self) -> None:
        width = 2000.0
        known = infer(
            width,
            swept(width) + told(406.4) + told(812.8) + told(940, 20) + told(1219.2) + told(1625.6),
        )
        self.assertEqual(
            [s for s in known.studs if abs(s.centre_mm - 940) < 30 and s.probability > 0.2], []
        )
        self.assertTrue(any("too narrow" in why for _, why in known.rejected))

    def test_plaster_on_lath_where_the_finder_is_useless_magnets_and_probes_serve(self) -> None:
        readings: list[Reading] = []
        for n in (1, 2, 3):
            readings += [MagnetHit(at_mm=400.0 * n + off, height_mm=900.0 + off) for off in (-5, 4)]
            readings += [
                Probe(at_mm=400.0 * n + off, met=met)
                for off, met in ((-14, "wood"), (14, "wood"), (-24, "air"), (24, "air"))
            ]  # type: ignore[arg-type]
        known = infer(1700.0, readings)
        for n in (1, 2, 3):
            self.assertIn(self.at(known.studs, 400.0 * n).confidence, ("certain", "likely"))

    def test_nothing_was_read_and_nothing_is_claimed(self) -> None:
        known = infer(2500.0, [])
        self.assertTrue(
            all(s.confidence == "doubtful" for s in known.studs if 60 < s.centre_mm < 2440)
        )
        self.assertIsNone(known.grid)
        silent = infer(2500.0, swept(2500.0))
        self.assertEqual(
            [s for s in silent.studs if 100 < s.centre_mm < 2400 and s.probability > 0.3], []
        )

    def test_a_contradiction_is_kept_and_named(self) -> None:
        """Edges say stud, two probes say air.

        Doubtful at best, and the lone hit agrees with nothing.
        """
        width = 2000.0
        readings = (
            swept(width)
            + told(800.0)
            + [
                Probe(at_mm=792.0, met="air"),
                Probe(at_mm=806.0, met="air"),
                MagnetHit(at_mm=1411.0),
            ]
        )
        known = infer(width, readings)
        at_800 = [s for s in known.studs if abs(s.centre_mm - 800) < 12]
        self.assertTrue(all(s.confidence == "doubtful" for s in at_800))
        self.assertIn((len(readings) - 1, "no other reading supports it"), known.rejected)

    def test_both_sides_of_a_contradiction_are_named(self) -> None:
        readings = (*told(800.0, sweeps=1), Probe(at_mm=801.0, met="air"), MagnetHit(at_mm=400.0))
        [found] = contradictions(readings)
        self.assertEqual((found.at_mm, found.for_it, found.against), (801.0, (0, 1), (2,)))
        twice = contradictions(
            (Probe(at_mm=500.0, met="wood"), Probe(at_mm=501.0, met="air"), Seen(at_mm=505.0))
        )
        self.assertEqual([(c.for_it, c.against) for c in twice], [((0, 2), (1,))])
        self.assertEqual(contradictions((*told(800.0), Probe(at_mm=860.0, met="air"))), ())

    def test_the_persons_word_outweighs_the_devices(self) -> None:
        width, both = 2000.0, swept(2000.0) + told(800.0)
        struck = infer(width, [*both, ByHand(at_mm=802.0, word="struck")])
        self.assertEqual([s for s in struck.studs if abs(s.centre_mm - 800) < 20], [])
        pinned = infer(
            width,
            [*swept(width), Probe(at_mm=1210.0, met="air"), ByHand(at_mm=1200.0, word="pinned")],
        )
        stud = self.at(pinned.studs, 1200.0, 3.0)
        self.assertEqual(stud.confidence, "certain")
        self.assertIn("confirmed by you", stud.reasons)
        self.assertIn("but a nail met air", stud.reasons)

    def test_a_door_that_is_seen_says_where_studs_stand_doubled(self) -> None:
        width, door = 3600.0, usual("door", 2000.0, None, (3600.0, 2440.0))
        one = [
            *swept(width, 1),
            *told(door.left_mm - 70, 76, sweeps=1)[:1],
            *told(406.4, sweeps=1),
            *told(812.8, sweeps=1),
        ]
        blind, seeing = infer(width, one), infer(width, one, [door])

        def odds(known: Inference) -> float:
            return sum(
                s.probability
                for s in known.studs
                if s.kind == "double" and abs(s.centre_mm - door.left_mm + 70) < 20
            )

        self.assertGreater(odds(seeing), max(odds(blind), 0.5))
        stud = self.at([s for s in seeing.studs if s.kind == "double"], door.left_mm - 70, 20)
        self.assertIn("beside an opening", stud.reasons)
        self.assertEqual(
            [
                s
                for s in seeing.studs
                if door.left_mm < s.centre_mm < door.right_mm and s.probability > 0.2
            ],
            [],
        )

    def test_steel_studs_by_magnet_and_nail(self) -> None:
        readings: list[Reading] = []
        for n in (1, 2, 3):
            readings += [MagnetHit(at_mm=400.0 * n + off) for off in (-13, 0, 12)]
            readings += [
                Probe(at_mm=400.0 * n, met="metal"),
                Probe(at_mm=400.0 * n + 24, met="air"),
                Probe(at_mm=400.0 * n - 24, met="air"),
            ]
        for n in (1, 2, 3):
            stud = self.at(infer(1700.0, readings, steel=True).studs, 400.0 * n)
            self.assertEqual(
                (stud.width_mm, stud.confidence in ("certain", "likely")), (32.0, True)
            )

    def test_masonry_has_no_studs_and_says_so(self) -> None:
        hard = tuple(Probe(at_mm=200.0 * n, met="hard", depth_mm=13.0) for n in range(1, 5))
        known = survey(wall(structure=None, readings=hard, layers=None))
        self.assertIn("masonry", known.masonry or "")
        self.assertEqual((known.inference.studs, known.lining_mm), ((), 13.0))
        self.assertIn(
            "solid brick", survey(wall(structure="brick_solid", readings=())).masonry or ""
        )
        doubted = survey(wall(structure="timber", readings=hard))
        self.assertIsNone(doubted.masonry)
        self.assertIn("reads like masonry", wording.phrase(doubted.doubts[0], "metric"))
        self.assertIsNone(
            survey(
                wall(structure=None, readings=(*hard[:1], Probe(at_mm=400.0, met="wood")))
            ).masonry
        )

    def test_a_nail_that_goes_too_deep_doubts_the_lining(self) -> None:
        deep = tuple(Probe(at_mm=400.0 * n, met="wood", depth_mm=22.0 + n / 10) for n in (1, 2, 3))
        [doubt] = survey(wall(readings=deep)).doubts
        self.assertEqual(
            wording.phrase(doubt, "metric"),
            "Nails met something 22 mm deep, but the layers you named add up to 13 mm.",
        )

    def test_evidence_moves_the_odds_the_way_it_should(self) -> None:
        width, base = 2000.0, [*swept(2000.0, 1), Edge(at_mm=781.0, side="left", height_mm=1000.0)]

        def odds(*more: Reading) -> float:
            return sum(
                s.probability
                for s in infer(width, [*base, *more]).studs
                if abs(s.centre_mm - 800) < 10
            )

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
    WALL = HiddenWall(
        7,
        2000.0,
        400.0,
        (Member(400, 38, "single"), Member(1200, 76, "double")),
        (Service(800, 20, "pipe"),),
        (),
    )

    def test_the_same_seed_gives_the_same_wall_and_readings(self) -> None:
        self.assertEqual(build(5), build(5))
        self.assertNotEqual(build(5), build(6))
        first, again = (StandIns(build(5), 1).sweep(0, 2000, 1200) for _ in range(2))
        self.assertEqual(first, again)

    def test_hidden_walls_are_framed_as_carpenters_do(self) -> None:
        for seed in range(60):
            for level in (USUAL, *LEVELS.values()):
                hidden = build(seed, level)
                standing = hidden.members_at(1300.0)
                for a, b in pairwise(standing):
                    self.assertLess(
                        a.centre_mm + a.width_mm / 2,
                        b.centre_mm - b.width_mm / 2 + 30,
                        (seed, level.name),
                    )
                for o in hidden.openings:
                    self.assertEqual(
                        [m for m in standing if o.left_mm < m.centre_mm < o.right_mm], []
                    )
                    if standing:
                        self.assertTrue(
                            hidden.member_at(o.left_mm - 70, 1300)
                            and hidden.member_at(o.right_mm + 70, 1300)
                        )
                    above = [
                        m for m in hidden.members_at(2400.0) if o.left_mm < m.centre_mm < o.right_mm
                    ]
                    self.assertTrue(all(m.bottom_mm > o.top_mm for m in above))

    def test_probe_and_magnet_tell_what_is_there(self) -> None:
        devices = StandIns(self.WALL)
        self.assertEqual(
            [devices.probe(x, 1000).met for x in (400, 600, 800, 1220)],
            ["wood", "air", "metal", "wood"],
        )
        hits = [r for _ in range(40) for r in devices.search(395, 1000)]
        self.assertTrue(30 <= len(hits) <= 40)
        self.assertTrue(all(abs(hit.at_mm - 400) < 25 for hit in hits))  # type: ignore[union-attr]
        self.assertEqual(devices.search(1700, 1000), [])

    def test_masonry_is_hard_everywhere_and_steel_sticks_all_over(self) -> None:
        brick = StandIns(self.WALL._replace(members=(), structure="brick_solid", lining="render"))
        self.assertEqual({brick.probe(x, 1000).met for x in range(0, 2000, 100)}, {"hard"})
        steel = StandIns(self.WALL._replace(structure="steel_25"))
        self.assertEqual(steel.probe(400, 1000).met, "metal")

    def test_a_finder_behind_foil_or_lath_fires_anywhere(self) -> None:
        for hidden in (self.WALL._replace(foil=True), self.WALL._replace(lining="plaster_lath")):
            told = [r.at_mm for r in StandIns(hidden).sweep(0, 2000, 1000) if isinstance(r, Edge)]
            self.assertGreater(
                sum(all(abs(x - m.centre_mm) > 60 for m in hidden.members) for x in told), 2
            )

    def test_laser_and_level_measure_the_room_as_it_lies(self) -> None:
        devices = StandIns(
            self.WALL._replace(
                unevenness=Unevenness(
                    ceiling_mm_per_m=10.0, floor_mm_per_m=0.0, lean_mm_per_m=4.0, left_deg=91.0
                )
            )
        )
        self.assertAlmostEqual(devices.up_mm(0) - devices.up_mm(2000), 20.0, delta=6.0)
        self.assertAlmostEqual(
            devices.to_ceiling_mm(0) - devices.to_ceiling_mm(2000), 20.0, delta=2.0
        )
        self.assertAlmostEqual(devices.lean_mm(500, 300, 1800), 6.0, delta=1.5)
        self.assertAlmostEqual(
            devices.across_mm(1000, 600) - devices.across_mm(1000, 0), 600 * 0.01745, delta=6.0
        )
        self.assertAlmostEqual(devices.to_floor_mm(0), devices.to_floor_mm(2000), delta=2.0)

    def test_a_dead_battery_finds_nothing_and_does_not_say_so(self) -> None:
        self.assertEqual(len(StandIns(self.WALL, faults=Faults(dead=True)).sweep(0, 2000, 1000)), 1)


class Jottings(SimpleTestCase):
    def test_what_people_jot_down(self) -> None:
        got = notes.read(
            '48 up: swept 0 to 144, 15 1/4 left, 16 3/4" right\n32 magnet; 40 air, 48 wood, 5 ft '
            "seen, 70 hollow",
            "imperial",
            3700.0,
        )
        up = read_length("48", "imperial")
        self.assertEqual(
            got[0], Sweep(from_mm=0, to_mm=read_length("144", "imperial"), height_mm=up)
        )
        self.assertEqual((got[1].side, got[2].side, got[1].height_mm), ("left", "right", up))  # type: ignore[union-attr]
        self.assertEqual(
            [type(r).__name__ for r in got[3:]], ["MagnetHit", "Probe", "Probe", "Seen", "Knock"]
        )
        self.assertEqual(got[3].height_mm, 0.0)

    def test_what_cannot_be_read_is_named_with_its_line(self) -> None:
        for text, words in (
            ("1 left\n2 lft", "Line 2: “2 lft”"),
            ("4x8 wood", "Line 1: Couldn't read"),
            ("9 m wood", "outside the wall"),
            ("x up: 2 air", "Line 1"),
            ("a at " * 9_000, "Line 1: That is too long to be a reading"),
        ):
            with self.subTest(text=text), self.assertRaisesRegex(PlanError, words):
                notes.read(text, "imperial", 2000.0)

    @given(
        st.lists(
            st.tuples(st.integers(0, 3000), st.integers(0, 3), st.integers(0, 8)), max_size=30
        ),
        st.sampled_from(["imperial", "metric"]),
    )
    def test_written_and_read_again_they_are_the_same(
        self, rows: list[tuple[int, int, int]], units: Units
    ) -> None:
        step = 25.4 / 64 if units == "imperial" else 0.1
        made = [
            (
                Edge(at_mm=x * step, side="left", height_mm=h * 100 * step),
                MagnetHit(at_mm=x * step, height_mm=h * 100 * step),
                Probe(at_mm=x * step, met="hard", depth_mm=h * step, height_mm=h * 100 * step),
                Knock(at_mm=x * step, sound="full", height_mm=h * 100 * step),
                Seen(at_mm=x * step, height_mm=h * 100 * step),
                Sweep(from_mm=0, to_mm=x * step, height_mm=h * 100 * step),
            )[kind % 6]
            for x, h, kind in rows
        ]
        again = notes.read(notes.write(made, units), units, 4000.0)
        self.assertEqual(
            sorted(notes.word_of(r, units) + str(round(r.height_mm, 3)) for r in again),
            sorted(notes.word_of(r, units) + str(round(r.height_mm, 3)) for r in made),
        )


class Counting(SimpleTestCase):
    def test_a_doubtful_stud_makes_the_verdict_cannot_tell_and_names_the_reading(self) -> None:
        width = 3200.0
        sure = infer(width, swept(width) + [r for n in range(1, 8) for r in told(400.0 * n)])
        self.assertEqual(assess_piece(bracket_shelf(), wall(studs=as_studs(sure))).outcome, "holds")
        thin = infer(width, [MagnetHit(at_mm=800.0), MagnetHit(at_mm=1600.0)])
        doubted = assess_piece(bracket_shelf(), wall(studs=as_studs(thin)))
        self.assertEqual(doubted.outcome, "cannot_tell")
        self.assertTrue(any("probe for both of its edges" in ask for ask in doubted.unknown))


class Scatter(SimpleTestCase):
    def test_a_poor_finder_widens_every_interval_and_a_good_one_none(self) -> None:
        """Edges 38 apart as they are, then 16 wider at every stud.

        16 over √2 · 3.5 is 3.2, held to three times.
        """

        def edges(wider: float) -> list[Reading]:
            ends = [
                (400.0 * n + sign * (19.0 + wider / 2), side)
                for n in (1, 2, 3, 4, 5)
                for sign, side in ((-1, "left"), (1, "right"))
            ]
            swept = [Sweep(from_mm=0.0, to_mm=2400.0, height_mm=1200.0)]
            return [*swept, *(Edge(at_mm=at, side=side, height_mm=1200.0) for at, side in ends)]  # type: ignore[arg-type]

        good, poor = (infer(2400.0, edges(wider)) for wider in (0.0, 16.0))
        reach = [
            {round(s.centre_mm, -1): s.reach_mm for s in found.studs if s.probability > 0.5}
            for found in (good, poor)
        ]
        for at in (800.0, 1200.0, 1600.0):
            self.assertGreater(reach[1][at], 2.0 * reach[0][at])
        self.assertEqual(
            (
                worse(ReadingIndex(edges(0.0)), good.studs),
                worse(ReadingIndex(edges(16.0)), poor.studs),
            ),
            (1.0, 3.0),
        )


class Sums(SimpleTestCase):
    places = st.lists(st.floats(-200.0, 1200.0), max_size=12)

    @given(places, st.sampled_from((1.0, 2.0)), st.floats(-40.0, 40.0))
    def test_each_counts_where_it_matters_and_is_nothing_further_off(
        self, at: list[float], step: float, first: float
    ) -> None:
        """Against every reading at every place, one by one.

        A tilted bell, so that left and right are told apart.
        """

        def tilted(off: Array) -> Array:
            return bell(off, 6.5) * (100.0 + off)

        lattice = Lattice(first, step, 400)
        found = lattice.accumulate(at, 30.0, tilted)
        for n in range(0, 400, 7):
            off = np.array([x - (first + n * step) for x in at])
            self.assertAlmostEqual(
                found[n], float(tilted(off[np.abs(off) < 30.0]).sum()), delta=0.01
            )

    @given(
        st.lists(st.floats(0.0, 3000.0), max_size=15), st.floats(0.0, 3000.0), st.floats(0.0, 500.0)
    )
    def test_those_near_a_place_are_all_and_no_others(
        self, at: list[float], place: float, reach: float
    ) -> None:
        readings = [Sweep(from_mm=0.0, to_mm=9.0, height_mm=1.0), *(MagnetHit(at_mm=x) for x in at)]
        near = sorted(i for i, _ in ReadingIndex(readings).near(place, reach))
        self.assertEqual(
            near, [i for i, x in enumerate(at, start=1) if place - reach <= x <= place + reach]
        )

    def test_a_sweep_says_nothing_of_edges_at_another_height(self) -> None:
        """The same edges within the sweep, and beside it.

        There they stand alone, and its silence counts against them.
        """
        sweep = Sweep(from_mm=0.0, to_mm=2000.0, height_mm=1200.0)
        for height, likely in ((1200.0, True), (900.0, False)):
            ends = [
                Edge(at_mm=at, side=side, height_mm=height)
                for at, side in ((781.0, "left"), (819.0, "right"))
            ]  # type: ignore[arg-type]
            found = infer(2000.0, [sweep, sweep, *ends])
            near = [
                stud
                for stud in found.studs
                if abs(stud.centre_mm - 800.0) < 20 and stud.probability > 0.5
            ]
            self.assertEqual(bool(near), likely, height)
