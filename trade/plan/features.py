"""What is on a wall or in it besides studs: doors, outlets, pipes, radiators, trim, old holes."""

import math

import msgspec

from trade import data
from trade.errors import PlanError, UnknownRowError
from trade.language import Figure, compose
from trade.measure import ABSURD_MM


class Feature(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A rectangle on the wall, mm from the left corner and the floor.

    `kind`: a row of the features table. `to_fit`: it is not there yet, and goes in with what hangs
    on it. `depth_mm`: of blocking, headers and backing boards, how deep their wood is; 0: as usual.

    For a door or a window it is the clear opening; `trim_mm` is how far its trim reaches beyond.
    """

    kind: str
    left_mm: float
    right_mm: float
    bottom_mm: float
    top_mm: float
    trim_mm: float = 0.0
    to_fit: bool = False
    depth_mm: float = 0.0

    def __post_init__(self) -> None:
        """Refuse what is nowhere."""
        try:
            data.row(data.features(), self.kind, "thing on a wall")
        except UnknownRowError as error:
            raise PlanError(str(error), "kind") from None
        for name in ("left_mm", "right_mm", "bottom_mm", "top_mm", "trim_mm", "depth_mm"):
            value = getattr(self, name)
            if not (math.isfinite(value) and 0 <= value <= ABSURD_MM):
                raise PlanError(
                    compose(
                        "A {row} cannot reach to {place} mm.",
                        row=self.row.name,
                        place=Figure(f"{value:.6g}"),
                    ),
                    name,
                )
        if self.to_fit and self.row.keep != "wood":
            raise PlanError(
                compose("A {row} is not put in with what hangs.", row=self.row.name), "to_fit"
            )
        if self.right_mm <= self.left_mm or self.top_mm <= self.bottom_mm:
            raise PlanError(
                compose("A {row} needs a width and a height.", row=self.row.name), "right_mm"
            )

    @property
    def row(self) -> data.FeatureKind:
        """What such a thing is like."""
        return data.features()[self.kind]

    @property
    def deep_mm(self) -> float:
        """How deep its wood is; 0 where it has none."""
        return self.depth_mm or self.row.depth_mm

    @property
    def on_face(self) -> bool:
        """Whether its wood is on the wall's face, and what hangs there is screwed to it."""
        return self.row.studs_n > 0

    @property
    def step(self) -> str:
        """Key of the step that puts it in, or takes an old one off."""
        verb = "off" if self.row.keep == "off" else "fit"
        return f"{verb}-{self.left_mm:.0f}-{self.bottom_mm:.0f}"

    @property
    def centre_mm(self) -> float:
        """Its middle, along the wall."""
        return (self.left_mm + self.right_mm) / 2

    @property
    def middle_mm(self) -> float:
        """Its middle, above the floor."""
        return (self.bottom_mm + self.top_mm) / 2


def usual(
    kind: str, centre_mm: float, middle_mm: float | None, wall_mm: tuple[float, float]
) -> Feature:
    """One of the usual size, its middle here.

    What stands on the floor or runs along the whole wall goes there by itself.

    Args:
        kind: a row of the features table.
        centre_mm: of its middle along the wall.
        middle_mm: of its middle above the floor; None: where such things usually are.
        wall_mm: width and height of the wall, which it must not leave.

    Raises:
        PlanError: no such kind.
    """
    try:
        row = data.row(data.features(), kind, "thing on a wall")
    except UnknownRowError as error:
        raise PlanError(str(error), "kind") from None
    width, height = wall_mm
    wide, high = min(row.width_mm or width, width), min(row.height_mm or height, height)
    bottom = height - high if row.bottom_mm < 0 else row.bottom_mm
    if middle_mm is not None and row.bottom_mm > 0:
        bottom = middle_mm - high / 2
    left = min(max(centre_mm - wide / 2, 0.0), width - wide)
    bottom = min(max(bottom, 0.0), height - high)
    return Feature(
        kind=kind,
        left_mm=left,
        right_mm=left + wide,
        bottom_mm=bottom,
        top_mm=bottom + high,
        trim_mm=row.trim_mm,
    )
