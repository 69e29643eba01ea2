"""The shelf itself: the checks of the board, whatever holds it."""

from trade import data
from trade.check import Check, Quantity, Step, make
from trade.load.shelf import Sag, ShelfLoad
from trade.load.stiffener import stiffener
from trade.mechanics import composite
from trade.mounts.base import Part, cut
from trade.mounts.work import front_mm
from trade.plan.model import Piece, Shelf, Wall


def too_few_supports(piece: Piece, noun: str, unknown: tuple[str, ...]) -> Check:
    """The refusal of a shelf on one support or none."""
    return make(
        "support.count",
        part="shelf",
        case="any",
        unknown=unknown,
        demand=Quantity(2, "count"),
        capacity=Quantity(max(len(piece.supports_mm), 0.5), "count"),
        template=f"A shelf on fewer than two {noun}s turns and tips; put up at least {{demand}}.",
    )


def front_parts(piece: Shelf, wall: Wall) -> list[Part]:
    """What stiffens a shelf's front edge, as a part.

    A strip to be cut, a tube to be bought; nothing where nothing does.
    """
    under = stiffener(piece)
    if under is None:
        return []
    if under.part.wall_mm:
        return [
            Part(
                "front tube",
                f"steel tube {under.part.wide_mm:.0f} × {under.part.high_mm:.0f} mm, as long as "
                "the front",
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
    """The part that is bent most for what it is of: the board, or what stiffens its front."""
    worst = max(load.board_demands(), key=lambda d: d.moment_nmm / d.duration)
    stresses = [composite.stress_mpa(worst.moment_nmm, part, load.bent) for part in load.bent]
    rows = [data.boards()[key] for _, key, _ in load.parts]
    n = max(range(len(rows)), key=lambda n: stresses[n] / rows[n].bending_mpa(worst.duration))
    (name, _, part), row, stress = load.parts[n], rows[n], stresses[n]
    allowed = row.bending_mpa(worst.duration)
    shared = (
        (
            Step(
                "k",
                f"share of the {name}, E I / Σ E I",
                Quantity(part.ei_nmm2 / composite.ei_nmm2(load.bent), "ratio"),
            ),
        )
        if len(rows) > 1
        else ()
    )
    return make(
        "board.bending",
        part="board",
        case=worst.case,
        unknown=unknown,
        demand=Quantity(stress, "stress"),
        capacity=Quantity(allowed, "stress"),
        template="The {what} uses {used} of the bending strength of {board}, {place} from its left "
        "end.",
        parts={"what": name, "board": row.name, "place": Quantity(worst.place_mm, "length")},
        steps=(
            Step("M", f"bending in the board, {worst.case}", Quantity(worst.moment_nmm, "moment")),
            *shared,
            Step("b", f"width of the {name}", Quantity(part.wide_mm, "length")),
            Step("t", "its height", Quantity(part.high_mm, "fine")),
            Step(
                "S",
                "I over half of that, mm³",
                Quantity(part.inertia_mm4 / (part.high_mm / 2), "ratio"),
            ),
            Step("σ", "k M / S" if shared else "M / S", Quantity(stress, "stress")),
            Step("MOR", f"{row.name}, mean", Quantity(row.mor_mpa, "stress")),
            Step("C_D", "load duration", Quantity(worst.duration, "ratio")),
            Step("σ'", row.bending_words, Quantity(allowed, "stress")),
        ),
    )


def _sags(load: ShelfLoad, unknown: tuple[str, ...]) -> list[Check]:
    limit = data.house("sag_limit")
    now, later = load.sag(0.0), load.sag(1.0, data.house("steady_share"))
    stiff = (
        tuple(
            Step(
                f"E I_{n}",
                f"stiffness of the {name}, {data.boards()[key].name}, N m²",
                Quantity(part.ei_nmm2 / 1e9, "ratio"),
            )
            for n, (name, key, part) in enumerate(load.parts, start=1)
        )
        if len(load.parts) > 1
        else (
            Step("E", f"stiffness of {load.board.name}", Quantity(load.board.e_mpa, "stress")),
            Step("I", "b t³ / 12, in mm⁴", Quantity(load.bent[0].inertia_mm4, "ratio")),
        )
    )

    def check(code: str, sag: Sag, share: float, template: str, case: str) -> Check:
        return make(
            code,
            part="board",
            case=case,
            unknown=unknown,
            demand=Quantity(sag.sag_mm, "fine"),
            capacity=Quantity(sag.span_mm / share, "fine"),
            template=template,
            parts={"span": Quantity(sag.span_mm, "length")},
            steps=(
                *stiff,
                Step("k_def", "creep of the board", Quantity(load.board.k_def, "ratio")),
                Step("l", "span, or twice the overhang", Quantity(sag.span_mm, "length")),
                Step("w", f"sag as a continuous beam, {case}", Quantity(sag.sag_mm, "fine")),
                Step(f"l / {share:.0f}", "limit", Quantity(sag.span_mm / share, "fine")),
            ),
        )

    first, years = "loaded, first day", "loaded, years"
    return [
        check(
            "sag.now",
            now,
            limit,
            "On the first day it sags {demand}; the limit for {span} is {capacity}.",
            first,
        ),
        check(
            "sag.long_term",
            later,
            limit,
            "Over the years it sags {demand}; the limit for {span} is {capacity}.",
            years,
        ),
    ]
