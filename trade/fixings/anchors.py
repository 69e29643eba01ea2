"""Anchors: supports held by something other than a screw in timber.

Every check between the hardware and what holds there.
"""

from dataclasses import dataclass
from functools import cached_property

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, make
from trade.fixings.anchor_capacity import AnchorCapacity
from trade.fixings.fastener_demand import (
    FastenerDemand,
    alike,
    face_checks,
    fastener_demands,
    pull_sum,
    pulled,
)
from trade.fixings.stud_position import edge
from trade.fixings.stud_screws import shear_sum, write_pull_through
from trade.fixings.support import Support
from trade.language import Figure, compose
from trade.load.demand import Demand

_NOUGHT, _FAR_MM = 1e-6, 1e5
_NEVER = 0.5  # stands for "not at all" where there is nothing to measure


@dataclass(frozen=True)
class _Use:
    """One support in one load case, with the sums of its anchors, each worked out once.

    `share`: of what an anchor holds, for good.
    """

    fastener: FastenerDemand
    capacity: AnchorCapacity
    share: float

    @cached_property
    def turning(self) -> Calculation:
        """Up to T_1."""
        return pull_sum(self.fastener)

    @cached_property
    def pull(self) -> Calculation:
        """Up to T_1 and T_a'."""
        sums = Calculation(self.turning, self.capacity.pull_equations)
        self._write_lasting(sums, "T_a'", "T_a", "what it may be pulled with")
        return sums

    @cached_property
    def shear(self) -> Calculation:
        """Up to V and V_a'."""
        sums = Calculation(shear_sum(self.fastener), self.capacity.shear_equations)
        last = self.capacity.shear_equations[-1].symbol
        self._write_lasting(sums, "V_a'", last, "what it may carry")
        return sums

    @cached_property
    def together(self) -> Calculation:
        """Up to u."""
        sums = Calculation(self.pull, self.shear)
        sums.then("u_T", "T_1 / T_a'", "percent", "share of the pull")
        sums.then("u_V", "V / V_a'", "percent", "share of the shear")
        sums.then("u", "u_T + u_V", "percent", "together")
        return sums

    @cached_property
    def head(self) -> Calculation:
        """Up to T_1 and W_H'."""
        sums = Calculation(self.turning)
        anchor = self.capacity.anchor
        write_pull_through(sums, self.fastener, anchor.head_mm if anchor else 0.0)
        return sums

    def _write_lasting(self, sums: Calculation, symbol: str, of: str, meaning: str) -> None:
        if self.share < 1:
            sums.given("k_t", self.share, "ratio", "share that may be used for good in what creeps")
        sums.then(symbol, f"{of} k_t" if self.share < 1 else of, "force", meaning)


def checks(
    supports: list[Support], demands: dict[int, tuple[Demand, ...]], loads: tuple[str, ...]
) -> list[Check]:
    """All checks of the anchors of one piece.

    Args:
        supports: those that anchors hold.
        demands: by the seat's index, the load cases.
        loads: what is not known of the loads.
    """
    pairs = [(support, support.capacity) for support in supports if support.capacity is not None]
    found = (
        [_base(pairs)]
        if any(
            capacity.problem or capacity.unknown or support.stud.unknown
            for support, capacity in pairs
        )
        else []
    )
    if in_studs := [
        support
        for support, capacity in pairs
        if support.stud.stud is not None and not capacity.substrate.hollow
    ]:
        found.append(edge(in_studs))
    firm = [(support, capacity) for support, capacity in pairs if capacity.pull_n > 0]
    if not firm:
        return found
    found += [*_edge(firm), *_behind(firm)]
    unknown = tuple(dict.fromkeys(ask for _, capacity in firm for ask in capacity.unknown)) + loads
    uses = [
        _Use(fastener, capacity, capacity.lasting if fastener.demand.duration < 1 else 1.0)
        for same in alike([support for support, _ in firm])
        for fastener in fastener_demands(same, demands)
        if (capacity := fastener.support.capacity) is not None
    ]
    found += [*face_checks([use.fastener for use in uses], unknown), _shear(uses, unknown)]
    if held_up := [use for use in uses if use.fastener.hold is not None]:
        found += [_pull(held_up, unknown), _combined(held_up, unknown)]
        found += _heads(
            [use for use in held_up if use.fastener.support.side.g is not None], unknown
        )
    lasting = [
        _Use(fastener, capacity, 1.0)
        for support, capacity in firm
        for fastener in fastener_demands([support], {support.index: demands[support.index][:1]})
    ]
    return found + (_lining(lasting, unknown) if len(held_up) == len(uses) else [])


