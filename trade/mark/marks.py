"""Every hole of a piece, in drilling order: place, bit, depth for the tape on the bit, screw, and what to mind."""

from typing import Literal

import msgspec

from trade import data
from trade.check import Phrase, Quantity
from trade.fixings import driving
from trade.fixings.seat import Seat
from trade.measure import Units, say_length
from trade.mounts import Hole, holes, mount_of
from trade.plan import AnyPiece, Plan, Wall
from trade.wall.zones import zones


class Mark(msgspec.Struct, frozen=True, kw_only=True):
    """One hole.

    In the wall: `x_mm` from the left corner, `y_mm` above the floor; `screw` null where an `anchor` holds. In the shelf: from
    its left end and its underside, both null. `bit_mm` null: what goes in drills its own hole. `depth_mm` is what the tape on
    the bit shows, from the face that is drilled.

    `clearance_mm`: a wider hole for the shank through a wooden side piece; null when there is none. `stud_mm`: centre of
    the stud it goes into; null when none is known.
    """

    number: int
    where: Literal["wall", "shelf"]
    piece: str
    part: str
    support: int
    x_mm: float
    y_mm: float
    bit_mm: float | None
    clearance_mm: float | None
    depth_mm: float
    screw: str | None
    screw_length_mm: float | None
    anchor: str | None
    stud_mm: float | None
    cautions: tuple[Phrase, ...]


def marks(plan: Plan) -> tuple[Mark, ...]:
    """Every hole of a plan, piece by piece; numbered within each piece."""
    return tuple(mark for piece in plan.pieces for mark in piece_marks(piece, plan.wall, plan.units))


def piece_marks(piece: AnyPiece, wall: Wall, units: Units) -> tuple[Mark, ...]:
    """Every hole of one piece: the wall's first, each support from the top down, then the shelf's."""
    mount = mount_of(piece)
    made: list[Mark] = []
    for hole in holes(mount.seats(piece, wall)):
        seat = hole.seat
        wooden = seat.held is None and (seat.side.g is not None or seat.screw.kind == "lag")
        made.append(
            Mark(
                number=len(made) + 1, where="wall", piece=piece.key, part=seat.part, support=seat.index,
                x_mm=hole.x_mm, y_mm=hole.y_mm, bit_mm=_bit_mm(seat, units),
                clearance_mm=driving.clearance_mm(seat.screw, units) if wooden else None,
                depth_mm=_deep_mm(seat), screw=piece.screw if seat.held is None else None,
                screw_length_mm=seat.length_mm, anchor=piece.anchor if seat.held is not None else None,
                stud_mm=seat.stud.stud.centre_mm if seat.stud.stud and seat.in_stud else None, cautions=_cautions(hole, wall),
            )
        )  # fmt: skip
    for i, bore in enumerate(mount.bores(piece)):
        made.append(
            Mark(
                number=len(made) + 1, where="shelf", piece=piece.key, part=bore.part, support=i, x_mm=bore.x_mm, y_mm=bore.y_mm,
                bit_mm=bore.diameter_mm, clearance_mm=None, depth_mm=bore.depth_mm, screw=None, screw_length_mm=None, anchor=None,
                stud_mm=None, cautions=_recess(mount.seats(piece, wall)[i]),
            )
        )  # fmt: skip
    return tuple(made)


_DUST_MM = 10.0  # how much deeper than the plug a hole in masonry is drilled, common practice, no source


def screw_words(seat: Seat, units: Units) -> str:
    """What goes into each hole: the screw or the anchor, and how long."""
    if seat.held is not None and seat.held.anchor is None:
        return "nothing chosen yet"
    name = seat.screw.name_imperial if units == "imperial" else seat.screw.name_metric
    if seat.held is not None and seat.held.anchor is not None:
        name = seat.held.anchor.name
    return f"{name}, {say_length(seat.length_mm, units)}"


def _bit_mm(seat: Seat, units: Units) -> float | None:
    anchor = seat.held.anchor if seat.held is not None else None
    if anchor is None:
        return driving.pilot_mm(seat.screw, seat.timber.g, units)
    return anchor.hole_mm or None


def _deep_mm(seat: Seat) -> float:
    if seat.held is None or seat.held.anchor is None:
        return seat.gap_mm + seat.reach.penetration_mm
    plugged = seat.held.anchor.hole_mm > 0 and not seat.held.site.hollow
    return seat.gap_mm + seat.held.anchor.depth_mm + (_DUST_MM if plugged else 0.0)


def _recess(seat: Seat) -> tuple[Phrase, ...]:
    """A plate on the lining holds the shelf off the wall unless its back is let in."""
    if not seat.gap_mm:
        return ()
    return (Phrase("Let the plate into the shelf's back, {t} deep.", {"t": Quantity(seat.side.thickness_mm, "fine")}),)


def _cautions(hole: Hole, wall: Wall) -> tuple[Phrase, ...]:
    seat, found = hole.seat, []
    for zone in zones(wall):
        if zone.bars == "drilling" and zone.holds(hole.x_mm, hole.y_mm):
            never = "Do not drill here: " if zone.level == "keep_out" else "Take care: "
            found.append(Phrase(f"{never}{zone.reason}. {zone.advice}"))
    if wall.layers is None:
        found.append(Phrase("How thick the lining is nobody said: this depth is for bare studs."))
    if seat.held is not None:
        found += _anchor_cautions(seat)
    elif not wall.uprights:
        found.append(Phrase("No stud is known here. Find it before you drill."))
    elif not seat.in_stud:
        found.append(Phrase("There is no stud behind this mark. Do not drill."))
    if wall.lining_mm and not seat.gap_mm:
        size: dict[str, Quantity | str] = {"w": Quantity(seat.width_mm, "length"), "h": Quantity(seat.height_mm, "length")}
        found.append(
            Phrase("Cut {w} by {h} out of the lining first: the plate sits on the stud, and depths are from there.", size)
        )
    limit = data.house("cable_depth_mm")
    if seat.held is None and seat.reach.penetration_mm > limit:
        found.append(
            Phrase(
                "Past {depth} in the stud cables may run: go slowly, and switch off first.",
                {"depth": Quantity(limit, "length")},
            )
        )
    return tuple(found)


def _anchor_cautions(seat: Seat) -> list[Phrase]:
    held = seat.held
    if held is None or held.anchor is None or held.problem:
        return [Phrase(held.problem if held else "")]
    if held.anchor.kind == "steel_screw":
        return [Phrase("Drive slowly until it bites the steel, then stop: once stripped it holds nothing.")]
    if held.site.hollow:
        return [Phrase("Between studs: nothing but the lining holds here. Snug, not crushed.")]
    found = [Phrase("Drill square, without hammer in hollow units, and clear the hole of dust.")]
    if held.site.base in ("block_hollow", "brick_hollow", "aerated_2", "aerated_4"):
        found.append(
            Phrase("A joint or a broken cell holds less: if the bit falls through or it crumbles, stop and move the hole.")
        )
    return found
