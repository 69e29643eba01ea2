"""The plan: what everything is computed from. Frozen; refuses nonsense at the door; changed by copy."""

import math
from itertools import pairwise
from typing import Annotated, Literal

import msgspec
from msgspec import Meta

from trade import data
from trade.errors import PlanError, UnknownRowError
from trade.evidence import Reading
from trade.features import Feature
from trade.lie import Lie
from trade.measure import ABSURD_KG, ABSURD_MM, Units, say_length

Key = Annotated[str, Meta(pattern=r"^[a-z0-9][a-z0-9-]{0,39}$", description="Short name, unique in the plan")]
Name = Annotated[str, Meta(min_length=1, max_length=80)]


LEAST_GAP_MM = 10.0  # house rule: two supports nearer than this are one


class _Part(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True, omit_defaults=False):
    pass


def _between(value: float | None, low: float, high: float, where: str, what: str) -> None:
    if value is None:
        return
    if not math.isfinite(value):
        raise PlanError(f"{what} must be a number.", where)
    if not low <= value <= high:
        low_said, high_said = say_length(low, "metric"), say_length(high, "metric")
        raise PlanError(f"{what} must lie between {low_said} and {high_said}; this is {value:.6g} mm.", where)


class Stud(_Part, frozen=True, kw_only=True):
    """An upright in the wall. `uncertainty_mm`: how far the centre may lie to either side; null when nobody knows."""

    centre_mm: float
    width_mm: float = 38.0
    depth_mm: float = 89.0
    uncertainty_mm: float | None = 3.0

    def __post_init__(self) -> None:
        """Refuse what is no stud."""
        _between(self.centre_mm, 0, ABSURD_MM, "centre_mm", "A stud's centre")
        _between(self.width_mm, 20, 200, "width_mm", "A stud's width")
        _between(self.depth_mm, 20, 400, "depth_mm", "A stud's depth")
        _between(self.uncertainty_mm, 0, 300, "uncertainty_mm", "How far a stud may be off")


class Layer(_Part, frozen=True, kw_only=True):
    """A layer of the lining, from the room inwards. `kind` is a row of the linings table."""

    kind: str
    thickness_mm: float

    def __post_init__(self) -> None:
        """Refuse what is no lining."""
        _known(data.linings(), self.kind, "lining", "kind")
        _between(self.thickness_mm, 1, 150, "thickness_mm", "A layer's thickness")


class Wall(_Part, frozen=True, kw_only=True):
    """A wall. `layers`: null when unknown, empty for none. `structure`: a row of the structures table, what stands behind them.

    `timber`: of timber studs, a row of the framing table. Both null when unknown. `clues`: rows of their table, what was noticed.
    `studs`: what is counted on; `readings`: what was found out, as taken. Taking studs from readings is the person's word.
    """

    width_mm: float
    height_mm: float
    layers: tuple[Layer, ...] | None = None
    structure: str | None = "timber"
    clues: tuple[str, ...] = ()
    timber: str | None = None
    studs: tuple[Stud, ...] = ()
    readings: tuple[Reading, ...] = ()
    features: tuple[Feature, ...] = ()
    lie: Lie = Lie()

    def __post_init__(self) -> None:
        """Refuse absurd sizes and studs outside the wall."""
        _between(self.width_mm, 100, ABSURD_MM, "width_mm", "A wall's width")
        _between(self.height_mm, 100, ABSURD_MM, "height_mm", "A wall's height")
        if self.timber is not None:
            _known(data.framing(), self.timber, "stud timber", "timber")
        if self.structure is not None:
            _known(data.structures(), self.structure, "structure", "structure")
        for clue in self.clues:
            _known(data.clues(), clue, "clue", "clues")
        for i, stud in enumerate(self.studs):
            if stud.centre_mm > self.width_mm:
                raise PlanError(
                    f"A stud at {stud.centre_mm:.6g} mm lies outside the wall, which is {self.width_mm:.6g} mm wide.",
                    f"studs[{i}].centre_mm",
                )
        if len({stud.centre_mm for stud in self.studs}) != len(self.studs):
            raise PlanError("Two studs stand at the same place.", "studs")
        for i, feature in enumerate(self.features):
            if feature.right_mm > self.width_mm + 0.05 or feature.top_mm > self.height_mm + 0.05:
                raise PlanError(f"A {feature.row.name} reaches beyond the wall.", f"features[{i}]")
        if len(self.features) > 200:
            raise PlanError("More than 200 things on one wall besides its studs.", "features")
        if len(self.readings) > 2_000:
            raise PlanError("More than 2 000 readings of one wall.", "readings")
        if len(self.studs) > 200:
            raise PlanError("More than 200 studs in one wall.", "studs")

    @property
    def build(self) -> Literal["timber", "steel", "mass", "unknown"]:
        """What kind of structure stands behind the linings."""
        return "unknown" if self.structure is None else data.structures()[self.structure].kind

    @property
    def uprights(self) -> tuple[Stud, ...]:
        """The studs that can be counted on: none in masonry, whatever was noted before that was known."""
        return () if self.build == "mass" else self.studs

    @property
    def openings(self) -> tuple[Feature, ...]:
        """Doors and windows."""
        return tuple(feature for feature in self.features if feature.row.framed)

    @property
    def lining_mm(self) -> float | None:
        """Thickness of all layers together; None when unknown."""
        return None if self.layers is None else sum(layer.thickness_mm for layer in self.layers)


