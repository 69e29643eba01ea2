"""A cut through the wall at the chosen screw, seen from the side and to scale.

Layer by layer, the screw at its true length.
"""

from itertools import chain
from typing import NamedTuple

from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from bench.drawing.svg import Pen, number, outline, svg_element
from bench.words import say, worded
from trade import data, wording
from trade.check import PieceVerdict
from trade.measure import say_length
from trade.mounts import AnySupport, Support, mount_of
from trade.plan.features import Feature
from trade.plan.model import AnyPiece, Plan
from trade.plan.place import turned

WIDTH, HEIGHT = 412.0, 184.0
_PX = 1.55
_FACE = 186.0  # where the room meets the lining
_PULL_PX, _LOAD_PX = 150.0, 70.0  # no nearer to the left edge, no further from the wall
_FAR_PX = 44.0  # how far from the middle the screw may be drawn
ROLES = {  # how each role looks when it is cut
    "steel": "cut-steel",
    "hidden": "cut-steel",
    "leg": "cut-wood",
    "face": "cut-body",
    "door": "cut-body",
    "shade": "cut-body",
}


class _Cut(NamedTuple):
    """What is cut.

    Sheet places of the top screw, of what holds it and of the hardware's back; the height in the
    middle.
    """

    piece: AnyPiece
    plan: Plan
    support: AnySupport
    screw_y: float
    stud_x: float
    back_x: float
    focus_mm: float

    def y(self, height_mm: float) -> float:
        """Return a height above the floor on the sheet."""
        return HEIGHT / 2 - (height_mm - self.focus_mm) * _PX


def seat_in_question(piece: AnyPiece, plan: Plan, verdict: PieceVerdict) -> AnySupport | None:
    """Return the support whose screw is drawn: the one that governs, else the first."""
    supports = mount_of(piece).supports(piece, plan.wall)
    if not supports:
        return None
    asked = next((check.support for check in verdict.checks if check.support is not None), 0)
    round_corner = chain.from_iterable(mount_of(piece).beside(piece, plan.wall).values())
    found = (each for each in (*supports, *round_corner) if each.index == asked)
    return next(found, supports[-1])


def seat_plan(piece: AnyPiece, plan: Plan, support: AnySupport) -> Plan:
    """Return the place in front of the wall that a support is on: this one, or one beside it."""
    for side, made in mount_of(piece).beside(piece, plan.wall).items():
        if support in made:
            return turned(plan, (plan.before[-1] if side == "left" else plan.after[0]).key)
    return plan


def draw(piece: AnyPiece, plan: Plan, verdict: PieceVerdict, support: AnySupport) -> SafeString:
    """Draw the cut at the top screw of a support."""
    pen, cut = Pen(), _cut(piece, seat_plan(piece, plan, support), support)
    _layers(pen, cut)
    for shape in mount_of(piece).side(piece, support):
        places = ((max(_FACE - z * _PX, -40.0), cut.y(y)) for z, y in shape.points)
        pen.path(outline(places), ROLES.get(shape.role, "cut-board"))
    if isinstance(support, Support):
        _screw(pen, cut, support)
    _depth(pen, cut)
    _forces(pen, cut, verdict)
    deep = say_length(support.deep_mm - support.gap_mm, plan.units)
    where = (
        worded("in the {wood}", wood=support.stud.wood)
        if not support.anchored
        else _("in what holds it")
    )
    return svg_element(
        pen,
        WIDTH,
        HEIGHT,
        "section",
        worded(
            "Section through the wall at the {part}: {deep} {where}",
            part=support.part,
            deep=deep,
            where=where,
        ),
    )


def _cut(piece: AnyPiece, plan: Plan, support: AnySupport) -> _Cut:
    """Centre the sheet between the screw and the piece's middle, but keep the screw on it."""
    screw = max(y for _, y in support.holes)
    middle = (screw + piece.top_mm - piece.high_mm / 2) / 2
    focus = min(max(middle, screw - _FAR_PX / _PX), screw + _FAR_PX / _PX)
    back = _FACE + support.back_mm * _PX
    lining = 0.0 if support.stud.on_face else plan.wall.lining_mm or 0.0
    stud = _FACE + lining * _PX
    return _Cut(piece, plan, support, HEIGHT / 2 - (screw - focus) * _PX, stud, back, focus)


