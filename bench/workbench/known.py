"""What is known of a wall, as the panel tells it."""

from typing import NamedTuple

from django.conf import settings
from django.utils.translation import gettext as _

from bench.words import say
from trade import data
from trade.language import capital, compose, in_system, joined, word
from trade.measure import Units, type_length
from trade.mounts import mount_of
from trade.parse import notes
from trade.plan.model import AnyPiece, Plan
from trade.plan.readings import ByHand, Sweep
from trade.wall.makeup import Guess, guesses
from trade.wall.scribing import Scribing, scribing
from trade.wall.survey import Survey, survey
from trade.wall.zones import Zone, zones

_SHIM_MM = 0.4  # 1/64 in: nobody shims less
_FIRST = ("outlet", "switch", "door", "window", "pipe")


class Contradiction(NamedTuple):
    """Where readings disagree, with both sides as they were jotted down."""

    at_mm: float
    pro: list[str]
    con: list[str]


class Known:
    """A wall as it was surveyed, and what that means for the piece that is worked on."""

    def __init__(self, plan: Plan, units: Units, piece: AnyPiece | None) -> None:
        """Look at a plan's wall."""
        self._wall, self.units, self._piece, self._supports = (
            plan.wall,
            units,
            piece,
            plan.supports_mm,
        )

    @property
    def survey(self) -> Survey | None:
        """What the readings amount to; None while there are none."""
        return (
            survey(self._wall, self._supports)
            if self._wall.readings or self._wall.build == "mass"
            else None
        )

    @property
    def found_words(self) -> str:
        """How many studs the readings speak for, by how sure they are."""
        sure = [stud.confidence for stud in self.survey.inference.studs] if self.survey else []
        return joined(
            compose("{n} {sure}", n=n, sure=each)
            for each in ("certain", "likely", "doubtful")
            if (n := sure.count(each))
        )

    @property
    def rejected(self) -> dict[str, list[str]]:
        """Readings that fit nothing, as they were jotted down, by the reason."""
        found: dict[str, list[str]] = {}
        for i, why in self.survey.inference.rejected if self.survey else ():
            found.setdefault(why, []).append(self._jotted(i))
        return found

    @property
    def contradictions(self) -> list[Contradiction]:
        """Places where readings disagree."""
        return [
            Contradiction(
                each.at_mm,
                [self._jotted(i) for i in each.for_it],
                [self._jotted(i) for i in each.against],
            )
            for each in (self.survey.contradictions if self.survey else ())
        ]

    def _jotted(self, i: int) -> str:
        return notes.word_of(self._wall.readings[i], self.units)

    @property
    def by_hand(self) -> list[ByHand]:
        """What the person pinned and struck out."""
        return [r for r in self._wall.readings if isinstance(r, ByHand)]

    @property
    def zones(self) -> tuple[Zone, ...]:
        """Where not to hang or drill, and where to take care."""
        return zones(self._wall)

    @property
    def scribing(self) -> Scribing | None:
        """What the wall's lie asks of the piece that is worked on."""
        if self._piece is None:
            return None
        supports = mount_of(self._piece).supports(self._piece, self._wall)
        return scribing(
            self._piece, self._wall, max((support.height_mm for support in supports), default=0.0)
        )

    @property
    def scribe_rows(self) -> list[tuple[float, float, float]]:
        """Places along the shelf, the gap there, and what to take off."""
        scribe = self.scribing.scribe if self.scribing else None
        return (
            [
                (x, gap, cut)
                for (x, gap), (_, cut) in zip(scribe.points_mm, scribe.cut_mm, strict=True)
            ]
            if scribe
            else []
        )

    @property
    def shim_rows(self) -> list[tuple[str, float, float, str]]:
        """What to put behind each support that needs any.

        Its name, how much, how much more, and at which end of it.
        """
        piece, lying = self._piece, self.scribing
        if piece is None or lying is None:
            return []
        parts = [support.part for support in mount_of(piece).supports(piece, self._wall)]
        needed = [s for s in lying.shims if max(s.behind_mm, abs(s.foot_mm)) > _SHIM_MM]
        return [
            (
                parts[s.support],
                s.behind_mm,
                abs(s.foot_mm),
                word("foot") if s.foot_mm > 0 else word("head"),
            )
            for s in needed
        ]

    @property
    def tilt_mm(self) -> float:
        """How far the front edge drops or rises."""
        return abs(self.scribing.tilt_mm or 0.0) if self.scribing else 0.0

    @property
    def first_kinds(self) -> list[tuple[str, str]]:
        """What people put on the drawing of a wall most."""
        return [
            ("stud", _("Stud")),
            *((key, capital(say(data.features()[key].name))) for key in _FIRST),
        ]

    @property
    def more_kinds(self) -> list[tuple[str, str]]:
        """And everything else."""
        return [(key, say(row.name)) for key, row in data.features().items() if key not in _FIRST]

    @property
    def sweep_height(self) -> str:
        """Where to sweep next: a hand above the last sweep."""
        heights = [r.height_mm for r in self._wall.readings if isinstance(r, Sweep)]
        return type_length(
            max(heights) + 300 if heights else min(1200.0, self._wall.height_mm / 2), self.units
        )

    @property
    def guesses(self) -> tuple[Guess, ...]:
        """What the wall may be made of, from what was noticed."""
        return guesses(self._wall.clues)[:3] if self._wall.clues else ()

    @property
    def structure(self) -> data.Structure | None:
        """What stands behind the linings; None when nobody knows."""
        key = self._wall.structure
        return data.structures()[key] if key else None

    @property
    def has_devices(self) -> bool:
        """Whether the settings name devices."""
        return bool(settings.DEVICES)

    @property
    def lining_words(self) -> str:
        """The lining in words."""
        layers = self._wall.layers
        if layers is None:
            return _("not known")
        names = (in_system(data.linings()[layer.kind].name, self.units) for layer in layers)
        return joined(names, " on ") or "none"