class Thing(_Part, frozen=True, kw_only=True):
    """What stands on a shelf. `mass_kg` null: not weighed. `at_mm`: from the shelf's left end; null: spread over all of it.

    `out_mm`: how far its weight stands from the wall; null: the middle of the shelf.
    """

    name: Name
    mass_kg: float | None
    at_mm: float | None = None
    out_mm: float | None = None

    def __post_init__(self) -> None:
        """Refuse negative and absurd weights."""
        if self.mass_kg is not None and not 0 <= self.mass_kg <= ABSURD_KG:
            raise PlanError(f"A weight must lie between 0 and {ABSURD_KG:.0f} kg; this is {self.mass_kg:.6g} kg.", "mass_kg")
        _between(self.at_mm, 0, ABSURD_MM, "at_mm", "A thing's place along the shelf")
        _between(self.out_mm, 0, 2000, "out_mm", "A thing's distance from the wall")


class Piece(_Part, frozen=True, kw_only=True):
    """A shelf on the wall, whatever holds it. Places from the wall's left corner and from the floor.

    `supports_mm`: where it is held, from its left end. `board`: a row of the boards table. `use`: a row of the uses table.
    """

    key: Key
    name: Name
    left_mm: float
    top_mm: float
    length_mm: float
    depth_mm: float
    thickness_mm: float
    board: str
    use: str
    supports_mm: tuple[float, ...]
    screw: str
    screw_length_mm: float
    things: tuple[Thing, ...] = ()

    def __post_init__(self) -> None:
        """Refuse absurd sizes, supports beyond the ends, and rows that no table has."""
        _between(self.left_mm, 0, ABSURD_MM, "left_mm", "A shelf's left end")
        _between(self.top_mm, 0, ABSURD_MM, "top_mm", "A shelf's height")
        _between(self.length_mm, 50, ABSURD_MM, "length_mm", "A shelf's length")
        _between(self.depth_mm, 30, 1500, "depth_mm", "A shelf's depth")
        _between(self.thickness_mm, 3, 300, "thickness_mm", "A shelf's thickness")
        _between(self.screw_length_mm, 5, 400, "screw_length_mm", "A screw's length")
        _known(data.boards(), self.board, "board", "board")
        _known(data.uses(), self.use, "use", "use")
        _known(data.screws(), self.screw, "screw", "screw")
        if list(self.supports_mm) != sorted(set(self.supports_mm)):
            raise PlanError("Supports must be given from left to right, each at its own place.", "supports_mm")
        if any(b - a < LEAST_GAP_MM for a, b in pairwise(self.supports_mm)):
            raise PlanError(f"Two supports stand closer together than {LEAST_GAP_MM:.0f} mm.", "supports_mm")
        for support in self.supports_mm:
            _between(support, 0, self.length_mm, "supports_mm", "A support's place along the shelf")
        if len(self.supports_mm) > 40:
            raise PlanError("More than 40 supports under one shelf.", "supports_mm")
        if len(self.things) > 60:
            raise PlanError("More than 60 things on one shelf; put like things together.", "things")
        for i, thing in enumerate(self.things):
            if thing.at_mm is not None and thing.at_mm > self.length_mm:
                raise PlanError(f"“{thing.name}” stands beyond the end of the shelf.", f"things[{i}].at_mm")
            if thing.out_mm is not None and thing.out_mm > self.depth_mm:
                raise PlanError(f"“{thing.name}” stands further out than the shelf is deep.", f"things[{i}].out_mm")


