"""Made-up places whose walls meet: a closet of three walls, alcoves beside a chimney breast."""

from datetime import date

from msgspec.structs import replace

from bench.demo.walls import RENTED, put
from trade.measure import IN_MM
from trade.plan.facing import Opening
from trade.plan.features import usual
from trade.plan.model import Covering, Layer, Plan, Stud, Thing, Wall, WallPlan
from trade.plan.place import turned, with_wall

_GYPSUM = (Layer(kind="gypsum_12_7", thickness_mm=12.7),)


def framed_wall(width_mm: float, height_mm: float, *studs_mm: float, off_mm: float = 2.0) -> Wall:
    """Studs at these places, plasterboard on them."""
    return Wall(
        width_mm=width_mm,
        height_mm=height_mm,
        layers=_GYPSUM,
        timber="spruce_pine_fir",
        studs=tuple(Stud(centre_mm=x, uncertainty_mm=off_mm) for x in studs_mm),
    )


def linen_closet() -> Plan:
    """Return a closet of three walls in the flat.

    Three shelves on ledgers: the right wall has one stud that they reach, and toggles besides.
    """
    back = framed_wall(1515.0, 2400.0, 60.0, 400.0, 800.0, 1200.0, 1455.0)
    plan = Plan(name="Linen closet", units="metric", wall=back, faced="Back wall", policy=RENTED)
    left = WallPlan(name="Left wall", wall=framed_wall(620.0, 2400.0, 320.0, 500.0))
    plan = turned(with_wall(plan, "left", left, 89.2), "wall")
    right = WallPlan(name="Right wall", wall=framed_wall(620.0, 2400.0, 120.0, 551.0))
    plan = turned(with_wall(plan, "right", right, 90.6), "wall")
    for key, name, top, thing, kg in (
        ("cases", "Suitcases", 2000.0, "Empty suitcases", 9.0),
        ("linen", "Bed linen", 1640.0, "Bed linen", 10.0),
        ("albums", "Photo albums", 1280.0, "Photo albums", 18.0),
    ):
        plan = put(
            plan,
            "ledger_shelf",
            (757.0, top),
            key,
            name,
            length_mm=1515.0,
            left_mm=0.0,
            depth_mm=350.0,
            stiffener_mm=64.0,
            use="display",
            side_anchor="toggle_14",
            supports_mm=(60.0, 400.0, 800.0, 1200.0, 1455.0),
            things=(Thing(name=thing, mass_kg=kg),),
        )
    return replace(plan, opening=Opening(width_mm=1120.0, height_mm=2030.0, away_mm=620.0))


def pantry() -> Plan:
    """Return the boathouse's pantry corner: deep shelves at the back, shallow ones along the right.

    The shallow ones rest on the deep ones in the corner, and on an upright by the door.
    """
    high = 96 * IN_MM
    back = framed_wall(60 * IN_MM, high, *(x * IN_MM for x in (2.0, 14.0, 30.0, 46.0, 58.0)))
    plan = Plan(name="Pantry by the galley", units="imperial", wall=back, faced="Back wall")
    left = WallPlan(name="Left wall", wall=framed_wall(36 * IN_MM, high, 22 * IN_MM, 30 * IN_MM))
    plan = turned(with_wall(plan, "left", left, 90.0), "wall")
    side = framed_wall(66 * IN_MM, high, *(x * IN_MM for x in (5.0, 12.0, 28.0, 44.0, 60.0)))
    right = with_wall(plan, "right", WallPlan(name="Right wall", wall=side), 90.0)
    for n, (name, top) in enumerate((("Tins", 66.0), ("Jars", 48.0)), start=1):
        deep = f"deep-{n}"
        right = put(
            turned(right, "wall"),
            "ledger_shelf",
            (30 * IN_MM, top * IN_MM),
            deep,
            f"{name}, deep",
            length_mm=60 * IN_MM,
            left_mm=0.0,
            depth_mm=16 * IN_MM,
            stiffener_mm=3.5 * IN_MM,
            use="everyday",
            ledger_high_mm=2.5 * IN_MM,
            things=(Thing(name=name, mass_kg=12.0),),
        )
        right = put(
            turned(right, "wall-3"),
            "ledger_shelf",
            (38 * IN_MM, top * IN_MM),
            f"side-{n}",
            f"{name}, shallow",
            length_mm=44 * IN_MM,
            left_mm=16 * IN_MM,
            depth_mm=10 * IN_MM,
            stiffener_mm=2.5 * IN_MM,
            use="everyday",
            left_on=deep,
            joint_screws=8,
            right_side=False,
            right_upright=True,
            upright_mm=None if n == 2 else 17.25 * IN_MM,
            things=(Thing(name=name, mass_kg=8.0),),
        )
    return turned(right, "wall")


