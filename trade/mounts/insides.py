"""Loose shelves and uprights inside a body that stands or hangs.

Their sizes, the rows of holes for their pins, what they carry.

A loose shelf lies free on four pins. What the body holds is taken to stand evenly on its loose
shelves and on the bottoms of its bays.
"""

from collections.abc import Iterator
from typing import NamedTuple, TypeVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, Message, make
from trade.data import Board
from trade.fixings import driving, pins, wood
from trade.language import compose
from trade.load.line import unweighed
from trade.measure import G_N_PER_KG, IN_MM, Units
from trade.mounts import made, strength
from trade.mounts.base import Ask, Part, cut
from trade.mounts.work import Band, Detail, Row
from trade.plan.model import Bookcase, Cabinet

ASKS = (
    Ask("dividers", "Uprights to make for its inside", "count"),
    Ask("loose_shelves", "Loose shelves to make for it", "count"),
    Ask("inner", "Those of", "choice", data.woods),
    Ask("inner_mm", "They and its own sides thick", "length"),
    *made.ASKS,
)
_BACK_MM = data.house("loose_shelf_back_mm")
_OFF_MM = data.house("pin_rows_off_mm")
_DEEP_MM = data.house("pin_deep_mm")
_HOUSED_MM = data.house("housed_mm")
_ROWS = 2  # on each face: one pin at the front, one at the back
_PINS = 4
_PIN_OUT_MM = data.house("shelf_pin_out_mm")
_PIN_YIELD_MPA = data.house("shelf_pin_yield_mpa")
_THICKER_MM = (IN_MM, 1.25 * IN_MM, 1.5 * IN_MM)
_CASE = "loaded, for years"
P = TypeVar("P", Bookcase, Cabinet)


class Inside(NamedTuple):
    """The room between a body's sides, top and bottom, divided by uprights into equal bays; mm."""

    bays: int
    bay_mm: float
    high_mm: float
    deep_mm: float


def inside(piece: Bookcase | Cabinet) -> Inside:
    """Return the inside of a body whose own boards are as thick as its uprights."""
    t, bays = piece.inner_mm, piece.dividers + 1
    case = made.case_of(piece)
    if case is not None:
        deep = case.front_mm - case.back_mm - (_BACK_MM if piece.loose_shelves else 0.0)
        return Inside(bays, case.bay_mm, case.height_mm - t - case.shelves_from_mm, deep)
    return Inside(
        bays,
        (piece.length_mm - 2 * t - piece.dividers * t) / bays,
        piece.height_mm - 2 * t,
        piece.depth_mm - _BACK_MM,
    )


def row(piece: Bookcase | Cabinet, into: str, faces: int, units: Units) -> Row:
    """Return the holes for shelf pins in so many faces."""
    every = data.house("pin_every_mm")
    many = max(int((inside(piece).high_mm - 2 * _OFF_MM) / every), 0) + 1
    case = made.case_of(piece)
    over = case.shelves_from_mm - case.floor_mm if case is not None else 0.0
    return Row(
        into,
        _ROWS * faces,
        many,
        _OFF_MM + over,
        every,
        driving.drill_at_least_mm(data.house("pin_mm"), units),
        _DEEP_MM,
    )


def parts(piece: Bookcase | Cabinet) -> list[Part]:
    """Uprights, loose shelves, each a little short, and four pins for each; all of a made body."""
    room, t = inside(piece), piece.inner_mm
    pins = (
        [Part("shelf pin", "shelf pin, 5 mm", 4 * piece.loose_shelves)]
        if piece.loose_shelves
        else []
    )
    if piece.joint is not None:
        return [*made.parts(piece), *pins]
    found = []
    if piece.dividers:
        found.append(cut("upright", piece.inner, piece.dividers, room.high_mm, room.deep_mm, t))
    if fixed := fixed_rows(piece) * room.bays:
        found.append(
            cut("fixed shelf", piece.inner, fixed, room.bay_mm + 2 * _HOUSED_MM, room.deep_mm, t)
        )
    if piece.loose_shelves:
        short = room.bay_mm - data.house("loose_shelf_mm")
        found.append(cut("loose shelf", piece.inner, piece.loose_shelves, short, room.deep_mm, t))
    return [*found, *pins]


def fixed_rows(piece: Bookcase | Cabinet) -> int:
    """Rows of shelves that tie its sides; a cabinet's own body does that."""
    return piece.fixed_rows if isinstance(piece, Bookcase) else 0


