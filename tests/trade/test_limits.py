"""Limit states apart.

Strength says whether it holds, service what is a nuisance about it, fit whether it can be built.
"""

from typing import Any

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, rod_shelf, wall
from trade import data, wording
from trade.assess import assess, judge_piece
from trade.calculation import Quantity
from trade.check import RANK, Check, PieceVerdict, strained
from trade.choose import candidates
from trade.choose.cures import cures
from trade.choose.samples import sample, sample_wall
from trade.cli.judge import as_json
from trade.fixings import in_strip
from trade.fixings.fastener_demand import face_checks, fastener_demands, governing
from trade.fixings.support import Support
from trade.load.demand import Demand
from trade.mounts import mount_of
from trade.plan.features import Feature
from trade.plan.flatness import Flatness, RunOut
from trade.plan.model import Layer, Policy, Thing


def books(kg: float) -> tuple[Thing, ...]:
    return (Thing(name="Books", mass_kg=kg),)


def long_shelf(**changes: Any) -> Any:
    """1 100 mm between brackets.

    Softwood that is strong enough for this, and sags over the years.
    """
    return bracket_shelf(
        board="pine_white",
        length_mm=1000.0,
        supports_mm=(100.0, 900.0),
        **({"things": books(40.0)} | changes),
    )


class Apart(SimpleTestCase):
    def verdict(self, piece: Any, minds: str = "usual") -> PieceVerdict:
        return assess(replace(plan(piece), policy=Policy(minds=minds))).pieces[0]  # type: ignore[arg-type]

    def test_what_only_sags_holds_and_says_how_far(self) -> None:
        found = self.verdict(long_shelf())
        self.assertEqual(
            (found.outcome, found.but, found.fails), ("holds_but", "sags over the years", False)
        )
        self.assertEqual(wording.outcome(found), "Holds, but sags over the years")
        self.assertRegex(wording.headline(found, "metric"), r"^Over the years it sags [\d.]+ mm")
        self.assertEqual(
            found.used,
            max(check.utilisation for check in found.of("strength") if not check.threshold),
        )
        self.assertLessEqual(found.used, 0.8)

    def test_no_nuisance_however_great_makes_it_fail(self) -> None:
        """The same shelf, its limits a thousandth as wide.

        Everything that can be a nuisance is one, and it holds as before.
        """
        found = self.verdict(long_shelf(things=books(10.0)))
        worse = [
            check.within(1e-3) if check.limit == "service" else check for check in found.checks
        ]
        self.assertGreater(sum(check.outcome == "holds_but" for check in worse), 3)
        self.assertLess(max(RANK[check.outcome] for check in worse), RANK["close"])

    def test_how_much_somebody_minds_moves_the_limit_and_nothing_of_strength(self) -> None:
        little, usual, much = (
            self.verdict(long_shelf(things=books(24.0)), minds)
            for minds in ("little", "usual", "much")
        )
        self.assertEqual(
            [found.outcome for found in (little, usual, much)], ["holds", "holds", "holds_but"]
        )
        sags = [
            next(c for c in found.checks if c.code == "sag.long_term")
            for found in (little, usual, much)
        ]
        self.assertEqual([round(800 / sag.capacity.value) for sag in sags], [240, 360, 600])
        self.assertEqual(len({found.used for found in (little, usual, much)}), 1)

    def test_a_nuisance_has_cures_of_its_own(self) -> None:
        found = cures(plan(long_shelf()), "shelf")
        self.assertTrue(
            {"support", "thicker", "stiffener", "board"} & {cure.code for cure in found}, found
        )
        lighter = next(cure for cure in found if cure.code == "lighten")
        self.assertEqual((lighter.outcome, lighter.but), ("holds", ""))

    def test_what_does_not_fit_says_so_and_what_its_strength_is_beside_it(self) -> None:
        found = self.verdict(bracket_shelf(top_mm=200.0))
        self.assertEqual((found.outcome, found.governing.code), ("doesnt_fit", "bracket.room"))
        said = {
            each.limit: (each.name, each.outcome, each.said) for each in wording.standings(found)
        }
        self.assertEqual(said["fit"], ("Fit", "doesnt_fit", "room for the bracket"))
        self.assertRegex(said["strength"][2], r"^holds, 0\.\d\d: ")
        self.assertEqual(
            as_json(assess(plan(bracket_shelf(top_mm=200.0))))["pieces"][0]["limits"]["strength"],
            "holds",
        )  # type: ignore[index]

    def test_what_breaks_is_the_headline_and_what_else_is_wrong_stands_beside_it(self) -> None:
        found = self.verdict(bracket_shelf(top_mm=200.0, things=books(300.0)))
        self.assertEqual(found.outcome, "wont_hold")
        self.assertEqual([each.limit for each in wording.besides(found)], ["fit", "service"])

    def test_a_limit_that_people_mind_more_says_the_share_of_the_new_limit(self) -> None:
        check = self.verdict(long_shelf()).checks[0]
        half = check.within(0.5)
        self.assertAlmostEqual(half.capacity.value, check.capacity.value / 2)
        used = half.sentence.parts["used"]
        assert isinstance(used, Quantity)
        self.assertAlmostEqual(used.value, half.utilisation)

    def test_every_rule_knows_its_limit_state(self) -> None:
        by = {
            limit: {code for code, rule in data.rules().items() if rule.limit == limit}
            for limit in ("strength", "service", "fit")
        }
        self.assertLessEqual(
            {"sag.now", "shelf.droop", "shelf.wobble", "lining.pressed", "front.sag", "inside.sag"},
            by["service"],
        )
        self.assertLessEqual(
            {"piece.clash", "piece.covers", "screw.far_side", "anchor.edge", "rod.cover"}, by["fit"]
        )
        self.assertLessEqual(
            {"screw.withdrawal", "cleat.seating", "tip.strap", "lining.crushing", "board.bending"},
            by["strength"],
        )

    def test_what_strains_counts_strength_alone(self) -> None:
        found = self.verdict(long_shelf())
        self.assertEqual(strained(found.checks), found.used)
        self.assertEqual(strained(self.verdict(bracket_shelf(top_mm=200.0)).checks), float("inf"))


