"""A shelf on surface brackets screwed to studs."""

from collections.abc import Iterator
from typing import Any, ClassVar, TypeVar

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
from trade.load.stiffener import stiffener
from trade.load.ways import BOARD, Sharing
from trade.measure import G_N_PER_KG, Units
from trade.mounts import board, stiffness
from trade.mounts.base import (
    SHELF,
    Ask,
    Mount,
    Part,
    Role,
    Shape,
    block,
    board_front,
    board_part,
    board_side,
    support_name,
)
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.work import Detail
from trade.plan.model import BracketShelf, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing

NOUN = "bracket"
B = TypeVar("B", bound=BracketShelf)
_HARDWARE_OUT_SHARE = data.house("bracket_out_share")


class Bracketed(Mount[B]):
    """What shelves and beams on brackets share."""

    any_board = True

    support_noun = NOUN
    on_a_board = True
    asks = (
        *SHELF,
        Ask("bracket", "Bracket", "choice", data.brackets, cure="bracket", own="own"),
        Ask(
            "stiffener_mm",
            "Strip, fold or tube under the front, high",
            "length",
            help="0 for none.",
        ),
        Ask("stiffener", "That is a", "choice", data.stiffeners),
        Ask(
            "pair_kg",
            "A pair carries, says its packet",
            "weight",
            optional=True,
            help="Empty: its section decides.",
        ),
    )

    def follow(self, piece: B, question: str, policy: Policy) -> B:
        """Bought brackets, or brackets made in the shop."""
        if question != "made" or self.suits(piece, policy):
            return piece
        bracket = "braced" if policy.made == "bought" else "shop_plywood"
        return replace(piece, bracket=bracket, own=None)

    def suits(self, piece: B, policy: Policy) -> bool:
        """Whether its brackets are bought or made as the policy has it; one's own always do."""
        if piece.own is not None:
            return True
        bought = piece.hardware.material == "steel"
        return policy.made == "either" or bought == (policy.made == "bought")

    def checks(self, piece: B, wall: Wall) -> list[Check]:
        """Every check of the shelf, its brackets and their screws."""
        loads = unweighed(piece)
        if len(piece.supports_mm) < 2:
            return [board.too_few_supports(piece, NOUN, loads)]
        return sharing.best(
            lambda so: self._shared(piece, wall, so), lambda so: self._load(piece, so), BOARD
        )

    def _shared(self, piece: B, wall: Wall, so: Sharing) -> list[Check]:
        loads = unweighed(piece)
        row = piece.hardware
        load = self._load(piece, so)
        demands = load.demands()
        supports = self.supports(piece, wall)
        lining = backing(wall).unknown
        droops = give(piece.depth_mm, row.arm_mm, row.e_mpa * row.inertia_mm4)
        return [
            *board.checks(load, loads),
            *fastening.checks(supports, demands, lining, loads),
            _bending(piece, row, supports, demands, loads),
            reach(piece.depth_mm, row.arm_mm),
            _room(piece, row),
            *stiffness.wobble(
                load,
                [(support, droops) for support in supports if support.holds],
                demands,
                lining + loads,
            ),
        ]

    def _load(self, piece: B, so: Sharing) -> ShelfLoad:
        row = piece.hardware
        return ShelfLoad(piece, row.mass_kg * G_N_PER_KG, row.arm_mm * _HARDWARE_OUT_SHARE, so)

    def supports(self, piece: B, wall: Wall) -> list[Support]:
        """Each bracket where it sits."""
        row = piece.hardware
        if row.material == "steel":
            side = wood.steel_side(row.side_mm)
        else:
            side = wood.wood_side(
                row.side_mm, data.boards()[row.material].g, data.screws()[piece.screw].diameter_mm
            )
        hardware = Hardware(
            tuple(row.leg_mm - down for down in row.holes_mm), row.leg_mm, row.width_mm, side
        )
        foot, count = piece.top_mm - piece.thickness_mm - row.leg_mm, len(piece.supports_mm)
        return [
            support(wall, piece, hardware, i, support_name(i, count, NOUN), piece.left_mm + x, foot)
            for i, x in enumerate(piece.supports_mm)
        ]

    def hanging(self, piece: B, wall: Wall, policy: Policy) -> Hanging:
        """Return the brackets one by one, the far one level with the first.

        Then the board, screwed from below.
        """
        stays = do(
            "fasten",
            "Screw the board on from below",
            "Two short screws a bracket: no point may come out on top.",
        )
        return Hanging(
            "bracket",
            ("Top of the brackets", piece.top_mm - piece.high_mm),
            "apart",
            after=(
                do(
                    "lay",
                    "Lay the board on its brackets",
                    "Level from arm to arm, and from back to front. Where it rocks, shim it: no "
                    "twist into the board.",
                    lifts=True,
                    acts=(Act("put_on", "board"),),
                ),
                *((stays,) if policy.stays != "friction" else ()),
            ),
        )

    def cures(self, piece: B, units: Units) -> Iterator[tuple[str, Message, B]]:
        """Another bracket, of steel where the piece itself is heavy.

        A strip under the front edge.
        """
        heavy = (self.weight_kg(piece) or 0.0) > data.house("shop_bracket_kg")
        for code, label, changed in super().cures(piece, units):
            if not (heavy and changed.hardware.material != "steel"):
                yield code, label, replace(changed, pair_kg=None)
        yield from board.stiffened(piece)

    def takes(self, piece: B, field: str, size: float) -> bool:
        """Whether a strip would stiffen it: a beam is stiff."""
        return field != "stiffener_mm" or piece.high_mm < 40

    def parts(self, piece: B, wall: Wall) -> list[Part]:
        """Return the board, the strip under its front, its brackets."""
        brackets = Part(
            "bracket", piece.hardware.name, len(piece.supports_mm), own=piece.own is not None
        )
        return [board_part(piece, wall), *board.front_parts(piece, wall), brackets]

    def details(self, piece: B, wall: Wall, units: Units) -> dict[str, Detail]:
        """As of any shelf; its front strip is cut to the board as it became."""
        strip = Detail(wall="its good face to the front", follows="board")
        return super().details(piece, wall, units) | (
            {"front strip": strip} if piece.stiffener_mm else {}
        )

    def front(self, piece: B) -> list[Shape]:
        """Return the brackets' legs and the board above them."""
        row, under = piece.hardware, piece.top_mm - piece.high_mm
        places = [piece.left_mm + x for x in piece.supports_mm]
        role: Role = "steel" if row.material == "steel" else "wood"
        legs = [
            block(role, x - row.width_mm / 2, under - row.leg_mm, x + row.width_mm / 2, under, i)
            for i, x in enumerate(places)
        ]
        left, right = piece.left_mm, piece.left_mm + piece.length_mm
        strip = (
            [block("board", left, under - piece.stiffener_mm, right, under)]
            if piece.stiffener_mm
            else []
        )
        return [*legs, *strip, board_front(piece)]

    def side(self, piece: B, support: Support) -> list[Shape]:
        """Return the board on the bracket's arm, the leg down the wall."""
        row, under = piece.hardware, piece.top_mm - piece.high_mm
        role: Role = "steel" if row.material == "steel" else "wood"
        return [
            board_side(piece),
            block(role, 0.0, under - row.leg_mm, row.side_mm, under),
            block(role, 0.0, under - row.side_mm, row.arm_mm, under),
            *_strip_side(piece, under),
        ]


