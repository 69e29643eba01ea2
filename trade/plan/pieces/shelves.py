"""Shelves, each held its own way."""

from typing import Literal

from trade import data
from trade.errors import PlanError
from trade.language import Figure, compose
from trade.measure import ABSURD_KG, ABSURD_MM
from trade.plan.hardware import OwnBracket, OwnPlate, OwnTrack
from trade.plan.item import Key, between, known
from trade.plan.pieces.base import Corded, FrontEdge, Shelf, ledger, wooden

_MOST_ROUND_CORNER = 20


class BracketShelf(Shelf, frozen=True, kw_only=True, tag="bracket_shelf", tag_field="kind"):
    """A shelf on surface brackets.

    `bracket`: a row of the brackets table; `stiffener_mm`: height of what stiffens its front edge,
    0 for none, and `stiffener`: what that is, a row of the stiffeners table; `pair_kg`: what the
    packet says that two of them may carry, spread over their arms; null: it says nothing. `own`: a
    bracket of one's own instead of the row; null: none.
    """

    bracket: str
    own: OwnBracket | None = None
    stiffener_mm: float = 0.0
    stiffener: str = "usual"
    pair_kg: float | None = None

    def __post_init__(self) -> None:
        """Refuse an unknown bracket."""
        Shelf.__post_init__(self)
        known(data.brackets(), self.bracket, "bracket", "bracket")
        between(self.stiffener_mm, 0, 200, "stiffener_mm", "A stiffener's height")
        known(data.stiffeners(), self.stiffener, "stiffener", "stiffener")
        if self.pair_kg is not None and not 0.5 <= self.pair_kg <= ABSURD_KG:
            raise PlanError(
                compose(
                    "What a packet states must lie between 0.5 and {absurd_kg} kg.",
                    absurd_kg=Figure(f"{ABSURD_KG:.0f}"),
                ),
                "pair_kg",
            )

    @property
    def hardware(self) -> data.Bracket:
        """Its bracket: one's own, else its row."""
        return self.own.row if self.own is not None else data.brackets()[self.bracket]

    @property
    def front_edge(self) -> FrontEdge | None:
        """What stiffens its front edge."""
        return FrontEdge(self.stiffener, self.stiffener_mm)


class BracketBeam(BracketShelf, frozen=True, kw_only=True, tag="bracket_beam", tag_field="kind"):
    """A solid beam or mantel on heavy brackets."""


class TrackShelf(Shelf, frozen=True, kw_only=True, tag="track_shelf", tag_field="kind"):
    """Shelves, one above the other, on arms that clip into slotted uprights.

    `track`: a row of the tracks table, or `own` instead; `shelves` of them, each `gap_mm` below the
    one before, `top_mm` the top of the uppermost; `upright_mm`: how long the uprights are, and
    `above_mm`: how far they reach above the uppermost shelf's top. Its things are on all of them
    together.
    """

    track: str
    own: OwnTrack | None = None
    shelves: int = 1
    gap_mm: float = 300.0
    upright_mm: float = 1000.0
    above_mm: float = 60.0

    def __post_init__(self) -> None:
        """Refuse absurd numbers."""
        Shelf.__post_init__(self)
        known(data.tracks(), self.track, "track", "slotted upright")
        between(self.gap_mm, 40, 2000, "gap_mm", "From shelf to shelf")
        between(self.upright_mm, 100, 4000, "upright_mm", "An upright's length")
        between(self.above_mm, 0, 2000, "above_mm", "What stands above the uppermost shelf")
        if not 1 <= self.shelves <= 12:
            raise PlanError("Enter between 1 and 12 shelves.", "shelves")

    @property
    def hardware(self) -> data.Track:
        """Its uprights and arms: one's own, else their row."""
        return self.own.row if self.own is not None else data.tracks()[self.track]

    @property
    def high_mm(self) -> float:
        """How high it is, seen from the front: from the uppermost shelf to the lowest."""
        return (self.shelves - 1) * self.gap_mm + self.thickness_mm

    @property
    def head_mm(self) -> float:
        """Height of the uprights' upper ends above the floor."""
        return self.top_mm + self.above_mm

    @property
    def foot_mm(self) -> float:
        """Height of their lower ends above the floor."""
        return self.head_mm - self.upright_mm


class RodShelf(Shelf, frozen=True, kw_only=True, tag="rod_shelf", tag_field="kind"):
    """A floating shelf on rods with wall plates.

    `plate`: a row of the plates table; `own`: a rod and plate of one's own instead; null: none;
    `let_in`: the plate sits on the stud.
    """

    plate: str
    own: OwnPlate | None = None
    let_in: bool = False

    def __post_init__(self) -> None:
        """Refuse an unknown plate."""
        Shelf.__post_init__(self)
        wooden(self.board)
        known(data.plates(), self.plate, "rod plate", "plate")

    @property
    def hardware(self) -> data.Plate:
        """Its rod and plate: one's own, else its row."""
        return self.own.row if self.own is not None else data.plates()[self.plate]


