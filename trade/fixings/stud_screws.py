"""A bracket or plate held to one stud by screws: every check between the hardware and the wood.

The hardware knows where its screws are and what moment and load it brings; this module knows the screws. One `Seat` per
support; the worst over seats and cases is what a check reports.
"""

from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import NamedTuple

from trade import data
from trade.check import Check, Quantity, Step, make
from trade.data import Framing, Screw
from trade.fixings import driving, wood
from trade.load.demand import Demand
from trade.mechanics import contact
from trade.wall.backing import Face, StudAt


@dataclass(frozen=True, kw_only=True)
class Seat:
    """One support on one stud.

    `heights_mm`: screws above the hardware's lower edge; `height_mm`, `width_mm`: of the pressed face; `gap_mm`: soft layers
    between hardware and stud; `stud`: what is known of the stud behind the screws' line.
    """

    index: int
    part: str
    heights_mm: tuple[float, ...]
    height_mm: float
    width_mm: float
    side: wood.Side
    screw: Screw
    screw_mm: float
    gap_mm: float
    face: Face
    timber: Framing
    stud: StudAt
    reach: driving.Reach = field(init=False)
    pressed_mm: float = field(init=False)

    def __post_init__(self) -> None:
        """Work out once where the screw's length goes, and the width that presses with the stud behind it.

        That width is taken at the worst place of the stud at which the screws still are in the wood; when the stud may be further
        off than that, nobody can tell, and the check of the edge says so.
        """
        object.__setattr__(self, "reach", driving.reach(self.screw, self.screw_mm, self.layers_mm))
        off = abs(self.stud.offset_mm) + min(self.stud.uncertainty_mm, self.spare_mm)
        half, stud = self.width_mm / 2, self.stud.width_mm / 2
        object.__setattr__(self, "pressed_mm", max(min(off + half, stud) - max(off - half, -stud), 0.0))

    @property
    def edge_mm(self) -> float:
        """Edge distance that the screw needs."""
        key = "edge_diameters_lag" if self.screw.kind == "lag" else "edge_diameters_wood"
        return data.house(key) * self.screw.diameter_mm

    @property
    def spare_mm(self) -> float:
        """How far off the stud may be before a screw loses its edge distance."""
        return max(self.stud.width_mm / 2 - abs(self.stud.offset_mm) - self.edge_mm, 0.0)

    @property
    def layers_mm(self) -> float:
        """All that the screw passes before the stud."""
        return self.side.thickness_mm + self.gap_mm

    @property
    def in_stud(self) -> bool:
        """Whether the screws' line meets the stud at all."""
        return abs(self.stud.offset_mm) < self.stud.width_mm / 2


_MODES: dict[wood.Mode, str] = {
    "I_m": "the stud gives way along the whole screw",
    "I_s": "the piece under the head gives way",
    "II": "the screw turns in both, unbent",
    "III_m": "it bends once, under the head",
    "III_s": "it bends once, in the stud",
    "IV": "it bends in both",
}


class _Use(NamedTuple):
    """One support in one load case, worked out."""

    seat: Seat
    demand: Demand
    moment_nmm: float
    hold: contact.Hold | None
    limit_nmm: float
    shear_n: float
    withdrawal_n: float
    lateral: wood.Lateral
    lateral_n: float


