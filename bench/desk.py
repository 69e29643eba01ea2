"""The desk: one wall on the workbench, as one request sees it.

Views ask it to show, to change, or to refuse.
"""

from collections.abc import Sequence
from functools import cached_property, lru_cache
from importlib import import_module
from typing import Any
from urllib.parse import urlencode

from django import forms
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.template.loader import render_to_string
from django.urls import reverse
from django.utils.cache import patch_vary_headers

from bench.access import Need, helps_only, wall_or_404, walls
from bench.cutting import Cutting
from bench.drawing import elevation, scribe, section
from bench.forms import mark_invalid
from bench.known import Known
from bench.models import Wall
from bench.stage_nav import HELPERS, LOOKS, STAGES, stage_nav
from trade.assess import assess
from trade.check import Message, PieceVerdict, Verdict
from trade.cutting.sold import unsold as not_sold
from trade.marking.marks import Mark, piece_marks
from trade.marking.reading import say_datum
from trade.measure import Units
from trade.mounts import ALL, AnySupport, fit, mount_of
from trade.mounts.base import Part
from trade.parse.spreadsheet import Refusal
from trade.plan.model import AnyPiece, Plan


class Desk:
    """A wall, its plan, the piece that is worked on, the stage, and the verdict on it all."""

    def __init__(self, request: HttpRequest, wall: Wall, stage: str, key: str | None) -> None:
        """Lay the wall on the desk; an unknown piece is no piece."""
        self.request, self.wall, self.stage = request, wall, stage
        self.plan: Plan = wall.plan()
        self.key = key
        asked = request.POST.get("look", request.GET.get("look", ""))
        self.look = asked if asked in (name for name, _, _ in self.tabs) else ""
        self.form: forms.Form | None = None
        self.packet_form: forms.Form | None = None
        self.hang_form: forms.Form | None = None
        self.stack_form: forms.Form | None = None
        self.own_form: forms.Form | None = None
        self.message = ""  # what went wrong
        self.notice = ""  # what else there is to say
        self.refused_rows: Sequence[Refusal] = ()

    @property
    def helping(self) -> bool:
        """Whether who looks may hang things here and no more."""
        return helps_only(self.request, self.wall)

    @property
    def units(self) -> Units:
        """The person's units."""
        return self.wall.display_units

    @property
    def piece(self) -> AnyPiece | None:
        """The piece that is worked on: the one asked for, else the worst one."""
        chosen = next((piece for piece in self.plan.pieces if piece.key == self.key), None)
        return chosen or next(
            (
                p
                for p in self.plan.pieces
                if self.verdict.piece(p.key).outcome == self.verdict.outcome
            ),
            None,
        )

    @property
    def _drawn_key(self) -> str | None:
        """The piece that the drawing brings out: none while the wall itself is looked at."""
        return self.piece.key if self.piece and self.stage != "survey" else None

    @property
    def chosen(self) -> AnyPiece:
        """The piece that a request is about.

        Raises:
            Http404: it is not on this wall.
        """
        piece = next((piece for piece in self.plan.pieces if piece.key == self.key), None)
        if piece is None:
            raise Http404("There is no such piece on this wall.")
        return piece

    @cached_property
    def verdict(self) -> Verdict:
        """On everything on the wall."""
        return assess(self.plan)

    @property
    def piece_verdict(self) -> PieceVerdict | None:
        """On the piece that is worked on."""
        return self.verdict.piece(self.piece.key) if self.piece else None

    @cached_property
    def marks(self) -> tuple[Mark, ...]:
        """Holes of the piece that is worked on."""
        return piece_marks(self.piece, *self._marked) if self.piece else ()

    @property
    def _marked(self) -> tuple[Any, ...]:
        plan = self.plan
        return plan.wall, self.units, plan.policy.lead_holes, plan.as_built

    @property
    def bores(self) -> list[Mark]:
        """Holes in the shelf itself."""
        return [mark for mark in self.marks if mark.where == "shelf"]

    @property
    def first_mark(self) -> Mark | None:
        """The first hole in the wall."""
        return next((mark for mark in self.marks if mark.where == "wall"), None)

    def mark_of(self, support: AnySupport | None) -> Mark | None:
        """The first hole in the wall of a support."""
        return next(
            (
                m
                for m in self.marks
                if support is not None and m.where == "wall" and m.support == support.index
            ),
            None,
        )

    @property
    def wall_holes(self) -> int:
        """How many holes go into the wall."""
        return sum(mark.where == "wall" for mark in self.marks)

    @property
    def underside_mm(self) -> float:
        """Height of the shelf's underside."""
        return self.piece.top_mm - self.piece.high_mm if self.piece else 0.0

    @property
    def support_noun(self) -> str:
        """What holds the piece."""
        return mount_of(self.piece).support_noun if self.piece else ""

    @property
    def mount_kind(self) -> str:
        """The key of its kind."""
        return mount_of(self.piece).kind if self.piece else ""

    @property
    def mount_name(self) -> str:
        """The kind of the piece."""
        return mount_of(self.piece).name if self.piece else ""

    @property
    def screw_words(self) -> str:
        """What goes into the holes: each kind of screw or anchor once."""
        supports = mount_of(self.piece).supports(self.piece, self.plan.wall) if self.piece else []
        return "; ".join(dict.fromkeys(support.words(self.units) for support in supports))

    all_mounts = ALL

    @property
    def tabs(self) -> tuple[tuple[str, str, str], ...]:
        """What the panel of this stage can show: a name in addresses, a word, a tip."""
        return LOOKS.get(self.stage, ())

    @property
    def stacking(self) -> forms.Form:
        """The form that asks for rows."""
        form: forms.Form = self.stack_form or import_module("bench.stages.layout").StackForm(self)
        mark_invalid(form) if form.is_bound else None
        return form

    @cached_property
    def cutting(self) -> Cutting:
        """What to saw, to buy, and when."""
        return Cutting(self.wall.pk, self.plan, self.units, walls(self.request))

    @property
    def hanging_already(self) -> int:
        """How many of its pieces are up: nothing is made for them any more."""
        return len(self.plan.pieces) - len(self.plan.waiting)

    @property
    def own_part_form(self) -> forms.Form:
        """The form for a part that is cut besides."""
        form: forms.Form = self.own_form or import_module("bench.stages.yard").OwnForm(self)
        mark_invalid(form) if form.is_bound else None
        return form

    @property
    def woods(self) -> list[tuple[str, str, float]]:
        """Woods that the parts of a drawing may be of."""
        found: list[tuple[str, str, float]] = import_module("bench.stages.yard").woods(self)
        return found

    @cached_property
    def at_wall(self) -> Any:
        """The piece on its way up, step by step."""
        self.key = self.piece.key if self.piece else None
        return import_module("bench.stages.hang").AtWall(self)

    @property
    def record(self) -> Any:
        """What is known of the piece that hangs."""
        return import_module("bench.stages.record").Record(self)

    @property
    def datum_words(self) -> str:
        """What marks are measured from."""
        return say_datum(self.plan.datum, self.units)

    @property
    def on_hooks(self) -> bool:
        """Whether things may hang along the piece on hooks of their own."""
        return (
            self.piece is not None
            and mount_of(self.piece).carries != "on"
            and not mount_of(self.piece).stands
        )

    @property
    def has_rows(self) -> bool:
        """Whether the piece is a panel in rows of screws, or on battens."""
        return self.piece is not None and hasattr(self.piece, "panel_screws")

    @property
    def hanging(self) -> str:
        """The fields that ask what shall hang.

        Drawn once for all, but for what was typed and refused.
        """
        if self.hang_form is None:
            return _blank_hanging(self.units)
        mark_invalid(self.hang_form)
        return render_to_string("bench/_hang_fields.html", {"form": self.hang_form})

    @property
    def packet(self) -> forms.Form | None:
        """The form for an anchor from a packet, on walls where an anchor can help the piece."""
        if self.piece is None or (self.plan.wall.build == "timber" and self.plan.wall.layers == ()):
            return None
        form: forms.Form = self.packet_form or import_module("bench.stages.packet").PacketForm(self)
        mark_invalid(form) if form.is_bound else None
        return form

    @property
    def along(self) -> bool:
        """Whether what may hang differs from place to place along it."""
        hung = self.piece is not None and mount_of(self.piece).carries in ("under", "in")
        return hung and not hasattr(self.piece, "body_kg")

    @property
    def parts(self) -> list[Part]:
        """What the piece is made of."""
        return mount_of(self.piece).parts(self.piece, self.plan.wall) if self.piece else []

    @property
    def mind(self) -> list[Message]:
        """What to mind with this kind of mounting here, and who must lift it."""
        if self.piece is None:
            return []
        mount = mount_of(self.piece)
        wall = self.plan.wall
        unsold = [] if self.plan.as_built.hangs(self.piece.key) else not_sold(self.piece, self.plan)
        return [
            *mount.lifting(self.piece),
            *fit.to_mind(self.piece, wall),
            *mount.cautions(self.piece, wall),
            *unsold,
        ]

    @property
    def mount_words(self) -> str:
        """How many supports and screws."""
        count = len(self.piece.supports_mm) if self.piece else 0
        held = f"{count} {self.support_noun}{'' if count == 1 else 's'}"
        screwed = any(mark.screw or mark.anchor for mark in self.marks)
        return (
            f"{held}, {self.wall_holes} screw{'' if self.wall_holes == 1 else 's'}"
            if screwed
            else held
        )

    @property
    def unweighed(self) -> str:
        """The first thing on the piece that nobody has weighed."""
        return (
            next((thing.name for thing in self.piece.things if thing.mass_kg is None), "")
            if self.piece
            else ""
        )

    @property
    def all_kg(self) -> float:
        """What stands on the piece in all, as far as it was weighed."""
        return sum(thing.mass_kg or 0.0 for thing in self.piece.things) if self.piece else 0.0

    @property
    def known(self) -> Known:
        """What is known of the wall."""
        return Known(self.plan, self.units, self.piece)

    def show(self, plan: Plan, verdict: Verdict | None = None) -> None:
        """Show another plan than the one that is kept; its verdict, where it is known already."""
        self.plan = plan
        self.__dict__.pop("verdict", None)
        if verdict is not None:
            self.verdict = verdict
        for worked_out in ("marks", "cutting", "at_wall"):
            self.__dict__.pop(worked_out, None)

    def judged(self) -> dict[str, Any]:
        """What the templates need of the piece that is worked on.

        Its verdict, and the cut through the wall at it.
        """
        piece, verdict = self.piece, self.piece_verdict
        support = section.seat_in_question(piece, self.plan, verdict) if piece and verdict else None
        return {
            "desk": self,
            "units": self.units,
            "piece": piece,
            "verdict": verdict,
            "support": support,
            "support_mark": self.mark_of(support),
            "section": section.draw(piece, self.plan, verdict, support)
            if piece and verdict and support
            else "",
        }

    def context(self) -> dict[str, Any]:
        """What the templates need."""
        if self.form is None:
            self.form = import_module(f"bench.stages.{self.stage}").form_for(self)
        mark_invalid(self.form) if self.form is not None and self.form.is_bound else None
        piece = self.piece
        return self.judged() | {
            "sheet": elevation.draw(
                self.plan, self.verdict, self._drawn_key, self.stage, self.marks
            ),
            "form": self.form,
            "scribe_drawing": scribe.draw(piece, self.plan)
            if piece and self.stage in ("survey", "mark")
            else "",
            "stage_nav": stage_nav(self),
            "can_undo": self.wall.current_revision > 1,
            "can_redo": self.wall.current_revision < self.wall.last,
        }

    def page(self, status: int = 200) -> HttpResponse:
        """The whole page."""
        return self._answer("bench/workbench.html", status)

    def fragment(self, status: int = 200) -> HttpResponse:
        """The bench alone, for htmx; the whole page for those without scripts."""
        if not getattr(self.request, "htmx", False):
            return self.page(status)
        return self._answer("bench/_bench.html", status)

    def _answer(self, template: str, status: int) -> HttpResponse:
        """One address gives a page or a fragment: no browser may take one for the other."""
        answer = render(self.request, template, self.context(), status=status)
        patch_vary_headers(answer, ["HX-Request", "HX-Target"])
        answer["Cache-Control"] = "no-cache"
        return answer

    def address(self) -> str:
        """Where this stage of this wall lives."""
        where = reverse("stage", args=[self.wall.pk, self.stage])
        asked = {"piece": self.key, "look": self.look}
        said = urlencode({name: value for name, value in asked.items() if value})
        return f"{where}?{said}" if said else where


@lru_cache(maxsize=2)
def _blank_hanging(units: Units) -> str:
    """The empty fields that ask what shall hang."""
    return render_to_string(
        "bench/_hang_fields.html", {"form": import_module("bench.stages.choose").HangForm(units)}
    )


def desk_or_404(
    request: HttpRequest, wall: int, stage: str, key: str | None = None, need: Need | None = None
) -> Desk:
    """The desk for a request.

    Args:
        request: whose.
        wall: which.
        stage: of its work.
        key: of a piece.
        need: what they must be allowed; to look at the marks and the steps it is enough to help
          there.

    Raises:
        Http404: no such wall or stage, or not for them.
    """
    if stage not in STAGES:
        raise Http404("There is no such stage.")
    tabs = request.method in ("GET", "HEAD") and stage in HELPERS
    return Desk(
        request, wall_or_404(request, wall, need or ("hang" if tabs else "change")), stage, key
    )
