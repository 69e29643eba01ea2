"""Fifteen everyday set-ups.

What each carries by the sums, beside what people commonly trust it with.
"""

from typing import Any, NamedTuple

from msgspec.structs import replace

from trade import data
from trade.assess import assess_piece
from trade.choose import placement
from trade.choose.cures import most
from trade.choose.samples import sample_wall
from trade.data.rows import Everyday, Limit
from trade.language import Figure, compose
from trade.measure import POUND_KG
from trade.plan.model import AnyPiece, Plan, Stud, Thing, Wall

_UP_TO = 40.0  # times what people trust it with: further nobody asks
_CLOSET_STUDS_MM = (30.0, 400.0, 800.0, 1170.0)


class Setup(NamedTuple):
    """One set-up: its row, its wall, and the piece with what people trust it with on it."""

    row: Everyday
    wall: Wall
    piece: AnyPiece

    @property
    def carries_kg(self) -> float:
        """What it carries by the sums so that its strength holds, spread as there."""
        return self._most(("strength",))

    @property
    def pleases_kg(self) -> float:
        """The same so that nothing sags, droops, wobbles or is dented by it."""
        return min(self._most(("strength", "service")), self.carries_kg)

    @property
    def weakest(self) -> str:
        """What uses its strength most with what people trust it with on it."""
        found = assess_piece(self.piece, self.wall).weakest
        return found.name.lower() if found is not None else ""

    def _most(self, counted: tuple[Limit, ...]) -> float:
        plan = Plan(name="Wall", units="metric", wall=self.wall, pieces=(self.piece,))
        return self.row.trusted_kg * most(self.piece, plan, _UP_TO, counted)


def setups() -> tuple[Setup, ...]:
    """Each row of the table as a piece on its wall."""
    return tuple(_put_up(row) for row in data.everyday().values())


def _put_up(row: Everyday) -> Setup:
    wall = _wall(row.wall)
    piece: Any = placement.put_up(
        Plan(name="Wall", units="metric", wall=wall), row.kind, 1600.0, 1500.0
    )
    changes = {
        key: tuple(value) if isinstance(value, list) else value for key, value in row.piece.items()
    }
    return Setup(
        row,
        wall,
        replace(piece, things=(Thing(name="What it carries", mass_kg=row.trusted_kg),), **changes),
    )


def _wall(key: str) -> Wall:
    """Gypsum board on spruce studs; the same in a closet 1 200 mm wide; bare brick."""
    if key == "closet":
        return replace(
            sample_wall(),
            width_mm=1200.0,
            studs=tuple(Stud(centre_mm=x, uncertainty_mm=1.0) for x in _CLOSET_STUDS_MM),
        )
    if key == "brick":
        return replace(sample_wall(), structure="brick_solid", layers=(), timber=None, studs=())
    return sample_wall()


def chapter() -> str:
    """Return the handbook's chapter: the set-ups with both weights."""
    lines = [
        "# Fifteen everyday set-ups",
        "",
        "Printed by `python -m trade everyday`; do not edit by hand. What each carries by the "
        "sums, spread over it: for its",
        "strength, with the margins of [the rules](rules.md) and the push of its use; and so that "
        "nothing sags, droops, wobbles",
        "or is dented. Beside it what people commonly trust it with (common practice, no source). "
        "On gypsum board over spruce",
        "studs at 400 mm, unless it says brick.",
        "",
        "| set-up | use | strength | looks and feel | used most | commonly trusted with | |",
        "| --- | --- | --- | --- | --- | --- | --- |",
    ]
    for setup in setups():
        row, use = setup.row, data.uses()[setup.piece.use].name.split(",")[0].split(":")[0]
        weights = [_both(kg) for kg in (setup.carries_kg, setup.pleases_kg)]
        cells = [row.name, use, *weights, setup.weakest, _both(row.trusted_kg), row.known]
        lines.append(f"| {' | '.join(cells)} |")
    return "\n".join(lines)


def _both(kg: float) -> str:
    return compose(
        "{kg} kg ({lb} lb)", kg=Figure(f"{kg:.0f}"), lb=Figure(f"{kg / float(POUND_KG):.0f}")
    )
