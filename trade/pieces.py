"""What hangs on a wall: one class for each kind of mounting."""

from itertools import pairwise

from trade import data
from trade.errors import PlanError
from trade.measure import ABSURD_KG, ABSURD_MM
from trade.part import Key, Name, Part, between, known

LEAST_GAP_MM = 10.0  # house rule: two supports nearer than this are one


class Thing(Part, frozen=True, kw_only=True):
    """What stands on a shelf. `mass_kg` null: not weighed. `at_mm`: from the shelf's left end; null: spread over all of it.

    `out_mm`: how far its weight stands from the wall; null: the middle of the shelf.
    """

    name: Name
    mass_kg: float | None
    at_mm: float | None = None
    out_mm: float | None = None

    def __post_init__(self) -> None:
        """Refuse negative and absurd weights."""
        if self.mass_kg is not None and not 0 <= self.mass_kg <= ABSURD_KG:
            raise PlanError(f"A weight must lie between 0 and {ABSURD_KG:.0f} kg; this is {self.mass_kg:.6g} kg.", "mass_kg")
        between(self.at_mm, 0, ABSURD_MM, "at_mm", "A thing's place along the shelf")
        between(self.out_mm, 0, 2000, "out_mm", "A thing's distance from the wall")


class Piece(Part, frozen=True, kw_only=True):
    """Something on the wall, whatever holds it. Places from the wall's left corner and from the floor.

    `supports_mm`: where it is held, from its left end. `use`: a row of the uses table.
    `anchor`: what holds where there is no timber, a row of the anchors table or a packet of the wall; null: nothing does.
    """

    key: Key
    name: Name
    left_mm: float
    top_mm: float
    length_mm: float
    depth_mm: float
    use: str
    supports_mm: tuple[float, ...]
    screw: str
    screw_length_mm: float
    anchor: str | None = None
    things: tuple[Thing, ...] = ()

    def __post_init__(self) -> None:
        """Refuse absurd sizes, supports beyond the ends, and rows that no table has."""
        between(self.left_mm, 0, ABSURD_MM, "left_mm", "Its left end")
        between(self.top_mm, 0, ABSURD_MM, "top_mm", "Its top's height")
        between(self.length_mm, 50, ABSURD_MM, "length_mm", "Its length")
        between(self.depth_mm, 30, 1500, "depth_mm", "Its depth")
        between(self.screw_length_mm, 5, 400, "screw_length_mm", "A screw's length")
        known(data.uses(), self.use, "use", "use")
        known(data.screws(), self.screw, "screw", "screw")
        if list(self.supports_mm) != sorted(set(self.supports_mm)):
            raise PlanError("Supports must be given from left to right, each at its own place.", "supports_mm")
        if any(b - a < LEAST_GAP_MM for a, b in pairwise(self.supports_mm)):
            raise PlanError(f"Two supports stand closer together than {LEAST_GAP_MM:.0f} mm.", "supports_mm")
        for support in self.supports_mm:
            between(support, 0, self.length_mm, "supports_mm", "A support's place along the shelf")
        if len(self.supports_mm) > 40:
            raise PlanError("More than 40 supports under one shelf.", "supports_mm")
        if len(self.things) > 60:
            raise PlanError("More than 60 things on one shelf; put like things together.", "things")
        for i, thing in enumerate(self.things):
            if thing.at_mm is not None and thing.at_mm > self.length_mm:
                raise PlanError(f"“{thing.name}” stands beyond the end of the shelf.", f"things[{i}].at_mm")
            if thing.out_mm is not None and thing.out_mm > self.depth_mm:
                raise PlanError(f"“{thing.name}” stands further out than the shelf is deep.", f"things[{i}].out_mm")

    @property
    def high_mm(self) -> float:
        """How high it is, seen from the front."""
        raise NotImplementedError


class Shelf(Piece, frozen=True, kw_only=True):
    """A board, whatever holds it. `board`: a row of the boards table."""

    thickness_mm: float
    board: str

    def __post_init__(self) -> None:
        """Refuse absurd boards."""
        Piece.__post_init__(self)
        between(self.thickness_mm, 3, 300, "thickness_mm", "A shelf's thickness")
        known(data.boards(), self.board, "board", "board")

    @property
    def high_mm(self) -> float:
        """How high it is, seen from the front."""
        return self.thickness_mm


class BracketShelf(Shelf, frozen=True, kw_only=True, tag="bracket_shelf", tag_field="kind"):
    """A shelf on surface brackets. `bracket`: a row of the brackets table."""

    bracket: str

    def __post_init__(self) -> None:
        """Refuse an unknown bracket."""
        Shelf.__post_init__(self)
        known(data.brackets(), self.bracket, "bracket", "bracket")


