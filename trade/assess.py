"""The main door: a plan in, a verdict out."""

from bisect import insort

from msgspec.structs import replace

from trade import data
from trade.calculation import Quantity
from trade.check import Assumption, Check, PieceVerdict, Verdict, make, severity
from trade.fixings.anchor_capacity import anchor_of
from trade.fixings.support import Support
from trade.language import Figure, compose, word
from trade.load.push import Push, push_of
from trade.measure import LBF_N
from trade.memo import memoized
from trade.mounts import (
    cords,
    existing_holes,
    fit,
    in_room,
    mount_of,
    rests,
    shared_wood,
    surroundings,
    way_in,
)
from trade.mounts.base import Box
from trade.plan.model import AnyPiece, Plan, Wall
from trade.plan.policy import Policy, trusts
from trade.wall.backing import backing

_UNKNOWN_WOOD = word(
    "The wood's species is unknown: its strength is taken from its weight alone, and the wood is "
    "taken to be sound. Check for rot, worm holes, old nails and cracks. Wood that crumbles under "
    "a screwdriver carries nothing."
)


def assess(plan: Plan) -> Verdict:
    """Judge everything on a wall.

    Worst check first within each piece; pieces in the order of the plan.
    """
    taken = _taken(plan)
    return Verdict(pieces=tuple(_judge(piece, plan, taken) for piece in plan.pieces))


def judge_piece(piece: AnyPiece, plan: Plan) -> PieceVerdict:
    """Judge one piece among the others of its plan, in place of the one with the same key."""
    return _judge(piece, plan, _taken(plan))


def _taken(plan: Plan) -> list[tuple[AnyPiece, Box]]:
    """Everything on the wall with the room that it takes."""
    return [(piece, _room(piece)) for piece in plan.pieces]


@memoized(limit=2_000)
def _room(piece: AnyPiece) -> Box:
    return mount_of(piece).box(piece)


def _judge(piece: AnyPiece, plan: Plan, taken: list[tuple[AnyPiece, Box]]) -> PieceVerdict:
    """One piece.

    What it is by itself, and what the others on the wall and its holes add to that.
    """
    own = next((room for other, room in taken if other is piece), None) or mount_of(piece).box(
        piece
    )
    resting = rests.checks(piece, plan)
    if plan.corners:
        piece = rests.loaded(piece, plan)
    alone = by_itself(piece, plan.wall, plan.policy)
    asked = (
        _clash(piece, own, taken),
        in_room.clash(piece, plan) if plan.corners else None,
        *resting,
        way_in.check(piece, plan) if plan.opening is not None else None,
        fit.items(piece, own, taken, plan.wall),
        *existing_holes.checks(piece, plan),
        *_shared(piece, plan),
    )
    more = [found for found in asked if found is not None]
    if not more:
        return alone
    checks = list(alone.checks)
    for each in more:  # into its place among those that are in order already
        insort(checks, each, key=_mildness)
    return replace(alone, checks=tuple(checks))


def agreed_and_shared(piece: AnyPiece, plan: Plan) -> list[Check]:
    """Return what the job's policy and the other pieces ask of what holds a piece.

    Apart from the checks of its kind, for what tries many loads on it.
    """
    return [*_agreed(piece, plan.wall, plan.policy), *_shared(piece, plan)]


def _shared(piece: AnyPiece, plan: Plan) -> list[Check]:
    return shared_wood.checks(piece, plan, lambda each: by_itself(each, plan.wall, plan.policy))


@memoized(limit=1_000)
def by_itself(piece: AnyPiece, wall: Wall, policy: Policy) -> PieceVerdict:
    """Judge one piece on its wall by the job's policy, as if nothing else hung there."""
    hooks = (fit.hangs_free(piece), fit.hangs_apart(piece), fit.hooks_clear(piece, wall))
    hang = [check for check in hooks if check is not None]
    found = _verdict(piece, wall, [*hang, *_agreed(piece, wall, policy)])
    if policy.minds == "usual":
        return found
    minds = "minds_little" if policy.minds == "little" else "minds_much"
    return _minded(found, data.house(minds))


