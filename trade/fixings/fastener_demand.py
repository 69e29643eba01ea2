"""How a support grips the wall in one load case.

What its screws are pulled with, and how hard its foot presses.
"""

from collections.abc import Iterable
from typing import NamedTuple

from trade import data
from trade.calculation import Calculation
from trade.check import Check, make
from trade.fixings.support import Support
from trade.language import compose, counted
from trade.load.demand import Demand
from trade.mechanics import contact


class FastenerDemand(NamedTuple):
    """One support in one load case.

    `pressed_mpa`: what the face is pressed with: what it may be pressed with for years, or more
    where only that answers the moment. `limit_nmm`: the moment that the former answers;
    `crush_nmm`: the one that crushes the face. `hold` is None where there is no face to press on.
    """

    support: Support
    demand: Demand
    moment_nmm: float
    hold: contact.PlateReaction | None
    pressed_mpa: float
    limit_nmm: float
    crush_nmm: float
    shear_n: float

    @property
    def top_mm(self) -> float:
        """The screw furthest from the pressed edge, above that edge."""
        return max(_from_pressed_edge(self.support, self.demand))


def fastener_demands(
    supports: list[Support], demands: dict[int, tuple[Demand, ...]]
) -> Iterable[FastenerDemand]:
    """Supports that are alike, in every load case that can govern any of them."""
    face = supports[0].face.bearing_mpa * supports[0].pressed_mm
    over = data.house("crushed_over_bearing")
    capacity = supports[0].capacity
    for support, demand in governing(
        [(each, case) for each in supports for case in demands[each.index]],
        capacity.lasting if capacity is not None else None,
    ):
        heights = _from_pressed_edge(support, demand)
        moment = round(abs(demand.moment_nmm), 3)  # so that mirrored supports are worked out once
        shear = abs(demand.load_n) / len(heights)
        pull = round(max(demand.pull_n, 0.0), 3)
        highest = max(heights)
        limit = contact.limit_moment(highest, face, pull)
        crush = contact.limit_moment(highest, over * face, pull)
        harder = 1.0
        if limit < moment and crush > limit:  # pressed harder, the block as deep as it can be
            harder = (1 + 1e-9) * ((moment - limit) / (crush - limit) * (over - 1) + 1)
        hold = contact.solve_contact(moment, heights, face * harder, pull)
        yield FastenerDemand(
            support, demand, moment, hold, support.face.bearing_mpa * harder, limit, crush, shear
        )


def alike(supports: list[Support]) -> list[list[Support]]:
    """Supports by what their screws or anchors are worth.

    Of those of one group only the hardest cases need a sum.
    """
    groups: list[tuple[tuple[object, ...], list[Support]]] = []
    for support in supports:
        key = (
            support.screw,
            support.screw_mm,
            support.side,
            support.heights_mm,
            support.height_mm,
            support.gap_mm,
            round(support.pressed_mm, 6),
            support.face,
            support.timber,
            support.across_grain,
            support.capacity and support.capacity.worth,
        )
        group = next((group for known, group in groups if known == key), None)
        if group is None:
            groups.append((key, [support]))
        else:
            group.append(support)
    return [group for _, group in groups]


def _from_pressed_edge(support: Support, demand: Demand) -> tuple[float, ...]:
    return (
        support.heights_mm
        if demand.moment_nmm >= 0
        else tuple(support.height_mm - y for y in support.heights_mm)
    )


def governing(
    cases: list[tuple[Support, Demand]], lasting: float | None = None
) -> list[tuple[Support, Demand]]:
    """Leave out every case that another exceeds in load and moment; hardest turned first.

    Both outright and over what each may be asked for that long: the duration factor, and of an
    anchor that creeps the share of its strength that it keeps for good. Screws carry downwards by
    the duration factor alone.

    Args:
        cases: what holds, alike in all of them, and what it must answer.
        lasting: that share, of anchors.
    """
    asked = [_asked(demand, lasting) for _, demand in cases]
    kept: list[int] = []
    for n in sorted(range(len(cases)), key=asked.__getitem__, reverse=True):
        mine = asked[n]
        for k in kept:
            more = asked[k]
            if (
                more[0] == mine[0]
                and more[2] >= mine[2]
                and more[3] >= mine[3]
                and more[4] >= mine[4]
                and more[5] >= mine[5]
                and more[6] >= mine[6]
            ):
                break  # it turns no less either: it came first
        else:
            kept.append(n)
    return [cases[n] for n in kept]


def _asked(
    demand: Demand, lasting: float | None
) -> tuple[bool, float, float, float, float, float, float]:
    """Which way a case turns, then what it asks for; more of each is harder."""
    _, duration, load, moment, pull = demand
    turn, down = abs(moment), abs(load)
    keeps = duration * (lasting if lasting is not None and duration < 1 else 1.0)
    outright = 0.0 if lasting is None else down
    return moment >= 0, turn, turn / keeps, outright, down / keeps, pull, pull / keeps


