"""The tables: one TOML file each, a source on every row, read once."""

import tomllib
from functools import cache
from importlib.resources import files
from typing import Literal, TypeVar

import msgspec

from trade.errors import UnknownRowError


class Row(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A row of any table. `source` says where its numbers come from: a clause, "from memory" or "house rule"."""

    source: str


class Framing(Row, frozen=True, kw_only=True):
    """A stud timber."""

    name: str
    g: float
    bearing_mpa: float

    @property
    def density_kg_m3(self) -> float:
        """Mean density at 12 % moisture, from the oven-dry specific gravity (NDS 2018 Supplement 3.1.3)."""
        return 1000 * self.g / (1 + self.g * 0.009 * 12) * 1.12


class Board(Row, frozen=True, kw_only=True):
    """What a shelf is made of."""

    name: str
    density_kg_m3: float
    e_mpa: float
    mor_mpa: float
    bearing_mpa: float
    k_def: float
    g: float
    shear_mpa: float
    allowable_mpa: float | None = None
    never: str = ""

    @property
    def wooden(self) -> bool:
        """Whether screws, pins and dowels can be let into it."""
        return self.g > 0

    def bending_mpa(self, duration: float) -> float:
        """What it may be bent with: an eighth of its modulus of rupture times C_D (house rule); a metal its own, for good."""
        return self.allowable_mpa if self.allowable_mpa is not None else self.mor_mpa * house("mor_share") * duration

    def shearing_mpa(self, duration: float) -> float:
        """What it may be sheared with, in the same way."""
        return self.shear_mpa * house("mor_share") * duration

    @property
    def bending_words(self) -> str:
        """How that comes about."""
        return "0.6 of its yield" if self.allowable_mpa is not None else f"{house('mor_share')} MOR C_D"


class Lining(Row, frozen=True, kw_only=True):
    """A layer between the room and the studs."""

    name: str
    short: str
    thickness_mm: float
    bearing_mpa: float
    stiffness_n_per_mm3: float


class Structure(Row, frozen=True, kw_only=True):
    """What stands behind the linings. `tell`: how it shows itself."""

    name: str
    kind: Literal["timber", "steel", "mass"]
    tell: str
    steel_mm: float | None = None
    flange_mm: float | None = None
    bearing_mpa: float = 0.0
    stiffness_n_per_mm3: float = 0.0


class Clue(Row, frozen=True, kw_only=True):
    """Something to notice: how to look for it, and how much it speaks for each structure (`otherwise` for those not named)."""

    name: str
    how: str
    otherwise: float = msgspec.field(name="else")
    speaks: dict[str, float]


class FeatureKind(Row, frozen=True, kw_only=True):
    """Something on a wall or in it. Sizes are the usual ones; the table says what each field means."""

    name: str
    keep: Literal["way", "service", "care"]
    width_mm: float
    height_mm: float
    bottom_mm: float
    reason: str
    advice: str
    trim_mm: float = 0.0
    margin_mm: float = 0.0
    runs: Literal["cable", "pipe"] | None = None
    framed: bool = False


class Screw(Row, frozen=True, kw_only=True):
    """A screw class and size."""

    kind: Literal["wood", "lag", "rod"]
    name_imperial: str
    name_metric: str
    diameter_mm: float
    root_mm: float
    head_mm: float
    fyb_psi: float
    tip_mm: float
    lengths_in: tuple[float, ...]


class Holds(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Allowable pull and shear of one anchor in one base, N; noughts where a rule works them out."""

    pull: float
    shear: float


class Anchor(Row, frozen=True, kw_only=True):
    """What holds where no timber stud does, by class and size; the table says what each field means."""

    name: str
    kind: Literal["plug", "self_drilling", "sleeve", "toggle", "screw_anchor", "expansion", "resin", "steel_screw", "packet"]
    screw_mm: float
    head_mm: float
    hole_mm: float
    depth_mm: float
    behind_mm: float
    edge_mm: float
    spacing_mm: float
    give_mm: float
    lasting: float
    holds_n: dict[str, Holds]


class Content(Row, frozen=True, kw_only=True):
    """Something that people keep on walls; kg of one, of a metre along the shelf, or of a litre."""

    name: str
    per: Literal["each", "metre", "litre"]
    kg: float
    high_mm: float
    deep_mm: float


class Refused(Row, frozen=True, kw_only=True):
    """A use that is not planned here, by the words for it."""

    words: tuple[str, ...]
    name: str
    reason: str


class Corner(Row, frozen=True, kw_only=True):
    """An end of a wall."""

    name: str


class PinSteel(Row, frozen=True, kw_only=True):
    """What a pin is made of."""

    name: str
    yield_mpa: float
    core: float


class Bracket(Row, frozen=True, kw_only=True):
    """A surface bracket class."""

    name: str
    material: Literal["steel", "plywood"]
    leg_mm: float
    arm_mm: float
    width_mm: float
    side_mm: float
    holes_mm: tuple[float, ...]
    section_mm3: float
    inertia_mm4: float
    e_mpa: float
    allowable_mpa: float
    mass_kg: float


class Plate(Row, frozen=True, kw_only=True):
    """A wall plate with one welded rod."""

    name: str
    width_mm: float
    height_mm: float
    side_mm: float
    rows_mm: tuple[float, ...]
    rod_mm: float
    rod_length_mm: float
    allowable_mpa: float
    mass_kg: float


class Use(Row, frozen=True, kw_only=True):
    """How a thing will be used."""

    name: str
    factor: float
    push_n: float


class Drills(Row, frozen=True, kw_only=True):
    """A series of drill bits."""

    sizes: tuple[float, ...]


class House(Row, frozen=True, kw_only=True):
    """One number of ours."""

    value: float
    meaning: str


class Rule(Row, frozen=True, kw_only=True):
    """What a check does, in words."""

    name: str
    rule: str


R = TypeVar("R", bound=Row)


@cache
def _table(name: str, row: type[R]) -> dict[str, R]:
    text = files(__package__).joinpath(f"{name}.toml").read_text(encoding="utf-8")
    return msgspec.convert(tomllib.loads(text), dict[str, row])  # type: ignore[valid-type]


@cache
def framing() -> dict[str, Framing]:
    """Stud timbers by key."""
    return _table("framing", Framing)


@cache
def boards() -> dict[str, Board]:
    """Shelf materials by key."""
    return _table("boards", Board)


@cache
def woods() -> dict[str, Board]:
    """Those of them that are wood or made of it."""
    return {key: row for key, row in boards().items() if row.wooden}


@cache
def linings() -> dict[str, Lining]:
    """Lining layers by key."""
    return _table("linings", Lining)


@cache
def structures() -> dict[str, Structure]:
    """What stands behind linings, by key."""
    return _table("structures", Structure)


@cache
def clues() -> dict[str, Clue]:
    """What tells structures apart, by key."""
    return _table("clues", Clue)


@cache
def features() -> dict[str, FeatureKind]:
    """What is on walls and in them, by key."""
    return _table("features", FeatureKind)


@cache
def screws() -> dict[str, Screw]:
    """Screws by key."""
    return _table("screws", Screw)


@cache
def anchors() -> dict[str, Anchor]:
    """Anchors by key."""
    return _table("anchors", Anchor)


@cache
def contents() -> dict[str, Content]:
    """Things people keep on walls, by key."""
    return _table("contents", Content)


@cache
def refused() -> dict[str, Refused]:
    """Uses that are not planned here, by key."""
    return _table("refused", Refused)


@cache
def corners() -> dict[str, Corner]:
    """Ends of a wall by key."""
    return _table("corners", Corner)


@cache
def pins() -> dict[str, PinSteel]:
    """Steels of pins and rods by key."""
    return _table("pins", PinSteel)


@cache
def brackets() -> dict[str, Bracket]:
    """Bracket classes by key."""
    return _table("brackets", Bracket)


@cache
def plates() -> dict[str, Plate]:
    """Rod plate classes by key."""
    return _table("plates", Plate)


@cache
def uses() -> dict[str, Use]:
    """Use classes by key."""
    return _table("uses", Use)


@cache
def drills() -> dict[str, Drills]:
    """Drill series by units."""
    return _table("drills", Drills)


@cache
def rules() -> dict[str, Rule]:
    """What each check does, by its code."""
    return _table("rules", Rule)


@cache
def house_rules() -> dict[str, House]:
    """Every number of ours by key."""
    return _table("house", House)


@cache
def house(key: str) -> float:
    """One number of ours."""
    value: float = _table("house", House)[key].value
    return value


TABLES = (
    framing, boards, linings, structures, clues, features, screws, anchors, pins, contents,
    refused, corners, brackets, plates, uses, drills, rules, house_rules,
)  # fmt: skip


def row(table: dict[str, R], key: str, noun: str) -> R:
    """Look up a row a person named.

    Raises:
        UnknownRowError: there is none; the sentence lists what there is.
    """
    try:
        return table[key]
    except KeyError:
        raise UnknownRowError(f"“{key}” is no {noun} Gancho knows. It knows: {', '.join(table)}.") from None