class PinShelf(Shelf, frozen=True, kw_only=True, tag="pin_shelf", tag_field="kind"):
    """A floating shelf on blind pins let into the studs.

    `steel`: a row of the pins table. `tilted`: the pins set upward by what the load will take away
    again.
    """

    steel: str = "drawn"
    pin_mm: float = 9.525
    in_stud_mm: float = 64.0
    in_shelf_mm: float = 150.0
    tilted: bool = True

    def __post_init__(self) -> None:
        """Refuse absurd pins."""
        Shelf.__post_init__(self)
        wooden(self.board)
        known(data.pins(), self.steel, "pin steel", "steel")
        between(self.pin_mm, 4, 40, "pin_mm", "A pin's diameter")
        between(self.in_stud_mm, 5, 300, "in_stud_mm", "A pin's length in the stud")
        between(self.in_shelf_mm, 10, 1000, "in_shelf_mm", "A pin's length in the shelf")


class DowelShelf(Shelf, frozen=True, kw_only=True, tag="dowel_shelf", tag_field="kind"):
    """A floating shelf that slides onto dowels in a back strip; `depth_mm` counts the strip.

    `supports_mm`: the strip's screws.

    `strip_mm`: thickness of the strip, of the same board; `dowels`: how many, of `dowel`, a row of
    the boards table; `dowel_mm`: their diameter; `in_shelf_mm`: how far they reach into the shelf.
    """

    strip_mm: float = 19.0
    dowel: str = "maple"
    dowels: int = 4
    dowel_mm: float = 19.0
    in_shelf_mm: float = 120.0

    def __post_init__(self) -> None:
        """Refuse absurd dowels."""
        Shelf.__post_init__(self)
        wooden(self.board)
        wooden(self.dowel, "dowel")
        between(self.strip_mm, 9, 60, "strip_mm", "A back strip's thickness")
        between(self.dowel_mm, 5, 60, "dowel_mm", "A dowel's diameter")
        between(self.in_shelf_mm, 10, 1000, "in_shelf_mm", "A dowel's length in the shelf")
        if not 1 <= self.dowels <= 40:
            raise PlanError("A shelf can have 1 to 40 dowels.", "dowels")
        if self.depth_mm < self.strip_mm + 20:
            raise PlanError("The shelf must be deeper than its back strip.", "depth_mm")


class BoxShelf(Corded, frozen=True, kw_only=True, tag="box_shelf", tag_field="kind"):
    """A hollow box that floats.

    Screws through its back near its top, its lower back edge on the wall.

    `board`: of its skins, a row of the boards table; `skin_mm`: their thickness; `screw_down_mm`:
    from its top to the screws; `low_screws`: others near its bottom, against being lifted;
    `mitred`: its front meets top and bottom at 45 degrees.
    """

    height_mm: float
    board: str
    skin_mm: float = 12.0
    screw_down_mm: float = 30.0
    low_screws: bool = True
    mitred: bool = False

    def __post_init__(self) -> None:
        """Refuse absurd boxes."""
        Corded.__post_init__(self)
        between(self.height_mm, 40, 600, "height_mm", "Its height")
        between(self.skin_mm, 3, 40, "skin_mm", "A skin's thickness")
        wooden(self.board)
        if not self.skin_mm <= self.screw_down_mm <= self.height_mm - self.skin_mm:
            raise PlanError(
                "The screws must go through the back, between its top and its bottom skin.",
                "screw_down_mm",
            )
        if 2 * self.skin_mm >= min(self.height_mm, self.depth_mm):
            raise PlanError("The skins are too thick for the box.", "skin_mm")

    @property
    def high_mm(self) -> float:
        """How high it is, seen from the front."""
        return self.height_mm


class RodBeam(Shelf, frozen=True, kw_only=True, tag="rod_beam", tag_field="kind"):
    """A solid beam or mantel on threaded rods driven into the studs.

    `screw` is the rod, `screw_length_mm` all of it.

    `in_beam_mm`: of the rod, in the beam; `locked`: screws from the top, or glue, keep the beam on
    its rods.
    """

    in_beam_mm: float = 90.0
    locked: bool = True

    def __post_init__(self) -> None:
        """Refuse rods that are all in the beam."""
        Shelf.__post_init__(self)
        wooden(self.board)
        between(self.in_beam_mm, 10, 380, "in_beam_mm", "A rod's length in the beam")


