"""Panels bought with a grid of holes: hardboard, plywood, moulded or steel, side by side."""

from collections.abc import Iterator
from contextlib import suppress
from typing import Any, ClassVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Assumption, Check, Message, Placeholders, make
from trade.errors import PlanError
from trade.load.line import unweighed
from trade.measure import G_N_PER_KG, Units
from trade.mounts import hooks, panel_screws, stated
from trade.mounts.base import Ask, Part, Shape, block
from trade.mounts.panel import Panelled
from trade.mounts.work import Detail
from trade.plan.model import GridPanel, Wall

_OFF_MM = data.house("hole_off_mm")
_SHEETS = ("hardboard", "plywood", "moulded", "steel_sheet")
_TOUCHING_MM = 1e-6
_NOUN = "panel"


class _GridPanel(Panelled[GridPanel]):
    kind = "grid_panel"
    name = "Panels with a grid of holes"
    piece_noun = "panels"
    make = GridPanel
    asks = (
        *(ask for ask in Panelled.asks if ask.field != "board"),
        Ask("board", "Panels of", "choice", lambda: {k: data.boards()[k] for k in _SHEETS}),
        Ask("hole_mm", "A hole, wide", "length"),
        Ask("pitch_mm", "From hole to hole", "length"),
        Ask("edge_mm", "First hole from the edge", "length"),
        *hooks.asks("holder"),
        *stated.asks("panel", _NOUN, "Empty: the sums decide."),
    )
    fresh: ClassVar[dict[str, Any]] = {
        "board": "hardboard",
        "length_mm": 1219.2,
        "height_mm": 609.6,
        "thickness_mm": 6.35,
        "depth_mm": 120.0,
        "batten_mm": 19.0,
        "panel_screw_mm": 25.0,
        "panels": 2,
    }

    def checks(self, piece: GridPanel, wall: Wall) -> list[Check]:
        """Those of any panel, and whether its screws meet and fit its holes.

        What a packet states of a panel counts instead of the sum of its sheet.
        """
        found = super().checks(piece, wall)
        if piece.panel_kg is not None:
            found = [check for check in found if check.code != "panel.sheet"]
        if len(found) > 1:
            found += [_fits(piece), *_at_holes(piece), *_runs_on(piece), *_rated(piece)]
        return found

    def landed(self, piece: GridPanel, wall: Wall) -> GridPanel:
        """Return it with its screws where it has holes, where it goes straight to the studs."""
        if piece.batten_mm:
            return piece
        at = sorted({piece.nearest_hole_mm(x) for x in piece.supports_mm})
        with suppress(PlanError):  # two studs may share one column of holes
            return replace(piece, supports_mm=tuple(at))
        return piece

    def parts(self, piece: GridPanel, wall: Wall) -> list[Part]:
        """Return the panels, which are bought, and their battens."""
        row = data.boards()[piece.board]
        litres = piece.panel_mm * piece.height_mm * piece.thickness_mm / 1e6
        panels = Part("panel", row.name, piece.panels, price=litres * row.price)
        return [*self.battens(piece), panels, *self.rings(piece, wall)]

    def details(self, piece: GridPanel, wall: Wall, units: Units) -> dict[str, Detail]:
        """Return the battens bored for their screws; panels have their holes."""
        found = super().details(piece, wall, units)
        return {name: detail for name, detail in found.items() if name != "sheet"}

    def front(self, piece: GridPanel) -> list[Shape]:
        """Return the panels, each row of holes, the battens behind."""
        left, low, half = piece.left_mm, piece.top_mm - piece.height_mm, piece.hole_mm / 2
        rows = [
            block(
                "holes",
                left + start + piece.holes_mm[0] - half,
                low + up - half,
                left + start + piece.holes_mm[-1] + half,
                low + up + half,
            )._replace(every_mm=piece.pitch_mm)
            for start, _ in piece.edges_mm
            for up in piece.hole_rows_mm
        ]
        sheets, rest = super().front(piece)[: piece.panels], super().front(piece)[piece.panels :]
        return [*sheets, *rows, *rest]

    def cures(self, piece: GridPanel, units: Units) -> Iterator[tuple[str, Message, GridPanel]]:
        """Yield a gap with which the grid runs on, and what mends any panel."""
        gap = piece.gap_mm + piece.pitch_mm - piece.over_joint_mm
        if piece.panels > 1 and gap >= -_TOUCHING_MM and abs(gap - piece.gap_mm) > _OFF_MM:
            longer = piece.length_mm + (piece.panels - 1) * (gap - piece.gap_mm)
            said: Placeholders = {"gap": Quantity(max(gap, 0.0), "fine")}
            with suppress(PlanError):
                yield (
                    "gap",
                    Message("{gap} between the panels", said),
                    replace(piece, gap_mm=max(gap, 0.0), length_mm=longer),
                )
        yield from super().cures(piece, units)

    def takes(self, piece: GridPanel, field: str, size: float) -> bool:
        """Battens may come under it where it is straight on the studs; else as any panel."""
        return field == "batten_mm" or super().takes(piece, field, size)

    def assumes(self, piece: GridPanel) -> tuple[Assumption, ...]:
        """Return that its holders carry what hangs on them."""
        return hooks.assumed(piece, "holder")

    def cautions(self, piece: GridPanel, wall: Wall) -> list[Message]:
        """Return what a holder may carry between rows; washers; how the next panel is set."""
        carries: Placeholders = {
            "kg": Quantity(panel_screws.holder_kg(piece), "mass"),
            "out": Quantity(piece.depth_mm, "length"),
        }
        found = [
            *super().cautions(piece, wall),
            Message(
                "Between its rows of screws the sheet lets one holder carry {kg}, {out} out: hang "
                "what is heavier at a row of screws.",
                carries,
            ),
        ]
        screw = data.screws()[panel_screws.light(piece) if piece.batten_mm else piece.screw]
        if screw.head_mm < piece.hole_mm + _OFF_MM:
            found.append(
                Message("Its holes are as wide as the screws' heads: a washer under each.")
            )
        if piece.panels > 1:
            found.append(
                Message(
                    "Hang the first panel level; put a holder through the holes on both sides of a "
                    "joint before the next panel's screws go in."
                )
            )
        return found