def checks(
    seats: Iterable[Seat], demands: dict[int, tuple[Demand, ...]], lining: tuple[str, ...], loads: tuple[str, ...]
) -> list[Check]:
    """All checks of the screws of one piece; seats whose screws miss the wood answer only where they are.

    Args:
        seats: one per support.
        demands: by the seat's index, the load cases.
        lining: what is not known of the lining, to be found out; whether a screw fits hangs on this alone.
        loads: what is not known of the loads.
    """
    seats = list(seats)
    found = [_edge(seats)]
    hit = [seat for seat in seats if seat.in_stud]
    if not hit:
        return found
    found += [_embedment(hit, lining), _far_side(hit, lining)]
    unknown = lining + loads
    uses = [use for seat in hit for use in _uses(seat, demands[seat.index])]
    found.append(_crushing(uses, unknown))
    if in_wood := [use for use in uses if use.lateral_n > 0]:
        found.append(_shear(in_wood, unknown))
    held = [use for use in uses if use.hold is not None and use.withdrawal_n > 0 and use.lateral_n > 0]
    if held:
        found += [_withdrawal(held, unknown), _combined(held, unknown)]
        if held[0].seat.side.g is not None:
            found.append(_pull_through(held, unknown))
    return found


def _uses(seat: Seat, demands: tuple[Demand, ...]) -> Iterable[_Use]:
    reach = seat.reach
    pull = wood.withdrawal_n_per_mm(seat.screw, seat.timber.g) * reach.thread_mm
    bearing = wood.bearing_length_mm(reach.penetration_mm, seat.screw.diameter_mm, seat.screw.tip_mm)
    fe = wood.bearing_strength_mpa(seat.timber.g, seat.screw.diameter_mm)
    side = wood.lateral(wood.dowel(seat.screw), seat.side, seat.gap_mm, fe, bearing)
    face = seat.face.bearing_mpa * seat.pressed_mm
    upside = tuple(seat.height_mm - y for y in seat.heights_mm)
    for demand in _governing(demands):
        heights = seat.heights_mm if demand.moment_nmm >= 0 else upside
        moment = round(abs(demand.moment_nmm), 3)  # so that mirrored supports are worked out once
        yield _Use(
            seat, demand, moment, contact.hold(moment, heights, face), contact.limit_moment(heights, face),
            abs(demand.load_n) / len(heights), pull * demand.duration, side, side.value_n * demand.duration,
        )  # fmt: skip


def _governing(demands: tuple[Demand, ...]) -> list[Demand]:
    """Leave out every case that another one exceeds in load and moment, for its duration and outright."""

    def exceeded(a: Demand, b: Demand) -> bool:
        return (
            (a.moment_nmm >= 0) == (b.moment_nmm >= 0)
            and abs(b.moment_nmm) >= abs(a.moment_nmm)
            and abs(b.moment_nmm) * a.duration >= abs(a.moment_nmm) * b.duration
            and abs(b.load_n) * a.duration >= abs(a.load_n) * b.duration
        )

    return [a for a in demands if not any(a is not b and exceeded(a, b) for b in demands)]


def _edge(seats: list[Seat]) -> Check:
    def asked(seat: Seat) -> float:
        return (abs(seat.stud.offset_mm) + seat.stud.uncertainty_mm + seat.edge_mm) / (seat.stud.width_mm / 2)

    unknown = tuple(ask for seat in seats for ask in seat.stud.unknown)
    lost = [seat for seat in seats if abs(seat.stud.offset_mm) + seat.edge_mm > seat.stud.width_mm / 2]
    seat = max(lost or seats, key=asked)
    half, unsure = seat.stud.width_mm / 2, seat.stud.uncertainty_mm
    demand = abs(seat.stud.offset_mm) + unsure + seat.edge_mm
    if not seat.in_stud:
        said = "The {part} misses the stud by {miss}: its screws would sit in the lining alone."
    elif lost:
        said = "The {part}'s screws stand {x} from the stud's centre; with the edge they need, that is {demand} of {capacity}."
    elif demand > half:
        said = "The stud behind the {part} may be off by {u}; its screws can bear {spare}."
        loose = [each.part for each in seats if each.stud.uncertainty_mm > each.spare_mm]
        unknown += tuple(f"where exactly the stud behind the {part} is: probe for both of its edges." for part in loose)
    else:
        said = "The {part}'s screws need {demand} of wood to the side of the stud's centre; the stud gives {capacity}."
    return make(
        "screw.edge", part=seat.part, support=seat.index, case="any", fit=True, unknown=unknown,
        # too unsure a stud is no failure: it stands at the limit, and what to find out is said
        demand=Quantity(demand if lost else min(demand, half), "fine"), capacity=Quantity(half, "fine"),
        template=said,
        parts={
            "part": seat.part, "miss": Quantity(max(abs(seat.stud.offset_mm) - half, 0.0), "length"),
            "u": Quantity(unsure, "fine"), "spare": Quantity(seat.spare_mm, "fine"),
            "x": Quantity(abs(seat.stud.offset_mm), "fine"),
        },
        steps=(
            Step("x", "screw from the stud's centre", Quantity(abs(seat.stud.offset_mm), "fine")),
            Step("u", "how far the stud may be off", Quantity(unsure, "fine")),
            Step("c", "edge distance the screw needs", Quantity(seat.edge_mm, "fine")),
            Step("x + u + c", "needed", Quantity(demand, "fine")),
            Step("b/2", "half the stud's width", Quantity(half, "fine")),
        ),
    )  # fmt: skip


