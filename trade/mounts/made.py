"""Bodies that are made: their boards as parts, what is done to each, what they weigh and carry."""

from collections import Counter
from typing import TypeVar

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation
from trade.check import Assumption, Check, Message, make
from trade.fixings import driving, wood
from trade.language import compose, sized, word
from trade.load.line import unweighed
from trade.measure import G_N_PER_KG
from trade.mounts.base import Ask, Making, Part, Role, Shape, block, cut
from trade.mounts.hanging import Do, do
from trade.mounts.work import Band, Detail, Groove, Instruction, Joined, Mitre, Notch, Rabbet, Work
from trade.plan.model import Bookcase, Cabinet
from trade.workshop.carcass import BACK_BOARD, BOTTOM_MM, Case, boards, weight_kg
from trade.workshop.drawer import GROOVE_UP_MM, groove_mm
from trade.workshop.panels import OUT, UP, Panel

Body = Bookcase | Cabinet
B = TypeVar("B", Bookcase, Cabinet)
ASKS = (
    Ask(
        "joint",
        "Its body is made, joined by",
        "choice",
        data.joints,
        none="It is there already, or bought",
    ),
    Ask("panel_mm", "Back of the made body thick", "length", help="0 for none."),
    Ask(
        "drawer_mm",
        "Drawers at its bottom, height",
        "length",
        help="One drawer in each bay of a made body. 0 for none.",
    ),
)
_SCREW, _SCREW_MM = "wood_8", 50.0
_MITRE = 45.0
_SAME_MM = 0.05
_STOP_MM = data.house("groove_stops_mm")
_IN_A_ROW = (
    "Cut the fronts of a row one after another from one board, and number them: the figure of the "
    "wood runs on from one to the next."
)
_FITTED = (
    "Set it in its opening on two thin shims, and screw it to the drawer from inside: with slotted "
    "holes, so that it can be moved a little."
)


def case_of(piece: Body) -> Case | None:
    """Return the case that a body is; None where it is not made."""
    if piece.joint is None:
        return None
    t, thin = piece.inner_mm, piece.panel_mm
    case = Case(
        piece.length_mm,
        piece.height_mm,
        piece.depth_mm,
        piece.inner,
        t,
        data.joints()[piece.joint],
        back_mm=thin,
        dividers=piece.dividers,
        loose=piece.loose_shelves,
        drawer_mm=piece.drawer_mm,
    )
    inside = piece.height_mm - 2 * t - (piece.kick_mm if isinstance(piece, Bookcase) else 0.0)
    usual = min(data.house("back_rail_mm"), inside / 2)
    if isinstance(piece, Bookcase):
        return case._replace(
            kick_mm=piece.kick_mm, rows=piece.fixed_rows, rail_mm=usual, rail_thick_mm=t
        )
    behind = thin < piece.back_mm
    rail = min(max(usual, piece.down_mm + piece.half_mm - t), inside) if behind else 0.0
    return case._replace(doors=piece.doors, rail_mm=rail, rail_thick_mm=t)


def panels(piece: Body) -> tuple[Panel, ...]:
    """Return every board of a body that is made; nothing where it is not."""
    case = case_of(piece)
    return () if case is None else boards(case)


def front(piece: Body, foot_mm: float) -> list[Shape]:
    """Return the boards of a made body from the front, its foot so far up; doors before them."""
    found = []
    for each in panels(piece):
        if each.name not in _UNSEEN:
            low, high = each.body.low, each.body.high
            left, right = piece.left_mm + low[0], piece.left_mm + high[0]
            role: Role = "door" if each.name in ("door", "drawer front") else "wood"
            found.append(block(role, left, foot_mm + low[1], right, foot_mm + high[1]))
    return found


def measured(piece: B, board: str, called_mm: float, found_mm: float) -> B:
    """Return a body whose back is as thick as was measured, where it is that board that was."""
    same = abs(piece.panel_mm - called_mm) < _SAME_MM
    if piece.joint is None or board != BACK_BOARD or not same:
        return piece
    return replace(piece, panel_mm=found_mm)


def empty_kg(piece: Body) -> float | None:
    """Return what a body weighs empty: as it was weighed, else by its boards, else nobody knows."""
    case = case_of(piece)
    if piece.body_kg is not None or case is None:
        return piece.body_kg
    return weight_kg(case)


def lightest_kg(piece: Body) -> float | None:
    """Return what it weighs with its loose shelves taken out: then it tips most easily."""
    case = case_of(piece)
    if piece.body_kg is not None or case is None:
        return piece.body_kg
    return weight_kg(case._replace(loose=0))


def parts(piece: Body) -> list[Part]:
    """Return the boards of a body, alike ones together, and what joins them."""
    case = case_of(piece)
    if case is None:
        return []
    found = Counter((each.name, each.board, each.sizes_mm) for each in boards(case))
    bought = []
    if case.joint.fastener:
        ends = _ends(case)
        each = len(case.joint.places_mm(case.front_mm - case.back_mm))
        bought.append(
            Part("joint", sized(case.joint.fastener), ends * each, None, price=case.joint.price)
        )
    return [
        *(cut(name, board, many, *sizes) for (name, board, sizes), many in found.items()),
        *bought,
    ]


