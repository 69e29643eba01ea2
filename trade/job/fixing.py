"""One thing onto the wall.

What is drilled, set, held, driven and levelled, in the order that its screws and anchors ask for.

A screw, and an anchor that goes in through the thing, is drilled and driven with the thing in
place. An anchor that goes into the wall first is not: the thing is held up once to mark the holes
through it and comes off again; the holes are drilled, the anchors set, and only then it goes up. A
spring toggle's wings cannot be put on later: its bolt goes through the thing first, and both go up
together.
"""

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from trade import data
from trade.check import Message
from trade.fixings.anchor_capacity import anchor_of
from trade.job.step import Step, said, spot
from trade.language import compose, several
from trade.marking.marks import Mark
from trade.marking.reading import read, say_across, say_up
from trade.measure import Units, say_bit, say_length
from trade.mounts import Act, Hanging
from trade.plan.model import AnyPiece, Plan

_LEVEL_MM = 5.0  # screws no further apart in height stand side by side
_RODS = ("rod", "pin")  # what goes into its hole itself
_SNUG = "Snug, not crushed: stop when it sits. Over-driven it strips, or splits the wood."
_FIRM = (
    "Snug, not crushed: stop when it sits. An anchor that is over-driven strips, or crushes "
    "what it sits in."
)
_LOOSE = "Not tight yet: it must still turn."


class Group(NamedTuple):
    """The holes of one thing; its name; whether it is the first that goes up."""

    name: str
    marks: tuple[Mark, ...]
    first: bool