def _embedment(seats: list[Seat], unknown: tuple[str, ...]) -> Check:
    def have(seat: Seat) -> float:
        return max(seat.reach.penetration_mm, 1e-6)

    seat = min(seats, key=lambda s: have(s) / s.screw.diameter_mm)
    need = data.house("min_penetration") * seat.screw.diameter_mm
    return make(
        "screw.embedment", part=seat.part, support=seat.index, case="any", fit=True, unknown=unknown,
        demand=Quantity(need, "fine"), capacity=Quantity(have(seat), "fine"),
        template="The screw must reach {demand} into the stud; it reaches {capacity} past {layers} of layers.",
        parts={"layers": Quantity(seat.layers_mm, "fine")},
        steps=(
            Step("L", "length of the screw", Quantity(seat.screw_mm, "length")),
            Step("t", "hardware and lining before the stud", Quantity(seat.layers_mm, "fine")),
            Step("p", "L − t", Quantity(have(seat), "fine")),
            Step("6 D", "least penetration", Quantity(need, "fine")),
        ),
    )  # fmt: skip


def _far_side(seats: list[Seat], unknown: tuple[str, ...]) -> Check:
    seat = min(seats, key=lambda s: (s.stud.depth_mm + s.layers_mm) / s.screw_mm)
    room = seat.layers_mm + seat.stud.depth_mm
    if seat.stud.stud is None:
        unknown += seat.stud.unknown
    # a lining or a stud that nobody knows may leave more room than this: too long is then not certain
    long = min(seat.screw_mm, room) if unknown else seat.screw_mm
    return make(
        "screw.far_side", part=seat.part, support=seat.index, case="any", fit=True, unknown=unknown,
        demand=Quantity(long, "length"), capacity=Quantity(room, "length"),
        template="The screw is {demand} long; layers and stud together are {capacity} deep.",
        steps=(
            Step("t", "hardware and lining before the stud", Quantity(seat.layers_mm, "fine")),
            Step("d", "depth of the stud", Quantity(seat.stud.depth_mm, "length")),
            Step("t + d", "room for the screw", Quantity(room, "length")),
        ),
    )  # fmt: skip


def _crushing(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.moment_nmm / max(u.limit_nmm, 1e-9))
    seat = use.seat
    return make(
        "lining.crushing", part=seat.part, support=seat.index, case=use.demand.case, unknown=unknown,
        demand=Quantity(use.moment_nmm, "moment"), capacity=Quantity(max(use.limit_nmm, 1e-9), "moment"),
        template="The {part}'s lower edge presses into the {face}: {used} of the turning load that would crush it.",
        parts={"part": seat.part, "face": seat.face.name},
        steps=(
            Step("σ", f"what {seat.face.name} may be pressed with", Quantity(seat.face.bearing_mpa, "stress")),
            Step("b", "pressed width with the stud behind it", Quantity(seat.pressed_mm, "fine")),
            Step("y_1", "highest pulling screw above the pressed edge", Quantity(_top(use), "fine")),
            Step("M_max", "σ b y_1² / 2", Quantity(use.limit_nmm, "moment")),
            Step("M", "turning load on the support", Quantity(use.moment_nmm, "moment")),
        ),
    )  # fmt: skip


