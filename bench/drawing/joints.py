"""The corner of two boards, cut through: a side that stands, a board that meets it."""

from math import cos, radians, sin

from django.utils.safestring import SafeString

from bench.drawing.svg import Pen, outline, svg_element
from trade.data import Joint
from trade.language import compose

_WIDE, _HIGH, _THICK = 190.0, 120.0, 34.0
_LEFT, _LOW = 12.0, 62.0  # the side's outer face, the board's underside
_POCKET = radians(15.0)


def corner(key: str, joint: Joint) -> SafeString:
    """Draw how a joint holds a board to a side, seen from the front.

    Args:
        key: of its row.
        joint: the row.
    """
    pen = Pen()
    if joint.way == "mitred":
        _mitred(pen)
    else:
        deep = _THICK / 3 if joint.way == "housed" else 0.0
        face, top = _LEFT + _THICK, _LOW - _THICK
        pen.rect(_LEFT, 4.0, _THICK, _HIGH - 8.0, "joint-side")
        pen.rect(face - deep, top, _WIDE - face + deep - 6.0, _THICK, "joint-board")
        _fastener(pen, key, face, _LOW - _THICK / 2)
    name = compose("{joint!c}, cut through", joint=joint.name)
    return svg_element(pen, _WIDE, _HIGH, "joint", name)


def _mitred(pen: Pen) -> None:
    top, far = 22.0, _WIDE - 6.0
    left, inside = _LEFT, _LEFT + _THICK
    side = [(left, top), (inside, top + _THICK), (inside, _HIGH - 4.0), (left, _HIGH - 4.0)]
    board = [(left, top), (far, top), (far, top + _THICK), (inside, top + _THICK)]
    pen.path(outline(side), "joint-side")
    pen.path(outline(board), "joint-board")


def _fastener(pen: Pen, key: str, face: float, middle: float) -> None:
    """Draw the screw, dowel or biscuit of a joint."""
    if key == "screwed":
        pen.line(_LEFT, middle, face + 62.0, middle, "joint-steel")
        pen.path(
            outline([(_LEFT, middle - 7), (_LEFT, middle + 7), (_LEFT + 8, middle)]), "joint-head"
        )
    elif key == "pocket":
        run, low = 62.0, _LOW
        end = (face + run * cos(_POCKET), low - 2.0)
        start = (face - _THICK * 0.7, end[1] - (end[0] - face + _THICK * 0.7) * sin(_POCKET))
        pen.line(*start, *end, "joint-steel")
        pocket = [(face + 34.0, low), (end[0] + 26.0, low), (face + 34.0, low - 12.0)]
        pen.path(outline(pocket), "joint-hole")
    elif key == "dowelled":
        pen.rect(
            face - _THICK * 0.66, middle - 7.0, _THICK * 0.66 + 34.0, 14.0, "joint-dowel", rx=3
        )
    elif key == "biscuits":
        pen.ellipse(face, middle, 22.0, 5.0, "joint-dowel")
