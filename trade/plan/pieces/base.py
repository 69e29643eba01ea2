"""What every piece has, and what every shelf has."""

from itertools import pairwise
from typing import NamedTuple

from trade import data
from trade.errors import PlanError
from trade.language import Figure, compose
from trade.measure import ABSURD_KG, ABSURD_MM
from trade.plan.item import Key, Name, PlanItem, between, known

LEAST_GAP_MM = data.house("supports_apart_mm")
SHORTEST_MM = 50.0
MOST_THINGS = 60  # on one shelf


_INSIDE_MM = data.house("least_inside_mm")


class Thing(PlanItem, frozen=True, kw_only=True):
    """What stands on a shelf. `mass_kg` null: not weighed.

    `at_mm`: from the shelf's left end; null: spread over all of it.

    `out_mm`: how far its weight stands from the wall; null: the middle of the shelf. `high_mm`,
    `wide_mm`: its height, and how much room along the wall it takes; null: nobody said. `of`: a row
    of the contents table that it is; null: none.
    """

    name: Name
    mass_kg: float | None
    at_mm: float | None = None
    out_mm: float | None = None
    high_mm: float | None = None
    wide_mm: float | None = None
    of: str | None = None

    def __post_init__(self) -> None:
        """Refuse negative and absurd weights."""
        if self.mass_kg is not None and not 0 <= self.mass_kg <= ABSURD_KG:
            raise PlanError(
                compose(
                    "A weight must lie between 0 and {absurd_kg} kg; this is {mass} kg.",
                    absurd_kg=Figure(f"{ABSURD_KG:.0f}"),
                    mass=Figure(f"{self.mass_kg:.6g}"),
                ),
                "mass_kg",
            )
        between(self.at_mm, 0, ABSURD_MM, "at_mm", "A thing's place along the shelf")
        between(self.out_mm, 0, 2000, "out_mm", "A thing's distance from the wall")
        between(self.high_mm, 1, 4000, "high_mm", "A thing's height")
        between(self.wide_mm, 1, 4000, "wide_mm", "A thing's width")
        if self.of is not None:
            known(data.contents(), self.of, "thing", "of")


class Piece(PlanItem, frozen=True, kw_only=True, cache_hash=True):
    """Something on the wall, whatever holds it.

    Places from the wall's left corner and from the floor.

    `supports_mm`: where it is held, from its left end. `use`: a row of the uses table. `anchor`:
    what holds where there is no timber, a row of the anchors table or a packet of the wall; null:
    nothing does.
    """

    key: Key
    name: Name
    left_mm: float
    top_mm: float
    length_mm: float
    depth_mm: float
    use: str
    supports_mm: tuple[float, ...]
    screw: str
    screw_length_mm: float
    anchor: str | None = None
    things: tuple[Thing, ...] = ()

    def __post_init__(self) -> None:
        """Refuse absurd sizes, supports beyond the ends, and rows that no table has."""
        between(self.left_mm, 0, ABSURD_MM, "left_mm", "Its left end")
        between(self.top_mm, 0, ABSURD_MM, "top_mm", "Its top's height")
        between(self.length_mm, SHORTEST_MM, ABSURD_MM, "length_mm", "Its length")
        between(self.depth_mm, 30, 1500, "depth_mm", "Its depth")
        between(self.screw_length_mm, 5, 400, "screw_length_mm", "A screw's length")
        known(data.uses(), self.use, "use", "use")
        known(data.screws(), self.screw, "screw", "screw")
        if list(self.supports_mm) != sorted(set(self.supports_mm)):
            raise PlanError(
                "Give the supports from left to right, each at its own place.", "supports_mm"
            )
        if any(b - a < LEAST_GAP_MM for a, b in pairwise(self.supports_mm)):
            raise PlanError(
                compose(
                    "Two supports stand closer together than {least_gap_mm} mm.",
                    least_gap_mm=Figure(f"{LEAST_GAP_MM:.0f}"),
                ),
                "supports_mm",
            )
        for support in self.supports_mm:
            between(support, 0, self.length_mm, "supports_mm", "A support's place along the shelf")
        if len(self.supports_mm) > 40:
            raise PlanError("More than 40 supports under one shelf.", "supports_mm")
        if len(self.things) > MOST_THINGS:
            raise PlanError(
                compose(
                    "At most {most} things on a shelf; enter equal things together.",
                    most=Figure(f"{MOST_THINGS}"),
                ),
                "things",
            )
        for i, thing in enumerate(self.things):
            if thing.at_mm is not None and thing.at_mm > self.length_mm:
                raise PlanError(
                    compose("“{thing}” stands beyond the end of the shelf.", thing=thing.name),
                    f"things[{i}].at_mm",
                )
            if thing.out_mm is not None and thing.out_mm > self.depth_mm:
                raise PlanError(
                    compose(
                        "“{thing}” stands further out than the shelf is deep.", thing=thing.name
                    ),
                    f"things[{i}].out_mm",
                )

    @property
    def tugged(self) -> bool:
        """Whether its load hangs on hooks or pegs and is pulled off them; nobody leans on it."""
        return False

    @property
    def high_mm(self) -> float:
        """How high it is, seen from the front."""
        return 0.0

    @property
    def usual_out_mm(self) -> float:
        """How far from the wall things are of which nobody said so: the middle of its depth."""
        return self.depth_mm / 2


