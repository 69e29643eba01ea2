"""Flush metal cleats of one's own under a cabinet: two halves whose lips hook into each other.

The lips hold what turns the piece outward; nothing climbs, for they have no slope. What one pair
carries its packet says.
"""

from trade import data
from trade.calculation import Calculation
from trade.check import Check, make
from trade.fixings import wood
from trade.fixings.support import Hardware, Support, support
from trade.language import compose
from trade.load.demand import Demand
from trade.load.push import push_of
from trade.measure import G_N_PER_KG
from trade.mounts import made
from trade.mounts.base import Shape, block, support_name
from trade.plan.hardware import OwnCleat
from trade.plan.model import Cabinet, Wall


def on_studs(piece: Cabinet, own: OwnCleat, wall: Wall, noun: str) -> list[Support]:
    """Return the wall's halves, one at each place; one screw finds the stud."""
    side = wood.steel_side(own.thick_mm)
    hardware = Hardware((own.hole_mm,), own.high_mm, own.width_mm, side)
    foot, count = piece.top_mm - piece.down_mm - own.high_mm, len(piece.supports_mm)
    return [
        support(wall, piece, hardware, i, support_name(i, count, noun), piece.left_mm + x, foot)
        for i, x in enumerate(piece.supports_mm)
    ]


def checks(
    piece: Cabinet, own: OwnCleat, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]
) -> list[Check]:
    """Check one pair of halves against its packet, and a lock where there is one."""
    found = [_rated(own, case, unknown) for cases in demands.values() for case in cases]
    hardest = max(found, key=lambda check: check.utilisation)
    return [hardest, *([_lock(piece)] if piece.locked and made.empty_kg(piece) is not None else [])]


def _rated(own: OwnCleat, case: Demand, unknown: tuple[str, ...]) -> Check:
    sums = Calculation()
    sums.given("T", case.pull_n, "force", compose("pull at one place, {case}", case=case.case))
    sums.given("V", case.load_n, "force", "load there")
    sums.then("R", "√(V² + T²)", "force", "load and pull together on its lips")
    sums.given("W_r", own.stated.each_n, "force", "what a pair of halves may carry by its packet")
    return make(
        "cleat.rated",
        part="cleat",
        case=case.case,
        unknown=unknown,
        demand=sums.quantity("R", "pull"),
        capacity=sums.quantity("W_r", "pull"),
        template="A pair of its halves carries {demand}; by its packet it may carry {capacity}.",
        equations=sums.equations,
    )


def _lock(piece: Cabinet) -> Check:
    """Lifted, empty, against a lock."""
    sums = Calculation()
    sums.given("F", push_of(piece).n, "force", "the push, upwards")
    sums.given("G", (made.empty_kg(piece) or 0.0) * G_N_PER_KG, "force", "its empty weight")
    sums.then("V_max", "max(F − G, 0)", "force", "lifted with")
    sums.given("n", data.house("lock_screws"), "count", "screws")
    sums.given("Z", data.house("lock_screw_n"), "force", "one in shear")
    sums.given("C_D", data.house("duration_minutes"), "ratio", "load duration")
    sums.then("Z'", "n Z C_D", "force", "they hold")
    return make(
        "cleat.lock",
        part="lock",
        case="empty, and lifted",
        demand=sums.quantity("V_max"),
        capacity=sums.quantity("Z'"),
        template="Its lock keeps it down against {demand}; two screws hold {capacity}.",
        equations=sums.equations,
    )


def front(piece: Cabinet, own: OwnCleat, edge_mm: float) -> list[Shape]:
    """Return the wall's halves behind the piece, their upper edges at `edge_mm`."""
    places, half = [piece.left_mm + x for x in piece.supports_mm], own.width_mm / 2
    low = edge_mm - own.high_mm
    return [block("hidden", x - half, low, x + half, edge_mm, i) for i, x in enumerate(places)]


def side(own: OwnCleat, edge_mm: float) -> list[Shape]:
    """Return both halves from the side: one on the wall, one on the piece, hooked."""
    low, t = edge_mm - own.high_mm, own.thick_mm
    return [
        block("steel", 0.0, low, t, edge_mm),
        block("steel", 0.0, edge_mm - t, own.off_mm, edge_mm),
        block(
            "steel", own.off_mm - t, edge_mm - own.hook_mm, own.off_mm, edge_mm + own.high_mm / 2
        ),
    ]
