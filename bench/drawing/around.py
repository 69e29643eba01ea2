"""What else is on the wall and in it.

Openings and their framing, boxes, pipes, zones with their hatching, and readings.
"""

from collections.abc import Callable

from django.utils.translation import gettext as _

from bench.drawing.scale import Scale
from bench.drawing.svg import Attribute, Pen, number
from bench.words import worded
from trade.language import compose
from trade.measure import Units, say_length
from trade.parse.notes import word_of
from trade.parse.sketch import word_of as sketched
from trade.plan.features import Feature
from trade.plan.model import Plan, Wall
from trade.plan.readings import ByHand, Edge, Probe, Sweep
from trade.wall.found import STUDS
from trade.wall.framing import members
from trade.wall.scribing import ceiling_mm
from trade.wall.survey import survey
from trade.wall.zones import Zone, zones

_GAP_PX = {"keep_out": 7.0, "take_care": 11.0}
_COUNTED_MM = (
    4.0  # a stud that is counted on this near to where the readings have it needs no second mark
)


def draw(pen: Pen, wall: Wall, units: Units, scale: Scale, stage: str) -> None:
    """Everything but the studs that are counted on, behind what hangs on the wall."""
    for zone in zones(wall):
        if stage in ("survey", "mark") or (zone.level == "keep_out" and stage != "list"):
            _zone(pen, zone, scale)
    _ceiling(pen, wall, scale)
    if stage != "survey":
        for each in wall.features:
            feature(pen, each, wall, units, scale)


def on_top(pen: Pen, plan: Plan, scale: Scale) -> None:
    """While the wall is surveyed its things can be taken hold of, and readings count.

    Both lie over what hangs there.
    """
    for index, each in enumerate(plan.wall.features):
        feature(pen, each, plan.wall, plan.units, scale, index)
    _found(pen, plan, scale)
    readings(pen, plan, scale)


def implied(pen: Pen, wall: Wall, scale: Scale) -> None:
    """Framing that nobody saw, but that carpenters put beside every opening."""
    for member in (
        members(wall.openings, wall.width_mm, wall.height_mm)
        if wall.build in ("timber", "steel")
        else ()
    ):
        x, top = scale.x(max(member.left_mm, 0.0)), scale.y(member.top_mm)
        wide = scale.length(member.right_mm - max(member.left_mm, 0.0))
        high = scale.length(member.top_mm - member.bottom_mm)
        with pen.group("implied"):
            pen.title(compose("{kind!c}, to be expected beside an opening", kind=member.kind))
            pen.rect(x, top, wide, high, "implied-wood")


def _zone(pen: Pen, zone: Zone, scale: Scale) -> None:
    x, y = scale.x(zone.left_mm), scale.y(zone.top_mm)
    wide = scale.length(zone.right_mm - zone.left_mm)
    high = scale.length(zone.top_mm - zone.bottom_mm)
    with pen.group(f"zone zone-{zone.level}"):
        pen.title(
            compose(
                "Keep out: {reason}. {advice}"
                if zone.level == "keep_out"
                else "Take care: {reason}. {advice}",
                reason=zone.reason,
                advice=zone.advice,
            )
        )
        pen.hatch(x, y, wide, high, _GAP_PX[zone.level], "zone-hatch")
        pen.rect(x, y, wide, high, "zone-edge")


def _ceiling(pen: Pen, wall: Wall, scale: Scale) -> None:
    """Draw what the ceiling leaves of the wall, where it was measured."""
    run = next((run for run in wall.flatness.run_outs if run.line == "ceiling"), None)
    if run is None:
        return
    xs = sorted({0.0, wall.width_mm, *(x for x, _ in run.points_mm if 0 < x < wall.width_mm)})
    line = [(scale.x(x), scale.y(min(ceiling_mm(wall, x), wall.height_mm))) for x in xs]
    below = "L".join(f"{number(x)} {number(y)}" for x, y in reversed(line))
    with pen.group("zone zone-ceiling"):
        pen.title(_("The ceiling, as it was measured"))
        pen.path(
            f"M{number(scale.x(0))} "
            f"{number(scale.y(wall.height_mm))}H{number(scale.x(wall.width_mm))}L{below}z",
            "above",
        )


