"""Heights that suit people: seats, desks, counters, what is reached and which face is seen."""

from trade import data
from trade.calculation import Quantity
from trade.check import Message
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Shelf

_EYE_MM = data.house("eye_mm")
_SEAT_LOW_MM, _SEAT_HIGH_MM = data.house("sat_on_low_mm"), data.house("sat_on_high_mm")
_SEAT_DEEP_MM, _SEAT_LONG_MM = data.house("sat_on_deep_mm"), data.house("sat_on_long_mm")


def to_mind(piece: AnyPiece) -> list[Message]:
    """Return what its height means for those who use it."""
    if "sit" in data.mounting_kinds()[mount_of(piece).kind].serves:
        return _suited(piece)
    if not isinstance(piece, Shelf):
        return []
    return [*_sat_on(piece), *_seen(piece)]


def _suited(piece: AnyPiece) -> list[Message]:
    """Return for what a bench's or a desk's top is too low or too high, if for anything."""
    if any(each.low_mm <= piece.top_mm <= each.high_mm for each in data.suits().values()):
        return []
    nearest = min(
        data.suits().values(),
        key=lambda each: min(abs(piece.top_mm - each.low_mm), abs(piece.top_mm - each.high_mm)),
    )
    said = "Its top is {top} up. {what!c} suits most people between {low} and {high}."
    return [
        Message(
            said,
            {
                "top": Quantity(piece.top_mm, "length"),
                "what": nearest.name,
                "low": Quantity(nearest.low_mm, "length"),
                "high": Quantity(nearest.high_mm, "length"),
            },
        )
    ]


def _sat_on(piece: Shelf) -> list[Message]:
    """Return that people will sit on it, where it is as low, as deep and as long as a seat."""
    low = _SEAT_LOW_MM <= piece.top_mm <= _SEAT_HIGH_MM
    wide = piece.depth_mm >= _SEAT_DEEP_MM and piece.length_mm >= _SEAT_LONG_MM
    if not (low and wide) or data.uses()[piece.use].push_n >= data.uses()["sitting"].push_n:
        return []
    said = "At {top} people sit down on it, whatever it is for: judge it for sitting."
    return [Message(said, {"top": Quantity(piece.top_mm, "length")})]


def _seen(piece: Shelf) -> list[Message]:
    """Return that its underside is seen, where it hangs above people's eyes."""
    if piece.top_mm - piece.high_mm < _EYE_MM:
        return []
    return [
        Message(
            "It hangs above eye level: its underside is seen, so the better face goes down, and "
            "what is screwed from below shows."
        )
    ]
