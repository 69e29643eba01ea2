"""How a kind goes up: what is brought to the wall first, in what order it is fixed, and what follows when it is."""

from typing import Literal, NamedTuple

from trade.check import Phrase


class Do(NamedTuple):
    """One thing to do that is no hole: its key, what to do, what to mind; `lifts`: the piece's weight is in hands meanwhile.

    `wait_hours`: how long nothing goes on after it.
    """

    key: str
    title: str
    words: tuple[Phrase, ...] = ()
    lifts: bool = False
    wait_hours: float = 0.0


class Hanging(NamedTuple):
    """`thing`: what is held to the wall and screwed on.

    `order`: whole: one thing on all its screws; apart: one at each support; rows: strips, one above the other. `levelled`:
    one is set level with the other.
    """

    thing: str
    order: Literal["whole", "apart", "rows"] = "whole"
    before: tuple[Do, ...] = ()
    after: tuple[Do, ...] = ()
    levelled: bool = True


def do(key: str, title: str, *words: str | Phrase, lifts: bool = False, wait_hours: float = 0.0) -> Do:
    """A thing to do, out of plain sentences."""
    return Do(key, title, tuple(Phrase(each) if isinstance(each, str) else each for each in words), lifts, wait_hours)
