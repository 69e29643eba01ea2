"""A made-up language: every text of the application accented, a third longer, in brackets.

It proves that a language is a catalogue and no code: what comes without brackets was not marked for
translation, and what no longer fits would not fit in a longer language either.
"""

import re
from pathlib import Path

from babel.messages.catalog import Catalog
from babel.messages.mofile import write_mo

from bench.management.commands.texts import texts

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
