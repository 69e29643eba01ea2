"""Buy.

What to take along to the shop, at the person's own prices; and what it saves against buying it
ready.
"""

from contextlib import suppress
from decimal import Decimal
from typing import Any, NamedTuple

from django import forms
from django.forms import BoundField
from django.http import HttpRequest, HttpResponse, QueryDict
from django.utils.formats import date_format
from django.utils.timezone import localdate
from django.utils.translation import gettext as _
from django.utils.translation import ngettext
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.access import walls
from bench.downloads import sent
from bench.forms import BenchForm
from bench.long_work import long_running
from bench.models import StaleError, Wall
from bench.printing import tables
from bench.printing.shop_sheet import shop_sheet
from bench.stages.cut.cutting import cutting_of
from bench.words import lazy, worded
from bench.workbench.changes import after, apply, change, refused
from bench.workbench.context import WorkbenchContext, workbench
from trade.cutting.shopping import ShoppingItem
from trade.plan.model import Plan
from trade.plan.shop import Have, Price

_NO_PRICE = {
    "invalid": lazy("A price is a number, such as 6.50."),
    "min_value": lazy("A price cannot be negative."),
}
_MOST = 100_000
_WALLS = 12  # so many other walls are looked at


class MoneyField(forms.DecimalField):
    """A price, with a point or a comma."""

    def __init__(self, value: float | None, **kwargs: Any) -> None:
        """Show `value` to the cent."""
        kwargs |= {
            "required": False,
            "min_value": Decimal(0),
            "max_value": Decimal(_MOST),
            "error_messages": _NO_PRICE,
        }
        super().__init__(
            initial="" if value is None else f"{value:.2f}", widget=forms.TextInput(), **kwargs
        )
        self.widget.attrs |= {"inputmode": "decimal", "autocomplete": "off"}

    def to_python(self, value: Any) -> Any:
        """Read it; a comma is a point."""
        return super().to_python(value.replace(",", ".") if isinstance(value, str) else value)


def _have_field(line: ShoppingItem) -> forms.Field:
    """Return the field for what is there: pieces, or litres of what is sold in tins."""
    if line.unit == "l":
        return forms.FloatField(
            label=worded("Litres of {what} you have", what=line.what),
            initial=line.have or None,
            min_value=0,
            max_value=10_000,
            required=False,
            widget=forms.NumberInput(attrs={"step": "any", "placeholder": _("litres")}),
        )
    return forms.IntegerField(
        label=worded("How many of {what} you have", what=line.what),
        initial=int(line.have) or None,
        min_value=0,
        max_value=10_000,
        required=False,
    )


class PriceForm(BenchForm):
    """What a pack of each line costs; empty is what we guess."""

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """Make a field for each line, and what it all would cost bought ready."""
        super().__init__(posted)
        self.bench, self.lines = bench, cutting_of(bench).shopping.lines
        for n, line in enumerate(self.lines):
            self.fields[f"price-{n}"] = MoneyField(
                line.pack_cost if line.each else None,
                label=worded("Price of {what}", what=line.what),
            )
            if line.countable:
                self.fields[f"have-{n}"] = _have_field(line)
        self.fields["ready"] = MoneyField(
            bench.plan.shop.ready, label=_("Price of all of it, bought ready-made")
        )

    def rows(self) -> list[tuple[ShoppingItem, BoundField, BoundField | None]]:
        """Each line with its fields: what it costs, and how many are there where they count."""
        return [
            (line, self[f"price-{n}"], self[f"have-{n}"] if line.countable else None)
            for n, line in enumerate(self.lines)
        ]

    def changed(self, plan: Plan) -> Plan:
        """Return the plan with what was typed; a price that was emptied is ours again."""
        got, prices = self.cleaned_data, {price.of: price.each for price in plan.shop.prices}
        have = {each.of: each.many for each in plan.shop.have}
        for n, line in enumerate(self.lines):
            if line.countable:
                have[line.key] = got[f"have-{n}"] or 0
            typed, shown = got[f"price-{n}"], self.fields[f"price-{n}"].initial
            if typed is None:
                prices.pop(line.key, None)
            elif f"{typed:.2f}" != shown:
                prices[line.key] = float(typed) / line.pack
        ready = None if got["ready"] is None else float(got["ready"])
        kept = tuple(Price(of=key, each=each) for key, each in prices.items())
        there = tuple(Have(of=key, many=many) for key, many in have.items() if many)
        return replace(plan, shop=replace(plan.shop, prices=kept, have=there, ready=ready))


