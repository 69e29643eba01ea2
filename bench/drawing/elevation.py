"""The wall from the front, to scale: lining, studs, pieces, and what the stage asks about them."""

from collections.abc import Collection
from typing import Literal, NamedTuple

from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from bench.drawing import around, dimensions, tape, vial
from bench.drawing.names import LETTER_PX, name_at
from bench.drawing.scale import HEIGHT, Scale, of_wall
from bench.drawing.svg import Attribute, Pen, number, outline
from bench.words import memoized_in_language, worded
from trade import wording
from trade.check import Outcome, PieceVerdict, Verdict
from trade.marking.marks import Mark
from trade.measure import Units, say_length
from trade.mounts import Shape, mount_of
from trade.mounts.in_room import Against, against, standing
from trade.plan.ground import stands
from trade.plan.model import AnyPiece, Plan, Stud, Thing, Wall

CERTAIN_MM, LIKELY_MM = 3.5, 10.0  # house rule: how a stud's edge is drawn
_VIAL_W, _VIAL_H = 84.0, 13.0
_PLATE_MM = 38.0
_HOOK_MM = 26.0  # how far under a rail its hooks reach
_LEAST_PX = 3.0  # thinner than this nothing is seen
_THING_MM = 170.0  # things are drawn as plain blocks; nobody said how high they are


class Sheet(NamedTuple):
    """A drawing, the numbers that dragging needs, and how high it is, px."""

    markup: SafeString
    scale: Scale
    high: float = HEIGHT


class VerdictView(NamedTuple):
    """The part of a verdict that the drawing shows.

    The outcome, and what governs, if anything (`support` None: the board).
    """

    outcome: Outcome
    but: str
    used: float
    governs: bool = False
    support: int | None = None


def verdict_view(verdict: PieceVerdict) -> VerdictView:
    """Return the part of a verdict that the drawing shows."""
    outcome = (verdict.outcome, verdict.but, verdict.used)
    return (
        VerdictView(*outcome)
        if verdict.outcome == "holds"
        else VerdictView(*outcome, True, verdict.governing.support)
    )


def draw(
    plan: Plan,
    verdict: Verdict,
    selected: str | None,
    stage: str,
    marks: tuple[Mark, ...],
    on: Scale | None = None,
) -> Sheet:
    """Draw a wall. The parts that `draw_moved` replaces during a drag carry ids.

    Args:
        plan: the wall and its pieces.
        verdict: of the same plan.
        selected: key of the piece that is worked on.
        stage: `survey` brings out the studs, `mark` the holes.
        marks: holes of the selected piece.
        on: another scale than that at which the whole wall is seen.
    """
    pen, scale, named = Pen(), on or of_wall(plan.wall), on is None
    chosen = next((piece for piece in plan.pieces if piece.key == selected), None)
    pen.put(_background(plan.wall, plan.units, scale, stage))
    _tape_marks(pen, plan, chosen, scale, named)
    for piece, judged in zip(plan.pieces, verdict.pieces, strict=True):
        pen.put(
            _piece(
                piece,
                verdict_view(judged),
                plan.units,
                scale,
                scale.y(plan.wall.height_mm),
                piece is chosen,
                named,
            )
        )
    if plan.corners:
        _beside(pen, plan, scale)
    if stage == "survey":
        around.on_top(pen, plan, scale)
        _stud_words(pen, plan, scale)
    if chosen is not None:
        _details(pen, plan, chosen, stage, marks, scale, named)
    _built(pen, plan, scale)
    return Sheet(pen.markup(), scale)


def draw_moved(
    plan: Plan,
    verdict: Verdict,
    selected: str,
    stage: str,
    marks: tuple[Mark, ...],
    others: Collection[str],
) -> SafeString:
    """Draw the parts that change while a piece is dragged.

    The piece, its marks on the tapes, its distances to neighbours.

    Args:
        plan: with the piece where it is now.
        verdict: of the same plan.
        selected: key of the piece.
        stage: as for `draw`.
        marks: its holes.
        others: keys of other pieces to draw again.
    """
    pen, scale, chosen = Pen(), of_wall(plan.wall), plan.piece(selected)
    _tape_marks(pen, plan, chosen, scale, True)
    for piece, judged in zip(plan.pieces, verdict.pieces, strict=True):
        if piece is chosen or piece.key in others:
            pen.put(
                _piece(
                    piece,
                    verdict_view(judged),
                    plan.units,
                    scale,
                    scale.y(plan.wall.height_mm),
                    piece is chosen,
                    True,
                )
            )
    _details(pen, plan, chosen, stage, marks, scale, True)
    return pen.markup()


