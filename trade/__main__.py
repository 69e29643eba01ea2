"""The trade from a shell: `python -m trade assess plan.json`."""

import argparse
import sys
from pathlib import Path

import msgspec

from trade import data, planfile, say
from trade.assess import assess
from trade.check import Check, PieceVerdict, Verdict, Word
from trade.errors import TradeError
from trade.mark.marks import Mark, piece_marks
from trade.measure import Units, say_bit, say_gap, say_length
from trade.notes import word_of
from trade.plan import Plan
from trade.wall.survey import Survey, survey

EXIT: dict[Word, int] = {"holds": 0, "close": 0, "wont_hold": 1, "cannot_tell": 2}
BAD_FILE = 3


def main(argv: list[str] | None = None) -> int:
    """Run one command; the exit status says the verdict: 0 holds, 1 won't hold, 2 can't tell, 3 bad file."""
    parser = argparse.ArgumentParser(prog="python -m trade", description=__doc__)
    commands = parser.add_subparsers(dest="command", required=True)
    for name, what in (
        ("assess", "judge a plan"),
        ("marks", "say where to drill"),
        ("survey", "say what its readings amount to"),
    ):
        command = commands.add_parser(name, help=what)
        command.add_argument("plan", help="a plan file (JSON), or - for standard input")
        command.add_argument("--json", action="store_true", help="print the whole result as JSON")
        command.add_argument("--units", choices=("imperial", "metric"), help="print in these units, not the plan's own")
    commands.add_parser("schema", help="print the JSON Schema of the plan format")
    commands.add_parser("rules", help="print the handbook's chapter on the rules")
    asked = parser.parse_args(argv)
    if asked.command == "schema":
        print(_json(planfile.schema()))
        return 0
    if asked.command == "rules":
        print(rules_chapter())
        return 0
    try:
        raw = sys.stdin.buffer.read() if asked.plan == "-" else Path(asked.plan).read_bytes()
        plan = planfile.load(raw)
    except OSError as error:
        print(f"{asked.plan}: can't be read ({error.strerror}).", file=sys.stderr)
        return BAD_FILE
    except TradeError as error:
        where = getattr(error, "where", "")
        print(f"{asked.plan}: {where + ': ' if where else ''}{error}", file=sys.stderr)
        return BAD_FILE
    units: Units = asked.units or plan.units
    if asked.command == "marks":
        _print_marks(plan, units, asked.json)
        return 0
    if asked.command == "survey":
        known = survey(plan.wall, plan.supports_mm)
        print(_json(survey_as_json(known)) if asked.json else survey_as_text(known, plan, units))
        return 0
    verdict = assess(plan)
    print(_json(as_json(verdict)) if asked.json else as_text(verdict, units))
    return EXIT[verdict.word]


def _json(what: object) -> str:
    return msgspec.json.format(msgspec.json.encode(what), indent=2).decode()


def as_json(verdict: Verdict) -> dict[str, object]:
    """A verdict with its words and utilisations, ready to be written."""

    def of_check(check: Check) -> dict[str, object]:
        return {"word": check.word, "utilisation": check.utilisation, **msgspec.structs.asdict(check)}

    def of_piece(piece: PieceVerdict) -> dict[str, object]:
        return {
            "key": piece.key, "name": piece.name, "word": piece.word, "find_out": piece.unknown,
            "assumptions": piece.assumptions, "checks": [of_check(check) for check in piece.checks],
        }  # fmt: skip

    return {"word": verdict.word, "pieces": [of_piece(piece) for piece in verdict.pieces]}


def as_text(verdict: Verdict, units: Units) -> str:
    """A verdict to read: a headline per piece, then its checks, worst first."""
    lines = [f"{say.WORDS[verdict.word]}." if verdict.pieces else "Nothing hangs on this wall yet."]
    for piece in verdict.pieces:
        lines += ["", f"{piece.name}: {say.WORDS[piece.word]}. {say.headline(piece, units)}"]
        for check in piece.checks:
            used = say.utilisation(check.utilisation)
            said = f"{check.name}: {say.check_line(check, units)} ({check.part}; {check.case})"
            lines.append(f"  {used:>5}  {say.WORDS[check.word]:<10}  {said}")
        lines += [f"  Find out: {ask}" for ask in piece.unknown]
        lines += [f"  Assumed: {assumption.text}" for assumption in piece.assumptions]
    return "\n".join(lines)


