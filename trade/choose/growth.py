"""Room to grow: how many more holders a piece takes, and which sort of wall takes more for less.

What is asked now is seldom what hangs there in five years: more of the same, one row or panel more.
"""

from itertools import pairwise
from typing import Any, NamedTuple

from msgspec.structs import replace

from trade import data
from trade.assess import judge_piece
from trade.check import Check, Message, PieceVerdict
from trade.choose import criteria
from trade.choose.along import carries
from trade.choose.placement import on_studs, put_up
from trade.errors import PlanError
from trade.language import several
from trade.load.push import heaviest_n
from trade.measure import G_N_PER_KG
from trade.mounts import KINDS, mount_of
from trade.mounts.base import Box
from trade.plan.model import AnyPiece, Plan, Thing

_USUAL_KG = data.house("holder_kg")
_BACKS = ("board", "face", "wood")


class OneMore(NamedTuple):
    """One row, panel or shelf more: what it would be, its verdict, and what it takes besides."""

    label: Message
    piece: AnyPiece
    verdict: PieceVerdict
    holes: int
    cost: float
    minutes: float


class Growth(NamedTuple):
    """What more a piece takes as it hangs.

    `room`: holders that have room on it, those that it has among them; `named`: the things on it,
    taken as one holder each; `more`: so many besides, of `each_kg`, it carries before something
    fails; `first`: what that is, None where room ends it; `noun`, `price`, `minutes`: of one more.
    """

    noun: str
    room: int
    named: int
    each_kg: float
    more: int
    first: Check | None
    price: float
    minutes: float
    steps: tuple[OneMore, ...]

    @property
    def nouns(self) -> str:
        """What several of them are called."""
        return several(self.noun)


class Sort(NamedTuple):
    """A sort of wall for the same things at the same place, in figures for this wall.

    `stud_kg`, `between_kg`: what one thing may weigh over a stud, and in the middle of the widest
    gap, as far out as its holders reach; `bare`: the share of its place where the wall still shows;
    `each_cost`, `each_minutes`: of a further holder; `room`: how many have room.
    """

    kind: str
    piece: AnyPiece
    verdict: PieceVerdict
    holes: int
    cost: float
    minutes: float
    each_cost: float
    each_minutes: float
    room: int
    stud_kg: float
    between_kg: float
    bare: float
    minds: tuple[Message, ...]

    def with_more(self, count: int) -> tuple[float, float]:
        """Return money and minutes for it and so many further holders."""
        return self.cost + count * self.each_cost, self.minutes + count * self.each_minutes


def grows(piece: AnyPiece) -> bool:
    """Whether a piece is of a kind that takes more holders, rows, panels or shelves."""
    return mount_of(piece).room(piece) > 0 or any(True for _ in mount_of(piece).grown(piece))


def growth(plan: Plan, key: str, each_kg: float | None = None) -> Growth:
    """Return what more a piece takes.

    Args:
        plan: whose wall it is on.
        key: of the piece.
        each_kg: what a further holder carries; None: as much as the heaviest of the others.

    Raises:
        PlanError: no such piece, or nothing more goes on its kind.
    """
    piece = plan.piece(key)
    mount = mount_of(piece)
    if not grows(piece):
        raise PlanError("This kind takes no more. Put up another one.", "piece")
    row = data.holders().get(mount.kind)
    kg = each_kg or heaviest_n(piece) / G_N_PER_KG or _USUAL_KG
    room, named = mount.room(piece), len(piece.things)
    more, first = _more(plan, piece, kg, max(room - named, 0))
    return Growth(
        row.name if row else "",
        room,
        named,
        kg,
        more,
        first,
        row.price if row else 0.0,
        row.minutes if row else 0.0,
        tuple(_steps(plan, piece)),
    )


def _with_more(piece: AnyPiece, count: int, kg: float) -> AnyPiece:
    """Return the piece with so many more things, spread along it at the end of their holders."""
    more = Thing(name="More", mass_kg=count * kg, out_mm=piece.depth_mm)
    return replace(piece, things=(*piece.things, more)) if count else piece


def _more(plan: Plan, piece: AnyPiece, kg: float, most: int) -> tuple[int, Check | None]:
    """Return how many more it carries, up to so many, and what fails with one more than that.

    None fails where room ends it, or where nobody could enter so much.
    """

    def judged(count: int) -> PieceVerdict | None:
        """Return the verdict with so many more; None where that can't even be entered."""
        try:
            tried = _with_more(piece, count, kg)
            return judge_piece(tried, plan.with_piece(tried))
        except PlanError:
            return None

    def holds(count: int) -> bool:
        found = judged(count)
        return found is not None and not found.fails

    low, high = -1, most + 1  # it holds with low, and not with high
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if holds(middle) else (low, middle)
    stopped = judged(high) if high <= most else None
    return max(low, 0), stopped.governing if stopped is not None else None


