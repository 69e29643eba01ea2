"""Every text of the web can be in another language, and says the same in the made-up one."""

import re
from calendar import day_abbr, month_abbr, month_name
from collections.abc import Iterator
from html.parser import HTMLParser
from io import BytesIO
from itertools import chain
from pathlib import Path

import pdfplumber
from django.conf import settings
from django.core.cache import caches
from django.template.base import Lexer, TokenType
from django.test import SimpleTestCase, TestCase
from django.urls import reverse
from django.utils import translation

from bench import demo
from bench.models import Job, Wall
from bench.stages.all import STAGES
from tests import words
from tests.turns import in_turn
from trade.parse import notes, sketch
from trade.plan import flatness
from trade.plan.place import each_piece, faced

_BARE = {
    "Gancho",
    "in",
    "mm",
    "SVG",
    "DXF",
    "CSV",
    "ODS",
    "PDF",
    "Ctrl",
    "Shift",
    "Esc",
    "Enter",
    "Delete",
}
_PAGES = (
    "glossary",
    "workshop",
    "kinds",
    "rules",
    "jobs",
    "new-wall",
    "log:entries",
    "log:charts",
    "bin:contents",
    "practice:lobby",
)
_SYMBOLS = {"MOR", "psi", "MPa", "min", "max", "tan", "Jo", "EN", "in"}
_ENDS = {  # what stands between is translated, or is not read by people
    "blocktranslate": "endblocktranslate",
    "comment": "endcomment",
    "block body_class": "endblock",
}
_LITERAL = r"\|(default|yesno|pluralize):[\"'][A-Za-z]+[ ,]"  # words in a filter
_SILENT = ("script", "style", "code", "sub", "sup")
_ATTRIBUTES = ("title", "aria-label", "placeholder", "alt")


class Said(HTMLParser):
    """What a page says: its texts, and those of attributes that people hear or see."""

    def __init__(self) -> None:
        super().__init__()
        self.texts: list[str] = []
        self._silent = 0

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        self._silent += tag in _SILENT
        self.texts += [value for name, value in attrs if name in _ATTRIBUTES and value]

    def handle_endtag(self, tag: str) -> None:
        self._silent -= tag in _SILENT

    def handle_data(self, data: str) -> None:
        if not self._silent:
            self.texts.append(data)


class Templates(SimpleTestCase):
    def test_no_text_of_a_template_stands_outside_translation(self) -> None:
        for path in sorted(Path(settings.BASE_DIR).glob("bench/**/*.html")):
            bare, until = "", ""
            for token in Lexer(path.read_text()).tokenize():
                if token.token_type == TokenType.BLOCK:
                    until = "" if token.contents.startswith(until) else until
                    until = until or _ENDS.get(" ".join(token.contents.split()[:2]), "")
                    until = until or _ENDS.get(token.contents.split()[0], "")
                elif token.token_type == TokenType.TEXT and not until:
                    bare += token.contents
                if token.token_type in (TokenType.VAR, TokenType.BLOCK):
                    self.assertNotRegex(token.contents, _LITERAL)
            page = Said()
            page.feed(bare)
            for text in page.texts:
                for word in re.findall(r"[A-Za-z]{2,}", text):
                    self.assertIn(word, _BARE, f"{path.name}: {text.strip()[:80]}")


class MadeUp(words.MadeUpCase, TestCase):
    def test_it_is_longer_in_brackets_and_keeps_what_stands_for_something(self) -> None:
        said = words.made_up('Move <b class="x">%(name)s</b> to {place}')
        self.assertEqual(said, '«Móvé <b class="x">%(name)s</b> tó {place}~~»')

    maxDiff = None

    def left(self, said: str, own: set[str]) -> list[str]:
        """Return words that are still English: with plain vowels, and nobody's own."""
        return [
            word
            for word in re.findall(r"[^\W\d_]{3,}", said)
            if word.isascii() and re.search("[aeiou]", word, re.IGNORECASE) and word not in own
        ]

    def walls(self) -> Iterator[tuple[Wall, set[str]]]:
        """Yield the demo's walls, each with the words that people gave or must type again."""
        job = Job.objects.create(name="0")
        for make in chain.from_iterable(plans for _, plans in demo.PLANS):
            plan = make()
            own = [plan.name, *_BARE, *_SYMBOLS, *(each.name for each in plan.shop.on_hand)]
            own += [each.faced_name for each in faced(plan)]
            for piece, _ in each_piece(plan):
                own += [piece.name, *(thing.name for thing in piece.things)]
            for wall in (each.wall for each in faced(plan)):
                size = (wall.width_mm, wall.height_mm)
                own.append(notes.write(wall.readings, plan.units))
                own.append(flatness.write(wall.flatness, plan.units))
                own += [sketch.word_of(each, plan.units, size) for each in wall.features]
            own += [look.note for look in (*plan.as_built.hung, *plan.as_built.looks)]
            own += [each.by for each in (*plan.as_built.hung, *plan.as_built.looks)]
            own += [day for n in range(1, 13) for day in (month_name[n], month_abbr[n])]
            own += day_abbr
            yield Wall.begin(job, plan, plan.name), set(re.findall(r"[^\W\d_]+", " ".join(own)))

    def test_every_page_says_it_to_the_last_word(self) -> None:
        """Pages of the wall, its tabs, the handbook's; symbols of sums and code names aside."""
        self.addCleanup(translation.activate, "en")
        headers = {"Accept-Language": words.LANGUAGE}
        addresses, known, found = [reverse(name) for name in _PAGES], set(), {}
        caches["pictures"].clear()
        for wall, own in self.walls():
            known |= own
            self.client.get("/")  # what is kept of it is kept in English
            addresses += [
                f"{reverse('stage', args=[wall.pk, stage.name])}?look={look}"
                for k, stage in enumerate(STAGES)
                for m, look in enumerate(("", *(tab.name for tab in stage.tabs)))
                if in_turn(wall.pk, k + m)
            ]
        for address in addresses:
            page = Said()
            page.feed(self.client.get(address, headers=headers).content.decode())
            said = " ".join(page.texts)
            self.assertIn("«", said)
            if left := self.left(said, known):
                found[address] = left
        self.assertEqual(found, {})

    def test_every_paper_says_it(self) -> None:
        self.addCleanup(translation.activate, "en")
        wall, own = next(self.walls())
        key = wall.plan().pieces[0].key
        addresses = [
            reverse(name, args=[wall.pk, *more])
            for name, *more in (
                ("cut:saw-pdf",),
                ("cut:labels-pdf",),
                ("cut:shop-pdf",),
                ("record:piece-labels",),
                ("record:owner-pdf",),
                ("mark:whole-wall", "pdf"),
                ("mark:drawn", key, "template", "pdf"),
            )
        ]
        found = {}
        for address in addresses:
            answer = self.client.get(address, headers={"Accept-Language": words.LANGUAGE})
            with pdfplumber.open(BytesIO(b"".join(answer))) as paper:
                said = " ".join(page.extract_text() for page in paper.pages)
            self.assertIn("«", said)
            if left := self.left(said, own):
                found[address] = left
        self.assertEqual(found, {})
