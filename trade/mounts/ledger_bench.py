"""A bench or desk on a ledger at the wall and legs at the front."""

from collections.abc import Iterator
from typing import Any, ClassVar

from trade import data
from trade.calculation import Quantity
from trade.check import Check, Message, make
from trade.fixings import fastening
from trade.fixings.support import Support
from trade.load.line import contents_of, unweighed
from trade.load.push import push_of
from trade.load.shelf import board_n
from trade.load.stiffener import Stiffener
from trade.measure import Units
from trade.mechanics import composite
from trade.mounts import board, ledgers, side_ledgers, sided, strips
from trade.mounts.base import (
    SHELF,
    Ask,
    Extra,
    Mount,
    Part,
    Rest,
    Shape,
    block,
    board_front,
    board_part,
    cut,
)
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.ledgers import NOUN
from trade.mounts.work import Detail
from trade.plan.facing import SIDES, goes_round
from trade.plan.flatness import Side
from trade.plan.model import Bench, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing
from trade.workshop.panels import ALONG, OUT, UP, Panel
from trade.workshop.panels import block as slab

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
    doubts = ("sides_sure",)
    woods = (("board", ("thickness_mm",)), ("ledger", ("ledger_mm",)))
    asks = (
        *SHELF,
        *sided.LEDGERS,
        *sided.SIDES,
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
        known = side_ledgers.of_shelf(piece, wall)
        bare = [each for each in known if not each.held]
        away = [s for s in SIDES if piece.end(s) == "ledger" and goes_round(wall, s)]
        found += [sided.nothing(each) for each in bare]
        found += [sided.round_the_edge(side) for side in away]
        held = front_held_mm(piece)
        if len(held) - len(bare) - len(away) < 2:
            return [*found, _legs(piece, len(held) - len(bare) - len(away))]
        strip = ledgers.front_strip(piece, held, _apron(piece))
        ends = end_loads(piece, data.uses()[piece.use].factor)
        found += sided.round_corners(piece, known, ends, loads)
        found += sided.gaps(piece, wall)
        found += sided.joints(piece, ends, loads)
        if len(known) < piece.ends("ledger"):  # of the other nothing is known
            like = self.supports(piece, wall)[0]
            found.append(sided.unknown(piece, wall, like, ends, loads))
        found += ledgers.front_checks(piece, strip, loads)
        if piece.legs:
            even = (
                strip.even_n
                / strip.span_mm
                * piece.length_mm
                / (len(held) - 1)
                * (0.5 if len(held) == 2 else _MIDDLE_SHARE)
            )
            pressed = even + sum(force for _, force in strip.points_n) + push_of(piece).n
            found.append(ledgers.leg_check(piece, pressed, loads))
        return found

    def supports(self, piece: Bench, wall: Wall) -> list[Support]:
        """Return the screws of the ledger."""
        return ledgers.supports(piece, wall)

    def beside(self, piece: Bench, wall: Wall) -> dict[Side, list[Support]]:
        """Return the screws of its ledgers at the walls beside."""
        found = side_ledgers.of_shelf(piece, wall)
        return {each.side: [each.supports[n] for n in each.held] for each in found}

    def takes(self, piece: Bench, field: str, size: float) -> bool:
        """Whether one of its parts may have another size: screws of a joint that it has."""
        return field != "joint_screws" or piece.ends("shelf") > 0

    def rests(self, piece: Bench) -> dict[Side, Rest]:
        """Return what an end lays on the front of the bench at the wall beside."""
        there = end_loads(piece, 1.0) if len(front_held_mm(piece)) > 1 else {}
        keys: dict[Side, str | None] = {"left": piece.left_on, "right": piece.right_on}
        return {
            side: Rest(key, there[side].force_n, piece.depth_mm, piece.top_mm)
            for side, key in keys.items()
            if key is not None and side in there
        }

    def extras(self, piece: Bench, wall: Wall) -> list[Extra]:
        """Return the screws of its side ledgers, in walls beside of which nothing is known."""
        sides = piece.ends("ledger") - len(side_ledgers.of_shelf(piece, wall))
        many = sides * piece.side_screws
        walls = [Extra("Into the side walls", many)] if many else []
        return [*walls, *sided.joint_extras(piece)]

    def parts(self, piece: Bench, wall: Wall) -> list[Part]:
        """Return the board, the ledger, the legs and the board that joins them."""
        tall = piece.top_mm - piece.thickness_mm
        found = [
            board_part(piece, wall),
            cut("ledger", piece.ledger, 1, piece.length_mm, piece.ledger_high_mm, piece.ledger_mm),
        ]
        t, high = piece.ledger_mm, piece.ledger_high_mm
        if many := piece.ends("ledger"):
            found.append(cut("side ledger", piece.ledger, many, piece.depth_mm - t, high, t))
        if many := piece.ends("shelf"):
            found.append(cut("joint strip", piece.ledger, many, piece.depth_mm, high, t))
        if piece.legs:
            found.append(cut("leg", piece.ledger, piece.legs, tall, piece.leg_mm, piece.leg_mm))
        if piece.apron_mm:
            found.append(cut("apron", piece.ledger, 1, piece.length_mm, piece.apron_mm, _APRON_MM))
        return found

    def panels(self, piece: Bench) -> tuple[Panel, ...]:
        """Return its top, its ledger, its legs and the board that joins them, from the floor up."""
        high, deep, long = piece.top_mm, piece.depth_mm, (0.0, piece.length_mm)
        under, t, wood = high - piece.thickness_mm, piece.ledger_mm, piece.ledger
        low = under - piece.ledger_high_mm
        top = slab(long, (under, high), (0.0, deep))
        found = [
            Panel("board", piece.board, top, UP, ALONG),
            Panel("ledger", wood, slab(long, (low, under), (0.0, t)), OUT, ALONG),
        ]
        for side, left in zip(SIDES, (0.0, piece.length_mm - t), strict=True):
            if piece.end(side) == "ledger":
                across = (left, left + t)
                found.append(
                    Panel("side ledger", wood, slab(across, (low, under), (t, deep)), ALONG, OUT)
                )
        front, half = deep - _APRON_MM, piece.leg_mm / 2
        for x in leg_places_mm(piece):
            leg = slab((x - half, x + half), (0.0, under), (front - piece.leg_mm, front))
            found.append(Panel("leg", wood, leg, ALONG, UP))
        if piece.apron_mm:
            apron = slab(long, (under - piece.apron_mm, under), (front, deep))
            found.append(Panel("apron", wood, apron, OUT, ALONG))
        return tuple(found)

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
            **sided.details(piece),
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
        t = piece.ledger_mm
        sides = [
            block("wood", edge, low, edge + t, under)
            for side, edge in zip(SIDES, (left, right - t), strict=True)
            if piece.end(side)
        ]
        return [
            block("wood", left, low, right, under),
            *sides,
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
        """Return its hanging: the ledgers; the legs, cut to the floor that is there; the top."""
        others = sided.steps(piece, wall, self.beside(piece, wall))
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
            "ledger",
            ("Top of the ledger", piece.top_mm - piece.thickness_mm),
            after=(*others, *((legs,) if piece.legs else ()), top),
        )

    def cures(self, piece: Bench, units: Units) -> Iterator[tuple[str, Message, Bench]]:
        """Yield other anchors round its corners; then as any kind."""
        if piece.ends("ledger"):
            yield from side_ledgers.other_anchors(piece)
        yield from super().cures(piece, units)

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
    """Where the legs stand, from the left end; none at an end that something else carries."""
    inset = min(_INSET_MM, piece.length_mm / 4)
    left, right = bool(piece.end("left")), bool(piece.end("right"))
    if piece.legs < 2 and not (left or right):
        return (piece.length_mm / 2,) * piece.legs
    first = 0.0 if left else inset
    last = piece.length_mm - (0.0 if right else inset)
    gaps = piece.legs - 1 + left + right
    step = (last - first) / max(gaps, 1)
    return tuple(first + (n + left) * step for n in range(piece.legs))


def front_held_mm(piece: Bench) -> tuple[float, ...]:
    """Where its front is held: by legs, and at its ends by what carries them; from the left."""
    left = (0.0,) if piece.end("left") else ()
    right = (piece.length_mm,) if piece.end("right") else ()
    return (*left, *leg_places_mm(piece), *right)


def end_loads(piece: Bench, factor: float) -> dict[Side, ledgers.SideLoad]:
    """Return what each end that something carries bears, at its front.

    The front takes half of an even load; each end half of that on the span beside it. A thing at a
    place goes by its levers.
    """
    held, loads = front_held_mm(piece), contents_of(piece)
    spans = {"left": (held[0], held[1]), "right": (held[-1], held[-2])}
    found: dict[Side, ledgers.SideLoad] = {}
    even = board_n(piece) + factor * sum(
        load.total_n for load in loads[0] if load.end_mm > load.start_mm
    )
    for side in SIDES:
        if not piece.end(side):
            continue
        end, next_to = spans[side]
        span = abs(next_to - end)
        share = span / piece.length_mm / 2
        points = half = 0.0
        for load, out in zip(*loads, strict=True):
            if load.end_mm > load.start_mm:
                continue
            here = factor * load.total_n * max(1 - abs(load.start_mm - end) / span, 0.0)
            half += here
            points += here * min(out / piece.depth_mm, 1.0)
        found[side] = ledgers.SideLoad(
            even * share / 2, points, piece.depth_mm, even * share + half
        )
    return found


def _legs(piece: Bench, held: int) -> Check:
    return make(
        "ledger.front",
        part="board",
        case="any",
        demand=Quantity(2, "count"),
        capacity=Quantity(max(held, 0.5), "count"),
        template="Its front edge is held in fewer than two places: it needs {demand} legs or more, "
        "or a ledger at the wall beside.",
    )
