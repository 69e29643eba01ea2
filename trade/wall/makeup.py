"""What the wall is made of, from what a person noticed: ranked, never proven."""

from collections.abc import Iterable
from typing import NamedTuple

from trade import data


class Guess(NamedTuple):
    """A structure and how likely it is, given what was noticed and nothing else."""

    key: str
    name: str
    probability: float


def guesses(clues: Iterable[str]) -> tuple[Guess, ...]:
    """Structures from the likeliest on.

    Every one alike before anything was noticed, clues taken as independent (house rule).

    Raises:
        UnknownRowError: no such clue.
    """
    rows = [data.row(data.clues(), key, "clue") for key in clues]
    weights = {}
    for key in data.structures():
        weight = 1.0
        for row in rows:
            weight *= row.speaks.get(key, row.otherwise)
        weights[key] = weight
    total = sum(weights.values())
    ranked = sorted(weights, key=weights.__getitem__, reverse=True)
    return tuple(Guess(key, data.structures()[key].name, weights[key] / total) for key in ranked)
