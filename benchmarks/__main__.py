"""How fast the core judges and the bench answers.

`python -m benchmarks` prints each against its limit.

Exit status 1 when a limit is missed. Limits are in milliseconds of the machine on which they were
set: what counts is how often the reference, run in the same rounds, goes into a figure
(`timing.py`).
"""

import os
import resource
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

from benchmarks.timing import Figures, figures, measured, reference_ms, worst
from trade.memo import collect_seldom

LIMITS_MS = {
    "assess a wall with ten shelves": 15.0,  # a single shelf 1.5
    "assess fifty mountings of all kinds": 55.0,
    "ways to hang something": 300.0,
    "the wall shaded, 4 m at 25 mm": 300.0,
    "cures for a failing piece": 150.0,
    "60 parts cut": 1000.0,
    "200 parts cut": 6000.0,
    "a shelf on 2 supports": 2.0,
    "a shelf on 40 supports": 15.0,
    "2 000 readings, swept": 60.0,
    "2 000 readings, nails and knocks": 100.0,
    "a tick of a drag, 10 pieces": 15.0,
    "a tick of a drag, 50 pieces": 15.0,
    "a tick of a drag, three walls of 10 pieces": 20.0,
    "a kept move, three walls of 10 pieces": 75.0,
    "a kept move, 10 pieces": 50.0,
    "a kept move, 50 pieces": 50.0,
    "a page, 50 pieces": 60.0,
    "the list of 24 walls": 40.0,
    "the shell: a verdict": 400.0,
    "the shell: a schema": 150.0,
}
TICK_BYTES = 8_000


def ten_shelves() -> object:
    """Return a wall with ten different shelves: two and three supports, point and spread loads."""
    from tests.plans import bracket_shelf, plan, rod_shelf
    from trade.plan.model import Thing

    pieces = []
    for n in range(10):
        things = (
            Thing(name="Spread", mass_kg=8.0 + n),
            Thing(name="Point", mass_kg=2.0 + n / 7, at_mm=300.0 + 31 * n),
        )
        supports = (100.0, 500.0, 900.0) if n % 3 == 0 else (100.0, 900.0)
        common = {
            "key": f"s{n}",
            "top_mm": 200.0 + 200 * n,
            "depth_mm": 230.0 + n,
            "things": things,
            "supports_mm": supports,
        }
        pieces.append(rod_shelf(**common) if n % 4 == 3 else bracket_shelf(**common))
    return plan(*pieces)


def three_walls() -> object:
    """Return a room of three walls, ten shelves on each; the first shelf goes wall to wall."""
    from msgspec.structs import replace

    from tests.plans import wall
    from tests.trade.kind_case import piece
    from trade.plan.model import LedgerShelf, WallPlan
    from trade.plan.place import turned, with_wall

    here = ten_shelves()
    pieces: tuple[Any, ...] = here.pieces  # type: ignore[attr-defined]
    across = piece(
        LedgerShelf,
        key="across",
        left_mm=0.0,
        top_mm=2350.0,
        length_mm=3200.0,
        thickness_mm=18.0,
        board="plywood",
        supports_mm=tuple(400.0 * n for n in range(1, 8)),
    )
    plan = replace(here, pieces=(across, *pieces[1:]))  # type: ignore[type-var]
    for side in ("left", "right"):
        others = tuple(replace(each, key=f"{side}-{each.key}") for each in pieces)
        there = WallPlan(name=side, wall=wall(), pieces=others)
        plan = turned(with_wall(plan, side, there, 90.0), "wall")  # type: ignore[arg-type]
    return plan


def fifty_of_all_kinds() -> object:
    """Fifty pieces, every kind about three times, each with a spread and a single load."""
    from msgspec.structs import replace

    from tests.plans import plan, wall
    from trade.choose import placement
    from trade.mounts import KINDS
    from trade.plan.model import Plan, Thing

    on, pieces = wall(width_mm=6000.0), []
    for n in range(50):
        made = placement.put_up(
            Plan(name="Wall", units="metric", wall=on),
            sorted(KINDS)[n % len(KINDS)],
            1600.0,
            1500.0,
        )
        things = (
            Thing(name="Spread", mass_kg=5 + n / 10),
            Thing(name="Point", mass_kg=2 + n / 20, at_mm=200.0 + n),
        )
        pieces.append(replace(made, key=f"p{n}", things=things))
    return plan(*pieces, width_mm=6000.0)


