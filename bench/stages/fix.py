"""Fix: put pieces up, move them, choose what holds them, apply a cure, take them down."""

from typing import Any

from django import forms
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.changes import apply, change, refused
from bench.desk import Desk, desk_or_404
from bench.drag import drag_update
from bench.drawing import along as along_drawing
from bench.forms import BenchForm, MeasureField, number_in
from bench.long_work import long_running
from bench.stages import choose
from trade import data
from trade.choose import placement
from trade.choose.along import along as places_along
from trade.choose.cures import Cure
from trade.choose.cures import cures as find_cures
from trade.choose.findings import findings
from trade.errors import MeasureError, PlanError
from trade.fixings import driving
from trade.measure import read_length, say_length, type_length
from trade.memo import memoized
from trade.mounts import Ask, mount_of
from trade.plan.model import AnyPiece, Plan, Wall

found_cures = memoized(limit=32)(find_cures)


class FixForm(BenchForm):
    """Place, size and hardware of a piece."""

    name = forms.CharField(max_length=80, label="Name")

    def __init__(self, desk: Desk, piece: AnyPiece, posted: Any = None) -> None:
        """Fields from the piece."""
        super().__init__(posted)
        units = desk.units
        self.desk, self.piece = desk, piece
        self.fields["name"].initial = piece.name
        self.fields["left"] = MeasureField(units, piece.left_mm, label="From the left corner")
        self.fields["top"] = MeasureField(units, piece.top_mm, label="Top above the floor")
        self.asks = mount_of(piece).asks
        for ask in self.asks:
            self.fields[ask.short] = self._field(ask)
        choices = anchor_choices(desk.plan.wall, piece.anchor)
        if len(choices) > 1:
            label = (
                "Where there is no stud" if desk.plan.wall.build == "timber" else "What holds it"
            )
            self.fields["anchor"] = forms.ChoiceField(
                choices=choices, label=label, required=False, initial=piece.anchor or ""
            )
        self.fields["screw"] = forms.ChoiceField(
            choices=[
                (key, row.name_imperial if units == "imperial" else row.name_metric)
                for key, row in data.screws().items()
            ],
            label="Screws",
            initial=piece.screw,
        )
        self.fields["screw_length"] = MeasureField(
            units, piece.screw_length_mm, label="Screw length"
        )
        self.fields["supports"] = forms.CharField(
            label="Held at, from the left corner",
            max_length=1000,
            initial=", ".join(type_length(piece.left_mm + x, units) for x in piece.supports_mm),
        )
        sold = ", ".join(
            say_length(mm, units) for mm in driving.lengths_mm(data.screws()[piece.screw])
        )
        self.fields["screw_length"].help_text = f"Sold as {sold}."

    def _field(self, ask: Ask) -> forms.Field:
        """One of the kind's own inputs."""
        value, noun = getattr(self.piece, ask.field), "weight" if ask.how == "weight" else "length"
        if ask.how == "choice" and ask.table is not None:
            return forms.ChoiceField(
                choices=[(key, row.name) for key, row in ask.table().items()],
                label=ask.label,
                initial=value,
            )
        if ask.how == "flag":
            return forms.BooleanField(
                label=ask.label, required=False, initial=value, help_text=ask.help
            )
        if ask.how in ("count", "angle"):
            return forms.IntegerField(
                label=ask.label, initial=round(value), help_text=ask.help, min_value=0, max_value=90
            )
        return MeasureField(
            self.desk.units,
            value,
            noun=noun,
            label=ask.label,
            required=not ask.optional,
            help_text=ask.help,
        )

    def clean(self) -> dict[str, Any]:
        """Build the piece; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        try:
            got["piece"] = self._piece(got)
            self.desk.plan.with_piece(got["piece"])
        except PlanError as error:
            self.refuse(error)
        return got

    def _piece(self, got: dict[str, Any]) -> AnyPiece:
        piece = self.piece
        said: dict[str, Any] = {ask.field: got[ask.short] for ask in self.asks}
        said |= {
            "name": got["name"],
            "screw": got["screw"],
            "screw_length_mm": got["screw_length"],
            "top_mm": got["top"],
        }
        if "anchor" in self.fields:
            said["anchor"] = got["anchor"] or None
        length = got.get("length", piece.length_mm)
        if "supports" in self.changed_data:
            moved = replace(
                piece,
                left_mm=got["left"],
                supports_mm=self._supports(got["supports"], got["left"], length),
            )
        else:
            moved = replace(
                placement.resized(piece, self.desk.plan.wall, length), left_mm=got["left"]
            )
        return mount_of(piece).landed(replace(moved, **said), self.desk.plan.wall)

    def _supports(self, typed: str, left: float, length: float) -> tuple[float, ...]:
        found = []
        for n, part in enumerate(typed.replace(";", ",").split(","), start=1):
            if not part.strip():
                continue
            try:
                place = read_length(part, self.desk.units) - left
            except MeasureError as error:
                raise PlanError(f"Number {n}: {error}", "supports_mm") from None
            if not 0 <= place <= length:
                raise PlanError(f"Number {n}, {part.strip()}, is not within it.", "supports_mm")
            found.append(place)
        return tuple(sorted(set(found)))


def anchor_choices(wall: Wall, now: str | None) -> list[tuple[str, str]]:
    """Anchors that suit a wall, what is chosen now among them, and none at all."""
    bases: set[str | None] = {wall.structure}
    if wall.build != "mass":
        bases |= {layer.kind for layer in wall.layers or ()}
    rows = data.anchors() | {packet.key: packet.anchor for packet in wall.packets}
    fitting = [
        (key, row.name) for key, row in rows.items() if key == now or bases & set(row.holds_n)
    ]
    return [
        ("", "Nothing: screws in studs only" if wall.build != "mass" else "Nothing yet"),
        *fitting,
    ]


def form_for(desk: Desk, posted: Any = None) -> forms.Form | None:
    """The form of this stage for the piece that is worked on, or the job's policy."""
    if desk.look == "policy":
        return choose.PolicyForm(desk, posted)
    return FixForm(desk, desk.piece, posted) if desk.piece else None


