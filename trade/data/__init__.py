"""The tables: one TOML file each, a source on every row, read once."""

from functools import cache

from trade.data.load import HOUSE, House, R, Row, house, house_rules, table
from trade.data.rows import (
    Anchor,
    Board,
    Bracket,
    Climate,
    Clue,
    Coating,
    Content,
    Cord,
    Corner,
    Drills,
    Everyday,
    FeatureKind,
    FixingClass,
    Framing,
    Front,
    Goes,
    HolderKind,
    Holds,
    Joint,
    Lining,
    MountingKind,
    Over,
    Packs,
    PinSteel,
    Plate,
    Preparing,
    Priced,
    PushClass,
    Question,
    Refused,
    Reserve,
    Rough,
    Rule,
    Screw,
    Sizes,
    Stiffener,
    Stock,
    Structure,
    Suits,
    TakingOff,
    Term,
    Tool,
    Track,
    Trick,
    Use,
    Want,
)
from trade.errors import UnknownRowError
from trade.language import compose
from trade.measure import Units

__all__ = [
    "HOUSE",
    "Anchor",
    "Board",
    "Bracket",
    "Clue",
    "Coating",
    "Content",
    "Corner",
    "Drills",
    "FeatureKind",
    "FixingClass",
    "Framing",
    "Front",
    "Goes",
    "Holds",
    "House",
    "Joint",
    "Lining",
    "MountingKind",
    "Over",
    "Packs",
    "PinSteel",
    "Plate",
    "Priced",
    "Question",
    "R",
    "Refused",
    "Reserve",
    "Rough",
    "Row",
    "Rule",
    "Screw",
    "Sizes",
    "Stock",
    "Structure",
    "Term",
    "Tool",
    "Track",
    "Use",
    "Want",
    "house",
    "house_rules",
]


@cache
def framing() -> dict[str, Framing]:
    """Stud timbers by key."""
    return table("framing", Framing)


@cache
def boards() -> dict[str, Board]:
    """Shelf materials by key."""
    return table("boards", Board)


@cache
def woods() -> dict[str, Board]:
    """Those of them that are wood or made of it."""
    return {key: row for key, row in boards().items() if row.wooden}


@cache
def linings() -> dict[str, Lining]:
    """Lining layers by key."""
    return table("linings", Lining)


@cache
def structures() -> dict[str, Structure]:
    """Return what stands behind linings, by key."""
    return table("structures", Structure)


@cache
def glossary() -> dict[str, Term]:
    """Words of the trade by key, in alphabetical order."""
    rows = table("glossary", Term)
    return dict(sorted(rows.items(), key=lambda each: each[1].name.lower()))


@cache
def clues() -> dict[str, Clue]:
    """Return what tells structures apart, by key."""
    return table("clues", Clue)


@cache
def features() -> dict[str, FeatureKind]:
    """Return what is on walls and in them, by key."""
    return table("features", FeatureKind)


@cache
def screws() -> dict[str, Screw]:
    """Screws by key."""
    return table("screws", Screw)


@cache
def screws_sold(units: Units) -> dict[str, Screw]:
    """Return the screws that are sold where these units are used, by key."""
    return {key: row for key, row in screws().items() if row.system == units}


def screw_beside(key: str, other: str) -> str:
    """Return the key of a screw, or of its twin where another one is of the other system."""
    return screw_in(key, screws()[other].system)


def screw_in(key: str, units: Units) -> str:
    """Return the key of a screw, or of its twin where these units are used."""
    row = screws()[key]
    return key if row.system == units else row.twin


@cache
def anchors() -> dict[str, Anchor]:
    """Anchors by key."""
    return table("anchors", Anchor)


@cache
def contents() -> dict[str, Content]:
    """Things people keep on walls, by key."""
    return table("contents", Content)


@cache
def wants() -> dict[str, Want]:
    """Return what somebody may want to hang besides contents, by key."""
    return table("wants", Want)


@cache
def mounting_kinds() -> dict[str, MountingKind]:
    """Return what each kind of mounting is good for, by its key."""
    return table("kinds", MountingKind)


@cache
def tools() -> dict[str, Tool]:
    """Tools by key."""
    return table("tools", Tool)


@cache
def fixings() -> dict[str, FixingClass]:
    """Classes of what holds a piece."""
    return table("fixings", FixingClass)


@cache
def policies() -> dict[str, Question]:
    """Questions of a job's policy by key."""
    return table("policies", Question)


@cache
def stock() -> dict[str, Stock]:
    """Boards and sheets as sold, by key."""
    return table("stock", Stock)


@cache
def packs() -> dict[str, Packs]:
    """Packs by kind of fastener."""
    return table("packs", Packs)


@cache
def coatings() -> dict[str, Coating]:
    """Finishes by key."""
    return table("coatings", Coating)


