"""Every text of the web can be in another language, and says the same in the made-up one."""

import re
import tempfile
from html.parser import HTMLParser
from pathlib import Path

from django.conf import settings
from django.template.base import Lexer, TokenType
from django.test import SimpleTestCase, TestCase, override_settings
from django.urls import reverse
from django.utils import translation
from django.utils.translation import trans_real

from bench import demo
from bench.models import Job, Wall
from bench.stages.all import STAGES
from tests import words

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
_ENDS = {  # what stands between is translated, or is not read by people
    "blocktranslate": "endblocktranslate",
    "comment": "endcomment",
    "block body_class": "endblock",
}
_ATTRIBUTES = ("title", "aria-label", "placeholder", "alt")


class Said(HTMLParser):
    """What a page says: its texts, and those of attributes that people hear or see."""

    def __init__(self) -> None:
        super().__init__()
        self.texts: list[str] = []
        self._silent = 0

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        self._silent += tag in ("script", "style")
        self.texts += [value for name, value in attrs if name in _ATTRIBUTES and value]

    def handle_endtag(self, tag: str) -> None:
        self._silent -= tag in ("script", "style")

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
            page = Said()
            page.feed(bare)
            for text in page.texts:
                for word in re.findall(r"[A-Za-z]{2,}", text):
                    self.assertIn(word, _BARE, f"{path.name}: {text.strip()[:80]}")


@override_settings(LANGUAGES=[("en", "English"), (words.LANGUAGE, "Made-up")])
class MadeUp(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        folder = cls.enterClassContext(tempfile.TemporaryDirectory())
        cls.known = words.write(Path(folder))
        cls.enterClassContext(override_settings(LOCALE_PATHS=[folder]))
        cls.addClassCleanup(trans_real._translations.pop, words.LANGUAGE, None)  # type: ignore[attr-defined]

    def test_it_is_longer_in_brackets_and_keeps_what_stands_for_something(self) -> None:
        said = words.made_up('Move <b class="x">%(name)s</b> to {place}')
        self.assertEqual(said, '«Móvé <b class="x">%(name)s</b> tó {place}~~»')

    def test_every_stage_of_every_wall_says_it(self) -> None:
        """No text of the catalogue is left in English on any page."""
        self.addCleanup(translation.activate, "en")
        job = Job.objects.create(name="0")
        english = {text for text in self.known if len(text.split()) > 4 and "%" not in text}
        headers = {"Accept-Language": words.LANGUAGE}
        for n, plan in enumerate((demo.changing_room(), demo.party_wall(), demo.workshop())):
            wall = Wall.begin(job, plan, str(n))
            for stage in STAGES:
                address = reverse("stage", args=[wall.pk, stage.name])
                page = Said()
                page.feed(self.client.get(address, headers=headers).content.decode())
                said = " ".join(" ".join(page.texts).split())
                self.assertIn("«", said)
                bare = re.sub(r"«[^«»]*»", " ", said)
                self.assertEqual([text for text in english if text in bare], [], address)
