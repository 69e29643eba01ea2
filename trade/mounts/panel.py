"""A panel on the wall that things hang on: a sheet straight to the studs, or on level battens."""

from collections.abc import Iterator
from typing import Any, ClassVar, TypeVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Assumption, Check, Message, Placeholders, make
from trade.fixings import driving, fastening, wood
from trade.fixings.support import Support
from trade.language import compose
from trade.load.demand import Demand
from trade.load.line import LineLoad, unweighed
from trade.load.ways import Sharing
from trade.measure import G_N_PER_KG, Units
from trade.mechanics.beam import widest_mm
from trade.mounts import board, hooks, strength, strips
from trade.mounts.base import LENGTH, WOOD, Ask, Box, Extra, Mount, Part, Shape, block, covered, cut
from trade.mounts.hanging import Act, Hanging, do
from trade.mounts.work import Bored, Detail, Opening, Work
from trade.plan.model import Panel, Wall
from trade.plan.policy import Policy
from trade.wall.backing import backing

NOUN = "support"
_LEAST_FIXINGS = int(data.house("panel_fixings"))
_EDGE_MM = data.house("panel_edge_mm")
_BATTEN = "pine_white"  # house rule: battens are taken as the softest wood of the shop
_LIGHT = "wood_8"  # house rule: the screws of a panel into its battens
_BATTEN_HIGH_MM = data.house("batten_high_mm")
_BEHIND_MM = data.house("panel_screw_short_mm")
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
        Ask("rows", "Rows of screws, or battens", "count"),
        Ask("batten_mm", "Battens thick", "length", help="0: straight to the studs."),
        Ask("panel_screws", "Panel's screws in each batten", "count"),
        Ask("panel_screw_mm", "Their length", "length"),
        Ask("depth_mm", "Things reach out", "length"),
        Ask("cut_out", "Openings cut out of it for boxes that it covers", "flag"),
    )

    def with_rows(self, piece: N, rows: int) -> N | None:
        """Held by so many battens, or rows of screws."""
        return replace(piece, rows=rows)

    def checks(self, piece: N, wall: Wall) -> list[Check]:
        """Every check of the panel, its battens and its screws."""
        loads = unweighed(piece)
        if not piece.supports_mm or len(piece.supports_mm) < 2:
            return [board.too_few_supports(piece, NOUN, loads)]
        load, supports = _load(piece), self.supports(piece, wall)
        demands = load.demands()
        found = fastening.checks(supports, demands, backing(wall).unknown, loads)
        found += [_fixings(piece), *hooks.checks(piece, "hook")]
        if piece.batten_mm:
            found += [
                _batten_screws(piece, demands, loads),
                _short_enough(piece),
                _batten_bending(piece, demands, loads),
            ]
            found += _batten_over_box(piece, self.box(piece), wall)
        return found

    def supports(self, piece: N, wall: Wall) -> list[Support]:
        """At each stud, a screw in every row."""
        board_key, thick = (
            (_BATTEN, piece.batten_mm) if piece.batten_mm else (piece.board, piece.thickness_mm)
        )
        low = piece.top_mm - piece.height_mm
        return strips.on_studs(
            piece, wall, NOUN, board_key, thick, piece.height_mm, low, rows_mm(piece)
        )

    def weight_kg(self, piece: N) -> float | None:
        """Return the bare piece."""
        return _own_n(piece) / G_N_PER_KG

    def parts(self, piece: N, wall: Wall) -> list[Part]:
        """Return the sheet and its battens."""
        found = [cut("sheet", piece.board, 1, piece.length_mm, piece.height_mm, piece.thickness_mm)]
        if piece.batten_mm:
            found.append(
                cut(
                    "batten", _BATTEN, piece.rows, piece.length_mm, _BATTEN_HIGH_MM, piece.batten_mm
                )
            )
        return found

    def extras(self, piece: N, wall: Wall) -> list[Extra]:
        """Return the panel's own screws, into its battens."""
        many = piece.rows * piece.panel_screws if piece.batten_mm else 0
        return (
            [Extra("Into the battens", many, _light(piece), piece.panel_screw_mm)] if many else []
        )

    def details(self, piece: N, wall: Wall, units: Units) -> dict[str, Detail]:
        """Return the sheet, or its battens, bored for the screws."""
        low = piece.top_mm - piece.height_mm
        screws: tuple[Work, ...] = strips.screwed(
            self.supports(piece, wall), piece.left_mm, low, units
        )
        openings = tuple(
            Opening(
                f.row.reason,
                f.left_mm - piece.left_mm,
                f.bottom_mm - low,
                f.right_mm - f.left_mm,
                f.top_mm - f.bottom_mm,
            )
            for f in covered(self.box(piece), wall)
        )
        if not piece.batten_mm:
            screws = (*screws, *openings)
            return {"sheet": Detail(screws, "good face out", any_way=True)}
        half = _BATTEN_HIGH_MM / 2
        through = tuple(
            work._replace(places=tuple((x, half) for x in dict.fromkeys(x for x, _ in work.places)))
            for work in screws
            if isinstance(work, Bored)
        )
        step = piece.length_mm / piece.panel_screws
        own = tuple(
            ((n + 0.5) * step, y) for y in rows_mm(piece) for n in range(piece.panel_screws)
        )
        return {
            "sheet": Detail(
                (
                    Bored(
                        "its face",
                        own,
                        driving.clearance_mm(data.screws()[_light(piece)], units),
                        None,
                        "for its screws",
                    ),
                    *openings,
                ),
                "good face out",
                any_way=True,
            ),
            "batten": Detail(through, "level, screwed to the studs", bare=True),
        }

    def front(self, piece: N) -> list[Shape]:
        """Return the sheet, its battens behind it, its screws."""
        left = piece.left_mm
        right = piece.left_mm + piece.length_mm
        low = piece.top_mm - piece.height_mm
        heights = tuple(low + up for up in rows_mm(piece))
        half = _BATTEN_HIGH_MM / 2
        battens = (
            [block("hidden", left + 4, y - half, right - 4, y + half) for y in heights]
            if piece.batten_mm
            else []
        )
        return [
            block("face", left, low, right, piece.top_mm),
            *battens,
            *strips.screws_front(piece, heights, hidden=bool(battens)),
        ]

    def side(self, piece: N, support: Support) -> list[Shape]:
        """Return the sheet on its battens or on the wall."""
        low, b, t = piece.top_mm - piece.height_mm, piece.batten_mm, piece.thickness_mm
        half = _BATTEN_HIGH_MM / 2
        battens = (
            [block("wood", 0.0, low + up - half, b, low + up + half) for up in rows_mm(piece)]
            if b
            else []
        )
        return [*battens, block("board", b, low, b + t, piece.top_mm)]

    def cures(self, piece: N, units: Units) -> Iterator[tuple[str, Message, N]]:
        """Yield openings; other screws; more rows of battens and more screws into them."""
        if not piece.cut_out:
            yield (
                "cut_out",
                Message("Cut openings out of it for the boxes behind it"),
                replace(piece, cut_out=True),
            )
        sold = driving.lengths_mm(data.screws()[_light(piece)]) if piece.batten_mm else ()
        for long in sorted(sold, key=lambda each: abs(each - piece.panel_screw_mm)):
            if abs(long - piece.panel_screw_mm) > _SAME_MM:
                label = Message("The panel's screws {l} long", {"l": Quantity(long, "length")})
                yield "panel_screw", label, replace(piece, panel_screw_mm=long)
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
        middles = tuple(piece.top_mm - piece.height_mm + up for up in rows_mm(piece))
        lowest = min(middles) + _BATTEN_HIGH_MM / 2
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
            )
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


