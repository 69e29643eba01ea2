"""Hang: the steps of a piece, one at a time.

What is told from the wall is kept at once and judged; it may come late or twice.
"""

import math
import re
from datetime import UTC, datetime, timedelta

from django.conf import settings
from django.contrib.auth.decorators import login_not_required
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import render
from django.urls import reverse
from django.utils import timezone
from django.utils.translation import gettext as _
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.access import wall_or_404
from bench.models import Report, Wall
from bench.stages.hang.stage import AtWall
from bench.words import lazy, worded
from bench.workbench.context import WorkbenchContext, workbench
from bench.workbench.offers import offered_cures
from trade.errors import MeasureError, PlanError
from trade.job import found
from trade.job.steps import steps
from trade.marking.marks import Mark, piece_marks
from trade.measure import read_length
from trade.plan.model import Plan
from trade.plan.place import each_piece

_NOTHING = -1  # what a tap made that changed nothing
_NUMBER = re.compile(r"[0-9]{1,18}")
_MET: dict[str, tuple[found.What, str]] = {
    "good": ("good", "sound"),
    "no_wood": ("no_wood", lazy("no wood")),
    "hard": ("hard", lazy("hit something hard")),
    "metal": ("metal", lazy("hit metal")),
    "crumbles": ("crumbles", "crumbles"),
    "stud_off": ("stud_off", lazy("the stud is to one side")),
    "lining": ("lining", lazy("the lining is thicker")),
}


def _answer(request: HttpRequest, at: AtWall, status: int = 200) -> HttpResponse:
    template = "hang/_steps.html" if request.headers.get("X-Part") == "steps" else "hang/wall.html"
    return render(
        request,
        template,
        {"at": at, "bench": at.bench, "units": at.bench.units, "piece": at.piece},
        status=status,
    )


