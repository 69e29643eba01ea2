"""Which of somebody's own limits stands in the way, where no way to hang something holds.

Each limit is taken away alone; where none alone is enough, all of them.
"""

from typing import Any, NamedTuple

from msgspec.structs import replace

from trade.check import Message, Placeholders
from trade.choose.options import Options, find_options
from trade.choose.request import HangRequest
from trade.choose.search import Option
from trade.language import Figure, counted
from trade.mounts import KINDS
from trade.plan.model import Plan, Policy


class Loosened(NamedTuple):
    """What gives when a limit is taken away: which limit, in words, and the best way then."""

    limit: Message
    way: Option


def loosened(plan: Plan, options: Options) -> tuple[Loosened, ...]:
    """Return what would hold if one limit were taken away, for each that stands in the way.

    Where no single one is enough, what holds without any; nothing when even then nothing does, or
    when something holds as it is.
    """
    if options.best is not None:
        return ()
    request = options.request
    limits = _limits(plan.policy)
    found = [
        Loosened(said, best)
        for said, changes in limits
        if (best := _without(plan, request, changes)) is not None
    ]
    if found or len(limits) < 2:
        return tuple(found)
    every: dict[str, Any] = {}
    for _, changes in limits:
        every |= changes
    best = _without(plan, request, every)
    return () if best is None else (Loosened(Message("all of these limits together"), best),)


def sentence(each: Loosened) -> Message:
    """Return what would give, in a sentence."""
    parts: Placeholders = {"limit": each.limit, "kind": KINDS[each.way.kind].name}
    said = (
        "Without {limit}, this would hold: {kind!l}."
        if each.way.outcome in ("holds", "holds_but")
        else "Without {limit}, this would come close: {kind!l}."
    )
    return Message(said, parts)


def _without(plan: Plan, request: HangRequest, changes: dict[str, Any]) -> Option | None:
    return find_options(replace(plan, policy=replace(plan.policy, **changes)), request).best


def _limits(policy: Policy) -> list[tuple[Message, dict[str, Any]]]:
    """Return the limits that a policy sets: what each is called, and the policy without it."""
    free = Policy()
    found: list[tuple[Message, dict[str, Any]]] = []
    if policy.budget is not None:
        money = Figure(f"{policy.budget:.0f}")
        found.append((Message("the budget of {money}", {"money": money}), {"budget": None}))
    if policy.most_holes is not None:
        holes = counted(policy.most_holes, "{n} hole", "{n} holes")
        found.append((Message("the limit of {holes}", {"holes": holes}), {"most_holes": None}))
    if policy.hidden:
        found.append((Message("the wish that nothing shows"), {"hidden": False}))
    if policy.comes_off:
        found.append((Message("the wish that it comes off again"), {"comes_off": False}))
    if policy.lacks:
        found.append((Message("the tools that are lacking"), {"lacks": ()}))
    if policy.made != free.made:
        said = "the wish for ready-made" if policy.made == "bought" else "the wish for shop-made"
        found.append((Message(said), {"made": free.made}))
    if policy.anchors == "studs_only":
        found.append((Message("“studs only”"), {"anchors": "studs_first"}))
    if policy.hollow == "toggles":
        found.append((Message("“toggles only”"), {"hollow": free.hollow}))
    if min(policy.shift_mm, policy.grow_mm) < min(free.shift_mm, free.grow_mm):
        room = {"shift_mm": free.shift_mm, "grow_mm": free.grow_mm}
        found.append((Message("the limit of how far it may move or grow"), room))
    return found
