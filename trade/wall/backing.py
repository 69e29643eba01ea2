"""What stands behind a place on the wall.

Which stud, how many layers, what is pressed on, and what nobody knows.
"""

from bisect import bisect_left
from collections.abc import Iterable
from typing import NamedTuple

from msgspec.structs import replace

from trade import data
from trade.check import Assumption
from trade.data import Framing
from trade.language import compose, word
from trade.memo import memoized
from trade.plan.features import Feature
from trade.plan.model import Stud, Wall
from trade.wall.searched import stud_away_mm

SOFTEST_TIMBER, SOFTEST_GRADED = "spruce_pine_fir_south", "c16"  # of either school

ASK_LINING = (
    "what the wall is lined with and how thick it is: look in a box opening, or measure "
    "how deep a probe goes."
)
ASK_STRUCTURE = (
    "what stands behind the lining, studs or masonry: look in a box opening, or watch "
    "the dust of a test hole."
)
ASK_ENDS = "how the wood between the steel studs is held at its ends."
ASK_BOARD = "how the board across the steel studs is held on them."
ASK_STUDS = "where the studs are: find one and measure it from the left corner."


_FLUSH_MM = 0.5  # what reaches no further beyond a board sits on it
_ASSUMED = {
    "mass": (
        (
            "joints",
            "Plugs sit in whole units, half a unit away from joints and ends; the units are sound.",
        ),
    ),
    "steel": (
        (
            "steel_stud",
            "The steel studs, and how they are held at floor and ceiling, are taken as sound.",
        ),
    ),
}


class Face(NamedTuple):
    """What hardware presses on. `set_share`: how much of a dent in it stays."""

    name: str
    bearing_mpa: float
    stiffness_n_per_mm3: float
    set_share: float


class Backing(NamedTuple):
    """What the rules may count on.

    `face` is what hardware on the lining presses on, `stud_face` what it presses on when let in,
    `hollow_face` what it presses on between studs. Where something is unknown it is taken at its
    best, and `unknown` says what to find out: what fails at its best fails anyway.
    """

    timber: Framing
    lining_mm: float
    face: Face
    stud_face: Face
    hollow_face: Face
    unknown: tuple[str, ...]
    assumptions: tuple[Assumption, ...]


@memoized(limit=64)
def backing(wall: Wall) -> Backing:
    """Return what the wall offers everywhere.

    The face that a bracket presses on is as soft as the softest layer.
    """
    key = wall.timber or (SOFTEST_GRADED if wall.design_code == "european" else SOFTEST_TIMBER)
    timber = data.framing()[key]
    assumptions = [
        Assumption("dry", "The wall is dry and indoors; nothing is wet, hot or treated.")
    ]
    if wall.timber is None and wall.build == "timber":
        assumptions.insert(
            0,
            Assumption(
                "timber",
                compose(
                    "The studs are taken as {timber}, the softest common framing timber.",
                    timber=timber.name,
                ),
            ),
        )
    unknown = (*_ask_of_structure(wall), *(() if wall.layers is not None else (ASK_LINING,)))
    layers = [data.linings()[layer.kind] for layer in wall.layers or ()]
    softest = min(layers, key=lambda layer: layer.bearing_mpa, default=None)
    stays = data.house("wood_set_share")
    stud_face = Face("stud", timber.bearing_mpa, data.house("wood_dent_n_per_mm3"), stays)
    if wall.build in ("steel", "mass"):
        row = data.structures()[wall.structure or ""]
        stud_face = Face(row.name, row.bearing_mpa, row.stiffness_n_per_mm3, stays)
        assumptions += [Assumption(code, text) for code, text in _ASSUMED[row.kind]]
        if wall.structure == "concrete":
            assumptions.append(
                Assumption(
                    "concrete", "The concrete is taken as weak (17.2 MPa, 2 500 psi) and cracked."
                )
            )
    # springs in a row: every layer is dented, and the stud behind them
    give = (
        sum(1 / layer.stiffness_n_per_mm3 for layer in layers) + 1 / stud_face.stiffness_n_per_mm3
    )
    kept = (
        sum(layer.set_share / layer.stiffness_n_per_mm3 for layer in layers)
        + stays / stud_face.stiffness_n_per_mm3
    )
    face = Face(stud_face.name, stud_face.bearing_mpa, 1 / give, kept / give)
    if softest is not None and softest.bearing_mpa < stud_face.bearing_mpa:
        face = face._replace(name=softest.short, bearing_mpa=softest.bearing_mpa)
    share = data.house("hollow_bearing_share")
    hollow = Face(
        compose("{face} with nothing behind", face=face.name),
        face.bearing_mpa * share,
        face.stiffness_n_per_mm3 * share,
        face.set_share,
    )
    return Backing(
        timber, wall.lining_mm or 0.0, face, stud_face, hollow, unknown, tuple(assumptions)
    )


