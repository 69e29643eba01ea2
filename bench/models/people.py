"""People.

Who may help at a job or look at it, and the trail of what was done to accounts, shares and data.
"""

import hashlib
import secrets
from datetime import timedelta
from typing import Any

from django.conf import settings
from django.db import models
from django.utils import timezone

from bench.models.jobs import Job


class Share(models.Model):
    """A job shared.

    With a helper, who may hang what is planned; or shown by a link to whoever has it, until it
    expires.

    Of a link only the hash of its token is kept: who reads the database can't open it.
    """

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="shares")
    helper = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, null=True, related_name="helps"
    )
    token_hash = models.CharField(max_length=64, blank=True, db_index=True)
    expires = models.DateTimeField(null=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["job", "helper"], name="one_share_a_helper")]

    def __str__(self) -> str:
        return f"{self.job}: {self.helper or 'link'}"

    @classmethod
    def link(cls, job: Job, days: int) -> tuple["Share", str]:
        """Return a new link to a job, and its token, which is told once."""
        token = secrets.token_urlsafe(24)
        share = cls.objects.create(
            job=job, token_hash=_hash(token), expires=timezone.now() + timedelta(days=days)
        )
        return share, token

    @classmethod
    def opened_by(cls, token: str) -> "Share | None":
        """Return the share that a link opens; None when there is none, or no longer."""
        found = cls.objects.select_related("job").filter(
            token_hash=_hash(token), expires__gt=timezone.now(), job__deleted=None
        )
        return found.first()


def _hash(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


class Trail(models.Model):
    """Something that was done to an account, a share or data.

    Changes of plans are in their revisions.
    """

    at = models.DateTimeField(auto_now_add=True, db_index=True)
    who = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="trail"
    )
    name = models.CharField(max_length=150, blank=True)
    what = models.CharField(max_length=200)
    job = models.ForeignKey(Job, on_delete=models.SET_NULL, null=True, related_name="trail")
    address = models.CharField(max_length=45, blank=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return f"{self.at:%Y-%m-%d %H:%M} {self.name}: {self.what}"

    @classmethod
    def tried(cls, request: Any, what: str, minutes: int) -> int:
        """How often that was done from where this request comes, in the last so many minutes."""
        since = timezone.now() - timedelta(minutes=minutes)
        return cls.objects.filter(what=what, address=_address(request), at__gt=since).count()

    @classmethod
    def note(cls, request: Any, what: str, job: Job | None = None, name: str = "") -> None:
        """Keep a line of it."""
        user = getattr(request, "user", None)
        known = user if user is not None and user.is_authenticated else None
        address = _address(request) if request is not None else ""
        cls.objects.create(
            who=known,
            name=(name or (known.get_username() if known else ""))[:150],
            what=what[:200],
            job=job,
            address=address,
        )


def _address(request: Any) -> str:
    return str(request.META.get("REMOTE_ADDR", ""))[:45]
