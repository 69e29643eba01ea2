"""A hollow box that floats: screws through its back near its top, its foot on the wall."""

from collections.abc import Iterator
from typing import Any, ClassVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, Message, make
from trade.fixings import fastening
from trade.fixings.support import Support
from trade.language import compose
from trade.load import sharing
from trade.load.line import LineLoad, contents_of, unweighed
from trade.load.ways import BODY, Sharing
from trade.measure import G_N_PER_KG, Units
from trade.mounts import board, strength, strips
from trade.mounts.base import (
    CORD,
    DEPTH,
    LENGTH,
    WOOD,
    Ask,
    Mount,
    Part,
    Shape,
    block,
    cord_work,
    cut,
)
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.work import Bevel, Detail, scribe
from trade.plan.model import BoxShelf, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing
from trade.workshop.hollow import hollow
from trade.workshop.panels import Panel

NOUN = "support"
_MITRE = 45.0  # degrees
_LOW_MM = data.house("box_low_mm")


class _BoxShelf(Mount[BoxShelf]):
    kind = "box_shelf"
    name = "Hollow box shelf"
    piece_noun = "box shelf"
    support_noun = NOUN
    make = BoxShelf
    woods = (("board", ("skin_mm",)),)
    on_a_board = True
    asks = (
        LENGTH,
        DEPTH,
        Ask("height_mm", "Height", "length"),
        WOOD,
        Ask("skin_mm", "Its boards thick", "length"),
        Ask("screw_down_mm", "Screws below its top", "length"),
        Ask(
            "mitred",
            "Its front mitred to top and bottom",
            "flag",
            help="No edge shows; the box is glued up before it hangs.",
        ),
        Ask("low_screws", "Screws near its bottom too, against being lifted", "flag"),
        *CORD,
    )
    fresh: ClassVar[dict[str, Any]] = {
        "board": "plywood",
        "height_mm": 150.0,
        "depth_mm": 220.0,
        "skin_mm": 12.0,
        "screw_down_mm": 30.0,
    }

    def checks(self, piece: BoxShelf, wall: Wall) -> list[Check]:
        """Every check of the box and its screws."""
        loads = unweighed(piece)
        if len(piece.supports_mm) < 2:
            return [board.too_few_supports(piece, NOUN, loads)]
        return sharing.best(
            lambda so: self._shared(piece, wall, so), lambda so: self._load(piece, so), BODY
        )

    def _shared(self, piece: BoxShelf, wall: Wall, so: Sharing) -> list[Check]:
        loads = unweighed(piece)
        load = self._load(piece, so)
        found = fastening.checks(
            self.supports(piece, wall), load.demands(), backing(wall).unknown, loads
        )
        return [*found, _top_sag(piece, loads), _lower_edge(piece)]

    def _load(self, piece: BoxShelf, so: Sharing) -> LineLoad:
        return LineLoad(
            piece, _own_n(piece), piece.depth_mm / 2, sharing=so, torsion_nmm=_torsion_nmm(piece)
        )

    def supports(self, piece: BoxShelf, wall: Wall) -> list[Support]:
        """Its back at each stud: a screw near the top, another near the bottom."""
        heights, low = _rows_mm(piece), piece.top_mm - piece.height_mm
        return strips.on_studs(
            piece, wall, NOUN, piece.board, piece.skin_mm, piece.height_mm, low, heights
        )

    def weight_kg(self, piece: BoxShelf) -> float | None:
        """Return the bare piece."""
        return _own_n(piece) / G_N_PER_KG

    def panels(self, piece: BoxShelf) -> tuple[Panel, ...]:
        """Return its skins and end caps."""
        return hollow(
            piece.length_mm,
            piece.height_mm,
            piece.depth_mm,
            piece.board,
            piece.skin_mm,
            piece.mitred,
        )

    def parts(self, piece: BoxShelf, wall: Wall) -> list[Part]:
        """Top and bottom over the whole, back and front (or mitred front) between, two end caps."""
        t, inside = piece.skin_mm, piece.height_mm - 2 * piece.skin_mm
        return [
            cut("top and bottom", piece.board, 2, piece.length_mm, piece.depth_mm, t),
            cut("back", piece.board, 1, piece.length_mm, inside, t),
            cut(
                "front",
                piece.board,
                1,
                piece.length_mm,
                piece.height_mm if piece.mitred else inside,
                t,
            ),
            cut("end cap", piece.board, 2, piece.depth_mm - 2 * t, inside, t),
        ]

    def details(self, piece: BoxShelf, wall: Wall, units: Units) -> dict[str, Detail]:
        """Scribed at the back; bored for its screws; the front's mitres.

        End caps cut to the box as it was glued up.
        """
        t, (ends, back) = piece.skin_mm, scribe(piece, wall)
        foot = piece.top_mm - piece.height_mm + t
        screws = strips.screwed(self.supports(piece, wall), piece.left_mm, foot, units)
        mitred = (Bevel("its front edge", _MITRE, t),) if piece.mitred else ()
        both = (Bevel("both its long edges", _MITRE, t),) if piece.mitred else ()
        between = "between back and front, inside the box as it was glued up"
        return {
            "top and bottom": Detail(
                (*mitred, *cord_work(piece)),
                "back edge to the wall, good face out",
                scribe_mm=(ends, back),
            ),
            "back": Detail(
                screws,
                "good face to the inside; screwed to the wall first",
                follows="top and bottom",
            ),
            "front": Detail(both, "good face out", follows="top and bottom"),
            "end cap": Detail(wall="good face out", late=between),
        }

    def front(self, piece: BoxShelf) -> list[Shape]:
        """Return the front, its mitres, the screws behind it."""
        left = piece.left_mm
        right = piece.left_mm + piece.length_mm
        low = piece.top_mm - piece.height_mm
        screws = strips.screws_front(piece, tuple(low + up for up in _rows_mm(piece)))
        inner = block(
            "door",
            left + piece.skin_mm,
            low + piece.skin_mm,
            right - piece.skin_mm,
            piece.top_mm - piece.skin_mm,
        )
        return [block("board", left, low, right, piece.top_mm), inner, *screws]

    def side(self, piece: BoxShelf, support: Support) -> list[Shape]:
        """Four skins around nothing."""
        t, d, top, low = piece.skin_mm, piece.depth_mm, piece.top_mm, piece.top_mm - piece.height_mm
        return [
            block("face", t, low + t, d - t, top - t),
            block("board", 0.0, top - t, d, top),
            block("board", 0.0, low, d, low + t),
            block("board", 0.0, low + t, t, top - t),
            block("board", d - t, low + t, d, top - t),
        ]

    def cures(self, piece: BoxShelf, units: Units) -> Iterator[tuple[str, Message, BoxShelf]]:
        """Yield screws near the bottom; screws further up; a taller box of thicker boards."""
        if not piece.low_screws:
            yield "low", Message("Screws near its bottom too"), replace(piece, low_screws=True)
        if piece.screw_down_mm > piece.skin_mm + 13:
            up = piece.skin_mm + 13
            yield (
                "higher",
                Message("Screws {d} below the top", {"d": Quantity(up, "length")}),
                replace(piece, screw_down_mm=up),
            )
        yield from super().cures(piece, units)

    def takes(self, piece: BoxShelf, field: str, size: float) -> bool:
        """Whether it stays above the floor."""
        return field != "height_mm" or piece.top_mm >= size

    def hanging(self, piece: BoxShelf, wall: Wall, policy: Policy) -> Hanging:
        """Return its hanging: the open box is screwed through its back, then closed."""
        opened = do(
            "open", "Leave the box open", "Its top is left off, so that the driver gets in."
        )
        closed = do(
            "close-box",
            "Close the box",
            "Top on, then the mitred front or the end caps. Wipe the glue off at once.",
            acts=(Act("put_on", "top"),),
        )
        line = ("Underside of the box", piece.top_mm - piece.height_mm)
        return Hanging("box", line, before=(opened,), after=(closed,), lifts=True)

    def cautions(self, piece: BoxShelf, wall: Wall) -> list[Message]:
        """Return what people get wrong with boxes."""
        return [
            Message(
                "Leave the top off until the screws are in, or bore holes for the driver; mitres "
                "and end caps last."
            )
        ]


