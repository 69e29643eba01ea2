"""Form fields that read what people say, and keep what they typed."""

import math
from collections.abc import Callable
from typing import Any, Literal

from django import forms
from django.forms.renderers import Jinja2
from django.http import HttpRequest
from django.utils.safestring import SafeString, mark_safe
from django.utils.translation import gettext as _

from bench.words import worded
from trade.errors import MeasureError, PlanError
from trade.measure import (
    G_N_PER_KG,
    INCH_MM,
    UNIT_SIGNS,
    Units,
    read_force,
    read_length,
    read_weight,
    type_length,
    type_weight,
)

Noun = Literal["length", "weight", "load"]
_READ: dict[Noun, Callable[[str, Units], float]] = {
    "length": read_length,
    "weight": read_weight,
    "load": lambda text, _: read_force(text),
}
_TYPE: dict[Noun, Callable[[float, Units], str]] = {
    "length": type_length,
    "weight": type_weight,
    "load": lambda force_n, units: type_weight(force_n / G_N_PER_KG, units),
}
_NUDGES = {"left": (-1, 0), "right": (1, 0), "up": (0, 1), "down": (0, -1)}
_STEPS_MM: dict[Units, tuple[float, float]] = {
    "imperial": (float(INCH_MM) / 16, float(INCH_MM)),
    "metric": (1.0, 10.0),
}  # a tap of an arrow key, and with Shift


class Renderer(Jinja2):
    """Render forms with Jinja2.

    The workbench has some thirty fields, and Django's own templates take five times as long.
    """

    field_template_name = "bench/field.html"


_RENDERER = Renderer()


def number_in(request: HttpRequest, name: str) -> float:
    """Return a number that the page sent, such as a place on the wall in mm.

    Raises:
        PlanError: it did not arrive as one.
    """
    try:
        value = float(request.POST.get(name, ""))
    except ValueError:
        value = math.nan
    if not math.isfinite(value):
        raise PlanError(_("The place on the wall is not a number."))
    return value


class MeasureInput(forms.TextInput):
    """An input for a number that shows its unit while it is empty and while somebody types.

    `unit`: what a bare number is read in, as it is written; empty where none is. `shown`: what sort
    of unit that is, posted with the number where it may change while the page is open.
    """

    template_name = "bench/measure.html"

    def __init__(self, unit: str = "") -> None:
        """Type freely: fractions, feet and inches, other units."""
        # the placeholder lets the style sheet know whether anything is typed
        super().__init__(
            {"autocomplete": "off", "inputmode": "text", "spellcheck": "false", "placeholder": " "}
        )
        self.unit, self.shown = unit, ""

    def get_context(self, name: str, value: Any, attrs: dict[str, Any] | None) -> dict[str, Any]:
        """Tell the template the unit."""
        return super().get_context(name, value, attrs) | {"sign": self.sign(name)}

    def sign(self, name: str) -> SafeString:
        """Return the unit as it stands in the field of that name."""
        return mark_safe(_RENDERER.render("bench/unit.html", {"field": name, "input": self}))


class MeasureField(forms.CharField):
    """A length, a weight or a load. `cleaned_data`: mm, kg or N, None when empty, not required.

    What was not changed keeps its exact value: the field shows 1/64 in or 0.1 mm, the plan may know
    better.
    """

    def __init__(
        self, units: Units, value: float | None = None, noun: Noun = "length", **kwargs: Any
    ) -> None:
        """Show `value` in `units`; a bare number typed is read in them, but for a load's."""
        self.units, self.value = units, value
        self._read, self._type = _READ[noun], _TYPE[noun]
        kwargs.setdefault("max_length", 200)
        kwargs.setdefault("widget", MeasureInput(UNIT_SIGNS[noun][units]))
        super().__init__(initial="" if value is None else self._type(value, units), **kwargs)

    def clean(self, value: Any) -> Any:
        """Read what was typed.

        Raises:
            ValidationError: with the sentence of the trade.
        """
        text = (value or "").strip()
        if not text:
            if self.required:
                raise forms.ValidationError(_("Fill in this field."))
            return None
        if self.value is not None and text == self.initial:
            return self.value
        try:
            return self._read(text, self.units)
        except MeasureError as error:
            raise forms.ValidationError(str(error)) from None


