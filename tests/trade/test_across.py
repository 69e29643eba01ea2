"""Blocking and headers: wood behind the lining that screws go into where no stud is."""

from datetime import UTC, datetime
from math import hypot
from typing import Any

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import plan, wall
from tests.trade.test_every_kind import put_up
from tests.trade.test_options import kg, request
from trade import data, wording
from trade.assess import assess_piece, judge_piece
from trade.check import Check, strained
from trade.choose import capacity_map
from trade.choose.along import along
from trade.choose.cures import look_for_cures
from trade.choose.options import find_options
from trade.choose.order import heavier, order
from trade.choose.search import Option
from trade.cutting.parts import parts_of
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.errors import PlanError
from trade.fixings import across as blocks
from trade.fixings import wood
from trade.fixings.stud_screws import dowel_sum
from trade.fixings.support import Support
from trade.job import found, steps
from trade.load.demand import Demand
from trade.mounts import mount_of
from trade.parse import sketch
from trade.plan.features import Feature, usual
from trade.plan.model import AnyPiece, Policy, Stud, Thing
from trade.wall.backing import stretches_of_wood
from trade.wall.framing import into_framing

HOLD = ("holds", "close")
BAY = (1219.0, 1581.0)  # between the studs at 1 200 and 1 600


def across(kind: str = "blocking", bottom_mm: float = 1360.0, **changes: Any) -> Feature:
    made = Feature(
        kind=kind, left_mm=BAY[0], right_mm=BAY[1], bottom_mm=bottom_mm, top_mm=bottom_mm + 140.0
    )
    return replace(made, **changes)


def rail(**changes: Any) -> AnyPiece:
    """Return a rail between two studs with one row of screws, its foot at 1 434."""
    sizes: dict[str, Any] = {"left_mm": 1230.0, "length_mm": 330.0, "supports_mm": (60.0, 270.0)}
    sizes |= {"key": "rail", "height_mm": 46.0, "use": "display"}
    sizes["things"] = (Thing(name="Books", mass_kg=3.0),)
    return put_up("rail", wall(), top_mm=1480.0, anchor=None, **(sizes | changes))


def check(piece: AnyPiece, code: str, *features: Feature, **on: Any) -> Check:
    checks = assess_piece(piece, wall(features=features, **on)).checks
    return next(each for each in checks if each.code == code)


