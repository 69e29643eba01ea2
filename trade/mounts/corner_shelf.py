"""A corner shelf on ledgers on two walls, its front slanting from one to the other."""

from collections.abc import Iterator
from math import atan2, cos, degrees, hypot, pi, radians, sin
from typing import Any, ClassVar, NamedTuple

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, Message, make
from trade.fixings import fastening
from trade.fixings.support import Support
from trade.language import compose
from trade.load.demand import Demand
from trade.load.line import contents_of, unweighed
from trade.load.push import push_of
from trade.load.shelf import board_n
from trade.measure import Units
from trade.mounts import ledgers, side_ledgers, strength, strips
from trade.mounts.base import (
    SHELF,
    Ask,
    Extra,
    Mount,
    Part,
    Role,
    Shape,
    Solid,
    block,
    board_front,
    board_side,
    cord_work,
    cut,
)
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.work import Detail, Mitre, Rounded, Slant, Work, scribe
from trade.plan.flatness import Side
from trade.plan.model import CornerShelf, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing

NOUN = "support"

_OTHER_SCREW = data.house("other_screw_share")
_OTHER_PLACES = 2  # along the other wall
_STEPS = 12  # a round front is drawn in so many
_STEP_RAD = pi / 2 / _STEPS
_SQUARE_DEG = 0.05  # nobody measures a corner nearer than that


class _Shares(NamedTuple):
    """What part of a load each of three places takes.

    This wall's outer screw, the other wall's, the corner.
    """

    here: float
    there: float
    corner: float


class _Angle(NamedTuple):
    """The triangle of a corner shelf.

    Its two legs along the walls, mm, and the angle between them as it was measured.
    """

    here_mm: float
    there_mm: float
    degrees: float

    @classmethod
    def of(cls, piece: CornerShelf, wall: Wall) -> "_Angle":
        """As measured; square where nobody measured."""
        angle = next(
            (corner.angle_deg for corner in wall.flatness.corners if corner.side == piece.corner),
            90.0,
        )
        return cls(piece.length_mm, piece.depth_mm, angle)

    @property
    def reach_mm(self) -> tuple[float, float]:
        """Where the other leg ends: along this wall from the corner (less than nought.

        Beyond it), and out from it.
        """
        return self.there_mm * cos(radians(self.degrees)), self.there_mm * sin(
            radians(self.degrees)
        )

    @property
    def blank_mm(self) -> tuple[float, float]:
        """The smallest board that it is sawn from, along this wall and out from it."""
        along, out = self.reach_mm
        return max(self.here_mm, along) - min(along, 0.0), out

    @property
    def front_mm(self) -> float:
        """Length of the slanting front, by the law of cosines."""
        along, out = self.reach_mm
        return hypot(self.here_mm - along, out)

    @property
    def front_deg(self) -> float:
        """Angle between the front and the edge along this wall."""
        along, out = self.reach_mm
        return degrees(atan2(out, self.here_mm - along))

    @property
    def outer_deg(self) -> tuple[float, float]:
        """How far off square each ledger's outer end is sawn to stay under the front.

        This wall's, the other's.
        """
        return 90 - self.front_deg, self.front_deg + self.degrees - 90

    def behind_mm(self, thick_mm: float) -> float:
        """How much of the other leg is behind the first ledger."""
        return thick_mm / sin(radians(self.degrees))

    def edge(self) -> tuple[Work, ...]:
        """Return the edge along the other wall, where the corner is not square."""
        off, out = self.degrees - 90, self.reach_mm[1]
        if abs(off) < _SQUARE_DEG:
            return ()
        return (
            Mitre(
                "its edge along the other wall",
                abs(off),
                out,
                "at the corner" if off > 0 else "at its far end",
            ),
        )

    def inner(self, thick_mm: float) -> tuple[Work, ...]:
        """Return the end of a ledger that goes into the corner, or against the first ledger."""
        off = self.degrees - 90
        if abs(off) < _SQUARE_DEG:
            return ()
        return (
            Mitre(
                "its end in the corner",
                abs(off),
                thick_mm,
                "at its back face" if off > 0 else "at its front face",
            ),
        )


def _outer_end(off_deg: float, thick_mm: float) -> Mitre:
    shorter = "at its front face" if off_deg >= 0 else "at its back face"
    return Mitre("its outer end", abs(off_deg), thick_mm, shorter)


