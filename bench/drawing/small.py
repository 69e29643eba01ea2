"""A piece cut at its first support, drawn small.

To tell ways to hang something apart at a glance.
"""

from django.utils.safestring import SafeString

from bench.drawing.section import ROLES
from bench.drawing.svg import Pen, outline, svg_element
from bench.words import worded
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan

_WIDE, _HIGH, _FACE = 96.0, 84.0, 22.0


def side(piece: AnyPiece, plan: Plan) -> SafeString:
    """Return the wall's layers at the left, the piece beside them, as large as it fits.

    What it goes into is drawn by its hatch.
    """
    pen = Pen()
    supports = mount_of(piece).supports(piece, plan.wall)
    shapes = mount_of(piece).side(piece, supports[0]) if supports else []
    across = [z for shape in shapes for z, _ in shape.points] or [0.0, piece.depth_mm]
    up = [y for shape in shapes for _, y in shape.points] or [
        piece.top_mm - piece.high_mm,
        piece.top_mm,
    ]
    scale = min(
        (_WIDE - _FACE - 6) / max(max(across), 60.0), (_HIGH - 10) / max(max(up) - min(up), 60.0)
    )
    middle = (max(up) + min(up)) / 2
    lining = min((plan.wall.lining_mm or 0.0) * scale, _FACE - 8)
    backing = "cut-mass" if plan.wall.build == "mass" else "cut-stud"
    held = getattr(supports[0], "held", None) if supports else None
    if (
        held is None or not held.substrate.hollow
    ):  # between studs there is nothing behind the lining
        pen.rect(0, 0, _FACE - lining, _HIGH, backing)
    if lining:
        pen.rect(_FACE - lining, 0, lining, _HIGH, "layer")
    for shape in shapes:
        places = [(_FACE + z * scale, _HIGH / 2 - (y - middle) * scale) for z, y in shape.points]
        pen.path(outline(places), ROLES.get(shape.role, "cut-board"))
    for support in supports[:1]:
        length = getattr(support, "length_mm", 0.0) or 40.0
        for _x, y in support.holes:
            at = _HIGH / 2 - (y - middle) * scale
            pen.line(_FACE + 2, at, max(_FACE - length * scale, 2.0), at, "small-screw")
    return svg_element(
        pen,
        _WIDE,
        _HIGH,
        "small-side",
        worded("{name}, seen from the side", name=mount_of(piece).name),
    )