def feature(
    pen: Pen, thing: Feature, wall: Wall, units: Units, scale: Scale, index: int | None = None
) -> None:
    """Draw a door, an outlet, a pipe …; with its number on the wall it can be moved."""
    wide, high = thing.right_mm - thing.left_mm, thing.top_mm - thing.bottom_mm
    name, movable = sketched(thing, units, (wall.width_mm, wall.height_mm)), index is not None
    handles: dict[str, Attribute] = {}
    if movable:
        places = {"left": thing.left_mm, "top": thing.top_mm, "length": wide, "thick": high}
        handles = {f"data_{key}": repr(value) for key, value in places.items()}
        handles |= {
            "data_post": f"things/{index}",
            "data_supports": "",
            "tabindex": 0,
            "role": "button",
        }
        handles |= {"id": f"thing-{index}", "aria_label": name}
    with pen.group(f"feature feature-{thing.kind}{' movable' if movable else ''}", **handles):
        pen.title(
            worded("{name}. Drag it, or nudge it with the arrow keys.", name=name)
            if movable
            else name
        )
        x = scale.x(thing.left_mm)
        y = scale.y(thing.top_mm)
        w = scale.length(wide)
        h = scale.length(high)
        if thing.trim_mm:
            trim = scale.length(thing.trim_mm)
            foot = trim if thing.bottom_mm else 0.0
            pen.rect(x - trim, y - trim, w + 2 * trim, h + trim + foot, "trim")
        pen.rect(x, y, w, h, "feature-body")
        if detail := _DETAILS.get(thing.kind):
            pen.path(detail(x, y, w, h), "feature-detail")
        if movable:
            pen.rect(x - 4, y - 4, max(w, 6) + 8, max(h, 6) + 8, "grip")
        if w > 60 and h > 24:
            pen.text(x + w / 2, y + h / 2 + 4, thing.row.name, "feature-words", "middle")


def _slots(x: float, y: float, w: float, h: float) -> str:
    places = [(x + w * (0.5 + off), y + h * at) for at in (0.2, 0.62) for off in (-0.18, 0.18)]
    return "".join(f"M{number(a)} {number(b)}v{number(h * 0.16)}" for a, b in places)


def _lever(x: float, y: float, w: float, h: float) -> str:
    return f"M{number(x + w / 2)} {number(y + h * 0.35)}v{number(h * 0.3)}"


def _cross(x: float, y: float, w: float, h: float) -> str:
    return (
        f"M{number(x + w / 2)} {number(y)}v{number(h)}M{number(x)} {number(y + h / 2)}h{number(w)}"
    )


def _grain(x: float, y: float, w: float, h: float) -> str:
    return "".join(
        f"M{number(x + 3)} {number(y + h * at)}q{number(w / 2)} {bend} {number(w - 6)} 0"
        for at, bend in ((0.3, 3), (0.7, -3))
    )


def _fins(x: float, y: float, w: float, h: float) -> str:
    count = max(int(w / 9), 2)
    return "".join(
        f"M{number(x + w * i / count)} {number(y + 3)}v{number(h - 6)}" for i in range(1, count)
    )


def _pillows(x: float, y: float, w: float, h: float) -> str:
    mattress, pillow = y + h * 0.45, h * 0.2
    beds = "".join(
        f"M{number(x + w * at)} {number(mattress)}v{number(-pillow)}h{number(w * 0.34)}"
        f"v{number(pillow)}"
        for at in (0.1, 0.56)
    )
    return f"M{number(x)} {number(mattress)}h{number(w)}{beds}"


def _bars(x: float, y: float, w: float, h: float) -> str:
    return f"M{number(x)} {number(y + h * 0.15)}h{number(w)}" + "".join(
        f"M{number(x + w * n / 12)} {number(y + h * 0.15)}v{number(h * 0.6)}" for n in range(1, 12)
    )


def _cushions(x: float, y: float, w: float, h: float) -> str:
    return (
        f"M{number(x)} {number(y + h * 0.5)}h{number(w)}"
        f"M{number(x + w / 2)} {number(y + h * 0.12)}v{number(h * 0.6)}"
    )


def _top_on_legs(x: float, y: float, w: float, h: float) -> str:
    return (
        f"M{number(x)} {number(y + 5)}h{number(w)}M{number(x + w * 0.06)} {number(y + 5)}"
        f"v{number(h - 5)}M{number(x + w * 0.94)} {number(y + 5)}v{number(h - 5)}"
    )


def _bowl(x: float, y: float, w: float, h: float) -> str:
    return (
        f"M{number(x + w * 0.08)} {number(y)}q{number(w * 0.42)} {number(h * 0.5)} "
        f"{number(w * 0.84)} 0"
    )


