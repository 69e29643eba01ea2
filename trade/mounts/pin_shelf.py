"""A floating shelf on blind pins."""

from math import pi
from typing import Any, ClassVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, Message, make
from trade.fixings import pins
from trade.fixings.pins import PinSeat
from trade.language import compose
from trade.load import sharing
from trade.load.demand import Demand
from trade.load.line import unweighed
from trade.load.shelf import ShelfLoad
from trade.load.ways import BOARD, Sharing
from trade.measure import G_N_PER_KG
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
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.rods import Rod, carried_over, rod_mm, slid_on
from trade.mounts.stiffness import Give
from trade.plan.model import PinShelf, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing, stud_at

_MOST_TILT = data.house("pin_tilt")
NOUN = "pin"
_LEAST = data.house("pin_least_diameters")


class _PinShelf(Mount[PinShelf]):
    kind = "pin_shelf"
    name = "Floating shelf on blind pins"
    support_noun = NOUN
    bored_from_wall = True
    make = PinShelf
    asks = (
        *WOODEN_SHELF,
        Ask("steel", "Pins of", "choice", data.pins, cure="steel"),
        Ask("pin_mm", "Pin thick", "length"),
        Ask("in_stud_mm", "Pin in the stud", "length"),
        Ask("in_shelf_mm", "Pin in the shelf", "length"),
        Ask("tilted", "Pins set upward, by what the load takes away again", "flag"),
    )
    fresh: ClassVar[dict[str, Any]] = {
        "board": "oak_red",
        "thickness_mm": 38.0,
        "depth_mm": 180.0,
        "in_shelf_mm": 120.0,
        "use": "display",
    }

    def sized(self, fields: dict[str, Any], wall: Wall, x_mm: float) -> dict[str, Any]:
        """Pins that leave wood in front of them."""
        return fields | {
            "in_shelf_mm": rod_mm(fields["depth_mm"], fields.get("in_shelf_mm", 120.0))
        }

    def shorter_rods(self, piece: PinShelf) -> tuple[PinShelf, float] | None:
        """Pins with the least cover of wood in front of them."""
        room = piece.depth_mm - data.house("rod_cover_mm")
        return (replace(piece, in_shelf_mm=room), room) if 0 < room < piece.in_shelf_mm else None

    def checks(self, piece: PinShelf, wall: Wall) -> list[Check]:
        """Every check of the shelf and its pins."""
        loads = unweighed(piece)
        if len(piece.supports_mm) < 2:
            return [board.too_few_supports(piece, NOUN, loads)]
        return sharing.best(
            lambda so: self._shared(piece, wall, so), lambda so: self._load(piece, so), BOARD
        )

    def _shared(self, piece: PinShelf, wall: Wall, so: Sharing) -> list[Check]:
        loads = unweighed(piece)
        load = self._load(piece, so)
        demands = load.demands()
        supports = self.supports(piece, wall)
        rod = Rod(piece.pin_mm, piece.in_shelf_mm)
        unknown = backing(wall).unknown + loads
        found = [
            *board.checks(load, loads),
            *pins.checks(supports, demands, backing(wall).unknown, loads, _LEAST * piece.pin_mm),
            rods.bearing(piece, rod, supports, demands, loads),
            rods.hole(piece.depth_mm, rod),
            rods.cover(piece, rod),
        ]
        hit = [support for support in supports if support.in_stud]
        if hit:
            found += [
                _droop(load, hit, demands, unknown),
                *stiffness.feel(load, [_give(piece, support) for support in hit], unknown),
            ]
        return found

    def _load(self, piece: PinShelf, so: Sharing) -> ShelfLoad:
        mass_n = pi * piece.pin_mm**2 / 4 * piece.in_shelf_mm * 7.85e-6 * G_N_PER_KG
        return ShelfLoad(piece, mass_n, piece.in_shelf_mm / 2, so)

    def supports(self, piece: PinShelf, wall: Wall) -> list[PinSeat]:
        """Each pin in its stud, at half the shelf's thickness."""
        behind, count = backing(wall), len(piece.supports_mm)
        names = [support_name(i, count, NOUN) for i in range(count)]
        return [
            PinSeat(
                index=i,
                part=names[i],
                x_mm=piece.left_mm + x,
                y_mm=piece.top_mm - piece.thickness_mm / 2,
                pin_mm=piece.pin_mm,
                embedment_mm=piece.in_stud_mm,
                gap_mm=behind.lining_mm,
                steel=data.pins()[piece.steel],
                timber=behind.timber,
                stud=stud_at(wall, piece.left_mm + x, names[i]),
                firm=wall.build in ("timber", "unknown"),
            )
            for i, x in enumerate(piece.supports_mm)
        ]

    def parts(self, piece: PinShelf, wall: Wall) -> list[Part]:
        """Return the board and its pins, cut to length.

        In the stud, through the lining, in the shelf.
        """
        long = piece.in_stud_mm + (wall.lining_mm or 0.0) + piece.in_shelf_mm
        size = (long, piece.pin_mm, piece.pin_mm)
        return [
            board_part(piece, wall),
            Part("pin", data.pins()[piece.steel].name, len(piece.supports_mm), size),
        ]

    def front(self, piece: PinShelf) -> list[Shape]:
        """Return the board; its pins are behind it."""
        axis, r = piece.top_mm - piece.high_mm / 2, piece.pin_mm / 2
        places = [piece.left_mm + x for x in piece.supports_mm]
        return [
            board_front(piece),
            *(block("hidden", x - r, axis - r, x + r, axis + r, i) for i, x in enumerate(places)),
        ]

    def side(self, piece: PinShelf, support: PinSeat) -> list[Shape]:
        """Return the board over the pin, the pin through the lining into the stud."""
        axis, r = piece.top_mm - piece.high_mm / 2, piece.pin_mm / 2
        return [
            board_side(piece),
            block(
                "steel",
                -support.gap_mm - piece.in_stud_mm,
                axis - r,
                min(piece.in_shelf_mm, piece.depth_mm),
                axis + r,
            ),
        ]

    def box(self, piece: PinShelf) -> Box:
        """Return the board alone."""
        return Box(
            piece.left_mm,
            piece.left_mm + piece.length_mm,
            piece.top_mm - piece.high_mm,
            piece.top_mm,
        )

    def bores(self, piece: PinShelf, wall: Wall) -> list[Bore]:
        """One hole per pin, in the middle of the thickness."""
        count = len(piece.supports_mm)
        names = [support_name(i, count, NOUN) for i in range(count)]
        deep, up = piece.in_shelf_mm + rods.BORE_SPARE_MM, piece.thickness_mm / 2
        return [
            Bore(x, up, piece.pin_mm, deep, names[i], loose_mm(count))
            for i, x in enumerate(piece.supports_mm)
        ]

    def hanging(self, piece: PinShelf, wall: Wall, policy: Policy) -> Hanging:
        """Return the pins tapped into the studs, a touch upward; then the shelf."""
        tapped = do(
            "pins",
            "Try the pins",
            *(("Each a touch upward: the loaded shelf comes down level.",) if piece.tilted else ()),
            "The level across them, and the same distance between them at the wall as at their "
            "ends.",
            acts=(Act("level", "pins"),),
        )
        return Hanging(
            "pin",
            ("Middle of the pins", piece.top_mm - piece.thickness_mm / 2),
            "apart",
            after=(tapped, *carried_over("shelf", "pins"), *slid_on(policy.stays, "pins")),
        )

    def cautions(self, piece: PinShelf, wall: Wall) -> list[Message]:
        """How far up to set the pins."""
        up = tilt_mm(piece, wall) if piece.tilted and len(piece.supports_mm) > 1 else 0.0
        if up < 0.2:
            return []
        said = (
            "Set the pins upward: {up} at the shelf's front edge, {depth} out. The load takes "
            "it away again."
        )
        return [
            Message(said, {"up": Quantity(up, "fine"), "depth": Quantity(piece.depth_mm, "length")})
        ]


