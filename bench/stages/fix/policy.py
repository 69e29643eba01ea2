"""Preferences for this job: the policy of a wall, and what other answers would change."""

from typing import Any

from django import forms
from django.forms import BoundField
from django.http import Http404, HttpRequest, HttpResponse, QueryDict
from django.shortcuts import render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.forms import BenchForm, MeasureField
from bench.long_work import long_running
from bench.models import Wall
from bench.words import lazy, say
from bench.workbench.changes import change
from bench.workbench.context import WorkbenchContext, workbench
from trade import data
from trade.choose.policy_effects import answer_of
from trade.choose.policy_effects import effects as policy_effects
from trade.errors import PlanError
from trade.language import counted
from trade.mounts.without import without
from trade.plan.model import Plan


class PolicyForm(BenchForm):
    """The job's policy: one question after the other, and what is at hand."""

    hidden = forms.BooleanField(label=lazy("Fixings must be hidden"), required=False)
    comes_off = forms.BooleanField(
        label=lazy("It must be removable, leaving only screw holes"), required=False
    )
    most_holes = forms.IntegerField(
        label=lazy("Holes, at most"), required=False, min_value=0, max_value=1000
    )
    budget = forms.IntegerField(
        label=lazy("Money, at most"), required=False, min_value=0, max_value=100_000
    )

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """Fields from the plan's policy."""
        super().__init__(posted)
        self.bench, policy = bench, bench.plan.policy
        for key, row in data.policies().items():
            now = answer_of(bench.plan, key)
            choices = [(answer, say(row.label(answer))) for answer in row.answers]
            self.fields[key] = forms.ChoiceField(
                choices=choices,
                label=say(row.question),
                initial=now,
                help_text=say(row.answers[now]),
            )
        for key, tool in data.tools().items():
            if not tool.usual:
                self.fields[f"lacks-{key}"] = forms.BooleanField(
                    label=say(tool.name),
                    required=False,
                    initial=key in policy.lacks,
                    help_text=say(without(tool, bench.units)) if key in policy.lacks else "",
                )
        self.fields["shift"] = MeasureField(
            bench.units, policy.shift_mm, label=_("May be moved by")
        )
        self.fields["grow"] = MeasureField(
            bench.units, policy.grow_mm, label=_("May be longer or shorter by")
        )
        for name in ("hidden", "comes_off", "most_holes", "budget"):
            self.fields[name].initial = getattr(policy, name)

    @property
    def questions(self) -> list[BoundField]:
        """What people disagree on."""
        return [self[key] for key in data.policies()]

    @property
    def rest(self) -> list[BoundField]:
        """What is at hand, and how far things may give way."""
        return [
            self[name] for name in ("hidden", "comes_off", "most_holes", "budget", "shift", "grow")
        ]

    @property
    def tools(self) -> list[BoundField]:
        """Tools that may not be at hand."""
        return [self[name] for name in self.fields if name.startswith("lacks-")]

    def clean(self) -> dict[str, Any]:
        """Build the policy; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        said = {
            key: got[key]
            for key in (*data.policies(), "hidden", "comes_off", "most_holes", "budget")
            if key != "school"
        }
        lacks = tuple(
            name.removeprefix("lacks-")
            for name in self.fields
            if name.startswith("lacks-") and got[name]
        )
        try:
            # the saw's kerf and trim are asked where it cuts, and stay
            got["policy"] = replace(
                self.bench.plan.policy,
                **said,
                lacks=lacks,
                shift_mm=got["shift"],
                grow_mm=got["grow"],
            )
        except PlanError as error:
            self.refuse(error)
        return got


@require_POST
def save_policy(request: HttpRequest, wall: int) -> HttpResponse:
    """Keep the policy: of this wall, or of every wall of its job."""
    bench = workbench(request, wall, "fix", request.POST.get("piece"))
    bench.tab = "policy"
    form = PolicyForm(bench, request.POST)

    def changed(plan: Plan) -> Plan:
        wall_now = replace(plan.wall, design_code=form.cleaned_data["school"])
        return replace(plan, wall=wall_now, policy=form.cleaned_data["policy"])

    return change(bench, form, changed, _("Preferences for this job"))


@long_running
@require_safe
def effects(request: HttpRequest, wall: int, question: str) -> HttpResponse:
    """Show what the other schools in a question would change here, worked out."""
    bench = workbench(request, wall, "fix", request.GET.get("piece"))
    if question not in data.policies():
        raise Http404(_("That preference does not exist."))
    key = bench.piece.key if bench.piece else None
    answers = data.policies()[question].answers
    found = [
        (answers[each.answer], each.changes) for each in policy_effects(bench.plan, question, key)
    ]
    return render(request, "fix/_effects.html", {"effects": found, "units": bench.units})


@require_POST
def share_policy(request: HttpRequest, wall: int) -> HttpResponse:
    """Set the same policy for every other wall of the job; each of them can undo it."""
    bench = workbench(request, wall, "fix", request.POST.get("piece"))
    bench.tab = "policy"
    changed = 0
    for other in (
        Wall.objects.with_plans().filter(job=bench.wall.job, deleted=None).exclude(pk=bench.wall.pk)
    ):
        plan = other.plan()
        if plan.policy != bench.plan.policy:
            other.record(
                replace(plan, policy=bench.plan.policy), _("Preferences for this job"), other.seen
            )
            changed += 1
    bench.notice = say(
        counted(
            changed,
            "{n} other wall of this job now follows it too.",
            "{n} other walls of this job now follow it too.",
        )
    )
    return bench.fragment()
