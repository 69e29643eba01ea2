"""A board on a ledger at the wall: what a ledger shelf and a bench share.

Ledgers only press: moments about the back one ask that what holds the front carries half of an even
load or more. A long board carries that half along its front strip to the side ledgers' front ends;
a deep one is cut along yield lines at 45 degrees.
"""

from typing import Any, NamedTuple

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, make
from trade.fixings.support import Support
from trade.language import compose
from trade.load.demand import Demand
from trade.load.line import Contents, LineLoad, contents_of
from trade.load.push import push_of
from trade.load.shelf import board_n
from trade.load.stiffener import Stiffener
from trade.mechanics import beam, composite
from trade.mounts import strength, strips
from trade.mounts.base import Shape, block, board_side
from trade.plan.facing import SIDES
from trade.plan.flatness import Side
from trade.plan.model import Bench, Wall
from trade.plan.pieces.shelves import Sided

NOUN = "support"
Ledgered = Sided
_PUSHED_BACK = data.house("pushed_back")


class Shares(NamedTuple):
    """What part of an even load each edge carries: the back, each side, and the front."""

    back: float
    side: float
    front: float


def shares(length_mm: float, depth_mm: float, sides: int, legs: bool) -> Shares:
    """Parts of an even load.

    By yield lines at 45 degrees, but to the front no less than statics asks, half of it.

    Args:
        length_mm: along the back.
        depth_mm: out from it.
        sides: ledgers on side walls, 0 to 2.
        legs: the front edge is held by legs: half the load, and side ledgers none.
    """
    if legs or not sides:
        return Shares(0.5, 0.0, 0.5) if legs else Shares(1.0, 0.0, 0.0)
    reach = min(
        depth_mm, length_mm / sides
    )  # where two yield lines meet before they reach the front
    side = max((reach * depth_mm - reach**2 / 2) / (length_mm * depth_mm), 0.5 / sides)
    return Shares(1 - sides * side, side, 0.0)


class SideLoad(NamedTuple):
    """What lands on one end of a board: evenly, and of things at a place; where; all on its half.

    N and mm from the wall. A thing at a place goes to both ends and to the back by its levers.
    """

    even_n: float
    points_n: float
    at_mm: float
    half_n: float

    @property
    def force_n(self) -> float:
        """All of it."""
        return self.even_n + self.points_n


def side_loads(piece: Ledgered, share: float, factor: float) -> dict[Side, SideLoad]:
    """Return what each end of a board carries.

    Args:
        piece: on a ledger at the back, both its ends carried.
        share: what one end carries of an even load.
        factor: on the contents.
    """
    loads, outs = contents_of(piece)
    even = board_n(piece) + factor * sum(
        load.total_n for load in loads if load.end_mm > load.start_mm
    )
    # so far out that moments about the back ledger are in balance
    even_at = min(piece.depth_mm, piece.depth_mm / (4 * share))
    found: dict[Side, SideLoad] = {}
    for side in SIDES:
        points = half = 0.0
        for load, out in zip(loads, outs, strict=True):
            if load.end_mm > load.start_mm:
                continue
            along = load.start_mm / piece.length_mm
            here = factor * load.total_n * (along if side == "right" else 1 - along)
            half += here
            points += here * min(out / piece.depth_mm, 1.0)
        total = share * even + points
        middle = (share * even * even_at + points * piece.depth_mm) / total if total else even_at
        found[side] = SideLoad(share * even, points, middle, even / 2 + half)
    return found


def ledger_load(piece: Ledgered, part: float) -> LineLoad:
    """Return what the ledger at the back carries along its screws.

    Args:
        piece: with two screws or more.
        part: of an even load; a thing at a place counts with its lever between back and front.
    """
    loads, outs = contents_of(piece)
    scaled = [
        load._replace(
            total_n=load.total_n
            * (part if load.end_mm > load.start_mm else max(1 - out / piece.depth_mm, 0.0))
        )
        for load, out in zip(loads, outs, strict=True)
    ]
    at = [piece.ledger_mm / 2] * len(outs)
    contents: Contents = (scaled, at)
    return LineLoad(
        piece,
        board_n(piece) * part,
        piece.ledger_mm / 2,
        contents=contents,
        push_share=_PUSHED_BACK,
    )


