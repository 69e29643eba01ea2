"""A board whose ends are carried at the walls beside: on ledgers there, or on another's front."""

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, make
from trade.fixings import driving
from trade.fixings.support import Support
from trade.language import compose
from trade.load.push import push_of
from trade.mounts import ledgers, side_ledgers, strength, strips
from trade.mounts.base import Ask, Extra
from trade.mounts.hanging import Do, do
from trade.mounts.work import Detail
from trade.plan.facing import SIDES as BOTH
from trade.plan.facing import beside
from trade.plan.flatness import Side
from trade.plan.model import Wall
from trade.plan.pieces.shelves import Sided
from trade.wall.backing import backing

_JOINT_SCREW = "wood_8"  # house rule: the screws of a strip under a joint
LEDGERS = (
    Ask("ledger", "Ledgers of", "choice", data.woods),
    Ask("ledger_mm", "Ledgers thick", "length"),
    Ask("ledger_high_mm", "Ledgers high", "length"),
)
SIDES = (
    Ask("left_side", "A ledger on the side wall, left", "flag"),
    Ask("right_side", "A ledger on the side wall, right", "flag"),
    Ask("side_screws", "Screws in each of those", "count"),
    Ask(
        "left_screws_mm",
        "Those in the left side wall, from the corner",
        "places",
        optional=True,
        help="With commas. Empty: in the studs that it reaches.",
    ),
    Ask(
        "right_screws_mm",
        "Those in the right side wall, from the corner",
        "places",
        optional=True,
        help="With commas. Empty: in the studs that it reaches.",
    ),
    Ask("sides_sure", "They are known to sit in studs", "flag"),
    Ask("left_on", "Its left end rests on", "piece", none="nothing but its own"),
    Ask("right_on", "Its right end rests on", "piece", none="nothing but its own"),
    Ask("joint_screws", "Screws in each half of the strip under that joint", "count"),
    Ask(
        "side_anchor",
        "Where there is no stud, those are held by",
        "choice",
        data.anchors,
        none="the same as on this wall",
    ),
)


def front_share(count: int) -> float:
    """Return what part of a load on a side ledger's front end its front screw takes.

    All evenly along it.

    1/n + e c / sum of c^2.
    """
    if count < 2:
        return 1.0
    places = [(n + 0.5) / count - 0.5 for n in range(count)]
    return 1 / count + 0.5 * places[-1] / sum(c * c for c in places)


def nothing(ledger: side_ledgers.SideLedger) -> Check:
    """Return the refusal of a ledger that nothing holds on a wall that is known."""
    return make(
        "ledger.nothing",
        part=ledger.name,
        case="any",
        demand=Quantity(1, "count"),
        capacity=Quantity(0.5, "count"),
        template="On “{wall}” nothing holds the {ledger}: no stud within its reach, and no anchor.",
        parts={"wall": ledger.neighbour.name, "ledger": ledger.name},
    )


def round_the_edge(side: Side) -> Check:
    """Return the refusal of a ledger at an end where the wall goes away from the room."""
    return make(
        "ledger.nothing",
        part=compose("{side} ledger", side=side),
        case="any",
        demand=Quantity(1, "count"),
        capacity=Quantity(0.5, "count"),
        template="At its {side} end the wall goes round a corner, away from the room: nothing "
        "there holds a ledger.",
        parts={"side": side},
    )


def round_corners(
    piece: Sided,
    known: list[side_ledgers.SideLedger],
    there: dict[Side, ledgers.SideLoad],
    loads: tuple[str, ...],
) -> list[Check]:
    """Check the side ledgers on walls that are known, each with what lands on it."""
    found: list[Check] = []
    held = [each for each in known if each.held]
    push = side_ledgers.Pressed(push_of(piece).n, piece.depth_mm)
    for ledger in held:
        load = there[ledger.side]
        lasting = side_ledgers.Pressed(load.force_n, load.at_mm, load.half_n)
        found += side_ledgers.checks(piece, ledger, lasting, push, loads)
    return found


def gaps(piece: Sided, wall: Wall) -> list[Check]:
    """Check that the board's ends lie on ledgers on walls that are known."""
    ends: tuple[tuple[Side, float], ...] = (
        ("left", piece.left_mm),
        ("right", wall.width_mm - piece.left_mm - piece.length_mm),
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
        for side, gap in ends
        if piece.end(side) == "ledger" and beside(wall, side) is not None
    ]