def _layers(pen: Pen, cut: _Cut) -> None:
    wall, support, x = cut.plan.wall, cut.support, _FACE
    board = support.stud.across if support.stud.on_face else None
    if board is not None:
        _wood(pen, cut, x, board)
        x += board.deep_mm * _PX
    for layer in wall.layers or ():
        wide = layer.thickness_mm * _PX
        pen.rect(x, 0, wide, HEIGHT, f"layer layer-{layer.kind.split('_')[0]}")
        pen.hatch(x, 0, wide, HEIGHT, 8, "layer-hatch")
        x += wide
    if wall.layers is None:
        pen.text(x - 8, HEIGHT - 8, _("lining not known"), "cut-words", "end")
    across = support.stud.across
    deep = support.stud.depth_mm * _PX
    known = support.in_stud and (bool(wall.uprights) or across is not None)
    if wall.build == "mass":
        deep = WIDTH - x
        pen.rect(x, 0, deep, HEIGHT, "layer cut-mass")
        pen.hatch(x, 0, deep, HEIGHT, 14, "layer-hatch")
        pen.text(
            x + deep / 2,
            HEIGHT - 10,
            data.structures()[wall.structure or ""].name,
            "cut-words cut-on-hatch",
            "middle",
        )
        return
    if board is not None:
        pen.rect(x, 0, WIDTH - x, HEIGHT, "cut-stud cut-missing")
        return
    if across is not None:
        pen.rect(x, 0, deep, HEIGHT, "cut-stud cut-missing")
        _wood(pen, cut, x, across)
        return
    if wall.build == "steel" and known:
        sheet = max((data.structures()[wall.structure or ""].steel_mm or 0.0) * _PX, 2.5)
        pen.rect(x, 0, deep, HEIGHT, "cut-stud cut-missing")
        pen.rect(x, 0, sheet, HEIGHT, "cut-steel")
        pen.rect(x + deep - sheet, 0, sheet, HEIGHT, "cut-steel")
        return
    pen.rect(x, 0, deep, HEIGHT, "cut-stud" if known else "cut-stud cut-missing")
    if known:
        lines = (
            f"M{number(x + i)} 0q{6 if n % 2 else -5} {HEIGHT / 2} 0 {HEIGHT}"
            for n, i in enumerate(range(9, int(deep) - 4, 13))
        )
        pen.path("".join(lines), "grain")
    else:
        words = (
            _("between studs")
            if support.anchored
            else _("no stud here")
            if wall.uprights
            else _("no stud known")
        )
        pen.text(x + deep / 2, HEIGHT - 10, words, "cut-words", "middle")


def _wood(pen: Pen, cut: _Cut, x: float, wood: Feature) -> None:
    """Draw blocking, a header or a board from its face on, cut across its grain."""
    top, bottom = max(cut.y(wood.top_mm), -2.0), min(cut.y(wood.bottom_mm), HEIGHT + 2)
    deep = wood.deep_mm * _PX
    pen.rect(x, top, deep, bottom - top, "cut-stud")
    for n, y in enumerate(range(int(top) + 9, int(bottom) - 4, 13)):
        pen.path(
            f"M{number(x)} {y}q{number(deep / 2)} {4 if n % 2 else -3} {number(deep)} 0",
            "grain",
        )


def _screw(pen: Pen, cut: _Cut, support: Support) -> None:
    anchor, y = (support.capacity.anchor if support.capacity is not None else None), cut.screw_y
    if support.capacity is not None and anchor is None:
        return
    side = max(support.side.thickness_mm * _PX, 3.0)
    head, tip = (
        cut.back_x - side,
        cut.back_x - support.side.thickness_mm * _PX + support.length_mm * _PX,
    )
    half = (anchor.screw_mm if anchor else support.screw.diameter_mm) * _PX / 2
    wide = (anchor.head_mm if anchor else support.screw.head_mm) * _PX / 2
    if anchor is not None and support.capacity is not None:
        _sleeve(pen, cut, support, y)
    thread = support.length_mm * _PX * 2 / 3
    core = half * 0.72
    pen.path(
        f"M{number(head)} {number(y - wide)}l{number(wide * 0.8)} "
        f"{number(wide - half)}H{number(tip - thread)}V{number(y - core)}"
        f"H{number(tip - half * 3)}L{number(tip)} {number(y)}L{number(tip - half * 3)} "
        f"{number(y + core)}H{number(tip - thread)}"
        f"V{number(y + half)}H{number(head + wide * 0.8)}L{number(head)} {number(y + wide)}z",
        "screw",
    )
    turns = (
        f"M{number(tip - thread + i)} {number(y + half)}l2.4 {number(-2 * half)}"
        for i in range(0, int(thread - half * 3), 4)
    )
    pen.path("".join(turns), "screw-thread")


