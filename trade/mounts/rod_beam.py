"""A solid beam or mantel on threaded rods driven into the studs."""

from collections.abc import Iterator
from typing import Any, ClassVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Quantity
from trade.check import Check, Message, make
from trade.fixings import fastening, wood
from trade.fixings.support import Hardware, Support, support
from trade.load import sharing
from trade.load.demand import Demand
from trade.load.line import unweighed
from trade.load.shelf import ShelfLoad
from trade.load.ways import BODY, Sharing
from trade.measure import Units
from trade.mounts import board, rods, stiffness
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
    support_name,
)
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.rods import Rod, carried_over
from trade.plan.model import RodBeam, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing

NOUN = "rod"
_LOOSE_MM = data.house("beam_loose_mm")
_SPARE_MM = data.house("beam_spare_mm")
_FACE_WIDTH_MM = data.house("beam_face_mm")


class _RodBeam(Mount[RodBeam]):
    kind = "rod_beam"
    name = "Beam on threaded rods"
    piece_noun = "beam"
    support_noun = NOUN
    bored_from_wall = True
    make = RodBeam
    on_a_board = True
    asks = (
        *WOODEN_SHELF,
        Ask("in_beam_mm", "Rod in the beam", "length"),
        Ask("locked", "Locked onto its rods by screws from the top, or glue", "flag"),
    )
    fresh: ClassVar[dict[str, Any]] = {
        "board": "oak_white",
        "thickness_mm": 140.0,
        "depth_mm": 190.0,
        "length_mm": 1500.0,
        "use": "display",
        "screw": "rod_3_8",
        "in_beam_mm": 90.0,
    }

    def follow(self, piece: RodBeam, question: str, policy: Policy) -> RodBeam:
        """Locked on its rods, or held by friction alone."""
        return replace(piece, locked=policy.stays != "friction") if question == "stays" else piece

    def shorter_rods(self, piece: RodBeam) -> tuple[RodBeam, float] | None:
        """Rods with the least cover of wood in front of them."""
        room = piece.depth_mm - data.house("rod_cover_mm")
        return (replace(piece, in_beam_mm=room), room) if 0 < room < piece.in_beam_mm else None

    def checks(self, piece: RodBeam, wall: Wall) -> list[Check]:
        """Every check of the beam and its rods."""
        loads = unweighed(piece)
        if len(piece.supports_mm) < 2:
            return [board.too_few_supports(piece, NOUN, loads)]
        return sharing.best(
            lambda so: self._shared(piece, wall, so), lambda so: self._load(piece, so), BODY
        )

    def _shared(self, piece: RodBeam, wall: Wall, so: Sharing) -> list[Check]:
        loads = unweighed(piece)
        load, supports = self._load(piece, so), self.supports(piece, wall)
        demands, rod = load.demands(), Rod(supports[0].screw.diameter_mm, piece.in_beam_mm)
        lining = backing(wall).unknown
        return [
            *board.checks(load, loads),
            *fastening.checks(supports, demands, lining, loads),
            rods.bearing(
                piece, rod, supports, _shear_alone(demands) if piece.locked else demands, loads
            ),
            rods.hole(piece.depth_mm, rod),
            rods.cover(piece, rod),
            *([] if piece.locked else [_loose()]),
            *stiffness.wobble(
                load, [(each, 0.0) for each in supports if each.holds], demands, lining + loads
            ),
        ]

    def _load(self, piece: RodBeam, so: Sharing) -> ShelfLoad:
        return ShelfLoad(piece, 0.0, 0.0, so)

    def supports(self, piece: RodBeam, wall: Wall) -> list[Support]:
        """Each rod, at half the beam's height; the beam's lower back edge is what presses."""
        screw = data.screws()[piece.screw]
        row = data.boards()[piece.board]
        side = wood.wood_side(piece.in_beam_mm, row.g, screw.diameter_mm, across=not row.sheet)
        hardware = Hardware(
            (piece.thickness_mm / 2,), piece.thickness_mm, _FACE_WIDTH_MM, side, blind=True
        )
        foot, count = piece.top_mm - piece.thickness_mm, len(piece.supports_mm)
        return [
            support(wall, piece, hardware, i, support_name(i, count, NOUN), piece.left_mm + x, foot)
            for i, x in enumerate(piece.supports_mm)
        ]

    def parts(self, piece: RodBeam, wall: Wall) -> list[Part]:
        """Return the beam and its rods, cut to length."""
        screw = data.screws()[piece.screw]
        size = (piece.screw_length_mm, screw.diameter_mm, screw.diameter_mm)
        return [
            board_part(piece, wall),
            Part("rod", screw.name_metric, len(piece.supports_mm), size),
        ]

    def front(self, piece: RodBeam) -> list[Shape]:
        """Return the beam; its rods are behind it."""
        axis, r = piece.top_mm - piece.high_mm / 2, data.screws()[piece.screw].diameter_mm / 2
        places = [piece.left_mm + x for x in piece.supports_mm]
        return [
            board_front(piece),
            *(block("hidden", x - r, axis - r, x + r, axis + r, i) for i, x in enumerate(places)),
        ]

    def side(self, piece: RodBeam, support: Support) -> list[Shape]:
        """Return the beam on the wall."""
        return [board_side(piece)]

    def box(self, piece: RodBeam) -> Box:
        """Return the beam alone."""
        return Box(
            piece.left_mm,
            piece.left_mm + piece.length_mm,
            piece.top_mm - piece.high_mm,
            piece.top_mm,
        )

    def bores(self, piece: RodBeam, wall: Wall) -> list[Bore]:
        """One hole per rod, wider than it, in the middle of the beam's height."""
        rod, count = data.screws()[piece.screw].diameter_mm, len(piece.supports_mm)
        deep, up = piece.in_beam_mm + _SPARE_MM, piece.thickness_mm / 2
        return [
            Bore(x, up, rod, deep, support_name(i, count, NOUN), _LOOSE_MM)
            for i, x in enumerate(piece.supports_mm)
        ]

    def cures(self, piece: RodBeam, units: Units) -> Iterator[tuple[str, Message, RodBeam]]:
        """Lock it; deeper rods."""
        if not piece.locked:
            yield (
                "lock",
                Message("Lock it onto its rods: screws from the top, or glue"),
                replace(piece, locked=True),
            )
        yield from super().cures(piece, units)

    def takes(self, piece: RodBeam, field: str, size: float) -> bool:
        """Whether wood is left in front of its rods."""
        return field != "in_beam_mm" or size <= piece.depth_mm - data.house("rod_cover_mm")

    def hanging(self, piece: RodBeam, wall: Wall, policy: Policy) -> Hanging:
        """Return the rods turned into the studs; their places carried over.

        The beam tried on dry, then for good.
        """
        dry = do(
            "dry",
            "Try the beam on dry",
            "All the way, then off again. Open the holes that bind; no sledge hammer.",
            lifts=True,
            acts=(Act("put_on", "beam"), Act("take_down", "beam")),
        )
        on = do(
            "on",
            "Put the beam on",
            "Resin in the holes now, if it is to stay for good.",
            lifts=True,
            acts=(Act("put_on", "beam"),),
        )
        lock = do(
            "lock",
            "Lock it from the top",
            "A screw down beside each rod, its head sunk and plugged: nobody must pull it off.",
        )
        return Hanging(
            "rod",
            ("Middle of the rods", piece.top_mm - piece.thickness_mm / 2),
            "apart",
            after=(*carried_over("beam", "rods"), dry, on, *((lock,) if piece.locked else ())),
        )

    def cautions(self, piece: RodBeam, wall: Wall) -> list[Message]:
        """Return what people get wrong with rods."""
        return [
            Message(
                "Carry the rods' places over with a template held to the wall; the beam's holes "
                "are wider than the rods."
            ),
            Message("Sand the rods' ends round, and try the beam on dry before any glue."),
        ]


KIND = _RodBeam()


def _shear_alone(demands: dict[int, tuple[Demand, ...]]) -> dict[int, tuple[Demand, ...]]:
    """Return what presses a locked beam onto its rods: the load only.

    The turning load is a pull along the rods and the beam's lower edge on the wall, and both are
    judged there.
    """
    return {
        n: tuple(case._replace(moment_nmm=0.0) for case in cases) for n, cases in demands.items()
    }


def _loose() -> Check:
    return make(
        "rod.locked",
        part="board",
        case="any",
        demand=Quantity(1, "count"),
        capacity=Quantity(0.5, "count"),
        template="Nothing keeps the beam on its rods: it turns and slides off. Lock it by screws "
        "from the top, or glue.",
    )
