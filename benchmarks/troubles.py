"""The table of troubles: `python -m benchmarks.troubles [--find SECONDS] [--keep]`.

What no longer fails is left out. `--find` looks for checks that fail of kinds that the table does
not have yet; `--keep` writes the
table anew, and the chapter of the handbook that is printed from it.
"""

import argparse
import csv
import json
import os
import random
import sys
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from pathlib import Path
from time import monotonic, process_time
from typing import Any

import msgspec

from tests.failing import WALLS
from tests.troubles import TABLE, Answer, Trouble, answer, failing, name_of, table
from trade import data
from trade.choose import placement
from trade.errors import PlanError
from trade.mounts import KINDS
from trade.plan.model import Plan

CHAPTER = Path(__file__).resolve().parents[1] / "docs" / "handbook" / "cures.md"
_WEIGHTS = ("things", "body_kg")  # without them nobody can tell
_HEAD = """# What goes wrong, and what helps

For every kind of mounting and every check of it that was brought to fail: the first change that is
proposed, and what the verdict is then; or why none helps. Each was tried on a plan of its own
(`tests/troubles.csv`), in millimetres. `python -m benchmarks.troubles --keep` prints this page.
"""


def main(seconds: float, keep: bool) -> int:
    """Look for more, say what differs, write it down."""
    kept = table() if TABLE.exists() else {}
    troubles = [each for each in kept if each.check in failing(each.plan)]
    print(*set(kept).difference(troubles), sep=" | no longer\n", end="\n\n")
    if seconds:
        known = {(each.kind, each.check) for each in troubles}
        troubles += _found(known, seconds)
    troubles.sort(key=lambda each: (list(data.mounting_kinds()).index(each.kind), each.check))
    with ProcessPoolExecutor() as pool:
        answers = list(pool.map(_timed, troubles, chunksize=4))
    said = {trouble: answered for trouble, (answered, _) in zip(troubles, answers, strict=True)}
    if keep:
        _write(said)
    differ = [trouble for trouble, now in said.items() if kept.get(trouble) != now]
    for trouble in differ:
        print(*trouble, *said[trouble], sep=" | ")
    cured = sum(each.state == "cured" for each in said.values())
    cpu = [each for _, each in answers]
    print(
        f"{len(said)} troubles of {len({each.kind for each in said})} kinds, {cured} with a cure; "
        f"{len(differ)} differ; CPU {sum(cpu) / len(cpu):.2f} s each, at most {max(cpu):.2f}"
    )
    return bool(differ) and not keep


def _timed(trouble: Trouble) -> tuple[Answer, float]:
    began = process_time()
    return answer(trouble)[0], process_time() - began


def _write(said: dict[Trouble, Answer]) -> None:
    with TABLE.open("w", newline="", encoding="utf-8") as file:
        csv.writer(file, lineterminator="\n").writerows((*each, *said[each]) for each in said)
    lines = [_HEAD]
    kind = ""
    for trouble, told in said.items():
        if trouble.kind != kind:
            kind = trouble.kind
            lines += [
                f"\n## {name_of(kind)}\n",
                "| what fails | what helps | then |",
                "| --- | --- | --- |",
            ]
        helps = told.said if told.state == "cured" else f"Nothing: {told.said}"
        then = told.outcome.replace("_", " ") if told.state == "cured" else told.state
        lines.append(f"| {data.rules()[trouble.check].name} | {helps} | {then} |")
    CHAPTER.write_text("\n".join(lines) + "\n", encoding="utf-8")


def _found(known: set[tuple[str, str]], seconds: float) -> list[Trouble]:
    """Return plans for checks that fail and are not known yet, each as plain as can be."""
    with ProcessPoolExecutor() as pool:
        looked = partial(_looked, seconds=seconds, known=known)
        drawn = [each for some in pool.map(looked, range(os.cpu_count() or 1)) for each in some]
    best: dict[tuple[str, str], Trouble] = {}
    for trouble in drawn:
        of = (trouble.kind, trouble.check)
        if of not in best or len(trouble.changes) < len(best[of].changes):
            best[of] = trouble
    return list(best.values())


def _looked(seed: int, seconds: float, known: set[tuple[str, str]]) -> list[Trouble]:
    dice, until = random.Random(seed), monotonic() + seconds
    best: dict[tuple[str, str], tuple[int, Trouble]] = {}
    kinds = sorted(KINDS)
    while monotonic() < until:
        kind, wall = dice.choice(kinds), dice.choice(sorted(WALLS))
        trouble = Trouble(kind, "", wall, json.dumps(_changes(kind, wall, dice)))
        codes = _codes(trouble)
        for code in codes:
            of = (kind, code)
            if of not in known and (of not in best or best[of][0] > len(codes)):
                best[of] = (len(codes), trouble._replace(check=code))
    return [_plainer(trouble) for _, trouble in best.values()]


def _codes(trouble: Trouble) -> list[str]:
    """Return the checks that fail of a trouble; none where there is no such plan."""
    try:
        return failing(trouble.plan)
    except (PlanError, msgspec.ValidationError):
        return []
    except ArithmeticError as error:
        print("A sum went wrong:", repr(error), *trouble)
        return []


