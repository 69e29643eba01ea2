"""A floating shelf that slides onto dowels in a back strip, all of wood."""

from itertools import pairwise
from math import hypot, pi
from typing import Any, ClassVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation
from trade.check import Check, Message, make
from trade.fixings import fastening
from trade.fixings.support import Support
from trade.language import compose
from trade.load import sharing
from trade.load.demand import Demand
from trade.load.line import unweighed
from trade.load.shelf import ShelfLoad
from trade.load.ways import BOARD, Sharing
from trade.measure import Units
from trade.mounts import board, rods, stiffness, strength, strips
from trade.mounts.base import (
    WOODEN_SHELF,
    Ask,
    Bore,
    Box,
    Mount,
    Part,
    Shape,
    block,
    board_detail,
    board_front,
    cut,
    cut_dowel,
)
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.rods import Rod, rod_mm, slid_on
from trade.mounts.work import Band, Bored, Detail, Mitre, longest_mm
from trade.plan.model import DowelShelf, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing

_STRIP_MM = data.house("dowel_strip_mm")
_PRESSED_MM = data.house("strip_pressed_mm")
NOUN = "support"
_BETWEEN_MM = data.house("dowel_clear_mm")
_SPARE_MM = data.house("dowel_spare_mm")


class _DowelShelf(Mount[DowelShelf]):
    kind = "dowel_shelf"
    name = "Floating shelf on dowels"
    support_noun = NOUN
    make = DowelShelf
    woods = (("board", ("thickness_mm", "strip_mm")),)
    asks = (
        *WOODEN_SHELF,
        Ask("strip_mm", "Back strip thick", "length"),
        Ask("dowel", "Dowels of", "choice", data.woods),
        Ask("dowels", "Dowels", "count"),
        Ask("dowel_mm", "Dowels thick", "length"),
        Ask("in_shelf_mm", "Dowels in the shelf", "length"),
    )
    fresh: ClassVar[dict[str, Any]] = {
        "board": "oak_red",
        "thickness_mm": 60.0,
        "depth_mm": 200.0,
        "use": "display",
    }

    def sized(self, fields: dict[str, Any], wall: Wall, x_mm: float) -> dict[str, Any]:
        """Dowels that leave wood in front of them."""
        return fields | {
            "in_shelf_mm": rod_mm(fields["depth_mm"] - _STRIP_MM, fields.get("in_shelf_mm", 120.0))
        }

    def shorter_rods(self, piece: DowelShelf) -> tuple[DowelShelf, float] | None:
        """Dowels with the least cover of wood in front of them."""
        room = piece.depth_mm - piece.strip_mm - data.house("rod_cover_mm")
        return (replace(piece, in_shelf_mm=room), room) if 0 < room < piece.in_shelf_mm else None

    def checks(self, piece: DowelShelf, wall: Wall) -> list[Check]:
        """Every check of the shelf, its dowels and the strip's screws."""
        loads = unweighed(piece)
        if len(piece.supports_mm) < 2:
            return [board.too_few_supports(piece, NOUN, loads)]
        return sharing.best(
            lambda so: self._shared(piece, wall, so), lambda so: self._load(piece, so), BOARD
        )

    def _shared(self, piece: DowelShelf, wall: Wall, so: Sharing) -> list[Check]:
        loads = unweighed(piece)
        load, supports = self._load(piece, so), self.supports(piece, wall)
        demands = load.demands()
        lining = backing(wall).unknown
        rod = Rod(piece.dowel_mm, piece.in_shelf_mm)
        give = _give(piece) * len(piece.supports_mm) / piece.dowels
        return [
            *board.checks(load, loads),
            *fastening.checks(supports, demands, lining, loads),
            _bending(piece, demands, load.push_n, loads),
            rods.hole(piece.depth_mm - piece.strip_mm, rod),
            rods.cover(piece, rod),
            _clear_of_screws(piece, supports),
            *stiffness.wobble(
                load, [(each, give) for each in supports if each.holds], demands, lining + loads
            ),
        ]

    def _load(self, piece: DowelShelf, so: Sharing) -> ShelfLoad:
        return ShelfLoad(piece, 0.0, 0.0, so)

    def supports(self, piece: DowelShelf, wall: Wall) -> list[Support]:
        """Return the back strip on its studs."""
        high = piece.thickness_mm
        gaps = [b - a for a, b in pairwise(piece.supports_mm)]
        along = (
            min([*gaps, _PRESSED_MM]) - strips.FACE_WIDTH_MM
        )  # it lies on the wall all along, and the shelf keeps it stiff
        foot = piece.top_mm - high
        return strips.on_studs(
            piece, wall, NOUN, piece.board, piece.strip_mm, high, foot, along_mm=max(along, 0.0)
        )

    def parts(self, piece: DowelShelf, wall: Wall) -> list[Part]:
        """Return the shelf, its back strip off the same board, the dowels through both."""
        long, d = piece.strip_mm + piece.in_shelf_mm, piece.dowel_mm
        return [
            cut(
                "shelf",
                piece.board,
                1,
                longest_mm(piece, wall),
                piece.depth_mm - piece.strip_mm,
                piece.thickness_mm,
            ),
            cut("back strip", piece.board, 1, piece.length_mm, piece.thickness_mm, piece.strip_mm),
            cut_dowel("dowel", piece.dowel, piece.dowels, long, d),
        ]

    def details(self, piece: DowelShelf, wall: Wall, units: Units) -> dict[str, Detail]:
        """Return the shelf as any.

        The strip scribed instead of it, bored for the screws and, with the shelf, for the dowels.
        """
        shelf = board_detail(piece, wall, self.bores(piece, wall), units)
        bands = tuple(work for work in shelf.works if isinstance(work, Band | Mitre))
        bored = tuple(work for work in shelf.works if isinstance(work, Bored))
        dowels = tuple(
            work._replace(into="its face, clamped to the shelf", deep_mm=None, why="for the dowels")
            for work in bored
        )
        screws = strips.screwed(
            self.supports(piece, wall), piece.left_mm, piece.top_mm - piece.thickness_mm, units
        )
        return {
            "shelf": Detail(
                (*bands, *bored), "its bored edge to the strip, good face up", follows="back strip"
            ),
            "back strip": Detail(
                (*dowels, *screws),
                "off the shelf's own board, its grain going on",
                scribe_mm=shelf.scribe_mm,
            ),
            "dowel": Detail(bare=True),
        }

    def front(self, piece: DowelShelf) -> list[Shape]:
        """Return the board; dowels and screws behind it."""
        axis, r = piece.top_mm - piece.high_mm / 2, piece.dowel_mm / 2
        dowels = [
            block("hidden", x - r, axis - r, x + r, axis + r)
            for x in (piece.left_mm + at for at in dowel_places_mm(piece))
        ]
        heights = tuple(piece.top_mm - piece.high_mm + up for up in strips.rows(piece.high_mm))
        return [board_front(piece), *dowels, *strips.screws_front(piece, heights)]

    def side(self, piece: DowelShelf, support: Support) -> list[Shape]:
        """Return the strip on the wall, the shelf in front of it, a dowel through both."""
        t = piece.strip_mm
        axis = piece.top_mm - piece.high_mm / 2
        r = piece.dowel_mm / 2
        low = piece.top_mm - piece.high_mm
        return [
            block("wood", 0.0, low, t, piece.top_mm),
            block("board", t, low, piece.depth_mm, piece.top_mm),
            block("wood", 0.0, axis - r, min(t + piece.in_shelf_mm, piece.depth_mm), axis + r),
        ]

    def box(self, piece: DowelShelf) -> Box:
        """Return the board alone."""
        return Box(
            piece.left_mm,
            piece.left_mm + piece.length_mm,
            piece.top_mm - piece.high_mm,
            piece.top_mm,
        )

    def bores(self, piece: DowelShelf, wall: Wall) -> list[Bore]:
        """One hole per dowel, the same in shelf and strip: clamp them together and drill both."""
        deep, up = piece.in_shelf_mm + _SPARE_MM, piece.thickness_mm / 2
        return [
            Bore(x, up, piece.dowel_mm, deep, compose("dowel {n}", n=n))
            for n, x in enumerate(dowel_places_mm(piece), start=1)
        ]

    def takes(self, piece: DowelShelf, field: str, size: float) -> bool:
        """Whether a dowel less gives its screws room: no more are left out."""
        return field != "dowels" or size >= piece.dowels - 1

    def hanging(self, piece: DowelShelf, wall: Wall, policy: Policy) -> Hanging:
        """Return its hanging: the strip with its dowels goes up; the front slides on."""
        tried = do(
            "try",
            "Try the front on its strip",
            "On the bench, dry: it must close all along without a hammer.",
            "Dowels are glued into the strip, not into the front.",
            acts=(Act("measure", "dowels"), Act("bore", "shelf")),
        )
        top = ("Top of the back strip", piece.top_mm)
        return Hanging("back strip", top, before=(tried,), after=slid_on(policy.stays, "dowels"))

    def cautions(self, piece: DowelShelf, wall: Wall) -> list[Message]:
        """Return what people get wrong with dowels."""
        return [
            Message("Clamp strip and shelf together and drill both at once: the holes must match."),
            Message("Rip the strip off the same board: the grain runs on."),
        ]


