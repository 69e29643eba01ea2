"""Shelves on arms that clip into slotted uprights."""

from collections.abc import Iterator
from contextlib import suppress
from typing import Any, ClassVar, NamedTuple

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Assumption, Check, Message, make, severity
from trade.errors import PlanError
from trade.fixings import fastening, wood
from trade.fixings.support import Hardware, Support, support
from trade.language import compose, size, sized
from trade.load import sharing
from trade.load.demand import Demand
from trade.load.line import unweighed
from trade.load.shelf import ShelfLoad, board_n
from trade.load.ways import BOARD, Sharing
from trade.measure import G_N_PER_KG, Units, say_length
from trade.mechanics.channel import weakest_section_mm3
from trade.mounts import board, stiffness
from trade.mounts.base import SHELF, Ask, Mount, Part, Shape, block, cut, support_name
from trade.mounts.bracket_shelf import give, reach
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.work import Detail
from trade.plan.model import TrackShelf, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing

NOUN = "upright"
_UNEVEN = data.house("uneven_shelves")
_NET = data.house("slotted_share")
_STEEL = data.brackets()["pressed_large"]  # what formed steel may be bent with
_MOST = 40  # screws in an upright
_SAME_MM = 0.05  # no further apart two heights are one
_END_MM = 5.0  # no hole is nearer to an upright's lower end
_OUT_SHARE = data.house("bracket_out_share")


class _Arm(NamedTuple):
    """An arm on an upright, heights above the floor: its two hooks, and the screw that holds it."""

    foot_mm: float
    head_mm: float
    screw_mm: float

    @property
    def lever_mm(self) -> float:
        """From where it presses to that screw."""
        return max(self.screw_mm - self.foot_mm, 1.0)