KIND = _GridPanel()


def _screw_key(piece: GridPanel) -> str:
    """Return which screw goes through the holes."""
    return panel_screws.light(piece) if piece.batten_mm else piece.screw


def _fits(piece: GridPanel) -> Check:
    """Check that the screw goes through a hole."""
    screw = data.screws()[_screw_key(piece)]
    return make(
        "grid.fits",
        part="panel",
        case="any",
        demand=Quantity(screw.diameter_mm, "fine"),
        capacity=Quantity(piece.hole_mm, "fine"),
        template="The panel's screw is {demand} thick; its holes are {capacity}.",
    )


def _at_holes(piece: GridPanel) -> list[Check]:
    """Check that every screw into the studs has a hole to go through; on battens it has."""
    if piece.batten_mm:
        return []
    off = max(abs(piece.nearest_hole_mm(x) - x) for x in piece.supports_mm)
    return [
        make(
            "grid.hole",
            part="panel",
            case="any",
            demand=Quantity(off, "fine"),
            capacity=Quantity(_OFF_MM, "fine"),
            template="A screw into a stud is {demand} from the nearest hole of its panel: shift "
            "the panel, or use battens.",
        )
    ]


def _runs_on(piece: GridPanel) -> list[Check]:
    """Check that holders fit across a joint: the grid runs on there."""
    if piece.panels == 1:
        return []
    sums = Calculation()
    sums.given("r", piece.over_joint_mm, "fine", "from hole to hole across a joint")
    sums.given("p", piece.pitch_mm, "fine", "from hole to hole")
    sums.given("o_h", _OFF_MM, "fine", "a holder minds no less")
    off = sums.then("o", "max(r − p, p − r)", "fine", "out of step by")
    said = "The grid runs on over the joints: {across} from hole to hole."
    if off > _OFF_MM:
        said = "Over a joint the holes are {across} apart, elsewhere {pitch}: no holder spans it."
    return [
        make(
            "grid.joint",
            part="panel",
            case="any",
            demand=sums.quantity("o"),
            capacity=sums.quantity("o_h"),
            equations=sums.equations,
            template=said,
            parts={
                "across": Quantity(piece.over_joint_mm, "fine"),
                "pitch": Quantity(piece.pitch_mm, "fine"),
            },
        )
    ]


def _rated(piece: GridPanel) -> list[Check]:
    """Check what hangs on one panel against what its packet states; nothing where it says none."""
    if piece.panel_kg is None:
        return []
    sums, use = Calculation(), data.uses()[piece.use]
    most = max(
        sum(thing.mass_kg or 0.0 for thing in panel.things) for panel in panel_screws.singly(piece)
    )
    sums.given("W_1", most * G_N_PER_KG, "force", "what hangs on the panel that carries most")
    sums.given("f", use.factor, "ratio", "use factor")
    sums.then("W", "f W_1", "force")
    stated.write(sums, piece.panel_kg, piece.panel_ultimate, "W_r")
    return [
        make(
            "grid.rated",
            part="panel",
            case="loaded, for years",
            unknown=unweighed(piece),
            demand=sums.quantity("W", "pull"),
            capacity=sums.quantity("W_r", "pull"),
            template="One panel carries {demand}; by its packet it may carry {capacity}.",
            equations=sums.equations,
        )
    ]
