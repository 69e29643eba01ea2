"""Lengths and weights as people say them, in and out. The only place where units are converted.

Inside, lengths are millimetres and masses are kilograms. A number without a unit is read in the
person's own units: inches for `imperial`, millimetres for `metric`. A fraction without
a unit is asked back there: inches may be meant, and are never guessed.
"""

import re
from fractions import Fraction
from typing import Literal

from trade.errors import MeasureError
from trade.language import Figure, compose

Units = Literal["imperial", "metric"]

INCH_MM = Fraction(254, 10)  # exact, international yard and pound agreement of 1959
IN_MM = float(INCH_MM)
INCH_64TH_MM = float(INCH_MM / 64)
POUND_KG = Fraction(45359237, 100000000)  # exact, same agreement
G_N_PER_KG = 9.80665  # standard gravity, exact by definition (CGPM 1901)
LBF_N = float(POUND_KG) * G_N_PER_KG
PSI_MPA = LBF_N / IN_MM**2
LB_PER_IN_N_PER_MM = LBF_N / IN_MM
LB_CU_FT_KG_M3 = float(POUND_KG) / (12 * IN_MM / 1000) ** 3

UNIT_SIGNS: dict[str, dict[Units, str]] = {
    "length": {"imperial": "in", "metric": "mm"},
    "weight": {"imperial": "lb", "metric": "kg"},
    "litre": {"imperial": "l", "metric": "l"},
    "each": {"imperial": "", "metric": ""},
    "load": {"imperial": "", "metric": ""},
}
"""What a bare number is read in; nothing where it has no unit or is asked back."""

ABSURD_MM = 30_000.0
ABSURD_KG = 5_000.0

_KG_N = Fraction(980665, 100000)

_UNICODE_FRACTIONS = {
    "½": "1/2",
    "⅓": "1/3",
    "⅔": "2/3",
    "¼": "1/4",
    "¾": "3/4",
    "⅕": "1/5",
    "⅖": "2/5",
    "⅗": "3/5",
    "⅘": "4/5",
    "⅙": "1/6",
    "⅚": "5/6",
    "⅛": "1/8",
    "⅜": "3/8",
    "⅝": "5/8",
    "⅞": "7/8",
}
_LENGTH_UNITS = {
    "mm": Fraction(1),
    "millimetre": Fraction(1),
    "millimeter": Fraction(1),
    "cm": Fraction(10),
    "centimetre": Fraction(10),
    "centimeter": Fraction(10),
    "m": Fraction(1000),
    "metre": Fraction(1000),
    "meter": Fraction(1000),
    '"': INCH_MM,
    "in": INCH_MM,
    "inch": INCH_MM,
    "inches": INCH_MM,
    "ins": INCH_MM,
    "'": INCH_MM * 12,
    "ft": INCH_MM * 12,
    "foot": INCH_MM * 12,
    "feet": INCH_MM * 12,
}
_WEIGHT_UNITS = {
    "kg": Fraction(1),
    "kilo": Fraction(1),
    "kilogram": Fraction(1),
    "g": Fraction(1, 1000),
    "gram": Fraction(1, 1000),
    "lb": POUND_KG,
    "pound": POUND_KG,
    "oz": POUND_KG / 16,
    "ounce": POUND_KG / 16,
}
_FORCE_UNITS = {  # N
    "n": Fraction(1),
    "newton": Fraction(1),
    "dan": Fraction(10),
    "kn": Fraction(1000),
    "kg": _KG_N,
    "kgf": _KG_N,
    "lb": _KG_N * POUND_KG,
    "lbf": _KG_N * POUND_KG,
    "pound": _KG_N * POUND_KG,
}
_NUMBER = r"\d+(?:\.\d+)?|\.\d+"
_AMOUNT = re.compile(
    rf"\s*(?:(?P<whole>{_NUMBER})(?:\s*-\s*|\s+))?(?P<num>\d+)\s*/\s*(?P<den>\d+)|\s*(?P<plain>{_NUMBER})"
)
_UNIT = re.compile(r"\s*(?P<unit>[a-z]+\.?|'|\")?\s*,?\s*")
_MOST_JOTTED = 200
_LENGTH_HINT = "Try 5' 4 3/8\", 64 3/8 in, 1620 mm or 1.62 m."
_WEIGHT_HINT = "Try 12 lb, 12 lb 4 oz or 5.5 kg."
_FORCE_HINT = "Try 80 lb, 36 kg or 0.35 kN."


def read_length(text: str, units: Units) -> float:
    """Read a length as said by a person; millimetres.

    Args:
        text: what was typed, such as `5' 4 3/8"`, `64-3/8`, `162 cm`, `1,62 m`, `1 620`.
        units: what a bare number means: inches (`imperial`) or millimetres (`metric`).

    Raises:
        MeasureError: nothing typed, unreadable, negative, or longer than 30 m; the sentence says
          what was read.
    """
    own, fraction = (INCH_MM, INCH_MM) if units == "imperial" else (Fraction(1), None)
    value = _read(text, _LENGTH_UNITS, own, fraction, "length", _LENGTH_HINT)
    if value > ABSURD_MM:
        said = say_length(float(value), units)
        raise MeasureError(
            compose(
                "“{typed}” reads as {said}, which is longer than any wall here may be (30 m).",
                typed=text.strip(),
                said=said,
            ),
            text,
        )
    return float(value)


