"""Loose shelves and uprights inside a body that stands or hangs: their sizes, and the rows of holes for their pins."""

from typing import NamedTuple

from trade import data
from trade.fixings import driving
from trade.measure import Units
from trade.mounts.base import Ask, Part, cut
from trade.mounts.work import Band, Detail, Row
from trade.plan import Bookcase, Cabinet

ASKS = (
    Ask("dividers", "Uprights to make for its inside", "count"),
    Ask("loose_shelves", "Loose shelves to make for it", "count"),
    Ask("inner", "Those of", "choice", data.woods),
    Ask("inner_mm", "They and its own sides thick", "length"),
)
_BACK_MM = 10.0  # house rule: a loose shelf stays behind the front and before the back by that much together
_OFF_MM, _DEEP_MM = 100.0, 10.0  # house rule: first hole above the bottom and last below the top; how deep a pin sits
_ROWS = 2  # on each face: one pin at the front, one at the back


class Inside(NamedTuple):
    """The room between a body's own sides, top and bottom, parted by uprights into bays of one width; mm."""

    bays: int
    bay_mm: float
    high_mm: float
    deep_mm: float


def inside(piece: Bookcase | Cabinet) -> Inside:
    """The inside of a body whose own boards are as thick as its uprights."""
    t, bays = piece.inner_mm, piece.dividers + 1
    return Inside(bays, (piece.length_mm - 2 * t - piece.dividers * t) / bays, piece.height_mm - 2 * t, piece.depth_mm - _BACK_MM)


def row(piece: Bookcase | Cabinet, into: str, faces: int, units: Units) -> Row:
    """The holes for shelf pins in so many faces."""
    every = data.house("pin_every_mm")
    many = max(int((inside(piece).high_mm - 2 * _OFF_MM) / every), 0) + 1
    return Row(into, _ROWS * faces, many, _OFF_MM, every, driving.drill_at_least_mm(data.house("pin_mm"), units), _DEEP_MM)


def parts(piece: Bookcase | Cabinet) -> list[Part]:
    """Uprights, loose shelves, each a little short, and four pins for each."""
    room, t = inside(piece), piece.inner_mm
    found = []
    if piece.dividers:
        found.append(cut("upright", piece.inner, piece.dividers, room.high_mm, room.deep_mm, t))
    if piece.loose_shelves:
        short = room.bay_mm - data.house("loose_shelf_mm")
        found.append(cut("loose shelf", piece.inner, piece.loose_shelves, short, room.deep_mm, t))
        found.append(Part("shelf pin", "shelf pin, 5 mm", 4 * piece.loose_shelves))
    return found


def details(piece: Bookcase | Cabinet, units: Units) -> dict[str, Detail]:
    """Bands on what is seen; rows of holes in uprights and in the body's own sides; what is measured first."""
    found: dict[str, Detail] = {}
    room, sheet = inside(piece), data.boards()[piece.inner].sheet
    own = (row(piece, "the inner faces of the body's own two sides", 2, units),) if piece.loose_shelves else ()
    if piece.dividers:
        works = (row(piece, "both its faces", 2, units),) if piece.loose_shelves else ()
        band = (Band("its front edge", room.high_mm),) if sheet else ()
        found["upright"] = Detail((*works, *band), "good edge to the front", "from the body's bottom to its top, inside")
    if piece.loose_shelves:
        band = (Band("its front edge", room.bay_mm),) if sheet else ()
        found["loose shelf"] = Detail((*own, *band), "good face up", "between two uprights; take off 3 mm (1/8 in)")
    return found
