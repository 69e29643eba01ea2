"""What people find out about a wall, reading by reading.

Readings are kept as taken; what they mean is for `infer` to say.
"""

from typing import Annotated, Literal

import msgspec
from msgspec import Meta

from trade.errors import PlanError
from trade.language import Figure, compose
from trade.measure import ABSURD_MM

Height = Annotated[float, Meta(ge=0)]


class _Reading(
    msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True, tag_field="kind"
):
    """Places are mm from the wall's left corner and above the floor."""

    height_mm: float = 0.0

    def __post_init__(self) -> None:
        """Refuse places that are nowhere."""
        for name in ("at_mm", "from_mm", "to_mm", "height_mm", "depth_mm"):
            value = getattr(self, name, None)
            if value is not None and not 0 <= value <= ABSURD_MM:
                raise PlanError(
                    compose(
                        "A reading at {place} mm is not on the wall.", place=Figure(f"{value:.6g}")
                    ),
                    name,
                )


class Sweep(_Reading, frozen=True, kw_only=True, tag="sweep"):
    """A finder was drawn along here: where it said nothing counts too."""

    from_mm: float
    to_mm: float


class Edge(_Reading, frozen=True, kw_only=True, tag="edge"):
    """The finder said: here something begins (`left`, seen from the left) or ends (`right`)."""

    at_mm: float
    side: Literal["left", "right"]


class MagnetHit(_Reading, frozen=True, kw_only=True, tag="magnet"):
    """A magnet stuck: a screw of the lining, or something else of iron."""

    at_mm: float


class Probe(_Reading, frozen=True, kw_only=True, tag="probe"):
    """A thin nail pushed through the lining: what it met, and how deep, mm, if measured."""

    at_mm: float
    met: Literal["wood", "air", "metal", "hard"]
    depth_mm: float | None = None


class Knock(_Reading, frozen=True, kw_only=True, tag="knock"):
    """A knuckle heard it full or hollow. Weak evidence."""

    at_mm: float
    sound: Literal["full", "hollow"]


class Seen(_Reading, frozen=True, kw_only=True, tag="seen"):
    """A stud was seen, at a box or an opening: its centre, by tape."""

    at_mm: float


class ByHand(_Reading, frozen=True, kw_only=True, tag="by_hand"):
    """The person's word.

    A stud's centre is here (`pinned`), or none is (`struck`), whatever the other readings say.
    """

    at_mm: float
    word: Literal["pinned", "struck"]


AtPlace = Edge | MagnetHit | Probe | Knock | Seen | ByHand
Reading = Sweep | AtPlace
