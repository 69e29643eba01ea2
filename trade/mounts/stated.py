"""What comes ready-made and is judged by what its packet states: hooks, clips, straps."""

from trade import data
from trade.calculation import Calculation
from trade.language import compose
from trade.measure import G_N_PER_KG
from trade.mounts.base import Ask


def asks(stem: str, noun: str, empty: str) -> tuple[Ask, Ask]:
    """Return the inputs: what the packet states of one, and whether one fails at that.

    Args:
        stem: their fields are `{stem}_kg` and `{stem}_ultimate`.
        noun: what one is called.
        empty: what is supposed where nothing is stated.
    """
    carries = compose("One {noun} carries, says its packet", noun=noun)
    fails = compose("The packet says what one {noun} fails at", noun=noun)
    return (
        Ask(f"{stem}_kg", carries, "weight", optional=True, help=empty),
        Ask(f"{stem}_ultimate", fails, "flag"),
    )


def write(sums: Calculation, kg: float, ultimate: bool, symbol: str) -> None:
    """Write down what one may carry: a quarter of what it fails at, as of an anchor."""
    stated = kg * G_N_PER_KG
    if ultimate:
        sums.given("W_u", stated, "force", "what its packet says it fails at")
        sums.given("s", data.house("packet_safety"), "ratio", "safety, as of an anchor's packet")
        sums.then(symbol, "W_u / s", "force", "what it may carry")
    else:
        sums.given(symbol, stated, "force", "what its packet states")
