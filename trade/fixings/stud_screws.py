"""Screws into timber studs: every check between the hardware and the wood.

The hardware knows where its screws are and what moment and load it brings; this module knows the
screws. The worst over seats and cases is what a check reports.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property

from trade import data
from trade.check import Check, Quantity, Step, make
from trade.fixings import wood
from trade.fixings.aim import edge
from trade.fixings.grip import Grip, alike, face_checks, grips, pull_steps, pulled
from trade.fixings.seat import Seat
from trade.load.demand import Demand
from trade.measure import many

_MODES: dict[wood.Mode, str] = {
    "I_m": "the stud gives way along the whole screw",
    "I_s": "the piece under the head gives way",
    "II": "the screw turns in both, unbent",
    "III_m": "it bends once, under the head",
    "III_s": "it bends once, in the stud",
    "IV": "it bends in both",
}


@dataclass(frozen=True)
class _Use:
    """One support in one load case, with what its screws may be asked for.

    Several checks print parts of one sum.
    """

    grip: Grip
    withdrawal_n: float
    lateral: wood.Lateral
    lateral_n: float

    @property
    def seat(self) -> Seat:
        return self.grip.seat

    @cached_property
    def pull_steps(self) -> tuple[Step, ...]:
        return pull_steps(self.grip)

    @cached_property
    def withdrawal_steps(self) -> tuple[Step, ...]:
        return _withdrawal_steps(self)

    @cached_property
    def shear_steps(self) -> tuple[Step, ...]:
        return _shear_steps(self)


def checks(
    seats: Iterable[Seat],
    demands: dict[int, tuple[Demand, ...]],
    lining: tuple[str, ...],
    loads: tuple[str, ...],
) -> list[Check]:
    """All checks of the screws of one piece.

    Seats whose screws miss the wood answer only where they are.

    Args:
        seats: one per support.
        demands: by the seat's index, the load cases.
        lining: what is not known of the lining, to be found out; whether a screw fits hangs on this
          alone.
        loads: what is not known of the loads.
    """
    seats = list(seats)
    found = [edge(seats)]
    hit = [seat for seat in seats if seat.in_stud]
    if not hit:
        return found
    found += [embedment(hit, lining), far_side(hit, lining)]
    unknown = lining + loads
    uses = [use for same in alike(hit) for use in _uses(same, demands)]
    found += face_checks([use.grip for use in uses], unknown)
    if in_wood := [use for use in uses if use.lateral_n > 0]:
        found.append(_shear(in_wood, unknown))
    held = [
        use
        for use in uses
        if use.grip.hold is not None and use.withdrawal_n > 0 and use.lateral_n > 0
    ]
    if held:
        found += [_withdrawal(held, unknown), _combined(held, unknown)]
        if held[0].seat.side.g is not None and held[0].seat.screw.kind != "rod":
            found.append(_pull_through(held, unknown))
    return found


def _uses(seats: list[Seat], demands: dict[int, tuple[Demand, ...]]) -> Iterable[_Use]:
    """What the screws of supports that are alike may be asked for, in the cases that can govern."""
    seat, reach = seats[0], seats[0].reach
    pull = wood.withdrawal_n_per_mm(seat.screw, seat.timber.g) * reach.thread_mm
    bearing = wood.bearing_length_mm(
        reach.penetration_mm, seat.screw.diameter_mm, seat.screw.tip_mm
    )
    fe = wood.bearing_strength_mpa(seat.timber.g, seat.screw.diameter_mm)
    side = wood.lateral(wood.dowel(seat.screw), seat.side, seat.gap_mm, fe, bearing)
    for grip in grips(seats, demands):
        yield _Use(grip, pull * grip.demand.duration, side, side.value_n * grip.demand.duration)


def embedment(seats: list[Seat], unknown: tuple[str, ...]) -> Check:
    """Whether every screw reaches far enough into its stud."""

    def have(seat: Seat) -> float:
        tip = (
            0.0 if seat.screw.kind == "wood" else seat.screw.tip_mm
        )  # of a lag the tip does not count
        return max(seat.reach.penetration_mm - tip, 1e-6)

    seat = min(seats, key=have)
    diameters = data.house(
        "min_penetration" if seat.screw.kind == "wood" else "min_penetration_lag"
    )
    need = diameters * seat.screw.diameter_mm
    return make(
        "screw.embedment",
        part=seat.part,
        support=seat.index,
        case="any",
        unknown=unknown,
        demand=Quantity(need, "fine"),
        capacity=Quantity(have(seat), "fine"),
        template="The screw must reach {demand} into the stud; it reaches {capacity} past "
        "{layers} of layers.",
        parts={"layers": Quantity(seat.layers_mm, "fine")},
        steps=(
            Step("L", "length of the screw", Quantity(seat.screw_mm, "length")),
            Step("t", "hardware and lining before the stud", Quantity(seat.layers_mm, "fine")),
            Step(
                "p",
                "L − t" if seat.screw.kind == "wood" else "L − t, less the tip",
                Quantity(have(seat), "fine"),
            ),
            Step(f"{diameters:.0f} D", "least penetration", Quantity(need, "fine")),
        ),
    )


def far_side(seats: list[Seat], unknown: tuple[str, ...]) -> Check:
    """Whether no screw comes out behind its stud."""
    seat = min(seats, key=lambda s: (s.stud.depth_mm + s.layers_mm) / s.screw_mm)
    room = seat.layers_mm + seat.stud.depth_mm
    if seat.stud.stud is None:
        unknown += seat.stud.unknown
    # a lining or a stud that nobody knows may leave more room than this: too long is then not
    # certain
    long = min(seat.screw_mm, room) if unknown else seat.screw_mm
    return make(
        "screw.far_side",
        part=seat.part,
        support=seat.index,
        case="any",
        unknown=unknown,
        demand=Quantity(long, "length"),
        capacity=Quantity(room, "length"),
        template="The screw is {demand} long; layers and stud together are {capacity} deep.",
        steps=(
            Step("t", "hardware and lining before the stud", Quantity(seat.layers_mm, "fine")),
            Step("d", "depth of the stud", Quantity(seat.stud.depth_mm, "length")),
            Step("t + d", "room for the screw", Quantity(room, "length")),
        ),
    )


def _withdrawal(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: pulled(u.grip).tension_n / u.withdrawal_n)
    seat, hold = use.seat, pulled(use.grip)
    return make(
        "screw.withdrawal",
        part=seat.part,
        support=seat.index,
        case=use.grip.demand.case,
        unknown=unknown,
        demand=Quantity(hold.tension_n, "pull"),
        capacity=Quantity(use.withdrawal_n, "pull"),
        template="The {part}'s hardest-pulled screw pulls with {demand}; the stud holds it up to "
        "{capacity}.",
        parts={"part": seat.part},
        steps=use.pull_steps + use.withdrawal_steps,
    )


def _withdrawal_steps(use: _Use) -> tuple[Step, ...]:
    seat = use.seat
    thread = seat.reach.thread_mm
    formula = "1800 G^1.5 D^0.75" if seat.screw.kind != "wood" else "2850 G² D"
    return (
        Step("G", f"specific gravity of {seat.timber.name}", Quantity(seat.timber.g, "ratio")),
        Step(
            "W",
            f"{formula} per length of thread",
            Quantity(wood.withdrawal_n_per_mm(seat.screw, seat.timber.g), "line"),
        ),
        Step("p_t", "thread in the stud, less layers and tip", Quantity(thread, "fine")),
        Step("C_D", "load duration", Quantity(use.grip.demand.duration, "ratio")),
        Step("W'", "W p_t C_D", Quantity(use.withdrawal_n, "force")),
    )


def _shear(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.grip.shear_n / u.lateral_n)
    seat = use.seat
    return make(
        "screw.shear",
        part=seat.part,
        support=seat.index,
        case=use.grip.demand.case,
        unknown=unknown,
        demand=Quantity(use.grip.shear_n, "pull"),
        capacity=Quantity(use.lateral_n, "pull"),
        template=f"Each screw of the {{part}} carries {{demand}} downwards; {seat.across} can "
        "carry {capacity}.",
        parts={"part": seat.part, "gap": Quantity(seat.gap_mm, "fine")},
        steps=use.shear_steps,
    )


def _shear_steps(use: _Use) -> tuple[Step, ...]:
    seat, side = use.seat, use.lateral
    dowel = wood.dowel(seat.screw)
    bearing = wood.bearing_length_mm(
        seat.reach.penetration_mm, seat.screw.diameter_mm, seat.screw.tip_mm
    )
    return (
        Step(
            "V",
            f"load on the support over {many(len(seat.heights_mm), 'screw')}",
            Quantity(use.grip.shear_n, "force"),
        ),
        Step("g", "gap: lining that bears nothing", Quantity(seat.gap_mm, "fine")),
        Step("D", "core of the thread", Quantity(dowel.diameter_mm, "fine")),
        Step("L_s", "thickness under the head", Quantity(seat.side.thickness_mm, "fine")),
        Step("L_m", "bearing length in the stud", Quantity(bearing, "fine")),
        Step(
            "F_es",
            f"bearing strength under the head{', across its grain' if seat.side.across else ''}",
            Quantity(seat.side.fe_mpa, "stress"),
        ),
        Step("F_em", "bearing strength of the stud", Quantity(_fe(seat), "stress")),
        Step("F_yb", "bending yield of the screw", Quantity(dowel.fyb_mpa, "stress")),
        Step(
            "R_d",
            f"reduction term{', K_θ = 1.25 across the grain' if seat.side.across else ''}",
            Quantity(side.reduction, "ratio"),
        ),
        *(
            Step(f"P_{mode} / R_d", _MODES[mode], Quantity(value, "force"))
            for mode, value in side.modes_n.items()
        ),
        Step("Z", f"the least, mode {side.mode}", Quantity(side.value_n, "force")),
        Step("Z'", "Z C_D", Quantity(use.lateral_n, "force")),
    )


def _fe(seat: Seat) -> float:
    return wood.bearing_strength_mpa(seat.timber.g, seat.screw.diameter_mm)


def _combined(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    together = [
        wood.combined_use(
            pulled(use.grip).tension_n, use.grip.shear_n, use.withdrawal_n, use.lateral_n
        )
        for use in uses
    ]
    used = max(together)
    use = uses[together.index(used)]
    seat, tension = use.seat, pulled(use.grip).tension_n
    resultant = (tension**2 + use.grip.shear_n**2) ** 0.5
    capacity = resultant / used if used else use.lateral_n
    return make(
        "screw.combined",
        part=seat.part,
        support=seat.index,
        case=use.grip.demand.case,
        unknown=unknown,
        demand=Quantity(resultant, "pull"),
        capacity=Quantity(capacity, "pull"),
        template="Pull and shear together put {demand} on the {part}'s top screw; at that slant "
        "it can take {capacity}.",
        parts={"part": seat.part},
        steps=(
            *use.pull_steps,
            *use.withdrawal_steps,
            *use.shear_steps,
            Step("R", "√(T_1² + V²)", Quantity(resultant, "force")),
            Step("Z'_α", "W' Z' / (W' cos²α + Z' sin²α)", Quantity(capacity, "force")),
        ),
    )


def _pull_through(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    def capacity(use: _Use) -> float:
        side = use.seat.side
        assert side.g is not None  # only wood sides get here
        return (
            wood.pull_through_n(use.seat.screw.head_mm, side.thickness_mm, side.g)
            * use.grip.demand.duration
        )

    use = max(uses, key=lambda u: pulled(u.grip).tension_n / capacity(u))
    seat = use.seat
    return make(
        "screw.pull_through",
        part=seat.part,
        support=seat.index,
        case=use.grip.demand.case,
        unknown=unknown,
        demand=Quantity(pulled(use.grip).tension_n, "pull"),
        capacity=Quantity(capacity(use), "pull"),
        template="The {part}'s hardest-pulled screw head is pulled with {demand}; the wood under "
        "it holds {capacity}.",
        parts={"part": seat.part},
        steps=(
            *use.pull_steps,
            Step("D_H", "width of the head", Quantity(seat.screw.head_mm, "fine")),
            Step("t", "wood under the head", Quantity(seat.side.thickness_mm, "fine")),
            Step(
                "W_H'",
                "690 π D_H G² t (at most 1725 π D_H² G²) × C_D",
                Quantity(capacity(use), "force"),
            ),
        ),
    )
