"""Hardware of one's own: measured, with what its packet states, and used on a piece at once."""

from typing import Any

from django import forms
from django.http import Http404, HttpRequest, HttpResponse, QueryDict
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from bench.forms import BenchForm, MeasureField, MeasureInput, Noun
from bench.words import lazy, say, worded
from bench.workbench.changes import change
from bench.workbench.context import WorkbenchContext, workbench
from trade.errors import MeasureError, PlanError
from trade.measure import IN_MM, UNIT_SIGNS, read_length, type_length
from trade.mounts import mount_of
from trade.plan.hardware import OwnBracket, OwnCleat, OwnPlate, OwnTrack, Stated
from trade.plan.model import AnyPiece, Plan

Usual = float | tuple[float, ...]


def _in_mm(inches: Usual) -> Usual:
    return tuple(each * IN_MM for each in inches) if isinstance(inches, tuple) else inches * IN_MM


class LengthsField(forms.CharField):
    """Lengths with commas between them; `cleaned_data` has them in mm."""

    def __init__(self, bench: WorkbenchContext, value: tuple[float, ...], **kwargs: Any) -> None:
        """Show them in the person's units; bare numbers are read in them."""
        self.units = bench.units
        shown = ", ".join(
            f"-{type_length(-mm, self.units)}" if mm < 0 else type_length(mm, self.units)
            for mm in value
        )
        widget = MeasureInput(UNIT_SIGNS["length"][self.units])
        super().__init__(max_length=200, initial=shown, widget=widget, **kwargs)

    def clean(self, value: Any) -> tuple[float, ...]:
        """Read each; one with a minus before it lies below.

        Raises:
            ValidationError: with the sentence of the trade.
        """
        found = []
        for part in (super().clean(value) or "").replace(";", ",").split(","):
            typed = part.strip().replace("−", "-")
            try:
                length = read_length(typed.removeprefix("-"), self.units) if typed else None
            except MeasureError as error:
                raise forms.ValidationError(str(error)) from None
            if length is not None:
                found.append(-length if typed.startswith("-") else length)
        return tuple(sorted(found))


class OwnForm(BenchForm):
    """What every piece of one's own hardware is asked; each sort adds its sizes.

    `sizes`: fields, what they are called, and what is usual, in inches and in millimetres.
    """

    sizes: tuple[tuple[str, Any, Usual, Usual], ...]
    title: Any
    makes: type[OwnBracket] | type[OwnPlate] | type[OwnCleat] | type[OwnTrack]

    def __init__(
        self, bench: WorkbenchContext, now: Any = None, posted: QueryDict | None = None
    ) -> None:
        """Sizes of what is on the piece now, else usual ones."""
        super().__init__(posted, prefix="own")
        self.bench = bench
        self.fields["name"] = forms.CharField(
            max_length=80, label=_("What it is called"), initial=now.name if now else ""
        )
        for name, label, inches, mm in self.sizes:
            usual = _in_mm(inches) if bench.units == "imperial" else mm
            value = getattr(now, name) if now else usual
            self.fields[name.removesuffix("_mm")] = (
                LengthsField(bench, value, label=say(label))
                if isinstance(value, tuple)
                else MeasureField(bench.units, value, label=say(label))
            )
        self.more(now)

    def more(self, now: Any) -> None:
        """Add what else it is asked."""

    def rest(self, got: dict[str, Any]) -> dict[str, Any]:
        """Return what was typed besides its name and sizes, by its fields.

        Raises:
            PlanError: there is no such thing.
        """
        return {}

    def ask_stated(self, stated: Stated | None, empty: str, required: bool = False) -> None:
        """Add what its packet states that one or two of them carry."""
        load: Noun = "load"
        example = _("Such as 250 lb or 1.1 kN.")
        self.fields["load"] = MeasureField(
            self.bench.units,
            stated.load_n if stated else None,
            noun=load,
            label=_("Its packet states"),
            required=required,
            help_text=f"{example} {empty}".strip(),
        )
        self.fields["states"] = forms.ChoiceField(
            choices=[("allowable", _("that it may carry")), ("ultimate", _("at which it fails"))],
            label=_("That is the load"),
            initial=stated.states if stated else "allowable",
        )
        self.fields["per"] = forms.ChoiceField(
            choices=[("pair", _("a pair")), ("each", _("each"))],
            label=_("Of"),
            initial=stated.per if stated else "pair",
        )
        self.fields["found"] = forms.CharField(
            max_length=80,
            label=_("Where you read it"),
            initial=stated.found if stated else _("its packet"),
            required=False,
        )

    def stated(self, got: dict[str, Any]) -> Stated | None:
        """Return what was typed of its packet; None where it states nothing."""
        if got["load"] is None:
            return None
        found = got["found"] or _("its packet")
        return Stated(load_n=got["load"], states=got["states"], per=got["per"], found=found)

    def clean(self) -> dict[str, Any]:
        """Build it; its refusals land beside their fields."""
        got = super().clean() or {}
        if not self.errors:
            try:
                got["own"] = self.makes(**self.typed(got), **self.rest(got))
            except PlanError as error:
                where = error.where.removesuffix("_mm").removesuffix("_n")
                self.add_error(where if where in self.fields else None, str(error))
        return got

    def typed(self, got: dict[str, Any]) -> dict[str, Any]:
        """Return its name and sizes by their fields."""
        return {"name": got["name"]} | {
            name: got[name.removesuffix("_mm")] for name, *_ in self.sizes
        }


