"""Will these do? What a person may ask to hold something with, by its key on the shopping list."""

from typing import NamedTuple

from trade import data
from trade.errors import PlanError
from trade.fixings.anchor_capacity import anchor_of
from trade.language import compose, in_system, joined, word
from trade.measure import say_length
from trade.mounts.prices import anchor_key
from trade.plan.model import Plan

_SCREW = "screw"


class Holder(NamedTuple):
    """Something to hold with: its key, what it is called, and where it is found."""

    key: str
    name: str
    group: str


def holders(plan: Plan) -> tuple[Holder, ...]:
    """Return what may be asked for: what is in the drawer, then anchors, then screws."""
    mine = [
        Holder(each.of, compose("{name}, {many} there", name=name, many=many), word("I have"))
        for each in plan.shop.have
        for many in (int(each.many),)
        if (name := _named(each.of, plan)) is not None
    ]
    anchors = [
        Holder(anchor_key(key), in_system(row.name, plan.units), word("Anchors"))
        for key, row in (
            *data.anchors().items(),
            *((packet.key, packet.anchor) for packet in plan.wall.packets),
        )
    ]
    screws = [
        Holder(f"{_SCREW}:{key}", row.called(plan.units), word("Screws"))
        for key, row in data.screws_sold(plan.units).items()
        if row.kind != "rod"
    ]
    return (*mine, *anchors, *screws)


def name_of(key: str, plan: Plan) -> str:
    """Return what something is called, by its key.

    Raises:
        PlanError: nothing that holds has that key.
    """
    name = _named(key, plan)
    if name is None:
        raise PlanError(compose("Nothing is held with “{key}”.", key=key[:60]), "held_with")
    return name


def _named(key: str, plan: Plan) -> str | None:
    kind, _, rest = key.partition(":")
    if kind == "anchor":
        known = rest in data.anchors() or any(packet.key == rest for packet in plan.wall.packets)
        return in_system(anchor_of(plan.wall, rest).name, plan.units) if known else None
    screw, _, length = rest.partition(":")
    if kind != _SCREW or screw not in data.screws() or not (length.isdecimal() or not length):
        return None
    name = data.screws()[screw].called(plan.units)
    return joined((name, say_length(float(length), plan.units))) if length else name