def read_places(typed: str, units: Units) -> list[tuple[str, float]]:
    """Read lengths with commas between them: each as it was typed, and in mm.

    Raises:
        MeasureError: which of them can't be read, and why.
    """
    found = []
    parts = [part.strip() for part in typed.replace(";", ",").split(",")]
    for n, part in enumerate(parts, start=1):
        if not part:
            continue
        try:
            found.append((part, read_length(part, units)))
        except MeasureError as error:
            said = worded("Number {n}: {error}", n=n, error=error.said)
            raise MeasureError(said, part) from None
    return found


class PlacesField(forms.CharField):
    """Several lengths, with commas between them. `cleaned_data`: mm, from the least on."""

    def __init__(self, units: Units, value: tuple[float, ...], **kwargs: Any) -> None:
        """Show `value` in `units`; what was not changed keeps its exact value."""
        self.units, self.value = units, value
        typed = ", ".join(type_length(mm, units) for mm in value)
        kwargs.setdefault("widget", MeasureInput(UNIT_SIGNS["length"][units]))
        super().__init__(initial=typed, required=False, max_length=400, **kwargs)

    def clean(self, value: Any) -> tuple[float, ...]:
        """Read what was typed.

        Raises:
            ValidationError: with the sentence of the trade.
        """
        if (value or "").strip() == self.initial:
            return self.value
        try:
            return tuple(sorted({mm for _, mm in read_places(value or "", self.units)}))
        except MeasureError as error:
            raise forms.ValidationError(str(error)) from None


def moved_place(
    request: HttpRequest, units: Units, left_mm: float, top_mm: float
) -> tuple[float, float]:
    """Return where a request moves something to, mm: to a place, or a step from where it is.

    Raises:
        PlanError: no place or direction that can be read.
    """
    nudge = request.POST.get("nudge")
    if nudge is None:
        return number_in(request, "left_mm"), number_in(request, "top_mm")
    if nudge not in _NUDGES:
        raise PlanError(worded("“{nudge}” is not a direction.", nudge=nudge[:20]), "nudge")
    across, up = _NUDGES[nudge]
    step, far = _STEPS_MM[units]
    by = far if request.POST.get("far") else step
    return left_mm + across * by, top_mm + up * by


class BenchForm(forms.Form):
    """A form of the workbench.

    No colons, ids that stay the same when the fragment is drawn again.
    """

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        """Set the house style."""
        kwargs.setdefault("label_suffix", "")
        super().__init__(*args, **kwargs)

    def refuse(self, error: PlanError) -> None:
        """Put a plan's refusal beside the field that it is about, else on top of the form."""
        parts = error.where.replace("]", "").replace("[", ".").split(".")
        field = next(
            (
                name
                for part in reversed(parts)
                for name in (part, *_ALIASES.get(part, ()))
                if name in self.fields
            ),
            None,
        )
        self.add_error(field, str(error))


_ALIASES = {
    "left_mm": ("left",),
    "top_mm": ("top",),
    "length_mm": ("length",),
    "depth_mm": ("depth",),
    "thickness_mm": ("thickness", "thick"),
    "supports_mm": ("supports",),
    "screw_length_mm": ("screw_length",),
    "width_mm": ("width",),
    "height_mm": ("height",),
    "centre_mm": ("studs",),
    "uncertainty_mm": ("give",),
    "layers": ("lining",),
    "features": ("studs",),
}


def mark_invalid(form: forms.BaseForm) -> None:
    """Tell assistive technology which fields are wrong and where the sentence stands."""
    for name in form.errors:
        if name in form.fields:
            attrs = form.fields[name].widget.attrs
            attrs["aria-invalid"] = "true"
            attrs["aria-describedby"] = f"error-{form.add_prefix(name)}"
