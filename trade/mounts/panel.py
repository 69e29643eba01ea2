"""A panel on the wall that things hang on: a sheet straight to the studs, or on level battens."""

from collections.abc import Iterable, Iterator
from contextlib import suppress
from typing import Any, ClassVar, TypeVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Quantity
from trade.check import Assumption, Check, Message, Placeholders
from trade.errors import PlanError
from trade.fixings import driving, fastening
from trade.fixings.support import Support
from trade.language import compose
from trade.load.demand import Demand
from trade.load.line import LineLoad, unweighed
from trade.load.ways import ELASTIC, Sharing
from trade.measure import G_N_PER_KG, Units
from trade.mounts import board, hooks, jointed, openings, panel_screws, strips
from trade.mounts.base import LENGTH, WOOD, Ask, Box, Extra, Mount, Part, Shape, block, cut
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.panel_screws import BATTEN, HIGH_MM
from trade.mounts.work import Bored, Detail, Opening, Work
from trade.plan.model import Panel, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing

NOUN = "support"
_INSET_MM = 4.0  # so that dashed battens are seen beside the panels' edges
_SAME_MM = 0.5  # screws no further apart in length are the same
N = TypeVar("N", bound=Panel)


class Panelled(Mount[N]):
    """What panels and peg walls share."""

    support_noun = NOUN
    covers = True
    carries = "in"
    every_stud = True
    asks: ClassVar[tuple[Ask, ...]] = (
        LENGTH,
        Ask("height_mm", "Height", "length"),
        Ask("thickness_mm", "Thickness", "length"),
        WOOD,
        Ask("panels", "Panels side by side", "count"),
        Ask("gap_mm", "Gap between two of them", "length"),
        Ask("rows", "Rows of screws, or battens", "count"),
        Ask("batten_mm", "Battens thick", "length", help="0: straight to the studs."),
        jointed.ASK._replace(label="Joint in its battens, from their left end"),
        Ask("panel_screws", "Panel's screws in each batten", "count"),
        Ask("panel_screw_mm", "Their length", "length"),
        Ask("depth_mm", "Things reach out", "length"),
        openings.CUT_OUT,
    )

    def with_rows(self, piece: N, rows: int) -> N | None:
        """Held by so many battens, or rows of screws."""
        return replace(piece, rows=rows)

    def carried(self, piece: N, wall: Wall) -> list[tuple[float, float, float]]:
        """Return one panel, and its battens."""
        battens = [part.sizes_mm for part in self.battens(piece) if part.sizes_mm]
        return [(piece.panel_mm, piece.height_mm, piece.thickness_mm), *battens]

    def out_mm(self, piece: N) -> float:
        """As thick as sheet and battens are."""
        return piece.batten_mm + piece.thickness_mm

    def room(self, piece: N) -> int:
        """How many holders have room: as many on each panel."""
        row = data.holders()[self.kind]
        return piece.panels * row.fit(piece.panel_mm, piece.height_mm)

    def grown(self, piece: N) -> Iterator[tuple[Message, N]]:
        """Yield one panel more to the right, and to the left, its battens longer by as much.

        On battens of its own where those that hang there can't be made longer: the same holes.
        """
        more = piece.panel_mm + piece.gap_mm
        for said, shift in (
            ("One panel more to the right", 0.0),
            ("One panel more to the left", more),
        ):
            with suppress(PlanError):
                supports = tuple(x + shift for x in piece.supports_mm)
                things = tuple(
                    thing if thing.at_mm is None else replace(thing, at_mm=thing.at_mm + shift)
                    for thing in piece.things
                )
                yield (
                    Message(said),
                    replace(
                        piece,
                        panels=piece.panels + 1,
                        left_mm=piece.left_mm - shift,
                        length_mm=piece.length_mm + more,
                        supports_mm=supports,
                        things=things,
                    ),
                )

    def filled(self, piece: N, high_mm: float) -> N:
        """Return it as high as a place."""
        return replace(piece, height_mm=high_mm)

    def checks(self, piece: N, wall: Wall) -> list[Check]:
        """Every check of the panel, its battens and its screws."""
        loads = unweighed(piece)
        alone = [piece] if piece.batten_mm else panel_screws.singly(piece)
        if few := [panel for panel in alone if len(panel.supports_mm) < 2]:
            return [board.too_few_supports(few[0], NOUN, loads)]
        demands = _demands(piece)
        supports = [each for each in self.supports(piece, wall) if each.index in demands]
        found = fastening.checks(supports, demands, backing(wall).unknown, loads)
        found += panel_screws.on_joint(piece)
        found += [panel_screws.enough(piece), *hooks.checks(piece, "hook")]
        found.append(panel_screws.sheet(piece, loads))
        if piece.batten_mm:
            found += [
                *panel_screws.in_battens(piece, _own_n(piece), loads),
                panel_screws.short_enough(piece),
                panel_screws.batten_bending(piece, _own_n(piece), loads),
            ]
            found += panel_screws.batten_over_box(piece, self.box(piece), wall)
            found += jointed.check(piece)
        return found

    def supports(self, piece: N, wall: Wall) -> list[Support]:
        """At each stud, a screw in every row."""
        board_key, thick = (
            (BATTEN, piece.batten_mm) if piece.batten_mm else (piece.board, piece.thickness_mm)
        )
        low = piece.top_mm - piece.height_mm
        return strips.on_studs(
            piece,
            wall,
            NOUN,
            board_key,
            thick,
            piece.height_mm,
            low,
            piece.rows_mm,
            joint=jointed.seat(piece) if piece.batten_mm else None,
        )

    def weight_kg(self, piece: N) -> float | None:
        """Return the bare piece."""
        return _own_n(piece) / G_N_PER_KG

    def parts(self, piece: N, wall: Wall) -> list[Part]:
        """Return the sheets and their battens."""
        size = (piece.panel_mm, piece.height_mm, piece.thickness_mm)
        sheets = cut("sheet", piece.board, piece.panels, *size)
        return [sheets, *self.battens(piece), *self.rings(piece, wall)]

    def rings(self, piece: N, wall: Wall) -> list[Part]:
        """Return the rings that bring boxes to its face, where openings are cut for them."""
        return openings.rings(self.box(piece), wall) if piece.cut_out else []

    def battens(self, piece: N) -> list[Part]:
        """Return the battens, as long as all the panels; none where there are none."""
        if not piece.batten_mm:
            return []
        return jointed.boards(piece, "batten", BATTEN, piece.rows, HIGH_MM, piece.batten_mm)

    def extras(self, piece: N, wall: Wall) -> list[Extra]:
        """Return the panel's own screws, into its battens."""
        many = piece.panels * piece.rows * len(piece.columns_mm) if piece.batten_mm else 0
        screw = panel_screws.light(piece)
        return [Extra("Into the battens", many, screw, piece.panel_screw_mm)] if many else []

    def details(self, piece: N, wall: Wall, units: Units) -> dict[str, Detail]:
        """Return the sheet, or its battens, bored for the screws."""
        low = piece.top_mm - piece.height_mm
        screws: tuple[Work, ...] = strips.screwed(
            self.supports(piece, wall), piece.left_mm, low, units
        )
        cut_out = _openings(piece, wall, self.box(piece))
        if not piece.batten_mm:
            screws = (*on_panels(piece, screws), *cut_out)
            return {"sheet": Detail(screws, "good face out", any_way=True)}
        half = HIGH_MM / 2
        through = tuple(
            work._replace(places=tuple((x, half) for x in dict.fromkeys(x for x, _ in work.places)))
            for work in screws
            if isinstance(work, Bored)
        )
        own = tuple((x, y) for y in piece.rows_mm for x in piece.columns_mm)
        battens = {
            jointed.side_of("batten", side): Detail(
                (
                    *jointed.ends(side, piece.batten_mm),
                    *(
                        work._replace(
                            places=tuple((x - a, half) for x, _ in work.places if a <= x <= b)
                        )
                        for work in through
                    ),
                ),
                "level, screwed to the studs",
                bare=True,
            )
            for side, (a, b) in jointed.spans(piece).items()
        }
        return battens | {
            "sheet": Detail(
                (
                    Bored(
                        "its face",
                        own,
                        driving.clearance_mm(data.screws()[panel_screws.light(piece)], units),
                        None,
                        "for its screws",
                    ),
                    *cut_out,
                ),
                "good face out",
                any_way=True,
            ),
        }

    def front(self, piece: N) -> list[Shape]:
        """Return the sheets, their battens behind them, their screws."""
        left = piece.left_mm
        low = piece.top_mm - piece.height_mm
        heights = tuple(low + up for up in piece.rows_mm)
        half = HIGH_MM / 2
        battens = [
            shape
            for y in (heights if piece.batten_mm else ())
            for shape in jointed.front(piece, y - half, HIGH_MM, "hidden", _INSET_MM)
        ]
        return [
            *(block("face", left + a, low, left + b, piece.top_mm) for a, b in piece.edges_mm),
            *battens,
            *strips.screws_front(piece, heights, hidden=bool(battens)),
        ]

    def side(self, piece: N, support: Support) -> list[Shape]:
        """Return the sheet on its battens or on the wall."""
        low, b, t = piece.top_mm - piece.height_mm, piece.batten_mm, piece.thickness_mm
        half = HIGH_MM / 2
        battens = (
            [block("wood", 0.0, low + up - half, b, low + up + half) for up in piece.rows_mm]
            if b
            else []
        )
        return [*battens, block("board", b, low, b + t, piece.top_mm)]

    def in_two(self, piece: N) -> Iterator[tuple[Message, N]]:
        """Yield its battens jointed over a stud."""
        return jointed.in_two(piece) if piece.batten_mm else iter(())

    def cures(self, piece: N, units: Units) -> Iterator[tuple[str, Message, N]]:
        """Yield openings; other screws; more rows of battens and more screws into them."""
        yield from openings.cure(piece)
        light = data.screws()[panel_screws.light(piece)]
        sold = driving.lengths_mm(light) if piece.batten_mm else ()
        for long in sorted(sold, key=lambda each: abs(each - piece.panel_screw_mm)):
            if abs(long - piece.panel_screw_mm) > _SAME_MM:
                label = Message("The panel's screws {l} long", {"l": Quantity(long, "length")})
                yield "panel_screw", label, replace(piece, panel_screw_mm=long)
        yield from jointed.tried(piece)
        for code, label, changed in super().cures(piece, units):
            if code == "rows" and not piece.batten_mm:
                label = Message("{n} rows of screws", {"n": changed.rows})
            yield code, label, changed

    def takes(self, piece: N, field: str, size: float) -> bool:
        """Whether it has battens; one row less only where the battens are too near."""
        if field == "rows":
            return size > piece.rows or (piece.batten_mm > 0 and size == piece.rows - 1)
        return field not in ("panel_screws", "batten_mm") or piece.batten_mm > 0

    def hanging(self, piece: N, wall: Wall, policy: Policy) -> Hanging:
        """Straight onto the studs; or the battens first, then the sheet on them."""
        if not piece.batten_mm:
            return Hanging("panel", ("Top of the panel", piece.top_mm), lifts=True)
        long: Placeholders = {"l": Quantity(piece.panel_screw_mm, "length")}
        sheet = do(
            "sheet",
            "Screw the panel to its battens",
            "Top row first, then plumb, then down.",
            Message("The {l} screws bite all of the batten and do not come out behind it.", long),
            lifts=True,
            acts=(Act("put_on", "sheet"),),
        )
        middles = tuple(piece.top_mm - piece.height_mm + up for up in piece.rows_mm)
        lowest = min(middles) + HIGH_MM / 2
        return Hanging(
            "batten", ("Top of the lowest batten", lowest), "rows", after=(sheet,), rows_mm=middles
        )

    def cautions(self, piece: N, wall: Wall) -> list[Message]:
        """Return what people get wrong with panels."""
        if not piece.batten_mm:
            return [
                Message(
                    "Never fewer than four fixings a panel; a washer or a wide head where the "
                    "sheet is thin."
                )
            ]
        return [
            Message(
                "Level the battens first; the panel's screws bite all of the batten and do not "
                "come out behind it."
            ),
            *jointed.cautions(piece),
        ]


