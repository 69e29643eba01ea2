"""A standing bookcase that straps keep from tipping."""

from collections.abc import Iterator, Sequence
from typing import Any, ClassVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation
from trade.check import Assumption, Check, Message, make
from trade.fixings import fastening, wood
from trade.fixings.support import Hardware, Support, support
from trade.language import compose
from trade.load.demand import Demand
from trade.measure import G_N_PER_KG, Units
from trade.mounts import insides, made, openings, stated
from trade.mounts.base import DEPTH, LENGTH, Ask, Making, Mount, Part, Shape, block, support_name
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.work import Detail
from trade.plan.model import Bookcase, Piece, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing
from trade.wall.scribing import lowest_ceiling_mm
from trade.workshop.panels import Panel

NOUN = "strap"
CLIMBER_N = data.house("climber_n")
CLIMBS_OUT_MM = data.house("climbs_out_mm")
PULL_N = data.house("top_pull_n")
PULL_AT_MM = data.house("top_pull_mm")
STRAP_N = data.house("strap_n")
_TOUCHING_MM = data.house("units_touch_mm")
_PLATE = Hardware((20.0,), 40.0, 25.0, wood.steel_side(2.0))


class _Bookcase(Mount[Bookcase]):
    kind = "bookcase"
    name = "Bookcase against tipping"
    piece_noun = "bookcase"
    support_noun = NOUN
    carries = "in"
    make = Bookcase
    woods = (("inner", ("inner_mm",)),)
    stands = True
    covers = True
    asks = (
        LENGTH,
        Ask("height_mm", "Height", "length"),
        DEPTH,
        Ask(
            "body_kg",
            "Weighs empty",
            "weight",
            optional=True,
            help="Empty is when it tips most easily.",
        ),
        Ask("strap_down_mm", "Straps below its top", "length"),
        *stated.asks("strap", NOUN, "Empty: what a furniture strap must hold."),
        Ask("open_mm", "Drawers or doors open out to", "length", help="0 for none."),
        *insides.ASKS,
        Ask(
            "fixed_rows",
            "Rows of fixed shelves",
            "count",
            help="They sit in grooves, so that the sides can't bow out.",
        ),
        Ask(
            "kick_mm",
            "Its bottom above the floor",
            "length",
            help="Of a body that is made: 0 where it stands on its bottom.",
        ),
        openings.CUT_OUT,
    )
    fresh: ClassVar[dict[str, Any]] = {
        "length_mm": 800.0,
        "depth_mm": 280.0,
        "height_mm": 2000.0,
        "body_kg": None,
    }

    def checks(self, piece: Bookcase, wall: Wall) -> list[Check]:
        """Every check of the straps, and whether it can be stood up."""
        loads = (
            (compose("what “{piece}” weighs empty.", piece=piece.name),)
            if made.empty_kg(piece) is None
            else ()
        )
        if not piece.supports_mm:
            return [_strap(piece, loads), _stands_up(piece, wall), *insides.checks(piece)]
        pull = _tipping(piece)["T"]
        case = Demand(
            "empty, climbed at its end, and pulled at its top",
            data.house("duration_minutes"),
            0.0,
            pull * 20.0,
            pull,
        )
        demands: dict[int, tuple[Demand, ...]] = dict.fromkeys(
            range(len(piece.supports_mm)), (case,)
        )
        found = fastening.checks(self.supports(piece, wall), demands, backing(wall).unknown, loads)
        return [*found, _strap(piece, loads), _stands_up(piece, wall), *insides.checks(piece)]

    def body_kg(self, piece: Bookcase) -> float | None:
        """Return what it weighs empty, by its boards where it is made."""
        return made.empty_kg(piece)

    def panels(self, piece: Bookcase) -> tuple[Panel, ...]:
        """Return the boards of a body that is made."""
        return made.panels(piece)

    def joins(self, piece: Bookcase, others: Sequence[Piece]) -> list[Piece]:
        """Return the bookcases that stand close beside it."""
        right = piece.left_mm + piece.length_mm
        return [
            each
            for each in others
            if isinstance(each, Bookcase)
            and min(abs(each.left_mm - right), abs(each.left_mm + each.length_mm - piece.left_mm))
            <= _TOUCHING_MM
        ]

    def measured(self, piece: Bookcase, board: str, called_mm: float, found_mm: float) -> Bookcase:
        """Return it with the measured thickness in every part of that wood, its back too."""
        other = super().measured(piece, board, called_mm, found_mm)
        return made.measured(other, board, called_mm, found_mm)

    def making(self, piece: Bookcase) -> Making:
        """Return the work of putting its body together."""
        return made.making(piece)

    def assumes(self, piece: Bookcase) -> tuple[Assumption, ...]:
        """Return the assumption that its corners hold, where no sum judges them."""
        return made.assumed(piece)

    def supports(self, piece: Bookcase, wall: Wall) -> list[Support]:
        """Each strap's plate on the wall, one screw."""
        foot = piece.height_mm - piece.strap_down_mm - _PLATE.height_mm / 2
        count = len(piece.supports_mm)
        return [
            support(wall, piece, _PLATE, i, support_name(i, count, NOUN), piece.left_mm + x, foot)
            for i, x in enumerate(piece.supports_mm)
        ]

    def carried(self, piece: Bookcase, wall: Wall) -> list[tuple[float, float, float]]:
        """Return a side and a shelf: what a body is put together from, but for its thin back."""
        return [
            (piece.height_mm, piece.depth_mm, piece.inner_mm),
            (piece.length_mm, piece.depth_mm, piece.inner_mm),
        ]

    def parts(self, piece: Bookcase, wall: Wall) -> list[Part]:
        """Its straps; the body is its own."""
        return [
            Part(
                "strap",
                "a furniture strap that holds 50 lb (222 N)"
                if piece.strap_kg is None
                else "a furniture strap",
                len(piece.supports_mm),
            ),
            *insides.parts(piece),
            *(openings.rings(self.box(piece), wall) if piece.cut_out else ()),
        ]

    def details(self, piece: Bookcase, wall: Wall, units: Units) -> dict[str, Detail]:
        """Its loose shelves and uprights; the body is its own."""
        return insides.details(piece, units)

    def front(self, piece: Bookcase) -> list[Shape]:
        """Return the body with its boards, the straps' plates behind its top."""
        left, right, top, t = piece.left_mm, piece.left_mm + piece.length_mm, piece.height_mm, 20.0
        count = max(round(top / 350.0), 1)
        boards = made.front(piece, 0.0) or [
            block("wood", left + t, y, right - t, y + t)
            for y in (60.0 + n * (top - 80.0) / count for n in range(count))
        ]
        strap = top - piece.strap_down_mm
        plates = [
            block("steel", left + x - 14, strap - 12, left + x + 14, strap + 12, i)
            for i, x in enumerate(piece.supports_mm)
        ]
        return [
            block("face", left, 0.0, right, top),
            block("wood", left, 0.0, left + t, top),
            block("wood", right - t, 0.0, right, top),
            *boards,
            block("wood", left, top - t, right, top),
            *plates,
        ]

    def side(self, piece: Bookcase, support: Support) -> list[Shape]:
        """Its top and back, a strap to the plate on the wall."""
        top, strap = piece.height_mm, piece.height_mm - piece.strap_down_mm
        return [
            block("face", 20.0, 0.0, 20.0 + piece.depth_mm, top),
            block("board", 20.0, top - 20.0, 20.0 + piece.depth_mm, top),
            block("steel", 0.0, strap - 20, 2.0, strap + 20),
            block("steel", 0.0, strap - 2, 60.0, strap + 1),
        ]

    def cures(self, piece: Bookcase, units: Units) -> Iterator[tuple[str, Message, Bookcase]]:
        """Yield openings; its inside parted once more, or of thicker boards."""
        yield from openings.cure(piece)
        yield from insides.cures(piece)

    def landed(self, piece: Bookcase, wall: Wall) -> Bookcase:
        """Return it with its foot on the floor."""
        return replace(piece, top_mm=piece.height_mm)

    def hanging(self, piece: Bookcase, wall: Wall, policy: Policy) -> Hanging:
        """Return its hanging: it stands first, level and plumb; then the straps."""
        stand = do(
            "stand",
            "Stand it in its place, and mark its top",
            "Tip it up where its diagonal clears the ceiling.",
            "Shims under its front until it is level, and leans a hair to the wall.",
            "Draw along its top on the wall; then move it out of the way: behind it nobody can "
            "drill.",
            lifts=True,
            acts=(Act("hold", "bookcase"), Act("mark", "bookcase"), Act("take_down", "bookcase")),
        )
        back = do(
            "back",
            "Put it back, and fasten the straps to it",
            "On its shims, against the wall; the straps into its solid top or sides.",
            lifts=True,
            acts=(Act("put_on", "bookcase"),),
        )
        taut = do(
            "taut",
            "Draw the straps taut",
            "Pull the top toward you: it must not come away. Then the heavy books, below.",
        )
        line = ("The straps", piece.top_mm - piece.strap_down_mm)
        return Hanging(
            "strap",
            line,
            "apart",
            before=(stand,),
            after=(back, taut),
            levelled=False,
        )

    def cautions(self, piece: Bookcase, wall: Wall) -> list[Message]:
        """Return what people get wrong with bookcases."""
        return [
            Message(
                "Heavy books below. Straps into studs, not into the lining; a strap at each end."
            ),
            *(openings.told(self.box(piece), wall, 0.0) if piece.cut_out else ()),
        ]