def _rings(x: float, y: float, w: float, h: float) -> str:
    return f"M{number(x)} {number(y + h * 0.06)}h{number(w)}" + "".join(
        f"M{number(x + w * at)} {number(y - 3)}h{number(w * 0.28)}" for at in (0.14, 0.58)
    )


def _logs(x: float, y: float, w: float, h: float) -> str:
    foot = y + h * 0.86
    return (
        f"M{number(x + w * 0.2)} {number(foot)}l{number(w * 0.6)} {number(-h * 0.1)}"
        f"M{number(x + w * 0.2)} {number(foot - h * 0.1)}l{number(w * 0.6)} {number(h * 0.1)}"
    )


def _steps(x: float, y: float, w: float, h: float) -> str:
    middle, foot = x + w / 2, y + h * 0.9
    return f"M{number(middle)} {number(foot)}v{number(-h * 0.25)}l-6 8m6 -8l6 8"


def _frame(x: float, y: float, w: float, h: float) -> str:
    return f"M{number(x + 2)} {number(y + 2)}h{number(w - 4)}v{number(h - 4)}h{number(4 - w)}z"


def _knob(x: float, y: float, w: float, h: float) -> str:
    return f"M{number(x + w * 0.88)} {number(y + h * 0.55)}h.1"


_DETAILS: dict[str, Callable[[float, float, float, float], str]] = {
    "outlet": _slots,
    "switch": _lever,
    "window": _cross,
    "radiator": _fins,
    "door": _knob,
    "blocking": _grain,
    "header": _grain,
    "backing_board": _grain,
    "bed": _pillows,
    "crib": _bars,
    "sofa": _cushions,
    "desk": _top_on_legs,
    "basin": _bowl,
    "hob": _rings,
    "fireplace": _logs,
    "stove": _logs,
    "walkway": _steps,
    "junction": _cross,
    "vent": _fins,
    "valve": _cross,
    "access_panel": _frame,
}


def _found(pen: Pen, plan: Plan, scale: Scale) -> None:
    """Where the readings have studs that nobody counts on yet, and what else they speak for."""
    if not plan.wall.readings:
        return
    known = survey(plan.wall, plan.supports_mm).inference
    counted = [stud.centre_mm for stud in plan.wall.uprights]
    top, high = scale.y(plan.wall.height_mm), scale.length(plan.wall.height_mm)
    for thing in (*known.studs, *known.others):
        stud = thing.kind in STUDS
        if stud and any(abs(thing.centre_mm - x) < _COUNTED_MM for x in counted):
            continue
        left, wide = scale.x(thing.centre_mm - thing.width_mm / 2), scale.length(thing.width_mm)
        with pen.group(f"found found-{thing.confidence if stud else 'other'}"):
            what = compose(
                "{kind} stud, {sure}" if stud else "rather a {kind}",
                kind=thing.kind,
                sure=thing.confidence,
            )
            pen.title(
                worded(
                    "The readings say: {what}, at {centre_mm}",
                    what=what,
                    centre_mm=say_length(thing.centre_mm, plan.units),
                )
            )
            pen.rect(left, top + 1, wide, high - 2, "found-edge")


def readings(pen: Pen, plan: Plan, scale: Scale) -> None:
    """Each reading as a small mark at the height where it was taken."""
    for r in plan.wall.readings:
        y = scale.y(min(max(r.height_mm, 60.0), plan.wall.height_mm - 60.0))
        if isinstance(r, Sweep):
            pen.line(scale.x(r.from_mm), y, scale.x(r.to_mm), y, "swept")
            continue
        x = scale.x(r.at_mm)
        with pen.group("reading"):
            pen.title(
                worded(
                    "{reading}, {height} up",
                    reading=word_of(r, plan.units),
                    height=say_length(r.height_mm, plan.units),
                )
            )
            if isinstance(r, Edge):
                inward = 4 if r.side == "left" else -4
                pen.path(f"M{number(x + inward)} {number(y - 6)}H{number(x)}v12h{inward}", "told")
            elif isinstance(r, Probe):
                pen.circle(x, y, 3.0, f"probe probe-{r.met}")
            elif isinstance(r, ByHand):
                ends = (
                    "M{0} {1}v-14m-4 0h8v-7h-8z"
                    if r.word == "pinned"
                    else "M{2} {3}l10 10m0 -10l-10 10"
                )
                pen.path(
                    ends.format(number(x), number(y), number(x - 5), number(y - 5)),
                    f"by-hand by-hand-{r.word}",
                )
            else:
                pen.path(f"M{number(x)} {number(y - 5)}v10M{number(x - 5)} {number(y)}h10", "told")
