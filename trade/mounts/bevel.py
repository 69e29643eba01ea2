"""A bevelled cleat: what the wall's half must answer, whatever hangs on it."""

from collections.abc import Iterable
from itertools import pairwise
from math import cos, hypot, inf, radians, sqrt, tan
from typing import NamedTuple

from trade import data
from trade.check import Check, Quantity, Step, make
from trade.load.demand import Demand
from trade.load.shelf import torsion_form_mm3
from trade.mechanics.beam import widest_mm
from trade.mounts import strips
from trade.mounts.base import Shape

LIFT_MM = 3.0  # common practice, no source: room above the bevel's rise to lift it on
_SCREW_PLACES = {2: (0.7, 0.3), 1: (0.6,)}  # of the cleat's height, by how many at each place


class Bevel(NamedTuple):
    """A cleat's half on the wall and what hangs on it.

    `wood`: a row of the boards table; `thick_mm`, `high_mm`: its size; `degrees`: of its top edge
    from level; `lever_mm`: from what the piece presses on at its foot up to the bevel; `length_mm`
    of the cleat and `supports_mm` along it.
    """

    wood: str
    thick_mm: float
    high_mm: float
    degrees: float
    lever_mm: float
    length_mm: float
    supports_mm: tuple[float, ...]

    @property
    def free_mm(self) -> float:
        """How far it goes on beyond its last screws."""
        return self.length_mm - self.supports_mm[-1]

    @property
    def slope(self) -> float:
        """Tan b."""
        return tan(radians(self.degrees))

    @property
    def rise_mm(self) -> float:
        """How far up the bevel goes over the cleat's thickness."""
        return self.thick_mm * self.slope

    def at_cleat(self, case: Demand) -> Demand:
        """The piece's load case as what the wall's half must resist about its lower edge."""
        load = max(case.load_n, 0.0)
        turning = (
            case.moment_nmm + load * self.thick_mm / 2
        )  # the piece hangs half a cleat further out than its bevel
        pull = max(turning / self.lever_mm, load * self.slope, 0.0)
        at = self.high_mm - self.rise_mm / 2
        return case._replace(
            load_n=load, moment_nmm=pull * at + load * self.thick_mm / 2, pull_n=pull
        )

    def shapes(self, edge_mm: float, top_mm: float) -> list[Shape]:
        """Both halves from the side.

        The wall's with its top at `edge_mm`, the piece's up to `top_mm`.
        """
        t, low = self.thick_mm, edge_mm - self.high_mm
        return [
            Shape("wood", ((0.0, low), (t, low), (t, edge_mm), (0.0, edge_mm - self.rise_mm))),
            Shape(
                "board",
                ((0.0, edge_mm - self.rise_mm + 1), (t, edge_mm + 1), (t, top_mm), (0.0, top_mm)),
            ),
        ]


def seating(
    bevel: Bevel,
    weight: tuple[float, float],
    push: tuple[float, float],
    loads: Iterable[tuple[float, float]],
    unknown: tuple[str, ...],
) -> Check:
    """Whether it sits, in the worst case.

    The push on its front edge, and of what is in it only what makes it worse.

    Args:
        bevel: the cleat.
        weight: of the piece itself, N, and how far out from the cleat's face.
        push: the accidental force and how far out.
        loads: each thing's weight and how far out.
        unknown: what is not known of the loads.
    """
    h = bevel.lever_mm
    down, _, z = _worst(bevel, weight, push, loads)
    sits = z / h <= bevel.slope * (1 + 1e-9)
    return make(
        "cleat.seating",
        part="cleat",
        case="a push on the front edge, and what makes it worse",
        unknown=unknown,
        demand=Quantity(z / h, "ratio"),
        capacity=Quantity(bevel.slope, "ratio"),
        template="Its weight hangs {z} out and the cleat is {h} above its foot: "
        + (
            "it sits in its bevel."
            if sits
            else "pushed at the front it climbs off the cleat. Lock it."
        ),
        parts={"z": Quantity(z, "length"), "h": Quantity(h, "length")},
        steps=(
            Step("W", "weight, push and what makes it worse", Quantity(down, "force")),
            Step("z", "where all that hangs, from the bevel", Quantity(z, "length")),
            Step("h", "from what it presses on at its foot to the bevel", Quantity(h, "length")),
            Step("z / h", "what wants to climb", Quantity(z / h, "ratio")),
            Step(
                "tan b",
                f"bevel of {bevel.degrees:.0f} degrees, no friction counted",
                Quantity(bevel.slope, "ratio"),
            ),
        ),
    )


