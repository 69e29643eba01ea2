"""A bench or desk on a ledger at the wall and legs at the front."""

from typing import Any, ClassVar

from trade import data
from trade.calculation import Quantity
from trade.check import Check, Message, make
from trade.fixings import fastening
from trade.fixings.support import Support
from trade.load.line import unweighed
from trade.load.push import push_of
from trade.load.stiffener import Stiffener
from trade.measure import Units
from trade.mechanics import composite
from trade.mounts import board, ledgers, strips
from trade.mounts.base import SHELF, Ask, Mount, Part, Shape, block, board_front, board_part, cut
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.ledgers import NOUN
from trade.mounts.work import Detail
from trade.plan.model import Bench, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing

_APRON_MM = data.house("apron_mm")
_INSET_MM = data.house("leg_inset_mm")
_MIDDLE_SHARE = data.house("middle_leg_share")


class _Bench(Mount[Bench]):
    kind = "ledger_bench"
    name = "Bench or desk on a ledger and legs"
    piece_noun = "bench"
    support_noun = NOUN
    every_stud = True
    make = Bench
    woods = (("board", ("thickness_mm",)), ("ledger", ("ledger_mm",)))
    asks = (
        *SHELF,
        Ask("ledger", "Ledger of", "choice", data.woods),
        Ask("ledger_mm", "Ledger thick", "length"),
        Ask("ledger_high_mm", "Ledger high", "length"),
        Ask("legs", "Legs at the front", "count"),
        Ask("leg_mm", "Legs thick", "length"),
        Ask("apron_mm", "Board joining the legs, high", "length", help="0 for none."),
    )
    fresh: ClassVar[dict[str, Any]] = {
        "board": "plywood",
        "thickness_mm": 24.0,
        "depth_mm": 500.0,
        "length_mm": 1200.0,
        "use": "sitting",
        "screw": "wood_14",
        "apron_mm": 120.0,
    }

    def checks(self, piece: Bench, wall: Wall) -> list[Check]:
        """Every check of the ledger, the front and the legs."""
        loads = unweighed(piece)
        if len(piece.supports_mm) < 2:
            return [board.too_few_supports(piece, NOUN, loads)]
        load = ledgers.ledger_load(
            piece, ledgers.shares(piece.length_mm, piece.depth_mm, 0, legs=True).back
        )
        found = fastening.checks(
            self.supports(piece, wall),
            ledgers.back_demands(piece, load),
            backing(wall).unknown,
            loads,
        )
        if piece.legs < 2:
            return [*found, _legs(piece)]
        strip = ledgers.front_strip(piece, leg_places_mm(piece), _apron(piece))
        even = (
            strip.even_n
            / strip.span_mm
            * piece.length_mm
            / (piece.legs - 1)
            * (0.5 if piece.legs == 2 else _MIDDLE_SHARE)
        )
        pressed = even + sum(force for _, force in strip.points_n) + push_of(piece).n
        return [
            *found,
            *ledgers.front_checks(piece, strip, loads),
            ledgers.leg_check(piece, pressed, loads),
        ]

    def supports(self, piece: Bench, wall: Wall) -> list[Support]:
        """Return the screws of the ledger."""
        return ledgers.supports(piece, wall)

    def parts(self, piece: Bench, wall: Wall) -> list[Part]:
        """Return the board, the ledger, the legs and the board that joins them."""
        tall = piece.top_mm - piece.thickness_mm
        found = [
            board_part(piece, wall),
            cut("ledger", piece.ledger, 1, piece.length_mm, piece.ledger_high_mm, piece.ledger_mm),
        ]
        if piece.legs:
            found.append(cut("leg", piece.ledger, piece.legs, tall, piece.leg_mm, piece.leg_mm))
        if piece.apron_mm:
            found.append(cut("apron", piece.ledger, 1, piece.length_mm, piece.apron_mm, _APRON_MM))
        return found

    def details(self, piece: Bench, wall: Wall, units: Units) -> dict[str, Detail]:
        """Return what its parts wait for: the legs for the floor, the apron for the board."""
        foot = piece.top_mm - piece.thickness_mm - piece.ledger_high_mm
        return super().details(piece, wall, units) | {
            "ledger": Detail(
                strips.screwed(ledgers.supports(piece, wall), piece.left_mm, foot, units),
                "along the wall, level",
            ),
            "leg": Detail(
                wall="at the front", late="from the floor up to the board, held level, at each leg"
            ),
            "apron": Detail(wall="between board and legs, in front", follows="board"),
        }

    def front(self, piece: Bench) -> list[Shape]:
        """Return the board, the ledger behind, the apron and the legs."""
        left = piece.left_mm
        right = piece.left_mm + piece.length_mm
        under = piece.top_mm - piece.thickness_mm
        low, half = under - piece.ledger_high_mm, piece.leg_mm / 2
        legs = [
            block("leg", left + x - half, 0.0, left + x + half, under) for x in leg_places_mm(piece)
        ]
        apron = [block("leg", left, under - piece.apron_mm, right, under)] if piece.apron_mm else []
        return [
            block("wood", left, low, right, under),
            *legs,
            *apron,
            *ledgers.screws_front(piece),
            board_front(piece),
        ]

    def side(self, piece: Bench, support: Support) -> list[Shape]:
        """Return the board on its ledger, a leg under its front."""
        under, d = piece.top_mm - piece.thickness_mm, piece.depth_mm
        return [
            *ledgers.side_shapes(piece),
            block("leg", d - _APRON_MM - piece.leg_mm, 0.0, d - _APRON_MM, under),
        ]

    def hanging(self, piece: Bench, wall: Wall, policy: Policy) -> Hanging:
        """Return its hanging: the ledger; the legs, cut to the floor that is there; the top."""
        legs = do(
            "legs",
            "Cut the legs to the floor",
            "Lay the apron on the level from the ledger; measure down to the floor at each leg: "
            "floors run off.",
        )
        top = do(
            "top",
            "Lay the top on and screw it down",
            "Into the ledger and into every leg.",
            lifts=True,
            acts=(Act("put_on", "top"),),
        )
        return Hanging(
            "ledger", ("Top of the ledger", piece.top_mm - piece.thickness_mm), after=(legs, top)
        )

    def cautions(self, piece: Bench, wall: Wall) -> list[Message]:
        """Return what people get wrong with benches."""
        return [
            Message(
                "Level the ledger before its second screw; cut the legs to the floor that is "
                "there, not to the plan."
            )
        ]


KIND = _Bench()


def _apron(piece: Bench) -> Stiffener | None:
    """Return the board that joins the legs, as what stiffens the front."""
    row = data.boards()[piece.ledger]
    if not piece.apron_mm:
        return None
    return Stiffener(
        "board that joins the legs",
        piece.ledger,
        composite.Component(row.e_mpa, _APRON_MM, piece.apron_mm, row.k_def),
    )


def leg_places_mm(piece: Bench) -> tuple[float, ...]:
    """Where the legs stand, from the left end."""
    inset = min(_INSET_MM, piece.length_mm / 4)
    if piece.legs < 2:
        return (piece.length_mm / 2,) * piece.legs
    step = (piece.length_mm - 2 * inset) / (piece.legs - 1)
    return tuple(inset + n * step for n in range(piece.legs))


def _legs(piece: Bench) -> Check:
    return make(
        "ledger.front",
        part="board",
        case="any",
        demand=Quantity(2, "count"),
        capacity=Quantity(max(piece.legs, 0.5), "count"),
        template="Nothing holds both ends of its front edge: it needs {demand} legs or more.",
    )
