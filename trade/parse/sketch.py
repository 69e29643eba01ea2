"""A wall sketched along the tape, as people say it.

`16 3/8 stud, 31 7/8 stud, 40 outlet 12 high, 60 to 92 door`.

`16 every 16` sets studs to the end of the wall. A thing has a place (its middle, or from … to …)
and, where it matters, a height: `12 high` is the middle of what hangs, the top of what stands on
the floor; `36 to 72 high` is from bottom to top. A thing without a place runs along the whole wall:
`baseboard 4 high`. Blocking that is yet to be put in ends in `to fit`.
"""

import re
from collections.abc import Iterable
from typing import NamedTuple

from msgspec.structs import replace

from trade import data
from trade.errors import MeasureError, PlanError
from trade.language import compose
from trade.measure import Units, jotted, read_length, type_length
from trade.plan.features import Feature, usual

MOST_STUDS, _CLOSEST_MM = 200, 50.0
_TO_FIT, _DEEP = "to fit", "deep"
Shown = dict[str, float | Feature]
_EVERY = re.compile(r"^(?P<first>.+?)\s+every\s+(?P<step>.+?)(?:\s+studs?)?$")


class Sketch(NamedTuple):
    """What was said: studs by their centres, mm, and things."""

    studs_mm: tuple[float, ...]
    features: tuple[Feature, ...]


def read(
    text: str, units: Units, wall_mm: tuple[float, float], shown: Shown | None = None
) -> Sketch:
    """Read a sketch. A bare place is a stud's.

    Args:
        text: parts between commas, semicolons or new lines.
        units: of bare numbers.
        wall_mm: width and height of the wall.
        shown: studs and things by how they were shown, so that what was not changed stays exact.

    Raises:
        PlanError: a part cannot be read, or lies outside the wall; the sentence says which.
    """
    studs: list[float] = []
    features: list[Feature] = []
    parts = [part.strip() for part in re.split(r"[,;\n]", text) if part.strip()]
    for n, part in enumerate(parts, start=1):
        try:
            said = jotted(part, "stud or a thing on the wall").lower()
            if shown and part in shown:
                exact = shown[part]
                features.append(exact) if isinstance(exact, Feature) else studs.append(exact)
            elif kind := _kind_in(said):
                features.append(_feature(kind, said, units, wall_mm))
            elif every := _EVERY.match(said):
                studs += _every(
                    read_length(every["first"], units),
                    read_length(every["step"], units),
                    wall_mm[0],
                )
            else:
                studs.append(read_length(re.sub(r"\s+studs?$", "", said), units))
        except MeasureError as error:
            raise PlanError(
                compose("“{part}”, part {n}: {error}", part=part[:60], n=n, error=error.said),
                "studs",
            ) from None
        except PlanError as error:
            raise PlanError(
                compose("“{part}”, part {n}: {error}", part=part[:60], n=n, error=error.said),
                "features",
            ) from None
    for x in studs:
        if x > wall_mm[0]:
            wide = type_length(wall_mm[0], units)
            raise PlanError(
                compose(
                    "A stud at {x} would stand outside the wall, which is {wide} wide.",
                    x=type_length(x, units),
                    wide=wide,
                ),
                "studs",
            )
    return Sketch(tuple(sorted(set(studs))), tuple(features))


def _every(first: float, step: float, width_mm: float) -> list[float]:
    if step < _CLOSEST_MM:
        raise PlanError("Studs must be at least 50 mm (2 in) apart.")
    count = min(int((width_mm - first) / step + 1e-6) + 1, MOST_STUDS)
    return [min(first + n * step, width_mm) for n in range(max(count, 0))] or [first]


def _kind_in(said: str) -> str | None:
    found = [
        (len(row.name), key)
        for key, row in data.features().items()
        if re.search(rf"(?:^|\s){row.name.lower()}(?:\s|$)", said)
    ]
    return max(found)[1] if found else None  # a pipe on the wall is no pipe in it


