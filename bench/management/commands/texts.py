"""Print every text of the application as a catalogue for translators."""

import ast
import re
import tomllib
from collections.abc import Iterator
from io import BytesIO
from pathlib import Path

from babel.messages.catalog import Catalog
from babel.messages.extract import extract
from babel.messages.pofile import write_po
from django.conf import settings
from django.core.management.base import BaseCommand
from django.utils.translation.template import templatize

from trade import data
from trade.language import sized_template

Message = tuple[str, ...]
"""A text, or one for one thing and one for several."""

_KEYWORDS: dict[str, tuple[int, ...] | None] = {
    "_": None,
    "lazy": None,
    "gettext": None,
    "gettext_noop": None,
    "ngettext": (1, 2),
    "ngettext_lazy": (1, 2),
}
_PLACES = {"given": 3, "then": 3, "cut": 0, "Part": 0, "Panel": 0}
"""Which argument of a call is read by people, even where it is a single word."""
_NOUNS = ("noun", "NOUN")
_NAMES = ("name", "short", "material", "but", "case", "part", "title", "source", "unit", "also")


def texts() -> Iterator[Message]:
    """Yield every text that people read: of the pages, the trade and its tables."""
    root = Path(settings.BASE_DIR)
    for path in sorted(root.glob("bench/**/*.html")):
        source = re.sub(r"^[ \t]+", "", templatize(path.read_text()), flags=re.MULTILINE)
        yield from _marked(source)
    for path in sorted(root.glob("bench/**/*.py")):
        yield from _marked(path.read_text())
        yield from _composed(_nodes(path))
    for path in sorted(root.glob("trade/**/*.py")):
        if not path.is_relative_to(root / "trade" / "cli"):
            nodes = _nodes(path)
            yield from _composed(nodes)
            yield from _of_code(nodes)
    for path in sorted(root.glob("trade/data/**/*.toml")):
        yield from ((text,) for text in _of_table(tomllib.loads(path.read_text())))
    for row in data.policies().values():
        yield from ((row.label(answer),) for answer in row.answers)


def _nodes(path: Path) -> list[ast.AST]:
    return list(ast.walk(ast.parse(path.read_text())))


def _marked(source: str) -> Iterator[Message]:
    found = extract("python", BytesIO(source.encode()), keywords=_KEYWORDS)
    for _line, message, _comments, _context in found:
        yield (message,) if isinstance(message, str) else tuple(message)


def _is_text(words: object) -> bool:
    """Whether a string is for people: several words, or one that begins with a capital."""
    return (
        isinstance(words, str)
        and bool(re.search(r"[^\W\d_]{2}", words))
        and (" " in words.strip() or (words[:1].isupper() and not words.isupper()))
    )


def _composed(nodes: list[ast.AST]) -> Iterator[Message]:
    """Yield the templates of texts that are put together, or counted."""
    for node in nodes:
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
            if node.func.id in ("compose", "worded", "word"):
                yield from ((text,) for text in _strings(node.args[0]))
            elif node.func.id == "counted":
                pair = [text for each in node.args[1:3] for text in _strings(each)]
                if len(pair) == 2:
                    yield tuple(pair)


def _of_code(nodes: list[ast.AST]) -> Iterator[Message]:
    """Yield the texts of a module of the trade: its strings for people, and its nouns."""
    silent = set(_silent(nodes))
    for node in nodes:
        if isinstance(node, ast.keyword) and node.arg in _NAMES:
            yield from ((text,) for text in _strings(node.value))
        elif isinstance(node, ast.Call) and (place := _PLACES.get(_called(node))) is not None:
            yield from ((text,) for each in node.args[place:][:1] for text in _strings(each))
        elif isinstance(node, ast.Assign | ast.AnnAssign) and _is_noun(node):
            for text in _strings(node.value):
                yield (text,)
                yield (f"{text}s",)
        elif isinstance(node, ast.Constant) and id(node) not in silent and _is_text(node.value):
            yield (str(node.value),)


def _called(node: ast.Call) -> str:
    return node.func.attr if isinstance(node.func, ast.Attribute) else getattr(node.func, "id", "")


def _is_noun(node: ast.Assign | ast.AnnAssign) -> bool:
    targets = node.targets if isinstance(node, ast.Assign) else [node.target]
    return any(isinstance(each, ast.Name) and each.id.endswith(_NOUNS) for each in targets)


def _strings(node: ast.expr | None) -> Iterator[str]:
    """Yield what an expression may be, where that is written there."""
    if isinstance(node, ast.Constant) and isinstance(node.value, str) and node.value:
        yield node.value
    elif isinstance(node, ast.IfExp):
        yield from _strings(node.body)
        yield from _strings(node.orelse)


def _silent(nodes: list[ast.AST]) -> Iterator[int]:
    """Yield the strings that nobody reads: docstrings, and pieces of others."""
    for node in nodes:
        if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant):
            yield id(node.value)
        elif isinstance(node, ast.JoinedStr):
            yield from (id(each) for each in ast.walk(node))
        elif isinstance(node, ast.Call) and _called(node) == "Formula":
            yield from map(id, node.args)
        elif isinstance(node, ast.Call) and _called(node) == "then":
            yield from map(id, node.args[:2])


def _of_table(table: object, key: str = "") -> Iterator[str]:
    if isinstance(table, dict):
        for name, value in table.items():
            yield from _of_table(value, name)
    elif isinstance(table, list):
        for value in table:
            yield from _of_table(value, key)
    elif isinstance(table, str) and (key in _NAMES or _is_text(table)):
        yield sized_template(table)


def catalogue() -> Catalog:
    """Return the catalogue of all texts, untranslated."""
    found = Catalog(project="Gancho", charset="utf-8")
    for message in texts():
        found.add(message[0] if len(message) == 1 else message)
    return found


class Command(BaseCommand):
    """The command."""

    help = "Print every text of the application as a catalogue (.pot) for translators."

    def handle(self, *args: object, **options: object) -> None:
        """Write it to standard output."""
        out = BytesIO()
        write_po(out, catalogue(), width=100)
        self.stdout.write(out.getvalue().decode())
