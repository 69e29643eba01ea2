"""The boards of a case: sides, top and bottom, a back, and what parts its inside.

The sides run through, from the floor or the foot to the top, and the others go between them; at
mitred corners none does. The back lies in a rabbet of the sides and runs over top and bottom
behind; in a mitred case it lies between the boards. Grooves stop before the front edge, so that
they are not seen, and what goes into them is notched there.
"""

from collections.abc import Iterator
from typing import NamedTuple

from trade import data
from trade.data import Joint
from trade.language import word
from trade.memo import memoized
from trade.workshop.drawer import drawer
from trade.workshop.panels import ALONG, OUT, UP, Axis, Block, End, Mitred, Panel, block

_STOPPED_MM = data.house("groove_stops_mm")
_KICK_BACK_MM = data.house("kick_back_mm")
_DOOR_GAP_MM = data.house("door_gap_mm")
_SHORT_MM = data.house("loose_shelf_mm")
_LOOSE_BACK_MM = data.house("loose_shelf_back_mm") / 2
BACK_BOARD = "plywood"
BOTTOM_MM = 6.0  # of drawers in a case without a back


class Cell(NamedTuple):
    """What is free between two fixed boards of a bay.

    From where to where it goes along the wall, how high it is free between its loose shelves, and
    their undersides.
    """

    bay_mm: tuple[float, float]
    free_mm: float
    shelves_mm: tuple[float, ...]


class Case(NamedTuple):
    """What a case shall be.

    Its outside sizes, doors in front included; its boards, `board_mm` thick; the joint between
    them; `back_mm`: of its back, 0 for none; `rail_mm`: height of the rail under its top before the
    back, 0 for none, `rail_thick_mm` thick; `kick_mm`: from the floor to its bottom; `doors` that
    cover its front; `dividers` from bottom to top; `rows` of fixed shelves across every bay;
    `loose` shelves; `drawer_mm`: height of the opening at the bottom of each bay for a drawer, 0
    for none.
    """

    length_mm: float
    height_mm: float
    depth_mm: float
    board: str
    board_mm: float
    joint: Joint
    back_mm: float = 0.0
    rail_mm: float = 0.0
    rail_thick_mm: float = 0.0
    kick_mm: float = 0.0
    doors: int = 0
    dividers: int = 0
    rows: int = 0
    loose: int = 0
    drawer_mm: float = 0.0

    @property
    def housed_mm(self) -> float:
        """How deep one board sits in another."""
        return self.board_mm / 3 if self.joint.way == "housed" else 0.0

    @property
    def rabbet_mm(self) -> float:
        """How far the back reaches into the sides."""
        return 0.0 if self.joint.way == "mitred" or not self.back_mm else self.board_mm / 2

    @property
    def front_mm(self) -> float:
        """How far its boards stand out from its back: less than its depth by a door."""
        return self.depth_mm - (self.board_mm if self.doors else 0.0)

    @property
    def floor_mm(self) -> float:
        """Top of its bottom, above its foot."""
        return self.kick_mm + self.board_mm

    @property
    def bay_mm(self) -> float:
        """Between two uprights, or an upright and a side."""
        return (self.length_mm - (self.dividers + 2) * self.board_mm) / (self.dividers + 1)

    @property
    def bays_mm(self) -> list[tuple[float, float]]:
        """Each bay, from its left end to its right."""
        step = self.bay_mm + self.board_mm
        lefts = (self.board_mm + n * step for n in range(self.dividers + 1))
        return [(left, left + self.bay_mm) for left in lefts]

    @property
    def rows_mm(self) -> list[float]:
        """Undersides of its rows of fixed shelves, from the lowest: that over its drawers first."""
        low = self.shelves_from_mm
        free = (self._ceiling_mm - low - self.rows * self.board_mm) / (self.rows + 1)
        over = [low - self.board_mm] if self.drawer_mm else []
        return [*over, *(low + n * (free + self.board_mm) + free for n in range(self.rows))]

    @property
    def shelves_from_mm(self) -> float:
        """Where its shelves begin, above its foot: on its bottom, or over its drawers."""
        return self.floor_mm + (self.drawer_mm + self.board_mm if self.drawer_mm else 0.0)

    @property
    def drawers_mm(self) -> list[Block]:
        """The opening for each drawer, from the left."""
        if not self.drawer_mm:
            return []
        up, out = (self.floor_mm, self.floor_mm + self.drawer_mm), (self.back_mm, self.front_mm)
        return [block(bay, up, out) for bay in self.bays_mm]

    @property
    def cells(self) -> list[Cell]:
        """What is free inside between two fixed boards, from the lowest, with its loose shelves."""
        lows = [self.floor_mm, *(row + self.board_mm for row in self.rows_mm)]
        levels = list(zip(lows, [*self.rows_mm, self._ceiling_mm], strict=True))
        rooms = [
            (bay, low, high)
            for low, high in levels[1 if self.drawer_mm else 0 :]
            for bay in self.bays_mm
        ]
        found = []
        for n, (bay, low, high) in enumerate(rooms):
            many = self.loose // len(rooms) + (n < self.loose % len(rooms))
            free = (high - low - many * self.board_mm) / (many + 1)
            under = tuple(low + free + k * (free + self.board_mm) for k in range(many))
            found.append(Cell(bay, free, under))
        return found

    @property
    def room_mm(self) -> float:
        """What is free under the tightest of its shelves; less than nought where they collide."""
        return min(each.free_mm for each in self.cells)

    @property
    def _ceiling_mm(self) -> float:
        """What is free inside ends here: at the top, or at the rail under it."""
        return self.height_mm - self.board_mm - self.rail_mm