def details(piece: Body, known: dict[str, Detail], rows: tuple[Work, ...]) -> dict[str, Detail]:
    """Return what is done to each board.

    Args:
        piece: the body.
        known: what is done to the parts of its inside.
        rows: holes for shelf pins in the inner face of each side.
    """
    case, found = case_of(piece), dict(known)
    assert case is not None
    for panel in boards(case):
        before = known.get(panel.name, Detail())
        works = [*_joints(case, panel), *_bands(case, panel)]
        works += [work for work in before.works if not isinstance(work, Band)]
        found[panel.name] = Detail(
            tuple(works), _SEEN.get(panel.name, before.wall), bare=panel.name == "rail"
        )
    if rows:
        found["side"] = found["side"]._replace(works=(*found["side"].works, *rows))
    return found


_SEEN = {
    "side": "good face out, good edge to the front",
    "top": "good edge to the front",
    "bottom": "good edge to the front",
    "back": "goes on last, when the corners are glued or screwed and the diagonals are equal",
    "rail": "under the top, before the back: what holds it to the wall goes through here",
    "kick": "good face to the front",
    "door": "grain up, good face out",
    "fixed shelf": "good face up, before the back goes on",
    "loose shelf": "good face up",
    "drawer front": "good face out",
    "drawer bottom": "goes in before the last side",
}
_UNSEEN = ("back", "rail", "drawer side", "drawer end", "drawer bottom")


def _ends(case: Case) -> int:
    """How many ends of boards are joined to a face."""
    flat = 2 if case.joint.way != "mitred" else 0
    return 2 * (flat + case.dividers + len(case.rows_mm) * (case.dividers + 1))


def _joints(case: Case, panel: Panel) -> list[Work]:
    t, housed, joint = case.board_mm, case.housed_mm, case.joint
    if panel.mitres:
        inside = "on the inner face"
        return [Mitre("both ends", _MITRE, t, inside), Joined(joint.name, "both ends", ())]
    if panel.name in ("rail", "kick", "back", "door", "loose shelf"):
        return []
    if panel.name.startswith("drawer"):
        return _drawer(case, panel)
    works: list[Work] = []
    if panel.name == "side":
        if case.rabbet_mm:
            works.append(Rabbet("its back edge", case.back_mm, case.rabbet_mm))
        if housed:
            works.append(Rabbet("its upper end", t, housed))
            lows = (case.kick_mm, *case.rows_mm)
            works.append(Groove("its inner face", "its foot", lows, t, housed, _STOP_MM))
        return works
    if housed and panel.name == "upright" and case.rows_mm:
        lows = tuple(low - panel.body.low[UP] for low in case.rows_mm)
        works.append(Groove("both its faces", "its foot", lows, t, housed, _STOP_MM))
    if housed and panel.name in ("top", "bottom") and case.dividers:
        lefts = tuple(left - t - panel.body.low[0] for left, _ in case.bays_mm[1:])
        works.append(Groove("its inner face", "its left end", lefts, t, housed, _STOP_MM))
    if housed and panel.name != "top":
        works.append(Notch("both ends, at the front", housed, _STOP_MM))
    if panel.name == "upright" and case.rail_mm:
        works.append(Notch("its upper back corner", case.rail_mm + housed, case.rail_thick_mm))
    joins = case.joint.places_mm(panel.body.size(OUT))
    works.append(Joined(joint.name, "both ends", joins))
    return works


def _drawer(case: Case, panel: Panel) -> list[Work]:
    """Return what is done to a board of a drawer."""
    t, bottom = case.board_mm, case.back_mm or BOTTOM_MM
    if panel.name == "drawer front":
        many = len(case.drawers_mm)
        row: list[Work] = [Instruction(_IN_A_ROW)] if many > 1 else []
        return [*row, Instruction(_FITTED)]
    if panel.name == "drawer bottom":
        return []
    up = (GROOVE_UP_MM,)
    groove = Groove("its inner face", "its lower edge", up, bottom, groove_mm(t), 0.0)
    joined = [Joined(word("glue and screws"), "both ends", ())]
    return [groove, *(joined if panel.name == "drawer end" else [])]


def _bands(case: Case, panel: Panel) -> list[Work]:
    """Return the raw edges of a sheet that are seen."""
    raw = ("kick", *(name for name in _UNSEEN))
    if not data.boards()[panel.board].sheet or panel.name in raw:
        return []
    if panel.name in ("door", "drawer front"):
        long, wide, _ = panel.sizes_mm
        return [Band("all four edges", 2 * (long + wide))]
    return [Band("its front edge", panel.sizes_mm[0])]


def assumed(piece: Body) -> tuple[Assumption, ...]:
    """Return what is taken for granted of a body that is made."""
    case = case_of(piece)
    if case is None or case.joint.judged:
        return ()
    said = compose(
        "The corners of its body hold: nothing that we know says what {joint} carry.",
        joint=case.joint.name,
    )
    return (Assumption("corners", said),)


