"""How a kind goes up.

What is brought to the wall first, in what order it is fixed, and what follows when it is.
"""

from typing import Literal, NamedTuple

from trade.check import Message
from trade.plan.flatness import Side

Verb = Literal[
    "draw",
    "hold",
    "mark",
    "take_down",
    "open",
    "drill",
    "set",
    "drive",
    "tighten",
    "level",
    "measure",
    "bore",
    "finish",
    "put_on",
]


class Act(NamedTuple):
    """What a step does, so that its order can be rehearsed.

    A verb, the thing it is done to, and the numbers of the holes.
    """

    verb: Verb
    thing: str
    holes: tuple[int, ...] = ()


class Do(NamedTuple):
    """One thing to do that is no hole: its key, what to do, what to mind; `lifts`.

    The piece's weight is in hands meanwhile.

    `wait_hours`: how long nothing goes on after it; `acts`: what it does; `beside`: it is done on
    the wall round the corner there.
    """

    key: str
    title: str
    words: tuple[Message, ...] = ()
    lifts: bool = False
    wait_hours: float = 0.0
    acts: tuple[Act, ...] = ()
    beside: Side | None = None


class Droop(NamedTuple):
    """How far a front edge drops over the years, and how high the plates are that hold it, mm."""

    front_mm: float = 0.0
    plate_mm: float = 0.0


class Hanging(NamedTuple):
    """How a piece goes up.

    Args:
        thing: what is held to the wall and screwed on.
        line: what the level line shows, and its height above the floor: the edge or the middle of
          the hardware, mm.
        order: whole: one thing on all its screws; apart: one at each support; rows: strips, one
          above the other.
        before: what is done before the first hole.
        after: what follows when all is screwed on.
        levelled: one is set level with the other.
        lifts: holding it to the wall needs as many people as lifting the piece.
        rows_mm: middles of the strips where they go up in rows, above the floor.
        opening: what to mind when the lining is cut out for each of them; None where nothing is let
          in.
    """

    thing: str
    line: tuple[str, float]
    order: Literal["whole", "apart", "rows"] = "whole"
    before: tuple[Do, ...] = ()
    after: tuple[Do, ...] = ()
    levelled: bool = True
    lifts: bool = False
    rows_mm: tuple[float, ...] = ()
    opening: tuple[Message, ...] | None = None


def do(
    key: str,
    title: str,
    *words: str | Message,
    lifts: bool = False,
    wait_hours: float = 0.0,
    acts: tuple[Act, ...] = (),
    beside: Side | None = None,
) -> Do:
    """Return a thing to do, out of plain sentences."""
    return Do(
        key,
        title,
        tuple(Message(each) if isinstance(each, str) else each for each in words),
        lifts,
        wait_hours,
        acts,
        beside,
    )
