"""What a room that is no heated room does to what is kept in it."""

from trade import data
from trade.check import Message
from trade.plan.model import AnyPiece, Plan


def to_mind(piece: AnyPiece, plan: Plan) -> list[Message]:
    """Return what should not be kept there, and what to mind with wood and metal.

    Nothing in a heated room. Things count that were taken from the list of contents.
    """
    if plan.wall.climate is None:
        return []
    room = data.climates()[plan.wall.climate]
    found = [
        Message(
            "“{thing}” should not be kept in {room}: {why}.",
            {"thing": thing.name, "room": room.name, "why": room.spoils[how]},
        )
        for thing in piece.things
        if thing.of is not None
        for how in data.contents()[thing.of].spoils
        if how in room.spoils
    ]
    return [*found, Message(room.mind)]