class OwnBracketForm(OwnForm):
    """A bracket."""

    title = lazy("A bracket of my own")
    makes = OwnBracket
    sizes = (
        ("arm_mm", lazy("Arm, out under the shelf"), 8.0, 200.0),
        ("leg_mm", lazy("Leg, down the wall"), 10.0, 250.0),
        ("width_mm", lazy("Wide, seen from the front"), 1.25, 30.0),
        ("thick_mm", lazy("Thick"), 0.1875, 5.0),
        ("holes_mm", lazy("Screw holes, down from under the shelf"), (1.0, 9.0), (25.0, 225.0)),
    )

    def more(self, now: OwnBracket | None) -> None:
        """Ask whether it is braced, and what its packet states."""
        self.fields["braced"] = forms.BooleanField(
            label=_("Braced by a strut, a gusset or a second leg"),
            required=False,
            initial=bool(now and now.braced),
        )
        self.ask_stated(now.stated if now else None, _("Empty: its bar decides."))

    def rest(self, got: dict[str, Any]) -> dict[str, Any]:
        """Return whether it is braced, and what its packet states."""
        return {"braced": got["braced"], "stated": self.stated(got)}


class OwnCleatForm(OwnForm):
    """A flush metal cleat."""

    title = lazy("Flush metal cleats of my own")
    makes = OwnCleat
    sizes = (
        ("width_mm", lazy("One half, wide"), 4.0, 100.0),
        ("high_mm", lazy("High"), 1.25, 30.0),
        ("thick_mm", lazy("Its metal, thick"), 0.0625, 1.5),
        ("off_mm", lazy("Hooked, it holds the piece off the wall by"), 0.25, 6.0),
        ("hook_mm", lazy("To come off it is lifted by"), 0.3125, 8.0),
        ("hole_mm", lazy("Row of holes, above its lower edge"), 0.375, 10.0),
    )

    def more(self, now: OwnCleat | None) -> None:
        """Ask for its holes, and what its packet states."""
        self.fields["holes"] = forms.IntegerField(
            min_value=1,
            max_value=60,
            label=_("Holes in a half"),
            initial=now.holes if now else 3,
            help_text=_("A stud takes one of them; all go into the piece."),
        )
        self.ask_stated(now.stated if now else None, "", required=True)

    def rest(self, got: dict[str, Any]) -> dict[str, Any]:
        """Return its holes and what its packet states."""
        return {"holes": got["holes"], "stated": self.stated(got)}


