"""Every school changes something: a verdict, a design, a mark, or a step."""

from itertools import combinations
from typing import Any

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.failing import WALLS
from tests.plans import bracket_shelf, plan, rod_shelf
from tests.trade.test_every_kind import put_up
from tests.trade.test_options import kg, request
from trade import data
from trade.assess import assess
from trade.choose.options import find_options
from trade.choose.policy_effects import followed
from trade.choose.request import HangRequest, wish_for
from trade.job.steps import steps
from trade.marking.marks import marks
from trade.plan.model import Plan, Thing

_ON_WAYS = ("anchors", "made", "matters")  # the rest changes what hangs already
_LOAD = (Thing(name="Load", mass_kg=12.0),)


def situations() -> list[tuple[Plan, HangRequest]]:
    """Plans where people disagree, and what shall hang there besides."""
    cabinet = put_up("cleat_cabinet", WALLS["timber_16"], things=_LOAD)
    drooping = bracket_shelf(length_mm=1600.0, supports_mm=(100.0, 1500.0), things=_LOAD)
    plugged = bracket_shelf(anchor="plug_light", supports_mm=(300.0, 700.0), things=_LOAD)
    both = plan(drooping, replace(plugged, key="plugged", top_mm=900.0))
    wide = Plan(name="Wall", units="metric", wall=WALLS["timber_24"])
    floating = plan(rod_shelf(), cabinet)
    brick = Plan(name="Wall", units="metric", wall=WALLS["brick"])
    narrow = Plan(name="Wall", units="metric", wall=WALLS["timber_16"])
    # what is worked out soonest comes first
    return [
        (wide, wish_for(wide, "picture", 1.0, 1500.0, 2200.0)),
        (brick, wish_for(brick, "coats", 6.0, 1500.0, 1800.0)),
        (narrow, wish_for(narrow, "plant_large", 1.0, 1500.0, 1700.0)),
        (plan().without_piece("shelf"), request(things=kg(5.0), depth_mm=180.0)),
        (floating, wish_for(floating, "books", 1000.0, 1500.0, 2200.0)),
        (both, wish_for(both, "pots", 8.0, 1500.0, 2200.0)),
    ]


def verdicts(now: Plan, _: HangRequest) -> Any:
    return [(each.outcome, each.used, each.but) for each in assess(now).pieces], now.pieces


def drilled(now: Plan, _: HangRequest) -> Any:
    return marks(now)


def put_up_by(now: Plan, _: HangRequest) -> Any:
    return [steps(now, piece.key, now.units) for piece in now.pieces]


def best_way(now: Plan, wish: HangRequest) -> Any:
    best = find_options(now, wish).best
    return best and (best.kind, best.piece)


class Schools(SimpleTestCase):
    def test_each_answer_to_each_question_is_told_from_the_others(self) -> None:
        """Of all that is said of a plan: what takes long is asked last, of those still alike."""
        for question, row in data.policies().items():
            alike = list(combinations(row.answers, 2))
            for asked in (verdicts, drilled, put_up_by, *([best_way] * (question in _ON_WAYS))):
                for now, wish in situations() if alike else ():
                    said = {
                        school: asked(followed(now, question, school), wish)
                        for school in dict.fromkeys(school for pair in alike for school in pair)
                    }
                    alike = [pair for pair in alike if said[pair[0]] == said[pair[1]]]
            self.assertEqual(alike, [], f"{question}: they change nothing")
