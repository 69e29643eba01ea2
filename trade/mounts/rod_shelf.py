"""A floating shelf on steel rods welded to wall plates, a plate on each stud."""

from collections.abc import Iterator
from math import pi
from typing import Any, ClassVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, Message, make
from trade.fixings import fastening, wood
from trade.fixings.support import Hardware, Support, support
from trade.language import compose
from trade.load import sharing
from trade.load.demand import Demand
from trade.load.line import unweighed
from trade.load.shelf import ShelfLoad
from trade.load.ways import BODY, Sharing
from trade.measure import G_N_PER_KG, Units
from trade.mounts import board, rods, stiffness, strength
from trade.mounts.base import (
    WOODEN_SHELF,
    Ask,
    Bore,
    Box,
    Mount,
    Part,
    Shape,
    block,
    board_front,
    board_part,
    board_side,
    loose_mm,
    support_name,
)
from trade.mounts.hanging import Act, Droop, Hanging, do
from trade.mounts.rods import Rod, carried_over, slid_on
from trade.mounts.work import Detail, Recess
from trade.plan.model import RodShelf, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing

NOUN = "rod"
_LEAST_DEPTH_MM = data.house("rod_shelf_depth_mm")
_STEEL_E_MPA = 200_000.0
_NO_HOLD_MM = 1e6  # how far a plate drops that no thread holds


