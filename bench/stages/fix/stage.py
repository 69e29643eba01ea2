"""Fixing as a stage of the workbench."""

from functools import cached_property

from django.utils.translation import gettext as _

from bench.stages.fix.forms import FixForm
from bench.stages.fix.layout import StackForm
from bench.stages.fix.own import OwnForm, form_for
from bench.stages.fix.packet import PacketForm
from bench.stages.fix.policy import PolicyForm
from bench.words import lazy
from bench.workbench.context import Note, Stage, Tab, WorkbenchContext
from bench.workbench.offers import two_lengths
from trade import wording
from trade.check import Message
from trade.choose.cures import Cure
from trade.choose.growth import grows
from trade.choose.held_with import Holder, holders
from trade.job.minding import what_to_mind
from trade.language import compose, joined
from trade.marking.summary import support_words
from trade.mounts import mount_of


class FixContext:
    """What holds a piece."""

    def __init__(self, bench: WorkbenchContext) -> None:
        """Of the piece that is worked on, if there is one."""
        self._bench, self._piece = bench, bench.piece

    @cached_property
    def form(self) -> FixForm | PolicyForm | None:
        """The form of the open tab; none where nothing hangs."""
        if self._bench.tab == "policy":
            return self._bench.posted(PolicyForm) or PolicyForm(self._bench)
        if self._piece is None:
            return None
        return self._bench.posted(FixForm) or FixForm(self._bench, self._piece)

    @property
    def holders(self) -> tuple[Holder, ...]:
        """What a piece may be asked to be held with."""
        return holders(self._bench.plan)

    @property
    def stacking(self) -> StackForm:
        """The form that asks for rows above each other."""
        return self._bench.posted(StackForm) or StackForm(self._bench)

    @property
    def packet(self) -> PacketForm | None:
        """The form for an anchor from a packet, on walls where an anchor can help the piece."""
        wall = self._bench.plan.wall
        if self._piece is None or (wall.build == "timber" and wall.layers == ()):
            return None
        return self._bench.posted(PacketForm) or PacketForm(self._bench)

    @property
    def own(self) -> OwnForm | None:
        """The form for hardware of one's own, where its kind takes some."""
        return form_for(self._piece, self._bench)

    @property
    def mount_kind(self) -> str:
        """The key of its kind of mounting."""
        return mount_of(self._piece).kind if self._piece else ""

    @property
    def mount_name(self) -> str:
        """Its kind of mounting."""
        return mount_of(self._piece).name if self._piece else ""

    @property
    def mount_words(self) -> str:
        """How many supports and screws it has."""
        return support_words(self._piece, self._bench.marks) if self._piece else ""

    @property
    def support_noun(self) -> str:
        """What a support of it is called."""
        return mount_of(self._piece).noun_of(self._piece) if self._piece else ""

    @property
    def on_hooks(self) -> bool:
        """Whether things may hang along it on hooks of their own."""
        if self._piece is None:
            return False
        mount = mount_of(self._piece)
        return mount.carries != "on" and not mount.stands

    @property
    def has_rows(self) -> bool:
        """Whether it is a panel in rows of screws, or on battens."""
        return (
            self._piece is not None and mount_of(self._piece).with_rows(self._piece, 3) is not None
        )

    @property
    def grows(self) -> bool:
        """Whether more holders, rows, panels or shelves go on it."""
        return self._piece is not None and grows(self._piece)

    @property
    def along(self) -> bool:
        """Whether the load it carries differs from place to place along it."""
        if self._piece is None:
            return False
        mount = mount_of(self._piece)
        return mount.carries in ("under", "in") and not mount.has_body

    @property
    def two_lengths(self) -> tuple[str, Cure] | None:
        """The change to two lengths, with its code, where no shop sells one so long."""
        return two_lengths(self._bench.plan, self._piece.key) if self._piece else None

    @property
    def mind(self) -> list[Message]:
        """What to mind with this kind of mounting here, and who must lift it."""
        return what_to_mind(self._piece, self._bench.plan) if self._piece else []


def _note(bench: WorkbenchContext) -> Note:
    outcomes = [piece.outcome for piece in bench.verdict.pieces]
    if not outcomes:
        return Note("waiting", _("nothing yet"))
    counted = {
        outcome: outcomes.count(outcome)
        for outcome in ("doesnt_fit", "wont_hold", "close", "cannot_tell")
        if outcome in outcomes
    }
    if not counted:
        return Note("done", _("all hold"))
    first, *others = (
        compose("{n} {word!l}", n=n, word=wording.WORDS[outcome]) for outcome, n in counted.items()
    )
    return Note("waiting" if list(counted) == ["cannot_tell"] else "trouble", first, joined(others))


def _below(bench: WorkbenchContext) -> str:
    return (
        "fix/_options_strip.html" if bench.tab == "ways" and bench.piece else "bench/_section.html"
    )


def _over(bench: WorkbenchContext) -> str:
    return "fix/_shade_slot.html" if bench.tab == "where" and bench.piece else ""


STAGE = Stage(
    "fix",
    lazy("Fix"),
    note=_note,
    context=FixContext,
    tabs=(
        Tab("", lazy("Checks"), lazy("Every check, worst first")),
        Tab("ways", lazy("Options"), lazy("Other mountings for it, compared")),
        Tab(
            "where",
            lazy("Best spots"),
            lazy("Where else it could hang, and what it would carry there"),
        ),
        Tab("if", lazy("More load"), lazy("What fails first if you put more on it")),
        Tab(
            "policy",
            lazy("Preferences"),
            lazy("Preferences for this job: what you trust, what matters to you"),
        ),
    ),
    below=_below,
    over=_over,
)