class _BracketShelf(Bracketed[BracketShelf]):
    kind = "bracket_shelf"
    name = "Shelf on brackets"
    make = BracketShelf
    fresh: ClassVar[dict[str, Any]] = {
        "board": "pine_white",
        "thickness_mm": 19.0,
        "depth_mm": 235.0,
        "bracket": "braced",
    }

    def cautions(self, piece: BracketShelf, wall: Wall) -> list[Message]:
        """Return what people get wrong with brackets."""
        return [
            Message(
                "Level over what carries the shelf, from arm to arm: brackets differ from one "
                "another."
            ),
            Message(
                "The top screw is the one that holds: never leave it out because it is hard to "
                "reach."
            ),
        ]


KIND = _BracketShelf()


def _strip_side(piece: BracketShelf, under: float) -> list[Shape]:
    made = stiffener(piece)
    return (
        [
            block(
                "board",
                piece.depth_mm - made.part.wide_mm,
                under - made.part.high_mm,
                piece.depth_mm,
                under,
            )
        ]
        if made
        else []
    )


def give(depth_mm: float, arm_mm: float, ei_nmm2: float) -> float:
    """How far the front edge of a shelf so deep goes down under 1 N there.

    The arm bends, the board beyond it turns with it.
    """
    arm = min(arm_mm, depth_mm)
    beyond = depth_mm - arm
    return (arm**3 / 3 + arm**2 * beyond + arm * beyond**2) / ei_nmm2


