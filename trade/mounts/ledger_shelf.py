"""A shelf on ledgers on two or three walls: closets, pantries, niches."""

from collections.abc import Iterator
from typing import Any, ClassVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, Message, make
from trade.fixings import fastening
from trade.fixings.support import Support
from trade.language import compose
from trade.load.line import unweighed
from trade.load.push import push_of
from trade.load.stiffener import stiffener
from trade.measure import Units
from trade.mounts import board, ledgers, side_ledgers, strips
from trade.mounts.base import (
    SHELF,
    Ask,
    Extra,
    Mount,
    Part,
    Shape,
    Solid,
    block,
    board_front,
    board_part,
    cut,
    slab,
)
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.ledgers import NOUN
from trade.mounts.work import Detail
from trade.plan.facing import SIDES, beside
from trade.plan.flatness import Side
from trade.plan.model import LedgerShelf, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing


class _LedgerShelf(Mount[LedgerShelf]):
    kind = "ledger_shelf"
    name = "Shelf on ledgers, wall to wall"
    support_noun = NOUN
    every_stud = True
    make = LedgerShelf
    doubts = ("sides_sure",)
    woods = (("board", ("thickness_mm",)), ("ledger", ("ledger_mm",)))
    asks = (
        *SHELF,
        Ask("ledger", "Ledgers of", "choice", data.woods),
        Ask("ledger_mm", "Ledgers thick", "length"),
        Ask("ledger_high_mm", "Ledgers high", "length"),
        Ask("left_side", "A ledger on the side wall, left", "flag"),
        Ask("right_side", "A ledger on the side wall, right", "flag"),
        Ask("side_screws", "Screws in each of those", "count"),
        Ask("sides_sure", "They are known to sit in studs", "flag"),
        Ask(
            "side_anchor",
            "Where there is no stud, those are held by",
            "choice",
            data.anchors,
            none="the same as on this wall",
        ),
        Ask(
            "stiffener_mm",
            "Strip, fold or tube under the front, high",
            "length",
            help="0 for none.",
        ),
        Ask("stiffener", "That is a", "choice", data.stiffeners),
    )
    fresh: ClassVar[dict[str, Any]] = {"board": "plywood", "thickness_mm": 18.0, "depth_mm": 300.0}

    def sized(self, fields: dict[str, Any], wall: Wall, x_mm: float) -> dict[str, Any]:
        """From wall to wall, where walls meet this one at both its ends."""
        niche = all(beside(wall, side) is not None for side in SIDES)
        if not niche or wall.width_mm > data.house("widest_niche_mm"):
            return fields
        return fields | {"length_mm": wall.width_mm}

    def checks(self, piece: LedgerShelf, wall: Wall) -> list[Check]:
        """Every check of the ledgers and of the board's front."""
        loads = unweighed(piece)
        if len(piece.supports_mm) < 2:
            return [board.too_few_supports(piece, NOUN, loads)]
        known = side_ledgers.of_shelf(piece, wall)
        bare = [ledger for ledger in known if not ledger.held]
        sides = piece.left_side + piece.right_side - len(bare)
        part = ledgers.shares(piece.length_mm, piece.depth_mm, sides, legs=False)
        load = ledgers.ledger_load(piece, part.back)
        demands = ledgers.back_demands(piece, load)
        found = fastening.checks(self.supports(piece, wall), demands, backing(wall).unknown, loads)
        found += [_nothing(ledger) for ledger in bare]
        if sides < 2:
            return [*found, _front_held(sides)]
        strip = ledgers.front_strip(piece, (0.0, piece.length_mm), stiffener(piece))
        found += _round_corners(piece, known, part.side, loads)
        found += _gaps(piece, wall)
        if len(known) < sides:  # of the other nothing is known
            found.append(_side(piece, wall, self.supports(piece, wall)[0], part.side, loads))
        return [*found, *ledgers.front_checks(piece, strip, loads)]

    def supports(self, piece: LedgerShelf, wall: Wall) -> list[Support]:
        """Return the screws of the ledger at the back."""
        return ledgers.supports(piece, wall)

    def beside(self, piece: LedgerShelf, wall: Wall) -> dict[Side, list[Support]]:
        """Return the screws of its side ledgers."""
        found = side_ledgers.of_shelf(piece, wall)
        return {each.side: [each.supports[n] for n in each.held] for each in found}

    def parts(self, piece: LedgerShelf, wall: Wall) -> list[Part]:
        """Return the board, the ledgers, the strip under its front edge."""
        t, high, sides = piece.ledger_mm, piece.ledger_high_mm, piece.left_side + piece.right_side
        found = [
            board_part(piece, wall),
            cut("back ledger", piece.ledger, 1, piece.length_mm, high, t),
        ]
        if sides:
            found.append(cut("side ledger", piece.ledger, sides, piece.depth_mm - t, high, t))
        return [*found, *board.front_parts(piece, wall)]

    def extras(self, piece: LedgerShelf, wall: Wall) -> list[Extra]:
        """Return the screws of its side ledgers, in walls beside of which nothing is known."""
        sides = piece.left_side + piece.right_side - len(self.beside(piece, wall))
        many = sides * piece.side_screws
        return [Extra("Into the side walls", many)] if many else []

    def details(self, piece: LedgerShelf, wall: Wall, units: Units) -> dict[str, Detail]:
        """Return what waits: the board for walls and ledgers, its strip for the board."""
        walls = piece.left_side + piece.right_side
        foot = piece.top_mm - piece.thickness_mm - piece.ledger_high_mm
        screws = strips.screwed(ledgers.supports(piece, wall), piece.left_mm, foot, units)
        board = super().details(piece, wall, units)["board"]
        fits = (
            "from wall to wall at this height, at the back and at the front" if walls == 2 else ""
        )
        return {
            "board": board._replace(late=fits, wall="on the ledgers, its back edge to the wall"),
            "back ledger": Detail(screws, "along this wall, level"),
            "side ledger": Detail(
                wall="against the back ledger, level with it",
                late="from the back ledger's face to the shelf's front",
            ),
            "front strip": Detail(wall="under the front edge", follows="board"),
        }

    def front(self, piece: LedgerShelf) -> list[Shape]:
        """Return the board, the ledger under it, the side ledgers' ends, the strip."""
        left = piece.left_mm
        right = piece.left_mm + piece.length_mm
        under = piece.top_mm - piece.thickness_mm
        low, t = under - piece.ledger_high_mm, piece.ledger_mm
        shapes = [block("wood", left, low, right, under)]
        shapes += [block("wood", left, low, left + t, under)] if piece.left_side else []
        shapes += [block("wood", right - t, low, right, under)] if piece.right_side else []
        if piece.stiffener_mm:
            shapes.append(block("board", left, under - piece.stiffener_mm, right, under))
        return [*shapes, *ledgers.screws_front(piece), board_front(piece)]

    def solids(self, piece: LedgerShelf, wall: Wall) -> list[Solid]:
        """Return the board, the ledgers under its back and its ends, the strip at its front."""
        left, right, deep = piece.left_mm, piece.left_mm + piece.length_mm, piece.depth_mm
        under, t = piece.top_mm - piece.thickness_mm, piece.ledger_mm
        low = under - piece.ledger_high_mm
        found = [slab("wood", left, right, (0.0, t), low, under)]
        found += [slab("wood", left, left + t, (t, deep), low, under)] if piece.left_side else []
        found += [slab("wood", right - t, right, (t, deep), low, under)] if piece.right_side else []
        if (made := stiffener(piece)) is not None:
            back, foot = deep - made.part.wide_mm, under - made.part.high_mm
            found.append(slab("wood", left + t, right - t, (back, deep), foot, under))
        return [*found, slab("board", left, right, (0.0, deep), under, piece.top_mm)]

    def parcel(self, piece: LedgerShelf) -> tuple[float, float, float]:
        """Return its board with the strip under it; the ledgers go in by themselves."""
        made = stiffener(piece)
        under = 0.0 if made is None else made.part.high_mm
        return piece.length_mm, piece.depth_mm, piece.thickness_mm + under

    def side(self, piece: LedgerShelf, support: Support) -> list[Shape]:
        """Return the board on its ledger, the strip under its front."""
        under, shapes = piece.top_mm - piece.thickness_mm, ledgers.side_shapes(piece)
        if (made := stiffener(piece)) is not None:
            shapes.append(
                block(
                    "board",
                    piece.depth_mm - made.part.wide_mm,
                    under - made.part.high_mm,
                    piece.depth_mm,
                    under,
                )
            )
        return shapes

    def cures(self, piece: LedgerShelf, units: Units) -> Iterator[tuple[str, Message, LedgerShelf]]:
        """Yield ledgers on both side walls; a strip under the front edge; other ledgers."""
        if not (piece.left_side and piece.right_side):
            yield (
                "sides",
                Message("A ledger on each side wall"),
                replace(piece, left_side=True, right_side=True),
            )
        yield from super().cures(piece, units)
        yield from side_ledgers.other_anchors(piece)
        yield from board.stiffened(piece)

    def hanging(self, piece: LedgerShelf, wall: Wall, policy: Policy) -> Hanging:
        """Return the ledger at the back; the side ledgers level from it; the board dropped in."""
        known = self.beside(piece, wall)
        sides: tuple[tuple[Side, bool], ...] = (
            ("left", piece.left_side),
            ("right", piece.right_side),
        )
        others = [
            do(
                f"side-{side}",
                compose("The ledger on the {side} wall", side=side),
                "One end on the level line of the back ledger, one screw; level it out to the "
                "front, then the others.",
                *(() if side in known else ("Find the stud there first: it is another wall.",)),
                *ledgers.anchored(known.get(side) or ledgers.supports(piece, wall)),
                beside=side if side in known else None,
            )
            for side, there in sides
            if there
        ]
        board = do(
            "board",
            "Drop the board in",
            "One end first, tilted, then the other; never force it against the lining. Scribe it "
            "where it binds.",
            lifts=True,
            acts=(Act("put_on", "board"),),
        )
        fasten = do(
            "fasten",
            "Screw the board to its ledgers",
            "From above, near the ends, or from below where it shows.",
        )
        line = ("Top of the ledgers", piece.top_mm - piece.thickness_mm)
        return Hanging(
            "back ledger",
            line,
            after=(*others, board, *((fasten,) if policy.stays != "friction" else ())),
        )

    def cautions(self, piece: LedgerShelf, wall: Wall) -> list[Message]:
        """Return what people get wrong with ledgers."""
        return [
            Message(
                "Measure back, front and sides at this height: closets are not square. Level "
                "every ledger from the first."
            ),
        ]


