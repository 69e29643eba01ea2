"""Driving a screw: how much of it is where, what length to buy, which bits to drill with."""

from functools import cache
from typing import NamedTuple

from trade import data
from trade.data import Screw
from trade.errors import NoSizeError
from trade.language import compose
from trade.measure import IN_MM, INCH_64TH_MM, Units, say_bit

_SAME_MM = 0.05  # sizes no further apart than that are one


class Reach(NamedTuple):
    """Where a screw's length goes.

    `penetration_mm`: beyond the layers; `thread_mm`: thread in the stud, less the tip;
    `embedment_mm`: in the stud, less the tip.
    """

    penetration_mm: float
    thread_mm: float
    embedment_mm: float


def thread_length_mm(screw: Screw, length_mm: float) -> float:
    """Thread of a screw as sold.

    Two thirds of a wood screw; half plus 1/2 in of a lag; all of a rod.

    Source: NDS 2018 Appendix L Tables L2 and L3, from memory.
    """
    if screw.kind == "wood":
        return length_mm * 2 / 3
    if screw.kind == "rod":
        return length_mm
    return min(length_mm, length_mm / 2 + 0.5 * IN_MM)


def reach(screw: Screw, length_mm: float, layers_mm: float) -> Reach:
    """Where a screw's length goes when everything before the stud is `layers_mm` thick."""
    penetration = max(length_mm - layers_mm, 0.0)
    thread = min(thread_length_mm(screw, length_mm), penetration)
    return Reach(penetration, max(thread - screw.tip_mm, 0.0), max(penetration - screw.tip_mm, 0.0))


def lengths_mm(screw: Screw) -> tuple[float, ...]:
    """Lengths in which this screw is sold."""
    if screw.system == "metric":
        return screw.lengths
    return tuple(inches * IN_MM for inches in screw.lengths)


def nearest_length_mm(screw: Screw, length_mm: float) -> float:
    """Return the sold length that is nearest to one."""
    return min(lengths_mm(screw), key=lambda each: abs(each - length_mm))


def suggest_length_mm(screw: Screw, layers_mm: float, embedment_mm: float, far_mm: float) -> float:
    """Return the shortest sold length that reaches `embedment_mm` into the stud.

    The longest that stays inside when none does.
    """
    fitting = [length for length in lengths_mm(screw) if length < far_mm]
    reaching = [
        length for length in fitting if reach(screw, length, layers_mm).embedment_mm >= embedment_mm
    ]
    if reaching:
        return reaching[0]
    return fitting[-1] if fitting else lengths_mm(screw)[0]


def pilot_mm(screw: Screw, g: float, units: Units) -> float:
    """Pilot hole for the thread as a real drill of the person's series.

    The largest that is not over the aim.

    Wood screws (NDS 12.1.5.3): 90 % of the root for G > 0.6, 70 % for 0.5 < G <= 0.6; none required
    for G <= 0.5, where 70 % is good practice. Lags (NDS 12.1.4.2): 65-85, 60-75 and 40-70 % of the
    shank; the upper end is taken.
    """
    if screw.kind != "wood":
        aim = screw.diameter_mm * (0.85 if g > 0.6 else 0.75 if g > 0.5 else 0.70)
    else:
        aim = screw.root_mm * (0.90 if g > 0.6 else 0.70)
    return _drill_at_most(aim, units)


def clearance_mm(screw: Screw, units: Units) -> float:
    """Hole for the shank: the smallest real drill that is not under the shank."""
    return drill_at_least_mm(screw.diameter_mm, units)


def drill_at_least_mm(diameter_mm: float, units: Units) -> float:
    """Return the smallest real drill that is not under a diameter.

    Raises:
        NoSizeError: no drill is that wide.
    """
    for size in drills_mm(units):
        if size >= diameter_mm - _SAME_MM:
            return size
    raise NoSizeError(
        compose(
            "No drill in the table makes a hole of {diameter_mm}.",
            diameter_mm=say_bit(diameter_mm, units),
        )
    )


@cache
def drills_mm(units: Units) -> tuple[float, ...]:
    """Return the drills of the person's series, mm, the smallest first."""
    sizes = data.drills()[units].sizes
    return tuple(size * INCH_64TH_MM for size in sizes) if units == "imperial" else sizes


def _drill_at_most(aim_mm: float, units: Units) -> float:
    fitting = [size for size in drills_mm(units) if size <= aim_mm + _SAME_MM]
    if not fitting:
        raise NoSizeError(
            compose("No drill in the table is as thin as {aim_mm}.", aim_mm=say_bit(aim_mm, units))
        )
    return fitting[-1]