def alcoves() -> Plan:
    """Return the two alcoves beside the library's old chimney breast: five walls.

    A beam over the fireplace, ledger shelves in the left alcove, a corner shelf in the right one.
    """
    high = 102 * IN_MM
    brick = Wall(width_mm=58 * IN_MM, height_mm=high, layers=(), structure="brick_solid")
    cheek = replace(brick, width_mm=15 * IN_MM)
    hearth = usual("fireplace", 29 * IN_MM, None, (58 * IN_MM, high))
    stone = Covering(kind="stone", thickness_mm=1.75 * IN_MM, on=date(2027, 3, 1))
    fronted = replace(brick, features=(hearth,), coming=(stone,))
    breast = WallPlan(name="Chimney breast", wall=fronted)
    plan = Plan(
        name="Alcoves by the chimney",
        units="imperial",
        wall=framed_wall(42 * IN_MM, high, 12 * IN_MM, 28 * IN_MM, off_mm=3.0),
        faced="Left alcove",
    )
    outer = WallPlan(name="Window wall", wall=framed_wall(30 * IN_MM, high, 21 * IN_MM, 26 * IN_MM))
    plan = turned(with_wall(plan, "left", outer, 90.0), "wall")
    plan = with_wall(plan, "right", WallPlan(name="Left cheek", wall=cheek), 90.0)
    plan = with_wall(plan, "right", breast, 270.0)
    plan = with_wall(plan, "right", WallPlan(name="Right cheek", wall=cheek), 270.0)
    right = WallPlan(
        name="Right alcove",
        wall=framed_wall(46 * IN_MM, high, 3 * IN_MM, 12 * IN_MM, 28 * IN_MM, 44 * IN_MM),
    )
    plan = with_wall(plan, "right", right, 90.0)
    plan = put(
        turned(plan, "wall-4"),
        "rod_beam",
        (29 * IN_MM, 54 * IN_MM),
        "mantel",
        "Mantel",
        left_mm=3 * IN_MM,
        length_mm=52 * IN_MM,
        depth_mm=7.25 * IN_MM,
        thickness_mm=3.5 * IN_MM,
        board="oak_white",
        use="display",
        things=(Thing(name="Clock and candlesticks", mass_kg=6.0),),
    )
    plan = put(
        turned(plan, "wall-6"),
        "corner_shelf",
        (8 * IN_MM, 60 * IN_MM),
        "globe",
        "Shelf for the globe",
        corner="left",
        left_mm=0.0,
        length_mm=14 * IN_MM,
        depth_mm=14 * IN_MM,
        other_mm=11 * IN_MM,
        supports_mm=(3 * IN_MM, 12 * IN_MM),
        side_anchor="plug_8",
        things=(Thing(name="Globe", mass_kg=2.0),),
    )
    plan = turned(plan, "wall")
    for key, name, top, kg in (
        ("maps", "Atlases", 48.0, 14.0),
        ("poets", "Poets", 64.0, 10.0),
    ):
        plan = put(
            plan,
            "ledger_shelf",
            (21 * IN_MM, top * IN_MM),
            key,
            name,
            length_mm=42 * IN_MM,
            left_mm=0.0,
            depth_mm=11.25 * IN_MM,
            board="oak_red",
            thickness_mm=0.75 * IN_MM,
            stiffener_mm=1.5 * IN_MM,
            use="everyday",
            side_anchor="plug_8",
            supports_mm=(12 * IN_MM, 28 * IN_MM),
            things=(Thing(name=f"{name}, a row", mass_kg=kg),),
        )
    return plan
