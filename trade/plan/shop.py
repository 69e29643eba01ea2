"""The workshop behind a plan.

What is at hand, what things cost, what else is cut, what was measured, the finish, the days.
"""

from datetime import date
from typing import Literal

from trade import data
from trade.errors import PlanError
from trade.language import compose
from trade.measure import ABSURD_MM
from trade.plan.item import Key, Name, PlanItem, between, known

_MOST_MONEY, _MOST_MANY, _MOST_LINES = 100_000.0, 500, 400
# so that with what a wall's pieces need no saw list becomes longer than is worked out while one
# waits
_MOST_HAD, _LEAST_LITRES = 10_000, 0.01
_MOST_OWN = 400
LITRES = "finish:"  # the keys of what is counted in litres begin with it
DAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


def money(value: float | None, where: str) -> None:
    """Refuse what no price is.

    Raises:
        PlanError: less than nothing, or absurd.
    """
    if value is not None and not 0 <= value <= _MOST_MONEY:
        raise PlanError("A price must be between 0 and 100 000.", where)


class Defect(PlanItem, frozen=True, kw_only=True):
    """Wood that can't be used, along the grain from a board's left end.

    `low_mm`, `high_mm` across it, null for all its width.
    """

    from_mm: float
    to_mm: float
    low_mm: float | None = None
    high_mm: float | None = None

    def __post_init__(self) -> None:
        """Refuse what is upside down."""
        between(self.from_mm, 0, ABSURD_MM, "from_mm", "Where a defect begins")
        between(self.to_mm, 0, ABSURD_MM, "to_mm", "Where a defect ends")
        between(self.low_mm, 0, ABSURD_MM, "low_mm", "A defect's lower edge")
        between(self.high_mm, 0, ABSURD_MM, "high_mm", "A defect's upper edge")
        if self.to_mm <= self.from_mm:
            raise PlanError("A defect must end after it begins.", "to_mm")
        if self.low_mm is not None and self.high_mm is not None and self.high_mm <= self.low_mm:
            raise PlanError("A defect's upper edge must be above its lower edge.", "high_mm")


class OnHand(PlanItem, frozen=True, kw_only=True):
    """A board or a sheet that is there already, or left over; `length_mm` along its grain.

    `board`: a row of the boards table.

    `rack`: its number on the rack of offcuts, null for one that never was there.
    """

    name: Name
    board: str
    kind: Literal["board", "sheet"]
    length_mm: float
    width_mm: float
    thickness_mm: float
    many: int = 1
    defects: tuple[Defect, ...] = ()
    rack: int | None = None

    def __post_init__(self) -> None:
        """Refuse absurd sizes."""
        known(data.boards(), self.board, "board", "board")
        between(self.length_mm, 20, ABSURD_MM, "length_mm", "Its length")
        between(self.width_mm, 5, 5000, "width_mm", "Its width")
        between(self.thickness_mm, 1, 300, "thickness_mm", "Its thickness")
        if not 1 <= self.many <= _MOST_MANY:
            raise PlanError(
                compose("The number must be between 1 and {most}.", most=_MOST_MANY),
                "many",
            )
        if len(self.defects) > 8:
            raise PlanError("At most 8 defects in one board.", "defects")
        if self.kind == "sheet" and len(self.defects) > 1:
            raise PlanError("A sheet can have one defect: enclose them all in one.", "defects")
        for defect in self.defects:
            if defect.to_mm > self.length_mm + 0.05:
                raise PlanError("A defect is beyond the end of the board.", "defects")


class OwnPart(PlanItem, frozen=True, kw_only=True):
    """A part that is cut besides, whatever for; `turns`: its grain may run either way."""

    name: Name
    board: str
    length_mm: float
    width_mm: float
    thickness_mm: float
    many: int = 1
    turns: bool = False

    def __post_init__(self) -> None:
        """Refuse absurd sizes."""
        known(data.boards(), self.board, "board", "board")
        between(self.length_mm, 1, ABSURD_MM, "length_mm", "A part's length")
        between(self.width_mm, 1, 5000, "width_mm", "A part's width")
        between(self.thickness_mm, 1, 300, "thickness_mm", "A part's thickness")
        if not 1 <= self.many <= _MOST_MANY:
            raise PlanError(
                compose("The number of a part must be between 1 and {most}.", most=_MOST_MANY),
                "many",
            )


class Price(PlanItem, frozen=True, kw_only=True):
    """What one of something costs the person, by its key on the shopping list."""

    of: Name
    each: float

    def __post_init__(self) -> None:
        """Refuse negative prices."""
        money(self.each, "each")


class Have(PlanItem, frozen=True, kw_only=True):
    """How much of something is there already, by its key on the shopping list.

    `many`: pieces; litres of a finish.
    """

    of: Name
    many: float

    def __post_init__(self) -> None:
        """Refuse absurd numbers."""
        least = _LEAST_LITRES if self.of.startswith(LITRES) else 1
        if not least <= self.many <= _MOST_HAD:
            said = "What is there must be between {least} and {most}."
            raise PlanError(compose(said, least=f"{least:g}", most=_MOST_HAD), "many")
        if least == 1 and self.many != int(self.many):
            raise PlanError("Count whole pieces, such as 12.", "many")


