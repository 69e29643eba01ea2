"""A cabinet, box or mantel on a bevelled cleat: one half on the wall, the other on its back, a spacer at the bottom.

The weight W at a distance z from the wall wants to turn it out at the top: H = W z / h at the bevel, h above the spacer. The
bevel alone, without friction, draws it in with W tan b; while z / h is less than tan b it sits, beyond that it climbs off,
however well the screws hold. The wall's half is pulled by the greater of the two, at its top edge: its own lever about its lower
edge makes the screws' pull greater still.
"""

from collections.abc import Iterator
from math import cos, hypot, radians, tan
from typing import Any, ClassVar

from msgspec.structs import replace

from trade import data
from trade.check import Check, Phrase, Quantity, Step, make
from trade.fixings import fastening, wood
from trade.fixings.seat import Hardware, Seat, seat
from trade.load.demand import Demand
from trade.load.line import LineLoad, contents_of, unweighed
from trade.measure import G_N_PER_KG
from trade.mechanics.beam import widest_mm
from trade.mounts import board
from trade.mounts.base import DEPTH, LENGTH, Ask, Mount, Shape, block, support_name
from trade.plan import Cabinet, Wall
from trade.wall.backing import backing

NOUN = "screw pair"
_SPACER_MM = 40.0  # house rule: height of the spacer at the bottom; it presses at its middle
_SCREW_PLACES = (0.7, 0.3)  # of the cleat's height, two screws on each stud
_LIFT_MM = 3.0  # common practice, no source: room above the bevel's rise to lift it on
_FACE_WIDTH_MM = 60.0  # house rule: how much of the cleat presses at each stud


