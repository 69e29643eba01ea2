"""The vial: a level's glass whose bubble drifts right toward two lines (0.8 and 1.0) and beyond."""

from django.utils.safestring import SafeString

from bench.drawing.svg import Pen, svg_element
from trade import say
from trade.check import Word

SIZES = {"small": (64.0, 10.0), "middle": (126.0, 14.0), "large": (200.0, 18.0)}
_FULL = 1.25  # utilisation at the right end of the glass


def draw(pen: Pen, x: float, y: float, w: float, h: float, utilisation: float, word: Word) -> None:
    """Draw a vial with its top left corner at x, y."""
    pen.rect(x, y, w, h, f"vial vial-{word}", rx=h / 2)
    for limit in (0.8, 1.0):
        at = x + w * limit / _FULL
        pen.line(at, y, at, y + h, "vial-line")
    if word == "cannot_tell":
        pen.text(x + w * 0.32, y + h * 0.82, "?", "vial-ask", "middle")
        return
    rx, ry = h * 0.62, h * 0.32
    at = x + min(max(w * utilisation / _FULL, rx + 2), w - rx - 2)
    pen.ellipse(at, y + h / 2, rx, ry, f"bubble bubble-{word}")
    if word == "wont_hold":
        pen.line(at - rx * 0.5, y + h / 2 - ry * 0.5, at + rx * 0.5, y + h / 2 + ry * 0.5, "bubble-cross")
        pen.line(at - rx * 0.5, y + h / 2 + ry * 0.5, at + rx * 0.5, y + h / 2 - ry * 0.5, "bubble-cross")


def markup(utilisation: float, word: Word, size: str) -> SafeString:
    """A vial on its own; its name says what it shows."""
    w, h = SIZES[size]
    pen = Pen()
    draw(pen, 0.75, 0.75, w, h, utilisation, word)
    name = say.WORDS[word] if word == "cannot_tell" else f"{say.utilisation(utilisation)} of what it can take: {say.WORDS[word]}"
    return svg_element(pen, w + 1.5, h + 1.5, f"vial-svg vial-{size}", name)
