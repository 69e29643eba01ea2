"""Record.

How each piece really hangs, what proved it, how it held; its label, the owner's sheet, when to look
again.
"""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse
from django.urls import reverse
from django.utils.timezone import localdate, now
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.address import public
from bench.downloads import sent
from bench.long_work import long_running
from bench.printing.calendar import care_calendar
from bench.printing.owner_sheet import owner_sheet
from bench.printing.piece_label import piece_labels
from bench.stages.record.forms import FORMS
from bench.workbench.changes import change
from bench.workbench.context import WorkbenchContext, workbench
from trade.job.care import cares
from trade.plan.as_built import AsBuilt
from trade.plan.model import Plan
from trade.plan.place import each_piece


@require_POST
def save(request: HttpRequest, wall: int, key: str, what: str) -> HttpResponse:
    """Keep what was built, proved or seen; it is added to what was said before."""
    bench = workbench(request, wall, "record", key)
    bench.tab = "" if what == "built" else what
    make, where, label = FORMS[bench.tab]
    form = make(bench, request.POST)

    def changed(plan: Plan) -> Plan:
        kept: AsBuilt = replace(
            plan.as_built, **{where: (*getattr(plan.as_built, where), form.cleaned_data["made"])}
        )
        return replace(plan, as_built=kept)

    return change(bench, form, changed, f"{label}: {bench.chosen.name}")


def _paper(
    write: Callable[[WorkbenchContext, str], bytes], name: str
) -> Callable[[HttpRequest, int], HttpResponse]:
    @long_running
    @require_safe
    def view(request: HttpRequest, wall: int) -> HttpResponse:
        bench = workbench(request, wall, "record", request.GET.get("piece"))
        return sent(write(bench, public(request, "/")), bench.plan.name, name)

    return view


def _address(bench: WorkbenchContext, root: str, key: str) -> str:
    return f"{root.rstrip('/')}{reverse('stage', args=[bench.wall.address, 'record'])}?piece={key}"


labels = _paper(
    lambda bench, root: piece_labels(
        bench.plan, bench.key, bench.units, lambda key: _address(bench, root, key)
    ),
    "piece-labels.pdf",
)
owner = _paper(
    lambda bench, _: owner_sheet(bench.plan, bench.units, bench.wall.job.name, localdate()),
    "owner.pdf",
)


@require_safe
def care_ics(request: HttpRequest, wall: int) -> HttpResponse:
    """When to look again, for any calendar."""
    bench = workbench(request, wall, "record")
    found = [care for piece, on in each_piece(bench.plan) for care in cares(on, piece.key)]
    return sent(
        care_calendar(found, bench.plan.name, bench.wall.pk, bench.units, now()),
        bench.plan.name,
        "care.ics",
        True,
    )
