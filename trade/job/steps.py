"""Hanging a piece, step by step, in the order that works.

What to do now, with which bit, what to mind, who must help.

A hole is known by its place: its step is done when it is in the wall and sound, however the plan
has changed meanwhile.
"""

from collections import Counter
from collections.abc import Iterator
from functools import cached_property

from trade import data
from trade.calculation import Quantity
from trade.check import Message
from trade.cutting.finish import Finished, finishes
from trade.cutting.order import order_of
from trade.cutting.parts import labelled, parts_of
from trade.cutting.shopping import bits_lacking
from trade.fixings import driving
from trade.fixings.support import board_screw
from trade.job import taking_off
from trade.job.fixing import Fixing, Group
from trade.job.step import Step, said
from trade.job.tricks import Tricks
from trade.language import capital, compose, joined, word
from trade.load.lifting import lift
from trade.marking.marks import Mark, piece_marks
from trade.marking.reading import read, say_datum, say_up
from trade.measure import Units, say_bit, say_length
from trade.mounts import Act, Do, Hanging, mount_of
from trade.mounts.base import Extra
from trade.mounts.units import units_joined
from trade.mounts.without import without
from trade.plan.facing import SIDES
from trade.plan.features import Feature
from trade.plan.flatness import Side
from trade.plan.model import AnyPiece, Piece, Plan
from trade.plan.place import beside_plan
from trade.wall.backing import crossed
from trade.wall.zones import zones

_NTH = (
    word("lowest"),
    word("second"),
    word("third"),
    word("fourth"),
    word("fifth"),
    word("sixth"),
    word("seventh"),
    word("eighth"),
    word("ninth"),
    word("tenth"),
    word("eleventh"),
    word("twelfth"),
)
_NEAR_SERVICE_MM = data.house("near_service_mm")


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
    did, made = plan.as_built.steps(key), plan.as_built.existing_holes(key)

    there = {side: beside_plan(plan, side) for side in SIDES}

    def done(step: Step) -> bool:
        if step.mark is None:
            return step.key in did
        on = there[step.mark.side] if step.mark.side is not None else None
        holes = made if on is None else on.as_built.existing_holes(key)
        return any(hole.is_at(step.mark.x_mm, step.mark.y_mm) for hole in holes)

    tricks = Tricks(piece, plan)
    every = _Work(piece, plan, units).steps()
    return tuple(step._replace(done=done(step), tips=tricks.of(step)) for step in every)