class _CleatCabinet(Mount[Cabinet]):
    kind = "cleat_cabinet"
    name = "Cabinet on a bevelled cleat"
    piece_noun = "cabinet"
    support_noun = NOUN
    make = Cabinet
    asks = (
        LENGTH,
        Ask("height_mm", "Height", "length"),
        DEPTH,
        Ask("body_kg", "Weighs empty", "weight", optional=True, help="Weigh it, doors and shelves included."),
        Ask("cleat", "Cleat of", "choice", data.boards),
        Ask("cleat_mm", "Cleat thick", "length"),
        Ask("cleat_high_mm", "Cleat high", "length"),
        Ask("down_mm", "Cleat below the top", "length"),
        Ask("bevel_deg", "Bevel, degrees from level", "angle"),
        Ask("locked", "Locked: a screw or block keeps it from lifting off", "flag"),
    )
    fresh: ClassVar[dict[str, Any]] = {"length_mm": 800.0, "depth_mm": 250.0, "height_mm": 600.0, "body_kg": None}

    def checks(self, piece: Cabinet, wall: Wall) -> list[Check]:
        """Every check of the cleat, its seating and its screws."""
        loads = (*_unweighed_body(piece), *unweighed(piece))
        if len(piece.supports_mm) < 2:
            return [board.too_few_supports(piece, NOUN, loads)]
        load = LineLoad(piece, (piece.body_kg or 0.0) * G_N_PER_KG, piece.depth_mm / 2)
        pulled = {i: tuple(_at_cleat(piece, case) for case in cases) for i, cases in load.demands().items()}
        found = fastening.checks(self.seats(piece, wall), pulled, backing(wall).unknown, loads)
        found += [_bending(piece, pulled, loads), _nib(piece, pulled, loads), _room(piece, wall)]
        found += [_lift(piece)] if piece.body_kg is not None else []
        return found + ([] if piece.locked else [_seating(piece, load.use.push_n, loads)])

    def seats(self, piece: Cabinet, wall: Wall) -> list[Seat]:
        """The wall's half of the cleat at each stud: two screws, one above the other."""
        high = piece.cleat_high_mm
        side = wood.wood_side(piece.cleat_mm, data.boards()[piece.cleat].g, data.screws()[piece.screw].diameter_mm)
        hardware = Hardware(tuple(high * share for share in _SCREW_PLACES), high, _FACE_WIDTH_MM, side)
        foot, count = piece.top_mm - piece.down_mm - high, len(piece.supports_mm)
        return [
            seat(wall, piece, hardware, i, support_name(i, count, NOUN), piece.left_mm + x, foot)
            for i, x in enumerate(piece.supports_mm)
        ]

    def front(self, piece: Cabinet) -> list[Shape]:
        """The body with two doors; the cleat and the spacer behind it."""
        left, right, top, bottom = piece.left_mm, piece.left_mm + piece.length_mm, piece.top_mm, piece.top_mm - piece.height_mm
        cleat_top, middle = top - piece.down_mm, (left + right) / 2
        screws = [
            block("hidden", left + x - 4, cleat_top - high - 4, left + x + 4, cleat_top - high + 4, i)
            for i, x in enumerate(piece.supports_mm)
            for high in (piece.cleat_high_mm * (1 - share) for share in _SCREW_PLACES)
        ]
        return [
            block("face", left, bottom, right, top),
            block("door", left + 18, bottom + 18, middle - 2, top - 18),
            block("door", middle + 2, bottom + 18, right - 18, top - 18),
            block("hidden", left + 20, cleat_top - piece.cleat_high_mm, right - 20, cleat_top),
            block("hidden", left + 20, bottom, right - 20, bottom + _SPACER_MM),
            *screws,
        ]

    def side(self, piece: Cabinet, seat: Seat) -> list[Shape]:
        """The body in front of the cleat's two halves and the spacer."""
        t, top, bottom = piece.cleat_mm, piece.top_mm, piece.top_mm - piece.height_mm
        edge, rise = top - piece.down_mm, t * tan(radians(piece.bevel_deg))
        low = edge - piece.cleat_high_mm
        return [
            block("face", t, bottom, t + piece.depth_mm, top),
            Shape("wood", ((0.0, low), (t, low), (t, edge), (0.0, edge - rise))),
            Shape("board", ((0.0, edge - rise + 1), (t, edge + 1), (t, top - 2), (0.0, top - 2))),
            block("wood", 0.0, bottom, t, bottom + _SPACER_MM),
        ]

    def cures(self, piece: Cabinet) -> Iterator[tuple[str, Phrase, Cabinet]]:
        """A lock; a spacer further below; a steeper bevel; a higher cleat."""
        if not piece.locked:
            yield (
                "lock",
                Phrase("Lock it: a screw through its back into the cleat, or a block above"),
                replace(piece, locked=True),
            )
        for degrees in (50.0, 55.0, 60.0):
            if degrees > piece.bevel_deg:
                yield "bevel", Phrase(f"Rip the bevel at {degrees:.0f} degrees"), replace(piece, bevel_deg=degrees)
        for high in (100.0, 120.0, 150.0):
            if high > piece.cleat_high_mm and high + piece.down_mm < piece.height_mm - _SPACER_MM:
                label = Phrase("A cleat {h} high", {"h": Quantity(high, "length")})
                yield "cleat", label, replace(piece, cleat_high_mm=high)

    def cautions(self, piece: Cabinet, wall: Wall) -> list[Phrase]:
        """What people get wrong with cleats."""
        return [
            Phrase("Spacer at the bottom as thick as the cleat, {t}, or it leans.", {"t": Quantity(piece.cleat_mm, "fine")}),
            Phrase("Both halves from one strip, ripped at the same setting: then they fit."),
        ]


KIND = _CleatCabinet()


def _unweighed_body(piece: Cabinet) -> tuple[str, ...]:
    return (f"what “{piece.name}” weighs empty.",) if piece.body_kg is None else ()


def _lever_mm(piece: Cabinet) -> float:
    """From the middle of the spacer up to the bevel."""
    return piece.height_mm - piece.down_mm - piece.cleat_mm / 2 * tan(radians(piece.bevel_deg)) - _SPACER_MM / 2


def _at_cleat(piece: Cabinet, case: Demand) -> Demand:
    """A load case of the body as what the wall's half of the cleat must answer, about its own lower edge."""
    load = max(case.load_n, 0.0)
    turning = case.moment_nmm + load * piece.cleat_mm / 2  # the body hangs half a cleat further out than its bevel
    pull = max(turning / _lever_mm(piece), load * tan(radians(piece.bevel_deg)), 0.0)
    at = piece.cleat_high_mm - piece.cleat_mm / 2 * tan(radians(piece.bevel_deg))
    return case._replace(load_n=load, moment_nmm=pull * at + load * piece.cleat_mm / 2, pull_n=pull)


