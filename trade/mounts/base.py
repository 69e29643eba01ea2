"""What every kind of mounting is asked, and what it answers with."""

from abc import ABC, abstractmethod
from collections.abc import Callable, Iterator, Sequence
from contextlib import suppress
from functools import cache
from typing import Any, ClassVar, Generic, Literal, NamedTuple, TypeVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Quantity
from trade.check import Assumption, Check, Message, Placeholders
from trade.errors import PlanError
from trade.fixings import driving
from trade.fixings.pins import PinSeat
from trade.fixings.support import Support
from trade.language import compose
from trade.load import lifting
from trade.load.shelf import board_n
from trade.measure import G_N_PER_KG, Units
from trade.memo import memoized
from trade.mounts.hanging import Do, Droop, Hanging
from trade.mounts.work import Bored, Detail, Work, banded, longest_mm, off_square, scribe, seen_ends
from trade.plan.flatness import Side
from trade.plan.model import Piece, Shelf, Wall
from trade.plan.pieces.base import Corded
from trade.plan.policy import Policy
from trade.workshop.panels import Panel

P = TypeVar("P", bound=Piece)
_SAME_MM = 0.05
_NEARLY_MM = 1.0  # a sheet is called by a round number
_TOUCHING_MM = 1e-6
_KEPT = 500  # pieces of a kind
_PARALLEL = 2  # more rods than that are never quite parallel
AnySupport = Support | PinSeat
Role = Literal["board", "wood", "steel", "hidden", "leg", "face", "door", "shade", "holes"]


_AS_DEEP: tuple[Role, ...] = ("board", "face", "door")
_SIZES = ("length_mm", "depth_mm", "thickness_mm", "height_mm")


class Ask(NamedTuple):
    """One of a kind's own inputs: a field of its piece, what to call it, and how it is asked for.

    `table`: rows to choose from; `none`: what choosing none of them is called, where one may;
    `cure`: the code of the cure that tries its other rows; `own`: the field of one's own hardware,
    which is used instead of a row.
    """

    field: str
    label: str
    how: Literal["length", "weight", "choice", "flag", "count", "angle", "piece", "places"]
    table: Callable[[], dict[str, Any]] | None = None
    cure: str = ""
    help: str = ""
    optional: bool = False
    own: str = ""
    none: str = ""

    @property
    def short(self) -> str:
        """What forms call it.

        The sizes that every piece has without their unit, else the field itself.
        """
        return self.field.removesuffix("_mm") if self.field in _SIZES else self.field


LENGTH, DEPTH = Ask("length_mm", "Length", "length"), Ask("depth_mm", "Depth", "length")
BOARD = Ask("board", "Board", "choice", data.boards)
WOOD = Ask("board", "Board", "choice", data.woods)
CORD = (
    Ask("cord", "An opening in it for", "choice", data.cords, none="nothing"),
    Ask(
        "cord_at_mm",
        "That opening, from its left end",
        "length",
        optional=True,
        help="Near its right end when left empty.",
    ),
)
SHELF = (LENGTH, DEPTH, Ask("thickness_mm", "Thickness", "length"), BOARD, *CORD)
WOODEN_SHELF = (LENGTH, DEPTH, Ask("thickness_mm", "Thickness", "length"), WOOD, *CORD)


class Shape(NamedTuple):
    """An outline in mm. From the front: from the wall's left corner and the floor.

    From the side: out of the lining's face, up.

    `role`: what it is made of or is, for those who draw it; `support`: the number of the support
    that it belongs to; `every_mm`: of a row of holes, as high as one is wide: from one to the next.
    """

    role: Role
    points: tuple[tuple[float, float], ...]
    support: int | None = None
    every_mm: float = 0.0


def block(
    role: Role, left: float, bottom: float, right: float, top: float, support: int | None = None
) -> Shape:
    """Return a rectangle."""
    return Shape(role, ((left, bottom), (right, bottom), (right, top), (left, top)), support)