class RodShelf(Shelf, frozen=True, kw_only=True, tag="rod_shelf", tag_field="kind"):
    """A floating shelf on rods with wall plates. `plate`: a row of the plates table; `let_in`: the plate sits on the stud."""

    plate: str
    let_in: bool = False

    def __post_init__(self) -> None:
        """Refuse an unknown plate."""
        Shelf.__post_init__(self)
        known(data.plates(), self.plate, "rod plate", "plate")


class PinShelf(Shelf, frozen=True, kw_only=True, tag="pin_shelf", tag_field="kind"):
    """A floating shelf on blind pins let into the studs.

    `steel`: a row of the pins table. `tilted`: the pins set upward by what the load will take away again.
    """

    steel: str = "drawn"
    pin_mm: float = 9.525
    in_stud_mm: float = 64.0
    in_shelf_mm: float = 150.0
    tilted: bool = True

    def __post_init__(self) -> None:
        """Refuse absurd pins."""
        Shelf.__post_init__(self)
        known(data.pins(), self.steel, "pin steel", "steel")
        between(self.pin_mm, 4, 40, "pin_mm", "A pin's diameter")
        between(self.in_stud_mm, 5, 300, "in_stud_mm", "A pin's length in the stud")
        between(self.in_shelf_mm, 10, 1000, "in_shelf_mm", "A pin's length in the shelf")


class RodBeam(Shelf, frozen=True, kw_only=True, tag="rod_beam", tag_field="kind"):
    """A solid beam or mantel on threaded rods driven into the studs; `screw` is the rod, `screw_length_mm` all of it.

    `in_beam_mm`: of the rod, in the beam; `locked`: screws from the top, or glue, keep the beam on its rods.
    """

    in_beam_mm: float = 90.0
    locked: bool = True

    def __post_init__(self) -> None:
        """Refuse rods that are all in the beam."""
        Shelf.__post_init__(self)
        between(self.in_beam_mm, 10, 380, "in_beam_mm", "A rod's length in the beam")


class Cabinet(Piece, frozen=True, kw_only=True, tag="cleat_cabinet", tag_field="kind"):
    """A cabinet, box or mantel that hangs on a bevelled cleat. `body_kg`: empty; null: not weighed.

    `cleat`: a row of the boards table; `cleat_mm`, `cleat_high_mm`: of the half on the wall; `down_mm`: from the top of the piece
    to the top of that half; `bevel_deg`: of its top edge from level; `locked`: a screw or a block keeps it from being lifted off.
    """

    height_mm: float
    body_kg: float | None
    cleat: str = "plywood"
    cleat_mm: float = 18.0
    cleat_high_mm: float = 80.0
    down_mm: float = 40.0
    bevel_deg: float = 45.0
    locked: bool = False

    def __post_init__(self) -> None:
        """Refuse absurd cleats."""
        Piece.__post_init__(self)
        between(self.height_mm, 60, 3000, "height_mm", "Its height")
        _weighed(self.body_kg, "body_kg")
        known(data.boards(), self.cleat, "board", "cleat")
        between(self.cleat_mm, 6, 60, "cleat_mm", "A cleat's thickness")
        between(self.cleat_high_mm, 30, 300, "cleat_high_mm", "A cleat's height")
        between(self.down_mm, 0, 500, "down_mm", "The cleat's place below the top")
        if not 20 <= self.bevel_deg <= 60:
            raise PlanError("A bevel is sawn between 20 and 60 degrees.", "bevel_deg")
        if self.down_mm + self.cleat_high_mm > self.height_mm - 20:
            raise PlanError(
                "The cleat and the spacer at the bottom do not both fit behind it: it is not high enough.", "height_mm"
            )

    @property
    def high_mm(self) -> float:
        """How high it is, seen from the front."""
        return self.height_mm


def _weighed(kg: float | None, where: str) -> None:
    if kg is not None and not 0 <= kg <= ABSURD_KG:
        raise PlanError(f"A weight must lie between 0 and {ABSURD_KG:.0f} kg; this is {kg:.6g} kg.", where)


