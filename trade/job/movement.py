"""What to mind with solid wood, which moves across its grain with the seasons."""

from trade import data
from trade.calculation import Quantity
from trade.check import Message
from trade.fixings.support import Support
from trade.language import Figure
from trade.mechanics.moisture import across_grain, equilibrium
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan


def to_mind(piece: AnyPiece, plan: Plan) -> list[Message]:
    """Return how much its board gets wider, and what that asks of how it is held.

    Nothing of sheets, of what hangs already, of what moves too little to be minded, and of what
    rods or pins hold: they stand in one row, and it moves away from them to either side.
    """
    mount = mount_of(piece)
    board = mount.board_of(piece)
    screwed = any(
        isinstance(each, Support) and each.screw.kind != "rod"
        for each in mount.supports(piece, plan.wall)
    )
    if board is None or not screwed or plan.as_built.hangs(piece.key):
        return []
    row = data.boards()[board[0]]
    if row.across is None:
        return []
    dry, damp = moistures(plan)
    by = across_grain(piece.depth_mm, row.across, dry, damp).quantity("ΔD", "length")
    if by.value < data.house("moves_from_mm"):
        return []
    return [
        Message(
            "{wood!c} {deep} wide swells and shrinks by {by} over a year (moisture {dry} to {damp} "
            "%). Leave it room: slotted or oversize screw holes with washers, and no glue across "
            "the grain. Let the wood sit in the room for a week before you cut it.",
            {
                "deep": Quantity(piece.depth_mm, "length"),
                "wood": row.name,
                "by": by,
                "dry": Figure(f"{100 * dry:.0f}"),
                "damp": Figure(f"{100 * damp:.0f}"),
            },
        )
    ]


def moistures(plan: Plan) -> tuple[float, float]:
    """Return how dry and how damp wood gets in its room over a year, as shares of its dry weight.

    Where it is no heated room, by what the table says of such rooms.
    """
    room = None if plan.wall.climate is None else data.climates()[plan.wall.climate]
    if room is None:
        ends = (
            (data.house("heated_dry_humidity"), data.house("heated_dry_c")),
            (
                data.house("heated_damp_humidity"),
                data.house("heated_damp_c"),
            ),
        )
    else:
        ends = (room.dry_humidity, room.dry_c), (room.damp_humidity, room.damp_c)
    (dry, dry_c), (damp, damp_c) = ends
    return equilibrium(dry, dry_c), equilibrium(damp, damp_c)