def _minded(verdict: PieceVerdict, times: float) -> PieceVerdict:
    """Return the same with wider or narrower limits of what is a nuisance by its size.

    A sag, a droop, a wobble, a dent.
    """
    return replace(
        verdict,
        checks=_ranked([check.within(times) if check.sized else check for check in verdict.checks]),
    )


def assess_piece(piece: AnyPiece, wall: Wall) -> PieceVerdict:
    """Judge one piece on its wall, as if nothing else hung there."""
    return _verdict(piece, wall, [])


def _verdict(piece: AnyPiece, wall: Wall, more: list[Check]) -> PieceVerdict:
    own = mount_of(piece).checks(piece, wall)
    checks = _ranked(
        [
            *own,
            *cords.checks(piece, own),
            *surroundings.checks(piece, wall),
            *more,
            *_behind(piece, wall),
        ]
    )
    assumed = (*backing(wall).assumptions, *mount_of(piece).assumes(piece))
    board = mount_of(piece).board_of(piece)
    if board is not None and data.boards()[board[0]].from_kg_m3 is not None:
        assumed = (*assumed, Assumption("unknown_wood", _UNKNOWN_WOOD))
    if any(check.pushed for check in checks):
        assumed = (*assumed, _pushed(piece))
    return PieceVerdict(key=piece.key, name=piece.name, checks=checks, assumptions=assumed)


def _pushed(piece: AnyPiece) -> Assumption:
    """Return what the figures that come from a push suppose."""
    return _pushed_so(push_of(piece), piece.use)


@memoized(limit=200)
def _pushed_so(push: Push, use: str) -> Assumption:
    said = compose(
        "Sums marked with a push suppose {push}, {n} N ({lb} lb), by its use: {use}. {reason}",
        push=push.row.name,
        n=Figure(f"{push.n:.0f}"),
        lb=Figure(f"{push.n / LBF_N:.0f}"),
        use=data.uses()[use].name,
        reason=push.row.reason,
    )
    return Assumption("push", said)


def _behind(piece: AnyPiece, wall: Wall) -> list[Check]:
    found = fit.behind(piece, wall)
    return [found] if found is not None else []


def _ranked(checks: list[Check]) -> tuple[Check, ...]:
    return tuple(sorted(checks, key=severity, reverse=True))


def _mildness(check: Check) -> tuple[int, int, float]:
    word, gradual, used = severity(check)
    return -word, -gradual, -used


def _agreed(piece: AnyPiece, wall: Wall, policy: Policy) -> list[Check]:
    """Return what of the job's policy on anchors it does not keep to.

    Nothing on a wall without studs, or where it hangs on none.
    """
    if wall.build == "mass" or piece.anchor is None:
        return []
    loose = [
        support
        for support in mount_of(piece).supports(piece, wall)
        if isinstance(support, Support) and support.anchored and not support.on_stud
    ]
    if not loose:
        return []
    part, anchor = loose[0].part, anchor_of(wall, piece.anchor)
    asked = (
        (
            "policy.studs_only",
            policy.anchors == "studs_only",
            "Agreed was: studs only; the {part} hangs on an anchor.",
        ),
        (
            "policy.hollow",
            not trusts(policy, anchor.kind),
            "Agreed was: no {anchor} in a board; the {part} hangs on one.",
        ),
    )
    return [
        make(
            code,
            part=part,
            support=loose[0].index,
            case="any",
            demand=Quantity(len(loose), "count"),
            capacity=Quantity(0.5, "count"),
            template=said,
            parts={"part": part, "anchor": anchor.name},
        )
        for code, broken, said in asked
        if broken
    ]


def _clash(piece: AnyPiece, own: Box, taken: list[tuple[AnyPiece, Box]]) -> Check | None:
    """Return the refusal of a piece that runs into another one.

    Together they need more height than they span. None when it is clear.
    """
    for other, room in taken:
        if room.right_mm <= own.left_mm or own.right_mm <= room.left_mm or other.key == piece.key:
            continue
        if height := surroundings.crowded(own, room):
            needed, spanned = height
            return make(
                "piece.clash",
                part="shelf",
                case="any",
                demand=Quantity(needed, "length"),
                capacity=Quantity(spanned, "length"),
                template="It runs into “{other}”: one above the other they need {demand} of "
                "height, and span {capacity}.",
                parts={"other": other.name},
            )
    return None