@memoized(limit=64)
def face_of_board(wall: Wall) -> Face:
    """Return what hardware on a board on the wall's face presses on: its wood, then the lining."""
    behind, stays = backing(wall), data.house("wood_set_share")
    wood, face = data.house("wood_dent_n_per_mm3"), behind.face
    give = 1 / wood + 1 / face.stiffness_n_per_mm3
    kept = stays / wood + face.set_share / face.stiffness_n_per_mm3
    return Face(word("board"), behind.timber.bearing_mpa, 1 / give, kept / give)


def _ask_of_structure(wall: Wall) -> tuple[str, ...]:
    """Return what keeps the rules for wood from being a verdict on this wall."""
    if wall.structure is None:
        return (ASK_STRUCTURE,)
    return ()


class StudAt(NamedTuple):
    """The stud nearest to a place, or the wood across behind it.

    How far its centre is to the left of it, how far off that may be, and its size.

    With no stud known, a stud right behind is supposed, and `unknown` says that none is known;
    where it is known that none is near, `offset_mm` is how far off one is at least.
    `across`: the blocking or header that takes the screws where no stud does, or the board on the
    wall's face that they go into; the rest is then of it, and `stud` is None.
    """

    stud: Stud | None
    offset_mm: float
    uncertainty_mm: float
    width_mm: float
    depth_mm: float
    unknown: tuple[str, ...]
    across: Feature | None = None

    @property
    def wood(self) -> str:
        """What carpenters call it."""
        return self.across.row.name if self.across is not None else word("stud")

    @property
    def on_face(self) -> bool:
        """Whether that wood is a board on the wall's face."""
        return self.across is not None and self.across.on_face


@memoized(limit=64)
def _in_order(wall: Wall) -> tuple[Stud, ...]:
    return tuple(sorted(wall.uprights, key=lambda stud: stud.centre_mm))


def _nearest(studs: tuple[Stud, ...], x_mm: float) -> Stud | None:
    """Return the stud whose centre is nearest; of two as near the left one."""
    after = bisect_left(studs, x_mm, key=lambda stud: stud.centre_mm)
    return min(
        studs[max(after - 1, 0) : after + 1],
        key=lambda stud: abs(stud.centre_mm - x_mm),
        default=None,
    )


@memoized(limit=64)
def wood_of(wall: Wall) -> tuple[Feature, ...]:
    """Return the blocking and headers behind its lining, and the boards on its face."""
    if wall.build == "mass":
        return ()
    return tuple(each for each in wall.features if each.row.keep == "wood")


def boards_on(wall: Wall) -> tuple[Feature, ...]:
    """Return the boards on its face."""
    return tuple(each for each in wood_of(wall) if each.on_face)


@memoized(limit=64)
def bare(wall: Wall) -> Wall:
    """Return the wall without the boards on its face."""
    boards = boards_on(wall)
    if not boards:
        return wall
    return replace(wall, features=tuple(each for each in wall.features if each not in boards))


def wood_across(wall: Wall, x_mm: float, heights_mm: Iterable[float]) -> Feature | None:
    """Return the blocking or header that all screws of a line meet; None where there is none.

    Args:
        wall: with what was said to be behind its lining.
        x_mm: the screws' line, from the left corner.
        heights_mm: of the screws, above the floor.
    """
    known = [each for each in wood_of(wall) if not each.on_face]
    if not known:
        return None
    heights = tuple(heights_mm)
    return next(
        (each for each in known if each.left_mm < x_mm < each.right_mm and _takes(each, heights)),
        None,
    )


def stretches_of_wood(wall: Wall, heights_mm: Iterable[float]) -> list[tuple[float, float]]:
    """Return from where to where, left to right, screws at some heights meet wood.

    Blocking or headers, and the studs that they end at; a stud by itself is none. A board on the
    wall's face is by itself.
    """
    heights = tuple(heights_mm)
    taking = [each for each in wood_of(wall) if _takes(each, heights)]
    wood = [(each.left_mm, each.right_mm) for each in taking if not each.on_face]
    studs = [
        (stud.centre_mm - stud.width_mm / 2, stud.centre_mm + stud.width_mm / 2)
        for stud in wall.uprights
    ]
    found: list[tuple[float, float]] = []
    for left, right in sorted([*wood, *studs]):
        if found and left <= found[-1][1] + data.house("across_unsure_mm"):
            found[-1] = found[-1][0], max(found[-1][1], right)
        else:
            found.append((left, right))
    behind = [each for each in found if any(each[0] <= left < each[1] for left, _ in wood)]
    return [*behind, *((each.left_mm, each.right_mm) for each in taking if each.on_face)]


