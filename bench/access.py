"""Who may do what.

On a machine of one's own there is one person, who may do all; else everybody has an account.
"""

from collections.abc import Callable
from typing import Any, Literal

from django.conf import settings
from django.contrib.auth.middleware import LoginRequiredMiddleware
from django.contrib.auth.models import User
from django.db.models import Exists, OuterRef, Q, QuerySet
from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import get_object_or_404, render
from django.utils.functional import SimpleLazyObject

from bench.models import Job, Practice, Share, Wall
from bench.models.walls import WallQuerySet

Need = Literal["hang", "change"]
LOCAL = "me"


class OnePerson:
    """Middleware: where there is one person, whoever comes is that person."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        """Wrap what follows."""
        self._next = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Know the person, when somebody asks."""
        if settings.PEOPLE == "one":
            request.user = SimpleLazyObject(_local)  # type: ignore[assignment]
        return self._next(request)


class SignedIn(LoginRequiredMiddleware):
    """Middleware.

    Where everybody has an account, nothing but what says so is shown to strangers.
    """

    def process_view(self, request: HttpRequest, *view: Any) -> HttpResponseBase | None:
        """Send strangers to the door."""
        return None if settings.PEOPLE == "one" else super().process_view(request, *view)

    def handle_no_permission(  # type: ignore[override]
        self, request: HttpRequest, view_func: Any
    ) -> HttpResponseBase:
        """Tell a page whose session has ended, instead of putting the door inside it."""
        if getattr(request, "htmx", False) or request.headers.get("HX-Request"):
            return render(request, "bench/people/_signed_out.html", status=401)
        return super().handle_no_permission(request, view_func)


def _local() -> User:
    return User.objects.get_or_create(username=LOCAL)[0]


def jobs(request: HttpRequest, need: Need = "change", deleted: bool = False) -> QuerySet[Job]:
    """Jobs that somebody may change, or where they may at least hang things.

    Those in the bin only when asked for.
    """
    found = Job.objects.filter(deleted__isnull=not deleted)
    return (
        found if settings.PEOPLE == "one" else found.filter(_own(request, need, "", OuterRef("pk")))
    )


def walls(request: HttpRequest, need: Need = "change") -> WallQuerySet:
    """Return the same of walls."""
    found: WallQuerySet = Wall.objects.filter(deleted=None, job__deleted=None)
    return (
        found
        if settings.PEOPLE == "one"
        else found.filter(_own(request, need, "job__", OuterRef("job")))
    )


def own_walls(request: HttpRequest, prefix: str) -> Q:
    """Return the walls that somebody may change, as a condition on what belongs to a wall.

    `prefix`.

    The way there.
    """
    there = Q(**{f"{prefix}deleted": None, f"{prefix}job__deleted": None})
    return (
        there if settings.PEOPLE == "one" else there & Q(**{f"{prefix}job__owner": request.user.pk})
    )


def _own(request: HttpRequest, need: Need, prefix: str, job: OuterRef) -> Q:
    own = Q(**{f"{prefix}owner": request.user.pk})
    return (
        own
        if need == "change"
        else own | Q(Exists(Share.objects.filter(job=job, helper=request.user.pk)))
    )


def wall_or_404(request: HttpRequest, pk: int, need: Need = "change") -> Wall:
    """Return a wall for somebody who may.

    Raises:
        Http404: there is none, or it is not theirs: both look the same.
    """
    wall = get_object_or_404(walls(request, need).select_related("job"), pk=pk)
    wall.actor, wall.at = request.user, getattr(pk, "at", "")
    return wall


def job_or_404(request: HttpRequest, pk: int, deleted: bool = False) -> Job:
    """Return a job of somebody's own.

    Raises:
        Http404: there is none, or it is not theirs.
    """
    return get_object_or_404(jobs(request, deleted=deleted), pk=pk)


def practice(request: HttpRequest) -> QuerySet[Practice]:
    """Somebody's goes at practice walls."""
    return (
        Practice.objects.all()
        if settings.PEOPLE == "one"
        else Practice.objects.filter(owner=request.user.pk)
    )


def owner(request: HttpRequest) -> User | None:
    """Whose what is made now will be."""
    return request.user if isinstance(request.user, User) else None


def helps_only(request: HttpRequest, wall: Wall) -> bool:
    """Whether somebody may hang things here and no more."""
    return settings.PEOPLE != "one" and wall.job.owner_id != request.user.pk
