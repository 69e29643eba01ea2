"""The calculation sheet of a whole wall.

What is not known and what is assumed first, then every sum of every piece.
"""

from django.utils.translation import gettext as _

from bench.printing.paper import FILLS, Paper
from bench.words import lazy, said, say, worded
from trade import wording
from trade.assess import assess
from trade.check import Check, PieceVerdict, Verdict
from trade.language import compose, joined, small
from trade.measure import Units, say_length
from trade.mounts import mount_of
from trade.plan import plan_file
from trade.plan.model import AnyPiece, Plan
from trade.plan.pieces.base import Thing
from trade.plan.place import faced

_HIGH_MM = 62.0
_FOOT = lazy(
    "Gancho. A sum is no licence: local codes decide, and a licensed person where lives, gas "
    "or electricity are concerned."
)


def sums_sheet(plan: Plan, verdict: Verdict, units: Units, job: str, day: str) -> bytes:
    """Return the sheet as a PDF.

    Args:
        plan: the wall and all that hangs on it.
        verdict: of the same plan.
        units: to print in.
        job: whose wall it is.
        day: when it was printed.
    """
    paper = Paper(units, worded("Sums of {name}", name=plan.name), _FOOT)
    paper.title_line(
        worded("Sums of {name}", name=plan.name),
        worded(
            "{job}. Printed {day}. Plan format {format} {version}.",
            job=job,
            day=day,
            format=plan_file.FORMAT,
            version=plan_file.VERSION,
        ),
    )
    for on in faced(plan):
        judged = verdict if on is plan else assess(on)
        if plan.corners:
            paper.heading(on.faced_name)
        _first(paper, on, judged, units)
        _drawing(paper, on)
        for piece in on.pieces:
            _piece(paper, piece, judged.piece(piece.key), units)
    return bytes(paper.output())


def _first(paper: Paper, plan: Plan, verdict: Verdict, units: Units) -> None:
    """Draw what decides whether any of it can be trusted."""
    paper.say(
        compose("{word}.", word=wording.WORDS[verdict.outcome])
        if plan.pieces
        else _("Nothing hangs on this wall yet."),
        bold=True,
    )
    unknown = [(piece.name, ask) for piece in verdict.pieces for ask in piece.unknown]
    paper.heading(_("Not known: find out first"))
    paper.points(_told(name, ask) for name, ask in unknown) if unknown else paper.say(
        _("Nothing is missing.")
    )
    paper.heading(_("Assumed"))
    assumed = dict.fromkeys(each.text for piece in verdict.pieces for each in piece.assumptions)
    paper.points(assumed or [_("The wall is dry and indoors.")])
    paper.heading(_("What is judged"))
    wide = (paper.epw - 80) / 1
    paper.row(((_("Mounting"), 45.0), (_("Verdict"), 22.0), (_("What governs"), wide)), bold=True)
    paper.rule()
    for piece in verdict.pieces:
        standings = joined((_told(each.name, each.said) for each in wording.standings(piece)), "; ")
        paper.row(
            ((piece.name[:28], 45.0), (wording.WORDS[piece.outcome], 22.0), (standings, wide))
        )


def _drawing(paper: Paper, plan: Plan) -> None:
    """Draw the wall from the front, small."""
    wall = plan.wall
    scale = min(_HIGH_MM / wall.height_mm, paper.epw / wall.width_mm)
    if paper.will_page_break(wall.height_mm * scale + 14):
        paper.add_page()
    paper.heading(_("From the front, 1 : {value:.0f}").format(value=1 / scale))
    left, foot = paper.l_margin, paper.get_y() + 1 + wall.height_mm * scale

    def at(x: float, y: float) -> tuple[float, float]:
        return left + x * scale, foot - y * scale

    def box(a: float, b: float, c: float, d: float) -> list[tuple[float, float]]:
        return [at(a, b), at(c, b), at(c, d), at(a, d)]

    paper.outline(box(0, 0, wall.width_mm, wall.height_mm), None)
    for stud in wall.uprights:
        half = stud.width_mm / 2
        paper.outline(
            box(stud.centre_mm - half, 0, stud.centre_mm + half, wall.height_mm), (245, 238, 225)
        )
    for feature in wall.features:
        paper.outline(
            box(feature.left_mm, feature.bottom_mm, feature.right_mm, feature.top_mm),
            (235, 240, 245),
        )
    for piece in plan.pieces:
        for shape in mount_of(piece).front(piece):
            if shape.every_mm:
                continue  # holes too small to be seen
            paper.outline(
                [at(x, y) for x, y in shape.points],
                FILLS[shape.role],
                shape.role in ("hidden", "shade"),
            )
        x, y = at(piece.left_mm + piece.length_mm / 2, piece.top_mm - piece.high_mm)
        paper.label(x, y + 0.5, piece.name)
    paper.set_xy(left, foot + 3)


def _piece(paper: Paper, piece: AnyPiece, verdict: PieceVerdict, units: Units) -> None:
    mount = mount_of(piece)
    paper.heading(_told(piece.name, small(wording.outcome(verdict))), keep_mm=40.0)
    places = joined(say_length(piece.left_mm + x, units) for x in piece.supports_mm)
    long, deep, up, left = (
        say_length(mm, units)
        for mm in (piece.length_mm, piece.depth_mm, piece.top_mm, piece.left_mm)
    )
    paper.quiet(
        worded(
            "{mount}. {long} long, {deep} deep, its top {up} up, its left end {left} from "
            "the corner; held at {places}.",
            mount=mount.name,
            long=long,
            deep=deep,
            up=up,
            left=left,
            places=places,
        )
    )
    loads = joined(
        (
            compose("{thing} {weight}", thing=thing.name, weight=_weight(thing, units))
            for thing in piece.things
        ),
        "; ",
    )
    paper.quiet(worded("Carries: {loads}.", loads=loads or _("not known")))
    paper.say(wording.headline(verdict, units))
    for standing in wording.standings(verdict):
        if standing.checks:
            paper.heading(_told(standing.name, standing.said), keep_mm=30.0)
        for check in standing.checks:
            _check(paper, check, units)


def _weight(thing: Thing, units: Units) -> str:
    if thing.mass_kg is None:
        return _("not weighed")
    return wording.quantity(wording.kilograms(thing.mass_kg), units)


def _check(paper: Paper, check: Check, units: Units) -> None:
    if paper.will_page_break(16 + 4.2 * min(len(check.equations), 4)):
        paper.add_page()
    paper.ln(1.5)
    paper.rule()
    line, outcome = wording.check_line(check, units), small(wording.WORDS[check.outcome])
    figures = (line, wording.utilisation(check.utilisation)) if line else ()
    paper.say(_told(check.name, joined((*figures, outcome))), bold=True)
    paper.quiet(
        worded(
            "{part}; {case}. {sentence}",
            part=check.part,
            case=check.case,
            sentence=wording.phrase(check.sentence, units),
        )
    )
    for each in check.equations:
        told = ", ".join(filter(None, (each.expression, say(each.meaning))))
        paper.step(each.symbol, said(each.result, units), told)
    paper.quiet(worded("{rule} Source: {source}.", rule=check.rule, source=check.source))


def _told(what: str, words: str) -> str:
    return compose("{what}: {words}", what=what, words=words)