KIND = _DowelShelf()


def dowel_places_mm(piece: DowelShelf) -> tuple[float, ...]:
    """Where the dowels are, evenly, from the left end."""
    return tuple(piece.length_mm * (n + 0.5) / piece.dowels for n in range(piece.dowels))


def _clear_of_screws(piece: DowelShelf, supports: list[Support]) -> Check:
    """Return a screw of the strip and a dowel need a place each.

    From edge to edge some wood must be left between them.
    """
    axis = piece.top_mm - piece.thickness_mm / 2
    pairs = [
        (hypot(piece.left_mm + at - x, axis - y), support)
        for at in dowel_places_mm(piece)
        for support in supports
        for x, y in support.holes
    ]
    apart, support = min(pairs, key=lambda pair: pair[0])
    sums = Calculation()
    sums.given("d", piece.dowel_mm, "fine", "dowel")
    sums.given("D", support.screw.diameter_mm, "fine", "screw")
    sums.given("s", _BETWEEN_MM, "fine", "wood between")
    sums.then("a_min", "d / 2 + D / 2 + s", "fine", "from middle to middle")
    sums.given("a", apart, "fine", "there is")
    return make(
        "dowel.screw",
        part=support.part,
        support=support.index,
        case="any",
        demand=sums.quantity("a_min"),
        capacity=sums.quantity("a"),
        equations=sums.equations,
        template="A screw of the {part} and a dowel can't be in one place: their middles are "
        "{capacity} apart and need {demand}.",
        parts={"part": support.part},
    )


