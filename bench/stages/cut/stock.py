"""The yard behind the saw.

What is at hand, what lies on the rack, what is left over, what else is cut.
"""

from collections.abc import Callable
from typing import Any

from django import forms
from django.core.files.uploadedfile import UploadedFile
from django.http import Http404, HttpRequest, HttpResponse, QueryDict
from django.shortcuts import get_object_or_404
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST
from msgspec.structs import replace

from bench.access import walls
from bench.forms import BenchForm, MeasureField
from bench.models import Offcut
from bench.stages.cut.cutting import cutting_of
from bench.words import lazy, say, worded
from bench.workbench.changes import apply, change, refused
from bench.workbench.context import WorkbenchContext, workbench
from trade import data
from trade.cutting import part_import
from trade.errors import PlanError
from trade.language import counted
from trade.parse import spreadsheet
from trade.plan.model import Plan
from trade.plan.shop import Defect, OnHand, OwnPart
from trade.workshop.unknown_wood import weighed

_KINDS = [("board", lazy("board, cut to length")), ("sheet", lazy("sheet, cut both ways"))]
_NOBODY_KNOWS = "unknown"  # which row it is, its weight says


def _boards() -> list[tuple[str, str]]:
    return [(key, say(row.name)) for key, row in data.boards().items()]


class HandForm(BenchForm):
    """A board or a sheet that is there already."""

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """Of the wood that the wall uses most, as thick as that."""
        super().__init__(posted)
        self.bench, units = bench, bench.units
        board, thick_mm = (cutting_of(bench).thicknesses or [("plywood", 18.0)])[0]
        self.fields["kind"] = forms.ChoiceField(choices=_KINDS, label=_("What it is"))
        known = [each for each in _boards() if data.boards()[each[0]].from_kg_m3 is None]
        self.fields["board"] = forms.ChoiceField(
            choices=[*known, (_NOBODY_KNOWS, _("unknown wood"))],
            label=_("Of"),
            initial=board,
        )
        self.fields["length"] = MeasureField(units, label=_("Long, with the grain"))
        self.fields["width"] = MeasureField(units, label=_("Wide"))
        self.fields["thickness"] = MeasureField(units, thick_mm, label=_("Thick"))
        self.fields["weighs"] = MeasureField(
            units,
            None,
            "weight",
            label=_("Weight of one"),
            required=False,
            help_text=_("Only for unknown wood: its density sets its strength."),
        )
        self.fields["many"] = forms.IntegerField(
            min_value=1, max_value=500, initial=1, label=_("How many")
        )
        self.fields["bad_from"] = MeasureField(units, required=False, label=_("Bad from, along it"))
        self.fields["bad_to"] = MeasureField(units, required=False, label=_("Bad to"))

    def clean(self) -> dict[str, Any]:
        """Build it; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        try:
            got["made"] = self._made(got)
        except PlanError as error:
            names = {
                "from_mm": "bad_from",
                "to_mm": "bad_to",
                "defects": "bad_to",
                "many": "many",
                "board": "board",
            }
            where = names.get(error.where, error.where.removesuffix("_mm"))
            self.add_error(where if where in self.fields else None, str(error))
        return got

    def _made(self, got: dict[str, Any]) -> OnHand:
        bad = got["bad_from"] is not None or got["bad_to"] is not None
        if bad and got["bad_to"] is None:
            raise PlanError(_("Where does it end?"), "to_mm")
        defects = (Defect(from_mm=got["bad_from"] or 0.0, to_mm=got["bad_to"]),) if bad else ()
        board = got["board"]
        if board == _NOBODY_KNOWS:
            if got["weighs"] is None:
                raise PlanError(_("Weigh it: the weight sets its strength."), "weighs")
            board = weighed(got["length"], got["width"], got["thickness"], got["weighs"])
        return OnHand(
            name=worded("your {boards} {got}", boards=data.boards()[board].name, got=got["kind"]),
            board=board,
            kind=got["kind"],
            length_mm=got["length"],
            width_mm=got["width"],
            thickness_mm=got["thickness"],
            many=got["many"],
            defects=defects,
        )


class OwnForm(BenchForm):
    """A part that is cut besides."""

    own_name = forms.CharField(max_length=80, label=lazy("What it is"))
    own_turns = forms.BooleanField(required=False, label=lazy("The grain may run either way"))

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """Of the wood that the wall uses most."""
        super().__init__(posted)
        self.bench, units = bench, bench.units
        board, thick_mm = (cutting_of(bench).thicknesses or [("plywood", 18.0)])[0]
        self.fields["own_board"] = forms.ChoiceField(
            choices=_boards(), label=_("Of"), initial=board
        )
        self.fields["own_length"] = MeasureField(units, label=_("Long, with the grain"))
        self.fields["own_width"] = MeasureField(units, label=_("Wide"))
        self.fields["own_thickness"] = MeasureField(units, thick_mm, label=_("Thick"))
        self.fields["own_many"] = forms.IntegerField(
            min_value=1, max_value=500, initial=1, label=_("How many")
        )

    def clean(self) -> dict[str, Any]:
        """Build it; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        try:
            got["made"] = OwnPart(
                name=got["own_name"],
                board=got["own_board"],
                length_mm=got["own_length"],
                width_mm=got["own_width"],
                thickness_mm=got["own_thickness"],
                many=got["own_many"],
                turns=got["own_turns"],
            )
        except PlanError as error:
            where = f"own_{error.where.removesuffix('_mm')}"
            self.add_error(where if where in self.fields else None, str(error))
        return got


