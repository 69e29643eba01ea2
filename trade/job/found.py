"""The hole tells the truth.

What the bit met becomes evidence, and the plan is what it then must be. Nothing is judged here.
"""

from datetime import datetime
from typing import Literal, NamedTuple

from msgspec.structs import replace

from trade import data
from trade.errors import PlanError
from trade.language import compose
from trade.marking.marks import Mark
from trade.measure import say_length
from trade.plan.as_built import Done, Drilled, Met, Mounted
from trade.plan.facing import SIDES
from trade.plan.features import Feature
from trade.plan.model import Layer, Plan, Stud, Wall
from trade.plan.place import beside_plan, turned
from trade.plan.readings import ByHand, Probe, Reading
from trade.wall.infer import as_studs
from trade.wall.survey import survey

What = Literal["good", "no_wood", "hard", "metal", "crumbles", "stud_off", "lining"]
_READS: dict[str, Literal["wood", "air", "metal", "hard"]] = {
    "good": "wood",
    "no_wood": "air",
    "metal": "metal",
    "hard": "hard",
}
_SURE_MM = data.house("found_sure_mm")
_NEAR_MM = data.house("found_near_mm")
_FURTHEST_MM = 200.0
_THICKEST_MM = 150.0


class MarkReport(NamedTuple):
    """What somebody says of a hole.

    `by_mm`: how far the stud is to the right of the mark (less than nought: to the left).

    `depth_mm`: how deep the bit was when it met it; of a lining, how thick that is.
    """

    what: What
    by_mm: float | None = None
    depth_mm: float | None = None
    at: datetime | None = None
    by: str = ""


def tell(plan: Plan, mark: Mark, told: MarkReport) -> Plan:
    """Return the plan after a hole.

    Args:
        plan: as it was thought to be.
        mark: where the hole is, or was to be.
        told: what was met.

    Raises:
        PlanError: a shift or a depth that is none.
    """
    there = None if mark.side is None else beside_plan(plan, mark.side)
    if there is not None:  # the hole is in that wall, and so is what it tells
        return turned(tell(there, replace(mark, side=None), told), plan.at)
    if told.what == "lining":
        return replace(plan, wall=_lined(plan.wall, mark, told))
    if told.what == "stud_off":
        return replace(plan, wall=_shifted(plan.wall, mark, told))
    met: Met = told.what
    hole = Drilled(
        piece=mark.piece,
        x_mm=mark.x_mm,
        y_mm=mark.y_mm,
        met=met,
        depth_mm=told.depth_mm,
        at=told.at,
        by=told.by,
    )
    others = tuple(
        each
        for each in plan.as_built.drilled
        if not (each.piece == mark.piece and each.is_at(mark.x_mm, mark.y_mm))
    )
    return replace(
        plan,
        as_built=replace(plan.as_built, drilled=(*others, hole)),
        wall=_learned(plan.wall, mark, told),
    )


def done(plan: Plan, piece: str, step: str, at: datetime | None, by: str) -> Plan:
    """Return the plan after a step was done; one that was done before stays as it was."""
    if step in plan.as_built.steps(piece):
        return plan
    return replace(
        plan,
        as_built=replace(
            plan.as_built, done=(*plan.as_built.done, Done(piece=piece, step=step, at=at, by=by))
        ),
    )


def mounted(plan: Plan, piece: str, places_mm: tuple[float, ...]) -> Plan:
    """Return the plan with where what carries a piece really is: its own holes follow.

    Raises:
        PlanError: not one place for each of them, or beyond the piece.
    """
    planned = plan.piece(piece)
    if len(places_mm) != len(planned.supports_mm):
        said = compose(
            "There are {supports}: measure each from the left end, with commas between.",
            supports=len(planned.supports_mm),
        )
        raise PlanError(said, "places_mm")
    if any(place > planned.length_mm for place in places_mm):
        raise PlanError("That is beyond its right end. Measure from the left end.", "places_mm")
    others = tuple(each for each in plan.as_built.mounted if each.piece != piece)
    return replace(
        plan,
        as_built=replace(
            plan.as_built, mounted=(*others, Mounted(piece=piece, places_mm=places_mm))
        ),
    )


def begun_again(plan: Plan, piece: str) -> Plan:
    """Return the plan with nothing of a piece done.

    What was drilled for it is filled, and stays in the wall as old holes; round its corners, too.
    """
    for side in SIDES:
        there = beside_plan(plan, side)
        if there is not None and any(hole.piece == piece for hole in there.as_built.drilled):
            plan = turned(_filled_again(there, piece), plan.at)
    return _filled_again(plan, piece)


def _filled_again(plan: Plan, piece: str) -> Plan:
    old = [hole for hole in plan.as_built.drilled if hole.piece == piece]
    features = tuple(_filled(hole, plan.wall) for hole in old)
    kept = replace(
        plan.as_built,
        drilled=tuple(hole for hole in plan.as_built.drilled if hole.piece != piece),
        done=tuple(each for each in plan.as_built.done if each.piece != piece),
        mounted=tuple(each for each in plan.as_built.mounted if each.piece != piece),
    )
    return replace(
        plan, as_built=kept, wall=replace(plan.wall, features=(*plan.wall.features, *features))
    )