class Faces(SimpleTestCase):
    """Plates over gypsum board, 0.8 MPa for years and 1.6 when it is crushed."""

    gypsum = (Layer(kind="gypsum_12_7", thickness_mm=12.7),)

    def test_a_face_dents_before_it_gives_way_and_then_screws_pull_over_half_their_height(
        self,
    ) -> None:
        shelf = rod_shelf(let_in=False)
        support = mount_of(shelf).supports(shelf, wall(layers=self.gypsum))[0]
        assert isinstance(support, Support)
        high = max(support.heights_mm)
        limit = 0.8 * support.pressed_mm * high**2 / 2
        pulls = []
        for share in (0.5, 0.999, 1.001, 1.5, 2.0, 2.001):
            [grip] = fastener_demands(
                [support], {support.index: (Demand("loaded", 1.0, 0.0, share * limit),)}
            )
            words = [check.outcome for check in face_checks([grip], ())]
            self.assertEqual(
                words,
                [
                    "wont_hold" if share > 2 else "close" if share > 1.6 else "holds",
                    "holds_but" if share > 1 else "holds",
                ],
            )
            assert grip.hold is not None
            pulls.append(grip.hold.tension_n)
            if share > 1:
                self.assertAlmostEqual(pulls[-1], 2 * share * limit / high, delta=1e-3 * pulls[-1])
                self.assertAlmostEqual(grip.pressed_mpa, 0.8 * share)
        self.assertEqual(pulls, sorted(pulls))


class Fitting(SimpleTestCase):
    def cured(self, code: str, piece: Any, **on: Any) -> list[str]:
        now = plan(piece, **on)
        self.assertIn(
            code,
            [check.code for check in assess(now).pieces[0].checks if check.outcome == "doesnt_fit"],
        )
        return [
            part
            for cure in cures(now, piece.key)
            if cure.outcome in ("holds", "holds_but")
            for part in cure.code.split("-")
        ]

    def test_what_lacks_room_is_moved_by_what_it_lacks(self) -> None:
        self.assertIn("higher", self.cured("bracket.room", bracket_shelf(top_mm=250.0)))
        slope = RunOut(line="ceiling", points_mm=((0.0, 1200.0), (1600.0, 1200.0), (3200.0, 200.0)))
        self.assertIn(
            "lower",
            self.cured(
                "piece.ceiling",
                bracket_shelf(left_mm=2000.0, top_mm=1700.0),
                flatness=Flatness(run_outs=(slope,)),
            ),
        )
        door = Feature(
            kind="door", left_mm=1720.0, right_mm=2500.0, bottom_mm=0.0, top_mm=2000.0, trim_mm=0.0
        )
        aside = self.cured(
            "anchor.edge",
            bracket_shelf(anchor="plug_10", supports_mm=(100.0, 970.0)),
            structure="brick_solid",
            layers=(),
            timber=None,
            features=(door,),
        )
        self.assertIn("aside", aside)