def _with(plan: Plan, **fields: Any) -> Plan:
    """Return the plan with other things in its workshop."""
    return replace(plan, shop=replace(plan.shop, **fields))


def _desk(request: HttpRequest, wall: int) -> WorkbenchContext:
    return workbench(request, wall, "cut", request.POST.get("piece"))


@require_POST
def add(request: HttpRequest, wall: int) -> HttpResponse:
    """One more board or sheet at hand."""
    bench = _desk(request, wall)
    form = HandForm(bench, request.POST)
    return change(
        bench,
        form,
        lambda plan: _with(plan, on_hand=(*plan.shop.on_hand, form.cleaned_data["made"])),
        _("At hand"),
    )


@require_POST
def add_own(request: HttpRequest, wall: int) -> HttpResponse:
    """One more part of the person's own."""
    bench = _desk(request, wall)
    form = OwnForm(bench, request.POST)
    return change(
        bench,
        form,
        lambda plan: _with(plan, own=(*plan.shop.own, form.cleaned_data["made"])),
        _("A part besides"),
    )


@require_POST
def drop(request: HttpRequest, wall: int, what: str, index: int) -> HttpResponse:
    """Take one away again: of what is at hand, or of the person's own parts."""
    bench = _desk(request, wall)
    if what not in ("on_hand", "own") or index >= len(getattr(bench.plan.shop, what)):
        raise Http404(_("That is not in your stock."))

    def dropped(plan: Plan) -> Plan:
        every = getattr(plan.shop, what)
        return _with(plan, **{what: every[:index] + every[index + 1 :]})

    return apply(bench, dropped, _("Take it away"))


@require_POST
def keep(request: HttpRequest, wall: int) -> HttpResponse:
    """Put what is left over on the rack, for other walls.

    What was put there from this wall before is replaced.
    """
    bench = _desk(request, wall)
    left = cutting_of(bench).plan.offcuts
    if not left:
        return refused(bench, _("Nothing worth keeping is left over."))
    return apply(
        bench,
        lambda plan: _with(plan, kept=left[:40]),
        _("Keep the offcuts"),
        _("They are on the rack now, for any wall."),
    )


@require_POST
def take(request: HttpRequest, wall: int, offcut: int) -> HttpResponse:
    """Take an offcut off the rack for this wall."""
    bench = _desk(request, wall)
    found = get_object_or_404(Offcut.objects.filter(wall__in=walls(request)), pk=offcut)
    if found.taken_id is not None or found.wall_id == bench.wall.pk:
        return refused(bench, _("That offcut is no longer on the rack: another wall uses it."))
    return apply(
        bench,
        lambda plan: _with(plan, on_hand=(*plan.shop.on_hand, found.on_hand())),
        _("Off the rack"),
    )


def _brought(
    bench: WorkbenchContext, name: str, read: Callable[[bytes], tuple[tuple[OwnPart, ...], str]]
) -> HttpResponse:
    file = bench.request.FILES.get(name)
    if not isinstance(file, UploadedFile):
        return refused(bench, _("Choose a file first."))
    try:
        parts, words = read(file.read(spreadsheet.MAX_BYTES + 1))
    except spreadsheet.RefusedSheetError as error:
        bench.refused_rows = error.rows
        return refused(bench, str(error))
    many = sum(part.many for part in parts)
    said = say(counted(many, "{n} part brought in.", "{n} parts brought in.")) + words
    return apply(
        bench, lambda plan: _with(plan, own=(*plan.shop.own, *parts)), _("Bring in parts"), said
    )


@require_POST
def bring_table(request: HttpRequest, wall: int) -> HttpResponse:
    """Parts out of a table (CSV)."""
    bench = _desk(request, wall)
    return _brought(bench, "table", lambda raw: (part_import.read_table(raw, bench.units), ""))


@require_POST
def bring_drawing(request: HttpRequest, wall: int) -> HttpResponse:
    """Parts out of a drawing (DXF), of the wood that was chosen."""
    bench = _desk(request, wall)
    board = request.POST.get("of", "")
    wood = next(((key, mm) for key, mm in _woods(bench) if f"{key}:{mm:.2f}" == board), None)
    if wood is None:
        return refused(bench, _("First choose the material of the parts in the drawing."))

    def read(raw: bytes) -> tuple[tuple[OwnPart, ...], str]:
        drawn = part_import.read_dxf(raw, *wood, bench.units)
        left = counted(
            drawn.others,
            "{n} other shape left out: only closed rectangles are parts.",
            "{n} other shapes left out: only closed rectangles are parts.",
        )
        return drawn.parts, f" {say(left)}" if drawn.others else ""

    return _brought(bench, "drawing", read)


def _woods(bench: WorkbenchContext) -> list[tuple[str, float]]:
    """Woods in the thicknesses that a drawing's parts may be of.

    Those of the wall, then those that are sold.
    """
    sold = [(row.board, row.thickness_mm) for row in data.stock().values() if row.kind == "sheet"]
    return list(dict.fromkeys([*cutting_of(bench).thicknesses, *sold]))


def woods(bench: WorkbenchContext) -> list[tuple[str, str, float]]:
    """Return the same for a list to choose from: what the page sends, its name, its thickness."""
    return [(f"{key}:{mm:.2f}", data.boards()[key].name, mm) for key, mm in _woods(bench)]