def survey_as_json(known: Survey) -> dict[str, object]:
    """What readings amount to, with the words of each stud's confidence, ready to be written."""
    found = known.inference
    return {
        "masonry": known.masonry, "lining_mm": known.lining_mm, "ask_mm": found.ask_mm,
        "studs": [{**stud._asdict(), "confidence": stud.confidence} for stud in found.studs],
        "others": [other._asdict() for other in found.others], "grid": found.grid._asdict() if found.grid else None,
        "rejected": [{"reading": i, "why": why} for i, why in found.rejected],
        "contradictions": [each._asdict() for each in known.contradictions],
    }  # fmt: skip


def survey_as_text(known: Survey, plan: Plan, units: Units) -> str:
    """What readings amount to, to read."""
    found, readings = known.inference, plan.wall.readings

    def jotted(these: tuple[int, ...]) -> str:
        return ", ".join(word_of(readings[i], units) for i in these)

    lines = [known.masonry] if known.masonry else []
    for stud in found.studs:
        kind = "doubled stud" if stud.kind == "double" else "stud"
        place = f"{say_length(stud.centre_mm, units)} ± {say_gap(stud.reach_mm, units)}"
        lines.append(f"{stud.confidence:<9} {kind} at {place}, {say.chance(stud.probability)}: {'; '.join(stud.reasons)}")
    lines += [f"rather a {other.kind} at {say_length(other.centre_mm, units)}" for other in found.others]
    lines += [
        f"contradiction at {say_length(c.at_mm, units)}: {jotted(c.for_it)} against {jotted(c.against)}"
        for c in known.contradictions
    ]
    lines += [f"not counted: {jotted((i,))}, for {why}" for i, why in found.rejected]
    lines += [say.phrase(doubt, units) for doubt in known.doubts]
    if found.ask_mm is not None:
        lines.append(f"next: push a thin nail in at {say_length(found.ask_mm, units)}")
    return "\n".join(lines) or "The readings make no stud likely."


def _print_marks(plan: Plan, units: Units, as_json_too: bool) -> None:
    made = {piece.key: piece_marks(piece, plan.wall, units) for piece in plan.pieces}
    if as_json_too:
        print(_json(made))
        return
    for piece in plan.pieces:
        print(piece.name)
        for mark in made[piece.key]:
            print(f"  {mark.number:>3}  {mark_line(mark, units)}")


def mark_line(mark: Mark, units: Units) -> str:
    """One hole in words."""
    place = f"{say_length(mark.x_mm, units)} from the left, {say_length(mark.y_mm, units)} up"
    bit = f"{say_bit(mark.bit_mm, units) if mark.bit_mm else 'no'} bit, {say_length(mark.depth_mm, units)} deep"
    if mark.screw is None or mark.screw_length_mm is None:
        return f"in the shelf's back, {mark.part}: {place}; {bit}"
    row = data.screws()[mark.screw]
    name = row.name_imperial if units == "imperial" else row.name_metric
    return f"{mark.part}: {place}; {bit}; {name}, {say_length(mark.screw_length_mm, units)}"


def rules_chapter() -> str:
    """The handbook's chapter on the rules, from the tables: every check, then every number of ours."""
    lines = [
        "# The rules",
        "",
        "Printed by `python -m trade rules` from the tables; do not edit by hand.",
        "",
        "## Checks",
        "",
    ]
    for code, rule in data.rules().items():
        lines += [f"### {rule.name}", "", f"`{code}`. {rule.rule}", "", f"Source: {rule.source}.", ""]
    lines += ["## Numbers of the house", "", "| number | value | meaning | source |", "| --- | --- | --- | --- |"]
    lines += [f"| `{key}` | {row.value:g} | {row.meaning} | {row.source} |" for key, row in data.house_rules().items()]
    return "\n".join(lines)


if __name__ == "__main__":
    try:
        status = main()
        sys.stdout.flush()
    except BrokenPipeError:  # the reader had enough, as with `| head`
        sys.stdout = None  # nothing left to flush to
        status = 0
    sys.exit(status)