KIND = _BoxShelf()


def _rows_mm(piece: BoxShelf) -> tuple[float, ...]:
    """Its screws above its lower edge."""
    top = piece.height_mm - piece.screw_down_mm
    low = piece.skin_mm + _LOW_MM
    return (top, low) if piece.low_screws and top - low > _LOW_MM else (top,)


def _own_n(piece: BoxShelf) -> float:
    """Weight of the four skins and two ends."""
    t, d, h, length = piece.skin_mm, piece.depth_mm, piece.height_mm, piece.length_mm
    area = 2 * (d + h - 2 * t) * length + 2 * (d - 2 * t) * (h - 2 * t)
    return area * t / 1e9 * data.boards()[piece.board].density_kg_m3 * G_N_PER_KG


def _torsion_nmm(piece: BoxShelf) -> float:
    """Return what the closed box may be twisted with for ten years.

    2 A t τ, A inside the middle of its skins.
    """
    t = piece.skin_mm
    return (
        2
        * (piece.depth_mm - t)
        * (piece.height_mm - t)
        * t
        * data.boards()[piece.board].shearing_mpa(1.0)
    )


def _top_sag(piece: BoxShelf, unknown: tuple[str, ...]) -> Check:
    """Check the sag of the top skin from back to front, without the grain's help.

    A strip as wide as what stands on it evenly.
    """
    row, span = data.boards()[piece.board], piece.depth_mm - 2 * piece.skin_mm
    loads, _ = contents_of(piece)
    even = sum(load.total_n for load in loads if load.end_mm > load.start_mm)
    single = max((load.total_n for load in loads if load.end_mm <= load.start_mm), default=0.0)
    sums = Calculation()
    sums.given("Q", even, "force", "even load, all along it")
    sums.given("L", piece.length_mm, "length", "length of the shelf")
    sums.then("q", "Q / L", "line", "of each strip of it")
    sums.given("l", span, "length", "from back to front")
    sums.given("P", single, "force", "heaviest single thing")
    sums.given("k_b", data.house("spread_spans"), "ratio", "spans over which that spreads")
    sums.then("b", "min(k_b l, L)", "length", "so wide")
    sums.given("E", row.e_mpa, "stress", compose("stiffness of {row}", row=row.name))
    sums.given("t", piece.skin_mm, "fine", "thickness of the skin")
    sums.given("k_def", row.k_def, "ratio", "its creep")
    sums.then(
        "w",
        "(5 q l³ / 384 + P l³ / 48 b) 12 (1 + k_def) / E t³",
        "fine",
        "sag of a strip, over the years",
    )
    strength.write_sag_limit(sums)
    return make(
        "box.top",
        part="board",
        case="loaded, years",
        unknown=unknown,
        demand=sums.quantity("w"),
        capacity=sums.quantity("w_max"),
        template="Over the years its top sags {demand} between back and front; the limit for "
        "{span} is {capacity}.",
        parts={"span": Quantity(span, "length")},
        equations=sums.equations,
    )


def _lower_edge(piece: BoxShelf) -> Check:
    """Advice: the screws should be high above the edge that the box turns about."""
    sums = Calculation()
    sums.given("d", piece.depth_mm, "length", "depth of the box")
    sums.then("y_min", "d / 3", "length", "least")
    sums.given("h", piece.height_mm, "length", "height of the box")
    sums.given("s", piece.screw_down_mm, "length", "screws below its top")
    sums.then("y", "h − s", "length", "screws above its lower edge")
    return make(
        "box.lever",
        part="board",
        case="any",
        demand=sums.quantity("y_min"),
        capacity=sums.quantity("y"),
        equations=sums.equations,
        template="Its screws are {capacity} above the edge that it turns about; a third of its "
        "depth, {demand}, is the least.",
    )