class OwnTrackForm(OwnForm):
    """Slotted uprights with their arms."""

    title = lazy("Slotted uprights and arms of my own")
    makes = OwnTrack
    sizes = (
        ("width_mm", lazy("Upright, wide"), 1.0, 25.0),
        ("deep_mm", lazy("It stands off the wall by"), 0.5625, 14.0),
        ("thick_mm", lazy("Its metal, thick"), 0.0625, 1.5),
        ("first_mm", lazy("First screw hole, down from its upper end"), 1.25, 30.0),
        ("every_mm", lazy("From hole to hole"), 12.0, 300.0),
        ("hook_mm", lazy("Arm: from its upper to its lower hook"), 2.5, 65.0),
        ("arm_mm", lazy("Arm, out under the shelf"), 10.0, 250.0),
    )

    def more(self, now: OwnTrack | None) -> None:
        """Ask what its packet states of its arms."""
        self.ask_stated(now.stated if now else None, "", required=True)

    def rest(self, got: dict[str, Any]) -> dict[str, Any]:
        """Return what its packet states of its arms."""
        return {"stated": self.stated(got)}


class OwnPlateForm(OwnForm):
    """A rod with its plate."""

    title = lazy("A rod and plate of my own")
    makes = OwnPlate
    sizes = (
        ("rod_mm", lazy("Rod, thick"), 0.5, 12.0),
        ("rod_length_mm", lazy("Rod, out of the plate"), 8.0, 200.0),
        ("width_mm", lazy("Plate, wide"), 1.5, 40.0),
        ("height_mm", lazy("Plate, high"), 2.5, 60.0),
        ("thick_mm", lazy("Plate, thick"), 0.1875, 5.0),
        ("rows_mm", lazy("Screws, up from the rod; a minus: below it"), (-1.0, 1.0), (-20.0, 20.0)),
        ("adjusts_mm", lazy("When it hangs its rod can still be shifted by"), 0.0, 0.0),
    )

    def more(self, now: OwnPlate | None) -> None:
        """Ask whether a set screw holds the shelf."""
        self.fields["set_screw"] = forms.BooleanField(
            label=_("A set screw from below holds the shelf on it"),
            required=False,
            initial=bool(now and now.set_screw),
        )

    def rest(self, got: dict[str, Any]) -> dict[str, Any]:
        """Return whether a set screw holds the shelf."""
        return {"set_screw": got["set_screw"]}


_FORMS: dict[str, type[OwnForm]] = {
    "bracket": OwnBracketForm,
    "plate": OwnPlateForm,
    "cleat": OwnCleatForm,
    "track": OwnTrackForm,
}


def form_for(
    piece: AnyPiece | None, bench: WorkbenchContext, posted: QueryDict | None = None
) -> OwnForm | None:
    """Return the form for hardware of one's own on a piece; None where its kind takes none."""
    if piece is None:
        return None
    field, now = mount_of(piece).own_hardware(piece)
    if not field:
        return None
    sort = _FORMS[field]
    kept = bench.posted(sort) if posted is None else None
    return kept or sort(bench, now, posted)


@require_POST
def use(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Hold a piece with hardware of one's own."""
    bench = workbench(request, wall, "fix", key)
    piece = bench.chosen
    form = form_for(piece, bench, request.POST)
    if form is None:
        raise Http404(_("This mounting takes no hardware of your own."))

    def changed(plan: Plan) -> Plan:
        return plan.with_piece(mount_of(piece).with_own(piece, form.cleaned_data["own"]))

    name = form.cleaned_data["own"].name if form.is_valid() else _("Hardware")
    return change(bench, form, changed, worded("{name}, my own", name=name))