def _beside(pen: Pen, plan: Plan, scale: Scale) -> None:
    """Draw what of pieces at other walls lies against this one, by its edges."""
    here = next(stand for stand in stands(plan) if stand.key == plan.at)
    for each in against(standing(plan), here):
        beside_outline(pen, each, scale)


def beside_outline(pen: Pen, each: Against, scale: Scale) -> None:
    """Draw one body of a piece at another wall, where it lies against this one."""
    with pen.group("beside"):
        pen.title(worded("“{name}”, from round the corner", name=each.piece.name))
        pen.rect(
            scale.x(each.left_mm),
            scale.y(each.top_mm),
            scale.length(each.right_mm - each.left_mm),
            scale.length(each.top_mm - each.bottom_mm),
            "beside-outline",
        )


def _details(
    pen: Pen,
    plan: Plan,
    chosen: AnyPiece,
    stage: str,
    marks: tuple[Mark, ...],
    scale: Scale,
    named: bool,
) -> None:
    """Draw what the stage shows of the chosen piece: its distances or dimensions, and its holes."""
    with pen.group("measures", id="measures" if named else None):
        if stage == "mark":
            dimensions.draw(pen, plan, chosen, marks, scale)
        elif stage != "hang":
            _measures(pen, chosen, plan, scale)
    if stage in ("mark", "hang"):
        _holes(pen, marks, scale, named)


@memoized_in_language(limit=64)
def _background(wall: Wall, units: Units, scale: Scale, stage: str) -> SafeString:
    """Draw everything behind the pieces."""
    pen = Pen()
    tape.draw(pen, wall, scale, units)
    _wall(pen, wall, units, scale, stage)
    around.draw(pen, wall, units, scale, stage)
    return pen.markup()


def _tape_marks(pen: Pen, plan: Plan, chosen: AnyPiece | None, scale: Scale, named: bool) -> None:
    """Draw marks on the tapes: at the studs, or at the supports and the top of the chosen piece."""
    across = (
        [stud.centre_mm for stud in plan.wall.uprights]
        if chosen is None
        else [chosen.left_mm + x for x in chosen.supports_mm]
    )
    with pen.group("tape-marks", id="tape-marks" if named else None):
        tape.marks(pen, plan.wall, scale, across, [] if chosen is None else [chosen.top_mm])


def _wall(pen: Pen, wall: Wall, units: Units, scale: Scale, stage: str) -> None:
    lining = (
        "mass"
        if wall.build == "mass"
        else "bare"
        if wall.layers == ()
        else "unknown"
        if wall.layers is None
        else "lined"
    )
    x = scale.x(0)
    y = scale.y(wall.height_mm)
    w = scale.length(wall.width_mm)
    h = scale.length(wall.height_mm)
    pen.rect(x, y, w, h, f"wall wall-{lining}", id="wall-face")
    plate = scale.length(_PLATE_MM)
    with pen.group(f"framing framing-{stage}"):
        if wall.build != "mass":
            pen.rect(x, y, w, plate, "plate")
            pen.rect(x, scale.y(0) - plate, w, plate, "plate")
        for stud in wall.uprights:
            _stud(pen, stud, wall, units, scale, stage)
        around.implied(pen, wall, scale)
    if not wall.uprights:
        words = (
            _("No studs: this is masonry") if wall.build == "mass" else _("No stud is known yet")
        )
        pen.text(x + w / 2, y + h - plate - 10, words, "quiet", "middle")


