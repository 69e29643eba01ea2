"""A bevelled cleat: what the wall's half must answer, whatever hangs on it."""

from collections.abc import Iterable
from math import cos, hypot, radians, tan
from typing import NamedTuple

from trade import data
from trade.check import Check, Quantity, Step, make
from trade.load.demand import Demand
from trade.mechanics.beam import widest_mm
from trade.mounts import strips
from trade.mounts.base import Shape

LIFT_MM = 3.0  # common practice, no source: room above the bevel's rise to lift it on
SCREW_PLACES = (0.7, 0.3)  # of the cleat's height, two screws on each stud


class Bevel(NamedTuple):
    """A cleat's half on the wall and what hangs on it.

    `wood`: a row of the boards table; `thick_mm`, `high_mm`: its size; `degrees`: of its top edge from level; `lever_mm`: from
    what the piece presses on at its foot up to the bevel; `length_mm` of the cleat and `supports_mm` along it.
    """

    wood: str
    thick_mm: float
    high_mm: float
    degrees: float
    lever_mm: float
    length_mm: float
    supports_mm: tuple[float, ...]

    @property
    def slope(self) -> float:
        """Tan b."""
        return tan(radians(self.degrees))

    @property
    def rise_mm(self) -> float:
        """How far up the bevel goes over the cleat's thickness."""
        return self.thick_mm * self.slope

    def at_cleat(self, case: Demand) -> Demand:
        """A load case of the piece as what the wall's half must answer, about its own lower edge."""
        load = max(case.load_n, 0.0)
        turning = case.moment_nmm + load * self.thick_mm / 2  # the piece hangs half a cleat further out than its bevel
        pull = max(turning / self.lever_mm, load * self.slope, 0.0)
        at = self.high_mm - self.rise_mm / 2
        return case._replace(load_n=load, moment_nmm=pull * at + load * self.thick_mm / 2, pull_n=pull)

    def shapes(self, edge_mm: float, top_mm: float) -> list[Shape]:
        """Both halves from the side: the wall's with its top at `edge_mm`, the piece's up to `top_mm`."""
        t, low = self.thick_mm, edge_mm - self.high_mm
        return [
            Shape("wood", ((0.0, low), (t, low), (t, edge_mm), (0.0, edge_mm - self.rise_mm))),
            Shape("board", ((0.0, edge_mm - self.rise_mm + 1), (t, edge_mm + 1), (t, top_mm), (0.0, top_mm))),
        ]


def seating(
    bevel: Bevel,
    weight: tuple[float, float],
    push: tuple[float, float],
    loads: Iterable[tuple[float, float]],
    unknown: tuple[str, ...],
) -> Check:
    """Whether it sits, in the worst case: the push on its front edge, and of what is in it only what makes it worse.

    Args:
        bevel: the cleat.
        weight: of the piece itself, N, and how far out from the cleat's face.
        push: the accidental force and how far out.
        loads: each thing's weight and how far out.
        unknown: what is not known of the loads.
    """
    half, h = bevel.thick_mm / 2, bevel.lever_mm
    down = weight[0] + push[0]
    turning = weight[0] * (weight[1] + half) + push[0] * (push[1] + half)
    for load, out in sorted(loads, key=lambda pair: -pair[1]):
        if down == 0 or out + half > turning / down:
            down, turning = down + load, turning + load * (out + half)
    z = turning / down if down else weight[1]
    sits = z / h <= bevel.slope * (1 + 1e-9)
    return make(
        "cleat.seating", part="cleat", case="a push on the front edge, and what makes it worse", unknown=unknown,
        demand=Quantity(z / h, "ratio"), capacity=Quantity(bevel.slope, "ratio"),
        template="Its weight hangs {z} out and the cleat is {h} above its foot: "
        + ("it sits in its bevel." if sits else "pushed at the front it climbs off the cleat. Lock it."),
        parts={"z": Quantity(z, "length"), "h": Quantity(h, "length")},
        steps=(
            Step("W", "weight, push and what makes it worse", Quantity(down, "force")),
            Step("z", "where all that hangs, from the bevel", Quantity(z, "length")),
            Step("h", "from what it presses on at its foot to the bevel", Quantity(h, "length")),
            Step("z / h", "what wants to climb", Quantity(z / h, "ratio")),
            Step("tan b", f"bevel of {bevel.degrees:.0f} degrees, no friction counted", Quantity(bevel.slope, "ratio")),
        ),
    )  # fmt: skip


def checks(bevel: Bevel, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]) -> list[Check]:
    """The wall's half itself: bent out between its screws, and pressed along its sharp edge.

    Args:
        bevel: the cleat.
        demands: at each stud, as `at_cleat` gives them.
        unknown: what is not known of the loads.
    """
    return [_bending(bevel, demands, unknown), _nib(bevel, demands, unknown)]


def _bending(bevel: Bevel, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]) -> Check:
    """Pulled out evenly between its screws, it bends flatwise."""
    row, span = data.boards()[bevel.wood], widest_mm(bevel.length_mm, bevel.supports_mm)
    where, apart = strips.bent_where(bevel.length_mm, bevel.supports_mm)

    def total(n: int) -> float:
        return sum(cases[min(n, len(cases) - 1)].pull_n for cases in demands.values())

    years, minutes = data.house("duration_years"), data.house("duration_minutes")
    pull, duration, case = max(
        ((total(0), years, "loaded, for years"), (total(1), minutes, "loaded, and pushed")), key=lambda c: c[0] / c[1]
    )
    line = pull / bevel.length_mm
    moment, section = line * span**2 / 8, bevel.high_mm * bevel.thick_mm**2 / 6
    allowed = row.bending_mpa(duration)
    return make(
        "cleat.bending", part="cleat", case=case, unknown=unknown,
        demand=Quantity(moment / section, "stress"), capacity=Quantity(allowed, "stress"),
        template=where + " the cleat is bent to {used} of what {wood} may take.",
        parts={"span": apart, "wood": row.name},
        steps=(
            Step("p", "pull along the cleat", Quantity(line, "line")),
            Step("l", "widest gap between screws, or twice the overhang", Quantity(span, "length")),
            Step("M", "p l² / 8", Quantity(moment, "moment")),
            Step("σ", "6 M / (height × thickness²)", Quantity(moment / section, "stress")),
            Step("σ'", row.bending_words, Quantity(allowed, "stress")),
        ),
    )  # fmt: skip


def _nib(bevel: Bevel, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]) -> Check:
    """The bevel presses across the grain of a sharp edge."""
    row = data.boards()[bevel.wood]
    force = sum(hypot(cases[0].load_n, cases[0].pull_n) for cases in demands.values())
    area = bevel.length_mm * bevel.thick_mm / cos(radians(bevel.degrees))
    allowed = row.bearing_mpa * data.house("duration_years")
    return make(
        "cleat.nib", part="cleat", case="loaded, for years", unknown=unknown,
        demand=Quantity(force / area, "stress"), capacity=Quantity(allowed, "stress"),
        template="Along its bevel the cleat is pressed to {used} of what {wood} may take.", parts={"wood": row.name},
        steps=(
            Step("N", "weight and pull on the bevel together", Quantity(force, "force")),
            Step("A", "length × thickness / cos b", Quantity(area, "area")),
            Step("σ", "N / A", Quantity(force / area, "stress")),
        ),
    )  # fmt: skip
