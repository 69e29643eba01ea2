"""What is done to a part besides cutting it to size.

Its ends and edges off square, its holes, which side goes to the wall.
"""

from math import atan, cos, degrees, radians, tan
from typing import NamedTuple

from trade import data
from trade.calculation import Quantity
from trade.check import Message, Placeholders
from trade.language import compose, counted, joined
from trade.measure import Units, say_bit, say_length
from trade.plan.model import Piece, Wall
from trade.wall.scribing import NEAR_END_MM, ends_of, scribe_of

Place = tuple[float, float]
_STRAIGHT_MM = data.house("straight_mm")


def length(mm: float) -> Quantity:
    """Return a length to say."""
    return Quantity(mm, "length")


def _degrees(value: float) -> str:
    return f"{value:.1f}".removesuffix(".0")


class Mitre(NamedTuple):
    """Ends sawn off square.

    Which, by how many degrees, through how much wood, and which side is shorter.
    """

    ends: str
    degrees: float
    through_mm: float
    shorter: str

    @property
    def short_mm(self) -> float:
        """How much shorter that side is, at each such end."""
        return self.through_mm * tan(radians(self.degrees))

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        return Message(
            "Mitre {ends} at {degrees}° off square: {short} shorter {side}.",
            {
                "ends": self.ends,
                "degrees": _degrees(self.degrees),
                "short": Quantity(self.short_mm, "fine"),
                "side": self.shorter,
            },
        )


class Bevel(NamedTuple):
    """Long edges sawn off square, blade tilted by `degrees`.

    The other face is narrower by `narrow_mm` at each.
    """

    edges: str
    degrees: float
    thick_mm: float

    @property
    def narrow_mm(self) -> float:
        """How much narrower the inner face is at each such edge."""
        return self.thick_mm * tan(radians(self.degrees))

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        return Message(
            "Bevel {edges} at {degrees}°, its full width outside: {narrow} less inside at each.",
            {
                "edges": self.edges,
                "degrees": _degrees(self.degrees),
                "narrow": Quantity(self.narrow_mm, "fine"),
            },
        )


class Pair(NamedTuple):
    """Two like halves out of one strip by one rip with the blade tilted.

    Both `high_mm` at their higher face.
    """

    degrees: float
    high_mm: float
    thick_mm: float

    @property
    def rise_mm(self) -> float:
        """How much lower the other face of each half is."""
        return self.thick_mm * tan(radians(self.degrees))

    def strip_mm(self, kerf_mm: float) -> float:
        """Width of the strip.

        The halves overlap by the rise, and the slanting cut takes its kerf over the cosine.
        """
        return 2 * self.high_mm - self.rise_mm + kerf_mm / cos(radians(self.degrees))

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        return Message(
            "Rip it in two, blade at {degrees}°: each half {high} at its higher face, {low} at the "
            "other.",
            {
                "degrees": _degrees(self.degrees),
                "high": length(self.high_mm),
                "low": length(self.high_mm - self.rise_mm),
            },
        )


class Slant(NamedTuple):
    """A front sawn aslant, from the far end of the one back edge to the far end of the other.

    `front_mm`: its length; `degrees`: between it and the edge along this wall.
    """

    front_mm: float
    degrees: float

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        return Message(
            "Saw its front aslant, corner to corner: {front} long, {degrees}° to the edge along "
            "this wall.",
            {"front": length(self.front_mm), "degrees": _degrees(self.degrees)},
        )


class Rounded(NamedTuple):
    """A front sawn round, a quarter of an ellipse, from the end of one back edge to the other's."""

    along_mm: float
    out_mm: float

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        sizes: Placeholders = {"a": length(self.along_mm), "b": length(self.out_mm)}
        if abs(self.along_mm - self.out_mm) < _STRAIGHT_MM:
            return Message(
                "Saw its front round: a pencil on a string or a lath {a} long, held in its corner.",
                sizes,
            )
        said = (
            "Saw its front round, {a} along this wall and {b} out. Mark a lath {b} and {a} from "
            "its end: the first mark stays on the edge along this wall, the second on the other, "
            "and a pencil at its end draws the front."
        )
        return Message(said, sizes)


