"""Wood across studs that several pieces are screwed to: whether it holds them all."""

from collections.abc import Callable

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, PieceVerdict, make
from trade.fixings.support import Support
from trade.language import compose, joined
from trade.mounts import mount_of
from trade.plan.features import Feature
from trade.plan.model import AnyPiece, Plan


def checks(piece: AnyPiece, plan: Plan, judged: Callable[[AnyPiece], PieceVerdict]) -> list[Check]:
    """Check blocking, or a board on the wall's face, under all the pieces that are screwed to it.

    Nothing where it shares none. Each counts as if all of them were hardest on the same end, or
    the same stud.

    Args:
        piece: what hangs.
        plan: with the others; one of the same key is left out.
        judged: the verdict of a piece by itself.
    """
    if not any(map(_may_share, plan.wall.features)):
        return []
    own = _ends(piece, plan, judged)
    if not own:
        return []
    others = [
        (other, _ends(other, plan, judged)) for other in plan.pieces if other.key != piece.key
    ]
    found = []
    for wood, end in own.items():
        beside = [(other, ends[wood]) for other, ends in others if wood in ends]
        if beside:
            found.append(_check(wood, end, beside))
    return found


def _may_share(thing: Feature) -> bool:
    """Whether it is wood across studs, which several pieces may be screwed to."""
    return thing.row.ends_n > 0 or thing.on_face


def _of_wood(check: Check) -> bool:
    """Whether it asks what the wood across, or what holds that, can carry."""
    by_board = any(row.studs_n and row.name == check.part for row in data.features().values())
    return check.code in ("across.ends", "across.bending") or (by_board and check.gradual)


def _ends(
    piece: AnyPiece, plan: Plan, judged: Callable[[AnyPiece], PieceVerdict]
) -> dict[Feature, Check]:
    """Return the worst check of each wood across that a piece is screwed to."""
    asked = [check for check in judged(piece).checks if _of_wood(check)]
    if not asked:
        return {}
    found: dict[Feature, Check] = {}
    for support in mount_of(piece).supports(piece, plan.wall):
        wood = support.stud.across if isinstance(support, Support) else None
        if wood is None or not _may_share(wood):
            continue
        for check in asked:
            if check.support == support.index and (
                wood not in found or check.utilisation > found[wood].utilisation
            ):
                found[wood] = check
    return found


def _check(wood: Feature, own: Check, beside: list[tuple[AnyPiece, Check]]) -> Check:
    sums = Calculation()
    sums.given("u_1", own.utilisation, "percent", "of what holds it: this piece")
    for n, (other, check) in enumerate(beside, start=2):
        sums.given(f"u_{n}", check.utilisation, "percent", other.name)
    sums.then("u", " + ".join(f"u_{n + 1}" for n in range(len(beside) + 1)), "percent", "together")
    together = [own, *(check for _, check in beside)]
    return make(
        "across.shared",
        part=own.part,
        support=own.support,
        case=own.case,
        unknown=tuple(dict.fromkeys(ask for check in together for ask in check.unknown)),
        demand=sums.quantity("u"),
        capacity=Quantity(1.0, "percent"),
        template="The {wood} also holds {others}: together they use {demand} of what it can carry.",
        parts={
            "wood": wood.row.name,
            "others": joined(compose("“{name}”", name=other.name) for other, _ in beside),
        },
        equations=sums,
    )
