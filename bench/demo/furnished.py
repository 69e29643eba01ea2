"""Made-up places with furniture in front of their walls: a bedroom, a desk in a corner."""

from datetime import date

from msgspec.structs import replace

from bench.demo.places import framed_wall
from bench.demo.walls import RENTED, put
from trade.measure import IN_MM
from trade.plan.features import usual
from trade.plan.model import Covering, Plan, Thing, WallPlan
from trade.plan.place import turned, with_wall


def bedroom() -> Plan:
    """Return the flat's bedroom: a bed, a box to either side of it, one of them round the corner.

    One box covers an outlet and has an opening for it; the shelf over the bed is for hard use, with
    a lamp under it; panelling comes in spring.
    """
    size = (3200.0, 2500.0)
    bed = usual("bed", 1500.0, None, size)
    outlet = usual("outlet", 520.0, 520.0, size)
    later = Covering(kind="panelling", thickness_mm=12.0, on=date(2027, 4, 3))
    back = replace(
        framed_wall(*size, 40.0, 340.0, 660.0, 1060.0, 1460.0, 1860.0, 2350.0, 2690.0, 3160.0),
        features=(bed, outlet),
        coming=(later,),
    )
    plan = Plan(name="Bedroom with the fern", units="metric", wall=back, faced="Bed wall")
    plan = replace(plan, policy=RENTED)
    side = framed_wall(2600.0, 2500.0, *(2560.0 - 400.0 * n for n in range(7)))
    plan = turned(with_wall(plan, "left", WallPlan(name="Window wall", wall=side), 90.5), "wall")
    for end, middle, beside in (
        ("left", 500.0, "Books and a water glass"),
        ("right", 2520.0, "Books and an alarm clock"),
    ):
        plan = put(
            plan,
            "cleat_cabinet",
            (middle, 640.0),
            f"box-{end}",
            f"Bedside box, {end}",
            length_mm=420.0,
            height_mm=320.0,
            depth_mm=320.0,
            body_kg=None if end == "left" else 5.5,
            joint="mitred" if end == "left" else None,
            drawer_mm=90.0 if end == "left" else 0.0,
            locked=True,
            cut_out=end == "left",
            cleat_mm=18.0,
            down_mm=30.0,
            use="everyday",
            things=(Thing(name=beside, mass_kg=4.0),),
        )
    plan = put(
        plan,
        "bracket_shelf",
        (1460.0, 1500.0),
        "over-bed",
        "Shelf over the bed",
        length_mm=1000.0,
        depth_mm=200.0,
        use="hard",
        cord="lamp_lead",
        supports_mm=(100.0, 500.0, 900.0),
        things=(Thing(name="Paperbacks", mass_kg=9.0, high_mm=190.0),),
    )
    plan = put(
        turned(plan, "wall-2"),
        "bracket_shelf",
        (1360.0, 1200.0),
        "fern",
        "Shelf for the fern",
        length_mm=900.0,
        depth_mm=250.0,
        things=(Thing(name="Ferns, three", mass_kg=9.0, high_mm=350.0),),
    )
    return turned(plan, "wall")


def desk_corner() -> Plan:
    """Return the library's desk corner: two desks that meet, a quarter round above.

    An old shelf and an old baseboard come off first; trunking ends the coat rail, which is jointed
    over a stud.
    """
    size = (150 * IN_MM, 100 * IN_MM)
    old = replace(usual("old_shelf", 40 * IN_MM, 58 * IN_MM, size), right_mm=58 * IN_MM)
    low = usual("old_baseboard", 75 * IN_MM, None, size)
    run = usual("trunking", 140 * IN_MM, None, size)
    back = replace(
        framed_wall(*size, *(x * IN_MM for x in (2, 12, 28, 44, 60, 76, 92, 108, 124, 140, 148))),
        features=(old, low, run),
    )
    plan = Plan(name="Desk corner", units="imperial", wall=back, faced="Long wall")
    side = framed_wall(
        84 * IN_MM, 100 * IN_MM, *((84.0 - x) * IN_MM for x in (3, 12, 22, 38, 54, 70, 82))
    )
    plan = turned(with_wall(plan, "left", WallPlan(name="Window wall", wall=side), 90.0), "wall")
    plan = put(
        plan,
        "ledger_bench",
        (30 * IN_MM, 29 * IN_MM),
        "desk",
        "Desk in the corner",
        length_mm=60 * IN_MM,
        left_mm=0.0,
        depth_mm=24 * IN_MM,
        left_side=True,
        legs=1,
        apron_mm=4.5 * IN_MM,
        thickness_mm=1.5 * IN_MM,
        use="everyday",
        cord="plug",
        cord_at_mm=40 * IN_MM,
        things=(Thing(name="Screen and papers", mass_kg=14.0),),
    )
    plan = put(
        plan,
        "corner_shelf",
        (8 * IN_MM, 62 * IN_MM),
        "round",
        "Globe shelf",
        corner="left",
        left_mm=0.0,
        length_mm=13.75 * IN_MM,
        depth_mm=13.75 * IN_MM,
        front="round",
        other_mm=12 * IN_MM,
        supports_mm=(2 * IN_MM, 12 * IN_MM),
        things=(Thing(name="Globe", mass_kg=2.0),),
    )
    plan = put(
        plan,
        "rail",
        (98 * IN_MM, 66 * IN_MM),
        "coats",
        "Coat rail",
        length_mm=76 * IN_MM,
        left_mm=61 * IN_MM,
        joint_mm=31 * IN_MM,
        use="hard",
        things=tuple(
            Thing(name=f"Coats, hook {n}", mass_kg=2.5, at_mm=(7 + 15 * n) * IN_MM, high_mm=1000.0)
            for n in range(5)
        ),
    )
    plan = put(
        turned(plan, "wall-2"),
        "ledger_bench",
        (36 * IN_MM, 29 * IN_MM),
        "wing",
        "Wing of the desk",
        length_mm=48 * IN_MM,
        left_mm=12 * IN_MM,
        depth_mm=20 * IN_MM,
        right_on="desk",
        joint_screws=12,
        legs=1,
        apron_mm=4.5 * IN_MM,
        thickness_mm=1.5 * IN_MM,
        use="everyday",
        things=(Thing(name="Card index", mass_kg=8.0),),
    )
    return turned(plan, "wall")
