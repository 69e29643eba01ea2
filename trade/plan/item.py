"""What every part of a plan shares.

It is frozen, refuses what it does not know, and says so in a sentence.
"""

import math
from typing import Annotated

import msgspec
from msgspec import Meta

from trade import data
from trade.errors import PlanError, UnknownRowError
from trade.language import Figure, compose
from trade.measure import say_length

Key = Annotated[
    str, Meta(pattern=r"^[a-z0-9][a-z0-9-]{0,39}$", description="Short name, unique in the plan")
]
Name = Annotated[str, Meta(min_length=1, max_length=80)]


class PlanItem(
    msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True, omit_defaults=False
):
    """A part of a plan."""


def between(value: float | None, low: float, high: float, where: str, what: str) -> None:
    """Refuse a number that is none, or out of bounds.

    Raises:
        PlanError: with `where` it stands and `what` it is.
    """
    if value is None:
        return
    if not math.isfinite(value):
        raise PlanError(compose("{what} must be a number.", what=what), where)
    if not low <= value <= high:
        low_said, high_said = say_length(low, "metric"), say_length(high, "metric")
        raise PlanError(
            compose(
                "{what} must lie between {least} and {most}; this is {given} mm.",
                what=what,
                least=low_said,
                most=high_said,
                given=Figure(f"{value:.6g}"),
            ),
            where,
        )


def known(table: dict[str, data.R], key: str, noun: str, where: str) -> None:
    """Refuse a row that its table does not have.

    Raises:
        PlanError: with what there is.
    """
    try:
        data.row(table, key, noun)
    except UnknownRowError as error:
        raise PlanError(str(error), where) from None