def judgement() -> Iterator[tuple[str, Figures]]:
    """Choosing, the slowest of several cases, on a wall as one finds it.

    No two studs equally far apart. Caches are cleared.
    """
    from msgspec.structs import replace

    from tests.plans import bracket_shelf, wall
    from trade.choose import placement
    from trade.choose.capacity_map import map_capacity
    from trade.choose.cures import cures
    from trade.choose.options import find_options
    from trade.choose.request import wish_for
    from trade.memo import clear_memos
    from trade.mounts import KINDS
    from trade.plan.model import Plan, Stud, Thing

    places = (123, 531, 936, 1340, 1749, 2155, 2558, 2967, 3371, 3780)
    on = wall(
        width_mm=4000.0, studs=tuple(Stud(centre_mm=float(x), uncertainty_mm=2.0) for x in places)
    )
    bare = Plan(name="Wall", units="metric", wall=on)
    block = replace(bare, wall=replace(on, structure="block_hollow", studs=()))

    def cold(run: Callable[[], object]) -> Callable[[], object]:
        def cleared() -> object:
            clear_memos()
            return run()

        return cleared

    wishes = (
        ("books", 1500.0, bare),
        ("coats", 6.0, bare),
        ("magazines", 2500.0, bare),
        ("plant_medium", 5.0, block),
    )
    asked = [(plan, wish_for(plan, what, amount, 1600.0, 1500.0)) for what, amount, plan in wishes]
    load = (Thing(name="Load", mass_kg=6.0),)
    hung = [
        replace(placement.put_up(bare, kind, 2000.0, 1500.0), things=load)
        for kind in ("bracket_shelf", "rod_shelf", "rail")
    ]
    heavy = (Thing(name="Load", mass_kg=60.0),)
    failing = [
        replace(placement.put_up(bare, kind, 2000.0, 1500.0), things=heavy) for kind in KINDS
    ]
    failing.append(
        bracket_shelf(left_mm=760.0, bracket="pressed_small", screw_length_mm=38.1, things=heavy)
    )
    yield "ways to hang something", worst([cold(lambda a=a: find_options(*a)) for a in asked], 5)  # type: ignore[misc]
    yield (
        "the wall shaded, 4 m at 25 mm",
        worst([cold(lambda p=p: map_capacity(p, bare, 25.0)) for p in hung], 5),
    )  # type: ignore[misc]
    cured = [cold(lambda p=p: cures(bare.with_piece(p), p.key)) for p in failing]  # type: ignore[misc]
    yield "cures for a failing piece", worst(cured, 3)


def saw() -> Iterator[tuple[str, Figures]]:
    """Parts of four woods, half of them out of sheets and half out of boards, every size another.

    Nothing is remembered.
    """
    import random

    from msgspec.structs import replace

    from tests.plans import plan
    from trade.cutting import stock
    from trade.cutting.plan import cut_plan
    from trade.plan.model import Plan
    from trade.plan.shop import OwnPart, Shop

    dice = random.Random(60)

    woods = (
        ("plywood", 18.0, 0.0),
        ("pine_white", 19.05, 139.7),
        ("mdf", 18.0, 0.0),
        ("pine_white", 19.05, 235.0),
    )

    def own(n: int) -> OwnPart:
        board, thick, wide = woods[n % 4]
        long, wide = float(dice.randrange(150, 1100)), wide or float(dice.randrange(80, 600))
        return OwnPart(
            name=f"Part {n}", board=board, length_mm=long, width_mm=wide, thickness_mm=thick
        )

    def cold(of: Plan) -> None:
        stock._known.clear()
        found = cut_plan(of)
        assert len(found.parts) == len(of.shop.own), "a part is lost"
        assert not found.no_stock, found.no_stock

    for many in (60, 200):
        wall = replace(plan(), pieces=(), shop=Shop(own=tuple(own(n) for n in range(many))))
        yield f"{many} parts cut", measured(lambda of=wall: cold(of), 3)  # type: ignore[misc]


