"""A board of a body: the block that it is cut from, and what is taken off that.

Places are in mm from the body's left end, up from its foot and out from its back, in this order.
"""

from typing import Literal, NamedTuple

Point = tuple[float, float, float]
Axis = Literal[0, 1, 2]
ALONG: Axis = 0
UP: Axis = 1
OUT: Axis = 2
End = Literal[-1, 1]


class Block(NamedTuple):
    """A block with square corners, from its lowest corner to its highest."""

    low: Point
    high: Point

    def size(self, axis: Axis) -> float:
        """Its size in one direction, mm."""
        return self.high[axis] - self.low[axis]

    @property
    def volume_mm3(self) -> float:
        """What it holds."""
        return self.size(0) * self.size(1) * self.size(2)


def block(across: tuple[float, float], up: tuple[float, float], out: tuple[float, float]) -> Block:
    """Return a block from where to where along the wall, up, and out of it."""
    return Block((across[0], up[0], out[0]), (across[1], up[1], out[1]))


class Mitred(NamedTuple):
    """An end sawn at 45 degrees, its inner face shorter.

    `axis`, `end`: which end; `inner`: the side of the board that is the inner face.
    """

    axis: Axis
    end: End
    inner: End


class Panel(NamedTuple):
    """A board of a body.

    `thin`: the direction of its thickness; `long`: of its length, and its grain; `mitres`: ends
    sawn off square, of which no two meet; `taken`: blocks taken out of it, which do not overlap and
    lie within it.
    """

    name: str
    board: str
    body: Block
    thin: Axis
    long: Axis
    mitres: tuple[Mitred, ...] = ()
    taken: tuple[Block, ...] = ()

    @property
    def wide(self) -> Axis:
        """The direction of its width."""
        return next(axis for axis in (ALONG, UP, OUT) if axis not in (self.thin, self.long))

    @property
    def sizes_mm(self) -> tuple[float, float, float]:
        """Length, width and thickness, as it is cut."""
        return tuple(self.body.size(axis) for axis in (self.long, self.wide, self.thin))  # type: ignore[return-value]

    @property
    def volume_mm3(self) -> float:
        """Its volume after all cuts."""
        off = sum(
            self.body.size(self.thin) ** 2 / 2 * self.body.size(_third(self.thin, mitre.axis))
            for mitre in self.mitres
        )
        return self.body.volume_mm3 - off - sum(each.volume_mm3 for each in self.taken)

    def corners(self) -> list[Point]:
        """Return its eight corners before anything is taken out: mitred ends are shorter inside."""
        found = []
        for n in range(8):
            at = [(self.body.low, self.body.high)[n >> axis & 1][axis] for axis in (ALONG, UP, OUT)]
            for axis, end, inner in self.mitres:
                here = (n >> axis & 1) == (end > 0) and (n >> self.thin & 1) == (inner > 0)
                at[axis] -= here * end * self.body.size(self.thin)
            found.append((at[0], at[1], at[2]))
        return found


def _third(one: Axis, other: Axis) -> Axis:
    return next(axis for axis in (ALONG, UP, OUT) if axis not in (one, other))
