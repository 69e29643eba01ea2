"""Whether things fit on a piece and people reach it.

What stands above it, how high hands come, what goes through a door.
"""

from itertools import pairwise

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, Message, Placeholders, make
from trade.mounts import mount_of, openings
from trade.mounts.base import Box
from trade.plan.model import AnyPiece, Wall
from trade.wall.scribing import lowest_ceiling_mm

_TOUCHING_MM = 1e-6


def headroom_mm(piece: AnyPiece) -> float:
    """Return what must stay free above a piece for the tallest thing on it and a hand.

    0 where nobody said how high things are.
    """
    if mount_of(piece).carries != "on":
        return 0.0
    tallest = max(
        (thing.high_mm for thing in piece.things if thing.high_mm is not None), default=None
    )
    return 0.0 if tallest is None else tallest + data.house("hand_room_mm")


def items(piece: AnyPiece, own: Box, taken: list[tuple[AnyPiece, Box]], wall: Wall) -> Check | None:
    """Check the tallest thing on a shelf, and a hand's room, against what is above it.

    None where nobody said how high things are.

    Args:
        piece: the shelf.
        own: the room it takes.
        taken: everything on the wall with the room that it takes.
        wall: whose ceiling ends it.
    """
    tall = [thing for thing in piece.things if thing.high_mm is not None]
    if not tall or mount_of(piece).carries != "on":
        return None
    over = [
        room.bottom_mm
        for other, room in taken
        if other.key != piece.key
        and room.bottom_mm >= own.top_mm - _TOUCHING_MM
        and min(own.right_mm, room.right_mm) > max(own.left_mm, room.left_mm)
    ]
    above = min([*over, lowest_ceiling_mm(wall, own.left_mm, own.right_mm)]) - own.top_mm
    tallest = max(tall, key=lambda thing: thing.high_mm or 0.0)
    needed = headroom_mm(piece)
    above = needed if 0 < needed - above < _TOUCHING_MM else above  # what just fits, fits
    return make(
        "fit.items",
        part="shelf",
        case="any",
        demand=Quantity(needed, "length"),
        capacity=Quantity(max(above, _TOUCHING_MM), "length"),
        template="“{what}” and a hand over it need {demand}; there is {capacity} above the shelf.",
        parts={"what": tallest.name},
    )


def hangs_free(piece: AnyPiece) -> Check | None:
    """Whether the longest thing on a hook clears the floor.

    None where nothing hangs whose length is known.
    """
    hook = mount_of(piece).hook_mm(piece)
    long = [
        thing for thing in piece.things if thing.high_mm is not None and thing.at_mm is not None
    ]
    if hook is None or not long:
        return None
    longest = max(long, key=lambda thing: thing.high_mm or 0.0)
    high, room = longest.high_mm or 0.0, data.house("hook_room_mm")
    on_the_floor = high > hook
    said = "“{what}” is {high} long and hangs from {capacity} up: it stands on the floor."
    if not on_the_floor:
        said = (
            "“{what}” is {high} long; to hang clear of the floor its hook should be {demand} "
            "up, and is {capacity}."
        )
    sums = Calculation()
    sums.given("l", high, "length", "what hangs, how long")
    sums.given("s", room, "length", "clear of the floor")
    sums.then("h_min", "l + s", "length", "so high")
    sums.given("h", hook, "length", "its hook is")
    return make(
        "fit.hang",
        part="piece",
        case="any",
        limit="fit" if on_the_floor else "service",
        demand=sums.quantity("h_min"),
        capacity=sums.quantity("h"),
        equations=sums.equations,
        template=said,
        parts={"what": longest.name, "high": Quantity(high, "length")},
    )


def hangs_apart(piece: AnyPiece) -> Check | None:
    """Whether things that hang side by side have room beside each other: handlebars, handles.

    None where nothing hangs at places of its own whose width is known.
    """
    if mount_of(piece).hook_mm(piece) is None:
        return None
    wide = sorted(
        (thing.at_mm, thing.wide_mm, thing.name)
        for thing in piece.things
        if thing.at_mm is not None and thing.wide_mm is not None
    )
    worst: tuple[float, float, float, str, str] | None = None
    for (at, own, name), (next_at, next_own, other) in pairwise(wide):
        needed, there = (own + next_own) / 2, next_at - at
        if worst is None or needed - there > worst[0]:
            worst = (needed - there, needed, there, name, other)
    if worst is None:
        return None
    _, needed, there, name, other = worst
    return make(
        "hang.apart",
        part="piece",
        case="any",
        demand=Quantity(needed, "length"),
        capacity=Quantity(max(there, _TOUCHING_MM), "length"),
        template="“{one}” and “{other}” hang {capacity} apart; side by side they take {demand}. "
        "Hung in turns high and low, or turned end for end, they take about half.",
        parts={"one": name, "other": other},
    )


