"""`assess`, `explain`: verdicts, and every sum of them."""

import argparse

import msgspec

from trade import wording
from trade.assess import assess as judged
from trade.check import LIMITS, Check, PieceVerdict, Verdict, worst
from trade.cli import common
from trade.measure import Units
from trade.plan.model import Plan


def arguments(name: str, parser: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    common.add_plan(parser)
    if name == "explain":
        parser.add_argument("--piece", help="only this piece, by its key")
        parser.add_argument("--check", help="only this check, by its code")


def assess(asked: argparse.Namespace) -> int:
    """Judge a plan."""
    plan, units = common.load_plan(asked)
    verdict = _verdict(asked, plan)
    common.print_result(asked, as_json(verdict), as_text(verdict, units))
    return common.EXIT[verdict.outcome]


def explain(asked: argparse.Namespace) -> int:
    """Show every sum of a plan's pieces."""
    plan, units = common.load_plan(asked)
    verdict = _verdict(asked, plan)
    if asked.piece is not None:
        plan.piece(asked.piece)  # refuses one that is not there
    pieces = [each for each in verdict.pieces if asked.piece in (None, each.key)]
    chosen = [as_json(Verdict(pieces=(each,))) for each in pieces]
    common.print_result(
        asked, chosen, "\n\n".join(sums_of(each, units, asked.check) for each in pieces)
    )
    return common.EXIT[worst(each.outcome for each in pieces)]


def _verdict(asked: argparse.Namespace, plan: Plan) -> Verdict:
    """Judge all that hangs on the walls that are asked about."""
    every = (each for on in common.walls(asked, plan) for each in judged(on).pieces)
    return Verdict(pieces=tuple(every))


def as_json(verdict: Verdict) -> dict[str, object]:
    """Return a verdict with its words and utilisations, ready to be written."""

    def of_check(check: Check) -> dict[str, object]:
        return {
            "word": check.outcome,
            "utilisation": check.utilisation,
            **msgspec.structs.asdict(check),
        }

    def of_piece(piece: PieceVerdict) -> dict[str, object]:
        return {
            "key": piece.key,
            "name": piece.name,
            "word": piece.outcome,
            "but": piece.but,
            "used": piece.used,
            "limits": {
                limit: worst(check.outcome for check in piece.of(limit)) for limit in LIMITS
            },
            "find_out": piece.unknown,
            "assumptions": piece.assumptions,
            "checks": [of_check(check) for check in piece.checks],
        }

    return {"word": verdict.outcome, "pieces": [of_piece(piece) for piece in verdict.pieces]}


def as_text(verdict: Verdict, units: Units) -> str:
    """Return a verdict to read: a headline per piece, then its checks, worst first."""
    lines = [
        f"{wording.WORDS[verdict.outcome]}."
        if verdict.pieces
        else "Nothing hangs on this wall yet."
    ]
    for piece in verdict.pieces:
        lines += ["", f"{piece.name}: {wording.outcome(piece)}. {wording.headline(piece, units)}"]
        lines += [f"  {each.name}: {each.said}" for each in wording.standings(piece)]
        for check in piece.checks:
            used = wording.utilisation(check.utilisation)
            said = (
                f"{': '.join(filter(None, (check.name, wording.check_line(check, units))))} "
                f"({check.part}; {check.case})"
            )
            lines.append(f"  {used:>5}  {wording.WORDS[check.outcome]:<11}  {said}")
        lines += [f"  Find out: {ask}" for ask in piece.unknown]
        lines += [f"  Assumed: {assumption.text}" for assumption in piece.assumptions]
    return "\n".join(lines)


def stop(verdict: PieceVerdict, units: Units) -> list[str]:
    """Why a piece must not be drilled for yet, as a line to begin with; none where it holds."""
    if not verdict.fails:
        return []
    return [f"{wording.outcome(verdict)}: {wording.headline(verdict, units)} Don't drill yet."]


def sums_of(verdict: PieceVerdict, units: Units, code: str | None = None) -> str:
    """Every check of a piece, or one, as a hand calculation.

    Symbols, numbers, units, rule and source.
    """
    lines = [f"{verdict.name}: {wording.outcome(verdict)}. {wording.headline(verdict, units)}"]
    lines += [f"Assumed: {each.text}" for each in verdict.assumptions]
    lines += [f"Not known: {ask}" for ask in verdict.unknown]
    for check in verdict.checks:
        if code in (None, check.code):
            lines += [
                "",
                f"{check.name} ({check.code}), {check.part}, {check.case}: "
                f"{wording.WORDS[check.outcome]}",
            ]
            lines += [
                f"  {line.symbol:<14} {wording.quantity(line.result, units):<14} {line.formula}"
                for line in check.equations
            ]
            line = wording.check_line(check, units)
            lines.append(
                f"  {line}: {wording.utilisation(check.utilisation)}"
                if line
                else f"  {wording.phrase(check.sentence, units)}"
            )
            lines += [f"  {check.rule}", f"  Source: {check.source}."]
    return "\n".join(lines)
