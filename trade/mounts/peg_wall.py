"""A perforated board or plywood peg wall: a panel whose things hang on pegs in short holes."""

from typing import Any, ClassVar, NamedTuple

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, Message, Placeholders, make
from trade.fixings import driving, wood
from trade.language import compose
from trade.load.line import contents_of, unweighed
from trade.load.push import push_of
from trade.measure import Units
from trade.memo import memoized
from trade.mounts import strength
from trade.mounts.base import Ask, Box, Part, Shape, around, block, cut_dowel
from trade.mounts.hanging import Hanging, do
from trade.mounts.panel import Panelled, on_panels
from trade.mounts.work import Bored, Detail
from trade.plan.model import PegWall, Wall
from trade.plan.policy import Policy

_TUG = "a tug at what hangs there"
_REDUCED = data.house("peg_reduction")
_SMALL = data.house("small_hole_share")
_CLEAR_MM = data.house("peg_clear_mm")


class _PegWall(Panelled[PegWall]):
    kind = "peg_wall"
    name = "Peg wall"
    piece_noun = "peg wall"
    make = PegWall
    asks = (
        *Panelled.asks,
        Ask("peg", "Pegs of", "choice", data.woods, cure="peg"),
        Ask("peg_mm", "Pegs thick", "length"),
        Ask("grid_mm", "From hole to hole", "length"),
    )
    fresh: ClassVar[dict[str, Any]] = {
        "board": "plywood",
        "length_mm": 1000.0,
        "height_mm": 800.0,
        "thickness_mm": 18.0,
        "depth_mm": 90.0,
        "batten_mm": 19.0,
        "panel_screw_mm": 35.0,
        "use": "display",
        "peg_mm": 16.0,
    }

    def checks(self, piece: PegWall, wall: Wall) -> list[Check]:
        """Those of a panel, and a peg in its hole."""
        return [*super().checks(piece, wall), *_peg(piece)]

    def room(self, piece: PegWall) -> int:
        """One peg in each large hole."""
        found = grid(piece)
        return sum(found.large(i, j) for i, j in found.places)

    def parts(self, piece: PegWall, wall: Wall) -> list[Part]:
        """Those of a panel, and a peg for each thing."""
        out = piece.depth_mm + piece.thickness_mm
        pegs = max(len(piece.things), 1)
        return [*super().parts(piece, wall), cut_dowel("peg", piece.peg, pegs, out, piece.peg_mm)]

    def details(self, piece: PegWall, wall: Wall, units: Units) -> dict[str, Detail]:
        """Those of a panel, and the grid: a large and a small hole in turns."""
        found, holes = super().details(piece, wall, units), grid(piece)

        def bored(large: bool, wide: float, why: str) -> Bored:
            places = tuple(
                (holes.left_mm + i * piece.grid_mm, holes.foot_mm + j * piece.grid_mm)
                for i, j in holes.places
                if holes.large(i, j) == large
            )
            return Bored("its face", places, driving.drill_at_least_mm(wide, units), None, why)

        pegs = (
            bored(True, piece.peg_mm, "for pegs"),
            bored(False, piece.peg_mm * _SMALL, "for light pegs and hooks"),
        )
        return found | {
            "sheet": found["sheet"]._replace(
                works=(*found["sheet"].works, *on_panels(piece, pegs))
            ),
            "peg": Detail(wall="one end eased; tried in a scrap hole first"),
        }

    def front(self, piece: PegWall) -> list[Shape]:
        """Return the sheet with its holes."""
        low, found = piece.top_mm - piece.height_mm, grid(piece)
        pegs = [
            block("door", x - half, y - half, x + half, y + half)
            for i, j in found.places
            for half in ((piece.peg_mm if found.large(i, j) else piece.peg_mm * _SMALL) / 2,)
            for x, y in (
                (
                    piece.left_mm + found.left_mm + i * piece.grid_mm,
                    low + found.foot_mm + j * piece.grid_mm,
                ),
            )
        ]
        return [*super().front(piece), *pegs]

    def box(self, piece: PegWall) -> Box:
        """Return the sheet's: all its holes are inside."""
        return around(super().front(piece))

    def hanging(self, piece: PegWall, wall: Wall, policy: Policy) -> Hanging:
        """As any panel, then its pegs."""
        pegs = do(
            "pegs",
            "Set the pegs",
            "A push and a turn; one that is loose gets a wider one, not glue.",
        )
        up = super().hanging(piece, wall, policy)
        return up._replace(after=(*up.after, pegs))

    def cautions(self, piece: PegWall, wall: Wall) -> list[Message]:
        """Return what people get wrong with peg walls."""
        found = grid(piece)
        large = sum(found.large(i, j) for i, j in found.places)
        sizes: Placeholders = {
            "across": found.across,
            "rows": found.up,
            "grid": Quantity(piece.grid_mm, "length"),
            "left": Quantity(found.left_mm, "length"),
            "up": Quantity(found.foot_mm, "length"),
            "large": large,
            "small": len(found.places) - large,
        }
        said = (
            "Grid of {across} by {rows} holes, {grid} apart, the first {left} from the left edge "
            "and {up} up: {large} large and {small} small, taking turns; their bits are in the "
            "cut list."
        )
        tried = "Mark the grid first; try every peg in a scrap hole before drilling hundreds."
        return [*super().cautions(piece, wall), Message(said, sizes), Message(tried)]


