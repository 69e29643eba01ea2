"""A rail along the wall, with hooks or brackets that move along it."""

from collections.abc import Iterator
from itertools import pairwise
from typing import Any, ClassVar, NamedTuple, TypeVar

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Assumption, Check, Message, make
from trade.fixings import fastening
from trade.fixings.support import Support
from trade.language import compose
from trade.load.line import BoardDemand, LineLoad, contents_of, unweighed
from trade.load.push import push_of
from trade.measure import G_N_PER_KG, Units
from trade.mounts import board, hooks, jointed, strength, strips
from trade.mounts.base import LENGTH, WOOD, Ask, Mount, Part, Shape, block
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.work import Detail
from trade.plan.model import Rail, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing

_ROLL_SHARE = data.house("roll_share")
R = TypeVar("R", bound=Rail)


class Railed(Mount[R]):
    """What rails and holder boards share."""

    support_noun = "support"
    hook_noun: ClassVar[str] = "hook"
    covers = True
    carries = "under"
    every_stud = True
    longer_ends = True
    on_a_board = True
    asks = (
        LENGTH,
        Ask("height_mm", "Height", "length"),
        Ask("thickness_mm", "Thickness", "length"),
        WOOD,
        Ask("depth_mm", "Hooks reach out", "length"),
        jointed.ASK,
        *hooks.asks("hook"),
    )

    def checks(self, piece: R, wall: Wall) -> list[Check]:
        """Every check of the board and its screws."""
        loads = unweighed(piece)
        if not jointed.whole(piece):
            few = len(piece.supports_mm) < 2
            told = [board.too_few_supports(piece, self.support_noun, loads)] if few else []
            return [*told, *jointed.check(piece)]
        bending = _bending(piece, jointed.board_demands(piece, rail_load), loads)
        demands = jointed.demands(piece, rail_load)
        return [
            *fastening.checks(self.supports(piece, wall), demands, backing(wall).unknown, loads),
            *jointed.check(piece),
            bending,
            _twist(piece, wall, bending.utilisation, loads),
            *hooks.checks(piece, self.hook_noun),
        ]

    def in_two(self, piece: R) -> Iterator[tuple[Message, R]]:
        """Yield it jointed over a stud."""
        return jointed.in_two(piece)

    def cures(self, piece: R, units: Units) -> Iterator[tuple[str, Message, R]]:
        """Yield other places for its joint; then as any kind."""
        yield from jointed.tried(piece)
        yield from super().cures(piece, units)

    def assumes(self, piece: R) -> tuple[Assumption, ...]:
        """Return that its hooks carry what hangs on them."""
        return hooks.assumed(piece, self.hook_noun)

    def hanging(self, piece: R, wall: Wall, policy: Policy) -> Hanging:
        """Return its hanging: the rail goes up on all its screws; its hooks follow."""
        put_on = do(
            "hooks",
            "Put the hooks on",
            "The heaviest things on the studs. Pull each hook down once before you trust it.",
            acts=(Act("put_on", "hooks"),),
        )
        return Hanging(
            self.piece_noun,
            (compose("Top of the {piece_noun}", piece_noun=self.piece_noun), piece.top_mm),
            after=(put_on,),
        )

    def supports(self, piece: R, wall: Wall) -> list[Support]:
        """Its screws at each stud: one in the middle of a low rail, two in a high one."""
        high = piece.height_mm
        return strips.on_studs(
            piece,
            wall,
            self.support_noun,
            piece.board,
            piece.thickness_mm,
            high,
            piece.top_mm - high,
            joint=jointed.seat(piece),
        )

    def weight_kg(self, piece: R) -> float | None:
        """Return the bare piece."""
        return rail_load(piece).own_n / G_N_PER_KG if len(piece.supports_mm) > 1 else None

    def parts(self, piece: R, wall: Wall) -> list[Part]:
        """Return the board; hooks as many as things hang."""
        many = sum(thing.at_mm is not None for thing in piece.things)
        size = (piece.height_mm, piece.thickness_mm)
        found = jointed.boards(piece, "board", piece.board, 1, *size)
        return [*found, Part("hook", "bought or bent", many)] if many else found

    def details(self, piece: R, wall: Wall, units: Units) -> dict[str, Detail]:
        """Bored for a screw in every stud that it crosses."""
        seats, told = self.supports(piece, wall), Detail(wall="back to the wall, good face out")
        return jointed.bored(piece, "board", piece.thickness_mm, seats, units, told)

    def out_mm(self, piece: R) -> float:
        """As thick as its board is."""
        return piece.thickness_mm

    def hook_mm(self, piece: R) -> float:
        """Its hooks hold at its lower edge."""
        return piece.top_mm - piece.height_mm

    def front(self, piece: R) -> list[Shape]:
        """Return the board, its screws, and a hook where each thing hangs."""
        left, low = piece.left_mm, piece.top_mm - piece.height_mm
        screws = strips.screws_front(
            piece, tuple(low + up for up in strips.rows(piece.height_mm)), hidden=False
        )
        seen = [_hook(left + thing.at_mm, low) for thing in piece.things if thing.at_mm is not None]
        return [*jointed.front(piece, low, piece.height_mm), *screws, *seen]

    def side(self, piece: R, support: Support) -> list[Shape]:
        """Return the board on the wall, a hook in front of it."""
        t, top, low = piece.thickness_mm, piece.top_mm, piece.top_mm - piece.height_mm
        reach, middle = t + min(piece.depth_mm, 400.0), (top + low) / 2
        return [
            block("board", 0.0, low, t, top),
            Shape(
                "steel",
                (
                    (t, middle - 4),
                    (reach, middle - 4),
                    (reach, middle + 22),
                    (reach - 7, middle + 22),
                    (reach - 7, middle + 4),
                    (t, middle + 4),
                ),
            ),
        ]