class _CornerShelf(Mount[CornerShelf]):
    kind = "corner_shelf"
    name = "Corner shelf on two walls"
    piece_noun = "corner shelf"
    support_noun = NOUN
    make = CornerShelf
    doubts = ("other_sure",)
    woods = (("board", ("thickness_mm",)), ("ledger", ("ledger_mm",)))
    asks = (
        *SHELF,
        Ask("corner", "In which corner", "choice", data.corners),
        Ask("front", "Its front", "choice", data.fronts),
        Ask("ledger", "Ledgers of", "choice", data.woods),
        Ask("ledger_mm", "Ledgers thick", "length"),
        Ask("ledger_high_mm", "Ledgers high", "length"),
        Ask(
            "other_mm",
            "Furthest screw in the other wall",
            "length",
            help="From the corner; keep it two thirds of the way out.",
        ),
        Ask("other_sure", "That screw is known to sit in a stud", "flag"),
        Ask(
            "side_anchor",
            "Where there is no stud in the other wall, held by",
            "choice",
            data.anchors,
            none="the same as on this wall",
        ),
    )
    fresh: ClassVar[dict[str, Any]] = {
        "board": "plywood",
        "thickness_mm": 18.0,
        "length_mm": 500.0,
        "depth_mm": 500.0,
        "other_mm": 400.0,
    }

    def sized(self, fields: dict[str, Any], wall: Wall, x_mm: float) -> dict[str, Any]:
        """In the nearer corner, as deep as it is long."""
        return fields | {
            "corner": "left" if x_mm < wall.width_mm / 2 else "right",
            "depth_mm": fields["length_mm"],
            "other_mm": fields["length_mm"] * _OTHER_SCREW,
        }

    def checks(self, piece: CornerShelf, wall: Wall) -> list[Check]:
        """Every check of the triangle, the ledgers' screws and the slanting front."""
        loads = unweighed(piece)
        if not piece.supports_mm:
            return [_nothing(loads)]
        outer, supports = outer_mm(piece), self.supports(piece, wall)
        load, push = _on_three(piece), push_of(piece).n
        years, minutes = data.house("duration_years"), data.house("duration_minutes")
        far = piece.shape.far
        worst = shares(outer, piece.other_mm, piece.length_mm * far, piece.depth_mm * far)
        end = shares(outer, piece.other_mm, piece.length_mm, 0.0)
        here = (load.here, load.here + push * max(worst.here, end.here))
        there = (
            load.there,
            load.there
            + push * max(worst.there, shares(outer, piece.other_mm, 0.0, piece.depth_mm).there),
        )
        half = piece.ledger_mm / 2
        last = max(range(len(supports)), key=lambda i: _from_corner(piece, piece.supports_mm[i]))
        cases = (
            Demand("loaded, for years", years, here[0], here[0] * half),
            Demand("loaded, and pushed on its front", minutes, here[1], here[1] * half),
        )
        corner = (
            max(load.corner, 0.0) / 2
        )  # each wall's inner screw takes half of what rests in the corner, and of a push there
        rest = (
            Demand("loaded, for years", years, corner, corner * half),
            Demand(
                "loaded, and pushed in its corner",
                minutes,
                corner + push / 2,
                (corner + push / 2) * half,
            ),
        )
        demands: dict[int, tuple[Demand, ...]] = {
            support.index: cases if i == last else rest for i, support in enumerate(supports)
        }
        found = fastening.checks(supports, demands, backing(wall).unknown, loads)
        return [
            *found,
            _place(piece, wall),
            *([_inner(piece)] if len(piece.supports_mm) < 2 else []),
            _triangle(piece, outer, loads),
            *_round_corner(piece, wall, there, rest, supports[last], loads),
            _front(piece, outer, loads),
        ]

    def supports(self, piece: CornerShelf, wall: Wall) -> list[Support]:
        """Return the screws of this wall's ledger."""
        high = piece.ledger_high_mm
        foot = piece.top_mm - piece.thickness_mm - high
        return strips.on_studs(piece, wall, NOUN, piece.ledger, piece.ledger_mm, high, foot)

    def beside(self, piece: CornerShelf, wall: Wall) -> dict[Side, list[Support]]:
        """Return the screws of the other wall's ledger."""
        ledger = _other_ledger(piece, wall)
        return {} if ledger is None else {ledger.side: ledger.supports}

    def parts(self, piece: CornerShelf, wall: Wall) -> list[Part]:
        """Return the board, sawn to its corner and off aslant, and both ledgers."""
        t, high, corner = piece.ledger_mm, piece.ledger_high_mm, _Angle.of(piece, wall)
        return [
            cut(
                "board", piece.board, 1, corner.blank_mm[0], corner.blank_mm[1], piece.thickness_mm
            ),
            cut("ledger, this wall", piece.ledger, 1, piece.length_mm, high, t),
            cut(
                "ledger, other wall", piece.ledger, 1, piece.depth_mm - corner.behind_mm(t), high, t
            ),
        ]

    def extras(self, piece: CornerShelf, wall: Wall) -> list[Extra]:
        """Return the other ledger's screws.

        Its furthest and one near the corner, as many one above the other as here.
        """
        if self.beside(piece, wall):
            return []
        return [
            Extra("Into the other wall", _OTHER_PLACES * len(strips.rows(piece.ledger_high_mm)))
        ]

    def details(self, piece: CornerShelf, wall: Wall, units: Units) -> dict[str, Detail]:
        """Return the corner, the slanting front; the ledgers' outer ends mitred to stay under it.

        The second cut to the first.
        """
        t, high, corner = piece.ledger_mm, piece.ledger_high_mm, _Angle.of(piece, wall)
        usual = scribe(piece, wall, ends=False)[1]
        foot = piece.top_mm - piece.thickness_mm - high
        shaped: Work = Slant(corner.front_mm, corner.front_deg)
        outer: list[tuple[Work, ...]] = [(_outer_end(off, t),) for off in corner.outer_deg]
        if piece.front == "round":
            shaped, outer = Rounded(piece.length_mm, piece.depth_mm), [(), ()]
        along, across = outer
        inner = corner.inner(t)
        screws = strips.screwed(self.supports(piece, wall), piece.left_mm, foot, units)
        return {
            "board": Detail(
                (*corner.edge(), shaped, *cord_work(piece)),
                "both edges of its corner to the walls, good face up",
                scribe_mm=(usual, usual),
            ),
            "ledger, this wall": Detail(
                (*along, *inner, *screws), "under the board, along this wall"
            ),
            "ledger, other wall": Detail(
                (*across, *inner),
                "butted against the first",
                late="from the first ledger's face to its end",
            ),
        }

    def front(self, piece: CornerShelf) -> list[Shape]:
        """Return the board, the ledger under it, the other ledger's end."""
        under = piece.top_mm - piece.thickness_mm
        left = piece.left_mm
        right = piece.left_mm + piece.length_mm
        low, t = under - piece.ledger_high_mm, piece.ledger_mm
        end = (left, left + t) if piece.corner == "left" else (right - t, right)
        screws = strips.screws_front(
            piece, tuple(low + up for up in strips.rows(piece.ledger_high_mm))
        )
        return [
            block("wood", left, low, right, under),
            block("wood", end[0], low, end[1], under),
            *screws,
            board_front(piece),
        ]

    def solids(self, piece: CornerShelf, wall: Wall) -> list[Solid]:
        """Return the three-cornered board, and the ledger under it along each wall."""
        under, t = piece.top_mm - piece.thickness_mm, piece.ledger_mm
        low, angle = under - piece.ledger_high_mm, _Angle.of(piece, wall)
        along, out = angle.reach_mm
        share = t / piece.depth_mm
        # as if its corner were the left one: along this wall, out from it
        tip, end = (piece.length_mm, 0.0), (along, out)
        inner = ((0.0, 0.0), (t, 0.0), (along + t, out * (1 - share)), (along, out))
        edge = tuple(
            (
                tip[0] * cos(n * _STEP_RAD) + along * sin(n * _STEP_RAD),
                out * sin(n * _STEP_RAD),
            )
            for n in range(1, _STEPS if piece.front == "round" else 0)
        )
        shapes: tuple[tuple[Role, tuple[tuple[float, float], ...], float, float], ...] = (
            ("wood", ((0.0, 0.0), tip, (piece.length_mm * (1 - share), t), (0.0, t)), low, under),
            ("wood", inner, low, under),
            ("board", ((0.0, 0.0), tip, *edge, end), under, piece.top_mm),
        )
        left, right = piece.left_mm, piece.left_mm + piece.length_mm
        turned = piece.corner == "right"
        return [
            Solid(
                role,
                tuple((right - x if turned else left + x, y) for x, y in outline),
                bottom,
                top,
            )
            for role, outline, bottom, top in shapes
        ]

    def side(self, piece: CornerShelf, support: Support) -> list[Shape]:
        """Return the board on its ledger."""
        under = piece.top_mm - piece.thickness_mm
        return [
            board_side(piece),
            block("wood", 0.0, under - piece.ledger_high_mm, piece.ledger_mm, under),
        ]

    def landed(self, piece: CornerShelf, wall: Wall) -> CornerShelf:
        """Into its corner."""
        left = 0.0 if piece.corner == "left" else max(wall.width_mm - piece.length_mm, 0.0)
        if abs(left - piece.left_mm) < 0.05:
            return piece
        moved = tuple(
            x
            for x in (
                piece.supports_mm[i] + piece.left_mm - left for i in range(len(piece.supports_mm))
            )
            if 0 <= x <= piece.length_mm
        )
        studs = tuple(
            s.centre_mm - left
            for s in wall.uprights
            if 20 <= s.centre_mm - left <= piece.length_mm - 20
        )
        return replace(piece, left_mm=left, supports_mm=studs or moved or (piece.length_mm / 2,))

    def cures(self, piece: CornerShelf, units: Units) -> Iterator[tuple[str, Message, CornerShelf]]:
        """Yield the other wall's screw further out; other ledgers."""
        far = piece.depth_mm * 0.85
        if far > piece.other_mm:
            label = Message(
                "The other wall's furthest screw {x} from the corner",
                {"x": Quantity(far, "length")},
            )
            yield "other", label, replace(piece, other_mm=far)
        yield from side_ledgers.other_anchors(piece)
        yield from super().cures(piece, units)

    def hanging(self, piece: CornerShelf, wall: Wall, policy: Policy) -> Hanging:
        """Return a ledger on each wall of the corner, the second level from the first.

        The board on both.
        """
        known = self.beside(piece, wall).get(piece.corner)
        other = do(
            "other-wall",
            "The ledger on the other wall",
            "Carry the line round the corner with the level.",
            *(() if known else ("Find the stud there first: it is another wall.",)),
            *ledgers.anchored(known or self.supports(piece, wall)),
            beside=piece.corner if known else None,
        )
        board = do(
            "board",
            "Lay the board into the corner",
            "Scribe it until it lies on both ledgers all along.",
            lifts=True,
            acts=(Act("put_on", "board"),),
        )
        fasten = do(
            "fasten",
            "Screw the board down",
            "Into both ledgers, so that nobody tips it up by its front.",
        )
        line = ("Top of the ledgers", piece.top_mm - piece.thickness_mm)
        return Hanging("ledger", line, after=(other, board, fasten))

    def cautions(self, piece: CornerShelf, wall: Wall) -> list[Message]:
        """Return what people get wrong with corners."""
        return [
            Message(
                "Corners are not square: take the angle off with a bevel or cardboard before "
                "cutting the board."
            )
        ]


