"""What goes onto a wall later: what it hides of a piece, what it buries, and when to hang it."""

from msgspec.structs import replace

from trade import data, wording
from trade.assess import assess_piece
from trade.calculation import Quantity
from trade.check import Message, Placeholders
from trade.fixings import driving
from trade.fixings.support import Support
from trade.language import joined
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Layer, Plan, Stud, Wall

_LONG = "structural_1_4"  # what is sold longest


def covered(wall: Wall) -> Wall:
    """Return a wall as it will be, with all that goes onto it."""
    if not wall.coming or wall.layers is None:
        return wall
    new = tuple(Layer(kind=c.kind, thickness_mm=c.thickness_mm) for c in reversed(wall.coming))
    return replace(wall, layers=(*new, *wall.layers), coming=())


def to_mind(piece: AnyPiece, plan: Plan) -> list[Message]:
    """Return what to mind with a piece that does not hang yet, where something is to come."""
    wall = plan.wall
    if not wall.coming or plan.as_built.hangs(piece.key):
        return []
    thick = sum(each.thickness_mm for each in wall.coming)
    days = [each.on for each in wall.coming if each.on is not None]
    what = joined(data.linings()[each.kind].short for each in wall.coming)
    sizes: Placeholders = {
        "what": what,
        "t": Quantity(thick, "length"),
        "depth": Quantity(piece.depth_mm, "length"),
        "rest": Quantity(max(piece.depth_mm - thick, 0.0), "length"),
    }
    said = (
        "Some day {what} goes onto this wall, {t} thick. Hung before, {rest} of its {depth} show."
    )
    if days:
        sizes["day"] = min(days).isoformat()
        said = (
            "On {day} {what} goes onto this wall, {t} thick. Hung before, {rest} of its {depth} "
            "show."
        )
    return [Message(said, sizes), *_buried(piece, wall, thick), *_after(piece, wall)]


def _buried(piece: AnyPiece, wall: Wall, thick_mm: float) -> list[Message]:
    """Return what can't be reached any more if it is hung before."""
    supports = [s for s in mount_of(piece).supports(piece, wall) if isinstance(s, Support)]
    if not supports:
        return []
    size: Placeholders = {"t": Quantity(thick_mm, "length")}
    if all(support.blind for support in supports):
        said = "Its rods stand {t} less out of the wall then: take them so much longer."
        return [Message(said, size)]
    size["n"] = sum(len(support.holes) for support in supports)
    said = (
        "Hung before, its {n} screws are buried behind it, and it does not come off again: set "
        "it on blocks {t} thick, or hang it after."
    )
    return [Message(said, size)]


def _after(piece: AnyPiece, wall: Wall) -> list[Message]:
    """How it holds through all of it, and with how long a screw."""
    if wall.layers is None or wall.build == "mass":
        return []
    later, system = covered(wall), data.screws()[piece.screw].system
    first = next(iter(mount_of(piece).supports(piece, later)), None)
    if not isinstance(first, Support) or first.anchored:
        return []
    needed, layers = data.house("embedment_mm"), first.layers_mm
    room = layers + Stud(centre_mm=0.0).depth_mm
    # no thin screw is sold long enough to go through thick stone
    for key in dict.fromkeys((piece.screw, data.screw_in(_LONG, system))):
        screw = data.screws()[key]
        long = driving.suggest_length_mm(screw, layers, needed, room)
        if driving.reach(screw, long, layers).embedment_mm < needed:
            continue
        verdict = assess_piece(replace(piece, screw=key, screw_length_mm=long), later)
        sizes: Placeholders = {
            "l": Quantity(long, "length"),
            "screw": screw.called(system),
            "word": wording.outcome(verdict),
        }
        return [Message("Hung after, through it, with {screw}, {l}: {word!l}.", sizes)]
    return [Message("No screw is sold long enough to hang it after, through it all.")]