class Solid(NamedTuple):
    """An upright body in the room: its outline from above (along the wall, out of it), mm.

    `bottom_mm`, `top_mm`: above the floor.
    """

    role: Role
    outline: tuple[tuple[float, float], ...]
    bottom_mm: float
    top_mm: float


def slab(
    role: Role, left: float, right: float, out: tuple[float, float], bottom: float, top: float
) -> Solid:
    """Return a body with square corners; `out`: its back and its front, from the wall."""
    back, front = out
    outline = ((left, back), (right, back), (right, front), (left, front))
    return Solid(role, outline, bottom, top)


class Making(NamedTuple):
    """What putting a body together takes: hands on, until its glue has set, and how it is done.

    `tools`: that not everybody has.
    """

    minutes: float = 0.0
    sets_hours: float = 0.0
    steps: tuple[Do, ...] = ()
    tools: tuple[str, ...] = ()


class Rest(NamedTuple):
    """What a piece lays on another one at the wall beside: which, N, how deep it is, its top."""

    on: str
    force_n: float
    depth_mm: float
    top_mm: float


class Part(NamedTuple):
    """So many of one part.

    `sizes_mm`: finished length, width and thickness; None for what is bought ready; `round`: a
    dowel; `own`: it is there already; `price`: what one costs where no table of its own says so.
    """

    name: str
    of: str
    many: int
    sizes_mm: tuple[float, float, float] | None = None
    round: bool = False
    own: bool = False
    price: float | None = None


def cut(name: str, board: str, many: int, length: float, width: float, thick: float) -> Part:
    """Return a part that is cut from a row of the boards table."""
    return Part(name, data.boards()[board].name, many, (length, width, thick))


def cut_dowel(name: str, board: str, many: int, length: float, wide: float) -> Part:
    """Return a part that is cut from a dowel rod of a row of the boards table."""
    return Part(name, data.boards()[board].name, many, (length, wide, wide), round=True)


class Extra(NamedTuple):
    """Fasteners besides those of its seats.

    Where, how many; as on this wall, or a screw of their own and its length.
    """

    where: str
    many: int
    screw: str | None = None
    length_mm: float = 0.0


class Hole(NamedTuple):
    """A hole in the wall: where, and the seat it belongs to."""

    x_mm: float
    y_mm: float
    support: AnySupport


class Bore(NamedTuple):
    """A hole in the piece itself.

    From its left end, above its underside, what goes in, and how deep from the back.

    `loose_mm`: how much wider than what goes in it has to be.
    """

    x_mm: float
    y_mm: float
    rod_mm: float
    depth_mm: float
    part: str
    loose_mm: float = 0.0
    cautions: tuple[Message, ...] = ()

    def bit_mm(self, units: Units) -> float:
        """Return the drill for it: marks, saw list, templates and lists all name this one."""
        return driving.drill_at_least_mm(self.rod_mm + self.loose_mm, units)


class Box(NamedTuple):
    """The room that a piece takes on the wall, hardware included."""

    left_mm: float
    right_mm: float
    bottom_mm: float
    top_mm: float