class LedgerShelf(Shelf, frozen=True, kw_only=True, tag="ledger_shelf", tag_field="kind"):
    """A shelf on ledgers: one on this wall, one on each side wall that it meets. `supports_mm`: screws of the ledger at the back.

    `ledger`: a row of the boards table; `ledger_mm`, `ledger_high_mm`: its size; `left_side`, `right_side`: a ledger there, with
    `side_screws` screws; `sides_sure`: those screws are known to sit in wood; `stiffener_mm`: height of a strip under the front
    edge, 0 for none.
    """

    ledger: str = "pine_white"
    ledger_mm: float = 19.0
    ledger_high_mm: float = 40.0
    left_side: bool = True
    right_side: bool = True
    side_screws: int = 2
    sides_sure: bool = False
    stiffener_mm: float = 0.0

    def __post_init__(self) -> None:
        """Refuse absurd ledgers."""
        Shelf.__post_init__(self)
        _ledger(self.ledger, self.ledger_mm, self.ledger_high_mm)
        between(self.stiffener_mm, 0, 200, "stiffener_mm", "A stiffener's height")
        if not 0 <= self.side_screws <= 20:
            raise PlanError("A side ledger takes up to 20 screws.", "side_screws")


class Bench(Shelf, frozen=True, kw_only=True, tag="ledger_bench", tag_field="kind"):
    """A bench or desk on a ledger at the wall and legs at the front. `supports_mm`: screws of the ledger.

    `ledger`, `ledger_mm`, `ledger_high_mm`: as of a ledger shelf; `legs`: how many; `leg_mm`: side of a square leg; `apron_mm`:
    height of the board that joins the legs under the front edge, 0 for none.
    """

    ledger: str = "pine_white"
    ledger_mm: float = 38.0
    ledger_high_mm: float = 64.0
    legs: int = 2
    leg_mm: float = 38.0
    apron_mm: float = 90.0

    def __post_init__(self) -> None:
        """Refuse absurd legs."""
        Shelf.__post_init__(self)
        _ledger(self.ledger, self.ledger_mm, self.ledger_high_mm)
        between(self.leg_mm, 15, 150, "leg_mm", "A leg's thickness")
        between(self.apron_mm, 0, 250, "apron_mm", "An apron's height")
        if not 0 <= self.legs <= 12:
            raise PlanError("A bench has up to 12 legs.", "legs")


class Rail(Piece, frozen=True, kw_only=True, tag="rail", tag_field="kind"):
    """A board along the wall with hooks or brackets that move along it; its things are what hangs there."""

    height_mm: float
    thickness_mm: float
    board: str

    def __post_init__(self) -> None:
        """Refuse absurd rails."""
        Piece.__post_init__(self)
        between(self.height_mm, 15, 600, "height_mm", "A rail's height")
        between(self.thickness_mm, 3, 80, "thickness_mm", "A rail's thickness")
        known(data.boards(), self.board, "board", "board")

    @property
    def high_mm(self) -> float:
        """How high it is, seen from the front."""
        return self.height_mm


class HolderBoard(Rail, frozen=True, kw_only=True, tag="holder_board", tag_field="kind"):
    """A board with clips, hangers or holders that spans two studs."""


class Bookcase(Piece, frozen=True, kw_only=True, tag="bookcase", tag_field="kind"):
    """A standing bookcase that straps keep from tipping; `supports_mm`: the straps, `strap_down_mm` below its top.

    `body_kg`: empty; null: not weighed. `open_mm`: how far drawers or doors reach out in front when open.
    """

    height_mm: float
    body_kg: float | None
    strap_down_mm: float = 20.0
    open_mm: float = 0.0

    def __post_init__(self) -> None:
        """Refuse absurd bookcases."""
        Piece.__post_init__(self)
        between(self.height_mm, 200, 4000, "height_mm", "Its height")
        between(self.strap_down_mm, 0, 3000, "strap_down_mm", "A strap's place below the top")
        between(self.open_mm, 0, 1000, "open_mm", "How far its drawers open")
        _weighed(self.body_kg, "body_kg")
        if self.strap_down_mm > self.height_mm - 50:
            raise PlanError("The straps must sit on the bookcase, below its top and above its foot.", "strap_down_mm")

    @property
    def high_mm(self) -> float:
        """How high it is, seen from the front."""
        return self.height_mm


def _ledger(board: str, thick_mm: float, high_mm: float) -> None:
    known(data.boards(), board, "board", "ledger")
    between(thick_mm, 10, 80, "ledger_mm", "A ledger's thickness")
    between(high_mm, 15, 300, "ledger_high_mm", "A ledger's height")


AnyPiece = BracketShelf | RodShelf | PinShelf | RodBeam | Cabinet | LedgerShelf | Bench | Rail | HolderBoard | Bookcase
