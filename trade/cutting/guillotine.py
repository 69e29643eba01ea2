"""Sheets while they are filled.

A part into the lower left corner of a free rectangle, parted off by cuts right across.
"""

from collections.abc import Callable, Iterator, Sequence
from math import inf
from typing import Literal, NamedTuple

from trade import data

TOUCHING_MM = 1e-6
_KEEP_MM = data.house("keep_wide_mm")
_SAME_MM = 0.05  # one setting of the saw


class Item(NamedTuple):
    """A part to cut: its label, along the sheet's grain and across it; `turns`.

    It may lie the other way.
    """

    label: str
    along_mm: float
    across_mm: float
    turns: bool = False


class Rect(NamedTuple):
    """A rectangle on a sheet, from its lower left corner."""

    left_mm: float
    bottom_mm: float
    wide_mm: float
    high_mm: float


class Blank(NamedTuple):
    """A sheet to cut from: along its grain, across it, its price, how many there are (None.

    As many as are wanted).

    `defect`: a rectangle of it that can't be used.
    """

    along_mm: float
    across_mm: float
    price: float = 1.0
    many: int | None = None
    defect: Rect | None = None


class ReadingIndex(NamedTuple):
    """A part where it lies on its sheet, from the sheet's lower left corner.

    The sheet's grain runs to the right.
    """

    label: str
    left_mm: float
    bottom_mm: float
    wide_mm: float
    high_mm: float
    turned: bool


class Cut(NamedTuple):
    """One cut right across a piece.

    `rip` along the grain, `cross` across it; where its near edge is, from where to where.

    `setting_mm`: from the piece's own lower or left edge, what the fence or the stop is set to;
    `after`: the cut that it needs to be done, by its number in the order in which they were found.
    """

    way: Literal["rip", "cross"]
    at_mm: float
    from_mm: float
    to_mm: float
    setting_mm: float = 0.0
    after: int | None = None


class Offcut(NamedTuple):
    """What is left over in one piece."""

    left_mm: float
    bottom_mm: float
    wide_mm: float
    high_mm: float

    @property
    def worth_keeping(self) -> bool:
        """Whether it is good for anything."""
        return min(self.wide_mm, self.high_mm) >= _KEEP_MM


class SheetCuts(NamedTuple):
    """One sheet.

    Out of which blank, what lies where, the cuts in the order in which they are made, what is left.
    """

    placed: tuple[ReadingIndex, ...]
    cuts: tuple[Cut, ...]
    offcuts: tuple[Offcut, ...]
    blank: int = 0

    @property
    def settings(self) -> int:
        """How often the saw is set."""
        same = sum(
            same_setting(before, after)
            for before, after in zip(self.cuts, self.cuts[1:], strict=False)
        )
        return len(self.cuts) - same


class Free(NamedTuple):
    """A rectangle of a sheet that nothing lies on yet; `after`: the cut that frees it."""

    left: float
    bottom: float
    wide: float
    high: float
    after: int | None = None


Fit = Callable[[Free, float, float], float]
"""How much a part of some size wastes in a free rectangle; the less the better."""
Split = Callable[[Free, float, float], bool]
"""Whether a free rectangle is ripped before it is crosscut for a part of a size."""


def room_of(blank: Blank, trim: float) -> tuple[float, float]:
    """Return what is left of a sheet once it is trimmed."""
    return blank.along_mm - 2 * trim, blank.across_mm - 2 * trim


def ways_of(part: Item, room: tuple[float, float]) -> Iterator[tuple[float, float, bool]]:
    """How a part may lie in a room."""
    for wide, high, turned in (
        (part.along_mm, part.across_mm, False),
        (part.across_mm, part.along_mm, True),
    ):
        if (
            (part.turns or not turned)
            and wide <= room[0] + TOUCHING_MM
            and high <= room[1] + TOUCHING_MM
        ):
            yield wide, high, turned


