"""A made-up corner of the boathouse: panels with holes beside a door, holders round the corner."""

from msgspec.structs import replace

from bench.demo.places import framed_wall
from bench.demo.walls import put
from trade.measure import IN_MM
from trade.plan.features import usual
from trade.plan.model import Plan, Thing, WallPlan
from trade.plan.place import turned, with_wall


def tool_corner() -> Plan:
    """Return the corner by the boathouse door: its studs are at odd places beside the door.

    Three panels on shared battens, so that neither minds the other's spacing; cleats for holders
    round the corner.
    """
    high = 96 * IN_MM
    studs = (0.75, 16.0, 32.0, 48.0, 64.0, 71.5, 79.25, 80.75, 119.25, 120.75, 132.0, 143.25)
    size = (144 * IN_MM, high)
    door = usual("door", 100 * IN_MM, None, size)
    outlet = usual("outlet", 50 * IN_MM, 40 * IN_MM, size)
    back = replace(framed_wall(*size, *(x * IN_MM for x in studs)), features=(door, outlet))
    plan = Plan(name="Tool corner by the door", units="imperial", wall=back, faced="Door wall")
    side = framed_wall(78 * IN_MM, high, *(x * IN_MM for x in (2.0, 14.0, 30.0, 46.0, 62.0, 76.0)))
    plan = turned(with_wall(plan, "left", WallPlan(name="Left wall", wall=side), 90.0), "wall")
    plan = put(
        plan,
        "grid_panel",
        (38 * IN_MM, 76 * IN_MM),
        "panels",
        "Tool panels",
        length_mm=72 * IN_MM,
        left_mm=2 * IN_MM,
        height_mm=24 * IN_MM,
        panels=3,
        use="hard",
        things=(
            Thing(name="Hand saws, five", mass_kg=3.0, at_mm=300.0, high_mm=520.0),
            Thing(name="Spokeshaves and planes", mass_kg=4.0, at_mm=900.0, out_mm=60.0),
            Thing(name="Clamps, four", mass_kg=3.5, at_mm=1450.0, out_mm=60.0, high_mm=400.0),
        ),
    )
    plan = put(
        turned(plan, "wall-2"),
        "cleat_wall",
        (38 * IN_MM, 80 * IN_MM),
        "cleats",
        "Holders for drills and sanders",
        length_mm=56 * IN_MM,
        rows=3,
        apart_mm=9 * IN_MM,
        holder_mm=10 * IN_MM,
        depth_mm=6 * IN_MM,
        things=(
            Thing(name="Drills in holders", mass_kg=6.0),
            Thing(name="Belt sander in its holder", mass_kg=4.5, at_mm=700.0),
        ),
    )
    return turned(plan, "wall")