def against_frames() -> str:
    """Return the same continuous shelf solved by the core and by the frame library.

    How many times faster, one round each.
    """
    from Pynite import FEModel3D

    from trade.mechanics import beam
    from trade.memo import clear_memos

    places = (100.0, 700.0, 1300.0)
    loads = [beam.Load(200.0, 0.0, 1400.0), beam.Load(60.0, 400.0, 400.0)]

    def by_frames() -> None:
        model = FEModel3D()
        model.add_material("wood", 9_000.0, 600.0, 0.3, 0.0)
        model.add_section("board", 4_000.0, 1.4e5, 1.4e5, 1e5)
        for n, x in enumerate((0.0, *places, 1400.0)):
            model.add_node(f"n{n}", x, 0.0, 0.0)
            if n in (1, 2, 3):
                model.def_support(f"n{n}", n == 1, True, True, True, False, False)
        model.add_member("m", "n0", "n4", "wood", "board")
        model.add_member_dist_load("m", "Fy", -200 / 1400, -200 / 1400)
        model.add_member_pt_load("m", "Fy", -60.0, 400.0)
        model.analyze()

    def by_ours() -> None:
        clear_memos()
        beam.solve(1400.0, places, 1.26e9, loads)

    ours, theirs = measured(by_ours, number=20), measured(by_frames, 5)
    times = theirs.times / ours.times
    return (
        f"  one shelf: {ours.p50_ms:.2f} ms here, {theirs.p50_ms:.1f} ms by the frame library: "
        f"{times:.0f} times"
    )


def core() -> Iterator[tuple[str, Figures]]:
    """Yield the core, with every cache cleared before each round."""
    from trade.assess import assess
    from trade.memo import clear_memos

    def cold(wall: object) -> None:
        clear_memos()
        assess(wall)  # type: ignore[arg-type]

    ten, fifty = ten_shelves(), fifty_of_all_kinds()
    yield "assess a wall with ten shelves", measured(lambda: cold(ten), number=5)
    yield "assess fifty mountings of all kinds", measured(lambda: cold(fifty), number=2)
    for supports in (2, 40):
        long = on_supports(supports)
        yield f"a shelf on {supports} supports", measured(lambda: cold(long), number=5)  # noqa: B023 - it is run at once


def on_supports(many: int) -> object:
    """Return a shelf on so many supports, each on a stud, 300 mm apart."""
    from msgspec.structs import replace

    from tests.plans import bracket_shelf, plan, wall
    from trade.plan.model import Stud

    studs = tuple(Stud(centre_mm=400.0 + 300 * n, uncertainty_mm=2.0) for n in range(45))
    places = tuple(100.0 + 300 * n for n in range(many))
    shelf = bracket_shelf(left_mm=300.0, length_mm=places[-1] + 100.0, supports_mm=places)
    return replace(
        plan(width_mm=14_000.0), wall=wall(width_mm=14_000.0, studs=studs), pieces=(shelf,)
    )


def readings() -> Iterator[tuple[str, Figures]]:
    """Studs out of as many readings as a wall may have, of a wall 6 m wide."""
    import random

    from trade.plan.readings import Edge, Knock, Probe, Reading, Sweep
    from trade.wall.infer import infer

    dice, studs = random.Random(3), [19.0 + 406.4 * n for n in range(15)]
    swept: list[Reading] = []
    while len(swept) < 2_000:
        height = 300.0 + 7 * (len(swept) % 200)
        swept.append(Sweep(from_mm=0.0, to_mm=6000.0, height_mm=height))
        ends = [
            (stud + side, side < 0)
            for stud in studs
            for side in (-19.0, 19.0)
            if dice.random() < 0.9
        ]
        swept += [
            Edge(
                at_mm=max(at + dice.gauss(0, 3), 0.0),
                side="left" if left else "right",
                height_mm=height,
            )
            for at, left in ends
        ]
    pushed: list[Reading] = []
    for n in range(2_000):
        at = dice.uniform(0, 6000)
        pushed.append(
            Probe(at_mm=at, met=dice.choice(("wood", "air")))
            if n % 2
            else Knock(at_mm=at, sound="full")
        )  # type: ignore[arg-type]
    yield "2 000 readings, swept", measured(lambda: infer(6000.0, swept[:2_000]), 7)
    yield "2 000 readings, nails and knocks", measured(lambda: infer(6000.0, pushed), 7)


def shell() -> Iterator[tuple[str, Figures]]:
    """Commands in processes of their own, their start and their imports included."""
    root = Path(__file__).resolve().parents[1]
    for name, words in (
        ("a verdict", ["assess", "docs/example.plan.json"]),
        ("a schema", ["schema"]),
    ):
        took, wall, references = [], [], []
        for _ in range(8):
            references.append(reference_ms())
            before, begun = resource.getrusage(resource.RUSAGE_CHILDREN), time.perf_counter()
            subprocess.run(
                [sys.executable, "-m", "trade", *words],
                cwd=root,
                stdout=subprocess.DEVNULL,
                check=False,
            )
            wall.append((time.perf_counter() - begun) * 1000)
            after = resource.getrusage(resource.RUSAGE_CHILDREN)
            took.append(
                (after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime) * 1000
            )
        yield f"the shell: {name}", figures(took, wall, references)