class _Sheet:
    """A sheet while it is being filled."""

    def __init__(self, n: int, blank: Blank, trim: float, kerf: float, rip_first: bool) -> None:
        self.blank = n
        self.free = [Free(trim, trim, *room_of(blank, trim))]
        self.placed: list[ReadingIndex] = []
        self.cuts: list[Cut] = []
        if blank.defect is not None:
            self._round(blank.defect, kerf, rip_first)

    def _cut(self, way: Literal["rip", "cross"], free: Free, at: float) -> int:
        """Cut a free rectangle right across; the cut's number."""
        low, start, end = (
            (free.bottom, free.left, free.left + free.wide)
            if way == "rip"
            else (free.left, free.bottom, free.bottom + free.high)
        )
        self.cuts.append(Cut(way, at, start, end, at - low, free.after))
        return len(self.cuts) - 1

    def _round(self, defect: Rect, kerf: float, rip_first: bool) -> None:
        """Part what is good from what is not, by up to four cuts; the bad piece is waste."""
        rest = self.free.pop()
        ways: tuple[Literal["rip", "cross"], ...] = (
            ("rip", "cross") if rip_first else ("cross", "rip")
        )
        for way in ways:
            near, size, low, high = (
                (rest.bottom, rest.high, defect.bottom_mm, defect.bottom_mm + defect.high_mm)
                if way == "rip"
                else (rest.left, rest.wide, defect.left_mm, defect.left_mm + defect.wide_mm)
            )
            if low - kerf - near > TOUCHING_MM:  # what lies before it
                after = self._cut(way, rest, low - kerf)
                good = low - kerf - near
                self.free.append(_part_of(rest, way, near, good, after))
                rest, near, size = (
                    _part_of(rest, way, low, size - (low - near), after),
                    low,
                    size - (low - near),
                )
            if near + size - high - kerf > TOUCHING_MM:  # what lies beyond it
                after = self._cut(way, rest, high)
                self.free.append(_part_of(rest, way, high + kerf, near + size - high - kerf, after))
                rest = _part_of(rest, way, near, high - near, after)

    def take(
        self, part: Item, free: Free, way: tuple[float, float, bool], kerf: float, rip_first: bool
    ) -> None:
        """Cut a part from the lower left corner with at most two full-width cuts."""
        wide, high, turned = way
        self.free.remove(free)
        self.placed.append(ReadingIndex(part.label, free.left, free.bottom, wide, high, turned))
        beside, above = free.wide - wide - kerf, free.high - high - kerf
        rest = free
        for cut in ("rip", "cross") if rip_first else ("cross", "rip"):
            if cut == "rip" and free.high - high > TOUCHING_MM:
                after = self._cut("rip", rest, free.bottom + high)
                if above > TOUCHING_MM:
                    self.free.append(
                        Free(free.left, free.bottom + high + kerf, rest.wide, above, after)
                    )
                rest = rest._replace(high=high, after=after)
            elif cut == "cross" and free.wide - wide > TOUCHING_MM:
                after = self._cut("cross", rest, free.left + wide)
                if beside > TOUCHING_MM:
                    self.free.append(
                        Free(free.left + wide + kerf, free.bottom, beside, rest.high, after)
                    )
                rest = rest._replace(wide=wide, after=after)

    def done(self) -> SheetCuts:
        """As it is now."""
        return SheetCuts(
            tuple(self.placed),
            tuple(self.cuts),
            tuple(Offcut(*free[:4]) for free in self.free),
            self.blank,
        )


def _part_of(
    free: Free, way: Literal["rip", "cross"], start: float, size: float, after: int
) -> Free:
    """Return the strip of a free rectangle from so far up, or so far to the right."""
    return (
        free._replace(bottom=start, high=size, after=after)
        if way == "rip"
        else free._replace(left=start, wide=size, after=after)
    )


