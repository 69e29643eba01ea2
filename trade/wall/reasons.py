"""Why the survey believes what it believes, in words.

Reasons, readings set aside, contradictions, what to read next.
"""

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from trade import data
from trade.language import compose
from trade.plan.readings import ByHand, Edge, Knock, MagnetHit, Probe, Reading, Seen
from trade.wall.found import Found, Grid
from trade.wall.likelihood import MODEL
from trade.wall.reading_index import ReadingIndex

_NEAR_EDGE = 3 * MODEL.edge_sd
_FARTHEST_MM = 40.0  # readings further off say nothing of a stud
_ON_GRID_MM = 8.0
_SAME_PLACE_MM = 60.0
_WANTED = data.house("wanted_times")

_WHY = {
    "pipe": "what is there is too narrow for a stud: a pipe",
    "cable": "what is there is too narrow for a stud: a cable",
    "patch": "it reads like a stud but is not: a patch or a joint",
}


def of(stud: Found, index: ReadingIndex, grid: Grid | None, at_end: bool) -> tuple[str, ...]:
    """Return what speaks for a stud and against it."""
    half, x = stud.width_mm / 2, stud.centre_mm
    near_it = [r for _, r in index.near(x, half + _FARTHEST_MM)]

    def count(kind: type[Reading], near: float, said: str = "", how: str = "") -> int:
        fits = (r for r in near_it if isinstance(r, kind) and (not said or getattr(r, said) == how))
        return sum(abs(r.at_mm - x) <= near for r in fits)

    def edges(side: str, place: float) -> int:
        return sum(
            isinstance(r, Edge) and r.side == side and abs(r.at_mm - place) <= _NEAR_EDGE
            for r in near_it
        )

    left, right = edges("left", x - half), edges("right", x + half)
    said = [
        (left and right, compose("both edges ({left} + {right})", left=left, right=right)),
        (bool(left) != bool(right), compose("one edge only ({left})", left=left or right)),
        (n := count(MagnetHit, half + 6), _met("magnet", n)),
        (
            n := count(Probe, half + 3, "met", "wood"),
            _met("a nail met wood", n),
        ),
        (
            n := count(Probe, half + 3, "met", "metal"),
            _met("a nail met metal", n),
        ),
        (
            n := count(Probe, half - 3, "met", "air"),
            _met("but a nail met air", n),
        ),
        (n := count(Knock, 40, "sound", "full"), _met("sounds full", n)),
        (
            n := count(Knock, 40, "sound", "hollow"),
            _met("but sounds hollow", n),
        ),
        (count(Seen, 20), "seen"),
        (count(ByHand, 20, "word", "pinned"), "confirmed by you"),
        (stud.by_opening, "beside an opening"),
        (at_end, "in the corner"),
    ]
    found = [words for holds, words in said if holds]
    if grid is not None and not stud.by_opening and not at_end:
        off = abs((x - grid.first_mm + grid.spacing_mm / 2) % grid.spacing_mm - grid.spacing_mm / 2)
        found.append("on the grid" if off <= _ON_GRID_MM else "off the grid")
    return tuple(found) or ("nothing was read here",)


def _met(said: str, n: int) -> str:
    return compose("{met} ({n})", met=said, n=n) if n > 1 else said


def rejected(readings: Sequence[Reading], accepted: Sequence[Found]) -> tuple[tuple[int, str], ...]:
    """Return readings that no accepted thing explains, by index, with the reason."""
    index = ReadingIndex(readings)
    explained: dict[int, list[Found]] = {}
    wood: set[int] = set()
    for each in accepted:
        half = each.width_mm / 2
        for i, r in index.near(each.centre_mm, half + _NEAR_EDGE):
            explained.setdefault(i, []).append(each)
            if abs(r.at_mm - each.centre_mm) <= half + 4:
                wood.add(i)
    found = []
    for i, reading in enumerate(readings):
        if isinstance(reading, Edge | MagnetHit):
            near = explained.get(i, [])
            if not near:
                found.append((i, "no other reading supports it"))
            elif all(f.kind not in ("single", "double") for f in near):
                found.append((i, _WHY[near[0].kind]))
        elif isinstance(reading, Probe) and reading.met == "wood" and i not in wood:
            found.append((i, "wood here, but nothing else speaks for a stud"))
    return tuple(found)


