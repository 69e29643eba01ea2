"""Jobs and their walls: the list, new walls, files brought in and taken out."""

from django import forms
from django.conf import settings
from django.core.paginator import Paginator
from django.http import HttpRequest, HttpResponse, QueryDict
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe

from bench import archive
from bench.access import job_or_404, owner
from bench.access import jobs as jobs_of
from bench.access import walls as walls_of
from bench.account import note_saved
from bench.downloads import sent
from bench.drawing import elevation
from bench.forms import mark_invalid
from bench.models import Job, Trail, Wall
from bench.models.offcuts import alone
from bench.models.walls import UNITS
from bench.once import once
from bench.pictures import picture
from bench.stages.survey.forms import WallForm
from bench.words import lazy, worded
from trade.assess import assess
from trade.errors import PlanError
from trade.measure import Units
from trade.plan import plan_file
from trade.plan.model import Plan, Policy
from trade.plan.policy import usual
from trade.plan.shop import Shop

WALLS_ON_A_PAGE = 24
_QUESTIONS = {
    "width": lazy("How wide is it?"),
    "lining": lazy("On the outside"),
    "structure": lazy("And behind that"),
    "studs": lazy("Where are the studs, from the left corner, and what else is there?"),
}


class PlanFileForm(forms.Form):
    """A plan file or a job file to bring in."""

    plan = forms.FileField(
        label=lazy("Plan file or job file"),
        error_messages={"required": lazy("Choose a plan file first.")},
    )

    def clean_plan(self) -> Plan | bytes:
        """Read it: a plan; a job's file as it is.

        Raises:
            ValidationError: with the sentence of the trade.
        """
        file = self.cleaned_data["plan"]
        raw: bytes = file.read(2)
        if raw == b"PK":
            return raw + bytes(file.read(archive.MOST_BYTES))
        try:
            return alone(plan_file.load(raw + file.read(plan_file.MAX_BYTES)))
        except PlanError as error:
            where = f"{error.where}: " if error.where else ""
            raise forms.ValidationError(f"{where}{error}") from None


@require_safe
def jobs(request: HttpRequest) -> HttpResponse:
    """All jobs with their walls, each wall drawn small."""
    return _jobs(request, PlanFileForm())


def _jobs(request: HttpRequest, form: forms.Form, status: int = 200) -> HttpResponse:
    page = Paginator(
        walls_of(request, "hang").with_plans().select_related("job").order_by("job_id", "pk"),
        WALLS_ON_A_PAGE,
    )
    shown = page.get_page(request.GET.get("page"))
    walls = [{"wall": wall, **picture(wall)._asdict()} for wall in shown]
    context = {"walls": walls, "form": form, "shown": shown, "many": settings.PEOPLE == "many"}
    return render(request, "bench/jobs.html", context, status=status)


@once
def new_wall(request: HttpRequest) -> HttpResponse:
    """Ask for the first minute: how wide, what it is made of, where the studs are."""
    units = _asked_units(request)
    posted = request.POST if request.method == "POST" else None
    form = _new_wall_form(units, posted, walls_of(request).count())
    if posted is not None and form.is_valid():
        job = _job_named(request, request.POST.get("job", "").strip()[:80] or "My walls")
        plan = Plan(
            name=form.cleaned_data["name"],
            units=units,
            wall=form.cleaned_data["wall"],
            policy=_policy_of(job, units),
            shop=_shop_of(request, units),
        )
        return redirect("stage", Wall.begin(job, plan, _("A new wall")).pk, "fix")
    mark_invalid(form)
    context = {
        "form": form,
        "units": units,
        "unit_choices": UNITS,
        "job": request.POST.get("job", "My walls"),
    }
    return render(
        request, "bench/new_wall.html", context, status=422 if posted is not None else 200
    )


def _job_named(request: HttpRequest, name: str) -> Job:
    """Somebody's own job of this name, or a new one."""
    return jobs_of(request).filter(name=name).first() or Job.objects.create(
        name=name, owner=owner(request)
    )


def _policy_of(job: Job, units: Units) -> Policy:
    """How a job is done: as on its last wall; the usual way when it has none yet."""
    last = Wall.objects.with_plans().filter(job=job, deleted=None).order_by("-pk").first()
    return last.plan().policy if last else usual(units)


def _shop_of(request: HttpRequest, units: Units) -> Shop:
    """Return what somebody has in the drawer, and pays, as said at the last of their own walls.

    Prices only where they are in the same money: it goes with the units.
    """
    last = walls_of(request).with_plans().order_by("-pk").first()
    if last is None:
        return Shop()
    plan = last.plan()
    return Shop(have=plan.shop.have, prices=plan.shop.prices if plan.units == units else ())


@require_POST
def preview(request: HttpRequest) -> HttpResponse:
    """Show the wall as it draws itself while the questions are answered.

    Nothing while an answer cannot be read.
    """
    form = _new_wall_form(_asked_units(request), request.POST)
    if not form.is_valid():
        return HttpResponse(status=204)
    plan = Plan(name=form.cleaned_data["name"], units=form.units, wall=form.cleaned_data["wall"])
    return render(
        request,
        "bench/_preview.html",
        {"sheet": elevation.draw(plan, assess(plan), None, "survey", ())},
    )


def _asked_units(request: HttpRequest) -> Units:
    return (
        "metric"
        if (request.POST.get("units") or request.GET.get("units")) == "metric"
        else "imperial"
    )


def _new_wall_form(units: Units, posted: QueryDict | None, count: int = 0) -> WallForm:
    form = WallForm(units, None, worded("Wall {count}", count=count + 1), posted)
    for name, question in _QUESTIONS.items():
        form.fields[name].label = question
    form.fields["height"].initial = "8'" if units == "imperial" else "2440 mm"
    return form


@require_POST
def import_plan(request: HttpRequest) -> HttpResponse:
    """Bring in a plan file as a new wall, a job file as a new job.

    Decode and check it before locking the database.
    """
    form = PlanFileForm(request.POST, request.FILES)
    if not form.is_valid():
        return _jobs(request, form, 422)
    brought = form.cleaned_data["plan"]
    try:
        return _bring_in(
            request, archive.looked_at(brought) if isinstance(brought, bytes) else brought
        )
    except archive.RefusedFileError as error:
        form.add_error("plan", str(error))
        return _jobs(request, form, 422)


@once
def _bring_in(request: HttpRequest, brought: Plan | list[archive.Brought]) -> HttpResponse:
    if isinstance(brought, Plan):
        return redirect(
            Wall.begin(_job_named(request, _("Brought in")), brought, _("Import from a file"))
        )
    for job in archive.keep(brought, owner(request)):
        Trail.note(request, worded("brought in the job “{name}”", name=job.name), job)
    return redirect("jobs")


@require_safe
def job_file(request: HttpRequest, job: int) -> HttpResponse:
    """Send a job with its walls, their history and photos as one open file."""
    found = job_or_404(request, job)
    Trail.note(request, _("wrote the job to a file"), found)
    return sent(archive.written(found), found.name, "job.zip", fetched=True)


@require_safe
def everything(request: HttpRequest) -> HttpResponse:
    """All of one's jobs as one file."""
    Trail.note(request, _("wrote everything to a file"))
    note_saved(request)
    return sent(archive.everything(jobs_of(request)), "gancho", "everything.zip", fetched=True)