KIND = _LedgerShelf()


def front_share(count: int) -> float:
    """Return what part of a load on a side ledger's front end its front screw takes.

    All evenly along it.

    1/n + e c / sum of c^2.
    """
    if count < 2:
        return 1.0
    places = [(n + 0.5) / count - 0.5 for n in range(count)]
    return 1 / count + 0.5 * places[-1] / sum(c * c for c in places)


def _nothing(ledger: side_ledgers.SideLedger) -> Check:
    return make(
        "ledger.nothing",
        part=ledger.name,
        case="any",
        demand=Quantity(1, "count"),
        capacity=Quantity(0.5, "count"),
        template="On “{wall}” nothing holds the {ledger}: no stud within its reach, and no anchor.",
        parts={"wall": ledger.neighbour.name, "ledger": ledger.name},
    )


def _round_corners(
    piece: LedgerShelf,
    known: list[side_ledgers.SideLedger],
    share: float,
    loads: tuple[str, ...],
) -> list[Check]:
    """Check the side ledgers on walls that are known, each with what lands on it."""
    found: list[Check] = []
    total, held = ledgers.total_n(piece), [each for each in known if each.held]
    # so that moments about the back ledger are in balance
    even_at = min(piece.depth_mm, piece.depth_mm / (4 * share))
    push = side_ledgers.Pressed(push_of(piece).n, piece.depth_mm)
    for ledger in held:
        lasting = side_ledgers.Pressed(share * total, even_at, total / 2)
        found += side_ledgers.checks(piece, ledger, lasting, push, loads)
    return found


