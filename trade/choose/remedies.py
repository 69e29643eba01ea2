"""Single changes that may help a piece that is close or won't hold, the least trouble first.

Nothing is judged here.
"""

from collections.abc import Iterable, Iterator
from contextlib import suppress

from msgspec.structs import replace

from trade import data
from trade.calculation import Quantity
from trade.check import Check, Message
from trade.choose import moves, placement, policy_effects
from trade.choose.moves import Remedy
from trade.choose.request import BOARD_WIDTHS_MM, THIN_MM
from trade.cutting.sold import sold_mm
from trade.errors import PlanError
from trade.fixings import driving
from trade.fixings.anchor_capacity import anchor_of
from trade.language import numbered
from trade.mounts import mount_of
from trade.plan.model import AnyPiece, Plan
from trade.wall.scribing import fitted

_BOARD = (
    "board.",
    "sag.",
    "front.",
    "rail.",
    "cleat.bending",
    "panel.batten_bending",
    "box.top",
    "fit.items",
)
_SPLITS = ("strip.", "screw.edge")
_BY_THICKNESS = (*_BOARD, "rod.", "dowel.", "plate.", "shelf.", "pin.", "peg.", "strip.")
_BY_DEPTH = (
    "screw.",
    "anchor.",
    "lining.",
    "pin.",
    "rod.",
    "dowel.",
    "shelf.",
    "bracket.",
    "cleat.",
    "hole.",
    "box.",
)
_OF_ANOTHER = 4  # boards of other woods
_HARD = "hard"  # the use that people who sleep below ask for
_AS_LONG_MM = 3.0  # 63.5 and 60 mm are the same length, each as its screws are sold
_AS_THICK_MM = 0.2  # so are 4.8 and 5 mm one thickness
_EVENLY = (4, 5, 6, 8)  # so many supports where no stud says where
_APART_MM = data.house("evenly_apart_mm")
_THICKER_MM = (25.0, 32.0, 38.0, 45.0)


def remedies(piece: AnyPiece, plan: Plan, wrong: Iterable[Check]) -> Iterator[Remedy]:
    """Yield changes that bear on what is wrong and follow the job's policy.

    Args:
        piece: that is close or won't hold.
        plan: the wall, what else hangs there, the policy.
        wrong: the checks that are not as they should be.
    """
    for remedy in _all(piece, plan, tuple(wrong)):
        after = plan.with_wood(remedy.wood)
        if policy_effects.follows(remedy.piece, after) or not policy_effects.follows(piece, plan):
            yield remedy


def anew(code: str) -> bool:
    """Whether a change, or one of several together, makes the body anew or opens the wall.

    The most trouble, so it comes last.
    """
    return not {"taller", "blocking"}.isdisjoint(code.split("-"))


def asks_less(code: str) -> bool:
    """Whether a change, or one of several together, gives up some of what was wished."""
    return not {"lighten", "quieter", "otherwise"}.isdisjoint(code.split("-"))


def _all(piece: AnyPiece, plan: Plan, wrong: tuple[Check, ...]) -> Iterator[Remedy]:
    codes = tuple(check.code for check in wrong)
    elsewhere = [code for code in codes if not code.startswith(_BOARD)]
    yield from _fitting(piece, plan, wrong)
    if any(code.startswith("made.") for code in codes):
        yield from moves.around(piece, plan)
    if elsewhere:
        yield from _anchors(piece, plan)
    yield from (Remedy(*each) for each in mount_of(piece).cures(piece, plan.units))
    if elsewhere:
        yield from _screws(piece, plan, too_long=any(code.endswith(".far_side") for code in codes))
    if any(code.startswith(_SPLITS) for code in codes):
        yield from _thinner_screws(piece, plan)
    yield from moves.moved(piece, plan, wrong)
    yield from _more(piece, plan)
    mount = mount_of(piece)
    if mount.longer_ends:
        yield from moves.ends(piece, plan)
    if any(code.startswith(_BY_THICKNESS) for code in codes):
        yield from _boards(piece, plan)
    if any(code.startswith(_BY_DEPTH) for code in codes):
        yield from _narrower(piece, plan)
    for taller, high in mount.taller(piece):
        label = Message(
            "A body {h} high, its foot further down the wall", {"h": Quantity(high, "length")}
        )
        yield Remedy("taller", label, taller)
    if any(check.gradual for check in wrong):
        yield from _nearer(piece)
        yield from (
            Remedy("quieter", only_for(use), replace(piece, use=use)) for use in quieter_uses(piece)
        )