class _Work:
    """A piece to hang, with its holes."""

    def __init__(self, piece: AnyPiece, plan: Plan, units: Units) -> None:
        self.piece, self.plan, self.units = piece, plan, units
        every = piece_marks(piece, plan.wall, units, plan.policy.lead_holes, plan.as_built)
        self.marks = [mark for mark in every if mark.where == "wall"]
        self.beside = [mark for mark in every if mark.where == "beside"]
        self.hanging = mount_of(piece).hanging(piece, plan.wall, plan.policy)
        kg = mount_of(piece).weight_kg(piece)
        self.people = lift(kg, piece.depth_mm, piece.top_mm).people if kg else 1

    def steps(self) -> Iterator[Step]:
        """All of them in order."""
        for each in mount_of(self.piece).making(self.piece).steps:
            yield self._do(each)._replace(facts=self._boards())
        yield self._ready()
        yield self._safe()
        yield from taking_off.steps(self.piece, self.plan)
        yield self._survey()
        yield from (self._fit(wood) for wood in self._across() if wood.to_fit)
        yield self._line()
        yield from (self._do(each) for each in self.hanging.before)
        if self.marks:
            yield from Fixing(self.piece, self.plan, self.units, self.hanging, self.people).all(
                self._groups()
            )
        for each in self.hanging.after:
            yield self._do(each)
            if each.beside is not None:
                yield from self._on_wall_beside(each.beside)
            if any(act.verb == "bore" for act in each.acts) and self._finished_before():
                yield self._finish(each)
        yield from map(self._joined, units_joined(self.piece, self.plan))
        if any(each.finish.hung for each in self.finished):
            words = said("Cover the wall and the floor. Every coat as the schedule has it.")
            title = "Finish it where it hangs"
            yield Step("finish-hung", "do", title, words, acts=(Act("finish", "piece"),))
        if (hours := self._hardens()) > 0:
            words = (
                Message("Counted from the last coat. Earlier, things stick to it and leave marks."),
            )
            yield Step(
                "harden",
                "wait",
                "Let the finish harden before you load it",
                words,
                wait_hours=hours,
            )
        yield self._close()

    @cached_property
    def finished(self) -> list[Finished]:
        """What finish the piece gets, on which of its parts, where it gets one."""
        shop = self.plan.shop
        if not any(each.top for each in (shop.finish, *(own.finish for own in shop.finishes))):
            return []
        parts = [part for part in parts_of(self.plan).cut if part.key == self.piece.key]
        every = finishes(order_of(self.plan), parts)
        return [each for each in every if each.done.coats and each.done.area_m2 > 0]

    def _joined(self, other: Piece) -> Step:
        """Return how it is joined to one that stands beside it."""
        words = (
            Message(
                "Both level, their fronts flush, a clamp across both sides at top and bottom, with "
                "a scrap under each jaw."
            ),
            Message(
                "{n} bolts through both sides, two near the front and two near the back, under a "
                "shelf's end or between two rows of holes, where nobody looks.",
                {"n": Quantity(data.house("joining_bolts"), "count")},
            ),
        )
        title = compose("Join it to “{name}”", name=other.name)
        return Step(f"join-{other.key}", "do", title, words)

    def _boards(self) -> tuple[tuple[str, str], ...]:
        """Return the boards of its body by their labels, alike ones together."""
        found: dict[str, list[str]] = {}
        for label, panel in labelled(parts_of(self.plan).cut, self.piece):
            found.setdefault(panel.name, []).append(label)
        return tuple((name, joined(labels)) for name, labels in found.items())

    def _hardens(self) -> float:
        """Hours from the last coat until the piece may be loaded.

        0 where none of its wood is finished here.
        """
        return max((each.done.load_hours for each in self.finished), default=0.0)

    def _finished_before(self) -> list[Finished]:
        """Return what is finished before it hangs."""
        return [each for each in self.finished if not each.finish.hung]

    def _finish(self, bored: Do) -> Step:
        """Return the finish of what was bored from the wall; it dries before anybody touches it."""
        [thing] = [act.thing for act in bored.acts if act.verb == "bore"]
        words = said("Every coat, as the schedule has them; keep it out of the holes.")
        hours = max(each.done.handle_hours for each in self._finished_before())
        return Step(
            "finish",
            "do",
            compose("Finish the {thing}", thing=thing),
            words,
            wait_hours=hours,
            acts=(Act("finish", thing),),
        )

    def _ready(self) -> Step:
        """Everything at hand before anybody climbs."""
        every = (*self.marks, *self.beside)
        bits = dict.fromkeys(say_bit(mark.bit_mm, self.units) for mark in every if mark.bit_mm)
        fixings = Counter(mark.fixing for mark in every if mark.fixing)
        facts = [("Bits", joined(bits))] if bits else []
        facts += (
            [("Into the wall", joined(_times(many, name) for name, many in fixings.items()))]
            if fixings
            else []
        )
        facts += [
            (extra.where, _times(extra.many, self._extra(extra, fixings)))
            for extra in self._extras()
        ]
        words = (
            Message("Drill, driver, level, tape, pencil, a rag; a step that stands firm."),
            Message("Cover what stands below, and move what could be hit."),
        )
        minds = (
            *self._lacking(),
            Message(
                "Glasses on. A mask where there is dust, and something over the ears for masonry."
            ),
        )
        return Step("ready", "ready", "Have it all at hand", words, tuple(facts), minds)

    def _lacking(self) -> Iterator[Message]:
        """Yield what it takes and is not there: tools by the policy, bits by the drawer."""
        lacks = set(self.plan.policy.lacks)
        every = data.tools()
        kind = data.mounting_kinds()[mount_of(self.piece).kind]
        needed = dict.fromkeys((*kind.tools, *mount_of(self.piece).making(self.piece).tools))
        tools = [every[tool] for tool in needed if tool in lacks]
        if self.plan.wall.build == "mass" and "hammer_drill" in lacks:
            tools.append(every["hammer_drill"])
        for tool in tools:
            yield Message(
                "You lack the {tool}: get it first. {without}",
                {"tool": tool.name, "without": without(tool, self.units)},
            )
        sizes = [mark.bit_mm for mark in (*self.marks, *self.beside) if mark.bit_mm]
        if bits := bits_lacking(self.plan, sizes, self.units):
            said = "Of the bits you lack {bits}: get it first."
            yield Message(said, {"bits": joined(bits)})

    def _extras(self) -> list[Extra]:
        return mount_of(self.piece).extras(self.piece, self.plan.wall)

    def _extra(self, extra: Extra, fixings: Counter[str]) -> str:
        """Return what goes in besides, in words.

        A screw of its own, or what goes into this wall.
        """
        if extra.screw is None:
            return next(iter(fixings), "the same as here")
        row = data.screws()[extra.screw]
        name = row.called(self.units)
        return joined((name, say_length(extra.length_mm, self.units)))

    def _safe(self) -> Step:
        """Power off, water known; old paint and plaster."""
        left = self.piece.left_mm - _NEAR_SERVICE_MM
        right = self.piece.left_mm + self.piece.length_mm + _NEAR_SERVICE_MM
        never = [
            zone
            for zone in zones(self.plan.wall)
            if zone.bars == "drilling" and zone.level == "keep_out"
        ]
        near = [zone for zone in never if zone.left_mm < right and zone.right_mm > left]
        told: dict[str, None] = dict.fromkeys(
            compose("{reason!c} is near. {advice}", reason=zone.reason, advice=zone.advice)
            for zone in near
        )
        if any(layer.kind.startswith("plaster") for layer in self.plan.wall.layers or ()):
            told[
                "Old paint, plaster and textured finishes may hold lead or asbestos: have them "
                "tested before you drill."
            ] = None
        words = (
            Message(
                "Switch the circuits of this wall off, and test that they are dead. Know where "
                "the water turns off."
            ),
            Message("Local wiring rules say where cables may run. Old cables may not follow them."),
        )
        return Step("safe", "safe", "Switch off, and test", words, cautions=said(*list(told)[-4:]))

    def _survey(self) -> Step:
        """Once more, right where it will be drilled."""
        marks = tuple(self.marks)
        if self.plan.wall.build in ("timber", "steel"):
            studs = sorted({mark.stud_mm for mark in marks if mark.stud_mm is not None})
            facts: tuple[tuple[str, str], ...] = (
                (
                    (
                        "Studs, from the left corner",
                        joined(say_length(x, self.units) for x in studs),
                    ),
                )
                if studs
                else ()
            )
            facts += tuple(
                (
                    capital(each.row.name),
                    compose(
                        "from {left} to {right}, {bottom} to {top} up",
                        left=say_length(each.left_mm, self.units),
                        right=say_length(each.right_mm, self.units),
                        bottom=say_length(each.bottom_mm, self.units),
                        top=say_length(each.top_mm, self.units),
                    ),
                )
                for each in self._across()
                if not each.to_fit
            )
            said = (
                Message(
                    "At the height of the screws, from both sides. A thin nail where a screw goes "
                    "tells wood from air."
                ),
                Message("Tape the whole width of each stud, not one pencil line."),
            )
            return Step(
                "survey-again", "survey", "Find the studs once more", said, facts, marks=marks
            )
        words = (
            Message(
                "Along every mark, up, down and across. Then sound the wall: a hollow place holds "
                "little."
            ),
        )
        return Step(
            "survey-again", "survey", "Scan for cables and pipes once more", words, marks=marks
        )

    def _across(self) -> dict[Feature, None]:
        """Return the blocking and headers that its screws go into."""
        return dict.fromkeys(
            support.stud.across
            for support in mount_of(self.piece).supports(self.piece, self.plan.wall)
            if support.stud.across is not None
        )

    def _fit(self, wood: Feature) -> Step:
        """Blocking goes in before anything is marked: the lining is whole again by then.

        So does a board on the wall's face: what is marked is marked on it.
        """
        return self._fit_board(wood) if wood.on_face else self._fit_blocking(wood)

    def _fit_board(self, wood: Feature) -> Step:
        key, length = board_screw(self.plan.wall, wood, self.units)
        screw = joined((data.screws()[key].called(self.units), self._size(length)))
        studs = joined(self._size(each.centre_mm) for each in crossed(self.plan.wall, wood))
        facts = (
            ("From the left corner", self._between(wood.left_mm, wood.right_mm)),
            ("Up", self._between(wood.bottom_mm, wood.top_mm)),
            ("Studs, from the left corner", studs),
            ("Into each stud", _times(wood.row.studs_n, screw)),
        )
        words = (
            Message(
                "Cut it so that it ends on a stud at both ends, and mark the studs on its face."
            ),
            Message("Hold it level, and drill it for its screws, near its upper and lower edge."),
            Message("Screw it to every stud it crosses, tight against the wall."),
        )
        minds = (Message("Each screw must bite: one that turns on has missed its stud."),)
        return Step(wood.step, "do", "Screw the board to the studs", words, facts, minds)

    def _size(self, mm: float) -> str:
        return say_length(mm, self.units)

    def _between(self, one_mm: float, other_mm: float) -> str:
        return joined((self._size(one_mm), self._size(other_mm)), " to ")

    def _fit_blocking(self, wood: Feature) -> Step:
        screw = data.screws()[data.screw_in(wood.row.ends_screw, self.units)]
        name, long = screw.called(self.units), driving.nearest_length_mm(screw, wood.row.ends_mm)
        facts = (
            ("Between the studs", self._between(wood.left_mm, wood.right_mm)),
            ("Up", self._between(wood.bottom_mm, wood.top_mm)),
            (
                "Into each end",
                _times(wood.row.ends_n, joined((name, self._size(long)))),
            ),
        )
        words = (
            Message("Cut the lining out from the middle of one stud to the middle of the next."),
            Message("Measure the bay, cut the wood to it, and set its face level with the studs'."),
            Message(
                "Screw it through the studs; at a slant from its face where the next bay is closed."
            ),
            Message(
                "Put the lining back on studs and blocking; tape and fill. It may be painted "
                "when the filler is dry."
            ),
        )
        minds = (
            Message("Open the wall by hand: cables and pipes may lie right behind the lining."),
        )
        return Step(wood.step, "do", "Put blocking between the studs", words, facts, minds)

    def _line(self) -> Step:
        """Return the line that everything is measured from: where the hardware goes."""
        datum, (name, height) = self.plan.datum, self.hanging.line
        along = "With a long level or a laser: floor and ceiling run off."
        if self.plan.policy.level == "eye":
            along = "Along the ceiling or the trim that the eye follows; tape it on."
        up = say_up(read(datum, self.piece, self.plan.wall, 0.0, height), datum, self.units)
        acts = (Act("draw", "wall"),)
        return Step(
            f"line-{height:.0f}",
            "line",
            "Draw the line",
            said(say_datum(datum, self.units), along),
            ((name, up),),
            acts=acts,
        )

    def _do(self, each: Do) -> Step:
        """Return what is not a hole."""
        minds = tuple(mount_of(self.piece).lifting(self.piece)) if each.lifts else ()
        people = self.people if each.lifts else 1
        return Step(
            each.key,
            "do",
            each.title,
            each.words,
            tuple(self._round_the_corner(each.beside)) if each.beside is not None else (),
            minds,
            people=people,
            wait_hours=each.wait_hours,
            acts=each.acts,
        )

    def _on_wall_beside(self, side: Side) -> Iterator[Step]:
        """Yield how a ledger is fixed to the wall beside, hole by hole."""
        there = beside_plan(self.plan, side)
        marks = [mark for mark in self.beside if mark.side == side]
        if there is None or not marks:
            return
        thing = compose("{side} ledger", side=side)
        group = Group(thing, tuple(sorted(marks, key=lambda m: (m.x_mm, -m.y_mm))), True)
        fixing = Fixing(self.piece, there, self.units, Hanging(thing, self.hanging.line), 1)
        for step in fixing.all([group]):
            yield step._replace(key=f"{side}-{step.key}")

    def _round_the_corner(self, side: Side) -> Iterator[tuple[str, str]]:
        """Yield each hole in the wall beside: from the corner and up; the bit, and how deep."""
        datum = self.plan.datum
        for mark in (each for each in self.beside if each.side == side):
            up = say_up(read(datum, self.piece, self.plan.wall, 0.0, mark.y_mm), datum, self.units)
            bit = say_bit(mark.bit_mm, self.units) if mark.bit_mm else "no pilot hole"
            yield (
                capital(mark.part),
                compose(
                    "{far} from the corner, {up} up; {bit}, tape at {deep}; {fixing}",
                    far=self._size(mark.corner_mm or 0.0),
                    up=up,
                    bit=bit,
                    deep=self._size(mark.depth_mm),
                    fixing=mark.fixing or "",
                ),
            )

    def _groups(self) -> list[Group]:
        """Holes that are made for one thing, in the order in which the things go up.

        The outer ones before those between.
        """
        if self.hanging.order == "apart":
            supports = sorted({mark.support for mark in self.marks})
            outer = [supports[0], supports[-1], *supports[1:-1]] if len(supports) > 1 else supports
            found = [[mark for mark in self.marks if mark.support == n] for n in outer]
            return [
                Group(each[0].part, tuple(sorted(each, key=lambda m: -m.y_mm)), n == 0)
                for n, each in enumerate(found)
            ]
        rows: list[list[Mark]] = [[] for _ in self.hanging.rows_mm or (0.0,)]
        middles = sorted(self.hanging.rows_mm) or [0.0]
        for mark in sorted(self.marks, key=lambda m: (m.x_mm, -m.y_mm)):
            rows[min(range(len(middles)), key=lambda n: abs(middles[n] - mark.y_mm))].append(mark)
        kept, thing = [row for row in rows if row], self.hanging.thing
        names = (
            [compose("{nth} {thing}", nth=nth, thing=thing) for nth in _NTH]
            if len(kept) > 1
            else [thing]
        )
        return [Group(names[n], tuple(row), n == 0) for n, row in enumerate(kept)]

    def _close(self) -> Step:
        """Last things."""
        total = sum(thing.mass_kg or 0.0 for thing in self.piece.things)
        words = [
            Message("Sweep and wipe: dust shows where plaster still crumbles. Power on again."),
            Message("Push it down and pull it out by hand. Nothing may move that you can feel."),
        ]
        if total:
            said = (
                "Load it slowly, the heavy things over the supports; {kg} in all is what it "
                "was made for."
            )
            words.append(Message(said, {"kg": Quantity(total, "mass")}))
        return Step("close", "close", "Try it, clean up, load it", tuple(words))


def _times(number: int, name: str) -> str:
    return compose("{n} × {name}", n=number, name=name)
