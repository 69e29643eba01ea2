"""The practice wall.

Find the studs of a hidden wall with the tools there are, call them, uncover it, and see how it
went.
"""

import random
from collections.abc import Sequence
from functools import cached_property
from typing import Any

from django.db import transaction
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect, JsonResponse
from django.shortcuts import get_object_or_404, render
from django.urls import reverse
from django.utils import timezone
from django.utils.safestring import SafeString
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.access import owner, practice
from bench.address import public
from bench.drawing import practice as drawing
from bench.forms import number_in
from bench.models import Practice
from bench.models.practice import Log, Pass
from bench.once import once
from bench.words import say, worded
from trade import data
from trade.devices import practice as game
from trade.devices.hidden import HEIGHT_MM, LEVELS, HiddenWall, build, level_named
from trade.errors import PlanError
from trade.language import counted, joined
from trade.measure import Units, say_length
from trade.parse import notes
from trade.plan.model import Plan
from trade.plan.readings import Edge, Probe, Reading

MOST_SEED = 999_999
_SAME_CALL_MM, _SAME_TAPE_MM, _MOST_MARKS, _MOST_READINGS = 25.0, 40.0, 60, 500
_SHOWN = 30


class Going:
    """One go, as one request sees it."""

    def __init__(self, run: Practice) -> None:
        """Take it up."""
        self.run, self.log = run, run.said
        self.units: Units = "metric" if run.units == "metric" else "imperial"
        self.level = level_named(run.level)

    @cached_property
    def hidden(self) -> HiddenWall:
        """The truth."""
        return build(self.run.seed, self.level)

    @property
    def plan(self) -> Plan:
        """The wall as anybody sees it."""
        wall = game.seen(self.hidden, self.log.readings, self.log.structure)
        return Plan(
            name=worded("{level}, wall {seed}", level=self.level.name, seed=self.run.seed),
            units=self.units,
            wall=wall,
        )

    def marks(self) -> SafeString:
        """Return what was done, drawn."""
        return drawing.marks(self.plan, self.log.tapes_mm, self.log.calls_mm)

    def state(self, words: str, lit: bool = False) -> dict[str, Any]:
        """Return what the page needs after every move."""
        calls = [say(say_length(x, self.units)) for x in self.log.calls_mm]
        return {
            "words": words,
            "lit": lit,
            "marks": self.marks(),
            "spent": say(counted(self.log.spent, "{n} reading", "{n} readings")),
            "calls": calls,
        }


def _seed(text: str) -> int:
    """Return a seed as typed, or a new one when none was.

    Raises:
        PlanError: it is no number that a wall can be drawn from.
    """
    if not text.strip():
        return random.randrange(1, 100_000)
    if not text.strip().isdecimal() or not 1 <= int(text) <= MOST_SEED:
        raise PlanError(
            worded(
                "“{number}” is no wall's number: 1 to {most_seed}, or nothing for any wall.",
                number=text.strip()[:20],
                most_seed=MOST_SEED,
            ),
            "seed",
        )
    return int(text)


@require_safe
def lobby(request: HttpRequest) -> HttpResponse:
    """Levels to choose from, and what was done before."""
    return _lobby(request, request.GET.get("seed", ""), request.GET.get("level", ""))


def _lobby(request: HttpRequest, seed: str, level: str, error: str = "") -> HttpResponse:
    runs = [
        {"run": run, "level": LEVELS[run.level].name, "score": run.result}
        for run in practice(request)[:_SHOWN]
    ]
    units = "metric" if request.GET.get("units") == "metric" else "imperial"
    context = {
        "levels": LEVELS.items(),
        "runs": runs,
        "seed": seed,
        "level": level,
        "error": error,
        "units": units,
    }
    return render(request, "bench/practice/lobby.html", context, status=422 if error else 200)


