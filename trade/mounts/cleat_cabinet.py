"""A cabinet, box or mantel on a bevelled cleat."""

from collections.abc import Iterator
from math import inf, radians, tan
from typing import Any, ClassVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Assumption, Check, Message, Placeholders, make
from trade.fixings import fastening
from trade.fixings.support import Support
from trade.language import compose
from trade.load import sharing
from trade.load.demand import Demand
from trade.load.line import LineLoad, contents_of, unweighed
from trade.load.push import push_of
from trade.load.ways import BODY, Sharing
from trade.measure import G_N_PER_KG, Units
from trade.mounts import bevel, board, flush_cleat, insides, made, openings, own_half, strips
from trade.mounts.base import DEPTH, LENGTH, Ask, Extra, Making, Mount, Part, Shape, block, cut
from trade.mounts.bevel import Bevel
from trade.mounts.hanging import Act, Do, Hanging, do
from trade.mounts.own_half import INSET_MM, SPACER_MM, spacer_mm
from trade.mounts.work import Detail, Pair
from trade.plan.hardware import OwnCleat
from trade.plan.model import Cabinet, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing
from trade.workshop.panels import Panel

NOUN = "screw pair"
METAL_NOUN = "cleat"
_OF_WOOD = ("cleat_mm", "cleat_high_mm", "bevel_deg", "below_mm")  # not of metal
_TALLER_MM = (100.0, 200.0)
_LOWER_MM = (75.0, 150.0, 250.0)  # house rule: a spacer that reaches so far below


