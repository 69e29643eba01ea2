"""What stands behind a place on the wall.

Which stud, how many layers, what is pressed on, and what nobody knows.
"""

from bisect import bisect_left
from collections.abc import Iterable
from typing import NamedTuple

from trade import data
from trade.check import Assumption
from trade.data import Framing
from trade.language import compose, word
from trade.memo import memoized
from trade.plan.features import Feature
from trade.plan.model import Stud, Wall

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
ASK_STUDS = "where the studs are: find one and measure it from the left corner."


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


def _ask_of_structure(wall: Wall) -> tuple[str, ...]:
    """Return what keeps the rules for wood from being a verdict on this wall."""
    if wall.structure is None:
        return (ASK_STRUCTURE,)
    return ()


class StudAt(NamedTuple):
    """The stud nearest to a place, or the wood across behind it.

    How far its centre is to the left of it, how far off that may be, and its size.

    With no stud known, a stud right behind is supposed, and `unknown` says that none is known.
    `across`: the blocking or header that takes the screws where no stud does; the rest is then of
    it, and `stud` is None.
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
    """Return the blocking and headers behind its lining."""
    if wall.build == "mass":
        return ()
    return tuple(each for each in wall.features if each.row.keep == "wood")


def wood_across(wall: Wall, x_mm: float, heights_mm: Iterable[float]) -> Feature | None:
    """Return the blocking or header that all screws of a line meet; None where there is none.

    Args:
        wall: with what was said to be behind its lining.
        x_mm: the screws' line, from the left corner.
        heights_mm: of the screws, above the floor.
    """
    known = wood_of(wall)
    if not known:
        return None
    heights = tuple(heights_mm)
    return next(
        (each for each in known if each.left_mm < x_mm < each.right_mm and _takes(each, heights)),
        None,
    )


def stretches_of_wood(wall: Wall, heights_mm: Iterable[float]) -> list[tuple[float, float]]:
    """Return from where to where, left to right, screws at some heights meet wood.

    Blocking or headers, and the studs that they end at; a stud by itself is none.
    """
    heights = tuple(heights_mm)
    wood = [(each.left_mm, each.right_mm) for each in wood_of(wall) if _takes(each, heights)]
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
    return [each for each in found if any(each[0] <= left < each[1] for left, _ in wood)]


def _takes(wood: Feature, heights_mm: Iterable[float]) -> bool:
    """Whether screws at all these heights are far enough inside its edges."""
    off = data.house("across_edge_mm")
    return all(wood.bottom_mm + off <= y <= wood.top_mm - off for y in heights_mm)


def wood_behind(wall: Wall, x_mm: float, heights_mm: Iterable[float], part: str) -> StudAt:
    """Return what is known of the wood behind a line of screws.

    The stud where they meet one; else blocking or a header where all of them meet that; else the
    nearest stud. `part` names the support in what is asked for.
    """
    stud = stud_at(wall, x_mm, part)
    if stud.stud is not None and abs(stud.offset_mm) < stud.width_mm / 2:
        return stud
    across = wood_across(wall, x_mm, heights_mm)
    if across is None:
        return stud
    return StudAt(
        None,
        x_mm - across.centre_mm,
        data.house("across_unsure_mm"),
        across.right_mm - across.left_mm,
        across.deep_mm,
        (ASK_ENDS,) if wall.build == "steel" else (),
        across,
    )


def stud_at(wall: Wall, x_mm: float, part: str) -> StudAt:
    """Return what is known of the stud behind a support.

    `part` names the support in what is asked for.
    """
    if wall.build == "mass":  # studs are not its way of holding, so none is asked for
        return StudAt(None, 0.0, 0.0, Stud(centre_mm=0).width_mm, Stud(centre_mm=0).depth_mm, ())
    stud = _nearest(_in_order(wall), x_mm)
    if stud is None:
        return StudAt(
            None, 0.0, 0.0, Stud(centre_mm=0).width_mm, Stud(centre_mm=0).depth_mm, (ASK_STUDS,)
        )
    offset = x_mm - stud.centre_mm
    if stud.uncertainty_mm is None:
        ask = compose(
            "how far off the stud behind the {part} may be: probe for both of its edges.", part=part
        )
        return StudAt(stud, offset, 0.0, stud.width_mm, stud.depth_mm, (ask,))
    return StudAt(stud, offset, stud.uncertainty_mm, stud.width_mm, stud.depth_mm, ())
