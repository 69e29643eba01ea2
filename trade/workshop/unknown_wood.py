"""A wood that nobody knows, such as an old beam: it is measured and weighed.

Its density tells what it weighs and bounds what it bears.
"""

from trade import data
from trade.errors import PlanError
from trade.language import Figure, compose


def weighed(length_mm: float, width_mm: float, thickness_mm: float, kg: float) -> str:
    """Return the row of the boards table that a piece of wood is told as by its weight.

    Args:
        length_mm: of the piece.
        width_mm: of the piece.
        thickness_mm: of the piece.
        kg: its weight.

    Raises:
        PlanError: no wood weighs that.
    """
    density = kg / (length_mm / 1000 * width_mm / 1000 * thickness_mm / 1000)
    for key, row in data.boards().items():
        if row.from_kg_m3 is not None and row.from_kg_m3 <= density < row.density_kg_m3:
            return key
    known = [row for row in data.boards().values() if row.from_kg_m3 is not None]
    raise PlanError(
        compose(
            "That is {density} kg/m³; dry wood for building is between {least} and {most}. Measure "
            "and weigh it again, and let wet wood dry first.",
            density=Figure(f"{density:.0f}"),
            least=Figure(f"{min(row.from_kg_m3 or 0.0 for row in known):.0f}"),
            most=Figure(f"{max(row.density_kg_m3 for row in known):.0f}"),
        ),
        "weighs",
    )
