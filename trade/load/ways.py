"""A way in which supports share a load."""

from typing import NamedTuple


class Sharing(NamedTuple):
    """Which supports bear, and how they share.

    `left_out`: supports that are counted as bearing nothing. `stiff`: the piece is a stiff beam and
    its supports give alike, and not an elastic beam whose supports are rigid. `turned`: it turns
    its supports together, as far as its own strength in twist goes; each support then gets an even
    part of what turns it, and not its own load times the distance.
    """

    left_out: tuple[int, ...] = ()
    stiff: bool = False
    turned: bool = False


ELASTIC = Sharing()
BOARD = Sharing(turned=True)
BODY = Sharing(stiff=True, turned=True)
