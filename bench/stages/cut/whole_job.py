"""All walls of a job together: what comes off the same boards, is bought at once, and when."""

from functools import cached_property
from typing import Any, NamedTuple
from urllib.parse import urlencode

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import path, reverse
from django.utils.formats import date_format
from django.utils.timezone import localdate, now
from django.utils.translation import gettext as _
from django.views.decorators.http import require_safe

from bench.access import job_or_404
from bench.downloads import sent
from bench.long_work import long_running
from bench.models import Job, Wall
from bench.printing import tables
from bench.printing.calendar import calendar
from bench.printing.labels import labels_sheet
from bench.printing.saw import saw_sheet
from bench.printing.shop_sheet import shop_sheet
from bench.stages.cut.cutting import Cutting
from bench.stages.cut.stage import STAGE
from trade.cutting.order import price_differs, together
from trade.measure import Units
from trade.plan.model import Plan
from trade.plan.place import each_waiting

_TABS = tuple(tab for tab in STAGE.tabs if tab.name != "stock")


class OfWall(NamedTuple):
    """A wall of the job, with the number that its labels begin with; 0 where nothing waits."""

    number: int
    wall: Wall
    plan: Plan


class WholeJob:
    """What all walls of a job take together, of which something still waits to hang."""

    def __init__(self, job: Job) -> None:
        """Read every wall's plan."""
        self.job = job
        found = job.walls.filter(deleted=None).with_plans().order_by("pk")
        plans = [(wall, wall.plan()) for wall in found]
        self.waiting = [each for each in plans if each_waiting(each[1])]
        numbers = {wall.pk: n for n, (wall, _) in enumerate(self.waiting, start=1)}
        self.walls = [OfWall(numbers.get(wall.pk, 0), wall, plan) for wall, plan in plans]

    @property
    def units(self) -> Units:
        """Units of most of its walls; where there are as many of each, those of the first."""
        every = [plan.units for _, plan in self.waiting]
        return max(every, key=every.count)

    @cached_property
    def cutting(self) -> Cutting:
        """What is cut, bought and done for all of them."""
        return Cutting(together([plan for _, plan in self.waiting], self.units))

    @property
    def priced_twice(self) -> list[str]:
        """Return what has one price at one wall and another at the next, as the list calls it."""
        keys = set(price_differs([plan for _, plan in self.waiting], self.units))
        return [line.what for line in self.cutting.shopping.lines if line.key in keys]

    @property
    def other_money(self) -> bool:
        """Whether prices that were said at some wall are in other money, and don't count."""
        return any(plan.shop.prices and plan.units != self.units for _, plan in self.waiting)


@long_running
@require_safe
def page(request: HttpRequest, job: int) -> HttpResponse:
    """Show all walls of a job together."""
    whole = WholeJob(job_or_404(request, job))
    context: dict[str, Any] = {"whole": whole, "tabs": _TABS, "look": request.GET.get("look", "")}
    if whole.waiting:
        context |= {"cutting": whole.cutting, "units": whole.units}
    return render(request, "cut/whole_job.html", context)


@long_running
@require_safe
def working(request: HttpRequest, job: int) -> HttpResponse:
    """Work on a large cut list a little further; when all of it is done, show the page."""
    whole = WholeJob(job_or_404(request, job))
    if whole.waiting:
        whole.cutting.go_on()
    if not whole.waiting or whole.cutting.progress.ready:
        answer = HttpResponse()
        look = urlencode({"look": request.GET.get("look", "")})
        answer["HX-Redirect"] = f"{reverse('whole-job:page', args=[job])}?{look}"
        return answer
    context = {"progress": whole.cutting.progress, "going_on": request.get_full_path()}
    return render(request, "cut/_progress.html", context)


@long_running
@require_safe
def file(request: HttpRequest, job: int, what: str) -> HttpResponse:
    """Send one of its papers and files."""
    whole = WholeJob(job_or_404(request, job))
    if not whole.waiting:
        raise Http404(_("Nothing is left to hang in this job."))
    name, cutting, units = whole.job.name, whole.cutting, whole.units
    day = date_format(localdate(), "j F Y")
    if what == "saw.pdf":
        content = saw_sheet(_("all walls"), cutting.plan, units, name, day, cutting.bodies)
    elif what == "labels.pdf":
        content = labels_sheet(name, cutting.plan.parts, units)
    elif what == "shop.pdf":
        content = shop_sheet(_("all walls"), cutting.shopping, units, name, day)
    elif what == "days.ics":
        content = calendar(cutting.schedule, name, f"job-{whole.job.pk}", now())
    elif what == "shopping.csv":
        content = tables.as_csv(cutting.shopping)
    elif what == "shopping.ods":
        content = tables.as_ods(cutting.shopping, name)
    else:
        raise Http404(_("There is no such paper."))
    return sent(content, name, what, fetched=not what.endswith(".pdf"))


app_name = "whole-job"
urlpatterns = [
    path("", page, name="page"),
    path("working/", working, name="working"),
    path("<str:what>", file, name="file"),
]