def _stud(pen: Pen, stud: Stud, wall: Wall, units: Units, scale: Scale, stage: str) -> None:
    off = stud.uncertainty_mm
    sure = (
        "doubtful"
        if off is None or off > LIKELY_MM
        else "likely"
        if off > CERTAIN_MM
        else "certain"
    )
    left = scale.x(stud.centre_mm - stud.width_mm / 2)
    top = scale.y(wall.height_mm)
    plate = scale.length(_PLATE_MM)
    width, height = scale.length(stud.width_mm), scale.length(wall.height_mm)
    where = say_length(stud.centre_mm, units)
    doubt = (
        _("how far off is not known")
        if off is None
        else worded("give or take {off}", off=say_length(off, units))
    )
    with pen.group("stud"):
        pen.title(worded("Stud at {where}, {sure}, {doubt}", where=where, sure=sure, doubt=doubt))
        if stage == "survey" and off:
            pen.rect(
                left - scale.length(off),
                top + plate,
                width + 2 * scale.length(off),
                height - 2 * plate,
                "stud-doubt",
            )
        pen.rect(left, top + plate, width, height - 2 * plate, "stud-wood")
        for x in (left, left + width):
            pen.line(x, top + plate, x, top + height - plate, f"stud-edge stud-{sure}")


def _stud_words(pen: Pen, plan: Plan, scale: Scale) -> None:
    """Draw what the tape says at each stud, above what stands in front of it on the floor.

    Of studs side by side the next one's words stand above those of the one before.
    """
    before: tuple[float, float] | None = None
    for stud in plan.wall.uprights:
        low = [
            f.top_mm
            for f in plan.wall.features
            if not f.bottom_mm
            and f.left_mm <= stud.centre_mm <= f.right_mm
            and f.top_mm < plan.wall.height_mm / 2
        ]
        floor = scale.y(max([_PLATE_MM, *low])) - 6
        x, words = scale.x(stud.centre_mm), say_length(stud.centre_mm, plan.units)
        names = [
            y
            for piece in plan.pieces
            for middle, y in [name_at(piece, scale)]
            if abs(x - middle) < len(piece.name) * LETTER_PX / 2
            and floor - len(words) * LETTER_PX < y < floor + LETTER_PX
        ]
        foot = min([floor, *(y - 2 * LETTER_PX for y in names)])
        clear = max(x, scale.x(0) + 2 * LETTER_PX)  # of the tape's figures
        if before is not None and clear - before[0] < 2 * LETTER_PX:
            foot = min(foot, before[1])
        before = clear, foot - (len(words) + 1) * LETTER_PX
        pen.text(clear, foot, words, "stud-words", "start", turn=-90)


@memoized_in_language(limit=2_000)
def _piece(
    piece: AnyPiece,
    verdict: VerdictView,
    units: Units,
    scale: Scale,
    ceiling_px: float,
    chosen: bool,
    movable: bool,
) -> SafeString:
    pen = Pen()
    left, top = scale.x(piece.left_mm), scale.y(piece.top_mm)
    length, thick = scale.length(piece.length_mm), max(scale.length(piece.high_mm), 3.0)
    word = wording.outcome(verdict)
    place = worded(
        "{left_mm} from the left, {top_mm} up",
        left_mm=say_length(piece.left_mm, units),
        top_mm=say_length(piece.top_mm, units),
    )
    name = worded("{piece}: {word}. {place}", piece=piece.name, word=word, place=place)
    ringed = " chosen" if chosen else ""
    handles: dict[str, Attribute] = {
        "data_left": repr(piece.left_mm),
        "data_top": repr(piece.top_mm),
        "data_length": repr(piece.length_mm),
        "data_thick": repr(piece.high_mm),
        "data_key": piece.key,
        "data_post": f"pieces/{piece.key}",
        "data_supports": " ".join(map(str, piece.supports_mm)),
    }
    handles |= {
        "tabindex": 0,
        "role": "button",
        "aria_label": name,
        "aria_pressed": "true" if chosen else "false",
    }
    css = f"piece{' movable' if movable else ''} piece-{verdict.outcome}{ringed}"
    with pen.group(css, id=f"piece-{piece.key}", **(handles if movable else {})):
        pen.title(
            worded("{name}. Drag it, or nudge it with the arrow keys.", name=name)
            if movable
            else name
        )
        _things(pen, piece, scale)
        for shape in mount_of(piece).front(piece):
            _shape(pen, shape, scale, verdict)
        pen.rect(left - 3, top - 22, length + 6, thick + 34, "grip")
        if chosen:
            pen.rect(left - 3, top - 3, length + 6, thick + 6, "ring")
        middle = left + length / 2
        wide = min(_VIAL_W, length)
        high = top - _tallest(piece, scale) - _VIAL_H - 5
        vial.draw(pen, middle - wide / 2, max(high, ceiling_px + 2), wide, _VIAL_H, verdict)
        pen.text(*name_at(piece, scale), piece.name, "piece-name", "middle")
    return pen.markup()


