"""Walls and their history.

A wall's plan is kept whole, in the open plan format, packed, once per change; undo moves a finger.
"""

from typing import Any

from django.conf import settings
from django.db import models, transaction
from django.urls import reverse
from msgspec.structs import replace

from bench.models import log, offcuts
from bench.models.jobs import Job
from bench.wall_address import WallAddress
from trade.check import Verdict
from trade.measure import Units
from trade.plan import plan_file
from trade.plan.model import Plan

UNITS = [("imperial", "ft in"), ("metric", "mm")]
MOST_REVISIONS = 2_000


class StaleError(Exception):
    """The wall was changed elsewhere since the page was drawn."""


class WallQuerySet(models.QuerySet["Wall"]):
    """Walls."""

    def with_plans(self) -> "WallQuerySet":
        """Bring each wall's current plan along in the same query, and the key of its revision."""
        current = Revision.objects.filter(
            wall=models.OuterRef("pk"), number=models.OuterRef("current_revision")
        )
        return self.annotate(
            brought=models.Subquery(current.values("packed")[:1]),
            brought_key=models.Subquery(current.values("pk")[:1]),
        )


class Wall(models.Model):
    """A wall of a job.

    `current_revision` is the number of the revision that counts now; `seen` its key, once the
    plan was read.

    A change names the key that its page knew, not the number: a number comes again when a change
    was taken back and another made.
    """

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="walls")
    name = models.CharField(max_length=80)
    units = models.CharField(max_length=8, choices=UNITS, default="imperial")
    current_revision = models.PositiveIntegerField(default=0)
    last = models.PositiveIntegerField(default=0)
    created = models.DateTimeField(auto_now_add=True)
    deleted = models.DateTimeField(null=True, blank=True, db_index=True)

    objects = WallQuerySet.as_manager()
    at = ""  # key of the wall of this place that one stands in front of
    last_change = ""  # what undo would take back, once the plan was read
    seen = 0
    actor: Any = None  # whose request this is

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.name

    def get_absolute_url(self) -> str:
        """Return the workbench of this wall."""
        return reverse("wall", args=[self.address])

    @property
    def address(self) -> WallAddress:
        """What stands in addresses of this wall, seen from where one stands."""
        return WallAddress(self.pk, self.at)

    @classmethod
    def begin(cls, job: Job, plan: Plan, label: str) -> "Wall":
        """Return a new wall with its first revision."""
        with transaction.atomic():
            wall = cls.objects.create(
                job=job, name=plan.name, units=plan.units, current_revision=1, last=1
            )
            wall.seen = wall.revisions.create(number=1, label=label, packed=plan_file.pack(plan)).pk
            _sync(wall, plan)
        return wall

    def plan(self) -> Plan:
        """Return the plan that counts now, in the wall's own units: the bridge to the trade."""
        packed = self.__dict__.pop(
            "brought", None
        )  # brought along with the wall it is read once: a change makes it old
        if packed is not None:
            self.seen = self.__dict__["brought_key"]
        else:
            revision = self.revisions.get(number=self.current_revision)
            packed, self.last_change, self.seen = revision.packed, revision.label, revision.pk
        plan = replace(plan_file.unpack(bytes(packed), self.at), units=self.display_units)
        self.at = plan.at if plan.corners else ""
        return plan

    @property
    def display_units(self) -> Units:
        """Units as the trade calls them."""
        return "imperial" if self.units == "imperial" else "metric"

    def _hold(self, seen: int) -> int:
        """Within a transaction.

        Hold the wall, if it is still where the person saw it; the number of what counts.

        Raises:
            StaleError: it has moved on since.
        """
        at = Wall.objects.select_for_update().get(pk=self.pk).current_revision
        if not self.revisions.filter(pk=seen, number=at).exists():
            raise StaleError
        return at

    def record(self, plan: Plan, label: str, seen: int, verdict: Verdict | None = None) -> None:
        """Keep a changed plan as a new revision; what was undone before is let go.

        Args:
            plan: the plan after the change.
            label: what was done, in words, for undo.
            seen: key of the revision that the person was looking at.
            verdict: on the plan, where it is known already.

        Raises:
            StaleError: the wall has moved on since.
        """
        with transaction.atomic():
            at = self._hold(seen)
            self.revisions.filter(number__gt=at).delete()
            self.revisions.filter(number__lte=at - MOST_REVISIONS).delete()
            by = self.actor.pk if self.actor is not None else None
            self.seen = self.revisions.create(
                number=at + 1, label=label[:120], packed=plan_file.pack(plan), by_id=by
            ).pk
            self.current_revision = self.last = at + 1
            self.last_change = label
            self.name = plan.name
            self.save(update_fields=["current_revision", "last", "name"])
            _sync(self, plan, verdict)

    def step(self, by: int, seen: int) -> bool:
        """Undo (-1) or redo (+1) from the revision of this key.

        False when there is nothing to step to.

        Raises:
            StaleError: the wall has moved on since.
        """
        with transaction.atomic():
            target = self.revisions.filter(number=self._hold(seen) + by).first()
            if target is None:
                return False
            self.current_revision, self.seen = target.number, target.pk
            plan = plan_file.unpack(bytes(target.packed))
            self.name = plan.name
            self.save(update_fields=["current_revision", "name"])
            _sync(self, plan)
        return True


def _sync(wall: Wall, plan: Plan, verdict: Verdict | None = None) -> None:
    """Make what follows the plans follow this one: the rack of offcuts, the log."""
    offcuts.sync(wall.pk, plan)
    log.sync(wall.pk, plan, wall.job.name, verdict)


class Revision(models.Model):
    """A wall's plan after one change, packed: `trade.plan.plan_file` reads it."""

    wall = models.ForeignKey(Wall, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    label = models.CharField(max_length=120)
    packed = models.BinaryField()
    by = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+"
    )
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["wall", "number"], name="one_revision_per_number")
        ]

    def __str__(self) -> str:
        return f"{self.wall_id}.{self.number} {self.label}"
