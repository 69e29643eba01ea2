"""What somebody wants to hang, before anybody has said how."""

import math
from typing import Any, Literal

import msgspec

from trade import data
from trade.choose import placement
from trade.errors import MeasureError, PlanError
from trade.language import compose
from trade.load import contents
from trade.measure import IN_MM, Units, bare, read_length, read_weight
from trade.mounts import mount_of
from trade.plan.item import between
from trade.plan.model import AnyPiece, Plan, Thing

_FINGER_MM = data.house("finger_mm")
_ENDS_MM = data.house("ends_mm")
_HOOK_MM = data.house("hook_every_mm")
THIN_MM = data.house("thin_mm")
_SMALL_MM = data.house("shortest_mm")
_REACH_MM = data.house("hook_reach_mm")
BOARD_WIDTHS_MM: dict[Units, tuple[float, ...]] = {
    "imperial": (
        139.7,
        184.15,
        234.95,
        285.75,
    ),  # widths of boards as sold: 1x6, 1x8, 1x10, 1x12 (US standard dressed sizes)
    "metric": (146.0, 200.0, 250.0, 300.0),  # planed boards and edge-glued panels, from memory
}


_LENGTH: dict[Units, float] = {
    units: data.usual("bracket_shelf", units)["length_mm"] for units in BOARD_WIDTHS_MM
}
WHOLE_MM: dict[Units, float] = {"imperial": IN_MM, "metric": 10.0}
FINE_MM: dict[Units, float] = {"imperial": IN_MM / 16, "metric": 1.0}  # as people measure
_EVEN_FROM_MM = 12 * IN_MM
AmountUnit = Literal["length", "weight", "litre", "each"]
_BARE: dict[tuple[str, Units], str] = {
    ("length", "imperial"): "“{typed}”: of what? Say {typed} in or {typed} ft, along the shelf.",
    ("length", "metric"): "“{typed}”: of what? Say {typed} mm or {typed} cm, along the shelf.",
    ("weight", "imperial"): "“{typed}”: of what? Say {typed} lb or {typed} kg.",
    ("weight", "metric"): "“{typed}”: of what? Say {typed} kg or {typed} lb.",
}


class HangRequest(msgspec.Struct, frozen=True, kw_only=True):
    """What shall hang.

    Where its middle and its top go, how long, deep and high it is, and what it carries.

    `goes`: how it sits on a wall, as in the tables of wants and contents; `high_mm`: of a body, 0
    for none; `body_kg`: of a body, empty; None when nobody weighed it; `board`, `thickness_mm`: of
    a shelf when they are already chosen, else None; `held_with`: what alone may go into the wall,
    by its key on the shopping list, of a screw with or without its length; empty: anything.
    """

    key: str
    name: str
    goes: data.Goes
    x_mm: float
    top_mm: float
    length_mm: float
    depth_mm: float
    use: str = "everyday"
    high_mm: float = 0.0
    body_kg: float | None = None
    board: str | None = None
    thickness_mm: float | None = None
    things: tuple[Thing, ...] = ()
    held_with: str = ""