class _Panel(Panelled[Panel]):
    kind = "panel"
    name = "Panel, on battens or straight on"
    piece_noun = "panel"
    make = Panel
    fresh: ClassVar[dict[str, Any]] = {
        "board": "plywood",
        "length_mm": 1000.0,
        "height_mm": 800.0,
        "thickness_mm": 12.0,
        "depth_mm": 120.0,
        "batten_mm": 19.0,
        "panel_screw_mm": 28.0,
    }
    asks = (*Panelled.asks, *hooks.asks("hook"))

    def assumes(self, piece: Panel) -> tuple[Assumption, ...]:
        """Return that its hooks carry what hangs on them."""
        return hooks.assumed(piece, "hook")


KIND = _Panel()


def _demands(piece: Panel) -> dict[int, tuple[Demand, ...]]:
    """Return what each support is asked.

    A sheet is stiff in its own plane: its fixings share as a group. Side by side on battens panels
    share by these; straight to the studs each hangs for itself.
    """
    own, out = _own_n(piece), piece.thickness_mm / 2 + piece.batten_mm
    if piece.panels == 1 or piece.batten_mm:
        stiff = Sharing(stiff=True) if piece.panels == 1 else ELASTIC
        return LineLoad(piece, own, out, sharing=stiff).demands()
    found: dict[int, tuple[Demand, ...]] = {}
    for panel in panel_screws.singly(piece):
        load = LineLoad(panel, own / piece.panels, out, sharing=Sharing(stiff=True))
        at = panel.left_mm - piece.left_mm
        for n, cases in load.demands().items():
            place = at + panel.supports_mm[n]
            whole = min(
                range(len(piece.supports_mm)), key=lambda i: abs(piece.supports_mm[i] - place)
            )
            found[whole] = cases
    return found


