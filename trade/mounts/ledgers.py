"""A board on a ledger at the wall: what a ledger shelf and a bench share.

Ledgers only press: moments about the back one ask that what holds the front carries half of an even load or more. A long board
carries that half along its front strip to the side ledgers' front ends; a deep one is cut along yield lines at 45 degrees.
"""

from math import pi
from typing import Any, NamedTuple

from trade import data
from trade.check import Check, Quantity, Step, make
from trade.fixings.seat import Seat
from trade.load.demand import Demand
from trade.load.line import Contents, LineLoad, contents_of
from trade.load.shelf import board_n
from trade.mechanics import beam
from trade.mounts import strips
from trade.mounts.base import Shape, block, board_side
from trade.plan import Bench, LedgerShelf, Wall

NOUN = "screw place"
Ledgered = LedgerShelf | Bench
_PUSHED_BACK = 0.5  # a push half way back: half of it reaches the ledger (statics)


class Shares(NamedTuple):
    """What part of an even load each edge carries: the back, each side, and the front."""

    back: float
    side: float
    front: float


def shares(length_mm: float, depth_mm: float, sides: int, legs: bool) -> Shares:
    """Parts of an even load: by yield lines at 45 degrees, but to the front no less than statics asks, half of it.

    Args:
        length_mm: along the back.
        depth_mm: out from it.
        sides: ledgers on side walls, 0 to 2.
        legs: the front edge is held by legs: half the load, and side ledgers none.
    """
    if legs or not sides:
        return Shares(0.5, 0.0, 0.5) if legs else Shares(1.0, 0.0, 0.0)
    reach = min(depth_mm, length_mm / sides)  # where two yield lines meet before they reach the front
    side = max((reach * depth_mm - reach**2 / 2) / (length_mm * depth_mm), 0.5 / sides)
    return Shares(1 - sides * side, side, 0.0)


def ledger_load(piece: Ledgered, part: float) -> LineLoad:
    """What the ledger at the back carries along its screws.

    Args:
        piece: with two screws or more.
        part: of an even load; a thing at a place counts with its lever between back and front.
    """
    loads, outs = contents_of(piece)
    scaled = [
        load._replace(total_n=load.total_n * (part if load.end_mm > load.start_mm else max(1 - out / piece.depth_mm, 0.0)))
        for load, out in zip(loads, outs, strict=True)
    ]
    at = [piece.ledger_mm / 2] * len(outs)
    contents: Contents = (scaled, at)
    return LineLoad(piece, board_n(piece) * part, piece.ledger_mm / 2, contents=contents, push_share=_PUSHED_BACK)


def back_demands(piece: Ledgered, load: LineLoad) -> dict[int, tuple[Demand, ...]]:
    """Load cases of the ledger's screws: everything rests on its top, at half its thickness; a push lands on it at the worst."""
    half = piece.ledger_mm / 2
    found = {}
    for i, cases in load.demands().items():
        found[i] = tuple(case._replace(moment_nmm=max(case.load_n, 0.0) * half, load_n=max(case.load_n, 0.0)) for case in cases)
    return found


def seats(piece: Ledgered, wall: Wall) -> list[Seat]:
    """The ledger's screws at each place."""
    high = piece.ledger_high_mm
    return strips.on_studs(piece, wall, NOUN, piece.ledger, piece.ledger_mm, high, piece.top_mm - piece.thickness_mm - high)


def anchored(made: list[Seat]) -> tuple[str, ...]:
    """What else to do at a ledger on another wall, when anchors hold it as they do here."""
    if not any(seat.anchored for seat in made):
        return ()
    return ("Mark its holes through it, take it down, set its anchors as on this wall, then put it up.",)


def screws_front(piece: Ledgered) -> list[Shape]:
    """The ledger's screws, from the front."""
    low = piece.top_mm - piece.thickness_mm - piece.ledger_high_mm
    return strips.screws_front(piece, tuple(low + up for up in strips.rows(piece.ledger_high_mm)))


def side_shapes(piece: Ledgered) -> list[Shape]:
    """The board on its ledger, cut."""
    under = piece.top_mm - piece.thickness_mm
    return [board_side(piece), block("wood", 0.0, under - piece.ledger_high_mm, piece.ledger_mm, under)]


class Strip(NamedTuple):
    """The front of a board as a beam: half its depth, and a strip under its edge."""

    span_mm: float
    even_n: float
    points_n: tuple[tuple[float, float], ...]
    ei_nmm2: float
    section_mm3: float
    part: str


