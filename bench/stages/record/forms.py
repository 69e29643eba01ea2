"""What is asked of a piece that hangs: as built, a proof load, an inspection."""

from typing import Any

from django import forms
from django.http import QueryDict
from django.utils.timezone import localdate
from django.utils.translation import gettext as _

from bench.devices import dial
from bench.forms import BenchForm, MeasureField
from bench.words import lazy, name_in, say, worded
from bench.workbench.context import WorkbenchContext
from trade import data
from trade.errors import PlanError
from trade.job.as_built import as_built
from trade.job.proof import proof_load
from trade.job.trial import fixing_of
from trade.plan.as_built import Hung, Look, Proof, Trial

_UP = [("1", lazy("higher")), ("-1", lazy("lower"))]
_ACROSS = [("1", lazy("further right")), ("-1", lazy("further left"))]
_HELD = [
    ("firm", lazy("firm")),
    ("loose", lazy("loose: something moved")),
    ("off", lazy("off the wall")),
]
_GAVE = [
    ("nothing", lazy("It held")),
    ("came_out", lazy("It came out")),
    ("split", lazy("The wood split")),
    ("crushed", lazy("The material behind it crushed")),
    ("bent", lazy("It bent for good")),
    ("broke", lazy("It broke")),
]


class RecordForm(BenchForm):
    """What all of them ask: on which day, and who."""

    def __init__(self, bench: WorkbenchContext, posted: QueryDict | None = None) -> None:
        """Today."""
        super().__init__(posted)
        self.bench, self.piece = bench, bench.chosen
        date = forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d")
        self.fields["on"] = forms.DateField(label=_("On"), initial=localdate(), widget=date)
        self.fields["by"] = forms.CharField(label=_("By"), required=False, max_length=80)
        self.ask()
        self.order_fields([name for name in self.fields if name != "note"])

    def ask(self) -> None:
        """Add what else is asked."""
        raise NotImplementedError

    def made(self, got: dict[str, Any]) -> Any:
        """Return what it says, as part of the plan."""
        raise NotImplementedError

    def clean(self) -> dict[str, Any]:
        """Build it; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        try:
            got["made"] = self.made(got)
        except PlanError as error:
            where = error.where.removesuffix("_mm").removesuffix("_mm_per_m")
            self.add_error(where if where in self.fields else None, str(error))
        return got

    def _note(self) -> None:
        self.fields["note"] = forms.CharField(
            label=_("Note"),
            required=False,
            max_length=400,
            widget=forms.Textarea(attrs={"rows": 2}),
        )


class BuiltForm(RecordForm):
    """What went in, and where it hangs."""

    def ask(self) -> None:
        """Everything as planned, unless somebody says otherwise."""
        units = self.bench.units
        was = self.bench.plan.as_built.as_hung(self.piece.key) or Hung(
            piece=self.piece.key, on=localdate()
        )
        screws = [
            (key, say(row.called(units)))
            for key, row in data.screws().items()
            if row.system == units or key == was.screw
        ]
        anchors = [(key, name_in(row.name, units)) for key, row in data.anchors().items()]
        anchors += [(packet.key, packet.name) for packet in self.bench.plan.wall.packets]
        self.fields["on"].initial, self.fields["by"].initial = was.on, was.by
        self.fields["screw"] = _pick(_("Screws used"), screws, was.screw)
        self.fields["screw_length"] = MeasureField(
            units, was.screw_length_mm, label=_("How long they are"), required=False
        )
        self.fields["anchor"] = _pick(_("Anchors used"), anchors, was.anchor)
        for name, label, value, ways in (
            ("up", _("It hangs"), was.up_mm, _UP),
            ("right", "and", was.right_mm, _ACROSS),
        ):
            self.fields[name] = MeasureField(
                units, abs(value) or None, label=worded("{label}, by", label=label), required=False
            )
            self.fields[f"{name}_way"] = forms.ChoiceField(
                choices=ways, label=_("than planned"), initial="1" if value >= 0 else "-1"
            )
        self.fields["minutes"] = _number(_("It took, minutes"), was.minutes)
        self.fields["cost"] = _number(_("Total cost"), was.cost)
        self._note()
        self.fields["note"].initial = was.note

    def made(self, got: dict[str, Any]) -> Hung:
        """As built."""
        anchor = got["anchor"] or None
        return Hung(
            piece=self.piece.key,
            on=got["on"],
            by=got["by"],
            screw=got["screw"] or None,
            screw_length_mm=got["screw_length"],
            anchor=anchor,
            up_mm=(got["up"] or 0.0) * int(got["up_way"]),
            right_mm=(got["right"] or 0.0) * int(got["right_way"]),
            minutes=got["minutes"],
            cost=got["cost"],
            note=got["note"],
        )


class ProofForm(RecordForm):
    """Readings of a proof."""

    def ask(self) -> None:
        """Add the load that it should be; readings that a dial takes where one is set up."""
        units = self.bench.units
        load = proof_load(as_built(self.bench.plan, self.piece.key).piece, self.bench.plan)
        self.fields["kg"] = MeasureField(units, load.kg, "weight", label=_("Put on it"))
        self.fields["minutes"] = forms.FloatField(
            label=_("For, minutes"), min_value=0, initial=round(load.minutes)
        )
        gauge = dial(self.bench.wall.pk)
        read = (
            (gauge.read_mm(0.0), gauge.read_mm(load.kg), gauge.read_mm(0.0))
            if gauge
            else (None, None, None)
        )
        names = (
            ("before", _("Front edge before")),
            ("loaded", _("Under load")),
            ("after", _("After")),
        )
        for (name, label), value in zip(names, read, strict=True):
            self.fields[name] = MeasureField(units, value, label=label)
        self.fields["before"].help_text = _("down, from any fixed point")
        self.fields["level"] = MeasureField(
            units, label=_("Off level, over 1 m (39 in)"), required=False
        )
        self.fields["stirred"] = forms.BooleanField(
            required=False, label=_("Something visibly or audibly moved")
        )

    def made(self, got: dict[str, Any]) -> Proof:
        """As read."""
        return Proof(
            piece=self.piece.key,
            on=got["on"],
            by=got["by"],
            kg=got["kg"],
            minutes=got["minutes"],
            before_mm=got["before"],
            loaded_mm=got["loaded"],
            after_mm=got["after"],
            level_mm_per_m=got["level"],
            stirred=got["stirred"],
        )


class TrialForm(RecordForm):
    """What came of trying one fixing on scrap."""

    def ask(self) -> None:
        """Add the load, the result and the time."""
        units = self.bench.units
        self.fields["kg"] = MeasureField(units, None, "weight", label=_("Heaviest load"))
        self.fields["gave"] = forms.ChoiceField(choices=_GAVE, label=_("Result"))
        self.fields["hours"] = forms.FloatField(
            label=_("Hours under the plan's load"),
            min_value=0,
            initial=round(data.house("trial_hours")),
        )
        self.fields["sag"] = MeasureField(
            units, None, label=_("Front edge sank by"), required=False
        )
        self._note()

    def made(self, got: dict[str, Any]) -> Trial:
        """Return the trial of the fixing that is planned now."""
        kind, screw, length_mm, anchor = fixing_of(self.piece)
        return Trial(
            piece=self.piece.key,
            on=got["on"],
            by=got["by"],
            kind=kind,
            screw=screw,
            screw_length_mm=length_mm,
            anchor=anchor,
            kg=got["kg"],
            gave=got["gave"],
            hours=got["hours"],
            sag_mm=got["sag"],
            note=got["note"],
        )


class LookForm(RecordForm):
    """How it held."""

    def ask(self) -> None:
        """Firm or not."""
        self.fields["held"] = forms.ChoiceField(choices=_HELD, label=_("Condition"))
        self._note()

    def made(self, got: dict[str, Any]) -> Look:
        """As seen."""
        return Look(
            piece=self.piece.key, on=got["on"], by=got["by"], held=got["held"], note=got["note"]
        )


def _pick(label: str, rows: list[tuple[str, str]], now_key: str | None) -> forms.ChoiceField:
    return forms.ChoiceField(
        choices=[("", _("as planned")), *rows], label=label, required=False, initial=now_key or ""
    )


def _number(label: str, value: float | None) -> forms.FloatField:
    return forms.FloatField(label=label, required=False, min_value=0, initial=value)


FORMS: dict[str, tuple[type[RecordForm], str, str]] = {
    "": (BuiltForm, "hung", lazy("As built")),
    "trial": (TrialForm, "trials", lazy("Tried on scrap")),
    "proof": (ProofForm, "proofs", lazy("Proof")),
    "look": (LookForm, "looks", lazy("Look again")),
}