def read_weight(text: str, units: Units) -> float:
    """Read a weight as said by a person; kilograms.

    A bare number is pounds (`imperial`) or kilograms (`metric`).

    Raises:
        MeasureError: nothing typed, unreadable, negative, or over 5 000 kg; the sentence says what
          was read.
    """
    own = POUND_KG if units == "imperial" else Fraction(1)
    value = _read(text, _WEIGHT_UNITS, own, own, "weight", _WEIGHT_HINT)
    if value > ABSURD_KG:
        said = say_weight(float(value), units)
        raise MeasureError(
            compose(
                "“{typed}” reads as {said}, which is more than Gancho plans for (5 000 kg).",
                typed=text.strip(),
                said=said,
            ),
            text,
        )
    return float(value)


def read_force(text: str) -> float:
    """Read what a packet states that something holds; N.

    Packets print pounds, kilograms, newtons and kilonewtons: a bare number is asked back.

    Raises:
        MeasureError: nothing typed, unreadable, negative, or no unit given.
    """
    if text.strip() and bare(text):
        said = "“{typed}” of what? Packets print different units. {hint}"
        raise MeasureError(compose(said, typed=text.strip(), hint=_FORCE_HINT), text)
    return float(_read(text, _FORCE_UNITS, Fraction(1), Fraction(1), "load", _FORCE_HINT))


def bare(text: str) -> bool:
    """Whether something typed is a number without a unit."""
    return re.search(r"[a-z\'\"]", _tidy(text)) is None


def jotted(text: str, noun: str) -> str:
    """Return what was jotted down as one thing, its spaces single.

    Raises:
        MeasureError: it is longer than anybody jots down one thing; what reads it looks back and
          forth over all of it.
    """
    said = " ".join(text.split())
    if len(said) > _MOST_JOTTED:
        raise MeasureError(
            compose("That is too long to be a {noun} ({n} characters).", noun=noun, n=len(said)),
            said[:_MOST_JOTTED],
        )
    return said


def _tidy(text: str) -> str:
    tidy = text.strip().lower()
    for sign, ascii_sign in _UNICODE_FRACTIONS.items():
        tidy = tidy.replace(sign, f" {ascii_sign}")
    for signs, ascii_sign in (
        ("″”“„˝", '"'),
        ("′’‘‛`´", "'"),
        ("⁄∕", "/"),
        ("−–—", "-"),
        ("\u00a0\u202f\u2009", " "),
    ):
        for sign in signs:
            tidy = tidy.replace(sign, ascii_sign)
    return tidy.replace("''", '"').strip()


def _something(text: str, noun: str, hint: str) -> str:
    """Return what was typed, tidied.

    Raises:
        MeasureError: nothing was typed, or more than anybody types.
    """
    tidy = _tidy(text)
    if not tidy:
        raise MeasureError(compose("A {noun} is missing here. {hint}", noun=noun, hint=hint), text)
    if len(tidy) > 60:
        raise MeasureError(
            compose(
                "That is too long to be a {noun} ({n} characters). {hint}",
                noun=noun,
                n=len(text.strip()),
                hint=hint,
            ),
            text,
        )
    return tidy


def _read(
    text: str,
    table: dict[str, Fraction],
    bare: Fraction,
    fraction_bare: Fraction | None,
    noun: str,
    hint: str,
) -> Fraction:
    tidy, quoted = _something(text, noun, hint), text.strip()

    def refuse(why: str) -> MeasureError:
        said = "Couldn't read “{typed}” as a {noun}: {why} {hint}"
        return MeasureError(compose(said, typed=quoted, noun=noun, why=why, hint=hint), text)

    if tidy.startswith("-"):
        raise refuse("it can't be negative.")
    if re.search(r"\d,\d{3}(?!\d)", tidy):
        raise refuse("a comma before three digits is ambiguous; leave it out or use a point.")
    tidy = _plain_decimals(tidy)

    total, at, last, last_was_bare = Fraction(0), 0, None, False
    while at < len(tidy):
        amount = _AMOUNT.match(tidy, at)
        if amount is None:
            raise refuse(compose("“{typed}” is not a number.", typed=tidy[at:].strip()))
        unit = _UNIT.match(tidy, amount.end())
        assert unit is not None  # every part of the pattern is optional
        name = (unit["unit"] or "").rstrip(".")
        scale = _scale_of(name, table)
        if name and scale is None:
            raise refuse(compose("“{name}” is not a known unit.", name=name))
        if scale is None and last_was_bare:
            raise refuse("two numbers stand side by side without a unit.")
        if scale is None:
            last_was_bare = True
            scale = _bare(last, table, fraction_bare if amount["num"] else bare)
        if scale is None:
            raise refuse(compose("of what? {typed} in, or so many mm?", typed=quoted))
        if last is not None and scale >= last:
            raise refuse("the parts should go from large to small.")
        if amount["den"] and int(amount["den"]) == 0:
            raise refuse("a fraction can't be over zero.")
        total += _amount(amount) * scale
        last, at = scale, unit.end()
    return total