def _heads(uses: list[_Use], unknown: tuple[str, ...]) -> list[Check]:
    """Check the heads of what anchors hold, pulled through the wood under them."""
    firm = [use for use in uses if use.head["W_H'"] > 0]
    if not firm:
        return []
    use = max(firm, key=lambda u: u.head["T_1"] / u.head["W_H'"])
    support, sums = use.fastener.support, use.head
    return [
        make(
            "anchor.head",
            part=support.part,
            support=support.index,
            case=use.fastener.demand.case,
            unknown=unknown,
            demand=sums.quantity("T_1", "pull"),
            capacity=sums.quantity("W_H'", "pull"),
            template="The {part}'s hardest-pulled head is pulled with {demand}; the wood under it "
            "holds {capacity}.",
            parts={"part": support.part},
            equations=sums,
        )
    ]


def _lining(uses: list[_Use], unknown: tuple[str, ...]) -> list[Check]:
    """Check the lining between two studs, which hangs on its own few fixings: lasting load only."""
    boards = data.linings()
    known = [
        use
        for use in uses
        if use.capacity.substrate.hollow and use.capacity.substrate.base in boards
    ]
    ranked = sorted(
        (use for use in known if boards[use.capacity.substrate.base].fixing_pull_n),
        key=lambda use: use.fastener.support.x_mm,
    )
    if len(ranked) < 2:
        return []
    bay = data.house("lining_bay_mm")
    groups = [
        [u for u in ranked if 0 <= u.fastener.support.x_mm - first.fastener.support.x_mm < bay]
        for first in ranked
    ]
    count = data.house("lining_fixings")

    def board_of(group: list[_Use]) -> data.Lining:
        return boards[group[0].capacity.substrate.base]

    def asked(group: list[_Use]) -> tuple[float, float]:
        return (
            sum(sum(pulled(use.fastener).tensions_n) for use in group),
            sum(max(use.fastener.demand.load_n, 0.0) for use in group),
        )

    def used(group: list[_Use]) -> Calculation:
        row, (pull, shear), sums = board_of(group), asked(group), Calculation()
        sums.given(
            "T",
            pull,
            "force",
            compose("pull of all anchors within {bay} mm", bay=Figure(f"{bay:.0f}")),
        )
        sums.given("V", shear, "force", "their load along the wall")
        sums.given("n", count, "count", "the board's own fixings around them")
        words = "what one of them holds of the board, straight out"
        sums.given("t", row.fixing_pull_n, "force", words)
        sums.given("v", row.fixing_shear_n, "force", "along it")
        sums.then("u", "T / n t + V / n v", "percent")
        return sums

    sums, group = max(
        ((used(group), group) for group in groups), key=lambda each: each[0].quantity("u").value
    )
    support = group[0].fastener.support
    return [
        make(
            "anchor.lining",
            part=support.part,
            support=support.index,
            case=group[0].fastener.demand.case,
            unknown=unknown,
            demand=sums.quantity("u"),
            capacity=Quantity(1.0, "percent"),
            template="The {board} between two studs hangs on its own screws: these anchors use "
            "{demand} of what those hold.",
            parts={"board": board_of(group).short},
            equations=sums.equations,
        )
    ]


def _base(pairs: list[tuple[Support, AnchorCapacity]]) -> Check:
    """Whether what was chosen holds at all in what is there."""
    support, capacity = next(((s, h) for s, h in pairs if h.problem), pairs[0])
    unknown = tuple(dict.fromkeys(ask for s, h in pairs for ask in (*h.unknown, *s.stud.unknown)))
    name = capacity.anchor.name if capacity.anchor else ""
    return make(
        "anchor.base",
        part=support.part,
        support=support.index,
        case="any",
        unknown=unknown,
        demand=Quantity(1, "count"),
        capacity=Quantity(_NEVER if capacity.problem else 1, "count"),
        template="{why}"
        if capacity.problem
        else "The {part} is held by {anchor}, which suits what is behind it.",
        parts={"why": capacity.problem, "part": support.part, "anchor": name},
    )