@require_POST
def save(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Keep place, size and hardware."""
    desk = desk_or_404(request, wall, "fix", key)
    form = FixForm(desk, desk.chosen, request.POST)
    return change(
        desk,
        form,
        lambda plan: plan.with_piece(form.cleaned_data["piece"]),
        f"Change {desk.chosen.name}",
    )


@require_POST
def put_up(request: HttpRequest, wall: int) -> HttpResponse:
    """Put a new piece up where the person pointed."""
    desk = desk_or_404(request, wall, "fix", request.POST.get("piece"))
    if request.POST.get("kind") == "thing":
        return choose.hang(desk, request)
    try:
        piece = placement.put_up(
            desk.plan,
            request.POST.get("kind", ""),
            number_in(request, "x_mm"),
            number_in(request, "top_mm"),
        )
    except PlanError as error:
        return refused(desk, str(error))
    desk.key, desk.look = piece.key, ""
    return apply(desk, lambda plan: plan.with_piece(piece), f"Put up {piece.name}")


@require_POST
def move(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Move a piece; with `live`, only judge it there: nothing is kept until the finger lifts."""
    desk = desk_or_404(request, wall, request.POST.get("stage", "fix"), key)
    piece = desk.chosen
    try:
        left, top = number_in(request, "left_mm"), number_in(request, "top_mm")
        room = desk.plan.wall.width_mm - piece.length_mm
        moved = replace(
            piece,
            left_mm=min(max(left, 0.0), max(room, 0.0)),
            top_mm=_clamped_top(desk.plan, piece, top),
        )
        moved = mount_of(moved).landed(moved, desk.plan.wall)
        plan = desk.plan.with_piece(moved)
    except PlanError as error:
        return refused(desk, str(error))
    if request.POST.get("live"):
        if request.POST.get("seen") == key and desk.stage != "survey":
            return drag_update(desk, plan)
        desk.show(plan)
        return desk.fragment()
    return apply(desk, lambda _: plan, f"Move {piece.name}")


@require_POST
def support(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """One more support, or all of them set on the studs."""
    desk = desk_or_404(request, wall, "fix", key)
    piece, wall_now = desk.chosen, desk.plan.wall
    try:
        if request.POST.get("how") == "more":
            changed = placement.add_support(piece, wall_now)
        else:
            changed = placement.on_studs(piece, wall_now)
    except PlanError as error:
        return refused(desk, str(error))
    return apply(desk, lambda plan: plan.with_piece(changed), f"Supports of {piece.name}")


@require_POST
def remove(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Take a piece down; undo puts it back."""
    desk = desk_or_404(request, wall, request.POST.get("stage", "fix"), key)
    name, desk.key = desk.chosen.name, None
    return apply(desk, lambda plan: plan.without_piece(key), f"Take down {name}")


@long_running
@require_safe
def cures(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """What would cure a piece; asked for after the page is there, because it tries many things."""
    desk = desk_or_404(request, wall, "fix", key)
    found = findings(desk.plan, desk.chosen.key)
    return render(
        request, "bench/fix/_cures.html", {"desk": desk, "cures": offered(desk), "findings": found}
    )


@long_running
@require_safe
def along(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """What may hang at each place along a piece.

    Asked for after the page is there, because it tries many weights.
    """
    desk = desk_or_404(request, wall, "fix", key)
    piece, drawn = desk.chosen, ""
    if len(piece.supports_mm) > 1:
        drawn = along_drawing.draw(piece, places_along(piece, desk.plan.wall), desk.units)
    return render(request, "bench/fix/_along.html", {"drawing": drawn})


@long_running
@require_POST
def cure(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Apply a cure that was offered."""
    desk = desk_or_404(request, wall, "fix", key)
    found = dict(offered(desk)).get(request.POST.get("code", ""))
    if found is None:
        return refused(desk, "That cure no longer fits: the wall has changed since it was offered.")
    return apply(desk, lambda plan: plan.with_piece(found.piece), f"Cure {desk.chosen.name}")


def offered(desk: Desk) -> list[tuple[str, Cure]]:
    """The cures of the piece, each with the code that its button sends."""
    return [
        (f"{cure.code}-{n}", cure) for n, cure in enumerate(found_cures(desk.plan, desk.chosen.key))
    ]


def _clamped_top(plan: Plan, piece: AnyPiece, top: float) -> float:
    return min(max(top, piece.high_mm), plan.wall.height_mm)
