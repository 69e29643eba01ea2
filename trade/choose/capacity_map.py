"""Where a piece could hang.

What it would carry at every place on the wall, its supports set on the studs that are there.

Along the wall what it carries hangs on the studs under it, up the wall only on what is in its way:
so each place along the wall is judged once, and then every height at which nothing bars it. On
blocking or a header it is judged at its own height alone.
"""

from math import inf
from typing import NamedTuple

from msgspec.structs import replace

from trade import data
from trade.assess import agreed_and_shared, assess_piece
from trade.check import strained
from trade.choose import stud_layouts
from trade.choose.order import heavier
from trade.fixings.support import Support
from trade.measure import IN_MM
from trade.mounts import fit, holes, mount_of
from trade.mounts.base import Box
from trade.plan.model import AnyPiece, Plan, Thing, Wall
from trade.wall.scribing import lowest_ceiling_mm
from trade.wall.zones import zones

STEPS_MM = {"metric": 25.0, "imperial": IN_MM}  # so that studs on a grid repeat
_MOST = 8.0  # times what it carries: more than that is not looked for
_LEAST = 0.02  # times what it carries: less than that is nothing
_NEAR = 0.015  # what is found uses this much less than it might, at most
_TRIES = 12
_STARTER_KG = 10.0  # what is tried on a piece of which nobody said what it carries


class Column(NamedTuple):
    """One place along the wall.

    The left end of the piece, what it may carry there, kg, and free heights of its top.

    `heights_mm`: (lowest, highest) of each free stretch, from the floor up.
    """

    left_mm: float
    kg: float
    heights_mm: tuple[tuple[float, float], ...]


def map_capacity(piece: AnyPiece, plan: Plan, step_mm: float | None = None) -> tuple[Column, ...]:
    """Return what a piece carries at each place along the wall and at which heights.

    Args:
        piece: as it is to hang; where it hangs now does not count against it.
        plan: the wall, and what else hangs there.
        step_mm: from one place to the next; None for 25 mm, or an inch.
    """
    wall, step_mm = plan.wall, step_mm or STEPS_MM[plan.units]
    piece = (
        piece
        if any(thing.mass_kg for thing in piece.things)
        else replace(piece, things=(Thing(name="Load", mass_kg=_STARTER_KG),))
    )
    carried = sum(thing.mass_kg or 0.0 for thing in piece.things)
    room = wall.width_mm - piece.length_mm
    count = max(int(room / step_mm + 1e-9), 0) + 1
    found: list[Column] = []
    known: dict[tuple[object, ...], float] = {}
    trend = _Trend()
    never = any(
        check.code in ("use.refused", "board.never") for check in assess_piece(piece, wall).checks
    )
    for n in range(count):
        left = min(n * step_mm, max(room, 0.0))
        moved = settled(replace(piece, left_mm=left), wall)
        free = _free(moved, plan)
        if never or not free or moved.left_mm != left:
            found.append(Column(left, 0.0, ()))
            continue
        key = _signature(moved, wall)
        if key not in known:
            known[key] = trend.carries(moved, plan)
        found.append(Column(left, carried * known[key], free))
    return tuple(found)


def nearest_height(column: Column, top_mm: float) -> float:
    """Return the free height of its top that is nearest to a wished one."""
    tries = [min(max(top_mm, low), high) for low, high in column.heights_mm]
    return min(tries, key=lambda height: abs(height - top_mm), default=top_mm)


def best(columns: tuple[Column, ...], most: int = 3, apart_mm: float = 150.0) -> list[Column]:
    """Return the places at which it may carry the most, each some way from the better ones."""
    found: list[Column] = []
    for column in sorted(columns, key=lambda each: -each.kg):
        if (
            column.kg > 0
            and all(abs(column.left_mm - other.left_mm) >= apart_mm for other in found)
            and len(found) < most
        ):
            found.append(column)
    return found


def settled(piece: AnyPiece, wall: Wall) -> AnyPiece:
    """Return a piece where it is, its supports on the studs under it as its kind wants them.

    Evenly where there are not two.
    """
    mount = mount_of(piece)
    under = [
        stud.centre_mm
        for stud in wall.uprights
        if stud_layouts.SHORTEST_OVERHANG_MM
        <= stud.centre_mm - piece.left_mm
        <= piece.length_mm - stud_layouts.SHORTEST_OVERHANG_MM
    ]
    if len(under) > 1:
        places = tuple(
            stud - piece.left_mm for stud in stud_layouts.spread(sorted(under), mount.every_stud)
        )
    else:
        places = stud_layouts.anywhere(
            wall,
            piece.left_mm + piece.length_mm / 2,
            piece.length_mm,
            stud_layouts.Limits(),
            [],
            under,
        )[0].supports_mm
    return mount.landed(replace(piece, supports_mm=places), wall)


def _signature(piece: AnyPiece, wall: Wall) -> tuple[object, ...]:
    """Return what tells one place from another.

    Each support's place, and the stud it stands on; more where anchors or ends count.
    """
    near: list[object] = []
    for x in piece.supports_mm:
        stud = min(
            wall.uprights, key=lambda each: abs(each.centre_mm - piece.left_mm - x), default=None
        )
        off = abs(stud.centre_mm - piece.left_mm - x) if stud else inf
        if stud is None or off > stud.width_mm / 2:
            near.append((round(x, 2), piece.left_mm if wall.features or stud else 0.0))
        else:
            near.append(
                (round(x, 2), round(off, 2), stud.width_mm, stud.depth_mm, stud.uncertainty_mm)
            )
    return (*near, piece.left_mm if data.mounting_kinds()[mount_of(piece).kind].ends else 0.0)