class _TrackShelf(Mount[TrackShelf]):
    kind = "track_shelf"
    name = "Shelves on slotted uprights"
    support_noun = NOUN
    make = TrackShelf
    any_board = True
    asks = (
        *SHELF,
        Ask("track", "Uprights and arms", "choice", data.tracks, cure="track", own="own"),
        Ask("shelves", "Shelves, one above the other", "count"),
        Ask("gap_mm", "From shelf to shelf", "length", help="From top to top."),
        Ask("upright_mm", "Uprights, long", "length"),
        Ask("above_mm", "They reach above the uppermost shelf by", "length"),
    )
    fresh: ClassVar[dict[str, Any]] = {
        "board": "pine_white",
        "thickness_mm": 19.0,
        "track": "medium_250",
        "shelves": 3,
    }

    def checks(self, piece: TrackShelf, wall: Wall) -> list[Check]:
        """Every check of the shelves, their arms, the uprights and their screws."""
        loads = unweighed(piece)
        if len(piece.supports_mm) < 2:
            return [board.too_few_supports(piece, NOUN, loads)]
        return sharing.best(
            lambda so: self._shared(piece, wall, so), lambda so: self._load(piece, so), BOARD
        )

    def _shared(self, piece: TrackShelf, wall: Wall, so: Sharing) -> list[Check]:
        loads, load = unweighed(piece), self._load(piece, so)
        demands, row, arms = load.demands(), piece.hardware, _arms(piece)
        found: dict[tuple[str, str], Check] = {}
        lining = backing(wall).unknown
        firm: list[Support] = []
        for held in _by_screw(arms):
            seats, asked = _at_screw(piece, wall, held, demands)
            firm = firm or seats
            for check in fastening.checks(seats, asked, lining, loads):
                of = check.code, check.part if check.support is None else ""
                if of not in found or severity(check) > severity(found[of]):
                    found[of] = check
        gives = [(seat, _give(piece, row)) for seat in firm if seat.holds]
        return [
            *board.checks(load, loads),
            *found.values(),
            _arm(row, self.supports(piece, wall), demands, loads),
            _upright(piece, arms, self.supports(piece, wall), demands, loads),
            reach(piece.depth_mm, row.arm_mm),
            *_room(piece, arms),
            *stiffness.wobble(load, gives, demands, lining + loads),
        ]

    def _load(self, piece: TrackShelf, so: Sharing) -> ShelfLoad:
        """Return the loads of the shelf that carries most."""
        row = piece.hardware
        return ShelfLoad(_hardest(piece), row.mass_kg * G_N_PER_KG, row.arm_mm * _OUT_SHARE, so)

    def grown(self, piece: TrackShelf) -> Iterator[tuple[Message, TrackShelf]]:
        """Yield one shelf more on the same uprights."""
        with suppress(PlanError):
            yield Message("One shelf more below"), replace(piece, shelves=piece.shelves + 1)

    def supports(self, piece: TrackShelf, wall: Wall) -> list[Support]:
        """Each upright where it is, with all its screws."""
        row = piece.hardware
        heights = tuple(y - piece.foot_mm for y in _screws_mm(piece))
        side = wood.steel_side(row.thick_mm)
        hardware = Hardware(heights, piece.upright_mm, row.width_mm, side)
        count = len(piece.supports_mm)
        return [
            support(
                wall,
                piece,
                hardware,
                i,
                support_name(i, count, NOUN),
                piece.left_mm + x,
                piece.foot_mm,
            )
            for i, x in enumerate(piece.supports_mm)
        ]

    def assumes(self, piece: TrackShelf) -> tuple[Assumption, ...]:
        """Return how the load is spread over its shelves."""
        if piece.shelves < 2:
            return ()
        return (
            Assumption(
                "uneven_shelves",
                "Its load is on all its shelves; one of them may carry half more than its even "
                "part.",
            ),
        )

    def weight_kg(self, piece: TrackShelf) -> float:
        """Return what has to be lifted into place at once: one board."""
        return board_n(piece) / G_N_PER_KG

    def hanging(self, piece: TrackShelf, wall: Wall, policy: Policy) -> Hanging:
        """Return the uprights one by one, their slots level; then arms and boards."""
        return Hanging(
            NOUN,
            ("Top of the uprights", piece.head_mm),
            "apart",
            after=(
                do(
                    "clip",
                    "Clip the arms into the slots",
                    "Both hooks, pushed down until they sit. Count the slots from the upper end: "
                    "each row in the same slot of every upright.",
                ),
                do(
                    "lay",
                    "Lay the boards on their arms",
                    "From the lowest up. Screw each to an arm at both ends from below: a board "
                    "that slides tips.",
                    lifts=True,
                    acts=(Act("put_on", "board"),),
                ),
            ),
        )

    def cautions(self, piece: TrackShelf, wall: Wall) -> list[Message]:
        """Return what people get wrong with uprights."""
        return [
            Message(
                "Hang the first upright on its uppermost screw, let it swing plumb, then mark the "
                "others; set the next one's slots level with its slots, not its end."
            ),
            Message("A screw in every hole of an upright: the arm below pulls at the next one up."),
            Message("Lifted, an arm comes out of its slots: nobody pulls a shelf up by its front."),
        ]

    def cures(self, piece: TrackShelf, units: Units) -> Iterator[tuple[str, Message, TrackShelf]]:
        """Other uprights and arms; uprights further up where no screw is above the top arm."""
        for code, label, changed in super().cures(piece, units):
            yield code, label, changed
        short = max(arm.head_mm - arm.screw_mm for arm in _arms(piece))
        if short > 0:
            said = "Set the uprights {by} higher, with a screw above the top arm"
            label = Message(said, {"by": Quantity(short, "length")})
            with suppress(PlanError):
                yield "higher", label, replace(piece, above_mm=piece.above_mm + short)

    def parts(self, piece: TrackShelf, wall: Wall) -> list[Part]:
        """Return the boards, the uprights, their arms."""
        row, count, own = piece.hardware, len(piece.supports_mm), piece.own is not None
        deep = piece.depth_mm - row.deep_mm
        long = size(*(say_length(piece.upright_mm, units) for units in ("imperial", "metric")))
        upright = compose("{upright}, {long}", upright=row.upright, long=long)
        boards = cut("board", piece.board, piece.shelves, piece.length_mm, deep, piece.thickness_mm)
        return [
            boards,
            Part("upright", upright, count, own=own, price=row.price * piece.upright_mm / 1000),
            Part("arm", sized(row.arm), count * piece.shelves, own=own, price=row.arm_price),
        ]

    def details(self, piece: TrackShelf, wall: Wall, units: Units) -> dict[str, Detail]:
        """As of any shelf, its boards up to the uprights."""
        found = super().details(piece, wall, units)["board"]
        return {"board": found._replace(wall="on the arms, its back edge to the uprights")}

    def front(self, piece: TrackShelf) -> list[Shape]:
        """Return the uprights and the boards before them."""
        row = piece.hardware
        left, right = piece.left_mm, piece.left_mm + piece.length_mm
        uprights = [
            block(
                "steel",
                left + x - row.width_mm / 2,
                piece.foot_mm,
                left + x + row.width_mm / 2,
                piece.head_mm,
                i,
            )
            for i, x in enumerate(piece.supports_mm)
        ]
        t = piece.thickness_mm
        return [*uprights, *(block("board", left, top - t, right, top) for top in _tops_mm(piece))]

    def side(self, piece: TrackShelf, support: Support) -> list[Shape]:
        """Return an upright with its arms and the boards on them."""
        row, t = piece.hardware, piece.thickness_mm
        found = [block("steel", 0.0, piece.foot_mm, row.deep_mm, piece.head_mm)]
        for top in _tops_mm(piece):
            arm = block("steel", row.deep_mm, top - t - 12.0, row.arm_mm, top - t)
            found += [block("board", row.deep_mm, top - t, piece.depth_mm, top), arm]
        return found


