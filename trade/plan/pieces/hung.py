"""What hangs and is no shelf: cabinets, rails, panels, rows of cleats."""

from functools import lru_cache
from typing import Any, ClassVar

from trade import data
from trade.errors import PlanError
from trade.plan.hardware import OwnCleat
from trade.plan.item import between, known
from trade.plan.pieces.base import SHORTEST_MM, Made, Piece, weighed, wooden

_EDGE_MM = data.house("panel_edge_mm")
_NARROWEST_MM = data.house("panel_narrowest_mm")
_SAME = 1e-6


class Cabinet(Made, frozen=True, kw_only=True, tag="cleat_cabinet", tag_field="kind"):
    """A cabinet, box or mantel that hangs on a bevelled cleat. `body_kg`: empty; null: not weighed.

    `cleat`: a row of the boards table; `cleat_mm`, `cleat_high_mm`: of the half on the wall;
    `down_mm`: from the top of the piece to the top of that half; `bevel_deg`: of its top edge from
    level; `locked`: a screw or a block keeps it from being lifted off. `screws_each`: at each place
    one screw, as plugs in a wall have it, or two, one above the other. `back_mm`: wood of its back,
    or of a rail behind a thin one, under the heads of the screws that hold its own half;
    `below_mm`: how far its spacer reaches down below it, 0 where it ends with the body. `own`:
    flush metal cleats instead, one at each place; then `cleat` and its sizes count for nothing.
    `cut_out`: as of a panel's. `doors`: that cover the front of a body that is made.
    """

    height_mm: float
    body_kg: float | None
    cleat: str = "plywood"
    cleat_mm: float = 18.0
    cleat_high_mm: float = 80.0
    down_mm: float = 40.0
    bevel_deg: float = 45.0
    locked: bool = False
    screws_each: int = 2
    back_mm: float = 15.0
    below_mm: float = 0.0
    own: OwnCleat | None = None
    cut_out: bool = False
    doors: int = 0

    def __post_init__(self) -> None:
        """Refuse absurd cleats."""
        Made.__post_init__(self)
        self.has_inside(self.height_mm, self.doors > 0)
        between(self.back_mm, 2, 60, "back_mm", "Its back's thickness")
        between(self.below_mm, 0, 600, "below_mm", "How far its spacer reaches below it")
        if not 0 <= self.doors <= 8:
            raise PlanError("A cabinet has up to 8 doors.", "doors")
        between(self.height_mm, 60, 3000, "height_mm", "Its height")
        weighed(self.body_kg, "body_kg")
        wooden(self.cleat, "cleat")
        between(self.cleat_mm, 6, 60, "cleat_mm", "A cleat's thickness")
        between(self.cleat_high_mm, 30, 300, "cleat_high_mm", "A cleat's height")
        between(self.down_mm, 0, 500, "down_mm", "The cleat's place below the top")
        if self.screws_each not in (1, 2):
            raise PlanError("A cleat has one or two screws at each place.", "screws_each")
        if not 20 <= self.bevel_deg <= 60:
            raise PlanError("The bevel must be between 20 and 60 degrees.", "bevel_deg")
        if self.down_mm + self.half_mm > self.height_mm - 20:
            raise PlanError(
                "It is not high enough for the cleat and the spacer behind it.",
                "height_mm",
            )

    @property
    def under_heads_mm(self) -> float:
        """Wood under the heads of the screws that hold its own half.

        Of a body that is made: its back where that is as thick as asked for, else that and a rail
        of its boards before it.
        """
        if self.joint is None:
            return self.back_mm
        thick = self.panel_mm >= self.back_mm
        return self.panel_mm if thick else self.panel_mm + self.inner_mm

    @property
    def usual_out_mm(self) -> float:
        """In the middle of its depth; what is in drawers, by their height, further when pulled out.

        What is in drawers is taken as their share of its height.
        """
        return self.depth_mm / 2 + self.opens_mm * min(self.drawer_mm / self.height_mm, 1.0)

    @property
    def off_mm(self) -> float:
        """How far the cleat holds it off the wall."""
        return self.cleat_mm if self.own is None else self.own.off_mm

    @property
    def half_mm(self) -> float:
        """How high the half on the wall is."""
        return self.cleat_high_mm if self.own is None else self.own.high_mm

    @property
    def high_mm(self) -> float:
        """How high it is, seen from the front."""
        return self.height_mm