class Drawer(NamedTuple):
    """What is in the drawer at another wall of the person's."""

    wall: Wall
    have: tuple[Have, ...]
    plan: Plan


def drawers(bench: WorkbenchContext) -> list[Drawer]:
    """Return the drawers at the newest few walls that have something this wall's does not."""
    mine = {each.of for each in bench.plan.shop.have}
    return [each for each in _elsewhere(bench) if any(one.of not in mine for one in each.have)]


def untold(bench: WorkbenchContext) -> list[Drawer]:
    """Return the drawers at other walls that say otherwise, or nothing, of what is in this one."""
    mine = set(bench.plan.shop.have)
    return [each for each in _elsewhere(bench) if not mine <= set(each.have)]


def _elsewhere(bench: WorkbenchContext) -> list[Drawer]:
    others = (
        walls(bench.request)
        .exclude(pk=bench.wall.pk)
        .select_related("job")
        .with_plans()
        .order_by("-pk")[:_WALLS]
    )
    plans = [(wall, wall.plan()) for wall in others]
    return [Drawer(wall, plan.shop.have, plan) for wall, plan in plans]


@require_POST
def take_over(request: HttpRequest, wall: int) -> HttpResponse:
    """Take over what a drawer says at another wall; what is said here stays."""
    bench = workbench(request, wall, "cut", request.POST.get("piece"))
    asked = request.POST.get("from", "")
    drawer = next((each for each in drawers(bench) if str(each.wall.pk) == asked), None)
    if drawer is None:
        return refused(bench, _("That drawer has nothing more for this wall."))

    def both(plan: Plan) -> Plan:
        mine = {each.of: each for each in plan.shop.have}
        have = {each.of: each for each in drawer.have} | mine
        return replace(plan, shop=replace(plan.shop, have=tuple(have.values())))

    return apply(bench, both, worded("The drawer of {wall}", wall=drawer.wall.name))


@require_POST
def tell(request: HttpRequest, wall: int) -> HttpResponse:
    """Say at the person's other walls what is in the drawer; what only they know stays."""
    bench = workbench(request, wall, "cut", request.POST.get("piece"))
    mine, told = {each.of: each for each in bench.plan.shop.have}, 0
    for each in untold(bench):
        have = {one.of: one for one in each.have} | mine
        plan = replace(each.plan, shop=replace(each.plan.shop, have=tuple(have.values())))
        each.wall.actor = request.user
        with suppress(StaleError):  # somebody is at work there: it stays to be told
            label = worded("The drawer of {wall}", wall=bench.wall.name)
            each.wall.record(plan, label, each.wall.seen)
            told += 1
    bench.notice = ngettext(
        "Said at %(count)d other wall.", "Said at %(count)d other walls.", told
    ) % {"count": told}
    return after(bench)


@require_POST
def prices(request: HttpRequest, wall: int) -> HttpResponse:
    """Keep the person's own prices."""
    bench = workbench(request, wall, "cut", request.POST.get("piece"))
    form = PriceForm(bench, request.POST)
    return change(bench, form, form.changed, _("Prices"))


@long_running
@require_safe
def listed(request: HttpRequest, wall: int, kind: str) -> HttpResponse:
    """Send what to buy, as a table for any spreadsheet or as a sheet to print."""
    bench = workbench(request, wall, "cut")
    buying, name = cutting_of(bench).shopping, bench.plan.name
    if kind == "pdf":
        content = shop_sheet(
            name, buying, bench.units, bench.wall.job.name, date_format(localdate(), "j F Y")
        )
    else:
        content = tables.as_csv(buying) if kind == "csv" else tables.as_ods(buying, name)
    return sent(content, name, f"shopping.{kind}", kind != "pdf")
