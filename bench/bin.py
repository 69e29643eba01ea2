"""The bin: what was deleted comes back for thirty days, then it is gone."""

from datetime import timedelta

from django.db.models import Q
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe

from bench.access import job_or_404, jobs, own_walls, wall_or_404
from bench.models import Job, Photo, Report, Sent, Trail, Wall
from bench.photos import folder
from bench.words import worded

KEPT = timedelta(days=30)
_TOLD = timedelta(days=90)  # no phone keeps a tap, and no browser a form, for longer


@require_POST
def delete_job(request: HttpRequest, job: int) -> HttpResponse:
    """Put a job with all its walls into the bin."""
    found = job_or_404(request, job)
    found.deleted = timezone.now()
    found.save(update_fields=["deleted"])
    Trail.note(request, worded("put the job “{name}” into the bin", name=found.name), found)
    return redirect("bin:contents")


@require_POST
def delete_wall(request: HttpRequest, wall: int) -> HttpResponse:
    """Put a wall into the bin."""
    found = wall_or_404(request, wall)
    found.deleted = timezone.now()
    found.save(update_fields=["deleted"])
    Trail.note(request, worded("put the wall “{name}” into the bin", name=found.name), found.job)
    return redirect("bin:contents")


@require_safe
def contents(request: HttpRequest) -> HttpResponse:
    """Show what is in the bin, and until when."""
    gone = [(job, job.deleted + KEPT) for job in jobs(request, deleted=True) if job.deleted]
    walls = Wall.objects.filter(job__in=jobs(request), deleted__isnull=False).select_related("job")
    lying = [(wall, wall.deleted + KEPT) for wall in walls if wall.deleted]
    photos = Photo.objects.filter(
        own_walls(request, "wall__"), deleted__isnull=False
    ).select_related("wall")
    shown = [(photo, photo.deleted + KEPT) for photo in photos if photo.deleted]
    return render(request, "bench/bin.html", {"jobs": gone, "walls": lying, "photos": shown})


@require_POST
def restore(request: HttpRequest, what: str, pk: int) -> HttpResponse:
    """Take it out of the bin again, as it was."""
    if what == "job":
        job = job_or_404(request, pk, deleted=True)
        Job.objects.filter(pk=job.pk).update(deleted=None)
        Trail.note(request, worded("took the job “{name}” out of the bin", name=job.name), job)
        return redirect("jobs")
    if what == "photo":
        photo = get_object_or_404(
            Photo.objects.filter(own_walls(request, "wall__"), deleted__isnull=False), pk=pk
        )
        Photo.objects.filter(pk=photo.pk).update(deleted=None)
        return redirect(f"{photo.wall.get_absolute_url()}record/?piece={photo.key}&look=look")
    if what != "wall":
        raise Http404(_("That is not in the bin."))
    wall = get_object_or_404(
        Wall.objects.filter(job__in=jobs(request), deleted__isnull=False), pk=pk
    )
    Wall.objects.filter(pk=wall.pk).update(deleted=None)
    Trail.note(request, worded("took the wall “{name}” out of the bin", name=wall.name), wall.job)
    return redirect(wall)


def empty() -> int:
    """Let go for good of what has been in the bin for long enough.

    How many jobs and walls that were.
    """
    before = timezone.now() - KEPT
    jobs_gone = Job.objects.filter(deleted__lt=before)
    walls_gone = Wall.objects.filter(deleted__lt=before)
    thrown = Photo.objects.filter(
        Q(wall__in=walls_gone) | Q(wall__job__in=jobs_gone) | Q(deleted__lt=before)
    )
    files = list(thrown.values_list("file", flat=True))
    thrown.delete()
    Report.objects.filter(created__lt=timezone.now() - _TOLD).delete()
    Sent.objects.filter(created__lt=timezone.now() - _TOLD).delete()
    count = jobs_gone.count() + walls_gone.exclude(job__in=jobs_gone).count()
    walls_gone.delete()
    jobs_gone.delete()
    for name in files:
        (folder() / name).unlink(missing_ok=True)
    return count
