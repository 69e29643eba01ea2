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
from trade.mounts import board, ledgers, side_ledgers, sided, strength, strips
from trade.mounts.base import (
    SHELF,
    Ask,
    Extra,
    Mount,
    Part,
    Rest,
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
from trade.plan.facing import SIDES, beside, goes_round
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
        *sided.LEDGERS,
        *sided.SIDES,
        Ask("left_upright", "An upright under its left end", "flag"),
        Ask("right_upright", "An upright under its right end", "flag"),
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
        open_ends = [s for s in SIDES if piece.end(s) == "ledger" and goes_round(wall, s)]
        sides = sum(bool(piece.end(side)) for side in SIDES) - len(bare) - len(open_ends)
        part = ledgers.shares(piece.length_mm, piece.depth_mm, sides, legs=False)
        load = ledgers.ledger_load(piece, part.back)
        demands = ledgers.back_demands(piece, load)
        found = fastening.checks(self.supports(piece, wall), demands, backing(wall).unknown, loads)
        found += [sided.nothing(ledger) for ledger in bare]
        found += [sided.round_the_edge(side) for side in open_ends]
        if sides < 2:
            return [*found, _front_held(sides)]
        strip = ledgers.front_strip(piece, (0.0, piece.length_mm), stiffener(piece))
        there = ledgers.side_loads(piece, part.side, data.uses()[piece.use].factor)
        found += sided.round_corners(piece, known, there, loads)
        found += sided.gaps(piece, wall)
        found += sided.joints(piece, there, loads)
        found += _uprights(piece, part.side, loads)
        if len(known) < piece.ends("ledger"):  # of the other nothing is known
            found.append(sided.unknown(piece, wall, self.supports(piece, wall)[0], there, loads))
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
        t, high, sides = piece.ledger_mm, piece.ledger_high_mm, piece.ends("ledger")
        found = [
            board_part(piece, wall),
            cut("back ledger", piece.ledger, 1, piece.length_mm, high, t),
        ]
        if sides:
            found.append(cut("side ledger", piece.ledger, sides, piece.depth_mm - t, high, t))
        if many := piece.ends("upright"):
            tall = upright_mm(piece)
            found.append(
                cut("upright", piece.board, many, tall, piece.depth_mm, piece.thickness_mm)
            )
        if many := piece.ends("shelf"):
            found.append(cut("joint strip", piece.ledger, many, piece.depth_mm, high, t))
        return [*found, *board.front_parts(piece, wall)]

    def extras(self, piece: LedgerShelf, wall: Wall) -> list[Extra]:
        """Return the screws of its side ledgers, in walls beside of which nothing is known."""
        sides = piece.ends("ledger") - len(side_ledgers.of_shelf(piece, wall))
        many = sides * piece.side_screws
        walls = [Extra("Into the side walls", many)] if many else []
        return [*walls, *sided.joint_extras(piece)]

    def details(self, piece: LedgerShelf, wall: Wall, units: Units) -> dict[str, Detail]:
        """Return what waits: the board for walls and ledgers, its strip for the board."""
        walls = piece.ends("ledger")
        foot = piece.top_mm - piece.thickness_mm - piece.ledger_high_mm
        screws = strips.screwed(ledgers.supports(piece, wall), piece.left_mm, foot, units)
        board = super().details(piece, wall, units)["board"]
        fits = (
            "from wall to wall at this height, at the back and at the front" if walls == 2 else ""
        )
        return {
            "board": board._replace(late=fits, wall="on the ledgers, its back edge to the wall"),
            "back ledger": Detail(screws, "along this wall, level"),
            "front strip": Detail(wall="under the front edge", follows="board"),
            **(
                {"upright": Detail(wall="under the open end of the board, its edge to the wall")}
                if piece.ends("upright")
                else {}
            ),
            **sided.details(piece),
        }

    def front(self, piece: LedgerShelf) -> list[Shape]:
        """Return the board, the ledger under it, the side ledgers' ends, the strip."""
        left = piece.left_mm
        right = piece.left_mm + piece.length_mm
        under = piece.top_mm - piece.thickness_mm
        low, t = under - piece.ledger_high_mm, piece.ledger_mm
        shapes = [block("wood", left, low, right, under)]
        for side, edge in zip(SIDES, (left, right - t), strict=True):
            if piece.end(side) in ("ledger", "shelf"):
                shapes.append(block("wood", edge, low, edge + t, under))
        shapes += [
            block("shade", start, under - upright_mm(piece), start + piece.thickness_mm, under)
            for start in _upright_at(piece)
        ]
        if piece.stiffener_mm:
            shapes.append(block("board", left, under - piece.stiffener_mm, right, under))
        return [*shapes, *ledgers.screws_front(piece), board_front(piece)]

    def solids(self, piece: LedgerShelf, wall: Wall) -> list[Solid]:
        """Return the board, the ledgers under its back and its ends, the strip at its front."""
        left, right, deep = piece.left_mm, piece.left_mm + piece.length_mm, piece.depth_mm
        under, t = piece.top_mm - piece.thickness_mm, piece.ledger_mm
        low = under - piece.ledger_high_mm
        found = [slab("wood", left, right, (0.0, t), low, under)]
        for side, edge in zip(SIDES, (left, right - t), strict=True):
            if piece.end(side) in ("ledger", "shelf"):
                found.append(slab("wood", edge, edge + t, (t, deep), low, under))
        thick, foot = piece.thickness_mm, under - upright_mm(piece)
        found += [
            slab("board", at, at + thick, (0.0, deep), foot, under) for at in _upright_at(piece)
        ]
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
        """Yield ledgers on both side walls; a strip under the front edge; other ledgers.

        An upright under an end that nothing carries.
        """
        if not (piece.end("left") and piece.end("right")):
            yield (
                "upright",
                Message("An upright under each open end, down to the floor"),
                replace(
                    piece,
                    left_upright=not piece.end("left"),
                    right_upright=not piece.end("right"),
                ),
            )
            yield (
                "sides",
                Message("A ledger on each side wall"),
                replace(piece, left_side=True, right_side=True),
            )
        yield from super().cures(piece, units)
        yield from side_ledgers.other_anchors(piece)
        yield from board.stiffened(piece)

    def takes(self, piece: LedgerShelf, field: str, size: float) -> bool:
        """Whether one of its parts may have another size: screws of a joint that it has."""
        return field != "joint_screws" or piece.ends("shelf") > 0

    def rests(self, piece: LedgerShelf) -> dict[Side, Rest]:
        """Return what each end lays on a shelf at the wall beside."""
        sides = sum(bool(piece.end(side)) for side in SIDES)
        share = ledgers.shares(piece.length_mm, piece.depth_mm, sides, legs=False).side
        there = ledgers.side_loads(piece, share, 1.0) if share else {}
        keys: dict[Side, str | None] = {"left": piece.left_on, "right": piece.right_on}
        return {
            side: Rest(key, there[side].force_n, piece.depth_mm, piece.top_mm)
            for side, key in keys.items()
            if key is not None and side in there
        }

    def hanging(self, piece: LedgerShelf, wall: Wall, policy: Policy) -> Hanging:
        """Return the ledger at the back; the side ledgers level from it; the board dropped in."""
        others = sided.steps(piece, wall, self.beside(piece, wall))
        if piece.ends("upright"):
            others.append(
                do(
                    "uprights",
                    "Stand the uprights",
                    "Under the open ends, plumb, their back edge to the wall. Screw each to the "
                    "wall's stud or to a strip on the floor, so that nobody kicks it out.",
                )
            )
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


def upright_mm(piece: LedgerShelf) -> float:
    """How high its uprights are: from the floor, unless somebody said what they stand on."""
    under = piece.top_mm - piece.thickness_mm
    return under if piece.upright_mm is None else min(piece.upright_mm, under)


def _upright_at(piece: LedgerShelf) -> list[float]:
    """Where its uprights stand, by their left faces."""
    right = piece.left_mm + piece.length_mm - piece.thickness_mm
    places: tuple[tuple[Side, float], ...] = (("left", piece.left_mm), ("right", right))
    return [at for side, at in places if piece.end(side) == "upright"]


def _uprights(piece: LedgerShelf, share: float, loads: tuple[str, ...]) -> list[Check]:
    """Check an upright as a column hinged at both ends (Euler)."""
    if not piece.ends("upright"):
        return []
    row, sums = data.boards()[piece.board], Calculation()
    there = ledgers.side_loads(piece, share, data.uses()[piece.use].factor)
    worst = max(
        (there[side] for side in SIDES if piece.end(side) == "upright"), key=lambda x: x.force_n
    )
    sums.given("Q", worst.even_n, "force", "what lies evenly, and the board: its part")
    sums.given("S", worst.points_n, "force", "things at a place: its part")
    sums.given("P", push_of(piece).n, "force", "push over it")
    sums.then("F", "Q + S + P", "force", "on the upright")
    sums.given("l", max(upright_mm(piece), 1.0), "length", "its height")
    sums.given("E", row.e_mpa, "stress", compose("stiffness of {row}", row=row.name))
    sums.given("b", piece.depth_mm, "length", "its depth")
    sums.given("t", piece.thickness_mm, "fine", "its thickness")
    sums.then("I", "b t³ / 12", "inertia")
    strength.write_column(sums)
    return [
        make(
            "ledger.upright",
            part="upright",
            case="loaded, and pushed over it",
            unknown=loads,
            demand=sums.quantity("F", "pull"),
            capacity=sums.quantity("F_max", "pull"),
            template="An upright carries {demand}; at that height and thickness it can carry "
            "{capacity}.",
            equations=sums.equations,
        )
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
