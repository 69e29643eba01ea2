"""Every part of a wall.

Its label, its finished and its rough size, what is done to it, what it waits for.
"""

from collections import defaultdict
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from trade import data
from trade.language import compose
from trade.mounts import mount_of
from trade.mounts.base import Part
from trade.mounts.existing_holes import as_mounted
from trade.mounts.work import Detail, Pair
from trade.plan.model import AnyPiece, Plan
from trade.plan.place import each_piece, each_waiting, wood_to_fit
from trade.wall.scribing import fitted
from trade.workshop.panels import Panel

FRAMING = "pine_white"  # what blocking is cut from: the softest that is sold in its sizes
_HALF = "half of"  # two such parts come off one strip
_ALPHABET = "abcdefghjkmnpqrstuvwxyz"
OWN = "x"  # the label of the person's own parts begins with it


class CutPart(NamedTuple):
    """One part to cut.

    Its label, whose it is, what it is called, of which row of the boards table, its finished size.

    `key`: of its piece, empty for the person's own; `detail`: what is done to it; `turns`: it may
    lie across the grain; `measured`: its length was measured at what stands; `planned_mm`: its
    length by the plan; `cut_mm`: length and width off the saw, once it is known what it is cut
    from; `round`: out of a dowel rod; `of`: the label of the part that it is glued up into;
    `wall`: which of several walls it is for, from 1; 0 where there is one.
    """

    label: str
    piece: str
    name: str
    board: str
    length_mm: float
    width_mm: float
    thick_mm: float
    key: str = ""
    detail: Detail = Detail()
    turns: bool = False
    measured: bool = False
    planned_mm: float = 0.0
    cut_mm: tuple[float, float] = (0.0, 0.0)
    round: bool = False
    of: str = ""
    wall: int = 0

    @property
    def rough_mm(self) -> tuple[float, float]:
        """Length and width as sawn, including what is left on to be scribed to the wall, mm."""
        return self.length_mm + self.detail.scribe_mm[0], self.width_mm + self.detail.scribe_mm[1]

    @property
    def rough(self) -> bool:
        """Whether more comes off the saw than is left in the end."""
        return self.cut_mm[0] > self.length_mm + 0.5 or self.cut_mm[1] > self.width_mm + 0.5

    @property
    def tight(self) -> bool:
        """Whether what it is cut from gives less than is usually left on to be scribed."""
        return self.cut_mm != (0.0, 0.0) and any(
            got < want - 0.05 for got, want in zip(self.cut_mm, self.rough_mm, strict=True)
        )

    @property
    def waits(self) -> bool:
        """Whether it is cut only once something was measured."""
        return bool(self.detail.late) and not self.measured

    @property
    def faces_mm2(self) -> float:
        """All that a finish goes over.

        Both faces, for a board that is finished on one side only bends.
        """
        a, b, c = self.length_mm, self.width_mm, self.thick_mm
        return 0.0 if self.detail.bare else 2 * (a * b + a * c + b * c)


class Parts(NamedTuple):
    """Parts that are cut, and what is bought ready, with how many."""

    cut: tuple[CutPart, ...]
    bought: dict[Part, int]


def parts_of(plan: Plan, wall: int = 0) -> Parts:
    """Every part that is cut, with a label of its own, and what is bought ready.

    `wall`: its number among several, which labels then begin with.
    """
    first = f"{wall}-" if wall else ""
    names = {row.name: key for key, row in data.boards().items()}
    found: list[CutPart] = []
    bought: dict[Part, int] = defaultdict(int)
    for number, (piece, there) in enumerate(each_piece(plan), start=1):
        if there.as_built.hangs(piece.key):
            continue  # what hangs is not made again
        letter = 0
        mount = mount_of(piece)
        made = fitted(piece, there.wall)
        parts = mount.parts(made, there.wall)
        details = mount.details(as_mounted(made, there.as_built), there.wall, plan.units)
        longer = _longer(plan, piece, parts)
        for part in parts:
            if part.sizes_mm is None or part.of not in names:
                bought[part._replace(many=1)] += part.many
                continue
            detail, board = details.get(part.name, Detail()), names[part.of]
            for name, many, (length, wide, thick) in _blanks(part, detail, plan.policy.kerf_mm):
                more = longer.get(part.name, longer.get(detail.follows, 0.0))
                for _ in range(many):
                    letter += 1
                    found.append(
                        CutPart(
                            f"{first}{number}{_letters(letter)}",
                            piece.name,
                            name,
                            board,
                            length + more,
                            wide,
                            thick,
                            piece.key,
                            detail,
                            detail.any_way or not data.boards()[board].grain,
                            part.name in longer,
                            length,
                            round=part.round,
                            wall=wall,
                        )
                    )
    own = (part._replace(label=first + part.label, wall=wall) for part in _own(plan))
    return Parts((*found, *own), dict(bought))