KIND = _CornerShelf()


def _from_corner(piece: CornerShelf, x: float) -> float:
    return x if piece.corner == "left" else piece.length_mm - x


def outer_mm(piece: CornerShelf) -> float:
    """From the corner to this wall's furthest screw."""
    return max(max(_from_corner(piece, x) for x in piece.supports_mm), 1e-3)


def shares(here_mm: float, there_mm: float, x_mm: float, y_mm: float) -> _Shares:
    """Return a load at x along this wall and y along the other, on three places.

    At the corner, `here_mm` and `there_mm` out.
    """
    return _Shares(x_mm / here_mm, y_mm / there_mm, 1 - x_mm / here_mm - y_mm / there_mm)


def _on_three(piece: CornerShelf) -> _Shares:
    """All that lasts, N, on the three places; what would lighten a place is left out of it."""
    outer, use = outer_mm(piece), data.uses()[piece.use].factor
    found = [0.0, 0.0, 0.0]
    loads, outs = contents_of(piece)
    middle = piece.shape.middle
    centre = shares(outer, piece.other_mm, piece.length_mm * middle, piece.depth_mm * middle)
    weights = [(board_n(piece) * piece.shape.area, centre)]
    for load, out in zip(loads, outs, strict=True):
        if load.end_mm > load.start_mm:
            weights.append((load.total_n * use, centre))
        else:
            weights.append(
                (
                    load.total_n * use,
                    shares(outer, piece.other_mm, _from_corner(piece, load.start_mm), out),
                )
            )
    for weight, share in weights:
        for n, part in enumerate(share):
            found[n] += weight * max(part, 0.0)
    return _Shares(*found)


