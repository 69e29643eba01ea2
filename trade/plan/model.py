"""The plan: what everything is computed from.

Frozen; refuses nonsense at the door; changed by copy.
"""

from typing import Annotated

import msgspec
from msgspec import Meta

from trade import data
from trade.errors import PlanError
from trade.language import compose
from trade.measure import Units, say_length
from trade.plan.as_built import AsBuilt
from trade.plan.datum import Datum
from trade.plan.facing import Opening, RoomCorner
from trade.plan.features import Feature
from trade.plan.item import Key, Name, PlanItem, known
from trade.plan.pieces import (
    LEAST_GAP_MM,
    AnyPiece,
    Bench,
    Bookcase,
    BoxShelf,
    BracketBeam,
    BracketShelf,
    Cabinet,
    CleatWall,
    CornerShelf,
    DowelShelf,
    GridPanel,
    HolderBoard,
    LedgerShelf,
    Panel,
    PegWall,
    Piece,
    PinShelf,
    Rail,
    RodBeam,
    RodShelf,
    Shelf,
    Thing,
    TrackShelf,
)
from trade.plan.policy import Policy
from trade.plan.shop import Shop
from trade.plan.wall import Covering, Layer, Packet, Stud, Wall

__all__ = [
    "LEAST_GAP_MM",
    "AnyPiece",
    "AsBuilt",
    "Bench",
    "Bookcase",
    "BoxShelf",
    "BracketBeam",
    "BracketShelf",
    "Cabinet",
    "CleatWall",
    "CornerShelf",
    "Covering",
    "Datum",
    "DowelShelf",
    "GridPanel",
    "HolderBoard",
    "Layer",
    "LedgerShelf",
    "Packet",
    "Panel",
    "PegWall",
    "Piece",
    "PinShelf",
    "Plan",
    "Policy",
    "Rail",
    "RodBeam",
    "RodShelf",
    "Shelf",
    "Shop",
    "Stud",
    "Thing",
    "TrackShelf",
    "Wall",
    "WallPlan",
]


ONLY = "wall"  # key of a wall that is alone
MOST_WALLS = 12
_MOST_PIECES = 200


WallName = Annotated[str, Meta(max_length=80)]


class WallPlan(PlanItem, frozen=True, kw_only=True, cache_hash=True):
    """One wall of a place: the wall, what hangs on it, where one measures from, what was built.

    `name`: what people call it; empty where there is no other.
    """

    key: Key = ONLY
    name: WallName = ""
    wall: Wall
    pieces: tuple[AnyPiece, ...] = ()
    datum: Datum = Datum()
    as_built: AsBuilt = msgspec.field(default=AsBuilt(), name="built")