KIND = _PinShelf()


def _give(piece: PinShelf, support: PinSeat) -> Give:
    """How far the front edge goes down under 1 N there.

    The wood gives and the pin turns in it; the pin bends up to its end.
    """
    depth = piece.depth_mm
    return Give(support, *_parts(piece, support, 1.0, depth), 0.0)


def _parts(piece: PinShelf, support: PinSeat, load_n: float, out_mm: float) -> tuple[float, float]:
    """Return the front edge's drop from the wood, the pin across the lining, and in the shelf."""
    front, moment = piece.depth_mm + support.gap_mm, load_n * (out_mm + support.gap_mm)
    sinks, slope = support.gives(load_n, moment)
    ei = support.ei_nmm2
    reach = (
        min(piece.in_shelf_mm, piece.depth_mm) / 2 + support.gap_mm
    )  # from half its length on, the shelf's wood stiffens the pin
    bent = moment * reach / ei * (front - reach / 2)
    return sinks + slope * front, bent


def tilt_mm(piece: PinShelf, wall: Wall) -> float:
    """How far up to set the pins, at the front edge.

    What the lasting load lets down over the years, but no more than shows.
    """
    hit = [support for support in KIND.supports(piece, wall) if support.in_stud]
    demands = ShelfLoad(piece, 0.0, 0.0).demands()
    drops = [_drop(piece, support, demands[support.index][0]) for support in hit]
    return min(max(drops, default=0.0), _MOST_TILT * piece.depth_mm)