def _nothing(unknown: tuple[str, ...]) -> Check:
    return make(
        "support.count",
        part="shelf",
        case="any",
        unknown=unknown,
        demand=Quantity(1, "count"),
        capacity=Quantity(0.5, "count"),
        template="Nothing holds it on this wall: put at least {demand} screw there.",
    )


def _inner(piece: CornerShelf) -> Check:
    """Check that a second screw, in the corner, keeps a ledger from turning."""
    return make(
        "corner.inner",
        part="ledger",
        case="any",
        unknown=(
            compose(
                "whether there is a stud in the corner behind “{piece}”: its ledger needs a "
                "second screw there.",
                piece=piece.name,
            ),
        ),
        demand=Quantity(1, "count"),
        capacity=Quantity(1, "count"),
        template="One screw alone lets the ledger turn; a second one belongs in the corner.",
    )


def _place(piece: CornerShelf, wall: Wall) -> Check:
    gap = (
        piece.left_mm if piece.corner == "left" else wall.width_mm - piece.left_mm - piece.length_mm
    )
    return make(
        "corner.place",
        part="board",
        case="any",
        demand=Quantity(max(gap, 0.0) + 1e-6, "length"),
        capacity=Quantity(5.0, "length"),
        template="It stands in the corner."
        if gap <= 5.0
        else "It hangs {demand} away from its corner.",
    )


