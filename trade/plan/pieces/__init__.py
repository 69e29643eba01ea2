"""What hangs on a wall: one class for each kind of mounting."""

from trade.plan.pieces.base import LEAST_GAP_MM, Piece, Shelf, Thing
from trade.plan.pieces.hung import Cabinet, CleatWall, GridPanel, HolderBoard, Panel, PegWall, Rail
from trade.plan.pieces.shelves import (
    BoxShelf,
    BracketBeam,
    BracketShelf,
    CornerShelf,
    DowelShelf,
    LedgerShelf,
    PinShelf,
    RodBeam,
    RodShelf,
    TrackShelf,
)
from trade.plan.pieces.standing import Bench, Bookcase

AnyPiece = (
    BracketShelf
    | BracketBeam
    | RodShelf
    | PinShelf
    | DowelShelf
    | BoxShelf
    | Cabinet
    | RodBeam
    | LedgerShelf
    | CornerShelf
    | Rail
    | Panel
    | PegWall
    | GridPanel
    | HolderBoard
    | Bookcase
    | Bench
    | CleatWall
    | TrackShelf
)

__all__ = [
    "LEAST_GAP_MM",
    "AnyPiece",
    "Bench",
    "Bookcase",
    "BoxShelf",
    "BracketBeam",
    "BracketShelf",
    "Cabinet",
    "CleatWall",
    "CornerShelf",
    "DowelShelf",
    "GridPanel",
    "HolderBoard",
    "LedgerShelf",
    "Panel",
    "PegWall",
    "Piece",
    "PinShelf",
    "Rail",
    "RodBeam",
    "RodShelf",
    "Shelf",
    "Thing",
    "TrackShelf",
]