KIND = _TrackShelf()


def _tops_mm(piece: TrackShelf) -> list[float]:
    """Heights of the shelves' tops, from the uppermost."""
    return [piece.top_mm - n * piece.gap_mm for n in range(piece.shelves)]


def _screws_mm(piece: TrackShelf) -> list[float]:
    """Heights of an upright's screws above the floor, from the lowest; one at least."""
    row, found = piece.hardware, list[float]()
    height = piece.head_mm - row.first_mm
    while height > piece.foot_mm + _END_MM and len(found) < _MOST:
        found.append(height)
        height -= row.every_mm
    return found[::-1] or [(piece.head_mm + piece.foot_mm) / 2]


def _hardest(piece: TrackShelf) -> TrackShelf:
    """Return the piece with what the shelf that carries most may have on it, as one shelf."""
    if piece.shelves == 1:
        return piece
    share = min(_UNEVEN / piece.shelves, 1.0)
    return replace(
        piece,
        things=tuple(
            replace(thing, mass_kg=thing.mass_kg and thing.mass_kg * share)
            for thing in piece.things
        ),
    )


def _arms(piece: TrackShelf) -> list[_Arm]:
    """Return the arms of an upright from the uppermost, each with the first screw above it.

    The uppermost screw where none is above it.
    """
    screws = _screws_mm(piece)
    found = []
    for top in _tops_mm(piece):
        head = top - piece.thickness_mm
        screw = next((each for each in screws if each >= head - _SAME_MM), screws[-1])
        found.append(_Arm(head - piece.hardware.hook_mm, head, screw))
    return found


def _by_screw(arms: list[_Arm]) -> list[list[_Arm]]:
    """Return the arms by the screw that holds them, of each the one with the least lever first."""
    found: dict[float, list[_Arm]] = {}
    for arm in arms:
        found.setdefault(arm.screw_mm, []).append(arm)
    return [sorted(some, key=lambda arm: arm.lever_mm) for some in found.values()]


def _at_screw(
    piece: TrackShelf, wall: Wall, held: list[_Arm], demands: dict[int, tuple[Demand, ...]]
) -> tuple[list[Support], dict[int, tuple[Demand, ...]]]:
    """Return one screw of each upright over the arm it holds, and what it bears in each case.

    The arm turns about its lower hook, and the screw alone keeps it from that; the load of all arms
    comes to all screws of the upright alike. The hardest arm is in the load case, the others that
    the screw holds bear their even part. What is lifted pulls at no screw: an arm comes out of its
    slots.
    """
    row, hardest, count = piece.hardware, held[0], len(piece.supports_mm)
    lever = hardest.lever_mm
    high = max(lever + row.width_mm, hardest.head_mm - hardest.foot_mm)
    hardware = Hardware((lever,), high, row.width_mm, wood.steel_side(row.thick_mm))
    even, screws = (1 / _UNEVEN if piece.shelves > 1 else 0.0), len(_screws_mm(piece))
    seats, asked = [], {}
    for i, x in enumerate(piece.supports_mm):
        name = support_name(i, count, NOUN)
        seats.append(support(wall, piece, hardware, i, name, piece.left_mm + x, hardest.foot_mm))
        lasting = demands[i][0]
        beside = sum(lever / arm.lever_mm for arm in held[1:])
        more = even * (piece.shelves - 1) * lasting.load_n
        asked[i] = tuple(
            case._replace(
                load_n=(max(case.load_n, 0.0) + more) / screws,
                moment_nmm=max(case.moment_nmm, 0.0) + even * beside * lasting.moment_nmm,
            )
            for case in demands[i]
        )
    return seats, asked


def _most_turned(
    supports: list[Support], demands: dict[int, tuple[Demand, ...]]
) -> tuple[Support, Demand]:
    """Return the upright that is turned hardest in one place, and in which case."""
    return max(
        ((support, demand) for support in supports for demand in demands[support.index]),
        key=lambda each: abs(each[1].moment_nmm),
    )