def _top(use: _Use) -> float:
    seat = use.seat
    heights = seat.heights_mm if use.demand.moment_nmm >= 0 else tuple(seat.height_mm - y for y in seat.heights_mm)
    return max(heights)


def _withdrawal(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: _hold(u).tension_n / u.withdrawal_n)
    seat, hold = use.seat, _hold(use)
    return make(
        "screw.withdrawal", part=seat.part, support=seat.index, case=use.demand.case, unknown=unknown,
        demand=Quantity(hold.tension_n, "pull"), capacity=Quantity(use.withdrawal_n, "pull"),
        template="The {part}'s hardest-pulled screw pulls with {demand}; the stud holds it up to {capacity}.",
        parts={"part": seat.part}, steps=_pull_steps(use) + _withdrawal_steps(use),
    )  # fmt: skip


def _hold(use: _Use) -> contact.Hold:
    assert use.hold is not None  # only held uses get here
    return use.hold


def _pull_steps(use: _Use) -> tuple[Step, ...]:
    seat, hold = use.seat, _hold(use)
    squares = use.moment_nmm * hold.lever_mm / hold.tension_n if hold.tension_n else hold.lever_mm**2
    counted = sum(tension > 0 for tension in hold.tensions_n)
    return (
        Step("M", f"turning load, {use.demand.case}", Quantity(use.moment_nmm, "moment")),
        Step("σ", f"what {seat.face.name} may be pressed with", Quantity(seat.face.bearing_mpa, "stress")),
        Step("b", "pressed width with the stud behind it", Quantity(seat.pressed_mm, "fine")),
        Step("a", "depth of the pressed block, from Σ T = σ b a", Quantity(hold.block_mm, "fine")),
        Step("y_1", "hardest-pulled screw above the pressed edge", Quantity(_top(use), "fine")),
        Step("d_1", "its lever: y_1 − a/2", Quantity(hold.lever_mm, "fine")),
        Step("Σ d²", f"levers squared, of {counted} of {len(seat.heights_mm)} screws", Quantity(squares, "area")),
        Step("T_1", "M d_1 / Σ d²", Quantity(hold.tension_n, "force")),
    )


def _withdrawal_steps(use: _Use) -> tuple[Step, ...]:
    seat = use.seat
    thread = seat.reach.thread_mm
    formula = "1800 G^1.5 D^0.75" if seat.screw.kind == "lag" else "2850 G² D"
    return (
        Step("G", f"specific gravity of {seat.timber.name}", Quantity(seat.timber.g, "ratio")),
        Step("W", f"{formula} per length of thread", Quantity(wood.withdrawal_n_per_mm(seat.screw, seat.timber.g), "line")),
        Step("p_t", "thread in the stud, less layers and tip", Quantity(thread, "fine")),
        Step("C_D", "load duration", Quantity(use.demand.duration, "ratio")),
        Step("W'", "W p_t C_D", Quantity(use.withdrawal_n, "force")),
    )


def _shear(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.shear_n / u.lateral_n)
    seat = use.seat
    return make(
        "screw.shear", part=seat.part, support=seat.index, case=use.demand.case, unknown=unknown,
        demand=Quantity(use.shear_n, "pull"), capacity=Quantity(use.lateral_n, "pull"),
        template="Each screw of the {part} carries {demand} downwards; across {gap} of lining it can carry {capacity}.",
        parts={"part": seat.part, "gap": Quantity(seat.gap_mm, "fine")}, steps=_shear_steps(use),
    )  # fmt: skip


