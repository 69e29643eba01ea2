"""The tape measure along the top and left of the wall, in the person's units."""

from collections.abc import Iterable

from bench.drawing.scale import TAPE, Scale
from bench.drawing.svg import Pen, number
from trade.measure import IN_MM, Units
from trade.plan.model import Wall

_LEAST_LABEL_PX = 34.0
_LEAST_TICK_PX = 3.2
_GAP = 6.0
# tick steps in mm, small to large, and how many of each make a longer tick
_STEPS: dict[Units, tuple[float, ...]] = {
    "imperial": (IN_MM, 3 * IN_MM, 6 * IN_MM, 12 * IN_MM, 60 * IN_MM),
    "metric": (10, 50, 100, 500, 1000, 5000),
}
_LABELS: dict[Units, tuple[float, ...]] = {
    "imperial": (12 * IN_MM, 24 * IN_MM, 48 * IN_MM, 120 * IN_MM),
    "metric": (100, 200, 500, 1000, 2000, 5000),
}


def draw(pen: Pen, wall: Wall, scale: Scale, units: Units) -> None:
    """Both tapes."""
    left, top = _corner(wall, scale)
    pen.rect(scale.left, top, scale.length(wall.width_mm), TAPE, "tape")
    pen.rect(left, scale.y(wall.height_mm), TAPE, scale.length(wall.height_mm), "tape")
    ticks = []
    for mm, size in _ticks(wall.width_mm, scale, units):
        ticks.append(f"M{number(scale.x(mm))} {number(top + TAPE)}v{number(-size)}")
    for mm, size in _ticks(wall.height_mm, scale, units):
        ticks.append(f"M{number(left + TAPE)} {number(scale.y(mm))}h{number(-size)}")
    pen.path("".join(ticks), "tape-ticks")
    for mm, words in _labels(wall.width_mm, scale, units):
        pen.text(scale.x(mm) - 2.5, top + 10, words, "tape-words", "end")
    for mm, words in _labels(wall.height_mm, scale, units):
        pen.text(left + 10, scale.y(mm) + 2.5, words, "tape-words", "end", turn=-90)


def marks(pen: Pen, wall: Wall, scale: Scale, across: Iterable[float], up: Iterable[float]) -> None:
    """Draw marks on the tapes, in mm from the corner and the floor."""
    left, top = _corner(wall, scale)
    for mm in across:
        x, y = scale.x(mm), top + TAPE
        pen.path(f"M{number(x - 4)} {number(y)}h8l-4 6z", "tape-mark")
    for mm in up:
        x, y = left + TAPE, scale.y(mm)
        pen.path(f"M{number(x)} {number(y - 4)}v8l6 -4z", "tape-mark")


def _corner(wall: Wall, scale: Scale) -> tuple[float, float]:
    """Return the left of the tape that stands, and the top of the one that lies."""
    return scale.left - _GAP - TAPE, scale.y(wall.height_mm) - _GAP - TAPE


def _ticks(length: float, scale: Scale, units: Units) -> Iterable[tuple[float, float]]:
    steps = [step for step in _STEPS[units] if scale.length(step) >= _LEAST_TICK_PX]
    for i in range(1, int(length / steps[0] + 1e-6) + 1):
        mm = i * steps[0]
        rank = sum(abs(mm / step - round(mm / step)) < 1e-6 for step in steps)
        yield mm, min(3.0 + 2.5 * (rank - 1), TAPE)


def _labels(length: float, scale: Scale, units: Units) -> Iterable[tuple[float, str]]:
    step = next(
        (step for step in _LABELS[units] if scale.length(step) >= _LEAST_LABEL_PX),
        _LABELS[units][-1],
    )
    for i in range(1, int(length / step + 1e-6) + 1):
        mm = i * step
        yield mm, f"{round(mm / IN_MM / 12)}'" if units == "imperial" else f"{round(mm / 10)}"
