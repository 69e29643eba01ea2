"""A merit on its scale: five notches of a lath, as many of them cut as it is good."""

from django.utils.safestring import SafeString

from bench.drawing.svg import Pen, svg_element
from trade.language import compose

_NOTCHES, _WIDE, _HIGH, _STEP = 5, 46.0, 14.0, 9.0


def markup(mark: float) -> SafeString:
    """Return a mark from 0 to 1 to the nearest notch; what is not quite nothing shows a little."""
    pen, cut = Pen(), round(mark * _NOTCHES)
    for n in range(_NOTCHES):
        pen.rect(1 + n * _STEP, 2, _STEP - 2, _HIGH - 4, "notch-cut" if n < cut else "notch-left")
    return svg_element(pen, _WIDE, _HIGH, "merit", compose("{n} of {all}", n=cut, all=_NOTCHES))
