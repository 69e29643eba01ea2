"""Every trouble of every kind: a small plan in which a check fails, and what is said of it.

`table()` is what is kept; `benchmarks/troubles.py` looks for more and writes it anew.
"""

import csv
import json
from pathlib import Path
from typing import NamedTuple

import msgspec

from tests.failing import WALLS
from tests.plans import bracket_shelf
from trade import wording
from trade.assess import judge_piece
from trade.check import FAILED
from trade.choose import placement
from trade.choose.cures import Cures, look_for_cures
from trade.mounts import KINDS
from trade.plan.features import Feature
from trade.plan.model import AnyPiece, Plan, Policy

TABLE = Path(__file__).with_name("troubles.csv")
KEY = "piece"


class Trouble(NamedTuple):
    """A plan in which a check of a kind fails.

    `changes`: of a new piece in the middle of the wall, as JSON: `piece`, its fields; `features` on
    the wall; `policy`; `beside`, a shelf so far to the right and so much higher.
    """

    kind: str
    check: str
    wall: str
    changes: str

    @property
    def plan(self) -> Plan:
        """The plan.

        Raises:
            PlanError: no such plan can be.
        """
        changes = json.loads(self.changes)
        features = msgspec.convert(changes.get("features", []), tuple[Feature, ...])
        wall = msgspec.structs.replace(WALLS[self.wall], features=features)
        policy = msgspec.convert(changes.get("policy", {}), Policy)
        plan = Plan(name="Wall", units="metric", wall=wall, policy=policy)
        plain = placement.put_up(plan, self.kind, 1600.0, 1500.0)
        made = msgspec.to_builtins(plain) | {"key": KEY} | changes.get("piece", {})
        pieces: list[AnyPiece] = [msgspec.convert(made, AnyPiece)]
        if (beside := changes.get("beside")) is not None:
            right, up = beside
            left, top = pieces[0].left_mm + right, pieces[0].top_mm + up
            pieces.append(bracket_shelf(key="beside", left_mm=left, top_mm=top))
        return msgspec.structs.replace(plan, pieces=tuple(pieces))


class Answer(NamedTuple):
    """What is said of a trouble: what came of looking for cures, and the first, or the reason."""

    state: str
    outcome: str
    said: str


def failing(plan: Plan) -> list[str]:
    """Return the codes of the checks of a plan's piece that fail, or that are a nuisance.

    None where something must be found out first.
    """
    verdict = judge_piece(plan.piece(KEY), plan)
    checks = () if verdict.outcome == "cannot_tell" else verdict.checks
    return [check.code for check in checks if check.outcome in (*FAILED, "holds_but")]


def answer(trouble: Trouble) -> tuple[Answer, Cures, Plan]:
    """Return what is said of a trouble today."""
    plan = trouble.plan
    found = look_for_cures(plan, KEY)
    if found.found:
        first = found.found[0]
        said = wording.phrase(first.label, "metric")
        return Answer(found.state, first.outcome, said), found, plan
    short = wording.phrase(found.short, "metric") if found.short is not None else ""
    return Answer(found.state, "", short), found, plan


def table() -> dict[Trouble, Answer]:
    """Return what is kept."""
    with TABLE.open(newline="", encoding="utf-8") as file:
        return {Trouble(*line[:4]): Answer(*line[4:]) for line in csv.reader(file)}


def name_of(kind: str) -> str:
    """Return what a kind is called."""
    return KINDS[kind].name