class _CleatCabinet(Mount[Cabinet]):
    kind = "cleat_cabinet"
    name = "Cabinet on a cleat"
    piece_noun = "cabinet"
    support_noun = NOUN
    carries = "in"
    every_stud = True
    covers = True
    make = Cabinet
    woods = (("cleat", ("cleat_mm",)), ("inner", ("inner_mm",)))
    asks = (
        LENGTH,
        Ask("height_mm", "Height", "length"),
        DEPTH,
        Ask(
            "body_kg",
            "Weighs empty",
            "weight",
            optional=True,
            help="Weigh it, doors and shelves included.",
        ),
        Ask("cleat", "Cleat of", "choice", data.woods, own="own"),
        Ask("cleat_mm", "Cleat thick", "length"),
        Ask("cleat_high_mm", "Cleat high", "length"),
        Ask("down_mm", "Cleat below the top", "length"),
        Ask("bevel_deg", "Bevel, degrees from level", "angle"),
        Ask("screws_each", "Screws at each place, 1 or 2", "count"),
        Ask(
            "back_mm",
            "Its back, or the rail behind it, thick",
            "length",
            help="What the screws of its own half pass. A thin back needs a rail behind it.",
        ),
        Ask(
            "below_mm",
            "Its spacer reaches below it",
            "length",
            help="A foot lower down the wall: 0 where it ends with the body.",
        ),
        Ask("locked", "Locked: a screw or block keeps it from lifting off", "flag"),
        *insides.ASKS,
        Ask("doors", "Doors on it", "count", help="Of a body that is made."),
        openings.CUT_OUT,
    )
    fresh: ClassVar[dict[str, Any]] = {
        "length_mm": 800.0,
        "depth_mm": 250.0,
        "height_mm": 600.0,
        "body_kg": None,
    }

    def noun_of(self, piece: Cabinet) -> str:
        """Return a pair of screws through a strip, or a cleat of metal."""
        return NOUN if piece.own is None else METAL_NOUN

    def sized(self, fields: dict[str, Any], wall: Wall, x_mm: float) -> dict[str, Any]:
        """Return a row of single plugs where the wall is masonry."""
        return fields | ({"screws_each": 1} if wall.build == "mass" else {})

    def follow(self, piece: Cabinet, question: str, policy: Policy) -> Cabinet:
        """Locked on its cleat, or held by friction alone."""
        return replace(piece, locked=policy.stays != "friction") if question == "stays" else piece

    def taller(self, piece: Cabinet) -> Iterator[tuple[Cabinet, float]]:
        """Bodies whose foot is further down the wall."""
        for more in _TALLER_MM:
            if piece.top_mm - piece.height_mm > more:
                high = piece.height_mm + more
                yield replace(piece, height_mm=high), high

    def checks(self, piece: Cabinet, wall: Wall) -> list[Check]:
        """Every check of the cleat, its seating and its screws."""
        loads = (*_unweighed_body(piece), *unweighed(piece))
        if len(piece.supports_mm) < 2:
            return [board.too_few_supports(piece, NOUN, loads)]
        return sharing.best(
            lambda so: self._shared(piece, wall, so), lambda so: self._load(piece, so), BODY
        )

    def _shared(self, piece: Cabinet, wall: Wall, so: Sharing) -> list[Check]:
        loads = (*_unweighed_body(piece), *unweighed(piece))
        load = self._load(piece, so)
        cleat = bevel_of(piece)
        pulled = _pulled(piece, load)
        found = fastening.checks(self.supports(piece, wall), pulled, backing(wall).unknown, loads)
        found += [*own_half.checks(piece, cleat, pulled, loads), _room(piece, wall)]
        found += [_lift(piece)] if made.empty_kg(piece) is not None else []
        found += insides.checks(piece)
        if piece.own is not None:
            return [*found, *flush_cleat.checks(piece, piece.own, pulled, loads)]
        found += bevel.checks(cleat, pulled, loads)
        lines, outs = contents_of(piece)
        things = [
            (line.total_n * load.use.factor, out) for line, out in zip(lines, outs, strict=True)
        ]
        judge = bevel.lock if piece.locked else bevel.seating
        found.append(
            judge(
                cleat,
                (load.own_n, piece.depth_mm / 2),
                (load.push_n, piece.depth_mm),
                things,
                loads,
            )
        )
        return found

    def _load(self, piece: Cabinet, so: Sharing) -> LineLoad:
        own_n = (made.empty_kg(piece) or 0.0) * G_N_PER_KG
        return LineLoad(
            piece, own_n, piece.depth_mm / 2, sharing=so, torsion_nmm=inf
        )  # a closed body is taken not to twist

    def body_kg(self, piece: Cabinet) -> float | None:
        """Return what it weighs empty, by its boards where it is made."""
        return made.empty_kg(piece)

    def panels(self, piece: Cabinet) -> tuple[Panel, ...]:
        """Return the boards of a body that is made."""
        return made.panels(piece)

    def measured(self, piece: Cabinet, board: str, called_mm: float, found_mm: float) -> Cabinet:
        """Return it with the measured thickness in every part of that wood, its back too."""
        other = super().measured(piece, board, called_mm, found_mm)
        return made.measured(other, board, called_mm, found_mm)

    def making(self, piece: Cabinet) -> Making:
        """Return the work of putting its body together."""
        return made.making(piece)

    def assumes(self, piece: Cabinet) -> tuple[Assumption, ...]:
        """Return the assumption that its corners hold, where no sum judges them."""
        return made.assumed(piece)

    def supports(self, piece: Cabinet, wall: Wall) -> list[Support]:
        """Return the wall's half of the cleat at each stud: two screws, one above the other."""
        if piece.own is not None:
            return flush_cleat.on_studs(piece, piece.own, wall, METAL_NOUN)
        high = piece.cleat_high_mm
        heights = bevel.screw_heights_mm(high, piece.screws_each)
        foot = piece.top_mm - piece.down_mm - high
        return strips.on_studs(piece, wall, NOUN, piece.cleat, piece.cleat_mm, high, foot, heights)

    def carried(self, piece: Cabinet, wall: Wall) -> list[tuple[float, float, float]]:
        """Return a side, a bottom and the door or back: what a body is put together from."""
        return [
            (piece.height_mm, piece.depth_mm, piece.inner_mm),
            (piece.length_mm, piece.depth_mm, piece.inner_mm),
            (piece.height_mm, piece.length_mm, piece.under_heads_mm),
        ]

    def parts(self, piece: Cabinet, wall: Wall) -> list[Part]:
        """Both halves of the cleat, off one strip, and the spacer; the body is its own."""
        rings = openings.rings(self.box(piece), wall) if piece.cut_out else []
        if piece.own is not None:
            return [
                Part("flush cleat", piece.own.name, len(piece.supports_mm), own=True),
                Part("bumper", "stick-on bumper", 2),
                *insides.parts(piece),
                *rings,
            ]
        long = piece.length_mm - 2 * INSET_MM
        return [
            cut("half of the cleat", piece.cleat, 2, long, piece.cleat_high_mm, piece.cleat_mm),
            cut("spacer", piece.cleat, 1, long, spacer_mm(piece), piece.cleat_mm),
            *insides.parts(piece),
            *rings,
        ]

    def extras(self, piece: Cabinet, wall: Wall) -> list[Extra]:
        """Return the screws of its own half."""
        if len(piece.supports_mm) < 2:
            return []
        own = own_half.screws(piece, _pulled(piece, self._load(piece, BODY)))
        return [
            Extra(
                "Through its back into its own half"
                if piece.own is None
                else "Through its own half into its back",
                own.each * len(piece.supports_mm),
                own_half.screw_of(piece),
                own.length_mm,
            )
        ]

    def details(self, piece: Cabinet, wall: Wall, units: Units) -> dict[str, Detail]:
        """Both halves of the cleat out of one strip; loose shelves and uprights inside."""
        if piece.own is not None:
            return insides.details(piece, units)
        left, foot = piece.left_mm + INSET_MM, piece.top_mm - piece.down_mm - piece.cleat_high_mm
        screws = strips.screwed(self.supports(piece, wall), left, foot, units, "the wall's half")
        pair = Pair(piece.bevel_deg, piece.cleat_high_mm, piece.cleat_mm)
        return {
            "half of the cleat": Detail(
                (pair, *screws), "the wall's half: bevel up, its higher face to the room", bare=True
            ),
            "spacer": Detail(
                wall="behind its back, down below it"
                if piece.below_mm
                else "at the foot of its back, as thick as the cleat",
                bare=True,
            ),
        } | insides.details(piece, units)

    def front(self, piece: Cabinet) -> list[Shape]:
        """Return the body with two doors; the cleat and the spacer behind it."""
        left = piece.left_mm
        right = piece.left_mm + piece.length_mm
        top = piece.top_mm
        bottom = piece.top_mm - piece.height_mm
        cleat_top, middle = top - piece.down_mm, (left + right) / 2
        body = [
            block("face", left, bottom, right, top),
            *(
                made.front(piece, bottom)
                or (
                    block("door", left + 18, bottom + 18, middle - 2, top - 18),
                    block("door", middle + 2, bottom + 18, right - 18, top - 18),
                )
            ),
        ]
        if piece.own is not None:
            return [*body, *flush_cleat.front(piece, piece.own, cleat_top)]
        low = cleat_top - piece.cleat_high_mm
        screws = strips.screws_front(
            piece,
            tuple(
                low + up for up in bevel.screw_heights_mm(piece.cleat_high_mm, piece.screws_each)
            ),
        )
        return [
            *body,
            block(
                "hidden",
                left + INSET_MM,
                cleat_top - piece.cleat_high_mm,
                right - INSET_MM,
                cleat_top,
            ),
            block(
                "hidden",
                left + INSET_MM,
                bottom,
                right - INSET_MM,
                bottom + spacer_mm(piece) - piece.below_mm,
            ),
            *(
                [block("wood", left + INSET_MM, bottom - piece.below_mm, right - INSET_MM, bottom)]
                if piece.below_mm
                else []
            ),
            *screws,
        ]

    def side(self, piece: Cabinet, support: Support) -> list[Shape]:
        """Return the body in front of the cleat's two halves and the spacer."""
        t, top, bottom = piece.off_mm, piece.top_mm, piece.top_mm - piece.height_mm
        body = block("face", t, bottom, t + piece.depth_mm, top)
        if piece.own is not None:
            bumper = block("wood", 0.0, bottom, t, bottom + SPACER_MM / 2)
            return [body, *flush_cleat.side(piece.own, top - piece.down_mm), bumper]
        return [
            body,
            *bevel_of(piece).shapes(top - piece.down_mm, top - 2),
            block(
                "wood", 0.0, bottom - piece.below_mm, t, bottom - piece.below_mm + spacer_mm(piece)
            ),
        ]

    def cures(self, piece: Cabinet, units: Units) -> Iterator[tuple[str, Message, Cabinet]]:
        """Yield a lock; single plugs; a steeper bevel; another cleat; a spacer further down.

        Its inside parted once more, or of thicker boards.
        """
        yield from openings.cure(piece)
        if not piece.locked:
            yield (
                "lock",
                Message("Lock it: a screw through its back into the cleat, or a block above"),
                replace(piece, locked=True),
            )
        if piece.screws_each == 2 and piece.anchor is not None and piece.own is None:
            yield (
                "single",
                Message("One at each place, so that they don't share a patch"),
                replace(piece, screws_each=1),
            )
        yield from super().cures(piece, units)
        yield from insides.cures(piece)

    def takes(self, piece: Cabinet, field: str, size: float) -> bool:
        """Whether the cleat and the spacer have room behind it, and below it above the floor."""
        if piece.own is not None and field in _OF_WOOD:
            return False
        if field == "cleat_high_mm":
            return size + piece.down_mm < piece.height_mm - SPACER_MM
        return field != "below_mm" or size < piece.top_mm - piece.height_mm

    def hanging(self, piece: Cabinet, wall: Wall, policy: Policy) -> Hanging:
        """Return its hanging: the wall's half goes up level.

        The piece gets its own half and its spacer, and is lifted on.
        """
        screws = sum(extra.many for extra in self.extras(piece, wall))
        sizes: Placeholders = {"n": Quantity(screws, "count")}
        own = do(
            "own-half",
            "Screw its own half and the spacer to the piece",
            *(
                [
                    Message(
                        "{n} screws through its back, or the rail behind it, spread along.", sizes
                    )
                ]
                if screws
                else []
            ),
            "The bevel points down and to the wall. The spacer at the bottom is as thick as the "
            "cleat.",
        )
        if piece.own is not None:
            return _hung_on_metal(piece, piece.own, sizes if screws else None)
        rise = Quantity(piece.cleat_mm * tan(radians(piece.bevel_deg)), "length")
        on = do(
            "lift-on",
            "Lift it on",
            Message(
                "Above it, {rise} must be free. Let it down slowly: hands away from the bevel.",
                {"rise": rise},
            ),
            "Push it down and look along the top: the bevels must have met from end to end.",
            lifts=True,
            acts=(Act("put_on", "cabinet"),),
        )
        lock = _locked("A screw through the cleats, or a block above")
        line = ("Top edge of the wall cleat", piece.top_mm - piece.down_mm)
        return Hanging(
            "wall cleat",
            line,
            before=(own,),
            after=(on, *((lock,) if piece.locked else ())),
        )

    def cautions(self, piece: Cabinet, wall: Wall) -> list[Message]:
        """Return what people get wrong with cleats; openings to saw in its back."""
        out = piece.off_mm + piece.under_heads_mm
        cut_out = openings.told(self.box(piece), wall, out) if piece.cut_out else []
        if piece.own is not None:
            return [
                Message(
                    "Bumpers at its foot as thick as the hooked cleats, {t}, or it leans.",
                    {"t": Quantity(piece.own.off_mm, "fine")},
                ),
                Message("The wall's halves on one line: on two, one of them carries all."),
                *cut_out,
            ]
        return [
            Message(
                "Spacer at the bottom as thick as the cleat, {t}, or it leans.",
                {"t": Quantity(piece.cleat_mm, "fine")},
            ),
            Message("Both halves from one strip, ripped at the same setting: then they fit."),
            *cut_out,
        ]


