"""One support where it sits on the wall.

The hardware's screws, what they go into, and what the hardware presses on.
"""

from itertools import pairwise
from math import ceil
from typing import NamedTuple

import msgspec
import numpy as np
from msgspec.structs import force_setattr, replace

from trade import data
from trade.calculation import Quantity
from trade.check import Message, Placeholders
from trade.data import Framing, Screw
from trade.fixings import driving, wood
from trade.fixings.anchor_capacity import AnchorCapacity, anchor_capacity, anchor_of, lining_base
from trade.fixings.substrate import FAR_MM, Substrate
from trade.language import in_system, joined
from trade.measure import INCH_64TH_MM, Units, say_length
from trade.plan.features import Feature
from trade.plan.model import Piece, Stud, Wall
from trade.wall.backing import (
    Face,
    Footprint,
    StudAt,
    backing,
    bare,
    crossed,
    face_of_board,
    wood_behind,
)
from trade.wall.zones import distance_mm

_DUST_MM = data.house("plug_dust_mm")
_STEEL_PAST_MM = data.house("past_sheet_mm")
_SAME_MM = 0.5  # no two supports stand so near
_NEAR_MM = data.house("neighbours_mm")
_NOT_YET = driving.Reach(0.0, 0.0, 0.0)  # until it is worked out


class Hardware(NamedTuple):
    """What is screwed to the wall at one support.

    Its screws above its lower edge, its face, and what is under the heads.

    `along_mm`: how much of the lining between studs it presses besides, for it is stiff and lies on
    all of it. `blind`: what goes in ends inside the piece, as a rod in a beam does, and passes
    through nothing. `strip`: left end, right end and upper edge above the lower of the strip that
    it goes through, mm; None where it is no strip.
    """

    heights_mm: tuple[float, ...]
    height_mm: float
    width_mm: float
    side: wood.Side
    blind: bool = False
    strip: tuple[float, float, float] | None = None
    along_mm: float = 0.0


