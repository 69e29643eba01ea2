"""A rod inside a shelf: how it presses into the wood, and the wood that must stay around it."""

from collections.abc import Sequence
from typing import Any, NamedTuple

from trade import data
from trade.calculation import Calculation, Formula
from trade.check import Check, make
from trade.language import compose
from trade.load.demand import Demand
from trade.mounts import strength
from trade.mounts.base import AnySupport
from trade.mounts.hanging import Act, Do, do
from trade.plan.model import Shelf

STUD_CREEP = data.house("stud_creep")
BORE_SPARE_MM = data.house("rod_spare_mm")
_FRONT_MM = data.house("rod_front_mm")
_SHORTEST_MM = data.house("rod_shortest_mm")


PRESSED = Formula("max(4 V / L, 6 M / L²) / d")  # of the load and of the turning load, the harder


class Rod(NamedTuple):
    """The part of a rod that is in the shelf."""

    rod_mm: float
    length_mm: float


def every(
    supports: Sequence[Any], demands: dict[int, tuple[Demand, ...]]
) -> list[tuple[Any, Demand]]:
    """Each support with each of its load cases."""
    return [(support, demand) for support in supports for demand in demands[support.index]]


def bearing(
    piece: Shelf,
    rod: Rod,
    supports: Sequence[AnySupport],
    demands: dict[int, tuple[Demand, ...]],
    unknown: tuple[str, ...],
) -> Check:
    """Whether the shelf's wood takes what the rod presses with."""
    length = min(rod.length_mm, piece.depth_mm)
    wood_row = data.boards()[piece.board]

    def pressed(demand: Demand) -> Calculation:
        sums = Calculation()
        sums.given(
            "V", abs(demand.load_n), "force", compose("load on the rod, {case}", case=demand.case)
        )
        sums.given("M", abs(demand.moment_nmm), "moment", "turning load at the shelf's back")
        sums.given("L", length, "length", "rod in the shelf")
        sums.given("d", rod.rod_mm, "fine", "its diameter")
        sums.then("p", PRESSED.text, "stress", "pressed with")
        strength.write_bearing(sums, wood_row, demand.duration)
        return sums

    def asked(case: Demand) -> float:
        load, moment = abs(case.load_n), abs(case.moment_nmm)
        return PRESSED(V=load, M=moment, L=length, d=rod.rod_mm) / case.duration

    support, demand = max(every(supports, demands), key=lambda pair: asked(pair[1]))
    sums = pressed(demand)
    return make(
        "rod.bearing",
        part=support.part,
        support=support.index,
        case=demand.case,
        unknown=unknown,
        demand=sums.quantity("p"),
        capacity=sums.quantity("p'"),
        template="The {part} uses {used} of the bearing strength of the {wood} of the shelf.",
        parts={"part": support.part, "wood": wood_row.name},
        equations=sums.equations,
    )


def hole(depth_mm: float, rod: Rod) -> Check:
    """Whether the rod stops short of the front of wood so deep."""
    sums = Calculation()
    sums.given("L", rod.length_mm, "length", "rod in the wood")
    sums.given("c", data.house("rod_cover_mm"), "fine", "wood in front of it")
    sums.then("d_min", "L + c", "length", "so deep")
    sums.given("d", depth_mm, "length", "the wood is")
    return make(
        "rod.hole",
        part="board",
        case="any",
        demand=sums.quantity("d_min"),
        capacity=sums.quantity("d"),
        equations=sums.equations,
        template="The rod and {cover} of wood in front of it need {demand}; the shelf is "
        "{capacity} deep.",
        parts={"cover": sums.quantity("c")},
    )


def cover(piece: Shelf, rod: Rod) -> Check:
    """Whether there is wood enough above and below the rod."""
    sums = Calculation()
    sums.given("D", rod.rod_mm, "fine", "rod")
    sums.given("c", data.house("rod_cover_mm"), "fine", "wood above and below it")
    sums.then("t_min", "D + 2 c", "fine", "so thick")
    sums.given("t", piece.thickness_mm, "fine", "the shelf is")
    return make(
        "rod.cover",
        part="board",
        case="any",
        demand=sums.quantity("t_min"),
        capacity=sums.quantity("t"),
        equations=sums.equations,
        template="The rod with {cover} of wood above and below needs {demand}; the shelf is "
        "{capacity} thick.",
        parts={"cover": sums.quantity("c")},
    )


def carried_over(noun: str, on: str) -> tuple[Do, ...]:
    """How a piece gets its holes from where its rods really are.

    Measured first, bored then, and only then finished.

    Args:
        noun: what the piece is called.
        on: what stands out of the wall.
    """
    return (
        do(
            "measure",
            compose("Measure where the {on} really are", on=on),
            compose(
                "The middle of each, from where the {noun}'s left end goes. Say it here: cut "
                "list, template and marks follow.",
                noun=noun,
            ),
            compose(
                "Push a strip of card over the {on}, flat to the wall, with the line on it: "
                "that is the template.",
                on=on,
            ),
            acts=(Act("measure", on),),
        ),
        do(
            "bore",
            compose("Bore the {noun} from there", noun=noun),
            "With a guide, square to its back. Before its finish, not after.",
            acts=(Act("bore", noun),),
        ),
    )


def slid_on(stays: str, on: str) -> tuple[Do, ...]:
    """How a shelf goes onto what stands out of the wall, and stays there."""
    dry = do(
        "slide",
        compose("Slide the shelf on its {on}", on=on),
        "Dry first. Push evenly, a hand at each end; where it binds take it off and open its "
        "holes.",
        lifts=True,
        acts=(Act("put_on", "shelf"),),
    )
    if stays == "glued":
        hours = data.house("resin_hours")
        glued = do(
            "glue",
            "Glue it",
            "Off again, a dab of resin into each hole, and on for good. Wipe what comes out.",
            wait_hours=hours,
        )
        return dry, glued
    if stays == "locked":
        return dry, do(
            "lock",
            "Lock it",
            compose(
                "A short screw from below against one of the {on}: it stays, and still comes off.",
                on=on,
            ),
        )
    if stays == "set_screws":
        return dry, do(
            "lock",
            "Tighten the set screws",
            "From below, one on every rod. To take it off, loosen them and slide it off.",
        )
    return (dry,)


def rod_mm(depth_mm: float, wanted_mm: float) -> float:
    """Return how far a pin or dowel reaches into a shelf so that wood is left before it, mm."""
    return max(min(wanted_mm, depth_mm - _FRONT_MM), _SHORTEST_MM)
