"""What to buy for a wall, or for all walls of a job.

Boards, sheets, hardware, finish, and fasteners in the packs that they are sold in.
"""

from collections import Counter, defaultdict
from collections.abc import Iterable
from itertools import chain
from math import ceil
from typing import Literal, NamedTuple

from trade import data
from trade.cutting.finish import Finished, finishes
from trade.cutting.order import Order, order_of
from trade.cutting.plan import CutPlan, source_words
from trade.fixings import driving
from trade.fixings.support import Support, board_screw
from trade.language import Figure, compose, counted, in_system, joined, word
from trade.measure import Units, say_bit, say_length
from trade.mounts import mount_of
from trade.mounts.old_things import to_come_off
from trade.mounts.prices import anchor_key, part_price, screw_key, screw_price
from trade.mounts.units import units_joined
from trade.mounts.work import Band, Bored, Row
from trade.plan.model import AnyPiece, Plan
from trade.plan.shop import LITRES, Shop
from trade.wall.backing import crossed

Aisle = Literal["wood", "hardware", "fasteners", "bits", "finish"]
_EXACT = 1e-9
_PIECES = 3.0
_LITRES = 0.15


class ShoppingItem(NamedTuple):
    """One line of the list.

    `key`: what a price of the person's own hangs on; `needed` and `pack`: so many pieces, or so
    many litres of what is sold in tins; `each`: what one of them costs; `mine`: as the person says;
    `note`: what else to know at the shelf; `have`: so many are there already.
    """

    key: str
    aisle: Aisle
    what: str
    needed: float
    pack: float
    packs: int
    each: float
    mine: bool = False
    unit: str = ""
    note: str = ""
    have: float = 0

    @property
    def countable(self) -> bool:
        """Whether somebody may have some of it; boards at hand are named elsewhere."""
        return self.aisle != "wood"

    @property
    def spare(self) -> float:
        """How many are left over."""
        return self.pack * self.packs + self.have - self.needed

    @property
    def cost(self) -> float:
        """What the whole packs cost."""
        return self.pack * self.packs * self.each

    @property
    def pack_cost(self) -> float:
        """What one pack costs."""
        return self.pack * self.each


class Shopping(NamedTuple):
    """The list, what it costs, and what it would cost bought ready (None: nobody said).

    `unpriced`: parts that are in no sum, as no shop has them in that size.
    """

    lines: tuple[ShoppingItem, ...]
    finishes: tuple[Finished, ...]
    ready: float | None
    unpriced: tuple[str, ...] = ()

    @property
    def cost(self) -> float:
        """All of it, roughly."""
        return sum(line.cost for line in self.lines)

    @property
    def saves(self) -> float | None:
        """What making it saves against buying it; less than nothing where it costs more."""
        return None if self.ready is None else self.ready - self.cost


def shopping(plan: Plan, cut: CutPlan, units: Units) -> Shopping:
    """Return the list of a wall.

    Args:
        plan: the wall.
        cut: how its wood is cut.
        units: in which sizes are said.
    """
    return shopping_of(order_of(plan)._replace(units=units), cut)


def shopping_of(order: Order, cut: CutPlan) -> Shopping:
    """Return the list, aisle by aisle.

    Wood, what is bought ready, what goes into the wall, bits, finish.

    Args:
        order: what is bought together.
        cut: how its wood is cut.
    """
    shop, units = order.shop, order.units
    done = finishes(order, cut.parts)
    lines = [
        *_wood(cut, units),
        *_bands(cut),
        *_hardware(shop, cut, units),
        *_glue(order, cut),
        *_bolts(order),
        *_fasteners(order),
        *_bits(order, cut),
        *_finish(done, shop),
        *_prepared(done, shop),
    ]
    own = {price.of: price.each for price in shop.prices}
    priced = tuple(
        line._replace(each=own[line.key], mine=True) if line.key in own else line for line in lines
    )
    unpriced: dict[str, None] = dict.fromkeys(
        compose("{part} of “{piece}”", part=part.name, piece=part.piece) for part in cut.no_stock
    )
    if not all(wood.on_face for wood, _ in order.wood_to_fit):
        unpriced[word("lining, tape and filler to close the wall over the blocking")] = None
    if any(to_come_off(plan) for plan in order.walls):
        unpriced[word("filler, sandpaper, primer and paint for where old things came off")] = None
    return Shopping(priced, done, shop.ready, tuple(unpriced))


def _wood(cut: CutPlan, units: Units) -> list[ShoppingItem]:
    """Boards and sheets that are not at hand."""
    wood = Counter(job.stock[stock] for job in cut.boards for stock, _ in job.layout)
    wood.update(job.stock[sheet.blank] for job in cut.sheets for sheet in job.plan.sheets)
    return [
        ShoppingItem(s.key, "wood", source_words(s, units), many, 1, many, s.price)
        for s, many in wood.items()
        if s.hand is None
    ]