def rows_mm(piece: Panel) -> tuple[float, ...]:
    """Heights of its rows above its lower edge, from the top down."""
    edge = min(_EDGE_MM, piece.height_mm / 4)
    step = (piece.height_mm - 2 * edge) / (piece.rows - 1)
    return tuple(piece.height_mm - edge - n * step for n in range(piece.rows))


def _load(piece: Panel) -> LineLoad:
    """Return its load; a sheet is stiff in its own plane: its fixings share as a group."""
    return LineLoad(
        piece, _own_n(piece), piece.thickness_mm / 2 + piece.batten_mm, sharing=Sharing(stiff=True)
    )


def _own_n(piece: Panel) -> float:
    """Weight of the sheet and its battens."""
    length = piece.length_mm / 1e9
    sheet = length * piece.height_mm * piece.thickness_mm * data.boards()[piece.board].density_kg_m3
    battens = (
        length
        * _BATTEN_HIGH_MM
        * piece.batten_mm
        * piece.rows
        * data.boards()[_BATTEN].density_kg_m3
    )
    return (sheet + battens) * G_N_PER_KG


def _fixings(piece: Panel) -> Check:
    return make(
        "panel.fixings",
        part="panel",
        case="any",
        demand=Quantity(_LEAST_FIXINGS, "count"),
        capacity=Quantity(len(piece.supports_mm) * piece.rows, "count"),
        template="A panel needs at least {demand} fixings to the studs; it has {capacity}.",
    )


def _top_pull_n(piece: Panel, demands: dict[int, tuple[Demand, ...]], n: int) -> float:
    """Return the pull on the top batten when the panel turns about its lower edge, N."""
    turning = sum(max(cases[min(n, len(cases) - 1)].moment_nmm, 0.0) for cases in demands.values())
    heights = rows_mm(piece)
    return turning * heights[0] / sum(y * y for y in heights)


def _worst(piece: Panel, demands: dict[int, tuple[Demand, ...]]) -> tuple[float, float, str]:
    return strength.lasting_or_pushed(
        _top_pull_n(piece, demands, 0), _top_pull_n(piece, demands, 1)
    )


def _light(piece: Panel) -> str:
    """Return the screw of a panel into its battens, sold as those of the battens are."""
    return data.screw_beside(_LIGHT, piece.screw)