class BracketShelf(Piece, frozen=True, kw_only=True, tag="bracket_shelf", tag_field="kind"):
    """A shelf on surface brackets. `bracket`: a row of the brackets table."""

    bracket: str

    def __post_init__(self) -> None:
        """Refuse an unknown bracket."""
        Piece.__post_init__(self)
        _known(data.brackets(), self.bracket, "bracket", "bracket")


class RodShelf(Piece, frozen=True, kw_only=True, tag="rod_shelf", tag_field="kind"):
    """A floating shelf on rods with wall plates. `plate`: a row of the plates table; `let_in`: the plate sits on the stud."""

    plate: str
    let_in: bool = False

    def __post_init__(self) -> None:
        """Refuse an unknown plate."""
        Piece.__post_init__(self)
        _known(data.plates(), self.plate, "rod plate", "plate")


AnyPiece = BracketShelf | RodShelf


class Plan(_Part, frozen=True, kw_only=True):
    """One wall and all that hangs on it."""

    format: Literal["gancho-plan"] = "gancho-plan"
    version: Literal[1] = 1
    name: Name
    units: Units
    wall: Wall
    pieces: tuple[AnyPiece, ...] = ()

    def __post_init__(self) -> None:
        """Refuse pieces that are not on the wall, or share a key."""
        if len({piece.key for piece in self.pieces}) != len(self.pieces):
            raise PlanError("Two pieces have the same key.", "pieces")
        if len(self.pieces) > 200:
            raise PlanError("More than 200 pieces on one wall.", "pieces")
        for i, piece in enumerate(self.pieces):
            _on_the_wall(piece, self.wall, self.units, f"pieces[{i}]")

    @property
    def supports_mm(self) -> tuple[float, ...]:
        """Where everything on the wall is held, from its left corner."""
        return tuple(piece.left_mm + x for piece in self.pieces for x in piece.supports_mm)

    def piece(self, key: str) -> AnyPiece:
        """One piece.

        Raises:
            PlanError: there is none of that key.
        """
        for piece in self.pieces:
            if piece.key == key:
                return piece
        raise PlanError(f"There is nothing called “{key}” on this wall.")

    def with_piece(self, changed: AnyPiece) -> "Plan":
        """A copy in which the piece of the same key is replaced, or added when there was none."""
        pieces = tuple(changed if piece.key == changed.key else piece for piece in self.pieces)
        return msgspec.structs.replace(self, pieces=pieces if changed in pieces else (*pieces, changed))

    def without_piece(self, key: str) -> "Plan":
        """A copy without one piece."""
        return msgspec.structs.replace(self, pieces=tuple(piece for piece in self.pieces if piece.key != key))


def _known(table: dict[str, data.R], key: str, noun: str, where: str) -> None:
    try:
        data.row(table, key, noun)
    except UnknownRowError as error:
        raise PlanError(str(error), where) from None


def _on_the_wall(piece: AnyPiece, wall: Wall, units: Units, where: str) -> None:
    slack = 0.05  # typed fractions and millimetres do not always meet
    width, height = say_length(wall.width_mm, units), say_length(wall.height_mm, units)
    if piece.length_mm > wall.width_mm + slack:
        said = say_length(piece.length_mm, units)
        raise PlanError(f"The shelf is {said} long and the wall only {width} wide.", f"{where}.length_mm")
    if piece.left_mm + piece.length_mm > wall.width_mm + slack:
        said = say_length(piece.left_mm + piece.length_mm, units)
        raise PlanError(f"The shelf would end at {said}, past the wall's {width}.", f"{where}.left_mm")
    if piece.top_mm > wall.height_mm + slack:
        raise PlanError(f"The shelf would be above the wall's {height}.", f"{where}.top_mm")
    if piece.top_mm < piece.thickness_mm - slack:
        raise PlanError("The shelf would be below the floor.", f"{where}.top_mm")
