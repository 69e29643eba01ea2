"""How fast the core judges and the bench answers. `python -m benchmarks` prints each against its limit.

Exit status 1 when a limit is missed. Figures are the best of many rounds, for the noise of a shared machine only ever
adds; what remains of a slow machine is told by a yardstick.
"""

import os
import sys
import tempfile
import timeit
from collections.abc import Callable

YARDSTICK_MS = 7.3  # when the limits were set
LIMITS_MS = {
    "assess a wall with ten shelves": 15.0,  # a single shelf 1.5
    "assess fifty mountings of all kinds": 50.0,
    "ways to hang something": 300.0,
    "the wall shaded, 4 m at 25 mm": 300.0,
    "cures for a failing piece": 150.0,
    "60 parts cut": 1000.0,
    "200 parts cut": 5000.0,
    "fragment after a drag": 60.0,
    "fragment while dragging": 60.0,
    "page": 100.0,
}


def best_ms(run: Callable[[], object], number: int, repeat: int = 15) -> float:
    """Best time of one run, ms."""
    run()
    return min(timeit.repeat(run, number=number, repeat=repeat)) / number * 1000


def ten_shelves() -> object:
    """A wall with ten different shelves of both kinds, two and three supports, points and spread loads."""
    from tests.plans import bracket_shelf, plan, rod_shelf
    from trade.plan import Thing

    pieces = []
    for n in range(10):
        things = (Thing(name="Spread", mass_kg=8.0 + n), Thing(name="Point", mass_kg=2.0 + n / 7, at_mm=300.0 + 31 * n))
        supports = (100.0, 500.0, 900.0) if n % 3 == 0 else (100.0, 900.0)
        common = {"key": f"s{n}", "top_mm": 200.0 + 200 * n, "depth_mm": 230.0 + n, "things": things, "supports_mm": supports}
        pieces.append(rod_shelf(**common) if n % 4 == 3 else bracket_shelf(**common))
    return plan(*pieces)


def fifty_of_all_kinds() -> object:
    """Fifty pieces, every kind about three times, each with a spread and a single load."""
    from msgspec.structs import replace

    from tests.plans import plan, wall
    from trade.choose import placement
    from trade.mounts import KINDS
    from trade.plan import Plan, Thing

    on, pieces = wall(width_mm=6000.0), []
    for n in range(50):
        made = placement.put_up(Plan(name="Wall", units="metric", wall=on), sorted(KINDS)[n % len(KINDS)], 1600.0, 1500.0)
        things = (Thing(name="Spread", mass_kg=5 + n / 10), Thing(name="Point", mass_kg=2 + n / 20, at_mm=200.0 + n))
        pieces.append(replace(made, key=f"p{n}", things=things))
    return plan(*pieces, width_mm=6000.0)


def judgement() -> dict[str, float]:
    """Choosing, the slowest of several cases, on a wall as one finds it: no two studs equally far apart. Caches are cleared."""
    from msgspec.structs import replace

    from tests.plans import bracket_shelf, wall
    from trade.choose import placement
    from trade.choose.cures import cures
    from trade.choose.spots import spots
    from trade.choose.ways import ways
    from trade.choose.wish import wish_for
    from trade.mounts import KINDS
    from trade.plan import Plan, Stud, Thing
    from trade.remembered import forget

    places = (123, 531, 936, 1340, 1749, 2155, 2558, 2967, 3371, 3780)
    on = wall(width_mm=4000.0, studs=tuple(Stud(centre_mm=float(x), uncertainty_mm=2.0) for x in places))
    bare = Plan(name="Wall", units="metric", wall=on)
    block = replace(bare, wall=replace(on, structure="block_hollow", studs=()))

    def cold(run: Callable[[], object]) -> Callable[[], object]:
        def cleared() -> object:
            forget()
            return run()

        return cleared

    wishes = (("books", 1500.0, bare), ("coats", 6.0, bare), ("magazines", 2500.0, bare), ("plant_medium", 5.0, block))
    asked = [(plan, wish_for(plan, what, amount, 1600.0, 1500.0)) for what, amount, plan in wishes]
    load = (Thing(name="Load", mass_kg=6.0),)
    hung = [replace(placement.put_up(bare, kind, 2000.0, 1500.0), things=load) for kind in ("bracket_shelf", "rod_shelf", "rail")]
    heavy = (Thing(name="Load", mass_kg=60.0),)
    failing = [replace(placement.put_up(bare, kind, 2000.0, 1500.0), things=heavy) for kind in KINDS]
    failing.append(bracket_shelf(left_mm=760.0, bracket="pressed_small", screw_length_mm=38.1, things=heavy))
    return {
        "ways to hang something": max(best_ms(cold(lambda a=a: ways(*a)), 1, 5) for a in asked),  # type: ignore[misc]
        "the wall shaded, 4 m at 25 mm": max(best_ms(cold(lambda p=p: spots(p, bare, 25.0)), 1, 5) for p in hung),  # type: ignore[misc]
        "cures for a failing piece": max(
            best_ms(cold(lambda p=p: cures(bare.with_piece(p), p.key)), 1, 3)  # type: ignore[misc]
            for p in failing
        ),
    }


