"""What hangs by itself, a hook, a clip, a holder.

Bought ready, so its packet says what it carries, or nobody knows.
"""

from trade import data
from trade.calculation import Calculation
from trade.check import Assumption, Check, make
from trade.language import Figure, compose
from trade.load.line import unweighed
from trade.load.push import heaviest_n
from trade.measure import G_N_PER_KG, LBF_N
from trade.mounts import stated
from trade.mounts.base import Ask
from trade.plan.model import CleatWall, Panel, Rail

Hooked = Rail | Panel | CleatWall


def asks(noun: str) -> tuple[Ask, Ask]:
    """Return the inputs: what the packet states of one, and whether one fails at that."""
    return stated.asks("hook", noun, "Empty: it is taken to carry what hangs there.")


def checks(piece: Hooked, noun: str) -> list[Check]:
    """Return the heaviest thing on one against what its packet states.

    Nothing to ask where it states nothing.
    """
    if piece.hook_kg is None:
        return []
    sums = Calculation()
    words = "heaviest thing on one, or what hangs within a hand's width"
    sums.given("W_1", heaviest_n(piece), "force", words)
    sums.given("f", data.uses()[piece.use].factor, "ratio", "use factor")
    sums.then("W", "f W_1", "force")
    stated.write(sums, piece.hook_kg, piece.hook_ultimate, "W_r")
    return [
        make(
            "hook.rated",
            part=noun,
            case="loaded, for years",
            unknown=unweighed(piece),
            demand=sums.quantity("W", "pull"),
            capacity=sums.quantity("W_r", "pull"),
            template="One {noun} carries {demand}; by its packet it may carry {capacity}.",
            parts={"noun": noun},
            equations=sums.equations,
        )
    ]


def assumed(piece: Hooked, noun: str) -> tuple[Assumption, ...]:
    """Return what is taken for granted of them where no packet says it."""
    most_n = heaviest_n(piece)
    if piece.hook_kg is not None or not most_n:
        return ()
    most = compose(
        "{kg} kg ({lb} lb)",
        kg=Figure(f"{most_n / G_N_PER_KG:.1f}"),
        lb=Figure(f"{most_n / LBF_N:.0f}"),
    )
    said = compose(
        "Each {noun} is taken to carry what hangs on it, up to {most}: look on its packet.",
        noun=noun,
        most=most,
    )
    return (Assumption("hooks", said),)
