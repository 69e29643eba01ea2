"""A piece among what is on the wall besides studs.

Whether it fits there, and whether its screws keep clear of services.
"""

import re
from collections.abc import Sequence
from functools import cache

from trade import data
from trade.calculation import Quantity
from trade.check import Check, make
from trade.fixings.support import Support
from trade.memo import memoized
from trade.mounts import AnySupport, holes, mount_of
from trade.mounts.base import Box
from trade.plan.facing import beside
from trade.plan.features import Feature
from trade.plan.model import AnyPiece, Shelf, Wall
from trade.wall.backing import boards_on, carried
from trade.wall.scribing import lowest_ceiling_mm, niche_of
from trade.wall.zones import nearest_service, zones

_TOUCHING_MM = 1e-6
_OVER_BED = re.compile(r"\b(?:over|above) (?:the |a )?beds?\b", re.IGNORECASE)
_BASEBOARD_MM = data.house("baseboard_mm")


def crowded(own: Box, other: Box) -> tuple[float, float] | None:
    """Return the height two pieces need and the height they have, if that is less; else None."""
    if min(own.right_mm, other.right_mm) - max(own.left_mm, other.left_mm) <= 0:
        return None
    needed = own.top_mm - own.bottom_mm + other.top_mm - other.bottom_mm
    spanned = max(own.top_mm, other.top_mm) - min(own.bottom_mm, other.bottom_mm)
    return (needed, spanned) if needed > spanned + _TOUCHING_MM else None


def checks(piece: AnyPiece, wall: Wall) -> list[Check]:
    """Check that nothing is in the way and that screws keep clear of boxes, pipes and ducts."""
    made = (
        _refused(piece),
        _never(piece),
        _in_the_way(piece, wall),
        *_fires(piece, wall),
        _ceiling(piece, wall),
        _service(wall, mount_of(piece).supports(piece, wall)),
        *_services_beside(piece, wall),
        _niche(piece, wall),
        _off_board(piece, wall),
        _sleeping(piece, wall),
    )
    return [check for check in made if check is not None]


@cache
def _words() -> re.Pattern[str]:
    """Every word for a refused use, grouped by its row."""
    rows = ((key, "|".join(map(re.escape, row.words))) for key, row in data.refused().items())
    return re.compile(
        "|".join(rf"(?P<{key}>\b(?:{words})s?\b)" for key, words in rows), re.IGNORECASE
    )


@memoized(limit=4_096)
def _spoken_of(said: str) -> str | None:
    """Return the refused use that some words speak of, by its row."""
    found = _words().search(said)
    return found.lastgroup if found is not None else None


def _refused(piece: AnyPiece) -> Check | None:
    """Refuse uses that lives hang on, whatever the sums say."""
    key = _spoken_of(" ".join((piece.name, *(thing.name for thing in piece.things))))
    if key is None:
        return None
    row = data.refused()[key]
    return make(
        "use.refused",
        part="piece",
        case="any",
        demand=Quantity(1, "count"),
        capacity=Quantity(0.5, "count"),
        template="{what} is not planned here: {why}. Ask those who install such things by their "
        "own rules.",
        parts={"what": row.name, "why": row.reason},
    )


def _never(piece: AnyPiece) -> Check | None:
    """Boards that are not trusted, whatever the sums say."""
    row = data.boards()[piece.board] if isinstance(piece, Shelf) else None
    if row is None or not row.never:
        return None
    return make(
        "board.never",
        part="board",
        case="any",
        demand=Quantity(1, "count"),
        capacity=Quantity(0.5, "count"),
        template="{what!c} is not trusted here: {why}.",
        parts={"what": row.name, "why": row.never},
    )


def _ceiling(piece: AnyPiece, wall: Wall) -> Check | None:
    if not any(run.line == "ceiling" for run in wall.flatness.run_outs):
        return None
    own = mount_of(piece).box(piece)
    return make(
        "piece.ceiling",
        part="shelf",
        case="any",
        demand=Quantity(own.top_mm, "length"),
        capacity=Quantity(
            max(lowest_ceiling_mm(wall, own.left_mm, own.right_mm), _TOUCHING_MM), "length"
        ),
        template="Its top is {demand} up; the ceiling over it comes down to {capacity}.",
    )


def _niche(piece: AnyPiece, wall: Wall) -> Check | None:
    """Whether what goes from wall to wall is no longer than the niche was measured."""
    niche = niche_of(piece, wall)
    if niche is None:
        return None
    narrow = min(niche.back_mm, niche.front_mm)
    return make(
        "fit.niche",
        part="piece",
        case="any",
        demand=Quantity(piece.length_mm, "length"),
        capacity=Quantity(max(narrow, _TOUCHING_MM), "length"),
        template="It is {demand} long, and between the walls {capacity} were measured there. Cut "
        "it {cut} long.",
        parts={"cut": Quantity(min(niche.cut_back_mm, niche.cut_front_mm), "length")},
    )


