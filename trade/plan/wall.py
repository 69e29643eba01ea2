"""The wall of a plan: what was said and found of it."""

import math
from datetime import date
from typing import Literal

import msgspec

from trade import data
from trade.errors import PlanError
from trade.language import Figure, compose
from trade.measure import ABSURD_MM
from trade.plan.features import Feature
from trade.plan.flatness import Flatness
from trade.plan.item import Key, Name, PlanItem, between, known
from trade.plan.readings import Reading


class Stud(PlanItem, frozen=True, kw_only=True):
    """An upright in the wall.

    `uncertainty_mm`: how far the centre may lie to either side; null when nobody knows.
    """

    centre_mm: float
    width_mm: float = 38.0
    depth_mm: float = 89.0
    uncertainty_mm: float | None = 3.0

    def __post_init__(self) -> None:
        """Refuse what is no stud."""
        between(self.centre_mm, 0, ABSURD_MM, "centre_mm", "A stud's centre")
        between(self.width_mm, 20, 200, "width_mm", "A stud's width")
        between(self.depth_mm, 20, 400, "depth_mm", "A stud's depth")
        between(self.uncertainty_mm, 0, 300, "uncertainty_mm", "How far a stud may be off")


class Layer(PlanItem, frozen=True, kw_only=True):
    """A layer of the lining, from the room inwards. `kind` is a row of the linings table."""

    kind: str
    thickness_mm: float

    def __post_init__(self) -> None:
        """Refuse what is no lining."""
        known(data.linings(), self.kind, "lining", "kind")
        between(self.thickness_mm, 1, 150, "thickness_mm", "A layer's thickness")


class Covering(PlanItem, frozen=True, kw_only=True):
    """A layer that goes onto the wall later: a row of the linings table; `on`: null: some day."""

    kind: str
    thickness_mm: float
    on: date | None = None

    def __post_init__(self) -> None:
        """Refuse what is no lining."""
        known(data.linings(), self.kind, "lining", "kind")
        between(self.thickness_mm, 1, 150, "thickness_mm", "A covering's thickness")


class Packet(PlanItem, frozen=True, kw_only=True):
    """An anchor out of a packet.

    What its packet states, N, in one base (a row of the linings or the structures table).

    `states`: whether the packet gives the load at which it fails or the one that it may carry.
    `found`: where that was read.
    """

    key: Key
    name: Name
    base: str
    pull_n: float
    shear_n: float
    states: Literal["ultimate", "allowable"]
    found: Name
    screw_mm: float = 5.0
    hole_mm: float = 8.0
    depth_mm: float = 50.0

    def __post_init__(self) -> None:
        """Refuse what no anchor is."""
        if self.base not in data.linings() and self.base not in data.structures():
            raise PlanError(
                compose(
                    "“{base}” is not a lining or a structure that Gancho knows.", base=self.base
                ),
                "base",
            )
        for value, where in ((self.pull_n, "pull_n"), (self.shear_n, "shear_n")):
            if not (math.isfinite(value) and 1 <= value <= 50_000):
                raise PlanError("What a packet states must lie between 0.1 and 5 000 kg.", where)
        between(self.screw_mm, 2, 16, "screw_mm", "A screw's diameter")
        between(self.hole_mm, 0, 25, "hole_mm", "A hole's diameter")
        between(self.depth_mm, 5, 200, "depth_mm", "A hole's depth")
        if self.key in data.anchors():
            raise PlanError(
                compose("“{key}” is already the name of an anchor class.", key=self.key), "key"
            )

    @property
    def anchor(self) -> data.Anchor:
        """The same as a row of the anchors table.

        A quarter of what is stated as ultimate, half for good in linings.
        """
        share = 1 / data.house("packet_safety") if self.states == "ultimate" else 1.0
        creeps = self.base in data.linings()
        return data.Anchor(
            source=compose("packet: {found}", found=self.found),
            name=self.name,
            price=1.0,
            kind="packet",
            screw_mm=self.screw_mm,
            head_mm=2 * self.screw_mm,
            hole_mm=self.hole_mm,
            through_mm=self.screw_mm,
            depth_mm=self.depth_mm,
            behind_mm=self.depth_mm if creeps else 0.0,
            edge_mm=50.0,
            spacing_mm=75.0,
            give_mm=1.0 if creeps else 0.3,
            lasting=0.5 if creeps else 1.0,
            holds_n={self.base: data.Holds(pull=self.pull_n * share, shear=self.shear_n * share)},
        )


