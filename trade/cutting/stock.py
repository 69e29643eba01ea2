"""The yard: what is sold and what is at hand, and how a group of parts is cut out of it.

What was worked out is remembered.
"""

from collections import Counter, defaultdict
from collections.abc import Iterable, Sequence
from functools import cache
from itertools import product
from threading import Lock
from typing import Any, NamedTuple

from trade import data
from trade.cutting.lengths import LengthPlan, cut_lengths, cuts_mm
from trade.cutting.parts import CutPart
from trade.cutting.sheets import Blank, Rect, SheetPlan, cut_sheets
from trade.cutting.sheets import Item as SheetPart
from trade.language import Figure, compose, joined
from trade.measure import Units
from trade.plan.shop import OnHand, Shop

NEAR_MM = data.house("board_near_mm")
_SAME_MM = 1e-6
_WIDER_MM = data.house("board_wider_mm")
_KEEP_LONG_MM = data.house("keep_long_mm")
_MOST_KEPT = 64  # groups whose cutting is remembered


class Source(NamedTuple):
    """A board or a sheet that parts are cut from: as sold, or at hand.

    `key`: its price's; empty at hand.

    `hand`: which of those at hand it is, and `from_mm` where on it this good stretch begins; None
    for what is sold.
    """

    name: str
    board: str
    kind: str
    length_mm: float
    width_mm: float
    thickness_mm: float
    price: float
    key: str = ""
    many: int | None = None
    hand: int | None = None
    from_mm: float = 0.0
    round: bool = False


def source_words(source: Source, units: Units) -> str:
    """Return what to ask for in the shop.

    By its usual name in inches, its actual sizes in millimetres; what is at hand by its own.
    """
    if units == "imperial" or source.hand is not None:
        return source.name
    size = joined(
        (f"{mm:.0f}" for mm in (source.length_mm, source.width_mm, source.thickness_mm)), " × "
    )
    if source.round:
        return compose(
            "{wood} dowel, {width} mm, {length} mm long",
            wood=data.boards()[source.board].name,
            width=Figure(f"{source.width_mm:.0f}"),
            length=Figure(f"{source.length_mm:.0f}"),
        )
    return compose(
        "{wood} {kind}, {size} mm",
        wood=data.boards()[source.board].name,
        kind=source.kind,
        size=size,
    )


Row = tuple[tuple[CutPart, float, float], ...]
"""Parts on one board, each with where it begins and ends."""


class BoardJob(NamedTuple):
    """Parts out of boards of one width: what there is, the parts, and which board gives which."""

    stock: tuple[Source, ...]
    parts: tuple[CutPart, ...]
    plan: LengthPlan
    layout: tuple[tuple[int, Row], ...]

    @property
    def settings(self) -> list[tuple[float, list[str]]]:
        """What the stop is set to, and the labels that are cut at each setting."""
        found: dict[float, list[str]] = defaultdict(list)
        for part in self.parts:
            found[round(part.cut_mm[0], 1)].append(part.label)
        return sorted(found.items(), reverse=True)

    @property
    def waste(self) -> float:
        """What part of the boards is neither a part nor worth keeping."""
        used = [self.stock[stock] for stock, _ in self.layout]
        area = sum(source.length_mm * source.width_mm for source in used)
        good = sum(part.cut_mm[0] * part.width_mm for part in self.parts)
        return (
            1 - (good + sum(o.length_mm * o.width_mm for o in ends(self))) / area if area else 0.0
        )


class SheetJob(NamedTuple):
    """Parts out of sheets of one kind."""

    stock: tuple[Source, ...]
    parts: dict[str, CutPart]
    plan: SheetPlan

    @property
    def waste(self) -> float:
        """What part of the sheets is neither a part nor worth keeping."""
        area = sum(
            self.stock[s.blank].length_mm * self.stock[s.blank].width_mm for s in self.plan.sheets
        )
        good = sum(each.wide_mm * each.high_mm for s in self.plan.sheets for each in s.placed)
        kept = sum(
            o.wide_mm * o.high_mm for s in self.plan.sheets for o in s.offcuts if o.worth_keeping
        )
        return 1 - (good + kept) / area if area else 0.0


class Group(NamedTuple):
    """Parts that are cut together: out of boards of one width, or out of sheets (of width 0 here).

    `trim_mm`: what is cut off their edges first; nought for parts as large as what is sold, which
    keep its own edges.
    """

    kind: str
    board: str
    width_mm: float
    thick_mm: float
    trim_mm: float
    parts: tuple[CutPart, ...]


@cache
def _sold(units: Units) -> tuple[Source, ...]:
    """All that is sold, what is sold in the person's units first."""
    return tuple(
        Source(
            row.name,
            row.board,
            row.kind,
            row.length_mm,
            row.width_mm,
            row.thickness_mm,
            row.price,
            f"stock:{key}",
            round=row.shape == "round",
        )
        for key, row in sorted(data.stock().items(), key=lambda each: each[1].system != units)
    )