class Support(msgspec.Struct, frozen=True, kw_only=True):
    """One support on the wall.

    `x_mm`, `foot_mm`: the screws' line and the hardware's lower edge on the wall; `heights_mm`:
    screws above that edge; `height_mm`, `width_mm`: of the pressed face; `gap_mm`: soft layers
    between hardware and what holds; `stud`: what is known of the wood behind the screws' line;
    `capacity`: of the anchors there, None where screws go into timber; `board_on`: where the board
    on the wall's face that it sits on is itself screwed to studs, from the left.
    """

    index: int
    part: str
    x_mm: float
    foot_mm: float
    heights_mm: tuple[float, ...]
    height_mm: float
    width_mm: float
    side: wood.Side
    screw: Screw
    screw_mm: float
    screw_key: str | None
    anchor_key: str | None
    gap_mm: float
    face: Face
    timber: Framing
    stud: StudAt
    on_stud: bool
    capacity: AnchorCapacity | None
    set_back_mm: float = 0.0
    blind: bool = False
    strip: tuple[float, float, float] | None = None
    along_mm: float = 0.0
    design_code: str = "american"
    board_on: tuple["Support", ...] = ()
    reach: driving.Reach = _NOT_YET
    pressed_mm: float = 0.0

    def __post_init__(self) -> None:
        """Work out where the screw's length goes, and the width pressed against something firm.

        On a stud that width is taken at the worst place of the stud at which the screws still are
        in it; when the stud may be further off than that, nobody can tell, and the check of the
        edge says so.
        """
        force_setattr(self, "reach", driving.reach(self.screw, self.screw_mm, self.layers_mm))
        if not self.on_stud and self.capacity is not None:
            force_setattr(self, "pressed_mm", self.width_mm)
            return
        off = abs(self.stud.offset_mm) + min(self.stud.uncertainty_mm, self.spare_mm)
        half, stud = self.width_mm / 2, self.stud.width_mm / 2
        besides = self.along_mm * data.house("hollow_bearing_share") if self.gap_mm > 0 else 0.0
        force_setattr(
            self, "pressed_mm", max(min(off + half, stud) - max(off - half, -stud), 0.0) + besides
        )

    @property
    def edge_mm(self) -> float:
        """Edge distance that the screw needs in a stud."""
        if self.capacity is not None and self.capacity.anchor is not None:
            return self.capacity.anchor.screw_mm * data.house("edge_diameters_steel")
        key = "edge_diameters_lag" if self.screw.kind != "wood" else "edge_diameters_wood"
        return data.house(key) * self.screw.diameter_mm

    @property
    def spare_mm(self) -> float:
        """How far off the stud may be before a screw loses its edge distance."""
        return max(self.stud.width_mm / 2 - abs(self.stud.offset_mm) - self.edge_mm, 0.0)

    @property
    def layers_mm(self) -> float:
        """All that the screw passes before what holds it."""
        return self.side.thickness_mm + self.gap_mm

    @property
    def length_mm(self) -> float:
        """Length of screw to buy.

        As chosen for wood; for an anchor what reaches through it, in steps of 5 mm.
        """
        if self.capacity is None or self.capacity.anchor is None:
            return self.screw_mm
        steel = self.capacity.anchor.kind == "steel_screw"
        needed = self.layers_mm + (_STEEL_PAST_MM if steel else self.capacity.anchor.depth_mm)
        return ceil(needed / 5 - 1e-9) * 5.0

    @property
    def in_stud(self) -> bool:
        """Whether the screws' line meets the stud at all."""
        return abs(self.stud.offset_mm) < self.stud.width_mm / 2

    @property
    def across_grain(self) -> bool:
        """Whether its load is across the grain of the wood that it is screwed to."""
        return self.stud.across is not None

    @property
    def holds(self) -> bool:
        """Whether there is anything behind it that the rules can count on."""
        return self.in_stud if self.capacity is None else self.capacity.pull_n > 0

    @property
    def pull_stiffness_n_per_mm(self) -> float:
        """How hard one screw resists being pulled.

        25 d l_ef in wood (house table), an anchor by its give.
        """
        if self.capacity is not None:
            return self.capacity.stiffness_n_per_mm
        return data.house("axial_stiffness") * self.screw.diameter_mm * self.reach.thread_mm

    @property
    def slip_stiffness_n_per_mm(self) -> float:
        """How hard all its screws resist being pushed down.

        Rho_m^1.5 d / 23 each in wood (EN 1995-1-1 Table 7.1).
        """
        if self.capacity is not None:
            give = self.capacity.anchor.give_mm if self.capacity.anchor else 1.0
            return len(self.heights_mm) * self.capacity.shear_n / give
        return len(self.heights_mm) * self.timber.density_kg_m3**1.5 * self.screw.diameter_mm / 23

    @property
    def back_mm(self) -> float:
        """How far behind the lining's face its back sits: nought, unless it was let in."""
        return self.set_back_mm

    def bit_mm(self, units: Units) -> float | None:
        """Return the drill for each hole; None where what goes in drills its own."""
        anchor = self.capacity.anchor if self.capacity is not None else None
        if anchor is None:
            return driving.pilot_mm(self.screw, self.timber.g, units)
        if units == "imperial" and anchor.hole_64ths:
            return anchor.hole_64ths * INCH_64TH_MM
        return anchor.hole_mm or None

    @property
    def deep_mm(self) -> float:
        """How deep to drill, from the face that the hardware sits on.

        A plug's hole has room for dust.
        """
        if self.capacity is None or self.capacity.anchor is None:
            return self.gap_mm + self.reach.penetration_mm
        plugged = self.capacity.anchor.hole_mm > 0 and not self.capacity.substrate.hollow
        return self.gap_mm + self.capacity.anchor.depth_mm + (_DUST_MM if plugged else 0.0)

    def words(self, units: Units) -> str:
        """Return what goes into each hole: the screw or the anchor, and how long."""
        if self.capacity is not None and self.capacity.anchor is None:
            return "nothing chosen yet"
        name = self.screw.called(units)
        if self.capacity is not None and self.capacity.anchor is not None:
            name = in_system(self.capacity.anchor.name, units)
        return joined((name, say_length(self.length_mm, units)))

    def clearance_mm(self, units: Units) -> float | None:
        """Return the drill for what passes through a wooden side piece, or for a lag's shank.

        None when there is none.

        A screw's shank in timber; an anchor's bolt or screw, or all of it where it goes in through
        the side piece.
        """
        wooden = self.side.g is not None
        if self.blind:
            return None
        if self.capacity is not None and self.capacity.anchor is not None:
            return (
                driving.drill_at_least_mm(self.capacity.anchor.through_mm, units)
                if wooden
                else None
            )
        return (
            driving.clearance_mm(self.screw, units) if wooden or self.screw.kind == "lag" else None
        )

    @property
    def anchored(self) -> bool:
        """Whether something else than a screw in timber holds it."""
        return self.capacity is not None

    def cautions(self) -> list[Message]:
        """Return what to mind at its holes."""
        found = []
        if self.set_back_mm:
            size: Placeholders = {
                "w": Quantity(self.width_mm, "length"),
                "h": Quantity(self.height_mm, "length"),
            }
            said = (
                "Cut {w} by {h} out of the lining first: it sits on what is behind, and depths "
                "are from there."
            )
            found.append(Message(said, size))
        ranked = sorted(self.heights_mm)
        apart = min((above - below for below, above in pairwise(ranked)), default=FAR_MM)
        near = data.house("screw_spacing_diameters") * self.screw.diameter_mm
        if self.capacity is None and apart < near:
            sizes: Placeholders = {
                "a": Quantity(apart, "fine"),
                "n": Quantity(near, "fine"),
            }
            found.append(
                Message(
                    "Screws only {a} apart ({n} would be better) can split the stud: drill every "
                    "pilot hole.",
                    sizes,
                )
            )
        return found + (self.capacity.cautions() if self.capacity is not None else [])

    @property
    def holes(self) -> tuple[tuple[float, float], ...]:
        """Where its screws are on the wall, in the hardware's order."""
        return tuple((self.x_mm, self.foot_mm + height) for height in self.heights_mm)


