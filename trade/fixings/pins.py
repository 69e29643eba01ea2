"""A pin or rod let into a stud, free to turn in it.

The wood it presses into and its own bending hold it.

Rigid-plastic: the wood presses back with q = F_e D, one way near the face and the other way beyond
a depth a where the pin turns about; or the pin yields first. Sums at yield are brought down by the
reduction terms of NDS Table 12.3.1B. Elastic: a beam on a bed of springs (Hetenyi), for how far it
droops.
"""

from dataclasses import dataclass
from math import cos, cosh, pi, sin, sinh

from trade import data
from trade.calculation import Calculation, Formula, Quantity
from trade.check import Check, Message, make
from trade.data import Framing, PinSteel
from trade.fixings import driving, wood
from trade.fixings.stud_position import edge
from trade.language import compose
from trade.load.demand import Demand
from trade.measure import Units, say_length
from trade.wall.backing import StudAt

_E_MPA = 200_000.0
_SINKS_MM = data.house("dowel_sinks_mm")
_DUST_MM = data.house("pin_dust_mm")


PLASTIC = Formula("F_y d_c³ / 6")  # of a round bar


TURNS_AT = Formula("√(e² + e L + L²/2) − e")  # 2 a² + 4 e a - 2 e L - L² = 0
WOOD_YIELDS = Formula("q (2 a − L)")
PIN_YIELDS = Formula("q (√(e² + 2 M_p / q) − e)")


def carries(
    q_n_per_mm: float, embedment_mm: float, lever_mm: float, plastic_nmm: float
) -> tuple[float, float, float]:
    """Return the yield load of a pin out of wood, N, and where the pressure reverses, mm.

    Bearing: P = q (2a - L), P e = q (L^2 - 2 a^2) / 2, hence 2 a^2 + 4 e a - 2 e L - L^2 = 0.
    Pin: P = q (sqrt(e^2 + 2 M_p / q) - e).

    Args:
        q_n_per_mm: bearing strength times diameter, F_e D.
        embedment_mm: pin in the wood, L.
        lever_mm: from the wood's face to the load, e.
        plastic_nmm: plastic moment of the pin, M_p.
    """
    given = {"q": q_n_per_mm, "L": embedment_mm, "e": lever_mm, "M_p": plastic_nmm}
    given["a"] = TURNS_AT.of(given)
    return WOOD_YIELDS.of(given), PIN_YIELDS.of(given), given["a"]


def write_carried(sums: Calculation, presses: str, yield_mpa: float, core_mm: float) -> None:
    """Write what a pin carries when the wood yields, P_w, and when it does itself, P_p.

    Args:
        sums: with the pin's embedment L and the lever e.
        presses: expression of what the wood presses back with, per length.
        yield_mpa: of the pin's steel.
        core_mm: of the pin.
    """
    sums.then("q", presses, "line", "what the wood presses back with")
    sums.then("a", TURNS_AT.text, "fine", "depth where the pressure turns")
    sums.then("P_w", WOOD_YIELDS.text, "force", "the wood gives way")
    sums.given("F_y", yield_mpa, "stress", "yield of the pin's steel")
    sums.given("d_c", core_mm, "fine", "its core")
    sums.then("M_p", PLASTIC.text, "moment", "at which it yields")
    sums.then("P_p", PIN_YIELDS.text, "force", "the pin yields")


def bed_stiffness(fe_mpa: float) -> float:
    """How hard wood under a dowel resists, N/mm³ (house rule.

    A millimetre at its bearing strength).
    """
    return fe_mpa / _SINKS_MM


def bed_give(
    bed_n_per_mm2: float, ei_nmm2: float, embedment_mm: float
) -> tuple[float, float, float]:
    """Return the flexibility at the wood's face of a finite pin on springs (Hetenyi 1946).

    Args:
        bed_n_per_mm2: bed stiffness times diameter, k.
        ei_nmm2: of the pin.
        embedment_mm: its length in the wood.

    Returns:
        Sinking under 1 N (mm), turning under 1 N or sinking under 1 N mm (1/N), turning under 1 N
          mm.
    """
    lam = (bed_n_per_mm2 / (4 * ei_nmm2)) ** 0.25
    x = min(lam * embedment_mm, 20.0)
    s, c, sh, ch = sin(x), cos(x), sinh(x), cosh(x)
    below = sh * sh - s * s
    return (
        2 * lam / bed_n_per_mm2 * (sh * ch - s * c) / below,
        2 * lam**2 / bed_n_per_mm2 * (sh * sh + s * s) / below,
        4 * lam**3 / bed_n_per_mm2 * (sh * ch + s * c) / below,
    )


