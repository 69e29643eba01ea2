"""Ten places of walls that meet: file, verdict, marks, steps, cut list and shopping list agree."""

from collections import Counter
from collections.abc import Iterator

from django.test import SimpleTestCase

from tests.plans import bracket_shelf
from tests.trade.kind_case import load, piece
from tests.trade.rehearsal import Rehearsal
from tests.trade.test_place import closet, shelf, side_wall
from trade import data
from trade.assess import assess
from trade.cutting.parts import parts_of
from trade.cutting.plan import cut_plan
from trade.cutting.shopping import shopping
from trade.job.steps import steps
from trade.marking.marks import Mark, piece_marks
from trade.mounts import mount_of
from trade.plan import plan_file
from trade.plan.model import CornerShelf, Plan, WallPlan
from trade.plan.place import each_piece, faced, turned, with_wall

BRICK = {"structure": "brick_solid", "layers": (), "studs": ()}


def corner_shelf(**changes: object) -> CornerShelf:
    base = {
        "key": "corner",
        "name": "Corner",
        "left_mm": 0.0,
        "length_mm": 400.0,
        "depth_mm": 400.0,
        "thickness_mm": 18.0,
        "board": "plywood",
        "supports_mm": (60.0, 340.0),
        "other_mm": 330.0,
        "things": load(2.0),
    }
    return piece(CornerShelf, **base | changes)  # type: ignore[no-any-return]


def corner_of(degrees: float, *pieces: CornerShelf, **there: object) -> Plan:
    """Two walls that meet so; what hangs is on the right one."""
    first = side_wall(280.0, 540.0, **there)  # 340 and 80 from the corner
    right = WallPlan(name="Right", wall=side_wall(60.0, 340.0, 600.0), pieces=pieces)
    plan = Plan(name="Corner", units="metric", wall=first, faced="Left")
    return with_wall(plan, "right", right, degrees)


def places() -> Iterator[tuple[str, Plan]]:
    studs = side_wall(320.0, 500.0), side_wall(120.0, 300.0)
    yield "studs on both sides", closet(*studs)
    yield (
        "a toggle at the front",
        closet(studs[0], side_wall(120.0), shelf(side_anchor="toggle_14")),
    )
    yield (
        "brick at both sides",
        closet(side_wall(**BRICK), side_wall(**BRICK), shelf(side_anchor="plug_8")),
    )
    yield "nothing behind one", closet(studs[0], side_wall(580.0))
    yield "nobody looked", closet(side_wall(), side_wall())
    yield "a corner shelf", corner_of(90.0, corner_shelf())
    yield "in a sharp corner", corner_of(75.0, corner_shelf())
    yield "on brick round the corner", corner_of(90.0, corner_shelf(side_anchor="plug_8"), **BRICK)
    both = closet(*studs)
    right = turned(both, both.after[0].key)
    small = bracket_shelf(
        key="small",
        name="Small",
        left_mm=60.0,
        length_mm=500.0,
        top_mm=700.0,
        supports_mm=(60.0, 240.0),
    )
    yield "two walls hang", right.with_piece(small)
    breast = with_wall(both, "right", WallPlan(name="Cheek", wall=side_wall(width_mm=350.0)), 270.0)
    yield "round what stands out", turned(breast, "wall")


class TenPlaces(SimpleTestCase):
    many = 10

    def places(self) -> Iterator[tuple[str, Plan]]:
        yield from places()

    def test_there_are_so_many(self) -> None:
        self.assertEqual(len(list(self.places())), self.many)

    def test_a_place_is_the_same_from_every_wall_and_in_a_file(self) -> None:
        for name, plan in self.places():
            words = {v.key: v.outcome for each in faced(plan) for v in assess(each).pieces}
            lists = parts_of(plan), shopping(plan, cut_plan(plan), "metric")
            for each in faced(plan):
                with self.subTest(name, at=each.at):
                    again = plan_file.load(plan_file.dump(each), each.at)
                    self.assertEqual(again, each)
                    seen = {v.key: v.outcome for now in faced(again) for v in assess(now).pieces}
                    self.assertEqual(seen, words)
                    mine = parts_of(again), shopping(again, cut_plan(again), "metric")
                    self.assertEqual(mine, lists)

    def test_every_hole_is_in_a_step_and_gets_what_was_bought(self) -> None:
        for name, plan in self.places():
            needed: Counter[str] = Counter()
            for hung, on in each_piece(plan):
                marks = piece_marks(hung, on.wall, "metric")
                with self.subTest(name, piece=hung.key):
                    self.assertEqual([m.number for m in marks], list(range(1, len(marks) + 1)))
                    self.steps_have(on, hung.key, marks)
                unknown = sum(extra.many for extra in mount_of(hung).extras(hung, on.wall))
                needed["all"] += sum(m.where != "shelf" for m in marks if m.fixing) + unknown
            bought = sum(
                line.needed
                for line in shopping(plan, cut_plan(plan), "metric").lines
                if line.aisle == "fasteners"
            )
            with self.subTest(name):
                self.assertEqual(bought, needed["all"])

    def steps_have(self, plan: Plan, key: str, marks: tuple[Mark, ...]) -> None:
        """Each hole is drilled once, and what is done can be done in that order."""
        done = steps(plan, key, "metric")
        holes = Counter(m.number for m in marks if m.where != "shelf")
        drilled = Counter(step.mark.number for step in done if step.mark is not None)
        self.assertEqual(drilled, holes)
        self.assertEqual(len({step.key for step in done}), len(done))
        if holes:
            Rehearsal(plan, key).run(done)
        told = [
            fact for step in done if step.key.startswith(("side-", "other-")) for fact in step.facts
        ]
        beside = [mark for mark in marks if mark.where == "beside"]
        self.assertEqual(len(told), len(beside))
        for mark in beside:
            place = f"{mark.corner_mm:.0f} mm from the corner"
            self.assertTrue(any(place in said for _, said in told), place)

    def test_every_part_of_every_piece_is_cut_once(self) -> None:
        """Of boards and sheets; both halves of a cleat come out of one strip."""
        sawn = {row.name for row in data.boards().values()}
        for name, plan in self.places():
            cut = Counter(part.key for part in parts_of(plan).cut)
            made: Counter[str] = Counter()
            for hung, on in each_piece(plan):
                for part in mount_of(hung).parts(hung, on.wall):
                    if part.sizes_mm and part.of in sawn:
                        made[hung.key] += part.many // (2 if "half of" in part.name else 1)
            with self.subTest(name):
                self.assertEqual(cut, made)
