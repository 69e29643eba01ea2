"""Jobs."""

from django.db import models


class Job(models.Model):
    """A place where work is done, with one wall or more."""

    name = models.CharField(max_length=80)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.name
