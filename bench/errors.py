"""Pages that say what went wrong."""

from django.core.exceptions import DisallowedHost
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.translation import gettext as _


def not_found(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """Nothing is at this address."""
    return render(
        request,
        "bench/error.html",
        {"title": _("Not here"), "words": _("There is no page at this address.")},
        status=404,
    )


def bad_request(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """Say that what arrived could not be read at all: too large, or not what a browser sends."""
    words = "That could not be read; it may have been too large. Nothing was changed."
    if isinstance(exception, DisallowedHost):
        words = (
            "This server does not answer to that name. Its owner can add the name to GANCHO_HOSTS."
        )
        return render(
            request,
            "bench/error.html",
            {"title": _("Not by this name"), "words": words},
            status=400,
        )
    return render(
        request,
        "bench/error.html",
        {"title": _("That arrived incomplete"), "words": words},
        status=400,
    )


def outdated(request: HttpRequest, reason: str = "") -> HttpResponse:
    """Say that the page was drawn for another visit (its token does not fit): nothing is done."""
    words = _(
        "This page was open for too long, or in two places. Nothing was changed: load it "
        "again and go on."
    )
    return render(
        request, "bench/error.html", {"title": _("Load the page again"), "words": words}, status=403
    )


def unavailable(request: HttpRequest, reason: str) -> HttpResponse:
    """Render the page for a request that the pool could not answer.

    `reason`: `busy` or `timeout`.
    """
    words = {
        "busy": _(
            "The server is busy with other long calculations. Nothing was changed. Try again "
            "in a minute."
        ),
        "timeout": _(
            "This calculation took too long and was stopped. Your work up to the last "
            "change is saved."
        ),
    }[reason]
    return render(request, "bench/error.html", {"title": _("Not now"), "words": words}, status=503)


def broken(request: HttpRequest) -> HttpResponse:
    """Something went wrong here; nothing that was saved is lost."""
    words = (
        "Something went wrong on our side. Everything up to your last change is kept; go back "
        "and try again."
    )
    return render(
        request, "bench/error.html", {"title": _("That went wrong"), "words": words}, status=500
    )
