"""In what order a piece gives way when more and more is put on it."""

from itertools import pairwise
from typing import NamedTuple

from msgspec.structs import replace

from trade.assess import assess_piece
from trade.plan import AnyPiece, Wall

_FACTORS = tuple(2 ** (n / 2) for n in range(15))  # up to 128 times


class Failing(NamedTuple):
    """A check that fails when what is on the piece is multiplied by `factor`."""

    code: str
    name: str
    factor: float


def heavier(piece: AnyPiece, factor: float) -> AnyPiece:
    """The piece with everything on it so many times as heavy."""
    things = tuple(replace(thing, mass_kg=thing.mass_kg * factor if thing.mass_kg else thing.mass_kg) for thing in piece.things)
    return replace(piece, things=things)


def order(piece: AnyPiece, wall: Wall) -> tuple[Failing, ...]:
    """What gives way first, second and so on; what fails as it is with a factor below 1; advice and misfits not at all.

    Factors between those that are tried are read off a straight line, so they are good to a few hundredths.
    """
    tried = [
        (factor, {c.code: c for c in assess_piece(heavier(piece, factor), wall).checks if not (c.fit or c.advice)})
        for factor in _FACTORS
    ]
    found: dict[str, Failing] = {}
    first = tried[0][1]
    for code, check in first.items():
        if check.utilisation > 1:
            found[code] = Failing(code, check.name, 1 / check.utilisation)
    for (low, before), (high, after) in pairwise(tried):
        for code, check in after.items():
            was = before[code].utilisation if code in before else 0.0
            if code not in found and check.utilisation > 1 >= was:
                found[code] = Failing(code, check.name, low + (high - low) * (1 - was) / (check.utilisation - was))
    return tuple(sorted(found.values(), key=lambda failing: failing.factor))