class _Rail(Railed[Rail]):
    kind = "rail"
    name = "Rail with hooks"
    piece_noun = "rail"
    make = Rail
    fresh: ClassVar[dict[str, Any]] = {
        "board": "oak_red",
        "thickness_mm": 19.0,
        "height_mm": 90.0,
        "depth_mm": 100.0,
        "length_mm": 1500.0,
    }

    def cautions(self, piece: Rail, wall: Wall) -> list[Message]:
        """Return what people get wrong with rails."""
        return [
            Message(
                "A screw in every stud it crosses; heavy things on the studs; break a joint on a "
                "stud, never between."
            ),
            *jointed.cautions(piece),
        ]


KIND = _Rail()


def rail_load(piece: Rail) -> LineLoad:
    """Return a rail's own weight and what hangs on it."""
    volume = piece.length_mm * piece.height_mm * piece.thickness_mm / 1e9
    return LineLoad(
        piece,
        volume * data.boards()[piece.board].density_kg_m3 * G_N_PER_KG,
        piece.thickness_mm / 2,
        along=True,
    )


def _hook(x: float, low: float) -> Shape:
    return Shape(
        "steel",
        (
            (x - 4, low + 14),
            (x + 4, low + 14),
            (x + 4, low - 26),
            (x - 12, low - 26),
            (x - 12, low - 18),
            (x - 4, low - 18),
        ),
    )


def _bending(
    piece: Rail, demands: tuple[BoardDemand, BoardDemand], unknown: tuple[str, ...]
) -> Check:
    row, sums = data.boards()[piece.board], Calculation()
    worst = max(demands, key=lambda d: d.moment_nmm / d.duration)
    sums.given(
        "M",
        worst.moment_nmm,
        "moment",
        compose("bending as a continuous beam, {case}", case=worst.case),
    )
    sums.given("t", piece.thickness_mm, "fine", "thickness of the rail")
    sums.given("h", piece.height_mm, "length", "its height")
    sums.then("S", "t h² / 6", "section", "section modulus")
    sums.then("σ", "M / S", "stress")
    strength.write_bending(sums, row, worst.duration)
    return make(
        "rail.bending",
        part="board",
        case=worst.case,
        unknown=unknown,
        demand=sums.quantity("σ"),
        capacity=sums.quantity("σ'"),
        template="The rail uses {used} of the bending strength of {wood}, {place} from its left "
        "end.",
        parts={"wood": row.name, "place": Quantity(worst.place_mm, "length")},
        equations=sums.equations,
    )


class _Gap(NamedTuple):
    """Part of a rail between two neighbouring studs, or its overhang beyond one.

    Its ends, the studs there, what turns it.

    `turning`: place along the rail and N mm, with the use factor, of each load in it.
    """

    start_mm: float
    end_mm: float
    studs_mm: tuple[float, ...]
    turning: list[tuple[float, float]]

    @property
    def long_mm(self) -> float:
        return self.end_mm - self.start_mm

    @property
    def free(self) -> bool:
        """Whether it is an overhang."""
        return len(self.studs_mm) == 1

    def off_mm(self, x_mm: float) -> float:
        """How far a place is from the nearest stud."""
        return min(abs(x_mm - stud) for stud in self.studs_mm)


def _gaps(piece: Rail) -> Iterator[_Gap]:
    """Its overhangs and the gaps between its studs, from the left."""
    factor = data.uses()[piece.use].factor
    loads, outs = contents_of(piece)
    turning = [
        ((load.start_mm + load.end_mm) / 2, load.total_n * out * factor)
        for load, out in zip(loads, outs, strict=True)
    ]
    ends = (0.0, *piece.supports_mm, piece.length_mm)
    for n, (a, b) in enumerate(pairwise(ends)):
        if b - a >= 1e-6:
            studs = (b,) if n == 0 else (a,) if n == len(ends) - 2 else (a, b)
            yield _Gap(a, b, studs, [(x, moment) for x, moment in turning if a <= x <= b])