KIND = _Bookcase()


def _tipping(piece: Bookcase) -> Calculation:
    """Return the sum of what tips it about its front foot, M, and what keeps it, M_W.

    Of one strap's pull, T, too, where it has straps: a climber at one end pulls that end's strap
    alone (house rule).
    """
    sums = Calculation()
    sums.given("F", CLIMBER_N, "force", "a child of 60 lb (270 N)")
    sums.given(
        "e",
        max(piece.open_mm, piece.opens_mm, CLIMBS_OUT_MM),
        "length",
        "hanging in front of its front foot, or on an open drawer",
    )
    sums.given("F_h", PULL_N, "force", "and a pull outward at the top (10 lbf)")
    sums.given("h", min(piece.height_mm, PULL_AT_MM), "length", "height of that")
    sums.then("M", "F e + F_h h", "moment", "what tips it")
    sums.given("W", (made.lightest_kg(piece) or 0.0) * G_N_PER_KG, "force", "its empty weight")
    sums.given("d", piece.depth_mm, "length", "its depth")
    sums.then("M_W", "W d / 2", "moment", "what keeps it")
    if piece.supports_mm:
        high = piece.height_mm - piece.strap_down_mm
        sums.given("h_s", high, "length", "height of the straps")
        sums.then("T", "max(M − M_W, 0) / h_s", "force", "on one strap")
    return sums


