"""The vial: a level's glass whose bubble drifts right toward two lines (0.8 and 1.0) and beyond."""

from django.utils.safestring import SafeString

from bench.drawing.svg import Pen, number, svg_element
from bench.words import worded
from trade import wording
from trade.check import Check, Outcome

SIZES = {"small": (64.0, 10.0), "middle": (126.0, 14.0), "large": (200.0, 18.0)}
_FULL = 1.25  # utilisation at the right end of the glass


def draw(pen: Pen, x: float, y: float, w: float, h: float, what: wording.Judged | Check) -> None:
    """Draw a vial with its top left corner at x, y.

    Strength in the glass, a bar that sags under it, a block too big for it.
    """
    outcome: Outcome = what.outcome
    used = what.utilisation if isinstance(what, Check) else what.used
    pen.rect(x, y, w, h, f"vial vial-{outcome}", rx=h / 2)
    for limit in (0.8, 1.0):
        at = x + w * limit / _FULL
        pen.line(at, y, at, y + h, "vial-line")
    if outcome == "holds_but" or (what.but and not isinstance(what, Check)):
        left, right, foot = number(x + h / 2), number(x + w - h / 2), number(y + h + 1.5)
        pen.path(
            f"M{left} {foot}Q{number(x + w / 2)} {number(y + h + 8.5)} {right} {foot}", "vial-sag"
        )
    if outcome == "cannot_tell":
        pen.text(x + w * 0.32, y + h * 0.82, "?", "vial-ask", "middle")
        return
    rx, ry = h * 0.62, h * 0.32
    at = x + min(max(w * used / _FULL, rx + 2), w - rx - 2)
    if outcome == "doesnt_fit":
        pen.rect(at - rx, y - 2, 2 * rx, h + 4, "block")
        return
    pen.ellipse(at, y + h / 2, rx, ry, f"bubble bubble-{outcome}")
    if outcome == "wont_hold":
        pen.line(
            at - rx * 0.5, y + h / 2 - ry * 0.5, at + rx * 0.5, y + h / 2 + ry * 0.5, "bubble-cross"
        )
        pen.line(
            at - rx * 0.5, y + h / 2 + ry * 0.5, at + rx * 0.5, y + h / 2 - ry * 0.5, "bubble-cross"
        )


def markup(what: wording.Judged | Check, size: str) -> SafeString:
    """Return a vial on its own; its name says what it shows."""
    w, h = SIZES[size]
    pen = Pen()
    draw(pen, 0.75, 2.75, w, h, what)
    return svg_element(pen, w + 1.5, h + 9.5, f"vial-svg vial-{size}", _name(what))


def _name(what: wording.Judged | Check) -> str:
    if isinstance(what, Check):
        over = worded(
            "{utilisation} of what it can take: {words}",
            utilisation=wording.utilisation(what.utilisation),
            words=wording.WORDS[what.outcome],
        )
        return (
            wording.WORDS[what.outcome] if what.outcome in ("cannot_tell", "doesnt_fit") else over
        )
    return wording.outcome_used(what)
