"""Answers to a change.

Kept and shown, refused with a sentence, or told that the wall has moved on.
"""

import re
from collections.abc import Callable

from django import forms
from django.http import HttpResponse, HttpResponseRedirect

from bench.models import StaleError
from bench.workbench.context import WorkbenchContext
from trade.assess import assess
from trade.errors import PlanError
from trade.plan.model import Plan
from trade.plan.place import refaced

_NUMBER = re.compile(r"[0-9]{1,18}")
STALE = (
    "This wall was changed in another window meanwhile. Here is how it stands now; nothing of "
    "it was overwritten."
)


def apply(
    bench: WorkbenchContext, changed: Callable[[Plan], Plan], label: str, words: str = ""
) -> HttpResponse:
    """Keep a change and show the bench after it, with a word on it.

    Refuse when the wall has moved on or the plan refuses it.
    """
    try:
        plan = refaced(changed(bench.plan))
        if plan != bench.plan:
            verdict = assess(plan)
            bench.wall.record(plan, label, base_of(bench), verdict)
            bench.show(plan, verdict)
            bench.forget_form()
            bench.notice = words
    except PlanError as error:
        return refused(bench, str(error))
    except StaleError:
        return stale(bench)
    return after(bench)


def change(
    bench: WorkbenchContext, form: forms.Form, changed: Callable[[Plan], Plan], label: str
) -> HttpResponse:
    """Save what a form says, or show it again with its sentences."""
    if not form.is_valid():
        bench.keep(form)
        return bench.fragment(422)
    try:
        changed(bench.plan)
    except PlanError as error:
        form.refuse(error) if hasattr(form, "refuse") else form.add_error(None, str(error))
        bench.keep(form)
        return bench.fragment(422)
    return apply(bench, changed, label)


def after(bench: WorkbenchContext) -> HttpResponse:
    """Return the answer to a change: the fragment for htmx, else back to the page."""
    if getattr(bench.request, "htmx", False):
        return bench.fragment()
    return HttpResponseRedirect(bench.address())


def refused(bench: WorkbenchContext, message: str) -> HttpResponse:
    """Show the bench as it is, with a sentence on top."""
    bench.message = message
    return bench.fragment(422)


def stale(bench: WorkbenchContext) -> HttpResponse:
    """Show the bench as it stands now, because somebody else changed it."""
    bench.wall.refresh_from_db()
    bench.show(bench.wall.plan())
    bench.forget_form()
    bench.message = STALE
    return bench.fragment(409)


def base_of(bench: WorkbenchContext) -> int:
    """Key of the revision that the person was looking at.

    Raises:
        StaleError: nobody can tell.
    """
    said = bench.request.POST.get("base", "")
    if not _NUMBER.fullmatch(said):
        raise StaleError
    return int(said)
