"""Days: the finish, the hours that there are, and when it can hang and be loaded."""

from datetime import date
from typing import Any

from django import forms
from django.forms import BoundField
from django.http import HttpRequest, HttpResponse, QueryDict
from django.utils.timezone import now
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.downloads import sent
from bench.forms import BenchForm
from bench.long_work import long_running
from bench.printing.calendar import calendar
from bench.stages.cut.cutting import cutting_of
from bench.words import lazy, say, worded
from bench.workbench.changes import change
from bench.workbench.context import WorkbenchContext, workbench
from trade import data
from trade.errors import PlanError
from trade.plan.model import Plan
from trade.plan.shop import DAYS, Days, Finish, Hours

_OLD = [
    ("bare", lazy("nothing: bare wood")),
    ("oil", lazy("oil or oil varnish")),
    ("water", lazy("water-borne paint or varnish")),
    ("shellac", lazy("shellac")),
    ("wax", lazy("wax")),
]
_NO_TIME = lazy("Write it as 18:00.")


class DaysForm(BenchForm):
    """The finish, and the week."""

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """As the plan has them."""
        super().__init__(posted)
        finish, days = bench.plan.shop.finish, bench.plan.shop.days
        rows = data.coatings().items()
        first = [
            ("", _("none")),
            *((key, say(row.name)) for key, row in rows if row.role == "first"),
        ]
        top = [("", _("none")), *((key, say(row.name)) for key, row in rows if row.role != "first")]
        self.fields["old"] = forms.ChoiceField(
            choices=_OLD, label=_("On the wood now"), initial=finish.old
        )
        self.fields["first"] = forms.ChoiceField(
            choices=first, required=False, label=_("First"), initial=finish.first or ""
        )
        self.fields["top"] = forms.ChoiceField(
            choices=top, required=False, label=_("Then"), initial=finish.top or ""
        )
        self.fields["coats"] = forms.IntegerField(
            required=False,
            min_value=1,
            max_value=12,
            label=_("Coats of it"),
            initial=finish.coats,
            widget=forms.NumberInput(attrs={"placeholder": _("as usual")}),
        )
        self.fields["temp"] = forms.FloatField(
            min_value=-30, max_value=50, label=_("How warm it is, °C"), initial=finish.temp_c
        )
        self.fields["start"] = forms.DateField(
            required=False,
            label=_("Begin on"),
            initial=days.start,
            widget=forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d"),
        )
        for n, name in enumerate(DAYS):
            hours = days.week[n]
            for end, value in (
                ("begins", hours.begins if hours else None),
                ("ends", hours.ends if hours else None),
            ):
                self.fields[f"{end}-{n}"] = forms.TimeField(
                    required=False,
                    label=worded("{day} from" if end == "begins" else "{day} to", day=name),
                    initial=_clock(value),
                    error_messages={"invalid": _NO_TIME},
                    widget=forms.TextInput(attrs={"placeholder": "–", "size": 5}),
                )
            self.fields[f"helper-{n}"] = forms.BooleanField(
                required=False,
                label=worded("A helper can come on {name}", name=name),
                initial=n in days.helper,
            )

    def week(self) -> list[tuple[str, BoundField, BoundField, BoundField]]:
        """Each day with its fields."""
        return [
            (say(name), self[f"begins-{n}"], self[f"ends-{n}"], self[f"helper-{n}"])
            for n, name in enumerate(DAYS)
        ]

    def finishing(self) -> list[BoundField]:
        """Return the fields of the finish."""
        return [self[name] for name in ("old", "first", "top", "coats", "temp")]

    def clean(self) -> dict[str, Any]:
        """Build both; refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        week: list[Hours | None] = []
        for n, name in enumerate(DAYS):
            begins, ends = got[f"begins-{n}"], got[f"ends-{n}"]
            try:
                week.append(_hours(begins, ends))
            except PlanError as error:
                self.add_error(
                    f"ends-{n}" if begins is not None else f"begins-{n}", f"{name}: {error}"
                )
        try:
            got["finish"] = Finish(
                first=got["first"] or None,
                top=got["top"] or None,
                coats=got["coats"],
                old=got["old"],
                temp_c=got["temp"],
            )
            if len(week) == len(DAYS):
                helper = tuple(n for n in range(len(DAYS)) if got[f"helper-{n}"])
                start: date | None = got["start"]
                got["days"] = Days(start=start, week=tuple(week), helper=helper)  # type: ignore[arg-type]
        except PlanError as error:
            where = {"week": "begins-0", "temp_c": "temp"}.get(error.where, error.where)
            self.add_error(where if where in self.fields else None, str(error))
        return got

    def changed(self, plan: Plan) -> Plan:
        """Return the plan with them."""
        return replace(
            plan,
            shop=replace(
                plan.shop, finish=self.cleaned_data["finish"], days=self.cleaned_data["days"]
            ),
        )


def _clock(hours: float | None) -> str:
    return "" if hours is None else f"{int(hours):02d}:{round(hours % 1 * 60):02d}"


def _hours(begins: Any, ends: Any) -> Hours | None:
    """Return a day's hours; None for a day without work; midnight at its end is 24.

    Raises:
        PlanError: one of them is missing, or it ends before it begins.
    """
    if begins is None and ends is None:
        return None
    if begins is None or ends is None:
        raise PlanError(_("say from when to when, or leave both empty."))
    last = ends.hour + ends.minute / 60
    return Hours(begins=begins.hour + begins.minute / 60, ends=last or 24.0)


@require_POST
def save(request: HttpRequest, wall: int) -> HttpResponse:
    """Another finish, another week."""
    bench = workbench(request, wall, "cut", request.POST.get("piece"))
    form = DaysForm(bench, request.POST)
    return change(bench, form, form.changed, _("Finish and days"))


@long_running
@require_safe
def ics(request: HttpRequest, wall: int) -> HttpResponse:
    """Send the days, for any calendar."""
    bench = workbench(request, wall, "cut")
    content = calendar(cutting_of(bench).schedule, bench.plan.name, bench.wall.pk, now())
    return sent(content, bench.plan.name, "days.ics", True)