@cache
def preparing() -> dict[str, Preparing]:
    """Return what is done to wood beside its coats, in the order in which it is done."""
    return table("preparing", Preparing)


@cache
def tricks() -> dict[str, Trick]:
    """Return how people do things at the wall, by key."""
    return table("tricks", Trick)


@cache
def over() -> dict[str, Over]:
    """Return what does not simply go over what."""
    return table("over", Over)


@cache
def refused() -> dict[str, Refused]:
    """Return uses that are not planned here, by key."""
    return table("refused", Refused)


@cache
def corners() -> dict[str, Corner]:
    """Return ends of a wall by key."""
    return table("corners", Corner)


@cache
def holders() -> dict[str, HolderKind]:
    """Return what a further thing hangs by, by the kind of mounting."""
    return table("holders", HolderKind)


@cache
def taking_off() -> dict[str, TakingOff]:
    """Return how old things come off, by their row of the features table."""
    return table("taking_off", TakingOff)


@cache
def suits() -> dict[str, Suits]:
    """Return what tops are for, with the heights that suit people."""
    return table("suits", Suits)


@cache
def fronts() -> dict[str, Front]:
    """Return the fronts of corner shelves by key."""
    return table("fronts", Front)


@cache
def climates() -> dict[str, Climate]:
    """Return rooms that are no heated room, by key."""
    return table("climates", Climate)


@cache
def cords() -> dict[str, Cord]:
    """Return what passes through an opening in a board, by key."""
    return table("cords", Cord)


@cache
def joints() -> dict[str, Joint]:
    """Joints between the boards of a body, by key."""
    return table("joints", Joint)


@cache
def pins() -> dict[str, PinSteel]:
    """Steels of pins and rods by key."""
    return table("pins", PinSteel)


@cache
def brackets() -> dict[str, Bracket]:
    """Bracket classes by key."""
    return table("brackets", Bracket)


@cache
def tracks() -> dict[str, Track]:
    """Classes of slotted uprights with their arms by key."""
    return table("tracks", Track)


@cache
def stiffeners() -> dict[str, Stiffener]:
    """Return what stiffens a front edge, by key."""
    return table("stiffeners", Stiffener)


@cache
def plates() -> dict[str, Plate]:
    """Rod plate classes by key."""
    return table("plates", Plate)


@cache
def everyday() -> dict[str, Everyday]:
    """Everyday set-ups, by key."""
    return table("everyday", Everyday)


@cache
def rough() -> dict[str, Rough]:
    """Return the thicknesses in which hardwood is sawn, thinnest first in either system."""
    return table("rough", Rough)


@cache
def reserves() -> dict[str, Reserve]:
    """Return how far tests to failure exceed what is allowed, by the start of a check's code."""
    return table("reserves", Reserve)


@cache
def pushes() -> dict[str, PushClass]:
    """Whose push, by key."""
    return table("pushes", PushClass)


@cache
def sizes(kind: str) -> tuple[Sizes, ...]:
    """Return the sizes of a kind's own parts."""
    return tuple(row for row in table("sizes", Sizes).values() if kind in row.kinds)


@cache
def thicknesses(board: str, units: Units) -> tuple[float, ...]:
    """Return the thicknesses in which a board or sheet is sold where units are used, mm."""
    rows = stock().values()
    return tuple(
        sorted(
            {
                row.thickness_mm
                for row in rows
                if row.board == board and row.system == units and row.shape == "flat"
            }
        )
    )


@cache
def usual(kind: str, units: Units) -> dict[str, float]:
    """Return the sizes in which a new piece of a kind is made, by field, where units are used."""
    return {row.field: row.of(units)[0] for row in sizes(kind) if row.new}


@cache
def uses() -> dict[str, Use]:
    """Use classes by key."""
    return table("uses", Use)


@cache
def drills() -> dict[str, Drills]:
    """Drill series by units."""
    return table("drills", Drills)


@cache
def rules() -> dict[str, Rule]:
    """Return what each check does, by its code."""
    return table("rules", Rule)


TABLES = (
    framing,
    boards,
    linings,
    structures,
    clues,
    glossary,
    features,
    screws,
    anchors,
    pins,
    contents,
    wants,
    mounting_kinds,
    tools,
    policies,
    stock,
    packs,
    coatings,
    preparing,
    tricks,
    over,
    refused,
    reserves,
    rough,
    corners,
    brackets,
    plates,
    uses,
    drills,
    rules,
)


def row(rows: dict[str, R], key: str, noun: str) -> R:
    """Look up a row a person named.

    Raises:
        UnknownRowError: there is none; the sentence lists what there is.
    """
    try:
        return rows[key]
    except KeyError:
        raise UnknownRowError(
            compose(
                "“{key}” is no {noun} Gancho knows. It knows: {rows}.",
                key=key,
                noun=noun,
                rows=", ".join(rows),
            )
        ) from None
