"""One step of hanging a piece, and the words that all of them share."""

from typing import Literal, NamedTuple

from trade.check import Message
from trade.marking.marks import Mark
from trade.mounts.hanging import Act

StepKind = Literal[
    "ready", "safe", "survey", "line", "do", "drill", "drive", "level", "wait", "close"
]


class Tip(NamedTuple):
    """How people do a step: a trick by its key and name, what it is good for, with figures."""

    key: str
    name: str
    words: str
    good: str
    figures: Message | None = None


class Step(NamedTuple):
    """One thing to do.

    `marks`: the holes that it is about; `facts`: what to read off at arm's length, each a name and
    a value; `cautions`: what can hurt here; `people`: how many must be there; `wait_hours`: how
    long nothing goes on after it; `acts`: what it does, in terms that can be rehearsed; `done`, as
    it stands now; `tips`: how people do it.
    """

    key: str
    kind: StepKind
    title: str
    words: tuple[Message, ...] = ()
    facts: tuple[tuple[str, str], ...] = ()
    cautions: tuple[Message, ...] = ()
    marks: tuple[Mark, ...] = ()
    people: int = 1
    wait_hours: float = 0.0
    acts: tuple[Act, ...] = ()
    done: bool = False
    tips: tuple[Tip, ...] = ()

    @property
    def mark(self) -> Mark | None:
        """The one hole that is drilled in this step."""
        return self.marks[0] if self.kind == "drill" else None


def said(*words: str) -> tuple[Message, ...]:
    """Plain sentences as phrases."""
    return tuple(Message(each) for each in words)


def spot(mark: Mark) -> str:
    """Return a hole's place as part of a step's key."""
    return f"{mark.x_mm:.0f}-{mark.y_mm:.0f}"