def _gaps(piece: LedgerShelf, wall: Wall) -> list[Check]:
    """Check that the board's ends lie on ledgers on walls that are known."""
    ends: tuple[tuple[Side, bool, float], ...] = (
        ("left", piece.left_side, piece.left_mm),
        ("right", piece.right_side, wall.width_mm - piece.left_mm - piece.length_mm),
    )
    return [
        make(
            "ledger.gap",
            part="board",
            case="any",
            demand=Quantity(max(gap, 0.0), "length"),
            capacity=Quantity(piece.ledger_mm / 2, "length"),
            template="Its {side} end is {demand} short of the wall beside; on the ledger there it "
            "may be short by {capacity}.",
            parts={"side": side},
        )
        for side, there, gap in ends
        if there and beside(wall, side) is not None
    ]


def _front_held(sides: int) -> Check:
    return make(
        "ledger.front",
        part="board",
        case="any",
        demand=Quantity(2, "count"),
        capacity=Quantity(max(sides, 0.5), "count"),
        template="A ledger at the back alone lets the front edge drop: support both of its ends "
        "on side walls, legs or brackets.",
    )


def _side(
    piece: LedgerShelf, wall: Wall, like: Support, part: float, loads: tuple[str, ...]
) -> Check:
    """Screws of a side ledger, which hold as those on this wall do."""
    behind, push = backing(wall), push_of(piece).n
    count, even = max(piece.side_screws, 1), ledgers.total_n(piece) * part
    most, (years, minutes) = front_share(count), strips.durations(like)
    pushed, duration, case = max(
        ((0.0, years, "loaded, for years"), (push, minutes, "loaded, and pushed at its front end")),
        key=lambda d: (even + d[0]) / d[1],
    )
    sums = Calculation()
    sums.given("Q", ledgers.total_n(piece), "force", "all that lies on it, and the board")
    sums.given("s", part, "ratio", "share of a side ledger, at its front end")
    sums.given("F", pushed, "force", "push there")
    sums.given("n", count, "count", "its screws")
    sums.given("k", most, "ratio", "part that its front screw takes: 1/n + e c / Σ c²")
    sums.then("V", "k (s Q + F)", "force", "load of that screw")
    sums.given("Z", strips.shear_n(like), "force", "shear of one screw as on this wall")
    sums.given("C_D", duration, "ratio", "load duration, in wood")
    sums.then("Z'", "Z C_D", "force", "it can carry")
    ask = (
        ()
        if piece.sides_sure
        else (
            "whether the side ledgers' screws hold as they do here: find what is in the side "
            "walls.",
        )
    )
    return make(
        "ledger.side",
        part="side ledger",
        case=case,
        unknown=(*ask, *behind.unknown, *loads),
        demand=sums.quantity("V", "pull"),
        capacity=sums.quantity("Z'", "pull"),
        template="Each screw of a side ledger carries {demand}; across the lining it can carry "
        "{capacity}."
        if behind.lining_mm
        else "Each screw of a side ledger carries {demand}; it can carry {capacity}.",
        equations=sums.equations,
    )