def ask_mm(
    studs: Sequence[Found], width_mm: float, wanted_mm: Sequence[float] = ()
) -> float | None:
    """Probe the stud that is most in doubt.

    When none is, the one whose place is least sure, near its edge.

    Studs near a wanted place, where something is to be held, come first.
    """

    def wanted(s: Found) -> float:
        return _WANTED if any(abs(s.centre_mm - x) < _SAME_PLACE_MM for x in wanted_mm) else 1.0

    doubtful = [s for s in studs if 0.05 < s.probability < 0.98 and 0 <= s.centre_mm <= width_mm]
    if doubtful:
        return max(
            doubtful, key=lambda s: wanted(s) * s.probability * (1 - s.probability)
        ).centre_mm
    loose = [s for s in studs if s.high_mm - s.low_mm > 12]
    if not loose:
        return None
    return min(
        max(max(loose, key=lambda s: wanted(s) * (s.high_mm - s.low_mm)).centre_mm + 17.0, 0.0),
        width_mm,
    )


class Contradiction(NamedTuple):
    """Readings, by index, that cannot all be true of one place."""

    at_mm: float
    for_it: tuple[int, ...]
    against: tuple[int, ...]


def contradictions(readings: Sequence[Reading]) -> tuple[Contradiction, ...]:
    """Places where some readings say stud and others say none.

    All of them are kept; a person has to look again.
    """
    numbers = [i for i, r in enumerate(readings) if _says_none(r)]
    none = ReadingIndex([readings[i] for i in numbers])
    clashes: list[tuple[float, set[int], set[int]]] = []
    of: dict[int, tuple[float, set[int], set[int]]] = {}
    for low, high, pro in _says_stud(readings):
        for k, r in sorted(none.between(low, high), key=lambda each: each[0]):
            if k not in of:
                at = r.at_mm
                of[k] = next(
                    (c for c in clashes if abs(c[0] - at) < _SAME_PLACE_MM), (at, set(), set())
                )
                if of[k] not in clashes:
                    clashes.append(of[k])
                of[k][2].add(numbers[k])
            of[k][1].update(pro)
    return tuple(
        sorted(
            Contradiction(at, tuple(sorted(one)), tuple(sorted(other)))
            for at, one, other in clashes
        )
    )


def _says_stud(readings: Sequence[Reading]) -> Iterator[tuple[float, float, tuple[int, ...]]]:
    """Stretches that are wood if these readings are true."""
    right: dict[float, list[int]] = {}
    for i, r in enumerate(readings):
        if isinstance(r, Edge) and r.side == "right":
            right.setdefault(r.height_mm, []).append(i)
    ends = {
        height: ReadingIndex([readings[i] for i in numbers]) for height, numbers in right.items()
    }
    for i, r in enumerate(readings):
        if isinstance(r, Seen) or (isinstance(r, ByHand) and r.word == "pinned"):
            yield r.at_mm - 10, r.at_mm + 10, (i,)
        elif isinstance(r, Probe) and r.met == "wood":
            yield r.at_mm - 3, r.at_mm + 3, (i,)
        elif isinstance(r, Edge) and r.side == "left" and r.height_mm in ends:
            for k, other in ends[r.height_mm].between(r.at_mm + 28, r.at_mm + 90):
                yield r.at_mm + 8, other.at_mm - 8, (i, right[r.height_mm][k])


def _says_none(r: Reading) -> bool:
    """Whether its place is not wood if it is true."""
    return (isinstance(r, Probe) and r.met == "air") or (
        isinstance(r, ByHand) and r.word == "struck"
    )