def unknown(
    piece: Sided,
    wall: Wall,
    like: Support,
    there: dict[Side, ledgers.SideLoad],
    loads: tuple[str, ...],
) -> Check:
    """Check a side ledger on a wall of which nothing is known, as if it held like this one."""
    behind, push = backing(wall), push_of(piece).n
    worst = max(
        (there[side] for side in BOTH if piece.end(side) == "ledger"), key=lambda x: x.force_n
    )
    count, even = max(piece.side_screws, 1), worst.force_n
    most, (years, minutes) = front_share(count), strips.durations(like)
    pushed, duration, case = max(
        ((0.0, years, "loaded, for years"), (push, minutes, "loaded, and pushed at its front end")),
        key=lambda d: (even + d[0]) / d[1],
    )
    sums = Calculation()
    sums.given("Q", worst.even_n, "force", "what lies evenly, and the board: its part, in front")
    sums.given("S", worst.points_n, "force", "things at a place: its part")
    sums.given("F", pushed, "force", "push there")
    sums.given("n", count, "count", "its screws")
    sums.given("k", most, "ratio", "part that its front screw takes: 1/n + e c / Σ c²")
    sums.then("V", "k (Q + S + F)", "force", "load of that screw")
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


def details(piece: Sided) -> dict[str, Detail]:
    """Return what is done to what carries its ends, by the names of those parts."""
    found = {}
    if piece.ends("ledger"):
        found["side ledger"] = Detail(
            wall="against the back ledger, level with it",
            late="from the back ledger's face to the front of the board",
        )
    if piece.ends("shelf"):
        found["joint strip"] = Detail(wall="under both boards, along the joint")
    return found


def joint_screw(piece: Sided) -> tuple[str, float]:
    """Return the screw of a strip under a joint, and how long it is: short of the board's face."""
    key = data.screw_beside(_JOINT_SCREW, piece.screw)
    room = piece.ledger_mm + piece.thickness_mm - data.house("panel_screw_short_mm")
    sold = [each for each in driving.lengths_mm(data.screws()[key]) if each <= room]
    return key, max(sold, default=min(driving.lengths_mm(data.screws()[key])))


def joint_extras(piece: Sided) -> list[Extra]:
    """Return the screws of the strips under its joints, in both halves."""
    many = piece.ends("shelf") * 2 * piece.joint_screws
    key, long = joint_screw(piece)
    return [Extra("Under the joint", many, key, long)] if many else []


def joints(
    piece: Sided, there: dict[Side, ledgers.SideLoad], loads: tuple[str, ...]
) -> list[Check]:
    """Check the screws of the strip under a joint, which its load prises out of the other board.

    The strip lies flat, half under each board, its screws in the middle of their half: what rests
    in the middle of the one half has three times their lever about the inner edge of the other.
    """
    if not piece.ends("shelf"):
        return []
    worst = max((there[side].force_n for side in BOTH if piece.end(side) == "shelf"), default=0.0)
    force, duration, case = strength.lasting_or_pushed(worst, worst + push_of(piece).n)
    key, long = joint_screw(piece)
    screw, row, sums = data.screws()[key], data.boards()[piece.board], Calculation()
    sums.given("R", force, "force", compose("what the end lays on the strip, {case}", case=case))
    sums.then("P", "3 R", "force", "prised out: 3/4 of the strip's width over 1/4 of it")
    sums.given("n", piece.joint_screws, "count", "screws in that half")
    sums.then("P_1", "P / n", "force", "pull of each")
    sums.given("L", long, "length", "length of a screw")
    sums.given("s", piece.ledger_mm, "fine", "thickness of the strip")
    sums.given("L_T", driving.thread_length_mm(screw, long), "fine", "its thread")
    sums.given("E", screw.tip_mm, "fine", "its tip, which does not count")
    sums.then("p", "max(min(L_T, L − s) − E, 0)", "fine", "thread in the board above")
    words = compose("specific gravity of {row}: the board above, taken as this one", row=row.name)
    strength.write_withdrawal(sums, screw, row, words, duration)
    return [
        make(
            "ledger.joint",
            part="joint strip",
            case=case,
            unknown=loads,
            demand=sums.quantity("P_1", "pull"),
            capacity=sums.quantity("W'", "pull"),
            template="Each screw of the strip under the joint is pulled with {demand}; its thread "
            "holds {capacity}.",
            equations=sums.equations,
        )
    ]


def steps(piece: Sided, wall: Wall, known: dict[Side, list[Support]]) -> list[Do]:
    """Return how its ends get what carries them: ledgers on other walls, a strip under a joint."""
    found = [
        do(
            f"side-{side}",
            compose("The ledger on the {side} wall", side=side),
            "One end on the level line of the back ledger, one screw; level it out to the front, "
            "then the others.",
            *(() if side in known else ("Find the stud there first: it is another wall.",)),
            *ledgers.anchored(known.get(side) or ledgers.supports(piece, wall)),
            beside=side if side in known else None,
        )
        for side in BOTH
        if piece.end(side) == "ledger"
    ]
    if piece.ends("shelf"):
        found.append(
            do(
                "joint",
                "The strip under the joint",
                "Flat, half of it under the front of the shelf that is up, screwed from below all "
                "along it; the other half carries this board and is screwed to it, too.",
            )
        )
    return found
