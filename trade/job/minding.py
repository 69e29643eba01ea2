"""What to mind when a piece is hung: lifting, fit, cautions, sizes that no shop has."""

from trade.check import Message
from trade.cutting.sold import unsold
from trade.job import climate, coverings, movement
from trade.mounts import cords, fit, heights, mount_of
from trade.plan.model import AnyPiece, Plan


def what_to_mind(piece: AnyPiece, plan: Plan) -> list[Message]:
    """Return what to mind with a piece on its wall, in the order in which it matters."""
    mount = mount_of(piece)
    return [
        *mount.lifting(piece),
        *fit.to_mind(piece, plan.wall),
        *heights.to_mind(piece),
        *mount.cautions(piece, plan.wall),
        *climate.to_mind(piece, plan),
        *movement.to_mind(piece, plan),
        *coverings.to_mind(piece, plan),
        *cords.to_mind(piece),
        *([] if plan.as_built.hangs(piece.key) else unsold(piece, plan)),
    ]
