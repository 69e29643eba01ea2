"""The address that others reach this by: as it was set, else as whoever asks reached it."""

from urllib.parse import urlsplit

from django.conf import settings
from django.http import HttpRequest

_HERE = ("localhost", "127.0.0.1", "::1")


def public(request: HttpRequest, path: str) -> str:
    """Return a link to hand to others."""
    return f"{settings.ADDRESS}{path}" if settings.ADDRESS else request.build_absolute_uri(path)


def only_here(address: str) -> bool:
    """Whether a link opens on this machine alone."""
    return urlsplit(address).hostname in _HERE