KIND = _CleatCabinet()


def _locked(how: str) -> Do:
    return do(
        "lock", "Lock it", compose("{how}: whoever lifts or pulls must not take it off.", how=how)
    )


def _hung_on_metal(piece: Cabinet, own: OwnCleat, screws: Placeholders | None) -> Hanging:
    """Return its hanging on flush cleats: halves on the wall, halves on its back, hooked."""
    halves = do(
        "own-half",
        "Screw its own halves and the bumpers to the piece",
        *([Message("{n} screws through them into its back.", screws)] if screws else []),
        "One opposite each on the wall, their lips down. Bumpers at its foot, as thick as the "
        "hooked cleats.",
    )
    on = do(
        "lift-on",
        "Lift it on",
        Message(
            "Flat to the wall, {hook} above its place; let it slide down until every lip has "
            "caught.",
            {"hook": Quantity(own.hook_mm, "length")},
        ),
        "Pull at its top corners: a half that has not caught comes out.",
        lifts=True,
        acts=(Act("put_on", "cabinet"),),
    )
    lock = _locked("A screw through its back into the wall's half, or a block above")
    line = ("Top edge of the wall's halves", piece.top_mm - piece.down_mm)
    after = (on, *((lock,) if piece.locked else ()))
    return Hanging("flush cleat", line, "apart", before=(halves,), after=after)


