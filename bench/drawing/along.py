"""What may hang at each place along a piece, drawn as a line over its length."""

from django.utils.safestring import SafeString

from bench.drawing.svg import Pen, number, svg_element
from bench.words import worded
from trade.choose.along import Place
from trade.measure import Units, say_weight
from trade.plan.model import AnyPiece

_WIDE, _HIGH, _TOP, _FOOT = 343.0, 104.0, 20.0, 84.0


def draw(piece: AnyPiece, places: tuple[Place, ...], units: Units) -> SafeString:
    """Return a line as high as what may hang there.

    The studs as ticks, the least and the greatest in words.
    """
    pen = Pen()
    most, least = max(places, key=lambda place: place.kg), min(places, key=lambda place: place.kg)
    high = max(most.kg, 0.1)

    def at(place: Place) -> tuple[float, float]:
        return _WIDE * place.at_mm / piece.length_mm, _FOOT - (_FOOT - _TOP) * place.kg / high

    points = [at(place) for place in places]
    line = "L".join(f"{number(x)} {number(y)}" for x, y in points)
    pen.path(f"M0 {number(_FOOT)}L{line}L{number(_WIDE)} {number(_FOOT)}z", "along-area")
    pen.path(f"M{line}", "chalk chalk-strong")
    pen.line(0, _FOOT, _WIDE, _FOOT, "along-foot")
    for x in piece.supports_mm:
        tick = _WIDE * x / piece.length_mm
        pen.line(tick, _FOOT, tick, _FOOT + 6, "along-foot")
    for place, lift in ((most, -5.0), (least, 13.0)):
        x, y = at(place)
        anchor = "start" if x < 50 else "end" if x > _WIDE - 50 else "middle"
        pen.text(x, min(y + lift, _FOOT - 3), say_weight(place.kg, units), "chalk-words", anchor)
    pen.text(0, _HIGH - 4, worded("studs"), "cut-words")
    said = worded(
        "One thing alone may weigh from {least} to {most}, by where it hangs",
        least=say_weight(least.kg, units),
        most=say_weight(most.kg, units),
    )
    return svg_element(pen, _WIDE, _HIGH, "along", said)
