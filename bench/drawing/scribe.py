"""The back edge of a shelf against the wall, seen from above; gaps drawn larger than life."""

from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from bench.drawing.svg import Pen, number, svg_element
from bench.words import worded
from trade.plan.model import AnyPiece, Plan
from trade.wall.scribing import scribing

WIDTH, HEIGHT = 340.0, 78.0
_LEFT, _BACK, _DEEPEST = 6.0, 34.0, 26.0


def draw(piece: AnyPiece, plan: Plan) -> SafeString:
    """Draw it; nothing where the wall was not measured."""
    scribe = scribing(piece, plan.wall, 0.0).scribe
    if scribe is None or scribe.widest_mm < 0.5:
        return SafeString("")
    pen, along, deep = Pen(), (WIDTH - 2 * _LEFT) / piece.length_mm, _DEEPEST / scribe.widest_mm
    wall = [(_LEFT + x * along, _BACK - gap * deep) for x, gap in scribe.points_mm]
    first, last = wall[0][0], wall[-1][0]
    line = "L".join(f"{number(x)} {number(y)}" for x, y in wall)
    pen.path(f"M{number(first)} 0V{number(wall[0][1])}L{line}V0z", "scribe-wall")
    pen.rect(_LEFT, _BACK, WIDTH - 2 * _LEFT, 30.0, "scribe-shelf")
    pen.path(f"M{line}", "scribe-line")
    for x, y in wall:
        if _BACK - y > 2:
            pen.line(x, y, x, _BACK, "chalk-thin")
    pen.text((first + last) / 2, _BACK + 19, _("shelf, from above"), "cut-words", "middle")
    return svg_element(
        pen,
        WIDTH,
        HEIGHT,
        "scribe",
        worded("Gaps behind the back edge of {name}, larger than life", name=piece.name),
    )
