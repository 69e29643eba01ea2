"""What a phone at the wall has told already: so that what is sent twice counts once."""

from django.db import models


class Report(models.Model):
    """One message from the wall, by the name that the phone gave it.

    `made`: key of the revision it led to, null for none.
    """

    wall = models.ForeignKey("Wall", on_delete=models.CASCADE, related_name="told")
    uid = models.CharField(max_length=64)
    made = models.BigIntegerField(null=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["wall", "uid"], name="told_once")]

    def __str__(self) -> str:
        return f"{self.wall_id}: {self.uid}"
