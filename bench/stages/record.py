"""Record.

How each piece really hangs, what proved it, how it held; its label, the owner's sheet, when to look
again.
"""

from collections.abc import Callable
from typing import Any

from django import forms
from django.http import HttpRequest, HttpResponse
from django.urls import reverse
from django.utils.timezone import localdate, now
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.address import public
from bench.changes import change
from bench.desk import Desk, desk_or_404
from bench.devices import dial
from bench.forms import BenchForm, MeasureField
from bench.long_work import long_running
from bench.printing.calendar import care_calendar
from bench.printing.owner_sheet import owner_sheet
from bench.printing.piece_label import piece_labels
from bench.stages.sent import sent
from trade import data
from trade.errors import PlanError
from trade.job.as_built import AsBuiltReport, as_built
from trade.job.care import Care, cares
from trade.job.proof import ProofLoad, Proved, proof_load, prove
from trade.plan.as_built import AsBuilt, Hung, Look, Proof
from trade.plan.model import Plan

_UP = [("1", "higher"), ("-1", "lower")]
_ACROSS = [("1", "further right"), ("-1", "further left")]
_HELD = [("firm", "firm"), ("loose", "loose: something moved"), ("off", "off the wall")]


class RecordForm(BenchForm):
    """What all of them ask: on which day, and who."""

    def __init__(self, desk: Desk, posted: Any = None) -> None:
        """Today."""
        super().__init__(posted)
        self.desk, self.piece = desk, desk.chosen
        date = forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d")
        self.fields["on"] = forms.DateField(label="On", initial=localdate(), widget=date)
        self.fields["by"] = forms.CharField(label="By", required=False, max_length=80)
        self.ask()
        self.order_fields([name for name in self.fields if name != "note"])

    def ask(self) -> None:
        """What else is asked."""
        raise NotImplementedError

    def made(self, got: dict[str, Any]) -> Any:
        """What it says, as part of the plan."""
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
            label="Note", required=False, max_length=400, widget=forms.Textarea(attrs={"rows": 2})
        )