def _unweighed_body(piece: Cabinet) -> tuple[str, ...]:
    return (
        (compose("what “{piece}” weighs empty.", piece=piece.name),)
        if made.empty_kg(piece) is None
        else ()
    )


def _pulled(piece: Cabinet, load: LineLoad) -> dict[int, tuple[Demand, ...]]:
    """Load cases of either half of its cleat at each screw place."""
    cleat = bevel_of(piece)
    return {i: tuple(cleat.at_cleat(case) for case in cases) for i, cases in load.demands().items()}


def bevel_of(piece: Cabinet) -> Bevel:
    """Its cleat; the lips of a metal one have no slope."""
    degrees = piece.bevel_deg if piece.own is None else 0.0
    rise = piece.off_mm * tan(radians(degrees))
    below = piece.below_mm if piece.own is None else 0.0
    lever = piece.height_mm + below - piece.down_mm - rise / 2 - SPACER_MM / 2
    size = (piece.cleat, piece.off_mm, piece.half_mm, degrees)
    return Bevel(*size, lever, piece.length_mm, piece.supports_mm)


def _room(piece: Cabinet, wall: Wall) -> Check:
    sums = Calculation()
    if piece.own is None:
        sums.given("r", bevel_of(piece).rise_mm, "fine", "rise of the bevel")
    else:
        sums.given("r", piece.own.hook_mm, "fine", "height of the hook")
    sums.given("s", bevel.LIFT_MM, "fine", "room over it")
    sums.then("c_min", "r + s", "fine", "to be lifted over it")
    sums.given("c", wall.height_mm - piece.top_mm, "length", "above it")
    return make(
        "cleat.room",
        part="cleat",
        case="any",
        demand=sums.quantity("c_min"),
        capacity=sums.quantity("c"),
        equations=sums.equations,
        template="It needs {demand} above it to be lifted onto its cleat; there is {capacity}.",
    )


def _lift(piece: Cabinet) -> Check:
    """Lifted, empty, it comes off unless it is locked."""
    push, weight = push_of(piece).n, (made.empty_kg(piece) or 0.0) * G_N_PER_KG
    said = "Lifted with {demand}, empty, it comes off the cleat; it weighs {capacity}."
    return make(
        "cleat.lift",
        part="cleat",
        case="empty, and lifted",
        demand=Quantity(0.0 if piece.locked else push, "pull"),
        capacity=Quantity(weight, "pull"),
        template="It is locked: nobody lifts it off." if piece.locked else said,
    )
