"""One ordinary piece of each kind on an ordinary wall, to explain the kind with."""

from functools import cache
from typing import Any

from msgspec.structs import replace

from trade.choose import placement
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Layer, Plan, Stud, Thing, Wall

_BODY_KG = 20.0
_LOAD = (Thing(name="What it carries", mass_kg=6.0),)


@cache
def sample_wall() -> Wall:
    """Gypsum board on spruce studs 400 mm apart."""
    places = (30.0, *(400.0 * n for n in range(1, 8)))  # one in the corner
    studs = tuple(
        Stud(centre_mm=x, width_mm=38.0, depth_mm=89.0, uncertainty_mm=1.0) for x in places
    )
    layers = (Layer(kind="gypsum_12_7", thickness_mm=12.7),)
    return Wall(
        width_mm=3200.0, height_mm=2400.0, layers=layers, timber="spruce_pine_fir", studs=studs
    )


@cache
def sample(kind: str) -> AnyPiece:
    """Return a piece as it is put up in the middle of that wall, with 6 kg on it.

    Raises:
        PlanError: no such kind.
    """
    piece: Any = placement.put_up(
        Plan(name="Wall", units="metric", wall=sample_wall()), kind, 1600.0, 1500.0
    )
    mount = mount_of(piece)
    known = {"body_kg": _BODY_KG} if mount.has_body else {}
    return replace(mount.confirmed(piece), things=_LOAD, **known)
