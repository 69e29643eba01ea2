"""Jobs."""

from django.conf import settings
from django.db import models


class Job(models.Model):
    """A place where work is done, with one wall or more.

    `deleted`: since when it is in the bin, from where it comes back.
    """

    name = models.CharField(max_length=80)
    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, null=True, related_name="jobs"
    )
    created = models.DateTimeField(auto_now_add=True)
    deleted = models.DateTimeField(null=True, blank=True, db_index=True)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.name
