"""The record as a stage of the workbench."""

from functools import cached_property

from django.utils.translation import gettext as _

from bench.stages.record.forms import FORMS
from bench.words import lazy, worded
from bench.workbench.context import Note, Stage, Tab, WorkbenchContext
from trade.job.as_built import AsBuiltReport, as_built
from trade.job.care import Care, cares
from trade.job.proof import ProofLoad, Proved, proof_load, prove
from trade.job.trial import Learned, Rig, Tried, fixing_of, learned, rig, tried
from trade.plan.as_built import Look, Proof, Trial


class RecordContext:
    """What is known of a piece that hangs."""

    def __init__(self, bench: WorkbenchContext) -> None:
        """Of the piece that is worked on; its form is that of the open tab."""
        make = FORMS[bench.tab][0]
        self._bench = bench
        self.form = bench.posted(make) or make(bench)
        self.plan, self.piece = bench.plan, bench.chosen
        self.photos = bench.wall.photos.filter(key=bench.chosen.key, deleted=None)
        self.hung = self.plan.as_built.as_hung(self.piece.key)

    @property
    def as_built(self) -> AsBuiltReport:
        """As it hangs, judged."""
        return as_built(self.plan, self.piece.key)

    @property
    def load(self) -> ProofLoad:
        """What would prove it."""
        return proof_load(self.as_built.piece, self.plan)

    @property
    def proofs(self) -> list[tuple[Proof, Proved]]:
        """Every proof, the latest first, with what it says."""
        load = self.load
        own = [proof for proof in self.plan.as_built.proofs if proof.piece == self.piece.key]
        return [(proof, prove(proof, load)) for proof in reversed(own)]

    @cached_property
    def rig(self) -> Rig:
        """How to try one of its fixings on scrap."""
        return rig(self.piece, self.plan)

    @property
    def trials(self) -> list[tuple[Trial, Tried | None]]:
        """Every trial, the latest first; with what it says where it was of this fixing."""
        own = [each for each in self.plan.as_built.trials if each.piece == self.piece.key]
        now = fixing_of(self.piece)
        return [
            (each, tried(each, self.rig) if each.of == now and not self.rig.refusal else None)
            for each in reversed(own)
        ]

    @property
    def learned(self) -> Learned | None:
        """The result of all trials of this fixing on the job's walls."""
        walls = self._bench.wall.job.walls.filter(deleted=None).with_plans()
        return learned(self.piece, [wall.plan() for wall in walls])

    @property
    def looks(self) -> list[Look]:
        """Every look, the latest first."""
        return [look for look in reversed(self.plan.as_built.looks) if look.piece == self.piece.key]

    @property
    def cares(self) -> tuple[Care, ...]:
        """When to look again."""
        return cares(self.plan, self.piece.key)


def _context(bench: WorkbenchContext) -> RecordContext | None:
    if bench.piece is None:
        return None
    bench.key = bench.piece.key
    return RecordContext(bench)


def _note(bench: WorkbenchContext) -> Note:
    plan = bench.plan
    if not plan.pieces:
        return Note("waiting", _("nothing yet"))
    latest = {look.piece: look.held for look in plan.as_built.looks}
    loose = sum(latest.get(piece.key) in ("loose", "off") for piece in plan.pieces)
    if loose:
        return Note("trouble", worded("{n} loose", n=loose))
    recorded = sum(plan.as_built.as_hung(piece.key) is not None for piece in plan.pieces)
    if recorded == len(plan.pieces):
        return Note("done", _("all recorded"))
    return Note(
        "waiting",
        worded("{n} of {all}", n=recorded, all=len(plan.pieces)) if recorded else _("not yet"),
    )


STAGE = Stage(
    "record",
    lazy("Record"),
    note=_note,
    context=_context,
    tabs=(
        Tab("", lazy("As built"), lazy("What was really used, and whether it holds")),
        Tab("trial", lazy("Trial"), lazy("One fixing tried on scrap, before the wall")),
        Tab("proof", lazy("Proof"), lazy("A proof load, and its readings")),
        Tab("look", lazy("Inspections"), lazy("Its condition, and when to inspect it again")),
    ),
)