def _glue(order: Order, cut: CutPlan) -> list[ShoppingItem]:
    """Return a bottle of glue where bodies are put together or parts glued up with it."""
    sets = (mount_of(piece).making(piece).sets_hours for piece, _ in order.waiting)
    if not cut.glue_lines and not any(sets):
        return []
    have = had(order.shop, "glue")
    take, price = (0 if have else 1), data.house("glue_price")
    what = word("wood glue, a bottle")
    return [ShoppingItem("glue", "hardware", what, 1, 1, take, price, have=have)]


def _bolts(order: Order) -> list[ShoppingItem]:
    """Return the bolts that join bodies to those beside them."""
    pairs = sum(len(units_joined(piece, there)) for piece, there in order.waiting)
    many, have = pairs * round(data.house("joining_bolts")), had(order.shop, "joining-bolt")
    what, price = word("bolt and sleeve to join two bodies"), data.house("joining_bolt_price")
    buy = max(many - have, 0)
    item = ShoppingItem("joining-bolt", "hardware", what, many, 1, buy, price, have=have)
    return [item] if many else []


def _bands(cut: CutPlan) -> list[ShoppingItem]:
    """Edge band by the roll."""
    long = sum(
        work.long_mm for part in cut.parts for work in part.detail.works if isinstance(work, Band)
    )
    if not long:
        return []
    roll = data.house("band_roll_mm")
    rolls = ceil(long / roll - _EXACT)
    note = compose("{long} m of edge are seen", long=Figure(f"{long / 1000:.1f}"))
    return [
        ShoppingItem(
            "band",
            "wood",
            "edge band, a roll of 7.6 m (25 ft)",
            rolls,
            1,
            rolls,
            data.house("band_price"),
            note=note,
        )
    ]


def had(shop: Shop, key: str) -> int:
    """Return how many of something are there already."""
    return int(_had(shop, key))


def _had(shop: Shop, key: str) -> float:
    """Return how much of it is there, which may be litres."""
    return next((each.many for each in shop.have if each.of == key), 0)


def _hardware(shop: Shop, cut: CutPlan, units: Units) -> list[ShoppingItem]:
    """Return what is bought ready."""
    found = []
    for part, many in cut.bought:
        name = joined((part.name, part.of)) if part.name == "hook" else part.of
        key = f"part:{name}"[:80]
        have, note = had(shop, key), word("your own") if part.own else ""
        buy = max(many - have, 0)
        said = in_system(name, units)
        found.append(
            ShoppingItem(
                key, "hardware", said, many, 1, buy, part_price(part), note=note, have=have
            )
        )
    return found


def _fasteners(order: Order) -> list[ShoppingItem]:
    """Return what goes into the wall, and into battens and side walls, in packs.

    And the bits for it.
    """
    needed: Counter[tuple[str, str, str, float]] = Counter()
    units = order.units
    for piece, there in order.waiting:
        needed.update(_of_piece(piece, there, units))
    for wood, there in order.wood_to_fit:
        if wood.on_face:
            key, length = board_screw(there.wall, wood, units)
            needed[_screw_line(key, length, units)] += wood.row.studs_n * len(
                crossed(there.wall, wood)
            )
            continue
        key = data.screw_in(wood.row.ends_screw, units)
        length = driving.nearest_length_mm(data.screws()[key], wood.row.ends_mm)
        needed[_screw_line(key, length, units)] += 2 * wood.row.ends_n
    return [_packed(*each, many, had(order.shop, each[0])) for each, many in needed.items()]


def _wall_bit(plan: Plan) -> str:
    return "masonry bit" if plan.wall.build == "mass" else word("bit")


def bits_lacking(plan: Plan, sizes_mm: Iterable[float], units: Units) -> tuple[str, ...]:
    """Return which bits for holes in the wall are not in the drawer, as they are said.

    None where it says nothing of bits: most people have some.
    """
    kind = _wall_bit(plan)
    if not any(each.of.startswith("bit:") for each in plan.shop.have):
        return ()
    said = dict.fromkeys(say_bit(size, units) for size in sizes_mm)
    return tuple(each for each in said if not had(plan.shop, f"bit:{kind}:{each}"))


def _bits(order: Order, cut: CutPlan) -> list[ShoppingItem]:
    """Every bit that the holes in the wall and in the parts take; most people have them."""
    wide: dict[tuple[str, str], float] = {}
    units = order.units
    for piece, on in order.waiting:
        for support in mount_of(piece).supports(piece, on.wall):
            if (bit := support.bit_mm(units)) is not None:
                wide[(_wall_bit(on), say_bit(bit, units))] = bit
    for part in cut.parts:
        for work in part.detail.works:
            if isinstance(work, Bored | Row):
                wide[("bit", say_bit(work.wide_mm, units))] = work.wide_mm
    ranked = sorted(wide, key=lambda each: (each[0], wide[each]))
    there = {each: had(order.shop, f"bit:{each[0]}:{each[1]}") for each in ranked}
    return [
        ShoppingItem(
            f"bit:{kind}:{said}",
            "bits",
            joined((kind, said)),
            1,
            1,
            0 if there[kind, said] else 1,
            0.0,
            note="" if there[kind, said] else "if you have none",
            have=there[kind, said],
        )
        for kind, said in ranked
    ]


