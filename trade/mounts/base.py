"""What every kind of mounting is asked."""

from typing import NamedTuple, Protocol

from trade.check import Check
from trade.fixings.seat import Seat
from trade.plan import AnyPiece, Wall


class Hole(NamedTuple):
    """A screw hole in the wall: where, and the seat it belongs to."""

    x_mm: float
    y_mm: float
    seat: Seat


class Bore(NamedTuple):
    """A hole in the shelf itself: from its left end, above its underside, how wide and how deep from the back."""

    x_mm: float
    y_mm: float
    diameter_mm: float
    depth_mm: float
    part: str


class Box(NamedTuple):
    """The room that a piece takes on the wall, hardware included."""

    left_mm: float
    right_mm: float
    bottom_mm: float
    top_mm: float


class Mount(Protocol):
    """A kind of mounting."""

    kind: str
    name: str
    support_noun: str

    def checks(self, piece: AnyPiece, wall: Wall) -> list[Check]:
        """Every check of this piece on this wall, in no order."""

    def seats(self, piece: AnyPiece, wall: Wall) -> list[Seat]:
        """Each support as it sits on the wall, from the left."""

    def box(self, piece: AnyPiece) -> Box:
        """The room it takes on the wall."""

    def bores(self, piece: AnyPiece) -> list[Bore]:
        """Every hole in the shelf, from the left."""


def holes(seats: list[Seat]) -> list[Hole]:
    """Every screw hole in the wall, support by support, each from the top down."""
    return [Hole(x, y, seat) for seat in seats for x, y in sorted(seat.holes, key=lambda place: -place[1])]


def support_name(index: int, count: int, noun: str) -> str:
    """What to call a support: left bracket, middle bracket, right bracket; by number when there are more than three."""
    if count == 1:
        return noun
    if index == 0:
        return f"left {noun}"
    if index == count - 1:
        return f"right {noun}"
    return f"middle {noun}" if count == 3 else f"{noun} {index + 1} from the left"