def _holes(pen: Pen, marks: tuple[Mark, ...], scale: Scale, named: bool) -> None:
    """Holes that the selected piece asks for."""
    with pen.group("holes", id="holes" if named else None):
        for mark in marks:
            if mark.where == "wall":
                pen.circle(
                    scale.x(mark.x_mm), scale.y(mark.y_mm), 3.2, "hole", data_number=mark.number
                )


def _built(pen: Pen, plan: Plan, scale: Scale) -> None:
    """Holes that are in the wall: sound ones filled, spoiled ones crossed."""
    for hole in plan.as_built.drilled:
        x, y = scale.x(hole.x_mm), scale.y(hole.y_mm)
        with pen.group(f"drilled drilled-{'sound' if hole.met == 'good' else 'spoiled'}"):
            if hole.met == "good":
                pen.title(
                    worded(
                        "A hole at {x_mm}, {y_mm} up",
                        x_mm=say_length(hole.x_mm, plan.units),
                        y_mm=say_length(hole.y_mm, plan.units),
                    )
                )
                pen.circle(x, y, 2.6, "drilled-hole")
            else:
                pen.title(_("A spoiled hole: nothing within 50 mm (2 in) of it"))
                pen.line(x - 4, y - 4, x + 4, y + 4, "drilled-cross")
                pen.line(x - 4, y + 4, x + 4, y - 4, "drilled-cross")


def _shape(pen: Pen, shape: Shape, scale: Scale, verdict: VerdictView) -> None:
    """One outline of a piece; what governs is brought out.

    The board, or the support that it is about.
    """
    whole = shape.support is not None or shape.role in ("board", "face")
    governs = verdict.governs and verdict.support == shape.support and whole
    state = " governs" if governs else ""
    support = None if shape.support is None else str(shape.support)
    across, up = [scale.x(x) for x, _ in shape.points], [scale.y(y) for _, y in shape.points]
    left, right, top, bottom = min(across), max(across), min(up), max(up)
    if shape.every_mm:
        every = scale.length(shape.every_mm)
        pen.holes(left, right, (top + bottom) / 2, bottom - top, every, f"shape-{shape.role}")
        return
    if len(shape.points) == 4 and len(set(across)) == 2 and len(set(up)) == 2:
        wide, high = max(right - left, _LEAST_PX), max(bottom - top, _LEAST_PX)
        pen.rect(
            (left + right - wide) / 2,
            top,
            wide,
            high,
            f"shape-{shape.role}{state}",
            data_support=support,
        )
    else:
        pen.path(
            outline(zip(across, up, strict=True)),
            f"shape-{shape.role}{state}",
            data_support=support,
        )


def _tallest(piece: AnyPiece, scale: Scale) -> float:
    if not piece.things or mount_of(piece).carries != "on":
        return 0.0
    return max(scale.length(thing.high_mm or _THING_MM) for thing in piece.things)


def _things(pen: Pen, piece: AnyPiece, scale: Scale) -> None:
    carries = mount_of(piece).carries
    if carries == "in":
        return
    top, drawn = scale.y(piece.top_mm), []
    for n, thing in enumerate(piece.things):
        for start, wide, share in _blocks(piece, thing, n):
            high = scale.length(thing.high_mm or _THING_MM) * (
                share if thing.high_mm is None else 1.0
            )
            foot = (
                top if carries == "on" else scale.y(piece.top_mm - piece.high_mm - _HOOK_MM) + high
            )
            across = number(scale.length(wide))
            drawn.append(
                f"M{number(scale.x(start))} {number(foot)}v{number(-high)}h{across}v{number(high)}z"
            )
    if drawn:
        pen.path("".join(drawn), "thing")