def back_demands(piece: Ledgered, load: LineLoad) -> dict[int, tuple[Demand, ...]]:
    """Load cases of the ledger's screws.

    Everything rests on its top, at half its thickness; a push lands on it at the worst.
    """
    half = piece.ledger_mm / 2
    found = {}
    for i, cases in load.demands().items():
        found[i] = tuple(
            case._replace(moment_nmm=max(case.load_n, 0.0) * half, load_n=max(case.load_n, 0.0))
            for case in cases
        )
    return found


def supports(piece: Ledgered, wall: Wall) -> list[Support]:
    """Return the ledger's screws at each place."""
    high = piece.ledger_high_mm
    return strips.on_studs(
        piece,
        wall,
        NOUN,
        piece.ledger,
        piece.ledger_mm,
        high,
        piece.top_mm - piece.thickness_mm - high,
    )


def anchored(made: list[Support]) -> tuple[str, ...]:
    """Return what else to do at a ledger on another wall, when anchors hold it as they do here."""
    if not any(support.anchored for support in made):
        return ()
    return (
        "Mark its holes through it, take it down, set its anchors as on this wall, then put it up.",
    )


def screws_front(piece: Ledgered) -> list[Shape]:
    """Return the ledger's screws, from the front."""
    low = piece.top_mm - piece.thickness_mm - piece.ledger_high_mm
    return strips.screws_front(piece, tuple(low + up for up in strips.rows(piece.ledger_high_mm)))


def side_shapes(piece: Ledgered) -> list[Shape]:
    """Return the board on its ledger, cut."""
    under = piece.top_mm - piece.thickness_mm
    return [
        board_side(piece),
        block("wood", 0.0, under - piece.ledger_high_mm, piece.ledger_mm, under),
    ]


class Strip(NamedTuple):
    """The front of a board as a beam.

    Half its depth, and a strip under its edge, each of its own wood or metal.

    `even_n`: evenly on a span, contents with their use factor; `own_n`: the board's own part of it.
    `parts`: what bends, by its name and its row of the boards table.
    """

    span_mm: float
    even_n: float
    own_n: float
    points_n: tuple[tuple[float, float], ...]
    parts: tuple[tuple[str, str, composite.Component], ...]

    @property
    def inside_n(self) -> float:
        """All single things on its span."""
        return sum(force for _, force in self.points_n)

    @property
    def bending(self) -> list[composite.Component]:
        """All that bends together."""
        return [part for _, _, part in self.parts]


def front_strip(piece: Ledgered, places_mm: tuple[float, ...], under: Stiffener | None) -> Strip:
    """Return the front half of the board between what holds its ends, with its widest span.

    Args:
        piece: the board.
        places_mm: where its front is held.
        under: what stiffens its edge; None where nothing does.
    """
    span = beam.widest_mm(piece.length_mm, places_mm)
    loads, outs = contents_of(piece)
    use = data.uses()[piece.use].factor
    own, share = board_n(piece) / 2, span / piece.length_mm
    even = sum(load.total_n for load in loads if load.end_mm > load.start_mm) * use / 2 + own
    points = tuple(
        (load.start_mm, load.total_n * use * min(out / piece.depth_mm, 1.0))
        for load, out in zip(loads, outs, strict=True)
        if load.end_mm <= load.start_mm
    )
    row = data.boards()[piece.board]
    parts = [
        (
            "board",
            piece.board,
            composite.Component(row.e_mpa, piece.depth_mm / 2, piece.thickness_mm, row.k_def),
        )
    ]
    if under is not None:
        parts.append((under.name, under.board, under.part))
    return Strip(span, even * share, own * share, points, tuple(parts))


