"""What stands on the floor and is held to the wall."""

from trade import data
from trade.errors import PlanError
from trade.plan.item import between
from trade.plan.pieces.base import Made, weighed
from trade.plan.pieces.shelves import Sided


class Bench(Sided, frozen=True, kw_only=True, tag="ledger_bench", tag_field="kind"):
    """A bench or desk on a ledger at the wall and legs at the front; in a corner on both walls.

    An end on a ledger at the wall beside, or on the front of the bench there, needs no leg. `legs`:
    how many; `leg_mm`: side of a square leg; `apron_mm`: height of the board that joins the legs
    under the front edge, 0 for none.
    """

    ledger_mm: float = 38.0
    ledger_high_mm: float = 64.0
    legs: int = 2
    leg_mm: float = 38.0
    apron_mm: float = 90.0

    def __post_init__(self) -> None:
        """Refuse absurd legs."""
        Sided.__post_init__(self)
        between(self.leg_mm, 15, 150, "leg_mm", "A leg's thickness")
        between(self.apron_mm, 0, 250, "apron_mm", "An apron's height")
        if not 0 <= self.legs <= 12:
            raise PlanError("A bench has up to 12 legs.", "legs")


class Bookcase(Made, frozen=True, kw_only=True, tag="bookcase", tag_field="kind"):
    """A standing bookcase that straps keep from tipping; `supports_mm`.

    The straps, `strap_down_mm` below its top.

    `body_kg`: empty; null: not weighed. `open_mm`: how far drawers or doors reach out in front when
    open. `fixed_rows`: rows of shelves across all its bays that are let into sides and uprights and
    tie them. `strap_kg`: what the packet says that one strap may hold; null: what such straps must;
    `strap_ultimate`: it says what one fails at. `cut_out`: openings are cut out of its back for
    what it covers. `kick_mm`: from the floor to the bottom of a body that is made, 0 for none.
    """

    height_mm: float
    body_kg: float | None
    strap_down_mm: float = 20.0
    open_mm: float = 0.0
    fixed_rows: int = 0
    strap_kg: float | None = None
    strap_ultimate: bool = False
    cut_out: bool = False
    kick_mm: float = 60.0

    def __post_init__(self) -> None:
        """Refuse absurd bookcases."""
        if not 0 <= self.fixed_rows <= 6:
            raise PlanError("A bookcase has between 0 and 6 rows of fixed shelves.", "fixed_rows")
        Made.__post_init__(self)
        between(self.kick_mm, 0, 400, "kick_mm", "A kick's height")
        self.has_inside(self.height_mm - self.kick_mm, doors=False)
        if self.joint is not None and data.joints()[self.joint].way == "mitred" and self.kick_mm:
            raise PlanError("A mitred body stands on its bottom: set its kick to 0.", "kick_mm")
        between(self.height_mm, 200, 4000, "height_mm", "Its height")
        between(self.strap_down_mm, 0, 3000, "strap_down_mm", "A strap's place below the top")
        between(self.open_mm, 0, 1000, "open_mm", "How far its drawers open")
        weighed(self.body_kg, "body_kg")
        weighed(self.strap_kg, "strap_kg")
        if self.strap_down_mm > self.height_mm - 50:
            raise PlanError(
                "The straps must sit on the bookcase, below its top and above its foot.",
                "strap_down_mm",
            )

    @property
    def high_mm(self) -> float:
        """How high it is, seen from the front."""
        return self.height_mm