class Plan(PlanItem, frozen=True, kw_only=True):
    """A place, seen from in front of one of its walls: that wall and all that hangs on it.

    `name`: of the place; `at`, `faced`: key and name of the wall. `before`, `after`: its other
    walls, from the far left to the far right; `corners`: where each meets the next;
    `opening`: the way in; null: nobody said.
    """

    name: Name
    units: Units
    wall: Wall
    pieces: tuple[AnyPiece, ...] = ()
    policy: Policy = Policy()
    datum: Datum = Datum()
    shop: Shop = Shop()
    as_built: AsBuilt = AsBuilt()
    at: Key = ONLY
    faced: WallName = ""
    before: tuple[WallPlan, ...] = ()
    after: tuple[WallPlan, ...] = ()
    corners: tuple[RoomCorner, ...] = ()
    opening: Opening | None = None

    def __post_init__(self) -> None:
        """Refuse pieces that are not on the wall or share a key, and corners between no walls."""
        others = (*self.before, *self.after)
        every = (self.pieces, *(other.pieces for other in others))
        keys = [piece.key for pieces in every for piece in pieces]
        if len(set(keys)) != len(keys):
            raise PlanError("Two mountings have the same key.", "pieces")
        if len({self.at, *(other.key for other in others)}) != 1 + len(others):
            raise PlanError("Two walls have the same key.", "walls")
        if len(others) >= MOST_WALLS:
            raise PlanError("More than 12 walls in one place.", "walls")
        if len(self.corners) != len(others):
            raise PlanError("Walls in a row have a corner between each two.", "corners")
        if len(self.pieces) > _MOST_PIECES:
            raise PlanError("More than 200 mountings on one wall.", "pieces")
        for i, piece in enumerate(self.pieces):
            _on_the_wall(piece, self.wall, self.units, f"pieces[{i}]")

    @property
    def faced_name(self) -> str:
        """What its wall is called among the others; the place's name where it is alone."""
        return self.faced or self.name

    @property
    def supports_mm(self) -> tuple[float, ...]:
        """Where everything on the wall is held, from its left corner."""
        return tuple(piece.left_mm + x for piece in self.pieces for x in piece.supports_mm)

    @property
    def waiting(self) -> tuple[AnyPiece, ...]:
        """What does not hang yet: what is still to be cut for, bought for and hung."""
        return tuple(piece for piece in self.pieces if not self.as_built.hangs(piece.key))

    @property
    def wood_to_fit(self) -> tuple[Feature, ...]:
        """Blocking that is still to be put in behind the wall."""
        done = {each.step for each in self.as_built.done}
        return tuple(each for each in self.wall.features if each.to_fit and each.step not in done)

    def piece(self, key: str) -> AnyPiece:
        """One piece.

        Raises:
            PlanError: there is none of that key.
        """
        for piece in self.pieces:
            if piece.key == key:
                return piece
        raise PlanError(compose("There is nothing called “{key}” on this wall.", key=key))

    def with_piece(self, changed: AnyPiece) -> "Plan":
        """Return a copy in which the piece of the same key is replaced.

        Or added when there was none.
        """
        pieces = tuple(changed if piece.key == changed.key else piece for piece in self.pieces)
        return msgspec.structs.replace(
            self, pieces=pieces if changed in pieces else (*pieces, changed)
        )

    def with_wood(self, wood: tuple[Feature, ...]) -> "Plan":
        """Return a copy with blocking behind its wall; the same plan where there is none."""
        if not wood:
            return self
        wall = msgspec.structs.replace(self.wall, features=(*self.wall.features, *wood))
        return msgspec.structs.replace(self, wall=wall)

    def alone_with(self, piece: AnyPiece) -> "Plan":
        """Return this wall with one piece, as if nothing else hung anywhere or was built yet."""
        return msgspec.structs.replace(
            self, pieces=(piece,), as_built=AsBuilt(), before=(), after=(), corners=()
        )

    def without_piece(self, key: str) -> "Plan":
        """Return a copy without one piece."""
        return msgspec.structs.replace(
            self, pieces=tuple(piece for piece in self.pieces if piece.key != key)
        )


def _on_the_wall(piece: AnyPiece, wall: Wall, units: Units, where: str) -> None:
    slack = 0.05  # typed fractions and millimetres do not always meet
    width, height = say_length(wall.width_mm, units), say_length(wall.height_mm, units)
    if piece.length_mm > wall.width_mm + slack:
        said = say_length(piece.length_mm, units)
        raise PlanError(
            compose(
                "“{piece}” is {said} long and the wall only {width} wide.",
                piece=piece.name,
                said=said,
                width=width,
            ),
            f"{where}.length_mm",
        )
    if piece.left_mm + piece.length_mm > wall.width_mm + slack:
        said = say_length(piece.left_mm + piece.length_mm, units)
        raise PlanError(
            compose(
                "“{piece}” would end at {said}, past the wall's {width}.",
                piece=piece.name,
                said=said,
                width=width,
            ),
            f"{where}.left_mm",
        )
    if piece.anchor is not None and piece.anchor not in {packet.key for packet in wall.packets}:
        known(data.anchors(), piece.anchor, "anchor", f"{where}.anchor")
    if piece.top_mm > wall.height_mm + slack:
        raise PlanError(
            compose(
                "“{piece}” would be above the wall's {height}.", piece=piece.name, height=height
            ),
            f"{where}.top_mm",
        )
    if piece.top_mm < piece.high_mm - slack:
        raise PlanError(
            compose("“{piece}” would be below the floor.", piece=piece.name), f"{where}.top_mm"
        )