class Bored(NamedTuple):
    """Holes in a face or an edge.

    From its left end and its lower edge, their width, and how deep; None for right through.
    """

    into: str
    places: tuple[Place, ...]
    wide_mm: float
    deep_mm: float | None = None
    why: str = ""

    @property
    def holes(self) -> int:
        """How many."""
        return len(self.places)

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        deep = (
            "right through"
            if self.deep_mm is None
            else Message("{deep} deep", {"deep": length(self.deep_mm)})
        )
        where = (
            "{into}, at {first} and so on from its left end"
            if self.holes > 1
            else "{into}, at {first} from its left end"
            if self.places
            else "{into}"
        )
        first = length(self.places[0][0] if self.places else 0.0)
        return Message(
            "Bore {holes}, {bit}, {deep}, in {where}: {why}."
            if self.why
            else "Bore {holes}, {bit}, {deep}, in {where}.",
            {
                "holes": counted(self.holes, "{n} hole", "{n} holes"),
                "bit": say_bit(self.wide_mm, units),
                "deep": deep,
                "where": Message(where, {"into": self.into, "first": first}),
                "why": self.why,
            },
        )


class Row(NamedTuple):
    """Rows of holes for shelf pins.

    `rows` of `many`, the first so far up, `every_mm` from one to the next; `once`: in the body
    itself, once for all the parts that say so.
    """

    into: str
    rows: int
    many: int
    first_mm: float
    every_mm: float
    wide_mm: float
    deep_mm: float
    once: bool = False

    @property
    def holes(self) -> int:
        """How many holes in all."""
        return self.rows * self.many

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        return Message(
            "Bore {rows} of {each}, {bit}, {deep} deep, {every} apart, the first {first} up, in "
            "{into}: {holes}, about {minutes} with a jig.",
            {
                "rows": counted(self.rows, "{n} row", "{n} rows"),
                "each": counted(self.many, "{n} hole", "{n} holes"),
                "into": self.into,
                "holes": counted(self.holes, "{n} hole", "{n} holes"),
                "minutes": counted(max(round(minutes((self,))), 1), "{n} minute", "{n} minutes"),
                "bit": say_bit(self.wide_mm, units),
                "deep": length(self.deep_mm),
                "every": Quantity(self.every_mm, "fine"),
                "first": length(self.first_mm),
            },
        )


class Recess(NamedTuple):
    """A recess for a plate: into which face, around which places, its size."""

    into: str
    places: tuple[Place, ...]
    wide_mm: float
    high_mm: float
    deep_mm: float
    deeper: bool = False

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        return Message(
            "Let in {plates} in {into}: {wide} × {high}, {deep} deep and deeper by what the back "
            "was scribed."
            if self.deeper
            else "Let in {plates} in {into}: {wide} × {high}, {deep} deep.",
            {
                "plates": counted(len(self.places), "the plate", "{n} plates"),
                "into": self.into,
                "wide": length(self.wide_mm),
                "high": length(self.high_mm),
                "deep": Quantity(self.deep_mm, "fine"),
            },
        )


class Band(NamedTuple):
    """Raw edges of a sheet that are seen: how much band they take."""

    edges: str
    long_mm: float

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        return Message(
            "Band {edges}: {long} of edge band.",
            {"edges": self.edges, "long": length(self.long_mm)},
        )


class Opening(NamedTuple):
    """An opening in a face for what is behind it.

    From its left end, above its lower edge, how wide and how high; `plate_mm`: width and height of
    the plate that covers its edges, None where it stays open; `forward_mm`: how far its box comes
    forward, 0 where nobody knows.
    """

    what: str
    x_mm: float
    y_mm: float
    wide_mm: float
    high_mm: float
    plate_mm: Place | None = None
    forward_mm: float = 0.0

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        sizes: Placeholders = {
            "what": self.what,
            "w": length(self.wide_mm),
            "h": length(self.high_mm),
            "x": length(self.x_mm),
            "y": length(self.y_mm),
        }
        if self.plate_mm is None:
            said = (
                "Saw an opening for {what}: {w} × {h}, its corner {x} from the left and {y} up. It "
                "stays open, or gets a lid that comes off by hand."
            )
            return Message(said, sizes)
        sizes = sizes | {
            "pw": length(self.plate_mm[0]),
            "ph": length(self.plate_mm[1]),
            "out": length(self.forward_mm),
        }
        said = (
            "Saw an opening for {what}: {w} × {h}, its corner {x} from the left and {y} up. Its "
            "plate, {pw} × {ph}, covers the edges; an extension ring brings the box {out} forward, "
            "flush with the face. Where local codes ask for it, a licensed person does that."
            if self.forward_mm
            else "Saw an opening for {what}: {w} × {h}, its corner {x} from the left and {y} up. "
            "Its plate, {pw} × {ph}, covers the edges; an extension ring brings the box forward, "
            "flush with the face. Where local codes ask for it, a licensed person does that."
        )
        return Message(said, sizes)