def _filled(hole: Drilled, wall: Wall) -> Feature:
    left = min(max(hole.x_mm - 4, 0.0), wall.width_mm - 8)
    bottom = min(max(hole.y_mm - 4, 0.0), wall.height_mm - 8)
    return Feature(
        kind="hole", left_mm=left, right_mm=left + 8, bottom_mm=bottom, top_mm=bottom + 8
    )


def _learned(wall: Wall, mark: Mark, told: MarkReport) -> Wall:
    """Return the wall with what the bit met among its readings.

    Where no wood was met no stud is counted on.
    """
    met = _READS.get(told.what)
    if met == "wood" and (mark.stud_mm is None or wall.build != "timber"):
        return wall  # an anchor that sits well says nothing of studs
    if met is None or len(wall.readings) >= 2_000:
        return wall
    probe = Probe(at_mm=mark.x_mm, height_mm=mark.y_mm, met=met, depth_mm=told.depth_mm)
    learned = replace(wall, readings=(*wall.readings, probe))
    if told.what != "no_wood" or mark.stud_mm is None:
        return learned
    return _without(learned, mark.stud_mm, mark.x_mm)


def _without(wall: Wall, stud_mm: float, x_mm: float) -> Wall:
    """Return the wall with a stud where the readings now have it, clear of the hole.

    Without it where they do not say.
    """
    others = [stud for stud in wall.studs if stud.centre_mm != stud_mm]
    known = [r for r in wall.readings if not isinstance(r, ByHand | Probe)]
    found = as_studs(survey(wall).inference) if known and wall.build == "timber" else ()
    instead = [
        stud
        for stud in found
        if abs(stud.centre_mm - stud_mm) <= _NEAR_MM
        and abs(stud.centre_mm - x_mm) >= stud.width_mm / 2
        and all(
            abs(stud.centre_mm - other.centre_mm) > (stud.width_mm + other.width_mm) / 2
            for other in others
        )
    ]
    nearest = sorted(instead, key=lambda stud: abs(stud.centre_mm - stud_mm))[:1]
    return replace(wall, studs=tuple(sorted([*others, *nearest], key=lambda stud: stud.centre_mm)))


def _shifted(wall: Wall, mark: Mark, told: MarkReport) -> Wall:
    """Return the wall with the stud where it was found beside the mark."""
    by = told.by_mm
    if by is None or by == 0 or abs(by) > _FURTHEST_MM:
        said = say_length(_FURTHEST_MM, "metric")
        raise PlanError(
            compose("Enter how far off the stud is: more than 0, at most {said}.", said=said),
            "by_mm",
        )
    centre = (mark.stud_mm if mark.stud_mm is not None else mark.x_mm) + by
    if not 0 <= centre <= wall.width_mm:
        raise PlanError("That would be beyond the end of the wall.", "by_mm")
    old = next(
        (stud for stud in wall.studs if stud.centre_mm == mark.stud_mm), Stud(centre_mm=centre)
    )
    new = replace(old, centre_mm=centre, uncertainty_mm=_SURE_MM)
    others = [
        s
        for s in wall.studs
        if s is not old and abs(s.centre_mm - centre) > (s.width_mm + new.width_mm) / 4
    ]
    pinned = ByHand(at_mm=centre, height_mm=mark.y_mm, word="pinned")
    readings: tuple[Reading, ...] = (
        *(r for r in wall.readings if not _about(r, centre, mark.stud_mm)),
        pinned,
    )
    return replace(
        wall,
        studs=tuple(sorted([*others, new], key=lambda stud: stud.centre_mm)),
        readings=readings,
    )


def _about(reading: Reading, centre: float, old: float | None) -> bool:
    """Whether somebody pinned or struck that stud by hand before."""
    return isinstance(reading, ByHand) and any(
        abs(reading.at_mm - at) < 30 for at in (centre, old) if at is not None
    )


def _lined(wall: Wall, mark: Mark, told: MarkReport) -> Wall:
    """Return the wall with a lining as thick as the bit found it.

    Its thickest layer takes up the difference.
    """
    thick = told.depth_mm
    if thick is None or not 1 <= thick <= _THICKEST_MM:
        raise PlanError(
            "Enter how deep the bit was when it left the lining, up to 150 mm (6 in).", "depth_mm"
        )
    if not wall.layers:
        raise PlanError("The lining is not known yet. Enter it in Survey first.", "depth_mm")
    thickest = max(wall.layers, key=lambda layer: layer.thickness_mm)
    left = thick - sum(layer.thickness_mm for layer in wall.layers if layer is not thickest)
    if left < 1:
        raise PlanError("The other layers alone are thicker. Correct them in Survey.", "depth_mm")
    layers = tuple(
        Layer(kind=each.kind, thickness_mm=left) if each is thickest else each
        for each in wall.layers
    )
    probe = Probe(at_mm=mark.x_mm, height_mm=mark.y_mm, met="wood", depth_mm=thick)
    return replace(
        wall,
        layers=layers,
        readings=(*wall.readings, probe) if mark.stud_mm is not None else wall.readings,
    )