_lock = Lock()
_known: dict[Any, Any] = {}
"""Cuttings by what they were worked out from, the oldest first."""


class StockAllocation:
    """What is sold and what is at hand, and how much of that is left."""

    def __init__(self, shop: Shop, units: Units, kerf_mm: float, trim_mm: float) -> None:
        """All that is at hand is still there."""
        prices = {price.of: price.each for price in shop.prices}
        self.kerf, self.trim = kerf_mm, trim_mm
        self.sold = [
            s._replace(price=prices[s.key]) if s.key in prices else s for s in _sold(units)
        ]
        self.usual = sum(
            row.system == units for row in data.stock().values()
        )  # so many of those come first
        self.hand = shop.on_hand
        self.left = [each.many for each in shop.on_hand]

    def groups(self, parts: Sequence[CutPart]) -> tuple[list[Group], list[CutPart]]:
        """Parts that are cut out of one kind of board or sheet together.

        And those of no size that there is.
        """
        found: dict[tuple[str, str, float, float, float, bool], list[CutPart]] = defaultdict(list)
        none: list[CutPart] = []
        for part in parts:
            source, cut, trim = self._for(part)
            if source is None:
                none.append(part)
            else:
                width = 0.0 if source.kind == "sheet" else source.width_mm
                found[
                    (source.kind, part.board, width, source.thickness_mm, trim, part.round)
                ].append(part._replace(cut_mm=cut))
        return [Group(*key[:5], tuple(own)) for key, own in found.items()], none

    def solve(self, group: Group, patient: bool = True) -> BoardJob | SheetJob | None:
        """How a group is cut out of what is sold and of what is left at hand.

        Args:
            group: its parts.
            patient: work it out; else None where that was not done before.

        Raises:
            PlanError: of what is only at hand there is too little.
        """
        stock = tuple(self._stock(group))
        key = (
            group,
            stock,
            tuple(_spot(self.hand, source.hand) for source in stock),
            self.kerf,
            group.trim_mm,
        )
        job = _known.get(key)
        if job is None:
            if not patient:
                return None
            job = _sheets(*key) if group.kind == "sheet" else _boards(*key)
            with _lock:
                _known[key] = job
                while len(_known) > _MOST_KEPT:
                    del _known[next(iter(_known))]
        numbers = (
            (n for n, _ in job.layout)
            if isinstance(job, BoardJob)
            else (sheet.blank for sheet in job.plan.sheets)
        )
        for hand, many in used(job.stock, numbers).items():
            self.left[hand] -= many
        return job

    def _for(self, part: CutPart) -> tuple[Source | None, tuple[float, float], float]:
        """Return the narrowest board or the largest sheet for a part, sold or else at hand.

        How large it is sawn; what is trimmed first.

        As large as it must be to be scribed; where nothing gives so much, its finished size; and
        where that is as large as what is sold, the edges stay as they are.
        """
        hand = [self._source(n, each, 0.0, each.length_mm) for n, each in enumerate(self.hand)]
        sizes = dict.fromkeys((part.rough_mm, (part.length_mm, part.width_mm)))
        for stock in (self.sold[: self.usual], self.sold[self.usual :], hand):
            alike = [s for s in stock if _alike(s, part)]
            for trim, (length, width) in product(dict.fromkeys((self.trim, 0.0)), sizes):
                fitting = [source for source in alike if _fits(source, part, length, width, trim)]
                if fitting:
                    best = min(
                        fitting,
                        key=lambda each: each.width_mm if each.kind == "board" else -each.length_mm,
                    )
                    return (
                        best,
                        (length, min(width, best.width_mm) if best.kind == "board" else width),
                        trim,
                    )
        return None, (part.length_mm, part.width_mm), self.trim

    def _source(self, n: int, each: OnHand, start: float, end: float) -> Source:
        whole = (start, end) == (0.0, each.length_mm)
        return Source(
            each.name if whole else compose("{each}, a good stretch", each=each.name),
            each.board,
            each.kind,
            end - start,
            each.width_mm,
            each.thickness_mm,
            0.0,
            "",
            each.many,
            n,
            start,
        )

    def _stock(self, group: Group) -> list[Source]:
        """All that a group of parts may be cut from.

        What is sold in its size, and what is at hand and wide enough.
        """
        kind, board, width, thick, trim, own = group
        widest = max(part.width_mm for part in own)
        found = [
            source
            for source in self.sold
            if (source.kind, source.board, source.thickness_mm, source.round)
            == (kind, board, thick, own[0].round)
            and (kind == "sheet" or source.width_mm == width)
        ]
        for n, each in enumerate(self.hand):
            fits = (
                each.kind == kind
                and each.board == board
                and not own[0].round
                and abs(each.thickness_mm - thick) <= NEAR_MM
                and self.left[n] > 0
            )
            if fits and kind == "sheet":
                found.append(self._source(n, each, 0.0, each.length_mm)._replace(many=self.left[n]))
            elif fits and each.width_mm + _WIDER_MM >= widest:
                found += [
                    self._source(n, each, *good)._replace(many=self.left[n])
                    for good in _stretches(each)
                    if good[1] - good[0] > 2 * trim
                ]
        return found


