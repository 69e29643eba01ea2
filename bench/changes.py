"""Answers to a change.

Kept and shown, refused with a sentence, or told that the wall has moved on.
"""

import re
from collections.abc import Callable

from django import forms
from django.http import HttpResponse, HttpResponseRedirect

from bench.desk import Desk
from bench.models import StaleError
from trade.assess import assess
from trade.errors import PlanError
from trade.plan.model import Plan

_NUMBER = re.compile(r"[0-9]{1,18}")
STALE = (
    "This wall was changed in another window meanwhile. Here is how it stands now; nothing of "
    "it was overwritten."
)


def apply(desk: Desk, changed: Callable[[Plan], Plan], label: str, words: str = "") -> HttpResponse:
    """Keep a change and show the bench after it, with a word on it.

    Refuse when the wall has moved on or the plan refuses it.
    """
    try:
        plan = changed(desk.plan)
        if plan != desk.plan:
            verdict = assess(plan)
            desk.wall.record(plan, label, base_of(desk), verdict)
            desk.show(plan, verdict)
            desk.form, desk.notice = None, words
    except PlanError as error:
        return refused(desk, str(error))
    except StaleError:
        return stale(desk)
    return after(desk)


def change(
    desk: Desk, form: forms.Form, changed: Callable[[Plan], Plan], label: str, slot: str = "form"
) -> HttpResponse:
    """Keep what a form says, or show it again with its sentences.

    `slot`: where the desk keeps it meanwhile.
    """
    if not form.is_valid():
        setattr(desk, slot, form)
        return desk.fragment(422)
    try:
        changed(desk.plan)
    except PlanError as error:
        form.refuse(error) if hasattr(form, "refuse") else form.add_error(None, str(error))
        setattr(desk, slot, form)
        return desk.fragment(422)
    return apply(desk, changed, label)


def after(desk: Desk) -> HttpResponse:
    """The answer to a change: the fragment for htmx, else back to the page."""
    if getattr(desk.request, "htmx", False):
        return desk.fragment()
    return HttpResponseRedirect(desk.address())


def refused(desk: Desk, message: str) -> HttpResponse:
    """The bench as it is, with a sentence on top."""
    desk.message = message
    return desk.fragment(422)


def stale(desk: Desk) -> HttpResponse:
    """The bench as it stands now, because somebody else changed it."""
    desk.wall.refresh_from_db()
    desk.show(desk.wall.plan())
    desk.form = None
    desk.message = STALE
    return desk.fragment(409)


def base_of(desk: Desk) -> int:
    """Key of the revision that the person was looking at.

    Raises:
        StaleError: nobody can tell.
    """
    said = desk.request.POST.get("base", "")
    if not _NUMBER.fullmatch(said):
        raise StaleError
    return int(said)