@require_safe
def at_wall(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """One step a screen."""
    bench = workbench(request, wall, "hang", key)
    return _answer(request, AtWall(bench, request.GET.get("step", "")))


@require_POST
def told(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Something that was done or met.

    Kept once, however often it is sent, on whatever the plan is by now.
    """
    step = request.POST.get("step", "")
    what = request.POST.get("what", "")
    uid = request.POST.get("uid", "")[:64]
    message = ""
    if what == "cure":  # looked for before the wall is held: others write meanwhile
        offered_cures(workbench(request, wall, "hang", key, "hang").plan, key)
    with transaction.atomic():
        wall_or_404(request, wall, "hang")
        kept = Wall.objects.select_for_update().get(
            pk=wall
        )  # first held, then read: nothing comes between
        kept.actor, made = request.user, None
        if all(piece.key != key for piece, _ in each_piece(kept.plan())):
            return HttpResponse(_("It is no longer in the plan."), status=410)
        bench = workbench(request, wall, "hang", key, "hang")
        if not (uid and Report.objects.filter(wall=kept, uid=uid).exists()):
            try:
                if what == "undo":
                    message = _undone(request, kept, bench)
                else:
                    plan, label = _changed(request, bench, step, what)
                    if plan != bench.plan:
                        kept.record(plan, label, kept.seen)
                        made = kept.seen
            except (PlanError, MeasureError) as error:
                message = str(error)
            if uid:
                Report.objects.create(wall=kept, uid=uid, made=made)
    bench = workbench(request, wall, "hang", key, "hang")
    bench.message = message
    stays = message or what in (
        "undo",
        "cure",
        "again",
        "no_wood",
        "hard",
        "metal",
        "crumbles",
        "stud_off",
        "lining",
    )
    at = AtWall(
        bench,
        step if message or (stays and what not in ("undo", "again")) else "",
        "" if stays else step,
        request.POST.dict() if message else None,
    )
    if message or request.headers.get("X-Part") == "steps":
        return _answer(request, at, 422 if message else 200)
    return HttpResponseRedirect(f"{reverse('hang:at-wall', args=[wall, key])}?step={at.step.key}")


def _undone(request: HttpRequest, kept: Wall, bench: WorkbenchContext) -> str:
    """Take back the change that was meant; why not, in words, where that may not be.

    A helper takes back only their own.

    Where something else came after it nothing is taken back: the person sees what, and decides.
    """
    meant = _meant(request, kept)
    if meant is None:
        return _(
            "Which change that takes back is not clear any more: look at what is done here, "
            "and undo it on the bench."
        )
    if meant == _NOTHING:
        return ""
    if meant != kept.current_revision:
        labels = dict(
            kept.revisions.filter(number__in=(meant, kept.current_revision)).values_list(
                "number", "label"
            )
        )
        came, mine = (
            labels.get(kept.current_revision, _("another change")),
            labels.get(meant, "that"),
        )
        return worded(
            "“{mine}” still stands, for “{came}” came after it: look at both on the bench, and "
            "undo there what is wrong.",
            mine=mine,
            came=came,
        )
    if (
        bench.helping
        and kept.revisions.filter(number=kept.current_revision)
        .exclude(by=bench.request.user.pk)
        .exists()
    ):
        return _(
            "The last change was made by somebody else: only they or the owner of the job can "
            "undo it."
        )
    return "" if kept.step(-1, kept.seen) else _("There is nothing to undo.")


def _meant(request: HttpRequest, kept: Wall) -> int | None:
    """Return the number of the revision that an undo is about, of a tap by its name.

    Else as the page knew it.

    None where nobody can tell.

    Both are keys: a number comes again when a change was taken back and another one made.
    """
    back = 0
    if uid := request.POST.get("undoes", "")[:64]:
        told = Report.objects.filter(wall=kept, uid=uid).first()
        if told is None or told.made is None:
            return _NOTHING if told is not None else None
        key = told.made
    else:
        said = [request.POST.get("seen", ""), request.POST.get("back", "0")]
        if not all(_NUMBER.fullmatch(each) for each in said):
            return None
        key, back = int(said[0]), int(said[1])
    number = kept.revisions.filter(pk=key).values_list("number", flat=True).first()
    return number - back if number is not None else None


def _changed(
    request: HttpRequest, bench: WorkbenchContext, key: str, what: str
) -> tuple[Plan, str]:
    """Return the plan after what was told, and what that is called in undo."""
    plan, piece = bench.plan, bench.chosen
    when, by = _when(request), "" if settings.PEOPLE == "one" else request.user.get_username()[:80]
    step = next((each for each in steps(plan, piece.key, bench.units) if each.key == key), None)
    if what == "done":
        if step is None:
            return plan, ""  # the plan has moved on: there is no such step any more
        return found.done(plan, piece.key, step.key, when, by), f"{piece.name}: {step.title}"
    if what == "cure":
        if bench.helping:
            raise PlanError(_("A fix changes the plan: only the owner of the job can apply it."))
        cure = dict(offered_cures(bench.plan, bench.chosen.key)).get(request.POST.get("code", ""))
        if cure is None:
            raise PlanError(_("That fix is no longer valid: the wall has changed since."))
        return cure.on(plan), worded("Cure {name}", name=piece.name)
    if what == "places":
        places = tuple(
            read_length(part, bench.units)
            for part in request.POST.get("places", "").split(",")
            if part.strip()
        )
        return found.mounted(found.done(plan, piece.key, key, when, by), piece.key, places), worded(
            "{name}: where it is held", name=piece.name
        )
    if what == "again":
        return found.begun_again(plan, piece.key), worded("Begin {name} again", name=piece.name)
    if what not in _MET:
        raise Http404(_("That does not apply to a hole."))
    kind, words = _MET[what]
    mark = step.mark if step is not None and step.mark is not None else _place(request, bench)
    said = found.MarkReport(
        kind,
        _shift(request, bench) if what == "stud_off" else None,
        _depth(request, bench),
        when,
        by,
    )
    return found.tell(plan, mark, said), f"{piece.name}, {mark.part}: {words}"


def _place(request: HttpRequest, bench: WorkbenchContext) -> Mark:
    """Return a hole that the plan has no mark for any more.

    Where it was when the phone last knew.
    """
    try:
        x, y = float(request.POST.get("x_mm", "")), float(request.POST.get("y_mm", ""))
    except ValueError:
        x = y = math.nan
    marks = piece_marks(bench.chosen, bench.plan.wall, bench.units)
    if not (math.isfinite(x) and math.isfinite(y) and marks):
        raise PlanError(_("Say which hole this is: the plan has changed meanwhile."))
    return replace(marks[0], x_mm=x, y_mm=y, stud_mm=None, part="hole")


def _shift(request: HttpRequest, bench: WorkbenchContext) -> float | None:
    typed = request.POST.get("off", "").strip()
    by = read_length(typed, bench.units) if typed else 0.0
    return -by if request.POST.get("side") == "left" else by


def _depth(request: HttpRequest, bench: WorkbenchContext) -> float | None:
    typed = request.POST.get("depth", "").strip()
    return read_length(typed, bench.units) if typed else None


def _when(request: HttpRequest) -> datetime:
    """When it happened, by the phone's clock; now, where that says nothing sensible."""
    now = timezone.now()
    try:
        then = datetime.fromtimestamp(float(request.POST.get("at", "")) / 1000, UTC)
    except (ValueError, OverflowError, OSError):
        return now
    return then if now - timedelta(days=30) < then <= now else now


@login_not_required
@require_safe
@cache_control(no_cache=True)
def worker(request: HttpRequest) -> HttpResponse:
    """Send the small worker that keeps the steps on the phone when the connection is lost."""
    from django.contrib.staticfiles import finders

    path = finders.find("bench/hang-worker.js")
    with open(str(path), encoding="utf-8") as file:
        answer = HttpResponse(file.read(), "text/javascript; charset=utf-8")
    answer["Service-Worker-Allowed"] = "/walls/"
    return answer
