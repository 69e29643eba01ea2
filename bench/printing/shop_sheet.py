"""Shopping list (PDF).

What to buy, aisle by aisle, with a box to tick; read at arm's length, with one hand on the trolley.
"""

from django.utils.translation import gettext as _

from bench.printing.paper import Paper
from bench.printing.wall_sheet import LARGER
from bench.words import lazy, say, worded
from trade.cutting.shopping import Shopping, ShoppingItem
from trade.language import Figure, counted
from trade.measure import Units

AISLES = {
    "wood": lazy("Boards and sheets"),
    "hardware": lazy("Hardware"),
    "fasteners": lazy("Screws and anchors"),
    "bits": lazy("Bits"),
    "finish": lazy("Finish"),
}
_BOX_MM = 4.0


def shop_sheet(name: str, buying: Shopping, units: Units, job: str, day: str) -> bytes:
    """Return the sheet as a PDF.

    Args:
        name: of the wall.
        buying: what to buy for it.
        units: of the person, and with them the money.
        job: the wall's job.
        day: when it was printed, in words.
    """
    paper = Paper(units, worded("{name}: shop", name=name), f"{job}, {name}. {day}.", LARGER)
    paper.title_line(
        worded("Buy for {name}", name=name),
        worded(
            "About {money} in all; prices are rough unless they are yours.",
            money=money(buying.cost, units),
        ),
    )
    for aisle, title in AISLES.items():
        lines = [line for line in buying.lines if line.aisle == aisle]
        if lines:
            paper.heading(title)
        for line in lines:
            _line(paper, line, units)
    if buying.unpriced:
        named = ", ".join(say(each) for each in buying.unpriced)
        paper.say(worded("Not in it, since no shop has that size: {named}.", named=named))
    if not buying.lines:
        paper.say(_("There is nothing to buy."))
    return bytes(paper.output())


def money(cost: float, units: Units) -> str:
    """Return a price to the cent."""
    return say(Figure(f"{'$' if units == 'imperial' else '€'}{cost:.2f}"))


def taken(line: ShoppingItem) -> str:
    """Return how many to take: in packs, or in tins, where it is sold so."""
    if not line.packs:
        return _("none")
    each = Figure(f"{line.pack:g}")
    if line.unit == "l":
        return say(counted(line.packs, "{n} tin of {l} l", "{n} tins of {l} l", l=each))
    if line.pack > 1:
        return say(counted(line.packs, "{n} pack of {each}", "{n} packs of {each}", each=each))
    return f"{line.packs:g}"


def needed(line: ShoppingItem) -> str:
    """Return what of it is needed, where that is less than what is bought."""
    if line.unit == "l":
        wanted = Figure(f"{line.needed:.2f}")
        if line.have:
            had = Figure(f"{line.have:g}")
            return worded("you have {had} l, {n} l needed", had=had, n=wanted)
        return worded("{n} l needed", n=wanted)
    if line.have:
        had, all_of_it = Figure(f"{line.have:g}"), Figure(f"{line.needed:g}")
        return worded("you have {had}, {all_of_it} needed", had=had, all_of_it=all_of_it)
    return (
        worded(
            "{needed} needed, {spare} to spare",
            needed=Figure(f"{line.needed:g}"),
            spare=Figure(f"{line.spare:g}"),
        )
        if line.pack > 1 and line.spare
        else ""
    )


def _line(paper: Paper, line: ShoppingItem, units: Units) -> None:
    if paper.will_page_break(14):
        paper.add_page()
    left, top = paper.l_margin, paper.get_y()
    paper.set_line_width(0.3)
    paper.set_draw_color(30, 30, 30)
    paper.rect(left, top + 0.8, _BOX_MM, _BOX_MM)
    price = money(line.cost, units) if line.cost else ""
    paper.set_x(left + _BOX_MM + 3)
    wide = paper.epw - _BOX_MM - 3
    paper.row(((taken(line), wide * 0.27), (line.what, wide * 0.55), (price, wide * 0.18)))
    said = ", ".join(each for each in (needed(line), say(line.note)) if each)
    if said:
        paper.set_x(left + _BOX_MM + 3)
        paper.row((("", wide * 0.27), (said, wide * 0.73)))