def _batten_screws(
    piece: Panel, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]
) -> Check:
    """Check the panel's screws in the top batten.

    The thread is no longer than the batten is thick.
    """
    screw, row, sums = data.screws()[_light(piece)], data.boards()[_BATTEN], Calculation()
    pull, duration, case = _worst(piece, demands)
    sums.given("P", pull, "force", compose("pull on the top batten, {case}", case=case))
    sums.given("n", piece.panel_screws, "count", "the panel's screws in it")
    sums.then("P_1", "P / n", "force", "pull of each")
    sums.given("L", piece.panel_screw_mm, "length", "length of a screw")
    sums.given("t", piece.thickness_mm, "fine", "thickness of the panel")
    sums.given("b", piece.batten_mm, "fine", "thickness of the batten")
    thread = driving.thread_length_mm(screw, piece.panel_screw_mm)
    sums.given("L_T", thread, "fine", "its thread")
    sums.given("E", screw.tip_mm, "fine", "its tip, which does not count")
    sums.then("p", "max(min(L_T, L − t, b) − E, 0)", "fine", "thread in the batten")
    sums.given(
        "G",
        row.g,
        "ratio",
        compose("specific gravity of {row}, as battens are taken", row=row.name),
    )
    sums.given("D", screw.diameter_mm, "fine", "diameter of the screw")
    sums.then("W", wood.withdrawal_formula(screw).text, "line", "what each length holds")
    sums.given("C_D", duration, "ratio", "load duration")
    sums.then("W'", "W p C_D", "force", "what its thread holds")
    return make(
        "panel.batten_screws",
        part="panel",
        case=case,
        unknown=unknown,
        demand=sums.quantity("P_1", "pull"),
        capacity=sums.quantity("W'", "pull"),
        template="Each #8 screw of the panel in its top batten is pulled with {demand}; its "
        "thread holds {capacity}.",
        equations=sums.equations,
    )


def _short_enough(piece: Panel) -> Check:
    sums = Calculation()
    sums.given("L", piece.panel_screw_mm, "length", "length of a screw")
    sums.given("s", _BEHIND_MM, "fine", "it stops short by")
    sums.then("L_s", "L + s", "fine", "so deep")
    sums.given("t", piece.thickness_mm, "fine", "thickness of the panel")
    sums.given("b", piece.batten_mm, "fine", "thickness of the batten")
    sums.then("t_b", "t + b", "fine", "panel and batten")
    return make(
        "panel.behind",
        part="panel",
        case="any",
        demand=sums.quantity("L_s"),
        capacity=sums.quantity("t_b"),
        equations=sums.equations,
        template="The panel's screws must not come out behind: with room they need {demand}; "
        "panel and batten are {capacity}.",
    )


def _batten_over_box(piece: Panel, own: Box, wall: Wall) -> list[Check]:
    """Check that no batten runs across a box, which would be covered whatever is cut out.

    Nothing where none does.
    """
    low, half = piece.top_mm - piece.height_mm, _BATTEN_HIGH_MM / 2
    for box in covered(own, wall):
        middle, needed = (box.bottom_mm + box.top_mm) / 2, (box.top_mm - box.bottom_mm) / 2 + half
        apart = min(abs(low + up - middle) for up in rows_mm(piece))
        if apart < needed:
            check = make(
                "panel.batten_box",
                part="batten",
                case="any",
                demand=Quantity(needed, "length"),
                capacity=Quantity(max(apart, 1e-6), "length"),
                template="A batten runs across {what}: {demand} must lie between their middles, "
                "and {capacity} do.",
                parts={"what": box.row.reason},
            )
            return [check]
    return []


def _batten_bending(
    piece: Panel, demands: dict[int, tuple[Demand, ...]], unknown: tuple[str, ...]
) -> Check:
    """Check flatwise bending of the top batten, pulled out evenly between its screws."""
    row, span = data.boards()[_BATTEN], widest_mm(piece.length_mm, piece.supports_mm)
    where, apart = strips.bent_where(piece.length_mm, piece.supports_mm)
    pull, duration, case = _worst(piece, demands)
    sums = Calculation()
    sums.given("P", pull, "force", compose("pull on the top batten, {case}", case=case))
    sums.given("L", piece.length_mm, "length", "its length")
    sums.then("p", "P / L", "line", "pull along it")
    sums.given("l", span, "length", "widest gap between screws, or twice the overhang")
    sums.then("M", "p l² / 8", "moment", "bending")
    strength.write_flatwise(sums, _BATTEN_HIGH_MM, piece.batten_mm, "height of the batten")
    strength.write_bending(sums, row, duration)
    return make(
        "panel.batten_bending",
        part="batten",
        case=case,
        unknown=unknown,
        demand=sums.quantity("σ"),
        capacity=sums.quantity("σ'"),
        template="{where} the top batten uses {used} of the bending strength of {wood}.",
        parts={"where": Message(where, {"span": apart}), "wood": row.name},
        equations=sums.equations,
    )
