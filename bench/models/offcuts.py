"""The rack: offcuts that one wall's cutting leaves over and another's may use.

It follows the plans: undo moves it too.
"""

from typing import Literal

from django.conf import settings
from django.db import models
from msgspec.structs import replace

from bench.models.jobs import Job
from trade.plan.model import Plan
from trade.plan.shop import OnHand


class Offcut(models.Model):
    """One offcut.

    The wall that it is left over from, its place among that wall's, and the wall that has taken it.
    """

    wall = models.ForeignKey("Wall", on_delete=models.CASCADE, related_name="offcuts")
    place = models.PositiveIntegerField()
    taken = models.ForeignKey(
        "Wall", on_delete=models.SET_NULL, null=True, related_name="taken_offcuts"
    )
    name = models.CharField(max_length=80)
    board = models.CharField(max_length=40)
    kind = models.CharField(max_length=5)
    length_mm = models.FloatField()
    width_mm = models.FloatField()
    thickness_mm = models.FloatField()
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["board", "-length_mm", "pk"]
        constraints = [
            models.UniqueConstraint(fields=["wall", "place"], name="one_offcut_per_place")
        ]

    def __str__(self) -> str:
        return self.name

    def on_hand(self) -> OnHand:
        """Return it as what another wall has at hand."""
        kind: Literal["board", "sheet"] = "sheet" if self.kind == "sheet" else "board"
        return OnHand(
            name=self.name,
            board=self.board,
            kind=kind,
            length_mm=self.length_mm,
            width_mm=self.width_mm,
            thickness_mm=self.thickness_mm,
            rack=self.pk,
        )


def alone(plan: Plan) -> Plan:
    """Return a plan without what only this house knows: numbers of its rack."""
    if all(each.rack is None for each in plan.shop.on_hand):
        return plan
    return replace(
        plan,
        shop=replace(
            plan.shop, on_hand=tuple(replace(each, rack=None) for each in plan.shop.on_hand)
        ),
    )


def sync(wall: int, plan: Plan) -> None:
    """Make the rack what a wall's plan says: what it keeps lies there, what it uses is taken."""
    used = {each.rack for each in plan.shop.on_hand if each.rack is not None}
    own = models.Q(wall=wall) | models.Q(taken=wall)
    if not plan.shop.kept and not used and not Offcut.objects.filter(own).exists():
        return  # as it mostly is
    if plan.shop.kept or Offcut.objects.filter(wall=wall).exists():
        for place, each in enumerate(plan.shop.kept):
            sizes = {
                "length_mm": each.length_mm,
                "width_mm": each.width_mm,
                "thickness_mm": each.thickness_mm,
            }
            new, made = Offcut.objects.get_or_create(
                wall_id=wall,
                place=place,
                defaults={"name": each.name, "board": each.board, "kind": each.kind, **sizes},
            )
            if not made and new.taken_id is None:
                Offcut.objects.filter(pk=new.pk).update(
                    name=each.name, board=each.board, kind=each.kind, **sizes
                )
        Offcut.objects.filter(wall=wall, place__gte=len(plan.shop.kept), taken=None).delete()
    if used:
        there = Offcut.objects.filter(pk__in=used, taken=None)
        if settings.PEOPLE == "many":  # nobody takes what is another's, whatever a plan file says
            there = there.filter(
                wall__job__owner=models.Subquery(Job.objects.filter(walls=wall).values("owner")[:1])
            )
        there.update(taken=wall)
    Offcut.objects.filter(taken=wall).exclude(pk__in=used).update(taken=None)