class _Trend:
    """What was found at the places before: from there the next one is guessed."""

    def __init__(self) -> None:
        self._factors: list[float] = []
        self.slope = 0.1

    def guess(self) -> float:
        """Where the next factor may lie: on the line of the last two."""
        if len(self._factors) < 2:
            return self._factors[-1] if self._factors else 1.0
        return 2 * self._factors[-1] - self._factors[-2]

    def carries(self, piece: AnyPiece, plan: Plan) -> float:
        """Return the factor on the load at which all still just holds, by secants from a guess."""
        limit, low, high = data.house("close_from"), (0.0, 0.0), (inf, inf)
        factor, found, before = min(max(self.guess(), _LEAST), _MOST), 0.0, (0.0, 0.0)
        for _ in range(_TRIES):
            at = used(piece, plan, factor)
            if before[0] and at < inf > before[1] and factor != before[0] and at != before[1]:
                self.slope = (at - before[1]) / (factor - before[0])
            if at <= limit:
                low, found = (factor, at), factor
                if at >= limit * (1 - _NEAR) or factor >= _MOST:
                    break
            else:
                high = (factor, at)
                if factor <= _LEAST:
                    break
            before = (factor, at) if at < inf else before
            factor = self._next(factor, at, limit * (1 - _NEAR / 2), low[0], high[0])
        self._factors.append(found)
        return found

    def _next(self, factor: float, at: float, aim: float, low: float, high: float) -> float:
        """Along the last slope towards the aim; by halves where that leads out of what is known."""
        wanted = factor + (aim - at) / self.slope if at < inf else 0.0
        if not low < wanted < high:
            wanted = (low + high) / 2 if high < inf else 2 * low
            wanted = _LEAST if not low and wanted < 4 * _LEAST else wanted
        return min(max(wanted, _LEAST), _MOST)


def used(piece: AnyPiece, plan: Plan, factor: float) -> float:
    """How much of its strength is used, so loaded; infinite where it doesn't fit."""
    loaded = heavier(piece, factor)
    own = mount_of(loaded).checks(loaded, plan.wall)
    return strained([*own, *agreed_and_shared(loaded, plan)])


def _free(piece: AnyPiece, plan: Plan) -> tuple[tuple[float, float], ...]:
    """Heights at which the piece's top may be at this place along the wall.

    Clear of openings, boxes, pipes and pieces.
    """
    wall, box = plan.wall, mount_of(piece).box(piece)
    over = max(box.top_mm - piece.top_mm, fit.headroom_mm(piece))
    under = piece.top_mm - box.bottom_mm
    lowest, highest = under, lowest_ceiling_mm(wall, box.left_mm, box.right_mm) - over
    supports = [
        support for support in mount_of(piece).supports(piece, wall) if isinstance(support, Support)
    ]
    if (
        mount_of(piece).stands
        or any(support.stud.across is not None for support in supports)
        or mount_of(piece).landed(replace(piece, top_mm=highest), wall).top_mm != highest
    ):
        lowest = highest = piece.top_mm
    barred = [(low - over, high + under) for low, high in _bars(piece, box, plan)]
    drilled = [(hole.x_mm, hole.y_mm - piece.top_mm) for hole in holes(supports)]
    for feature in (each for each in wall.features if each.row.keep == "service"):
        for x, up in drilled:
            beside = max(feature.left_mm - x, x - feature.right_mm, 0.0)
            if beside < feature.row.margin_mm:
                reach = (feature.row.margin_mm**2 - beside**2) ** 0.5
                barred.append((feature.bottom_mm - reach - up, feature.top_mm + reach - up))
    return _without(lowest, highest, barred)


def _bars(piece: AnyPiece, box: Box, plan: Plan) -> list[tuple[float, float]]:
    """Return what takes the wall over the stretch that a piece takes.

    From where to where up the wall.
    """
    stands = mount_of(piece).stands
    found = [
        (zone.bottom_mm, zone.top_mm)
        for zone in zones(plan.wall)
        if zone.level == "keep_out"
        and zone.bars == "hanging"
        and zone.left_mm < box.right_mm
        and zone.right_mm > box.left_mm
        and not (stands and not zone.bottom_mm)
    ]
    others = [
        (mount_of(other).box(other), fit.headroom_mm(other))
        for other in plan.pieces
        if other.key != piece.key
    ]
    return found + [
        (each.bottom_mm, each.top_mm + room)
        for each, room in others
        if each.left_mm < box.right_mm and each.right_mm > box.left_mm
    ]


def _without(
    lowest: float, highest: float, barred: list[tuple[float, float]]
) -> tuple[tuple[float, float], ...]:
    """Return what is left of a stretch when others are taken out of it."""
    found, at = [], lowest
    for low, high in sorted(barred):
        if low > at and at <= highest:
            found.append((at, min(low, highest)))
        at = max(at, high)
    if at <= highest:
        found.append((at, highest))
    return tuple(found)