class Shop:
    """One way to fill sheets."""

    def __init__(
        self, blanks: Sequence[Blank], main: int, kerf: float, trim: float, fit: Fit, split: Split
    ) -> None:
        """Sheets to open besides those at hand are of the blank numbered `main`; -1 for none."""
        self.blanks, self.main, self.kerf, self.trim, self.fit, self.split = (
            blanks,
            main,
            kerf,
            trim,
            fit,
            split,
        )

    def _open(self, n: int) -> _Sheet:
        blank = self.blanks[n]
        spot = blank.defect or Rect(0.0, 0.0, 0.0, 0.0)
        first = self.split(Free(0.0, 0.0, *room_of(blank, self.trim)), spot.wide_mm, spot.high_mm)
        return _Sheet(n, blank, self.trim, self.kerf, first)

    def pack(
        self, parts: Sequence[Item], first: Sequence[_Sheet] | None = None, more: bool = True
    ) -> list[SheetCuts] | None:
        """Fill the sheets at hand and as many more as it takes; None where it can't be done."""
        few = [n for n, blank in enumerate(self.blanks) if blank.many is not None]
        few.sort(key=lambda n: self.blanks[n].along_mm * self.blanks[n].across_mm)
        hand = [
            self._open(n) for n in few for _ in range(min(self.blanks[n].many or 0, len(parts)))
        ]
        sheets = list(first) if first is not None else hand
        for part in parts:
            best = self._place(part, sheets)
            if best is None:
                if self.main < 0 or not more:
                    return None
                sheets.append(self._open(self.main))
                free = sheets[-1].free[0]
                tries = [
                    (self.fit(free, way[0], way[1]), way)
                    for way in ways_of(part, (free.wide, free.high))
                ]
                if not tries:
                    return None
                best = (0.0, len(sheets) - 1, free, min(tries)[1])
            _, n, free, way = best
            sheets[n].take(part, free, way, self.kerf, self.split(free, way[0], way[1]))
        return [sheet.done() for sheet in sheets if sheet.placed]

    def _place(
        self, part: Item, sheets: Sequence[_Sheet]
    ) -> tuple[float, int, Free, tuple[float, float, bool]] | None:
        """Where a part goes best: how well, on which sheet, in which free rectangle, lying how."""
        best, fit = None, self.fit
        lies = tuple(ways_of(part, (inf, inf)))
        for n, sheet in enumerate(sheets):
            for free in sheet.free:
                for way in lies:
                    if way[0] <= free.wide + TOUCHING_MM and way[1] <= free.high + TOUCHING_MM:
                        merit = fit(free, way[0], way[1])
                        if best is None or merit < best[0]:
                            best = (merit, n, free, way)
        return best

    def fill(self, parts: Sequence[Item]) -> SheetCuts:
        """One sheet with as many of the parts as fit, in their order."""
        sheet = self._open(self.main)
        for part in parts:
            best = self._place(part, [sheet])
            if best is not None:
                sheet.take(
                    part, best[2], best[3], self.kerf, self.split(best[2], best[3][0], best[3][1])
                )
        return sheet.done()

    def smaller(self, sheet: SheetCuts, parts: Sequence[Item]) -> SheetCuts:
        """Return what is on a bought sheet out of a cheaper one, where it fits as well."""
        own, now = {each.label for each in sheet.placed}, self.blanks[sheet.blank]
        if now.many is not None:
            return sheet
        cheaper = [
            n
            for n, blank in enumerate(self.blanks)
            if blank.many is None and blank.price < now.price
        ]
        area = sum(each.wide_mm * each.high_mm for each in sheet.placed)
        for n in sorted(cheaper, key=lambda n: self.blanks[n].price):
            if area <= self.blanks[n].along_mm * self.blanks[n].across_mm:
                tried = self.pack(
                    [part for part in parts if part.label in own], [self._open(n)], more=False
                )
                if tried is not None:
                    return tried[0]
        return sheet


def same_setting(a: Cut, b: Cut) -> bool:
    """Whether two cuts need the same setting."""
    return a.way == b.way and abs(a.setting_mm - b.setting_mm) < _SAME_MM