def _shear_steps(use: _Use) -> tuple[Step, ...]:
    seat, side = use.seat, use.lateral
    dowel = wood.dowel(seat.screw)
    bearing = wood.bearing_length_mm(seat.reach.penetration_mm, seat.screw.diameter_mm, seat.screw.tip_mm)
    return (
        Step("V", f"load on the support over {len(seat.heights_mm)} screws", Quantity(use.shear_n, "force")),
        Step("g", "gap: lining that bears nothing", Quantity(seat.gap_mm, "fine")),
        Step("D", "core of the thread", Quantity(dowel.diameter_mm, "fine")),
        Step("L_s", "thickness under the head", Quantity(seat.side.thickness_mm, "fine")),
        Step("L_m", "bearing length in the stud", Quantity(bearing, "fine")),
        Step("F_es", "bearing strength under the head", Quantity(seat.side.fe_mpa, "stress")),
        Step("F_em", "bearing strength of the stud", Quantity(_fe(seat), "stress")),
        Step("F_yb", "bending yield of the screw", Quantity(dowel.fyb_mpa, "stress")),
        Step("R_d", "reduction term", Quantity(side.reduction, "ratio")),
        *(Step(f"P_{mode} / R_d", _MODES[mode], Quantity(value, "force")) for mode, value in side.modes_n.items()),
        Step("Z", f"the least, mode {side.mode}", Quantity(side.value_n, "force")),
        Step("Z'", "Z C_D", Quantity(use.lateral_n, "force")),
    )


def _fe(seat: Seat) -> float:
    return wood.bearing_strength_mpa(seat.timber.g, seat.screw.diameter_mm)


def _combined(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    together = [wood.combined_use(_hold(use).tension_n, use.shear_n, use.withdrawal_n, use.lateral_n) for use in uses]
    used = max(together)
    use = uses[together.index(used)]
    seat, tension = use.seat, _hold(use).tension_n
    resultant = (tension**2 + use.shear_n**2) ** 0.5
    capacity = resultant / used if used else use.lateral_n
    return make(
        "screw.combined", part=seat.part, support=seat.index, case=use.demand.case, unknown=unknown,
        demand=Quantity(resultant, "pull"), capacity=Quantity(capacity, "pull"),
        template="Pull and shear together put {demand} on the {part}'s top screw; at that slant it can take {capacity}.",
        parts={"part": seat.part},
        steps=(
            *_pull_steps(use), *_withdrawal_steps(use), *_shear_steps(use),
            Step("R", "√(T_1² + V²)", Quantity(resultant, "force")),
            Step("Z'_α", "W' Z' / (W' cos²α + Z' sin²α)", Quantity(capacity, "force")),
        ),
    )  # fmt: skip


def _pull_through(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    def capacity(use: _Use) -> float:
        side = use.seat.side
        assert side.g is not None  # only wood sides get here
        return wood.pull_through_n(use.seat.screw.head_mm, side.thickness_mm, side.g) * use.demand.duration

    use = max(uses, key=lambda u: _hold(u).tension_n / capacity(u))
    seat = use.seat
    return make(
        "screw.pull_through", part=seat.part, support=seat.index, case=use.demand.case, unknown=unknown,
        demand=Quantity(_hold(use).tension_n, "pull"), capacity=Quantity(capacity(use), "pull"),
        template="The {part}'s hardest-pulled screw head is pulled with {demand}; the wood under it holds {capacity}.",
        parts={"part": seat.part},
        steps=(
            *_pull_steps(use),
            Step("D_H", "width of the head", Quantity(seat.screw.head_mm, "fine")),
            Step("t", "wood under the head", Quantity(seat.side.thickness_mm, "fine")),
            Step("W_H'", "690 π D_H G² t (at most 1725 π D_H² G²) × C_D", Quantity(capacity(use), "force")),
        ),
    )  # fmt: skip