@memoized(limit=200)
def boards(case: Case) -> tuple[Panel, ...]:
    """Return every board of a case, the outer ones first."""
    return tuple(_outer(case)) + tuple(_inner(case))


def weight_kg(case: Case) -> float:
    """Return what the boards of a case weigh, doors and shelves included."""
    rows = data.boards()
    return sum(each.volume_mm3 * rows[each.board].density_kg_m3 for each in boards(case)) / 1e9


def _outer(case: Case) -> Iterator[Panel]:
    t, long, high, out = case.board_mm, case.length_mm, case.height_mm, case.front_mm
    low, housed = case.kick_mm, case.housed_mm
    sides = [(0.0, t), (long - t, long)]
    if case.joint.way == "mitred":
        for (left, right), inner in zip(sides, (1, -1), strict=True):
            yield Panel(
                "side",
                case.board,
                block((left, right), (0.0, high), (0.0, out)),
                ALONG,
                UP,
                _both_ends(UP, inner),  # type: ignore[arg-type]
            )
        for name, up, inner in ((word("top"), (high - t, high), -1), (word("bottom"), (0.0, t), 1)):
            whole = block((0.0, long), up, (0.0, out))
            yield Panel(name, case.board, whole, UP, ALONG, _both_ends(ALONG, inner))  # type: ignore[arg-type]
    else:
        for n, (left, right) in enumerate(sides):
            taken = (*_back_rabbet(case, n), *_top_rabbet(case, n), *_housings(case, n, right))
            whole = block((left, right), (0.0, high), (0.0, out))
            yield Panel("side", case.board, whole, ALONG, UP, (), taken)
        across = (t - housed, long - t + housed)
        uprights = tuple(_upright_housings(case, (high - t, high - t + housed)))
        whole = block(across, (high - t, high), (case.back_mm, out))
        yield Panel("top", case.board, whole, UP, ALONG, (), uprights)
        uprights = tuple(_upright_housings(case, (low + t - housed, low + t)))
        whole = block(across, (low, low + t), (case.back_mm, out))
        notches = tuple(_notches(case, whole, ALONG))
        yield Panel("bottom", case.board, whole, UP, ALONG, (), (*notches, *uprights))
    yield from _behind(case)


def _behind(case: Case) -> Iterator[Panel]:
    """Yield the back, the rail before it, the kick, and the doors in front."""
    t, long, high, back, rabbet = (
        case.board_mm,
        case.length_mm,
        case.height_mm,
        case.back_mm,
        case.rabbet_mm,
    )
    if back:
        up = (t, high - t) if case.joint.way == "mitred" else (case.kick_mm, high)
        board = BACK_BOARD
        yield Panel("back", board, block((t - rabbet, long - t + rabbet), up, (0.0, back)), OUT, UP)
    if case.rail_mm:
        up = (high - t - case.rail_mm, high - t)
        whole = block((t, long - t), up, (back, back + case.rail_thick_mm))
        yield Panel("rail", case.board, whole, OUT, ALONG)
    if case.kick_mm:
        front = case.front_mm - min(_KICK_BACK_MM, (case.front_mm - back - t) / 2)
        whole = block((t, long - t), (0.0, case.kick_mm), (front - t, front))
        yield Panel("kick", case.board, whole, OUT, ALONG)
    for n in range(case.doors):
        wide = (long - (case.doors + 1) * _DOOR_GAP_MM) / case.doors
        left = _DOOR_GAP_MM + n * (wide + _DOOR_GAP_MM)
        across, up = (left, left + wide), (_DOOR_GAP_MM, high - _DOOR_GAP_MM)
        yield Panel("door", case.board, block(across, up, (case.front_mm, case.depth_mm)), OUT, UP)


