"""A ledger round the corner: on the wall beside, in what is known to be behind that one.

Where nothing is known of it, the kinds say so themselves.
"""

from collections.abc import Iterator
from typing import Any, NamedTuple

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation
from trade.check import Check, Message, make, severity
from trade.fixings import fastening
from trade.fixings.support import Support
from trade.language import compose
from trade.load.demand import Demand
from trade.memo import memoized
from trade.mounts import strips
from trade.plan.facing import Neighbour, beside
from trade.plan.flatness import Side
from trade.plan.model import CornerShelf, Wall
from trade.plan.pieces.shelves import Sided
from trade.wall.backing import backing
from trade.wall.searched import bare_stretches

RoundCorner = Sided | CornerShelf
YEARS, PUSHED = "loaded, for years", "loaded, and pushed at its front end"


class SideLedger(NamedTuple):
    """A ledger on the wall beside.

    `places_mm`: its screws from the corner; `supports`: each of them on that wall; `timber_only`:
    what anchors hold besides is not counted.
    """

    side: Side
    neighbour: Neighbour
    places_mm: tuple[float, ...]
    supports: list[Support]
    timber_only: bool = False

    @property
    def held(self) -> list[int]:
        """Which of its places count: something is behind them; by their number from the corner."""
        return [
            n
            for n, support in enumerate(self.supports)
            if support.holds and not (self.timber_only and support.anchored)
        ]

    @property
    def name(self) -> str:
        """What to call it."""
        return compose("{side} ledger", side=self.side)


class Pressed(NamedTuple):
    """What a side ledger carries: a force, N, and how far from the corner it lands, mm.

    `half_n`: all that lies on its half of the board, what goes to the back ledger included.
    """

    force_n: float
    at_mm: float
    half_n: float = 0.0


def beside_known(wall: Wall, side: Side, deep_mm: float) -> Neighbour | None:
    """Return the wall at an inside corner if it is known what stands behind it; else None.

    Known is masonry, where its studs are, or that it has none so far from the corner.
    """
    found = beside(wall, side)
    if found is None:
        return None
    ends = [found.along_mm(side, far) for far in (0.0, min(deep_mm, found.wall.width_mm))]
    none_there = any(
        low <= min(ends) and max(ends) <= high for low, high in bare_stretches(found.wall)
    )
    known = found.wall.build == "mass" or found.wall.uprights or none_there
    return found if known else None


def reach_mm(piece: RoundCorner) -> tuple[float, float]:
    """Where its screws may be, from the corner: past the first ledger, short of the front."""
    end = data.house("side_screw_end_mm")
    return piece.ledger_mm + end, piece.depth_mm - end


def studs_mm(piece: RoundCorner, side: Side, neighbour: Neighbour) -> list[float]:
    """Studs of the wall beside that a ledger there reaches, from the corner."""
    low, high = reach_mm(piece)
    found = (neighbour.along_mm(side, stud.centre_mm) for stud in neighbour.wall.uprights)
    return sorted(place for place in found if low <= place <= high)


def usual_mm(piece: RoundCorner, side: Side, neighbour: Neighbour, many: int) -> tuple[float, ...]:
    """Return where a ledger's screws go on the wall beside, from the corner.

    Into every stud that it reaches; where there are fewer than wanted and anchors hold between
    them, near its front and near the corner, too.
    """
    places = studs_mm(piece, side, neighbour)
    if anchor_beside(piece) is None and neighbour.wall.build != "mass":
        return tuple(places)
    low, high = reach_mm(piece)
    high = min(high, neighbour.wall.width_mm - data.house("side_screw_end_mm"))
    steps = max(many, 2) - 1
    even = (high - (high - low) * n / steps for n in range(steps + 1))
    apart = data.house("side_screws_apart_mm")
    for place in even:
        if len(places) >= many:
            break
        if high >= low and all(abs(place - other) >= apart for other in places):
            places.append(place)
    return tuple(sorted(places))


def anchor_beside(piece: RoundCorner) -> str | None:
    """Return what holds round the corner where there is no timber; as on this wall unless said."""
    return piece.side_anchor or piece.anchor


def other_anchors(piece: RoundCorner) -> Iterator[tuple[str, Message, Any]]:
    """Yield the piece with other anchors round its corners."""
    for key, row in data.anchors().items():
        if key != anchor_beside(piece):
            label = Message("Round the corner, hold it with: {name}", {"name": row.name})
            yield "side_anchor", label, replace(piece, side_anchor=key)


