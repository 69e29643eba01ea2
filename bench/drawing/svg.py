"""A small pen for SVG: shapes in, safe markup out."""

from collections.abc import Iterable, Iterator
from contextlib import contextmanager

from django.utils.html import escape, format_html
from django.utils.safestring import SafeString, mark_safe

from bench.words import say

Attribute = str | float | None


def number(value: float) -> str:
    """Return a coordinate to a hundredth, without trailing noughts."""
    text = f"{value:.2f}".rstrip("0").rstrip(".")
    return "0" if text == "-0" else text


def outline(points: Iterable[tuple[float, float]]) -> str:
    """Return a closed path through some points."""
    return "M" + "L".join(f"{number(x)} {number(y)}" for x, y in points) + "z"


class Pen:
    """Collects shapes in the order they are drawn."""

    def __init__(self) -> None:
        """Start with an empty sheet."""
        self._marks: list[str] = []

    def _tag(
        self, name: str, cls: str, attributes: dict[str, Attribute], body: str | None = None
    ) -> None:
        self._marks.append(
            _open(name, cls, attributes) + ("/>" if body is None else f">{body}</{name}>")
        )

    def rect(self, x: float, y: float, w: float, h: float, cls: str, **more: Attribute) -> None:
        """Draw a rectangle; never of negative size."""
        self._tag(
            "rect", cls, {"x": x, "y": y, "width": max(w, 0.0), "height": max(h, 0.0), **more}
        )

    def line(self, x1: float, y1: float, x2: float, y2: float, cls: str) -> None:
        """Draw a straight line."""
        self._tag("line", cls, {"x1": x1, "y1": y1, "x2": x2, "y2": y2})

    def circle(self, x: float, y: float, r: float, cls: str, **more: Attribute) -> None:
        """Draw a circle."""
        self._tag("circle", cls, {"cx": x, "cy": y, "r": r, **more})

    def ellipse(self, x: float, y: float, rx: float, ry: float, cls: str) -> None:
        """Draw an ellipse."""
        self._tag("ellipse", cls, {"cx": x, "cy": y, "rx": rx, "ry": ry})

    def path(self, d: str, cls: str, **more: Attribute) -> None:
        """Draw a path."""
        self._tag("path", cls, {"d": d, **more})

    def holes(self, x1: float, x2: float, y: float, wide: float, every: float, cls: str) -> None:
        """Draw a row of holes, so wide, from the edge of the first to the edge of the last."""
        row = f"M{number(x1)} {number(y)}H{number(x2)}"
        dashes = f"{number(wide)} {number(every - wide)}"
        self.path(row, cls, stroke_width=wide, stroke_dasharray=dashes)

    def text(
        self, x: float, y: float, words: str, cls: str, anchor: str = "start", turn: float = 0
    ) -> None:
        """Words; `turn` degrees about their own anchor."""
        turned = f"rotate({number(turn)} {number(x)} {number(y)})" if turn else None
        self._tag(
            "text",
            cls,
            {
                "x": x,
                "y": y,
                "text-anchor": None if anchor == "start" else anchor,
                "transform": turned,
            },
            escape(say(words)),
        )

    def title(self, words: str) -> None:
        """Draw the name of the group that is open, for those who cannot see it."""
        self._marks.append(f"<title>{escape(say(words))}</title>")

    @contextmanager
    def group(self, cls: str, **attributes: Attribute) -> Iterator[None]:
        """Shapes that belong together."""
        self._marks.append(_open("g", cls, attributes) + ">")
        yield
        self._marks.append("</g>")

    @contextmanager
    def link(self, address: str, cls: str) -> Iterator[None]:
        """Shapes that lead somewhere."""
        self._marks.append(_open("a", cls, {"href": address}) + ">")
        yield
        self._marks.append("</a>")

    def hatch(self, x: float, y: float, w: float, h: float, gap: float, cls: str) -> None:
        """Slanting lines within a rectangle, as one path."""
        self.path(" ".join(_slants(x, y, w, h, gap)), cls)

    def put(self, markup: SafeString) -> None:
        """Draw what another pen has drawn."""
        self._marks.append(markup)

    def markup(self) -> SafeString:
        """All of it."""
        return mark_safe("".join(self._marks))


def svg_element(pen: Pen, w: float, h: float, cls: str, name: str) -> SafeString:
    """Return an `svg` element round some shapes.

    `name` is what it is called for those who cannot see it.
    """
    shape = (
        '<svg class="{}" viewBox="0 0 {} {}" width="{}" height="{}" role="img" '
        'aria-label="{}">{}</svg>'
    )
    return format_html(
        shape, cls, number(w), number(h), number(w), number(h), say(name), pen.markup()
    )


def _open(name: str, cls: str, attributes: dict[str, Attribute]) -> str:
    words = [f'<{name} class="{escape(cls)}"' if cls else f"<{name}"]
    for key, value in attributes.items():
        if value is not None:
            value = say(value) if key == "aria_label" and isinstance(value, str) else value
            said = number(value) if isinstance(value, int | float) else escape(value)
            words.append(f'{key.rstrip("_").replace("_", "-")}="{said}"')
    return " ".join(words)


def _slants(x: float, y: float, w: float, h: float, gap: float) -> Iterable[str]:
    start = gap / 2
    while start < w + h:
        x1, y1 = (x + start, y) if start <= w else (x + w, y + start - w)
        x2, y2 = (x, y + start) if start <= h else (x + start - h, y + h)
        yield f"M{number(x1)} {number(y1)}L{number(x2)} {number(y2)}"
        start += gap
