"""The rows of the tables: what each column means."""

from collections.abc import Iterable
from typing import Literal

import msgspec

from trade.data.load import Row, house
from trade.language import compose
from trade.measure import IN_MM, Units

Goes = Literal["stand", "hang", "body", "floor", "sit"]
"""Things stand on it, hang on it, are in it (a body of its own), on the floor.

Or people sit at it.
"""


_NEARLY = 1e-6  # what just has room has room


class Priced(Row, frozen=True, kw_only=True):
    """A row of something that is bought.

    `price`: roughly, to compare ways with one another; the table says of how much.
    """

    price: float


class Framing(Row, frozen=True, kw_only=True):
    """A stud timber."""

    name: str
    g: float
    bearing_mpa: float

    @property
    def density_kg_m3(self) -> float:
        """Mean density at 12 % moisture from oven-dry gravity (NDS 2018 Supplement 3.1.3)."""
        return 1000 * self.g / (1 + self.g * 0.009 * 12) * 1.12


class Board(Priced, frozen=True, kw_only=True):
    """What a shelf is made of.

    `hardwood`: sawmills sell it by its measure; `from_kg_m3`: of a wood that nobody knows, the
    lightest that is told as this one; its own density is the heaviest then.
    """

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
    sheet: bool = False
    grain: bool = True
    across: float | None = None
    from_kg_m3: float | None = None
    hardwood: bool = False

    @property
    def wooden(self) -> bool:
        """Whether screws, pins and dowels can be let into it."""
        return self.g > 0

    def bending_mpa(self, duration: float) -> float:
        """Return what it may be bent with.

        An eighth of its modulus of rupture times C_D (house rule); a metal its own, for good.
        """
        return (
            self.allowable_mpa
            if self.allowable_mpa is not None
            else self.mor_mpa * house("mor_share") * duration
        )

    def shearing_mpa(self, duration: float) -> float:
        """Return what it may be sheared with, in the same way."""
        return self.shear_mpa * house("mor_share") * duration

    @property
    def bending_words(self) -> str:
        """How that comes about."""
        return (
            "0.6 of its yield"
            if self.allowable_mpa is not None
            else f"{house('mor_share')} MOR C_D"
        )


class Joint(Priced, frozen=True, kw_only=True):
    """How boards of a body meet at its corners. `price`: of one fastener."""

    name: str
    way: Literal["butt", "housed", "mitred"]
    fastener: str
    every_mm: float
    edge_mm: float
    minutes: float
    glue: bool
    judged: Literal["screws", "bearing", ""]
    work: str
    setting: str
    good: str
    tools: tuple[str, ...] = ()

    def places_mm(self, wide_mm: float) -> tuple[float, ...]:
        """Return where its fasteners go along an end, from the edge: two at least, evenly."""
        if not self.fastener:
            return ()
        free = max(wide_mm - 2 * self.edge_mm, 0.0)
        many = max(int(free / self.every_mm) + 2, 2)
        first = min(self.edge_mm, wide_mm / 4)
        step = (wide_mm - 2 * first) / (many - 1)
        return tuple(first + n * step for n in range(many))


class Lining(Row, frozen=True, kw_only=True):
    """A layer between the room and the studs."""

    name: str
    short: str
    thickness_mm: float
    bearing_mpa: float
    stiffness_n_per_mm3: float
    set_share: float
    fixing_pull_n: float = 0.0
    fixing_shear_n: float = 0.0


class Structure(Row, frozen=True, kw_only=True):
    """What stands behind the linings. `tell`: how it shows itself."""

    name: str
    kind: Literal["timber", "steel", "mass"]
    tell: str
    steel_mm: float | None = None
    flange_mm: float | None = None
    bearing_mpa: float = 0.0
    stiffness_n_per_mm3: float = 0.0


class Term(Row, frozen=True, kw_only=True):
    """A word of the trade: what it means here, and what else people call it.

    `underlined`: whether it leads to its meaning wherever it stands.
    """

    name: str
    also: tuple[str, ...] = ()
    meaning: str
    underlined: bool = True


class Clue(Row, frozen=True, kw_only=True):
    """Something to notice.

    How to look for it, and how much it speaks for each structure (`otherwise` for those not named).
    """

    name: str
    how: str
    otherwise: float = msgspec.field(name="else")
    speaks: dict[str, float]


