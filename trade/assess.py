"""The main door: a plan in, a verdict out."""

from trade import check
from trade.check import PieceVerdict, Verdict
from trade.mounts import mount_of
from trade.plan import AnyPiece, Plan, Wall
from trade.wall.backing import backing


def assess(plan: Plan) -> Verdict:
    """Judge everything on a wall. Worst check first within each piece; pieces in the order of the plan."""
    return Verdict(pieces=tuple(assess_piece(piece, plan.wall) for piece in plan.pieces))


def assess_piece(piece: AnyPiece, wall: Wall) -> PieceVerdict:
    """Judge one piece on its wall."""
    checks = sorted(mount_of(piece).checks(piece, wall), key=check.severity, reverse=True)
    return PieceVerdict(key=piece.key, name=piece.name, checks=tuple(checks), assumptions=backing(wall).assumptions)