def _blocks(piece: AnyPiece, thing: Thing, n: int) -> list[tuple[float, float, float]]:
    """Left edge, width and share of the height of the blocks that stand for a thing."""
    if thing.at_mm is not None:
        wide = min(140.0, piece.length_mm)
        start = min(max(thing.at_mm - wide / 2, 0.0), piece.length_mm - wide)
        return [(piece.left_mm + start, wide, 1.0)]
    spread = [part for part in piece.things if part.at_mm is None]
    slot = piece.length_mm / len(spread)
    start = piece.left_mm + slot * spread.index(thing)
    count = max(int(slot / 110), 1)
    shares = (0.9, 0.7, 1.0, 0.78, 0.62)
    return [
        (start + slot * (i + 0.12) / count, slot * 0.72 / count, shares[(i + n) % len(shares)])
        for i in range(count)
    ]


def _measures(pen: Pen, piece: AnyPiece, plan: Plan, scale: Scale) -> None:
    """Chalk lines to the neighbours or the corners, and from the floor, with what the tape says."""
    start, end, top = piece.left_mm, piece.left_mm + piece.length_mm, scale.y(piece.top_mm)
    level = [other for other in plan.pieces if other is not piece and _meets(other, piece)]
    left = max(
        (other.left_mm + other.length_mm for other in level if other.left_mm < start), default=0.0
    )
    right = min(
        (other.left_mm for other in level if other.left_mm + other.length_mm > end),
        default=plan.wall.width_mm,
    )
    if start - left > 1:
        _dimension(
            pen,
            scale.x(left),
            scale.x(start),
            top,
            say_length(start - left, plan.units),
            "left",
            scale.x(0),
        )
    if right - end > 1:
        _dimension(
            pen,
            scale.x(end),
            scale.x(right),
            top,
            say_length(right - end, plan.units),
            "right",
            scale.x(0),
        )
    x = scale.x(end) - 6
    pen.line(x, top, x, scale.y(0), "chalk")
    words = worded("{length} up", length=say_length(piece.top_mm, plan.units))
    room = x - 4 - len(words) * LETTER_PX > scale.x(0)
    pen.text(
        x - 4 if room else x + 5,
        (top + scale.y(0)) / 2 + 40,
        words,
        "chalk-words",
        "end" if room else "start",
    )
    y = top - _tallest(piece, scale) - _VIAL_H - 12
    if y > scale.y(plan.wall.height_mm) + 12:
        words = worded("{length} long", length=say_length(piece.length_mm, plan.units))
        half = len(words) * LETTER_PX / 2
        middle = min(
            max(scale.x((start + end) / 2), scale.x(0) + half), scale.x(plan.wall.width_mm) - half
        )
        under = name_at(piece, scale)[1] + 3 * LETTER_PX
        others = [other for other in plan.pieces if other is not piece]
        beside = top - y < 3 * LETTER_PX and middle - half < scale.x(start)  # on the line to it
        clear = (
            at
            for at in ((y - 2 * LETTER_PX, y, under) if beside else (y, under))
            if not _on_a_name(middle, at, half, others, scale)
        )
        pen.text(middle, next(clear, y), words, "chalk-words", "middle")


def _on_a_name(x: float, y: float, half: float, others: list[AnyPiece], scale: Scale) -> bool:
    """Whether words there would lie on the name of a piece."""
    names = ((*name_at(other, scale), len(other.name) * LETTER_PX / 2) for other in others)
    return any(
        abs(x - at) < half + reach and abs(y - foot) < LETTER_PX + 2 for at, foot, reach in names
    )


def _meets(other: AnyPiece, piece: AnyPiece) -> bool:
    """Whether a level line at a piece's top runs into another piece."""
    return (
        other.top_mm - other.high_mm
        <= piece.top_mm
        <= other.top_mm + (_THING_MM if other.things and mount_of(other).carries == "on" else 0.0)
    )


def _dimension(
    pen: Pen,
    x1: float,
    x2: float,
    y: float,
    words: str,
    away: Literal["left", "right"],
    edge: float,
) -> None:
    """Draw a level chalk line with its words on it.

    Without room there, away from the piece, not past the corner.
    """
    pen.line(x1, y, x2, y, "chalk")
    wide = len(words) * LETTER_PX
    if x2 - x1 > wide + 4:
        pen.text((x1 + x2) / 2, y - 5, words, "chalk-words", "middle")
    elif away == "left" and x2 - 3 - wide > edge:
        pen.text(x2 - 3, y - 5, words, "chalk-words", "end")
    else:
        pen.text(x1 + 3, y - 5, words, "chalk-words", "start")