def twists(piece: Rail) -> tuple[float, float]:
    """Return the greatest twist between studs, lasting and with a push, N mm.

    What turns a gap goes to its two studs by distance; what turns an overhang goes to the one stud.
    Within the rail's own height of a stud less and less of it twists: there the screws hold it at
    once (house rule).
    """
    near, push_nmm = piece.height_mm, push_of(piece).n * piece.depth_mm
    lasting = pushed = 0.0
    for gap in _gaps(piece):
        a, b, long = gap.start_mm, gap.end_mm, gap.long_mm
        inside = [(x, moment * min(gap.off_mm(x) / near, 1.0)) for x, moment in gap.turning]
        if gap.free:
            most, push = sum(moment for _, moment in inside), min(long / near, 1.0)
        else:
            most = (
                max(sum(m * (b - x) for x, m in inside), sum(m * (x - a) for x, m in inside)) / long
            )
            push = max(1 - near / long, 0.5) * min(long / 2 / near, 1.0)
        lasting, pushed = max(lasting, most), max(pushed, most + push * push_nmm)
    return lasting, pushed


def rolls(piece: Rail) -> tuple[float, float]:
    """Return the greatest bending out of the wall, lasting and with a push, N mm.

    For a rail that rolls about its lower edge.

    Its back lies on the wall, so what would turn it presses that edge and pulls its middle outward:
    turning load over the height between them. Each gap is hinged at its studs (to the safe side),
    each overhang is held by its stud.
    """
    lever, push_nmm = _ROLL_SHARE * piece.height_mm, push_of(piece).n * piece.depth_mm
    lasting = pushed = 0.0
    for gap in _gaps(piece):
        a, b, long = gap.start_mm, gap.end_mm, gap.long_mm
        most = sum(
            m / lever * (gap.off_mm(x) if gap.free else (x - a) * (b - x) / long)
            for x, m in gap.turning
        )
        lasting, pushed = (
            max(lasting, most),
            max(pushed, most + push_nmm / lever * long * (1.0 if gap.free else 0.25)),
        )
    return lasting, pushed


def _twist(piece: Rail, wall: Wall, bent: float, unknown: tuple[str, ...]) -> Check:
    """Check the rail where the load is shared best between twisting and rolling (lower bound).

    On bare studs no edge presses on anything between them, and all of it twists. `bent`: how much
    of the rail its own bending takes already.
    """
    row = data.boards()[piece.board]
    years, minutes = data.house("duration_years"), data.house("duration_minutes")
    cases = zip(
        twists(piece),
        rolls(piece),
        (years, minutes),
        ("loaded, for years", "loaded, and pushed on a hook"),
        strict=True,
    )
    bare = wall.layers == () and bool(wall.uprights)
    sums, case = max(
        ((_shared(piece, *each[:3], bent, bare), each[3]) for each in cases),
        key=lambda found: found[0].quantity("u").value,
    )
    return make(
        "rail.twist",
        part="board",
        case=case,
        unknown=unknown,
        demand=sums.quantity("u"),
        capacity=Quantity(1.0, "percent"),
        template="Loads away from the wall twist the rail between studs: {used} of the strength "
        "of {wood} used.",
        parts={"wood": row.name},
        equations=sums.equations,
    )


def _shared(
    piece: Rail, turning: float, rolled: float, duration: float, bent: float, bare: bool
) -> Calculation:
    """How much of its strength is used, u, where twisting and rolling share the load best."""
    row, sums = data.boards()[piece.board], Calculation()
    sums.given("T", turning, "moment", "greatest twist between studs, were it free of the wall")
    strength.write_twist(sums, piece.height_mm, piece.thickness_mm)
    strength.write_shearing(sums, row, duration)
    twisted = sums.then("u_T", "τ / τ'", "percent", "share, were it all to twist")
    sums.given("k_z", _ROLL_SHARE, "ratio", "of its height, from the pressed edge to its middle")
    sums.then("z", "k_z h", "length", "lever")
    words = "greatest bending outward, were all of it to roll: turning load over z"
    sums.given("M", rolled, "moment", words)
    strength.write_flatwise(sums, piece.height_mm, piece.thickness_mm, "its height")
    strength.write_bending(sums, row, duration)
    sums.given("u_V", bent, "percent", "its own bending, up and down")
    sums.then("u_M", "σ / σ' + u_V", "percent", "share, were it all to roll")
    if bare or not twisted:
        sums.then("u", "u_T", "percent", "bare studs: nothing to roll on" if bare else "")
    else:
        sums.then("u", "u_T u_M / √(u_T² + u_M²)", "percent", "shared best")
    return sums
