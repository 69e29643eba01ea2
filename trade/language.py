"""What Gancho says, so that it can be said in any language.

A text of ours is English, and a `str`. One that is put together keeps its template and its parts
beside its English, so that a `Voice` finds the template in a catalogue and says the parts in turn.
The core only makes texts: the shell prints their English, the pages `say` them.

What a person typed is a `str`, too. No catalogue has it, so it is said as it was typed.
"""

import re
from collections.abc import Iterable
from string import Formatter
from typing import Any, Literal, Protocol, TypeAlias, TypeVar

Said: TypeAlias = str | int
_Word = TypeVar("_Word", bound=str)


class Voice(Protocol):
    """A language: finds texts in its catalogue, and English where it has none."""

    @property
    def decimal(self) -> str:
        """What stands between the whole of a number and its fraction."""

    def one(self, text: str) -> str:
        """Return a text, or a template, in this language."""

    def counted(self, one: str, several: str, count: int) -> str:
        """Return the template for so many, in this language."""


class Figure(str):
    """A number as it is said, with a point before its fraction: `1.5 kg`."""

    __slots__ = ()


class Size(str):
    """A size as it is sold in each system: `1/2 in (12.7 mm)` where nobody's is known."""

    __slots__ = ("imperial", "metric")

    imperial: str
    metric: str


class Text(str):
    """A text of ours that was put together: its English is the string itself."""

    __slots__ = ("number", "parts", "several", "template")

    template: str
    parts: dict[str, Said]
    several: str
    """The template for other counts than one, or nothing where it counts nothing."""
    number: int


class _Filler(Formatter):
    """Fills a template; `{name!c}` begins with a capital, `{name!l}` with a small letter."""

    def convert_field(self, value: Any, conversion: str | None) -> Any:
        """Change the first letter, as the template asks."""
        if conversion == "c":
            return capital(str(value))
        if conversion == "l":
            return str(value)[:1].lower() + str(value)[1:]
        return super().convert_field(value, conversion)


_FILLER = _Filler()


def _filled(template: str, parts: dict[str, Said]) -> str:
    if "!" in template:
        return _FILLER.vformat(template, (), parts)
    return template.format(**parts)


def word(text: _Word) -> _Word:
    """Mark a single word as one that people read, for the catalogue; return it as it is."""
    return text


def compose(template: str, /, **parts: Said) -> Text:
    """Put a text together from a template of ours and its parts, which are said in turn."""
    return _made(template, parts, _filled(template, parts))


def _made(
    template: str, parts: dict[str, Said], english: str, several: str = "", count: int = 1
) -> Text:
    made = Text(english)
    made.template, made.parts, made.several, made.number = template, parts, several, count
    return made


_SIZES = re.compile(r"\[([^|\]]+) \| ([^|\]]+)\]")


def sized(name: str) -> str:
    """Return a name from a table as a text: `[1/2 in | 12.7 mm]` in it becomes a size."""
    found = _SIZES.findall(name)
    if not found:
        return name
    template = sized_template(name)
    return compose(template, **{f"size{n or ''}": size(*pair) for n, pair in enumerate(found)})


def sized_template(name: str) -> str:
    """Return the template of such a name: its sizes are `{size}`, `{size1}` and so on."""
    for n in range(len(_SIZES.findall(name))):
        name = _SIZES.sub(f"{{size{n or ''}}}", name, count=1)
    return name


def size(imperial: str, metric: str) -> Size:
    """Return a size as it is said in each system."""
    said = Size(f"{imperial} ({metric})")
    said.imperial, said.metric = imperial, metric
    return said


def in_system(what: str, units: Literal["imperial", "metric"]) -> str:
    """Return a text with each size in one system first, the other's behind it in brackets."""
    if isinstance(what, Size):
        first, other = what.imperial, what.metric
        return Figure(f"{first} ({other})" if units == "imperial" else f"{other} ({first})")
    if not isinstance(what, Text):
        return what
    parts = {
        name: in_system(part, units) if isinstance(part, str) else part
        for name, part in what.parts.items()
    }
    if all(part is what.parts[name] for name, part in parts.items()):
        return what
    template = what.several if what.several and parts["n"] != "1" else what.template
    return _made(what.template, parts, _filled(template, parts), what.several, what.number)


def counted(number: float, one: str, several: str, /, **parts: Said) -> Text:
    """Count something: `counted(2, "{n} hole", "{n} holes")`. `{n}` has at most one decimal."""
    said = f"{number:.1f}".removesuffix(".0")
    parts["n"] = Figure(said)
    template = one if said == "1" else several
    count = int(said) if "." not in said else 2
    return _made(one, parts, _filled(template, parts), several, count)


def several(noun: str) -> str:
    """Return the plural of a noun of ours; all of those end in `s`."""
    return f"{noun}s"


def numbered(number: int, noun: str) -> Text:
    """Count what has a noun of its own: 2 brackets."""
    return counted(number, "{n} {noun}", "{n} {nouns}", noun=noun, nouns=several(noun))


def joined(texts: Iterable[str], by: str = ", ") -> str:
    """Put texts in a row; the row is said piece by piece."""
    parts: dict[str, Said] = {f"t{n}": each for n, each in enumerate(texts)}
    between = by.replace("{", "{{").replace("}", "}}")
    return compose(between.join(f"{{{name}}}" for name in parts), **parts)


def capital(words: str) -> str:
    """Return words with a capital first letter, the rest as it is."""
    return words[:1].upper() + words[1:]


def small(words: str) -> str:
    """Return a text of ours that begins with a small letter."""
    return compose("{words!l}", words=words)


def say(what: str, voice: Voice) -> str:
    """Return a text in a language; in English where its catalogue has none or a broken one."""
    if isinstance(what, Text):
        template = (
            voice.counted(what.template, what.several, what.number)
            if what.several
            else voice.one(what.template)
        )
        parts = {
            name: say(part, voice) if isinstance(part, str) else part
            for name, part in what.parts.items()
        }
        try:
            return _filled(template, parts)
        except (KeyError, ValueError, IndexError):
            return str(what)
    if isinstance(what, Size):
        return f"{say(Figure(what.imperial), voice)} ({say(Figure(what.metric), voice)})"
    if isinstance(what, Figure):
        return what.replace(".", voice.decimal)
    return voice.one(what) if what else ""
