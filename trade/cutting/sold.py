"""What shops have.

In which thicknesses a board is sold, and which parts of a piece are sold in no size at all.
"""

from msgspec.structs import replace

from trade import data
from trade.calculation import Quantity
from trade.check import Message
from trade.cutting.glue_up import made_up
from trade.cutting.parts import FRAMING, parts_of
from trade.cutting.stock import NEAR_MM, StockAllocation
from trade.measure import Units
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan


def unsold(piece: AnyPiece, plan: Plan) -> list[Message]:
    """Return a sentence for each part of a piece in a size no shop has and that is not at hand."""
    alone = replace(plan.alone_with(piece), shop=replace(plan.shop, own=()))
    yard = StockAllocation(alone.shop, alone.units, alone.policy.kerf_mm, alone.policy.trim_mm)
    _, none = yard.groups(parts_of(alone).cut)
    said = (
        "No shop has its {part} in one piece, {length} × {width} × {thick} of {wood}: glue it "
        "up, or choose another size."
    )
    if any(ask.field == "joint_mm" for ask in mount_of(piece).asks):
        said = (
            "No shop has its {part} in one piece, {length} × {width} × {thick} of {wood}: joint "
            "it over a stud, or choose another size."
        )
    glued = (
        "No shop has its {part} in one piece, {length} × {width} × {thick} of {wood}: it is made "
        "up of {n} boards, or choose another size."
    )
    return [
        Message(
            glued if (made := made_up(part, yard.sold)) and "joint it" not in said else said,
            {
                "n": str(len(made.strips)) if made else "",
                "part": part.name,
                "length": Quantity(part.length_mm, "length"),
                "width": Quantity(part.width_mm, "length"),
                "thick": Quantity(part.thick_mm, "fine"),
                "wood": data.boards()[part.board].name,
            },
        )
        for part in {each.name: each for each in none}.values()
    ]


def framing_mm(units: Units) -> tuple[float, tuple[float, ...]]:
    """Return the thickness of the boards that blocking is cut from, and their widths, mm."""
    thick = data.thicknesses(FRAMING, units)[-1]
    wide = {
        row.width_mm
        for row in data.stock().values()
        if (row.board, row.system, row.shape) == (FRAMING, units, "flat")
        and row.thickness_mm == thick
        and row.width_mm > thick
    }
    return thick, tuple(sorted(wide))


def sold_mm(board: str, units: Units, near_mm: float | None = None) -> list[float]:
    """Return the thicknesses in which a board or sheet is sold where these units are used, mm.

    Args:
        board: a row of the boards table.
        units: of the person.
        near_mm: only those that pass for boards of this thickness.
    """
    found = data.thicknesses(board, units)
    return [thick for thick in found if near_mm is None or abs(thick - near_mm) <= NEAR_MM]