def _seating(piece: Cabinet, push_n: float, unknown: tuple[str, ...]) -> Check:
    """Whether it sits, in the worst case: the push on its front edge, and of what is in it only what makes it worse."""
    half, h, slope = piece.cleat_mm / 2, _lever_mm(piece), tan(radians(piece.bevel_deg))
    loads, outs = contents_of(piece)
    use = data.uses()[piece.use]
    weight = (piece.body_kg or 0.0) * G_N_PER_KG
    down, turning = weight + push_n, weight * (piece.depth_mm / 2 + half) + push_n * (piece.depth_mm + half)
    for out, load in sorted(zip(outs, (load.total_n * use.factor for load in loads), strict=True), reverse=True):
        if down == 0 or out + half > turning / down:
            down, turning = down + load, turning + load * (out + half)
    z = turning / down if down else piece.depth_mm / 2
    return make(
        "cleat.seating", part="cleat", case="a push on the front edge, and what makes it worse", unknown=unknown,
        demand=Quantity(z / h, "ratio"), capacity=Quantity(slope, "ratio"),
        template="Its weight hangs {z} out and the cleat is {h} above the spacer: "
        + ("it sits in its bevel." if z / h <= slope else "pushed at the front it climbs off the cleat. Lock it."),
        parts={"z": Quantity(z, "length"), "h": Quantity(h, "length")},
        steps=(
            Step("W", "body, push and what makes it worse", Quantity(down, "force")),
            Step("z", "where all that hangs, from the bevel", Quantity(z, "length")),
            Step("h", "from the middle of the spacer to the bevel", Quantity(h, "length")),
            Step("z / h", "what wants to climb", Quantity(z / h, "ratio")),
            Step("tan b", f"bevel of {piece.bevel_deg:.0f} degrees, no friction counted", Quantity(slope, "ratio")),
        ),
    )  # fmt: skip


def _bending(piece: Cabinet, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]) -> Check:
    """The wall's half, pulled out evenly between its studs, bends about its thin way."""
    row, span = data.boards()[piece.cleat], widest_mm(piece.length_mm, piece.supports_mm)

    def total(n: int) -> float:
        return sum(cases[min(n, len(cases) - 1)].pull_n for cases in demands.values())

    years, minutes = data.house("duration_years"), data.house("duration_minutes")
    pull, duration, case = max(
        ((total(0), years, "loaded, for years"), (total(1), minutes, "loaded, and pushed")), key=lambda c: c[0] / c[1]
    )
    line = pull / piece.length_mm
    moment, section = line * span**2 / 8, piece.cleat_high_mm * piece.cleat_mm**2 / 6
    allowed = row.mor_mpa * data.house("mor_share") * duration
    return make(
        "cleat.bending", part="cleat", case=case, unknown=unknown,
        demand=Quantity(moment / section, "stress"), capacity=Quantity(allowed, "stress"),
        template="Between its studs, {span} apart, the cleat is bent to {used} of what {wood} may take.",
        parts={"span": Quantity(span, "length"), "wood": row.name},
        steps=(
            Step("p", "pull along the cleat", Quantity(line, "line")),
            Step("l", "widest gap between studs, or twice the overhang", Quantity(span, "length")),
            Step("M", "p l² / 8", Quantity(moment, "moment")),
            Step("σ", "6 M / (height × thickness²)", Quantity(moment / section, "stress")),
            Step("σ'", f"{data.house('mor_share')} MOR C_D", Quantity(allowed, "stress")),
        ),
    )  # fmt: skip


def _nib(piece: Cabinet, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]) -> Check:
    """The bevel presses across the grain of a sharp edge."""
    row = data.boards()[piece.cleat]
    force = sum(hypot(cases[0].load_n, cases[0].pull_n) for cases in demands.values())
    area = piece.length_mm * piece.cleat_mm / cos(radians(piece.bevel_deg))
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


def _room(piece: Cabinet, wall: Wall) -> Check:
    rise = piece.cleat_mm * tan(radians(piece.bevel_deg)) + _LIFT_MM
    return make(
        "cleat.room", part="cleat", case="any", fit=True,
        demand=Quantity(rise, "fine"), capacity=Quantity(max(wall.height_mm - piece.top_mm, 1e-6), "length"),
        template="To lift it over the bevel it needs {demand} above it; there are {capacity}.",
    )  # fmt: skip


def _lift(piece: Cabinet) -> Check:
    """Lifted, empty, it comes off unless it is locked."""
    push, weight = data.uses()[piece.use].push_n, (piece.body_kg or 0.0) * G_N_PER_KG
    said = "Lifted with {demand}, empty, it comes off the cleat; it weighs {capacity}."
    return make(
        "cleat.lift", part="cleat", case="empty, and lifted", advice=True,
        demand=Quantity(0.0 if piece.locked else push, "pull"), capacity=Quantity(max(weight, 1.0), "pull"),
        template="It is locked: nobody lifts it off." if piece.locked else said,
    )  # fmt: skip