class Across(SimpleTestCase):
    def test_screws_go_into_it_where_no_stud_is(self) -> None:
        short = rail(screw_length_mm=63.5)
        self.assertEqual(assess_piece(short, wall()).outcome, "wont_hold")
        on = wall(features=(across(),))
        self.assertEqual(assess_piece(short, on).outcome, "holds")
        [screw] = {s.holes[0][1] for s in mount_of(short).supports(short, on)}
        for kind, bottom, there in (
            ("blocking", screw - 15.0, True),
            ("blocking", screw - 14.9, False),
            ("blocking", screw - 125.0, True),
            ("blocking", screw - 125.1, False),
            ("header", screw - 70.0, True),
            ("outlet", screw - 70.0, False),
        ):
            on = wall(features=(across(kind, bottom),))
            held = [s.in_stud for s in mount_of(short).supports(short, on)]
            self.assertEqual(held, [there, there], (kind, bottom))

    def test_it_is_no_deeper_than_its_wood(self) -> None:
        room = check(rail(), "screw.far_side", across()).capacity.value
        deeper = check(rail(), "screw.far_side", across("header")).capacity.value
        self.assertEqual(deeper - room, 89.0 - 38.0)
        self.assertEqual(check(rail(), "screw.far_side", across()).outcome, "doesnt_fit")

    def test_a_foot_below_it_presses_on_lining_with_nothing_behind(self) -> None:
        firm = mount_of(rail()).supports(rail(), wall(features=(across(),)))[0]
        high = across(bottom_mm=1440.0)
        loose = mount_of(rail()).supports(rail(), wall(features=(high,)))[0]
        self.assertLess(firm.foot_mm, 1440.0)
        self.assertLess(loose.face.bearing_mpa, firm.face.bearing_mpa)

    def test_load_and_pull_come_to_the_ends_by_the_lever(self) -> None:
        """Of 362 mm a support is 71 from the left end, the other 81 from the right one.

        Each end is two 5 x 90 mm screws through a stud of 38 mm into end grain.
        """
        supports = [
            each
            for each in mount_of(rail()).supports(rail(), wall(features=(across(),)))
            if isinstance(each, Support)
        ]
        high = supports[0].heights_mm[0]
        cases = {
            0: (Demand("always", 0.9, 100.0, 50.0 * high, 50.0),),
            1: (Demand("always", 0.9, 300.0, 0.0),),
        }
        ends, bent = blocks.checks(supports, cases, ())
        load, pull = (100 * 71 + 300 * 281) / 362, 50 * 71 / 362
        self.assertAlmostEqual(ends.demand.value, hypot(load, pull) / 2, places=6)
        g, screw = 0.42, data.screws()["screw_5"]
        fe = wood.bearing_strength_mpa(g, screw.diameter_mm)
        side = wood.wood_side(38.0, g, screw.diameter_mm, across=True)
        in_it = wood.bearing_length_mm(90.0 - 38.0, screw.diameter_mm, screw.tip_mm)
        z = wood.lateral(wood.dowel(screw), side, 0.0, fe, in_it).value_n
        self.assertAlmostEqual(ends.capacity.value, 0.67 * 0.9 * z, places=6)
        load, pull = (100 * 71 * 81 + 300 * 281 * 81) / 362, 50 * 71 * 81 / 362
        stress = load / (38 * 140**2 / 6) + pull / (140 * 38**2 / 6)
        self.assertAlmostEqual(bent.demand.value, stress, places=6)
        self.assertAlmostEqual(bent.capacity.value, 0.9 * 5.3, places=6)

    def test_a_thick_screw_is_worth_less_across_its_grain(self) -> None:
        """NDS 2018 Table 12.3.3: 6 100 G^1.45 / √D psi instead of 11 200 G; K_θ 1.25 for 1.0."""
        lag = rail(screw="lag_5_16", screw_length_mm=50.8)
        [lying], [upright] = (
            mount_of(lag).supports(lag, on)[:1]
            for on in (
                wall(features=(across("header"),)),
                wall(studs=(Stud(centre_mm=1290.0, uncertainty_mm=2.0),)),
            )
        )
        steel = wood.steel_side(3.0)  # under a wooden rail, whose grain lies, K_θ is 1.25 anyway
        here, there = (dowel_sum(replace(each, side=steel)) for each in (lying, upright))
        psi = 6.894757e-3
        self.assertAlmostEqual(there["F_em"], 11_200 * 0.42 * psi, places=4)
        self.assertAlmostEqual(here["F_em"], 6_100 * 0.42**1.45 / (5 / 16) ** 0.5 * psi, places=2)
        self.assertAlmostEqual(here["R_d"] / there["R_d"], 1.25, places=9)

    def test_nearer_to_an_end_it_is_asked_for_more(self) -> None:
        short = {"length_mm": 120.0, "supports_mm": (40.0, 80.0)}
        middle, aside = (
            check(rail(left_mm=left, **short), "across.ends", across()) for left in (1340.0, 1230.0)
        )
        self.assertGreater(aside.demand.value, 1.3 * middle.demand.value)

    def test_what_else_is_screwed_to_it_counts_at_its_ends_too(self) -> None:
        """Each holds by itself; together they ask for the sum, and neither is spared it."""
        on = wall(features=(across(),))
        heavy = (Thing(name="Irons", mass_kg=4.2),)
        first, second = (
            rail(
                key=key,
                left_mm=left,
                length_mm=150.0,
                supports_mm=(40.0, 110.0),
                things=heavy,
                screw_length_mm=63.5,
            )
            for key, left in (("first", 1230.0), ("second", 1420.0))
        )
        both = plan(first, second, features=on.features)
        alone = [check(each, "across.ends", *on.features).utilisation for each in (first, second)]
        for piece in (first, second):
            [found] = [
                each for each in judge_piece(piece, both).checks if each.code == "across.shared"
            ]
            self.assertAlmostEqual(found.utilisation, sum(alone), places=9)
            self.assertTrue(found.gradual)
            self.assertEqual(judge_piece(piece, both).outcome, "wont_hold")
            self.assertIn(judge_piece(piece, plan(piece, features=on.features)).outcome, HOLD)
        more = order(first, both)[0], order(first, both.without_piece("second"))[0]
        self.assertEqual(more[0].code, "across.shared")
        self.assertLess(more[0].factor, more[1].factor)
        over = across("header", left_mm=1130.0, right_mm=1670.0)
        on_header = replace(both, wall=wall(features=(over,)))
        codes = {each.code for each in judge_piece(first, on_header).checks}
        self.assertFalse({"across.shared", "across.ends"} & codes)

    def test_what_may_hang_there_counts_what_else_the_blocking_holds(self) -> None:
        """Places along it and spots on the wall say what the verdict says."""
        on = wall(features=(across(),))
        short = {"length_mm": 150.0, "supports_mm": (40.0, 110.0), "screw_length_mm": 63.5}
        things = (Thing(name="Irons", mass_kg=3.0),)
        first = rail(key="first", left_mm=1230.0, things=things, **short)
        second = rail(key="second", left_mm=1420.0, things=things, **short)
        alone, both = (plan(*pieces, features=on.features) for pieces in ([first], [first, second]))
        for place, by_itself in zip(along(first, both, 3), along(first, alone, 3), strict=True):
            self.assertLess(place.kg, by_itself.kg)
            for more, holds in ((0.0, True), (0.6, False)):
                thing = Thing(
                    name="One",
                    mass_kg=place.kg + more,
                    at_mm=place.at_mm,
                    out_mm=first.depth_mm,
                )
                found = judge_piece(replace(first, things=(thing,)), both)
                self.assertEqual(found.outcome == "holds", holds)
        for loads, now in ((3.0, both), (3.0, alone)):
            used = capacity_map.used(first, now, loads)
            verdict = judge_piece(heavier(first, loads), now)
            self.assertAlmostEqual(used, strained(verdict.checks))

    def test_on_blocking_a_spot_is_at_its_own_height(self) -> None:
        on = wall(features=(across(),))
        now = plan(rail(things=(Thing(name="Irons", mass_kg=1.0),)), features=on.features)
        [piece] = now.pieces
        for column in capacity_map.map_capacity(piece, now, 20.0):
            moved = capacity_map.settled(replace(piece, left_mm=column.left_mm), now.wall)
            if column.kg and any(
                each.stud.across is not None for each in mount_of(moved).supports(moved, now.wall)
            ):
                self.assertEqual(column.heights_mm, ((piece.top_mm, piece.top_mm),))

    def test_what_rests_on_studs_has_no_ends_to_ask_about(self) -> None:
        codes = {
            each.code for each in assess_piece(rail(), wall(features=(across("header"),))).checks
        }
        self.assertNotIn("across.ends", codes)
        self.assertIn("screw.withdrawal", codes)

    def test_between_steel_studs_nobody_knows_how_it_is_held(self) -> None:
        on = wall(structure="steel_20", timber=None, features=(across(),))
        verdict = assess_piece(rail(screw_length_mm=63.5), on)
        self.assertEqual(verdict.outcome, "cannot_tell")
        self.assertIn("how the wood between the steel studs is held at its ends.", verdict.unknown)