class Mount(ABC, Generic[P]):
    """A kind of mounting.

    `fresh`: what a new one is made of, besides what every piece has; `stands`: on the floor;
    `every_stud`: it is screwed to all that it crosses; `carries`: where its things are, seen from
    the front; `bored_from_wall`: its own holes are bored from where what carries it was found to
    be; `covers`: what is behind it can't be reached; `any_board`: its board may be other than wood;
    `longer_ends`: it can be made longer or shorter at an end; `on_a_board`: it may sit on a board
    across studs, for nothing of it leans on the wall but what is screwed to it; `doubts`: fields
    that say whether something out of sight is certain; `woods`: each field that names a wood, with
    the thicknesses that are of it.
    """

    kind: ClassVar[str]
    name: ClassVar[str]
    piece_noun: ClassVar[str] = "shelf"
    support_noun: ClassVar[str]
    asks: ClassVar[tuple[Ask, ...]]
    fresh: ClassVar[dict[str, Any]]
    make: ClassVar[type[Piece]]
    stands: ClassVar[bool] = False
    every_stud: ClassVar[bool] = False
    covers: ClassVar[bool] = False
    bored_from_wall: ClassVar[bool] = False
    carries: ClassVar[Literal["on", "in", "under"]] = "on"
    any_board: ClassVar[bool] = False
    longer_ends: ClassVar[bool] = False
    on_a_board: ClassVar[bool] = False
    doubts: ClassVar[tuple[str, ...]] = ()
    woods: ClassVar[tuple[tuple[str, tuple[str, ...]], ...]] = (("board", ("thickness_mm",)),)

    def __init_subclass__(cls, **kwargs: Any) -> None:
        """Keep the supports of a piece: its verdict, its holes and its price ask for the same."""
        super().__init_subclass__(**kwargs)
        if "supports" in vars(cls):
            cls.supports = memoized(limit=_KEPT)(cls.supports)  # type: ignore[method-assign]

    @abstractmethod
    def checks(self, piece: P, wall: Wall) -> list[Check]:
        """Every check of this piece on this wall, in no order."""

    @abstractmethod
    def supports(self, piece: P, wall: Wall) -> Sequence[AnySupport]:
        """Each support as it sits on the wall, from the left."""

    def beside(self, piece: P, wall: Wall) -> dict[Side, list[Support]]:
        """Return its supports on the walls beside this one, by the side, from the corner.

        Places are from those walls' own left corners; their numbers go on from those on this wall.
        Empty where nothing is known of what is round the corner, or nothing goes there.
        """
        return {}

    def rests(self, piece: P) -> dict[Side, Rest]:
        """Return what its ends lay on pieces at the walls beside; most kinds nothing."""
        return {}

    @abstractmethod
    def front(self, piece: P) -> list[Shape]:
        """Return it seen from the front, what is furthest behind first."""

    @abstractmethod
    def side(self, piece: P, support: Any) -> list[Shape]:
        """Return it cut at a support, seen from the left.

        The back of what is fixed to the wall at `-seat.back_mm`.
        """

    def solids(self, piece: P, wall: Wall) -> list[Solid]:
        """Return it as it stands out into the room: what is seen from the front, as deep as it is.

        What is hidden behind it is left out. What hangs in front of it, as far as its hooks reach,
        is in the shade.
        """
        thin, own = min(data.house("thin_part_mm"), piece.depth_mm), self.out_mm(piece)
        found = []
        for shape in self.front(piece):
            if shape.role in ("hidden", "shade", "holes"):
                continue
            box = around([shape])
            deep = own if shape.role in _AS_DEEP else min(thin, own)
            back = piece.depth_mm - thin if shape.role == "leg" else 0.0
            out = (back, max(deep, back + min(thin, own)))
            found.append(
                slab(shape.role, box.left_mm, box.right_mm, out, box.bottom_mm, box.top_mm)
            )
        if own < piece.depth_mm:
            box = self.box(piece)
            reach = (own, piece.depth_mm)
            found.append(slab("shade", box.left_mm, box.right_mm, reach, box.bottom_mm, box.top_mm))
        return found

    def out_mm(self, piece: P) -> float:
        """Return how far its boards stand out from the wall; most kinds as deep as they are."""
        return piece.depth_mm

    def parcel(self, piece: P) -> tuple[float, float, float]:
        """Return three sizes of what is carried in whole; most kinds are carried as they hang."""
        return piece.length_mm, piece.depth_mm, max(piece.high_mm, 1.0)

    def carried(self, piece: P, wall: Wall) -> list[tuple[float, float, float]]:
        """Return three sizes of each part that it is put together from where it hangs.

        Most kinds come whole.
        """
        return []

    def parts(self, piece: P, wall: Wall) -> list[Part]:
        """Return what it is made of, screws and anchors apart, the greatest part first."""
        return [board_part(piece, wall)] if isinstance(piece, Shelf) else []

    def extras(self, piece: P, wall: Wall) -> list[Extra]:
        """Fasteners that it takes besides those in this wall; most kinds take none."""
        return []

    def details(self, piece: P, wall: Wall, units: Units) -> dict[str, Detail]:
        """Return what is done to its parts besides cutting them to size, by their names.

        A part that needs nothing is left out.
        """
        return (
            {"board": board_detail(piece, wall, self.bores(piece, wall), units)}
            if isinstance(piece, Shelf)
            else {}
        )

    def bores(self, piece: P, wall: Wall) -> list[Bore]:
        """Every hole in the piece itself, from the left; most kinds have none."""
        return []

    def landed(self, piece: P, wall: Wall) -> P:
        """Return a piece as it should be where it was put; most kinds stay where that is."""
        return piece

    def on_face(self, piece: P) -> P:
        """Return a piece as it sits on what lies on the wall's face: nothing of it let in."""
        return piece

    def noun_of(self, piece: P) -> str:
        """Return what one of a piece's supports is called."""
        return self.support_noun

    def own_hardware(self, piece: P) -> tuple[str, Any]:
        """Return which of its inputs may be hardware of one's own, and what that is now.

        An empty one where none may be; None where a row of the table is used.
        """
        found = ((ask.field, getattr(piece, ask.own)) for ask in self.asks if ask.own)
        return next(found, ("", None))

    def with_own(self, piece: P, own: Any) -> P:
        """Return a piece that uses hardware of one's own."""
        return replace(piece, **{ask.own: own for ask in self.asks if ask.own})

    def in_two(self, piece: P) -> Iterator[tuple[Message, P]]:
        """Yield what to do, and the piece, to make it of two lengths.

        Nothing for kinds that are always in one piece.
        """
        yield from ()

    def cures(self, piece: P, units: Units) -> Iterator[tuple[str, Message, P]]:
        """Yield changes of its own hardware that may help, least trouble first.

        In sizes of the person's units. A code, what to do, and the piece after it.
        """
        for ask in self.asks:
            if ask.cure and ask.table is not None:
                for key, row in ask.table().items():
                    own = ask.own and getattr(piece, ask.own) is not None
                    if own or key != getattr(piece, ask.field):
                        label = Message("{name!c}", {"name": row.name})
                        chosen: dict[str, Any] = {ask.field: key}
                        if ask.own:
                            chosen[ask.own] = None
                        yield ask.cure, label, replace(piece, **chosen)
        for row in data.sizes(self.kind):
            now = getattr(piece, row.field)
            for size in row.of(units) if row.code else ():
                if abs(size - now) < _SAME_MM or (size < now and not row.any):
                    continue
                if self.takes(piece, row.field, size) and self._sold(piece, row.field, size, units):
                    said: Placeholders = (
                        {"n": round(size)} if row.counts else {"size": Quantity(size, "length")}
                    )
                    with suppress(PlanError):
                        changed = replace(piece, **{row.field: type(now)(size)})
                        yield row.code, Message(row.said, said), changed

    def _sold(self, piece: P, field: str, size: float, units: Units) -> bool:
        """Whether the wood of a part is sold so thick, where it is known how it is sold."""
        for wood, fields in self.woods:
            sold = data.thicknesses(getattr(piece, wood), units) if field in fields else ()
            if sold and min(abs(thick - size) for thick in sold) > _NEARLY_MM:
                return False
        return True

    def takes(self, piece: P, field: str, size: float) -> bool:
        """Whether one of its parts may have another size there."""
        return True

    @abstractmethod
    def hanging(self, piece: P, wall: Wall, policy: Policy) -> Hanging:
        """How it goes up."""

    def droop(self, piece: P, wall: Wall) -> Droop:
        """Return how far its front drops over the years; of most kinds nothing drops."""
        return Droop()

    def assumes(self, piece: P) -> tuple[Assumption, ...]:
        """Return what its verdict takes for granted besides what every wall does.

        Most kinds nothing.
        """
        return ()

    def cautions(self, piece: P, wall: Wall) -> list[Message]:
        """Return what to mind with this kind here."""
        return []

    @property
    def has_body(self) -> bool:
        """Whether it has a body that must be weighed."""
        return "body_kg" in self.make.__struct_fields__

    def body_kg(self, piece: P) -> float | None:
        """Return what its body weighs empty; None when nobody knows, or it has none."""
        found: float | None = getattr(piece, "body_kg", None)
        return found

    def panels(self, piece: P) -> tuple[Panel, ...]:
        """Return the boards of a body that is made, where each sits; most kinds have none."""
        return ()

    def joins(self, piece: P, others: Sequence[Piece]) -> list[Piece]:
        """Return those of some other pieces that it is joined to, side to side; most kinds none."""
        return []

    def making(self, piece: P) -> Making:
        """Return what putting its body together takes; most kinds nothing."""
        return Making()

    def confirmed(self, piece: P) -> P:
        """Return the piece with every doubt of its own settled for the better."""
        return replace(piece, **dict.fromkeys(self.doubts, True)) if self.doubts else piece

    def board_of(self, piece: P) -> tuple[str, float] | None:
        """Its board and how thick that is, mm, if it is one board that something holds."""
        return (piece.board, piece.thickness_mm) if isinstance(piece, Shelf) else None

    def with_board(self, piece: P, board: str, thickness_mm: float) -> P:
        """Return the piece with another board; only for kinds that have one."""
        return replace(piece, board=board, thickness_mm=thickness_mm)

    def measured(self, piece: P, board: str, called_mm: float, found_mm: float) -> P:
        """Return the piece with every part of a wood and thickness as thick as was measured."""
        fields = {
            field: found_mm
            for wood, sizes in self.woods
            if getattr(piece, wood) == board
            for field in sizes
            if abs(getattr(piece, field) - called_mm) < _SAME_MM
        }
        return replace(piece, **fields) if fields else piece

    def sized(self, fields: dict[str, Any], wall: Wall, x_mm: float) -> dict[str, Any]:
        """Fields of a new piece, adapted to its size, to the wall and to where its middle is."""
        return fields

    def follow(self, piece: P, question: str, policy: Policy) -> P:
        """Return the piece as a policy answers a question about hardware.

        `plates`, `stays` or `made`.
        """
        return piece

    def suits(self, piece: P, policy: Policy) -> bool:
        """Whether a policy allows its hardware."""
        return True

    def let_in(self, piece: P) -> bool:
        """Whether its hardware is let into the lining."""
        return False

    def with_rows(self, piece: P, rows: int) -> P | None:
        """Return the piece held in so many rows; None for a kind without rows."""
        return None

    def room(self, piece: P) -> int:
        """How many holders have room on it; 0 for a kind that takes none."""
        row = data.holders().get(self.kind)
        return row.fit(piece.length_mm, piece.high_mm) if row else 0

    def grown(self, piece: P) -> Iterator[tuple[Message, P]]:
        """Yield it with a row, a panel or a shelf more, and what that is called."""
        yield from ()

    def filled(self, piece: P, high_mm: float) -> P:
        """Return it as high as a place; most kinds are as high as they are."""
        return piece

    def shorter_rods(self, piece: P) -> tuple[P, float] | None:
        """Return the piece with its rods as short as its depth asks.

        And how deep they are then, mm.

        None where they are short enough, or where it has none.
        """
        return None

    def taller(self, piece: P) -> Iterator[tuple[P, float]]:
        """Yield the piece with a taller body that reaches further down.

        And how high it is then, mm.
        """
        yield from ()

    def weight_kg(self, piece: P) -> float | None:
        """Return what has to be lifted into place; None when nobody knows, or nothing heavy is."""
        if isinstance(piece, Shelf):
            return board_n(piece) / G_N_PER_KG
        return self.body_kg(piece)

    def lifting(self, piece: P) -> list[Message]:
        """Who must lift it, when one person alone should not."""
        kg = self.weight_kg(piece)
        if not kg or self.stands:
            return []
        count, limit = lifting.lift(kg, piece.depth_mm, piece.top_mm)
        if count < 2:
            return []
        who = ("Two people lift it", "Three people lift it", "Four people or a hoist lift it")
        sizes: Placeholders = {
            "who": who[count - 2],
            "kg": Quantity(kg, "mass"),
            "top": Quantity(piece.top_mm, "length"),
            "limit": Quantity(limit, "mass"),
        }
        return [
            Message(
                "{who}: {kg} up to {top}, where one alone should lift no more than {limit} again "
                "and again.",
                sizes,
            )
        ]

    @property
    def how(self) -> str:
        """How this kind carries its load."""
        return data.mounting_kinds()[self.kind].how

    def hook_mm(self, piece: P) -> float | None:
        """Height at which what hangs from it is held.

        None where things stand on it, or nobody can say.
        """
        return None

    def box(self, piece: P) -> Box:
        """Return the room it takes on the wall.

        All that is seen from the front, but for what stands on the floor only to hold it.
        """
        return around([shape for shape in self.front(piece) if shape.role != "shade"])


