"""What is screwed to a body that hangs on a bevelled cleat.

Its own half of the cleat, and the spacer at its foot.

Both halves answer the same pull. On the wall there are studs; on the body there is its back, or a
rail behind a thin one. How many screws its half takes follows from the pull at one of the wall's
places, for the body is stiff and pulls there.
"""

from math import ceil, inf
from typing import NamedTuple

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, make
from trade.data import Board, Screw
from trade.fixings import driving, wood
from trade.language import Figure, compose
from trade.load.demand import Demand
from trade.mounts import strength
from trade.mounts.bevel import Bevel
from trade.plan.model import Cabinet

_SCREW = "wood_8"
INSET_MM = data.house("cleat_inset_mm")
SPACER_MM = data.house("spacer_mm")
_APART_MM = data.house("own_half_apart_mm")
_LEAST = int(data.house("own_half_least"))


class Own(NamedTuple):
    """The screws of a body's own half.

    How many at each of the wall's places, how many there is room for, how long.

    `room` is 0 where none holds. What one holds for ten years (C_D = 1): `withdrawal_n` straight
    out, of its thread in the half or of its head through the back, whichever is less; `lateral_n`
    along the wall.
    """

    each: int
    room: int
    length_mm: float
    withdrawal_n: float
    lateral_n: float


def screw_of(piece: Cabinet) -> str:
    """Return the screw that holds its own half, sold as those of the cleat are."""
    return data.screw_beside(_SCREW, piece.screw)


def screws(piece: Cabinet, demands: dict[int, tuple[Demand, ...]]) -> Own:
    """How many screws its own half needs.

    Args:
        piece: what hangs.
        demands: at each of the wall's places, what the cleat must answer.
    """
    screw, back = data.screws()[screw_of(piece)], data.boards()[piece.inner]
    if piece.own is None:  # through its back into the half
        half, layers, into = data.boards()[piece.cleat], piece.under_heads_mm, piece.cleat_mm
        side = wood.wood_side(layers, back.g, screw.diameter_mm, across=not back.sheet)
        head = wood.pull_through_n(screw.head_mm, layers, back.g)
    else:  # through the metal half into its back
        half, layers, into = back, piece.own.thick_mm, piece.under_heads_mm
        side, head = wood.steel_side(layers), inf
    through = layers + into
    sold = [length for length in driving.lengths_mm(screw) if length <= through]
    length = sold[-1] if sold else driving.lengths_mm(screw)[0]
    reach = driving.reach(screw, min(length, through), layers)
    inside = bool(sold) or piece.own is None  # what comes out inside the piece is no screw for it
    pull = wood.withdrawal_n_per_mm(screw, half.g) * reach.thread_mm * inside
    bearing = wood.bearing_length_mm(reach.penetration_mm, screw.diameter_mm, screw.tip_mm)
    fe = wood.bearing_strength_mpa(half.g, screw.diameter_mm, across_grain=not half.sheet)
    lateral = (
        wood.lateral(wood.dowel(screw), side, 0.0, fe, bearing).value_n if bearing > 0 else 0.0
    )
    straight = min(pull, head)
    along = int((piece.length_mm - 2 * INSET_MM) / _APART_MM / len(piece.supports_mm))
    room = max(along, 1) if piece.own is None else piece.own.holes
    least = min(_LEAST, room)
    if straight <= 0 or lateral <= 0:
        return Own(least, 0, length, straight, lateral)
    cases = (case for some in demands.values() for case in some)
    asked = max(
        wood.combined_use(
            case.pull_n, case.load_n, straight * case.duration, lateral * case.duration
        )
        for case in cases
    )
    return Own(max(ceil(asked - 1e-9), least), room, length, straight, lateral)


def checks(
    piece: Cabinet, bevel: Bevel, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]
) -> list[Check]:
    """Check the fixing of the body's own half, and a spacer that reaches below it."""
    own, sums, metal = screws(piece, demands), Calculation(), piece.own is not None
    words = "thread in the half, or the head through the back: the less"
    sums.given("W", own.withdrawal_n, "force", "thread in the back" if metal else words)
    sums.given("Z", own.lateral_n, "force", "one in shear")
    words = "pull and load at one place, each case over W C_D and Z C_D together"
    sums.given("n", own.each, "count", words)
    sums.given(
        "n_max",
        own.room,
        "count",
        "holes in it"
        if metal
        else compose("room for one every {apart_mm} mm", apart_mm=Figure(f"{_APART_MM:.0f}")),
    )
    found = make(
        "cleat.own_half",
        part="its own half",
        case="at the hardest of the wall's places",
        unknown=unknown,
        demand=sums.quantity("n"),
        capacity=sums.quantity("n_max"),
        template=_said(metal, bool(own.room)),
        parts={
            "back": Quantity(piece.under_heads_mm, "fine"),
            "wood": data.boards()[piece.inner].name,
        },
        equations=sums.equations,
    )
    return [found, *([_spacer(piece, bevel, demands, unknown)] if piece.below_mm else [])]


