"""Every hole of a piece, in drilling order.

Place, bit, depth for the tape on the bit, screw, and what to mind.
"""

from typing import Literal

import msgspec
from msgspec.structs import replace

from trade import data
from trade.calculation import Quantity
from trade.check import Message
from trade.measure import Units
from trade.mounts import AnySupport, Hole, Support, holes, mount_of
from trade.mounts.existing_holes import as_mounted
from trade.plan.facing import SIDES, beside
from trade.plan.flatness import Side
from trade.plan.model import AnyPiece, AsBuilt, Plan, Wall
from trade.plan.place import beside_plan
from trade.wall.scribing import fitted
from trade.wall.zones import zones

LeadHoles = Literal["every", "needed"]
_NOTHING = AsBuilt()
# NDS 2018 12.1.5.3: no pilot hole is required for wood screws in wood of no more than this specific
# gravity
_SOFT_G = 0.5
_BARE = Message("No pilot hole: drive it slowly. Drill one if the wood begins to split.")


class Mark(msgspec.Struct, frozen=True, kw_only=True):
    """One hole.

    In the wall: `x_mm` from the left corner, `y_mm` above the floor; `screw` null where an `anchor`
    holds. Beside: in the wall round the corner at `side`, from that wall's own left corner;
    `corner_mm`: from the corner where both meet. In the shelf: from its left end and its underside,
    both null. `bit_mm` null: what goes in drills its own hole; `fixing`: what goes in, in words.
    `depth_mm` is what the tape on the bit shows, from the face that is drilled.

    `clearance_mm`: a wider hole for the shank through a wooden side piece; null when there is none.
    `stud_mm`: centre of the stud it goes into; null when none is known.
    """

    number: int
    where: Literal["wall", "beside", "shelf"]
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
    fixing: str | None
    stud_mm: float | None
    cautions: tuple[Message, ...]
    side: Side | None = None
    corner_mm: float | None = None


def marks(plan: Plan) -> tuple[Mark, ...]:
    """Every hole of a plan, piece by piece; numbered within each piece."""
    policy = plan.policy.lead_holes
    return tuple(
        mark
        for piece in plan.pieces
        for mark in piece_marks(piece, plan.wall, plan.units, policy, plan.as_built)
    )


def piece_marks(
    piece: AnyPiece,
    wall: Wall,
    units: Units,
    lead_holes: LeadHoles = "every",
    as_built: AsBuilt = _NOTHING,
) -> tuple[Mark, ...]:
    """Every hole of one piece.

    The wall's first, each support from the top down; round its corners; then its own.

    Args:
        piece: whose holes.
        wall: they are in.
        units: of the drills.
        as_built: what was measured at the wall: holes in the piece follow what carries it.
        lead_holes: for every screw, or only where the timber asks for one (NDS 2018 12.1.5.3: wood
          screws from G = 0.5 up).
    """
    mount = mount_of(piece)
    made: list[Mark] = []
    for hole in holes(mount.supports(piece, wall)):
        made.append(_in_wall(piece, hole, wall, units, lead_holes, len(made) + 1))
    for side, supports in mount.beside(piece, wall).items():
        there = beside(wall, side)
        if there is None:
            continue
        for hole in holes(supports):
            mark = _in_wall(piece, hole, there.wall, units, lead_holes, len(made) + 1)
            corner = there.along_mm(side, mark.x_mm)  # it counts the same both ways
            made.append(replace(mark, where="beside", side=side, corner_mm=corner))
    for i, bore in enumerate(mount.bores(as_mounted(fitted(piece, wall), as_built), wall)):
        made.append(
            Mark(
                number=len(made) + 1,
                where="shelf",
                piece=piece.key,
                part=bore.part,
                support=i,
                x_mm=bore.x_mm,
                y_mm=bore.y_mm,
                bit_mm=bore.bit_mm(units),
                clearance_mm=None,
                depth_mm=bore.depth_mm,
                screw=None,
                screw_length_mm=None,
                anchor=None,
                fixing=None,
                stud_mm=None,
                cautions=bore.cautions,
            )
        )
    return tuple(made)


def marks_from_beside(plan: Plan) -> list[Mark]:
    """Return holes in this wall of pieces at the walls beside it, as they count there."""
    found: list[Mark] = []
    for side, other in zip(SIDES, reversed(SIDES), strict=True):
        if (there := beside_plan(plan, side)) is None:
            continue
        for piece in there.pieces:
            made = piece_marks(piece, there.wall, plan.units, plan.policy.lead_holes)
            found += [mark for mark in made if mark.side == other]
    return found


def _in_wall(
    piece: AnyPiece, hole: Hole, wall: Wall, units: Units, lead_holes: LeadHoles, number: int
) -> Mark:
    support, bare = hole.support, _goes_bare(hole.support, lead_holes)
    stud = support.stud.stud
    return Mark(
        number=number,
        where="wall",
        piece=piece.key,
        part=support.part,
        support=support.index,
        x_mm=hole.x_mm,
        y_mm=hole.y_mm,
        bit_mm=None if bare else support.bit_mm(units),
        clearance_mm=support.clearance_mm(units),
        depth_mm=support.deep_mm,
        screw=support.screw_key,
        screw_length_mm=support.length_mm,
        anchor=support.anchor_key,
        fixing=support.words(units),
        stud_mm=stud.centre_mm if stud and support.in_stud else None,
        cautions=(*((_BARE,) if bare else ()), *_cautions(hole, wall)),
    )


def _goes_bare(support: AnySupport, lead_holes: LeadHoles) -> bool:
    """Whether a screw goes in without a pilot hole.

    A wood screw, in soft timber, under a school that drills where it must.
    """
    if lead_holes == "every" or not isinstance(support, Support) or support.anchored:
        return False
    crowded = any("split" in caution.template for caution in support.cautions())
    return support.screw.kind == "wood" and support.timber.g <= _SOFT_G and not crowded


def _cautions(hole: Hole, wall: Wall) -> tuple[Message, ...]:
    found = []
    for zone in zones(wall):
        if zone.bars == "drilling" and zone.holds(hole.x_mm, hole.y_mm):
            said = (
                "Do not drill here: {reason}. {advice}"
                if zone.level == "keep_out"
                else "Take care: {reason}. {advice}"
            )
            found.append(Message(said, {"reason": zone.reason, "advice": zone.advice}))
    if wall.layers is None:
        found.append(Message("The lining's thickness is not known: this depth is for bare studs."))
    if hole.support.anchored:
        return (*found, *hole.support.cautions())
    if not wall.uprights and hole.support.stud.across is None:
        found.append(Message("No stud is known here. Find it before you drill."))
    elif not hole.support.in_stud:
        found.append(Message("There is no stud behind this mark. Do not drill."))
    found += hole.support.cautions()
    limit = data.house("cable_depth_mm")
    if hole.support.deep_mm - hole.support.gap_mm > limit:
        said = "Past {depth} in the stud cables may run: go slowly, and switch off first."
        found.append(Message(said, {"depth": Quantity(limit, "length")}))
    return tuple(found)
