"""The shelf itself: the checks of the board, whatever holds it."""

from trade import data
from trade.check import Check, Quantity, Step, make
from trade.load.shelf import Sag, ShelfLoad
from trade.plan import Piece


def too_few_supports(piece: Piece, noun: str, unknown: tuple[str, ...]) -> Check:
    """The refusal of a shelf on one support or none."""
    return make(
        "support.count", part="shelf", case="any", unknown=unknown,
        demand=Quantity(2, "count"), capacity=Quantity(max(len(piece.supports_mm), 0.5), "count"),
        template=f"A shelf on fewer than two {noun}s turns and tips; put up at least {{demand}}.",
    )  # fmt: skip


def checks(load: ShelfLoad, unknown: tuple[str, ...]) -> list[Check]:
    """Bending and sag of the board."""
    return [_bending(load, unknown), *_sags(load, unknown)]


def _bending(load: ShelfLoad, unknown: tuple[str, ...]) -> Check:
    worst = max(load.board_demands(), key=lambda d: d.moment_nmm / d.duration)
    allowed = load.board.bending_mpa(worst.duration)
    stress = worst.moment_nmm / load.section_mm3
    return make(
        "board.bending", part="board", case=worst.case, unknown=unknown,
        demand=Quantity(stress, "stress"), capacity=Quantity(allowed, "stress"),
        template="The board is bent to {used} of what {board} may take, {place} from its left end.",
        parts={"board": load.board.name, "place": Quantity(worst.place_mm, "length")},
        steps=(
            Step("M", f"bending in the board, {worst.case}", Quantity(worst.moment_nmm, "moment")),
            Step("b", "depth of the shelf", Quantity(load.piece.depth_mm, "length")),
            Step("t", "thickness", Quantity(load.piece.thickness_mm, "fine")),
            Step("S", "b t² / 6, or with its strip I over half the higher, mm³", Quantity(load.section_mm3, "ratio")),
            Step("σ", "M / S", Quantity(stress, "stress")),
            Step("MOR", f"{load.board.name}, mean", Quantity(load.board.mor_mpa, "stress")),
            Step("C_D", "load duration", Quantity(worst.duration, "ratio")),
            Step("σ'", load.board.bending_words, Quantity(allowed, "stress")),
        ),
    )  # fmt: skip


def _sags(load: ShelfLoad, unknown: tuple[str, ...]) -> list[Check]:
    limit = data.house("sag_limit")
    own_creep = 1 + load.board.k_def
    contents_creep = 1 + data.house("steady_share") * load.board.k_def
    now, later = load.sag(1, 1), load.sag(own_creep, contents_creep)

    def check(code: str, sag: Sag, share: float, template: str, case: str) -> Check:
        return make(
            code, part="board", case=case, unknown=unknown,
            demand=Quantity(sag.sag_mm, "fine"), capacity=Quantity(sag.span_mm / share, "fine"),
            template=template, parts={"span": Quantity(sag.span_mm, "length")},
            steps=(
                Step("E", f"stiffness of {load.board.name}", Quantity(load.board.e_mpa, "stress")),
                Step("I", "b t³ / 12 of the board, and of a strip under its front, in mm⁴", Quantity(load.inertia_mm4, "ratio")),
                Step("k_def", "creep of the board", Quantity(load.board.k_def, "ratio")),
                Step("l", "span, or twice the overhang", Quantity(sag.span_mm, "length")),
                Step("w", f"sag as a continuous beam, {case}", Quantity(sag.sag_mm, "fine")),
                Step(f"l / {share:.0f}", "limit", Quantity(sag.span_mm / share, "fine")),
            ),
        )  # fmt: skip

    first, years = "loaded, first day", "loaded, years"
    return [
        check("sag.now", now, limit, "On the first day it sags {demand}; the limit for {span} is {capacity}.", first),
        check("sag.long_term", later, limit, "Over the years it sags {demand}; the limit for {span} is {capacity}.", years),
    ]