def details(piece: Bookcase | Cabinet, units: Units) -> dict[str, Detail]:
    """Bands on what is seen; rows of holes in uprights and in the body's own sides.

    What is measured first.
    """
    found: dict[str, Detail] = {}
    room, sheet = inside(piece), data.boards()[piece.inner].sheet
    here = piece.joint is None
    into = "the inner faces of the body's own two sides" if here else "its inner face"
    rows = row(piece, into, 2 if here else 1, units)._replace(once=here)
    own = (rows,) if piece.loose_shelves else ()
    if piece.dividers:
        works = (row(piece, "both its faces", 2, units),) if piece.loose_shelves else ()
        band = (Band("its front edge", room.high_mm),) if sheet else ()
        found["upright"] = Detail(
            (*works, *band), "good edge to the front", "from the body's bottom to its top, inside"
        )
    if fixed_rows(piece):
        band = (Band("its front edge", room.bay_mm),) if sheet else ()
        found["fixed shelf"] = Detail(
            band,
            "good face up, housed in sides and uprights",
            "into its housings, before the back goes on",
        )
    if piece.loose_shelves:
        band = (Band("its front edge", room.bay_mm),) if sheet else ()
        found["loose shelf"] = Detail(
            (*(own if here else ()), *band),
            "good face up",
            "between two uprights; take off 3 mm (1/8 in)",
        )
    return found if here else made.details(piece, found, own)


def checks(piece: Bookcase | Cabinet) -> list[Check]:
    """Bending and sag of a loose shelf, the pins under it, and what stands the whole.

    None where neither loose shelves nor the body are made.
    """
    unknown, on = unweighed(piece), _on_one(piece)
    bays, factor = piece.dividers + 1, data.uses()[piece.use].factor
    found = made.checks(piece, on.all_n / on.places * bays * factor)
    if not piece.loose_shelves and piece.joint is None:
        return []
    found += [_bending(piece, on, unknown), _sag(piece, on, unknown)]
    found += [_pin(piece, on, unknown)] if piece.loose_shelves else []
    return found + ([_side(piece, unknown)] if isinstance(piece, Bookcase) else [])


def cures(piece: P) -> Iterator[tuple[str, Message, P]]:
    """Yield an upright more, each shelf cut in two by it; thicker loose shelves."""
    if not piece.loose_shelves:
        return
    if isinstance(piece, Bookcase):
        for many in (1, 2):
            if many > piece.fixed_rows:
                label = Message(
                    "A row of fixed shelves across it, that tie its sides"
                    if many == 1
                    else "Two rows of fixed shelves across it, that tie its sides"
                )
                yield "fixed", label, replace(piece, fixed_rows=many)
    bays = piece.dividers + 1
    many = round(piece.loose_shelves / bays * (bays + 1))
    yield (
        "upright",
        Message(
            "An upright more in its inside: {bays} bays, {shelves} shorter shelves",
            {"bays": bays + 1, "shelves": many},
        ),
        replace(piece, dividers=bays, loose_shelves=many),
    )
    for thick in _THICKER_MM:
        if thick > piece.inner_mm + 1:
            label = Message("Loose shelves {t} thick", {"t": Quantity(thick, "fine")})
            yield "inner_thick", label, replace(piece, inner_mm=thick)


class _OnOne(NamedTuple):
    """A loose shelf.

    Its board, free length, own weight, N; what the whole holds, N, and by how many places that is
    shared.
    """

    board: Board
    span_mm: float
    own_n: float
    all_n: float
    places: int


def _on_one(piece: Bookcase | Cabinet) -> _OnOne:
    room, board = inside(piece), data.boards()[piece.inner]
    own = room.bay_mm * room.deep_mm * piece.inner_mm * 1e-9 * board.density_kg_m3 * G_N_PER_KG
    places = piece.loose_shelves + room.bays * (1 + fixed_rows(piece))
    contents = sum(thing.mass_kg or 0.0 for thing in piece.things) * G_N_PER_KG
    return _OnOne(board, room.bay_mm, own, contents, places)


def _side(piece: Bookcase, unknown: tuple[str, ...]) -> Check:
    """Return a side or an upright as a column between what ties it.

    Its bottom, its fixed rows, its top; its back is left out.
    """
    room, board, t = inside(piece), data.boards()[piece.inner], piece.inner_mm
    factor = data.uses()[piece.use].factor
    contents = sum(thing.mass_kg or 0.0 for thing in piece.things) * G_N_PER_KG * factor
    share = (
        1 / room.bays if piece.dividers else 0.5
    )  # an upright carries half of the bays at both its sides
    sums = Calculation()
    sums.given("Q", contents, "force", "what stands in it, with the use factor")
    sums.given("s", share, "ratio", "share of it that one side or upright carries")
    sums.then("F", "s Q", "force")
    free = sums.given(
        "l",
        room.high_mm / (piece.fixed_rows + 1),
        "length",
        "free between bottom, fixed rows and top",
    )
    sums.given("E", board.e_mpa, "stress", compose("stiffness of {board}", board=board.name))
    sums.given("b", room.deep_mm, "length", "its depth")
    sums.given("t", t, "fine", "its thickness")
    sums.then("I", "b t³ / 12", "inertia")
    strength.write_column(sums)
    return make(
        "inside.side",
        part="side" if not piece.dividers else "upright",
        case=_CASE,
        unknown=unknown,
        demand=sums.quantity("F"),
        capacity=sums.quantity("F_max"),
        template="A side or an upright carries {demand}; between what ties it, {free}, it can "
        "carry {capacity}.",
        parts={"free": Quantity(free, "length")},
        equations=sums.equations,
    )


