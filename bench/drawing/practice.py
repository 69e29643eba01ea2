"""A practice wall from the front.

What anybody sees, what was done at it, and, once uncovered, what stood behind it.
"""

from collections.abc import Iterable
from typing import NamedTuple

from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from bench.drawing import around, tape
from bench.drawing.scale import Scale, of_wall
from bench.drawing.svg import Pen, number
from bench.words import worded
from trade.devices.hidden import HiddenWall
from trade.measure import Units, say_length
from trade.plan.model import Plan
from trade.wall.found import Found

_TAPE_MM = (40.0, 90.0)


class Truth(NamedTuple):
    """What comes to light: the hidden wall, and what the inference made of the readings."""

    hidden: HiddenWall
    weighed: tuple[Found, ...]


def narrow_view(plan: Plan) -> str:
    """Return the part of the sheet that a phone shows, large enough for a finger.

    The tape, and the wall down to below the chest.
    """
    scale = of_wall(plan.wall)
    left, right = scale.left - 32, scale.x(plan.wall.width_mm) + 6
    return f"{number(left)} 0 {number(right - left)} {number(scale.y(900.0))}"


def draw(plan: Plan, marks: SafeString, truth: Truth | None) -> tuple[SafeString, Scale]:
    """Draw the wall with the marks on it; and the scale, for the pointer."""
    pen, scale = Pen(), of_wall(plan.wall)
    tape.draw(pen, plan.wall, scale, plan.units)
    x, y = scale.x(0), scale.y(plan.wall.height_mm)
    wide, high = scale.length(plan.wall.width_mm), scale.length(plan.wall.height_mm)
    pen.rect(x, y, wide, high, "wall wall-lined", id="wall-face")
    if truth is not None:
        _uncovered(pen, truth, plan.units, scale)
    for feature in plan.wall.features:
        around.feature(pen, feature, plan.wall, plan.units, scale)
    with pen.group("practice-marks", id="marks"):
        pen.put(marks)
    return pen.markup(), scale


def marks(plan: Plan, tapes: Iterable[tuple[float, float]], calls: Iterable[float]) -> SafeString:
    """Return what was done: readings, strips of tape, calls."""
    pen, scale = Pen(), of_wall(plan.wall)
    for x, y in tapes:
        wide, high = (scale.length(mm) for mm in _TAPE_MM)
        with pen.group("strip"):
            pen.title(worded("Tape at {x}", x=say_length(x, plan.units)))
            pen.rect(scale.x(x) - wide / 2, scale.y(y) - high / 2, wide, high, "strip-tape")
    around.readings(pen, plan, scale)
    for x in calls:
        at, top, foot = scale.x(x), scale.y(plan.wall.height_mm), scale.y(0)
        with pen.group("call"):
            pen.title(worded("You say: a stud at {x}", x=say_length(x, plan.units)))
            pen.line(at, top, at, foot, "call-line")
            pen.path(f"M{number(at - 7)} {number(top)}h14l-7 10z", "call-flag")
    return pen.markup()


def _uncovered(pen: Pen, truth: Truth, units: Units, scale: Scale) -> None:
    hidden = truth.hidden
    with pen.group("truth"):
        for m in hidden.members:
            x, wide = scale.x(m.centre_mm - m.width_mm / 2), scale.length(m.width_mm)
            with pen.group("stud"):
                pen.title(
                    worded(
                        "Doubled stud at {place}" if m.kind == "double" else "Stud at {place}",
                        place=say_length(m.centre_mm, units),
                    )
                )
                pen.rect(
                    x, scale.y(m.top_mm), wide, scale.length(m.top_mm - m.bottom_mm), "stud-wood"
                )
                for edge in (x, x + wide):
                    pen.line(edge, scale.y(m.top_mm), edge, scale.y(m.bottom_mm), "stud-edge")
        for s in hidden.services:
            with pen.group(f"service service-{s.kind}"):
                pen.title(
                    worded(
                        "A {kind} at {centre}", kind=s.kind, centre=say_length(s.centre_mm, units)
                    )
                )
                pen.line(
                    scale.x(s.centre_mm),
                    scale.y(2440.0),
                    scale.x(s.centre_mm),
                    scale.y(0),
                    "service-run",
                )
        for centre, wide_mm in hidden.patches:
            with pen.group("patch"):
                pen.title(_("A patch in the lining"))
                pen.rect(
                    scale.x(centre - wide_mm / 2),
                    scale.y(2200.0),
                    scale.length(wide_mm),
                    scale.length(1600.0),
                    "patch-fill",
                )
        for found in truth.weighed:
            x = scale.x(found.centre_mm)
            with pen.group("weighed"):
                pen.title(
                    worded(
                        "Your readings, weighed together: a stud at {centre_mm}",
                        centre_mm=say_length(found.centre_mm, units),
                    )
                )
                pen.path(f"M{number(x - 7)} {number(scale.y(0))}h14l-7 -10z", "weighed-flag")
