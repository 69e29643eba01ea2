"""The log: every piece as a line that can be searched, kept in step with the plans."""

from itertools import chain

from django.db import models

from trade.check import Verdict
from trade.choose.entry import Entry, entries
from trade.plan.model import Plan
from trade.plan.place import faced

_WORDS = 2_000


class LogEntry(models.Model):
    """One piece on one wall."""

    wall = models.ForeignKey("Wall", on_delete=models.CASCADE, related_name="lines")
    key = models.CharField(max_length=40)
    name = models.CharField(max_length=80)
    kind = models.CharField(max_length=20)
    outcome = models.CharField(max_length=12)
    structure = models.CharField(max_length=20, blank=True)
    fixing = models.CharField(max_length=16)
    words = models.TextField()
    thought_minutes = models.FloatField()
    thought_cost = models.FloatField()
    hung = models.DateField(null=True)
    minutes = models.FloatField(null=True)
    cost = models.FloatField(null=True)
    proved = models.BooleanField(default=False)
    held = models.CharField(max_length=8, blank=True)

    class Meta:
        ordering = ["-pk"]
        constraints = [models.UniqueConstraint(fields=["wall", "key"], name="one_line_a_piece")]

    def __str__(self) -> str:
        return self.name


_FIELDS = [name for name in Entry._fields if name != "key"]


def sync(wall: int, plan: Plan, place: str, verdict: Verdict | None) -> None:
    """Make the lines of a wall what its plan says; lines that are so already are left alone."""
    known = {line.key: line for line in LogEntry.objects.filter(wall=wall)}
    new, changed = [], []
    every = chain.from_iterable(
        entries(each, place, verdict if each is plan else None) for each in faced(plan)
    )
    for entry in every:
        line = known.pop(entry.key, None)
        values = {name: getattr(entry, name) for name in _FIELDS} | {"words": entry.words[:_WORDS]}
        if line is None:
            new.append(LogEntry(wall_id=wall, key=entry.key, **values))
        elif any(getattr(line, name) != value for name, value in values.items()):
            for name, value in values.items():
                setattr(line, name, value)
            changed.append(line)
    if known:
        LogEntry.objects.filter(pk__in=[line.pk for line in known.values()]).delete()
    if new:
        LogEntry.objects.bulk_create(new)
    if changed:
        LogEntry.objects.bulk_update(changed, _FIELDS)


class Photo(models.Model):
    """A picture of a piece, or of the wall when `key` is empty.

    Made anew here, without what the camera told.
    """

    wall = models.ForeignKey("Wall", on_delete=models.CASCADE, related_name="photos")
    key = models.CharField(max_length=40, blank=True)
    file = models.CharField(max_length=80)
    caption = models.CharField(max_length=200, blank=True)
    wide = models.PositiveIntegerField()
    high = models.PositiveIntegerField()
    deleted = models.DateTimeField(null=True, db_index=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.caption or self.file