class FeatureKind(Row, frozen=True, kw_only=True):
    """Something on a wall or in it.

    Sizes are the usual ones; the table says what each field means.
    """

    name: str
    keep: Literal["way", "service", "care", "wood", "off"]
    width_mm: float
    height_mm: float
    bottom_mm: float
    reason: str
    advice: str
    trim_mm: float = 0.0
    margin_mm: float = 0.0
    runs: Literal["cable", "pipe"] | None = None
    framed: bool = False
    depth_mm: float = 0.0
    ends_n: int = 0
    ends_screw: str = ""
    ends_mm: float = 0.0
    studs_n: int = 0
    above_mm: float = 0.0
    above: str = ""
    shallow_mm: float = 0.0
    sleeps: bool = False
    fire: bool = False
    reach: Literal["", "plate", "open"] = ""
    out_mm: float = 0.0
    surface: bool = False


class TakingOff(Row, frozen=True, kw_only=True):
    """How an old thing comes off; the table says what each field means."""

    minutes: float
    fill_minutes: float
    how: tuple[str, ...]
    mind: str
    tells: str


class Front(Row, frozen=True, kw_only=True):
    """The front of a corner shelf, as shares of its legs; the table says what each field means."""

    name: str
    area: float
    middle: float
    far: float


class Suits(Row, frozen=True, kw_only=True):
    """What a top is for, and between which heights that suits most people."""

    name: str
    low_mm: float
    high_mm: float


class Cord(Row, frozen=True, kw_only=True):
    """What passes through an opening in a board.

    `hole_mm`: the opening's diameter; `lamp`: a lamp hangs under the board.
    """

    name: str
    hole_mm: float
    lamp: bool = False


class HolderKind(Priced, frozen=True, kw_only=True):
    """What a further thing hangs by. `wide_mm`, `high_mm`: from one to the next; 0: one row."""

    name: str
    wide_mm: float
    high_mm: float = 0.0
    minutes: float

    def fit(self, long_mm: float, high_mm: float) -> int:
        """Return how many have room on a face so long and so high."""
        rows = int(high_mm / self.high_mm + _NEARLY) if self.high_mm else 1
        return int(long_mm / self.wide_mm + _NEARLY) * max(rows, 1)


class Screw(Priced, frozen=True, kw_only=True):
    """A screw class and size.

    `lengths` as sold, in or mm by its `system`; `twin`: key of what is taken instead in the other.
    """

    system: Units
    twin: str
    kind: Literal["wood", "lag", "rod"]
    name_imperial: str
    name_metric: str
    diameter_mm: float
    root_mm: float
    head_mm: float
    fyb_psi: float
    tip_mm: float
    lengths: tuple[float, ...]

    def called(self, units: Units) -> str:
        """Return what people who use these units call it."""
        return self.name_imperial if units == "imperial" else self.name_metric