def screw_heights_mm(high_mm: float, each: int) -> tuple[float, ...]:
    """Where a cleat's screws go above its lower edge.

    Two on a stud, or one plug in a row of them.
    """
    return tuple(high_mm * share for share in _SCREW_PLACES[each])


def lock(
    bevel: Bevel,
    weight: tuple[float, float],
    push: tuple[float, float],
    loads: Iterable[tuple[float, float]],
    unknown: tuple[str, ...],
) -> Check:
    """What keeps it from climbing off, and from being lifted.

    Two screws through its back into the cleat.

    Pulled over with W z at its foot the bevel must push back W z / h, and on a slope of tan b that
    lifts with W z / (h tan b). Arguments as of `seating`.
    """
    down, turning, _ = _worst(bevel, weight, push, loads)
    climbs = max(turning / bevel.lever_mm / bevel.slope - down, 0.0)
    lifted = max(push[0] - weight[0], 0.0)
    held = data.house("lock_screws") * data.house("lock_screw_n") * data.house("duration_minutes")
    return make(
        "cleat.lock",
        part="lock",
        case="pushed on its front edge, or lifted",
        unknown=unknown,
        demand=Quantity(max(climbs, lifted), "force"),
        capacity=Quantity(held, "force"),
        template="Its lock keeps it down against {demand}; two screws through its back into the "
        "cleat hold {capacity}.",
        steps=(
            Step("W", "weight, push and what makes it worse", Quantity(down, "force")),
            Step(
                "V", "what the bevel lifts with: W z / (h tan b)", Quantity(climbs + down, "force")
            ),
            Step("V − W", "climbing", Quantity(climbs, "force")),
            Step("F", "the push, upwards, less its empty weight", Quantity(lifted, "force")),
            Step("n Z C_D", "two screws in shear", Quantity(held, "force")),
        ),
    )


def _worst(
    bevel: Bevel,
    weight: tuple[float, float],
    push: tuple[float, float],
    loads: Iterable[tuple[float, float]],
) -> tuple[float, float, float]:
    """Weight, push and what of the contents makes it worse.

    N, what it turns by about the bevel, and how far out it hangs.
    """
    half = bevel.thick_mm / 2
    down = weight[0] + push[0]
    turning = weight[0] * (weight[1] + half) + push[0] * (push[1] + half)
    for load, out in sorted(loads, key=lambda pair: -pair[1]):
        if down == 0 or out + half > turning / down:
            down, turning = down + load, turning + load * (out + half)
    return down, turning, turning / down if down else weight[1]


class Holder(NamedTuple):
    """What one movable holder pulls a cleat with, N.

    All of it at one place, for years, and with a push on it.
    """

    lasting_n: float
    pushed_n: float


def checks(
    bevel: Bevel,
    demands: dict[int, tuple[Demand, ...]],
    unknown: tuple[str, ...],
    holder: Holder | None = None,
) -> list[Check]:
    """The wall's half itself.

    Bent out and twisted between its screws, and pressed along its sharp edge.

    Args:
        bevel: the cleat.
        demands: at each stud, as `at_cleat` gives them.
        unknown: what is not known of the loads.
        holder: the hardest of the holders that move along it; None where one body hangs on all of
          it.
    """
    if holder is None:
        return [_under_a_body(bevel, demands, unknown), _nib(bevel, demands, unknown)]
    return [
        _bending(bevel, demands, unknown, holder),
        _nib(bevel, demands, unknown),
        _twist(bevel, holder, unknown),
    ]