class Strip(Piece, frozen=True, kw_only=True):
    """What is on a strip along the wall.

    `joint_mm`: where two boards meet in it, from its left end; null: it is in one piece.
    """

    joint_mm: float | None = None

    def __post_init__(self) -> None:
        """Refuse joints beyond its ends or too near to one."""
        Piece.__post_init__(self)
        if self.joint_mm is None:
            return
        if not 0 < self.joint_mm < self.length_mm:
            raise PlanError("Its joint must lie between its ends.", "joint_mm")
        if min(self.joint_mm, self.length_mm - self.joint_mm) < SHORTEST_MM:
            raise PlanError("The joint is too close to an end: move it further in.", "joint_mm")

    @property
    def of_one_length(self) -> dict[str, Any]:
        """Fields that change when one of its two lengths is judged alone."""
        return {}


class Rail(Strip, frozen=True, kw_only=True, tag="rail", tag_field="kind"):
    """A board along the wall with hooks or brackets that move along it.

    Its things are what hangs there.

    `hook_kg`: what the packet says that one hook may carry; null: it says nothing;
    `hook_ultimate`: it says what one fails at.
    """

    height_mm: float
    thickness_mm: float
    board: str
    hook_kg: float | None = None
    hook_ultimate: bool = False

    def __post_init__(self) -> None:
        """Refuse absurd rails."""
        Strip.__post_init__(self)
        between(self.height_mm, 15, 600, "height_mm", "A rail's height")
        between(self.thickness_mm, 3, 80, "thickness_mm", "A rail's thickness")
        weighed(self.hook_kg, "hook_kg")
        wooden(self.board, "board")

    @property
    def tugged(self) -> bool:
        """Things are pulled off its hooks."""
        return True

    @property
    def usual_out_mm(self) -> float:
        """On the end of its hooks."""
        return self.depth_mm

    @property
    def high_mm(self) -> float:
        """How high it is, seen from the front."""
        return self.height_mm


class HolderBoard(Rail, frozen=True, kw_only=True, tag="holder_board", tag_field="kind"):
    """A board with clips, hangers or holders that spans two studs."""


class Panel(Strip, frozen=True, kw_only=True, tag="panel", tag_field="kind"):
    """Panels on the wall that things hang on: sheets, straight to the studs or on level battens.

    `panels`: so many side by side, `gap_mm` between them; `board`: of a sheet, a row of the boards
    table; `rows`: screws one above the other at each stud, or battens; `batten_mm`: their
    thickness, 0 for none; `panel_screws`: of each panel into each batten; `panel_screw_mm`: their
    length; `cut_out`: openings are cut out for the boxes that they cover; `hook_kg`,
    `hook_ultimate`: as of a rail's.
    """

    any_sheet: ClassVar[bool] = False
    thinnest_mm: ClassVar[float] = 3.0

    height_mm: float
    thickness_mm: float
    board: str
    rows: int = 3
    batten_mm: float = 0.0
    panel_screws: int = 4
    panel_screw_mm: float = 31.75
    cut_out: bool = False
    hook_kg: float | None = None
    hook_ultimate: bool = False
    panels: int = 1
    gap_mm: float = 0.0

    @property
    def of_one_length(self) -> dict[str, Any]:
        """One panel: the battens are judged, not the sheets."""
        return {"panels": 1}

    def __post_init__(self) -> None:
        """Refuse absurd panels."""
        Strip.__post_init__(self)
        between(self.height_mm, 100, 3000, "height_mm", "Its height")
        between(self.gap_mm, 0, 200, "gap_mm", "The gap between two panels")
        if not 1 <= self.panels <= 12:
            raise PlanError("From 1 to 12 panels hang side by side.", "panels")
        if self.panels > 1 and self.panel_mm < _NARROWEST_MM:
            raise PlanError("So many panels would each be narrower than a hand.", "panels")
        between(self.thickness_mm, self.thinnest_mm, 60, "thickness_mm", "Its thickness")
        weighed(self.hook_kg, "hook_kg")
        between(self.batten_mm, 0, 80, "batten_mm", "A batten's thickness")
        between(self.panel_screw_mm, 8, 150, "panel_screw_mm", "A screw's length")
        if not self.any_sheet:
            wooden(self.board, "board")
        if not 2 <= self.rows <= 8:
            raise PlanError("A panel needs 2 to 8 rows.", "rows")
        if not 2 <= self.panel_screws <= 40:
            raise PlanError("A batten can have 2 to 40 of the panel's screws.", "panel_screws")

    @property
    def panel_mm(self) -> float:
        """How wide one of the panels is."""
        return (self.length_mm - (self.panels - 1) * self.gap_mm) / self.panels

    @property
    def edges_mm(self) -> tuple[tuple[float, float], ...]:
        """Left and right edge of each panel, from its left end."""
        step = self.panel_mm + self.gap_mm
        return tuple((n * step, n * step + self.panel_mm) for n in range(self.panels))

    @property
    def rows_mm(self) -> tuple[float, ...]:
        """Heights of its rows above its lower edge, from the top down."""
        edge = min(_EDGE_MM, self.height_mm / 4)
        step = (self.height_mm - 2 * edge) / (self.rows - 1)
        return tuple(self.height_mm - edge - n * step for n in range(self.rows))

    @property
    def columns_mm(self) -> tuple[float, ...]:
        """Where a panel's own screws go in each batten, from the panel's left edge."""
        step = self.panel_mm / self.panel_screws
        return tuple((n + 0.5) * step for n in range(self.panel_screws))

    @property
    def net(self) -> float:
        """How much of the sheet is left where a row of holes weakens it: 1 where none does."""
        return 1.0

    @property
    def tugged(self) -> bool:
        """Things are pulled off its hooks."""
        return True

    @property
    def high_mm(self) -> float:
        """How high it is, seen from the front."""
        return self.height_mm