class FrontEdge(NamedTuple):
    """What stiffens a board's front edge.

    `stiffener`: a row of the stiffeners table; `height_mm`: how high it is, 0 for none; `wood`: a
    row of the boards table for a strip under a board that is no wood, None for the usual one.
    """

    stiffener: str
    height_mm: float
    wood: str | None = None


class Made(Piece, frozen=True, kw_only=True):
    """What has a body, bought or made of boards.

    `inner`, `inner_mm`: its boards, a row of the boards table and how thick; `dividers`,
    `loose_shelves`: uprights and shelves to make for its inside; `joint`: how its corners are
    joined where its body is made, a row of the joints table; null: the body is there already;
    `panel_mm`: of the back of a body that is made, 0 for none; `drawer_mm`: height of an opening
    for drawers at its bottom, one in each bay, 0 for none.
    """

    dividers: int = 0
    loose_shelves: int = 0
    inner: str = "plywood"
    inner_mm: float = 18.0
    joint: str | None = None
    panel_mm: float = 6.0
    drawer_mm: float = 0.0

    def __post_init__(self) -> None:
        """Refuse joints that the table does not have."""
        Piece.__post_init__(self)
        insides(self.dividers, self.loose_shelves, self.inner, self.inner_mm, self.length_mm)
        between(self.panel_mm, 0, 30, "panel_mm", "A back's thickness")
        if self.joint is not None:
            known(data.joints(), self.joint, "joint", "joint")
        between(self.drawer_mm, 0, 800, "drawer_mm", "The opening for a drawer")

    @property
    def opens_mm(self) -> float:
        """How far drawers of a body that is made reach out of it when they are pulled out."""
        return self.depth_mm if self.joint is not None and self.drawer_mm else 0.0

    def has_inside(self, high_mm: float, doors: bool) -> None:
        """Refuse a body that is made of boards too thick for it.

        Raises:
            PlanError: nothing is left between them.
        """
        t = self.inner_mm
        deep = self.depth_mm - self.panel_mm - (t if doors else 0.0)
        least = min(self.length_mm - 2 * t, high_mm - 2 * t, deep - 2 * t)
        if self.joint is not None and least < _INSIDE_MM:
            raise PlanError("Its boards leave no room inside: make it of thinner ones.", "inner_mm")
        if self.joint is None or not self.drawer_mm:
            return
        smallest = data.house("drawer_least_mm")
        bay = (self.length_mm - t) / (self.dividers + 1) - t
        if min(self.drawer_mm, bay - 2 * t, deep - 3 * t) < smallest:
            raise PlanError(
                compose(
                    "A drawer is at least {least} high, wide and deep inside.",
                    least=f"{smallest:.0f} mm",
                ),
                "drawer_mm",
            )
        if high_mm - 3 * t - self.drawer_mm < _INSIDE_MM:
            raise PlanError("The drawers leave no room above them.", "drawer_mm")


