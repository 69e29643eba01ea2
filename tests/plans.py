"""Plans that tests start from. Sizes are round so that sums can be done by hand."""

from typing import Any

from msgspec.structs import replace

from trade.plan.model import AnyPiece, BracketShelf, Layer, Plan, RodShelf, Stud, Thing, Wall

GYPSUM = (Layer(kind="gypsum_12_7", thickness_mm=12.7),)
STUDS = tuple(
    Stud(centre_mm=400.0 * n, width_mm=38.0, depth_mm=89.0, uncertainty_mm=2.0) for n in range(1, 8)
)


def wall(**changes: Any) -> Wall:
    """3 200 by 2 400 mm, studs every 400 mm, gypsum board."""
    return replace(
        Wall(
            width_mm=3200.0, height_mm=2400.0, layers=GYPSUM, timber="spruce_pine_fir", studs=STUDS
        ),
        **changes,
    )


def bracket_shelf(**changes: Any) -> BracketShelf:
    """1 000 mm of oak on two braced brackets on the studs at 800 and 1 600 mm, 20 kg on it."""
    base = BracketShelf(
        key="shelf",
        name="Shelf",
        left_mm=700.0,
        top_mm=1500.0,
        length_mm=1000.0,
        depth_mm=250.0,
        thickness_mm=20.0,
        board="oak_red",
        use="everyday",
        supports_mm=(100.0, 900.0),
        bracket="braced",
        screw="wood_10",
        screw_length_mm=76.2,
        things=(Thing(name="Books", mass_kg=20.0),),
    )
    return replace(base, **changes)


def rod_shelf(**changes: Any) -> RodShelf:
    """The same place, floating, plates let in, 10 kg on show."""
    base = RodShelf(
        key="ledge",
        name="Ledge",
        left_mm=700.0,
        top_mm=900.0,
        length_mm=1000.0,
        depth_mm=250.0,
        thickness_mm=95.0,
        board="oak_red",
        use="display",
        supports_mm=(100.0, 900.0),
        plate="tall",
        let_in=True,
        screw="wood_10",
        screw_length_mm=63.5,
        things=(Thing(name="Cups", mass_kg=10.0),),
    )
    return replace(base, **changes)


def plan(*pieces: AnyPiece, **changes: Any) -> Plan:
    """The wall with some pieces on it."""
    return Plan(
        name="Test wall", units="metric", wall=wall(**changes), pieces=pieces or (bracket_shelf(),)
    )