class Governing(SimpleTestCase):
    sizes = st.sampled_from((0.0, 1.0, 1.5, 2.0, 3.0))

    @settings(max_examples=200)
    @given(
        st.lists(
            st.tuples(
                st.sampled_from((0.9, 1.6)),
                sizes,
                st.sampled_from((-2.0, -1.0, 0.0, 1.0, 2.0)),
                sizes,
            ),
            max_size=8,
        )
    )
    def test_a_case_is_left_out_only_for_one_that_is_no_milder_in_anything(
        self, asked: list[tuple[float, float, float, float]]
    ) -> None:
        """Turning the same way; load, moment and pull, outright and over the duration factor."""

        def sizes(demand: Demand) -> list[float]:
            turn = abs(demand.moment_nmm)
            load = abs(demand.load_n)
            pull = demand.pull_n
            share = demand.duration
            return [turn, turn / share, load / share, pull, pull / share]

        shelf = bracket_shelf()
        support = mount_of(shelf).supports(shelf, wall())[0]
        assert isinstance(support, Support)
        cases = [(support, Demand("case", *each)) for each in asked]
        kept = governing(cases)
        for _, demand in cases:
            self.assertTrue(
                any(
                    (other.moment_nmm >= 0) == (demand.moment_nmm >= 0)
                    and all(
                        more >= mine for more, mine in zip(sizes(other), sizes(demand), strict=True)
                    )
                    for _, other in kept
                ),
                (demand, kept),
            )

    def test_a_lasting_load_is_kept_beside_a_greater_one_that_is_soon_over(self) -> None:
        shelf = bracket_shelf()
        support = mount_of(shelf).supports(shelf, wall())[0]
        assert isinstance(support, Support)
        lasting = (support, Demand("lasting", 0.9, 100.0, 0.0))
        push = (support, Demand("push", 1.6, 120.0, 0.0))
        self.assertEqual(governing([push, lasting]), [lasting])


class Strips(SimpleTestCase):
    """A strip 1 000 long and 100 high with two screws at a stud."""

    def asked(self, **changes: Any) -> Check:
        rail = sample("rail")
        support = mount_of(rail).supports(rail, sample_wall())[0]
        assert isinstance(support, Support)
        strip = {"strip": (0.0, 1000.0, 100.0), "x_mm": 500.0, "heights_mm": (30.0, 70.0)}
        [check] = in_strip.checks([replace(support, **(strip | changes))])
        return check

    def test_the_nearer_end_the_nearer_edge_and_the_next_screw_are_asked(self) -> None:
        for changes, has in (
            ({"x_mm": 8.0}, 8.0),
            ({"x_mm": 990.0}, 10.0),
            ({"heights_mm": (2.0, 70.0)}, 2.0),
            ({"heights_mm": (30.0, 97.0)}, 3.0),
            ({"heights_mm": (50.0, 54.0)}, 4.0),
        ):
            with self.subTest(changes):
                self.assertAlmostEqual(self.asked(**changes).capacity.value, has)

    def test_an_anchor_is_left_out_that_would_split_the_strip_unless_all_would(self) -> None:
        hollow = replace(sample_wall(), structure="block_hollow", layers=(), studs=())
        for high, some in ((30.0, True), (15.0, False)):
            rail = replace(sample("rail"), height_mm=high)
            supports = [s for s in mount_of(rail).supports(rail, hollow) if isinstance(s, Support)]
            widest = in_strip.widest_mm(supports)
            found = candidates.drives(rail, hollow, Policy())
            self.assertTrue(found)
            self.assertEqual({each.through_mm <= widest for each in found}, {some})
            for each in found:
                judged = judge_piece(candidates.driven(rail, each), replace(plan(), wall=hollow))
                edge = next(check for check in judged.checks if check.code == "strip.edge")
                self.assertEqual(edge.outcome == "holds", some)

    def test_splitting_is_asked_from_a_quarter_of_an_inch_up(self) -> None:
        """NDS 2018 12.5.1: thinner fasteners have no loaded edge."""
        for screw, asked in (("wood_14", False), ("lag_1_4", True), ("lag_5_16", True)):
            rail = replace(sample("rail"), screw=screw)
            support = mount_of(rail).supports(rail, sample_wall())[0]
            assert isinstance(support, Support)
            near = replace(support, strip=(0.0, 1000.0, 100.0), heights_mm=(30.0, 90.0))
            demands = {support.index: (Demand("loaded", 1.0, 500.0, 0.0),)}
            with self.subTest(screw):
                self.assertEqual(bool(in_strip.splitting([near], demands, ())), asked)

    def test_slip_is_that_of_the_eurocode(self) -> None:
        """EN 1995-1-1 Table 7.1, screws: rho_m^1.5 d / 23 each."""
        shelf = bracket_shelf()
        support = mount_of(shelf).supports(shelf, wall())[0]
        assert isinstance(support, Support)
        each = support.timber.density_kg_m3**1.5 * support.screw.diameter_mm / 23
        count = len(support.heights_mm)
        self.assertAlmostEqual(support.slip_stiffness_n_per_mm, count * each)