def on_wall(
    piece: RoundCorner,
    side: Side,
    neighbour: Neighbour,
    places_mm: tuple[float, ...],
    noun: str,
    first: int,
) -> SideLedger:
    """Put a ledger's screws on the wall beside.

    Args:
        piece: whose ledger it is.
        side: at which it meets that wall.
        neighbour: the wall.
        places_mm: from the corner.
        noun: what to call the ledger.
        first: number of its first support.
    """
    wall, high = neighbour.wall, piece.ledger_high_mm
    start = neighbour.along_mm(side, piece.depth_mm if side == "left" else 0.0)
    start = max(min(start, wall.width_mm - piece.depth_mm), 0.0)
    along = sorted(neighbour.along_mm(side, place) - start for place in places_mm)
    # as it lies there: a strip along that wall, from the corner to the front
    there: Any = replace(
        piece,
        left_mm=start,
        length_mm=piece.depth_mm,
        supports_mm=tuple(min(max(x, 0.0), piece.depth_mm) for x in along),
        things=(),
        anchor=anchor_beside(piece),
    )
    foot = piece.top_mm - piece.thickness_mm - high
    made = strips.on_studs(
        there, wall, noun, piece.ledger, piece.ledger_mm, high, foot, first=first
    )
    if side == "left":
        made.reverse()
    named = [
        replace(
            support,
            index=first + n,
            part=compose("{ledger}, screw {n} from the corner", ledger=noun, n=n + 1),
        )
        for n, support in enumerate(made)
    ]
    return SideLedger(side, neighbour, tuple(sorted(places_mm)), named)


@memoized(limit=500)
def of_shelf(piece: Sided, wall: Wall) -> list[SideLedger]:
    """Return a shelf's ledgers on walls beside it that are known, from the left."""
    found: list[SideLedger] = []
    asked: tuple[tuple[Side, tuple[float, ...]], ...] = (
        ("left", piece.left_screws_mm),
        ("right", piece.right_screws_mm),
    )
    for side, typed in asked:
        neighbour = beside_known(wall, side, piece.depth_mm)
        if piece.end(side) != "ledger" or neighbour is None:
            continue
        within = tuple(place for place in typed if place <= piece.depth_mm)
        places = within or usual_mm(piece, side, neighbour, piece.side_screws)
        first = len(piece.supports_mm) + sum(len(each.supports) for each in found)
        noun = compose("{side} ledger", side=side)
        found.append(on_wall(piece, side, neighbour, places, noun, first))
    return found


def parts_taken(ledger: SideLedger, at_mm: float) -> dict[int, float]:
    """Return what part of a force on a ledger each of its screws that holds takes.

    By their stiffness, in balance; one alone takes the lever about the back ledger.

    Args:
        ledger: with a screw that holds or more.
        at_mm: where the force lands, from the corner.
    """
    held = ledger.held
    if len(held) == 1:
        return {held[0]: at_mm / ledger.places_mm[held[0]]}
    parts = _parts(ledger)
    return {n: parts.even[n] + parts.turned[n] * (at_mm - parts.middle_mm) for n in held}


class _Parts(NamedTuple):
    """What each of two screws or more takes of a force on a ledger, by its number.

    `middle_mm`: where a force does not turn the ledger, from the corner; `even`: part of a force
    there; `turned`: what more of one that lands past it, for each mm, 1/mm.
    """

    middle_mm: float
    even: dict[int, float]
    turned: dict[int, float]


def _parts(ledger: SideLedger) -> _Parts:
    stiff = {n: ledger.supports[n].slip_stiffness_n_per_mm for n in ledger.held}
    total, places = sum(stiff.values()), ledger.places_mm
    middle = sum(k * places[n] for n, k in stiff.items()) / total
    turning = sum(k * (places[n] - middle) ** 2 for n, k in stiff.items())
    return _Parts(
        middle,
        {n: k / total for n, k in stiff.items()},
        {n: k * (places[n] - middle) / turning for n, k in stiff.items()},
    )


def checks(
    piece: RoundCorner,
    ledger: SideLedger,
    lasting: Pressed,
    push: Pressed,
    loads: tuple[str, ...],
) -> list[Check]:
    """Every check of a ledger's screws on the wall beside, by what that wall is known to be.

    Where anchors hold beside screws in studs, the better of both and of the studs alone: what is in
    balance with the load and nowhere too much holds, and an anchor more never harms.

    Args:
        piece: whose ledger it is.
        ledger: with a screw that holds or more.
        lasting: what it carries for years, the middle of that, and all on its half.
        push: the accidental push, at its worst.
        loads: what is not known of the loads.
    """
    ways = [ledger]
    studs = ledger._replace(timber_only=True)
    if studs.held and len(studs.held) < len(ledger.held):
        ways.append(studs)
    return min(
        (_counted(piece, way, lasting, push, loads) for way in ways),
        key=lambda found: max(severity(check) for check in found),
    )


