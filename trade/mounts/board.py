"""The shelf itself: the checks of the board, whatever holds it."""

from collections.abc import Iterator
from contextlib import suppress
from typing import Any, TypeVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, Message, make
from trade.errors import PlanError
from trade.language import Figure, compose, several
from trade.load.shelf import Sag, ShelfLoad
from trade.load.stiffener import stiffener
from trade.mounts import strength
from trade.mounts.base import Part, cut
from trade.mounts.work import front_mm
from trade.plan.model import Piece, Shelf, Wall

S = TypeVar("S", bound=Shelf)
_STIFF_MM = 40.0  # from here on a board is a beam


def stiffened(piece: S) -> Iterator[tuple[str, Message, S]]:
    """Yield other things under a thin board's front edge: a second board, a steel tube.

    Nothing for a board that is stiff, or metal.
    """
    if piece.thickness_mm > _STIFF_MM or not data.boards()[piece.board].wooden:
        return
    tube = data.stiffeners()["tube"].wide_mm
    for sort, high_mm, said in (
        ("second", piece.thickness_mm, "A second board under all of it"),
        ("tube", tube, "A steel tube under the front edge"),
    ):
        with suppress(PlanError):
            made: dict[str, Any] = {"stiffener": sort, "stiffener_mm": high_mm}
            yield "under", Message(said), replace(piece, **made)


def too_few_supports(piece: Piece, noun: str, unknown: tuple[str, ...]) -> Check:
    """Return the refusal of a shelf on one support or none."""
    return make(
        "support.count",
        part="shelf",
        case="any",
        unknown=unknown,
        demand=Quantity(2, "count"),
        capacity=Quantity(max(len(piece.supports_mm), 0.5), "count"),
        template="A shelf on fewer than two {supports} turns and tips; put up at least {demand}.",
        parts={"supports": several(noun)},
    )


def front_parts(piece: Shelf, wall: Wall) -> list[Part]:
    """Return what stiffens a shelf's front edge, as a part.

    A strip to be cut, a tube to be bought; nothing where nothing does.
    """
    under = stiffener(piece)
    if under is None:
        return []
    if under.part.wall_mm:
        return [
            Part(
                "front tube",
                compose(
                    "steel tube {wide} × {high} mm, as long as the front",
                    wide=Figure(f"{under.part.wide_mm:.0f}"),
                    high=Figure(f"{under.part.high_mm:.0f}"),
                ),
                1,
            )
        ]
    return [
        cut(
            "front strip",
            under.board,
            1,
            front_mm(piece, wall),
            under.part.high_mm,
            under.part.wide_mm,
        )
    ]


def checks(load: ShelfLoad, unknown: tuple[str, ...]) -> list[Check]:
    """Bending and sag of the board."""
    return [_bending(load, unknown), *_sags(load, unknown)]


def _bending(load: ShelfLoad, unknown: tuple[str, ...]) -> Check:
    """Check the part that is bent most for what it is of.

    The board, or what stiffens its front.
    """
    worst = max(load.board_demands(), key=lambda d: d.moment_nmm / d.duration)
    every = [
        strength.shared_sum(
            load.parts,
            n,
            worst.moment_nmm,
            worst.duration,
            compose("bending in the board, {case}", case=worst.case),
        )
        for n in range(len(load.parts))
    ]
    n, sums = max(enumerate(every), key=lambda each: each[1]["σ"] / each[1]["σ'"])
    name, key, _ = load.parts[n]
    return make(
        "board.bending",
        part="board",
        case=worst.case,
        unknown=unknown,
        demand=sums.quantity("σ"),
        capacity=sums.quantity("σ'"),
        template="The {what} uses {used} of the bending strength of {board}, {place} from its left "
        "end.",
        parts={
            "what": name,
            "board": data.boards()[key].name,
            "place": Quantity(worst.place_mm, "length"),
        },
        equations=sums.equations,
    )


def _sags(load: ShelfLoad, unknown: tuple[str, ...]) -> list[Check]:
    share = data.house("steady_share")
    return [
        _sag(
            load,
            "sag.now",
            load.sag(0.0),
            "loaded, first day",
            "On the first day it sags {demand}; the limit for {span} is {capacity}.",
            unknown,
        ),
        _sag(
            load,
            "sag.long_term",
            load.sag(1.0, share),
            "loaded, years",
            "Over the years it sags {demand}; the limit for {span} is {capacity}.",
            unknown,
            share,
        ),
    ]


def _sag(
    load: ShelfLoad,
    code: str,
    sag: Sag,
    case: str,
    template: str,
    unknown: tuple[str, ...],
    steady: float | None = None,
) -> Check:
    """One sag of the board.

    `steady`: the share of contents that is always there; None on the first day.
    """
    sums = Calculation()
    strength.write_rigidity(sums, load.parts, creep=steady is not None)
    if steady is not None:
        sums.given("ψ", steady, "ratio", "share of the contents that is always there, for creep")
    sums.given("l", sag.span_mm, "length", "span, or twice the overhang")
    sums.given("w", sag.sag_mm, "fine", compose("sag as a continuous beam, {case}", case=case))
    strength.write_sag_limit(sums)
    return make(
        code,
        part="board",
        case=case,
        unknown=unknown,
        demand=sums.quantity("w"),
        capacity=sums.quantity("w_max"),
        template=template,
        parts={"span": Quantity(sag.span_mm, "length")},
        equations=sums.equations,
    )
