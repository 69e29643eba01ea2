"""How people do things at the wall: which trick a step calls for, with this piece's own figures."""

from collections.abc import Iterator
from functools import cached_property
from math import atan, degrees

from trade import data
from trade.calculation import Quantity
from trade.check import Message, Placeholders
from trade.data.rows import Trick
from trade.job.step import Step, Tip
from trade.language import Figure
from trade.mounts import mount_of
from trade.mounts.hanging import Droop
from trade.plan.model import AnyPiece, Plan
from trade.wall.scribing import gap_mm

_HOLLOW_MM = data.house("hollow_from_mm")
_DROOPS_MM = data.house("droop_from_mm")


class Tricks:
    """The tricks that one piece calls for."""

    def __init__(self, piece: AnyPiece, plan: Plan) -> None:
        """Work nothing out yet."""
        self._piece, self._plan = piece, plan
        self._said: set[str] = set()
        self._pricked = False

    def of(self, step: Step) -> tuple[Tip, ...]:
        """Return the tricks of a step, each at the first step that calls for it."""
        found = []
        for call in self._calls(step):
            for key, row in data.tricks().items():
                if row.calls == call and self._suits(row, step) and key not in self._said:
                    self._said.add(key)
                    found.append(self._say(key, row))
        return tuple(found)

    def _calls(self, step: Step) -> Iterator[str]:
        """Yield what a step calls for."""
        verbs = {act.verb for act in step.acts}
        rods = {act.thing for act in step.acts} & {"rod", "pin"}
        if step.kind == "line":
            yield "line"
        if "hold" in verbs:
            self._pricked = self._pricked or "mark" in verbs
            yield "prick" if self._pricked else "hold"  # what was marked is only put up again
            if self._hollow:
                yield "uneven"
        if step.kind == "drill":
            yield "deep"
        if rods and "drive" in verbs:
            yield "rods"
        if step.kind == "level" and verbs == {"level"}:
            yield "level"
        if step.people > 1:
            yield "lift"
        if "put_on" in verbs and self._kind in ("cleat_cabinet", "cleat_wall"):
            yield "on_cleat"
        if "level" in verbs and "rods" in {act.thing for act in step.acts} and self._droops:
            yield "droop"

    @property
    def _kind(self) -> str:
        return mount_of(self._piece).kind

    @cached_property
    def _hollow(self) -> bool:
        """Whether the wall is known to be hollow behind one of its supports."""
        flatness, top = self._plan.wall.flatness, self._piece.top_mm
        gaps = (gap_mm(flatness, self._piece.left_mm + x, top) for x in self._piece.supports_mm)
        return any(gap is not None and gap >= _HOLLOW_MM for gap in gaps)

    @cached_property
    def _droop(self) -> Droop:
        return mount_of(self._piece).droop(self._piece, self._plan.wall)

    @property
    def _droops(self) -> bool:
        """Whether its front drops so much over the years that it is better set up before."""
        return self._droop.front_mm >= _DROOPS_MM

    def _suits(self, row: Trick, step: Step) -> bool:
        deep = max((mark.depth_mm for mark in step.marks), default=0.0)
        return deep >= row.least_mm and (not row.kinds or self._kind in row.kinds)

    def _say(self, key: str, row: Trick) -> Tip:
        piece, figures = self._piece, None
        if row.calls == "droop" and key == "tilt":
            slope = self._droop.front_mm / piece.depth_mm
            sizes: Placeholders = {
                "drop": Quantity(self._droop.front_mm, "fine"),
                "degrees": Figure(f"{degrees(atan(slope)):.1f}"),
                "shim": Quantity(slope * self._droop.plate_mm, "fine"),
            }
            figures = Message(
                "Here it drops {drop}: tilt it {degrees}°, with a shim of {shim}.", sizes
            )
        elif key == "props":
            up = Quantity(mount_of(piece).box(piece).bottom_mm, "length")
            figures = Message("Here {up}, less the shims.", {"up": up})
        return Tip(key, row.name, row.words, row.good, figures)