def _under_a_body(
    bevel: Bevel, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]
) -> Check:
    """One stiff body presses its cleat as suits both best (lower bound).

    Near the screws, where it bends little.

    Over a length c about a screw it bends by T c / 8 and is pressed by N / c; c is where both use
    as much of what they may.
    """
    row, wide = data.boards()[bevel.wood], bevel.thick_mm / cos(radians(bevel.degrees))
    section = bevel.high_mm * bevel.thick_mm**2 / 6
    gaps = [
        b - a
        for a, b in pairwise(
            (-bevel.supports_mm[0], *bevel.supports_mm, bevel.length_mm + bevel.free_mm)
        )
    ]

    def pressed(i: int, case: Demand) -> tuple[float, float, float]:
        """How much it uses at one screw, over which length, and the bending there."""
        bent = section * row.bending_mpa(case.duration)
        crushed = wide * row.bearing_mpa * case.duration
        force = hypot(case.load_n, case.pull_n)
        best = sqrt(8 * bent * force / (case.pull_n * crushed)) if case.pull_n else inf
        long = max(min(best, gaps[i], gaps[i + 1]), 1.0)
        return (
            max(case.pull_n * long / 8 / bent, force / long / crushed),
            long,
            case.pull_n * long / 8,
        )

    places = [(pressed(i, case), i, case) for i, cases in demands.items() for case in cases]
    (used, long, moment), _, case = max(places, key=lambda each: each[0][0])
    bending, bearing = row.bending_mpa(case.duration), row.bearing_mpa * case.duration
    return make(
        "cleat.bending",
        part="cleat",
        case=case.case,
        unknown=unknown,
        demand=Quantity(used, "percent"),
        capacity=Quantity(1.0, "percent"),
        template="Around its screws the cleat uses {used} of the strength of {wood} in bending "
        "and bearing.",
        parts={"wood": row.name},
        steps=(
            Step("T", f"pull at one place, {case.case}", Quantity(case.pull_n, "force")),
            Step(
                "N",
                "load and pull on the bevel together",
                Quantity(hypot(case.load_n, case.pull_n), "force"),
            ),
            Step(
                "c",
                "length about the screws that it presses: both use as much; at most a gap",
                Quantity(long, "fine"),
            ),
            Step("M", "T c / 8", Quantity(moment, "moment")),
            Step("σ", "6 M / (height × thickness²)", Quantity(moment / section, "stress")),
            Step("σ'", row.bending_words, Quantity(bending, "stress")),
            Step(
                "p",
                "N / (c × thickness / cos b)",
                Quantity(hypot(case.load_n, case.pull_n) / long / wide, "stress"),
            ),
            Step("p'", "what its bevel may be pressed with × C_D", Quantity(bearing, "stress")),
            Step("u", "the greater of σ / σ' and p / p'", Quantity(used, "percent")),
        ),
    )