def _plain_decimals(tidy: str) -> str:
    """Take the spaces out of `1 620` and make `1,62` a point."""
    if re.fullmatch(r"\d{1,3}(?: \d{3})+(?:[.,]\d+)?(?:\s*[a-z]+)?", tidy):
        tidy = re.sub(r"(?<=\d) (?=\d{3})", "", tidy)
    return re.sub(r"(?<=\d),(?=\d)", ".", tidy)


def _scale_of(name: str, table: dict[str, Fraction]) -> Fraction | None:
    return table.get(name, table.get(name.removesuffix("s"))) if name else None


def _amount(match: re.Match[str]) -> Fraction:
    if match["plain"]:
        return Fraction(match["plain"])
    return Fraction(match["whole"] or 0) + Fraction(int(match["num"]), int(match["den"]))


def _bare(
    last: Fraction | None, table: dict[str, Fraction], alone: Fraction | None
) -> Fraction | None:
    """Return the unit a bare number has behind another; `alone` where nothing is before it.

    Inches behind feet, ounces behind pounds, millimetres behind the rest.
    """
    if last is None:
        return alone
    follows = {INCH_MM * 12: INCH_MM, POUND_KG: POUND_KG / 16, Fraction(1000): Fraction(10)}
    return follows.get(last, min(table.values()))


def say_length(mm: float, units: Units, denominator: int = 16) -> str:
    """Write a length: whole millimetres, or inches with a fraction (feet and inches beyond 8 ft).

    Args:
        mm: the length, either sign.
        units: whose units to write in.
        denominator: the finest fraction of an inch, a power of two; 64 makes imperial round trips
          exact to 1/64 in.
    """
    sign = "−" if mm < 0 else ""
    if units == "metric":
        whole = round(abs(mm))
        return Figure(f"{sign if whole else ''}{whole} mm")
    parts = round(Fraction(abs(mm)) / INCH_MM * denominator)
    inches, rest = divmod(parts, denominator)
    feet = 0
    if inches > 96 or (inches == 96 and rest):
        feet, inches = divmod(inches, 12)
    fraction = Fraction(rest, denominator)
    words = [f"{feet}'"] if feet else []
    if fraction and inches:
        words.append(f'{inches} {fraction}"')
    elif fraction:
        words.append(f'{fraction}"')
    elif inches or not feet:
        words.append(f'{inches}"')
    return Figure((sign if parts else "") + " ".join(words))


def say_fine_length(mm: float, units: Units) -> str:
    """Write a small length (a drill bit, a sag, a gap).

    0.1 mm, or hundredths of an inch below 1/4 in, else 1/64 in.
    """
    if 0 < abs(mm) < (0.05 if units == "metric" else 0.127):
        least = Figure("0.1 mm" if units == "metric" else "0.01 in")
        return compose("under {least}", least=least)
    if units == "metric":
        return Figure(f"{mm:.1f} mm".replace("-", "−"))
    inches = mm / float(INCH_MM)
    if abs(inches) < 0.25:
        return Figure(f"{inches:.2f} in".replace("-", "−"))
    return say_length(mm, units, 64)


def say_gap(mm: float, units: Units) -> str:
    """Write a gap, a shim, a doubt, as it can be read off a rule.

    To 1/32 in, or to a tenth of a millimetre.
    """
    if units == "imperial":
        return say_length(mm, units, 32)
    return Figure(f"{mm:.1f} mm".replace("-", "−"))


def say_bit(mm: float, units: Units) -> str:
    """Write a drill bit as it is stamped: 64ths of an inch, or millimetres to a half."""
    if units == "imperial":
        return say_length(mm, units, 64)
    return Figure(f"{mm:.1f}".removesuffix(".0") + " mm")


def say_weight(kg: float, units: Units) -> str:
    """Write a weight: pounds, or kilograms; a decimal below ten."""
    value, unit = (kg / float(POUND_KG), "lb") if units == "imperial" else (kg, "kg")
    whole = abs(value) >= 9.95 or abs(value - round(value)) < 0.005
    return Figure(f"{value:.0f} {unit}" if whole else f"{value:.1f} {unit}")


def type_length(mm: float, units: Units) -> str:
    """Write a length for a form field; reading it again gives the same to 1/64 in or 0.1 mm."""
    if units == "imperial":
        return str(say_length(mm, units, 64))
    return f"{mm:.1f}".removesuffix(".0") + " mm"


def type_weight(kg: float, units: Units) -> str:
    """Write a weight for a form field, to a hundredth of a pound or kilogram."""
    value, unit = (kg / float(POUND_KG), "lb") if units == "imperial" else (kg, "kg")
    return f"{value:.2f}".rstrip("0").rstrip(".") + f" {unit}"