def around(shapes: list[Shape]) -> Box:
    """Return the least room that holds some shapes."""
    across, up = zip(*(point for shape in shapes for point in shape.points), strict=True)
    return Box(min(across), max(across), min(up), max(up))


def holes(supports: Sequence[AnySupport]) -> list[Hole]:
    """Every hole in the wall, support by support from the left, each from the top down."""
    return [
        Hole(x, y, support)
        for support in supports
        for x, y in sorted(support.holes, key=lambda place: -place[1])
    ]


def board_part(piece: Shelf, wall: Wall) -> Part:
    """Return a shelf's board, as long as its longer edge."""
    return cut("board", piece.board, 1, longest_mm(piece, wall), piece.depth_mm, piece.thickness_mm)


def loose_mm(rods: int) -> float:
    """How much wider than so many rods, all slid into at once, their holes are.

    More than two are never quite parallel.
    """
    return data.house("bore_spare_mm") if rods > _PARALLEL else 0.0


def bored(bores: list[Bore], units: Units) -> tuple[Work, ...]:
    """Return the holes in a piece's back edge as work on its board."""
    sizes = dict.fromkeys((bore.bit_mm(units), bore.depth_mm) for bore in bores)
    return tuple(
        Bored(
            "its back edge",
            tuple((b.x_mm, b.y_mm) for b in bores if (b.bit_mm(units), b.depth_mm) == (wide, deep)),
            wide,
            deep,
        )
        for wide, deep in sizes
    )