class Corded(Piece, frozen=True, kw_only=True):
    """What may have an opening for a cord in its board.

    `cord`: a row of the cords table; null: no opening; `cord_at_mm`: its middle from the left end;
    null: near the right end.
    """

    cord: str | None = None
    cord_at_mm: float | None = None

    def __post_init__(self) -> None:
        """Refuse rows that the table does not have, and absurd places."""
        Piece.__post_init__(self)
        if self.cord is not None:
            known(data.cords(), self.cord, "cord", "cord")
        between(self.cord_at_mm, 0, ABSURD_MM, "cord_at_mm", "The opening for the cord")

    @property
    def cord_hole(self) -> tuple[float, float, float] | None:
        """Its opening for a cord: from its left end, from its back edge, how wide, mm."""
        if self.cord is None:
            return None
        wide, off = data.cords()[self.cord].hole_mm, data.house("cord_edge_mm")
        at = self.length_mm - wide / 2 - 2 * off if self.cord_at_mm is None else self.cord_at_mm
        return min(max(at, 0.0), self.length_mm), wide / 2 + off, wide


class Shelf(Corded, frozen=True, kw_only=True):
    """A board, whatever holds it. `board`: a row of the boards table."""

    thickness_mm: float
    board: str

    @property
    def front_edge(self) -> FrontEdge | None:
        """What stiffens its front edge; None for a kind whose front edge nothing stiffens."""
        return None

    def __post_init__(self) -> None:
        """Refuse absurd boards."""
        Corded.__post_init__(self)
        between(self.thickness_mm, 3, 300, "thickness_mm", "A shelf's thickness")
        known(data.boards(), self.board, "board", "board")

    @property
    def tugged(self) -> bool:
        """Whether its load hangs on hooks or pegs and is pulled off them; nobody leans on it."""
        return False

    @property
    def high_mm(self) -> float:
        """How high it is, seen from the front."""
        return self.thickness_mm


def wooden(board: str, where: str = "board") -> None:
    """Refuse what screws, pins and dowels cannot be let into.

    Raises:
        PlanError: with what it is.
    """
    known(data.boards(), board, "board", where)
    if not data.boards()[board].wooden:
        raise PlanError(
            compose(
                "This mounting needs wood; {boards} is not wood.", boards=data.boards()[board].name
            ),
            where,
        )


def weighed(kg: float | None, where: str) -> None:
    """Refuse a weight that is none; null is one that nobody knows.

    Raises:
        PlanError: with where it stands.
    """
    if kg is not None and not 0 <= kg <= ABSURD_KG:
        raise PlanError(
            compose(
                "A weight must lie between 0 and {absurd_kg} kg; this is {kg} kg.",
                absurd_kg=Figure(f"{ABSURD_KG:.0f}"),
                kg=Figure(f"{kg:.6g}"),
            ),
            where,
        )


def ledger(board: str, thick_mm: float, high_mm: float) -> None:
    """Refuse absurd ledgers.

    Raises:
        PlanError: with what is wrong.
    """
    wooden(board, "ledger")
    between(thick_mm, 10, 80, "ledger_mm", "A ledger's thickness")
    between(high_mm, 15, 300, "ledger_high_mm", "A ledger's height")


def insides(
    dividers: int, loose_shelves: int, board: str, thick_mm: float, length_mm: float
) -> None:
    """Refuse absurd insides of a body.

    Raises:
        PlanError: with what is wrong.
    """
    wooden(board, "inner")
    between(thick_mm, 6, 60, "inner_mm", "An upright's thickness")
    if not 0 <= dividers <= 12:
        raise PlanError("A body can have up to 12 uprights.", "dividers")
    if not 0 <= loose_shelves <= 60:
        raise PlanError("A body can have up to 60 loose shelves.", "loose_shelves")
    if dividers and (length_mm - (dividers + 2) * thick_mm) / (dividers + 1) < 50:
        raise PlanError("That many uprights leave no room between them.", "dividers")