def support(
    wall: Wall,
    piece: Piece,
    hardware: Hardware,
    index: int,
    part: str,
    x_mm: float,
    foot_mm: float,
    let_in: bool = False,
) -> Support:
    """Put hardware on the wall.

    Args:
        wall: it goes on.
        piece: whose screws and anchors it takes.
        hardware: its screws and its face.
        index: of the support, from the left.
        part: what to call it.
        x_mm: its screws' line, from the left corner.
        foot_mm: height of its lower edge.
        let_in: it sits on what is behind the lining.
    """
    behind = backing(wall)
    heights = [foot_mm + height for height in hardware.heights_mm]
    half = hardware.width_mm / 2
    own = Footprint(x_mm - half, x_mm + half, foot_mm, foot_mm + hardware.height_mm)
    stud = wood_behind(bare(wall) if let_in else wall, x_mm, heights, part, own)
    on_stud = wall.build != "mass" and abs(stud.offset_mm) < stud.width_mm / 2
    hollow = wall.build != "mass" and not on_stud
    gap = 0.0 if let_in or stud.on_face else behind.lining_mm
    face = behind.stud_face if let_in else behind.face
    if stud.on_face:
        face = face_of_board(wall)
    elif stud.across is not None and foot_mm < stud.across.bottom_mm:
        face = behind.hollow_face  # its foot presses where nothing is behind
    fastener = None
    metal = wall.build == "steel" and stud.across is None
    if wall.build == "mass" or metal or (hollow and piece.anchor is not None):
        anchor = anchor_of(wall, piece.anchor) if piece.anchor is not None else None
        base = lining_base(wall, anchor) if hollow else wall.structure or ""
        substrate = Substrate(
            base,
            hollow,
            0.0 if hollow else gap,
            _apart(hardware.heights_mm),
            _to_opening(wall, x_mm, foot_mm),
        )
        old = _to_old_hole(wall, x_mm, heights)
        substrate = substrate._replace(spoiled_mm=old, beside_mm=_beside(piece, x_mm))
        fastener = anchor_capacity(wall, piece.anchor, substrate)
        if hollow:
            face, gap = behind.hollow_face, 0.0
    return Support(
        index=index,
        part=part,
        x_mm=x_mm,
        foot_mm=foot_mm,
        heights_mm=hardware.heights_mm,
        height_mm=hardware.height_mm,
        width_mm=hardware.width_mm,
        side=hardware.side,
        screw=data.screws()[piece.screw],
        screw_mm=piece.screw_length_mm,
        screw_key=piece.screw if fastener is None else None,
        anchor_key=piece.anchor if fastener is not None else None,
        gap_mm=gap,
        face=face,
        timber=behind.timber,
        stud=stud,
        on_stud=on_stud,
        capacity=fastener,
        set_back_mm=behind.lining_mm if let_in else 0.0,
        blind=hardware.blind,
        strip=hardware.strip,
        along_mm=hardware.along_mm,
        design_code=wall.design_code,
        board_on=_on_studs(wall, piece, stud.across) if stud.on_face and stud.across else (),
    )