def checks(piece: Body, bottom_n: float) -> list[Check]:
    """Check the corners under its bottom, and the room under its shelves.

    Args:
        piece: the body.
        bottom_n: what stands on its bottom, use factor included, N.
    """
    case = case_of(piece)
    if case is None:
        return []
    found = [_room(case)]
    if case.joint.judged:
        found.append(_corner(piece, case, bottom_n))
    return found


def _room(case: Case) -> Check:
    sums = Calculation()
    sums.given("s_min", data.house("shelf_room_mm"), "length", "for a hand")
    sums.given("s", case.room_mm, "length", "free under the lowest of its shelves")
    return make(
        "body.room",
        part="body",
        case="any",
        demand=sums.quantity("s_min"),
        capacity=sums.quantity("s"),
        template="Between its shelves {capacity} is free; a hand takes {demand}.",
        equations=sums.equations,
    )


def _corner(piece: Body, case: Case, bottom_n: float) -> Check:
    """Return one end of the bottom, on what joins it to the side."""
    row, joint, sums = data.boards()[case.board], case.joint, Calculation()
    bottom = next(each for each in boards(case) if each.name == "bottom")
    own = bottom.volume_mm3 * 1e-9 * row.density_kg_m3 * G_N_PER_KG
    sums.given("Q", bottom_n, "force", "what stands on it, with the use factor")
    sums.given("G", own, "force", "its own weight")
    sums.then("F", "(Q + G) / 2", "force", "at each of its ends")
    deep = case.front_mm - case.back_mm
    if joint.judged == "screws":
        _write_screws(sums, piece, case, len(joint.places_mm(deep)))
    else:
        sums.given("h", case.housed_mm, "fine", "its end in the groove")
        sums.given("b", deep - _STOP_MM, "length", "length of the groove")
        bearing = compose("{row}, pressed across the grain", row=row.name)
        sums.given("F_c", row.bearing_mpa, "stress", bearing)
        sums.then("F_max", "F_c h b", "force", "it can carry")
    return make(
        "body.corner",
        part="body",
        case="loaded, for years",
        unknown=unweighed(piece),
        demand=sums.quantity("F", "pull"),
        capacity=sums.quantity("F_max", "pull"),
        template="Each end of its bottom carries {demand}; by {joint} it can carry {capacity}.",
        parts={"joint": joint.name},
        equations=sums.equations,
    )


def _write_screws(sums: Calculation, piece: Body, case: Case, many: int) -> None:
    """Write what the screws through a side into the end grain of a board carry across."""
    row = data.boards()[case.board]
    screw = data.screws()[data.screw_beside(_SCREW, piece.screw)]
    length = driving.nearest_length_mm(screw, _SCREW_MM)
    reach = driving.reach(screw, length, case.board_mm)
    side = wood.wood_side(case.board_mm, row.g, screw.diameter_mm)
    bearing = wood.bearing_length_mm(reach.penetration_mm, screw.diameter_mm, screw.tip_mm)
    fe = wood.bearing_strength_mpa(row.g, screw.diameter_mm)
    one = wood.lateral(wood.dowel(screw), side, 0.0, fe, bearing).value_n if bearing > 0 else 0.0
    sums.given("n", many, "count", "screws in each end")
    sums.given("Z", one, "force", "one across, through the side into the board (NDS 12.3.1)")
    sums.given("C_eg", data.house("end_grain"), "ratio", "in end grain")
    sums.given("C_D", data.house("duration_years"), "ratio", "load for years")
    sums.then("F_max", "n Z C_eg C_D", "force", "they can carry")


def making(piece: Body) -> Making:
    """Return how long its joints take and putting it together, until its glue has set, and how."""
    case = case_of(piece)
    if case is None:
        return Making()
    corners = 4 if case.joint.way == "mitred" else 0
    minutes = (_ends(case) + corners) * case.joint.minutes + data.house("assemble_minutes")
    minutes += len(case.drawers_mm) * data.house("drawer_minutes")
    hours = data.house("glue_hours") if case.joint.glue else 0.0
    return Making(minutes, hours, (_together(case, hours),), case.joint.tools)


def _together(case: Case, sets_hours: float) -> Do:
    """Return how its boards become a body, before anything is done at the wall."""
    joint, words = case.joint, [Message(case.joint.setting), Message(case.joint.work)]
    words.append(
        Message(
            "All of it together once without glue, a ruler along both diagonals: equal, or a "
            "clamp along the longer one."
            if joint.glue
            else "A ruler along both diagonals before the last screws: equal, or push the longer "
            "one in."
        )
    )
    inner = case.dividers or case.rows
    order = ["Uprights and fixed shelves first, lying on its front."] if inner else []
    if joint.glue:
        order.append("Glue, clamps, and what squeezes out wiped off with a damp cloth.")
    if case.back_mm:
        order.append("The back on last, while the diagonals are equal: it keeps the body square.")
    if case.drawer_mm:
        order.append(
            "Each drawer into its opening before its front goes on: plane what rubs, and rub a "
            "candle on what it runs on."
        )
    return do("make-body", "Put its body together", *words, *order, wait_hours=sets_hours)
