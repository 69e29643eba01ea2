"""Cutting diagrams.

A board as a bar with its parts, a sheet with its parts and its cuts in order.
"""

from django.utils.safestring import SafeString

from bench.drawing.svg import Pen, svg_element
from trade.cutting.plan import BoardJob, SheetJob, source_words
from trade.language import compose, counted
from trade.measure import Units, say_length

_WIDE, _BAR, _LETTERS, _LONGEST_MM = 760.0, 34.0, 7.0, 2438.4  # all sheets at one scale
_NUMBER = 15.0  # px: the circle with the number of a cut, and its rim


def board(job: BoardJob, n: int, units: Units) -> SafeString:
    """One board: its parts from the left, what is left hatched."""
    stock, parts = job.layout[n]
    source = job.stock[stock]
    longest = max(each.length_mm for each in job.stock)
    scale = _WIDE / longest
    pen = Pen()
    pen.rect(0, 2, source.length_mm * scale, _BAR, "stock")
    pen.hatch(0, 2, source.length_mm * scale, _BAR, 7, "waste")
    for part, start, end in parts:
        x, wide = start * scale, (end - start) * scale
        pen.rect(x, 2, wide, _BAR, "cut-part waits" if part.waits else "cut-part")
        said = f"{part.label}  {say_length(part.cut_mm[0], units)}"
        pen.text(
            x + wide / 2,
            23,
            said if wide > len(said) * _LETTERS else part.label,
            "cut-label",
            "middle",
        )
    return svg_element(
        pen,
        _WIDE,
        _BAR + 4,
        "cutting",
        compose(
            "{board}: {parts}",
            board=source_words(source, units),
            parts=", ".join(part.label for part, _, _ in parts),
        ),
    )


def sheet(job: SheetJob, n: int, units: Units) -> SafeString:
    """One sheet: its parts where they lie, the cuts as lines with their numbers."""
    cuts = job.plan.sheets[n]
    source = job.stock[cuts.blank]
    scale = _WIDE / max(_LONGEST_MM, source.length_mm)
    long, high = source.length_mm * scale, source.width_mm * scale
    pen = Pen()
    pen.rect(0, 0, long, high, "stock")
    pen.hatch(0, 0, long, high, 9, "waste")
    for offcut in cuts.offcuts:
        if offcut.worth_keeping:
            pen.rect(
                offcut.left_mm * scale,
                high - (offcut.bottom_mm + offcut.high_mm) * scale,
                offcut.wide_mm * scale,
                offcut.high_mm * scale,
                "offcut",
            )
    for each in cuts.placed:
        x, y = each.left_mm * scale, high - (each.bottom_mm + each.high_mm) * scale
        wide, tall = each.wide_mm * scale, each.high_mm * scale
        pen.rect(x, y, wide, tall, "cut-part waits" if job.parts[each.label].waits else "cut-part")
        size = f"{say_length(each.wide_mm, units)} × {say_length(each.high_mm, units)}"
        if tall > 78 and wide > len(size) * 2 * _LETTERS:
            pen.text(x + wide / 2, y + tall / 2 - 4, each.label, "sheet-label", "middle")
            pen.text(x + wide / 2, y + tall / 2 + 30, size, "sheet-size", "middle")
        elif tall > 22:
            pen.text(x + wide / 2, y + tall / 2 + 10, each.label, "sheet-label", "middle")
    numbered: list[tuple[float, float]] = []
    for number, cut in enumerate(cuts.cuts, start=1):
        if cut.way == "rip":
            x, y = cut.from_mm * scale + 16 + 30 * (number % 3), high - cut.at_mm * scale
        else:
            x, y = cut.at_mm * scale, high - cut.from_mm * scale - 16
        x, y = min(max(x, _NUMBER), long - _NUMBER), min(max(y, _NUMBER), high - _NUMBER)
        while any(abs(x - a) < 2 * _NUMBER and abs(y - b) < 2 * _NUMBER for a, b in numbered):
            y -= 2 * _NUMBER  # beside the one that is there
            x, y = (x + 2 * _NUMBER, high - _NUMBER) if y < _NUMBER else (x, y)
        numbered.append((x, y))
        pen.circle(x, y, 14, "cut-number")
        pen.text(x, y + 7, str(number), "cut-number-words", "middle")
    said = compose(
        "{sheet}, sheet {number}: {parts}, {cuts}",
        sheet=source_words(source, units),
        number=n + 1,
        parts=counted(len(cuts.placed), "{n} part", "{n} parts"),
        cuts=counted(len(cuts.cuts), "{n} cut", "{n} cuts"),
    )
    return svg_element(pen, long, high, "cutting", said)