class Fixing:
    """How the things of one piece are fixed to the wall."""

    def __init__(
        self, piece: AnyPiece, plan: Plan, units: Units, hanging: Hanging, people: int
    ) -> None:
        """`people`: how many must hold it."""
        self.piece, self.plan, self.units, self.hanging = piece, plan, units, hanging
        self.apart = hanging.order == "apart"
        self.holders = people if hanging.lifts else 1

    def all(self, groups: Sequence[Group]) -> Iterator[Step]:
        """Every step of all things.

        Rods in resin are all set first, and nothing goes onto them before it is hard.
        """
        if any(self._kind(mark) == "resin" for group in groups for mark in group.marks):
            for group in groups:
                yield from self._holes_first(group)
            words = said("Don't load or touch it until then.")
            yield Step(
                "set", "wait", "Let the resin set", words, wait_hours=data.house("resin_hours")
            )
            for group in groups:
                yield from self._up(group)
            return
        for group in groups:
            if not any(self._class(mark).goes in ("before", "with") for mark in group.marks):
                yield from self._in_place(group)
            else:
                yield from self._holes_first(group)
                yield from self._up(group)

    def _kind(self, mark: Mark) -> str:
        """Key of the class of what goes into a hole."""
        if mark.anchor is not None:
            return anchor_of(self.plan.wall, mark.anchor).kind
        return data.screws()[mark.screw].kind if mark.screw is not None else "pin"

    def _class(self, mark: Mark) -> data.FixingClass:
        return data.fixings()[self._kind(mark)]

    def _in_place(self, group: Group) -> Iterator[Step]:
        """Drilled and driven with the thing held in place.

        Its first screw, level, its second, level again, then the others.
        """
        head, rest, name = group.marks[0], list(group.marks[1:]), group.name
        yield from self._next(group)
        if self.hanging.thing in _RODS:
            yield self._drill(head, group)
            yield self._put_in(group)
            return
        held: tuple[Act, ...] = (Act("hold", name, _numbers(group.marks)),)
        if self.hanging.lifts:
            words = said("Support it with two nails or a helper until two screws hold it.")
            yield Step(
                f"hold-{spot(head)}",
                "do",
                compose("Hold the {name} to the line", name=name),
                words,
                people=self.holders,
                acts=held,
            )
            held = ()
        yield self._drill(head, group)
        if not rest:
            yield self._drive(group.marks, name, snug=True, before=held)
            return
        yield self._drive((head,), name, snug=False, before=held)
        yield self._level(group)
        if not self.apart:
            last = max(rest, key=lambda mark: (mark.x_mm, mark.y_mm))
            rest.remove(last)
            yield self._drill(last, group)
            yield self._drive((last,), name, snug=False)
            if rest:
                yield self._ends(group)
        yield from (self._drill(mark, group) for mark in rest)
        yield self._drive(group.marks, name, snug=True)

    def _holes_first(self, group: Group) -> Iterator[Step]:
        """Its holes marked through it while it is held level.

        Then it comes off, and they are drilled and their anchors set.
        """
        head, name, numbers = group.marks[0], group.name, _numbers(group.marks)
        if self.hanging.thing not in _RODS and len(group.marks) > 1:
            at = (
                "to the line, level"
                if group.first or not self.hanging.levelled
                else "level with the first"
            )
            words = said(
                "Prick every hole through it with a nail or a thin pencil.",
                "Then take it down: the anchors go in without it.",
            )
            acts = (
                Act("hold", name, numbers),
                Act("level", name),
                Act("mark", name, numbers),
                Act("take_down", name),
            )
            if self.hanging.opening is not None:
                yield from self._next(group)
                at = "in its opening, plumb"
            title = compose("Hold the {name} {at}, and mark its holes", name=name, at=at)
            yield Step(
                f"hold-{spot(head)}",
                "level",
                title,
                words,
                marks=group.marks,
                people=self.holders,
                acts=acts,
            )
        else:
            yield from self._next(group)
        yield from (self._drill(mark, group) for mark in group.marks)
        into = tuple(
            m
            for m in group.marks
            if self._class(m).goes == "before" or (m.anchor and self.hanging.thing in _RODS)
        )
        if into:
            words = said(
                *(
                    each
                    for kind in dict.fromkeys(map(self._kind, into))
                    for each in data.fixings()[kind].words
                )
            )
            title = (
                compose("Set the anchors of the {name}", name=name)
                if len(into) > 1
                else compose("Set the anchor of the {name}", name=name)
            )
            facts = tuple(dict.fromkeys(("Goes in", mark.fixing) for mark in into if mark.fixing))
            sets = (Act("set", "wall", _numbers(into)),)
            yield Step(f"set-{spot(head)}", "drive", title, words, facts, marks=into, acts=sets)

    def _up(self, group: Group) -> Iterator[Step]:
        """Yield the thing onto holes that are ready."""
        if self.hanging.thing in _RODS:
            return  # its rods are in
        name = group.name
        toggles = tuple(mark for mark in group.marks if self._class(mark).goes == "with")
        words = said(
            *(
                sentence
                for kind in dict.fromkeys(map(self._kind, toggles))
                for sentence in data.fixings()[kind].words
            )
        )
        held = Act("hold", name, _numbers(group.marks))
        set_now = (Act("set", name, _numbers(toggles)),) if toggles else ()
        if len(group.marks) == 1:
            acts = (*set_now, held)
            yield self._drive(
                group.marks, name, snug=True, words=words, before=acts, people=self.holders
            )
            return
        yield self._drive(group.marks, name, False, words, (*set_now, held), self.holders)
        yield self._level(group) if self.apart else self._ends(group)
        yield self._drive(group.marks, name, snug=True)

    def _next(self, group: Group) -> Iterator[Step]:
        """Where a further thing goes, level with the first.

        What is cut out of the lining for it.
        """
        head = group.marks[0]
        if not group.first and self.hanging.levelled:
            title = compose("Set the next {group}", group=group.name)
            words = "On two blocks of the same height from the one below, or on a line of its own."
            if self.apart:
                title = compose("Set the {group} level with the first", group=group.name)
                words = (
                    "Lay the level from the first to here: that line is its place, whatever "
                    "the tape says."
                )
            acts = (Act("mark", group.name, _numbers(group.marks)),)
            yield Step(f"next-{spot(head)}", "level", title, said(words), marks=(head,), acts=acts)
        if self.hanging.opening is not None:
            title = compose("Cut the lining out for the {group}", group=group.name)
            acts = (Act("open", group.name, _numbers(group.marks)),)
            yield Step(
                f"open-{spot(head)}",
                "do",
                title,
                self.hanging.opening,
                marks=group.marks,
                acts=acts,
            )

    def _level(self, group: Group) -> Step:
        """Return the thing turned about its first screw until it is level, or plumb."""
        title, words = compose("Set the {group} plumb", group=group.name), "Plumb, and on its line."
        if not self.apart:
            title = compose("Level the {group}", group=group.name)
            words = "Turn it about its first screw until the bubble stands still between the lines."
            if self.plan.policy.level == "eye":
                words = (
                    "Turn it about its first screw until it runs with the line that the eye "
                    "follows."
                )
        acts = (Act("level", group.name),)
        return Step(
            f"level-{spot(group.marks[0])}",
            "level",
            title,
            said(words),
            marks=group.marks,
            acts=acts,
        )

    def _ends(self, group: Group) -> Step:
        words = said("Read it in the middle and toward both ends. Still level? Then all others.")
        acts = (Act("level", group.name),)
        return Step(
            f"ends-{spot(group.marks[0])}",
            "level",
            "Check level toward the ends",
            words,
            marks=group.marks,
            acts=acts,
        )

    def _drill(self, mark: Mark, group: Group) -> Step:
        """One hole."""
        datum, units = self.plan.datum, self.units
        place = read(datum, self.piece, self.plan.wall, mark.x_mm, mark.y_mm)
        across = ("Across", say_across(place, datum, units))
        if mark.corner_mm is not None:
            across = ("From the corner", say_length(mark.corner_mm, units))
        facts = [across, ("Up", say_up(place, datum, units))]
        if mark.bit_mm:
            facts += [
                ("Bit", say_bit(mark.bit_mm, units)),
                ("Tape at", say_length(mark.depth_mm, units)),
            ]
        else:
            facts.append(("Goes in", mark.fixing or ""))
        goes = self._class(mark).goes
        if mark.clearance_mm and goes in ("driven", "through"):
            facts.append(("Through the wood first", say_bit(mark.clearance_mm, units)))
        words = said(
            "Measured from the datum, not from the last hole. Small bit first; a guide keeps it "
            "square."
        )
        which = _which(mark, [other for other in group.marks if other.support == mark.support])
        template = (
            "Drill the {part}{which}"
            if mark.bit_mm
            else "Start the anchor of the {part}{which}"
            if goes == "before"
            else "Start the screw of the {part}{which}"
        )
        minds = tuple(
            each
            for each in mark.cautions
            if mark is group.marks[0] or each not in group.marks[0].cautions
        )
        title, acts = (
            compose(template, part=mark.part, which=which),
            (Act("drill", "wall", (mark.number,)),),
        )
        key, first = f"drill-{spot(mark)}", mark.number == 1
        return Step(
            key, "drill", title, words if first else (), tuple(facts), minds, (mark,), acts=acts
        )

    def _put_in(self, group: Group) -> Step:
        """Return a rod or a pin into its hole."""
        words = said(
            "Through a scrap with the same hole, so that it goes in square; as deep as the tape "
            "says."
        )
        facts = tuple(
            dict.fromkeys(("Goes in", mark.fixing) for mark in group.marks if mark.fixing)
        )
        numbers = _numbers(group.marks)
        acts = (Act("drive", group.name, numbers), Act("tighten", group.name, numbers))
        key = f"drive-{spot(group.marks[0])}-snug"
        return Step(
            key,
            "drive",
            compose("Put the {group} in", group=group.name),
            words,
            facts,
            marks=group.marks,
            acts=acts,
        )

    def _drive(
        self,
        marks: tuple[Mark, ...],
        name: str,
        snug: bool,
        words: tuple[Message, ...] = (),
        before: tuple[Act, ...] = (),
        people: int = 1,
    ) -> Step:
        """Return what goes into holes that are there, loosely or for good."""
        screw = "screw"
        if all(self._class(mark).goes == "through" for mark in marks):
            screw, words = "anchor", said(*self._class(marks[0]).words)
        elif all(self._class(mark).goes == "with" for mark in marks):
            screw = "bolt"
        title = compose(
            "Drive the {screw} of the {name}"
            if len(marks) == 1
            else "Tighten all {n} {screws} of the {name}"
            if snug
            else "Drive all {n} {screws} of the {name}",
            n=len(marks),
            screw=screw,
            screws=several(screw),
            name=name,
        )
        if before and not snug and words:
            title = compose("Put the {name} up on its {screws}", name=name, screws=several(screw))
        facts = tuple(dict.fromkeys(("Goes in", mark.fixing) for mark in marks if mark.fixing))
        numbers = _numbers(marks)
        acts = (
            *before,
            Act("drive", name, numbers),
            *((Act("tighten", name, numbers),) if snug else ()),
        )
        key = f"drive-{spot(marks[0])}-{'snug' if snug else 'loose'}"
        end = _LOOSE if not snug else _FIRM if any(mark.anchor for mark in marks) else _SNUG
        return Step(
            key, "drive", title, (*words, Message(end)), facts, (), marks, people, acts=acts
        )


def _numbers(marks: Sequence[Mark]) -> tuple[int, ...]:
    return tuple(mark.number for mark in marks)


def _which(mark: Mark, beside: list[Mark]) -> str:
    """Which hole of a support, in words."""
    if len(beside) < 2:
        return ""
    level = sorted(beside, key=lambda each: (-each.y_mm, each.x_mm))
    n = level.index(mark)
    if len(level) == 2 and abs(level[0].y_mm - level[1].y_mm) > _LEVEL_MM:
        return (", upper hole", ", lower hole")[n]
    return compose(", hole {n} of {level}", n=n + 1, level=len(level))
