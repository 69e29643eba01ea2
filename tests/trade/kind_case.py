"""What the cases by hand of every kind start from.

A piece on the studs at 800 and 1 600 mm, and what is asked of a verdict.
"""

from typing import Any

from django.test import SimpleTestCase

from tests.plans import wall
from trade.assess import assess_piece
from trade.check import OVER, Check
from trade.plan.model import AnyPiece, Piece, Thing, Wall

KG = 9.80665


def piece(kind: type[Piece], **changes: Any) -> Any:
    """1 000 mm long, on the studs at 800 and 1 600 mm."""
    base: dict[str, Any] = {
        "key": "piece",
        "name": "Piece",
        "left_mm": 700.0,
        "top_mm": 1500.0,
        "length_mm": 1000.0,
        "depth_mm": 200.0,
        "use": "display",
        "supports_mm": (100.0, 900.0),
        "screw": "wood_10",
        "screw_length_mm": 76.2,
        "things": (Thing(name="Load", mass_kg=10.0),),
    }
    return kind(**{**base, **changes})


def load(kg: float, **where: float) -> tuple[Thing, ...]:
    return (Thing(name="Load", mass_kg=kg, **where),)


class Case(SimpleTestCase):
    def outcome(self, what: AnyPiece, on: Wall | None = None) -> str:
        return assess_piece(what, on or wall()).outcome

    def fails(self, code: str, what: AnyPiece, on: Wall | None = None) -> Check:
        verdict = assess_piece(what, on or wall())
        check = next(check for check in verdict.checks if check.code == code)
        self.assertEqual(check.outcome, OVER[check.limit], (code, check.utilisation))
        return check

    def check(self, code: str, what: AnyPiece, on: Wall | None = None) -> Check:
        return next(
            check for check in assess_piece(what, on or wall()).checks if check.code == code
        )

    def cannot_tell(self, words: str, what: AnyPiece, on: Wall | None = None) -> None:
        verdict = assess_piece(what, on or wall())
        self.assertEqual(
            verdict.outcome,
            "cannot_tell",
            [c.code for c in verdict.checks if c.outcome == "wont_hold"],
        )
        self.assertTrue(any(words in ask for ask in verdict.unknown), verdict.unknown)