def _triangle(piece: CornerShelf, outer: float, unknown: tuple[str, ...]) -> Check:
    sums = Calculation()
    sums.given("a", outer, "length", "this wall's furthest screw from the corner")
    sums.given("b", piece.other_mm, "length", "the other wall's")
    sums.given("l", piece.length_mm, "length", "its leg along this wall")
    sums.given("d", piece.depth_mm, "length", "and along the other")
    sums.given("m", piece.shape.middle, "ratio", "its middle, of each leg")
    share = sums.then("s", "m l / a + m d / b", "ratio", "that middle in the triangle")
    return make(
        "corner.triangle",
        part="board",
        case="loaded evenly",
        unknown=unknown,
        demand=sums.quantity("s"),
        capacity=Quantity(1.0, "ratio"),
        template="Its middle lies inside the triangle of its outer screws; {least} of the way out "
        "is the least for them."
        if share <= 1
        else "Its middle lies outside the triangle of its outer screws; {least} of the way out is "
        "the least for them.",
        parts={"least": Quantity(2 * piece.shape.middle, "percent")},
        equations=sums.equations,
    )


def _other_ledger(piece: CornerShelf, wall: Wall) -> side_ledgers.SideLedger | None:
    """Return the ledger on the other wall, with a screw near the corner; None if unknown."""
    neighbour = side_ledgers.beside_known(wall, piece.corner, piece.other_mm)
    if neighbour is None:
        return None
    near = piece.ledger_mm + data.house("side_screw_end_mm")
    apart = data.house("side_screws_apart_mm")
    inner = next(
        (
            x
            for x in side_ledgers.studs_mm(piece, piece.corner, neighbour)
            if x <= piece.other_mm - apart
        ),
        near,
    )
    places = (inner, piece.other_mm) if inner <= piece.other_mm - apart else (piece.other_mm,)
    noun = compose("other ledger")
    first = len(piece.supports_mm)
    return side_ledgers.on_wall(piece, piece.corner, neighbour, places, noun, first)