_MOST = (
    (200, "things on one wall besides its studs", "features"),
    (2_000, "readings of one wall", "readings"),
    (200, "studs in one wall", "studs"),
    (50, "packets on one wall", "packets"),
    (5, "coverings to come on one wall", "coming"),
)


class Wall(PlanItem, frozen=True, kw_only=True, cache_hash=True):
    """A wall. `layers`: null when unknown, empty for none.

    `structure`: a row of the structures table, what stands behind them.

    `timber`: of timber studs, a row of the framing table. Both null when unknown. `clues`: rows of
    their table, what was noticed. `packets`: anchors of the person's own. `design_code`: whose
    practice judges screws in timber. `studs`: what is counted on; `readings`: what was found out,
    as taken. Taking studs from readings is the person's word. `coming`: what goes onto it later,
    the nearest to the room last; `climate`: a row of the climates table, what room it is in; null:
    a heated one.
    """

    width_mm: float
    height_mm: float
    layers: tuple[Layer, ...] | None = None
    structure: str | None = "timber"
    clues: tuple[str, ...] = ()
    timber: str | None = None
    studs: tuple[Stud, ...] = ()
    readings: tuple[Reading, ...] = ()
    features: tuple[Feature, ...] = ()
    packets: tuple[Packet, ...] = ()
    design_code: Literal["american", "european"] = msgspec.field(default="american", name="school")
    flatness: Flatness = msgspec.field(default=Flatness(), name="lie")
    coming: tuple[Covering, ...] = ()
    climate: str | None = None

    def __post_init__(self) -> None:
        """Refuse absurd sizes and studs outside the wall."""
        between(self.width_mm, 100, ABSURD_MM, "width_mm", "A wall's width")
        between(self.height_mm, 100, ABSURD_MM, "height_mm", "A wall's height")
        if self.timber is not None:
            known(data.framing(), self.timber, "stud timber", "timber")
        if self.structure is not None:
            known(data.structures(), self.structure, "structure", "structure")
        if self.climate is not None:
            known(data.climates(), self.climate, "climate", "climate")
        for clue in self.clues:
            known(data.clues(), clue, "clue", "clues")
        for i, stud in enumerate(self.studs):
            if stud.centre_mm > self.width_mm:
                raise PlanError(
                    compose(
                        "A stud at {centre} mm lies outside the wall, which is {width} mm wide.",
                        centre=Figure(f"{stud.centre_mm:.6g}"),
                        width=Figure(f"{self.width_mm:.6g}"),
                    ),
                    f"studs[{i}].centre_mm",
                )
        if len({stud.centre_mm for stud in self.studs}) != len(self.studs):
            raise PlanError("Two studs stand at the same place.", "studs")
        for i, feature in enumerate(self.features):
            if feature.right_mm > self.width_mm + 0.05 or feature.top_mm > self.height_mm + 0.05:
                raise PlanError(
                    compose("A {row} reaches beyond the wall.", row=feature.row.name),
                    f"features[{i}]",
                )
        if len({packet.key for packet in self.packets}) != len(self.packets):
            raise PlanError("Two packets have the same key.", "packets")
        for most, said, where in _MOST:
            if len(getattr(self, where)) > most:
                raise PlanError(
                    compose(
                        "More than {most} {said}.", most=Figure(f"{most:,}"), said=said
                    ).replace(",", " "),
                    where,
                )

    @property
    def build(self) -> Literal["timber", "steel", "mass", "unknown"]:
        """What kind of structure stands behind the linings."""
        return "unknown" if self.structure is None else data.structures()[self.structure].kind

    @property
    def uprights(self) -> tuple[Stud, ...]:
        """The studs that can be counted on.

        None in masonry, whatever was noted before that was known.
        """
        return () if self.build == "mass" else self.studs

    @property
    def openings(self) -> tuple[Feature, ...]:
        """Doors and windows."""
        return tuple(feature for feature in self.features if feature.row.framed)

    @property
    def lining_mm(self) -> float | None:
        """Thickness of all layers together; None when unknown."""
        return None if self.layers is None else sum(layer.thickness_mm for layer in self.layers)
