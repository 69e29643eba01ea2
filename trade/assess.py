"""The main door: a plan in, a verdict out."""

from msgspec.structs import replace

from trade import check
from trade.check import Check, PieceVerdict, Quantity, Verdict, make
from trade.mounts import mount_of, surroundings
from trade.plan import AnyPiece, Plan, Wall
from trade.wall.backing import backing


def assess(plan: Plan) -> Verdict:
    """Judge everything on a wall. Worst check first within each piece; pieces in the order of the plan."""
    return Verdict(pieces=tuple(judge_piece(piece, plan) for piece in plan.pieces))


def judge_piece(piece: AnyPiece, plan: Plan) -> PieceVerdict:
    """Judge one piece among the others of its plan (whose own piece of the same key, if any, it replaces)."""
    verdict = assess_piece(piece, plan.wall)
    clash = _clash(piece, plan)
    return replace(verdict, checks=_ranked([*verdict.checks, clash])) if clash else verdict


def assess_piece(piece: AnyPiece, wall: Wall) -> PieceVerdict:
    """Judge one piece on its wall, as if nothing else hung there."""
    checks = _ranked([*mount_of(piece).checks(piece, wall), *surroundings.checks(piece, wall)])
    return PieceVerdict(key=piece.key, name=piece.name, checks=checks, assumptions=backing(wall).assumptions)


def _ranked(checks: list[Check]) -> tuple[Check, ...]:
    return tuple(sorted(checks, key=check.severity, reverse=True))


def _clash(piece: AnyPiece, plan: Plan) -> Check | None:
    """The refusal of a piece that runs into another one: together they need more height than they span. None when it is clear."""
    own = mount_of(piece).box(piece)
    for other in plan.pieces:
        if other.key == piece.key:
            continue
        if height := surroundings.crowded(own, mount_of(other).box(other)):
            needed, spanned = height
            return make(
                "piece.clash", part="shelf", case="any", fit=True,
                demand=Quantity(needed, "length"), capacity=Quantity(spanned, "length"),
                template="It runs into “{other}”: one above the other they need {demand} of height, and span {capacity}.",
                parts={"other": other.name},
            )  # fmt: skip
    return None
