"""The door of the survey: a wall and its readings in, what they amount to out."""

from math import exp, log
from statistics import median
from typing import NamedTuple

from trade import data
from trade.calculation import Quantity
from trade.check import Message, Placeholders
from trade.language import compose
from trade.memo import memoized
from trade.plan.features import Feature
from trade.plan.model import Wall
from trade.plan.readings import Edge, Knock, Probe, Reading, Sweep
from trade.wall.found import Inference
from trade.wall.infer import infer
from trade.wall.reasons import Contradiction, ask_mm, contradictions

_MASONRY_FROM = data.house("masonry_from")
_PRIOR = data.house("masonry_prior")
_SILENT_MM = data.house("silent_mm")
# how likely each reading is on masonry, and on studs
_NAILS = {
    "hard": (data.house("nail_hard_mass"), data.house("nail_hard_studs")),
    "wood": (data.house("nail_wood_mass"), data.house("nail_wood_studs")),
    "air": (data.house("nail_air_mass"), data.house("nail_air_studs")),
    "metal": (data.house("nail_metal_mass"), data.house("nail_metal_studs")),
}
_KNOCKS = {
    "full": (data.house("knock_full_mass"), data.house("knock_full_studs")),
    "hollow": (data.house("knock_hollow_mass"), data.house("knock_hollow_studs")),
}
_SILENT = data.house("silent_mass"), data.house("silent_studs")
_EDGE = data.house("edge_mass"), data.house("edge_studs")
_DEPTH_OFF_MM = data.house("depth_off_mm")


class Survey(NamedTuple):
    """What is known of a wall.

    `masonry`: that there are no studs to find, in words; None while there may be. `lining_mm`: how
    deep nails went before they met something. `contradictions`: places; `doubts`: what contradicts
    what the person said of the wall as a whole.
    """

    inference: Inference
    masonry: str | None
    lining_mm: float | None
    contradictions: tuple[Contradiction, ...]
    doubts: tuple[Message, ...]


@memoized(limit=64)  # a shelf that is dragged about changes nothing of it
def _inferred(
    width_mm: float, readings: tuple[Reading, ...], openings: tuple[Feature, ...], steel: bool
) -> Inference:
    return infer(width_mm, readings, openings, steel)


def survey(wall: Wall, wanted_mm: tuple[float, ...] = ()) -> Survey:
    """Return what all readings of a wall amount to, with its openings and its make-up.

    Args:
        wall: with its readings.
        wanted_mm: where something is to be held: what to read next is sought there first.
    """
    chance = masonry_probability(wall.readings)
    masonry = _masonry(wall, chance)
    inference = (
        Inference()
        if masonry
        else _inferred(wall.width_mm, wall.readings, wall.openings, wall.build == "steel")
    )
    if wanted_mm:
        inference = inference._replace(ask_mm=ask_mm(inference.studs, wall.width_mm, wanted_mm))
    depths = [
        r.depth_mm
        for r in wall.readings
        if isinstance(r, Probe) and r.depth_mm is not None and r.met != "air"
    ]
    lining = median(depths) if depths else None
    return Survey(
        inference,
        masonry,
        lining,
        contradictions(wall.readings),
        tuple(_doubts(wall, chance, lining)),
    )


def masonry_probability(readings: tuple[Reading, ...]) -> float:
    """How likely it is, from the readings alone, that the whole wall is masonry."""
    odds = log(_PRIOR / (1 - _PRIOR))
    for r in readings:
        if isinstance(r, Probe):
            mass, studs = _NAILS[r.met]
        elif isinstance(r, Knock):
            mass, studs = _KNOCKS[r.sound]
        elif isinstance(r, Edge):
            mass, studs = _EDGE
        elif isinstance(r, Sweep) and r.to_mm - r.from_mm >= _SILENT_MM:
            told = any(
                isinstance(e, Edge)
                and e.height_mm == r.height_mm
                and r.from_mm <= e.at_mm <= r.to_mm
                for e in readings
            )
            mass, studs = (1.0, 1.0) if told else _SILENT
        else:
            continue
        odds += log(mass / studs)
    return 1 / (1 + exp(-odds))


def _masonry(wall: Wall, chance: float) -> str | None:
    if wall.build == "mass":
        return compose(
            "No studs to find: this is {structures}.",
            structures=data.structures()[wall.structure or ""].name,
        )
    if wall.build == "unknown" and chance > _MASONRY_FROM:
        return "No studs to find: nails meet something hard, and nothing else. This is masonry."
    return None


def _doubts(wall: Wall, chance: float, lining_mm: float | None) -> list[Message]:
    found = []
    if wall.build in ("timber", "steel") and chance > _MASONRY_FROM:
        name = data.structures()[wall.structure or ""].name
        said = "You said {name}, but what the nails met reads like masonry."
        found.append(Message(said, {"name": name}))
    if wall.build == "mass" and any(
        isinstance(r, Probe) and r.met == "wood" for r in wall.readings
    ):
        found.append(
            Message(
                "You said masonry, but a nail met wood: there may be battens or studs in front of "
                "it."
            )
        )
    if (
        lining_mm is not None
        and wall.lining_mm is not None
        and abs(lining_mm - wall.lining_mm) > _DEPTH_OFF_MM
    ):
        parts: Placeholders = {
            "d": Quantity(lining_mm, "length"),
            "t": Quantity(wall.lining_mm, "length"),
        }
        found.append(
            Message("Nails met something {d} deep, but the layers you named add up to {t}.", parts)
        )
    return found