def _takes(wood: Feature, heights_mm: Iterable[float]) -> bool:
    """Whether screws at all these heights are far enough inside its edges."""
    off = data.house("across_edge_mm")
    return all(wood.bottom_mm + off <= y <= wood.top_mm - off for y in heights_mm)


def crossed(wall: Wall, board: Feature) -> tuple[Stud, ...]:
    """Return the studs that a board on the wall's face is screwed to, from the left."""
    return tuple(
        stud for stud in _in_order(wall) if board.left_mm <= stud.centre_mm <= board.right_mm
    )


def carried(wall: Wall, board: Feature) -> bool:
    """Whether a board on the wall's face crosses two studs; so it may where none are known."""
    return not wall.uprights or len(crossed(wall, board)) > 1


class Footprint(NamedTuple):
    """What hardware covers of a wall, mm from the left corner and the floor."""

    left_mm: float
    right_mm: float
    bottom_mm: float
    top_mm: float


def board_under(
    wall: Wall, x_mm: float, heights_mm: Iterable[float], own: Footprint
) -> Feature | None:
    """Return the board on the wall's face that hardware sits on whole; None where on none.

    One that does not cross two studs is none.

    Args:
        wall: with what is on its face.
        x_mm: the screws' line, from the left corner.
        heights_mm: of the screws, above the floor.
        own: what the hardware covers.
    """
    heights = tuple(heights_mm)
    return next(
        (
            each
            for each in boards_on(wall)
            if each.left_mm < x_mm < each.right_mm
            and each.bottom_mm <= own.bottom_mm + _FLUSH_MM
            and own.top_mm <= each.top_mm + _FLUSH_MM
            and _takes(each, heights)
            and carried(wall, each)
        ),
        None,
    )


def wood_behind(
    wall: Wall, x_mm: float, heights_mm: Iterable[float], part: str, own: Footprint
) -> StudAt:
    """Return what is known of the wood behind a line of screws.

    The board on the wall's face that the hardware sits on; else the stud where they meet one; else
    blocking or a header where all of them meet that; else the nearest stud. `part` names the
    support in what is asked for, `own` is what it covers.
    """
    heights_mm = tuple(heights_mm)
    board = board_under(wall, x_mm, heights_mm, own)
    if board is not None:
        ask = (ASK_BOARD,) if wall.build == "steel" else () if wall.uprights else (ASK_STUDS,)
        return _across(board, x_mm, ask)
    stud = stud_at(wall, x_mm, part)
    if stud.stud is not None and abs(stud.offset_mm) < stud.width_mm / 2:
        return stud
    across = wood_across(wall, x_mm, heights_mm)
    if across is None:
        return stud
    return _across(across, x_mm, (ASK_ENDS,) if wall.build == "steel" else ())


def _across(wood: Feature, x_mm: float, ask: tuple[str, ...]) -> StudAt:
    return StudAt(
        None,
        x_mm - wood.centre_mm,
        data.house("across_unsure_mm"),
        wood.right_mm - wood.left_mm,
        wood.deep_mm,
        ask,
        wood,
    )


def stud_at(wall: Wall, x_mm: float, part: str) -> StudAt:
    """Return what is known of the stud behind a support.

    `part` names the support in what is asked for.
    """
    if wall.build == "mass":  # studs are not its way of holding, so none is asked for
        return StudAt(None, 0.0, 0.0, Stud(centre_mm=0).width_mm, Stud(centre_mm=0).depth_mm, ())
    stud = _nearest(_in_order(wall), x_mm)
    if stud is None:
        usual, away = Stud(centre_mm=0), stud_away_mm(wall, x_mm)
        studs = (ASK_STUDS,) if away is None else ()
        return StudAt(None, away or 0.0, 0.0, usual.width_mm, usual.depth_mm, studs)
    offset = x_mm - stud.centre_mm
    if stud.uncertainty_mm is None:
        ask = compose(
            "how far off the stud behind the {part} may be: probe for both of its edges.", part=part
        )
        return StudAt(stud, offset, 0.0, stud.width_mm, stud.depth_mm, (ask,))
    return StudAt(stud, offset, stud.uncertainty_mm, stud.width_mm, stud.depth_mm, ())