KIND = _PegWall()


class Grid(NamedTuple):
    """A peg wall's holes.

    How many along and up, and where the first one is, from the left end and the foot, mm. It runs
    on over the joints of panels; `joints`: the columns that a joint leaves out.
    """

    across: int
    up: int
    left_mm: float
    foot_mm: float
    joints: tuple[int, ...] = ()

    @property
    def places(self) -> list[tuple[int, int]]:
        """Every hole by its number along and up."""
        columns = [i for i in range(self.across) if i not in self.joints]
        return [(i, j) for i in columns for j in range(self.up)]

    def large(self, i: int, j: int) -> bool:
        """Whether a hole is one of the large ones, which take turns with the small."""
        return (i + j) % 2 == 0


@memoized(limit=64)
def grid(piece: PegWall) -> Grid:
    """Return the grid centred on the sheet, moved where a row would hit the batten screws."""
    step = piece.grid_mm
    across, up = max(int(piece.length_mm // step), 1), max(int(piece.height_mm // step), 1)
    left = (piece.length_mm - (across - 1) * step) / 2
    middle = (piece.height_mm - (up - 1) * step) / 2
    clear, screws = piece.peg_mm / 2 + _CLEAR_MM, piece.rows_mm

    def crossed(foot: float) -> int:
        return sum(abs(foot + j * step - screw) < clear for j in range(up) for screw in screws)

    spare = max(middle - piece.peg_mm, 0.0)
    shifts = sorted((sign * n * spare / 8 for n in range(9) for sign in (1, -1)), key=abs)
    foot = min((middle + shift for shift in shifts), key=crossed)
    edges = [edge for pair in piece.edges_mm for edge in pair]
    joints = tuple(
        i
        for i in range(across)
        if any(abs(left + i * step - edge) < clear for edge in edges[1:-1])
        or not any(a < left + i * step < b for a, b in piece.edges_mm)
    )
    return Grid(across, up, left, foot, joints)


def _peg(piece: PegWall) -> list[Check]:
    """One peg with the heaviest single thing, or a tug; a shelf lies on two.

    Things all along hang on a peg every grid step.
    """
    peg, sheet, use = data.boards()[piece.peg], data.boards()[piece.board], data.uses()[piece.use]
    loads, outs = contents_of(piece)
    shelf = data.house("peg_shelf_mm")
    each = [
        (
            load.total_n
            * (
                min(piece.grid_mm / spread, 1.0)
                if (spread := load.end_mm - load.start_mm) > 0
                else 0.5
                if out > shelf
                else 1.0
            ),
            out,
        )
        for load, out in zip(loads, outs, strict=True)
    ]
    tug = push_of(piece).n * (0.5 if any(out > shelf for out in outs) else 1.0)
    lasting = max((force * use.factor * out for force, out in each), default=0.0)
    weight = max((force * use.factor for force, _ in each), default=0.0)
    years, minutes = data.house("duration_years"), data.house("duration_minutes")
    moment, force, duration, case = max(
        (
            (lasting, weight, years, "loaded, for years"),
            (max(lasting, tug * piece.depth_mm), max(weight, tug), minutes, _TUG),
        ),
        key=lambda c: c[0] / c[2],
    )
    unknown = unweighed(piece)
    bent, pried = Calculation(), Calculation()
    bent.given("M", moment, "moment", compose("weight × how far out it hangs, {case}", case=case))
    strength.write_round(bent, piece.peg_mm, "peg")
    strength.write_bending(bent, peg, duration)
    pried.given("M", moment, "moment", compose("about the sheet's face, {case}", case=case))
    pried.given("V", force, "force", "weight on the peg")
    pried.given("t", piece.thickness_mm, "fine", "depth of its hole")
    pried.given("d", piece.peg_mm, "fine", "peg")
    pried.then("p", "(6 (M + V t/2) / t² + V / t) / d", "stress", "pressed with")
    pried.given("G", sheet.g, "ratio", compose("specific gravity of {sheet}", sheet=sheet.name))
    pried.given("D", max(piece.peg_mm, wood.QUARTER_INCH_MM), "fine", "peg, as a bolt")
    pried.then("F_e", wood.BEARING_ACROSS.text, "stress", "dowel bearing across the grain")
    pried.given("R_d", _REDUCED, "ratio", "reduction term")
    pried.given("C_D", duration, "ratio", "load duration")
    pried.then("p'", "F_e C_D / R_d", "stress", "it may be pressed with")
    return [
        make(
            "peg.bending",
            part="peg",
            case=case,
            unknown=unknown,
            demand=bent.quantity("σ"),
            capacity=bent.quantity("σ'"),
            template="At the sheet's face a peg uses {used} of the bending strength of {wood}.",
            parts={"wood": peg.name},
            equations=bent.equations,
        ),
        make(
            "peg.socket",
            part="peg",
            case=case,
            unknown=unknown,
            demand=pried.quantity("p"),
            capacity=pried.quantity("p'"),
            template="In its hole a peg uses {used} of the bearing strength of {wood}.",
            parts={"wood": sheet.name},
            equations=pried.equations,
        ),
    ]