def _edge(firm: list[tuple[Support, AnchorCapacity]]) -> list[Check]:
    """To openings, whose edge is free, and to holes of old, around which nothing holds.

    Nothing where there is neither.
    """

    def near(pair: tuple[Support, AnchorCapacity]) -> float:
        return min(pair[1].substrate.edge_mm, pair[1].substrate.spoiled_mm)

    def need(pair: tuple[Support, AnchorCapacity]) -> float:
        return pair[1].anchor.edge_mm if pair[1].anchor else 0.0

    worst = max(firm, key=lambda pair: need(pair) / max(near(pair), _NOUGHT))
    support, substrate = worst[0], worst[1].substrate
    if near(worst) > _FAR_MM:
        return []
    what = "an old hole" if substrate.spoiled_mm < substrate.edge_mm else "the edge of an opening"
    check = make(
        "anchor.edge",
        part=support.part,
        support=support.index,
        case="any",
        demand=Quantity(need(worst), "length"),
        capacity=Quantity(max(near(worst), _NOUGHT), "length"),
        template="The anchors of the {part} need {demand} to {what}; they have {capacity}.",
        parts={"part": support.part, "what": what},
    )
    return [check]


def _behind(firm: list[tuple[Support, AnchorCapacity]]) -> list[Check]:
    """Room to open behind a lining: depth, and clear of the stud beside."""
    hollow = [
        (support, capacity.anchor)
        for support, capacity in firm
        if capacity.substrate.hollow and capacity.anchor is not None
    ]
    if not hollow:
        return []
    support, anchor = max(hollow, key=lambda pair: pair[1].behind_mm / pair[0].stud.depth_mm)
    found = [
        make(
            "anchor.behind",
            part=support.part,
            support=support.index,
            case="any",
            demand=Quantity(max(anchor.behind_mm, _NOUGHT), "length"),
            capacity=Quantity(support.stud.depth_mm, "length"),
            template="Behind the lining the anchor needs {demand}; there is {capacity} between "
            "the studs.",
        )
    ]
    beside = [support for support, _ in hollow if support.stud.stud is not None]
    if beside:
        clear = data.house("stud_clear_mm")
        support = min(
            beside,
            key=lambda s: abs(s.stud.offset_mm) - s.stud.width_mm / 2 - s.stud.uncertainty_mm,
        )
        room = abs(support.stud.offset_mm) - support.stud.width_mm / 2
        sure = room - support.stud.uncertainty_mm
        ask = (
            compose(
                "where exactly the stud beside the {support} is: an anchor cannot open against it.",
                support=support.part,
            ),
        )
        found.append(
            make(
                "anchor.beside",
                part=support.part,
                support=support.index,
                case="any",
                unknown=ask if sure < clear <= room else (),
                demand=Quantity(clear, "fine"),
                capacity=Quantity(max(room, _NOUGHT), "fine"),
                template="The anchors of the {part} are {capacity} beside a stud; to open they "
                "need {demand}.",
                parts={"part": support.part},
            )
        )
    return found


def _pull(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.pull["T_1"] / u.pull["T_a'"])
    support, sums = use.fastener.support, use.pull
    return make(
        "anchor.pull",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("T_1", "pull"),
        capacity=sums.quantity("T_a'", "pull"),
        template="The {part}'s hardest-pulled anchor pulls with {demand}; here it holds "
        "{capacity}.",
        parts={"part": support.part},
        equations=sums,
    )


def _shear(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.shear["V"] / u.shear["V_a'"])
    support, sums = use.fastener.support, use.shear
    return make(
        "anchor.shear",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("V", "pull"),
        capacity=sums.quantity("V_a'", "pull"),
        template="Each anchor of the {part} carries {demand} downwards; here it can carry "
        "{capacity}.",
        parts={"part": support.part},
        equations=sums,
    )


def _combined(uses: list[_Use], unknown: tuple[str, ...]) -> Check:
    use = max(uses, key=lambda u: u.together["u"])
    support, sums = use.fastener.support, use.together
    return make(
        "anchor.combined",
        part=support.part,
        support=support.index,
        case=use.fastener.demand.case,
        unknown=unknown,
        demand=sums.quantity("u"),
        capacity=Quantity(1.0, "percent"),
        template="Pull and shear together use {demand} of the strength of an anchor of the {part}.",
        parts={"part": support.part},
        equations=sums,
    )
