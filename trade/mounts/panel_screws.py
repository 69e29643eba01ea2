"""How panels are held: their own screws, in battens or studs, and the sheet and battens between.

Each panel turns about its lower edge for itself: what hangs on one does not help the next.
"""

from typing import NamedTuple, TypeVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation, Quantity
from trade.check import Check, Message, make
from trade.fixings import driving, wood
from trade.language import compose
from trade.load.line import contents_of
from trade.load.push import push_of
from trade.measure import G_N_PER_KG
from trade.mechanics.beam import widest_mm
from trade.mounts import openings, strength, strips
from trade.mounts.base import Box
from trade.mounts.strips import bent_where
from trade.plan.model import Panel, Wall

BATTEN = "pine_white"  # house rule: battens are taken as the softest wood of the shop
HIGH_MM = data.house("batten_high_mm")
_LIGHT = "wood_8"  # house rule: the screws of a panel into its battens
_LEAST = int(data.house("panel_fixings"))
_EDGE_MM = data.house("panel_screw_edge_mm")
_BEHIND_MM = data.house("panel_screw_short_mm")
_STRIP_MM = data.house("sheet_strip_mm")
_TOUCHING_MM = 1e-6
P = TypeVar("P", bound=Panel)


class _Asked(NamedTuple):
    """What one panel asks of its screws: for years, and with a push; N and N mm."""

    load_n: float
    turning_nmm: float
    pushed_n: float
    pushed_nmm: float


def light(piece: Panel) -> str:
    """Return the screw of a panel into its battens, sold as those of the battens are."""
    return data.screw_beside(_LIGHT, piece.screw)


def enough(piece: Panel) -> Check:
    """Check that each panel has fixings enough of its own; those of its battens do not count."""
    if piece.batten_mm:
        each = [piece.rows * len(piece.columns_mm)]
    else:
        each = [piece.rows * len(panel.supports_mm) for panel in singly(piece)]
    said = (
        "A panel needs at least {demand} fixings of its own; it has {capacity}."
        if piece.panels == 1
        else "Each panel needs at least {demand} fixings of its own; one has {capacity}."
    )
    return make(
        "panel.fixings",
        part="panel",
        case="any",
        demand=Quantity(_LEAST, "count"),
        capacity=Quantity(max(min(each), 0.5), "count"),
        template=said,
    )


def on_joint(piece: Panel) -> list[Check]:
    """Check that no screw goes through the joint of two panels, or too near to an edge there.

    Nothing for one panel, nor on battens, which run across the joint.
    """
    if piece.batten_mm or piece.panels == 1:
        return []
    away = {at: max(min(at - a, b - at) for a, b in piece.edges_mm) for at in piece.supports_mm}
    return [
        make(
            "panel.joint",
            part="panel",
            case="any",
            demand=Quantity(_EDGE_MM, "fine"),
            capacity=Quantity(max(min(away.values()), _TOUCHING_MM), "fine"),
            template="A screw needs {demand} of panel beside it; at a joint it has {capacity}. On "
            "battens a joint may be anywhere.",
        )
    ]


def singly(piece: P) -> list[P]:
    """Return each panel as a piece of its own; what hangs at a joint is on both sides of it.

    With the supports that it has; what is spread over all of them is shared by them.
    """
    if piece.panels == 1:
        return [piece]
    found = []
    for left, right in piece.edges_mm:
        low, high = left - piece.gap_mm - _TOUCHING_MM, right + piece.gap_mm + _TOUCHING_MM
        things = tuple(
            replace(thing, mass_kg=thing.mass_kg and thing.mass_kg / piece.panels)
            if thing.at_mm is None
            else replace(thing, at_mm=min(max(thing.at_mm - left, 0.0), piece.panel_mm))
            for thing in piece.things
            if thing.at_mm is None or low <= thing.at_mm <= high
        )
        held = tuple(at - left for at in piece.supports_mm if left <= at <= right)
        found.append(
            replace(
                piece,
                left_mm=piece.left_mm + left,
                length_mm=piece.panel_mm,
                supports_mm=held,
                things=things,
                panels=1,
                joint_mm=None,
            )
        )
    return found


def _asked(piece: Panel, own_n: float) -> _Asked:
    """Return what the panel asks that is loaded most."""
    factor, own = data.uses()[piece.use].factor, own_n / piece.panels
    most = (0.0, 0.0)
    for panel in singly(piece):
        loads, outs = contents_of(panel, ())
        weights = [factor * load.total_n for load in loads]
        turning = sum(weight * out for weight, out in zip(weights, outs, strict=True))
        turning += own * (piece.thickness_mm / 2 + piece.batten_mm)
        most = max(most, (turning, own + sum(weights)))
    turning, force = most
    push = push_of(piece).n
    return _Asked(force, turning, force + push, turning + push * piece.depth_mm)