def _counted(
    piece: RoundCorner,
    ledger: SideLedger,
    lasting: Pressed,
    push: Pressed,
    loads: tuple[str, ...],
) -> list[Check]:
    years, minutes = data.house("duration_years"), data.house("duration_minutes")
    always = {n: part * lasting.force_n for n, part in parts_taken(ledger, lasting.at_mm).items()}
    more = {n: part * push.force_n for n, part in parts_taken(ledger, push.at_mm).items()}
    out = piece.ledger_mm / 2
    demands: dict[int, tuple[Demand, ...]] = {}
    for n in ledger.held:
        v, p = abs(always[n]), max(abs(always[n] + more[n]), abs(always[n]))
        demands[ledger.supports[n].index] = (
            Demand(YEARS, years, v, v * out),
            Demand(PUSHED, minutes, p, p * out),
        )
    behind = backing(ledger.neighbour.wall)
    held = [ledger.supports[n] for n in ledger.held]
    return [
        _hardest(ledger, lasting, push, (*behind.unknown, *loads)),
        *fastening.checks(held, demands, behind.unknown, loads),
        *_tips(ledger, lasting, push, loads),
    ]


def _hardest(
    ledger: SideLedger, lasting: Pressed, push: Pressed, unknown: tuple[str, ...]
) -> Check:
    """Judge the screw of a ledger that is asked for most of what it can carry across."""
    every = [
        (_shear(ledger, n, lasting, pushed, duration, case), n, case)
        for n in ledger.held
        for pushed, duration, case in (
            (push._replace(force_n=0.0), 0, YEARS),
            (push, 1, PUSHED),
        )
    ]
    sums, n, case = max(every, key=lambda each: each[0]["V"] / max(each[0]["Z'"], 1e-9))
    return make(
        "ledger.side",
        part=ledger.name,
        support=ledger.supports[n].index,
        case=case,
        unknown=unknown,
        demand=sums.quantity("V", "pull"),
        capacity=sums.quantity("Z'", "pull"),
        template="On “{wall}” the {part} carries {demand}; it can carry {capacity}.",
        parts={"wall": ledger.neighbour.name, "part": ledger.supports[n].part},
        equations=sums.equations,
    )


def _shear(
    ledger: SideLedger, n: int, lasting: Pressed, push: Pressed, minutes: int, case: str
) -> Calculation:
    support, sums = ledger.supports[n], Calculation()
    sums.given("W", lasting.force_n, "force", "what this ledger carries, and the board")
    sums.given("x", lasting.at_mm, "length", "its middle, from the corner")
    sums.given("F", push.force_n, "force", compose("push, {case}", case=case))
    sums.given("x_F", push.at_mm, "length", "where that lands")
    if len(ledger.held) == 1:
        sums.given("d", ledger.places_mm[n], "length", "its only screw that holds")
        sums.then("V", "(W x + F x_F) / d", "force", "lever about the back ledger")
    else:
        parts, furthest = _parts(ledger), ledger.places_mm[ledger.held[-1]]
        sums.given("a", parts.even[n], "ratio", "its part of the stiffness")
        sums.given("x_0", parts.middle_mm, "length", "middle of the screws, by stiffness")
        sums.given("D", furthest, "length", "to the furthest of them")
        sums.given(
            "c",
            parts.turned[n] * furthest,
            "ratio",
            "its part of what turns them: k (d − x_0) D / Σ k (d − x_0)²",
        )
        sums.then(
            "V_1", "a (W + F) + c (W (x − x_0) + F (x_F − x_0)) / D", "force", "load of that screw"
        )
        sums.then("V", "max(V_1, −V_1)", "force", "up or down")
    sums.given("n", len(support.heights_mm), "count", "screws there, one above the other")
    sums.given("Z", strips.shear_n(support), "force", "shear of one")
    sums.given("C_D", strips.durations(support)[minutes], "ratio", "load duration, in wood")
    sums.then("Z'", "n Z C_D", "force", "they can carry")
    return sums


def _tips(
    ledger: SideLedger, lasting: Pressed, push: Pressed, unknown: tuple[str, ...]
) -> Iterator[Check]:
    """Yield whether the board tips over a ledger that turns about its only screw."""
    if len(ledger.held) != 1:
        return
    [only] = ledger.held
    sums = Calculation()
    sums.given("W", lasting.force_n, "force", "what this ledger carries, and the board")
    sums.given("x", lasting.at_mm, "length", "its middle, from the corner")
    sums.given("F", push.force_n, "force", "push on the front edge")
    sums.given("x_F", push.at_mm, "length", "where that lands")
    sums.given("H", lasting.half_n, "force", "all on its half of the board, the back included")
    sums.then("e", "(W x + F x_F) / (H + F)", "length", "the middle of that, from the wall")
    sums.given("d", ledger.places_mm[only], "length", "the only screw that holds")
    yield make(
        "ledger.tips",
        part=ledger.name,
        support=ledger.supports[only].index,
        case=PUSHED,
        unknown=unknown,
        demand=sums.quantity("e"),
        capacity=sums.quantity("d"),
        template="The {ledger} turns about its only screw, {capacity} from the corner; pushed on "
        "its front edge the load's middle is {demand} out.",
        parts={"ledger": ledger.name},
        equations=sums.equations,
    )
