"""The finish: what goes over what, how many coats, how much of it, how long it dries."""

from typing import NamedTuple

from trade import data
from trade.cutting.parts import CutPart
from trade.data import Coating
from trade.language import Figure, compose
from trade.plan.shop import Finish

_USUAL_C = 20.0
_MM2_M2 = 1e6


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

    Why it can't be done, empty where it can; what to mind.
    """

    coats: tuple[Coats, ...]
    area_m2: float
    refusal: str = ""
    minds: tuple[str, ...] = ()
    slower: float = 1.0


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
    coldest = max(found, key=lambda each: each.row.least_c)
    if finish.temp_c < coldest.row.least_c:
        said = compose(
            "At {temp_c} °C {row} does not dry: it wants {least_c} °C at least.",
            temp_c=Figure(f"{finish.temp_c:.0f}"),
            row=coldest.row.name,
            least_c=Figure(f"{coldest.row.least_c:.0f}"),
        )
        return Finishing(tuple(found), area, said)
    slower = max(2 ** ((_USUAL_C - finish.temp_c) / data.house("dry_doubles_c")), 1.0)
    minds = list(dict.fromkeys(each.row.care for each in found if each.row.care))
    if slower > 1:
        minds.append(
            compose(
                "At {temp_c} °C it all takes about {slower} times as long to dry as at 20 °C.",
                temp_c=Figure(f"{finish.temp_c:.0f}"),
                slower=Figure(f"{slower:.1f}"),
            )
        )
    if finish.old != "bare":
        minds.append(
            "Try it where nobody sees it: what is on old wood is seldom only what one believes. "
            "Old paint may hold lead."
        )
    return Finishing(tuple(found), area, "", tuple(minds), slower)


def _row(key: str) -> Coating:
    return data.coatings()[key]


def _takes(under: str, over: str) -> bool:
    """Whether one base goes over another without more ado."""
    return all((each.under, each.over) != (under, over) for each in data.over().values())
