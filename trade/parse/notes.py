"""Readings as people jot them down beside the tape: `48 up.

Swept 0 to 144, 15 1/4 left, 16 3/4 right, 32 magnet, 40 air`.

One line is one pass at one height. Words: left, right (a finder's edges), magnet, wood, air, metal,
hard (what a nail met, and `at 5/8` how deep), full, hollow (a knock), seen (a stud at a box),
pinned, struck (the person's own word), swept A to B.
"""

import re
from collections.abc import Callable, Iterable

from msgspec.structs import replace

from trade.errors import MeasureError, PlanError
from trade.language import compose
from trade.measure import Units, jotted, read_length, type_length
from trade.plan.readings import ByHand, Edge, Knock, MagnetHit, Probe, Reading, Seen, Sweep

MOST = 2_000
_SWEPT = re.compile(r"^swept\s+(?P<start>.+?)\s+to\s+(?P<end>.+)$")
_UP = re.compile(r"^(?P<height>[^:]+?)\s+up\s*:(?P<rest>.*)$")
_DEEP = re.compile(r"^(?P<rest>.+?\b(?:wood|air|metal|hard))\s+at\s+(?P<depth>.+)$")
_WORDS: dict[str, Callable[[float, float], Reading]] = {
    "left": lambda x, up: Edge(at_mm=x, side="left", height_mm=up),
    "right": lambda x, up: Edge(at_mm=x, side="right", height_mm=up),
    "magnet": lambda x, up: MagnetHit(at_mm=x, height_mm=up),
    "wood": lambda x, up: Probe(at_mm=x, met="wood", height_mm=up),
    "air": lambda x, up: Probe(at_mm=x, met="air", height_mm=up),
    "metal": lambda x, up: Probe(at_mm=x, met="metal", height_mm=up),
    "hard": lambda x, up: Probe(at_mm=x, met="hard", height_mm=up),
    "full": lambda x, up: Knock(at_mm=x, sound="full", height_mm=up),
    "hollow": lambda x, up: Knock(at_mm=x, sound="hollow", height_mm=up),
    "seen": lambda x, up: Seen(at_mm=x, height_mm=up),
    "pinned": lambda x, up: ByHand(at_mm=x, word="pinned", height_mm=up),
    "struck": lambda x, up: ByHand(at_mm=x, word="struck", height_mm=up),
}


def read(text: str, units: Units, width_mm: float) -> tuple[Reading, ...]:
    """Read jottings.

    Raises:
        PlanError: something cannot be read, or lies outside the wall; the sentence says in which
          line, and what.
    """
    found: list[Reading] = []
    for n, line in enumerate(text.splitlines(), start=1):
        height, rest = 0.0, " ".join(line.lower().split())
        try:
            if prefix := _UP.match(rest):
                height, rest = read_length(prefix["height"], units), prefix["rest"]
            parts = [jotted(part, "reading") for part in re.split(r"[,;]", rest) if part.strip()]
            found += [_one(part, units, height, width_mm) for part in parts]
        except (MeasureError, PlanError) as error:
            raise PlanError(
                compose("Line {n}: {error}", n=n, error=error.said), "readings"
            ) from None
        if len(found) > MOST:
            raise PlanError(compose("At most {most} readings per wall.", most=MOST), "readings")
    return tuple(found)


def _one(part: str, units: Units, height: float, width_mm: float) -> Reading:
    if swept := _SWEPT.match(part):
        ends = sorted(read_length(swept[name], units) for name in ("start", "end"))
        return Sweep(from_mm=ends[0], to_mm=min(ends[1], width_mm), height_mm=height)
    depth = None
    if deep := _DEEP.match(part):
        part, depth = deep["rest"], read_length(deep["depth"], units)
    place, _, word = part.rpartition(" ")
    if word not in _WORDS:
        raise PlanError(
            compose(
                "“{part}” must end in one of these words: {words}, or swept … to ….",
                part=part,
                words=", ".join(_WORDS),
            )
        )
    at = read_length(place, units)
    if at > width_mm:
        raise PlanError(
            compose(
                "“{part}” is outside the wall, which is {width_mm} wide.",
                part=part,
                width_mm=type_length(width_mm, units),
            )
        )
    made = _WORDS[word](at, height)
    return replace(made, depth_mm=depth) if depth is not None else made


def write(readings: Iterable[Reading], units: Units) -> str:
    """Write readings so that reading them again gives the same, to 1/64 in or 0.1 mm.

    A line per height.
    """
    lines: dict[float, list[str]] = {}
    for r in readings:
        lines.setdefault(r.height_mm, []).append(word_of(r, units))
    return "\n".join(
        (f"{type_length(height, units)} up: " if height else "") + ", ".join(parts)
        for height, parts in lines.items()
    )


def word_of(r: Reading, units: Units) -> str:
    """One reading as it is jotted down."""
    if isinstance(r, Sweep):
        return f"swept {type_length(r.from_mm, units)} to {type_length(r.to_mm, units)}"
    words = {Edge: "side", Probe: "met", Knock: "sound", ByHand: "word"}
    word = (
        getattr(r, words[type(r)])
        if type(r) in words
        else "magnet"
        if isinstance(r, MagnetHit)
        else "seen"
    )
    deep = (
        f" at {type_length(r.depth_mm, units)}"
        if isinstance(r, Probe) and r.depth_mm is not None
        else ""
    )
    return f"{type_length(r.at_mm, units)} {word}{deep}"
