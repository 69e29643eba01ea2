"""A strip of wood screwed to the studs, whatever then hangs on it.

Ledgers, cleats, rails, back strips, battens.
"""

from trade import data
from trade.calculation import Quantity
from trade.fixings import wood
from trade.fixings.support import Hardware, Support, support
from trade.measure import Units
from trade.mechanics.beam import widest_is_overhang, widest_mm
from trade.mounts.base import Shape, block, support_name
from trade.mounts.work import Bored
from trade.plan.model import Piece, Wall

FACE_WIDTH_MM = data.house("strip_face_mm")
_TWO_ROWS_MM = data.house("two_rows_mm")
_CRUSHES = data.house("crushing_over_allowable")
_SCREW_MM = 4.0  # how screws are drawn from the front


def rows(high_mm: float) -> tuple[float, ...]:
    """Where a strip's screws go above its lower edge.

    One in the middle of a low one, two in a high one.
    """
    return (0.75 * high_mm, 0.25 * high_mm) if high_mm >= _TWO_ROWS_MM else (high_mm / 2,)


def on_studs(
    piece: Piece,
    wall: Wall,
    noun: str,
    board: str,
    thick_mm: float,
    high_mm: float,
    foot_mm: float,
    heights_mm: tuple[float, ...] | None = None,
    first: int = 0,
    along_mm: float = 0.0,
    joint: int | None = None,
) -> list[Support]:
    """Return a strip's seats, one at each of a piece's supports.

    Args:
        piece: whose strip it is.
        wall: it is screwed to.
        noun: what a support is called.
        board: row of the boards table that the strip is of.
        thick_mm: its thickness, under the heads.
        high_mm: its height, which presses.
        foot_mm: its lower edge above the floor.
        heights_mm: of the screws above that edge; by default as `rows` says.
        first: number of the first seat, where there is more than one strip.
        along_mm: how much of the lining between studs it presses at each.
        joint: number of the support over which two lengths of it meet slantwise: there each is half
          as thick under the heads.
    """
    side_mm = data.screws()[piece.screw].diameter_mm
    side = side_of(board, thick_mm, side_mm)
    strip, count = (piece.left_mm, piece.left_mm + piece.length_mm, high_mm), len(piece.supports_mm)
    hardware = Hardware(
        heights_mm or rows(high_mm), high_mm, FACE_WIDTH_MM, side, strip=strip, along_mm=along_mm
    )
    thin = hardware._replace(side=side_of(board, thick_mm / 2, side_mm))
    return [
        support(
            wall,
            piece,
            thin if i == joint else hardware,
            first + i,
            support_name(i, count, noun),
            piece.left_mm + x,
            foot_mm,
        )
        for i, x in enumerate(piece.supports_mm)
    ]


def side_of(board: str, thick_mm: float, nominal_mm: float) -> wood.Side:
    """Return what lies under the head of a screw: a strip of wood, a sheet, steel, plastic."""
    row = data.boards()[board]
    if row.wooden:
        return wood.wood_side(thick_mm, row.g, nominal_mm, across=not row.sheet)
    if row.allowable_mpa is not None:
        return wood.steel_side(thick_mm)
    return wood.Side(thick_mm, _CRUSHES * row.bearing_mpa, None)


def bent_where(length_mm: float, supports_mm: tuple[float, ...]) -> tuple[str, Quantity]:
    """Return the start of a sentence naming `{span}`, and the span where a strip bends most, mm."""
    span = widest_mm(length_mm, supports_mm)
    if widest_is_overhang(length_mm, supports_mm):
        return "Beyond its last screws, {span} from its end,", Quantity(span / 2, "length")
    return "Between its screws, {span} apart,", Quantity(span, "length")


def screws_front(
    piece: Piece, heights_mm: tuple[float, ...], hidden: bool = True, first: int = 0
) -> list[Shape]:
    """Return a strip's screws from the front, at heights above the floor."""
    return [
        block(
            "hidden" if hidden else "steel",
            x - _SCREW_MM,
            y - _SCREW_MM,
            x + _SCREW_MM,
            y + _SCREW_MM,
            first + i,
        )
        for i, x in enumerate(piece.left_mm + at for at in piece.supports_mm)
        for y in heights_mm
    ]


def screwed(
    supports: list[Support], left_mm: float, foot_mm: float, units: Units, into: str = "its face"
) -> tuple[Bored, ...]:
    """Return the holes through a strip for what goes through it into the wall.

    From its left end and its lower edge.
    """
    found = []
    for wide in dict.fromkeys(each.clearance_mm(units) for each in supports):
        through = [each for each in supports if each.clearance_mm(units) == wide]
        places = tuple((x - left_mm, y - foot_mm) for each in through for x, y in each.holes)
        why = "for the anchors" if through[0].anchored else "for the screws"
        found += [] if wide is None else [Bored(into, places, wide, None, why)]
    return tuple(found)


def shear_n(support: Support) -> float:
    """Return the shear capacity of one of a seat's screws, N, for ten years in timber (C_D = 1)."""
    if support.capacity is not None:
        return support.capacity.shear_n
    bearing = wood.bearing_length_mm(
        support.reach.penetration_mm, support.screw.diameter_mm, support.screw.tip_mm
    )
    if bearing <= 0:
        return 0.0
    lying, screw = support.across_grain, support.screw
    fe = wood.bearing_strength_mpa(support.timber.g, screw.diameter_mm, lying)
    return wood.lateral(wood.dowel(screw), support.side, support.gap_mm, fe, bearing, lying).value_n


def durations(support: Support) -> tuple[float, float]:
    """C_D for years and for minutes: as wood in timber, none where anchors hold."""
    if support.anchored:
        return 1.0, 1.0
    return data.house("duration_years"), data.house("duration_minutes")