@dataclass(frozen=True, kw_only=True)
class PinSeat:
    """One pin in one stud.

    `x_mm`, `y_mm`: its axis on the wall; `embedment_mm`: in the stud; `gap_mm`: lining before it.
    """

    index: int
    part: str
    x_mm: float
    y_mm: float
    pin_mm: float
    embedment_mm: float
    gap_mm: float
    steel: PinSteel
    timber: Framing
    stud: StudAt
    firm: bool

    @property
    def in_stud(self) -> bool:
        """Whether the pin's axis meets the stud at all."""
        return self.firm and abs(self.stud.offset_mm) < self.stud.width_mm / 2

    holds = in_stud

    @property
    def back_mm(self) -> float:
        """How far behind the lining's face the wood begins."""
        return self.gap_mm

    @property
    def edge_mm(self) -> float:
        """Edge distance that it must have: half a diameter of wood beside it.

        With less than the full one the stud holds less.
        """
        return data.house("pin_edge_diameters") * self.pin_mm

    @property
    def spare_mm(self) -> float:
        """How far off the stud may be before the pin loses its edge distance."""
        return max(self.stud.width_mm / 2 - abs(self.stud.offset_mm) - self.edge_mm, 0.0)

    @property
    def edge_share(self) -> float:
        """What the stud holds with so little wood beside the pin, wherever it may stand.

        In proportion to NDS's full distance.
        """
        has = self.stud.width_mm / 2 - abs(self.stud.offset_mm) - self.stud.uncertainty_mm
        return min(
            max(has, self.pin_mm / 2) / (data.house("edge_diameters_lag") * self.pin_mm), 1.0
        )

    @property
    def ei_nmm2(self) -> float:
        """Bending stiffness of the pin."""
        return _E_MPA * pi * (self.pin_mm * self.steel.core) ** 4 / 64

    @property
    def holes(self) -> tuple[tuple[float, float], ...]:
        """Where it is on the wall."""
        return ((self.x_mm, self.y_mm),)

    @property
    def deep_mm(self) -> float:
        """How deep to drill, from the lining's face."""
        return self.gap_mm + self.embedment_mm + _DUST_MM

    def bit_mm(self, units: Units) -> float:
        """Return the drill for it: as thick as the pin."""
        return driving.drill_at_least_mm(self.pin_mm, units)

    def words(self, units: Units) -> str:
        """Return what goes into the hole."""
        return compose(
            "{steel}, {pin}, {embedment} in the stud",
            steel=self.steel.name,
            pin=say_length(self.pin_mm, units),
            embedment=say_length(self.embedment_mm, units),
        )

    screw_key = anchor_key = length_mm = capacity = None
    anchored = False
    height_mm = 0.0  # nothing of it lies against the wall

    def clearance_mm(self, units: Units) -> float | None:
        """There is no shank."""
        return None

    def cautions(self) -> list[Message]:
        """Return what to mind at its hole."""
        return [
            Message(
                "Drill it square, with a guide: a pin out of square shows at the front. A touch "
                "upward is better than down."
            )
        ]

    def gives(self, load_n: float, moment_nmm: float) -> tuple[float, float]:
        """At the wood's face: how far the pin sinks, mm, and how far it turns, radians."""
        ei = self.ei_nmm2
        bed = (
            bed_stiffness(
                wood.bearing_strength_mpa(self.timber.g, max(self.pin_mm, wood.QUARTER_INCH_MM))
            )
            * self.pin_mm
        )
        sinks, across, turns = bed_give(bed, ei, self.embedment_mm)
        return load_n * sinks + moment_nmm * across, load_n * across + moment_nmm * turns


