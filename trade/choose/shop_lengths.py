"""A strip longer than any board that is sold, put together of two lengths over a stud."""

from trade.assess import judge_piece
from trade.check import FAILED, RANK
from trade.choose.cures import Cure
from trade.cutting.sold import unsold
from trade.mounts import mount_of
from trade.plan.model import Plan


def of_two_lengths(plan: Plan, key: str) -> Cure | None:
    """Return a strip jointed over one of its inner studs, so that shops have both its lengths.

    Over the stud at which it is best held; of equals the one nearest to its middle. None where it
    needs no joint, has one already, or no joint helps.

    Raises:
        PlanError: no such piece.
    """
    piece = plan.piece(key)
    tried = list(mount_of(piece).in_two(piece))
    wanting = len(unsold(piece, plan)) if tried else 0
    if not wanting:
        return None
    sound = judge_piece(piece, plan).outcome not in FAILED
    found: list[Cure] = []
    for label, made in tried:
        then = judge_piece(made, plan)
        if (sound and then.outcome in FAILED) or len(unsold(made, plan)) >= wanting:
            continue
        found.append(
            Cure(
                code="joint",
                label=label,
                piece=made,
                outcome=then.outcome,
                but=then.but,
                used=then.used,
            )
        )
    return min(found, key=lambda cure: (RANK[cure.outcome], cure.used), default=None)
