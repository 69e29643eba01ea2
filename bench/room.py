"""When there is no room left on the disk: a sentence, and nothing half kept."""

import errno
from collections.abc import Callable

from django.db import DatabaseError
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.translation import gettext as _

from bench.words import lazy

_WORDS = lazy(
    "There is no room left on the disk where it is kept. Nothing was changed: make room, "
    "then do it again."
)


def is_full(error: BaseException) -> bool:
    """Whether an error says that the disk is full."""
    if isinstance(error, OSError):
        return error.errno in (errno.ENOSPC, errno.EDQUOT)
    return isinstance(error, DatabaseError) and "disk is full" in str(error)


class NoRoom:
    """Middleware: what the disk has no room for is said, and is not the program's fault."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        """Around what answers."""
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Ask on."""
        return self.get_response(request)

    def process_exception(self, request: HttpRequest, exception: Exception) -> HttpResponse | None:
        """Say it; anything else goes its way."""
        if not is_full(exception):
            return None
        return render(
            request,
            "bench/error.html",
            {"title": _("The disk is full"), "words": _WORDS},
            status=507,
        )
