"""Practice runs.

A hidden wall by its seed and level, what was done at it, and the score once it was uncovered.
"""

from typing import Any

import msgspec
from django.conf import settings
from django.db import models
from django.urls import reverse

from trade.devices.practice import Score
from trade.plan.readings import Reading


class Pass(msgspec.Struct, frozen=True, kw_only=True):
    """The sweep that is going on.

    Where the finder has been, how high, and how many readings there were before it.
    """

    low_mm: float
    high_mm: float
    height_mm: float
    before: int


class Log(msgspec.Struct, frozen=True, kw_only=True):
    """What was done at a practice wall.

    `spent`: uses of a tool; `tapes_mm`: strips of tape, without meaning; `calls_mm`: where studs
    are said to be; `structure`: what it is said to be made of.
    """

    readings: tuple[Reading, ...] = ()
    spent: int = 0
    going: Pass | None = None
    tapes_mm: tuple[tuple[float, float], ...] = ()
    calls_mm: tuple[float, ...] = ()
    structure: str | None = None


# made with the module, not by the first who reads, for the same reason as those of plans
_LOG, _SCORE = msgspec.json.Decoder(Log), msgspec.json.Decoder(Score)


class Practice(models.Model):
    """One go at one hidden wall."""

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, null=True, related_name="practice"
    )
    seed = models.PositiveIntegerField()
    level = models.CharField(max_length=20)
    units = models.CharField(max_length=8, default="imperial")
    log = models.TextField(default="{}")
    score = models.TextField(blank=True)
    begun = models.DateTimeField(auto_now_add=True)
    uncovered = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return f"{self.level} {self.seed}"

    def get_absolute_url(self) -> str:
        """Where it is played."""
        return reverse("practice:wall", args=[self.pk])

    @property
    def said(self) -> Log:
        """What was done so far."""
        return _LOG.decode(self.log)

    def keep(self, log: Log) -> None:
        """Keep what was done."""
        self.log = msgspec.json.encode(log).decode()
        self.save(update_fields=["log"])

    @property
    def result(self) -> Score | None:
        """The score; None while it is covered."""
        return _SCORE.decode(self.score) if self.score else None

    def finish(self, score: Score, when: Any) -> None:
        """Uncover it, once."""
        self.score, self.uncovered = msgspec.json.encode(score).decode(), when
        self.save(update_fields=["score", "uncovered"])
