"""Every hole of a piece, in drilling order: place, bit, depth for the tape on the bit, screw, and what to mind."""

from typing import Literal

import msgspec

from trade import data
from trade.check import Phrase, Quantity
from trade.fixings import driving
from trade.fixings.stud_screws import Seat
from trade.measure import Units
from trade.mounts import Hole, mount_of
from trade.plan import AnyPiece, Plan, Wall
from trade.wall.zones import zones


class Mark(msgspec.Struct, frozen=True, kw_only=True):
    """One hole.

    In the wall: `x_mm` from the left corner, `y_mm` above the floor. In the shelf: from its left end and its
    underside, `screw` null. `depth_mm` is what the tape on the bit shows, from the face that is drilled.

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
    bit_mm: float
    clearance_mm: float | None
    depth_mm: float
    screw: str | None
    screw_length_mm: float | None
    stud_mm: float | None
    cautions: tuple[Phrase, ...]


def marks(plan: Plan) -> tuple[Mark, ...]:
    """Every hole of a plan, piece by piece; numbered within each piece."""
    return tuple(mark for piece in plan.pieces for mark in piece_marks(piece, plan.wall, plan.units))


def piece_marks(piece: AnyPiece, wall: Wall, units: Units) -> tuple[Mark, ...]:
    """Every hole of one piece: the wall's first, each support from the top down, then the shelf's."""
    mount = mount_of(piece)
    made: list[Mark] = []
    for hole in mount.holes(piece, wall):
        seat = hole.seat
        wooden = seat.side.g is not None or seat.screw.kind == "lag"
        made.append(
            Mark(
                number=len(made) + 1, where="wall", piece=piece.key, part=seat.part, support=seat.index,
                x_mm=hole.x_mm, y_mm=hole.y_mm, bit_mm=driving.pilot_mm(seat.screw, seat.timber.g, units),
                clearance_mm=driving.clearance_mm(seat.screw, units) if wooden else None,
                depth_mm=seat.gap_mm + seat.reach.penetration_mm, screw=piece.screw, screw_length_mm=piece.screw_length_mm,
                stud_mm=seat.stud.stud.centre_mm if seat.stud.stud and seat.in_stud else None, cautions=_cautions(hole, wall),
            )
        )  # fmt: skip
    for i, bore in enumerate(mount.bores(piece)):
        made.append(
            Mark(
                number=len(made) + 1, where="shelf", piece=piece.key, part=bore.part, support=i, x_mm=bore.x_mm, y_mm=bore.y_mm,
                bit_mm=bore.diameter_mm, clearance_mm=None, depth_mm=bore.depth_mm, screw=None, screw_length_mm=None,
                stud_mm=None, cautions=_recess(mount.seats(piece, wall)[i]),
            )
        )  # fmt: skip
    return tuple(made)


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
    if wall.build == "mass":
        found.append(Phrase("This is masonry: these holes are for screws in wood. Choose plugs first."))
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
    if seat.reach.penetration_mm > limit:
        found.append(
            Phrase(
                "Past {depth} in the stud cables may run: go slowly, and switch off first.",
                {"depth": Quantity(limit, "length")},
            )
        )
    return tuple(found)
