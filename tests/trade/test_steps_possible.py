"""Steps that can be done.

Every kind on every base, with every class of anchor, is rehearsed from its first step to its last.
"""

from collections.abc import Iterator
from itertools import product
from typing import Any

from django.test import SimpleTestCase
from msgspec.structs import replace

from tests.plans import bracket_shelf, plan, rod_shelf, wall
from tests.trade.rehearsal import ImpossibleError, Rehearsal
from tests.trade.test_every_kind import put_up
from trade import data, wording
from trade.job.step import Step
from trade.job.steps import steps
from trade.mounts import KINDS
from trade.plan.model import Plan, Thing
from trade.plan.shop import Finish, Shop

BASES: dict[str, dict[str, Any]] = {
    "timber": {},
    "bare studs": {"layers": ()},
    "between studs": {"studs": ()},
    "steel": {"structure": "steel_20"},
    "brick": {"structure": "brick_solid", "layers": ()},
    "block": {"structure": "block_hollow"},
    "concrete": {"structure": "concrete"},
    "aerated": {"structure": "aerated_4"},
}


def anchors_on(base: str) -> tuple[str | None, ...]:
    """One anchor of every class, where anchors are anything to the wall."""
    if base in ("timber", "bare studs"):
        return (None,)
    first: dict[str, str] = {}
    for key, row in data.anchors().items():
        first.setdefault(row.kind, key)
    return (None, *first.values())


def hung(kind: str, base: str, anchor: str | None, **shop: Any) -> Plan:
    on = wall(**BASES[base])
    if base == "between studs":  # a stud far off, so that the piece hangs in the lining
        on = wall(studs=wall().studs[-1:])
    piece = put_up(
        kind, on, anchor=anchor, left_mm=200.0, things=(Thing(name="Load", mass_kg=2.0),)
    )
    return Plan(name="Wall", units="metric", wall=on, pieces=(piece,), shop=Shop(**shop))


def cases() -> Iterator[tuple[str, str, str | None]]:
    for kind, base in product(KINDS, BASES):
        for anchor in anchors_on(base):
            yield kind, base, anchor