class Labelled(NamedTuple):
    """A board of a body where it sits, with the label of its part."""

    label: str
    panel: Panel


def labelled(parts: Sequence[CutPart], piece: AnyPiece, wall: int = 0) -> list[Labelled]:
    """Return the boards of a body that is made, by the labels of its parts; most have none.

    `wall`: for which of several walls it is, as its parts have it.
    """
    labels: dict[str, list[str]] = defaultdict(list)
    for part in parts:
        if (part.key, part.wall) == (piece.key, wall):
            labels[part.name].append(part.label)
    return [
        Labelled(labels[panel.name].pop(0), panel)
        for panel in mount_of(piece).panels(piece)
        if labels[panel.name]
    ]


def count_parts(plan: Plan) -> int:
    """How many parts are cut for a wall, counted without working them out."""
    names = {row.name for row in data.boards().values()}
    count = sum(part.many for part in plan.shop.own) + len(wood_to_fit(plan))
    for piece, there in each_waiting(plan):
        mount = mount_of(piece)
        for part in mount.parts(piece, there.wall):
            if part.sizes_mm is not None and part.of in names:
                count += (part.many + 1) // 2 if part.name.startswith(_HALF) else part.many
    return count


def _blanks(
    part: Part, detail: Detail, kerf_mm: float
) -> Iterator[tuple[str, int, tuple[float, float, float]]]:
    """Yield what comes off the saw for a part: itself, or the strip that gives two halves."""
    assert part.sizes_mm is not None
    length, _, thick = part.sizes_mm
    pair = next((work for work in detail.works if isinstance(work, Pair)), None)
    if pair is None:
        yield part.name, part.many, part.sizes_mm
    elif part.name.startswith(_HALF):
        yield (
            "strip for both halves of the cleat",
            (part.many + 1) // 2,
            (length, pair.strip_mm(kerf_mm), thick),
        )
    else:
        yield (
            compose("strip for a {part} and its holders' half", part=part.name),
            part.many,
            (length, pair.strip_mm(kerf_mm), thick),
        )


def _longer(plan: Plan, piece: AnyPiece, parts: list[Part]) -> dict[str, float]:
    """How much longer than planned each measured part of a piece is, by its name."""
    planned = {part.name: part.sizes_mm[0] for part in parts if part.sizes_mm}
    return {
        each.part: each.length_mm - planned[each.part]
        for each in plan.shop.measured
        if each.piece == piece.key and each.part in planned
    }


def _own(plan: Plan) -> Iterator[CutPart]:
    """Yield the person's own parts, and wood that goes in behind the wall."""
    letter = 0
    for part in plan.shop.own:
        for _ in range(part.many):
            letter += 1
            turns = part.turns or not data.boards()[part.board].grain
            yield CutPart(
                f"{OWN}{_letters(letter)}",
                "besides",
                part.name,
                part.board,
                part.length_mm,
                part.width_mm,
                part.thickness_mm,
                turns=turns,
                planned_mm=part.length_mm,
            )
    for wood, _ in wood_to_fit(plan):
        letter += 1
        long = wood.right_mm - wood.left_mm
        yield CutPart(
            f"{OWN}{_letters(letter)}",
            "the wall",
            wood.row.name,
            FRAMING,
            long,
            wood.top_mm - wood.bottom_mm,
            wood.deep_mm,
            planned_mm=long,
        )


def _letters(n: int) -> str:
    """Return a to z, then aa, ab and on, but for letters that look like one another or a figure."""
    many = len(_ALPHABET)
    if n <= many:
        return _ALPHABET[n - 1]
    return _letters((n - 1) // many) + _ALPHABET[(n - 1) % many]
