"""Days: the finish, the hours that there are, and when it can hang and be loaded."""

from datetime import date
from typing import Any

from django import forms
from django.forms import BoundField
from django.http import Http404, HttpRequest, HttpResponse, QueryDict
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
from bench.workbench.changes import apply, change
from bench.workbench.context import WorkbenchContext, workbench
from trade import data
from trade.errors import PlanError
from trade.plan.model import Plan
from trade.plan.place import each_piece
from trade.plan.shop import DAYS, Days, Finish, FinishOf, Hours

_OLD = [
    ("bare", lazy("nothing: bare wood")),
    ("oil", lazy("oil or oil varnish")),
    ("water", lazy("water-borne paint or varnish")),
    ("shellac", lazy("shellac")),
    ("wax", lazy("wax")),
]
_WHEN = [("before", lazy("before hanging")), ("hung", lazy("at the wall, after hanging"))]
_FIELDS = {"week": "begins-0", "temp_c": "temp", "humid_pct": "humid"}
_NO_TIME = lazy("Write it as 18:00.")


def _coats_fields(form: forms.Form, finish: Finish) -> None:
    """Add the fields of what goes on: first, then, how often, and where."""
    rows = data.coatings().items()
    first = [("", _("none")), *((k, say(row.name)) for k, row in rows if row.role == "first")]
    top = [("", _("none")), *((k, say(row.name)) for k, row in rows if row.role != "first")]
    form.fields["first"] = forms.ChoiceField(
        choices=first, required=False, label=_("First"), initial=finish.first or ""
    )
    form.fields["top"] = forms.ChoiceField(
        choices=top, required=False, label=_("Then"), initial=finish.top or ""
    )
    form.fields["coats"] = forms.IntegerField(
        required=False,
        min_value=1,
        max_value=12,
        label=_("Coats of it"),
        initial=finish.coats,
        widget=forms.NumberInput(attrs={"placeholder": _("as usual")}),
    )
    form.fields["hung"] = forms.ChoiceField(
        choices=_WHEN, label=_("Applied"), initial="hung" if finish.hung else "before"
    )


def _said(finish: Finish) -> str:
    """Return a finish in words."""
    rows = data.coatings()
    keys = [key for key in (finish.first, finish.top) if key is not None]
    return ", ".join(say(rows[key].name) for key in keys) or _("none")


class FinishOfForm(BenchForm):
    """Another finish for one piece, or for one of its parts."""

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """Offer every piece that is cut, and its parts."""
        super().__init__(posted)
        self.prefix = "own"  # its fields stand beside those of all
        self._finish = bench.plan.shop.finish
        found: dict[str, str] = {}
        for part in cutting_of(bench).plan.parts:
            if part.key:
                found.setdefault(f"{part.key}|", worded("{piece}: all", piece=part.piece))
                said = worded("{piece}: {part}", piece=part.piece, part=part.name)
                found[f"{part.key}|{part.name}"] = said
        self.fields["of"] = forms.ChoiceField(choices=sorted(found.items()), label=_("Which parts"))
        _coats_fields(self, Finish())

    def clean(self) -> dict[str, Any]:
        """Build it; a refusal lands beside its field."""
        got = super().clean() or {}
        if self.errors:
            return got
        piece, _bar, part = got["of"].partition("|")
        try:
            own = replace(
                self._finish,
                first=got["first"] or None,
                top=got["top"] or None,
                coats=got["coats"],
                hung=got["hung"] == "hung",
            )
            got["own"] = FinishOf(piece=piece, part=part or None, finish=own)
        except PlanError as error:
            self.add_error(error.where if error.where in self.fields else None, str(error))
        return got

    def changed(self, plan: Plan) -> Plan:
        """Return the plan with this finish, in place of an earlier one for the same parts."""
        own: FinishOf = self.cleaned_data["own"]
        kept = [e for e in plan.shop.finishes if (e.piece, e.part) != (own.piece, own.part)]
        return replace(plan, shop=replace(plan.shop, finishes=(*kept, own)))


def own_finishes(bench: WorkbenchContext) -> list[tuple[str, str]]:
    """Return which parts have a finish of their own, and that finish, in words."""
    names = {piece.key: piece.name for piece, _ in each_piece(bench.plan)}
    return [
        (
            worded(
                "{piece}: {part}",
                piece=names.get(each.piece, each.piece),
                part=each.part or _("all"),
            ),
            _said(each.finish),
        )
        for each in bench.plan.shop.finishes
    ]


class DaysForm(BenchForm):
    """The finish, and the week."""

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """As the plan has them."""
        super().__init__(posted)
        finish, days = bench.plan.shop.finish, bench.plan.shop.days
        self.fields["old"] = forms.ChoiceField(
            choices=_OLD, label=_("On the wood now"), initial=finish.old
        )
        _coats_fields(self, finish)
        self.fields["temp"] = forms.FloatField(
            min_value=-30, max_value=50, label=_("How warm it is, °C"), initial=finish.temp_c
        )
        self.fields["humid"] = forms.FloatField(
            min_value=0, max_value=100, label=_("Humidity, %"), initial=finish.humid_pct
        )
        self.fields["by"] = forms.DateField(
            required=False,
            label=_("Must hang by"),
            initial=days.by,
            widget=forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d"),
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
        return [self[name] for name in ("old", "first", "top", "coats", "hung", "temp", "humid")]

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
                humid_pct=got["humid"],
                hung=got["hung"] == "hung",
            )
            if len(week) == len(DAYS):
                helper = tuple(n for n in range(len(DAYS)) if got[f"helper-{n}"])
                start: date | None = got["start"]
                got["days"] = Days(
                    start=start,
                    week=tuple(week),  # type: ignore[arg-type]
                    helper=helper,
                    by=got["by"],
                )
        except PlanError as error:
            where = _FIELDS.get(error.where, error.where)
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
@require_POST
def add_finish(request: HttpRequest, wall: int) -> HttpResponse:
    """Give a piece or a part a finish of its own."""
    bench = workbench(request, wall, "cut", request.POST.get("piece"))
    form = FinishOfForm(bench, request.POST)
    return change(bench, form, form.changed, _("A different finish"))


@long_running
@require_POST
def drop_finish(request: HttpRequest, wall: int, index: int) -> HttpResponse:
    """Give parts the usual finish again."""
    bench = workbench(request, wall, "cut", request.POST.get("piece"))
    every = bench.plan.shop.finishes
    if index >= len(every):
        raise Http404(_("No part has that finish of its own."))
    kept = every[:index] + every[index + 1 :]
    return apply(
        bench,
        lambda plan: replace(plan, shop=replace(plan.shop, finishes=kept)),
        _("The same finish"),
    )


@long_running
@require_safe
def ics(request: HttpRequest, wall: int) -> HttpResponse:
    """Send the days, for any calendar."""
    bench = workbench(request, wall, "cut")
    uid = f"wall-{bench.wall.pk}"
    content = calendar(cutting_of(bench).schedule, bench.plan.name, uid, now())
    return sent(content, bench.plan.name, "days.ics", True)
