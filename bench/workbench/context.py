"""The workbench in one request: a wall, its plan and verdict, the piece worked on, the stage.

Stages describe themselves by a `Stage` and register it; this module knows none of them by name.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Literal, NamedTuple, TypeVar
from urllib.parse import urlencode

from django import forms
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.template.loader import render_to_string
from django.urls import reverse
from django.utils.cache import patch_vary_headers
from django.utils.translation import gettext as _

from bench.access import Need, helps_only, wall_or_404
from bench.drawing import elevation, scribe, section
from bench.forms import mark_invalid
from bench.models import Wall
from bench.wall_address import WallAddress
from bench.words import memoized_in_language
from bench.workbench.known import Known
from bench.workbench.put_up import HangForm
from trade.assess import assess
from trade.check import PieceVerdict, Verdict
from trade.marking.marks import Mark, piece_marks
from trade.measure import Units
from trade.mounts import ALL, AnySupport
from trade.parse.spreadsheet import Refusal
from trade.plan.model import AnyPiece, Plan
from trade.plan.place import each_piece, faced

F = TypeVar("F", bound=forms.Form)
T = TypeVar("T")


class Tab(NamedTuple):
    """One view of a stage's panel: its name in addresses (empty for the first), label and tip."""

    name: str
    label: str
    tip: str


class Note(NamedTuple):
    """How a stage stands, for the navigation; `more` is left out where there is little room."""

    state: Literal["done", "waiting", "trouble"]
    words: str
    more: str = ""


class WallLink(NamedTuple):
    """One wall of a place: its name, what stands in its address, whether it is faced now."""

    name: str
    address: WallAddress
    here: bool


@dataclass(frozen=True)
class Stage:
    """A stage of the work on a wall, and all that the workbench asks of it.

    `name` is also its folder, its template folder and its name in addresses. `note` says how it
    stands. `context` makes the object that its templates see as `stage`. `below` and `over` name
    the templates under and over the drawing, `put_up` that of the bar between; `sheet` makes
    another drawing than the wall's. `for_helpers`: a helper may see it. `whole_wall`: it is about
    the wall, so the drawing highlights no piece.
    """

    name: str
    title: str
    note: Callable[["WorkbenchContext"], Note]
    context: Callable[["WorkbenchContext"], object]
    tabs: tuple[Tab, ...] = ()
    for_helpers: bool = False
    whole_wall: bool = False
    below: Callable[["WorkbenchContext"], str] = lambda _: "bench/_section.html"
    over: Callable[["WorkbenchContext"], str] = lambda _: ""
    sheet: Callable[["WorkbenchContext"], elevation.Sheet | None] = lambda _: None
    put_up: str = "bench/_put_up.html"

    @property
    def panel(self) -> str:
        """The template of its panel."""
        return f"{self.name}/_panel.html"


_STAGES: dict[str, Stage] = {}


def register(*stages: Stage) -> None:
    """Make stages known, in the order of the work."""
    _STAGES.clear()
    _STAGES.update({stage.name: stage for stage in stages})


def stage_named(name: str) -> Stage | None:
    """Return a stage by its name; None if there is no such stage."""
    return _STAGES.get(name)