class PegWall(Panel, frozen=True, kw_only=True, tag="peg_wall", tag_field="kind"):
    """A perforated board or plywood with pegs.

    `peg`: a row of the boards table; `peg_mm`: thickness of a peg.

    `grid_mm`: from one hole to the next, along and up; large and small ones take turns.
    """

    peg: str = "maple"
    peg_mm: float = 12.7
    grid_mm: float = 100.0

    def __post_init__(self) -> None:
        """Refuse absurd pegs."""
        Panel.__post_init__(self)
        wooden(self.peg, "peg")
        between(self.peg_mm, 4, 40, "peg_mm", "A peg's thickness")
        between(
            self.grid_mm, max(15.0, 1.5 * self.peg_mm), 500, "grid_mm", "From one hole to the next"
        )

    @property
    def net(self) -> float:
        """How much of the sheet is left where a row of holes for pegs weakens it."""
        return 1.0 - self.peg_mm / self.grid_mm


class GridPanel(Panel, frozen=True, kw_only=True, tag="grid_panel", tag_field="kind"):
    """Panels bought with a grid of holes, which holders and their own screws go through.

    `hole_mm`: how wide a hole is; `pitch_mm`: from hole to hole, along and up; `edge_mm`: from a
    panel's left and upper edge to the first of them; `panel_kg`: what the packet says that one
    panel may carry; null: it says nothing; `panel_ultimate`: it says what one fails at.
    """

    any_sheet = True
    thinnest_mm = 0.5
    hole_mm: float = 6.35
    pitch_mm: float = 25.4
    edge_mm: float = 12.7
    panel_kg: float | None = None
    panel_ultimate: bool = False

    def __post_init__(self) -> None:
        """Refuse absurd grids."""
        Panel.__post_init__(self)
        known(data.boards(), self.board, "board", "board")
        weighed(self.panel_kg, "panel_kg")
        between(self.hole_mm, 2, 40, "hole_mm", "A hole")
        between(self.pitch_mm, 1.3 * self.hole_mm, 300, "pitch_mm", "From one hole to the next")
        between(self.edge_mm, self.hole_mm / 2 + 1, 300, "edge_mm", "The first hole from the edge")
        if min(self.panel_mm, self.height_mm) < 2 * self.edge_mm + self.pitch_mm:
            raise PlanError("A panel has no room for two rows of such holes.", "pitch_mm")
        if len(set(self.rows_mm)) < self.rows:
            raise PlanError("A panel has fewer rows of holes than that.", "rows")

    @property
    def of_one_length(self) -> dict[str, Any]:
        """One panel, with room for its holes however short the length is."""
        return {"panels": 1, "hole_mm": 2.0, "pitch_mm": 4.0, "edge_mm": 4.0}

    @property
    def holes_mm(self) -> tuple[float, ...]:
        """Every column of a panel's holes, from its left edge."""
        return _grid(self.panel_mm, self.edge_mm, self.pitch_mm)

    @property
    def hole_rows_mm(self) -> tuple[float, ...]:
        """Every row of its holes above its lower edge, from the top down."""
        down = _grid(self.height_mm, self.edge_mm, self.pitch_mm)
        return tuple(self.height_mm - each for each in down)

    @property
    def rows_mm(self) -> tuple[float, ...]:
        """Heights of the rows that are screwed: those of its holes that are nearest."""
        wished = Panel.rows_mm.__get__(self)
        return tuple(min(self.hole_rows_mm, key=lambda row: abs(row - each)) for each in wished)

    @property
    def columns_mm(self) -> tuple[float, ...]:
        """The columns of holes for its own screws, spread from the first to the last."""
        holes = self.holes_mm
        step = (len(holes) - 1) / (self.panel_screws - 1)
        return tuple(dict.fromkeys(holes[round(n * step)] for n in range(self.panel_screws)))

    @property
    def over_joint_mm(self) -> float:
        """From the last hole of a panel to the first of the next."""
        return self.panel_mm - self.holes_mm[-1] + self.gap_mm + self.edge_mm

    @property
    def net(self) -> float:
        """How much of the sheet is left where a row of holes weakens it."""
        return 1.0 - self.hole_mm / self.pitch_mm

    def nearest_hole_mm(self, x_mm: float) -> float:
        """Return the column of holes nearest to a place, both from its left end."""
        columns = (left + hole for left, _ in self.edges_mm for hole in self.holes_mm)
        return min(columns, key=lambda column: abs(column - x_mm))