def _bending(
    piece: BracketShelf,
    row: data.Bracket,
    supports: list[Support],
    demands: dict[int, tuple[Demand, ...]],
    unknown: tuple[str, ...],
) -> Check:
    def duration(demand: Demand) -> float:
        return 1.0 if row.material == "steel" else demand.duration

    support, demand = max(
        ((support, demand) for support in supports for demand in demands[support.index]),
        key=lambda p: abs(p[1].moment_nmm) / duration(p[1]),
    )
    if piece.own is not None and piece.own.stated is not None:
        return _rated(piece.own.stated.each_n, row, support, demand, unknown)
    if piece.pair_kg is not None:
        return _rated(piece.pair_kg * G_N_PER_KG / 2, row, support, demand, unknown)
    sums = Calculation()
    sums.given(
        "M", abs(demand.moment_nmm), "moment", compose("turning load, {case}", case=demand.case)
    )
    sums.given("S", row.section_mm3, "section", "section modulus at the corner")
    sums.then("σ", "M / S", "stress")
    sums.given(
        "σ_a",
        row.allowable_mpa,
        "stress",
        compose("bending strength of its {material}", material=row.material),
    )
    if row.material == "steel":
        sums.then("σ'", "σ_a", "stress", "it may be bent with, for minutes or years")
    else:
        sums.given("C_D", duration(demand), "ratio", "load duration")
        sums.then("σ'", "σ_a C_D", "stress", "it may be bent with")
    return make(
        "bracket.bending",
        part=support.part,
        support=support.index,
        case=demand.case,
        unknown=unknown,
        demand=sums.quantity("σ"),
        capacity=sums.quantity("σ'"),
        template="The {part} uses {used} of its bending strength at the corner.",
        parts={"part": support.part},
        equations=sums.equations,
    )


def _rated(
    each_n: float, row: data.Bracket, support: Support, demand: Demand, unknown: tuple[str, ...]
) -> Check:
    """Against what its packet lets one carry, taken as spread over its arm: half an arm out."""
    sums = Calculation()
    sums.given("W", each_n, "pull", "what one may carry by its packet")
    sums.given("a", row.arm_mm, "length", "its arm")
    sums.then("M_r", "W a / 2", "moment", "half an arm out")
    sums.given(
        "M", abs(demand.moment_nmm), "moment", compose("turning load, {case}", case=demand.case)
    )
    return make(
        "bracket.bending",
        part=support.part,
        support=support.index,
        case=demand.case,
        unknown=unknown,
        demand=sums.quantity("M"),
        capacity=sums.quantity("M_r"),
        template="The {part} carries {used} of the moment its packet states.",
        parts={"part": support.part},
        equations=sums.equations,
    )


def reach(depth_mm: float, arm_mm: float) -> Check:
    """Check how far an arm reaches under a shelf."""
    sums = Calculation()
    sums.given("d", depth_mm, "length", "depth of the shelf")
    sums.given("k", data.house("reach_share"), "ratio", "part of it to reach under")
    sums.then("a_min", "k d", "length", "least")
    sums.given("a", arm_mm, "length", "its arm")
    return make(
        "bracket.reach",
        part="board",
        case="any",
        demand=sums.quantity("a_min"),
        capacity=sums.quantity("a"),
        equations=sums.equations,
        template="The arm should reach {demand} under the shelf, two thirds of its depth; it "
        "reaches {capacity}.",
    )


def _room(piece: BracketShelf, row: data.Bracket) -> Check:
    return make(
        "bracket.room",
        part="board",
        case="any",
        demand=Quantity(row.leg_mm, "length"),
        capacity=Quantity(max(piece.top_mm - piece.thickness_mm, 1e-6), "length"),
        template="The bracket needs {demand} of wall below the shelf; there is {capacity} down to "
        "the floor.",
    )