def _drop(piece: PinShelf, support: PinSeat, demand: Demand) -> float:
    out = demand.moment_nmm / demand.load_n if demand.load_n > 0 else 0.0
    wood, bent = _parts(piece, support, max(demand.load_n, 0.0), max(out, 0.0))
    return wood * (1 + rods.STUD_CREEP) + bent


def _droop(
    load: ShelfLoad,
    supports: list[PinSeat],
    demands: dict[int, tuple[Demand, ...]],
    unknown: tuple[str, ...],
) -> Check:
    piece = load.piece
    assert isinstance(piece, PinShelf)
    support = max(supports, key=lambda s: _drop(piece, s, demands[s.index][0]))
    demand = demands[support.index][0]
    drop = _drop(piece, support, demand)
    up = min(drop, _MOST_TILT * piece.depth_mm) if piece.tilted else 0.0
    out = demand.moment_nmm / demand.load_n if demand.load_n > 0 else 0.0
    wood, bent = _parts(piece, support, max(demand.load_n, 0.0), max(out, 0.0))
    about = demand.moment_nmm + demand.load_n * support.gap_mm
    sums = Calculation()
    sums.given("P", demand.load_n, "force", compose("load on the pin, {case}", case=demand.case))
    sums.given("M", about, "moment", "about the wood's face, lining included")
    sums.given("w_1", wood, "fine", "the wood gives (beam on a bed of springs)")
    sums.given("k_def", rods.STUD_CREEP, "ratio", "creep of the stud")
    sums.given("w_2", bent, "fine", "the pin bends")
    sums.then("w", "w_1 (1 + k_def) + w_2", "fine", "in all")
    sums.given("d", piece.depth_mm, "length", "depth of the shelf")
    if piece.tilted:
        sums.then(
            "w_0",
            f"min(w, {_MOST_TILT} d)",
            "fine",
            "set upward by so much",
        )
        sums.then("w'", "w − w_0", "fine", "low in the end")
    strength.write_droop_limit(sums)
    return make(
        "pin.droop",
        part=support.part,
        support=support.index,
        case=demand.case,
        unknown=unknown,
        demand=sums.quantity("w'" if piece.tilted else "w"),
        capacity=sums.quantity("w_max"),
        template="Over the years the front edge drops {drop}; set {up} upward it ends {demand} "
        "low, the limit is {capacity}.",
        parts={"drop": sums.quantity("w"), "up": Quantity(up, "fine")},
        equations=sums.equations,
    )