def spread(fifty: object) -> object:
    """Return the fifty where they hang on a real wall.

    Five columns of ten, most of them clear of each other.
    """
    from msgspec.structs import replace

    from trade.plan.model import Plan

    assert isinstance(fifty, Plan)
    pieces = tuple(
        replace(
            piece,
            left_mm=float(min(100 + 1180 * (n % 5), 6000 - piece.length_mm)),
            top_mm=float(min(2399, piece.high_mm + n // 5 * 220)),
        )
        for n, piece in enumerate(fifty.pieces)
    )
    return replace(fifty, pieces=pieces)


def web() -> Iterator[tuple[str, Figures]]:
    """Yield the bench through Django's test client, from middleware to templates."""
    with tempfile.TemporaryDirectory() as folder:
        os.environ |= {
            "GANCHO_DATA": folder,
            "DJANGO_SETTINGS_MODULE": "gancho.settings",
            "GANCHO_HOSTS": "testserver",
        }
        import django

        django.setup()
        from django.core.management import call_command
        from django.db import connection
        from django.test import Client
        from django.test.utils import CaptureQueriesContext

        from bench.models import Job, Wall

        call_command("migrate", verbosity=0)
        client, headers = Client(raise_request_exception=True), {"HTTP_HX_REQUEST": "true"}
        side = iter(range(10**6))
        for many, plan in (
            ("three walls of 10", three_walls()),
            ("10", ten_shelves()),
            ("50", spread(fifty_of_all_kinds())),
        ):
            wall = Wall.begin(Job.objects.create(name="Job"), plan, "Begin")  # type: ignore[arg-type]
            key = plan.pieces[0].key  # type: ignore[attr-defined]

            def move(wall: Wall = wall, key: str = key, **more: str) -> bytes:
                now = Wall.objects.with_plans().get(pk=wall.pk)
                at = {
                    "base": str(now.brought_key),
                    "left_mm": str(600 + next(side) % 50),
                    "top_mm": "400",
                }
                values = {**at, "stage": "fix", "piece": key, "seen": key, **more}
                answer = client.post(f"/walls/{wall.pk}/pieces/{key}/move/", values, **headers)  # type: ignore[arg-type]
                assert answer.status_code == 200, answer.status_code
                return bytes(answer.content)

            size = len(move(live="1"))
            print(
                f"  a tick of a drag, {many} pieces: {size} bytes   limit {TICK_BYTES}   "
                f"{_ok(size <= TICK_BYTES)}"
            )
            yield f"a tick of a drag, {many} pieces", measured(lambda: move(live="1"), number=3)
            yield f"a kept move, {many} pieces", measured(move, number=3)
        with CaptureQueriesContext(connection) as asked:
            client.get(f"/walls/{wall.pk}/fix/?piece={key}")
        print(f"  queries of a page: {len(asked)}")
        yield (
            "a page, 50 pieces",
            measured(lambda: client.get(f"/walls/{wall.pk}/fix/?piece={key}"), number=3),
        )
        for _ in range(22):
            Wall.begin(wall.job, ten_shelves(), "Begin")  # type: ignore[arg-type]
        yield "the list of 24 walls", measured(lambda: client.get("/"), number=3)
        connection.close()


def _ok(held: bool) -> str:
    return "ok" if held else "MISSED"


def main() -> int:
    """Run all; 1 when a limit is missed."""
    missed = False
    collect_seldom()  # as where it is served
    print(
        "Gancho; processor time, and the clock's, of one run; against the limit as on the machine "
        "that it was set on:"
    )
    for measure in (core, readings, judgement, saw, web, shell):
        for name, found in measure():
            held = found.usual_ms <= LIMITS_MS[name]
            missed |= not held
            cpu = (
                f"p50 {found.p50_ms:8.2f} ms   p95 {found.p95_ms:8.2f} ms   clock "
                f"{found.wall_ms:8.2f} ms"
            )
            print(
                f"  {name:<36} {cpu}   {found.usual_ms:8.2f} of {LIMITS_MS[name]:6.1f}   "
                f"{_ok(held)}",
                flush=True,
            )
    print(against_frames())
    return int(missed)


if __name__ == "__main__":
    sys.exit(main())