def pulled(fastener: FastenerDemand) -> contact.PlateReaction:
    """How the screws hold; only for grips that do."""
    assert fastener.hold is not None
    return fastener.hold


def face_checks(uses: list[FastenerDemand], unknown: tuple[str, ...]) -> list[Check]:
    """Check that the face under the hardware resists turning, and for years undented."""
    use = max(uses, key=lambda u: u.moment_nmm / max(u.limit_nmm, 1e-9))
    crushed = max(uses, key=lambda u: u.moment_nmm / max(u.crush_nmm, 1e-9))
    over = data.house("crushed_over_bearing")
    return [
        _on_face(
            "lining.crushing",
            crushed,
            crushed.crush_nmm,
            over * crushed.support.face.bearing_mpa,
            unknown,
        ),
        _on_face("lining.pressed", use, use.limit_nmm, use.support.face.bearing_mpa, unknown),
    ]


def _on_face(
    code: str, use: FastenerDemand, limit_nmm: float, stress_mpa: float, unknown: tuple[str, ...]
) -> Check:
    support, crushed, pull = use.support, code == "lining.crushing", use.demand.pull_n
    does, may = (
        ("would crush it", "is crushed at")
        if crushed
        else ("it answers undented for years", "may be pressed with for years")
    )
    sums = Calculation()
    sums.given(
        "σ", stress_mpa, "stress", compose("what {face} {may}", face=support.face.name, may=may)
    )
    sums.given("b", support.pressed_mm, "fine", "pressed width with something firm behind it")
    sums.given("y_1", use.top_mm, "fine", "highest pulling screw above the pressed edge")
    if pull > 0:
        sums.given("P", pull, "force", "pull straight out, counted in M")
    sums.then("M_max", "σ b y_1² / 2" + (" + P y_1" if pull > 0 else ""), "moment")
    sums.given("M", use.moment_nmm, "moment", "turning load on the support")
    return make(
        code,
        part=support.part,
        support=support.index,
        case=use.demand.case,
        unknown=unknown,
        demand=sums.quantity("M"),
        capacity=sums.quantity("M_max"),
        template="The lower edge of the {part} crushes the {face}: {used} of the turning load that "
        "{does}.",
        parts={"part": support.part, "face": support.face.name, "does": does},
        equations=sums.equations,
    )


def pull_sum(use: FastenerDemand) -> Calculation:
    """From the turning load to the pull in the screw pulled hardest, T_1."""
    support, hold, pull = use.support, pulled(use), use.demand.pull_n
    heights = _from_pressed_edge(support, use.demand)
    sums = Calculation()
    sums.given(
        "M",
        use.moment_nmm,
        "moment",
        compose("turning load about the pressed edge, {case}", case=use.demand.case),
    )
    if pull > 0:
        sums.given("P", pull, "force", "pull straight out, counted in M")
    if hold.block_mm == 0:
        _nothing_presses(sums, use, heights)
        return sums
    pulling = [y for y, tension in zip(heights, hold.tensions_n, strict=True) if tension > 0]
    sums.given(
        "σ",
        use.pressed_mpa,
        "stress",
        compose("what {face} is pressed with", face=support.face.name),
    )
    sums.given("b", support.pressed_mm, "fine", "pressed width with something firm behind it")
    words = "depth of the pressed block that balances all pulls"
    sums.given("a", hold.block_mm, "fine", words)
    sums.given("y_1", use.top_mm, "fine", "hardest-pulled screw above the pressed edge")
    sums.then("d_1", "y_1 − a/2", "fine", "its lever")
    sums.given(
        "S_d",
        sum((y - hold.block_mm / 2) ** 2 for y in pulling),
        "area",
        compose(
            "levers squared and summed, of {pulling} of {screws}",
            pulling=len(pulling),
            screws=counted(len(heights), "{n} screw", "{n} screws"),
        ),
    )
    turning = "(M − P a/2)" if pull > 0 else "M"
    sums.then("T_1", f"{turning} d_1 / S_d", "force", "pull of the hardest-pulled screw")
    return sums


def _nothing_presses(sums: Calculation, use: FastenerDemand, heights: tuple[float, ...]) -> None:
    """Write the pull where the plate lifts off everywhere, or where nothing turns it."""
    if use.demand.pull_n <= 0 or pulled(use).tension_n == 0:
        sums.given("T_1", pulled(use).tension_n, "force", "nothing turns it outward")
        return
    mean = sum(heights) / len(heights)
    squares = sum((y - mean) ** 2 for y in heights)
    sums.given("n", len(heights), "count", "screws that share it")
    if squares == 0:
        sums.then("T_1", "P / n", "force", "pull of each screw")
        return
    sums.given("y_m", mean, "fine", "their middle, about which it turns: nothing presses")
    sums.given("d_1", max(heights) - mean, "fine", "the highest above it")
    sums.given("S_d", squares, "area", "levers about it, squared and summed")
    sums.then("T_1", "P / n + (M − P y_m) d_1 / S_d", "force", "pull of the hardest-pulled screw")
