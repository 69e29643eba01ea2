"""A made-up language: every text of the application accented, a third longer, in brackets.

It proves that a language is a catalogue and no code: what comes without brackets was not marked for
translation, and what no longer fits would not fit in a longer language either.
"""

import re
import tempfile
from pathlib import Path

from babel.messages.catalog import Catalog
from babel.messages.mofile import write_mo
from django.test import SimpleTestCase, override_settings
from django.utils import translation
from django.utils.translation import trans_real

from bench.management.commands.texts import texts
from trade.memo import clear_memos

LANGUAGE = "xx"
_KEPT = re.compile(r"%\(\w+\)[sd]|%%|\{[^{}]*\}|<[^<>]+>|&\w+;|\s+")
_ACCENTS = str.maketrans("aceinouyACEINOUY", "áçéíñóúýÁÇÉÍÑÓÚÝ")


def made_up(text: str) -> str:
    """Return a text as the made-up language has it; what stands for something else stays."""
    said, at = "", 0
    for kept in _KEPT.finditer(text):
        said += text[at : kept.start()].translate(_ACCENTS) + kept[0]
        at = kept.end()
    said += text[at:].translate(_ACCENTS)
    letters = len(re.sub(r"\W", "", _KEPT.sub("", text)))
    longer = "~" * -(-letters // 3)
    return f"«{said}{' '.join(re.findall('~{1,9}', longer))}»"  # a line may break


def write(folder: Path) -> set[str]:
    """Write the catalogue of the made-up language, as Django reads it; return its texts."""
    catalogue = Catalog(locale="en", charset="utf-8")
    known: set[str] = set()
    for message in texts():
        known.update(message)
        key = message[0] if len(message) == 1 else message
        catalogue.add(
            key, made_up(message[0]) if len(message) == 1 else tuple(map(made_up, message))
        )
    compiled = folder / LANGUAGE / "LC_MESSAGES" / "django.mo"
    compiled.parent.mkdir(parents=True)
    with compiled.open("wb") as file:
        write_mo(file, catalogue)
    return known


class MadeUpCase(SimpleTestCase):
    """Tests of an application that has the made-up language beside English.

    To be the first base: a server of the tests must be down before the language goes, or it keeps
    answers in English under the language's name.
    """

    known: set[str]

    @classmethod
    def setUpClass(cls) -> None:
        folder = cls.enterClassContext(tempfile.TemporaryDirectory())
        cls.known = write(Path(folder))
        cls.addClassCleanup(clear_memos)
        cls.addClassCleanup(_forget)
        cls.enterClassContext(
            override_settings(
                LANGUAGES=[("en", "English"), (LANGUAGE, "Made-up")], LOCALE_PATHS=[folder]
            )
        )
        clear_memos()
        super().setUpClass()


def _forget() -> None:
    """Drop the language from what Django has read."""
    translation.activate("en")
    trans_real._translations.pop(LANGUAGE, None)  # type: ignore[attr-defined]