def _arm(
    row: data.Track,
    supports: list[Support],
    demands: dict[int, tuple[Demand, ...]],
    unknown: tuple[str, ...],
) -> Check:
    """Check one arm against what its packet states, spread over it: half an arm out."""
    support, demand = _most_turned(supports, demands)
    sums = Calculation()
    sums.given("W", row.pair_kg * G_N_PER_KG / 2, "pull", "what one arm may carry")
    sums.given("a", row.arm_mm, "length", "its reach")
    sums.then("M_r", "W a / 2", "moment", "half an arm out")
    sums.given(
        "M", abs(demand.moment_nmm), "moment", compose("turning load, {case}", case=demand.case)
    )
    return make(
        "track.arm",
        part=support.part,
        support=support.index,
        case=demand.case,
        unknown=unknown,
        demand=sums.quantity("M"),
        capacity=sums.quantity("M_r"),
        template="The arm on the {part} carries {used} of the moment that it is made for.",
        parts={"part": support.part},
        equations=sums.equations,
    )


def _upright(
    piece: TrackShelf,
    arms: list[_Arm],
    supports: list[Support],
    demands: dict[int, tuple[Demand, ...]],
    unknown: tuple[str, ...],
) -> Check:
    """Check an upright above the arm that bends it most, up to the screw that holds that."""
    support, demand = _most_turned(supports, demands)
    row, sums = piece.hardware, Calculation()
    even = demands[support.index][0].moment_nmm * (1 / _UNEVEN if piece.shelves > 1 else 0.0)

    def others(arm: _Arm) -> float:
        return even * (sum(each.screw_mm == arm.screw_mm for each in arms) - 1)

    def bends(arm: _Arm) -> float:
        own = max(1 - row.hook_mm / arm.lever_mm, 0.0)
        return abs(demand.moment_nmm) * own + others(arm)

    arm = max(arms, key=bends)
    sums.given(
        "M", abs(demand.moment_nmm), "moment", compose("turning load, {case}", case=demand.case)
    )
    sums.given("g", row.hook_mm, "fine", "from hook to hook")
    sums.given("d", arm.lever_mm, "length", "from the lower hook up to the screw")
    sums.then("M_b", "M max(1 − g / d, 0)", "moment", "it is bent with at the upper hook")
    sums.given("M_2", others(arm), "moment", "of other arms below the same screw, no less")
    section = weakest_section_mm3(row.width_mm, row.deep_mm, row.thick_mm, _NET)
    sums.given("S", section, "section", "of its channel, less the slots")
    sums.then("σ", "(M_b + M_2) / S", "stress")
    sums.given("σ'", _STEEL.allowable_mpa, "stress", "formed steel may be bent with")
    return make(
        "track.bending",
        part=support.part,
        support=support.index,
        case=demand.case,
        unknown=unknown,
        demand=sums.quantity("σ"),
        capacity=sums.quantity("σ'"),
        template="The {part} uses {used} of its bending strength above an arm.",
        parts={"part": support.part},
        equations=sums.equations,
    )


def _room(piece: TrackShelf, arms: list[_Arm]) -> list[Check]:
    """Check that each arm is on its upright below a screw, and that things fit between shelves."""
    least = arms[-1].foot_mm
    found = [
        make(
            "track.screw",
            part=NOUN,
            case="any",
            demand=Quantity(arms[0].head_mm, "length"),
            capacity=Quantity(arms[0].screw_mm, "length"),
            template="The uppermost arm hooks in at {demand}; a screw must be there or above it, "
            "and the highest is at {capacity}.",
        ),
        make(
            "track.room",
            part=NOUN,
            case="any",
            demand=Quantity(piece.head_mm - least, "length"),
            capacity=Quantity(piece.upright_mm, "length"),
            template="From their upper end to the lowest arm the uprights must be {demand} long; "
            "they are {capacity}.",
        ),
        make(
            "track.floor",
            part=NOUN,
            case="any",
            demand=Quantity(piece.upright_mm, "length"),
            capacity=Quantity(max(piece.head_mm, 1e-6), "length"),
            template="The uprights are {demand} long; from their upper end to the floor there are "
            "{capacity}.",
        ),
    ]
    tall = [thing for thing in piece.things if thing.high_mm is not None]
    if tall and piece.shelves > 1:
        tallest = max(tall, key=lambda thing: thing.high_mm or 0.0)
        found.append(
            make(
                "fit.items",
                part="shelf",
                case="any",
                demand=Quantity((tallest.high_mm or 0.0) + data.house("hand_room_mm"), "length"),
                capacity=Quantity(max(piece.gap_mm - piece.thickness_mm, 1e-6), "length"),
                template="“{what}” and a hand over it need {demand}; there is {capacity} between "
                "two shelves.",
                parts={"what": tallest.name},
            )
        )
    return found


def _give(piece: TrackShelf, row: data.Track) -> float:
    """How far the front edge goes down under 1 N there.

    At what it may carry an arm droops by a small part of its reach; the board beyond turns with it.
    """
    droop, rated = data.house("rated_droop_share") * row.arm_mm, row.pair_kg * G_N_PER_KG / 2
    return give(piece.depth_mm, row.arm_mm, rated * row.arm_mm**3 / (8 * droop))
