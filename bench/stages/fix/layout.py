"""Lay out: the best place for a piece, rows of it, what hangs along it, its battens."""

from django import forms
from django.http import HttpRequest, HttpResponse, QueryDict
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from bench.forms import BenchForm, MeasureField
from bench.long_work import long_running
from bench.words import lazy, worded
from bench.workbench.changes import apply, change, refused
from bench.workbench.context import WorkbenchContext, workbench
from trade.choose.fitted import fitted
from trade.choose.hooks import fewest_rows, spread_along
from trade.choose.stack import stack
from trade.errors import MeasureError, PlanError
from trade.measure import read_length
from trade.plan.model import AnyPiece

MANNERS = (
    ("fitted", lazy("as high as the things on them need")),
    ("equal", lazy("openings all alike")),
    ("graded", lazy("openings lower and lower upwards")),
)


class StackForm(BenchForm):
    """How many rows, how they are spaced, how tall the things on them are."""

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """Three rows as they need."""
        super().__init__(posted, prefix="rows")
        self.bench = bench
        self.fields["rows"] = forms.IntegerField(
            label=_("Rows in all"), initial=3, min_value=2, max_value=12
        )
        self.fields["manner"] = forms.ChoiceField(choices=MANNERS, label=_("Spaced"))
        self.fields["tall"] = forms.CharField(
            label=_("Tallest thing on each row, from the bottom up"),
            required=False,
            max_length=200,
            help_text=_("Separate with commas; the last one counts for the rest."),
        )
        self.fields["high"] = MeasureField(
            bench.units, label=_("Top of the highest"), required=False
        )
        self.fields["high"].widget.attrs["placeholder"] = _("as high as people reach")

    def clean_tall(self) -> tuple[float, ...]:
        """Read every height.

        Raises:
            ValidationError: one is none.
        """
        parts = [
            part.strip()
            for part in self.cleaned_data["tall"].replace(";", ",").split(",")
            if part.strip()
        ]
        try:
            return tuple(read_length(part, self.bench.units) for part in parts)
        except MeasureError as error:
            raise forms.ValidationError(str(error)) from None


@long_running
@require_POST
def rows(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Put up rows like a piece, above it."""
    bench = workbench(request, wall, "fix", key)
    form = StackForm(bench, request.POST)
    if not form.is_valid():
        bench.keep(form)
        return bench.fragment(422)
    got = form.cleaned_data
    return change(
        bench,
        form,
        lambda plan: stack(plan, key, got["manner"], got["rows"], got["tall"], got["high"]),
        worded("{got} rows of {name}", got=got["rows"], name=bench.chosen.name),
    )


@long_running
@require_POST
def lay(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Fit a piece to the studs near it, give its things hooks, or use the fewest battens."""
    bench = workbench(request, wall, "fix", key)
    piece, how = bench.chosen, request.POST.get("how", "")
    try:
        laid, label = _laid(bench, piece, how, request.POST.get("hooks", ""))
    except PlanError as error:
        return refused(bench, str(error))
    return apply(bench, lambda plan: plan.with_piece(laid), label)


def _laid(bench: WorkbenchContext, piece: AnyPiece, how: str, hooks: str) -> tuple[AnyPiece, str]:
    if how == "hooks":
        if hooks and not (hooks.isdecimal() and len(hooks) < 4):
            raise PlanError(worded("“{hooks}” is not a number of hooks.", hooks=hooks), "hooks")
        return spread_along(piece, bench.plan, int(hooks) if hooks else None), worded(
            "Hooks of {name}", name=piece.name
        )
    if how == "battens":
        fewest = fewest_rows(bench.plan, piece.key)
        if fewest is None:
            raise PlanError(_("It does not hold with any number of battens."), "rows")
        return fewest, worded("Battens of {name}", name=piece.name)
    return fitted(bench.plan, piece.key), worded("Fit {name} to the studs", name=piece.name)