def _write_top_pull(piece: Panel, own_n: float, sums: Calculation) -> tuple[float, str]:
    """Write the pull on the top batten, P, as its panel turns about its lower edge."""
    asked = _asked(piece, own_n)
    turning, duration, case = strength.lasting_or_pushed(asked.turning_nmm, asked.pushed_nmm)
    words = "what turns the panel that is loaded most, {case}"
    sums.given("M", turning, "moment", compose(words, case=case))
    sums.given("h_t", piece.rows_mm[0], "length", "the top row above its lower edge")
    total = sum(row * row for row in piece.rows_mm)
    sums.given("H", total, "area", "sum of the squares of all rows' heights")
    sums.then("P", "M h_t / H", "force", "pull on the top batten")
    return duration, case


def in_battens(piece: Panel, own_n: float, unknown: tuple[str, ...]) -> list[Check]:
    """Check a panel's screws in the top batten: pull, and pull and shear together.

    The thread is no longer than the batten is thick.
    """
    screw, row, sums = data.screws()[light(piece)], data.boards()[BATTEN], Calculation()
    duration, case = _write_top_pull(piece, own_n, sums)
    sums.given("n", len(piece.columns_mm), "count", "the panel's screws in it")
    sums.then("P_1", "P / n", "force", "pull of each")
    sums.given("L", piece.panel_screw_mm, "length", "length of a screw")
    sums.given("t", piece.thickness_mm, "fine", "thickness of the panel")
    sums.given("b", piece.batten_mm, "fine", "thickness of the batten")
    thread = driving.thread_length_mm(screw, piece.panel_screw_mm)
    sums.given("L_T", thread, "fine", "its thread")
    sums.given("E", screw.tip_mm, "fine", "its tip, which does not count")
    sums.then("p", "max(min(L_T, L − t, b) − E, 0)", "fine", "thread in the batten")
    words = compose("specific gravity of {row}, as battens are taken", row=row.name)
    strength.write_withdrawal(sums, screw, row, words, duration)
    pulled = make(
        "panel.batten_screws",
        part="panel",
        case=case,
        unknown=unknown,
        demand=sums.quantity("P_1", "pull"),
        capacity=sums.quantity("W'", "pull"),
        template="Each #8 screw of the panel in its top batten is pulled with {demand}; its "
        "thread holds {capacity}.",
        equations=sums.equations,
    )
    return [pulled, _together(piece, own_n, sums, case, unknown)]


def _together(
    piece: Panel, own_n: float, sums: Calculation, case: str, unknown: tuple[str, ...]
) -> Check:
    """Check the same screws carrying their part of the weight besides."""
    screw, asked = data.screws()[light(piece)], _asked(piece, own_n)
    pushed = case != "loaded, for years"
    depth = max(min(piece.panel_screw_mm - piece.thickness_mm, piece.batten_mm), 0.0)
    bearing = wood.bearing_length_mm(depth, screw.diameter_mm, screw.tip_mm)
    fe = wood.bearing_strength_mpa(data.boards()[BATTEN].g, screw.diameter_mm)
    side = strips.side_of(piece.board, piece.thickness_mm, screw.diameter_mm)
    value = wood.lateral(wood.dowel(screw), side, 0.0, fe, bearing).value_n if bearing > 0 else 0.0
    force = asked.pushed_n if pushed else asked.load_n
    sums.given("F", force, "force", "weight of the panel and all that hangs on it")
    screws = piece.rows * len(piece.columns_mm)
    sums.given("n_a", screws, "count", "all of its screws: a sheet shares evenly")
    sums.then("V", "F / n_a", "force", "shear of each")
    sums.given("Z", value, "force", "what one carries in shear")
    sums.then("Z'", "Z C_D", "force")
    sums.then("T_1", "P_1", "force", "its pull")
    sums.then("R", "√(T_1² + V²)", "force", "both together")
    weak = not (sums.quantity("W'").value and value)
    if not weak:
        sums.then("u", wood.HANKINSON.text, "percent", "Hankinson, no less than either alone")
    return make(
        "panel.batten_together",
        part="panel",
        case=case,
        unknown=unknown,
        demand=Quantity(2.0, "percent") if weak else sums.quantity("u"),
        capacity=Quantity(1.0, "percent"),
        template="In pull and shear together the panel's screws in its top batten use {used} of "
        "what they hold.",
        equations=sums.equations,
    )


def short_enough(piece: Panel) -> Check:
    """Check that a panel's screws do not come out behind its batten."""
    sums = Calculation()
    sums.given("L", piece.panel_screw_mm, "length", "length of a screw")
    sums.given("s", _BEHIND_MM, "fine", "it stops short by")
    sums.then("L_s", "L + s", "fine", "so deep")
    sums.given("t", piece.thickness_mm, "fine", "thickness of the panel")
    sums.given("b", piece.batten_mm, "fine", "thickness of the batten")
    sums.then("t_b", "t + b", "fine", "panel and batten")
    return make(
        "panel.behind",
        part="panel",
        case="any",
        demand=sums.quantity("L_s"),
        capacity=sums.quantity("t_b"),
        equations=sums.equations,
        template="The panel's screws must not come out behind: with room they need {demand}; "
        "panel and batten are {capacity}.",
    )