def _in_the_way(piece: AnyPiece, wall: Wall) -> Check | None:
    in_the_way = [
        zone for zone in zones(wall) if zone.level == "keep_out" and zone.bars == "hanging"
    ]
    if not in_the_way:
        return None
    own = mount_of(piece).box(piece)
    for zone in in_the_way:
        if mount_of(piece).stands and not zone.bottom_mm and zone.top_mm < _BASEBOARD_MM:
            continue  # it stands in front of it
        if piece.depth_mm <= zone.shallow_mm:
            continue  # it stands out no further than may be there
        if height := crowded(own, Box(zone.left_mm, zone.right_mm, zone.bottom_mm, zone.top_mm)):
            needed, spanned = height
            return make(
                "piece.obstacle",
                part="shelf",
                case="any",
                demand=Quantity(needed, "length"),
                capacity=Quantity(spanned, "length"),
                template="It runs into {what}: one above the other they need {demand} of height, "
                "and span {capacity}.",
                parts={"what": zone.reason},
            )
    return None


def _fires(piece: AnyPiece, wall: Wall) -> list[Check]:
    """Whether wood keeps off the opening of each fireplace by how far it stands out."""
    fires = [feature for feature in wall.features if feature.row.fire]
    metal = isinstance(piece, Shelf) and not data.boards()[piece.board].wooden
    if not fires or metal:
        return []
    own = mount_of(piece).box(piece)
    found = (_off_fire(piece, own, fire) for fire in fires)
    return [check for check in found if check is not None]


def _off_fire(piece: AnyPiece, own: Box, fire: Feature) -> Check | None:
    above = own.bottom_mm - fire.top_mm
    aside = max(fire.left_mm - own.right_mm, own.left_mm - fire.right_mm)
    if aside <= 0 <= above < data.house("fire_above_mm"):
        said = "It stands out {demand}; so near above a fireplace opening wood may by {capacity}."
        needed, there = piece.depth_mm, above * data.house("fire_slope")
    elif above < 0 < aside and piece.depth_mm > data.house("fire_beside_mm"):
        said = (
            "It is {capacity} beside a fireplace opening; by how far it stands out it needs "
            "{demand}."
        )
        needed, there = fire.row.margin_mm + piece.depth_mm, aside
        if there >= needed:
            return None
    else:
        return None
    return make(
        "piece.fireplace",
        part="shelf",
        case="any",
        demand=Quantity(needed, "length"),
        capacity=Quantity(max(there, _TOUCHING_MM), "length"),
        template=said,
    )


def _off_board(piece: AnyPiece, wall: Wall) -> Check | None:
    """Whether what shares its place with a board on the wall's face sits on it.

    None where no board is near it.
    """
    near = [each for each in boards_on(wall) if crowded(mount_of(piece).box(piece), _room(each))]
    if not near:
        return None
    supports = mount_of(piece).supports(piece, wall)
    for board in near:
        off = [
            support
            for support in supports
            if not isinstance(support, Support) or support.stud.across != board
        ]
        if off:
            said = (
                "The {part} is not on the {board}, which stands {out} out from the wall: set "
                "all of it on the board, or clear of it."
            )
            if not carried(wall, board):
                said = (
                    "The {board} behind it crosses no two studs: nothing holds it. It should reach "
                    "from stud to stud."
                )
            return make(
                "across.off_board",
                part=off[0].part,
                support=off[0].index,
                case="any",
                demand=Quantity(len(off), "count"),
                capacity=Quantity(0.5, "count"),
                template=said,
                parts={
                    "part": off[0].part,
                    "board": board.row.name,
                    "out": Quantity(board.deep_mm, "fine"),
                },
            )
    return None


def _room(board: Feature) -> Box:
    return Box(board.left_mm, board.right_mm, board.bottom_mm, board.top_mm)


def _sleeping(piece: AnyPiece, wall: Wall) -> Check | None:
    """Whether what hangs over people who sleep is judged as for hard use.

    None where nobody sleeps below it, as far as its name and the wall say.
    """
    own, least = mount_of(piece).box(piece), data.house("over_bed_n")
    below = any(
        f.row.sleeps
        and own.top_mm > f.top_mm
        and min(own.right_mm, f.right_mm) - max(own.left_mm, f.left_mm) > _TOUCHING_MM
        for f in wall.features
    )
    if not below and not _OVER_BED.search(piece.name):
        return None
    return make(
        "use.sleeping",
        part="piece",
        case="any",
        demand=Quantity(least, "force"),
        capacity=Quantity(data.uses()[piece.use].push_n, "force"),
        template="People sleep below it: judge it for hard use, with a push of {demand}; for its "
        "use it is pushed with {capacity}.",
    )


def _services_beside(piece: AnyPiece, wall: Wall) -> list[Check | None]:
    """Services in the walls round its corners."""
    there = (
        (beside(wall, side), made) for side, made in mount_of(piece).beside(piece, wall).items()
    )
    return [_service(found.wall, made) for found, made in there if found is not None]


def _service(wall: Wall, supports: Sequence[AnySupport]) -> Check | None:
    if not any(feature.row.keep == "service" for feature in wall.features):
        return None
    near = [
        (found, hole)
        for hole in holes(supports)
        if (found := nearest_service(wall, hole.x_mm, hole.y_mm))
    ]
    if not near:
        return None
    (feature, distance), hole = min(
        near, key=lambda pair: pair[0][1] / max(pair[0][0].row.margin_mm, 1.0)
    )
    return make(
        "hole.service",
        part=hole.support.part,
        support=hole.support.index,
        case="any",
        demand=Quantity(feature.row.margin_mm, "length"),
        capacity=Quantity(max(distance, _TOUCHING_MM), "length"),
        template="A screw of the {part} comes within {capacity} of {what}; keep {demand} clear.",
        parts={"part": hole.support.part, "what": feature.row.reason},
    )