def _round_corner(
    piece: CornerShelf,
    wall: Wall,
    there: tuple[float, float],
    rest: tuple[Demand, ...],
    like: Support,
    loads: tuple[str, ...],
) -> list[Check]:
    """Check the other wall's screws: by what is known there, else as good as here."""
    ledger = _other_ledger(piece, wall)
    if ledger is None:
        return [_other(piece, there, like, wall, loads)]
    known, half, outer = ledger.neighbour.wall, piece.ledger_mm / 2, ledger.supports[-1]
    years, minutes = data.house("duration_years"), data.house("duration_minutes")
    sure = replace(piece, other_sure=True)
    found = [_other(sure, there, outer, known, loads)] if outer.holds else []
    demands = dict.fromkeys((each.index for each in ledger.supports[:-1]), rest)
    demands[outer.index] = (
        Demand("loaded, for years", years, there[0], there[0] * half),
        Demand("loaded, and pushed on its front", minutes, there[1], there[1] * half),
    )
    counted = [each for each in ledger.supports if each.holds or each is outer]
    return [*found, *fastening.checks(counted, demands, backing(known).unknown, loads)]


def _other(
    piece: CornerShelf,
    there: tuple[float, float],
    like: Support,
    wall: Wall,
    loads: tuple[str, ...],
) -> Check:
    """Return the other wall's outer screws, as good as this wall's.

    If they are known to sit in a stud.
    """
    years, minutes = strips.durations(like)
    (force, duration, case) = max(
        (
            (there[0], years, "loaded, for years"),
            (there[1], minutes, "loaded, and pushed on its front"),
        ),
        key=lambda f: f[0] / f[1],
    )
    sums = Calculation()
    sums.given("V", force, "force", compose("its share of three places, {case}", case=case))
    sums.given("Z", strips.shear_n(like), "force", "shear of one screw as on this wall")
    sums.given("n", len(like.heights_mm), "count", "screws, as many as here")
    sums.given("C_D", duration, "ratio", "load duration, in wood")
    sums.then("Z'", "n Z C_D", "force", "they can carry")
    ask = (
        ()
        if piece.other_sure
        else ("whether the other wall's outer screw sits in a stud: find it there.",)
    )
    return make(
        "corner.other",
        part="other ledger",
        case=case,
        unknown=(*ask, *backing(wall).unknown, *loads),
        demand=sums.quantity("V", "pull"),
        capacity=sums.quantity("Z'", "pull"),
        template="The other wall's outer screws carry {demand}; held as here they can carry "
        "{capacity}.",
        equations=sums.equations,
    )


def _front(piece: CornerShelf, outer: float, unknown: tuple[str, ...]) -> Check:
    """Check the free front as a beam with its strip, a third of the way in.

    From wall to wall; a round one from screw to screw: what stands out beyond them bends it less.
    """
    row, straight = data.boards()[piece.board], piece.front == "slant"
    loads, _ = contents_of(piece)
    here, there = (piece.length_mm, piece.depth_mm) if straight else (outer, piece.other_mm)
    words = ("its leg along this wall", "and along the other")
    if not straight:
        words = ("this wall's furthest screw from the corner", "the other wall's")
    sums = Calculation()
    sums.given("a", here, "length", words[0])
    sums.given("b", there, "length", words[1])
    sums.then("l", "√(a² + b²)", "length", "between them")
    sums.given("Q", sum(load.total_n for load in loads), "force", "what lies on it")
    sums.given("f", data.uses()[piece.use].factor, "ratio", "use factor on that")
    sums.given("G", board_n(piece) * piece.shape.area, "force", "its own weight")
    sums.then("w", "(f Q + G) / 2", "force", "half of all, along the front")
    sums.given("F", push_of(piece).n, "force", "push in the middle")
    sums.then("M", "w l / 8 + F l / 4", "moment", "bending")
    sums.then("h", "a b / 3 l", "length", "width that bends: a third of the way to the corner")
    sums.given("t", piece.thickness_mm, "fine", "thickness of the board")
    sums.then("S", "h t² / 6", "section", "section modulus")
    sums.then("σ", "M / S", "stress")
    strength.write_bending(sums, row, data.house("duration_minutes"))
    return make(
        "corner.front",
        part="board",
        case="loaded, and pushed on its front",
        unknown=unknown,
        demand=sums.quantity("σ"),
        capacity=sums.quantity("σ'"),
        template="Along its front the board uses {used} of the bending strength of {wood}.",
        parts={"wood": row.name},
        equations=sums.equations,
    )
