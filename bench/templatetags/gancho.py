"""The one set of filters: quantities, sentences and vials in the person's units."""

import re
from collections.abc import Iterable
from typing import Any

from django import template
from django.forms import BaseForm, BoundField
from django.urls import reverse
from django.utils.html import conditional_escape, escape
from django.utils.safestring import SafeString, mark_safe

from bench.drawing import merits
from bench.drawing import vial as vials
from bench.drawing.scale import Scale
from bench.once import once_field
from bench.printing.shop_sheet import money as cents
from bench.printing.shop_sheet import needed, taken
from bench.words import memoized_in_language, name_in, said, say
from trade import data, wording
from trade.calculation import Equation
from trade.check import Check, Outcome, PieceVerdict
from trade.cutting.parts import CutPart
from trade.cutting.shopping import ShoppingItem
from trade.language import joined
from trade.language import small as small_letter
from trade.marking.marks import Mark
from trade.marking.reading import read as from_datum
from trade.marking.reading import say_across, say_up
from trade.measure import Units, say_bit, say_fine_length, say_gap, say_length, say_weight
from trade.memo import memoized
from trade.mounts.base import AnySupport, Mount
from trade.plan.model import AnyPiece, Plan

register = template.Library()
register.filter(name_in)
register.simple_tag(once_field)
register.filter(said)


@register.filter(name="say")
def say_text(text: str) -> str:
    """Return a text of the trade in the reader's language."""
    return say(text) if isinstance(text, str) else text


@register.filter
def tape(mm: float, units: Units) -> str:
    """Return a length in mm, said."""
    return say(say_length(mm, units))


@register.filter
def screw_words(support: AnySupport, units: Units) -> str:
    """Return what goes into each hole of a support."""
    return say(support.words(units))


@register.filter
def bit(mm: float | None, units: Units) -> str:
    """Return a drill bit, said."""
    return say(say_bit(mm, units) if mm else "none")


@register.filter
def small(mm: float, units: Units) -> str:
    """Return a small length in mm, said."""
    return say(say_fine_length(mm, units))


@register.filter
def gap(mm: float, units: Units) -> str:
    """Return a gap, a shim, a doubt in mm, said as it can be read off a rule."""
    return say(say_gap(mm, units))


@register.filter
def percent(share: float) -> str:
    """Return a probability, said."""
    return say(wording.chance(share))


@register.filter
def weight(kg: float, units: Units) -> str:
    """Return a mass in kg, said."""
    return say(say_weight(kg, units))


@register.filter
def money(cost: float, units: Units) -> str:
    """Return a rough price."""
    return f"{'$' if units == 'imperial' else '€'}{cost:.0f}"


@register.filter
def word(what: Outcome) -> str:
    """Return the word of a verdict: Holds, Close, Won't hold, Can't tell."""
    return say(wording.WORDS[what])


@register.filter
def outcome(what: wording.Judged) -> str:
    """Return the word on a piece, with its worst nuisance: Holds, but sags."""
    return say(wording.outcome(what))


@register.filter
def outcome_used(what: wording.Judged) -> str:
    """Return the same in a line: holds, but sags, 0.61."""
    return say(small_letter(wording.outcome_used(what)))


@register.filter
def standings(verdict: PieceVerdict) -> tuple[wording.Standing, ...]:
    """Strength, service and fit, apart, the worst first."""
    return wording.standings(verdict)


@register.filter
def besides(verdict: PieceVerdict) -> tuple[wording.Standing, ...]:
    """Return what else is wrong besides what the headline says."""
    return wording.besides(verdict)


@register.filter
def used(value: float) -> str:
    """Return a utilisation, never rounded to look better."""
    return say(wording.utilisation(value))


@register.filter
def against(check: Check, units: Units) -> str:
    """Demand of capacity."""
    return say(wording.check_line(check, units))


@register.filter
def headline(verdict: PieceVerdict, units: Units) -> str:
    """Return the sentence on a piece."""
    return say(wording.headline(verdict, units))


@register.filter
def exact(value: float) -> str:
    """All digits of a number, for machines."""
    return repr(float(value))


@register.filter
def structure(key: str) -> str:
    """Return what a wall is made of, by its row."""
    return say(data.structures()[key].name)


@register.filter
@memoized(limit=2_000)
def maths(words: str) -> SafeString:
    """Return a formula with its indices set low: `F_em` becomes F with em below."""
    low = re.sub(r"_([A-Za-z0-9α-ω∞]+(?:_[A-Za-z0-9]+)?)", r"<sub>\1</sub>", escape(words)).replace(
        "_", " "
    )
    return mark_safe(re.sub(r"\^(−?[\d.]*\d)", r"<sup>\1</sup>", low))