class Measured(PlanItem, frozen=True, kw_only=True):
    """How long a part must be, as measured at what stands: of which piece, which part."""

    piece: Key
    part: Name
    length_mm: float

    def __post_init__(self) -> None:
        """Refuse absurd lengths."""
        between(self.length_mm, 5, ABSURD_MM, "length_mm", "What was measured")


class Finish(PlanItem, frozen=True, kw_only=True):
    """What the wood is finished with.

    Rows of the coatings table, null for none; `coats` of `top`, null for its usual number.

    `old`: what is on the wood already; `temp_c`, `humid_pct`: how warm and damp it is where it
    dries; `hung`: it goes on at the wall, after all hangs.
    """

    first: str | None = None
    top: str | None = None
    coats: int | None = None
    old: Literal["bare", "oil", "water", "shellac", "wax"] = "bare"
    temp_c: float = 20.0
    humid_pct: float = 50.0
    hung: bool = False

    def __post_init__(self) -> None:
        """Refuse products that nobody knows."""
        for where, key in (("first", self.first), ("top", self.top)):
            if key is not None:
                known(data.coatings(), key, "finish", where)
                if (data.coatings()[key].role == "first") != (where == "first"):
                    raise PlanError(
                        compose(
                            "{coatings} can't be used there.", coatings=data.coatings()[key].name
                        ),
                        where,
                    )
        if self.coats is not None and not 1 <= self.coats <= 12:
            raise PlanError("Coats must be between 1 and 12.", "coats")
        if not -30 <= self.temp_c <= 50:
            raise PlanError("The temperature must be between −30 and 50 °C.", "temp_c")
        if not 0 <= self.humid_pct <= 100:
            raise PlanError("The humidity must be between 0 and 100 %.", "humid_pct")


class FinishOf(PlanItem, frozen=True, kw_only=True):
    """Another finish for one piece; `part`: only for its part of that name, null for all of it."""

    piece: Key
    part: Name | None = None
    finish: Finish


class Hours(PlanItem, frozen=True, kw_only=True):
    """When one works on a day: hours of the clock, 18.5 for half past six in the evening."""

    begins: float
    ends: float

    def __post_init__(self) -> None:
        """Refuse days that end before they begin."""
        if not 0 <= self.begins < self.ends <= 24:
            raise PlanError("Work must begin before it ends, between 0 and 24 hours.", "week")


_EVENING, _DAY = Hours(begins=18.0, ends=21.0), Hours(begins=9.0, ends=17.0)


class Days(PlanItem, frozen=True, kw_only=True):
    """When there is time: from which day (null.

    Today), on which days of the week, Monday first; on which a helper comes.

    `by`: the day by which all must hang, null where it may take as long as it takes.
    """

    start: date | None = None
    week: tuple[
        Hours | None,
        Hours | None,
        Hours | None,
        Hours | None,
        Hours | None,
        Hours | None,
        Hours | None,
    ] = (
        _EVENING,
        _EVENING,
        _EVENING,
        _EVENING,
        _EVENING,
        _DAY,
        None,
    )
    helper: tuple[int, ...] = (5,)
    by: date | None = None

    def __post_init__(self) -> None:
        """Refuse weeks without work."""
        if not any(self.week):
            raise PlanError("Give at least one day of the week some time.", "week")
        if any(day not in range(7) for day in self.helper):
            raise PlanError("Days are numbered from 0, Monday, to 6, Sunday.", "helper")


class Shop(PlanItem, frozen=True, kw_only=True):
    """All of it.

    `finish`: of all parts but those that `finishes` name.

    `kept`: offcuts that go on the rack; `have`: screws, anchors and hardware in the drawer;
    `ready`: what all that hangs here costs bought ready, null: unknown.
    """

    on_hand: tuple[OnHand, ...] = ()
    kept: tuple[OnHand, ...] = ()
    own: tuple[OwnPart, ...] = ()
    prices: tuple[Price, ...] = ()
    have: tuple[Have, ...] = ()
    ready: float | None = None
    measured: tuple[Measured, ...] = ()
    finish: Finish = Finish()
    finishes: tuple[FinishOf, ...] = ()
    days: Days = Days()

    def __post_init__(self) -> None:
        """Refuse too much of anything."""
        for where in ("on_hand", "kept", "own", "prices", "have", "measured", "finishes"):
            if len(getattr(self, where)) > _MOST_LINES:
                raise PlanError(
                    compose("More than {most_lines} of them.", most_lines=_MOST_LINES), where
                )
        if sum(each.many for each in self.own) > _MOST_OWN:
            raise PlanError(
                compose(
                    "More than {most_own} parts of your own in all: split them into two cut lists.",
                    most_own=_MOST_OWN,
                ),
                "own",
            )
        money(self.ready, "ready")