def _fitting(piece: AnyPiece, plan: Plan, wrong: tuple[Check, ...]) -> Iterator[Remedy]:
    """Yield changes for what doesn't fit, and onto studs."""
    codes = tuple(check.code for check in wrong)
    wall = plan.wall
    if "use.sleeping" in codes:
        label = Message("Judge it for {use}", {"use": data.uses()[_HARD].name})
        yield Remedy("harder", label, replace(piece, use=_HARD))
    if "corner.place" in codes:
        landed = mount_of(piece).landed(piece, wall)
        yield Remedy("corner", Message("Move it into its corner"), landed)
    yield from moves.to_studs(piece, plan, codes)
    if "across.off_board" in codes:
        yield from moves.onto_board(piece, plan)
    if any(code.startswith(("piece.", "hole.", "across.off_board")) for code in codes):
        yield from moves.clear(piece, plan)
        yield from moves.before_it(piece, plan)
    if "hang.apart" in codes:
        yield from moves.spread(piece)
    if "rod.hole" in codes:
        yield from _shorter_rods(piece)
        yield from _deeper(piece, plan)
    if "strip.edge" in codes:
        yield from moves.off_the_ends(piece, plan, wrong)
    if "fit.niche" in codes:
        with suppress(PlanError):
            cut = fitted(piece, wall)
            yield Remedy(
                "niche",
                Message("Cut it to the niche, {l}", {"l": Quantity(cut.length_mm, "length")}),
                cut,
            )


def quieter_uses(piece: AnyPiece) -> list[str]:
    """Return the uses that push it less and load it no more, the hardest first.

    None of a seat, and none where children climb: a cure can't ask that away.
    """
    now = data.uses()[piece.use]
    if now.given or "sit" in data.mounting_kinds()[mount_of(piece).kind].serves:
        return []
    found = [
        (row.push_n, key)
        for key, row in data.uses().items()
        if row.keep and row.push_n < now.push_n and row.factor <= now.factor
    ]
    return [key for _, key in sorted(found, reverse=True)]


def only_for(use: str) -> Message:
    """Return how a quieter use is asked for."""
    return Message(data.uses()[use].keep)