def _give(piece: DowelShelf) -> float:
    """How far the front edge goes down under 1 N there when one dowel carries it.

    It bends over its length in the shelf.
    """
    reach = min(piece.in_shelf_mm, piece.depth_mm - piece.strip_mm) / 2
    front = piece.depth_mm - piece.strip_mm
    ei = data.boards()[piece.dowel].e_mpa * pi * piece.dowel_mm**4 / 64
    return front * reach / ei * (front - reach / 2)


def _bending(
    piece: DowelShelf,
    demands: dict[int, tuple[Demand, ...]],
    push_n: float,
    unknown: tuple[str, ...],
) -> Check:
    """Check the dowels: they share what lasts; one alone takes a push."""
    row, sums = data.boards()[piece.dowel], Calculation()
    lasting = (
        sum(
            max(case[0].moment_nmm - case[0].load_n * piece.strip_mm, 0.0)
            for case in demands.values()
        )
        / piece.dowels
    )
    pushed = lasting + push_n * (piece.depth_mm - piece.strip_mm)
    moment, duration, case = strength.lasting_or_pushed(
        lasting, pushed, "loaded, and pushed over one dowel"
    )
    sums.given(
        "M", moment, "moment", compose("about the strip's face, one dowel, {case}", case=case)
    )
    strength.write_round(sums, piece.dowel_mm, "dowel")
    strength.write_bending(sums, row, duration)
    return make(
        "dowel.bending",
        part="dowel",
        case=case,
        unknown=unknown,
        demand=sums.quantity("σ"),
        capacity=sums.quantity("σ'"),
        template="Where they leave the strip the dowels use {used} of the bending strength of "
        "{wood}.",
        parts={"wood": row.name},
        equations=sums.equations,
    )