def front_checks(piece: Ledgered, strip: Strip, unknown: tuple[str, ...]) -> list[Check]:
    """Bending of the front, pushed in mid span, and its sag over the years."""
    use = data.uses()[piece.use]
    sums = _front(strip)
    strength.write_rigidity(sums, strip.parts, creep=True)
    sums.given("f", use.factor, "ratio", "use factor on contents, left out of a sag")
    sums.given("G", strip.own_n, "force", "own weight of it")
    sums.then("w_1", "(w − G) / f + G", "force", "without that factor")
    sums.then("w_∞", "(5 w_1 l³ / 384 + P l³ / 48 f) / K'", "fine", "sag over the years")
    strength.write_sag_limit(sums)
    sags = make(
        "front.sag",
        part="board",
        case="loaded, years",
        unknown=unknown,
        demand=sums.quantity("w_∞"),
        capacity=sums.quantity("w_max"),
        template="Over the years the free front edge sags {demand}; the limit for {span} is "
        "{capacity}.",
        parts={"span": Quantity(strip.span_mm, "length")},
        equations=sums.equations,
    )
    return [_front_bending(piece, strip, unknown), sags]


def _front(strip: Strip) -> Calculation:
    """Return what loads the front, w and P, and its span l."""
    sums = Calculation()
    sums.given("w", strip.even_n, "force", "half of what lies on it evenly, along the front")
    sums.given("P", strip.inside_n, "force", "of single things what reaches the front")
    sums.given("l", strip.span_mm, "length", "between what holds the front")
    return sums


def _front_bending(piece: Ledgered, strip: Strip, unknown: tuple[str, ...]) -> Check:
    """Check the part of the front that is bent most for its wood, for years or pushed."""
    cases = (
        (0.0, data.house("duration_years"), "loaded, for years"),
        (push_of(piece).n, data.house("duration_minutes"), "loaded, and pushed on the front edge"),
    )
    every = [
        (_bent(strip, n, push, duration, case), n, case)
        for push, duration, case in cases
        for n in range(len(strip.parts))
    ]
    sums, n, case = max(every, key=lambda each: each[0]["σ"] / each[0]["σ'"])
    name, key, _ = strip.parts[n]
    return make(
        "front.bending",
        part="board",
        case=case,
        unknown=unknown,
        demand=sums.quantity("σ"),
        capacity=sums.quantity("σ'"),
        template="Along its front edge the {what} uses {used} of the bending strength of {wood}.",
        parts={"what": name, "wood": data.boards()[key].name},
        equations=sums.equations,
    )


def _bent(strip: Strip, n: int, push_n: float, duration: float, case: str) -> Calculation:
    """Work out what one part of the front is bent with, σ and σ'."""
    sums = _front(strip)
    sums.given("F", push_n, "force", "push on the front edge")
    moment = sums.then("M", "w l / 8 + (P + F) l / 4", "moment", case)
    return Calculation(sums, strength.shared_sum(strip.parts, n, moment, duration, case))


def leg_check(piece: Bench, load_n: float, unknown: tuple[str, ...]) -> Check:
    """Return a leg as a column hinged at both ends (Euler)."""
    row, sums = data.boards()["pine_white"], Calculation()
    sums.given("F", load_n, "force", "what the hardest-pressed leg carries")
    sums.given("l", max(piece.top_mm - piece.thickness_mm, 1.0), "length", "length of the leg")
    sums.given("E", row.e_mpa, "stress", compose("stiffness of {row}", row=row.name))
    sums.given("b", piece.leg_mm, "fine", "its thickness")
    sums.then("I", "b⁴ / 12", "inertia")
    strength.write_column(sums)
    return make(
        "leg.buckling",
        part="leg",
        case="loaded, and pushed on the front edge",
        unknown=unknown,
        demand=sums.quantity("F", "pull"),
        capacity=sums.quantity("F_max", "pull"),
        template="The hardest-pressed leg carries {demand}; at that height and thickness it can "
        "carry {capacity}.",
        equations=sums.equations,
    )


def total_n(piece: Any) -> float:
    """All that lies on a board, with its use factor and its own weight."""
    loads, _ = contents_of(piece)
    return sum(load.total_n for load in loads) * data.uses()[piece.use].factor + board_n(piece)