class Rehearsed(SimpleTestCase):
    def test_every_kind_on_every_base_with_every_class_of_anchor(self) -> None:
        count = 0
        for n, (kind, base, anchor) in enumerate(cases()):
            now = hung(kind, base, anchor, finish=Finish(top="oil_varnish" if n % 2 else None))
            with self.subTest(kind=kind, base=base, anchor=anchor):
                Rehearsal(now, now.pieces[0].key).run(steps(now, now.pieces[0].key, "metric"))
            count += 1
        self.assertGreater(count, 1_000)

    def test_keys_are_one_of_each_and_every_hole_is_drilled_once(self) -> None:
        for kind, base, anchor in cases():
            now = hung(kind, base, anchor)
            found = steps(now, now.pieces[0].key, "metric")
            with self.subTest(kind=kind, base=base, anchor=anchor):
                self.assertEqual(len({step.key for step in found}), len(found))
                drilled = [step.mark.number for step in found if step.mark]
                self.assertEqual(sorted(drilled), sorted(set(drilled)))

    def test_impossible_orders_are_refused(self) -> None:
        """The rehearsal sees what it is for.

        Each order below was once a step list, or is a slip away from one.
        """
        brick = hung("ledger_shelf", "brick", "plug_8")
        toggles = hung("rail", "between studs", "toggle_14")
        resin = hung("bracket_shelf", "brick", "resin_8")
        rods = replace(plan(rod_shelf()), shop=Shop(finish=Finish(top="oil_varnish")))
        timber = plan(bracket_shelf())
        for now, why, spoil in (
            (brick, "its anchor is not in", lambda s: without(s, "set-")),
            (
                brick,
                "already in front|wider than the hole",
                lambda s: first_before(s, "drive-", "drill-"),
            ),
            (brick, "no line", lambda s: without(s, "line-")),
            (
                toggles,
                "its anchor is not in",
                lambda s: [
                    x._replace(acts=x.acts[1:]) if x.key.endswith("loose") else x for x in s
                ],
            ),
            (resin, "still soft", lambda s: [x for x in s if x.key != "set"]),
            (
                rods,
                "bored after its finish|finished already",
                lambda s: swapped(s, "bore", "finish"),
            ),
            (rods, "not bored", lambda s: without(s, "bore", "finish")),
            (rods, "nothing to measure", lambda s: moved_first(s, "measure")),
            (rods, "not cut out", lambda s: without(s, "open-")),
            (rods, "set level with the first", lambda s: openings_first(s)),
            (timber, "not level yet|never levelled", lambda s: without(s, "level-")),
            (timber, "covers", lambda s: moved_first(s, "lay")),
            (timber, "not drilled", lambda s: without(s, "drill-")),
        ):
            key = now.pieces[0].key
            with self.subTest(why), self.assertRaisesRegex(ImpossibleError, why):
                Rehearsal(now, key).run(spoil(list(steps(now, key, "metric"))))

    def test_an_anchor_is_set_as_its_class_asks(self) -> None:
        words = {}
        for base, anchor in (
            ("brick", "plug_8"),
            ("brick", "screw_8"),
            ("between studs", "toggle_14"),
            ("between studs", "channel_14"),
        ):
            now = hung("rail", base, anchor)
            found = steps(now, now.pieces[0].key, "metric")
            words[anchor] = " ".join(
                wording.phrase(each, "metric") for step in found for each in step.words
            )
        self.assertIn("flush with the wall", words["plug_8"])
        self.assertIn("through what you hang", words["screw_8"])
        self.assertNotIn("flush", words["screw_8"] + words["toggle_14"])
        self.assertIn("wings", words["toggle_14"])
        self.assertIn("snap the strap off", words["channel_14"])

    def test_the_line_is_drawn_where_the_hardware_goes(self) -> None:
        """By hand.

        A 20 mm board whose top is at 1500 lies on brackets at 1480; rods are in the middle of 95
        mm, at 852.5.
        """
        for now, name, height in (
            (plan(bracket_shelf()), "Top of the brackets", "1480 mm"),
            (plan(rod_shelf()), "Middle of the rods", "852 mm"),
            (hung("ledger_shelf", "brick", "plug_8"), "Top of the ledgers", "1482 mm"),
            (hung("cleat_cabinet", "timber", None), "Top edge of the wall cleat", "1460 mm"),
        ):
            line = next(
                step for step in steps(now, now.pieces[0].key, "metric") if step.kind == "line"
            )
            self.assertEqual(line.facts, ((name, height),))


def without(found: list[Step], *starts: str) -> list[Step]:
    return [step for step in found if not step.key.startswith(starts)]


def swapped(found: list[Step], one: str, other: str) -> list[Step]:
    keys = [step.key for step in found]
    i, j = keys.index(one), keys.index(other)
    found[i], found[j] = found[j], found[i]
    return found


def moved_first(found: list[Step], key: str) -> list[Step]:
    step = next(each for each in found if each.key == key)
    return [*found[:4], step, *(each for each in found[4:] if each is not step)]


def first_before(found: list[Step], what: str, before: str) -> list[Step]:
    """The thing put up before its holes are drilled, as through the thing."""
    held = next(step for step in found if step.key.startswith("hold-"))
    still = held._replace(acts=tuple(act for act in held.acts if act.verb != "take_down"))
    return [still if step is held else step for step in found]


def openings_first(found: list[Step]) -> list[Step]:
    cut = [step for step in found if step.key.startswith("open-")]
    first = next(n for n, step in enumerate(found) if step.key.startswith("level-"))
    rest = [step for step in found if step not in cut[1:]]
    done = next(n for n, step in enumerate(rest) if step.key.endswith("snug")) + 1
    return [*rest[:done], *cut[1:], *rest[done:]] if first else found