class Placed(SimpleTestCase):
    def test_it_goes_from_stud_to_stud_or_over_its_opening(self) -> None:
        size = (3200.0, 2400.0)
        made = into_framing(usual("blocking", 1390.0, 1400.0, size), wall())
        self.assertEqual((made.left_mm, made.right_mm), BAY)
        alone = usual("blocking", 300.0, 1400.0, size)
        self.assertEqual(into_framing(alone, wall()), alone)  # no stud on its left
        door = replace(usual("door", 1600.0, None, size), left_mm=1200.0, right_mm=2000.0)
        over = into_framing(usual("header", 1500.0, 2100.0, size), wall(features=(door,)))
        self.assertEqual((over.left_mm, over.right_mm, over.bottom_mm), (1130.0, 2070.0, 2064.0))

    def test_it_is_typed_and_read_back(self) -> None:
        size = (3200.0, 2400.0)
        for thing in (
            across(),
            across(to_fit=True),
            across(depth_mm=44.0, to_fit=True),
            across("header", 2060.0),
            across("header", 2060.0, depth_mm=140.0),
        ):
            said = sketch.word_of(thing, "metric", size)
            self.assertEqual(sketch.read(said, "metric", size).features, (thing,), said)
        with self.assertRaisesRegex(PlanError, "outlet is not put in"):
            sketch.read("400 outlet 300 high to fit", "metric", size)


