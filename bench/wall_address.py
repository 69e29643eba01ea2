"""Addresses of walls: `12` is a wall or a place, `12.left` it in front of one of its walls."""


class WallAddress(int):
    """The number of a wall's record, and the key of the wall that one stands in front of.

    The key is empty where the address has none: then it is the widest wall of the place.
    """

    at: str = ""

    def __new__(cls, pk: int, at: str = "") -> "WallAddress":
        """Make it of both."""
        made = super().__new__(cls, pk)
        made.at = at
        return made

    def __str__(self) -> str:
        """Return what stands in the address."""
        return f"{int(self)}.{self.at}" if self.at else str(int(self))


class WallConverter:
    """Reads and writes the part of an address that says which wall."""

    regex = r"[0-9]+(?:\.[a-z0-9][a-z0-9-]{0,39})?"

    def to_python(self, value: str) -> WallAddress:
        """Read it."""
        pk, _, at = value.partition(".")
        return WallAddress(int(pk), at)

    def to_url(self, value: int | str) -> str:
        """Write it."""
        return str(value)