@lru_cache(maxsize=64)
def _grid(size_mm: float, edge_mm: float, pitch_mm: float) -> tuple[float, ...]:
    """Return the holes along one side of a panel, as many as keep clear of its far edge."""
    count = int((size_mm - 2 * edge_mm) / pitch_mm + _SAME) + 1
    return tuple(edge_mm + n * pitch_mm for n in range(count))


class CleatWall(Strip, frozen=True, kw_only=True, tag="cleat_wall", tag_field="kind"):
    """Rows of bevelled cleats that carry movable holders; its things are what one row carries.

    `cleat`, `cleat_mm`, `cleat_high_mm`, `bevel_deg`: as of a cabinet's; `rows` of them, `apart_mm`
    from one to the next; `holder_mm`: height of the lowest holder, from its bevel down to its foot;
    `screws_each`: at each place, as of a cabinet's; `hook_kg`: what one holder may carry; null:
    nobody has said; `hook_ultimate`: as of a rail's.
    """

    cleat: str = "plywood"
    cleat_mm: float = 18.0
    cleat_high_mm: float = 75.0
    bevel_deg: float = 45.0
    rows: int = 3
    apart_mm: float = 200.0
    holder_mm: float = 120.0
    screws_each: int = 2
    hook_kg: float | None = None
    hook_ultimate: bool = False

    def __post_init__(self) -> None:
        """Refuse absurd cleats."""
        Strip.__post_init__(self)
        wooden(self.cleat, "cleat")
        between(self.cleat_mm, 6, 60, "cleat_mm", "A cleat's thickness")
        between(self.cleat_high_mm, 30, 300, "cleat_high_mm", "A cleat's height")
        between(
            self.apart_mm, self.cleat_high_mm + 20, 1000, "apart_mm", "From one cleat to the next"
        )
        between(self.holder_mm, 20, 1000, "holder_mm", "A holder's height")
        weighed(self.hook_kg, "hook_kg")
        if self.screws_each not in (1, 2):
            raise PlanError("A cleat has one or two screws at each place.", "screws_each")
        if not 20 <= self.bevel_deg <= 60:
            raise PlanError("The bevel must be between 20 and 60 degrees.", "bevel_deg")
        if not 1 <= self.rows <= 12:
            raise PlanError("A cleat wall has 1 to 12 rows.", "rows")

    @property
    def high_mm(self) -> float:
        """From the top of the highest cleat to the foot of the lowest."""
        return (self.rows - 1) * self.apart_mm + self.cleat_high_mm
