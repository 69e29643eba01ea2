"""Why the survey believes what it believes, in words: reasons, readings set aside, contradictions, what to read next."""

from collections.abc import Iterator, Sequence
from itertools import product
from typing import NamedTuple

from trade.evidence import ByHand, Edge, Knock, MagnetHit, Probe, Reading, Seen, Sweep
from trade.wall.found import Found, Grid
from trade.wall.likelihood import MODEL

_NEAR_EDGE = 3 * MODEL.edge_sd
_FARTHEST_MM = 40.0  # readings further off say nothing of a stud
_ON_GRID_MM = 8.0
_SAME_PLACE_MM = 60.0
_WANTED = 5.0  # house rule: a stud that something hangs on matters five times as much

_WHY = {
    "pipe": "what is there is too narrow for a stud: a pipe",
    "cable": "what is there is too narrow for a stud: a cable",
    "patch": "what is there shows itself like a stud but is none: a patch or a joint",
}


def of(stud: Found, readings: Sequence[Reading], grid: Grid | None, at_end: bool) -> tuple[str, ...]:
    """What speaks for a stud and against it."""
    half, x = stud.width_mm / 2, stud.centre_mm
    near_it = [r for r in readings if not isinstance(r, Sweep) and abs(r.at_mm - x) <= half + _FARTHEST_MM]

    def count(kind: type[Reading], near: float, **fields: str) -> int:
        fits = (r for r in near_it if isinstance(r, kind) and all(getattr(r, k) == v for k, v in fields.items()))
        return sum(abs(r.at_mm - x) <= near for r in fits)

    def edges(side: str, place: float) -> int:
        return sum(isinstance(r, Edge) and r.side == side and abs(r.at_mm - place) <= _NEAR_EDGE for r in near_it)

    left, right = edges("left", x - half), edges("right", x + half)
    said = [
        (left and right, f"both edges ({left} + {right})"),
        (bool(left) != bool(right), f"one edge only ({left or right})"),
        (n := count(MagnetHit, half + 6), f"magnet{_times(n)}"),
        (n := count(Probe, half + 3, met="wood"), f"a nail met wood{_times(n)}"),
        (n := count(Probe, half + 3, met="metal"), f"a nail met metal{_times(n)}"),
        (n := count(Probe, half - 3, met="air"), f"but a nail met air{_times(n)}"),
        (n := count(Knock, 40, sound="full"), f"sounds full{_times(n)}"),
        (n := count(Knock, 40, sound="hollow"), f"but sounds hollow{_times(n)}"),
        (count(Seen, 20), "seen"),
        (count(ByHand, 20, word="pinned"), "pinned by you"),
        (stud.by_opening, "beside an opening"),
        (at_end, "in the corner"),
    ]
    found = [words for holds, words in said if holds]
    if grid is not None and not stud.by_opening and not at_end:
        off = abs((x - grid.first_mm + grid.spacing_mm / 2) % grid.spacing_mm - grid.spacing_mm / 2)
        found.append("on the grid" if off <= _ON_GRID_MM else "off the grid")
    return tuple(found) or ("nothing was read here",)


def _times(n: int) -> str:
    return f" ({n})" if n > 1 else ""


def rejected(readings: Sequence[Reading], accepted: Sequence[Found]) -> tuple[tuple[int, str], ...]:
    """Readings that no accepted thing explains, by index, with the reason."""
    found = []
    for i, r in enumerate(readings):
        if isinstance(r, Edge | MagnetHit):
            near = [f for f in accepted if abs(r.at_mm - f.centre_mm) <= f.width_mm / 2 + _NEAR_EDGE]
            if not near:
                found.append((i, "it agrees with nothing else"))
            elif all(f.kind not in ("single", "double") for f in near):
                found.append((i, _WHY[near[0].kind]))
        elif (
            isinstance(r, Probe)
            and r.met == "wood"
            and not any(abs(r.at_mm - f.centre_mm) <= f.width_mm / 2 + 4 for f in accepted)
        ):
            found.append((i, "wood here, but nothing else speaks for a stud"))
    return tuple(found)


def ask_mm(studs: Sequence[Found], width_mm: float, wanted_mm: Sequence[float] = ()) -> float | None:
    """Probe the stud that is most in doubt; when none is, the one whose place is least sure, near its edge.

    Studs near a wanted place, where something is to be held, come first.
    """

    def wanted(s: Found) -> float:
        return _WANTED if any(abs(s.centre_mm - x) < _SAME_PLACE_MM for x in wanted_mm) else 1.0

    doubtful = [s for s in studs if 0.05 < s.probability < 0.98 and 0 <= s.centre_mm <= width_mm]
    if doubtful:
        return max(doubtful, key=lambda s: wanted(s) * s.probability * (1 - s.probability)).centre_mm
    loose = [s for s in studs if s.high_mm - s.low_mm > 12]
    if not loose:
        return None
    return min(max(max(loose, key=lambda s: wanted(s) * (s.high_mm - s.low_mm)).centre_mm + 17.0, 0.0), width_mm)


class Contradiction(NamedTuple):
    """Readings, by index, that cannot all be true of one place."""

    at_mm: float
    for_it: tuple[int, ...]
    against: tuple[int, ...]


def contradictions(readings: Sequence[Reading]) -> tuple[Contradiction, ...]:
    """Places where some readings say stud and others say none. All of them are kept; a person has to look again."""
    found: list[Contradiction] = []
    for (low, high, pro), (at, con) in product(_says_stud(readings), _says_none(readings)):
        if not low <= at <= high:
            continue
        same = next((c for c in found if abs(c.at_mm - at) < _SAME_PLACE_MM), Contradiction(at, (), ()))
        merged = Contradiction(same.at_mm, _joined(same.for_it, pro), _joined(same.against, (con,)))
        found = [c for c in found if c is not same] + [merged]
    return tuple(sorted(found))


def _joined(these: tuple[int, ...], those: tuple[int, ...]) -> tuple[int, ...]:
    return tuple(sorted({*these, *those}))


def _says_stud(readings: Sequence[Reading]) -> Iterator[tuple[float, float, tuple[int, ...]]]:
    """Stretches that are wood if these readings are true."""
    for i, r in enumerate(readings):
        if isinstance(r, Seen) or (isinstance(r, ByHand) and r.word == "pinned"):
            yield r.at_mm - 10, r.at_mm + 10, (i,)
        elif isinstance(r, Probe) and r.met == "wood":
            yield r.at_mm - 3, r.at_mm + 3, (i,)
        elif isinstance(r, Edge) and r.side == "left":
            for j, other in enumerate(readings):
                pair = isinstance(other, Edge) and other.side == "right" and other.height_mm == r.height_mm
                if pair and 28 <= other.at_mm - r.at_mm <= 90:  # type: ignore[union-attr]
                    yield r.at_mm + 8, other.at_mm - 8, (i, j)  # type: ignore[union-attr]


def _says_none(readings: Sequence[Reading]) -> Iterator[tuple[float, int]]:
    """Places that are not wood if this reading is true."""
    for i, r in enumerate(readings):
        if (isinstance(r, Probe) and r.met == "air") or (isinstance(r, ByHand) and r.word == "struck"):
            yield r.at_mm, i