def _inner(case: Case) -> Iterator[Panel]:
    t, housed, out = case.board_mm, case.housed_mm, case.front_mm
    for n in range(1, case.dividers + 1):
        left = case.bays_mm[n][0] - t
        up = (case.floor_mm - housed, case.height_mm - t + housed)
        whole = block((left, left + t), up, (case.back_mm, out))
        taken = [*_notches(case, whole, UP), *_housings(case, 0, left + t)]
        taken += _housings(case, 1, left + t)
        if case.rail_mm:
            top = (case.height_mm - t - case.rail_mm, case.height_mm - t + housed)
            deep = (case.back_mm, case.back_mm + case.rail_thick_mm)
            taken.append(block((left, left + t), top, deep))
        yield Panel("upright", case.board, whole, ALONG, UP, (), tuple(taken))
    for low in case.rows_mm:
        for left, right in case.bays_mm:
            across = (left - housed, right + housed)
            whole = block(across, (low, low + t), (case.back_mm, out))
            taken = list(_notches(case, whole, ALONG))
            yield Panel("fixed shelf", case.board, whole, UP, ALONG, (), tuple(taken))
    deep = (case.back_mm + _LOOSE_BACK_MM, out - _LOOSE_BACK_MM)
    for cell in case.cells:
        across = (cell.bay_mm[0] + _SHORT_MM / 2, cell.bay_mm[1] - _SHORT_MM / 2)
        for low in cell.shelves_mm:
            yield Panel("loose shelf", case.board, block(across, (low, low + t), deep), UP, ALONG)
    for opening in case.drawers_mm:
        yield from drawer(opening, case.board, t, case.back_mm or BOTTOM_MM)


def _both_ends(axis: Axis, inner: End) -> tuple[Mitred, ...]:
    return Mitred(axis, -1, inner), Mitred(axis, 1, inner)


def _inward(case: Case, side: int, right: float, deep: float) -> tuple[float, float]:
    """Return what is taken off the inner face of a board that stands, `right` its right face.

    `side`: 0 where what is let in lies to its right, 1 to its left.
    """
    left = right - case.board_mm
    return (right - deep, right) if side == 0 else (left, left + deep)


def _right(case: Case, side: int) -> float:
    return case.board_mm if side == 0 else case.length_mm


def _back_rabbet(case: Case, side: int) -> Iterator[Block]:
    if case.rabbet_mm:
        across = _inward(case, side, _right(case, side), case.rabbet_mm)
        yield block(across, (0.0, case.height_mm), (0.0, case.back_mm))


def _top_rabbet(case: Case, side: int) -> Iterator[Block]:
    if case.housed_mm:
        across = _inward(case, side, _right(case, side), case.housed_mm)
        up = (case.height_mm - case.board_mm, case.height_mm)
        yield block(across, up, (case.back_mm, case.front_mm))


def _housings(case: Case, side: int, right: float) -> Iterator[Block]:
    """Yield the grooves for the bottom and the fixed shelves in one face of an upright or side."""
    if not case.housed_mm:
        return
    across = _inward(case, side, right, case.housed_mm)
    outer = right in (case.board_mm, case.length_mm)
    for low in [*([case.kick_mm] if outer else []), *case.rows_mm]:
        deep = (case.back_mm, case.front_mm - _STOPPED_MM)
        yield block(across, (low, low + case.board_mm), deep)


def _upright_housings(case: Case, up: tuple[float, float]) -> Iterator[Block]:
    if case.housed_mm:
        for left, _ in case.bays_mm[1:]:
            deep = (case.back_mm, case.front_mm - _STOPPED_MM)
            yield block((left - case.board_mm, left), up, deep)


def _notches(case: Case, whole: Block, axis: Axis) -> Iterator[Block]:
    """Yield the notches at the front of both ends, where the grooves stop."""
    housed = case.housed_mm
    if not housed:
        return
    for start, end in (
        (whole.low[axis], whole.low[axis] + housed),
        (whole.high[axis] - housed, whole.high[axis]),
    ):
        low, high = list(whole.low), list(whole.high)
        low[axis], high[axis] = start, end
        low[OUT] = case.front_mm - _STOPPED_MM
        yield Block((low[0], low[1], low[2]), (high[0], high[1], high[2]))
