"""Whether what goes into the wood behind a wall is inside it, however far off that may be."""

from collections.abc import Sequence
from typing import Protocol

from trade.calculation import Calculation, Quantity
from trade.check import Check, make
from trade.language import compose
from trade.wall.backing import StudAt

_SLACK_MM = 0.1  # typed fractions and millimetres do not always meet


class Positioned(Protocol):
    """Something that goes into a stud."""

    @property
    def index(self) -> int:
        """Number of its support, from the left."""

    @property
    def part(self) -> str:
        """What its support is called."""

    @property
    def stud(self) -> StudAt:
        """What is known of the stud."""

    @property
    def edge_mm(self) -> float:
        """Edge distance that it needs."""

    @property
    def spare_mm(self) -> float:
        """How far off the stud may be before it loses that."""

    @property
    def in_stud(self) -> bool:
        """Whether its line meets the stud."""


def edge(supports: Sequence[Positioned]) -> Check:
    """Check that every screw or pin is in its stud, with edge distance, wherever that is."""

    def asked(support: Positioned) -> float:
        return (abs(support.stud.offset_mm) + support.stud.uncertainty_mm + support.edge_mm) / (
            support.stud.width_mm / 2
        )

    unknown = tuple(ask for support in supports for ask in support.stud.unknown)
    lost = [
        support
        for support in supports
        if abs(support.stud.offset_mm) + support.edge_mm > support.stud.width_mm / 2 + _SLACK_MM
    ]
    support = max(lost or supports, key=asked)
    sums = Calculation()
    across = support.stud.across is not None
    sums.given(
        "x",
        abs(support.stud.offset_mm),
        "fine",
        "from the middle of the wood" if across else "from the stud's centre",
    )
    unsure = sums.given(
        "u",
        support.stud.uncertainty_mm,
        "fine",
        "how far its ends may be off" if across else "how far the stud may be off",
    )
    sums.given("c", support.edge_mm, "fine", "edge distance it needs")
    demand = sums.then("e", "x + u + c", "fine", "needed to the side of the centre")
    sums.given(
        "b", support.stud.width_mm, "fine", "length of the wood" if across else "width of the stud"
    )
    half = sums.then("e_max", "b/2", "fine", "half of that")
    if not lost and demand > half:
        # too unsure a stud is no failure: it stands at the limit, and what to find out is said
        sums.then("e'", "min(e, e_max)", "fine", "no more: it may be nearer")
    if not support.in_stud:
        said = "The {part} misses the {wood} by {miss}: there is no wood behind it."
    elif lost:
        said = (
            "The {part} is held {x} from the middle of the {wood}; with the edge distance that "
            "needs, it is {demand} of {capacity}."
        )
    elif demand > half:
        said = "The {wood} behind the {part} may be off by {u}; only {spare} can be borne."
        loose = [each.part for each in supports if each.stud.uncertainty_mm > each.spare_mm]
        unknown += tuple(
            compose(
                "where exactly the {wood} behind the {part} is: probe for both of its edges.",
                wood=support.stud.wood,
                part=part,
            )
            for part in loose
        )
    else:
        said = (
            "The {part} needs {demand} of wood to the side of the middle of the {wood}, which "
            "gives {capacity}."
        )
    return make(
        "screw.edge",
        part=support.part,
        support=support.index,
        case="any",
        unknown=unknown,
        limit="fit" if support.in_stud or not lost else "strength",
        demand=sums.quantity("e'" if not lost and demand > half else "e"),
        capacity=sums.quantity("e_max"),
        template=said,
        parts={
            "part": support.part,
            "wood": support.stud.wood,
            "miss": Quantity(max(abs(support.stud.offset_mm) - half, 0.0), "length"),
            "u": Quantity(unsure, "fine"),
            "spare": Quantity(support.spare_mm, "fine"),
            "x": Quantity(abs(support.stud.offset_mm), "fine"),
        },
        equations=sums.equations,
    )