def _feature(kind: str, said: str, units: Units, wall_mm: tuple[float, float]) -> Feature:
    row, (width, height) = data.features()[kind], wall_mm
    place, _, rest = said.partition(row.name.lower())
    rest, to_fit = rest.strip().removesuffix(_TO_FIT).strip(), rest.strip().endswith(_TO_FIT)
    rest, _, deep = rest.partition(" high ") if rest.endswith(_DEEP) else (rest, "", "")
    place, high = place.strip(), re.sub(r"\s*(?:high|up)$", "", rest)
    start, _, end = place.partition(" to ")
    if end:
        left, right = sorted((read_length(start, units), read_length(end, units)))
    elif place:
        centre = read_length(place, units)
        left, right = centre - row.width_mm / 2, centre + row.width_mm / 2
    else:
        left, right = (0.0, width) if not row.width_mm else _nowhere(row.name)
    made = replace(usual(kind, (left + right) / 2, None, wall_mm), to_fit=to_fit)
    if deep:
        made = replace(made, depth_mm=read_length(deep.removesuffix(_DEEP).strip(), units))
    if left >= width or (end and right > width + 0.05):
        raise PlanError(
            compose(
                "that is outside the wall, which is {width} wide.", width=type_length(width, units)
            )
        )
    if end or not row.width_mm:
        made = replace(made, left_mm=max(left, 0.0), right_mm=min(right, width))
    if not high:
        return made
    bottom, _, top = high.partition(" to ")
    if top:
        low, up = sorted((read_length(bottom, units), read_length(top, units)))
        made = replace(made, bottom_mm=low, top_mm=up)
    else:
        up = read_length(high, units)
        if row.bottom_mm > 0:
            placed = usual(kind, made.centre_mm, up, wall_mm)
            made = replace(made, bottom_mm=placed.bottom_mm, top_mm=placed.top_mm)
        elif row.bottom_mm < 0:
            made = replace(made, bottom_mm=max(height - up, 0.0))
        else:
            made = replace(made, top_mm=up)
    if up > height + 0.05:
        raise PlanError(
            compose(
                "that is higher than the wall, which is {height} high.",
                height=type_length(height, units),
            )
        )
    return made


def _nowhere(name: str) -> tuple[float, float]:
    raise PlanError(
        compose("say where the {name} is: its middle along the tape, or from … to ….", name=name)
    )


def write(features: Iterable[Feature], units: Units, wall_mm: tuple[float, float]) -> str:
    """Things so that reading them again gives the same, to 1/64 in or 0.1 mm; one a line."""
    return "\n".join(word_of(feature, units, wall_mm) for feature in features)


def word_of(f: Feature, units: Units, wall_mm: tuple[float, float]) -> str:
    """One thing as it is said: as short as it can be where it is of the usual size."""
    deep = f" {type_length(f.depth_mm, units)} {_DEEP}" if f.depth_mm else ""
    return _placed_word(f, units, wall_mm) + deep + (f" {_TO_FIT}" if f.to_fit else "")


def _placed_word(f: Feature, units: Units, wall_mm: tuple[float, float]) -> str:
    def said(mm: float) -> str:
        return type_length(mm, units)

    name, common = f.row.name.lower(), usual(f.kind, f.centre_mm, f.middle_mm, wall_mm)
    where = f"{said(f.left_mm)} to {said(f.right_mm)} {name}"
    if _alike(common.left_mm, f.left_mm) and _alike(common.right_mm, f.right_mm):
        where = f"{said(f.centre_mm)} {name}" if f.row.width_mm else name
    if (
        f.row.bottom_mm > 0
        and _alike(common.bottom_mm, f.bottom_mm)
        and _alike(common.top_mm, f.top_mm)
    ):
        return f"{where} {said(f.middle_mm)} high"
    if f.row.bottom_mm == 0 and not f.bottom_mm:
        return where if _alike(common.top_mm, f.top_mm) else f"{where} {said(f.top_mm)} high"
    if f.row.bottom_mm < 0 and _alike(f.top_mm, wall_mm[1]):
        return f"{where} {said(f.top_mm - f.bottom_mm)} high"
    return f"{where} {said(f.bottom_mm)} to {said(f.top_mm)} high"


def _alike(a: float, b: float) -> bool:
    return abs(a - b) < 0.05