class Sided(Shelf, frozen=True, kw_only=True):
    """A board on a ledger at this wall, whose ends may be carried at the walls beside.

    `supports_mm`: screws of the ledger at the back.

    `ledger`: a row of the boards table; `ledger_mm`, `ledger_high_mm`: its size; `left_side`,
    `right_side`: a ledger there, with `side_screws` screws; `sides_sure`: those screws are known to
    sit in wood, where nothing is known of that wall; `left_screws_mm`, `right_screws_mm`: where
    they are, from the corner; empty: in the studs that they reach, else evenly; `side_anchor`:
    what holds them where there is no stud, a row of the anchors table; null: as on this wall;
    `left_on`, `right_on`: key of the shelf at the wall beside whose front carries that end instead,
    null: none does; `joint_screws`: in each half of the strip under such a joint.
    """

    ledger: str = "pine_white"
    ledger_mm: float = 19.0
    ledger_high_mm: float = 40.0
    left_side: bool = False
    right_side: bool = False
    side_screws: int = 2
    sides_sure: bool = False
    left_screws_mm: tuple[float, ...] = ()
    right_screws_mm: tuple[float, ...] = ()
    side_anchor: str | None = None
    left_on: Key | None = None
    right_on: Key | None = None
    joint_screws: int = 4

    def __post_init__(self) -> None:
        """Refuse absurd ledgers."""
        Shelf.__post_init__(self)
        ledger(self.ledger, self.ledger_mm, self.ledger_high_mm)
        if not 0 <= self.side_screws <= 20:
            raise PlanError("A side ledger can have up to 20 screws.", "side_screws")
        if not 2 <= self.joint_screws <= 40:
            raise PlanError(
                "A strip under a joint has 2 to 40 screws in each half.", "joint_screws"
            )
        for name in ("left_screws_mm", "right_screws_mm"):
            _round_corner(getattr(self, name), name)
        _side_anchor(self.side_anchor)

    def end(self, side: Literal["left", "right"]) -> Literal["shelf", "upright", "ledger", ""]:
        """Return what carries one of its ends; empty where nothing does."""
        on, there = (
            (self.left_on, self.left_side) if side == "left" else (self.right_on, self.right_side)
        )
        return "shelf" if on else "ledger" if there else ""

    def ends(self, how: str) -> int:
        """How many of its ends are carried so."""
        return (self.end("left") == how) + (self.end("right") == how)


class LedgerShelf(Sided, frozen=True, kw_only=True, tag="ledger_shelf", tag_field="kind"):
    """A shelf on ledgers: one on this wall, one on each side wall that it meets.

    `stiffener_mm`, `stiffener`: as of a bracket shelf's; `left_upright`, `right_upright`: an
    upright on the floor carries that end instead, `upright_mm` high, null: from the floor.
    """

    left_side: bool = True
    right_side: bool = True
    left_upright: bool = False
    right_upright: bool = False
    upright_mm: float | None = None
    stiffener_mm: float = 0.0
    stiffener: str = "usual"

    def __post_init__(self) -> None:
        """Refuse absurd strips and uprights."""
        Sided.__post_init__(self)
        between(self.stiffener_mm, 0, 200, "stiffener_mm", "A stiffener's height")
        known(data.stiffeners(), self.stiffener, "stiffener", "stiffener")
        between(self.upright_mm, 30, 4000, "upright_mm", "An upright's height")

    def end(self, side: Literal["left", "right"]) -> Literal["shelf", "upright", "ledger", ""]:
        """Return what carries one of its ends; empty where nothing does."""
        upright = self.left_upright if side == "left" else self.right_upright
        found = Sided.end(self, side)
        return "upright" if upright and found != "shelf" else found

    @property
    def front_edge(self) -> FrontEdge | None:
        """What stiffens its front edge."""
        return FrontEdge(self.stiffener, self.stiffener_mm, self.ledger)


class CornerShelf(Shelf, frozen=True, kw_only=True, tag="corner_shelf", tag_field="kind"):
    """A shelf across a corner, its front slanting or round.

    `length_mm` along this wall, `depth_mm` along the other; `front`: a row of the fronts table.

    `corner`: which end of this wall; `ledger`, `ledger_mm`, `ledger_high_mm`: of both ledgers;
    `other_mm`: from the corner to the furthest screw in the other wall; `other_sure`: that screw is
    known to sit in a stud, where nothing is known of that wall; `side_anchor`: what holds there
    where there is no stud; null: as on this wall.
    """

    corner: Literal["left", "right"] = "left"
    front: Literal["slant", "round"] = "slant"
    ledger: str = "pine_white"
    ledger_mm: float = 19.0
    ledger_high_mm: float = 40.0
    other_mm: float = 300.0
    other_sure: bool = False
    side_anchor: str | None = None

    def __post_init__(self) -> None:
        """Refuse absurd ledgers."""
        Shelf.__post_init__(self)
        ledger(self.ledger, self.ledger_mm, self.ledger_high_mm)
        between(self.other_mm, 20, self.depth_mm, "other_mm", "The other wall's furthest screw")
        _side_anchor(self.side_anchor)

    @property
    def shape(self) -> data.Front:
        """What its front is like."""
        return data.fronts()[self.front]


def _round_corner(places_mm: tuple[float, ...], where: str) -> None:
    """Refuse screws round a corner that nobody could have measured."""
    if list(places_mm) != sorted(set(places_mm)) or len(places_mm) > _MOST_ROUND_CORNER:
        raise PlanError(
            "Give the screws of a side ledger from the corner outwards, 20 at most.", where
        )
    for place in places_mm:
        between(place, 0, ABSURD_MM, where, "A screw in the side wall")


def _side_anchor(anchor: str | None) -> None:
    if anchor is not None:
        known(data.anchors(), anchor, "anchor", "side_anchor")
