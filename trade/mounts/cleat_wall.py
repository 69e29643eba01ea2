"""A cleat wall: rows of bevelled cleats on the studs, and holders that hang on any of them."""

from collections.abc import Iterator
from contextlib import suppress
from math import radians, tan
from typing import Any, ClassVar

from msgspec.structs import replace

from trade import data
from trade.check import Assumption, Check, Message
from trade.errors import PlanError
from trade.fixings import fastening
from trade.fixings.support import Support
from trade.load.demand import Demand
from trade.load.line import LineLoad, contents_of, unweighed
from trade.measure import G_N_PER_KG, Units
from trade.mounts import bevel, board, hooks, jointed, strips
from trade.mounts.base import LENGTH, Ask, Box, Mount, Part, Shape, block
from trade.mounts.bevel import Bevel
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.work import Detail, Pair
from trade.plan.model import CleatWall, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing

NOUN = "screw pair"

HOLDER_NOUN = "holder"


class _CleatWall(Mount[CleatWall]):
    kind = "cleat_wall"
    name = "Cleat wall for movable holders"
    piece_noun = "cleat wall"
    support_noun = NOUN
    carries = "in"
    every_stud = True
    make = CleatWall
    longer_ends = True
    woods = (("cleat", ("cleat_mm",)),)
    asks = (
        LENGTH,
        Ask("rows", "Rows of cleats", "count"),
        Ask("apart_mm", "From one to the next", "length"),
        Ask("cleat", "Cleats of", "choice", data.woods),
        Ask("cleat_mm", "Cleats thick", "length"),
        Ask("cleat_high_mm", "Cleats high", "length"),
        Ask("bevel_deg", "Bevel, degrees from level", "angle"),
        Ask("screws_each", "Screws at each place, 1 or 2", "count"),
        Ask("depth_mm", "Holders reach out", "length"),
        jointed.ASK,
        Ask(
            "holder_mm",
            "Lowest holder, bevel to foot",
            "length",
            help="The longest reach on the lowest holder climbs off first.",
        ),
        *hooks.asks(HOLDER_NOUN),
    )
    fresh: ClassVar[dict[str, Any]] = {
        "length_mm": 1200.0,
        "depth_mm": 150.0,
        "holder_mm": 250.0,
        "use": "everyday",
    }

    def with_rows(self, piece: CleatWall, rows: int) -> CleatWall | None:
        """So many rows of cleats."""
        return replace(piece, rows=rows)

    def out_mm(self, piece: CleatWall) -> float:
        """As thick as its cleats are."""
        return piece.cleat_mm

    def room(self, piece: CleatWall) -> int:
        """How many holders have room: as many on each row."""
        return piece.rows * super().room(piece)

    def grown(self, piece: CleatWall) -> Iterator[tuple[Message, CleatWall]]:
        """Yield one row more below, and one more above."""
        with suppress(PlanError):
            yield Message("One row more below"), replace(piece, rows=piece.rows + 1)
            higher = piece.top_mm + piece.apart_mm
            yield Message("One row more above"), replace(piece, rows=piece.rows + 1, top_mm=higher)

    def filled(self, piece: CleatWall, high_mm: float) -> CleatWall:
        """Return it with the rows that a place is high enough for."""
        room = high_mm - max(piece.cleat_high_mm, piece.holder_mm)
        return replace(piece, rows=min(max(int(room / piece.apart_mm) + 1, 1), 12))

    def checks(self, piece: CleatWall, wall: Wall) -> list[Check]:
        """Every check of a row, of its screws, and of a holder on it."""
        loads = unweighed(piece)
        if not jointed.whole(piece):
            few = len(piece.supports_mm) < 2
            told = [board.too_few_supports(piece, NOUN, loads)] if few else []
            return [*told, *jointed.check(piece)]
        load, demands = _load(piece), jointed.demands(piece, _load)
        cleat = bevel_of(piece)
        count = len(piece.supports_mm)
        pulled = {i: tuple(cleat.at_cleat(case) for case in cases) for i, cases in demands.items()}
        every = {row * count + i: cases for row in range(piece.rows) for i, cases in pulled.items()}
        found = fastening.checks(self.supports(piece, wall), every, backing(wall).unknown, loads)
        lines, outs = contents_of(piece)
        things = [
            (line.total_n * load.use.factor, out) for line, out in zip(lines, outs, strict=True)
        ]
        holder = bevel.seating(
            cleat, (0.0, piece.depth_mm / 2), (load.push_n, piece.depth_mm), things, loads
        )
        alone = [
            each for each, line in zip(things, lines, strict=True) if line.end_mm == line.start_mm
        ]
        lasting = max(
            (cleat.at_cleat(Demand("", 1.0, force, force * out)).pull_n for force, out in alone),
            default=0.0,
        )
        pushed = cleat.at_cleat(Demand("", 1.0, load.push_n, load.push_n * piece.depth_mm)).pull_n
        found += bevel.checks(cleat, pulled, loads, bevel.Holder(lasting, lasting + pushed))
        return [*found, holder, *jointed.check(piece), *hooks.checks(piece, HOLDER_NOUN)]

    def assumes(self, piece: CleatWall) -> tuple[Assumption, ...]:
        """Return that its holders carry what is in them."""
        return hooks.assumed(piece, HOLDER_NOUN)

    def supports(self, piece: CleatWall, wall: Wall) -> list[Support]:
        """Every row's half of a cleat at each stud, from the top row down."""
        high, count = piece.cleat_high_mm, len(piece.supports_mm)
        heights = bevel.screw_heights_mm(high, piece.screws_each)
        return [
            support
            for row in range(piece.rows)
            for support in strips.on_studs(
                piece,
                wall,
                NOUN,
                piece.cleat,
                piece.cleat_mm,
                high,
                piece.top_mm - row * piece.apart_mm - high,
                heights,
                row * count,
                joint=jointed.seat(piece),
            )
        ]

    def parts(self, piece: CleatWall, wall: Wall) -> list[Part]:
        """Return a cleat a row; holders get the other halves."""
        size = (piece.cleat_high_mm, piece.cleat_mm)
        return jointed.boards(piece, "cleat", piece.cleat, piece.rows, *size)

    def details(self, piece: CleatWall, wall: Wall, units: Units) -> dict[str, Detail]:
        """Each out of a strip that gives the holders their halves besides."""
        supports = [
            support
            for support in self.supports(piece, wall)
            if support.index < len(piece.supports_mm)
        ]
        told = Detail(
            (Pair(piece.bevel_deg, piece.cleat_high_mm, piece.cleat_mm),),
            "bevel up, its higher face to the room; the other half goes to the holders",
            bare=True,
        )
        into = "the wall's half"
        return jointed.bored(piece, "cleat", piece.cleat_mm, supports, units, told, into)

    def front(self, piece: CleatWall) -> list[Shape]:
        """Its rows, their bevelled edges and screws."""
        left, right, count = piece.left_mm, piece.left_mm + piece.length_mm, len(piece.supports_mm)
        shapes: list[Shape] = []
        for row in range(piece.rows):
            top = piece.top_mm - row * piece.apart_mm
            low = top - piece.cleat_high_mm
            heights = tuple(
                low + up for up in bevel.screw_heights_mm(piece.cleat_high_mm, piece.screws_each)
            )
            shapes += [
                *jointed.front(piece, low, piece.cleat_high_mm),
                block("door", left, top - 5, right, top),
            ]
            shapes += strips.screws_front(piece, heights, hidden=False, first=row * count)
        return shapes

    def side(self, piece: CleatWall, support: Support) -> list[Shape]:
        """Return the row that is cut, a holder on it."""
        t, edge = piece.cleat_mm, support.foot_mm + piece.cleat_high_mm
        return [
            *bevel_of(piece).shapes(edge, edge + 30),
            block("face", t, edge - piece.holder_mm, t + 12, edge + 30),
            block("face", t, edge - 20, t + piece.depth_mm, edge - 8),
        ]

    def box(self, piece: CleatWall) -> Box:
        """From the highest cleat down to the lowest holder."""
        low = min(
            piece.top_mm - piece.high_mm,
            piece.top_mm - (piece.rows - 1) * piece.apart_mm - piece.holder_mm,
        )
        return Box(piece.left_mm, piece.left_mm + piece.length_mm, max(low, 0.0), piece.top_mm)

    def in_two(self, piece: CleatWall) -> Iterator[tuple[Message, CleatWall]]:
        """Yield it jointed over a stud."""
        return jointed.in_two(piece)

    def cures(self, piece: CleatWall, units: Units) -> Iterator[tuple[str, Message, CleatWall]]:
        """Yield single plugs; a steeper bevel; other cleats; longer holders; more rows."""
        if piece.screws_each == 2 and piece.anchor is not None:
            yield (
                "single",
                Message("One at each place, so that they don't share a patch"),
                replace(piece, screws_each=1),
            )
        yield from jointed.tried(piece)
        yield from super().cures(piece, units)

    def hanging(self, piece: CleatWall, wall: Wall, policy: Policy) -> Hanging:
        """Return the lowest row to the level line.

        Each further one on blocks of the same height.
        """
        holders = do(
            "holders",
            "Hang the holders",
            "Each must sit down all along; its foot as thick as the cleat.",
            acts=(Act("put_on", "holders"),),
        )
        middles = tuple(
            piece.top_mm - piece.cleat_high_mm / 2 - n * piece.apart_mm for n in range(piece.rows)
        )
        lowest = piece.top_mm - (piece.rows - 1) * piece.apart_mm
        return Hanging(
            "cleat",
            ("Top edge of the lowest cleat", lowest),
            "rows",
            after=(holders,),
            rows_mm=middles,
        )

    def cautions(self, piece: CleatWall, wall: Wall) -> list[Message]:
        """Return what people get wrong with cleat walls."""
        found = [
            Message(
                "A foot as thick as the cleat on every holder, or it leans. Leave rows free for "
                "later."
            )
        ]
        if wall.build in ("timber", "steel") and wall.layers == ():
            said = (
                "Between bare studs a holder's foot has nothing to lean on: make each span two "
                "studs, or line the wall first."
            )
            found.append(Message(said))
        return [*found, *jointed.cautions(piece)]


KIND = _CleatWall()


def _load(piece: CleatWall) -> LineLoad:
    """Return what a row bears: its own weight and what hangs on it."""
    volume = piece.length_mm * piece.cleat_mm * piece.cleat_high_mm / 1e9
    own = volume * data.boards()[piece.cleat].density_kg_m3 * G_N_PER_KG
    return LineLoad(piece, own, piece.cleat_mm / 2)


def bevel_of(piece: CleatWall) -> Bevel:
    """One row's cleat, with its lowest holder."""
    rise = piece.cleat_mm * tan(radians(piece.bevel_deg))
    lever = max(piece.holder_mm - rise / 2, 1.0)
    size = (piece.cleat, piece.cleat_mm, piece.cleat_high_mm, piece.bevel_deg)
    return Bevel(*size, lever, piece.length_mm, piece.supports_mm)
