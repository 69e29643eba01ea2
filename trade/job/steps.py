"""Hanging a piece, step by step, in the order that works: what to do now, with which bit, what to mind, who must help.

A hole is known by its place: its step is done when it is in the wall and sound, however the plan has changed meanwhile.
"""

from collections import Counter
from collections.abc import Iterator
from typing import Literal, NamedTuple

from trade import data
from trade.check import Phrase, Quantity
from trade.cut.finish import finishing
from trade.cut.parts import parts_of
from trade.job.days import in_resin
from trade.load.lifting import lift
from trade.mark.marks import Mark, piece_marks
from trade.mark.reading import read, say_across, say_datum, say_up
from trade.measure import Units, say_bit, say_length
from trade.mounts import Do, mount_of
from trade.plan import AnyPiece, Plan
from trade.wall.zones import zones

StepKind = Literal["ready", "safe", "survey", "line", "do", "drill", "drive", "level", "wait", "close"]
_LEVEL_MM, _ROW_MM = 5.0, 60.0  # screws no further apart in height stand side by side; are in the same strip
_NEAR_SERVICE_MM = 600.0  # house rule: as far as a cable or a pipe is minded


class Step(NamedTuple):
    """One thing to do.

    `marks`: the holes that it is about; `facts`: what to read off at arm's length, each a name and a value; `cautions`: what can
    hurt here; `people`: how many must be there; `wait_hours`: how long nothing goes on after it; `done`, as it stands now.
    """

    key: str
    kind: StepKind
    title: str
    words: tuple[Phrase, ...] = ()
    facts: tuple[tuple[str, str], ...] = ()
    cautions: tuple[Phrase, ...] = ()
    marks: tuple[Mark, ...] = ()
    people: int = 1
    wait_hours: float = 0.0
    done: bool = False

    @property
    def mark(self) -> Mark | None:
        """The one hole that is drilled in this step."""
        return self.marks[0] if self.kind == "drill" else None


def steps(plan: Plan, key: str, units: Units) -> tuple[Step, ...]:
    """All steps of hanging a piece, with those that are done already.

    Args:
        plan: the wall, with what was built so far.
        key: of the piece.
        units: of the person.

    Raises:
        PlanError: no such piece.
    """
    piece = plan.piece(key)
    did, made = plan.built.steps(key), plan.built.made(key)

    def done(step: Step) -> bool:
        if step.mark is not None:
            return any(hole.is_at(step.mark.x_mm, step.mark.y_mm) for hole in made)
        return step.key in did

    return tuple(step._replace(done=done(step)) for step in _Work(piece, plan, units).steps())