def _of_piece(piece: AnyPiece, plan: Plan, units: Units) -> Counter[tuple[str, str, str, float]]:
    """Fasteners of one piece.

    Key, name, the kind that packs hang on, the price of one; and how many.
    """
    found: Counter[tuple[str, str, str, float]] = Counter()

    def screws(key: str, length_mm: float, many: int) -> None:
        found[_screw_line(key, length_mm, units)] += many

    def held(support: Support, many: int) -> None:
        if support.capacity is None:
            screws(support.screw_key or piece.screw, support.screw_mm, many)
        elif support.capacity.anchor is not None:
            row = support.capacity.anchor
            name = in_system(row.name, units)
            found[(anchor_key(support.anchor_key), name, "anchor", row.price)] += many

    supports = [
        support
        for support in mount_of(piece).supports(piece, plan.wall)
        if isinstance(support, Support)
    ]  # a pin is a part
    for support in (*supports, *chain(*mount_of(piece).beside(piece, plan.wall).values())):
        held(support, len(support.holes))
    for extra in mount_of(piece).extras(piece, plan.wall):
        if extra.screw is not None:
            screws(extra.screw, extra.length_mm, extra.many)
        elif supports:
            held(supports[0], extra.many)
    return found


def _screw_line(key: str, length_mm: float, units: Units) -> tuple[str, str, str, float]:
    row = data.screws()[key]
    said = joined((row.called(units), say_length(length_mm, units)))
    return screw_key(key, length_mm), said, row.kind, screw_price(row, length_mm)


def _packed(key: str, name: str, kind: str, price: float, needed: int, have: int) -> ShoppingItem:
    """Return the pack of which few are left over without buying many, for what is not there yet."""
    lacking = max(needed - have, 0)
    pack, packs = _pack(lacking or needed, data.packs()[kind].sizes, _PIECES)
    return ShoppingItem(
        key, "fasteners", name, needed, pack, packs if lacking else 0, price, have=have
    )


def _pack(
    needed: float, sizes: tuple[float, ...] | tuple[int, ...], trouble: float
) -> tuple[float, int]:
    """Return the size of pack of which the least is left over.

    Each pack counting like so much left over.

    And how many packs.
    """

    def burden(size: float) -> tuple[float, float]:
        packs = ceil(needed / size - _EXACT)
        return round(packs * (size + trouble) - needed, 6), -size

    pack = min(sizes, key=burden)
    return pack, ceil(needed / pack - _EXACT)


def _finish(finished: tuple[Finished, ...], shop: Shop) -> list[ShoppingItem]:
    """Tins for all coats, those of one product together; what is left of one counts first."""
    litres: defaultdict[str, float] = defaultdict(float)
    for each in finished:
        for coats in each.done.coats:
            litres[coats.key] += coats.litres(each.done.area_m2)
    found = []
    for key, needed in litres.items():
        if not needed:
            continue
        row, name = data.coatings()[key], f"{LITRES}{key}"
        have = _had(shop, name)
        lacking = max(needed - have, 0.0)
        tin, tins = _pack(lacking or needed, row.tins, _LITRES)
        note = joined(
            compose(
                "{coats} on {area} m²",
                coats=counted(coats.coats, "{n} coat", "{n} coats"),
                area=Figure(f"{each.done.area_m2:.1f}"),
            )
            for each in finished
            for coats in each.done.coats
            if coats.key == key
        )
        packs = tins if lacking else 0
        found.append(
            ShoppingItem(
                name, "finish", row.name, needed, tin, packs, row.price, False, "l", note, have
            )
        )
    return found


def _prepared(finished: tuple[Finished, ...], shop: Shop) -> list[ShoppingItem]:
    """Return what goes on wood beside its coats, and the papers that it is sanded with."""
    done = [each.done for each in finished if each.done.area_m2 > 0]
    found = []
    for key in dict.fromkeys(key for each in done for key in each.preparing):
        row = data.preparing()[key]
        if row.buy:
            have = had(shop, f"prepare:{key}")
            take = 0 if have else 1
            item = ShoppingItem(f"prepare:{key}", "finish", row.buy, 1, 1, take, row.price)
            found.append(item._replace(have=have))
    grits: Counter[int] = Counter()
    for each in done:
        for grit in each.grits:
            grits[grit] += ceil(each.area_m2 / data.house("paper_m2"))
        between = max((coats.row.between_grit for coats in each.coats), default=0)
        if between:
            grits[between] += ceil(each.area_m2 / data.house("paper_m2"))
    for grit, sheets in sorted(grits.items()):
        key = f"paper:{grit}"
        have = had(shop, key)
        said = compose("sandpaper, {grit} grit, a sheet", grit=Figure(str(grit)))
        buy, price = max(sheets - have, 0), data.house("paper_price")
        found.append(ShoppingItem(key, "finish", said, sheets, 1, buy, price, have=have))
    return found
