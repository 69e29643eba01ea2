"""The finish: what goes over what, how many coats, how much of it, how long it dries.

One finish goes over all parts, but for pieces and parts that have one of their own.
"""

from collections.abc import Iterable
from typing import NamedTuple

from msgspec.structs import replace

from trade import data
from trade.cutting.order import Order
from trade.cutting.parts import CutPart
from trade.data import Coating
from trade.data.rows import Preparing
from trade.language import Figure, compose, joined
from trade.plan.shop import Finish, Shop

_USUAL_C = 20.0
_MM2_M2 = 1e6
_FEW = 5  # labels that are read at a glance


class Coats(NamedTuple):
    """Some coats of one product, over what lies under it; `why`.

    What it is there for, where that is not plain.
    """

    key: str
    row: Coating
    coats: int
    why: str = ""

    def litres(self, area_m2: float) -> float:
        """How much all coats take."""
        return area_m2 * self.coats / self.row.cover_m2_l


class Finishing(NamedTuple):
    """All coats from the wood up, over so much area; `refusal`.

    Why it can't be done, empty where it can; what to mind; rows of the preparing table, in
    order; the papers that bare wood is sanded with.
    """

    coats: tuple[Coats, ...]
    area_m2: float
    refusal: str = ""
    minds: tuple[str, ...] = ()
    slower: float = 1.0
    preparing: tuple[str, ...] = ()
    grits: tuple[int, ...] = ()

    @property
    def prepared(self) -> list[Preparing]:
        """What is done beside the coats, in order."""
        return [data.preparing()[key] for key in self.preparing]

    @property
    def load_hours(self) -> float:
        """How long after the last coat before things stand on it; 0 where nothing is finished."""
        days = max((each.row.load_days for each in self.coats), default=0.0)
        return days * 24 * self.slower if self.area_m2 > 0 else 0.0

    @property
    def handle_hours(self) -> float:
        """How long after the last coat before hands touch it."""
        return self.coats[-1].row.handle_hours * self.slower if self.coats else 0.0


class Finished(NamedTuple):
    """Parts that get the same finish."""

    finish: Finish
    parts: tuple[CutPart, ...]
    done: Finishing

    @property
    def named(self) -> str:
        """Whose parts they are, and the first few labels."""
        names = dict.fromkeys(part.piece for part in self.parts)
        labels = [part.label for part in self.parts]
        few = labels if len(labels) <= _FEW else [*labels[: _FEW - 1], "…"]
        return compose("{names} ({labels})", names=joined(names), labels=joined(few))


def finish_of(part: CutPart, shop: Shop) -> Finish:
    """Return a part's finish: the part's own, else its piece's, else the usual one.

    All of them dry in one room, as warm and as damp as was said of the usual one.
    """
    own = {(each.piece, each.part): each.finish for each in shop.finishes}
    usual = shop.finish
    found = own.get((part.key, part.name)) or own.get((part.key, None)) or usual
    return replace(found, temp_c=usual.temp_c, humid_pct=usual.humid_pct)


def finishes(order: Order, parts: Iterable[CutPart]) -> tuple[Finished, ...]:
    """Return which parts get which finish; those that stay as they are come last."""
    found: dict[Finish, list[CutPart]] = {}
    for part in parts:
        shop = order.walls[max(part.wall, 1) - 1].shop
        found.setdefault(finish_of(part, shop), []).append(part)
    every = (Finished(finish, tuple(own), finishing(finish, own)) for finish, own in found.items())
    return tuple(sorted(every, key=lambda each: not each.done.coats and not each.done.refusal))