def batten_over_box(piece: Panel, own: Box, wall: Wall) -> list[Check]:
    """Check that no batten runs across a box, which would be covered whatever is cut out.

    Nothing where none does.
    """
    low, half = piece.top_mm - piece.height_mm, HIGH_MM / 2
    for box in openings.behind(own, wall):
        middle, needed = (box.bottom_mm + box.top_mm) / 2, (box.top_mm - box.bottom_mm) / 2 + half
        apart = min(abs(low + up - middle) for up in piece.rows_mm)
        if apart < needed:
            check = make(
                "panel.batten_box",
                part="batten",
                case="any",
                demand=Quantity(needed, "length"),
                capacity=Quantity(max(apart, 1e-6), "length"),
                template="A batten runs across {what}: {demand} must lie between their middles, "
                "and {capacity} do.",
                parts={"what": box.row.reason},
            )
            return [check]
    return []


def batten_bending(piece: Panel, own_n: float, unknown: tuple[str, ...]) -> Check:
    """Check flatwise bending of the top batten, pulled out evenly between its screws."""
    row, span = data.boards()[BATTEN], widest_mm(piece.length_mm, piece.supports_mm)
    where, apart = bent_where(piece.length_mm, piece.supports_mm)
    sums = Calculation()
    duration, case = _write_top_pull(piece, own_n, sums)
    sums.given("L", piece.panel_mm, "length", "length of a panel")
    sums.then("p", "P / L", "line", "pull along it")
    sums.given("l", span, "length", "widest gap between screws, or twice the overhang")
    sums.then("M_b", "p l² / 8", "moment", "bending")
    strength.write_flatwise(sums, HIGH_MM, piece.batten_mm, "height of the batten", "M_b")
    strength.write_bending(sums, row, duration)
    return make(
        "panel.batten_bending",
        part="batten",
        case=case,
        unknown=unknown,
        demand=sums.quantity("σ"),
        capacity=sums.quantity("σ'"),
        template="{where} the top batten uses {used} of the bending strength of {wood}.",
        parts={"where": Message(where, {"span": apart}), "wood": row.name},
        equations=sums.equations,
    )


def _write_strip(piece: Panel, sums: Calculation) -> None:
    """Write the section of the sheet that bears one holder between two rows, S."""
    sums.given("b_h", _STRIP_MM, "length", "so wide a strip bends with a holder")
    sums.given("B", piece.panel_mm, "length", "width of a panel")
    sums.then("b", "min(b_h, B)", "length", "that strip")
    sums.given("t", piece.thickness_mm, "fine", "thickness of the panel")
    sums.given("k_n", piece.net, "ratio", "left of it beside its holes")
    sums.then("S", "k_n b t² / 6", "section", "section modulus")


def sheet(piece: Panel, unknown: tuple[str, ...]) -> Check:
    """Check the sheet between two rows of screws, bent by the holder that turns it most."""
    row, sums, use = data.boards()[piece.board], Calculation(), data.uses()[piece.use]
    loads, outs = contents_of(piece, ())
    near = min(data.house("hand_wide_mm") / piece.length_mm, 1.0)
    lasting = use.factor * max(
        (
            load.total_n * (1.0 if load.end_mm <= load.start_mm else near) * out
            for load, out in zip(loads, outs, strict=True)
        ),
        default=0.0,
    )
    pushed = max(lasting, push_of(piece).n * piece.depth_mm)
    turning, duration, case = strength.lasting_or_pushed(
        lasting, pushed, "a tug at what hangs there"
    )
    words = "what the heaviest holder turns it with, {case}"
    sums.given("M", turning, "moment", compose(words, case=case))
    sums.then("M_s", "M / 2", "moment", "half of it above, half below: bending")
    _write_strip(piece, sums)
    sums.then("σ", "M_s / S", "stress")
    strength.write_bending(sums, row, duration)
    return make(
        "panel.sheet",
        part="panel",
        case=case,
        unknown=unknown,
        demand=sums.quantity("σ"),
        capacity=sums.quantity("σ'"),
        template="Between its rows of screws a holder bends the sheet: {used} of the strength of "
        "{wood}.",
        parts={"wood": row.name},
        equations=sums.equations,
    )


def holder_kg(piece: Panel) -> float:
    """Return what one holder may carry between two rows of screws, by the sheet's bending, kg."""
    sums = Calculation()
    _write_strip(piece, sums)
    row = data.boards()[piece.board]
    strength.write_bending(sums, row, data.house("duration_years"))
    sums.given("k_u", data.uses()[piece.use].factor, "ratio", "use factor")
    sums.given("z", piece.depth_mm, "length", "it reaches out")
    return sums.then("F", "2 σ' S / (k_u z)", "force") / G_N_PER_KG