def cord_work(piece: Corded) -> tuple[Work, ...]:
    """Return the opening for a cord as work on a board, before its finish."""
    hole = piece.cord_hole
    if hole is None:
        return ()
    at, back, wide = hole
    why = "for the cord, off its back edge, before the finish"
    return (Bored("its face", ((at, back),), wide, None, why),)


def board_detail(piece: Shelf, wall: Wall, bores: list[Bore], units: Units) -> Detail:
    """Return a shelf's board.

    Scribed to the wall, banded where it is out of a sheet, bored in its back.
    """
    return Detail(
        (
            *banded(piece.board, piece, seen_ends(piece, wall)),
            *off_square(piece, wall),
            *bored(bores, units),
            *cord_work(piece),
        ),
        "back edge to the wall, good face up",
        scribe_mm=scribe(piece, wall) if data.boards()[piece.board].wooden else (0.0, 0.0),
    )


def board_front(piece: Any) -> Shape:
    """Return a board, from the front."""
    return block(
        "board",
        piece.left_mm,
        piece.top_mm - piece.high_mm,
        piece.left_mm + piece.length_mm,
        piece.top_mm,
    )


def board_side(piece: Any) -> Shape:
    """Return a board, from the side, its back on the lining."""
    return block("board", 0.0, piece.top_mm - piece.high_mm, piece.depth_mm, piece.top_mm)


@cache
def support_name(index: int, count: int, noun: str) -> str:
    """Return what to call a support.

    Left bracket, middle bracket, right bracket; by number when there are more than three.
    """
    if count == 1:
        return noun
    if index == 0:
        return compose("left {noun}", noun=noun)
    if index == count - 1:
        return compose("right {noun}", noun=noun)
    return (
        compose("middle {noun}", noun=noun)
        if count == 3
        else compose("{noun} {index} from the left", noun=noun, index=index + 1)
    )