class Rabbet(NamedTuple):
    """A step along an edge or an end of the inner face: how wide, how deep."""

    edge: str
    wide_mm: float
    deep_mm: float

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        return Message(
            "Rabbet {edge} on the inner face: {wide} wide, {deep} deep.",
            {
                "edge": self.edge,
                "wide": Quantity(self.wide_mm, "fine"),
                "deep": Quantity(self.deep_mm, "fine"),
            },
        )


class Groove(NamedTuple):
    """Grooves across a face.

    `places_mm`: from where to each one's nearer edge; `stop_mm`: how far they end from the front.
    """

    into: str
    start: str
    places_mm: tuple[float, ...]
    wide_mm: float
    deep_mm: float
    stop_mm: float

    def phrase(self, units: Units) -> Message:
        """Return what to do; a groove without a stop runs along the whole board."""
        if not self.stop_mm:
            said = "Saw or rout a groove along {into}, {wide} wide, {deep} deep, {at} from {start}."
            return Message(
                said,
                {
                    "into": self.into,
                    "wide": Quantity(self.wide_mm, "fine"),
                    "deep": Quantity(self.deep_mm, "fine"),
                    "at": joined([say_length(at, units) for at in self.places_mm]),
                    "start": self.start,
                },
            )
        return Message(
            "Saw or rout {n} across {into}, {wide} wide, {deep} deep, {at} from {start}; end "
            "{stop} before the front edge.",
            {
                "n": counted(len(self.places_mm), "a groove", "{n} grooves"),
                "into": self.into,
                "wide": Quantity(self.wide_mm, "fine"),
                "deep": Quantity(self.deep_mm, "fine"),
                "at": joined([say_length(at, units) for at in self.places_mm]),
                "start": self.start,
                "stop": length(self.stop_mm),
            },
        )


class Notch(NamedTuple):
    """Corners sawn out: how far along the board, how far across it."""

    corners: str
    long_mm: float
    deep_mm: float

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        return Message(
            "Notch {corners}: {long} along the board, {deep} across it.",
            {
                "corners": self.corners,
                "long": Quantity(self.long_mm, "fine"),
                "deep": Quantity(self.deep_mm, "fine"),
            },
        )


class Instruction(NamedTuple):
    """Something else that is done to a part, in a sentence of its own."""

    words: str

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        return Message(self.words)


class Joined(NamedTuple):
    """Ends that are joined to the next board: by what, where its fasteners go from the back."""

    by: str
    ends: str
    places_mm: tuple[float, ...]

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        if not self.places_mm:
            return Message("Join {ends} by {by}.", {"ends": self.ends, "by": self.by})
        return Message(
            "Join {ends} by {by}: {n} at each, {at} from its back edge.",
            {
                "ends": self.ends,
                "by": self.by,
                "n": counted(len(self.places_mm), "one", "{n}"),
                "at": joined([say_length(at, units) for at in self.places_mm]),
            },
        )


class GluedUp(NamedTuple):
    """A part made of boards: so many layers of so many, each so wide and thick.

    `thick_mm`: what it ends at; `labels`: of those boards.
    """

    layers: int
    across: int
    wide_mm: float
    board_mm: float
    thick_mm: float
    labels: tuple[str, ...]

    @property
    def lines(self) -> int:
        """How many lines of glue."""
        return self.layers * self.across - 1

    def phrase(self, units: Units) -> Message:
        """Return what to do."""
        planed = self.layers * self.board_mm - self.thick_mm > _STRAIGHT_MM
        sizes: Placeholders = {
            "labels": joined(self.labels),
            "wide": length(self.wide_mm),
            "board": Quantity(self.board_mm, "fine"),
            "thick": Quantity(self.thick_mm, "fine"),
            "layers": str(self.layers),
            "across": str(self.across),
        }
        return Message(self._said(planed), sizes)

    def _said(self, planed: bool) -> str:
        if self.layers == self.across == 1:
            return "Plane it down to {thick} from a board {board} thick: {labels}."
        if self.layers == 1:
            return (
                "Glue {labels} edge to edge, each {wide} wide, the rings of each turned over "
                "against its neighbour's; plane it to {thick} when it has set."
                if planed
                else "Glue {labels} edge to edge, each {wide} wide, the rings of each turned over "
                "against its neighbour's."
            )
        if self.across == 1:
            return (
                "Glue {labels} face to face, each {wide} × {board}; when it has set, plane it to "
                "{thick} and its edges straight."
                if planed
                else "Glue {labels} face to face, each {wide} × {board}; when it has set, plane "
                "its edges straight."
            )
        return (
            "Glue {labels} up, each {wide} × {board}: {layers} layers of {across} edge to edge, "
            "the joints of one over the middles of the next; plane it to {thick} when it has set."
        )