def saw() -> dict[str, float]:
    """Parts of four woods, half of them out of sheets and half out of boards, every size another; nothing is remembered."""
    import random

    from msgspec.structs import replace

    from tests.plans import plan
    from trade.cut import yard
    from trade.cut.plan import cut_plan
    from trade.plan import Plan
    from trade.shop import OwnPart, Shop

    dice = random.Random(60)

    woods = (("plywood", 18.0, 0.0), ("pine_white", 19.05, 139.7), ("mdf", 18.0, 0.0), ("pine_white", 19.05, 235.0))

    def own(n: int) -> OwnPart:
        board, thick, wide = woods[n % 4]
        long, wide = float(dice.randrange(150, 1100)), wide or float(dice.randrange(80, 600))
        return OwnPart(name=f"Part {n}", board=board, length_mm=long, width_mm=wide, thickness_mm=thick)

    def cold(of: Plan) -> None:
        yard._known.clear()
        found = cut_plan(of)
        assert len(found.parts) == len(of.shop.own), "a part is lost"
        assert not found.no_stock, found.no_stock

    walls = {many: replace(plan(), pieces=(), shop=Shop(own=tuple(own(n) for n in range(many)))) for many in (60, 200)}
    return {f"{many} parts cut": best_ms(lambda of=of: cold(of), 1, 3) for many, of in walls.items()}  # type: ignore[misc]


def against_frames() -> str:
    """The same continuous shelf solved by the core and by the frame library: how many times faster, one round each."""
    from Pynite import FEModel3D

    from trade.mechanics import beam
    from trade.remembered import forget

    places, loads = (100.0, 700.0, 1300.0), [beam.Load(200.0, 0.0, 1400.0), beam.Load(60.0, 400.0, 400.0)]

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
        forget()
        beam.solve(1400.0, places, 1.26e9, loads)

    ours = best_ms(by_ours, 20)
    theirs = best_ms(by_frames, 1, 5)
    return f"  one shelf: {ours:.2f} ms here, {theirs:.1f} ms by the frame library: {theirs / ours:.0f} times"


def core() -> dict[str, float]:
    """The core, with every cache cleared before each round."""
    from trade.assess import assess
    from trade.remembered import forget

    def cold(wall: object) -> None:
        forget()
        assess(wall)  # type: ignore[arg-type]

    ten, fifty = ten_shelves(), fifty_of_all_kinds()
    return {
        "assess a wall with ten shelves": best_ms(lambda: cold(ten), 5),
        "assess fifty mountings of all kinds": best_ms(lambda: cold(fifty), 2),
    }


def web() -> dict[str, float]:
    """The bench through Django's test client: middleware, view, database, drawing, templates."""
    with tempfile.TemporaryDirectory() as folder:
        os.environ |= {"GANCHO_DATA": folder, "DJANGO_SETTINGS_MODULE": "gancho.settings", "GANCHO_HOSTS": "testserver"}
        import django

        django.setup()
        from django.core.management import call_command
        from django.db import connection
        from django.test import Client
        from django.test.utils import CaptureQueriesContext

        from bench.models import Job, Wall

        call_command("migrate", verbosity=0)
        wall = Wall.begin(Job.objects.create(name="Job"), ten_shelves(), "Begin")  # type: ignore[arg-type]
        client, headers = Client(raise_request_exception=True), {"HTTP_HX_REQUEST": "true"}
        here = f"/walls/{wall.pk}/"
        side = iter(range(10**6))

        def move(**more: str) -> None:
            now = Wall.objects.with_plans().get(pk=wall.pk)
            values = {"base": str(now.brought_key), "left_mm": str(600 + next(side) % 50), "top_mm": "200", **more}
            answer = client.post(f"{here}pieces/s0/move/", values, **headers)  # type: ignore[arg-type]
            assert answer.status_code == 200, answer.status_code

        with CaptureQueriesContext(
            connection,
        ) as asked:
            client.get(f"{here}fix/?piece=s0")
        print(f"  queries of a page: {len(asked)}")
        found = {
            "fragment after a drag": best_ms(move, 3),
            "fragment while dragging": best_ms(lambda: move(live="1", seen="s0"), 3),
            "page": best_ms(lambda: client.get(f"{here}fix/?piece=s0"), 3),
        }
        connection.close()
        return found


def yardstick_ms() -> float:
    """A fixed piece of plain Python, to tell a slow machine (or a slow minute of it) from slow code."""
    return best_ms(lambda: sum(i * i for i in range(100_000)), 1)


def main() -> int:
    """Run all; 1 when a limit is missed. Limits are for a machine whose yardstick is 7.3 ms and grow with it."""
    missed = False
    print("Gancho, best of many rounds:")
    for measure in (core, judgement, saw, web):
        before = yardstick_ms()
        found = measure()
        slow = max((before + yardstick_ms()) / 2 / YARDSTICK_MS, 1.0)
        print(f"  yardstick {slow * YARDSTICK_MS:.1f} ms")
        for name, ms in found.items():
            limit = LIMITS_MS[name] * slow
            missed |= ms > limit
            print(f"  {name:<34} {ms:7.2f} ms   limit {limit:6.1f} ms   {'ok' if ms <= limit else 'MISSED'}")
    print(against_frames())
    return int(missed)


if __name__ == "__main__":
    sys.exit(main())