@require_POST
@once
def begin(request: HttpRequest) -> HttpResponse:
    """Take up a hidden wall."""
    seed, level = request.POST.get("seed", ""), request.POST.get("level", "")
    try:
        level_named(level)
        display_units = request.POST.get("units", "imperial")[:8]
        run = Practice.objects.create(
            owner=owner(request), seed=_seed(seed), level=level, units=display_units
        )
    except PlanError as error:
        return _lobby(request, seed[:20], level, str(error))
    return HttpResponseRedirect(run.get_absolute_url())


@require_safe
def play(request: HttpRequest, run: int) -> HttpResponse:
    """Show the wall: covered, or uncovered with its score."""
    going = Going(get_object_or_404(practice(request), pk=run))
    score, truth = going.run.result, None
    if score is not None:
        truth = drawing.Truth(
            going.hidden,
            tuple(game.believed(going.hidden, going.log.readings, going.log.structure)),
        )
    markup, scale = drawing.draw(going.plan, going.marks(), truth)
    share = public(
        request, f"{reverse('practice:lobby')}?level={going.run.level}&seed={going.run.seed}"
    )
    context = {
        "going": going,
        "score": score,
        "markup": markup,
        "scale": scale,
        "share": share,
        "truth": truth,
        "narrow": drawing.narrow_view(going.plan),
        "calls": [say(say_length(x, going.units)) for x in going.log.calls_mm],
        "tools": [
            ("finder", _("Finder"), "F"),
            ("magnet", _("Magnet"), "M"),
            ("nail", _("Nail"), "N"),
            ("knock", _("Knock"), "K"),
        ],
        "marks": [("tape", _("Tape"), "T"), ("call", _("A stud is here"), "C")],
        "structures": [(key, say(row.name)) for key, row in data.structures().items()],
    }
    return render(request, "bench/practice/wall.html", context)


def _move(request: HttpRequest, run: int) -> tuple[Going, float, float]:
    """Return the go that a move belongs to, and where on the wall it was made.

    Raises:
        PlanError: it is uncovered already, or the place is no number.
    """
    going = Going(get_object_or_404(practice(request).select_for_update(), pk=run))
    if going.run.score:
        raise PlanError(_("This wall has been uncovered already."))
    width = going.hidden.width_mm
    x, y = number_in(request, "x_mm"), number_in(request, "y_mm")
    return going, min(max(x, 0.0), width), min(max(y, 0.0), HEIGHT_MM)


@require_POST
@transaction.atomic
def read(request: HttpRequest, run: int) -> HttpResponse:
    """Use a tool at a place.

    A sweep is told of as it goes on: `begin` sets the finder on the wall.
    """
    try:
        going, x, y = _move(request, run)
        tool = request.POST.get("tool", "")
        if tool not in game.TOOLS:
            raise PlanError(
                worded(
                    "“{tool}” is no tool. Tools: {tools}.",
                    tool=tool[:20],
                    tools=joined(game.TOOLS),
                )
            )
        if len(going.log.readings) >= _MOST_READINGS:
            raise PlanError(_("That is enough readings for one wall. Call the studs."))
        words, lit = (
            _sweep(going, x, y, bool(request.POST.get("begin")))
            if tool == "finder"
            else _spot(going, tool, x, y)
        )
    except PlanError as error:
        return JsonResponse({"words": str(error)}, status=422)
    going.run.keep(going.log)
    return JsonResponse(going.state(words, lit))


def _sweep(going: Going, x: float, y: float, begin: bool) -> tuple[str, bool]:
    log = going.log
    if begin or log.going is None:
        now = Pass(low_mm=x, high_mm=x, height_mm=y, before=len(log.readings))
        log = replace(log, spent=log.spent + 1)
    else:
        now = replace(log.going, low_mm=min(log.going.low_mm, x), high_mm=max(log.going.high_mm, x))
    if going.hidden.open_at(x, now.height_mm):
        return _("No wall to sweep here."), False
    devices = game.set_up(going.run.seed, going.level, log.spent)
    told = game.swept(devices, now.low_mm, now.high_mm, now.height_mm)
    before = [r for r in log.readings[now.before :] if isinstance(r, Edge)]
    fresh = [r for r in told if isinstance(r, Edge) and r not in before]
    going.log = replace(log, going=now, readings=(*log.readings[: now.before], *told))
    said = ", ".join(
        worded("{side} edge at {at_mm}", side=r.side, at_mm=say_length(r.at_mm, going.units))
        for r in fresh
    )
    return said.capitalize() or "", game.lit(told, x)