def _alike(source: Source, part: CutPart) -> bool:
    """Whether it is of the part's wood, shape and thickness."""
    near = abs(source.thickness_mm - part.thick_mm) <= NEAR_MM
    return near and source.board == part.board and source.round == part.round


def _fits(source: Source, part: CutPart, length: float, width: float, trim: float) -> bool:
    """Whether a part can be cut out of it.

    Boards by its finished width, for they are as wide as they are.
    """
    room = source.length_mm - 2 * trim + _SAME_MM
    if source.kind == "board":
        return length <= room and part.width_mm <= source.width_mm + _WIDER_MM
    high = source.width_mm - 2 * trim + _SAME_MM
    return (length <= room and width <= high) or (part.turns and width <= room and length <= high)


def _boards(
    group: Group,
    stock: tuple[Source, ...],
    spots: tuple[Rect | None, ...],
    kerf_mm: float,
    trim_mm: float,
) -> BoardJob:
    parts = group.parts
    plan = cut_lengths(
        [part.cut_mm[0] for part in parts],
        [source.length_mm for source in stock],
        [source.price for source in stock],
        kerf_mm,
        trim_mm,
        [source.many for source in stock],
    )
    left = sorted(parts, key=lambda part: (len(part.label), part.label))
    layout = []
    for cutting in plan.cuttings:
        here = []
        for start, end in cuts_mm(cutting, kerf_mm, trim_mm):
            part = min(left, key=lambda each: abs(each.cut_mm[0] - (end - start)))
            left.remove(part)
            here.append((part, start, end))
        layout.append((cutting.stock, tuple(here)))
    return BoardJob(stock, parts, plan, tuple(layout))


def _sheets(
    group: Group,
    stock: tuple[Source, ...],
    spots: tuple[Rect | None, ...],
    kerf_mm: float,
    trim_mm: float,
) -> SheetJob:
    asked = [SheetPart(part.label, *part.cut_mm, part.turns) for part in group.parts]
    blanks = [
        Blank(s.length_mm, s.width_mm, s.price, s.many, spot)
        for s, spot in zip(stock, spots, strict=True)
    ]
    return SheetJob(
        stock,
        {part.label: part for part in group.parts},
        cut_sheets(asked, blanks, kerf_mm, trim_mm),
    )


def used(stock: Sequence[Source], numbers: Iterable[int]) -> Counter[int]:
    """How many of each board at hand are used: as many as of its stretch that is used most."""
    found = Counter[int]()
    for n, many in Counter(numbers).items():
        hand = stock[n].hand
        if hand is not None:
            found[hand] = max(found[hand], many)
    return found


def _stretches(each: OnHand) -> list[tuple[float, float]]:
    """Return the good wood of a board between its defects."""
    found, at = [], 0.0
    for defect in sorted(each.defects, key=lambda d: d.from_mm):
        if defect.from_mm > at:
            found.append((at, defect.from_mm))
        at = max(at, defect.to_mm)
    return [*found, (at, each.length_mm)] if at < each.length_mm else found


def _spot(hand: Sequence[OnHand], n: int | None) -> Rect | None:
    """Return the part of a sheet at hand that can't be used."""
    if n is None or not hand[n].defects:
        return None
    each, defect = hand[n], hand[n].defects[0]
    low, high = defect.low_mm or 0.0, min(defect.high_mm or each.width_mm, each.width_mm)
    return Rect(defect.from_mm, low, defect.to_mm - defect.from_mm, high - low)


def left_of(source: Source, kind: str, length: float, width: float) -> OnHand:
    """Return what is left over of a board or a sheet, as something at hand."""
    return OnHand(
        name=compose("left of {wood}", wood=data.boards()[source.board].name),
        board=source.board,
        kind="sheet" if kind == "sheet" else "board",
        length_mm=round(length, 1),
        width_mm=round(width, 1),
        thickness_mm=source.thickness_mm,
    )


def ends(job: BoardJob) -> list[OnHand]:
    """Return ends of boards that are worth keeping."""
    rests = zip(job.plan.cuttings, job.layout, strict=True)
    return [
        left_of(job.stock[stock], "board", cutting.rest_mm, job.stock[stock].width_mm)
        for cutting, (stock, _) in rests
        if cutting.rest_mm >= _KEEP_LONG_MM
    ]
