"""Load: what a piece must carry, and how it will be used."""

from django.http import HttpRequest, HttpResponse
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST
from msgspec.structs import replace

from bench.devices import devices_for
from bench.stages.load.forms import LoadForm
from bench.words import worded
from bench.workbench.changes import apply, change, refused
from bench.workbench.context import workbench
from trade.plan.model import Plan


@require_POST
def weigh(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Put the first thing that nobody has weighed on the scale that the settings name."""
    bench = workbench(request, wall, "load", key)
    piece, kept = bench.chosen, bench.plan.wall
    devices = devices_for(wall, kept.width_mm, len(piece.things))
    index = next((n for n, thing in enumerate(piece.things) if thing.mass_kg is None), None)
    if devices is None or index is None:
        return refused(bench, _("No scale is connected, or nothing is left to weigh."))
    thing = piece.things[index]
    kg = devices.weigh(thing.name)
    if kg is None:
        return refused(
            bench,
            worded("“{name}” is too heavy for this scale. Weigh it in parts.", name=thing.name),
        )
    things = (*piece.things[:index], replace(thing, mass_kg=kg), *piece.things[index + 1 :])
    return apply(
        bench,
        lambda plan: plan.with_piece(replace(piece, things=things)),
        worded("Weigh {name}", name=thing.name),
    )


@require_POST
def save(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Keep what a piece must carry."""
    bench = workbench(request, wall, "load", key)
    piece = bench.chosen
    form = LoadForm(bench, piece, request.POST)

    def changed(plan: Plan) -> Plan:
        return plan.with_piece(
            replace(piece, use=form.cleaned_data["use"], things=form.cleaned_data["things"])
        )

    return change(bench, form, changed, worded("What {name} carries", name=piece.name))