_Cut = Mitre | Bevel | Pair | Slant | Rounded | Rabbet | Groove | Notch | Opening
Work = GluedUp | _Cut | Instruction | Joined | Bored | Row | Recess | Band


class Detail(NamedTuple):
    """All that is done to one part.

    `wall`: which side of it goes to the wall, or is seen; `late`: what its length is measured
    between, once what stands before it is there; `follows`: the part by whose measured length it
    goes; `scribe_mm`: left on in length and in width, to be planed off to the wall; `bare`: it gets
    no finish; `any_way`: its grain may run along it or up.
    """

    works: tuple[Work, ...] = ()
    wall: str = ""
    late: str = ""
    follows: str = ""
    scribe_mm: Place = (0.0, 0.0)
    bare: bool = False
    any_way: bool = False


def minutes(works: tuple[Work, ...]) -> float:
    """Return what the boring of a part takes."""
    return (
        sum(work.holes for work in works if isinstance(work, Bored | Row))
        * data.house("bore_seconds")
        / 60
    )


def scribe(piece: Piece, wall: Wall, ends: bool = True) -> Place:
    """Return what is left on a board that meets the wall.

    At each end that meets another wall, and along its back.

    The gap that was measured where the wall was measured, nothing where it is straight, else the
    usual allowance.
    """
    usual, found = data.house("scribe_mm"), scribe_of(piece, wall)
    back = (
        usual
        if found is None
        else 0.0
        if found.widest_mm < _STRAIGHT_MM
        else max(usual, found.widest_mm)
    )
    left, right = piece.left_mm, wall.width_mm - piece.left_mm - piece.length_mm
    meets = sum(gap < NEAR_END_MM for gap in (left, right)) if ends else 0
    return usual * meets, back


def off_square(piece: Piece, wall: Wall) -> tuple[Work, ...]:
    """Return the board ends to saw for a corner out of square or a niche that tapers."""
    made = []
    for end in ends_of(piece, wall):
        if abs(end.front_mm) >= _STRAIGHT_MM:
            tilt = degrees(atan(abs(end.front_mm) / piece.depth_mm))
            shorter = "at its back edge" if end.front_mm > 0 else "at its front edge"
            made.append(
                Mitre(compose("its {side} end", side=end.side), tilt, piece.depth_mm, shorter)
            )
    return tuple(made)


def longest_mm(piece: Piece, wall: Wall) -> float:
    """Length of a board before its ends are sawn off square.

    Its back edge, and by how much its front edge is longer.
    """
    return piece.length_mm + sum(max(end.front_mm, 0.0) for end in ends_of(piece, wall))


def front_mm(piece: Piece, wall: Wall) -> float:
    """Length of its front edge."""
    return piece.length_mm + sum(end.front_mm for end in ends_of(piece, wall))


def banded(board: str, piece: Piece, ends: int = 2) -> tuple[Work, ...]:
    """Return the edge band of a shelf out of a sheet: its front, and the ends that are seen."""
    if not data.boards()[board].sheet:
        return ()
    edges = {
        0: "its front edge",
        1: "its front edge and the end that is seen",
        2: "its front edge and both ends",
    }[ends]
    return (Band(edges, piece.length_mm + ends * piece.depth_mm),)


def seen_ends(piece: Piece, wall: Wall) -> int:
    """How many of a piece's ends are seen, meeting no wall."""
    return sum(
        gap >= NEAR_END_MM
        for gap in (piece.left_mm, wall.width_mm - piece.left_mm - piece.length_mm)
    )