class PutIn(SimpleTestCase):
    """As a cure: the wall is opened for it, and all that takes is on the lists."""

    def test_it_is_offered_and_keeps_its_promise(self) -> None:
        now = plan(rail())
        [cure] = [each for each in look_for_cures(now, "rail").found if each.code == "blocking"]
        after = cure.on(now)
        verdict = judge_piece(after.piece("rail"), after)
        self.assertEqual((verdict.outcome, verdict.used), ("holds", cure.used))
        [block] = after.wood_to_fit
        self.assertEqual((block.left_mm, block.right_mm), BAY)
        self.assertEqual([each.name for each in parts_of(after).cut].count("blocking"), 1)
        [step] = [each for each in steps.steps(after, "rail", "metric") if each.key == block.step]
        self.assertFalse(step.done)
        cut = cut_plan(after)
        self.assertEqual(cut.no_stock, ())
        listed = shopping(after, cut, "metric")
        [ends] = [line for line in listed.lines if line.what == "5 mm wood screw, 90 mm"]
        self.assertEqual(ends.needed, 4)
        self.assertTrue(any("lining" in each for each in listed.unpriced))
        done = found.done(after, "rail", step.key, datetime(2026, 5, 2, tzinfo=UTC), "Ines")
        self.assertEqual(done.wood_to_fit, ())
        self.assertNotIn("blocking", [each.name for each in parts_of(done).cut])

    def test_not_where_a_pipe_or_other_wood_is_nor_where_no_stud_is_known(self) -> None:
        pipe = Feature(kind="pipe", left_mm=1400, right_mm=1428, bottom_mm=0, top_mm=2400)
        above = across(bottom_mm=1465.0)  # it would have to go into the same wood
        for features, changes in (
            ((pipe,), {}),
            ((above,), {}),
            ((), {"studs": wall().studs[:3]}),
        ):
            now = plan(rail(), features=features, **changes)
            codes = {each.code for each in look_for_cures(now, "rail").found}
            self.assertNotIn("blocking", codes)


class Ways(SimpleTestCase):
    """What `assess` calls good on blocking, `ways` finds there."""

    def found(self, top_mm: float, *features: Feature, **policy: Any) -> list[Option]:
        stays = Policy(shift_mm=60.0, grow_mm=0.0, **policy)
        now = replace(plan(features=features).without_piece("shelf"), policy=stays)
        wish = request(things=kg(12.0), x_mm=1000.0, top_mm=top_mm, length_mm=400.0, depth_mm=200.0)
        ways = find_options(now, wish).found
        for way in ways:
            on = now.with_piece(way.piece)
            self.assertEqual(judge_piece(way.piece, on).outcome, way.outcome)
        return list(ways)

    def test_where_no_studs_serve_it_goes_on_blocking_and_where_it_was_wished(self) -> None:
        bay = across(bottom_mm=1400.0, left_mm=819.0, right_mm=1181.0, top_mm=1640.0)
        self.assertEqual(self.found(1600.0), [])
        best = self.found(1600.0, bay)[0]
        self.assertEqual((best.hold, best.outcome), ("blocking", "holds"))
        self.assertEqual((best.piece.left_mm, best.piece.top_mm), (800.0, 1600.0))
        self.assertEqual(self.found(1600.0, bay, anchors="studs_only")[0].hold, "blocking")

    def test_it_is_moved_up_or_down_to_meet_it_and_says_so(self) -> None:
        bay = across(bottom_mm=1440.0, left_mm=819.0, right_mm=1181.0, top_mm=1680.0)
        [way] = [way for way in self.found(1560.0, bay) if way.kind == "box_shelf"]
        self.assertEqual(way.piece.top_mm, 1580.0)
        self.assertEqual(
            [wording.phrase(each, "metric") for each in way.changed],
            ["20 mm higher than asked for, so that its screws meet the blocking."],
        )
        low = [way.piece.top_mm for way in self.found(1520.0, bay) if way.kind == "rod_shelf"]
        self.assertEqual(low, [1541.0])  # 20.5 mm would do: nobody measures that
        self.assertEqual(self.found(1430.0, bay), [])  # further than it may be moved

    def test_screws_meet_wood_from_stud_to_stud_where_blocking_is_in_both_bays(self) -> None:
        pair = [across(left_mm=left, right_mm=left + 362.0) for left in (819.0, 1219.0)]
        on = wall(features=(*pair, across(left_mm=2019.0, right_mm=2381.0)))
        self.assertEqual(
            stretches_of_wood(on, [1400.0, 1450.0]), [(781.0, 1619.0), (1981.0, 2419.0)]
        )
        self.assertEqual(stretches_of_wood(on, [1400.0, 1499.0]), [])
