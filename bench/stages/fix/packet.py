"""An anchor out of a packet: what its packet states, kept with the wall and used like any other."""

from typing import Any

from django import forms
from django.http import HttpRequest, HttpResponse, QueryDict
from django.utils.text import slugify
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST
from msgspec.structs import replace

from bench.forms import BenchForm, MeasureField
from bench.words import lazy, name_in, say
from bench.workbench.changes import change
from bench.workbench.context import WorkbenchContext, workbench
from trade import data
from trade.errors import PlanError
from trade.measure import Units
from trade.plan.model import Packet, Plan, Wall


class PacketForm(BenchForm):
    """What a packet states."""

    packet_name = forms.CharField(max_length=80, label=lazy("What it is called"))
    packet_states = forms.ChoiceField(
        choices=[("ultimate", lazy("at which it fails")), ("allowable", lazy("that it may carry"))],
        label=lazy("The packet gives the load"),
    )
    packet_found = forms.CharField(
        max_length=80, label=lazy("Where you read it"), initial=lazy("its packet")
    )

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """Bases that are in this wall, loads as weights."""
        super().__init__(posted)
        self.bench = bench
        self.fields["packet_base"] = forms.ChoiceField(
            choices=bases(bench.plan.wall, bench.units), label=_("In")
        )
        self.fields["packet_pull"] = MeasureField(bench.units, noun="load", label=_("Pulled out"))
        self.fields["packet_shear"] = MeasureField(
            bench.units, noun="load", label=_("Along the wall")
        )
        self.fields["packet_hole"] = MeasureField(bench.units, 8.0, label=_("Hole to drill"))
        self.fields["packet_depth"] = MeasureField(bench.units, 50.0, label=_("How deep"))

    def clean(self) -> dict[str, Any]:
        """Build the packet; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        try:
            got["packet"] = Packet(
                key=_free_key(self.bench.plan.wall, got["packet_name"]),
                name=got["packet_name"],
                base=got["packet_base"],
                pull_n=got["packet_pull"],
                shear_n=got["packet_shear"],
                states=got["packet_states"],
                found=got["packet_found"],
                hole_mm=got["packet_hole"],
                depth_mm=got["packet_depth"],
            )
        except PlanError as error:
            where = f"packet_{error.where.removesuffix('_n').removesuffix('_mm')}"
            self.add_error(where if where in self.fields else None, str(error))
        return got


def bases(wall: Wall, units: Units) -> list[tuple[str, str]]:
    """Return what an anchor may sit in here.

    The structure, the layers; everything there is while nobody knows.
    """
    if wall.build == "mass" and wall.structure is not None:
        return [(wall.structure, say(data.structures()[wall.structure].name))]
    layers = dict.fromkeys([layer.kind for layer in wall.layers] if wall.layers else data.linings())
    found = [(key, name_in(data.linings()[key].name, units)) for key in layers]
    if wall.build == "steel" and wall.structure is not None:
        found.append((wall.structure, say(data.structures()[wall.structure].name)))
    return found


@require_POST
def add(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Keep a packet with the wall, and hold the piece with it."""
    bench = workbench(request, wall, "fix", key)
    piece, form = bench.chosen, PacketForm(bench, request.POST)

    def changed(plan: Plan) -> Plan:
        packet: Packet = form.cleaned_data["packet"]
        kept = replace(plan, wall=replace(plan.wall, packets=(*plan.wall.packets, packet)))
        return kept.with_piece(replace(piece, anchor=packet.key))

    name = form.cleaned_data["packet"].name if form.is_valid() else _("An anchor")
    return change(bench, form, changed, f"{name} from a packet")


def _free_key(wall: Wall, name: str) -> str:
    stem = slugify(name)[:30] or "packet"
    taken = {packet.key for packet in wall.packets} | set(data.anchors())
    return (
        stem
        if stem not in taken
        else next(key for n in range(2, 99) if (key := f"{stem}-{n}") not in taken)
    )