def _plainer(trouble: Trouble) -> Trouble:
    """Return the trouble without the changes that it does not take."""
    changes = json.loads(trouble.changes)
    for part in list(changes):
        inside = changes[part]
        names = list(inside) if isinstance(inside, dict) else [None]
        for name in names:
            if name in _WEIGHTS:
                continue
            fewer = dict(changes)
            if name is None:
                del fewer[part]
            else:
                fewer[part] = {key: value for key, value in fewer[part].items() if key != name}
                if not fewer[part]:
                    del fewer[part]
            tried = trouble._replace(changes=json.dumps(fewer))
            if trouble.check in _codes(tried):
                changes = fewer
    return trouble._replace(changes=json.dumps(changes))


def _changes(kind: str, wall: str, dice: random.Random) -> dict[str, Any]:
    """Return changes as somebody may make them, few or many."""
    mount = KINDS[kind]
    plan = Plan(name="Wall", units="metric", wall=WALLS[wall])
    plain: Any = placement.put_up(plan, kind, 1600.0, 1500.0)
    heavy = round(10 ** dice.uniform(0.3, 2.2), 1)
    piece: dict[str, Any] = {"things": [{"name": "Load", "mass_kg": heavy}]}
    if mount.has_body:
        piece["body_kg"] = dice.choice((8.0, 18.0, 40.0))
    often = dice.choice((0.0, 0.1, 0.3))
    for name, value in _fields(kind, plain, dice):
        if dice.random() < often:
            piece[name] = value
    found: dict[str, Any] = {"piece": piece}
    if dice.random() < 0.15:
        found["features"] = list(_features(plain, dice))
    if dice.random() < 0.1:
        found["policy"] = dice.choice(({"anchors": "studs_only"}, {"hollow": "toggles"}))
    if dice.random() < 0.1:
        found["beside"] = [dice.choice((0.0, 300.0)), dice.choice((60.0, 150.0, -60.0))]
    return found


def _fields(kind: str, plain: Any, dice: random.Random) -> Iterator[tuple[str, Any]]:
    """Yield each of a piece's fields with another value."""
    yield "use", dice.choice(sorted(data.uses()))
    yield "left_mm", max(plain.left_mm + dice.choice((6.0, 60.0, 130.0, -90.0, 500.0)), 0.0)
    yield "top_mm", dice.choice((200.0, 900.0, 2000.0, 2400.0))
    yield "length_mm", round(plain.length_mm * dice.uniform(0.5, 2.0))
    yield "depth_mm", round(plain.depth_mm * dice.uniform(0.4, 2.5))
    yield "anchor", dice.choice((None, "plug_8", "plug_light", "toggle_14", "drill_plastic"))
    yield "screw", dice.choice(sorted(data.screws()))
    yield "screw_length_mm", dice.choice((25.4, 38.1, 50.8, 101.6, 152.4))
    many = dice.choice((1, 2, 3, 6))
    yield "supports_mm", [round(plain.length_mm * (n + 1) / (many + 1)) for n in range(many)]
    yield (
        "things",
        [
            {
                "name": "Load",
                "mass_kg": 30.0,
                "at_mm": 10.0,
                "out_mm": plain.depth_mm,
                "high_mm": 900.0,
            }
        ],
    )
    for ask in KINDS[kind].asks:
        value = getattr(plain, ask.field, None)
        if ask.how == "choice" and ask.table is not None:
            yield ask.field, dice.choice(sorted(ask.table()))
        elif ask.how == "flag":
            yield ask.field, not value
        elif ask.how == "count":
            yield ask.field, dice.choice((0, 1, 2, 4, 12))
        elif isinstance(value, float):
            yield ask.field, round(value * dice.choice((0.2, 0.5, 0.7, 1.5, 3.0)) or 20.0, 1)


def _features(plain: Any, dice: random.Random) -> Iterator[dict[str, Any]]:
    """Yield something where the piece is to hang; half the time wood that it is screwed to."""
    wood = ("blocking", "backing_board")
    kind = dice.choice(wood if dice.random() < 0.5 else sorted(data.features()))
    row = data.features()[kind]
    if kind in wood:
        high = dice.choice((140.0, 286.0, 600.0))
        bottom = max(plain.top_mm - high + dice.choice((0.0, 40.0, 100.0)), 0.0)
        yield {
            "kind": kind,
            "left_mm": max(plain.left_mm - dice.choice((0.0, 60.0, 200.0)), 0.0),
            "right_mm": plain.left_mm + plain.length_mm + dice.choice((0.0, 200.0)),
            "bottom_mm": bottom,
            "top_mm": min(bottom + high, 2400.0),
            "depth_mm": dice.choice((19.0, 38.0)),
        }
        return
    left = plain.left_mm + dice.choice((0.0, 60.0, plain.length_mm / 2))
    bottom = max(plain.top_mm - dice.choice((30.0, 200.0, 600.0)), 0.0)
    yield {
        "kind": kind,
        "left_mm": left,
        "right_mm": left + row.width_mm,
        "bottom_mm": bottom,
        "top_mm": min(bottom + row.height_mm, 2400.0),
    }


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--find", type=float, default=0.0, help="seconds to look for more")
    parser.add_argument("--keep", action="store_true", help="write the table and the chapter")
    asked = parser.parse_args()
    sys.exit(main(asked.find, asked.keep))