def _bending(
    bevel: Bevel, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...], holder: Holder
) -> Check:
    """Check flatwise bending from an even pull-out and from a holder at mid-gap or at an end."""
    row, span = data.boards()[bevel.wood], widest_mm(bevel.length_mm, bevel.supports_mm)
    where, apart = strips.bent_where(bevel.length_mm, bevel.supports_mm)
    years, minutes = data.house("duration_years"), data.house("duration_minutes")
    even = max(sum(cases[0].pull_n for cases in demands.values()) - holder.lasting_n, 0.0)
    beyond = max(bevel.supports_mm[0], bevel.free_mm) - data.house("holder_half_mm")
    lever = max(*(b - a for a, b in pairwise(bevel.supports_mm)), 4 * beyond) / 4
    moment, duration, case, alone = max(
        (
            (even / bevel.length_mm * span**2 / 8 + one * lever, long, name, one)
            for one, long, name in (
                (holder.lasting_n, years, "loaded, for years"),
                (holder.pushed_n, minutes, "loaded, and pushed"),
            )
        ),
        key=lambda c: c[0] / c[1],
    )
    section, allowed = bevel.high_mm * bevel.thick_mm**2 / 6, row.bending_mpa(duration)
    return make(
        "cleat.bending",
        part="cleat",
        case=case,
        unknown=unknown,
        demand=Quantity(moment / section, "stress"),
        capacity=Quantity(allowed, "stress"),
        template=where + " the cleat uses {used} of the bending strength of {wood}.",
        parts={"span": apart, "wood": row.name},
        steps=(
            Step("p", "pull along the cleat", Quantity(even / bevel.length_mm, "line")),
            Step("l", "widest gap between screws, or twice the overhang", Quantity(span, "length")),
            Step("P", "pull of one holder", Quantity(alone, "force")),
            Step(
                "e",
                "a quarter of the widest gap, or the overhang less half a holder",
                Quantity(lever, "length"),
            ),
            Step("M", "p l² / 8 + P e", Quantity(moment, "moment")),
            Step("σ", "6 M / (height × thickness²)", Quantity(moment / section, "stress")),
            Step("σ'", row.bending_words, Quantity(allowed, "stress")),
        ),
    )


def _twist(bevel: Bevel, holder: Holder, unknown: tuple[str, ...]) -> Check:
    """A holder pulls at the bevel, above the middle of the cleat.

    Half of that twists it to either side, all of it at an end.
    """
    row, over = data.boards()[bevel.wood], max(bevel.supports_mm[0], bevel.free_mm) > bevel.high_mm
    arm = max(bevel.high_mm / 2 - bevel.rise_mm / 2, 0.0)
    years, minutes = data.house("duration_years"), data.house("duration_minutes")
    cases = (
        (holder.lasting_n, years, "loaded, for years"),
        (holder.pushed_n, minutes, "loaded, and pushed"),
    )
    pull, duration, case = max(cases, key=lambda c: c[0] / c[1])
    torsion = pull * arm * (1.0 if over else 0.5)
    stress = torsion / torsion_form_mm3(bevel.high_mm, bevel.thick_mm)
    return make(
        "cleat.twist",
        part="cleat",
        case=case,
        unknown=unknown,
        demand=Quantity(stress, "stress"),
        capacity=Quantity(row.shearing_mpa(duration), "stress"),
        template="A holder between its screws uses {used} of the twisting strength of {wood}.",
        parts={"wood": row.name},
        steps=(
            Step("P", "pull of one holder", Quantity(pull, "force")),
            Step("a", "from the middle of the cleat up to its bevel", Quantity(arm, "fine")),
            Step(
                "T",
                "P a beyond the last screws" if over else "P a / 2 to either side",
                Quantity(torsion, "moment"),
            ),
            Step("τ", "T over h t² (1 − 0.63 t/h) / 3", Quantity(stress, "stress")),
        ),
    )


def _nib(bevel: Bevel, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]) -> Check:
    """The bevel presses across the grain of a sharp edge."""
    row = data.boards()[bevel.wood]
    force = sum(hypot(cases[0].load_n, cases[0].pull_n) for cases in demands.values())
    area = bevel.length_mm * bevel.thick_mm / cos(radians(bevel.degrees))
    allowed = row.bearing_mpa * data.house("duration_years")
    return make(
        "cleat.nib",
        part="cleat",
        case="loaded, for years",
        unknown=unknown,
        demand=Quantity(force / area, "stress"),
        capacity=Quantity(allowed, "stress"),
        template="Along its bevel the cleat uses {used} of the bearing strength of {wood}.",
        parts={"wood": row.name},
        steps=(
            Step("N", "weight and pull on the bevel together", Quantity(force, "force")),
            Step("A", "length × thickness / cos b", Quantity(area, "area")),
            Step("σ", "N / A", Quantity(force / area, "stress")),
        ),
    )