def _loaded(on: _OnOne, factor: float | None) -> Calculation:
    """Return what one loose shelf carries: contents Q, own weight G, with a use factor f."""
    sums = Calculation()
    sums.given("Q_0", on.all_n, "force", "what the whole holds")
    sums.given(
        "n", on.places, "count", "loose shelves and bottoms of bays, on which it stands evenly"
    )
    sums.then("Q", "Q_0 / n", "force", "contents of one")
    if factor is not None:
        sums.given("f", factor, "ratio", "use factor on contents")
    sums.given("G", on.own_n, "force", "own weight of the shelf")
    sums.given("l", on.span_mm, "length", "from pin to pin")
    return sums


def _shelf(piece: Bookcase | Cabinet) -> str:
    """Return what is checked: a loose shelf, or the bottom where none is made."""
    return "loose shelf" if piece.loose_shelves else "bottom"


def _bending(piece: Bookcase | Cabinet, on: _OnOne, unknown: tuple[str, ...]) -> Check:
    sums = _loaded(on, data.uses()[piece.use].factor)
    sums.then("M", "(G + f Q) l / 8", "moment", "bending, free on its pins")
    strength.write_flatwise(sums, inside(piece).deep_mm, piece.inner_mm, "depth of the shelf")
    strength.write_bending(sums, on.board, data.house("duration_years"))
    return make(
        "inside.bending",
        part=_shelf(piece),
        case=_CASE,
        unknown=unknown,
        demand=sums.quantity("σ"),
        capacity=sums.quantity("σ'"),
        template="A loose shelf uses {used} of the bending strength of {board}."
        if piece.loose_shelves
        else "Its bottom uses {used} of the bending strength of {board}, lying free at its ends.",
        parts={"board": on.board.name},
        equations=sums.equations,
    )


def _sag(piece: Bookcase | Cabinet, on: _OnOne, unknown: tuple[str, ...]) -> Check:
    sums = _loaded(on, None)
    sums.given("E", on.board.e_mpa, "stress", compose("stiffness of {board}", board=on.board.name))
    sums.given("b", inside(piece).deep_mm, "length", "depth of the shelf")
    sums.given("t", piece.inner_mm, "fine", "its thickness")
    sums.then("I", "b t³ / 12", "inertia")
    sums.given("k_def", on.board.k_def, "ratio", "creep of the board")
    sums.given("ψ", data.house("steady_share"), "ratio", "share of the contents always there")
    sums.then("W", "G (1 + k_def) + Q (1 + ψ k_def)", "force", "with creep counted in")
    sums.then("w", "5 W l³ / 384 E I", "fine", "sag, free on its pins")
    strength.write_sag_limit(sums)
    return make(
        "inside.sag",
        part=_shelf(piece),
        case="loaded, years",
        unknown=unknown,
        demand=sums.quantity("w"),
        capacity=sums.quantity("w_max"),
        template="Over the years a loose shelf sags {demand}; the limit for {span} is {capacity}."
        if piece.loose_shelves
        else "Over the years its bottom sags {demand}; the limit for {span} is {capacity}.",
        parts={"span": Quantity(on.span_mm, "length")},
        equations=sums.equations,
    )


def _pin(piece: Bookcase | Cabinet, on: _OnOne, unknown: tuple[str, ...]) -> Check:
    """Check a pin in a side of the same board, its load a little out of the face."""
    sums = _loaded(on, data.uses()[piece.use].factor)
    sums.given("n_p", _PINS, "count", "pins under it")
    sums.then("F", "(G + f Q) / n_p", "force", "on each")
    d = sums.given("D", data.house("pin_mm"), "fine", "pin")
    sums.given("L", _DEEP_MM, "fine", "pin in the wood")
    sums.given("e", _PIN_OUT_MM, "fine", "from the wood's face to where the shelf rests")
    sums.given(
        "G_w", on.board.g, "ratio", compose("specific gravity of {board}", board=on.board.name)
    )
    sums.given(
        "F_e", wood.bearing_strength_mpa(on.board.g, d), "stress", "its dowel bearing strength"
    )
    pins.write_carried(sums, "F_e D", _PIN_YIELD_MPA, d)
    sums.given("R_d", wood.reduction_terms(d, d)["IV"], "ratio", "reduction term")
    sums.then("F_max", "min(P_w, P_p) / R_d", "force", "it can carry")
    return make(
        "inside.pin",
        part="shelf pin",
        case=_CASE,
        unknown=unknown,
        demand=sums.quantity("F"),
        capacity=sums.quantity("F_max"),
        template="Each shelf pin carries {demand}; it can carry {capacity}.",
        equations=sums.equations,
    )