def _more(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Yield one support more; without studs, as many more as have room, evenly spread."""
    with suppress(PlanError):
        more = placement.add_support(piece, plan.wall)
        added = next(x for x in more.supports_mm if x not in piece.supports_mm)
        on_stud = any(
            abs(stud.centre_mm - piece.left_mm - added) < 1 for stud in plan.wall.uprights
        )
        said = (
            "One more support, on a free stud"
            if on_stud
            else "One more support, in the widest gap between two"
        )
        yield Remedy("support", Message(said), more)
    if plan.wall.uprights or len(piece.supports_mm) < 2:
        return
    first, last = piece.supports_mm[0], piece.supports_mm[-1]
    for count in _EVENLY:
        if count > len(piece.supports_mm) + 1 and last - first >= (count - 1) * _APART_MM:
            places = tuple(first + n * (last - first) / (count - 1) for n in range(count))
            label = Message(
                "{many}, evenly spread", {"many": numbered(count, mount_of(piece).noun_of(piece))}
            )
            yield Remedy("evenly", label, replace(piece, supports_mm=places))


def _boards(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Yield a thicker board; one of a stiffer wood, the cheapest first."""
    mount = mount_of(piece)
    found = mount.board_of(piece)
    if found is None:
        return
    board, now_mm = found
    sold = [thick for thick in sold_mm(board, plan.units) if thick <= THIN_MM]
    for thickness in sold or _THICKER_MM:
        if thickness > now_mm and piece.top_mm >= thickness:
            label = Message("A board {t} thick", {"t": Quantity(thickness, "length")})
            yield Remedy("board", label, mount.with_board(piece, board, thickness))
    if sold and max(sold) <= now_mm:
        yield from _thicker_of_another(piece, plan, now_mm)
    now = data.boards()[board]
    if now_mm > THIN_MM and not now.never:
        return
    stiffer = [
        (row.price, key, row)
        for key, row in data.woods().items()
        if (now.never or row.e_mpa > now.e_mpa) and not row.never and row.from_kg_m3 is None
    ]
    for _, key, row in sorted(stiffer, key=lambda each: each[:2]):
        label = Message("A board of {name}", {"name": row.name})
        yield Remedy("stiffer", label, mount.with_board(piece, key, now_mm))


def _thicker_of_another(piece: AnyPiece, plan: Plan, now_mm: float) -> Iterator[Remedy]:
    """Yield boards of the cheapest woods that are sold thicker, where its own is not."""
    found = [
        (row.price, thick, key, row.name)
        for key, row in data.woods().items()
        if not row.never
        for thick in sold_mm(key, plan.units)
        if now_mm < thick <= THIN_MM
    ]
    for _, thick, key, name in sorted(found)[:_OF_ANOTHER]:
        label = Message(
            "A board of {name}, {t} thick", {"name": name, "t": Quantity(thick, "length")}
        )
        yield Remedy("stiffer", label, mount_of(piece).with_board(piece, key, thick))


def _nearer(piece: AnyPiece) -> Iterator[Remedy]:
    """Yield what stands far out moved to where most things stand."""
    out = piece.usual_out_mm
    if any(thing.out_mm is not None and thing.out_mm > out + 1 for thing in piece.things):
        things = tuple(
            replace(thing, out_mm=min(thing.out_mm, out)) if thing.out_mm is not None else thing
            for thing in piece.things
        )
        label = Message(
            "Set what is far out nearer the wall, {d} out", {"d": Quantity(out, "length")}
        )
        yield Remedy("nearer", label, replace(piece, things=things))


def _narrower(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Less deep, by widths of boards as sold, as long as what stands on it stays on it."""
    mount = mount_of(piece)
    if mount.board_of(piece) is None:
        return
    seat = "sit" in data.mounting_kinds()[mount.kind].serves
    least = piece.depth_mm * data.house("narrower_seat_share" if seat else "narrower_share")
    outs = [thing.out_mm for thing in piece.things if thing.out_mm is not None]
    for depth in reversed(BOARD_WIDTHS_MM[plan.units]):
        if least <= depth < piece.depth_mm - 5 and all(out <= depth for out in outs):
            with suppress(PlanError):
                label = Message("Less deep, {d}", {"d": Quantity(depth, "length")})
                yield Remedy("narrower", label, replace(piece, depth_mm=depth))


def _deeper(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Deeper, by widths of boards as sold."""
    for depth in BOARD_WIDTHS_MM[plan.units]:
        if depth > piece.depth_mm + 5:
            with suppress(PlanError):
                label = Message("Deeper, {d}", {"d": Quantity(depth, "length")})
                yield Remedy("deep", label, replace(piece, depth_mm=depth))


def _anchors(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Every anchor that suits what is behind a support without timber."""
    wall = plan.wall
    bases = {wall.structure, *(layer.kind for layer in wall.layers or ())}
    for key in (*data.anchors(), *(packet.key for packet in wall.packets)):
        if key == piece.anchor or (
            wall.layers is not None and not bases & set(anchor_of(wall, key).holds_n)
        ):
            continue
        changed = replace(piece, anchor=key)
        fastener_demands = [
            support.capacity
            for support in mount_of(changed).supports(changed, wall)
            if support.capacity is not None
        ]
        if not fastener_demands:
            return  # nothing here would be held by an anchor
        if all(capacity.pull_n > 0 for capacity in fastener_demands):
            yield Remedy(
                "anchor",
                Message("Hold it with: {name}", {"name": anchor_of(wall, key).name}),
                changed,
            )


def _shorter_rods(piece: AnyPiece) -> Iterator[Remedy]:
    """Rods, pins or dowels just short enough to leave wood in front of them."""
    found = mount_of(piece).shorter_rods(piece)
    if found is not None:
        shorter, room = found
        label = Message("So much of each in the piece: {l}", {"l": Quantity(room, "length")})
        yield Remedy("rods", label, shorter)


def _screws(piece: AnyPiece, plan: Plan, too_long: bool) -> Iterator[Remedy]:
    """Shorter screws where they come out behind; longer ones; thicker ones; lags."""
    for length in reversed(driving.lengths_mm(data.screws()[piece.screw]) if too_long else ()):
        if length < piece.screw_length_mm - 0.5:
            label = Message("Shorter screws, {l}", {"l": Quantity(length, "length")})
            yield Remedy("shorter", label, replace(piece, screw_length_mm=length))
    for length in driving.lengths_mm(data.screws()[piece.screw]):
        if length > piece.screw_length_mm + 0.5:
            label = Message("Longer screws, {l}", {"l": Quantity(length, "length")})
            yield Remedy("longer", label, replace(piece, screw_length_mm=length))
    kind, now = data.screws()[piece.screw].kind, data.screws()[piece.screw].diameter_mm
    sold = data.screws_sold(plan.units)
    for key, row in sold.items():
        long = [
            each for each in driving.lengths_mm(row) if each >= piece.screw_length_mm - _AS_LONG_MM
        ]
        if row.kind == kind and row.diameter_mm > now + _AS_THICK_MM and long:
            label = Message("A thicker screw: {name}", {"name": row.called(plan.units)})
            yield Remedy("thicker", label, replace(piece, screw=key, screw_length_mm=long[0]))
    if kind == "wood":
        longest = max(driving.lengths_mm(data.screws()[piece.screw]))
        for key, row in sold.items():
            lengths = driving.lengths_mm(row)
            long = [each for each in lengths if each >= piece.screw_length_mm - 0.5]
            longer = [each for each in lengths if each > longest + 0.5]
            for length in dict.fromkeys((*long[:1], *longer[:2])) if row.kind == "lag" else ():
                name = row.called(plan.units)
                label = Message(
                    "Lags instead: {name}, {l}", {"name": name, "l": Quantity(length, "length")}
                )
                yield Remedy("lag", label, replace(piece, screw=key, screw_length_mm=length))


def _thinner_screws(piece: AnyPiece, plan: Plan) -> Iterator[Remedy]:
    """Yield thinner screws, as near as can be to the length that they have."""
    now = data.screws()[piece.screw]
    made = placement.made_new(mount_of(piece), plan.units)["screw"]
    rods = data.screws()[made].kind == "rod"
    thinner = sorted(data.screws_sold(plan.units).items(), key=lambda each: -each[1].diameter_mm)
    for key, row in thinner:
        if row.diameter_mm < now.diameter_mm and (row.kind == "rod") == rods:
            length = driving.nearest_length_mm(row, piece.screw_length_mm)
            name = row.called(plan.units)
            label = Message(
                "A thinner screw: {name}, {l}", {"name": name, "l": Quantity(length, "length")}
            )
            yield Remedy("thinner", label, replace(piece, screw=key, screw_length_mm=length))
