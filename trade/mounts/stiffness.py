"""How much a shelf gives: wobble under a hand, and the slow drop of its front edge."""

from typing import NamedTuple

from trade import data
from trade.calculation import Calculation
from trade.check import Check, make
from trade.fixings.support import Support
from trade.language import compose, word
from trade.load.demand import Demand
from trade.load.shelf import ShelfLoad
from trade.mechanics import contact
from trade.mounts.base import AnySupport

_HARD = 1e4  # a face so many times as hard is not dented


class _Moved(NamedTuple):
    turned_mm: float
    bent_mm: float
    slipped_mm: float
    loose_mm: float
    case: str
    support: AnySupport | None

    @property
    def total_mm(self) -> float:
        return self.turned_mm + self.bent_mm + self.slipped_mm + self.loose_mm


def turning_stiffness(support: Support, face: float = 1.0) -> float:
    """N mm per radian of one support.

    Screws or anchors give, the face is dented; the face so many times as hard as it is.
    """
    return contact.rotation_stiffness(
        support.heights_mm,
        support.pull_stiffness_n_per_mm,
        face * support.face.stiffness_n_per_mm3 * support.pressed_mm,
    )


def loosened(support: Support, turning: float, cases: tuple[Demand, ...]) -> float:
    """Play of a support after use, radians.

    The lasting part of the dent that its hardest case makes in the face.
    """
    most = max((case.moment_nmm for case in cases), default=0.0)
    return (
        max(most, 0.0)
        * (1 / turning - 1 / turning_stiffness(support, _HARD))
        * support.face.set_share
    )


class Give(NamedTuple):
    """How a support lets the front edge down under 1 N there, mm.

    It turns, it bends, it slips; and how far it is loose.
    """

    support: AnySupport
    turns: float
    bends: float
    slips: float
    loose_mm: float = 0.0


def wobble(
    load: ShelfLoad,
    supports: list[tuple[Support, float]],
    demands: dict[int, tuple[Demand, ...]],
    unknown: tuple[str, ...],
) -> list[Check]:
    """Movement of the front edge under 50 N, at the support and place where it is greatest.

    No check where none holds.

    Args:
        load: the shelf.
        supports: those that hold, with how far the hardware alone lets the front edge down under 1
          N there.
        demands: by the seat's index, the load cases, which dent the face.
        unknown: what is not known yet.
    """
    depth = load.piece.depth_mm
    gives = [
        Give(
            support,
            depth**2 / turning,
            give,
            1 / support.slip_stiffness_n_per_mm,
            loosened(support, turning, demands[support.index]) * depth,
        )
        for support, give in supports
        if (turning := turning_stiffness(support)) > 0
    ]
    return feel(load, gives, unknown)


def feel(load: ShelfLoad, gives: list[Give], unknown: tuple[str, ...]) -> list[Check]:
    """Whether it feels solid, springy or wobbly under a hand on the front edge."""
    push = data.house("wobble_push_n")
    solid = data.house("wobble_solid_mm")
    limit = data.house("wobble_limit_mm")
    worst = _Moved(0.0, 0.0, 0.0, 0.0, "any", None)
    for each in gives:
        shares = load.push_shares(each.support.index)
        place = max(range(len(shares)), key=shares.__getitem__)
        force = push * shares[place]
        case = compose("a hand on the front edge {pushed_at}", pushed_at=load.pushed_at[place][1])
        moved = _Moved(
            force * each.turns,
            force * each.bends,
            force * each.slips,
            each.loose_mm,
            case,
            each.support,
        )
        worst = max(worst, moved, key=lambda m: m.total_mm)
    if worst.support is None:
        return []
    sums = Calculation()
    sums.given(
        "δ_1", worst.turned_mm, "fine", "what holds it turns: screws stretch, the wall is dented"
    )
    sums.given("δ_2", worst.bent_mm, "fine", "bracket or rod bends")
    sums.given("δ_3", worst.slipped_mm, "fine", "what holds it sinks or slips")
    sums.given("δ_4", worst.loose_mm, "fine", "loose after use: what stays of the dent under it")
    moves = sums.then("δ", "δ_1 + δ_2 + δ_3 + δ_4", "fine", "under the hand")
    feels = (
        word("solid") if moves <= solid else word("springy") if moves <= limit else word("wobbly")
    )
    sums.given("δ_max", limit, "fine", "limit")
    check = make(
        "shelf.wobble",
        part=worst.support.part,
        support=worst.support.index,
        case=worst.case,
        unknown=unknown,
        demand=sums.quantity("δ"),
        capacity=sums.quantity("δ_max"),
        template="It feels {feels}: leaning a hand on the front edge moves it {demand}; beyond "
        "{capacity} it wobbles.",
        parts={"feels": feels},
        equations=sums.equations,
    )
    return [check]