def _said(metal: bool, holds: bool) -> str:
    if metal:
        return (
            "Into {back} of {wood} its own half needs {demand} screws; it has {capacity} holes."
            if holds
            else "No screw that stays inside finds a hold in {back} of {wood}: put a rail behind."
        )
    return (
        "Through {back} of {wood} its own half needs {demand} screws about each of the wall's "
        "places; {capacity} have room."
        if holds
        else "Through {back} of {wood} no screw finds a hold in its own half of the cleat: it is "
        "too thin."
    )


def spacer_mm(piece: Cabinet) -> float:
    """Height of the spacer, mm.

    A strip at the foot of the back, or a board that reaches below it and as far up behind it.
    """
    room = piece.height_mm - piece.down_mm - piece.cleat_high_mm
    return piece.below_mm + (
        min(max(piece.below_mm, SPACER_MM), room) if piece.below_mm else SPACER_MM
    )


def _spacer(
    piece: Cabinet, bevel: Bevel, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]
) -> Check:
    """Check bending where it leaves the body, pressed at its lower end by the bevel's pull."""
    row, screw = data.boards()[piece.cleat], data.screws()[screw_of(piece)]
    most = max(len(cases) for cases in demands.values())
    lines = [[cases[min(k, len(cases) - 1)] for cases in demands.values()] for k in range(most)]
    foot, duration, case = max(
        (
            (sum(case.pull_n for case in line), min(case.duration for case in line), line[0].case)
            for line in lines
        ),
        key=lambda each: each[0] / each[1],
    )
    sums = Calculation()
    sums.given("H", foot, "force", "what it presses on the wall with: all that the bevel pulls")
    sums.given("e", piece.below_mm, "length", "how far it reaches below the body")
    sums.given("h_p", SPACER_MM, "fine", "height of it that presses")
    sums.then("M", "H max(e − h_p / 2, 0)", "moment", "bending where it leaves the body")
    long = piece.length_mm - 2 * INSET_MM
    strength.write_flatwise(sums, long, piece.cleat_mm, "its length")
    strength.write_bending(sums, row, duration)
    held = spacer_mm(piece) - piece.below_mm
    sums.given("h_b", held, "length", "as much of it as is behind the body")
    sums.then("T", "M / h_b", "force", "at its upper screws")
    _write_upper_screws(sums, piece, screw, row, long)
    if sums.quantity("T_max").value <= 0:
        return make(
            "cleat.spacer",
            part="spacer",
            case=case,
            unknown=unknown,
            demand=sums.quantity("T"),
            capacity=sums.quantity("T_max"),
            template="Pressed below the body, the spacer pulls with {demand} on screws that find "
            "no thread in a back so thin.",
            equations=sums.equations,
        )
    sums.then("u", "max(σ / σ', T / T_max)", "percent", "the greater share")
    return make(
        "cleat.spacer",
        part="spacer",
        case=case,
        unknown=unknown,
        demand=sums.quantity("u"),
        capacity=Quantity(1.0, "percent"),
        template="Pressed below the body, the spacer uses {used} of its strength in bending and "
        "pull-out.",
        equations=sums.equations,
    )


def _write_upper_screws(
    sums: Calculation, piece: Cabinet, screw: Screw, row: Board, long_mm: float
) -> None:
    """Write what the screws along a spacer's upper edge hold, T_max."""
    reach = driving.reach(screw, piece.cleat_mm + piece.under_heads_mm, piece.cleat_mm)
    back = data.boards()[piece.inner]
    sums.given("n", max(int(long_mm / _APART_MM / 2), _LEAST), "count", "screws along its edge")
    sums.given(
        "G", back.g, "ratio", compose("specific gravity of its back, {back}", back=back.name)
    )
    sums.given("D", screw.diameter_mm, "fine", "diameter of a screw")
    sums.then("W", wood.withdrawal_formula(screw).text, "line", "what each length of thread holds")
    sums.given("p", reach.thread_mm, "fine", "thread in the back, less the tip")
    head = wood.pull_through_n(screw.head_mm, piece.cleat_mm, row.g)
    sums.given("W_H", head, "force", "its head through the spacer")
    sums.then("T_max", "n min(W p, W_H) C_D", "force", "they hold")
