"""How a wall lies.

Flat, plumb, square, level, as measured; and how people jot that down, a line a measurement.

`48 up: gaps 0 at 0, 1/8 at 24, 0 at 48` under a straightedge · `plumb at 30: 12 to 84 up, 1/4 out`
(the upper place stands out into the room; `in`: away) · `left corner 90.5` degrees, or `left corner
36 by 48 is 60 1/8` (3-4-5) · `ceiling 48 1/4 at 0, 48 at 96` up from a level line · `floor 47 3/4
at 0, 48 at 96` down from it · `width 35 7/8 at 60 up` of a niche, `, 36 at 16 out`.
"""

import math
import re
from collections.abc import Callable, Sequence
from itertools import pairwise
from typing import Literal, TypeVar

import msgspec

from trade.errors import MeasureError, PlanError
from trade.language import Figure, compose
from trade.measure import ABSURD_MM, Units, read_length, type_length

Point = tuple[float, float]
Side = Literal["left", "right"]
Line = Literal["ceiling", "floor"]
SQUARE_WITHIN_DEG = 30.0


class _Measured(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    pass


_Kind = TypeVar("_Kind", bound=_Measured)


def _sane(where: str, *values: float | None) -> None:
    for value in values:
        if value is not None and not (math.isfinite(value) and abs(value) <= ABSURD_MM):
            raise PlanError(
                compose("{place} mm is not on the wall.", place=Figure(f"{value:.6g}")), where
            )


def _rising(where: str, points: tuple[Point, ...]) -> None:
    _sane(where, *(value for point in points for value in point))
    if len(points) < 2:
        raise PlanError("Measure at two places or more.", where)
    if any(b <= a for (a, _), (b, _) in pairwise(points)):
        raise PlanError("Give the places from left to right, each once.", where)


class Straightedge(_Measured, frozen=True, kw_only=True):
    """Gaps under a straightedge held level against the wall: (place along the wall, gap), mm."""

    height_mm: float
    gaps_mm: tuple[Point, ...]

    def __post_init__(self) -> None:
        """Refuse what is no row of gaps."""
        _rising("gaps_mm", self.gaps_mm)
        _sane("height_mm", self.height_mm)
        if any(gap < 0 for _, gap in self.gaps_mm):
            raise PlanError("A gap can't be negative.", "gaps_mm")


class Plumb(_Measured, frozen=True, kw_only=True):
    """The wall against a plumb line.

    How much further into the room than the low place the high place stands (less: away).
    """

    at_mm: float
    low_mm: float
    high_mm: float
    out_mm: float

    def __post_init__(self) -> None:
        """Refuse a plumb line of no length."""
        _sane("plumb", self.at_mm, self.low_mm, self.high_mm, self.out_mm)
        if self.high_mm - self.low_mm < 100:
            raise PlanError(
                "Measure plumb between two heights at least 100 mm (4 in) apart.", "high_mm"
            )

    @property
    def slope(self) -> float:
        """Out of plumb, mm per mm of height."""
        return self.out_mm / (self.high_mm - self.low_mm)


class Corner(_Measured, frozen=True, kw_only=True):
    """The angle between the wall and the next one; over 90 degrees it opens."""

    side: Side
    angle_deg: float

    def __post_init__(self) -> None:
        """Refuse what is no corner of a room."""
        if not abs(self.angle_deg - 90) <= SQUARE_WITHIN_DEG:
            raise PlanError(
                compose(
                    "A corner of {angle_deg} degrees is not possible here: 60 to 120.",
                    angle_deg=Figure(f"{self.angle_deg:.1f}"),
                ),
                "angle_deg",
            )


class RunOut(_Measured, frozen=True, kw_only=True):
    """Ceiling or floor from a level line: (place along the wall, distance), mm."""

    line: Line
    points_mm: tuple[Point, ...]

    def __post_init__(self) -> None:
        """Refuse what is no line."""
        _rising("points_mm", self.points_mm)


class NicheWidth(_Measured, frozen=True, kw_only=True):
    """From side wall to side wall, at a height; `out_mm` from the back wall."""

    height_mm: float
    width_mm: float
    out_mm: float = 0.0

    def __post_init__(self) -> None:
        """Refuse widths of nowhere."""
        _sane("width_mm", self.height_mm, self.width_mm, self.out_mm)


class Flatness(_Measured, frozen=True, kw_only=True):
    """All that was measured of how a wall lies."""

    straightedges: tuple[Straightedge, ...] = ()
    plumbs: tuple[Plumb, ...] = ()
    corners: tuple[Corner, ...] = ()
    run_outs: tuple[RunOut, ...] = ()
    widths: tuple[NicheWidth, ...] = ()

    def __post_init__(self) -> None:
        """Refuse what is said twice, differently."""
        for what, keys in (
            ("corner", [c.side for c in self.corners]),
            ("line", [r.line for r in self.run_outs]),
        ):
            if len(set(keys)) != len(keys):
                raise PlanError(compose("The same {what} is given twice.", what=what), "lie")
        if sum(map(len, (self.straightedges, self.plumbs, self.widths))) > 200:
            raise PlanError("At most 200 measurements of how a wall lies.", "lie")


_GAPS = re.compile(r"^(?P<up>[^:]+?)\s+up\s*:\s*gaps?\s+(?P<points>.+)$")
_PLUMB = re.compile(
    r"^plumb\s+at\s+(?P<at>[^:]+):\s*(?P<low>.+?)\s+to\s+(?P<high>.+?)\s+up\s*,\s*(?P<off>.+?)\s+(?P<way>out|in)$"
)
_CORNER = re.compile(
    r"^(?P<side>left|right)\s+corner\s+(?P<angle>\d+(?:[.,]\d+)?)(?:\s*(?:°|deg|degrees))?$"
)
_TRIANGLE = re.compile(
    r"^(?P<side>left|right)\s+corner\s+(?P<a>.+?)\s+by\s+(?P<b>.+?)\s+is\s+(?P<c>.+)$"
)
_RUN = re.compile(r"^(?P<line>ceiling|floor)\s+(?P<points>.+)$")
_WIDTH = re.compile(
    r"^width\s+(?P<width>.+?)\s+at\s+(?P<up>.+?)\s+up(?:\s*,\s*(?P<out>.+?)\s+out)?$"
)


_POINTS = (_GAPS, _RUN)
_MOST_SHORT = 200


def read(text: str, units: Units) -> Flatness:
    """Read jottings of how a wall lies.

    Raises:
        PlanError: a line cannot be read; the sentence says which, and what would be right.
    """
    made: list[_Measured] = []
    for n, line in enumerate(text.splitlines(), start=1):
        said = " ".join(line.lower().split())
        if not said:
            continue
        try:
            made.append(_one(said, units))
        except (MeasureError, PlanError) as error:
            raise PlanError(compose("Line {n}: {error}", n=n, error=error.said), "lie") from None

    return Flatness(
        straightedges=_of(Straightedge, made),
        plumbs=_of(Plumb, made),
        corners=_of(Corner, made),
        run_outs=_of(RunOut, made),
        widths=_of(NicheWidth, made),
    )


def _of(kind: type[_Kind], made: Sequence[_Measured]) -> tuple[_Kind, ...]:
    return tuple(each for each in made if isinstance(each, kind))


def _one(said: str, units: Units) -> _Measured:
    def mm(words: str) -> float:
        return read_length(words, units)

    readers: list[tuple[re.Pattern[str], Callable[[re.Match[str]], _Measured]]] = [
        (_GAPS, lambda m: Straightedge(height_mm=mm(m["up"]), gaps_mm=_points(m["points"], units))),
        (
            _PLUMB,
            lambda m: Plumb(
                at_mm=mm(m["at"]),
                low_mm=mm(m["low"]),
                high_mm=mm(m["high"]),
                out_mm=mm(m["off"]) * (1 if m["way"] == "out" else -1),
            ),
        ),
        (
            _CORNER,
            lambda m: Corner(side=_side(m["side"]), angle_deg=float(m["angle"].replace(",", "."))),
        ),
        (
            _TRIANGLE,
            lambda m: Corner(
                side=_side(m["side"]), angle_deg=_angle(mm(m["a"]), mm(m["b"]), mm(m["c"]))
            ),
        ),
        (
            _WIDTH,
            lambda m: NicheWidth(
                height_mm=mm(m["up"]),
                width_mm=mm(m["width"]),
                out_mm=mm(m["out"]) if m["out"] else 0.0,
            ),
        ),
        (
            _RUN,
            lambda m: RunOut(
                line="ceiling" if m["line"] == "ceiling" else "floor",
                points_mm=_points(m["points"], units),
            ),
        ),
    ]
    for pattern, make in readers:
        if (pattern in _POINTS or len(said) <= _MOST_SHORT) and (found := pattern.match(said)):
            return make(found)
    raise PlanError(
        compose(
            "“{said}” is not understood. Begin a line with “48 up: gaps …”, plumb at …, "
            "left corner …, ceiling …, floor …, width ….",
            said=said[:60],
        )
    )


def _side(word: str) -> Side:
    return "left" if word == "left" else "right"


def _points(said: str, units: Units) -> tuple[Point, ...]:
    points = []
    for part in re.split(r"[,;]", said):
        value, at, place = part.strip().partition(" at ")
        if not at:
            raise PlanError(
                compose("“{part}” has no place: say how much, and where.", part=part.strip())
            )
        points.append((read_length(place, units), read_length(value, units)))
    return tuple(sorted(points))


def _angle(a: float, b: float, c: float) -> float:
    """Return the angle between two legs from the line across, by the law of cosines."""
    if a <= 0 or b <= 0 or not abs(a - b) < c < a + b:
        raise PlanError("Those three lengths don't form a triangle.")
    return math.degrees(math.acos((a * a + b * b - c * c) / (2 * a * b)))


def write(flatness: Flatness, units: Units) -> str:
    """Write a wall's flatness so that reading it again gives the same.

    To 1/64 in or 0.1 mm, and 0.01°.
    """

    def mm(value: float) -> str:
        return type_length(value, units)

    def points(these: tuple[Point, ...]) -> str:
        return ", ".join(f"{mm(value)} at {mm(place)}" for place, value in these)

    lines = [f"{mm(s.height_mm)} up: gaps {points(s.gaps_mm)}" for s in flatness.straightedges]
    lines += [
        f"plumb at {mm(p.at_mm)}: {mm(p.low_mm)} to {mm(p.high_mm)} up, {mm(abs(p.out_mm))} "
        f"{'out' if p.out_mm >= 0 else 'in'}"
        for p in flatness.plumbs
    ]
    lines += [
        f"{c.side} corner {c.angle_deg:.2f}".rstrip("0").rstrip(".") for c in flatness.corners
    ]
    lines += [f"{r.line} {points(r.points_mm)}" for r in flatness.run_outs]
    lines += [
        f"width {mm(w.width_mm)} at {mm(w.height_mm)} up"
        + (f", {mm(w.out_mm)} out" if w.out_mm else "")
        for w in flatness.widths
    ]
    return "\n".join(lines)
