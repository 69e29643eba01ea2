"""Walls and their history. A wall's plan is kept whole, in the open plan format, once per change; undo moves a finger."""

from typing import Any

from django.conf import settings
from django.db import models, transaction
from django.urls import reverse
from msgspec.structs import replace

from bench.models import log, rack
from bench.models.jobs import Job
from trade import planfile
from trade.check import Verdict
from trade.measure import Units
from trade.plan import Plan

UNITS = [("imperial", "ft in"), ("metric", "mm")]
MOST_REVISIONS = 2_000


class StaleError(Exception):
    """The wall was changed elsewhere since the page was drawn."""


class WallQuerySet(models.QuerySet["Wall"]):
    """Walls."""

    def with_plans(self) -> "WallQuerySet":
        """Bring each wall's current plan along in the same query."""
        current = Revision.objects.filter(wall=models.OuterRef("pk"), number=models.OuterRef("at"))
        return self.annotate(plan_text=models.Subquery(current.values("plan")[:1]))


class Wall(models.Model):
    """A wall of a job. `at` is the number of the revision that counts now."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="walls")
    name = models.CharField(max_length=80)
    units = models.CharField(max_length=8, choices=UNITS, default="imperial")
    at = models.PositiveIntegerField(default=0)
    last = models.PositiveIntegerField(default=0)
    created = models.DateTimeField(auto_now_add=True)
    deleted = models.DateTimeField(null=True, blank=True, db_index=True)

    objects = WallQuerySet.as_manager()
    last_change = ""  # what undo would take back, once the plan was read
    actor: Any = None  # whose request this is

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.name

    def get_absolute_url(self) -> str:
        """The workbench of this wall."""
        return reverse("wall", args=[self.pk])

    @classmethod
    def begin(cls, job: Job, plan: Plan, label: str) -> "Wall":
        """A new wall with its first revision."""
        with transaction.atomic():
            wall = cls.objects.create(job=job, name=plan.name, units=plan.units, at=1, last=1)
            wall.revisions.create(number=1, label=label, plan=planfile.dump(plan).decode())
            _sync(wall, plan)
        return wall

    def plan(self) -> Plan:
        """The plan that counts now, in the wall's own units: the bridge to the trade."""
        text = getattr(self, "plan_text", None)
        if text is None:
            revision = self.revisions.get(number=self.at)
            text, self.last_change = revision.plan, revision.label
        return replace(planfile.load(text.encode()), units=self.said_in)

    @property
    def said_in(self) -> Units:
        """Units as the trade calls them."""
        return "imperial" if self.units == "imperial" else "metric"

    def _hold(self, base: int) -> None:
        """Within a transaction: hold the wall, if it is still where the person saw it.

        Raises:
            StaleError: it has moved on since.
        """
        if Wall.objects.select_for_update().get(pk=self.pk).at != base:
            raise StaleError

    def record(self, plan: Plan, label: str, base: int, verdict: Verdict | None = None) -> None:
        """Keep a changed plan as a new revision; what was undone before is let go.

        Args:
            plan: the plan after the change.
            label: what was done, in words, for undo.
            base: the revision that the person was looking at.
            verdict: on the plan, where it is known already.

        Raises:
            StaleError: the wall has moved on since.
        """
        with transaction.atomic():
            self._hold(base)
            self.revisions.filter(number__gt=base).delete()
            self.revisions.filter(number__lte=base - MOST_REVISIONS).delete()
            by = self.actor.pk if self.actor is not None else None
            self.revisions.create(number=base + 1, label=label[:120], plan=planfile.dump(plan).decode(), by_id=by)
            self.at, self.last, self.last_change = base + 1, base + 1, label
            self.name = plan.name
            self.save(update_fields=["at", "last", "name"])
            _sync(self, plan, verdict)

    def step(self, by: int, base: int) -> bool:
        """Undo (-1) or redo (+1). False when there is nothing to step to.

        Raises:
            StaleError: the wall has moved on since.
        """
        with transaction.atomic():
            self._hold(base)
            target = self.revisions.filter(number=base + by).first()
            if target is None:
                return False
            self.at = base + by
            plan = planfile.load(target.plan.encode())
            self.name = plan.name
            self.save(update_fields=["at", "name"])
            _sync(self, plan)
        return True


def _sync(wall: Wall, plan: Plan, verdict: Verdict | None = None) -> None:
    """Make what follows the plans follow this one: the rack of offcuts, the log."""
    rack.sync(wall.pk, plan)
    log.sync(wall.pk, plan, wall.job.name, verdict)


class Revision(models.Model):
    """A wall's plan after one change."""

    wall = models.ForeignKey(Wall, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    label = models.CharField(max_length=120)
    plan = models.TextField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["wall", "number"], name="one_revision_per_number")]

    def __str__(self) -> str:
        return f"{self.wall_id}.{self.number} {self.label}"