class Holds(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Allowable pull and shear of one anchor in one base, N.

    Noughts where a rule works them out.
    """

    pull: float
    shear: float


AnchorKind = Literal[
    "plug",
    "self_drilling",
    "sleeve",
    "toggle",
    "channel",
    "screw_anchor",
    "expansion",
    "resin",
    "steel_screw",
    "packet",
]


class Anchor(Priced, frozen=True, kw_only=True):
    """What holds where no timber stud does, by class and size.

    The table says what each field means.
    """

    name: str
    kind: AnchorKind
    screw_mm: float
    head_mm: float
    hole_mm: float
    through_mm: float
    depth_mm: float
    behind_mm: float
    edge_mm: float
    spacing_mm: float
    give_mm: float
    lasting: float
    holds_n: dict[str, Holds]
    hole_64ths: int = 0


class Content(Row, frozen=True, kw_only=True):
    """Something that people keep on walls; kg of one, of a metre along the shelf, or of a litre.

    `wide_mm`: how much of a rail one takes that hangs; 0 where hooks stand close; `spoils`: how a
    bad room spoils it.
    """

    name: str
    per: Literal["each", "metre", "litre"]
    kg: float
    high_mm: float
    deep_mm: float
    wide_mm: float = 0.0
    goes: Goes = "stand"
    spoils: tuple[str, ...] = ()


class Climate(Row, frozen=True, kw_only=True):
    """A room that is no heated room. `spoils`: why things of a kind should not be kept there.

    `dry_humidity`, `dry_c`: its air when it is driest: relative humidity, as a share, and °C;
    `damp_humidity`, `damp_c`: when it is dampest.
    """

    name: str
    short: str
    mind: str
    spoils: dict[str, str]
    dry_humidity: float
    dry_c: float
    damp_humidity: float
    damp_c: float


class Want(Row, frozen=True, kw_only=True):
    """Something to hang that is no content; the table says what each field means."""

    name: str
    goes: Goes
    length_mm: float
    depth_mm: float
    high_mm: float
    top_mm: float
    kg: float | None = None


class MountingKind(Row, frozen=True, kw_only=True):
    """What a kind of mounting is good for and what it takes.

    The table says what each field means; `how`: how it carries its load, in paragraphs.
    """

    how: str
    serves: tuple[Goes, ...]
    seen: Literal[0, 1, 2]
    off: Literal[0, 1, 2]
    minutes: float
    each: float
    tools: tuple[str, ...]
    made: Literal["bought", "shop"]
    ends: Literal["", "both", "corner"] = ""
    deepest_mm: float | None = None
    wood: bool = False
    offered: bool = True


class Tool(Row, frozen=True, kw_only=True):
    """A tool that a way of hanging may ask for.

    `usual`: most people have it; `without`: how people do without it, empty where nobody does, and
    within what that comes out; `minutes`: how much longer a piece takes then; `rules_out`: what is
    not done without it.
    """

    name: str
    usual: bool
    without: str = ""
    within: str = ""
    minutes: float = 0.0
    rules_out: str = ""


class FixingClass(Row, frozen=True, kw_only=True):
    """A class of what holds a piece.

    `goes`: driven: a screw into its hole; before: into the wall before what is fastened; with:
    through the wall's hole together with what is fastened, its bolt on; through: into the wall
    through what is fastened. `words`: how it is set.
    """

    name: str
    goes: Literal["driven", "before", "with", "through"] = "driven"
    words: tuple[str, ...] = ()


class Question(Row, frozen=True, kw_only=True):
    """A question of a job's policy, and what each school says for itself."""

    question: str
    answers: dict[str, str]

    def label(self, answer: str) -> str:
        """Return an answer in a few words: what it says up to its first stop."""
        return self.answers[answer].split(":")[0].split(".")[0]


class Stock(Priced, frozen=True, kw_only=True):
    """A board, a dowel rod or a sheet as sold, by its actual sizes; `board`.

    A row of the boards table; `price` of one.
    """

    name: str
    board: str
    kind: Literal["board", "sheet"]
    shape: Literal["flat", "round"] = "flat"
    system: Literal["imperial", "metric"] = "imperial"
    length_mm: float
    width_mm: float
    thickness_mm: float


class Packs(Row, frozen=True, kw_only=True):
    """In what numbers a kind of fastener is sold."""

    sizes: tuple[int, ...]


class Coating(Priced, frozen=True, kw_only=True):
    """A class of finish; hours at 20 °C; `price` of a litre.

    `grits`: of the papers that the bare wood is sanded with, in order; `between_grit`: of that
    between coats, 0 for none; `hand`: how it is put on.
    """

    name: str
    base: Literal["oil", "water", "shellac", "wax"]
    role: Literal["first", "barrier", "top"]
    coats: int
    recoat_hours: float
    handle_hours: float
    load_days: float
    sand: bool
    cover_m2_l: float
    least_c: float
    tins: tuple[float, ...]
    care: str
    grits: tuple[int, ...] = ()
    between_grit: int = 0
    hand: str = ""


class Preparing(Priced, frozen=True, kw_only=True):
    """What is done to wood beside its coats.

    `goes`: when; `over`, `first`: coatings, `woods`: rows of the boards that ask for it; empty for
    any; `minutes_m2` a square metre and `minutes` besides; `hours` until it goes on; `buy`: what it
    takes from the shop, at `price`.
    """

    name: str
    goes: Literal["bare", "sanded", "under", "hung"]
    words: str
    over: tuple[str, ...] = ()
    first: tuple[str, ...] = ()
    woods: tuple[str, ...] = ()
    minutes_m2: float = 0.0
    minutes: float = 0.0
    hours: float = 0.0
    why: str = ""
    buy: str = ""
    price: float = 0.0

    def asked(self, first: str | None, top: str | None, woods: Iterable[str]) -> bool:
        """Whether these coats on these woods ask for it."""
        goes = (not self.over or top in self.over) and (not self.first or first in self.first)
        return goes and (not self.woods or not set(self.woods).isdisjoint(woods))


class Trick(Row, frozen=True, kw_only=True):
    """How people do something at the wall; the table says what calls for it.

    `least_mm`: of a hole that is deep enough for it; `kinds`: of mounting, empty for all.
    """

    name: str
    calls: Literal[
        "prick", "hold", "line", "deep", "rods", "level", "lift", "on_cleat", "uneven", "droop", ""
    ]
    words: str
    good: str
    kinds: tuple[str, ...] = ()
    least_mm: float = 0.0


class Over(Row, frozen=True, kw_only=True):
    """A base over which another does not simply go; `barrier`.

    The coating that must lie between, empty where nothing helps.
    """

    under: str
    over: str
    barrier: str
    why: str


class Refused(Row, frozen=True, kw_only=True):
    """A use that is not planned here, by the words for it."""

    words: tuple[str, ...]
    name: str
    reason: str


class Corner(Row, frozen=True, kw_only=True):
    """An end of a wall."""

    name: str


class PinSteel(Priced, frozen=True, kw_only=True):
    """What a pin is made of."""

    name: str
    yield_mpa: float
    core: float


class Bracket(Priced, frozen=True, kw_only=True):
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


class Track(Priced, frozen=True, kw_only=True):
    """A class of slotted upright with the arms that clip into it; its price is of a metre.

    `upright`, `arm`: what each is called in a shop.
    """

    name: str
    upright: str
    arm: str
    arm_price: float
    width_mm: float
    deep_mm: float
    thick_mm: float
    first_mm: float
    every_mm: float
    hook_mm: float
    arm_mm: float
    pair_kg: float
    mass_kg: float
    metre_kg: float


class Stiffener(Row, frozen=True, kw_only=True):
    """What stiffens a shelf's front edge.

    `of`: what it is of; `wall_mm`: of a tube; `whole`: under all of the board.
    """

    name: str
    of: str
    wide_mm: float
    wall_mm: float = 0.0
    whole: bool = False


class Plate(Priced, frozen=True, kw_only=True):
    """A wall plate with one welded rod."""

    name: str
    width_mm: float
    height_mm: float
    side_mm: float
    rows_mm: tuple[float, ...]
    rod_mm: float
    rod_length_mm: float
    yield_mpa: float
    mass_kg: float


class Use(Row, frozen=True, kw_only=True):
    """How a thing will be used.

    `keep`: how somebody is told to use it no harder; `given`: nobody can choose otherwise.
    """

    name: str
    keep: str = ""
    given: bool = False
    factor: float
    push_n: float


class Sizes(Row, frozen=True, kw_only=True):
    """Sizes of one part of some kinds, as sold, ripped or drilled, the usual one first.

    `imperial`: in inches; `metric`: mm; `each`: plain numbers, the same everywhere; `new`: a new
    piece is made with the first; `code`, `said`: of the change that tries the others, where one
    does; `any`: the smaller ones too.
    """

    kinds: tuple[str, ...]
    field: str
    imperial: tuple[float, ...] = ()
    metric: tuple[float, ...] = ()
    each: tuple[int, ...] = ()
    new: bool = False
    code: str = ""
    said: str = ""
    any: bool = False

    def of(self, units: Units) -> tuple[float, ...]:
        """Return the sizes where these units are used: mm, or plain numbers."""
        return self.each or (
            tuple(size * IN_MM for size in self.imperial) if units == "imperial" else self.metric
        )

    @property
    def counts(self) -> bool:
        """Whether it is counted, not measured."""
        return bool(self.each)


class Drills(Row, frozen=True, kw_only=True):
    """A series of drill bits."""

    sizes: tuple[float, ...]


class Everyday(Row, frozen=True, kw_only=True):
    """An everyday set-up.

    The `piece` by what differs from how one of its kind is put up, on one of three walls.
    """

    name: str
    kind: str
    trusted_kg: float
    known: str
    wall: Literal["studs", "closet", "brick"]
    piece: dict[str, int | float | bool | str | list[float]]


class Rough(Row, frozen=True, kw_only=True):
    """A thickness of hardwood as sawn, and the thickest that is planed out of it."""

    name: str
    system: Units
    thick_mm: float
    planes_to_mm: float


class Reserve(Row, frozen=True, kw_only=True):
    """What tests to failure reach, as a multiple of what a rule allows for years, by practice."""

    name: str
    american: float
    european: float


class PushClass(Row, frozen=True, kw_only=True):
    """Whose push: what the accidental force stands for.

    `share` of the use's push, at least `least_n`.
    """

    name: str
    share: float
    least_n: float
    reason: str


Limit = Literal["strength", "service", "fit"]


class Rule(Row, frozen=True, kw_only=True):
    """What a check does, in words.

    `limit`: the limit state that it asks about. `threshold`: of strength, a size or a number that
    is reached or not. `but`: of service, what is a nuisance about it, after "Holds, but".
    """

    name: str
    rule: str
    limit: Limit = "strength"
    threshold: bool = False
    but: str = ""

    def __post_init__(self) -> None:
        """Refuse a nuisance without words, and words that nobody would say."""
        if (self.limit == "service") != bool(self.but) or (
            self.threshold and self.limit != "strength"
        ):
            raise ValueError(
                compose(
                    "{name}: only what is of service says what is a nuisance, only strength has "
                    "thresholds",
                    name=self.name,
                )
            )