def _called(piece: Panel, n: int) -> str:
    """Return what one of several panels is called."""
    return compose("panel {n} from the left", n=n + 1)


def on_panels(piece: Panel, works: Iterable[Work]) -> Iterator[Work]:
    """Yield holes in a face that all panels share as holes in each panel's own."""
    for work in works:
        if piece.panels == 1 or not isinstance(work, Bored):
            yield work
            continue
        for n, (left, right) in enumerate(piece.edges_mm):
            own = tuple((x - left, y) for x, y in work.places if left <= x <= right)
            if own:
                yield work._replace(into=_called(piece, n), places=own)


def _openings(piece: Panel, wall: Wall, box: Box) -> tuple[Opening, ...]:
    """Return the openings for what is behind it, each in the panel that covers it.

    From that panel's left edge and its lower edge.
    """
    low, out = piece.top_mm - piece.height_mm, piece.thickness_mm + piece.batten_mm
    found = (
        openings.opening(
            f,
            (piece.left_mm + left, piece.left_mm + right, low),
            out,
            "" if piece.panels == 1 else _called(piece, n),
        )
        for f in openings.behind(box, wall)
        for n, (left, right) in enumerate(piece.edges_mm)
    )
    return tuple(each for each in found if each is not None)


def _own_n(piece: Panel) -> float:
    """Weight of the sheets and their battens."""
    sheets = piece.panels * piece.panel_mm * piece.height_mm * piece.thickness_mm
    battens = piece.length_mm * HIGH_MM * piece.batten_mm * piece.rows
    rows = data.boards()
    kg = sheets * rows[piece.board].density_kg_m3 + battens * rows[BATTEN].density_kg_m3
    return kg / 1e9 * G_N_PER_KG