class BuiltForm(RecordForm):
    """What went in, and where it hangs."""

    def ask(self) -> None:
        """Everything as planned, unless somebody says otherwise."""
        units = self.desk.units
        was = self.desk.plan.as_built.as_hung(self.piece.key) or Hung(
            piece=self.piece.key, on=localdate()
        )
        imperial = units == "imperial"
        screws = [
            (key, row.name_imperial if imperial else row.name_metric)
            for key, row in data.screws().items()
        ]
        anchors = [(key, row.name) for key, row in data.anchors().items()]
        anchors += [(packet.key, packet.name) for packet in self.desk.plan.wall.packets]
        self.fields["on"].initial, self.fields["by"].initial = was.on, was.by
        self.fields["screw"] = _pick("Screws that went in", screws, was.screw)
        self.fields["screw_length"] = MeasureField(
            units, was.screw_length_mm, label="How long they are", required=False
        )
        self.fields["anchor"] = _pick("Anchors that went in", anchors, was.anchor)
        for name, label, value, ways in (
            ("up", "It hangs", was.up_mm, _UP),
            ("right", "and", was.right_mm, _ACROSS),
        ):
            self.fields[name] = MeasureField(
                units, abs(value) or None, label=f"{label}, by", required=False
            )
            self.fields[f"{name}_way"] = forms.ChoiceField(
                choices=ways, label="than planned", initial="1" if value >= 0 else "-1"
            )
        self.fields["minutes"] = _number("It took, minutes", was.minutes)
        self.fields["cost"] = _number("It cost, all in all", was.cost)
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
        """The load that it should be; readings that a dial takes where one is set up."""
        units = self.desk.units
        load = proof_load(as_built(self.desk.plan, self.piece.key).piece, self.desk.plan)
        self.fields["kg"] = MeasureField(units, load.kg, "weight", label="Put on it")
        self.fields["minutes"] = forms.FloatField(
            label="For, minutes", min_value=0, initial=load.minutes
        )
        gauge = dial(self.desk.wall.pk)
        read = (
            (gauge.read_mm(0.0), gauge.read_mm(load.kg), gauge.read_mm(0.0))
            if gauge
            else (None, None, None)
        )
        names = (("before", "Front edge before"), ("loaded", "Under load"), ("after", "After"))
        for (name, label), value in zip(names, read, strict=True):
            self.fields[name] = MeasureField(units, value, label=label)
        self.fields["before"].help_text = "down, from any fixed point"
        self.fields["level"] = MeasureField(
            units, label="Off level, over 1 m (39 in)", required=False
        )
        self.fields["stirred"] = forms.BooleanField(
            required=False, label="Something was seen or heard to move"
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


class LookForm(RecordForm):
    """How it held."""

    def ask(self) -> None:
        """Firm or not."""
        self.fields["held"] = forms.ChoiceField(choices=_HELD, label="It was")
        self._note()

    def made(self, got: dict[str, Any]) -> Look:
        """As seen."""
        return Look(
            piece=self.piece.key, on=got["on"], by=got["by"], held=got["held"], note=got["note"]
        )


def _pick(label: str, rows: list[tuple[str, str]], now_key: str | None) -> forms.ChoiceField:
    return forms.ChoiceField(
        choices=[("", "as planned"), *rows], label=label, required=False, initial=now_key or ""
    )


def _number(label: str, value: float | None) -> forms.FloatField:
    return forms.FloatField(label=label, required=False, min_value=0, initial=value)


_FORMS: dict[str, tuple[type[RecordForm], str, str]] = {
    "": (BuiltForm, "hung", "As built"),
    "proof": (ProofForm, "proofs", "Proof"),
    "look": (LookForm, "looks", "Look again"),
}


def form_for(desk: Desk) -> RecordForm | None:
    """The form of the look that is shown; none where nothing hangs."""
    if desk.piece is None:
        return None
    desk.key = desk.piece.key
    return _FORMS[desk.look][0](desk)


class Record:
    """What is known of a piece that hangs."""

    def __init__(self, desk: Desk) -> None:
        """Of the piece on the desk."""
        self.plan, self.piece = desk.plan, desk.chosen
        self.photos = desk.wall.photos.filter(key=desk.chosen.key, deleted=None)
        self.hung = self.plan.as_built.as_hung(self.piece.key)

    @property
    def as_built(self) -> AsBuiltReport:
        """As it hangs, judged."""
        return as_built(self.plan, self.piece.key)

    @property
    def load(self) -> ProofLoad:
        """What would prove it."""
        return proof_load(self.as_built.piece, self.plan)

    @property
    def proofs(self) -> list[tuple[Proof, Proved]]:
        """Every proof, the latest first, with what it says."""
        load = self.load
        own = [proof for proof in self.plan.as_built.proofs if proof.piece == self.piece.key]
        return [(proof, prove(proof, load)) for proof in reversed(own)]

    @property
    def looks(self) -> list[Look]:
        """Every look, the latest first."""
        return [look for look in reversed(self.plan.as_built.looks) if look.piece == self.piece.key]

    @property
    def cares(self) -> tuple[Care, ...]:
        """When to look again."""
        return cares(self.plan, self.piece.key)


@require_POST
def save(request: HttpRequest, wall: int, key: str, what: str) -> HttpResponse:
    """Keep what was built, proved or seen; it is added to what was said before."""
    desk = desk_or_404(request, wall, "record", key)
    desk.look = "" if what == "built" else what
    make, where, label = _FORMS[desk.look]
    form = make(desk, request.POST)

    def changed(plan: Plan) -> Plan:
        kept: AsBuilt = replace(
            plan.as_built, **{where: (*getattr(plan.as_built, where), form.cleaned_data["made"])}
        )
        return replace(plan, as_built=kept)

    return change(desk, form, changed, f"{label}: {desk.chosen.name}")


def _paper(
    write: Callable[[Desk, str], bytes], name: str
) -> Callable[[HttpRequest, int], HttpResponse]:
    @long_running
    @require_safe
    def view(request: HttpRequest, wall: int) -> HttpResponse:
        desk = desk_or_404(request, wall, "record", request.GET.get("piece"))
        return sent(write(desk, public(request, "/")), desk.plan.name, name)

    return view


def _address(desk: Desk, root: str, key: str) -> str:
    return f"{root.rstrip('/')}{reverse('stage', args=[desk.wall.pk, 'record'])}?piece={key}"


labels = _paper(
    lambda desk, root: piece_labels(
        desk.plan, desk.key, desk.units, lambda key: _address(desk, root, key)
    ),
    "piece-labels.pdf",
)
owner = _paper(
    lambda desk, _: owner_sheet(desk.plan, desk.units, desk.wall.job.name, localdate()), "owner.pdf"
)


@require_safe
def care_ics(request: HttpRequest, wall: int) -> HttpResponse:
    """When to look again, for any calendar."""
    desk = desk_or_404(request, wall, "record")
    found = [care for piece in desk.plan.pieces for care in cares(desk.plan, piece.key)]
    return sent(
        care_calendar(found, desk.plan.name, desk.wall.pk, desk.units, now()),
        desk.plan.name,
        "care.ics",
        True,
    )
