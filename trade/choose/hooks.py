"""What hangs along a rail, a board or a panel.

Each thing on a hook of its own, the heaviest where most may hang; battens.
"""

from msgspec.structs import replace

from trade import data
from trade.assess import judge_piece
from trade.choose.along import along
from trade.errors import PlanError
from trade.language import compose
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan, Thing

_CATCH = data.house("hook_catch")
_MOST = 40


def places_mm(piece: AnyPiece, count: int) -> tuple[float, ...]:
    """Where so many hooks go, from the left end.

    Evenly, each on a stud where one is near, no two on the same.
    """
    apart = piece.length_mm / count
    found: list[float] = []
    for n in range(count):
        even = (n + 0.5) * apart
        stud = min(piece.supports_mm, key=lambda x: abs(x - even), default=even)
        found.append(stud if abs(stud - even) <= apart * _CATCH and stud not in found else even)
    return tuple(sorted(found))


def spread_along(piece: AnyPiece, plan: Plan, count: int | None = None) -> AnyPiece:
    """Return the piece with each thing on a hook of its own, the heaviest where the most may hang.

    Args:
        piece: that things hang on.
        plan: its wall, and what else hangs there.
        count: into how many things those that hang all along are parted; None for one each.

    Raises:
        PlanError: nothing hangs there, or too much for hooks.
    """
    if mount_of(piece).carries == "on" or not piece.things:
        raise PlanError("Nothing hangs there yet.", "hooks")
    single = [thing for thing in piece.things if thing.at_mm is not None]
    loose = [thing for thing in piece.things if thing.at_mm is None]
    wanted = max((count or len(piece.things)) - len(single), len(loose))
    if not 1 <= wanted + len(single) <= _MOST:
        raise PlanError(compose("Hooks are placed for 1 to {most} things.", most=_MOST), "hooks")
    parted = [*single, *_parted(loose, wanted)]
    hooks = places_mm(piece, len(parted))
    known = along(replace(piece, things=()), plan, 9) if len(piece.supports_mm) > 1 else ()
    carries = {
        place: min(known, key=lambda each: abs(each.at_mm - place)).kg if known else 0.0
        for place in hooks
    }
    strongest = sorted(hooks, key=lambda place: -carries[place])
    heaviest = sorted(parted, key=lambda thing: -(thing.mass_kg or 0.0))
    hung = [replace(thing, at_mm=place) for thing, place in zip(heaviest, strongest, strict=True)]
    return replace(piece, things=tuple(sorted(hung, key=lambda thing: thing.at_mm or 0.0)))


def _parted(loose: list[Thing], wanted: int) -> list[Thing]:
    """Things that hang all along as so many single ones, the heaviest parted most."""
    counts = [1] * len(loose)
    for _ in range(wanted - len(loose) if loose else 0):
        most = max(range(len(loose)), key=lambda i: (loose[i].mass_kg or 0.0) / counts[i])
        counts[most] += 1
    found = []
    for thing, many in zip(loose, counts, strict=True):
        each = None if thing.mass_kg is None else thing.mass_kg / many
        names = (
            [thing.name] if many == 1 else [f"{thing.name[:70]}, {n}" for n in range(1, many + 1)]
        )
        found += [replace(thing, name=name, mass_kg=each) for name in names]
    return found


def fewest_rows(plan: Plan, key: str) -> AnyPiece | None:
    """Return a panel with the fewest battens, or rows of screws, with which it holds.

    None when no number does or it has none.

    Raises:
        PlanError: no such piece.
    """
    piece = plan.piece(key)
    mount = mount_of(piece)
    for rows in range(2, 9):
        try:
            tried = mount.with_rows(piece, rows)
        except PlanError:
            return None  # it has no room, or no holes, for more
        if tried is None:
            return None
        if judge_piece(tried, plan.with_piece(tried)).outcome == "holds":
            return tried
    return None