class _Work:
    """A piece to hang, with its holes."""

    def __init__(self, piece: AnyPiece, plan: Plan, units: Units) -> None:
        self.piece, self.plan, self.units = piece, plan, units
        every = piece_marks(piece, plan.wall, units, plan.policy.lead_holes)
        self.marks = [mark for mark in every if mark.where == "wall"]
        self.hanging = mount_of(piece).hanging(piece, plan.wall, plan.policy)
        self.apart = self.hanging.order == "apart"
        kg = mount_of(piece).weight_kg(piece)
        self.people = lift(kg, piece.depth_mm, piece.top_mm).people if kg else 1

    def steps(self) -> Iterator[Step]:
        """All of them in order."""
        yield self._ready()
        yield self._safe()
        yield self._survey()
        yield self._line()
        yield from (self._do(each) for each in self.hanging.before)
        for n, group in enumerate(self._groups()):
            yield from self._fix(group, first=n == 0)
        if in_resin(self.piece, self.plan):
            words = (Phrase("Nothing hangs on it and nobody touches it until then."),)
            yield Step("set", "wait", "Let the resin set", words, wait_hours=data.house("resin_hours"))
        yield from (self._do(each) for each in self.hanging.after)
        if (hours := self._hardens()) > 0:
            words = (Phrase("Counted from the last coat: before that, things stick to it and leave their marks."),)
            yield Step("harden", "wait", "Let the finish harden before you load it", words, wait_hours=hours)
        yield self._close()

    def _hardens(self) -> float:
        """Hours from the last coat until the piece may be loaded; nought where none of its wood is finished here."""
        parts = [part for part in parts_of(self.plan).cut if part.key == self.piece.key] if self.plan.shop.finish.top else []
        done = finishing(self.plan.shop.finish, parts)
        return max((each.row.load_days for each in done.coats), default=0.0) * 24 * done.slower if done.area_m2 > 0 else 0.0

    def _ready(self) -> Step:
        """Everything at hand before anybody climbs."""
        bits = dict.fromkeys(say_bit(mark.bit_mm, self.units) for mark in self.marks if mark.bit_mm)
        fixings = Counter(mark.fixing for mark in self.marks if mark.fixing)
        facts = [("Bits", ", ".join(bits))] if bits else []
        facts += [("Into the wall", ", ".join(f"{many} × {name}" for name, many in fixings.items()))] if fixings else []
        words = (
            Phrase("Drill, driver, level, tape, pencil, a rag; a step that stands firm."),
            Phrase("Cover what stands below, and move what could be hit."),
        )
        minds = (Phrase("Glasses on. A mask where there is dust, and something over the ears for masonry."),)
        return Step("ready", "ready", "Have it all at hand", words, tuple(facts), minds)

    def _safe(self) -> Step:
        """Power off, water known; old paint and plaster."""
        left, right = self.piece.left_mm - _NEAR_SERVICE_MM, self.piece.left_mm + self.piece.length_mm + _NEAR_SERVICE_MM
        never = [zone for zone in zones(self.plan.wall) if zone.bars == "drilling" and zone.level == "keep_out"]
        near = [zone for zone in never if zone.left_mm < right and zone.right_mm > left]
        told = dict.fromkeys(f"{_upper(zone.reason)} is near. {zone.advice}" for zone in near)
        if any(layer.kind.startswith("plaster") for layer in self.plan.wall.layers or ()):
            told["Old paint, plaster and textured finishes may hold lead or asbestos: have them tested before you drill."] = None
        words = (
            Phrase("Switch the circuits of this wall off, and test that they are dead. Know where the water turns off."),
            Phrase("Local wiring rules say where cables may run; nobody has promised that they do."),
        )
        return Step("safe", "safe", "Switch off, and test", words, cautions=tuple(Phrase(each) for each in list(told)[-4:]))

    def _survey(self) -> Step:
        """Once more, right where it will be drilled."""
        marks = tuple(self.marks)
        if self.plan.wall.build in ("timber", "steel"):
            studs = sorted({mark.stud_mm for mark in marks if mark.stud_mm is not None})
            facts = (("Studs, from the left corner", ", ".join(say_length(x, self.units) for x in studs)),) if studs else ()
            said = (
                Phrase("At the height of the screws, from both sides. A thin nail where a screw goes tells wood from air."),
                Phrase("Tape the whole width of each stud, not one pencil line."),
            )
            return Step("survey-again", "survey", "Find the studs once more", said, facts, marks=marks)
        words = (Phrase("Along every mark, up, down and across. Then sound the wall: a hollow place holds little."),)
        return Step("survey-again", "survey", "Scan for cables and pipes once more", words, marks=marks)

    def _line(self) -> Step:
        """The line that everything is measured from."""
        datum, top = self.plan.datum, self.piece.top_mm
        along = "With a long level or a laser: floor and ceiling run off."
        if self.plan.policy.level == "eye":
            along = "Along the ceiling or the trim that the eye follows; tape it on."
        up = say_up(read(datum, self.piece, self.plan.wall, 0.0, top), datum, self.units)
        words = (Phrase(say_datum(datum, self.units)), Phrase(along))
        return Step(f"line-{top:.0f}", "line", "Draw the line", words, (("Its top goes", up),))

    def _do(self, each: Do) -> Step:
        """What is no hole."""
        minds = tuple(mount_of(self.piece).lifting(self.piece)) if each.lifts else ()
        people = self.people if each.lifts else 1
        return Step(each.key, "do", each.title, each.words, (), minds, people=people, wait_hours=each.wait_hours)

    def _groups(self) -> list[list[Mark]]:
        """Holes that are made for one thing, in the order in which the things go up: the outer ones before those between."""
        if self.hanging.order == "whole":
            return [self.marks] if self.marks else []
        if self.hanging.order == "rows":
            rows: list[list[Mark]] = []
            for mark in sorted(self.marks, key=lambda each: (each.y_mm, each.x_mm)):
                if rows and abs(rows[-1][0].y_mm - mark.y_mm) <= _ROW_MM:
                    rows[-1].append(mark)
                else:
                    rows.append([mark])
            return rows
        supports = sorted({mark.support for mark in self.marks})
        outer = [supports[0], supports[-1], *supports[1:-1]] if len(supports) > 1 else supports
        return [[mark for mark in self.marks if mark.support == n] for n in outer]

    def _fix(self, group: list[Mark], first: bool) -> Iterator[Step]:
        """One thing onto the wall: its first screw, level, its second, level toward the ends, then the others."""
        name = group[0].part if self.apart else self.hanging.thing
        ordered = sorted(group, key=lambda m: -m.y_mm) if self.apart else sorted(group, key=lambda m: (m.x_mm, -m.y_mm))
        group, head, rest = ordered, ordered[0], ordered[1:]
        spot = _spot(head)
        if not first and self.hanging.levelled:
            title, words = f"Set the next {name}", "On two blocks of the same height from the one below, or on a line of its own."
            if self.apart:
                title = f"Set the {name} level with the first"
                words = "Lay the level from the first to here: that line is its place, whatever the tape says."
            yield Step(f"next-{spot}", "level", title, (Phrase(words),), marks=(head,))
        yield self._drill(head, group)
        if not rest:
            yield self._drive(ordered, name, snug=True)
            return
        yield self._drive([head], name, snug=False)
        title, words = (f"Set the {name} plumb", "Plumb, and on its line.") if self.apart else (f"Level the {name}", self._level)
        yield Step(f"level-{spot}", "level", title, (Phrase(words),), marks=tuple(group))
        if not self.apart:
            last = max(rest, key=lambda mark: (mark.x_mm, mark.y_mm))
            rest.remove(last)
            yield self._drill(last, group)
            yield self._drive([last], name, snug=False)
            if rest:
                words = "Read it in the middle and toward both ends. Still level? Then all others."
                yield Step(f"ends-{spot}", "level", "Check level toward the ends", (Phrase(words),), marks=tuple(group))
        yield from (self._drill(mark, group) for mark in rest)
        yield self._drive(ordered, name, snug=True)

    @property
    def _level(self) -> str:
        if self.plan.policy.level == "eye":
            return "Turn it about its first screw until it runs with the line that the eye follows."
        return "Turn it about its first screw until the bubble stands still between the lines."

    def _drill(self, mark: Mark, group: list[Mark]) -> Step:
        """One hole."""
        datum, units = self.plan.datum, self.units
        place = read(datum, self.piece, self.plan.wall, mark.x_mm, mark.y_mm)
        facts = [("Across", say_across(place, datum, units)), ("Up", say_up(place, datum, units))]
        if mark.bit_mm:
            facts += [("Bit", say_bit(mark.bit_mm, units)), ("Tape at", say_length(mark.depth_mm, units))]
        else:
            facts.append(("Goes in", mark.fixing or ""))
        if mark.clearance_mm:
            facts.append(("Through the wood first", say_bit(mark.clearance_mm, units)))
        words = (Phrase("Measured from the datum, not from the last hole. Small bit first; a guide keeps it square."),)
        which = _which(mark, [other for other in group if other.support == mark.support])
        title = f"{'Drill' if mark.bit_mm else 'Start the screw of'} the {mark.part}{which}"
        said = words if mark.number == 1 else ()
        minds = tuple(each for each in mark.cautions if mark is group[0] or each not in group[0].cautions)
        return Step(f"drill-{_spot(mark)}", "drill", title, said, tuple(facts), minds, (mark,))

    def _drive(self, marks: list[Mark], name: str, snug: bool) -> Step:
        """What goes into holes that are there."""
        many, said = len(marks), "Snug, not crushed: stop when it sits. Over-driven it strips, or splits the wood."
        words = ["Anchor first, flush with the face; then the screw."] if any(mark.anchor for mark in marks) else []
        words.append(said if snug else "Not tight yet: it must still turn.")
        title = f"Drive all {many} screws of the {name}" if many > 1 else f"Drive the screw of the {name}"
        if self.hanging.thing in ("rod", "pin"):
            title, words = (
                f"Put the {name} in",
                ["Through a scrap with the same hole, so that it goes in square; as deep as the tape says."],
            )
        facts = tuple(dict.fromkeys(("Goes in", mark.fixing) for mark in marks if mark.fixing))
        key = f"drive-{_spot(marks[0])}-{'snug' if snug else 'loose'}"
        return Step(key, "drive", title, tuple(Phrase(each) for each in words), facts, marks=tuple(marks))

    def _close(self) -> Step:
        """Last things."""
        total = sum(thing.mass_kg or 0.0 for thing in self.piece.things)
        words = [
            Phrase("Sweep and wipe: dust shows where plaster still crumbles. Power on again."),
            Phrase("Push it down and pull it out by hand. Nothing may move that you can feel."),
        ]
        if total:
            said = "Load it slowly, the heavy things over the supports; {kg} in all is what it was made for."
            words.append(Phrase(said, {"kg": Quantity(total, "mass")}))
        return Step("close", "close", "Try it, clean up, load it", tuple(words))


def _spot(mark: Mark) -> str:
    """A hole's place as part of a key."""
    return f"{mark.x_mm:.0f}-{mark.y_mm:.0f}"


def _which(mark: Mark, beside: list[Mark]) -> str:
    """Which hole of a support, in words."""
    if len(beside) < 2:
        return ""
    level = sorted(beside, key=lambda each: (-each.y_mm, each.x_mm))
    n = level.index(mark)
    if len(level) == 2 and abs(level[0].y_mm - level[1].y_mm) > _LEVEL_MM:
        return (", upper hole", ", lower hole")[n]
    return f", hole {n + 1} of {len(level)}"


def _upper(words: str) -> str:
    return words[:1].upper() + words[1:]
