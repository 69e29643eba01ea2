"""A cut through the wall at the chosen screw, seen from the side and to scale: layer by layer, the screw at its true length."""

from typing import NamedTuple

from django.utils.safestring import SafeString

from bench.drawing.svg import Pen, number, svg_element
from trade import data, say
from trade.check import PieceVerdict
from trade.measure import say_length
from trade.mounts import Seat, mount_of
from trade.plan import AnyPiece, BracketShelf, Plan, RodShelf

WIDTH, HEIGHT = 412.0, 184.0
_PX = 1.55
_FACE = 186.0  # where the room meets the lining


class _Cut(NamedTuple):
    """Sheet places: the shelf's underside, the top screw, the stud's face, and the hardware's back."""

    piece: AnyPiece
    plan: Plan
    seat: Seat
    under: float
    screw_y: float
    stud_x: float
    back_x: float


def seat_in_question(piece: AnyPiece, plan: Plan, verdict: PieceVerdict) -> Seat | None:
    """The support whose screw is drawn: the one that governs, else the first."""
    seats = mount_of(piece).seats(piece, plan.wall)
    if not seats:
        return None
    support = next((check.support for check in verdict.checks if check.support is not None), 0)
    return seats[support or 0]


def draw(piece: AnyPiece, plan: Plan, verdict: PieceVerdict, seat: Seat) -> SafeString:
    """Draw the cut at the top screw of a support."""
    pen, cut = Pen(), _cut(piece, plan, seat)
    _layers(pen, cut)
    _shelf(pen, cut)
    _hardware(pen, cut)
    _screw(pen, cut)
    _forces(pen, cut, verdict)
    reach = say_length(seat.reach.penetration_mm, plan.units)
    return svg_element(
        pen, WIDTH, HEIGHT, "section", f"Section through the wall at the {seat.part}: {reach} of the screw in the stud"
    )


def _cut(piece: AnyPiece, plan: Plan, seat: Seat) -> _Cut:
    stud_x = _FACE + (plan.wall.lining_mm or 0.0) * _PX
    if isinstance(piece, BracketShelf):
        under = 56.0
        screw_y = under + min(data.brackets()[piece.bracket].holes_mm) * _PX
        return _Cut(piece, plan, seat, under, min(screw_y, HEIGHT - 40), stud_x, stud_x - seat.gap_mm * _PX)
    axis = HEIGHT * 0.5
    under = axis + piece.thickness_mm / 2 * _PX
    return _Cut(
        piece, plan, seat, under, axis - max(data.plates()[piece.plate].rows_mm) * _PX, stud_x, stud_x - seat.gap_mm * _PX
    )


def _layers(pen: Pen, cut: _Cut) -> None:
    wall, seat, x = cut.plan.wall, cut.seat, _FACE
    for layer in wall.layers or ():
        wide = layer.thickness_mm * _PX
        pen.rect(x, 0, wide, HEIGHT, f"layer layer-{layer.kind.split('_')[0]}")
        pen.hatch(x, 0, wide, HEIGHT, 8, "layer-hatch")
        x += wide
    if wall.layers is None:
        pen.text(x - 8, HEIGHT - 8, "lining not known", "cut-words", "end")
    deep, known = seat.stud.depth_mm * _PX, seat.in_stud and bool(wall.uprights)
    if wall.build == "mass":
        deep = WIDTH - x
        pen.rect(x, 0, deep, HEIGHT, "layer cut-mass")
        pen.hatch(x, 0, deep, HEIGHT, 14, "layer-hatch")
        pen.text(x + deep / 2, HEIGHT - 10, data.structures()[wall.structure or ""].name, "cut-words cut-on-hatch", "middle")
        return
    pen.rect(x, 0, deep, HEIGHT, "cut-stud" if known else "cut-stud cut-missing")
    if known:
        lines = (
            f"M{number(x + i)} 0q{6 if n % 2 else -5} {HEIGHT / 2} 0 {HEIGHT}" for n, i in enumerate(range(9, int(deep) - 4, 13))
        )
        pen.path("".join(lines), "grain")
    else:
        pen.text(x + deep / 2, HEIGHT - 10, "no stud here" if wall.uprights else "no stud known", "cut-words", "middle")


def _shelf(pen: Pen, cut: _Cut) -> None:
    thick, deep = cut.piece.thickness_mm * _PX, cut.piece.depth_mm * _PX
    reach = min(deep, _FACE - 8)
    left, top = _FACE - reach, cut.under - thick
    pen.rect(left, top, reach, thick, "cut-board")
    if deep > reach:
        zig = thick / 3 + 3
        pen.path(f"M{number(left + 2)} {number(top - 5)}l5 {number(zig)}l-9 {number(zig)}l5 {number(zig)}", "break")