def _spot(going: Going, tool: str, x: float, y: float) -> tuple[str, bool]:
    if going.hidden.open_at(x, y):
        return _("There is no wall here."), False
    spent = going.log.spent + 1
    devices = game.set_up(going.run.seed, going.level, spent)
    found: Sequence[Reading]
    if tool == "magnet":
        found = devices.search(x, y)
    elif tool == "nail":
        found = [devices.probe(x, y)]
    else:
        found = [devices.knock(x, y)]
    going.log = replace(going.log, readings=(*going.log.readings, *found), spent=spent, going=None)
    if not found:
        return worded(
            "The magnet finds nothing within a hand of {x}.", x=say_length(x, going.units)
        ), False
    return _told(found[0], going.units), False


def _told(r: Reading, units: Units) -> str:
    at = notes.word_of(r, units)
    if isinstance(r, Probe):
        deep = (
            worded(", {depth} deep", depth=say_length(r.depth_mm, units))
            if r.depth_mm is not None
            else ""
        )
        met = {
            "wood": _("Wood"),
            "air": _("Nothing: air"),
            "metal": _("Metal"),
            "hard": _("Hard, it will not go in"),
        }[r.met]
        return f"{met} at {say_length(r.at_mm, units)}{deep}."
    return (
        {"magnet": _("It sticks: "), "full": _("It sounds: "), "hollow": _("It sounds: ")}.get(
            at.split()[-1], ""
        )
        + at
        + "."
    )


@require_POST
@transaction.atomic
def mark(request: HttpRequest, run: int) -> HttpResponse:
    """Put a strip of tape or a call on the wall, or take it off where there is one.

    Or say what the wall is made of.
    """
    try:
        going, x, y = _move(request, run)
        what, log = request.POST.get("what", ""), going.log
        if what == "call":
            kept = tuple(c for c in log.calls_mm if abs(c - x) > _SAME_CALL_MM)
            log = replace(
                log, calls_mm=kept if len(kept) < len(log.calls_mm) else tuple(sorted((*kept, x)))
            )
        elif what == "tape":
            strips = tuple(
                t
                for t in log.tapes_mm
                if abs(t[0] - x) > _SAME_TAPE_MM or abs(t[1] - y) > 2 * _SAME_TAPE_MM
            )
            log = replace(
                log, tapes_mm=strips if len(strips) < len(log.tapes_mm) else (*strips, (x, y))
            )
        elif what == "structure":
            key = request.POST.get("structure") or None
            if key is not None and key not in data.structures():
                raise PlanError(_("Walls here are not made of that."))
            log = replace(log, structure=key)
        else:
            raise PlanError(_("That mark does not exist."))
        if len(log.calls_mm) + len(log.tapes_mm) > _MOST_MARKS:
            raise PlanError(_("That is enough marks for one wall."))
    except PlanError as error:
        return JsonResponse({"words": str(error)}, status=422)
    going.log = log
    going.run.keep(log)
    return JsonResponse(going.state(""))


@require_POST
@transaction.atomic
def uncover(request: HttpRequest, run: int) -> HttpResponse:
    """Uncover the wall and score the go; once."""
    going = Going(get_object_or_404(practice(request).select_for_update(), pk=run))
    log: Log = going.log
    if not going.run.score:
        score = game.score(
            going.run.seed, going.level, log.calls_mm, log.readings, log.spent, log.structure
        )
        going.run.finish(score, timezone.now())
    return HttpResponseRedirect(going.run.get_absolute_url())