def checks(
    supports: list[PinSeat],
    demands: dict[int, tuple[Demand, ...]],
    lining: tuple[str, ...],
    loads: tuple[str, ...],
    least_mm: float,
) -> list[Check]:
    """All checks of pins in studs.

    Args:
        supports: one per pin.
        demands: by the seat's index, the load cases about the lining's face.
        lining: what is not known of the wall.
        loads: what is not known of the loads.
        least_mm: the least embedment that is any good.
    """
    if loose := [support for support in supports if not support.firm]:
        return [_no_stud(loose[0])]
    found = [edge(supports)]
    hit = [support for support in supports if support.in_stud]
    if not hit:
        return found
    return [
        *found,
        _embedment(hit, least_mm),
        _far_side(hit, lining),
        _carries(hit, demands, lining + loads),
    ]


def _no_stud(support: PinSeat) -> Check:
    return make(
        "pin.wood",
        part=support.part,
        support=support.index,
        case="any",
        demand=Quantity(support.embedment_mm, "fine"),
        capacity=Quantity(1e-3, "fine"),
        template="A pin needs the thick wood of a stud, and there is none here. Brackets or a "
        "cleat on anchors would hold.",
    )


def _embedment(supports: list[PinSeat], least_mm: float) -> Check:
    support = min(supports, key=lambda s: s.embedment_mm)
    return make(
        "pin.embedment",
        part=support.part,
        support=support.index,
        case="any",
        demand=Quantity(least_mm, "fine"),
        capacity=Quantity(max(support.embedment_mm, 1e-6), "fine"),
        template="The pin should reach {demand} into the stud; it reaches {capacity}.",
    )


def _far_side(supports: list[PinSeat], unknown: tuple[str, ...]) -> Check:
    support = min(supports, key=lambda s: s.stud.depth_mm)
    sums = Calculation()
    sums.given("L", support.embedment_mm, "length", "pin in the stud")
    sums.given("s", _DUST_MM, "fine", "room for dust")
    sums.then("l", "L + s", "length", "depth of the hole")
    sums.given("d", support.stud.depth_mm, "length", "depth of the stud")
    return make(
        "pin.far_side",
        part=support.part,
        support=support.index,
        case="any",
        unknown=unknown,
        demand=sums.quantity("l"),
        capacity=sums.quantity("d"),
        equations=sums.equations,
        template="The hole is {demand} deep in the stud, which is {capacity} deep.",
    )


def _carries(
    supports: list[PinSeat], demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]
) -> Check:
    pairs = [
        (_carried(support, demand), support, demand)
        for support in supports
        for demand in demands[support.index]
    ]
    sums, support, demand = max(pairs, key=lambda found: found[0]["P"] / found[0]["P'"])
    return make(
        "pin.carries",
        part=support.part,
        support=support.index,
        case=demand.case,
        unknown=unknown,
        demand=sums.quantity("P", "pull"),
        capacity=sums.quantity("P'", "pull"),
        template="The {part} carries {demand}, {lever} out from the wood; there stud and steel "
        "can carry {capacity}.",
        parts={"part": support.part, "lever": sums.quantity("e", "length")},
        equations=sums.equations,
    )


def _carried(support: PinSeat, demand: Demand) -> Calculation:
    """Work out what a pin carries in one load case, P, and what it can carry there, P'."""
    load = max(abs(demand.load_n), 1e-6)
    lever = abs(demand.moment_nmm) / load + support.gap_mm
    sums = Calculation()
    sums.given(
        "P", abs(demand.load_n), "force", compose("load on the pin, {case}", case=demand.case)
    )
    sums.given("e", lever, "fine", "from the wood's face to the load, lining included")
    sums.given("D", support.pin_mm, "fine", "pin")
    sums.given("L", support.embedment_mm, "fine", "pin in the stud")
    sums.given(
        "G",
        support.timber.g,
        "ratio",
        compose("specific gravity of {timber}", timber=support.timber.name),
    )
    sums.then("F_e", wood.BEARING_ALONG.text, "stress", "bearing of the stud along its grain")
    sums.given("k_e", support.edge_share, "ratio", "less, with little wood beside the pin")
    write_carried(sums, "F_e D k_e", support.steel.yield_mpa, support.pin_mm * support.steel.core)
    terms = wood.reduction_terms(support.pin_mm, max(support.pin_mm, wood.QUARTER_INCH_MM))
    mode: wood.Mode = "III_m" if sums["P_p"] < sums["P_w"] else "I_m"
    sums.given("R_d", terms[mode], "ratio", "reduction term")
    sums.given("C_D", demand.duration, "ratio", "load duration")
    sums.then("P'", "min(P_w, P_p) C_D / R_d", "force", "what it can carry there")
    return sums
