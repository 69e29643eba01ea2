"""Room to grow: what more goes on a piece, and other sorts of wall for the same things."""

from django import forms
from django.http import HttpRequest, HttpResponse, QueryDict
from django.shortcuts import render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe

from bench.forms import BenchForm, MeasureField
from bench.long_work import long_running
from bench.words import worded
from bench.workbench.changes import apply, refused
from bench.workbench.context import WorkbenchContext, workbench
from trade.choose.growth import OneMore, Sort, growth, sorts
from trade.errors import PlanError
from trade.measure import ABSURD_KG
from trade.memo import memoized
from trade.mounts import KINDS, mount_of

_TEN = 10
_found_sorts = memoized(limit=8)(sorts)


class EachForm(BenchForm):
    """What one thing more weighs."""

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """Empty: as much as the heaviest that hangs there."""
        super().__init__(posted)
        self.fields["each"] = MeasureField(
            bench.units, noun="weight", required=False, label=_("One thing more weighs")
        )

    def clean_each(self) -> float | None:
        """Refuse what weighs nothing, or what nobody lifts.

        Raises:
            ValidationError: with what is wrong.
        """
        kg: float | None = self.cleaned_data["each"]
        if kg is not None and not 0 < kg <= ABSURD_KG:
            raise forms.ValidationError(_("Give it a weight that somebody could hang up."))
        return kg


@long_running
@require_safe
def more(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Show how many more holders a piece takes and what one more row or panel would be.

    Asked for after the page is there, because it judges many pieces.
    """
    bench = workbench(request, wall, "fix", key)
    form = EachForm(bench, request.GET if "each" in request.GET else None)
    kg = form.cleaned_data["each"] if form.is_bound and form.is_valid() else None
    piece = bench.chosen
    try:
        found = growth(bench.plan, piece.key, kg)
    except PlanError as error:
        return refused(bench, str(error))
    context = {
        "bench": bench,
        "units": bench.units,
        "form": form,
        "growth": found,
        "compared": mount_of(piece).room(piece) > 0,
    }
    return render(request, "fix/_growth.html", context)


@long_running
@require_safe
def compare(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Show other sorts of wall for the same things in the same place, in figures."""
    bench = workbench(request, wall, "fix", key)
    own = mount_of(bench.chosen).kind
    try:
        found = [
            (KINDS[each.kind].name, each, each.kind == own, each.with_more(_TEN))
            for each in _found_sorts(bench.plan, bench.chosen.key)
        ]
    except PlanError as error:
        return refused(bench, str(error))
    context = {"bench": bench, "units": bench.units, "sorts": found, "ten": _TEN}
    return render(request, "fix/_sorts.html", context)


@require_POST
def grow(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Put up a row, a panel or a shelf more, or another sort of wall, as it was offered."""
    bench = workbench(request, wall, "fix", key)
    chosen = request.POST.get("step", "")
    found: OneMore | Sort | None
    try:
        if chosen in KINDS:
            offered = _found_sorts(bench.plan, bench.chosen.key)
            found = next((each for each in offered if each.kind == chosen), None)
        else:
            steps = growth(bench.plan, bench.chosen.key).steps
            found = steps[int(chosen)] if chosen in map(str, range(len(steps))) else None
    except PlanError as error:
        return refused(bench, str(error))
    if found is None:
        return refused(bench, _("That is no longer possible: the wall has changed since."))
    piece = found.piece
    said = worded("Change {name}", name=bench.chosen.name)
    return apply(bench, lambda plan: plan.with_piece(piece), said)