def _sleeve(pen: Pen, cut: _Cut, support: Support, y: float) -> None:
    """Draw what the screw sits in: a plug in its hole, or wings open behind the lining."""
    capacity = support.capacity
    if capacity is None or capacity.anchor is None or capacity.anchor.kind == "steel_screw":
        return
    start, deep = cut.back_x + support.gap_mm * _PX, capacity.anchor.depth_mm * _PX
    half = max(capacity.anchor.hole_mm, capacity.anchor.screw_mm + 3) * _PX / 2
    if capacity.substrate.hollow and capacity.anchor.kind != "plug":
        behind = cut.stud_x
        pen.rect(_FACE, y - half, behind - _FACE, 2 * half, "sleeve")
        pen.path(
            outline([(behind, y), (behind + 9, y - 3 * half - 9), (behind, y - 3 * half - 6)]),
            "sleeve",
        )
        pen.path(
            outline([(behind, y), (behind + 9, y + 3 * half + 9), (behind, y + 3 * half + 6)]),
            "sleeve",
        )
        return
    pen.rect(start, y - half, deep, 2 * half, "sleeve")


def _depth(pen: Pen, cut: _Cut) -> None:
    """How deep it goes into what holds it, as a chalk measure below the screw."""
    support = cut.support
    start = cut.back_x + (support.gap_mm * _PX if isinstance(support, Support) else 0.0)
    if isinstance(support, Support) and not support.anchored:
        reach = support.reach.penetration_mm
        where = worded("in the {wood}", wood=support.stud.wood)
    elif isinstance(support, Support):
        capacity = support.capacity
        reach = (
            capacity.anchor.depth_mm
            if capacity and capacity.anchor and not capacity.substrate.hollow
            else 0.0
        )
        where = _("deep")
    else:
        reach, where = support.embedment_mm, _("in the stud")
    known = support.stud.across is not None or bool(cut.plan.wall.uprights)
    if reach <= 0 or not support.holds or (not support.anchored and not known):
        return
    below, tip = cut.screw_y + 24, start + reach * _PX
    pen.path(
        f"M{number(start)} {number(cut.screw_y)}V{number(below + 5)}M{number(tip)} "
        f"{number(cut.screw_y)}V{number(below + 5)}",
        "chalk-thin",
    )
    pen.path(_arrow(start, tip, below), "chalk")
    pen.text(
        (start + tip) / 2,
        below + 14,
        f"{say(say_length(reach, cut.plan.units))} {where}",
        "chalk-words",
        "middle",
    )


def _arrow(x1: float, x2: float, y: float) -> str:
    return (
        f"M{number(x1)} {number(y)}H{number(x2)}M{number(x1 + 5)} {number(y - 3)}L{number(x1)} "
        f"{number(y)}l5 3"
        f"M{number(x2 - 5)} {number(y - 3)}L{number(x2)} {number(y)}l-5 3"
    )


def _forces(pen: Pen, cut: _Cut, verdict: PieceVerdict) -> None:
    """Draw the load that comes down and the pull on the screw, as arrows with what they are."""
    codes, units = ("screw.withdrawal", "screw.withdrawal_en", "anchor.pull"), cut.plan.units
    pull = next(
        (
            check
            for check in verdict.checks
            if check.code in codes and check.support == cut.support.index
        ),
        None,
    )
    if pull is not None and isinstance(cut.support, Support):
        head = max(cut.back_x - cut.support.side.thickness_mm * _PX - 4, _PULL_PX)
        y = max(cut.screw_y, 12.0)
        pen.path(f"M{number(head)} {number(y)}h-34m7 -4l-7 4l7 4", "chalk chalk-strong")
        pen.text(
            head - 40,
            y + 4,
            worded("pull {force}", force=wording.quantity(pull.demand, units)),
            "chalk-words",
            "end",
        )
    loaded = any({"V", "P"} & check.values.keys() for check in verdict.checks)
    x, top = _FACE - min(cut.piece.depth_mm * _PX / 2, _LOAD_PX), cut.y(cut.piece.top_mm)
    if loaded and 38 < top < HEIGHT:
        pen.path(f"M{number(x)} {number(top - 24)}v21m-4 -7l4 7l4 -7", "chalk chalk-strong")
        pen.text(x - 8, top - 12, _("load"), "chalk-words", "end")