def _strap(piece: Bookcase, unknown: tuple[str, ...]) -> Check:
    sums = _tipping(piece)
    if not piece.supports_mm:
        return make(
            "tip.strap",
            part="bookcase",
            case="empty, climbed, and pulled at its top",
            unknown=unknown,
            demand=sums.quantity("M"),
            capacity=sums.quantity("M_W"),
            equations=sums.equations,
            template="Without a strap it resists {capacity}; a climbing child turns it with "
            "{demand}. Strap it to the studs.",
        )
    if piece.strap_kg is None:
        sums.given("T_max", STRAP_N, "force", "what a furniture strap must hold (50 lbf)")
    else:
        stated.write(sums, piece.strap_kg, piece.strap_ultimate, "T_max")
    return make(
        "tip.strap",
        part="bookcase",
        case="empty, climbed, and pulled at its top",
        unknown=unknown,
        equations=sums.equations,
        demand=sums.quantity("T", "pull"),
        capacity=sums.quantity("T_max", "pull"),
        template="A climbing child pulls one strap with {demand}; a furniture strap must hold "
        "{capacity}."
        if piece.strap_kg is None
        else "A climbing child pulls one strap with {demand}; its packet says {capacity}.",
    )


def _stands_up(piece: Bookcase, wall: Wall) -> Check:
    """Lying on its back or side and stood up, its diagonal must pass under the ceiling."""
    ceiling = lowest_ceiling_mm(wall, piece.left_mm, piece.left_mm + piece.length_mm)
    sums = Calculation()
    sums.given("h", piece.height_mm, "length", "height")
    sums.given("d", piece.depth_mm, "length", "depth")
    sums.given("s", data.house("stand_up_mm"), "fine", "room to spare")
    sums.then("D", "√(h² + d²) + s", "length", "its diagonal, and that")
    sums.given("H", ceiling, "length", "under the ceiling")
    return make(
        "fit.stand_up",
        part="bookcase",
        case="stood up from lying",
        demand=sums.quantity("D"),
        capacity=sums.quantity("H"),
        template="To be stood up it needs {demand} under the ceiling; there is {capacity}.",
        equations=sums.equations,
    )