class WorkbenchContext:
    """A wall, its plan, the piece that is worked on, the stage, and the verdict on it all."""

    def __init__(self, request: HttpRequest, wall: Wall, stage: Stage, key: str | None) -> None:
        """Open the wall at a stage; the key of an unknown piece counts as none."""
        self.request, self.wall, self.stage = request, wall, stage
        self.plan: Plan = wall.plan()
        self.key = key
        self._turn_to(key)
        asked = request.POST.get("look", request.GET.get("look", ""))
        self.tab = asked if asked in (tab.name for tab in stage.tabs) else ""
        self.message = ""  # what went wrong
        self.notice = ""  # what else there is to say
        self.refused_rows: Sequence[Refusal] = ()
        self._posted: forms.Form | None = None
        self._once: dict[Callable[[WorkbenchContext], Any], Any] = {}

    def _turn_to(self, key: str | None) -> None:
        """Face the wall of a piece that is asked for, where it hangs on another of this place."""
        if key is None or not self.plan.corners:
            return
        there = next((on for piece, on in each_piece(self.plan) if piece.key == key), self.plan)
        self.plan, self.wall.at = there, there.at

    @property
    def walls(self) -> list[WallLink]:
        """Every wall of this place, from the left; none where there is only one."""
        if not self.plan.corners:
            return []
        return [
            WallLink(each.faced_name, WallAddress(self.wall.pk, each.at), each.at == self.plan.at)
            for each in faced(self.plan)
        ]

    @property
    def helping(self) -> bool:
        """Whether the visitor may hang things here and no more."""
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
                piece
                for piece in self.plan.pieces
                if self.verdict.piece(piece.key).outcome == self.verdict.outcome
            ),
            None,
        )

    @property
    def chosen(self) -> AnyPiece:
        """The piece that a request is about.

        Raises:
            Http404: it is not on this wall.
        """
        piece = next((piece for piece in self.plan.pieces if piece.key == self.key), None)
        if piece is None:
            raise Http404(_("That does not hang on this wall."))
        return piece

    @cached_property
    def verdict(self) -> Verdict:
        """The verdict on everything on the wall."""
        return assess(self.plan)

    @property
    def piece_verdict(self) -> PieceVerdict | None:
        """The verdict on the piece that is worked on."""
        return self.verdict.piece(self.piece.key) if self.piece else None

    @cached_property
    def marks(self) -> tuple[Mark, ...]:
        """Holes of the piece that is worked on."""
        if self.piece is None:
            return ()
        plan = self.plan
        return piece_marks(self.piece, plan.wall, self.units, plan.policy.lead_holes, plan.as_built)

    @property
    def wall_holes(self) -> int:
        """How many holes of the piece go into the wall and round its corners."""
        return sum(mark.where != "shelf" for mark in self.marks)

    @property
    def known(self) -> Known:
        """What is known of the wall."""
        return Known(self.plan, self.units, self.piece)

    all_mounts = ALL

    @property
    def drawn(self) -> str:
        """A name for what is shown: what is worked out for it on the page stays while it stays."""
        return f"{self.wall.seen}-{self.units}-{self.piece.key if self.piece else ''}"

    @property
    def scribe_drawing(self) -> str:
        """The wall's flatness behind the piece, drawn."""
        return scribe.draw(self.piece, self.plan) if self.piece else ""

    def keep(self, form: forms.Form) -> None:
        """Show a form that was refused again, with what was typed."""
        mark_invalid(form)
        self._posted = form

    def forget_form(self) -> None:
        """Show fresh forms."""
        self._posted = None

    def posted(self, kind: type[F]) -> F | None:
        """Return the refused form if it is of this kind."""
        return self._posted if isinstance(self._posted, kind) else None

    @property
    def hang_form(self) -> HangForm | None:
        """The form that asks what to hang, if it was refused."""
        return self.posted(HangForm)

    @property
    def hanging(self) -> str:
        """The fields that ask what to hang: rendered once for all unless refused."""
        if self.hang_form is None:
            return _blank_hanging(self.units)
        return render_to_string("bench/_hang_fields.html", {"form": self.hang_form})

    def once(self, make: Callable[["WorkbenchContext"], T]) -> T:
        """Return what `make` makes of this workbench: made once for the plan that is shown."""
        if make not in self._once:
            self._once[make] = make(self)
        made: T = self._once[make]
        return made

    def show(self, plan: Plan, verdict: Verdict | None = None) -> None:
        """Show another plan than the saved one; with its verdict if it is known already."""
        self.plan, self.wall.at = plan, plan.at if plan.corners else ""
        self._once.clear()
        for worked_out in ("verdict", "marks"):
            self.__dict__.pop(worked_out, None)
        if verdict is not None:
            self.verdict = verdict

    def judged(self) -> dict[str, Any]:
        """Return the template values of the piece: its verdict, and the section at its support."""
        piece, verdict = self.piece, self.piece_verdict
        support = section.seat_in_question(piece, self.plan, verdict) if piece and verdict else None
        drawn = (
            section.draw(piece, self.plan, verdict, support)
            if piece and verdict and support
            else ""
        )
        there = section.seat_plan(piece, self.plan, support) if piece and support else self.plan
        return {
            "bench": self,
            "cut_wall": there.wall,
            "cut_known": self.known if there is self.plan else Known(there, self.units, None),
            "units": self.units,
            "piece": piece,
            "verdict": verdict,
            "support": support,
            "support_mark": self._mark_of(support),
            "section": drawn,
        }

    def _mark_of(self, support: AnySupport | None) -> Mark | None:
        """Return the first hole in the wall of a support."""
        if support is None:
            return None
        return next(
            (
                mark
                for mark in self.marks
                if mark.where != "shelf" and mark.support == support.index
            ),
            None,
        )

    def context(self) -> dict[str, Any]:
        """Return the template values of the whole workbench."""
        drawn = None if self.stage.whole_wall or self.piece is None else self.piece.key
        return self.judged() | {
            "sheet": self.stage.sheet(self)
            or elevation.draw(self.plan, self.verdict, drawn, self.stage.name, self.marks),
            "stage": self.stage.context(self),
            "below": self.stage.below(self),
            "over": self.stage.over(self),
            "stage_nav": [
                (n, stage, stage.note(self))
                for n, stage in enumerate(_STAGES.values(), start=1)
                if stage.for_helpers or not self.helping
            ],
            "can_undo": self.wall.current_revision > 1,
            "can_redo": self.wall.current_revision < self.wall.last,
        }

    def page(self, status: int = 200) -> HttpResponse:
        """Return the whole page."""
        return self._answer("bench/workbench.html", status)

    def fragment(self, status: int = 200) -> HttpResponse:
        """Return the workbench alone for htmx, the whole page for those without scripts."""
        if not getattr(self.request, "htmx", False):
            return self.page(status)
        return self._answer("bench/_fragment.html", status)

    def _answer(self, template: str, status: int) -> HttpResponse:
        """One address gives a page or a fragment: no browser may take one for the other."""
        answer = render(self.request, template, self.context(), status=status)
        patch_vary_headers(answer, ["HX-Request", "HX-Target"])
        answer["Cache-Control"] = "no-cache"
        return answer

    def address(self) -> str:
        """Return the address of this stage of this wall."""
        where = reverse("stage", args=[self.wall.address, self.stage.name])
        asked = {"piece": self.key, "look": self.tab}
        said = urlencode({name: value for name, value in asked.items() if value})
        return f"{where}?{said}" if said else where


@memoized_in_language(8)
def _blank_hanging(units: Units) -> str:
    return render_to_string("bench/_hang_fields.html", {"form": HangForm(units)})


def workbench(
    request: HttpRequest, wall: int, stage: str, key: str | None = None, need: Need | None = None
) -> WorkbenchContext:
    """Open the workbench for a request.

    Args:
        request: the visitor's.
        wall: which wall.
        stage: name of the stage.
        key: of a piece.
        need: what the visitor must be allowed to do; reading a stage for helpers takes only that.

    Raises:
        Http404: no such wall or stage, or not for them.
    """
    found = stage_named(stage)
    if found is None:
        raise Http404(_("There is no such stage."))
    reading = request.method in ("GET", "HEAD") and found.for_helpers
    need = need or ("hang" if reading else "change")
    return WorkbenchContext(request, wall_or_404(request, wall, need), found, key)


def opened(request: HttpRequest, wall: int, stage: str) -> HttpResponse:
    """Return the workbench at a stage: all of the page, or the workbench alone for htmx."""
    bench = workbench(request, wall, stage, request.GET.get("piece"))
    return bench.fragment() if request.headers.get("HX-Target") == "bench" else bench.page()