@register.filter
def sum_lines(
    equations: Iterable[Equation], units: Units
) -> list[tuple[SafeString, SafeString, SafeString, str]]:
    """Return a sum line by line: symbol, meaning, expression, value."""
    return [
        (
            maths(line.symbol),
            maths(say(line.meaning)),
            maths(line.expression),
            said(line.result, units),
        )
        for line in equations
    ]


@memoized_in_language(4)
def _terms() -> tuple[re.Pattern[str], dict[str, str]]:
    """Return what finds a word of the trade in a sentence, in one or more; its key by the word."""
    keys = {say(row.name).lower(): key for key, row in data.glossary().items() if row.underlined}
    names = "|".join(re.escape(name) for name in sorted(keys, key=len, reverse=True))
    return re.compile(rf"“[^”]*”|(?<!\w)({names})s?(?!\w)", re.IGNORECASE), keys


@register.filter
def terms(words: str) -> SafeString:
    """Return a sentence whose words of the trade lead to what they mean, each once."""
    pattern, keys = _terms()
    met: set[str] = set()

    def linked(match: re.Match[str]) -> str:
        key = keys[match[1].lower()] if match[1] else ""  # what people named stays as it is
        if not key or key in met:
            return match[0]
        met.add(key)
        page, note = reverse("glossary"), reverse("term", args=[key])
        how = f'hx-get="{note}" hx-target="#term" hx-swap="innerHTML"'
        return f'<a class="term" href="{page}#{key}" {how}>{match[0]}</a>'

    return mark_safe(pattern.sub(linked, conditional_escape(words)))


@register.filter
def listed(texts: list[str]) -> str:
    """Return texts of the trade in a row."""
    return say(joined(texts))


@register.filter
def plain(value: float) -> str:
    """Return a number of a table, in as few digits as it has, at most six."""
    return f"{value:.6g}"


@register.filter
def inert(markup: SafeString) -> SafeString:
    """Return a drawing that is only looked at: nothing in it can be reached or found by its id."""
    return mark_safe(re.sub(r' (?:id|tabindex|role|aria-[a-z]+|data-[a-z]+)="[^"]*"', "", markup))


@register.filter
def named(names: dict[str, str], key: str) -> str:
    """Return what a key is called."""
    return names.get(key, key)


@register.filter
def plus(one: float, other: float) -> str:
    """Where the second of two bars ends, for drawings."""
    return f"{one + other:.2f}"


@register.simple_tag
def on_sheet(scale: Scale, mark: Mark) -> tuple[str, str]:
    """Where a mark is on the drawing at the wall."""
    return f"{scale.x(mark.x_mm):.1f}", f"{scale.y(mark.y_mm):.1f}"


@register.simple_tag
def reading(plan: Plan, piece: AnyPiece, mark: Mark, units: Units) -> tuple[str, str]:
    """Where a hole is, read off the tape from the datum: across, and up."""
    read = from_datum(plan.datum, piece, plan.wall, mark.x_mm, mark.y_mm)
    return say(say_across(read, plan.datum, units)), say(say_up(read, plan.datum, units))


@register.simple_tag
def measured_field(form: BaseForm, part: CutPart) -> BoundField:
    """Return the field for what is measured of a part."""
    return form[f"{part.key}--{part.name}"]


@register.filter
def worked(part: CutPart, units: Units) -> list[str]:
    """Return what is done to a part, a sentence each."""
    return [said(work.phrase(units), units) for work in part.detail.works]


@register.filter
def exactly(cost: float, units: Units) -> str:
    """Return a price to the cent."""
    return cents(cost, units)


@register.filter
def packs(line: ShoppingItem) -> str:
    """How many to take of a line of the shopping list."""
    return taken(line)


@register.filter
def wanted(line: ShoppingItem) -> str:
    """How much of it is needed, where that is less than what is bought."""
    return needed(line)


@register.filter
def share(part: float) -> str:
    """Return a part of a whole, in whole hundredths."""
    return f"{part * 100:.0f} %"


@register.simple_tag
def merit(mark: float) -> SafeString:
    """Return a merit from 0 to 1 as notches on a lath, five of them for all of it."""
    return merits.markup(mark)


@register.simple_tag
def vial(what: wording.Judged | Check, size: str = "middle") -> SafeString:
    """Return a vial on its own."""
    return vials.markup(what, size)


@register.filter
def icon(mount: Mount[Any]) -> str:
    """Return the template of a kind's small drawing."""
    return f"bench/icons/{mount.kind}.html"