def finishing(finish: Finish, parts: tuple[CutPart, ...] | list[CutPart]) -> Finishing:
    """Return the coats that a finish takes, with the barrier that it needs.

    Args:
        finish: as wished.
        parts: that are finished, all round.
    """
    area = sum(part.faces_mm2 for part in parts) / _MM2_M2
    wished = [(key, _row(key)) for key in (finish.first, finish.top) if key is not None]
    if not wished:
        return Finishing((), area)
    found: list[Coats] = []
    under = finish.old
    names: str = compose("what is on the wood already ({old})", old=finish.old)
    for key, row in wished:
        rule = next(
            (each for each in data.over().values() if (each.under, each.over) == (under, row.base)),
            None,
        )
        if rule is not None:
            if not rule.barrier or not _takes(under, _row(rule.barrier).base):
                said = compose(
                    "{row!c} does not go over {names}: {why}. Strip it first, or choose another.",
                    row=row.name,
                    names=names,
                    why=rule.why,
                )
                return Finishing((), area, said)
            barrier = _row(rule.barrier)
            found.append(
                Coats(
                    rule.barrier,
                    barrier,
                    barrier.coats,
                    compose(
                        "between {names} and {row}: {why}", names=names, row=row.name, why=rule.why
                    ),
                )
            )
        count = finish.coats if finish.coats is not None and key == finish.top else row.coats
        found.append(Coats(key, row, count))
        under, names = row.base, row.name
    if refusal := _wont_dry(finish, found):
        return Finishing(tuple(found), area, refusal)
    slower = _slower(finish)
    woods = {part.board for part in parts}
    preparing = tuple(
        key
        for key, row in data.preparing().items()
        if row.asked(finish.first, finish.top, woods) and (finish.hung or row.goes != "hung")
    )
    return Finishing(
        tuple(found),
        area,
        "",
        _minds(finish, found, slower),
        slower,
        preparing if finish.old == "bare" else (),
        found[0].row.grits if finish.old == "bare" else (),
    )


def _wont_dry(finish: Finish, coats: list[Coats]) -> str:
    """Say why it does not dry there; empty where it does."""
    coldest = max(coats, key=lambda each: each.row.least_c)
    if finish.temp_c < coldest.row.least_c:
        return compose(
            "At {temp_c} °C {row} does not dry: it wants {least_c} °C at least.",
            temp_c=Figure(f"{finish.temp_c:.0f}"),
            row=coldest.row.name,
            least_c=Figure(f"{coldest.row.least_c:.0f}"),
        )
    most = data.house("dries_humid_pct")
    if finish.humid_pct > most:
        return compose(
            "At {humid} % of humidity {row} does not dry: it wants {most} % at most.",
            humid=Figure(f"{finish.humid_pct:.0f}"),
            row=coats[-1].row.name,
            most=Figure(f"{most:.0f}"),
        )
    return ""


def _slower(finish: Finish) -> float:
    """How many times as long as at 20 °C in a dry room it takes to dry."""
    cold = max(2 ** ((_USUAL_C - finish.temp_c) / data.house("dry_doubles_c")), 1.0)
    damp = data.house("damp_slower") if finish.humid_pct > data.house("damp_from_pct") else 1.0
    return cold * damp


def _minds(finish: Finish, coats: list[Coats], slower: float) -> tuple[str, ...]:
    """Return cautions for these coats."""
    minds = list(dict.fromkeys(each.row.care for each in coats if each.row.care))
    if slower > 1:
        minds.append(
            compose(
                "At {temp_c} °C and {humid} % of humidity it all takes about {slower} times as "
                "long to dry as at 20 °C in a dry room.",
                temp_c=Figure(f"{finish.temp_c:.0f}"),
                humid=Figure(f"{finish.humid_pct:.0f}"),
                slower=Figure(f"{slower:.1f}"),
            )
        )
    if finish.old != "bare":
        minds.append(
            "Try it where nobody sees it: what is on old wood is seldom only what one believes. "
            "Old paint may hold lead."
        )
    return tuple(minds)


def _row(key: str) -> Coating:
    return data.coatings()[key]


def _takes(under: str, over: str) -> bool:
    """Whether one base goes over another without more ado."""
    return all((each.under, each.over) != (under, over) for each in data.over().values())