def _hardware(pen: Pen, cut: _Cut) -> None:
    side, steel = max(cut.seat.side.thickness_mm * _PX, 3.0), cut.seat.side.g is None
    kind = "cut-steel" if steel else "cut-wood"
    if isinstance(cut.piece, BracketShelf):
        row = data.brackets()[cut.piece.bracket]
        arm = min(row.arm_mm * _PX, _FACE - 24)
        pen.rect(cut.back_x - side, cut.under, side, min(row.leg_mm * _PX, HEIGHT - cut.under), kind)
        pen.rect(cut.back_x - arm, cut.under, arm, side, kind)
    if isinstance(cut.piece, RodShelf):
        plate = data.plates()[cut.piece.plate]
        axis, high, rod = HEIGHT * 0.5, plate.height_mm * _PX, plate.rod_mm * _PX
        end = max(cut.back_x - plate.rod_length_mm * _PX, 20.0)
        pen.rect(end, axis - rod / 2, cut.back_x - end, rod, kind)
        pen.rect(cut.back_x - side, axis - high / 2, side, high, kind)


def _screw(pen: Pen, cut: _Cut) -> None:
    seat, y = cut.seat, cut.screw_y
    head = cut.back_x - max(seat.side.thickness_mm * _PX, 3.0)
    tip = cut.back_x - seat.side.thickness_mm * _PX + seat.screw_mm * _PX
    half, wide = seat.screw.diameter_mm * _PX / 2, seat.screw.head_mm * _PX / 2
    thread = seat.screw_mm * _PX * 2 / 3
    core = half * 0.72
    pen.path(
        f"M{number(head)} {number(y - wide)}l{number(wide * 0.8)} {number(wide - half)}H{number(tip - thread)}V{number(y - core)}"
        f"H{number(tip - half * 3)}L{number(tip)} {number(y)}L{number(tip - half * 3)} {number(y + core)}H{number(tip - thread)}"
        f"V{number(y + half)}H{number(head + wide * 0.8)}L{number(head)} {number(y + wide)}z",
        "screw",
    )
    turns = (
        f"M{number(tip - thread + i)} {number(y + half)}l2.4 {number(-2 * half)}" for i in range(0, int(thread - half * 3), 4)
    )
    pen.path("".join(turns), "screw-thread")
    reach = seat.reach.penetration_mm
    if reach > 0 and seat.in_stud and cut.plan.wall.uprights:
        below = y + wide + 16
        pen.path(
            f"M{number(cut.stud_x)} {number(y)}V{number(below + 5)}M{number(tip)} {number(y)}V{number(below + 5)}", "chalk-thin"
        )
        pen.path(_arrow(cut.stud_x, tip, below), "chalk")
        pen.text((cut.stud_x + tip) / 2, below + 14, f"{say_length(reach, cut.plan.units)} in the stud", "chalk-words", "middle")


def _arrow(x1: float, x2: float, y: float) -> str:
    return (
        f"M{number(x1)} {number(y)}H{number(x2)}M{number(x1 + 5)} {number(y - 3)}L{number(x1)} {number(y)}l5 3"
        f"M{number(x2 - 5)} {number(y - 3)}L{number(x2)} {number(y)}l-5 3"
    )


def _forces(pen: Pen, cut: _Cut, verdict: PieceVerdict) -> None:
    """The load that comes down and the pull on the screw, as arrows with what they are."""
    pull = next((check for check in verdict.checks if check.code == "screw.withdrawal" and check.support == cut.seat.index), None)
    units, y = cut.plan.units, cut.screw_y
    if pull is not None and cut.plan.wall.build == "timber":
        head = cut.back_x - cut.seat.side.thickness_mm * _PX - 4
        y = y if isinstance(cut.piece, BracketShelf) else max(y - 12, 12.0)
        pen.path(f"M{number(head)} {number(y)}h-34m7 -4l-7 4l7 4", "chalk chalk-strong")
        pen.text(head - 40, y + 4, f"pull {say.quantity(pull.demand, units)}", "chalk-words", "end")
    load = next(
        (step.result for check in verdict.checks if check.code == "screw.shear" for step in check.steps if step.symbol == "V"),
        None,
    )
    if load is not None:
        x = _FACE - min(cut.piece.depth_mm * _PX / 2, _FACE / 2)
        top = cut.under - cut.piece.thickness_mm * _PX
        if top > 22:
            pen.path(f"M{number(x)} {number(top - 24)}v21m-4 -7l4 7l4 -7", "chalk chalk-strong")
            pen.text(x - 8, top - 12, "load", "chalk-words", "end")