def _on_studs(wall: Wall, piece: Piece, board: Feature) -> tuple[Support, ...]:
    """Where a board on the wall's face is screwed to the studs that it crosses."""
    if wall.build != "timber":
        return ()
    screw, length = board_screw(wall, board, data.screws()[piece.screw].system)
    held = replace(piece, screw=screw, screw_length_mm=length, anchor=None)
    g, high = backing(wall).timber.g, board.top_mm - board.bottom_mm
    side = wood.wood_side(board.deep_mm, g, data.screws()[screw].diameter_mm, across=True)
    off = min(data.house("board_edge_mm"), high / 4)
    heights = tuple(np.linspace(off, high - off, board.row.studs_n).tolist())
    return tuple(
        support(
            bare(wall),
            held,
            Hardware(heights, high, stud.width_mm, side),
            i,
            board.row.name,
            stud.centre_mm,
            board.bottom_mm,
        )
        for i, stud in enumerate(crossed(wall, board))
    )


def board_screw(wall: Wall, board: Feature, units: Units) -> tuple[str, float]:
    """Return the screw that goes through a board into each stud, and its length, mm."""
    key = data.screw_in(board.row.ends_screw, units)
    layers = board.deep_mm + (wall.lining_mm or 0.0)
    embedment, far = data.house("embedment_mm"), layers + Stud(centre_mm=0.0).depth_mm
    return key, driving.suggest_length_mm(data.screws()[key], layers, embedment, far)


def _apart(heights_mm: tuple[float, ...]) -> tuple[float, float]:
    """Below and above the most crowded screw, how far the next one is."""
    ranked = sorted(heights_mm)
    gaps = [FAR_MM, *(above - below for below, above in pairwise(ranked)), FAR_MM]
    return min(pairwise(gaps), key=lambda pair: sum(min(gap, _NEAR_MM) for gap in pair))


def _beside(piece: Piece, x_mm: float) -> tuple[float, float]:
    """To the piece's next support on either side."""
    off = [piece.left_mm + x - x_mm for x in piece.supports_mm]
    return min((-x for x in off if x < -_SAME_MM), default=FAR_MM), min(
        (x for x in off if x > _SAME_MM), default=FAR_MM
    )


def _to_opening(wall: Wall, x_mm: float, y_mm: float) -> float:
    """To the nearest door or window at that height, whose edge is free."""
    sides = [
        max(f.left_mm - x_mm, x_mm - f.right_mm, 0.0)
        for f in wall.openings
        if f.bottom_mm - 150 <= y_mm <= f.top_mm + 150
    ]
    return min(sides, default=FAR_MM)


def _to_old_hole(wall: Wall, x_mm: float, heights_mm: list[float]) -> float:
    """To the nearest hole of old, filled or not, from any of the screws."""
    spoiled = [f for f in wall.features if f.row.keep == "care"]
    return min((distance_mm(f, x_mm, y) for f in spoiled for y in heights_mm), default=FAR_MM)
