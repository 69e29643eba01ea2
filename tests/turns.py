"""Which of many combinations a run of the tests meets.

Where pages, papers and commands are asked for over kinds, bases, walls and stages, one run meets
some of them by turns, so that each of one sort meets each of another sooner or later along a
diagonal. `EVERYTHING=1 bin/test` meets them all: before a release, and after a change to what every
page is made of.
"""

import os

EVERYTHING = bool(os.environ.get("EVERYTHING"))
_OF = 5


def in_turn(n: int, k: int, of: int = _OF) -> bool:
    """Return whether the n-th of one sort meets the k-th of another: every so many do, or all."""
    return EVERYTHING or (n + k) % of == 0
