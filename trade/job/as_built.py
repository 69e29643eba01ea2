"""A piece as it really hangs: what is other than planned, and whether that holds too."""

from typing import NamedTuple

from msgspec.structs import replace

from trade import data
from trade.assess import judge_piece
from trade.calculation import Quantity
from trade.check import Message, PieceVerdict
from trade.errors import PlanError
from trade.language import counted
from trade.mounts import holes, mount_of
from trade.mounts.existing_holes import as_hung
from trade.plan.as_built import Hung
from trade.plan.model import AnyPiece, Plan


class AsBuiltReport(NamedTuple):
    """The piece as it hangs, how that differs from the plan, and the verdict on it; `refusal`.

    Why it can't be judged.
    """

    piece: AnyPiece
    differences: tuple[Message, ...]
    verdict: PieceVerdict | None
    refusal: str = ""


def as_built(plan: Plan, key: str) -> AsBuiltReport:
    """Return what hangs there.

    Raises:
        PlanError: no such piece.
    """
    piece, hung = plan.piece(key), plan.as_built.as_hung(key)
    if hung is None:
        return AsBuiltReport(piece, (), judge_piece(piece, plan))
    differences = tuple(_differences(piece, hung, plan))
    try:
        now, there = as_hung(piece, plan.as_built), plan
        if (
            hung.up_mm or hung.right_mm
        ):  # its holes were told at the plan's marks, and are where it hangs
            others = tuple(
                hole for hole in plan.as_built.drilled if hole.piece != key or hole.met != "good"
            )
            there = replace(plan, as_built=replace(plan.as_built, drilled=others))
        return AsBuiltReport(now, differences, judge_piece(now, there.with_piece(now)))
    except PlanError as error:
        return AsBuiltReport(piece, differences, None, str(error))


def _differences(piece: AnyPiece, hung: Hung, plan: Plan) -> list[Message]:
    found = []
    screws = data.screws()
    if hung.screw is not None and hung.screw != piece.screw:
        new, old = screws[hung.screw], screws[piece.screw]
        names = {"new": new.called(plan.units), "old": old.called(plan.units)}
        found.append(Message("{new} went in instead of {old}.", dict(names)))
    if hung.screw_length_mm is not None and abs(hung.screw_length_mm - piece.screw_length_mm) > 0.5:
        sizes = {
            "new": Quantity(hung.screw_length_mm, "length"),
            "old": Quantity(piece.screw_length_mm, "length"),
        }
        found.append(Message("The screws are {new} long, not {old}.", dict(sizes)))
    if hung.anchor is not None and hung.anchor != piece.anchor:
        found.append(
            Message("Between studs it hangs on: {name}.", {"name": _anchor(hung.anchor, plan)})
        )
    for value, words in (
        (hung.up_mm, ("higher", "lower")),
        (hung.right_mm, ("further right", "further left")),
    ):
        if value:
            found.append(
                Message(
                    "It hangs {by} {further} than planned.",
                    {
                        "by": Quantity(abs(value), "length"),
                        "further": words[0] if value > 0 else words[1],
                    },
                )
            )
    made, marks = (
        plan.as_built.existing_holes(piece.key),
        holes(mount_of(piece).supports(piece, plan.wall)),
    )
    missing = sum(not any(hole.is_at(mark.x_mm, mark.y_mm) for hole in made) for mark in marks)
    if made and missing and not (hung.up_mm or hung.right_mm):
        found.append(
            Message(
                "{missing} not confirmed as sound.",
                {
                    "missing": counted(
                        missing,
                        "{n} of its {holes} was",
                        "{n} of its {holes} were",
                        holes=counted(len(marks), "{n} hole", "{n} holes"),
                    )
                },
            )
        )
    return found


def _anchor(key: str, plan: Plan) -> str:
    packet = next((each.name for each in plan.wall.packets if each.key == key), None)
    return packet or data.row(data.anchors(), key, "anchor").name