def hooks_clear(piece: AnyPiece, wall: Wall) -> Check | None:
    """Whether what hangs on its hooks keeps clear of plates, grilles and valves below them.

    None where there are none, or where nobody knows on which hook things hang.
    """
    hook, half = mount_of(piece).hook_mm(piece), data.house("hook_clear_mm")
    worst: tuple[float, str, str] | None = None
    for thing in piece.things if hook is not None and wall.features else ():
        low = (hook or 0.0) - (thing.high_mm or 2 * half)
        for f in wall.features:
            if thing.at_mm is None or not f.row.reach or not low < f.top_mm <= (hook or 0.0):
                continue
            x = piece.left_mm + thing.at_mm
            apart = max(f.left_mm - x, x - f.right_mm, 0.0)
            if apart < half and (worst is None or apart < worst[0]):
                worst = (apart, thing.name, f.row.reason)
    if worst is None:
        return None
    return make(
        "hook.clear",
        part="piece",
        case="any",
        demand=Quantity(half, "length"),
        capacity=Quantity(max(worst[0], _TOUCHING_MM), "length"),
        template="“{thing}” hangs over {what}: hang it {demand} to a side.",
        parts={"thing": worst[1], "what": worst[2]},
    )


def behind(piece: AnyPiece, wall: Wall) -> Check | None:
    """Whether a face covers a box that must be reached.

    None where none is behind it, or openings are cut for them.
    """
    if not wall.features or not mount_of(piece).covers or getattr(piece, "cut_out", False):
        return None
    found = openings.behind(mount_of(piece).box(piece), wall)
    if not found:
        return None
    return make(
        "piece.covers",
        part="piece",
        case="any",
        demand=Quantity(len(found), "count"),
        capacity=Quantity(0.5, "count"),
        template="It covers {what}, which must be reached: hang it clear, or cut an opening.",
        parts={"what": found[0].row.reason},
    )


def to_mind(piece: AnyPiece, wall: Wall) -> list[Message]:
    """Return what to mind about reaching it and bringing it in."""
    found = []
    reach = data.house("reach_mm")
    if piece.top_mm > reach and not mount_of(piece).stands:
        sizes: Placeholders = {
            "top": Quantity(piece.top_mm, "length"),
            "reach": Quantity(reach, "length"),
        }
        found.append(
            Message("Its top is {top} up; without a step most people reach {reach}.", sizes)
        )
    if getattr(piece, "body_kg", None) is not None and (
        doors := [f for f in wall.features if f.kind == "door"]
    ):
        small, middle, _ = sorted((piece.length_mm, piece.high_mm, piece.depth_mm))
        widest = max(doors, key=lambda door: door.right_mm - door.left_mm)
        wide, high = widest.right_mm - widest.left_mm, widest.top_mm - widest.bottom_mm
        if small > wide or middle > high:
            size = {"w": Quantity(wide, "length"), "h": Quantity(high, "length")}
            found.append(
                Message(
                    "It does not go through the door of this wall, {w} by {h}: build it in the "
                    "room.",
                    dict(size),
                )
            )
    return [*found, *_covered(piece, wall), *_on_trim(piece, wall), *_swing(piece, wall)]


def _on_trim(piece: AnyPiece, wall: Wall) -> list[Message]:
    """Trim that it lies on, or nearly: that bears nothing, whatever it looks like."""
    own, near = mount_of(piece).box(piece), data.house("on_trim_mm")
    said = (
        "It lies on the trim of {what}, which thin nails hold and which bears nothing: the sums "
        "leave it out. Leave a finger's width between, or scribe it, so that trim can come off."
    )
    return [
        Message(said, {"what": f.row.reason})
        for f in wall.features
        if f.trim_mm
        and abs(own.bottom_mm - f.top_mm - f.trim_mm) <= near
        and own.left_mm < f.right_mm + f.trim_mm
        and own.right_mm > f.left_mm - f.trim_mm
    ]


def _covered(piece: AnyPiece, wall: Wall) -> list[Message]:
    """Return what it would hang over and must be reached; nothing where a check says so."""
    if mount_of(piece).covers:
        return []
    over = openings.behind(mount_of(piece).box(piece), wall)
    return [
        Message("It hangs over {what}: nobody reaches that behind it.", {"what": each.row.reason})
        for each in over
    ]


def _swing(piece: AnyPiece, wall: Wall) -> list[Message]:
    """Doors whose leaf would come against it when opened flat.

    Nobody has said which way they open.
    """
    own, found = mount_of(piece).box(piece), []
    for door in (feature for feature in wall.features if feature.kind == "door"):
        wide = door.right_mm - door.left_mm
        if _over(own, door.left_mm - wide, door.right_mm + wide, door.bottom_mm, door.top_mm):
            said = (
                "If the door beside it opens into this room on its side, the leaf meets it: it "
                "stands {depth} out."
            )
            found.append(Message(said, {"depth": Quantity(piece.depth_mm, "length")}))
    return found


def _over(own: Box, left: float, right: float, bottom: float, top: float) -> bool:
    across = min(own.right_mm, right) - max(own.left_mm, left)
    return (
        across > _TOUCHING_MM and min(own.top_mm, top) - max(own.bottom_mm, bottom) > _TOUCHING_MM
    )