class _RodShelf(Mount[RodShelf]):
    kind = "rod_shelf"
    name = "Floating shelf on rods"
    support_noun = NOUN
    bored_from_wall = True
    make = RodShelf
    on_a_board = True
    asks = (
        *WOODEN_SHELF,
        Ask("plate", "Rod and plate", "choice", data.plates, own="own"),
        Ask("let_in", "Plates let into the lining, onto the studs", "flag"),
    )
    fresh: ClassVar[dict[str, Any]] = {
        "board": "pine_white",
        "thickness_mm": 95.0,
        "depth_mm": 235.0,
        "plate": "tall",
        "let_in": True,
    }

    def on_face(self, piece: RodShelf) -> RodShelf:
        """Return it with its plates on the face."""
        return replace(piece, let_in=False)

    def let_in(self, piece: RodShelf) -> bool:
        """Whether its plates sit on the studs."""
        return piece.let_in

    def follow(self, piece: RodShelf, question: str, policy: Policy) -> RodShelf:
        """Plates let into the lining, or over it."""
        return replace(piece, let_in=policy.plates == "let_in") if question == "plates" else piece

    def sized(self, fields: dict[str, Any], wall: Wall, x_mm: float) -> dict[str, Any]:
        """Never less deep than its shortest rod asks."""
        return fields | {"depth_mm": max(fields["depth_mm"], _LEAST_DEPTH_MM)}

    def checks(self, piece: RodShelf, wall: Wall) -> list[Check]:
        """Every check of the shelf, its rods, their plates and screws."""
        loads = unweighed(piece)
        if len(piece.supports_mm) < 2:
            return [board.too_few_supports(piece, NOUN, loads)]
        return sharing.best(
            lambda so: self._shared(piece, wall, so), lambda so: self._load(piece, so), BODY
        )

    def _shared(self, piece: RodShelf, wall: Wall, so: Sharing) -> list[Check]:
        loads = unweighed(piece)
        row, behind = piece.hardware, backing(wall)
        load = self._load(piece, so)
        demands = {
            i: _moved_out(cases, _set_back(piece, wall)) for i, cases in load.demands().items()
        }
        supports = self.supports(piece, wall)
        unknown = behind.unknown + loads
        hit = [support for support in supports if support.holds]
        rod = Rod(row.rod_mm, _in_shelf(piece, wall))
        return [
            *board.checks(load, loads),
            *fastening.checks(supports, demands, behind.unknown, loads),
            _rod_bending(row, supports, demands, unknown),
            rods.bearing(piece, rod, supports, demands, loads),
            rods.hole(piece.depth_mm, rod),
            rods.cover(piece, rod),
            _plate_hidden(piece, row),
            *([_droop(row, load, hit, demands, unknown)] if hit else []),
            *stiffness.wobble(
                load,
                [(support, _give(piece.depth_mm, piece.depth_mm, row)) for support in hit],
                demands,
                unknown,
            ),
        ]

    def _load(self, piece: RodShelf, so: Sharing) -> ShelfLoad:
        row = piece.hardware
        return ShelfLoad(piece, row.mass_kg * G_N_PER_KG, row.rod_length_mm / 2, so)

    def supports(self, piece: RodShelf, wall: Wall) -> list[Support]:
        """Each plate where it sits; the rod's axis is at half the shelf's thickness."""
        row = piece.hardware
        heights = tuple(row.height_mm / 2 + up for up in row.rows_mm)
        hardware = Hardware(heights, row.height_mm, row.width_mm, wood.steel_side(row.side_mm))
        foot = piece.top_mm - piece.thickness_mm / 2 - row.height_mm / 2
        count = len(piece.supports_mm)
        return [
            support(
                wall,
                piece,
                hardware,
                i,
                support_name(i, count, NOUN),
                piece.left_mm + x,
                foot,
                piece.let_in,
            )
            for i, x in enumerate(piece.supports_mm)
        ]

    def parts(self, piece: RodShelf, wall: Wall) -> list[Part]:
        """Return the board and its rods."""
        return [
            board_part(piece, wall),
            Part(
                "rod and plate",
                piece.hardware.name,
                len(piece.supports_mm),
                own=piece.own is not None,
            ),
        ]

    def details(self, piece: RodShelf, wall: Wall, units: Units) -> dict[str, Detail]:
        """As of any shelf; its plates let into its back where they lie on the wall."""
        found = super().details(piece, wall, units)
        row, scribed = piece.hardware, found["board"].scribe_mm[1] > 0
        places = tuple((x, piece.thickness_mm / 2) for x in piece.supports_mm)
        recess = Recess(
            "its back edge",
            places,
            row.width_mm,
            min(row.height_mm, piece.thickness_mm),
            row.side_mm,
            scribed,
        )
        works = found["board"].works + (() if piece.let_in else (recess,))
        return found | {"board": found["board"]._replace(works=works)}

    def front(self, piece: RodShelf) -> list[Shape]:
        """Return the board; its plates are behind it."""
        row, axis = piece.hardware, piece.top_mm - piece.high_mm / 2
        half, high = row.width_mm / 2, row.height_mm / 2
        places = [piece.left_mm + x for x in piece.supports_mm]
        return [
            board_front(piece),
            *(
                block("hidden", x - half, axis - high, x + half, axis + high, i)
                for i, x in enumerate(places)
            ),
        ]

    def side(self, piece: RodShelf, support: Support) -> list[Shape]:
        """Return the board over the rod, the plate on the wall or in it."""
        row = piece.hardware
        axis = piece.top_mm - piece.high_mm / 2
        back = -support.back_mm
        rod, high = row.rod_mm / 2, row.height_mm / 2
        return [
            board_side(piece),
            block("steel", back, axis - rod, back + row.rod_length_mm, axis + rod),
            block("steel", back, axis - high, back + row.side_mm, axis + high),
        ]

    def box(self, piece: RodShelf) -> Box:
        """Return the board alone."""
        return Box(
            piece.left_mm,
            piece.left_mm + piece.length_mm,
            piece.top_mm - piece.high_mm,
            piece.top_mm,
        )

    def cures(self, piece: RodShelf, units: Units) -> Iterator[tuple[str, Message, RodShelf]]:
        """Yield the plates let in; another plate, let in, in a shelf thick enough to hide it."""
        if not piece.let_in:
            yield (
                "let_in",
                Message("Let the plates into the lining, onto the studs"),
                replace(piece, let_in=True),
            )
        for key, row in data.plates().items():
            if key != piece.plate or piece.own is not None:
                label = Message("The {key} plate, let in, with a shelf thick enough", {"key": key})
                thick = max(piece.thickness_mm, row.height_mm + 5)
                changed = replace(piece, thickness_mm=thick, plate=key, own=None, let_in=True)
                yield "plate", label, changed

    def hanging(self, piece: RodShelf, wall: Wall, policy: Policy) -> Hanging:
        """Return its hanging: the plates, let in where they are; the rods, level and parallel.

        The shelf slid on, dry first.
        """
        opening = (
            Message("Draw round the plate at its place and score the paper."),
            Message(
                "Cut no deeper than the lining, {t}: cables may run behind it.",
                {"t": Quantity(wall.lining_mm or 0.0, "fine")},
            ),
            Message("Clear every crumb, down to what is behind it."),
        )
        tried = do(
            "rods",
            "Try the rods",
            "Lay the level across them. Measure between them at the wall and at their ends: both "
            "must be the same.",
            "Loosen their adjusting screws, set the rods so, and tighten the screws again."
            if _adjusts(piece)
            else "Shim a plate now; it can't be done with the shelf on.",
            acts=(Act("level", "rods"),),
        )
        set_screws = piece.own is not None and piece.own.set_screw
        stays = "set_screws" if set_screws and policy.stays != "glued" else policy.stays
        return Hanging(
            "plate",
            ("Middle of the rods", piece.top_mm - piece.thickness_mm / 2),
            "apart",
            after=(tried, *carried_over("shelf", "rods"), *slid_on(stays, "rods")),
            opening=opening if piece.let_in and wall.layers else None,
        )

    def droop(self, piece: RodShelf, wall: Wall) -> Droop:
        """Return how far its front drops, as its check has it."""
        found = (c for c in self.checks(piece, wall) if c.code == "shelf.droop")
        front = max((check.demand.value for check in found), default=0.0)
        return Droop(front, piece.hardware.height_mm)

    def cautions(self, piece: RodShelf, wall: Wall) -> list[Message]:
        """Return what people get wrong with rods and plates."""
        said = (
            "Level from rod to rod before the second screw; carry their places over with a "
            "strip of card."
        )
        if not wall.layers:
            return [Message(said)]
        if piece.let_in:
            return [
                Message(said),
                Message(
                    "The plate sits on the stud: no crumbs of lining behind it. Patch around it."
                ),
            ]
        return [
            Message(said),
            Message("A plate over the lining crushes it, and wobbles in time: better let it in."),
        ]

    def bores(self, piece: RodShelf, wall: Wall) -> list[Bore]:
        """One hole per rod at mid-thickness, a little deeper than the rod is long."""
        row, count = piece.hardware, len(piece.supports_mm)
        said = Message(
            "Let the plate into the shelf's back, {t} deep.", {"t": Quantity(row.side_mm, "fine")}
        )
        recess = () if piece.let_in else (said,)
        return [
            Bore(
                x,
                piece.thickness_mm / 2,
                row.rod_mm,
                _in_shelf(piece, wall) + rods.BORE_SPARE_MM,
                support_name(i, count, NOUN),
                0.0 if _adjusts(piece) else loose_mm(count),
                recess,
            )
            for i, x in enumerate(piece.supports_mm)
        ]


