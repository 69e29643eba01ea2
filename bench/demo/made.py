"""A made-up wall whose bodies are made at home: a pair of bookcases, a box mantel, a bench."""

from msgspec.structs import replace

from bench.demo.places import framed_wall
from bench.demo.walls import put
from trade.plan.features import usual
from trade.plan.model import Plan, Thing
from trade.plan.shop import Finish, Shop


def quiet_room() -> Plan:
    """Return the library's quiet room: two bookcases side by side, a box mantel, a bench."""
    size = (5200.0, 2600.0)
    studs = (30.0, *(400.0 * n for n in range(1, 13)), 5170.0)
    outlet = usual("outlet", 4900.0, None, size)
    wall = replace(framed_wall(*size, *studs), features=(outlet,))
    plan = Plan(name="Quiet room", units="metric", wall=wall)
    plan = replace(plan, shop=Shop(finish=Finish(top="water_varnish")))
    for key, name, middle, things in (
        ("plays", "Plays", 500.0, 70.0),
        ("travels", "Travels", 1300.0, 80.0),
    ):
        plan = put(
            plan,
            "bookcase",
            (middle, 2100.0),
            key,
            name,
            length_mm=800.0,
            height_mm=2100.0,
            depth_mm=300.0,
            joint="housed",
            fixed_rows=1,
            loose_shelves=4,
            things=(Thing(name="Books", mass_kg=things),),
        )
    plan = put(
        plan,
        "box_shelf",
        (2600.0, 1250.0),
        "mantel",
        "Box mantel",
        length_mm=1400.0,
        height_mm=150.0,
        depth_mm=200.0,
        skin_mm=18.0,
        mitred=True,
        use="display",
        things=(Thing(name="Model boats, three", mass_kg=4.5),),
    )
    return put(
        plan,
        "ledger_bench",
        (4200.0, 450.0),
        "window-seat",
        "Long bench",
        length_mm=1500.0,
        depth_mm=420.0,
        legs=3,
        things=(Thing(name="Cushions", mass_kg=3.0),),
    )