def _steps(plan: Plan, piece: AnyPiece) -> list[OneMore]:
    """Return a row, a panel or a shelf more, each judged among its neighbours."""
    now, found = criteria.effort(piece, plan.wall, plan.policy), []
    for label, tried in mount_of(piece).grown(piece):
        try:
            if tried.length_mm != piece.length_mm:
                tried = mount_of(tried).landed(on_studs(tried, plan.wall), plan.wall)
            verdict = judge_piece(tried, plan.with_piece(tried))
        except PlanError:
            continue  # it would leave the wall
        then = criteria.effort(tried, plan.wall, plan.policy)
        found.append(
            OneMore(
                label,
                tried,
                verdict,
                then.holes - now.holes,
                then.cost - now.cost,
                then.minutes - now.minutes,
            )
        )
    return found


def sorts(plan: Plan, key: str) -> tuple[Sort, ...]:
    """Return every sort of wall that takes holders, at a piece's place, with what hangs there.

    The piece's own kind first, as it hangs; the others are as they would be put up new, the one
    whose further holders cost least first, among those that hold.

    Raises:
        PlanError: no such piece, or its kind takes no holders.
    """
    piece = plan.piece(key)
    if not mount_of(piece).room(piece):
        raise PlanError("This kind takes no more. Put up another one.", "piece")
    found = []
    for kind in data.holders():
        same = kind == mount_of(piece).kind
        tried = piece if same else _instead(plan, piece, kind)
        if tried is not None:
            found.append(_sort(plan, tried, mount_of(piece).box(piece)))
    own = mount_of(piece).kind
    return tuple(
        sorted(found, key=lambda each: (each.kind != own, each.verdict.fails, each.each_cost))
    )


def _instead(plan: Plan, piece: AnyPiece, kind: str) -> AnyPiece | None:
    """Return a new piece of another kind in the same place; None where it has no room there."""
    box, rest = mount_of(piece).box(piece), plan.without_piece(piece.key)
    middle = (box.left_mm + box.right_mm) / 2
    try:
        made: Any = put_up(rest, kind, middle, box.top_mm)
        size: dict[str, Any] = {"left_mm": box.left_mm, "length_mm": box.right_mm - box.left_mm}
        fresh = KINDS[kind].filled(made, box.top_mm - box.bottom_mm)
        made = replace(fresh, **size, supports_mm=(), key=piece.key, name=piece.name)
        made = replace(
            made, use=piece.use, anchor=piece.anchor, depth_mm=piece.depth_mm, top_mm=box.top_mm
        )
        made = KINDS[kind].landed(on_studs(made, plan.wall), plan.wall)
        return replace(made, things=piece.things)
    except PlanError:
        return None


def _sort(plan: Plan, piece: AnyPiece, place: Box) -> Sort:
    mount, wall = mount_of(piece), plan.wall
    row, effort = data.holders()[mount.kind], criteria.effort(piece, wall, plan.policy)
    stud = min(piece.supports_mm, key=lambda x: abs(x - piece.length_mm / 2))
    between = _between_mm(piece)
    at_stud = carries(piece, plan, stud, 10.0)
    return Sort(
        mount.kind,
        piece,
        judge_piece(piece, plan.with_piece(piece)),
        effort.holes,
        effort.cost,
        effort.minutes,
        row.price,
        row.minutes,
        mount.room(piece),
        at_stud,
        at_stud if between is None else carries(piece, plan, between, at_stud),
        _bare(piece, place),
        tuple(mount.cautions(piece, wall)[:2]),
    )


def _between_mm(piece: AnyPiece) -> float | None:
    """Return the middle of its widest gap between supports; None on one support."""
    gaps = list(pairwise(piece.supports_mm))
    a, b = max(gaps, key=lambda gap: gap[1] - gap[0], default=(0.0, 0.0))
    return (a + b) / 2 if gaps else None


def _bare(piece: AnyPiece, place: Box) -> float:
    """Return the share of a place on which nothing of it lies that covers the wall."""
    whole = (place.right_mm - place.left_mm) * (place.top_mm - place.bottom_mm)
    covered = 0.0
    for shape in mount_of(piece).front(piece):
        if shape.role in _BACKS:
            across, up = zip(*shape.points, strict=True)
            covered += (max(across) - min(across)) * (max(up) - min(up))
    return min(max(1 - covered / whole, 0.0), 1.0)
