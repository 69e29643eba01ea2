"""The small picture of a wall and its worst word, kept by what they come of.

The plan, the program that judged it, and the language that it is said in.
"""

import hashlib
from contextlib import suppress
from functools import cache
from pathlib import Path
from typing import NamedTuple

from django.conf import settings
from django.core.cache import caches
from django.utils.translation import get_language

from bench.drawing import elevation, room
from bench.models import Wall
from trade.assess import assess
from trade.check import Outcome, Verdict
from trade.plan.model import Plan
from trade.plan.place import faced

_MADE_BY = ("trade", "bench/drawing", "locale")


class Picture(NamedTuple):
    """A wall drawn small: its worst word, how many pieces hang there, and the drawing."""

    outcome: Outcome
    many: int
    markup: str


def picture(wall: Wall) -> Picture:
    """Return the picture of a wall that `with_plans` found.

    Drawn only if this plan was not drawn before.
    """
    packed = bytes(wall.brought)  # type: ignore[attr-defined]
    made_by = f"{_program()} {get_language()} {wall.units} "
    key = hashlib.sha256(made_by.encode() + packed).hexdigest()
    kept: Picture | None = caches["pictures"].get(key)
    if kept is None:
        kept = _drawn(wall.plan())
        with suppress(OSError):  # where there is no room it is drawn again the next time
            caches["pictures"].set(key, kept)
    return kept


def _drawn(plan: Plan) -> Picture:
    """Draw a wall from the front, a place of several with its walls side by side."""
    every = Verdict(pieces=tuple(each for on in faced(plan) for each in assess(on).pieces))
    if plan.corners:
        outcomes = {each.key: each.outcome for each in every.pieces}
        markup = room.small(plan, outcomes, plan.units)
    else:
        markup = elevation.draw(plan, every, None, "list", ()).markup
    return Picture(every.outcome, len(every.pieces), markup)


@cache
def _program() -> str:
    """Hash of the code, the tables and the catalogues that judge, draw and say.

    A change in any of them gives new pictures.
    """
    found = hashlib.sha256()
    for folder in _MADE_BY:
        for path in sorted((Path(settings.BASE_DIR) / folder).rglob("*")):
            if path.suffix in (".py", ".toml", ".mo"):
                found.update(path.read_bytes())
    return found.hexdigest()