KIND = _RodShelf()


def _set_back(piece: RodShelf, wall: Wall) -> float:
    """How far behind the lining's face the plate sits."""
    return (wall.lining_mm or 0.0) if piece.let_in else 0.0


def _in_shelf(piece: RodShelf, wall: Wall) -> float:
    """How much of a rod is in the shelf.

    All of it, less what the lining takes where its plate is let in.
    """
    return piece.hardware.rod_length_mm - _set_back(piece, wall)


def _adjusts(piece: RodShelf) -> bool:
    """Whether its rods can be made parallel when their plates hang."""
    return piece.own is not None and piece.own.adjusts_mm > 0


def _moved_out(cases: tuple[Demand, ...], by_mm: float) -> tuple[Demand, ...]:
    return tuple(case._replace(moment_nmm=case.moment_nmm + case.load_n * by_mm) for case in cases)


def _inertia(row: data.Plate) -> float:
    return pi * row.rod_mm**4 / 64


def _give(place_mm: float, edge_mm: float, row: data.Plate) -> float:
    """How far the front edge goes down when 1 N acts at a place.

    The rod bends up to its end, the shelf turns with it.
    """
    rod = min(row.rod_length_mm, place_mm)
    beyond = place_mm - rod
    ei = _STEEL_E_MPA * _inertia(row)
    at_end = rod**3 / 3 + beyond * rod**2 / 2
    slope = rod**2 / 2 + beyond * rod
    return (at_end + slope * (edge_mm - rod)) / ei