def wish_for(
    plan: Plan,
    what: str,
    amount: float | None,
    x_mm: float,
    top_mm: float,
    length_mm: float | None = None,
    depth_mm: float | None = None,
) -> HangRequest:
    """Return the wish for something out of the lists.

    Args:
        plan: the wall it shall hang on.
        what: a row of the contents or of the wants table.
        amount: of contents, as `contents.thing` wants it, one when None; else what it must carry,
          kg, None when nobody knows.
        x_mm: where its middle goes, from the left corner.
        top_mm: where its top goes, above the floor.
        length_mm: how long it is; None for what it needs.
        depth_mm: how deep; None likewise.

    Raises:
        PlanError: neither list has it, or an absurd weight.
    """
    key = placement.free_key(plan)
    between(depth_mm, 30, 1500, "depth_mm", "How deep it is")
    between(length_mm, 50, plan.wall.width_mm, "length_mm", "How long it is")
    if what in data.wants():
        row = data.wants()[what]
        return HangRequest(
            key=key,
            name=f"{row.name.removeprefix('a ').split(',')[0].capitalize()} {len(plan.pieces) + 1}",
            goes=row.goes,
            x_mm=x_mm,
            top_mm=row.top_mm if row.goes in ("floor", "sit") else top_mm,
            length_mm=length_mm or _whole(row.length_mm, plan.units),
            depth_mm=depth_mm or _whole(row.depth_mm, plan.units),
            high_mm=_whole(row.high_mm, plan.units),
            body_kg=row.kg,
            use="sitting" if row.goes == "sit" else "everyday",
            things=() if amount is None else (Thing(name="What it carries", mass_kg=amount),),
        )
    if what not in data.contents():
        raise PlanError(compose("“{thing}” is not on the list of things.", thing=what), "what")
    kept = data.contents()[what]
    amount = amount or 1.0
    thing = contents.thing(what, amount, plan.units)
    if kept.per == "metre":
        long = amount
    else:
        long = (kept.wide_mm or _HOOK_MM) * amount if kept.goes == "hang" else 0.0
    needs = max(long + _ENDS_MM, _SMALL_MM) if long else _LENGTH[plan.units]
    deep = kept.deep_mm + _FINGER_MM
    reach = (
        _REACH_MM
        if kept.goes == "hang"
        else next((wide for wide in BOARD_WIDTHS_MM[plan.units] if wide >= deep), deep)
    )
    return HangRequest(
        key=key,
        name=thing.name[:80],
        goes=kept.goes,
        x_mm=x_mm,
        top_mm=top_mm,
        length_mm=min(length_mm or _whole(needs, plan.units), plan.wall.width_mm),
        depth_mm=depth_mm or reach,
        things=(thing,),
    )


def _whole(size_mm: float, units: Units) -> float:
    """Return a size of ours as somebody would name it.

    Even inches, single ones where it is small; or centimetres.
    """
    step = WHOLE_MM[units] * (2 if units == "imperial" and size_mm > _EVEN_FROM_MM else 1)
    return round(size_mm / step) * step


def counted_in(what: str) -> AmountUnit:
    """Return in what an amount of something is said; of what nobody knows, in pieces."""
    if what in data.wants():
        return "weight"
    per = data.contents()[what].per if what in data.contents() else "each"
    return "length" if per == "metre" else per


def amount_of(what: str, typed: str, units: Units, shown: str = "") -> float:
    """How much of something, as a person says it.

    A length, a number, litres; or the weight that a want must carry, kg.

    Args:
        what: a row of the contents or of the wants table.
        typed: how much.
        units: of the person.
        shown: in what the field said that a bare number is read (see `counted_in`); where it said
          nothing, or something else, a bare length or weight is asked back.

    Raises:
        MeasureError: it is no length or no weight where one is wanted, or one without its unit.
        PlanError: it is no number, or absurd.
    """
    unit = counted_in(what)
    if unit in ("length", "weight"):
        if bare(typed) and typed.strip() and shown != unit:
            raise MeasureError(compose(_BARE[unit, units], typed=typed.strip()), typed)
        return read_length(typed, units) if unit == "length" else read_weight(typed, units)
    try:
        number = float(typed.replace(",", "."))
    except ValueError:
        number = math.nan
    if not 0 < number <= 1000:
        raise PlanError(
            compose(
                "“{typed}” is not a number of litres between 0 and 1 000."
                if unit == "litre"
                else "“{typed}” is not a number of them between 0 and 1 000.",
                typed=typed,
            ),
            "amount",
        )
    return number


def wish_of(piece: AnyPiece) -> HangRequest:
    """Return what a piece that is already on the wall is there for, however it hangs."""
    mount = mount_of(piece)
    row, high = data.mounting_kinds()[mount.kind], piece.high_mm
    board = mount.board_of(piece)
    chosen: dict[str, Any] = (
        {"board": board[0], "thickness_mm": board[1]} if board and board[1] <= THIN_MM else {}
    )
    body = row.serves[0] in ("body", "floor")
    return HangRequest(
        key=piece.key,
        name=piece.name,
        goes=row.serves[0],
        x_mm=piece.left_mm + piece.length_mm / 2,
        top_mm=piece.top_mm,
        length_mm=piece.length_mm,
        depth_mm=piece.depth_mm,
        use=piece.use,
        high_mm=high if body else 0.0,
        body_kg=mount.body_kg(piece),
        things=piece.things,
        **chosen,
    )
