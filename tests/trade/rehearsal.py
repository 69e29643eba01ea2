"""A rehearsal of the steps of a piece: a wall, hands, and what is physically in the way.

It knows what is drawn, marked, drilled, set, held, driven, tight, level, covered, bored and
finished, and refuses a step that cannot be done as things stand then. It does not know how the
steps were made.
"""

from collections.abc import Iterable

from trade.data import fixings, screws
from trade.fixings.anchor_capacity import anchor_of
from trade.job.step import Step
from trade.marking.marks import Mark, piece_marks
from trade.mounts import Act, mount_of
from trade.plan.model import Plan


class ImpossibleError(AssertionError):
    """A step that cannot be done as things stand."""


class Rehearsal:
    """A piece of a plan, and how far it is."""

    def __init__(self, plan: Plan, key: str) -> None:
        self.plan, self.piece = plan, plan.piece(key)
        self.mount = mount_of(self.piece)
        self.marks = {
            m.number: m
            for m in piece_marks(self.piece, plan.wall, plan.units)
            if m.where != "shelf"
        }
        self.drawn = False
        self.known: set[int] = (
            set()
        )  # holes whose place is marked on the wall itself, through the thing or by the level
        self.opened: set[int] = set()
        self.drilled: set[int] = set()
        self.anchored: set[int] = set()
        self.driven: set[int] = set()
        self.tight: set[int] = set()
        self.levelled: set[str] = set()
        self.up: dict[
            str, set[int]
        ] = {}  # things that are against the wall, with the screws that hold them
        self.over: dict[str, set[int]] = {}  # and the holes that they stand over
        self.on: set[str] = set()  # what rests on what is fixed
        self.measured = self.bored = self.finished = False
        self.wet: set[int] = set()  # holes whose resin has not set
        lets_in = getattr(self.piece, "let_in", False) and bool(plan.wall.layers)
        self.must_open = set(self.marks) if lets_in else set()

    def refuse(self, words: str) -> None:
        raise ImpossibleError(words)

    def kind(self, mark: Mark) -> str:
        if mark.anchor is not None:
            return anchor_of(self.plan.wall, mark.anchor).kind
        return screws()[mark.screw].kind if mark.screw is not None else "pin"

    def goes(self, number: int) -> str:
        return fixings()[self.kind(self.marks[number])].goes

    def run(self, steps: Iterable[Step]) -> None:
        """Do every step; at the end everything must be in, tight and on."""
        for step in steps:
            try:
                for act in step.acts:
                    getattr(self, act.verb)(act)
            except ImpossibleError as error:
                raise ImpossibleError(f"{step.title} ({act.verb} {act.thing}): {error}") from None
            if step.kind == "wait" or step.wait_hours:
                self.wet.clear()
        if left := set(self.marks) - self.tight:
            self.refuse(f"holes {sorted(left)} never got what holds in them")
        if self.mount.bores(self.piece, self.plan.wall) and not self.bored:
            self.refuse("it has holes of its own that nobody bored")

    def draw(self, act: Act) -> None:
        self.drawn = True

    def hold(self, act: Act) -> None:
        if not self.drawn and act.thing != "bookcase":
            self.refuse("there is no line to hold it to")
        if self.on:
            self.refuse(f"{self.on} is in the way")
        if self.wet & set(act.holes):
            self.refuse("the resin is still soft")
        self.up.setdefault(act.thing, set())
        self.over[act.thing] = set(act.holes)

    def mark(self, act: Act) -> None:
        if act.holes and not (act.thing in self.up or self.drilled):
            self.refuse("nothing is there to mark it from")
        self.known |= set(act.holes)

    def take_down(self, act: Act) -> None:
        if self.up.get(act.thing):
            self.refuse("its screws are in")
        self.up.pop(act.thing, None)
        self.over.pop(act.thing, None)
        self.on.discard(act.thing)

    def open(self, act: Act) -> None:
        holes = set(act.holes)
        if not (self.drawn and (holes <= self.known or not self.tight)):
            self.refuse("nobody knows its height yet: it is set level with the first")
        if self.covered(holes):
            self.refuse("it is covered")
        self.opened |= holes

    def covered(self, holes: set[int]) -> set[str]:
        """What is in front of some holes, be it bored or not."""
        return {name for name, own in self.over.items() if own & holes} | self.on

    def drill(self, act: Act) -> None:
        [number] = act.holes
        mark = self.marks[number]
        if self.on:
            self.refuse(f"{self.on} covers it")
        if number in self.must_open and number not in self.opened:
            self.refuse("the lining is not cut out for its plate")
        for name in self.covered({number}):
            wooden = mark.clearance_mm is not None
            if mark.bit_mm and wooden and mark.bit_mm > mark.clearance_mm + 0.05:
                self.refuse(f"its bit is wider than the hole through the {name}")
            if mark.bit_mm and not wooden and self.goes(number) in ("before", "with"):
                self.refuse(f"its bit is wider than the hole in the {name}")
        self.drilled.add(number)

    def set(self, act: Act) -> None:
        for number in act.holes:
            if number not in self.drilled:
                self.refuse("its hole is not drilled")
            if self.covered({number}):
                self.refuse("what it holds is already in front of its hole")
            if self.goes(number) == "with" and act.thing == "wall" and self.through_a_thing(number):
                self.refuse("its wings must be on its bolt, and its bolt through the thing")
            if self.kind(self.marks[number]) == "resin":
                self.wet.add(number)
            self.anchored.add(number)
            if act.thing == "wall" and not self.through_a_thing(number):
                self.driven.add(number)  # a rod is its own thing
                self.tight.add(number)

    def through_a_thing(self, number: int) -> bool:
        return self.mount.support_noun not in ("rod", "pin") or hasattr(self.piece, "plate")

    def drive(self, act: Act) -> None:
        for number in act.holes:
            if number not in self.drilled:
                self.refuse("its hole is not drilled")
            if self.goes(number) in ("before", "with") and number not in self.anchored:
                self.refuse("its anchor is not in")
            if self.through_a_thing(number) and act.thing not in self.up:
                self.refuse("the thing is not there")
            if number in self.wet:
                self.refuse("the resin is still soft")
        held = self.up.get(act.thing, set())
        one_by_one = self.through_a_thing(act.holes[0]) and self.goes(act.holes[0]) in (
            "driven",
            "through",
        )
        if one_by_one and len(held | set(act.holes)) > 1 and act.thing not in self.levelled:
            self.refuse("a second screw goes in and it is not level yet")
        self.driven |= set(act.holes)
        self.up.setdefault(act.thing, set()).update(act.holes)

    def tighten(self, act: Act) -> None:
        many = [n for n in act.holes if self.through_a_thing(n)]
        if len(many) > 1 and act.thing not in self.levelled:
            self.refuse("it was never levelled")
        if set(act.holes) - self.driven:
            self.refuse("some are not in")
        self.tight |= set(act.holes)

    def level(self, act: Act) -> None:
        if act.thing in ("rods", "pins"):
            if set(self.marks) - self.tight:
                self.refuse("not all of them are in")
        elif act.thing not in self.up:
            self.refuse("it is not there")
        elif self.up[act.thing] & self.tight:
            self.refuse("it is tight already and turns no more")
        self.levelled.add(act.thing)

    def measure(self, act: Act) -> None:
        if act.thing != "dowels" and set(self.marks) - self.tight:
            self.refuse("not all of them are in: there is nothing to measure")
        self.measured = True

    def bore(self, act: Act) -> None:
        if not self.measured:
            self.refuse("nobody knows where the holes go")
        if self.finished:
            self.refuse("it is finished already")
        self.bored = True

    def finish(self, act: Act) -> None:
        if not self.bored:
            self.refuse("it will be bored after its finish")
        self.finished = True

    def put_on(self, act: Act) -> None:
        if left := set(self.marks) - self.tight:
            self.refuse(f"it covers holes {sorted(left)}, and what carries it is not tight")
        if self.mount.bores(self.piece, self.plan.wall) and not self.bored:
            self.refuse("it is not bored")
        if self.wet:
            self.refuse("the resin is still soft")
        self.on.add(act.thing)