def front_strip(piece: Ledgered, places_mm: tuple[float, ...], under_mm: float, under_thick_mm: float) -> Strip:
    """The front half of the board between what holds its ends, with its widest span.

    Args:
        piece: the board.
        places_mm: where its front is held.
        under_mm: height of the strip under its edge.
        under_thick_mm: its thickness.
    """
    row = data.boards()[piece.board]
    span = beam.widest_mm(piece.length_mm, places_mm)
    loads, outs = contents_of(piece)
    use = data.uses()[piece.use].factor
    even = sum(load.total_n for load in loads if load.end_mm > load.start_mm) * use / 2 + board_n(piece) / 2
    points = tuple(
        (load.start_mm, load.total_n * use * min(out / piece.depth_mm, 1.0))
        for load, out in zip(loads, outs, strict=True)
        if load.end_mm <= load.start_mm
    )
    inertia = piece.depth_mm / 2 * piece.thickness_mm**3 / 12 + under_thick_mm * under_mm**3 / 12
    half = max(piece.thickness_mm, under_mm) / 2
    return Strip(span, even / piece.length_mm * span, points, row.e_mpa * inertia, inertia / half, "board")


def front_checks(piece: Ledgered, strip: Strip, unknown: tuple[str, ...]) -> list[Check]:
    """Bending of the front, pushed in mid span, and its sag over the years."""
    row, use, l = data.boards()[piece.board], data.uses()[piece.use], strip.span_mm  # noqa: E741
    inside = sum(force for _, force in strip.points_n)
    years, minutes = data.house("duration_years"), data.house("duration_minutes")
    lasting = strip.even_n * l / 8 + inside * l / 4
    pushed = lasting + use.push_n * l / 4
    moment, duration, case = max(
        ((lasting, years, "loaded, for years"), (pushed, minutes, "loaded, and pushed on the front edge")),
        key=lambda m: m[0] / m[1],
    )
    allowed = row.bending_mpa(duration)
    stress = moment / strip.section_mm3
    creep = 1 + row.k_def
    sag = (5 * strip.even_n * l**3 / 384 + inside * l**3 / 48) / strip.ei_nmm2 / use.factor * creep
    limit = l / data.house("sag_limit")
    given = (
        Step("w", "half of what lies on it evenly, along the front", Quantity(strip.even_n, "force")),
        Step("P", "of single things what reaches the front", Quantity(inside, "force")),
        Step("l", "between what holds the front", Quantity(l, "length")),
    )
    return [
        make(
            "front.bending",
            part="board",
            case=case,
            unknown=unknown,
            demand=Quantity(stress, "stress"),
            capacity=Quantity(allowed, "stress"),
            template="Along its front edge the board is bent to {used} of what {wood} may take.",
            parts={"wood": row.name},
            steps=(
                *given,
                Step("M", "w l/8 + (P + push) l/4", Quantity(moment, "moment")),
                Step("S", "of the front half and its strip, mm³", Quantity(strip.section_mm3, "ratio")),
                Step("σ", "M / S", Quantity(stress, "stress")),
            ),
        ),
        make(
            "front.sag",
            part="board",
            case="loaded, years",
            unknown=unknown,
            demand=Quantity(sag, "fine"),
            capacity=Quantity(limit, "fine"),
            template="Over the years the free front edge sags {demand}; the limit for {span} is {capacity}.",
            parts={"span": Quantity(l, "length")},
            steps=(
                *given,
                Step("k_def", "creep", Quantity(row.k_def, "ratio")),
                Step("w_∞", "(5 w l³/384 + P l³/48) (1 + k_def) / E I", Quantity(sag, "fine")),
                Step(f"l / {data.house('sag_limit'):.0f}", "limit", Quantity(limit, "fine")),
            ),
        ),
    ]


def leg_check(piece: Bench, load_n: float, unknown: tuple[str, ...]) -> Check:
    """A leg as a column hinged at both ends (Euler), over three."""
    row = data.boards()["pine_white"]
    tall = piece.top_mm - piece.thickness_mm
    inertia = piece.leg_mm**4 / 12
    buckles = pi**2 * row.e_mpa * inertia / max(tall, 1.0) ** 2
    return make(
        "leg.buckling", part="leg", case="loaded, and pushed on the front edge", unknown=unknown,
        demand=Quantity(load_n, "pull"), capacity=Quantity(buckles / 3, "pull"),
        template="The hardest-pressed leg carries {demand}; so tall and thin it may carry {capacity}.",
        steps=(
            Step("l", "length of the leg", Quantity(tall, "length")),
            Step("E", f"stiffness of {row.name}", Quantity(row.e_mpa, "stress")),
            Step("N_cr", "π² E I / l²", Quantity(buckles, "force")),
            Step("N", "N_cr / 3", Quantity(buckles / 3, "force")),
        ),
    )  # fmt: skip


def total_n(piece: Any) -> float:
    """All that lies on a board, with its use factor and its own weight."""
    loads, _ = contents_of(piece)
    return sum(load.total_n for load in loads) * data.uses()[piece.use].factor + board_n(piece)
