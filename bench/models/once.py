"""Forms that were sent already, so that one that is sent twice makes one thing."""

from django.db import models


class Sent(models.Model):
    """One form by its token, and the address that its sender was led on to."""

    token = models.CharField(max_length=64, unique=True)
    address = models.CharField(max_length=500, blank=True)
    created = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return f"{self.token}: {self.address}"