def _rod_bending(
    row: data.Plate,
    supports: list[Support],
    demands: dict[int, tuple[Demand, ...]],
    unknown: tuple[str, ...],
) -> Check:
    support, demand = max(rods.every(supports, demands), key=lambda p: abs(p[1].moment_nmm))
    sums = Calculation()
    sums.given(
        "M",
        abs(demand.moment_nmm),
        "moment",
        compose("turning load at the plate, {case}", case=demand.case),
    )
    strength.write_round(sums, row.rod_mm, "rod")
    strength.write_steel(sums, row.yield_mpa, "round")
    return make(
        "rod.bending",
        part=support.part,
        support=support.index,
        case=demand.case,
        unknown=unknown,
        demand=sums.quantity("σ"),
        capacity=sums.quantity("σ'"),
        template="The {part} uses {used} of its bending strength at the plate.",
        parts={"part": support.part},
        equations=sums.equations,
    )


def _plate_hidden(piece: RodShelf, row: data.Plate) -> Check:
    return make(
        "plate.hidden",
        part="board",
        case="any",
        demand=Quantity(row.height_mm, "fine"),
        capacity=Quantity(piece.thickness_mm, "fine"),
        template="The plate is {demand} high and the shelf {capacity} thick; a higher plate is "
        "visible.",
    )


def _droop(
    row: data.Plate,
    load: ShelfLoad,
    supports: list[Support],
    demands: dict[int, tuple[Demand, ...]],
    unknown: tuple[str, ...],
) -> Check:
    depth = load.piece.depth_mm
    bends = load.lasting_effects(lambda place: _give(place, depth, row))

    def parts(support: Support, demand: Demand) -> tuple[float, float]:
        turning = stiffness.turning_stiffness(support)
        turned = (
            demand.moment_nmm / turning * depth * (1 + rods.STUD_CREEP)
            if turning > 0
            else _NO_HOLD_MM
        )
        return max(bends[support.index], 0.0), max(turned, 0.0)

    # each support's first case is the lasting one, downwards
    lasting = [(support, demands[support.index][0]) for support in supports]
    (bent, turned), support, demand = max(
        ((parts(support, d), support, d) for support, d in lasting), key=lambda p: sum(p[0])
    )
    turning, sums = stiffness.turning_stiffness(support), Calculation()
    sums.given("M", demand.moment_nmm, "moment", compose("turning load, {case}", case=demand.case))
    sums.given("w_1", bent, "fine", "the rod bends")
    sums.given("d", depth, "length", "depth of the shelf")
    if turning > 0:
        sums.given("K", turning, "turning", "turning stiffness of the plate on its screws")
        sums.given("k_def", rods.STUD_CREEP, "ratio", "creep of the stud")
        sums.then("w_2", "max(M d (1 + k_def) / K, 0)", "fine", "the plate turns")
    else:
        sums.given("w_2", turned, "fine", "no thread holds the plate")
    sums.then("w", "w_1 + w_2", "fine", "in all")
    strength.write_droop_limit(sums)
    return make(
        "shelf.droop",
        part=support.part,
        support=support.index,
        case=demand.case,
        unknown=unknown,
        demand=sums.quantity("w"),
        capacity=sums.quantity("w_max"),
        template="Over the years the front edge drops {demand}; more than {capacity} and things "
        "look tilted.",
        equations=sums.equations,
    )
